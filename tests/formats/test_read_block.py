"""Blocks brought in: our own files come back to a tenth of a millimetre; others' are taken or refused in a sentence."""

import io
import json

import ezdxf
import pytest
from pytest import approx

from conftest import drafted_recipe, own_recipe
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.steps.princess import PrincessSeam
from gentle_hem.formats.files import FILE_WRITERS, Order
from gentle_hem.formats.outlines import UnreadableError
from gentle_hem.formats.read_block import as_half, read_block

HALF = [(0, 0), (200, 0), (240, 170), (195, 200), (190, 300), (200, 360), (75, 385), (40, 320), (0, 310)]
"""A bodice front in millimetres, y up: waist, side, armhole (in chords), shoulder, neckline (in chords), centre."""


BOMB = b'<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><svg xmlns="http://www.w3.org/2000/svg">&b;</svg>'


def svg_of(points, scale=1.0, inner="", head='width="400mm" height="400mm" viewBox="0 0 400 400"'):
    data = " ".join(f"{x * scale:.2f},{-y * scale:.2f}" for x, y in points)
    return f'<svg xmlns="http://www.w3.org/2000/svg" {head}><polygon points="{data}"/>{inner}</svg>'.encode()


def perimeter(outline):
    return sum(edge.path.length for edge in outline.edges)


WHOLE = sum(((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2) ** 0.5 for a, b in zip(HALF, HALF[1:] + HALF[:1], strict=True))


@pytest.mark.parametrize("school", ["quarters", "quarters_cm", "two_lengths", "proportional", "body_length"])
@pytest.mark.parametrize("name", ["pieces.svg", "pieces.dxf", "garment.json"])
def test_a_block_sent_out_and_brought_in_again_measures_the_same(school, name):
    recipe = drafted_recipe(school)
    garment = make_up(recipe)
    found = {o.name: o for o in read_block(name, FILE_WRITERS[name](Order(recipe, garment)))}
    halves = {}
    for where in ("front", "back"):
        outline = found[f"bodice {where}"]
        halves[where] = as_half(outline, [edge.guess for edge in outline.edges])
    again = make_up(Recipe.model_validate({"bodice": {"kind": "own", **halves}, "lower": {"kind": "circle"}}))
    for where in ("front", "back"):
        before, after = garment.piece(f"bodice {where}"), again.piece(f"bodice {where}")
        for edge in before.edges:
            assert after.stitched_length(edge.name) == approx(before.stitched_length(edge.name), abs=0.1), edge.name
        assert [d.intake for d in after.darts_of("waist")] == approx(
            [d.intake for d in before.darts_of("waist")], abs=0.1
        )


def test_an_own_block_is_styled_like_any_other():
    recipe = own_recipe()
    styled = recipe.model_copy(
        update={"steps": (PrincessSeam(on="front", start="armhole"), PrincessSeam(on="back", start="shoulder"))}
    )
    names = [piece.name for piece in make_up(styled).pieces]
    assert names[:4] == ["bodice centre front", "bodice side front", "bodice centre back", "bodice side back"]


def test_a_polygon_from_elsewhere_is_cut_at_its_corners():
    [outline] = read_block("block.svg", svg_of(HALF))
    assert perimeter(outline) == approx(WHOLE, abs=0.1)
    assert len(outline.edges) >= 5


def test_inches_and_nested_transforms_are_taken_at_their_true_size():
    inches = svg_of(HALF, 1 / 25.4, head='width="10in" height="10in" viewBox="0 0 10 10"')
    assert perimeter(read_block("in.svg", inches)[0]) == approx(WHOLE, abs=0.6)
    data = " ".join(f"{x / 2:.2f},{-y / 2:.2f}" for x, y in HALF)
    nested = (
        '<svg xmlns="http://www.w3.org/2000/svg" width="400mm" height="400mm" viewBox="0 0 400 400">'
        f'<g transform="translate(30 40)"><g transform="scale(2) rotate(90)"><polygon points="{data}"/></g></g></svg>'
    )
    assert perimeter(read_block("nested.svg", nested.encode())[0]) == approx(WHOLE, abs=0.6)


def dxf_of(points, units=4, scale=1.0, closed=True, as_lines=False):
    drawing = ezdxf.new()
    drawing.header["$INSUNITS"] = units
    places = [(x * scale, y * scale) for x, y in points]
    sheet = drawing.modelspace()
    if as_lines:
        for a, b in zip(places, places[1:] + places[:1], strict=True):
            sheet.add_line(a, b)
    else:
        sheet.add_lwpolyline(places, close=closed)
    text = io.StringIO()
    drawing.write(text)
    return text.getvalue().encode()


@pytest.mark.parametrize(("units", "scale"), [(4, 1.0), (1, 1 / 25.4), (5, 0.1)])
def test_dxf_in_its_own_unit(units, scale):
    assert perimeter(read_block("a.dxf", dxf_of(HALF, units, scale))[0]) == approx(WHOLE, abs=0.01)


def test_single_lines_are_tied_into_an_outline():
    [outline] = read_block("a.dxf", dxf_of(HALF, as_lines=True))
    assert perimeter(outline) == approx(WHOLE, abs=0.01)


def test_several_pieces_come_largest_first():
    small = [(x / 2 + 500, y / 2) for x, y in HALF]
    data = " ".join(f"{x},{-y}" for x, y in small)
    found = read_block("two.svg", svg_of(HALF, inner=f'<polygon points="{data}"/>'))
    assert [round(perimeter(o)) for o in found] == [round(WHOLE), round(WHOLE / 2)]


def test_a_dart_cut_into_the_outline_is_found():
    notched = [HALF[0], (90, 0), (102, 120), (114, 0), *HALF[1:]]
    [outline] = read_block("a.svg", svg_of(notched))
    [dart] = outline.darts
    assert dart.intake == approx(24, abs=0.1)
    assert (dart.apex.x, dart.apex.y) == approx((102, 120), abs=0.1)


@pytest.mark.parametrize(
    ("name", "content", "part"),
    [
        ("a.svg", b"this is not a drawing", "not a readable SVG"),
        ("a.svg", b'<svg xmlns="http://www.w3.org/2000/svg"/>', "holds no lines"),
        ("a.svg", BOMB, "declares entities"),
        ("a.dxf", b"0\nSECTION\nnonsense", "not a readable DXF|no closed outline"),
        ("a.json", b"{}", "no list of pieces"),
        ("a.json", json.dumps({"pieces": [{"name": "x", "edges": [{"name": "a"}]}]}).encode(), "cannot be read"),
        ("a.doc", b"%DOC", "SVG, DXF, PDF and garment.json are accepted"),
        ("a.svg", b" " * 8_000_001, "larger than 8 MB"),
        ("a.dxf", dxf_of(HALF[:-2], closed=False), "The outline is open: its ends lie"),
        ("a.svg", svg_of(HALF, 30.0), "another unit"),
    ],
)  # fmt: skip
def test_what_cannot_be_taken_is_refused_in_a_sentence(name, content, part):
    with pytest.raises(UnreadableError, match=part):
        read_block(name, content)


def test_edges_must_be_named_once_each():
    half = own_recipe().model_dump(mode="json")["bodice"]["front"]
    half["edges"][0]["name"] = "side"
    with pytest.raises(ValueError, match="Name one edge the waist; 0 are"):
        Recipe.model_validate({"bodice": {"kind": "own", "front": half, "back": half}, "lower": {"kind": "circle"}})
