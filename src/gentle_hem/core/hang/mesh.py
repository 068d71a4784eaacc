"""Cloth in triangles: points along its edge and inside, no triangle slender, its warp along y.

╲╱╲╱╲╱      spacing s: points on the edge every s, inside in a grid of equilateral triangles,
╱╲╱╲╱╲      none nearer to the edge than 0.6 s
"""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.sparse import coo_array, diags_array
from scipy.sparse.linalg import spsolve
from scipy.spatial import Delaunay
from shapely import Polygon

Numbers = NDArray[np.float64]
Indices = NDArray[np.int64]
Flags = NDArray[np.bool_]

INSIDE = 0.6
"""How near to the edge a point inside may lie, as a share of the spacing."""

SLENDER = 1e-3
"""A triangle with less than such a share of the area of an equilateral one of the spacing is none."""


def areas_of(corners: Numbers) -> Numbers:
    """The area of every triangle, by its corners in the plane; less than nothing where it turns right."""
    a, b, c = (corners[:, k] for k in range(3))
    made: Numbers = 0.5 * ((b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (c[:, 0] - a[:, 0]))
    return made


@dataclass(frozen=True)
class Mesh:
    """Points of flat cloth (m, x along the weft, y along the warp) and its triangles, all turning left."""

    points: Numbers
    triangles: Indices

    @property
    def areas(self) -> Numbers:
        """The area of every triangle (m²)."""
        return areas_of(self.points[self.triangles])

    @property
    def quality(self) -> float:
        """The worst triangle's: 1 for an equilateral one, 0 for a line (4√3 × area ÷ the sum of the squared sides)."""
        sides = self.points[self.triangles] - self.points[np.roll(self.triangles, 1, axis=1)]
        return float(np.min(4 * np.sqrt(3) * self.areas / (sides**2).sum(axis=(1, 2))))


def meshed(shape: Polygon, spacing: float, through_points: Numbers | None = None) -> Mesh:
    """A shape (m) in triangles about ``spacing`` long at their sides, some of its points inside where they are asked
    for.
    """
    ring = np.array(shape.exterior.coords)[:-1]
    edge = []
    for start, end in zip(ring, np.roll(ring, -1, axis=0), strict=True):
        count = max(1, ceil(np.hypot(*(end - start)) / spacing - 1e-6))
        edge.append(start + (end - start) * (np.arange(count) / count)[:, None])
    inside = grid_in(shape, spacing)
    if through_points is not None:
        far = np.hypot(*(inside[:, None] - through_points[None]).transpose(2, 0, 1)).min(axis=1)
        inside = np.concatenate((through_points, inside[far > INSIDE * spacing]))
    return through(np.concatenate([*edge, inside]), shape, SLENDER * spacing**2)


def through(points: Numbers, shape: Polygon, least: float = 0.0) -> Mesh:
    """Points (m) joined to triangles that lie in a shape, each larger than ``least`` (m²)."""
    mesh = Mesh(points, Delaunay(points).simplices.astype(np.int64))  # in the plane these turn left
    middles = points[mesh.triangles].mean(axis=1)
    keep = shapely.contains_xy(shape, middles[:, 0], middles[:, 1]) & (mesh.areas > least)
    return Mesh(points, mesh.triangles[keep])


def grid_in(shape: Polygon, spacing: float) -> Numbers:
    """Points of a triangular grid well inside a shape, the grid in its middle."""
    left, bottom, right, top = shape.bounds
    row = spacing * np.sqrt(3) / 2
    rows, columns = int((top - bottom) / row) + 2, int((right - left) / spacing) + 2
    across, up = np.meshgrid(np.arange(columns), np.arange(rows))
    x = (left + right) / 2 + (across - columns / 2 + 0.5 * (up % 2)) * spacing
    y = (bottom + top) / 2 + (up - rows / 2 + 0.5) * row
    grid = np.stack((x.ravel(), y.ravel()), axis=1)
    well = shapely.contains_xy(shape.buffer(-INSIDE * spacing), grid[:, 0], grid[:, 1])
    made: Numbers = grid[well]
    return made


def drawn_to(mesh: Mesh, places: Numbers, held: Indices, to: Numbers, still: Indices) -> Numbers:
    """Places of a mesh with some drawn to where they are sewn and some kept: what lies between follows evenly."""
    count = len(places)
    t = mesh.triangles
    one, other = np.concatenate((t[:, (0, 1)], t[:, (1, 2)], t[:, (2, 0)])).T
    joined = coo_array((np.ones(len(one)), (one, other)), shape=(count, count)).tocsr()
    joined = joined + joined.T
    known = np.zeros(count, dtype=bool)
    known[still] = known[held] = True
    moved = np.zeros_like(places)
    moved[held] = to - places[held]
    free = np.flatnonzero(~known)
    if len(free) == 0 or len(held) == 0:
        return places + moved
    even = diags_array(np.asarray(joined.sum(axis=1)).ravel()) - joined
    even = even.tocsr()
    moved[free] = spsolve(even[free][:, free].tocsc(), -(even[free][:, known] @ moved[known]))
    made: Numbers = places + moved
    return made
