"""The workroom's days: what each dress still needs, when it is sewn, and the hours."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import asdict
from datetime import UTC, date, datetime, time
from math import ceil
from sys import intern
from typing import Any

from sqlalchemy import Select, delete, func, insert, select
from sqlalchemy.orm import Session, joinedload

from gentle_hem.core.make_up import make_up
from gentle_hem.core.making import days_said
from gentle_hem.core.making.days import Days, Hours, Job, Sitting, Task, troubles
from gentle_hem.core.making.operation import School, Work
from gentle_hem.core.making.plan import plan_of
from gentle_hem.core.recipe import UnreadableRecipe, read_recipe
from gentle_hem.store.making import paces, school_of
from gentle_hem.store.models import BenchMark, Commission, Making, SittingRow, TaskList, Workroom
from gentle_hem.store.slips import program
from gentle_hem.store.store import latest_version

WHOLE = 5.0


def workroom(session: Session) -> Workroom:
    """The one workroom, with its usual hours where none are said yet."""
    row = session.scalars(select(Workroom)).first()
    if row is None:
        row = Workroom(hours=hours_document(Hours()), troubles={})
        session.add(row)
        session.flush()
    return row


def hours_document(hours: Hours) -> dict[str, Any]:
    """Hours as they are kept."""
    week = [[f"{day[0]:%H:%M}", f"{day[1]:%H:%M}"] if day else None for day in hours.by_weekday]
    return {"week": week, "closed": sorted(day.isoformat() for day in hours.closed)}


def hours_of(document: dict[str, Any]) -> Hours:
    """Hours as they were kept."""
    return Hours(
        tuple((time.fromisoformat(d[0]), time.fromisoformat(d[1])) if d else None for d in document["week"]),
        frozenset(date.fromisoformat(day) for day in document["closed"]),
    )


def task_list(session: Session, commission: Commission) -> TaskList:
    """What a dress needs, read again where it, its school or the program has changed; nothing where it cannot be read.

    A plan that cannot be ordered raises, as it does on the bench.
    """
    row = session.scalars(select(TaskList).where(TaskList.commission_id == commission.id)).first()
    school = School(school_of(session, commission.id) or School.SIDES_FIRST)
    if row is not None and (row.version, row.program, row.school) == (commission.version, program(), school):
        return row
    tasks = _tasks(session, commission, school)
    if row is None:
        row = TaskList(commission_id=commission.id)
        session.add(row)
    row.version, row.program, row.school, row.tasks = commission.version, program(), school, tasks
    session.flush()
    return row


def _tasks(session: Session, commission: Commission, school: School) -> list[dict[str, Any]]:
    version = latest_version(session, commission.id)
    try:
        recipe = read_recipe(version.recipe) if version else None
    except UnreadableRecipe:
        recipe = None
    if recipe is None:
        return []
    plan = plan_of(make_up(recipe), recipe, school)
    needs: dict[str, list[str]] = {one.key: [] for one in plan.operations}
    for before in plan.before:
        needs[before.then].append(before.first)
    return [
        {"key": one.key, "title": one.title, "work": one.work, "minutes": one.minutes, "needs": needs[one.key],
         "rests": one.hours[0], "fitting": one.work is Work.FIT}
        for one in plan.operations
    ]  # fmt: skip


def jobs(session: Session) -> list[Job]:
    """Every dress on the desk with what is left to do of it, at the maker's own pace."""
    pace = paces(session)
    done: dict[int, set[str]] = {}
    for commission_id, operation in session.execute(
        select(BenchMark.commission_id, BenchMark.operation).where(BenchMark.done_at.is_not(None))
    ):
        done.setdefault(commission_id, set()).add(operation)
    waits = {
        (commission_id, operation): datetime.combine(day, time())
        for commission_id, operation, day in session.execute(
            select(BenchMark.commission_id, BenchMark.operation, BenchMark.waits_until).where(
                BenchMark.waits_until.is_not(None), BenchMark.waits_for != ""
            )
        )
        if day is not None
    }
    made = []
    for row in _task_lists(session):
        left = [task for task in row.tasks if task["key"] not in done.get(row.commission_id, ())]
        keys = {task["key"] for task in left}
        made.append(
            Job(
                row.commission_id, row.title, row.due_on,
                tuple(
                    Task(
                        intern(t["key"]), intern(t["title"]), _whole(t["minutes"] * pace.get(t["work"], 1.0)),
                        frozenset(intern(need) for need in t["needs"] if need in keys), t["rests"],
                        fitting=t["fitting"],
                        not_before=waits.get((row.commission_id, t["key"])),
                    )
                    for t in left
                ),
                row.fitting_at,
            )
        )  # fmt: skip
    return made


MANY = 2000
"""So many sittings are written at a time."""

AT_ONCE = 200
"""So many lists of tasks are held at a time: of thousands of dresses all together would be too much."""


def _task_lists(session: Session) -> Iterable[Any]:
    """The tasks of every dress on the desk, each list read again first where it is no longer true."""
    for commission in session.scalars(_changed().options(joinedload(Commission.person))):
        task_list(session, commission)
    return session.execute(
        select(TaskList.commission_id, TaskList.tasks, TaskList.fitting_at, Commission.title, Commission.due_on)
        .join(Commission)
        .where(Commission.put_away_at.is_(None))
        .order_by(Commission.id)
        .execution_options(yield_per=AT_ONCE)
    )


def _whole(minutes: float) -> float:
    """As it is written into a book of days: whole fives."""
    return max(ceil(minutes / WHOLE), 1) * WHOLE


def agree_fitting(session: Session, commission_id: int, at: datetime | None) -> None:
    """When the fitting of a dress is, by the clock on the wall; None: not agreed."""
    row = session.scalars(select(TaskList).where(TaskList.commission_id == commission_id)).one()
    row.fitting_at = at
    session.flush()


def kept_days(session: Session, jobs: Sequence[Job]) -> Days:
    """The sittings that are kept of what is still to be done."""
    open_keys = {(job.id, task.key) for job in jobs for task in job.tasks}
    rows = session.scalars(select(SittingRow).order_by(SittingRow.start_at, SittingRow.commission_id))
    sittings = tuple(
        Sitting(row.commission_id, row.operation, row.start_at, row.end_at)
        for row in rows
        if (row.commission_id, row.operation) in open_keys
    )
    placed = {(one.job, one.key) for one in sittings}
    return Days(sittings, tuple(sorted(open_keys - placed)))


def keep_days(session: Session, days: Days) -> None:
    """The sittings in the place of those that were."""
    session.execute(delete(SittingRow))
    for k in range(0, len(days.sittings), MANY):
        rows = [
            {"commission_id": one.job, "operation": one.key, "start_at": one.start, "end_at": one.end}
            for one in days.sittings[k : k + MANY]
        ]
        session.execute(insert(SittingRow), rows)


def keep_found(
    session: Session, room: Workroom, jobs: Sequence[Job], days: Days, hours: Hours, now: datetime
) -> None:  # fmt: skip
    """The sittings, and what does not go with them, in the place of what was kept."""
    keep_days(session, days)
    found, by_id = troubles(jobs, days, hours, now), {job.id: job for job in jobs}
    room.troubles = {
        name: [asdict(one) for one in told(found, by_id)]
        for name, told in (("late", days_said.late), ("conflicts", days_said.conflicts), ("today", days_said.today))
    } | {"more_late": sum(not one.explained for one in found.late)}
    session.flush()


def _still_open() -> Select[SittingRow]:
    """The sittings of dresses on the desk at what is not done."""
    done = select(BenchMark.id).where(
        BenchMark.commission_id == SittingRow.commission_id, BenchMark.operation == SittingRow.operation,
        BenchMark.done_at.is_not(None),
    )  # fmt: skip
    on_desk = select(Commission.id).where(Commission.put_away_at.is_(None))
    return select(SittingRow).where(~done.exists(), SittingRow.commission_id.in_(on_desk))


def sittings_between(session: Session, first: datetime, last: datetime) -> list[SittingRow]:
    """The sittings that begin from one moment to another, of what is not done."""
    there = _still_open().where(SittingRow.start_at >= first, SittingRow.start_at < last)
    return list(session.scalars(there.order_by(SittingRow.start_at, SittingRow.commission_id)))


def how_many_behind(session: Session, now: datetime) -> int:
    """How many sittings are over, and what they were for is not done."""
    behind = _still_open().where(SittingRow.end_at < now).subquery()
    return session.scalar(select(func.count()).select_from(behind)) or 0


def how_many_changed(session: Session) -> int:
    """How many dresses on the desk are not as they were when their tasks were read."""
    return session.scalar(select(func.count()).select_from(_changed().subquery())) or 0


def _changed() -> Select[Commission]:
    """The dresses on the desk that are not as they were when their tasks were read."""
    as_read = (
        select(TaskList.commission_id)
        .join(Commission)
        .outerjoin(Making, Making.commission_id == TaskList.commission_id)
        .where(
            TaskList.version == Commission.version, TaskList.program == program(),
            TaskList.school == func.coalesce(Making.school, School.SIDES_FIRST.value),
        )
    )  # fmt: skip
    return select(Commission).where(Commission.put_away_at.is_(None), Commission.id.not_in(as_read))


def was_done_since(session: Session, moment: datetime) -> bool:
    """Whether anything has been ticked since a moment, by the clock on the wall."""
    ticked = select(BenchMark.id).where(BenchMark.done_at > moment.astimezone(UTC)).limit(1)
    return session.scalar(ticked) is not None


def titles_of(session: Session, commissions: Iterable[int]) -> dict[int, TaskList]:
    """The task lists of some commissions, by their numbers, each with its commission."""
    rows = session.scalars(
        select(TaskList)
        .where(TaskList.commission_id.in_(set(commissions)))
        .options(joinedload(TaskList.commission).joinedload(Commission.person))
    )
    return {row.commission_id: row for row in rows}
