"""Left and right made apart: what is asked of one side alone changes that side, and nothing of the other."""

import pytest
from pydantic import ValidationError
from pytest import approx
from shapely import LineString, Polygon

from dresses import made, recipe
from gentle_hem.core.cut import Side, cut_pieces
from gentle_hem.core.dressed import Seen, drawn_dress
from gentle_hem.core.dressed.inks import Drawn
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import NotchKind
from gentle_hem.core.recipe import changed
from gentle_hem.core.steps.base import acted_on

NECK = {"kind": "neckline", "shape": "v", "depth": 180, "aside": 30, "toward": "right"}
TAKEN_IN = {"kind": "let_out", "on": "both", "middle": -12}
BELOW = {"kind": "a_line", "length": 600}


def stops(garment):
    return [finding for finding in garment.findings if finding.severity is Severity.STOP]


def half_turned(path, names):
    """Places of some edges of a whole piece, turned over about the middle of its front."""
    return sorted((round(-x, 3), round(y, 3)) for name in names for x, y in path(name))


def places(piece):
    return lambda name: [(spot.x, spot.y) for spot in (piece.edge(name).path.start, piece.edge(name).path.end)]


def test_a_v_is_lowest_beside_the_centre_and_crosses_it_where_a_ruler_would():
    """By hand: the long side is straight from below the far shoulder to the point, so at the centre it stands at
    depth × neck ÷ (neck + aside) below the shoulder.
    """
    plain = made(steps=[]).piece("bodice front")
    n = plain.edge("shoulder").path.end
    front = made(steps=[NECK]).piece("bodice front")
    low = min((spot for spot in front.edge("neckline other").path.flatten(0.1)), key=lambda spot: spot.y)
    assert (low.x, low.y) == (approx(-30, abs=0.01), approx(n.y - 180, abs=0.01))
    centre = front.edge("neckline").path.end
    assert centre.x == approx(0, abs=1e-6)
    assert n.y - centre.y == approx(180 * n.x / (n.x + 30), abs=0.5)
    assert front.edge("neckline other").path.start == centre
    assert not front.on_fold
    assert front.cut == 1


@pytest.mark.parametrize("shape", ["v", "round", "scoop"])
def test_the_other_way_is_the_same_turned_over(shape):
    one, other = (
        made(steps=[{**NECK, "shape": shape, "toward": way}, {"kind": "facing"}]) for way in ("left", "right")
    )
    for name in ("bodice front", "front neck facing"):
        mine, theirs = one.piece(name), other.piece(name)
        plain = [edge.name for edge in mine.edges if not edge.name.endswith("other")]
        assert half_turned(places(mine), plain) == [
            (approx(x, abs=0.01), approx(y, abs=0.01))
            for x, y in sorted((round(x, 3), round(y, 3)) for name in plain for x, y in places(theirs)(f"{name} other"))
        ], name
    assert stops(one) == stops(other) == []


@pytest.mark.parametrize("side", ["left", "right"])
def test_one_side_is_as_if_both_were_asked_and_the_other_as_if_nothing_was(side):
    plain, both = (made(steps=steps, lower=BELOW) for steps in ([], [TAKEN_IN]))
    one = made(steps=[{**TAKEN_IN, "side": side}], lower=BELOW)
    asked, left_alone = (" other", "") if side == "right" else ("", " other")
    front = one.piece("bodice front")
    assert front.edge(f"side{asked}").drawn_length == approx(both.piece("bodice front").edge("side").drawn_length)
    assert front.edge(f"side{left_alone}").drawn_length == approx(plain.piece("bodice front").edge("side").drawn_length)
    assert front.seam_line.signed_area == approx(
        both.piece("bodice front").seam_line.signed_area + plain.piece("bodice front").seam_line.signed_area
    )
    for name, whose in ((f"bodice back{asked}", both), (f"bodice back{left_alone}", plain)):
        mine = one.piece(name)
        assert [edge.path for edge in mine.edges] == [edge.path for edge in whose.piece("bodice back").edges], name
        assert mine.turned_over is name.endswith("other")
    assert [edge.name for edge in one.piece("skirt front").edges] == [
        edge.name for edge in plain.piece("skirt front").edges
    ]
    assert one.piece("skirt front").on_fold, "what hangs from both is cut as before"
    assert stops(one) == []


def test_what_is_cut_is_one_of_each_and_says_whose_it_is():
    one = made(steps=[{**TAKEN_IN, "side": "left"}], lower=BELOW)
    cut = {(thing.piece.name, thing.side) for thing in cut_pieces(one) if thing.piece.section == "bodice"}
    assert cut == {
        ("bodice front", Side.WHOLE), ("bodice back", Side.LEFT), ("bodice back other", Side.RIGHT)
    }  # fmt: skip
    assert "the right one" in one.piece("bodice back other").remark
    assert "right side up" in one.piece("bodice front").remark


def test_every_seam_of_either_side_is_walked():
    one = made(steps=[{**TAKEN_IN, "side": "left"}, {"kind": "facing"}], lower=BELOW, finish={"lining": "whole"})
    names = {walked.name for walked in one.seams}
    assert {"bodice side seam", "bodice side seam, right", "waist seam", "waist seam, right"} <= names
    assert all(walked.verdict.fits for walked in one.seams)
    sides = {walked.name: walked for walked in one.seams}
    assert abs(sides["bodice side seam"].length_a - sides["bodice side seam, right"].length_a) > 0.5
    there = {(piece.what, edge.name) for piece in one.pieces for edge in piece.edges}
    assert {(s.piece, s.edge) for walked in one.seams for s in walked.seam.stretches} <= there
    assert one.piece("bodice front lining").edge("side other").drawn_length == approx(
        one.piece("bodice front").edge("side other").drawn_length
    )


def test_what_does_not_meet_at_the_centre_is_said_with_a_way_out_that_works():
    low = {"kind": "hollow", "edge": "neckline", "side": "left", "on": "front"}
    asked = recipe(steps=[{**NECK, "aside": 0, "side": "left"}, low])
    garment = make_up(asked)
    [found] = [one for one in garment.findings if one.code == "sides-do-not-go-together"]
    assert "bodice front" in found.text("cm")
    [way] = found.remedies
    assert stops(make_up(changed(asked, way.changes))) == []


def test_what_can_only_be_done_on_both_sides_refuses_one():
    with pytest.raises(ValidationError, match="on both sides alike"):
        recipe(steps=[{"kind": "twist", "side": "left"}])


def test_the_side_is_said_beside_front_and_back():
    [step] = recipe(steps=[{**TAKEN_IN, "side": "right"}]).steps
    assert ", on {side}" in step.sentences[0]
    assert step.words["side"].say(step.side, "cm") == "her right alone"
    [neck] = recipe(steps=[NECK]).steps
    assert "lowest" in neck.sentences[1]


def test_a_gown_cut_in_one_is_made_apart_down_to_its_hem():
    gown = {"kind": "gown", "length": 1000}
    plain, both = (made(steps=steps, lower=gown) for steps in ([], [{**TAKEN_IN, "share": 0.4}]))
    one = made(steps=[{**TAKEN_IN, "share": 0.4, "side": "right"}], lower=gown)
    front = one.piece("gown front")
    assert front.edge("hem").drawn_length == approx(plain.piece("gown front").edge("hem").drawn_length)
    assert front.edge("side other").drawn_length == approx(both.piece("gown front").edge("side").drawn_length)
    assert stops(one) == []


def test_the_drawn_dress_shows_the_side_that_it_is_on():
    """The front is seen as it faces us: her right lies at the left of the picture."""
    asked = recipe(steps=[{**NECK, "depth": 200, "aside": 40}])
    garment = make_up(asked)
    [cloth] = [
        Polygon(ink.spots) for ink in drawn_dress(asked, garment).views[Seen.FRONT]
        if ink.drawn is Drawn.CLOTH and ink.piece == "bodice front"
    ]  # fmt: skip
    over_right, over_left = (
        cloth.intersection(LineString([(x, 0), (x, 2000)])).bounds[3] for x in (-40, 40)
    )  # fmt: skip
    assert over_right < over_left - 40


@pytest.mark.parametrize("shape", ["sweetheart", "square"])
def test_a_neck_that_is_alike_by_its_nature_says_so(shape):
    [found] = [one for one in make_up(recipe(steps=[{**NECK, "shape": shape}])).findings if one.code == "step-not-done"]
    assert "alike on both sides" in found.text("cm")


def test_a_drawn_skirt_is_as_wide_as_both_its_sides_are_together():
    """Half of what it is with both sides let out, and half of what it is with none."""
    let_out = {**TAKEN_IN, "part": "lower", "middle": 15}

    def hip(*steps):
        asked = recipe(steps=list(steps), lower=BELOW)
        return next(level.girth for level in drawn_dress(asked, make_up(asked)).levels if level.name == "hip")

    none, both, one = hip(), hip(let_out), hip({**let_out, "side": "right"})
    assert both > none + 20
    assert one == approx((none + both) / 2, abs=1)


@pytest.mark.parametrize("lower", [BELOW, {"kind": "circle", "length": 600}, {"kind": "tiered"}])
def test_what_hangs_from_two_unlike_sides_is_drawn_as_before(lower):
    plain, one = (recipe(steps=steps, lower=lower) for steps in ([], [{**TAKEN_IN, "side": "left"}]))
    before, after = ({x.name: x for x in drawn_dress(asked, make_up(asked)).levels} for asked in (plain, one))
    assert before.keys() == after.keys() >= {"waist", "hem"}
    for name in ("waist", "hem"):
        assert after[name].girth == approx(before[name].girth, rel=0.005)
        assert after[name].height == approx(before[name].height, abs=5)


def test_the_zip_of_two_unlike_sides_is_drawn_once():
    asked = [recipe(steps=steps, lower=BELOW) for steps in ([], [{**TAKEN_IN, "side": "left"}])]
    before, after = (
        [ink.drawn for ink in drawn_dress(one, make_up(one)).views[Seen.BACK]].count(Drawn.ZIP) for one in asked
    )
    assert before == after > 0


@pytest.mark.parametrize(
    ("side", "lit"),
    [
        ("left", {("bodice front", "side"), ("bodice back", "side")}),
        ("right", {("bodice front", "side other"), ("bodice back other", "side")}),
    ],
)
def test_a_sentence_lights_the_edges_of_its_own_side(side, lit):
    asked = recipe(steps=[{**TAKEN_IN, "side": side}])
    assert {(place.piece, place.edge) for place in acted_on(asked.steps[0], make_up(asked).pieces)} == lit
    neck = recipe(steps=[NECK])
    places = acted_on(neck.steps[0], make_up(neck).pieces)
    assert {place.edge for place in places} == {"neckline", "neckline other"}


def begins(garment, run):
    """The place at which a run begins."""
    stretch = run.stretches[0]
    path = garment.piece(stretch.piece.name).edge(stretch.edge).path
    if stretch.backwards:
        return path.end if stretch.end is None else path.point_at(stretch.end)
    return path.point_at(stretch.start)


@pytest.mark.parametrize("name", ["bodice side seam, right", "bodice shoulder seam, right", "skirt side seam, right"])
def test_both_edges_of_a_right_seam_are_sewn_from_the_same_end(name):
    one = made(steps=[{**TAKEN_IN, "side": "left"}, {**TAKEN_IN, "part": "lower", "side": "left"}], lower=BELOW)
    seam = next(walked.seam for walked in one.seams if walked.name == name)
    other = next(walked.seam for walked in one.seams if walked.name == name.removesuffix(", right"))
    for run, mirror in ((seam.a, other.a), (seam.b, other.b)):
        here, there = begins(one, run), begins(one, mirror)
        assert (abs(here.x), here.y) == (approx(abs(there.x), abs=15), approx(there.y, abs=15))


def test_part_of_an_edge_is_the_same_part_of_it_on_the_right():
    rings = {"kind": "seam_rings", "part": "lower", "on": "front", "edge": "side", "first": 0.3, "last": 0.8}
    one = made(steps=[{**TAKEN_IN, "part": "lower", "side": "left"}], lower=BELOW, trims=[rings])
    sides = {walked.name: walked.seam.a.stretches[0] for walked in one.seams if "ruffle ring seam" in walked.name}
    left, right = sides["ruffle ring seam"], sides["ruffle ring seam, right"]
    front = one.piece("skirt front")
    assert right.edge == "side other"
    for a, b in (("start", "end"), ("end", "start")):
        here, there = (front.edge(s.edge).path.point_at(getattr(s, which)) for s, which in ((left, a), (right, b)))
        assert (here.x, here.y) == (approx(-there.x, abs=20), approx(there.y, abs=8))
    marked = sorted(n.at for n in front.notches if n.edge == "side other" and n.kind is NotchKind.OPEN)
    assert marked == [approx(right.start), approx(right.end)]


def test_the_centre_seam_of_a_pair_cut_apart_joins_its_left_to_its_right():
    one = made(steps=[{**TAKEN_IN, "side": "left"}], lower=BELOW)
    [centre] = [
        w.seam for w in one.seams if w.name == "bodice back centre back seam" or w.name == "bodice centre back seam"
    ]
    assert [run.stretches[0].piece.name for run in (centre.a, centre.b)] == ["bodice back", "bodice back other"]


@pytest.mark.parametrize("steps", [[NECK], [{**TAKEN_IN, "side": "left"}], [NECK, {**TAKEN_IN, "side": "right"}]])
def test_a_front_of_two_cloths_may_differ_left_from_right_as_well(steps):
    """Cut apart for its cloths already: each half is then the one its own side asks for, and its cloth stays."""
    apart = {"steps": [{"kind": "centre_seam", "on": "front"}], "trims": [{"kind": "two_cloths", "on": "front"}]}
    plain = made(**apart, lower=BELOW)
    one = made(**{**apart, "steps": [*apart["steps"], *steps]}, lower=BELOW)
    names = {walked.name for walked in one.seams}
    assert {walked.name for walked in plain.seams} <= names
    left, right = (one.piece(name) for name in ("bodice front", "bodice front other"))
    assert (left.cut, right.cut, right.turned_over) == (1, 1, True)
    assert (left.cloth, right.cloth) == (plain.piece("bodice front").cloth, plain.piece("bodice front other").cloth)
    assert left.remark == "the left one"
    assert right.remark == "the right one: lay the paper turned over"
    changed_edge = "neckline" if steps[0] is NECK else "side"
    lengths = [piece.edge(changed_edge).drawn_length for piece in (left, right)]
    assert abs(lengths[0] - lengths[1]) > 0.5


PRINCESS = {"kind": "princess"}


@pytest.mark.parametrize("side", ["left", "right"])
def test_a_princess_seam_on_one_side_cuts_that_side_as_it_would_cut_both(side):
    """The one half is the panels that a dress with both would have, the other the uncut front and back."""
    plain, both = (made(steps=steps, lower=BELOW) for steps in ([], [PRINCESS]))
    one = made(steps=[{**PRINCESS, "side": side}], lower=BELOW)
    cut, uncut = (" other", "") if side == "right" else ("", " other")
    names = {piece.name for piece in one.pieces}
    assert {f"bodice side front{cut}", f"bodice side back{cut}", "bodice front", f"bodice back{cut}"} < names
    assert not {f"bodice side front{uncut}", f"bodice side back{uncut}", "bodice centre front"} & names
    front, centre, side_front = (
        one.piece("bodice front"), both.piece("bodice centre front"), one.piece(f"bodice side front{cut}"),
    )  # fmt: skip
    assert front.edge(f"princess{cut}").drawn_length == approx(centre.edge("princess").drawn_length)
    assert front.edge(f"side{uncut}").drawn_length == approx(plain.piece("bodice front").edge("side").drawn_length)
    assert front.seam_line.signed_area == approx(
        plain.piece("bodice front").seam_line.signed_area + centre.seam_line.signed_area
    )
    assert (side_front.cut, side_front.turned_over) == (1, side == "right")
    assert side_front.seam_line.signed_area == approx(both.piece("bodice side front").seam_line.signed_area)
    titles = {walked.name for walked in one.seams}
    sewn = ", right" if side == "right" else ""
    assert {f"front princess seam{sewn}", f"back princess seam{sewn}", "bodice back centre back seam"} <= titles
    assert len([name for name in titles if "princess" in name]) == 2


def test_what_one_side_is_cut_in_is_drawn_on_that_side_alone():
    one = recipe(steps=[{**PRINCESS, "side": "left"}], lower=BELOW)
    drawn = drawn_dress(one, make_up(one)).views[Seen.FRONT]
    lines = [ink for ink in drawn if "princess" in ink.edge]
    assert lines
    assert all(min(x for x, _ in ink.spots) > 0 for ink in lines), "her left lies to the right of one who looks at her"


def test_the_drawn_waist_is_as_long_round_where_one_side_is_in_panels():
    one, plain = recipe(steps=[{**PRINCESS, "side": "left"}], lower=BELOW), recipe(steps=[], lower=BELOW)
    girths = [
        {level.name: level.girth for level in drawn_dress(asked, make_up(asked)).levels} for asked in (one, plain)
    ]
    for name in ("waist", "bust"):
        assert girths[0][name] == approx(girths[1][name], rel=0.01), name


def test_a_yoke_on_one_side_meets_the_other_down_the_centre_as_one_seam():
    """The left is a yoke and what is below it; together they are as long down the centre as the right in one."""
    one = made(steps=[{"kind": "yoke", "on": "back", "depth": 110, "side": "left"}], lower=BELOW)
    plain = made(steps=[], lower=BELOW).piece("bodice back").edge("centre back").drawn_length
    [seam] = [walked for walked in one.seams if walked.name.endswith("centre back seam") and "bodice" in walked.name]
    assert [stretch.piece.name for stretch in seam.seam.a.stretches] == ["back yoke", "bodice back"]
    assert [stretch.piece.name for stretch in seam.seam.b.stretches] == ["bodice back other"]
    assert (seam.length_a, seam.length_b) == (approx(plain, abs=0.5), approx(plain, abs=0.5))


def test_a_yoke_over_a_fold_on_one_side_is_refused_and_goes_once_there_is_a_seam():
    yoke = {"kind": "yoke", "on": "front", "side": "left"}
    garment = make_up(recipe(steps=[yoke], lower=BELOW))
    [found] = [one for one in garment.findings if one.code == "sides-do-not-go-together"]
    assert "put a seam down the centre" in found.text("cm")
    one = made(steps=[{"kind": "centre_seam"}, yoke], lower=BELOW)
    assert {"front yoke", "bodice front", "bodice front other"} <= {piece.name for piece in one.pieces}


def test_lines_cut_each_side_where_it_is_asked():
    left = {"kind": "line", "start": "neckline", "end": "armhole", "side": "left"}
    right = {"kind": "line", "start": "shoulder", "end": "waist", "side": "right"}
    one = made(steps=[{"kind": "facing"}, left, right], lower=BELOW, finish={"lining": "whole"})
    alone = {
        way["side"]: made(steps=[{"kind": "facing"}, {**way, "side": "both"}], lower=BELOW) for way in (left, right)
    }
    for name, whose in (("bodice side front", "left"), ("bodice side front other", "right")):
        mine = one.piece(name).seam_line.signed_area
        assert mine == approx(alone[whose].piece("bodice side front").seam_line.signed_area), name
    assert one.piece("front neck facing").cut == 1


def test_what_went_wrong_on_the_right_is_said_where_the_two_do_not_go_together():
    steps = [{"kind": "line", "start": "shoulder", "end": "waist", "side": "right"}, {"kind": "facing"}]
    codes = {found.code: found.text("cm") for found in make_up(recipe(steps=steps, lower=BELOW)).findings}
    assert "sides-do-not-go-together" in codes
    assert codes["step-not-done"].startswith("On her right: ")


def test_a_line_that_would_leave_the_piece_is_refused_in_words():
    """A straight line from the shoulder to the side runs over the hollow of the armhole."""
    [found] = [one for one in make_up(recipe(steps=[{"kind": "line"}])).findings if one.code == "step-not-done"]
    assert "over the armhole" in found.text("cm")
    made(steps=[{"kind": "line", "bow": -30}])


TOP = {"kind": "top", "top": "one_shoulder"}


@pytest.mark.parametrize("opening", ["side", "centre_back"])
@pytest.mark.parametrize("side", ["left", "right"])
def test_one_side_of_a_one_shoulder_dress_is_taken_in_by_itself(side, opening):
    """What is taken off both sides is what is taken off the one and what is taken off the other."""
    parts = {"lower": {"kind": "straight", "length": 600}, "opening": {"place": opening, "below_waist": 180}}
    plain, both = (made(steps=steps, **parts) for steps in ([TOP], [TAKEN_IN, TOP]))
    one, other = (
        made(steps=[{**TAKEN_IN, "side": way}, TOP], **parts) for way in (side, "left" if side == "right" else "right")
    )

    def area(garment):
        return sum(piece.seam_line.signed_area for piece in garment.pieces if piece.what.section == "bodice")

    assert area(one) + area(other) == approx(area(plain) + area(both), rel=1e-4)
    front = one.piece("bodice front")
    asked, alone = ("side other", "side") if side == "right" else ("side", "side other")
    assert front.edge(asked).drawn_length == approx(both.piece("bodice front").edge(asked).drawn_length)
    assert front.edge(alone).drawn_length == approx(plain.piece("bodice front").edge(alone).drawn_length)
    assert front.seam_line.is_closed
    assert {walked.name for walked in one.seams} == {walked.name for walked in plain.seams}


def test_a_dart_of_one_side_of_a_one_shoulder_front_is_narrowed_alone():
    parts = {"lower": BELOW, "opening": {"place": "side", "below_waist": 180}}
    front = made(steps=[{"kind": "waist_dart", "narrower": 6, "side": "right"}, TOP], **parts).piece("bodice front")
    [left], [right] = front.darts_of("waist"), front.darts_of("waist other")
    assert left.intake - right.intake == approx(6, abs=0.2)
    assert front.edge("waist").drawn_length - front.edge("waist other").drawn_length == approx(6, abs=0.2)


def test_a_skirt_of_two_sides_hangs_from_either_side_of_a_one_shoulder_bodice():
    steps = [TOP, {**TAKEN_IN, "part": "lower", "side": "left"}]
    one = made(steps=steps, lower=BELOW, opening={"place": "centre_back", "below_waist": 180})
    waists = {walked.name: walked for walked in one.seams if walked.name.startswith("waist seam")}
    assert list(waists) == ["waist seam", "waist seam, other side"]
    for name, walked in waists.items():
        edges = {(stretch.piece.name, stretch.edge) for stretch in walked.seam.stretches}
        on_right = ("bodice front", "waist other") in edges
        assert on_right is name.endswith("other side")
        assert (("skirt front", "waist other") in edges) is on_right


def test_what_is_done_to_a_piece_that_is_whole_already_says_on_which_side():
    below = {"lower": BELOW, "opening": {"place": "side", "below_waist": 180}}
    both, right = (make_up(recipe(steps=[TOP, {**TAKEN_IN, "side": way}], **below)) for way in ("both", "right"))
    [said] = [found for found in both.findings if found.code == "done-on-her-left"]
    assert said.at[0].recipe == "steps.1"
    assert "before what opens the piece out" in said.text("cm")
    assert "move it before that" in next(f for f in right.findings if f.code == "step-not-done").text("cm")
    before = make_up(recipe(steps=[TAKEN_IN, TOP], **below))
    assert "done-on-her-left" not in {found.code for found in before.findings}


def test_a_one_shoulder_neck_is_not_held_against_the_head():
    garment = make_up(recipe(steps=[TOP], lower=BELOW, opening={"place": "side", "below_waist": 180}))
    assert "neck-does-not-pass-head" not in {found.code for found in garment.findings}
