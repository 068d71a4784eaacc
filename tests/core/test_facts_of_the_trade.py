"""Facts of the trade that any garment must keep, whatever its words: *common practice*, each with its reason."""

from math import pi, radians

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from conftest import BODICE, FIGURE
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe


def garment(**lower):
    return make_up(Recipe.model_validate({"figure": {"measures": FIGURE}, "bodice": BODICE, "lower": lower}))


def working(made, label):
    return next(w.value for w in made.workings if w.label == label)


def hem_of(made):
    return sum(
        (2 if piece.on_fold else 1) * piece.cut * piece.edge("hem").drawn_length
        for piece in made.pieces
        if any(edge.name == "hem" for edge in piece.edges)
    )


@given(st.floats(60, 720), st.floats(200, 1200))
def test_a_hem_is_longer_than_its_seam_by_sweep_times_length(sweep, length):
    """Common practice: whatever the waist, a flare of θ adds θ · length to the hem."""
    made = garment(kind="circle", sweep=sweep, length=length)
    assert working(made, "hem radius") - working(made, "seam radius") == approx(length, abs=1e-6)
    assert hem_of(made) - 740 == approx(radians(sweep) * length, abs=0.5)


@pytest.mark.parametrize("length", [300, 620, 1000])
def test_half_the_circle_has_twice_the_radius(length):
    """Common practice: a half circle is drawn with twice the radius of a full one, a quarter with four times."""
    full, half, quarter = (
        working(garment(kind="circle", sweep=s, length=length), "seam radius") for s in (360, 180, 90)
    )
    assert half == approx(2 * full)
    assert quarter == approx(4 * full)
    assert full == approx(740 / (2 * pi))


def test_an_inch_more_in_the_length_of_a_full_circle_is_over_six_in_its_hem():
    """Common practice: every inch of length adds 2π inches to a full circle's hem."""
    shorter, longer = (hem_of(garment(kind="circle", sweep=360, length=x)) for x in (600, 625.4))
    assert longer - shorter == approx(2 * pi * 25.4, abs=0.5)


@pytest.mark.parametrize("fullness", [1.5, 2.0, 2.5, 3.0])
def test_fullness_is_cut_and_drawn_up_again(fullness):
    """Common practice: a gathered skirt is cut its fullness times the seam, and sewn to the seam itself."""
    made = garment(kind="gathered", fullness=fullness)
    assert hem_of(made) == approx(740 * fullness, abs=0.5)
    [join] = made.joins
    assert join.verdict.fits
    assert join.fullness == approx(fullness)


@pytest.mark.parametrize("style", ["knife", "box", "inverted"])
@pytest.mark.parametrize("pleats", [8, 12, 17, 24])
def test_three_times_full_pleats_touch(style, pleats):
    """Common practice: cut three times its seam, each pleat's fold meets the next."""
    made = garment(kind="pleated", fullness=3.0, pleats=pleats, style=style)
    assert 2 * working(made, "pleat depth") == approx(2 * working(made, "pleat spacing"), rel=1e-6)
    assert made.joins[0].verdict.fits
    for piece in made.pieces:
        if any(dart.pleat for dart in piece.darts):
            taken = sum(dart.intake for dart in piece.darts)
            assert piece.edge("waist").drawn_length - taken == approx(piece.stitched_length("waist"))


@pytest.mark.parametrize("kind", ["circle", "gathered", "pleated", "gores", "straight", "a_line"])
@pytest.mark.parametrize("longer", [10.0, 100.0])
def test_a_longer_skirt_is_longer_at_every_side_and_no_other_at_the_waist(kind, longer):
    short, long = garment(kind=kind, length=600), garment(kind=kind, length=600 + longer)
    assert long.joins[0].lower.length == approx(short.joins[0].lower.length, abs=0.01)
    assert hem_of(long) >= hem_of(short) - 2, "an A-line hem is as wide as its words say, its curve a little flatter"
    for before, after in zip(short.pieces, long.pieces, strict=True):
        if before.name.startswith("skirt"):
            assert after.seam_line.length > before.seam_line.length + longer


@pytest.mark.parametrize("pieces", [1, 2, 4])
def test_how_a_circle_is_cut_changes_neither_seam_nor_hem(pieces):
    made = garment(kind="circle", sweep=270, pieces=pieces, length=500)
    assert made.joins[0].lower.length == approx(370)
    assert hem_of(made) == approx(740 + radians(270) * 500, abs=0.5)


@pytest.mark.parametrize("waist", ["1 cm", "15 mm", "5/8 in"])
def test_allowances_change_what_is_cut_and_nothing_that_is_sewn(waist):
    plain = make_up(Recipe.model_validate({"bodice": BODICE, "lower": {"kind": "circle"}}))
    wide = make_up(
        Recipe.model_validate({"bodice": BODICE, "lower": {"kind": "circle"}, "allowances": {"waist": waist}})
    )
    for before, after in zip(plain.pieces, wide.pieces, strict=True):
        assert after.seam_line == before.seam_line
    assert wide.joins[0].lower.length == approx(plain.joins[0].lower.length)
