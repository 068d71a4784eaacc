"""What is drawn of a piece, whatever it is drawn with: strokes and words, each with its meaning.

SVG, DXF and PDF all ask here, so a notch that is on one is on all of them.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from enum import Enum
from math import degrees

from gentle_hem.core.findings import Severity
from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Path, Placement, Point
from gentle_hem.core.geometry.segment import Box, Line
from gentle_hem.core.marking import arrow, drill_points, fold_bracket, is_fold, off_the_fold, pleat_lines
from gentle_hem.core.pattern import Notch, Piece
from gentle_hem.core.units import Said
from gentle_hem.core.what import What

NOTCH_DEPTH = 6.0
NOTCH_GAP = 4.0

DRILL = 3.0
"""How far the cross of a drill point reaches (mm)."""


class Ink(Enum):
    """What a stroke means. The number is its layer in the apparel exchange standard ASTM D6673 (from memory)."""

    CUT = 1
    NOTCH = 4
    FOLD = 6
    GRAIN = 7
    INTERNAL = 8
    DRILL = 13
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
    """Lines of text, the first one's foot at ``at`` and the rest below it; ``size`` is a letter's height in mm, and
    ``angle`` how far the lines are turned anticlockwise, in degrees.
    """

    at: Point
    lines: tuple[str, ...]
    size: float = 6.0
    angle: float = 0.0

    @property
    def step(self) -> float:
        """From one line to the next, mm."""
        return self.size * LINE


LINE = 1.4


def strokes(piece: Piece) -> Iterator[Stroke]:
    """Everything drawn of a piece, outlines first. What lies on the fold of the cloth is a fold and not a cut."""
    for ink, outline in ((Ink.CUT, piece.cut_line), (Ink.SEAM, piece.seam_line)):
        yield from (Stroke(ink, run, closed=run is outline) for run in off_the_fold(piece, outline))
    for edge in piece.edges:
        if is_fold(piece, edge):
            yield Stroke(Ink.FOLD, edge.path)
            yield from (Stroke(Ink.INTERNAL, line) for line in fold_bracket(piece, edge))
    for dart in piece.darts:
        if dart.pleat:
            yield from (Stroke(Ink.INTERNAL, line) for line in pleat_lines(piece, dart))
        else:
            near, far = piece.dart_leg_paths(dart)
            yield Stroke(Ink.INTERNAL, near.then(far.reversed()))
    for mark in piece.marks:
        yield Stroke(Ink.INTERNAL, mark.path)
    for place in drill_points(piece):
        for reach in (Point(DRILL, 0), Point(0, DRILL)):
            yield Stroke(Ink.DRILL, Path.of(Line(place - reach, place + reach)))
    yield from (Stroke(Ink.GRAIN, line) for line in _grain(piece))
    for notch in piece.notches:
        yield from (Stroke(Ink.NOTCH, tick) for tick in _ticks(piece, notch))


def _grain(piece: Piece) -> Iterator[Path]:
    start, end = piece.grain
    middle = start.towards(end, 0.5)
    yield Path.through(start, end)
    for tip in (end, start):
        yield list(arrow(middle, tip))[1]


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


@dataclass(frozen=True, slots=True)
class Laid:
    """A piece and where it lies on the sheet."""

    piece: Piece
    placement: Placement


Rooms = Mapping[What, Box]
"""The room each piece takes on paper, its words included, where it is more than its cut line's."""


def lay_side_by_side(
    pieces: Sequence[Piece], gap: float = 20.0, widest: float = 1800.0, rooms: Rooms | None = None
) -> tuple[list[Laid], float, float]:
    """Pieces in rows on one sheet from the top left, in order, none touching; small ones below each other.

    Returns where each lies, and the sheet's width and height. The sheet's corner is the origin, x to the
    right and y up. This is a drawing for paper, not a cloth layout.
    """
    boxes = {piece.what: (rooms or {}).get(piece.what, piece.cut_line.box) for piece in pieces}
    rows: list[list[list[Piece]]] = [[]]
    filled = gap
    for column in _columns(pieces, gap, boxes):
        width = max(_width(boxes[piece.what]) for piece in column)
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
                left, _, _, top = boxes[piece.what]
                laid.append(Laid(piece, Placement.shift(Point(x - left, y - top))))
                y -= _height(boxes[piece.what]) + gap
            x += max(_width(boxes[piece.what]) for piece in column) + gap
            lowest = min(lowest, y)
        sheet_width, row_top = max(sheet_width, x), lowest
    height = -row_top
    raised = Placement.shift(Point(0, height))
    return [Laid(item.piece, item.placement.then(raised)) for item in laid], sheet_width, height


def _columns(pieces: Sequence[Piece], gap: float, boxes: Rooms) -> list[list[Piece]]:
    """Pieces in order, those that fit below each other within the tallest one's height put together."""
    high = {what: _height(box) for what, box in boxes.items()}
    tallest = max(high.values(), default=0.0)
    columns: list[list[Piece]] = []
    for piece in pieces:
        if columns and sum(high[other.what] + gap for other in columns[-1]) + high[piece.what] <= tallest:
            columns[-1].append(piece)
        else:
            columns.append([piece])
    return columns


def lay_to_fill(pieces: Sequence[Piece], shape: float, gap: float = 60.0) -> tuple[list[Laid], float, float]:
    """Pieces in rows, as many rows as show them largest on a sheet of the given width to height."""
    if not pieces:
        return [], gap, gap
    wide = [_width(piece.cut_line.box) for piece in pieces]
    widths = [gap + sum(width + gap for width in wide[: i + 1]) for i in range(len(pieces))]
    tries = (lay_side_by_side(pieces, gap, widest) for widest in widths)
    return min(tries, key=lambda tried: max(tried[1] / shape, tried[2]))


def _width(box: Box) -> float:
    return box[2] - box[0]


def _height(box: Box) -> float:
    return box[3] - box[1]


def placed(words: Words, placement: Placement) -> Words:
    """Words where they come to lie; a placement that only shifts or turns."""
    return Words(placement.place(words.at), words.lines, words.size, words.angle + degrees(placement.angle))
