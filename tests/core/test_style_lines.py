"""Contours, tops, panels and fronts: every style line on every school (trade 4.3 to 4.7, 9.2)."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from conftest import FIGURE, drafted_recipe, outline
from gentle_hem.core.cutting.spread import opened
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import MarkKind, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.steps.ends import EndsAt
from gentle_hem.core.steps.front_dart import WaistDart
from gentle_hem.core.units import Unit, inches

SCHOOLS = ("quarters", "quarters_cm", "two_lengths", "proportional", "body_length")
LINES = {
    "halter": {"style": {"top": "halter", "facing": "faced", "bust_dart": "waist"}, "opening": {"place": "side"}},
    "one shoulder": {"style": {"top": "one_shoulder", "bust_dart": "waist"}, "opening": {"place": "side"}},
    "off shoulder": {"style": {"top": "off_shoulder", "facing": "faced", "bust_dart": "waist"}},
    "strapless": {"style": {"top": "strapless", "straps": "criss_cross", "bust_dart": "merged"}},
    "princess from the shoulder": {"panels": {"front_princess": "shoulder", "back_princess": "shoulder"}},
    "princess from the neckline": {"panels": {"front_princess": "neckline", "back_princess": "armhole"}},
    "princess from the armhole": {"panels": {"front_princess": "armhole", "back_princess": "neckline"}},
    "ends under the bust": {"panels": {"ends": "under_bust"}},
    "midriff": {"panels": {"ends": "midriff"}},
    "midriff and princess": {"panels": {"ends": "midriff", "front_princess": "armhole"}},
    "basque": {"panels": {"ends": "basque"}},
    "dropped": {"panels": {"ends": "dropped", "depth": "10cm"}},
    "yokes and stand": {"panels": {"front_yoke": 120, "back_yoke": 120, "stand": 25}, "style": {"bust_dart": "side"}},
    "twist": {"panels": {"twist": 3}, "style": {"bust_dart": "waist"}},
    "half zip contour": {"contour": {"zip_taken": "3/4in", "zip_drop": "1/2in"}},
    "full zip contour": {"contour": {"zip_taken": "1in", "zip_run": "full"}},
    "zip contour kept": {"contour": {"zip_taken": "1/2in", "give_back": "none"}},
    "pinches": {"contour": {"neckline": 12, "armhole": 20}},
    "close under the bust": {"contour": {"under_bust": "close"}, "panels": {"ends": "midriff"}},
    "darts": {"style": {"narrower": 8, "dart_short": 30, "stitched": "pleat", "keyhole": "keyhole"}},
    "centre front dart": {"style": {"bust_dart": "centre front"}},
}


@pytest.mark.parametrize("school", SCHOOLS)
@pytest.mark.parametrize("name", LINES)
def test_every_style_line_on_every_school_closes_and_walks_or_says_why_not(school, name):
    garment = make_up(drafted_recipe(school, **LINES[name]))
    told = [f.text(Unit.CM) for f in garment.findings if f.severity is Severity.STOP]
    for piece in garment.pieces:
        assert outline(piece.seam_line).is_valid, piece.name
        assert outline(piece.cut_line).is_valid, piece.name
    for walked in garment.seams:
        fits = walked.verdict.fits
        assert fits or told, (walked.seam.name, walked.length_a, walked.length_b)
    refused = [f for f in garment.findings if f.code == "step-not-done"]
    assert all(f.text(Unit.INCH).startswith("This cannot be done: ") and f.remedies for f in refused)


choices = st.fixed_dictionaries(
    {
        "style": st.fixed_dictionaries(
            {},
            optional={
                "front_neck": st.sampled_from(["v", "square", "scoop", "sweetheart", "round"]),
                "front_depth": st.floats(60, 300),
                "bust_dart": st.sampled_from(["waist", "armhole", "shoulder", "neckline", "side", "merged"]),
                "top": st.sampled_from(["shoulders", "halter", "off_shoulder", "strapless"]),
                "facing": st.sampled_from(["none", "faced"]), "narrower": st.floats(0, 30),
                "straps": st.sampled_from(["none", "straight"]), "dart_short": st.floats(0, 60),
            },
        ),
        "panels": st.fixed_dictionaries(
            {},
            optional={
                "ends": st.sampled_from(["waist", "under_bust", "midriff", "basque", "dropped"]),
                "front_princess": st.sampled_from(["none", "shoulder", "neckline", "armhole"]),
                "back_princess": st.sampled_from(["none", "shoulder", "armhole"]),
                "front_yoke": st.floats(0, 200), "stand": st.floats(0, 40), "twist": st.sampled_from([0, 2, 4]),
            },
        ),
        "contour": st.fixed_dictionaries(
            {},
            optional={
                "zip_taken": st.floats(0, 30), "neckline": st.floats(0, 15), "armhole": st.floats(0, 30),
                "under_bust": st.sampled_from(["as_drafted", "close"]), "centre": st.floats(0, 15),
            },
        ),
    }
)  # fmt: skip


@given(st.sampled_from(SCHOOLS), choices, st.floats(0.86, 1.18))
def test_any_style_on_any_figure_is_made_up_without_a_fault(school, chosen, size):
    measures = {key: value * size for key, value in FIGURE.items()}
    garment = make_up(drafted_recipe(school, figure={"measures": measures}, **chosen))
    told = [f for f in garment.findings if f.severity is not Severity.NOTE]
    for piece in garment.pieces:
        assert piece.seam_line.is_closed
        assert outline(piece.seam_line).is_valid or told
    for walked in garment.seams:
        assert walked.verdict.fits or told


@pytest.mark.usefixtures("as_drafted")
@pytest.mark.parametrize("school", ["two_lengths", "proportional", "quarters"])
@pytest.mark.parametrize("start", ["shoulder", "neckline", "armhole"])
def test_a_princess_split_put_together_again_is_the_block(school, start):
    """The panels, laid edge to edge with both darts closed in the seam, hold the block's cloth and its edges."""
    block = make_up(drafted_recipe(school)).piece("bodice front")
    garment = make_up(drafted_recipe(school, panels={"front_princess": start}))
    panels = [garment.piece("bodice centre front"), garment.piece("bodice side front")]
    for edge in ("waist", "side", "armhole", "shoulder", "neckline"):
        together = sum(
            p.stitched_length(edge) for p in panels if any(e.name == edge for e in p.edges)
        )  # fmt: skip
        assert together == approx(block.stitched_length(edge), abs=0.01), edge
    whole = block.seam_line.signed_area
    point = block.bust_point
    for dart in block.darts:
        near, far = block.dart_legs(dart)
        whole -= abs((near - point).cross(far - point)) / 2
    assert sum(p.seam_line.signed_area for p in panels) == approx(whole, rel=0.012)
    seam = next(w for w in garment.seams if w.seam.name == "front princess seam")
    assert abs(seam.difference) <= 6.0, "common practice: over-bust ease up to 6 mm"


def test_princess_panels_have_a_landmark_and_notches():
    garment = make_up(drafted_recipe("two_lengths", panels={"front_princess": "armhole", "back_princess": "shoulder"}))
    names = [mark.name for mark in garment.joins[0].upper.landmarks]
    assert names == ["centre front", "front princess seam", "side seam", "back princess seam", "centre back"]
    assert len([n for n in garment.piece("bodice side front").notches if n.edge == "princess"]) == 3
    assert garment.joins[0].difference == approx(0, abs=0.01)


def test_merged_darts_keep_both_angles():
    """Common practice: the second dart's width is added to the first."""
    before = make_up(drafted_recipe("two_lengths")).piece("bodice front")
    after = make_up(drafted_recipe("two_lengths", style={"bust_dart": "merged"})).piece("bodice front")
    assert len(after.darts) == 1

    def angle(piece, dart, point):
        near, far = piece.dart_legs(dart)
        return abs((near - point).angle - (far - point).angle)

    point = before.bust_point
    together = sum(angle(before, d, point) for d in before.darts)
    assert angle(after, after.darts[0], point) == approx(together, abs=0.02)
    assert after.stitched_length("waist") == approx(before.stitched_length("waist"), abs=0.01)
    assert after.stitched_length("side") == approx(before.stitched_length("side"), abs=0.2), (
        "one is trued over its dart"
    )


@pytest.mark.usefixtures("as_drafted")
def test_a_narrower_dart_keeps_the_waist_seam():
    """Common practice: 1½ in to 1 in; the surplus goes to the side where the centre is on the fold."""
    plain = drafted_recipe("quarters", bodice={"kind": "quarters", "front_dart": inches(1.5)})
    before = make_up(plain).piece("bodice front")
    after = make_up(plain.model_copy(update={"steps": (WaistDart(narrower=inches(0.5)),)}))
    front = after.piece("bodice front")
    assert front.darts_of("waist")[0].intake == approx(inches(1), abs=0.01)
    assert front.stitched_length("waist") == approx(before.stitched_length("waist"), abs=0.01)
    assert front.stitched_length("side") == approx(before.stitched_length("side"), abs=0.01)


@pytest.mark.parametrize(("share", "taken"), [("50 %", 0.5), ("75 %", 0.75), ("100 %", 1.0)])
@pytest.mark.parametrize("run", ["half", "full"])
def test_the_zip_contour_is_given_back_at_the_side(share, taken, run):
    """Common practice: half an inch, three quarters or an inch at the waist; given back, the quarter is kept."""
    before = make_up(drafted_recipe("two_lengths")).piece("bodice back")
    contour = {"zip_taken": inches(taken), "zip_run": run}
    back = make_up(drafted_recipe("two_lengths", contour=contour)).piece("bodice back")
    assert back.stitched_length("waist") == approx(before.stitched_length("waist"), abs=0.01)
    assert back.stitched_length("side") == approx(before.stitched_length("side"), abs=0.01)
    assert abs(back.edge("centre back").path.start.x) == approx(inches(taken))
    kept = make_up(drafted_recipe("two_lengths", contour={**contour, "give_back": "none"}))
    lost = before.stitched_length("waist") - kept.piece("bodice back").stitched_length("waist")
    assert lost == approx(inches(taken), abs=0.01)
    assert "contour-not-given-back" in [f.code for f in kept.findings]


def test_under_bust_contour_check_value():
    """Common practice (trade 15): under-bust 34 in, the pattern 1¾ in too wide there: ¾ in goes toward the centre
    front, the other inch on the outer leg.
    """
    from gentle_hem.core.style.contour import hollowed

    piece = make_up(drafted_recipe("quarters", bodice={"kind": "quarters", "front_dart": 6})).piece("bodice front")
    level = piece.bust_point.y - 80
    near, far = piece.dart_leg_paths(piece.darts_of("waist")[0])
    from gentle_hem.core.geometry import Path, Point

    line = Path.through(Point(-500, level), Point(900, level))
    side = piece.edge("side").path
    wide = side.point_at(side.crossings(line)[0][0]).x
    mouth = far.point_at(far.crossings(line)[0][0]).x - near.point_at(near.crossings(line)[0][0]).x
    bent, excess = hollowed(piece, level, wide - mouth - inches(1.75))
    assert excess == approx(inches(1.75), abs=1e-6)
    inner, outer = (bends[0] for bends in bent.darts_of("waist")[0].bends)
    assert near.point_at(near.crossings(line)[0][0]).x - inner.x == approx(inches(0.75), abs=1e-6)
    assert outer.x - far.point_at(far.crossings(line)[0][0]).x == approx(inches(1), abs=1e-6)
    assert bent.stitched_length("waist") == approx(piece.stitched_length("waist"))


def test_a_pinch_shortens_its_edge_and_keeps_every_other():
    """Common practice: ¼ in each side of a line from mid-neckline to bust point; the facing is cut from the pinched
    pattern.
    """
    before = make_up(drafted_recipe("two_lengths")).piece("bodice front")
    garment = make_up(drafted_recipe("two_lengths", contour={"neckline": inches(0.5)}, style={"facing": "faced"}))
    after = garment.piece("bodice front")
    taken = before.stitched_length("neckline") - after.stitched_length("neckline")
    assert inches(0.25) < taken < inches(0.55), "measured across the line; along a slanting edge a little less"
    for edge in ("waist", "side", "armhole", "shoulder"):
        assert after.stitched_length(edge) == approx(before.stitched_length(edge), abs=0.01), edge
    assert after.darts_of("waist")[0].intake > before.darts_of("waist")[0].intake
    facing = garment.piece("front neck facing")
    assert facing.stitched_length("neckline") == approx(after.stitched_length("neckline"), abs=0.01)


def test_a_midriff_is_one_piece_with_its_dart_closed():
    garment = make_up(drafted_recipe("two_lengths", panels={"ends": "midriff"}))
    midriff = garment.piece("front midriff")
    assert midriff.darts == ()
    assert garment.joins[0].upper.runs[0].piece.name == "front midriff"
    assert midriff.on_fold
    seam = next(w for w in garment.seams if w.seam.name == "front midriff seam")
    assert abs(seam.difference) <= 1.5


@pytest.mark.parametrize("kind", ["straight", "gathered", "gored_circle"])
def test_a_skirt_that_cannot_follow_a_point_says_so(kind):
    level = drafted_recipe("quarters").model_copy(update={"lower": Recipe.model_validate(
        {"bodice": {"kind": "quarters"}, "lower": {"kind": kind}}).lower})  # fmt: skip
    pointed = make_up(level.model_copy(update={"steps": (EndsAt(where="basque", depth=inches(5)),)}))
    [told] = [f for f in pointed.findings if f.code == "skirt-without-point"]
    assert told.text(Unit.INCH).startswith("The bodice ends in a point 5 in below the waist. The skirt's edge")
    assert pointed.joins[0].verdict.fits
    assert "skirt-without-point" not in {f.code for f in make_up(level).findings}


def test_a_basque_comes_to_a_point_at_the_centre_front():
    """Common practice: five inches is typical."""
    block = make_up(drafted_recipe("quarters")).piece("bodice front")
    pointed = make_up(drafted_recipe("quarters", panels={"ends": "basque", "depth": inches(5)})).piece("bodice front")
    fall = block.edge("waist").path.start.y - pointed.edge("waist").path.start.y
    assert fall == approx(inches(5))
    assert pointed.edge("side").drawn_length == approx(block.edge("side").drawn_length, abs=0.01)


def test_facings_of_bare_tops_have_their_edges_ends():
    garment = make_up(drafted_recipe("two_lengths", style={"top": "strapless", "facing": "faced", "bust_dart": "side"}))
    for where in ("front", "back"):
        piece, facing = garment.piece(f"bodice {where}"), garment.piece(f"{where} top facing")
        assert facing.stitched_length("neckline") == approx(piece.stitched_length("neckline"), abs=0.01)
    back, facing = garment.piece("bodice back"), garment.piece("back top facing")
    assert facing.edge("centre back").allowance == back.edge("centre back").allowance, "matching ends at the zip"
    assert "bodice shoulder seam" not in [w.seam.name for w in garment.seams]


def test_one_shoulder_front_is_cut_once_whole():
    garment = make_up(drafted_recipe("quarters", style={"top": "one_shoulder"}, opening={"place": "side"}))
    front = garment.piece("bodice front")
    assert (front.cut, front.on_fold) == (1, False)
    assert front.stitched_length("waist") == approx(front.stitched_length("waist other"))
    assert {w.seam.name for w in garment.seams} >= {
        "bodice side seam",
        "bodice other side seam",
        "bodice shoulder seam",
    }


def test_a_button_stand_is_outside_the_centre_front():
    """Common practice: 2.5 cm outside CF; every front measure is taken from CF."""
    garment = make_up(drafted_recipe("quarters", panels={"stand": 25}))
    front = garment.piece("bodice front")
    fold = next(mark.path for mark in front.marks if mark.kind is MarkKind.FOLD)
    assert fold.start.x == fold.end.x == approx(-25)
    assert front.seam_line.box[0] == approx(-25 - (25 + 40)), "and a facing of 4 cm more folded back behind it"
    assert (front.cut, front.on_fold) == (2, False)
    assert garment.joins[0].difference == approx(0, abs=0.01)


def test_straps_are_measured_over_the_shoulder():
    """Common practice: front to back over the shoulder, and 1 to 1½ in more."""
    straight, crossed = (
        make_up(drafted_recipe("two_lengths", style={"top": "strapless", "straps": kind, "bust_dart": "merged"})).piece(
            "strap"
        )
        for kind in ("straight", "criss_cross")
    )
    assert straight.cut == 2
    assert 300 < straight.edge("edge").drawn_length < crossed.edge("edge").drawn_length < 700


def test_slash_and_spread_adds_cuts_times_spread():
    """Trade 4.7: fullness at the opened edge = n × spread; the hinged edge keeps its length."""
    piece = make_up(drafted_recipe("quarters")).piece("bodice front")
    before = {e.name: e.drawn_length for e in piece.edges}
    made = piece
    for k in range(3):
        at = before["centre front"] * (k + 1) / 4 + 20 * k
        made = opened(made, "centre front", at, "armhole", 150 - 40 * k, 20, lambda e: e.role is Role.WAIST)
    assert made.edge("centre front").drawn_length == approx(before["centre front"] + 60, abs=1e-6)
    for name in ("armhole", "waist", "side", "shoulder", "neckline"):
        assert made.edge(name).drawn_length == approx(before[name], abs=1e-6), name


def test_a_twist_front_moves_its_centre_out():
    plain = make_up(drafted_recipe("two_lengths", style={"bust_dart": "waist"})).piece("bodice front")
    twist = make_up(drafted_recipe("two_lengths", style={"bust_dart": "waist"}, panels={"twist": 3})).piece(
        "bodice front"
    )
    grown = twist.edge("centre front").drawn_length - plain.edge("centre front").drawn_length
    assert grown == approx(3 * inches(2.75), rel=0.12), "common practice: 2¾ in for each cut"
    assert twist.seam_line.box[0] < -20


def test_neighbouring_edges_meet_square_where_they_fold_open():
    """Trade 9.2: corners at the centre neck and waist are square, so that the opened piece has no point there."""
    for school in ("quarters", "two_lengths", "proportional"):
        front = make_up(drafted_recipe(school)).piece("bodice front")
        neck, centre = front.edge("neckline").path, front.edge("centre front").path
        assert abs(neck.arriving.dot(centre.leaving)) < 0.01, school


@pytest.mark.parametrize("pair", list(itertools.combinations(SCHOOLS[:3], 2)))
def test_schools_share_the_shape_but_not_the_numbers(pair):
    fronts = [make_up(drafted_recipe(school)).piece("bodice front") for school in pair]
    assert fronts[0].seam_line.signed_area != approx(fronts[1].seam_line.signed_area, rel=1e-3)


@pytest.mark.parametrize("school", ["quarters", "quarters_cm", "two_lengths", "proportional", "body_length"])
@pytest.mark.parametrize("front_neck", ["as_drafted", "round", "v", "square", "scoop", "sweetheart"])
@pytest.mark.parametrize("back_neck", ["as_drafted", "v", "scoop"])
def test_facings_match_at_the_shoulder_and_lie_under_the_bodice(school, front_neck, back_neck):
    """A facing is cut from the styled edge, and its front and back ends are equally wide (trade 11)."""
    style = {"front_neck": front_neck, "back_neck": back_neck, "facing": "faced", "wider": 15}
    made = make_up(drafted_recipe(school, style=style))
    facings = [piece for piece in made.pieces if "facing" in piece.name]
    for facing in facings:
        whole = made.piece(f"bodice {facing.name.split()[0]}")
        assert outline(facing.seam_line).is_valid
        assert outline(facing.seam_line).difference(outline(whole.seam_line).buffer(0.1)).area < 1
        assert facing.edge("neckline").drawn_length == approx(whole.edge("neckline").drawn_length)
    if len(facings) == 2:
        ends = next(walked for walked in made.seams if walked.seam.name == "facing shoulder seam")
        assert ends.length_a == approx(ends.length_b, abs=0.01)
    else:
        assert any("no even facing fits" in str(f.values.get("why")).lower() for f in made.findings)
