"""Fifteen garments that bring together what is seldom on one dress: each made whole, and its own numbers worked out
here by hand. Rules of the trade are named; what is marked *common practice* is a fact of the trade.
"""

import copy
import time
from itertools import pairwise
from math import asin, degrees, hypot, pi, radians

import pytest
from pytest import approx

import combinations as made_of
from combinations import COMBINATIONS, MEASURES
from conftest import FIGURE
from dresses import lengths, seam, worked
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.fault import FAULT
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Finished, MarkKind, NotchKind, Role
from gentle_hem.core.recipe import Recipe
from readers import polygon

CORNER_SAID = {"laced"}
"""A basque's waist turns a corner at the side, which is said."""


def recipe(combination, **changes):
    """A combination with some of its words changed, as they stand in its description."""
    data = copy.deepcopy({"figure": {"measures": MEASURES}, **combination})
    for path, value in changes.items():
        *parents, last = path.split(".")
        at = data
        for key in parents:
            at = at[int(key)] if isinstance(at, list) else at.setdefault(key, {})
        at[last] = value
    return Recipe.model_validate(data)


def made(combination, **changes):
    return make_up(recipe(combination, **changes))


@pytest.mark.parametrize("name", COMBINATIONS)
def test_every_combination_is_made_whole_and_every_seam_walks(name):
    garment = made(COMBINATIONS[name])
    assert [f.code for f in garment.findings if f.severity is Severity.STOP or f.code == FAULT] == []
    assert [s.name for s in garment.seams if not s.verdict.fits] == []
    shape = {"turns-a-corner", "dart-legs-differ", "notches-do-not-meet"}
    assert not shape & {f.code for f in garment.findings} or name in CORNER_SAID
    sewn = {(x.piece, x.edge) for s in garment.seams for x in s.seam.stretches}
    for piece in garment.pieces:
        assert polygon(piece.seam_line).is_valid, piece.name
        for edge in piece.edges:
            assert edge.allowance == 0 or (piece.what, edge.name) in sewn or edge.finished, (piece.name, edge.name)


def path(garment, piece, edge):
    return garment.piece(piece).edge(edge).path


# 1


def test_a_one_shoulder_jumpsuit_is_as_deep_on_its_bare_side_as_asked():
    garment = made(made_of.ONE_SHOULDER_JUMPSUIT)
    plain = made(made_of.ONE_SHOULDER_JUMPSUIT, **{"style.top": "shoulders"})
    kept, bare = path(garment, "bodice front", "side"), path(garment, "bodice front", "side other")
    assert kept.length - bare.length == approx(30, abs=0.5)
    # its neck side is set off the neck
    assert path(garment, "bodice front", "shoulder").length == approx(
        path(plain, "bodice front", "shoulder").length, abs=0.1
    )
    as_drafted = made(made_of.ONE_SHOULDER_JUMPSUIT, **{"style.top": "shoulders", "style.wider": 0})
    short = path(as_drafted, "bodice front", "shoulder").length - path(plain, "bodice front", "shoulder").length
    assert short == approx(20, abs=0.1)
    # the wedge at the centre is closed and leaves the front one piece, cut once
    front = garment.piece("bodice front")
    assert (front.cut, front.on_fold) == (1, False)
    assert not any(edge.role is Role.CENTRE_FRONT for edge in front.edges)
    # the zip's slant: ¾ in at the waist
    back = plain.piece("bodice back").edge("centre back").path
    assert abs(back.end.x - back.start.x) == approx(19.05)


def test_a_bare_side_deeper_than_its_seam_is_refused():
    garment = made(made_of.ONE_SHOULDER_JUMPSUIT, **{"style.bare_below": 240})
    assert any(f.code == "step-not-done" for f in garment.findings)


# 2


def test_a_peplum_inserted_under_a_blouse_of_eight_panels():
    garment = made(made_of.PEPLUM_BLOUSE)
    panels = [p for p in garment.pieces if p.what.is_outer_upper()]
    assert sum(p.cut for p in panels) == 8
    for half in ("front", "back"):
        # a full circle each: r = (waist + 2j) ÷ 2π, its own for front and back; darts are the panels' seams
        waist = 2 * sum(
            m.path.length for p in panels if p.what.half == half for m in p.marks if m.name.startswith("waist line")
        )
        assert worked(garment, f"{half} waist, whole") == approx(waist)
        assert worked(garment, f"{half} seam radius") == approx((waist + 20) / (2 * pi))
        seam_line, inner = lengths(garment, f"inserted peplum {half} seam")
        assert (seam_line, inner) == (approx(waist / 2), approx(waist / 2, abs=0.01))
    # the waist of the whole blouse, on its own level: its girth and the school's ease of 1 in
    whole = sum(worked(garment, f"{half} waist, whole") for half in ("front", "back"))
    assert whole == approx(FIGURE["waist_girth"] + 25.4, abs=9)
    # it shows below the blouse
    assert approx(50) == 200 - 150


def test_a_blouse_as_long_as_its_peplum_hides_it():
    garment = made(made_of.PEPLUM_BLOUSE, **{"lower.length": 190})
    assert any(f.code == "peplum-hidden" for f in garment.findings)


def test_puff_sleeves_are_drawn_in_by_elastic_at_the_upper_arm():
    garment = made(made_of.PEPLUM_BLOUSE)
    assert worked(garment, "elastic, each sleeve") == approx(MEASURES["upper_arm_girth"] * 0.95)
    # its casing: the elastic, 4 mm of ease, 8 mm turned in
    assert garment.piece("sleeve").edge("hem").allowance == approx(8 + 4 + 8)


# 3


def test_an_empire_dress_with_folds_flap_pockets_and_a_front_zip():
    garment = made(made_of.EMPIRE)
    plain = make_up(recipe({**made_of.EMPIRE, "steps": [], "trims": []}))
    # a shoulder let out 15 and raised 8 for a pad, front and back
    for half, sign in (("front", 1), ("back", -1)):
        end = "end" if half == "front" else "start"
        before, after = (getattr(path(g, f"bodice {half}", "armhole"), end) for g in (plain, garment))
        assert ((after.x - before.x) * sign, after.y - before.y) == (approx(15, abs=0.6), approx(8, abs=0.6))
    # the dart over the midriff stays a fold
    darts = garment.piece("bodice front").darts_of("waist")
    assert [dart.pleat for dart in darts] == [True]
    # the sleeve is drafted from this armhole, 25 mm eased
    for half in ("front", "back"):
        hole, cap = lengths(garment, f"sleeve {half} cap")
        assert cap - hole == approx(12.5, abs=0.05)
    # zip: both fronts and the midriff are pairs at the centre front
    fronts = [p for p in garment.pieces if any(e.role is Role.CENTRE_FRONT for e in p.edges)]
    assert len(fronts) == 3
    assert all(not p.on_fold for p in fronts)
    # panels: the skirt's line runs along its dart
    darts = [sum(len(p.darts_of("waist")) for p in g.pieces if p.what.section == "skirt") for g in (plain, garment)]
    assert darts[0] - darts[1] == 2
    assert lengths(garment, "pocket flap seam") == (approx(96), approx(96))


def test_under_the_bust_the_fold_and_the_dart_take_what_the_measure_leaves():
    """Trade 4.4: what the pattern has there beyond a quarter of the girth under the bust."""
    garment = made(made_of.EMPIRE)
    midriff = [garment.piece(f"{half} midriff").edge("under bust").path.length for half in ("front", "back")]
    above = [garment.piece(f"bodice {half}").stitched_length("waist") for half in ("front", "back")]
    assert midriff == [approx(above[0], abs=1.5), approx(above[1], abs=1.5)]
    assert midriff[0] == approx(FIGURE["under_bust_girth"] / 4, abs=1.5)


# 4


def test_an_off_shoulder_dress_with_its_cape_walked_span_and_all():
    garment = made(made_of.OFF_SHOULDER)
    cape = garment.piece("cape")
    # half the girth round both arms, the ½ in of allowance left out again
    assert cape.edge("top").path.length == approx(MEASURES["off_shoulder_girth"] / 2)
    front, back = (lengths(garment, f"cape seam, {half}") for half in ("front", "back"))
    assert front[0] == approx(front[1])
    assert back[0] == approx(back[1])
    span = MEASURES["off_shoulder_girth"] / 2 - front[0] - back[0]
    assert worked(garment, "free over each arm") == approx(span)
    # faced there: as long as the span
    assert lengths(garment, "cape facing seam") == (approx(span), approx(span))


def test_its_back_is_lowered_at_the_centre_and_its_dart_shared_unequally():
    garment = made(made_of.OFF_SHOULDER)
    level = made(made_of.OFF_SHOULDER, **{"steps.2.off": True})
    drop = [path(g, "bodice back", "centre back").length for g in (level, garment)]
    assert drop[0] - drop[1] == approx(25, abs=0.05)
    # 35 % of the dart's intake on the centre's side of the line under the bust point
    block = make_up(Recipe.model_validate({"figure": {"measures": MEASURES}, "bodice": made_of.OFF_SHOULDER["bodice"],
                                           "lower": {"kind": "straight"}}))  # fmt: skip
    front = block.piece("bodice front")
    [dart] = front.darts_of("waist")
    near, far = front.dart_legs(dart)
    assert (front.bust_point.x - near.x) / (far.x - near.x) == approx(0.35, abs=0.01)


# 5


def test_crossed_straps_have_ends_shaped_to_the_edge_they_lie_on():
    garment = made(made_of.CROSSED_STRAPS)
    strap = garment.piece("strap")
    for half, name in (("front", "end"), ("back", "start")):
        above, under = lengths(garment, f"strap to the gown {half}")
        # the folded end is as long as the slant over the width: w ÷ sin of the angle between strap and edge
        slant = strap.edge(name).path.length / 2
        assert (above, under) == (approx(slant), approx(slant))
        assert slant >= 35 - 1e-6
    back = strap.edge("start").path
    across = abs(back.segments[0].end.x - back.segments[0].start.x)
    assert back.length / 2 == approx(hypot(35, across))
    angle = degrees(asin(35 / (back.length / 2)))
    assert 30 < angle < 80  # it crosses the back
    # as long down its middle as a square one
    square = made(made_of.CROSSED_STRAPS, **{"style.strap_ends": "square"}).piece("strap")
    middle = [min(e.x for e in p.edge("end").path.flatten(1)) / 2 + max(e.x for e in p.edge("end").path.flatten(1)) / 2
              for p in (strap, square)]  # fmt: skip
    assert middle[0] == approx(middle[1])


def test_rings_along_its_sides_stop_short():
    garment = made(made_of.CROSSED_STRAPS)
    side = garment.piece("gown front").edge("side").path.length
    assert lengths(garment, "side ruffle ring seam")[0] == approx(side - 76)
    assert worked(garment, "seam radius") == approx((2 * (side - 76) / 6 + 20) / (2 * pi))


# 6


def test_a_knotted_dress_is_opened_by_nine_inches_in_bodice_and_skirt():
    garment, plain = made(made_of.KNOTTED), made(made_of.KNOTTED, **{"steps.0.off": True})
    for name in ("bodice front", "skirt front"):
        before = plain.piece(name)
        grown = path(garment, name, "centre front").length - path(plain, name, "centre front").length
        darts = sum(d.intake * _reach(before, d) for d in before.darts_of("waist"))
        assert 228.6 <= grown <= 228.6 + 2.2 * darts + 0.2
        assert garment.piece(f"{name} lining").on_fold
        assert path(garment, f"{name} lining", "centre front").length == approx(
            path(plain, f"{name} lining", "centre front").length, abs=0.2
        )


def _reach(piece, dart):
    """How much wider a dart's angle opens at the centre than at the waist, at most."""
    near, _ = piece.dart_legs(dart)
    return max(1.0, abs(dart.apex.x) / near.distance(dart.apex))


# 7


def test_a_halters_collar_rises_in_front_and_is_square_there():
    garment = made(made_of.HALTER)
    collar = garment.piece("stand collar")
    neck = sum(path(garment, f"bodice {half}", "neckline").length for half in ("front", "back"))
    edge, end, top = (path(garment, "stand collar", name) for name in ("neck edge", "front end", "top"))
    assert edge.length == approx(neck, abs=0.1)
    assert edge.start.y - edge.end.y == approx(25)
    assert end.length == approx(38)
    # square end: the front end stands at a right angle on the neck edge
    assert abs(end.arriving.dot(edge.leaving)) < 0.01
    # the back seam leans in by 6 over its height; its allowance is the zip's
    back = path(garment, "stand collar", "centre back")
    assert (back.start.x - back.end.x, back.length) == (approx(6), approx(hypot(6, 38)))
    assert (collar.edge("centre back").allowance, collar.cut) == (15, 4)
    assert top.length < edge.length


def test_its_armhole_runs_from_the_shoulder_to_below_the_underarm_and_on_over_both_seams():
    garment = made(made_of.HALTER)
    plain = made(made_of.HALTER, **{"steps": []})
    for half in ("front", "back"):
        piece = garment.piece(f"bodice {half}")
        left = path(garment, f"bodice {half}", "shoulder").length / path(plain, f"bodice {half}", "shoulder").length
        assert left == approx(0.35, abs=0.01)
        side = path(garment, f"bodice {half}", "side").length / plain.piece(f"bodice {half}").stitched_length("side")
        assert side == approx(0.92, abs=0.01)
        assert piece.edge("armhole").role is Role.ARMHOLE
    [vent] = [m for m in garment.piece("skirt back").marks if m.kind is MarkKind.FOLD]
    assert vent.path.length == approx(228.6)  # 9 in
    slope = path(garment, "skirt back", "vent top")
    assert slope.start.y != approx(slope.end.y)


# 8


def test_a_princess_bodice_laced_to_its_basque_behind():
    garment = made(made_of.LACED)
    laced = path(garment, "bodice centre back", "laced edge")
    assert max(abs(laced.start.x), abs(laced.end.x)) == approx(38)
    loops = [m for m in garment.piece("bodice centre back").marks if m.kind is MarkKind.LOOP]
    assert len(loops) == round(laced.length / 15)
    assert lengths(garment, "back lacing strip seam") == (approx(laced.length), approx(laced.length))
    # a yoke on the side panel, its seam bowed by 8
    [yoke] = [p for p in garment.pieces if p.what.panel == "yoke"]
    [line] = [e for e in yoke.edges if e.role in (Role.YOKE, Role.PANEL) and e.name == "line"]
    middle = line.path.start.towards(line.path.end, 0.5)
    assert line.path.point_at(line.path.length / 2).distance(middle) == approx(8, abs=0.3)
    # the basque's point lies 10 cm below the waist's level
    front = garment.piece("bodice centre front")
    waist = front.edge("waist").path
    point = min(waist.start.y, waist.end.y)
    shoulder = max(e.path.box[3] for e in front.edges if e.role is Role.SHOULDER)
    assert shoulder - point == approx(FIGURE["front_waist_length"] + 100, abs=12)


# 9


def test_a_button_through_dress_has_its_waist_seam_midway_between_two_buttons():
    """Trade 11: equal spaces, a waist seam midway between two; buttonhole = diameter + thickness."""
    garment = made(made_of.BUTTON_THROUGH)
    bodice, skirt = garment.piece("bodice front"), garment.piece("skirt front")
    above = sorted(m.path.start.y for m in bodice.marks if m.kind is MarkKind.BUTTONHOLE)
    below = sorted((m.path.start.y for m in skirt.marks if m.kind is MarkKind.BUTTONHOLE), reverse=True)
    space = above[1] - above[0]
    foot = next(m for m in bodice.marks if m.kind is MarkKind.CENTRE).path
    top = next(m for m in skirt.marks if m.kind is MarkKind.CENTRE).path
    assert above[0] - min(foot.start.y, foot.end.y) == approx(space / 2, abs=0.5)
    assert max(top.start.y, top.end.y) - below[0] == approx(space / 2, abs=0.5)
    assert [a - b for a, b in pairwise(below)] == approx([space] * (len(below) - 1), abs=0.01)
    hole = next(m for m in bodice.marks if m.kind is MarkKind.BUTTONHOLE)
    assert hole.path.length == approx(18 + 3)
    # stand and facing alike in bodice and skirt
    for piece in (bodice, skirt):
        assert path(garment, piece.name, "stand foot").length == approx(25, abs=0.1)
    assert lengths(garment, "pocket flap seam") == (approx(146), approx(146))


# 10


def test_a_panel_gown_with_a_roll_collar_a_godet_behind_and_sleeve_slits():
    garment = made(made_of.PANEL_GOWN)
    neck = 2 * sum(
        e.path.length for p in garment.pieces if p.what.is_outer_upper() for e in p.edges if e.role is Role.NECKLINE
    )
    roll = garment.piece("roll collar")
    assert roll.edge("edge").path.length == approx(neck)
    assert roll.edge("end").path.length == approx(4 * 45)  # from memory: four times the finished height
    assert roll.edge("end").allowance == 15  # the zip's own
    # one godet at the centre back: two straight sides of 40 cm, 90° of hem
    godet = garment.piece("godet")
    assert godet.cut == 1
    hem = next(e for e in godet.edges if e.role is Role.HEM)
    assert hem.path.length == approx(radians(90) * 400, abs=0.5)
    # the back's dart is 8 narrower, and the waist as long as before
    wide = made(made_of.PANEL_GOWN, **{"steps.0.off": True})
    widths = []
    for one in (wide, garment):
        back = one.piece("gown back")
        [dart] = [m for m in back.marks if m.kind is MarkKind.DART]
        box = dart.path.box
        widths.append(box[2] - box[0])
    assert widths[0] - widths[1] == approx(8, abs=0.05)
    slit = next(m for m in garment.piece("sleeve").marks if m.name == "slit")
    assert slit.path.length == approx(90)
    # three loops a sleeve: 2 × (12 + 3) and 1 cm at each end
    assert worked(garment, "loop strip") == approx(2 * 3 * 50)


# 11


def test_a_pinafore_adds_up_from_the_shoulder_to_the_hem():
    """Trade 5: the band's width counts: bodice to the band, band to the skirt."""
    garment = made(made_of.PINAFORE)
    front = garment.piece("bodice front")
    shoulder = max(e.path.box[3] for e in front.edges if e.role is Role.SHOULDER)
    neck = path(garment, "bodice front", "centre front")
    down = shoulder - min(neck.start.y, neck.end.y)
    band = path(garment, "waistband front", "centre front").length
    skirt = path(garment, "skirt front", "centre front").length
    as_drafted = made(made_of.PINAFORE, **{"style.wider": 0})
    whole = max(e.path.box[3] for e in as_drafted.piece("bodice front").edges if e.role is Role.SHOULDER)
    assert whole - min(neck.start.y, neck.end.y) == approx(FIGURE["front_waist_length"], abs=0.5)
    assert down < FIGURE["front_waist_length"]  # set off the neck, it begins lower down the shoulder
    assert band == approx(40)
    assert skirt == approx(620, abs=0.5)
    hole = sum(path(garment, f"bodice {half}", "armhole").length for half in ("front", "back"))
    assert lengths(garment, "bias binding seam") == (approx(hole), approx(hole))
    [end] = {n.at for p in garment.pieces for n in p.notches if n.kind is NotchKind.SLIT_END and p.what.half == "front"}
    side = garment.piece("skirt front").edge("side").path
    assert end in (approx(260), approx(side.length - 260))


# 12


def test_a_net_yoke_and_a_flounce_taken_at_the_cut_line():
    garment = made(made_of.NET_YOKE)
    yokes = [p for p in garment.pieces if p.what.panel == "yoke"]
    assert {p.cloth for p in yokes} == {ClothRole.CONTRAST}
    assert len(yokes) == 2
    for p in yokes:
        line = next(e for e in p.edges if e.role is Role.YOKE)
        middle = line.path.start.towards(line.path.end, 0.5)
        assert line.path.point_at(line.path.length / 2).distance(middle) == approx(20, abs=0.6)
    # the gown is drafted to its whole length and cut off: the ruffle's base is the sweep where it is cut
    sweep = 2 * sum(
        e.path.length for p in garment.pieces if p.what.is_outer_upper() for e in p.edges if e.name == "hem"
    )
    assert worked(garment, "ruffle base") == approx(sweep)
    ruffle = garment.piece("hem ruffle")
    assert ruffle.edge("hem").path.length == approx(3 * sweep / 2)
    # laid on top: a heading of 1.5 cm, doubled
    assert (ruffle.edge("top").allowance, ruffle.edge("top").turned) == (30, True)


# 13


def test_a_backless_tent_turns_its_casing_from_its_own_edge():
    garment = made(made_of.TENT)
    back = garment.piece("gown back")
    edge = next(e for e in back.edges if e.role is Role.NECKLINE)
    assert (edge.allowance, edge.finished) == (approx(10 + 4 + 8), Finished.FOLDED)
    assert worked(garment, "elastic") == approx(2 * edge.path.length * 0.85)
    # it falls from the underarm: no dart, wider at every level, and the hem as wide as asked
    assert not back.darts
    assert not any(m.kind is MarkKind.DART for m in back.marks)
    quarter = worked(garment, "hip, a quarter") if any(
        w.label == "hip, a quarter" for w in garment.workings) else FIGURE["hip_girth"] / 4  # fmt: skip
    assert back.edge("hem").path.length >= quarter + 100
    # trade 8: the neck and 1 in, and two ties
    assert worked(garment, "neck band") == approx(FIGURE["neck_girth"] + 25.4 + 700)
    assert any(f.code == "no-cords-for-children" for f in garment.findings)


def test_a_tent_too_narrow_for_the_hips_cannot_be_got_into():
    garment = made(made_of.TENT, **{"lower.hem_in": 12.7})
    assert any(f.code == "cannot-be-got-into" for f in garment.findings)


# 14


def test_a_tunic_without_a_zip_goes_over_the_head_by_its_slit():
    garment = made(made_of.TUNIC)
    codes = {f.code for f in garment.findings}
    assert not codes & {"neck-does-not-pass-head", "cannot-be-got-into", "hem-too-narrow-to-walk"}
    assert "neck-does-not-pass-head" in {f.code for f in made(made_of.TUNIC, **{"trims.1.height": 40}).findings}
    slit = next(m for m in garment.piece("gown back").marks if m.name == "slit")
    assert slit.path.length == approx(170)
    # slits from 8 cm below the waist: the side seam below it is 64 cm
    ends = [n for n in garment.piece("gown front").notches if n.kind is NotchKind.SLIT_END]
    assert [n.at for n in ends] == [approx(560)]  # its path runs up from the hem
    # the cap as high as typed
    sleeve = garment.piece("sleeve")
    assert path(garment, "sleeve", "cap front").start.y == approx(110, abs=0.01)
    assert sleeve.cut == 2


# 15


def test_a_two_tone_twist_is_cut_left_and_right_apart_in_two_cloths():
    garment = made(made_of.TWO_TONE)
    cloths = {c.name: (c.cloth, c.turned_over) for c in cut_pieces(garment) if "lining" not in c.name}
    for name in ("bodice front", "skirt front"):
        assert cloths[f"left {name}"] == (ClothRole.OUTER, False)
        assert cloths[f"right {name}"] == (ClothRole.CONTRAST, True)
    # the twist's centre grows by cuts × spread, alike on both
    plain = made(made_of.TWO_TONE, **{"panels.twist": 0, "trims": [], "steps": []})
    grown = path(garment, "bodice front", "centre front").length - path(plain, "bodice front", "centre front").length
    assert grown == approx(210, abs=0.2)
    assert path(garment, "bodice front other", "centre front").length == approx(
        path(garment, "bodice front", "centre front").length
    )
    # sewn to each other down the centre, and each to the one back
    assert lengths(garment, "bodice front centre front seam")[0] == approx(
        path(garment, "bodice front", "centre front").length
    )
    for name in ("bodice side seam", "bodice side seam, right", "waist seam", "waist seam, right"):
        assert seam(garment, name).verdict.fits
    right = {stretch.piece.name for stretch in seam(garment, "waist seam, right").seam.stretches}
    assert right == {"bodice front other", "bodice back", "skirt front other", "skirt back"}
    left = {stretch.piece.name for stretch in seam(garment, "waist seam").seam.stretches}
    assert left == {"bodice front", "bodice back", "skirt front", "skirt back"}
    ends = [n.at for n in garment.piece("skirt front").notches if n.kind is NotchKind.SLIT_END]
    centre = path(garment, "skirt front", "centre front").length
    assert [min(at, centre - at) for at in ends] == [approx(300)]
    # the lining is not in two cloths: it is cut whole from the front before it was opened
    assert garment.piece("bodice front lining").on_fold
    assert not any(p.name == "bodice front other lining" for p in garment.pieces)


@pytest.mark.parametrize("name", ["peplum blouse", "empire", "knotted"])
def test_the_longest_of_them_is_made_up_while_typing(name):
    """A loose bound, for a busy machine: ``./hem bench`` says how long it takes undisturbed."""
    whole = recipe(COMBINATIONS[name])
    make_up(whole)
    took = []
    for _ in range(5):
        begun = time.perf_counter()
        make_up(whole)
        took.append(time.perf_counter() - begun)
    assert min(took) < 0.2
