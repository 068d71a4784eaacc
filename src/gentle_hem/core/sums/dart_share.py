"""The dart sum: what the lower edge has too much, shared among darts (trade 5, 9.1)."""

from typing import Annotated, ClassVar

from gentle_hem.core.findings import Finding, note, stop, warn
from gentle_hem.core.lower.circle import LEAST_DART, SMALLEST_SURPLUS_FOR_DARTS, WIDEST_DART
from gentle_hem.core.parts import number_between
from gentle_hem.core.sums.sum import Sum, SumSeam, Value, asked
from gentle_hem.core.workings import Share, Workings


class DartShareSum(Sum):
    """Skirt 39 7/8 in, bodice 37 3/4 in, four darts."""

    name: ClassVar[str] = "dart_share"
    title: ClassVar[str] = "Share into darts"
    purpose: ClassVar[str] = "What the lower edge has too much, taken up in equal darts."

    lower: SumSeam = asked("lower edge")
    bodice: SumSeam = asked("bodice edge", help="Darts closed, no allowances.")
    darts: Annotated[int, number_between(1, 24, "darts")] = asked("darts", "count", 2)

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        surplus = notes.work(
            "surplus", self.lower - self.bodice, "{lower} − {bodice}", lower=self.lower, bodice=self.bodice
        )
        intake = notes.work(
            "intake of each dart",
            surplus / self.darts,
            "{surplus} ÷ {darts}",
            surplus=surplus,
            darts=self.darts,
        )
        findings: list[Finding] = []
        if surplus < -1e-9:
            findings.append(
                stop(
                    "lower-edge-short",
                    "The lower edge is {short} shorter than the bodice; darts would make it shorter still.",
                    short=-surplus,
                )
            )
        elif surplus < SMALLEST_SURPLUS_FOR_DARTS:
            findings.append(
                note("surplus-too-small", "{surplus} is too little for darts; ease it in.", surplus=surplus)
            )
        elif not LEAST_DART <= intake <= WIDEST_DART:
            way = "more" if intake > WIDEST_DART else "fewer"
            findings.append(
                warn(
                    "dart-out-of-range", "Darts of {intake} each lie outside 1 to 3.5 cm; use " + way + " darts.",
                    intake=Share(intake, self.darts),
                )
            )  # fmt: skip
        return {"surplus": surplus, "intake": Share(intake, self.darts)}, findings
