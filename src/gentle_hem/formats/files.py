"""Everything a recipe makes, as files by name."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass

from gentle_hem.core.garment import Garment
from gentle_hem.core.recipe import Recipe
from gentle_hem.formats.cut_list import to_csv
from gentle_hem.formats.garment_document import garment_document
from gentle_hem.formats.paper import Paper
from gentle_hem.formats.svg import to_svg


@dataclass(frozen=True, slots=True)
class Order:
    """What is being written: a garment, its recipe, and the paper it is tiled to."""

    recipe: Recipe
    garment: Garment
    paper: Paper = Paper.A4

    @property
    def names(self) -> tuple[str, str]:
        return self.recipe.name, self.recipe.figure.name


def recipe_json(recipe: Recipe) -> str:
    """recipe.json, which makes the same garment when it is brought back."""
    return json.dumps(recipe.model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"


def _dxf(order: Order) -> bytes:
    from gentle_hem.formats.dxf import to_dxf  # here, since ezdxf alone takes half a second of the start

    return to_dxf(order.garment, *order.names, order.recipe.unit).encode()


def _pdf(order: Order) -> bytes:
    from gentle_hem.formats.pdf import to_pdf  # here, to keep reportlab out of the start

    return to_pdf(order.garment, order.paper, *order.names, order.recipe.unit)


def _large_pdf(order: Order) -> bytes:
    from gentle_hem.formats.pdf import to_large_pdf

    return to_large_pdf(order.garment, *order.names, order.recipe.unit)


Writer = Callable[[Order], bytes]

WRITERS: dict[str, dict[str, Writer]] = {
    "json": {
        "garment.json": lambda o: garment_document(o.garment, o.recipe.unit).model_dump_json(indent=1).encode(),
        "recipe.json": lambda o: recipe_json(o.recipe).encode(),
    },
    "svg": {"pieces.svg": lambda o: to_svg(o.garment, *o.names, o.recipe.unit).encode()},
    "dxf": {"pieces.dxf": _dxf},
    "pdf": {
        "pattern.pdf": _pdf,
        "pattern-large.pdf": _large_pdf,
    },
    "csv": {"cut-list.csv": lambda o: to_csv(o.garment, o.recipe.unit).encode()},
}
"""File names and their writers, by format."""

FILE_WRITERS: dict[str, Writer] = {name: writer for files in WRITERS.values() for name, writer in files.items()}


def write_all(order: Order, formats: list[str]) -> dict[str, bytes]:
    """Every file of the asked formats; KeyError for a format that is not known."""
    return {name: writer(order) for kind in formats for name, writer in WRITERS[kind].items()}
