"""Steps kept under a name and done to another dress."""

import pytest
from fastapi.testclient import TestClient

from gentle_hem.api.app import create_app
from gentle_hem.store import Store
from gentle_hem.store.store import keep_step_list

NECK = {"kind": "neckline", "shape": "v", "depth": "16 cm"}
SEAM = {"kind": "princess", "on": "front"}


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as client:
        yield client


def kept(client):
    return {row["name"]: row for row in client.get("/api/step-lists").json()}


def test_a_list_is_kept_by_name_and_read_as_todays(client):
    assert kept(client) == {}
    answer = client.put("/api/step-lists/Dance dress", json={"steps": [NECK, SEAM]})
    assert answer.status_code == 200
    row = kept(client)["Dance dress"]
    assert row["titles"] == ["Neckline", "Princess seam"]
    assert [step["kind"] for step in row["steps"]] == ["neckline", "princess"]
    assert row["steps"][0]["depth"] == 160  # in millimetres, with every word filled in
    assert row["unreadable"] == ""


def test_kept_again_it_is_replaced_and_given_up_it_is_gone(client):
    client.put("/api/step-lists/One", json={"steps": [NECK]})
    client.put("/api/step-lists/One", json={"steps": [SEAM, SEAM]})
    assert kept(client)["One"]["titles"] == ["Princess seam", "Princess seam"]
    assert client.delete("/api/step-lists/One").status_code == 204
    assert kept(client) == {}
    assert client.delete("/api/step-lists/One").status_code == 404


@pytest.mark.parametrize(
    ("name", "steps", "said"),
    [
        ("Bad", [{"kind": "zigzag"}], "zigzag"),
        ("Bad", [{"kind": "neckline", "depth": "9 m"}], "out of range"),
        ("Bad", [], ""),
        ("x" * 130, [NECK], ""),
    ],
)
def test_what_is_no_list_is_refused_in_a_sentence_and_nothing_is_kept(client, name, steps, said):
    answer = client.put(f"/api/step-lists/{name}", json={"steps": steps})
    assert answer.status_code == 422
    assert said in str(answer.json())
    assert kept(client) == {}


def test_a_list_that_can_no_longer_be_read_says_so_and_hides_no_other(client):
    client.put("/api/step-lists/Good", json={"steps": [NECK]})
    with client.app.state.store.writing() as session:
        keep_step_list(session, "Old", 3, [{"kind": "no such step"}])
    rows = kept(client)
    assert rows["Good"]["titles"] == ["Neckline"]
    assert "no such step" in rows["Old"]["unreadable"]
