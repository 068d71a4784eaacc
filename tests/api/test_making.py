"""The making plan over the API: ticked, timed, noted, kept; her own pace learnt from what she timed."""

import io
import json
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pdfplumber
import pytest
from fastapi.testclient import TestClient
from pytest import approx
from sqlalchemy import select

from gentle_hem.api.app import create_app
from gentle_hem.core.making.operation import Work
from gentle_hem.store import Store
from gentle_hem.store.models import BenchMark

CIRCLE = json.loads(Path("examples/full-circle.recipe.json").read_text())
GORED = json.loads(Path("examples/gored-circle-spiral.recipe.json").read_text())


@pytest.fixture
def store(tmp_path):
    return Store(tmp_path)


@pytest.fixture
def client(store):
    with TestClient(create_app(store), base_url="http://127.0.0.1") as made:
        yield made


def begun(client, recipe=CIRCLE, title="A dress"):
    made = client.post("/api/commissions", json={"title": title, "person": "Tilde"}).json()
    place = f"/api/commissions/{made['id']}"
    assert client.post(f"{place}/versions", json={"recipe": recipe, "from_version": 1}).status_code == 201
    return place


def plan(client, place, recipe=CIRCLE):
    return client.post(f"{place}/plan", json=recipe).json()


def say(client, place, key, **said):
    answer = client.put(f"{place}/plan/operation", json={"operation": key, **said})
    assert answer.status_code == 200, answer.text
    return {one["key"]: one for one in answer.json()["operations"]}, answer.json()


def test_a_plan_is_worked_down_and_what_is_next_follows(client):
    place = begun(client)
    made = plan(client, place)
    keys = [one["key"] for one in made["operations"]]
    assert made["next"] == keys[0] == "cut cloth"
    assert [one["number"] for one in made["operations"]] == list(range(1, len(keys) + 1))
    for k, key in enumerate(keys):
        _, now = say(client, place, key, done=True)
        assert now["done"] == k + 1
        assert now["next"] == (keys[k + 1] if k + 1 < len(keys) else None)
    assert now["left"] == "0 min"
    _, now = say(client, place, "hem", done=False)
    assert now["next"] == "hem"
    assert plan(client, place)["done"] == len(keys) - 1  # it is kept


def test_what_waits_is_passed_over_and_only_what_needs_it_stands_still(client):
    place = begun(client)
    for key in ("cut cloth", "mark", "staystitch"):
        say(client, place, key, done=True)
    by_key, now = say(client, place, "darts bodice front", waits_for="current for the iron")
    assert by_key["darts bodice front"]["waits_for"] == "current for the iron"
    assert now["next"] == "darts bodice back"
    assert by_key["side skirt 1"]["free"]
    assert not by_key["side bodice 1"]["free"]
    _, now = say(client, place, "darts bodice front", waits_for="")
    assert now["next"] == "darts bodice front"


def test_a_note_and_minutes_are_kept_and_a_timer_adds_to_them(client, store):
    place = begun(client)
    say(client, place, "cut cloth", note="Shear the selvedge first.", minutes=20)
    by_key, _ = say(client, place, "cut cloth", timer="start")
    assert by_key["cut cloth"]["begun_at"] is not None
    with store.writing() as session:
        row = session.scalars(select(BenchMark).where(BenchMark.operation == "cut cloth")).one()
        row.begun_at = datetime.now(UTC) - timedelta(minutes=7)
    by_key, _ = say(client, place, "cut cloth", done=True)  # done stops it
    one = by_key["cut cloth"]
    assert (one["note"], one["begun_at"]) == ("Shear the selvedge first.", None)
    assert one["spent"] == approx(27, abs=0.1)


def test_her_own_pace_is_learnt_by_kind_of_work_once_she_has_timed_two(client):
    place = begun(client)
    usual = {one["key"]: one["minutes"] for one in plan(client, place)["operations"]}
    for key in ("darts bodice front", "darts bodice back"):
        say(client, place, key, minutes=3 * usual[key], done=True)
        say(client, place, "hem", minutes=1, done=True)
    other = {one["key"]: one for one in plan(client, begun(client, title="Another"))["operations"]}
    assert other["darts bodice front"]["minutes"] == approx(3 * usual["darts bodice front"])
    assert other["hem"]["minutes"] == approx(usual["hem"])  # one alone is no pace
    assert {one["work"] for one in other.values()} <= set(Work)


def test_the_school_is_kept_and_one_that_cannot_be_followed_is_said(client):
    place = begun(client)
    assert client.put(f"{place}/plan/school", json={"school": "waist_first"}).status_code == 204
    made = plan(client, place)
    assert (made["asked"], made["school"]) == ("waist_first", "waist_first")
    gored = plan(client, place, GORED)
    assert (gored["asked"], gored["school"]) == ("waist_first", "sides_first")


def test_an_operation_the_dress_no_longer_has_is_refused_in_a_sentence_and_its_time_is_kept(client):
    place = begun(client)
    say(client, place, "side skirt 1", minutes=12)
    assert client.post(f"{place}/versions", json={"recipe": GORED, "from_version": 2}).status_code == 201
    gone = client.put(f"{place}/plan/operation", json={"operation": "side skirt 1", "done": True})
    assert gone.status_code == 409
    assert "no such operation any more" in gone.json()["detail"]
    assert client.post(f"{place}/versions", json={"recipe": CIRCLE, "from_version": 3}).status_code == 201
    by_key = {one["key"]: one for one in plan(client, place)["operations"]}
    assert by_key["side skirt 1"]["spent"] == 12


def test_cautions_come_once_where_the_risk_is_and_hints_with_the_cloth(client):
    recipe = {**CIRCLE, "cloths": {"outer": {"weight": "net", "across": 20}}}
    made = plan(client, begun(client), recipe)
    said = [caution for one in made["operations"] for caution in one["cautions"]]
    assert len(said) == len(set(said))
    assert "cap the rotary blade" in " ".join(made["operations"][0]["cautions"])
    assert any("catches fire" in caution for caution in made["cautions"])
    hints = {hint["about"]: hint["text"] for one in made["operations"] for hint in one["hints"]}
    assert hints["needle and thread"].startswith("Ballpoint needle")
    assert "net melts" in hints["iron"]
    assert "tried off the face" in hints["marking"]


def test_the_bench_sheet_has_every_operation_in_letters_read_from_a_metre(client):
    """Common practice: letters of 1/200 of the distance are read with ease; 17 pt is 6 mm high."""
    place = begun(client)
    say(client, place, "cut cloth", done=True, note="Two hands for the velvet.")
    with pdfplumber.open(io.BytesIO(client.get(f"{place}/plan/bench-sheet.pdf").content)) as pdf:
        text = " ".join(page.extract_text() for page in pdf.pages)
        big = {char["text"] for page in pdf.pages for char in page.chars if char["size"] >= 17}
        assert all(char["x0"] >= 0 and char["x1"] <= page.width for page in pdf.pages for char in page.chars)
    for one in plan(client, place)["operations"]:
        assert f"{one['number']} {one['title']}" in text
    assert big
    assert "Two hands for the velvet." in text
