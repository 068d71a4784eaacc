"""A block of the maker's own: its file read into outlines, and its edges named."""

from math import isfinite
from typing import Annotated, Any

from fastapi import APIRouter, File, Form, HTTPException, Request, UploadFile
from pydantic import BaseModel, Field

from gentle_hem.api.kept import Asked
from gentle_hem.api.sheets import sheet_size
from gentle_hem.core.block.own import NAMES, Named, OwnBodice
from gentle_hem.core.geometry import Point
from gentle_hem.core.geometry.path_text import path_from_text
from gentle_hem.core.names import Name, a_name
from gentle_hem.core.units import Tape, format_length
from gentle_hem.formats.apart import NotReadError, ReadingRoom
from gentle_hem.formats.outlines import FoundDart, FoundEdge, Outline

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


class PhotoOut(BaseModel):
    """What a photograph shows: its size and the mat's corners in it (pixels), and the piece's outline (mm)."""

    width: int
    height: int
    corners: list[tuple[float, float]]
    outline: OutlineFound


@blocks.post("/blocks/photo")
def read_photograph(
    file: Annotated[UploadFile, File()],
    request: Request,
    asked: Asked,
    mat: Annotated[str, Form(max_length=60, description='The mat\'s width and height: "60 x 45 cm".')],
    corners: Annotated[str, Form(max_length=300, description="The mat's corners set by hand: x,y x,y x,y x,y.")] = "",
) -> PhotoOut:
    """A paper piece photographed on a mat of a known size: the mat's corners, and the piece laid flat."""
    room: ReadingRoom = request.app.state.reading_room
    name = a_name((file.filename or "the photograph").encode(errors="replace").decode())[:120]
    size = sheet_size(mat, asked.unit)
    if size is None:
        raise HTTPException(422, "Say how large the mat is, as 60 x 45 cm; everything is measured by it.")
    try:
        seen = room.read("photo", name, file.file.read(), mat=size, corners=_corners(corners))
    except NotReadError as wrong:
        raise HTTPException(422, str(wrong)) from None
    return PhotoOut(
        width=seen["width"], height=seen["height"], corners=seen["corners"],
        outline=_found(seen["outline"], asked.tape()),
    )  # fmt: skip


def _corners(said: str) -> list[list[float]] | None:
    """Four corners as they were set by hand; None where none were."""
    if not said.strip():
        return None
    try:
        corners = [[float(number) for number in corner.split(",")] for corner in said.split()]
    except ValueError:
        corners = []
    if len(corners) != 4 or any(len(corner) != 2 or not all(map(isfinite, corner)) for corner in corners):
        raise HTTPException(422, "The mat has four corners, each said as x,y in pixels of the photograph.")
    return corners


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
    from gentle_hem.formats.read_block import as_half  # here: what reads drawings is slow to read in

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
