"""People and their dated sets of measures."""

from __future__ import annotations

from datetime import date

from fastapi import APIRouter
from pydantic import BaseModel

from gentle_hem.api.desk import DeskRow, PersonOut, desk_row
from gentle_hem.api.fittings import ProposedOut, in_block
from gentle_hem.api.kept import Asked, Reading, RecordId, Writing, found
from gentle_hem.core.figure import MEASURES, Figure
from gentle_hem.core.names import Document
from gentle_hem.core.units import format_length
from gentle_hem.store.fittings import corrections_of
from gentle_hem.store.models import FigureSet, Person
from gentle_hem.store.store import commissions_of, latest_version
from gentle_hem.store.store import people as everyone

people = APIRouter(prefix="/api", tags=["people"])


class FigureIn(BaseModel):
    taken_on: date
    measures: Document


class FigureOut(BaseModel):
    id: int
    taken_on: date
    measures: dict[str, float]


class MeasureOverTime(BaseModel):
    """One measure in every set in turn, as the tape reads it; nothing where it was not taken."""

    label: str
    values: list[str]


class BlockOut(BaseModel):
    """A bodice of her own that a dress stands on: brought in, or its edges measured."""

    commission: int
    title: str
    kind: str


class PersonPage(PersonOut):
    """A person on the books: her measures over time, her blocks and her dresses."""

    taken_on: list[date]
    measures: list[MeasureOverTime]
    blocks: list[BlockOut]
    in_block: list[ProposedOut]
    """What every new draft of hers begins with, since it was noted of her often enough."""
    dresses: list[DeskRow]


class PersonRow(PersonOut):
    dresses: int
    measured_on: date | None


OWN_BLOCKS = {"own": "a block brought in", "measured": "measured edges"}


@people.get("/people/rows")
def rows_of_people(session: Reading) -> list[PersonRow]:
    """Everyone on the books, with how many dresses each has and when she was last measured."""
    return [
        PersonRow(
            id=person.id, name=person.name, dresses=len(person.commissions),
            measured_on=max((figure.taken_on for figure in person.figures), default=None),
        )
        for person in everyone(session)
    ]  # fmt: skip


@people.get("/people/{person_id}")
def one_person(person_id: RecordId, session: Reading, asked: Asked) -> PersonPage:
    """A person's measures over time, her blocks and her dresses, the newest first."""
    person = found(session.get(Person, person_id), "person")
    unit = asked.tape()
    sets = [figure.measures for figure in person.figures]
    rows = commissions_of(session, person_id)
    blocks = []
    for row in rows:
        version = latest_version(session, row.id)
        kind = str(((version.recipe.get("bodice") or {}) if version else {}).get("kind", ""))
        if kind in OWN_BLOCKS:
            blocks.append(BlockOut(commission=row.id, title=row.title, kind=OWN_BLOCKS[kind]))
    return PersonPage(
        id=person.id, name=person.name, taken_on=[figure.taken_on for figure in person.figures],
        measures=[
            MeasureOverTime(label=label, values=[format_length(one[key], unit) if key in one else "" for one in sets])
            for key, label in MEASURES.items() if any(key in one for one in sets)
        ],
        blocks=blocks, in_block=[in_block(one, unit) for one in corrections_of(session, person_id)],
        dresses=[desk_row(row) for row in rows],
    )  # fmt: skip


@people.get("/people")
def list_people(session: Reading) -> list[PersonOut]:
    return [PersonOut(id=person.id, name=person.name) for person in everyone(session)]


@people.get("/people/{person_id}/figures")
def list_figures(person_id: RecordId, session: Reading) -> list[FigureOut]:
    """A person's sets of measures, oldest first."""
    person = found(session.get(Person, person_id), "person")
    return [FigureOut(id=f.id, taken_on=f.taken_on, measures=f.measures) for f in person.figures]


@people.post("/people/{person_id}/figures", status_code=201)
def add_figure(person_id: RecordId, body: FigureIn, session: Writing, asked: Asked) -> FigureOut:
    """A new dated set of measures; earlier sets stay as they are."""
    person = found(session.get(Person, person_id), "person")
    figure = Figure.model_validate({"measures": body.measures}, context={"unit": asked.unit})
    row = FigureSet(person_id=person.id, taken_on=body.taken_on, measures=dict(figure.measures))
    session.add(row)
    session.flush()
    return FigureOut(id=row.id, taken_on=row.taken_on, measures=row.measures)
