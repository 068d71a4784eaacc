"""Edges and pieces as they are spoken of at the bench: "waist of the bodice front and bodice back"."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from gentle_hem.core.replace import replace
from gentle_hem.core.what import What


def plain(what: What) -> str:
    """What a piece is called, left or right left out."""
    return replace(what, other=False).name


def listed(words: Sequence[str], between: str = ", ") -> str:
    """Words one after another, the last with "and"."""
    return words[0] if len(words) == 1 else f"{between.join(words[:-1])} and {words[-1]}"


def capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def edges_of(edges: Iterable[tuple[What, str]]) -> str:
    """Edges with their pieces, those of one name together."""
    by_edge: dict[str, list[str]] = {}
    for what, edge in edges:
        by_edge.setdefault(edge, []).append(plain(what))
    return listed([f"{edge} of the {listed(list(dict.fromkeys(names)))}" for edge, names in by_edge.items()], "; ")
