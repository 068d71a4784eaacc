"""What is done at the bench: one operation after another, each with its seams, its darts, its words and its time.

operation ── seams, darts, edges finished, closures        each of the garment's in exactly one
    │
    ├─ says      what to do, with its numbers
    ├─ minutes   common practice until the maker's own are known
    └─ before    what must be done first, and why
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

from gentle_hem.core.findings import say
from gentle_hem.core.seams import Stretch
from gentle_hem.core.units import Said
from gentle_hem.core.what import What


class Work(StrEnum):
    """What kind of work an operation is; the maker's own times are learnt by it."""

    CUT = "cutting"
    MARK = "marking"
    STAYSTITCH = "staystitching"
    FUSE = "fusing"
    DARTS = "darts"
    PLEATS = "pleats"
    GATHER = "gathering"
    SEAM = "seams"
    SET_IN = "setting in"
    EDGE = "finishing edges"
    POCKETS = "pockets"
    CLOSURE = "closures"
    FIT = "fitting"
    HANG = "hanging"
    HEM = "hems"
    PRESS = "pressing"


class School(StrEnum):
    """Which of the two orders a garment is sewn together in."""

    SIDES_FIRST = "sides_first"
    """Bodice and lower part are each closed at the sides, then joined in the round."""
    WAIST_FIRST = "waist_first"
    """Front to front and back to back while they lie flat; the sides last, underarm to hem in one."""


@dataclass(frozen=True, slots=True)
class Line:
    """One sentence of what to do, its numbers still to be spoken."""

    template: str
    values: Mapping[str, Any] = field(default_factory=dict)

    def text(self, unit: Said) -> str:
        return say(self.template, self.values, unit)


def line(template: str, **values: Any) -> Line:
    return Line(template, values)


@dataclass(frozen=True, slots=True)
class DartOf:
    """A dart of a piece, by its place in the piece's list."""

    piece: What
    number: int


@dataclass(frozen=True, slots=True)
class EdgeOf:
    """An edge of a piece that is finished alone."""

    piece: What
    edge: str


class Closure(StrEnum):
    """What a garment is closed with."""

    ZIP = "zip"
    BUTTONS = "buttons"
    LACING = "lacing"


class Wait(StrEnum):
    """What an operation may have to wait for."""

    CLOTH = "the cloth"
    PERSON = "a fitting"
    IRON = "current for the iron"


@dataclass(frozen=True, slots=True)
class Operation:
    """One thing that is done.

    ``key`` never changes while the garment has it, so that ticks and times stay with it. ``stretches`` are the edges
    to be drawn. ``rank`` is its place in the usual order, where nothing else decides.
    """

    key: str
    work: Work
    title: str
    says: tuple[Line, ...]
    rank: float
    minutes: float
    """Work of the hands, common practice from memory."""
    seams: tuple[str, ...] = ()
    darts: tuple[DartOf, ...] = ()
    edges: tuple[EdgeOf, ...] = ()
    closures: tuple[Closure, ...] = ()
    pieces: tuple[What, ...] = ()
    stretches: tuple[Stretch, ...] = ()
    waits: tuple[Wait, ...] = ()
    hours: tuple[float, float] = (0.0, 0.0)
    """How long it then rests, at least and at most; no hands are needed."""
    opens: bool = False
    """Whether it is where the garment opens, or the seam below: what crosses it must be there first."""


@dataclass(frozen=True, slots=True)
class Before:
    """One operation that must be done before another, and why."""

    first: str
    then: str
    why: str
