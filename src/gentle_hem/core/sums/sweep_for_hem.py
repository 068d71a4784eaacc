"""From the hem backwards: the sweep that gives a wanted hem (trade 7.3)."""

from __future__ import annotations

from math import tau
from typing import ClassVar

from pydantic import model_validator

from gentle_hem.core.findings import Finding, warn
from gentle_hem.core.lower.flare import sweep_for_hem
from gentle_hem.core.sums.sum import Sum, SumLength, SumSeam, Value, asked
from gentle_hem.core.units import Unit, format_length
from gentle_hem.core.workings import Workings


class SweepForHemSum(Sum):
    """Seam 70 cm, 60 cm long, hem 300 cm round."""

    name: ClassVar[str] = "sweep_for_hem"
    title: ClassVar[str] = "Sweep from the hem"
    purpose: ClassVar[str] = "How many degrees give the hem you want at this length."

    seam: SumSeam = asked("seam it is sewn to")
    length: SumLength = asked("finished length")
    hem_sweep: SumLength = asked("wanted hem sweep", help="The whole way round the hem.")

    @model_validator(mode="after")
    def _hem_is_wider(self) -> SweepForHemSum:
        if self.hem_sweep <= self.seam:
            asked_for = f"{format_length(self.hem_sweep, Unit.CM)} ({format_length(self.hem_sweep, Unit.INCH)})"
            raise ValueError(f"A hem of {asked_for} is no wider than the seam; a flare's hem is wider than its seam.")
        return self

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        sweep, radius = sweep_for_hem(self.seam, self.length, self.hem_sweep, notes)
        findings: list[Finding] = []
        if sweep > 4 * tau:
            findings.append(
                warn("sweep-beyond-four-circles", "That is more than four full circles; gather it instead.")
            )
        return {"sweep": sweep, "seam_radius": radius}, findings
