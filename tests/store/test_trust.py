"""The records are the maker's alone, are backed up, and say in a sentence what is wrong with them."""

import os
import shutil
import sqlite3
import stat
import subprocess
import sys
import tempfile
import threading
import time
from contextlib import closing, suppress
from datetime import date, datetime, timedelta
from pathlib import Path

import httpx
import pytest
from fastapi.testclient import TestClient

from gentle_hem.api.app import create_app
from gentle_hem.cli import main
from gentle_hem.store import Store, StoreTrouble
from gentle_hem.store.backup import KEPT, back_up, check_backup, restore
from gentle_hem.store.store import append_version, commissions, latest_version, people
from server import Server, filled, running, wait_until

NOW = datetime(2026, 6, 30, 14, 2)


@pytest.fixture
def studio(tmp_path):
    store = filled(tmp_path / "studio")
    yield store
    store.close()


def mode(path):
    return stat.S_IMODE(os.stat(path).st_mode)


def desk(folder):
    store = Store(folder)
    with TestClient(create_app(store), base_url="http://127.0.0.1") as client:
        return [
            {**row, "recipe": client.get(f"/api/commissions/{row['id']}").json()["recipe"]}
            for row in client.get("/api/desk").json()["rows"]
        ]


def test_folder_and_files_are_the_makers_alone(studio):
    assert mode(studio.folder) == 0o700
    for file in studio.folder.iterdir():
        assert mode(file) & 0o077 == 0 or file.name == "in-use", file
    studio.copy_of_the_day(date(2026, 6, 30))
    assert mode(studio.folder / "copies") == 0o700
    assert mode(studio.folder / "copies" / "gentle-hem-2026-06-30.sqlite") == 0o600


def test_closing_folds_everything_into_the_one_file(tmp_path):
    store = filled(tmp_path)
    store.close()
    assert sorted(file.name for file in tmp_path.iterdir()) == ["gentle-hem.sqlite", "in-use"]


def test_a_backup_made_while_work_goes_on_is_whole(studio, tmp_path):
    done = threading.Event()

    def work():
        k = 0
        while not done.is_set():
            k += 1
            with studio.writing() as session:
                version = latest_version(session, 1)
                append_version(session, 1, {**version.recipe, "remarks": f"{k}"})

    worker = threading.Thread(target=work)
    worker.start()
    try:
        for k in range(5):
            studio.back_up(tmp_path / f"{k}.sqlite")
            check_backup(tmp_path / f"{k}.sqlite")
    finally:
        done.set()
        worker.join()
    assert mode(tmp_path / "0.sqlite") == 0o600
    assert not list(tmp_path.glob("*.part"))


def test_a_restored_backup_gives_the_same_desk_and_garments(tmp_path):
    store = filled(tmp_path / "a")
    store.back_up(tmp_path / "backup.sqlite")
    store.close()
    assert restore(tmp_path / "backup.sqlite", tmp_path / "b", NOW) is None
    assert desk(tmp_path / "b") == desk(tmp_path / "a")


def test_what_a_restore_replaces_is_kept(studio, tmp_path):
    studio.back_up(tmp_path / "backup.sqlite")
    other = Store(tmp_path / "other")
    other.close()
    kept = restore(tmp_path / "backup.sqlite", tmp_path / "other", NOW)
    assert kept == tmp_path / "other" / "replaced" / "gentle-hem-2026-06-30-140200.sqlite"
    check_backup(kept)
    again = Store(tmp_path / "other")
    with again.session() as session:
        assert len(commissions(session)) == 19
    again.close()


@pytest.mark.parametrize(
    ("content", "part"),
    [
        (None, "There is no file"),
        (b"", "not a backup"),
        (b"hello " * 400, "not a backup"),
        ("cut", "damaged|not a backup"),
    ],
)
def test_a_restore_looks_first_and_changes_nothing_it_should_not(studio, tmp_path, content, part):
    file = tmp_path / "backup.sqlite"
    if content == "cut":
        studio.back_up(file)
        file.write_bytes(file.read_bytes()[:30_000])
    elif content is not None:
        file.write_bytes(content)
    target = filled(tmp_path / "target")
    target.close()
    before = (tmp_path / "target" / "gentle-hem.sqlite").read_bytes()
    with pytest.raises(StoreTrouble, match=part):
        restore(file, tmp_path / "target", NOW)
    assert (tmp_path / "target" / "gentle-hem.sqlite").read_bytes() == before


def test_nothing_is_restored_under_a_running_program(studio, tmp_path):
    studio.back_up(tmp_path / "backup.sqlite")
    with pytest.raises(StoreTrouble, match="is running"):
        restore(tmp_path / "backup.sqlite", studio.folder, NOW)


def test_damaged_records_are_replaced_and_kept_byte_for_byte(studio, tmp_path):
    studio.back_up(tmp_path / "backup.sqlite")
    folder = tmp_path / "damaged"
    folder.mkdir()
    (folder / "gentle-hem.sqlite").write_bytes(b"scrambled " * 1000)
    with pytest.raises(StoreTrouble, match=r"damaged and has been left as it is.*restore a backup"):
        Store(folder)
    kept = restore(tmp_path / "backup.sqlite", folder, NOW)
    assert kept.read_bytes() == b"scrambled " * 1000
    Store(folder).close()


def test_one_copy_a_day_and_the_oldest_go(studio):
    first = date(2026, 6, 1)
    for day in range(KEPT + 3):
        assert studio.copy_of_the_day(first + timedelta(days=day))
        assert not studio.copy_of_the_day(first + timedelta(days=day))
    kept = sorted(file.stem[-10:] for file in (studio.folder / "copies").iterdir())
    assert len(kept) == KEPT
    assert kept[0] == "2026-06-04"


def test_a_truncated_file_names_the_copy_to_bring_back(tmp_path):
    store = filled(tmp_path)
    store.copy_of_the_day(date(2026, 6, 29))
    store.close()
    whole = store.file.read_bytes()
    for kept in (0, 5000, len(whole) // 2):
        store.file.write_bytes(whole[:kept])
        with pytest.raises(StoreTrouble, match=r"damaged.*copy of 2026-06-29.*hem restore"):
            Store(tmp_path)
        assert store.file.read_bytes() == whole[:kept], "left as it is"


def test_a_newer_programs_file_is_not_touched(studio, tmp_path, capsys):
    studio.back_up(tmp_path / "newer" / "gentle-hem.sqlite")
    file = tmp_path / "newer" / "gentle-hem.sqlite"
    with closing(sqlite3.connect(file)) as connection:
        connection.execute("UPDATE alembic_version SET version_num = '9999'")
        connection.commit()
    assert main(["run", "--port", "8798", "--data", str(tmp_path / "newer")]) == 2
    assert "newer Gentle Hem" in capsys.readouterr().err
    assert main(["restore", str(file), "--data", str(tmp_path / "x")]) == 2
    assert "newer Gentle Hem" in capsys.readouterr().err


def test_records_of_the_first_version_open_and_two_of_one_name_are_told_apart(tmp_path):
    """A file as the program wrote it before slips were kept, a person in it twice by a race."""
    from alembic import command
    from alembic.config import Config
    from sqlalchemy import create_engine

    from conftest import a_recipe
    from gentle_hem.store.backup import MIGRATIONS

    engine = create_engine(f"sqlite:///{tmp_path / 'gentle-hem.sqlite'}")
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "0001")
        for number in (1, 2):
            connection.exec_driver_sql("INSERT INTO person (id, name, remarks) VALUES (?, 'Ada Quill', '')", (number,))
            connection.exec_driver_sql(
                "INSERT INTO figure (person_id, taken_on, measures) VALUES (?, '2026-05-01', '{}')", (number,)
            )
            connection.exec_driver_sql(
                "INSERT INTO commission (id, person_id, title, occasion) VALUES (?, ?, 'Gown', '')", (number, number)
            )
            for version in (1, 2):
                connection.exec_driver_sql(
                    "INSERT INTO recipe_version (commission_id, number, recipe) VALUES (?, ?, ?)",
                    (number, version, a_recipe().model_dump_json()),
                )
    engine.dispose()
    store = Store(tmp_path)
    with store.session() as session:
        assert [person.name for person in people(session)] == ["Ada Quill", "Ada Quill (2)"]
        assert [row.version for row in commissions(session)] == [2, 2]
        assert [len(person.figures) for person in people(session)] == [1, 1]
    store.close()


def test_a_folder_that_may_only_be_read_is_said_in_one_sentence(tmp_path, capsys):
    folder = tmp_path / "file-not-folder"
    folder.write_text("a file where a folder should be")
    assert main(["run", "--port", "8798", "--data", str(folder)]) == 2
    assert main(["run", "--port", "8798", "--data", str(folder / "below")]) == 2
    said = capsys.readouterr().err.splitlines()
    assert len(said) == 2
    assert all("cannot be used" in line and "name another" in line for line in said)


READ_ONLY = """
import os, pathlib, sys, tempfile
from gentle_hem.cli import main
from gentle_hem.store import Store
with tempfile.TemporaryDirectory() as folder:  # everything that opening needs is loaded while it may be read
    Store(pathlib.Path(folder)).close()
os.setgid(65534)
os.setuid(65534)
sys.exit(main(["run", "--port", "8797", "--data", sys.argv[1]]))
"""


@pytest.mark.skipif(os.geteuid() != 0, reason="only root can become somebody who may not write")
def test_a_read_only_folder_is_said_in_one_sentence():
    with tempfile.TemporaryDirectory() as above:
        os.chmod(above, 0o755)
        folder = Path(above) / "records"
        filled(folder).close()
        for file in folder.iterdir():
            file.chmod(0o444)
        folder.chmod(0o555)
        done = subprocess.run(
            [sys.executable, "-c", READ_ONLY, str(folder)], capture_output=True, text=True, timeout=60
        )
    assert done.returncode == 2, done.stderr
    [line] = done.stderr.strip().splitlines()
    assert "Make it writable" in line


FULL_DISK = """
import resource, sys, signal, pathlib
from gentle_hem.store import Store
from gentle_hem.store.store import append_version, latest_version
from gentle_hem.store.trouble import sentence_for
store = Store(pathlib.Path(sys.argv[1]))
signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
resource.setrlimit(resource.RLIMIT_FSIZE, (store.file.stat().st_size + 40_000, resource.RLIM_INFINITY))
kept = 1
try:
    for k in range(400):
        with store.writing() as session:
            recipe = dict(latest_version(session, 1).recipe, remarks="x" * 3000 + str(k))
            kept = append_version(session, 1, recipe).number
except Exception as error:
    print(sentence_for(error, store.file) or repr(error))
    print(kept - 1)
"""


def test_a_full_disk_refuses_in_a_sentence_and_keeps_what_was_acknowledged(tmp_path):
    """The disk is made full for one process by the largest file it may write."""
    store = filled(tmp_path)
    store.close()
    done = subprocess.run([sys.executable, "-c", FULL_DISK, str(tmp_path)], capture_output=True, text=True, timeout=60)
    said, acknowledged = done.stdout.strip().splitlines()
    assert "disk" in said
    again = Store(tmp_path)
    with again.session() as session:
        assert latest_version(session, 1).number >= int(acknowledged)
    again.close()


def test_a_locked_file_is_a_sentence_and_is_tried_again(studio, monkeypatch):
    with TestClient(create_app(studio), base_url="http://127.0.0.1") as client:
        opened = client.get("/api/commissions/1").json()
        body = {"recipe": {**opened["recipe"], "remarks": "later"}, "from_version": opened["version"]}
        with closing(sqlite3.connect(studio.file, isolation_level=None)) as other:
            other.execute("BEGIN IMMEDIATE")
            for connection in (studio.engine.raw_connection(),):
                connection.close()
            answer = client.post("/api/commissions/1/versions", json=body)
            assert answer.status_code == 503
            assert "locked" in answer.json()["detail"]
            other.execute("ROLLBACK")
        assert client.post("/api/commissions/1/versions", json=body).status_code == 201


def test_two_servers_on_one_folder_lose_nothing(tmp_path):
    store = filled(tmp_path)
    store.close()
    with running(tmp_path) as one, running(tmp_path) as other:
        kept = []

        def save(server, mark):
            for k in range(15):
                opened = httpx.get(f"{server.url}/api/commissions/1").json()
                recipe = {**opened["recipe"], "remarks": f"{mark} {k}"}
                body = {"recipe": recipe, "from_version": opened["version"]}
                answer = httpx.post(f"{server.url}/api/commissions/1/versions", json=body, timeout=20)
                assert answer.status_code in (201, 409), answer.text
                if answer.status_code == 201:
                    kept.append(recipe["remarks"])

        savers = [threading.Thread(target=save, args=pair) for pair in ((one, "one"), (other, "other"))]
        for saver in savers:
            saver.start()
        for saver in savers:
            saver.join()
        versions = httpx.get(f"{one.url}/api/commissions/1/versions?most=200").json()["versions"]
        remarks = {
            httpx.get(f"{one.url}/api/commissions/1/versions/{v['version']}").json()["remarks"] for v in versions
        }
    assert len(kept) >= 15
    assert set(kept) <= remarks


@pytest.mark.parametrize("signal_name", ["SIGINT", "SIGHUP", "SIGTERM"])
def test_ctrl_c_and_a_closed_terminal_end_it_cleanly(tmp_path, signal_name):
    import signal

    server = Server(tmp_path).start()
    created = httpx.post(f"{server.url}/api/commissions", json={"title": "Gown", "person": "Ada"})
    assert created.status_code == 201
    server.process.send_signal(getattr(signal, signal_name))
    assert server.process.wait(timeout=15) in (0, -15)
    server.process.stdout.close()
    assert not (tmp_path / "gentle-hem.sqlite-wal").exists()
    with closing(sqlite3.connect(tmp_path / "gentle-hem.sqlite")) as connection:
        assert connection.execute("SELECT title FROM commission").fetchall() == [("Gown",)]


def test_a_backup_by_button_and_by_command(studio, tmp_path, capsys):
    with TestClient(create_app(studio), base_url="http://127.0.0.1") as client:
        sent = client.get("/api/backup")
        assert sent.headers["content-disposition"].endswith('.sqlite"')
        (tmp_path / "by-button.sqlite").write_bytes(sent.content)
    check_backup(tmp_path / "by-button.sqlite")
    assert main(["backup", str(tmp_path / "by-command.sqlite"), "--data", str(studio.folder)]) == 0
    check_backup(tmp_path / "by-command.sqlite")
    assert main(["backup", str(tmp_path / "none.sqlite"), "--data", str(tmp_path / "nowhere")]) == 2
    assert "There are no records" in capsys.readouterr().err
    assert main(["restore", str(tmp_path / "by-button.sqlite"), "--data", str(tmp_path / "back")]) == 0
    assert desk(tmp_path / "back") == desk(studio.folder)


def test_a_backup_that_cannot_be_written_says_so(studio, tmp_path):
    (tmp_path / "file").write_text("x")
    with pytest.raises(StoreTrouble, match=r"cannot be used|could not be written"):
        back_up(studio.file, tmp_path / "file" / "backup.sqlite")
    shutil.rmtree(studio.folder / "copies", ignore_errors=True)


def test_logs_name_nobody_and_hold_no_measure(studio, caplog):
    """A fault on purpose: the log says where it was, never what was typed."""
    app = create_app(studio)

    @app.get("/api/stumble")
    def stumble():
        raise KeyError("Isolde Marrin, waist 712")

    app.router.routes.insert(0, app.router.routes.pop())
    with TestClient(app, base_url="http://127.0.0.1") as client:
        answer = client.get("/api/stumble")
    assert answer.status_code == 500
    assert "fault of the program" in answer.json()["detail"]
    assert "KeyError at test_trust.py" in caplog.text
    for words in (caplog.text, answer.text):
        assert "Isolde" not in words
        assert "712" not in words


def test_a_search_that_is_watched_does_not_hold_the_program_up_when_it_ends(tmp_path):
    """It ends at once, and the search is taken up again when it next starts."""
    filled(tmp_path).close()
    server, told = Server(tmp_path).start(), []

    def watch():
        place = f"{server.url}/api/commissions/1/lays/cloth/events"
        # it may be cut off in the middle of a line
        with suppress(httpx.RemoteProtocolError), httpx.stream("GET", place, timeout=30) as events:
            for line in events.iter_lines():
                told.append(line)

    recipe = httpx.get(f"{server.url}/api/commissions/1").json()["recipe"]
    asked = {"recipe": recipe, "asked": {"role": "cloth"}, "seconds": 60}
    assert httpx.post(f"{server.url}/api/commissions/1/lays/search", json=asked, timeout=30).status_code == 202
    watcher = threading.Thread(target=watch)
    watcher.start()
    wait_until(lambda: told, seconds=30)
    begin = time.monotonic()
    server.stop()
    assert time.monotonic() - begin < 4
    watcher.join(timeout=10)
    assert not watcher.is_alive()
    assert _state(tmp_path) == "searching"
    with running(tmp_path) as again:
        lays = httpx.post(
            f"{again.url}/api/commissions/1/lays", json={"recipe": recipe, "asked": []}, timeout=30
        ).json()
        assert next(lay["state"] for lay in lays if lay["cloth"] == "cloth") in ("searching", "found")


def _state(folder):
    with closing(sqlite3.connect(folder / "gentle-hem.sqlite")) as records:
        found = records.execute("SELECT state FROM lay WHERE commission_id = 1 AND role = 'cloth'").fetchone()
    return found and found[0]
