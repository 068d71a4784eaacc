"""Everything below the waist: each part on every bodice, joined, closed, walked (trade 5 to 8)."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from conftest import BODICE, FIGURE, outline
from gentle_hem.core.findings import Severity
from gentle_hem.core.lower import LOWER_PARTS
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed
from gentle_hem.core.seams import Verdict
from gentle_hem.core.trim import TRIMS

KINDS = [part.model_fields["kind"].default for part in LOWER_PARTS]
TRIM_KINDS = [part.model_fields["kind"].default for part in TRIMS]
JOINED = [kind for kind in KINDS if kind != "gown"]


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
                "trims": [{"kind": trim}, *([{"kind": "sleeve"}] if trim == "sleeve_rings" else [])],
                **({"style": {"top": "strapless", "bust_dart": "waist"}} if trim == "cape" else {}),
            }
        )
    )
    whole(garment)
    # a gown cut in one has no waist seam to stitch a casing along, and a gore is too narrow for a pocket; a peplum is
    # inserted under a blouse cut in one; a front on the fold is no pair to be cut apart
    cannot = {("elastic", "gown"), ("pocket", "gores"), ("two_cloths", kind)}
    if kind != "gown":
        cannot.add(("inserted_peplum", kind))
    left_out = "trim-left-out" in [f.code for f in garment.findings]
    assert left_out is ((trim, kind) in cannot)


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
