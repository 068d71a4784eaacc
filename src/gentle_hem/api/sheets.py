"""Sheets and mats as they are typed: width x height."""

from fastapi import HTTPException

from gentle_hem.core.units import LengthError, Unit, parse_length
from gentle_hem.formats.paper import LONGEST_STRETCH

SMALLEST_SHEET = 150.0


def sheet_size(said: str, unit: Unit | None) -> tuple[float, float] | None:
    """Width and height of a sheet as they are typed, "70 x 100 cm"; None where nothing is."""
    if not said.strip():
        return None
    sides = [side.strip() for side in said.lower().replace("×", "x").split("x")]
    if len(sides) != 2:
        raise HTTPException(422, f'A sheet is said as width x height, as "70 x 100 cm"; "{said[:40]}" is none.')
    last = sides[1].lstrip("0123456789 /.,")
    try:
        width, height = (parse_length(side if side[-1:].isalpha() else f"{side} {last}", unit or Unit.CM)
                         for side in sides)  # fmt: skip
    except LengthError as wrong:
        raise HTTPException(422, str(wrong)) from None
    if not (SMALLEST_SHEET <= width <= LONGEST_STRETCH and SMALLEST_SHEET <= height <= LONGEST_STRETCH):
        raise HTTPException(422, f"A sheet of {said[:40]} is out of range; each side from 15 cm to 5 m is accepted.")
    return width, height
