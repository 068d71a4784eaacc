"""A correction tried: the dress as it would be, what is refused, and which seams and edges follow (trade 13.2)."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from gentle_hem.core.findings import Finding, Severity
from gentle_hem.core.garment import Garment
from gentle_hem.core.make_up import make_up
from gentle_hem.core.making.fitting_guide import Try
from gentle_hem.core.pattern import Role
from gentle_hem.core.recipe import UNDRAWN, Recipe, changed
from gentle_hem.core.refusals import sentence
from gentle_hem.core.seams import left_of
from gentle_hem.core.steps.base import OneSide
from gentle_hem.core.units import Said, format_length
from gentle_hem.core.what import Half

FOLLOWS = 0.5
"""An edge that changes by more than this is said to follow (mm)."""


@dataclass(frozen=True, slots=True)
class Follows:
    """A seam that follows: how long it was, and is (mm, as stitched)."""

    seam: str
    before: float
    after: float


@dataclass(frozen=True, slots=True)
class Tried:
    """What a correction makes of a dress, or why it cannot be done."""

    changes: Mapping[str, Any] | None
    refused: str
    """Why not, in a sentence; nothing where it can be done."""
    follows: tuple[Follows, ...] = ()
    open_seams: tuple[str, ...] = ()
    """Seams that do not meet with it and did before."""


def tried(
    recipe: Recipe, garment: Garment, one: Try, amount: float, said: Said, side: OneSide = "both"
) -> Tried:  # fmt: skip
    """A correction by an amount (mm), done to a dress on both sides or one and looked at; nothing is kept."""
    if side != "both" and not one.is_sided:
        return Tried(None, "It is done to left and right alike; take it for both sides.")
    before = {finding.text(said) for finding in _stops(garment)}
    why = ""
    for changes in one.changes(recipe, _asked(recipe, garment, one, amount), side):
        try:
            made = make_up(changed(recipe, changes))
        except ValidationError as error:
            why = why or sentence(dict(error.errors()[0]))
            continue
        new = [finding for finding in _stops(made) if finding.text(said) not in before]
        refused = next((finding for finding in new if finding.refuses), None)
        if refused is not None:
            why = why or refused.text(said)
            continue
        return Tried(changes, "", _following(garment, made), _opened(garment, made))
    return Tried(None, why)


CLOSE, TURNS = 0.05, 6
"""An edge is shorter by the amount within this (mm), sought in so many turns."""


def _asked(recipe: Recipe, garment: Garment, one: Try, amount: float) -> float:
    """The amount to ask of the step: a wedge across an edge that runs aslant takes less off it than it is wide."""
    if one.takes is None:
        return amount
    asked = amount
    for _ in range(TURNS):
        try:
            made = make_up(changed(recipe, next(one.changes(recipe, asked))))
        except ValidationError:
            return amount  # too wide for the step, which says so
        taken = _long(garment, *one.takes) - _long(made, *one.takes)
        if abs(taken - amount) < CLOSE or taken <= 0:
            break
        asked *= amount / taken
    return asked


def _long(garment: Garment, half: Half, role: Role) -> float:
    """An edge of one half of the outer upper part, as stitched."""
    return sum(
        piece.stitched_length(edge.name)
        for piece in garment.pieces
        if piece.what.is_outer_upper(half)
        for edge in piece.edges
        if edge.role is role
    )


def begun_with(recipe: Recipe, block: Iterable[tuple[Try, float]]) -> Recipe:
    """A recipe as it begins for someone in whose block these corrections are: each that can be done, the others said in
    its remarks. A bodice that is not drafted is left as it is.
    """
    if isinstance(recipe.bodice, UNDRAWN):
        return recipe
    for one, amount in block:
        made = tried(recipe, make_up(recipe), one, amount, recipe.unit)
        if made.changes is None:
            told = (
                f"In the block, and not done here: {one.title}, {format_length(amount, recipe.unit)} {one.amount_is}."
            )
            recipe = recipe.model_copy(update={"remarks": f"{recipe.remarks}\n{told} {made.refused}".strip()})
        else:
            recipe = changed(recipe, dict(made.changes))
    return recipe


def still_to_take(recipe: Recipe, block: Iterable[tuple[Try, float]]) -> list[tuple[Try, float]]:
    """Which of the corrections in somebody's block this dress has not taken yet: none of it where it is not drafted."""
    if isinstance(recipe.bodice, UNDRAWN):
        return []
    there = [step.model_dump(mode="json") for step in recipe.steps]
    # as they would be done to the draft itself, where a dress that was begun with them has them
    draft, left = recipe.model_copy(update={"steps": ()}), []
    for one, amount in block:
        after = begun_with(draft, [(one, amount)])
        new = [step.model_dump(mode="json") for step in after.steps[len(draft.steps) :]]
        if not new or not all(any(_alike(step, old) for old in there) for step in new):
            left.append((one, amount))
        draft = after
    return left


ALIKE = 0.1
"""Amounts of one correction differ by less than this share from draft to draft: measures may be taken anew between."""


def _alike(step: Mapping[str, Any], other: Mapping[str, Any]) -> bool:
    """Whether two steps do the same, by about as much."""
    if step.keys() != other.keys():
        return False
    return all(
        abs(value - other[name]) <= ALIKE * max(abs(value), abs(other[name]))
        if isinstance(value, float) and isinstance(other[name], float)
        else value == other[name]
        for name, value in step.items()
    )


def _stops(garment: Garment) -> list[Finding]:
    return [finding for finding in garment.findings if finding.severity is Severity.STOP]


def _following(before: Garment, after: Garment) -> tuple[Follows, ...]:
    """The seams whose length is another now, those that change most first."""
    was = {walked.name: walked.length_a for walked in before.seams}
    found = [
        Follows(walked.name, before_it, walked.length_a)
        for walked in after.seams
        if (before_it := was.get(walked.name, was.get(left_of(walked.name)))) is not None
        and abs(walked.length_a - before_it) > FOLLOWS
    ]
    return tuple(sorted(found, key=lambda one: -abs(one.after - one.before)))


def _opened(before: Garment, after: Garment) -> tuple[str, ...]:
    met = {walked.name for walked in before.seams if walked.verdict.fits}
    return tuple(
        walked.name for walked in after.seams if {walked.name, left_of(walked.name)} & met and not walked.verdict.fits
    )
