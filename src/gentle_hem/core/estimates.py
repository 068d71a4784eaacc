"""Measures that are missing: estimated by a rule of the trade, always marked (trade 3.4).

measured   used as it is
missing    estimated from another measure, written into the workings, and said in a finding:
           "estimated, confirm at fitting"
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from gentle_hem.core.figure import MEASURES, Figure, MeasureKey
from gentle_hem.core.findings import Finding, Remedy, in_recipe, note, stop
from gentle_hem.core.workings import Ratio, Workings

SIZE_TABLE = (
    (760, 600, 840), (800, 640, 880), (840, 680, 920), (880, 720, 960), (920, 760, 1000), (960, 800, 1040),
    (1000, 840, 1080), (1040, 880, 1120), (1100, 940, 1170), (1160, 1000, 1220), (1220, 1060, 1270),
    (1280, 1120, 1320),
)  # fmt: skip
"""Bust, waist and hip of women's sizes, mm: the steps of EN 13402-3, from memory (trade 3.5)."""

OFF_SHOULDER = 1.1
"""Round both arms at the off-shoulder level one is so many times as long round as at the bust: a rule of thumb."""


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


RULES: dict[MeasureKey, dict[str, Estimate]] = {
    "waist_girth": {"usual": _plus("bust_girth", -160, "common practice: 16 cm less than the bust in the usual sizes")},
    "hip_girth": {"usual": _plus("bust_girth", 80, "common practice: 8 cm more than the bust in the usual sizes")},
    "front_waist_length": {
        "usual": _usual(430, "common practice: 17 in at average height"),
        "petite": _usual(394, "common practice: 15 1/2 in on small statures"),
        "from_back": _plus("back_waist_length", 25, "common practice: 2-4 cm more than the back"),
    },
    "back_waist_length": {
        "from_front": _plus("front_waist_length", -25, "common practice: 2-4 cm less than the front"),
        "full_bust": _plus("front_waist_length", -63.5, "common practice: 2-3 in less than the front on full busts"),
        "usual": _usual(405, "common practice: 16 in at average height"),
    },
    "shoulder_to_bust_point": {"share": _share("front_waist_length", 0.6, "a rule of thumb")},
    "bust_span": {
        "fifth": _share("bust_girth", 0.2, "common practice: near bust ÷ 5"),
        "close": _share("bust_girth", 1 / 6, "common practice: no less than bust ÷ 6"),
        "wide": _share("bust_girth", 1 / 4.3, "common practice: no more than bust ÷ 4.3"),
    },
    "shoulder_width": {"share": _share("bust_girth", 0.41, "a rule of thumb")},
    "shoulder_length": {"share": _share("shoulder_width", 0.32, "a rule of thumb")},
    "across_front": {"share": _share("shoulder_width", 0.87, "a rule of thumb")},
    "across_back": {"share": _share("shoulder_width", 0.93, "a rule of thumb")},
    "neck_girth": {"share": _share("bust_girth", 0.39, "a rule of thumb")},
    "waist_to_hip": {
        "usual": _usual(203.2, "common practice: 8 in most often"),
        "small": _usual(177.8, "common practice: 7 in on small statures"),
        "tall": _usual(228.6, "common practice: 9 in on tall or full figures"),
    },
    "crotch_depth": {
        "usual": _usual(279.4, "common practice: 11 in"),
        "from_hip": _plus("waist_to_hip", 30, "common practice: 1-5 cm more than waist to hip"),
    },
    "waist_to_floor": {
        "usual": _usual(1020, "common practice: 40 in at average height"),
        "from_height": _share("height", 0.615, "a rule of thumb"),
    },
    "waist_to_knee": {"share": _share("waist_to_floor", 0.57, "common practice: 0.54 to 0.60 of waist to floor")},
    "under_bust_girth": {"usual": _plus("bust_girth", -140, "common practice: 8 to 25 cm less than the bust")},
    "inside_leg": {"from_floor": _plus("waist_to_floor", -280, "waist to floor less the crotch depth of 11 in")},
    "thigh_girth": {"share": _share("hip_girth", 0.6, "a rule of thumb from the same open sample of women")},
    "knee_girth": {"share": _share("hip_girth", 0.37, "a rule of thumb from the same open sample of women")},
    "ankle_girth": {"share": _share("hip_girth", 0.22, "a rule of thumb from the same open sample of women")},
    "upper_arm_girth": {"share": _share("bust_girth", 0.31, "a rule of thumb")},
    "wrist_girth": {"share": _share("hip_girth", 0.157, "a rule of thumb from the same open sample of women")},
    "head_girth": {"usual": _usual(570, "a rule of thumb: 57 cm")},
    "height": {"usual": _usual(1650, "a rule of thumb: 165 cm")},
    "arm_length": {"share": _share("height", 0.355, "a rule of thumb")},
}
"""How each measure is estimated when it was not taken, by the rule's name; the first unless another is asked."""

USUAL_BUST = 920.0
"""Nothing can be drawn without a bust girth; until it is measured, this one is drawn (mm)."""


def _said(estimate: Estimate) -> str:
    """A rule in a few words: "bust girth ÷ 5" style, or its usual value's reason."""
    return estimate.rule.removeprefix("common practice: ")


def from_size(bust: float) -> dict[MeasureKey, float]:
    """The measures of the size whose bust is nearest: to start from, and to be measured over (trade 3.5)."""
    nearest = min(SIZE_TABLE, key=lambda size: abs(size[0] - bust))
    return {"bust_girth": float(nearest[0]), "waist_girth": float(nearest[1]), "hip_girth": float(nearest[2])}


@dataclass
class Measures:
    """The figure's measures for one draft: what was taken, what had to be estimated, and the findings."""

    figure: Figure
    notes: Workings
    estimated: dict[MeasureKey, float] = field(default_factory=dict)
    findings: list[Finding] = field(default_factory=list)
    _asking: list[MeasureKey] = field(default_factory=list)

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
        rules = RULES[key]
        chosen = self.figure.rules.get(key, "")
        chosen = chosen if chosen in rules else next(iter(rules))
        estimate = rules[chosen]
        if estimate.start is not None and estimate.start in self._asking:
            estimate = next(rule for rule in rules.values() if rule.start not in self._asking)
        self._asking.append(key)
        start = self.take(estimate.start) if estimate.start else 0.0
        value = self.notes.work(
            f"{name} (estimated)", estimate.find(start), estimate.formula, rule=estimate.rule,
            start=start, share=Ratio(estimate.factor), more=abs(estimate.factor), usual=estimate.factor,
        )  # fmt: skip
        self._asking.remove(key)
        others = tuple(
            Remedy("rule", "Estimate it as " + _said(rule), {f"figure.rules.{key}": name})
            for name, rule in rules.items()
            if name != chosen
        )
        self.findings.append(
            note(
                "measure-estimated",
                "The {name} was not measured: {value} is estimated, confirm at fitting.",
                *where,
                remedies=others,
                name=name,
                value=float(value),
            )
        )
        return float(value)
