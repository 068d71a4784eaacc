"""Only what was changed is made again: a garment made from kept stages is the one made from nothing, word for word."""

import pytest

from combinations import COMBINATIONS, MEASURES
from gentle_hem.core import kept_stages
from gentle_hem.core import upper_part as module
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed
from random_recipes import random_recipe

TYPED = [
    {"lower.length": 555.0}, {"join.ease": 4.0}, {"name": "another"}, {"allowances.side": 21.0}, {"trims": []},
    {"steps.0.off": True}, {"opening.below_waist": 150.0}, {"steps": []}, {"figure.measures.waist_girth": 741.0},
    {"figure.measures.head_girth": None}, {"finish.lining": "none"},
]  # fmt: skip


def same(one, other):
    assert [p.what for p in one.pieces] == [p.what for p in other.pieces]
    assert one.pieces == other.pieces
    assert [(s.name, s.upper.length, s.lower.length) for s in one.seams] == [
        (s.name, s.upper.length, s.lower.length) for s in other.seams
    ]
    assert [(w.label, w.value, w.topic) for w in one.workings] == [(w.label, w.value, w.topic) for w in other.workings]
    assert one.findings == other.findings


@pytest.mark.parametrize("name", COMBINATIONS)
def test_typing_over_a_garment_gives_what_making_it_from_nothing_gives(name):
    recipe = Recipe.model_validate({"figure": {"measures": MEASURES}, **COMBINATIONS[name]})
    make_up(recipe)
    for change in TYPED:
        if "steps.0.off" in change and not recipe.steps:
            continue
        typed = changed(recipe, change)
        kept = make_up(typed)
        kept_stages.forget()
        same(kept, make_up(typed))
        make_up(recipe)


def test_random_garments_one_after_another_do_not_mix():
    recipes = [random_recipe(seed, "plausible") for seed in range(20)]
    kept = [make_up(recipe) for recipe in [*recipes, *recipes]][len(recipes) :]
    for recipe, garment in zip(recipes, kept, strict=True):
        kept_stages.forget()
        same(garment, make_up(recipe))


def test_a_change_below_the_waist_draws_no_bodice_again(monkeypatch):
    drawn = []
    real = module.style_bodice
    monkeypatch.setattr(module, "style_bodice", lambda *given: drawn.append(1) or real(*given))
    recipe = Recipe.model_validate({"figure": {"measures": MEASURES}, **COMBINATIONS["empire"]})
    kept_stages.forget()
    make_up(recipe)
    for change in ({"lower.length": 500.0}, {"trims": []}, {"join.ease": 3.0}, {"name": "x"}, {"steps.5.off": True}):
        make_up(changed(recipe, change))
    assert drawn == [1]
    make_up(changed(recipe, {"steps.1.off": True}))
    make_up(changed(recipe, {"steps.2.up": 5.0}))
    assert drawn == [1, 1, 1]
