"""A style line from one edge to another, straight or bowed: the piece becomes two, with an allowance on both sides."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.cutting.split import Mouth, Split, split
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Dart, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import seam_of
from gentle_hem.core.sentences import Word, choice, length
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
from gentle_hem.core.what import BACK_PRINCESS, FRONT_PRINCESS, Half, Panel, Sign, What


class AlongALine(PatternStep):
    """What is done along a line from one edge to another, straight or bowed."""

    start: EdgeName = "shoulder"
    start_share: Share = 0.5
    end: EdgeName = "side"
    end_share: Share = 0.5
    bow: Annotated[Length, between(-200, 200)] = 0.0
    ends: Literal["straight", "square"] = "straight"

    line_words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words, "start": edge_word("from"), "start_share": share_word("where it begins"),
        "end": edge_word("to"), "end_share": share_word("where it ends"),
        "bow": length(
            "bowed", nothing="not at all", help="To its left as it is drawn; less than nothing to its right."
        ),
        "ends": choice(
            "how it meets the edges", ("straight", "as it comes"), ("square", "squarely"),
            help="Squarely, it runs on smoothly over the seams there.",
        ),
    }  # fmt: skip

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return self.start, self.end

    def whats(self, table: Table) -> list[What]:
        """The piece of each half that the line lies on. Raises CannotMake."""
        found = []
        for half in self.halves:
            both = [w for w in the_pieces(table, half, self.start) if edge_of(table.pieces[w], self.end) is not None]
            if not both:
                raise CannotMake(f"no piece of the {half} has both a {self.start} and a {self.end}")
            found.append(both[0])
        return found

    def drawn_on(self, piece: Piece) -> DrawnLine:
        """The line on a piece with its centre on the left. Where it begins or ends at a dart it runs along the dart,
        which it takes up. Raises CannotMake.
        """
        if self.start == self.end:
            raise CannotMake("it would begin and end on one edge")
        begins, arrives = self._end(piece, self.start, self.start_share), self._end(piece, self.end, self.end_share)
        line = self._between(begins, arrives)
        for edge in piece.edges:
            if any(AT_ITS_END < at < line.length - AT_ITS_END for at, _ in line.crossings(edge.path)):
                raise CannotMake(f"it would run over the {edge.name}; bow it the other way, or move one of its ends")
        for dart in piece.darts:
            if dart not in (begins.dart, arrives.dart) and any(
                leg.crossings(line) for leg in piece.dart_leg_paths(dart)
            ):
                raise CannotMake(f"the {dart.landmark} lies in its way; move it, or begin or end the line at it")
        later = _joined(begins.near, line, arrives.far and arrives.far.reversed())
        earlier = _joined(arrives.near, line.reversed(), begins.far and begins.far.reversed())
        return DrawnLine(begins, arrives, later, earlier)

    def _between(self, begins: LineEnd, arrives: LineEnd) -> Path:
        """The line itself: bowed, and square to the edges it meets where that is asked."""
        a, b = begins.place, arrives.place
        out, third = (b - a).unit.left * (self.bow * 4 / 3), a.distance(b) / 3
        leave, back = (b - a).unit, (a - b).unit
        if self.ends == "square":
            leave, back = begins.inward or leave, arrives.inward or back
        elif not self.bow:
            return Path.of(Line(a, b))
        return Path.of(Cubic(a, a + leave * third + out, b + back * third + out, b))

    def _end(self, piece: Piece, called: EdgeName, share: float) -> LineEnd:
        edge = the_edge(piece, called)
        at = along(edge, called, share)
        for dart in piece.darts_of(edge.name):
            if dart.at - TO_A_DART < at < dart.at + dart.intake + TO_A_DART:
                near, far = piece.dart_leg_paths(dart)
                return LineEnd(Mouth.of(dart), dart.apex, dart, near, far)
        if not NEAREST < at < edge.drawn_length - NEAREST:
            raise CannotMake(f"it would begin or end in the corner of the {called}")
        return LineEnd(Mouth.place(edge.name, at), edge.path.point_at(at), inward=edge.path.tangent_at(at).left)


@dataclass(frozen=True, slots=True)
class LineEnd:
    """Where a line begins or ends: on an edge, or at the point of a dart that opens there."""

    mouth: Mouth
    place: Point
    dart: Dart | None = None
    near: Path | None = None
    far: Path | None = None
    inward: Point | None = None
    """Square to the edge, into the piece."""


@dataclass(frozen=True, slots=True)
class DrawnLine:
    """A line across a piece as its two sides are cut: apart where they run along a dart."""

    begins: LineEnd
    arrives: LineEnd
    later: Path
    earlier: Path

    @property
    def dart(self) -> Dart | None:
        """The dart it runs along."""
        return self.begins.dart or self.arrives.dart

    def cut(self, piece: Piece, parts: tuple[What, What], edge_name: str, role: Role, allowance: float) -> Split:
        """The piece cut in two along it."""
        return split(
            piece, self.begins.mouth, self.arrives.mouth, earlier_line=self.earlier, later_line=self.later, parts=parts,
            edge_name=edge_name, role=role, allowance=allowance,
        )  # fmt: skip


def _joined(before: Path | None, line: Path, after: Path | None) -> Path:
    made = before.then(line) if before else line
    return made.then(after) if after else made


class StyleLine(AlongALine):
    """A line from the middle of the shoulder to the middle of the side."""

    title: ClassVar[str] = "Cut along a line"
    sentences: ClassVar[tuple[str, ...]] = (
        "The {part}, {on}, is cut along a line from the {start}, {start_share} of its way, to the {end}, {end_share} "
        "of its way, bowed {bow}, meeting the edges {ends}; what it cuts off is of {cloth}.",
    )
    words: ClassVar[dict[str, Word]] = {
        **AlongALine.line_words,
        "cloth": choice("cloth", ("same", "the same cloth"), ("contrast", "the contrast cloth")),
    }  # fmt: skip

    sided: ClassVar[bool] = True

    kind: Literal["line"] = "line"
    cloth: Literal["same", "contrast"] = "same"

    def do(self, table: Table) -> None:
        for what in self.whats(table):
            self._cut(table, what)

    def _cut(self, table: Table, what: What) -> None:
        piece = seen_from_centre(table.pieces[what])
        line = self.drawn_on(piece)
        taken = {edge.name for one in table.pieces.values() for edge in one.edges}
        name = next(n for n in ("line", *(f"line {k}" for k in range(2, 99))) if n not in taken)
        made = line.cut(piece, (what, replace(what, number=99)), name, Role.PANEL, 0.0)
        parts, role = self._parts(table, what, made)
        called = {made.earlier.what: parts[0], made.later.what: parts[1]}
        drawn = {"role": role, "allowance": table.allowances.of(role)}
        earlier, later = (
            replace(one.with_edge(name, **drawn), what=called[one.what]) for one in (made.earlier, made.later)
        )
        order = {edge: tuple(called[one] for one in them) for edge, them in made.order.items()}
        if what.half is Half.BACK:
            earlier, later = mirrored(earlier), mirrored(later)
            order = {edge: tuple(reversed(them)) for edge, them in order.items()}
        if self.cloth == "contrast":
            earlier, later = (
                one if one.what == what else replace(one, cloth=ClothRole.CONTRAST) for one in (earlier, later)
            )
        keeps = tuple(sorted((earlier, later), key=lambda one: one.what != what))
        seam = seam_of(f"{what.name} {name} seam", (later.what, name), (earlier.what, name))
        corner = Sign(f"{what.half} {name}") if line.dart is None or what.half is None else SHAPED_BY[what.half]
        table.swap(what, keeps, order, corner, seam)

    def _parts(self, table: Table, what: What, made: Split) -> tuple[tuple[What, What], Role]:
        """What the earlier and the later part are, and what the line between them is. The one that lies above a cut
        across, or that has no centre, gets a new name; the other stays what the piece was.
        """
        centred = [any(e.role.is_centre for e in part.edges) for part in (made.earlier, made.later)]
        heights = [sum(part.seam_line.box[k] for k in (1, 3)) for part in (made.earlier, made.later)]
        across = centred[0] == centred[1]
        earlier_is_new = heights[0] > heights[1] if across else centred[1]
        new = self._new(table, what, Panel.YOKE if across else Panel.SIDE)
        parts = (new, what) if earlier_is_new else (what, new)
        return parts, Role.YOKE if across else Role.PANEL

    def _new(self, table: Table, what: What, panel: Panel) -> What:
        made = what.as_panel(panel)
        while made in table.pieces:
            made = replace(made, number=made.number + 1)
        return made


SHAPED_BY = {Half.FRONT: FRONT_PRINCESS, Half.BACK: BACK_PRINCESS}
"""What a line along a waist dart is in the waist seam: it is matched as a princess seam is."""

TO_A_DART = 25.0
"""A line that begins or ends so near a dart runs along it (mm)."""

AT_ITS_END = 0.5
"""Within so much of its ends a line may lie on an edge (mm)."""

NEAREST = 8.0
"""A line begins and ends so far from a corner at least (mm)."""
