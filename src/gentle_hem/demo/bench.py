"""How far the studio's dresses are: what is done of their plans, how long it took, what was seen at fittings."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from gentle_hem.core.cloth.learnt import Kind
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.days import lay_out
from gentle_hem.core.making.fitting import tried
from gentle_hem.core.making.fitting_guide import TRIES
from gentle_hem.core.making.operation import School
from gentle_hem.core.recipe import changed, read_recipe
from gentle_hem.core.units import Unit, parse_length
from gentle_hem.demo.cloths import CUT_FROM, LEARNT
from gentle_hem.store.costs import keep_costing
from gentle_hem.store.days import agree_fitting, hours_of, jobs, keep_found, task_list, workroom
from gentle_hem.store.fittings import begin_visit
from gentle_hem.store.making import bench_mark, choose_school
from gentle_hem.store.models import ClothNote, Commission, FittingNote
from gentle_hem.store.slips import write_slip
from gentle_hem.store.store import append_version, latest_version


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


@dataclass(frozen=True)
class Noted:
    """Something seen at a fitting, and the correction taken for it, by how much (mm)."""

    seen: str
    text: str
    taken: str = ""
    amount: float | None = None
    side: str = "both"
    piece: str = ""
    edge: str = ""


FITTED = "Harbour master's suit dress"
VISITS = (
    (21, "Sleeveless, and high at the neck; she sings in it.", (
        Noted("neck_stands_off", "stands a finger off when she breathes in", "neck_wedge", 6.0, piece="bodice front",
              edge="neckline"),
        Noted("armhole_tight", "creases when she lifts the lamp", "lower_armhole", 8.0, "right", "bodice front",
              "armhole"),
    )),
    (12, "The hem to the top of the boot.", (
        Noted("neck_stands_off", "better, still a little", "neck_wedge", 4.0, piece="bodice front", edge="neckline"),
        Noted("tip_stands_out", "the right tip points", "narrow_shoulder", 5.0, "right"),
    )),
    (4, "", (
        Noted("neck_stands_off", "with the collar pin only", "neck_wedge", 3.0, piece="bodice front", edge="neckline"),
        Noted("hem_low", "with her boots on", "shorten_lower", 15.0),
    )),
)  # fmt: skip
"""Three visits of the one fitted most, by days before today: what was seen, and what was taken."""


def fit(session: Session, today: date) -> None:
    """Log the visits, each correction a version of its own."""
    row = session.scalars(select(Commission).where(Commission.title == FITTED)).one()
    for ago, wishes, notes in VISITS:
        visit = begin_visit(session, row.id, today - timedelta(days=ago))
        visit.wishes = wishes
        for one in notes:
            version = latest_version(session, row.id)
            assert version is not None
            recipe = read_recipe(version.recipe)
            made = tried(recipe, make_up(recipe), TRIES[one.taken], one.amount or 0.0, recipe.unit)
            assert made.changes is not None, made.refused
            session.add(
                FittingNote(
                    visit_id=visit.id, seen=one.seen, side=one.side, piece=one.piece, edge=one.edge, text=one.text,
                    amount=one.amount, taken=one.taken, taken_version=version.number,
                )
            )  # fmt: skip
            append_version(session, row.id, changed(recipe, dict(made.changes)).model_dump(mode="json"))
    session.refresh(row)
    write_slip(session, row)


COSTED: dict[str, dict[str, Any]] = {
    "Harbour master's suit dress": {
        "rate": 24.0, "prices": {"zip": 4.6, "hook and eye": 0.4}, "hours": None, "adds": 8.0,
        "extras": [{"what": "Dry cleaning before the last fitting", "amount": 14.0}],
    },
    "Lighthouse keeper's jumpsuit": {
        "rate": 24.0, "prices": {"zip": 5.2, "hook and eye": 0.4, "buttons": 1.1}, "hours": None, "extras": [],
        "adds": 8.0,
    },
}  # fmt: skip
"""What two of them cost, as far as it is said."""


def keep_books(session: Session, today: date) -> None:
    """What was learnt of cloths, and what dresses cost."""
    rows = {row.title: row for row in session.scalars(select(Commission))}
    for title, said in COSTED.items():
        keep_costing(session, rows[title].id, said)
    cut_from = {cloth: rows[title].id for title, cloth in reversed(CUT_FROM.items())}
    for cloth, kind, ago, before, after, text in LEARNT:
        lengths = [parse_length(one, Unit.CM) if one else None for one in (before, after)]
        session.add(
            ClothNote(
                cloth=cloth, kind=Kind(kind), on_day=today - timedelta(days=ago), before=lengths[0], after=lengths[1],
                text=text, commission_id=cut_from.get(cloth),
            )
        )  # fmt: skip
    session.flush()
