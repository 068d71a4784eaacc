"""Measuring: the tape's order, two readings, sets compared, and what is asked about (trade 3)."""

import pytest
from pytest import approx

from gentle_hem.core.agreement import agreement
from gentle_hem.core.figure import MEASURES, READINGS_AGREE, Figure
from gentle_hem.core.measuring import ORDER, TABS, compare_sets, jumps
from gentle_hem.core.population import against_the_population, rare_ratios
from gentle_hem.core.units import Unit
from gentle_hem.devices.person import TAPE_PERSON


def figure(day="2026-05-01", second=None, **measures):
    return Figure(taken_on=day, measures=measures, second=second or {})


def test_every_measure_is_taken_once_and_says_how():
    assert sorted(ORDER) == sorted(MEASURES)
    assert len(ORDER) == len(set(ORDER))
    for takings in TABS.values():
        for taking in takings:
            assert taking.how.endswith((".", "?"))
            assert taking.label == MEASURES[taking.key]


@pytest.mark.parametrize(
    ("first", "second", "used"),
    [(700, 706, 703), (700, 700 + READINGS_AGREE, 705), (700, 725, 700), (700, None, 700), (None, 690, 690)],
)
def test_two_readings_that_agree_are_averaged(first, second, used):
    one = Figure(
        measures={} if first is None else {"waist_girth": first},
        second={} if second is None else {"waist_girth": second},
    )
    assert one.get("waist_girth") == approx(used)


def test_readings_more_than_a_centimetre_apart_want_a_third():
    told = [f for f in agreement(figure(waist_girth=700, second={"waist_girth": 718})) if f.code == "readings-apart"]
    assert (
        told[0].text(Unit.CM) == "Two readings of the waist girth are 1.8 cm apart, 70.0 cm and 71.8 cm; take a third."
    )


def test_sets_are_compared_measure_by_measure():
    before, now = figure(waist_girth=700, hip_girth=980), figure("2026-05-20", waist_girth=712, bust_girth=900)
    rows = {row.key: row for row in compare_sets(before, now)}
    assert list(rows) == ["bust_girth", "waist_girth", "hip_girth"], "in the tape's order"
    assert rows["waist_girth"].difference == approx(12)
    assert rows["hip_girth"].difference is None
    assert rows["bust_girth"].before is None


@pytest.mark.parametrize(
    ("day", "waist", "asked"),
    [
        ("2026-06-01", 745, True),
        ("2026-06-01", 735, False),
        ("2026-09-01", 745, False),
        ("2026-04-10", 655, True),
        ("", 745, False),
    ],
)
def test_a_girth_that_jumps_within_two_months_is_questioned(day, waist, asked):
    """Common practice: more than 4 cm from the same person's last set within 60 days."""
    found = jumps(figure(waist_girth=700), figure(day, waist_girth=waist))
    assert bool(found) is asked


def test_lengths_do_not_jump():
    assert jumps(figure(front_waist_length=430), figure(front_waist_length=480)) == []


def test_the_odd_measure_among_many_is_the_one_named():
    body = {
        key: TAPE_PERSON[key]
        for key in ("waist_girth", "hip_girth", "thigh_girth", "knee_girth", "calf_girth", "height")
    }
    wrong = Figure(measures={**body, "knee_girth": body["knee_girth"] / 2.54})
    [found] = against_the_population(wrong)
    assert found.at[0].recipe == "figure.measures.knee_girth"
    assert "260 active women" in found.text(Unit.CM)


def test_a_usual_woman_is_asked_nothing():
    assert list(rare_ratios(Figure(measures=dict(TAPE_PERSON)))) == []
    assert against_the_population(Figure(measures=dict(TAPE_PERSON))) == []


def test_with_two_measures_a_rare_pair_is_asked_about():
    assert against_the_population(figure(waist_girth=980, hip_girth=950))
    assert against_the_population(figure(waist_girth=740, hip_girth=980)) == []


@pytest.mark.parametrize(
    ("measures", "code"),
    [
        ({"bust_girth": 900, "under_bust_girth": 880}, "under-bust-and-bust"),
        ({"bust_girth": 900, "upper_bust_girth": 700}, "upper-bust-and-bust"),
        ({"waist_girth": 1000, "hip_girth": 980}, "waist-not-below-hip"),
        ({"waist_girth": 950, "bust_girth": 940}, "waist-not-below-bust"),
        ({"bust_girth": 900, "bust_span": 260}, "bust-span-and-bust"),
        ({"front_waist_length": 410, "back_waist_length": 420}, "front-not-longer-than-back"),
        ({"front_waist_length": 520, "back_waist_length": 420}, "front-much-longer-than-back"),
        ({"shoulder_to_bust_point": 360, "shoulder_to_under_bust": 340}, "levels-out-of-order"),
        ({"waist_to_hip": 320}, "waist-to-hip-unusual"),
        ({"waist_to_hip": 200, "crotch_depth": 290}, "crotch-and-hip-levels"),
        ({"waist_to_knee": 700, "waist_to_floor": 1000}, "knee-level"),
        ({"waist_girth": 290}, "measure-in-other-unit"),
    ],
)
def test_every_rule_of_agreement_fires_with_the_numbers_in_it(measures, code):
    """Trade 3.3, common practice."""
    found = next(f for f in agreement(Figure(measures=measures)) if f.code == code)
    for unit in Unit:
        assert any(character.isdigit() for character in found.text(unit))
    assert found.at
