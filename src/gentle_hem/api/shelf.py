"""The shelf of cloths: put there, changed, taken off, and taken into a dress."""

from typing import Annotated

from fastapi import APIRouter, Body, HTTPException, Request
from pydantic import BaseModel, Field

from gentle_hem.api.kept import LARGEST_NUMBER, Asked, Reading, RecordId, Writing, found
from gentle_hem.core.cloth.bought import shop_length
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.hang.fabric import Fabric
from gentle_hem.core.names import Document, GivenName
from gentle_hem.core.units import Tape, Unit, format_length, plain
from gentle_hem.laying.falling import DoesNotRest
from gentle_hem.store.cloths import cloth_called, put_on_shelf, shelf
from gentle_hem.store.learnt import call_notes
from gentle_hem.store.models import ShelfCloth

cloths = APIRouter(prefix="/api", tags=["cloth"])


class ClothOut(BaseModel):
    """A cloth on the shelf: what it is like in words, and as a recipe takes it over."""

    id: int
    name: str
    colour: str | None
    said: list[str]
    fields: dict[str, str]
    """What its form begins with: lengths on the asker's tape."""
    cloth: Cloth


class ClothIn(BaseModel):
    """A cloth, with its lengths as they are typed; the name is what it is called on the shelf."""

    name: GivenName = Field(max_length=80)
    cloth: Document
    in_the_place_of: int | None = Field(None, ge=1, le=LARGEST_NUMBER, description="The cloth it was before.")


LENGTHS = ("width", "selvedge", "in_hand", "repeat_along", "repeat_across", "border")


def fields_of(cloth: Cloth, tape: Tape) -> dict[str, str]:
    """A cloth as a form shows it: nothing where nothing is said."""
    fields = {}
    for name in Cloth.model_fields:
        value = getattr(cloth, name)
        if value is None or name == "name":
            continue
        if name in LENGTHS:
            say = shop_length if name == "in_hand" else format_length
            fields[name] = say(value, tape)
        else:
            fields[name] = tape.number(plain(value, 2)) if isinstance(value, float) else str(value)
    return fields


def said_of(cloth: Cloth, tape: Tape) -> list[str]:
    """What is said of a cloth, a clause each: only what is known."""

    def long(length: float) -> str:
        return format_length(length, tape)

    clauses = []
    if cloth.width is not None:
        usable = cloth.width - 2 * cloth.selvedge
        clauses.append(
            f"{long(cloth.width)} wide" + (f", {long(usable)} between the selvedges" if cloth.selvedge else "")
        )
    if cloth.weight != "unsaid":
        clauses.append({"medium": "of medium weight"}.get(cloth.weight, str(cloth.weight)))
    if cloth.drape != "unsaid":
        clauses.append(str(cloth.drape))
    if cloth.across or cloth.along:
        clauses.append(f"stretches {plain(cloth.across, 1)} % across and {plain(cloth.along, 1)} % along")
    if cloth.nap == "one_way":
        clauses.append("laid one way")
    if cloth.repeat_along or cloth.repeat_across:
        ways = [(cloth.repeat_along, "along"), (cloth.repeat_across, "across")]
        clauses.append("repeats after " + " and ".join(f"{long(by)} {way}" for by, way in ways if by))
    if cloth.border:
        clauses.append(f"a border of {long(cloth.border)} along one selvedge")
    if cloth.shrinks:
        clauses.append(f"shrinks by {tape.number(plain(cloth.shrinks, 1))} %")
    if cloth.in_hand is not None:
        clauses.append(f"{shop_length(cloth.in_hand, tape)} in hand")
    if cloth.price is not None:
        clauses.append(f"{tape.number(f'{cloth.price:.2f}')} a metre")
    return clauses


def _out(row: ShelfCloth, tape: Tape) -> ClothOut:
    cloth = Cloth.model_validate(row.cloth)
    return ClothOut(
        id=row.id, name=row.name, colour=cloth.colour, said=said_of(cloth, tape),
        fields=fields_of(cloth, tape), cloth=cloth,
    )  # fmt: skip


@cloths.get("/cloths")
def list_cloths(session: Reading, asked: Asked) -> list[ClothOut]:
    """Every cloth on the shelf, by name."""
    return [_out(row, asked.tape()) for row in shelf(session)]


@cloths.put("/cloths")
def keep_cloth(body: ClothIn, session: Writing, asked: Asked) -> ClothOut:
    """A cloth put on the shelf under its name; what was there under it is replaced."""
    if body.in_the_place_of is not None:
        before = found(session.get(ShelfCloth, body.in_the_place_of), "cloth")
        if before.name != body.name and cloth_called(session, body.name) is None:
            call_notes(session, before.name, body.name)
            before.name = body.name
            session.flush()
    cloth = Cloth.model_validate({**body.cloth, "name": body.name}, context={"unit": asked.unit or Unit.CM})
    return _out(put_on_shelf(session, body.name, cloth.model_dump(mode="json")), asked.tape())


class FallOut(BaseModel):
    """How a cloth falls over a round support of 18 cm, cut as a round of 30 cm: said, and its lines (mm, y down)."""

    said: str
    support: float
    hangs: float
    above: list[tuple[float, float]]
    near: list[tuple[float, float]]
    far: list[tuple[float, float]]


@cloths.post("/cloths/falls")
def how_it_falls(body: Annotated[Document, Body()], request: Request, asked: Asked) -> FallOut:
    """How a cloth falls, by its weight, its drape and its stretch; a few seconds where none like it has been asked."""
    cloth, tape = Cloth.model_validate(body, context={"unit": asked.unit or Unit.CM}), asked.tape()
    try:
        fall = request.app.state.falling_room.fall(Fabric.of(cloth))
    except DoesNotRest as wrong:
        raise HTTPException(503, str(wrong)) from None
    share = tape.number(plain(100 * fall.coefficient, 0))
    folds = "1 fold" if fall.folds == 1 else f"{fall.folds} folds"
    return FallOut(
        said=f"Its drape is {share} % of the flat ring (limp cloth covers about 30 %, stiff cloth 80 %), in {folds}; "
        f"its bending length {format_length(fall.bending_length, tape)}.",
        support=fall.support, hangs=fall.hangs, above=fall.above, near=fall.near, far=fall.far,
    )  # fmt: skip


@cloths.delete("/cloths/{cloth_id}", status_code=204)
def take_off(cloth_id: RecordId, session: Writing) -> None:
    """A cloth taken off the shelf; dresses that were cut from it keep what it was like."""
    session.delete(found(session.get(ShelfCloth, cloth_id), "cloth"))
