"""A block of the maker's own: its file read into outlines, and its edges named."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, File, HTTPException, Request, UploadFile
from pydantic import BaseModel, Field

from gentle_hem.api.kept import Asked
from gentle_hem.core.block.own import NAMES, Named, OwnBodice
from gentle_hem.core.geometry import Point
from gentle_hem.core.geometry.path_text import path_from_text
from gentle_hem.core.names import Name, a_name
from gentle_hem.core.units import Tape, format_length
from gentle_hem.formats.apart import NotReadError, ReadingRoom
from gentle_hem.formats.outlines import FoundDart, FoundEdge, Outline
from gentle_hem.formats.read_block import as_half

blocks = APIRouter(prefix="/api", tags=["blocks"])


class EdgeFound(BaseModel):
    """An edge between two corners: its line (mm, y down), its length spoken, and what it probably is."""

    d: str = Field(max_length=100_000)
    length: str = ""
    guess: Named | None = None


class DartFound(BaseModel):
    edge: int
    at: float
    intake: float
    apex: tuple[float, float]


class OutlineFound(BaseModel):
    name: str
    edges: list[EdgeFound] = Field(max_length=60)
    darts: list[DartFound] = Field(max_length=20)
    box: tuple[float, float, float, float]
    width: str = ""
    height: str = ""


class NamedOutline(BaseModel):
    outline: OutlineFound
    names: list[Named]


class BlockIn(BaseModel):
    """Two outlines with their edges named: the front and the back."""

    source: Name = Field("a file", max_length=120)
    front: NamedOutline
    back: NamedOutline


@blocks.post("/blocks/read")
def read_file(file: Annotated[UploadFile, File()], request: Request, asked: Asked) -> list[OutlineFound]:
    """The closed outlines in an SVG, DXF or garment.json, largest first. It is read in a process of its own."""
    room: ReadingRoom = request.app.state.reading_room
    name = a_name((file.filename or "the file").encode(errors="replace").decode())[:120]
    try:
        outlines = room.read("block", name, file.file.read())
    except NotReadError as wrong:
        raise HTTPException(422, str(wrong)) from None
    return [_found(outline, asked.tape()) for outline in outlines]


def _found(outline: dict[str, Any], tape: Tape) -> OutlineFound:
    left, bottom, right, top = outline["box"]
    return OutlineFound(
        name=outline["name"],
        edges=[
            EdgeFound(d=e["d"], length=format_length(e["length"], tape), guess=e["guess"]) for e in outline["edges"]
        ],
        darts=[DartFound(**dart) for dart in outline["darts"]],
        box=(left, -top, right - left, top - bottom),
        width=format_length(right - left, tape),
        height=format_length(top - bottom, tape),
    )


@blocks.get("/blocks/edge-names")
def edge_names() -> list[str]:
    """What an edge of a block can be called."""
    return list(NAMES)


@blocks.post("/blocks/take")
def take_block(block: BlockIn) -> dict[str, Any]:
    """A bodice from two named outlines, as a recipe keeps it."""
    halves = {}
    for where, named in (("front", block.front), ("back", block.back)):
        try:
            outline = Outline(
                named.outline.name,
                tuple(FoundEdge(path_from_text(edge.d), edge.guess) for edge in named.outline.edges),
                tuple(FoundDart(d.edge, d.at, d.intake, Point(d.apex[0], -d.apex[1])) for d in named.outline.darts),
            )
            halves[where] = as_half(outline, named.names)
        except ValueError as wrong:
            raise HTTPException(422, f"The {where}: {wrong}") from None
    return OwnBodice.model_validate({"source": block.source, **halves}).model_dump(mode="json")
