"""The API: what it makes, what it refuses and how it says so."""

import io
import json
import zipfile

import pytest
from fastapi.testclient import TestClient

from conftest import a_recipe, drafted_recipe
from gentle_hem.api.app import create_app
from gentle_hem.core.recipe import Recipe
from server import filled


@pytest.fixture(scope="module")
def client(tmp_path_factory):
    store = filled(tmp_path_factory.mktemp("api"))
    with TestClient(create_app(store), base_url="http://127.0.0.1") as client:
        yield client


def typed(**changes):
    recipe = a_recipe().model_dump(mode="json")
    for path, value in changes.items():
        *parents, last = path.split("__")
        target = recipe
        for key in parents:
            target = target[key]
        target[last] = value
    return recipe


def test_make_up_reads_text_and_gives_numbers_back(client):
    made = client.post("/api/make-up?unit=in", json=typed(lower__length="24 1/2")).json()
    assert made["recipe"]["lower"]["length"] == pytest.approx(622.3)
    assert made["ready"] is True
    words = [w for part in made["sentences"] for line in part["lines"] for w in line if isinstance(w, dict)]
    assert {"lower.length": "24 1/2 in"}.items() <= {w["path"]: w["text"] for w in words}.items()


@pytest.mark.parametrize(
    ("changes", "field", "part"),
    [
        ({"lower__length": "sixty"}, "lower.length", '"sixty"'),
        ({"lower__length": ""}, "lower.length", "No length"),
        ({"lower__length": 0}, "lower.length", "out of range"),
        ({"lower__length": "-62 cm"}, "lower.length", "out of range"),
        ({"lower__length": 9e9}, "lower.length", "50 m"),
        ({"lower__sweep": 0}, "lower.sweep", "0 degrees"),
        ({"lower__sweep": 4000}, "lower.sweep", "4000 degrees"),
        ({"lower__sweep": "wide"}, "lower.sweep", "wide"),
        ({"lower__pieces": 3}, "lower.pieces", "3"),
        ({"lower__seam": "70"}, "lower.seam", None),
        ({"lower__hem": "20 cm"}, "lower.hem", "out of range"),
        ({"lower__stretch": 40}, "lower.stretch", "per cent"),
        ({"bodice__front__dart_width": "30 cm"}, "bodice.front.dart_width", "out of range"),
        (
            {"bodice__front__centre_to_dart": 0, "bodice__front__dart_to_side": 0},
            "bodice.front",
            "shorter than 1 cm",
        ),
        ({"bodice__front_side": "1 mm"}, "bodice.front_side", "out of range"),
        ({"allowances__waist": "-1 cm"}, "allowances.waist", "out of range"),
        ({"opening__place": "chimney"}, "opening.place", "chimney"),
        ({"name": ""}, "name", "empty"),
        ({"colour": "red"}, "colour", "not a part"),
        ({"figure__measures": {"hip_girth": "0"}}, "figure.measures.hip_girth", None),
        ({"unit": "ell"}, "unit", "ell"),
    ],
)
def test_bad_input_is_a_problem_naming_the_field(client, changes, field, part):
    answer = client.post("/api/make-up", json=typed(**changes))
    assert answer.status_code == 422
    assert answer.headers["content-type"] == "application/problem+json"
    said = answer.json()
    assert field in [error["field"] for error in said["errors"]]
    text = next(error["text"] for error in said["errors"] if error["field"] == field)
    assert text.endswith(".")
    assert part is None or part in text


def test_refused_saves_leave_the_commission_as_it_was(client):
    before = client.get("/api/commissions/1").json()
    assert client.post("/api/commissions/1/versions", json=typed(lower__sweep=0)).status_code == 422
    assert client.get("/api/commissions/1").json() == before


def test_desk_names_the_waist_that_does_not_meet(client):
    rows = client.get("/api/desk").json()["rows"]
    assert len(rows) >= 3
    [open_row] = [row for row in rows if row["stops"]]
    assert open_row["title"] == "Harbour dance dress"
    assert "does not meet" in open_row["first_trouble"]


def test_a_new_commission_begins_with_measures_and_without_a_bodice(client):
    made = client.post("/api/commissions", json={"title": "Sundress", "person": "Isolde Marrin", "unit": "in"})
    assert made.status_code == 201
    body = made.json()
    assert body["recipe"]["figure"]["measures"]["hip_girth"] == 1000
    screen = client.post("/api/make-up", json=body["recipe"]).json()
    assert screen["joins"] == []
    assert screen["ready"] is False
    assert "no-bodice-yet" in [finding["code"] for finding in screen["findings"]]
    assert [p["name"] for p in client.get("/api/people").json()].count("Isolde Marrin") == 1


def test_figures_are_added_not_overwritten(client):
    first = client.get("/api/people/1/figures").json()
    body = {"taken_on": "2026-06-01", "measures": {"waist_girth": "29 1/2"}}
    added = client.post("/api/people/1/figures?unit=in", json=body)
    assert added.json()["measures"]["waist_girth"] == pytest.approx(749.3)
    assert len(client.get("/api/people/1/figures").json()) == len(first) + 1
    assert client.post("/api/people/1/figures", json={**body, "taken_on": "yesterday"}).status_code == 422


@pytest.mark.parametrize(
    "path",
    [
        "/api/commissions/999",
        "/api/people/999/figures",
        "/api/nothing",
        "/api/commissions/1/files/pattern.xyz",
    ],
)
def test_what_is_not_there_is_a_404_problem(client, path):
    answer = client.get(path)
    assert answer.status_code == 404
    assert answer.json()["detail"].startswith("There is no")


def test_files_and_versions(client):
    packed = client.get("/api/commissions/2/files/pattern.zip?paper=letter")
    names = zipfile.ZipFile(io.BytesIO(packed.content)).namelist()
    assert {"pattern.pdf", "pieces.svg", "pieces.dxf", "cut-list.csv", "garment.json", "recipe.json"} <= set(names)
    assert client.get("/api/commissions/2/files/pieces.svg").headers["content-type"] == "image/svg+xml"
    [version] = client.get("/api/commissions/2/versions").json()["versions"]
    kept = client.get(f"/api/commissions/2/versions/{version['version']}").json()
    assert Recipe.model_validate(kept).name == client.get("/api/commissions/2").json()["title"]


def test_recipe_schema_is_published_and_accepts_the_examples(client):
    import jsonschema_rs

    schema = client.get("/api/schema/recipe").json()
    validator = jsonschema_rs.validator_for(schema)
    assert validator.is_valid(json.loads(a_recipe().model_dump_json()))
    assert validator.is_valid({"name": "no bodice yet", "lower": {"kind": "circle"}})
    assert not validator.is_valid({"name": "no lower part"})


def test_foreign_pages_are_refused(client):
    assert client.get("/api/desk", headers={"host": "evil.example"}).status_code == 403
    assert client.get("/api/desk", headers={"origin": "http://evil.example"}).status_code == 403
    assert client.get("/api/desk", headers={"origin": "http://127.0.0.1:9000"}).status_code == 403
    assert client.get("/api/desk", headers={"origin": "http://127.0.0.1"}).status_code == 200
    assert client.get("/api/desk", headers={"host": "localhost", "origin": "http://localhost"}).status_code == 200
    assert client.get("/api/desk", headers={"host": "[::1"}).status_code == 403
    for site, status in (("cross-site", 403), ("same-site", 403), ("same-origin", 200), ("none", 200)):
        assert client.get("/api/desk", headers={"sec-fetch-site": site}).status_code == status


def test_a_body_too_large_to_be_a_recipe_is_refused(client):
    def in_chunks():
        for _ in range(9):
            yield b" " * 1_000_000

    for body in (b" " * 8_000_001, in_chunks()):
        answer = client.post("/api/make-up", content=body)
        assert answer.status_code == 413
        assert "8 MB" in answer.json()["detail"]


def test_pages_and_answers_are_kept_to_themselves(client):
    answer = client.get("/api/health")
    assert answer.headers["x-content-type-options"] == "nosniff"
    assert answer.headers["x-frame-options"] == "DENY"
    assert answer.headers["cross-origin-resource-policy"] == "same-origin"
    assert "frame-ancestors 'none'" in answer.headers["content-security-policy"]
    assert answer.headers["cache-control"] == "no-store"


def test_sums_speak_their_usual_lengths_in_the_asked_unit(client):
    inputs = {
        i["name"]: i for s in client.get("/api/sums?unit=in").json() if s["name"] == "circle" for i in s["inputs"]
    }
    assert inputs["hip_ease"]["default"] == "3/4 in"
    assert inputs["rule"]["choices"].keys() == {"seam_line", "cut_edge"}
    answer = client.post("/api/sums/circle?unit=in", json={"seam": "34", "length": "7"}).json()
    assert answer["values"]["seam_radius"]["exact"] == "5.4113 in"
    assert client.post("/api/sums/knitting", json={}).status_code == 404


def test_two_pieces_of_a_seam_are_laid_together(client):
    recipe = drafted_recipe("quarters").model_dump(mode="json")
    made = client.post("/api/laid-together", json={"recipe": recipe, "seam": "bodice side seam"})
    assert made.status_code == 200, made.text
    said = made.json()
    assert {said["one"]["name"], said["other"]["name"]} == {"bodice front", "bodice back"}
    assert said["box"][2] > 300
    assert said["one"]["outline"].startswith("M")
    unknown = client.post("/api/laid-together", json={"recipe": recipe, "seam": "no such seam"})
    assert unknown.status_code == 404
    over_several = client.post("/api/laid-together", json={"recipe": recipe, "seam": "waist seam"})
    assert over_several.status_code == 422
    assert "several pieces" in over_several.json()["detail"]
