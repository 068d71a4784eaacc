"""Recipe sentences: every part says itself, and every live word leads to a field that takes its choices."""

import string

import pytest
from pydantic import ValidationError

from conftest import BODICE, a_recipe, own_recipe
from gentle_hem.core.block import BODICES
from gentle_hem.core.block.measured import MeasuredBodice
from gentle_hem.core.figure import MEASURES, Figure
from gentle_hem.core.lower import LOWER_PARTS
from gentle_hem.core.lower.circle import CircleSkirt
from gentle_hem.core.parts import Allowances, Opening
from gentle_hem.core.recipe import JoinPlan, Recipe, changed, spoken_parts
from gentle_hem.core.sentences import LiveWord, Word, choice, length, number, percent, say_part, share, spoken
from gentle_hem.core.steps import STEPS
from gentle_hem.core.units import Unit, format_length

PARTS = (*BODICES, *LOWER_PARTS, *STEPS, Opening, Allowances, JoinPlan, Figure)


def names_in(part):
    return [name for text in part.sentences for _, name, _, _ in string.Formatter().parse(text) if name]


@pytest.mark.parametrize("part", PARTS, ids=lambda part: part.__name__)
def test_every_word_said_is_described_and_every_word_described_is_said_once(part):
    said = names_in(part)
    assert len(said) == len(set(said))
    if part is Figure:
        assert set(said) <= set(part.words)
    else:
        assert set(said) == set(part.words)
    assert part.title
    for text in part.sentences:
        assert text.rstrip(" ]").endswith(".")


@pytest.mark.parametrize("part", PARTS, ids=lambda part: part.__name__)
def test_every_word_has_a_label_and_a_sort_the_interface_knows(part):
    for name, word in part.words.items():
        assert word.label, name
        assert word.sort in {"length", "choice", "number", "percent", "share"}
        if word.sort == "choice":
            assert len(word.choices) >= 2


def recipe_with(kind):
    if kind == "measured":
        return a_recipe()
    if kind == "own":
        return own_recipe()
    return Recipe.model_validate({"bodice": {"kind": kind}, "lower": {"kind": "circle"}})


@pytest.mark.parametrize("kind", [part.model_fields["kind"].default for part in BODICES])
def test_every_choice_of_every_word_makes_a_valid_recipe(kind):
    recipe = recipe_with(kind)
    words = [
        t for part in spoken_parts(recipe, Unit.CM) for line in part.lines for t in line if isinstance(t, LiveWord)
    ]
    assert words
    for live in words:
        for value, text in live.word.choices:
            if live.path.startswith("figure.measures."):
                continue
            again = changed(recipe, {live.path: value})
            said = [
                t.text
                for part in spoken_parts(again, Unit.CM)
                for line in part.lines
                for t in line
                if isinstance(t, LiveWord) and t.path == live.path
            ]
            nothing = live.word.nothing if value == 0 else ""
            spoken_as = (nothing or format_length(value, Unit.CM)) if live.word.sort == "length" else text
            assert said == [spoken_as], live.path


def test_the_circle_reads_aloud_like_the_trade_speaks():
    lower = a_recipe(lower={"length": "24 in", "hem": "1/2 in"}).lower
    assert spoken(lower, Unit.INCH).startswith(
        "A full circle skirt, 24 in finished, in 2 pieces, sewn to the bodice's waist as it measures, hem 1/2 in."
    )
    odd = a_recipe(lower={"sweep": 212.5, "seam": "70.4cm", "pieces": 4}).lower
    assert "A 212.5° flare skirt, 62.0 cm finished, in 4 pieces, sewn to 70.4 cm" in spoken(odd, Unit.CM)


def test_the_measured_bodice_reads_aloud():
    said = spoken(a_recipe().bodice, Unit.CM)
    assert "Front: 9.3 cm from centre front to the dart, the dart takes 2.5 cm, then 9.8 cm to the side." in said


def test_parts_come_in_the_order_of_the_trade():
    drafted = recipe_with("quarters")
    assert [part.where for part in spoken_parts(drafted, Unit.CM)] == [
        "figure", "bodice", "band", "lower", "join", "finish", "cloths", "opening",
        "allowances",
    ]  # fmt: skip


def test_steps_are_said_after_the_bodice_and_only_those_there_are():
    assert not [part.where for part in spoken_parts(a_recipe(), Unit.CM) if part.where.startswith("steps")]
    styled = Recipe.model_validate({"bodice": BODICE, "style": {"facing": "faced"}, "lower": {"kind": "circle"}})
    assert [part.where for part in spoken_parts(styled, Unit.CM)][1:3] == ["bodice", "steps.0"]


def test_measures_that_were_not_taken_are_a_dash():
    assert spoken(Figure(), Unit.CM).count("—") == 15
    assert "bust 92.0 cm" in spoken(Figure(measures={"bust_girth": 920}), Unit.CM)
    assert set(MEASURES) >= {"bust_girth", "trunk_girth", "heel_height"}


@pytest.mark.parametrize(
    ("word", "value", "said"),
    [
        (length("hem"), 15.0, "1.5 cm"),
        (length("seam", without="as it measures"), None, "as it measures"),
        (choice("pieces", (1, "1 piece"), (2, "2 pieces")), 2, "2 pieces"),
        (number("sweep", (360, "full circle")), 360, "full circle"),
        (number("sweep", (360, "full circle")), 200.5, "200.5"),
        (number("sweep", spoken=lambda v: f"{v:g}°"), 200.5, "200.5°"),
        (percent("stretch"), 2.5, "2.5 %"),
        (share("where"), 0.405, "40.5 %"),
        (share("where", (0.5, "half")), 0.5, "half"),
        (Word("text", "name"), "Ball gown", "Ball gown"),
    ],
)
def test_each_sort_of_word_says_its_value(word, value, said):
    assert word.say(value, Unit.CM) == said


def test_changing_a_word_that_is_not_there_is_refused():
    with pytest.raises(KeyError, match="colour"):
        changed(a_recipe(), {"lower.colour": "red"})
    with pytest.raises(ValidationError):
        changed(a_recipe(), {"lower.sweep": -4})


def test_a_recipe_cannot_be_changed_in_place():
    recipe = a_recipe()
    with pytest.raises(ValidationError):
        recipe.name = "Other"
    with pytest.raises(ValidationError):
        recipe.lower.length = 3
    assert Recipe.model_validate_json(recipe.model_dump_json()) == recipe


def test_what_is_usual_may_wait_but_never_a_parts_first_sentence():
    assert say_part(CircleSkirt(), "lower", Unit.CM).waits == (False, True, True)
    # one word that is not usual, and its sentence is said
    assert say_part(CircleSkirt(front_dart=10), "lower", Unit.CM).waits == (False, True, False)
    # a bodice that is only its measured edges has nothing that could wait
    assert not any(say_part(MeasuredBodice(), "bodice", Unit.CM).waits)
