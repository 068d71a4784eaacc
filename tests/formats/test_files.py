"""Exported files read back by general-purpose libraries, against what the garment says of itself."""

import csv
import io
import json
import re
from math import hypot

import ezdxf
import pdfplumber
import pytest
import svgelements
from pytest import approx
from shapely import Point, Polygon

from conftest import a_recipe
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.formats.files import Order, write_all
from gentle_hem.formats.labels import Tag, sheet
from gentle_hem.formats.paper import Paper, Printing
from gentle_hem.formats.pdf import printed_sheet, tiles_for
from readers import dxf_length, outline_length

EVERYTHING = ["json", "svg", "dxf", "pdf", "csv"]


@pytest.fixture(
    scope="module",
    params=[{"sweep": 360}, {"sweep": 180, "pieces": 1}, {"sweep": 270, "pieces": 4, "back_dart": 20}],
)
def made(request):
    recipe = a_recipe(lower={"length": "41.5cm", **request.param})
    garment = make_up(recipe)
    return recipe, garment, write_all(Order(recipe, garment), EVERYTHING)


def edges_of(garment):
    return [(piece, edge) for piece in garment.pieces for edge in piece.edges]


def test_garment_json_states_lengths_that_its_points_have(made):
    _, garment, files = made
    document = json.loads(files["garment.json"])
    assert document["units"] == "mm"
    assert [piece["name"] for piece in document["pieces"]] == [piece.name for piece in garment.pieces]
    for piece in document["pieces"]:
        assert piece["seam_line"][0] == approx(piece["seam_line"][-1], abs=1e-6)
        assert piece["cut_line"][0] == approx(piece["cut_line"][-1], abs=1e-6)
        for edge in piece["edges"]:
            drawn = sum(
                hypot(b[0] - a[0], b[1] - a[1]) for a, b in zip(edge["points"], edge["points"][1:], strict=False)
            )
            assert drawn == approx(edge["drawn_length"], abs=0.1)
            mouths = sum(d["intake"] for d in piece["darts"] if d["edge"] == edge["name"])
            assert edge["length"] == approx(edge["drawn_length"] - mouths)
        for notch in piece["notches"]:
            [edge] = [e for e in piece["edges"] if e["name"] == notch["edge"]]
            assert 0 <= notch["at"] <= edge["drawn_length"]
    lengths = {(p["name"], e["name"]): e["length"] for p in document["pieces"] for e in p["edges"]}
    for seam in document["seams"]:
        for side in "ab":
            total = sum(lengths[ref["piece"], ref["edge"]] for ref in seam[side])
            assert seam[f"length_{side}"] == approx(total)


def test_recipe_json_makes_the_same_garment(made):
    recipe, garment, files = made
    again = Recipe.model_validate_json(files["recipe.json"])
    assert again == recipe
    assert make_up(again).pieces == garment.pieces


def test_svg_read_by_svgelements(made):
    """External: svgelements measures every seam line and the arcs in it."""
    _, garment, files = made
    drawing = svgelements.SVG.parse(io.BytesIO(files["pieces.svg"]), ppi=25.4)
    assert drawing.viewbox.width == approx(float(drawing.width), abs=0.01), "one user unit is one millimetre"
    groups = {group.id: group for group in drawing.select(lambda e: isinstance(e, svgelements.Group) and e.id)}
    for piece in garment.pieces:
        paths = list(groups[piece.name].select(lambda e: isinstance(e, svgelements.Path)))
        by_class = {}
        for path in paths:
            by_class.setdefault(path.values["class"], []).append(path)
        [seam] = by_class["seam-line"]
        [cut] = by_class["cut-line"]
        assert outline_length(seam) == approx(piece.seam_line.length, abs=0.1)
        assert outline_length(cut) == approx(piece.cut_line.length, abs=0.1)
        assert by_class["grain"]
        assert len(by_class.get("notch", [])) >= len(piece.notches)
        arcs = sum(part.length(error=1e-6) for part in seam if isinstance(part, svgelements.Arc))
        own = sum(s.length for s in piece.seam_line if hasattr(s, "radius"))
        assert arcs == approx(own, abs=0.1)


def test_dxf_read_by_ezdxf(made):
    """External: ezdxf reads blocks, layers, units and bulges (layers as in ASTM D6673, from memory)."""
    _, garment, files = made
    drawing = ezdxf.read(io.StringIO(files["pieces.dxf"].decode()))
    assert drawing.header["$INSUNITS"] == 4
    assert not drawing.audit().has_errors
    assert len(drawing.modelspace().query("INSERT")) == len(garment.pieces)
    for piece in garment.pieces:
        block = drawing.blocks.get(piece.name)
        for layer, path in (("14", piece.seam_line), ("1", piece.cut_line)):
            [line] = [e for e in block if e.dxf.layer == layer]
            assert line.closed
            assert dxf_length(line) == approx(path.length, abs=0.1)
        assert {e.dxf.layer for e in block} >= {"1", "14", "7", "15"}
        notches = [e for e in block if e.dxf.layer == "4"]
        assert len(notches) == sum(2 if n.double else 1 for n in piece.notches)


def test_plain_dxf_read_by_ezdxf(made):
    """External: ezdxf audits the R12 file, in which every line is straight chords within 0.1 mm and every notch lies on
    the cut line (layers and words as in ASTM D6673, from memory).
    """
    _, garment, files = made
    drawing = ezdxf.read(io.StringIO(files["pieces-plain.dxf"].decode()))
    assert drawing.dxfversion == "AC1009"
    assert not drawing.audit().has_errors
    for piece in garment.pieces:
        block = drawing.blocks.get(piece.name)
        assert {e.dxftype() for e in block} <= {"POLYLINE", "POINT", "TEXT"}
        for layer, path in (("14", piece.seam_line), ("1", piece.cut_line)):
            [line] = [e for e in block if e.dxf.layer == layer]
            places = [(v.dxf.location.x, v.dxf.location.y) for v in line.vertices]
            assert line.is_closed
            length = sum(hypot(b[0] - a[0], b[1] - a[1]) for a, b in zip(places, [*places[1:], places[0]], strict=True))
            assert length == approx(path.length, rel=2e-3)
            assert Polygon(places).area == approx(abs(path.signed_area), rel=2e-3)
        cut = Polygon([tuple(place) for place in piece.cut_line.flatten(0.05)]).exterior
        notches = [e for e in block if e.dxf.layer == "4"]
        assert len(notches) == sum(2 if n.double else 1 for n in piece.notches)
        for notch in notches:
            assert cut.distance(Point(notch.dxf.location.x, notch.dxf.location.y)) < 1.5
        words = [e.dxf.text for e in block if e.dxftype() == "TEXT"]
        assert f"Piece Name: {piece.name}" in words
        assert f"Quantity: {piece.cut}" in words


POINT = 25.4 / 72


def curve_length(drawn):
    """Length of a path read by pdfplumber, from its own move, line and curve operators."""
    total, here, start = 0.0, None, None
    for operator, *points in drawn["path"]:
        if operator == "m":
            here = start = points[0]
        elif operator == "l":
            total += hypot(points[0][0] - here[0], points[0][1] - here[1])
            here = points[0]
        elif operator == "c":
            ends = [here, *points]
            before = here
            for i in range(1, 201):
                t = i / 200
                weights = ((1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t**3)
                now = tuple(sum(w * p[axis] for w, p in zip(weights, ends, strict=True)) for axis in (0, 1))
                total += hypot(now[0] - before[0], now[1] - before[1])
                before = now
            here = points[-1]
        elif operator == "h":
            total += hypot(start[0] - here[0], start[1] - here[1])
    if here != start:  # an outline on the fold is drawn open: the fold itself closes it
        total += hypot(start[0] - here[0], start[1] - here[1])
    return total * POINT


def test_large_pdf_is_true_size(made):
    """External: pdfplumber measures every outline on the large sheet and the test square."""
    _, garment, files = made
    with pdfplumber.open(io.BytesIO(files["pattern-large.pdf"])) as pdf:
        [page] = pdf.pages
        drawn = sorted(curve_length(c) for c in [*page.curves, *page.lines, *page.rects])
        for piece in garment.pieces:
            for path in (piece.seam_line, piece.cut_line):
                assert min(abs(length - path.length) for length in drawn) < 0.1, piece.name
        assert (
            min(abs(rect["width"] * POINT - 100.0) + abs(rect["height"] * POINT - 100.0) for rect in page.rects) < 0.01
        )


@pytest.mark.parametrize("paper", [Paper.A4, Paper.LETTER, Paper.LEGAL, Paper.A3])
def test_tiled_pdf_has_a_test_square_a_scale_and_a_page_for_every_tile(made, paper):
    recipe, garment, _ = made
    files = write_all(Order(recipe, make_up(recipe), Printing(paper)), ["pdf"])
    _, tiles, _ = printed_sheet(garment, Printing(paper), Tag.of(recipe, garment), recipe.unit)
    with pdfplumber.open(io.BytesIO(files["pattern.pdf"])) as pdf:
        assert len(pdf.pages) == len(tiles) + 1
        first = pdf.pages[0]
        assert (float(first.width) * POINT, float(first.height) * POINT) == approx(paper.size, abs=0.1)
        squares = [
            r for r in first.rects if abs(r["width"] * POINT - 100) < 0.01 and abs(r["height"] * POINT - 100) < 0.01
        ]
        assert len(squares) == 1
        assert any(abs(line["width"] * POINT - 101.6) < 0.01 for line in first.lines), "4 in scale"
        text = first.extract_text()
        assert all(f"{piece.name}: cut {piece.cut}" in text for piece in garment.pieces)
        assert all(tile.name in text for tile in tiles)
        assert tiles[0].name in pdf.pages[1].extract_text()


def test_every_bit_of_every_outline_is_on_some_tile(made):
    recipe, garment, _ = made
    drawn, width, height = sheet(garment, Tag.of(recipe, garment), recipe.unit)
    tiles = tiles_for(drawn, width, height, Paper.A4)
    for item in drawn:
        for place in item.piece.cut_line.placed(item.placement).flatten(1.0):
            assert any(t.left <= place.x <= t.left + 190 and t.top - 277 <= place.y <= t.top for t in tiles)


def test_cut_list(made):
    _, garment, files = made
    rows = list(csv.DictReader(io.StringIO(files["cut-list.csv"].decode())))
    assert [row["piece"] for row in rows] == [piece.name for piece in garment.pieces]
    for row, piece in zip(rows, garment.pieces, strict=True):
        left, bottom, right, top = piece.cut_line.box
        assert float(row["width"]) == approx(right - left, abs=0.06)
        assert float(row["height"]) == approx(top - bottom, abs=0.06)
        assert row["fold"] == ("yes" if piece.on_fold else "no")


def test_names_that_are_awkward_in_files():
    recipe = a_recipe(name='Ünïcode <dress> & "frills" ½', figure={"name": "Žofie Ķēniņa"})
    files = write_all(Order(recipe, make_up(recipe)), EVERYTHING)
    svgelements.SVG.parse(io.BytesIO(files["pieces.svg"]))
    assert not ezdxf.read(io.StringIO(files["pieces.dxf"].decode())).audit().has_errors
    with pdfplumber.open(io.BytesIO(files["pattern.pdf"])) as pdf:
        assert "Ünïcode <dress>" in pdf.pages[0].extract_text()


def test_a_stop_stands_on_the_first_page_and_on_every_label():
    recipe = a_recipe(lower={"seam": "78cm"})
    garment = make_up(recipe)
    files = write_all(Order(recipe, garment), ["pdf", "svg", "dxf"])
    for name in ("pattern.pdf", "pattern-large.pdf"):
        with pdfplumber.open(io.BytesIO(files[name])) as pdf:
            first = pdf.pages[0].extract_text()
        assert "NOT READY TO CUT" in first
        assert "The waist seam does not meet" in first
    for name in ("pieces.svg", "pieces.dxf"):
        assert files[name].decode().count("NOT READY:") == len(garment.pieces)
        assert "seam does not meet" in " ".join(re.findall(r">([^<]+)<", files[name].decode())) or name == "pieces.dxf"
    ready = a_recipe()
    plain = write_all(Order(ready, make_up(ready)), ["pdf", "svg"])
    with pdfplumber.open(io.BytesIO(plain["pattern.pdf"])) as pdf:
        assert "NOT READY" not in pdf.pages[0].extract_text()
    assert b"NOT READY" not in plain["pieces.svg"]
