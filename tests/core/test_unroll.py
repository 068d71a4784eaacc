"""Edges laid out straight from centre front to centre back, darts closed to one place."""

import pytest
from pytest import approx

from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.join import unroll
from gentle_hem.core.pattern import Dart, Edge, Notch, Piece, Role
from gentle_hem.core.seams import Run, Seam, Stretch, Verdict
from gentle_hem.core.units import Unit
from gentle_hem.core.walk import ease_remedy, findings_for, walk
from gentle_hem.core.what import (
    BODICE_BACK,
    BODICE_FRONT,
    FRONT_DART,
    SKIRT_BACK,
    SKIRT_FRONT,
    WAIST_CORNERS,
    Sign,
)


def strip(what, width, darts=(), notches=()):
    """A strip whose top edge is its waist, running from right to left as an outline does."""
    a, b, c, d = Point(0, 0), Point(width, 0), Point(width, 100), Point(0, 100)
    edges = (
        Edge("hem", Role.HEM, Path.through(a, b)),
        Edge("right", Role.SIDE, Path.through(b, c)),
        Edge("waist", Role.WAIST, Path.through(c, d)),
        Edge("left", Role.SIDE, Path.through(d, a)),
    )
    return Piece(what, edges, darts=darts, notches=notches)


def test_a_dart_is_one_place_and_what_lies_beyond_it_moves_up():
    dart = Dart("waist", 40, 20, Point(150, 50), FRONT_DART)
    piece = strip(
        BODICE_FRONT, 200, (dart,), (Notch("waist", 160, Sign("quarter")), Notch("waist", 50, Sign("in the mouth")))
    )
    pieces, ends = {BODICE_FRONT: piece}, (Sign("left end"), Sign("right end"))
    forwards = unroll(Run((Stretch(BODICE_FRONT, "waist"),), ends), pieces)
    assert [(mark.name, mark.at) for mark in forwards.landmarks] == [
        ("left end", 0),
        ("front dart", 40),
        ("in the mouth", 40),
        ("quarter", 140),
        ("right end", 180),
    ]
    backwards = unroll(Run((Stretch(BODICE_FRONT, "waist", backwards=True),), ends), pieces)
    assert backwards.at("quarter") == approx(40)
    assert backwards.at("front dart") == approx(140)
    assert backwards.length == forwards.length == approx(180)


def test_edges_end_to_end_meet_at_their_corner():
    pieces = {BODICE_FRONT: strip(BODICE_FRONT, 180), BODICE_BACK: strip(BODICE_BACK, 165)}
    stretches = (Stretch(BODICE_FRONT, "waist", backwards=True), Stretch(BODICE_BACK, "waist"))
    edge = unroll(Run(stretches, WAIST_CORNERS), pieces)
    assert edge.between("centre front", "side seam") == approx(180)
    assert edge.between("side seam", "centre back") == approx(165)
    assert [(run.piece, run.length) for run in edge.runs] == [(BODICE_FRONT, 180), (BODICE_BACK, 165)]
    assert edge.darts() == ()
    with pytest.raises(KeyError, match="no front dart"):
        edge.between("centre front", "front dart")


def test_a_stretch_of_an_edge_is_measured_from_where_it_begins():
    """A slit from its tip to the hem, a ruffle that stops short: a part of an edge, its dart left out."""
    dart = Dart("waist", 40, 20, Point(150, 50), FRONT_DART)
    pieces = {BODICE_FRONT: strip(BODICE_FRONT, 200, (dart,), (Notch("waist", 160, Sign("quarter")),))}
    part = unroll(Run((Stretch(BODICE_FRONT, "waist", False, 30, 170),)), pieces)
    assert part.length == approx(120)
    assert (part.at("front dart"), part.at("quarter")) == (approx(10), approx(110))
    back = unroll(Run((Stretch(BODICE_FRONT, "waist", True, 30, 170),)), pieces)
    assert (back.at("quarter"), back.at("front dart")) == (approx(10), approx(110))
    beyond = unroll(Run((Stretch(BODICE_FRONT, "waist", False, 100),)), pieces)
    assert beyond.length == approx(100)
    assert beyond.at("front dart") is None


def test_a_run_without_names_ends_at_the_edges_beside_it():
    pieces = {BODICE_FRONT: strip(BODICE_FRONT, 200)}
    assert [m.name for m in unroll(Run((Stretch(BODICE_FRONT, "right"),)), pieces).landmarks] == ["hem", "waist"]
    against = unroll(Run((Stretch(BODICE_FRONT, "right", backwards=True),)), pieces)
    assert [m.name for m in against.landmarks] == ["waist", "hem"]


def waist_seam(front, back, ease=0, marks=((), ())):
    """A bodice of 190 and 170 with its front dart at 90, over a skirt of given front and back."""
    dart = Notch("waist", 190 - 90, FRONT_DART)
    own = [tuple(Notch("waist", width - at, Sign(name)) for name, at in here)
           for width, here in zip((front, back), marks, strict=True)]  # fmt: skip
    pieces = {
        BODICE_FRONT: strip(BODICE_FRONT, 190, (), (dart,)), BODICE_BACK: strip(BODICE_BACK, 170),
        SKIRT_FRONT: strip(SKIRT_FRONT, front, (), own[0]), SKIRT_BACK: strip(SKIRT_BACK, back, (), own[1]),
    }  # fmt: skip
    sides = [
        Run(tuple(Stretch(what, "waist", backwards=True) for what in pair), WAIST_CORNERS, called)
        for pair, called in (((BODICE_FRONT, BODICE_BACK), "bodice"), ((SKIRT_FRONT, SKIRT_BACK), "skirt"))
    ]
    return walk(Seam("waist seam", *sides, ease), pieces)


def test_only_landmarks_both_edges_have_are_tied():
    report = waist_seam(195, 165, marks=((), (("godet", 55),)))
    assert [(tie.name, tie.offset) for tie in report.ties] == [
        ("centre front", 0), ("side seam", 5), ("centre back", 0),
    ]  # fmt: skip
    assert [(s.start, s.end, s.difference) for s in report.sections] == [
        ("centre front", "side seam", 5), ("side seam", "centre back", -5),
    ]  # fmt: skip
    [finding] = findings_for(report)
    assert finding.severity == "note"
    assert "a busy print hides it" in finding.text(Unit.CM)


@pytest.mark.parametrize(
    ("length", "ease", "verdict", "left_open"),
    [
        (360, 0, Verdict.MEETS, 0),
        (365, 0, Verdict.LONGER, 5),
        (352, 0, Verdict.SHORTER, -8),
        (365, 10, Verdict.EASED, 0),
        (365, 4, Verdict.LONGER, 3),
        (355, -10, Verdict.EASED, 0),
    ],
)
def test_what_is_left_open_once_the_ease_is_taken_up(length, ease, verdict, left_open):
    report = waist_seam(190, length - 190, ease / 2)
    assert report.verdict is verdict
    assert report.open_difference == approx(left_open)


def test_easing_pins_the_edge_that_is_eased():
    remedy = ease_remedy(waist_seam(190, 174), 0.0, {"lower.seam": 728.0})
    assert remedy.changes == {"lower.seam": 728.0, "join.ease": approx(8)}
    assert remedy.text(Unit.CM) == "Ease 0.8 cm of the skirt in along the seam"
    assert ease_remedy(waist_seam(190, 166), 0.0, {}).text(Unit.CM) == "Ease 0.8 cm of the bodice in along the seam"
    assert ease_remedy(waist_seam(190, 200), 0.0, {}) is None
