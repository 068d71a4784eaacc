"""What was learnt of a cloth at one dress, told again at the next.

shrinkage       a length before and after washing: (before − after) ÷ before
growth on bias  a length before and after hanging: (after − before) ÷ before
fraying, marking, pressing, anything else: as it was written down
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from enum import StrEnum
from typing import Any

from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.garment import Garment
from gentle_hem.core.making.other_work import is_flared
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape, format_length, plain


class Kind(StrEnum):
    """What sort of thing was learnt."""

    SHRINKS = "shrinkage"
    GROWS = "growth on the bias"
    FRAYS = "fraying"
    MARKS = "marking"
    PRESSES = "pressing"
    OTHER = "something else"


MEASURED = (Kind.SHRINKS, Kind.GROWS)
"""What is measured before and after."""

SAME = 0.5
"""Shares that differ by less (per cent) are the same: no more can be read off a tape."""

FRAYING = 15.0
"""A seam of a cloth that frays has an allowance of at least so much (mm): common practice, from memory."""


class NotMeasured(ValueError):  # noqa: N818  (it is what a note is)
    """A note whose lengths say nothing; the sentence says why."""


@dataclass(frozen=True, slots=True)
class Learnt:
    """One thing that was learnt, and when; with the lengths it was measured at (mm), where it was measured."""

    kind: Kind
    on_day: date
    text: str = ""
    before: float | None = None
    after: float | None = None

    @property
    def share(self) -> float | None:
        """By how much it shrank or grew, per cent of what it was; None where it was not measured."""
        if self.before is None or self.after is None:
            return None
        change = (self.before - self.after) / self.before * 100
        return change if self.kind is Kind.SHRINKS else -change


def checked(note: Learnt) -> Learnt:
    """A note as it can be kept. Raises NotMeasured with a sentence."""
    if note.kind not in MEASURED:
        if not note.text:
            raise NotMeasured("Say what was learnt of it.")
        return note
    if note.before is None or note.after is None:
        raise NotMeasured("Say how long it was before and after.")
    if note.before <= 0 or note.after <= 0:
        raise NotMeasured("A length before and after is more than nothing.")
    if note.share is not None and not -1.0 <= note.share <= 40.0:
        what = "shrinks" if note.kind is Kind.SHRINKS else "grows"
        raise NotMeasured(
            f"No cloth {what} by {plain(note.share, 0)} %; are before and after the right way round, and in one unit?"
        )
    return note


@dataclass(frozen=True, slots=True)
class Advice:
    """What a note means for this dress, and the change that takes it, where there is one."""

    text: str
    changes: Mapping[str, Any] = field(default_factory=dict)


def advice(
    notes: Sequence[Learnt], cloth: Cloth, place: str, recipe: Recipe, garment: Garment, tape: Tape
) -> tuple[Advice, ...]:
    """What was learnt of a cloth, for this dress; ``place`` is where its recipe says what the cloth is like."""
    return tuple(_advice(notes, cloth, place, recipe, garment, tape))


def _advice(
    notes: Sequence[Learnt], cloth: Cloth, place: str, recipe: Recipe, garment: Garment, tape: Tape
) -> Iterator[Advice]:
    shrank = _most(notes, Kind.SHRINKS)
    if shrank is not None:
        yield _shrinks(shrank, cloth, place, tape)
    grew = most_grown(notes)
    flared = any(is_flared(piece) and piece.what.section.is_lower for piece in garment.pieces)
    if grew is not None and flared and recipe.lower.hangs:
        share = grew.share or 0.0
        yield Advice(
            f"{_measured(grew, tape)} This one, {format_length(recipe.lower.hangs, tape)} long, may hang "
            f"{format_length(recipe.lower.hangs * share / 100, tape)} longer where it is on the bias: let it hang, "
            "then level the hem."
        )
    for note in notes:
        if note.kind is Kind.FRAYS and recipe.allowances.side < FRAYING:
            yield Advice(
                f"It frays: {note.text} The side seams have {format_length(recipe.allowances.side, tape)}.",
                {"allowances.side": FRAYING},
            )
        elif note.kind not in MEASURED:
            yield Advice(f"{note.kind[:1].upper()}{note.kind[1:]}: {note.text}")


def most_grown(notes: Sequence[Learnt]) -> Learnt | None:
    """The note of how far a cloth grew on the bias that says the most."""
    return _most(notes, Kind.GROWS)


def _most(notes: Sequence[Learnt], kind: Kind) -> Learnt | None:
    """The note of a kind that says the most: one cuts for the worst that was seen."""
    measured = [note for note in notes if note.kind is kind and note.share is not None]
    return max(measured, key=lambda note: note.share or 0.0, default=None)


def _measured(note: Learnt, tape: Tape) -> str:
    share = tape.number(plain(note.share or 0.0, 1))
    what = "shrank" if note.kind is Kind.SHRINKS else "grew on the bias"
    return (
        f"It {what} by {share} %: {format_length(note.before or 0.0, tape)} before, "
        f"{format_length(note.after or 0.0, tape)} after."
    )


def _shrinks(note: Learnt, cloth: Cloth, place: str, tape: Tape) -> Advice:
    share = round(note.share or 0.0, 1)
    reckoned = tape.number(plain(cloth.shrinks, 1))
    if abs(share - cloth.shrinks) < SAME:
        return Advice(f"{_measured(note, tape)} The lay reckons with {reckoned} %.")
    return Advice(
        f"{_measured(note, tape)} The lay reckons with {reckoned} %: it would come out "
        f"{'short' if share > cloth.shrinks else 'longer than is needed'}.",
        {f"{place}.shrinks": max(share, 0.0)},
    )
