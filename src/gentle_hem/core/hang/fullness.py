"""The same dress with less and with more fullness, to be hung beside it: a half circle, a full one, a double one.

what is made fuller      the sweep of a flare · how many times a seam what is gathered to it is · a hem all round
"""

from __future__ import annotations

from dataclasses import dataclass

from pydantic import ValidationError

from gentle_hem.core.findings import Severity
from gentle_hem.core.lower.flare import say_sweep
from gentle_hem.core.lower.full import say_fullness
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed
from gentle_hem.core.units import Said, format_length

SWEEPS = (90.0, 180.0, 270.0, 360.0, 720.0)
"""Usual sweeps (degrees)."""

TIMES = (1.5, 2.0, 2.5, 3.0, 4.0)
"""Usual fullnesses of gathers."""

HEMS = (0.75, 1.35, 0.6, 1.7)
"""Hems all round and flares at a side seam are tried so many times as wide."""

LIKE = 0.1
"""A fullness nearer than by such a share is no other."""


@dataclass(frozen=True)
class Fuller:
    """A recipe that is as full as is said."""

    said: str
    recipe: Recipe


def _fullness(recipe: Recipe) -> tuple[str, float] | None:
    """What of the lower part says how full it is, and what it says; None where nothing does."""
    lower = recipe.lower
    for name in ("fullness", "sweep", "hem_sweep", "flare"):
        value = getattr(lower, name, None)
        if isinstance(value, float) and not (name == "fullness" and value <= 1.0 and hasattr(lower, "sweep")):
            return name, value
    return None


def say_full(recipe: Recipe, unit: Said) -> str:
    """How full a recipe's lower part is, as the trade says it; nothing where it has no fullness to say."""
    found = _fullness(recipe)
    if found is None:
        return ""
    name, value = found
    if name == "sweep":
        return say_sweep(value)
    if name == "fullness":
        return f"{say_fullness(value)} the seam"
    return f"{format_length(value, unit)} " + ("round the hem" if name == "hem_sweep" else "of flare a side")


def beside(recipe: Recipe, unit: Said) -> tuple[Fuller, ...]:
    """The nearest usual fullness below a recipe's and the nearest above, such as can be cut; two on one side where
    there is none on the other. Nothing where its lower part has none.
    """
    found = _fullness(recipe)
    if found is None:
        return ()
    name, now = found
    usual = {"sweep": SWEEPS, "fullness": TIMES}.get(name) or tuple(round(now * by, -1) for by in HEMS)
    other = sorted((v for v in usual if abs(v - now) > LIKE * now), key=lambda v: abs(v - now))
    less, more = [v for v in other if v < now], [v for v in other if v > now]
    tried = [*less[:1], *more[:1], *less[1:], *more[1:]]
    made: list[tuple[float, Fuller]] = []
    for value in tried:
        one = _cut(recipe, name, value)
        if one is not None:
            made.append((value, Fuller(say_full(one, unit), one)))
        if len(made) == 2:
            break
    return tuple(fuller for _, fuller in sorted(made, key=lambda x: x[0]))


def _cut(recipe: Recipe, name: str, value: float) -> Recipe | None:
    """A recipe so full; None where it cannot be cut so."""
    try:
        made = changed(recipe, {f"lower.{name}": value})
    except ValidationError:
        return None
    stops = any(f.severity is Severity.STOP for f in make_up(made).findings)
    return None if stops else made
