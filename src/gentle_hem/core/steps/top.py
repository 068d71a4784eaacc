"""What holds a bodice up: a top cut off the shoulders, its straps, and the facing of its edge (trade 4.6, 11)."""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.parts import between
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import EdgeName
from gentle_hem.core.steps.on_bodice import BodiceStep
from gentle_hem.core.style.facings import neck_facings, top_facings
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.style.tops import Top, draw_top, straps
from gentle_hem.core.units import Length
from gentle_hem.core.what import Layer, Panel

FACING_WIDTH = 45.0
"""Facings are 1½-2 in wide where nothing else is said: common practice (trade 11)."""


class TopStep(BodiceStep):
    """The top cut off 4½ in below the shoulder."""

    title: ClassVar[str] = "Top"
    sentences: ClassVar[tuple[str, ...]] = (
        "It is held by {top}[top=off_shoulder:, cut {taken} below the shoulder]"
        "[top=one_shoulder:, the bare side {bare} below the underarm][top=halter:, {strap} wide at the neck].",
    )
    words: ClassVar[dict[str, Word]] = {
        "top": choice(
            "what holds it up", ("halter", "a halter"), ("one_shoulder", "one shoulder"),
            ("off_shoulder", "the arms, off the shoulder"), ("strapless", "nothing, strapless"),
        ),
        "taken": length("taken off the top", help="4 to 5 in for an off-shoulder neckline."),
        "bare": length("bare side below the underarm"), "strap": length("width at the neck"),
    }  # fmt: skip

    kind: Literal["top"] = "top"
    top: Literal[Top.HALTER, Top.ONE_SHOULDER, Top.OFF_SHOULDER, Top.STRAPLESS] = Top.STRAPLESS
    taken: Annotated[Length, between(40, 250)] = 114.3
    bare: Annotated[Length, between(0, 250)] = 15.0
    strap: Annotated[Length, between(10, 150)] = 60.0

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("neckline",)

    def draw(self, table: Styling) -> None:
        if self.top is Top.ONE_SHOULDER and table.carries:
            # drawn from a half, it would be carried down on one side alone
            raise CannotMake("a one-shoulder top is not carried on down; join it at the waist")
        if table.top_is_bare:
            raise CannotMake("its top is cut away already")
        draw_top(table, self.top, self.taken, self.strap, self.bare)


class Facing(BodiceStep):
    """The neck faced, 4.5 cm wide."""

    title: ClassVar[str] = "Facing"
    sentences: ClassVar[tuple[str, ...]] = ("The neck, or the top where it is bare, is faced {width} wide.",)
    words: ClassVar[dict[str, Word]] = {
        "width": length("facing width", presets=((38.1, "1 1/2 in"), (50.0, "5 cm"))),
    }

    kind: Literal["facing"] = "facing"
    width: Annotated[Length, between(20, 120)] = FACING_WIDTH

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("neckline",)

    def draw(self, table: Styling) -> None:
        if any(what.layer is Layer.FACING and what.panel in (Panel.NECK, Panel.TOP) for what in table.pieces):
            raise CannotMake("there is a facing already; change its width instead")
        if table.top_is_bare:
            top_facings(table, self.width)
        else:
            neck_facings(table, self.width)


class Straps(BodiceStep):
    """Straps 6 cm wide, straight over the shoulder."""

    title: ClassVar[str] = "Straps"
    sentences: ClassVar[tuple[str, ...]] = ("{way} {width} wide, their ends {ends}.",)
    words: ClassVar[dict[str, Word]] = {
        "way": choice(
            "straps", ("straight", "Straight straps"), ("criss_cross", "Straps that cross behind"),
            ("crossed_front", "Straps that cross in front"),
        ),
        "width": length("strap width"),
        "ends": choice("ends of the straps", ("square", "square"), ("shaped", "shaped to the edges they are sewn to")),
    }  # fmt: skip

    kind: Literal["straps"] = "straps"
    way: Literal["straight", "criss_cross", "crossed_front"] = "straight"
    width: Annotated[Length, between(10, 150)] = 60.0
    ends: Literal["square", "shaped"] = "square"

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("neckline",)

    def draw(self, table: Styling) -> None:
        straps(table, self.way, self.width, table.allowances.panel, table.block, self.ends)
