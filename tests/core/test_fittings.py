"""What is tried at a fitting (trade 13.2): the amount arrives where it was asked, seams still walk, and undone it is
the dress it was.
"""

from datetime import date

import pytest
import svgelements
from pytest import approx

from dresses import recipe
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.asked_again import SAYS, Taken, asked_again
from gentle_hem.core.making.fitting import begun_with, still_to_take, tried
from gentle_hem.core.making.fitting_drawings import BOX, DRAWN
from gentle_hem.core.making.fitting_guide import BY_CODE, GUIDE, TRIES, fits
from gentle_hem.core.recipe import changed
from gentle_hem.core.replace import replace
from gentle_hem.core.units import Tape, Unit
from gentle_hem.core.what import Layer

PLAIN = recipe()
TROUSERS = recipe(lower={"kind": "trousers", "length": 1000})
FLARED = recipe(bodice={"kind": "two_lengths"}, lower={"kind": "a_line", "length": 700})
NAMES = {"front": "bodice front", "back": "bodice back"}


def corner(garment, piece, one, other):
    """Where two edges of a piece meet."""
    first, second = (garment.piece(piece).edge(name).path for name in (one, other))
    ends = [(a.distance(b), a) for a in (first.start, first.end) for b in (second.start, second.end)]
    return min(ends, key=lambda pair: pair[0])[1]


def long(garment, piece, edge):
    return garment.piece(piece).stitched_length(edge)


def lower(piece, one, other):
    """How much lower a corner lies than before."""
    return lambda was, now: corner(was, piece, one, other).y - corner(now, piece, one, other).y


def further_out(piece, one, other):
    def found(was, now):
        before, after = corner(was, piece, one, other), corner(now, piece, one, other)
        away = 1 if before.x > 0 else -1  # a back is drawn to the left of its centre
        return away * (after.x - before.x)

    return found


def shorter(piece, edge):
    return lambda was, now: long(was, piece, edge) - long(now, piece, edge)


def longer(piece, edge):
    return lambda was, now: long(now, piece, edge) - long(was, piece, edge)


def apart(piece, edge, share):
    """How far the place at a share of an edge lies from the edge as it was."""

    def found(was, now):
        old, new = was.piece(piece).edge(edge).path, now.piece(piece).edge(edge).path
        along = [old.point_at(old.length * k / 400) for k in range(401)]
        spots = [new.point_at(new.length * (share + d / 100)) for d in range(-8, 9)]
        return max(min(spot.distance(one) for one in along) for spot in spots)

    return found


ARRIVES = {
    # what is measured on the dress before and after, each time by the shortest way: a length or a corner of a piece
    "neck_wedge": [shorter("bodice front", "neckline")],
    "back_neck_wedge": [shorter("bodice back", "neckline")],
    "lower_front_neck": [lower("bodice front", "neckline", "centre front")],
    "raise_back_neck": [lambda was, now: -lower("bodice back", "neckline", "centre back")(was, now)],
    "raise_front_neck": [lambda was, now: -lower("bodice front", "neckline", "centre front")(was, now)],
    "raise_tips": [lambda w, n, p=p: -lower(p, "shoulder", "armhole")(w, n) for p in NAMES.values()],
    "lower_back_neck": [lower("bodice back", "neckline", "centre back")],
    "in_at_centre_back": [shorter("bodice back", "waist")],
    "drop_back_waist": [shorter("bodice back", "centre back")],
    "raise_tip": [lambda w, n, p=p: -lower(p, "shoulder", "armhole")(w, n) for p in NAMES.values()],
    "drop_tip": [lower(p, "shoulder", "armhole") for p in NAMES.values()],
    "narrow_shoulder": [lambda w, n, p=p: -further_out(p, "shoulder", "armhole")(w, n) for p in NAMES.values()],
    "lower_armhole": [lower(p, "armhole", "side") for p in NAMES.values()],
    "armhole_more_across": [apart(p, "armhole", 0.5) for p in NAMES.values()],
    "armhole_wedge": [shorter("bodice front", "armhole")],
    "let_out_bodice_side": [longer(p, "waist") for p in NAMES.values()],
    "take_in_bodice_side": [shorter(p, "waist") for p in NAMES.values()],
    "longer_bodice": [longer("bodice front", "centre front"), longer("bodice back", "centre back")],
    "shorter_bodice": [shorter("bodice front", "centre front"), shorter("bodice back", "centre back")],
    "out_at_hip": [apart("skirt front", "side", 0.75), apart("skirt back", "side", 0.25)],
    "longer_centre_back": [longer("skirt back", "centre back")],
    "longer_centre_front": [longer("skirt front", "centre front")],
    "raise_side_waist": [lambda w, n, p=p: -lower(p, "waist", "side")(w, n) for p in ("skirt front", "skirt back")],
    "lower_side_waist": [lower(p, "waist", "side") for p in ("skirt front", "skirt back")],
    "shorten_lower": [shorter("skirt front", "centre front")],
    "lengthen_lower": [longer("skirt front", "centre front")],
}  # fmt: skip


@pytest.mark.parametrize("amount", [5.0, 12.7])
@pytest.mark.parametrize("code", ARRIVES)
def test_the_amount_arrives_where_it_was_asked(code, amount):
    before = make_up(PLAIN)
    made = tried(PLAIN, before, TRIES[code], amount, Unit.CM)
    assert made.refused == ""
    after = make_up(changed(PLAIN, dict(made.changes)))
    for measure in ARRIVES[code]:
        assert measure(before, after) == approx(amount, abs=0.5), code
    assert made.open_seams == ()
    assert not any(f.severity is Severity.STOP for f in after.findings)


@pytest.mark.parametrize(("code", "amount"), [("deeper_crotch", 12.7), ("raise_crotch", 6.0), ("longer_fork", 12.7)])
def test_a_crotch_is_changed_by_the_amount(code, amount):
    """Common practice: the depth is measured down the side of the seat, the fork along the crotch line."""
    deep = recipe(lower={"kind": "trousers", "length": 1000, "crotch_ease": 20})
    before = make_up(deep)
    made = tried(deep, before, TRIES[code], amount, Unit.CM)
    after = make_up(changed(deep, dict(made.changes)))
    fork = [corner(g, "trouser back", "centre back", "inside leg") for g in (before, after)]
    top = [corner(g, "trouser back", "centre back", "waist") for g in (before, after)]
    if code == "longer_fork":
        assert abs(fork[1].x - fork[0].x) == approx(amount, abs=0.5)
    else:
        down = (top[1].y - fork[1].y) - (top[0].y - fork[0].y)
        assert down == approx(amount if code == "deeper_crotch" else -amount, abs=0.5)
    assert made.open_seams == ()


@pytest.mark.parametrize("dress", [PLAIN, FLARED, TROUSERS])
def test_every_try_is_done_or_refused_in_a_sentence_and_every_seam_walks_or_is_named(dress):
    garment = make_up(dress)
    tries = [one for seen in GUIDE if fits(seen, dress) for one in seen.tries]
    assert len(tries) > 25
    refused = []
    for one in tries:
        made = tried(dress, garment, one, one.usual, Unit.CM)
        if made.changes is None:
            refused.append(one.code)
            assert made.refused.startswith("This cannot be done: ")
            assert made.refused.endswith(".")
            continue
        after = make_up(changed(dress, dict(made.changes)))
        off = {walked.name for walked in after.seams if not walked.verdict.fits}
        assert off == set(made.open_seams), one.code
        changed_seams = {
            walked.name for walked in after.seams
            for old in garment.seams
            if old.name == walked.name and abs(old.length_a - walked.length_a) > 0.5
        }  # fmt: skip
        assert {follow.seam for follow in made.follows} == changed_seams
    assert len(refused) <= 2, refused


def test_tried_on_a_circle_the_open_waist_is_named():
    """A waist raised at the centre runs longer round a circle: it is closed at the ribbon, not in silence."""
    circle = recipe(lower={"kind": "circle", "length": 700})
    made = tried(circle, make_up(circle), TRIES["longer_centre_back"], 12.7, Unit.CM)
    assert made.open_seams == ("waist seam",)


def test_what_is_seen_is_said_once_and_trousers_only_of_trousers():
    assert len(BY_CODE) == len(GUIDE)
    assert len(TRIES) == sum(len(seen.tries) for seen in GUIDE)
    assert {seen.code for seen in GUIDE if not fits(seen, PLAIN)} == {"crotch_cuts", "crotch_hangs"}
    assert all(fits(seen, TROUSERS) for seen in GUIDE)


def test_a_dress_begins_with_what_is_in_the_block():
    block = [(TRIES["neck_wedge"], 6.0), (TRIES["drop_tip"], 4.0)]
    begun = begun_with(PLAIN, block)
    was, now = make_up(PLAIN), make_up(begun)
    assert [step.kind for step in begun.steps] == ["wedge", "corner"]
    assert shorter("bodice front", "neckline")(was, now) == approx(6.0, abs=0.5)
    far = begun_with(PLAIN, [(TRIES["neck_wedge"], 140.0), *block[1:]])  # more than any wedge is wide
    assert [step.kind for step in far.steps] == ["corner"]
    assert far.remarks.startswith("In the block, and not done here: Pinch a wedge out of the front neck")
    measured = recipe(bodice={
        "kind": "measured", "front": {"centre_to_dart": 80, "dart_width": 20, "dart_to_side": 100},
        "back": {"centre_to_dart": 80, "dart_width": 20, "dart_to_side": 90}, "front_side": 200, "back_side": 200,
    }, lower={"kind": "circle"})  # fmt: skip
    assert begun_with(measured, block) == measured


def test_what_is_seen_has_a_drawing_of_its_own_within_its_box():
    assert set(DRAWN) == set(BY_CODE)
    assert len({one.seen for one in DRAWN.values()}) == len(DRAWN)
    for one in DRAWN.values():
        for d in (one.garment, one.seen):
            box = svgelements.Path(d).bbox()
            assert box[0] >= 0
            assert box[1] >= 0
            assert box[2] <= BOX[0]
            assert box[3] <= BOX[1]


MEASURED = {"bust_girth": 940.0, "waist_girth": 740.0, "hip_girth": 1000.0, "front_waist_length": 440.0,
            "back_waist_length": 410.0}  # fmt: skip


def test_measures_that_disagree_with_what_was_fitted_are_asked_about():
    """6 mm out at each side of both side seams is 24 mm round; twice 6 mm longer is 12 mm; 4 mm at the hip is 16."""
    taken = [
        Taken(date(2026, 5, 4), "let_out_bodice_side", 6.0), Taken(date(2026, 5, 4), "longer_bodice", 6.0),
        Taken(date(2026, 5, 11), "longer_bodice", 6.0), Taken(date(2026, 5, 11), "out_at_hip", 4.0),
    ]  # fmt: skip
    found = {one.key: one.fitted for one in asked_again(MEASURED, date(2026, 5, 1), taken)}
    assert found == {
        "bust_girth": 964.0, "waist_girth": 764.0, "front_waist_length": 452.0, "back_waist_length": 422.0
    }  # fmt: skip


def test_what_was_fitted_before_a_measure_was_taken_says_nothing_of_it():
    taken = [Taken(date(2026, 4, 30), "let_out_bodice_side", 20.0)]
    assert asked_again(MEASURED, date(2026, 5, 1), taken) == ()


def test_what_was_taken_in_again_is_not_asked_about():
    taken = [Taken(date(2026, 5, 4), "let_out_bodice_side", 6.0), Taken(date(2026, 5, 5), "take_in_bodice_side", 5.0)]
    assert asked_again(MEASURED, date(2026, 5, 1), taken) == ()


def test_a_measure_is_asked_about_in_words():
    (one, _) = asked_again(MEASURED, date(2026, 5, 1), [Taken(date(2026, 5, 4), "take_in_bodice_side", 10.0)])
    assert one.text(Tape(Unit.CM)).startswith(
        "The bust girth was taken as 94.0 cm on 1 May 2026; what was fitted since speaks for 90.0 cm."
    )


def test_what_a_correction_says_of_measures_is_of_corrections_there_are():
    assert set(SAYS) <= set(TRIES)


def test_a_dress_drafted_only_later_can_take_what_is_in_the_block_and_takes_it_once():
    block = [(TRIES["neck_wedge"], 6.0), (TRIES["narrow_shoulder"], 5.0)]
    plain = recipe()
    assert still_to_take(plain, block) == block
    one = begun_with(plain, block[:1])
    assert still_to_take(one, block) == block[1:]
    both = begun_with(one, block[1:])
    assert still_to_take(both, block) == []
    assert [step.kind for step in both.steps] == [step.kind for step in begun_with(plain, block).steps]


SIDED_TRIES = [code for code in ARRIVES if TRIES[code].is_sided]


def edge_lengths(garment, suffix):
    """Every edge of the outer pieces of one side, by its name there, as it is drawn."""
    found = {}
    for piece in garment.pieces:
        if piece.what.layer is not Layer.OUTER or piece.what.half is None:
            continue
        whole = any(edge.name.endswith(" other") for edge in piece.edges)
        is_right = piece.what.other
        if (
            not whole
            and is_right != bool(suffix)
            and any(p.what == replace(piece.what, other=not is_right) for p in garment.pieces)
        ):
            continue
        name = replace(piece.what, other=False).name
        for edge in piece.edges:
            if not edge.role.is_centre and (not whole or edge.name.endswith(" other") == bool(suffix)):
                found[name, edge.name.removesuffix(" other")] = edge.drawn_length
    return found


@pytest.mark.parametrize("side", ["left", "right"])
@pytest.mark.parametrize("code", SIDED_TRIES)
def test_what_is_taken_on_one_side_changes_that_side_as_both_would_be_and_the_other_not_at_all(code, side):
    before = make_up(PLAIN)
    both = tried(PLAIN, before, TRIES[code], 8.0, Unit.CM)
    one = tried(PLAIN, before, TRIES[code], 8.0, Unit.CM, side)
    if one.changes is None:  # at the centre the two sides would not meet
        assert "do not end at the same place of its centre" in one.refused
        return
    after, alike = (make_up(changed(PLAIN, dict(made.changes))) for made in (one, both))
    asked, other = ("", " other") if side == "left" else (" other", "")
    assert edge_lengths(after, asked) == approx(edge_lengths(alike, ""), abs=0.15)
    assert edge_lengths(after, other) == approx(edge_lengths(before, ""), abs=0.15)
    named = set(one.open_seams)  # a centre seam of two unlike halves is named, to be closed at the ribbon
    assert {walked.name for walked in after.seams if not walked.verdict.fits} == named


def test_most_that_is_tried_can_be_done_on_one_side_and_what_cannot_says_so():
    assert len(SIDED_TRIES) > 15
    whole = next(one for one in TRIES.values() if not one.is_sided and one.steps is not None)
    made = tried(PLAIN, make_up(PLAIN), whole, whole.usual, Unit.CM, "left")
    assert made.changes is None
    assert made.refused == "It is done to left and right alike; take it for both sides."
