"""Recipes of earlier versions read as today's: one step a version, each the same garment as before.

version 1 ──► 2 ──► 3        a document says which version it is; one that says nothing is the newest, or, where it has
                             parts that only an older one had, that
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from gentle_hem.core.units import LengthError, Unit, parse_length


def upgraded(document: Any) -> Any:
    """A recipe's document in today's version; what is no such document is returned as it is, to be refused."""
    if not isinstance(document, dict):
        return document
    made = document
    if "version" not in made and any(part in made for part in STYLED):
        made = {**made, "version": 2}
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


STYLED: dict[str, tuple[str, ...]] = {
    "contour": (
        "zip_taken", "zip_run", "give_back", "zip_dart", "zip_drop", "neckline", "armhole", "centre", "under_bust",
    ),
    "style": (
        "front_neck", "front_depth", "back_neck", "back_depth", "wider", "top", "top_taken", "bare_below", "straps",
        "strap_width", "strap_ends", "bust_dart", "waist_dart", "narrower", "dart_short", "stitched", "facing",
        "facing_width", "keyhole",
    ),
    "panels": (
        "ends", "depth", "front_princess", "back_princess", "front_yoke", "back_yoke", "stand", "buttons", "button",
        "down", "twist", "twist_spread",
    ),
}  # fmt: skip
"""The parts that said how a bodice is styled, in a fixed order, and their words: steps since version 3."""


def _from_2(document: dict[str, Any]) -> dict[str, Any]:
    """What contour, style and panels asked for is done by steps, in the order it was done in, before any other step. A
    part with a word that was never one of its own stays, to be refused by name.
    """
    parts = {name: document.get(name) for name in STYLED}
    known = {name: part for name, part in parts.items() if isinstance(part, dict) and set(part) <= set(STYLED[name])}
    lower = document.get("lower")
    gown = isinstance(lower, dict) and lower.get("kind") == "gown"
    steps = _styled(known.get("contour", {}), known.get("style", {}), known.get("panels", {}), gown)
    old = document.get("steps")
    kept = {name: value for name, value in document.items() if name not in known}
    if steps and isinstance(old, list | tuple):
        return {**kept, "steps": [*steps, *old]}
    return {**kept, "steps": steps} if steps and old is None else kept


def _styled(contour: dict[str, Any], style: dict[str, Any], panels: dict[str, Any], gown: bool) -> list[dict[str, Any]]:
    steps: list[dict[str, Any]] = []

    def step(kind: str, part: dict[str, Any], **words: str) -> None:
        """A step of a kind, with those of its words that the old part says; after "=" what is meant literally."""
        made = {new: old[1:] if old.startswith("=") else part[old] for new, old in words.items()
                if old.startswith("=") or part.get(old) is not None}  # fmt: skip
        steps.append({"kind": kind, **made})

    if _asked(contour, "zip_taken") or _asked(contour, "zip_drop"):
        step("zip_contour", {"zip_taken": 0.0, **contour}, taken="zip_taken", run="zip_run", give_back="give_back",
             dart="zip_dart", drop="zip_drop")  # fmt: skip
    bare = style.get("top", "shoulders") != "shoulders"
    for edge in ("neckline", "armhole", "centre"):
        if _asked(contour, edge):
            closed = "=dart" if style.get("top") == "one_shoulder" else "=seam"
            step("wedge", contour, edge=f"={edge}", amount=edge, closed=closed)
    if contour.get("under_bust") == "close":
        step("under_bust", contour)
    for half, usual in (("front", 150.0), ("back", 60.0)):
        if style.get(f"{half}_neck", "as_drafted") != "as_drafted" or _asked(style, "wider"):
            said = {f"{half}_neck": "as_drafted", f"{half}_depth": usual, **style}
            step("neckline", said, on=f"={half}", shape=f"{half}_neck", depth=f"{half}_depth", wider="wider")
    faced = style.get("facing") == "faced"
    if faced and not bare:
        step("facing", style, width="facing_width")
    for dart in ("bust", "waist"):
        if style.get(f"{dart}_dart", "as_drafted") not in ("as_drafted", None):
            step("front_dart", style, dart=f"={dart}", to=f"{dart}_dart")
    if _asked(style, "narrower") or style.get("dart_short") is not None or style.get("stitched") == "pleat":
        step("waist_dart", style, narrower="narrower", short="dart_short", stitched="stitched")
    if bare:
        step("top", style, top="top", taken="top_taken", bare="bare_below", strap="strap_width")
        if faced:
            step("facing", style, width="facing_width")
    if style.get("straps", "none") != "none":
        step("straps", style, way="straps", width="strap_width", ends="strap_ends")
    if style.get("keyhole") == "keyhole":
        step("keyhole", style)
    if panels.get("ends", "waist") != "waist" and not gown:  # a gown goes on to its hem
        step("ends", panels, where="ends", depth="depth")
    cut = _asked(panels, "front_yoke") or panels.get("front_princess", "none") != "none"
    if _asked(panels, "twist") and not cut:
        step("twist", panels, cuts="twist", spread="twist_spread")
    for half in ("front", "back"):
        if _asked(panels, f"{half}_yoke"):
            step("yoke", panels, on=f"={half}", depth=f"{half}_yoke")
    for half in ("front", "back"):
        if panels.get(f"{half}_princess", "none") != "none":
            steps.append({"kind": "princess", "on": half, "start": panels[f"{half}_princess"], "share": 0.5})
    if _asked(panels, "twist") and cut:  # it was refused where the front is cut, and is
        step("twist", panels, cuts="twist", spread="twist_spread")
    if _asked(panels, "stand"):
        step("stand", panels, width="stand", buttons="buttons", button="button", down="down")
    return steps


def _asked(part: dict[str, Any], word: str) -> bool:
    """Whether a number of an old part asks for anything; what cannot be read does, and is refused in its step."""
    value = part.get(word)
    if isinstance(value, str):
        try:
            return parse_length(value, Unit.CM) != 0
        except LengthError:
            return True
    return bool(value)


STEPS: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {1: _from_1, 2: _from_2}
"""What brings a document of each earlier version one further."""
