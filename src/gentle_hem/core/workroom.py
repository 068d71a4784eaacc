"""The garment on its way through the workroom: what has been drawn and sewn so far.

block ──► band ──► lower part ──► trims ──► lining

Each stage is given it and returns it with what it adds; nothing in it is changed in place.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

from gentle_hem.core.figure import WatchedFigure
from gentle_hem.core.findings import Finding, Remedy
from gentle_hem.core.join import stitched
from gentle_hem.core.parts import Allowances, BandMade, BodiceMade, EdgeAbove, LowerMade, Opening
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam
from gentle_hem.core.what import Half, Section, What


@dataclass(frozen=True)
class Dressed:
    """The garment so far, as a stage finds it and leaves it."""

    allowances: Allowances
    opening: Opening
    figure: WatchedFigure
    pieces: Mapping[What, Piece] = field(default_factory=dict)
    seams: tuple[Seam, ...] = ()
    findings: tuple[Finding, ...] = ()
    remedies: Mapping[str, tuple[Remedy, ...]] = field(default_factory=dict)
    """Ways to close a seam that does not meet, by the seam's name."""
    above: EdgeAbove | None = None
    """The edge of the bodice that the rest hangs from; None where there is no bodice yet."""
    lower: Run = field(default_factory=Run)
    """The lower part's waist edge; empty where there is none."""
    unspread: Mapping[What, Piece] = field(default_factory=dict)
    """Pieces as they were before they were slashed and spread: what their lining is cut from."""
    hem: Run = field(default_factory=Run)
    """The lowest edge of the half garment, from centre front to centre back, godets and all."""
    length: float = 0.0
    """From the natural waist to the hem, mm."""
    opened: float = 0.0
    """What slits and vents add to the step, all round (mm)."""
    waists: Mapping[Half, float] = field(default_factory=dict)
    """The level of the natural waist on the drafted halves, mm (y up)."""
    neck_opened: float = 0.0
    """What slits in the neck add to its edge (mm)."""

    @property
    def cut_in_one(self) -> bool:
        """Whether the bodice is carried on down as a gown, without a seam below."""
        return any(what.section is Section.GOWN for what in self.pieces)

    @property
    def half_hem(self) -> float:
        """The hem of the half garment, mm."""
        return stitched(self.hem.stretches, self.pieces)

    def with_part(self, part: BodiceMade | BandMade | LowerMade) -> Dressed:
        """With all of a part: its pieces, as they are and before they were spread, its seams and findings."""
        made = self.with_pieces(part.pieces).sewn(*part.seams).also(*part.findings)
        flat = () if isinstance(part, BandMade) else part.unspread
        return replace(made, unspread={**self.unspread, **{piece.what: piece for piece in flat}})

    def with_pieces(self, pieces: Iterable[Piece]) -> Dressed:
        """With some pieces redrawn or added."""
        return replace(self, pieces={**self.pieces, **{piece.what: piece for piece in pieces}})

    def sewn(self, *seams: Seam) -> Dressed:
        return replace(self, seams=(*self.seams, *seams))

    def also(self, *findings: Finding) -> Dressed:
        return replace(self, findings=(*self.findings, *findings))

    def free(self, wanted: What) -> What:
        """What a new piece is, numbered on where there is one like it already."""
        while wanted in self.pieces:
            wanted = replace(wanted, number=wanted.number + 1)
        return wanted

    def outer_upper(self) -> tuple[Piece, ...]:
        """The outer pieces of the bodice, or of a gown cut in one."""
        return tuple(piece for piece in self.pieces.values() if piece.what.is_outer_upper())
