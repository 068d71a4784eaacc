"""A steady symmetric matrix taken apart and solved: by the multifrontal method over a nested dissection of its points.

   ┌──────┬─┬──────┐      the cloth is cut in two by a row of points, and each half again, down to a few points;
   │      │ │  ┌───┤      the halves are worked out by themselves and meet in the row between them, so that
   │  A   │S│  │ B │      almost all the work is done in small full blocks
   └──────┴─┴──┴───┘

Nested dissection: George 1973; the row between them as short as can be: König 1931; multifrontal: Duff and Reid 1983
(all from memory).
"""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass

import numpy as np
from numba import njit
from scipy.sparse import csr_matrix
from scipy.sparse.csgraph import maximum_bipartite_matching

from gentle_hem.core.hang.kernels import solve_apart, take_apart
from gentle_hem.core.hang.mesh import Flags, Indices, Numbers

HANDS = ThreadPoolExecutor(1, thread_name_prefix="front")
"""Who works out one half while the other is worked out."""

LEAF = 24
"""So many points are not cut in two any more."""

TRIED, TRIED_MORE, SHARES = 100, 500, (0.45, 0.5, 0.55)
"""More points are tried to be cut along every axis; still more in unequal parts too."""


NOT_JOINED = -2
"""The number of a pair of points that share no force."""


class NotSteady(ArithmeticError):  # noqa: N818  (it is what the matrix is)
    """A matrix that gives way in some direction."""


class Pattern:
    """Which points are joined to which, and in what order they are worked out.

    A front is a block worked out by itself: the points it is rid of first, then those it leaves to fronts above it.
    """

    def __init__(self, joined: csr_matrix, where: Numbers) -> None:
        """``joined`` has a value wherever two points share a force; ``where`` are places to cut the cloth by."""
        groups: list[tuple[Indices, list[int]]] = []
        halves: list[int] = []
        _cut(joined, where, np.arange(joined.shape[0]), groups, halves)
        self._halves = (halves[-2], halves[-1]) if halves else (0, len(groups))
        """Where the fronts of the one half end, and those of the other."""
        self.count = joined.shape[0]
        rank = np.empty(self.count, dtype=np.int64)
        rank[np.concatenate([own for own, _ in groups])] = np.arange(self.count)
        both = joined.tocoo()
        keep = rank[both.row] >= rank[both.col]
        rows, columns = both.row[keep].astype(np.int64), both.col[keep].astype(np.int64)
        order = np.lexsort((rows, columns))
        self.rows, self.columns = rows[order], columns[order]
        """Every pair of points that share a force, the one worked out later first."""
        self._keys = self.columns * self.count + self.rows
        self.rank = rank
        self._fronts = _Fronts.of(self, groups)

    def pair(self, one: Indices, other: Indices) -> Indices:
        """The number of the pair that two points make; NOT_JOINED where they make none."""
        later = self.rank[one] >= self.rank[other]
        keys = np.where(later, other, one) * self.count + np.where(later, one, other)
        found = np.minimum(np.searchsorted(self._keys, keys), len(self._keys) - 1)
        made: Indices = np.where(self._keys[found] == keys, found, NOT_JOINED)
        return made

    def solved(self, blocks: Numbers, right: Numbers) -> Numbers:
        """What the matrix whose pairs of points have these blocks (3 by 3) makes ``right`` of (3 values a point).
        Raises NotSteady.
        """
        f = self._fronts
        low, high = self._halves
        x = right.copy()

        def apart(first: int, last: int) -> None:
            take_apart(
                blocks, f.own, f.starts, f.pair_starts, f.pairs, f.rows, f.columns, f.part_starts, f.parts,
                f.map_starts, f.maps, f.matrix_starts, f.matrices, first, last,
            )  # fmt: skip

        try:
            beside = HANDS.submit(apart, 0, low)  # the two halves know nothing of each other
            apart(low, high)
            beside.result()
            apart(high, len(f.own))
        except np.linalg.LinAlgError as fault:
            raise NotSteady("this matrix gives way in some direction") from fault
        solve_apart(f.own, f.starts, f.points, f.matrix_starts, f.matrices, x)
        return x


@dataclass(frozen=True)
class _Fronts:
    """All fronts, one after the other."""

    own: Indices
    """How many points each is rid of."""
    starts: Indices
    points: Indices
    pair_starts: Indices
    pairs: Indices
    """The pairs of points that come into the matrix in each …"""
    rows: Indices
    columns: Indices
    """… and where they stand in its block."""
    part_starts: Indices
    parts: Indices
    """The fronts below each …"""
    map_starts: Indices
    maps: Indices
    """… and where the points they leave stand in it."""
    matrix_starts: Indices
    matrices: Numbers

    @classmethod
    def of(cls, pattern: Pattern, groups: list[tuple[Indices, list[int]]]) -> _Fronts:
        starts = np.searchsorted(pattern.columns, np.arange(pattern.count + 1))
        local = np.full(pattern.count, -1, dtype=np.int64)
        points: list[Indices] = []
        pairs: list[Indices] = []
        rows: list[Indices] = []
        columns: list[Indices] = []
        maps: list[Indices] = []
        for own, below in groups:
            mine = np.concatenate([np.arange(starts[p], starts[p + 1]) for p in own])
            left = [points[k][len(groups[k][0]) :] for k in below]
            beyond = np.setdiff1d(np.unique(np.concatenate([pattern.rows[mine], *left])), own)
            both = np.concatenate((own[np.argsort(pattern.rank[own])], beyond[np.argsort(pattern.rank[beyond])]))
            local[both] = np.arange(len(both))
            points.append(both)
            pairs.append(mine)
            rows.append(local[pattern.rows[mine]])
            columns.append(local[pattern.columns[mine]])
            maps += [local[part] for part in left]
            local[both] = -1
        parts = [k for _, below in groups for k in below]
        sizes = np.array([9 * len(of) ** 2 for of in points])
        return cls(
            np.array([len(own) for own, _ in groups]), _starts(points), np.concatenate(points), _starts(pairs),
            np.concatenate(pairs), np.concatenate(rows), np.concatenate(columns),
            np.concatenate(([0], np.cumsum([len(below) for _, below in groups]))), np.array(parts, dtype=np.int64),
            _starts(maps), np.concatenate([*maps, np.zeros(0, dtype=np.int64)]),
            np.concatenate(([0], np.cumsum(sizes))), np.empty(int(sizes.sum())),
        )  # fmt: skip


def _starts(of: list[Indices]) -> Indices:
    made: Indices = np.concatenate(([0], np.cumsum([len(one) for one in of]))).astype(np.int64)
    return made


def _cut(
    joined: csr_matrix, where: Numbers, points: Indices, groups: list[tuple[Indices, list[int]]], halves: list[int]
) -> list[int]:
    """Cut some points in two and both halves again; the groups are put down from the smallest up, and how many there
    are after each half. Answers which of them leave something to a group above.
    """
    if len(points) <= LEAF:
        if len(points):
            groups.append((points, []))
            return [len(groups) - 1]
        return []
    places = where[points]
    axes = range(places.shape[1]) if len(points) > TRIED else (int(np.ptp(places, axis=0).argmax()),)
    shares = SHARES if len(points) > TRIED_MORE else (0.5,)
    _, low, high, between = min(
        (_halved(joined, points, places[:, axis], share) for axis in axes for share in shares), key=lambda x: x[0]
    )
    below = _cut(joined, where, low, groups, halves)
    after_low = len(groups)
    below += _cut(joined, where, high, groups, halves)
    halves += [after_low, len(groups)]
    if not len(between):
        return below
    groups.append((between, below))
    return [len(groups) - 1]


def _halved(
    joined: csr_matrix, points: Indices, along: Numbers, share: float
) -> tuple[float, Indices, Indices, Indices]:
    """Points in two, those with less along an axis and those with more, and as few as can be between them that keep
    them apart; and how bad that is.
    """
    is_low = along < np.quantile(along, share)
    if not is_low.any() or is_low.all():
        is_low = np.arange(len(points)) < len(points) // 2
    low, high = points[is_low], points[~is_low]
    number = np.full(joined.shape[0], -1)
    number[high] = np.arange(len(high))
    mine, other = _across(joined.indptr, joined.indices, low, number)
    from_low, from_high = _cover(mine, other, len(low), len(high))
    between = np.concatenate((low[from_low], high[from_high]))
    return len(between) * (1 + abs(share - 0.5)), low[~from_low], high[~from_high], between


def _cover(one: Indices, other: Indices, ones: int, others: int) -> tuple[Flags, Flags]:
    """The fewest of two kinds of points that have one end at least of every pair (König 1931, from memory): by a
    largest matching, what cannot be come to from a point that has no mate, and what can.
    """
    joined = csr_matrix((np.ones(len(one)), (one, other)), shape=(ones, others))
    mate = maximum_bipartite_matching(joined, perm_type="column").astype(np.int64)
    back = np.full(others, -1)
    back[mate[mate >= 0]] = np.flatnonzero(mate >= 0)
    seen, seen_others = _come_to(joined.indptr, joined.indices, mate, back)
    return ~seen, seen_others


@njit("UniTuple(i8[::1], 2)(i4[::1], i4[::1], i8[::1], i8[::1])", cache=True)
def _across(starts: Indices, others: Indices, low: Indices, number: Indices) -> tuple[Indices, Indices]:
    """The pairs of points that are joined from some to those that have a ``number``: the places of both."""
    most = 0
    for p in low:
        most += starts[p + 1] - starts[p]
    mine, other = np.empty(most, dtype=np.int64), np.empty(most, dtype=np.int64)
    count = 0
    for k in range(len(low)):
        for n in range(starts[low[k]], starts[low[k] + 1]):
            if number[others[n]] >= 0:
                mine[count], other[count] = k, number[others[n]]
                count += 1
    return mine[:count].copy(), other[:count].copy()


@njit("UniTuple(b1[::1], 2)(i4[::1], i4[::1], i8[::1], i8[::1])", cache=True)
def _come_to(starts: Indices, others: Indices, mate: Indices, back: Indices) -> tuple[Flags, Flags]:
    """Which of two kinds of points are come to from those without a mate, there by any pair and back by mates."""
    seen, seen_others = mate < 0, np.zeros(len(back), dtype=np.bool_)
    new = np.empty(len(mate), dtype=np.int64)
    count = 0
    for k in range(len(mate)):
        if seen[k]:
            new[count] = k
            count += 1
    while count:
        count -= 1
        for n in range(starts[new[count]], starts[new[count] + 1]):
            beyond = others[n]
            if not seen_others[beyond]:
                seen_others[beyond] = True
                again = back[beyond]  # it has a mate, or the matching were not the largest
                if not seen[again]:
                    seen[again] = True
                    new[count] = again
                    count += 1
    return seen, seen_others
