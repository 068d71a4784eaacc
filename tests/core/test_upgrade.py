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


EVERY_WORD = {
    "contour": {"zip_taken": 19, "zip_run": "full", "give_back": "none", "zip_dart": "new", "zip_drop": 4,
                "neckline": 6, "armhole": 7, "centre": 8, "under_bust": "close"},
    "style": {"front_neck": "v", "back_neck": "scoop", "wider": 11, "bust_dart": "armhole", "waist_dart": "side",
              "narrower": 9, "dart_short": 31, "stitched": "pleat", "top": "strapless", "straps": "straight",
              "strap_width": 44, "facing": "faced", "facing_width": 52, "keyhole": "keyhole"},
    "panels": {"ends": "basque", "depth": 99, "front_princess": "armhole", "back_princess": "shoulder", "back_yoke": 88,
               "stand": 22, "buttons": 7, "button": 13, "down": "skirt"},
}  # fmt: skip


def test_every_word_of_the_old_parts_becomes_a_step_in_the_order_it_was_done():
    made = upgraded({"version": 2, "lower": {"kind": "circle"}, "steps": [{"kind": "hollow"}], **EVERY_WORD})
    assert made["version"] == 3
    assert not set(made) & set(EVERY_WORD)
    assert made["steps"] == [
        {"kind": "zip_contour", "taken": 19, "run": "full", "give_back": "none", "dart": "new", "drop": 4},
        {"kind": "wedge", "edge": "neckline", "amount": 6, "closed": "seam"},
        {"kind": "wedge", "edge": "armhole", "amount": 7, "closed": "seam"},
        {"kind": "wedge", "edge": "centre", "amount": 8, "closed": "seam"},
        {"kind": "under_bust"},
        {"kind": "neckline", "on": "front", "shape": "v", "depth": 150.0, "wider": 11},
        {"kind": "neckline", "on": "back", "shape": "scoop", "depth": 60.0, "wider": 11},
        {"kind": "front_dart", "dart": "bust", "to": "armhole"},
        {"kind": "front_dart", "dart": "waist", "to": "side"},
        {"kind": "waist_dart", "narrower": 9, "short": 31, "stitched": "pleat"},
        {"kind": "top", "top": "strapless", "strap": 44},
        {"kind": "facing", "width": 52},
        {"kind": "straps", "way": "straight", "width": 44},
        {"kind": "keyhole"},
        {"kind": "ends", "where": "basque", "depth": 99},
        {"kind": "yoke", "on": "back", "depth": 88},
        {"kind": "princess", "on": "front", "start": "armhole", "share": 0.5},
        {"kind": "princess", "on": "back", "start": "shoulder", "share": 0.5},
        {"kind": "stand", "width": 22, "buttons": 7, "button": 13, "down": "skirt"},
        {"kind": "hollow"},
    ]
    assert len(Recipe.model_validate(made).steps) == 20


def test_an_old_part_with_a_word_it_never_had_is_refused_by_name():
    with pytest.raises(UnreadableRecipe, match="style"):
        read_recipe({"version": 2, "lower": {"kind": "circle"}, "style": {"frontneck": "v"}})


def test_a_gown_had_no_end_to_its_bodice_and_has_none():
    made = upgraded({"version": 2, "lower": {"kind": "gown"}, "panels": {"ends": "dropped"}})
    assert "steps" not in made
