"""A flare's inner edge under a bodice: an arc, or in front a curve that follows the bodice's point (trade 7.4).

    centre ·
           │╲╲ r         under a level waist the edge is an arc of radius r
           │  ╲ ╲
    r + p  ╰╮   ╲        under a point p deep it runs from r + p at the centre front to r at the side,
            ╰─────╮      dropping as evenly along its length as the bodice's own edge does

An edge of length S that drops p evenly meets every radius at one angle: it is an equiangular spiral. With k = p ÷ S

    turn of the front    φ = √(1 − k²) ÷ k × ln((r + p) ÷ r)
    turn of the back     S_back ÷ r
    together             half the sweep, which settles r
"""

from dataclasses import dataclass
from math import exp, log, pi, sqrt

from gentle_hem.core.geometry import Path, polar
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.geometry.root import root
from gentle_hem.core.lower.panel import seam_halves
from gentle_hem.core.parts import Host
from gentle_hem.core.workings import Ratio, Worked, Workings

STEPS = 48
"""The spiral is drawn through this many places; it is then as long as it should be within a thousandth of a mm."""


@dataclass(frozen=True, slots=True)
class InnerEdge:
    """The inner edge of a half flare: its radius at the side and back (mm), how far front and back turn (radians)."""

    radius: float
    front_angle: float
    back_angle: float
    point: float = 0.0
    front: Path | None = None
    """The front's edge from the side to the centre where it is no arc; its centre hangs down from the origin."""


def seam_radius(seam: float, sweep: float, notes: Workings) -> Worked:
    """Seam ÷ sweep, written down."""
    return notes.work(
        "seam radius", seam / sweep, "{seam} ÷ (2π × sweep/360)", "{seam} ÷ {sweep}", seam=seam, sweep=Ratio(sweep)
    )


def follows_point(host: Host, length: float) -> bool:
    """Whether a flare this long can be drawn to the bodice's point: some skirt must be left below it."""
    front, _ = seam_halves(host, None)
    return 0 < host.point < min(0.9 * front, length - 20)


def inner_edge(host: Host, seam: float | None, sweep: float, length: float, notes: Workings) -> InnerEdge:
    """The inner edge for a whole sweep (radians), shared between front and back as the bodice's edge is."""
    front, back = seam_halves(host, seam)
    whole, point = 2 * (front + back), host.point
    if not follows_point(host, length) or point >= 0.9 * front:
        radius = seam_radius(whole, sweep, notes)
        return InnerEdge(float(radius), front / float(radius), back / float(radius))
    slope = point / front
    turn = sqrt(1 - slope**2) / slope

    def front_turn(radius: float) -> float:
        return turn * log((radius + point) / radius)

    found = root(lambda r: front_turn(r) + back / r - sweep / 2, 2 * back / sweep, whole / sweep)
    radius = notes.work(
        "seam radius at the sides", found, "front √(1 − k²) ÷ k × ln(1 + {point} ÷ r) and back {back} ÷ r turn "
        "{half_sweep} together; k = {point} ÷ {front}",
        rule="the inner edge drops evenly to the bodice's point, so that the seams still match",
        point=point, back=back, front=front, half_sweep=Ratio(sweep / 2),
    )  # fmt: skip
    r = float(radius)
    notes.work(
        "stitched seam", 2 * (front + back), "2 × ({front} + {back})", rule="along the curve to the point, and the arc",
        front=front, back=back,
    )  # fmt: skip
    notes.work("radius at the point", r + point, "{seam_radius} + {point}", seam_radius=r, point=point)
    angle = front_turn(r)
    places = []
    for k in range(STEPS + 1):
        away = angle * k / STEPS  # turned from the side towards the centre front
        places.append(polar(r * exp(away / turn), -pi / 2 + angle - away))
    # travelling towards the centre the angle falls and the radius grows, at one angle to every radius
    leave, arrive = (polar(slope, at) + polar(sqrt(1 - slope**2), at - pi / 2) for at in (-pi / 2 + angle, -pi / 2))
    return InnerEdge(r, angle, back / r, point, smooth_through(places, leave, arrive))
