"""The application: routes under /api, and the interface's files beside them."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Iterator
from contextlib import asynccontextmanager
from datetime import UTC, date, datetime
from pathlib import Path
from typing import Annotated, Any, TypeVar

from fastapi import APIRouter, Body, Depends, FastAPI, HTTPException, Request, Response
from fastapi.responses import FileResponse
from fastapi.staticfiles import StaticFiles
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from gentle_hem.api import problems
from gentle_hem.api.benches import benches
from gentle_hem.api.blocks import blocks
from gentle_hem.api.figures import figures
from gentle_hem.api.safety import OnlyFromHere
from gentle_hem.api.screen import compared, screen
from gentle_hem.api.shown import ComparedOut, ScreenOut
from gentle_hem.core.block.compare import compare_schools
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.start import bodice_choices, new_recipe
from gentle_hem.core.units import Unit, format_length, parse_length
from gentle_hem.devices.person import TAPE_PERSON
from gentle_hem.devices.tape import SimulatedTape
from gentle_hem.formats.files import FILE_WRITERS, Order, write_all
from gentle_hem.formats.paper import Paper
from gentle_hem.store import Store
from gentle_hem.store.models import Commission, FigureSet, Person, RecipeVersion
from gentle_hem.store.store import (
    append_version,
    commissions,
    latest_figure,
    latest_version,
    people,
)

T = TypeVar("T")

api = APIRouter(prefix="/api")


def get_session(request: Request) -> Iterator[Session]:
    """One unit of work a request: committed before the answer is sent."""
    store: Store = request.app.state.store
    with store.session() as session:
        yield session


Kept = Annotated[Session, Depends(get_session, scope="function")]
"""The store's session; its commit happens before the answer leaves, so what is acknowledged is kept."""


class PersonOut(BaseModel):
    id: int
    name: str


class SavedOut(BaseModel):
    """A save that is on the disk."""

    version: int
    saved_at: datetime


class CommissionOut(BaseModel):
    id: int
    title: str
    occasion: str
    due_on: date | None
    person: PersonOut
    version: int
    saved_at: datetime


class DeskRow(CommissionOut):
    """A commission on the desk, with what is unresolved about it."""

    summary: str
    unit: Unit
    stops: int
    warnings: int
    first_trouble: str


class OpenCommission(CommissionOut):
    recipe: dict[str, Any]


class NewCommission(BaseModel):
    title: str = Field(min_length=1, max_length=120)
    person: str = Field(min_length=1, max_length=120, description="Whose it is; a new name is a new person.")
    occasion: str = Field("", max_length=200)
    due_on: date | None = None
    unit: Unit = Unit.CM


class FigureIn(BaseModel):
    taken_on: date
    measures: dict[str, Any]


class FigureOut(BaseModel):
    id: int
    taken_on: date
    measures: dict[str, float]


def _found(thing: T | None, what: str) -> T:
    if thing is None:
        raise HTTPException(404, f"There is no such {what}.")
    return thing


def _saved(version: RecipeVersion) -> SavedOut:
    return SavedOut(version=version.number, saved_at=version.created_at)


def _commission(row: Commission, version: RecipeVersion) -> dict[str, Any]:
    return {
        "id": row.id,
        "title": row.title,
        "occasion": row.occasion,
        "due_on": row.due_on,
        "person": PersonOut(id=row.person.id, name=row.person.name),
        "version": version.number,
        "saved_at": version.created_at,
    }


@api.get("/health")
def health() -> dict[str, str]:
    """Whether the program answers."""
    return {"state": "ready", "at": datetime.now(UTC).isoformat()}


@api.get("/schema/recipe")
def recipe_schema() -> dict[str, Any]:
    """The recipe's JSON schema."""
    return Recipe.model_json_schema()


@api.post("/make-up", response_model=ScreenOut)
def make_up_recipe(recipe: Annotated[dict[str, Any], Body()], unit: Unit | None = None) -> Response:
    """What a recipe makes, without saving it. Lengths may be text; a bare number in text is in ``unit``."""
    read = Recipe.model_validate(recipe, context={"unit": unit})
    made = screen(read, make_up(read), unit or read.unit)
    return Response(made.model_dump_json(), media_type="application/json")  # not validated a second time


@api.post("/compare/{kind}")
def compare(kind: str, recipe: Annotated[dict[str, Any], Body()], unit: Unit | None = None) -> ComparedOut:
    """This recipe's bodice over the one another school drafts for the same figure."""
    read = Recipe.model_validate(recipe, context={"unit": unit})
    other = _found(dict(bodice_choices(read, make_up(read))).get(kind), f"bodice as {kind}")
    try:
        return compared(compare_schools(read, other), unit or read.unit)
    except ValueError as wrong:
        raise HTTPException(422, str(wrong)) from None


class LengthOut(BaseModel):
    mm: float
    text: str


@api.get("/length")
def read_length(text: str, unit: Unit = Unit.CM) -> LengthOut:
    """A length as it was typed, read."""
    length = parse_length(text, unit)
    return LengthOut(mm=length, text=format_length(length, unit))


@api.get("/desk")
def desk(session: Kept) -> list[DeskRow]:
    """Every commission, the most recently worked on first, with what is unresolved."""
    rows = []
    for row in commissions(session):
        version = latest_version(session, row.id)
        if version is None:
            continue
        recipe = Recipe.model_validate(version.recipe)
        findings = make_up(recipe).findings
        troubles = [f for f in findings if f.severity is not Severity.NOTE]
        rows.append(
            DeskRow(
                **_commission(row, version),
                summary=f"{recipe.bodice.title}, {recipe.lower.title.lower()}",
                unit=recipe.unit,
                stops=sum(f.severity is Severity.STOP for f in troubles),
                warnings=sum(f.severity is Severity.WARN for f in troubles),
                first_trouble=troubles[0].text(recipe.unit) if troubles else "",
            )
        )
    return rows


@api.get("/people")
def list_people(session: Kept) -> list[PersonOut]:
    return [PersonOut(id=person.id, name=person.name) for person in people(session)]


@api.get("/people/{person_id}/figures")
def list_figures(person_id: int, session: Kept) -> list[FigureOut]:
    """A person's sets of measures, oldest first."""
    person = _found(session.get(Person, person_id), "person")
    return [FigureOut(id=f.id, taken_on=f.taken_on, measures=f.measures) for f in person.figures]


@api.post("/people/{person_id}/figures", status_code=201)
def add_figure(person_id: int, body: FigureIn, session: Kept, unit: Unit | None = None) -> FigureOut:
    """A new dated set of measures; earlier sets stay as they are."""
    person = _found(session.get(Person, person_id), "person")
    figure = Figure.model_validate({"measures": body.measures}, context={"unit": unit})
    row = FigureSet(person_id=person.id, taken_on=body.taken_on, measures=dict(figure.measures))
    session.add(row)
    session.flush()
    return FigureOut(id=row.id, taken_on=row.taken_on, measures=row.measures)


@api.post("/commissions", status_code=201)
def add_commission(body: NewCommission, session: Kept) -> OpenCommission:
    """A new commission with a recipe to begin from."""
    person = next((p for p in people(session) if p.name == body.person), None)
    if person is None:
        person = Person(name=body.person, remarks="")
        session.add(person)
        session.flush()
    row = Commission(person_id=person.id, title=body.title, occasion=body.occasion, due_on=body.due_on)
    session.add(row)
    session.flush()
    taken = latest_figure(session, person.id)
    figure = Figure.model_validate(
        {"name": person.name, "taken_on": str(taken.taken_on), "measures": taken.measures}
        if taken
        else {"name": person.name}
    )
    recipe = new_recipe(body.title, figure, body.unit).model_dump(mode="json")
    version = append_version(session, row.id, recipe)
    session.refresh(row)
    return OpenCommission(**_commission(row, version), recipe=recipe)


@api.get("/commissions/{commission_id}")
def open_commission(commission_id: int, session: Kept) -> OpenCommission:
    """A commission and its newest recipe."""
    row = _found(session.get(Commission, commission_id), "commission")
    version = _found(latest_version(session, commission_id), "recipe")
    return OpenCommission(**_commission(row, version), recipe=version.recipe)


@api.post("/commissions/{commission_id}/versions", status_code=201)
def save_version(commission_id: int, recipe: Annotated[dict[str, Any], Body()], session: Kept) -> SavedOut:
    """Keep this state of the recipe. Earlier states stay."""
    _found(session.get(Commission, commission_id), "commission")
    read = Recipe.model_validate(recipe)
    return _saved(append_version(session, commission_id, read.model_dump(mode="json")))


@api.get("/commissions/{commission_id}/versions")
def list_versions(commission_id: int, session: Kept) -> list[SavedOut]:
    """Every state that was kept, oldest first."""
    row = _found(session.get(Commission, commission_id), "commission")
    return [_saved(version) for version in row.versions]


@api.get("/commissions/{commission_id}/versions/{number}")
def one_version(commission_id: int, number: int, session: Kept) -> dict[str, Any]:
    """One kept state of the recipe."""
    row = _found(session.get(Commission, commission_id), "commission")
    return _found(next((v for v in row.versions if v.number == number), None), "version").recipe


CONTENT_TYPES = {
    "json": "application/json",
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "pdf": "application/pdf",
    "csv": "text/csv; charset=utf-8",
    "zip": "application/zip",
}


@api.get("/commissions/{commission_id}/files/{name}", response_class=Response)
def file(commission_id: int, name: str, session: Kept, paper: Paper = Paper.A4) -> Response:
    """One file of the newest version: a pattern, a drawing, a list; or pattern.zip with all of them."""
    version = _found(latest_version(session, commission_id), "commission")
    recipe = Recipe.model_validate(version.recipe)
    if name == "pattern.zip":
        packed = io.BytesIO()
        with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
            for part, content in write_all(recipe, ["json", "svg", "dxf", "pdf", "csv"], paper).items():
                archive.writestr(part, content)
        content = packed.getvalue()
    else:
        writer = _found(FILE_WRITERS.get(name), f"file as {name}; there are {', '.join(FILE_WRITERS)}")
        content = writer(Order(recipe, make_up(recipe), paper))
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(content, media_type=CONTENT_TYPES[name.rsplit(".", 1)[-1]], headers=headers)


@api.get("/files")
def file_names() -> list[str]:
    """The files a commission can be written to."""
    return [*FILE_WRITERS, "pattern.zip"]


def create_app(store: Store, interface: Path | None = None) -> FastAPI:
    """The application over a store; ``interface`` is the folder of the built web part."""

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> Any:
        yield
        store.close()

    app = FastAPI(title="Gentle Hem", version="0.1.0", lifespan=lifespan, docs_url=None, redoc_url=None)
    app.state.store = store
    problems.install(app)
    app.add_middleware(OnlyFromHere)
    app.state.tape = SimulatedTape(TAPE_PERSON)
    for router in (api, benches, figures, blocks):
        app.include_router(router)

    @app.api_route("/api/{path:path}", methods=["GET", "POST", "PUT", "DELETE"], include_in_schema=False)
    def no_such_route(path: str) -> None:
        raise HTTPException(404, f"There is nothing at /api/{path}.")

    if interface is not None:
        app.mount("/assets", StaticFiles(directory=interface / "assets"), name="assets")

        @app.get("/{path:path}", include_in_schema=False)
        def page(path: str) -> FileResponse:
            return FileResponse(interface / "index.html", headers={"Cache-Control": "no-cache"})

    return app
