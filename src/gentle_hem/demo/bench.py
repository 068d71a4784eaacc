"""How far the studio's dresses are: what is done of their plans, how long it took, and the fittings that are agreed."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from gentle_hem.core.making.days import lay_out
from gentle_hem.core.making.operation import School
from gentle_hem.store.days import agree_fitting, hours_of, jobs, keep_found, task_list, workroom
from gentle_hem.store.making import bench_mark, choose_school
from gentle_hem.store.models import Commission


@dataclass(frozen=True)
class Begun:
    """A dress in work: how many operations are done, in what share of the usual time, what was noted at the last."""

    title: str
    done: int
    pace: float
    note: str = ""
    school: School = School.SIDES_FIRST


BEGUN = (
    Begun("Lighthouse keeper's jumpsuit", 9, 1.15, "The collar turned over a bone folder; its corners are sharp."),
    Begun("Midsummer dance dress", 5, 0.9, "Chalk does not come out of this cloth: thread only."),
    Begun("Kite dress", 3, 1.05, school=School.WAIST_FIRST),
)

FITTINGS = (("Lighthouse keeper's jumpsuit", 2, time(16)), ("Ball gown", 1, time(10)))
"""Agreed so many working days ahead; the gown's before its waist can be sewn, which is said."""


def put_to_work(session: Session, now: datetime) -> None:
    """Tick, time and note what is done, agree the fittings, and lay out the days."""
    rows = {row.title: row for row in session.scalars(select(Commission))}
    for begun in BEGUN:
        row = rows[begun.title]
        choose_school(session, row.id, begun.school)
        tasks = task_list(session, row).tasks[: begun.done]
        for place, task in enumerate(tasks):
            mark = bench_mark(session, row.id, task["key"], task["work"], task["minutes"])
            mark.minutes = round(task["minutes"] * begun.pace * (0.9 if place % 2 else 1.1))
            mark.done_at = datetime.now(UTC) - timedelta(hours=2 * (len(tasks) - place))
            mark.note = begun.note if place == len(tasks) - 1 else ""
    room = workroom(session)
    hours = hours_of(room.hours)
    for title, ahead, at in FITTINGS:
        task_list(session, rows[title])
        agree_fitting(session, rows[title].id, datetime.combine(_working_day(now.date(), ahead), at))
    made = jobs(session)
    room.laid_at = now
    keep_found(session, room, made, lay_out(made, hours, now), hours, now)


def _working_day(day: date, ahead: int) -> date:
    while ahead:
        day += timedelta(days=1)
        ahead -= day.weekday() < 5
    return day
