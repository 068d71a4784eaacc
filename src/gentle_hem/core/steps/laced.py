"""A laced opening down the centre: widest at the top and nothing where it ends, loops or eyelets at an even pitch, a
strip beside it for the boning, a panel behind it (trade 8, 11).

  top │╲ · width ÷ 2          the edge runs straight from the top to where the opening ends; the zip begins there
      │ ╲·
      │  ╲ loops
 ends └───
"""

from collections.abc import Mapping
from itertools import pairwise
from math import hypot
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.cutting.split import upright_grain
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Edge, Finished, Mark, MarkKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import seam_of, seam_of_pair
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import EdgeName, PatternStep, seen_from_centre, the_pieces
from gentle_hem.core.strips import bias_strip
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import Half, Layer, Panel, Section, What
from gentle_hem.core.workings import Count

LOOP_STANDS = 12.0
"""A loop for a lace stands out so far from its edge (mm): common practice."""

LOOP_END = 10.0
"""As much of each end of a loop is caught in the seam (mm)."""

LOOP_WIDE = 25.0
EYELET_IN = 12.0
"""Eyelets lie so far inside the edge (mm): common practice."""

BEHIND = 40.0
"""The panel behind reaches so far beyond the opening on either side, and below it (mm): common practice."""

TO_TIE = 300.0
"""A lace is so much longer at either end, to tie it (mm)."""


class LacedOpening(PatternStep):
    """The back laced from 3 in at the top to nothing at the waist, by loops every 15 mm."""

    title: ClassVar[str] = "Laced opening"
    sentences: ClassVar[tuple[str, ...]] = (
        "The centre {on} of the bodice is laced from {width} at the top to nothing {long}, by {by} every {pitch}; a "
        "strip {strip} wide beside it takes the boning, and {behind} lies behind.",
    )
    words: ClassVar[dict[str, Word]] = {
        "on": choice("on", ("front", "front"), ("back", "back")),
        "width": length("width at the top", presets=((inches(2), "2 in"), (inches(3), "3 in"), (inches(4), "4 in"))),
        "long": length("where it ends", without="at the waist", help="Measured down the centre from its top."),
        "by": choice("closed by", ("loops", "loops"), ("eyelets", "eyelets")),
        "pitch": length("from one to the next", presets=((10.0, "1 cm"), (20.0, "2 cm"))),
        "strip": length("width of the strip"),
        "behind": choice("behind it", ("panel", "a panel"), ("none", "nothing")),
    }  # fmt: skip

    kind: Literal["laced"] = "laced"
    on: Literal["front", "back"] = "back"
    width: Annotated[Length, between(10, 250)] = inches(3)
    long: Annotated[Length, between(60, 900)] | None = Field(None, description="Nothing: down to the waist.")
    by: Literal["loops", "eyelets"] = "loops"
    pitch: Annotated[Length, between(6, 60)] = 15.0
    strip: Annotated[Length, between(10, 80)] = 25.0
    behind: Literal["panel", "none"] = "panel"

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("centre",)

    def lies_on(self, piece: Piece) -> list[str]:
        return [edge.name for edge in piece.edges if edge.name == LACED]

    def do(self, table: Table) -> None:
        half = Half(self.on)
        what = max(the_pieces(table, half, "centre"), key=lambda one: table.pieces[one].seam_line.box[3])
        if not what.section.is_upper:
            raise CannotMake("only a bodice or gown is laced")
        if any(other.layer is Layer.FACING and other.half is half for other in table.pieces):
            raise CannotMake(f"the {half} has a facing, cut to its edge as it is; leave the facing out first")
        piece = seen_from_centre(table.pieces[what])
        made = self._opened(piece, table)
        laced = made.edge(LACED).path
        table.put(mirrored(made) if half is Half.BACK else made)
        table.unspread.pop(what, None)
        there = {edge.name for edge in made.edges}
        table.seams = [s for s in table.seams if all(x.piece != what or x.edge in there for x in s.stretches)]
        self._strip(table, what, laced.length)
        self._loops(table, what, laced)
        if self.behind == "panel":
            self._panel(table, what, laced)

    def _opened(self, piece: Piece, table: Table) -> Piece:
        """The piece, its centre on the left, cut back to the edge that is laced."""
        place = next(k for k, e in enumerate(piece.edges) if e.role.is_centre)
        centre, above = piece.edges[place], piece.edges[place - 1]
        top = centre.path.start
        if above.role is not Role.NECKLINE:
            raise CannotMake(f"the centre of the {piece.name} does not begin at its top edge")
        if piece.darts_of(centre.name):
            raise CannotMake("a dart opens at the centre; move that dart first")
        end = self._ends(centre, piece, table.waists)
        foot = centre.path.point_at(end)
        across = top + Point(self.width / 2, 0)
        met = above.path.crossings(Path.through(across + Point(0, -900), across + Point(0, 900)))
        if not met:
            raise CannotMake("its top edge is narrower than the opening")
        neck = above.path.between(0.0, met[-1][0])
        line = Path.through(neck.end, foot)
        laced = Edge(LACED, Role.FREE, line, table.allowances.panel)
        rest = centre.path.length - end
        edges = [*piece.edges[: place - 1], replace(above, path=neck, pointed=True), laced]
        if rest > 1:
            edges.append(replace(centre, path=centre.path.between(end, centre.path.length)))
        edges += piece.edges[place + 1 :]
        notches = tuple(
            replace(n, at=n.at - end) if n.edge == centre.name else n
            for n in piece.notches
            if not (n.edge == centre.name and (rest <= 1 or n.at < end))
            and not (n.edge == above.name and n.at > neck.length)
        )
        made = replace(piece, edges=tuple(edges), notches=notches, marks=(*piece.marks, *self._marks(line)))
        if rest <= 1 and piece.on_fold:
            made = replace(made, on_fold=False, cut=2 * piece.cut)
        return replace(made, grain=upright_grain(made, 0.4))

    def _ends(self, centre: Edge, piece: Piece, waists: Mapping[Half, float]) -> float:
        """How far down the centre the opening ends, mm."""
        path, half = centre.path, Half(self.on)
        if self.long is None:
            if piece.what.section is not Section.GOWN or half not in waists:
                return path.length
            met = path.crossings(Path.through(Point(-900, waists[half]), Point(900, waists[half])))
            return met[0][0] if met else path.length
        if self.long > path.length - 1:
            raise CannotMake(f"the {centre.name} is shorter than it; let it end at the waist")
        return self.long

    def _levels(self, long: float) -> list[float]:
        """How far along the laced edge each loop lies: in equal spaces, half of one at either end."""
        count = max(round(long / self.pitch), 1)
        return [(k + 0.5) * long / count for k in range(count)]

    def _marks(self, line: Path) -> tuple[Mark, ...]:
        inward = line.leaving.left
        marks = []
        for at in self._levels(line.length):
            place = line.point_at(at)
            near, far = (0.0, 8.0) if self.by == "loops" else (EYELET_IN - 2, EYELET_IN + 2)
            marks.append(Mark(MarkKind.LOOP, Path.through(place + inward * near, place + inward * far)))
        return tuple(marks)

    def _strip(self, table: Table, what: What, long: float) -> None:
        """The strip that is sewn to the laced edge and holds the boning: folded lengthways, one for each side."""
        strip = What(what.section, what.half, Panel.LACING)
        allowance, wide = table.allowances.panel, 2 * self.strip
        a, b, c, d = Point(0, 0), Point(long, 0), Point(long, wide), Point(0, wide)
        edges = (
            Edge("edge", Role.PANEL, Path.through(a, b), allowance),
            Edge("end", Role.FREE, Path.through(b, c), allowance, finished=Finished.TURNED),
            Edge("top", Role.FREE, Path.through(c, d), allowance, finished=Finished.FOLDED),
            Edge("start", Role.FREE, Path.through(d, a), allowance, finished=Finished.TURNED),
        )
        fold = Mark(MarkKind.FOLD, Path.of(Line(Point(0, self.strip), Point(long, self.strip))))
        grain = Point(0.3 * long, wide / 4), Point(0.7 * long, wide / 4)
        table.put(Piece(strip, edges, cut=2, marks=(fold,), grain=grain, remark="the boning lies in it"))
        table.seams.append(seam_of(f"{strip.name} seam", (what, LACED), (strip, "edge")))

    def _loops(self, table: Table, what: What, line: Path) -> None:
        """How many, and how long the lace and the strip for the loops are."""
        notes, levels = table.notes.about("laced opening"), self._levels(line.length)
        count = len(levels)
        spacing = notes.work(
            "from one to the next", line.length / count, "{edge} ÷ {count}", rule="in equal spaces",
            edge=line.length, count=Count(count),
        )  # fmt: skip
        wide = [self.width * (1 - at / line.length) for at in levels]
        zigzag = 2 * sum(hypot((a + b) / 2, float(spacing)) for a, b in pairwise(wide))
        notes.work(
            "lace", zigzag + wide[0] + 2 * TO_TIE,
            "across and down from loop to loop, twice, and {tie} to tie at each end",
            rule="common practice; longer where it is to open wider", tie=TO_TIE,
        )  # fmt: skip
        if self.by == "loops":
            loop = notes.work(
                "a loop", 2 * LOOP_STANDS + 2 * LOOP_END, "2 × {stands_out} + 2 × {end}", stands_out=LOOP_STANDS,
                end=LOOP_END,
            )  # fmt: skip
            long = notes.work("loop strip", 2 * count * loop, "2 × {count} × {loop}", count=Count(count), loop=loop)
            strip = What(Section.LOOPS, what.half)
            table.put(bias_strip(strip, float(long), LOOP_WIDE, "sewn to a tube and cut into the loops"))
            table.seams.append(seam_of(f"{strip.name} seam", (strip, "edge"), (strip, "top")))

    def _panel(self, table: Table, what: What, line: Path) -> None:
        """The panel behind the lacing, on the fold, doubled; it is caught to one side."""
        panel, allowance = What(what.section, what.half, Panel.MODESTY), table.allowances.panel
        high = abs(line.end.y - line.start.y) + BEHIND
        upper, lower = self.width / 2 + BEHIND, BEHIND
        a, b, c, d = Point(0, 0), Point(lower, 0), Point(upper, high), Point(0, high)
        edges = (
            Edge("foot", Role.FREE, Path.through(a, b), allowance),
            Edge("side", Role.FREE, Path.through(b, c), allowance),
            Edge("top", Role.FREE, Path.through(c, d), allowance),
            Edge("centre", Role.CENTRE_BACK if what.half is Half.BACK else Role.CENTRE_FRONT, Path.through(d, a)),
        )
        grain = Point(lower / 2, 0.25 * high), Point(lower / 2, 0.75 * high)
        table.put(Piece(panel, edges, cut=2, on_fold=True, grain=grain, remark="caught to one side of the opening"))
        table.seams += [seam_of_pair(f"{panel.name} {name}", panel, name) for name in ("foot", "side", "top")]


LACED = "laced edge"
"""The name of the edge that is laced."""
