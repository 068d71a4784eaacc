"""Flounces, godets, ruffles, sleeves and collars: what each promises (trade 8), also read back from its files."""

import io
import itertools
import math

import ezdxf
import pytest
import svgelements
from hypothesis import given
from hypothesis import strategies as st
from pytest import approx
from scipy.integrate import quad

from conftest import BODICE, FIGURE, outline
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.seams import Verdict
from gentle_hem.core.trim.flounce import spiral, spiral_length, spiral_turn
from gentle_hem.core.units import inches
from gentle_hem.formats.dxf import to_dxf
from gentle_hem.formats.svg import to_svg
from readers import outline_length


def made(*trims, lower=None, bodice=None, **rest):
    return make_up(
        Recipe.model_validate(
            {
                "figure": {"measures": FIGURE},
                "bodice": bodice or BODICE,
                "lower": lower or {"kind": "straight", "length": 900},
                "trims": list(trims),
                **rest,
            }
        )
    )


def join(garment, name):
    return next(j for j in garment.joins if j.name == name)


@pytest.mark.parametrize(("angle", "added"), [(30, 8.378), (60, 16.755), (90, 25.133), (180, 50.265)])
def test_godet_check_values(angle, added):
    """Trade 15, geometry: godet 16 in high."""
    garment = made(
        {"kind": "godets", "angle": angle, "height": "16in", "count": 2}, lower={"kind": "circle", "length": 900}
    )
    assert garment.piece("godet").edge("hem").drawn_length == approx(inches(added), abs=0.02)


@given(st.floats(20, 180), st.floats(80, 600), st.floats(0, 60), st.floats(0, 30))
def test_godet_sides_equal_the_slit_on_both_panels(angle, height, dip, fuller):
    garment = made({"kind": "godets", "angle": angle, "height": height, "dip": dip, "fuller": fuller},
                   lower={"kind": "gores", "length": 900})  # fmt: skip
    piece = garment.piece("godet")
    for side in ("left", "right"):
        assert piece.edge(side).drawn_length == approx(height, abs=0.1)
    sides = [walked for walked in garment.joins if walked.lower_name == "godet"]
    assert len(sides) >= 2
    assert all(abs(walked.difference) < 0.05 for walked in sides)
    tips = [(p, n) for p in garment.pieces for n in p.notches if n.landmark == "godet tip" and p.name != "godet"]
    assert tips
    for host, notch in tips:
        edge = host.edge(notch.edge)
        hem_end = 0.0 if edge.path.leaving.y > 0 else edge.drawn_length
        assert abs(notch.at - hem_end) == approx(height, abs=0.1), "the tip on the stitched stop"


def test_a_dipped_godet_hangs_lower_in_the_middle():
    """Common practice: the middle 1½ to 2 in longer than the sides."""
    piece = made({"kind": "godets", "height": "16in", "dip": "1 1/2in"}, lower={"kind": "circle", "length": 900}).piece(
        "godet"
    )
    hem = piece.edge("hem").path
    assert abs(hem.point_at(hem.length / 2).y) == approx(inches(17.5), abs=0.05)


def test_ring_flounce_check_value():
    """Trade 15, geometry: base 19 in, 2 rings, joins ½ in: seam radius 1.6711 in."""
    from gentle_hem.core.trim.flounce import ring
    from gentle_hem.core.workings import Workings

    numbers = ring(inches(19), 2, inches(6), inches(0.5), 0, 0, Workings())
    assert numbers.seam_radius == approx(inches(1.6711), abs=0.002)


@pytest.mark.parametrize("rings", [2, 5, 8])
def test_rings_together_are_as_long_as_the_hem(rings):
    garment = made({"kind": "ring_flounce", "rings": rings, "width": 150})
    flounce = join(garment, "flounce ring seam")
    assert abs(flounce.difference) < 0.05
    assert garment.piece("flounce ring").cut == rings
    assert outline(garment.piece("flounce ring").cut_line).is_valid


@given(st.floats(15, 120), st.floats(12, 60), st.floats(300, 6000))
def test_the_spiral_is_archimedes_and_as_long_as_its_base(start, growth, base):
    """Its length against scipy's quadrature of r(φ) = r₀ + bφ; the drawn curve against the formula."""
    turn = spiral_turn(start, growth, base)
    assert quad(lambda t: math.hypot(start + growth * t, growth), 0, turn, limit=200)[0] == approx(base, rel=1e-6)
    assert spiral_length(start, growth, turn) == approx(base, rel=1e-9)
    assert spiral(start, growth, turn).length == approx(base, rel=1e-3)


@pytest.mark.usefixtures("as_drafted")
def test_a_hem_flounce_takes_its_base_where_the_gown_is_cut_off():
    """Trade 8: the gown is drafted to its full length first; the flounce's base is the sweep at the cut line."""
    lower = {"kind": "straight", "length": 1000, "taper": 40}
    full = made(lower=lower)
    flounced = made({"kind": "hem_ruffle", "place": "cut_off", "height": 250, "fullness": 3}, lower=lower)
    front = flounced.piece("skirt front")
    assert front.edge("centre front").drawn_length == approx(
        full.piece("skirt front").edge("centre front").drawn_length - 250
    )
    base = 2 * sum(flounced.piece(f"skirt {w}").edge("hem").drawn_length for w in ("front", "back"))
    at_hem = 2 * sum(full.piece(f"skirt {w}").edge("hem").drawn_length for w in ("front", "back"))
    assert base > at_hem + 20, "wider there than at the old hem"
    assert flounced.piece("hem ruffle").edge("top").drawn_length == approx(base * 3 / 2)
    assert join(flounced, "hem ruffle seam").verdict is Verdict.GATHERED


def test_flounce_after_godets_counts_their_hem():
    garment = made({"kind": "godets", "count": 4, "angle": 60, "height": 300}, {"kind": "hem_ruffle", "fullness": 2},
                   lower={"kind": "gores", "length": 900, "count": 4})  # fmt: skip
    gores = sum(4 * p.edge("hem").drawn_length / 2 for p in garment.pieces if p.name.startswith("gore"))
    godets = 4 * garment.piece("godet").edge("hem").drawn_length
    assert 2 * join(garment, "hem ruffle seam").upper.length == approx(gores + godets, abs=0.5)


@pytest.mark.usefixtures("as_drafted")
def test_a_side_ruffle_stops_short():
    """Common practice: 3 in off a seam's end."""
    garment = made({"kind": "side_ruffle", "fullness": 2})
    seam = garment.piece("skirt front").edge("side").drawn_length
    assert garment.piece("side ruffle").edge("top").drawn_length == approx(2 * (seam - inches(3)))


@pytest.mark.parametrize("school", ["quarters", "two_lengths", "proportional"])
@given(st.floats(20, 40), st.floats(20, 70))
def test_the_cap_walks_the_armhole_with_the_ease_asked(school, ease, arm):
    garment = made({"kind": "sleeve", "cap_ease": ease, "ease": arm}, bodice={"kind": school})
    if any(f.code == "cap-does-not-fit" for f in garment.findings):
        return
    total = 0.0
    for side in ("front", "back"):
        walked = next(w for w in garment.seams if w.seam.name == f"sleeve {side} cap")
        assert walked.verdict.fits
        total += walked.length_b - walked.length_a
    assert total == approx(ease, abs=0.2)
    underarm = next(w for w in garment.seams if w.seam.name == "sleeve underarm seam")
    assert abs(underarm.difference) < 8, "front and back of the cap differ, the underarm is one level"


def test_a_stand_collar_has_its_necklines_length_and_ends():
    garment = made({"kind": "stand_collar"}, bodice={"kind": "two_lengths"})
    neck = sum(garment.piece(f"bodice {w}").stitched_length("neckline") for w in ("front", "back"))
    collar = garment.piece("stand collar")
    assert collar.stitched_length("neck edge") == approx(neck, abs=0.01)
    assert collar.edge("centre back").allowance == garment.piece("bodice back").edge("centre back").allowance


def test_the_stand_collar_of_a_neck_without_opening_lies_on_one_fold_and_is_closed_by_a_seam():
    """A strip with both ends on a fold would be a ring, which no cloth folds to."""
    garment = made({"kind": "stand_collar"}, bodice={"kind": "two_lengths"},
                   opening={"place": "none", "below_waist": 0})  # fmt: skip
    collar = garment.piece("stand collar")
    assert collar.fold == collar.edge("centre front")
    assert collar.edge("centre back").allowance == collar.edge("neck edge").allowance > 0
    seam = next(one for one in garment.seams if one.seam.name == "stand collar centre back seam")
    assert seam.seam.a.stretches[0].edge == seam.seam.b.stretches[0].edge == "centre back"


def test_a_vent_is_a_lap_on_the_centre_back():
    """Common practice: 9 × 1¾ in."""
    plain, vented = (
        made(lower={"kind": "straight"}).piece("skirt back"),
        made({"kind": "vent"}, lower={"kind": "straight"}).piece("skirt back"),
    )
    grown = vented.seam_line.signed_area - plain.seam_line.signed_area
    assert grown == approx(inches(9) * inches(1.75), rel=0.12)


TRIMMED = [
    {"kind": "godets", "count": 4, "angle": 75, "height": 330, "dip": 40},
    {"kind": "ring_flounce", "rings": 6, "width": 140},
]
LENGTHS = {"godet": "hem", "flounce ring": "top", "tier 2 front": "waist", "skirt front": "waist"}


def garments_with_trims():
    yield made(*TRIMMED, lower={"kind": "gores", "length": 800})
    yield made({"kind": "hem_ruffle", "fullness": 2.5, "height": 120}, lower={"kind": "tiered"})


def test_lengths_read_back_from_svg_and_dxf():
    """Read by svgelements and ezdxf: outlines of godets, rings, tiers and ruffles measure what the garment says."""
    for garment in garments_with_trims():
        drawing = svgelements.SVG.parse(io.StringIO(to_svg(garment)), ppi=25.4)
        measured = {}
        for group in drawing.select(lambda e: isinstance(e, svgelements.Group) and e.id):
            for shape in group:
                if isinstance(shape, svgelements.Path) and shape.values.get("class") == "seam-line":
                    measured[group.id] = outline_length(shape)
        document = ezdxf.read(io.StringIO(to_dxf(garment)))
        for piece in garment.pieces:
            assert measured[piece.name] == approx(piece.seam_line.length, abs=0.1), piece.name
            [outline_] = [e for e in document.blocks[piece.name] if e.dxf.layer == "14"]
            flat = list(ezdxf.path.make_path(outline_).flattening(0.005))
            length = sum(a.distance(b) for a, b in itertools.pairwise(flat))
            assert length == approx(piece.seam_line.length, abs=0.1), piece.name
