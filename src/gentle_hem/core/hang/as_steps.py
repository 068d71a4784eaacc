"""What a hung dress asks for, as steps: made up on trial, so that only what can be done is offered."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Literal

from pydantic import ValidationError

from gentle_hem.core.findings import Finding, Severity
from gentle_hem.core.garment import Garment
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe, changed
from gentle_hem.core.steps.contour import Wedge
from gentle_hem.core.steps.level_hem import AROUND, MOST, LevelHem

LEVEL_WITHIN = 6.0
"""A hem that hangs within so much of what was asked hangs level (mm)."""


TRIES, NEARLY = 8, 0.5
"""The width of a wedge is tried so many times, until the edge is shorter as it was asked within so much (mm)."""


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
    stopped = _stopped(_with(recipe, step), garment)
    if stopped is not None:
        return Levelling(why=f"Its hem cannot be levelled by a step. {stopped.text(recipe.unit)}")
    return Levelling(step)


def pinched(
    recipe: Recipe, garment: Garment, front: str, edge: str, much: float,
    out_of: Literal["neckline", "armhole"] = "neckline",
) -> dict[str, Any] | None:  # fmt: skip
    """The step that makes an edge of the front so much shorter a half (mm) by a wedge to the bust point; None where
    it cannot be done. Drawn smooth again the edge is shorter by less than the wedge is wide, so its width is tried.
    """
    before, amount = garment.piece(front).stitched_length(edge), much
    for _ in range(TRIES):
        try:
            step = Wedge(edge=out_of, amount=round(amount, 1)).model_dump(mode="json")
        except ValidationError:
            return None
        made = _with(recipe, step)
        if _stopped(made, garment) is not None:
            return None
        shorter = before - made.piece(front).stitched_length(edge)
        if abs(shorter - much) < NEARLY:
            return step
        amount *= much / max(shorter, much / 4)
    return None


def _with(recipe: Recipe, step: dict[str, Any]) -> Garment:
    """What a recipe makes with one more step at its end."""
    return make_up(changed(recipe, {"steps": [*recipe.model_dump(mode="json")["steps"], step]}))


def _stopped(made: Garment, garment: Garment) -> Finding | None:
    """What stops a garment that did not stop it before."""
    known = {(found.code, found.at) for found in garment.findings}
    return next(
        (f for f in made.findings if f.severity is Severity.STOP and (f.code, f.at) not in known), None
    )  # fmt: skip
