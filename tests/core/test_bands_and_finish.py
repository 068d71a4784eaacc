"""Bands between bodice and lower part, bibs, linings and interfacings (trade 5, 8, 11)."""

from math import pi

import pytest
from pytest import approx

from conftest import BODICE, FIGURE, outline
from gentle_hem.core.finish import LINING_SHORTER
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.seams import Verdict
from gentle_hem.core.units import inches


def made(**rest):
    return make_up(
        Recipe.model_validate(
            {"figure": {"measures": FIGURE}, "bodice": BODICE, "lower": {"kind": "straight", "length": 600}, **rest}
        )
    )


def join(garment, name):
    return next(one for one in garment.joins if one.name == name)


@pytest.mark.parametrize("width", [25.4, 40, 80])
def test_a_waistband_is_as_long_above_as_below(width):
    garment = made(band={"kind": "waistband", "width": width})
    for where in ("front", "back"):
        band = garment.piece(f"waistband {where}")
        assert band.edge("waist").drawn_length == approx(band.edge("lower").drawn_length)
        assert band.edge("side").drawn_length == approx(width)
    assert join(garment, "band seam").verdict is Verdict.MEETS
    assert join(garment, "waist seam").verdict is Verdict.MEETS


def test_a_waistbands_marks_lie_under_the_bodices_darts():
    garment = made(band={"kind": "waistband"})
    ties = {tie.name: tie.offset for tie in join(garment, "band seam").ties}
    assert {"front dart", "side seam", "back dart"} <= set(ties)
    assert all(abs(offset) < 0.01 for offset in ties.values())


def test_a_faced_band_is_cut_twice_a_single_one_once():
    faced = made(band={"kind": "waistband", "finish": "faced"}).piece("waistband front")
    single = made(band={"kind": "waistband", "finish": "single"}).piece("waistband front")
    assert (faced.cut, single.cut) == (2, 1)


@pytest.mark.parametrize("deep", [60, 110, 180])
def test_a_hip_yoke_is_part_of_a_cone(deep):
    """Its lower edge is longer than its upper one by its angle times its depth, its edges are arcs about one centre."""
    garment = made(band={"kind": "yoke", "deep": deep, "ease": 30})
    front = garment.piece("yoke front")
    upper, lower = front.edge("waist").path.segments[0], front.edge("lower").path.segments[0]
    assert upper.centre.distance(lower.centre) < 1e-9
    assert lower.radius - upper.radius == approx(deep)
    assert lower.length - upper.length == approx(abs(lower.sweep) * deep)
    whole = 2 * sum(garment.piece(f"yoke {w}").edge("lower").drawn_length for w in ("front", "back"))
    share = min(1.0, deep / FIGURE["waist_to_hip"])
    assert whole == approx(740 + (FIGURE["hip_girth"] - 740) * share + 30, abs=0.01)


def test_what_hangs_below_a_yoke_reaches_the_hip_from_there():
    shallow = made(lower={"kind": "straight", "length": 500}, band={"kind": "yoke", "deep": 60})
    deep = made(lower={"kind": "straight", "length": 500}, band={"kind": "yoke", "deep": 200})
    intakes = [sum(d.intake for d in g.piece("skirt front").darts) for g in (shallow, deep)]
    assert intakes[0] > intakes[1], "the deeper the yoke, the less is left for darts"


def test_a_bib_stands_on_its_band():
    garment = make_up(
        Recipe.model_validate(
            {
                "figure": {"measures": FIGURE},
                "bodice": {"kind": "bib", "height": 230, "top": 190, "bottom": 250, "band": 45, "waist_ease": 30},
                "lower": {"kind": "gathered", "fullness": 1.7},
            }
        )
    )
    bib = garment.piece("bib")
    assert bib.on_fold
    assert bib.edge("foot").drawn_length == approx(125)
    assert bib.edge("bib top").drawn_length == approx(95)
    seam = next(w for w in garment.seams if w.seam.name == "bib seam")
    assert seam.length_a == approx(seam.length_b)
    assert 2 * join(garment, "waist seam").upper.length == approx(FIGURE["waist_girth"] + 30)
    assert garment.piece("strap").cut == 2
    for piece in garment.pieces:
        assert outline(piece.cut_line).is_valid, piece.name


def test_a_lining_is_the_outer_with_its_hem_half_an_inch_shorter():
    """Common practice: as the outer pieces, ½ in shorter."""
    garment = made(finish={"lining": "whole"})
    for name in ("bodice front", "bodice back", "skirt front", "skirt back"):
        outer, lining = garment.piece(name), garment.piece(f"{name} lining")
        assert lining.cloth == "lining"
        assert lining.seam_line == outer.seam_line
        for a, b in zip(outer.edges, lining.edges, strict=True):
            shorter = LINING_SHORTER if a.role is Role.HEM else 0.0
            assert a.allowance - b.allowance == approx(shorter)
    assert inches(0.5) == LINING_SHORTER


def test_a_lined_bodice_leaves_the_skirt_alone():
    names = {piece.name for piece in made(finish={"lining": "bodice"}).pieces}
    assert "bodice front lining" in names
    assert "skirt front lining" not in names


def test_facings_bands_and_collars_are_interfaced():
    garment = made(
        bodice={"kind": "two_lengths"}, style={"facing": "faced"}, band={"kind": "waistband"},
        trims=[{"kind": "stand_collar"}], finish={"interfacing": "interfaced"},
    )  # fmt: skip
    stiff = {piece.name for piece in garment.pieces if piece.cloth == "interfacing"}
    assert stiff == {
        "front neck facing interfacing",
        "back neck facing interfacing",
        "waistband front interfacing",
        "waistband back interfacing",
        "stand collar interfacing",
    }


def test_a_gown_can_be_lined_all_through():
    garment = made(bodice={"kind": "two_lengths"}, lower={"kind": "gown"}, finish={"lining": "whole"})
    assert {"gown front lining", "gown back lining"} <= {piece.name for piece in garment.pieces}


def test_full_sweep_of_a_yoke_and_circle():
    """A circle on a yoke is drawn to the yoke's lower edge, not to the waist (trade 7.4)."""
    garment = made(lower={"kind": "circle", "sweep": 360, "length": 500}, band={"kind": "yoke", "deep": 120})
    radius = next(w.value for w in garment.workings if w.label == "seam radius")
    lower = 2 * join(garment, "waist seam").upper.length
    assert radius == approx(lower / (2 * pi))
    assert lower > 760
