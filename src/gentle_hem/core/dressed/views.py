"""A surface seen from a place: how far across and how high its places stand, what of it can be seen, where it folds.

Outward from the place nearest the eye, cloth is seen as long as it goes on outward; where it turns back it hides behind
its own fold until it comes out again.

        eye
         │        ╭── seen
      ╭──┴──╮   ╭─╯
    ──╯     ╰╮ │╌ hidden      a fold line runs down the turning places
             ╰─╯
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from gentle_hem.core.dressed.slices import SAMPLES, Numbers
from gentle_hem.core.dressed.surface import Surface

EYE_HEIGHT, EYE_AWAY = 1350.0, 6500.0
"""Where the eye is: its height, and how far from the middle of her (mm)."""

HAIR = 0.4
"""Cloth that lies back by less than this is not hidden (mm)."""

LEAP = 18
"""The outline lies within so many columns of where it is at the foot."""

JUMP = 5
"""A fold moves by no more columns from one row to the next."""

LEAST_FOLD = 3
"""A fold is followed over no fewer rows."""

Spot = tuple[float, float]


class Seen(StrEnum):
    """Where the dress is seen from."""

    FRONT = "front"
    SIDE = "side"
    """From her right: she faces to the left."""
    BACK = "back"


def project(seen: Seen, x: Numbers, y: Numbers, z: Numbers) -> tuple[Numbers, Numbers]:
    """How far right of the middle and how high places are seen: what is nearer than the middle and below the eye is
    seen lower.
    """
    across, near = {Seen.FRONT: (x, y), Seen.BACK: (-x, -y), Seen.SIDE: (-y, -x)}[seen]
    return across, z - near * (EYE_HEIGHT - z) / EYE_AWAY


def stretches(seen: NDArray[np.bool_]) -> list[tuple[int, int]]:
    """From where to where one place after another is seen, two of them or more."""
    beside = np.zeros(len(seen) + 2, dtype=bool)
    beside[1:-1] = seen
    edges = np.flatnonzero(beside[1:] != beside[:-1]).tolist()
    return [(first, last) for first, last in zip(edges[::2], edges[1::2], strict=True) if last - first > 1]


@dataclass(frozen=True)
class Sweep:
    """One way outward from the place nearest the eye: columns in order, and what of each row is seen."""

    sign: int
    """Which side of the surface it lies on."""
    towards: int
    """−1: to the left of the picture, +1: to the right."""
    columns: NDArray[np.int64]
    across: Numbers
    height: Numbers
    visible: NDArray[np.bool_]
    turned_over: bool = False
    """Whether it is the way before it turned over."""

    def outline(self) -> list[Spot]:
        """The outermost place of each row, from the top down."""
        out = self.across * self.towards
        # it runs down evenly: from row to row it does not leap from one fold to the next
        last = int(np.argmax(out[-1]))
        low = max(last - LEAP, 0)
        far = low + np.argmax(out[:, low : last + LEAP], axis=1)
        rows = np.arange(len(far))
        return list(zip(self.across[rows, far].tolist(), self.height[rows, far].tolist(), strict=True))

    def row(self, row: int) -> list[Spot]:
        """What is seen of a row, from the middle outward."""
        seen = self.visible[row]
        return list(zip(self.across[row][seen].tolist(), self.height[row][seen].tolist(), strict=True))

    def runs(self, row: int) -> Iterator[list[Spot]]:
        """What is seen of a row, in the stretches between its folds."""
        across, height = self.across[row].tolist(), self.height[row].tolist()
        for first, last in stretches(self.visible[row]):
            yield list(zip(across[first:last], height[first:last], strict=True))

    def folds(self, phase: Numbers | None) -> Iterator[list[Spot]]:
        """The lines along which it turns away and hides what lies behind, each from its top down."""
        if phase is None:
            return
        out = self.across * self.towards
        turns = (out[:, 1:-1] > out[:, :-2]) & (out[:, 1:-1] >= out[:, 2:]) & self.visible[:, 1:-1]
        # the last of a row is its outline, not a fold
        turns &= out[:, 1:-1] < out.max(axis=1)[:, None] - HAIR
        rows, places = np.nonzero(turns)
        if not len(rows):
            return
        places = places + 1
        at = phase[self.columns[places]]
        crest, beside = np.floor(at).astype(int), np.abs(at % 1.0 - 0.5)
        # of each fold one place a row, the nearest to its middle
        order = np.lexsort((beside, rows, crest))
        crest, rows, places = crest[order], rows[order], places[order]
        first = np.ones(len(crest), dtype=bool)
        first[1:] = (crest[1:] != crest[:-1]) | (rows[1:] != rows[:-1])
        crest, rows, places = crest[first], rows[first], places[first]
        leaps = np.abs(places[1:] - places[:-1]) > JUMP
        breaks = (crest[1:] != crest[:-1]) | (rows[1:] - rows[:-1] > 1) | leaps
        ends = [0, *(np.flatnonzero(breaks) + 1).tolist(), len(rows)]
        across, height = self.across[rows, places].tolist(), self.height[rows, places].tolist()
        for start, end in pairwise(ends):
            if end - start >= LEAST_FOLD:
                yield list(zip(across[start:end], height[start:end], strict=True))


def sweeps(surface: Surface, seen: Seen) -> tuple[Sweep, Sweep]:
    """Both ways outward, the one to the left of the picture first."""
    every = np.arange(SAMPLES)
    if seen is Seen.SIDE:
        widest = int(np.argmax(np.abs(surface.right.x[-1])))
        low, high = surface.shares
        middle = int(np.clip((0.5 - low) / (high - low), 0.02, 0.98) * (SAMPLES - 1))
        nearest = widest if abs(widest - middle) < SAMPLES / 8 else middle
        ways = ((-1, -1, slice(nearest, None, -1)), (-1, 1, slice(nearest, None)))
    elif seen is Seen.FRONT:
        ways = ((-1, -1, slice(None)), (1, 1, slice(None)))
    else:
        ways = ((1, -1, slice(None, None, -1)), (-1, 1, slice(None, None, -1)))
    made: list[Sweep] = []
    for sign, towards, columns in ways:
        if made and seen is not Seen.SIDE and surface.is_alike:
            one = made[0]
            made.append(Sweep(sign, towards, one.columns, -one.across, one.height, one.visible, turned_over=True))
            continue
        half = surface.side(sign)
        across, height = project(seen, half.x[:, columns], half.y[:, columns], half.z[:, columns])
        out = across * towards
        visible = out >= np.maximum.accumulate(out, axis=1) - HAIR
        visible &= every[: out.shape[1]] <= np.argmax(out, axis=1)[:, None]
        made.append(Sweep(sign, towards, every[columns], across, height, visible))
    return made[0], made[1]
