"""The circle sum: every radius of a flare from the seam it is sewn to (trade 7.1, 7.2)."""

from math import degrees, pi, radians
from typing import Annotated, Any, ClassVar

from pydantic import model_validator

from gentle_hem.core.findings import Finding, note, stop
from gentle_hem.core.geometry import ORIGIN, Arc, Path
from gentle_hem.core.lower.flare import HIP_EASE, Flare, RadiusRule, least_sweep
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.sums.sum import Sum, SumAllowance, SumLength, SumSeam, SumSweep, Value, asked
from gentle_hem.core.units import Length
from gentle_hem.core.workings import Angle, Workings


class CircleSum(Sum):
    """Seam 31 1/4 in, full circle, 22 in long, 5/8 in waist allowance."""

    name: ClassVar[str] = "circle"
    title: ClassVar[str] = "Circle and flare"
    purpose: ClassVar[str] = "The radii to draw, from the seam the flare is sewn to."

    seam: SumSeam = asked("seam it is sewn to", help="On the stitching line, darts closed.")
    sweep: SumSweep = asked("sweep", "angle", 360.0)
    length: SumLength = asked("finished length")
    pieces: Annotated[int, number_between(1, 24, "pieces")] = asked("pieces", "count", 2)
    waist_allowance: SumAllowance = asked("waist allowance", default=0.0)
    hem_allowance: SumAllowance = asked("hem allowance", default=0.0)
    stretch: Annotated[float, number_between(0, 20, "per cent of stretch")] = asked("stretch allowance", "percent", 0.0)
    rule: RadiusRule = asked(
        "radius drawn on", "choice", RadiusRule.SEAM_LINE, seam_line="the seam line", cut_edge="the cut edge"
    )
    arc_allowance: SumAllowance = asked(
        "allowance in the arc",
        default=0.0,
        help="The opening's allowances, added to the seam before dividing.",
    )
    tape_mark: Annotated[Length, between(0, 30)] = asked(
        "round down to a mark of",
        default=0.0,
        help="0: not rounded. Down: a hole can be cut larger, never smaller.",
    )
    hip: SumLength | None = asked("hip girth", default=None, help="To check that the flare passes over the hips.")
    waist_to_hip: SumLength | None = asked("waist to hip", default=None)
    hip_ease: SumAllowance = asked("ease over the hip", default=HIP_EASE)

    @model_validator(mode="before")
    @classmethod
    def _hip_needs_its_level(cls, data: Any) -> Any:
        if isinstance(data, dict) and data.get("hip") is not None and data.get("waist_to_hip") is None:
            raise ValueError("hip needs waist_to_hip beside it, the depth at which the hip was measured.")
        return data

    def sketch(self) -> list[Path]:
        theta = radians(self.sweep)
        radius = (self.seam + self.arc_allowance) / theta
        shown = min(theta, 2 * pi)
        start = -pi / 2 - shown / 2
        inner, outer = (Path.of(Arc(ORIGIN, r, start, shown)) for r in (radius, radius + self.length))
        ends = [Path.through(inner.start, outer.start), Path.through(inner.end, outer.end)]
        return [inner, outer, *ends]

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        flare = Flare(
            self.seam, radians(self.sweep), self.length, self.waist_allowance, self.hem_allowance,
            self.rule, self.arc_allowance, self.stretch, self.tape_mark,
        )  # fmt: skip
        radii = flare.work(notes)
        values: dict[str, Value] = {
            "seam_radius": radii.seam_radius,
            "cut_radius": radii.cut_radius,
            "hem_radius": radii.hem_radius,
            "hem_cut_radius": radii.hem_cut_radius,
            "hem_sweep": radii.hem_sweep,
            "stitched_seam": radii.stitched_seam,
            "surplus": radii.surplus,
        }
        findings = []
        if radii.cut_radius <= 0:
            findings.append(
                stop(
                    "allowance-uses-up-radius",
                    "The waist allowance of {allowance} is more than the seam radius of {radius}.",
                    allowance=self.waist_allowance, radius=radii.seam_radius,
                )
            )  # fmt: skip
        if radii.surplus > 0.5:
            findings.append(
                note(
                    "stitched-seam-longer",
                    "Stitched inside the cut edge the seam is {surplus} longer than asked: gather or trim it.",
                    surplus=radii.surplus,
                )
            )
        if self.hip is not None and self.waist_to_hip is not None:
            least = least_sweep(self.seam, self.hip, self.waist_to_hip, notes, self.hip_ease)
            values["least_sweep"] = least
            if self.sweep < degrees(least) - 1e-9:
                findings.append(
                    stop(
                        "sweep-below-hip",
                        "A sweep of {sweep} does not pass over the hips; it takes {least} at least.",
                        sweep=Angle(radians(self.sweep)), least=least,
                    )
                )  # fmt: skip
        return values, findings
