"""The benches that need no commission: sums and the rescue."""

from typing import Annotated, Any

from fastapi import APIRouter, Body, HTTPException
from pydantic import BaseModel

from gentle_hem.api.kept import Asked
from gentle_hem.core.geometry import Path
from gentle_hem.core.geometry.path_text import path_data
from gentle_hem.core.names import Document
from gentle_hem.core.rescue import CutCircle, Way, spoken, ways_out
from gentle_hem.core.sums import SUMS
from gentle_hem.core.sums.sum import ask
from gentle_hem.core.units import Tape, format_length
from gentle_hem.core.workings import Workings
from gentle_hem.formats.drawing import strokes
from gentle_hem.formats.garment_document import WorkingDocument, workings_documents

benches = APIRouter(prefix="/api", tags=["benches"])

Box = tuple[float, float, float, float]


class SumInputOut(BaseModel):
    name: str
    label: str
    sort: str
    help: str
    default: float | str | None
    required: bool
    choices: dict[str, str]


class SumOut(BaseModel):
    name: str
    title: str
    purpose: str
    inputs: list[SumInputOut]


class WayOut(BaseModel):
    """One way out, spoken, and the piece as it then is (mm, y down)."""

    code: str
    text: str
    cost: str
    minutes: int
    loses: str
    hem: str
    cut: int
    box: Box
    lines: list[str]


class RescueOut(BaseModel):
    sentence: str
    ways: list[WayOut]
    workings: list[WorkingDocument]


@benches.get("/sums")
def list_sums(asked: Asked) -> list[SumOut]:
    """The sums there are, with what each asks for; usual lengths are spoken in ``unit``."""
    unit = asked.tape()
    listed = []
    for kind in SUMS.values():
        inputs = []
        for name, field in kind.model_fields.items():
            extra = field.json_schema_extra
            assert isinstance(extra, dict)
            default = None if field.is_required() else field.default
            if default is not None and extra["sort"] == "length":
                default = format_length(default, unit)
            inputs.append(
                SumInputOut(
                    name=name, label=str(extra["label"]), sort=str(extra["sort"]), help=str(extra["help"]),
                    default=default, required=field.is_required(), choices=extra.get("choices", {}),
                )
            )  # fmt: skip
        listed.append(SumOut(name=kind.name, title=kind.title, purpose=kind.purpose, inputs=inputs))
    return listed


@benches.post("/sums/{name}")
def one_sum(name: str, inputs: Annotated[Document, Body()], asked: Asked) -> dict[str, Any]:
    """One sum with its workings and a small drawing. Lengths may be text; a bare number in text is in ``unit``."""
    kind = SUMS.get(name)
    if kind is None:
        raise HTTPException(404, f"There is no such sum as {name[:40]}; there are {', '.join(SUMS)}.")
    tape = asked.tape()
    one = ask(kind, inputs, tape.unit)
    return {**one.answer().document(tape), "sketch": _sketch(one.sketch())}


def _sketch(paths: list[Path]) -> dict[str, Any]:
    box = _box(paths)
    return {"box": box, "paths": [path_data(path) for path in paths]}


def _box(paths: list[Path]) -> Box:
    """Left, top, width and height of a drawing, y down."""
    if not paths:
        return (0.0, 0.0, 1.0, 1.0)
    boxes = [path.box for path in paths]
    left, bottom = min(b[0] for b in boxes), min(b[1] for b in boxes)
    right, top = max(b[2] for b in boxes), max(b[3] for b in boxes)
    return (left, -top, max(right - left, 1.0), max(top - bottom, 1.0))


@benches.post("/rescue")
def rescue(cut: Annotated[Document, Body()], asked: Asked) -> RescueOut:
    """Every way out for a circle that is already cut: what it costs, how long it takes, the piece as it then is."""
    unit = asked.tape()
    read = CutCircle.model_validate(cut, context={"unit": unit.unit})
    if read.cut_radius is None and read.edge_now is None:
        raise HTTPException(422, "Say the radius as it was cut, or what the edge measures now.")
    notes = Workings()
    ways = [_way(way, unit) for way in ways_out(read, notes)]
    return RescueOut(sentence=spoken(read, unit), ways=ways, workings=workings_documents(tuple(notes), unit))


def _way(way: Way, unit: Tape) -> WayOut:
    lines = [stroke.path for stroke in strokes(way.piece)]
    return WayOut(
        code=way.code,
        text=way.text(unit),
        cost=way.cost(unit),
        minutes=way.minutes,
        loses=format_length(way.loses, unit),
        hem=format_length(way.hem, unit),
        cut=way.pieces,
        box=_box(lines),
        lines=[path_data(line) for line in lines],
    )
