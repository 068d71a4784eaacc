"""What a recipe makes. All of it is derived from the recipe; none of it is stored."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property

from gentle_hem.core.drafting import Step
from gentle_hem.core.findings import Finding, Severity
from gentle_hem.core.pattern import Piece
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import Half, What
from gentle_hem.core.workings import Working


@dataclass(frozen=True)
class Garment:
    """Pieces, walked seams, and every number's working and finding."""

    pieces: tuple[Piece, ...] = ()
    seams: tuple[Walked, ...] = ()
    workings: tuple[Working, ...] = ()
    findings: tuple[Finding, ...] = ()
    draft: tuple[Step, ...] = ()
    waists: Mapping[Half, float] = field(default_factory=dict)
    """The level of the natural waist on the pieces of the upper part, where it is known (mm, y up)."""
    unspread: Mapping[What, Piece] = field(default_factory=dict)
    """Pieces as they were before they were slashed and spread: as they lie when their fullness is gathered or tied."""

    seamed: Garment | None = None
    """The same with every seam, where some pieces are cut in one: as it lies on her."""
    became: Mapping[tuple[str, str], tuple[str, str] | None] = field(default_factory=dict)
    """Of each piece and edge of it that are in another here: which; None for an edge that is gone with its seam."""

    def piece(self, name: str) -> Piece:
        """The piece with this name; KeyError when there is none."""
        for piece in self.pieces:
            if piece.name == name:
                return piece
        raise KeyError(f"the garment has no piece called {name}")

    @cached_property
    def joins(self) -> tuple[Walked, ...]:
        """The seams that join one section of the garment to another, from the top down."""
        return tuple(walked for walked in self.seams if walked.seam.is_join)

    @property
    def is_ready_to_cut(self) -> bool:
        return not any(finding.severity is Severity.STOP for finding in self.findings)
