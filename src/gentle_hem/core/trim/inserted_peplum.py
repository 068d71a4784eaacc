"""A peplum inserted under a blouse (trade 8): sewn to the lining at its waist while the outer runs on below it.

waist ┄┄┄┄┄┄ sewn to the lining        one circle for the front waist, one for the back, each with its own radius; the
  blouse │╲ peplum                     blouse ends about 2 in above the peplum's hem
         └─╲
"""

from math import tau
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.findings import Finding, in_recipe, warn
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Mark, MarkKind, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.steps.base import seen_from_centre
from gentle_hem.core.trim.base import Trim, Turn
from gentle_hem.core.trim.flounce import ring_piece, rings_of_half
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import Half, Panel, Section, What
from gentle_hem.core.workings import Workings
from gentle_hem.core.workroom import Dressed


class InsertedPeplum(Trim):
    """A peplum 18 cm deep inserted under the blouse at its waist, a full circle in front and behind."""

    turn: ClassVar[Turn] = Turn.ON_WHAT_IS_THERE
    title: ClassVar[str] = "Inserted peplum"
    sentences: ClassVar[tuple[str, ...]] = (
        "A peplum {depth} deep is sewn to the lining at its waist, a full circle in front and one behind, its joins "
        "{join}, its hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "depth": length("depth of the peplum"), "join": length("join allowance"), "hem": length("hem of the peplum"),
    }  # fmt: skip

    kind: Literal["inserted_peplum"] = "inserted_peplum"
    depth: Annotated[Length, between(40, 600)] = 180.0
    join: Annotated[Length, between(0, 30)] = 10.0
    hem: Annotated[Length, between(0, 30)] = Field(inches(0.5), description="Faced or stiffened.")

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("inserted peplum")
        if not dress.cut_in_one:
            raise CannotMake("the blouse has a waist seam; hang a peplum from it, or cut the blouse in one")
        found: list[Finding] = []
        for half in Half:
            level = dress.waists.get(half)
            outer = [piece for piece in dress.outer_upper() if piece.what.half is half and not piece.what.other]
            if level is None or not outer:
                raise CannotMake(f"the {half} has no waist it could be sewn at")
            marked = [_with_waist(piece, level) for piece in outer]
            run = Run(tuple(Stretch(p.what, m.name) for p in marked for m in p.marks if m.name.startswith(LINE)))
            if not run:
                raise CannotMake(f"the {half} ends above its waist")
            long = sum(m.path.length for p in marked for m in p.marks if m.name.startswith(LINE))
            waist = notes.work(f"{half} waist, whole", 2 * long, "twice the half, darts closed, measured")
            radius = notes.work(
                f"{half} seam radius", (waist + 2 * self.join) / tau, "({waist} + 2 × {join}) ÷ 2π",
                rule="a full circle for the whole of it", waist=waist, join=self.join,
            )  # fmt: skip
            what = What(Section.PEPLUM, half, Panel.RING)
            if what in dress.pieces:
                raise CannotMake("there is an inserted peplum already")
            inner = min(dress.allowances.waist, 0.8 * float(radius))
            ring = ring_piece(what, float(radius), self.depth, float(waist), self.join, inner, self.hem, 1)
            ring = replace(ring, remark="its own lining is cut like it, and its hem stiffened")
            own = replace(rings_of_half(ring, "top", 1, backwards=True), corners=(), called="peplum", why=radius)
            dress = dress.with_pieces([*(_back(p) for p in marked), ring]).sewn(
                Seam(f"{what.name} seam", replace(run, called=f"{half} waist", why=waist), own),
                seam_of(f"{what.name} join", (what, "start"), (what, "end")),
            )
        shows = self.depth - dress.length
        if shows < LEAST_SHOWN:
            found.append(
                warn(
                    "peplum-hidden",
                    "The blouse ends {length} below the waist and the peplum {depth}: about 2 in of it are to show. "
                    "Make the blouse shorter or the peplum deeper.",
                    *in_recipe(f"{where}.depth", "lower.length"), length=dress.length, depth=self.depth,
                )
            )  # fmt: skip
        return dress.also(*found)


LEAST_SHOWN = 20.0
"""Less of a peplum than this below the blouse looks like a mistake (mm)."""

LINE = "waist line"
"""The lines it is sewn along, numbered on each piece."""


def _with_waist(piece: Piece, level: float) -> Piece:
    """A piece, its centre on the left, with its waist drawn across it, broken where a dart is stitched."""
    seen = seen_from_centre(piece)
    across = Line(Point(-9000, level), Point(9000, level))
    met = seen.seam_line.met_along(across)
    if len(met) < 2:
        return seen
    left, right = met[0] - 9000, met[-1] - 9000
    closed = [mark.path for mark in seen.marks if mark.kind is MarkKind.DART]
    opening = [near.then(far.reversed()) for near, far in map(seen.dart_leg_paths, seen.darts)]
    gaps = []
    for shape in (*closed, *opening):
        cut = shape.met_along(across)
        if len(cut) >= 2:
            gaps.append((cut[0] - 9000, cut[-1] - 9000))
    ends = [left, *(x for gap in sorted(gaps) for x in gap), right]
    lines = tuple(
        Mark(MarkKind.PLACE, Path.through(Point(a, level), Point(b, level)), f"{LINE} {k}")
        for k, (a, b) in enumerate(zip(ends[::2], ends[1::2], strict=True), start=1)
        if b - a > 1
    )
    return replace(seen, marks=(*seen.marks, *lines))


def _back(piece: Piece) -> Piece:
    return mirrored(piece) if piece.what.half is Half.BACK else piece
