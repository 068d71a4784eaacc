"""Circular ruffle at the hems of the sleeves (trade 8): each sleeve's hem shared into rings.

┌────────────┐
│   sleeve   │           base = the sleeve's hem, shared into rings
└────────────┘
◗ ◗ ◗ ◗ ◗ ◗ ◗           r = (base ÷ n + 2j) ÷ 2π
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import Role
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of
from gentle_hem.core.sentences import Word, length, number
from gentle_hem.core.trim.base import Trim, Turn
from gentle_hem.core.trim.flounce import curling, ring, ring_piece
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import Panel, Section, What
from gentle_hem.core.workings import Workings
from gentle_hem.core.workroom import Dressed


class SleeveRings(Trim):
    """Circular ruffle of 1 ring at each sleeve's hem, 10 cm deep."""

    turn: ClassVar[Turn] = Turn.ON_WHAT_IS_THERE
    title: ClassVar[str] = "Circular ruffle at the sleeves"
    sentences: ClassVar[tuple[str, ...]] = (
        "A circular ruffle of {rings} for each sleeve, {width} deep, sewn to its hem, its joins {join}, its hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "rings": number("rings for each sleeve", (1, "1 ring"), (2, "2 rings"), (3, "3 rings"),
                        spoken=lambda n: f"{n} ring" + ("s" if n > 1 else "")),
        "width": length("depth of the ruffle"), "join": length("join allowance of a ring"),
        "hem": length("hem of the ruffle"),
    }  # fmt: skip

    kind: Literal["sleeve_rings"] = "sleeve_rings"
    rings: Annotated[int, number_between(1, 20, "rings")] = 1
    width: Annotated[Length, between(10, 500)] = 100.0
    join: Annotated[Length, between(0, 30)] = 10.0
    hem: Annotated[Length, between(0, 30)] = Field(inches(0.25), description="A narrow hem.")

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("sleeve ruffle")
        sleeve = next((p for p in dress.pieces.values() if p.what.is_outer(Section.SLEEVE)), None)
        if sleeve is None:
            raise CannotMake("there are no sleeves to sew it to")
        hem = next(e for e in sleeve.edges if e.role is Role.HEM)
        if hem.finished is not None:
            raise CannotMake("the hems of the sleeves are folded over an elastic")
        if any((sleeve.what, hem.name) == (s.piece, s.edge) for seam in dress.seams for s in seam.stretches):
            raise CannotMake("something is sewn to the hems of the sleeves already")
        base = notes.work("base", sleeve.stitched_length(hem.name), "the sleeve's hem, measured")
        inner = dress.allowances.panel
        numbers = ring(float(base), self.rings, self.width, self.join, inner, self.hem, notes)
        radius = float(numbers.seam_radius)
        what = dress.free(What(Section.FLOUNCE, panel=Panel.SLEEVE_RING))
        piece = ring_piece(
            what, radius, self.width, base / self.rings, self.join, min(inner, 0.8 * radius), self.hem,
            sleeve.cut * self.rings,
        )  # fmt: skip
        own = Run((Stretch(what, "top", backwards=True),) * self.rings, called="ruffle", why=numbers.seam_radius)
        above = Run((Stretch(sleeve.what, hem.name),), called="sleeve's hem", why=base)
        joined = seam_of(f"{what.name} join", (what, "start"), (what, "end"))
        return (
            dress.with_pieces([sleeve.with_edge(hem.name, allowance=inner, turned=False), piece])
            .sewn(Seam(f"{what.name} seam", above, own), joined)
            .also(*curling(numbers, where))
        )
