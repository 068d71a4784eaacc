"""How a cloth falls, asked of the program: in a process of its own, kept for every cloth that is like it."""

import threading
import time

import pytest
from fastapi.testclient import TestClient
from pytest import approx
from shapely import Polygon

from gentle_hem.api.app import create_app
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.hang.fabric import Fabric
from gentle_hem.laying import falling
from gentle_hem.store import Store

LIMP = {"weight": "light", "drape": "limp"}


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as client:
        yield client


def test_a_cloth_is_let_fall_said_and_drawn_and_others_are_answered_meanwhile(client):
    told = {}
    asking = threading.Thread(target=lambda: told.update(answer=client.post("/api/cloths/falls", json=LIMP)))
    asking.start()
    waits = []
    while asking.is_alive():
        begun = time.monotonic()
        client.get("/api/cloths").raise_for_status()
        waits.append(time.monotonic() - begun)
        time.sleep(0.05)
    fall = told["answer"].raise_for_status().json()
    assert sorted(waits)[len(waits) // 2] < 0.1
    share = float(fall["said"].split(" % ")[0].removeprefix("Its drape is "))
    ring = Polygon(fall["above"]).area - 3.14159 * fall["support"] ** 2
    assert ring / (3.14159 * (150**2 - 90**2)) == approx(
        share / 100, abs=0.04
    )  # what hangs in under itself is not seen
    assert "its bending length 1.3 cm" in fall["said"]
    assert max(y for _, y in fall["near"]) <= fall["hangs"]
    assert 40 < fall["hangs"] < 60  # no further than the 6 cm that hang
    assert [fall["near"][0], fall["near"][-1]] == [fall["far"][0], fall["far"][-1]]
    begun = time.monotonic()
    again = client.post("/api/cloths/falls?unit=in", json=LIMP).json()
    assert time.monotonic() - begun < 1
    assert "its bending length 1/2 in" in again["said"]
    assert again["above"] == fall["above"]


def test_what_is_no_cloth_is_refused_by_name(client):
    answer = client.post("/api/cloths/falls", json={"drape": "floating"})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"].endswith("drape")


@pytest.mark.parametrize(
    "fails", [["-c", f"raise SystemExit({falling.RESTS_NOT})"], ["-c", "import time; time.sleep(9)"]]
)
def test_a_cloth_that_does_not_come_to_rest_is_said_and_nothing_is_kept_of_it(client, monkeypatch, fails):
    monkeypatch.setattr(falling, "FALL", fails)
    monkeypatch.setattr(falling, "LONGEST", 1.0)
    answer = client.post("/api/cloths/falls", json={"weight": "net", "drape": "crisp"})
    assert answer.status_code == 503
    assert "did not come to rest" in answer.json()["detail"]
    with pytest.raises(falling.DoesNotRest):
        falling.FallingRoom().fall(Fabric.of(Cloth()))


def test_a_fault_while_it_falls_is_not_called_restless_cloth(monkeypatch):
    monkeypatch.setattr(falling, "FALL", ["-c", "raise KeyError('warp')"])
    with pytest.raises(RuntimeError, match=r"ended with 1: (?s:.*)KeyError: 'warp'"):
        falling.FallingRoom().fall(Fabric.of(Cloth()))


def test_the_room_keeps_the_last_cloths_and_works_each_out_once(monkeypatch):
    asked = []
    monkeypatch.setattr(falling, "_apart", lambda fabric: asked.append(fabric) or len(asked))
    monkeypatch.setattr(falling, "KEPT", 2)
    room = falling.FallingRoom()
    one, two, three = (Fabric.of(Cloth(across=stretch)) for stretch in (10, 20, 30))
    assert [room.fall(fabric) for fabric in (one, two, one, three, one, two)] == [1, 2, 1, 3, 1, 4]
    assert asked == [one, two, three, two]
