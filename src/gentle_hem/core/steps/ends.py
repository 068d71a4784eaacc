"""Where a bodice ends, and what is cut across it: a midriff or a line under the bust, a point or a dropped waist, a
yoke (trade 4.6).
"""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.carry import Below
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.estimates import Measures
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Piece
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import EdgeName
from gentle_hem.core.steps.on_bodice import BodiceStep
from gentle_hem.core.style.contour import under_bust_level
from gentle_hem.core.style.down import carry_down
from gentle_hem.core.style.fronts import pointed_waist
from gentle_hem.core.style.panels import cut_under_bust, midriff_joined, yoke
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.units import Length
from gentle_hem.core.what import Half

DART_ABOVE_HIP = {Half.FRONT: 50.8, Half.BACK: 25.4}
"""A dart carried below the waist ends 2 in above the hip at the front, 1 in at the back: common practice
(trade 4.1)."""


class EndsAt(BodiceStep):
    """The bodice ends in a point 5 in below the waist."""

    title: ClassVar[str] = "Where the bodice ends"
    sentences: ClassVar[tuple[str, ...]] = ("It ends {where}[where=basque|dropped:, {depth} deep].",)
    words: ClassVar[dict[str, Word]] = {
        "where": choice(
            "where the bodice ends", ("under_bust", "under the bust"),
            ("midriff", "at the waist, with a midriff under the bust"), ("basque", "in a point below the waist"),
            ("dropped", "below the waist"),
        ),
        "depth": length("depth below the waist", help="5 in is typical for a pointed basque."),
    }  # fmt: skip

    kind: Literal["ends"] = "ends"
    where: Literal["under_bust", "midriff", "basque", "dropped"] = "basque"
    depth: Annotated[Length, between(10, 300)] = 127.0

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("waist",)

    def draw(self, table: Styling) -> None:
        if table.carries:
            raise CannotMake("a gown cut in one goes on to its hem")
        if self.where in ("basque", "dropped") and table.other_waist:
            raise CannotMake("a one-shoulder top is not carried on down; join it at the waist")
        if self.where == "basque":
            table.redraw(table.front, lambda p: pointed_waist(p, self.depth))
            table.point = self.depth
        elif self.where == "dropped":
            measures = Measures(table.figure, table.notes)
            carry_down(table, lambda piece: self._dropped(piece, measures))
            table.level = self.depth
        else:
            self._under_bust(table)

    def _dropped(self, piece: Piece, measures: Measures) -> Below:
        """A dropped waist follows the hip with 2 cm of ease on each quarter's way to it."""
        hip, drop = measures.take("hip_girth"), measures.take("waist_to_hip")
        width = hip / 4 + 10
        assert piece.what.half is not None
        dart = max(drop - DART_ABOVE_HIP[piece.what.half], self.depth * 0.5)
        return Below(self.depth, drop, width, width, dart)

    def _under_bust(self, table: Styling) -> None:
        front, back = table.pieces[table.front], table.pieces[table.back]
        level = under_bust_level(table.block[0], table.figure)
        above_waist = level - front.edge("waist").path.end.y
        keep = self.where == "midriff"
        cut_under_bust(table, table.front, level, keep)
        # the back is cut where the side seams, both walked from the waist, meet the front's line
        cut = front.edge("side").drawn_length - table.pieces[table.front].edge("side").drawn_length
        cut_under_bust(table, table.back, _at_side(back, cut), keep)
        if keep:
            midriff_joined(table)
        else:
            table.level = -above_waist


def _at_side(back: Piece, cut: float) -> float:
    """The level at which a line cuts so much off the back's side seam, as the front's cuts off its own."""
    side = mirrored(back).edge("side").path
    if not 0 < cut < side.length:
        raise CannotMake("the line does not meet the back's side seam")
    return side.point_at(cut).y


class Yoke(BodiceStep):
    """A yoke 12 cm deep behind."""

    title: ClassVar[str] = "Yoke"
    sentences: ClassVar[tuple[str, ...]] = ("A yoke {depth} deep, {on}, cut across below the shoulder.",)
    words: ClassVar[dict[str, Word]] = {
        "on": choice("on", ("front", "in front"), ("back", "behind"), ("both", "in front and behind")),
        "depth": length("depth of the yoke", help="From the shoulder at the neck."),
    }  # fmt: skip

    sided: ClassVar[bool] = True

    kind: Literal["yoke"] = "yoke"
    on: Literal["front", "back", "both"] = "back"
    depth: Annotated[Length, between(0, 300)] = 120.0

    @property
    def on_block(self) -> bool:
        return False

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return "centre", "armhole"

    def draw(self, table: Styling) -> None:
        for half in self.halves:
            yoke(table, table.front if half is Half.FRONT else table.back, self.depth)
