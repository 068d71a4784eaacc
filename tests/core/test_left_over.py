"""What a lay leaves over, and whether the facings lie in it."""

import json
from pathlib import Path

import pytest
from pytest import approx
from shapely import box

from gentle_hem.core.cloth.lay import HowLaid, Lay, Placed, lay
from gentle_hem.core.cloth.left_over import facings_in
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Layer


def faced():
    recipe = json.loads(Path("examples", "slanting-neck.recipe.json").read_text())
    return make_up(read_recipe(recipe))


@pytest.mark.parametrize("folded", [None, 700.0])
def test_facings_are_measured_on_the_lay_as_it_lies(folded):
    garment = faced()
    laid = lay(garment, ClothRole.OUTER, 1400, HowLaid(folded=folded))
    cut = [one for one in cut_pieces(garment) if one.piece.layer is Layer.FACING and one.cloth is ClothRole.OUTER]
    found = facings_in(laid, garment)
    assert found.count == len(cut) > 0
    others = [one for one in laid.placed if not any(face.name in one.name for face in cut)]
    assert found.take == approx(laid.length - max(one.outline.bounds[3] for one in others))
    assert found.lie_beside == (found.take < 1)


def test_a_facing_beside_the_front_takes_nothing_and_one_below_it_takes_its_height():
    garment = faced()
    name = next(one.name for one in cut_pieces(garment) if one.piece.layer is Layer.FACING)
    beside = Lay(
        ClothRole.OUTER, 1000, 600, (Placed(1, "front", box(0, 0, 500, 600)), Placed(2, name, box(600, 0, 900, 80)))
    )
    found = facings_in(beside, garment)
    assert (found.count, found.take, found.lie_beside) == (1, 0, True)
    below = replace(beside, length=690, placed=(beside.placed[0], Placed(2, name, box(0, 610, 300, 690))))
    assert facings_in(below, garment).take == approx(90)
    assert not facings_in(below, garment).lie_beside


def test_a_dress_without_facings_says_nothing_of_them():
    garment = make_up(read_recipe(json.loads(Path("examples", "full-circle.recipe.json").read_text())))
    assert facings_in(lay(garment, ClothRole.OUTER, 3000), garment) is None
