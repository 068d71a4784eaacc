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
from gentle_hem.core.cloth.bought import bought, shop_length
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.lay import HowLaid, Layers, Pin, faults_of, lay, lays, placed_flat, roles_of, width_of
from gentle_hem.core.cloth.matching import Over
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cloth.squares import APART, Repeat
from gentle_hem.core.cloth.things import Lie, Thing, Why, in_widths
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, read_recipe
from gentle_hem.core.units import Tape, Unit
from long import examples
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
    [(1000, "1.00 m", "1 1/8 yd"), (914.4, "1.00 m", "1 yd"), (1001, "1.10 m", "1 1/8 yd"), (400, "0.40 m", "1/2 yd"),
     (1371.6, "1.40 m", "1 1/2 yd"), (2057.4, "2.10 m", "2 1/4 yd"), (114.3, "0.20 m", "1/8 yd")],
)  # fmt: skip
def test_cloth_is_asked_for_in_whole_tenths_of_a_metre_or_eighths_of_a_yard(length, metres, yards):
    """The steps of the handbook (12)."""
    assert bought(length, Cloth(), Tape(Unit.CM)).text == metres
    assert bought(length, Cloth(), Tape(Unit.INCH)).text == yards


def test_what_shrinks_is_bought_longer_and_what_it_costs_and_leaves_is_said():
    """By hand: 1.94 m ÷ 0.97 = 2.00 m, 5 % more is 2.10 m; at 12.50 a metre 26.25; of 3 m in hand 0.90 m are left."""
    cloth = Cloth(shrinks=3, price=12.5, in_hand=3000)
    found = bought(1940, cloth, Tape(Unit.CM), safety=5)
    assert (found.text, found.cost) == ("2.10 m", approx(26.25))
    assert found.left == approx(900)
    assert found.working == "194.0 cm ÷ (1 − 3 %) for shrinking + 5 % to be safe, rounded up to 2.10 m"
    assert bought(1940, Cloth(in_hand=1900), Tape(Unit.CM)).left == approx(-40)
    assert bought(1940, Cloth(), Tape(Unit.CM)).left is None
    assert shop_length(1500, Tape(Unit.CM, comma=True)) == "1,50 m"


def test_holes_are_used():
    """A ring 600 across with a hole of 300 takes a square of 150 into it: the two are no longer than it."""
    ring = Point(300, 300).buffer(300, 64).difference(Point(300, 300).buffer(150, 64))
    square = Polygon([(0, 0), (150, 0), (150, 150), (0, 150)])
    large, small = placed_flat([Thing("ring", ring), Thing("square", square)], 610)
    assert small.outline.distance(large.outline) >= APART - 0.5
    assert small.outline.within(Point(300, 300).buffer(160))


def test_what_is_pinned_stays_and_the_rest_lie_round_it():
    garment = made("half-circle-inches")
    free = lay(garment, ClothRole.OUTER, 1400)
    name = free.placed[-1].name
    pinned = lay(garment, ClothRole.OUTER, 1400, HowLaid(pins=(Pin(name, 333.3, 777.7, turned=True),)))
    it = next(one for one in pinned.placed if one.name == name)
    assert it.pinned
    assert it.turned
    assert it.outline.bounds[:2] == approx((333.3, 777.7))
    assert pinned.faults == ()
    assert sorted(one.name for one in pinned.placed) == sorted(one.name for one in free.placed)


def test_a_pin_off_the_cloth_or_on_another_is_a_fault_that_names_both():
    garment = made("half-circle-inches")
    one, other = (placed.name for placed in lay(garment, ClothRole.OUTER, 1400).placed[:2])
    both = lay(garment, ClothRole.OUTER, 1400, HowLaid(pins=(Pin(one, -20, 0), Pin(other, -20, 10))))
    assert {(fault.name, fault.other) for fault in both.faults} == {(one, None), (other, None), (one, other)}


def test_too_near_for_the_shears_is_a_fault_and_a_hair_more_is_none():
    left = Polygon([(0, 0), (100, 0), (100, 100), (0, 100)])

    def beside(gap):
        named = [Thing("left", left), Thing("right", left)]
        spots = placed_flat(named, 400, HowLaid(pins=(Pin("left", 0, 0), Pin("right", 100 + gap, 0))))
        return faults_of(spots, 400)

    assert [fault.other for fault in beside(1.0)] == ["right"]
    assert beside(APART) == ()


def test_a_piece_lies_on_the_bias_or_crosswise_where_that_is_asked():
    """A rectangle of 300 by 530 reaches 530 crosswise, and (300 + 530) ÷ √2 = 587 on the bias."""
    garment = make_up(read_recipe(RECIPES["gathered-yoke"]))
    plain = lay(garment, ClothRole.OUTER, 3000)
    name = next(one.name for one in plain.placed if one.outline.area > 0.98 * one.outline.envelope.area)
    shape = next(one.outline for one in plain.placed if one.name == name)
    wide, high = shape.bounds[2] - shape.bounds[0], shape.bounds[3] - shape.bounds[1]
    cross = lay(garment, ClothRole.OUTER, 3000, HowLaid(lies=((name, Lie.CROSSWISE),)))
    found = next(one.outline for one in cross.placed if one.name == name).bounds
    assert (found[2] - found[0], found[3] - found[1]) == approx((high, wide), abs=0.01)
    bias = lay(garment, ClothRole.OUTER, 3000, HowLaid(lies=((name, Lie.BIAS),)))
    found = next(one.outline for one in bias.placed if one.name == name).bounds
    assert found[2] - found[0] == approx((wide + high) / 2**0.5, rel=0.002)
    assert bias.faults == cross.faults == ()


def test_the_selvedges_are_not_cloth_to_cut_from():
    """Trade 12: usable width = width − 2 selvedges."""
    assert width_of(Cloth(width=1500, selvedge=15), ClothRole.OUTER) == 1470
    assert width_of(Cloth(selvedge=10), ClothRole.INTERFACING) == 880


@pytest.mark.parametrize("name", list(RECIPES)[:: examples(3, 1)])
def test_on_the_fold_pairs_are_cut_double_and_halves_lie_on_it(name):
    garment = made(name)
    pieces = {one.name: garment.piece(one.piece.name) for one in cut_pieces(garment)}
    for role in roles_of(garment):
        for folded in (700.0, 450.0):
            for one_way in (False, True):
                cloth = lay(garment, role, 1400, HowLaid(folded=folded, one_way=one_way))
                assert cloth.faults == ()
                whole = []
                for one in cloth.placed:
                    left, foot, right, top = one.outline.bounds
                    assert foot >= -0.01
                    assert top <= cloth.length + 0.01
                    assert left >= -0.01
                    if one.layers is Layers.FLAT:
                        beside = left >= folded - 0.01 and right <= 1400 - folded + 0.01
                        assert beside or foot >= cloth.opened_from
                        assert right <= 1400.01
                    else:
                        assert right <= folded + 0.01
                    if one.layers is Layers.FOLD:
                        assert left == approx(0, abs=0.02)
                        assert (
                            apart(half_of(pieces[one.name]), at_corner(mirror_up(one))) < 0.002 * one.outline.area + 60
                        )
                    assert not (one_way and one.turned)
                    whole += one.name.split(" and ")
                for one, other in pairs(cloth.placed, 2):
                    assert one.outline.distance(other.outline) >= APART - 0.5, (one.name, other.name)
                missing = [one.name for one in (*cloth.too_wide, *cloth.joined)]
                laid = [one for one in whole if " of " not in one]
                wanted = [one.name for one in cut_pieces(garment) if one.cloth is role]
                assert sorted([*laid, *missing]) == sorted(wanted)


def half_of(piece):
    """The half as it is drawn, its fold upright on its left, by shapely alone."""
    shape = polygon(piece.cut_line, 0.4).buffer(0)
    fold = next(e for e in piece.edges if e.role.is_centre and e.allowance == 0).path
    turn = 90 - degrees(atan2(fold.end.y - fold.start.y, fold.end.x - fold.start.x))
    upright = rotate(shape, turn, origin=(fold.start.x, fold.start.y))
    upright = translate(upright, -fold.start.x, -fold.start.y)
    if upright.centroid.x < 0:
        upright = scale(upright, -1, 1, origin=(0, 0))
    start, end = piece.grain
    run = (end.x - start.x) * (fold.end.x - fold.start.x) + (end.y - start.y) * (fold.end.y - fold.start.y)
    return at_corner(scale(upright, 1, -1, origin=(0, 0)) if run < 0 else upright)


def mirror_up(placed):
    """A half on the fold the way up that its paper has: end for end it was turned over."""
    return scale(placed.outline, 1, -1, origin=(0, 0)) if placed.turned else placed.outline


def test_two_fold_pieces_and_a_pair_are_laid_as_they_are_by_hand():
    """A skirt on the fold in front and in two behind, 600 mm across its half: two layers of 700 take it twice."""
    garment = made("quarter-flare")
    flat, folded = (lay(garment, ClothRole.OUTER, 1400, how) for how in (HowLaid(), HowLaid(folded=700)))
    assert {one.layers for one in flat.placed} == {Layers.FLAT}
    on_fold = [one.name for one in folded.placed if one.layers is Layers.FOLD]
    assert on_fold == [one.name for one in cut_pieces(garment) if one.on_fold]
    assert folded.use == approx(flat.use * flat.length / folded.length, rel=0.01)


def test_what_is_cut_on_the_fold_does_not_reach_over_it():
    """A neckline that runs into the fold at a slant has its allowance cut off at the fold, and nothing beyond it."""
    for name in RECIPES:
        for piece in made(name).pieces:
            if piece.on_fold:
                fold = next(e for e in piece.edges if e.role.is_centre and e.allowance == 0).path
                way = fold.leaving
                beyond = [(place - fold.start).cross(way) for place in piece.cut_line.flatten(0.2)]
                assert min(beyond) > -0.05 or max(beyond) < 0.05, (name, piece.name, min(beyond), max(beyond))


def test_a_pin_of_a_piece_that_is_not_cut_any_more_is_said_and_holds_nothing():
    garment = made("gathered-yoke")
    name = lay(garment, ClothRole.OUTER, 1400).placed[0].name
    pins = (Pin(name, 300, 700), Pin("gore 17", 10, 10))
    laid = lay(garment, ClothRole.OUTER, 1400, HowLaid(pins=pins))
    assert [one.name for one in laid.placed if one.pinned] == [name]
    [gone] = laid.refused
    assert (gone.name, gone.why) == ("gore 17", Why.GONE)
    assert lay(garment, ClothRole.OUTER, 1400, HowLaid(pins=pins[:1])).refused == ()


def on_fold_of(name, **how):
    garment = make_up(read_recipe(json.loads(Path("examples", f"{name}.recipe.json").read_text())))
    return garment, lay(garment, ClothRole.OUTER, 1400, HowLaid(folded=how.pop("folded", 700), **how))


@pytest.mark.parametrize("name", ["mermaid-gown", "drafted-quarters", "jumpsuit"])
def test_what_is_pinned_on_folded_cloth_stays_and_the_rest_lie_round_it(name):
    """By hand: what is double may lie anywhere on the fold's half, what is on the fold only up and down it."""
    _, free = on_fold_of(name)
    double = next(one for one in free.placed if one.layers is Layers.DOUBLE)
    folds = [one for one in free.placed if one.layers is Layers.FOLD]
    pins = [Pin(double.name, 40.0, 2500.0)]
    pins += [Pin(folds[0].name, 555.0, 100.0)] if folds else []
    _, laid = on_fold_of(name, pins=tuple(pins))
    assert laid.faults == ()
    assert laid.refused == ()
    it = next(one for one in laid.placed if one.name == double.name)
    assert (it.pinned, it.from_selvedge, it.from_cut_end) == (True, approx(40.0), approx(2500.0))
    for one in laid.placed:
        if folds and one.name == folds[0].name:
            assert one.pinned
            assert one.from_selvedge == approx(0.0, abs=1e-6)  # a fold stays on the fold, whatever its pin says
            assert one.from_cut_end == approx(100.0)
    assert sorted(one.name for one in laid.placed) == sorted(one.name for one in free.placed)


def test_a_pin_across_the_opened_cloth_of_a_folded_lay_stays():
    garment, free = on_fold_of("slanting-neck", folded=300)
    single = [one for one in free.placed if one.layers is Layers.FLAT]
    assert single
    it = single[-1]
    pin = Pin(it.name, it.from_selvedge, it.from_cut_end + 100, it.turned)
    laid = lay(garment, ClothRole.OUTER, 1400, HowLaid(folded=300, pins=(pin,)))
    now = next(one for one in laid.placed if one.name == it.name)
    assert now.pinned
    assert (now.from_selvedge, now.from_cut_end) == (approx(pin.x), approx(pin.y))
    assert laid.faults == ()


def test_a_print_or_a_border_on_folded_cloth_is_refused_with_the_reason():
    _, laid = on_fold_of("mermaid-gown", over=(Over.SIDES, Over.CENTRES), border=True, repeat=Repeat(100, 50))
    assert [(one.name, one.why) for one in laid.refused] == [
        ("print over the side seams", Why.FOLDED), ("print over the centres", Why.FOLDED),
        ("hem on the border", Why.FOLDED),
    ]  # fmt: skip
    _, laid = on_fold_of("mermaid-gown", pins=(Pin("sail", 0, 0),))
    assert [(one.name, one.why) for one in laid.refused] == [("sail", Why.GONE)]
