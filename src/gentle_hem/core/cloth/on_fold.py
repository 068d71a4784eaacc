"""Laid on the fold: what is cut on the fold truly lies on it, pairs are cut through both layers, the rest opened out.

selvedge to selvedge                      folded to a width
┌───────────────┐ selvedges               ┌───────────┬───────┐
│  ╱╲    ┌────┐ │                         │ ╱╲  ┌───┐ │ single│  beside the fold the cloth lies
│ ╱ 2╲   │ 3  │ │                         │╱ 2╲ │ 3 │ │┌────┐ │  single: what is cut once is laid
│╭────╮  └────┘ │                         │╭───╮└───┘ ││ 4  │ │  there, or opened out at the end
╰┴────┴─────────╯ fold                    ╰┴───┴──────┴┴────┴─┘

x is measured from the fold. What is opened out lies on the whole width, after everything that is double.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import atan2, pi

from shapely import Polygon
from shapely.affinity import rotate, scale, translate

from gentle_hem.core.cloth.lay import Fault, HowLaid, Lay, Layers, Pin, Placed, faults_of, length_of, numbered_as
from gentle_hem.core.cloth.matching import Over
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cloth.squares import APART, ClothInSquares, Spot, Way, in_orders, ways_of, ways_on_fold
from gentle_hem.core.cloth.things import (
    OnCloth,
    Thing,
    TooWide,
    Unmatched,
    Why,
    across_of,
    as_it_lies,
    fold_of,
    laid_one_by_one,
    paper_of,
)
from gentle_hem.core.cut import CutPiece, Side, cut_pieces
from gentle_hem.core.garment import Garment
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.what import What

ALIKE_WITHIN = 0.002
"""How much of a shape may differ from its mirror image where one may be cut as the other."""


PRINT_OVER = {
    Over.SIDES: "print over the side seams", Over.CENTRES: "print over the centres", Over.JOINS: "print over the waist",
}  # fmt: skip
"""What is asked of a print."""


@dataclass(frozen=True, slots=True)
class Sorted:
    """What of a cloth lies on the fold, through both layers, and on one alone."""

    on_fold: tuple[Thing, ...]
    double: tuple[Thing, ...]
    single: OnCloth

    @property
    def things(self) -> tuple[Thing, ...]:
        return (*self.on_fold, *self.double, *self.single.things)


@dataclass(frozen=True)
class OnFold:
    """A cloth laid double for a width from its fold, and its things."""

    role: ClothRole
    width: float
    folded: float
    how: HowLaid
    parted: Sorted

    @classmethod
    def ready(cls, garment: Garment, role: ClothRole, width: float, how: HowLaid) -> OnFold:
        assert how.folded is not None
        folded = min(how.folded, width / 2)
        return cls(role, width, folded, how, sorted_for(garment, role, width, folded, corners=how.corners))

    @property
    def things(self) -> tuple[Thing, ...]:
        return self.parted.things

    @property
    def orders(self) -> list[list[Thing]]:
        return in_orders(self.things)

    @property
    def too_wide(self) -> tuple[TooWide, ...]:
        return self.parted.single.too_wide

    def lay(self, order: Sequence[Thing]) -> Lay:
        """What is double in this order, then what is not: beside the fold or opened out, whichever is shorter."""
        single = [thing for thing in order if thing in self.parted.single.things]
        doubled = [thing for thing in order if thing not in self.parted.single.things]
        ways = _both_ways(self.parted, doubled, single, self.width, self.folded, self.how)
        placed, opened_from = min(ways, key=lambda one: (length_of(one[0]), one[1] is not None))
        return self.of(placed, opened_from)

    def ways(self, thing: Thing) -> list[Way]:
        """Every way a thing may be laid by hand."""
        return (
            ways_on_fold(thing, one_way=False)
            if thing in self.parted.on_fold
            else ways_of(thing, one_way=False, mirrored=True)
        )

    def of(self, placed: Sequence[Placed], opened_from: float | None = None) -> Lay:
        """The lay of what was placed, however it was: numbered, and looked over."""
        numbered, single = numbered_as(self.things, placed), self.parted.single
        return Lay(
            self.role, self.width, length_of(numbered), numbered, single.joined, single.too_wide, self.folded,
            opened_from, faults_on_fold(numbered, self.width, self.folded, opened_from), single.cornered,
            self._refused(),
        )  # fmt: skip

    def _refused(self) -> tuple[Unmatched, ...]:
        """What is asked of it that folded cloth does not do: a print matched through two layers, a border; and pins of
        what is not cut from it as they name it.
        """
        known = {thing.name for thing in self.things}
        asked = [*(PRINT_OVER[over] for over in self.how.over), *(["hem on the border"] if self.how.border else [])]
        return (
            *(Unmatched(name, Why.FOLDED, 0.0) for name in asked),
            *(Unmatched(pin.name, Why.GONE, 0.0) for pin in self.how.pins if pin.name not in known),
        )


def sorted_for(garment: Garment, role: ClothRole, width: float, folded: float, *, corners: bool = False) -> Sorted:
    """What lies where on a folded cloth: what is wider than it lies double is cut from the opened cloth, one by one."""
    pieces: dict[What, Piece] = {piece.what: piece for piece in garment.pieces}
    cut = [one for one in cut_pieces(garment) if one.cloth is role]
    on_fold: list[Thing] = []
    double: list[Thing] = []
    single: list[CutPiece] = []
    waiting: dict[tuple[What, int], CutPiece] = {}
    for one in cut:
        if one.on_fold:
            half = half_on_fold(pieces[one.piece])
            if across_of(half) <= folded:
                on_fold.append(Thing(one.name, half))
            else:
                single.append(one)
        elif (mate := _mate_of(one, waiting, pieces)) is not None:
            shape = as_it_lies(mate, pieces[mate.piece])
            if across_of(shape) <= folded:
                double.append(Thing(f"{mate.name} and {one.name}", shape))
            else:
                single += [mate, one]
    single += waiting.values()
    rest = laid_one_by_one(sorted(single, key=cut.index), garment, width, {}, corners=corners)
    return Sorted(tuple(on_fold), tuple(double), rest)


def _mate_of(one: CutPiece, waiting: dict[tuple[What, int], CutPiece], pieces: dict[What, Piece]) -> CutPiece | None:
    """What is cut with a thing through both layers, if it has come before; else the thing waits for it."""
    if one.side in (Side.LEFT, Side.RIGHT):
        key = (replace(one.piece, other=False), one.number)
    elif _is_like_its_mirror(as_it_lies(one, pieces[one.piece])):
        key = (one.piece, (one.number + 1) // 2)
    else:
        key = (one.piece, -one.number)
    mate = waiting.pop(key, None)
    if mate is None:
        waiting[key] = one
        return None
    if one.side in (Side.LEFT, Side.RIGHT) and not _are_mirrored(one, mate, pieces):
        waiting[key], waiting[(one.piece, -1000 - one.number)] = mate, one
        return None
    return mate


def _are_mirrored(one: CutPiece, mate: CutPiece, pieces: dict[What, Piece]) -> bool:
    """Whether a left and a right are each other's mirror images, as where left and right are not made different."""
    shape, other = as_it_lies(one, pieces[one.piece]), as_it_lies(mate, pieces[mate.piece])
    return _differ(shape, _mirrored(other)) < ALIKE_WITHIN


def _is_like_its_mirror(shape: Polygon) -> bool:
    return _differ(shape, _mirrored(shape)) < ALIKE_WITHIN


def _mirrored(shape: Polygon) -> Polygon:
    return translate(scale(shape, -1, 1, origin=(0, 0)), across_of(shape), 0)


def _differ(one: Polygon, other: Polygon) -> float:
    return float(one.symmetric_difference(other).area / one.area)


def half_on_fold(piece: Piece) -> Polygon:
    """The half of a piece with its fold upright at x = 0, the way up that its grain has, its foot at y = 0."""
    half, (a, b) = paper_of(piece), fold_of(piece)
    turned = rotate(half, pi / 2 - atan2(b[1] - a[1], b[0] - a[0]), origin=a, use_radians=True)
    turned = translate(turned, -a[0], -a[1])
    start, end = piece.grain
    if (end.x - start.x) * (b[0] - a[0]) + (end.y - start.y) * (b[1] - a[1]) < 0:
        turned = rotate(turned, 180, origin=(0, 0))
    if turned.bounds[0] < -turned.bounds[2]:
        turned = scale(turned, -1, 1, origin=(0, 0))
    return translate(turned, 0, -turned.bounds[1])


Laid = tuple[list[Placed], float | None]


def _both_ways(
    parted: Sorted, doubled: Sequence[Thing], single: Sequence[Thing], width: float, folded: float, how: HowLaid
) -> list[Laid]:
    """What is cut once beside the fold where the cloth lies single, and opened out after what is double."""
    pins = {pin.name: pin for pin in how.pins}
    placed = _doubled(parted, doubled, folded, how.one_way, pins)
    beside = width - 2 * folded
    made = [_opened_out(placed, single, width, how.one_way, pins)]
    if beside > 0:
        fits = [thing for thing in single if across_of(thing.shape) <= beside]
        rest = [thing for thing in single if thing not in fits]
        cloth = ClothInSquares(beside)
        aside = _round_pins(cloth, fits, how.one_way, folded, 0.0, pins)
        made.append(_opened_out([*placed, *aside], rest, width, how.one_way, pins))
    return made


def _doubled(
    parted: Sorted, things: Sequence[Thing], folded: float, one_way: bool, pins: Mapping[str, Pin]
) -> list[Placed]:
    """What is double, what is pinned first and where it is pinned."""
    cloth = ClothInSquares(folded)
    placed = []
    for thing in things:
        if pin := pins.get(thing.name):
            at_fold = thing in parted.on_fold
            ways = ways_on_fold(thing, one_way=False) if at_fold else ways_of(thing, one_way=False)
            spot = Spot(next(way for way in ways if way.turned == pin.turned), 0.0 if at_fold else pin.x, pin.y)
            cloth.take(spot)
            layers = Layers.FOLD if at_fold else Layers.DOUBLE
            placed.append(Placed(0, thing.name, spot.outline, spot.way.turned, spot.way.flipped, layers, pinned=True))
    for thing in things:
        if thing.name in pins:
            continue
        at_fold = thing in parted.on_fold
        ways = ways_on_fold(thing, one_way=one_way) if at_fold else ways_of(thing, one_way=one_way, mirrored=True)
        found = cloth.put(ways, 0.0 if at_fold else None)
        assert found is not None  # what is wider is not laid double
        layers = Layers.FOLD if at_fold else Layers.DOUBLE
        placed.append(Placed(0, thing.name, found.outline, found.way.turned, found.way.flipped, layers))
    return placed


def _opened_out(
    before: list[Placed], things: Sequence[Thing], width: float, one_way: bool, pins: Mapping[str, Pin]
) -> Laid:
    if not things:
        return before, None
    start = length_of(before) + APART
    return [*before, *_round_pins(ClothInSquares(width), things, one_way, 0.0, start, pins)], start


def _round_pins(
    cloth: ClothInSquares, things: Sequence[Thing], one_way: bool, x: float, y: float, pins: Mapping[str, Pin]
) -> list[Placed]:
    """Things on a stretch of single cloth that begins at a place, what is pinned first and where it is pinned."""
    placed = []
    for thing in things:
        if pin := pins.get(thing.name):
            way = next(way for way in ways_of(thing, one_way=False) if way.turned == pin.turned)
            spot = Spot(way, pin.x - x, max(pin.y - y, 0.0))
            cloth.take(spot)
            placed.append(_moved(thing, spot, x, y, pinned=True))
    for thing in things:
        if thing.name not in pins:
            found = cloth.put(ways_of(thing, one_way=one_way))
            assert found is not None  # what is too wide was left off
            placed.append(_moved(thing, found, x, y))
    return placed


def _moved(thing: Thing, spot: Spot, x: float, y: float, *, pinned: bool = False) -> Placed:
    outline = translate(spot.outline, x, y)
    return Placed(0, thing.name, outline, spot.way.turned, spot.way.flipped, pinned=pinned)


def faults_on_fold(
    placed: Sequence[Placed], width: float, folded: float, opened_from: float | None
) -> tuple[Fault, ...]:
    """What of a folded lay cannot be cut: the faults of any lay, what is double where the cloth is single or the other
    way, and a half that does not lie with its fold on the cloth's.
    """
    opened = float("inf") if opened_from is None else opened_from

    def lies_right(one: Placed) -> bool:
        left, foot, right, top = one.outline.bounds
        if one.layers is Layers.FLAT:
            return bool(foot >= opened - NEAR or (left >= folded - NEAR and right <= width - folded + NEAR))
        on_fold = one.layers is not Layers.FOLD or abs(left) <= NEAR
        return bool(right <= folded + NEAR and top <= opened + NEAR and on_fold)

    return (*faults_of(placed, width), *(Fault(one.name, None) for one in placed if not lies_right(one)))


NEAR = 0.05
"""How exactly a thing lies where it does (mm)."""
