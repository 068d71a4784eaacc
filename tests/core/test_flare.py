"""The flare's arithmetic by itself (trade 7.1-7.3)."""

from math import pi, radians

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx

from gentle_hem.core.lower.flare import (
    Flare,
    RadiusRule,
    least_sweep,
    room_beside,
    say_sweep,
    sweep_for_hem,
)
from gentle_hem.core.units import Unit, inches
from gentle_hem.core.workings import Workings

seams = st.floats(300, 2000)
sweeps = st.floats(0.3, 18)
lengths = st.floats(50, 1500)


@given(seams, sweeps, lengths, st.floats(0, 25), st.floats(0, 40))
def test_radii_lie_in_order_and_add_up(seam, sweep, length, waist, hem):
    radii = Flare(seam, sweep, length, waist, hem).work(Workings())
    assert radii.seam_radius - radii.cut_radius == approx(waist)
    assert radii.hem_radius - radii.seam_radius == approx(length)
    assert radii.hem_cut_radius - radii.hem_radius == approx(hem)
    assert radii.hem_sweep == approx(seam + sweep * length)
    assert radii.surplus == approx(0, abs=1e-6)


@given(seams, sweeps, lengths, st.floats(0.5, 12))
def test_rounding_down_never_makes_the_seam_longer(seam, sweep, length, mark):
    radii = Flare(seam, sweep, length, 5, tape_mark=mark).work(Workings())
    assert -sweep * mark <= radii.surplus <= 1e-6
    marks = radii.cut_radius / mark
    assert marks == approx(round(marks), abs=1e-4)


@given(seams, sweeps, lengths)
def test_sweep_for_hem_undoes_the_flare(seam, sweep, length):
    hem = Flare(seam, sweep, length).work(Workings()).hem_sweep
    back, radius = sweep_for_hem(seam, length, hem, Workings())
    assert back == approx(sweep)
    assert radius == approx(seam / sweep)


@given(st.floats(600, 1100), st.floats(700, 1400), st.floats(150, 250))
def test_the_least_sweep_just_passes_the_hip(seam, hip, drop):
    least = least_sweep(seam, hip, drop, Workings())
    assert least >= 0
    assert seam + least * drop >= hip + 20 - 1e-6
    if least > 0:
        assert seam + least * drop == approx(hip + 20)


def test_both_rules_name_what_the_other_would_give():
    notes = Workings()
    Flare(inches(34), 2 * pi, 100, inches(0.5), rule=RadiusRule.SEAM_LINE).work(notes)
    seam = next(w for w in notes if w.label == "seam radius")
    assert seam.instead == (("cut-edge rule", approx(inches(5.9113), abs=0.01)),)
    notes = Workings()
    Flare(inches(34), 2 * pi, 100, inches(0.5), rule=RadiusRule.CUT_EDGE).work(notes)
    cut = next(w for w in notes if w.label == "cut radius")
    assert cut.instead == (("seam-line rule", approx(inches(4.9113), abs=0.01)),)


def test_rounded_numbers_say_what_was_rounded():
    notes = Workings()
    Flare(inches(34), 2 * pi, 100, tape_mark=inches(0.25)).work(notes)
    rounded = next(w for w in notes if w.label == "cut radius on the tape")
    assert "cut larger, never smaller" in rounded.rounding
    assert rounded.line(Unit.INCH) == "5.411 in down to a mark of 1/4 in = 5 1/4 in"
    lost = next(w for w in notes if w.label == "seam lost to rounding")
    assert lost.value == approx(inches(34) - 2 * pi * inches(5.25))


def test_rounding_5_41_up_to_5_and_a_half_would_be_too_big():
    """Common practice (trade 7.2): 0.56 in too big on a full circle; so it is rounded down."""
    assert 2 * pi * (5.5 - 34 / (2 * pi)) == approx(0.56, abs=0.005)
    radii = Flare(inches(34), 2 * pi, 100, tape_mark=inches(0.5)).work(Workings())
    assert radii.cut_radius == approx(inches(5))


@pytest.mark.parametrize(
    ("sweep", "said"),
    [(90, "quarter circle"), (180, "half circle"), (270, "three-quarter circle"), (360, "full circle"),
     (720, "double circle"), (212, "212° flare"), (96.5, "96.5° flare")],
)  # fmt: skip
def test_sweeps_by_name(sweep, said):
    assert say_sweep(sweep) == said


def test_room_beside_a_sector():
    assert room_beside(radians(170), 100) == float("inf")
    assert room_beside(radians(300), 100) == approx(50)
    assert room_beside(2 * pi, 100) == approx(0, abs=1e-9)
    assert room_beside(2 * pi + 0.1, 100) == 0
