"""The lines a draft is made of: square where they must be, and as long as they were asked to be."""

from math import hypot

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from gentle_hem.core.block.frame import Frame, draft_half, level_findings, width_findings
from gentle_hem.core.drafting import FRONT, Drafting, armhole, line, neckline, side_seam, waist_with_dart
from gentle_hem.core.geometry import Point
from gentle_hem.core.style.neckline import SHAPES, Neckline
from gentle_hem.core.units import Unit

FRAME = Frame(
    neck_width=76.0, neck_depth=76.0, half_shoulder=195.0, shoulder_drop=25.0, hollow=19.0, armhole_level=191.0,
    bust_level=265.0, waist_level=430.0, bust_quarter=242.0, waist_quarter=191.0, half_span=92.0, waist_dart=25.0,
)  # fmt: skip


def changed(**changes):
    values = {name: getattr(FRAME, name) for name in FRAME.__slots__}
    return Frame(**{**values, **changes})


def test_a_neckline_meets_shoulder_and_centre_square():
    level = neckline(Point(76, 0), Point(0, -76), Point(195, 0))
    assert level.leaving == Point(0, -1)
    sloping = neckline(Point(76, 0), Point(0, -76), Point(195, -25))
    assert sloping.leaving.dot(Point(119, -25).unit) == approx(0, abs=1e-9)
    for curve in (level, sloping):
        assert curve.arriving.y == approx(0, abs=1e-9)
        assert curve.arriving.x == approx(-1)
    quarter_circle = 76 * 1.5707963
    assert level.length == approx(quarter_circle, rel=0.001), "as wide as deep, it is a quarter of a circle"


def test_an_armhole_leaves_the_side_level_and_meets_the_shoulder_square():
    neck, tip = Point(76, 0), Point(195, -25)
    hole = armhole(Point(242, -191), Point(176, -108), tip, neck)
    assert hole.leaving == Point(-1, 0)
    assert hole.arriving.dot((neck - tip).unit) == approx(0, abs=1e-9)
    lower, upper = hole.segments
    assert lower.direction(1).cross(upper.direction(0)) == approx(0, abs=1e-9), "no corner at the cross mark"
    assert hole.point_at(lower.length).distance(Point(176, -108)) < 1e-9


def test_a_side_seam_comes_upright_to_the_bust():
    seam = side_seam(Point(216, -430), Point(242, -265), Point(242, -191))
    curve = seam.segments[0]
    assert curve.direction(1) == Point(0, 1)
    assert seam.end == Point(242, -191)
    assert len(side_seam(Point(216, -430), Point(242, -265), Point(242, -265)).segments) == 1


@given(
    st.floats(60, 130), st.floats(0, 60), st.floats(150, 320), st.floats(60, 250), st.floats(0, 0.15), st.floats(0, 25)
)
def test_a_waist_is_as_long_as_asked_with_its_dart_closed(at, intake, stitched, height, slope, rise):
    apex = Point(at, -430 + height)
    waist = waist_with_dart(Point(0, -430), apex, intake, stitched, -430 + rise, slope)
    if stitched - hypot(at - intake / 2, slope * at) < rise + 45:
        return  # the side would have to be reached backwards
    assert waist.stitched == approx(stitched, abs=1e-6)
    near, far = waist.path.point_at(waist.dart_at), waist.path.point_at(waist.dart_at + intake)
    assert near.distance(far) == approx(intake, abs=1e-6)
    assert near.distance(apex) == approx(far.distance(apex), abs=1e-6)
    assert waist.path.end.y == approx(-430 + rise)


def test_a_half_is_drawn_within_its_frame():
    paper = Drafting(FRONT)
    half = draft_half(paper, FRAME)
    assert half.waist.stitched == approx(191)
    assert half.side.end == Point(242, -191)
    assert half.neckline.end == Point(0, -76)
    assert half.shoulder.length == approx(hypot(195 - 76, 25))
    assert half.bust_point == Point(92, -265)
    assert [step.half for step in paper.steps] == [FRONT] * 8
    assert "19.1 cm down" not in paper.steps[0].text(Unit.CM)
    assert paper.steps[3].text(Unit.CM).startswith("The armhole level lies 19.1 cm down.")


def test_without_a_dart_no_dart_is_drawn():
    paper = Drafting(FRONT)
    half = draft_half(paper, changed(waist_dart=0.0))
    assert half.waist.intake == 0
    assert half.waist.path.length == approx(191)
    assert len(paper.steps) == 7


def test_a_bust_dart_opens_the_side_by_exactly_the_difference():
    plain = draft_half(Drafting(FRONT), FRAME)
    darted = draft_half(Drafting(FRONT), changed(bust_dart=40.0, waist_level=470))
    assert darted.side.length - 40 == approx(plain.side.length)
    assert darted.side_dart.intake == 40
    at = darted.side_dart.at
    upper, lower = darted.side.point_at(at + 40), darted.side.point_at(at)
    assert upper.distance(Point(242, -265)) < 1e-6
    assert lower.distance(Point(242, -305)) < 1e-6
    assert upper.distance(darted.side_dart.apex) == approx(lower.distance(darted.side_dart.apex))


def test_one_shoulder_length_for_two_slopes():
    front = draft_half(Drafting(FRONT), changed(shoulder_drop=38, shoulder_length=124.0))
    back = draft_half(Drafting(FRONT), changed(shoulder_drop=25, shoulder_length=124.0))
    assert front.shoulder.length == approx(back.shoulder.length) == approx(124)
    assert front.shoulder.start.y < back.shoulder.start.y


@pytest.mark.parametrize(
    ("found", "codes"),
    [
        (level_findings(430, 265), []),
        (level_findings(280, 265), ["waist-too-near-bust"]),
        (width_findings(242, 195), []),
        (width_findings(180, 195), ["shoulder-wider-than-bust"]),
    ],
)
def test_measures_that_cannot_be_drawn_are_said(found, codes):
    assert [finding.code for finding in found] == codes
    for finding in found:
        assert finding.text(Unit.INCH).endswith(".")


@pytest.mark.parametrize("shape", [s for s in Neckline if s is not Neckline.AS_DRAFTED])
def test_every_neckline_runs_from_the_shoulder_to_the_centre_without_crossing_it(shape):
    n, c = Point(76, 0), Point(0, -150)
    square = Point(119, -25).unit.left * -1
    drawn = SHAPES[shape](n, c, square)
    assert drawn.leaving.distance(square) < 1e-9, "square to the shoulder"
    assert drawn.start == n
    assert drawn.end == c
    for place in drawn.flatten(0.5):
        assert -1e-9 <= place.x <= 76 + 1e-9
        assert -150 - 1e-9 <= place.y <= 1e-9


def test_necklines_by_their_geometry():
    n, c, down = Point(80, 0), Point(0, -60), Point(0, -1)
    assert 100 < SHAPES[Neckline.V](n, c, down).length < 105, "straight but for its start, which is square"
    assert SHAPES[Neckline.SQUARE](n, c, down).length == approx(140), "a level shoulder leaves it no curve"
    round_, scoop = SHAPES[Neckline.ROUND](n, c, down), SHAPES[Neckline.SCOOP](n, c, down)
    assert 100 < round_.length < scoop.length < 140, "a scoop lies between round and square"
    assert line(n, c).length == approx(100)
