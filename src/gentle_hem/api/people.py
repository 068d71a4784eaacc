"""People and their dated sets of measures."""

import io
import json
import zipfile
from collections.abc import Sequence
from datetime import UTC, date, datetime

from fastapi import APIRouter, HTTPException, Request, Response
from pydantic import BaseModel, Field

from gentle_hem.api.desk import DeskRow, PersonOut, desk_rows
from gentle_hem.api.fittings import ProposedOut, in_block
from gentle_hem.api.kept import Asked, Reading, RecordId, Writing, attached, found
from gentle_hem.core.figure import MEASURES, Figure
from gentle_hem.core.measuring import trail
from gentle_hem.core.names import Document, GivenName, KeptText, file_name
from gentle_hem.core.units import Tape, format_length
from gentle_hem.formats.figure_csv import to_csv
from gentle_hem.laying.room import LayingRoom
from gentle_hem.store import Store
from gentle_hem.store.fittings import corrections_of
from gentle_hem.store.models import FigureSet, Person
from gentle_hem.store.people import called, lays_of, make_one, whole
from gentle_hem.store.store import commissions_of, latest_version
from gentle_hem.store.store import people as everyone

SAME = 0.5
"""A measure that differs by less is the same (mm)."""

people = APIRouter(prefix="/api", tags=["people"])


class FigureIn(BaseModel):
    taken_on: date
    measures: Document


class FigureOut(BaseModel):
    id: int
    taken_on: date
    measures: dict[str, float]


class TrailPoint(BaseModel):
    """A measure on one day: how far along the time it is, and how far up from its least to its most (0 to 1)."""

    along: float
    up: float


class MeasureOverTime(BaseModel):
    """One measure in every set in turn, as the tape reads it; nothing where it was not taken."""

    label: str
    values: list[str]
    trail: list[TrailPoint]
    change: str
    """By how much it is more or less than when it was first taken; nothing where it is the same or taken once."""


class SaidOfPerson(BaseModel):
    """What is said of a person; what is left out stays as it is."""

    name: GivenName | None = Field(None, max_length=120)
    remarks: KeptText | None = Field(
        None, max_length=4000, description="What she likes, and what is to be known of her."
    )
    put_away: bool | None = Field(None, description="Off the books in use, and kept; false brings her back.")


class MergeIn(BaseModel):
    into: RecordId = Field(description="The entry that stays.")


class EraseIn(BaseModel):
    name: str = Field(max_length=200, description="Her name, typed again: what is erased does not come back.")


class ErasedOut(BaseModel):
    """She is erased; and where she still may be found."""

    still_in: list[str]
    """The kept copies that could not be gone through."""
    commissions: list[int]
    """Which dresses went with her, so that what a window holds of them can go too."""


class BlockOut(BaseModel):
    """A bodice of her own that a dress stands on: brought in, or its edges measured."""

    commission: int
    title: str
    kind: str


class PersonPage(PersonOut):
    """A person on the books: her measures over time, her blocks and her dresses."""

    remarks: str
    put_away: bool
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
def rows_of_people(session: Reading, put_away: bool = False) -> list[PersonRow]:
    """Everyone on the books, with how many dresses each has and when she was last measured; those who were put away are
    asked for by themselves.
    """
    return [
        PersonRow(
            id=person.id, name=person.name, dresses=len(person.commissions),
            measured_on=max((figure.taken_on for figure in person.figures), default=None),
        )
        for person in everyone(session, put_away=put_away)
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
        id=person.id, name=person.name, remarks=person.remarks, put_away=person.put_away_at is not None,
        taken_on=[figure.taken_on for figure in person.figures],
        measures=[
            _over_time(key, label, person.figures, unit)
            for key, label in MEASURES.items() if any(key in one for one in sets)
        ],
        blocks=blocks, in_block=[in_block(one, unit) for one in corrections_of(session, person_id)],
        dresses=desk_rows(session, rows),
    )  # fmt: skip


def _over_time(key: str, label: str, figures: Sequence[FigureSet], unit: Tape) -> MeasureOverTime:
    taken = [(one.taken_on, one.measures[key]) for one in figures if key in one.measures]
    grown = taken[-1][1] - taken[0][1]
    return MeasureOverTime(
        label=label, trail=[TrailPoint(along=along, up=up) for along, up in trail(taken)],
        values=[format_length(one.measures[key], unit) if key in one.measures else "" for one in figures],
        change=f"{'+' if grown > 0 else '−'}{format_length(abs(grown), unit)}" if abs(grown) > SAME else "",
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


@people.patch("/people/{person_id}", status_code=204)
def say_of_person(person_id: RecordId, body: SaidOfPerson, session: Writing) -> None:
    """What is said of a person, said anew: her name, what is to be known of her, and whether she is put away."""
    person = found(session.get(Person, person_id), "person")
    if body.name is not None and body.name != person.name:
        if called(session, body.name) is not None:
            raise HTTPException(409, f"{body.name} is on the books already. If both are one, make them one.")
        person.name = body.name
    if body.remarks is not None:
        person.remarks = body.remarks
    if body.put_away is not None:
        person.put_away_at = datetime.now(UTC) if body.put_away else None


@people.post("/people/{person_id}/merge", status_code=204)
def merge(person_id: RecordId, body: MergeIn, session: Writing) -> None:
    """Two entries of one person made one; her measures and dresses go to the entry that stays."""
    person = found(session.get(Person, person_id), "person")
    into = found(session.get(Person, body.into), "person to make one with")
    if person is into:
        raise HTTPException(422, "These are one already; name another entry.")
    make_one(session, person, into)


@people.get("/people/{person_id}/everything.zip", response_class=Response)
def everything(person_id: RecordId, session: Reading, asked: Asked) -> Response:
    """Everything that is kept of a person: each row of each table, her measures as tables, her dresses as recipes."""
    person = found(session.get(Person, person_id), "person")
    content = io.BytesIO()
    with zipfile.ZipFile(content, "w", zipfile.ZIP_DEFLATED) as archive:

        def write(name: str, document: object) -> None:
            archive.writestr(name, json.dumps(document, indent=2, ensure_ascii=False) + "\n")

        told = whole(session, person)
        for photograph in told.get("photograph", ()):
            name = f"photographs/{photograph['id']}.jpg"
            archive.writestr(name, photograph["picture"])
            photograph["picture"] = name
        for hung in told.get("hung_picture", ()):
            name = f"hung/{hung['recipe_version_id']} {hung['view']}.png"
            archive.writestr(name, hung["picture"])
            hung["picture"] = name
        write("everything.json", told)
        for figure in person.figures:
            read = Figure(measures=figure.measures)
            archive.writestr(f"measures/{figure.taken_on} {figure.id}.csv", to_csv(read, asked.tape().unit))
        for row in person.commissions:
            version = latest_version(session, row.id)
            if version is not None:
                write(f"dresses/{row.id} {file_name(row.title)}.recipe.json", version.recipe)
    headers = {"Content-Disposition": attached(f"{file_name(person.name)}.zip")}
    return Response(content.getvalue(), media_type="application/zip", headers=headers)


@people.post("/people/{person_id}/erase")
def erase(person_id: RecordId, body: EraseIn, request: Request) -> ErasedOut:
    """A person erased wholly: her measures, dresses, fittings and all, from the records and from every kept copy.

    It does not come back. Backups that were taken elsewhere are not reached.
    """
    store: Store = request.app.state.store
    room: LayingRoom = request.app.state.laying_room
    with store.session() as session:
        person = found(session.get(Person, person_id), "person")
        if body.name.strip() != person.name:
            raise HTTPException(422, f"That is not her name. Type {person.name} to erase her; nothing was erased.")
        commissions, lays = [row.id for row in person.commissions], lays_of(session, person_id)
    for number in lays:
        room.forget(number)
    left = store.erase(person_id)
    return ErasedOut(still_in=[file.name for file in left], commissions=commissions)
