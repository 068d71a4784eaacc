"""Two states of a recipe beside each other."""

from conftest import a_recipe, drafted_recipe
from gentle_hem.core.differences import differences
from gentle_hem.core.units import Tape, Unit


def test_a_state_does_not_differ_from_itself():
    assert differences(a_recipe(), a_recipe(), Unit.CM) == []


def test_words_are_said_as_each_state_says_them():
    before = a_recipe(name="Sundress")
    after = a_recipe(
        lower={"sweep": 180, "length": "24 in"}, name="Beach dress", figure={"measures": {"hip_girth": 960}},
        trims=[{"kind": "godets"}], unit="in",
    )  # fmt: skip
    said = {d.path: (d.label, d.before, d.after) for d in differences(before, after, Unit.INCH)}
    assert said["lower.sweep"] == ("sweep in degrees", "full circle", "half circle")
    assert said["lower.length"] == ("finished length", "24 3/8 in", "24 in")
    assert said["figure.measures.hip_girth"] == ("hip girth", "—", "37 3/4 in")
    assert said["trims.0"] == ("kind", "—", "Godets")
    assert said["name"] == ("name", "Sundress", "Beach dress")
    assert said["unit"][1:] == ("cm", "in")
    assert len(said) == 6


def test_another_kind_of_part_is_one_difference():
    found = differences(drafted_recipe("quarters"), drafted_recipe("proportional", lower={"sweep": 360}), Unit.CM)
    assert [d.path for d in found] == ["bodice", "lower.sweep"]
    assert found[0].before.startswith("Bodice")
    assert found[0].before != found[0].after


def test_a_difference_is_said_on_the_asked_tape():
    [only] = differences(a_recipe(), a_recipe(lower={"length": "63,5 cm"}), Tape(Unit.CM, comma=True))
    assert (only.before, only.after) == ("62,0 cm", "63,5 cm")
