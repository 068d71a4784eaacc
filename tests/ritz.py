"""A quarter circle of cloth sewn to a cone and hung by its waist, by Ritz: a sum of its own, without a triangle.

 ╱‾╲      the places are polynomials in the way from the waist r and round it θ; held at the waist, one at the seam
╱   ╲     least: ½ ∫ E₁ε₁² + E₂ε₂² + Gγ² + B |∇∇x|² dA + weight × height, by Gauss's rule (Green's strains; any
‾‾‾‾‾     textbook of shells); pushed along its threads it resists as little as cloth does here
"""

from dataclasses import dataclass

import numpy as np
from numpy.polynomial import legendre
from numpy.polynomial.legendre import leggauss, legval
from scipy.optimize import minimize

from gentle_hem.core.hang.fabric import GRAVITY, Fabric
from gentle_hem.core.hang.kernels import PUSHED

UP = np.sqrt(1 - 1 / 16)
"""How steep a quarter circle stands as a cone, whose rings are a quarter of what they were."""


def cone(r, turn):
    """Where a place of the flat quarter circle lies on its cone (m, z up from the cone's point)."""
    return np.stack((r / 4 * np.sin(4 * turn), r / 4 * np.cos(4 * turn), -r * UP), axis=-1)


@dataclass(frozen=True)
class Quarter:
    """Cut from radius to radius (m), and in how many polynomials: outward, and round."""

    cloth: Fabric
    inner: float
    outer: float
    outward: int = 8
    round: int = 20

    def _outward(self, r):
        """Polynomials that are nothing at the waist, and their first two slopes."""
        scale = 2 / (self.outer - self.inner)
        one, *others = np.eye(self.outward + 1)
        terms = [of - one * (-1) ** k for k, of in enumerate(others, 1)]
        return _with_slopes(terms, scale * (r - self.inner) - 1, scale)

    def _round(self, turn):
        """One, and polynomials that are nothing at both sides of the seam."""
        scale, size = 4 / np.pi, self.round + 2
        of = np.eye(size)
        terms = [of[0], *(of[k + 1] - of[k - 1] for k in range(1, self.round + 1))]
        return _with_slopes(terms, scale * turn - 1, scale)

    def hung(self):
        """What makes of r and θ (arrays of one length) where that place hangs."""
        radii, wide = _gauss(self.inner, self.outer, 2 * self.outward)
        turns, tall = _gauss(0, np.pi / 2, 2 * self.round)
        p, q = self._outward(radii), self._round(turns)
        r, turn = (of.ravel() for of in np.meshgrid(radii, turns, indexing="ij"))

        def term(a, b):
            return np.einsum("ir,jt->rtij", p[:, a], q[:, b]).reshape(len(r), -1)

        area, over = np.outer(wide, tall).ravel() * r, 1 / r[:, None]
        c, s = np.cos(turn)[:, None], np.sin(turn)[:, None]
        outward, beside = term(1, 0), term(0, 1) * over
        curved = (term(2, 0), term(0, 2) * over**2 + outward * over, (term(1, 1) - beside) * over)
        # the cone's own slopes, and the one way it is curved
        down = cone(np.ones_like(turn), turn)
        aside = np.stack((np.cos(4 * turn), -np.sin(4 * turn), 0 * turn), axis=1)
        bent = (-4 * np.stack((np.sin(4 * turn), np.cos(4 * turn), 0 * turn), axis=1) + down) * over
        weft, warp = c * outward - s * beside, s * outward + c * beside
        weft_0, warp_0 = c * down - s * aside, s * down + c * aside
        cloth = self.cloth
        stiff = sum(cloth.bending * n * of.T @ (area[:, None] * of) for of, n in zip(curved, (1, 1, 2), strict=True))
        turned = cloth.bending * curved[1].T @ (area[:, None] * bent)
        hangs = cloth.weight * GRAVITY * (area @ term(0, 0))

        def strained(x):
            u, v = weft_0 + weft @ x, warp_0 + warp @ x
            e, h, k = ((u * u).sum(1) - 1) / 2, ((v * v).sum(1) - 1) / 2, (u * v).sum(1)
            pulls = (cloth.weft * np.where(e < 0, PUSHED, 1), cloth.warp * np.where(h < 0, PUSHED, 1), cloth.shear)
            return u, v, (e, h, k), [area * pull for pull in pulls]

        def energy(flat):
            x = flat.reshape(-1, 3)
            _, _, strains, pulls = strained(x)
            drawn = sum((pull * of * of).sum() for pull, of in zip(pulls, strains, strict=True)) / 2
            return drawn + hangs @ x[:, 2] + (x * (stiff @ x / 2 + turned)).sum()

        def ways(u, v):
            return _times(weft, u), _times(warp, v), _times(warp, u) + _times(weft, v)

        def slope(flat):
            x = flat.reshape(-1, 3)
            u, v, strains, pulls = strained(x)
            rise = sum(of.T @ (pull * e) for of, pull, e in zip(ways(u, v), pulls, strains, strict=True))
            rise = rise + (stiff @ x + turned).ravel()
            rise[2::3] += hangs
            return rise

        def curve(flat):
            u, v, (e, h, k), pulls = strained(flat.reshape(-1, 3))
            sheared = weft.T @ ((pulls[2] * k)[:, None] * warp)
            alike = stiff + sheared + sheared.T
            alike = alike + weft.T @ ((pulls[0] * e)[:, None] * weft) + warp.T @ ((pulls[1] * h)[:, None] * warp)
            return np.kron(alike, np.eye(3)) + sum(
                of.T @ (pull[:, None] * of) for of, pull in zip(ways(u, v), pulls, strict=True)
            )

        found = minimize(
            energy, np.zeros(3 * len(stiff)), jac=slope, hess=curve, method="trust-exact", options={"gtol": 1e-6}
        )
        assert found.success, found.message
        x = found.x.reshape(-1, 3)

        def at(r, turn):
            terms = self._outward(r)[:, None, 0] * self._round(turn)[None, :, 0]
            return cone(r, turn) + terms.reshape(-1, len(r)).T @ x

        return at


def _times(of, by):
    return (of[:, :, None] * by[:, None, :]).reshape(len(of), -1)


def _gauss(start, end, count):
    """Places and weights of Gauss's rule."""
    at, weights = leggauss(count)
    return start + (end - start) * (at + 1) / 2, weights * (end - start) / 2


def _with_slopes(terms, at, scale):
    """By term and order of its slope."""
    return np.array([[scale**n * legval(at, legendre.legder(term, n)) for n in range(3)] for term in terms])
