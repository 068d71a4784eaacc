"""People and their dated sets of measures."""

from __future__ import annotations

from datetime import date

from fastapi import APIRouter
from pydantic import BaseModel

from gentle_hem.api.desk import PersonOut
from gentle_hem.api.kept import Asked, Reading, RecordId, Writing, found
from gentle_hem.core.figure import Figure
from gentle_hem.core.names import Document
from gentle_hem.store.models import FigureSet, Person
from gentle_hem.store.store import people as everyone

people = APIRouter(prefix="/api", tags=["people"])


class FigureIn(BaseModel):
    taken_on: date
    measures: Document


class FigureOut(BaseModel):
    id: int
    taken_on: date
    measures: dict[str, float]


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
