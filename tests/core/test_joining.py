"""Pieces cut in one over a seam: what lies on either side is as it was, and what the seam did is done or refused."""

from math import hypot

import pytest
from pytest import approx

from dresses import SIDE_ZIP, made, recipe, refusal
from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.cutting.join import joined
from gentle_hem.core.dressed import Seen, drawn_dress
from gentle_hem.core.dressed.inks import Drawn
from gentle_hem.core.findings import Severity
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.joined import lights_up
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Edge, MarkKind, Notch, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Half, Section, What

PRINCESS, OVER_SIDE = {"kind": "princess"}, {"kind": "join"}
BELOW = {"kind": "straight", "length": 600}
PROPORTIONAL = {"kind": "proportional"}


def off_line(place, path):
    """How far a place lies beside the first segment of a path carried on, and how far along it."""
    along = (path.segments[0].end - path.segments[0].start).unit
    return along.cross(place - path.start), along.dot(place - path.start)


def test_a_side_panel_without_a_side_seam_keeps_its_waist_and_leaves_its_shaping_as_a_dart():
    """The dart is as wide as both edges lie away from the straight line under the arm that they share: by hand."""
    apart, one = (made(steps=steps, lower=BELOW) for steps in ([PRINCESS], [PRINCESS, OVER_SIDE]))
    front, back, panel = (
        apart.piece("bodice side front"), apart.piece("bodice side back"), one.piece("bodice side"),
    )  # fmt: skip
    assert {"bodice side front", "bodice side back"}.isdisjoint(piece.name for piece in one.pieces)
    assert (panel.cut, panel.on_fold) == (2, False)
    mine, theirs = front.edge("side").path.reversed(), back.edge("side").path
    (beside, along), (other, other_along) = (off_line(path.end, path) for path in (mine, theirs))
    [dart] = panel.darts_of("waist")
    assert dart.intake == approx(hypot(abs(beside) + abs(other), along - other_along), abs=0.3)
    waists = front.edge("waist").drawn_length, back.edge("waist").drawn_length
    assert dart.at == approx(waists[0], abs=0.01)
    assert panel.stitched_length("waist") == approx(sum(waists), abs=0.01)
    near, far = panel.dart_leg_paths(dart)
    assert near.length == approx(far.length, abs=0.3), "both legs are the same length of the seam that was"
    wedge = Path.joined((near, far.reversed(), Path.of(Line(far.start, near.start))))
    areas = front.seam_line.signed_area + back.seam_line.signed_area
    assert panel.seam_line.signed_area == approx(areas + abs(wedge.signed_area), rel=1e-3)


def test_a_side_that_bends_all_along_is_a_dart_from_where_it_has_parted():
    panel = made(steps=[PRINCESS, OVER_SIDE], bodice=PROPORTIONAL, lower=BELOW).piece("bodice side")
    [dart] = panel.darts
    tall = panel.seam_line.box[3] - panel.seam_line.box[1]
    assert 20 < dart.intake < 60
    near, far = panel.dart_leg_paths(dart)
    assert 0.2 * tall < near.length < 0.6 * tall
    assert abs(near.length - far.length) < 2.5


def test_the_waist_seam_is_the_same_one_and_meets_the_same_places():
    apart, one = (made(steps=steps, lower=BELOW) for steps in ([PRINCESS], [PRINCESS, OVER_SIDE]))
    was, now = (next(w for w in garment.seams if w.name == "waist seam") for garment in (apart, one))
    assert (now.length_a, now.length_b) == (approx(was.length_a), approx(was.length_b))
    assert now.seam.a.corners == was.seam.a.corners
    assert [stretch.piece.name for stretch in now.seam.a.stretches] == [
        "bodice centre front", "bodice side", "bodice side", "bodice centre back"
    ]  # fmt: skip
    assert "bodice side seam" not in {walked.name for walked in one.seams}
    assert len(one.seams) == len(apart.seams) - 1
    assert ("bodice side", 2) in [(cut.piece.name, 2) for cut in cut_pieces(one)]


def test_a_yoke_without_a_shoulder_seam_lies_on_the_fold_of_its_front():
    steps = [{"kind": "yoke", "on": "both", "depth": 110}]
    apart, one = (made(steps=more, lower=BELOW) for more in (steps, [*steps, {**OVER_SIDE, "seam": "shoulder"}]))
    yoke, parts = one.piece("yoke"), [apart.piece("front yoke"), apart.piece("back yoke")]
    assert (yoke.on_fold, yoke.cut, yoke.darts) == (True, 1, ())
    assert yoke.seam_line.signed_area == approx(sum(part.seam_line.signed_area for part in parts), rel=2e-3)
    lengths = {edge.name: edge.drawn_length for edge in yoke.edges}
    for edge in ("armhole", "neckline", "yoke"):
        assert lengths[edge] == approx(parts[0].edge(edge).drawn_length, abs=0.05)
        assert lengths[f"{edge} back"] == approx(parts[1].edge(edge).drawn_length, abs=0.8)
    assert not [mark for mark in yoke.marks if mark.kind is MarkKind.DART], "a shoulder is straight"
    assert len([walked for walked in one.seams if "shoulder" in walked.name]) == 0


def test_panels_cut_in_one_again_are_the_front_that_they_were_with_its_waist_dart():
    """A princess seam from the shoulder takes up the waist dart alone here: rejoined, the front has it again."""
    plain, again = (
        made(steps=steps, lower=BELOW)
        for steps in ([], [{**PRINCESS, "on": "front"}, {**OVER_SIDE, "seam": "princess", "on": "front"}])
    )
    was, now = plain.piece("bodice front"), again.piece("bodice front")
    assert now.seam_line.signed_area == approx(was.seam_line.signed_area, rel=3e-3)
    [before], [after] = was.darts_of("waist"), now.darts_of("waist")
    assert (after.at, after.intake) == (approx(before.at, abs=1.0), approx(before.intake, abs=1.0))
    assert now.stitched_length("waist") == approx(was.stitched_length("waist"), abs=0.5)


def test_a_straight_skirt_in_one_piece_has_its_side_darts_at_the_waist():
    one = made(steps=[{**OVER_SIDE, "part": "lower"}], lower=BELOW)
    skirt = one.piece("skirt")
    plain = made(steps=[], lower=BELOW)
    assert len(skirt.darts_of("waist")) == 5, "two in front, two behind, and what the side seam took in"
    for dart in skirt.darts:
        near, far = skirt.dart_leg_paths(dart)
        assert near.length == approx(far.length, abs=2.5), "each mouth is where its dart is"
        assert len(near.crossings(far)) == 1, "its legs meet at its point alone"
    waists = [plain.piece(f"skirt {half}").stitched_length("waist") for half in ("front", "back")]
    assert skirt.stitched_length("waist") == approx(sum(waists), abs=0.1)
    hems = [plain.piece(f"skirt {half}").edge("hem").drawn_length for half in ("front", "back")]
    assert [skirt.edge(name).drawn_length for name in ("hem", "hem back")] == [approx(hem, abs=0.05) for hem in hems]


def test_the_lining_is_cut_in_one_as_the_outer_is():
    one = made(steps=[PRINCESS, OVER_SIDE], lower=BELOW, finish={"lining": "whole"})
    names = {piece.name for piece in one.pieces}
    assert "bodice side lining" in names
    assert "bodice side front lining" not in names
    [dart] = one.piece("bodice side lining").darts
    assert dart.intake == approx(one.piece("bodice side").darts[0].intake)


def test_the_drawn_dress_shows_no_seam_that_is_not_sewn_and_stands_for_pieces_that_are_cut():
    asked = recipe(steps=[PRINCESS, OVER_SIDE], lower=BELOW)
    garment, apart = make_up(asked), make_up(recipe(steps=[PRINCESS], lower=BELOW))
    drawn, was = drawn_dress(asked, garment), drawn_dress(recipe(steps=[PRINCESS], lower=BELOW), apart)
    names = {piece.name for piece in garment.pieces}
    for seen in Seen:
        assert {ink.piece for ink in drawn.views[seen] if ink.piece} <= names

    def sides(dress):
        return [i for i in dress.views[Seen.SIDE] if i.drawn is Drawn.SEAM and i.edge == "side" and "bodice" in i.piece]

    assert sides(was)
    assert not sides(drawn)
    assert [level.girth for level in drawn.levels] == [approx(level.girth) for level in was.levels]


@pytest.mark.parametrize(
    ("why", "parts"),
    [
        ("The zip lies in the side seam", {"steps": [PRINCESS, OVER_SIDE], "opening": SIDE_ZIP}),
        ("both lie on the fold", {"steps": [{**OVER_SIDE, "seam": "shoulder"}], "opening": SIDE_ZIP}),
        ("one piece cannot lie as they do", {"steps": [PRINCESS, OVER_SIDE], "lower": {"kind": "gown"}}),
        ("one piece cannot lie as they do",
         {"steps": [{**OVER_SIDE, "part": "lower"}], "lower": {"kind": "a_line", "length": 600}}),
        ("has no princess seam", {"steps": [{**OVER_SIDE, "seam": "princess"}]}),
        ("Something is sewn into the side", {"steps": [{**OVER_SIDE, "part": "lower"}], "lower": BELOW,
                                             "trims": [{"kind": "seam_pocket"}]}),
        ("A dart of the bodice front opens on it",
         {"steps": [{"kind": "move_dart", "to": "side"}, OVER_SIDE]}),
    ],
)  # fmt: skip
def test_what_cannot_be_one_piece_is_refused_with_why(why, parts):
    found = refusal("step-not-done", **parts)
    assert why in found.text("cm")


def test_a_step_that_is_off_joins_nothing():
    plain, off = (
        make_up(recipe(steps=steps, lower=BELOW)) for steps in ([PRINCESS], [PRINCESS, {**OVER_SIDE, "off": True}])
    )
    assert plain.pieces == off.pieces
    assert off.seamed is None


def test_what_points_at_a_piece_points_at_the_one_it_is_in_now():
    """A warning of an edge of the side front has the side panel's name once the two are one."""
    garment = make_up(recipe(steps=[PRINCESS, OVER_SIDE], lower=BELOW))
    names = {piece.name for piece in garment.pieces}
    pointed = {place.piece for found in garment.findings for place in found.at if place.piece}
    assert pointed <= names
    assert not [found for found in garment.findings if found.severity is Severity.STOP]


def test_the_edges_of_both_keep_their_places_and_directions():
    one, apart = (made(steps=steps, lower=BELOW) for steps in ([PRINCESS, OVER_SIDE], [PRINCESS]))
    panel = one.piece("bodice side")
    assert panel.seam_line.is_closed
    for old, new, name in (("front", "princess", "princess"), ("back", "princess back", "princess")):
        was = apart.piece(f"bodice side {old}")
        assert panel.edge(new).drawn_length == approx(was.edge(name).drawn_length, abs=0.01)
        mine = [notch.at for notch in panel.notches if notch.edge == new]
        assert mine == [approx(notch.at, abs=0.01) for notch in was.notches if notch.edge == name]
    assert panel.grain == apart.piece("bodice side front").grain
    assert Point(*panel.edge("armhole").path.start).distance(panel.edge("armhole back").path.end) < 0.01


def box_of(half, long, wide=100.0):
    """A plain piece so long at its side; a front with its side on its right, a back on its left."""
    corners = [Point(0, 0), Point(wide, 0), Point(wide, long), Point(0, long)]
    names = ("waist", "side", "armhole", "centre") if half is Half.FRONT else ("waist", "centre", "armhole", "side")
    roles = {"waist": Role.WAIST, "side": Role.SIDE, "armhole": Role.ARMHOLE, "centre": Role.PANEL}
    edges = tuple(
        Edge(name, roles[name], Path.through(corners[k], corners[(k + 1) % 4]), 10.0) for k, name in enumerate(names)
    )
    notch = Notch("waist", 30.0)
    return Piece(What(Section.BODICE, half), edges, cut=2, notches=(notch,))


def test_by_hand_two_boxes_in_one_are_a_box_of_both_widths():
    a, b = box_of(Half.FRONT, 200), box_of(Half.BACK, 200, 60)
    made_of = joined(a, "side", b, "side", What(Section.BODICE))
    assert made_of.piece.seam_line.box == (approx(0), approx(0), approx(160), approx(200))
    assert [notch.edge for notch in made_of.piece.notches] == ["waist", "waist back"]
    assert {edge.name: edge.allowance for edge in made_of.piece.edges} == dict.fromkeys(
        ("waist", "armhole", "centre", "waist back", "armhole back", "centre back"), 10.0
    )
    assert made_of.became[b.what, "waist"].edge == "waist back"
    assert made_of.became[a.what, "side"] is None


def test_by_hand_edges_that_are_not_equally_long_are_eased_and_refused():
    with pytest.raises(CannotMake, match="eased onto the other"):
        joined(box_of(Half.FRONT, 200), "side", box_of(Half.BACK, 204), "side", What(Section.BODICE))


def test_by_hand_what_is_notched_beyond_the_dart_lies_beyond_it_on_the_edge_of_both():
    """The back's side leans 40 mm away over its lower half: a dart 40 mm wide opens on a waist of 100 + 40 + 60."""
    a, b = box_of(Half.FRONT, 200), box_of(Half.BACK, 200, 60)
    bent = Path.through(Point(0, 200), Point(0, 100), Point(40, 100 - 91.652))
    foot = Path.through(bent.end, Point(60, 0))
    edges = tuple(replace(e, path={"side": bent, "waist": foot}.get(e.name, e.path)) for e in b.edges)
    b = replace(b, edges=edges, notches=(Notch("waist", 5.0),))
    made_of = joined(a, "side", b, "side", What(Section.BODICE))
    [dart] = made_of.piece.darts
    mouth = Point(100, 0).distance(Point(140, 100 - 91.652))
    assert (dart.at, dart.intake) == (approx(100), approx(mouth, abs=0.01))
    assert made_of.piece.notches[-1].at == approx(100 + mouth + 5, abs=0.01)
    now = made_of.became[b.what, "waist"]
    assert (now.edge, now.start, now.long) == ("waist", approx(100 + mouth, abs=0.01), approx(foot.length))


def test_a_yoke_on_the_fold_behind_keeps_its_fold():
    """Opened in front, the front yoke is a pair and the back one lies on the fold."""
    steps = [{"kind": "yoke", "on": "both", "depth": 110}, {**OVER_SIDE, "seam": "shoulder"}]
    one = make_up(recipe(steps=steps, lower=BELOW, opening={"place": "centre_front", "below_waist": 150}))
    yoke = one.piece("yoke")
    assert (yoke.on_fold, yoke.cut) == (True, 1)
    assert yoke.fold.name == "centre back"
    assert yoke.fold_bends < 0.01


def test_by_hand_a_seam_that_turns_sharply_at_its_top_is_refused():
    """Laid together along the last 45 mm, the rest of the second would lie on the first."""
    a, b = box_of(Half.FRONT, 200), box_of(Half.BACK, 200)
    over = {
        "front": Path.through(Point(100, 0), Point(100, 180), Point(60, 160)),
        "back": Path.through(Point(40, 160), Point(0, 180), Point(0, 0)),
    }
    ends = {
        "front": Path.through(Point(60, 160), Point(0, 200)), "back": Path.through(Point(100, 200), Point(40, 160)),
    }  # fmt: skip
    a, b = (
        replace(one, edges=tuple(
            replace(e, path={"side": over[half], "armhole": ends[half]}.get(e.name, e.path)) for e in one.edges
        ))
        for one, half in ((a, "front"), (b, "back"))
    )  # fmt: skip
    with pytest.raises(CannotMake, match="cannot lie as they do"):
        joined(a, "side", b, "side", What(Section.BODICE))


def test_its_sentence_lights_up_the_pieces_that_it_made_and_no_others():
    asked = recipe(steps=[PRINCESS, OVER_SIDE], lower=BELOW)
    garment = make_up(asked)
    lit = lights_up(asked.steps[1], garment)
    assert {place.piece for place in lit} == {"bodice side"}
    assert {place.edge for place in lit} == {edge.name for edge in garment.piece("bodice side").edges}
    assert lights_up(asked.steps[1], make_up(recipe(steps=[PRINCESS], lower=BELOW))) == []
