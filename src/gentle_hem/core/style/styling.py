"""A bodice on the table while its style lines are drawn: what it is, its waist edge, and what was found."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field

from gentle_hem.core.cutting.table import Table
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, in_recipe, refused
from gentle_hem.core.parts import Allowances, BodiceMade, EdgeAbove
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run
from gentle_hem.core.what import Half, Section, What
from gentle_hem.core.workings import Workings


@dataclass
class Styling(Table):
    """The bodice on the table; its runs are its waist, and that of the other half where the two are not alike."""

    bodice: BodiceMade = field(kw_only=True)
    section: Section = Section.BODICE
    level: float = 0.0
    lowered: float = 0.0
    """How much lower than her own its waist has been moved (mm)."""
    point: float = 0.0
    carries: bool = False
    """Whether the garment is cut in one, and the bodice carried on down."""
    block: tuple[Piece, Piece] = field(init=False)
    """Front and back as they were last drafted, contoured and given their necks: what straps and levels go by."""

    def __post_init__(self) -> None:
        self.block = self.pieces[self.front], self.pieces[self.back]

    def is_block(self) -> None:
        """Take front and back as they are now for the block; of one that is in panels by now, as it was before that."""
        front, back = self.block
        self.block = self.pieces.get(self.front, front), self.pieces.get(self.back, back)

    @classmethod
    def of(
        cls,
        bodice: BodiceMade,
        allowances: Allowances,
        section: Section,
        figure: Figure,
        notes: Workings,
        *,
        carries: bool = False,
    ) -> Styling:
        """A bodice laid on the table."""
        assert bodice.edge is not None, "there is a bodice to style"
        return cls(
            allowances, {piece.what: piece for piece in bodice.pieces}, list(bodice.seams),
            {"waist": bodice.edge.run, "other waist": Run()}, bodice=bodice, section=section,
            figure=figure, notes=notes, waists=bodice.waists, carries=carries,
        )  # fmt: skip

    @property
    def waist(self) -> Run:
        return self.runs["waist"]

    @waist.setter
    def waist(self, run: Run) -> None:
        self.runs["waist"] = run

    @property
    def other_waist(self) -> Run:
        return self.runs["other waist"]

    @other_waist.setter
    def other_waist(self, run: Run) -> None:
        self.runs["other waist"] = run

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
            unspread=tuple(self.unspread.values()), other_waist=self.other_waist,
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
        """As any table's; a block brought in stays as it is."""
        if self.bodice.draft:
            super().true()

    def style(self, what: str, place: str, work: Callable[[], None]) -> None:
        """Draw a style line; one that cannot be drawn is left out and said so."""
        self.attempt(work, lambda why: self._left_out(what, place, why))

    def _left_out(self, what: str, place: str, why: str) -> Finding:
        return refused(
            "style-line-left-out", "The {what} cannot be drawn here: {why}. It is left out.", *in_recipe(place),
            what=what, why=why,
        )  # fmt: skip
