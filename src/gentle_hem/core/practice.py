"""The practice bench: short problems from the trade on real garments, answered in the maker's units.

a garment's own seam ──► a problem ──► her answer ──► right, or the slip that was probably made
                              │
                              └── the right number and its working: the same sum as at the sums bench

A problem is known by its kind, its level and a number; the same three give the same problem again.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import ceil, pi, radians
from random import Random
from typing import Any

from gentle_hem.core.sums import SUMS
from gentle_hem.core.sums.sum import ask
from gentle_hem.core.units import Tape, Unit, format_length, inches, parse_length, plain
from gentle_hem.core.workings import Working

LEVELS = 4
"""From round numbers to such as a tape gives."""

UP_AFTER = 2
"""So many right in a row at a level lead to the next; one wrong leads back."""

TOLERANCE = {Unit.CM: 1.0, Unit.INCH: inches(1 / 16)}
"""An answer so near is right (mm): no tape is read closer."""


class Kind(StrEnum):
    """What a problem is about."""

    RADIUS = "radius"
    CUT_RADIUS = "cut radius"
    ZIP_IN_ARC = "zip allowance in the arc"
    DART = "share of a dart"
    GATHERS = "gathers for a cloth"
    LENGTH = "length from two others"
    OPEN_SEAM = "a seam that does not meet"


@dataclass(frozen=True, slots=True)
class Study:
    """A garment a problem is set on: what it is called, and the waist seam it has all round (mm)."""

    title: str
    waist: float


@dataclass(frozen=True, slots=True)
class Slip:
    """A number one comes to by a slip, and what the slip is."""

    value: float
    what: str


@dataclass(frozen=True, slots=True)
class Problem:
    """A problem: what is said and asked, the right number (mm, or how many), its working, and likely slips."""

    kind: Kind
    level: int
    says: str
    asks: str
    counts: bool
    answer: float
    workings: tuple[Working, ...]
    slips: tuple[Slip, ...]


@dataclass(frozen=True, slots=True)
class Judged:
    """An answer looked at: whether it is right, and the slip that was probably made where it is not."""

    right: bool
    slip: str


class NotAnAnswer(ValueError):  # noqa: N818  (it is what was typed)
    """What was typed is no length or count; the sentence says what is accepted."""


def problem(kind: Kind, level: int, number: int, studies: Sequence[Study], tape: Tape) -> Problem:
    """The problem of a kind and level with a number, on one of the garments."""
    chance = Random(f"{kind}/{level}/{number}")  # the same problem for the same number
    study = chance.choice(list(studies))
    return MAKERS[kind](_Set(kind, level, study, chance, tape))


def judged(made: Problem, typed: str, tape: Tape) -> Judged:
    """An answer as it was typed, looked at. Raises NotAnAnswer with a sentence."""
    value = _read(made, typed, tape)
    near = 0.0 if made.counts else TOLERANCE[tape.unit]
    if abs(value - made.answer) <= near:
        return Judged(True, "")
    off = [slip for slip in made.slips if abs(value - slip.value) <= max(near, 0.004 * abs(slip.value))]
    nearest = min(off, key=lambda slip: abs(value - slip.value), default=None)
    if nearest is not None:
        return Judged(False, nearest.what)
    for unit, other in ((Unit.CM, "inches"), (Unit.INCH, "centimetres")):
        factor = 25.4 / 10 if unit is Unit.CM else 10 / 25.4
        if not made.counts and tape.unit is unit and abs(value * factor - made.answer) <= near * 2:
            return Judged(False, f"It is the right number in {other}.")
    return Judged(False, "")


def _read(made: Problem, typed: str, tape: Tape) -> float:
    if made.counts:
        text = typed.strip()
        if not text.isdigit():
            raise NotAnAnswer("A whole number is asked for: how many.")
        return float(text)
    try:
        return parse_length(typed, tape.unit)
    except ValueError as wrong:
        raise NotAnAnswer(str(wrong)) from None


def next_kind(answers: Sequence[tuple[Kind, bool]]) -> Kind:
    """What is asked next: what has not been asked yet, then what went wrong most of late; never the same twice."""
    last = answers[-1][0] if answers else None
    asked = {kind for kind, _ in answers}
    for kind in Kind:
        if kind not in asked:
            return kind
    late = answers[-3 * len(Kind) :]

    def weight(kind: Kind) -> tuple[int, int]:
        wrong = sum(one is kind and not right for one, right in late)
        since = next((k for k, (one, _) in enumerate(reversed(answers)) if one is kind), len(answers))
        return wrong, since

    return max((kind for kind in Kind if kind is not last), key=weight)


def level_of(kind: Kind, answers: Sequence[tuple[Kind, bool]]) -> int:
    """The level a kind has come to by the answers to it: two right in a row lead up, one wrong leads down."""
    level, row = 1, 0
    for one, right in answers:
        if one is not kind:
            continue
        row = row + 1 if right else 0
        if not right:
            level = max(level - 1, 1)
        elif row == UP_AFTER:
            level, row = min(level + 1, LEVELS), 0
    return level


@dataclass(frozen=True, slots=True)
class _Set:
    """What a problem is set with."""

    kind: Kind
    level: int
    study: Study
    chance: Random
    tape: Tape

    @property
    def mark(self) -> float:
        """The steps in which lengths are given at this level: rounder ones first (mm)."""
        metric = {1: 20.0, 2: 10.0, 3: 5.0, 4: 1.0}
        inch = {1: inches(1), 2: inches(1 / 2), 3: inches(1 / 4), 4: inches(1 / 8)}
        return (metric if self.tape.unit is Unit.CM else inch)[self.level]

    def on_mark(self, length: float) -> float:
        """A length rounded to the steps of this level, and never to nothing."""
        return max(round(length / self.mark), 1) * self.mark

    def say(self, length: float) -> str:
        return format_length(length, self.tape)

    @property
    def waist(self) -> float:
        return self.on_mark(self.study.waist)

    @property
    def allowance(self) -> float:
        """A seam allowance as the asker's trade has it."""
        metric, inch = (10.0, 10.0, 15.0, 15.0), (1 / 2, 1 / 2, 5 / 8, 5 / 8)
        return metric[self.level - 1] if self.tape.unit is Unit.CM else inches(inch[self.level - 1])

    @property
    def sweep(self) -> float:
        return float(self.chance.choice(((360,), (360, 180), (360, 180, 270), (360, 180, 270, 90))[self.level - 1]))

    def made(
        self, says: str, asks: str, sum_name: str, inputs: Mapping[str, Any], value: str, slips: Sequence[Slip],
        counts: bool = False,
    ) -> Problem:  # fmt: skip
        """A problem whose answer is a value of a sum."""
        result = ask(SUMS[sum_name], dict(inputs), self.tape.unit).answer()
        answer = result.values[value]
        assert isinstance(answer, float | int)
        return self.stated(says, asks, float(answer), result.workings, slips, counts)

    def stated(
        self, says: str, asks: str, answer: float, workings: Sequence[Working], slips: Sequence[Slip],
        counts: bool = False,
    ) -> Problem:  # fmt: skip
        """A problem with its answer; slips that come to the answer by chance are none."""
        near = 0.5 if counts else 2 * TOLERANCE[self.tape.unit]
        kept = tuple(slip for slip in slips if slip.value > 0 and abs(slip.value - answer) > near)
        come = next((k for k, one in enumerate(workings) if abs(one.value - answer) < 1e-6), len(workings) - 1)
        return Problem(self.kind, self.level, says, asks, counts, answer, tuple(workings[: come + 1]), kept)


SWEEPS = {360.0: "full circle", 270.0: "three-quarter circle", 180.0: "half circle", 90.0: "quarter circle"}


def _radius(on: _Set) -> Problem:
    sweep, waist = on.sweep, on.waist
    angle = radians(sweep)
    return on.made(
        f"{on.study.title}: its waist seam measures {on.say(waist)}, and it is to have a {SWEEPS[sweep]}.",
        "What is the radius of its seam line?", "circle", {"seam": waist, "sweep": sweep, "length": 500.0},
        "seam_radius",
        [
            Slip(waist / (2 * pi), "That is the radius of a full circle; this one has less sweep."),
            Slip(2 * waist / angle, "That is the diameter; the radius is half of it."),
            Slip(waist / (angle * 3 / pi), "That is with π taken as 3; it is 3.1416."),
            Slip(waist / pi, "That is the seam ÷ π, the diameter of a full circle."),
            Slip(waist / 2 / angle, "That is with half the seam; the seam goes all round."),
        ],
    )  # fmt: skip


def _cut_radius(on: _Set) -> Problem:
    sweep, waist, allowance = on.sweep, on.waist, on.allowance
    radius = waist / radians(sweep)
    return on.made(
        f"{on.study.title}: a {SWEEPS[sweep]} on a waist seam of {on.say(waist)}, with an allowance of "
        f"{on.say(allowance)} at the waist.",
        "At what radius is the waist cut?", "circle",
        {"seam": waist, "sweep": sweep, "length": 500.0, "waist_allowance": allowance}, "cut_radius",
        [
            Slip(radius, "That is the seam line; the allowance lies inside it."),
            Slip(radius + allowance, "The allowance was added; inside a circle it is taken off."),
            Slip(radius - 2 * allowance, "The allowance was taken twice."),
            Slip((waist - allowance) / radians(sweep), "The allowance was taken off the seam, not off the radius."),
        ],
    )  # fmt: skip


def _zip_in_arc(on: _Set) -> Problem:
    sweep, waist = on.sweep, on.waist
    each = on.allowance + on.mark if on.level > 2 else on.allowance
    both = 2 * each
    angle = radians(sweep)
    return on.made(
        f"{on.study.title}: a {SWEEPS[sweep]} on a waist seam of {on.say(waist)}. The zip takes {on.say(each)} on each "
        "side of the back, and that is to be in the arc.",
        "What is the radius of its seam line?", "circle",
        {"seam": waist, "sweep": sweep, "length": 500.0, "arc_allowance": both}, "seam_radius",
        [
            Slip(waist / angle, "The zip's allowance is not in it: it is added to the seam before dividing."),
            Slip((waist + each) / angle, "Only one side's allowance is in it; the zip has two."),
            Slip((waist + 2 * both) / angle, "The allowance is in it twice."),
            Slip(waist / angle + each, "The allowance was added to the radius; it belongs to the seam."),
            Slip((waist - both) / angle, "The allowance was taken off; the seam is longer by it."),
        ],
    )  # fmt: skip


def _dart(on: _Set) -> Problem:
    bodice = on.on_mark(on.study.waist / 4)
    surplus = on.on_mark(on.chance.choice((20.0, 24.0, 30.0, 36.0)))
    darts = on.chance.choice(((1,), (2,), (2, 3), (2, 3))[on.level - 1])
    lower = bodice + surplus
    many = "one dart" if darts == 1 else f"{darts} darts"
    return on.made(
        f"{on.study.title}: a quarter of the skirt's waist measures {on.say(lower)}, a quarter of the bodice's "
        f"{on.say(bodice)}. What is over goes into {many} on that quarter.",
        "How much does one dart take?", "dart_share", {"lower": lower, "bodice": bodice, "darts": darts}, "intake",
        [
            Slip(surplus, "That is all that is over; it is shared between the darts."),
            Slip(surplus / darts / 2, "That is half a dart: what lies on one side of its middle."),
            Slip((lower + bodice) / darts, "The two were added; what is over is their difference."),
            Slip(surplus / 4, "That was shared by the quarters; it is one quarter already."),
        ],
    )  # fmt: skip


def _gathers(on: _Set) -> Problem:
    fullness = on.chance.choice(((2.0,), (2.0, 3.0), (1.5, 2.5), (1.75, 2.25, 2.75))[on.level - 1])
    width = on.chance.choice((inches(44), inches(54), inches(60)) if on.tape.unit is Unit.INCH else (1100.0, 1400.0))
    join, waist = on.allowance, on.waist
    plain_width = waist * fullness
    return on.made(
        f"{on.study.title}: a skirt gathered {plain(fullness, 2)} times as full on a waist seam of {on.say(waist)}, of "
        f"a cloth with {on.say(width)} to use; {on.say(join)} at each join.",
        "How many widths of the cloth are cut?", "gather",
        {"seam": waist, "fullness": fullness, "cloth_width": width, "join_allowance": join}, "panels",
        [
            Slip(int(plain_width / width), "That is rounded down: it would not be as full."),
            Slip(ceil(waist * (fullness + 1) / width), "The fullness was added to the seam; it is times the seam."),
            Slip(ceil(waist / width), "That is without any fullness."),
            Slip(ceil(plain_width / width) + 1, "One more than is needed."),
        ],
        counts=True,
    )  # fmt: skip


def _length(on: _Set) -> Problem:
    front = on.on_mark(on.chance.uniform(400.0, 460.0))
    back = on.on_mark(front - on.chance.choice((20.0, 25.0, 40.0)))
    full = front + on.on_mark(on.chance.uniform(520.0, 900.0))
    join, hem = on.allowance, on.allowance + on.mark
    inputs: dict[str, Any] = {"full_length": full, "waist_length": front, "join_allowance": join, "hem_allowance": hem}
    right = full - front + join + hem
    return on.made(
        f"{on.study.title}: from the shoulder over the bust to the hem it is to be {on.say(full)}. From there to the "
        f"waist she measures {on.say(front)} in front and {on.say(back)} behind. {on.say(join)} is turned in at the "
        f"waist, {on.say(hem)} at the hem.",
        "How long is the skirt's front cut?", "skirt_length", inputs, "cut_length",
        [
            Slip(full - front, "That is finished: the allowances at waist and hem come to it."),
            Slip(full - back + join + hem, "That is with the back's waist length; over the bust it is longer."),
            Slip(right + join + hem, "The allowances are in it twice."),
            Slip(full - front - join - hem, "The allowances were taken off; they are added."),
            Slip(right - join, "The allowance at the waist is not in it."),
            Slip(right - hem, "The hem is not in it."),
        ],
    )  # fmt: skip


def _open_seam(on: _Set) -> Problem:
    sweep, waist, allowance = on.sweep, on.waist, on.allowance
    angle = radians(sweep)
    over = angle * allowance
    result = ask(
        SUMS["circle"],
        {"seam": waist, "sweep": sweep, "length": 500.0, "waist_allowance": allowance, "rule": "cut_edge"},
        on.tape.unit,
    ).answer()
    return on.stated(
        f"{on.study.title}: a {SWEEPS[sweep]} was cut with {on.say(waist)} along its cut edge, and is stitched "
        f"{on.say(allowance)} inside it on to a bodice of {on.say(waist)}. The seam does not meet.",
        "By how much is the skirt too long at the stitching line?", over, result.workings,
        [
            Slip(allowance, "That is the allowance itself; the line moves out by it, and grows by the angle times it."),
            Slip(2 * allowance, "That is the allowance at both ends; on an arc the whole line grows."),
            Slip(2 * over, "The allowance is in it twice."),
            Slip(2 * pi * allowance, "That is for a full circle; this one has less sweep."),
            Slip(pi * allowance, "That is π times the allowance, as if it were the diameter that grew by it."),
        ],
    )  # fmt: skip


MAKERS: Mapping[Kind, Callable[[_Set], Problem]] = {
    Kind.RADIUS: _radius, Kind.CUT_RADIUS: _cut_radius, Kind.ZIP_IN_ARC: _zip_in_arc, Kind.DART: _dart,
    Kind.GATHERS: _gathers, Kind.LENGTH: _length, Kind.OPEN_SEAM: _open_seam,
}  # fmt: skip
