"""The practice bench: right answers by arithmetic of the test's own, slips told apart, levels that follow."""

from math import ceil, pi

import pytest
from hypothesis import given
from hypothesis import strategies as st

from gentle_hem.core.practice import (
    LEVELS,
    MAKERS,
    Kind,
    NotAnAnswer,
    Problem,
    Slip,
    Study,
    judged,
    level_of,
    next_kind,
    problem,
)
from gentle_hem.core.units import Tape, Unit, format_length, inches

STUDIES = (Study("Sail dress", 721.0), Study("Net dress", 868.4))
CM, INCH = Tape(Unit.CM), Tape(Unit.INCH)
ALL = st.tuples(st.sampled_from(Kind), st.integers(1, LEVELS), st.integers(0, 10_000), st.sampled_from([CM, INCH]))


@given(ALL)
def test_the_right_answer_as_the_tape_reads_it_is_right_and_every_slip_is_wrong(asked):
    kind, level, number, tape = asked
    made = problem(kind, level, number, STUDIES, tape)
    said = f"{made.answer:.0f}" if made.counts else format_length(made.answer, tape)
    assert judged(made, said, tape).right
    for slip in made.slips:
        typed = f"{slip.value:.0f}" if made.counts else f"{slip.value} mm"
        found = judged(made, typed, tape)
        assert not found.right
        assert found.slip in {one.what for one in made.slips}
    assert made.workings[-1].value == pytest.approx(made.answer)


@given(ALL)
def test_the_same_number_asks_the_same_again(asked):
    kind, level, number, tape = asked
    assert problem(kind, level, number, STUDIES, tape) == problem(kind, level, number, STUDIES, tape)


def by_hand(kind, waist, **numbers):
    """The answers once more, by the handbook's formulas and plain arithmetic (all in cm)."""
    turn = numbers.get("sweep", 360) * pi / 180
    allowance = numbers.get("allowance", 0)
    return {
        Kind.RADIUS: waist / turn,
        Kind.CUT_RADIUS: waist / turn - allowance,
        Kind.ZIP_IN_ARC: (waist + 2 * allowance) / turn,
        Kind.OPEN_SEAM: turn * allowance,
    }[kind]


NUMBERS = {360: "full circle", 270: "three-quarter circle", 180: "half circle", 90: "quarter circle"}


@pytest.mark.parametrize("kind", [Kind.RADIUS, Kind.CUT_RADIUS, Kind.ZIP_IN_ARC, Kind.OPEN_SEAM])
@pytest.mark.parametrize("number", range(12))
def test_circles_by_hand(kind, number):
    """What the problem says is read back from its words, and reckoned by the test (geometry)."""
    made = problem(kind, 1 + number % LEVELS, number, STUDIES, CM)
    words = made.says.replace(",", " ").replace(".  ", " ").split()
    lengths = [float(words[k]) for k, word in enumerate(words[1:]) if word.rstrip(".;") == "cm"]
    sweep = next(sweep for sweep, name in NUMBERS.items() if f" {name}" in made.says)
    waist, *rest = lengths
    assert made.answer / 10 == pytest.approx(by_hand(kind, waist, sweep=sweep, allowance=rest[0] if rest else 0))


@pytest.mark.parametrize("number", range(12))
def test_lengths_darts_and_gathers_by_hand(number):
    level = 1 + number % LEVELS

    def numbers(kind):
        made = problem(kind, level, number, STUDIES, CM)
        words = made.says.replace(",", " ").split()
        return made, [float(words[k]) for k, word in enumerate(words[1:]) if word.rstrip(".;") == "cm"]

    made, (full, front, _, join, hem) = numbers(Kind.LENGTH)
    assert made.answer / 10 == pytest.approx(full - front + join + hem)
    slips = {slip.what: slip.value / 10 for slip in made.slips}
    assert slips["The allowances are in it twice."] == pytest.approx(full - front + 2 * (join + hem))
    assert slips["The hem is not in it."] == pytest.approx(full - front + join)
    made, (lower, bodice) = numbers(Kind.DART)
    darts = next(count for count, word in ((1, "one dart"), (2, "2 darts"), (3, "3 darts")) if word in made.says)
    assert made.answer / 10 == pytest.approx((lower - bodice) / darts)
    made, (waist, width, join) = numbers(Kind.GATHERS)
    fullness = float(made.says.split("gathered ")[1].split()[0])
    assert made.answer == ceil(waist * fullness / (width - 2 * join) - 1e-9)


@pytest.mark.parametrize(
    ("typed", "slip"),
    [
        ("25.5", "That is the diameter; the radius is half of it."),
        ("13.3", "That is with π taken as 3; it is 3.1416."),
        ("5", "It is the right number in inches."),
        ("77", ""),
    ],
)
def test_the_slip_that_was_made_is_named(typed, slip):
    """Full circle on 80 cm: 12.73 cm; the diameter 25.46; with π = 3 it is 13.33; in inches 5.01."""
    for number in range(400):
        made = problem(Kind.RADIUS, 1, number, (Study("Sail dress", 800.0),), CM)
        if "full circle" in made.says:
            break
    assert made.answer == pytest.approx(800 / (2 * pi))
    assert judged(made, typed, CM) == type(judged(made, typed, CM))(False, slip)


def test_front_and_back_mixed_is_told():
    """Full length 106, front 44, back 42, 1 and 2 turned in: 65 by the front, 67 by the back."""
    made = problem(Kind.LENGTH, 1, 3, STUDIES, CM)
    back = next(slip for slip in made.slips if "back's waist length" in slip.what)
    assert back.value > made.answer
    assert judged(made, f"{back.value / 10}", CM).slip == back.what


@pytest.mark.parametrize("typed", ["", "wide", "12,,3", "1/0"])
def test_what_is_no_length_is_said_and_is_no_wrong_answer(typed):
    with pytest.raises(NotAnAnswer):
        judged(problem(Kind.RADIUS, 1, 1, STUDIES, CM), typed, CM)


@pytest.mark.parametrize("typed", ["2.5", "-1", "two", "2 cm"])
def test_how_many_is_a_whole_number(typed):
    with pytest.raises(NotAnAnswer, match="whole number"):
        judged(problem(Kind.GATHERS, 1, 1, STUDIES, CM), typed, CM)


def test_an_answer_within_the_tape_is_right_and_beyond_it_is_not():
    made = Problem(Kind.RADIUS, 1, "", "", False, 100.0, (), (Slip(200.0, "twice"),))
    assert judged(made, "10.09", CM).right
    assert not judged(made, "10.12", CM).right
    assert judged(made, "4", INCH).right is False
    assert judged(made, "3 15/16", INCH).right
    assert abs(inches(3 + 15 / 16) - 100) < inches(1 / 16)


def test_levels_follow_the_answers():
    right, wrong = (Kind.DART, True), (Kind.DART, False)
    assert level_of(Kind.DART, []) == 1
    assert level_of(Kind.DART, [right]) == 1
    assert level_of(Kind.DART, [right, right]) == 2
    assert level_of(Kind.DART, [right, right, right, right]) == 3
    assert level_of(Kind.DART, [right, right, wrong]) == 1
    assert level_of(Kind.DART, [right, wrong, right, right]) == 2
    assert level_of(Kind.DART, [right] * 40) == LEVELS
    assert level_of(Kind.DART, [wrong] * 40) == 1
    assert level_of(Kind.RADIUS, [right] * 40) == 1, "each kind has its own"


@given(st.lists(st.tuples(st.sampled_from(Kind), st.booleans()), max_size=60))
def test_every_kind_comes_and_none_twice_in_a_row(answers):
    said = list(answers)
    for _ in range(3 * len(Kind)):
        kind = next_kind(said)
        assert not said or said[-1][0] is not kind
        said.append((kind, True))
    assert {kind for kind, _ in said[len(answers) :]} | {kind for kind, _ in answers} == set(Kind)


def test_what_went_wrong_comes_again_first():
    answers = [(kind, kind is not Kind.GATHERS) for kind in Kind]
    assert next_kind([*answers, (Kind.RADIUS, True)]) is Kind.GATHERS


def test_every_kind_has_its_maker():
    assert set(MAKERS) == set(Kind)
