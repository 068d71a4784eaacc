"""Numbers that remember their arithmetic, so that every one of them can be asked "why?".

    label      seam radius
    formula    seam ÷ (2π × sweep/360)          in words
    line       31 1/4 in ÷ 6.2832 = 4.974, on the tape 5 in
    inputs     seam → the working it came from, and so on down to a measure

``notes.work(...)`` returns a number: it adds, divides and compares like any float, and carries its
``working`` along, so passing it as an input to the next working ties the two together.
"""

from __future__ import annotations

import string
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from math import degrees
from typing import Self

from gentle_hem.core.tongue import named
from gentle_hem.core.units import Said, Unit, format_exact, format_length, format_share, is_on_the_tape, plain, tape


class Kind(StrEnum):
    """What sort of number it is, and so how it is spoken."""

    LENGTH = "length"
    ANGLE = "angle"
    RATIO = "ratio"
    COUNT = "count"
    PERCENT = "percent"


class Ratio(float):
    """A plain number: a fullness, a share, an angle in radians used as a divisor."""

    kind = Kind.RATIO


class Angle(float):
    """An angle in radians, spoken in degrees."""

    kind = Kind.ANGLE


class Percent(float):
    """A share in per cent, as typed: 2 means two per cent."""

    kind = Kind.PERCENT


class Count(float):
    """How many."""

    kind = Kind.COUNT


def kind_of(value: float) -> Kind:
    """The kind a number declares; a plain float is a length in millimetres, an int is a count."""
    declared: Kind | None = getattr(value, "kind", None)
    if declared is not None:
        return declared
    return Kind.COUNT if isinstance(value, int) else Kind.LENGTH


class Share(float):
    """One of ``count`` equal shares of a length, spoken so that all of them make the total as it is spoken."""

    kind = Kind.LENGTH
    count: int

    def __new__(cls, each: float, count: int) -> Self:
        share = super().__new__(cls, each)
        share.count = count
        return share


def speak(value: float, unit: Said, kind: Kind | None = None) -> str:
    """A number as it is read out, rounded for the eye."""
    kind = kind or kind_of(value)
    number = tape(unit).number
    if isinstance(value, Share):
        return format_share(value * value.count, value.count, unit)
    if kind is Kind.LENGTH:
        return format_length(value, unit)
    if kind is Kind.ANGLE:
        return number(f"{plain(degrees(value), 1)}°")
    if kind is Kind.PERCENT:
        return number(f"{plain(value, 1)} %")
    return number(plain(value, 0 if kind is Kind.COUNT else 2))


def speak_exactly(value: float, unit: Said, kind: Kind | None = None) -> str:
    """A number to four decimals, for those who ask."""
    kind = kind or kind_of(value)
    number = tape(unit).number
    if kind is Kind.LENGTH:
        return format_exact(value, unit)
    if kind is Kind.ANGLE:
        return number(f"{plain(degrees(value))}°")
    if kind is Kind.PERCENT:
        return number(f"{plain(value)} %")
    return number(plain(value))


def speak_in_a_sum(value: float, unit: Said, kind: Kind | None = None) -> str:
    """A number as it stands in arithmetic: a length as the tape shows it where it lies on a mark, else as a calculator
    does.
    """
    if (kind or kind_of(value)) is not Kind.LENGTH:
        return speak_exactly(value, unit, kind)
    read = tape(unit)
    if read.unit is Unit.INCH and is_on_the_tape(value, unit):
        return format_length(value, unit)
    return format_exact(value, unit, 3)


def field_names(template: str) -> list[str]:
    """The names in braces in a template, in order."""
    return [name for _, name, _, _ in string.Formatter().parse(template) if name]


@dataclass(frozen=True, slots=True)
class Elastic:
    """Marks a working as the length of an elastic that is bought, and how many of them."""

    count: int = 1


@dataclass(frozen=True, slots=True)
class Working:
    """One number's story.

    ``template`` is the arithmetic with its inputs in braces; ``formula`` is the same in words.
    ``rule`` names the rule or school; ``rounding`` says what was rounded and how;
    ``instead`` holds what another rule or school would have given.
    """

    label: str
    formula: str
    template: str
    inputs: Mapping[str, float]
    value: float
    kind: Kind
    rule: str = ""
    rounding: str = ""
    instead: tuple[tuple[str, float], ...] = ()
    topic: str = ""
    buys: Elastic | None = None

    def line(self, unit: Said) -> str:
        """The arithmetic as a calculator shows it, and the result as the tape reads it:
        ``31 1/4 in ÷ 6.2832 = 4.974, on the tape 5 in``.
        """
        numbers = {name: speak_in_a_sum(value, unit) for name, value in self.inputs.items()}
        body = self.template.format_map(numbers) if self.template else ""
        result = speak_in_a_sum(self.value, unit, self.kind)
        if not body or body == result:
            return speak(self.value, unit, self.kind)
        if self.kind is Kind.LENGTH and not is_on_the_tape(self.value, unit):
            result = f"{result.rpartition(' ')[0]}, on the tape {format_length(self.value, unit)}"
        return f"{body} = {result}"


class Worked(float):
    """A number that knows its working."""

    working: Working

    def __new__(cls, working: Working) -> Self:
        number = super().__new__(cls, working.value)
        number.working = working
        return number

    @property
    def kind(self) -> Kind:
        return self.working.kind


@dataclass
class Workings:
    """The margin in which workings are written down, in order, while a garment is made up."""

    topic: str = ""
    lines: list[Working] = field(default_factory=list)

    def work(
        self,
        label: str,
        value: float,
        formula: str,
        line: str = "",
        *,
        kind: Kind | None = None,
        rule: str = "",
        rounding: str = "",
        instead: tuple[tuple[str, float], ...] = (),
        buys: Elastic | None = None,
        **inputs: float,
    ) -> Worked:
        """Write one number down and return it.

        ``formula`` names its inputs in braces, which become words in the formula and numbers in the
        line; give ``line`` as well where the arithmetic done by hand looks different.
        """
        words = formula.format_map({name: named(name.replace("_", " ")) for name in field_names(formula)})
        working = Working(
            label=label,
            formula=words,
            template=line or formula,
            inputs=inputs,
            value=float(value),
            kind=kind or kind_of(value),
            rule=rule,
            rounding=rounding,
            instead=instead,
            topic=named(self.topic),
            buys=buys,
        )
        self.lines.append(working)
        return Worked(working)

    def about(self, topic: str) -> Workings:
        """The same margin under another heading: what is written there is also written here."""
        return Workings(topic=topic, lines=self.lines)

    def __iter__(self) -> Iterator[Working]:
        return iter(self.lines)
