"""Darts moved, made shorter or narrower: a moved one keeps its angle, a narrowed one its seam's length."""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.pivot import pivot
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Dart, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import EdgeName, PatternStep, Share, along, edge_word, on_each, share_word, the_edge
from gentle_hem.core.style.darts import narrowed
from gentle_hem.core.units import Length

LEAST_LEFT = 20.0
"""A dart is no shorter than this (mm)."""


def the_dart(piece: Piece, edge: str) -> Dart:
    """The first dart on an edge. Raises CannotMake where there is none."""
    darts = piece.darts_of(the_edge(piece, edge).name)
    if not darts:
        raise CannotMake(f"there is no dart on the {edge} of the {piece.name}")
    return darts[0]


class MoveDart(PatternStep):
    """The back shoulder dart moved to the armhole."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Move a dart"
    sentences: ClassVar[tuple[str, ...]] = (
        "The dart on the {edge} of the {part}, {on}, is moved to the {to}, {share} of its way.",
    )
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words, "edge": edge_word("where it is"), "to": edge_word("where it goes"),
        "share": share_word("how far along"),
    }  # fmt: skip

    kind: Literal["move_dart"] = "move_dart"
    edge: EdgeName = "waist"
    to: EdgeName = "armhole"
    share: Share = 0.5

    @property
    def on_block(self) -> bool:
        return self.edge == "waist" and self.to not in ("princess", "panel", "hem")

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return (self.edge, self.to)

    def do(self, table: Table) -> None:
        on_each(table, self.halves, self.edge, self._moved)

    def _moved(self, piece: Piece) -> Piece:
        dart = the_dart(piece, self.edge)
        edge = the_edge(piece, self.to)
        at = along(edge, self.to, min(max(self.share, 0.02), 0.98))
        for other in piece.darts_of(edge.name):
            if other is not dart and other.at - 10 < at < other.at + other.intake + 10:
                raise CannotMake(f"there is a dart at that place of the {self.to}")
        return pivot(piece, dart, edge.name, at, piece.bust_point or dart.apex, dart.landmark)


class ShapeDart(PatternStep):
    """The back waist dart made 1 cm shorter."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Shorten, narrow or fold a dart"
    sentences: ClassVar[tuple[str, ...]] = (
        "The dart on the {edge} of the {part}, {on}, is made {shorter} shorter and {narrower} narrower, and {left}.",
    )
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words, "edge": edge_word("where it is"),
        "shorter": length("shorter", nothing="no", help="Less than nothing makes it longer."),
        "narrower": length("narrower", nothing="no", help="Its waist keeps its length; the side takes what it gives."),
        "left": choice("the dart", ("stitched", "stitched"), ("fold", "left open as a fold")),
    }  # fmt: skip

    kind: Literal["shape_dart"] = "shape_dart"
    on: Literal["front", "back", "both"] = "back"
    edge: EdgeName = "waist"
    shorter: Annotated[Length, between(-120, 120)] = 10.0
    narrower: Annotated[Length, between(0, 60)] = 0.0
    left: Literal["stitched", "fold"] = "stitched"

    @property
    def on_block(self) -> bool:
        return self.edge == "waist"

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return (self.edge,)

    def do(self, table: Table) -> None:
        on_each(table, self.halves, self.edge, self._shaped)

    def _shaped(self, piece: Piece) -> Piece:
        if self.narrower:
            if self.edge != "waist":
                raise CannotMake("only a waist dart can be made narrower: what it gives goes to the side")
            piece = narrowed(piece, the_dart(piece, self.edge), self.narrower)
        dart = the_dart(piece, self.edge)
        near, far = piece.dart_legs(dart)
        middle = near.towards(far, 0.5)
        long = middle.distance(dart.apex)
        if long - self.shorter < LEAST_LEFT:
            raise CannotMake("nothing would be left of the dart")
        apex = middle + (dart.apex - middle) * ((long - self.shorter) / long)
        shaped = replace(dart, apex=apex, pleat=dart.pleat or self.left == "fold")
        return replace(piece, darts=tuple(shaped if d is dart else d for d in piece.darts))
