"""Commissions: begun once, saved version by version, brought back, and written to files."""

from datetime import UTC, date, datetime
from typing import Annotated, Any

from fastapi import APIRouter, Depends, File, Form, HTTPException, Query, Response, UploadFile
from pydantic import BaseModel, Field
from sqlalchemy import select
from sqlalchemy.orm import Session

from gentle_hem.api.desk import CommissionOut, commission_out
from gentle_hem.api.kept import LARGEST_NUMBER, Asked, Reading, RecordId, Writing, attached, found, read_stored, stored
from gentle_hem.api.lays import laid_cloths
from gentle_hem.api.make import DifferenceOut, RefusalOut, TypedIn, differences_out, read_over, refusals_out
from gentle_hem.api.problems import Stale
from gentle_hem.api.sheets import sheet_size
from gentle_hem.core.families import BY_KEY, family_recipe
from gentle_hem.core.figure import Figure
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.fitting import begun_with
from gentle_hem.core.making.fitting_guide import TRIES
from gentle_hem.core.names import Document, GivenName, Name, a_name, file_name
from gentle_hem.core.recipe import Recipe, UnreadableRecipe, changed, not_cut, read_recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.start import new_recipe
from gentle_hem.core.units import Unit
from gentle_hem.formats.bundle import NotABundle, packed, unpacked
from gentle_hem.formats.files import FILE_WRITERS, Order
from gentle_hem.formats.paper import Joins, Lines, Paper, Printing, Scale
from gentle_hem.limits import LARGEST_UPLOAD
from gentle_hem.store.fittings import corrections_of
from gentle_hem.store.models import Commission, RecipeVersion, TaskList
from gentle_hem.store.slips import program, slip_of, write_slip
from gentle_hem.store.store import (
    append_version,
    hung_pictures,
    keep_slip,
    latest_measures,
    latest_version,
    person_called,
    version_numbered,
)

commissions = APIRouter(prefix="/api", tags=["commissions"])

VersionNumber = Annotated[int, Query(ge=1, le=LARGEST_NUMBER)]


class SavedOut(BaseModel):
    """A save that is on the disk."""

    version: int
    saved_at: datetime


class OpenCommission(CommissionOut):
    recipe: dict[str, Any]
    unreadable: str = ""
    """Why this program cannot read the recipe, where it cannot; it is kept as it is."""


class NewCommission(BaseModel):
    title: GivenName = Field(max_length=120)
    person: GivenName = Field(max_length=120, description="Whose it is; a new name is a new person.")
    occasion: Name = Field("", max_length=200)
    due_on: date | None = None
    unit: Unit = Unit.CM
    family: str = Field("", max_length=40, description="The family of dresses it is begun from, by its key.")
    bodice: str = Field("", max_length=40, description="How its bodice comes about, by its kind.")
    bodice_of: int | None = Field(None, ge=1, le=LARGEST_NUMBER, description="An earlier dress whose bodice it takes.")
    like: int | None = Field(None, ge=1, le=LARGEST_NUMBER, description="An earlier dress it is to be like.")
    begun_as: str | None = Field(
        None, max_length=64, pattern=r"^[A-Za-z0-9-]+$", description="Asked twice under one name, it is begun once."
    )


class SaidOf(BaseModel):
    """What is said of a dress; what is left out stays as it is."""

    title: GivenName | None = Field(None, max_length=120)
    person: GivenName | None = Field(None, max_length=120, description="Whose it is; a new name is a new person.")
    occasion: Name | None = Field(None, max_length=200)
    due_on: date | None = None
    put_away: bool | None = Field(None, description="Off the desk, and kept; false brings it back.")


class CopyIn(BaseModel):
    title: GivenName = Field(max_length=120)


class SaveIn(BaseModel):
    """A state to be kept, what has been typed over it, and the version it was worked out from."""

    recipe: Document
    typed: list[TypedIn] = Field([], max_length=200)
    from_version: int = Field(ge=0, le=LARGEST_NUMBER)


class KeptOut(SavedOut):
    """A save that is on the disk, and what was typed that could not be read and so is not in it."""

    recipe: dict[str, Any]
    refused: list[RefusalOut]


class VersionOut(SavedOut):
    """A kept state, and how it differs from the one before it."""

    name: str
    unreadable: str
    differences: list[DifferenceOut]


class VersionsOut(BaseModel):
    versions: list[VersionOut]
    total: int


def _saved(version: RecipeVersion) -> SavedOut:
    return SavedOut(version=version.number, saved_at=version.created_at)


def _open(row: Commission, version: RecipeVersion) -> OpenCommission:
    said = {**commission_out(row), "version": version.number, "saved_at": version.created_at}
    return OpenCommission(**said, recipe=version.recipe, unreadable=read_stored(version.recipe)[1])


@commissions.post("/commissions", status_code=201)
def add_commission(body: NewCommission, session: Writing) -> OpenCommission:
    """A new commission with the person's latest measures and a recipe to begin from."""
    if body.begun_as:
        begun = session.scalars(select(Commission).where(Commission.begun_as == body.begun_as)).first()
        if begun is not None:
            return _open(begun, found(latest_version(session, begun.id), "recipe"))
    person = person_called(session, body.person)
    row = Commission(
        person_id=person.id, title=body.title, occasion=body.occasion, due_on=body.due_on, begun_as=body.begun_as
    )
    session.add(row)
    session.flush()
    taken = latest_measures(session, person.id) or {}
    figure = Figure.model_validate({**taken, "name": person.name})
    recipe = _begun(body, figure, session)
    if body.like is None:
        block = [(TRIES[one.taken], one.amount) for one in corrections_of(session, person.id)]
        recipe = begun_with(recipe, block)
    version = append_version(session, row.id, recipe.model_dump(mode="json"))
    session.refresh(row)
    write_slip(session, row)
    return _open(row, version)


def _begun(body: NewCommission, figure: Figure, session: Session) -> Recipe:
    """The recipe a commission begins with: like an earlier one, of a family, or with nothing chosen yet."""
    if body.like is not None:
        earlier = _recipe_of(session, body.like)
        earlier = changed(earlier, not_cut(earlier))  # it is to be cut anew, and not as that one was
        return earlier.model_copy(update={"name": body.title, "figure": figure, "unit": body.unit})
    if not body.family:
        return new_recipe(body.title, figure, body.unit)
    family = found(BY_KEY.get(body.family), f"family called {body.family}")
    bodice: dict[str, Any] | None = {"kind": body.bodice} if body.bodice else None
    if body.bodice_of is not None:
        bodice = _recipe_of(session, body.bodice_of).bodice.model_dump(mode="json")
    return family_recipe(family, body.title, figure, body.unit, bodice)


def _recipe_of(session: Session, commission_id: int) -> Recipe:
    version = found(latest_version(session, commission_id), "dress to begin from")
    read, why = read_stored(version.recipe)
    if read is None:
        raise HTTPException(422, f"That dress cannot be begun from: {why}")
    return read


@commissions.get("/commissions/{commission_id}")
def open_commission(commission_id: RecordId, session: Reading) -> OpenCommission:
    """A commission and its newest recipe."""
    row = found(session.get(Commission, commission_id), "commission")
    return _open(row, found(latest_version(session, commission_id), "recipe"))


@commissions.patch("/commissions/{commission_id}")
def say_of(commission_id: RecordId, body: SaidOf, session: Writing) -> CommissionOut:
    """What is said of a dress, said anew: its name, whose it is, what for, by when, and whether it is put away. Its
    versions stay as they are.
    """
    row = found(session.get(Commission, commission_id), "commission")
    said = body.model_fields_set
    if body.title is not None:
        row.title = body.title
    if body.person is not None:
        row.person_id = person_called(session, body.person).id
    if body.occasion is not None:
        row.occasion = body.occasion
    if "due_on" in said:
        row.due_on = body.due_on
    if body.put_away is not None:
        row.put_away_at = datetime.now(UTC) if body.put_away else None
    session.flush()
    session.refresh(row)
    return CommissionOut(**commission_out(row))


@commissions.post("/commissions/{commission_id}/copies", status_code=201)
def copy(commission_id: RecordId, body: CopyIn, session: Writing) -> CommissionOut:
    """A dress of its own that is this one as it is now, for the same person and occasion. This one stays."""
    row = found(session.get(Commission, commission_id), "commission")
    version = found(latest_version(session, commission_id), "recipe")
    made = Commission(person_id=row.person_id, title=body.title, occasion=row.occasion, due_on=row.due_on)
    session.add(made)
    session.flush()
    append_version(session, made.id, {**version.recipe, "name": body.title})
    session.refresh(made)
    write_slip(session, made)
    return CommissionOut(**commission_out(made))


@commissions.post("/commissions/{commission_id}/versions", status_code=201)
def save_version(commission_id: RecordId, body: SaveIn, session: Writing, asked: Asked) -> KeptOut:
    """Keep this state of the recipe, with everything typed over it that can be read. Earlier states stay. Nothing is
    made up for it, so that what cannot be drawn is kept all the same.

    A save from an older version than the newest is refused with what has changed since, and nothing is kept of it here:
    whoever typed it decides.
    """
    over = read_over(body.recipe, body.typed)
    slip = slip_of(over.recipe.model_dump(mode="json"), over.recipe.name)  # before the records are taken hold of
    found(session.get(Commission, commission_id), "commission")
    newest = latest_version(session, commission_id)
    document = over.recipe.model_dump(mode="json")
    if newest is not None and newest.number != body.from_version and newest.recipe != document:
        raise _stale(newest, version_numbered(session, commission_id, body.from_version), asked)
    version = append_version(session, commission_id, document)
    keep_slip(session, commission_id, version.number, program(), slip)
    return KeptOut(
        version=version.number, saved_at=version.created_at, recipe=document, refused=refusals_out(over.refused)
    )


def _stale(newest: RecipeVersion, began: RecipeVersion | None, asked: Asked) -> Stale:
    theirs = read_stored(newest.recipe)[0]
    mine = read_stored(began.recipe)[0] if began else None
    changed = differences_out(mine, theirs, asked) if mine and theirs else []
    return Stale(
        f"Another window has saved version {newest.number} since this one was opened. Nothing is lost: both are kept "
        "until you choose.",
        {
            "version": newest.number, "saved_at": newest.created_at.isoformat(),
            "differences": [one.model_dump() for one in changed], "recipe": newest.recipe,
        },
    )  # fmt: skip


@commissions.get("/commissions/{commission_id}/versions")
def list_versions(
    commission_id: RecordId,
    session: Reading,
    asked: Asked,
    after: Annotated[int, Query(ge=0, le=LARGEST_NUMBER)] = 0,
    most: Annotated[int, Query(ge=1, le=200)] = 40,
) -> VersionsOut:
    """The states that were kept, newest first, each with what it changed."""
    row = found(session.get(Commission, commission_id), "commission")
    kept = list(
        session.scalars(
            select(RecipeVersion)
            .where(RecipeVersion.commission_id == commission_id)
            .order_by(RecipeVersion.number.desc())
            .offset(after)
            .limit(most + 1)
        )
    )
    read = [read_stored(version.recipe) for version in kept]
    made = []
    for k, version in enumerate(kept[:most]):
        here, why = read[k]
        before = read[k + 1][0] if k + 1 < len(kept) else None
        changed = differences_out(before, here, asked) if before and here else []
        made.append(
            VersionOut(
                version=version.number, saved_at=version.created_at, name=here.name if here else row.title,
                unreadable=why, differences=changed,
            )
        )  # fmt: skip
    return VersionsOut(versions=made, total=row.version)


@commissions.get("/commissions/{commission_id}/versions/{number}")
def one_version(commission_id: RecordId, number: RecordId, session: Reading) -> dict[str, Any]:
    """One kept state of the recipe."""
    found(session.get(Commission, commission_id), "commission")
    return found(version_numbered(session, commission_id, number), "version").recipe


CONTENT_TYPES = {
    "json": "application/json",
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "pdf": "application/pdf",
    "plt": "application/vnd.hp-hpgl",
    "csv": "text/csv; charset=utf-8",
    "zip": "application/zip",
}


def printing_asked(
    asked: Asked,
    paper: Paper = Paper.A4,
    scale: Scale = Scale.FULL,
    joins: Joins = Joins.OVERLAP,
    lines: Lines = Lines.BOTH,
    words: bool = True,
    opened: bool = False,
    piece: Annotated[list[str], Query(max_length=200, description="Which pieces; all where none is named.")] = [],  # noqa: B006
    sheet: Annotated[str, Query(max_length=60, description='A sheet of one\'s own: "70 x 100 cm".')] = "",
) -> Printing:
    """How a pattern is to be printed."""
    return Printing(paper, scale, joins, lines, words, opened, frozenset(piece), sheet_size(sheet, asked.unit))


SAYS_CLOTH = ("cut-sheet.pdf", "pattern.zip")
"""The files that say how much of each cloth is bought."""

PrintingAsked = Annotated[Printing, Depends(printing_asked)]


@commissions.get("/commissions/{commission_id}/files/{name}", response_class=Response)
def file(
    commission_id: RecordId, name: str, session: Reading, asked: Asked, printing: PrintingAsked,
    version: VersionNumber | None = None,
    beside: Annotated[
        int | None, Query(ge=1, le=LARGEST_NUMBER, description="Another version, printed beside it.")
    ] = None,
    with_person: Annotated[bool, Query(description="Of pattern.zip: whether she is named and measured in it.")] = True,
) -> Response:  # fmt: skip
    """One file of a version, the newest unless another is named; or pattern.zip with all of them."""
    row = found(session.get(Commission, commission_id), "commission")
    kept = version_numbered(session, commission_id, version) if version else latest_version(session, commission_id)
    kept = found(kept, "version")
    if name != "pattern.zip":
        found(FILE_WRITERS.get(name), f"file as {name}; there are {', '.join(FILE_WRITERS)}")
    if name == "recipe.json" and read_stored(kept.recipe)[0] is None:
        content = _as_it_is(kept.recipe)
    else:
        order = _order(row, kept, printing)
        if beside is not None and beside != kept.number:
            other = found(version_numbered(session, commission_id, beside), "version to be printed beside it")
            order = replace(order, beside=_order(row, other, printing))
        if name in SAYS_CLOTH:
            recipe, garment = order.recipe, order.garment
            laid = laid_cloths(commission_id, recipe, garment, session, asked.tape(recipe.unit))
            bought = {role: one.bought.text for role, one in laid.items()}
            order = replace(order, bought=bought, hung=hung_pictures(session, kept))
        if name == "pattern.zip":
            content = packed(order, _log_of(session, row), with_person=with_person)
        else:
            content = FILE_WRITERS[name](order)
    headers = {"Content-Disposition": attached(f"{file_name(row.title)} {name}"), "X-Recipe-Version": str(kept.number)}
    return Response(content, media_type=CONTENT_TYPES[name.rsplit(".", 1)[-1]], headers=headers)


def _order(row: Commission, kept: RecipeVersion, printing: Printing) -> Order:
    """A version made up to be written, the dress and its wearer as they are called now."""
    recipe = stored(kept)
    figure = recipe.figure.model_copy(update={"name": row.person.name})
    recipe = recipe.model_copy(update={"name": row.title, "figure": figure})
    return Order(recipe, make_up(recipe), printing, kept.number, kept.created_at.date())


def _log_of(session: Session, row: Commission) -> dict[str, Any]:
    """What is said of a dress, and when each of its versions was kept."""
    kept = session.execute(
        select(RecipeVersion.number, RecipeVersion.created_at)
        .where(RecipeVersion.commission_id == row.id)
        .order_by(RecipeVersion.number)
    )
    return {
        "title": row.title, "person": row.person.name, "occasion": row.occasion,
        "due_on": row.due_on and row.due_on.isoformat(),
        "versions": [{"version": number, "saved_at": at.isoformat()} for number, at in kept],
    }  # fmt: skip


@commissions.post("/commissions/brought-back", status_code=201)
def bring_back(
    file: Annotated[UploadFile, File()], session: Writing, asked: Asked, person: Annotated[str, Form()] = ""
) -> OpenCommission:
    """A dress from its recipe.json or pattern.zip, as a commission of its own. ``person``: whose it is, where the file
    does not say.
    """
    name = a_name((file.filename or "the file").encode(errors="replace").decode())[:120]
    try:
        document, log = unpacked(name, file.file.read(LARGEST_UPLOAD + 1))
        recipe = read_recipe(document)
    except NotABundle as wrong:
        raise HTTPException(422, str(wrong)) from None
    except UnreadableRecipe as wrong:
        raise HTTPException(422, f"The recipe in {name} cannot be read: {wrong}") from None
    whose = a_name(person or recipe.figure.name or str(log.get("person") or "")).strip()[:120]
    if not whose:
        raise HTTPException(422, f"{name} does not say whose dress it is; say for whom it is brought back.")
    title = a_name(str(log.get("title") or recipe.name or "Brought back"))[:120]
    row = Commission(
        person_id=person_called(session, whose).id, title=title, occasion=a_name(str(log.get("occasion") or ""))[:200]
    )
    session.add(row)
    session.flush()
    recipe = recipe.model_copy(update={"name": title, "figure": recipe.figure.model_copy(update={"name": whose})})
    version = append_version(session, row.id, recipe.model_dump(mode="json"))
    session.refresh(row)
    write_slip(session, row)
    return _open(row, version)


def _as_it_is(recipe: dict[str, Any]) -> bytes:
    """A recipe this program cannot read, exported as it was kept, so that it can be mended by hand."""
    import json

    return json.dumps(recipe, indent=2, ensure_ascii=False).encode("utf-8", errors="replace")


@commissions.get("/commissions/{commission_id}/client-page.pdf", response_class=Response)
def client_page(commission_id: RecordId, session: Reading, asked: Asked) -> Response:
    """What is agreed of a dress as it is saved, drawn and said for whoever will wear it."""
    from gentle_hem.formats.client_page import Agreed, to_client_page  # here: writing paper is slow to read in

    row = found(session.get(Commission, commission_id), "commission")
    recipe = stored(found(latest_version(session, commission_id), "version"))
    tape = asked.tape(recipe.unit)
    order = Order(recipe, make_up(recipe))
    tasks = session.scalar(select(TaskList).where(TaskList.commission_id == commission_id))
    agreed = Agreed(
        row.title, row.person.name, row.occasion, row.due_on, tasks.fitting_at if tasks else None, date.today()
    )
    content = to_client_page(recipe, order.garment, order.dress, agreed, tape)
    headers = {"Content-Disposition": attached(f"{file_name(row.title)} for {file_name(row.person.name)}.pdf")}
    return Response(content, media_type="application/pdf", headers=headers)


@commissions.get("/files")
def file_names() -> list[str]:
    """The files a commission can be written to."""
    return [*FILE_WRITERS, "pattern.zip"]
