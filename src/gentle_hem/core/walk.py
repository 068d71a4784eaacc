"""Walking the seams: one edge measured along its mate, stitching line on stitching line.

a   |────────────|──────|
b   |─────────────|──────|        b ÷ fullness − a − ease = what is over

Every seam of the garment is walked the same way, and a seam that does not walk has a finding.
"""

from __future__ import annotations

import itertools
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from gentle_hem.core.findings import Finding, Place, Remedy, in_recipe, note, stop, warn
from gentle_hem.core.join import Unrolled, unroll
from gentle_hem.core.pattern import Piece
from gentle_hem.core.seams import Manner, Seam, Verdict
from gentle_hem.core.units import Said, format_length
from gentle_hem.core.what import CENTRE_FRONT, UNNAMED, Half, Sign, What
from gentle_hem.core.workings import Percent

SEAM_TOLERANCE = 1.5
"""Plain seams are equal within 1.5 mm (1/16 in), common practice (trade 9.1)."""

GATHERED_FROM = 1.001

INVISIBLE_OFFSET = 3.0
"""A landmark off by up to 3 mm is not seen, common practice (trade 9.1)."""

ACCEPTABLE_OFFSET = 6.0
"""Up to 6 mm passes on prints that hide it; more must be moved, common practice (trade 9.1)."""

MEANT_WITHIN = 40.0
"""Seams of other names that lie further apart than this were not meant to meet (mm)."""

EASE_FIRM = 0.01
EASE_PLIABLE = 0.03
"""Ease a seam takes without folds: 1 % on firm cloth, up to 3 % on pliable wool or crepe, common
practice (trade 9.1)."""

WAIST_SEAM = "waist seam"


@dataclass(frozen=True, slots=True)
class Tie:
    """One landmark of a seam: where it lies on either side, and how far apart."""

    name: Sign
    upper: float
    lower: float
    lower_name: Sign = UNNAMED
    """What it is called on the lower side, where that is another name: a gore seam under a princess seam."""

    @property
    def offset(self) -> float:
        return self.lower - self.upper


@dataclass(frozen=True, slots=True)
class Between:
    """From one tied landmark to the next: lengths on either side."""

    start: str
    end: str
    upper: float
    lower: float

    @property
    def difference(self) -> float:
        return self.lower - self.upper


@dataclass(frozen=True, slots=True)
class Walked:
    """A seam measured: both sides unrolled, what is over beyond the ease, the verdict, and ways to close it.

    ``upper`` is its side a, ``lower`` its side b as it lies once gathered or pleated.
    """

    seam: Seam
    upper: Unrolled
    lower: Unrolled
    verdict: Verdict
    remedies: tuple[Remedy, ...] = field(default=())

    @property
    def name(self) -> str:
        return self.seam.name

    @property
    def length_a(self) -> float:
        return self.upper.length

    @property
    def length_b(self) -> float:
        """As it is cut, before it is gathered."""
        return self.lower.length * self.seam.fullness

    @property
    def ease(self) -> float:
        return self.seam.ease

    @property
    def fullness(self) -> float:
        return self.seam.fullness

    @property
    def upper_name(self) -> str:
        return self.seam.a.name

    @property
    def lower_name(self) -> str:
        return self.seam.b.name

    @property
    def times(self) -> int:
        """How many times the whole garment has what is laid out here: a run from the centre front is a half."""
        return 2 if self.upper.landmarks[0].name == CENTRE_FRONT else 1

    @property
    def difference(self) -> float:
        """How much longer b is than a, as it lies once gathered."""
        return self.lower.length - self.upper.length

    @property
    def open_difference(self) -> float:
        """What is left to close once the intended ease is taken up."""
        over = self.difference
        return over - min(max(over, min(0.0, self.ease)), max(0.0, self.ease))

    @property
    def ties(self) -> tuple[Tie, ...]:
        """Landmarks that both sides have, in order along a: by their names, and the other seams of a half by where they
        lie, each with the nearest.
        """
        tied = [
            Tie(mark.name, mark.at, below)
            for mark in self.upper.landmarks
            if mark.name and (below := self.lower.at(mark.name)) is not None
        ]
        named = {tie.name for tie in tied}
        for half in Half:
            above, left = (
                [m for m in side.landmarks if m.name.seam and m.name.half is half and m.name not in named]
                for side in (self.upper, self.lower)
            )
            for mark in above:
                nearest = min(left, key=lambda other: abs(other.at - mark.at), default=None)
                if nearest is not None and abs(nearest.at - mark.at) <= MEANT_WITHIN:
                    tied.append(Tie(mark.name, mark.at, nearest.at, nearest.name))
                    left.remove(nearest)
        return tuple(sorted(tied, key=lambda tie: tie.upper))

    @property
    def sections(self) -> tuple[Between, ...]:
        ties = self.ties
        return tuple(Between(a.name, b.name, b.upper - a.upper, b.lower - a.lower) for a, b in itertools.pairwise(ties))


def verdict_on(difference: float, ease: float) -> Verdict:
    """What a difference b − a means when an ease of ``ease`` was meant."""
    low, high = min(0.0, ease) - SEAM_TOLERANCE, max(0.0, ease) + SEAM_TOLERANCE
    if difference > high:
        return Verdict.LONGER
    if difference < low:
        return Verdict.SHORTER
    return Verdict.MEETS if abs(difference) <= SEAM_TOLERANCE else Verdict.EASED


def walk(seam: Seam, pieces: Mapping[What, Piece], remedies: tuple[Remedy, ...] = ()) -> Walked:
    """Measure both sides of a seam and judge it."""
    a, b = unroll(seam.a, pieces), unroll(seam.b, pieces).drawn_up(seam.fullness)
    verdict = verdict_on(b.length - a.length, seam.ease)
    if verdict.fits and seam.fullness > GATHERED_FROM:
        verdict = Verdict.GATHERED
    return Walked(seam, a, b, verdict, remedies)


def sentence(walked: Walked, unit: Said) -> str:
    """A seam in a sentence: that it meets, and how, or which side is longer."""
    gap = format_length(walked.times * abs(walked.difference), unit)
    what = "waist" if walked.name == WAIST_SEAM else walked.name
    drawn = "pleated" if walked.seam.manner is Manner.PLEATED else "gathered"
    return {
        Verdict.MEETS: f"The {what} meets.",
        Verdict.EASED: f"The {what} meets with {gap} of ease.",
        Verdict.GATHERED: f"The {what} meets, {drawn} {walked.fullness:.3g} times.",
        Verdict.LONGER: f"The {walked.lower_name} is {gap} longer than the {walked.upper_name}.",
        Verdict.SHORTER: f"The {walked.lower_name} is {gap} shorter than the {walked.upper_name}.",
    }[walked.verdict]


def findings_for(walked: Walked) -> list[Finding]:
    """Whether a seam walks, in total and at each landmark, in a sentence each."""
    seam, runs = walked.seam, walked.upper.runs + walked.lower.runs
    places = tuple(Place(piece=run.piece.name, edge=run.edge) for run in runs)
    if not walked.verdict.fits:
        return [_joins_not(walked, places) if seam.is_join else _walks_not(walked, places)]
    if seam.fullness > GATHERED_FROM or not seam.is_join:
        return []  # gathers are shared out between the marks
    return [_tied_not(walked, tie, places) for tie in _off(walked)]


def _off(walked: Walked) -> list[Tie]:
    """The landmarks that lie apart where it is seen; the ends are the seam's own."""
    first, last = walked.upper.landmarks[0].name, walked.upper.landmarks[-1].name
    return [tie for tie in walked.ties if tie.name not in (first, last) and abs(tie.offset) > INVISIBLE_OFFSET]


def _joins_not(walked: Walked, places: tuple[Place, ...]) -> Finding:
    whole = " all round" if walked.times == 2 else ""
    return stop(
        "waist-does-not-meet" if walked.name == WAIST_SEAM else "join-does-not-meet",
        "The {seam} does not meet: the {above} measures {upper} and the {below} {lower}, so the {below} is "
        "{gap} too " + ("long" if walked.difference > 0 else "short") + whole + ".",
        *places,
        *in_recipe("lower.seam"),
        remedies=walked.remedies,
        seam=walked.name,
        above=walked.upper_name,
        below=walked.lower_name,
        upper=walked.times * walked.upper.length,
        lower=walked.times * walked.lower.length,
        gap=walked.times * abs(walked.difference),
    )


def _walks_not(walked: Walked, places: tuple[Place, ...]) -> Finding:
    return stop(
        "seam-does-not-walk",
        "The {seam} does not walk: {first} measures {a}, {second} measures {b}; the difference is {gap}.",
        *places,
        seam=walked.name,
        first=walked.upper_name,
        second=walked.lower_name,
        a=walked.length_a,
        b=walked.length_b,
        gap=abs(walked.difference),
    )


def _tied_not(walked: Walked, tie: Tie, places: tuple[Place, ...]) -> Finding:
    off = abs(tie.offset)
    say = warn if off > ACCEPTABLE_OFFSET else note
    return say(
        "landmark-does-not-meet",
        "The {mark} of the {below} lies {gap} " + ("behind" if tie.offset > 0 else "before")
        + (" the {other} of the {above}; " if tie.lower_name else " that of the {above}; ")
        + ("move it." if off > ACCEPTABLE_OFFSET else "a busy print hides it."),
        *places,
        mark=str(tie.lower_name or tie.name),
        other=str(tie.name),
        above=walked.upper_name,
        below=walked.lower_name,
        gap=off,
    )  # fmt: skip


def ease_remedy(walked: Walked, planned: float, pin: Mapping[str, Any]) -> Remedy | None:
    """Sewing the longer edge onto the shorter without folds; None beyond what cloth allows.

    ``planned`` is the ease already planned; ``pin`` are the changes that hold the lower edge as it is.
    """
    whole = 2 * (walked.difference - walked.ease)
    share = abs(whole) / (2 * min(walked.upper.length, walked.lower.length))
    if share > EASE_PLIABLE:
        return None
    longer = walked.lower_name if whole > 0 else walked.upper_name
    cloth = "any cloth takes this" if share <= EASE_FIRM else "pliable wool or crepe only"
    return Remedy(
        "ease",
        "Ease {amount} of the " + longer + " in along the seam",
        {**pin, "join.ease": planned + whole},
        "{share} of the seam; " + cloth,
        {"amount": abs(whole), "share": Percent(share * 100)},
    )
