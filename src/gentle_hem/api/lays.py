"""How much cloth a dress takes, how its pieces lie on it, and the search for a shorter lay."""

import json
import logging
from collections.abc import Iterator
from typing import TYPE_CHECKING, Annotated, Any, Literal

from fastapi import APIRouter, Request, Response
from fastapi.responses import StreamingResponse
from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from gentle_hem.api.desk import SmallDrawing
from gentle_hem.api.kept import Asked, Asker, Reading, RecordId, Writing, found, stored
from gentle_hem.core.cloth.asked import LayAsked, SpotKept, laid_again, spots_of
from gentle_hem.core.cloth.bought import LaidCloth, bought
from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.lay import Lay, Layers, Placed, lay, roles_of
from gentle_hem.core.cloth.left_over import Facings, facings_in
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cloth.things import JOINED, Cornered
from gentle_hem.core.cloth.ways_out import WayOut, can_be_made, ways_out
from gentle_hem.core.garment import Garment
from gentle_hem.core.make_up import make_up
from gentle_hem.core.names import Document
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape, format_length
from gentle_hem.laying.room import LayingRoom
from gentle_hem.store import Store
from gentle_hem.store.cloths import SEARCHING, keep_lay, lay_of
from gentle_hem.store.models import Commission, KeptLay
from gentle_hem.store.store import latest_version

if TYPE_CHECKING:
    from shapely import Polygon

log = logging.getLogger("gentle_hem")

DRAWN_TO = 1.0
"""How far an outline may be drawn beside itself on the screen (mm)."""

laying = APIRouter(prefix="/api", tags=["cloth"])


class PlacedOut(BaseModel):
    """One thing on the cloth: its outline (mm, x along the cloth from the cut end, y from the selvedge), and where it
    begins in words.
    """

    number: int
    name: str
    d: str
    along: float
    across: float
    """Where its number stands, well within it."""
    from_selvedge: str
    from_cut_end: str
    layers: Layers
    pinned: bool
    fault: bool
    """Whether it lies as it cannot be cut."""


class JoinedOut(BaseModel):
    """A strip that is cut in several widths of the cloth and joined."""

    name: str
    across: str
    widths: int


class TooWideOut(BaseModel):
    name: str
    across: str


class LayOut(BaseModel):
    """One cloth laid."""

    cloth: ClothRole
    name: str
    """What it is called on the shelf, if it is from there."""
    colour: str | None
    width: float
    width_text: str
    said: bool
    """Whether its width is said, or the usual one was taken."""
    one_way: bool
    printed: bool
    """Whether it has a repeat to be matched."""
    border: bool
    folded: float | None
    folded_text: str
    opened_from: float | None
    length: float
    length_text: str
    buy: str
    working: str
    cost: str
    left: str
    missing: str
    use: str
    facings: str
    asked: LayAsked
    state: Literal["laid", "searching", "found", "stopped", "failed"]
    trouble: str
    placed: list[PlacedOut]
    spots: list[SpotKept]
    joined: list[JoinedOut]
    too_wide: list[TooWideOut]
    faults: list[str]
    refused: list[str]
    cornered: list[str]


class WayOutOut(BaseModel):
    """A way to cut a dress from a cloth that is too narrow or too short: made, laid, priced and drawn."""

    text: str
    changes: dict[str, Any] | None
    """What is changed of the dress; None where only its lay is."""
    asked: LayAsked | None
    buy: str
    cost: str
    drawing: SmallDrawing | None


class CanBeMadeOut(BaseModel):
    """A lower part this cloth makes on this figure, and how long at most; nothing where it does not."""

    title: str
    length: str
    changes: dict[str, Any]


class LaysIn(BaseModel):
    """A dress, and what is asked of the lays of its cloths; what is not asked is laid flat."""

    recipe: Document
    asked: list[LayAsked] = Field([], max_length=5)


class LayIn(BaseModel):
    """A dress, how one of its cloths is to be laid, and where everything lies where a hand has laid it."""

    recipe: Document
    asked: LayAsked
    spots: Annotated[list[SpotKept], Field(max_length=1000)] | None = None
    opened_from: float | None = Field(
        None, ge=0, le=500_000, description="From where a folded cloth is opened out (mm)."
    )


def _read(recipe: dict[str, Any], asker: Asker) -> tuple[Recipe, Garment, Tape]:
    read = Recipe.model_validate(recipe, context={"unit": asker.unit})
    return read, make_up(read), asker.tape(read.unit)


def _out(laid: Lay, garment: Garment, cloth: Cloth, asked: LayAsked, tape: Tape, row: KeptLay | None = None) -> LayOut:
    buying = bought(laid.length, cloth, tape, asked.safety)
    faulty = {name for fault in laid.faults for name in (fault.name, fault.other)}
    left = buying.left
    elsewhere = "" if laid.folded is None else ", or lies where it is folded otherwise"
    return LayOut(
        cloth=laid.role, name=cloth.name, colour=cloth.colour, width=laid.width,
        width_text=format_length(laid.width, tape), said=cloth.width is not None, one_way=cloth.nap == "one_way",
        printed=bool(cloth.repeat_along or cloth.repeat_across), border=cloth.border is not None, folded=laid.folded,
        folded_text=format_length(laid.folded, tape) if laid.folded else "",
        opened_from=laid.opened_from, length=laid.length,
        length_text=format_length(laid.length, tape), buy=buying.text, working=buying.working,
        cost="" if buying.cost is None else tape.number(f"{buying.cost:.2f}"),
        left=format_length(left, tape) if left is not None and left >= 0 else "",
        missing=format_length(-left, tape) if left is not None and left < 0 else "",
        use=f"{round(100 * laid.use)} %", facings=_facings(facings_in(laid, garment), tape), asked=asked,
        state=row.state if row else "laid", trouble=row.trouble if row else "",
        placed=[_placed(one, one.name in faulty, tape) for one in laid.placed], spots=spots_of(laid),
        joined=[
            JoinedOut(name=one.name, across=format_length(one.across, tape), widths=one.widths) for one in laid.joined
        ],
        too_wide=[TooWideOut(name=one.name, across=format_length(one.across, tape)) for one in laid.too_wide],
        faults=[
            f"The {fault.name} leaves the cloth{elsewhere}." if fault.other is None
            else f"The {fault.name} and the {fault.other} lie over each other, or too near for the shears."
            for fault in laid.faults
        ],
        cornered=[_cornered(one, tape) for one in laid.cornered],
        refused=[
            f"The {one.name}: {one.why.format(by=format_length(one.by, tape))}." for one in laid.refused
        ],
    )  # fmt: skip


def _facings(found: Facings | None, tape: Tape) -> str:
    """Whether what is left over takes the facings; nothing where there are none."""
    if found is None:
        return ""
    what = "The facing" if found.count == 1 else f"The {found.count} facings"
    verb = ("lies", "takes") if found.count == 1 else ("lie", "take")
    if found.lie_beside:
        return f"{what} {verb[0]} in what the rest leaves over."
    return f"{what} {verb[1]} {format_length(found.take, tape)} of it."


def _cornered(one: Cornered, tape: Tape) -> str:
    corners = "a corner" if one.corners == 1 else f"{one.corners} corners"
    where = "from its middle, on either side" if one.from_middle else "from its other side"
    return (
        f"The {one.name} is cut with {corners} joined on along the grain, the join {format_length(one.join, tape)} "
        f"{where}, with {format_length(JOINED, tape)} to either side for the seam."
    )


def _placed(one: Placed, faulty: bool, tape: Tape) -> PlacedOut:
    heart = one.outline.representative_point()
    return PlacedOut(
        number=one.number, name=one.name, d=_drawn(one.outline.simplify(DRAWN_TO)), along=heart.y, across=heart.x,
        from_selvedge=format_length(one.from_selvedge, tape), from_cut_end=format_length(one.from_cut_end, tape),
        layers=one.layers, pinned=one.pinned, fault=faulty,
    )  # fmt: skip


def _drawn(outline: "Polygon") -> str:
    """An outline and its holes as a path: x along the cloth."""
    rings = [outline.exterior, *outline.interiors]
    return "".join("M" + "L".join(f"{y:.1f} {x:.1f}" for x, y in ring.coords) + "Z" for ring in rings)


def _asked_for(role: ClothRole, asked: list[LayAsked]) -> LayAsked:
    return next((one for one in asked if one.role is role), LayAsked(role=role))


def _laid(garment: Garment, cloth: Cloth, asked: LayAsked) -> Lay:
    width, how = asked.on(cloth)
    return lay(garment, asked.role, width, how)


@laying.post("/lays")
def lay_out(body: LaysIn, asked: Asked) -> list[LayOut]:
    """Every cloth of a recipe with its pieces laid on it by our own placement."""
    recipe, garment, tape = _read(body.recipe, asked)
    made = []
    for role in roles_of(garment):
        how, cloth = _asked_for(role, body.asked), recipe.cloths.cloth(role)
        made.append(_out(_laid(garment, cloth, how), garment, cloth, how, tape))
    return made


@laying.post("/commissions/{commission_id}/lays")
def lays_of(commission_id: RecordId, body: LaysIn, session: Reading, asked: Asked) -> list[LayOut]:
    """Every cloth of a dress as it is kept laid, on the pieces as they are now; laid anew where it has not been, or
    where other things are cut now than then.
    """
    found(session.get(Commission, commission_id), "commission")
    recipe, garment, tape = _read(body.recipe, asked)
    made = []
    for role in roles_of(garment):
        cloth, row = recipe.cloths.cloth(role), lay_of(session, commission_id, role)
        how = LayAsked.model_validate(row.asked) if row else _asked_for(role, body.asked)
        laid = _as_kept(row, garment, how, cloth) if row else None
        if laid is None:
            row, laid = None, _laid(garment, cloth, how)
        made.append(_out(laid, garment, cloth, how, tape, row))
    return made


@laying.get("/commissions/{commission_id}/lays/lay.pdf", response_class=Response)
def lay_sheet(commission_id: RecordId, session: Reading, asked: Asked) -> Response:
    """Every cloth of a dress as it is saved and laid, numbered, to lie beside the cloth."""
    from gentle_hem.formats.lay_pdf import to_lay_pdf  # here: writing paper is slow to read in

    row = found(session.get(Commission, commission_id), "commission")
    recipe = stored(found(latest_version(session, commission_id), "version"))
    garment, tape = make_up(recipe), asked.tape(recipe.unit)
    cloths = list(laid_cloths(commission_id, recipe, garment, session, tape).values())
    content = to_lay_pdf(row.title, cloths, tape)
    return Response(
        content, media_type="application/pdf", headers={"Content-Disposition": 'attachment; filename="lay.pdf"'}
    )


def laid_cloths(
    commission_id: int, recipe: Recipe, garment: Garment, session: Session, tape: Tape
) -> dict[ClothRole, LaidCloth]:
    """Every cloth of a dress as it is kept laid, or by our own placement where it is not, and what is bought of it."""
    cloths = {}
    for role in roles_of(garment):
        cloth, kept = recipe.cloths.cloth(role), lay_of(session, commission_id, role)
        how = LayAsked.model_validate(kept.asked) if kept else LayAsked(role=role)
        laid = (_as_kept(kept, garment, how, cloth) if kept else None) or _laid(garment, cloth, how)
        cloths[role] = LaidCloth(laid, cloth, bought(laid.length, cloth, tape, how.safety))
    return cloths


def _as_kept(row: KeptLay, garment: Garment, asked: LayAsked, cloth: Cloth) -> Lay | None:
    spots = [SpotKept.model_validate(spot) for spot in row.spots]
    return laid_again(garment, asked, cloth, spots, row.opened_from) if spots else None


@laying.put("/commissions/{commission_id}/lays")
def lay_anew(commission_id: RecordId, body: LayIn, request: Request, session: Writing, asked: Asked) -> LayOut:
    """A cloth laid as it is asked, by our own placement, or as a hand has laid it; looked over, and kept."""
    found(session.get(Commission, commission_id), "commission")
    recipe, garment, tape = _read(body.recipe, asked)
    cloth, how = recipe.cloths.cloth(body.asked.role), body.asked
    laid = laid_again(garment, how, cloth, body.spots, body.opened_from) if body.spots else None
    if laid is None:
        laid = _laid(garment, cloth, how)
    row = _kept(session, commission_id, how, recipe, laid, "laid")
    room: LayingRoom = request.app.state.laying_room
    room.forget(row.id)
    return _out(laid, garment, cloth, how, tape, row)


def _kept(session: Writing, commission_id: int, asked: LayAsked, recipe: Recipe, laid: Lay, state: str) -> KeptLay:
    return keep_lay(
        session, commission_id, asked.role, asked=asked.model_dump(mode="json"), recipe=recipe.model_dump(mode="json"),
        state=state, spots=[spot.model_dump(mode="json") for spot in spots_of(laid)], length=laid.length,
        opened_from=laid.opened_from,
    )  # fmt: skip


@laying.post("/commissions/{commission_id}/lays/search", status_code=202)
def search(commission_id: RecordId, body: LayIn, request: Request, asked: Asked) -> LayOut:
    """A longer search for a shorter lay, beside the work; what it finds is kept, and told by the cloth's events."""
    store: Store = request.app.state.store
    recipe, garment, tape = _read(body.recipe, asked)
    cloth, how = recipe.cloths.cloth(body.asked.role), body.asked
    laid = _laid(garment, cloth, how)
    with store.writing() as session:
        found(session.get(Commission, commission_id), "commission")
        laid = _shorter_kept(lay_of(session, commission_id, how.role), laid, garment, how, cloth)
        row = _kept(session, commission_id, how, recipe, laid, SEARCHING)
    room: LayingRoom = request.app.state.laying_room
    room.start(row)
    return _out(laid, garment, cloth, how, tape, row)


def _shorter_kept(row: KeptLay | None, laid: Lay, garment: Garment, asked: LayAsked, cloth: Cloth) -> Lay:
    """What is kept, where the same was asked, it can still be cut and is shorter than ours: a search begins from it."""
    if row is None or LayAsked.model_validate(row.asked).on(cloth) != asked.on(cloth):
        return laid
    kept = _as_kept(row, garment, asked, cloth)
    return kept if kept is not None and not kept.faults and kept.length < laid.length else laid


@laying.post("/lays/ways")
def ways(body: LayIn, asked: Asked) -> list[WayOutOut]:
    """What else can be cut from a cloth that is too narrow or too short, the way that takes least of it first."""
    recipe, _, tape = _read(body.recipe, asked)
    cloth = recipe.cloths.cloth(body.asked.role)
    made = []
    for way in ways_out(recipe, body.asked, cloth, tape):
        buying = bought(way.laid.length, cloth, tape, body.asked.safety)
        made.append(
            WayOutOut(
                text=way.text, changes=way.changes, asked=way.asked, buy=buying.text,
                cost="" if buying.cost is None else tape.number(f"{buying.cost:.2f}"), drawing=_small(way),
            )
        )  # fmt: skip
    return made


def _small(way: WayOut) -> SmallDrawing | None:
    from gentle_hem.core.dressed import drawn_dress
    from gentle_hem.formats.dress import small_drawing

    try:
        return SmallDrawing.model_validate(small_drawing(drawn_dress(way.recipe, way.garment)))
    except Exception:
        log.exception("the drawing of a way out")  # the way is true without its drawing, and is offered
        return None


@laying.post("/lays/made-from")
def made_from(body: LayIn, asked: Asked) -> list[CanBeMadeOut]:
    """The cloth first: every kind of lower part, as long as this cloth makes it on this figure."""
    recipe, _, tape = _read(body.recipe, asked)
    found_ways = can_be_made(recipe, body.asked, recipe.cloths.cloth(body.asked.role), tape)
    return [
        CanBeMadeOut(
            title=one.title, length="" if one.length is None else format_length(one.length, tape),
            changes={"lower": one.lower},
        )
        for one in found_ways
    ]  # fmt: skip


@laying.post("/commissions/{commission_id}/lays/{role}/stop", status_code=204)
def stop(commission_id: RecordId, role: ClothRole, request: Request, session: Reading) -> None:
    """End the search for a lay; the shortest it has found stays."""
    row = found(lay_of(session, commission_id, role), "lay")
    room: LayingRoom = request.app.state.laying_room
    room.stop(row.id)


@laying.get("/commissions/{commission_id}/lays/{role}/events", response_class=StreamingResponse)
def events(commission_id: RecordId, role: ClothRole, request: Request, asked: Asked) -> StreamingResponse:
    """The lay of a cloth as the search goes on: one event for each shorter one, the last when it has ended."""
    store: Store = request.app.state.store
    room: LayingRoom = request.app.state.laying_room
    with store.session() as session:
        row = found(lay_of(session, commission_id, role), "lay")
    recipe, garment, tape = _read(row.recipe, asked)
    how = LayAsked.model_validate(row.asked)
    cloth = recipe.cloths.cloth(role)

    def told() -> Iterator[str]:
        for news in room.watch(row.id):
            if not news:
                yield ": it goes on\n\n"
                continue
            with store.session() as session:
                now = lay_of(session, commission_id, role)
            if now is None or now.asked != row.asked:
                return
            laid = _as_kept(now, garment, how, cloth)
            if laid is not None:
                yield f"data: {json.dumps(_out(laid, garment, cloth, how, tape, now).model_dump(mode='json'))}\n\n"
            if now.state != SEARCHING:
                return

    return StreamingResponse(told(), media_type="text/event-stream", headers={"Cache-Control": "no-cache"})
