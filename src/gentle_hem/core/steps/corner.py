"""A corner let out or taken in: a shoulder tip, a hem corner, a centre tip; both edges that meet there go with it."""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.redraw import with_paths
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.geometry import Point
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Piece
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import EdgeName, PatternStep, Side, edge_of, on_each
from gentle_hem.core.units import Length

CORNERS: dict[str, tuple[EdgeName, EdgeName]] = {
    "shoulder tip": ("shoulder", "armhole"), "neck point": ("shoulder", "neckline"), "underarm": ("armhole", "side"),
    "centre neck": ("neckline", "centre"), "centre waist": ("waist", "centre"), "side waist": ("waist", "side"),
    "side hem": ("hem", "side"), "centre hem": ("hem", "centre"),
    "fork": ("centre", "inside leg"),
}  # fmt: skip
"""A corner by the two edges that meet in it."""

Corner = Literal[
    "shoulder tip",
    "neck point",
    "underarm",
    "centre neck",
    "centre waist",
    "side waist",
    "side hem",
    "centre hem",
    "fork",
]


TRIES = 8
"""So often an inside leg is measured again until it is as long as it is to be."""


class LetOutCorner(PatternStep):
    """The shoulder tip let out 1 cm and raised half a centimetre, as for a shoulder pad."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Let out a corner"
    sentences: ClassVar[tuple[str, ...]] = ("The {corner} of the {part}, {on}, goes {out} out and {up} up.",)
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words, "corner": choice("corner", *((name, name) for name in CORNERS)),
        "out": length("out", nothing="no way",
                      help="Away from the centre, a fork between the legs; less than nothing brings it in."),
        "up": length("up", help="Less than nothing goes down.", nothing="no way"),
    }  # fmt: skip

    kind: Literal["corner"] = "corner"
    on: Side = "both"
    corner: Corner = "shoulder tip"
    out: Annotated[Length, between(-150, 300)] = 10.0
    up: Annotated[Length, between(-150, 150)] = 5.0

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return CORNERS[self.corner]

    def do(self, table: Table) -> None:
        on_each(table, self.halves, CORNERS[self.corner][0], self._let_out)

    def _let_out(self, piece: Piece) -> Piece:
        first, second = (edge_of(piece, name) for name in CORNERS[self.corner])
        if first is None or second is None:
            raise CannotMake(f"the {piece.name} has no {self.corner}")
        places = {e.name: (e.path.start, e.path.end) for e in (first, second)}
        if places[first.name][1].distance(places[second.name][0]) > places[first.name][0].distance(
            places[second.name][1]
        ):
            first, second = second, first
        if first.path.end.distance(second.path.start) > 0.01:
            raise CannotMake(f"its {first.name} does not meet its {second.name}")
        is_fork = self.corner == "fork"  # out is towards the other leg
        move = Point(-self.out if is_fork else self.out, self.up)
        if move.size > 0.6 * min(first.drawn_length, second.drawn_length):
            raise CannotMake("the edges that meet there are too short for it")
        place = first.path.end + move
        if is_fork:  # both inside legs stay as long as each other
            for _ in range(TRIES):
                more = second.path.starting_at(place).length - second.path.length - self.up
                place = place - Point(0, more)
        return with_paths(piece, {first.name: first.path.ending_at(place), second.name: second.path.starting_at(place)})
