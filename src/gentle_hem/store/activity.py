"""What changed when, and by which window: written down by the store itself with whatever is kept.

a row is kept, changed or given up ──► its sentence here ──► activity, in the same unit of work

What is computed (slips, the days, what a search finds) is not the maker's doing and is not written down.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from datetime import UTC, datetime, timedelta
from typing import Any

from sqlalchemy import func, insert, inspect, or_, select, update
from sqlalchemy.orm import Session, UOWTransaction, joinedload

from gentle_hem.core.making.fitting_guide import GUIDE, TRIES
from gentle_hem.store.models import (
    Activity,
    Base,
    BenchMark,
    ClothNote,
    Commission,
    Correction,
    Costing,
    FigureSet,
    FittingNote,
    KeptLay,
    Making,
    Person,
    Photograph,
    RecipeVersion,
    ShelfCloth,
    StepList,
    TaskList,
    Visit,
    Workroom,
)

WINDOW = "window"
"""Under which name a unit of work carries the window it is done for."""

TOGETHER = timedelta(minutes=30)
"""Saves of one dress by one window within this time are one line."""

LONGEST = 300

SEEN = {one.code: one.seen for one in GUIDE}

Told = Iterator[str]


def note_down(session: Session, _context: UOWTransaction) -> None:
    """Write down what this unit of work changes; called by the store before it is done."""
    rows = [
        (what[:LONGEST], row)
        for row in (*session.new, *session.dirty, *session.deleted)
        if type(row) in TELLERS
        for what in TELLERS[type(row)](row, _Change(session, row))
    ]
    for what, row in rows:
        if isinstance(row, RecipeVersion):
            if not _goes_on(session, row):
                tell(session, what, commission_id=row.commission_id, first_version=row.number)
        else:
            tell(session, what, _person_of(row), _commission_of(session, row))


def tell(
    session: Session, what: str, person_id: int | None = None, commission_id: int | None = None,
    first_version: int | None = None,
) -> None:  # fmt: skip
    """Write down something that was done."""
    session.execute(
        insert(Activity).values(
            what=what, person_id=person_id, commission_id=commission_id, first_version=first_version,
            window=session.info.get(WINDOW, ""),
        )
    )  # fmt: skip


def _goes_on(session: Session, version: RecipeVersion) -> bool:
    """Whether a save goes on where the last line of its dress ended; then that line says so."""
    last = session.execute(
        select(Activity.id, Activity.created_at, Activity.first_version, Activity.window)
        .where(Activity.commission_id == version.commission_id)
        .order_by(Activity.id.desc())
        .limit(1)
    ).first()
    now = datetime.now(UTC)
    if (
        last is None or last.first_version is None or last.window != session.info.get(WINDOW, "")
        or now - last.created_at > TOGETHER
    ):  # fmt: skip
        return False
    said = f"Versions {last.first_version} to {version.number} kept"
    session.execute(update(Activity).where(Activity.id == last.id).values(what=said, created_at=now))
    return True


class _Change:
    """How a row changes: begun, given up, or some of what it says."""

    def __init__(self, session: Session, row: Base) -> None:
        self.begun, self.given_up = row in session.new, row in session.deleted
        self._session, self._state = session, inspect(row)

    def of(self, name: str) -> bool:
        """Whether something that was said is said anew."""
        history = self._state.attrs[name].history
        return not self.begun and not self.given_up and history.has_changes() and history.added != history.deleted

    def operation(self, row: BenchMark) -> str:
        """What an operation is called, where its dress's list is read; else the kind of work."""
        tasks = self._session.scalar(select(TaskList.tasks).where(TaskList.commission_id == row.commission_id)) or []
        return next((str(task["title"]) for task in tasks if task["key"] == row.operation), f"Bench, {row.work}")


def _person_of(row: Base) -> int | None:
    if isinstance(row, Person):
        return row.id
    return row.person_id if isinstance(row, FigureSet | Correction) else None


def _commission_of(session: Session, row: Base) -> int | None:
    if isinstance(row, Commission):
        return row.id
    if isinstance(row, FittingNote | Photograph):
        return session.scalar(select(Visit.commission_id).where(Visit.id == row.visit_id))
    found: int | None = getattr(row, "commission_id", None)
    return found


def _person(row: Person, change: _Change) -> Told:
    if change.begun:
        yield "Put on the books"
    if change.of("name"):
        yield f"Called {row.name} from now on"
    if change.of("remarks"):
        yield "What is to be known of her said anew"
    if change.of("put_away_at"):
        yield "Put away" if row.put_away_at else "Brought back"


def _figure(row: FigureSet, change: _Change) -> Told:
    if change.begun:
        count = len(row.measures)
        yield f"{count} {'measure' if count == 1 else 'measures'} of {row.taken_on} kept"


def _commission(row: Commission, change: _Change) -> Told:
    if change.begun:
        yield "Begun"
    if change.of("title"):
        yield f"Called {row.title} from now on"
    if change.of("person_id"):
        yield "Said to be for somebody else"
    if change.of("occasion"):
        yield f"Its occasion: {row.occasion}" if row.occasion else "Its occasion taken away"
    if change.of("due_on"):
        yield f"Due on {row.due_on}" if row.due_on else "Due on no day"
    if change.of("put_away_at"):
        yield "Put away" if row.put_away_at else "Brought back to the desk"


def _version(row: RecipeVersion, change: _Change) -> Told:
    if change.begun:
        yield f"Version {row.number} kept"


def _making(row: Making, change: _Change) -> Told:
    if change.begun or change.of("school"):
        yield f"Sewn {row.school.replace('_', ' ')}"


def _mark(row: BenchMark, change: _Change) -> Told:
    said = []
    if (change.begun and row.done_at) or change.of("done_at"):
        said.append("done" if row.done_at else "not done after all")
    if change.of("minutes"):
        said.append(f"{row.minutes:.0f} min")
    if (change.begun and row.note) or change.of("note"):
        said.append("noted")
    if (change.begun and row.waits_for) or change.of("waits_for"):
        said.append(f"waits for {row.waits_for}" if row.waits_for else "waits no longer")
    if row.waits_until and (change.begun or change.of("waits_until")):
        said.append(f"expected on {row.waits_until}")
    if said:
        yield f"{change.operation(row)}: {', '.join(said)}"


def _tasks(row: TaskList, change: _Change) -> Told:
    if change.of("fitting_at"):
        yield f"Fitting agreed for {row.fitting_at:%Y-%m-%d %H:%M}" if row.fitting_at else "Fitting no longer agreed"


def _visit(row: Visit, change: _Change) -> Told:
    if change.begun:
        yield f"Fitting of {row.on_day} begun"
    if change.given_up:
        yield f"Fitting of {row.on_day} taken away"
    if change.of("wishes"):
        yield "Her wishes noted"


def _note(row: FittingNote, change: _Change) -> Told:
    seen = SEEN.get(row.seen, row.seen)
    if change.begun:
        yield f"Seen at the fitting: {seen}"
    if change.given_up:
        yield f"No longer noted: {seen}"
    if change.of("taken") and row.taken:
        yield f"{TRIES[row.taken].title} taken for: {seen}"


def _photograph(_: Photograph, change: _Change) -> Told:
    yield "A photograph of the fitting taken away" if change.given_up else "A photograph of the fitting kept"


def _correction(row: Correction, change: _Change) -> Told:
    if change.begun:
        yield f"Put into her block: {TRIES[row.taken].title}"
    if change.given_up:
        yield f"Out of her block: {TRIES[row.taken].title}"


def _cloth(row: ShelfCloth, change: _Change) -> Told:
    if change.begun:
        yield f"{row.name} put on the shelf"
    elif change.given_up:
        yield f"{row.name} taken off the shelf"
    elif change.of("cloth") or change.of("name"):
        yield f"{row.name} on the shelf said anew"


def _lay(row: KeptLay, change: _Change) -> Told:
    if change.begun or change.of("asked"):
        yield f"Laid on the {row.role}"


def _steps(row: StepList, change: _Change) -> Told:
    yield f"Steps kept as {row.name}" if not change.given_up else f"Steps {row.name} given up"


def _workroom(_: Workroom, change: _Change) -> Told:
    if change.of("hours"):
        yield "When the workroom is open said anew"
    if change.of("laid_at"):
        yield "The days laid out"


def _costing(row: Costing, change: _Change) -> Told:
    if change.begun or change.of("said"):
        yield "Its costs said"


def _cloth_note(row: ClothNote, change: _Change) -> Told:
    yield f"{'Learnt' if not change.given_up else 'No longer held'} of {row.cloth}: {row.kind}"


TELLERS: Mapping[type[Base], Callable[[Any, _Change], Told]] = {
    Person: _person, FigureSet: _figure, Commission: _commission, RecipeVersion: _version, Making: _making,
    BenchMark: _mark, TaskList: _tasks, Visit: _visit, FittingNote: _note, Correction: _correction,
    ShelfCloth: _cloth, KeptLay: _lay, StepList: _steps, Workroom: _workroom,
    Costing: _costing, Photograph: _photograph, ClothNote: _cloth_note,
}  # fmt: skip


def activities(session: Session, words: str, most: int, after: int) -> list[Activity]:
    """What was done, the newest first; ``words`` are looked for in what was done, of what and whose."""
    query = (
        select(Activity)
        .outerjoin(Commission, Commission.id == Activity.commission_id)
        .outerjoin(Person, Person.id == func.coalesce(Activity.person_id, Commission.person_id))
        .options(joinedload(Activity.commission).joinedload(Commission.person), joinedload(Activity.person))
        .order_by(Activity.created_at.desc(), Activity.id.desc())
        .offset(after)
        .limit(most)
    )
    for word in words.split():
        like = f"%{word.replace('%', '').replace('_', ' ')}%"
        query = query.where(
            or_(
                Activity.what.like(like), Activity.window.like(like), Commission.title.like(like),
                Person.name.like(like),
            )
        )  # fmt: skip
    return list(session.scalars(query))
