"""A hung dress as it is shown: whole millimetres, its triangles, the lines it is inked with, and her form."""

from __future__ import annotations

from typing import Any

import numpy as np

from gentle_hem.core.hang.finer import Finer
from gentle_hem.core.hang.mesh import Numbers
from gentle_hem.core.recipe import Recipe

EVERY = 3
"""Of her form's sections so many are shown as one."""


def in_mm(places: Numbers) -> list[int]:
    """Places (m) in whole tenths of a millimetre, one after the other: x to her left, y to the front, z up."""
    made: list[int] = np.round(10_000 * places).astype(int).ravel().tolist()
    return made


def in_hundredths(ways: Numbers) -> list[int]:
    """Ways of length one in whole hundredths, likewise."""
    made: list[int] = np.round(100 * ways).astype(int).ravel().tolist()
    return made


def shape_of(drawn: Finer, recipe: Recipe) -> dict[str, Any]:
    """What does not change while a dress falls."""
    sewn, stand = drawn.sewn, drawn.sewn.stand
    return {
        "triangles": drawn.triangles.ravel().tolist(), "lines": drawn.lines.ravel().tolist(),
        "pieces": list(sewn.pieces), "piece_of": drawn.sheet_of.tolist(), "hem": sewn.hem.tolist(),
        "colours": [recipe.cloths.cloth(sheet.role).colour for sheet in sewn.sheets],
        "form": in_mm(stand.rows[::EVERY]), "arm": in_mm(stand.arm[::EVERY]),
        "arm_low": round(10_000 * stand.arm_low),
        "every": round(10_000 * stand.step * EVERY),
    }  # fmt: skip
