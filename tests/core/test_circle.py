"""Circles and flares (trade 7)."""

from math import pi, radians

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx
from shapely import Polygon

from conftest import a_recipe
from gentle_hem.core.lower.flare import Flare, RadiusRule
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import changed
from gentle_hem.core.seams import Verdict
from gentle_hem.core.units import Unit, inches
from gentle_hem.core.workings import Workings


def work(**asked):
    return Flare(**asked).work(Workings())


def test_cut_edge_rule_leaves_sweep_times_allowance():
    """Common practice (trade 7.2): a full circle cut at 5.4113 in and stitched at half an inch."""
    radii = work(seam=inches(34), sweep=2 * pi, length=inches(7), waist_allowance=inches(0.5), rule=RadiusRule.CUT_EDGE)
    assert radii.stitched_seam == approx(inches(37.1416), abs=inches(0.0001))
    assert radii.surplus == approx(inches(pi))


def test_zip_allowance_taken_into_the_arc():
    """Common practice: 32 in waist, 1 in for the zip at each side of the back, full circle."""
    radii = work(seam=inches(32), sweep=2 * pi, length=inches(20), arc_allowance=inches(2))
    assert radii.seam_radius == approx(inches(34) / (2 * pi))
    assert radii.stitched_seam == approx(inches(32))


def test_rounding_goes_down_to_the_tapes_mark_and_says_what_it_costs():
    radii = work(seam=inches(34), sweep=2 * pi, length=inches(7), tape_mark=inches(0.125))
    assert radii.cut_radius == approx(inches(5.375))
    assert radii.surplus == approx(-2 * pi * (inches(34) / (2 * pi) - inches(5.375)))


def test_a_radius_already_on_the_mark_stays():
    assert work(seam=2 * pi * 50, sweep=2 * pi, length=100, tape_mark=5).cut_radius == approx(50)


def test_stretch_drafts_the_seam_smaller():
    assert work(seam=700, sweep=pi, length=500, stretch=2).stitched_seam == approx(686)


recipes = st.fixed_dictionaries(
    {
        "sweep": st.floats(25, 1080),
        "length": st.floats(120, 1200),
        "pieces": st.sampled_from([1, 2, 4]),
        "hem": st.floats(0, 20),
        "share": st.sampled_from(["as_bodice", "even"]),
    }
)
allowances = st.fixed_dictionaries({"waist": st.floats(0, 20), "side": st.floats(0, 30), "zip": st.floats(0, 30)})
openings = st.sampled_from([{"place": p} for p in ("centre_back", "side", "none")])


@given(recipes, allowances, openings, st.one_of(st.none(), st.floats(400, 1400)))
def test_stitched_waist_equals_the_asked_seam(lower, allowed, opening, seam):
    """The seam-line rule, whatever the sweep, pieces and allowances: within 0.01 mm."""
    recipe = a_recipe(lower={**lower, "seam": seam}, allowances=allowed, opening=opening)
    garment = make_up(recipe)
    [join] = garment.joins
    assert 2 * join.lower.length == approx(seam or 740, abs=0.01)


@given(recipes, allowances, openings, st.floats(0, 5), st.one_of(st.none(), st.floats(5, 60)), st.floats(0, 25))
def test_every_circle_closes_lies_flat_and_walks(lower, allowed, opening, stretch, arc, dart):
    asked = {**lower, "stretch": stretch, "arc_allowance": arc, "front_dart": dart, "back_dart": dart / 2}
    garment = make_up(a_recipe(lower=asked, allowances=allowed, opening=opening))
    told = {finding.code for finding in garment.findings}
    for piece in garment.pieces:
        outline = Polygon([tuple(p) for p in piece.seam_line.flatten(0.05)])
        assert outline.is_valid, piece.name
        cut = Polygon([tuple(p) for p in piece.cut_line.flatten(0.05)])
        # a half that goes nearly once round has no room for its allowances, and says both
        overlaps = {"sweep-too-wide-for-pieces", "cut-line-crosses-itself"} <= told
        if "allowance-uses-up-radius" not in told and not overlaps:
            assert cut.is_valid, piece.name
            assert cut.buffer(0.2).contains(outline), piece.name
    for walked in garment.seams:
        if walked.seam.name != "waist seam":
            assert walked.verdict is Verdict.MEETS, walked
    assert garment.joins[0].verdict in (Verdict.MEETS, Verdict.EASED)


@pytest.mark.parametrize("sweep", [360, 720, 880, 1070])
def test_a_small_circle_with_darts_and_a_zip_is_rounded_within_its_length(sweep):
    """A waist of so small a radius is drawn anew over its darts and at the zip without becoming longer or shorter, and
    without bending more tightly than its allowance."""
    asked = {"sweep": sweep, "length": 800, "pieces": 4, "front_dart": 4, "back_dart": 3, "arc_allowance": 42}
    garment = make_up(a_recipe(lower=asked, allowances={"waist": 17, "side": 4, "zip": 25},
                               opening={"place": "centre_back"}))  # fmt: skip
    assert garment.joins[0].difference == approx(0.0, abs=0.5)
    for piece in garment.pieces:
        assert Polygon([tuple(p) for p in piece.cut_line.flatten(0.05)]).is_valid, piece.name


@given(st.floats(30, 720), st.floats(2, 20))
def test_cut_edge_surplus_is_sweep_times_allowance(sweep, allowance):
    recipe = a_recipe(lower={"sweep": sweep, "pieces": 4, "rule": "cut_edge"}, allowances={"waist": allowance})
    assert 2 * make_up(recipe).joins[0].difference == approx(radians(sweep) * allowance, abs=1e-6)


def codes(recipe):
    return {finding.code: finding for finding in make_up(recipe).findings}


def test_a_narrow_flare_does_not_pass_the_hips():
    """Geometry (trade 7.3): 70 to 96 at 20 cm with 2 cm of ease takes 1.4 rad, 80°."""
    bodice = {end: {"centre_to_dart": 87.5, "dart_to_side": 87.5} for end in ("front", "back")}
    figure = {"measures": {"hip_girth": 960, "waist_to_hip": 200}}
    narrow = a_recipe(bodice=bodice, lower={"sweep": 75, "length": 500}, figure=figure)
    finding = codes(narrow)["sweep-below-hip"]
    assert "80.2°" in finding.text(Unit.CM)
    [remedy] = finding.remedies
    assert remedy.changes == {"lower.sweep": 81}
    assert "sweep-below-hip" not in codes(changed(narrow, dict(remedy.changes)))
    assert "sweep-below-hip" not in codes(changed(narrow, {"lower.length": 150})), "a peplum ends above the hip"


@pytest.mark.parametrize(
    ("lower", "rest", "code"),
    [
        ({"hem": 30}, {}, "hem-too-deep-for-curve"),
        ({"length": 12, "hem": 15}, {}, "length-shorter-than-allowance"),
        ({"sweep": 720, "pieces": 1}, {}, "sweep-too-wide-for-pieces"),
        ({"pieces": 1}, {}, "slit-has-no-allowance"),
        ({"sweep": 720, "pieces": 2, "share": "even"}, {}, "no-room-for-allowance"),
        ({"pieces": 1, "sweep": 180}, {"opening": {"place": "side"}}, "one-piece-opens-at-back"),
        (
            {"sweep": 1080, "seam": 200, "pieces": 4},
            {"allowances": {"waist": 15}},
            "allowance-uses-up-radius",
        ),
        ({"tape_mark": 5}, {}, "radius-rounded-down"),
    ],
)
def test_what_goes_wrong_is_said_and_mended(lower, rest, code):
    recipe = a_recipe(lower=lower, **rest)
    finding = codes(recipe)[code]
    assert finding.text(Unit.INCH).endswith(".")
    for remedy in finding.remedies:
        mended = changed(recipe, dict(remedy.changes))
        assert code not in codes(mended), remedy.text(Unit.CM)


def test_half_circle_with_centre_back_zip_is_three_pieces_of_cloth(recipe):
    garment = make_up(changed(recipe, {"lower.sweep": 180}))
    front, back = garment.piece("skirt front"), garment.piece("skirt back")
    assert (front.cut, front.on_fold, back.cut, back.on_fold) == (1, True, 2, False)
    assert back.edge("centre back").allowance == 15
    assert front.edge("centre front").allowance == 0
    assert {n.landmark for n in back.notches} >= {"back dart", "zip end"}


def test_cut_radius_is_drawn_to_the_cut_edge(recipe):
    """The allowance lies inside the ring, all the way to the cut side."""
    front = make_up(recipe).piece("skirt front")
    radius = 740 / (2 * pi) - 10
    inner = [s for s in front.cut_line if getattr(s, "radius", None) == approx(radius)]
    assert len(inner) == 1
    assert inner[0].start.distance(inner[0].centre) == approx(radius)
