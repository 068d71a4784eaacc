"""Cuts opened, and wedges pinched out: from one edge to another, where each is hinged (trade 4.4, 4.7)."""

from collections.abc import Callable
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.spread import opened, pinched_out, smoothed
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.cutting.true import TRUED
from gentle_hem.core.geometry import Path
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import Edge, Mark, MarkKind, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, length, number
from gentle_hem.core.steps.base import EdgeName, PatternStep, Share, along, edge_word, on_each, share_word, the_edge
from gentle_hem.core.units import Length, inches

TRIES = 12


def stays(edge: Edge) -> bool:
    """The part with the centre stays where it is."""
    return edge.role.is_centre


def _two_edges(piece: Piece, opened: EdgeName, hinged: EdgeName) -> tuple[Edge, Edge]:
    """The edge that is changed and the one it runs out at. Raises CannotMake where one lies on the fold of the cloth:
    it would have a corner there.
    """
    edges = the_edge(piece, opened), the_edge(piece, hinged)
    if piece.fold in edges:
        raise CannotMake(f"the {piece.fold.role} lies on the fold, and would be bent there; take another edge")
    return edges


class Spread(PatternStep):
    """Three cuts from the neckline to the armhole, each opened by 2 in."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Cut and spread"
    sentences: ClassVar[tuple[str, ...]] = (
        "The {part}, {on}, is cut {cuts} from the {edge} to the {hinge}, from {first} to {last} of its way, and each "
        "cut is opened by {amount}.",
    )
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words, "edge": edge_word("edge that is opened"), "hinge": edge_word("edge it is hinged at"),
        "cuts": number("cuts", (1, "once"), (2, "twice"), (3, "three times"), (4, "four times"),
                       spoken=lambda value: {1: "once", 2: "twice"}.get(int(value), f"{int(value)} times")),
        "first": share_word("first cut"), "last": share_word("last cut"),
        "amount": length("each opened by", presets=((inches(2), "2 in"), (70.0, "7 cm"))),
    }  # fmt: skip

    kind: Literal["spread"] = "spread"
    edge: EdgeName = "neckline"
    hinge: EdgeName = "armhole"
    cuts: Annotated[int, number_between(1, 8, "cuts")] = 3
    first: Share = 0.25
    last: Share = 0.75
    amount: Annotated[Length, between(1, 200)] = inches(2)

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return (self.edge, self.hinge)

    def do(self, table: Table) -> None:
        on_each(table, self.halves, self.edge, self.spread_on)

    def spread_on(self, piece: Piece, keeps: Callable[[Edge], bool] = stays) -> Piece:
        """A piece with the cuts opened; the part with an edge that ``keeps`` picks stays where it is."""
        edge, hinge = _two_edges(piece, self.edge, self.hinge)
        for one in (edge, hinge):
            if piece.darts_of(one.name):
                raise CannotMake(f"a dart lies in the {one.name}; move it elsewhere first")
        wanted = edge.drawn_length + self.cuts * self.amount
        made, by = piece, self.amount
        for _ in range(TRIES):  # smoothing takes a little away: it is opened until as much is left as was asked
            fanned, lines = self._fanned(piece, edge, hinge, by, keeps)
            made = smoothed(fanned, edge.name, max(9, 2 * self.cuts + 5))
            if hinge.role in TRUED:  # it turned a little at every hinge
                made = smoothed(made, hinge.name, max(9, 2 * self.cuts + 5))
            short = wanted - made.edge(edge.name).drawn_length
            if abs(short) < 0.01:
                break
            by += short / self.cuts
        return replace(made, marks=(*made.marks, *lines))

    def _fanned(
        self, piece: Piece, edge: Edge, hinge: Edge, by: float, keeps: Callable[[Edge], bool]
    ) -> tuple[Piece, list[Mark]]:
        made = piece
        # from the far end of the path to its start, so that a cut does not move those still to come
        shares = sorted(self._shares(), key=lambda share: -along(edge, self.edge, share))
        towards = sorted(along(hinge, self.hinge, s) for s in self._shares())
        lines = []
        for at, hinged in zip([along(edge, self.edge, s) for s in shares], towards, strict=True):
            made = opened(made, edge.name, at, hinge.name, hinged, by, keeps)
            lines.append((at, hinged))
        path, foot = made.edge(edge.name).path, made.edge(hinge.name).path
        count = len(lines)
        return made, [
            Mark(MarkKind.SLASH, Path.through(path.point_at(at + by * (count - k - 0.5)), foot.point_at(hinged)))
            for k, (at, hinged) in enumerate(lines)
        ]

    def _shares(self) -> list[float]:
        """Where along either edge the cuts lie, evenly from the first to the last."""
        if self.cuts == 1:
            return [min(max((self.first + self.last) / 2, 0.02), 0.98)]
        return [
            min(max(self.first + (self.last - self.first) * k / (self.cuts - 1), 0.02), 0.98) for k in range(self.cuts)
        ]


class Pinch(PatternStep):
    """A wedge of ¼ in pinched out of the neckline, to nothing at the armhole."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Pinch out a wedge"
    sentences: ClassVar[tuple[str, ...]] = (
        "A wedge of {amount} is pinched out of the {edge} of the {part}, {on}, {share} of its way, to nothing at the "
        "{hinge}, {hinge_share} of its way.",
    )
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words, "edge": edge_word("edge it is taken from"), "hinge": edge_word("edge it runs out at"),
        "amount": length("pinched out", presets=((inches(0.25), "1/4 in"), (inches(0.5), "1/2 in"))),
        "share": share_word("where it is taken"), "hinge_share": share_word("where it runs out"),
    }  # fmt: skip

    kind: Literal["pinch"] = "pinch"
    edge: EdgeName = "neckline"
    hinge: EdgeName = "armhole"
    amount: Annotated[Length, between(1, 80)] = inches(0.25)
    share: Share = 0.5
    hinge_share: Share = 0.6

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return (self.edge, self.hinge)

    def do(self, table: Table) -> None:
        on_each(table, self.halves, self.edge, self._pinched)

    def _pinched(self, piece: Piece) -> Piece:
        edge, hinge = _two_edges(piece, self.edge, self.hinge)
        at = along(edge, self.edge, self.share)
        hinged = along(hinge, self.hinge, min(max(self.hinge_share, 0.02), 0.98))
        by, made = self.amount, piece
        for _ in range(TRIES):  # across a slanting edge the fold makes a step, which is drawn over: more is folded away
            if not by / 2 + 2 < at < edge.drawn_length - by / 2 - 2:
                raise CannotMake(f"the wedge runs over the end of the {self.edge}")
            made = pinched_out(piece, edge.name, at, hinge.name, hinged, by, stays)
            short = self.amount - (edge.drawn_length - made.edge(edge.name).drawn_length)
            if abs(short) < 0.01:
                break
            by += short
        return made
