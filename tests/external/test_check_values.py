"""The check values of trade 15 that concern circles, lengths, gathers and darts, each with its kind.

Every sum is asked through the same registry the command line uses, with its inputs as they are typed.
"""

from math import pi

import pytest
from pytest import approx

from gentle_hem.core.sums import SUMS
from gentle_hem.core.sums.sum import SumError, ask
from gentle_hem.core.units import Unit, inches


def sum_of(name, unit=Unit.INCH, **inputs):
    return ask(SUMS[name], {k: str(v) for k, v in inputs.items()}, unit).answer()


@pytest.mark.parametrize(
    ("sweep", "radius"),
    [(360, 5.4113), (180, 10.8225), (270, 7.2150)],
)
def test_radius_for_a_seam_of_34_inches(sweep, radius):
    """Geometry; workshops write 34 ÷ 6.28 = 5.4."""
    values = sum_of("circle", seam="34", sweep=sweep, length="7").values
    assert values["seam_radius"] == approx(inches(radius), abs=inches(0.00005))


def test_cut_radius_with_half_an_inch():
    """Geometry."""
    values = sum_of("circle", seam="34 in", length="7", waist_allowance="1/2").values
    assert values["cut_radius"] == approx(inches(4.9113), abs=inches(0.00005))


def test_the_same_cut_at_the_seam_radius_is_an_inch_times_pi_too_long():
    """Geometry."""
    values = sum_of("circle", seam="34", length="7", waist_allowance="1/2", rule="cut_edge").values
    assert values["stitched_seam"] == approx(inches(37.1416), abs=inches(0.00005))
    assert values["surplus"] == approx(inches(3.1416), abs=inches(0.00005))


@pytest.mark.parametrize(("seam", "radius"), [("23", 3.6606), ("27.63", 4.3975)])
def test_front_and_back_each_a_full_circle(seam, radius):
    """Geometry; practice writes 3.7 and 4.4."""
    values = sum_of("circle", seam=seam, length="7").values
    assert values["seam_radius"] == approx(inches(radius), abs=inches(0.0001))


def test_peplum_length():
    """Common practice: top 24 in, front waist length 17 in; the 13.4 is rounded up to 13½ by hand."""
    values = sum_of(
        "skirt_length", full_length="24", waist_length="17", join_allowance="1/2", hem_allowance=".5"
    ).values
    assert values["finished_length"] == approx(inches(7))
    assert values["cut_length"] == approx(inches(8))
    radius = sum_of("circle", seam="34", length="7").values["seam_radius"]
    assert radius + values["cut_length"] == approx(inches(13.4), abs=inches(0.02))


def test_skirt_length():
    """Common practice: 43 in in all, 15½ to the waist."""
    values = sum_of(
        "skirt_length", full_length="43", waist_length="15½", join_allowance="1/2", hem_allowance="1"
    ).values
    assert values["finished_length"] == approx(inches(27.5))
    assert values["cut_length"] == approx(inches(29))


def test_jumpsuit_leg():
    """Common practice: 58 in in all, 16 to the waist."""
    assert sum_of("skirt_length", full_length=58, waist_length=16).values["finished_length"] == approx(inches(42))


@pytest.mark.parametrize(("sweep", "radius", "hem"), [(360, 111.41, 4469.9), (180, 222.82, 2585.0)])
def test_circle_of_70_cm_60_long(sweep, radius, hem):
    """Geometry."""
    values = sum_of("circle", Unit.CM, seam=70, sweep=sweep, length=60).values
    assert values["seam_radius"] == approx(radius, abs=0.01)
    assert values["hem_sweep"] == approx(hem, abs=0.1)


def test_under_bust_taken_into_two_legs():
    """Common practice: 10¼ in of pattern to an 8½ in target leaves 1¾, laid off as ¾ and 1."""
    values = sum_of("dart_share", lower="10 1/4", bodice="8 1/2", darts=2).values
    assert values["surplus"] == approx(inches(1.75))
    assert values["intake"] == approx(inches(0.875))


def test_least_sweep_over_the_hip():
    """Geometry: 70 to 96 cm at 20 cm with 2 cm of ease, θ ≥ 1.4 rad."""
    result = sum_of("circle", Unit.CM, seam=70, sweep=90, length=60, hip=96, waist_to_hip=20)
    assert result.values["least_sweep"] == approx(1.4)
    assert not result.findings
    narrow = sum_of("circle", Unit.CM, seam=70, sweep=60, length=60, hip=96, waist_to_hip=20)
    assert [f.code for f in narrow.findings] == ["sweep-below-hip"]


def test_sweep_backwards_from_the_hem_meets_the_circle_forwards():
    """Geometry: sympy solves M = S + θL, and the circle of that sweep has that hem."""
    sympy = pytest.importorskip("sympy")
    theta = sympy.symbols("theta")
    [exact] = sympy.solve(sympy.Eq(3000, 700 + theta * 600), theta)
    back = sum_of("sweep_for_hem", Unit.CM, seam=70, length=60, hem_sweep=300).values
    assert back["sweep"] == approx(float(exact))
    forward = sum_of("circle", Unit.CM, seam=70, sweep=float(exact) * 180 / pi, length=60).values
    assert forward["hem_sweep"] == approx(3000)
    assert forward["seam_radius"] == approx(back["seam_radius"])


def test_gathers_in_whole_widths():
    """Common practice: twice the fullness; 70 cm from cloth 110 wide with 1 cm joins takes two widths."""
    values = sum_of("gather", Unit.CM, seam=70, fullness=2, cloth_width=110, join_allowance=1).values
    assert values["cut_width"] == approx(1400)
    assert values["panels"] == 2
    assert values["panel_width"] == approx(720)
    assert values["actual_fullness"] == approx(2 * 1080 / 700)


@pytest.mark.parametrize(
    ("name", "inputs", "field"),
    [
        ("circle", {"seam": "34"}, "length"),
        ("circle", {"seam": "abc", "length": "7"}, "seam"),
        ("circle", {"seam": "-3", "length": "7"}, "seam"),
        ("circle", {"seam": "0", "length": "7"}, "seam"),
        ("circle", {"seam": "34", "length": "7", "sweep": "0"}, "sweep"),
        ("circle", {"seam": "34", "length": "7", "sweep": "4000"}, "sweep"),
        ("circle", {"seam": "34", "length": "7", "sweep": "nan"}, "sweep"),
        ("circle", {"seam": "34", "length": "7", "colour": "red"}, "colour"),
        ("circle", {"seam": "34", "length": "7", "rule": "by_eye"}, "rule"),
        ("circle", {"seam": "34", "length": "7", "hip": "40"}, ""),
        ("sweep_for_hem", {"seam": "34", "length": "7", "hem_sweep": "30"}, ""),
        ("gather", {"seam": "34", "fullness": "0"}, "fullness"),
        ("dart_share", {"lower": "34", "bodice": "30", "darts": "0"}, "darts"),
        ("dart_share", {"lower": "34", "bodice": "30", "darts": "2.5"}, "darts"),
        ("skirt_length", {"full_length": "9999 m", "waist_length": "16"}, "full_length"),
    ],
)
def test_bad_inputs_are_named_in_a_sentence(name, inputs, field):
    with pytest.raises(SumError) as refused:
        ask(SUMS[name], inputs, Unit.INCH)
    assert list(refused.value.problems) == [field]
    assert len(str(refused.value)) > 15


def test_swapped_lengths_are_a_finding():
    result = sum_of("skirt_length", full_length="15 1/2", waist_length="43")
    assert [f.code for f in result.findings] == ["full-length-above-waist"]
    short = sum_of("dart_share", lower="28", bodice="30")
    assert [f.code for f in short.findings] == ["lower-edge-short"]
