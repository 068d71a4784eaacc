"""The gathering sum: how wide to cut for a seam, and how many cloth widths that is (trade 8)."""

from math import ceil
from typing import Annotated, ClassVar

from gentle_hem.core.findings import Finding, note, stop, warn
from gentle_hem.core.parts import number_between
from gentle_hem.core.sums.sum import Sum, SumAllowance, SumLength, SumSeam, Value, asked
from gentle_hem.core.workings import Count, Ratio, Workings

LEAST_SENSIBLE = 1.15
"""Below this fullness a gather looks like a mistake, common practice (trade 9.1)."""


class GatherSum(Sum):
    """Seam 70 cm at twice the fullness, cloth 140 cm wide."""

    name: ClassVar[str] = "gather"
    title: ClassVar[str] = "Gathers"
    purpose: ClassVar[str] = "How wide to cut for a gathered seam, and in how many widths of cloth."

    seam: SumSeam = asked("seam it is gathered to")
    fullness: Annotated[float, number_between(1, 12, "times fullness")] = asked("fullness", "ratio", 2.0)
    cloth_width: SumLength | None = asked("usable cloth width", default=None, help="Between the selvedges.")
    join_allowance: SumAllowance = asked("join allowance", default=0.0, help="On each edge of every panel.")

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        cut_width = notes.work(
            "cut width", self.seam * self.fullness, "{seam} × {fullness}", rule="on the stitching line, before joins",
            seam=self.seam, fullness=Ratio(self.fullness),
        )  # fmt: skip
        findings: list[Finding] = []
        if 1 < self.fullness < LEAST_SENSIBLE:
            findings.append(
                warn(
                    "gather-looks-like-mistake",
                    "Gathers below 1.15 times look like a mistake; ease it or gather more.",
                )
            )
        if self.cloth_width is None:
            return {"cut_width": cut_width}, findings

        usable = self.cloth_width - 2 * self.join_allowance
        if usable <= 0:
            findings.append(
                stop(
                    "cloth-narrower-than-joins",
                    "The joins take {joins} of a cloth {width} wide; nothing is left of a panel.",
                    joins=2 * self.join_allowance, width=self.cloth_width,
                )
            )  # fmt: skip
            return {"cut_width": cut_width}, findings
        count = max(1, ceil(cut_width / usable - 1e-9))
        panels = notes.work(
            "panels", Count(count), "{cut_width} ÷ ({cloth_width} − 2 × {join_allowance}), rounded up",
            rounding="up to whole panels", cut_width=cut_width, cloth_width=self.cloth_width,
            join_allowance=self.join_allowance,
        )  # fmt: skip
        width = notes.work(
            "panel width", cut_width / count + 2 * self.join_allowance,
            "{cut_width} ÷ {panels} + 2 × {join_allowance}", rule="as cut, joins included",
            cut_width=cut_width, panels=panels, join_allowance=self.join_allowance,
        )  # fmt: skip
        actual = notes.work(
            "fullness in whole widths", Ratio(count * usable / self.seam),
            "{panels} × ({cloth_width} − 2 × {join_allowance}) ÷ {seam}",
            rule="if every panel is left as wide as the cloth", panels=panels, cloth_width=self.cloth_width,
            join_allowance=self.join_allowance, seam=self.seam,
        )  # fmt: skip
        findings.append(
            note(
                "whole-widths", "{panels} whole widths of the cloth give a fullness of {actual}.",
                panels=panels, actual=actual,
            )
        )  # fmt: skip
        return {
            "cut_width": cut_width, "panels": panels, "panel_width": width, "actual_fullness": actual,
        }, findings  # fmt: skip
