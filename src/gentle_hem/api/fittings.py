"""Fittings: what was seen, what to try, what was taken, and what belongs in a person's block since."""

from base64 import b64decode
from datetime import date
from typing import Annotated, Any, Literal

from fastapi import APIRouter, File, HTTPException, Request, Response, UploadFile
from pydantic import BaseModel, Field

from gentle_hem.api.kept import LARGEST_NUMBER, Asked, Reading, RecordId, Writing, found, stored, window_of
from gentle_hem.api.make import RecipeBody
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.asked_again import Taken, asked_again
from gentle_hem.core.making.fitting import Tried, begun_with, still_to_take, tried
from gentle_hem.core.making.fitting_drawings import DRAWN
from gentle_hem.core.making.fitting_guide import BY_CODE, GUIDE, TRIES, Region, Seen, Try, fits
from gentle_hem.core.names import Document, Name, a_name
from gentle_hem.core.recipe import UNDRAWN, Recipe
from gentle_hem.core.steps.base import OneSide
from gentle_hem.core.units import Tape, Unit, format_length, parse_length
from gentle_hem.formats.apart import NotReadError, ReadingRoom
from gentle_hem.limits import LARGEST_PHOTO
from gentle_hem.store import Store
from gentle_hem.store.activity import WINDOW
from gentle_hem.store.fittings import begin_visit, corrections_of, proposed, visits_of
from gentle_hem.store.models import Commission, Correction, FittingNote, Person, Photograph, Visit
from gentle_hem.store.store import latest_figure, latest_version

fittings = APIRouter(prefix="/api", tags=["fittings"])

MOST = 150.0
"""More is not corrected by a step, but drafted anew (mm)."""


class SeenOut(BaseModel):
    """Something that may be seen, and what it is likely to come from."""

    code: str
    region: Region
    seen: str
    likely: str
    garment: str
    shows: str
    """A small drawing: the garment, and what is seen on it (SVG path data)."""


class NoteOut(BaseModel):
    """Something that was seen."""

    id: int
    seen: str
    text: str
    side: str
    piece: str
    edge: str
    amount: str
    taken: str
    """What was done about it; nothing where it was only noted."""
    taken_version: int | None


class VisitOut(BaseModel):
    id: int
    on_day: date
    wishes: str
    notes: list[NoteOut]
    photographs: list[int]
    """The numbers of the photographs taken at it."""


class ProposedOut(BaseModel):
    """A note that has come often enough to belong in the person's block."""

    seen: str
    text: str


class FittingsOut(BaseModel):
    """The fittings of a dress, what may be seen on it, and what is proposed for the person's block."""

    visits: list[VisitOut]
    guide: list[SeenOut]
    proposed: list[ProposedOut]
    in_block: list[ProposedOut]
    ask_again: list[str]
    """Measures of hers that what was fitted since they were taken disagrees with."""


class TriesIn(BaseModel):
    """A dress, what is seen on it, and how much; without an amount the usual one is tried."""

    recipe: Document
    seen: str = Field(max_length=40)
    side: OneSide = "both"
    amount: str = Field("", max_length=40, description="As the tape reads it; a bare number is in the dress's unit.")


class FollowsOut(BaseModel):
    seam: str
    text: str


class TryOut(BaseModel):
    """A correction tried on the dress: the change that does it, or why it cannot be done, and what follows."""

    code: str
    title: str
    amount: str
    mm: float
    changes: dict[str, Any] | None
    refused: str
    follows: list[FollowsOut]
    opens: list[str]
    """Seams that do not meet with it, to be closed at the ribbon."""


class VisitIn(BaseModel):
    on_day: date


class WishesIn(BaseModel):
    wishes: Name = Field(max_length=2000)


class NoteIn(BaseModel):
    """What was seen, where and how much; and the correction taken for it, if any."""

    seen: str = Field(max_length=40)
    side: Literal["both", "left", "right"] = "both"
    piece: Name = Field("", max_length=120)
    edge: Name = Field("", max_length=60)
    text: Name = Field("", max_length=1000)
    amount: Annotated[float, Field(gt=0, le=MOST)] | None = None
    taken: str = Field("", max_length=40)
    over_version: int | None = Field(None, ge=1, le=LARGEST_NUMBER)


def _seen(code: str) -> Seen:
    return found(BY_CODE.get(code), "note in the guide")


@fittings.get("/commissions/{commission_id}/fittings")
def fittings_of(commission_id: RecordId, session: Reading, asked: Asked) -> FittingsOut:
    """The fittings of a dress so far, and what may be seen at the next."""
    row = found(session.get(Commission, commission_id), "commission")
    recipe = stored(found(latest_version(session, commission_id), "version"))
    return _fittings(session, row, recipe, asked.tape(recipe.unit))


def _fittings(session: Reading, row: Commission, recipe: Recipe, tape: Tape) -> FittingsOut:
    return FittingsOut(
        visits=[
            visit_out(one, tape) for one in visits_of(session, row.id)
        ],
        guide=[
            SeenOut(code=one.code, region=one.region, seen=one.seen, likely=one.likely,
                    garment=DRAWN[one.code].garment, shows=DRAWN[one.code].seen)
            for one in GUIDE if fits(one, recipe)
        ],
        proposed=[
            ProposedOut(
                seen=one.seen,
                text=f"At {one.times} fittings of {row.person.name} {BY_CODE[one.seen].seen}. Put into her block: "
                f"{_done(TRIES[one.taken], one.amount, tape)}.",
            )
            for one in proposed(session, row.person_id)
        ],
        in_block=[in_block(one, tape) for one in corrections_of(session, row.person_id)],
        ask_again=_ask_again(session, row, recipe, tape),
    )  # fmt: skip


def _ask_again(session: Reading, row: Commission, recipe: Recipe, tape: Tape) -> list[str]:
    """What was corrected in this dress, against the measures it is drafted from; it is they that are asked about."""
    figure = latest_figure(session, row.person_id)
    taken_on = figure.taken_on if figure else row.created_at.date()
    corrections = [
        # what is taken on one side alone changes a girth by half of it
        Taken(visit.on_day, note.taken, note.amount if note.side == "both" else note.amount / 2)
        for visit in visits_of(session, row.id) for note in visit.notes if note.taken and note.amount
    ]  # fmt: skip
    return [one.text(tape) for one in asked_again(recipe.figure.measures, taken_on, corrections)]


def visit_out(visit: Visit, tape: Tape) -> VisitOut:
    """A fitting in words."""
    notes = [_note(note, tape) for note in visit.notes]
    return VisitOut(
        id=visit.id, on_day=visit.on_day, wishes=visit.wishes, notes=notes,
        photographs=[one.id for one in visit.photographs],
    )  # fmt: skip


def _note(note: FittingNote, tape: Tape) -> NoteOut:
    one = BY_CODE.get(note.seen)
    return NoteOut(
        id=note.id, seen=one.seen if one else note.seen, text=note.text, side=note.side, piece=note.piece,
        edge=note.edge, amount=format_length(note.amount, tape) if note.amount else "",
        taken=_done(TRIES[note.taken], note.amount, tape) if note.taken in TRIES else "",
        taken_version=note.taken_version,
    )  # fmt: skip


def _done(one: Try, amount: float | None, tape: Tape) -> str:
    title = one.title[:1].lower() + one.title[1:]
    return f"{title}, {format_length(amount, tape)} {one.amount_is}" if amount else title


def in_block(row: Correction, tape: Tape) -> ProposedOut:
    """What is in a person's block, in words."""
    return ProposedOut(seen=row.seen, text=_done(TRIES[row.taken], row.amount, tape))


@fittings.post("/fittings/tries")
def tries(body: TriesIn, asked: Asked) -> list[TryOut]:
    """Everything that may be tried about what is seen, done to the dress and looked at; nothing is kept."""
    recipe = Recipe.model_validate(body.recipe, context={"unit": asked.unit})
    garment, tape = make_up(recipe), asked.tape(recipe.unit)
    amount = _amount(body.amount, tape.unit)
    made = []
    for one in _seen(body.seen).tries:
        mm = amount or one.usual
        made.append(_try(one, mm, tried(recipe, garment, one, mm, tape, body.side), tape))
    return made


def _amount(text: str, unit: Unit) -> float | None:
    if not text.strip():
        return None
    try:
        amount = parse_length(text, unit)
    except ValueError as wrong:
        raise HTTPException(422, str(wrong)) from None
    if not 0 < amount <= MOST:
        raise HTTPException(
            422, f"A correction is more than nothing and at most {format_length(MOST, unit)}; more is drafted anew."
        )
    return amount


def _try(one: Try, mm: float, made: Tried, tape: Tape) -> TryOut:
    return TryOut(
        code=one.code, title=one.title, amount=f"{format_length(mm, tape)} {one.amount_is}", mm=mm,
        changes=dict(made.changes) if made.changes is not None else None, refused=made.refused,
        follows=[
            FollowsOut(
                seam=follow.seam,
                text=f"{follow.seam}: {format_length(follow.before, tape)}, then {format_length(follow.after, tape)}",
            )
            for follow in made.follows
        ],
        opens=list(made.open_seams),
    )  # fmt: skip


@fittings.post("/commissions/{commission_id}/fittings", status_code=201)
def begin(commission_id: RecordId, body: VisitIn, session: Writing, asked: Asked) -> FittingsOut:
    """A fitting on a day."""
    row = found(session.get(Commission, commission_id), "commission")
    begin_visit(session, commission_id, body.on_day)
    recipe = stored(found(latest_version(session, commission_id), "version"))
    return _fittings(session, row, recipe, asked.tape(recipe.unit))


@fittings.put("/fittings/{visit_id}/wishes", status_code=204)
def wishes(visit_id: RecordId, body: WishesIn, session: Writing) -> None:
    """What the client wishes, as it was said at a fitting."""
    found(session.get(Visit, visit_id), "fitting").wishes = body.wishes


@fittings.post("/fittings/{visit_id}/notes", status_code=201)
def note(visit_id: RecordId, body: NoteIn, session: Writing, asked: Asked) -> FittingsOut:
    """Something seen at a fitting, with the correction taken for it, if any."""
    visit = found(session.get(Visit, visit_id), "fitting")
    seen = _seen(body.seen)
    if body.taken and body.taken not in {one.code for one in seen.tries}:
        raise HTTPException(422, f"That is not among what is tried where {seen.seen}.")
    session.add(
        FittingNote(
            visit_id=visit.id,
            seen=body.seen,
            side=body.side,
            piece=body.piece,
            edge=body.edge,
            text=body.text,
            amount=body.amount,
            taken=body.taken,
            taken_version=body.over_version,
        )
    )
    session.flush()
    session.expire(visit)
    recipe = stored(found(latest_version(session, visit.commission_id), "version"))
    return _fittings(session, visit.commission, recipe, asked.tape(recipe.unit))


@fittings.post("/fittings/{visit_id}/photographs", status_code=201)
def keep_photograph(visit_id: RecordId, file: Annotated[UploadFile, File()], request: Request) -> int:
    """A photograph taken at a fitting, kept with the records; returns its number. It is read in a process of its own,
    and kept without what the camera wrote into it of place and time.
    """
    room: ReadingRoom = request.app.state.reading_room
    store: Store = request.app.state.store
    with store.session() as session:
        found(session.get(Visit, visit_id), "fitting")
    name = a_name((file.filename or "the photograph").encode(errors="replace").decode())[:120]
    try:
        picture = b64decode(room.read("picture", name, file.file.read(LARGEST_PHOTO + 1)))
    except NotReadError as wrong:
        raise HTTPException(422, str(wrong)) from None
    with store.writing() as session:
        session.info[WINDOW] = window_of(request)
        found(session.get(Visit, visit_id), "fitting")
        row = Photograph(visit_id=visit_id, picture=picture)
        session.add(row)
        session.flush()
        return row.id


@fittings.get("/photographs/{number}", response_class=Response)
def photograph(number: RecordId, session: Reading) -> Response:
    """A photograph taken at a fitting."""
    return Response(found(session.get(Photograph, number), "photograph").picture, media_type="image/jpeg")


@fittings.delete("/photographs/{number}", status_code=204)
def drop_photograph(number: RecordId, session: Writing) -> None:
    """A photograph given up."""
    session.delete(found(session.get(Photograph, number), "photograph"))


class IntoBlockIn(BaseModel):
    seen: str = Field(max_length=40)


@fittings.post("/people/{person_id}/block", status_code=204)
def into_block(person_id: RecordId, body: IntoBlockIn, session: Writing) -> None:
    """A note that came often enough put into the person's block: every new draft of hers begins with it."""
    found(session.get(Person, person_id), "person")
    one = next((one for one in proposed(session, person_id) if one.seen == body.seen), None)
    if one is None:
        raise HTTPException(409, "That has not been noted and corrected at three fittings, or is in her block already.")
    session.add(Correction(person_id=person_id, seen=one.seen, taken=one.taken, amount=one.amount))


@fittings.get("/people/{person_id}/block")
def block_of(person_id: RecordId, session: Reading, asked: Asked) -> list[ProposedOut]:
    """What is in a person's block."""
    found(session.get(Person, person_id), "person")
    return [in_block(one, asked.tape()) for one in corrections_of(session, person_id)]


@fittings.post("/people/{person_id}/block/into-dress")
def block_into_dress(person_id: RecordId, recipe: RecipeBody, session: Reading, asked: Asked) -> dict[str, Any]:
    """The change that puts what is in a person's block into a dress that was not begun with it; what cannot be done is
    said in its remarks. Refused where the dress has all of it, or no drafted bodice.
    """
    found(session.get(Person, person_id), "person")
    read = Recipe.model_validate(recipe, context={"unit": asked.unit})
    if isinstance(read.bodice, UNDRAWN):
        raise HTTPException(409, "What is in her block is done to a drafted bodice; choose a school first.")
    left = still_to_take(read, [(TRIES[one.taken], one.amount) for one in corrections_of(session, person_id)])
    if not left:
        raise HTTPException(409, "This dress has all of it already.")
    made = begun_with(read, left)
    return {"steps": [step.model_dump(mode="json") for step in made.steps], "remarks": made.remarks}


@fittings.delete("/people/{person_id}/block/{seen}", status_code=204)
def out_of_block(person_id: RecordId, seen: str, session: Writing) -> None:
    """A correction taken out of a person's block again; dresses begun with it keep it."""
    row = next((one for one in corrections_of(session, person_id) if one.seen == seen), None)
    session.delete(found(row, "correction in her block"))
