"""The workroom's days: when each operation of every dress is sewn by one pair of hands (trade 13).

 Mon ├── cut ──┤├ darts ┤│     dress that is due first ──► its operations in order, each as early as may be
 Tue ├ sides ┤· fitting ·│     then the next dress, in what time is left between
 Wed      hangs 24 h ····│     waits keep no hands

Nothing is moved by itself: a fitting that slips moves only what follows from it, and what it then lies across is said.
Times are those of the clock on the wall, minutes as whole as they come.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta

LEAST_SITTING = 10.0
"""Nobody sits down to begin something for less (minutes), unless it is done by then."""

FURTHEST = 3650
"""So many days ahead are looked at."""

EXPLAINED = 50
"""Of so many late dresses it is looked into why."""

NEAR = timedelta(days=120)
"""Only what is due within this can be a matter of today."""


@dataclass(frozen=True, slots=True)
class Hours:
    """When the workroom is open: from and to on each day of the week, Monday first, and the days it is closed."""

    by_weekday: tuple[tuple[time, time] | None, ...] = (
        *((time(9), time(17)),) * 5, None, None,
    )  # fmt: skip
    closed: frozenset[date] = frozenset()

    def on(self, day: date) -> tuple[datetime, datetime] | None:
        """From when to when it is open on a day."""
        hours = None if day in self.closed else self.by_weekday[day.weekday()]
        return (datetime.combine(day, hours[0]), datetime.combine(day, hours[1])) if hours else None


@dataclass(frozen=True, slots=True)
class Task:
    """An operation that is still to be done: what must be done before it, how long it takes and then rests."""

    key: str
    title: str
    minutes: float
    needs: frozenset[str] = frozenset()
    rests: float = 0.0
    """Hours it lies or hangs after it, before anything that needs it."""
    not_before: datetime | None = None
    """When what it waits for is there, where that is known."""
    fitting: bool = False


@dataclass(frozen=True, slots=True)
class Job:
    """A dress that is being made."""

    id: int
    title: str
    due: date | None
    tasks: tuple[Task, ...]
    appointment: datetime | None = None
    """When its fitting is agreed."""


@dataclass(frozen=True, slots=True)
class Sitting:
    """A stretch of work at one operation, within one day."""

    job: int
    key: str
    start: datetime
    end: datetime


@dataclass(frozen=True, slots=True)
class Days:
    """The sittings of all dresses, in order of time, and those operations for which there is no time at all."""

    sittings: tuple[Sitting, ...]
    unplaced: tuple[tuple[int, str], ...] = ()

    def done(self, job: Job) -> Mapping[str, datetime]:
        """When each operation of a dress is finished, its rest over."""
        return _done(job, (one for one in self.sittings if one.job == job.id))

    def finished(self, job: Job) -> datetime | None:
        """When a dress is done; None where there is no time for some of it, or nothing left to do."""
        return _finished(job, self.done(job))


def _done(job: Job, sittings: Iterable[Sitting]) -> dict[str, datetime]:
    rests = {task.key: timedelta(hours=task.rests) for task in job.tasks}
    ends: dict[str, datetime] = {}
    for one in sittings:
        if one.key in rests:
            ends[one.key] = max(ends.get(one.key, one.end), one.end)
    return {key: end + rests[key] for key, end in ends.items()}


def _finished(job: Job, done: Mapping[str, datetime]) -> datetime | None:
    return max(done.values()) if len(done) == len(job.tasks) > 0 else None


class _Hands:
    """The time of one pair of hands that is still free."""

    def __init__(self, hours: Hours, now: datetime) -> None:
        self.hours, self.now = hours, now
        self.first = now.date()
        self.free: dict[int, list[tuple[datetime, datetime]]] = {}
        self.next: dict[timedelta, dict[int, int]] = {}
        """By how long a sitting is at least: of a day with no room for it the next that may have. Time is only ever
        taken, so a day without room stays so.
        """

    def _day(self, index: int) -> list[tuple[datetime, datetime]]:
        if index not in self.free:
            open_at = self.hours.on(self.first + timedelta(days=index))
            start = max(open_at[0], self.now) if open_at else self.now
            self.free[index] = [(start, open_at[1])] if open_at and start < open_at[1] else []
        return self.free[index]

    def _open_day(self, index: int, least: timedelta) -> int:
        """The first day from here on with a free stretch of at least so long."""
        passed, onward = [], self.next.setdefault(least, {})
        while index < FURTHEST:
            if index in onward:
                passed.append(index)
                index = onward[index]
            elif any(b - a >= least for a, b in self._day(index)):
                break
            else:
                onward[index] = index + 1
        for one in passed:
            onward[one] = index
        return index

    def take(self, start: datetime, end: datetime) -> None:
        """Time that is given away, open or not."""
        for index in range(max((start.date() - self.first).days, 0), (end.date() - self.first).days + 1):
            self.free[index] = [
                (a, b)
                for one in self._day(index)
                for a, b in ((one[0], min(one[1], start)), (max(one[0], end), one[1]))
                if a < b
            ]

    def work(self, minutes: float, after: datetime) -> list[tuple[datetime, datetime]] | None:
        """The earliest time for so much work, in as many sittings as it takes; None where there is none."""
        left, found = timedelta(minutes=minutes), []
        least = timedelta(minutes=LEAST_SITTING)
        index = self._open_day(max((after.date() - self.first).days, 0), min(left, least))
        while left > timedelta() and index < FURTHEST:
            for a, b in list(self._day(index)):
                start = max(a, after)
                end = min(b, start + left)
                short = end - start < min(left, least)
                if end <= start or short or left <= timedelta():
                    continue
                found.append((start, end))
                left -= end - start
            index = self._open_day(index + 1, min(left, least))
        if left > timedelta():
            return None
        for start, end in found:
            self.take(start, end)
        return found


def in_turn(jobs: Iterable[Job]) -> list[Job]:
    """The dresses as their hands turn to them: the one that is due first, first."""
    return sorted(jobs, key=lambda job: (job.due or date.max, job.id))


def lay_out(jobs: Iterable[Job], hours: Hours, now: datetime) -> Days:
    """Every operation of every dress laid into the days from ``now`` on, agreed fittings where they are agreed."""
    hands = _Hands(hours, now)
    turn = in_turn(jobs)
    sittings, unplaced = [], []
    kept: dict[int, dict[str, datetime]] = {}
    for job in turn:
        for task in job.tasks:
            if task.fitting and job.appointment and job.appointment >= now:
                end = job.appointment + timedelta(minutes=task.minutes)
                hands.take(job.appointment, end)
                sittings.append(Sitting(job.id, task.key, job.appointment, end))
                kept.setdefault(job.id, {})[task.key] = end
    for job in turn:
        placed, left = _placed(job, hands, now, kept.get(job.id, {}))
        sittings += placed
        unplaced += left
    return Days(tuple(sorted(sittings, key=lambda one: (one.start, one.job))), tuple(unplaced))


def _placed(
    job: Job, hands: _Hands, now: datetime, done: dict[str, datetime]
) -> tuple[list[Sitting], list[tuple[int, str]]]:
    """The operations of a dress that have no time yet, each after what it needs; ``done`` says when the others are."""
    rests = {task.key: timedelta(hours=task.rests) for task in job.tasks}
    sittings: list[Sitting] = []
    unplaced: list[tuple[int, str]] = []
    for task in job.tasks:
        if task.key in done:
            continue
        if any(need in rests and need not in done for need in task.needs):
            unplaced.append((job.id, task.key))
            continue
        after = max([now, task.not_before or now, *(done[n] + rests[n] for n in task.needs if n in rests)])
        spans = hands.work(task.minutes, after)
        if spans is None:
            unplaced.append((job.id, task.key))
            continue
        sittings += [Sitting(job.id, task.key, start, end) for start, end in spans]
        done[task.key] = max((end for _, end in spans), default=after)
    return sittings, unplaced


# what is wrong with it


@dataclass(frozen=True, slots=True)
class Late:
    """A dress that is done after it is due: when, and whose hands or waits are to blame."""

    job: int
    done: datetime | None
    """None: there is no time for it at all."""
    alone: datetime | None
    """When it would be done if nothing else were made."""
    before: tuple[int, ...]
    """The dresses that come before it, where it is they that make it late."""
    explained: bool = True
    """Whether it was looked into why; of very many only the first are."""


@dataclass(frozen=True, slots=True)
class TooSoon:
    """A fitting that is agreed for a time when something it needs is not done."""

    job: int
    at: datetime
    key: str
    done: datetime


@dataclass(frozen=True, slots=True)
class Across:
    """Two sittings that lie across each other: one pair of hands cannot do both."""

    one: Sitting
    other: Sitting


@dataclass(frozen=True, slots=True)
class Troubles:
    """What does not go, and what must be begun today so that it goes."""

    late: tuple[Late, ...] = ()
    too_soon: tuple[TooSoon, ...] = ()
    across: tuple[Across, ...] = ()
    today: tuple[int, ...] = ()


def end_of(day: date) -> datetime:
    return datetime.combine(day, time.max)


def troubles(jobs: Sequence[Job], days: Days, hours: Hours, now: datetime) -> Troubles:
    """Everything that is late, too soon or across, and what cannot be put off till tomorrow."""
    turn = in_turn(job for job in jobs if job.tasks)
    of_job: dict[int, list[Sitting]] = {job.id: [] for job in turn}
    for one in days.sittings:
        if one.job in of_job:
            of_job[one.job].append(one)
    late: list[Late] = []
    too_soon: list[TooSoon] = []
    today: list[int] = []
    for place, job in enumerate(turn):
        done = _done(job, of_job[job.id])
        if job.due is not None:
            finished = _finished(job, done)
            if finished is None or finished > end_of(job.due):
                explained = len(late) < EXPLAINED
                alone = _alone(job, hours, now) if explained else None
                blame = alone is not None and alone <= end_of(job.due)
                before = tuple(other.id for other in turn[:place]) if blame else ()
                late.append(Late(job.id, finished, alone, before, explained))
            elif job.due < now.date() + NEAR:
                tomorrow = datetime.combine(now.date() + timedelta(days=1), time.min)
                put_off = _alone(job, hours, tomorrow)
                if put_off is None or put_off > end_of(job.due):
                    today.append(job.id)
        fitting = next((task for task in job.tasks if task.fitting), None)
        if fitting and job.appointment:
            last = max(((done[n], n) for n in fitting.needs if n in done), default=None)
            if last and last[0] > job.appointment:
                too_soon.append(TooSoon(job.id, job.appointment, last[1], last[0]))
    return Troubles(tuple(late), tuple(too_soon), tuple(_across(days.sittings)), tuple(today))


def _alone(job: Job, hours: Hours, now: datetime) -> datetime | None:
    return lay_out([job], hours, now).finished(job)


def _across(sittings: Iterable[Sitting]) -> Iterator[Across]:
    reach: Sitting | None = None
    for one in sorted(sittings, key=lambda one: one.start):
        if reach is not None and one.start < reach.end:
            yield Across(reach, one)
        if reach is None or one.end > reach.end:
            reach = one


# a fitting that slips


@dataclass(frozen=True, slots=True)
class Slipped:
    """What a fitting at another time moves: the days as they then are, and the operations that are moved, by key."""

    days: Days
    moved: tuple[str, ...]


def slipped(jobs: Sequence[Job], days: Days, hours: Hours, now: datetime, job_id: int, to: datetime) -> Slipped:
    """The fitting of a dress at another time: only what follows from it is laid anew, in what time is free."""
    job = next(job for job in jobs if job.id == job_id)
    fitting = next(task for task in job.tasks if task.fitting)
    following = _following(job, fitting.key)
    kept = [s for s in days.sittings if s.job != job_id or s.key not in following | {fitting.key}]
    end = to + timedelta(minutes=fitting.minutes)
    hands = _Hands(hours, now)
    for one in kept:
        hands.take(one.start, one.end)
    hands.take(to, end)
    done = {key: when - timedelta(hours=_rest(job, key)) for key, when in Days(tuple(kept)).done(job).items()}
    done[fitting.key] = end
    placed, unplaced = _placed(job, hands, now, done)
    made = sorted([*kept, Sitting(job_id, fitting.key, to, end), *placed], key=lambda one: (one.start, one.job))
    before = {key: sorted((s.start, s.end) for s in days.sittings if (s.job, s.key) == (job_id, key))
              for key in following}  # fmt: skip
    after = {key: sorted((s.start, s.end) for s in made if (s.job, s.key) == (job_id, key)) for key in following}
    elsewhere = tuple(one for one in days.unplaced if one[0] != job_id)
    moved = tuple(task.key for task in job.tasks if task.key in following and before[task.key] != after[task.key])
    return Slipped(Days(tuple(made), (*elsewhere, *unplaced)), moved)


def _rest(job: Job, key: str) -> float:
    return next(task.rests for task in job.tasks if task.key == key)


def _following(job: Job, key: str) -> set[str]:
    """Everything of a dress that needs an operation, or what needs it."""
    found: set[str] = set()
    while more := {task.key for task in job.tasks if task.needs & (found | {key})} - found:
        found |= more
    return found
