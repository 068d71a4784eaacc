"""Notions: what a dress takes besides its cloth, read off the pattern.

zip         from the top of its opening to the mark where it ends, over every piece it crosses
buttons     as many as there are buttonholes
lacing      a cord, and bones beside the loops on either side
elastic     as long as its working says, once for each place it draws in
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from gentle_hem.core.garment import Garment
from gentle_hem.core.making.operation import Closure
from gentle_hem.core.making.plan import Plan
from gentle_hem.core.parts import OpeningPlace
from gentle_hem.core.pattern import Edge, MarkKind, NotchKind, Piece, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.what import Half, Layer, Panel, Section, What

ZIPPED = {
    OpeningPlace.CENTRE_BACK: (Role.CENTRE_BACK, Half.BACK),
    OpeningPlace.CENTRE_FRONT: (Role.CENTRE_FRONT, Half.FRONT),
    OpeningPlace.SIDE: (Role.SIDE, Half.FRONT),
}
"""The edge a zip lies on, on one of the two sides it closes."""


class Notion(StrEnum):
    """What is bought beside cloth."""

    ZIP = "zip"
    HOOK = "hook and eye"
    BUTTONS = "buttons"
    CORD = "lacing cord"
    BONES = "bones"
    ELASTIC = "elastic"


@dataclass(frozen=True, slots=True)
class Needed:
    """A notion: how many, and how long each is (mm; None where it has no length)."""

    notion: Notion
    count: int
    length: float | None = None


def notions(garment: Garment, recipe: Recipe, plan: Plan) -> tuple[Needed, ...]:
    """What a dress takes besides its cloth, each once."""
    return tuple(_needed(garment, recipe, plan))


def _needed(garment: Garment, recipe: Recipe, plan: Plan) -> Iterator[Needed]:
    closed_with = {closure for one in plan.operations for closure in one.closures}
    if Closure.ZIP in closed_with:
        taken = {what for one in plan.operations if Closure.ZIP in one.closures for what in one.pieces}
        long = _zip_length(garment, recipe, taken)
        yield Needed(Notion.ZIP, 1, long or None)
        yield Needed(Notion.HOOK, 1)
    holes = sum(
        (piece.cut // 2 if piece.what.section is Section.TAB else 1)  # a tab is two layers with one buttonhole
        for piece in garment.pieces for mark in piece.marks if mark.kind is MarkKind.BUTTONHOLE
    )  # fmt: skip
    if holes:
        yield Needed(Notion.BUTTONS, holes)
    strips = [piece for piece in garment.pieces if piece.what.panel is Panel.LACING]
    if strips:
        yield Needed(Notion.CORD, 1)
        yield Needed(Notion.BONES, 2)
    for working in garment.workings:
        if working.buys is not None:
            yield Needed(Notion.ELASTIC, working.buys.count, working.value)


def _zip_length(garment: Garment, recipe: Recipe, taken: set[What]) -> float:
    """From the top of the opening to where the zip ends, over every piece it crosses."""
    role, half = ZIPPED[recipe.opening.place]
    long = 0.0
    for piece in garment.pieces:
        if piece.what.layer is not Layer.OUTER or piece.what.half not in (half, None):
            continue
        for edge in piece.edges:
            if edge.role is not role:
                continue
            end = _zip_end(piece, edge)
            if end is not None:
                long += end
            elif not piece.what.section.is_lower or piece.what in taken:
                long += edge.path.length
    return long


def _zip_end(piece: Piece, edge: Edge) -> float | None:
    """How far below the edge's top the zip ends on it, where it ends on it."""
    for notch in piece.notches:
        if notch.edge == edge.name and notch.kind is NotchKind.ZIP_END:
            is_down = edge.path.start.y > edge.path.end.y
            return notch.at if is_down else edge.path.length - notch.at
    return None
