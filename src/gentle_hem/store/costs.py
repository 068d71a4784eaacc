"""What the maker says of the costs of her dresses."""

from __future__ import annotations

from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from gentle_hem.store.models import BenchMark, Costing


def costing_of(session: Session, commission_id: int) -> dict[str, Any] | None:
    """What is said of the costs of a dress; None where nothing is."""
    return session.scalars(select(Costing.said).where(Costing.commission_id == commission_id)).first()


def keep_costing(session: Session, commission_id: int, said: dict[str, Any]) -> None:
    """What is said of the costs of a dress, in the place of what was."""
    row = session.scalars(select(Costing).where(Costing.commission_id == commission_id)).first()
    if row is None:
        session.add(Costing(commission_id=commission_id, said=said))
    else:
        row.said = said
    session.flush()


def last_rate(session: Session) -> float | None:
    """What an hour cost in the dress whose costs were last said."""
    for said in session.scalars(select(Costing.said).order_by(Costing.id.desc())):
        if said.get("rate") is not None:
            return float(said["rate"])
    return None


def minutes_worked(session: Session, commission_id: int) -> float:
    """What has been worked at a dress, as it was timed or typed (min)."""
    return session.scalar(select(func.sum(BenchMark.minutes)).where(BenchMark.commission_id == commission_id)) or 0.0
