"""The people on the books: called otherwise, made one of two, told whole, erased."""

from __future__ import annotations

import sqlite3
from typing import Any

from sqlalchemy import delete, select, update
from sqlalchemy.orm import Session

from gentle_hem.store.activity import tell
from gentle_hem.store.erasing import everything_of
from gentle_hem.store.models import Activity, Commission, Correction, FigureSet, KeptLay, Person


def called(session: Session, name: str) -> Person | None:
    """The person of a name, where there is one."""
    return session.scalars(select(Person).where(Person.name == name)).first()


def make_one(session: Session, person: Person, into: Person) -> None:
    """Two entries of one person made one: her measures, dresses and remarks go to ``into``, and ``person`` is no more.

    What is in the block of both stays as ``into`` has it.
    """
    there = select(Correction.seen).where(Correction.person_id == into.id)
    session.execute(delete(Correction).where(Correction.person_id == person.id, Correction.seen.in_(there)))
    for table in (FigureSet, Commission, Correction, Activity):
        session.execute(update(table).where(table.person_id == person.id).values(person_id=into.id))
    into.remarks = "\n".join(said for said in (into.remarks, person.remarks) if said)[:4000]
    name = person.name
    session.execute(delete(Person).where(Person.id == person.id))
    session.expire_all()
    tell(session, f"{name} and {into.name} made one", person_id=into.id)


def whole(session: Session, person: Person) -> dict[str, list[dict[str, Any]]]:
    """Everything kept of a person, by table."""
    records = session.connection().connection.driver_connection
    assert isinstance(records, sqlite3.Connection)
    return everything_of(records, person.id)


def lays_of(session: Session, person_id: int) -> list[int]:
    """The numbers of the lays of her dresses."""
    return list(session.scalars(select(KeptLay.id).join(Commission).where(Commission.person_id == person_id)))
