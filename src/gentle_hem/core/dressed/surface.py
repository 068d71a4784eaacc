"""A surface of cloth as it hangs: level slices from its top down, left and right.

rows      0 at the top … the last at the lower edge
columns   shares of the half slice, from the centre front (0) to the centre back (1)
side      +1 her left, −1 her right: x has its sign
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from gentle_hem.core.cloth.cloths import Cloth, Drape, Weight
from gentle_hem.core.dressed.slices import SAMPLES, Numbers, folded, half_ellipses, phases

SIDES = (1, -1)

HELD_OUT = {Drape.CRISP: 0.85, Drape.UNSAID: 0.72, Drape.SOFT: 0.62, Drape.LIMP: 0.5}
"""How much of what is spare stands out rather than lies in folds, from memory; of gathers half of that."""

FOLD_EVERY = {Weight.NET: 190.0, Weight.LIGHT: 200.0, Weight.UNSAID: 250.0, Weight.MEDIUM: 250.0, Weight.HEAVY: 320.0}
"""Along the hem of a flared skirt there is a fold in so much of what it stands round (mm), from memory."""

GATHERED_EVERY = 70.0
"""Gathers are drawn with one in so much (mm), from memory."""

MOST_DEEP = 0.5
"""A fold is no deeper than so much of the length it hangs."""

MOST_STEEP = 0.84
"""A full skirt stands away from its seam no more steeply than this (mm out for a mm down)."""

CLOSE = 1.04
"""A girth up to so many times what it hangs over lies on it without a fold."""


@dataclass(frozen=True)
class Half:
    """One side of a surface: x, y and z of its columns in each row, and how long each half row is (mm)."""

    x: Numbers
    y: Numbers
    z: Numbers
    girths: Numbers

    def mirrored(self) -> Half:
        """The same on her other side."""
        return Half(-self.x, self.y, self.z, self.girths)


@dataclass(frozen=True)
class Surface:
    """A surface: its two halves, the shares it runs over, and how it is held out at its foot."""

    left: Half
    right: Half
    shares: tuple[float, float] = (0.0, 1.0)
    held: float = 0.0
    """The whole length of its lowest slice without its folds (mm)."""
    phase: Numbers | None = None
    """How many folds lie before each of its columns; None where it has none."""
    gathered: bool = False
    ended: bool = False
    """Whether its columns end at depths of their own, so that its lower rows rise and fall, and are as long as that."""

    @property
    def is_alike(self) -> bool:
        """Whether one side is the other turned over."""
        return self.right.y is self.left.y

    def side(self, sign: int) -> Half:
        return self.left if sign > 0 else self.right

    def column(self, share: Numbers) -> Numbers:
        """The columns of shares of the whole half."""
        low, high = self.shares
        made: Numbers = np.clip((share - low) / (high - low), 0.0, 1.0) * (SAMPLES - 1)
        return made

    def place(self, sign: int, row: Numbers, share: Numbers) -> tuple[Numbers, Numbers, Numbers]:
        """x, y, z at rows and shares, between rows and columns."""
        half = self.side(sign)
        row = np.clip(row, 0, len(half.girths) - 1)
        column = self.column(share)
        r, c = np.minimum(row.astype(int), len(half.girths) - 2), np.minimum(column.astype(int), SAMPLES - 2)
        a, b = row - r, column - c

        def of(values: Numbers) -> Numbers:
            upper = values[r, c] * (1 - b) + values[r, c + 1] * b
            lower = values[r + 1, c] * (1 - b) + values[r + 1, c + 1] * b
            made: Numbers = upper * (1 - a) + lower * a
            return made

        return of(half.x), of(half.y), of(half.z)


def meeting(left: Half, right: Half) -> tuple[Half, Half]:
    """Two sides that are not alike brought together at the centre, each slice as long as it was: they share how deep
    they are, and each is as broad as that leaves it.
    """
    front, back = (left.y[:, :1] + right.y[:, :1]) / 2, (left.y[:, -1:] + right.y[:, -1:]) / 2

    def put(half: Half) -> Half:
        first, last = half.y[:, :1], half.y[:, -1:]
        y = front + (half.y - first) / np.where(np.abs(last - first) < 1e-6, 1.0, last - first) * (back - front)
        broad = np.ones((len(y), 1))
        for _ in range(BROADENED):
            long = np.hypot(np.diff(half.x * broad, axis=1), np.diff(y, axis=1)).sum(axis=1, keepdims=True)
            broad *= half.girths[:, None] / np.maximum(long, 1e-6)
        return Half(half.x * broad, y, half.z, half.girths)

    return put(left), put(right)


BROADENED = 6
"""After so many tries a side is as long as it was within a hundredth."""


def held_out(girth: Numbers, body: Numbers, down: Numbers, top: float, cloth: Cloth, gathered: bool = False) -> Numbers:
    """How long each slice is without its folds (mm): as long as the girth where that lies on what it hangs over, else
    held out by a share of what is spare; no steeper than cloth stands.

    ``body`` what it hangs over at each level, ``down`` how far below its top, ``top`` how long its top is held.
    """
    over = np.maximum.accumulate(body)
    ratio = girth / over
    share = HELD_OUT[cloth.drape] * (0.55 if gathered else 1.0) / (1 + 0.08 * np.maximum(ratio - 1, 0))
    stands = np.minimum(np.where(ratio <= CLOSE, girth, over + (girth - over) * share), girth)
    spare = np.maximum(stands - top, 1.0)
    rises = top + spare * (1 - np.exp(-2 * np.pi * MOST_STEEP * down / spare))
    free: Numbers = np.where(stands > top, np.maximum(rises, np.minimum(over, stands)), stands)
    return np.where(ratio <= CLOSE, girth, free)


@dataclass(frozen=True)
class Folds:
    """How many folds fullness makes, and how unlike they are."""

    around: Callable[[Cloth, float, float, float], float]
    """All round the foot, by the cloth, how long the foot is held and is, and how long it hangs (mm)."""
    uneven: float


FLARES = Folds(lambda cloth, held, girth, long: held / FOLD_EVERY[cloth.weight], 0.12)
GATHERS = Folds(lambda cloth, held, girth, long: held / GATHERED_EVERY, 0.5)


def folds_of(held: Numbers, girth: Numbers, long: float, cloth: Cloth, folds: Folds) -> Numbers | None:
    """The folds of half a surface ``long`` from top to foot, by how long its slices are held and are; None where it has
    none.
    """
    if (girth < held * 1.005).all():
        return None
    # short strips fall in small folds: none is deeper than a share of the strip
    deep = float(girth[-1]) / 4 / max(MOST_DEEP * long, 1.0)
    around = folds.around(cloth, float(held[-1]), float(girth[-1]), long)
    return phases(max(2, round(around / 2), round(deep)), folds.uneven)


def half_surface(
    z: Numbers, girths: Numbers, base: Numbers, aspect: Numbers, forward: Numbers, phase: Numbers | None
) -> Half:
    """Her left side from its rows: ``girths`` and ``base`` are whole lengths, with and without folds (mm)."""
    x, y = half_ellipses(base, aspect)
    x, y = folded(x, y, girths / 2, phase)
    return Half(x, y + forward[:, None], z, girths / 2)
