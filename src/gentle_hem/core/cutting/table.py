"""Pieces on the table while something is done to them, one thing after another: pieces, their seams, and the runs of
edges that other parts are joined to.

Everything done is a change of pieces. ``swap`` puts new pieces in the place of an old one and keeps every seam and
every run pointing at the right edges, in the right order. ``attempt`` takes back what turns out not to go.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding
from gentle_hem.core.parts import Allowances
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch
from gentle_hem.core.what import UNNAMED, Half, Sign, What


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

    def put(self, piece: Piece) -> None:
        """A piece redrawn, or a new one laid beside the others."""
        self.pieces[piece.what] = piece

    def redraw(self, what: What, change: Callable[[Piece], Piece]) -> None:
        """A piece redrawn as if its centre were on its left, whichever way round it lies."""
        piece = self.pieces[what]
        self.put(mirrored(change(mirrored(piece))) if what.half is Half.BACK else change(piece))

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
        kept = dict(self.pieces), list(self.seams), dict(self.runs), list(self.findings)
        try:
            work()
        except CannotMake as wrong:
            self.pieces, self.seams, self.runs, self.findings = kept
            crossed = isinstance(wrong, CannotDraw)
            self.findings.append(left_out("its lines run into each other on this piece" if crossed else str(wrong)))
