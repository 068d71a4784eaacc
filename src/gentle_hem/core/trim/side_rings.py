"""Circular ruffle let into both side seams (trade 8): rings that stop short of the seam's upper end.

side │ short            base = 2 × (side − short), shared into rings
     │◗
     │◗ ring           folded in eight, the arc on the fold is an eighth of a ring's inner edge
     │◗
"""

from typing import Annotated, ClassVar, Literal, Protocol

from pydantic import Field

from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import NotchKind, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, seam_of
from gentle_hem.core.sentences import Word, length, number
from gentle_hem.core.trim.base import Trim
from gentle_hem.core.trim.flounce import RingNumbers, ring, ring_piece, rings_of_half
from gentle_hem.core.trim.ruffle import long_side, up_from_hem
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import Panel, Section, Sign, What
from gentle_hem.core.workings import Count, Worked, Workings
from gentle_hem.core.workroom import Dressed

FOLDED_IN = 8


class SideRings(Trim):
    """Circular ruffle of 4 rings along the side seams, 12 cm deep, stopping 3 in short."""

    title: ClassVar[str] = "Circular ruffle along the sides"
    sentences: ClassVar[tuple[str, ...]] = (
        "A circular ruffle of {rings} rings for both side seams, {width} deep, stopping {short} short of their upper "
        "ends, its joins {join}, its hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "rings": number("rings for both sides", (2, "2"), (4, "4"), (6, "6")),
        "width": length("depth of the ruffle"), "short": length("short of the seam's upper end"),
        "join": length("join allowance of a ring"), "hem": length("hem of the ruffle"),
    }  # fmt: skip

    kind: Literal["side_rings"] = "side_rings"
    rings: Annotated[int, number_between(1, 40, "rings")] = 4
    width: Annotated[Length, between(10, 400)] = 120.0
    short: Annotated[Length, between(0, 600)] = inches(3)
    join: Annotated[Length, between(0, 30)] = 10.0
    hem: Annotated[Length, between(0, 30)] = Field(inches(0.25), description="A narrow hem.")

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("side ruffle")
        piece, side = long_side(dress, self.short)
        along = notes.work(
            "sewn along each side", side.drawn_length - self.short, "{side_seam} − {short}",
            side_seam=side.drawn_length, short=self.short,
        )  # fmt: skip
        base = notes.work("base", 2 * along, "2 × {along}", rule="both sides of the dress", along=along)
        what = dress.free(What(Section.FLOUNCE, panel=Panel.SIDE_RING))
        made, _ = rings_for(what, base, self, dress.allowances.side, notes)
        marked, stretch = up_from_hem(piece, float(along), Sign("ruffle end"), NotchKind.OPEN)
        above = Run((stretch,), called="side seam", why=along)
        own = replace(rings_of_half(made, "top", self.rings, backwards=True), corners=(), why=base)
        joined = seam_of(f"{what.name} join", (what, "start"), (what, "end"))
        return dress.with_pieces([marked, made]).sewn(Seam(f"{what.name} seam", above, own), joined)


class Asked(Protocol):
    """What is asked of a circular ruffle."""

    @property
    def rings(self) -> int: ...

    @property
    def width(self) -> float: ...

    @property
    def join(self) -> float: ...

    @property
    def hem(self) -> float: ...


def rings_for(what: What, base: Worked, asked: Asked, inner: float, notes: Workings) -> tuple[Piece, RingNumbers]:
    """The ring that a circular ruffle is made of, all of them alike: ``base`` is how much there is to sew them to, and
    ``inner`` the allowance of their inner edge (mm). How it is folded and cut is worked out beside it.
    """
    numbers = ring(float(base), asked.rings, asked.width, asked.join, inner, asked.hem, notes)
    radius = float(numbers.seam_radius)
    notes.work(
        "arc on the fold", base / asked.rings / FOLDED_IN, "{base} ÷ {rings} ÷ {folds}",
        rule="an eighth of a ring's inner edge, folded in eight", base=base, rings=Count(asked.rings),
        folds=Count(FOLDED_IN),
    )  # fmt: skip
    notes.work(
        "reach across the fold", numbers.outer_cut_radius, "{outer_cut_radius}",
        rule="from the tip of the folded cloth", outer_cut_radius=numbers.outer_cut_radius,
    )  # fmt: skip
    made = ring_piece(
        what, radius, asked.width, float(base) / asked.rings, asked.join, min(inner, 0.8 * radius), asked.hem,
        asked.rings,
    )  # fmt: skip
    return made, numbers
