"""The desk by due day; what is said of a dress said anew; copies, dresses put away; people and their measures."""

import io
from datetime import date
from urllib.parse import unquote
from zipfile import ZipFile

import pytest
from fastapi.testclient import TestClient

from gentle_hem.api.app import create_app
from gentle_hem.core.names import file_name
from gentle_hem.core.recipe import Recipe, changed, cut_now
from gentle_hem.store import Store


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as client:
        yield client


def begun(client, title, **more):
    made = client.post("/api/commissions", json={"title": title, "person": "Somebody", "family": "circle", **more})
    assert made.status_code == 201, made.text
    return made.json()


def titles(client, **query):
    answer = client.get("/api/desk", params=query).json()
    assert len(answer["rows"]) == answer["total"]
    return [row["title"] for row in answer["rows"]]


def said(client, number, **words):
    answer = client.patch(f"/api/commissions/{number}", json=words)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_the_desk_is_laid_out_by_the_day_a_dress_is_due_those_without_one_last(client):
    for title, due in (("Later", "2026-12-20"), ("No day", None), ("Sooner", "2026-12-04")):
        begun(client, title, due_on=due)
    assert titles(client, by="due") == ["Sooner", "Later", "No day"]
    assert titles(client) == ["Sooner", "No day", "Later"]  # as they were last worked on
    assert client.get("/api/desk", params={"by": "name"}).status_code == 422


def test_what_is_said_of_a_dress_is_said_anew_and_its_versions_stay(client):
    made = begun(client, "First name", occasion="A play", due_on="2026-12-04")
    now = said(client, made["id"], title="  Second   name ", person="Somebody Else")
    assert (now["title"], now["person"]["name"], now["occasion"], now["due_on"]) == (
        "Second name", "Somebody Else", "A play", "2026-12-04",
    )  # fmt: skip
    assert said(client, made["id"], due_on=None)["due_on"] is None
    opened = client.get(f"/api/commissions/{made['id']}").json()
    assert (opened["version"], opened["recipe"], opened["title"]) == (1, made["recipe"], "Second name")
    assert client.patch(f"/api/commissions/{made['id']}", json={"title": " "}).status_code == 422
    assert client.patch("/api/commissions/9999", json={"title": "Nobody's"}).status_code == 404
    assert titles(client) == ["Second name"]


def test_files_are_named_after_the_dress_as_it_is_called_now(client):
    made = begun(client, "First name")
    said(client, made["id"], title='Vera’s "blue" dress / 2')
    answer = client.get(f"/api/commissions/{made['id']}/files/pattern.zip")
    header = answer.headers["Content-Disposition"]
    assert unquote(header.split("filename*=UTF-8''")[1]) == "Vera’s -blue- dress - 2 pattern.zip"
    header.split(";")[1].encode("ascii")
    recipe = ZipFile(io.BytesIO(answer.content)).read("recipe.json")
    assert Recipe.model_validate_json(recipe).name == 'Vera’s "blue" dress / 2'
    assert file_name("...") == "dress"


def test_a_copy_is_a_dress_of_its_own(client):
    made = begun(client, "Ball gown", due_on="2026-12-04", occasion="A play")
    copied = client.post(f"/api/commissions/{made['id']}/copies", json={"title": "Ball gown, again"}).json()
    assert (copied["title"], copied["person"], copied["due_on"], copied["version"]) == (
        "Ball gown, again", made["person"], "2026-12-04", 1,
    )  # fmt: skip
    theirs = client.get(f"/api/commissions/{copied['id']}").json()["recipe"]
    assert theirs == {**made["recipe"], "name": "Ball gown, again"}
    longer = {**theirs, "lower": {**theirs["lower"], "length": 800}}
    body = {"recipe": longer, "from_version": 1}
    assert client.post(f"/api/commissions/{copied['id']}/versions", json=body).status_code == 201
    assert client.get(f"/api/commissions/{made['id']}").json()["recipe"] == made["recipe"]


def test_a_dress_put_away_is_off_the_desk_and_kept(client):
    made = [begun(client, title)["id"] for title in ("One", "Two")]
    said(client, made[0], put_away=True)
    assert titles(client) == ["Two"]
    assert titles(client, put_away=True) == ["One"]
    assert client.get("/api/desk").json()["put_away"] == 1
    assert client.get(f"/api/commissions/{made[0]}").json()["title"] == "One"
    assert said(client, made[0], title="One, renamed")["title"] == "One, renamed"
    assert titles(client) == ["Two"]  # renaming brings nothing back
    said(client, made[0], put_away=False)
    assert sorted(titles(client)) == ["One, renamed", "Two"]


def test_a_dress_like_one_that_was_cut_is_not_cut(client):
    made = begun(client, "Cut")
    recipe = Recipe.model_validate(made["recipe"])
    body = {"recipe": changed(recipe, cut_now(recipe)).model_dump(mode="json"), "from_version": 1}
    assert client.post(f"/api/commissions/{made['id']}/versions", json=body).status_code == 201
    assert begun(client, "Like it", family="", like=made["id"])["recipe"]["cut"] is None
    copied = client.post(f"/api/commissions/{made['id']}/copies", json={"title": "The same"}).json()
    assert client.get(f"/api/commissions/{copied['id']}").json()["recipe"]["cut"] is not None


def test_a_person_s_page_has_her_measures_over_time_her_blocks_and_her_dresses(client):
    first = begun(client, "Measured dress", bodice="measured")
    person = first["person"]["id"]
    begun(client, "Drafted dress", bodice="quarters")
    for day, measures in (("2026-05-01", {"waist_girth": 720}), ("2026-06-01", {"waist_girth": 735, "hip_girth": 980})):
        client.post(f"/api/people/{person}/figures", json={"taken_on": day, "measures": measures})
    page = client.get(f"/api/people/{person}", params={"unit": "cm"}).json()
    assert page["taken_on"] == ["2026-05-01", "2026-06-01"]
    assert [{k: v for k, v in one.items() if k in ("label", "values")} for one in page["measures"]] == [
        {"label": "waist girth", "values": ["72.0 cm", "73.5 cm"]}, {"label": "hip girth", "values": ["", "98.0 cm"]},
    ]  # fmt: skip
    assert [row["title"] for row in page["dresses"]] == ["Drafted dress", "Measured dress"]
    assert [block["title"] for block in page["blocks"]] == ["Measured dress"]
    [row] = client.get("/api/people/rows").json()
    assert (row["name"], row["dresses"], row["measured_on"]) == ("Somebody", 2, str(date(2026, 6, 1)))
    assert client.get("/api/people/99").status_code == 404
