"""Truing: what is measured of a shape, what is done about it, and the curvature of what comes out."""

from dataclasses import replace
from itertools import pairwise
from math import atan2, cos, degrees, radians, sin, tan

import pytest
from pytest import approx

from conftest import FIGURE, drafted_recipe
from gentle_hem.core.cutting import true
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.findings import Severity
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Dart, Edge, Piece, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.seams import seam_of
from gentle_hem.core.shape import Over, corners, findings_for, turn
from gentle_hem.core.units import Unit
from gentle_hem.core.what import FRONT_DART, SKIRT_BACK, SKIRT_FRONT


def panel(what, lean, dart=0.0, width=200.0, high=600.0, on_fold=True):
    """A skirt half: centre upright on x = 0, waist level with a dart in its middle, the side leaning out by degrees."""
    low = Point(width + high * tan(radians(lean)), -high)
    mouth = (Point(width / 2 - dart / 2, 0), Point(width / 2 + dart / 2, 0))
    waist = [Point(width, 0), *(reversed(mouth) if dart else ()), Point(0, 0)]
    edges = (
        Edge("centre front", Role.CENTRE_FRONT, Path.through(Point(0, 0), Point(0, -high))),
        Edge("hem", Role.HEM, Path.through(Point(0, -high), low)),
        Edge("side", Role.SIDE, Path.through(low, Point(width, 0))),
        Edge("waist", Role.WAIST, Path.through(*waist)),
    )
    darts = (Dart("waist", width / 2 - dart / 2, dart, Point(width / 2, -100), FRONT_DART),) if dart else ()
    return Piece(what, edges, on_fold=on_fold, darts=darts)


def pair(front_lean, back_lean, **rest):
    front, back = panel(SKIRT_FRONT, front_lean, **rest), panel(SKIRT_BACK, back_lean, **rest)
    seam = seam_of("side seam", (SKIRT_FRONT, "side"), (SKIRT_BACK, "side"))
    # both halves are drawn alike here, so the seam runs the same way on either
    seam = replace(seam, b=replace(seam.b, stretches=(replace(seam.b.stretches[0], backwards=False),)))
    return {SKIRT_FRONT: front, SKIRT_BACK: back}, (seam,)


def by_place(found):
    return {(corner.over, corner.what, corner.edge): corner.off for corner in found}


def test_corners_are_measured_as_they_are_drawn():
    """Sides leaning 8° and 4°: 12° too much at the waist and too little at the hem; 20 mm over 100 mm closes 11.4°."""
    pieces, seams = pair(8, 4, dart=20)
    found = by_place(corners(pieces, seams))
    assert found[Over.SEAM, SKIRT_FRONT, "waist"] == approx(12)
    assert found[Over.SEAM, SKIRT_FRONT, "hem"] == approx(-12)
    closing = 2 * degrees(atan2(10, 100))
    assert abs(found[Over.DART, SKIRT_FRONT, "waist"]) == approx(closing)
    assert found[Over.CENTRE, SKIRT_FRONT, "waist"] == approx(0, abs=1e-9)


@pytest.mark.parametrize("dart", [0.0, 20.0])
def test_a_trued_pair_runs_smoothly_and_keeps_its_lengths(dart):
    """Front and back lean differently; each is squared to its own side, and both sides change by the same."""
    pieces, seams = pair(9, 5, dart=dart)
    made, slid = true.trued(pieces, seams)
    assert [corner for corner in corners(made, seams) if abs(corner.off) > 0.5] == []
    for what, piece in made.items():
        for edge in ("waist", "hem"):
            assert piece.stitched_length(edge) == approx(pieces[what].stitched_length(edge), abs=0.01)
        was, now = pieces[what].edge("centre front").path, piece.edge("centre front").path
        assert max(now.start.distance(was.start), now.end.distance(was.end)) < 1e-9, "the centre is never moved"
        for one in piece.darts:
            near, far = (leg.length for leg in piece.dart_leg_paths(one))
            assert near == approx(far, abs=1e-6)
    grown = [made[what].edge("side").drawn_length - pieces[what].edge("side").drawn_length for what in made]
    assert grown[0] == approx(grown[1], abs=0.5)
    for move in slid:
        assert 1 < abs(move.by) <= 12 + 3, "3 to 12 mm is usual (trade 4.8)"


def test_a_dart_stays_where_it_is_along_the_waist():
    pieces, seams = pair(9, 5, dart=20)
    made, _ = true.trued(pieces, seams)
    for what, piece in made.items():
        [before], [after] = pieces[what].darts, piece.darts
        assert after.at == approx(before.at, abs=0.01)
        assert after.apex == before.apex
        assert after.intake == approx(before.intake, abs=1.5), "as wide as its legs are long, the angle kept"


def test_what_is_left_and_what_has_its_points_stays():
    pieces, seams = pair(9, 5)
    assert true.trued(pieces, seams, left=[SKIRT_FRONT])[0] == pieces
    pointed = {what: piece.with_edge("hem", pointed=True) for what, piece in pieces.items()}
    hem = pointed[SKIRT_FRONT].edge("hem").path
    made = true.trued(pointed, seams)[0][SKIRT_FRONT].edge("hem").path
    assert made.point_at(50) == hem.point_at(50)


def test_truing_what_is_true_changes_nothing():
    pieces, seams = pair(9, 5, dart=20)
    once, _ = true.trued(pieces, seams)
    twice, slid = true.trued(once, seams)
    assert slid == []
    assert all(
        a.path.point_at(a.path.length / 3).distance(b.path.point_at(b.path.length / 3)) < 0.05
        for what in once
        for a, b in zip(once[what].edges, twice[what].edges, strict=True)
    )


def bent_at_the_knee(bent):
    """A half whose side turns by so many degrees half-way up."""
    low = Point(200, -600)
    knee = Point(200, -300)
    top = knee + Point(sin(radians(bent)) * -300, cos(radians(bent)) * 300)
    edges = (
        Edge("centre front", Role.CENTRE_FRONT, Path.through(Point(0, top.y), Point(0, -600))),
        Edge("hem", Role.HEM, Path.through(Point(0, -600), low)),
        Edge("side", Role.SIDE, Path.through(low, knee, top)),
        Edge("waist", Role.WAIST, Path.through(top, Point(0, top.y))),
    )
    return Piece(SKIRT_FRONT, edges, on_fold=True), knee


@pytest.mark.parametrize("bent", [5, 12, 20, 40])
def test_a_corner_in_a_side_is_rounded_and_the_side_stays_as_long(bent):
    piece, knee = bent_at_the_knee(bent)
    made = true.trued({SKIRT_FRONT: piece}, ())[0][SKIRT_FRONT]
    side = made.edge("side")
    assert side.drawn_length == approx(600, abs=0.05)
    nearest = min(place.distance(knee) for place in side.path.flatten(0.01))
    assert nearest < 0.1 * bent + 0.2, "it passes close by the corner"
    assert all(abs(turn(a.arriving, b.leaving)) < 0.5 for a, b in zip(side.path, list(side.path)[1:], strict=False))


@pytest.mark.parametrize("bent", [5, 20])
def test_a_side_and_its_mate_are_rounded_alike(bent):
    """A mate's edge runs the other way; turned over it must still lie on its own, or the seam would not lie flat."""
    piece, _ = bent_at_the_knee(bent)
    made = true.trued({SKIRT_FRONT: piece}, ())[0][SKIRT_FRONT].edge("side").path
    mate = mirrored(true.trued({SKIRT_FRONT: mirrored(piece)}, ())[0][SKIRT_FRONT]).edge("side").path
    for share in (0.4, 0.45, 0.5, 0.55, 0.6):
        assert mate.point_at(600 * share).distance(made.point_at(600 * share)) < 0.02


def test_a_corner_that_is_left_is_said_with_its_place():
    pieces, seams = pair(8, 4, dart=20)
    said = [finding for finding in findings_for(pieces, seams) if finding.severity is Severity.WARN]
    texts = [finding.text(Unit.CM) for finding in said]
    assert "The waist turns a corner of 12° over the side seam; draw it on smoothly there before it is cut." in texts
    assert any(place.edge == "waist" and place.piece == "skirt front" for place in said[0].at)
    uneven = replace(pieces[SKIRT_FRONT], darts=(replace(pieces[SKIRT_FRONT].darts[0], apex=Point(110, -100)),))
    legs = [f for f in findings_for({SKIRT_FRONT: uneven}, ()) if f.code == "dart-legs-differ"]
    assert len(legs) == 1
    assert legs[0].text(Unit.CM).startswith("The legs of the dart on the waist of the skirt front are ")


def test_the_waist_of_a_block_is_one_curve_once_its_dart_is_folded():
    """Golden: the front of the two lengths, folded by hand here, turns one way only and ends square to its side."""
    piece = make_up(drafted_recipe("two_lengths")).piece("bodice front")
    [dart] = piece.darts_of("waist")
    near, far = piece.dart_legs(dart)
    closing = atan2((near - dart.apex).y, (near - dart.apex).x) - atan2((far - dart.apex).y, (far - dart.apex).x)
    path = piece.edge("waist").path
    folded = [path.point_at(dart.at * k / 20) for k in range(21)]
    rest = path.length - dart.at - dart.intake
    folded += [path.point_at(path.length - rest + rest * k / 20).turned(closing, dart.apex) for k in range(1, 21)]
    turns = [turn(b - a, c - b) for a, b, c in zip(folded, folded[1:], folded[2:], strict=False)]
    assert all(one < 0.05 for one in turns), "it never turns back"
    assert max(abs(one) for one in turns) < 4, "and nowhere sharply"
    side = piece.edge("side").path.leaving.turned(closing)
    assert turn(side, folded[-1] - folded[-2]) == approx(-90, abs=3)
    assert abs((folded[1] - folded[0]).unit.y) < 0.02, "square to the centre"


def bends(path, step=4.0):
    """The curvature along a path, 1/mm, by the circle through three places a step apart, whatever its segments."""
    count = int(path.length / step)
    places = [path.point_at(path.length * k / count) for k in range(count + 1)]
    found = []
    for a, b, c in zip(places, places[1:], places[2:], strict=False):
        area = (b - a).cross(c - a) / 2
        found.append(4 * area / (a.distance(b) * b.distance(c) * c.distance(a)))
    return found


def inflections(found, least=2e-4):
    """How often a curve changes the way it turns; what hardly turns does not count."""
    signs = [one > 0 for one in found if abs(one) > least]
    return sum(a != b for a, b in pairwise(signs))


@pytest.mark.parametrize("school", ["quarters", "quarters_cm", "two_lengths", "proportional", "body_length"])
@pytest.mark.parametrize("half", ["front", "back"])
def test_an_armhole_is_one_hollow(school, half):
    path = make_up(drafted_recipe(school)).piece(f"bodice {half}").edge("armhole").path
    found = bends(path)
    assert inflections(found) <= 1, "one hollow, and at most a turn into the shoulder"
    assert max(abs(one) for one in found) < 1 / 20, "no corner tighter than a 2 cm circle"


def test_a_sleeve_cap_turns_once_on_each_side():
    sleeved = Recipe.model_validate(
        {"figure": {"measures": FIGURE}, "bodice": {"kind": "two_lengths"}, "trims": [{"kind": "sleeve"}],
         "lower": {"kind": "straight"}}
    )  # fmt: skip
    sleeve = next(p for p in make_up(sleeved).pieces if any(e.role is Role.CAP for e in p.edges))
    caps = [edge.path for edge in sleeve.edges if edge.role is Role.CAP]
    assert sum(inflections(bends(path)) for path in caps) <= 2


@pytest.mark.parametrize("half", ["front", "back"])
def test_a_crotch_is_a_j(half):
    garment = make_up(drafted_recipe("two_lengths").model_copy(update={"lower": trousers()}))
    piece = garment.piece(f"trouser {half}")
    crotch = next(edge for edge in piece.edges if edge.role is Role.CROTCH or edge.role.value == f"centre {half}")
    assert inflections(bends(crotch.path)) <= 1


def trousers():
    return Recipe.model_validate({"figure": {"measures": FIGURE}, "lower": {"kind": "trousers"}}).lower


@pytest.mark.parametrize("start", ["shoulder", "armhole"])
def test_a_princess_seam_has_no_corner_over_the_bust(start):
    garment = make_up(drafted_recipe("two_lengths", panels={"front_princess": start}))
    for name in ("bodice centre front", "bodice side front"):
        path = garment.piece(name).edge("princess").path
        assert max(abs(turn(a.arriving, b.leaving)) for a, b in zip(path, list(path)[1:], strict=False)) < 1
        assert max(abs(one) for one in bends(path)) < 1 / 25, "rounder than a 2.5 cm circle everywhere"


def test_a_seam_that_is_carried_on_is_said_with_its_amount():
    """A side that leans in at the waist is longer by what the note says, front and back alike."""
    recipe = drafted_recipe("two_lengths").model_copy(update={"lower": skirt()})
    garment = make_up(recipe)
    said = [finding for finding in garment.findings if finding.code == "seam-trued"]
    assert said
    pieces, seams = pair(9, 5)
    made, slid = true.trued(pieces, seams)
    assert {move.edge for move in slid} == {"waist", "hem"}
    by = sum(move.by for move in slid)
    for what, piece in made.items():
        grown = piece.edge("side").drawn_length - pieces[what].edge("side").drawn_length
        assert grown == approx(by, abs=0.6), "and what its ends gave so that waist and hem keep their length"
    assert slid[0].said().text(Unit.CM).startswith("The side seam is made ")


def skirt():
    return Recipe.model_validate({"figure": {"measures": FIGURE}, "lower": {"kind": "straight", "taper": 60}}).lower


def test_notches_that_do_not_meet_over_their_seam_are_said():
    """Planted: a side notch moved by 4 mm on one half, and one left out."""
    garment = make_up(drafted_recipe("quarters"))
    pieces = {piece.what: piece for piece in garment.pieces}
    seams = [walked.seam for walked in garment.seams]
    assert [f for f in findings_for(pieces, seams) if f.code == "notches-do-not-meet"] == []
    side = next(seam for seam in seams if seam.name == "bodice side seam")
    what = side.a.stretches[0].piece
    for moved in (lambda n: replace(n, at=n.at + 4), lambda n: None):
        changed_notches = [moved(n) if n.edge == "side" else n for n in pieces[what].notches]
        planted = pieces | {what: replace(pieces[what], notches=tuple(n for n in changed_notches if n))}
        [said] = [f for f in findings_for(planted, seams) if f.code == "notches-do-not-meet"]
        assert {place.piece for place in said.at} == {"bodice front", "bodice back"}
        assert said.values["gap"] >= 3.9
