"""The papers a pattern is printed on, and how: tiled, on whole sheets or on a roll.

tiles to be joined        whole pieces on large sheets       a roll as long as it takes
┌──┬──┐                   ┌─────┐ ┌─────┐                   ┌─────────────── ─ ─
├──┼──┤                   │ ◗ ▮ │ │ ▲   │                   │ ◗ ▮ ▲ ◆
└──┴──┘                   └─────┘ └─────┘                   └─────────────── ─ ─
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from gentle_hem.core.units import Said, Unit, inches, tape


class Paper(StrEnum):
    """The paper in the maker's printer or plotter: sizes by ISO 216, and in inches as they are sold."""

    A4 = "a4"
    LETTER = "letter"
    A3 = "a3"
    LEGAL = "legal"
    A2 = "a2"
    A1 = "a1"
    A0 = "a0"
    ROLL = "roll"
    """36 in wide, and as long as it takes."""

    @property
    def size(self) -> tuple[float, float]:
        """Width and height in mm, upright; of a roll its longest stretch."""
        return SIZES[self]


def paper_for(said: Said) -> Paper:
    """The paper a document is written on: Letter where inches are read, A4 elsewhere."""
    return Paper.LETTER if tape(said).unit is Unit.INCH else Paper.A4


LONGEST_STRETCH = 5000.0
"""No stretch of a roll is longer than this: a page of a PDF is at most 200 in (5080 mm)."""

SIZES: dict[Paper, tuple[float, float]] = {
    Paper.A4: (210.0, 297.0),
    Paper.LETTER: (inches(8.5), inches(11)),
    Paper.A3: (297.0, 420.0),
    Paper.LEGAL: (inches(8.5), inches(14)),
    Paper.A2: (420.0, 594.0),
    Paper.A1: (594.0, 841.0),
    Paper.A0: (841.0, 1189.0),
    Paper.ROLL: (inches(36), LONGEST_STRETCH),
}


class Joins(StrEnum):
    """How neighbouring pages are joined."""

    OVERLAP = "overlap"
    """Laid over each other by a strip that both have, and glued."""
    BUTT = "butt"
    """Cut along their frames and laid edge to edge, and taped."""


class Lines(StrEnum):
    """Which outlines are printed."""

    BOTH = "both"
    CUT = "cut"
    SEAM = "seam"


class Scale(StrEnum):
    """True size, or smaller for a trial."""

    FULL = "1"
    HALF = "1/2"
    QUARTER = "1/4"

    @property
    def factor(self) -> float:
        return {Scale.FULL: 1.0, Scale.HALF: 0.5, Scale.QUARTER: 0.25}[self]


@dataclass(frozen=True, slots=True)
class Printing:
    """How a pattern is printed."""

    paper: Paper = Paper.A4
    scale: Scale = Scale.FULL
    joins: Joins = Joins.OVERLAP
    lines: Lines = Lines.BOTH
    words: bool = True
    opened: bool = False
    """Whether pieces on the fold are opened out."""
    pieces: frozenset[str] = frozenset()
    """Which pieces, by name; nothing: all."""
    own_size: tuple[float, float] | None = None
    """A sheet of one's own, width and height (mm), in the place of the paper."""

    @property
    def size(self) -> tuple[float, float]:
        return self.own_size or self.paper.size

    @property
    def overlap(self) -> float:
        """How far neighbouring pages repeat each other (mm)."""
        return OVERLAP if self.joins is Joins.OVERLAP else 0.0

    @property
    def name(self) -> str:
        """What the paper is called on the map page."""
        if self.own_size and self.paper is Paper.ROLL:
            return f"{self.own_size[1] / 10:.0f} cm of a 36 in roll"
        if self.own_size:
            return f"{self.own_size[0]:.0f} × {self.own_size[1]:.0f} mm"
        return {Paper.ROLL: "36 in roll", Paper.LETTER: "Letter", Paper.LEGAL: "Legal"}.get(
            self.paper, self.paper.value.upper()
        )


OVERLAP = 10.0
"""How far neighbouring pages repeat each other where they are glued (mm)."""

MARGIN = 10.0
"""White border no printer can print on (mm)."""
