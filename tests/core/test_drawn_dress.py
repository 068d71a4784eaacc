"""The drawn dress, read from its SVG and held against the pattern by ways of its own: shapely cuts the pieces across
and measures the drawn slices; lengths and sweeps are worked out by hand.
"""

import json
import re
from math import pi
from pathlib import Path
from xml.etree import ElementTree

import numpy as np
import pytest
from pytest import approx
from shapely import LineString, Polygon, box

import combinations
from conftest import FIGURE
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.cutting.open_out import OTHER
from gentle_hem.core.dressed import Seen, drawn_dress
from gentle_hem.core.dressed.dressing import Dressing
from gentle_hem.core.dressed.inks import Drawn
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Role
from gentle_hem.core.recipe import Recipe, changed, read_recipe
from gentle_hem.core.what import Half, Section
from gentle_hem.formats.dress import to_dress_svg
from readers import polygon

EXAMPLES = sorted(Path("examples").glob("*.recipe.json"))
SVG = "{http://www.w3.org/2000/svg}"
GARMENTS = {name: value for name, value in vars(combinations).items() if isinstance(value, dict) and "lower" in value}


def example(name):
    return read_recipe(json.loads(Path(f"examples/{name}.recipe.json").read_text()))


def combined(name):
    return Recipe.model_validate({"figure": {"measures": combinations.MEASURES}, **GARMENTS[name]})


class Read:
    """A dress.svg as a stranger's program would read it."""

    def __init__(self, recipe):
        self.garment = make_up(recipe)
        self.svg = to_dress_svg(drawn_dress(recipe, self.garment), recipe.name)
        root = ElementTree.fromstring(self.svg)
        self.views = {g.get("id"): g.findall(f"{SVG}path") for g in root.iter(f"{SVG}g") if g.get("class") == "view"}
        self.levels = {g.get("data-name"): g for g in root.iter(f"{SVG}g") if g.get("class") == "level"}

    def girth(self, name):
        """The length of the drawn slice, measured on its path."""
        numbers = [float(n) for n in re.findall(r"-?[\d.]+", self.levels[name].find(f"{SVG}path").get("d"))]
        points = list(zip(numbers[::2], numbers[1::2], strict=True))
        return LineString([*points, points[0]]).length

    def height(self, name):
        return float(self.levels[name].get("data-height"))

    def lines(self, view, drawn):
        return [path for path in self.views[view] if path.get("class") == drawn]


def times(piece, garment):
    """How many of it go round the whole body."""
    return 2 * sum(1 for c in cut_pieces(garment) if c.piece == piece.what) if piece.on_fold else piece.cut


def across(pieces, garment, level):
    """Round the pieces at a level of theirs, upright darts cut out, without stands and facings."""
    total = 0.0
    for piece in pieces:
        darts = [
            Polygon([(p.x, p.y) for p in (*piece.dart_legs(dart), dart.apex)])
            for dart in piece.darts
            if piece.edge(dart.edge).role in (Role.WAIST, Role.SHOULDER, Role.NECKLINE, Role.HEM)
        ]
        cloth = polygon(piece.seam_line)
        for dart in darts:
            cloth = cloth.difference(dart.buffer(0.001))
        if any(edge.name.endswith(OTHER) for edge in piece.edges):
            row = [(-5000, level), (5000, level)]
        else:
            row = [(0, level), (5000, level)] if piece.what.half is Half.FRONT else [(-5000, level), (0, level)]
        total += times(piece, garment) * cloth.intersection(LineString(row)).length
    return total


def hem_of(garment):
    """The lowest edge all round: what is sewn on last where something is sewn to it, else every hem."""
    strips = [p for p in garment.pieces if p.what.is_outer(Section.RUFFLE, Section.FLOUNCE) and p.name != "side ruffle"]
    if strips:
        return sum(times(p, garment) * e.drawn_length for p in strips for e in p.edges if e.name == "hem")
    last = max((p.what.number for p in garment.pieces if p.what.is_outer(Section.SKIRT)), default=1)
    gown = any(p.what.is_outer(Section.GOWN) for p in garment.pieces)  # a peplum let in above its hem is another
    hanging = (Section.SKIRT, Section.TROUSERS, Section.HIP_YOKE, *(() if gown else (Section.PEPLUM,)))
    pieces = [
        p for p in garment.pieces
        if p.what.is_outer(Section.GOWN, Section.GODET, *hanging)
        and (p.what.number == last or not p.what.is_outer(Section.SKIRT))
    ]  # fmt: skip
    return sum(
        times(p, garment) * p.stitched_length(e.name)
        for p in pieces
        for e in p.edges
        if e.name in ("hem", f"hem{OTHER}")
    )


SPIRALS = {"gored-circle-spiral", "trumpet-gores"}
"""Their flounces overlap at their ends: more is cut than goes round."""

RISING = {"handkerchief", "high-low"}
"""Their hems rise and fall, and are longer than seen from above."""


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name.split(".")[0])
def test_the_drawn_hem_is_as_long_as_the_patterns_and_hangs_where_its_length_says(path):
    name = path.name.split(".")[0]
    recipe = example(name)
    read = Read(recipe)
    assert set(read.views) == {"front", "side", "back"}
    if name == "jumpsuit":  # of either leg
        legs = [p for p in read.garment.pieces if p.what.is_outer(Section.TROUSERS)]
        assert read.girth("hem") == approx(sum(p.edge("hem").drawn_length for p in legs), rel=0.01)
    elif name in RISING:
        assert float(read.levels["hem"].get("data-girth")) == approx(hem_of(read.garment), rel=0.01)
        return
    elif name not in SPIRALS:
        assert read.girth("hem") == approx(hem_of(read.garment), rel=0.01)
    assert read.girth("hem") == approx(float(read.levels["hem"].get("data-girth")), rel=1e-3)


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name.split(".")[0])
def test_the_drawn_waist_and_bust_are_as_long_round_as_the_patterns(path):
    read = Read(example(path.name.split(".")[0]))
    garment = read.garment
    joined = next((seam for seam in garment.joins if seam.name in ("waist seam", "band seam")), None)
    if joined is not None:
        assert read.girth("waist") == approx(2 * joined.length_a, rel=0.01)
    upper = [p for p in garment.pieces if p.what.is_outer_upper() and p.what.half is not None]
    front = next((p for p in upper if p.bust_point is not None), None)
    tied = front is not None and front.what in garment.unspread  # drawn as it lies once it is knotted
    if front is not None and not tied and "bust" in read.levels and len({p.what.panel for p in upper}) == 1:
        level = front.bust_point.y
        fronts, backs = ([p for p in upper if p.what.half is half] for half in Half)
        assert read.girth("bust") == approx(across(fronts, garment, level) + across(backs, garment, level), rel=0.01)


LENGTHS = {
    "full-circle": 620, "double-circle": 600, "half-circle-inches": 25.5 * 25.4, "quarter-flare": 700,
    "drafted-quarters": 610, "drafted-two-lengths": 600, "drafted-proportional": 620, "high-low": 450,
    "a-line-midriff": 600, "circle-peplum": 180, "double-peplum": 180, "handkerchief": 460, "laced-gathered": 640,
    "mermaid-gown": 1060, "peplum-under-blouse": 140, "pinafore": 24 * 25.4, "pleated-inches": 25 * 25.4,
    "pocketed-shirt-dress": 680, "tiered": 780, "two-cloth-knot": 26 * 25.4, "jumpsuit": 990,
    # a waistband of 5 cm lies between, a flounce of 16 hangs below
    "slanting-neck": 600, "straight-waistband": 620 + 50, "trumpet-gores": 920 + 160,
}  # fmt: skip


@pytest.mark.parametrize("name", LENGTHS)
def test_a_skirt_ends_its_length_below_the_waist(name):
    recipe = example(name)
    figure = recipe.figure
    floor = figure.get("waist_to_floor") or 1020
    assert Read(recipe).height("hem") == approx(floor - LENGTHS[name], abs=5)


@pytest.mark.parametrize(("sweep", "length"), [(360, 620), (180, 540), (90, 700)])
def test_a_circle_is_as_wide_at_the_hip_as_its_sweep_makes_it(sweep, length):
    """Worked out by hand: seam + sweep in radians × the drop, however the cloth is held out in folds."""
    base = example("full-circle")
    read = Read(changed(base, {"lower.sweep": sweep, "lower.length": length, "figure.measures.waist_to_hip": 200.0}))
    waist = 2 * next(s for s in read.garment.joins if s.name == "waist seam").length_a
    assert read.girth("hip") == approx(waist + sweep / 180 * pi * 200, rel=0.01)
    assert read.girth("hem") == approx(waist + sweep / 180 * pi * length, rel=0.01)


HIPS = [
    "a-line-midriff", "double-circle", "drafted-proportional", "drafted-quarters", "drafted-two-lengths", "full-circle",
    "gathered-yoke", "half-circle-inches", "handkerchief", "high-low", "laced-gathered", "pinafore", "pleated-inches",
    "quarter-flare",
    "slanting-neck", "stepped-yoke", "straight-waistband", "tiered", "trumpet-gores",
]  # fmt: skip
"""Examples whose lower part hangs from the natural waist, as long all round, and is neither knotted nor buttoned."""


@pytest.mark.parametrize("name", HIPS)
def test_the_drawn_hip_is_as_long_round_as_the_pieces_are_so_far_below_their_seam(name):
    """By shapely: the line parallel to the waist edge of each piece, as deep as the hip lies, darts cut out."""
    recipe = example(name)
    read = Read(recipe)
    drop = recipe.figure.get("waist_to_hip") or 203.2
    sewn = [one.seam for one in read.garment.joins if one.name in ("waist seam", "waist seam, right")]
    found = 0.0
    for what, edge_name in {(one.piece, one.edge) for seam in sewn for one in seam.b.stretches}:
        piece = next(one for one in read.garment.pieces if one.what == what)
        edge, cloth = piece.edge(edge_name), polygon(piece.seam_line)
        for dart in piece.darts_of(edge_name):
            mouth = Polygon([(p.x, p.y) for p in (*piece.dart_legs(dart), dart.apex)])
            cloth = cloth.difference(mouth.buffer(0.001))
        line = LineString([(p.x, p.y) for p in edge.path.flatten(0.05)])
        if edge_name.endswith(OTHER) or piece.at_edge(edge_name + OTHER) is not None:
            cloth = cloth.intersection(
                box(0, -5000, 5000, 5000) if edge_name == "waist" else box(-5000, -5000, 0, 5000)
            )
        found += times(piece, read.garment) * cloth.intersection(line.buffer(drop, quad_segs=64).boundary).length
    assert read.girth("hip") == approx(found, rel=0.015)
    floor = recipe.figure.get("waist_to_floor") or 1020
    assert read.height("hip") == approx(floor - drop, abs=5)


def test_a_tight_skirt_lies_on_the_hip_without_a_fold():
    recipe = example("straight-waistband")
    read = Read(recipe)
    skirt = [p for p in read.garment.pieces if p.what.is_outer(Section.SKIRT)]
    drop = recipe.figure.get("waist_to_hip") or 203.2
    hip = across(skirt, read.garment, -(drop - recipe.band.width))
    assert read.girth("hip") == approx(hip, rel=0.015)
    assert read.lines("front", "fold") == []


def test_godets_widen_what_they_are_let_into_and_nothing_above_it():
    """By hand: the hem grows by every godet's own hem; bust, waist and hip stay as they were."""
    base = example("stepped-yoke")
    plain, let_in = (Read(changed(base, {"trims": trims})) for trims in ([], [{"kind": "godets"}]))
    [godet] = [p for p in let_in.garment.pieces if p.what.is_outer(Section.GODET)]
    more = godet.cut * godet.edge("hem").drawn_length
    assert more > 500
    assert let_in.girth("hem") == approx(plain.girth("hem") + more, rel=0.01)
    for level in ("bust", "waist", "hip"):
        assert let_in.girth(level) == approx(plain.girth(level), rel=1e-3)


def test_a_jumpsuits_legs_end_where_they_are_long_to():
    recipe = example("jumpsuit")
    dress = drawn_dress(recipe, make_up(recipe))
    hems = [ink for ink in dress.views[Seen.FRONT] if ink.drawn is Drawn.HEM and ink.piece == "trouser front"]
    assert len(hems) == 2  # either leg
    floor = recipe.figure.get("waist_to_floor") or 1020
    trousers = next(p for p in make_up(recipe).pieces if p.name == "trouser front")
    tall = trousers.seam_line.box[3] - trousers.seam_line.box[1]
    assert min(y for ink in hems for _, y in ink.spots) == approx(floor - tall, abs=12)


def test_seams_darts_zips_and_buttons_lie_where_the_pattern_has_them():
    shirt = Read(combined("BUTTON_THROUGH"))
    assert len(shirt.lines("front", "button")) >= 8
    assert shirt.lines("back", "button") == []
    assert {p.get("data-edge") for p in shirt.lines("front", "dart")} == {"waist"}
    assert (
        len([p for p in shirt.lines("front", "dart") if p.get("data-piece") == "bodice front"]) == 2
    )  # left and right

    gown = Read(example("mermaid-gown"))
    princess = [p for p in gown.lines("front", "seam") if p.get("data-edge") == "princess"]
    assert {p.get("data-piece") for p in princess} == {"gown centre front", "gown side front"}
    assert gown.lines("back", "zip")
    assert not gown.lines("front", "zip")
    side = [p for p in gown.lines("side", "seam") if p.get("data-edge") == "side"]
    assert side


def test_a_princess_seam_lies_where_its_share_of_the_front_is():
    """By hand: at the waist it lies as far from the centre as the centre panel is wide there, on a slice as long as
    the waist; on a slice so nearly round the way across is less than the way along by the arc.
    """
    recipe = example("mermaid-gown")
    dress, garment = drawn_dress(recipe, make_up(recipe)), make_up(recipe)
    centre = garment.piece("gown centre front")
    waist = garment.waists[Half.FRONT]
    half = across([centre], garment, waist) / 2
    seam = max(
        (ink for ink in dress.views[Seen.FRONT] if ink.drawn is Drawn.SEAM and ink.piece == "gown centre front"),
        key=lambda ink: len(ink.spots),
    )
    at = min(seam.spots, key=lambda spot: abs(spot[1] - dress.waist))
    assert 0.9 * half < abs(at[0]) < half


def test_what_is_not_alike_left_and_right_is_drawn_so():
    dress = drawn_dress(combined("ONE_SHOULDER_JUMPSUIT"), make_up(combined("ONE_SHOULDER_JUMPSUIT")))
    cloth = next(i for i in dress.views[Seen.FRONT] if i.drawn is Drawn.CLOTH and i.piece.startswith("bodice"))
    left, right = (max(y for x, y in cloth.spots if sign * x > 60) for sign in (1, -1))
    assert left > right + 100  # a shoulder on her left only, which is on the right as she faces us
    cloth = next(i for i in dress.views[Seen.BACK] if i.drawn is Drawn.CLOTH and i.piece.startswith("bodice"))
    left, right = (max(y for x, y in cloth.spots if sign * x > 60) for sign in (-1, 1))
    assert left > right + 100  # and on the left from behind


def test_from_the_side_she_faces_to_the_left():
    """A skirt longer behind hangs lowest on the right."""
    recipe = example("high-low")
    side = drawn_dress(recipe, make_up(recipe)).views[Seen.SIDE]
    lowest = min((spot for ink in side if ink.drawn is Drawn.HEM for spot in ink.spots), key=lambda spot: spot[1])
    assert lowest[0] > 100


@pytest.mark.parametrize("depth", [40, 80, 120])
def test_darts_are_closed_on_the_way_down_to_the_hip(depth):
    recipe = example("stepped-yoke")
    garment = make_up(recipe)
    [skirt] = Dressing(recipe, garment).hung
    pieces = [p for p in garment.pieces if p.what.is_outer(Section.SKIRT)]
    down = np.mean([p.down.mean(axis=1) for p in skirt.patches], axis=0)
    drawn = np.interp(depth, down, skirt.surface.left.girths)
    assert 2 * drawn == approx(across(pieces, garment, -depth), rel=0.02)


def test_a_gown_is_wider_at_its_hem_by_its_godets():
    recipe = example("mermaid-gown")
    [godets] = [t.model_dump(mode="json") for t in recipe.trims if t.kind == "godets"]
    read = Read(changed(recipe, {"trims": [godets]}))
    assert read.girth("hem") == approx(hem_of(read.garment), rel=0.01)


@pytest.mark.parametrize("name", GARMENTS)
def test_every_combination_is_drawn_from_three_places_and_alike_when_made_again(name):
    recipe = combined(name)
    garment = make_up(recipe)
    one, other = drawn_dress(recipe, garment), drawn_dress(recipe, garment)
    assert one == other
    for inks in one.views.values():
        assert any(ink.drawn is Drawn.CLOTH for ink in inks)
        assert max(abs(x) for ink in inks for x, _ in ink.spots) < 1500
        assert max(y for ink in inks for _, y in ink.spots) < one.top + 20
        assert min(y for ink in inks for _, y in ink.spots) > -80


def test_a_word_changed_moves_the_drawing_and_nothing_else_does():
    base = example("full-circle")
    before, longer, renamed = (
        drawn_dress(recipe, make_up(recipe))
        for recipe in (base, changed(base, {"lower.length": 650.0}), changed(base, {"name": "Another name"}))
    )
    assert before == renamed
    assert before.hem - longer.hem == approx(30, abs=0.5)


def test_cloth_that_is_crisper_stands_out_further_and_as_long():
    base = example("full-circle")
    limp, crisp = (changed(base, {"cloths.outer.drape": drape}) for drape in ("limp", "crisp"))
    wide = []
    for recipe in (limp, crisp):
        dress = drawn_dress(recipe, make_up(recipe))
        wide.append(max(x for ink in dress.views[Seen.FRONT] if ink.drawn is Drawn.HEM for x, _ in ink.spots))
        hem = next(level for level in dress.levels if level.name == "hem")
        assert hem.girth == approx(2 * 385 + 2 * pi * 620, rel=0.01)
    assert wide[1] > wide[0] + 30


def test_a_dress_of_which_nothing_is_drawn_is_her_form_alone():
    recipe = Recipe.model_validate({"figure": {"measures": FIGURE}, "lower": {"kind": "circle"}})
    dress = drawn_dress(recipe, make_up(recipe))
    assert {ink.drawn for inks in dress.views.values() for ink in inks} == {Drawn.FORM}
    assert (dress.hem, dress.levels) == (None, ())


def test_every_edge_that_a_line_stands_for_is_there():
    for name in ("mermaid-gown", "pocketed-shirt-dress", "tiered", "jumpsuit"):
        garment = make_up(example(name))
        known = {(p.name, e.name) for p in garment.pieces for e in p.edges} | {
            (p.name, m.name) for p in garment.pieces for m in p.marks
        }
        dress = drawn_dress(example(name), garment)
        stand = {(i.piece, i.edge) for inks in dress.views.values() for i in inks if i.piece and i.edge}
        assert stand <= known, stand - known


def test_the_form_has_the_measures_it_was_given():
    """Its sections are the measures themselves where they are taken."""
    from gentle_hem.core.dressed.form import Form

    form = Form.of(example("full-circle").figure)
    figure = example("full-circle").figure
    for height, key in ((form.waist, "waist_girth"), (form.hip, "hip_girth"), (form.bust, "bust_girth")):
        girth, _, _ = form.at(height)
        wanted = figure.get(key)
        if wanted:
            assert girth == approx(wanted)


def test_cloth_is_drawn_in_its_colour_and_what_has_none_is_left_white():
    recipe = example("two-cloth-knot")
    garment = make_up(recipe)
    assert " style=" not in to_dress_svg(drawn_dress(recipe, garment), "x")
    cloths = recipe.cloths
    outer, contrast = (cloths.cloth(role) for role in (ClothRole.OUTER, ClothRole.CONTRAST))
    coloured = recipe.model_copy(
        update={
            "cloths": cloths.model_copy(
                update={
                    "outer": outer.model_copy(update={"colour": "#000000"}),
                    "contrast": contrast.model_copy(update={"colour": "#ff0000"}),
                    "contrast_for": "lower",
                }
            )
        }
    )
    garment = make_up(coloured)
    read = to_dress_svg(drawn_dress(coloured, garment), "x")
    lower = next(p.name for p in garment.pieces if p.what.is_outer(Section.SKIRT))
    assert f'data-piece="{lower}" style="fill: #ff8c8c"' in read  # 255 − 0.45 × 255 = 140
    assert 'style="fill: #8c8c8c"' in read
    assert read.count("style=") == read.count('class="cloth"')
