"""Cloth in triangles as it is sewn: each triangle's own flat shape, and the points its corners share.

flat      ╱╲ ╱╲     every triangle by itself, its warp along y
          ──╳──
sewn      points that mates of a seam, the legs of a dart or a row of gathers have in common
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from scipy.sparse import csr_matrix, diags

from gentle_hem.core.hang.bent import TooFewPoints, curvatures
from gentle_hem.core.hang.fabric import Fabric
from gentle_hem.core.hang.mesh import Indices, Mesh, Numbers, areas_of


@dataclass(frozen=True)
class Net:
    """Sewn cloth: ``flat`` are the corners of every triangle as it was cut (m), ``triangles`` the points they join,
    ``fabric`` the number of its cloth among ``fabrics``.
    """

    count: int
    flat: Numbers
    triangles: Indices
    fabrics: tuple[Fabric, ...]
    fabric: Indices
    bending: csr_matrix
    """The bending energy's matrix over the points, the same along each axis (N/m)."""

    @classmethod
    def of(cls, cuts: Sequence[tuple[Mesh, Indices, Fabric]], count: int) -> Net:
        """Cut pieces with the point each of theirs has become, and what they are cut of."""
        fabrics = tuple(dict.fromkeys(fabric for _, _, fabric in cuts))
        flat = np.concatenate([mesh.points[mesh.triangles] for mesh, _, _ in cuts])
        triangles = np.concatenate([to[mesh.triangles] for mesh, to, _ in cuts])
        of = np.concatenate([np.full(len(mesh.triangles), fabrics.index(fabric)) for mesh, _, fabric in cuts])
        bending = csr_matrix((count, count))
        for mesh, to, fabric in cuts:
            try:
                own = _bending(mesh, fabric).tocoo()
            except TooFewPoints:
                continue  # a strap's end or a corner, held by what it is sewn to on all sides
            bending = bending + csr_matrix((own.data, (to[own.row], to[own.col])), shape=(count, count))
        return cls(count, flat, triangles, fabrics, of, bending.tocsr())

    @cached_property
    def areas(self) -> Numbers:
        """The area every triangle was cut as (m²)."""
        return areas_of(self.flat)

    @cached_property
    def laid(self) -> Numbers:
        """Where every point lay as it was cut (m); of one that is in several pieces, in one of them."""
        made = np.zeros((self.count, 2))
        made[self.triangles.ravel()] = self.flat.reshape(-1, 2)
        return made

    @cached_property
    def slopes(self) -> Numbers:
        """By triangle and corner, how a quantity over the triangle changes with the corner's, along x and y (1/m)."""
        a, b, c = (self.flat[:, k] for k in range(3))
        double = 2 * self.areas[:, None]

        def over(edge: Numbers) -> Numbers:  # the edge opposite, turned by a quarter
            made: Numbers = np.stack((-edge[:, 1], edge[:, 0]), axis=1) / double
            return made

        made: Numbers = np.stack((over(c - b), over(a - c), over(b - a)), axis=1)
        return made

    @cached_property
    def moduli(self) -> Numbers:
        """How stiff every triangle is along the weft, along the warp and in shear (N/m)."""
        by_fabric = np.array([(f.weft, f.warp, f.shear) for f in self.fabrics])
        made: Numbers = by_fabric[self.fabric]
        return made

    @cached_property
    def spread(self) -> Numbers:
        """The area that every point stands for (m²)."""
        made = np.zeros(self.count)
        np.add.at(made, self.triangles, np.repeat(self.areas[:, None] / 3, 3, axis=1))
        return made

    @cached_property
    def masses(self) -> Numbers:
        """What every point weighs (kg)."""
        each = self.areas * np.array([f.weight for f in self.fabrics])[self.fabric]
        made = np.zeros(self.count)
        np.add.at(made, self.triangles, np.repeat(each[:, None] / 3, 3, axis=1))
        return made


def _bending(mesh: Mesh, fabric: Fabric) -> csr_matrix:
    curved = curvatures(mesh)
    weights = fabric.bending * np.repeat(mesh.areas, 3) * np.tile((1.0, 1.0, 2.0), len(mesh.areas))
    return (curved.T @ diags(weights) @ curved).tocsr()
