"""Long strips are drawn with a break, and say how long they are all the same."""

import json
from itertools import pairwise
from pathlib import Path

from pytest import approx

from gentle_hem.api.screen import screen
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.core.units import Unit
from gentle_hem.formats.broken import shown_pieces


def made(name):
    recipe = read_recipe(json.loads(Path(f"examples/{name}.recipe.json").read_text()))
    return recipe, make_up(recipe)


def test_a_ruffle_of_metres_is_drawn_no_longer_than_the_gown_and_keeps_its_height():
    _, garment = made("mermaid-gown")
    shown = {one.piece.name: one for one in shown_pieces(garment.pieces)}
    whole, drawn = garment.piece("hem ruffle"), shown["hem ruffle"].piece
    wide, high = (lambda box: (box[2] - box[0], box[3] - box[1]))(whole.seam_line.box)
    now_wide, now_high = (lambda box: (box[2] - box[0], box[3] - box[1]))(drawn.seam_line.box)
    assert wide > 3000
    tallest = max(p.seam_line.box[3] - p.seam_line.box[1] for p in garment.pieces if p.what.section == "gown")
    assert now_wide == approx(1.15 * tallest)
    assert now_high == approx(high)
    assert len(shown["hem ruffle"].waves) == 2
    # what is left out lies between notches: those that are drawn keep how far they are from the nearer end
    kept = [notch for notch in drawn.notches if notch.edge == "top"]
    assert kept
    assert all(0 <= notch.at <= drawn.edge("top").drawn_length for notch in kept)


def test_what_is_no_strip_is_drawn_whole():
    for name in ("full-circle", "gored-circle-spiral", "jumpsuit"):
        _, garment = made(name)
        for before, after in zip(garment.pieces, shown_pieces(garment.pieces), strict=True):
            box = before.seam_line.box
            if box[2] - box[0] < 4 * (box[3] - box[1]):
                assert after.piece is before
                assert after.waves == ()


def test_the_screen_says_the_lengths_of_the_whole_strip():
    recipe, garment = made("mermaid-gown")
    ruffle = next(piece for piece in screen(recipe, garment, Unit.CM).sheet.pieces if piece.name == "hem ruffle")
    top = next(edge for edge in ruffle.edges if edge.name == "top")
    assert top.length == f"{garment.piece('hem ruffle').edge('top').drawn_length / 10:.1f} cm"
    assert ruffle.box[2] < 2000 < float(ruffle.width.split()[0]) * 10
    assert len(ruffle.breaks) == 2


def test_pieces_lie_apart_on_the_screen():
    recipe, garment = made("mermaid-gown")
    boxes = [piece.box for piece in screen(recipe, garment, Unit.CM).sheet.pieces]
    for one, other in pairwise(sorted(boxes)):
        apart = one[0] + one[2] <= other[0] or one[1] + one[3] <= other[1] or other[1] + other[3] <= one[1]
        assert apart
