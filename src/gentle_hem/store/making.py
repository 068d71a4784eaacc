"""What the maker has said of the plans of her dresses, and the pace that is learnt from it."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from gentle_hem.store.models import BenchMark, Making

LEAST_TIMED = 2
"""A kind of work has a pace of her own once she has timed so many operations of it."""


def school_of(session: Session, commission_id: int) -> str | None:
    """The school a commission is sewn in, where one has been chosen."""
    return session.scalars(select(Making.school).where(Making.commission_id == commission_id)).first()


def choose_school(session: Session, commission_id: int, school: str) -> None:
    """The school its plan follows from now on."""
    row = session.scalars(select(Making).where(Making.commission_id == commission_id)).first()
    if row is None:
        session.add(Making(commission_id=commission_id, school=school))
    else:
        row.school = school
    session.flush()


def bench_marks(session: Session, commission_id: int) -> dict[str, BenchMark]:
    """What has been said of the operations of a plan, by their keys."""
    rows = session.scalars(select(BenchMark).where(BenchMark.commission_id == commission_id))
    return {row.operation: row for row in rows}


def bench_mark(session: Session, commission_id: int, operation: str, work: str, usual: float) -> BenchMark:
    """The row of an operation, begun where there is none yet."""
    row = session.scalars(
        select(BenchMark).where(BenchMark.commission_id == commission_id, BenchMark.operation == operation)
    ).first()
    if row is None:
        row = BenchMark(commission_id=commission_id, operation=operation, minutes=0.0, note="", waits_for="")
        session.add(row)
    row.work, row.usual = work, usual
    session.flush()
    return row


def stop_timer(row: BenchMark, now: datetime) -> None:
    """What the timer has counted is added to what the operation took."""
    if row.begun_at is not None:
        row.minutes += max((now - row.begun_at).total_seconds(), 0.0) / 60
        row.begun_at = None


def paces(session: Session) -> Mapping[str, float]:
    """Her time over the usual, by the kind of work, of all that she has done and timed."""
    timed = (
        select(BenchMark.work, func.sum(BenchMark.minutes), func.sum(BenchMark.usual), func.count())
        .where(BenchMark.done_at.is_not(None), BenchMark.minutes > 0, BenchMark.usual > 0)
        .group_by(BenchMark.work)
    )
    return {work: minutes / usual for work, minutes, usual, count in session.execute(timed) if count >= LEAST_TIMED}
