"""A digital tape measure: pressing its button sends what it reads. It does not know what it was held round.

    tape ── press ──► Reading(text, moment) ──► the next measure that is still empty

A real tape would be read by a class with the same ``press``; the one that ships is held by the program round an
invented person. It can be clumsy on request, so that the screen's behaviour can be tried.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from itertools import count
from typing import Protocol

from gentle_hem.core.figure import MeasureKey
from gentle_hem.core.units import Unit, format_length, parse_length

SAME_PRESS = 0.8
"""Two equal readings closer together than this came from one press (seconds)."""


@dataclass(frozen=True, slots=True)
class Reading:
    """What a tape sends: its own number, the length as text in the unit it is set to, and when (seconds)."""

    number: int
    text: str
    at: float


class Tape(Protocol):
    """Anything that sends readings."""

    def press(self, at: float) -> list[Reading]:
        """The button is pressed at a moment; what comes through, which may be nothing."""
        ...


class Manner(StrEnum):
    """How the stand-in behaves."""

    STEADY = "steady"
    WRONG_UNIT = "wrong_unit"
    DOUBLE = "double"
    DROPOUT = "dropout"


class SimulatedTape:
    """A tape held round an invented person, one measure at a time. ``aim`` says round what it is held next."""

    def __init__(self, person: Mapping[MeasureKey, float], unit: Unit = Unit.CM) -> None:
        self.person, self.unit = person, unit
        self.manner = Manner.STEADY
        self.held: MeasureKey | None = None
        self._numbers = count(1)

    def aim(self, key: MeasureKey) -> None:
        self.held = key

    def press(self, at: float) -> list[Reading]:
        length = self.person.get(self.held) if self.held else None
        if length is None or self.manner is Manner.DROPOUT:
            return []
        if self.manner is Manner.WRONG_UNIT:
            # set to the other unit, it sends a bare number that will be taken for this one
            other = Unit.INCH if self.unit is Unit.CM else Unit.CM
            return [Reading(next(self._numbers), format_length(length, other).rsplit(" ", 1)[0], at)]
        text = format_length(length, self.unit)
        sent = [Reading(next(self._numbers), text, at)]
        if self.manner is Manner.DOUBLE:
            sent.append(Reading(next(self._numbers), text, at + 0.1))
        return sent


def lengths(readings: list[Reading], unit: Unit) -> list[float]:
    """The lengths of readings in mm, one for each press: an echo of the same press is left out."""
    taken: list[float] = []
    last: Reading | None = None
    for reading in readings:
        echo = last is not None and reading.text == last.text and reading.at - last.at < SAME_PRESS
        if not echo:
            taken.append(parse_length(reading.text, unit))
        last = reading
    return taken
