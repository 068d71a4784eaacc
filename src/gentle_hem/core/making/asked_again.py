"""Measures that disagree with what was fitted: what was let out, taken in, lengthened or shortened at the fittings
since a measure was taken adds up, and where it comes to more than a body or a tape would, the measure is asked about.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date

from gentle_hem.core.figure import MEASURES, MeasureKey
from gentle_hem.core.units import Tape, format_length

SAYS: Mapping[str, tuple[tuple[MeasureKey, float], ...]] = {
    # both side seams, in front and behind
    "let_out_bodice_side": (("bust_girth", 4.0), ("waist_girth", 4.0)),
    "take_in_bodice_side": (("bust_girth", -4.0), ("waist_girth", -4.0)),
    "out_at_hip": (("hip_girth", 4.0),),
    # both halves of the back
    "in_at_centre_back": (("across_back", -2.0),),
    "longer_bodice": (("front_waist_length", 1.0), ("back_waist_length", 1.0)),
    "shorter_bodice": (("front_waist_length", -1.0), ("back_waist_length", -1.0)),
    "drop_back_waist": (("back_waist_length", -1.0),),
    "narrow_shoulder": (("shoulder_length", -1.0),),
    "deeper_crotch": (("crotch_depth", 1.0),),
    "raise_crotch": (("crotch_depth", -1.0),),
}
"""What a correction says of a measure: by how much more of it there is, for each of its amount."""

GIRTHS: frozenset[MeasureKey] = frozenset({"bust_girth", "waist_girth", "hip_girth"})
GIRTH, LENGTH = 20.0, 10.0
"""From so much on a girth, or a length, is asked about (mm): less lies within the tape and the ease."""


@dataclass(frozen=True, slots=True)
class Taken:
    """A correction taken at a fitting, by how much (mm)."""

    on_day: date
    correction: str
    amount: float


@dataclass(frozen=True, slots=True)
class AskedAgain:
    """A measure to be taken again: as it was last taken, when, and as the fittings say it is (mm)."""

    key: MeasureKey
    taken_on: date
    measured: float
    fitted: float

    def text(self, tape: Tape) -> str:
        return (
            f"The {MEASURES[self.key]} was taken as {format_length(self.measured, tape)} on "
            f"{self.taken_on.day} {self.taken_on:%B %Y}; what was fitted since speaks for "
            f"{format_length(self.fitted, tape)}. Take it again, or leave it where the ease was meant to be another."
        )


def asked_again(
    measures: Mapping[MeasureKey, float], taken_on: date, corrections: Sequence[Taken]
) -> tuple[AskedAgain, ...]:
    """The measures that what was fitted since they were taken disagrees with, in the order of the table."""
    return tuple(_asked(measures, taken_on, corrections))


def _asked(measures: Mapping[MeasureKey, float], taken_on: date, corrections: Sequence[Taken]) -> Iterator[AskedAgain]:
    more: dict[MeasureKey, float] = {}
    for one in corrections:
        if one.on_day < taken_on:
            continue
        for key, times in SAYS.get(one.correction, ()):
            more[key] = more.get(key, 0.0) + times * one.amount
    for key in MEASURES:
        if key in measures and abs(more.get(key, 0.0)) >= (GIRTH if key in GIRTHS else LENGTH):
            yield AskedAgain(key, taken_on, measures[key], measures[key] + more[key])
