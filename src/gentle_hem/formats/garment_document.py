"""garment.json: the garment in plain numbers, as the contract writes it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

from pydantic import BaseModel, Field

from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.findings import Finding, Remedy
from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Path
from gentle_hem.core.pattern import Piece
from gentle_hem.core.seams import Run
from gentle_hem.core.tongue import named
from gentle_hem.core.units import Said
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import What
from gentle_hem.core.workings import Working, speak, speak_exactly

CURVE_TOLERANCE = 0.01
"""How far the points' chords may stray from the true curve (mm); the contract allows 0.1."""

XY = tuple[float, float]


class EdgeDocument(BaseModel):
    name: str
    role: str
    length: float
    drawn_length: float
    allowance: float
    finished: str = Field(description="How it is finished alone, where it is in no seam; otherwise empty.")
    points: list[XY]


class NotchDocument(BaseModel):
    edge: str
    at: float
    landmark: str
    double: bool
    kind: str


class DartDocument(BaseModel):
    edge: str
    at: float
    intake: float
    apex: XY
    landmark: str
    pleat: bool = Field(description="Left open: folded over at its edge instead of stitched to a point.")
    legs: tuple[list[XY], list[XY]] = Field(description="Its near and its far leg, each from the edge to the apex.")


class MarkDocument(BaseModel):
    kind: str
    name: str = Field(description="Where something is sewn to it; otherwise empty.")
    points: list[XY]


class PieceDocument(BaseModel):
    name: str
    material: str
    cut: int
    on_fold: bool
    seam_line: list[XY]
    cut_line: list[XY]
    grain: tuple[XY, XY]
    edges: list[EdgeDocument]
    notches: list[NotchDocument]
    darts: list[DartDocument]
    marks: list[MarkDocument]
    remark: str


class CutPieceDocument(BaseModel):
    """One thing that is cut."""

    name: str
    piece: str
    side: str = Field(description="whole, left, right, or alike.")
    turned_over: bool = Field(description="Whether the paper is turned over to cut it.")
    on_fold: bool
    material: str
    seams: list[str]


class StretchDocument(BaseModel):
    """A stretch of an edge, or of a line marked inside a piece: from one length along its points to another."""

    piece: str
    edge: str
    backwards: bool = Field(description="Whether the seam runs against the edge's points.")
    start: float = Field(alias="from")
    end: float = Field(alias="to")


class SeamDocument(BaseModel):
    name: str
    a: list[StretchDocument]
    b: list[StretchDocument]
    length_a: float
    length_b: float
    ease: float
    fullness: float
    manner: str
    verdict: str


class RemedyDocument(BaseModel):
    code: str
    text: str
    cost: str
    changes: dict[str, Any]


class PlaceDocument(BaseModel):
    recipe: str
    piece: str
    edge: str


class FindingDocument(BaseModel):
    code: str
    severity: Literal["stop", "warn", "note"]
    text: str
    at: list[PlaceDocument]
    remedies: list[RemedyDocument]


class InputDocument(BaseModel):
    name: str
    text: str
    working: int | None = Field(description="Which working it came from, by its place in the list.")


class InsteadDocument(BaseModel):
    rule: str
    text: str


class WorkingDocument(BaseModel):
    topic: str
    label: str
    formula: str
    line: str
    value: float
    kind: str
    text: str
    exact: str
    rule: str
    rounding: str
    inputs: list[InputDocument]
    instead: list[InsteadDocument]


class GarmentDocument(BaseModel):
    units: Literal["mm"] = "mm"
    pieces: list[PieceDocument]
    cut_pieces: list[CutPieceDocument]
    seams: list[SeamDocument]
    findings: list[FindingDocument]
    workings: list[WorkingDocument]


def points(path: Path) -> list[XY]:
    """A path as points within CURVE_TOLERANCE of it."""
    return [(p.x, p.y) for p in path.flatten(CURVE_TOLERANCE)]


def piece_document(piece: Piece) -> PieceDocument:
    edges = [
        EdgeDocument(
            name=edge.name,
            role=edge.role.value,
            length=piece.stitched_length(edge.name),
            drawn_length=edge.drawn_length,
            allowance=edge.allowance,
            finished=edge.finished.value if edge.finished else "",
            points=points(edge.path),
        )
        for edge in piece.edges
    ]
    start, end = piece.grain
    return PieceDocument(
        name=piece.name,
        material=piece.cloth.value,
        cut=piece.cut,
        on_fold=piece.on_fold,
        seam_line=points(piece.seam_line),
        cut_line=points(piece.cut_line),
        grain=((start.x, start.y), (end.x, end.y)),
        edges=edges,
        notches=[
            NotchDocument(edge=n.edge, at=n.at, landmark=str(n.landmark), double=n.double, kind=n.kind.value)
            for n in piece.notches
        ],
        darts=[
            DartDocument(
                edge=d.edge,
                at=d.at,
                intake=d.intake,
                apex=(d.apex.x, d.apex.y),
                landmark=str(d.landmark),
                pleat=d.pleat,
                legs=tuple([(p.start.x, p.start.y), *((s.end.x, s.end.y) for s in p)] for p in piece.dart_leg_paths(d)),
            )
            for d in piece.darts
        ],
        marks=[MarkDocument(kind=m.kind.value, name=m.name, points=points(m.path)) for m in piece.marks],
        remark=piece.remark,
    )


def _stretches(run: Run, pieces: Mapping[What, Piece]) -> list[StretchDocument]:
    return [
        StretchDocument.model_validate(
            {
                "piece": s.piece.name, "edge": s.edge, "backwards": s.backwards, "from": s.start,
                "to": pieces[s.piece].edge(s.edge).drawn_length if s.end is None else s.end,
            }
        )
        for s in run.stretches
    ]  # fmt: skip


def seam_document(walked: Walked, pieces: Mapping[What, Piece]) -> SeamDocument:
    seam = walked.seam
    return SeamDocument(
        name=seam.name,
        a=_stretches(seam.a, pieces),
        b=_stretches(seam.b, pieces),
        length_a=walked.length_a,
        length_b=walked.length_b,
        ease=seam.ease,
        fullness=seam.fullness,
        manner=seam.manner.value,
        verdict=walked.verdict.value,
    )


def remedy_document(remedy: Remedy, unit: Said) -> RemedyDocument:
    return RemedyDocument(
        code=remedy.code, text=remedy.text(unit), cost=remedy.cost(unit), changes=dict(remedy.changes)
    )


def finding_document(finding: Finding, unit: Said) -> FindingDocument:
    return FindingDocument(
        code=finding.code,
        severity=finding.severity.value,
        text=finding.text(unit),
        at=[PlaceDocument(recipe=p.recipe, piece=p.piece, edge=p.edge) for p in finding.at],
        remedies=[remedy_document(remedy, unit) for remedy in finding.remedies],
    )


def workings_documents(workings: tuple[Working, ...], unit: Said) -> list[WorkingDocument]:
    """The workings in order; an input that is itself a working says which one."""
    place = {id(working): index for index, working in enumerate(workings)}
    return [
        WorkingDocument(
            topic=w.topic,
            label=w.label,
            formula=w.formula,
            line=w.line(unit),
            value=w.value,
            kind=w.kind.value,
            text=speak(w.value, unit, w.kind),
            exact=speak_exactly(w.value, unit, w.kind),
            rule=w.rule,
            rounding=w.rounding,
            inputs=[
                InputDocument(
                    name=named(name.replace("_", " ")),
                    text=speak(value, unit),
                    working=place.get(id(getattr(value, "working", None))),
                )
                for name, value in w.inputs.items()
            ],
            instead=[InsteadDocument(rule=rule, text=speak(value, unit, w.kind)) for rule, value in w.instead],
        )
        for w in workings
    ]


def garment_document(garment: Garment, unit: Said) -> GarmentDocument:
    """The whole garment in plain numbers, its sentences in the asked unit."""
    pieces = {piece.what: piece for piece in garment.pieces}
    return GarmentDocument(
        pieces=[piece_document(piece) for piece in garment.pieces],
        cut_pieces=[
            CutPieceDocument(
                name=one.name,
                piece=one.piece.name,
                side=one.side.value,
                turned_over=one.turned_over,
                on_fold=one.on_fold,
                material=one.cloth.value,
                seams=list(one.seams),
            )
            for one in cut_pieces(garment)
        ],
        seams=[seam_document(walked, pieces) for walked in garment.seams],
        findings=[finding_document(finding, unit) for finding in garment.findings],
        workings=workings_documents(garment.workings, unit),
    )
