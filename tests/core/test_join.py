"""The waist seam: unrolled, compared, mended (trade 9.1)."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from conftest import a_recipe
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import changed
from gentle_hem.core.seams import Verdict
from gentle_hem.core.units import Unit


def test_landmarks_run_from_centre_front_to_centre_back(recipe):
    [join] = make_up(recipe).joins
    assert [(mark.name, mark.at) for mark in join.upper.landmarks] == [
        ("centre front", 0),
        ("front dart", 93),
        ("side seam", 191),
        ("back dart", 282),
        ("centre back", 370),
    ]
    assert all(abs(tie.offset) < 1e-6 for tie in join.ties)
    assert len(join.ties) == 5


@pytest.mark.parametrize("pieces", [1, 2, 4])
def test_sections_add_up_to_the_totals(pieces):
    [join] = make_up(a_recipe(lower={"seam": "79cm", "pieces": pieces, "arc_allowance": 30})).joins
    assert sum(s.upper for s in join.sections) == approx(join.upper.length)
    assert sum(s.lower for s in join.sections) == approx(join.lower.length)
    assert 2 * join.difference == approx(50, abs=0.2), "the ends of its waist are turned square to the zip"


def test_a_skirt_too_long_offers_a_new_radius_then_darts():
    recipe = a_recipe(lower={"seam": "79cm"})
    [join] = make_up(recipe).joins
    assert join.verdict is Verdict.LONGER
    assert [remedy.code for remedy in join.remedies][:2] == ["new-radius", "darts"]
    assert join.remedies[0].text(Unit.CM) == "Draw the waist to a new radius, 0.8 cm smaller"
    assert join.remedies[1].changes == {"lower.front_dart": approx(12.5), "lower.back_dart": approx(12.5)}


def test_darts_lie_exactly_under_the_bodices():
    recipe = a_recipe(lower={"seam": "79cm"})
    darts = next(r for r in make_up(recipe).joins[0].remedies if r.code == "darts")
    garment = make_up(changed(recipe, dict(darts.changes)))
    [join] = garment.joins
    assert join.verdict is Verdict.MEETS
    assert {t.name for t in join.ties} >= {"front dart", "back dart"}
    assert all(abs(t.offset) < 3 for t in join.ties)
    assert len(garment.piece("skirt front").darts) == 1


def test_a_skirt_too_short_cannot_be_darted():
    [join] = make_up(a_recipe(lower={"seam": "72cm"})).joins
    assert join.verdict is Verdict.SHORTER
    assert "darts" not in [remedy.code for remedy in join.remedies]


@given(
    st.floats(690, 850),
    st.sampled_from(["seam_line", "cut_edge"]),
    st.sampled_from([1, 2, 4]),
    st.floats(0, 3),
)
def test_every_offered_remedy_closes_the_join(seam, rule, pieces, stretch):
    recipe = a_recipe(lower={"seam": seam, "rule": rule, "pieces": pieces, "stretch": stretch})
    for remedy in make_up(recipe).joins[0].remedies:
        [mended] = make_up(changed(recipe, dict(remedy.changes))).joins
        assert mended.verdict.fits, remedy.code
        assert mended.remedies == ()


def test_ease_is_offered_up_to_three_per_cent_and_says_which_cloth():
    """Common practice: 1 % on firm cloth, 2-3 % on pliable wool or crepe."""
    offered = {}
    for seam in (745, 755, 770):
        remedies = make_up(a_recipe(lower={"seam": seam})).joins[0].remedies
        offered[seam] = [r.cost(Unit.CM) for r in remedies if r.code == "ease"]
    assert offered[745] == ["0.7 % of the seam; any cloth takes this"]
    assert offered[755] == ["2 % of the seam; pliable wool or crepe only"]
    assert offered[770] == []


def test_quarters_of_equal_size_put_the_side_seam_elsewhere_and_say_so():
    bodice = {
        "front": {"centre_to_dart": 110, "dart_to_side": 110},
        "back": {"centre_to_dart": 75, "dart_to_side": 75},
    }
    garment = make_up(a_recipe(bodice=bodice, lower={"share": "even"}))
    off = next(f for f in garment.findings if f.code == "landmark-does-not-meet" and "side seam" in f.values["mark"])
    assert "3.5 cm before" in off.text(Unit.CM)


def test_unequal_side_seams_and_impossible_darts_are_findings():
    recipe = a_recipe(
        bodice={"front_side": "22cm", "front": {"centre_to_dart": 20, "dart_width": 140, "dart_to_side": 20}}
    )
    found = {finding.code: finding for finding in make_up(recipe).findings}
    assert "1.5 cm longer" in found["side-seams-differ"].text(Unit.CM)
    assert "14.0 cm" in found["dart-wider-than-seam"].text(Unit.CM)
