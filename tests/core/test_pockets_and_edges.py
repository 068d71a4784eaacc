"""Pockets, bound edges and rings along the sides: their numbers worked out here, their places walked."""

from math import hypot, pi, sqrt

import pytest
from pytest import approx

from conftest import FIGURE
from dresses import SIDE_ZIP, lengths, made, recipe, refusal, seam, worked
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Finished, NotchKind, Role
from readers import polygon

# pockets


@pytest.mark.parametrize(
    ("shape", "round_it"),
    [
        ("square", 2 * 150 + 130),
        # a point 1.5 cm for every 4 cm of half its width: two slanted sides of 65 across and 24.375 up
        ("pointed", 2 * (150 - 24.375) + 2 * sqrt(65**2 + 24.375**2)),
        # two quarter circles of 3 cm instead of two corners
        ("rounded", 2 * (150 - 30) + (130 - 60) + pi * 30),
    ],
)
def test_a_pocket_is_sewn_to_a_line_as_long_as_its_own_edge(shape, round_it):
    pocket = {"kind": "pocket", "shape": shape, "width": 130, "height": 150, "down": 155, "beside": 60}
    garment = made(trims=[pocket])
    a, b = lengths(garment, "pocket seam")
    assert (a, b) == (approx(round_it, abs=0.05), approx(round_it, abs=0.05))
    [line] = [m for m in garment.piece("skirt front").marks if m.name == "pocket 1"]
    left, bottom, right, top = line.path.box
    waist = max(garment.piece("skirt front").edge("waist").path.box[3], 0)
    assert (left, right) == (approx(60), approx(190))
    assert (waist - top, waist - bottom) == (approx(155), approx(305))
    assert garment.piece("pocket").cut == 2


def test_a_back_pocket_measured_from_the_side():
    pocket = {"kind": "pocket", "on": "back", "down": 170, "beside": 45, "measured": "side", "width": 120}
    garment = made(trims=[pocket])
    back = garment.piece("skirt back")
    [line] = [m for m in back.marks if m.name == "pocket 1"]
    level = line.path.box[3]
    side = back.edge("side").path
    there = min(side.flatten(0.5), key=lambda place: abs(place.y - level))
    # the back lies with its centre on the right: its side is on the left
    assert line.path.box[0] - there.x == approx(45, abs=0.5)
    assert polygon(back.seam_line).contains(polygon(line.path))


def test_a_flap_is_wider_than_its_pocket_and_sewn_above_it():
    """Wider by 6 mm, 15 mm above: common practice."""
    garment = made(trims=[{"kind": "pocket", "width": 130, "flap": 55, "down": 160}])
    pocket, flap = garment.piece("pocket"), garment.piece("pocket flap")
    assert flap.edge("top").drawn_length == approx(136)
    assert flap.cut == 4
    assert lengths(garment, "pocket flap seam") == (approx(136), approx(136))
    front = garment.piece("skirt front")
    line, place = (next(m.path.box for m in front.marks if m.name == name) for name in ("flap 1", "pocket 1"))
    assert line[1] - place[3] == approx(15)
    assert (place[0] - line[0], line[2] - place[2]) == (approx(3), approx(3))
    assert pocket.edge("top").turned


def test_two_pockets_on_one_piece_are_told_apart():
    low, high = {"kind": "pocket", "down": 320}, {"kind": "pocket", "part": "bodice", "width": 80, "height": 90,
                                                  "down": 180, "beside": 20}  # fmt: skip
    garment = made(trims=[{"kind": "pocket", "down": 140, "height": 120}, low, high])
    names = [p.name for p in garment.pieces if "pocket" in p.name]
    assert names == ["pocket", "pocket 2", "pocket 3"]
    assert {m.name for m in garment.piece("skirt front").marks} >= {"pocket 1", "pocket 2"}


@pytest.mark.parametrize(
    ("pocket", "why"),
    [({"down": 40}, "a dart"), ({"beside": 300}, "beyond the edge"), ({"down": 1100}, "beyond the edge"),
     ({"width": 399}, "beyond the edge")],
)  # fmt: skip
def test_a_pocket_that_lies_over_a_dart_or_an_edge_is_refused(pocket, why):
    trims = [{"kind": "pocket", **pocket}]
    assert why in refusal("trim-left-out", trims=trims).values["why"]
    assert not any(p.name == "pocket" for p in make_up(recipe(trims=trims)).pieces)


def test_a_pocket_in_the_side_seam_opens_front_and_back_alike():
    garment = made(trims=[{"kind": "seam_pocket", "opening": 165, "down": 70, "deep": 140}])
    for half in ("front", "back"):
        assert lengths(garment, f"pocket bag {half}") == (approx(165), approx(165))
        piece = garment.piece(f"skirt {half}")
        ends = sorted(n.at for n in piece.notches if n.kind is NotchKind.OPEN)
        edge = piece.edge("side")
        from_top = ends if edge.path.start.y > edge.path.end.y else [edge.drawn_length - at for at in reversed(ends)]
        assert from_top == [approx(70), approx(235)]
    assert garment.piece("pocket bag").cut == 4
    assert seam(garment, "skirt side seam").verdict.fits


def test_in_a_gowns_side_seam_a_pocket_opens_below_the_waist():
    garment = made(
        lower={"kind": "gown"}, trims=[{"kind": "seam_pocket", "down": 50}, {"kind": "slit", "height": 400}]
    )  # fmt: skip
    for half in ("front", "back"):
        piece = garment.piece(f"gown {half}")
        path = piece.edge("side").path
        top = max(path.point_at(n.at).y for n in piece.notches if n.kind is NotchKind.OPEN)
        shoulder = max(e.path.box[3] for e in piece.edges if e.role is Role.SHOULDER)
        assert shoulder - top == approx(FIGURE["front_waist_length"] + 50, abs=12)
    assert lengths(garment, "pocket bag front") == (approx(160), approx(160))


def test_a_pocket_and_a_zip_do_not_share_a_stretch_of_the_side():
    assert "zip" in refusal("trim-left-out", opening=SIDE_ZIP, trims=[{"kind": "seam_pocket"}]).values["why"]


# bound edges


def test_the_neck_is_bound_by_a_strip_as_long_as_it_is():
    garment = made(
        opening={"place": "none"}, style={"front_neck": "round", "front_depth": 200, "wider": 60},
        bodice={"kind": "quarters", "waist_ease": 260}, trims=[{"kind": "bias_binding", "width": 7}],
    )  # fmt: skip
    neck = sum(garment.piece(f"bodice {half}").edge("neckline").path.length for half in ("front", "back"))
    strip = garment.piece("bias binding")
    # no strip is drawn longer than 60 cm: two are joined
    assert (strip.cut, strip.edge("edge").drawn_length) == (2, approx(neck))
    assert lengths(garment, "bias binding seam") == (approx(neck), approx(neck))
    assert strip.edge("end").drawn_length == approx(28)  # four times as wide
    assert worked(garment, "bias needed") == approx(2 * neck + 20)
    assert worked(garment, "a square of cloth for it") == approx(sqrt((2 * neck + 20) * 28))
    for half in ("front", "back"):
        edge = garment.piece(f"bodice {half}").edge("neckline")
        assert (edge.allowance, edge.finished) == (0, Finished.BOUND)
    assert any(s.name == "bias binding ends" for s in garment.seams)


def test_at_a_zip_the_bindings_ends_are_turned_in():
    garment = made(trims=[{"kind": "bias_binding"}])
    assert not any(s.name == "bias binding ends" for s in garment.seams)
    assert "turned in" in garment.piece("bias binding").remark


def test_both_armholes_are_bound_each_by_its_own_strip():
    garment = made(trims=[{"kind": "bias_binding", "edge": "armholes"}])
    hole = sum(garment.piece(f"bodice {half}").edge("armhole").path.length for half in ("front", "back"))
    strip = garment.piece("bias binding")
    assert (strip.edge("edge").drawn_length, strip.cut) == (approx(hole), 2)
    assert worked(garment, "bias needed") == approx(2 * (hole + 20))


@pytest.mark.parametrize(
    ("edge", "parts", "why"),
    [("armholes", {"trims": [{"kind": "sleeve"}]}, "sewn to something"),
     ("neckline", {"style": {"facing": "faced"}}, "sewn to something"),
     ("hem", {"trims": [{"kind": "hem_ruffle"}]}, "")],
)  # fmt: skip
def test_an_edge_that_is_sewn_on_is_not_bound_as_well(edge, parts, why):
    trims = [{"kind": "bias_binding", "edge": edge}, *parts.pop("trims", [])]
    garment = make_up(recipe(trims=trims, **parts))
    refusals = [f.values["why"] for f in garment.findings if f.code == "trim-left-out"]
    if why:
        assert why in refusals[0]
    else:  # a ruffle's own hem is bound
        assert refusals == []
        [ruffle] = [p for p in garment.pieces if "ruffle" in p.name]
        assert ruffle.edge("hem").finished is Finished.BOUND


# rings along the sides


def test_rings_along_the_sides_by_the_trades_rule():
    """Trade 8: the seam less what it stops short, for both sides, shared into rings; r = (base ÷ n + 2j) ÷ 2π; folded
    in eight, the arc on the fold is an eighth of a ring's inner edge.
    """
    rings = {"kind": "side_rings", "rings": 6, "width": 90, "short": 80, "join": 8, "hem": 5}
    garment = made(lower={"kind": "gown"}, trims=[rings, {"kind": "slit", "height": 200, "place": "back"}])
    side = garment.piece("gown front").edge("side").path.length
    base = 2 * (side - 80)
    radius = (base / 6 + 16) / (2 * pi)
    assert worked(garment, "arc on the fold") == approx(base / 6 / 8)
    assert worked(garment, "reach across the fold") == approx(radius + 90 + 5)
    assert lengths(garment, "side ruffle ring seam") == (approx(side - 80), approx(side - 80, abs=0.01))
    ring = garment.piece("side ruffle ring")
    assert (ring.cut, ring.alike) == (6, True)
    piece = next(p for p in garment.pieces if any(n.landmark == "ruffle end" for n in p.notches))
    [end] = [n for n in piece.notches if n.landmark == "ruffle end"]
    top = max((e.path.start, e.path.end) for e in piece.edges if e.role is Role.SIDE)[0]
    assert piece.edge("side").path.point_at(end.at).y < top.y


@pytest.mark.parametrize("trim", ["side_rings", "side_ruffle"])
@pytest.mark.parametrize("lower", ["straight", "gown", "trousers", "gores"])
def test_what_is_let_into_a_side_ends_so_far_below_its_upper_end(trim, lower):
    garment = made(lower={"kind": lower}, trims=[{"kind": trim, "short": 95}])
    [(piece, end)] = [(p, n) for p in garment.pieces for n in p.notches if n.landmark == "ruffle end"]
    side = piece.edge("side").path
    above = end.at if side.start.y > side.end.y else side.length - end.at
    assert above == approx(95, abs=0.1)


def test_rings_at_the_sleeves_take_up_each_hem():
    """Trade 8: each sleeve's hem shared into rings; r = (base ÷ n + 2j) ÷ 2π."""
    rings = {"kind": "sleeve_rings", "rings": 2, "width": 120, "join": 9, "hem": 5}
    garment = made(trims=[rings, {"kind": "sleeve", "length": 280, "wrist": 330}], allowances={"panel": 11})
    radius = (330 / 2 + 18) / (2 * pi)
    ring, sleeve = garment.piece("sleeve ruffle ring"), garment.piece("sleeve")
    assert (ring.cut, ring.alike, sleeve.cut) == (4, True, 2)
    assert lengths(garment, "sleeve ruffle ring seam") == (approx(330, abs=0.05), approx(330, abs=0.01))
    assert ring.edge("top").path.length == approx(165, abs=0.01)
    assert max(hypot(*p) for p in (ring.edge("hem").path.start, ring.edge("hem").path.end)) == approx(
        radius + 120, abs=0.01
    )
    assert (sleeve.edge("hem").allowance, sleeve.edge("hem").turned) == (11, False)


def test_rings_at_the_sleeves_are_refused_where_there_is_no_hem_for_them():
    rings = {"kind": "sleeve_rings"}
    for trims, why in (
        ([rings], "no sleeves"),
        ([rings, {"kind": "sleeve", "elastic": 10}], "elastic"),
        ([rings, rings, {"kind": "sleeve"}], "already"),
    ):
        [said] = [f.values["why"] for f in make_up(recipe(trims=trims)).findings if f.code == "trim-left-out"]
        assert why in said


def test_on_a_gown_a_pocket_is_measured_from_the_waist():
    garment = made(
        lower={"kind": "gown"}, style={"waist_dart": "side"},
        trims=[{"kind": "pocket", "down": 90}, {"kind": "slit", "height": 300}],
    )  # fmt: skip
    front = garment.piece("gown front")
    [line] = [m for m in front.marks if m.name == "pocket 1"]
    shoulder = max(e.path.box[3] for e in front.edges if e.role is Role.SHOULDER)
    assert shoulder - line.path.box[3] == approx(FIGURE["front_waist_length"] + 90, abs=8)
