"""What is sewn to what: stretches of edges laid end to end, onto others.

    a   ├── front side ──┤├── …          run a: stretches of edges, in one direction, with the names of the
        │                │               places where they begin, meet and end
    b   ├── back side ───┤├── …          run b: the same places in the same order

There is one kind of seam: a side seam, the waist seam, a sleeve in its armhole, a ruffle on a hem, a godet in its slit
and a facing on its edge differ only in what they join, and how full or eased the one is on the other.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from typing import TYPE_CHECKING

from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Section, Sign, What

if TYPE_CHECKING:
    from gentle_hem.core.workings import Worked


@dataclass(frozen=True, slots=True)
class Stretch:
    """A stretch of a piece's edge, from one length along its path to another (mm, as drawn).

    ``backwards``: the seam runs against the edge's path. ``end`` None: to the edge's end.
    """

    piece: What
    edge: str
    backwards: bool = False
    start: float = 0.0
    end: float | None = None

    @property
    def is_whole(self) -> bool:
        return self.start == 0.0 and self.end is None


@dataclass(frozen=True, slots=True)
class Run:
    """Stretches laid end to end in one direction: one side of a seam, an edge something hangs from, a hem."""

    stretches: tuple[Stretch, ...] = ()
    corners: tuple[Sign, ...] = ()
    """Where they begin, meet and end, one more than stretches; nothing where the places have no names."""
    called: str = ""
    """What it is called in a sentence; its first piece's name where nothing is said."""
    why: Worked | None = None
    """The number that says how it came to its length."""

    def __bool__(self) -> bool:
        return bool(self.stretches)

    @property
    def pieces(self) -> tuple[What, ...]:
        """The pieces it runs over, each once, in order."""
        return tuple(dict.fromkeys(stretch.piece for stretch in self.stretches))

    @property
    def name(self) -> str:
        return self.called or self.stretches[0].piece.name

    def in_section(self, section: Section) -> Run:
        """The same over the pieces of another section."""
        return replace(self, stretches=tuple(replace(s, piece=s.piece.in_section(section)) for s in self.stretches))

    def on_edge(self, old: str, new: str) -> Run:
        """The same where an edge has another name."""
        return replace(self, stretches=tuple(replace(s, edge=new) if s.edge == old else s for s in self.stretches))


def along(*edges: tuple[What, str], backwards: bool = False, called: str = "") -> Run:
    """Whole edges end to end, without names for the places between them."""
    return Run(tuple(Stretch(piece, edge, backwards) for piece, edge in edges), called=called)


class Manner(StrEnum):
    """How one edge is sewn onto another."""

    FLAT = "flat"
    GATHERED = "gathered"
    PLEATED = "pleated"


class Verdict(StrEnum):
    """How two sides of a seam compare on the stitching line."""

    MEETS = "meets"
    EASED = "eased"
    GATHERED = "gathered"
    LONGER = "too long"
    SHORTER = "too short"

    @property
    def fits(self) -> bool:
        """Whether the seam can be sewn as it is meant to be."""
        return self not in (Verdict.LONGER, Verdict.SHORTER)


@dataclass(frozen=True, slots=True)
class Seam:
    """Two runs sewn together, both in the same direction.

    ``title`` is what it is called; "{section}" in it stands for the section its first piece belongs to. ``ease`` is how
    much longer ``b`` is meant to be than ``a`` (mm; negative: shorter, and stretched on).
    """

    title: str
    a: Run
    b: Run
    ease: float = 0.0
    fullness: float = 1.0
    """How many times as long ``b`` is, to be gathered or pleated onto ``a``."""
    manner: Manner = Manner.FLAT
    repeats: str = ""
    """The outer seam that it is the lining's copy of."""

    def __post_init__(self) -> None:
        if not self.a or not self.b:
            raise ValueError(f"a seam has two sides, and one of the {self.title} has no edge")

    @property
    def name(self) -> str:
        return self.title.replace("{section}", self.a.stretches[0].piece.section)

    @property
    def is_join(self) -> bool:
        """Whether it joins two sections of the garment, or one of several alike to the next."""
        one, other = self.a.stretches[0].piece, self.b.stretches[0].piece
        return one.layer is other.layer and (one.section, one.number) != (other.section, other.number)

    @property
    def is_of_itself(self) -> bool:
        """Whether both its sides are one edge: the left and the right of a pair."""
        return self.a.stretches == self.b.stretches

    @property
    def stretches(self) -> tuple[Stretch, ...]:
        return self.a.stretches + self.b.stretches

    def in_section(self, section: Section) -> Seam:
        """The same between the pieces of another section."""
        return replace(self, a=self.a.in_section(section), b=self.b.in_section(section))


def seam_of(title: str, a: tuple[What, str], b: tuple[What, str], ease: float = 0.0) -> Seam:
    """A seam between two edges of neighbouring pieces. Both outlines run anticlockwise, so one edge runs up where the
    other runs down.
    """
    return Seam(title, Run((Stretch(*a),)), Run((Stretch(*b, backwards=True),)), ease)


def seam_of_pair(title: str, what: What, edge: str) -> Seam:
    """A seam between the left and the right of a pair cut from one piece."""
    run = Run((Stretch(what, edge),))
    return Seam(title, run, run)


def seam_of_layers(title: str, a: tuple[What, str], b: tuple[What, str]) -> Seam:
    """A seam between an edge and its copy in another layer, which runs the same way."""
    return Seam(title, Run((Stretch(*a),)), Run((Stretch(*b),)))


def centre_seams(pieces: Iterable[Piece]) -> tuple[Seam, ...]:
    """The seam down the centre of every piece that is cut as a pair with its centre not on the fold."""
    return tuple(
        seam_of_pair(f"{{section}} {edge.name} seam", piece.what, edge.name)
        for piece in pieces
        for edge in piece.edges
        if edge.role.is_centre and not piece.on_fold
    )


RIGHT = ", right"


def right_of(name: str) -> str:
    """What the right one of a seam is called where left and right are cut apart."""
    return name + RIGHT


def left_of(name: str) -> str:
    """What its left one is called, which is called as both are where they are alike."""
    return name.removesuffix(RIGHT)


def of_pieces(seams: Iterable[Seam], there: Iterable[What]) -> tuple[Seam, ...]:
    """The seams all of whose pieces are there."""
    known = set(there)
    return tuple(s for s in seams if all(stretch.piece in known for stretch in s.stretches))


def with_pairs(seams: Iterable[Seam], pieces: Iterable[Piece]) -> tuple[Seam, ...]:
    """Every seam, and the centre seam of every pair of pieces that nothing has sewn yet."""
    seams = tuple(seams)
    sewn = {(stretch.piece, stretch.edge) for seam in seams for stretch in seam.stretches}
    pairs = [
        seam_of_pair(f"{piece.name} {edge.name} seam", piece.what, edge.name)
        for piece in pieces
        for edge in piece.edges
        if edge.role.is_centre and edge.allowance > 0 and edge.finished is None
        if (piece.what, edge.name) not in sewn
    ]
    return (*seams, *pairs)
