"""What a piece says of itself, and where the words stand: inside it where there is room, beside it with a leader.

name · how often it is cut, from what cloth, on the fold · whose · when · allowances     along the grain: "grain"
NOT READY and why, before all else, where it must not be cut yet                         along the fold: "fold"
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cached_property
from math import ceil, degrees, pi
from textwrap import wrap

import numpy as np
from numpy.typing import NDArray
from shapely import LineString, Polygon, box, contains_xy, prepare, unary_union
from shapely.affinity import rotate

from gentle_hem.core.cloth.squares import ClothInSquares, ways_of
from gentle_hem.core.cloth.things import Thing
from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Line, Path, Placement, Point
from gentle_hem.core.geometry.segment import Box
from gentle_hem.core.marking import is_fold
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.units import Said, format_length
from gentle_hem.formats.drawing import Ink, Laid, Stroke, Words, lay_side_by_side, not_ready, strokes
from gentle_hem.formats.letters import bold_width, register

FloatArray = NDArray[np.float64]

LARGEST, LEAST, BESIDE = 9.0, 3.0, 4.0
"""How high letters are at most and at least inside a piece, and beside it (mm)."""

CLEAR = 2.5
"""How far words stay clear of lines (mm)."""

LONGEST_REASON = 90

TRIES = ((1000, 0.0), (34, 0.0), (22, 0.0), (1000, 90.0), (34, 90.0))
"""How many letters a line has at most, and how far the lines are turned, in the order in which they are tried."""


@dataclass(frozen=True, slots=True)
class Tag:
    """What every piece of a pattern says beside its own name."""

    garment: str = ""
    figure: str = ""
    size: str = ""
    version: int | None = None
    day: date | None = None
    stops: tuple[str, ...] = ()
    """Why the garment must not be cut yet."""

    @classmethod
    def of(cls, recipe: Recipe, garment: Garment, version: int | None = None, day: date | None = None) -> Tag:
        """What a recipe's pieces say."""
        measures = recipe.figure.measures
        taken = (
            ("bust", measures.get("bust_girth")), ("waist", measures.get("waist_girth")),
            ("hip", measures.get("hip_girth")),
        )  # fmt: skip
        size = ", ".join(f"{name} {format_length(value, recipe.unit)}" for name, value in taken if value)
        return cls(recipe.name, recipe.figure.name, size, version, day, not_ready(garment, recipe.unit))

    @property
    def lines(self) -> tuple[str, ...]:
        whose = " · ".join(text for text in (self.garment, self.figure) if text)
        made = " · ".join(
            text for text in (
                f"version {self.version}" if self.version else "",
                f"{self.day.day} {self.day:%B %Y}" if self.day else "",
            ) if text
        )  # fmt: skip
        return tuple(text for text in (whose, self.size, made) if text)


@dataclass(frozen=True, slots=True)
class Drawn:
    """A piece with all that is drawn of it, where it lies on the sheet."""

    piece: Piece
    placement: Placement
    strokes: tuple[Stroke, ...]
    words: tuple[Words, ...]
    version: int | None = None
    """Of which version it is, where two lie beside each other."""


Sheet = tuple[list[Drawn], float, float]
"""Pieces with their words side by side, and the width and height of the sheet they lie on."""


def sheet(garment: Garment, tag: Tag, unit: Said) -> Sheet:
    """All pieces with their words side by side on one sheet, and its width and height."""
    register()
    made = {piece.what: _Labelled.of(piece, tag, unit) for piece in garment.pieces}
    laid, width, height = lay_side_by_side(garment.pieces, rooms={what: one.room for what, one in made.items()})
    return [_drawn(item, made[item.piece.what]) for item in laid], width, height


def beside_each_other(sheets: Sequence[tuple[Sheet, int | None]]) -> Sheet:
    """Sheets side by side on one, their tops level, each piece with the version it is of."""
    high, across = max(height for (_, _, height), _ in sheets), 0.0
    laid: list[Drawn] = []
    for (drawn, width, height), version in sheets:
        put = Placement.shift(Point(across, high - height))
        laid += [replace(item, placement=item.placement.then(put), version=version) for item in drawn]
        across += width
    return laid, across, high


def sheet_in(drawn: list[Drawn], width: float, height: float) -> Sheet | None:
    """Pieces that are drawn, on sheets of a width and height (mm), none over the edge of one, the first sheet on top;
    None where one does not go on it whole.
    """
    if not drawn:
        return None
    rooms = [(item, _room(item)) for item in drawn]
    rooms.sort(key=lambda one: -max(one[1][2] - one[1][0], one[1][3] - one[1][1]))
    sheets: list[ClothInSquares] = []
    spots: list[tuple[Drawn, Placement, int]] = []
    for item, room in rooms:
        put = None
        for k in range(len(sheets) + 1):
            if k == len(sheets):
                sheets.append(ClothInSquares(width - GAP))
            put = _put_on_paper(sheets[k], room, height - GAP)
            if put is not None:
                spots.append((item, put, k))
                break
        if put is None:
            return None
    laid = []
    for item, put, k in spots:
        raised = put.then(Placement.shift(Point(0, (len(sheets) - 1 - k) * height)))
        laid.append(replace(item, placement=raised))
    return laid, width, len(sheets) * height


def _room(item: Drawn) -> Box:
    """The room a piece takes with its words."""
    left, bottom, right, top = item.piece.cut_line.box
    for words in item.words:
        west, south, east, north = shape(words).bounds
        left, bottom, right, top = min(left, west), min(bottom, south), max(right, east), max(top, north)
    return left, bottom, right, top


def _put_on_paper(paper: ClothInSquares, room: Box, height: float) -> Placement | None:
    """Where a piece goes on a sheet, upright or on its side: paper has no grain. Its top is the sheet's top."""
    wide, high = room[2] - room[0], room[3] - room[1]
    tried = []
    for on_side, (across, along) in ((False, (wide, high)), (True, (high, wide))):
        spot = paper.first(ways_of(Thing("", box(0, 0, across + GAP, along + GAP)), one_way=True))
        if spot is not None and spot.reaches <= height:
            tried.append((spot.reaches, on_side, spot))
    if not tried:
        return None
    _, on_side, spot = min(tried, key=lambda one: one[:2])
    paper.take(spot)
    corner = Point(GAP + spot.x, height - spot.y)
    if on_side:  # its left is its top
        turned = Placement.shift(Point(-room[0], -room[1])).then(Placement.rotation(-pi / 2))
        return turned.then(Placement.shift(corner))
    return Placement.shift(Point(corner.x - room[0], corner.y - room[3]))


GAP = 12.0
"""What is left round a piece on a sheet of paper (mm)."""


def _drawn(item: Laid, labelled: _Labelled) -> Drawn:
    return Drawn(item.piece, item.placement, (*strokes(item.piece), *labelled.leader), labelled.words)


def text_of(piece: Piece, tag: Tag, unit: Said) -> tuple[str, ...]:
    """The lines of a piece's label."""
    cut = f"cut {piece.cut}" + (" on the fold" if piece.on_fold else _as_cut(piece))
    lines = (piece.name.upper(), f"{cut} · {piece.cloth}", *tag.lines, allowances_of(piece, unit), piece.remark)
    if tag.stops:
        reason = tag.stops[0] if len(tag.stops[0]) <= LONGEST_REASON else f"{tag.stops[0][:LONGEST_REASON]}…"
        lines = ("NOT READY:", *wrap(reason, 34), *lines)
    return tuple(line for line in lines if line)


def _as_cut(piece: Piece) -> str:
    """How several of a piece lie on the cloth."""
    if piece.cut == 1:
        return ""
    return ", all alike" if piece.alike else ", a pair" if piece.cut == 2 else ", in pairs"


def allowances_of(piece: Piece, unit: Said) -> str:
    """The allowances drawn: the commonest for the seams, and each edge's that differs."""
    said: dict[str, list[Role]] = {}
    for edge in piece.edges:
        if not is_fold(piece, edge):
            text = format_length(edge.allowance, unit) if edge.allowance else "none"
            said.setdefault(text, []).append(edge.role)
    if not said:
        return ""
    commonest = max(said, key=lambda text: sum(role is not Role.HEM for role in said[text]))
    others = [f"{', '.join(dict.fromkeys(roles))} {text}" for text, roles in said.items() if text != commonest]
    if commonest == "none" and not others:
        return "no allowances"
    return "; ".join([f"allowances {commonest}", *others])


@dataclass(frozen=True, slots=True)
class _Labelled:
    """A piece's words, the leader to those that stand beside it, and the room it takes with them."""

    words: tuple[Words, ...]
    leader: tuple[Stroke, ...]
    room: Box

    @classmethod
    def of(cls, piece: Piece, tag: Tag, unit: Said) -> _Labelled:
        lines = text_of(piece, tag, unit)
        free = _Free(piece)
        along = tuple(_along_lines(piece, free))
        room = piece.cut_line.box
        for words in along:
            free.take(words)
        inside = _inside(lines, free, room)
        if inside:
            return cls((inside, *along), (), room)
        beside, leader = _beside(lines, piece, free)
        return cls((beside, *along), (leader,), _round(room, beside))


class _Free:
    """The part of a piece that has nothing drawn on it."""

    def __init__(self, piece: Piece) -> None:
        self.outline = Polygon([tuple(place) for place in piece.seam_line.flatten(0.2)]).buffer(0)
        drawn = [
            LineString([tuple(place) for place in stroke.path.flatten(0.3)])
            for stroke in strokes(piece)
            if stroke.ink not in (Ink.CUT, Ink.NOTCH)
        ]
        self.area = self.outline.difference(unary_union(drawn).buffer(CLEAR))

    def take(self, words: Words) -> None:
        """Leave the place of some words out of it."""
        self.area = self.area.difference(shape(words).buffer(CLEAR))
        self.__dict__.pop("_cells", None)

    def holds(self, words: Words) -> bool:
        return bool(self.area.contains(shape(words)))

    @cached_property
    def _cells(self) -> tuple[float, FloatArray, FloatArray, FloatArray]:
        """The free part in cells: how wide one is, where their middles lie, and how many are free up to each."""
        if self.area.is_empty:
            return 1.0, np.empty(0), np.empty(0), np.zeros((1, 1))
        left, bottom, right, top = self.area.bounds
        cell = max(1.0, (right - left) / 90, (top - bottom) / 90)
        xs = left + cell * (np.arange(int((right - left) / cell)) + 0.5)
        ys = bottom + cell * (np.arange(int((top - bottom) / cell)) + 0.5)
        prepare(self.area)
        inside = contains_xy(self.area, *np.meshgrid(xs, ys))
        return cell, xs, ys, np.pad(inside.cumsum(0).cumsum(1).astype(float), ((1, 0), (1, 0)))

    def place(self, width: float, height: float) -> Point | None:
        """The lower left corner of a place for an upright box of that size; the highest one, in the middle of it."""
        cell, xs, ys, summed = self._cells
        across, down = ceil(width / cell) + 1, ceil(height / cell) + 1
        if len(xs) < across or len(ys) < down:
            return None
        full = (
            summed[down:, across:] - summed[:-down, across:] - summed[down:, :-across] + summed[:-down, :-across]
        ) == across * down
        for row in np.flatnonzero(full.any(1))[::-1]:
            found = np.flatnonzero(full[row])
            column = found[len(found) // 2]
            corner = Point(float(xs[column]), float(ys[row]))
            if self.area.contains(box(corner.x, corner.y, corner.x + width, corner.y + height)):
                return corner
        return None


def _size(lines: tuple[str, ...], size: float) -> tuple[float, float]:
    """How wide and high some lines are, mm."""
    wide = max(bold_width(line, size) for line in lines)
    return wide, size * (1 + 1.4 * (len(lines) - 1)) + DESCENT * size


DESCENT = 0.25
"""How far letters reach below their line, as a share of their size."""


def _wrapped(lines: tuple[str, ...], most: int) -> tuple[str, ...]:
    return tuple(part for line in lines for part in wrap(line, most))


def _inside(lines: tuple[str, ...], free: _Free, room: Box) -> Words | None:
    """The words inside the piece, as large as they can stand there; None where they would be too small."""
    size = min(max((room[2] - room[0]) / 60, 4.0), LARGEST)
    while size >= LEAST:
        for most, angle in TRIES:
            set_in = _wrapped(lines, most)
            wide, high = _size(set_in, size)
            corner = free.place(*((wide, high) if angle == 0 else (high, wide)))
            if corner is not None:
                up = high - size
                at = corner + (Point(0, up) if angle == 0 else Point(high - up, 0))
                return Words(at, set_in, size, angle)
        size *= 0.8
    return None


def _beside(lines: tuple[str, ...], piece: Piece, free: _Free) -> tuple[Words, Stroke]:
    """The words to the right of the piece, and the line that leads from them into it."""
    set_in = _wrapped(lines, 34)
    _, high = _size(set_in, BESIDE)
    _, _, right, _ = piece.cut_line.box
    # the place nearest to the words on the piece's own side of the grain line
    middle = free.outline.representative_point().y + (8.0 if abs(piece.grain[0].y - piece.grain[1].y) < 1 else 0.0)
    across = free.outline.intersection(LineString([(-1e5, middle), (1e5, middle)]))
    inner = across.bounds[2] - LEADER if not across.is_empty else free.outline.representative_point().x
    at = Point(right + 8, middle + high / 2 - BESIDE)
    return Words(at, set_in, BESIDE), Stroke(
        Ink.INTERNAL, Path.of(Line(Point(right + 6, middle), Point(inner, middle)))
    )


LEADER = 3.0
"""How far a leader reaches into the piece (mm)."""


def _along_lines(piece: Piece, free: _Free) -> Iterator[Words]:
    """The words that stand along a line: the grain's and the fold's."""
    start, end = piece.grain
    yield from _along(start, end, "grain", free)
    for edge in piece.edges:
        if is_fold(piece, edge):
            yield from _along(edge.path.start, edge.path.end, "place on the fold", free)


def _along(start: Point, end: Point, text: str, free: _Free) -> Iterator[Words]:
    """A word beside a line, on whichever side there is room for it, read from the left or from below."""
    along = (end - start).unit
    if along.x < -1e-6 or (abs(along.x) <= 1e-6 and along.y < 0):
        along, start, end = -along, end, start
    size = 4.0
    wide = bold_width(text, size)
    for away in (4.0, 16.0):
        for side in (1, -1):
            foot = start.towards(end, 0.5) - along * (wide / 2) + along.left * (side * away - (size if side < 0 else 0))
            words = Words(foot, (text,), size, degrees(along.angle))
            if free.holds(words):
                yield words
                return


def shape(words: Words) -> Polygon:
    """The box that some words fill."""
    wide, high = _size(words.lines, words.size)
    top = words.at.y + words.size
    upright = box(words.at.x, top - high, words.at.x + wide, top)
    return rotate(upright, words.angle, origin=tuple(words.at)) if words.angle else upright


def _round(room: Box, words: Words) -> Box:
    left, bottom, right, top = shape(words).bounds
    return min(room[0], left), min(room[1], bottom), max(room[2], right), max(room[3], top)
