"""Every thing that is cut: a piece may be cut once, as a pair, or many times alike.

piece on the fold      ──► one whole (or as many as it has layers)
piece of a pair        ──► a left one, and a right one with the paper turned over
piece cut alike        ──► so many, all the same way up: gores, godets, rings
"""

from __future__ import annotations

from collections.abc import Container
from dataclasses import dataclass
from enum import StrEnum

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.garment import Garment
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.what import What


class Side(StrEnum):
    """Which of the things cut from one piece it is."""

    WHOLE = "whole"
    LEFT = "left"
    RIGHT = "right"
    ALIKE = "alike"


@dataclass(frozen=True, slots=True)
class CutPiece:
    """One physical thing of cloth: what it is, which of its kind, how it lies on the cloth, and what it is sewn to."""

    piece: What
    side: Side
    number: int
    """Counted from 1 among those of its kind and side: layers, or pieces all alike."""
    turned_over: bool
    on_fold: bool
    cloth: ClothRole
    seams: tuple[str, ...]

    @property
    def name(self) -> str:
        """What it is called on the table: "left bodice back", "gore 3"."""
        if self.side in (Side.LEFT, Side.RIGHT):
            name = f"{self.side} {replace(self.piece, other=False).name}"
            return name if self.number == 1 else f"{name}, layer {self.number}"
        if self.side is Side.ALIKE:
            return f"{self.piece.name} {self.number}"
        return self.piece.name if self.number == 1 else f"{self.piece.name}, layer {self.number}"


def cut_pieces(garment: Garment) -> tuple[CutPiece, ...]:
    """Everything that is cut for a garment, in the order of its pieces; a paper template is cut from no cloth."""
    sewn: dict[What, list[str]] = {}
    for walked in garment.seams:
        for what in dict.fromkeys(stretch.piece for stretch in walked.seam.stretches):
            sewn.setdefault(what, []).append(walked.name)
    rights = [piece.what for piece in garment.pieces if piece.turned_over]
    apart = {*rights, *(replace(what, other=False) for what in rights)}
    return tuple(
        CutPiece(piece.what, side, number, side is Side.RIGHT, piece.on_fold, piece.cloth,
                 tuple(sewn.get(piece.what, ())))
        for piece in garment.pieces
        if piece.cloth is not ClothRole.PAPER
        for side, number in _things(piece, apart)
    )  # fmt: skip


def _things(piece: Piece, apart: Container[What]) -> list[tuple[Side, int]]:
    if piece.on_fold:
        return [(Side.WHOLE, number) for number in range(1, piece.cut + 1)]
    if piece.alike:
        return [(Side.ALIKE, number) for number in range(1, piece.cut + 1)]
    if piece.what in apart:
        return [(Side.RIGHT if piece.turned_over else Side.LEFT, 1)]
    if piece.cut % 2:
        return [(Side.WHOLE, number) for number in range(1, piece.cut + 1)]
    return [(side, number) for number in range(1, piece.cut // 2 + 1) for side in (Side.LEFT, Side.RIGHT)]
