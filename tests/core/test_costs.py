"""Notions read off the pattern, and what a dress costs, reckoned by hand."""

from pathlib import Path

import pytest

from conftest import a_recipe, drafted_recipe
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.costs import Extra, OfCloth, Said, Sort, costs
from gentle_hem.core.making.notions import Needed, Notion, notions
from gentle_hem.core.making.operation import School
from gentle_hem.core.making.plan import plan_of
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape, Unit

EXAMPLES = sorted((Path(__file__).parents[2] / "examples").glob("*.recipe.json"))
CM = Tape(Unit.CM)


def needed(recipe):
    garment = make_up(recipe)
    return notions(garment, recipe, plan_of(garment, recipe, School.SIDES_FIRST))


def test_a_zip_is_as_long_as_what_it_closes():
    """Bodice measured: 20.5 cm at the side and, square, at the centre back; 19 cm below the waist: 39.5 cm."""
    assert needed(a_recipe())[:2] == (Needed(Notion.ZIP, 1, pytest.approx(395.0, abs=1.0)), Needed(Notion.HOOK, 1))


def test_a_zip_that_ends_lower_is_longer_by_as_much():
    plain, lower = (
        needed(a_recipe(opening={"place": "centre_back", "below_waist": below}))[0].length for below in ("15cm", "21cm")
    )
    assert lower - plain == pytest.approx(60.0, abs=0.1)


def test_a_zip_over_a_drafted_back_follows_its_centre():
    recipe = Recipe.model_validate(
        {**drafted_recipe("two_lengths").model_dump(mode="json"), "lower": {"kind": "straight", "length": 600}}
    )
    garment = make_up(recipe)
    back = garment.piece("bodice back").edge("centre back").path.length
    assert needed(recipe)[0].length == pytest.approx(back + recipe.opening.below_waist, abs=3.0)


def test_without_an_opening_there_is_no_zip():
    recipe = a_recipe(opening={"place": "none"})
    assert Notion.ZIP not in {one.notion for one in needed(recipe)}


@pytest.mark.parametrize("file", EXAMPLES, ids=lambda file: file.name.split(".")[0])
def test_notions_of_every_example_are_those_its_plan_speaks_of(file):
    """Buttons as many as the plan says buttonholes, a zip where it sews one in, cord and bones where it laces."""
    recipe = Recipe.model_validate_json(file.read_text())
    garment = make_up(recipe)
    plan = plan_of(garment, recipe, School.SIDES_FIRST)
    found = {one.notion: one for one in notions(garment, recipe, plan)}
    works = {one.key: one for one in plan.operations}
    assert (Notion.ZIP in found) == ("zip" in works)
    assert (Notion.CORD in found) == ("lacing" in works)
    if "buttons" in works:
        said = works["buttons"].says[0].text(Unit.CM)
        assert said.startswith(f"{found[Notion.BUTTONS].count} buttonholes")
    else:
        assert Notion.BUTTONS not in found
    if Notion.ZIP in found:
        assert found[Notion.ZIP].length is not None
        assert 80 <= found[Notion.ZIP].length <= 900


def test_elastic_is_bought_as_long_as_its_working_says_for_each_sleeve():
    """Two sleeves, 0.95 or so of the arm each: the working's own number, twice."""
    recipe = Recipe.model_validate_json((EXAMPLES[0].parent / "peplum-under-blouse.recipe.json").read_text())
    working = next(one for one in make_up(recipe).workings if one.label == "elastic, each sleeve")
    assert Needed(Notion.ELASTIC, 2, working.value) in needed(recipe)


CLOTHS = [OfCloth("cloth", "Harbour wool", "2.40 m", 31.0, 74.4), OfCloth("lining", "Twill", "1.80 m", 6.0, 10.8)]
NEEDED = [Needed(Notion.ZIP, 1, 560.0), Needed(Notion.BUTTONS, 7), Needed(Notion.ELASTIC, 2, 270.0)]


def test_costs_by_hand():
    """Cloth 74.40 + 10.80; zip 4.50; 7 buttons at 1.20 = 8.40; 2 elastics at 0.90 = 1.80; 1 h 30 min done and
    6 h to do at 22 = 165; braid 12: together 276.90; with 10 per cent 27.69 more: 304.59.
    """
    said = Said(22.0, {"zip": 4.5, "buttons": 1.2, "elastic 2": 0.9}, None, [Extra("Braid", 12.0)], 10.0)
    made = costs(CLOTHS, NEEDED, 90.0, 360.0, said, CM)
    assert made.together == pytest.approx(276.90)
    assert made.added == pytest.approx(27.69)
    assert made.total == pytest.approx(304.59)
    assert made.unpriced == 0
    assert [made.of(sort) for sort in Sort] == [
        pytest.approx(amount) for amount in (85.2, 4.5 + 8.4 + 1.8, 165.0, 12.0)
    ]


def test_what_has_no_price_is_not_in_it_and_is_counted():
    made = costs([OfCloth("cloth", "The cloth", "2.40 m", None, None)], NEEDED, 0.0, 60.0, Said(), CM)
    assert made.together == 0
    assert made.unpriced == 5
    assert {line.what for line in made.lines if line.amount is None} == {
        "The cloth", "Zip", "Buttons", "Elastic", "Work"
    }  # fmt: skip


def test_hours_that_are_said_are_counted_in_the_place_of_the_plans():
    made = costs([], [], 90.0, 360.0, Said(rate=20.0, hours=5.0), CM)
    assert made.total == 100.0
    assert made.lines[-1].working == "5 h counted (1.5 h worked, 6 h to do), at 20.00 an hour"


def test_a_tape_with_a_comma_writes_amounts_with_one():
    made = costs(CLOTHS, [], 0.0, 90.0, Said(rate=20.0), Tape(Unit.CM, 8, comma=True))
    assert made.lines[-1].working.endswith("1,5 h to do, at 20,00 an hour")
