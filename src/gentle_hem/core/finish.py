"""Lining and interfacing: the outer pieces cut again (trade 11, 12).

outer piece ──► lining, the same seam lines, its hem ½ in shorter
facing, collar, band ──► interfacing, as they are
"""

from __future__ import annotations

from dataclasses import replace
from typing import ClassVar, Literal

from gentle_hem.core.parts import RecipePart
from gentle_hem.core.pattern import Layer, Piece, Role, Section
from gentle_hem.core.sentences import Word, choice
from gentle_hem.core.units import inches

LINING_SHORTER = inches(0.5)
"""A lining's hem is ½ in shorter than the outer's: common practice (trade 11)."""

LINED = (Section.BODICE, Section.LOWER, Section.SLEEVE)
"""A dress lined all through is lined in these; bands and collars are doubled, trims hang free."""

STIFFENED = (Section.BAND, Section.COLLAR)
"""What is interfaced beside the facings."""


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

    def pieces(self, outer: tuple[Piece, ...]) -> tuple[Piece, ...]:
        """The lining and interfacing pieces of a garment's other pieces."""
        made = []
        for piece in outer:
            section, layer = piece.what.section, piece.what.layer
            wanted = self.lining == "whole" or (self.lining == "bodice" and section is Section.BODICE)
            if wanted and section in LINED and layer is Layer.OUTER:
                made.append(_lining(piece))
            if self.interfacing == "interfaced" and (layer is Layer.FACING or section in STIFFENED):
                made.append(
                    replace(
                        piece, name=f"{piece.name} interfacing", material="interfacing",
                        what=piece.what.as_layer(Layer.INTERFACING),
                    )
                )  # fmt: skip
        return tuple(made)


def _lining(piece: Piece) -> Piece:
    edges = tuple(
        replace(edge, allowance=max(edge.allowance - LINING_SHORTER, 0.0)) if edge.role is Role.HEM else edge
        for edge in piece.edges
    )
    hemmed = any(edge.role is Role.HEM for edge in piece.edges)
    remark = "hem 1/2 in shorter than the outer" if hemmed else ""
    return replace(
        piece, name=f"{piece.name} lining", material="lining", what=piece.what.as_layer(Layer.LINING), edges=edges,
        remark=remark,
    )  # fmt: skip
