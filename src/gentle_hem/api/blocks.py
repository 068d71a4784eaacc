"""A block of the maker's own: its file read into outlines, and its edges named."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, File, HTTPException, UploadFile
from pydantic import BaseModel, Field

from gentle_hem.core.block.own import NAMES, Named, OwnBodice
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.geometry.path_text import path_data, path_from_text
from gentle_hem.core.units import Unit, format_length
from gentle_hem.formats.outlines import FoundDart, FoundEdge, Outline, UnreadableError
from gentle_hem.formats.read_block import LARGEST_FILE, as_half, read_block

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

    source: str = Field("a file", max_length=120)
    front: NamedOutline
    back: NamedOutline


@blocks.post("/blocks/read")
async def read_file(file: Annotated[UploadFile, File()], unit: Unit = Unit.CM) -> list[OutlineFound]:
    """The closed outlines in an SVG, DXF or garment.json, largest first."""
    content = await file.read(LARGEST_FILE + 1)
    try:
        found = read_block(file.filename or "the file", content)
    except UnreadableError as wrong:
        raise HTTPException(422, str(wrong)) from None
    return [_found(outline, unit) for outline in found[:40]]


def _found(outline: Outline, unit: Unit) -> OutlineFound:
    left, bottom, right, top = Path.joined(edge.path for edge in outline.edges).box
    return OutlineFound(
        name=outline.name,
        edges=[
            EdgeFound(d=path_data(e.path), length=format_length(e.path.length, unit), guess=e.guess)
            for e in outline.edges
        ],
        darts=[DartFound(edge=d.edge, at=d.at, intake=d.intake, apex=(d.apex.x, -d.apex.y)) for d in outline.darts],
        box=(left, -top, right - left, top - bottom),
        width=format_length(right - left, unit),
        height=format_length(top - bottom, unit),
    )  # fmt: skip


@blocks.get("/blocks/edge-names")
def edge_names() -> list[str]:
    """What an edge of a block can be called."""
    return list(NAMES)


@blocks.post("/blocks/take")
def take_block(block: BlockIn) -> dict[str, Any]:
    """A bodice from two named outlines, as a recipe keeps it."""
    halves = {}
    for where, named in (("front", block.front), ("back", block.back)):
        outline = Outline(
            named.outline.name,
            tuple(FoundEdge(path_from_text(edge.d), edge.guess) for edge in named.outline.edges),
            tuple(FoundDart(d.edge, d.at, d.intake, Point(d.apex[0], -d.apex[1])) for d in named.outline.darts),
        )
        try:
            halves[where] = as_half(outline, named.names)
        except UnreadableError as wrong:
            raise HTTPException(422, f"The {where}: {wrong}") from None
    return OwnBodice.model_validate({"source": block.source, **halves}).model_dump(mode="json")
