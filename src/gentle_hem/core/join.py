"""Two edges unrolled and laid one above the other: the waist seam, and any other.

    bodice   CF ───────── dart ───────────── side ──────── dart ─────── CB
               │            │                  ╲              ╲          ╲
    lower    CF ───────── dart ───────────────── side ──────── dart ─────── CB

Lengths are those of the half garment where the edges begin at the centre front, on the stitching line, darts closed.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from gentle_hem.core.pattern import Dart, Piece
from gentle_hem.core.seams import Run, Stretch
from gentle_hem.core.what import UNNAMED, Sign, What


@dataclass(frozen=True, slots=True)
class Landmark:
    """A named place along an unrolled edge: its distance from the start, darts closed."""

    name: Sign
    at: float


@dataclass(frozen=True, slots=True)
class Laid:
    """One stretch as it lies in an unrolled edge: the piece, its edge, the stitched length."""

    piece: What
    edge: str
    length: float


@dataclass(frozen=True, slots=True)
class Unrolled:
    """One side of a join laid out straight, from its first landmark to its last."""

    landmarks: tuple[Landmark, ...]
    runs: tuple[Laid, ...] = ()
    """The stretches it is made of, in order."""

    @property
    def length(self) -> float:
        return self.landmarks[-1].at

    def drawn_up(self, fullness: float) -> Unrolled:
        """The edge as it lies once it is gathered to a ``fullness``-th of its length."""
        if fullness == 1.0:
            return self
        return Unrolled(
            tuple(Landmark(mark.name, mark.at / fullness) for mark in self.landmarks),
            tuple(Laid(run.piece, run.edge, run.length / fullness) for run in self.runs),
        )

    def at(self, name: str) -> float | None:
        """Distance of a landmark from the start; None when this edge does not have it."""
        for mark in self.landmarks:
            if mark.name == name:
                return mark.at
        return None

    def between(self, first: str, last: str) -> float:
        """Length from one landmark to another; KeyError when either is missing."""
        start, end = self.at(first), self.at(last)
        if start is None or end is None:
            raise KeyError(f"no {first if start is None else last} on this edge")
        return end - start

    def darts(self) -> tuple[Landmark, ...]:
        """The darts and princess seams met on the way."""
        return tuple(mark for mark in self.landmarks if mark.name.shaping)


def unroll(run: Run, pieces: Mapping[What, Piece]) -> Unrolled:
    """Lay a run straight. Darts and notches with a landmark become landmarks; a dart, being closed, is one place."""
    corners = run.corners or _ends(run, pieces)
    found = [Landmark(corners[0], 0.0)]
    laid = []
    start = 0.0
    for stretch, corner in zip(run.stretches, corners[1:], strict=True):
        piece = pieces[stretch.piece]
        darts = piece.darts_of(stretch.edge)
        low, high = closed(stretch.start, darts), closed(_end(stretch, piece), darts)
        length = high - low
        marks = [(closed(dart.at + dart.intake / 2, darts), dart.landmark) for dart in darts]
        marks += [(closed(n.at, darts), n.landmark) for n in piece.notches if n.edge == stretch.edge and n.landmark]
        for at, name in sorted(marks, reverse=stretch.backwards):
            if low <= at <= high:
                found.append(Landmark(name, start + (high - at if stretch.backwards else at - low)))
        laid.append(Laid(stretch.piece, stretch.edge, length))
        start += length
        found.append(Landmark(corner, start))
    return Unrolled(tuple(found), tuple(laid))


def _end(stretch: Stretch, piece: Piece) -> float:
    return piece.edge(stretch.edge).drawn_length if stretch.end is None else stretch.end


def _ends(run: Run, pieces: Mapping[What, Piece]) -> tuple[Sign, ...]:
    """The ends of a run that has no names for them: by the edges its first piece has there."""
    first, last = run.stretches[0], run.stretches[-1]
    return (
        _neighbour(first, pieces[first.piece], at_start=True),
        *([UNNAMED] * (len(run.stretches) - 1)),
        _neighbour(last, pieces[last.piece], at_start=False),
    )


def _neighbour(stretch: Stretch, piece: Piece, *, at_start: bool) -> Sign:
    place = piece.at_edge(stretch.edge)
    if place is None:
        return UNNAMED  # a line marked inside has no neighbours
    step = -1 if at_start != stretch.backwards else 1
    return Sign(piece.edges[(place + step) % len(piece.edges)].role.value)


def stitched(stretches: Iterable[Stretch], pieces: Mapping[What, Piece]) -> float:
    """Stitched length of stretches end to end, dart mouths left out (mm)."""
    total = 0.0
    for stretch in stretches:
        piece = pieces[stretch.piece]
        if stretch.is_whole:
            total += piece.stitched_length(stretch.edge)
        else:
            darts = piece.darts_of(stretch.edge)
            total += closed(_end(stretch, piece), darts) - closed(stretch.start, darts)
    return total


def closed(at: float, darts: tuple[Dart, ...]) -> float:
    """A length along an edge as it becomes when the darts before it are closed."""
    taken = 0.0
    for dart in darts:
        taken += min(max(at - dart.at, 0.0), dart.intake)
    return at - taken


def opened(at: float, darts: Iterable[Dart]) -> float:
    """A length along an edge with its darts closed, as it is with them open; the darts in the order of the path."""
    for dart in darts:
        if at > dart.at:
            at += dart.intake
    return at
