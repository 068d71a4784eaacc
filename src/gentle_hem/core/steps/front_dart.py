"""The front's own darts: the bust dart and the waist dart moved to an edge or merged, the waist dart made narrower or
shorter, waist darts left open as pleats (trade 4.5).
"""

from collections.abc import Callable
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.centre import seamed_at_centre
from gentle_hem.core.cutting.pivot import pivot
from gentle_hem.core.findings import in_recipe, note
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Dart, Piece
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.on_bodice import BodiceStep
from gentle_hem.core.style.darts import as_pleat, merged_into_waist, narrowed, shortened
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.units import Length
from gentle_hem.core.what import BUST_DART, FRONT_DART, SHOULDER_DART, Half, Sign

DartPlace = Literal["waist", "side", "armhole", "shoulder", "neckline", "centre front", "merged"]

SHARE_ALONG = {
    "side": 0.62, "armhole": 0.35, "shoulder": 0.5, "neckline": 0.5, "waist": 0.8, "centre front": 0.5
}  # fmt: skip
"""Where along an edge's path a moved dart opens, unless another dart is there already."""

CLEAR_OF_DART = 12.0

NAMED = {"bust": BUST_DART, "waist": FRONT_DART}


class FrontDart(BodiceStep):
    """The bust dart moved to the waist."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Move the bust or waist dart"
    sentences: ClassVar[tuple[str, ...]] = ("The front's {dart} dart {to}.",)
    words: ClassVar[dict[str, Word]] = {
        "dart": choice("which dart", ("bust", "bust"), ("waist", "waist")),
        "to": choice(
            "where it goes", ("waist", "moves to the waist"), ("side", "moves to the side"),
            ("armhole", "moves to the armhole"), ("shoulder", "moves to the shoulder"),
            ("neckline", "moves to the neckline"), ("centre front", "moves to the centre front"),
            ("merged", "is merged into the waist dart"),
        ),
    }  # fmt: skip

    kind: Literal["front_dart"] = "front_dart"
    on: Literal["front"] = "front"
    dart: Literal["bust", "waist"] = "bust"
    to: DartPlace = "waist"

    def draw(self, table: Styling) -> None:
        front, name = table.pieces[table.front], NAMED[self.dart]
        dart = next((d for d in front.darts if _called(d, name)), None)
        if self.to == "merged":
            if dart is None or self.dart != "bust":
                raise CannotMake("this draft has no bust dart to merge")
            table.put(merged_into_waist(front, dart))
            return
        if dart is None or front.bust_point is None:
            table.findings.append(
                note("no-such-dart", "This draft has no {name} to move.", *in_recipe("steps"), name=name)
            )
            return
        if dart.edge == self.to:
            return
        landmark = Sign.shaped(Half.FRONT, "bust dart") if self.to == "waist" else name
        moved = pivot(front, dart, self.to, _free_place(front, self.to), front.bust_point, landmark)
        table.put(seamed_at_centre(moved, table.allowances.panel) if self.to == "centre front" else moved)


class WaistDart(BodiceStep):
    """The front waist dart made ½ in narrower."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Shape the waist darts"
    sentences: ClassVar[tuple[str, ...]] = (
        "The front waist dart is made {narrower} narrower, its point {short}; waist darts are {stitched}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "narrower": length("waist dart narrower by", nothing="no"),
        "short": length(
            "point short of the bust point", without="where it was drafted",
            presets=((25.4, "1 in short"), (25.0, "2.5 cm short"), (30.0, "3 cm short")),
        ),
        "stitched": choice("waist darts", ("stitched", "stitched"), ("pleat", "left open as pleats")),
    }  # fmt: skip

    kind: Literal["waist_dart"] = "waist_dart"
    narrower: Annotated[Length, between(0, 60)] = 0.0
    short: Annotated[Length, between(0, 80)] | None = None
    stitched: Literal["stitched", "pleat"] = "stitched"

    def draw(self, table: Styling) -> None:
        if self.narrower:
            table.redraw(table.front, lambda p: _on_waist_dart(p, narrowed, self.narrower))
        if self.short is not None:
            short = self.short
            table.redraw(table.front, lambda p: _on_waist_dart(p, shortened, short))
        if self.stitched == "pleat":
            for what in (table.front, table.back):
                table.redraw(what, _pleated)


def _on_waist_dart(piece: Piece, change: Callable[[Piece, Dart, float], Piece], amount: float) -> Piece:
    darts = piece.darts_of("waist")
    if not darts:
        raise CannotMake("there is no dart on the front waist")
    return change(piece, darts[0], amount)


def _pleated(piece: Piece) -> Piece:
    for dart in piece.darts_of("waist"):
        piece = as_pleat(piece, dart)
    return piece


def _called(dart: Dart, name: Sign) -> bool:
    """The bust dart is drafted at the side by one school and at the shoulder by another."""
    return dart.landmark == name or (name == BUST_DART and dart.landmark == SHOULDER_DART)


def _free_place(piece: Piece, edge_name: str) -> float:
    """A place along an edge for a new dart, clear of the darts already on it."""
    edge = piece.edge(edge_name)
    at = edge.drawn_length * SHARE_ALONG[edge_name]
    for dart in piece.darts_of(edge_name):
        if dart.at - CLEAR_OF_DART < at < dart.at + dart.intake + CLEAR_OF_DART:
            at = (dart.at + dart.intake + edge.drawn_length) / 2
    return at
