"""One end of an edge lowered or raised along the edge it meets there; the rest of it follows smoothly."""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.redraw import neighbour
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.geometry import Line, Path
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Edge, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import EdgeName, PatternStep, edge_word, on_each, runs_from_start, the_edge
from gentle_hem.core.steps.hollow import PLACES
from gentle_hem.core.units import Length


class LowerEnd(PatternStep):
    """The back neck lowered 1 cm at the centre."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Lower or raise the end of an edge"
    sentences: ClassVar[tuple[str, ...]] = ("The {edge} of the {part}, {on}, is lowered {amount} at {end}.",)
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words, "edge": edge_word("edge"),
        "amount": length("lowered by", help="Less than nothing raises it."),
        "end": choice("end", ("near", "the centre, the neck or the top"), ("far", "its other end")),
    }  # fmt: skip

    kind: Literal["lower_end"] = "lower_end"
    on: Literal["front", "back", "both"] = "back"
    edge: EdgeName = "neckline"
    amount: Annotated[Length, between(-300, 300)] = 10.0
    end: Literal["near", "far"] = "near"

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return (self.edge,)

    def do(self, table: Table) -> None:
        on_each(table, self.halves, self.edge, self._lowered)

    def _lowered(self, piece: Piece) -> Piece:
        edge = the_edge(piece, self.edge)
        at_end = runs_from_start(edge, self.edge) != (self.end == "near")
        beside = neighbour(piece, edge.name, at_end)
        if piece.darts_of(edge.name):
            raise CannotMake(f"a dart lies in the {self.edge}; move it elsewhere first")
        line = _moved_end(beside, starts_there=at_end, down=self.amount)
        place = line.start if at_end else line.end
        step = place - (edge.path.end if at_end else edge.path.start)
        places = []
        for k in range(PLACES + 1):
            share = k / PLACES if at_end else 1 - k / PLACES
            places.append(edge.path.point_at(edge.path.length * k / PLACES) + step * (share * share * (3 - 2 * share)))
        path = smooth_through(places, leave=edge.path.leaving, arrive=edge.path.arriving)
        return with_both(piece, edge, path, beside, line, at_end)


def with_both(piece: Piece, edge: Edge, path: Path, beside: Edge, line: Path, at_end: bool) -> Piece:
    """A piece with an edge redrawn and its neighbour at one end made longer or shorter there."""
    times, more = path.length / edge.path.length, line.length - beside.path.length
    notches = []
    for notch in piece.notches:
        if notch.edge == edge.name:
            notch = replace(notch, at=notch.at * times)
        elif notch.edge == beside.name:
            notch = replace(notch, at=notch.at + more) if at_end else notch
            if not 0 < notch.at < line.length:
                continue  # it was cut away
        notches.append(notch)
    darts = tuple(replace(d, at=d.at + more) if at_end and d.edge == beside.name else d for d in piece.darts)
    if any(d.edge == beside.name and not 0 <= d.at <= line.length - d.intake for d in darts):
        raise CannotMake(f"it would be cut through the dart of the {beside.name}")
    edges = tuple(
        replace(e, path=path) if e.name == edge.name else replace(e, path=line) if e.name == beside.name else e
        for e in piece.edges
    )
    return replace(piece, edges=edges, darts=darts, notches=tuple(notches))


def _moved_end(edge: Edge, *, starts_there: bool, down: float) -> Path:
    """An edge that begins (or ends) lower down along itself by so much; carried on straight where it goes beyond."""
    path = edge.path if starts_there else edge.path.reversed()
    inward = path.leaving.y < 0  # going into the edge leads down
    by = down if inward else -down
    if by >= path.length - 10:
        raise CannotMake(f"the {edge.name} is too short for it")
    if by > 0:
        made = path.split(by)[1]
    else:
        made = Path((Line(path.start + path.leaving * by, path.start), *path.segments)) if by else path
    return made if starts_there else made.reversed()
