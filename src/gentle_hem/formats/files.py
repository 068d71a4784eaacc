"""Everything a recipe makes, as files by name."""

from __future__ import annotations

import json
import logging
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from typing import TYPE_CHECKING

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.garment import Garment
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.replace import replace
from gentle_hem.formats.cut_list import to_csv
from gentle_hem.formats.garment_document import garment_document
from gentle_hem.formats.paper import Paper, Printing, paper_for

if TYPE_CHECKING:
    from gentle_hem.core.dressed import DrawnDress
    from gentle_hem.formats.hpgl import Strip
    from gentle_hem.formats.labels import Drawn, Sheet, Tag

log = logging.getLogger("gentle_hem")


@dataclass(frozen=True)
class Order:
    """What is being written: a garment, its recipe, how it is printed, and which version of what day it is."""

    recipe: Recipe
    garment: Garment
    printing: Printing = Printing()  # noqa: RUF009  (a frozen value)
    version: int | None = None
    day: date | None = None
    bought: Mapping[ClothRole, str] = field(default_factory=dict)
    """How much of each cloth that is laid is bought, as it is asked for in the shop."""
    hung: Mapping[str, bytes] = field(default_factory=dict)
    """How it hangs, by the side it is seen from, as PNG; nothing where it was not hung."""
    beside: Order | None = None
    """Another version, printed beside this one."""

    @cached_property
    def tag(self) -> Tag:
        """What every piece says of the dress."""
        from gentle_hem.formats.labels import Tag  # here, to keep reportlab out of the start

        return Tag.of(self.recipe, self.garment, self.version, self.day)

    @cached_property
    def sheet(self) -> Sheet:
        """The pieces with their words on one sheet, worked out once for all the files it is drawn in."""
        from gentle_hem.formats.labels import sheet

        return sheet(self.garment, self.tag, self.recipe.unit)

    @cached_property
    def printed(self) -> Sheet:
        """What is printed on one sheet: the pieces, and another version's beside them where one is asked for."""
        from gentle_hem.formats.labels import beside_each_other

        if self.beside is None:
            return self.sheet
        return beside_each_other([(self.sheet, self.version), (self.beside.sheet, self.beside.version)])

    @property
    def other(self) -> tuple[Garment, Tag] | None:
        """The version that is printed beside this one."""
        return None if self.beside is None else (self.beside.garment, self.beside.tag)

    @cached_property
    def on_roll(self) -> tuple[list[Drawn], list[Strip]]:
        """The pieces as they lie on a roll, and the strips of it they are drawn in."""
        from gentle_hem.formats.hpgl import Strip
        from gentle_hem.formats.paper import MARGIN
        from gentle_hem.formats.pdf import printed_sheet

        roll = replace(self.printing, paper=Paper.ROLL, own_size=None)
        drawn, tiles, _ = printed_sheet(self.garment, roll, self.tag, self.recipe.unit, self.printed, self.other)
        width, height = (side - 2 * MARGIN for side in roll.size)
        return drawn, [Strip(tile.name, tile.left, tile.top, width, height) for tile in tiles]

    @cached_property
    def dress(self) -> DrawnDress | None:
        """The dress on its figure; None where it cannot be drawn, which the page says: the pattern is whole without."""
        from gentle_hem.core.dressed import drawn_dress

        try:
            return drawn_dress(self.recipe, self.garment)
        except Exception:
            log.exception("the drawn dress")
            return None


def recipe_json(recipe: Recipe) -> str:
    """recipe.json, which makes the same garment when it is brought back."""
    return json.dumps(recipe.model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"


def _svg(order: Order) -> bytes:
    from gentle_hem.formats.svg import to_svg

    return to_svg(order.garment, order.tag, order.recipe.unit, order.sheet).encode()


def _dress(order: Order) -> bytes:
    from gentle_hem.core.dressed import drawn_dress
    from gentle_hem.formats.dress import to_dress_svg

    return to_dress_svg(drawn_dress(order.recipe, order.garment), order.recipe.name).encode()


def _dxf(order: Order) -> bytes:
    from gentle_hem.formats.dxf import to_dxf  # here, since ezdxf alone takes half a second of the start

    return to_dxf(order.garment, order.tag, order.recipe.unit, order.sheet).encode()


def _plain_dxf(order: Order) -> bytes:
    from gentle_hem.formats.dxf import to_plain_dxf

    return to_plain_dxf(order.garment, order.tag, order.recipe.unit, order.sheet).encode()


def _pdf(order: Order) -> bytes:
    from gentle_hem.formats.pdf import to_pdf

    return to_pdf(order.garment, order.printing, order.tag, order.recipe.unit, order.printed, order.dress, order.other)


def _large_pdf(order: Order) -> bytes:
    from gentle_hem.formats.pdf import to_large_pdf

    return to_large_pdf(order.garment, order.tag, order.recipe.unit, order.printed)


def _cut_sheet(order: Order) -> bytes:
    from gentle_hem.formats.cut_sheet import to_cut_sheet

    return to_cut_sheet(
        order.recipe, order.garment, (order.dress, order.hung), order.bought, order.tag, paper_for(order.recipe.unit)
    )


def _workings(order: Order) -> bytes:
    from gentle_hem.formats.workings_pdf import to_workings

    return to_workings(order.recipe, order.garment, order.tag, paper_for(order.recipe.unit))


def _hpgl(order: Order) -> bytes:
    from gentle_hem.formats.hpgl import to_hpgl

    return to_hpgl(*order.on_roll)


Writer = Callable[[Order], bytes]

WRITERS: dict[str, dict[str, Writer]] = {
    "json": {
        "garment.json": lambda o: garment_document(o.garment, o.recipe.unit).model_dump_json(indent=1).encode(),
        "recipe.json": lambda o: recipe_json(o.recipe).encode(),
    },
    "svg": {"pieces.svg": _svg, "dress.svg": _dress},
    "dxf": {"pieces.dxf": _dxf, "pieces-plain.dxf": _plain_dxf},
    "pdf": {
        "pattern.pdf": _pdf,
        "pattern-large.pdf": _large_pdf,
        "cut-sheet.pdf": _cut_sheet,
        "workings.pdf": _workings,
    },
    "plt": {"pattern.plt": _hpgl},
    "csv": {"cut-list.csv": lambda o: to_csv(o.garment, o.recipe.unit).encode()},
}
"""File names and their writers, by format."""

FILE_WRITERS: dict[str, Writer] = {name: writer for files in WRITERS.values() for name, writer in files.items()}


def write_all(order: Order, formats: list[str]) -> dict[str, bytes]:
    """Every file of the asked formats; KeyError for a format that is not known."""
    return {name: writer(order) for kind in formats for name, writer in WRITERS[kind].items()}
