"""The desk: every commission in a row, from slips kept beside the records.

Nothing is made up when the desk is opened. A slip is written when a version is saved; those of an older program are
written again one by one in the background.
"""

import logging
import threading
from collections.abc import Sequence
from datetime import date, datetime
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query
from pydantic import BaseModel
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

from gentle_hem.api.kept import LARGEST_NUMBER, Reading
from gentle_hem.api.shown import InkOut
from gentle_hem.core.units import Unit
from gentle_hem.store import Store
from gentle_hem.store.models import Commission
from gentle_hem.store.slips import program, write_stale_slip
from gentle_hem.store.store import commissions, count_commissions, hung_as_they_are

desk = APIRouter(prefix="/api", tags=["desk"])
log = logging.getLogger("gentle_hem")

PAGE = 50


class PersonOut(BaseModel):
    id: int
    name: str


class CommissionOut(BaseModel):
    id: int
    title: str
    occasion: str
    due_on: date | None
    person: PersonOut
    version: int
    saved_at: datetime


class SmallDrawing(BaseModel):
    """The dress from in front, in the box it is drawn in (mm, y down; the floor is 0)."""

    box: list[float]
    paths: list[InkOut]


class DeskRow(CommissionOut):
    """A commission on the desk, with what is unresolved about it."""

    summary: str
    unit: Unit
    stops: int
    warnings: int
    first_trouble: str
    unreadable: str
    """Why its recipe cannot be read, where it cannot."""
    looked_at: bool
    """Whether this was read from its newest version by this program; if not, it is being looked at again."""
    put_away: bool
    drawing: SmallDrawing | None = None
    """The dress from in front; None where it is not drawn yet, or cannot be."""
    hung: bool = False
    """Whether it was hung as it is now, so that there are pictures of it."""


class DeskOut(BaseModel):
    """Some of the dresses, how many there are, and how many are put away."""

    rows: list[DeskRow]
    total: int
    put_away: int


def commission_out(row: Commission) -> dict[str, Any]:
    """What every answer about a commission says of it."""
    return {
        "id": row.id,
        "title": row.title,
        "occasion": row.occasion,
        "due_on": row.due_on,
        "person": PersonOut(id=row.person.id, name=row.person.name),
        "version": row.version,
        "saved_at": row.worked_at,
    }


@desk.get("/desk")
def open_desk(
    session: Reading,
    after: Annotated[int, Query(ge=0, le=LARGEST_NUMBER)] = 0,
    most: Annotated[int, Query(ge=1, le=200)] = PAGE,
    by: Literal["worked", "due"] = "worked",
    put_away: bool = False,
) -> DeskOut:
    """Commissions with what is unresolved: the most recently worked on first, or by the day they are due; those put
    away are asked for by themselves.
    """
    rows = commissions(session, most, after, by_due_day=by == "due", put_away=put_away)
    return DeskOut(
        rows=desk_rows(session, rows), total=count_commissions(session, put_away=put_away),
        put_away=count_commissions(session, put_away=True),
    )  # fmt: skip


def desk_rows(session: Session, rows: Sequence[Commission]) -> list[DeskRow]:
    """Commissions as they lie on the desk."""
    hung = hung_as_they_are(session, rows)
    return [_desk_row(row, row.id in hung) for row in rows]


def _desk_row(row: Commission, hung: bool) -> DeskRow:
    slip = row.slip
    fresh = slip is not None and slip.version == row.version and slip.program == program()
    said = {**commission_out(row), "put_away": row.put_away_at is not None}
    if slip is None:
        return DeskRow(**said, summary="", unit=Unit.CM, stops=0, warnings=0, first_trouble="", unreadable="",
                       looked_at=row.version == 0)  # fmt: skip
    return DeskRow(
        **said, summary=slip.summary, unit=Unit(slip.unit), stops=slip.stops, warnings=slip.warnings,
        first_trouble=slip.trouble, unreadable=slip.unreadable, looked_at=fresh,
        drawing=slip.drawing, hung=hung,
    )  # fmt: skip


FIRST_PAGE = 0.5
"""How long what is done beside waits after a start, so that the first page is answered first (s)."""


class SlipWriter:
    """Writes stale slips again, one at a time, while the program is otherwise idle."""

    def __init__(self, store: Store) -> None:
        self._store = store
        self._stopping = threading.Event()
        self._thread = threading.Thread(target=self._run, name="slips", daemon=True)

    def start(self) -> None:
        self._thread.start()

    def stop(self) -> None:
        self._stopping.set()
        if self._thread.is_alive():
            self._thread.join(timeout=5)

    def _run(self) -> None:
        self._stopping.wait(FIRST_PAGE)
        import gentle_hem.formats.dress  # noqa: F401  (what draws a dress is read in before the first one is opened)

        while not self._stopping.is_set():
            try:
                if not write_stale_slip(self._store):
                    return
            except DBAPIError as trouble:  # the records are locked or the disk is full: the next start tries again
                log.warning("slips are left as they are: %s", type(trouble).__name__)
                return
            self._stopping.wait(0.002)
