"""The two pieces of a seam laid edge to edge, as they lie on the table when a corner over the seam is looked at.

a │╲ b        together where the seam begins at its top; what one edge has more, or bends otherwise, is seen there
  │ ╲
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.findings import say
from gentle_hem.core.geometry import Path, Placement
from gentle_hem.core.pattern import Piece
from gentle_hem.core.seams import Seam, Stretch
from gentle_hem.core.units import Said
from gentle_hem.core.what import What

LOOKED = 60
"""At so many places it is looked how far two edges stray from each other."""


@dataclass(frozen=True, slots=True)
class Laid:
    """A piece as it is put down, and the stretch of its edge that is sewn, in the direction of the seam."""

    piece: Piece
    outline: Path
    edge: Path


@dataclass(frozen=True, slots=True)
class LaidTogether:
    """Both sides of a seam, and how far their edges stray from each other at most on the way (mm)."""

    one: Laid
    other: Laid
    apart: float


def laid_together(seam: Seam, pieces: Mapping[What, Piece]) -> LaidTogether:
    """Raises CannotMake where a side of the seam runs over several pieces: there is no one way to lay those."""
    if len(seam.a.stretches) != 1 or len(seam.b.stretches) != 1:
        raise CannotMake("the seam runs over several pieces; lay those of each piece together by their own seams")
    first, second = seam.a.stretches[0], seam.b.stretches[0]
    one, other = pieces[first.piece], pieces[second.piece]
    if one.at_edge(first.edge) is None or other.at_edge(second.edge) is None:
        raise CannotMake("one of its sides is a line marked inside a piece, which nothing can be laid against")
    mine, theirs = _downward(_sewn(one, first), _sewn(other, second))
    # outlines run anticlockwise: two edges sewn in one direction lie on one side of the seam until one is turned over
    turned_over = first.backwards == second.backwards
    over = Placement.mirror(theirs.start, theirs.end) if turned_over else Placement()
    along, onto = over.place(theirs.end) - over.place(theirs.start), mine.end - mine.start
    turned = over.then(Placement.turning(along, onto))
    put = turned.then(Placement.shift(mine.start - turned.place(theirs.start)))
    beside = theirs.placed(put)
    shares = [k / LOOKED for k in range(LOOKED + 1)]
    apart = max(mine.point_at(s * mine.length).distance(beside.point_at(s * beside.length)) for s in shares)
    return LaidTogether(Laid(one, one.seam_line, mine), Laid(other, other.seam_line.placed(put), beside), apart)


def _sewn(piece: Piece, stretch: Stretch) -> Path:
    """The stretch of an edge that is sewn, in the direction of its seam."""
    path = piece.edge(stretch.edge).path
    if not stretch.is_whole:
        path = path.between(stretch.start, path.length if stretch.end is None else stretch.end)
    return path.reversed() if stretch.backwards else path


def _downward(mine: Path, theirs: Path) -> tuple[Path, Path]:
    """Both the other way round where the first would run upwards."""
    return (mine.reversed(), theirs.reversed()) if mine.start.y < mine.end.y - 1.0 else (mine, theirs)


ALONG = 0.5
"""Edges that stray from each other by no more than this lie along each other (mm)."""


def said(laid: LaidTogether, unit: Said) -> str:
    """How the two lie, in a sentence."""
    if laid.apart <= ALONG:
        return "Laid together at the end of the seam, both edges lie along each other all the way."
    return say(
        "Laid together at one end of the seam, the edges part by {apart} at most: what is shaped or eased there.",
        {"apart": laid.apart}, unit,
    )  # fmt: skip
