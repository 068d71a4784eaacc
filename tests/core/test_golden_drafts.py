"""A measured table for every school, lower part and trim: numbers worked out here by hand, front and back different.

The figure: bust 98, waist 76, hip 104, front waist length 45, back 41.8, bust point 27.5 down, 19 apart, shoulders
39.5, neck 37, waist to hip 20.5 cm. The measured bodice: front 9.3 + 9.8 cm, back 8.8 + 9.1 cm, 74 cm round.
"""

from math import cos, hypot, pi, radians

import pytest
from pytest import approx

from conftest import BODICE, FIGURE
from gentle_hem.core.cutting.pivot import pivot
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import inches

pytestmark = pytest.mark.usefixtures("as_drafted")

FRONT, BACK = 191.0, 179.0
"""The measured bodice's stitched halves (mm)."""

NEAR = 0.02


def made(bodice=None, lower=None, **rest):
    figure = {"measures": FIGURE | rest.pop("figure", {})}
    data = {"figure": figure, "bodice": bodice or BODICE, "lower": lower or {"kind": "circle", "sweep": 270}}
    return make_up(Recipe.model_validate(data | rest))


def long(garment, piece, edge):
    """How long an edge is drawn."""
    return garment.piece(piece).edge(edge).drawn_length


def darts(garment, piece, edge="waist"):
    return [dart.intake for dart in garment.piece(piece).darts_of(edge)]


def corner(garment, piece, edge, end="start"):
    """Where an edge begins or ends; a back is turned over, so that its centre is on the left as well."""
    place = getattr(garment.piece(piece).edge(edge).path, end)
    return (abs(place.x), place.y)


# the schools


def test_quarters_on_the_fold():
    garment = made({"kind": "quarters", "front_dart": 30, "back_dart": 20})
    quarter, waist = (980 + inches(2)) / 4, (760 + inches(1)) / 4
    assert long(garment, "bodice front", "waist") == approx(waist + 30, abs=NEAR)
    assert long(garment, "bodice back", "waist") == approx(waist + 20, abs=NEAR)
    assert corner(garment, "bodice front", "armhole") == approx((quarter, -(980 / 6 + inches(1.5))), abs=NEAR)
    assert corner(garment, "bodice front", "shoulder") == approx((395 / 2, -inches(1)), abs=NEAR)
    assert corner(garment, "bodice front", "shoulder", "end") == approx((inches(3), 0), abs=NEAR)
    assert corner(garment, "bodice front", "neckline", "end") == approx((0, -inches(3)), abs=NEAR)
    assert corner(garment, "bodice back", "neckline") == approx((0, -inches(1)), abs=NEAR)
    [front], [back] = (garment.piece(f"bodice {half}").darts_of("waist") for half in ("front", "back"))
    assert tuple(front.apex) == approx((95, -275 - inches(1)), abs=NEAR)
    assert (front.intake, back.intake) == approx((30, 20), abs=NEAR)


def test_quarters_in_centimetres():
    garment = made({"kind": "quarters_cm", "dart": 24}, figure={"shoulder_to_upper_bust": 190})
    assert long(garment, "bodice front", "waist") == approx((760 + 20) / 4 + 24, abs=NEAR)
    assert corner(garment, "bodice front", "armhole") == approx(((980 + 40) / 4, -190), abs=NEAR)
    assert corner(garment, "bodice front", "shoulder") == approx((197.5, -39.5), abs=NEAR), "a tenth of 39.5 cm"
    assert corner(garment, "bodice front", "neckline", "end") == approx((0, -80), abs=NEAR)
    assert corner(garment, "bodice back", "neckline") == approx((0, -40), abs=NEAR)
    [dart] = garment.piece("bodice front").darts_of("waist")
    assert tuple(dart.apex) == approx((95, -305), abs=NEAR), "3 cm below the bust point"


def test_two_lengths():
    garment = made({"kind": "two_lengths", "bust_ease": 32, "waist_ease": 16, "dart": 28})
    assert long(garment, "bodice front", "waist") == approx(760 / 4 + 4 + 28, abs=NEAR)
    assert darts(garment, "bodice front", "side") == approx([450 - 418], abs=NEAR)
    assert darts(garment, "bodice back", "side") == []
    assert corner(garment, "bodice front", "armhole") == approx((980 / 4 + 8, -(980 / 6 + inches(1.5))), abs=NEAR)
    assert corner(garment, "bodice front", "waist") == approx((0, -450), abs=NEAR)
    assert corner(garment, "bodice back", "waist", "end") == approx((0, -418), abs=NEAR)
    drops = [
        corner(garment, f"bodice {half}", "shoulder", end)[1] for half, end in (("front", "start"), ("back", "end"))
    ]
    across = 395 / 2 - inches(3)
    lower = inches(1) * hypot(across, inches(1.5)) / hypot(across, inches(1))
    assert drops == approx([-inches(1.5), -lower], abs=NEAR), "the back's shoulder made as long as the front's"
    sides = [garment.piece(f"bodice {half}").stitched_length("side") for half in ("front", "back")]
    assert sides[0] == approx(sides[1], abs=0.01), "closed, front and back side seams are equal"


def test_proportional():
    garment = made({"kind": "proportional", "bust_ease": 60})
    half, suppression = (980 + 60) / 2, (980 + 60) / 2 - 760 / 2
    shared = (suppression - 10) / 3
    assert suppression == 140
    assert darts(garment, "bodice back") == approx([shared], abs=NEAR)
    assert darts(garment, "bodice front") == approx([shared + 10], abs=NEAR)
    assert corner(garment, "bodice front", "armhole") == approx((half / 2, -(980 / 4 + 15)), abs=NEAR)
    assert corner(garment, "bodice front", "neckline", "end") == approx((0, -370 / 5), abs=NEAR)
    assert corner(garment, "bodice front", "shoulder", "end")[0] == approx(370 / 5 - 10, abs=NEAR)
    assert corner(garment, "bodice back", "shoulder")[0] == approx(370 / 5 - 5, abs=NEAR)
    [dart] = garment.piece("bodice back").darts_of("waist")
    assert (abs(dart.apex.x), dart.apex.y) == approx((half / 4 - 5, -260), abs=NEAR)
    [shoulder] = garment.piece("bodice back").darts_of("shoulder")
    assert shoulder.intake == approx(15, abs=NEAR)
    waists = [garment.piece(f"bodice {which}").stitched_length("waist") for which in ("front", "back")]
    assert 2 * sum(waists) == approx(760, abs=0.5)


def test_body_length():
    garment = made({"kind": "body_length", "quarter_ease": 5, "dart": 22})
    assert long(garment, "bodice front", "waist") == approx(760 / 4 + 5 + 22, abs=NEAR)
    assert corner(garment, "bodice front", "armhole")[0] == approx(980 / 4 + 5, abs=NEAR)
    assert corner(garment, "bodice front", "waist")[1] == approx(-450, abs=NEAR)


def test_bib_and_band():
    garment = made({"kind": "bib", "height": 210, "top": 190, "bottom": 250, "band": 45, "waist_ease": 24})
    quarter = (760 + 24) / 4
    assert long(garment, "bodice front", "waist") == approx(quarter)
    assert long(garment, "bodice front", "side") == approx(45)
    assert long(garment, "bodice front", "top") == approx(quarter - 125)
    assert (long(garment, "bib", "foot"), long(garment, "bib", "bib top")) == approx((125, 95))
    assert long(garment, "bib", "centre front") == approx(210)


def test_measured_edges():
    garment = made()
    assert (long(garment, "bodice front", "waist"), long(garment, "bodice back", "waist")) == approx((216, 199))
    assert (darts(garment, "bodice front"), darts(garment, "bodice back")) == ([approx(25)], [approx(20)])
    assert long(garment, "bodice front", "side") == approx(205)


# the lower parts: the waist shared as the bodice's, 19.1 in front and 17.9 behind


def test_circle():
    garment = made(lower={"kind": "circle", "sweep": 270, "length": 620})
    radius = 740 / radians(270)
    for name, half in (("skirt front", FRONT), ("skirt back", BACK)):
        assert long(garment, name, "waist") == approx(half, abs=NEAR)
        assert long(garment, name, "hem") == approx(half * (radius + 620) / radius, abs=NEAR)
        assert long(garment, name, "side") == approx(620, abs=NEAR)


def test_high_low():
    garment = made(lower={"kind": "high_low", "sweep": 360, "front": 500, "back": 850})
    share = FRONT / (FRONT + BACK)
    side = 500 + 350 * (1 - cos(pi * share)) / 2
    assert long(garment, "skirt front", "centre front") == approx(500, abs=NEAR)
    assert long(garment, "skirt back", "centre back") == approx(850, abs=NEAR)
    assert [long(garment, f"skirt {half}", "side") for half in ("front", "back")] == approx([side] * 2, abs=NEAR)


def test_handkerchief():
    garment = made(lower={"kind": "handkerchief", "length": 500})
    radius = 740 / (2 * pi)
    assert long(garment, "skirt front", "centre front") == approx(500, abs=NEAR)
    assert long(garment, "skirt front", "hem") == approx(2 * (radius + 500), abs=NEAR)


def test_circle_in_gores():
    garment = made(lower={"kind": "gored_circle", "sweep": 300, "count": 10, "length": 700})
    turn = radians(300) / 10
    assert long(garment, "gore", "waist") == approx(74, abs=NEAR)
    assert long(garment, "gore", "hem") == approx(74 + turn * 700, abs=NEAR)
    assert garment.piece("gore").cut == 10


def test_double_circle():
    garment = made(lower={"kind": "double_circle", "length": 300})
    for name, half in (("skirt front", FRONT), ("skirt back", BACK)):
        assert long(garment, name, "waist") == approx(half, abs=NEAR)
        assert long(garment, name, "hem") == approx(half + pi * 300, abs=NEAR), "half of a full circle of its own"


def test_straight():
    lower = {"kind": "straight", "length": 620, "hip_ease": 40, "hip_shift": 10, "side_in": 20, "taper": 25}
    garment = made(lower=lower, figure={"hip_girth": 880})
    front, back = (880 + 40) / 4 - 10, (880 + 40) / 4 + 10
    assert darts(garment, "skirt front") == approx([front - 20 - FRONT], abs=NEAR)
    assert darts(garment, "skirt back") == approx([(back - 20 - BACK) / 2] * 2, abs=NEAR), (
        "41 mm is more than one takes"
    )
    assert (long(garment, "skirt front", "hem"), long(garment, "skirt back", "hem")) == approx((front - 25, back - 25))


def test_a_line():
    lower = {"kind": "a_line", "length": 620, "flare": 90, "hip_ease": 40, "hip_shift": 10}
    garment = made(lower=lower, figure={"hip_girth": 880})
    below = 620 - 205
    raised = hypot(below, 90) - below
    front = garment.piece("skirt front")
    assert front.edge("centre front").drawn_length == approx(620, abs=NEAR)
    foot = front.edge("side").path.start
    assert foot.y > -620 + raised * 0.8, "the hem rises to the seam"
    sides = [long(garment, f"skirt {half}", "side") for half in ("front", "back")]
    assert sides[0] == approx(sides[1], abs=1.0)


def test_gores():
    garment = made(lower={"kind": "gores", "count": 8, "length": 700, "hem_sweep": 2600, "hip_ease": 40})
    assert long(garment, "gore front", "waist") == approx(FRONT / 2, abs=NEAR)
    assert long(garment, "gore back", "waist") == approx(BACK / 2, abs=NEAR)
    for name in ("gore front", "gore back"):
        assert long(garment, name, "hem") == approx(2600 / 8, abs=NEAR)
        assert garment.piece(name).cut == 4


def test_gathered():
    garment = made(lower={"kind": "gathered", "fullness": 2.5, "length": 610})
    assert (long(garment, "skirt front", "waist"), long(garment, "skirt back", "waist")) == approx(
        (2.5 * FRONT, 2.5 * BACK)
    )
    assert long(garment, "skirt front", "side") == approx(610)


def test_pleated():
    garment = made(lower={"kind": "pleated", "pleats": 16, "fullness": 2.5})
    front, back = (garment.piece(f"skirt {half}").darts_of("waist") for half in ("front", "back"))
    assert (len(front), len(back)) == (4, 4), "16 shared as 19.1 to 17.9"
    assert [dart.intake for dart in front] == approx([FRONT * 1.5 / 4] * 4)
    assert [dart.intake for dart in back] == approx([BACK * 1.5 / 4] * 4)
    assert all(dart.pleat for dart in (*front, *back))


def test_tiered():
    garment = made(lower={"kind": "tiered", "tiers": 3, "fullness": 1.6, "growth": 1.2, "length": 728})
    first = 728 / (1 + 1.2 + 1.44)
    for k in range(3):
        assert long(garment, f"tier {k + 1} front", "waist") == approx(FRONT * 1.6 ** (k + 1))
        assert long(garment, f"tier {k + 1} back", "waist") == approx(BACK * 1.6 ** (k + 1))
        assert long(garment, f"tier {k + 1} front", "side") == approx(first * 1.2**k)


def test_peplum():
    garment = made(lower={"kind": "peplum", "sweep": 300, "length": 180, "pieces": 4})
    radius = 740 / radians(300)
    assert long(garment, "peplum front", "hem") == approx(FRONT * (radius + 180) / radius, abs=NEAR)
    assert long(garment, "peplum back", "hem") == approx(BACK * (radius + 180) / radius, abs=NEAR)


def test_trousers():
    lower = {"kind": "trousers", "school": "hip", "hip_ease": 100, "hem_round": 460, "length": 1000}
    garment = made(lower=lower, figure={"crotch_depth": 290, "waist_to_knee": 590})
    quarter, fork = (1040 + 100) / 4, 1040 / 18
    front, back = garment.piece("trouser front"), garment.piece("trouser back")
    assert tuple(front.edge("inside leg").path.start) == approx((-fork, -(290 + inches(0.5))), abs=NEAR)
    assert abs(back.edge("inside leg").path.end.x) == approx(fork + inches(2), abs=NEAR)
    assert long(garment, "trouser front", "hem") == approx((460 - inches(1.5)) / 2, abs=NEAR)
    assert long(garment, "trouser back", "hem") == approx((460 + inches(1.5)) / 2, abs=NEAR)
    assert front.seam_line.box[2] == approx(quarter, abs=0.5)


def test_gown():
    lower = {"kind": "gown", "length": 900, "hip_ease": 48, "hip_shift": 12, "hem_in": 20}
    garment = made({"kind": "quarters"}, lower=lower)
    quarter = (1040 + 48) / 4
    assert long(garment, "gown front", "hem") == approx(quarter - 12 - 20, abs=0.1)
    assert long(garment, "gown back", "hem") == approx(quarter + 12 - 20, abs=1.0), "its side is trued to the front's"
    assert long(garment, "gown front", "centre front") == approx(450 - inches(3) + 900, abs=NEAR)


# the trims


def skirt(**rest):
    """A straight skirt whose hem is half 25.0 in front and 27.0 behind, 70 cm long."""
    lower = {"kind": "straight", "length": 700, "hip_ease": 0, "hip_shift": 10}
    return made(lower=lower, **rest)


def test_hem_ruffle():
    garment = skirt(trims=[{"kind": "hem_ruffle", "fullness": 2.5, "height": 130}])
    assert long(garment, "hem ruffle", "top") == approx(2.5 * (250 + 270), abs=NEAR)
    assert long(garment, "hem ruffle", "end") == approx(130)


def test_ring_flounce():
    garment = skirt(trims=[{"kind": "ring_flounce", "rings": 3, "width": 160, "join": 12}])
    radius = (2 * 520 / 3 + 24) / (2 * pi)
    ring = garment.piece("flounce ring")
    assert 3 * ring.edge("top").drawn_length == approx(2 * 520, abs=0.05)
    assert ring.edge("hem").path.start.distance(type(ring.edge("hem").path.start)(0, 0)) == approx(
        radius + 160, abs=NEAR
    )


def test_spiral_flounce():
    garment = skirt(trims=[{"kind": "spiral_flounce", "width": 140}])
    assert long(garment, "spiral flounce", "top") == approx(2 * 520, rel=1e-3)


def test_side_ruffle():
    garment = skirt(trims=[{"kind": "side_ruffle", "short": 80, "fullness": 2.2, "height": 90}])
    side = long(garment, "skirt front", "side")
    assert long(garment, "side ruffle", "top") == approx(2.2 * (side - 80), abs=NEAR)


def test_godets():
    garment = skirt(trims=[{"kind": "godets", "count": 2, "height": 300, "angle": 75}])
    assert long(garment, "godet", "hem") == approx(radians(75) * 300, abs=NEAR)
    assert (long(garment, "godet", "left"), long(garment, "godet", "right")) == approx((300, 300))
    assert garment.piece("godet").cut == 2


def test_slit_and_vent():
    garment = skirt(trims=[{"kind": "slit", "height": 220}, {"kind": "vent", "height": 230, "width": 44}])
    front = garment.piece("skirt front")
    [slit] = [n for n in front.notches if n.landmark == "slit ends"]
    at = slit.at if front.begins_at_hem("side") else front.edge("side").drawn_length - slit.at
    assert at == approx(220)
    assert long(garment, "skirt back", "centre back") == approx(700 - 230)
    assert long(garment, "skirt back", "vent hem") == approx(44)


def test_sleeve():
    garment = made({"kind": "two_lengths"}, trims=[{"kind": "sleeve", "cap_ease": 30, "ease": 60, "length": 560}],
                   figure={"upper_arm_girth": 300})  # fmt: skip
    holes = [garment.piece(f"bodice {half}").edge("armhole").drawn_length for half in ("front", "back")]
    assert long(garment, "sleeve", "cap front") == approx(holes[0] + 15, abs=0.05)
    assert long(garment, "sleeve", "cap back") == approx(holes[1] + 15, abs=0.05)
    left, _, right, _ = garment.piece("sleeve").seam_line.box
    assert right - left == approx(360, abs=0.05)


def test_stand_collar_neck_band_belt_and_casing():
    garment = made(
        {"kind": "quarters"},
        trims=[
            {"kind": "stand_collar", "height": 45}, {"kind": "neck_band", "width": 32, "more": 30, "ties": 200},
            {"kind": "belt", "width": 42, "more": 260}, {"kind": "elastic", "width": 18, "share": 0.86},
        ],
    )  # fmt: skip
    necks = [garment.piece(f"bodice {half}").edge("neckline").drawn_length for half in ("front", "back")]
    assert long(garment, "stand collar", "neck edge") == approx(sum(necks), abs=0.01)
    assert long(garment, "stand collar", "centre back") == approx(45)
    assert long(garment, "neck band", "edge") == approx(370 + 30 + 400)
    assert long(garment, "neck band", "end") == approx(64)
    assert (long(garment, "belt band", "edge"), long(garment, "belt band", "end")) == approx((760 + 260, 84))
    elastic = next(w.value for w in garment.workings if w.label == "elastic")
    assert elastic == approx(0.86 * 760)
    assert long(garment, "elastic casing", "edge") == approx(760 + inches(1), abs=0.05), "the bodice's waist"


# allowances: each edge its own, none dropped


@pytest.mark.parametrize(
    ("piece", "edge", "allowance"),
    [
        ("bodice front", "waist", 11), ("bodice front", "side", 12), ("bodice front", "armhole", 13),
        ("bodice front", "shoulder", 14), ("bodice front", "neckline", 7), ("bodice front", "centre front", 0),
        ("bodice back", "centre back", 16), ("skirt front", "waist", 11), ("skirt front", "side", 12),
        ("skirt back", "centre back", 16), ("skirt front", "hem", 33), ("skirt back", "hem", 33),
        ("sleeve", "cap front", 13), ("sleeve", "underarm back", 12), ("sleeve", "hem", 21), ("godet", "left", 15),
        ("godet", "right", 15), ("hem ruffle", "top", 15), ("hem ruffle", "end", 15), ("hem ruffle", "hem", 9),
        ("stand collar", "neck edge", 7), ("stand collar", "centre back", 16), ("waistband front", "waist", 11),
        ("waistband back", "lower", 11), ("waistband front", "side", 12),
    ],
)  # fmt: skip
def test_every_edge_has_the_allowance_of_its_kind(piece, edge, allowance):
    allowances = {"waist": 11, "side": 12, "armhole": 13, "shoulder": 14, "neck": 7, "panel": 15, "zip": 16}
    whole = made(
        {"kind": "quarters"}, {"kind": "straight", "hem": 33}, allowances=allowances, band={"kind": "waistband"},
        trims=[{"kind": "sleeve", "hem": 21}, {"kind": "stand_collar"}, {"kind": "godets", "height": 250}],
    )  # fmt: skip
    ruffled = made({"kind": "quarters"}, {"kind": "straight"}, allowances=allowances,
                   trims=[{"kind": "hem_ruffle", "hem": 9}])  # fmt: skip
    garment = ruffled if piece == "hem ruffle" else whole
    assert garment.piece(piece).edge(edge).allowance == allowance


@pytest.mark.parametrize(
    "lower",
    [
        {"kind": "circle", "sweep": 270},
        {"kind": "high_low", "front": 500, "back": 700},
        {"kind": "handkerchief"},
        {"kind": "gathered"},
        {"kind": "gores", "count": 6},
    ],
)
def test_every_hem_has_the_hem_asked_for(lower):
    garment = made(lower=lower | {"hem": 33})
    lower_parts = [p for p in garment.pieces if "bodice" not in p.name]
    hems = [edge.allowance for piece in lower_parts for edge in piece.edges if edge.name == "hem"]
    assert set(hems) == {33}


@pytest.mark.parametrize("kind", ["straight", "a_line", "circle", "trousers"])
@pytest.mark.parametrize("place", ["centre_back", "side"])
def test_the_zip_ends_as_far_below_the_waist_as_was_asked(kind, place):
    garment = made(lower={"kind": kind}, opening={"place": place, "below_waist": 175})
    ends = [(p, n) for p in garment.pieces for n in p.notches if n.landmark == "zip end" and "bodice" not in p.name]
    assert ends
    for piece, notch in ends:
        edge, waist = piece.edge(notch.edge), piece.edge("waist").path
        ends_at_waist = edge.path.end.distance(waist.start) < 0.1
        assert (edge.drawn_length - notch.at if ends_at_waist else notch.at) == approx(175, abs=NEAR), piece.name


def test_a_pivoted_dart_stops_an_inch_short_of_the_bust_point():
    """2.5 cm, common practice."""
    front = made({"kind": "quarters"}).piece("bodice front")
    [dart], point = front.darts_of("waist"), front.bust_point
    moved = pivot(front, dart, "shoulder", front.edge("shoulder").drawn_length / 2, point, "moved")
    [made_of_it] = moved.darts_of("shoulder")
    assert made_of_it.apex.distance(point) == approx(25, abs=NEAR)


def test_two_darts_of_a_circle_lie_under_the_two_of_the_bodice():
    """Counted along the stitched waist from the centre front, each after the mouths before it are closed."""
    style = {"bust_dart": "waist"}
    garment = made({"kind": "two_lengths"}, {"kind": "circle", "sweep": 180, "front_dart": 15}, style=style)
    first, second = sorted(garment.piece("bodice front").darts_of("waist"), key=lambda one: one.at)
    bodice = [first.at, second.at - first.intake]
    skirt, whole = garment.piece("skirt front").darts_of("waist"), long(garment, "skirt front", "waist")
    near, far = sorted((whole - one.at - one.intake for one in skirt), key=float)
    assert [near, far - 15] == approx(bodice, abs=NEAR)


@pytest.mark.parametrize("edge", ["shoulder", "armhole"])
def test_a_princess_seam_begins_in_the_middle_of_its_edge(edge):
    panels = {"front_princess": edge, "back_princess": edge}
    block, cut = made({"kind": "quarters"}), made({"kind": "quarters"}, panels=panels)
    for half in ("front", "back"):
        whole = long(block, f"bodice {half}", edge)
        parts = [p.edge(e.name).drawn_length for p in cut.pieces if half in p.name and "bodice" in p.name
                 for e in p.edges if e.name == edge]  # fmt: skip
        assert parts == approx([whole / 2, whole / 2], abs=0.1), half
