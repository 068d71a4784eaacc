"""The calendar: all dresses against the days they are due, what must be begun today, what does not go and why."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime, time, timedelta
from typing import Annotated

from fastapi import APIRouter, HTTPException, Query, Response
from pydantic import BaseModel, Field, NaiveDatetime, model_validator
from sqlalchemy import select

from gentle_hem.api.kept import LARGEST_NUMBER, Reading, Writing
from gentle_hem.core.making import days_said
from gentle_hem.core.making.days import Hours, lay_out, slipped, troubles
from gentle_hem.core.making.days_said import Told, said_day
from gentle_hem.core.replace import replace
from gentle_hem.store.days import (
    agree_fitting,
    hours_document,
    hours_of,
    how_many_behind,
    how_many_changed,
    jobs,
    keep_found,
    kept_days,
    sittings_between,
    titles_of,
    was_done_since,
    workroom,
)
from gentle_hem.store.models import Commission, SittingRow, TaskList, Workroom

calendar = APIRouter(prefix="/api/calendar", tags=["making"])

MOST_DAYS = 62


class SittingOut(BaseModel):
    """A stretch of work at one operation."""

    commission: int
    title: str
    person: str
    key: str
    operation: str
    start: datetime
    end: datetime
    fitting: bool
    agreed: bool
    """Whether it is a fitting that is agreed with the one who is fitted."""
    behind: bool
    """Whether its time is over and it is not done."""


class DueOut(BaseModel):
    commission: int
    title: str


class DayOut(BaseModel):
    """One day of the workroom."""

    day: date
    open_from: time | None
    open_to: time | None
    sittings: list[SittingOut]
    due: list[DueOut]


class FittingOut(BaseModel):
    """A dress whose fitting is agreed, and when."""

    commission: int
    title: str
    person: str
    at: datetime


class TroubleOut(BaseModel):
    commission: int
    text: str


class OpenIn(BaseModel):
    """From when to when it is open on a day."""

    opens: time
    closes: time

    @model_validator(mode="after")
    def _opens_before_it_closes(self) -> OpenIn:
        if self.opens >= self.closes:
            raise ValueError("a day closes after it opens, as from 09:00 to 17:00; or it is closed")
        return self


class HoursIn(BaseModel):
    """When the workroom is open, Monday first, and the days it is closed."""

    week: Annotated[list[OpenIn | None], Field(min_length=7, max_length=7)]
    closed: Annotated[list[date], Field(max_length=400)]


class CalendarOut(BaseModel):
    """The days asked for, and what is to be said of all of them."""

    now: datetime
    laid_at: datetime | None
    stale: str
    """Why the days are to be laid out anew; nothing where they stand as they are."""
    worked_since: bool
    """Whether anything was done since: what is late, and what does not go, may be less by now."""
    days: list[DayOut]
    today: list[TroubleOut]
    late: list[TroubleOut]
    more_late: int
    """How many more are late than are named."""
    conflicts: list[TroubleOut]
    behind: int
    fittings: list[FittingOut]
    hours: HoursIn


class FittingIn(BaseModel):
    """When a dress is to be fitted; tried first, and kept when she says so."""

    commission: int = Field(ge=1, le=LARGEST_NUMBER)
    at: NaiveDatetime | None
    keep: bool = False


class MovedOut(BaseModel):
    """What a fitting at another time would move, or has moved."""

    moves: list[str]
    late: list[TroubleOut]
    conflicts: list[TroubleOut]


Start = Annotated[date | None, Query(description="The first day; today where nothing is said.")]
Count = Annotated[int, Query(ge=1, le=MOST_DAYS, description="How many days.")]


@calendar.get("")
def days_of(session: Reading, start: Start = None, days: Count = 14) -> CalendarOut:
    """So many days of the workroom from one on."""
    return _calendar(session, start, days)


def _calendar(session: Reading, start: date | None, count: int) -> CalendarOut:
    now = datetime.now()
    room = session.scalars(select(Workroom)).first()
    hours = hours_of(room.hours) if room else Hours()
    first = start or now.date()
    last = first + timedelta(days=count)
    rows = sittings_between(session, datetime.combine(first, time.min), datetime.combine(last, time.min))
    lists = titles_of(session, (row.commission_id for row in rows))
    made = [_sitting(row, lists[row.commission_id], now) for row in rows if row.commission_id in lists]
    due: dict[date, list[DueOut]] = {}
    for number, title, day in session.execute(
        select(Commission.id, Commission.title, Commission.due_on)
        .where(Commission.put_away_at.is_(None), Commission.due_on >= first, Commission.due_on < last)
        .order_by(Commission.id)
    ):
        assert day is not None
        due.setdefault(day, []).append(DueOut(commission=number, title=title))
    said = room.troubles if room else {}
    return CalendarOut(
        now=now, laid_at=room.laid_at if room else None, stale=_stale(session, room, now),
        worked_since=bool(room and room.laid_at and was_done_since(session, room.laid_at)),
        days=[
            _day(first + timedelta(days=k), hours, made, due) for k in range(count)
        ],
        today=said.get("today", []), late=said.get("late", []), more_late=said.get("more_late", 0),
        conflicts=said.get("conflicts", []), behind=how_many_behind(session, now),
        fittings=_fittings(session, first), hours=_said(hours),
    )  # fmt: skip


def _said(hours: Hours) -> HoursIn:
    week = [OpenIn(opens=day[0], closes=day[1]) if day else None for day in hours.by_weekday]
    return HoursIn(week=week, closed=sorted(hours.closed))


def _sitting(row: SittingRow, tasks: TaskList, now: datetime) -> SittingOut:
    task = next((task for task in tasks.tasks if task["key"] == row.operation), None)
    return SittingOut(
        commission=row.commission_id, title=tasks.commission.title, person=tasks.commission.person.name,
        key=row.operation, operation=task["title"] if task else row.operation, start=row.start_at, end=row.end_at,
        fitting=bool(task and task["fitting"]), agreed=tasks.fitting_at == row.start_at, behind=row.end_at < now,
    )  # fmt: skip


def _day(day: date, hours: Hours, made: Sequence[SittingOut], due: dict[date, list[DueOut]]) -> DayOut:
    opened = hours.on(day)
    return DayOut(
        day=day, open_from=opened[0].time() if opened else None, open_to=opened[1].time() if opened else None,
        sittings=[one for one in made if one.start.date() == day], due=due.get(day, []),
    )  # fmt: skip


def _stale(session: Reading, room: Workroom | None, now: datetime) -> str:
    if room is None or room.laid_at is None:
        return "Nothing is laid into the days yet."
    if room.laid_at.date() < now.date():
        return f"The days were laid out on {said_day(room.laid_at.date())}; what was not done then is behind."
    changed = how_many_changed(session)
    if changed:
        return f"{changed} {'dress has' if changed == 1 else 'dresses have'} changed since the days were laid out."
    return ""


def _fittings(session: Reading, first: date) -> list[FittingOut]:
    rows = session.scalars(
        select(TaskList).join(Commission).where(
            Commission.put_away_at.is_(None), TaskList.fitting_at >= datetime.combine(first, time.min)
        ).order_by(TaskList.fitting_at)
    )  # fmt: skip
    return [
        FittingOut(commission=row.commission_id, title=row.commission.title, person=row.commission.person.name,
                   at=row.fitting_at)
        for row in rows
        if row.fitting_at
    ]  # fmt: skip


@calendar.post("/lay-out")
def lay_out_anew(session: Writing, start: Start = None, days: Count = 14) -> CalendarOut:
    """What is left of every dress laid into the days from now on, the one due first, first; agreed fittings stand."""
    now = datetime.now()
    room = workroom(session)
    made, hours = jobs(session), hours_of(room.hours)
    laid = lay_out(made, hours, _to_the_minute(now))
    room.laid_at = now
    keep_found(session, room, made, laid, hours, now)
    return _calendar(session, start, days)


def _to_the_minute(now: datetime) -> datetime:
    """The next whole five minutes."""
    whole = now.replace(second=0, microsecond=0)
    return whole + timedelta(minutes=-whole.minute % 5)


@calendar.put("/hours", status_code=204)
def open_at(body: HoursIn, session: Writing) -> None:
    """When the workroom is open; what is laid out stays until it is laid out anew."""
    room = workroom(session)
    week = tuple((day.opens, day.closes) if day else None for day in body.week)
    room.hours = hours_document(Hours(week, frozenset(body.closed)))


@calendar.put("/fitting")
def agree(body: FittingIn, session: Writing) -> MovedOut:
    """The fitting of a dress at another time: what that moves, and what does not go then; kept when asked to be."""
    now = datetime.now()
    room = workroom(session)
    if stale := _stale(session, room, now):
        raise HTTPException(409, f"{stale} Lay them out anew first; then a fitting can be moved among them.")
    if body.at is not None and body.at < now:
        raise HTTPException(422, "That is over; a fitting is agreed for a time to come.")
    hours, made = hours_of(room.hours), jobs(session)
    job = next((job for job in made if job.id == body.commission), None)
    if job is None or not any(task.fitting for task in job.tasks):
        raise HTTPException(409, "This dress has no fitting left, or is not on the desk.")
    days = kept_days(session, made)
    if body.at is None:
        after, moves = days, list[str]()
    else:
        made_then = slipped(made, days, hours, _to_the_minute(now), body.commission, body.at)
        after, moves = made_then.days, list(days_said.moves(job, days, made_then))
    made = [replace(one, appointment=body.at) if one.id == job.id else one for one in made]
    found, by_id = troubles(made, after, hours, now), {one.id: one for one in made}
    if body.keep:
        agree_fitting(session, body.commission, body.at)
        keep_found(session, room, made, after, hours, now)
    own = [_told(one) for one in days_said.late(found, by_id) if one.commission == job.id]
    return MovedOut(moves=moves, late=own, conflicts=[_told(one) for one in days_said.conflicts(found, by_id)])


def _told(one: Told) -> TroubleOut:
    return TroubleOut(commission=one.commission, text=one.text)


@calendar.get("/gentle-hem.ics", response_class=Response)
def as_ics(session: Reading) -> Response:
    """The next two months as an iCalendar file: sittings, fittings, and the days dresses are due."""
    from gentle_hem.formats.ics import Entry, to_ics  # here: it is slow to read in

    shown = _calendar(session, None, MOST_DAYS)
    entries = [
        Entry(
            f"{one.commission}-{one.key}-{one.start:%Y%m%dT%H%M}", f"{one.title}: {one.operation}", one.start, one.end
        )
        for day in shown.days
        for one in day.sittings
    ] + [
        Entry(f"{one.commission}-due", f"{one.title} is due", day.day, day.day + timedelta(days=1))
        for day in shown.days
        for one in day.due
    ]
    return Response(
        to_ics(entries, shown.laid_at or shown.now), media_type="text/calendar",
        headers={"Content-Disposition": 'attachment; filename="gentle-hem.ics"'},
    )  # fmt: skip
