"""Names and remarks: anything a person may be called in any script, and nothing that no file can hold."""

from __future__ import annotations

import unicodedata
from typing import Annotated, Any

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


NOT_IN_FILE_NAMES = str.maketrans(dict.fromkeys('/\\:*?"<>|', "-"))


def file_name(title: str) -> str:
    """A name as a file may carry it on any machine: what none allows is a hyphen, and no dot leads or trails."""
    return a_name(title).translate(NOT_IN_FILE_NAMES).strip(". ") or "dress"


MOST_VALUES = 20_000
"""No document of ours holds a tenth as many words and numbers; more would take long to read, and say nothing."""


def few_enough(document: Any) -> Any:
    """A document as it is. Raises ValueError when it holds more than MOST_VALUES values, before any is looked at."""
    count, open_ones = 0, [document]
    while open_ones:
        one = open_ones.pop()
        if isinstance(one, dict | list):
            count += len(one)
            if count > MOST_VALUES:
                raise ValueError(f"This holds more than {MOST_VALUES} values; a dress has a few hundred.")
            open_ones.extend(one.values() if isinstance(one, dict) else one)
    return document


def whole(document: Any) -> Any:
    """A document in JSON's own types, as it is. Raises ValueError when it holds half a letter, or too many values."""
    return _without_half_letters(few_enough(document))


def _without_half_letters(document: Any) -> Any:
    if isinstance(document, str):
        if any(unicodedata.category(letter) == "Cs" for letter in document):
            raise ValueError("This holds half a letter, which no file can keep; type it again.")
    elif isinstance(document, dict):
        for key, value in document.items():
            _without_half_letters(key)
            _without_half_letters(value)
    elif isinstance(document, list):
        for value in document:
            _without_half_letters(value)
    return document


Document = Annotated[dict[str, Any], AfterValidator(whole)]
"""A document that is read later, word by word."""

KeptText = Annotated[str, AfterValidator(kept_text)]
"""Text of several lines."""

Name = Annotated[str, AfterValidator(a_name)]
"""A name, which may be left empty."""

GivenName = Annotated[str, AfterValidator(a_given_name)]
"""A name that must be given."""
