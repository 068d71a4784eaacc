"""Recipes of earlier versions read as today's: one step a version, each the same garment as before.

version 1 ──► 2 ──► …        a document says which version it is; one that says nothing is the newest
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any


def upgraded(document: Any) -> Any:
    """A recipe's document in today's version; what is no such document is returned as it is, to be refused."""
    if not isinstance(document, dict):
        return document
    made = document
    while isinstance(made.get("version"), int) and made["version"] in STEPS:
        made = {**STEPS[made["version"]](made), "version": made["version"] + 1}
    return made


def _from_1(document: dict[str, Any]) -> dict[str, Any]:
    """Godets were six where nothing was said; they are two since a skirt of two panels has no more seams."""
    trims = document.get("trims")
    if not isinstance(trims, list):
        return document
    return {**document, "trims": [_counted(trim) for trim in trims]}


def _counted(trim: Any) -> Any:
    is_godets = isinstance(trim, dict) and trim.get("kind") == "godets"
    return {"count": 6, **trim} if is_godets else trim


STEPS: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {1: _from_1}
"""What brings a document of each earlier version one further."""
