"""Measures that do not look like one person's (trade 3.3, common practice)."""

import pytest

from gentle_hem.core.agreement import agreement
from gentle_hem.core.figure import Figure
from gentle_hem.core.units import Unit, inches

GOOD = {
    "bust_girth": 920, "under_bust_girth": 780, "upper_bust_girth": 890, "waist_girth": 740, "hip_girth": 990,
    "bust_span": 184, "front_waist_length": 440, "back_waist_length": 412, "shoulder_to_bust_point": 265,
    "shoulder_to_under_bust": 330, "waist_to_hip": 205, "crotch_depth": 235, "waist_to_knee": 580,
    "waist_to_floor": 1020,
}  # fmt: skip


def codes(**changes):
    return {f.code for f in agreement(Figure(measures={**GOOD, **changes}))}


def test_a_figure_that_agrees_with_itself_says_nothing():
    assert codes() == set()
    assert agreement(Figure()) == []


@pytest.mark.parametrize(
    ("changes", "code"),
    [
        ({"under_bust_girth": 900}, "under-bust-and-bust"),
        ({"upper_bust_girth": 960}, "upper-bust-and-bust"),
        ({"waist_girth": 1000}, "waist-not-below-hip"),
        ({"waist_girth": 930}, "waist-not-below-bust"),
        ({"front_waist_length": 412, "back_waist_length": 440}, "front-not-longer-than-back"),
        ({"front_waist_length": 500}, "front-much-longer-than-back"),
        ({"bust_span": 260}, "bust-span-and-bust"),
        ({"shoulder_to_bust_point": 350}, "levels-out-of-order"),
        ({"waist_to_hip": 300}, "waist-to-hip-unusual"),
        ({"crotch_depth": 200}, "crotch-and-hip-levels"),
        ({"waist_to_knee": 700}, "knee-level"),
        ({"bust_girth": 253.4}, "measure-in-other-unit"),
    ],
)
def test_each_rule_of_thumb_has_its_finding(changes, code):
    assert code in codes(**changes)


def test_a_bust_of_36_typed_as_centimetres_is_asked_about():
    [finding] = [f for f in agreement(Figure(measures={"waist_girth": 280})) if f.code == "measure-in-other-unit"]
    assert "28.0 cm looks like the other unit; was 71.1 cm meant?" in finding.text(Unit.CM)


def test_a_metric_number_typed_as_inches_is_asked_about():
    [finding] = [f for f in agreement(Figure(measures={"bust_girth": inches(92)})) if f.code == "measure-in-other-unit"]
    assert "was 36 1/4 in meant?" in finding.text(Unit.INCH)
