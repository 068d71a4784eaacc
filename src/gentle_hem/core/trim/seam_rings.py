"""Circular ruffle along any seam or edge (trade 8): rings let into a stretch of it, from one place of its way to the
next.

neckline ◗◗◗◗◗          base = both sides of the dress × the stretch, shared into rings
"""

from collections.abc import Iterable
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, model_validator

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.join import stitched
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import Edge, Notch, NotchKind, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of
from gentle_hem.core.sentences import Word, length, number
from gentle_hem.core.steps.base import (
    ON,
    PART,
    EdgeName,
    Part,
    Share,
    edge_word,
    share_word,
)
from gentle_hem.core.steps.base import Side as On
from gentle_hem.core.trim.base import Trim
from gentle_hem.core.trim.flounce import curling, rings_of_half
from gentle_hem.core.trim.on_seam import at_share, edge_on
from gentle_hem.core.trim.side_rings import rings_for
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import Half, Panel, Section, Sign, What
from gentle_hem.core.workings import Count, Workings
from gentle_hem.core.workroom import Dressed

LEAST = 40.0
"""A ruffle is let into so much of an edge at least (mm)."""


class SeamRings(Trim):
    """A circular ruffle of 6 rings along the neckline, 6 cm deep."""

    title: ClassVar[str] = "Circular ruffle along a seam"
    sentences: ClassVar[tuple[str, ...]] = (
        "A circular ruffle of {rings} rings is sewn along the {edge} of the {part}, {on}, {width} deep, from {first} "
        "to {last} of its way, its joins {join}, its hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "rings": number("rings altogether", (2, "2"), (4, "4"), (6, "6"), (8, "8")), "edge": edge_word("seam or edge"),
        "part": PART, "on": ON, "width": length("depth of the ruffle"), "first": share_word("where it begins"),
        "last": share_word("where it ends"), "join": length("join allowance of a ring"),
        "hem": length("hem of the ruffle"),
    }  # fmt: skip

    kind: Literal["seam_rings"] = "seam_rings"
    part: Part = "bodice"
    on: On = "front"
    edge: EdgeName = "neckline"
    rings: Annotated[int, number_between(1, 40, "rings")] = 4
    width: Annotated[Length, between(10, 400)] = 60.0
    first: Share = 0.0
    last: Share = 1.0
    join: Annotated[Length, between(0, 30)] = 10.0
    hem: Annotated[Length, between(0, 30)] = Field(inches(0.25), description="A narrow hem.")

    @model_validator(mode="after")
    def _runs_on(self) -> Self:
        if self.last <= self.first:
            raise ValueError("a ruffle ends further along its seam than it begins")
        return self

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("seam ruffle")
        halves = tuple(Half) if self.on == "both" else (Half(self.on),)
        found = [edge_on(dress, self.part, half, self.edge) for half in halves]
        found = found[:1] if len(found) > 1 and _are_mates(dress, found) else found
        marked, stretches = [], []
        for piece, edge in found:
            stretch = self._stretch(piece, edge)
            stretches.append(stretch)
            marked.append(_with_ends(piece, edge, stretch))
        half = stitched(stretches, {piece.what: piece for piece, _ in found})
        if half < LEAST:
            raise CannotMake(f"there is too little of the {self.edge} to sew one to")
        times = 1 if any(edge.role.is_centre for _, edge in found) else 2
        base = notes.work(
            "base", times * half, "{sides} × {stretch}", rule="both sides of the dress" if times == 2 else "one seam",
            sides=Count(times), stretch=half,
        )  # fmt: skip
        allowance = max(edge.allowance for _, edge in found) or dress.allowances.panel
        what = dress.free(What(Section.FLOUNCE, panel=Panel.SEAM_RING))
        made, numbers = rings_for(what, base, self, allowance, notes)
        own = rings_of_half(made, "top", self.rings, backwards=True)
        if times == 1:
            own = Run((Stretch(what, "top", True),) * self.rings)
        own = replace(own, corners=(), why=base)
        above = Run(tuple(stretches), called=self.edge, why=base)
        joined = seam_of(f"{what.name} join", (what, "start"), (what, "end"))
        dress = dress.with_pieces([*marked, made]).sewn(Seam(f"{what.name} seam", above, own), joined)
        return dress.also(*curling(numbers, where))

    def _stretch(self, piece: Piece, edge: Edge) -> Stretch:
        """The stretch of an edge that it is sewn to, from one share of its way to another."""
        low, high = sorted(at_share(piece, edge, self.edge, share) for share in (self.first, self.last))
        return Stretch(piece.what, edge.name, False, low, high if high < edge.drawn_length - 0.01 else None)


def _are_mates(dress: Dressed, found: Iterable[tuple[Piece, Edge]]) -> bool:
    """Whether two edges are sewn to each other, so that what is let into one is let into both."""
    wanted = {(piece.what, edge.name) for piece, edge in found}
    return any({(s.piece, s.edge) for s in seam.stretches} == wanted for seam in dress.seams)


def _with_ends(piece: Piece, edge: Edge, stretch: Stretch) -> Piece:
    """A piece with a notch where the ruffle begins or ends within an edge."""
    places = [at for at in (stretch.start, stretch.end) if at]
    marks = (Notch(edge.name, at, Sign("ruffle end"), kind=NotchKind.OPEN) for at in places)
    return replace(piece, notches=(*piece.notches, *marks))
