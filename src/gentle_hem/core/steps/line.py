"""A style line from one edge to another, straight or bowed: the piece becomes two, with an allowance on both sides."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.cutting.split import Mouth, split
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.geometry import Cubic, Line, Path
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import seam_of
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.steps.base import (
    EdgeName,
    PatternStep,
    Share,
    along,
    edge_of,
    edge_word,
    seen_from_centre,
    share_word,
    the_edge,
    the_pieces,
)
from gentle_hem.core.units import Length
from gentle_hem.core.what import Half, Panel, Sign, What


class StyleLine(PatternStep):
    """A line from the middle of the shoulder to the middle of the side."""

    title: ClassVar[str] = "Cut along a line"
    sentences: ClassVar[tuple[str, ...]] = (
        "The {part}, {on}, is cut along a line from the {start}, {start_share} of its way, to the {end}, {end_share} "
        "of its way, bowed {bow}.",
    )
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words, "start": edge_word("from"), "start_share": share_word("where it begins"),
        "end": edge_word("to"), "end_share": share_word("where it ends"),
        "bow": length(
            "bowed", nothing="not at all", help="To its left as it is drawn; less than nothing to its right."
        ),
    }  # fmt: skip

    kind: Literal["line"] = "line"
    start: EdgeName = "shoulder"
    start_share: Share = 0.5
    end: EdgeName = "side"
    end_share: Share = 0.5
    bow: Annotated[Length, between(-200, 200)] = 0.0

    def do(self, table: Table) -> None:
        for half in self.halves:
            both = [w for w in the_pieces(table, half, self.start) if edge_of(table.pieces[w], self.end) is not None]
            if not both:
                raise CannotMake(f"no piece of the {half} has both a {self.start} and a {self.end}")
            self._cut(table, both[0])

    def _cut(self, table: Table, what: What) -> None:
        piece = seen_from_centre(table.pieces[what])
        if self.start == self.end:
            raise CannotMake("it would begin and end on one edge")
        first, last = the_edge(piece, self.start), the_edge(piece, self.end)
        ends = []
        for edge, called, share in ((first, self.start, self.start_share), (last, self.end, self.end_share)):
            at = along(edge, called, share)
            if not NEAREST < at < edge.drawn_length - NEAREST:
                raise CannotMake(f"it would begin or end in the corner of the {called}")
            ends.append(Mouth.place(edge.name, at))
        begins, arrives = ends
        line = self._line(piece, begins, arrives)
        for dart in piece.darts:
            if any(leg.crossings(line) for leg in piece.dart_leg_paths(dart)):
                raise CannotMake(f"the {dart.landmark} lies in its way; move it, or cut along it with a princess seam")
        parts, role = self._parts(table, piece, line, begins, arrives)
        taken = {edge.name for one in table.pieces.values() for edge in one.edges}
        name = next(n for n in ("line", *(f"line {k}" for k in range(2, 99))) if n not in taken)
        made = split(
            piece, begins, arrives, earlier_line=line.reversed(), later_line=line, parts=parts, edge_name=name,
            role=role, allowance=table.allowances.of(role),
        )  # fmt: skip
        earlier, later, order = made.earlier, made.later, made.order
        if what.half is Half.BACK:
            earlier, later = mirrored(earlier), mirrored(later)
            order = {edge: tuple(reversed(them)) for edge, them in order.items()}
        keeps = tuple(sorted((earlier, later), key=lambda one: one.what != what))
        seam = seam_of(f"{what.name} {name} seam", (later.what, name), (earlier.what, name))
        table.swap(what, keeps, order, Sign(f"{what.half} {name}"), seam)

    def _line(self, piece: Piece, first: Mouth, last: Mouth) -> Path:
        a, b = (piece.edge(mouth.edge).path.point_at(mouth.at) for mouth in (first, last))
        if not self.bow:
            return Path.of(Line(a, b))
        out = (b - a).unit.left * (self.bow * 4 / 3)
        return Path.of(Cubic(a, a.towards(b, 1 / 3) + out, a.towards(b, 2 / 3) + out, b))

    def _parts(
        self, table: Table, piece: Piece, line: Path, first: Mouth, last: Mouth
    ) -> tuple[tuple[What, What], Role]:
        """What the earlier and the later part are, and what the line between them is. The one that lies above a cut
        across, or that has no centre, gets a new name; the other stays what the piece was.
        """
        trial = split(
            piece, first, last, earlier_line=line.reversed(), later_line=line,
            parts=(piece.what, replace(piece.what, number=99)), edge_name="trial", role=Role.PANEL, allowance=0.0,
        )  # fmt: skip
        centred = [any(e.role in CENTRES for e in part.edges) for part in (trial.earlier, trial.later)]
        heights = [sum(part.seam_line.box[k] for k in (1, 3)) for part in (trial.earlier, trial.later)]
        across = centred[0] == centred[1]
        earlier_is_new = heights[0] > heights[1] if across else centred[1]
        new = self._new(table, piece.what, Panel.YOKE if across else Panel.SIDE)
        parts = (new, piece.what) if earlier_is_new else (piece.what, new)
        return parts, Role.YOKE if across else Role.PANEL

    def _new(self, table: Table, what: What, panel: Panel) -> What:
        made = what.as_panel(panel)
        while made in table.pieces:
            made = replace(made, number=made.number + 1)
        return made


NEAREST = 8.0
"""A line begins and ends so far from a corner at least (mm)."""

CENTRES = (Role.CENTRE_FRONT, Role.CENTRE_BACK)
