"""Sheets to be filled in away from a screen: for measuring somebody, and for a fitting."""

from fastapi import APIRouter, Response
from sqlalchemy import select
from sqlalchemy.orm import Session

from gentle_hem.api.beginning import ASKED
from gentle_hem.api.fittings import visit_out
from gentle_hem.api.kept import Asked, Reading, RecordId, attached, found, read_stored, stored
from gentle_hem.core.figure import MEASURES
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.days_said import said_moment
from gentle_hem.core.making.operation import School, Work
from gentle_hem.core.making.plan import plan_of
from gentle_hem.core.names import file_name
from gentle_hem.core.units import Unit
from gentle_hem.formats.paper import paper_for
from gentle_hem.store.fittings import visits_of
from gentle_hem.store.making import bench_marks, school_of
from gentle_hem.store.models import Commission, Person, TaskList
from gentle_hem.store.store import commissions_of, latest_version

by_hand = APIRouter(prefix="/api", tags=["by hand"])

SAID_FIRST = 12
"""More than so many operations before a fitting are not written on its sheet one by one."""


def _pdf(content: bytes, name: str) -> Response:
    return Response(content, media_type="application/pdf", headers={"Content-Disposition": attached(name)})


@by_hand.get("/measuring-sheet.pdf", response_class=Response)
def blank_measuring_sheet(asked: Asked) -> Response:
    """Every measure, how it is taken, and room to write it twice."""
    from gentle_hem.formats.by_hand import to_measuring_sheet  # here: writing paper is slow to read in

    unit = asked.tape().unit
    return _pdf(to_measuring_sheet("", [], _said(unit), paper_for(unit)), "measuring sheet.pdf")


@by_hand.get("/people/{person_id}/measuring-sheet.pdf", response_class=Response)
def measuring_sheet(person_id: RecordId, session: Reading, asked: Asked) -> Response:
    """The measuring sheet of a person: what her dresses still ask for is marked."""
    from gentle_hem.formats.by_hand import to_measuring_sheet

    person = found(session.get(Person, person_id), "person")
    unit = asked.tape().unit
    content = to_measuring_sheet(person.name, _still_asked(session, person_id), _said(unit), paper_for(unit))
    return _pdf(content, f"{file_name(person.name)} measuring sheet.pdf")


def _said(unit: Unit) -> str:
    return "inches" if unit is Unit.INCH else "centimetres"


def _still_asked(session: Session, person_id: int) -> list[str]:
    """The measures that her dresses estimate or wait for."""
    asked: set[str] = set()
    for row in commissions_of(session, person_id):
        version = latest_version(session, row.id)
        recipe = read_stored(version.recipe)[0] if version else None
        if recipe is None or row.put_away_at is not None:
            continue
        asked |= {
            place.recipe.removeprefix("figure.measures.")
            for finding in make_up(recipe).findings if finding.code in ASKED
            for place in finding.at if place.recipe
        }  # fmt: skip
    return [key for key in MEASURES if key in asked]


@by_hand.get("/commissions/{commission_id}/appointment.pdf", response_class=Response)
def appointment_sheet(commission_id: RecordId, session: Reading, asked: Asked) -> Response:
    """What is looked at at the next fitting of a dress, what was seen before, and what must be sewn until then."""
    from gentle_hem.formats.by_hand import Appointment, to_appointment_sheet

    row = found(session.get(Commission, commission_id), "commission")
    recipe = stored(found(latest_version(session, commission_id), "version"))
    tape = asked.tape(recipe.unit)
    tasks = session.scalars(select(TaskList).where(TaskList.commission_id == commission_id)).first()
    at = tasks.fitting_at if tasks else None
    before = [
        f"{one.seen}{f', {one.amount}' if one.amount else ''}{f': {one.text}' if one.text else ''}"
        f"{f' → {one.taken}' if one.taken else ''}"
        for visit in visits_of(session, commission_id) for one in visit_out(visit, tape).notes
    ]  # fmt: skip
    plan = plan_of(make_up(recipe), recipe, School(school_of(session, commission_id) or School.SIDES_FIRST))
    done = {key for key, mark in bench_marks(session, commission_id).items() if mark.done_at is not None}
    fitting = next((k for k, one in enumerate(plan.operations) if one.work is Work.FIT), 0)
    to_do = [one.title for one in plan.operations[:fitting] if one.key not in done]
    if len(to_do) > SAID_FIRST:
        to_do = [*to_do[:SAID_FIRST], f"and {len(to_do) - SAID_FIRST} more; see the bench sheet"]
    made = Appointment(
        row.title, row.person.name, said_moment(at) if at else "on a day to be agreed", row.due_on, before, to_do
    )
    return _pdf(to_appointment_sheet(made, paper_for(tape.unit)), f"{file_name(row.title)} fitting.pdf")
