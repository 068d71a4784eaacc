"""Which parts of cloth may come near each other on their way: by the boxes round them, compiled.

sorted along one axis, strip by strip of another: only boxes that begin before another ends are held against it
"""

from __future__ import annotations

import numpy as np
from numba import njit

from gentle_hem.core.hang.mesh import Indices, Numbers

STRIP = 2.5
"""A strip in which boxes are looked for is so many times as wide as they are in the mean."""


@njit("f8[:,:,::1](f8[:,::1], f8[:,::1], i8[:,::1], f8, i8)", cache=True)
def _boxes(places: Numbers, moved: Numbers, who: Indices, within: float, axis: int) -> Numbers:
    """The boxes of points that belong together, drawn out along a step and ``within`` wider, the lower end and the
    higher one; that axis first, and sorted by its lower ends: with the number of each box, as a last pair.
    """
    made = np.empty((len(who), 4, 2))
    for n in range(len(who)):
        for i in range(3):
            small, large = 1e9, -1e9
            for p in who[n]:
                small = min(small, places[p, (axis + i) % 3], moved[p, (axis + i) % 3])
                large = max(large, places[p, (axis + i) % 3], moved[p, (axis + i) % 3])
            made[n, i, 0], made[n, i, 1] = small - within / 2.0, large + within / 2.0
        made[n, 3, 0] = n
    return made[np.argsort(made[:, 0, 0])]


@njit("i8[:,::1](f8[:,:,::1], f8[:,:,::1], i8[:,::1], i8[:,::1], b1, b1)", cache=True)
def _meeting(
    one: Numbers, other: Numbers, who: Indices, who_other: Indices, later: bool, alone: bool
) -> Indices:  # fmt: skip
    """The numbers of two kinds of boxes that meet and share no point, of those where the other begins no sooner than
    the one, or later; of one kind ``alone`` each two once. They are looked for strip by strip of the second axis.
    """
    made = np.empty((4096, 2), dtype=np.int64)
    if len(one) == 0 or len(other) == 0:
        return made[:0].copy()
    count = 0
    base = min(one[:, 1, 0].min(), other[:, 1, 0].min())
    wide = STRIP * max((one[:, 1, 1] - one[:, 1, 0]).mean(), (other[:, 1, 1] - other[:, 1, 0]).mean())
    strips = int((max(one[:, 1, 1].max(), other[:, 1, 1].max()) - base) / wide) + 1
    for strip in range(strips):
        start, end = base + strip * wide, base + (strip + 1) * wide
        ones = one[(one[:, 1, 1] >= start) & (one[:, 1, 0] < end)]
        others = ones if alone else other[(other[:, 1, 1] >= start) & (other[:, 1, 0] < end)]
        first = 0
        for m in range(len(ones)):
            if alone:
                first = m + 1
            else:
                while first < len(others) and (
                    others[first, 0, 0] < ones[m, 0, 0] or (later and others[first, 0, 0] == ones[m, 0, 0])
                ):
                    first += 1
            for n in range(first, len(others)):
                if others[n, 0, 0] > ones[m, 0, 1]:
                    break
                if (
                    ones[m, 1, 0] > others[n, 1, 1] or others[n, 1, 0] > ones[m, 1, 1]
                    or ones[m, 2, 0] > others[n, 2, 1] or others[n, 2, 0] > ones[m, 2, 1]
                    or int((max(ones[m, 1, 0], others[n, 1, 0]) - base) / wide) != strip  # found in another one
                ):  # fmt: skip
                    continue
                a, b = int(ones[m, 3, 0]), int(others[n, 3, 0])
                is_joined = False
                for p in who[a]:
                    for q in who_other[b]:
                        is_joined |= p == q
                if is_joined:
                    continue
                if count == len(made):
                    wider = np.empty((2 * count, 2), dtype=np.int64)
                    wider[:count] = made
                    made = wider
                made[count, 0], made[count, 1] = a, b
                count += 1
    return made[:count].copy()


def near(places: Numbers, moved: Numbers, triangles: Indices, edges: Indices, within: float) -> Indices:
    """Points with triangles, and edges with edges, that share no point and whose boxes meet, drawn out along a step and
    ``within`` wider: 1 for a point with a triangle, 0 for two edges, and their four points.
    """
    axis = int(np.ptp(places, axis=0).argmax())

    def boxes(who: Indices) -> Numbers:
        made: Numbers = _boxes(places, moved, who, within, axis)
        return made

    points = np.arange(len(places))[:, None]
    of_points, of_triangles, of_edges = boxes(points), boxes(triangles), boxes(edges)
    inside = np.concatenate((
        _meeting(of_triangles, of_points, triangles, points, False, False)[:, ::-1],
        _meeting(of_points, of_triangles, points, triangles, True, False),
    ))  # fmt: skip
    both = _meeting(of_edges, of_edges, edges, edges, False, True)
    made = np.empty((len(inside) + len(both), 5), dtype=np.int64)
    made[: len(inside), 0], made[: len(inside), 1] = 1, inside[:, 0]
    made[: len(inside), 2:] = triangles[inside[:, 1]]
    made[len(inside) :, 0] = 0
    made[len(inside) :, 1:] = edges[both].reshape(-1, 4)
    return made
