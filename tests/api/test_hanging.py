"""A dress hung, asked of the program: told as it falls, read, stopped; others are answered meanwhile."""

import io
import json
import threading
import time
import zipfile

import numpy as np
import pdfplumber
import pytest
from fastapi.testclient import TestClient
from PIL import Image
from pytest import approx

from dresses import recipe
from gentle_hem.api.app import create_app
from gentle_hem.core.steps.level_hem import AROUND
from gentle_hem.laying import hanging
from gentle_hem.store import Store


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as client:
        yield client


def asked(**parts):
    return recipe(**parts).model_dump(mode="json")


def told(client, number, query=""):
    """Every event of a dress that hangs."""
    with client.stream("GET", f"/api/hangs/{number}/events{query}") as events:
        for line in events.iter_lines():
            if line.startswith("data: "):
                yield json.loads(line.removeprefix("data: "))


def test_a_dress_is_hung_told_as_it_falls_and_read_and_others_are_answered_meanwhile(client):
    client.post("/api/hangs/ready").raise_for_status()
    half = {"kind": "circle", "sweep": 180.0}
    begun = client.post("/api/hangs", json=asked(lower=half)).raise_for_status().json()
    waits, done = [], threading.Event()

    def others():
        while not done.is_set():
            since = time.monotonic()
            client.get("/api/cloths").raise_for_status()
            waits.append(time.monotonic() - since)
            time.sleep(0.05)

    beside = threading.Thread(target=others)
    beside.start()
    events = list(told(client, begun["number"]))
    done.set()
    beside.join()
    assert sorted(waits)[len(waits) // 2] < 0.1
    last = events[-1]
    assert last["state"] == "rest"
    assert len([e for e in events if e["shape"]]) == 2  # in large triangles, then in small ones
    shape = [e["shape"] for e in events if e["shape"]][-1]
    assert len(shape["piece_of"]) * 3 == len(shape["triangles"])
    assert max(shape["triangles"]) == len(last["places"]) // 3 - 1
    hem = last["rest"]["hem"]
    heights = last["places"][2::3]
    # the lowest places are those of the hem, and it is read as high as they lie
    assert min(heights) / 10 == approx(min(hem["now"]), abs=12)
    assert hem["places"][0]["place"] == "at the centre front"
    assert hem["places"][0]["now"].endswith(" cm")
    assert set(AROUND) < set(hem["step"])
    again = client.post(
        "/api/hangs?unit=in", json={**asked(lower=half), "unit": "in", "name": "Called otherwise"}
    ).json()
    assert again["number"] == begun["number"]
    assert again["state"] == "rest"
    assert " in above the floor" in again["rest"]["said"][0]
    # a longer one of the same pieces begins as this one lies: in small triangles at once
    longer = asked(lower={**half, "length": 640.0})
    number = client.post(f"/api/hangs?after={begun['number']}", json=longer).json()["number"]
    assert number != begun["number"]
    events = list(told(client, number))
    assert events[-1]["state"] == "rest"
    assert len([e for e in events if e["shape"]]) == 1
    assert last["rest"]["figures"]["round the hem"].endswith(" cm")
    # a front that gapes is told with the step that closes it
    made = client.app.state.hanging_room.of(begun["number"])
    made.rest["reading"]["gapes"] = [
        {"edge": "neck edge", "off": 9.0, "wedge": 4.0, "where": "in front", "step": {"kind": "wedge"}},
        {"edge": "armhole", "off": 30.0, "wedge": 30.0, "where": "in front", "step": None},
    ]
    again = client.get(f"/api/hangs/{begun['number']}").raise_for_status().json()["rest"]
    assert again["wedges"] == [{"edge": "neck edge", "step": {"kind": "wedge"}}]
    assert "The neck edge stands off her by 0.9 cm in front." in again["said"]
    assert "A wedge of 0.4 cm pinched out of the neck edge closes it." in again["said"]
    assert "A wedge of 3.0 cm pinched out of the armhole closes it." in again["said"]


def test_a_gathered_dress_is_told_as_it_is_drawn(client):
    """At rest in finer triangles, with the ways straight out of each point, now and after two days."""
    gathered = asked(lower={"kind": "gathered", "length": 400.0, "fullness": 2.0, "hem": 40.0})
    number = client.post("/api/hangs", json=gathered).json()["number"]
    events = [e for e in told(client, number) if e["shape"]]
    assert len(events) == 3  # in large triangles, in small ones, and as it is drawn
    small, drawn = (e["shape"] for e in events[1:])
    assert len(drawn["triangles"]) > 2 * len(small["triangles"])
    last = client.get(f"/api/hangs/{number}").raise_for_status().json()
    rest = last["rest"]
    assert max(drawn["triangles"]) == max(last["shape"]["triangles"]) == len(last["places"]) // 3 - 1
    for ways in (rest["ways"], rest["ways_later"]):
        assert ways["right"] is None
        assert len(ways["left"]) == len(last["places"])
        far = np.linalg.norm(np.array(ways["left"]).reshape(-1, 3), axis=1)
        assert far == approx(np.full(len(far), 100.0), abs=2)
    assert len(rest["later"]["left"]) == len(last["places"])
    assert len(rest["strains"]["left"]) == len(drawn["piece_of"]) == len(drawn["triangles"]) // 3


def test_of_a_dress_whose_sides_are_not_alike_each_is_told_and_read(client):
    slanting = asked(steps=[{"kind": "neckline", "shape": "scoop", "depth": 150.0, "aside": 45.0, "toward": "right"}])
    number = client.post("/api/hangs", json=slanting).json()["number"]
    events = list(told(client, number))
    # her left falls first, in two sizes of triangles, then her right
    assert [bool(e["right"]) for e in events if e["shape"]] == [False, False, True, True]
    last = client.get(f"/api/hangs/{number}").raise_for_status().json()
    right, rest = last["right"], last["rest"]
    assert max(right["shape"]["triangles"]) == len(right["places"]) // 3 - 1
    assert len(right["places"]) == len(rest["later"]["right"])
    assert len(rest["strains"]["right"]) == len(right["shape"]["piece_of"])
    assert len(rest["ways"]["right"]) == len(right["places"])
    assert len(rest["later"]["left"]) == len(last["places"])
    assert right["places"] != last["places"]
    assert min(right["places"][0::3]) > -20  # as in a mirror: it lies on her left
    assert rest["right_hem"]["now"] != rest["hem"]["now"]
    assert (rest["hem"]["step"], rest["right_hem"]["step"]) == (None, None)
    assert rest["said"][0].startswith("Her left and her right are not alike: each is hung")


def test_the_pictures_of_a_dress_are_kept_with_the_version_that_hung(client):
    """On the desk, on the cut sheet, and with what is kept of her; until another version is hung."""
    dress = client.post("/api/commissions", json={"title": "Sundress", "person": "Somebody"}).json()
    place = f"/api/commissions/{dress['id']}"

    def save(recipe, over):
        body = {"recipe": recipe, "from_version": over}
        return client.post(f"{place}/versions", json=body).raise_for_status().json()["version"]

    def on_desk():
        [row] = [one for one in client.get("/api/desk").json()["rows"] if one["id"] == dress["id"]]
        return row["hung"]

    def pictures_on_cut_sheet():
        with pdfplumber.open(io.BytesIO(client.get(f"{place}/files/cut-sheet.pdf").raise_for_status().content)) as pdf:
            words = "".join(page.extract_text() for page in pdf.pages)
            return "As it hangs" in words, sum(len(page.images) for page in pdf.pages)

    version = save(asked(), dress["version"])
    hung = client.get(place).json()["recipe"]
    number = client.post("/api/hangs", json=hung).raise_for_status().json()["number"]
    assert (on_desk(), pictures_on_cut_sheet()) == (False, (False, 0))
    front = f"{place}/versions/{version}/hung/front"
    assert client.get(front).status_code == 404
    seen = f"/api/hangs/{number}/pictures"
    assert client.get(f"{seen}/front").status_code == 404
    early = client.put(f"{place}/versions/{version}/hung", json={"hang": number})
    assert early.status_code == 409  # it is not at rest yet
    list(told(client, number))
    client.put(f"{place}/versions/{version}/hung", json={"hang": number}).raise_for_status()
    png = client.get(front).raise_for_status()
    assert png.headers["content-type"] == "image/png"
    with Image.open(io.BytesIO(png.content)) as picture:
        assert picture.size == (420, 640)
    assert png.content != client.get(front.replace("front", "back")).content
    assert [client.get(f"{seen}/{view}").content == png.content for view in ("front", "back")] == [True, False]
    assert client.get(f"{seen}/above").status_code == 422
    assert (on_desk(), pictures_on_cut_sheet()[0]) == (True, True)
    assert pictures_on_cut_sheet()[1] == 3
    everything = client.get(f"/api/people/{dress['person']['id']}/everything.zip").content
    with zipfile.ZipFile(io.BytesIO(everything)) as archive:
        assert sum(name.startswith("hung/") for name in archive.namelist()) == 3
    # a longer one is another dress: nothing is shown of it that was not hung
    longer = {**hung, "lower": {**hung["lower"], "length": hung["lower"]["length"] + 20}}
    after = save(longer, version)
    refused = client.put(f"{place}/versions/{after}/hung", json={"hang": number})
    assert refused.status_code == 409
    assert "not this version" in refused.json()["detail"]
    assert (on_desk(), pictures_on_cut_sheet()) == (False, (False, 0))
    assert client.get(front).status_code == 200
    again = client.post("/api/hangs", json=client.get(place).json()["recipe"]).json()["number"]
    list(told(client, again))
    client.put(f"{place}/versions/{after}/hung", json={"hang": again}).raise_for_status()
    assert on_desk()
    assert client.get(front).status_code == 404  # of each dress those of the version hung last are kept


def test_what_its_maker_measured_of_a_cloth_comes_before_its_class(client):
    cloth = {"name": "Sea crepe", "weight": "medium", "drape": "soft"}
    shelf = client.put("/api/cloths", json={"name": "Sea crepe", "cloth": cloth}).raise_for_status().json()
    document = asked(cloths={"outer": cloth})
    first = client.post("/api/hangs", json=document).raise_for_status().json()["number"]
    noted = "How far Sea crepe gives in two days is as you measured it, and not by its class."
    assert noted not in list(told(client, first))[-1]["rest"]["said"]
    note = {"kind": "growth on the bias", "on_day": "2026-06-30", "before": "80", "after": "84"}
    client.post(f"/api/cloths/{shelf['id']}/notes", json=note).raise_for_status()
    again = client.post("/api/hangs", json=document).raise_for_status().json()["number"]
    assert again != first
    assert noted in list(told(client, again))[-1]["rest"]["said"]


def test_a_dress_that_cannot_be_cut_is_refused_in_a_sentence(client):
    document = asked(steps=[{"kind": "level_hem", "centre_front": 149.0}], lower={"kind": "gores"})
    begun = client.post("/api/hangs", json=document).json()
    last = list(told(client, begun["number"]))[-1]
    assert last["state"] == "refused"
    assert last["trouble"].startswith("It cannot be cut yet, so it is not hung.")
    assert last["rest"] is None


def test_a_dress_is_stopped_and_can_be_hung_again(client):
    begun = client.post("/api/hangs", json=asked()).json()
    client.delete(f"/api/hangs/{begun['number']}").raise_for_status()
    assert client.get(f"/api/hangs/{begun['number']}").json()["state"] == "stopped"
    assert client.post("/api/hangs", json=asked()).json()["number"] != begun["number"]


def test_what_is_not_there_and_what_is_no_recipe_is_said(client):
    assert client.get("/api/hangs/99").status_code == 404
    assert "hang it again" in client.get("/api/hangs/99").json()["detail"]
    assert client.post("/api/hangs", json={"bodice": {"kind": "paper bag"}}).status_code == 422


def test_a_process_waits_ready_and_another_is_begun_where_it_has_gone(monkeypatch):
    monkeypatch.setattr(hanging, "HANG", ["-c", "import sys; sys.stdin.read()"])
    room = hanging.HangingRoom()
    room.make_ready()
    first = room._ready
    room.make_ready()
    assert room._ready is first
    first.kill()
    first.wait()
    room.make_ready()
    assert room._ready is not first
    assert room._ready.poll() is None
    room.close()
    assert room._ready.poll() is not None


def test_what_falls_is_never_given_up_for_what_comes_after(monkeypatch):
    monkeypatch.setattr(hanging, "HANG", ["-c", "import sys, time; sys.stdin.read(); time.sleep(60)"])
    monkeypatch.setattr(hanging, "KEPT", 2)
    room = hanging.HangingRoom()
    falling = [room.start({"number": k}, {}) for k in range(4)]
    assert all(room.of(one.number) is one for one in falling)
    for one in falling[:3]:
        room.stop(one)
    room.start({"number": 5}, {})
    assert room.of(falling[0].number) is None
    assert room.of(falling[3].number) is falling[3]
    room.close()


def test_a_process_that_fails_is_said_and_never_called_at_rest(client, monkeypatch):
    monkeypatch.setattr(hanging, "HANG", ["-c", "raise SystemExit(3)"])
    begun = client.post("/api/hangs", json=asked()).json()
    last = list(told(client, begun["number"]))[-1]
    assert (last["state"], last["trouble"]) == ("failed", "Hanging this dress failed.")


def test_other_fullnesses_of_a_dress_are_named_with_their_recipes_and_hung(client):
    answer = client.post("/api/hangs/beside", json=asked(lower={"kind": "circle", "sweep": 180.0}))
    found = answer.raise_for_status().json()
    assert found["said"] == "half circle"
    assert [other["said"] for other in found["others"]] == ["quarter circle", "three-quarter circle"]
    assert [other["recipe"]["lower"]["sweep"] for other in found["others"]] == [90.0, 270.0]
    begun = client.post("/api/hangs", json=found["others"][0]["recipe"]).raise_for_status().json()
    assert begun["state"] == "falling"
    client.delete(f"/api/hangs/{begun['number']}").raise_for_status()
    inches = client.post("/api/hangs/beside?unit=in", json=asked(lower={"kind": "a_line"})).raise_for_status().json()
    assert inches["said"].endswith("of flare a side")
    assert "cm" not in inches["said"]
    plain = client.post("/api/hangs/beside", json=asked()).raise_for_status().json()
    assert plain == {"said": "", "others": []}
