"""A dress hung before it is cut: begun, watched as it falls, read, stopped."""

import json
from collections.abc import Iterator
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Body, HTTPException, Path, Query, Request
from fastapi.responses import Response, StreamingResponse
from pydantic import BaseModel, TypeAdapter
from sqlalchemy.orm import Session

from gentle_hem.api.kept import LARGEST_NUMBER, Asked, Reading, RecordId, Writing, found, stored
from gentle_hem.core.cloth.learnt import most_grown
from gentle_hem.core.hang.fullness import beside, say_full
from gentle_hem.core.names import Document
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape, format_length
from gentle_hem.laying.hanging import Grown, Hanging, HangingRoom, key_of
from gentle_hem.store.learnt import learnt, notes_of
from gentle_hem.store.store import hung_pictures, keep_hung, version_numbered

hanging = APIRouter(prefix="/api", tags=["hang"])

Number = Annotated[int, Path(ge=1, le=LARGEST_NUMBER)]


class ShapeOut(BaseModel):
    """A half of the dress in triangles, to be mirrored where both are alike; lengths in tenths of a millimetre."""

    triangles: list[int]
    lines: list[int]
    """Pairs of points that an edge of a piece joins."""
    pieces: list[str]
    piece_of: list[int]
    """By triangle, the number of its piece."""
    hem: list[int]
    colours: list[str | None]
    """By piece, what its cloth is drawn in."""
    form: list[int]
    """Her form from the floor up: half its width, half its depth, how far forward its middle lies and how far to her
    left, by section; one that lies to her left has its mirror image."""
    arm: list[int]
    """Her left arm likewise from its lowest section up, nothing without a sleeve."""
    arm_low: int
    """How high that lies."""
    every: int
    """How far apart the sections lie."""


class HemPlaceOut(BaseModel):
    """The hem at one place."""

    place: str
    asked: str
    now: str
    later: str
    cut: str


class HemOut(BaseModel):
    """The hem ribbon from centre front to centre back: heights above the floor (mm), and said at nine places."""

    asked: list[float]
    now: list[float]
    later: list[float]
    places: list[HemPlaceOut]
    step: dict[str, Any] | None
    """The step that levels it; None where it hangs as it was asked, or cannot be levelled so."""


class WedgeOut(BaseModel):
    """A step that pinches an edge of the front that gapes closed."""

    edge: str
    step: dict[str, Any]


class SidesOut(BaseModel):
    """Numbers of her left, or of both her sides, and of her right where that is another."""

    left: list[int]
    right: list[int] | None = None


class RestOut(BaseModel):
    """A dress at rest, read."""

    said: list[str]
    figures: dict[str, str]
    """What is set beside other dresses: what it is, and how much."""
    hem: HemOut | None
    """Of her left, or of both her sides."""
    right_hem: HemOut | None
    """Of her right, where that is another than her left."""
    wedges: list[WedgeOut]
    later: SidesOut
    ways: SidesOut
    """The way straight out of the cloth at every point, in hundredths; likewise after two days."""
    ways_later: SidesOut
    strains: SidesOut
    """By triangle, how much longer it is along its threads than it was cut, in thousandths."""


class RightOut(BaseModel):
    """Her right, where it is another than her left: seen as in a mirror."""

    shape: ShapeOut | None
    places: list[int]


class HangOut(BaseModel):
    """A dress that is hung: how it lies now, and once it is at rest what is read from it."""

    number: int
    state: Literal["falling", "rest", "refused", "failed", "stopped"]
    trouble: str
    shape: ShapeOut | None
    places: list[int] | None
    right: RightOut | None
    rest: RestOut | None


def _out(made: Hanging, tape: Tape, *, whole: bool = True) -> HangOut:
    return HangOut(
        number=made.number, state=made.state, trouble=made.trouble,
        shape=ShapeOut.model_validate(made.shape) if whole and made.shape else None, places=made.places,
        right=RightOut(shape=ShapeOut.model_validate(made.right["shape"]) if whole else None,
                       places=made.right["places"]) if made.right else None,
        rest=_rest(made.rest, tape) if made.rest else None,
    )  # fmt: skip


def _rest(rest: dict[str, Any], tape: Tape) -> RestOut:
    # here: it reads in scipy, which is slow, and only a hung dress needs it
    from gentle_hem.core.hang.in_words import figures, said
    from gentle_hem.core.hang.reading import HangReading

    reading = TypeAdapter(HangReading).validate_python(rest["reading"])
    return RestOut(
        said=said(reading, tape), figures=figures(reading, tape), hem=_hem(reading, tape),
        right_hem=_hem(reading.right, tape) if reading.right else None,
        wedges=[WedgeOut(edge=of.edge, step=of.step) for of in reading.gapes if of.step],
        later=rest["later"], ways=rest["ways"], ways_later=rest["ways_later"], strains=rest["strains"],
    )  # fmt: skip


def _hem(reading: Any, tape: Tape) -> HemOut | None:
    from gentle_hem.core.hang.in_words import said_cut

    ribbon = reading.ribbon
    if ribbon is None:
        return None
    every = (len(ribbon.now) - 1) // (len(reading.places) - 1)
    return HemOut(
        asked=ribbon.asked, now=ribbon.now, later=ribbon.later, step=reading.levelling.step,
        places=[
            HemPlaceOut(
                place=name, cut=said_cut(ribbon.cut[k], tape),
                **{
                    of: format_length(getattr(ribbon, of)[k * every], tape)
                    for of in ("asked", "now", "later")
                },
            )
            for k, name in enumerate(reading.places)
        ],
    )  # fmt: skip


@hanging.post("/hangs", status_code=202)
def begin(
    body: Annotated[Document, Body()], request: Request, session: Reading, asked: Asked,
    after: Annotated[int | None, Query(ge=1, le=LARGEST_NUMBER)] = None,
) -> HangOut:  # fmt: skip
    """Hang what a recipe makes; its events tell how it falls. The same recipe is hung once, and one with the same
    pieces begins as the one with the number ``after`` lies.
    """
    recipe = Recipe.model_validate(body, context={"unit": asked.unit})
    room: HangingRoom = request.app.state.hanging_room
    made = room.start(recipe.model_dump(mode="json"), _grown(recipe, session), after)
    return _out(made, asked.tape(recipe.unit))


def _grown(recipe: Recipe, session: Session) -> Grown:
    """What was learnt of how far its cloths grow on the bias."""
    found = {}
    for name in {cloth.name for cloth in (recipe.cloths.outer, recipe.cloths.contrast) if cloth.name}:
        note = most_grown(learnt(notes_of(session, name)))
        if note is not None and note.before is not None and note.share is not None:
            found[name] = (note.before / 1000, note.share / 100)
    return found


class BesideOut(BaseModel):
    """A recipe of another fullness, and what it is called."""

    said: str
    recipe: dict[str, Any]


class FullnessOut(BaseModel):
    """How full a recipe is, and others to hang beside it; none where its lower part has no fullness to change."""

    said: str
    others: list[BesideOut]


@hanging.post("/hangs/beside")
def beside_it(body: Annotated[Document, Body()], asked: Asked) -> FullnessOut:
    """The same dress with less and with more fullness, such as can be cut."""
    recipe = Recipe.model_validate(body, context={"unit": asked.unit})
    tape = asked.tape(recipe.unit)
    return FullnessOut(
        said=say_full(recipe, tape),
        others=[BesideOut(said=one.said, recipe=one.recipe.model_dump(mode="json")) for one in beside(recipe, tape)],
    )


@hanging.post("/hangs/ready", status_code=204)
def ready(request: Request) -> None:
    """A dress is about to be hung: what it takes is read in meanwhile."""
    request.app.state.hanging_room.make_ready()


def _found(number: int, request: Request) -> tuple[HangingRoom, Hanging]:
    room: HangingRoom = request.app.state.hanging_room
    made = room.of(number)
    if made is None:
        raise HTTPException(404, "This dress does not hang any more; hang it again.")
    return room, made


@hanging.get("/hangs/{number}")
def hung(number: Number, request: Request, asked: Asked) -> HangOut:
    """How a dress hangs by now."""
    return _out(_found(number, request)[1], asked.tape())


View = Literal["front", "side", "back"]


@hanging.get("/hangs/{number}/pictures/{view}", response_class=Response)
def seen(number: Number, view: View, request: Request) -> Response:
    """How a dress at rest looks, from one side."""
    png = found(_found(number, request)[1].pictures.get(view), "picture of it before it is at rest")
    # after a restart another dress has its number
    return Response(png, media_type="image/png", headers={"Cache-Control": "no-store"})


class HungIn(BaseModel):
    """Which dress that hangs is the version's."""

    hang: int


@hanging.put("/commissions/{commission_id}/versions/{version}/hung", status_code=204)
def keep(commission_id: RecordId, version: RecordId, body: HungIn, request: Request, session: Writing) -> None:
    """Keep the pictures of a dress at rest with the version it was hung from, for the desk and the cut sheet."""
    kept = found(version_numbered(session, commission_id, version), "version")
    _, made = _found(body.hang, request)
    recipe = stored(kept)
    if not made.pictures or made.key != key_of(recipe.model_dump(mode="json"), _grown(recipe, session)):
        raise HTTPException(409, "What hangs there is not this version at rest, so its pictures are not kept with it.")
    keep_hung(session, kept, made.pictures)


@hanging.get("/commissions/{commission_id}/versions/{version}/hung/{view}", response_class=Response)
def picture(commission_id: RecordId, version: RecordId, view: View, session: Reading) -> Response:
    """How a version hung, seen from one side."""
    kept = found(version_numbered(session, commission_id, version), "version")
    png = found(hung_pictures(session, kept).get(view), "picture of it; hang it, and it is kept")
    return Response(png, media_type="image/png")


@hanging.delete("/hangs/{number}", status_code=204)
def stop(number: Number, request: Request) -> None:
    """The falling of a dress ended."""
    room, made = _found(number, request)
    room.stop(made)


@hanging.get("/hangs/{number}/events", response_class=StreamingResponse)
def events(number: Number, request: Request, asked: Asked) -> StreamingResponse:
    """How a dress falls: one event whenever it lies otherwise, with its triangles when they are new; the last when it
    is at rest.
    """
    room, made = _found(number, request)
    tape = asked.tape()

    def told() -> Iterator[str]:
        shapes = 0
        for news in room.watch(made):
            if not news:
                yield ": it goes on\n\n"
                continue
            now, new = made.shapes, made.shapes != shapes
            shapes = now
            yield f"data: {json.dumps(_out(made, tape, whole=new).model_dump(mode='json'))}\n\n"

    return StreamingResponse(told(), media_type="text/event-stream", headers={"Cache-Control": "no-cache"})
