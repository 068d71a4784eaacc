"""A seam let out or taken in, as it was pinned at a fitting: so much at its top, at one level, and at its foot.

top  ─┐  1 cm          both sides of the seam go out alike, or that of one half only; the edges
      │                that meet the seam at its ends grow or shrink as much
level ┤  2 cm
      │
foot ─┘  nothing
"""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.redraw import neighbour, with_paths
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.geometry import Line, Path
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Edge, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import (
    EdgeName,
    PatternStep,
    Share,
    Side,
    runs_from_start,
    share_word,
    the_edge,
    the_pieces,
)  # fmt: skip
from gentle_hem.core.steps.hollow import PLACES
from gentle_hem.core.units import Length


class LetOut(PatternStep):
    """The side seam let out 1 cm half-way down on front and back, running out to nothing at its ends."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Let out or take in a seam"
    sentences: ClassVar[tuple[str, ...]] = (
        "The {edge} seam of the {part}, {on}, is let out {top} at its top, {middle} at {share} of its way and {foot} "
        "at its foot, on each side of it.",
    )
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words,
        "edge": choice("seam", ("side", "side"), ("princess", "princess"), ("centre", "centre")),
        "top": length("at its top", nothing="nothing", help="Less than nothing takes it in."),
        "middle": length("at that level", nothing="nothing", help="Less than nothing takes it in."),
        "share": share_word("level"),
        "foot": length("at its foot", nothing="nothing", help="Less than nothing takes it in."),
    }  # fmt: skip

    kind: Literal["let_out"] = "let_out"
    on: Side = "both"
    edge: Literal["side", "princess", "centre"] = "side"
    top: Annotated[Length, between(-60, 60)] = 0.0
    middle: Annotated[Length, between(-60, 60)] = 10.0
    share: Share = 0.5
    foot: Annotated[Length, between(-60, 60)] = 0.0

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return (self.edge,)

    def do(self, table: Table) -> None:
        for half in self.halves:
            for what in the_pieces(table, half, self.edge):
                table.redraw(what, self._let_out)

    def _let_out(self, piece: Piece) -> Piece:
        edge = the_edge(piece, self.edge)
        if edge.path.is_closed or (piece.on_fold and edge.role.is_centre):
            raise CannotMake(f"the {piece.name} is cut on the fold there")
        if piece.darts_of(edge.name):
            raise CannotMake(f"a dart lies in the {self.edge} seam; move it elsewhere first")
        if max(abs(self.top), abs(self.middle), abs(self.foot)) > 0.4 * edge.drawn_length:
            raise CannotMake(f"the {self.edge} seam is too short for it")
        from_top = runs_from_start(edge, self.edge)
        at_start, at_end = (self.top, self.foot) if from_top else (self.foot, self.top)
        before = neighbour(piece, edge.name, at_end=False)
        after = neighbour(piece, edge.name, at_end=True)
        lengthened = {
            before.name: longer(piece, before, at_start, at_end=True),
            after.name: longer(piece, after, at_end, at_end=False),
        }
        path = self._moved(edge, lengthened[before.name], lengthened[after.name], from_top)
        times = path.length / edge.path.length
        notches = tuple(replace(n, at=n.at * times) if n.edge == edge.name else n for n in piece.notches)
        return with_paths(replace(piece, notches=notches), {**lengthened, edge.name: path}, marked=edge.name)

    def _moved(self, edge: Edge, before: Path, after: Path, from_top: bool) -> Path:
        """The seam line through its new ends, out by so much on the way. Out is to the right of an edge as it runs."""
        from scipy.interpolate import PchipInterpolator  # here, to keep scipy out of the start

        level = min(max(self.share if from_top else 1 - self.share, 0.1), 0.9)
        ends = (self.top, self.foot) if from_top else (self.foot, self.top)
        out = PchipInterpolator((0.0, level, 1.0), (ends[0], self.middle, ends[1]))
        old = edge.path
        places = [before.end]
        for k in range(1, PLACES):
            at = old.length * k / PLACES
            places.append(old.point_at(at) - old.tangent_at(at).left * float(out(k / PLACES)))
        return smooth_through([*places, after.start])


def longer(piece: Piece, edge: Edge, by: float, *, at_end: bool) -> Path:
    """An edge that ends (or begins) so much further out, carried on straight; or so much sooner."""
    if not by:
        return edge.path
    path = edge.path if at_end else edge.path.reversed()
    if by > 0:
        made = Path((*path.segments, Line(path.end, path.end + path.arriving * by)))
    else:
        left = path.length + by
        here = [(d.at, d.at + d.intake) for d in piece.darts_of(edge.name)]
        spans = here if at_end else [(path.length - high, path.length - low) for low, high in here]
        if left < 10 or any(high > left - 5 for _, high in spans):
            raise CannotMake(f"the {edge.name} is too short for it")
        made = path.split(left)[0]
    return made if at_end else made.reversed()
