"""The API of measuring and of blocks brought in: every route answers or refuses in a sentence."""

import json

import pytest
from fastapi.testclient import TestClient
from pytest import approx

from conftest import drafted_recipe
from gentle_hem.api.app import create_app
from gentle_hem.core.figure import MEASURES
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Unit, format_length
from gentle_hem.devices.person import TAPE_PERSON
from gentle_hem.formats.files import FILE_WRITERS, Order
from gentle_hem.store import Store


@pytest.fixture(scope="module")
def client(tmp_path_factory):
    app = create_app(Store(tmp_path_factory.mktemp("measuring")), demo=True)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        yield client


def detail(answer):
    assert answer.status_code == 422
    body = answer.json()
    return json.dumps(body, ensure_ascii=False)


def test_measures_are_listed_with_their_taking(client):
    tabs = client.get("/api/measures").json()
    listed = [measure["key"] for tab in tabs for measure in tab["measures"]]
    assert sorted(listed) == sorted(MEASURES)


@pytest.mark.parametrize(
    ("unit", "typed", "mm", "spoken"),
    [
        ("cm", "70,5", 705, "70.5 cm"),
        ("in", "27 3/4", 704.85, "27 3/4 in"),
        ("cm", "27 3/4 in", 704.85, "70.5 cm"),
        ("in", "70.5 cm", 705, "27 3/4 in"),
        ("cm", "705 mm", 705, "70.5 cm"),
    ],
)
def test_a_measure_is_read_as_it_is_typed(client, unit, typed, mm, spoken):
    body = {"measures": {"waist_girth": typed}}
    read = client.post(f"/api/figures/read?unit={unit}", json=body).json()
    waist = next(m for m in read["measures"] if m["key"] == "waist_girth")
    assert waist["mm"] == approx(mm)
    assert waist["first"] == spoken
    assert read["taken"] == 1


def test_readings_that_do_not_agree_are_told_of(client):
    body = {"measures": {"waist_girth": "70"}, "second": {"waist_girth": "72"}}
    read = client.post("/api/figures/read?unit=cm", json=body).json()
    told = {finding["code"]: finding for finding in read["findings"]}
    assert "take a third" in told["readings-apart"]["text"]


@pytest.mark.parametrize(
    ("typed", "part"),
    [
        ("about 70", "about 70"),
        ("0", "more than nothing"),
        ("-70", "more than nothing"),
        ("9 m 9", "9 m 9"),
        ("1e9", "1e9"),
    ],
)
def test_a_measure_that_is_none_is_refused_with_its_name(client, typed, part):
    said = detail(client.post("/api/figures/read?unit=cm", json={"measures": {"waist_girth": typed}}))
    assert "waist_girth" in said
    assert part in said


def test_two_sets_are_compared_and_a_jump_is_questioned(client):
    sets = {
        "before": {"taken_on": "2026-05-01", "measures": {"waist_girth": 700, "hip_girth": 980}},
        "now": {"taken_on": "2026-05-20", "measures": {"waist_girth": 760, "bust_girth": 900}},
    }
    compared = client.post("/api/figures/compare?unit=cm", json=sets).json()
    rows = {row["label"]: row for row in compared["rows"]}
    assert rows["waist girth"]["difference"] == "+6.0 cm"
    assert rows["hip girth"]["now"] == "—"
    assert [finding["code"] for finding in compared["findings"]] == ["girth-jumped"]


def test_a_size_to_start_from(client):
    size = client.post("/api/figures/from-size?unit=cm", json={"bust": "92,5"}).json()
    assert size["bust_girth"] == approx(920)
    refused = detail(client.post("/api/figures/from-size?unit=cm", json={"bust": "medium"}))
    assert "cannot be read as a length" in refused


@pytest.mark.parametrize("unit", ["cm", "in"])
def test_a_table_goes_out_and_comes_back(client, unit):
    figure = {"measures": {"waist_girth": 712.5, "hip_girth": 980}}
    sent = client.post(f"/api/figures/csv?unit={unit}", json=figure)
    assert sent.headers["content-type"].startswith("text/csv")
    back = client.post("/api/figures/from-csv?unit=cm", json={"text": sent.text}).json()
    assert back == approx(figure["measures"], abs=0.001)
    assert "Line 1" in detail(client.post("/api/figures/from-csv", json={"text": "waist girth,wide"}))


@pytest.mark.parametrize(
    ("manner", "count", "mm"),
    [("steady", 1, TAPE_PERSON["waist_girth"]), ("double", 1, TAPE_PERSON["waist_girth"]), ("dropout", 0, None)],
)
def test_a_press_of_the_tape_is_one_length_or_none(client, manner, count, mm):
    heard = client.post("/api/devices/tape/press", json={"held": "waist_girth", "unit": "cm", "manner": manner}).json()
    assert len(heard["lengths"]) == len(heard["texts"]) == count
    if mm:
        assert heard["lengths"] == [approx(mm, abs=0.5)]


def test_a_tape_in_the_wrong_unit_sends_a_length_that_is_questioned(client):
    press = {"held": "waist_girth", "unit": "cm", "manner": "wrong_unit"}
    [heard] = client.post("/api/devices/tape/press", json=press).json()["lengths"]
    assert heard == approx(TAPE_PERSON["waist_girth"] / 2.54, abs=7), "to the eighth of an inch and read bare"
    body = {"measures": {"waist_girth": heard}}
    read = client.post("/api/figures/read?unit=cm", json=body).json()
    assert "measure-in-other-unit" in {finding["code"] for finding in read["findings"]}


@pytest.fixture(scope="module")
def drawn(client):
    """A drafted bodice's drawing, sent out by the program and read back through its own door."""
    recipe = drafted_recipe("two_lengths")
    garment = make_up(recipe)
    content = FILE_WRITERS["pieces.svg"](Order(recipe, garment))
    found = client.post("/api/blocks/read?unit=cm", files={"file": ("pieces.svg", content, "image/svg+xml")}).json()
    return garment, {outline["name"]: outline for outline in found}


def block_of(outlines, **renamed):
    block = {"source": "pieces.svg"}
    for where in ("front", "back"):
        outline = outlines[f"bodice {where}"]
        names = [renamed.get(edge["guess"], edge["guess"]) for edge in outline["edges"]]
        block[where] = {"outline": outline, "names": names}
    return block


def test_a_drawing_becomes_a_bodice_that_joins_the_same_waist(client, drawn):
    garment, outlines = drawn
    bodice = client.post("/api/blocks/take", json=block_of(outlines)).json()
    recipe = garment_recipe(bodice)
    made = client.post("/api/make-up?unit=cm", json=recipe).json()
    again = make_up(Recipe.model_validate(recipe))
    assert made["ready"] is True
    assert again.joins[0].upper.length == approx(garment.joins[0].upper.length, abs=0.2)


def garment_recipe(bodice):
    return {"name": "from a drawing", "bodice": bodice, "lower": {"kind": "circle"}}


def test_edges_found_are_spoken_in_the_asked_unit(client, drawn):
    garment, outlines = drawn
    waist = next(edge for edge in outlines["bodice front"]["edges"] if edge["guess"] == "waist")
    length = garment.piece("bodice front").edge("waist").drawn_length
    assert waist["length"] == format_length(length, Unit.CM)


def test_two_edges_of_one_name_are_refused(client, drawn):
    _, outlines = drawn
    said = detail(client.post("/api/blocks/take", json=block_of(outlines, shoulder="side")))
    assert "side" in said


def test_edge_names_are_the_trades(client):
    assert client.get("/api/blocks/edge-names").json()[:3] == ["waist", "side", "armhole"]


@pytest.mark.parametrize(
    ("name", "content", "part"),
    [
        ("block.svg", b"", "not a readable SVG"),
        ("block.doc", b"\x89PNG", "SVG, DXF, PDF and garment.json"),
        ("block.dxf", b"\xff\xfe\x00", "DXF"),
        ("block.svg", b"<svg xmlns='http://www.w3.org/2000/svg'><path d='M 0 0 L 10'/></svg>", ""),
    ],
)
def test_a_file_that_is_no_block_is_refused_in_a_sentence(client, name, content, part):
    said = detail(client.post("/api/blocks/read?unit=cm", files={"file": (name, content, "application/octet-stream")}))
    assert part in said
