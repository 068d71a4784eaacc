"""Length inserted across a level, or taken out: what a fitting asks for, and what makes a bodice longer in the waist.

     above                    above
───────────── level      ───────────── level
     below          ──►         │ inserted │
                          ─────────────
                               below
"""

from itertools import pairwise
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.geometry import Cubic, Line, Path, Placement, Point
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Mark, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.steps.base import EdgeName, PatternStep
from gentle_hem.core.units import Length
from gentle_hem.core.what import Layer


class Insert(PatternStep):
    """1 cm inserted across the bodice, 35 cm below its highest place."""

    title: ClassVar[str] = "Insert or take out length"
    sentences: ClassVar[tuple[str, ...]] = (
        "Across the whole {part}, {level} below its highest place, {amount} is inserted.",
    )
    words: ClassVar[dict[str, Word]] = {
        "part": PatternStep.own_words["part"], "level": length("how far down"),
        "amount": length("inserted", help="Less than nothing takes it out."),
    }  # fmt: skip

    kind: Literal["insert"] = "insert"
    on: Literal["both"] = "both"  # a level runs round the whole figure
    level: Annotated[Length, between(5, 2000)] = 350.0
    amount: Annotated[Length, between(-150, 300)] = 10.0

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("side", "centre")

    def do(self, table: Table) -> None:
        outer = {what: piece for what, piece in table.pieces.items() if what.layer is not Layer.INTERFACING}
        top = max(piece.seam_line.box[3] for piece in outer.values())
        made = {what: self._inserted(piece, top - self.level) for what, piece in outer.items()}
        if all(made[what] is piece for what, piece in outer.items()):
            raise CannotMake("no piece reaches that level")
        table.pieces |= made

    def _inserted(self, piece: Piece, level: float) -> Piece:
        _, bottom, _, high = piece.seam_line.box
        if high <= level:
            return self._all_moved(piece)
        if bottom >= level - max(-self.amount, 0.0):
            if bottom < level:
                raise CannotMake(f"the {piece.name} ends where length would be taken out")
            return piece
        cut = _Cut(level, self.amount)
        paths = {edge.name: cut.path(edge.path) for edge in piece.edges}
        edges = tuple(replace(edge, path=paths[edge.name]) for edge in piece.edges)
        darts = tuple(
            replace(
                dart, at=cut.along(piece.edge(dart.edge).path, dart.at), apex=cut.point(dart.apex),
                bends=(tuple(map(cut.point, dart.bends[0])), tuple(map(cut.point, dart.bends[1]))),
            )
            for dart in piece.darts
        )  # fmt: skip
        for before, after in zip(piece.darts, darts, strict=True):
            mouth = piece.edge(before.edge).path
            if abs(cut.along(mouth, before.at + before.intake) - after.at - before.intake) > 0.01:
                raise CannotMake(f"the level runs through the mouth of the {before.landmark}")
        notches = tuple(replace(n, at=cut.along(piece.edge(n.edge).path, n.at)) for n in piece.notches)
        marks = tuple(Mark(mark.kind, cut.path(mark.path), mark.name) for mark in piece.marks)
        point = piece.bust_point and cut.point(piece.bust_point)
        start, end = (cut.point(place) for place in piece.grain)
        return replace(
            piece, edges=edges, darts=darts, notches=notches, marks=marks, bust_point=point, grain=(start, end)
        )

    def _all_moved(self, piece: Piece) -> Piece:
        """A piece that lies below the level altogether."""
        down = Placement.shift(Point(0, -self.amount))
        return replace(
            piece, edges=tuple(replace(e, path=e.path.placed(down)) for e in piece.edges),
            darts=tuple(
                replace(d, apex=down.place(d.apex),
                        bends=(tuple(map(down.place, d.bends[0])), tuple(map(down.place, d.bends[1]))))
                for d in piece.darts
            ),
            marks=tuple(mark.placed(down) for mark in piece.marks),
            bust_point=piece.bust_point and down.place(piece.bust_point),
            grain=(down.place(piece.grain[0]), down.place(piece.grain[1])),
        )  # fmt: skip


class _Cut:
    """A level at which everything below goes down by so much; for less than nothing, the band below it is taken out."""

    def __init__(self, level: float, amount: float) -> None:
        self.high, self.low, self.amount = level, level - max(-amount, 0.0), amount

    def point(self, place: Point) -> Point:
        if place.y >= self.high:
            return place
        return Point(place.x, min(place.y, self.low) - self.amount)

    def path(self, path: Path) -> Path:
        """A path with its parts above as they are and its parts below moved: one that crosses the level is drawn anew
        from some way above it to some way below, so that it has no step there.
        """
        for times in BLENDS:
            blended = self._blended(path, max(times * abs(self.amount), LEAST_BLEND))
            if blended is not None:
                return blended
        cuts = sorted({0.0, path.length, *self._crossings(path)})
        parts: list[Path] = []
        for low, high in pairwise(cuts):
            if high - low < 1e-6:
                continue
            part = path.between(low, high)
            middle = part.point_at(part.length / 2).y
            if middle >= self.high:
                parts.append(part)
            elif middle <= self.low:
                parts.append(part.placed(Placement.shift(Point(0, -self.amount))))
        if not parts:
            raise CannotMake("an edge lies wholly where length would be taken out")
        made = parts[0]
        for part in parts[1:]:
            gap = made.end.distance(part.start)
            made = made.then(part) if gap < 1e-6 else Path((*made.segments, Line(made.end, part.start), *part.segments))
        start, end = self.point(path.start), self.point(path.end)
        made = made if made.start.distance(start) < 1e-6 else Path((Line(start, made.start), *made.segments))
        return made if made.end.distance(end) < 1e-6 else Path((*made.segments, Line(made.end, end)))

    def _blended(self, path: Path, blend: float) -> Path | None:
        """A path that crosses the level once from end to end, as one curve over it; None for any other."""
        above, below = self.high + blend, self.low - blend
        met = [path.crossings(_level(path, y)) for y in (above, below)]
        if any(len(found) != 1 for found in met):
            return None
        first, last = sorted(found[0][0] for found in met)
        start, middle, end = path.between(0.0, first), path.between(first, last), path.between(last, path.length)
        up = Placement.shift(Point(0, -self.amount))
        start, end = (start, end.placed(up)) if start.start.y > self.high else (start.placed(up), end)
        a, b = start.end, end.start
        along = (b - a).unit
        if abs(along.cross(middle.leaving)) < 1e-9 and abs(along.cross(middle.arriving)) < 1e-9:
            return Path((*start.segments, Line(a, b), *end.segments))
        third = a.distance(b) / 3
        curve = Cubic(a, a + start.arriving * third, b - end.leaving * third, b)
        return Path((*start.segments, curve, *end.segments))

    def along(self, path: Path, at: float) -> float:
        """A length along a path, along it as it has become."""
        if at <= 1e-9:
            return 0.0
        return self.path(path.between(0.0, at)).length if at < path.length else self.path(path).length

    def _crossings(self, path: Path) -> list[float]:
        return [at for level in {self.high, self.low} for at, _ in path.crossings(_level(path, level))]


BLENDS, LEAST_BLEND = (4.0, 2.0, 1.0), 20.0
"""How far above and below the level an edge is drawn anew, times what is inserted or taken out, the most that it has
room for; and at least (mm)."""


def _level(path: Path, y: float) -> Path:
    left, _, right, _ = path.hull
    return Path.through(Point(left - 10, y), Point(right + 10, y))
