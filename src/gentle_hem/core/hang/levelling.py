"""A hem levelled as it hung, as a step: made up on trial, so that only what can be done is offered."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from gentle_hem.core.findings import Severity
from gentle_hem.core.garment import Garment
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed
from gentle_hem.core.steps.level_hem import AROUND, MOST, LevelHem

LEVEL_WITHIN = 6.0
"""A hem that hangs within so much of what was asked hangs level (mm)."""


@dataclass(frozen=True)
class Levelling:
    """The step that levels a hem; or why there is none, nothing where it hangs as it was asked."""

    step: dict[str, Any] | None = None
    why: str = ""


def levelling(recipe: Recipe, garment: Garment, cut: tuple[float, ...]) -> Levelling:
    """How a hem is levelled that wants so much cut off at each place (mm; less than nothing: added)."""
    most = max(abs(by) for by in cut)
    if most < LEVEL_WITHIN:
        return Levelling()
    if most > MOST:
        return Levelling(why="It hangs too far from what was asked for its hem to be levelled; see what holds it up.")
    step = LevelHem.model_validate(dict(zip(AROUND, (round(by, 1) for by in cut), strict=True))).model_dump(mode="json")
    steps = [*recipe.model_dump(mode="json")["steps"], step]
    tried = make_up(changed(recipe, {"steps": steps}))
    known = {(found.code, found.at) for found in garment.findings}
    for found in tried.findings:
        if found.severity is Severity.STOP and (found.code, found.at) not in known:
            return Levelling(why=f"Its hem cannot be levelled by a step. {found.text(recipe.unit)}")
    return Levelling(step)
