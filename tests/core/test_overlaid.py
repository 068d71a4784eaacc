"""Two states of a dress laid over each other: what is another, by how much, and nothing else."""

from pathlib import Path

import pytest

from conftest import drafted_recipe
from gentle_hem.core.make_up import make_up
from gentle_hem.core.overlaid import overlaid
from gentle_hem.core.recipe import Recipe, changed

EXAMPLES = sorted((Path(__file__).parents[2] / "examples").glob("*.recipe.json"))


@pytest.mark.parametrize("file", EXAMPLES, ids=lambda file: file.name.split(".")[0])
def test_a_dress_over_itself_is_the_same(file):
    recipe = Recipe.model_validate_json(file.read_text())
    made = overlaid(make_up(recipe), make_up(recipe))
    assert made.changed == ()
    assert made.same == len(make_up(recipe).pieces)


def test_a_longer_skirt_is_longer_by_as_much_and_the_bodice_is_the_same():
    before = Recipe.model_validate(
        {**drafted_recipe("two_lengths").model_dump(mode="json"), "lower": {"kind": "straight", "length": 600}}
    )
    made = overlaid(make_up(before), make_up(changed(before, {"lower.length": 625.0})))
    assert {one.name for one in made.changed} == {"skirt front", "skirt back"}
    front = next(one for one in made.changed if one.name == "skirt front")
    assert {edge.name: edge.difference for edge in front.edges}["centre front"] == pytest.approx(25.0, abs=0.01)
    assert made.same == 2


def test_a_piece_that_is_new_and_one_that_is_no_more():
    before = drafted_recipe("two_lengths")
    after = before.model_validate({**before.model_dump(mode="json"), "trims": [{"kind": "stand_collar"}]})
    made = overlaid(make_up(before), make_up(after))
    new = [one for one in made.changed if one.before is None]
    assert new
    assert all(edge.before is None and edge.difference is None for one in new for edge in one.edges)
    back = overlaid(make_up(after), make_up(before))
    assert {one.name for one in back.changed if one.now is None} == {one.name for one in new}


def test_a_line_that_moves_between_its_ends_is_seen():
    """A neckline as deep and as wide as before, in another shape: its ends are where they were."""
    shapes = [
        Recipe.model_validate(
            {**drafted_recipe("two_lengths").model_dump(mode="json"),
             "steps": [{"kind": "neckline", "shape": shape, "depth": 140}]}
        )
        for shape in ("v", "sweetheart")
    ]  # fmt: skip
    before, now = (make_up(shape) for shape in shapes)
    old, new = (made.piece("bodice front").edge("neckline").path for made in (before, now))
    assert old.start.distance(new.start) < 0.01
    assert old.end.distance(new.end) < 0.01
    assert [one.name for one in overlaid(before, now).changed] == ["bodice front"]
