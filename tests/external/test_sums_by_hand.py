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


@pytest.mark.parametrize("seed", range(4))
def test_flare(capsys, seed):
    (length, long), (flare, out) = lengths(seed, (100, 1200), (10, 400))
    got = asked(capsys, "flare", length=length, flare=flare)
    assert got["hem_raise"] == approx(math.hypot(long, out) - long)
    assert got["side_length_before"] == approx(math.hypot(long, out))


@pytest.mark.parametrize("seed", range(4))
def test_ring_flounce(capsys, seed):
    (base, b), (width, w), (join, j), (inner, a), (hem, h) = lengths(
        seed, (400, 6000), (50, 400), (0, 20), (0, 8), (0, 20)
    )
    rings = seed + 1
    got = asked(capsys, "ring_flounce", base=base, rings=rings, width=width, join_allowance=join,
                inner_allowance=inner, hem_allowance=hem)  # fmt: skip
    radius = (b / rings + 2 * j) / math.tau
    assert got["seam_radius"] == approx(radius)
    assert got["cut_radius"] == approx(radius - a)
    assert got["hem_radius"] == approx(radius + w)
    assert got["outer_cut_radius"] == approx(radius + w + h)
    assert got["fullness"] == approx((radius + w) / radius)
    assert got["diameter"] == approx(2 * (radius + w + h))


@pytest.mark.parametrize("seed", range(4))
def test_godet(capsys, seed):
    (height, h), (dip, d) = lengths(seed, (100, 800), (0, 60))
    angle, count = random.Random(seed).choice([30, 60, 77.5, 180]), seed + 2
    got = asked(capsys, "godet", height=height, angle=angle, dip=dip, count=count)
    assert got["hem_added"] == approx(math.pi * angle / 180 * h)
    assert got["total_hem_added"] == approx(count * math.pi * angle / 180 * h)
    assert got["chord"] == approx(math.sqrt(2 * h * h * (1 - math.cos(math.radians(angle)))), abs=1e-6)
    assert got["centre_length"] == approx(h + d)


@pytest.mark.parametrize("seed", range(4))
def test_tiers(capsys, seed):
    (seam, s), (length, long), (join, j), (hem, e) = lengths(seed, (500, 1200), (300, 1200), (0, 20), (0, 60))
    tiers, fullness, growth = seed + 2, 1.3 + seed / 10, 1 + seed / 5
    assert main(["sum", "tiers", f"seam={seam}", f"length={length}", f"tiers={tiers}", f"fullness={fullness}",
                 f"growth={growth}", f"join_allowance={join}", f"hem_allowance={hem}", "--json"]) == 0  # fmt: skip
    values = json.loads(capsys.readouterr().out)["values"]
    got = {name: [item["mm"] for item in items] for name, items in values.items()}
    assert sum(got["heights"]) == approx(long)
    for k in range(tiers):
        assert got["seams"][k] == approx(s * fullness**k)
        assert got["cut_widths"][k] == approx(s * fullness ** (k + 1))
        below = e if k == tiers - 1 else j
        assert got["cut_heights"][k] == approx(got["heights"][k] + j + below)
        if k:
            assert got["heights"][k] / got["heights"][k - 1] == approx(growth)


@pytest.mark.parametrize("seed", range(4))
def test_pleats(capsys, seed):
    [(seam, s)] = lengths(seed, (500, 1400))
    n = 8 + 3 * seed
    got = asked(capsys, "pleats", seam=seam, pleats=n)
    assert got["cut_width"] == approx(3 * s)
    assert s + 2 * got["depth"] * n == approx(3 * s)
    assert got["spacing"] == approx(s / n)
    by_depth = asked(capsys, "pleats", seam=seam, pleats=n, depth="31mm")
    assert by_depth["cut_width"] == approx(s + 2 * 31 * n)


@pytest.mark.parametrize("seed", range(4))
def test_high_low(capsys, seed):
    """The hem's length against scipy's quadrature of the curve's own formula."""
    from scipy.integrate import quad

    (seam, s), (front, f), (back, b) = lengths(seed, (500, 1000), (200, 700), (200, 1100))
    sweep = [180, 270, 360, 450][seed]
    got = asked(capsys, "high_low", seam=seam, sweep=sweep, front=front, back=back)
    theta = math.radians(sweep)
    radius = s / theta
    assert got["seam_radius"] == approx(radius)
    assert got["side_length"] == approx((f + b) / 2)

    def speed(t):
        share = t / (theta / 2)
        reach = radius + f + (b - f) * (1 - math.cos(math.pi * share)) / 2
        slope = (b - f) * math.pi * math.sin(math.pi * share) / 2 / (theta / 2)
        return math.hypot(reach, slope)

    assert got["hem_sweep"] == approx(2 * quad(speed, 0, theta / 2)[0], abs=0.1)


@pytest.mark.parametrize("seed", range(4))
def test_step(capsys, seed):
    (height, h), (inside, leg), (hem, up), (girth, g) = lengths(seed, (1500, 1850), (700, 850), (0, 600), (200, 550))
    got = asked(capsys, "step", height=height, inside_leg=inside, hem_height=hem, leg_girth=girth)
    assert got["least_sweep"] == approx(2 * 0.41 * h * max(0, leg - up) / leg + g)


def test_buttons(capsys):
    assert main(["sum", "buttons", "first=1cm", "last=43cm", "count=8", "--json"]) == 0
    values = json.loads(capsys.readouterr().out)["values"]
    assert values["spacing"]["mm"] == approx(60)
    assert [place["mm"] for place in values["positions"]] == approx([10 + 60 * k for k in range(8)])


def test_gathers_from_the_cloth(capsys):
    """Four panels of 65 cm out of 2.7 m; at 140 cm they are 8 times 70 cm; and twice 70 cm takes one width."""
    got = asked(capsys, "gather_from_cloth", seam="70cm", cloth_width="140cm", cloth_length="270cm", length="62cm",
                join_allowance="1cm", hem_allowance="2cm")  # fmt: skip
    assert (got["panels"], got["fullness"]) == (4, approx(8))
    back = asked(capsys, "gather_from_cloth", seam="70cm", cloth_width="140cm", cloth_length="270cm", fullness=4)
    assert (back["panels"], back["length"]) == (2, approx(1350))
