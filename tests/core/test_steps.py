"""Steps: each does what its sentence says, by numbers worked out here, or says beside itself that it cannot be done.

Property tests: whatever is done, pieces close and do not cross, seams walk in length, or a finding says so; a step that
is left off changes nothing; two steps that do not touch give the same garment in either order.
"""

import random
from itertools import pairwise
from math import hypot

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError
from pytest import approx

from conftest import FIGURE
from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.fault import FAULT
from gentle_hem.core.findings import Severity, note
from gentle_hem.core.make_up import make_up
from gentle_hem.core.parts import METRIC_ALLOWANCES
from gentle_hem.core.pattern import MarkKind, Role
from gentle_hem.core.recipe import Recipe, changed, read_recipe, spoken_parts
from gentle_hem.core.sentences import spoken
from gentle_hem.core.steps import STEPS
from gentle_hem.core.steps.base import acted_on
from gentle_hem.core.units import Unit, inches
from gentle_hem.core.what import Half, Layer
from random_recipes import some_steps
from readers import polygon

LOWER = ["straight", "a_line", "circle", "gathered", "gown", "gores", "trousers"]


def recipe(*steps, school="quarters", lower=None, **rest):
    return Recipe.model_validate(
        {
            "figure": {"measures": FIGURE}, "bodice": {"kind": school}, "lower": lower or {"kind": "straight"},
            "opening": {"place": "centre_back", "below_waist": 180}, "steps": list(steps), **rest,
        }
    )  # fmt: skip


def made(*steps, **rest):
    garment = make_up(recipe(*steps, **rest))
    assert [f.code for f in garment.findings if f.code in ("step-not-done", FAULT)] == []
    return garment


def path(garment, piece, edge):
    return garment.piece(piece).edge(edge).path


def length(garment, piece, edge):
    return garment.piece(piece).stitched_length(edge)


PLAIN = make_up(recipe())


def refusals(garment):
    return [f for f in garment.findings if f.code == "step-not-done"]


# each step


def test_an_armhole_is_hollowed_where_and_as_deep_as_asked():
    garment = made({"kind": "hollow", "edge": "armhole", "amount": 8, "share": 0.5, "on": "front"})
    before, after = (path(g, "bodice front", "armhole") for g in (PLAIN, garment))
    middle = before.point_at(before.length / 2)
    moved = min(after.flatten(0.01), key=lambda place: place.distance(middle)).distance(middle)
    assert moved == approx(8, abs=0.3)
    # hollowed into the piece, not let out
    assert polygon(garment.piece("bodice front").seam_line).area < polygon(PLAIN.piece("bodice front").seam_line).area
    assert path(garment, "bodice back", "armhole").length == approx(path(PLAIN, "bodice back", "armhole").length)


def test_a_side_is_let_out_on_both_halves_alike_and_still_walks():
    garment = made({"kind": "hollow", "edge": "side", "amount": -9, "share": 0.6, "on": "front"})
    [side] = [walked for walked in garment.seams if walked.name == "bodice side seam"]
    assert side.verdict.fits
    at = 0.4  # the path runs up from the waist
    for half in ("front", "back"):
        before, after = (path(g, f"bodice {half}", "side") for g in (PLAIN, garment))
        there = before.point_at(before.length * (at if half == "front" else 1 - at))
        assert min(place.distance(there) for place in after.flatten(0.01)) == approx(9, abs=0.5)
        areas = [polygon(g.piece(f"bodice {half}").seam_line).area for g in (PLAIN, garment)]
        assert areas[1] > areas[0]


def test_the_back_neck_is_lowered_at_the_centre_only():
    garment = made({"kind": "lower_end", "edge": "neckline", "amount": 14, "on": "back"})
    before, after = (path(g, "bodice back", "neckline") for g in (PLAIN, garment))
    assert after.start.y == approx(before.start.y - 14, abs=0.01)
    assert after.end.distance(before.end) < 0.01
    assert length(garment, "bodice back", "shoulder") == approx(length(PLAIN, "bodice back", "shoulder"))
    assert length(garment, "bodice back", "centre back") == approx(length(PLAIN, "bodice back", "centre back") - 14)


def test_a_shoulder_tip_is_let_out_and_raised_on_both():
    garment = made({"kind": "corner", "corner": "shoulder tip", "out": 12, "up": 5, "on": "both"})
    for half, sign in (("front", 1), ("back", -1)):
        before, after = (garment_.piece(f"bodice {half}").edge("armhole").path for garment_ in (PLAIN, garment))
        one, other = (before.end, after.end) if half == "front" else (before.start, after.start)
        assert (other.x - one.x, other.y - one.y) == (approx(sign * 12, abs=0.01), approx(5, abs=0.01))
    assert all(walked.verdict.fits for walked in garment.seams)


def test_a_wedge_is_pinched_out_of_the_neckline_to_nothing_at_the_armhole():
    garment = made({"kind": "pinch", "edge": "neckline", "hinge": "armhole", "amount": 10, "on": "front"})
    assert length(garment, "bodice front", "neckline") == approx(
        length(PLAIN, "bodice front", "neckline") - 10, abs=0.3
    )
    assert length(garment, "bodice front", "armhole") == approx(length(PLAIN, "bodice front", "armhole"), abs=0.3)
    assert length(garment, "bodice front", "shoulder") == approx(length(PLAIN, "bodice front", "shoulder"), abs=0.01)


@pytest.mark.parametrize(("cuts", "amount"), [(1, 30), (3, 50), (4, 25)])
def test_cuts_open_by_what_is_asked_after_smoothing_and_are_shown(cuts, amount):
    garment = made({"kind": "spread", "edge": "neckline", "hinge": "armhole", "cuts": cuts, "amount": amount})
    grown = length(garment, "bodice front", "neckline") - length(PLAIN, "bodice front", "neckline")
    assert grown == approx(cuts * amount, abs=0.6)
    marks = [m for m in garment.piece("bodice front").marks if m.kind is MarkKind.SLASH]
    assert len(marks) == cuts


def test_a_skirt_is_spread_at_its_hem_and_keeps_its_waist():
    steps = {"kind": "spread", "part": "lower", "on": "both", "edge": "hem", "hinge": "waist", "cuts": 3, "amount": 40}
    plain, garment = (make_up(recipe(*s, lower={"kind": "gathered"})) for s in ((), (steps,)))
    for half in ("front", "back"):
        grown = length(garment, f"skirt {half}", "hem") - length(plain, f"skirt {half}", "hem")
        assert grown == approx(120, abs=1.0)
    assert garment.joins[0].verdict.fits


def test_a_moved_dart_keeps_its_angle():
    """Trade 4.5: the angle is what is preserved, worked out here from the legs."""
    garment = made({"kind": "move_dart", "on": "back", "edge": "waist", "to": "shoulder", "share": 0.4})
    piece, before = garment.piece("bodice back"), PLAIN.piece("bodice back")
    [dart] = piece.darts_of("shoulder")
    [old] = before.darts_of("waist")
    assert piece.darts_of("waist") == ()

    def angle(of, one, point):
        near, far = of.dart_legs(one)
        a, b = near - point, far - point
        return abs(a.cross(b)) / (hypot(*a) * hypot(*b))

    point = before.bust_point
    assert angle(piece, dart, point) == approx(angle(before, old, point), abs=0.01)
    # from the neck: two fifths of the shoulder lie between it and the dart
    shoulder = piece.edge("shoulder").path
    from_neck = min(dart.at, shoulder.length - dart.at - dart.intake)
    assert from_neck == approx(0.4 * length(PLAIN, "bodice back", "shoulder"), abs=0.5)


def test_a_dart_is_shortened_and_narrowed_and_the_waist_keeps_its_length():
    garment = made({"kind": "shape_dart", "on": "back", "edge": "waist", "shorter": 25, "narrower": 8})
    [now], [old] = (g.piece("bodice back").darts_of("waist") for g in (garment, PLAIN))
    assert now.intake == approx(old.intake - 8, abs=0.4)
    near, far = garment.piece("bodice back").dart_legs(now)
    was = PLAIN.piece("bodice back").dart_legs(old)
    long = was[0].towards(was[1], 0.5).distance(old.apex)
    assert near.towards(far, 0.5).distance(now.apex) == approx(long - 25, abs=2)
    assert length(garment, "bodice back", "waist") == approx(length(PLAIN, "bodice back", "waist"), abs=0.3)


def test_a_line_cuts_a_piece_in_two_with_an_allowance_on_both_sides():
    step = {"kind": "line", "on": "both", "start": "shoulder", "start_share": 0.3, "end": "waist", "end_share": 0.2}
    garment = made(step)
    assert [p.name for p in garment.pieces if p.what.half is Half.FRONT][:2] == ["bodice front", "bodice side front"]
    for half in ("front", "back"):
        names = [p.name for p in garment.pieces if p.what.section == "bodice" and p.what.half == half]
        assert len(names) == 2
        for edge in ("waist", "shoulder"):
            parts = sum(
                length(garment, name, edge) for name in names if any(e.name == edge for e in garment.piece(name).edges)
            )
            assert parts == approx(length(PLAIN, f"bodice {half}", edge), abs=0.3)
    for walked in garment.seams:
        assert walked.verdict.fits, walked.name
    lines = [e for p in garment.pieces for e in p.edges if e.name.startswith("line")]
    assert len(lines) == 4
    assert all(e.allowance > 0 for e in lines)


def test_a_line_across_makes_a_yoke_bowed_as_asked():
    step = {"kind": "line", "on": "back", "start": "centre", "start_share": 0.25, "end": "armhole", "end_share": 0.5}
    straight, bowed = made(step), made(step | {"bow": 15})
    assert {p.name for p in straight.pieces} >= {"back yoke", "bodice back"}
    [a], [b] = ([e.path for e in g.piece("back yoke").edges if e.name == "line"] for g in (straight, bowed))
    middle = a.start.towards(a.end, 0.5)
    assert min(place.distance(middle) for place in b.flatten(0.01)) == approx(15, abs=0.3)


@pytest.mark.parametrize("amount", [18, -12])
def test_length_is_inserted_and_taken_out_across_a_level(amount):
    """Common practice: the sides and the centres of both halves change by as much, the waist keeps its length."""
    garment = made({"kind": "insert", "part": "bodice", "level": 360, "amount": amount})
    for half in ("front", "back"):
        for edge in ("side", f"centre {half}"):
            assert length(garment, f"bodice {half}", edge) == approx(
                length(PLAIN, f"bodice {half}", edge) + amount, abs=1.2
            )
        assert length(garment, f"bodice {half}", "waist") == approx(length(PLAIN, f"bodice {half}", "waist"), abs=0.3)
        assert length(garment, f"bodice {half}", "armhole") == approx(
            length(PLAIN, f"bodice {half}", "armhole"), abs=0.3
        )


def test_a_skirt_is_made_longer_across_its_middle():
    plain = make_up(recipe(lower={"kind": "a_line", "length": 620}))
    garment = made(
        {"kind": "insert", "part": "lower", "level": 400, "amount": 50}, lower={"kind": "a_line", "length": 620}
    )
    for half in ("front", "back"):
        assert length(garment, f"skirt {half}", f"centre {half}") == approx(
            length(plain, f"skirt {half}", f"centre {half}") + 50, abs=0.2
        )


@pytest.mark.parametrize("start", ["shoulder", "neckline", "armhole"])
@pytest.mark.parametrize("school", ["quarters", "two_lengths"])
def test_a_princess_seam_begins_where_it_is_asked_and_swallows_its_darts(start, school):
    plain = make_up(recipe(school=school))
    garment = made({"kind": "princess", "start": start, "share": 0.35, "on": "both"}, school=school)
    for half in ("front", "back"):
        centre, side = garment.piece(f"bodice centre {half}"), garment.piece(f"bodice side {half}")
        assert centre.darts == side.darts == ()
        whole = length(plain, f"bodice {half}", start)
        # counted from the neck and the centre, and down from the shoulder: so the armhole's first part is the side's
        first = side if start == "armhole" else centre
        second = centre if start == "armhole" else side
        parts = [p.stitched_length(start) if any(e.name == start for e in p.edges) else 0.0 for p in (first, second)]
        assert sum(parts) == approx(whole, abs=1.0)
        assert min(parts) / whole == approx(0.35, abs=0.02)
    assert all(walked.verdict.fits for walked in garment.seams)
    assert garment.joins[0].upper.length == approx(plain.joins[0].upper.length, abs=0.3)


def test_a_piece_is_not_cut_into_panels_that_are_there_already():
    line = {"kind": "line", "on": "front", "start": "shoulder", "start_share": 0.7, "end": "waist", "end_share": 0.85}
    [said] = refusals(make_up(recipe(line, {"kind": "princess", "on": "front", "start": "neckline"})))
    assert "there is a bodice side front already" in said.text(Unit.CM).lower()


def test_a_top_is_cut_off_behind_alone_and_its_edge_is_bound():
    garment = made(
        {"kind": "cut_off", "on": "back", "start": "centre", "start_share": 0.3, "end": "armhole", "bow": -8}
    )
    back = garment.piece("bodice back")
    assert {e.name for e in back.edges} == {"centre back", "armhole", "side", "waist", "top edge"}
    assert back.edge("top edge").finished == "bound"
    long = length(PLAIN, "bodice back", "centre back")
    assert length(garment, "bodice back", "centre back") == approx(0.7 * long, abs=0.1)
    assert "bodice shoulder seam" not in {walked.name for walked in garment.seams}
    [alone] = [f for f in garment.findings if f.code == "edge-left-alone"]
    assert [(place.piece, place.edge) for place in alone.at] == [("bodice front", "shoulder")]
    assert garment.piece("bodice front").edge("shoulder").finished == "turned under"
    assert all(walked.verdict.fits for walked in garment.seams)


def test_a_skirt_is_cut_off_below_a_line_and_hangs_from_its_new_hem():
    step = {"kind": "cut_off", "part": "lower", "on": "both", "start": "centre", "start_share": 0.8, "end": "side",
            "end_share": 0.7, "which": "below"}  # fmt: skip
    garment = made(step)
    for half in ("front", "back"):
        assert length(garment, f"skirt {half}", f"centre {half}") == approx(
            0.8 * length(PLAIN, f"skirt {half}", f"centre {half}"), abs=0.5
        )
        hem = garment.piece(f"skirt {half}").edge("hem")
        assert hem.allowance == PLAIN.piece(f"skirt {half}").edge("hem").allowance
    assert garment.joins[0].verdict.fits


def test_what_the_rest_hangs_from_is_not_cut_off():
    step = {"kind": "cut_off", "on": "front", "start": "centre", "start_share": 0.8, "end": "side", "which": "below"}
    away = {"kind": "move_dart", "edge": "waist", "to": "shoulder"}
    [said] = refusals(make_up(recipe(away, step)))
    assert "hangs from" in said.text(Unit.CM)


def test_what_a_line_cuts_off_may_be_of_the_contrast_cloth():
    step = {"kind": "line", "on": "back", "start": "centre", "start_share": 0.2, "end": "armhole", "cloth": "contrast"}
    cloths = {piece.name: piece.cloth.value for piece in made(step).pieces}
    assert cloths["back yoke"] == "contrast"
    assert cloths["bodice back"] == cloths["bodice front"] == "cloth"


def test_a_dart_is_left_open_as_a_fold():
    garment = made({"kind": "shape_dart", "on": "back", "shorter": 0, "left": "fold"})
    [dart] = garment.piece("bodice back").darts_of("waist")
    assert dart.pleat
    assert length(garment, "bodice back", "waist") == approx(length(PLAIN, "bodice back", "waist"), abs=0.1)


# order, off, refusals


def test_a_step_that_cannot_be_done_is_a_stop_at_its_own_sentence_and_changes_nothing():
    steps = [{"kind": "move_dart", "edge": "side", "to": "neckline"}, {"kind": "lower_end", "amount": 14}]
    garment = make_up(recipe(*steps))
    [said] = refusals(garment)
    assert said.severity is Severity.STOP
    assert [place.recipe for place in said.at] == ["steps.0"]
    assert "no dart on the side" in said.text(Unit.CM)
    only = make_up(recipe(steps[1]))
    assert garment.pieces == only.pieces
    [out] = said.remedies
    again = make_up(changed(recipe(*steps), out.changes))
    assert refusals(again) == []
    assert again.pieces == only.pieces


def test_steps_on_a_bodice_that_is_only_measured_are_refused_and_not_forgotten():
    garment = make_up(
        Recipe.model_validate(
            {
                "bodice": {"kind": "measured", "front": {"centre_to_dart": 93, "dart_width": 25, "dart_to_side": 98},
                           "back": {"centre_to_dart": 88, "dart_width": 25, "dart_to_side": 91},
                           "front_side": 205, "back_side": 205},
                "lower": {"kind": "circle"}, "steps": [{"kind": "hollow"}, {"kind": "hollow", "off": True}],
            }
        )
    )  # fmt: skip
    assert [place.recipe for f in refusals(garment) for place in f.at] == ["steps.0"]


@pytest.mark.parametrize("kind", STEPS, ids=lambda kind: kind.__name__)
def test_a_step_left_off_is_as_if_it_were_not_there_and_says_its_sentence(kind):
    step = kind().model_dump(mode="json")
    off = make_up(recipe(step | {"off": True}))
    assert off.pieces == PLAIN.pieces
    spoken = [part for part in spoken_parts(recipe(step), Unit.CM) if part.where == "steps.0"]
    assert spoken[0].title == kind.title
    text = "".join(t if isinstance(t, str) else t.text for line in spoken[0].lines for t in line)
    assert "{" not in text
    assert text.endswith(".")


NECK = {"kind": "lower_end", "edge": "neckline", "amount": 12, "on": "back"}
HOLE = {"kind": "hollow", "edge": "armhole", "on": "front"}
LINE = {"kind": "line", "on": "back", "start": "centre", "end": "armhole", "start_share": 0.2}
APART = [
    (NECK, {"kind": "shape_dart", "on": "front", "shorter": 15}),
    (HOLE, {"kind": "pinch", "on": "back", "edge": "neckline", "amount": 8}),
    ({"kind": "insert", "part": "lower", "level": 400, "amount": 30}, {"kind": "corner", "out": 8, "up": 3}),
    (LINE, HOLE),
]


@pytest.mark.parametrize("pair", APART)
def test_steps_that_do_not_touch_give_the_same_garment_in_either_order(pair):
    one, other = made(*pair), made(*reversed(pair))
    assert {p.what: p.edges for p in one.pieces} == {p.what: p.edges for p in other.pieces}


def test_stored_recipes_without_steps_are_read_and_make_the_same_garment():
    document = recipe().model_dump(mode="json")
    del document["steps"]
    assert make_up(read_recipe(document)).pieces == PLAIN.pieces


EDGES = ["neckline", "armhole", "side", "waist", "hem", "shoulder", "centre"]


@given(st.integers(0, 100_000), st.sampled_from(["quarters", "two_lengths", "proportional", "body_length"]),
       st.sampled_from(LOWER))  # fmt: skip
def test_any_sequence_of_steps_closes_and_walks_or_says_so(seed, school, lower):
    """Up to eight steps by chance: never a fault; pieces are simple and seams walk, or a finding names it."""
    draw = random.Random(seed)
    steps = some_steps(draw, draw.choice(["plain", "plausible", "extreme"]), 8)
    for step in steps:
        if step["kind"] not in ("line", "corner", "insert"):
            step["edge"] = draw.choice(EDGES)
    try:
        asked = recipe(*steps, school=school, lower={"kind": lower})
    except ValidationError:
        return
    garment = make_up(asked)
    codes = [f.code for f in garment.findings]
    assert FAULT not in codes
    stops = {place.piece for f in garment.findings if f.severity is Severity.STOP for place in f.at}
    for piece in garment.pieces:
        outline = polygon(piece.seam_line)
        assert outline.is_valid or piece.name in stops, piece.name
        for before, after in pairwise([*piece.edges, piece.edges[0]]):
            assert before.path.end.distance(after.path.start) < 0.01
    for walked in garment.seams:
        assert walked.verdict.fits or {"seam-does-not-walk", "waist-does-not-meet", "join-does-not-meet"} & set(codes)
    done = [k for k, step in enumerate(asked.steps) if not step.off]
    refused = {int(place.recipe.split(".")[1]) for f in refusals(garment) for place in f.at}
    assert refused <= set(done)
    off = make_up(changed(asked, {f"steps.{k}.off": True for k in refused}))
    assert {p.what: p.edges for p in off.pieces} == {p.what: p.edges for p in garment.pieces}
    assert not [p for p in garment.pieces if p.what.layer is Layer.OUTER and not p.edges]


def test_the_usual_amounts_are_the_trades():
    """Common practice (trade 4.4, 4.7): ¼ in pinched, 2 in a cut."""
    usual = {kind.__name__: kind() for kind in STEPS}
    assert usual["Pinch"].amount == inches(0.25)
    assert usual["Spread"].amount == inches(2)


def test_a_hollow_of_a_side_says_and_lights_both_its_edges():
    whole = recipe({"kind": "hollow", "edge": "side", "on": "front"}, {"kind": "hollow", "edge": "armhole"})
    side, armhole = whole.steps
    assert spoken(side, Unit.CM).count(", and so is the edge it is sewn to.") == 1
    assert "sewn to" not in spoken(armhole, Unit.CM)
    lit = {(place.piece, place.edge) for place in acted_on(side, make_up(whole).pieces)}
    assert lit == {("bodice front", "side"), ("bodice back", "side")}


def test_the_middle_of_the_body_is_in_front_and_behind_and_nowhere_else():
    assert {role for role in Role if role.is_centre} == {Role.CENTRE_FRONT, Role.CENTRE_BACK}


def test_what_is_said_while_a_step_is_tried_goes_with_the_step():
    """A cut that leaves a seam's other side alone says so; refused, it leaves only its refusal."""
    table = Table(METRIC_ALLOWANCES)

    def tried():
        table.findings.append(note("said-on-the-way", "Something."))
        raise CannotMake("it does not go")

    table.attempt(tried, lambda why: note("left-out", why))
    assert [found.code for found in table.findings] == ["left-out"]


@pytest.mark.parametrize(("typed", "share"), [("40 %", 0.4), ("40", 0.4), ("2/5", 0.4), ("0.4", 0.4), ("0,4", 0.4),
                                              ("1", 1.0), ("100", 1.0), (0.25, 0.25), ("33,3%", 0.333)])  # fmt: skip
def test_a_share_is_read_as_a_maker_writes_it(typed, share):
    [step] = recipe({"kind": "hollow", "share": typed}).steps
    assert step.share == approx(share)


@pytest.mark.parametrize(("typed", "said"), [("half way", "cannot be read as a share"), ("1/0", "cannot be read"),
                                             ("150", "150 % is out of range; from 0 % to 100 %"),
                                             (-0.2, "-20 %")])  # fmt: skip
def test_what_is_no_share_is_refused_with_what_is(typed, said):
    with pytest.raises(ValidationError, match=said):
        recipe({"kind": "hollow", "share": typed})


def test_a_princess_seam_under_a_yoke_is_cut_in_the_piece_that_has_the_dart():
    """Both the yoke and what is below it reach the armhole; the seam runs into the waist dart."""
    garment = made(
        {"kind": "yoke", "on": "front", "depth": 120}, {"kind": "princess", "on": "front", "start": "armhole"}
    )
    assert {p.name for p in garment.pieces} >= {"front yoke", "bodice centre front", "bodice side front"}
    assert not garment.piece("bodice centre front").darts


@pytest.mark.parametrize("step", [
    {"kind": "pinch", "edge": "armhole", "hinge": "centre", "share": 0.5, "hinge_share": 0.5, "amount": 8},
    {"kind": "spread", "edge": "armhole", "hinge": "centre", "cuts": 1, "amount": 20},
])  # fmt: skip
def test_a_centre_on_the_fold_is_never_bent(step):
    """A fold is a straight line: a wedge that runs out at it would leave a corner there, which no cloth folds to."""
    garment = make_up(recipe(steps=[step]))
    [refused] = [finding for finding in garment.findings if finding.refuses]
    assert "lies on the fold, and would be bent there" in refused.text("cm")
    centre = garment.piece("bodice front").edge("centre front").path
    assert {point.x for segment in centre.segments for point in (segment.start, segment.end)} == {0.0}


@pytest.mark.parametrize(
    ("edge", "hinge", "share", "hinge_share"),
    [("neckline", "side", 0.5, 0.3), ("shoulder", "side", 0.4, 0.2), ("neckline", "waist", 0.3, 0.8)],
)
def test_a_pinch_across_a_slanting_edge_takes_all_that_was_asked(edge, hinge, share, hinge_share):
    """What is asked is what the edge becomes shorter by, also where the fold makes a step that is drawn over."""
    step = {"kind": "pinch", "edge": edge, "hinge": hinge, "amount": 12, "share": share, "hinge_share": hinge_share}
    before, after = (make_up(recipe(*steps)).piece("bodice front") for steps in ((), (step,)))
    assert before.stitched_length(edge) - after.stitched_length(edge) == approx(12, abs=0.2)
    assert after.stitched_length(hinge) == approx(before.stitched_length(hinge), abs=0.2)
