"""Measures that are missing: estimated by a rule of the trade, always marked (handbook 3.4).

measured   used as it is
missing    estimated from another measure, written into the workings, and said in a finding:
           "estimated, confirm at fitting"
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from gentle_hem.core.figure import MEASURES, Figure, MeasureKey
from gentle_hem.core.findings import Finding, in_recipe, note, stop
from gentle_hem.core.workings import Ratio, Workings

SIZE_TABLE = (
    (760, 600, 840), (800, 640, 880), (840, 680, 920), (880, 720, 960), (920, 760, 1000), (960, 800, 1040),
    (1000, 840, 1080), (1040, 880, 1120), (1100, 940, 1170), (1160, 1000, 1220), (1220, 1060, 1270),
    (1280, 1120, 1320),
)  # fmt: skip
"""Bust, waist and hip of women's sizes, mm: the steps of EN 13402-3, from memory (handbook 3.5)."""


@dataclass(frozen=True, slots=True)
class Estimate:
    """A rule for a missing measure: the measure it starts from, and the arithmetic."""

    start: MeasureKey | None
    formula: str
    rule: str
    find: Callable[[float], float]
    factor: float = 0.0


def _share(start: MeasureKey, factor: float, rule: str) -> Estimate:
    return Estimate(start, "{start} × {share}", rule, lambda value: value * factor, factor)


def _plus(start: MeasureKey, more: float, rule: str) -> Estimate:
    sign = "+" if more >= 0 else "−"
    return Estimate(start, f"{{start}} {sign} {{more}}", rule, lambda value: value + more, float(more))


def _usual(value: float, rule: str) -> Estimate:
    return Estimate(None, "{usual}", rule, lambda _: float(value), float(value))


RULES: dict[MeasureKey, Estimate] = {
    "waist_girth": _plus("bust_girth", -160, "common practice: 16 cm less than the bust in the usual sizes"),
    "hip_girth": _plus("bust_girth", 80, "common practice: 8 cm more than the bust in the usual sizes"),
    "front_waist_length": _usual(430, "common practice: 17 in at average height"),
    "back_waist_length": _plus("front_waist_length", -25, "common practice: 2-4 cm less than the front"),
    "shoulder_to_bust_point": _share("front_waist_length", 0.6, "a rule of thumb"),
    "bust_span": _share("bust_girth", 0.2, "common practice: near bust ÷ 5"),
    "shoulder_width": _share("bust_girth", 0.41, "a rule of thumb"),
    "shoulder_length": _share("shoulder_width", 0.32, "a rule of thumb"),
    "across_front": _share("shoulder_width", 0.87, "a rule of thumb"),
    "across_back": _share("shoulder_width", 0.93, "a rule of thumb"),
    "neck_girth": _share("bust_girth", 0.39, "a rule of thumb"),
    "waist_to_hip": _usual(200, "common practice: 8 in"),
    "crotch_depth": _usual(279.4, "common practice: 11 in"),
    "waist_to_floor": _usual(1020, "common practice: 40 in at average height"),
}
"""How each measure is estimated when it was not taken."""

USUAL_BUST = 920.0
"""Nothing can be drawn without a bust girth; until it is measured, this one is drawn (mm)."""


@dataclass
class Measures:
    """The figure's measures for one draft: what was taken, what had to be estimated, and the findings."""

    figure: Figure
    notes: Workings
    estimated: dict[MeasureKey, float] = field(default_factory=dict)
    findings: list[Finding] = field(default_factory=list)

    def take(self, key: MeasureKey) -> float:
        """The measure in mm: as taken, or estimated and marked."""
        taken = self.figure.get(key)
        if taken is not None:
            return taken
        if key not in self.estimated:
            self.estimated[key] = self._estimate(key)
        return self.estimated[key]

    def _estimate(self, key: MeasureKey) -> float:
        where = in_recipe(f"figure.measures.{key}")
        name = MEASURES[key]
        if key == "bust_girth":
            self.findings.append(
                stop(
                    "bust-not-measured",
                    "The bust girth was not measured; the block is drawn for {usual} until it is.",
                    *where,
                    usual=USUAL_BUST,
                )
            )
            return USUAL_BUST
        estimate = RULES[key]
        start = self.take(estimate.start) if estimate.start else 0.0
        value = self.notes.work(
            f"{name} (estimated)", estimate.find(start), estimate.formula, rule=estimate.rule,
            start=start, share=Ratio(estimate.factor), more=abs(estimate.factor), usual=estimate.factor,
        )  # fmt: skip
        self.findings.append(
            note(
                "measure-estimated",
                "The {name} was not measured: {value} is estimated, confirm at fitting.",
                *where,
                name=name,
                value=float(value),
            )
        )
        return float(value)
