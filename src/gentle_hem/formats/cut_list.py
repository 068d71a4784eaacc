"""cut-list.csv: what to cut, how often, and how much room each piece takes with its allowances on."""

from __future__ import annotations

import csv
import io

from gentle_hem.core.garment import Garment
from gentle_hem.core.units import Said, format_length


def to_csv(garment: Garment, unit: Said) -> str:
    """One row a piece; width and height of the cut piece in mm, and again as the maker reads them."""
    text = io.StringIO()
    writer = csv.writer(text, lineterminator="\n")
    writer.writerow(["piece", "material", "cut", "fold", "width", "height", f"width_{unit}", f"height_{unit}"])
    for piece in garment.pieces:
        left, bottom, right, top = piece.cut_line.box
        width, height = right - left, top - bottom
        writer.writerow(
            [
                piece.name, piece.cloth.value, piece.cut, "yes" if piece.on_fold else "no",
                f"{width:.1f}", f"{height:.1f}", format_length(width, unit), format_length(height, unit),
            ]
        )  # fmt: skip
    return text.getvalue()
