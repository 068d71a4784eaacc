"""A neckline of any shape, front or back: its depth down the centre, set off the neck at the shoulder (trade 4.6)."""

from typing import Annotated, ClassVar, Literal, Self

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Piece
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import EdgeName
from gentle_hem.core.steps.on_bodice import BodiceStep
from gentle_hem.core.style.neckline import Neckline, UsedUp, with_neckline
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.units import Length


class NeckStep(BodiceStep):
    """A V neckline 15 cm deep in front."""

    sided: ClassVar[bool] = True
    title: ClassVar[str] = "Neckline"
    sentences: ClassVar[tuple[str, ...]] = (
        "The neckline is {shape}, {on}[shape:, {depth} deep], and opens {wider} wider at the shoulder.",
        "It is lowest {aside}[aside: to her {toward}].",
    )
    words: ClassVar[dict[str, Word]] = {
        "on": choice("on", ("front", "in front"), ("back", "behind")),
        "shape": choice(
            "neckline", ("as_drafted", "as drafted"), ("round", "round"), ("v", "a V"), ("square", "square"),
            ("scoop", "scooped"), ("sweetheart", "a sweetheart"),
        ),
        "depth": length("depth of the neck", help="Down the centre. A low back is a deep V or scoop."),
        "wider": length("neck opened at the shoulder", nothing="no"),
        "aside": length("beside the centre", nothing="at the centre"),
        "toward": choice("towards", ("left", "left"), ("right", "right")),
    }  # fmt: skip

    kind: Literal["neckline"] = "neckline"
    on: Literal["front", "back"] = "front"
    shape: Neckline = Neckline.V
    depth: Annotated[Length, between(10, 600)] = 150.0
    wider: Annotated[Length, between(0, 150)] = 0.0
    aside: Annotated[Length, between(0, 120)] = 0.0
    toward: Literal["left", "right"] = "left"

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("neckline",)

    @property
    def is_alike(self) -> bool:
        return super().is_alike and (self.off or not self.aside)

    def for_side(self, side: str) -> Self:
        step = super().for_side(side)
        turned = step.aside and step.toward != side
        return step.model_copy(update={"aside": -step.aside}) if turned else step

    def draw(self, table: Styling) -> None:
        table.redraw(table.front if self.on == "front" else table.back, self._drawn)
        table.is_block()

    def _drawn(self, piece: Piece) -> Piece:
        shape, depth = self.shape, self.depth
        if shape is Neckline.AS_DRAFTED and not self.wider and not self.aside:
            return piece
        if shape is Neckline.AS_DRAFTED:
            shape = Neckline.ROUND
            depth = piece.edge("shoulder").path.end.y - piece.edge("neckline").path.end.y
        if shape is Neckline.SWEETHEART and self.on == "back":
            raise CannotMake("a sweetheart is drawn over the bust; take another shape behind")
        try:
            return with_neckline(piece, shape, depth, self.wider, self.aside)
        except UsedUp as used_up:
            raise CannotMake(f"it uses up {used_up}: make it shallower or narrower") from None
