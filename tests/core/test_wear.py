"""Can it be worn? Getting in, sitting, walking, the floor (trade 10)."""

import pytest
from pytest import approx

from conftest import BODICE, FIGURE
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed
from gentle_hem.core.units import Unit


def made(lower, measures=None, **rest):
    recipe = Recipe.model_validate(
        {"figure": {"measures": {**FIGURE, **(measures or {})}}, "bodice": {"kind": "quarters"}, "lower": lower, **rest}
    )
    return recipe, make_up(recipe)


def found(garment, code):
    return next((f for f in garment.findings if f.code == code), None)


@pytest.mark.parametrize("bodice", [{"kind": "quarters"}, BODICE])
def test_a_dress_without_an_opening_whose_waist_does_not_pass_the_bust(bodice):
    recipe, garment = made({"kind": "circle"}, bodice=bodice, opening={"place": "none"})
    finding = found(garment, "cannot-be-got-into")
    assert finding.severity is Severity.STOP
    assert len(finding.remedies) == 3, "three ways out"
    for remedy in finding.remedies:
        assert found(make_up(changed(recipe, dict(remedy.changes))), "cannot-be-got-into") is None, remedy.code


def test_a_wide_waist_goes_over_the_head():
    _, garment = made({"kind": "gathered"}, opening={"place": "none"},
                      bodice={"kind": "quarters", "waist_ease": 300}, measures={"waist_girth": 900})  # fmt: skip
    assert found(garment, "cannot-be-got-into") is None


def test_a_small_neckline_does_not_pass_the_head():
    recipe, garment = made({"kind": "circle"}, {"head_girth": 580}, opening={"place": "side"})
    finding = found(garment, "neck-does-not-pass-head")
    assert {r.code for r in finding.remedies} == {"zip-back", "keyhole", "deeper-neck"}
    for remedy in finding.remedies:
        again = make_up(changed(recipe, dict(remedy.changes)))
        assert found(again, "neck-does-not-pass-head") is None, remedy.code


def test_the_trunk_check_fires_on_a_figure_too_long_and_is_silent_once_mended():
    recipe, garment = made({"kind": "trousers"}, {"trunk_girth": 1500})
    assert found(garment, "trunk-too-short") is None
    pattern = next(w.value for w in garment.workings if w.label == "trunk of the pattern")
    longer = changed(recipe, {"figure.measures.trunk_girth": pattern - 20 + 80})
    finding = found(make_up(longer), "trunk-too-short")
    assert finding.severity is Severity.STOP
    assert "cannot be sat down in" in finding.text(Unit.CM)
    mended = make_up(changed(longer, dict(finding.remedies[0].changes)))
    assert found(mended, "trunk-too-short") is None
    grown = next(w.value for w in mended.workings if w.label == "trunk of the pattern") - pattern
    assert grown == approx(82, abs=8)


def test_a_narrow_gown_wants_a_slit_or_vent_and_each_lets_the_step_through():
    recipe, garment = made({"kind": "gown", "length": 950, "hem_in": 30}, {"waist_to_floor": 1030, "height": 1680})
    finding = found(garment, "hem-too-narrow-to-walk")
    assert "(an estimate)" in finding.text(Unit.CM)
    assert {"slit", "slits"} <= {r.code for r in finding.remedies}
    for remedy in finding.remedies:
        again = make_up(changed(recipe, dict(remedy.changes)))
        assert found(again, "hem-too-narrow-to-walk") is None, remedy.code


def test_a_short_or_wide_skirt_lets_a_step_through():
    for lower in ({"kind": "straight", "length": 380}, {"kind": "circle", "length": 900}):
        assert found(made(lower, {"waist_to_floor": 1030})[1], "hem-too-narrow-to-walk") is None


@pytest.mark.parametrize(
    ("length", "heel", "touches"), [(1030, 0, True), (1030, 40, False), (1015, 0, False), (1065, 40, True)]
)
def test_the_hem_clears_the_floor_with_the_shoes_on(length, heel, touches):
    """Trade 10: 1 to 2.5 cm with the shoes on."""
    measures = {"waist_to_floor": 1030, **({"heel_height": heel} if heel else {})}
    _, garment = made({"kind": "circle", "length": length}, measures)
    assert (found(garment, "hem-on-the-floor") is not None) is touches


def test_a_long_full_circle_wants_a_stay():
    assert found(made({"kind": "circle", "length": 1000})[1], "stay-the-waist")
    assert found(made({"kind": "circle", "length": 500})[1], "stay-the-waist") is None
