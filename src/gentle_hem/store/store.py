"""Opening the store and working in it: one SQLite file, always migrated, safe against a pulled plug.

units of work ──► through the gate, as many as like ──► the one file
a backup brought back, somebody erased ──► alone: nobody is let through until it is done
"""

from __future__ import annotations

import fcntl
import shutil
import sqlite3
import tempfile
from collections.abc import Iterable, Iterator, Mapping
from contextlib import closing, contextmanager
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, create_engine, delete, event, func, inspect, select, text, update
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session, joinedload, sessionmaker

from gentle_hem.store.activity import note_down
from gentle_hem.store.backup import (
    FILE_NAME,
    MIGRATIONS,
    PRIVATE_FILE,
    PRIVATE_FOLDER,
    back_up,
    check_backup,
    copy_of_the_day,
    put_in_place,
)
from gentle_hem.store.erasing import UNFINISHED, Who, clear_unfinished, erase_from_copies, pack, take_out
from gentle_hem.store.gate import Gate
from gentle_hem.store.models import Commission, FigureSet, HungPicture, Person, RecipeVersion, Slip, StepList
from gentle_hem.store.trouble import StoreTrouble, damaged, newest_copy, sentence_for

IN_USE = "in-use"
TO_PACK = "to-pack"
"""There while the file may still hold the bytes of what was taken out of it."""


class Store:
    """The maker's records in ``folder / gentle-hem.sqlite``; migrated to today's tables when opened.

    The folder and its files are the maker's alone. Raises StoreTrouble with a sentence when it cannot be opened.
    """

    def __init__(self, folder: Path) -> None:
        self.folder, self.file = folder, folder / FILE_NAME
        try:
            folder.mkdir(mode=PRIVATE_FOLDER, parents=True, exist_ok=True)
            folder.chmod(PRIVATE_FOLDER)
            if self.file.exists() and self.file.stat().st_size == 0 and newest_copy(folder):
                raise StoreTrouble(damaged(self.file))
            self.file.touch(PRIVATE_FILE)
            self.file.chmod(PRIVATE_FILE)
            self._lock = (folder / IN_USE).open("w")
            self._clear_up()
            fcntl.flock(self._lock, fcntl.LOCK_SH | fcntl.LOCK_NB)
        except BlockingIOError:
            raise StoreTrouble(
                f"A backup is being restored in {folder}. Wait until it is done, then start again."
            ) from None
        except OSError as error:
            raise StoreTrouble(sentence_for(error, self.file) or str(error)) from None
        self._gate = Gate()
        self.engine = create_engine(f"sqlite:///{self.file}")
        event.listen(self.engine, "connect", _prepare)
        event.listen(self.engine, "begin", _begin)
        self._reading = sessionmaker(self.engine, expire_on_commit=False)
        self._writing = sessionmaker(self.engine.execution_options(writing=True), expire_on_commit=False)
        event.listen(self._writing, "after_flush", note_down)
        try:
            self._open()
        except BaseException:
            self.engine.dispose()
            self._lock.close()
            raise

    def _clear_up(self) -> None:
        """What a killed program left half made is taken away, unless another program is at work here."""
        try:
            fcntl.flock(self._lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            return
        clear_unfinished(self.folder)

    def _open(self) -> None:
        try:
            self._look()
            if self._revision() != newest_revision():
                self._migrate()
            if (self.folder / TO_PACK).exists():  # it ended while somebody was being erased
                self._pack()
        except (DBAPIError, sqlite3.Error) as error:
            raise StoreTrouble(sentence_for(error, self.file) or damaged(self.file)) from None

    def _look(self) -> None:
        """Whether the file is sound."""
        with self.engine.connect() as connection:
            if connection.scalar(text("PRAGMA quick_check(1)")) != "ok":
                raise StoreTrouble(damaged(self.file))

    def _revision(self) -> str | None:
        """Which tables the file has; None for a file without any."""
        with self.engine.connect() as connection:
            if not inspect(connection).has_table("alembic_version"):
                return None
            revision: str | None = connection.scalar(text("SELECT version_num FROM alembic_version"))
            return revision

    def _migrate(self) -> None:
        """Today's tables. A table that others point at is made anew, so the pointing is looked at afterwards."""
        # read in only where there is something to do: it is a fifth of the time the program takes to start
        from alembic import command
        from alembic.config import Config
        from alembic.util import CommandError

        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        engine = create_engine(f"sqlite:///{self.file}")
        event.listen(engine, "connect", _prepare_tables)
        event.listen(engine, "begin", _begin)
        try:
            with engine.execution_options(writing=True).begin() as connection:
                config.attributes["connection"] = connection
                command.upgrade(config, "head")
                if connection.execute(text("PRAGMA foreign_key_check")).first() is not None:
                    raise StoreTrouble(damaged(self.file))
        except CommandError:
            raise StoreTrouble(
                f"{self.file} was written by a newer Gentle Hem. Update the program; nothing was changed."
            ) from None
        finally:
            engine.dispose()

    def close(self) -> None:
        """Everything folded into the one file, and the file let go."""
        try:
            with self.engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
                connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
        finally:
            self.engine.dispose()
            self._lock.close()

    @contextmanager
    def session(self) -> Iterator[Session]:
        """A unit of work that reads."""
        with self._gate.through(), self._reading.begin() as session:
            yield session

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """A unit of work that writes: committed at the end, or not at all. Writers wait for one another."""
        with self._gate.through(), self._writing.begin() as session:
            yield session

    def back_up(self, to: Path) -> None:
        """Everything into one file, while work goes on."""
        with self._gate.through():
            back_up(self.file, to)

    def copy_of_the_day(self, today: date) -> bool:
        """The day's copy, kept in ``copies``; True when one was made."""
        with self._gate.through():
            return copy_of_the_day(self.file, today)

    def bring_back(self, file: Path, now: datetime, called: str = "") -> Path:
        """The records in ``file`` in the place of these, while the program runs; returns where these are kept.

        The file is looked at, and given today's tables, before anything is replaced. Raises StoreTrouble with a
        sentence; then everything is as it was.
        """
        with tempfile.TemporaryDirectory(dir=self.folder, prefix=UNFINISHED) as made:
            ready = self._made_ready(file, Path(made) / FILE_NAME, called)
            with self._alone("bring a backup back"):
                return put_in_place(ready, self.file, now)

    def _made_ready(self, file: Path, ready: Path, called: str) -> Path:
        """A backup with today's tables, whole in one file."""
        check_backup(file, called)
        try:
            shutil.copyfile(file, ready)
        except OSError as error:
            raise StoreTrouble(sentence_for(error, ready) or str(error)) from None
        Store(ready.parent).close()
        return ready

    def erase(self, person: int) -> list[Path]:
        """Everything of a person out of the records and of every kept copy, bytes and all.

        Returns the copies that could not be gone through, which hold her still. The copies come first: whenever it is
        interrupted, she is still on the books and can be erased again. Raises StoreTrouble with a sentence.
        """
        with self._alone("erase somebody"):
            try:
                with closing(sqlite3.connect(self.file, isolation_level=None)) as records:
                    records.execute("PRAGMA busy_timeout = 10000")
                    begun_at, name = records.execute(
                        "SELECT created_at, name FROM person WHERE id = ?", (person,)
                    ).fetchone()
                    left = erase_from_copies(self.folder, Who(person, begun_at, name))
                    (self.folder / TO_PACK).touch(PRIVATE_FILE)
                    records.execute("PRAGMA foreign_keys = ON")
                    records.execute("BEGIN IMMEDIATE")
                    take_out(records, [person])
                    records.execute("INSERT INTO activity (\"window\", what) VALUES ('', 'A person erased wholly')")
                    records.execute("COMMIT")
                self._pack()
            except (sqlite3.Error, OSError) as error:
                raise StoreTrouble(sentence_for(error, self.file) or damaged(self.file)) from None
        return left

    def _pack(self) -> None:
        pack(self.file)
        (self.folder / TO_PACK).unlink()

    @contextmanager
    def _alone(self, to_do: str) -> Iterator[None]:
        """While nothing else works in the records, neither in this program nor in another."""
        with self._gate.alone():
            self.engine.dispose()
            try:
                fcntl.flock(self._lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
                yield
            except BlockingIOError:
                raise StoreTrouble(f"Another Gentle Hem is running on {self.folder}. Close it, then {to_do}.") from None
            finally:  # asking for the whole lock gives up the shared one, whatever came of it
                fcntl.flock(self._lock, fcntl.LOCK_SH)


def newest_revision() -> str:
    """The revision of today's tables: the last of the migrations, whose files begin with their revisions."""
    return max(file.name for file in (MIGRATIONS / "versions").glob("*.py")).split("_")[0]


def _prepare(connection: sqlite3.Connection, _record: object) -> None:
    """WAL with full sync: a commit that was acknowledged is on the disk. Transactions are begun by ``_begin``."""
    connection.isolation_level = None
    cursor = connection.cursor()
    cursor.execute("PRAGMA busy_timeout=10000")
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA synchronous=FULL")
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.close()


def _prepare_tables(connection: sqlite3.Connection, record: object) -> None:
    """As for work, but with tables free to be made anew."""
    _prepare(connection, record)
    connection.execute("PRAGMA foreign_keys=OFF")


def _begin(connection: Connection) -> None:
    """A writer takes its turn before it reads, so that what it read is still so when it writes."""
    writing = connection.get_execution_options().get("writing")
    connection.exec_driver_sql("BEGIN IMMEDIATE" if writing else "BEGIN")


def people(session: Session, *, put_away: bool = False) -> list[Person]:
    """The people on the books, or those who were put away."""
    where = Person.put_away_at.is_not(None) if put_away else Person.put_away_at.is_(None)
    return list(session.scalars(select(Person).where(where).order_by(Person.name)))


def person_called(session: Session, name: str) -> Person:
    """The person of a name; a new name is a new person, and one who was put away is on the books again. One name is one
    person, whoever asks at the same time.
    """
    found = session.scalars(select(Person).where(Person.name == name)).first()
    if found is None:
        found = Person(name=name, remarks="")
        session.add(found)
    found.put_away_at = None
    session.flush()
    return found


def commissions(
    session: Session, most: int = -1, after: int = 0, *, by_due_day: bool = False, put_away: bool = False
) -> list[Commission]:
    """Commissions with their people and slips, ``most`` of them from ``after``: the most recently worked on first, or
    by the day they are due, those without one last. Those that are ``put_away`` are asked for by themselves.
    """
    worked = (Commission.worked_at.desc(), Commission.id.desc())
    due = (Commission.due_on.is_(None), Commission.due_on)
    query = (
        select(Commission)
        .options(joinedload(Commission.person), joinedload(Commission.slip))
        .where(Commission.put_away_at.is_not(None) if put_away else Commission.put_away_at.is_(None))
        .order_by(*(due if by_due_day else ()), *worked)
        .offset(after)
        .limit(most)
    )
    return list(session.scalars(query))


def commissions_of(session: Session, person_id: int) -> list[Commission]:
    """One person's commissions, put away or not, the most recently worked on first."""
    query = (
        select(Commission)
        .options(joinedload(Commission.person), joinedload(Commission.slip))
        .where(Commission.person_id == person_id)
        .order_by(Commission.worked_at.desc(), Commission.id.desc())
    )
    return list(session.scalars(query))


def count_commissions(session: Session, *, put_away: bool = False) -> int:
    where = Commission.put_away_at.is_not(None) if put_away else Commission.put_away_at.is_(None)
    return session.scalar(select(func.count(Commission.id)).where(where)) or 0


def latest_version(session: Session, commission_id: int) -> RecipeVersion | None:
    """The newest state of a commission's recipe."""
    return session.scalars(
        select(RecipeVersion)
        .where(RecipeVersion.commission_id == commission_id)
        .order_by(RecipeVersion.number.desc())
        .limit(1)
    ).first()


def version_numbered(session: Session, commission_id: int, number: int) -> RecipeVersion | None:
    """One state of a commission's recipe."""
    return session.scalars(
        select(RecipeVersion).where(RecipeVersion.commission_id == commission_id, RecipeVersion.number == number)
    ).first()


def keep_hung(session: Session, version: RecipeVersion, pictures: Mapping[str, bytes]) -> None:
    """How a version hangs, by the side it is seen from; those of the versions before it are given up."""
    of_this_dress = select(RecipeVersion.id).where(RecipeVersion.commission_id == version.commission_id)
    session.execute(delete(HungPicture).where(HungPicture.recipe_version_id.in_(of_this_dress)))
    session.add_all(HungPicture(recipe_version_id=version.id, view=view, picture=png) for view, png in pictures.items())


def hung_pictures(session: Session, version: RecipeVersion) -> dict[str, bytes]:
    """How a version hangs, by the side it is seen from; nothing where it was not hung."""
    rows = select(HungPicture.view, HungPicture.picture).where(HungPicture.recipe_version_id == version.id)
    return {row.view: row.picture for row in session.execute(rows)}


def hung_as_they_are(session: Session, rows: Iterable[Commission]) -> frozenset[int]:
    """The numbers of those commissions that were hung in their newest version."""
    query = (
        select(Commission.id)
        .join(RecipeVersion, RecipeVersion.commission_id == Commission.id)
        .join(HungPicture, HungPicture.recipe_version_id == RecipeVersion.id)
        .where(Commission.id.in_([row.id for row in rows]), RecipeVersion.number == Commission.version)
    )
    return frozenset(session.scalars(query))


def append_version(session: Session, commission_id: int, recipe: dict[str, Any]) -> RecipeVersion:
    """A new state of a commission's recipe; the same recipe again adds nothing."""
    last = latest_version(session, commission_id)
    if last is not None and last.recipe == recipe:
        return last
    version = RecipeVersion(commission_id=commission_id, number=(last.number if last else 0) + 1, recipe=recipe)
    session.add(version)
    session.flush()
    session.refresh(version)
    session.execute(
        update(Commission)
        .where(Commission.id == commission_id)
        .values(version=version.number, worked_at=datetime.now(UTC))
    )
    return version


def stale_slips(session: Session, program: str, most: int) -> list[Commission]:
    """Commissions whose slip was written from another version, or by another program."""
    return list(
        session.scalars(
            select(Commission)
            .outerjoin(Slip, Slip.commission_id == Commission.id)
            .where((Slip.id.is_(None)) | (Slip.version != Commission.version) | (Slip.program != program))
            .where(Commission.version > 0)
            .order_by(Commission.worked_at.desc())
            .limit(most)
        )
    )


def keep_slip(session: Session, commission_id: int, version: int, program: str, said: dict[str, Any]) -> None:
    """What the desk shows of a commission, with the version it was read from and the program that read it."""
    slip = session.scalars(select(Slip).where(Slip.commission_id == commission_id)).first()
    if slip is None:
        slip = Slip(commission_id=commission_id)
        session.add(slip)
    slip.version, slip.program = version, program
    for name, value in said.items():
        setattr(slip, name, value)
    session.flush()


def latest_figure(session: Session, person_id: int) -> FigureSet | None:
    """A person's newest dated set of measures."""
    return session.scalars(
        select(FigureSet)
        .where(FigureSet.person_id == person_id)
        .order_by(FigureSet.taken_on.desc(), FigureSet.id.desc())
        .limit(1)
    ).first()


def latest_measures(session: Session, person_id: int) -> dict[str, Any] | None:
    """A person's measures as they were last kept, in a dated set or in one of her recipes: whichever is newer."""
    figure = latest_figure(session, person_id)
    version = session.scalars(
        select(RecipeVersion)
        .join(Commission)
        .where(Commission.person_id == person_id)
        .order_by(RecipeVersion.created_at.desc(), RecipeVersion.id.desc())
        .limit(1)
    ).first()
    typed = (version.recipe.get("figure") or {}) if version else {}
    if typed.get("measures") and (figure is None or version is None or version.created_at > figure.created_at):
        return typed
    if figure is None:
        return None
    return {"taken_on": figure.taken_on.isoformat(), "measures": figure.measures}


def step_lists(session: Session) -> list[StepList]:
    """Every list of steps that is kept, by name."""
    return list(session.scalars(select(StepList).order_by(func.lower(StepList.name), StepList.id)))


def step_list_called(session: Session, name: str) -> StepList | None:
    """The list of steps kept under a name."""
    return session.scalars(select(StepList).where(StepList.name == name)).first()


def keep_step_list(session: Session, name: str, version: int, steps: list[dict[str, Any]]) -> StepList:
    """Steps kept under a name, in the place of any that were."""
    row = step_list_called(session, name)
    if row is None:
        row = StepList(name=name)
        session.add(row)
    row.version, row.steps = version, steps
    session.flush()
    return row


def drop_step_list(session: Session, row: StepList) -> None:
    """A kept list given up."""
    session.delete(row)
