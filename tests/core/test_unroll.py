"""Edges laid out straight from centre front to centre back, darts closed to one place."""

import pytest
from pytest import approx

from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.join import Landmark, Unrolled, compare, ease_remedy, findings_for, unroll
from gentle_hem.core.pattern import Dart, Edge, EdgeRef, Notch, Piece, Role, Verdict
from gentle_hem.core.units import Unit


def strip(name, width, darts=(), notches=()):
    """A strip whose top edge is its waist, running from right to left as an outline does."""
    a, b, c, d = Point(0, 0), Point(width, 0), Point(width, 100), Point(0, 100)
    edges = (
        Edge("hem", Role.HEM, Path.through(a, b)),
        Edge("right", Role.SIDE, Path.through(b, c)),
        Edge("waist", Role.WAIST, Path.through(c, d)),
        Edge("left", Role.SIDE, Path.through(d, a)),
    )
    return Piece(name, edges, darts=darts, notches=notches)


def test_a_dart_is_one_place_and_what_lies_beyond_it_moves_up():
    dart = Dart("waist", 40, 20, Point(150, 50), "front dart")
    piece = strip("front", 200, (dart,), (Notch("waist", 160, "quarter"), Notch("waist", 50, "in the mouth")))
    forwards = unroll((EdgeRef("front", "waist"),), {"front": piece}, ("left end", "right end"))
    assert [(mark.name, mark.at) for mark in forwards.landmarks] == [
        ("left end", 0),
        ("front dart", 40),
        ("in the mouth", 40),
        ("quarter", 140),
        ("right end", 180),
    ]
    backwards = unroll((EdgeRef("front", "waist", backwards=True),), {"front": piece}, ("a", "b"))
    assert backwards.at("quarter") == approx(40)
    assert backwards.at("front dart") == approx(140)
    assert backwards.length == forwards.length == approx(180)


def test_edges_end_to_end_meet_at_their_corner():
    pieces = {"front": strip("front", 180), "back": strip("back", 165)}
    refs = (EdgeRef("front", "waist", backwards=True), EdgeRef("back", "waist"))
    edge = unroll(refs, pieces, ("centre front", "side seam", "centre back"))
    assert edge.between("centre front", "side seam") == approx(180)
    assert edge.between("side seam", "centre back") == approx(165)
    assert edge.runs == (("front", "waist", 180), ("back", "waist", 165))
    assert edge.darts() == ()
    with pytest.raises(KeyError, match="no front dart"):
        edge.between("centre front", "front dart")


def plain(*places):
    return Unrolled(tuple(Landmark(name, at) for name, at in places))


UPPER = plain(("centre front", 0), ("front dart", 90), ("side seam", 190), ("centre back", 360))


def test_only_landmarks_both_edges_have_are_tied():
    lower = plain(("centre front", 0), ("side seam", 195), ("godet", 250), ("centre back", 360))
    report = compare("waist seam", UPPER, lower, 0)
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
    lower = plain(("centre front", 0), ("centre back", length))
    report = compare("waist seam", UPPER, lower, ease)
    assert report.verdict is verdict
    assert report.open_difference == approx(left_open)


def test_easing_pins_the_edge_that_is_eased():
    lower = plain(("centre front", 0), ("centre back", 364))
    report = compare("waist seam", UPPER, lower, 0)
    remedy = ease_remedy(report, 0.0, {"lower.seam": 728.0})
    assert remedy.changes == {"lower.seam": 728.0, "join.ease": approx(8)}
    assert remedy.text(Unit.CM) == "Ease 0.8 cm of the skirt in along the seam"
    shorter = compare("waist seam", UPPER, plain(("centre front", 0), ("centre back", 356)), 0)
    assert ease_remedy(shorter, 0.0, {}).text(Unit.CM) == "Ease 0.8 cm of the bodice in along the seam"
    far = compare("waist seam", UPPER, plain(("centre front", 0), ("centre back", 390)), 0)
    assert ease_remedy(far, 0.0, {}) is None
