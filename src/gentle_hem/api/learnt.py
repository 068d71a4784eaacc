"""What was learnt of a cloth at one dress, written down at the shelf and told at the next."""

from datetime import date
from typing import Any

from fastapi import APIRouter, HTTPException
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from gentle_hem.api.kept import LARGEST_NUMBER, Asked, Reading, RecordId, Writing, found
from gentle_hem.api.make import RecipeBody
from gentle_hem.core.cloth.lay import roles_of
from gentle_hem.core.cloth.learnt import Kind, Learnt, NotMeasured, advice, checked
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.make_up import make_up
from gentle_hem.core.names import Name
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape, Unit, format_length, parse_length, plain
from gentle_hem.store.learnt import learnt, notes_of
from gentle_hem.store.models import ClothNote, Commission, ShelfCloth

notes = APIRouter(prefix="/api", tags=["cloth"])

PLACES = {
    ClothRole.OUTER: "cloths.outer", ClothRole.CONTRAST: "cloths.contrast", ClothRole.LINING: "cloths.lining",
    ClothRole.INTERFACING: "cloths.interfacing",
}  # fmt: skip
"""Where a recipe says what a cloth is like."""


class ClothNoteIn(BaseModel):
    """Something learnt of a cloth; lengths as they are typed."""

    kind: Kind
    on_day: date
    before: str = Field("", max_length=60)
    after: str = Field("", max_length=60)
    text: Name = Field("", max_length=1000)
    commission: int | None = Field(None, ge=1, le=LARGEST_NUMBER, description="The dress it was learnt at.")


class ClothNoteOut(BaseModel):
    """Something learnt of a cloth, spoken."""

    id: int
    kind: Kind
    on_day: date
    said: str
    commission: int | None
    title: str


class AdviceOut(BaseModel):
    """What was learnt of a cloth, for this dress; with the change that takes it, where there is one."""

    cloth: str
    text: str
    changes: dict[str, Any]


def _out(row: ClothNote, session: Session, tape: Tape) -> ClothNoteOut:
    note = learnt([row])[0]
    dress = session.get(Commission, row.commission_id) if row.commission_id else None
    parts = []
    if note.before is not None and note.after is not None and note.share is not None:
        parts.append(
            f"{format_length(note.before, tape)} before, {format_length(note.after, tape)} after: "
            f"{tape.number(plain(note.share, 1))} %"
        )
    if note.text:
        parts.append(note.text)
    return ClothNoteOut(
        id=row.id, kind=note.kind, on_day=note.on_day, said="; ".join(parts), commission=row.commission_id,
        title=dress.title if dress else "",
    )  # fmt: skip


@notes.get("/cloths/{cloth_id}/notes")
def notes_of_cloth(cloth_id: RecordId, session: Reading, asked: Asked) -> list[ClothNoteOut]:
    """What was learnt of a cloth on the shelf, the newest first."""
    cloth = found(session.get(ShelfCloth, cloth_id), "cloth")
    return [_out(row, session, asked.tape()) for row in notes_of(session, cloth.name)]


@notes.post("/cloths/{cloth_id}/notes", status_code=201)
def learn(cloth_id: RecordId, body: ClothNoteIn, session: Writing, asked: Asked) -> ClothNoteOut:
    """Something learnt of a cloth, written down."""
    cloth = found(session.get(ShelfCloth, cloth_id), "cloth")
    if body.commission is not None:
        found(session.get(Commission, body.commission), "commission")
    unit = asked.unit or Unit.CM
    before, after = (parse_length(said, unit) if said.strip() else None for said in (body.before, body.after))
    try:
        checked(Learnt(body.kind, body.on_day, body.text, before, after))
    except NotMeasured as wrong:
        raise HTTPException(422, str(wrong)) from None
    row = ClothNote(
        cloth=cloth.name, on_day=body.on_day, kind=body.kind, before=before, after=after, text=body.text,
        commission_id=body.commission,
    )  # fmt: skip
    session.add(row)
    session.flush()
    return _out(row, session, asked.tape())


@notes.delete("/cloth-notes/{note_id}", status_code=204)
def unlearn(note_id: RecordId, session: Writing) -> None:
    """Something that is no longer held of a cloth."""
    session.delete(found(session.get(ClothNote, note_id), "note"))


@notes.post("/cloth-advice")
def advice_for(recipe: RecipeBody, session: Reading, asked: Asked) -> list[AdviceOut]:
    """What was learnt of the cloths a dress is cut from, for this dress."""
    read = Recipe.model_validate(recipe, context={"unit": asked.unit})
    garment, tape = make_up(read), asked.tape(read.unit)
    made = []
    for role in roles_of(garment):
        cloth = read.cloths.cloth(role)
        if not cloth.name or role not in PLACES:
            continue
        there = learnt(notes_of(session, cloth.name))
        made += [
            AdviceOut(cloth=cloth.name, text=one.text, changes=dict(one.changes))
            for one in advice(there, cloth, PLACES[role], read, garment, tape)
        ]
    return made
