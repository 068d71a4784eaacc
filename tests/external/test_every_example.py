"""Every example the program ships with, measured by shapely, svgelements, ezdxf and pdfplumber."""

import csv
import io
import json
from pathlib import Path as File

import ezdxf
import pdfplumber
import pytest
import svgelements
from pytest import approx
from shapely import Point as ShapelyPoint

from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.pattern import Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.formats.files import Order, write_all
from long import examples
from readers import dxf_length, outline_length, polygon

EXAMPLES = sorted((File(__file__).parents[2] / "examples").glob("*.recipe.json"))


@pytest.fixture(scope="module", params=EXAMPLES, ids=lambda path: path.name.split(".")[0])
def made(request):
    recipe = Recipe.model_validate_json(request.param.read_text())
    return recipe, make_up(recipe)


@pytest.fixture(scope="module", params=EXAMPLES[:: examples(3, 1)], ids=lambda path: path.name.split(".")[0])
def some(request):
    """Files take far longer than the garment: those of one example in three, in the long run of all."""
    recipe = Recipe.model_validate_json(request.param.read_text())
    return recipe, make_up(recipe)


def test_outlines_are_simple_and_the_cut_line_holds_the_seam_line(made):
    """External: shapely's validity and containment; area by Green's theorem against shapely's."""
    _, garment = made
    for piece in garment.pieces:
        seam, cut = polygon(piece.seam_line), polygon(piece.cut_line)
        assert seam.is_valid, piece.name
        assert cut.is_valid, piece.name
        assert abs(piece.seam_line.signed_area) == approx(seam.area, rel=1e-3)
        outside = seam.difference(cut.buffer(0.05)).area
        assert outside < 1, f"{piece.name}: {outside:.2f} mm² of it would be cut away"


def test_no_corner_is_cut_as_a_spike(made):
    """Common practice: the cut line stays near its allowance, but for the roof of a wide dart."""
    _, garment = made
    for piece in garment.pieces:
        widest = max(edge.allowance for edge in piece.edges)
        roof = max((dart.intake / 3 for dart in piece.darts), default=0.0)
        seam = polygon(piece.seam_line)
        farthest = max(seam.distance(ShapelyPoint(*place)) for place in piece.cut_line.flatten(0.5))
        assert farthest <= max(1.75 * widest, widest + roof), piece.name


def test_nothing_marked_on_a_piece_lies_off_it(made):
    _, garment = made
    for piece in garment.pieces:
        cloth = polygon(piece.cut_line).buffer(0.1)
        for dart in piece.darts:
            assert cloth.contains(ShapelyPoint(*dart.apex)), f"{piece.name}: the point of a dart"
            mouth = piece.edge(dart.edge)
            assert -0.01 <= dart.at <= mouth.drawn_length - dart.intake + 0.01
        for notch in piece.notches:
            assert -1e-6 <= notch.at <= piece.edge(notch.edge).drawn_length + 1e-6
        assert len({edge.name for edge in piece.edges}) == len(piece.edges)


def test_every_seam_walks_and_no_side_is_left_over(made):
    _, garment = made
    for walked in garment.seams:
        assert walked.verdict.fits, walked.seam.name
    stops = [f.code for f in garment.findings if f.severity is Severity.STOP]
    assert stops == [], "an example is ready to cut"
    sewn = {(stretch.piece, stretch.edge) for walked in garment.seams for stretch in walked.seam.stretches}
    for piece in garment.pieces:
        for edge in piece.edges:
            told = (piece.what, edge.name) in sewn or edge.finished is not None
            assert told or edge.allowance == 0, f"{piece.name}, {edge.name} is sewn to nothing"
            if edge.role in (Role.SIDE, Role.PRINCESS, Role.SHOULDER, Role.CROTCH, Role.INSIDE_LEG):
                assert (piece.what, edge.name) in sewn or piece.cloth == "interfacing", f"{piece.name}, {edge.name}"


def test_the_drawing_has_the_lengths_the_garment_says(made):
    """External: svgelements and ezdxf measure the seam lines and cut lines of every piece."""
    recipe, garment = made
    files = write_all(Order(recipe, make_up(recipe)), ["svg", "dxf"])
    drawing = svgelements.SVG.parse(io.BytesIO(files["pieces.svg"]), ppi=25.4)
    groups = {group.id: group for group in drawing.select(lambda e: isinstance(e, svgelements.Group) and e.id)}
    blocks = ezdxf.read(io.StringIO(files["pieces.dxf"].decode()))
    assert not blocks.audit().has_errors
    for piece in garment.pieces:
        paths = list(groups[piece.name].select(lambda e: isinstance(e, svgelements.Path)))
        lines = {style: [p for p in paths if p.values["class"] == style] for style in ("seam-line", "cut-line")}
        block = {entity.dxf.layer: entity for entity in blocks.blocks.get(piece.name)}
        for style, layer, path in (("seam-line", "14", piece.seam_line), ("cut-line", "1", piece.cut_line)):
            assert outline_length(*lines[style]) == approx(path.length, abs=0.15), piece.name
            assert dxf_length(block[layer]) == approx(path.length, abs=0.3), piece.name


def test_papers_and_lists_name_every_piece(some):
    """External: pdfplumber reads the sheet; the cut list is a table; the recipe makes the same pieces again."""
    recipe, garment = some
    files = write_all(Order(recipe, make_up(recipe)), ["json", "pdf", "csv"])
    with pdfplumber.open(io.BytesIO(files["pattern-large.pdf"])) as sheet:
        words = " ".join(page.extract_text() for page in sheet.pages)
    rows = list(csv.DictReader(io.StringIO(files["cut-list.csv"].decode("utf-8-sig"))))
    listed = " ".join(value for row in rows for value in row.values() if value)
    again = make_up(Recipe.model_validate_json(files["recipe.json"]))
    document = json.loads(files["garment.json"])
    assert [piece["name"] for piece in document["pieces"]] == [piece.name for piece in again.pieces]
    turned = words.replace("\n", " ")[::-1]  # words beside the grain of a narrow piece are read from their end
    for piece in garment.pieces:
        assert piece.name.upper() in words or piece.name.upper() in turned
        assert piece.name in listed
