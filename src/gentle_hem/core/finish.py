"""Lining and interfacing: the outer pieces cut again (trade 11, 12).

outer piece ──► lining, the same seam lines, its hem ½ in shorter
facing, collar, band ──► interfacing, as they are
"""

from __future__ import annotations

from dataclasses import replace
from typing import ClassVar, Literal

from gentle_hem.core.parts import RecipePart
from gentle_hem.core.pattern import Finished, MarkKind, Piece, Role
from gentle_hem.core.seams import Run, Seam, of_pieces, seam_of_layers
from gentle_hem.core.sentences import Word, choice
from gentle_hem.core.units import inches
from gentle_hem.core.what import Layer, Panel, Section, What
from gentle_hem.core.workroom import Dressed

LINING_SHORTER = inches(0.5)
"""A lining's hem is ½ in shorter than the outer's: common practice (trade 11)."""

STIFFENED = (Section.WAISTBAND, Section.COLLAR)
"""What is interfaced beside the facings."""


def _is_lined(what: What) -> bool:
    """Whether a dress lined all through is lined there: straps, bands and collars are doubled, trims hang free."""
    section = what.section
    if what.panel is Panel.STRAP:
        return False
    return section.is_upper or section.is_lower or section is Section.SLEEVE


class Finish(RecipePart):
    """The whole dress lined, facings and bands interfaced."""

    title: ClassVar[str] = "Finish"
    sentences: ClassVar[tuple[str, ...]] = ("The dress is {lining}; its facings, collars and bands are {interfacing}.",)
    words: ClassVar[dict[str, Word]] = {
        "lining": choice(
            "lining", ("none", "not lined"), ("bodice", "lined in the bodice"), ("whole", "lined all through")
        ),
        "interfacing": choice("interfacing", ("none", "not interfaced"), ("interfaced", "interfaced")),
    }

    lining: Literal["none", "bodice", "whole"] = "none"
    interfacing: Literal["none", "interfaced"] = "none"

    def on(self, dress: Dressed) -> Dressed:
        """The garment with its lining and interfacing: lining sewn as the outer is, and to it where it ends alone."""
        lined = [piece for piece in dress.pieces.values() if self._lines(piece.what)]
        stiffened = [
            replace(
                piece, what=piece.what.as_layer(Layer.INTERFACING), material="interfacing",
                edges=tuple(replace(edge, finished=Finished.FUSED) for edge in piece.edges),
            )
            for piece in dress.pieces.values()
            if self.interfacing == "interfaced"
            and (piece.what.layer is Layer.FACING or piece.what.section in STIFFENED)
        ]  # fmt: skip
        made = dress.with_pieces([*(_lining(piece) for piece in lined), *stiffened])
        return made.sewn(*_lining_seams(dress.seams, lined))

    def _lines(self, what: What) -> bool:
        wanted = self.lining == "whole" or (self.lining == "bodice" and what.section.is_upper)
        return wanted and what.layer is Layer.OUTER and _is_lined(what)


def _lining(piece: Piece) -> Piece:
    edges = tuple(
        replace(edge, allowance=max(edge.allowance - LINING_SHORTER, 0.0)) if edge.role is Role.HEM else edge
        for edge in piece.edges
    )
    hemmed = any(edge.role is Role.HEM for edge in piece.edges)
    remark = "hem 1/2 in shorter than the outer" if hemmed else ""
    return replace(
        piece, material="lining", what=piece.what.as_layer(Layer.LINING), edges=edges, remark=remark,
        marks=tuple(mark for mark in piece.marks if mark.kind is MarkKind.DART),
    )  # fmt: skip


def _lining_seams(outer: tuple[Seam, ...], lined: list[Piece]) -> list[Seam]:
    """The outer's seams again between lined pieces; every other edge of the lining is sewn to the outer's own."""
    there = {piece.what for piece in lined}
    seams = [
        replace(seam, title=f"{seam.name} of the lining", a=_of_lining(seam.a), b=_of_lining(seam.b))
        for seam in of_pieces(outer, there)
    ]
    sewn = {(stretch.piece, stretch.edge) for seam in seams for stretch in seam.stretches}
    for piece in lined:
        own = piece.what.as_layer(Layer.LINING)
        seams += [
            seam_of_layers(f"{own.name} to its {edge.name}", (piece.what, edge.name), (own, edge.name))
            for edge in piece.edges
            if edge.allowance > 0 and edge.role not in ALONE and edge.finished is None
            if (own, edge.name) not in sewn
        ]
    return seams


ALONE = (Role.HEM, Role.CENTRE_FRONT, Role.CENTRE_BACK)
"""A lining's hem hangs by itself; its centres are closed like any pair's."""


def _of_lining(run: Run) -> Run:
    return replace(run, stretches=tuple(replace(s, piece=s.piece.as_layer(Layer.LINING)) for s in run.stretches))
