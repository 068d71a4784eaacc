"""What a plotter is sent, piece by piece, and how it reads it: HPGL (from memory), 40 steps to the millimetre."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

STEPS = 40.0
"""Plotter steps to the millimetre: a step is 0.025 mm."""

ENDS_TEXT = "\x03"


@dataclass(frozen=True, slots=True)
class Block:
    """What draws one piece: its name, its commands, and from where to where along the roll it reaches (mm)."""

    name: str
    commands: str
    start: float
    end: float


@dataclass(frozen=True, slots=True)
class Command:
    """One command as a plotter reads it: its two letters and what follows them."""

    name: str
    rest: str

    @property
    def places(self) -> list[tuple[float, float]]:
        """The places it goes to (mm)."""
        numbers = [float(part) / STEPS for part in self.rest.split(",") if part]
        return list(zip(numbers[::2], numbers[1::2], strict=True))


def commands_in(text: str) -> Iterator[Command]:
    """The commands of a plot. Words run to their own end, and may hold what would end another command."""
    at = 0
    while at < len(text):
        if text[at] in "; \r\n":
            at += 1
            continue
        name = text[at : at + 2].upper()
        end = text.find(ENDS_TEXT if name == "LB" else ";", at)
        end = len(text) if end < 0 else end
        yield Command(name, text[at + 2 : end])
        at = end + 1
