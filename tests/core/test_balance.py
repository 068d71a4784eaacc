"""Balance notches: where a hand puts them, the same on both mates (trade 11)."""

import json

import pytest
from pytest import approx

from conftest import FIGURE
from gentle_hem.core.join import closed, opened
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import NotchKind
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.what import Section
from gentle_hem.formats.files import FILE_WRITERS, Order

LEVELS = {"waist_to_hip": 210, "waist_to_knee": 580}


def dress(lower, **rest):
    return Recipe.model_validate(
        {"figure": {"measures": FIGURE | LEVELS}, "bodice": {"kind": "two_lengths"}, "lower": lower} | rest
    )


def from_start(piece, stretch, notches):
    """How far from a seam's start the notches of one of its edges lie, darts closed."""
    edge = next(e for e in piece["edges"] if e["name"] == stretch["edge"])
    darts = [d for d in piece["darts"] if d["edge"] == edge["name"]]
    found = []
    for notch in notches:
        at = notch["at"] - sum(min(max(notch["at"] - d["at"], 0), d["intake"]) for d in darts)
        found.append(edge["length"] - at if stretch["backwards"] else at)
    return sorted(found)


@pytest.mark.parametrize("kind", ["straight", "a_line", "gores", "gown", "circle", "trousers", "pleated"])
@pytest.mark.parametrize("panels", [{}, {"front_princess": "shoulder", "back_princess": "armhole"}])
def test_both_mates_have_the_same_notches_at_the_same_distance(kind, panels):
    """Read from garment.json: within 1 mm, and what is eased in between."""
    recipe = dress({"kind": kind}, panels=panels)
    said = json.loads(FILE_WRITERS["garment.json"](Order(recipe, make_up(recipe))))
    pieces = {piece["name"]: piece for piece in said["pieces"]}
    looked = 0
    for seam in said["seams"]:
        if len(seam["a"]) != 1 or len(seam["b"]) != 1 or seam["manner"] != "flat" or seam["a"] == seam["b"]:
            continue
        one, other = seam["a"][0], seam["b"][0]
        roles = {e["name"]: e["role"] for e in pieces[one["piece"]]["edges"]}
        if roles.get(one["edge"]) not in ("side", "princess", "panel") or pieces[one["piece"]]["material"] != "cloth":
            continue
        marks = [
            [n for n in pieces[s["piece"]]["notches"] if n["edge"] == s["edge"] and n["kind"] == "balance"]
            for s in (one, other)
        ]
        a, b = (from_start(pieces[s["piece"]], s, n) for s, n in zip((one, other), marks, strict=True))
        assert a == approx(b, abs=1 + abs(seam["ease"])), seam["name"]
        if seam["length_a"] > 250:
            assert a, f"the {seam['name']} has none"
        looked += len(a)
        for s, there in zip((one, other), marks, strict=True):
            assert all(
                n["double"] == ("back" in s["piece"]) for n in there if "front" in s["piece"] or "back" in s["piece"]
            )
    assert looked >= 2


def test_a_gown_is_marked_at_waist_hip_and_knee_and_where_its_zip_ends():
    gown = make_up(dress({"kind": "gown", "length": 1000})).piece("gown front")
    side = gown.edge("side").path
    waist = -FIGURE["front_waist_length"]
    levels = [side.point_at(n.at).y - waist for n in gown.notches if n.edge == "side" and n.kind is NotchKind.BALANCE]
    assert sorted(levels, reverse=True) == approx([0, -105, -210, -580], abs=0.5)
    back = make_up(dress({"kind": "gown", "length": 1000})).piece("gown back")
    [end] = [n for n in back.notches if n.kind is NotchKind.ZIP_END]
    level = back.edge("centre back").path.point_at(end.at).y
    assert level == approx(-FIGURE["back_waist_length"] - 190, abs=0.5)


def test_a_skirt_is_marked_at_the_hip():
    skirt = make_up(dress({"kind": "straight", "length": 650})).piece("skirt front")
    side = skirt.edge("side")
    assert skirt.begins_at_hem("side")
    assert any(side.drawn_length - n.at == approx(210, abs=0.5) for n in skirt.notches if n.edge == "side")


def test_opened_undoes_closed():
    skirt = make_up(dress({"kind": "straight"})).piece("skirt front")
    darts = skirt.darts_of("waist")
    for at in (10.0, darts[0].at - 1, darts[0].at + darts[0].intake + 1, skirt.edge("waist").drawn_length - 5):
        assert opened(closed(at, darts), darts) == approx(at)


@pytest.mark.parametrize("place", ["centre_back", "side"])
@pytest.mark.parametrize("below", [150, 190, 230, 300])
def test_gores_cut_alike_have_the_notches_of_all_their_mates_wherever_the_zip_ends(place, below):
    """A gore is sewn to its twin and to the next; a zip that ends near the hip keeps no notch from its place there."""
    lower = {"kind": "gores", "count": 8, "flare_from": "trumpet", "trumpet": 580, "length": 920, "hem_sweep": 2800}
    garment = make_up(dress(lower, opening={"place": place, "below_waist": below}))
    assert "notches-do-not-meet" not in {found.code for found in garment.findings}
    for piece in garment.pieces:
        if piece.what.section is Section.SKIRT:
            sides = [
                {round(n.at if edge == "side near" else piece.edge(edge).drawn_length - n.at)
                 for n in piece.notches if n.edge == edge and n.kind is NotchKind.BALANCE}
                for edge in ("side", "side near")
            ]  # fmt: skip
            assert sides[0] == sides[1], piece.name
