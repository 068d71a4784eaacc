"""Girths against each other: what is rare in a published sample of women is worth a second look (trade 3.3).

Source: the open body-dimensions data set "bdims" (Heinz, Peterson, Johnson and Kerr, "Exploring relationships in
body dimensions", Journal of Statistics Education 11(2), 2003), its 260 women. The table holds the 0.5 and 99.5 per
cent points of each ratio, rounded to three places; a test derives it again from the data set.

Its limits: physically active adults, most of them young. Its chest girth is not taken over the fullest bust in
women, so it is not used as bust. It says what is rare, not what is wrong.
"""

from __future__ import annotations

from collections.abc import Iterator

from gentle_hem.core.figure import MEASURES, Figure, MeasureKey
from gentle_hem.core.findings import Finding, in_recipe, warn

COLUMNS: dict[MeasureKey, str] = {
    "waist_girth": "wai_gi", "hip_girth": "hip_gi", "thigh_girth": "thi_gi", "knee_girth": "kne_gi",
    "calf_girth": "cal_gi", "ankle_girth": "ank_gi", "wrist_girth": "wri_gi", "off_shoulder_girth": "sho_gi",
    "height": "hgt",
}  # fmt: skip
"""Which column of the data set each measure is."""

BANDS: dict[tuple[MeasureKey, MeasureKey], tuple[float, float]] = {
    ("waist_girth", "hip_girth"): (0.652, 0.930),
    ("waist_girth", "thigh_girth"): (1.035, 1.661),
    ("waist_girth", "knee_girth"): (1.645, 2.572),
    ("waist_girth", "calf_girth"): (1.607, 2.525),
    ("waist_girth", "ankle_girth"): (2.746, 4.201),
    ("waist_girth", "wrist_girth"): (3.920, 5.869),
    ("waist_girth", "off_shoulder_girth"): (0.600, 0.855),
    ("waist_girth", "height"): (0.352, 0.586),
    ("hip_girth", "thigh_girth"): (1.550, 1.808),
    ("hip_girth", "knee_girth"): (2.407, 3.123),
    ("hip_girth", "calf_girth"): (2.394, 3.146),
    ("hip_girth", "ankle_girth"): (3.828, 5.319),
    ("hip_girth", "wrist_girth"): (5.504, 7.554),
    ("hip_girth", "off_shoulder_girth"): (0.846, 1.097),
    ("hip_girth", "height"): (0.504, 0.733),
    ("thigh_girth", "knee_girth"): (1.450, 1.859),
    ("thigh_girth", "calf_girth"): (1.443, 1.893),
    ("thigh_girth", "ankle_girth"): (2.348, 3.133),
    ("thigh_girth", "wrist_girth"): (3.305, 4.446),
    ("thigh_girth", "off_shoulder_girth"): (0.500, 0.675),
    ("thigh_girth", "height"): (0.295, 0.437),
    ("knee_girth", "calf_girth"): (0.885, 1.123),
    ("knee_girth", "ankle_girth"): (1.471, 1.904),
    ("knee_girth", "wrist_girth"): (2.066, 2.726),
    ("knee_girth", "off_shoulder_girth"): (0.301, 0.408),
    ("knee_girth", "height"): (0.185, 0.261),
    ("calf_girth", "ankle_girth"): (1.463, 1.875),
    ("calf_girth", "wrist_girth"): (2.026, 2.751),
    ("calf_girth", "off_shoulder_girth"): (0.305, 0.414),
    ("calf_girth", "height"): (0.177, 0.263),
    ("ankle_girth", "wrist_girth"): (1.254, 1.660),
    ("ankle_girth", "off_shoulder_girth"): (0.180, 0.249),
    ("ankle_girth", "height"): (0.109, 0.150),
    ("wrist_girth", "off_shoulder_girth"): (0.133, 0.168),
    ("wrist_girth", "height"): (0.080, 0.106),
    ("off_shoulder_girth", "height"): (0.532, 0.741),
}


FEW = 3
"""With more than this many measures to hold against each other, one rare pair is no reason to ask: of a hundred
pairs one lies outside by chance. A measure is questioned when it is rare beside two others."""


def rare_ratios(figure: Figure) -> Iterator[tuple[MeasureKey, MeasureKey, float, float]]:
    """Pairs of measures whose ratio is rare: both keys, and the range of the first that the second makes usual."""
    for (first, second), (low, high) in BANDS.items():
        a, b = figure.get(first), figure.get(second)
        if a and b and not low <= a / b <= high:
            yield first, second, low * b, high * b


def against_the_population(figure: Figure) -> list[Finding]:
    """One finding for each measure that is rare beside the others, the one that is rare most often first."""
    rare = list(rare_ratios(figure))
    findings: list[Finding] = []
    known = sum(figure.get(key) is not None for key in COLUMNS)
    enough = 2 if known > FEW else 1
    while rare:
        counts: dict[MeasureKey, int] = {}
        for first, second, _, _ in rare:
            for key in (first, second):
                counts[key] = counts.get(key, 0) + 1
        odd = max(counts, key=lambda key: counts[key])
        if counts[odd] < enough:
            break
        pair = next(p for p in rare if odd in p[:2])
        other = pair[1] if pair[0] == odd else pair[0]
        first, second, low, high = pair
        a, b = figure.measures[first], figure.measures[second]
        findings.append(
            warn(
                "rare-beside-others",
                f"The {MEASURES[first]} of {{first}} is rare beside a {MEASURES[second]} of {{second}}: {{low}} to "
                "{high} is usual in a sample of 260 active women. Worth measuring again.",
                *in_recipe(f"figure.measures.{odd}", f"figure.measures.{other}"),
                first=a, second=b, low=low, high=high,
            )
        )  # fmt: skip
        rare = [p for p in rare if odd not in p[:2]]
    return findings
