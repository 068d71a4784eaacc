"""Where a dress opens: zips, slits, loops and laces. What opens is drawn on every piece it goes through, ends where it
is said to, and is told where it cannot be.
"""

from itertools import pairwise

import pytest
from pytest import approx
from shapely import LineString, Point

from conftest import FIGURE
from dresses import SIDE_ZIP, made, recipe, refusal, worked
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import NotchKind, Role

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
