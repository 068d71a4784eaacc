"""The log of fittings, and what belongs in a person's block since."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from sqlalchemy import func, select
from sqlalchemy.orm import Session, selectinload

from gentle_hem.core.making.fitting_guide import OFTEN, TRIES
from gentle_hem.store.models import Commission, Correction, FittingNote, Visit


def visits_of(session: Session, commission_id: int) -> list[Visit]:
    """The fittings of a dress, the first first."""
    return list(
        session.scalars(
            select(Visit)
            .where(Visit.commission_id == commission_id)
            .options(selectinload(Visit.notes))
            .order_by(Visit.on_day, Visit.id)
        )
    )


def begin_visit(session: Session, commission_id: int, day: date) -> Visit:
    """A fitting on a day; the one that is there already where there is one."""
    row = session.scalars(select(Visit).where(Visit.commission_id == commission_id, Visit.on_day == day)).first()
    if row is None:
        row = Visit(commission_id=commission_id, on_day=day, wishes="")
        session.add(row)
        session.flush()
    return row


@dataclass(frozen=True, slots=True)
class Proposed:
    """A note that came so often for one person that it belongs in her block: how often, and the correction taken, by as
    much as it came to in the dress it was last taken for.
    """

    seen: str
    times: int
    taken: str
    amount: float


def proposed(session: Session, person_id: int) -> list[Proposed]:
    """What is proposed for a person's block: noted at three fittings or more, corrected, and not in it yet. A block is
    alike on both sides, so what was seen on one alone is not proposed for it.
    """
    of_person = (
        select(FittingNote)
        .join(Visit)
        .join(Commission)
        .where(Commission.person_id == person_id, FittingNote.side == "both")
    )  # fmt: skip
    often = session.execute(
        select(FittingNote.seen, func.count(func.distinct(FittingNote.visit_id)))
        .join(Visit)
        .join(Commission)
        .where(Commission.person_id == person_id, FittingNote.side == "both")
        .group_by(FittingNote.seen)
        .having(func.count(func.distinct(FittingNote.visit_id)) >= OFTEN)
        .order_by(FittingNote.seen)
    )
    there = {row.seen for row in corrections_of(session, person_id)}
    found = []
    for seen, times in often:
        last = session.scalars(
            of_person.where(FittingNote.seen == seen, FittingNote.taken != "").order_by(FittingNote.id.desc())
        ).first()
        if seen in there or last is None or not TRIES[last.taken].of_block:
            continue
        # what was taken at one fitting after another of a dress adds up in it
        amount = session.scalar(
            select(func.sum(FittingNote.amount)).join(Visit).where(
                Visit.commission_id == last.visit.commission_id, FittingNote.seen == seen,
                FittingNote.taken == last.taken, FittingNote.side == "both",
            )
        )  # fmt: skip
        if amount:
            found.append(Proposed(seen, times, last.taken, amount))
    return found


def corrections_of(session: Session, person_id: int) -> list[Correction]:
    """What is in a person's block, in the order it came there."""
    return list(session.scalars(select(Correction).where(Correction.person_id == person_id).order_by(Correction.id)))
