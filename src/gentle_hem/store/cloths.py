"""The shelf of cloths, and the lays that are kept."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from gentle_hem.store.models import KeptLay, ShelfCloth

SEARCHING = "searching"


def shelf(session: Session) -> list[ShelfCloth]:
    """Every cloth on the shelf, by name."""
    return list(session.scalars(select(ShelfCloth).order_by(func.lower(ShelfCloth.name), ShelfCloth.id)))


def cloth_called(session: Session, name: str) -> ShelfCloth | None:
    """The cloth of this name."""
    return session.scalars(select(ShelfCloth).where(ShelfCloth.name == name)).first()


def put_on_shelf(session: Session, name: str, cloth: dict[str, Any]) -> ShelfCloth:
    """A cloth under its name, in the place of any that was."""
    row = cloth_called(session, name)
    if row is None:
        row = ShelfCloth(name=name)
        session.add(row)
    row.cloth = cloth
    session.flush()
    return row


def lay_of(session: Session, commission_id: int, role: str) -> KeptLay | None:
    """How a cloth of a commission is laid, where it has been."""
    return session.scalars(select(KeptLay).where(KeptLay.commission_id == commission_id, KeptLay.role == role)).first()


def keep_lay(session: Session, commission_id: int, role: str, **said: Any) -> KeptLay:
    """How a cloth is laid, in the place of how it was."""
    row = lay_of(session, commission_id, role)
    if row is None:
        row = KeptLay(commission_id=commission_id, role=role)
        session.add(row)
    row.opened_from, row.trouble = None, ""
    for name, value in said.items():
        setattr(row, name, value)
    session.flush()
    return row


def keep_shorter(
    session: Session, lay_id: int, spots: Sequence[dict[str, Any]], length: float, opened_from: float | None
) -> None:
    """A shorter lay in the place of the one before; a longer one than is kept changes nothing."""
    session.execute(
        update(KeptLay)
        .where(KeptLay.id == lay_id, (KeptLay.length.is_(None)) | (KeptLay.length > length))
        .values(spots=list(spots), length=length, opened_from=opened_from)
    )


def keep_state(session: Session, lay_id: int, state: str, trouble: str = "") -> None:
    """How the search for a lay ended."""
    session.execute(
        update(KeptLay).where(KeptLay.id == lay_id, KeptLay.state == SEARCHING).values(state=state, trouble=trouble)
    )


def unfinished_lays(session: Session) -> list[KeptLay]:
    """The lays whose search had not ended when the program did."""
    return list(session.scalars(select(KeptLay).where(KeptLay.state == SEARCHING)))
