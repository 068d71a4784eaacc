"""Two states of a recipe beside each other: which words differ, and what each said.

before   A half circle skirt, 60 cm finished        lower.sweep   180 → 360      "half circle"  "full circle"
after    A full circle skirt, 62 cm finished        lower.length  600 → 620      "60.0 cm"      "62.0 cm"
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from gentle_hem.core.recipe import PLACES, Recipe
from gentle_hem.core.sentences import Word
from gentle_hem.core.tongue import named
from gentle_hem.core.units import Said
from gentle_hem.core.workings import speak

NOTHING = "—"


@dataclass(frozen=True, slots=True)
class Difference:
    """One word that differs: where it stands, what it is called, and what each state says."""

    path: str
    part: str
    label: str
    before: str
    after: str


def differences(before: Recipe, after: Recipe, said: Said) -> list[Difference]:
    """Every word in which two recipes differ, in the order of the trade."""
    found: list[Difference] = []
    for where in PLACES:
        found += _part(where, getattr(before, where), getattr(after, where), said)
    for name in ("steps", "trims"):
        ours, others = getattr(before, name), getattr(after, name)
        for k in range(max(len(ours), len(others))):
            mine, theirs = (parts[k] if k < len(parts) else None for parts in (ours, others))
            found += _part(f"{name}.{k}", mine, theirs, said)
    if (before.cut is None) != (after.cut is None):
        mine, theirs = ("not cut" if one.cut is None else "cut already" for one in (before, after))
        found.append(Difference("cut", after.lower.title, "cut already", mine, theirs))
    for name, label in (("name", "name"), ("unit", "unit"), ("remarks", "remarks")):
        mine, theirs = getattr(before, name), getattr(after, name)
        if mine != theirs:
            found.append(Difference(name, "Dress", label, str(mine), str(theirs)))
    return found


def _part(where: str, before: Any, after: Any, said: Said) -> Iterator[Difference]:
    if before == after:
        return
    if before is None or after is None or type(before) is not type(after):
        mine, theirs = (NOTHING if part is None else part.title for part in (before, after))
        title = (after or before).title
        yield Difference(where, title, "kind", mine, theirs)
        return
    mine, theirs = dict(_leaves(before.model_dump(mode="json"))), dict(_leaves(after.model_dump(mode="json")))
    for path in dict.fromkeys((*mine, *theirs)):
        one, other = mine.get(path), theirs.get(path)
        if one != other:
            word = before.words.get(path)
            label = word.label if word else named(path.rpartition(".")[2].replace("_", " "))
            yield Difference(f"{where}.{path}", after.title, label, _said(word, one, said), _said(word, other, said))


def _said(word: Word | None, value: Any, said: Said) -> str:
    if value is None:
        return word.without if word and word.without else NOTHING
    if word:
        return word.say(value, said)
    return speak(value, said) if isinstance(value, float) else str(value)


def _leaves(data: Any, path: str = "") -> Iterator[tuple[str, Any]]:
    """Every word of a part's document by its path; an outline or a list is one word."""
    if isinstance(data, dict):
        for key, value in data.items():
            yield from _leaves(value, f"{path}.{key}" if path else str(key))
    else:
        yield path, data
