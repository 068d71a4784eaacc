"""The documents, read back by pdfplumber: the workings, the cut sheet and the client's page."""

import io
import json
import re
from datetime import date, datetime
from pathlib import Path

import pdfplumber
import pytest
from pytest import approx

from gentle_hem.core.cloth.lay import roles_of
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.compare import compare_schools
from gentle_hem.core.drafting import BACK, FRONT, laid_open
from gentle_hem.core.findings import Severity
from gentle_hem.core.geometry import Point
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.start import bodice_choices
from gentle_hem.core.units import Tape, Unit, format_length, tape
from gentle_hem.core.workings import speak
from gentle_hem.formats.client_page import Agreed, to_client_page
from gentle_hem.formats.cut_sheet import SCALES
from gentle_hem.formats.files import FILE_WRITERS, Order
from gentle_hem.formats.labels import allowances_of
from long import examples

EXAMPLES = sorted(Path("examples").glob("*.recipe.json"))[:: examples(3, 1)]
POINT = 25.4 / 72
DAY = date(2026, 11, 27)


def read(example, **changes):
    recipe = read_recipe(json.loads(Path("examples", f"{example}.recipe.json").read_text()))
    return recipe.model_copy(update=changes) if changes else recipe


def pages_of(content):
    with pdfplumber.open(io.BytesIO(content)) as pdf:
        return [(page.extract_text(), page) for page in pdf.pages]


def words(content):
    """All of a document's words on one line, so that where a line is broken does not matter."""
    return re.sub(r"\s+", " ", " ".join(text for text, _ in pages_of(content)))


def squeezed(text):
    return re.sub(r"\s+", "", text)


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name)
def test_the_workings_say_every_number_and_every_step_with_its_letters(path):
    recipe = read_recipe(json.loads(path.read_text()))
    garment = make_up(recipe)
    content = FILE_WRITERS["workings.pdf"](Order(recipe, garment))
    said = words(content)
    for working in garment.workings:
        assert all(word in said for word in working.label.split())  # a long one is broken in its column
        assert speak(working.value, recipe.unit, working.kind) in said
    for k, step in enumerate(garment.draft, 1):
        half = step.half.capitalize()
        assert re.search(rf"\b{k} {half}: {re.escape(step.text(recipe.unit)[:24])}", said), step.text(recipe.unit)


def test_the_letters_stand_on_the_drawing_where_the_draft_has_them():
    """Golden: each letter is printed just right of and above its place, drawn to one scale from the draft itself."""
    recipe = read("drafted-two-lengths")
    garment = make_up(recipe)
    page = pages_of(FILE_WRITERS["workings.pdf"](Order(recipe, garment)))[0][1]
    laid = laid_open(garment.draft)
    dots = sorted((c["x0"] + c["x1"]) / 2 * POINT for c in page.curves if c["width"] * POINT < 1.1)
    places = sorted({round(laid.put[s.half].place(p).x, 2) for s in garment.draft for p in s.points.values()})
    scale = (dots[-1] - dots[0]) / (places[-1] - places[0])
    (told,) = re.findall(r"at 1 : (\d+\.\d)", page.extract_text())
    assert 1 / scale == approx(float(told), rel=0.02)
    for place in places:
        assert min(abs(dots[0] + (place - places[0]) * scale - dot) for dot in dots) < 0.2
    centres = {laid.put[half].place(Point(0, 0)).x for half in (FRONT, BACK)}
    assert centres == {0.0, laid.width}
    assert laid.put[FRONT].place(Point(0, 0)).x == 0.0, "the front lies on the left, the back turned over on the right"
    letters = [char for char in page.chars if "Bold" in char["fontname"] and abs(char["size"] * POINT - 2.6) < 0.01]
    wanted = [name for step in garment.draft for name in step.points]
    assert sorted(c["text"] for c in letters if c["text"].strip()) == sorted("".join(wanted))


def test_the_schools_are_compared_by_the_numbers_they_draft():
    recipe = read("drafted-two-lengths")
    garment = make_up(recipe)
    said = squeezed(words(FILE_WRITERS["workings.pdf"](Order(recipe, garment))))
    other = dict(bodice_choices(recipe, garment))["proportional"]
    compared = compare_schools(recipe, other)
    row = next(row for row in compared.rows if row.label == "back armhole")
    assert "BodicebyproportionBodiceonthe" in said or "proportion" in said
    line = said[said.index("backarmhole") :][:90]
    assert line.startswith(squeezed(f"back armhole {format_length(row.mine, recipe.unit)}"))
    assert squeezed(format_length(row.theirs, recipe.unit)) in line
    assert row.mine != approx(row.theirs, abs=1)


def test_a_measured_bodice_has_no_draft_and_no_schools_in_its_workings():
    recipe = read("full-circle")
    said = words(FILE_WRITERS["workings.pdf"](Order(recipe, make_up(recipe))))
    assert "Other schools" not in said
    assert "The draft" not in said
    assert "Every number" in said


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name)
def test_the_cut_sheet_says_what_is_cut_and_what_is_open(path):
    recipe = read_recipe(json.loads(path.read_text()))
    garment = make_up(recipe)
    bought = {role: f"{k + 1}.25 m" for k, role in enumerate(roles_of(garment))}
    said = squeezed(words(FILE_WRITERS["cut-sheet.pdf"](Order(recipe, garment, bought=bought))))
    for k, piece in enumerate(garment.pieces, 1):
        assert squeezed(f"{k}{piece.name}{piece.cut}") in said
        first = squeezed(allowances_of(piece, recipe.unit).split(";")[0].split(",")[0])
        assert first in said  # what wraps stands beside what wraps in the next column
    for text in bought.values():
        assert squeezed(text) in said
    for finding in garment.findings:
        assert squeezed(finding.text(recipe.unit)) in said
    assert squeezed("The rules of the place you work in come before these.") in said
    assert ("NOTREADYTOCUT" in said) == any(f.severity is Severity.STOP for f in garment.findings)


def test_a_stop_stands_at_the_top_of_the_cut_sheet_and_of_the_workings():
    recipe = read("full-circle")
    lower = recipe.lower.model_copy(update={"seam": 300.0})
    recipe = recipe.model_copy(update={"lower": lower})
    garment = make_up(recipe)
    assert not garment.is_ready_to_cut
    for name, says in (("cut-sheet.pdf", "NOT READY TO CUT"), ("workings.pdf", "Not ready to cut")):
        first = pages_of(FILE_WRITERS[name](Order(recipe, garment)))[0][0]
        assert says in "\n".join(first.splitlines()[:8])


@pytest.mark.parametrize("name", ["mermaid-gown", "half-circle-inches", "jumpsuit"])
def test_the_pieces_are_drawn_at_the_scale_that_is_said(name):
    """External: pdfplumber measures the heights of the cut pieces on the page."""
    recipe = read(name)
    garment = make_up(recipe)
    made = pages_of(FILE_WRITERS["cut-sheet.pdf"](Order(recipe, garment)))
    [(told, page)] = [(m, page) for text, page in made if (m := re.search(r"The pieces, 1 : (\d+)", text))]
    scale = int(told[1])
    assert scale in SCALES
    heights = [curve["height"] * POINT * scale for curve in [*page.curves, *page.rects]]
    tall = max(garment.pieces, key=lambda piece: piece.cut_line.box[3] - piece.cut_line.box[1])
    _, bottom, _, top = tall.cut_line.box
    assert min(abs(height - (top - bottom)) for height in heights) < 0.5 + 0.002 * (top - bottom)


def test_bias_and_elastic_are_said_with_their_lengths():
    recipe = read("pinafore")
    garment = make_up(recipe)
    trims = [piece for piece in garment.pieces if "binding" in piece.name]
    said = words(FILE_WRITERS["cut-sheet.pdf"](Order(recipe, garment)))
    for piece in trims:
        longest = max(edge.drawn_length for edge in piece.edges)
        assert f"Bias, {piece.name} {format_length(longest, recipe.unit)} long" in said
    bound = read_recipe(
        {**recipe.model_dump(mode="json"), "trims": [{"kind": "bias_binding", "edge": "hem", "width": 8}]}
    )
    made = make_up(bound)
    (piece,) = [piece for piece in made.pieces if "binding" in piece.name]
    longest = max(edge.drawn_length for edge in piece.edges)
    said = words(FILE_WRITERS["cut-sheet.pdf"](Order(bound, made)))
    assert (
        f"Bias, {piece.name} {format_length(longest, bound.unit)} long, {format_length(32.0, bound.unit)} wide" in said
    )


AGREED = Agreed("Storm queen's gown", "Ada Brandt", "the winter ball", date(2027, 1, 30), None, DAY)


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda path: path.name)
def test_the_clients_page_is_one_page_and_says_nothing_of_how_it_is_made(path):
    recipe = read_recipe(json.loads(path.read_text()))
    order = Order(recipe, make_up(recipe))
    content = to_client_page(recipe, order.garment, order.dress, AGREED, tape(recipe.unit))
    made = pages_of(content)
    assert len(made) == 1
    said = words(content)
    assert "for Ada Brandt" in said
    assert "to be ready on 30 January 2027" in said
    assert "allowance" not in said
    assert "next fitting" not in said
    if order.dress.hem is not None:
        assert f"{format_length(order.dress.hem, recipe.unit)} above the floor" in said
        long = order.dress.waist - order.dress.hem
        assert f"{format_length(long, recipe.unit)} below the waist" in said


def test_the_clients_page_says_her_next_fitting_and_reads_on_her_tape():
    recipe = read("full-circle")
    order = Order(recipe, make_up(recipe))
    agreed = replace(AGREED, fitting_at=datetime(2026, 12, 4, 15, 30))
    said = words(to_client_page(recipe, order.garment, order.dress, agreed, Tape(Unit.INCH)))
    assert "Your next fitting: 4 December 2026 at 15:30." in said
    assert f"{format_length(order.dress.hem, Unit.INCH)} above the floor" in said
    with pdfplumber.open(io.BytesIO(to_client_page(recipe, order.garment, None, agreed, Tape(Unit.INCH)))) as pdf:
        assert float(pdf.pages[0].width) * POINT == approx(215.9, abs=0.1)
        assert "cannot be drawn yet" in pdf.pages[0].extract_text()


def test_names_of_any_letters_are_printed_or_shown_to_be_missing():
    recipe = read("full-circle", name="<b>Dress & co</b> עברית")
    garment = make_up(recipe)
    for name in ("cut-sheet.pdf", "workings.pdf"):
        said = words(FILE_WRITERS[name](Order(recipe, garment)))
        assert "<b>Dress & co</b>" in said
        assert "תירבע" in said


def test_a_cloth_that_is_not_laid_has_no_length():
    recipe = read("two-cloth-knot")
    garment = make_up(recipe)
    roles = roles_of(garment)
    assert ClothRole.OUTER in roles
    said = words(FILE_WRITERS["cut-sheet.pdf"](Order(recipe, garment, bought={ClothRole.OUTER: "3.10 m"})))
    assert said.count("not laid yet") == len(roles) - 1
    assert "3.10 m" in said
