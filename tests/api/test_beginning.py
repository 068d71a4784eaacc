"""What a new dress is begun from: families on her own measures, an earlier dress, its bodice."""

import pytest
from fastapi.testclient import TestClient

from gentle_hem.api.app import create_app
from gentle_hem.core.families import FAMILIES
from gentle_hem.store import Store


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as client:
        yield client


def began(client, **body):
    made = client.post("/api/commissions", json={"title": "New", "person": "Somebody", "unit": "cm", **body})
    assert made.status_code == 201, made.text
    return made.json()


def test_families_are_drawn_for_anybody_and_say_what_is_still_to_be_measured(client):
    answer = client.get("/api/beginning").json()
    assert [family["key"] for family in answer["families"]] == [family.key for family in FAMILIES]
    assert all(family["drawing"]["paths"] for family in answer["families"])
    assert (answer["taken"], answer["earlier"]) == (0, [])
    circle = next(family for family in answer["families"] if family["key"] == "circle")
    assert "bust girth" in circle["missing"]
    assert [family["key"] for family in answer["families"] if family["own_bodice"]] == ["pinafore"]


def test_her_own_measures_change_the_drawing_and_what_is_missing(client):
    person = began(client, person="Known")["person"]["id"]
    client.post(
        f"/api/people/{person}/figures",
        json={"taken_on": "2026-05-01", "measures": {"bust_girth": 1220, "waist_girth": 940, "hip_girth": 1180}},
    )
    nobody, known = (client.get("/api/beginning", params={"person": who}).json() for who in ("", "Known"))
    assert known["taken"] == 3
    assert [one["title"] for one in known["earlier"]] == ["New"]
    for before, after in zip(nobody["families"], known["families"], strict=True):
        assert before["drawing"] != after["drawing"]
        assert "bust girth" not in after["missing"]


def test_a_dress_is_begun_as_a_family_over_the_bodice_that_was_chosen(client):
    made = began(client, family="gathered", bodice="two_lengths")["recipe"]
    assert (made["lower"]["kind"], made["bodice"]["kind"]) == ("gathered", "two_lengths")
    assert began(client)["recipe"]["bodice"]["kind"] == "none"


def test_a_dress_is_begun_like_an_earlier_one_or_over_its_bodice(client):
    first = began(client, title="First", family="tiered", bodice="body_length")
    like = began(client, title="Second", like=first["id"])
    assert like["recipe"]["lower"] == first["recipe"]["lower"]
    assert like["recipe"]["name"] == "Second"
    over = began(client, title="Third", family="circle", bodice_of=first["id"])["recipe"]
    assert (over["lower"]["kind"], over["bodice"]) == ("circle", first["recipe"]["bodice"])


def test_what_is_not_there_to_begin_from_is_said(client):
    body = {"title": "New", "person": "Somebody", "unit": "cm"}
    assert client.post("/api/commissions", json={**body, "family": "ballast"}).status_code == 404
    assert client.post("/api/commissions", json={**body, "like": 999}).status_code == 404
    assert client.post("/api/commissions", json={**body, "family": "circle", "bodice": "no such"}).status_code == 422
