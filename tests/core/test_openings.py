"""Where a dress opens: zips, slits, loops and laces. What opens is drawn on every piece it goes through, ends where it
is said to, and is told where it cannot be.
"""

from itertools import pairwise
from math import hypot

import pytest
from pytest import approx
from shapely import LineString, Point

from conftest import FIGURE
from dresses import SIDE_ZIP, lengths, made, recipe, refusal, worked
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import NotchKind, Role
from gentle_hem.core.steps.base import acted_on
from gentle_hem.core.what import Half, Layer, Section

FRONT_ZIP = {"place": "centre_front", "below_waist": 160}
BY_TWO = {"kind": "two_lengths"}


# a zip in front


@pytest.mark.parametrize("lower", ["straight", "a_line", "circle", "gathered", "gores", "gown", "trousers"])
def test_a_front_zip_goes_through_every_front_and_its_end_is_marked(lower):
    garment = made(lower={"kind": lower}, opening=FRONT_ZIP, allowances={"zip": 21})
    centres = [(p, e) for p in garment.pieces for e in p.edges if e.role is Role.CENTRE_FRONT]
    assert len(centres) == (1 if lower == "gown" else 2)
    for piece, edge in centres:
        assert (piece.on_fold, piece.cut, edge.allowance) == (False, 2, 21)
    ends = [(p, n) for p in garment.pieces for n in p.notches if n.kind is NotchKind.ZIP_END]
    [(piece, end)] = ends
    down = piece.edge(end.edge).path.point_at(end.at)
    if lower != "gown":
        top = piece.edge(end.edge).path.start
        assert end.at == approx(160)
        assert top.y - down.y == approx(160, abs=6)  # a crotch curves away a little
    # the back lies on the fold, and nothing is turned there
    backs = [(p, e) for p in garment.pieces for e in p.edges if e.role is Role.CENTRE_BACK and lower != "trousers"]
    assert all(p.on_fold and e.allowance == 0 for p, e in backs)


@pytest.mark.parametrize(
    ("lower", "place", "below", "ends"),
    [
        ({"kind": "tiered", "tiers": 3, "length": 600, "growth": 1}, "centre_back", 150, {1: 150}),
        ({"kind": "tiered", "tiers": 6, "length": 600, "growth": 1}, "centre_back", 250, {3: 50}),
        ({"kind": "tiered", "tiers": 6, "length": 600, "growth": 1}, "centre_front", 130, {2: 30}),
        ({"kind": "tiered", "tiers": 6, "length": 600, "growth": 1}, "side", 330, {4: 30}),
    ],
)
def test_a_zip_ends_once_in_the_tier_it_reaches(lower, place, below, ends):
    """Tiers of 100 or 200 mm, counted by hand: a zip of 250 mm ends 50 mm down the third."""
    garment = made(lower=lower, opening={"place": place, "below_waist": below})
    marked = {
        piece.what.number: piece.seam_line.box[3] - piece.edge(notch.edge).path.point_at(notch.at).y
        for piece in garment.pieces
        for notch in piece.notches
        if notch.kind is NotchKind.ZIP_END and piece.what.section is Section.SKIRT
    }
    assert marked == {number: approx(at) for number, at in ends.items()}


def test_under_a_band_the_zip_ends_as_far_below_the_waist_as_without_it():
    """A yoke 100 mm deep hangs from the waist: a zip of 160 mm ends 60 mm down the skirt under it."""
    garment = made(lower={"kind": "gathered"}, band={"kind": "yoke", "deep": 100},
                   opening={"place": "centre_back", "below_waist": 160})  # fmt: skip
    back = garment.piece("skirt back")
    [end] = [notch for notch in back.notches if notch.kind is NotchKind.ZIP_END]
    assert back.seam_line.box[3] - back.edge(end.edge).path.point_at(end.at).y == approx(60, abs=0.5)


def test_a_front_zip_goes_through_the_facing_too():
    garment = made(opening=FRONT_ZIP, style={"facing": "faced"})
    [facing] = [p for p in garment.pieces if p.what.layer is Layer.FACING and p.what.half is Half.FRONT]
    assert (facing.on_fold, facing.cut) == (False, 2)
    assert [e.role for e in facing.edges].count(Role.CENTRE_FRONT) == 1


def test_a_gowns_front_zip_ends_below_its_waist():
    garment = made(lower={"kind": "gown"}, bodice=BY_TWO, opening=FRONT_ZIP)
    behind = made(lower={"kind": "gown"}, bodice=BY_TWO, opening={"place": "centre_back", "below_waist": 160})
    for one, half in ((garment, "front"), (behind, "back")):
        piece = one.piece(f"gown {half}")
        [end] = [n for n in piece.notches if n.kind is NotchKind.ZIP_END]
        place = piece.edge(end.edge).path.point_at(end.at)
        waist = FIGURE["front_waist_length"] if half == "front" else FIGURE["back_waist_length"]
        top = max(edge.path.box[3] for edge in piece.edges if edge.role is Role.SHOULDER)
        assert top - place.y == approx(waist + 160, abs=12)


def test_a_collar_ends_in_front_as_its_neck_does():
    garment = made(opening=FRONT_ZIP, trims=[{"kind": "stand_collar"}], style={"front_neck": "round"})
    collar = garment.piece("stand collar")
    assert (collar.edge("centre front").allowance, collar.edge("centre front").turned) == (15, True)
    assert collar.edge("centre back").allowance == 0


def test_a_front_zip_where_buttons_open_it_is_refused_with_ways_that_work():
    assert len(refusal("no-front-zip", opening=FRONT_ZIP, panels={"stand": 25}).remedies) == 2


def test_a_dress_with_a_front_zip_goes_over_no_head_and_is_got_into():
    codes = {f.code for f in made(opening=FRONT_ZIP, style={"front_depth": 60}).findings}
    assert not codes & {"neck-does-not-pass-head", "cannot-be-got-into"}


# faced slits


@pytest.mark.parametrize(("place", "half", "down"), [("back_neck", "back", 134), ("front_neck", "front", 96)])
def test_a_slit_in_the_neck_is_as_long_as_asked_and_its_facing_goes_round_it(place, half, down):
    slit = {"kind": "faced_slit", "place": place, "height": down, "facing": 35, "buttons": 0}
    garment = made(opening=SIDE_ZIP, trims=[slit])
    piece, facing = garment.piece(f"bodice {half}"), garment.piece(f"{half} slit facing")
    [mark] = [m for m in piece.marks if m.name == "slit"]
    assert mark.path.length == approx(down)
    assert {mark.path.start.x, mark.path.end.x} == {0}
    top = max(mark.path.start.y, mark.path.end.y)
    centre = piece.edge(f"centre {half}")
    assert top == approx(max(centre.path.start.y, centre.path.end.y))
    box = facing.seam_line.box
    assert max(abs(box[0]), abs(box[2])) == approx(35)  # beside it
    assert top - box[1] == approx(down + 35)  # and below it
    assert facing.on_fold
    [seam] = [s for s in garment.seams if "slit facing" in s.name]
    assert (seam.upper.length, seam.lower.length) == (approx(down), approx(down))
    # the facing's upper edge is the neck's own
    neck = LineString(piece.edge("neckline").path.flatten(0.01))
    assert all(neck.distance(Point(place)) < 0.05 for place in facing.edge("neckline").path.flatten(0.01))


def test_loops_are_as_many_as_the_buttons_and_lie_in_equal_spaces():
    """A loop goes once round a button's width and thickness: 2 × (14 + 3) and 1 cm at each end (common practice)."""
    slit = {"kind": "faced_slit", "place": "front_neck", "height": 120, "buttons": 4, "button": 14}
    garment = made(opening=SIDE_ZIP, trims=[slit])
    loops = [m for m in garment.piece("bodice front").marks if m.kind.value == "loop"]
    levels = sorted((m.path.start.y for m in loops), reverse=True)
    assert [a - b for a, b in pairwise(levels[1:])] == approx([30, 30])
    assert worked(garment, "loop strip") == approx(4 * (2 * 17 + 20))
    assert garment.piece("loop strip").edge("edge").drawn_length == approx(216)


def test_a_slit_lets_the_head_through():
    plain = make_up(recipe(opening=SIDE_ZIP))
    assert any(f.code == "neck-does-not-pass-head" for f in plain.findings)
    garment = made(opening=SIDE_ZIP, trims=[{"kind": "faced_slit", "height": 150}])
    assert not any(f.code == "neck-does-not-pass-head" for f in garment.findings)


def test_in_a_seam_a_slit_is_left_open_and_takes_no_facing():
    slit = {"kind": "faced_slit", "place": "front_neck", "height": 110, "buttons": 0}
    garment = made(opening=SIDE_ZIP, trims=[slit], style={"waist_dart": "centre front"})
    assert not any("slit" in piece.name for piece in garment.pieces)
    front = garment.piece("bodice front")
    [end] = [n for n in front.notches if n.kind is NotchKind.SLIT_END]
    assert (end.edge, end.at) == ("centre front", approx(110))


def test_a_sleeves_slit_lies_behind_at_its_hem():
    sleeve, slit = {"kind": "sleeve", "length": 580}, {"kind": "faced_slit", "place": "sleeve", "height": 90}
    for order in ([sleeve, slit], [slit, sleeve]):
        garment = made(trims=order)
        piece, facing = garment.piece("sleeve"), garment.piece("sleeve slit facing")
        [mark] = [m for m in piece.marks if m.name == "slit"]
        hem = piece.edge("hem").path
        assert mark.path.length == approx(90)
        assert mark.path.end.distance(hem.point_at(hem.length * 0.75)) < 0.01
        assert facing.cut == 2


@pytest.mark.parametrize(
    ("slit", "parts", "why"),
    [
        ({"place": "back_neck"}, {}, "zip opens it there"),
        ({"place": "front_neck", "height": 500}, {}, "longer than the centre"),
        ({"place": "front_neck"}, {"style": {"facing": "faced"}}, "a facing of its own"),
        ({"place": "sleeve"}, {}, "no sleeve"),
        ({"place": "front_neck", "facing": 110}, {}, "narrower than the slit's facing"),
    ],
)
def test_a_slit_that_cannot_be_cut_says_why(slit, parts, why):
    assert why in refusal("trim-left-out", trims=[{"kind": "faced_slit", **slit}], **parts).values["why"]


# laced openings


def laced(**words):
    return {"kind": "laced", **words}


def test_a_laced_back_is_as_wide_at_the_top_as_asked_and_nothing_at_the_waist():
    plain = make_up(recipe())
    garment = made(steps=[laced(width=84, pitch=14)])
    back, before = garment.piece("bodice back"), plain.piece("bodice back")
    edge, centre = back.edge("laced edge").path, before.edge("centre back").path
    top = max((edge.start, edge.end), key=lambda place: place.y)
    foot = min((edge.start, edge.end), key=lambda place: place.y)
    assert abs(top.x) == approx(42)
    assert (foot.x, foot.y) == (approx(0), approx(min(centre.start.y, centre.end.y)))
    # the waist and the shoulder stay as they were
    for name in ("waist", "shoulder"):
        assert back.stitched_length(name) == approx(before.stitched_length(name))
    assert back.cut == 2
    assert not any(e.name == "centre back" for e in back.edges)


def test_loops_lie_at_an_even_pitch_and_their_strip_and_lace_are_worked_out():
    garment = made(steps=[laced(width=80, pitch=15)])
    edge = garment.piece("bodice back").edge("laced edge").path
    count = round(edge.length / 15)
    loops = [m.path.start for m in garment.piece("bodice back").marks if m.kind.value == "loop"]
    gaps = [a.distance(b) for a, b in pairwise(sorted(loops, key=lambda place: place.y))]
    assert len(loops) == count
    assert gaps == approx([edge.length / count] * (count - 1))
    # 12 mm out and back and 1 cm at each end in the seam, on both sides
    assert worked(garment, "loop strip") == approx(2 * count * 44)
    step = edge.length / count
    widths = [80 * (1 - (k + 0.5) / count) for k in range(count)]
    zigzag = 2 * sum(hypot((a + b) / 2, step) for a, b in pairwise(widths))
    assert worked(garment, "lace") == approx(zigzag + widths[0] + 600)


def test_the_strip_beside_it_is_as_long_as_the_edge_and_the_panel_reaches_behind_it():
    garment = made(steps=[laced(width=76, strip=30)])
    edge = garment.piece("bodice back").edge("laced edge").path.length
    strip, panel = garment.piece("back lacing strip"), garment.piece("back lacing panel")
    assert lengths(garment, "back lacing strip seam") == (approx(edge), approx(edge))
    assert (strip.cut, strip.edge("start").drawn_length) == (2, approx(60))
    assert (panel.on_fold, panel.edge("top").drawn_length) == (True, approx(38 + 40))
    assert not any("lacing panel" in p.name for p in made(steps=[laced(behind="none")]).pieces)


def test_its_sentence_lights_up_the_edge_that_is_laced_and_nothing_else():
    whole = recipe(steps=[laced()])
    lit = {(place.piece, place.edge) for place in acted_on(whole.steps[0], make_up(whole).pieces)}
    assert lit == {("bodice back", "laced edge")}


def test_it_may_end_above_the_waist_with_the_zip_below_it():
    garment = made(steps=[laced(long=200, width=60)])
    before = make_up(recipe()).piece("bodice back").edge("centre back").path.length
    assert garment.piece("bodice back").edge("centre back").path.length == approx(before - 200)
    assert garment.piece("bodice back").edge("centre back").turned


def test_a_gown_is_laced_to_its_waist_and_its_zip_goes_on_below():
    garment = made(bodice=BY_TWO, lower={"kind": "gown"}, steps=[laced()])
    back = garment.piece("gown back")
    edge = back.edge("laced edge").path
    top = max(e.path.box[3] for e in back.edges if e.role is Role.SHOULDER)
    assert top - min(edge.start.y, edge.end.y) == approx(FIGURE["back_waist_length"], abs=8)
    assert any(n.kind is NotchKind.ZIP_END for n in back.notches)


def test_a_seam_cut_after_the_lacing_keeps_its_loops():
    before = made(steps=[laced()])
    garment = made(steps=[laced(), {"kind": "princess", "on": "back"}])
    loops = [
        sum(m.kind.value == "loop" for p in one.pieces for m in p.marks) for one in (before, garment)
    ]  # fmt: skip
    assert loops[0] == loops[1] > 20


@pytest.mark.parametrize(
    ("step", "parts", "why"),
    [
        (laced(), {"style": {"facing": "faced"}}, "has a facing"),
        (laced(long=899), {}, "shorter than it"),
        (laced(width=249), {}, "narrower than the opening"),
        (laced(on="front"), {"style": {"waist_dart": "centre front"}}, "a dart opens at the centre"),
    ],
)
def test_lacing_that_cannot_be_drawn_says_why(step, parts, why):
    assert why in refusal("step-not-done", steps=[step], **parts).values["why"].lower()


# a knot


@pytest.mark.parametrize("lower", ["straight", "a_line", "gathered", "circle", "gores"])
def test_a_knot_opens_bodice_and_skirt_alike(lower):
    """Trade 4.7: by the same cuts and amounts; the waist keeps its length; the waist darts open there too."""
    plain = made(lower={"kind": lower}, opening=SIDE_ZIP)
    garment = made(lower={"kind": lower}, opening=SIDE_ZIP, steps=[{"kind": "knot", "cuts": 3, "amount": 60}])
    grown = []
    for piece in garment.pieces:
        centre = next((e for e in piece.edges if e.role is Role.CENTRE_FRONT), None)
        if centre is None:
            continue
        before = plain.piece(piece.name)
        darts = sum(dart.intake for dart in before.darts_of("waist"))
        grown.append(centre.path.length - before.edge(centre.name).path.length)
        assert 180 - 0.1 <= grown[-1] <= 180 + 2.5 * darts + 0.1
        if not darts:
            assert grown[-1] == approx(180, abs=0.1)
        assert piece.stitched_length("waist") == approx(before.stitched_length("waist"), abs=0.2)
        assert (piece.on_fold, piece.cut) == (False, 2)
        assert [n.kind for n in piece.notches if n.landmark == "pull through"] == [NotchKind.OPEN]
        assert sum(m.kind.value == "slash" for m in piece.marks) == 3
    assert len(grown) == 2


def test_a_knots_lining_is_cut_from_the_pieces_before_they_were_opened():
    """Trade 4.7; front and back linings still walk with each other and with the outer."""
    plain = made(opening=SIDE_ZIP, finish={"lining": "whole"})
    garment = made(opening=SIDE_ZIP, finish={"lining": "whole"}, steps=[{"kind": "knot"}])
    for name in ("bodice front lining", "skirt front lining"):
        before = plain.piece(name)
        for edge in before.edges:
            assert garment.piece(name).stitched_length(edge.name) == approx(before.stitched_length(edge.name), abs=0.2)
        assert garment.piece(name).on_fold


def test_a_gown_has_no_waist_to_be_knotted():
    assert "no waist seam" in refusal("step-not-done", lower={"kind": "gown"}, steps=[{"kind": "knot"}]).values["why"]


# a seam down the centre


def test_a_seam_down_the_centre_of_either_part():
    steps = [{"kind": "centre_seam", "on": "front"}, {"kind": "centre_seam", "part": "lower", "on": "front"}]
    garment = made(steps=steps, allowances={"panel": 13})
    for name in ("bodice front", "skirt front"):
        piece = garment.piece(name)
        assert (piece.on_fold, piece.cut, piece.edge("centre front").allowance) == (False, 2, 13)
        assert any(s.name.endswith("centre front seam") for s in garment.seams)
    assert "already" in refusal("step-not-done", steps=[{"kind": "centre_seam", "on": "back"}]).values["why"]


@pytest.mark.parametrize("place", ["centre_back", "side", "centre_front"])
@pytest.mark.parametrize(
    "kind",
    ["circle", "high_low", "handkerchief", "gored_circle", "double_circle", "straight", "a_line", "gores", "gathered"],
)
def test_the_end_of_a_zip_is_marked_as_far_below_the_waist_as_was_asked(kind, place):
    garment = made(lower={"kind": kind}, opening={"place": place, "below_waist": 150})
    found = [(piece, notch) for piece in garment.pieces for notch in piece.notches if notch.kind is NotchKind.ZIP_END]
    assert {piece.what.section for piece, _ in found} == {"skirt"}
    for piece, notch in found:
        path = piece.edge(notch.edge).path
        waist = piece.edge("waist").path
        down = min(path.start.distance(end) for end in (waist.start, waist.end)) < 0.01
        assert (notch.at if down else path.length - notch.at) == approx(150, abs=0.5), (piece.name, notch.edge)
    edges = {(piece.what.half, notch.edge) for piece, notch in found}
    if kind not in ("gored_circle", "gores"):
        wanted = {"centre_back": 1, "centre_front": 1, "side": 2}
        assert len(edges) == wanted[place]


def test_a_gown_zipped_at_its_side_has_the_end_marked_on_front_and_back():
    garment = made(lower={"kind": "gown", "length": 1000}, opening={"place": "side", "below_waist": 150})
    found = {piece.what.half for piece in garment.pieces for n in piece.notches if n.kind is NotchKind.ZIP_END}
    assert found == {Half.FRONT, Half.BACK}


def test_a_second_slit_in_one_place_is_refused():
    slit = {"kind": "faced_slit", "place": "front_neck", "height": 110, "buttons": 0}
    garment = make_up(recipe(opening=SIDE_ZIP, trims=[slit, slit]))
    [found] = [one for one in garment.findings if one.code == "trim-left-out"]
    assert "a slit there already" in found.text("cm")
    assert len([walked for walked in garment.seams if "slit" in walked.name]) == 1


def test_a_second_facing_is_refused():
    garment = make_up(recipe(steps=[{"kind": "facing"}, {"kind": "facing", "width": 30}]))
    [found] = [one for one in garment.findings if one.code == "step-not-done"]
    assert "a facing already" in found.text("cm")
    assert len({walked.name for walked in garment.seams}) == len(garment.seams)
