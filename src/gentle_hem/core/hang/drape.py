"""The drape test: a round piece of cloth let fall over a round support, as the standards have it (BS 5058, ISO 9073-9).

  ____________                 ╭~~╮   ~╮        the coefficient is the shadow of what hangs, as a share of the
 /            \\    from the   ( ╭──╮  )       flat ring it was cut as: small for a limp cloth, near 1 for a
╱╲╱╲  ╱╲╱╲  ╱╲     side         ╲╰──╯ ╱ above   stiff one; limp cloth falls in more folds, and narrower ones
"""

from __future__ import annotations

from dataclasses import dataclass
from math import pi

import numpy as np
from scipy.signal import find_peaks
from shapely import Polygon, union_all

from gentle_hem.core.hang.fabric import Fabric
from gentle_hem.core.hang.mesh import Mesh, Numbers, meshed
from gentle_hem.core.hang.net import Net
from gentle_hem.core.hang.rest import Falling, Rest

CUT, SUPPORT = 0.150, 0.090
"""The radius of the cloth and of what it lies on (m)."""

SPACING = 0.010
"""How long the sides of its triangles are (m)."""

ROUND = 96
"""In how many straight lines its edge is cut."""

SLOPE, UNEVEN = 0.05, 0.002
"""How what is not supported begins: sloping by so much, and uneven by so much (m), as no cloth is laid without."""

AT_REST = Rest(settled=2e-6, step=1.0, drag=4.0)
"""The support is lowered from the cloth slowly: it loses its speed soon."""

FOLD = 0.005
"""What stands out less than this at the edge is no fold (m)."""


@dataclass(frozen=True)
class Draped:
    """A cloth as it lies over the support at rest (m, z up from the support)."""

    coefficient: float
    folds: int
    places: Numbers
    edge: Numbers
    """The places of its edge, in order."""
    steps: int


def draped(fabric: Fabric, spacing: float = SPACING, seed: int = 1) -> Draped:
    """A cloth let fall over the round support. Raises NotAtRest where it does not come to rest."""
    # the support's edge lies half-way between two rings that are held, so that the cloth leaves it level there
    level = SUPPORT + spacing / 2
    rings = np.concatenate([_ring(radius, round(2 * pi * radius / spacing)) for radius in (level - spacing, level)])
    mesh = meshed(Polygon(_ring(CUT, ROUND)), spacing, rings)
    out = np.hypot(*mesh.points.T)
    held = np.flatnonzero(out < level + 1e-9)
    chance = np.random.default_rng(seed).standard_normal(len(out))
    high = np.where(out < level + 1e-9, 0.0, -(out - level) * SLOPE + UNEVEN * chance)
    net = Net.of([(mesh, np.arange(len(out)), fabric)], len(out))
    rest = Falling.held_at(net, held).fallen(np.column_stack((mesh.points, high)), AT_REST)
    edge = rest.places[: _on_edge(mesh)]
    return Draped(_shadow(mesh, rest.places), _folds(edge), rest.places, edge, rest.steps)


def _ring(radius: float, count: int) -> Numbers:
    turn = np.linspace(0, 2 * pi, count, endpoint=False)
    made: Numbers = radius * np.stack((np.cos(turn), np.sin(turn)), axis=1)
    return made


def _on_edge(mesh: Mesh) -> int:
    """How many of the first points lie on the edge."""
    return int((np.hypot(*mesh.points.T) > CUT * np.cos(pi / ROUND) - 1e-9).sum())


def _shadow(mesh: Mesh, places: Numbers) -> float:
    """What the hanging ring covers seen from above, as a share of the ring it was cut as."""
    below = union_all([Polygon(corners).buffer(1e-7) for corners in places[mesh.triangles][:, :, :2]]).area
    inside = pi * SUPPORT**2
    return float((below - inside) / (mesh.areas.sum() - inside))


def _folds(edge: Numbers) -> int:
    """How many folds stand out at the edge, all round."""
    out = np.hypot(edge[:, 0], edge[:, 1])
    start = int(np.argmin(out))
    round_it = np.concatenate((out[start:], out[: start + 1]))
    return len(find_peaks(round_it, prominence=FOLD)[0])
