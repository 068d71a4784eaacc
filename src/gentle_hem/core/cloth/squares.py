"""Our own placement: a cloth in squares of 6 mm, of which a thing takes every one that it touches.

    ▓▓▓▓░░░░    ▓ taken    ░ free
    ▓▓▓░░░░░    each thing lies as near the cut end as it goes, then as near the selvedge (or the fold);
    ▓▓▓▓▓░░░    holes are used, and no two can overlap

A thing that must lie on a print is tried on each repeat in turn; one that lies on the fold at the fold alone.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import ceil, floor, sqrt
from typing import Any

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely import Polygon
from shapely.affinity import rotate, scale, translate

from gentle_hem.core.cloth.things import Anchor, Thing, across_of

SQUARE = 6.0
"""The side of a square of the cloth (mm)."""

APART = 3.0
"""So much at least is left between two pieces, for the shears (mm)."""

Mask = NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class Repeat:
    """How often a print comes again, across the cloth and along it (mm); None: it does not."""

    across: float | None = None
    along: float | None = None


@dataclass(frozen=True)
class Way:
    """One way a thing may lie: end for end or not, its paper turned over or not."""

    turned: bool
    flipped: bool
    shape: Polygon
    anchor: Anchor | None

    @cached_property
    def mask(self) -> Mask:
        return squares(self.shape)

    @cached_property
    def _masks_off(self) -> dict[tuple[float, float], Mask]:
        return {}

    def mask_off(self, x: float, y: float) -> Mask:
        """The squares it takes where it lies off them, from a square before its own."""
        if (x, y) not in self._masks_off:
            self._masks_off[x, y] = squares(self.shape, x + SQUARE, y + SQUARE)
        return self._masks_off[x, y]

    @property
    def across(self) -> float:
        return across_of(self.shape)


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a thing was put: its lower left corner (mm), how it lies, and how far along it then reaches."""

    way: Way
    x: float
    y: float

    @property
    def outline(self) -> Polygon:
        return translate(self.way.shape, self.x, self.y)

    @property
    def reaches(self) -> float:
        return self.y + float(self.way.shape.bounds[3])


def ways_of(thing: Thing, *, one_way: bool, mirrored: bool = False) -> list[Way]:
    """The ways a thing may lie. ``one_way``: never end for end; ``mirrored``: its paper may be turned over as well, as
    where it is cut through two layers.
    """
    wide, high = across_of(thing.shape), float(thing.shape.bounds[3])
    made = []
    for flipped in (False, True) if mirrored else (False,):
        for turned in (False,) if one_way else (False, True):
            shape, anchor = thing.shape, thing.anchor
            if flipped:
                shape = translate(scale(shape, -1, 1, origin=(0, 0)), wide, 0)
                anchor = anchor and Anchor(wide - anchor.x, anchor.y, anchor.across, anchor.along)
            if turned:
                shape = translate(rotate(shape, 180, origin=(0, 0)), wide, high)
                anchor = anchor and Anchor(wide - anchor.x, high - anchor.y, anchor.across, anchor.along)
            made.append(Way(turned, flipped, shape, anchor))
    return made


def ways_on_fold(thing: Thing, *, one_way: bool) -> list[Way]:
    """The ways a half may lie with its fold on the cloth's: end for end its paper is turned over with it."""
    high = float(thing.shape.bounds[3])
    made = [Way(False, False, thing.shape, thing.anchor)]
    if not one_way:
        shape = translate(scale(thing.shape, 1, -1, origin=(0, 0)), 0, high)
        anchor = thing.anchor
        anchor = anchor and Anchor(anchor.x, high - anchor.y, anchor.across, anchor.along)
        made.append(Way(True, True, shape, anchor))
    return made


class ClothInSquares:
    """A cloth of a width and of any length, and what is taken of it."""

    def __init__(self, width: float, repeat: Repeat = Repeat()) -> None:
        self.width, self.repeat = width, repeat
        self.columns = int(width // SQUARE)
        self._taken = np.zeros((0, self.columns), dtype=bool)

    def put(self, ways: Iterable[Way], x: float | None = None) -> Spot | None:
        """A thing put where it reaches least far along; ``x``: only with its left there. None where it is too wide."""
        best = self.first(ways, x)
        if best is not None:
            self.take(best)
        return best

    def first(self, ways: Iterable[Way], x: float | None = None) -> Spot | None:
        """Where a thing would be put."""
        spots = [spot for way in ways if (spot := self._first(way, x)) is not None]
        return min(
            spots, key=lambda spot: (round(spot.reaches, 6), spot.y, spot.x, spot.way.turned, spot.way.flipped),
            default=None,
        )  # fmt: skip

    def take(self, spot: Spot) -> None:
        """What a thing takes where it lies."""
        window, mask = self._window(spot)
        window |= mask

    def is_free(self, spot: Spot) -> bool:
        """Whether nothing that is put lies too near."""
        window, mask = self._window(spot)
        return not bool((window & mask).any())

    def _window(self, spot: Spot) -> tuple[Mask, Mask]:
        """What is taken where a thing lies, and what it takes there itself: of both what is on the cloth."""
        mask, row, column = _squares_at(spot)
        mask = mask[max(-row, 0) :, max(-column, 0) : max(-column, 0) + self.columns - max(column, 0)]
        row, column = max(row, 0), max(column, 0)
        if (end := row + len(mask)) > len(self._taken):
            more = np.zeros((end - len(self._taken), self.columns), dtype=bool)
            self._taken = np.vstack([self._taken, more])
        return self._taken[row:end, column : column + mask.shape[1]], mask

    def _first(self, way: Way, x: float | None) -> Spot | None:
        if way.across > self.width + 1e-6:
            return None
        if way.anchor is not None and (way.anchor.along is not None or way.anchor.across is not None):
            return self._first_on_print(way, way.anchor, x)
        if x is not None:
            return self._first_at(way, x)
        row, column = first_free(self._taken, way.mask)
        return Spot(way, column * SQUARE, row * SQUARE)

    def _first_at(self, way: Way, x: float) -> Spot:
        """The first free place with its left at x."""
        row = 0
        while not self.is_free(spot := Spot(way, x, row * SQUARE)):
            row += 1
        return spot

    def _first_on_print(self, way: Way, anchor: Anchor, x: float | None) -> Spot | None:
        """The first free place where its anchor falls on the print."""
        across, along = self.repeat.across, self.repeat.along
        if x is not None:
            xs = [x]
        elif anchor.across is not None and across:
            first = (anchor.across - anchor.x) % across
            xs = [first + k * across for k in range(floor((self.width - way.across - first) / across + 1e-9) + 1)]
        else:
            xs = [k * SQUARE for k in range(floor((self.width - way.across) / SQUARE) + 1)]
        if not xs:
            return None
        step = along if anchor.along is not None and along else SQUARE
        start = (anchor.along - anchor.y) % along if anchor.along is not None and along else 0.0
        free: dict[tuple[float, float], Mask] = {}
        for y in itertools.count(start, step):
            for at in xs:
                if self._is_free_at(way, at, y, free):
                    return Spot(way, at, y)
        return None

    def _is_free_at(self, way: Way, x: float, y: float, free: dict[tuple[float, float], Mask]) -> bool:
        """Whether a way's corner may lie at a place; ``free`` keeps what was found for places between the squares."""
        key = round(x % SQUARE, 2), round(y % SQUARE, 2)
        mask, row, column = _squares_at(Spot(way, x, y))
        if key not in free:
            free[key] = free_places(self._taken, mask)
        places = free[key]
        # the first row and column are those of a mask that begins a square before the cloth
        row, column = row + len(mask), column + mask.shape[1]
        return row >= len(places) or bool(places[row, min(column, places.shape[1] - 1)])


def free_places(taken: Mask, mask: Mask) -> Mask:
    """Where no square of a mask is taken, for its corner from as far before the cloth as the mask is large."""
    high, wide = mask.shape
    room = np.zeros((len(taken) + 2 * high, taken.shape[1] + 2 * wide), dtype=np.float32)
    room[high : high + len(taken), wide : wide + taken.shape[1]] = taken
    return _overlaps(room, mask) < 0.5


def _overlaps(room: NDArray[Any], mask: Mask) -> NDArray[np.float32]:
    """For every place of a mask within a room, how many of its squares are taken: a correlation, by Fourier's way."""
    from scipy.fft import irfft2, next_fast_len, rfft2  # here, to keep scipy out of the start

    shape = [next_fast_len(side, real=True) for side in room.shape]
    found = irfft2(rfft2(room.astype(np.float32), shape) * rfft2(mask.astype(np.float32), shape).conj(), shape)
    made: NDArray[np.float32] = found[: room.shape[0] - mask.shape[0] + 1, : room.shape[1] - mask.shape[1] + 1]
    return made


def squares(shape: Polygon, x: float = 0.0, y: float = 0.0) -> Mask:
    """The squares a shape touches, with what is left round it; from the corner (0, 0), its own at (x, y)."""
    moved = translate(shape, x, y) if x or y else shape
    _, _, right, top = moved.bounds
    wide, high = ceil((right + APART) / SQUARE), ceil((top + APART) / SQUARE)
    near = moved.buffer(APART + SQUARE * 0.5 * sqrt(2))
    shapely.prepare(near)
    across, along = np.meshgrid((np.arange(wide) + 0.5) * SQUARE, (np.arange(high) + 0.5) * SQUARE)
    made: Mask = shapely.contains_xy(near, across, along)
    return made


def _squares_at(spot: Spot) -> tuple[Mask, int, int]:
    """The squares a thing takes where it lies, and the row and column of the first."""
    row, column = floor(spot.y / SQUARE + 1e-9), floor(spot.x / SQUARE + 1e-9)
    x, y = spot.x - column * SQUARE, spot.y - row * SQUARE
    if abs(x) < 1e-6 and abs(y) < 1e-6:
        return spot.way.mask, row, column
    # off the squares it may reach into the row before its own
    return spot.way.mask_off(round(x, 2), round(y, 2)), row - 1, column - 1


def first_free(taken: Mask, mask: Mask) -> tuple[int, int]:
    """The place nearest the cut end, then the selvedge, where no square of a mask is taken."""
    rows, columns = taken.shape
    mask = mask[:, :columns]
    high = len(mask)
    if not rows:
        return 0, 0
    room = np.vstack([taken, np.zeros((high, columns), dtype=bool)])
    if mask.all():  # a rectangle: what is taken of it is four corners of a running sum
        total = np.zeros((len(room) + 1, columns + 1), dtype=np.int32)
        total[1:, 1:] = room.cumsum(axis=0, dtype=np.int32).cumsum(axis=1, dtype=np.int32)
        wide = mask.shape[1]
        free = (total[high:, wide:] - total[:-high, wide:] - total[high:, :-wide] + total[:-high, :-wide]) == 0
    else:
        free = _overlaps(room, mask) < 0.5
    row = int(np.argmax(free.any(axis=1)))
    return row, int(np.argmax(free[row]))


Order = Callable[[Thing], float]

ORDERS: tuple[Order, ...] = (
    lambda thing: -thing.shape.area,
    lambda thing: -float(thing.shape.bounds[3]),
    lambda thing: -across_of(thing.shape),
)
"""In which order things are laid: the largest first, the longest first, the widest first."""


def in_orders(things: Sequence[Thing]) -> list[list[Thing]]:
    """The things in each of the usual orders."""
    return [sorted(things, key=order) for order in ORDERS]
