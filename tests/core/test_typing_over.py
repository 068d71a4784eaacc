"""What is typed over a recipe, read word by word."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from conftest import a_recipe, drafted_recipe
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.typing_over import Typed, typed_over
from gentle_hem.core.units import Unit


def over(recipe, *words):
    return typed_over(recipe, [Typed(*word) for word in words])


def test_each_word_is_read_in_the_unit_it_was_typed_in(recipe):
    read = over(recipe, ("lower.length", "24", Unit.INCH), ("lower.hem", "2", Unit.CM), ("unit", "in", Unit.CM))
    assert read.recipe.lower.length == approx(609.6)
    assert read.recipe.lower.hem == approx(20)
    assert read.recipe.unit is Unit.INCH
    assert read.refused == ()


def test_one_unreadable_word_keeps_no_other_from_being_read(recipe):
    read = over(
        recipe, ("lower.length", "24 1", Unit.INCH), ("lower.sweep", 180, Unit.INCH),
        ("allowances.waist", "wide", Unit.CM), ("opening.place", "side", Unit.CM),
    )  # fmt: skip
    assert read.recipe.lower.length == recipe.lower.length
    assert (read.recipe.lower.sweep, read.recipe.opening.place.value) == (180, "side")
    assert [refusal.path for refusal in read.refused] == ["lower.length", "allowances.waist"]
    assert '"wide"' in read.refused[1].text


def test_two_words_that_do_not_go_together_cost_the_last_one(recipe):
    read = over(recipe, ("bodice.front.centre_to_dart", 0, Unit.CM), ("bodice.front.dart_to_side", 0, Unit.CM))
    assert read.recipe.bodice.front.centre_to_dart == 0
    assert [refusal.path for refusal in read.refused] == ["bodice.front.dart_to_side"]
    assert "shorter than 1 cm" in read.refused[0].text


def test_a_part_is_changed_and_then_a_word_in_it():
    read = over(
        a_recipe(), ("lower", {"kind": "straight"}, Unit.CM), ("lower.taper", "1", Unit.INCH),
        ("trims", [{"kind": "godets"}], Unit.CM), ("trims.0.height", "30", Unit.CM), ("trims.4.height", "3", Unit.CM),
    )  # fmt: skip
    assert read.recipe.lower.kind == "straight"
    assert read.recipe.lower.taper == approx(25.4)
    assert read.recipe.trims[0].height == 300
    assert [refusal.path for refusal in read.refused] == ["trims.4.height"]


def test_a_measure_taken_away_is_gone_and_one_typed_is_simulated_no_longer():
    recipe = drafted_recipe("quarters").model_copy(deep=True)
    with_tape = over(
        recipe, ("figure.measures.waist_girth", 700.0, Unit.CM), ("figure.simulated", ["waist_girth"], Unit.CM)
    ).recipe
    assert with_tape.figure.simulated == ("waist_girth",)
    typed = over(with_tape, ("figure.measures.waist_girth", "71", Unit.CM)).recipe
    assert typed.figure.simulated == ()
    assert typed.figure.measures["waist_girth"] == 710
    gone = over(typed, ("figure.measures.waist_girth", None, Unit.CM)).recipe
    assert "waist_girth" not in gone.figure.measures


WORDS = st.sampled_from(
    ["lower.length", "lower.sweep", "lower", "trims", "figure.measures.hip_girth", "name", "no.such"]
)
VALUES = st.one_of(st.text(max_size=8), st.none(), st.floats(-1e4, 1e4), st.booleans(), st.just({"kind": "gown"}))


@given(st.lists(st.builds(Typed, WORDS, VALUES, st.sampled_from(list(Unit))), max_size=6))
def test_whatever_is_typed_leaves_a_recipe_and_says_what_it_could_not_read(words):
    read = typed_over(a_recipe(), words)
    assert Recipe.model_validate(read.recipe.model_dump(mode="json")) == read.recipe
    assert len(read.refused) <= len(words)
    assert all(refusal.text for refusal in read.refused)
    if not words:
        assert read.recipe == a_recipe()


@pytest.mark.parametrize("path", ["", ".", "lower.", "figure", "trims.x", "bodice.kind", "version", "format"])
def test_odd_places_are_refused_and_harm_nothing(recipe, path):
    read = over(recipe, (path, "odd", Unit.CM))
    assert read.recipe == recipe
    assert len(read.refused) == 1


@pytest.mark.parametrize(
    "typed",
    [
        [("figure.measures", None), ("figure.measures.waist_girth", None)],
        [("figure", 7), ("figure.measures.waist_girth", "70")],
        [("figure.measures", [1]), ("figure.measures.0", "70")],
        [("figure.measures", {"waist_girth": "70cm"}), ("figure.measures.hip_girth", "96")],
    ],
)
def test_a_measure_typed_where_there_is_no_place_for_it_is_refused(typed):
    """Found by 50,000 random calls: the measures were typed away whole, and then one of them."""
    made = typed_over(a_recipe(), [Typed(path, value, Unit.CM) for path, value in typed])
    assert isinstance(made.recipe.figure.measures, dict)
    assert all(refusal.text for refusal in made.refused)
