"""Cloths laid: held against shapely on every example and combination, and against lays worked out by hand."""

import json
from itertools import combinations as pairs
from math import atan2, degrees
from pathlib import Path

import pytest
from pytest import approx
from shapely import Point, Polygon, box
from shapely.affinity import rotate, scale, translate

from combinations import COMBINATIONS, MEASURES
from conftest import FIGURE
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.lay import APART, _placed, in_widths, lay, lays, to_buy
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, read_recipe
from gentle_hem.core.units import Unit
from readers import polygon

RECIPES = {path.name.split(".")[0]: json.loads(path.read_text()) for path in Path("examples").glob("*.recipe.json")} | {
    name: {"figure": {"measures": MEASURES}, **recipe} for name, recipe in COMBINATIONS.items()
}


def made(name):
    return make_up(read_recipe(RECIPES[name]))


def at_corner(shape):
    return translate(shape, -shape.bounds[0], -shape.bounds[1])


def as_cut(piece):
    """A piece with its grain up the page, opened out where it lies on the fold: by shapely alone."""
    shape = polygon(piece.cut_line, 0.4).buffer(0)
    if piece.on_fold:
        fold = next(e for e in piece.edges if e.role.is_centre and e.allowance == 0).path
        turn = degrees(atan2(fold.end.y - fold.start.y, fold.end.x - fold.start.x))
        upright = rotate(shape, -turn, origin=(fold.start.x, fold.start.y))
        both = upright.buffer(0.01).union(scale(upright, 1, -1, origin=(fold.start.x, fold.start.y)).buffer(0.01))
        shape = rotate(both, turn, origin=(fold.start.x, fold.start.y))
    start, end = piece.grain
    return at_corner(rotate(shape, 90 - degrees(atan2(end.y - start.y, end.x - start.x)), origin=(0, 0)))


def apart(one, other):
    """How much of two shapes, laid corner on corner, is not in both (mm²)."""
    return at_corner(one).symmetric_difference(at_corner(other)).area


@pytest.mark.parametrize("name", RECIPES)
def test_nothing_overlaps_nothing_leaves_the_cloth_and_nothing_is_forgotten(name):
    garment = made(name)
    for one_way in (False, True):
        for cloth in lays(garment, lambda role, way=one_way: Cloth(nap="one_way" if way else "none")):
            for one, other in pairs(cloth.placed, 2):
                assert one.outline.distance(other.outline) >= APART - 0.5, (one.name, other.name)
            for one in cloth.placed:
                left, foot, right, top = one.outline.bounds
                assert left >= -0.01
                assert foot >= -0.01
                assert right <= cloth.width + 0.01
                assert top <= cloth.length + 0.01
                assert not (one_way and one.turned)
            wanted = [one.name for one in cut_pieces(garment) if one.cloth is cloth.role]
            laid = [one.name for one in cloth.placed]
            parts = [name for name in laid if " of " in name]
            left_off = [one.name for one in (*cloth.too_wide, *cloth.joined)]
            assert sorted([*(name for name in laid if name not in parts), *left_off]) == sorted(wanted)
            assert len(parts) == sum(one.widths for one in cloth.joined)
            assert [one.number for one in cloth.placed] == list(range(1, len(laid) + 1))


@pytest.mark.parametrize("name", ["mermaid-gown", "two-cloth-knot", "peplum-under-blouse", "trumpet-gores", "laced"])
def test_each_lies_along_its_grain_as_large_as_it_is_cut_and_one_of_a_pair_turned_over(name):
    garment = made(name)
    pieces = {one.name: (one, garment.piece(one.piece.name)) for one in cut_pieces(garment)}
    for cloth in lays(garment, lambda role: Cloth()):
        for placed in cloth.placed:
            if placed.name not in pieces:
                continue  # a strip cut in widths
            one, piece = pieces[placed.name]
            lying = as_cut(piece)
            if one.turned_over != piece.turned_over:
                lying = scale(lying, -1, 1)
            if placed.turned:
                lying = rotate(lying, 180)
            assert apart(placed.outline, lying) < 0.002 * lying.area + 200, placed.name


def rectangles(width, **lower):
    """A gathered skirt of two rectangles on a bodice that is only measured, laid on a cloth."""
    recipe = Recipe.model_validate(
        {
            "figure": {"measures": FIGURE},
            "bodice": {"kind": "measured", "front": {"centre_to_dart": 100, "dart_to_side": 100},
                       "back": {"centre_to_dart": 90, "dart_to_side": 90}, "front_side": 200, "back_side": 200},
            "lower": {"kind": "gathered", "length": 500, "fullness": 1.5, "hem": 20, **lower},
            "opening": {"place": "none"}, "allowances": {"waist": 10, "side": 10},
        }
    )  # fmt: skip
    return lay(make_up(recipe), ClothRole.OUTER, width)


def test_two_rectangles_lie_side_by_side_where_the_cloth_is_wide_enough_and_one_above_the_other_where_not():
    """By hand: both are 500 + 20 + 10 = 530 mm long with their allowances. With a square of 6 mm, 3 mm for the shears,
    they take 530 of a cloth that holds both, twice 530 and up to a square more of one that does not.
    """
    pair = rectangles(5000)
    across = [one.outline.bounds[2] - one.outline.bounds[0] for one in pair.placed]
    assert len(across) == 2
    assert pair.length == approx(530, abs=0.5)
    assert rectangles(sum(across) + 12).length == approx(530, abs=0.5)
    narrow = rectangles(max(across) + 1)
    assert 1060 <= narrow.length <= 1060 + 9
    assert pair.use == approx(sum(across) * 530 / (5000 * 530), rel=1e-3)


@pytest.mark.parametrize(
    ("across", "count", "each"), [(1400, 2, 710), (1421, 3, 487), (2100, 3, 713.333), (721, 2, 370.5)]
)
def test_a_strip_wider_than_the_cloth_is_cut_in_widths_with_an_allowance_at_every_join(across, count, each):
    """By hand, on a cloth 720 wide with joins of 10 mm on either side: two widths make 1420, three 2120."""
    found, parts = in_widths(box(0, 0, across, 80), 720)
    assert found == count == len(parts)
    assert [one.bounds[2] for one in parts] == approx([each] * count, abs=0.01)
    assert sum(one.bounds[2] for one in parts) - 20 * (count - 1) == approx(across)


def test_the_rectangles_of_a_skirt_are_cut_in_widths_where_the_cloth_is_narrow():
    cloth = rectangles(300)
    assert [one.name for one in cloth.joined] == ["skirt front", "skirt back"]
    assert cloth.too_wide == ()
    assert len(cloth.placed) == sum(one.widths for one in cloth.joined)
    assert cloth.placed[0].name == f"skirt front, 1 of {cloth.joined[0].widths}"


def test_what_goes_on_no_way_is_said_and_left_off():
    circle = lay(made("full-circle"), ClothRole.OUTER, 1400)
    assert [(one.name, round(one.across)) for one in circle.too_wide] == [("skirt front", 1515)]
    assert "skirt front" not in [one.name for one in circle.placed]


@pytest.mark.parametrize(
    ("length", "metres", "yards"),
    [(1000, "1.00 m", "1 1/8 yd"), (914.4, "0.95 m", "1 yd"), (1001, "1.05 m", "1 1/8 yd"), (400, "0.40 m", "1/2 yd"),
     (1371.6, "1.40 m", "1 1/2 yd"), (2057.4, "2.10 m", "2 1/4 yd"), (114.3, "0.15 m", "1/8 yd")],
)  # fmt: skip
def test_cloth_is_asked_for_in_whole_twentieths_of_a_metre_or_eighths_of_a_yard(length, metres, yards):
    assert (to_buy(length, Unit.CM), to_buy(length, Unit.INCH)) == (metres, yards)


def test_holes_are_used():
    """A ring 600 across with a hole of 300 takes a square of 150 into it: the two are no longer than it."""
    ring = Point(300, 300).buffer(300, 64).difference(Point(300, 300).buffer(150, 64))
    square = Polygon([(0, 0), (150, 0), (150, 150), (0, 150)])
    large, small = _placed([("ring", ring), ("square", square)], 610, False)
    assert small.outline.distance(large.outline) >= APART - 0.5
    assert small.outline.within(Point(300, 300).buffer(160))
