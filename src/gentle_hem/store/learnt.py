"""What was learnt of cloths."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from gentle_hem.core.cloth.learnt import Kind, Learnt
from gentle_hem.store.models import ClothNote


def notes_of(session: Session, cloth: str) -> list[ClothNote]:
    """What was learnt of a cloth, by its name, the newest first."""
    query = select(ClothNote).where(ClothNote.cloth == cloth).order_by(ClothNote.on_day.desc(), ClothNote.id.desc())
    return list(session.scalars(query))


def learnt(rows: Sequence[ClothNote]) -> list[Learnt]:
    """Notes as the core reads them."""
    return [Learnt(Kind(row.kind), row.on_day, row.text, row.before, row.after) for row in rows]


def call_notes(session: Session, before: str, now: str) -> None:
    """The notes of a cloth that is called otherwise from now on."""
    for row in notes_of(session, before):
        row.cloth = now
