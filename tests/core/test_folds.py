"""A centre that lies on the fold of the cloth is straight and stays upright, whatever is done to the piece."""

import pytest

from dresses import recipe
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.make_up import make_up
from gentle_hem.core.sound import sound


@pytest.mark.parametrize(
    ("step", "rest"),
    [
        ({"kind": "corner", "corner": "centre neck", "on": "front", "out": 10, "up": 0}, {}),
        ({"kind": "corner", "corner": "centre hem", "part": "lower", "on": "front", "out": 10, "up": 0}, {}),
        ({"kind": "zip_contour"}, {"opening": {"place": "none"}}),
        ({"kind": "move_dart", "on": "front", "edge": "waist", "to": "centre"}, {}),
    ],
)
def test_nothing_bends_or_turns_the_fold_of_the_cloth(step, rest):
    """A centre on the fold is straight and stays upright; what would bend it is refused, and nothing of it is done."""
    plain, asked = recipe(**rest), recipe(steps=[step], **rest)
    garment = make_up(asked)
    [refused] = [one for one in garment.findings if one.code == "step-not-done"]
    assert "lies on the fold of the cloth" in refused.text("cm")
    folds = {piece.what: piece.fold.path for piece in garment.pieces if piece.fold}
    assert folds == {piece.what: piece.fold.path for piece in make_up(plain).pieces if piece.fold}


def test_a_fold_that_came_to_bend_all_the_same_is_a_stop():
    front = make_up(recipe()).piece("bodice front")
    fold = front.fold
    bent = Path.through(fold.path.start, fold.path.point_at(fold.drawn_length / 2) + Point(3, 0), fold.path.end)
    [_], found = sound([front.with_edge(fold.name, path=bent)])
    assert [one.code for one in found] == ["fold-not-straight"]
