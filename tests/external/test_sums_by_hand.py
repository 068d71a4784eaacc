"""Each sum through the command line against arithmetic done here, independently, on many inputs."""

import json
import math
import random

import pytest
from pytest import approx

from gentle_hem.cli import main

MM = {"in": 25.4, "cm": 10.0, "mm": 1.0}


def asked(capsys, name, **inputs):
    assert main(["sum", name, *(f"{key}={value}" for key, value in inputs.items()), "--json"]) == 0
    answer = json.loads(capsys.readouterr().out)
    return {key: value.get("mm", value.get("degrees", value.get("value"))) for key, value in answer["values"].items()}


def lengths(seed, *bounds):
    """Random lengths with their text and millimetres, in a unit of their own."""
    chance = random.Random(seed)
    for least, most in bounds:
        unit = chance.choice(list(MM))
        value = round(chance.uniform(least, most) / MM[unit], 3)
        yield f"{value} {unit}", value * MM[unit]


@pytest.mark.parametrize("seed", range(8))
def test_circle(capsys, seed):
    (seam, s), (length, long), (waist, a), (hem, h) = lengths(seed, (400, 1400), (100, 1200), (0, 20), (0, 40))
    sweep = random.Random(seed).choice([90, 133.7, 180, 270, 360, 500])
    got = asked(capsys, "circle", seam=seam, length=length, waist_allowance=waist, hem_allowance=hem, sweep=sweep)
    theta = math.radians(sweep)
    assert got["seam_radius"] == approx(s / theta)
    assert got["cut_radius"] == approx(s / theta - a)
    assert got["hem_radius"] == approx(s / theta + long)
    assert got["hem_cut_radius"] == approx(s / theta + long + h)
    assert got["hem_sweep"] == approx(s + theta * long)
    assert got["stitched_seam"] == approx(s)
    assert got["surplus"] == approx(0, abs=1e-9)
    cut = asked(capsys, "circle", seam=seam, length=length, waist_allowance=waist, sweep=sweep, rule="cut_edge")
    assert cut["cut_radius"] == approx(s / theta)
    assert cut["surplus"] == approx(theta * a)
    assert cut["stitched_seam"] == approx(s + theta * a)


@pytest.mark.parametrize("seed", range(5))
def test_circle_with_stretch_arc_and_hip(capsys, seed):
    (seam, s), (arc, c), (hip, big), (drop, d) = lengths(seed, (500, 900), (20, 60), (950, 1300), (150, 240))
    percent = random.Random(seed).choice([0, 1, 2.5, 5])
    got = asked(
        capsys, "circle", seam=seam, length="60cm", arc_allowance=arc, stretch=percent, hip=hip, waist_to_hip=drop
    )
    divided = s * (1 - percent / 100) + c
    assert got["seam_radius"] == approx(divided / math.tau)
    assert got["stitched_seam"] == approx(divided - c)
    assert got["least_sweep"] == approx(math.degrees(max(0.0, (big + 20 - s) / d)))


@pytest.mark.parametrize("seed", range(5))
def test_skirt_length(capsys, seed):
    (full, f), (waist, w), (join, j), (hem, h) = lengths(seed, (800, 1500), (350, 500), (0, 20), (0, 60))
    got = asked(capsys, "skirt_length", full_length=full, waist_length=waist, join_allowance=join, hem_allowance=hem)
    assert got == {"finished_length": approx(f - w), "cut_length": approx(f - w + j + h)}


@pytest.mark.parametrize("seed", range(5))
def test_sweep_for_hem(capsys, seed):
    (seam, s), (length, long), (hem, m) = lengths(seed, (500, 900), (300, 900), (1000, 5000))
    got = asked(capsys, "sweep_for_hem", seam=seam, length=length, hem_sweep=hem)
    assert got["sweep"] == approx(math.degrees((m - s) / long))
    assert got["seam_radius"] == approx(s * long / (m - s))


@pytest.mark.parametrize("seed", range(6))
def test_gather(capsys, seed):
    (seam, s), (cloth, wide), (join, j) = lengths(seed, (300, 1500), (900, 1600), (5, 20))
    fullness = random.Random(seed).choice([1.5, 2, 2.5, 3])
    got = asked(capsys, "gather", seam=seam, fullness=fullness, cloth_width=cloth, join_allowance=join)
    count = math.ceil(s * fullness / (wide - 2 * j))
    assert got["cut_width"] == approx(s * fullness)
    assert got["panels"] == count
    assert got["panel_width"] == approx(s * fullness / count + 2 * j)
    assert got["actual_fullness"] == approx(count * (wide - 2 * j) / s)
    assert got["panel_width"] <= wide + 1e-6


@pytest.mark.parametrize("seed", range(5))
def test_dart_share(capsys, seed):
    (lower, low), (bodice, up) = lengths(seed, (700, 900), (600, 700))
    darts = random.Random(seed).randint(1, 8)
    got = asked(capsys, "dart_share", lower=lower, bodice=bodice, darts=darts)
    assert got == {"surplus": approx(low - up), "intake": approx((low - up) / darts)}


def test_whole_widths_are_not_rounded_up_twice(capsys):
    """Exactly two widths stay two, whatever binary fractions say."""
    assert asked(capsys, "gather", seam="110 cm", fullness=2, cloth_width="110 cm")["panels"] == 2
    assert asked(capsys, "gather", seam="36.6666666666 cm", fullness=3, cloth_width="110 cm")["panels"] == 1
