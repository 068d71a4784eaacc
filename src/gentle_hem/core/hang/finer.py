"""Gathers that are finer than the triangles, as they are drawn.

 row of stitches   ┬┬┬┬┬┬┬   what is pushed together along its weft lies in folds that the triangles are too large for:
 finer folds       │╱╲╱╲╱│   they are drawn as waves as wide as the cloth wrinkles there, and so deep that they take up
 wider folds       ╱ ╲ ╱ ╲   as much of it; twice as wide four times as far down

Nothing of how it hangs is changed by it, and nothing is read from it.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from math import ceil

import numpy as np
from scipy.spatial import cKDTree

from gentle_hem.core.hang.mesh import Flags, Indices, Numbers
from gentle_hem.core.hang.sewn import Sewn
from gentle_hem.core.replace import replace

GATHERED = 1.1
"""What is cut so many times as long as what it is sewn to is gathered there."""

SMOOTH = 0.02
"""What is pushed together by no more is drawn smooth."""

WAVES = 2
"""Waves of so many widths are drawn: half as wide as a fold at the foot, and half of that."""

STEEPEST = 1.5
"""No wave is steeper."""

POINTS, MOST, AT_MOST = 8, 6, 40_000
"""The narrowest wave is drawn by so many points, but no side of a triangle is parted into more than so many, and there
are no more triangles than that."""

UNEVEN, EVERY = 1.1, 2.7
"""Waves come earlier and later by so much (radians), over so many of them: no gathers are even."""

EVENED = 3
"""How often what is pushed together is evened out between neighbours."""

LEAST = 2e-4
"""Waves that are not so high are none (m)."""


def outward(places: Numbers, triangles: Indices) -> Numbers:
    """The way straight out of a surface at its points: those of the faces round each, larger ones more."""
    a, b, c = (places[triangles[:, k]] for k in range(3))
    made = np.zeros_like(places)
    for k in range(3):
        np.add.at(made, triangles[:, k], np.cross(b - a, c - a))
    size: Numbers = np.linalg.norm(made, axis=1, keepdims=True)
    return made / np.maximum(size, 1e-12)


@dataclass(frozen=True)
class Finer:
    """A sewn dress in finer triangles where it is gathered: each of its points lies in a triangle of the net, between
    its corners by ``shares``; the points of the net come first.
    """

    sewn: Sewn
    within: Indices
    shares: Numbers
    triangles: Indices
    part_of: Indices
    """By triangle, of which one of the net it is a part."""
    lines: Indices
    """The pairs of points that are inked."""

    @classmethod
    def whole(cls, sewn: Sewn) -> Finer:
        """A dress in the triangles of its net."""
        return _plain(sewn)._turned()

    @classmethod
    def of(cls, sewn: Sewn, places: Numbers) -> Finer:
        """A dress whose points lie at ``places`` (m)."""
        triangles, plain = sewn.net.triangles, _plain(sewn)
        is_waved = _high(sewn, places)[triangles].max(axis=(1, 2)) > LEAST
        near = np.zeros(sewn.net.count, dtype=bool)
        near[triangles[is_waved]] = True
        waved = np.flatnonzero(near[triangles].any(axis=1))
        if len(waved) == 0:
            return plain._turned()
        side = np.sqrt(4 / np.sqrt(3) * sewn.net.areas[is_waved])
        parts = ceil(float(np.median(POINTS * side / _widths(sewn)[sewn.sheet_of[is_waved], -1])))
        parts = min(parts, MOST, int((AT_MOST / len(waved)) ** 0.5))
        return (plain if parts < 2 else _parted(plain, waved, parts))._turned()

    def _turned(self) -> Finer:
        """The same with all its triangles turning right as they are seen from outside."""
        return replace(self, triangles=_to_the_right(self.sewn, self.triangles, self.sheet_of))

    @property
    def is_finer(self) -> bool:
        """Whether any of it is in finer triangles than the net."""
        return len(self.triangles) > len(self.sewn.net.triangles)

    @property
    def sheet_of(self) -> Indices:
        """By triangle, the number of its piece."""
        made: Indices = self.sewn.sheet_of[self.part_of]
        return made

    def lain(self, places: Numbers) -> Numbers:
        """Where its points lie, when those of the net lie at ``places`` (m): in waves that rise out from her."""
        net = self.sewn.net
        along = (self.shares * net.flat[self.within, :, 0]).sum(axis=1)
        turn = 2 * np.pi * along[:, None] / _widths(self.sewn)[self.sewn.sheet_of[self.within]]
        waves = 1 + np.cos(turn + UNEVEN * np.sin(turn / EVERY))
        far: Numbers = (self._between(_high(self.sewn, places)) * waves).sum(axis=1, keepdims=True)
        return self._smooth(places) + far * self._between(_out(self.sewn, places))

    def ways(self, places: Numbers) -> Numbers:
        """The way straight out of the cloth at its points, away from her: in its waves, and else as it is seen in the
        triangles of the net.
        """
        waved, smooth = (-outward(at, self.triangles) for at in (self.lain(places), self._smooth(places)))
        made = self._between(_out(self.sewn, places)) + waved - smooth
        ways: Numbers = made / np.maximum(np.linalg.norm(made, axis=1, keepdims=True), 1e-9)
        return ways

    def _between(self, values: Numbers) -> Numbers:
        """Values of the points of the net at its own."""
        made: Numbers = np.einsum("nk,nki->ni", self.shares, values[self.sewn.net.triangles[self.within]])
        return made

    def _smooth(self, places: Numbers) -> Numbers:
        """Where its points would lie without a wave: as rounded as the cloth is."""
        corners = self.sewn.net.triangles[self.within]
        bulge = _bulge(self.shares, places[corners], _out(self.sewn, places)[corners])
        return self._between(places) + self._between(self._rounded[:, None]) * bulge

    @property
    def _rounded(self) -> Numbers:
        """By point of the net, 1 where all round it is parted, so that it can be drawn rounded, and else 0."""
        net = self.sewn.net
        whole = np.flatnonzero(np.bincount(self.part_of, minlength=len(net.triangles)) == 1)
        made = np.ones(net.count)
        made[net.triangles[whole]] = 0.0
        return made


def _bulge(shares: Numbers, at: Numbers, out: Numbers) -> Numbers:
    """How far a rounded triangle lies off the flat one between its corners (m): the cubic one that has their ways out
    (Vlachos and others, Curved PN triangles, 2001, from memory).
    """
    made, sides = np.zeros((len(shares), 3)), np.zeros((len(shares), 3))
    u = shares[:, :, None]
    for a in range(3):
        made += u[:, a] ** 3 * at[:, a]
        for b in ((a + 1) % 3, (a + 2) % 3):
            way = at[:, b] - at[:, a]
            near = at[:, a] + (way - (way * out[:, a]).sum(axis=1, keepdims=True) * out[:, a]) / 3
            made += 3 * u[:, a] ** 2 * u[:, b] * near
            sides += near / 6
    made += 6 * u[:, 0] * u[:, 1] * u[:, 2] * (1.5 * sides - 0.5 * at.mean(axis=1))
    made -= np.einsum("nk,nki->ni", shares, at)
    return made


def _widths(sewn: Sewn) -> Numbers:
    """By piece and wave, how wide it is (m, as it was cut)."""
    made = np.empty((len(sewn.sheets), WAVES))
    for number in range(len(sewn.sheets)):
        fabric = sewn.net.fabrics[sewn.net.fabric[int(np.argmax(sewn.sheet_of == number))]]
        made[number] = fabric.fold(float(np.ptp(_cut(sewn, number)[1][:, 1]))) / 2 ** np.arange(1, WAVES + 1)
    return made


def _cut(sewn: Sewn, number: int) -> tuple[Indices, Numbers]:
    """The points of a piece, and where they lay as it was cut (m)."""
    own = sewn.sheet_of == number
    points, first = np.unique(sewn.net.triangles[own], return_index=True)
    return points, sewn.net.flat[own].reshape(-1, 2)[first]


def heights(pushed: Numbers, below: Numbers, widths: Numbers) -> Numbers:
    """By point and wave, half of how high it is (m), where such shares of the cloth are pushed together, so far below
    the stitches as shares of how far down the cloth hangs; ``widths`` of the waves as it was cut (m).

    Together they are so steep that they take up what is pushed together: a wave whose slope is at most s is longer than
    the way along it by s² ÷ 4 (any textbook of calculus; a little less where it is steep). Each is the only one where
    the cloth wrinkles just as wide: λ ∝ √y at y below what it is held by (Cerda and Mahadevan, as ``Fabric.fold``).
    """
    level = np.log(np.maximum(below, 1e-6)) / np.log(4)
    slope = np.minimum(2 * np.sqrt(1 / (1 - np.maximum(pushed - SMOOTH, 0.0)) - 1), STEEPEST)
    made = np.empty((len(pushed), len(widths)))
    for wave, wide in enumerate(widths):
        off = level + wave + 1  # 0 where this one is the only one
        finest = wave == len(widths) - 1
        part = np.cos(np.pi / 2 * np.clip(np.maximum(off, 0.0) if finest else np.abs(off), 0.0, 1.0))
        made[:, wave] = part * slope * wide * (1 - pushed) / (2 * np.pi)
    return made


def _high(sewn: Sewn, places: Numbers) -> Numbers:
    """By point and wave, how high it is (m); at a seam and on the middle of her it is flat."""
    net, triangles = sewn.net, sewn.net.triangles
    weft = np.linalg.norm(np.einsum("tk,tki->ti", net.slopes[:, :, 0], places[triangles]), axis=1)
    hidden = np.clip(1 - weft, 0.0, 0.8)
    seamed, gathered = _seamed(sewn), _gathered(sewn)
    widths, made = _widths(sewn), np.zeros((net.count, WAVES))
    for number in range(len(sewn.sheets)):
        own = sewn.sheet_of == number
        corners, weights = triangles[own].ravel(), np.repeat(net.areas[own], 3)
        area = np.maximum(np.bincount(corners, weights=weights, minlength=net.count), 1e-12)
        points, cut = _cut(sewn, number)
        stitched = gathered[number, points]
        if not stitched.any():
            continue
        by_triangle = hidden[own]
        for _ in range(EVENED):
            at = np.bincount(corners, weights=weights * np.repeat(by_triangle, 3), minlength=net.count) / area
            by_triangle = at[triangles[own]].mean(axis=1)
        below, _ = cKDTree(cut[stitched]).query(cut)
        made[points] = heights(at[points], below / below.max(), widths[number])
    made[seamed | sewn.on_middle] = 0.0
    return made


def _seamed(sewn: Sewn) -> Flags:
    """By point, whether it is sewn to another piece."""
    times = np.zeros(sewn.net.count, dtype=np.int64)
    for sheet in sewn.sheets:
        times[np.unique(sheet.points)] += 1
    made: Flags = times > 1
    return made


def _gathered(sewn: Sewn) -> Flags:
    """By piece and point, whether it is gathered there: the sides of triangles that two pieces have in common are cut
    longer in it than in the other.
    """
    net = sewn.net
    pairs = ((0, 1), (1, 2), (2, 0))
    sides = np.sort(np.concatenate([net.triangles[:, pair] for pair in pairs]), axis=1)
    long = np.concatenate([np.hypot(*(net.flat[:, b] - net.flat[:, a]).T) for a, b in pairs])
    of = np.tile(sewn.sheet_of, 3)
    _, which = np.unique(sides, axis=0, return_inverse=True)
    shortest = np.full(which.max() + 1, np.inf)
    np.minimum.at(shortest, which.ravel(), long)
    longer = long > GATHERED * shortest[which.ravel()]
    made: Flags = np.zeros((len(sewn.sheets), net.count), dtype=bool)
    for end in (0, 1):
        made[of[longer], sides[longer, end]] = True
    return made


def _to_the_right(sewn: Sewn, triangles: Indices, sheet_of: Indices) -> Indices:
    """Triangles of its pieces with those turned over that turn left as they are seen from outside her, where they
    begin: a strap lies the other way round.
    """
    a, b, c = (sewn.start[sewn.net.triangles[:, k]] for k in range(3))
    away = (np.cross(b - a, c - a) * sewn.stand.out((a + b + c) / 3)).sum(axis=1)
    is_left = np.bincount(sewn.sheet_of, weights=away, minlength=len(sewn.sheets)) > 0
    made: Indices = np.where(is_left[sheet_of][:, None], triangles[:, ::-1], triangles)
    return made


def _out(sewn: Sewn, places: Numbers) -> Numbers:
    """The way out from her at every point of the cloth."""
    made = -outward(places, _to_the_right(sewn, sewn.net.triangles, sewn.sheet_of))
    made[sewn.on_middle, 0] = 0.0
    return made


def _plain(sewn: Sewn) -> Finer:
    triangles = sewn.net.triangles
    within = np.zeros(sewn.net.count, dtype=np.int64)
    within[triangles.ravel()] = np.repeat(np.arange(len(triangles)), 3)
    shares = (triangles[within] == np.arange(sewn.net.count)[:, None]).astype(np.float64)
    return Finer(sewn, within, shares, triangles, np.arange(len(triangles)), sewn.outlines)


def _parted(plain: Finer, waved: Indices, parts: int) -> Finer:
    """Some triangles parted, each side into so many."""
    corners = plain.triangles[waved]
    sides = np.sort(np.concatenate([corners[:, (k, (k + 1) % 3)] for k in range(3)]), axis=1)
    sides, which = np.unique(sides, axis=0, return_inverse=True)
    which = which.reshape(3, -1)
    lattice = np.array([(parts - i - j, i, j) for i in range(parts + 1) for j in range(parts + 1 - i)])
    number = {tuple(at): k for k, at in enumerate(lattice.tolist())}
    first = len(plain.within)
    ids = np.empty((len(waved), len(lattice)), dtype=np.int64)
    middle = first + len(sides) * (parts - 1)
    for at, k in number.items():
        corner = [c for c in range(3) if at[c] == parts]
        empty = [c for c in range(3) if at[c] == 0]
        if corner:
            ids[:, k] = corners[:, corner[0]]
        elif empty:  # on the side opposite, counted from its lower point
            start, end = (empty[0] + 1) % 3, (empty[0] + 2) % 3
            far = np.where(corners[:, start] < corners[:, end], at[end], at[start])
            ids[:, k] = first + which[start] * (parts - 1) + far - 1
        else:
            ids[:, k] = middle + np.arange(len(waved))
            middle += len(waved)
    within, shares = (np.concatenate((of, np.zeros((middle - first, *of.shape[1:]), of.dtype))) for of in
                      (plain.within, plain.shares))  # fmt: skip
    fresh = ids >= first
    within[ids[fresh]] = np.repeat(waved[:, None], len(lattice), axis=1)[fresh]
    shares[ids[fresh]] = np.broadcast_to(lattice / parts, (*ids.shape, 3))[fresh]
    small = np.array(list(_small(number)))
    kept = np.setdiff1d(np.arange(len(plain.triangles)), waved)
    numbers = {(a, b): k for k, (a, b) in enumerate(sides.tolist())}
    lines: list[tuple[int, int]] = []
    for a, b in plain.lines.tolist():
        side = numbers.get((a, b))
        new = [] if side is None else (first + side * (parts - 1) + np.arange(parts - 1)).tolist()
        lines += zip([a, *new], [*new, b], strict=True)
    return Finer(
        plain.sewn, within, shares, np.concatenate((plain.triangles[kept], ids[:, small].reshape(-1, 3))),
        np.concatenate((kept, np.repeat(waved, len(small)))), np.array(lines),
    )  # fmt: skip


def _small(number: dict[tuple[int, ...], int]) -> Iterator[tuple[int, int, int]]:
    """The small triangles of a parted one, turning as it does."""
    for (a, b, c), k in number.items():
        if a > 0:
            yield k, number[a - 1, b + 1, c], number[a - 1, b, c + 1]
        if a > 0 and b > 0:
            yield k, number[a - 1, b, c + 1], number[a, b - 1, c + 1]
