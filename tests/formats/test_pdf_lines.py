"""Blocks from PDF: lines drawn by reportlab, and our own large sheet, read back by pdfium."""

import io
import json
from math import pi
from pathlib import Path

import pytest
from pytest import approx
from reportlab.pdfgen.canvas import Canvas

from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.formats.files import FILE_WRITERS, Order
from gentle_hem.formats.outlines import UnreadableError
from gentle_hem.formats.read_block import read_block

MM = 72 / 25.4


def drawn(draw, size=(600, 600), pages=1):
    content = io.BytesIO()
    canvas = Canvas(content, pagesize=(size[0] * MM, size[1] * MM))
    for page in range(pages):
        canvas.scale(MM, MM)
        draw(canvas, page)
        canvas.showPage()
    canvas.save()
    return content.getvalue()


def test_a_rectangle_and_a_rounded_piece_come_back_in_millimetres():
    def draw(canvas, _):
        canvas.rect(50, 60, 300, 200)
        canvas.circle(450, 450, 80)

    large, round_one = read_block("block.pdf", drawn(draw))
    assert sorted(edge.path.length for edge in large.edges) == approx([200, 200, 300, 300], abs=0.05)
    assert sum(edge.path.length for edge in round_one.edges) == approx(2 * pi * 80, abs=0.2)


def test_what_is_drawn_within_a_drawing_is_where_it_lies_and_the_fullest_page_is_read():
    def draw(canvas, page):
        if page == 1:
            canvas.beginForm("piece", 0, 0, 400, 400)
            canvas.rect(0, 0, 100, 150)
            canvas.endForm()
            canvas.translate(40, 30)
            canvas.scale(2, 2)
            canvas.doForm("piece")
        else:
            canvas.line(0, 0, 10, 10)

    [piece] = read_block("block.pdf", drawn(draw, pages=3))
    assert sorted(edge.path.length for edge in piece.edges) == approx([200, 200, 300, 300], abs=0.05)
    left = min(edge.path.box[0] for edge in piece.edges)
    assert left == approx(40, abs=0.05)


def test_our_own_large_sheet_comes_back_within_a_tenth_of_a_millimetre():
    recipe = read_recipe(json.loads(Path("examples/half-circle-inches.recipe.json").read_text()))
    garment = make_up(recipe)
    found = read_block("pattern-large.pdf", FILE_WRITERS["pattern-large.pdf"](Order(recipe, garment)))
    lengths = [sum(edge.path.length for edge in outline.edges) for outline in found]
    for piece in garment.pieces:
        if not piece.on_fold:
            assert any(length == approx(piece.seam_line.length, abs=0.1) for length in lengths), piece.name


@pytest.mark.parametrize(
    ("content", "said"),
    [(b"", "no readable PDF"), (b"%PDF-1.4 and nothing", "no readable PDF"),
     (drawn(lambda canvas, _: canvas.drawString(10, 10, "words")), "holds no lines"),
     (drawn(lambda canvas, _: canvas.line(0, 0, 5, 5), pages=201), "201 pages"),
     (drawn(lambda canvas, _: [canvas.line(0, 0, k % 100, 50) for k in range(120_000)]), "draws more than")],
    ids=["empty", "cut short", "words", "pages", "a million points"],
)  # fmt: skip
def test_what_is_no_block_is_refused_in_a_sentence(content, said):
    with pytest.raises(UnreadableError, match=said):
        read_block("block.pdf", content)
