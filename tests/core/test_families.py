"""Families to begin from: each is a whole dress on anybody, of round lengths in her own unit."""

import pytest
from pytest import approx

from conftest import FIGURE
from gentle_hem.core.dressed import Seen, drawn_dress
from gentle_hem.core.dressed.inks import Drawn
from gentle_hem.core.families import BY_KEY, FAMILIES, family_recipe
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.units import Unit, inches

FIGURES = {
    "usual": FIGURE,
    "three girths": {"bust_girth": 1220, "waist_girth": 940, "hip_girth": 1180},
    "small": {"bust_girth": 800, "waist_girth": 620, "hip_girth": 860, "front_waist_length": 390},
}


@pytest.mark.parametrize("who", FIGURES)
@pytest.mark.parametrize("family", FAMILIES, ids=lambda family: family.key)
def test_every_family_is_a_dress_that_can_be_cut(family, who):
    recipe = family_recipe(family, "A dress", Figure(measures=FIGURES[who]), Unit.CM)
    garment = make_up(recipe)
    assert [f.code for f in garment.findings if f.severity is Severity.STOP] == []
    assert [seam.name for seam in garment.seams if not seam.verdict.fits] == []
    dress = drawn_dress(recipe, garment)
    assert any(ink.drawn is Drawn.CLOTH for ink in dress.views[Seen.FRONT])


def test_lengths_are_round_in_the_makers_own_unit():
    figure = Figure(measures=FIGURE)
    metric, inch = (family_recipe(BY_KEY["circle"], "A dress", figure, unit) for unit in (Unit.CM, Unit.INCH))
    assert (metric.lower.length, metric.allowances.waist) == (600, 10)
    assert (inch.lower.length, inch.allowances.waist) == (approx(inches(24)), approx(inches(0.5)))


def test_the_bodice_is_the_one_that_was_chosen():
    figure = Figure(measures=FIGURE)
    measured = family_recipe(BY_KEY["princess"], "A dress", figure, Unit.CM, {"kind": "measured"})
    assert measured.bodice.kind == "measured"
    assert measured.steps == ()  # nothing can be drawn on a bodice that is only its edges
    drafted = family_recipe(BY_KEY["princess"], "A dress", figure, Unit.CM, {"kind": "two_lengths"})
    assert (drafted.bodice.kind, [step.kind for step in drafted.steps]) == ("two_lengths", ["princess"])
    assert family_recipe(BY_KEY["pinafore"], "A dress", figure, Unit.CM, {"kind": "two_lengths"}).bodice.kind == "bib"


def test_families_tell_apart_in_their_drawings():
    figure = Figure(measures=FIGURE)
    drawings = set()
    for family in FAMILIES:
        recipe = family_recipe(family, "A dress", figure, Unit.CM)
        drawings.add(drawn_dress(recipe, make_up(recipe)).views[Seen.FRONT])
    assert len(drawings) == len(FAMILIES)
