"""The making plan of a dress: worked down, ticked, timed, noted, and printed for the bench."""

from dataclasses import dataclass
from datetime import UTC, date, datetime
from typing import Annotated, Literal

from fastapi import APIRouter, HTTPException, Response
from pydantic import BaseModel, Field

from gentle_hem.api.kept import Asked, Reading, RecordId, Writing, found, stored
from gentle_hem.api.make import RecipeBody
from gentle_hem.core.findings import Severity
from gentle_hem.core.garment import Garment
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.hints import Tool, cautions_by_operation, cautions_for_the_wearer, hints_for
from gentle_hem.core.making.operation import Operation, School, Wait, Work
from gentle_hem.core.making.plan import Plan, at_her_pace, plan_of
from gentle_hem.core.names import Name
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.tongue import named
from gentle_hem.core.units import Tape
from gentle_hem.formats.paper import paper_for
from gentle_hem.store.making import bench_mark, bench_marks, choose_school, paces, school_of, stop_timer
from gentle_hem.store.models import BenchMark, Commission
from gentle_hem.store.store import latest_version

making = APIRouter(prefix="/api", tags=["making"])

LONGEST = 60 * 24 * 14
"""Nobody works longer than two weeks on one operation (minutes)."""


class WorkedEdge(BaseModel):
    """An edge an operation works on, by its piece."""

    piece: str
    edge: str


class NeedOut(BaseModel):
    """What must be done first, and why."""

    key: str
    title: str
    why: str
    done: bool


class HintOut(BaseModel):
    """A hint for the cloth in hand."""

    about: Tool
    text: str


class OperationOut(BaseModel):
    """One operation, and what the maker has said of it."""

    number: int
    key: str
    work: Work
    title: str
    says: list[str]
    needs: list[NeedOut]
    free: bool
    """Whether all that must come first is done, and it waits for nothing."""
    minutes: float
    """At her own pace."""
    time: str
    rest: str
    pieces: list[str]
    edges: list[WorkedEdge]
    hints: list[HintOut]
    cautions: list[str]
    may_wait_for: list[Wait]
    waits_for: Wait | None
    waits_until: date | None
    """The day what it waits for is expected; the calendar begins it no sooner."""
    done_at: datetime | None
    begun_at: datetime | None
    spent: float
    note: str


class PlanOut(BaseModel):
    """The making plan of a dress."""

    school: School
    asked: School
    """The school that is wished for; it cannot be kept where the lower part has no side seams."""
    operations: list[OperationOut]
    next: str | None
    """The key of what is done next."""
    time: str
    left: str
    done: int
    cautions: list[str]
    stops: int
    """How many stops say that the dress is not ready to be cut."""


class SchoolIn(BaseModel):
    school: School


class SaidOfOperation(BaseModel):
    """What is said of an operation; what is left out stays as it is."""

    operation: str = Field(max_length=200)
    done: bool | None = None
    timer: Literal["start", "stop"] | None = None
    minutes: Annotated[float, Field(ge=0, le=LONGEST)] | None = None
    note: Name | None = Field(None, max_length=1000)
    waits_for: Wait | Literal[""] | None = None
    waits_until: date | None = None


def spoken_time(minutes: float) -> str:
    """Minutes as they are said, to five: "1 h 25 min"."""
    whole = max(round(minutes / 5) * 5, 5 if minutes > 0 else 0)
    hours, rest = divmod(whole, 60)
    return " ".join(
        part for part in (f"{hours} h" if hours else "", f"{rest} min" if rest or not hours else "") if part
    )


def _rest(one: Operation) -> str:
    return f"{one.hours[0]:.0f} to {one.hours[1]:.0f} h" if one.hours[1] else ""


HINTED = {
    Tool.CUT: (Work.CUT,), Tool.MARK: (Work.MARK,), Tool.NEEDLE: (Work.DARTS, Work.SEAM),
    Tool.PRESS: (Work.DARTS, Work.SEAM, Work.PRESS),
}  # fmt: skip
"""Where a hint is given: at the first operation of such work."""


@dataclass(frozen=True, slots=True)
class _Order:
    """A dress with the order it is made in, and the school that was wished for."""

    recipe: Recipe
    garment: Garment
    plan: Plan
    asked: School


def _plan_out(order: _Order, marks: dict[str, BenchMark], pace: dict[Work, float], tape: Tape) -> PlanOut:
    garment, recipe, plan = order.garment, order.recipe, order.plan
    minutes, cautions = at_her_pace(plan, pace), cautions_by_operation(plan.operations)
    done = {key for key, row in marks.items() if row.done_at is not None}
    titles = {one.key: named(one.title) for one in plan.operations}
    hints = list(hints_for(recipe.cloths.outer))
    given: set[Tool] = set()
    made = []
    for number, one in enumerate(plan.operations, 1):
        row = marks.get(one.key)
        needs = [
            NeedOut(key=before.first, title=titles[before.first], why=before.why, done=before.first in done)
            for before in plan.reasons(one.key)
        ]
        own = [hint for hint in hints if one.work in HINTED[hint.tool] and hint.tool not in given]
        given.update(hint.tool for hint in own)
        waits = Wait(row.waits_for) if row and row.waits_for else None
        ready = all(before.first in done for before in plan.before if before.then == one.key)
        made.append(
            OperationOut(
                number=number, key=one.key, work=one.work, title=named(one.title),
                says=[said.text(tape) for said in one.says],
                needs=needs, free=ready and waits is None and one.key not in done, minutes=minutes[one.key],
                time=spoken_time(minutes[one.key]), rest=_rest(one), pieces=[what.name for what in one.pieces],
                edges=[WorkedEdge(piece=s.piece.name, edge=s.edge) for s in one.stretches],
                hints=[HintOut(about=hint.tool, text=hint.text) for hint in own],
                cautions=[str(caution) for caution in cautions.get(one.key, ())], may_wait_for=list(one.waits),
                waits_for=waits, waits_until=row.waits_until if row and waits else None,
                done_at=row.done_at if row else None, begun_at=row.begun_at if row else None,
                spent=row.minutes if row else 0.0, note=row.note if row else "",
            )
        )  # fmt: skip
    left = [one for one in made if one.done_at is None]
    return PlanOut(
        school=plan.school, asked=order.asked, operations=made, next=next((one.key for one in made if one.free), None),
        time=spoken_time(sum(minutes.values())), left=spoken_time(sum(one.minutes for one in left)),
        done=len(made) - len(left),
        cautions=[str(caution) for caution in cautions_for_the_wearer(garment, recipe, plan.operations)],
        stops=sum(finding.severity is Severity.STOP for finding in garment.findings),
    )  # fmt: skip


@making.post("/commissions/{commission_id}/plan")
def making_plan(commission_id: RecordId, recipe: RecipeBody, session: Reading, asked: Asked) -> PlanOut:
    """The making plan of a dress as it is on the bench, with what has been ticked, timed and noted."""
    found(session.get(Commission, commission_id), "commission")
    read = Recipe.model_validate(recipe, context={"unit": asked.unit})
    return _planned(commission_id, read, session, asked.tape(read.unit))


def _planned(commission_id: int, recipe: Recipe, session: Reading, tape: Tape) -> PlanOut:
    return _with_marks(commission_id, _order(commission_id, recipe, session), session, tape)


def _order(commission_id: int, recipe: Recipe, session: Reading) -> _Order:
    garment = make_up(recipe)
    asked = School(school_of(session, commission_id) or School.SIDES_FIRST)
    return _Order(recipe, garment, plan_of(garment, recipe, asked), asked)


def _with_marks(commission_id: int, order: _Order, session: Reading, tape: Tape) -> PlanOut:
    pace = {Work(work): pace for work, pace in paces(session).items()}
    return _plan_out(order, bench_marks(session, commission_id), pace, tape)


SCHOOLS = {School.SIDES_FIRST: "sides first", School.WAIST_FIRST: "sides last"}


@making.get("/commissions/{commission_id}/plan/bench-sheet.pdf", response_class=Response)
def bench_sheet(commission_id: RecordId, session: Reading, asked: Asked) -> Response:
    """The plan of a dress as it is saved, to be hung over the bench."""
    from gentle_hem.formats.bench_sheet import BenchLine, to_bench_sheet  # here: writing paper is slow to read in

    row = found(session.get(Commission, commission_id), "commission")
    recipe = stored(found(latest_version(session, commission_id), "version"))
    made = _planned(commission_id, recipe, session, asked.tape(recipe.unit))
    lines = [
        BenchLine(
            one.number, one.title, f"{one.time} · rest {one.rest}" if one.rest else one.time,
            [*one.says, *([one.note] if one.note else [])], one.cautions, one.done_at is not None,
        )
        for one in made.operations
    ]  # fmt: skip
    under = f"{row.person.name}; {SCHOOLS[made.school]}; about {made.time} of work, {made.left} left"
    paper = paper_for(asked.tape(recipe.unit))
    content = to_bench_sheet(row.title, under, lines, made.cautions, paper)
    return Response(
        content, media_type="application/pdf", headers={"Content-Disposition": 'attachment; filename="bench-sheet.pdf"'}
    )


@making.put("/commissions/{commission_id}/plan/school", status_code=204)
def sewn_in(commission_id: RecordId, body: SchoolIn, session: Writing) -> None:
    """The order a dress is sewn together in."""
    found(session.get(Commission, commission_id), "commission")
    choose_school(session, commission_id, body.school)


@making.put("/commissions/{commission_id}/plan/operation")
def say_of_operation(commission_id: RecordId, body: SaidOfOperation, session: Writing, asked: Asked) -> PlanOut:
    """An operation ticked, timed, noted or left waiting; the plan of the dress as it is saved."""
    found(session.get(Commission, commission_id), "commission")
    recipe = stored(found(latest_version(session, commission_id), "version"))
    order = _order(commission_id, recipe, session)
    one = next((one for one in order.plan.operations if one.key == body.operation), None)
    if one is None:
        raise HTTPException(409, "The dress as it is saved has no such operation any more; look at its plan again.")
    row, now = bench_mark(session, commission_id, one.key, one.work, one.minutes), datetime.now(UTC)
    if body.timer == "start" and row.begun_at is None:
        row.begun_at = now
    if body.timer == "stop" or body.done:
        stop_timer(row, now)
    if body.minutes is not None:
        row.minutes, row.begun_at = body.minutes, None
    if body.done is not None:
        row.done_at = (row.done_at or now) if body.done else None
    if body.note is not None:
        row.note = body.note
    if body.waits_for is not None:
        row.waits_for = body.waits_for
        row.waits_until = None
    if "waits_until" in body.model_fields_set:
        if body.waits_until is not None and not row.waits_for:
            raise HTTPException(422, "Say what it waits for; then by which day it is expected.")
        row.waits_until = body.waits_until
    session.flush()
    return _with_marks(commission_id, order, session, asked.tape(recipe.unit))
