"""What has been typed over a recipe, read word by word: what can be read is taken, what cannot is kept and said why.

recipe ──┐   lower.length  "24"    in      read: 609.6 mm
         ├─► lower.sweep   "wide"          refused, with its sentence
typed  ──┘   figure.…      "38"    cm      read: 380 mm         each in the unit it was typed in
                     │
                     ▼
        the recipe as it then is, and the refusals
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Any

from pydantic import ValidationError

from gentle_hem.core.recipe import Recipe, put
from gentle_hem.core.refusals import field_path, sentence
from gentle_hem.core.units import Unit

CUT_ALREADY = "The {part} is cut already, so its numbers stay as they are. Say first that it is not cut after all."


@dataclass(frozen=True, slots=True)
class Typed:
    """One word as it was typed: where, what, and the unit of a bare number in it."""

    path: str
    value: Any
    unit: Unit = Unit.CM


@dataclass(frozen=True, slots=True)
class Refusal:
    """A typed word that cannot be read, and why."""

    path: str
    text: str


@dataclass(frozen=True, slots=True)
class TypedOver:
    """The recipe with everything taken that could be read, and what could not."""

    recipe: Recipe
    refused: tuple[Refusal, ...]


def typed_over(recipe: Recipe, typed: Sequence[Typed]) -> TypedOver:
    """A recipe with words typed over it, in order. One unreadable word keeps no other from being read."""
    refused: list[Refusal] = []
    for unit, together in groupby(typed, key=lambda word: word.unit):
        recipe, left = _read(recipe, list(together), unit)
        refused += left
    return TypedOver(recipe, tuple(refused))


def _read(recipe: Recipe, words: list[Typed], unit: Unit) -> tuple[Recipe, list[Refusal]]:
    """Words of one unit: all of them at once if they go together, else without those that are in the way."""
    refused: list[Refusal] = []
    if recipe.cut is not None and not any(word.path == "cut" for word in words):
        why = CUT_ALREADY.format(part=recipe.lower.title.lower())
        refused += [Refusal(word.path, why) for word in words if word.path.partition(".")[0] == "lower"]
        words = [word for word in words if word.path.partition(".")[0] != "lower"]
    while words:
        data = recipe.model_dump(mode="json")
        lost = next((k for k, word in enumerate(words) if not put(data, word.path, word.value)), None)
        if lost == 0:
            refused.append(Refusal(words.pop(0).path, "There is no such word here any more."))
            continue
        if lost is not None:  # its place may be in a part that was typed just before, once that part is read
            recipe, earlier = _read(recipe, words[:lost], unit)
            refused += earlier
            words = words[lost:]
            continue
        try:
            return Recipe.model_validate(data, context={"unit": unit}), refused
        except ValidationError as error:
            problems = [(field_path(problem["loc"]), sentence(dict(problem))) for problem in error.errors()]
        before = len(words)
        for path, said in problems:
            guilty = next((word for word in reversed(words) if _speaks_of(word.path, path)), None)
            if guilty is not None:
                words.remove(guilty)
                refused.append(Refusal(guilty.path, said))
        if len(words) == before:  # no word is named: the last one typed is what does not go with the rest
            refused.append(Refusal(words.pop().path, problems[0][1]))
    return recipe, refused


def _speaks_of(word: str, problem: str) -> bool:
    return word == problem or problem.startswith(f"{word}.") or word.startswith(f"{problem}.")
