"""Pieces on the table while something is done to them, one thing after another: pieces, their seams, and the runs of
edges that other parts are joined to.

Everything done is a change of pieces. ``swap`` puts new pieces in the place of an old one and keeps every seam and
every run pointing at the right edges, in the right order. ``attempt`` takes back what turns out not to go.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.cutting import true
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, Place, note
from gentle_hem.core.parts import Allowances
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, with_pairs
from gentle_hem.core.what import UNNAMED, Half, Sign, What
from gentle_hem.core.workings import Workings


@dataclass
class Table:
    """The work on the table. ``pieces`` keep the order they are shown in; ``runs`` are the edges that are joined to
    other parts, by what they are called: "waist", "hem".
    """

    allowances: Allowances
    pieces: dict[What, Piece] = field(default_factory=dict)
    seams: list[Seam] = field(default_factory=list)
    runs: dict[str, Run] = field(default_factory=dict)
    findings: list[Finding] = field(default_factory=list)
    figure: Figure = field(default_factory=Figure)
    """Whose dress it is: some lines follow her measures."""
    notes: Workings = field(default_factory=Workings)
    waists: dict[Half, float] = field(default_factory=dict)
    """The level of the natural waist on the drafted halves, where it is known (mm, y up)."""
    unspread: dict[What, Piece] = field(default_factory=dict)
    """Pieces as they would be if they had not been slashed and spread: what their lining is cut from."""

    def put(self, piece: Piece) -> None:
        """A piece redrawn, or a new one laid beside the others."""
        self.pieces[piece.what] = piece

    def redraw(self, what: What, change: Callable[[Piece], Piece]) -> None:
        """A piece redrawn as if its centre were on its left, whichever way round it lies; as it was before it was
        spread, it is redrawn alike.
        """
        self.put(_from_centre(self.pieces[what], change))
        flat = self.unspread.pop(what, None)
        if flat is not None:
            try:
                self.unspread[what] = _from_centre(flat, change)
            except CannotMake:
                self.findings.append(
                    note("lined-as-it-is", "The lining of the {piece} is cut as the outer is, fullness and all.",
                         Place(piece=what.name), piece=what.name)
                )  # fmt: skip

    def spread(self, what: What, change: Callable[[Piece], Piece]) -> None:
        """A piece slashed and spread; its lining stays as it was. All that lies there is trued first, so that neither
        has to move a seam that the other does not.
        """
        self.true()
        self.unspread.setdefault(what, self.pieces[what])
        self.put(_from_centre(self.pieces[what], change))

    def true(self) -> None:
        """The pieces trued over the seams and darts they have so far."""
        self.unspread = true.as_unspread(self.pieces, self.unspread, self.seams)
        self.pieces, _ = true.trued(self.pieces, with_pairs(self.seams, self.pieces.values()))

    def swap(
        self, old: What, new: tuple[Piece, ...], order: Mapping[str, tuple[What, ...]], corner: Sign, seam: Seam
    ) -> None:
        """New pieces in place of an old one. ``order`` says which of them carry each old edge, along its path;
        ``corner`` names the place on a run between two of them; ``seam`` joins them. Raises CannotMake where there is
        such a piece already.
        """
        for piece in new:
            if piece.what != old and piece.what in self.pieces:
                raise CannotMake(f"there is a {piece.name} already")
        self.unspread.pop(old, None)
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
        self.runs = {name: over(run, corner) for name, run in self.runs.items()}
        self.seams.append(seam)

    def attempt(self, work: Callable[[], None], left_out: Callable[[str], Finding]) -> None:
        """Do something; what cannot be done is taken back, and ``left_out`` says why."""
        kept = dict(self.pieces), list(self.seams), dict(self.runs), list(self.findings), dict(self.unspread)
        try:
            work()
        except CannotMake as wrong:
            self.pieces, self.seams, self.runs, self.findings, self.unspread = kept
            crossed = isinstance(wrong, CannotDraw)
            self.findings.append(left_out("its lines run into each other on this piece" if crossed else str(wrong)))


def _from_centre(piece: Piece, change: Callable[[Piece], Piece]) -> Piece:
    return mirrored(change(mirrored(piece))) if piece.what.half is Half.BACK else change(piece)
