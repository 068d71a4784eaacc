"""Numbers that remember their arithmetic."""

from math import pi, radians

import pytest
from pytest import approx

from gentle_hem.core.units import Unit, inches
from gentle_hem.core.workings import (
    Angle,
    Count,
    Kind,
    Percent,
    Ratio,
    Worked,
    Workings,
    field_names,
    kind_of,
    speak,
    speak_exactly,
)


@pytest.fixture
def notes():
    return Workings("skirt")


def test_a_worked_number_is_a_number(notes):
    radius = notes.work("seam radius", 100.0, "{seam} ÷ {sweep}", seam=628.3, sweep=Ratio(2 * pi))
    assert isinstance(radius, float)
    assert radius + 1 == 101
    assert max(radius, 50.0) is radius
    assert f"{radius:.1f}" == "100.0"


def test_formula_in_words_and_line_in_numbers(notes):
    radius = notes.work("cut radius", inches(4.9113), "{seam_radius} − {waist_allowance}",
                        seam_radius=inches(5.4113), waist_allowance=inches(0.5))  # fmt: skip
    assert radius.working.formula == "seam radius − waist allowance"
    assert radius.working.line(Unit.INCH) == "5.411 in − 1/2 in = 4.911, on the tape 4 7/8 in"
    assert radius.working.line(Unit.CM) == "13.745 cm − 1.27 cm = 12.475, on the tape 12.5 cm"


def test_a_line_may_look_different_from_its_formula(notes):
    worked = notes.work("r", inches(2), "seam ÷ (2π × sweep/360)", "{seam} ÷ {theta}",
                        seam=inches(4 * pi), theta=Ratio(2 * pi))  # fmt: skip
    assert worked.working.formula == "seam ÷ (2π × sweep/360)"
    assert worked.working.line(Unit.INCH) == "12.566 in ÷ 6.2832 = 2 in"


def test_an_input_leads_back_to_its_own_working(notes):
    first = notes.work("finished length", 698.5, "{full} − {waist}", full=1092.2, waist=393.7)
    second = notes.work("cut length", first + 38.1, "{finished_length} + {allowances}",
                        finished_length=first, allowances=38.1)  # fmt: skip
    source = second.working.inputs["finished_length"]
    assert isinstance(source, Worked)
    assert source.working is first.working
    assert not isinstance(second.working.inputs["allowances"], Worked)


def test_topics_share_one_margin(notes):
    about_bodice = notes.about("bodice")
    about_bodice.work("waist", 700.0, "{waist}", waist=700.0)
    notes.work("length", 600.0, "{length}", length=600.0)
    assert [(w.topic, w.label) for w in notes] == [("bodice", "waist"), ("skirt", "length")]


def test_a_number_taken_as_it_is_has_no_equals_sign(notes):
    taken = notes.work("armhole depth", 212.0, "{upper_bust_level}", upper_bust_level=212.0)
    assert taken.working.line(Unit.CM) == "21.2 cm"


@pytest.mark.parametrize(
    ("number", "kind", "said", "exactly"),
    [
        (inches(5.4113), Kind.LENGTH, "5 3/8 in", "5.4113 in"),
        (Ratio(2 * pi), Kind.RATIO, "6.28", "6.2832"),
        (Ratio(2.5), Kind.RATIO, "2.5", "2.5"),
        (Angle(radians(83.14159)), Kind.ANGLE, "83.1°", "83.1416°"),
        (Percent(2.25), Kind.PERCENT, "2.2 %", "2.25 %"),
        (Count(3), Kind.COUNT, "3", "3"),
        (3, Kind.COUNT, "3", "3"),
        (0.0, Kind.LENGTH, "0 in", "0 in"),
        (-inches(0.5), Kind.LENGTH, "-1/2 in", "-0.5 in"),
    ],
)
def test_each_kind_of_number_is_spoken_its_own_way(number, kind, said, exactly):
    assert kind_of(number) is kind
    assert speak(number, Unit.INCH) == said
    assert speak_exactly(number, Unit.INCH) == exactly


def test_a_result_may_be_of_another_kind_than_its_float(notes):
    sweep = notes.work(
        "least sweep", 1.4, "({hip} − {seam}) ÷ {drop}", kind=Kind.ANGLE, hip=960.0, seam=680.0, drop=200.0
    )
    assert sweep.working.line(Unit.CM) == "(96 cm − 68 cm) ÷ 20 cm = 80.2141°"
    assert speak(sweep, Unit.CM) == "80.2°"


def test_field_names_in_order():
    assert field_names("{a} + {b} × ({a} − 2)") == ["a", "b", "a"]


def test_workings_hold_the_value_unrounded(notes):
    third = notes.work("third", 100 / 3, "{whole} ÷ 3", whole=100.0)
    assert third.working.value == approx(33.333333333333336, abs=0)
