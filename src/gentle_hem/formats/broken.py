"""Long strips drawn with a break, so that they do not make everything else small on the screen.

┌──────────⌇⌇──────┐     what lies between the waves is left out of the drawing;
└──────────⌇⌇──────┘     the lengths said are those of the whole strip
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.pattern import Mark, Notch, Piece
from gentle_hem.core.replace import replace

SLENDER = 4.0
"""A piece more than so many times as long as it is high is a strip."""

LONGEST = 1.15
"""A strip is drawn no longer than so many times the longest of the other pieces."""

LEAST = 500.0
BREAK_AT = 0.62
WAVE = 12.0
APART = 26.0
"""The break: how far along it is, how deep its waves are, and how far its two lines lie apart (mm)."""


@dataclass(frozen=True, slots=True)
class Shown:
    """A piece as it is drawn on screen, and the waves of its break; no waves where it is whole."""

    piece: Piece
    waves: tuple[Path, ...] = ()


def shown_pieces(pieces: Sequence[Piece]) -> list[Shown]:
    """The pieces as they are drawn on screen."""
    sizes = [(piece, *_size(piece)) for piece in pieces]
    others = [max(wide, high) for _, wide, high in sizes if not _is_strip(wide, high)]
    most = max(LEAST, LONGEST * max(others, default=0.0))
    return [
        _broken(piece, most) if _is_strip(wide, high) and wide > most * 1.2 and _is_straight(piece) else Shown(piece)
        for piece, wide, high in sizes
    ]


def _size(piece: Piece) -> tuple[float, float]:
    left, bottom, right, top = piece.seam_line.box
    return right - left, top - bottom


def _is_strip(wide: float, high: float) -> bool:
    return wide > SLENDER * high


def _is_straight(piece: Piece) -> bool:
    return not piece.darts and all(isinstance(s, Line) for edge in piece.edges for s in edge.path.segments)


def _broken(piece: Piece, most: float) -> Shown:
    left, bottom, right, top = piece.seam_line.box
    low = left + most * BREAK_AT
    out = right - left - most
    high = low + out

    def moved(place: Point) -> Point:
        return Point(place.x - out if place.x >= high else min(place.x, low), place.y)

    def drawn(path: Path) -> Path:
        places = [path.start, *(segment.end for segment in path.segments)]
        return Path.through(*(moved(place) for place in places))

    def notch(mark: Notch) -> Notch | None:
        path = piece.edge(mark.edge).path
        place = path.point_at(mark.at)
        if low < place.x < high:
            return None
        passed = (path.start.x <= low) == (place.x >= high)
        return replace(mark, at=mark.at - out) if passed else mark

    edges = tuple(replace(edge, path=drawn(edge.path)) for edge in piece.edges)
    marks = tuple(
        Mark(mark.kind, drawn(mark.path), mark.name)
        for mark in piece.marks
        if all(isinstance(s, Line) for s in mark.path.segments)
    )
    made = replace(
        piece, edges=edges, notches=tuple(n for n in map(notch, piece.notches) if n is not None), marks=marks,
        grain=(moved(piece.grain[0]), moved(piece.grain[1])),
    )  # fmt: skip
    allowance = max((edge.allowance for edge in piece.edges), default=0.0) + WAVE
    return Shown(made, tuple(_wave(low + by, bottom - allowance, top + allowance) for by in (-APART / 2, APART / 2)))


def _wave(x: float, bottom: float, top: float) -> Path:
    """A line across the strip in two bends."""
    third = (top - bottom) / 3
    return Path.of(
        Cubic(Point(x, top), Point(x + WAVE, top - third), Point(x - WAVE, top - 2 * third), Point(x, bottom))
    )
