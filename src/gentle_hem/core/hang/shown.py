"""A hung dress as it is shown: whole millimetres, its triangles, the lines it is inked with, and her form."""

from __future__ import annotations

from typing import Any

import numpy as np

from gentle_hem.core.hang.mesh import Indices, Numbers
from gentle_hem.core.hang.sewn import Sewn
from gentle_hem.core.recipe import Recipe

EVERY = 3
"""Of her form's sections so many are shown as one."""


def in_mm(places: Numbers) -> list[int]:
    """Places (m) in whole tenths of a millimetre, one after the other: x to her left, y to the front, z up."""
    made: list[int] = np.round(10_000 * places).astype(int).ravel().tolist()
    return made


def outlines(sewn: Sewn) -> Indices:
    """The pairs of points that are joined by an edge of a piece: its seams, its hem, its openings."""
    t, piece = sewn.net.triangles, sewn.sheet_of
    sides = np.concatenate([t[:, (0, 1)], t[:, (1, 2)], t[:, (2, 0)]])
    of = np.tile(piece, 3)
    sides = np.sort(sides, axis=1)
    keyed = np.column_stack((of, sides))
    found, times = np.unique(keyed, axis=0, return_counts=True)
    made: Indices = np.unique(found[times == 1][:, 1:], axis=0)
    on_middle = sewn.held[:, 0] > 0
    made = made[~(on_middle[made[:, 0]] & on_middle[made[:, 1]])]
    apart: Indices = made[made[:, 0] != made[:, 1]]
    return apart


def shape_of(sewn: Sewn, recipe: Recipe) -> dict[str, Any]:
    """What does not change while a dress falls."""
    stand = sewn.stand
    return {
        "triangles": sewn.net.triangles.ravel().tolist(), "lines": outlines(sewn).ravel().tolist(),
        "pieces": list(sewn.pieces), "piece_of": sewn.sheet_of.tolist(), "hem": sewn.hem.tolist(),
        "colours": [recipe.cloths.cloth(sheet.role).colour for sheet in sewn.sheets],
        "form": in_mm(stand.rows[::EVERY]), "arm": in_mm(stand.arm[::EVERY]),
        "arm_low": round(10_000 * stand.arm_low),
        "every": round(10_000 * stand.step * EVERY),
    }  # fmt: skip
