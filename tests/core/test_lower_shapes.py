"""What each lower part promises of its own shape (trade 5 to 8)."""

import math
from math import atan2, pi, radians, sqrt

import pytest
from pytest import approx
from shapely import LineString
from shapely import Point as ShapelyPoint

from conftest import BODICE, FIGURE, drafted_recipe
from gentle_hem.core.geometry import Point
from gentle_hem.core.lower.circle_family import high_low_length
from gentle_hem.core.lower.full import tier_heights
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import inches


def hem_corner(first, second):
    """How far the sewn hem of two gores bends at their seam, in radians: nothing when it runs on."""
    a, b = first.edge("hem").path, second.edge("hem").path
    left, right = first.edge("side").path.leaving, second.edge("side near" if len(second.edges) == 4 else "side").path
    turn_a = abs(atan2(a.arriving.cross(left), a.arriving.dot(left)))
    turn_b = abs(atan2(right.arriving.cross(b.leaving), right.arriving.dot(b.leaving)))
    return abs(pi - turn_a - turn_b)


def working(garment, label):
    return next(w.value for w in garment.workings if w.label == label)


def test_an_a_lines_hem_is_raised_at_the_seam():
    """Trade 5: the hem is raised so that no slanted edge is longer than the straight one; the
    centre is as long as asked.
    """
    garment = make_up(
        Recipe.model_validate(
            {
                "figure": {"measures": FIGURE},
                "bodice": {"kind": "quarters"},
                "lower": {"kind": "a_line", "flare": inches(3), "length": 205 + inches(9)},
            }
        )
    )
    assert working(garment, "hem raise") == approx(inches(0.4868), abs=0.01)
    front = garment.piece("skirt front")
    hem, side = front.edge("hem").path, front.edge("side").path
    slanted = next(s for s in side if s.length == approx(inches(9), abs=0.01))
    assert slanted.length == approx(inches(9), abs=0.01)
    assert front.edge("centre front").path.length == approx(205 + inches(9), abs=0.01)
    raised = max(hem.start.y, hem.end.y) - min(hem.start.y, hem.end.y)
    assert raised == approx(inches(9) * (1 - math.cos(math.atan2(3, 9))), abs=0.01)
    straight = slanted.length
    assert abs(straight - inches(9)) < 1.0


def test_closing_a_dart_opens_the_hem():
    """Trade 5: closing intake w at distance d opens the hem by about w·(L − d)/d."""

    plain, closed = (
        make_up(Recipe.model_validate({"figure": {"measures": FIGURE}, "bodice": {"kind": "quarters"},
                                       "lower": {"kind": "a_line", "flare": 0, "by": by}}))
        for by in ("flare", "dart")
    )  # fmt: skip
    front = plain.piece("skirt front")
    expected = sum(d.intake * (620 + d.apex.y) / -d.apex.y for d in front.darts_of("waist"))
    opened = working(closed, "hem opened by closing the darts")
    assert opened == approx(expected, rel=0.06)
    grown = closed.piece("skirt front").edge("hem").drawn_length - front.edge("hem").drawn_length
    assert grown == approx(expected, rel=0.25), "the hem is a curve then, not the straight line across"
    assert closed.piece("skirt front").darts == ()


@pytest.mark.parametrize("count", [4, 6, 7, 8, 12])
@pytest.mark.parametrize("flare", ["hip", "trumpet"])
def test_gores_sewn_together_have_a_hem_without_corners(count, flare):
    garment = make_up(Recipe.model_validate(
        {"figure": {"measures": FIGURE}, "bodice": {"kind": "quarters"},
         "lower": {"kind": "gores", "count": count, "flare_from": flare, "hem_sweep": "3.2m"}}))  # fmt: skip
    full = [p for p in garment.pieces if any(e.name == "side near" for e in p.edges)]
    for piece in full:
        assert hem_corner(piece, piece) < 0.002
        side = piece.edge("side").drawn_length
        middle = piece.edge("hem").path.point_at(piece.edge("hem").drawn_length / 2)
        top = piece.edge("waist").path.point_at(piece.edge("waist").drawn_length / 2)
        assert top.distance(middle) == approx(side, abs=0.5)
    hips = working(garment, "gore at the hip") * count
    assert hips == approx(1040 + inches(2))
    assert 2 * garment.joins[0].lower.length == approx(2 * garment.joins[0].upper.length, abs=0.1)


def test_high_low_is_level_at_the_sides_half_way():
    """Trade 7.4: L(φ) = Lf + (Lb − Lf)(1 − cos φ)/2; half-way round it is the mean."""
    assert high_low_length(500, 900, 0) == 500
    assert high_low_length(500, 900, 1) == 900
    assert high_low_length(500, 900, 0.5) == approx(700)
    garment = make_up(
        Recipe.model_validate(
            {"figure": {"measures": FIGURE}, "bodice": BODICE, "lower": {"kind": "high_low", "front": 500, "back": 900}}
        )
    )
    radius = working(garment, "seam radius")
    front, back = garment.piece("skirt front"), garment.piece("skirt back")
    assert front.edge("centre front").drawn_length == approx(500)
    assert back.edge("centre back").drawn_length == approx(900)
    assert front.edge("side").drawn_length == approx(back.edge("side").drawn_length, abs=1e-6)
    hem = front.edge("hem").path
    angle = garment.joins[0].upper.at("side seam") / radius
    for k in range(1, 12):
        place = hem.point_at(hem.length * k / 12)
        turn = (place.angle + pi / 2) / angle
        share = turn * garment.joins[0].upper.at("side seam") / garment.joins[0].upper.length
        assert place.distance(Point(0, 0)) == approx(radius + high_low_length(500, 900, share), abs=0.05)


def test_handkerchief_corners_hang_longest():
    """Trade 7.4: ×√2 of the outer half-side measured from the centre."""
    garment = make_up(Recipe.model_validate({"bodice": BODICE, "lower": {"kind": "handkerchief", "length": 500}}))
    radius = working(garment, "seam radius")
    assert working(garment, "length at the corners") == approx((radius + 500) * sqrt(2) - radius)
    corner = garment.piece("skirt front").edge("hem").path.segments[0].end
    assert corner.distance(Point(0, 0)) == approx((radius + 500) * sqrt(2))


def test_double_circle_check_values():
    """Trade 15, geometry: front 23 in, back 27.63 in, each a full circle: r 3.6606 and 4.3975 in."""
    bodice = {
        **BODICE, "front": {"centre_to_dart": inches(6), "dart_to_side": inches(5.5)},
        "back": {"centre_to_dart": inches(7), "dart_to_side": inches(6.815)},
    }  # fmt: skip
    garment = make_up(Recipe.model_validate({"bodice": bodice, "lower": {"kind": "double_circle"}}))
    assert working(garment, "front seam radius") == approx(inches(3.6606), abs=0.002)
    assert working(garment, "back seam radius") == approx(inches(4.3975), abs=0.002)


def test_tiers_check_values():
    """Trade 15, geometry: tiers from 70 cm at ×1.6: 112, 179.2, 286.7 cm; heights add up."""
    bodice = {
        **BODICE,
        "front": {"centre_to_dart": 85, "dart_to_side": 90},
        "back": {"centre_to_dart": 85, "dart_to_side": 90},
    }
    garment = make_up(
        Recipe.model_validate({"bodice": bodice, "lower": {"kind": "tiered", "tiers": 3, "fullness": 1.6}})
    )
    widths = [working(garment, f"tier {k} cut width") for k in (1, 2, 3)]
    assert widths == approx([1120, 1792, 2867.2])
    assert sum(tier_heights(700, 4, 1.3)) == approx(700)
    assert [join.fullness for join in garment.joins] == approx([1.6] * 3)


def test_pleats_hit_the_seam_exactly_by_their_depth():
    garment = make_up(
        Recipe.model_validate({"bodice": BODICE, "lower": {"kind": "pleated", "pleats": 17, "fullness": 2.6}})
    )
    join = garment.joins[0]
    assert join.lower.length == approx(join.upper.length, abs=1e-6)
    assert abs(join.ties[2].offset) < 1e-6, "side seam on side seam"
    pleats = sum(len(p.darts) for p in garment.pieces if p.name.startswith("skirt"))
    assert working(garment, "pleat depth") * 2 * 2 * pleats == approx(740 * 1.6)


def test_peplum_length_check_value():
    """Trade 15, common practice: top 24 in, front waist length 17 in: the peplum is 7 in."""
    figure = {"measures": {**FIGURE, "front_waist_length": inches(17)}}
    garment = make_up(
        Recipe.model_validate(
            {"figure": figure, "bodice": {"kind": "quarters"}, "lower": {"kind": "peplum", "top_length": inches(24)}}
        )
    )
    assert working(garment, "peplum length") == approx(inches(7))


@pytest.mark.parametrize("school", ["thigh", "hip"])
def test_trousers_inside_legs_walk_and_the_back_is_wider(school):
    garment = make_up(
        Recipe.model_validate(
            {
                "figure": {"measures": FIGURE},
                "bodice": {"kind": "quarters"},
                "lower": {"kind": "trousers", "school": school},
            }
        )
    )
    seam = next(w for w in garment.seams if w.seam.name == "inside leg seam")
    assert seam.length_a == approx(seam.length_b, abs=0.01)
    side = next(w for w in garment.seams if w.seam.name == "trouser side seam")
    assert abs(side.difference) < 1.5
    front, back = garment.piece("trouser front"), garment.piece("trouser back")
    assert back.edge("hem").drawn_length - front.edge("hem").drawn_length == approx(inches(1.5))
    width = [
        max(p.x for p in piece.seam_line.flatten(0.1)) - min(p.x for p in piece.seam_line.flatten(0.1))
        for piece in (front, back)
    ]
    assert width[1] - width[0] == approx(inches(2), abs=6)


def test_jumpsuit_leg_length_check_value():
    """Trade 15, common practice: jumpsuit 58 in, waist length 16 in: the leg is 42 in."""
    from gentle_hem.core.sums import SUMS
    from gentle_hem.core.sums.sum import ask

    answer = ask(SUMS["skirt_length"], {"full_length": "58 in", "waist_length": "16 in"}, None).answer()
    assert answer.values["finished_length"] == approx(inches(42))


def test_a_gown_has_no_waist_seam_and_its_panels_reach_the_hem():
    garment = make_up(Recipe.model_validate(
        {"figure": {"measures": FIGURE}, "bodice": {"kind": "two_lengths"}, "panels": {"front_princess": "armhole"},
         "lower": {"kind": "gown", "length": 1000}}))  # fmt: skip
    assert garment.joins == ()
    names = {piece.name for piece in garment.pieces}
    assert names == {"gown centre front", "gown side front", "gown back"}
    for piece in garment.pieces:
        assert any(edge.role.value == "hem" for edge in piece.edges)
    widths = sum(p.edge("hem").drawn_length for p in garment.pieces)
    assert 2 * widths == approx(1040 + inches(2) - 4 * inches(0.5), abs=3)


def test_least_sweep_over_the_hip_is_checked_below_a_dropped_seam():
    recipe = Recipe.model_validate(
        {
            "figure": {"measures": FIGURE},
            "bodice": BODICE,
            "lower": {"kind": "high_low", "sweep": 60, "front": 500, "back": 600},
        }
    )
    assert "sweep-below-hip" in [f.code for f in make_up(recipe).findings]
    assert radians(60) < (1040 + 20 - 740) / 205


@pytest.mark.parametrize("start", ["hip", "waist"])
@pytest.mark.parametrize(("length", "flare"), [(620, 80), (620, 30), (900, 120), (480, 60)])
def test_an_a_line_is_as_long_as_asked_all_along_its_hem(start, length, flare):
    """Asked 62 cm with 8 cm of flare, the centre front is 62 cm; each thread that fans out to the hem is as long as a
    straight one, within 3 mm: the hem is level when it hangs. Worked out here, point by point.
    """
    recipe = drafted_recipe("quarters")
    lower = {"kind": "a_line", "length": length, "flare": flare, "start": start}
    garment = make_up(Recipe.model_validate(recipe.model_dump(mode="json") | {"lower": lower}))
    piece = garment.piece("skirt front")
    hem, centre = piece.edge("hem").path, piece.edge("centre front").path
    assert centre.length == approx(length, abs=0.01)
    hip = 205.0 if start == "hip" else 0.0
    straight = length - hip
    lean = math.atan2(flare, straight)
    foot = hem.end if abs(hem.end.x) > abs(hem.start.x) else hem.start
    top = abs(foot.x) - straight * math.sin(lean)
    for k in range(21):
        turn = lean * k / 20
        wanted = (top * k / 20 + straight * math.sin(turn), -hip - straight * math.cos(turn))
        drawn = LineString([(abs(p.x), p.y) for p in hem.flatten(0.01)])
        assert drawn.distance(ShapelyPoint(wanted)) < 3.0, k
    leaving = hem.leaving if foot is hem.end else hem.arriving
    assert abs(leaving.y) < 1e-6, "square to the centre"


@pytest.mark.parametrize("count", [4, 6, 7, 8, 12])
@pytest.mark.parametrize("flare_from", ["hip", "trumpet"])
def test_gores_have_the_hem_that_was_asked(count, flare_from):
    recipe = drafted_recipe("two_lengths")
    lower = {"kind": "gores", "count": count, "hem_sweep": 2400, "length": 700, "flare_from": flare_from}
    garment = make_up(Recipe.model_validate(recipe.model_dump(mode="json") | {"lower": lower}))
    hem = sum(
        piece.cut * piece.stitched_length("hem") * (2 if piece.on_fold else 1)
        for piece in garment.pieces if piece.name.startswith("gore")
    )  # fmt: skip
    said = {finding.code for finding in garment.findings}
    assert hem == approx(2400, abs=3) or "hem-not-as-asked" in said, hem
