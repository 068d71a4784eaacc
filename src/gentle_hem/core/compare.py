"""Two schools side by side for one figure: both outlines on one paper, their differences in numbers.

Drafted halves share their corner: the centre line and the shoulder's level at the neck. So the
outlines can simply be laid over each other.
"""

from __future__ import annotations

from dataclasses import dataclass

from gentle_hem.core.block.bib import BibBodice
from gentle_hem.core.block.measured import MeasuredBodice
from gentle_hem.core.block.not_yet import NoBodice
from gentle_hem.core.garment import Garment
from gentle_hem.core.lower.circle import CircleSkirt
from gentle_hem.core.make_up import make_up
from gentle_hem.core.parts import BodicePart
from gentle_hem.core.pattern import Piece
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.what import Half, Section

UNDRAFTED = (MeasuredBodice, BibBodice, NoBodice)
"""Bodices without an outline to lay over another's."""

EDGES = ("waist", "side", "armhole", "shoulder", "neckline")


@dataclass(frozen=True, slots=True)
class Row:
    """One length in both drafts, mm; a dart that a draft does not have is 0."""

    label: str
    mine: float
    theirs: float

    @property
    def difference(self) -> float:
        return self.theirs - self.mine


@dataclass(frozen=True, slots=True)
class Comparison:
    """Two drafts of one figure: their halves in pairs, and every edge and dart in numbers."""

    mine: BodicePart
    theirs: BodicePart
    halves: tuple[tuple[Piece, Piece], ...]
    rows: tuple[Row, ...]


def compare_schools(recipe: Recipe, other: BodicePart) -> Comparison:
    """This recipe's block beside the one another school drafts for the same figure, both unstyled.

    Raises ValueError when either is a bodice by its measured edges, which has no draft to lay over, or cannot be
    drafted with these measures.
    """
    if isinstance(recipe.bodice, UNDRAFTED) or isinstance(other, UNDRAFTED):
        raise ValueError("This bodice has no draft to compare; choose two schools.")
    plain = recipe.model_copy(update={"lower": CircleSkirt(), "trims": (), "steps": ()})
    mine, theirs = make_up(plain), make_up(plain.model_copy(update={"bodice": other}))
    halves = tuple((_half(mine, half), _half(theirs, half)) for half in Half)
    rows = [
        Row(f"{a.what.half} {edge}", a.stitched_length(edge), b.stitched_length(edge))
        for a, b in halves
        for edge in EDGES
    ]
    for a, b in halves:
        for edge in ("waist", "side", "shoulder"):
            taken = [sum(dart.intake for dart in piece.darts_of(edge)) for piece in (a, b)]
            if any(taken):
                rows.append(Row(f"{a.what.half} dart at the {edge}", *taken))
    return Comparison(recipe.bodice, other, halves, tuple(rows))


def _half(garment: Garment, half: Half) -> Piece:
    """The block's front or back."""
    for piece in garment.pieces:
        if piece.what.is_outer(Section.BODICE, half=half):
            return piece
    raise ValueError(f"One of the two schools cannot draft the {half} with these measures; see what it asks for.")
