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


LONGEST_QUOTE = 60

NOT_A_PART = "This is not a part of a recipe as it stands here."
SAID = {
    "missing": "This is missing.",
    "extra_forbidden": "This is not a part of it.",
    "finite_number": "This must be an ordinary number.",
    "string_too_short": "This must not be empty.",
    "string_type": "This must be text.",
    "string_unicode": "This holds half a letter, which no file can keep; type it again.",
    "string_pattern_mismatch": "This is not written as it must be.",
    "bool_type": "This is either true or false.",
    "bool_parsing": "This is either true or false.",
    "union_tag_not_found": "This does not say what kind it is.",
    "json_invalid": "This is not readable JSON.",
    **dict.fromkeys(
        ("model_type", "model_attributes_type", "dict_type", "list_type", "tuple_type", "dataclass_type"), NOT_A_PART
    ),
}
NUMBERS = {
    **dict.fromkeys(("int_parsing", "int_from_float", "int_type", "int_parsing_size"), "is not a whole number"),
    **dict.fromkeys(("float_parsing", "float_type"), "cannot be read as a number"),
    **dict.fromkeys(
        ("date_from_datetime_parsing", "date_parsing", "date_type", "date_from_datetime_inexact"),
        "is not a date; write it as 2026-06-30",
    ),
}


def sentence(error: dict[str, Any]) -> str:
    """A validation error in the trade's language."""
    kind, given, about = error["type"], str(error.get("input")), error.get("ctx", {})
    quoted = given if len(given) <= LONGEST_QUOTE else f"{given[:LONGEST_QUOTE]}…"
    if kind in SAID:
        return SAID[kind]
    if kind in NUMBERS:
        return f'"{quoted}" {NUMBERS[kind]}.'
    if kind == "value_error":
        return str(error["msg"]).removeprefix("Value error, ")
    if kind in ("literal_error", "enum"):
        return f'"{quoted}" is not one of {about["expected"]}.'
    if kind == "union_tag_invalid":
        return f'"{about["tag"][:LONGEST_QUOTE]}" is not one of {about["expected_tags"]}.'
    if kind == "string_too_long":
        return f"This is too long; {about['max_length']} letters at most."
    if kind == "too_long":
        return f"There are too many; {about['max_length']} at most."
    for bound, word in (("ge", "at least"), ("gt", "more than"), ("le", "at most"), ("lt", "less than")):
        if bound in about:
            return f'"{quoted}" is out of range; {word} {about[bound]} is accepted.'
    return f'"{quoted}" cannot be read here.'
