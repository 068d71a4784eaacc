"""Saving: from which version, what has changed since, what cannot be read, and what follows a person."""

import json
import threading
from copy import deepcopy

import pytest
from fastapi.testclient import TestClient
from pytest import approx
from sqlalchemy import text

from conftest import a_recipe
from gentle_hem.api.app import create_app
from gentle_hem.core.recipe import Recipe
from gentle_hem.demo import fill
from gentle_hem.store import Store
from gentle_hem.store.models import Commission, Person


@pytest.fixture
def store(tmp_path):
    return Store(tmp_path)


@pytest.fixture
def client(store):
    with TestClient(create_app(store), base_url="http://127.0.0.1") as client:
        yield client


def begun(client, **more):
    return client.post("/api/commissions", json={"title": "Sundress", "person": "Somebody", **more}).json()


def saved(client, number, recipe, from_version, unit="cm"):
    body = {"recipe": recipe, "from_version": from_version}
    return client.post(f"/api/commissions/{number}/versions?unit={unit}", json=body)


def longer(recipe, by):
    made = deepcopy(recipe)
    made["lower"]["length"] += by
    return made


def test_a_save_names_the_version_it_started_from_and_a_stale_one_is_refused_with_what_changed(client):
    opened = begun(client)
    number, recipe = opened["id"], opened["recipe"]
    assert saved(client, number, longer(recipe, 10), 1).json()["version"] == 2
    stale = saved(client, number, longer(recipe, 25.4), 1)
    assert stale.status_code == 409
    said = stale.json()
    assert said["version"] == 2
    assert said["recipe"]["lower"]["length"] == recipe["lower"]["length"] + 10
    [change] = said["differences"]
    assert (change["label"], change["before"], change["after"]) == ("finished length", "60.0 cm", "61.0 cm")
    assert client.get(f"/api/commissions/{number}").json()["version"] == 2, "nothing of the refused save is kept"
    assert saved(client, number, longer(recipe, 25.4), 2).json()["version"] == 3


def test_the_same_state_from_two_windows_is_no_quarrel(client):
    opened = begun(client)
    changed = longer(opened["recipe"], 10)
    assert saved(client, opened["id"], changed, 1).json()["version"] == 2
    assert saved(client, opened["id"], changed, 1).json()["version"] == 2


def test_twenty_people_saving_one_commission_get_no_fault_and_one_version_each(client):
    opened = begun(client)
    number, answers = opened["id"], []

    def save(k):
        for attempt in range(8):
            newest = client.get(f"/api/commissions/{number}").json()
            # each state is its own: the very same one asked for twice is kept once
            mine = {**longer(newest["recipe"], k + 1), "remarks": f"saver {k}, attempt {attempt}"}
            answer = saved(client, number, mine, newest["version"])
            answers.append(answer)

    savers = [threading.Thread(target=save, args=(k,)) for k in range(20)]
    for saver in savers:
        saver.start()
    for saver in savers:
        saver.join()
    kept = [answer.json()["version"] for answer in answers if answer.status_code == 201]
    assert {answer.status_code for answer in answers} <= {201, 409}
    assert len(kept) == len(set(kept)), "no version is given out twice"
    assert client.get(f"/api/commissions/{number}").json()["version"] == max(kept)


def test_earlier_versions_are_listed_with_what_each_changed(client):
    opened = begun(client)
    number = opened["id"]
    saved(client, number, longer(opened["recipe"], 10), 1)
    kept = client.get(f"/api/commissions/{number}/versions?unit=in").json()
    assert kept["total"] == 2
    newest, first = kept["versions"]
    assert (newest["version"], first["version"], first["differences"]) == (2, 1, [])
    assert [d["label"] for d in newest["differences"]] == ["finished length"]
    assert newest["differences"][0]["after"] == "24 in"
    assert client.get(f"/api/commissions/{number}/versions?most=1").json()["versions"] == [
        {**newest, "differences": [{**newest["differences"][0], "before": "60.0 cm", "after": "61.0 cm"}]}
    ]
    older = client.get(f"/api/commissions/{number}/files/recipe.json?version=1")
    assert older.headers["x-recipe-version"] == "1"
    assert older.json()["lower"]["length"] == 600


def test_a_double_click_begins_one_dress(client):
    first, second = (begun(client, begun_as="a-click") for _ in range(2))
    assert first["id"] == second["id"]
    assert begun(client, begun_as="another")["id"] != first["id"]
    assert client.get("/api/desk").json()["total"] == 2


def test_a_person_is_not_made_twice_by_a_race(client):
    clicks = [threading.Thread(target=begun, args=(client,), kwargs={"person": "Ada  Quill "}) for _ in range(12)]
    for click in clicks:
        click.start()
    for click in clicks:
        click.join()
    assert [person["name"] for person in client.get("/api/people").json()] == ["Ada Quill"]
    assert client.get("/api/desk").json()["total"] == 12


def test_measures_typed_for_a_person_follow_her_whether_or_not_a_set_was_kept(client):
    opened = begun(client)
    recipe = deepcopy(opened["recipe"])
    recipe["figure"]["measures"] = {"waist_girth": 712.0, "hip_girth": 980.0}
    saved(client, opened["id"], recipe, 1)
    assert begun(client)["recipe"]["figure"]["measures"] == {"waist_girth": 712.0, "hip_girth": 980.0}
    taken = {"taken_on": "2026-06-01", "measures": {"waist_girth": "70 cm"}}
    client.post(f"/api/people/{opened['person']['id']}/figures", json=taken)
    newest = begun(client)["recipe"]["figure"]
    assert newest["measures"] == {"waist_girth": approx(700)}
    assert newest["taken_on"] == "2026-06-01"


@pytest.mark.parametrize("name", ["Zoë\x00", "bell\x07", "tab\x1bbed", "half \ud83d", "  ", "", "x" * 121])
def test_names_hold_no_control_characters(client, name):
    content = json.dumps({"title": "Gown", "person": name}).encode()
    answer = client.post("/api/commissions", content=content, headers={"content-type": "application/json"})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "person"


@pytest.mark.parametrize("name", ["Zoë Ødegård", "Ελένη", "Наталья", "王小明", "مريم", "அமுதா", "Ann\u00a0Lee"])
def test_names_in_any_script_are_kept(client, name):
    assert begun(client, person=name)["person"]["name"] == " ".join(name.split())


@pytest.mark.parametrize("number", [0, -1, 2**63, 2**200, "x", "1.5"])
def test_numbers_no_record_can_have_are_refused(client, number):
    for path in ("", "/versions", "/files/recipe.json"):
        assert client.get(f"/api/commissions/{number}{path}").status_code in (404, 422)
    assert client.get(f"/api/commissions/1/files/recipe.json?version={number}").status_code in (404, 422)


def spoil(store, number, recipe="{}"):
    with store.engine.begin() as connection:
        connection.execute(
            text("UPDATE recipe_version SET recipe = :r WHERE commission_id = :n"), {"r": recipe, "n": number}
        )
        connection.execute(text("DELETE FROM slip WHERE commission_id = :n"), {"n": number})


def test_one_row_that_cannot_be_read_never_takes_the_desk_down(store, client):
    whole, broken = begun(client, title="Whole"), begun(client, title="Broken")
    spoil(store, broken["id"], '{"name": "Broken", "lower": {"kind": "cloud"}, "version": 1}')
    from gentle_hem.store.slips import write_stale_slip

    while write_stale_slip(store):
        pass
    rows = {row["title"]: row for row in client.get("/api/desk").json()["rows"]}
    assert rows["Whole"]["unreadable"] == ""
    assert "cloud" in rows["Broken"]["unreadable"]
    opened = client.get(f"/api/commissions/{broken['id']}")
    assert opened.status_code == 200
    assert "cloud" in opened.json()["unreadable"]
    exported = client.get(f"/api/commissions/{broken['id']}/files/recipe.json")
    assert exported.json()["lower"] == {"kind": "cloud"}
    assert client.get(f"/api/commissions/{broken['id']}/files/pattern.pdf").status_code == 409
    assert client.get(f"/api/commissions/{broken['id']}/versions").json()["versions"][0]["unreadable"]
    mended = saved(client, broken["id"], whole["recipe"], 1)
    assert mended.status_code == 201
    rows = {row["title"]: row for row in client.get("/api/desk").json()["rows"]}
    assert rows["Broken"]["unreadable"] == ""


def test_the_desk_is_a_page_and_says_which_rows_are_being_looked_at(store, client):
    with store.writing() as session:
        person = Person(name="Somebody", remarks="")
        session.add(person)
        session.flush()
        session.add_all(Commission(person_id=person.id, title=f"Dress {k}") for k in range(120))
    fill(store)
    first = client.get("/api/desk").json()
    assert (len(first["rows"]), first["total"]) == (50, 139)
    assert all(row["looked_at"] for row in first["rows"])
    rest = client.get("/api/desk?after=50&most=200").json()["rows"]
    assert len(rest) == 89
    assert not {row["id"] for row in rest} & {row["id"] for row in first["rows"]}
    spoil(store, first["rows"][0]["id"], a_recipe().model_dump_json())
    assert client.get("/api/desk").json()["rows"][0]["looked_at"] is False


def test_what_is_typed_is_read_word_by_word_over_the_api(client):
    recipe = a_recipe().model_dump(mode="json")
    typed = [
        {"path": "lower.length", "value": "24", "unit": "in"}, {"path": "lower.hem", "value": "wide", "unit": "cm"},
        {"path": "unit", "value": "in", "unit": "cm"},
    ]  # fmt: skip
    answer = client.post("/api/bench?unit=cm", json={"recipe": recipe, "typed": typed}).json()
    assert answer["recipe"]["lower"]["length"] == approx(609.6)
    assert [refusal["path"] for refusal in answer["refused"]] == ["lower.hem"]
    assert answer["screen"]["ready"] is True
    assert Recipe.model_validate(answer["recipe"]).unit == "in"


def test_two_recipes_are_compared_by_their_words(client):
    states = {
        "before": a_recipe().model_dump(mode="json"),
        "after": a_recipe(lower={"sweep": 180}).model_dump(mode="json"),
    }
    [only] = client.post("/api/differences", json=states).json()
    assert (only["path"], only["before"], only["after"]) == ("lower.sweep", "full circle", "half circle")


def test_the_simulated_tape_belongs_to_the_demo(client):
    assert client.get("/api/studio").json()["demo"] is False
    assert client.post("/api/devices/tape/press", json={"held": "waist_girth"}).status_code == 404


def test_a_person_who_writes_commas_reads_commas(client):
    made = client.post("/api/make-up?unit=cm&comma=true", json=a_recipe().model_dump(mode="json")).json()
    words = {
        w["path"]: w["text"]
        for part in made["sentences"]
        for line in part["lines"]
        for w in line
        if isinstance(w, dict)
    }
    assert words["lower.length"] == "62,0 cm"
    fine = client.post(
        "/api/make-up?unit=in&mark=16", json=a_recipe(lower={"length": "7 5/16 in"}).model_dump(mode="json")
    )
    words = {
        w["path"]: w["text"]
        for p in fine.json()["sentences"]
        for line in p["lines"]
        for w in line
        if isinstance(w, dict)
    }
    assert words["lower.length"] == "7 5/16 in"
    assert client.post("/api/make-up?mark=12", json={}).status_code == 422
