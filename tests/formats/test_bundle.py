"""A whole commission in one zip, and back in; and zips made to do harm."""

import io
import json
import time
import zipfile
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from pytest import approx

from gentle_hem.api.app import create_app
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe
from gentle_hem.formats.bundle import NotABundle, packed, unpacked
from gentle_hem.formats.files import FILE_WRITERS, Order
from gentle_hem.store import Store
from long import examples

EXAMPLES = sorted(Path("examples").glob("*.recipe.json"))
LOG = {"title": "Gown", "person": "Ada Wick", "versions": [{"version": 1, "saved_at": "2026-05-01T10:00:00+00:00"}]}


def order_of(path):
    recipe = read_recipe(json.loads(path.read_text()))
    return Order(recipe, make_up(recipe))


@pytest.mark.parametrize("path", EXAMPLES[:: examples(3, 1)], ids=lambda path: path.name.split(".")[0])
def test_what_goes_out_comes_back_in_as_the_same_garment(path):
    """Every point of every cut line within 0.1 mm."""
    order = order_of(path)
    document, log = unpacked("pattern.zip", packed(order, LOG))
    again = make_up(read_recipe(document))
    assert log == LOG
    assert [piece.name for piece in again.pieces] == [piece.name for piece in order.garment.pieces]
    for mine, theirs in zip(order.garment.pieces, again.pieces, strict=True):
        assert theirs.cut_line.length == approx(mine.cut_line.length, abs=0.1)
        for k in range(5):
            at = mine.cut_line.length * k / 5
            assert mine.cut_line.point_at(at).distance(theirs.cut_line.point_at(at)) < 0.1


def test_the_zip_holds_every_file_and_the_log():
    with zipfile.ZipFile(io.BytesIO(packed(order_of(EXAMPLES[0]), LOG))) as archive:
        assert set(archive.namelist()) == {*FILE_WRITERS, "log.json"}
        assert archive.testzip() is None


def test_without_consent_neither_name_nor_measures_are_in_recipe_or_log():
    order = order_of(Path("examples/drafted-quarters.recipe.json"))
    document, log = unpacked("pattern.zip", packed(order, LOG, with_person=False))
    assert not document["figure"].get("measures")
    assert not document["figure"].get("name")
    assert "person" not in log
    assert unpacked("pattern.zip", packed(order, LOG))[0]["figure"]["measures"]


def zipped(parts):
    content = io.BytesIO()
    with zipfile.ZipFile(content, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, written in parts.items():
            archive.writestr(name, written)
    return content.getvalue()


RECIPE = EXAMPLES[0].read_text()

HARMFUL = {
    "leads out": zipped({"recipe.json": RECIPE, "../../etc/passwd": "x"}),
    "leads out backwards": zipped({"recipe.json": RECIPE, "..\\..\\passwd": "x"}),
    "absolute": zipped({"recipe.json": RECIPE, "/etc/passwd": "x"}),
    "inflates": zipped({"recipe.json": b" " * 70_000_000}),
    "large recipe": zipped({"recipe.json": b" " * 9_000_000}),
    "no recipe": zipped({"readme": "hello"}),
    "many": zipped({f"f{k}": "x" for k in range(200)}),
    "cut short": zipped({"recipe.json": RECIPE})[:-40],
    "damaged": bytes(b ^ 0x55 if 60 < k < 400 else b for k, b in enumerate(zipped({"recipe.json": RECIPE}))),
    "not a zip": b"PK\x03\x04 nothing of the kind",
    "a picture": b"\x89PNG\r\n\x1a\n" + b"\x00" * 400,
    "deep": b"[" * 200_000,
    "a list": b"[1, 2, 3]",
    "nested zips": zipped({"recipe.json": zipped({"recipe.json": RECIPE})}),
    "empty": b"",
}


@pytest.mark.parametrize("name", HARMFUL)
def test_what_is_no_commission_is_refused_in_a_sentence_and_at_once(name):
    begin = time.perf_counter()
    with pytest.raises(NotABundle) as refused:
        unpacked("dress.zip", HARMFUL[name])
    assert time.perf_counter() - begin < 2
    assert len(str(refused.value)) > 20
    assert "Traceback" not in str(refused.value)


def test_sizes_that_a_zip_does_not_say_truly_are_not_believed():
    """The directory says ten bytes; what is in it is nine megabytes."""
    content = bytearray(zipped({"recipe.json": b" " * 9_000_000}))
    size = (9_000_000).to_bytes(4, "little")
    while (at := content.find(size)) >= 0:
        content[at : at + 4] = (10).to_bytes(4, "little")
    with pytest.raises(NotABundle):
        unpacked("dress.zip", bytes(content))


GULL = {"title": "Gull dress", "person": "Ada Wick", "family": "gathered"}


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as client:
        yield client


def test_a_dress_is_taken_out_of_one_studio_and_brought_back_into_another(client):
    made = client.post(
        "/api/commissions", json={"title": "Gull dress", "person": "Ada Wick", "family": "gathered"}
    ).json()
    taken = client.get(f"/api/commissions/{made['id']}/files/pattern.zip").content
    back = client.post("/api/commissions/brought-back", files={"file": ("pattern.zip", taken)})
    assert back.status_code == 201
    said = back.json()
    assert (said["title"], said["person"]["name"]) == ("Gull dress", "Ada Wick")
    assert said["recipe"]["lower"] == made["recipe"]["lower"]
    assert said["id"] != made["id"]


def test_a_dress_without_a_person_asks_whose_it_is(client):
    made = client.post(
        "/api/commissions", json={"title": "Gull dress", "person": "Ada Wick", "family": "gathered"}
    ).json()
    taken = client.get(f"/api/commissions/{made['id']}/files/pattern.zip?with_person=false").content
    assert b"Ada Wick" not in unpacked("p", taken)[0].__repr__().encode()
    refused = client.post("/api/commissions/brought-back", files={"file": ("pattern.zip", taken)})
    assert refused.status_code == 422
    assert "whose dress" in refused.json()["detail"]
    taken_in = client.post(
        "/api/commissions/brought-back", files={"file": ("pattern.zip", taken)}, data={"person": "Bea Stone"}
    )
    assert taken_in.json()["person"]["name"] == "Bea Stone"
    wrong = client.post("/api/commissions/brought-back", files={"file": ("x.zip", HARMFUL["leads out"])})
    assert wrong.status_code == 422
    assert "leads out of it" in wrong.json()["detail"]


MANY = 200_000
HOSTILE = {
    "steps that are none": {"steps": [{"kind": "x"}] * MANY},
    "parts that are none": {f"part {k}": 1 for k in range(MANY)},
    "measures that are none": {"figure": {"measures": {f"m{k}": 1 for k in range(MANY)}}},
    "lengths in lists": {"lower": {"kind": "circle", "length": [1e308] * MANY}},
    "cut things": {"cut": {"lower": [{"kind": "circle"}] * MANY}},
    "a remark of megabytes": {"remarks": "a" * 7_900_000},
}


@pytest.mark.parametrize("name", HOSTILE)
def test_a_recipe_that_is_a_load_is_refused_in_a_sentence_in_time(client, name):
    """Megabytes of it, within 2 s, and before each of its values is looked at and complained of."""
    content = json.dumps({**json.loads(EXAMPLES[0].read_text()), **HOSTILE[name]}).encode()
    begin = time.process_time()
    sent = client.post(
        "/api/commissions/brought-back", files={"file": ("recipe.json", content)}, data={"person": "Ada"}
    )  # fmt: skip
    assert sent.status_code == 422
    assert len(sent.content) < 2000
    assert time.process_time() - begin < 2.0
    made = client.post("/api/make-up", content=content, headers={"content-type": "application/json"})
    assert made.status_code == 422
    assert len(made.content) < 2000
    assert time.process_time() - begin < 4.0
