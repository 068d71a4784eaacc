"""What a cloth is like where it falls: how heavy, how far it gives along, across and on the bias, how it bends.

In SI units: kg/m², N/m of width per unit of strain, N·m. The classes are those a maker says of a cloth (trade 16).
"""

from __future__ import annotations

from dataclasses import dataclass
from math import cos, pi, radians, sin, sqrt

from gentle_hem.core.cloth.cloths import Cloth, Drape, Weight
from gentle_hem.core.replace import replace

GRAVITY = 9.81

GRAMS = {Weight.NET: 30.0, Weight.LIGHT: 70.0, Weight.MEDIUM: 150.0, Weight.HEAVY: 280.0, Weight.UNSAID: 150.0}
"""g/m² by weight class: within the ranges of trade 16, from memory."""

BENDING_LENGTH = {Drape.LIMP: 0.0125, Drape.SOFT: 0.0175, Drape.CRISP: 0.03, Drape.UNSAID: 0.021}
"""The cantilever test's bending length by drape class (m): within the ranges of trade 16, from memory."""

BIAS = {Drape.LIMP: 25.0, Drape.SOFT: 50.0, Drape.CRISP: 120.0, Drape.UNSAID: 60.0}
"""How stiff a cloth is in shear (N/m), from memory; on the bias it gives by this and hardly by its threads."""

STIFFEST = 2000.0
"""No cloth is stiffer in shear than across its threads (N/m)."""

WARP, WEFT = 3000.0, 2000.0
"""How stiff a woven cloth is along and across its threads (N/m), from memory."""

HAND = 100.0
"""The pull by which a maker says how far a cloth stretches (N/m of width), from memory."""


@dataclass(frozen=True, slots=True)
class Fabric:
    """A cloth as it falls."""

    weight: float
    """kg/m²."""
    warp: float
    weft: float
    shear: float
    """N/m per unit of strain, along the warp, along the weft, and in shear."""
    bending: float
    """How much it takes to bend a strip a metre wide (N·m)."""

    @classmethod
    def of(cls, cloth: Cloth) -> Fabric:
        """A maker's cloth by its weight and drape classes, and by how far she says it stretches."""
        weight = GRAMS[cloth.weight] / 1000
        return cls(
            weight, _pulled(WARP, cloth.along), _pulled(WEFT, cloth.across), BIAS[cloth.drape],
            weight * GRAVITY * BENDING_LENGTH[cloth.drape] ** 3,
        )  # fmt: skip

    @property
    def bending_length(self) -> float:
        """The bending length c (m) from the rigidity G = w·c³ (ASTM D1388, ISO 9073-7)."""
        return float((self.bending / (self.weight * GRAVITY)) ** (1 / 3))

    def fold(self, long: float) -> float:
        """How much of its lower edge (m) one fold takes where a length (m) hangs from gathers: λ = 2√π·(B/T)¼·√L, as a
        sheet wrinkles that is held at an end and pulled (Cerda and Mahadevan, Physical Review Letters 90, 2003, from
        memory); it is pulled by its own weight, T = w·g·L/2 on the whole.
        """
        return 2 * sqrt(pi) * float((2 * self.bending * long / (self.weight * GRAVITY)) ** 0.25)

    @property
    def doubled(self) -> Fabric:
        """Two layers of it that lie on each other."""
        return Fabric(2 * self.weight, 2 * self.warp, 2 * self.weft, 2 * self.shear, 2 * self.bending)

    def grown(self, long: float, share: float) -> Fabric:
        """The cloth as a maker measured it: a length (m) that hung on the bias has become longer by such a share. It
        hung by its own weight, so that it has given by w·g·L ÷ 2E on the whole, and E is that at 45° (``along``).
        """
        soft = 8 * share / (self.weight * GRAVITY * long) - 1 / self.warp - 1 / self.weft
        return replace(self, shear=min(1 / soft, STIFFEST) if soft > 0 else STIFFEST)

    def along(self, degrees: float) -> float:
        """How stiff it is along a line so far from the warp (N/m): the off-axis modulus of an orthotropic sheet without
        Poisson's effect, 1/E = cos⁴/E₁ + sin⁴/E₂ + sin²·cos²/G (any textbook of laminates).
        """
        c, s = cos(radians(degrees)) ** 2, sin(radians(degrees)) ** 2
        return 1 / (c * c / self.warp + s * s / self.weft + s * c / self.shear)


def _pulled(usual: float, stretch: float) -> float:
    """The stiffness of a direction that stretches by so many per cent at a hand's pull."""
    return usual if stretch <= 0 else min(usual, HAND / (stretch / 100))
