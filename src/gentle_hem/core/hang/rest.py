"""Cloth let fall until it is at rest.

energy    stretch, compression and shear of every triangle by its own warp and weft · bending over every inner edge
          · its weight
step      implicit Euler: the least of energy + inertia, by one Newton step and a line search that never lets it rise
at rest   when nothing moves faster than a millimetre a second and the forces left over are nothing beside its weight

What holds it is energy and not a constraint, so that at rest no step is left in where it hangs: the same whatever the
time step was (the tests halve it). Stretch is measured by Green's strain. Bending is ½ G ∫ κ², with the curvature of
every triangle that of the quadratic surface through it and its neighbours; cloth that is bent is hardly stretched, so
it is measured along the axes of the flat cloth, and its matrix is the same all the way down.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from scipy.sparse import coo_matrix, csc_matrix, diags
from scipy.sparse.linalg import splu

from gentle_hem.core.hang.fabric import GRAVITY, Fabric
from gentle_hem.core.hang.mesh import Indices, Mesh, Numbers

FIRST_STEP, LONGEST_STEP, LONGER = 0.01, 0.32, 1.4
"""Time steps (s): the first, the longest, and how much longer each is than the one before while all goes well."""

DRAG = 2.0
"""How much of its speed cloth loses to the air (1/s); it changes how soon it rests and not where."""

PUSHED = 0.003
"""Pushed along its threads, cloth gives way in folds that are finer than the triangles: it resists by such a share of
what it does when it is pulled."""

STILL = 0.001
"""At rest nothing moves faster than this (m/s) …"""

BALANCED = 1e-3
"""… and what force is left over is less than this share of the weight of a point."""

MOST_STEPS = 600


class NotAtRest(RuntimeError):  # noqa: N818  (it is what cloth is)
    """Cloth that did not come to rest in the steps it was given."""


@dataclass(frozen=True)
class Fallen:
    """Cloth at rest: where its points are (m, z up), how many steps it took, and its energy after each (J)."""

    places: Numbers
    steps: int
    energies: tuple[float, ...] = field(repr=False, default=())


@dataclass(frozen=True)
class Falling:
    """A cloth in triangles, what it is like, and which of its points are held where they are."""

    mesh: Mesh
    fabric: Fabric
    held: Indices

    @cached_property
    def _slopes(self) -> Numbers:
        """By triangle and corner, how a quantity over the triangle changes with the corner's, along x and y (1/m)."""
        a, b, c = (self.mesh.points[self.mesh.triangles[:, k]] for k in range(3))
        double = 2 * self.mesh.areas[:, None]

        def over(edge: Numbers) -> Numbers:  # the edge opposite, turned by a quarter
            made: Numbers = np.stack((-edge[:, 1], edge[:, 0]), axis=1) / double
            return made

        return np.stack((over(c - b), over(a - c), over(b - a)), axis=1)

    @cached_property
    def _masses(self) -> Numbers:
        return self.mesh.masses * self.fabric.weight

    @cached_property
    def _bending(self) -> csc_matrix:
        """The bending energy's matrix over the points: the same along each axis."""
        curved = curvatures(self.mesh)
        weights = self.fabric.bending * np.repeat(self.mesh.areas, 3) * np.tile((1.0, 1.0, 2.0), len(self.mesh.areas))
        return (curved.T @ diags(weights) @ curved).tocsc()

    @cached_property
    def _free(self) -> Indices:
        """The coordinates of all points that are not held."""
        free = np.setdiff1d(np.arange(len(self.mesh.points)), self.held)
        made: Indices = (3 * free[:, None] + np.arange(3)).ravel()
        return made

    @cached_property
    def _pattern(self) -> _Pattern:
        """Where everything stands in the matrix of the free coordinates: bending, every triangle, and the inertia."""
        places = (3 * self.mesh.triangles[:, :, None] + np.arange(3)).reshape(-1, 9)
        bent = self._bending.tocoo()
        axis = np.repeat(np.arange(3), bent.nnz)
        free = self._free
        rows = np.concatenate((np.tile(3 * bent.row, 3) + axis, np.repeat(places, 9, axis=1).ravel(), free))
        columns = np.concatenate((np.tile(3 * bent.col, 3) + axis, np.tile(places, (1, 9)).ravel(), free))
        return _Pattern.of(rows, columns, free, 3 * len(self.mesh.points))

    def _strains(self, places: Numbers) -> tuple[Numbers, Numbers, Numbers]:
        """How the weft and the warp of every triangle lie (each of length 1 where it is not stretched), and its strains
        along the weft, along the warp and in shear.
        """
        corners = places[self.mesh.triangles]
        weft = np.einsum("tki,tk->ti", corners, self._slopes[:, :, 0])
        warp = np.einsum("tki,tk->ti", corners, self._slopes[:, :, 1])
        strains = np.stack(
            (((weft**2).sum(1) - 1) / 2, ((warp**2).sum(1) - 1) / 2, (weft * warp).sum(1)), axis=1
        )  # fmt: skip
        return weft, warp, strains

    def _moduli(self, strains: Numbers) -> Numbers:
        """How stiff every triangle is along the weft, along the warp and in shear, as it is strained."""
        made: Numbers = np.array([self.fabric.weft, self.fabric.warp, self.fabric.shear]) * np.ones_like(strains)
        made[:, :2] *= np.where(strains[:, :2] < 0, PUSHED, 1.0)
        return made

    def energy(self, places: Numbers) -> float:
        """Of stretching, bending and height (J)."""
        _, _, strains = self._strains(places)
        stretched = 0.5 * float((self.mesh.areas[:, None] * self._moduli(strains) * strains**2).sum())
        bent = 0.5 * float((places * (self._bending @ places)).sum())
        return stretched + bent + GRAVITY * float((self._masses * places[:, 2]).sum())

    def _forces(self, places: Numbers) -> tuple[Numbers, Numbers]:
        """How the energy rises with every coordinate, and how that rises with those of the same triangle: made so that
        no direction is unsteady.
        """
        weft, warp, strains = self._strains(places)
        slopes, areas = self._slopes, self.mesh.areas
        moduli = self._moduli(strains)
        pull = moduli * strains
        along_weft = slopes[:, :, 0, None] * weft[:, None, :]
        along_warp = slopes[:, :, 1, None] * warp[:, None, :]
        shear = slopes[:, :, 0, None] * warp[:, None, :] + slopes[:, :, 1, None] * weft[:, None, :]
        ways = np.stack((along_weft, along_warp, shear), axis=1)  # triangle, strain, corner, axis
        each = areas[:, None, None] * np.einsum("ts,tsci->tci", pull, ways)
        rise = self._bending @ places
        np.add.at(rise, self.mesh.triangles, each)
        rise[:, 2] += GRAVITY * self._masses
        flat = ways.reshape(len(areas), 3, 9)
        blocks = np.einsum("ts,tsi,tsj->tij", areas[:, None] * moduli, flat, flat)
        tense = areas[:, None, None] * np.einsum("tca,tab,tdb->tcd", slopes, _tension(pull), slopes)
        blocks += np.einsum("tcd,ij->tcidj", tense, np.eye(3)).reshape(len(areas), 9, 9)
        return rise, blocks

    def fallen(
        self, start: Numbers, longest_step: float = LONGEST_STEP, drag: float = DRAG, most_steps: int = MOST_STEPS
    ) -> Fallen:
        """From a start (m, z up) until it is at rest. Raises NotAtRest after too many steps."""
        places, speeds, step = start.copy(), np.zeros_like(start), min(FIRST_STEP, longest_step)
        masses, free = np.repeat(self._masses, 3), self._free
        weight = GRAVITY * float(self._masses.mean())
        pattern, bent = self._pattern, np.tile(self._bending.tocoo().data, 3)
        energies = [self.energy(places)]
        for count in range(1, most_steps + 1):
            rise, stiff = self._forces(places)
            inertia = masses * (1 / step**2 + drag / step)
            toward = np.zeros(len(masses))
            matrix = pattern.matrix(np.concatenate((bent, stiff.ravel(), inertia[free])))
            wanted = -rise.ravel() + masses * speeds.ravel() / step
            toward[free] = splu(
                matrix, permc_spec="MMD_AT_PLUS_A", diag_pivot_thresh=0.0, options={"SymmetricMode": True}
            ).solve(wanted[free])
            moved, share = self._let_down(places, toward.reshape(-1, 3), speeds, step, drag)
            speeds = (moved - places) / step
            places = moved
            speeds, whole = self._no_faster(speeds, self.energy(places), energies[-1])
            energies.append(whole)
            step = min(step * LONGER, longest_step) if share == 1.0 else max(step / 2, 1e-4)
            if np.abs(speeds).max() < STILL and share == 1.0 and step == longest_step:
                left = self._forces(places)[0].ravel()[free]
                if np.abs(left).max() < BALANCED * weight:
                    return Fallen(places, count, tuple(energies))
        raise NotAtRest(f"the cloth still moves after {most_steps} steps")

    def _no_faster(self, speeds: Numbers, energy: float, before: float) -> tuple[Numbers, float]:
        """Speeds at which the whole energy is no more than it was before, and what it is then: where the energy is not
        convex, a long step alone does not see to it.
        """
        moving = self._kinetic(speeds)
        most = max(before - energy, 0.0)
        if moving <= most:
            return speeds, energy + moving
        return speeds * (most / moving) ** 0.5, energy + most

    def _kinetic(self, speeds: Numbers) -> float:
        return 0.5 * float((self._masses[:, None] * speeds**2).sum())

    def _let_down(
        self, places: Numbers, toward: Numbers, speeds: Numbers, step: float, drag: float
    ) -> tuple[Numbers, float]:
        """The places after a step, and how much of it was taken: as much as lets energy and inertia together down."""

        def cost(moved: Numbers) -> float:
            by = moved - places
            inertia = ((by - step * speeds) ** 2 / step**2 + drag / step * by**2) * self._masses[:, None]
            return self.energy(moved) + 0.5 * float(inertia.sum())

        before, share = cost(places), 1.0
        while share > 1e-4:
            moved = places + share * toward
            if cost(moved) <= before:
                return moved, share
            share /= 2
        return places, 0.0


@dataclass(frozen=True)
class _Pattern:
    """Where values stand in a sparse matrix, several of them in one place."""

    size: int
    kept: Indices
    to: Indices
    rows: Indices
    starts: Indices

    @classmethod
    def of(cls, rows: Indices, columns: Indices, free: Indices, size: int) -> _Pattern:
        """Of values at rows and columns those are kept whose row and column are both free."""
        place = np.full(size, -1)
        place[free] = np.arange(len(free))
        kept = np.flatnonzero((place[rows] >= 0) & (place[columns] >= 0))
        keys, to = np.unique(place[columns[kept]] * len(free) + place[rows[kept]], return_inverse=True)
        starts = np.searchsorted(keys, np.arange(len(free) + 1) * len(free))
        return cls(len(free), kept, to, keys % len(free), starts)

    def matrix(self, values: Numbers) -> csc_matrix:
        """The matrix, values in one place added up."""
        data = np.bincount(self.to, weights=values[self.kept], minlength=len(self.rows))
        return csc_matrix((data, self.rows, self.starts), shape=(self.size, self.size))


def curvatures(mesh: Mesh) -> csc_matrix:
    """What makes of the places of the points how every triangle is curved: along x, along y, and how it is twisted
    (1/m), from the quadratic surface through its corners and those of its neighbours.

    It is exact for every quadratic surface, whatever the triangles are like; where the cloth ends and neighbours are
    missing, the nearest points around stand in for them.
    """
    opposite, joined = _neighbours(mesh)
    rows, columns, values = [], [], []
    for t, corners in enumerate(mesh.triangles.tolist()):
        middle = mesh.points[corners].mean(axis=0)
        edges = zip(corners, corners[1:] + corners[:1], strict=True)
        around = {*corners, *(p for a, b in edges for p in opposite[min(a, b), max(a, b)])}
        while True:
            patch = np.array(sorted(around), dtype=np.int64)
            fitted = _fitted(mesh.points[patch] - middle)
            wider = around | {p for one in around for p in joined[one]}
            if fitted is not None:
                break
            if wider == around:
                raise ValueError("This cloth has too few points to bend; its triangles must be smaller.")
            around = wider
        rows.append(np.repeat(3 * t + np.arange(3), len(patch)))
        columns.append(np.tile(patch, 3))
        values.append(fitted.ravel())
    shape = (3 * len(mesh.triangles), len(mesh.points))
    return coo_matrix((np.concatenate(values), (np.concatenate(rows), np.concatenate(columns))), shape=shape).tocsc()


WELL_KNOWN = 0.003
"""A quadratic surface is known by its points where the least of their singular values is more than such a share of the
greatest: fewer than six, or such as lie on a conic, do not know it."""


def _fitted(by: Numbers) -> Numbers | None:
    """What makes of values at places their second slopes: along x, along y, and mixed; None where they do not know."""
    size = float(np.abs(by).max())
    x, y = (by / size).T
    terms = np.stack((np.ones_like(x), x, y, x * x / 2, y * y / 2, x * y), axis=1)
    known = np.linalg.svd(terms, compute_uv=False)
    if len(by) < 6 or known[-1] < WELL_KNOWN * known[0]:
        return None
    made: Numbers = np.linalg.pinv(terms)[3:] / size**2
    return made


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


def _tension(pull: Numbers) -> Numbers:
    """The tension in every triangle without what pushes: two by two, none of its principal values less than nothing."""
    middle, half = (pull[:, 0] + pull[:, 1]) / 2, (pull[:, 0] - pull[:, 1]) / 2
    radius = np.hypot(half, pull[:, 2])
    high, low = np.maximum(middle + radius, 0.0), np.maximum(middle - radius, 0.0)
    safe = np.where(radius > 0, radius, 1.0)
    mean, spread = (high + low) / 2, (high - low) / 2 / safe
    made = np.empty((len(pull), 2, 2))
    made[:, 0, 0], made[:, 1, 1] = mean + spread * half, mean - spread * half
    made[:, 0, 1] = made[:, 1, 0] = spread * pull[:, 2]
    return made
