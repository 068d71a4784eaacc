"""What a screen is sent: the shapes of it, texts already in the asker's unit. ``screen`` fills them."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, Field

from gentle_hem.core.stages import Stage
from gentle_hem.core.units import Unit
from gentle_hem.formats.garment_document import FindingDocument, RemedyDocument, WorkingDocument


class WordOut(BaseModel):
    """A live word of a recipe sentence."""

    path: str
    text: str
    typed: str
    """What stands in its field when it is edited."""
    value: float | str | bool | None
    sort: str
    label: str
    help: str
    choices: list[ChoiceOut]
    optional: bool
    struck: bool
    """Whether what it asks for could not be drawn and is not in the garment."""


class ChoiceOut(BaseModel):
    value: float | str | bool
    text: str


class SentencePartOut(BaseModel):
    where: str
    title: str
    lines: list[list[str | WordOut]]
    waits: list[bool]
    """Of each line, whether it says only what is usual, and may wait until it is asked for."""
    acts_on: list[tuple[str, str]]
    """The edges it is about, as piece and edge: they light up with it on the sheet."""


class MateOut(BaseModel):
    """The edge this one is sewn to, and how they compare."""

    piece: str
    edge: str
    seam: str
    verdict: str
    text: str


class EdgeOut(BaseModel):
    name: str
    role: str
    d: str
    length: str
    drawn_length: str
    allowance: str
    middle: tuple[float, float]
    outward: tuple[float, float]
    mates: list[MateOut]


class PieceOut(BaseModel):
    """A piece where it lies on the sheet, in mm, y down."""

    name: str
    material: str
    cut: int
    on_fold: bool
    remark: str
    width: str
    height: str
    box: tuple[float, float, float, float]
    cut_line: str
    """The closed outline, to be filled."""
    cut_strokes: str
    """What of it is cut: without the fold."""
    seam_line: str
    grain: list[str]
    fold: list[str]
    notches: list[str]
    internal: list[str]
    heart: tuple[float, float]
    """Where its name stands when it is written along it: the middle of it, half-way up."""
    breaks: list[str]
    """The two waves between which a long strip is left out of the drawing; none where it is drawn whole."""
    edges: list[EdgeOut]


class InkOut(BaseModel):
    """A line of the drawn dress: what it is, its path (mm, y down), and the piece and edge it stands for."""

    ink: str
    d: str
    piece: str = ""
    edge: str = ""
    colour: str = Field("", description="Of cloth: its colour, where it has one (#rrggbb).")


class ViewOut(BaseModel):
    """The dress from one place, in the box it is drawn in (mm, y down; the floor is 0)."""

    seen: Literal["front", "side", "back"]
    box: tuple[float, float, float, float]
    paths: list[InkOut]


class LevelOut(BaseModel):
    """A level of the dress: how high it is (mm), and both its numbers as the tape reads them."""

    name: str
    at: float
    height: str
    girth: str


class DressOut(BaseModel):
    """The drawn dress."""

    views: list[ViewOut]
    levels: list[LevelOut]


class SheetOut(BaseModel):
    width: float
    height: float
    pieces: list[PieceOut]


class MarkOut(BaseModel):
    name: str
    at: float


class RunOut(BaseModel):
    piece: str
    edge: str
    length: float
    text: str


class UnrolledOut(BaseModel):
    length: float
    text: str
    whole: str
    landmarks: list[MarkOut]
    runs: list[RunOut]


class TieOut(BaseModel):
    name: str
    upper: float
    lower: float
    offset: str
    state: Literal["meets", "hidden", "off"]


class SectionOut(BaseModel):
    start: str
    end: str
    upper: str
    lower: str
    difference: str
    state: Literal["meets", "off"]


class JoinOut(BaseModel):
    """A seam on the ribbon, a join of two sections from centre front to centre back; lengths in mm, texts spoken."""

    name: str
    upper: UnrolledOut
    lower: UnrolledOut
    verdict: str
    meets: bool
    difference: str
    whole_difference: str
    sentence: str
    ties: list[TieOut]
    sections: list[SectionOut]
    remedies: list[RemedyDocument]
    upper_name: str
    lower_name: str
    fullness: float
    cut: str
    halved: bool
    between_sections: bool
    """Whether it joins two sections of the garment, as the waist seam does."""
    upper_why: int | None
    lower_why: int | None


class SeamOut(BaseModel):
    name: str
    length_a: str
    length_b: str
    difference: str
    verdict: str
    walks: bool


class StageFinding(FindingDocument):
    stage: Stage


class StepOut(BaseModel):
    """One step of the draft: its sentence, its lines, and the places it finds."""

    half: str
    text: str
    strokes: list[str]
    points: list[PointOut]


class PointOut(BaseModel):
    name: str
    x: float
    y: float


class DraftOut(BaseModel):
    """The draft to be played, front and back beside each other, in mm, y down."""

    box: tuple[float, float, float, float]
    steps: list[StepOut]


class BodiceChoice(BaseModel):
    kind: str
    title: str
    bodice: dict[str, Any]


class PartChoiceOut(BaseModel):
    """A part the recipe could have: its kind, what it is called, and as it would begin."""

    kind: str
    title: str
    part: dict[str, Any]


class ComparedRow(BaseModel):
    label: str
    mine: str
    theirs: str
    difference: str


class ComparedOut(BaseModel):
    """Two schools' outlines over each other, in mm, y down, and their lengths beside each other."""

    mine: str
    theirs: str
    box: tuple[float, float, float, float]
    my_outlines: list[str]
    their_outlines: list[str]
    rows: list[ComparedRow]


class ScreenOut(BaseModel):
    """Everything one screen needs of a recipe."""

    recipe: dict[str, Any]
    unit: Unit
    sentences: list[SentencePartOut]
    dress: DressOut
    sheet: SheetOut
    joins: list[JoinOut]
    seams: list[SeamOut]
    findings: list[StageFinding]
    workings: list[WorkingDocument]
    ready: bool
    draft: DraftOut | None
    bodices: list[BodiceChoice]
    lowers: list[PartChoiceOut]
    bands: list[PartChoiceOut]
    allowances: list[PartChoiceOut]
    steps: list[PartChoiceOut]
    trims: list[PartChoiceOut]
    is_cut: bool | None
    """Whether the lower part is cut already; None where there is none of its own."""
