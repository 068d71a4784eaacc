"""Backups: one file with everything, made while the program runs; brought back only after it has been looked at.

records ──► backup FILE                 SQLite's online backup, checked, then renamed into place
        ──► copies/gentle-hem-DAY       one a day, the newest KEPT of them
FILE ──► looked at ──► records          what it replaces is kept in replaced/
"""

from __future__ import annotations

import fcntl
import itertools
import os
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from datetime import date, datetime
from pathlib import Path

from gentle_hem.store.trouble import NotABackup, StoreTrouble, copies_folder, replaced_folder, sentence_for

FILE_NAME = "gentle-hem.sqlite"
MIGRATIONS = Path(__file__).parent / "migrations"
KEPT = 14
"""How many daily copies are kept."""

PRIVATE_FILE, PRIVATE_FOLDER = 0o600, 0o700


def back_up(file: Path, to: Path) -> None:
    """Everything in ``file`` into one new file, checked before it gets its name. Raises StoreTrouble."""
    part = to.with_name(f"{to.name}.part")
    try:
        to.parent.mkdir(parents=True, exist_ok=True)
        part.unlink(missing_ok=True)
        part.touch(PRIVATE_FILE)
        with closing(sqlite3.connect(file)) as records, closing(sqlite3.connect(part)) as copy:
            records.execute("PRAGMA busy_timeout=5000")
            records.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
            if copy.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
                raise StoreTrouble("The backup was not sound and has been thrown away; look at the disk and try again.")
        settle(part, to)
    except (OSError, sqlite3.Error) as error:
        with suppress(OSError):
            part.unlink(missing_ok=True)
        raise StoreTrouble(sentence_for(error, to) or f"The backup could not be written to {to}.") from None


def settle(part: Path, to: Path) -> None:
    """A finished file under its name, on the disk before anything is said of it."""
    with part.open("rb") as file:
        os.fsync(file.fileno())
    part.replace(to)
    folder = os.open(to.parent, os.O_RDONLY)
    os.fsync(folder)
    os.close(folder)


def copy_of_the_day(file: Path, today: date) -> bool:
    """The day's copy, if there is none yet, and the oldest ones beyond KEPT taken away; True when one was made."""
    folder = copies_folder(file.parent)
    to = folder / f"gentle-hem-{today.isoformat()}.sqlite"
    if to.exists():
        return False
    folder.mkdir(mode=PRIVATE_FOLDER, exist_ok=True)
    back_up(file, to)
    for old in sorted(folder.glob("gentle-hem-*.sqlite"))[:-KEPT]:
        old.unlink()
    return True


def check_backup(file: Path, called: str = "") -> None:
    """Look at a file that is to be brought back, ``called`` so where it is spoken of.

    Raises NotABackup when it is no sound backup of ours.
    """
    name = called or str(file)
    if not file.is_file():
        raise NotABackup(f"There is no file {name}; name a backup made by Gentle Hem.")
    try:
        with closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as backup:
            sound = backup.execute("PRAGMA integrity_check").fetchone()[0] == "ok"
            tables = {row[0] for row in backup.execute("SELECT name FROM sqlite_master WHERE type='table'")}
            ours = {"alembic_version", "person", "commission", "recipe_version"} <= tables
            revision = backup.execute("SELECT version_num FROM alembic_version").fetchone() if ours else None
    except sqlite3.Error:
        raise NotABackup(f"{name} is not a backup made by Gentle Hem, or it is damaged. Nothing was changed.") from None
    if not sound:
        raise NotABackup(f"{name} is damaged. Nothing was changed; try an older backup.")
    if not ours or revision is None:
        raise NotABackup(f"{name} is not a backup made by Gentle Hem. Nothing was changed.")
    known = {file.name.split("_")[0] for file in (MIGRATIONS / "versions").glob("*.py")}
    if revision[0] not in known:
        raise NotABackup(f"{name} was made by a newer Gentle Hem. Update the program, then restore it.")


def restore(file: Path, folder: Path, now: datetime) -> Path | None:
    """Bring a backup back into ``folder``; returns where what it replaced is kept. Raises StoreTrouble.

    The backup is looked at first, and the records are replaced in one step: whenever it is interrupted, either the old
    state or the new one is there whole.
    """
    check_backup(file)
    try:
        folder.mkdir(mode=PRIVATE_FOLDER, parents=True, exist_ok=True)
        with alone(folder):
            records = folder / FILE_NAME
            if records.exists():
                return put_in_place(file, records, now)
            _put(file, records)
            return None
    except OSError as error:
        raise StoreTrouble(sentence_for(error, folder / FILE_NAME) or str(error)) from None


def put_in_place(file: Path, records: Path, now: datetime) -> Path:
    """A file in the place of the records, in one step; returns where what it replaced is kept. Nobody works in them."""
    kept = _set_aside(records, now)
    _put(file, records)
    return kept


def _put(file: Path, records: Path) -> None:
    part = records.with_name(f"{records.name}.part")
    shutil.copyfile(file, part)
    part.chmod(PRIVATE_FILE)
    settle(part, records)


def _set_aside(records: Path, now: datetime) -> Path:
    """The records as they are now, kept beside; their write-ahead log is folded into them first."""
    aside = replaced_folder(records.parent)
    aside.mkdir(mode=PRIVATE_FOLDER, exist_ok=True)
    to = next(
        place
        for again in itertools.count()
        if not (place := aside / f"gentle-hem-{now:%Y-%m-%d-%H%M%S}{f'-{again}' * bool(again)}.sqlite").exists()
    )
    try:
        with closing(sqlite3.connect(records)) as old:
            old.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        back_up(records, to)
    except (sqlite3.Error, StoreTrouble):  # damaged: kept byte for byte, log and all
        for end in ("", "-wal", "-shm"):
            part = records.with_name(records.name + end)
            if part.exists():
                shutil.copyfile(part, to.with_name(to.name + end))
    for end in ("-wal", "-shm"):
        records.with_name(records.name + end).unlink(missing_ok=True)
    return to


@contextmanager
def alone(folder: Path) -> Iterator[None]:
    """While no program works in the folder. Raises StoreTrouble when one does."""
    with (folder / "in-use").open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            raise StoreTrouble(f"Gentle Hem is running on {folder}. Close it, then restore.") from None
        yield
