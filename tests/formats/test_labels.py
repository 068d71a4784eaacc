"""What a piece says of itself and where the words stand, read back from the files.

Measured on the drawn files: pdfium draws the pages of a PDF, svgelements and shapely measure an SVG.
"""

import io
import re
from datetime import date
from itertools import pairwise
from pathlib import Path as File
from xml.etree import ElementTree

import numpy as np
import pdfplumber
import pypdfium2
import pytest
import svgelements
from pytest import approx
from reportlab.pdfbase.pdfmetrics import stringWidth
from shapely import LineString, Point, Polygon, box
from shapely.affinity import rotate

from conftest import a_recipe
from gentle_hem.core.make_up import make_up
from gentle_hem.core.marking import drill_points
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Unit
from gentle_hem.formats.files import FILE_WRITERS, Order
from gentle_hem.formats.labels import Tag, sheet, text_of
from gentle_hem.formats.letters import BOLD, register
from gentle_hem.formats.paper import Paper, Printing
from gentle_hem.formats.pdf import MARGIN, POINTS_PER_MM, tiles_for
from long import examples

EXAMPLES = sorted((File(__file__).parents[2] / "examples").glob("*.recipe.json"))
SVG = "{http://www.w3.org/2000/svg}"
DAY = date(2026, 11, 26)


@pytest.fixture(scope="module", params=EXAMPLES[:: examples(3, 1)], ids=lambda path: path.name.split(".")[0])
def order(request):
    recipe = Recipe.model_validate_json(request.param.read_text())
    return Order(recipe, make_up(recipe), version=3, day=DAY)


def lines_of(group):
    return [LineString(points(path.get("d"))) for path in group.iter(f"{SVG}path") if path.get("class") != "cut-line"]


def points(data):
    parts = (part for part in svgelements.Path(data) if not isinstance(part, svgelements.Move))
    return [(p.x, p.y) for part in parts for p in (part.point(k / 24) for k in range(25))]


def boxes_of(group):
    """The box of every line of words of a piece in the SVG, as wide as the bold letters of the PDF, y down."""
    register()
    for text in group.iter(f"{SVG}text"):
        x, y, size = (float(text.get(name)) for name in ("x", "y", "font-size"))
        upright = box(x, y - 0.72 * size, x + stringWidth(text.text, BOLD, size), y + 0.2 * size)
        turned = re.match(r"rotate\((\S+) (\S+) (\S+)\)", text.get("transform") or "rotate(0 0 0)")
        angle, about = float(turned[1]), (float(turned[2]), float(turned[3]))
        yield text.text, rotate(upright, angle, origin=about)


def test_words_stand_inside_their_piece_or_beside_it_with_a_leader_and_on_no_line(order):
    drawing = ElementTree.fromstring(FILE_WRITERS["pieces.svg"](order))
    groups = [group for group in drawing.iter(f"{SVG}g") if group.get("id")]
    assert len(groups) == len(order.garment.pieces)
    outlines = {
        group.get("id"): Polygon(points(next(p.get("d") for p in group.iter(f"{SVG}path")))) for group in groups
    }
    for group in groups:
        name, lines = group.get("id"), lines_of(group)
        outline = outlines[name]
        words = list(boxes_of(group))
        assert name.upper() in [text for text, _ in words]
        for text, room in words:
            if outline.contains(room):
                assert all(not line.intersects(room) for line in lines), f"{name}: {text} lies on a line"
            else:
                assert not outline.intersects(room), f"{name}: {text} lies across its cut line"
                assert all(not other.intersects(room) for other in outlines.values()), f"{name}: on another piece"
                leaders = [line for line in lines if not outline.contains(line) and line.distance(room) < 60]
                assert any(line.intersects(outline) for line in leaders), f"{name}: no leader to {text}"


def test_every_label_says_piece_cut_cloth_whose_when_and_allowances(order):
    for piece in order.garment.pieces:
        said = text_of(piece, Tag.of(order.recipe, order.garment, 3, DAY), order.recipe.unit)
        assert said[0] == piece.name.upper()
        assert said[1].startswith(f"cut {piece.cut}")
        assert ("on the fold" in said[1]) == piece.on_fold
        assert piece.cloth.value in said[1]
        text = " ".join(said)
        assert order.recipe.name in text
        assert "version 3 · 26 November 2026" in text
        assert "allowance" in text


def test_a_label_names_every_allowance_that_differs():
    recipe = Recipe.model_validate(
        {"figure": {"measures": {"bust_girth": 920, "waist_girth": 740}}, "bodice": {"kind": "quarters"},
         "lower": {"kind": "circle"},
         "allowances": {"side": 20, "waist": 10, "zip": 15, "armhole": 10, "neck": 6, "shoulder": 10}}
    )  # fmt: skip
    garment = make_up(recipe)
    front = text_of(garment.piece("bodice front"), Tag(), Unit.CM)
    assert front[:2] == ("BODICE FRONT", "cut 1 on the fold · cloth")
    assert front[2] == "allowances 1.0 cm; side 2.0 cm; neckline 0.6 cm"


def test_the_fold_is_never_drawn_as_a_cut(order):
    """The cut line of a piece on the fold leaves out the fold, which has its own line, bracket and word."""
    drawing = ElementTree.fromstring(FILE_WRITERS["pieces.svg"](order))
    for group in drawing.iter(f"{SVG}g"):
        [piece] = [p for p in order.garment.pieces if p.name == group.get("id")]
        paths = {path.get("class"): path.get("d") for path in group.iter(f"{SVG}path")}
        if not piece.on_fold:
            assert "fold" not in paths
            assert paths["cut-line"].endswith("Z")
            continue
        folds = [LineString(points(p.get("d"))) for p in group.iter(f"{SVG}path") if p.get("class") == "fold"]
        for cut in (p.get("d") for p in group.iter(f"{SVG}path") if p.get("class") == "cut-line"):
            assert not cut.endswith("Z")
            assert all(LineString(points(cut)).intersection(fold.buffer(0.01)).length < 0.2 for fold in folds)
        narrow = min(piece.seam_line.box[2] - piece.seam_line.box[0], piece.seam_line.box[3] - piece.seam_line.box[1])
        if narrow > 80 and piece.what.layer == "outer":
            assert "place on the fold" in [text for text, _ in boxes_of(group)]


def test_the_grain_lies_inside_its_piece_and_bands_have_it_along(order):
    for piece in order.garment.pieces:
        start, end = piece.grain
        outline = Polygon([tuple(place) for place in piece.seam_line.flatten(0.1)])
        assert outline.buffer(0.1).contains(LineString([tuple(start), tuple(end)])), piece.name
        left, bottom, right, top = outline.bounds
        if piece.what.section in ("waistband", "belt band", "neck band", "elastic casing", "stand collar"):
            along, up = abs(end.x - start.x), abs(end.y - start.y)
            if "roll collar" in piece.name:
                assert along == approx(up), "it is cut on the bias"
            else:
                assert (right - left > top - bottom) == (along > up), piece.name


def test_drill_points_lie_just_inside_their_darts(order):
    """Common practice: about 1 cm short of the point, so that the stitching covers the hole."""
    for piece in order.garment.pieces:
        places = [Point(*place) for place in drill_points(piece)]
        darts = [dart for dart in piece.darts if not dart.pleat]
        for dart in darts:
            legs = [[tuple(leg.start), *(tuple(s.end) for s in leg)] for leg in piece.dart_leg_paths(dart)]
            wedge = Polygon([*legs[0], *legs[1][::-1][1:]]).buffer(0.2)
            inside = [place for place in places if wedge.contains(place)]
            assert any(place.distance(Point(*dart.apex)) == approx(10, abs=0.01) for place in inside), piece.name


TAPED = ["drafted-proportional", "jumpsuit", "pinafore"]
SCALE = 2.0
"""Pixels a mm."""


@pytest.mark.parametrize("name", TAPED)
def test_the_pages_taped_together_are_the_large_sheet_words_and_all(name):
    """External: pdfium draws both PDFs; each page, cut along its frame, is laid where its name says, and differs in no
    more than stray pixels from the large sheet. Every word of the sheet is on some page whole or in parts."""
    recipe = Recipe.model_validate_json(next(p for p in EXAMPLES if p.name.startswith(name)).read_text())
    made = Order(recipe, make_up(recipe), version=3, day=DAY)
    drawn, width, height = sheet(made.garment, Tag.of(recipe, made.garment, 3, DAY), recipe.unit)
    tiles = tiles_for(drawn, width, height, Paper.A4)
    large = rendered(FILE_WRITERS["pattern-large.pdf"](made))[0]
    pages = rendered(FILE_WRITERS["pattern.pdf"](made))[1:]
    assert len(pages) == len(tiles)
    taped = np.full((round(height * SCALE), round(width * SCALE)), 255, np.uint8)
    top = round(MARGIN * SCALE)
    inner = 3  # pixels left off all round, where frames and crosses are
    for page, tile in zip(pages, tiles, strict=True):
        field = page[top : page.shape[0] - top, top : page.shape[1] - top]
        y, x = round((height - tile.top) * SCALE), round(tile.left * SCALE)
        high, wide = min(field.shape[0], taped.shape[0] - y), min(field.shape[1], taped.shape[1] - x)
        taped[y : y + high, x : x + wide] = np.minimum(taped[y : y + high, x : x + wide], field[:high, :wide])
    sheet_only = large[large.shape[0] - round(height * SCALE) :, : taped.shape[1]]
    # frames and crosses are on the pages alone, so what is asked is that nothing of the sheet is missing
    dark = sheet_only < 128
    near = np.minimum.reduce([np.roll(taped, (dy, dx), (0, 1)) for dy in range(-2, 3) for dx in range(-2, 3)])
    missing = dark & (near >= 200)
    missing[:inner], missing[-inner:], missing[:, :inner], missing[:, -inner:] = False, False, False, False
    assert dark.sum() > 10_000
    assert missing.sum() <= 0.0005 * dark.sum()


def rendered(content):
    """The pages of a PDF as grey pictures."""
    with pypdfium2.PdfDocument(content) as pdf:
        return [page.render(scale=SCALE * 25.4 / 72, grayscale=True).to_numpy().squeeze().copy() for page in pdf]


@pytest.mark.parametrize("paper", list(Paper))
def test_nothing_is_printed_near_the_edge_of_the_paper(paper):
    """A printer leaves 5 mm white: nothing, no page name and no cross, lies there."""
    recipe = Recipe.model_validate_json(EXAMPLES[0].read_text())
    content = FILE_WRITERS["pattern.pdf"](Order(recipe, make_up(recipe), Printing(paper), 3, DAY))
    for page in rendered(content):
        white = round(5 * SCALE) - 1
        for side in (page[:white], page[-white:], page[:, :white], page[:, -white:]):
            assert side.min() > 200


@pytest.mark.parametrize("name", TAPED)
def test_the_map_of_the_pages_lies_clear_of_the_test_square(name):
    """External: pdfplumber finds every page's frame on the first page above the 100 mm square and inside the paper."""
    recipe = Recipe.model_validate_json(next(p for p in EXAMPLES if p.name.startswith(name)).read_text())
    content = FILE_WRITERS["pattern.pdf"](Order(recipe, make_up(recipe)))
    with pdfplumber.open(io.BytesIO(content)) as pdf:
        page, count = pdf.pages[0], len(pdf.pages) - 1
        hundred = 100 * 72 / 25.4
        [square] = [r for r in page.rects if abs(r["width"] - hundred) < 0.1 and abs(r["height"] - hundred) < 0.1]
        frames = [r for r in page.rects if r is not square]
        assert len(frames) >= count, "a straight band is a rectangle too"
        for frame in frames:
            assert frame["bottom"] <= square["top"] + 0.1
            assert frame["x1"] <= float(page.width) - 9 * 72 / 25.4


def test_no_page_with_only_words_is_dropped():
    """A label beside the last piece lies on a page of its own, and that page is printed."""
    recipe = Recipe.model_validate_json(next(p for p in EXAMPLES if p.name.startswith("jumpsuit")).read_text())
    garment = make_up(recipe)
    drawn, width, height = sheet(garment, Tag.of(recipe, garment), recipe.unit)
    field = (210 - 2 * MARGIN, 297 - 2 * MARGIN)
    tiles = tiles_for(drawn, width, height, Paper.A4)
    fields = [box(t.left, t.top - field[1], t.left + field[0], t.top) for t in tiles]
    for item in drawn:
        for words in item.words:
            at = item.placement.place(words.at)
            assert any(tile.buffer(0.01).contains(Point(*at)) for tile in fields), words.lines


def test_gathered_edges_have_their_quarter_marks_on_both_sides():
    """Worked out here: a tier 1.6 times as long as what it hangs from has its marks at the same shares."""
    recipe = Recipe.model_validate_json(next(p for p in EXAMPLES if p.name.startswith("tiered")).read_text())
    garment = make_up(recipe)
    seen = 0
    for above, below in pairwise([f"tier {k} front" for k in (1, 2, 3)]):
        shares = []
        for name, edge in ((above, "hem"), (below, "waist")):
            piece = garment.piece(name)
            long = piece.edge(edge).drawn_length
            shares.append(sorted(min(n.at / long, 1 - n.at / long) for n in piece.notches if n.edge == edge))
        assert shares[0] == approx(shares[1], abs=1e-6)
        assert [round(s, 3) for s in shares[0]] == [0.25, 0.25, 0.5]
        seen += 1
    assert seen == 2


def test_the_dress_stands_beside_the_test_square_and_the_pattern_is_whole_without_it(monkeypatch):
    recipe = a_recipe()
    order = Order(recipe, make_up(recipe))
    with pdfplumber.open(io.BytesIO(FILE_WRITERS["pattern.pdf"](order))) as pdf:
        [page] = pdf.pages[:1]
        pages, drawn = len(pdf.pages), [*page.curves, *page.lines]
    beside = [
        one for one in drawn if one["x0"] > 120 * POINTS_PER_MM and one["bottom"] > page.height - 130 * POINTS_PER_MM
    ]
    assert len(beside) > 15
    assert all(one["x1"] < page.width - 9 * POINTS_PER_MM for one in beside), "within what a printer prints"
    monkeypatch.setattr("gentle_hem.core.dressed.drawn_dress", lambda *_: 1 / 0)
    with pdfplumber.open(io.BytesIO(FILE_WRITERS["pattern.pdf"](Order(recipe, make_up(recipe))))) as pdf:
        assert len(pdf.pages) == pages
        assert "The dress cannot be drawn here" in pdf.pages[0].extract_text()
        assert not [one for one in pdf.pages[0].curves if one["x0"] > 120 * POINTS_PER_MM]
