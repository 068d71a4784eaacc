"""Chalk sheets: by hand for rectangles and rings, and drawn again from their own points over every example."""

import json
from math import sqrt
from pathlib import Path

import pytest
from pytest import approx
from shapely import Polygon

from conftest import FIGURE
from gentle_hem.core.cloth.chalk import chalk, chalk_together, folded_rings, pairs_to_chalk
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, read_recipe

RECIPES = {path.name.split(".")[0]: json.loads(path.read_text()) for path in Path("examples").glob("*.recipe.json")}


def measured(lower):
    """A bodice by its edges: half of its waist is 200 in front and 180 behind."""
    return make_up(
        Recipe.model_validate(
            {
                "figure": {"measures": FIGURE},
                "bodice": {"kind": "measured", "front": {"centre_to_dart": 100, "dart_to_side": 100},
                           "back": {"centre_to_dart": 90, "dart_to_side": 90}, "front_side": 200, "back_side": 200},
                "lower": lower, "opening": {"place": "none"}, "allowances": {"waist": 10, "side": 10, "zip": 15},
            }
        )
    )  # fmt: skip


def test_a_gathered_front_is_marked_in_four_points_by_hand():
    """Half of a front 1.5 times 200 on the fold, 500 long: 300 + 10 from the fold, 10 + 500 + 20 from the cut end."""
    garment = measured({"kind": "gathered", "length": 500, "fullness": 1.5, "hem": 20})
    front = chalk(garment, garment.piece("skirt front").what)
    assert [(point.letter, point.curved) for point in front.points] == [(letter, False) for letter in "ABCD"]
    places = [(round(point.from_fold), round(point.from_cut_end)) for point in front.points]
    assert places == [(0, 0), (310, 0), (310, 530), (0, 530)]
    assert (front.width, front.length) == (approx(310, abs=0.1), approx(530, abs=0.1))
    back = chalk(garment, garment.piece("skirt back").what)
    assert max(point.from_fold for point in back.points) == approx(280, abs=0.1)


@pytest.mark.parametrize("name", RECIPES)
def test_a_piece_drawn_again_from_its_chalk_points_is_the_piece(name):
    """Straight from corner to corner and through the points of each curve: nothing strays further than a hand does."""
    garment = make_up(read_recipe(RECIPES[name]))
    for what in dict.fromkeys(one.piece for one in cut_pieces(garment)):
        piece = next(piece for piece in garment.pieces if piece.what == what)
        sheet = chalk(garment, what)
        again = Polygon([(point.from_fold, -point.from_cut_end) for point in sheet.points])
        area = piece.cut_line.signed_area
        assert again.area == approx(area, rel=0.04), piece.name
        assert min(point.from_cut_end for point in sheet.points) == approx(0, abs=0.5)
        if piece.on_fold:
            assert min(point.from_fold for point in sheet.points) == approx(0, abs=0.1)
        letters = [point.letter for point in sheet.points]
        assert len(set(letters)) == len(letters)


def test_front_and_back_are_drawn_together_and_neck_and_armhole_trimmed_from_the_front_alone():
    """Common practice: the front's neck is lower and its armhole hollower, and nothing is trimmed from the back."""
    garment = make_up(read_recipe(RECIPES["drafted-quarters"]))
    front, back = next(pair for pair in pairs_to_chalk(garment) if pair[0].section == "bodice")
    both = chalk_together(garment, front, back)
    assert {trim.name for trim in both.trims} == {"bodice front"}
    assert {trim.edge for trim in both.trims} == {"armhole", "neckline"}
    assert [(one.name, one.by) for one in both.beyond] == [("bodice back", approx(15, abs=0.1))]
    alone = chalk(garment, front)
    lowest = max(p.from_cut_end for trim in both.trims if trim.edge == "neckline" for p in trim.points)
    neck = next(point.from_cut_end for point in alone.points if point.letter == "A")
    high = next(point.from_cut_end for point in chalk(garment, back).points if point.letter == "C")
    assert lowest == approx(neck - high, abs=12)  # the back's own neck point is the cut end of both


def test_trouser_front_and_back_differ_too_much_and_are_not_drawn_together():
    garment = make_up(read_recipe(RECIPES["jumpsuit"]))
    [pair] = [pair for pair in pairs_to_chalk(garment) if pair[0].section == "trouser"]
    assert chalk_together(garment, *pair) is None


def test_a_full_circle_is_folded_in_four_and_in_eight_by_hand():
    """Seam 760 (2 × 200 + 2 × 180) ÷ 2π = 120.96; cut 10 higher, and 600 + 15 further out. In four the hem reaches
    R√2 from fold to fold, in eight R√(2 − √2).
    """
    garment = measured({"kind": "circle", "sweep": 360, "length": 600, "hem": 15, "pieces": 2})
    four, eight = folded_rings(garment)
    inner, outer = 760 / (2 * 3.14159265) - 10, 760 / (2 * 3.14159265) + 615
    for ring, layers, reach in ((four, 4, sqrt(2)), (eight, 8, sqrt(2 - sqrt(2)))):
        assert (ring.layers, ring.rings, ring.wedge) == (layers, 1, 360 / layers)
        assert ring.inner == approx(inner, abs=0.1)
        assert ring.outer == approx(outer, abs=0.1)
        assert ring.reach == approx(outer * reach, abs=0.2)
        assert ring.square == approx(2 * outer, abs=0.2)


@pytest.mark.parametrize(("sweep", "rings", "each"), [(720, 2, 360), (180, 1, 180), (90, 1, 90)])
def test_two_circles_a_half_and_a_quarter(sweep, rings, each):
    garment = measured({"kind": "circle", "sweep": sweep, "length": 700, "hem": 15, "pieces": 2 if sweep < 360 else 4})
    found = folded_rings(garment)
    assert {(ring.rings, ring.sweep) for ring in found} == {(rings, each)}
    assert all(ring.inner == approx(760 / (sweep * 3.14159265 / 180) - 10, abs=0.2) for ring in found)


def test_what_is_no_part_of_a_circle_is_not_folded():
    assert folded_rings(measured({"kind": "circle", "sweep": 270, "length": 600, "pieces": 2})) == []
    assert folded_rings(measured({"kind": "gathered", "length": 500})) == []
