"""Two states of one dress laid over each other, with the differences in numbers; two pieces of a seam laid together."""

from fastapi import APIRouter, HTTPException
from pydantic import BaseModel, Field

from gentle_hem.api.kept import Asked
from gentle_hem.api.make import TwoStates
from gentle_hem.api.screen import signed
from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.geometry import Path
from gentle_hem.core.geometry.path_text import path_for_screen
from gentle_hem.core.laid_together import Laid, laid_together, said
from gentle_hem.core.make_up import make_up
from gentle_hem.core.names import Document
from gentle_hem.core.overlaid import EdgeThen, PieceThen, overlaid
from gentle_hem.core.pattern import Piece
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape, format_length

over = APIRouter(prefix="/api", tags=["make"])


class EdgeThenOut(BaseModel):
    name: str
    before: str
    now: str
    difference: str


class PieceThenOut(BaseModel):
    """A piece before and now: its outlines (mm, y down), and the edges whose length is another."""

    name: str
    box: tuple[float, float, float, float]
    """Left, top, width and height of both together."""
    before: list[str]
    now: list[str]
    edges: list[EdgeThenOut]


class OverlaidOut(BaseModel):
    pieces: list[PieceThenOut]
    same: int
    """How many pieces are as they were."""


class SeamAsked(BaseModel):
    """A seam of a dress, by its name."""

    recipe: Document
    seam: str = Field(max_length=200)


class LaidOut(BaseModel):
    """A piece as it lies: its outline, and in it the edge that is sewn (mm, y down)."""

    name: str
    outline: str
    edge: str


class LaidTogetherOut(BaseModel):
    """Both pieces of a seam, edge to edge."""

    one: LaidOut
    other: LaidOut
    box: tuple[float, float, float, float]
    """Left, top, width and height of both together."""
    sentence: str


@over.post("/laid-together")
def seam_laid_together(body: SeamAsked, asked: Asked) -> LaidTogetherOut:
    """The two pieces of a seam laid edge to edge."""
    recipe = Recipe.model_validate(body.recipe)
    garment, tape = make_up(recipe), asked.tape(recipe.unit)
    seam = next((walked.seam for walked in garment.seams if walked.name == body.seam), None)
    if seam is None:
        raise HTTPException(404, f"This dress has no seam called {body.seam}.")
    try:
        laid = laid_together(seam, {piece.what: piece for piece in garment.pieces})
    except CannotMake as wrong:
        raise HTTPException(422, f"{body.seam[:1].upper()}{body.seam[1:]}: {wrong.why}.") from None
    boxes = [one.outline.box for one in (laid.one, laid.other)]
    left, low = (min(box[k] for box in boxes) for k in (0, 1))
    right, high = (max(box[k] for box in boxes) for k in (2, 3))
    return LaidTogetherOut(
        one=_laid(laid.one), other=_laid(laid.other), box=(left, -high, right - left, high - low),
        sentence=said(laid, tape),
    )  # fmt: skip


def _laid(one: Laid) -> LaidOut:
    return LaidOut(
        name=one.piece.name, outline=path_for_screen(one.outline, closed=True), edge=path_for_screen(one.edge)
    )


@over.post("/overlaid")
def laid_over(states: TwoStates, asked: Asked) -> OverlaidOut:
    """Every piece that is another in two states of a dress, both drawn, and its edges that are longer or shorter."""
    before, now = Recipe.model_validate(states.before), Recipe.model_validate(states.after)
    tape = asked.tape(now.unit)
    made = overlaid(make_up(before), make_up(now))
    return OverlaidOut(pieces=[_piece(one, tape) for one in made.changed], same=made.same)


def _piece(one: PieceThen, tape: Tape) -> PieceThenOut:
    boxes = [piece.seam_line.box for piece in (one.before, one.now) if piece]
    left, low = (min(box[k] for box in boxes) for k in (0, 1))
    right, high = (max(box[k] for box in boxes) for k in (2, 3))
    return PieceThenOut(
        name=one.name, box=(left, -high, right - left, high - low), before=_outlines(one.before),
        now=_outlines(one.now), edges=[_edge(edge, tape) for edge in one.edges],
    )  # fmt: skip


def _outlines(piece: Piece | None) -> list[str]:
    if piece is None:
        return []
    legs = [(piece.dart_legs(dart), dart) for dart in piece.darts]
    return [
        path_for_screen(piece.seam_line, closed=True),
        *(path_for_screen(Path.through(near, dart.apex, far)) for (near, far), dart in legs),
    ]


def _edge(edge: EdgeThen, tape: Tape) -> EdgeThenOut:
    def said(length: float | None) -> str:
        return "" if length is None else format_length(length, tape)

    difference = "" if edge.difference is None else signed(edge.difference, tape)
    return EdgeThenOut(name=edge.name, before=said(edge.before), now=said(edge.now), difference=difference)
