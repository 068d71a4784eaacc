"""Names and remarks: anything a person may be called in any script, and nothing that no file can hold."""

from __future__ import annotations

import unicodedata
from typing import Annotated

from pydantic import AfterValidator

UNWRITABLE = {"Cc", "Cs", "Co", "Cn"}
"""Kinds of letters that no file or page can keep: control characters, halves of letters, unassigned ones."""


def kept_text(value: str) -> str:
    """Text as it was written. Raises ValueError with a sentence when no file could hold it."""
    for letter in value:
        if unicodedata.category(letter) in UNWRITABLE and letter not in "\n\t":
            raise ValueError("This holds a control character, which no file can keep; type it again without it.")
    return value


def a_name(value: str) -> str:
    """A name on one line, needless spaces taken away. Raises ValueError with a sentence."""
    return " ".join(kept_text(value).split())


def a_given_name(value: str) -> str:
    """A name that is not empty. Raises ValueError with a sentence."""
    said = a_name(value)
    if not said:
        raise ValueError("This must not be empty.")
    return said


KeptText = Annotated[str, AfterValidator(kept_text)]
"""Text of several lines."""

Name = Annotated[str, AfterValidator(a_name)]
"""A name, which may be left empty."""

GivenName = Annotated[str, AfterValidator(a_given_name)]
"""A name that must be given."""
