"""The workroom's days: one pair of hands, waits kept, due days honoured or the shortfall said (trade 13)."""

from datetime import date, datetime, time, timedelta

from hypothesis import given, settings
from hypothesis import strategies as st

from gentle_hem.core.making.days import (
    FURTHEST,
    Hours,
    Job,
    Sitting,
    Task,
    in_turn,
    lay_out,
    slipped,
    troubles,
)
from long import examples

NOW = datetime(2026, 11, 30, 9)  # a Monday
MONDAY = NOW.date()


def job(number, *minutes, due=None, **rest):
    """A dress of operations one after another, each needing the one before."""
    tasks = tuple(
        Task(f"o{k}", f"operation {k}", m, frozenset({f"o{k - 1}"} if k else ())) for k, m in enumerate(minutes)
    )
    return Job(number, f"dress {number}", due, tasks, **rest)


def at(day, hour, minute=0):
    return datetime.combine(MONDAY + timedelta(days=day), time(hour, minute))


# by hand


def test_a_dress_is_laid_into_the_days_as_one_would_write_it_down():
    """Eight hours a day: 5 h and 4 h are Monday to three hours before closing, and an hour of Tuesday."""
    days = lay_out([job(1, 300, 240)], Hours(), NOW)
    assert days.sittings == (
        Sitting(1, "o0", at(0, 9), at(0, 14)), Sitting(1, "o1", at(0, 14), at(0, 17)),
        Sitting(1, "o1", at(1, 9), at(1, 10)),
    )  # fmt: skip
    assert days.finished(job(1, 300, 240)) == at(1, 10)


def test_the_one_due_first_goes_first_and_the_other_works_in_between():
    """While the first hangs 24 h, the hands are at the second."""
    hung = Task("hang", "hang", 5, frozenset({"o0"}), rests=24)
    hem = Task("hem", "hem", 60, frozenset({"hang"}))
    first = job(1, 115, due=MONDAY + timedelta(days=3))
    first = Job(1, first.title, first.due, (*first.tasks, hung, hem))
    days = lay_out([job(2, 600), first], Hours(), NOW)
    assert [(s.job, s.key, s.start) for s in days.sittings] == [
        (1, "o0", at(0, 9)), (1, "hang", at(0, 10, 55)), (2, "o0", at(0, 11)), (2, "o0", at(1, 9)),
        (1, "hem", at(1, 11)), (2, "o0", at(1, 12)),
    ]  # fmt: skip
    assert days.done(first)["hang"] == at(1, 11)


def test_weekends_and_closed_days_are_free():
    hours = Hours(closed=frozenset({MONDAY + timedelta(days=4)}))
    days = lay_out([job(1, 8 * 60 * 4, 60)], hours, NOW)
    assert days.sittings[-1] == Sitting(1, "o1", at(7, 9), at(7, 10))


def test_an_agreed_fitting_stands_and_work_goes_round_it():
    fit = Task("fit", "fitting", 60, frozenset({"o0"}), fitting=True)
    after = Task("zip", "zip", 45, frozenset({"fit"}))
    fitted = Job(1, "dress", MONDAY + timedelta(days=9), (*job(1, 60).tasks, fit, after), at(1, 10))
    days = lay_out([fitted, job(2, 480)], Hours(), NOW)
    assert Sitting(1, "fit", at(1, 10), at(1, 11)) in days.sittings
    assert Sitting(1, "zip", at(1, 11), at(1, 11, 45)) in days.sittings
    assert [s.end - s.start for s in days.sittings if s.job == 2] == [timedelta(hours=7), timedelta(hours=1)]


def test_what_is_late_says_whether_it_is_its_own_work_or_the_others():
    tight = job(1, 480, due=MONDAY)
    crowded = job(2, 240, due=MONDAY + timedelta(days=1))
    hopeless = job(3, 480 * 5, due=MONDAY + timedelta(days=2))
    jobs = [tight, job(4, 480, due=MONDAY), crowded, hopeless]
    found = troubles(jobs, lay_out(jobs, Hours(), NOW), Hours(), NOW)
    late = {one.job: one for one in found.late}
    assert set(late) == {4, 2, 3}
    assert late[4].before == (1,)
    assert late[2].before == (1, 4)
    assert late[3].before == ()
    assert late[3].alone == at(4, 17)
    assert found.today == (1,)  # it takes the whole of today


def test_a_fitting_agreed_before_its_waist_is_sewn_is_said():
    fit = Task("fit", "fitting", 60, frozenset({"o1"}), fitting=True)
    fitted = Job(1, "dress", None, (*job(1, 300, 300).tasks, fit), at(0, 15))
    found = troubles([fitted], lay_out([fitted], Hours(), NOW), Hours(), NOW)
    [soon] = found.too_soon
    assert (soon.key, soon.done) == ("o1", at(1, 12))


# whatever there is


OPEN = [None, (time(8), time(12)), (time(9), time(17)), (time(13, 30), time(22))]


@st.composite
def workrooms(draw):
    """Dresses of random operations, some resting, some waiting, some with a fitting that is agreed."""
    week = [draw(st.sampled_from(OPEN)) for _ in range(6)]
    closed = draw(st.sets(st.dates(MONDAY, MONDAY + timedelta(days=30)), max_size=6))
    hours = Hours((*week, (time(9), time(17))), frozenset(closed))
    jobs = []
    for number in range(1, draw(st.integers(1, 6)) + 1):
        count = draw(st.integers(1, 9))
        fits = draw(st.none() | st.integers(0, count - 1))
        tasks = tuple(
            Task(
                f"o{k}", f"operation {k}", draw(st.floats(1, 700)),
                frozenset(f"o{n}" for n in range(k) if draw(st.booleans())),
                draw(st.sampled_from([0.0, 0.0, 24.0, 48.0])),
                draw(st.none() | st.datetimes(NOW, NOW + timedelta(days=9))), k == fits,
            )
            for k in range(count)
        )  # fmt: skip
        agreed = draw(st.none() | st.datetimes(NOW, NOW + timedelta(days=20))) if fits is not None else None
        due = draw(st.none() | st.dates(MONDAY, MONDAY + timedelta(days=40)))
        jobs.append(Job(number, f"dress {number}", due, tasks, agreed))
    return jobs, hours


def overlapping(sittings):
    order = sorted(sittings, key=lambda one: (one.start, one.end))
    return [(a, b) for k, a in enumerate(order) for b in order[k + 1 :] if b.start < a.end]


def keeps(jobs, days, hours):
    """One pair of hands, all the work of every operation, in open hours, after what it needs and its rest."""
    agreed = {(one.id, t.key): one.appointment for one in jobs for t in one.tasks if t.fitting and one.appointment}
    for a, b in overlapping(days.sittings):  # only what was agreed for one time by hand lies across
        assert (a.job, a.key) in agreed
        assert (b.job, b.key) in agreed
    for one in jobs:
        for task in one.tasks:
            mine = [s for s in days.sittings if (s.job, s.key) == (one.id, task.key)]
            if (one.id, task.key) in days.unplaced:
                assert not mine
                continue
            worked = sum((s.end - s.start for s in mine), timedelta())
            assert abs(worked - timedelta(minutes=task.minutes)) < timedelta(milliseconds=1)
            if (one.id, task.key) in agreed:
                assert mine[0].start == agreed[one.id, task.key]
                continue
            for sitting in mine:
                opened = hours.on(sitting.start.date())
                assert opened is not None
                assert opened[0] <= sitting.start < sitting.end <= opened[1]
                assert sitting.start >= max(NOW, task.not_before or NOW)
            done = days.done(one)
            assert all(done[need] <= mine[0].start for need in task.needs if need in done)


@given(workrooms())
@settings(max_examples=examples(80, 2000))
def test_no_two_things_at_once_waits_kept_and_due_days_honoured_or_said(workroom):
    jobs, hours = workroom
    days = lay_out(jobs, hours, NOW)
    keeps(jobs, days, hours)
    found = troubles(jobs, days, hours, NOW)
    late = {one.job for one in found.late}
    for one in jobs:
        finished = days.finished(one)
        over = one.due is not None and (finished is None or finished.date() > one.due)
        assert (one.id in late) == over
    for soon in found.too_soon:
        one = next(one for one in jobs if one.id == soon.job)
        assert days.done(one)[soon.key] > one.appointment
    assert {(x.one.key, x.other.key) for x in found.across} <= {(a.key, b.key) for a, b in overlapping(days.sittings)}
    assert bool(found.across) == bool(overlapping(days.sittings))


@given(workrooms(), st.datetimes(NOW, NOW + timedelta(days=25)))
@settings(max_examples=examples(80, 2000))
def test_a_fitting_that_slips_moves_only_what_follows_from_it(workroom, to):
    jobs, hours = workroom
    fitted = next((one for one in jobs if any(t.fitting for t in one.tasks)), None)
    if fitted is None:
        return
    days = lay_out(jobs, hours, NOW)
    made = slipped(jobs, days, hours, NOW, fitted.id, to)
    fit = next(t for t in fitted.tasks if t.fitting)
    follows = {fit.key}
    for task in fitted.tasks:  # in order, so that one pass finds all that follows
        if task.needs & follows:
            follows.add(task.key)
    others = [s for s in days.sittings if s.job != fitted.id or s.key not in follows]
    assert set(others) <= set(made.days.sittings)
    assert {(s.job, s.key) for s in made.days.sittings if s not in others} <= {(fitted.id, key) for key in follows}
    [moved] = [s for s in made.days.sittings if (s.job, s.key) == (fitted.id, fit.key)]
    assert moved.start == to
    laid = [s for s in made.days.sittings if s.job == fitted.id and s.key in follows - {fit.key}]
    for a, b in overlapping(made.days.sittings):  # what is laid anew lies where the hands are free
        assert a not in laid
        assert b not in laid
    for key in made.moved:
        old, new = ([s for s in d.sittings if (s.job, s.key) == (fitted.id, key)] for d in (days, made.days))
        assert old != new
    done = made.days.done(fitted)
    for task in fitted.tasks:
        first = min((s.start for s in made.days.sittings if (s.job, s.key) == (fitted.id, task.key)), default=None)
        if first and task.key in follows - {fit.key}:
            assert all(done[need] <= first for need in task.needs if need in done)


def test_a_workroom_without_hours_says_that_there_is_no_time():
    never = Hours((None,) * 7)
    days = lay_out([job(1, 30, 30, due=MONDAY)], never, NOW)
    assert days.unplaced == ((1, "o0"), (1, "o1"))
    [late] = troubles([job(1, 30, 30, due=MONDAY)], days, never, NOW).late
    assert (late.done, late.alone) == (None, None)
    assert FURTHEST >= 365


def test_a_thousand_dresses_are_laid_out_in_seconds():
    jobs = [job(n, *([25.0] * 18), due=MONDAY + timedelta(days=n % 700)) for n in range(1, 1001)]
    days = lay_out(jobs, Hours(), NOW)
    assert len({(s.job, s.key) for s in days.sittings}) == 18_000
    assert in_turn(jobs)[0].due == min(one.due for one in jobs)
    assert isinstance(jobs[0].due, date)


def test_a_stretch_of_just_the_shortest_sitting_is_used():
    """10 minutes are left of Monday; the next dress, which takes an hour and 10 minutes, has them to the minute."""
    days = lay_out([job(1, 470), job(2, 70)], Hours(), NOW)
    assert [(s.job, s.start, s.end) for s in days.sittings] == [
        (1, at(0, 9), at(0, 16, 50)), (2, at(0, 16, 50), at(0, 17)), (2, at(1, 9), at(1, 10)),
    ]  # fmt: skip
