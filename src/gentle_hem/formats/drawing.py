"""What is drawn of a piece, whatever it is drawn with: strokes and words, each with its meaning.

SVG, DXF and PDF all ask here, so a notch that is on one is on all of them.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import Enum
from textwrap import wrap

from gentle_hem.core.findings import Severity
from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Path, Placement, Point
from gentle_hem.core.geometry.segment import Line
from gentle_hem.core.pattern import Edge, Notch, Piece, Role
from gentle_hem.core.units import Said

NOTCH_DEPTH = 6.0
PLEAT_MARK = 30.0
"""How far down a fold is marked that is laid over instead of stitched (mm)."""
NOTCH_GAP = 4.0
ARROW = 5.0


class Ink(Enum):
    """What a stroke means. The number is its layer in the apparel exchange standard ASTM D6673 (from memory)."""

    CUT = 1
    NOTCH = 4
    FOLD = 6
    GRAIN = 7
    INTERNAL = 8
    SEAM = 14
    TEXT = 15


@dataclass(frozen=True, slots=True)
class Stroke:
    """A line to be drawn."""

    ink: Ink
    path: Path
    closed: bool = False

    def placed(self, placement: Placement) -> Stroke:
        return Stroke(self.ink, self.path.placed(placement), self.closed)


@dataclass(frozen=True, slots=True)
class Words:
    """Lines of text, the first one at ``at`` and the rest below it; ``size`` is a line's height in mm."""

    at: Point
    lines: tuple[str, ...]
    size: float = 6.0


def strokes(piece: Piece) -> Iterator[Stroke]:
    """Everything drawn of a piece, outlines first."""
    yield Stroke(Ink.CUT, piece.cut_line, closed=True)
    yield Stroke(Ink.SEAM, piece.seam_line, closed=True)
    for edge in piece.edges:
        if is_fold(piece, edge):
            yield Stroke(Ink.FOLD, edge.path)
    for dart in piece.darts:
        near, far = piece.dart_leg_paths(dart)
        if dart.pleat:
            for leg in (near, far):
                yield Stroke(Ink.INTERNAL, leg.between(0.0, min(PLEAT_MARK, leg.length)))
        else:
            yield Stroke(Ink.INTERNAL, near.then(far.reversed()))
    for mark in piece.marks:
        yield Stroke(Ink.INTERNAL, mark.path)
    yield from (Stroke(Ink.GRAIN, line) for line in _grain(piece))
    for notch in piece.notches:
        yield from (Stroke(Ink.NOTCH, tick) for tick in _ticks(piece, notch))


def is_fold(piece: Piece, edge: Edge) -> bool:
    """Whether this edge lies on the fold of the cloth."""
    return piece.on_fold and edge.allowance == 0 and edge.role in (Role.CENTRE_FRONT, Role.CENTRE_BACK)


def _grain(piece: Piece) -> Iterator[Path]:
    start, end = piece.grain
    yield Path.through(start, end)
    along = (end - start).unit
    for tip, back in ((end, -along), (start, along)):
        barb_left, barb_right = (tip + back * ARROW + back.left * side for side in (ARROW / 2, -ARROW / 2))
        yield Path.through(barb_left, tip, barb_right)


def _ticks(piece: Piece, notch: Notch) -> Iterator[Path]:
    """A notch's strokes, from the seam line out to the cut line; two side by side when double."""
    edge = piece.edge(notch.edge)
    places = [notch.at - NOTCH_GAP / 2, notch.at + NOTCH_GAP / 2] if notch.double else [notch.at]
    for at in places:
        at = min(max(at, 0.0), edge.drawn_length)
        here, outward = edge.path.point_at(at), -edge.path.tangent_at(at).left
        reach = edge.allowance if edge.allowance > 0 else -NOTCH_DEPTH
        yield Path.of(Line(here, here + outward * reach))


def not_ready(garment: Garment, unit: Said) -> tuple[str, ...]:
    """Why a garment must not be cut yet, a sentence each; nothing when it may."""
    return tuple(finding.text(unit) for finding in garment.findings if finding.severity is Severity.STOP)


LONGEST_REASON = 90


def _as_cut(piece: Piece) -> str:
    """How several of a piece lie on the cloth."""
    if piece.cut == 1:
        return ""
    return ", all alike" if piece.alike else ", a pair" if piece.cut == 2 else ", in pairs"


def label(piece: Piece, garment_name: str, figure_name: str, stops: tuple[str, ...] = ()) -> Words:
    """The piece's name, how often it is cut, and whose it is, inside the piece beside the grain line. ``stops`` say why
    the garment must not be cut yet.
    """
    cut = f"cut {piece.cut}" + (" on the fold" if piece.on_fold else _as_cut(piece))
    whose = " · ".join(text for text in (garment_name, figure_name) if text)
    lines: tuple[str, ...] = (piece.name.upper(), f"{cut} · {piece.cloth}", whose, piece.remark)
    start, end = piece.grain
    top = start if start.y > end.y else end
    left, bottom, right, _ = piece.seam_line.box
    size = min(max((right - left) / 80, 3.5), 9.0)
    if stops:
        reason = stops[0] if len(stops[0]) <= LONGEST_REASON else f"{stops[0][:LONGEST_REASON]}…"
        wide = max(int((right - left) * 0.6 / (size * 0.6)), 12)
        lines = ("NOT READY:", *wrap(reason, wide), *lines)
    grain_is_left = top.x < (left + right) / 2
    beside = top.x + 8 if grain_is_left else top.x - size * 22
    return Words(Point(beside, max(top.y - 8, bottom + size * 6)), tuple(line for line in lines if line), size)


@dataclass(frozen=True, slots=True)
class Laid:
    """A piece and where it lies on the sheet."""

    piece: Piece
    placement: Placement


def lay_side_by_side(
    pieces: Sequence[Piece], gap: float = 20.0, widest: float = 1800.0
) -> tuple[list[Laid], float, float]:
    """Pieces in rows on one sheet from the top left, in order, none touching; small ones below each other.

    Returns where each lies, and the sheet's width and height. The sheet's corner is the origin, x to the
    right and y up. This is a drawing for paper, not a cloth layout.
    """
    rows: list[list[list[Piece]]] = [[]]
    filled = gap
    for column in _columns(pieces, gap):
        width = max(map(_width, column))
        if rows[-1] and filled + width + gap > widest:
            rows.append([])
            filled = gap
        rows[-1].append(column)
        filled += width + gap

    laid: list[Laid] = []
    sheet_width, row_top = 0.0, -gap
    for row in rows:
        x, lowest = gap, row_top
        for column in row:
            y = row_top
            for piece in column:
                left, _, _, top = piece.cut_line.box
                laid.append(Laid(piece, Placement.shift(Point(x - left, y - top))))
                y -= _height(piece) + gap
            x += max(map(_width, column)) + gap
            lowest = min(lowest, y)
        sheet_width, row_top = max(sheet_width, x), lowest
    height = -row_top
    raised = Placement.shift(Point(0, height))
    return [Laid(item.piece, item.placement.then(raised)) for item in laid], sheet_width, height


def _columns(pieces: Sequence[Piece], gap: float) -> list[list[Piece]]:
    """Pieces in order, those that fit below each other within the tallest one's height put together."""
    tallest = max(map(_height, pieces), default=0.0)
    columns: list[list[Piece]] = []
    for piece in pieces:
        if columns and sum(_height(other) + gap for other in columns[-1]) + _height(piece) <= tallest:
            columns[-1].append(piece)
        else:
            columns.append([piece])
    return columns


def lay_to_fill(pieces: Sequence[Piece], shape: float, gap: float = 60.0) -> tuple[list[Laid], float, float]:
    """Pieces in rows, as many rows as show them largest on a sheet of the given width to height."""
    if not pieces:
        return [], gap, gap
    widths = [gap + sum(_width(piece) + gap for piece in pieces[: i + 1]) for i in range(len(pieces))]
    tries = (lay_side_by_side(pieces, gap, widest) for widest in widths)
    return min(tries, key=lambda tried: max(tried[1] / shape, tried[2]))


def _width(piece: Piece) -> float:
    return piece.cut_line.box[2] - piece.cut_line.box[0]


def _height(piece: Piece) -> float:
    return piece.cut_line.box[3] - piece.cut_line.box[1]
