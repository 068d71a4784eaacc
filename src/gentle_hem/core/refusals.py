"""Refusals: what pydantic says of bad input, said in the trade's language."""

from __future__ import annotations

from typing import Any


def sentence(error: dict[str, Any]) -> str:
    """A validation error in the trade's language."""
    kind, given = error["type"], error.get("input")
    message = str(error["msg"]).removeprefix("Value error, ")
    said = {
        "missing": "This is missing.",
        "extra_forbidden": "This is not a part of it.",
        "int_parsing": f'"{given}" is not a whole number.',
        "int_from_float": f'"{given}" is not a whole number.',
        "int_type": f'"{given}" is not a whole number.',
        "float_parsing": f'"{given}" cannot be read as a number.',
        "float_type": f'"{given}" cannot be read as a number.',
        "finite_number": "This must be an ordinary number.",
        "string_too_short": "This must not be empty.",
        "string_too_long": f"This is too long; {error.get('ctx', {}).get('max_length')} letters at most.",
        "date_from_datetime_parsing": f'"{given}" is not a date; write it as 2026-06-30.',
        "date_parsing": f'"{given}" is not a date; write it as 2026-06-30.',
    }
    if kind in ("literal_error", "enum"):
        return f'"{given}" is not one of {error["ctx"]["expected"]}.'
    return said.get(kind, message)
