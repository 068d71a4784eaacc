"""What a lay leaves over between its pieces, and whether that takes the facings.

┌──────────┐╲  ╭─╮
│  front   │ ╲ │f│   the facings lie in what the rest leaves over: without them the lay is as long
└──────────┘  ╲╰─╯
"""

from __future__ import annotations

from dataclasses import dataclass

from gentle_hem.core.cloth.lay import Lay, length_of
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.garment import Garment
from gentle_hem.core.what import Layer


@dataclass(frozen=True, slots=True)
class Facings:
    """How many facings are cut from a lay, and how much longer it is for them (mm)."""

    count: int
    take: float

    @property
    def lie_beside(self) -> bool:
        """Whether they lie in what the rest leaves over."""
        return self.take < 1.0


def facings_in(lay: Lay, garment: Garment) -> Facings | None:
    """The facings of a lay, measured on it as it is laid; None where it has none, or nothing but them."""
    faced = {one.name for one in cut_pieces(garment) if one.piece.layer is Layer.FACING and one.cloth is lay.role}
    facings = [one for one in lay.placed if set(one.name.split(" and ")) <= faced]
    rest = [one for one in lay.placed if one not in facings]
    if not facings or not rest:
        return None
    count = sum(len(one.name.split(" and ")) for one in facings)
    return Facings(count, lay.length - length_of(rest))
