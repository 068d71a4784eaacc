"""Opening the store and working in it: one SQLite file, always migrated, safe against a pulled plug."""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import create_engine, event, func, select
from sqlalchemy.orm import Session, joinedload, sessionmaker

from gentle_hem.store.models import Commission, FigureSet, Person, RecipeVersion

MIGRATIONS = Path(__file__).parent / "migrations"


class Store:
    """The maker's records in ``folder / gentle-hem.sqlite``; migrated to today's tables when opened."""

    def __init__(self, folder: Path) -> None:
        folder.mkdir(parents=True, exist_ok=True)
        self.file = folder / "gentle-hem.sqlite"
        self.engine = create_engine(f"sqlite:///{self.file}")
        event.listen(self.engine, "connect", _prepare)
        self._sessions = sessionmaker(self.engine, expire_on_commit=False)
        self._migrate()

    def _migrate(self) -> None:
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        with self.engine.begin() as connection:
            config.attributes["connection"] = connection
            command.upgrade(config, "head")

    def close(self) -> None:
        self.engine.dispose()

    @contextmanager
    def session(self) -> Iterator[Session]:
        """A unit of work: committed at the end, or not at all."""
        with self._sessions.begin() as session:
            yield session


def _prepare(connection: sqlite3.Connection, _record: object) -> None:
    """WAL with full sync: a commit that was acknowledged is on the disk."""
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA synchronous=FULL")
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.execute("PRAGMA busy_timeout=5000")
    cursor.close()


def people(session: Session) -> list[Person]:
    return list(session.scalars(select(Person).order_by(Person.name)))


def commissions(session: Session) -> list[Commission]:
    """All commissions with their people, the most recently worked on first."""
    latest = (
        select(RecipeVersion.commission_id, func.max(RecipeVersion.id).label("last"))
        .group_by(RecipeVersion.commission_id)
        .subquery()
    )
    query = (
        select(Commission)
        .outerjoin(latest, latest.c.commission_id == Commission.id)
        .options(joinedload(Commission.person))
        .order_by(latest.c.last.desc(), Commission.id.desc())
    )
    return list(session.scalars(query))


def latest_version(session: Session, commission_id: int) -> RecipeVersion | None:
    """The newest state of a commission's recipe."""
    return session.scalars(
        select(RecipeVersion)
        .where(RecipeVersion.commission_id == commission_id)
        .order_by(RecipeVersion.number.desc())
        .limit(1)
    ).first()


def append_version(session: Session, commission_id: int, recipe: dict[str, Any]) -> RecipeVersion:
    """A new state of a commission's recipe; the same recipe again adds nothing."""
    last = latest_version(session, commission_id)
    if last is not None and last.recipe == recipe:
        return last
    version = RecipeVersion(commission_id=commission_id, number=(last.number if last else 0) + 1, recipe=recipe)
    session.add(version)
    session.flush()
    session.refresh(version)
    return version


def latest_figure(session: Session, person_id: int) -> FigureSet | None:
    """A person's newest measures."""
    return session.scalars(
        select(FigureSet)
        .where(FigureSet.person_id == person_id)
        .order_by(FigureSet.taken_on.desc(), FigureSet.id.desc())
        .limit(1)
    ).first()
