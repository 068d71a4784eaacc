"""How cloth is curved: what makes of the places of its points the curvature of every triangle.

 ╱╲╱╲      the quadratic surface through a triangle and its neighbours; exact for every quadratic surface,
╱__╳__╲    whatever the triangles are like
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix, csc_matrix

from gentle_hem.core.hang.mesh import Mesh, Numbers


class TooFewPoints(ValueError):  # noqa: N818  (it is what the cloth has)
    """Cloth in so few triangles that nothing says how it bends."""


def curvatures(mesh: Mesh) -> csc_matrix:
    """What makes of the places of the points how every triangle is curved: along x, along y, and how it is twisted
    (1/m), from the quadratic surface through its corners and those of its neighbours.

    It is exact for every quadratic surface, whatever the triangles are like; where the cloth ends and neighbours are
    missing, the nearest points around stand in for them. Raises TooFewPoints.
    """
    opposite, joined = _neighbours(mesh)
    middles = mesh.points[mesh.triangles].mean(axis=1)
    waiting = {
        t: {*corners, *(p for a, b in zip(corners, corners[1:] + corners[:1], strict=True)
                        for p in opposite[min(a, b), max(a, b)])}
        for t, corners in enumerate(mesh.triangles.tolist())
    }  # fmt: skip
    rows, columns, values = [], [], []
    while waiting:
        by_size: dict[int, list[int]] = {}
        for t, around in waiting.items():
            by_size.setdefault(len(around), []).append(t)
        wider: dict[int, set[int]] = {}
        for size, here in by_size.items():
            patches = np.array([sorted(waiting[t]) for t in here])
            is_known, fitted = _fitted(mesh.points[patches] - middles[here][:, None])
            for t in np.array(here)[~is_known].tolist():
                wider[t] = waiting[t] | {p for one in waiting[t] for p in joined[one]}
                if wider[t] == waiting[t]:
                    raise TooFewPoints("This cloth has too few points to bend; its triangles must be smaller.")
            kept = np.array(here)[is_known]
            rows.append(np.repeat(3 * kept[:, None] + np.arange(3), size, axis=1).ravel())
            columns.append(np.repeat(patches[is_known][:, None], 3, axis=1).ravel())
            values.append(fitted[is_known].ravel())
        waiting = wider
    shape = (3 * len(mesh.triangles), len(mesh.points))
    return coo_matrix((np.concatenate(values), (np.concatenate(rows), np.concatenate(columns))), shape=shape).tocsc()


WELL_KNOWN = 0.003
"""A quadratic surface is known by its points where the least of their singular values is more than such a share of the
greatest: fewer than six, or such as lie on a conic, do not know it."""


def _fitted(by: Numbers) -> tuple[NDArray[np.bool_], Numbers]:
    """What makes of values at places, patch by patch, their second slopes: along x, along y, and mixed; and which of
    the patches know them.
    """
    size = np.abs(by).max(axis=(1, 2))
    x, y = np.moveaxis(by / size[:, None, None], -1, 0)
    terms = np.stack((np.ones_like(x), x, y, x * x / 2, y * y / 2, x * y), axis=2)
    if by.shape[1] < 6:
        return np.zeros(len(by), dtype=bool), np.zeros((len(by), 3, by.shape[1]))
    known = np.linalg.svd(terms, compute_uv=False)
    made: Numbers = np.linalg.pinv(terms)[:, 3:] / size[:, None, None] ** 2
    return known[:, -1] >= WELL_KNOWN * known[:, 0], made


def _neighbours(mesh: Mesh) -> tuple[dict[tuple[int, int], list[int]], list[set[int]]]:
    """By edge, the points opposite it; by point, the points it is joined to."""
    opposite: dict[tuple[int, int], list[int]] = {}
    joined: list[set[int]] = [set() for _ in mesh.points]
    for triangle in mesh.triangles.tolist():
        for k in range(3):
            a, b, c = triangle[k], triangle[(k + 1) % 3], triangle[(k + 2) % 3]
            opposite.setdefault((min(a, b), max(a, b)), []).append(c)
            joined[a].update((b, c))
    return opposite, joined
