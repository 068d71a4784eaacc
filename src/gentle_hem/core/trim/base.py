"""Added fullness, and what is added at the top: each a part laid onto a garment that is already there.

    garment so far ──► trim ──► the garment with pieces added or changed, its new joins, its new hem

Trims are made up in the order they stand in the recipe, each on what the ones before it left.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from enum import IntEnum
from typing import ClassVar

from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding
from gentle_hem.core.join import Unrolled, unroll
from gentle_hem.core.parts import Allowances, InnerJoin, Opening, RecipePart
from gentle_hem.core.pattern import EdgeRef, Piece, Seam
from gentle_hem.core.workings import Workings


@dataclass(frozen=True)
class Dressed:
    """The garment so far, as a trim finds it and leaves it."""

    pieces: dict[str, Piece]
    hem: tuple[EdgeRef, ...]
    hem_corners: tuple[str, ...]
    allowances: Allowances
    opening: Opening
    figure: Figure
    length: float
    """From the waist to the hem, mm."""
    upper: frozenset[str] = frozenset()
    """The names of the bodice's pieces."""
    lower: frozenset[str] = frozenset()
    """The names of the lower part's own pieces."""
    seams: tuple[Seam, ...] = ()
    joins: tuple[InnerJoin, ...] = ()
    findings: tuple[Finding, ...] = ()
    extra_hem: float = 0.0
    """Hem of the half garment that lies in pieces of its own between the others: godets."""
    opened: float = 0.0
    """What slits and vents add to the step, all round."""
    marks: dict[str, str] = field(default_factory=dict)

    def base(self) -> Unrolled:
        """The hem laid straight, half garment, without what godets add."""
        return unroll(self.hem, self.pieces, self.hem_corners)

    @property
    def half_hem(self) -> float:
        """The hem of the half garment, godets and all."""
        return self.base().length + self.extra_hem

    def with_pieces(self, pieces: Iterable[Piece]) -> dict[str, Piece]:
        """All pieces with some changed or added."""
        return {**self.pieces, **{piece.name: piece for piece in pieces}}

    def also(self, *findings: Finding) -> Dressed:
        return replace(self, findings=(*self.findings, *findings))

    def free_name(self, wanted: str) -> str:
        """A name no piece has yet."""
        if wanted not in self.pieces:
            return wanted
        n = 2
        while f"{wanted} {n}" in self.pieces:
            n += 1
        return f"{wanted} {n}"


class Turn(IntEnum):
    """When a trim is made up, whatever its place among the sentences: what is let into the panels comes before what is
    sewn to their hem, so that trims in any order give one garment.
    """

    INTO_THE_PANELS = 0
    AT_THE_HEM = 1
    ELSEWHERE = 2


class Trim(RecipePart):
    """One thing added to a garment."""

    turn: ClassVar[Turn] = Turn.ELSEWHERE

    def cut_first(self, dress: Dressed, where: str) -> Dressed:
        """What is cut off before any trim is made up: the stretch of hem that a strip takes the place of."""
        return dress

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        """The garment with this added. ``where`` is the trim's place in the recipe. Never raises for a valid recipe."""
        raise TypeError(f"{type(self).__name__} does not say how it is made up")
