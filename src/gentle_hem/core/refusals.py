"""Refusals: what pydantic says of bad input, said in the trade's language."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from gentle_hem.core.band import BANDS
from gentle_hem.core.block import BODICES
from gentle_hem.core.lower import LOWER_PARTS
from gentle_hem.core.trim import TRIMS

_KINDS = {str(part.model_fields["kind"].default) for part in (*BODICES, *BANDS, *LOWER_PARTS, *TRIMS)}


def field_path(loc: Sequence[Any]) -> str:
    """Where in the recipe an error lies, without the names of the kinds pydantic puts between."""
    return ".".join(str(part) for part in loc if part not in _KINDS and part not in ("body", "query", "path"))


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
