"""Recipes of every earlier version keep opening, and make the garment they made then."""

import json
from pathlib import Path

import pytest
from pytest import approx

from conftest import FIGURE
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, UnreadableRecipe, read_recipe
from gentle_hem.core.upgrade import STEPS, upgraded

STORED = Path(__file__).parents[1] / "recipes"
EXAMPLES = Path(__file__).parents[2] / "examples"
OLD = sorted(STORED.glob("*/*.recipe.json"))


def test_a_recipe_is_stored_of_every_earlier_version():
    assert {int(path.parent.name) for path in OLD} == set(STEPS)


@pytest.mark.parametrize("path", OLD, ids=lambda path: f"{path.parent.name} {path.name.split('.')[0]}")
def test_a_stored_recipe_opens_and_is_todays(path):
    document = json.loads(path.read_text())
    assert document["version"] == int(path.parent.name)
    recipe = read_recipe(document)
    assert recipe.version == max(STEPS) + 1
    again = json.loads((EXAMPLES / path.name).read_text())
    assert make_up(recipe).pieces == make_up(read_recipe(again)).pieces


@pytest.mark.parametrize(("version", "count"), [(1, 6), (2, 2)])
def test_godets_without_a_number_are_as_many_as_they_were(version, count):
    data = {
        "version": version, "figure": {"measures": FIGURE}, "lower": {"kind": "gores"},
        "trims": [{"kind": "slit"}, {"kind": "godets", "height": "30cm"}],
    }  # fmt: skip
    godets = Recipe.model_validate(data).trims[1]
    assert godets.count == count
    assert godets.height == approx(300)


@pytest.mark.parametrize("document", [None, 7, [], "{}", {"version": "1"}, {"version": 1, "trims": 3}, {"version": 99}])
def test_what_is_no_recipe_is_refused_and_never_knocks_the_reader_over(document):
    assert upgraded(document) is not None or document is None
    with pytest.raises(UnreadableRecipe):
        read_recipe(document)
