"""The flare's arithmetic (trade 7.1-7.3): a ring, or part of one, whose inner edge is a seam.

                 centre
                   ·  ╲ cut radius = seam radius − waist allowance
                  ╱ ╲  ╲
      seam line  (   )──· seam radius r = S ÷ θ
                (     )
    hem        (       )── hem radius = r + L

S   length of the seam it is sewn to        θ   sweep of the whole flare, in radians
L   finished length                         a   waist allowance, which lies inside the ring
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from math import asin, floor, pi, sin

from gentle_hem.core.workings import Angle, Percent, Ratio, Worked, Workings

HIP_EASE = 20.0
"""Ease over the hip that lets its wearer sit and bend: 2 cm, common practice (trade 10)."""

TAPE_HAIR = 1e-6
"""A radius this close under a tape's mark is on the mark (mm)."""


class RadiusRule(StrEnum):
    """Where the radius S ÷ θ is drawn: on the stitching line, or on the cut edge."""

    SEAM_LINE = "seam_line"
    CUT_EDGE = "cut_edge"


@dataclass(frozen=True, slots=True)
class Flare:
    """What a flare is asked to be. Lengths in mm, sweep in radians, stretch in per cent."""

    seam: float
    sweep: float
    length: float
    waist_allowance: float = 0.0
    hem_allowance: float = 0.0
    rule: RadiusRule = RadiusRule.SEAM_LINE
    arc_allowance: float = 0.0
    stretch: float = 0.0
    tape_mark: float = 0.0

    def work(self, notes: Workings) -> FlareRadii:
        """All the radii, each with its working."""
        theta = Ratio(self.sweep)
        sewn = self.seam
        if self.stretch:
            sewn = notes.work(
                "seam less stretch", self.seam * (1 - self.stretch / 100), "{seam} × (1 − {stretch})",
                rule="the bias grows when handled: drafted smaller", seam=self.seam, stretch=Percent(self.stretch),
            )  # fmt: skip
        divided = sewn
        if self.arc_allowance:
            divided = notes.work(
                "seam with the opening's allowances", sewn + self.arc_allowance, "{seam} + {allowance_in_the_arc}",
                rule="allowance taken into the arc, nothing added to the straight edges",
                seam=sewn, allowance_in_the_arc=self.arc_allowance,
            )  # fmt: skip

        exact = divided / self.sweep
        by_the_other_rule = exact + self.waist_allowance
        if self.rule is RadiusRule.SEAM_LINE:
            other = (("cut-edge rule", by_the_other_rule),) if self.waist_allowance else ()
            rule = "seam-line rule: the stitched line equals the seam"
            seam_radius = notes.work(
                "seam radius", exact, "{seam} ÷ (2π × sweep/360)", "{seam} ÷ {sweep}",
                rule=rule, instead=other, seam=divided, sweep=theta,
            )  # fmt: skip
            cut_radius = notes.work(
                "cut radius", exact - self.waist_allowance, "{seam_radius} − {waist_allowance}",
                rule="the allowance lies inside the ring",
                seam_radius=seam_radius, waist_allowance=self.waist_allowance,
            )  # fmt: skip
        else:
            cut_radius = notes.work(
                "cut radius", exact, "{seam} ÷ (2π × sweep/360)", "{seam} ÷ {sweep}",
                rule="cut-edge rule: stitched inside the cut edge, so the seam comes out longer",
                instead=(("seam-line rule", exact - self.waist_allowance),), seam=divided, sweep=theta,
            )  # fmt: skip
            seam_radius = notes.work(
                "seam radius", by_the_other_rule, "{cut_radius} + {waist_allowance}",
                cut_radius=cut_radius, waist_allowance=self.waist_allowance,
            )  # fmt: skip

        if self.tape_mark:
            marked = floor((cut_radius + TAPE_HAIR) / self.tape_mark) * self.tape_mark
            lost = cut_radius - marked
            cut_radius = notes.work(
                "cut radius on the tape", marked, "{cut_radius} down to a mark of {tape}",
                rounding="rounded down: a waist hole can be cut larger, never smaller",
                cut_radius=cut_radius, tape=self.tape_mark,
            )  # fmt: skip
            seam_radius = notes.work(
                "seam radius on the tape", marked + self.waist_allowance, "{cut_radius} + {waist_allowance}",
                cut_radius=cut_radius, waist_allowance=self.waist_allowance,
            )  # fmt: skip
            notes.work(
                "seam lost to rounding", self.sweep * lost, "{sweep} × {rounded_off}",
                sweep=theta, rounded_off=lost,
            )  # fmt: skip

        stitched = notes.work(
            "stitched seam", self.sweep * seam_radius - self.arc_allowance,
            "{sweep} × {seam_radius}" + (" − {allowance_in_the_arc}" if self.arc_allowance else ""),
            sweep=theta, seam_radius=seam_radius, allowance_in_the_arc=self.arc_allowance,
        )  # fmt: skip
        surplus = notes.work(
            "surplus", stitched - sewn, "{stitched_seam} − {seam}", stitched_seam=stitched, seam=sewn,
            rule="what would have to be gathered in or cut away",
        )  # fmt: skip
        hem_radius = notes.work(
            "hem radius", seam_radius + self.length, "{seam_radius} + {length}",
            seam_radius=seam_radius, length=self.length,
        )  # fmt: skip
        hem_cut_radius = notes.work(
            "hem cut radius", hem_radius + self.hem_allowance, "{hem_radius} + {hem_allowance}",
            hem_radius=hem_radius, hem_allowance=self.hem_allowance,
        )  # fmt: skip
        inset = seam_radius * sin(self.arc_allowance / 2 / seam_radius) if self.arc_allowance else 0.0
        taken_at_hem = 2 * hem_radius * asin(inset / hem_radius) if inset else 0.0
        hem_sweep = notes.work(
            "hem sweep", self.sweep * hem_radius - taken_at_hem,
            "{sweep} × {hem_radius}" + (" − {taken_by_the_opening}" if inset else ""),
            sweep=theta, hem_radius=hem_radius, taken_by_the_opening=taken_at_hem,
        )  # fmt: skip
        return FlareRadii(seam_radius, cut_radius, hem_radius, hem_cut_radius, hem_sweep, stitched, surplus)


@dataclass(frozen=True, slots=True)
class FlareRadii:
    """A flare worked out. Millimetres, every number with its working."""

    seam_radius: Worked
    cut_radius: Worked
    hem_radius: Worked
    hem_cut_radius: Worked
    hem_sweep: Worked
    stitched_seam: Worked
    surplus: Worked


def least_sweep(seam: float, hip: float, waist_to_hip: float, notes: Workings, hip_ease: float = HIP_EASE) -> Worked:
    """The smallest sweep (radians) whose flare passes over the hip: θ ≥ (H + ease − S) ÷ h (trade 7.3)."""
    over = hip + hip_ease - seam
    return notes.work(
        "least sweep over the hip", max(0.0, over / waist_to_hip),
        "({hip} + {ease} − {seam}) ÷ {waist_to_hip}" if over > 0
        else "nothing: the seam {seam} goes round {hip} + {ease} already",
        kind=Angle.kind, rule="below this the flare does not pass over the hips",
        hip=hip, ease=hip_ease, seam=seam, waist_to_hip=waist_to_hip,
    )  # fmt: skip


def sweep_for_hem(seam: float, length: float, hem_sweep: float, notes: Workings) -> tuple[Worked, Worked]:
    """Backwards from a wanted hem: the sweep (radians) and seam radius. θ = (M − S) ÷ L (trade 7.3)."""
    sweep = notes.work(
        "sweep", (hem_sweep - seam) / length, "({hem_sweep} − {seam}) ÷ {length}",
        kind=Angle.kind, hem_sweep=hem_sweep, seam=seam, length=length,
    )  # fmt: skip
    radius = notes.work(
        "seam radius", seam / sweep, "{seam} ÷ {sweep}", seam=seam, sweep=Ratio(sweep)
    )  # fmt: skip
    return sweep, radius


NAMED_SWEEPS = (
    (90, "quarter circle"),
    (180, "half circle"),
    (270, "three-quarter circle"),
    (360, "full circle"),
    (720, "double circle"),
)


def say_sweep(sweep_degrees: float) -> str:
    """A sweep as the trade names it: "full circle", or "212° flare"."""
    for named, text in NAMED_SWEEPS:
        if abs(sweep_degrees - named) < 1e-9:
            return text
    return f"{sweep_degrees:g}° flare"


def say_times(fullness: float) -> str:
    """A fullness as it is spoken: "exactly", "twice", "1.5 times"."""
    return {1.0: "exactly", 2.0: "twice"}.get(float(fullness), f"{fullness:g} times")


def room_beside(unfolded: float, radius: float) -> float:
    """Widest allowance the straight edges of a sector can carry before they run into each other (mm).

    ``unfolded`` is the sector's whole angle as it lies on the cloth; a full ring leaves none.
    """
    gap = 2 * pi - unfolded
    if gap >= pi:
        return float("inf")
    return max(0.0, radius * sin(gap / 2))
