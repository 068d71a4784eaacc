"""A person is told whole and erased wholly: from the records, from every kept copy, bytes and all."""

import json
import shutil
import sqlite3
import zipfile
from contextlib import closing
from datetime import UTC, date, datetime
from io import BytesIO

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import insert, select

from gentle_hem.api.app import create_app
from gentle_hem.store import Store
from gentle_hem.store.backup import back_up, check_backup
from gentle_hem.store.days import workroom
from gentle_hem.store.erasing import belonging
from gentle_hem.store.models import (
    Activity,
    Base,
    BenchMark,
    ClothNote,
    Commission,
    Correction,
    FigureSet,
    Person,
    Visit,
)
from gentle_hem.store.people import whole
from server import filled

NOW = datetime(2026, 6, 30, 14, 2)
MARK = "Quillfeather"
"""A name that nothing else holds."""

WAIST = 713.515625
"""A waist that nobody else has, exact in any file (mm)."""


@pytest.fixture
def store(tmp_path):
    store = filled(tmp_path / "studio")
    with store.writing() as session:
        dress = session.scalars(select(Commission).where(Commission.title == "Harbour master's suit dress")).one()
        person = dress.person
        person.name, person.remarks = f"Ada {MARK}", f"{MARK} likes pockets"
        session.add(FigureSet(person_id=person.id, taken_on=date(2026, 5, 1), measures={"waist_girth": WAIST}))
        session.add(BenchMark(commission_id=dress.id, operation="mark", work="cut", done_at=datetime.now(UTC)))
        session.add(Correction(person_id=person.id, seen="neck_cuts_in", taken="lower_front_neck", amount=6.0))
    yield store
    store.close()


@pytest.fixture
def client(store):
    with TestClient(create_app(store), base_url="http://127.0.0.1") as client:
        client.post("/api/calendar/lay-out")
        yield client


def hers(store):
    with store.session() as session:
        return session.scalars(select(Person.id).where(Person.name.contains(MARK))).one()


def files_holding(folder, *needles):
    return [
        str(file.relative_to(folder))
        for file in folder.rglob("*")
        if file.is_file() and any(needle.encode() in file.read_bytes() for needle in needles)
    ]


def test_what_is_hers_is_every_row_that_leads_to_her(client, store):
    """Against SQLAlchemy's own knowledge of the tables: each that points at a person or a dress is gone through."""
    with closing(sqlite3.connect(store.file)) as records:
        found = belonging(records, [hers(store)])
    pointing = {
        table.name for table in Base.metadata.tables.values()
        if any(key.column.table.name in ("person", "commission", "visit") for key in table.foreign_keys)
    }  # fmt: skip
    assert set(found) <= pointing | {"person"}
    assert {"figure", "commission", "recipe_version", "visit", "fitting_note", "bench_mark", "slip", "sitting",
            "task_list", "activity", "correction"} <= set(found)  # fmt: skip
    with store.session() as session:
        assert found["visit"] == set(
            session.scalars(select(Visit.id).join(Commission).where(Commission.person_id == hers(store)))
        )


def test_an_erased_person_leaves_no_trace(client, store):
    """Checked by bytes, after she was in the records, their log, two copies of days and one that a restore replaced."""
    with store.writing() as session:
        room, dress = workroom(session), session.get(Person, hers(store)).commissions[0]
        late = {"commission": dress.id, "text": f"{dress.title}, a suit dress, is late."}
        room.troubles = {**room.troubles, "late": [late, {"commission": 0, "text": "Another is late."}]}
    store.copy_of_the_day(date(2026, 6, 29))
    with store.writing() as session:
        session.get(Person, hers(store)).remarks = f"{MARK} likes sleeves now"
    store.copy_of_the_day(date(2026, 6, 30))
    (store.folder / "replaced").mkdir()
    back_up(store.file, store.folder / "replaced" / "gentle-hem-2026-06-01-120000.sqlite")
    assert len(files_holding(store.folder, MARK)) >= 4
    number = hers(store)
    with store.session() as session:
        titles = [row.title for row in session.get(Person, number).commissions]
        hers_were = {row.id for row in session.get(Person, number).commissions}
        others = session.query(Commission).count() - len(titles)
    assert len(titles) == 3

    refused = client.post(f"/api/people/{number}/erase", json={"name": "Ada"})
    assert refused.status_code == 422
    assert "nothing was erased" in refused.json()["detail"]
    answer = client.post(f"/api/people/{number}/erase", json={"name": f"Ada {MARK}"})
    assert answer.status_code == 200, answer.text
    assert answer.json()["still_in"] == []

    assert files_holding(store.folder, MARK, str(WAIST), "suit dress") == []
    for copy in store.folder.rglob("*.sqlite"):
        check_backup(copy)
    assert not (store.folder / "to-pack").exists()
    with store.session() as session:
        notes = list(session.scalars(select(ClothNote)))
        assert len(notes) == 12, "what was learnt of a cloth at her dresses is the cloth's"
        assert not {note.commission_id for note in notes} & hers_were
        assert session.query(Commission).count() == others
        assert [one["text"] for one in workroom(session).troubles["late"]] == ["Another is late."]
        assert session.connection().exec_driver_sql("PRAGMA foreign_key_check").first() is None
    assert [row["what"] for row in client.get("/api/activity").json()["rows"]].count("A person erased wholly") == 1
    assert client.get(f"/api/people/{number}").status_code == 404
    assert client.get("/api/desk").json()["total"] == others
    assert client.get("/api/calendar").status_code == 200


def test_a_copy_knows_her_by_another_name(client, store):
    """A copy of a day when she was called otherwise is gone through too: it is the same row."""
    store.copy_of_the_day(date(2026, 6, 29))
    number = hers(store)
    client.patch(f"/api/people/{number}", json={"name": "Ada Married"})
    client.post(f"/api/people/{number}/erase", json={"name": "Ada Married"})
    assert files_holding(store.folder, MARK, "Ada Married") == []


def test_a_copy_that_cannot_be_gone_through_is_said_to_hold_her_still(client, store):
    store.copy_of_the_day(date(2026, 6, 29))
    copy = store.folder / "copies" / "gentle-hem-2026-06-29.sqlite"
    content = copy.read_bytes()
    copy.write_bytes(content[:5000] + b"\xff" * 4000 + content[9000:])
    answer = client.post(f"/api/people/{hers(store)}/erase", json={"name": f"Ada {MARK}"}).json()
    assert answer["still_in"] == [copy.name]
    assert files_holding(store.folder, MARK) == [f"copies/{copy.name}"]


def test_another_person_s_copy_of_the_same_number_is_left_alone(client, store):
    """A number may be given anew; whoever has it in an older copy, begun at another time, is somebody else."""
    store.copy_of_the_day(date(2026, 6, 29))
    copy = store.folder / "copies" / "gentle-hem-2026-06-29.sqlite"
    number = hers(store)
    with closing(sqlite3.connect(copy)) as records:
        records.execute("UPDATE person SET name = 'Somebody Else', created_at = '2019-01-01' WHERE id = ?", (number,))
        records.commit()
    client.post(f"/api/people/{number}/erase", json={"name": f"Ada {MARK}"})
    with closing(sqlite3.connect(copy)) as records:
        assert records.execute("SELECT count(*) FROM person WHERE name = 'Somebody Else'").fetchone() == (1,)


def test_erasing_that_was_interrupted_is_ended_at_the_next_start(store, monkeypatch):
    """Killed after she was taken out and before the file was written anew: her bytes go when the program starts."""
    number = hers(store)
    monkeypatch.setattr("gentle_hem.store.store.pack", lambda _: (_ for _ in ()).throw(KeyboardInterrupt))
    with pytest.raises(KeyboardInterrupt):
        store.erase(number)
    monkeypatch.undo()
    store.engine.dispose()
    assert (store.folder / "to-pack").exists()
    again = Store(store.folder)
    again.close()
    assert files_holding(store.folder, MARK) == []
    assert not (store.folder / "to-pack").exists()


def test_nobody_is_erased_under_another_running_program(store):
    other = Store(store.folder)
    with pytest.raises(Exception, match="Another Gentle Hem is running"):
        store.erase(hers(store))
    other.close()
    with store.session() as session:
        assert session.get(Person, hers(store)) is not None


def test_told_whole_every_kept_value_of_hers_is_in_the_file(client, store):
    answer = client.get(f"/api/people/{hers(store)}/everything.zip")
    with zipfile.ZipFile(BytesIO(answer.content)) as archive:
        told = json.loads(archive.read("everything.json"))
        names = archive.namelist()
        assert any("71.35156" in archive.read(name).decode() for name in names if "measures/" in name)
        assert any(json.loads(archive.read(name)).get("version") for name in names if name.endswith("recipe.json"))
    with closing(sqlite3.connect(store.file)) as records:
        kept = belonging(records, [hers(store)])
    assert {table: {row["id"] for row in rows} for table, rows in told.items()} == {k: set(v) for k, v in kept.items()}
    assert told["person"][0]["remarks"] == f"{MARK} likes pockets"
    assert told["figure"][-1]["measures"] == {"waist_girth": WAIST}
    assert len(told["visit"]) == 3
    assert 'filename="Ada Quillfeather.zip"' in answer.headers["content-disposition"]


def test_two_entries_of_one_person_are_made_one(client, store):
    number = hers(store)
    begun = client.post("/api/commissions", json={"title": "Second", "person": "A. Quill"}).json()
    other = begun["person"]["id"]
    with store.writing() as session:
        session.add(Correction(person_id=other, seen="neck_cuts_in", taken="lower_front_neck", amount=99.0))
        session.add(FigureSet(person_id=other, taken_on=date(2026, 6, 2), measures={"waist_girth": 720.0}))
    assert client.post(f"/api/people/{other}/merge", json={"into": other}).status_code == 422
    assert client.post(f"/api/people/{other}/merge", json={"into": number}).status_code == 204
    page = client.get(f"/api/people/{number}").json()
    assert {row["title"] for row in page["dresses"]} >= {"Second", "Harbour master's suit dress"}
    assert len(page["dresses"]) == 4
    assert "2026-06-02" in page["taken_on"]
    assert client.get(f"/api/people/{other}").status_code == 404
    with store.session() as session:
        amounts = list(session.scalars(select(Correction.amount).where(Correction.person_id == number)))
        assert amounts == [6.0], "what is in her block stays as the entry that stays has it"


def test_a_person_is_called_otherwise_and_put_away(client, store):
    number, somebody = hers(store), client.get("/api/people").json()[0]["name"]
    taken = client.patch(f"/api/people/{number}", json={"name": somebody if MARK not in somebody else "x"})
    assert taken.status_code in (204, 409)
    assert client.patch(f"/api/people/{number}", json={"name": "  Ada   Moss "}).status_code == 204
    dress = client.get(f"/api/people/{number}").json()["dresses"][0]["id"]
    assert b"Ada Moss" in client.get(f"/api/commissions/{dress}/files/recipe.json").content
    client.patch(f"/api/people/{number}", json={"put_away": True})
    assert "Ada Moss" not in {one["name"] for one in client.get("/api/people").json()}
    assert [one["name"] for one in client.get("/api/people/rows?put_away=true").json()] == ["Ada Moss"]
    client.post("/api/commissions", json={"title": "New", "person": "Ada Moss"})
    assert "Ada Moss" in {one["name"] for one in client.get("/api/people").json()}, "a new dress brings her back"


def test_a_name_that_is_taken_says_so(client, store):
    names = [one["name"] for one in client.get("/api/people").json() if MARK not in one["name"]]
    answer = client.patch(f"/api/people/{hers(store)}", json={"name": names[0]})
    assert answer.status_code == 409
    assert "make them one" in answer.json()["detail"]


def test_copies_of_other_programs_folders_are_not_touched(client, store, tmp_path):
    elsewhere = tmp_path / "backup.sqlite"
    shutil.copyfile(store.file, elsewhere)
    store.back_up(elsewhere)
    client.post(f"/api/people/{hers(store)}/erase", json={"name": f"Ada {MARK}"})
    assert MARK.encode() in elsewhere.read_bytes(), "a backup the maker took away is hers to erase"
    assert datetime.now(UTC) > datetime.fromtimestamp(elsewhere.stat().st_mtime, UTC)


def test_what_a_killed_program_left_half_made_is_taken_away_at_the_next_start(store):
    """A copy half made when it was killed would hold her after she is erased; nothing of another running program's is
    touched.
    """
    left = [store.folder / "unfinished-x1" / "gentle-hem.sqlite", store.folder / "copies" / "a.sqlite.part",
            store.folder / "gentle-hem.sqlite.part"]  # fmt: skip
    for file in left:
        file.parent.mkdir(exist_ok=True)
        file.write_text(MARK)
    Store(store.folder).close()
    assert all(file.exists() for file in left), "this program is at work here"
    store.close()
    Store(store.folder).close()
    assert not any(file.exists() for file in left)
    assert not (store.folder / "unfinished-x1").exists()


def test_a_person_of_very_many_rows_is_told_and_erased(store):
    """More rows than SQLite takes in one question."""
    number = hers(store)
    with store.writing() as session:
        dress = session.get(Person, number).commissions[0].id
        session.execute(
            insert(Activity), [{"commission_id": dress, "what": f"{k}", "window": ""} for k in range(40_000)]
        )
    with store.session() as session:
        assert len(whole(session, session.get(Person, number))["activity"]) > 40_000
    assert store.erase(number) == []
    assert files_holding(store.folder, MARK) == []
