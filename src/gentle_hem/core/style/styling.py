"""A bodice on the table while its style lines are drawn: pieces, seams, the waist edge, and what was found.

Every style line is a change of pieces. ``swap`` puts the new pieces in the place of the old one and keeps
every seam and the waist edge pointing at the right edges, in the right order.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.cutting import true
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.findings import Finding, Remedy, in_recipe, refused
from gentle_hem.core.parts import Allowances, BodiceMade, EdgeAbove
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, with_pairs
from gentle_hem.core.what import UNNAMED, Half, Section, Sign, What


@dataclass
class Styling:
    """The work on the table. ``pieces`` keep the order they are shown in."""

    bodice: BodiceMade
    allowances: Allowances
    section: Section = Section.BODICE
    pieces: dict[What, Piece] = field(default_factory=dict)
    seams: list[Seam] = field(default_factory=list)
    waist: Run = field(default_factory=Run)
    findings: list[Finding] = field(default_factory=list)
    level: float = 0.0
    point: float = 0.0
    unspread: tuple[Piece, ...] = ()
    other_waist: Run = field(default_factory=Run)
    usual: Mapping[str, Any] = field(default_factory=dict)
    """What each word of the style is when nothing is asked: the way out of a line that cannot be drawn."""

    def __post_init__(self) -> None:
        self.pieces = {piece.what: piece for piece in self.bodice.pieces}
        self.seams = list(self.bodice.seams)
        assert self.bodice.edge is not None, "there is a bodice to style"
        self.waist = self.bodice.edge.run

    @property
    def front(self) -> What:
        """The whole front of the bodice or gown."""
        return What(self.section, Half.FRONT)

    @property
    def back(self) -> What:
        return What(self.section, Half.BACK)

    def made(self) -> BodiceMade:
        """The bodice as it lies there now."""
        return replace(
            self.bodice, pieces=tuple(self.pieces.values()), seams=tuple(self.seams),
            edge=EdgeAbove(self.waist, self.level, self.point), findings=(*self.bodice.findings, *self.findings),
            unspread=self.unspread, other_waist=self.other_waist,
        )  # fmt: skip

    @property
    def top_is_bare(self) -> bool:
        """Whether a shoulder has been cut away."""
        edges = self.pieces[self.front].edges
        return not any(e.role is Role.SHOULDER for e in edges) or any(e.name == "top edge" for e in edges)

    def drop_seams_of(self, role: Role) -> None:
        """Forget the seams over edges of a kind that have been cut away."""
        there = {(p.what, e.name) for p in self.pieces.values() for e in p.edges if e.role is role}
        old = {(p.what, e.name) for p in self.bodice.pieces for e in p.edges if e.role is role}
        gone = old - there
        self.seams = [s for s in self.seams if not any((x.piece, x.edge) in gone for x in s.stretches)]

    def true(self) -> None:
        """Its waists and sides trued over the seams and darts they have so far; a block brought in stays as it is."""
        if not self.bodice.draft:
            return
        if self.unspread:
            flat = self.pieces | {piece.what: piece for piece in self.unspread}
            there = {(piece.what, edge.name) for piece in flat.values() for edge in piece.edges}
            seams = [s for s in self.seams if all((x.piece, x.edge) in there for x in s.stretches)]
            as_flat, _ = true.trued(flat, with_pairs(seams, flat.values()))
            self.unspread = tuple(as_flat[piece.what] for piece in self.unspread)
        self.pieces, _ = true.trued(self.pieces, with_pairs(self.seams, self.pieces.values()))

    def put(self, piece: Piece) -> None:
        """A piece redrawn, or a new one laid beside the others."""
        self.pieces[piece.what] = piece

    def redraw(self, what: What, change: Callable[[Piece], Piece]) -> None:
        """A half redrawn as if its centre were on its left, whichever way round it lies."""
        piece = self.pieces[what]
        self.put(mirrored(change(mirrored(piece))) if what.half is Half.BACK else change(piece))

    def swap(
        self, old: What, new: tuple[Piece, ...], order: Mapping[str, tuple[What, ...]], corner: Sign, seam: Seam
    ) -> None:
        """New pieces in place of an old one. ``order`` says which of them carry each old edge, along its path;
        ``corner`` names the place on the waist between two of them; ``seam`` joins them.
        """
        laid: dict[What, Piece] = {}
        for what, piece in self.pieces.items():
            if what == old:
                laid |= {made.what: made for made in new}
            else:
                laid[what] = piece
        self.pieces = laid

        def spread(stretch: Stretch) -> list[Stretch]:
            if stretch.piece != old:
                return [stretch]
            parts = order.get(stretch.edge, ())
            parts = tuple(reversed(parts)) if stretch.backwards else parts
            return [replace(stretch, piece=part) for part in parts]

        def over(run: Run, between: Sign) -> Run:
            stretches: list[Stretch] = []
            corners = list(run.corners[:1])
            for k, stretch in enumerate(run.stretches):
                made = spread(stretch)
                stretches += made
                if run.corners:
                    corners += [between] * (len(made) - 1) + [run.corners[k + 1]]
            return replace(run, stretches=tuple(stretches), corners=tuple(corners))

        self.seams = [replace(s, a=over(s.a, UNNAMED), b=over(s.b, UNNAMED)) for s in self.seams]
        self.waist = over(self.waist, corner)
        self.other_waist = over(self.other_waist, corner)
        self.seams.append(seam)

    def attempt(self, what: str, place: str, work: Callable[[], None]) -> None:
        """Draw a style line; one that cannot be drawn is left out and said so."""
        kept = dict(self.pieces), list(self.seams), self.waist, self.other_waist
        try:
            work()
        except CannotDraw:
            self._undo(kept, what, place, "its lines run into each other on this block")
        except CannotMake as wrong:
            self._undo(kept, what, place, str(wrong))

    def _undo(self, kept: tuple[dict[What, Piece], list[Seam], Run, Run], what: str, place: str, why: str) -> None:
        self.pieces, self.seams, self.waist, self.other_waist = kept
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
