"""A flare under a bodice that ends in a point: its inner edge follows, so that the seams match (trade 7.4)."""

from math import atan2, exp, hypot, log, pi, radians

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx
from scipy.integrate import quad

from conftest import drafted_recipe, outline
from gentle_hem.core.make_up import make_up


def pointed(depth=127.0, school="quarters", **lower):
    return make_up(drafted_recipe(school, panels={"ends": "basque", "depth": depth}, lower=lower))


@given(st.floats(20, 190), st.floats(90, 720), st.floats(260, 1200), st.sampled_from([2, 4]))
def test_the_skirt_meets_the_point_whatever_its_sweep(depth, sweep, length, pieces):
    made = pointed(depth, sweep=sweep, length=length, pieces=pieces)
    join = made.joins[0]
    assert join.lower.length == approx(join.upper.length, abs=0.4), "the ends of its waist are turned square"
    assert "skirt-without-point" not in {f.code for f in made.findings}
    for mark in join.upper.landmarks:
        mine = join.lower.at(mark.name)
        assert mine is None or mine == approx(mark.at, abs=0.4), mark.name
    for walked in made.seams:
        assert walked.verdict.fits, walked.seam.name


@pytest.mark.parametrize("sweep", [120, 180, 360, 600])
@pytest.mark.parametrize("depth", [50.0, 127.0])
def test_the_hem_is_level_and_the_front_shorter_by_the_point(sweep, depth):
    front, back = (p for p in pointed(depth, sweep=sweep).pieces if p.name.startswith("skirt"))
    assert front.edge("centre front").drawn_length == approx(620 - depth, abs=0.01)
    assert front.edge("side").drawn_length == approx(620)
    assert back.edge("centre back").drawn_length == approx(620)
    radius = hypot(*front.edge("hem").path.start)
    for piece in (front, back):
        for share in (0.0, 0.3, 0.8, 1.0):
            assert hypot(*piece.edge("hem").path.point_at(share * piece.edge("hem").drawn_length)) == approx(radius)
    turned = sum(piece.edge("hem").drawn_length for piece in (front, back)) / radius
    assert turned == approx(radians(sweep) / 2, abs=1e-6), "half the sweep, front and back together"
    assert outline(front.seam_line).is_valid
    assert outline(front.cut_line).is_valid


@pytest.mark.parametrize("depth", [40.0, 127.0, 180.0])
def test_its_edge_drops_evenly_and_is_as_long_as_the_spiral(depth):
    """External: scipy's quadrature of √(r² + r'²) for r(φ) = r₀ e^(bφ), between the angles that were drawn."""
    front = next(p for p in pointed(depth).pieces if p.name == "skirt front")
    waist = front.edge("waist").path
    near, far = waist.start, waist.end
    b_at = {share: hypot(*waist.point_at(share * waist.length)) for share in (0.0, 0.25, 0.5, 0.75, 1.0)}
    for share, radius in b_at.items():
        assert radius == approx(b_at[0.0] + depth * share, abs=0.01), "as much drop in every quarter of its length"
    angle = atan2(near.y, near.x) + pi / 2
    b = log(hypot(*far) / hypot(*near)) / angle
    length, _ = quad(lambda turn: hypot(*near) * exp(b * turn) * hypot(1, b), 0, angle)
    assert waist.length == approx(length, abs=0.002)


@pytest.mark.parametrize("school", ["quarters", "two_lengths", "proportional", "body_length"])
@pytest.mark.parametrize("lower", [{"kind": "high_low"}, {"kind": "peplum", "length": 200}, {"kind": "circle"}])
def test_every_flare_drawn_in_halves_follows(school, lower):
    made = pointed(100.0, school, **lower)
    assert made.joins[0].verdict.fits
    assert "skirt-without-point" not in {f.code for f in made.findings}
    if lower["kind"] == "high_low":
        front = next(p for p in made.pieces if p.name == "skirt front")
        assert front.edge("centre front").drawn_length == approx(500, abs=0.01), "as long in front as it was asked"


def test_a_shallow_point_draws_nearly_the_plain_circle():
    plain = next(p for p in make_up(drafted_recipe("quarters")).pieces if p.name == "skirt back")
    near = next(p for p in pointed(10.0).pieces if p.name == "skirt back")
    assert hypot(*near.edge("waist").path.start) == approx(hypot(*plain.edge("waist").path.start), rel=0.02)


@pytest.mark.parametrize(
    "lower", [{"fullness": 2.0}, {"pieces": 1}, {"rule": "cut_edge"}, {"front_dart": 20}, {"length": 130}]
)
def test_a_circle_that_cannot_follow_says_so_instead(lower):
    assert "skirt-without-point" in {f.code for f in pointed(127.0, **lower).findings}
