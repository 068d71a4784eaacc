"""Measuring: how each measure is taken, sets compared, tables in and out, and the tape."""

import time
from typing import Annotated, Any

from fastapi import APIRouter, Body, HTTPException, Request, Response
from pydantic import BaseModel, Field

from gentle_hem.api.kept import Asked
from gentle_hem.core.agreement import agreement
from gentle_hem.core.estimates import from_size
from gentle_hem.core.figure import MEASURES, Figure, MeasureKey
from gentle_hem.core.measuring import TABS, compare_sets, jumps
from gentle_hem.core.names import Document
from gentle_hem.core.units import Unit, format_length, parse_length
from gentle_hem.devices.tape import Manner, SimulatedTape, lengths
from gentle_hem.formats.apart import NotReadError, ReadingRoom
from gentle_hem.formats.figure_csv import to_csv
from gentle_hem.formats.garment_document import FindingDocument, finding_document

figures = APIRouter(prefix="/api", tags=["figures"])


class TakingOut(BaseModel):
    key: str
    label: str
    how: str


class TabOut(BaseModel):
    title: str
    measures: list[TakingOut]


class MeasureOut(BaseModel):
    """One measure of a set, spoken."""

    key: str
    first: str
    second: str
    mm: float | None


class FigureReadOut(BaseModel):
    """A figure read: what stands at each measure, and what does not agree."""

    figure: dict[str, Any]
    measures: list[MeasureOut]
    taken: int
    findings: list[FindingDocument]


class ComparedMeasure(BaseModel):
    label: str
    before: str
    now: str
    difference: str


class SetsCompared(BaseModel):
    rows: list[ComparedMeasure]
    findings: list[FindingDocument]


class PressIn(BaseModel):
    """The stand-in's button: round what it is held, what is to be taken for its unit, and its manner."""

    held: MeasureKey
    unit: Unit = Unit.CM
    manner: Manner = Manner.STEADY


class PressOut(BaseModel):
    readings: list[str]
    lengths: list[float]
    texts: list[str]


@figures.get("/measures")
def list_measures() -> list[TabOut]:
    """Every measure in the order a tape goes round a person, with how it is taken."""
    return [
        TabOut(title=title, measures=[TakingOut(key=t.key, label=t.label, how=t.how) for t in takings])
        for title, takings in TABS.items()
    ]


@figures.post("/figures/read")
def read_figure(figure: Annotated[Document, Body()], asked: Asked) -> FigureReadOut:
    """A figure as it was typed, read: lengths as text in ``unit``, and its findings."""
    unit = asked.tape()
    read = Figure.model_validate(figure, context={"unit": unit.unit})

    def said(value: float | None) -> str:
        return "" if value is None else format_length(value, unit)

    return FigureReadOut(
        figure=read.model_dump(mode="json"),
        measures=[
            MeasureOut(
                key=key, first=said(read.measures.get(key)), second=said(read.second.get(key)),
                mm=read.measures.get(key),
            )
            for key in MEASURES
        ],
        taken=len(read.measures),
        findings=[finding_document(finding, unit) for finding in agreement(read)],
    )  # fmt: skip


class TwoFigures(BaseModel):
    before: Figure
    now: Figure


@figures.post("/figures/compare")
def compare_figures(sets: TwoFigures, asked: Asked) -> SetsCompared:
    """Two sets of one person's measures beside each other, and girths that changed more than a body does."""
    unit = asked.tape()

    def said(value: float | None, sign: bool = False) -> str:
        if value is None:
            return "—"
        text = format_length(value, unit)
        return f"+{text}" if sign and value > 0 else text

    return SetsCompared(
        rows=[
            ComparedMeasure(
                label=MEASURES[row.key], before=said(row.before), now=said(row.now),
                difference=said(row.difference, sign=True),
            )
            for row in compare_sets(sets.before, sets.now)
        ],
        findings=[finding_document(finding, unit) for finding in jumps(sets.before, sets.now)],
    )  # fmt: skip


class SizeIn(BaseModel):
    bust: str = Field(max_length=60, description="A bust girth; the size nearest it is taken.")


@figures.post("/figures/from-size")
def figure_from_size(size: SizeIn, unit: Unit = Unit.CM) -> dict[str, float]:
    """The measures of the size whose bust is nearest: something to start from."""
    return {str(key): value for key, value in from_size(parse_length(size.bust, unit)).items()}


@figures.post("/figures/csv", response_class=Response)
def figure_as_csv(figure: Figure, unit: Unit = Unit.CM) -> Response:
    """A set of measures as a table."""
    headers = {"Content-Disposition": 'attachment; filename="measures.csv"'}
    return Response(to_csv(figure, unit), media_type="text/csv; charset=utf-8", headers=headers)


class TableIn(BaseModel):
    text: str = Field(max_length=200_001)


@figures.post("/figures/from-csv")
def figure_from_csv(table: TableIn, request: Request, unit: Unit = Unit.CM) -> dict[str, float]:
    """The measures in a table, mm by key. It is read in a process of its own."""
    room: ReadingRoom = request.app.state.reading_room
    try:
        measures: dict[str, float] = room.read(
            "table", "The table", table.text.encode(errors="replace"), unit=unit.value
        )
    except NotReadError as wrong:
        raise HTTPException(422, str(wrong)) from None
    return measures


@figures.post("/devices/tape/press")
def press_tape(press: PressIn, request: Request) -> PressOut:
    """Press the simulated tape's button and hear what it sends: perhaps nothing, or the same reading twice.

    It belongs to the demo studio; beside the maker's own records it is off unless it was switched on.
    """
    if not request.app.state.devices:
        raise HTTPException(404, "There is no simulated tape here; start with --devices to have it.")
    tape: SimulatedTape = request.app.state.tape
    tape.unit, tape.manner = press.unit, press.manner
    tape.aim(press.held)
    sent = tape.press(time.monotonic())
    read = lengths(sent, press.unit)
    return PressOut(
        readings=[reading.text for reading in sent], lengths=read, texts=[format_length(v, press.unit) for v in read]
    )
