"""A bodice on the table while its style lines are drawn: pieces, seams, the waist edge, and what was found.

Every style line is a change of pieces. ``swap`` puts the new pieces in the place of the old one and keeps
every seam and the waist edge pointing at the right edges, in the right order.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from gentle_hem.core.block.shape import mirrored
from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.findings import Finding, Remedy, in_recipe, refused
from gentle_hem.core.parts import Allowances, Made
from gentle_hem.core.pattern import EdgeRef, Piece, Seam

FRONT_PIECE, BACK_PIECE = "bodice front", "bodice back"


@dataclass
class Styling:
    """The work on the table. ``pieces`` keep the order they are shown in."""

    bodice: Made
    allowances: Allowances
    pieces: dict[str, Piece] = field(default_factory=dict)
    seams: list[Seam] = field(default_factory=list)
    waist: list[EdgeRef] = field(default_factory=list)
    corners: list[str] = field(default_factory=list)
    findings: list[Finding] = field(default_factory=list)
    level: float = 0.0
    point: float = 0.0
    carried: bool = False
    usual: Mapping[str, Any] = field(default_factory=dict)
    """What each word of the style is when nothing is asked: the way out of a line that cannot be drawn."""

    def __post_init__(self) -> None:
        self.pieces = {piece.name: piece for piece in self.bodice.pieces}
        self.seams, self.waist = list(self.bodice.seams), list(self.bodice.waist)
        self.corners = list(self.bodice.corners)

    def made(self) -> Made:
        """The bodice as it lies there now."""
        return replace(
            self.bodice, pieces=tuple(self.pieces.values()), seams=tuple(self.seams), waist=tuple(self.waist),
            corners=tuple(self.corners), findings=(*self.bodice.findings, *self.findings),
            level=self.level, point=self.point, carried=self.carried,
        )  # fmt: skip

    @property
    def top_is_bare(self) -> bool:
        """Whether a shoulder has been cut away."""
        front = self.pieces[FRONT_PIECE]
        return all(s.name != "bodice shoulder seam" for s in self.seams) or any(
            e.name == "top edge" for e in front.edges
        )

    def put(self, piece: Piece) -> None:
        """A piece redrawn under its own name, or a new one laid beside the others."""
        self.pieces[piece.name] = piece

    def redraw(self, name: str, change: Callable[[Piece], Piece]) -> None:
        """A half redrawn as if its centre were on its left, whichever way round it lies."""
        piece = self.pieces[name]
        self.put(mirrored(change(mirrored(piece))) if name == BACK_PIECE else change(piece))

    def swap(
        self, old: str, new: tuple[Piece, ...], order: Mapping[str, tuple[str, ...]], corner: str, seam: Seam
    ) -> None:
        """New pieces in place of an old one. ``order`` says which of them carry each old edge, along its path;
        ``corner`` names the place on the waist between two of them; ``seam`` joins them.
        """
        laid: dict[str, Piece] = {}
        for name, piece in self.pieces.items():
            if name == old:
                laid |= {made.name: made for made in new}
            else:
                laid[name] = piece
        self.pieces = laid

        def spread(ref: EdgeRef) -> list[EdgeRef]:
            if ref.piece != old:
                return [ref]
            names = order.get(ref.edge, ())
            names = tuple(reversed(names)) if ref.backwards else names
            return [replace(ref, piece=name) for name in names]

        def all_of(refs: tuple[EdgeRef, ...]) -> tuple[EdgeRef, ...]:
            return tuple(made for ref in refs for made in spread(ref))

        self.seams = [replace(s, a=all_of(s.a), b=all_of(s.b)) for s in self.seams]
        waist: list[EdgeRef] = []
        corners = [self.corners[0]]
        for ref, end in zip(self.waist, self.corners[1:], strict=True):
            made = spread(ref)
            waist += made
            corners += [corner] * (len(made) - 1) + [end]
        self.waist, self.corners = waist, corners
        self.seams.append(seam)

    def attempt(self, what: str, place: str, work: Callable[[], None]) -> None:
        """Draw a style line; one that cannot be drawn is left out and said so."""
        kept = (dict(self.pieces), list(self.seams), list(self.waist), list(self.corners))
        try:
            work()
        except CannotDraw:
            self._undo(kept, what, place, "its lines run into each other on this block")
        except CannotMake as wrong:
            self._undo(kept, what, place, str(wrong))

    def _undo(
        self, kept: tuple[dict[str, Piece], list[Seam], list[EdgeRef], list[str]], what: str, place: str, why: str
    ) -> None:
        self.pieces, self.seams, self.waist, self.corners = kept
        out: tuple[Remedy, ...] = ()
        if place in self.usual:
            out = (Remedy("leave-out", "Leave the {what} out", {place: self.usual[place]}, values={"what": what}),)
        self.findings.append(
            refused(
                "style-line-left-out",
                "The {what} cannot be drawn here: {why}. It is left out.",
                *in_recipe(place),
                remedies=out,
                what=what,
                why=why,
            )
        )
