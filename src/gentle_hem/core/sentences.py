"""Recipe sentences: how a recipe is spoken, with its live words.

    "A full circle skirt, 62 cm finished, in 2 pieces, …"
       └────┬────┘        └─┬─┘             └┬┘
          Word             Word             Word      each points at a field of the recipe

A part lists its sentences as templates with field names in braces, and says of each field what sort
of word it is. The interface draws whatever comes; it knows no part by name.
"""

from __future__ import annotations

import re
import string
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from typing import Any, ClassVar, Protocol

from gentle_hem.core.tongue import named
from gentle_hem.core.units import Said, format_length, plain, tape


@dataclass(frozen=True, slots=True)
class Word:
    """What sort of word a field is: how it is edited, called and, when it has no value, spoken."""

    sort: str
    label: str
    choices: tuple[tuple[Any, str], ...] = ()
    without: str = ""
    spoken: Callable[[Any], str] | None = None
    help: str = ""
    nothing: str = ""
    """How the sentence reads when it is a length of 0."""

    def say(self, value: Any, unit: Said) -> str:
        """The word as it stands in the sentence."""
        if value is None:
            return self.without
        if self.spoken:
            return self.spoken(value)
        if self.sort == "length":
            return self.nothing if self.nothing and value == 0 else format_length(value, unit)
        for choice_value, text in self.choices:
            if choice_value == value:
                return named(text)
        if self.sort == "share":
            return f"{tape(unit).number(plain(100 * value, 1))} %"
        if self.sort == "percent":
            return f"{tape(unit).number(plain(value, 2))} %"
        return tape(unit).number(plain(value)) if isinstance(value, int | float) else str(value)


def length(
    label: str, without: str = "", help: str = "", presets: tuple[tuple[Any, str], ...] = (), nothing: str = ""
) -> Word:
    """A length. ``without`` is how the sentence reads when none is given and ``nothing`` when it is 0; ``presets`` are
    offered by name.
    """
    return Word("length", label, choices=presets, without=without, help=help, nothing=nothing)


def choice(label: str, *choices: tuple[Any, str], help: str = "") -> Word:
    """One of a few."""
    return Word("choice", label, choices=choices, help=help)


def number(label: str, *presets: tuple[Any, str], spoken: Callable[[Any], str] | None = None, help: str = "") -> Word:
    """A plain number, with the usual ones offered by name."""
    return Word("number", label, choices=presets, spoken=spoken, help=help)


def percent(label: str, *presets: tuple[Any, str], help: str = "") -> Word:
    """A share in per cent."""
    return Word("percent", label, choices=presets, help=help)


def share(label: str, *presets: tuple[Any, str], help: str = "") -> Word:
    """A share of a whole, from 0 to 1, spoken in per cent and typed so or as a fraction."""
    return Word("share", label, choices=presets, help=help)


class Spoken(Protocol):
    """Anything that says itself in sentences with live words."""

    title: ClassVar[str]
    sentences: ClassVar[tuple[str, ...]]
    words: ClassVar[dict[str, Word]]


@dataclass(frozen=True, slots=True)
class LiveWord:
    """A word in place: where in the recipe it lives, what it says now, and what it could say."""

    path: str
    text: str
    value: Any
    word: Word


Token = str | LiveWord


def _value(part: Spoken, path: str) -> Any:
    value: Any = part
    for key in path.split("."):
        value = value.get(key) if isinstance(value, dict) else getattr(value, key)
    return value


CLAUSE = re.compile(r"\[([\w.=|,]+):([^\[\]]*)\]")
"""A clause that is said only where it says something: "[stand:; it takes {buttons} buttons]", "[top=halter: …]"."""

NOTHING = (None, 0, "none", "as_drafted")
"""Values of a word that ask for nothing."""


def said(part: Spoken, template: str) -> str:
    """A sentence without the clauses that would say what is not.

    A clause names the word it depends on, and is said where that word asks for something; after "=" stand the values
    for which it is said, and a comma parts words of which one is enough.
    """

    def holds(condition: str) -> bool:
        name, _, values = condition.partition("=")
        value = _value(part, name)
        return str(value) in values.split("|") if values else value not in NOTHING

    def kept(clause: re.Match[str]) -> str:
        return clause[2] if any(holds(condition) for condition in clause[1].split(",")) else ""

    return CLAUSE.sub(kept, template)


def tokens(part: Spoken, template: str, where: str, unit: Said) -> Iterator[Token]:
    """A sentence of a part in pieces: plain text and live words. ``where`` is the part's place in the recipe."""
    for text, name, _, _ in string.Formatter().parse(said(part, template)):
        if text:
            yield text
        if name:
            value = _value(part, name)
            word = part.words[name]
            path = f"{where}.{name}" if where else name
            yield LiveWord(path, word.say(value, unit), value, word)


@dataclass(frozen=True, slots=True)
class SpokenPart:
    """A part of the recipe, said: its place in the recipe, its title, and its sentences in pieces."""

    where: str
    title: str
    lines: tuple[tuple[Token, ...], ...]
    waits: tuple[bool, ...] = ()
    """Of each sentence, whether it says only what is usual, and may wait until it is asked for."""

    def told(self) -> SpokenPart:
        """The same as plain text: nothing in it can be changed."""
        lines = tuple(tuple(one if isinstance(one, str) else one.text for one in line) for line in self.lines)
        return SpokenPart(self.where, self.title, lines, self.waits)


def say_part(part: Spoken, where: str, unit: Said) -> SpokenPart:
    """A part's title and sentences."""
    lines = tuple(line for template in part.sentences if (line := tuple(tokens(part, template, where, unit))))
    usual = None if getattr(part, "all_said", True) else _usual(type(part))
    waits = tuple(k > 0 and usual is not None and _says_the_usual(usual, line, where) for k, line in enumerate(lines))
    return SpokenPart(where, part.title, lines, waits)


@cache
def _usual(kind: type) -> Any:
    """A part of a kind as it is when nothing is said; None where something must be."""
    try:
        return kind()
    except ValueError:
        return None


def _says_the_usual(usual: Any, line: tuple[Token, ...], where: str) -> bool:
    """Whether every word of a sentence is what it is when nothing is said."""
    words = [token for token in line if not isinstance(token, str)]
    inner = len(where) + 1 if where else 0
    return all(_value(usual, word.path[inner:]) == word.value for word in words)


def spoken(part: Spoken, unit: Said) -> str:
    """A part's sentences as plain text."""
    return " ".join(
        "".join(token if isinstance(token, str) else token.text for token in line)
        for line in say_part(part, "", unit).lines
    )
