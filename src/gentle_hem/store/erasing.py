"""Everything of one person: told whole, and erased wholly.

person ──< figure
   └─────< commission ──< recipe version, slip, lay, visit ──< fitting note …

What is hers is found by following what points at her, table by table, so that a table that comes later is neither
forgotten when she is told whole nor when she is erased. The kept copies are gone through in the same way, whatever
tables they have; each is made anew beside and put in its place whole.
"""

from __future__ import annotations

import json
import shutil
import sqlite3
from collections.abc import Iterable, Iterator, Mapping, Sequence
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from gentle_hem.store.backup import PRIVATE_FILE, settle
from gentle_hem.store.trouble import copies_folder, replaced_folder

PERSON = "person"

Belonging = Mapping[str, frozenset[int]]
"""The rows that are hers, by table."""


def belonging(records: sqlite3.Connection, people: Iterable[int]) -> Belonging:
    """The rows that are some people's, their own among them: whatever points at them, however far off."""
    pointing = _pointing(records)
    found: dict[str, set[int]] = {PERSON: set(people)}
    open_tables = [PERSON]
    while open_tables:
        table = open_tables.pop()
        for child, column in pointing.get(table, ()):
            there = found.setdefault(child, set())
            new = {
                row[0]
                for parents in _some(found[table])
                for row in records.execute(f'SELECT id FROM "{child}" WHERE "{column}" IN ({_marks(parents)})', parents)
            } - there
            if new:
                there |= new
                open_tables.append(child)
    return {table: frozenset(rows) for table, rows in found.items() if rows}


def _pointing(records: sqlite3.Connection) -> Mapping[str, list[tuple[str, str]]]:
    """Which tables point at a table, and with which column."""
    pointing: dict[str, list[tuple[str, str]]] = {}
    for (table,) in records.execute("SELECT name FROM sqlite_master WHERE type = 'table'").fetchall():
        for row in records.execute(f'PRAGMA foreign_key_list("{table}")').fetchall():
            pointing.setdefault(row[2], []).append((table, row[3]))
    return pointing


def everything_of(records: sqlite3.Connection, person: int) -> dict[str, list[dict[str, Any]]]:
    """Every row that is hers, by table, as it is kept; documents as documents."""
    told: dict[str, list[dict[str, Any]]] = {}
    for table, rows in sorted(belonging(records, [person]).items()):
        told[table] = []
        for some in _some(rows):
            there = records.execute(f'SELECT * FROM "{table}" WHERE id IN ({_marks(some)}) ORDER BY id', some)
            heads = [column[0] for column in there.description]
            told[table] += [{head: _read(value) for head, value in zip(heads, row, strict=True)} for row in there]
    return told


MOST_MARKS = 10_000
"""SQLite takes no more than some thirty thousand values in one question."""


def _some(rows: Iterable[int]) -> Iterator[list[int]]:
    """Rows in their order, so many at a time."""
    whole = sorted(rows)
    for k in range(0, len(whole), MOST_MARKS):
        yield whole[k : k + MOST_MARKS]


def _marks(rows: Sequence[int]) -> str:
    return ",".join("?" * len(rows))


def _read(value: Any) -> Any:
    """What is kept in one field: a document where it is one."""
    if isinstance(value, str) and value[:1] in ("{", "["):
        try:
            return json.loads(value)
        except ValueError:
            return value
    return value


def take_out(records: sqlite3.Connection, people: Iterable[int]) -> None:
    """Take out everything that is some people's, within the transaction that is open.

    What was learnt of a cloth at a dress of hers is the cloth's, and stays where it does not name her.
    """
    people = [*people]
    _keep_what_was_learnt(records, people)
    hers = belonging(records, people)
    records.execute("PRAGMA defer_foreign_keys = ON")
    for table, rows in hers.items():
        records.executemany(f'DELETE FROM "{table}" WHERE id = ?', [(row,) for row in rows])
    _forget_troubles(records, hers.get("commission", frozenset()))


def _keep_what_was_learnt(records: sqlite3.Connection, people: list[int]) -> None:
    if not records.execute("SELECT 1 FROM sqlite_master WHERE name = 'cloth_note'").fetchone():
        return
    records.executemany(
        "UPDATE cloth_note SET commission_id = NULL WHERE instr(text, (SELECT name FROM person WHERE id = ?)) = 0 "
        "AND commission_id IN (SELECT id FROM commission WHERE person_id = ?)",
        [(person, person) for person in people],
    )


def _forget_troubles(records: sqlite3.Connection, commissions: frozenset[int]) -> None:
    """What was found not to go in the days names dresses; those that are gone are named no longer."""
    if not records.execute("SELECT 1 FROM sqlite_master WHERE name = 'workroom'").fetchone():
        return
    for number, troubles in records.execute("SELECT id, troubles FROM workroom").fetchall():
        kept = {
            name: [one for one in told if one.get("commission") not in commissions] if isinstance(told, list) else told
            for name, told in json.loads(troubles).items()
        }
        records.execute("UPDATE workroom SET troubles = ? WHERE id = ?", (json.dumps(kept), number))


def pack(file: Path) -> None:
    """Write the records anew without what was taken out, log and all, so that its bytes are gone too."""
    with closing(sqlite3.connect(file, isolation_level=None)) as records:
        records.execute("PRAGMA busy_timeout = 10000")
        records.execute("VACUUM")
        if records.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()[0]:
            raise sqlite3.OperationalError("database is locked")


@dataclass(frozen=True, slots=True)
class Who:
    """A person as a copy may know her: her row and when it was begun, or her name."""

    number: int
    begun_at: str
    name: str


def erase_from_copies(folder: Path, who: Who) -> list[Path]:
    """Take a person out of every copy kept in ``folder``; returns the copies that could not be gone through."""
    left = []
    for copy in kept_copies(folder):
        try:
            _erase_from_copy(copy, who)
        except (sqlite3.Error, OSError, ValueError):
            left.append(copy)
    return left


UNFINISHED = "unfinished-"
"""How folders begin in which a copy is being made."""


def clear_unfinished(folder: Path) -> None:
    """Take away what was being made when a program was killed: it holds what may have been erased since. Nobody else
    works in the folder.
    """
    for part in (folder, copies_folder(folder), replaced_folder(folder)):
        for unfinished in part.glob("*.part"):
            unfinished.unlink()
    for unfinished in folder.glob(f"{UNFINISHED}*"):
        shutil.rmtree(unfinished)


def kept_copies(folder: Path) -> list[Path]:
    """Every copy that lies in a folder of records: of the days, and of what a restore replaced."""
    return [
        file for place in (copies_folder(folder), replaced_folder(folder)) for file in sorted(place.glob("*.sqlite"))
    ]


def _erase_from_copy(copy: Path, who: Who) -> None:
    if any(copy.with_name(copy.name + end).exists() for end in ("-wal", "-shm")):
        raise ValueError("a copy that was kept byte for byte, log and all, is not sound")
    part = copy.with_name(f"{copy.name}.part")
    try:
        part.unlink(missing_ok=True)
        part.touch(PRIVATE_FILE)
        shutil.copyfile(copy, part)
        with closing(sqlite3.connect(part, isolation_level=None)) as records:
            there = [
                row[0]
                for row in records.execute(
                    "SELECT id FROM person WHERE (id = ? AND created_at = ?) OR name = ?",
                    (who.number, who.begun_at, who.name),
                )
            ]
            if not there:
                return
            records.execute("PRAGMA journal_mode = DELETE")
            records.execute("PRAGMA foreign_keys = ON")
            records.execute("BEGIN IMMEDIATE")
            take_out(records, there)
            records.execute("COMMIT")
            records.execute("VACUUM")
            if records.execute("PRAGMA integrity_check").fetchone()[0] != "ok":
                raise ValueError("not sound")
        settle(part, copy)
    finally:
        part.unlink(missing_ok=True)
