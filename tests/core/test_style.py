"""Style lines: darts pivoted, necklines redrawn, facings cut from the styled edge (trade 4.5, 4.6, 11)."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx
from shapely import Polygon

from gentle_hem.core.cutting.pivot import pivot, pivot_of
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.seams import Verdict
from gentle_hem.core.units import Unit

FIGURE = {
    "bust_girth": 980, "waist_girth": 760, "hip_girth": 1040, "front_waist_length": 450, "back_waist_length": 418,
    "shoulder_to_bust_point": 275, "bust_span": 190, "shoulder_width": 395, "shoulder_length": 126,
    "neck_girth": 370, "across_front": 340, "across_back": 360,
}  # fmt: skip
BUST_DARTS = {"two_lengths": "side", "proportional": "shoulder"}
PLACES = ["waist", "side", "armhole", "shoulder", "neckline"]


def styled(school, **style):
    return make_up(
        Recipe.model_validate(
            {
                "figure": {"measures": FIGURE},
                "bodice": {"kind": school},
                "style": style,
                "lower": {"kind": "circle", "sweep": 270},
            }
        )
    )


def front_of(school, **style):
    return styled(school, **style).piece("bodice front")


def bust_dart(piece):
    return next(d for d in piece.darts if d.landmark in ("bust dart", "shoulder dart", "front bust dart"))


def cloth_area(piece, dart, point):
    """Area of the piece with one dart's wedge, up to the pivot, left out."""
    near, far = piece.dart_legs(dart)
    wedge = Polygon([tuple(point), tuple(near), tuple(far)]).area
    # the outline runs straight across the mouth, so the wedge is all of what the dart takes
    return piece.seam_line.signed_area - wedge


@pytest.mark.usefixtures("as_drafted")
@pytest.mark.parametrize(("school", "place"), [(s, p) for s in BUST_DARTS for p in PLACES if BUST_DARTS[s] != p])
def test_pivot_keeps_the_angle_the_cloth_and_every_stitched_length(school, place):
    before = front_of(school)
    after = front_of(school, bust_dart=place)
    old, new = bust_dart(before), bust_dart(after)
    assert new.edge == place
    point = pivot_of(before, old, before.bust_point)
    near, far = before.dart_legs(old)
    near_new, far_new = after.dart_legs(new)
    turned = [(near - point).angle - (far - point).angle, (near_new - point).angle - (far_new - point).angle]
    assert abs(turned[0]) == approx(abs(turned[1]), abs=1e-6)
    assert near_new.distance(point) == approx(far_new.distance(point), abs=1e-6)
    for edge in before.edges:
        assert after.stitched_length(edge.name) == approx(before.stitched_length(edge.name), abs=0.01), edge.name
        if edge.name not in (old.edge, place):
            assert after.edge(edge.name).drawn_length == approx(edge.drawn_length, abs=0.01)
    assert cloth_area(after, new, point) == approx(cloth_area(before, old, point), rel=1e-9)
    assert Polygon([tuple(p) for p in after.seam_line.flatten(0.02)]).is_valid
    assert Polygon([tuple(p) for p in after.cut_line.flatten(0.02)]).is_valid


@given(st.sampled_from(list(BUST_DARTS)), st.sampled_from(PLACES), st.floats(0.1, 0.9))
def test_a_dart_pivoted_away_and_back_gives_the_block_again(school, place, share):
    block = front_of(school)
    dart = bust_dart(block)
    at = block.edge(place).drawn_length * share
    if any(d.edge == place and d.at - 2 < at < d.at + d.intake + 2 for d in block.darts):
        return
    point = pivot_of(block, dart, block.bust_point)
    moved = pivot(block, dart, place, at, point, "moved")
    away = next(d for d in moved.darts if d.landmark == "moved")
    back = pivot(moved, away, dart.edge, _home(moved, dart), point, dart.landmark)
    for edge in block.edges:
        assert back.edge(edge.name).drawn_length == approx(edge.drawn_length, abs=1e-3)
    shift = back.edge("centre front").path.end - block.edge("centre front").path.end
    assert shift.size < 1e-6, "the centre never turns"
    for edge in block.edges:
        assert back.edge(edge.name).path.start.distance(edge.path.start) < 1e-3


def _home(moved, dart):
    """Where the closed dart's legs now meet, along their edge."""
    on_edge = next((d for d in moved.darts if d.landmark == "moved" and d.edge == dart.edge), None)
    return dart.at + (on_edge.intake if on_edge and on_edge.at < dart.at else 0.0)


def test_a_dart_cannot_move_into_its_own_mouth():
    block = front_of("two_lengths")
    dart = bust_dart(block)
    with pytest.raises(ValueError, match="own mouth"):
        pivot(block, dart, "side", dart.at + 1, block.bust_point, "moved")


def test_the_waist_still_meets_when_the_bust_dart_joins_it():
    garment = styled("two_lengths", bust_dart="waist")
    [join] = garment.joins
    assert join.verdict is Verdict.MEETS
    assert {"front dart", "front bust dart"} <= {mark.name for mark in join.upper.landmarks}
    assert 2 * join.upper.length == approx(760, abs=0.5)


@pytest.mark.parametrize("school", ["quarters", "two_lengths", "proportional"])
@pytest.mark.parametrize("shape", ["round", "v", "square", "scoop", "sweetheart"])
def test_necklines_with_facings_walk_with_matching_ends(school, shape):
    back = "v" if shape == "sweetheart" else shape
    wider = 0 if school == "proportional" else 15
    style = {"front_neck": shape, "front_depth": 140, "back_neck": back, "back_depth": 70, "wider": wider}
    garment = styled(school, **style, facing="faced")
    told = {f.code for f in garment.findings if f.severity is not Severity.NOTE}
    for piece in garment.pieces:
        assert Polygon([tuple(p) for p in piece.seam_line.flatten(0.02)]).is_valid, piece.name
        assert Polygon([tuple(p) for p in piece.cut_line.flatten(0.02)]).is_valid, piece.name
    for walked in garment.seams:
        assert walked.verdict.fits, walked.seam.name
    names = [piece.name for piece in garment.pieces]
    for where in ("front", "back"):
        facing = f"{where} neck facing"
        assert facing in names or "step-not-done" in told
        if facing in names:
            centre = f"centre {where}"
            bodice = garment.piece(f"bodice {where}")
            assert garment.piece(facing).edge(centre).allowance == bodice.edge(centre).allowance
            assert garment.piece(facing).on_fold == bodice.on_fold
    front = garment.piece("bodice front")
    assert front.edge("centre front").path.start.y == approx(-140)


def test_a_neckline_that_uses_up_the_piece_is_refused_in_a_sentence():
    garment = styled("quarters", front_neck="v", front_depth=440)
    [finding] = [f for f in garment.findings if f.code == "step-not-done"]
    assert "neckline. It uses up the centre" in finding.text(Unit.CM)
    wide = styled("quarters", front_neck="round", front_depth=100, wider=130)
    assert "the shoulder" in next(f for f in wide.findings if f.code == "step-not-done").text(Unit.CM)


def test_style_on_measured_edges_says_it_needs_a_draft():
    from conftest import BODICE

    recipe = {"bodice": BODICE, "style": {"bust_dart": "waist"}, "lower": {"kind": "circle"}}
    garment = make_up(Recipe.model_validate(recipe))
    assert "style-needs-a-draft" in {f.code for f in garment.findings}


@pytest.mark.usefixtures("as_drafted")
def test_folded_darts_end_on_the_cut_line():
    """A 1 in waist dart: the cut line peaks at its middle, mirrored about the leg it is folded over."""
    piece = front_of("quarters")
    [dart] = piece.darts_of("waist")
    near, far = piece.dart_legs(dart)
    middle = near.towards(far, 0.5)
    points = [s.start for s in piece.cut_line] + [s.end for s in piece.cut_line]
    peak = min(points, key=lambda p: abs(p.x - middle.x) + (0 if p.y < middle.y else 1e3))
    assert peak.x == approx(middle.x, abs=1e-6)
    flat = middle.y - 10
    leg = near - dart.apex
    slant = abs(leg.x / leg.y)
    reach = dart.intake / 2 + 10 * slant
    assert flat - peak.y == approx(reach * 2 * slant / (1 - slant**2), abs=1e-6)
