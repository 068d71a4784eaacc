"""The choices of taste: each moves what it says by what it says, and nothing that is sewn (trade 4.1, 4.5, 6, 8).

Numbers are worked out here; the drafts are looked at before truing, which is tested on its own.
"""

from math import hypot

import pytest
from pytest import approx

from conftest import FIGURE
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.marking import pleat_lines
from gentle_hem.core.pattern import NotchKind, Role
from gentle_hem.core.recipe import Recipe, changed
from gentle_hem.core.units import Unit, inches

FRAMED = ["quarters", "quarters_cm", "two_lengths", "body_length"]
drafted_only = pytest.mark.usefixtures("as_drafted")


def made(school, words=None, figure=None, **rest):
    return make_up(
        Recipe.model_validate(
            {
                "figure": {"measures": FIGURE | (figure or {})},
                "bodice": {"kind": school, **(words or {})},
                "lower": {"kind": "circle", "sweep": 270},
                **rest,
            }
        )
    )


def edge(garment, half, name):
    return garment.piece(f"bodice {half}").edge(name).path


def across_at_hollow(garment, half):
    """Half the width of a bodice where its armhole comes in most."""
    return min(abs(place.x) for place in edge(garment, half, "armhole").flatten(0.05))


def dart(garment, half):
    [one] = garment.piece(f"bodice {half}").darts_of("waist")
    return one


@drafted_only
@pytest.mark.parametrize("school", FRAMED)
def test_the_armhole_comes_in_as_asked_in_front_and_behind(school):
    usual, asked = made(school), made(school, {"front_hollow": 30, "back_hollow": 4})
    half_shoulder = FIGURE["shoulder_width"] / 2
    assert across_at_hollow(asked, "front") == approx(half_shoulder - 30, abs=1.5)
    assert across_at_hollow(asked, "back") == approx(half_shoulder - 4, abs=1.5)
    assert across_at_hollow(usual, "front") > across_at_hollow(asked, "front") + 5
    assert asked.joins[0].upper.length == approx(usual.joins[0].upper.length, abs=1e-6)


@drafted_only
@pytest.mark.parametrize("school", [*FRAMED, "proportional"])
@pytest.mark.parametrize("lower", [-20, 25])
def test_the_armhole_level_is_raised_and_lowered(school, lower):
    usual, asked = (edge(made(school, words), "front", "armhole").start for words in ({}, {"armhole_lower": lower}))
    assert asked.y == approx(usual.y - lower, abs=1e-6)


@drafted_only
def test_the_armhole_is_measured_from_the_bust_point():
    asked = made("quarters", {"armhole_rule": "above_bust", "above_bust": 62})
    assert edge(asked, "front", "armhole").start.y == approx(-(FIGURE["shoulder_to_bust_point"] - 62))


@drafted_only
@pytest.mark.parametrize("school", FRAMED)
def test_the_shoulder_tip_goes_out_on_both_halves_alike(school):
    usual, asked = made(school), made(school, {"shoulder_out": 12})
    assert abs(edge(asked, "front", "shoulder").start.x) == approx(FIGURE["shoulder_width"] / 2 + 12, abs=0.6)
    lengths = [edge(garment, half, "shoulder").length for garment in (usual, asked) for half in ("front", "back")]
    assert lengths[0] == approx(lengths[1])
    assert lengths[2] == approx(lengths[3])
    assert lengths[2] > lengths[0] + 11


@drafted_only
@pytest.mark.parametrize("school", FRAMED)
def test_the_back_neck_has_a_width_of_its_own_and_the_shoulders_still_meet(school):
    asked = made(school, {"neck_width": 70, "back_neck_width": 84})
    assert abs(edge(asked, "front", "neckline").start.x) == approx(70)
    assert abs(edge(asked, "back", "neckline").end.x) == approx(84)
    assert edge(asked, "front", "shoulder").length == approx(edge(asked, "back", "shoulder").length)


@drafted_only
@pytest.mark.parametrize("school", [*FRAMED, "proportional"])
def test_waist_darts_stand_end_and_share_as_asked(school):
    words = {"front_dart_at": 88, "back_dart_at": 74, "dart_share": 0.35, "dart_short": 42}
    usual, asked = made(school), made(school, words)
    front, back = dart(asked, "front"), dart(asked, "back")
    assert front.apex.x == approx(88)
    assert abs(back.apex.x) == approx(74)
    point = FIGURE["shoulder_to_bust_point"]
    assert front.apex.y == approx(-(point + 42))
    near, far = asked.piece("bodice front").dart_legs(front)
    assert hypot(near.x - front.apex.x, near.y - front.apex.y) == approx(hypot(*(far - front.apex)))
    assert (front.apex.x - near.x) / front.intake == approx(0.35, abs=1e-6)
    for half in ("front", "back"):
        assert asked.piece(f"bodice {half}").stitched_length("waist") == approx(
            usual.piece(f"bodice {half}").stitched_length("waist"), abs=0.02
        )


@drafted_only
@pytest.mark.parametrize("school", FRAMED)
def test_the_back_dart_may_go_up_to_the_chest_line(school):
    asked = made(school, {"back_dart_top": "chest"})
    assert dart(asked, "back").apex.y == approx(edge(asked, "back", "armhole").end.y)
    assert dart(asked, "front").apex.y < dart(asked, "back").apex.y


@drafted_only
def test_the_bust_dart_goes_to_its_point_or_stops_short_of_it():
    for short in (0, 40):
        [side] = made("two_lengths", {"bust_dart_short": short}).piece("bodice front").darts_of("side")
        assert side.apex.x == approx(FIGURE["bust_span"] / 2 + short)


@drafted_only
def test_the_proportional_armhole_and_back_shoulder_dart_are_as_asked():
    asked = made("proportional", {"back_across": -4, "back_shoulder_long": 65, "shoulder_out": 9},
                 figure={"across_back": 370, "shoulder_length": 125})  # fmt: skip
    assert across_at_hollow(asked, "back") == approx(370 / 2 - 4, abs=1.0)
    [shoulder] = asked.piece("bodice back").darts_of("shoulder")
    near, far = asked.piece("bodice back").dart_legs(shoulder)
    assert hypot(*(near.towards(far, 0.5) - shoulder.apex)) == approx(65, abs=0.5)
    assert asked.piece("bodice front").stitched_length("shoulder") == approx(134, abs=0.05)


@pytest.mark.parametrize("school", [*FRAMED, "proportional"])
def test_any_choice_of_taste_still_walks(school):
    words = {"armhole_lower": 15, "shoulder_out": -10, "front_dart_at": 92, "back_dart_at": 85, "dart_share": 0.6}
    if school != "proportional":
        words |= {"back_neck_width": 82, "back_dart_top": "chest"}
    garment = made(school, words)
    assert [f.code for f in garment.findings if f.severity is Severity.STOP] == []
    assert all(walked.verdict.fits for walked in garment.seams)


@pytest.mark.parametrize("wide", [30, 70])
def test_facings_are_as_wide_as_asked(wide):
    garment = made("quarters", style={"facing": "faced", "facing_width": wide})
    for half in ("front", "back"):
        facing = garment.piece(f"{half} neck facing")
        assert facing.edge("shoulder").drawn_length == approx(wide, abs=0.05)


def sleeved(**words):
    return made("two_lengths", trims=[{"kind": "sleeve", "cap_ease": 30, **words}])


def test_a_cap_is_as_high_as_asked_and_the_sleeve_as_wide_as_it_leaves():
    usual, high, low = sleeved(), sleeved(cap_height=150), sleeved(cap_height=110)
    tops = [max(p.y for p in g.piece("sleeve").edge("cap front").path.flatten(0.1)) for g in (high, low)]
    assert tops == approx([150, 110], abs=0.01)
    wide = [g.piece("sleeve").seam_line.box[2] - g.piece("sleeve").seam_line.box[0] for g in (high, usual, low)]
    assert wide[0] < wide[2]
    for garment in (high, low):
        for walked in garment.seams:
            if walked.seam.name.endswith("cap"):
                assert walked.length_b - walked.length_a == approx(15, abs=0.05)


def test_a_cap_that_leaves_no_room_for_the_arm_is_a_stop_with_a_way_out():
    [said] = [f for f in sleeved(cap_height=190).findings if f.code in ("sleeve-too-tight", "cap-too-high")]
    assert said.severity is Severity.STOP
    assert {"cap-too-high"} == {f.code for f in sleeved(cap_height=250).findings if f.code.startswith("cap-")}


@pytest.mark.parametrize("style", ["plain", "puff"])
def test_the_cap_is_eased_or_gathered_above_its_notches_only(style):
    """Common practice: below the notches the cap is as long as the armhole; a puff is gathered in the head."""
    garment = sleeved(style=style)
    sleeve = garment.piece("sleeve")
    for half, cap in (("front", "cap front"), ("back", "cap back")):
        bodice = garment.piece(f"bodice {half}")
        [hole] = [n for n in bodice.notches if n.edge == "armhole" and n.kind is NotchKind.BALANCE]
        long = bodice.edge("armhole").drawn_length
        from_underarm = hole.at if half == "front" else long - hole.at
        path = sleeve.edge(cap).path
        at_cap = [n for n in sleeve.notches if n.edge == cap and n.at > 1]
        assert len(at_cap) == 1
        assert (path.length - at_cap[0].at if half == "front" else at_cap[0].at) == approx(from_underarm, abs=0.01)
        assert at_cap[0].double == (half == "back")
    assert [n.at for n in sleeve.notches if n.landmark == "shoulder"] == [0.0]


def trousers(**words):
    return made("quarters", lower={"kind": "trousers", **words}, opening={"place": "side", "below_waist": 180})


def test_the_crotch_is_one_curve_in_front_behind_and_over_the_inside_leg():
    for words in ({}, {"school": "thigh"}, {"hip_ease": 30, "crotch_ease": 20}):
        garment = trousers(**words)
        angles = []
        for half, name in (("front", "centre front"), ("back", "centre back")):
            piece = garment.piece(f"trouser {half}")
            path = piece.edge(name).path
            assert all(abs(turn) < 0.5 for turn in path.turns), "no corner where the line becomes a curve"
            leg = piece.edge("inside leg").path
            # from the fork: along the crotch, and down the leg
            along = path.reversed().leaving if half == "front" else path.leaving
            down = leg.leaving if half == "front" else leg.reversed().leaving
            angles.append(abs(down.angle - along.angle))
        assert sum(min(a, 2 * 3.141592653589793 - a) for a in angles) == approx(3.141592653589793, abs=0.01)


def test_the_crease_runs_down_the_middle_of_knee_and_hem():
    garment = trousers(hem_round=400, knee_round=460)
    for half, further in (("front", -1), ("back", 1)):
        piece = garment.piece(f"trouser {half}")
        crease = piece.grain[0].x
        hem = piece.edge("hem").path
        assert (hem.start.x + hem.end.x) / 2 == approx(crease, abs=0.5)
        assert hem.start.distance(hem.end) == approx((400 + further * inches(1.5)) / 2, abs=0.5)
        # the knee is where the legs' last straight lines end
        knees = []
        for name in ("inside leg", "side"):
            [notch] = [n for n in piece.notches if n.edge == name and n.kind is NotchKind.BALANCE][:1]
            knees.append(piece.edge(name).path.point_at(notch.at))
        assert knees[0].y == approx(knees[1].y, abs=4)
        assert abs(knees[0].x - knees[1].x) == approx((460 + further * inches(1.5)) / 2, abs=3)


def test_a_front_fork_that_cannot_be_sewn_is_drawn_longer_and_said():
    """From memory: a front fork is a sixteenth to a twentieth of the hip; less than a twenty-fifth is none."""
    garment = made("quarters", figure={"hip_girth": 990, "thigh_girth": 560},
                   lower={"kind": "trousers", "school": "thigh"}, opening={"place": "side"})  # fmt: skip
    [said] = [f for f in garment.findings if f.code in ("short-front-fork", "no-front-fork")]
    front = garment.piece("trouser front")
    fork = -min(place.x for place in front.edge("centre front").path.flatten(0.1))
    assert fork == approx(990 / 25, abs=0.1)
    assert said.values["least"] == approx(990 / 25)
    assert any(edge.role is Role.CENTRE_FRONT for edge in front.edges)


def test_a_full_bust_with_a_big_armhole_is_said_with_ways_out_that_make_it_smaller():
    full = {"bust_girth": 1220, "waist_girth": 880, "front_waist_length": 490, "back_waist_length": 425,
            "shoulder_to_bust_point": 310, "shoulder_width": 390, "bust_span": 230, "shoulder_length": 125}  # fmt: skip
    recipe = Recipe.model_validate(
        {"figure": {"measures": full}, "bodice": {"kind": "proportional"}, "lower": {"kind": "circle"}}
    )
    garment = make_up(recipe)
    [said] = [f for f in garment.findings if f.code == "armhole-too-large"]
    hole = sum(garment.piece(f"bodice {half}").stitched_length("armhole") for half in ("front", "back"))
    assert said.values["hole"] == approx(hole)
    assert hole > 0.52 * 1220
    for way in said.remedies:
        again = make_up(changed(recipe, way.changes))
        assert sum(
            p.stitched_length(e.name) for p in again.pieces for e in p.edges if e.role is Role.ARMHOLE
        ) < hole - 5, way.code  # fmt: skip
    assert not [f for f in made("proportional").findings if f.code == "armhole-too-large"]


def test_a_princess_line_is_rounded_by_the_cup():
    """Worked out here: a third of what the bust is more than the under-bust, 26 and 66 mm."""
    lengths = []
    for under in (FIGURE["bust_girth"] - 78, FIGURE["bust_girth"] - 198):
        garment = made("two_lengths", figure={"under_bust_girth": under}, panels={"front_princess": "shoulder"})
        path = garment.piece("bodice side front").edge("princess").path
        # tightest where the bust is, and the tighter the smaller the cup
        lengths.append(max(abs(s.bend(k / 20)) for s in path if hasattr(s, "bend") for k in range(21)))
    assert lengths[0] > 1.5 * lengths[1]


def test_a_tent_falls_straight_from_the_underarm_and_its_hem_is_level():
    garment = made("quarters", lower={"kind": "gown", "length": 560, "sides": "underarm", "hem_in": -140},
                   opening={"place": "centre_back", "below_waist": 200})  # fmt: skip
    assert [f.code for f in garment.findings if f.severity is Severity.STOP] == []
    for half in ("front", "back"):
        piece = garment.piece(f"gown {half}")
        side = piece.edge("side").path
        underarm = max((side.start, side.end), key=lambda place: place.y)
        foot = min((side.start, side.end), key=lambda place: place.y)
        assert side.length == approx(underarm.distance(foot), abs=0.01), "straight"
        centre = piece.edge(f"centre {half}").path
        low = min(centre.start.y, centre.end.y)
        # no longer at the side than straight down from the underarm to the level of the centre's foot
        assert side.length == approx(underarm.y - low, abs=1.0)
        assert piece.darts == ()
        assert not [m for m in piece.marks if m.kind.value == "double-pointed dart"]


def test_a_tent_says_where_a_side_dart_is_to_go_first():
    garment = made("two_lengths", lower={"kind": "gown", "sides": "underarm"})
    assert any(f.severity is Severity.STOP and "side" in f.text(Unit.CM) for f in garment.findings)


@pytest.mark.parametrize(("style", "arrows"), [("knife", 1), ("box", 2), ("inverted", 2)])
def test_pleats_have_their_lines_along_the_grain_and_the_way_they_are_laid(style, arrows):
    garment = made("quarters", lower={"kind": "pleated", "style": style})
    front = garment.piece("skirt front")
    for pleat in front.darts:
        lines = list(pleat_lines(front, pleat))
        near, far, *rest = lines
        for line in (near, far):
            assert line.start.x == approx(line.end.x, abs=1e-6), "along the grain"
            assert line.length == approx(60, abs=1e-6)
        assert near.start.distance(far.start) == approx(pleat.intake)
        assert len(rest) == 2 * arrows
        if style == "knife":  # laid toward the centre, which is at x = 0
            assert rest[0].end.x < rest[0].start.x
