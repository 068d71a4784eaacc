"""A dress sewn and hung: against outlines, weights and sums worked out by hand; front and back unlike on purpose."""

from itertools import pairwise
from pathlib import Path

import numpy as np
import pytest
from pytest import approx
from scipy.sparse import diags
from scipy.sparse.linalg import spsolve
from shapely import LineString, Polygon

from dresses import recipe
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.hang import rest
from gentle_hem.core.hang.bent import curvatures
from gentle_hem.core.hang.fabric import Fabric
from gentle_hem.core.hang.in_words import BOTH, said
from gentle_hem.core.hang.layers import Layers
from gentle_hem.core.hang.mesh import Mesh
from gentle_hem.core.hang.reading import read, strained
from gentle_hem.core.hang.rest import JAMMED
from gentle_hem.core.hang.sewing import _over_what_is_worn
from gentle_hem.core.hang.sewn import Sheet
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Role
from gentle_hem.core.recipe import changed
from gentle_hem.core.replace import replace
from gentle_hem.core.units import Tape, Unit
from hung import around, example, hung_roughly, sewn
from long import examples
from random_recipes import random_recipe

EXAMPLES = sorted(Path("examples").glob("*.recipe.json"))[:: examples(3, 1)]
"""Every third example usually, all of them under ``./hem test --long``: each takes seconds."""
NOT_ALIKE = {"slanting-neck", "two-cloth-knot"}
CREPE = Fabric.of(Cloth(weight="medium", drape="soft"))


# its pieces


def area_of(piece):
    """The area of a piece (m²), darts taken out: by shapely, of its stitching outline."""
    flat = Polygon([(p.x, p.y) for p in piece.seam_line.flatten(0.5)])
    for dart in piece.darts:
        near, far = piece.dart_legs(dart)
        flat = flat.difference(Polygon([(p.x, p.y) for p in (near, dart.apex, far)]).buffer(0.01))
    return flat.area / 1e6


def test_mates_of_every_seam_are_one_point_and_the_cloth_is_all_there():
    of = example("drafted-two-lengths")
    parts = sewn(of)
    garment = make_up(of)
    assert parts.left_out == ()
    # half of all that is cut
    whole = sum(area_of(piece) for piece in garment.pieces if piece.name in parts.pieces)
    assert parts.net.areas.sum() == approx(whole, rel=0.01)
    front, back = parts.edges["bodice front", "side"], parts.edges["bodice back", "side"]
    assert set(front) == set(back)
    waist = dict(parts.seams)["waist seam"]
    assert set(parts.edges["skirt front", "waist"]) <= set(waist)
    assert set(parts.edges["skirt back", "waist"]) <= set(waist)
    # what is left open is what is not sewn: neck, armhole, hem, and the middle of the body; no leg of a dart
    sides = np.sort(np.concatenate([parts.net.triangles[:, pair] for pair in ((0, 1), (1, 2), (2, 0))]), axis=1)
    long = np.linalg.norm(np.roll(parts.net.flat, -1, axis=1) - parts.net.flat, axis=2).T.ravel()
    _, which, times = np.unique(sides, axis=0, return_inverse=True, return_counts=True)
    open_roles = {Role.NECKLINE, Role.ARMHOLE, Role.HEM, Role.CENTRE_FRONT, Role.CENTRE_BACK}
    wanted = sum(
        e.drawn_length for p in garment.pieces if p.name in parts.pieces for e in p.edges if e.role in open_roles
    )  # fmt: skip
    assert 1000 * long[times[which.ravel()] == 1].sum() == approx(wanted, rel=0.02)
    # a dart is closed: its mouth takes nothing of the waist
    assert len(set(parts.edges["bodice front", "waist"])) < len(parts.edges["bodice front", "waist"])


def test_triangles_are_not_slender():
    parts = sewn(example("drafted-quarters"), 25.0)
    sides = np.linalg.norm(parts.net.flat - np.roll(parts.net.flat, 1, axis=1), axis=2)
    quality = 4 * np.sqrt(3) * parts.net.areas / (sides**2).sum(axis=1)
    assert np.quantile(quality, 0.01) > 0.3
    assert quality.min() > 0.03


def test_a_gathered_row_has_as_many_points_as_what_it_is_gathered_to():
    parts = sewn(example("gathered-yoke"))
    above = {int(p) for piece in ("yoke front", "yoke back") for p in parts.edges[piece, "lower"]}
    assert {int(p) for piece in ("skirt front", "skirt back") for p in parts.edges[piece, "waist"]} <= above


def test_trousers_go_round_her_legs_as_they_were_cut():
    """Waist, side, inside leg and crotch sewn to the length they walk to; each leg's hem a ring round her leg."""
    of = example("jumpsuit")
    dress, garment = hung_roughly(of), make_up(of)
    front, back = (garment.piece(f"trouser {half}") for half in ("front", "back"))
    edges, now = dress.sewn.edges, dress.now
    for one, other in (("side", "side"), ("inside leg", "inside leg")):
        assert set(edges["trouser front", one]) == set(edges["trouser back", other])
    waist = {int(p) for half in ("front", "back") for p in edges[f"bodice {half}", "waist"]}
    assert {int(p) for half in ("front", "back") for p in edges[f"trouser {half}", "waist"]} == waist
    for piece, edge in ((front, "centre front"), (back, "centre back")):
        crotch = edges[piece.name, edge]
        assert now[crotch, 0] == approx(0.0, abs=1e-9)  # sewn to her right leg's, which is its mirror image
        long = np.linalg.norm(np.diff(now[crotch], axis=0), axis=1).sum()
        assert 1000 * long == approx(piece.edge(edge).path.length, rel=0.03)
    hem = dress.sewn.hem
    assert hem[0] == hem[-1] == edges["trouser front", "inside leg"][-1]
    ring = now[hem]
    round_leg = 1000 * np.linalg.norm(np.diff(ring, axis=0), axis=1).sum()
    assert round_leg == approx(sum(p.edge("hem").path.length for p in (front, back)), rel=0.02)
    quarter, middle = ring[len(ring) // 4], ring[len(ring) // 2]
    leg = dress.stand.leg_middle(1000 * ring[:, 2].mean())
    assert quarter[1] > ring[3 * len(ring) // 4][1]  # its front before its back
    assert middle[0] > leg > ring[0][0]
    reading = read(dress, of, garment)
    assert [level.name for level in reading.levels] == ["bust", "waist", "hip", "thigh", "knee"]
    knee = reading.levels[-1]
    assert knee.body == approx(around(dress.stand, knee.height), abs=1.0)
    across = LineString([(-900, knee.height - dress.stand.form.waist), (900, knee.height - dress.stand.form.waist)])
    wide = sum(Polygon(p.seam_line.flatten(0.5)).intersection(across).length for p in (front, back))
    assert knee.cloth == approx(wide, rel=0.03)
    words = " ".join(said(reading, Tape(Unit.CM)))
    assert "The hem of a leg is 44.0 cm round" in words or "The hem of a leg is 43.9 cm round" in words
    assert "a step there takes" not in words
    assert "Each leg has a hem of its own: level it at a fitting." in words
    # a ring wider than her ankle lies in folds: those of its own leg, and no mirror image's
    assert 1 <= reading.folds <= 6
    assert not dress.sewn.is_held
    assert reading.levelling.step is None


def test_a_sleeve_goes_round_her_arm_and_is_sewn_in_all_round():
    of = example("pocketed-shirt-dress")
    dress, garment = hung_roughly(of), make_up(of)
    edges, now, sleeve = dress.sewn.edges, dress.now, garment.piece("sleeve")
    armhole = {int(p) for half in ("front", "back") for p in edges[f"bodice {half}", "armhole"]}
    cap = {int(p) for half in ("front", "back") for p in edges["sleeve", f"cap {half}"]}
    assert cap == armhole
    assert set(edges["sleeve", "underarm front"]) == set(edges["sleeve", "underarm back"])
    # its front cap in front, its back cap behind
    assert now[edges["sleeve", "cap front"], 1].mean() > now[edges["sleeve", "cap back"], 1].mean() + 0.03
    # the hem is a ring round the arm, as long as it was cut, and outside of it
    hem = now[edges["sleeve", "hem"]]
    assert edges["sleeve", "hem"][0] == edges["sleeve", "hem"][-1]
    assert 1000 * np.linalg.norm(np.diff(hem, axis=0), axis=1).sum() == approx(sleeve.edge("hem").path.length, rel=0.02)
    arm = dress.stand.left_arm
    along = (1000 * hem - arm.start) @ arm.down / (arm.down @ arm.down)
    off = 1000 * hem - arm.start - along[:, None] * arm.down
    assert np.linalg.norm(off, axis=1).min() > arm.radius(along / arm.long).min()
    assert abs(off.mean(axis=0)).max() < 15
    # as far down the arm as it was cut: from the tip of the shoulder to the hem
    low, high = sleeve.seam_line.box[1::2]
    assert along.max() == approx(high - low, rel=0.1)
    assert set(np.flatnonzero(dress.sewn.on_arm)) >= cap
    level = read(dress, of, garment).levels[-1]
    assert level.name == "upper arm"
    assert level.body == approx(arm.girths[0])
    assert 0 < level.room < sleeve.seam_line.box[2] - sleeve.seam_line.box[0] - level.body
    assert "sleeve" not in dress.sewn.left_out


def test_godets_are_let_into_the_seams_they_were_cut_for():
    """Between every two panels of half a gown; the panels are sewn to each other only above their points."""
    of = example("mermaid-gown")
    trims = of.model_dump(mode="json")["trims"]
    of = changed(of, {"trims": [trim for trim in trims if trim["kind"] != "hem_ruffle"]})
    dress, garment = hung_roughly(of), make_up(of)
    parts, now = dress.sewn, dress.now
    godets = [sheet for sheet in parts.sheets if sheet.name == "godet"]
    assert len(godets) == 3
    panels = ["gown centre front", "gown side front", "gown side back", "gown centre back"]
    seams = {name: set(points.tolist()) for name, points in parts.seams}
    for k, (one, other) in enumerate(pairwise(panels)):
        points = set(godets[k].points.tolist())
        let_in = [
            seams[name] for name in seams
            if name.startswith("godet to the") and seams[name] <= points
        ]  # fmt: skip
        assert len(let_in) == 2
        [top] = let_in[0] & let_in[1]  # its point, where the seam above it ends
        sides = [
            {int(p) for edge in parts.edges if edge[0] == panel for p in parts.edges[edge]} for panel in (one, other)
        ]
        assert sides[0] & sides[1] & points == {top}
        assert {len(sides[0] & points), len(sides[1] & points)} == {len(let_in[0])}
        along = [int(p) for p in parts.hem if int(p) in points]
        assert along[0] in sides[0]
        assert along[-1] in sides[1]
    # the hem goes over all of them, in their order, and is as long as they were cut
    ring = now[parts.hem]
    long = 1000 * np.linalg.norm(np.diff(ring, axis=0), axis=1).sum()
    hems = [garment.piece(name).edge("hem").path.length for name in panels]
    assert long == approx(sum(hems) + 3 * garment.piece("godet").edge("hem").path.length, rel=0.02)
    assert (np.linalg.norm(np.diff(ring, axis=0), axis=1) < 0.08).all()
    assert "godet" not in parts.left_out
    assert not Layers(parts.net).tangled(now).any()
    assert np.quantile(strained(dress), 0.95) < 0.02
    # and with its ruffle round them all
    whole = hung_roughly(example("mermaid-gown"))
    assert whole.sewn.left_out == ()
    assert np.quantile(strained(whole), 0.95) < 0.02


@pytest.mark.parametrize("name", ["jumpsuit", "pleated-inches"])
def test_a_stand_collar_stands_up_round_her_neck(name):
    of = example(name)
    dress, garment = hung_roughly(of), make_up(of)
    edges, now, collar = dress.sewn.edges, dress.now, garment.piece("stand collar")
    sheet = next(one for one in dress.sewn.sheets if one.name == "stand collar")
    neck = set(edges["stand collar", "neck edge"].tolist())
    on_dress = {
        int(p) for (piece, edge), points in edges.items()
        if edge == "neckline" and piece != "stand collar" for p in points
    }  # fmt: skip
    assert neck == on_dress
    top = now[edges["stand collar", "top"]]
    high = collar.seam_line.box[3] - collar.seam_line.box[1]
    for end in (0, -1):  # at the centre front and the centre back
        foot = now[edges["stand collar", "neck edge"]]
        near = np.linalg.norm(foot - top[end], axis=1).min()
        assert 1000 * near == approx(high, rel=0.1)
    assert top[:, 2].min() > now[sorted(neck), 2].min()
    assert dress.stand.far(now[sheet.points]).min() > 0
    assert np.quantile(strained(dress)[dress.sewn.sheet_of == dress.sewn.sheets.index(sheet)], 0.95) < 0.03
    reading = read(dress, of, garment)
    assert reading.gapes == ()  # what stands up from it lies round her neck
    assert "stand collar" not in reading.left_out


def test_a_buttoned_front_is_closed_along_its_centre():
    of = example("jumpsuit")
    parts = sewn(of)
    front = next(sheet for sheet in parts.sheets if sheet.name == "bodice front")
    on_centre = front.points[np.abs(front.laid[:, 0]) < 1e-6]
    assert len(on_centre) > 4
    assert (parts.held[on_centre, 0] == 1).all()


def of_both(of):
    """A dress whose sides are not alike, both hung."""
    return replace(hung_roughly(of), right=hung_roughly(of, "right"))


@pytest.mark.parametrize("name", sorted(NOT_ALIKE))
def test_of_a_dress_that_is_not_alike_on_both_sides_each_is_hung_and_it_is_said(name):
    of = example(name)
    dress, garment = of_both(of), make_up(of)
    for name, side in (("left", dress), ("right", dress.right)):
        assert side.sewn.side == name
        front = next(sheet for sheet in side.sewn.sheets if sheet.name == "bodice front")
        middle = front.points[front.laid[:, 0] < 1e-6]
        assert len(middle) > 4
        assert side.sewn.held[middle, 0].all()
        below = next(sheet for sheet in side.sewn.sheets if sheet.name == "skirt front")
        assert side.sewn.held[below.points[np.abs(below.laid[:, 0]) < 1e-6], 0].sum() > 8
        assert side.now[front.points, 0].min() > -0.002
        assert not Layers(side.sewn.net).tangled(side.now).any()
        assert (side.off(side.now) < 0).mean() < 0.001
    skirt = next(sheet for sheet in dress.sewn.sheets if sheet.name == "skirt front")
    edge = garment.piece("skirt front").edge("waist").path
    side = np.sign([edge.point_at(edge.length * 0.9).x, np.median(skirt.laid[:, 0])])
    assert side[0] == side[1]
    reading = read(dress, of, garment)
    assert reading.right.ribbon.now != reading.ribbon.now
    assert (reading.levelling.step, reading.right.levelling.step) == (None, None)
    words = said(reading, Tape(Unit.CM))
    assert words[0] == BOTH
    assert len(words) == len(set(words))
    assert words.count("Her left and her right are not alike: level its hem at a fitting.") == 1
    for of_side in ("left", "right"):
        assert any(sentence.startswith(f"Her {of_side}: at the waist it ") for sentence in words)
    assert sewn(recipe()).side is None


def test_what_each_side_is_sewn_of_is_what_is_cut_for_it():
    """One neck slants, one hip is let out: a piece that is cut whole is as large as both sides' halves of it, and its
    two neck edges are as long as they are there.
    """
    of = example("slanting-neck")
    garment = make_up(of)
    sides = {"": sewn(of), " other": sewn(of, side="right")}

    def area(parts, name):
        [number] = [k for k, sheet in enumerate(parts.sheets) if sheet.name == name]
        return float(parts.net.areas[parts.sheet_of == number].sum())

    whole = garment.piece("bodice front")
    left, right = (area(parts, "bodice front") for parts in sides.values())
    assert left + right == approx(area_of(whole), rel=0.01)
    lengths = {}
    for other, parts in sides.items():
        points = parts.edges["bodice front", "neckline"]
        laid = next(sheet for sheet in parts.sheets if sheet.name == "bodice front")
        at = {int(point): place for point, place in zip(laid.points, laid.laid, strict=True)}
        line = np.array([at[int(point)] for point in points])
        lengths[other] = 1000 * float(np.hypot(*np.diff(line, axis=0).T).sum())
        assert lengths[other] == approx(whole.edge(f"neckline{other}").path.length, rel=0.02)
    assert abs(lengths[""] - lengths[" other"]) > 20
    # 10 mm let out half-way down her left side alone, in front and behind
    more = [area(sides[""], f"skirt {half}") - area(sides[" other"], f"skirt {half}") for half in ("front", "back")]
    assert min(more) > 0.001


def test_each_side_hangs_in_its_own_cloth():
    """Her right is of the contrast cloth in front, a light one of 70 g a square metre; of the other nothing is said."""
    of = example("two-cloth-knot")
    left, right = sewn(of), sewn(of, side="right")
    for parts, role, grams in ((left, ClothRole.OUTER, 150), (right, ClothRole.CONTRAST, 70)):
        by_name = {sheet.name: k for k, sheet in enumerate(parts.sheets)}
        for name in ("bodice front", "skirt front"):
            assert parts.sheets[by_name[name]].role is role
            [fabric] = set(parts.net.fabric[parts.sheet_of == by_name[name]].tolist())
            assert parts.net.fabrics[fabric].weight == approx(grams / 1000)
        assert parts.sheets[by_name["skirt back"]].role is ClothRole.OUTER


def test_a_cape_goes_over_her_arms_which_what_it_is_sewn_to_does_not_touch_and_its_ends_fall_open():
    dress = hung_roughly(example("trumpet-gores"))
    sewn, arm = dress.sewn, dress.stand.left_arm
    assert arm.down.tolist() == [0, 0, -1]
    [cape] = [number for number, sheet in enumerate(sewn.sheets) if sheet.is_cape]
    others = set(np.concatenate([s.points for s in sewn.sheets if not s.is_cape]).tolist())
    own = np.array([point for point in sewn.sheets[cape].points if point not in others])
    assert set(np.flatnonzero(sewn.on_arm)) == set(own)
    # it lies on the outside of her arm, and nowhere in it
    outside = (arm.start[0] + arm.girths[0] / 2 / np.pi) / 1000
    assert dress.now[own, 0].max() == approx(outside, abs=0.012)
    assert dress.off(dress.now)[sewn.sheet_of == cape].min() > -0.0005  # these are the large triangles
    # her side lies within her arm, as it does: it is not pushed out of there
    assert dress.stand.far(dress.now[sewn.edges["bodice front", "side"]]).min() < -0.01
    ends = dress.now[sewn.edges["cape", "end"]]
    assert ends[:, 0].max() > 0.015
    assert ends[np.argmax(ends[:, 2]), 0] < 0.005


def test_layers_that_jam_are_loosened_and_the_dress_comes_to_rest(monkeypatch):
    """What is held up at first is called jammed: it is made smooth there, and the pleats fall on to where they lay."""
    of = example("pleated-inches")
    before = hung_roughly(of)
    asked: list[float] = []
    is_really = Layers.is_jammed

    def is_jammed(layers, places, pairs, within):
        asked.append(within)
        return len(asked) == 1 or is_really(layers, places, pairs, within)

    monkeypatch.setattr(Layers, "is_jammed", is_jammed)
    monkeypatch.setattr(rest, "LOOSENED", 0.004)
    dress = hung_roughly(of)
    assert asked[0] == JAMMED
    assert not Layers(dress.sewn.net).tangled(dress.now).any()
    assert (dress.off(dress.now) < 0).mean() < 0.001
    assert np.quantile(strained(dress), 0.95) < 0.02
    hem = before.sewn.hem
    assert 1000 * dress.now[hem, 2].mean() == approx(1000 * before.now[hem, 2].mean(), abs=5)


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name.removesuffix(".recipe.json"))
def test_every_example_hangs_outside_her_and_is_read(path):
    name = path.name.removesuffix(".recipe.json")
    of = example(name)
    dress = hung_roughly(of)
    assert dress.sewn.side == ("left" if name in NOT_ALIKE else None)
    assert np.isfinite(dress.now).all()
    assert (dress.off(dress.now) < 0).mean() < 0.001
    # no layer goes through another, as it is drawn and as it hangs
    layers = Layers(dress.sewn.net)
    assert not layers.tangled(layers.untangled(dress.sewn.start, dress.sewn.held)).any()
    assert not layers.tangled(dress.now).any()
    # nothing is sewn end for end, no dart left open: hardly any of it is pulled along its threads
    assert np.quantile(strained(dress), 0.95) < 0.02
    reading = read(dress, of, make_up(of))
    assert reading.ribbon is not None
    assert min(reading.ribbon.now) > 0
    words = said(reading, Tape(Unit.CM))
    assert words[0].startswith("The hem hangs ")
    assert all(sentence.endswith(".") for sentence in words)


RANDOM = [
    (2, "plain"), (3, "plain"), (14, "plain"), (24, "plain"), (27, "plausible"), (31, "plausible"), (33, "plausible"),
    (35, "extreme"), (36, "plain"), (50, "plain"),
]  # fmt: skip
"""Such as can be cut; of a hundred in three moods about one in six can."""


@pytest.mark.parametrize(("seed", "mood"), RANDOM)
def test_a_random_garment_hangs_outside_her_and_through_no_layer(seed, mood):
    of = random_recipe(seed, mood)
    dress = hung_roughly(of)
    off = dress.off(dress.now)
    assert (off < 0).mean() < 0.002  # these are the large triangles
    assert off.min() > -0.001
    assert not Layers(dress.sewn.net).tangled(dress.now).any()
    assert said(read(dress, of, make_up(of)), Tape(Unit.CM))


def test_what_hangs_over_what_is_worn_begins_outside_of_it():
    """A ring that is drawn within a wider one is put outside of it; where there is nothing under it, it stays."""
    turn = np.linspace(0.1, 3.0, 12)
    worn, over = (
        np.concatenate([
            np.stack((far * np.sin(turn), far * np.cos(turn), np.full(12, z)), axis=1) for z in (low, 1.1)
        ]) for far, low in ((0.15, 0.9), (0.13, 0.7))
    )  # fmt: skip
    start, points = np.concatenate((worn, over)), np.arange(24)
    sheets = [
        Sheet(("skirt", 0, 0), worn[:, :2], points, ClothRole.OUTER, beside=False),
        Sheet(("cape", 1, 0), over[:, :2], 24 + points, ClothRole.OUTER, beside=True),
    ]
    made = _over_what_is_worn(start, sheets)
    far = np.hypot(made[:, 0], made[:, 1])
    assert far[:24] == approx(np.full(24, 0.15))
    assert far[24:36] == approx(np.full(12, 0.13))  # below what is worn
    assert far[37:47] == approx(np.full(10, 0.158), abs=1e-3)
    assert made[:, 2] == approx(start[:, 2])


def test_a_strip_is_in_triangles_that_do_not_crumple_point_by_point():
    """A sheet bent to a cylinder bends least as it is, held two points deep along its edge (its surface is biharmonic,
    any textbook of plates): where moving the points between lets much of its energy go, they bend for nothing.
    """
    for name in ("gathered-yoke", "mermaid-gown"):
        parts = sewn(example(name), 18.0)
        [number] = [k for k, sheet in enumerate(parts.sheets) if sheet.name == "hem ruffle"]
        own = parts.sheet_of == number
        points, corners = np.unique(parts.net.triangles[own], return_inverse=True)
        flat = np.zeros((len(points), 2))
        flat[corners.ravel()] = parts.net.flat[own].reshape(-1, 2)
        mesh = Mesh(flat, corners.reshape(-1, 3))
        assert mesh.areas.min() > 0
        curved = curvatures(mesh)
        stiff = (
            curved.T @ diags(np.repeat(mesh.areas, 3) * np.tile((1.0, 1.0, 2.0), len(mesh.areas))) @ curved
        ).tocsr()
        sides = np.sort(np.concatenate([mesh.triangles[:, pair] for pair in ((0, 1), (1, 2), (2, 0))]), axis=1)
        found, times = np.unique(sides, axis=0, return_counts=True)
        held = np.zeros(len(points), dtype=bool)
        held[found[times == 1]] = True
        held[mesh.triangles[held[mesh.triangles].any(axis=1)]] = True
        z = 0.5 * flat[:, 0] ** 2
        least = z.copy()
        least[~held] = spsolve(stiff[~held][:, ~held].tocsc(), -(stiff[~held][:, held] @ z[held]))
        assert (~held).sum() > 20
        assert least @ stiff @ least > 0.97 * z @ stiff @ z


RINGS = {
    "kind": "seam_rings", "part": "bodice", "on": "front", "edge": "neckline", "rings": 4, "width": 60.0,
    "first": 0.0, "last": 1.0,
}  # fmt: skip


def test_rings_along_a_neckline_are_sewn_on_from_the_shoulder_to_the_centre_front():
    """Her front neckline runs from the shoulder: there the rings' end hangs free, on the middle of her is their other
    one. Each of their places begins near where that of the neck does.
    """
    parts = sewn(recipe(trims=[RINGS]), 25.0)
    assert "ruffle ring" not in parts.left_out
    neck = parts.edges["bodice front", "neckline"]
    shoulder = set(parts.edges["bodice front", "shoulder"].tolist())
    assert parts.held[[p for p in neck if int(p) in shoulder], 0].sum() == 0
    [ring] = [sheet for sheet in parts.sheets if sheet.name == "ruffle ring"]
    inner = set(neck.tolist())
    along = [int(p) for p, (_, v) in zip(ring.points, ring.laid, strict=True) if v == 0.0]
    assert set(along) <= inner
    assert along[0] == int(neck[-1])  # the centre front is the end of the neck edge
    assert parts.start[along[0], 0] == 0.0
    assert int(along[-1]) in shoulder
    assert parts.start[along[-1], 0] > 0.05
    # neighbours begin beside each other
    steps = np.linalg.norm(np.diff(parts.start[along], axis=0), axis=1)
    assert steps.max() < 0.05


def test_rings_along_a_buttoned_neckline_begin_at_the_centre_front():
    """The neck edge goes on beyond the centre there, under the other side; the rings do not."""
    parts = sewn(changed(example("jumpsuit"), {"trims": [RINGS]}), 25.0)
    [ring] = [sheet for sheet in parts.sheets if sheet.name == "ruffle ring"]
    along = [int(p) for p, (_, v) in zip(ring.points, ring.laid, strict=True) if v == 0.0]
    assert parts.start[along[0], 0] == 0.0
    assert parts.held[along, 0].tolist() == [1.0] + [0.0] * (len(along) - 1)
    assert np.diff(parts.start[along, 0])[:-5].min() > 0.0
    assert parts.start[along[-1], 0] > 0.05


def test_a_laced_back_opens_no_wider_than_it_is_laced():
    of = example("laced-gathered")
    dress = hung_roughly(of)
    laced = dress.sewn.edges["bodice back", "laced edge"]
    start = dress.sewn.start[laced, 0]
    assert dress.now[laced, 0] == approx(start)
    assert dress.later[laced, 0] == approx(start)
    assert start[1:].min() > 0.0
    # as wide as it is laced: 3 in at the top to nothing at the waist
    top = laced[np.argmax(dress.now[laced, 2])]
    assert 2000 * dress.now[top, 0] == approx(76.2, abs=8)
    # they move up and down, and are not the middle of her
    assert np.abs(dress.now[laced, 1:] - dress.sewn.start[laced, 1:]).max() > 0.001
    assert not dress.sewn.on_middle[laced[1:]].any()
    inked = {tuple(sorted(pair)) for pair in dress.sewn.outlines.tolist()}
    assert {tuple(sorted(pair)) for pair in zip(laced[:-1].tolist(), laced[1:].tolist(), strict=True)} <= inked
