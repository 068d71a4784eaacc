"""What does not go in the workroom's days, in sentences: which dress, when, and whose hands or waits are to blame."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import date, datetime

from gentle_hem.core.making.days import Days, Job, Sitting, Slipped, Troubles

NAMED = 3
"""So many dresses are named where several stand before one."""


@dataclass(frozen=True, slots=True)
class Told:
    """A sentence about a dress."""

    commission: int
    text: str


def said_day(day: date) -> str:
    """A day as it is spoken: "Friday 4 December"."""
    return f"{day:%A} {day.day} {day:%B}"


def said_moment(at: datetime) -> str:
    return f"{said_day(at.date())} at {at:%H:%M}"


def late(found: Troubles, by_id: Mapping[int, Job]) -> Iterator[Told]:
    """The dresses that are not done by the day they are due, and why; of very many the first."""
    for one in found.late:
        if not one.explained:
            continue
        job = by_id[one.job]
        assert job.due is not None
        if one.alone is None or one.done is None:
            done, why = "would not be done", "there is no open hour for all of it"
        else:
            done = f"would be done on {said_day(one.done.date())}"
            first = [by_id[number].title for number in one.before[:NAMED]]
            more = f" and {len(one.before) - NAMED} more" if len(one.before) > NAMED else ""
            why = f"the hands are at {', '.join(first)}{more} first" if first else (
                f"even alone, its work and its waits take until {said_day(one.alone.date())}"
            )  # fmt: skip
        yield Told(one.job, f"{job.title} is due on {said_day(job.due)} and {done}: {why}.")


def conflicts(found: Troubles, by_id: Mapping[int, Job]) -> Iterator[Told]:
    """Fittings agreed too soon, and what lies across each other."""
    for soon in found.too_soon:
        job = by_id[soon.job]
        yield Told(
            job.id,
            f"The fitting of {job.title} is agreed for {said_moment(soon.at)}, and “{_operation(job, soon.key)}” is "
            f"done on {said_moment(soon.done)}.",
        )
    for both in found.across:
        one, other = by_id[both.one.job], by_id[both.other.job]
        yield Told(
            other.id,
            f"{_of(one, both.one)} and {_of(other, both.other)} lie across each other on "
            f"{said_moment(both.other.start)}.",
        )


def today(found: Troubles, by_id: Mapping[int, Job]) -> Iterator[Told]:
    """The dresses that cannot be put off till tomorrow."""
    for number in found.today:
        yield Told(number, f"{by_id[number].title} must be worked on today, or it is not done in time.")


def moves(job: Job, before: Days, after: Slipped) -> Iterator[str]:
    """What a fitting at another time moves, from when to when."""
    for key in after.moved:
        old, new = (_start(days, job, key) for days in (before, after.days))
        yield f"“{_operation(job, key)}” moves from {old} to {new}."


def _start(days: Days, job: Job, key: str) -> str:
    start = min((s.start for s in days.sittings if (s.job, s.key) == (job.id, key)), default=None)
    return said_moment(start) if start else "no time"


def _operation(job: Job, key: str) -> str:
    return next(task.title for task in job.tasks if task.key == key)


def _of(job: Job, sitting: Sitting) -> str:
    return f"“{_operation(job, sitting.key)}” of {job.title}"
