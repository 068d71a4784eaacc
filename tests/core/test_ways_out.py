"""Ways round a cloth that is too narrow or too short: each made, laid and measured again; and the cloth first."""

import json
from math import pi
from pathlib import Path

import pytest
from pytest import approx
from shapely import union_all

from conftest import FIGURE
from gentle_hem.core.cloth.asked import LayAsked
from gentle_hem.core.cloth.bought import bought
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.lay import HowLaid, lay
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cloth.things import JOINED, as_it_lies, of_piece
from gentle_hem.core.cloth.ways_out import can_be_made, ways_out
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed, read_recipe
from gentle_hem.core.units import Tape, Unit
from gentle_hem.core.what import Section

CM = Tape(Unit.CM)


def example(name):
    return read_recipe(json.loads(Path("examples", f"{name}.recipe.json").read_text()))


@pytest.mark.parametrize(
    ("name", "cloth"),
    [("full-circle", {"width": 1400}), ("high-low", {"width": 1200}),
     ("double-circle", {"width": 1400, "in_hand": 3000}), ("half-circle-inches", {"width": 1100, "price": 12})],
)  # fmt: skip
def test_every_way_is_cut_from_the_cloth_as_it_says(name, cloth):
    recipe = example(name)
    cloth = Cloth(**cloth)
    ways = ways_out(recipe, LayAsked(), cloth, CM)
    assert ways
    assert [way.laid.length for way in ways] == sorted(way.laid.length for way in ways)
    for way in ways:
        made = make_up(changed(recipe, way.changes)) if way.changes else make_up(recipe)
        width, how = (way.asked or LayAsked()).on(cloth)
        again = lay(made, ClothRole.OUTER, width, how)
        assert again.length == approx(way.laid.length)
        assert again.too_wide == ()
        assert again.faults == ()
        left = bought(again.length, cloth, CM).left
        assert left is None or left >= 0


def test_the_longest_circle_that_goes_on_a_cloth_by_hand():
    """A full circle cut in two halves on 760 round: the front, opened out, is two quarters of the radius 760 ÷ 2π and
    the length and the hem's 15, side by side. On 1400 mm it is 700 less those long, on whole half centimetres.
    """
    recipe = Recipe.model_validate(
        {
            "figure": {"measures": FIGURE},
            "bodice": {"kind": "measured", "front": {"centre_to_dart": 100, "dart_to_side": 90},
                       "back": {"centre_to_dart": 100, "dart_to_side": 90}, "front_side": 200, "back_side": 200},
            "lower": {"kind": "circle", "sweep": 360, "length": 900, "hem": 15, "pieces": 2},
            "opening": {"place": "none"}, "allowances": {"waist": 10, "side": 10},
        }
    )  # fmt: skip
    radius = 760 / (2 * pi)
    width = 1400.0
    longest = width / 2 - radius - 15
    ways = {way.text: way for way in ways_out(recipe, LayAsked(), Cloth(width=width), CM)}
    [said] = [way for text, way in ways.items() if text.endswith(" long")]
    assert said.changes["lower.length"] == approx(longest, abs=5.01)
    assert said.changes["lower.length"] <= longest + 0.5


def test_joined_corners_put_back_together_are_the_piece():
    """Every corner overlaps the piece by an allowance on either side of its join, along the grain."""
    garment = make_up(example("full-circle"))
    width = 1400.0
    laid = lay(garment, ClothRole.OUTER, width, HowLaid(corners=True))
    [said] = laid.cornered
    assert laid.too_wide == ()
    assert said.from_middle
    assert said.join == approx(width / 2 - JOINED)
    whole = as_it_lies(*of_piece(garment, said.name))
    parts = [one.outline for one in laid.placed if one.name == said.name or one.name.startswith(f"{said.name}, corner")]
    assert len(parts) == said.corners + 1
    assert max(part.bounds[2] - part.bounds[0] for part in parts) <= width + 0.01
    # together they have its area and twice an allowance along each join
    along = [part.bounds[3] - part.bounds[1] for part in parts]
    assert union_all(parts).area > whole.area
    assert sum(part.area for part in parts) - whole.area < 2 * JOINED * sum(along)
    assert laid.faults == ()


def test_what_a_cloth_makes_is_as_long_as_it_goes_and_no_longer():
    recipe = example("double-circle")
    cloth = Cloth(width=1400, in_hand=2500)
    made = {one.title: one for one in can_be_made(recipe, LayAsked(), cloth, CM)}
    assert made["half circle"].length > made["full circle"].length
    for title in ("half circle", "gathered twice"):
        one = made[title]
        fits = lay(make_up(changed(recipe, {"lower": one.lower})), ClothRole.OUTER, 1400)
        assert not fits.too_wide
        assert fits.length <= 2500
    longer = {**made["half circle"].lower, "length": made["half circle"].length + 60}
    over = lay(make_up(changed(recipe, {"lower": longer})), ClothRole.OUTER, 1400)
    assert over.too_wide or over.length > 2500 - 60


def test_a_gown_too_wide_for_its_cloth_is_cut_in_panels():
    recipe = example("mermaid-gown")
    whole = recipe.model_copy(update={"steps": tuple(s for s in recipe.steps if s.kind != "princess"), "trims": ()})
    cloth = Cloth(width=560)
    assert lay(make_up(whole), ClothRole.OUTER, 560).too_wide
    ways = {way.text: way for way in ways_out(whole, LayAsked(), cloth, CM)}
    way = ways["cut it in panels, with princess seams from the shoulder"]
    assert len(way.garment.pieces) == 4
    assert way.garment.is_ready_to_cut
    assert way.laid.too_wide == ()
    assert not any("panels" in text for text in (way.text for way in ways_out(way.recipe, LayAsked(), cloth, CM)))


def test_a_ring_flounce_too_wide_for_its_cloth_is_cut_in_more_rings():
    """By hand: two rings on a hem of 4 m are each 2 m round inside, 318 mm across their radius and 200 deep."""
    recipe = example("straight-waistband")
    flounced = recipe.model_copy(
        update={
            "trims": read_recipe(
                {**recipe.model_dump(mode="json"), "trims": [{"kind": "ring_flounce", "rings": 1}]}
            ).trims
        }
    )
    made = make_up(flounced)
    ring = next(piece for piece in made.pieces if piece.what.section is Section.FLOUNCE)
    across = ring.cut_line.box[2] - ring.cut_line.box[0]
    cloth = Cloth(width=across - 20)
    ways = {way.text: way for way in ways_out(flounced, LayAsked(), cloth, CM)}
    way = ways["cut the ring flounce in 2 rings"]
    [smaller] = [piece for piece in way.garment.pieces if piece.what.section is Section.FLOUNCE]
    assert smaller.cut == 2
    assert smaller.edge("top").drawn_length * 2 == approx(ring.edge("top").drawn_length, rel=1e-3)
    assert way.laid.too_wide == ()
