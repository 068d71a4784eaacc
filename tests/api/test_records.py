"""Copies are shown, looked at and brought back while the program runs; what changed can be read and searched."""

import sqlite3
import threading
from contextlib import closing
from datetime import date

import pytest
from fastapi.testclient import TestClient

from gentle_hem.api.app import create_app
from gentle_hem.store import Store
from server import filled


@pytest.fixture
def store(tmp_path):
    store = filled(tmp_path / "studio")
    yield store
    store.close()


@pytest.fixture
def client(store):
    with TestClient(create_app(store), base_url="http://127.0.0.1", headers={"x-window": "by the door"}) as client:
        yield client


def begin(client, title, person="Odd Fellow"):
    answer = client.post("/api/commissions", json={"title": title, "person": person})
    assert answer.status_code == 201
    return answer.json()


def titles(client):
    return {row["title"] for row in client.get("/api/desk?most=200").json()["rows"]}


def test_a_copy_is_looked_at_and_brought_back_and_that_is_taken_back_the_same_way(client, store):
    begin(client, "Before the copy")
    store.copy_of_the_day(date(2026, 6, 29))
    begin(client, "After the copy")
    copies = {one["name"]: one for one in client.get("/api/copies").json()}
    copy = copies["gentle-hem-2026-06-29.sqlite"]
    assert copy["kind"] == "day"
    seen = client.get(f"/api/copies/{copy['name']}").json()
    assert seen["dresses"] == 20
    assert seen["people"] == 7
    back = client.post(f"/api/copies/{copy['name']}/bring-back")
    assert back.status_code == 200, back.text
    assert "Before the copy" in titles(client)
    assert "After the copy" not in titles(client)
    replaced = back.json()["kept_as"]
    assert {"name": replaced, "kind": "replaced"}.items() <= {
        key: value for one in client.get("/api/copies").json() if one["name"] == replaced for key, value in one.items()
    }.items()
    client.post(f"/api/copies/{replaced}/bring-back")
    assert {"Before the copy", "After the copy"} <= titles(client)
    said = [row["what"] for row in client.get("/api/activity?words=brought").json()["rows"]]
    assert len([one for one in said if one.startswith("Brought back: gentle-hem")]) == 1, (
        "the other is in what it replaced"
    )


def test_a_backup_file_is_brought_back(client, store):
    content = client.get("/api/backup").content
    begin(client, "After the backup")
    answer = client.post("/api/backup/bring-back", files={"file": ("mine.sqlite", content)})
    assert answer.status_code == 200, answer.text
    assert "After the backup" not in titles(client)
    assert [entry.name for entry in store.folder.iterdir() if entry.name.startswith("tmp")] == []


@pytest.mark.parametrize("content", [b"", b"hello " * 400, b"SQLite format 3\x00" + b"\x00" * 4000])
def test_what_is_no_backup_changes_nothing(client, content):
    before = titles(client)
    answer = client.post("/api/backup/bring-back", files={"file": ("holiday.sqlite", content)})
    assert answer.status_code == 422
    assert answer.json()["detail"].startswith("holiday.sqlite is not a backup")
    assert titles(client) == before


def test_a_copy_of_older_tables_is_brought_up_before_it_is_brought_in(client, store):
    """A copy made by the version before: the new tables are there when it has been brought back."""
    store.copy_of_the_day(date(2026, 6, 29))
    copy = store.folder / "copies" / "gentle-hem-2026-06-29.sqlite"
    with closing(sqlite3.connect(copy)) as old:
        for index in old.execute(
            "SELECT name FROM sqlite_master WHERE type='index' AND tbl_name='activity'"
        ).fetchall():
            old.execute(f"DROP INDEX IF EXISTS {index[0]}")
        for later in ("activity", "costing", "cloth_note", "photograph", "hung_picture"):
            old.execute(f"DROP TABLE {later}")
        old.execute("ALTER TABLE person DROP COLUMN put_away_at")
        old.execute("ALTER TABLE bench_mark DROP COLUMN waits_until")
        old.execute("UPDATE alembic_version SET version_num = '0009'")
        old.commit()
    assert client.post(f"/api/copies/{copy.name}/bring-back").status_code == 200
    assert len(titles(client)) == 19
    last = client.get("/api/activity").json()["rows"][0]
    assert last["what"].startswith("Brought back")
    assert last["window"] == "by the door"


def test_a_copy_is_named_by_its_name_alone(client):
    for name in ("..%2Fgentle-hem.sqlite", "gentle-hem.sqlite", "nothing"):
        assert client.get(f"/api/copies/{name}").status_code == 404


def test_nothing_is_brought_back_under_another_running_program(client, store):
    store.copy_of_the_day(date(2026, 6, 29))
    other = Store(store.folder)
    begin(client, "Stays")
    answer = client.post("/api/copies/gentle-hem-2026-06-29.sqlite/bring-back")
    assert answer.status_code == 503
    assert "Another Gentle Hem is running" in answer.json()["detail"]
    other.close()
    assert "Stays" in titles(client)
    assert client.post("/api/copies/gentle-hem-2026-06-29.sqlite/bring-back").status_code == 200


def test_while_records_are_replaced_every_call_waits_and_none_fails(client, store):
    store.copy_of_the_day(date(2026, 6, 29))
    done, answers = threading.Event(), []

    def work():
        while not done.is_set():
            answers.append(client.get("/api/desk").status_code)

    worker = threading.Thread(target=work)
    worker.start()
    try:
        for _ in range(4):
            name = "gentle-hem-2026-06-29.sqlite"
            assert client.post(f"/api/copies/{name}/bring-back").status_code == 200
    finally:
        done.set()
        worker.join()
    assert set(answers) == {200}


def rows(client, words=""):
    return client.get("/api/activity", params={"words": words, "most": 200}).json()["rows"]


def test_what_was_done_is_written_down_with_its_window(client):
    begun = begin(client, "Sail dress")
    number, recipe = begun["id"], begun["recipe"]
    version = begun["version"]
    for length in (500, 510, 520):
        recipe["lower"] = {"kind": "circle", "length": length}
        saved = client.post(f"/api/commissions/{number}/versions", json={"recipe": recipe, "from_version": version})
        version = saved.json()["version"]
    client.patch(f"/api/commissions/{number}", json={"due_on": "2027-01-04"})
    said = [row["what"] for row in rows(client, "Sail")]
    assert said == ["Due on 2027-01-04", f"Versions 1 to {version} kept", "Begun"]
    first = rows(client, "Sail")[0]
    assert (first["window"], first["title"], first["person"]) == ("by the door", "Sail dress", "Odd Fellow")


def test_saves_of_two_windows_are_two_lines(client):
    begun = begin(client, "Sail dress")
    recipe, version = begun["recipe"], begun["version"]
    for window, length in (("one", 500), ("two", 510), ("two", 520)):
        recipe["lower"] = {"kind": "circle", "length": length}
        body = {"recipe": recipe, "from_version": version}
        place = f"/api/commissions/{begun['id']}/versions"
        version = client.post(place, json=body, headers={"x-window": window}).json()["version"]
    saves = [(row["window"], row["what"]) for row in rows(client, "Sail") if "kept" in row["what"]]
    assert saves == [("two", "Versions 3 to 4 kept"), ("one", "Version 2 kept"), ("by the door", "Version 1 kept")]


@pytest.mark.parametrize("words", ["sail", "odd fellow", "BEGUN", "door begun sail"])
def test_it_is_found_by_what_of_what_whose_and_which_window(client, words):
    begin(client, "Sail dress")
    assert "Begun" in [row["what"] for row in rows(client, words)]
    assert rows(client, f"{words} zeppelin") == []


def test_every_kind_of_change_is_told(client):
    """Each thing a maker keeps has its line; what is computed has none."""
    begun = begin(client, "Sail dress")
    number, person = begun["id"], begun["person"]["id"]
    place = f"/api/commissions/{number}"
    client.patch(f"/api/people/{person}", json={"name": "Even Fellow", "remarks": "tea"})
    client.patch(f"/api/people/{person}", json={"put_away": True})
    client.post(f"/api/people/{person}/figures", json={"taken_on": "2026-06-01", "measures": {"waist_girth": 700}})
    client.patch(place, json={"title": "Wind dress", "occasion": "Regatta", "put_away": True})
    visit = client.post(f"{place}/fittings", json={"on_day": "2026-06-02"}).json()["visits"][-1]["id"]
    client.post(f"/api/fittings/{visit}/notes", json={"seen": "neck_stands_off"})
    client.put(f"{place}/plan/operation", json={"operation": "mark", "minutes": 12, "done": True, "note": "slow"})
    said = " / ".join(row["what"] for row in rows(client, "Fellow"))
    for part in ("Put on the books", "Called Even Fellow from now on", "What is to be known of her said anew",
                 "Put away", "1 measure of 2026-06-01 kept", "Called Wind dress from now on", "Its occasion: Regatta",
                 "Fitting of 2026-06-02 begun", "Seen at the fitting: "):  # fmt: skip
        assert part in said, (part, said)
