"""The skirt's length: what is left of the full length below the bodice (trade 5)."""

from typing import ClassVar

from gentle_hem.core.findings import Finding, stop
from gentle_hem.core.sums.sum import Sum, SumAllowance, SumLength, Value, asked
from gentle_hem.core.workings import Workings


class SkirtLengthSum(Sum):
    """Full length 41 in, waist length 17 in, ⅝ in join and ¾ in hem."""

    name: ClassVar[str] = "skirt_length"
    title: ClassVar[str] = "Skirt length"
    purpose: ClassVar[str] = "What is left of the full length below the bodice, and how long to cut it."

    full_length: SumLength = asked("full length", help="Shoulder at the neck to the wanted hem.")
    waist_length: SumLength = asked("waist length", help="The same shoulder point to the waist, on the same side.")
    join_allowance: SumAllowance = asked("join allowance", default=0.0)
    hem_allowance: SumAllowance = asked("hem allowance", default=0.0)

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        finished = notes.work(
            "finished length", self.full_length - self.waist_length, "{full_length} − {waist_length}",
            rule="both from the same shoulder point, on the same side",
            full_length=self.full_length, waist_length=self.waist_length,
        )  # fmt: skip
        cut = notes.work(
            "cut length", finished + self.join_allowance + self.hem_allowance,
            "{finished_length} + {join_allowance} + {hem_allowance}", rule="each allowance once",
            finished_length=finished, join_allowance=self.join_allowance, hem_allowance=self.hem_allowance,
        )  # fmt: skip
        findings = []
        if finished <= 0:
            findings.append(
                stop(
                    "full-length-above-waist",
                    "The full length of {full} ends above the waist at {waist}; nothing is left for a skirt.",
                    full=self.full_length, waist=self.waist_length,
                )
            )  # fmt: skip
        return {"finished_length": finished, "cut_length": cut}, findings
