"""Recipe in, garment out: pure, complete, and ready or not."""

import json

import pytest
from pytest import approx

from conftest import a_recipe
from gentle_hem.core.findings import Severity, note, stop, warn
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed
from gentle_hem.core.start import bodice_choices, new_recipe
from gentle_hem.core.units import Unit, inches
from gentle_hem.demo.studio import recipe_of, works


def test_the_same_recipe_makes_the_same_garment(recipe):
    one, other = make_up(recipe), make_up(Recipe.model_validate_json(recipe.model_dump_json()))
    assert one.pieces == other.pieces
    assert one.findings == other.findings
    assert [(w.label, w.value) for w in one.workings] == [(w.label, w.value) for w in other.workings]


def test_a_garment_knows_its_pieces_by_name(recipe):
    garment = make_up(recipe)
    assert garment.piece("skirt back").cut == 2
    with pytest.raises(KeyError, match="no piece called sleeve"):
        garment.piece("sleeve")


def test_ready_to_cut_means_nothing_is_stopped(recipe):
    assert make_up(recipe).is_ready_to_cut
    assert not make_up(changed(recipe, {"lower.seam": 800.0})).is_ready_to_cut
    assert make_up(changed(recipe, {"lower.hem": 30.0})).is_ready_to_cut, "a warning does not stop"


def test_the_unit_changes_no_number(recipe):
    metric, imperial = make_up(recipe), make_up(changed(recipe, {"unit": "in"}))
    assert metric.pieces == imperial.pieces


@pytest.mark.parametrize(("player", "work"), works(), ids=lambda one: getattr(one, "title", ""))
def test_every_demo_commission_makes_up_and_only_the_harbour_dress_is_stopped(player, work):
    garment = make_up(recipe_of(player, work))
    stops = [f.code for f in garment.findings if f.severity is Severity.STOP]
    assert stops == (["waist-does-not-meet"] if work.title == "Harbour dance dress" else [])
    for finding in garment.findings:
        for unit in Unit:
            assert finding.text(unit).rstrip().endswith(".")
            for remedy in finding.remedies:
                assert remedy.text(unit)
                assert "{" not in remedy.text(unit) + remedy.cost(unit)


@pytest.mark.parametrize(("player", "work"), works(), ids=lambda one: getattr(one, "title", ""))
def test_every_remedy_offered_anywhere_is_a_valid_change(player, work):
    recipe = recipe_of(player, work)
    for finding in make_up(recipe).findings:
        for remedy in finding.remedies:
            make_up(changed(recipe, json.loads(json.dumps(dict(remedy.changes)))))


@pytest.mark.parametrize("unit", list(Unit))
def test_a_new_commission_begins_with_what_is_known(unit):
    from gentle_hem.core.figure import Figure

    recipe = new_recipe("Sundress", Figure(name="Somebody", measures={"waist_girth": 700}), unit)
    garment = make_up(recipe)
    assert recipe.figure.measures == {"waist_girth": 700}
    assert garment.pieces == ()
    assert garment.joins == (), "nothing says that a waist meets before there is one"
    [no_bodice] = [f for f in garment.findings if f.severity is Severity.STOP]
    assert no_bodice.code == "no-bodice-yet"
    assert recipe.allowances.waist == (10 if unit is Unit.CM else inches(0.5))
    assert [kind for kind, _ in bodice_choices(recipe, garment)] == [
        "measured", "quarters", "quarters_cm", "two_lengths", "proportional", "body_length", "bib", "none",
    ]  # fmt: skip


def test_findings_are_said_in_the_asked_unit():
    told = [
        stop("a", "It is {gap} short.", gap=25.4),
        warn("b", "It is {gap} long.", gap=12.7),
        note("c", "Hang it for {days}.", days="two days"),
    ]
    assert [f.text(Unit.INCH) for f in told] == ["It is 1 in short.", "It is 1/2 in long.", "Hang it for two days."]
    assert told[0].text(Unit.CM) == "It is 2.5 cm short."
    assert [f.severity for f in told] == [Severity.STOP, Severity.WARN, Severity.NOTE]


def test_ease_meant_for_the_whole_waist_is_taken_half_in_each_half():
    [join] = make_up(a_recipe(lower={"seam": 746}, join={"ease": 6})).joins
    assert join.ease == 3
    assert join.open_difference == approx(0, abs=1e-6)
    assert 2 * join.difference == approx(6)


def test_a_following_skirt_is_drafted_longer_by_the_ease():
    [join] = make_up(a_recipe(join={"ease": 8})).joins
    assert 2 * join.lower.length == approx(748)
