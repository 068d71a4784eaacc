"""What was acknowledged is kept, whatever happens to the program."""

import random
import threading
import time
from datetime import date

import httpx
import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import select, text
from sqlalchemy.exc import IntegrityError

from conftest import a_recipe
from gentle_hem.demo import fill
from gentle_hem.demo.studio import works
from gentle_hem.store import Store
from gentle_hem.store.backup import check_backup
from gentle_hem.store.models import Base, BenchMark, Commission, FigureSet, FittingNote, Person
from gentle_hem.store.store import append_version, commissions, latest_figure, latest_version
from long import examples
from server import Server, filled


@pytest.fixture
def store(tmp_path):
    opened = Store(tmp_path)
    yield opened
    opened.close()


@pytest.fixture
def commission_id(store):
    with store.writing() as session:
        person = Person(name="Somebody", remarks="")
        session.add(person)
        session.flush()
        commission = Commission(person_id=person.id, title="A dress")
        session.add(commission)
        session.flush()
        return commission.id


def test_migrations_make_exactly_the_tables_of_the_models(store):
    with store.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []


def test_opening_twice_changes_nothing(store, tmp_path):
    fill(store)
    again = Store(tmp_path)
    with again.session() as session:
        assert len(commissions(session)) == len(works())
    again.close()


def test_versions_are_appended_and_the_same_recipe_adds_none(store, commission_id):
    recipe = a_recipe().model_dump(mode="json")
    with store.writing() as session:
        assert append_version(session, commission_id, recipe).number == 1
        assert append_version(session, commission_id, recipe).number == 1
        assert append_version(session, commission_id, {**recipe, "name": "Other"}).number == 2
        assert latest_version(session, commission_id).recipe["name"] == "Other"


def test_figures_are_dated_and_never_overwritten(store, commission_id):
    with store.writing() as session:
        for day, waist in ((date(2026, 5, 2), 720.0), (date(2026, 6, 1), 735.0), (date(2026, 4, 1), 700.0)):
            session.add(FigureSet(person_id=1, taken_on=day, measures={"waist_girth": waist}))
        session.flush()
        assert latest_figure(session, 1).measures == {"waist_girth": 735.0}
        assert len(session.get(Person, 1).figures) == 3


def test_foreign_keys_and_wal_are_on(store):
    with store.engine.connect() as connection:
        assert connection.execute(text("PRAGMA journal_mode")).scalar() == "wal"
    with pytest.raises(IntegrityError), store.writing() as session:
        append_version(session, 999, {})


def test_lengths_are_stored_unrounded(store, commission_id):
    recipe = a_recipe(lower={"length": "24 1/3 in"})
    with store.writing() as session:
        append_version(session, commission_id, recipe.model_dump(mode="json"))
    with store.writing() as session:
        assert latest_version(session, commission_id).recipe["lower"]["length"] == recipe.lower.length


ROUNDS = examples(2, 200)
WORKED = 10
"""The dress whose plan is ticked and fittings noted while others are saved."""


def test_kill_9_in_the_middle_of_saves_loses_no_acknowledged_save(tmp_path):
    """The program is killed while three windows save, started again and killed again."""
    seed = filled(tmp_path)
    seed.close()
    acknowledged: dict[int, list[float]] = {1: [], 2: [], 3: []}

    def save(server, commission, turn):
        with httpx.Client(base_url=server.url, timeout=5) as client:
            opened = client.get(f"/api/commissions/{commission}").json()
            recipe, version = opened["recipe"], opened["version"]
            for i in range(10_000):
                recipe["lower"]["length"] = 500.0 + turn + i / 7000
                body = {"recipe": recipe, "from_version": version}
                try:
                    answer = client.post(f"/api/commissions/{commission}/versions", json=body)
                except httpx.HTTPError:
                    return
                if answer.status_code == 201:
                    version = answer.json()["version"]
                    acknowledged[commission].append(recipe["lower"]["length"])

    noted: list[str] = []
    timed = [0.0]

    def work(server, turn):
        """Ticks of a plan and notes of a fitting, each known by a number of its own."""
        place = f"/api/commissions/{WORKED}"
        with httpx.Client(base_url=server.url, timeout=5) as client:
            try:
                begun = client.post(f"{place}/fittings", json={"on_day": "2026-11-27"}).json()
                visit = begun["visits"][-1]["id"]
                for i in range(10_000):
                    text = f"{turn}-{i}"
                    said = {"seen": "neck_stands_off", "text": text}
                    if client.post(f"/api/fittings/{visit}/notes", json=said).status_code == 201:
                        noted.append(text)
                    said = {"operation": "mark", "minutes": timed[-1] + 1, "done": True}
                    if client.put(f"{place}/plan/operation", json=said).status_code == 200:
                        timed.append(timed[-1] + 1)
            except httpx.HTTPError:
                return

    for turn in range(ROUNDS):
        before = sum(map(len, acknowledged.values()))
        server = Server(tmp_path).start()
        savers = [threading.Thread(target=save, args=(server, commission, turn)) for commission in acknowledged]
        savers.append(threading.Thread(target=work, args=(server, turn)))
        for saver in savers:
            saver.start()
        until = time.monotonic() + 30
        said = len(noted) + len(timed)
        while (
            sum(map(len, acknowledged.values())) < before + 12 or len(noted) + len(timed) < said + 4
        ) and time.monotonic() < until:
            time.sleep(0.01)
        server.kill()
        for saver in savers:
            saver.join()
        assert sum(map(len, acknowledged.values())) > before

    after = Store(tmp_path)
    with after.session() as session:
        for commission, lengths in acknowledged.items():
            kept = [v.recipe["lower"]["length"] for v in session.get(Commission, commission).versions]
            assert set(lengths) <= set(kept)
        assert set(noted) <= set(session.scalars(select(FittingNote.text)))
        mark = session.scalars(
            select(BenchMark).where(BenchMark.commission_id == WORKED, BenchMark.operation == "mark")
        ).one()
        assert timed[-1] <= mark.minutes <= timed[-1] + 1  # one more may have been kept and not acknowledged
        assert session.execute(text("PRAGMA integrity_check")).scalar() == "ok"
    after.close()
    print(f"{ROUNDS} kills, {sum(map(len, acknowledged.values()))} acknowledged saves, {len(noted)} notes and "
          f"{len(timed) - 1} ticks, none lost")  # fmt: skip


KILLS_OF_COPIES = examples(3, 200)


def test_kill_9_in_the_middle_of_backups_and_restores_leaves_one_state_whole(tmp_path):
    """Two states brought back in turn, and backups made between, while the program is killed: whatever moment it was,
    the records are one of the two whole, the one that was acknowledged last or the one after it, and every backup
    that was handed out and everything that was set aside is sound.
    """
    store, copies = filled(tmp_path), tmp_path / "copies"
    copies.mkdir()
    for name in ("one", "two"):
        with store.writing() as session:
            session.get(Commission, 1).occasion = name
        store.back_up(copies / f"gentle-hem-{name}.sqlite")
    store.close()
    acknowledged, backups, asked = ["two"], [], ["two"]

    def turn_about(server):
        with httpx.Client(base_url=server.url, timeout=10) as client:
            try:
                while True:
                    name = "one" if acknowledged[-1] == "two" else "two"
                    asked.append(name)
                    if client.post(f"/api/copies/gentle-hem-{name}.sqlite/bring-back").status_code == 200:
                        acknowledged.append(name)
                    backups.append(client.get("/api/backup").content)
            except httpx.HTTPError:
                return

    moments = random.Random(7)
    for kill in range(KILLS_OF_COPIES):
        before = len(acknowledged)
        server = Server(tmp_path).start()
        worker = threading.Thread(target=turn_about, args=(server,))
        worker.start()
        until = time.monotonic() + 30
        while len(acknowledged) < before + 2 and time.monotonic() < until:
            time.sleep(0.005)
        time.sleep(moments.random() * 0.2)  # any moment of the next one
        server.kill()
        worker.join()
        assert len(acknowledged) >= before + 2, kill
        after = Store(tmp_path)
        with after.session() as session:
            assert session.get(Commission, 1).occasion in (acknowledged[-1], asked[-1])
            assert session.execute(text("PRAGMA integrity_check")).scalar() == "ok"
            acknowledged.append(session.get(Commission, 1).occasion)
        after.close()
        for number, backup in enumerate(backups):
            (tmp_path / f"{number}.sqlite").write_bytes(backup)
            check_backup(tmp_path / f"{number}.sqlite")
            (tmp_path / f"{number}.sqlite").unlink()
        backups.clear()
        for aside in (tmp_path / "replaced").glob("*.sqlite"):
            check_backup(aside)
            aside.unlink()
    print(f"{KILLS_OF_COPIES} kills in backups and restores, {len(acknowledged)} states, each whole")
