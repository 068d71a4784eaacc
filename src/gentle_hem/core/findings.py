"""What is wrong, or worth knowing, said for the cutting table: the numbers, the place and a way out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

from gentle_hem.core.tongue import named
from gentle_hem.core.units import Said
from gentle_hem.core.workings import speak


class Severity(StrEnum):
    """``stop``: do not cut; ``warn``: look again; ``note``: good to know."""

    STOP = "stop"
    WARN = "warn"
    NOTE = "note"


@dataclass(frozen=True, slots=True)
class Place:
    """Where a finding points: a word of the recipe, or a piece and one of its edges."""

    recipe: str = ""
    piece: str = ""
    edge: str = ""


def say(template: str, values: Mapping[str, Any], unit: Said) -> str:
    """A sentence with its numbers spoken in the asker's unit."""
    spoken = {k: named(str(v)) if isinstance(v, str) else speak(v, unit) for k, v in values.items()}
    return template.format_map(spoken)


@dataclass(frozen=True, slots=True)
class Remedy:
    """A way out: what it is called, what it costs, and the recipe change that takes it.

    ``changes`` maps a dotted path of the recipe to its new value: ``{"lower.seam": None}``.
    """

    code: str
    template: str
    changes: Mapping[str, Any]
    cost_template: str = ""
    values: Mapping[str, Any] = field(default_factory=dict)

    def text(self, unit: Said) -> str:
        return say(self.template, self.values, unit)

    def cost(self, unit: Said) -> str:
        return say(self.cost_template, self.values, unit)


@dataclass(frozen=True, slots=True)
class Finding:
    """One finding: a code that never changes its meaning, a sentence, the place, and remedies."""

    code: str
    severity: Severity
    template: str
    values: Mapping[str, Any]
    at: tuple[Place, ...] = ()
    remedies: tuple[Remedy, ...] = ()
    refuses: bool = False
    """Whether what the recipe asks for at its place is not in the garment at all."""

    def text(self, unit: Said) -> str:
        """The sentence, lengths in the asker's unit."""
        return say(self.template, self.values, unit)


def stop(code: str, template: str, *at: Place, remedies: tuple[Remedy, ...] = (), **values: Any) -> Finding:
    """Do not cut before this is settled."""
    return Finding(code, Severity.STOP, template, values, at, remedies)


def refused(code: str, template: str, *at: Place, remedies: tuple[Remedy, ...] = (), **values: Any) -> Finding:
    """What the recipe asks for and cannot be drawn: a stop, and the words that ask for it are struck."""
    return Finding(code, Severity.STOP, template, values, at, remedies, refuses=True)


def warn(code: str, template: str, *at: Place, remedies: tuple[Remedy, ...] = (), **values: Any) -> Finding:
    """Look again; the dress may still be right."""
    return Finding(code, Severity.WARN, template, values, at, remedies)


def note(code: str, template: str, *at: Place, remedies: tuple[Remedy, ...] = (), **values: Any) -> Finding:
    """Good to know."""
    return Finding(code, Severity.NOTE, template, values, at, remedies)


def in_recipe(*paths: str) -> tuple[Place, ...]:
    """Places given as words of the recipe."""
    return tuple(Place(recipe=path) for path in paths)
