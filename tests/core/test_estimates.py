"""Estimates for what was not measured: by a named rule, marked, and only where needed (trade 3.4)."""

import itertools

import pytest
from pytest import approx

from gentle_hem.core.estimates import RULES, SIZE_TABLE, USUAL_BUST, Measures, from_size
from gentle_hem.core.figure import MEASURES, Figure
from gentle_hem.core.findings import Severity
from gentle_hem.core.units import Unit, inches
from gentle_hem.core.workings import Workings


def measures(**taken):
    return Measures(Figure(measures=taken), Workings())


@pytest.mark.parametrize(
    ("key", "taken", "estimate"),
    [
        ("waist_girth", {"bust_girth": 920}, 760),
        ("hip_girth", {"bust_girth": 920}, 1000),
        ("back_waist_length", {"front_waist_length": 440}, 415),
        ("front_waist_length", {}, 430),
        ("bust_span", {"bust_girth": 900}, 180),
        ("shoulder_to_bust_point", {"front_waist_length": 450}, 270),
        ("waist_to_hip", {}, inches(8)),
        ("crotch_depth", {}, inches(11)),
        ("waist_to_floor", {}, 1020),
        ("across_back", {"shoulder_width": 400}, 372),
    ],
)
def test_each_rule(key, taken, estimate):
    book = measures(**taken)
    assert book.take(key) == approx(estimate)
    [finding] = book.findings
    assert finding.severity is Severity.NOTE
    assert finding.text(Unit.CM).endswith("is estimated, confirm at fitting.")
    [working] = book.notes
    assert working.rule
    assert working.value == approx(estimate)
    assert working.line(Unit.CM).endswith(" cm"), "a length, spoken as one"


def test_a_measure_that_was_taken_is_used_and_says_nothing():
    book = measures(bust_girth=905, bust_span=199)
    assert book.take("bust_span") == 199
    assert book.findings == []
    assert list(book.notes) == []


def test_estimates_rest_on_estimates_and_say_so_once():
    book = measures(bust_girth=1000)
    assert book.take("shoulder_length") == approx(1000 * 0.41 * 0.32)
    assert book.take("shoulder_length") == approx(1000 * 0.41 * 0.32)
    assert [w.label for w in book.notes] == ["shoulder width (estimated)", "shoulder length (estimated)"]
    assert len(book.findings) == 2


def test_no_bust_is_a_stop_with_something_drawn_meanwhile():
    book = measures()
    assert book.take("bust_girth") == USUAL_BUST
    assert [f.code for f in book.findings] == ["bust-not-measured"]


def test_every_rule_starts_from_a_measure_and_ends_in_one():
    for key, rules in RULES.items():
        assert key in MEASURES
        for rule in rules.values():
            assert rule.start is None or rule.start in RULES or rule.start == "bust_girth"
            assert rule.rule


def test_the_maker_chooses_the_rule():
    figure = Figure(measures={"bust_girth": 1000}, rules={"bust_span": "wide"})
    book = Measures(figure, Workings())
    assert book.take("bust_span") == approx(1000 / 4.3)
    [said] = book.findings
    assert {remedy.changes["figure.rules.bust_span"] for remedy in said.remedies} == {"fifth", "close"}


@pytest.mark.parametrize("back", ["from_front", "full_bust", "usual"])
def test_rules_that_lean_on_each_other_come_to_rest(back):
    """Front from back and back from front: neither was measured, so one falls back on its usual length."""
    figure = Figure(measures={"bust_girth": 1000}, rules={"front_waist_length": "from_back", "back_waist_length": back})
    book = Measures(figure, Workings())
    assert book.take("front_waist_length") == approx(book.take("back_waist_length") + 25)


def test_starting_from_a_size():
    """EN 13402-3, from memory."""
    assert from_size(893) == {"bust_girth": 880, "waist_girth": 720, "hip_girth": 960}


def test_size_table_steps():
    """EN 13402-3, from memory: bust steps of 4 cm to 104, then 6 cm; the waist and hip grow along."""
    busts = [bust for bust, _, _ in SIZE_TABLE]
    assert busts == [760, 800, 840, 880, 920, 960, 1000, 1040, 1100, 1160, 1220, 1280]
    for before, after in itertools.pairwise(SIZE_TABLE):
        assert all(b < a for b, a in zip(before, after, strict=True))
    assert all(waist < bust < hip for bust, waist, hip in SIZE_TABLE)


@pytest.mark.parametrize(
    ("value", "part"), [(0, "more than nothing"), (-5, "more than nothing"), ("900 cm", "four metres")]
)
def test_a_measure_no_body_has_is_refused(value, part):
    with pytest.raises(ValueError, match=part):
        Figure(measures={"waist_girth": value})


def test_a_measure_nobody_takes_is_refused():
    with pytest.raises(ValueError, match="tail_length"):
        Figure(measures={"tail_length": 300})
