"""A dress as it is sewn: its net, where it begins, and which point is what of which piece."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np
from scipy.interpolate import LinearNDInterpolator
from scipy.spatial import cKDTree

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.hang.mesh import Flags, Indices, Numbers
from gentle_hem.core.hang.net import Net
from gentle_hem.core.hang.stand import Stand
from gentle_hem.core.two_sides import OneSide

ROUND = 0.3
"""How much a turn round her counts for height, where it is taken apart (m)."""

LIKE, FOREIGN = 1.25, 0.01
"""What is so many times as long or as wide as it was, or as short, begins anew; so does a piece of which such a share
lies where there was none."""

Lain = Mapping[tuple[str, int, int], tuple[Numbers, Numbers]]
"""By piece, where its places lay as it was cut, and where they lie (m)."""


@dataclass(frozen=True)
class Sheet:
    """One piece in the net: its places as it was cut, and the points they are."""

    key: tuple[str, int, int]
    """Which piece it is, in which hanging part, and which of that part's patches."""
    laid: Numbers
    """By place, where it lies in the piece; of a strip how far along it and down it."""
    points: Indices
    role: ClothRole
    """The cloth it is cut of."""
    beside: bool
    """Whether it hangs over what lies on her: a cape, a ruffle."""
    is_sleeve: bool = False
    """Whether it goes round an arm."""
    is_cape: bool = False
    """Whether it goes over her arms."""
    is_strap: bool = False
    """Whether it goes over a shoulder."""

    @property
    def name(self) -> str:
        """What the piece is called."""
        return self.key[0]


@dataclass(frozen=True)
class Sewn:
    """Everything sewn: her form, the net, where it begins (m), what of it is held, and which point is what."""

    stand: Stand
    """Her form, on legs under trousers, with arms in sleeves and under capes."""
    net: Net
    start: Numbers
    held: Numbers
    sheets: tuple[Sheet, ...]
    sheet_of: Indices
    """By triangle, the number of its piece among them."""
    hem: Indices
    """The points of the hem, from the centre front to the centre back; none where nothing that is hung has one."""
    edges: dict[tuple[str, str], Indices]
    """By piece and edge, its points in the order of its path."""
    seams: tuple[tuple[str, Indices], ...]
    """Every seam by its name, and its points."""
    left_out: tuple[str, ...]
    """Pieces that are not hung."""
    is_held: bool
    """Whether it hangs from a waist that is held, because its bodice is only measured."""
    is_legs: bool
    """Whether it ends in legs: its hem goes round her left one, from the inside over the front to the inside."""
    side: OneSide | None = None
    """Which of her sides it is, where her right is another than her left: as if the other were like it, her right seen
    as in a mirror."""

    @property
    def on_arm(self) -> Flags:
        """By point, whether it is a sleeve's or a cape's."""
        made: Flags = np.zeros(self.net.count, dtype=bool)
        for sheet in self.sheets:
            if sheet.is_sleeve or sheet.is_cape:
                made[sheet.points] = True
        if any(sheet.is_cape for sheet in self.sheets):  # what it is sewn to lies under her arms
            for sheet in self.sheets:
                if not (sheet.is_sleeve or sheet.is_cape):
                    made[sheet.points] = False
        return made

    @property
    def pieces(self) -> tuple[str, ...]:
        """What its pieces are called."""
        return tuple(sheet.name for sheet in self.sheets)

    @property
    def on_middle(self) -> Flags:
        """By point, whether it is held on the middle of her, where one half goes over into the other."""
        made: Flags = (self.held[:, 0] > 0) & (self.start[:, 0] == 0.0)
        return made

    @property
    def outlines(self) -> Indices:
        """The pairs of points that are joined by an edge of a piece: its seams, its hem, its openings."""
        sides = np.concatenate([self.net.triangles[:, pair] for pair in ((0, 1), (1, 2), (2, 0))])
        keyed = np.column_stack((np.tile(self.sheet_of, 3), np.sort(sides, axis=1)))
        found, times = np.unique(keyed, axis=0, return_counts=True)
        made: Indices = np.unique(found[times == 1][:, 1:], axis=0)
        on_middle = self.on_middle
        made = made[~(on_middle[made[:, 0]] & on_middle[made[:, 1]])]
        apart: Indices = made[made[:, 0] != made[:, 1]]
        return apart

    @property
    def where(self) -> Numbers:
        """How far round and how high its points begin (m): to take it apart by."""
        x, y, z = self.start.T
        made: Numbers = np.stack((ROUND * np.arctan2(x, y), z), axis=1)
        return made

    def lain(self, places: Numbers) -> Lain:
        """How every piece of it lies, when its points lie at ``places`` (m)."""
        return {sheet.key: (sheet.laid, places[sheet.points]) for sheet in self.sheets}

    def is_like(self, lain: Lain) -> bool:
        """Whether it has the same pieces as what lies so, about as long and as wide and of the same outline: others
        would begin crumpled.
        """
        return {sheet.key for sheet in self.sheets} == set(lain) and all(
            _is_like(sheet.laid, lain[sheet.key][0]) for sheet in self.sheets
        )

    def carried(self, lain: Lain) -> Numbers:
        """Where its points begin, when the same pieces in other triangles, or of another length, lie so (m)."""
        sums, times = np.zeros((self.net.count, 3)), np.zeros(self.net.count)
        for sheet in self.sheets:
            laid, values = lain[sheet.key]
            laid, here = _in_box(laid), _in_box(sheet.laid)  # a longer piece lies as the shorter did, drawn out
            found = LinearNDInterpolator(laid, values)(here)
            outside = np.isnan(found[:, 0])
            if outside.any():
                found[outside] = _beside(laid, values, here[outside])
            np.add.at(sums, sheet.points, found)
            np.add.at(times, sheet.points, 1.0)
        made: Numbers = sums / times[:, None]
        for axis in range(3):
            fixed = self.held[:, axis] > 0
            made[fixed, axis] = self.start[fixed, axis]
        return made


def _is_like(laid: Numbers, before: Numbers) -> bool:
    """Whether a piece is about as wide and as long as it was, and drawn to the same box of the same outline."""
    share = np.ptp(laid, axis=0) / np.maximum(np.ptp(before, axis=0), 1e-9)
    if not ((share < LIKE).all() and (share > 1 / LIKE).all()):
        return False
    known = cKDTree(_in_box(before))
    between = known.query(known.data, k=2)[0][:, 1].max()
    beside, _ = known.query(_in_box(laid))
    return bool(np.mean(beside > between) < FOREIGN)


def _in_box(laid: Numbers) -> Numbers:
    """Places as shares of the upright box round them."""
    low, high = laid.min(axis=0), laid.max(axis=0)
    made: Numbers = (laid - low) / np.maximum(high - low, 1e-9)
    return made


def _beside(laid: Numbers, values: Numbers, places: Numbers) -> Numbers:
    """Values at places just outside those that are known: carried on from the three nearest."""
    _, near = cKDTree(laid).query(places, k=3)
    made = np.empty((len(places), values.shape[1]))
    for k, (place, at) in enumerate(zip(places, near, strict=True)):
        corners = np.column_stack((laid[at], np.ones(3)))
        if abs(np.linalg.det(corners)) < 1e-9 * float(np.abs(laid[at] - laid[at[0]]).max()) ** 2:
            made[k] = values[at[0]]
            continue
        share = np.clip(np.linalg.solve(corners.T, np.array([*place, 1.0])), -0.5, 1.5)
        made[k] = (share / share.sum()) @ values[at]
    return made
