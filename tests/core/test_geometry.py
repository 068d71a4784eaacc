"""Segments and paths: exact where algebra is, and checked against each other where it is not."""

import itertools
from math import cos, hypot, pi, sin

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from gentle_hem.core.geometry import Arc, Cubic, Line, Path, Placement, Point
from gentle_hem.core.geometry.crossing import crossings
from gentle_hem.core.geometry.parallel import parallel, turned_corner
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.geometry.segment import arc_as_cubics

places = st.builds(Point, st.floats(-500, 500), st.floats(-500, 500))
lines = st.builds(Line, places, places).filter(lambda line: line.length > 1)
arcs = st.builds(
    Arc,
    places,
    st.floats(5, 800),
    st.floats(-pi, pi),
    st.floats(0.05, 6).flatmap(lambda s: st.sampled_from([s, -s])),
)
cubics = st.builds(Cubic, places, places, places, places).filter(
    lambda c: c.length > 20 and min(c.velocity(i / 20).size for i in range(21)) > 5
)
segments = st.one_of(lines, arcs, cubics)
shares = st.floats(0.02, 0.98)


@given(segments, shares)
def test_splitting_keeps_the_length_and_the_place(segment, share):
    at = segment.length * share
    first, second = segment.split(at)
    assert first.length == approx(at, abs=1e-6)
    assert first.length + second.length == approx(segment.length, abs=1e-6)
    assert first.end.distance(segment.point_at(at)) < 1e-6
    assert first.end.distance(second.start) < 1e-9


@given(segments, shares)
def test_reversed_runs_back_over_the_same_places(segment, share):
    back = segment.reversed()
    at = segment.length * share
    assert back.point_at(segment.length - at).distance(segment.point_at(at)) < 1e-5
    assert (back.tangent_at(segment.length - at) + segment.tangent_at(at)).size < 1e-4


@given(segments, st.floats(-3, 3), places, st.booleans())
def test_placing_keeps_lengths_and_bends_nothing(segment, angle, shift, mirrored):
    placement = Placement.rotation(angle, Point(10, 20)).then(Placement.shift(shift))
    if mirrored:
        placement = placement.then(Placement.mirror(Point(0, 0), Point(3, 1)))
    put = segment.placed(placement)
    assert put.length == approx(segment.length, rel=1e-9)
    middle = segment.length / 2
    assert put.point_at(middle).distance(placement.place(segment.point_at(middle))) < 1e-5


@given(segments, st.floats(0.01, 1))
def test_flattened_chords_stay_within_the_tolerance(segment, tolerance):
    points = [segment.start, *segment.flatten(tolerance)]
    assert points[-1].distance(segment.end) < 1e-9
    assert sum(a.distance(b) for a, b in itertools.pairwise(points)) <= segment.length + 1e-6
    if isinstance(segment, Arc):
        middles = [a.towards(b, 0.5) for a, b in itertools.pairwise(points)]
        assert all(segment.radius - m.distance(segment.centre) <= tolerance * 1.01 for m in middles)


def test_an_arc_measures_radius_times_sweep():
    assert Arc(Point(3, 4), 100, 1, -1.5).length == 150


def test_length_of_a_cubic_against_scipy():
    """External: scipy.integrate.quad over the speed of the curve."""
    from scipy.integrate import quad

    curve = Cubic(Point(0, 0), Point(120, 10), Point(-60, 200), Point(90, 130))
    measured, _ = quad(lambda t: hypot(*curve.velocity(t)), 0, 1, epsabs=1e-11)
    assert curve.length == approx(measured, abs=1e-7)


@given(places, st.floats(-3, 3), st.floats(-1, 1), st.floats(-1, 1), st.floats(0.5, 8), st.sampled_from([-1, 1]))
def test_offset_of_a_gentle_cubic_lies_parallel(start, angle, bend, turn, by, side):
    by *= side
    legs = [Point(40, 0).turned(angle + sum(turns)) for turns in ((), (bend,), (bend, turn))]
    first, second = start + legs[0], start + legs[0] + legs[1]
    curve = Cubic(start, first, second, second + legs[2])
    if max(abs(curve.bend(i / 50)) for i in range(51)) * abs(by) > 0.5:
        return  # the offset of a tighter bend folds over itself
    from shapely import LineString
    from shapely import Point as Dot

    drawn = LineString([tuple(curve.point(i / 2000)) for i in range(2001)])
    for piece in curve.offset(by):
        for share in (0.1, 0.5, 0.9):
            nearest = drawn.distance(Dot(*piece.point_at(piece.length * share)))
            assert nearest == approx(abs(by), abs=0.06)


def test_area_of_an_outline_is_exact():
    half_disc = Path.of(Arc(Point(0, 0), 10, 0, pi), Line(Point(-10, 0), Point(10, 0)))
    assert half_disc.signed_area == approx(50 * pi)
    curve = Cubic(Point(0, 0), Point(30, -20), Point(70, 40), Point(100, 0))
    outline = Path.of(curve, Line(Point(100, 0), Point(100, 80)), Line(Point(100, 80), Point(0, 0)))
    points = outline.flatten(1e-5)
    shoelace = sum(a.cross(b) for a, b in itertools.pairwise(points)) / 2
    assert outline.signed_area == approx(shoelace, abs=1e-2)


def test_a_broken_path_is_refused():
    with pytest.raises(ValueError, match="broken"):
        Path.of(Line(Point(0, 0), Point(1, 0)), Line(Point(2, 0), Point(3, 0)))


@given(st.floats(0.2, 3), st.floats(20, 200), st.floats(1, 15))
def test_parallel_arcs_keep_their_centre(sweep, radius, by):
    path = Path.of(Arc(Point(0, 0), radius, 0, sweep))
    assert parallel(path, -by).length == approx((radius + by) * sweep)


def test_parallel_of_a_corner_is_mitred_outside_and_trimmed_inside():
    corner = Path.through(Point(0, 0), Point(100, 0), Point(100, 100))
    outside, inside = parallel(corner, -10), parallel(corner, 10)
    assert outside.length == approx(220)
    assert inside.length == approx(180)
    assert outside.segments[0].end.distance(Point(110, -10)) < 1e-9


def test_an_arc_used_up_by_its_offset_leaves_nothing():
    with pytest.raises(ValueError, match="nothing"):
        parallel(Path.of(Arc(Point(0, 0), 8, 0, 2)), 10)


@given(shares, shares, st.floats(0.3, 2.8))
def test_lines_cross_where_they_were_made_to(s, t, angle):
    meet = Point(12, 34)
    u, v = Point(cos(0.4), sin(0.4)), Point(cos(0.4 + angle), sin(0.4 + angle))
    a = Line(meet - u * (100 * s), meet + u * (100 * (1 - s)))
    b = Line(meet - v * (100 * t), meet + v * (100 * (1 - t)))
    [(at_a, at_b)] = crossings(a, b)
    assert (at_a, at_b) == (approx(100 * s), approx(100 * t))


def test_a_curve_crosses_a_line_where_both_say_so():
    curve = Cubic(Point(0, 0), Point(40, 90), Point(60, -90), Point(100, 0))
    level = Line(Point(-10, 5), Point(110, 5))
    met = crossings(curve, level)
    assert len(met) == 2
    for s, t in met:
        assert curve.point_at(s).distance(level.point_at(t)) < 1e-6
        assert curve.point_at(s).y == approx(5)


def test_smooth_curves_have_no_corners():
    curve = smooth_through([Point(0, 0), Point(50, 30), Point(90, 20), Point(140, 80)], leave=Point(1, 0))
    for before, after in zip(curve.segments, curve.segments[1:], strict=False):
        assert before.direction(1).cross(after.direction(0)) == approx(0, abs=1e-9)
    assert curve.leaving == Point(1, 0)


def test_a_turned_hem_is_mirrored_at_a_slanting_side():
    """The side leans out 20 mm over 100; its allowance below the hem leans back in as much."""
    side = Path.through(Point(0, 100), Point(20, 0))
    hem, hem_cut = Path.through(Point(20, 0), Point(120, 0)), Path.through(Point(20, -30), Point(120, -30))
    made, _ = turned_corner(side, hem, hem_cut)
    assert made.end.distance(Point(14, -30)) < 1e-9


def test_ink_arcs_are_true_to_a_hundredth_of_a_millimetre():
    arc = Arc(Point(0, 0), 900, 0.3, 4)
    for cubic in arc_as_cubics(arc):
        assert cubic.point(0.5).size == approx(900, abs=0.01)
    assert sum(c.length for c in arc_as_cubics(arc)) == approx(arc.length, abs=0.02)


@given(segments)
def test_the_box_holds_the_segment_and_touches_it(segment):
    left, bottom, right, top = Path.of(segment).box
    points = [segment.start, *segment.flatten(0.01)]
    assert min(p.x for p in points) == approx(left, abs=0.02)
    assert max(p.x for p in points) == approx(right, abs=0.02)
    assert min(p.y for p in points) == approx(bottom, abs=0.02)
    assert max(p.y for p in points) == approx(top, abs=0.02)
