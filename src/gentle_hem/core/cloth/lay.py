"""The lay: everything that is cut from one cloth placed on it, and how much of it that takes.

opened flat                        on the fold
selvedge ┌──────────────────┐      selvedges ┌──────────────┬───────┐
         │ ╭───╮  ╱╲  ┌───┐ │                │  ╱╲   ┌────┐ │ ┌───┐ │
         │ │ 1 │ ╱ 2╲ │ 3 │ │                │ ╱ 2╲  │ 3  │ │ │ 4 │ │  what is neither a pair nor on the fold
         │ ╰───╯╱____╲└───┘ │                │╭───╮  └────┘ │ └───┘ │  is laid where the cloth is opened out
selvedge └──────────────────┘           fold └──────────────┴───────┘

The pieces lie along the grain, end for end only where the cloth has no way up. Our own placement tries several orders
and takes the shortest; a longer search (``laying``) begins from it.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Protocol

from shapely import Polygon, box, prepare

from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.matching import MATCHED_WITHIN, Over, matched_within, on_border, on_print
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cloth.squares import (
    APART,
    ClothInSquares,
    Repeat,
    Spot,
    Way,
    in_orders,
    ways_of,
)
from gentle_hem.core.cloth.things import Cornered, Joined, Lie, OnCloth, Thing, TooWide, Unmatched, Why, on_cloth
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.garment import Garment
from gentle_hem.core.replace import replace

USUAL_WIDTH = 1400.0
NARROWER = {ClothRole.INTERFACING: 900.0}
"""Between the selvedges where nothing is said, and of which cloths less (mm): common practice."""

TOUCH = 0.5
"""How much nearer than ``APART`` two things may be drawn: what squares and shortened curves leave (mm)."""


class Layers(StrEnum):
    """Where on the cloth a thing lies."""

    FLAT = "on the opened cloth"
    DOUBLE = "through both layers"
    FOLD = "on the fold"


@dataclass(frozen=True, slots=True)
class Placed:
    """One thing on the cloth: its outline in mm, x from the selvedge (or the fold), y from the cut end."""

    number: int
    name: str
    outline: Polygon
    turned: bool = False
    """Whether it lies end for end."""
    flipped: bool = False
    """Whether the paper is turned over, against how the thing is cut."""
    layers: Layers = Layers.FLAT
    pinned: bool = False

    @property
    def from_selvedge(self) -> float:
        return float(self.outline.bounds[0])

    @property
    def from_cut_end(self) -> float:
        return float(self.outline.bounds[1])


@dataclass(frozen=True, slots=True)
class Pin:
    """A thing that a hand has put down: its lower left corner (mm), and whether it lies end for end."""

    name: str
    x: float
    y: float
    turned: bool = False


@dataclass(frozen=True, slots=True)
class Lay:
    """A cloth laid: how long a stretch of it is taken, what lies where, and what does not go on it."""

    role: ClothRole
    width: float
    """As it can be used, without its selvedges (mm)."""
    length: float
    placed: tuple[Placed, ...]
    joined: tuple[Joined, ...] = ()
    too_wide: tuple[TooWide, ...] = ()
    folded: float | None = None
    """How wide it lies double from the fold; None where it is opened flat."""
    opened_from: float | None = None
    """From where along it is opened out for what is not cut double; None: nowhere."""
    faults: tuple[Fault, ...] = ()
    cornered: tuple[Cornered, ...] = ()
    refused: tuple[Unmatched, ...] = ()
    """What was asked of its print or border and cannot be."""

    @property
    def use(self) -> float:
        """The share of the stretch that is pieces."""
        area = sum(one.outline.area * (1 if one.layers is Layers.FLAT else 2) for one in self.placed)
        return area / (self.width * self.length) if self.length else 0.0


@dataclass(frozen=True, slots=True)
class Fault:
    """Something laid as it cannot be cut."""

    name: str
    other: str | None
    """What it lies over; None: it leaves the cloth."""


@dataclass(frozen=True, slots=True)
class HowLaid:
    """How a cloth is to be laid."""

    one_way: bool = False
    folded: float | None = None
    """How wide it lies double from the fold (mm); None: opened flat."""
    pins: tuple[Pin, ...] = ()
    lies: tuple[tuple[str, Lie], ...] = ()
    """What does not lie along the grain, by its name."""
    repeat: Repeat = Repeat()  # noqa: RUF009  (a frozen value)
    over: tuple[Over, ...] = ()
    """Over which seams its print is matched."""
    border: bool = False
    """Whether hems that are straight enough lie on the border."""
    corners: bool = False
    """Whether what is wider than the cloth has its corners cut apart and joined on."""

    @property
    def is_free(self) -> bool:
        """Whether every thing may lie wherever there is room."""
        return self.folded is None and not (self.pins or self.over or self.border)


FLAT = HowLaid()


def width_of(cloth: Cloth, role: ClothRole) -> float:
    """The usable width of a cloth: as it is said, or as it usually is, without its selvedges (trade 12)."""
    return (cloth.width or NARROWER.get(role, USUAL_WIDTH)) - 2 * cloth.selvedge


def roles_of(garment: Garment) -> list[ClothRole]:
    """The cloths that something is cut from, in order."""
    cut = {one.cloth for one in cut_pieces(garment)}
    return [role for role in ClothRole if role in cut]


def lays(garment: Garment, cloth_of: Callable[[ClothRole], Cloth]) -> list[Lay]:
    """Every cloth of a garment laid, opened flat, each as wide as it is said to be or usually is."""
    return [
        lay(garment, role, width_of(cloth_of(role), role), HowLaid(one_way=cloth_of(role).nap == "one_way"))
        for role in roles_of(garment)
    ]


class Laying(Protocol):
    """The things of a cloth, ready to be laid in one order or another, or as a hand has laid them."""

    @property
    def things(self) -> tuple[Thing, ...]:
        """What is laid, in the order of the garment."""

    @property
    def orders(self) -> list[list[Thing]]:
        """The usual orders."""

    @property
    def too_wide(self) -> tuple[TooWide, ...]:
        """What goes on the cloth in no way."""

    def lay(self, order: Sequence[Thing]) -> Lay:
        """The cloth laid in an order."""

    def ways(self, thing: Thing) -> list[Way]:
        """Every way a thing may be laid by hand."""

    def of(self, placed: Sequence[Placed], opened_from: float | None = None) -> Lay:
        """The lay of what was placed, however it was: numbered, and looked over."""


def lay(garment: Garment, role: ClothRole, width: float, how: HowLaid = FLAT) -> Lay:
    """What is cut from one cloth placed on it by our own placement: the shortest of what the usual orders come to."""
    ready = laying(garment, role, width, how)
    return min((ready.lay(order) for order in ready.orders), key=lambda laid: laid.length)


def laying(garment: Garment, role: ClothRole, width: float, how: HowLaid) -> Laying:
    """A cloth ready to be laid, opened flat or on the fold."""
    if how.folded is not None:
        from gentle_hem.core.cloth.on_fold import OnFold  # it stands on this module

        return OnFold.ready(garment, role, width, how)
    return OpenedFlat(garment, role, width, how, things_for(garment, role, width, how))


@dataclass(frozen=True)
class OpenedFlat:
    """A cloth opened flat, and its things."""

    garment: Garment
    role: ClothRole
    width: float
    how: HowLaid
    on: OnCloth

    @property
    def things(self) -> tuple[Thing, ...]:
        return self.on.things

    @property
    def orders(self) -> list[list[Thing]]:
        return in_orders(self.on.things)

    @property
    def too_wide(self) -> tuple[TooWide, ...]:
        return self.on.too_wide

    def lay(self, order: Sequence[Thing]) -> Lay:
        return self.of(placed_flat(order, self.width, self.how))

    def ways(self, thing: Thing) -> list[Way]:
        return ways_of(thing, one_way=False)

    def of(self, placed: Sequence[Placed], opened_from: float | None = None) -> Lay:
        numbered = numbered_as(self.things, placed)
        laid = Lay(
            self.role, self.width, length_of(numbered), numbered, self.on.joined, self.on.too_wide,
            faults=faults_of(numbered, self.width), cornered=self.on.cornered, refused=self.on.refused,
        )  # fmt: skip
        return looked_over(self.garment, laid, self.how)


def numbered_as(things: Sequence[Thing], placed: Sequence[Placed]) -> tuple[Placed, ...]:
    """What was placed, numbered in the order of its things."""
    names = [thing.name for thing in things]
    return tuple(
        replace(one, number=k) for k, one in enumerate(sorted(placed, key=lambda one: names.index(one.name)), 1)
    )


def looked_over(garment: Garment, laid: Lay, how: HowLaid) -> Lay:
    """The lay with the seams over which its print misses, as it was laid."""
    if not how.over or not how.repeat.along:
        return laid
    spots = {one.name: (one.from_selvedge, one.from_cut_end) for one in laid.placed if not one.turned}
    off = [
        Unmatched(match.seam, Why.APART, by)
        for match, by in matched_within(garment, laid.role, how.over, spots, how.repeat, dict(how.lies))
        if by > MATCHED_WITHIN
    ]
    return replace(laid, refused=(*laid.refused, *off))


def things_for(garment: Garment, role: ClothRole, width: float, how: HowLaid) -> OnCloth:
    """What is laid opened flat, each with what its print or border asks of it."""
    lies = dict(how.lies)
    on = on_cloth(garment, role, width, lies, corners=how.corners)
    if how.over:
        on = on_print(on, garment, role, how.repeat, how.over, lies)
    if how.border:
        on = on_border(on, garment, role, width)
    known = {thing.name for thing in on.things}
    gone = tuple(Unmatched(pin.name, Why.GONE, 0.0) for pin in how.pins if pin.name not in known)
    return replace(on, refused=(*on.refused, *gone)) if gone else on


def placed_flat(things: Sequence[Thing], width: float, how: HowLaid = FLAT) -> list[Placed]:
    """The things in this order, what is pinned first and where it is pinned."""
    cloth = ClothInSquares(width, how.repeat)
    pins = {pin.name: pin for pin in how.pins}
    placed: list[Placed] = []
    for thing in things:
        if pin := pins.get(thing.name):
            way = next(w for w in ways_of(thing, one_way=False) if w.turned == pin.turned)
            spot = Spot(way, pin.x, pin.y)
            cloth.take(spot)
            placed.append(_placed(thing, spot, pinned=True))
    for thing in things:
        if thing.name not in pins:
            spot_found = cloth.put(ways_for(thing, how.one_way), 0.0 if thing.on_border else None)
            assert spot_found is not None  # what is too wide was left off
            placed.append(_placed(thing, spot_found))
    return placed


def ways_for(thing: Thing, one_way: bool) -> list[Way]:
    """The ways a thing may lie; one on a border or a print is never turned."""
    return ways_of(thing, one_way=one_way or thing.on_border or thing.anchor is not None)


def _placed(thing: Thing, spot: Spot, pinned: bool = False) -> Placed:
    return Placed(0, thing.name, spot.outline, spot.way.turned, spot.way.flipped, pinned=pinned)


def length_of(placed: Sequence[Placed]) -> float:
    """How long a stretch of cloth things take (mm)."""
    return max((float(one.outline.bounds[3]) for one in placed), default=0.0)


def faults_of(placed: Sequence[Placed], width: float) -> tuple[Fault, ...]:
    """What of a lay cannot be cut: things over each other, nearer than the shears need, or off the cloth."""
    found = []
    cloth = box(-0.01, -0.01, width + 0.01, 1e7)
    prepare(cloth)
    found += [Fault(one.name, None) for one in placed if not cloth.covers(one.outline)]
    for one, other in itertools.combinations(placed, 2):
        if one.outline.distance(other.outline) < APART - TOUCH:
            found.append(Fault(one.name, other.name))
    return tuple(found)
