"""What is asked of a lay: which cloth, flat or on the fold, what is pinned, which seams are matched, how long it is
searched.
"""

from __future__ import annotations

from collections.abc import Sequence
from enum import StrEnum
from typing import Annotated

from pydantic import Field
from shapely.affinity import translate

from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.lay import HowLaid, Lay, Layers, Pin, Placed, laying, width_of
from gentle_hem.core.cloth.matching import Over, repeat_of
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cloth.things import Lie
from gentle_hem.core.garment import Garment
from gentle_hem.core.parts import RecipePart, between
from gentle_hem.core.units import Length

LONGEST_SEARCH = 120


class Folding(StrEnum):
    """How the cloth is laid out."""

    FLAT = "flat"
    SELVEDGES = "selvedges"
    """On the fold, selvedge on selvedge."""
    TO_WIDTH = "to width"
    """Folded to a chosen width; beside it the cloth lies single."""


Place = Annotated[Length, between(-50_000, 500_000)]


class Pinned(RecipePart):
    """A thing put down by hand: its lower left corner from the selvedge and the cut end, and whether end for end."""

    name: Annotated[str, Field(max_length=200)]
    x: Place
    y: Place
    turned: bool = False


class LayAsked(RecipePart):
    """A cloth of a dress, and how it is to be laid."""

    role: ClothRole = ClothRole.OUTER
    folding: Folding = Folding.FLAT
    folded: Annotated[Length, between(50, 2500)] | None = Field(None, description="How wide it lies double, to width.")
    pins: Annotated[tuple[Pinned, ...], Field(max_length=400)] = ()
    lies: Annotated[dict[str, Lie], Field(max_length=400)] = Field({}, description="What is not laid along the grain.")
    over: tuple[Over, ...] = Field((), description="Over which seams the print is matched.")
    border: bool = Field(False, description="Whether hems that are straight enough lie on the border.")
    corners: bool = Field(False, description="Whether what is wider than the cloth has its corners joined on.")
    safety: Annotated[float, Field(ge=0, le=50)] = Field(0.0, description="How much more is bought, per cent.")
    seconds: Annotated[int, Field(ge=1, le=LONGEST_SEARCH)] = 10
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1

    def on(self, cloth: Cloth) -> tuple[float, HowLaid]:
        """The usable width of a cloth (mm), and how it is laid."""
        width = width_of(cloth, self.role)
        folded = {Folding.FLAT: None, Folding.SELVEDGES: width / 2}.get(self.folding, self.folded or width / 2)
        flat = folded is None
        return width, HowLaid(
            one_way=cloth.nap == "one_way",
            folded=folded,
            pins=tuple(Pin(pin.name, pin.x, pin.y, pin.turned) for pin in self.pins),
            lies=tuple(self.lies.items()) if flat else (),
            repeat=repeat_of(cloth),
            over=tuple(self.over) if (cloth.repeat_along or cloth.repeat_across) else (),
            corners=self.corners,
            border=self.border and cloth.border is not None,
        )


class SpotKept(RecipePart):
    """Where a thing lies, as it is kept: what it is called, its lower left corner (mm), and how it lies."""

    name: Annotated[str, Field(max_length=200)]
    x: Place
    y: Place
    turned: bool = False
    flipped: bool = False
    layers: Layers = Layers.FLAT


def laid_again(
    garment: Garment, asked: LayAsked, cloth: Cloth, spots: Sequence[SpotKept], opened_from: float | None = None
) -> Lay | None:
    """A lay that was found before, on the pieces as they are now, looked over anew; None where other things are cut now
    than then.
    """
    width, how = asked.on(cloth)
    ready = laying(garment, asked.role, width, how)
    things = {thing.name: thing for thing in ready.things}
    if sorted(things) != sorted(spot.name for spot in spots):
        return None
    pinned = {pin.name for pin in how.pins}
    placed = []
    for spot in spots:
        ways = ready.ways(things[spot.name])
        way = next((way for way in ways if (way.turned, way.flipped) == (spot.turned, spot.flipped)), None)
        if way is None:
            return None
        outline = translate(way.shape, spot.x, spot.y)
        placed.append(Placed(0, spot.name, outline, way.turned, way.flipped, spot.layers, spot.name in pinned))
    return ready.of(placed, opened_from)


def spots_of(lay: Lay) -> list[SpotKept]:
    """A lay as it is kept."""
    return [
        SpotKept(name=one.name, x=round(one.from_selvedge, 4), y=round(one.from_cut_end, 4), turned=one.turned,
                 flipped=one.flipped, layers=one.layers)
        for one in lay.placed
    ]  # fmt: skip
