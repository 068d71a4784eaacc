"""Cloths laid through the API: kept, moved by hand, searched, watched, stopped and taken up again; the shelf."""

import io
import json
import time
from pathlib import Path

import pdfplumber
import pytest
from fastapi.testclient import TestClient
from pytest import approx

from gentle_hem.api.app import create_app
from gentle_hem.core.cloth.asked import LayAsked
from gentle_hem.core.recipe import read_recipe
from gentle_hem.store import Store
from gentle_hem.store.cloths import SEARCHING, lay_of

GOWN = json.loads(Path("examples/half-circle-inches.recipe.json").read_text())
MERMAID = json.loads(Path("examples/mermaid-gown.recipe.json").read_text())


@pytest.fixture
def client(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as client:
        yield client


@pytest.fixture
def dress(client):
    return begun(client)


def begun(client):
    made = client.post("/api/commissions", json={"title": "Dress", "person": "Ada Wick"})
    return f"/api/commissions/{made.json()['id']}/lays"


def outer(**said):
    return {**GOWN, "cloths": {"outer": said}}


def laid(client, dress, recipe=GOWN):
    return {one["cloth"]: one for one in client.post(dress, json={"recipe": recipe}).json()}


def put(client, dress, recipe=GOWN, spots=None, opened=None, **asked):
    body = {"recipe": recipe, "asked": {"role": "cloth", **asked}, "spots": spots, "opened_from": opened}
    answer = client.put(dress, json=body)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_cloth_is_laid_at_once_and_kept_as_it_is_asked(client, dress):
    first = laid(client, dress)["cloth"]
    assert first["state"] == "laid"
    assert first["faults"] == []
    assert first["asked"]["folding"] == "flat"
    folded = put(client, dress, folding="selvedges", safety=10)
    assert folded["folded"] == approx(first["width"] / 2)
    again = laid(client, dress)["cloth"]
    assert (again["folded"], again["length"], again["asked"]["safety"]) == (folded["folded"], folded["length"], 10)
    assert again["spots"] == folded["spots"]


def test_what_is_moved_by_hand_is_looked_over_at_once_and_stays_pinned(client, dress):
    first = laid(client, dress)["cloth"]
    spots = first["spots"]
    name = spots[0]["name"]
    moved = [{**spots[0], "x": spots[1]["x"] + 10, "y": spots[1]["y"] + 10}, *spots[1:]]
    pin = {"name": name, "x": moved[0]["x"], "y": moved[0]["y"]}
    over = put(client, dress, spots=moved, pins=[pin])
    assert any(name in fault and spots[1]["name"] in fault for fault in over["faults"])
    assert [one["fault"] for one in over["placed"]][:2] == [True, True]
    assert [one["name"] for one in over["placed"] if one["pinned"]] == [name]
    off = put(client, dress, spots=[{**spots[0], "x": -40}, *spots[1:]], pins=[])
    assert f"The {name} leaves the cloth." in off["faults"]
    round_it = put(client, dress, pins=[{"name": name, "x": 10, "y": 900}])
    assert round_it["faults"] == []
    spot = next(spot for spot in round_it["spots"] if spot["name"] == name)
    assert (spot["x"], spot["y"]) == (approx(10), approx(900))
    assert laid(client, dress)["cloth"]["spots"] == round_it["spots"]


def test_a_folded_lay_sent_back_as_it_lies_is_the_same_and_out_of_place_is_a_fault(client, dress):
    """The ruffle of the mermaid is cut from one layer, where the cloth is opened out at its end."""
    folded = put(client, dress, MERMAID, folding="selvedges")
    assert folded["opened_from"] is not None
    again = put(client, dress, MERMAID, folded["spots"], folding="selvedges", safety=5, opened=folded["opened_from"])
    assert again["opened_from"] == folded["opened_from"]
    assert again["length"] == approx(folded["length"], abs=0.01)  # places travel in thousandths of a millimetre
    assert again["faults"] == []
    spots = folded["spots"]
    on_fold = next(k for k, spot in enumerate(spots) if spot["layers"] == "on the fold")
    single = next(k for k, spot in enumerate(spots) if spot["layers"] == "on the opened cloth")
    for k, change in ((on_fold, {"x": 30}), (single, {"y": 0, "x": 0})):
        moved = [{**spot, **change} if at == k else spot for at, spot in enumerate(spots)]
        wrong = put(client, dress, MERMAID, moved, folding="selvedges", opened=folded["opened_from"])
        assert f"The {spots[k]['name']} leaves the cloth, or lies where it is folded otherwise." in wrong["faults"]


def test_spots_that_no_way_of_lying_gives_are_laid_anew(client, dress):
    first = put(client, dress)
    odd = [{**spot, "flipped": True} for spot in first["spots"]]
    assert put(client, dress, spots=odd)["spots"] == first["spots"]
    far = client.put(dress, json={"recipe": GOWN, "asked": {}, "spots": [{**first["spots"][0], "x": 1e300}]})
    assert far.status_code == 422


def test_a_search_begins_from_the_shortest_that_is_kept(client, dress):
    long = {"recipe": MERMAID, "asked": {"role": "cloth", "seconds": 4}}
    client.post(f"{dress}/search", json=long)
    found = list(events_of(client, dress))[-1]
    again = client.post(f"{dress}/search", json={**long, "asked": {"role": "cloth", "seconds": 1}}).json()
    assert again["length"] == approx(found["length"])
    client.post(f"{dress}/cloth/stop")
    other = client.post(f"{dress}/search", json={**long, "asked": {"folding": "selvedges", "seconds": 1}}).json()
    assert other["folded"]
    client.post(f"{dress}/cloth/stop")


def test_what_is_cut_otherwise_since_is_laid_anew_and_what_only_grew_is_looked_over(client, dress):
    put(client, dress)
    longer = {**GOWN, "lower": {**GOWN["lower"], "length": GOWN["lower"]["length"] + 30}}
    grown = laid(client, dress, longer)["cloth"]
    assert grown["faults"]
    other = {**GOWN, "lower": {**GOWN["lower"], "pieces": 4}}
    anew = laid(client, dress, other)["cloth"]
    assert anew["faults"] == []
    assert len(anew["spots"]) != len(grown["spots"])


def test_price_shrinkage_and_what_is_in_hand_are_said(client, dress):
    recipe = outer(width=1400, price=20, shrinks=10, in_hand=9000)
    said = laid(client, dress, recipe)["cloth"]
    needed = said["length"] / 0.9
    metres = float(said["buy"].split()[0]) if said["buy"].endswith(" m") else None
    yards = said["buy"].endswith("yd")
    assert metres or yards
    assert float(said["cost"]) >= 20 * needed / 1000
    assert float(said["cost"]) < 20 * (needed + 115) / 1000
    assert said["left"]
    assert not said["missing"]
    assert laid(client, dress, outer(width=1400, in_hand=300))["cloth"]["missing"]


def events_of(client, dress):
    with client.stream("GET", f"{dress}/cloth/events") as stream:
        for line in stream.iter_lines():
            if line.startswith("data:"):
                yield json.loads(line[5:])


def test_a_search_tells_every_shorter_lay_and_its_end_and_the_shortest_is_kept(client, dress):
    began = client.post(f"{dress}/search", json={"recipe": MERMAID, "asked": {"role": "cloth", "seconds": 3}})
    assert began.status_code == 202
    assert began.json()["state"] == "searching"
    told = list(events_of(client, dress))
    lengths = [one["length"] for one in told]
    assert lengths == sorted(lengths, reverse=True)
    assert told[-1]["state"] == "found"
    assert lengths[-1] < began.json()["length"]
    assert all(one["faults"] == [] for one in told)
    kept = laid(client, dress, MERMAID)["cloth"]
    assert (kept["length"], kept["state"]) == (approx(lengths[-1]), "found")


def test_a_search_is_stopped_and_keeps_what_it_has(client, dress):
    client.post(f"{dress}/search", json={"recipe": MERMAID, "asked": {"role": "cloth", "seconds": 60}})
    told = events_of(client, dress)
    next(told)
    begin = time.monotonic()
    assert client.post(f"{dress}/cloth/stop").status_code == 204
    last = list(told)[-1]
    assert last["state"] == "stopped"
    assert time.monotonic() - begin < 20
    assert laid(client, dress, MERMAID)["cloth"]["state"] == "stopped"


def test_what_was_being_searched_is_taken_up_again_after_a_restart(tmp_path):
    with TestClient(create_app(Store(tmp_path)), base_url="http://127.0.0.1") as client:
        dress = begun(client)
        began = client.post(
            f"{dress}/search", json={"recipe": MERMAID, "asked": {"role": "cloth", "seconds": 3}}
        ).json()
        number = int(dress.split("/")[3])
    store = Store(tmp_path)
    with store.session() as session:
        row = lay_of(session, number, "cloth")
        assert row.state == SEARCHING  # it was ended with the program, and not by its time
        assert row.length <= began["length"]
    with TestClient(create_app(store), base_url="http://127.0.0.1") as client:
        told = list(events_of(client, dress))
        assert told[-1]["state"] == "found"
        assert told[-1]["length"] < began["length"]


def test_a_search_that_breaks_says_so_and_keeps_the_lay(client, dress, monkeypatch):
    monkeypatch.setattr("gentle_hem.laying.room.SEARCH", ["-c", "raise SystemExit(1)"])
    client.post(f"{dress}/search", json={"recipe": GOWN, "asked": {"role": "cloth", "seconds": 3}})
    last = list(events_of(client, dress))[-1]
    assert last["state"] == "failed"
    assert "before its time" in last["trouble"]
    assert last["spots"]


def test_the_same_seed_finds_the_same_lay_by_our_own_placement():
    from gentle_hem.core.cloth.asked import spots_of
    from gentle_hem.core.make_up import make_up
    from gentle_hem.laying.search import in_other_orders

    recipe = read_recipe(GOWN)
    garment = make_up(recipe)
    asked = LayAsked(folding="selvedges", seconds=1, seed=5)
    width, how = asked.on(recipe.cloths.outer)

    def found():
        return [spots_of(lay) for lay in in_other_orders(garment, asked, width, how, lambda: next(clock))]

    clock = iter([0, *[0.1] * 8, 5])
    one = found()
    clock = iter([0, *[0.1] * 8, 5])
    assert one == found()
    assert one


CHECK = {"width": "57 in", "selvedge": "1/2 in", "price": "12.50", "repeat_along": "3 in", "colour": "#8d5f52"}


def test_a_cloth_is_put_on_the_shelf_changed_renamed_and_taken_off(client):
    made = client.put("/api/cloths?unit=in", json={"name": "Check", "cloth": CHECK}).json()
    assert made["cloth"]["width"] == approx(1447.8)
    assert made["fields"]["width"] == "57 in"
    assert made["said"][0] == "57 in wide, 56 in between the selvedges"
    changed = client.put(
        "/api/cloths?unit=cm", json={"name": "Small check", "cloth": {**made["cloth"], "shrinks": "3"},
                                     "in_the_place_of": made["id"]},
    ).json()  # fmt: skip
    assert changed["id"] == made["id"]
    rows = client.get("/api/cloths?unit=cm").json()
    assert [(row["name"], row["cloth"]["name"]) for row in rows] == [("Small check", "Small check")]
    assert "shrinks by 3 %" in rows[0]["said"]
    assert client.delete(f"/api/cloths/{made['id']}").status_code == 204
    assert client.get("/api/cloths").json() == []


@pytest.mark.parametrize(
    ("field", "value", "said"),
    [("width", "9 km", ""), ("shrinks", "80", "80 per cent is out of range; 0 to 30 is accepted"),
     ("price", "-3", "out of range"), ("colour", "red", ""), ("repeat_along", "0", "out of range")],
)  # fmt: skip
def test_what_is_no_cloth_is_refused_at_its_field(client, field, value, said):
    answer = client.put("/api/cloths", json={"name": "Odd", "cloth": {field: value}})
    assert answer.status_code == 422
    errors = answer.json()["errors"]
    assert errors[0]["field"].endswith(field)
    assert said in errors[0]["text"]
    assert client.get("/api/cloths").json() == []


def test_ways_out_are_offered_with_their_price_and_drawing_and_the_cloth_first(client):
    circle = json.loads(Path("examples/full-circle.recipe.json").read_text())
    narrow = {**circle, "cloths": {"outer": {"width": 1300, "price": 10, "in_hand": 6000}}}
    body = {"recipe": narrow, "asked": {"role": "cloth"}}
    ways = client.post("/api/lays/ways?unit=cm", json=body).json()
    assert [way for way in ways if way["asked"] and way["asked"]["corners"]]
    assert [way for way in ways if way["changes"] and "lower.length" in way["changes"]]
    assert all(way["drawing"]["paths"] for way in ways)
    assert all(float(way["cost"]) == approx(float(way["buy"].split()[0]) * 10) for way in ways)
    made = {one["title"]: one["length"] for one in client.post("/api/lays/made-from?unit=cm", json=body).json()}
    assert float(made["half circle"].split()[0]) > float(made["full circle"].split()[0])


def test_the_lay_is_printed_as_it_is_kept(client):
    begin = {"title": "Gull dress", "person": "Ada Wick", "family": "gathered"}
    made = client.post("/api/commissions", json=begin).json()
    assert client.put(
        f"/api/commissions/{made['id']}/lays", json={"recipe": made["recipe"], "asked": {"folding": "selvedges"}}
    ).json()["folded"]
    sheet = client.get(f"/api/commissions/{made['id']}/lays/lay.pdf?unit=cm")
    assert sheet.headers["content-type"] == "application/pdf"
    with pdfplumber.open(io.BytesIO(sheet.content)) as pdf:
        assert "Folded," in pdf.pages[0].extract_text()


def test_chalk_is_said_in_the_askers_unit(client):
    said = client.post("/api/chalk?unit=in", json=GOWN).json()
    assert said["sheets"]
    assert all(point["from_fold"].split()[-1] in ("in", "beyond") for one in said["sheets"] for point in one["points"])
    full = json.loads(Path("examples/full-circle.recipe.json").read_text())
    rings = client.post("/api/chalk?unit=cm", json=full).json()["rings"]
    assert [ring["wedge"] for ring in rings] == [90, 45]


def test_the_plotter_belongs_to_the_demo_and_goes_through_a_paper_out_and_a_lost_line(tmp_path, client):
    assert client.get("/api/devices/plotter").status_code == 404
    with TestClient(create_app(Store(tmp_path / "demo"), demo=True), base_url="http://127.0.0.1") as demo:
        made = demo.post("/api/commissions", json={"title": "Dress", "person": "Ada", "family": "gathered"}).json()
        number = made["id"]
        changed = {**made["recipe"], "lower": {**made["recipe"]["lower"], "length": 1500}}
        kept = {"recipe": changed, "from_version": 1}
        assert demo.post(f"/api/commissions/{number}/versions", json=kept).status_code == 201
        demo.post("/api/devices/plotter/manner", json={"cut_after": 4})
        lost = demo.post(f"/api/devices/plotter/plots/{number}").json()
        assert "line to the plotter was lost" in lost["trouble"]
        out = demo.post("/api/devices/plotter/go-on").json()
        while out["waiting"]:
            assert "The paper ended" in out["trouble"]
            demo.post("/api/devices/plotter/load", json={"length": 6000})
            out = demo.post("/api/devices/plotter/go-on").json()
        assert out["trouble"] == ""
        assert out["drawn"]
        assert demo.post("/api/devices/plotter/load", json={"length": 5}).status_code == 422
