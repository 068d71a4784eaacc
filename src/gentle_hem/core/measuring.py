"""How each measure is taken, tab by tab in the order a tape goes round a person (trade 3.1)."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from gentle_hem.core.figure import MEASURES, Figure, MeasureKey
from gentle_hem.core.findings import Finding, in_recipe, warn

JUMP, JUMP_DAYS = 40.0, 60
"""A girth that changed by more than 4 cm within 60 days is measured again (trade 3.3)."""


@dataclass(frozen=True, slots=True)
class Taking:
    """One measure: its key, what it is called, and how the tape is held."""

    key: MeasureKey
    how: str

    @property
    def label(self) -> str:
        return MEASURES[self.key]


TABS: dict[str, tuple[Taking, ...]] = {
    "Round the body": (
        Taking("neck_girth", "Round the base of the neck, the tape lying where a necklace would."),
        Taking("upper_bust_girth", "High under the arms, above the bust."),
        Taking("bust_girth", "Over the fullest part, the tape level all round."),
        Taking("under_bust_girth", "Directly below the bust."),
        Taking("waist_girth", "Where a tied tape settles by itself, at the narrowest."),
        Taking("high_hip_girth", "About 10 cm (4 in) below the waist."),
        Taking("hip_girth", "Over the fullest part of the seat, level."),
        Taking("head_girth", "Round the head above the brows: does the neckline go over it?"),
    ),
    "Across": (
        Taking("shoulder_width", "From shoulder tip to shoulder tip, across the back."),
        Taking("shoulder_length", "From the neck point to the shoulder tip, one side."),
        Taking("across_front", "Between the armholes in front, half-way up the armhole."),
        Taking("cross_shoulder_front", "In front, from shoulder tip to shoulder tip."),
        Taking("cross_shoulder_back", "Behind, from shoulder tip to shoulder tip."),
        Taking("across_back", "Between the armholes behind, half-way up the armhole."),
        Taking("bust_span", "From bust point to bust point."),
        Taking("off_shoulder_girth", "Round both shoulders and arms where an off-shoulder edge would lie."),
    ),
    "Down the body": (
        Taking("shoulder_to_upper_bust", "From the shoulder at the neck, down the front to the upper bust."),
        Taking("shoulder_to_bust_point", "From the shoulder at the neck, down to the bust point."),
        Taking("shoulder_to_under_bust", "From the shoulder at the neck, over the bust, to below it."),
        Taking("front_waist_length", "From the shoulder at the neck, over the bust, to the waist."),
        Taking("back_waist_length", "From the shoulder at the neck, down the back to the waist."),
        Taking("nape_to_waist", "From the nape bone to the waist."),
        Taking("shoulder_to_hip", "From the shoulder at the neck, down the front to the hip level."),
        Taking("full_length", "From the shoulder at the neck to the wanted hem."),
        Taking("waist_to_hip", "At the side, from the waist to the fullest hip."),
        Taking("waist_to_knee", "At the side, from the waist to the knee."),
        Taking("waist_to_floor", "At the side, from the waist to the floor, without shoes."),
        Taking("height", "Standing straight, without shoes."),
        Taking("heel_height", "Of the shoes it will be worn with."),
    ),
    "Arms": (
        Taking("armhole_girth", "Round the arm's joint, over the shoulder tip and under the arm."),
        Taking("upper_arm_girth", "Round the fullest upper arm, the arm hanging."),
        Taking("elbow_girth", "Round the bent elbow."),
        Taking("wrist_girth", "Round the wrist bone."),
        Taking("arm_length", "From the shoulder tip over the bent elbow to the wrist."),
    ),
    "Legs": (
        Taking("crotch_depth", "Sitting upright, at the side from the waist to the seat of the chair."),
        Taking("crotch_length", "From the waist in front, between the legs, to the waist behind."),
        Taking("trunk_girth", "From the shoulder down the front, between the legs and up the back again."),
        Taking("inside_leg", "From the crotch to the floor."),
        Taking("thigh_girth", "Round the fullest thigh."),
        Taking("knee_girth", "Round the knee, slightly bent."),
        Taking("calf_girth", "Round the fullest calf."),
        Taking("ankle_girth", "Round the ankle bone."),
    ),
}
"""Every measure, in the order it is taken."""

ORDER: tuple[MeasureKey, ...] = tuple(taking.key for tab in TABS.values() for taking in tab)


@dataclass(frozen=True, slots=True)
class Changed:
    """One measure in two sets; None where it was not taken."""

    key: MeasureKey
    before: float | None
    now: float | None

    @property
    def difference(self) -> float | None:
        return None if self.before is None or self.now is None else self.now - self.before


def compare_sets(before: Figure, now: Figure) -> list[Changed]:
    """Every measure that either set has, in the tape's order."""
    rows = (Changed(key, before.get(key), now.get(key)) for key in ORDER)
    return [row for row in rows if row.before is not None or row.now is not None]


def jumps(before: Figure, now: Figure) -> list[Finding]:
    """Girths that changed more than a body does between two days: measure again. Undated sets are not judged."""
    try:
        days = (date.fromisoformat(now.taken_on) - date.fromisoformat(before.taken_on)).days
    except ValueError:
        return []
    if abs(days) > JUMP_DAYS:
        return []
    return [
        warn(
            "girth-jumped",
            f"The {MEASURES[row.key]} changed by {{by}} in {{days}} days; measure it again.",
            *in_recipe(f"figure.measures.{row.key}"),
            by=abs(row.difference),
            days=str(abs(days)),
        )
        for row in compare_sets(before, now)
        if row.difference is not None and row.key.endswith("girth") and abs(row.difference) > JUMP
    ]


Trail = list[tuple[float, float]]
"""A measure over time: points from (0, 0), the first day and the least value, to (1, 1), the last and the most."""


def trail(taken: Sequence[tuple[date, float]]) -> Trail:
    """A measure over time as points to be drawn; in the middle of the height where it has not changed."""
    if not taken:
        return []
    first, days = taken[0][0], max((taken[-1][0] - taken[0][0]).days, 1)
    least = min(value for _, value in taken)
    range_ = max(value for _, value in taken) - least
    return [((day - first).days / days, (value - least) / range_ if range_ else 0.5) for day, value in taken]
