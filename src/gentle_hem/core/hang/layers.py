"""Cloth on cloth: no layer goes through another, from a start in which none does.

near      every point by every triangle, and every edge by every other, that may come together on the way of a step
pushed    what is nearer than a layer is thick is pushed off, the harder the nearer: κ (d − D)² ln(D ÷ d)
held up   a point goes no further of its step than leaves a part of each gap; so nothing is crossed, at any time step

The push is the barrier of incremental potential contact (Li et al. 2020), how far a step may go is found by additive
conservative advancement (Li, Kaufman and Jiang 2021); both from memory.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from math import log, sqrt

import numpy as np
from numba import njit
from numpy.typing import NDArray
from scipy.sparse import csr_matrix

from gentle_hem.core.hang.mesh import Indices, Numbers
from gentle_hem.core.hang.near import near
from gentle_hem.core.hang.net import Net

THICK = 0.002
"""Layers that are nearer push each other off (m)."""

PUSHES = 1e5
"""How hard (N a m² for each m, at about half of that): ten layers of cloth lie a tenth of a millimetre nearer."""

NEARLY = 1.5
"""Layers that are nearer than so many thicknesses may push each other soon."""

SMOOTHED, ONE_PLACE = 10, 2e-5
"""What crosses is made smoother so many times; what is nearer lies in one place (m)."""

LEFT = 0.6
"""So much of every gap, or of what layers keep apart, is left by each step: nearer they would push so hard that little
of the step were taken."""

PASSES = 12
"""So many times it is asked how far points may go; what is still in the way then does not move in this step."""


@njit("UniTuple(f8, 3)(f8[::1], f8[::1], f8[::1], f8[::1])", cache=True)
def nearest_in(p: Numbers, a: Numbers, b: Numbers, c: Numbers) -> tuple[float, float, float]:
    """The place of a triangle nearest to p, as shares of its corners (Ericson, Real-Time Collision Detection 5.1.5,
    from memory).
    """
    d1 = d2 = d3 = d4 = d5 = d6 = 0.0
    for i in range(3):
        u, v = b[i] - a[i], c[i] - a[i]
        d1 += u * (p[i] - a[i])
        d2 += v * (p[i] - a[i])
        d3 += u * (p[i] - b[i])
        d4 += v * (p[i] - b[i])
        d5 += u * (p[i] - c[i])
        d6 += v * (p[i] - c[i])
    if d1 <= 0.0 and d2 <= 0.0:
        return 1.0, 0.0, 0.0
    if d3 >= 0.0 and d4 <= d3:
        return 0.0, 1.0, 0.0
    vc = d1 * d4 - d3 * d2
    if vc <= 0.0 and d1 >= 0.0 and d3 <= 0.0:
        t = d1 / max(d1 - d3, 1e-30)
        return 1.0 - t, t, 0.0
    if d6 >= 0.0 and d5 <= d6:
        return 0.0, 0.0, 1.0
    vb = d5 * d2 - d1 * d6
    if vb <= 0.0 and d2 >= 0.0 and d6 <= 0.0:
        t = d2 / max(d2 - d6, 1e-30)
        return 1.0 - t, 0.0, t
    va = d3 * d6 - d5 * d4
    if va <= 0.0 and d4 - d3 >= 0.0 and d5 - d6 >= 0.0:
        t = (d4 - d3) / max((d4 - d3) + (d5 - d6), 1e-30)
        return 0.0, 1.0 - t, t
    whole = max(va + vb + vc, 1e-30)
    return va / whole, vb / whole, vc / whole


@njit("UniTuple(f8, 2)(f8[::1], f8[::1], f8[::1], f8[::1])", cache=True)
def nearest_between(a: Numbers, b: Numbers, c: Numbers, d: Numbers) -> tuple[float, float]:
    """The places of the edges a–b and c–d nearest to each other, as shares of their ways (Ericson 5.1.9, from
    memory).
    """
    aa = ee = f = cc = bb = 0.0
    for i in range(3):
        u, v, r = b[i] - a[i], d[i] - c[i], a[i] - c[i]
        aa += u * u
        ee += v * v
        f += v * r
        cc += u * r
        bb += u * v
    det = aa * ee - bb * bb
    s = min(max((bb * f - cc * ee) / det, 0.0), 1.0) if det > 1e-12 * aa * ee else 0.0
    t = (bb * s + f) / max(ee, 1e-30)
    if t < 0.0:
        t, s = 0.0, min(max(-cc / max(aa, 1e-30), 0.0), 1.0)
    elif t > 1.0:
        t, s = 1.0, min(max((bb - cc) / max(aa, 1e-30), 0.0), 1.0)
    return s, t


@njit("f8(f8[:,::1], b1, f8[::1], f8[::1])", cache=True)
def gap(at: Numbers, is_point: bool, share: Numbers, way: Numbers) -> float:
    """How far apart a point (the first) and a triangle, or two edges, are; ``share`` becomes the shares of the four
    places in the shortest way between them, and ``way`` that way.
    """
    if is_point:
        u, v, w = nearest_in(at[0], at[1], at[2], at[3])
        share[0], share[1], share[2], share[3] = 1.0, -u, -v, -w
    else:
        s, t = nearest_between(at[0], at[1], at[2], at[3])
        share[0], share[1], share[2], share[3] = 1.0 - s, s, t - 1.0, -t
    whole = 0.0
    for i in range(3):
        way[i] = 0.0
        for k in range(4):
            way[i] += share[k] * at[k, i]
        whole += way[i] * way[i]
    return sqrt(whole)


@njit("f8[::1](f8[:,::1], i8[:,::1])", cache=True)
def gaps(places: Numbers, pairs: Indices) -> Numbers:
    """How far apart pairs are."""
    at, share, way = np.empty((4, 3)), np.empty(4), np.empty(3)
    made = np.empty(len(pairs))
    for n in range(len(pairs)):
        for k in range(4):
            at[k] = places[pairs[n, 1 + k]]
        made[n] = gap(at, pairs[n, 0] == 1, share, way)
    return made


@njit("f8(i8[:,::1], i8, f8[::1])", cache=True)
def firmness(pairs: Indices, n: int, spread: Numbers) -> float:
    """How hard a pair pushes, by the cloth its four points stand for (N/m)."""
    area = 0.0
    for k in range(4):
        area += spread[pairs[n, 1 + k]]
    return PUSHES * area / 12.0


@njit("f8(f8[:,::1], i8[:,::1], f8[::1], f8)", cache=True)
def barrier(places: Numbers, pairs: Indices, spread: Numbers, thick: float) -> float:
    """The energy of what is nearer than ``thick`` (J); infinite where two lie in one place."""
    at, share, way = np.empty((4, 3)), np.empty(4), np.empty(3)
    whole = 0.0
    for n in range(len(pairs)):
        for k in range(4):
            at[k] = places[pairs[n, 1 + k]]
        far = gap(at, pairs[n, 0] == 1, share, way)
        if far >= thick:
            continue
        if far <= 0.0:
            return np.inf
        whole -= firmness(pairs, n, spread) * (far - thick) ** 2 * log(far / thick)
    return float(whole)


@njit("i8(f8[:,::1], i8[:,::1], f8[::1], f8, i8[:,::1], f8[:,::1], f8[:,::1], f8[::1], f8[::1])", cache=True)
def pushing(
    places: Numbers, pairs: Indices, spread: Numbers, thick: float, who: Indices, shares: Numbers, ways: Numbers,
    slopes: Numbers, firm: Numbers,
) -> int:  # fmt: skip
    """How many push, and of each its four points, their shares in the way between them, that way, how the energy rises
    along it (N), and how that does (N/m).
    """
    at, share, way = np.empty((4, 3)), np.empty(4), np.empty(3)
    count = 0
    for n in range(len(pairs)):
        for k in range(4):
            at[k] = places[pairs[n, 1 + k]]
        far = gap(at, pairs[n, 0] == 1, share, way)
        if far >= thick or far <= 0.0:
            continue
        by, depth = log(far / thick), far - thick
        size = firmness(pairs, n, spread)
        slopes[count] = -size * (2.0 * depth * by + depth * depth / far)
        for i in range(3):
            ways[count, i] = way[i] / far
        for k in range(4):
            who[count, k], shares[count, k] = pairs[n, 1 + k], share[k]
        firm[count] = size * (-2.0 * by - 4.0 * depth / far + (depth / far) ** 2)
        count += 1
    return count


@njit(
    "void(i8[:,::1], f8[:,::1], f8[:,::1], f8[::1], f8[::1], i8[:,:,::1], i8[::1], f8[:,::1], f8[:,:,::1])", cache=True
)
def pushed(
    who: Indices, shares: Numbers, ways: Numbers, slopes: Numbers, firm: Numbers, pairs: Indices, alone: Indices,
    rise: Numbers, blocks: Numbers,
) -> None:  # fmt: skip
    """Adds what pushes to how the energy rises, and to the matrix by pairs of points. ``pairs`` has −1 where the other
    order is the one that is kept, −2 where the matrix has no such pair: there each of the two is held for itself, which
    is no less firm.
    """
    for n in range(len(who)):
        for k in range(4):
            for i in range(3):
                rise[who[n, k], i] += slopes[n] * shares[n, k] * ways[n, i]
            for m in range(4):
                to = pairs[n, k, m]
                if to == -1:
                    continue
                by = firm[n] * shares[n, k] * shares[n, m]
                if to == -2:
                    to, by = alone[who[n, k]], abs(by)
                for i in range(3):
                    for j in range(3):
                        blocks[to, i, j] += by * ways[n, i] * ways[n, j]


@njit("f8(f8[:,::1], f8[:,::1], b1, f8)", cache=True)
def free_way(at: Numbers, toward: Numbers, is_point: bool, thick: float) -> float:
    """How much of a step four places may go so that a part of the gap between them, or of what layers keep apart, is
    left, up to 1.
    """
    share, way = np.empty(4), np.empty(3)
    far = gap(at, is_point, share, way)
    by = toward.copy()
    for i in range(3):
        middle = (toward[0, i] + toward[1, i] + toward[2, i] + toward[3, i]) / 4.0
        for k in range(4):
            by[k, i] -= middle
    most = np.zeros(2)
    for k in range(4):
        side = 0 if k == 0 or (k == 1 and not is_point) else 1
        most[side] = max(most[side], sqrt(by[k, 0] ** 2 + by[k, 1] ** 2 + by[k, 2] ** 2))
    speed = most[0] + most[1]
    kept, done = LEFT * min(far, thick), 0.0
    if speed <= 0.0 or far - kept > speed:
        return 1.0
    moved = np.empty((4, 3))
    for _ in range(60):
        reach = 0.9 * (far - kept) / speed
        if reach < 1e-4 and done > 0.0:
            return float(done)
        done += reach
        if done >= 1.0:
            return 1.0
        for k in range(4):
            for i in range(3):
                moved[k, i] = at[k, i] + done * by[k, i]
        far = gap(moved, is_point, share, way)
        if far <= kept:
            return float(done - reach)
    return float(done)


@njit("f8[::1](f8[:,::1], f8[:,::1], i8[:,::1], f8)", cache=True)
def free_ways(places: Numbers, toward: Numbers, pairs: Indices, thick: float) -> Numbers:
    """By point, how much of its step it may go so that none of the pairs cross on the way."""
    share = np.ones(len(places))
    changed, asked = np.zeros(len(places), dtype=np.bool_), np.ones(len(places), dtype=np.bool_)
    at, by = np.empty((4, 3)), np.empty((4, 3))
    turn = 0
    while True:
        turn += 1
        changed[:] = False
        is_done = True
        for n in range(len(pairs)):
            p, q, r, s = pairs[n, 1], pairs[n, 2], pairs[n, 3], pairs[n, 4]
            if not (asked[p] or asked[q] or asked[r] or asked[s]):
                continue
            for k in range(4):
                point = pairs[n, 1 + k]
                for i in range(3):
                    at[k, i] = places[point, i]
                    by[k, i] = toward[point, i] * share[point]
            part = free_way(at, by, pairs[n, 0] == 1, thick)
            if part < 1.0:
                is_done = False
                for k in range(4):
                    point = pairs[n, 1 + k]
                    share[point] = 0.0 if turn > PASSES else share[point] * part
                    changed[point] = True
        if is_done:
            return share
        asked[:] = changed


@njit("b1[::1](f8[:,::1], i8[:,::1], i8[:,::1])", cache=True)
def crossed(places: Numbers, triangles: Indices, edges: Indices) -> NDArray[np.bool_]:
    """Which points belong to an edge that goes through a triangle, or to that triangle."""
    count = len(triangles)
    low, high = np.empty((count, 3)), np.empty((count, 3))
    for n in range(count):
        for i in range(3):
            a, b, c = places[triangles[n, 0], i], places[triangles[n, 1], i], places[triangles[n, 2], i]
            low[n, i], high[n, i] = min(a, b, c), max(a, b, c)
    order = np.argsort(low[:, 2])
    starts = low[order, 2]
    tallest = (high[:, 2] - low[:, 2]).max()
    hit = np.zeros(len(places), dtype=np.bool_)
    for e in range(len(edges)):
        p, q = edges[e, 0], edges[e, 1]
        a = places[p]
        x, y, z = places[q, 0] - a[0], places[q, 1] - a[1], places[q, 2] - a[2]
        under, over = min(a[2], a[2] + z), max(a[2], a[2] + z)
        for m in range(np.searchsorted(starts, under - tallest), np.searchsorted(starts, over, side="right")):
            n = order[m]
            if (
                high[n, 2] < under
                or low[n, 0] > max(a[0], a[0] + x)
                or high[n, 0] < min(a[0], a[0] + x)
                or low[n, 1] > max(a[1], a[1] + y)
                or high[n, 1] < min(a[1], a[1] + y)
            ):
                continue
            i, j, k = triangles[n, 0], triangles[n, 1], triangles[n, 2]
            if p in (i, j, k) or q in (i, j, k):
                continue
            u, v, w = places[j] - places[i], places[k] - places[i], a - places[i]
            px, py, pz = y * v[2] - z * v[1], z * v[0] - x * v[2], x * v[1] - y * v[0]
            det = u[0] * px + u[1] * py + u[2] * pz
            if det == 0.0:
                continue
            across = (w[0] * px + w[1] * py + w[2] * pz) / det
            qx, qy, qz = w[1] * u[2] - w[2] * u[1], w[2] * u[0] - w[0] * u[2], w[0] * u[1] - w[1] * u[0]
            up = (x * qx + y * qy + z * qz) / det
            along = (v[0] * qx + v[1] * qy + v[2] * qz) / det
            if across >= 0.0 and up >= 0.0 and across + up <= 1.0 and 0.0 <= along <= 1.0:
                hit[p] = hit[q] = hit[i] = hit[j] = hit[k] = True
    return hit


@dataclass(frozen=True)
class Pushing:
    """What pushes layers off each other, by pair: its four points, their shares in the way between them, that way, how
    the energy rises along it (N), and how that does (N/m).
    """

    who: Indices
    shares: Numbers
    ways: Numbers
    slopes: Numbers
    firm: Numbers

    def add(self, pairs: Indices, alone: Indices, rise: Numbers, blocks: Numbers) -> None:
        """Adds it to how the energy rises, and to how that does by pairs of points, with their numbers."""
        pushed(self.who, self.shares, self.ways, self.slopes, self.firm, pairs, alone, rise, blocks)


@dataclass(frozen=True)
class Layers:
    """Cloth that may come to lie on itself."""

    net: Net
    thick: float = THICK
    """Layers that are nearer push each other off (m)."""

    @cached_property
    def edges(self) -> Indices:
        """Every edge once."""
        t = self.net.triangles
        sides = np.sort(np.concatenate((t[:, (0, 1)], t[:, (1, 2)], t[:, (2, 0)])), axis=1)
        made: Indices = np.unique(sides, axis=0)
        return made

    def near(
        self, places: Numbers, moved: Numbers, tangled: NDArray[np.bool_] | None = None, within: float = 1.0
    ) -> Indices:
        """The pairs that may come ``within`` so many thicknesses of each other on the way from places to others;
        without those of points that are ``tangled``: they are let through each other.
        """
        made: Indices = near(places, moved, self.net.triangles, self.edges, within * self.thick)
        return made if tangled is None or not tangled.any() else made[~tangled[made[:, 1:]].all(axis=1)]

    def tangled(self, places: Numbers) -> NDArray[np.bool_]:
        """Which points belong to an edge that goes through a triangle, or to that triangle."""
        made: NDArray[np.bool_] = crossed(places, self.net.triangles, self.edges)
        return made

    def untangled(self, places: Numbers, held: Numbers, apart: float = ONE_PLACE) -> Numbers:
        """Places with what crosses, or is no further ``apart`` (m), made smoother until nothing does, so far as that
        helps; ``held`` says by point and axis what stays (1).
        """
        ends = np.concatenate((self.edges, self.edges[:, ::-1])).T
        count = self.net.count
        beside = csr_matrix((np.ones(len(ends[0])), ends), shape=(count, count))
        each = np.maximum(np.asarray(beside.sum(axis=1)), 1.0)
        made = places.copy()
        for _ in range(SMOOTHED):
            tangled = self.tangled(made)
            pairs = self.near(made, made, within=apart / self.thick)
            tangled[pairs[:, 1:][gaps(made, pairs) < apart].ravel()] = True
            if not tangled.any():
                break
            round_it = (tangled | (beside @ tangled > 0))[:, None] * (1.0 - held)
            made += round_it / 2 * (beside @ made / each - made)
        return made

    def is_jammed(self, places: Numbers, pairs: Indices, within: float) -> bool:
        """Whether any of the pairs are so near each other (m)."""
        return bool(gaps(places, pairs).min(initial=np.inf) < within)

    def closest(self, places: Numbers) -> Indices:
        """The points, four by four, of what is so near that it may push soon."""
        return self.near(places, places, within=NEARLY)[:, 1:]

    def energy(self, places: Numbers, pairs: Indices) -> float:
        """Of what is pushed off (J)."""
        made: float = barrier(places, pairs, self.net.spread, self.thick)
        return made

    def pushing(self, places: Numbers, pairs: Indices) -> Pushing:
        """What of pairs pushes."""
        most = len(pairs)
        who, shares, ways = np.empty((most, 4), dtype=np.int64), np.empty((most, 4)), np.empty((most, 3))
        slopes, firm = np.empty(most), np.empty(most)
        count = pushing(places, pairs, self.net.spread, self.thick, who, shares, ways, slopes, firm)
        return Pushing(who[:count], shares[:count], ways[:count], slopes[:count], firm[:count])

    def free(self, places: Numbers, toward: Numbers, pairs: Indices) -> Numbers:
        """How much of a step every point may go so that none of the pairs cross."""
        made: Numbers = free_ways(places, toward, pairs, self.thick)
        return made
