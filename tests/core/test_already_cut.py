"""A lower part that is cut already: it stays as it was cut, and meets what it is sewn to by the ways of the rescue."""

from math import pi

import pytest
from pytest import approx

from combinations import COMBINATIONS, MEASURES
from conftest import FIGURE, a_recipe
from gentle_hem.core.fit import _cut_lower
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import NotchKind, Role
from gentle_hem.core.recipe import Recipe, changed, cut_now, not_cut
from gentle_hem.core.typing_over import Typed, typed_over
from gentle_hem.core.walk import WAIST_SEAM
from gentle_hem.core.what import Section


def waist(garment):
    return next(seam for seam in garment.seams if seam.name == WAIST_SEAM)


def below(garment):
    """How long each edge of each piece of the lower part is."""
    return {
        (piece.name, edge.name): edge.path.length for piece in below_pieces(garment) for edge in piece.edges
    }  # fmt: skip


def below_pieces(garment):
    return [piece for piece in garment.pieces if piece.what.section is not Section.BODICE]


def with_waist(recipe, by):
    """The recipe with the waist of its figure so much wider."""
    return changed(recipe, {"figure.measures.waist_girth": recipe.figure.measures["waist_girth"] + by})


def of_kind(lower, **rest):
    return Recipe.model_validate(
        {"figure": {"measures": FIGURE}, "bodice": {"kind": "quarters"}, "lower": lower, **rest}
    )


KINDS = [
    {"kind": "circle"}, {"kind": "circle", "fullness": 1.5}, {"kind": "high_low"}, {"kind": "handkerchief"},
    {"kind": "gored_circle"}, {"kind": "straight"}, {"kind": "a_line"}, {"kind": "gores"}, {"kind": "gathered"},
    {"kind": "pleated"}, {"kind": "tiered"}, {"kind": "peplum"}, {"kind": "trousers"},
]  # fmt: skip


@pytest.mark.parametrize("lower", KINDS, ids=lambda one: "-".join(map(str, one.values())))
def test_every_kind_stays_as_it_was_cut_and_follows_the_bodice_again_when_it_is_not(lower):
    recipe = of_kind(lower)
    before = below(make_up(recipe))
    cut = changed(recipe, cut_now(recipe))
    assert below(make_up(cut)) == before
    wider = with_waist(cut, 24)
    assert below(make_up(wider)) == before
    assert below(make_up(with_waist(recipe, 24))) != before
    assert not waist(make_up(wider)).verdict.fits
    again = changed(wider, not_cut(wider))
    assert again == with_waist(recipe, 24)


@pytest.mark.parametrize("by", [-20, 20])
@pytest.mark.parametrize("lower", KINDS, ids=lambda one: "-".join(map(str, one.values())))
def test_every_way_out_makes_it_meet_and_leaves_every_other_seam_walking(lower, by):
    recipe = of_kind(lower)
    off = with_waist(changed(recipe, cut_now(recipe)), by)
    ways = waist(make_up(off)).remedies
    assert ways
    assert not {"new-radius", "redraw"} & {way.code for way in ways}
    for way in ways:
        made = make_up(changed(off, way.changes))
        assert waist(made).verdict.fits, way.code
        assert [seam.name for seam in made.seams if not seam.verdict.fits] == [], way.code


def test_a_cut_circle_is_cut_lower_by_what_is_missing_over_its_sweep():
    """Handbook 9.1: lower too small by x, cut the circle's waist lower by x/θ. Worked by hand for a full circle whose
    waist is 24 mm too small: 24 ÷ 2π = 3.82 mm; the length is that much less and the hem the same.
    """
    recipe = of_kind({"kind": "circle", "sweep": 360, "length": 600})
    off = with_waist(changed(recipe, cut_now(recipe)), 24)
    [way] = [way for way in waist(make_up(off)).remedies if way.code == "cut-lower"]
    assert way.changes == {"join.down": approx(24 / (2 * pi), abs=0.01)}
    before, after = below(make_up(off)), below(make_up(changed(off, way.changes)))
    assert after["skirt front", "hem"] == before["skirt front", "hem"]
    assert before["skirt front", "side"] - after["skirt front", "side"] == approx(3.82, abs=0.01)


def test_a_cut_quarter_circle_too_big_is_stitched_nearer_its_edge_while_a_seam_is_left():
    """24 mm over a sweep of a half circle is 7.64 mm; an allowance of 15 mm leaves 7.36, one of 10 less than 6."""
    recipe = changed(of_kind({"kind": "circle", "sweep": 180, "length": 600}), {"allowances.waist": 15})
    off = with_waist(changed(recipe, cut_now(recipe)), -24)
    [way] = [way for way in waist(make_up(off)).remedies if way.code == "nearer-edge"]
    assert way.changes["join.down"] == approx(-24 / pi, abs=0.01)
    made = make_up(changed(off, way.changes))
    front = next(piece for piece in made.pieces if piece.name == "skirt front")
    assert front.edge("waist").allowance == approx(15 - 24 / pi, abs=0.01)
    as_cut = next(piece for piece in make_up(off).pieces if piece.name == "skirt front")
    # the edge that was cut is where it was: the stitching line has moved towards it
    assert front.cut_line.length == approx(as_cut.cut_line.length, abs=0.5)
    narrow = changed(of_kind({"kind": "circle", "sweep": 180, "length": 600}), {"allowances.waist": 10})
    off = with_waist(changed(narrow, cut_now(narrow)), -24)
    assert "nearer-edge" not in {way.code for way in waist(make_up(off)).remedies}


def test_its_numbers_are_refused_until_it_is_said_not_to_be_cut():
    recipe = a_recipe()
    cut = changed(recipe, cut_now(recipe))
    read = typed_over(cut, [Typed("lower.length", "50"), Typed("allowances.zip", "2")])
    assert read.recipe.lower.length == recipe.lower.length
    assert read.recipe.allowances.zip == 20
    assert [(one.path, one.text) for one in read.refused] == [
        ("lower.length", "The circle skirt is cut already, so its numbers stay as they are. Say first that it is not "
                         "cut after all."),
    ]  # fmt: skip
    free = typed_over(cut, [*(Typed(*one) for one in not_cut(cut).items()), Typed("lower.length", "50")])
    assert free.refused == ()
    assert free.recipe.lower.length == 500


def test_a_waist_that_stays_can_be_cut_lower_before_the_skirt_is_said_to_be_cut():
    recipe = a_recipe(lower={"kind": "circle", "sweep": 360, "seam": 600})
    over = 2 * waist(make_up(recipe)).open_difference
    [way] = [way for way in waist(make_up(recipe)).remedies if way.code == "cut-lower"]
    assert way.changes["join.down"] == approx(-over / (2 * pi), abs=0.01)


def test_a_skirt_too_short_to_be_cut_so_much_lower_is_left_and_says_so():
    recipe = changed(of_kind({"kind": "peplum"}), {"join.down": 300})
    garment = make_up(recipe)
    [found] = [one for one in garment.findings if one.code == "not-cut-lower"]
    assert found.remedies[0].changes == {"join.down": 0.0}
    assert below(garment) == below(make_up(changed(recipe, {"join.down": 0})))


def test_steps_done_before_it_was_cut_are_in_it_and_steps_done_since_come_on_top():
    steps = [{"kind": "let_out", "part": "lower", "edge": "side", "middle": 12}]
    recipe = of_kind({"kind": "straight"}, steps=steps)
    cut = changed(recipe, cut_now(recipe))
    assert cut.steps == ()
    assert below(make_up(cut)) == below(make_up(recipe))
    since = changed(cut, {"steps": [{"kind": "let_out", "part": "lower", "edge": "side", "middle": 5}]})
    assert below(make_up(since))["skirt front", "side"] > below(make_up(cut))["skirt front", "side"]
    assert changed(since, not_cut(since)).steps == (*since.steps, *recipe.steps)


@pytest.mark.parametrize("name", [name for name, one in COMBINATIONS.items() if one["lower"]["kind"] != "gown"])
def test_a_combination_said_to_be_cut_is_the_same_garment(name):
    recipe = Recipe.model_validate({"figure": {"measures": MEASURES}, **COMBINATIONS[name]})
    before, after = make_up(recipe), make_up(changed(recipe, cut_now(recipe)))
    assert {p.what: p.cut_line.length for p in after.pieces} == approx(
        {p.what: p.cut_line.length for p in before.pieces}
    )


def zip_below_waist(garment):
    """How far along the centre back below the waist the zip ends, of the lower part."""
    [(piece, notch)] = [
        (p, n) for p in garment.pieces for n in p.notches
        if n.kind is NotchKind.ZIP_END and p.what.section is not Section.BODICE
    ]  # fmt: skip
    waist = next(edge for edge in piece.edges if edge.role is Role.WAIST)
    path = piece.edge(notch.edge).path
    corner = min((waist.path.start, waist.path.end), key=lambda p: min(p.distance(path.start), p.distance(path.end)))
    return notch.at if corner.distance(path.start) < 0.1 else path.length - notch.at


@pytest.mark.parametrize("kind", ["straight", "circle", "pleated", "trousers"])
@pytest.mark.parametrize("down", [0, 25])
def test_the_zip_ends_as_far_below_the_waist_however_much_lower_it_is_cut(kind, down):
    recipe = of_kind({"kind": kind}, join={"down": down}, opening={"below_waist": 180})
    assert zip_below_waist(make_up(recipe)) == approx(180, abs=3)


def test_the_dress_is_as_much_shorter_as_its_waist_is_cut_lower():
    """A zip of 190 mm in a peplum of 200 opens through its hem once its waist is cut 15 mm lower."""
    recipe = of_kind({"kind": "peplum", "length": 200}, opening={"below_waist": 190})
    codes = [{one.code for one in make_up(changed(recipe, {"join.down": by})).findings} for by in (0, 15)]
    assert "zip-longer-than-part" not in codes[0]
    assert "zip-longer-than-part" in codes[1]


def test_marks_lie_where_they_lay_on_the_cloth():
    for kind in ("straight", "gores", "circle"):
        for piece in below_pieces(make_up(of_kind({"kind": kind}))):
            lower = _cut_lower(piece, 25)
            places = {n: lower.edge(n.edge).path.point_at(n.at) for n in lower.notches if n.edge != "waist"}
            before = [piece.edge(n.edge).path.point_at(n.at) for n in piece.notches if n.edge != "waist"]
            for notch, place in places.items():
                if notch.kind is not NotchKind.ZIP_END:
                    assert min(place.distance(one) for one in before) < 0.01, (piece.name, notch)


def test_a_knot_that_was_cut_is_not_knotted_again_by_a_step_done_since():
    recipe = Recipe.model_validate({"figure": {"measures": MEASURES}, **COMBINATIONS["knotted"]})
    cut = changed(recipe, cut_now(recipe))
    since = {"kind": "let_out", "part": "lower", "on": "back", "edge": "side", "middle": 5}
    later = changed(cut, {"steps": [*(step.model_dump(mode="json") for step in cut.steps), since]})
    garments = make_up(cut), make_up(later)
    cut_codes, later_codes = ({one.code for one in garment.findings} for garment in garments)
    assert later_codes - cut_codes <= {"seam-trued"}
    before, after = (below(garment) for garment in garments)
    changed_now = {edge for edge in before if after[edge] != approx(before[edge])}
    assert ("skirt back", "side") in changed_now
    assert {edge for _, edge in changed_now} == {"side"}


def test_no_way_out_draws_anew_what_is_cut():
    """A bodice that ends in a point over a straight skirt offers a circle instead, until the skirt is cut."""
    recipe = of_kind({"kind": "straight"}, steps=[{"kind": "ends"}])
    ways = [
        {path.partition(".")[0] for found in make_up(one).findings for way in found.remedies for path in way.changes}
        for one in (recipe, changed(recipe, cut_now(recipe)))
    ]
    assert "lower" in ways[0]
    assert "lower" not in ways[1]
