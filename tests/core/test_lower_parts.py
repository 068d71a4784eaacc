"""Everything below the waist: each part joined, closed, walked; and what each promises (trade 5 to 8)."""

import math
from math import atan2, pi, radians, sqrt

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx
from shapely import LineString
from shapely import Point as ShapelyPoint

from conftest import BODICE, FIGURE, drafted_recipe, outline
from gentle_hem.core.findings import Severity
from gentle_hem.core.geometry import Point
from gentle_hem.core.lower import LOWER_PARTS
from gentle_hem.core.lower.circle_family import high_low_length
from gentle_hem.core.lower.full import tier_heights
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed
from gentle_hem.core.seams import Verdict
from gentle_hem.core.trim import TRIMS
from gentle_hem.core.units import inches

KINDS = [part.model_fields["kind"].default for part in LOWER_PARTS]
TRIM_KINDS = [part.model_fields["kind"].default for part in TRIMS]
JOINED = [kind for kind in KINDS if kind != "gown"]


def hem_corner(first, second):
    """How far the sewn hem of two gores bends at their seam, in radians: nothing when it runs on."""
    a, b = first.edge("hem").path, second.edge("hem").path
    left, right = first.edge("side").path.leaving, second.edge("side near" if len(second.edges) == 4 else "side").path
    turn_a = abs(atan2(a.arriving.cross(left), a.arriving.dot(left)))
    turn_b = abs(atan2(right.arriving.cross(b.leaving), right.arriving.dot(b.leaving)))
    return abs(pi - turn_a - turn_b)


def working(garment, label):
    return next(w.value for w in garment.workings if w.label == label)


def whole(garment, told_allowed=True):
    """What every garment must be: closed, uncrossed, its seams walked; or a finding says why not."""
    told = [f for f in garment.findings if f.severity is not Severity.NOTE]
    for piece in garment.pieces:
        assert piece.seam_line.is_closed
        assert outline(piece.seam_line).is_valid or told, piece.name
    for walked in garment.seams:
        assert walked.verdict.fits or told, walked
    for join in garment.joins:
        assert join.verdict.fits or told, join.name
    if not told_allowed:
        assert not [f.code for f in told if f.severity is Severity.STOP]


@pytest.mark.parametrize("school", ["measured", "quarters", "two_lengths", "proportional"])
@pytest.mark.parametrize("kind", KINDS)
def test_every_lower_part_on_every_bodice(kind, school):
    bodice = BODICE if school == "measured" else {"kind": school}
    garment = make_up(Recipe.model_validate(
        {"figure": {"measures": FIGURE}, "bodice": bodice, "lower": {"kind": kind}}
    ))  # fmt: skip
    whole(garment, told_allowed=False)
    if kind in JOINED:
        assert garment.joins[0].verdict in (Verdict.MEETS, Verdict.GATHERED)


@pytest.mark.parametrize("ends", ["under_bust", "midriff", "dropped", "basque"])
@pytest.mark.parametrize("kind", JOINED)
def test_every_lower_part_joined_elsewhere(kind, ends):
    recipe = Recipe.model_validate(
        {"figure": {"measures": FIGURE}, "bodice": {"kind": "two_lengths"}, "panels": {"ends": ends, "depth": 80},
         "lower": {"kind": kind}}
    )  # fmt: skip
    garment = make_up(recipe)
    whole(garment)
    assert garment.joins[0].verdict.fits


@pytest.mark.parametrize("band", [{"kind": "waistband"}, {"kind": "yoke", "deep": 110}])
@pytest.mark.parametrize("kind", JOINED)
def test_every_lower_part_on_a_band_or_yoke(kind, band):
    garment = make_up(
        Recipe.model_validate(
            {"figure": {"measures": FIGURE}, "bodice": {"kind": "quarters"}, "band": band, "lower": {"kind": kind}}
        )
    )
    whole(garment)
    assert [join.name for join in garment.joins][:2] == ["band seam", "waist seam"]
    assert all(join.verdict.fits for join in garment.joins)


@pytest.mark.parametrize("trim", TRIM_KINDS)
@pytest.mark.parametrize("kind", ["circle", "straight", "gores", "gathered", "gown"])
def test_every_trim_on_several_garments(trim, kind):
    garment = make_up(
        Recipe.model_validate(
            {
                "figure": {"measures": FIGURE},
                "bodice": {"kind": "two_lengths"},
                "lower": {"kind": kind},
                "trims": [{"kind": trim}],
                **({"style": {"top": "strapless", "bust_dart": "waist"}} if trim == "cape" else {}),
            }
        )
    )
    whole(garment)
    # a gown cut in one has no waist seam to stitch a casing along
    assert ("trim-left-out" in [f.code for f in garment.findings]) is ((trim, kind) == ("elastic", "gown"))


figures = st.fixed_dictionaries(
    {key: st.floats(value * 0.9, value * 1.12) for key, value in FIGURE.items()},
    optional={
        "waist_to_floor": st.floats(950, 1130),
        "trunk_girth": st.floats(1400, 1750),
        "thigh_girth": st.floats(480, 760),
    },
)
parts = st.one_of(
    st.fixed_dictionaries({"kind": st.just("straight"), "length": st.floats(100, 1100), "taper": st.floats(0, 90)}),
    st.fixed_dictionaries(
        {
            "kind": st.just("a_line"),
            "flare": st.floats(0, 300),
            "start": st.sampled_from(["hip", "waist"]),
            "by": st.sampled_from(["flare", "dart"]),
            "length": st.floats(250, 1100),
        }
    ),
    st.fixed_dictionaries(
        {
            "kind": st.just("gores"),
            "count": st.integers(3, 16),
            "hem_sweep": st.floats(1300, 6000),
            "flare_from": st.sampled_from(["hip", "trumpet"]),
            "length": st.floats(350, 1100),
        }
    ),
    st.fixed_dictionaries(
        {
            "kind": st.just("circle"),
            "sweep": st.floats(40, 720),
            "length": st.floats(60, 1100),
            "pieces": st.sampled_from([1, 2, 4]),
            "fullness": st.floats(1, 3),
        }
    ),
    st.fixed_dictionaries(
        {
            "kind": st.just("high_low"),
            "front": st.floats(200, 900),
            "back": st.floats(200, 1100),
            "sweep": st.floats(60, 600),
        }
    ),
    st.fixed_dictionaries({"kind": st.just("handkerchief"), "length": st.floats(100, 900)}),
    st.fixed_dictionaries({"kind": st.just("gored_circle"), "count": st.integers(4, 24), "sweep": st.floats(60, 720)}),
    st.fixed_dictionaries({"kind": st.just("double_circle"), "length": st.floats(60, 700)}),
    st.fixed_dictionaries({"kind": st.just("gathered"), "fullness": st.floats(1, 4), "length": st.floats(60, 1100)}),
    st.fixed_dictionaries({"kind": st.just("pleated"), "pleats": st.integers(2, 60), "fullness": st.floats(1.1, 3.5)}),
    st.fixed_dictionaries(
        {
            "kind": st.just("tiered"),
            "tiers": st.integers(2, 6),
            "fullness": st.floats(1, 2.5),
            "growth": st.floats(0.7, 1.8),
        }
    ),
    st.fixed_dictionaries(
        {
            "kind": st.just("peplum"),
            "style": st.sampled_from(["circle", "gathered", "pleated", "high_low", "double"]),
            "length": st.floats(60, 350),
        }
    ),
    st.fixed_dictionaries(
        {
            "kind": st.just("trousers"),
            "school": st.sampled_from(["thigh", "hip"]),
            "hem_round": st.floats(250, 900),
            "length": st.floats(500, 1150),
            "crotch_ease": st.floats(0, 60),
        }
    ),
    st.fixed_dictionaries(
        {
            "kind": st.just("gown"),
            "length": st.floats(150, 1150),
            "knee": st.sampled_from(["plain", "shaped"]),
            "hem_in": st.floats(-300, 60),
            "seat": st.floats(0, 25),
        }
    ),
)
trims = st.lists(
    st.one_of(
        st.fixed_dictionaries(
            {
                "kind": st.just("hem_ruffle"),
                "height": st.floats(20, 300),
                "fullness": st.floats(1, 4),
                "place": st.sampled_from(["added", "cut_off"]),
            }
        ),
        st.fixed_dictionaries(
            {"kind": st.just("ring_flounce"), "rings": st.integers(1, 20), "width": st.floats(30, 400)}
        ),
        st.fixed_dictionaries(
            {"kind": st.just("spiral_flounce"), "width": st.floats(30, 250), "start": st.floats(15, 150)}
        ),
        st.fixed_dictionaries(
            {"kind": st.just("side_ruffle"), "height": st.floats(20, 200), "fullness": st.floats(1, 3)}
        ),
        st.fixed_dictionaries(
            {
                "kind": st.just("godets"),
                "count": st.integers(1, 12),
                "angle": st.floats(20, 180),
                "height": st.floats(60, 700),
                "dip": st.floats(0, 60),
                "fuller": st.floats(0, 40),
                "place": st.sampled_from(["seams", "slashes"]),
            }
        ),
        st.fixed_dictionaries(
            {"kind": st.just("slit"), "height": st.floats(40, 700), "place": st.sampled_from(["sides", "side", "back"])}
        ),
        st.just({"kind": "vent"}),
        st.fixed_dictionaries(
            {"kind": st.just("sleeve"), "style": st.sampled_from(["plain", "puff"]), "ease": st.floats(0, 90)}
        ),
        st.just({"kind": "stand_collar"}),
    ),
    max_size=3,
)


@given(st.sampled_from(["measured", "quarters", "two_lengths", "proportional"]), figures, parts, trims,
       st.sampled_from(["none", "centre_back", "side"]))  # fmt: skip
def test_any_garment_on_any_figure_closes_and_walks_or_says_why_not(school, measures, lower, added, opens):
    bodice = BODICE if school == "measured" else {"kind": school}
    recipe = Recipe.model_validate(
        {
            "figure": {"measures": measures},
            "bodice": bodice,
            "lower": lower,
            "trims": added,
            "opening": {"place": opens},
        }
    )
    whole(make_up(recipe))


@given(
    st.sampled_from(
        [
            "circle",
            "straight",
            "a_line",
            "gores",
            "gathered",
            "pleated",
            "tiered",
            "high_low",
            "gored_circle",
            "trousers",
        ]
    ),
    st.floats(660, 900),
)
def test_two_applications_of_the_top_remedy_leave_the_join_met(kind, seam):
    recipe = Recipe.model_validate(
        {"figure": {"measures": FIGURE}, "bodice": BODICE, "lower": {"kind": kind, "seam": seam}}
    )
    for _ in range(2):
        garment = make_up(recipe)
        join = next(j for j in garment.joins if j.name == "waist seam")
        if not join.verdict.fits:
            assert join.remedies
            recipe = changed(recipe, dict(join.remedies[0].changes))
    assert next(j for j in make_up(recipe).joins if j.name == "waist seam").verdict.fits


@given(
    st.sampled_from(["circle", "straight", "a_line", "gores", "gathered", "pleated", "high_low"]), st.floats(700, 860)
)
def test_every_remedy_of_every_lower_part_closes_the_join(kind, seam):
    recipe = Recipe.model_validate(
        {"figure": {"measures": FIGURE}, "bodice": {"kind": "quarters"}, "lower": {"kind": kind, "seam": seam}}
    )
    for remedy in make_up(recipe).joins[0].remedies:
        mended = make_up(changed(recipe, dict(remedy.changes))).joins[0]
        assert mended.verdict.fits, (remedy.code, mended.difference)


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
