"""An edge hollowed or let out: moved in or out by so much at one place, running out to nothing at both its ends."""

from collections.abc import Callable
from math import pi, sin
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.geometry import Path
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.steps.base import EdgeName, PatternStep, Share, along, edge_word, on_each, share_word, the_edge
from gentle_hem.core.units import Length
from gentle_hem.core.what import Half

SEWN_TO_ITS_MATE = ("side", "shoulder")
"""Edges whose mate on the other half is drawn alike, whichever half was named."""

PLACES = 24
"""A curve through so many places strays from the one meant by less than 0.02 mm."""


class Hollow(PatternStep):
    """The armhole hollowed 5 mm half-way."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Hollow or let out an edge"
    sentences: ClassVar[tuple[str, ...]] = (
        "The {edge} of the {part}, {on}, is hollowed {amount} at {share} of its way"
        "[edge=side|shoulder:, and so is the edge it is sewn to].",
    )
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words, "edge": edge_word("edge"),
        "amount": length("hollowed by", help="Less than nothing lets it out."), "share": share_word("where"),
    }  # fmt: skip

    kind: Literal["hollow"] = "hollow"
    edge: EdgeName = "armhole"
    amount: Annotated[Length, between(-120, 120)] = 5.0
    share: Share = 0.5

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return (self.edge,)

    @property
    def halves(self) -> tuple[Half, ...]:
        return tuple(Half) if self.edge in SEWN_TO_ITS_MATE else super().halves

    def do(self, table: Table) -> None:
        on_each(table, self.halves, self.edge, self._hollowed)

    def _hollowed(self, piece: Piece) -> Piece:
        edge = the_edge(piece, self.edge)
        if piece.darts_of(edge.name):
            raise CannotMake(f"a dart lies in the {self.edge}; move it elsewhere first")
        if abs(self.amount) > 0.4 * edge.drawn_length:
            raise CannotMake(f"the {self.edge} is too short for it")
        most = along(edge, self.edge, min(max(self.share, 0.05), 0.95)) / edge.drawn_length
        path = bent(edge.path, lambda s: self.amount * _bump(s, most))
        return moved_with(piece, edge.name, path)


def bent(path: Path, by: Callable[[float], float]) -> Path:
    """A path moved to its left by an amount that depends on the share of its way, its end directions kept."""
    places = []
    for k in range(PLACES + 1):
        at = path.length * k / PLACES
        places.append(path.point_at(at) + path.tangent_at(at).left * by(k / PLACES))
    return smooth_through(places, leave=path.leaving, arrive=path.arriving)


def moved_with(piece: Piece, name: str, path: Path) -> Piece:
    """A piece with an edge redrawn between the same ends; notches keep their share of it."""
    times = path.length / piece.edge(name).path.length
    notches = tuple(replace(n, at=n.at * times) if n.edge == name else n for n in piece.notches)
    return replace(piece.with_edge(name, path=path), notches=notches)


def _bump(s: float, most: float) -> float:
    """From nothing at both ends to one at a share of the way, without a corner."""
    return sin(pi / 2 * (s / most if s < most else (1 - s) / (1 - most))) ** 2
