"""Lengths as they are spoken in workrooms, and as they are kept.

    "31 1/4"     31¼in     79,4cm     794 mm     2' 7 1/4"        what a maker writes
         \\_________\\_________|__________/__________/
                             |
                      793.75 millimetres                         what is kept, never rounded
                             |
              "31 1/4 in"  or  "79.4 cm"                         what is shown, rounded for the eye only

A length is a plain ``float`` of millimetres everywhere inside the program. Units exist only here.
"""

import re
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from math import isfinite
from typing import Annotated, Any

from pydantic import BeforeValidator, ValidationInfo, WithJsonSchema

MM_PER_INCH = 25.4

LONGEST = 50_000.0
"""Fifty metres: longer than any edge a dress has, so anything above is a slip of the pen (mm)."""


class Unit(StrEnum):
    """The unit a person thinks in."""

    INCH = "in"
    CM = "cm"


@dataclass(frozen=True, slots=True)
class Tape:
    """How lengths are read out: the unit, the finest mark of an inch tape (8: eighths, 16: sixteenths), and whether a
    decimal is written with a comma.
    """

    unit: Unit
    mark: int = 8
    comma: bool = False

    def number(self, digits: str) -> str:
        """A number's digits as this person writes them."""
        return digits.replace(".", ",") if self.comma else digits


Said = Unit | Tape
"""In which unit a thing is said; a bare unit is read to eighths or millimetres, with a point."""


def tape(said: Said) -> Tape:
    """The tape that a unit or a tape is read on."""
    return said if isinstance(said, Tape) else Tape(said)


def inches(value: float) -> float:
    """Inches as millimetres."""
    return value * MM_PER_INCH


class LengthError(ValueError):
    """What was typed cannot be read as a length; the sentence says which part and what would be read."""


_ACCEPTED = "try 31 1/4, 31.25 in, 79,4 cm, 794 mm or 2' 7 1/4\""

_UNIT_WORDS = {
    "mm": 1.0, "millimetre": 1.0, "millimetres": 1.0, "millimeter": 1.0, "millimeters": 1.0,
    "cm": 10.0, "centimetre": 10.0, "centimetres": 10.0, "centimeter": 10.0, "centimeters": 10.0,
    "m": 1000.0, "metre": 1000.0, "metres": 1000.0, "meter": 1000.0, "meters": 1000.0,
    "in": MM_PER_INCH, "inch": MM_PER_INCH, "inches": MM_PER_INCH, '"': MM_PER_INCH,
    "ft": 304.8, "foot": 304.8, "feet": 304.8, "'": 304.8,
    "yd": 914.4, "yds": 914.4, "yard": 914.4, "yards": 914.4,
}  # fmt: skip

_LOOKALIKES = str.maketrans(
    {"″": '"', "”": '"', "“": '"', "„": '"', "′": "'", "’": "'", "‘": "'", "⁄": "/", "−": "-", "–": "-",
     "\u00a0": " ", "\u2009": " ", "\u202f": " "}
)  # fmt: skip

_VULGAR = {
    "¼": "1/4", "½": "1/2", "¾": "3/4", "⅓": "1/3", "⅔": "2/3", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
    "⅕": "1/5", "⅖": "2/5", "⅗": "3/5", "⅘": "4/5", "⅙": "1/6", "⅚": "5/6",
}  # fmt: skip

_NUMBER = re.compile(r"(?P<over>\d+)\s*/\s*(?P<under>\d+)|(?P<plain>\d+(?:[.,]\d+)?|[.,]\d+)")
_WORD = re.compile(r"[a-zA-Z]+|\"|''|'")


def _plain_number(text: str) -> Fraction:
    return Fraction(text.replace(",", "."))


def parse_length(text: str, unit: Unit | None = None) -> float:
    """Read a length as a person writes it (trade 3.2). Returns millimetres.

    A number without a unit is in ``unit``; with ``unit=None`` a bare number other than 0 is refused.
    Raises LengthError with a sentence naming the part that cannot be read.

    >>> parse_length("31 1/4", Unit.INCH), parse_length("79,4cm"), parse_length("2' 7 1/4\\"")
    (793.75, 794.0, 793.75)
    """
    typed = text.strip()
    if not typed:
        raise LengthError(f"No length was given; {_ACCEPTED}.")
    rest = typed.translate(_LOOKALIKES)
    for sign, plain in _VULGAR.items():
        rest = rest.replace(sign, f" {plain} ")
    rest = rest.strip()
    negative = rest.startswith("-")
    rest = rest.lstrip("+-").strip() if rest[:1] in "+-" else rest

    total = Fraction(0)
    pending: Fraction | None = None
    pending_has_fraction = False
    smallest_so_far: float | None = None
    first = True
    while rest:
        number = _NUMBER.match(rest)
        if number:
            if number["over"] is not None:
                if int(number["under"]) == 0:
                    raise LengthError(f'"{number[0]}" in "{typed}" divides by nothing; {_ACCEPTED}.')
                value = Fraction(int(number["over"]), int(number["under"]))
                if pending is not None and (pending_has_fraction or pending.denominator != 1 or value >= 1):
                    raise LengthError(f'"{number[0]}" in "{typed}" does not follow a whole number; {_ACCEPTED}.')
                pending = value if pending is None else pending + value
                pending_has_fraction = True
            else:
                if pending is not None:
                    raise LengthError(f'"{number[0]}" in "{typed}" is one number too many; {_ACCEPTED}.')
                pending, pending_has_fraction = _plain_number(number["plain"]), False
            rest = rest[number.end() :]
            # a hyphen may tie the whole number to its fraction: 34-3/4
            rest = re.sub(r"^\s*-\s*(?=\d+\s*/)", " ", rest).lstrip()
            continue
        word = _WORD.match(rest)
        if not word or (word[0].lower() not in _UNIT_WORDS and word[0] != "''"):
            found = re.match(r"\S+", rest)
            part = found[0] if found else rest
            where = "" if part == typed.strip() else f' in "{typed}"'
            raise LengthError(f'"{part}"{where} cannot be read as a length; {_ACCEPTED}.')
        if pending is None:
            raise LengthError(f'"{word[0]}" in "{typed}" has no number before it; {_ACCEPTED}.')
        size = MM_PER_INCH if word[0] == "''" else _UNIT_WORDS[word[0].lower()]
        if smallest_so_far is not None and size >= smallest_so_far:
            raise LengthError(f'"{word[0]}" in "{typed}" does not follow the larger unit before it; {_ACCEPTED}.')
        total += pending * Fraction(str(size))
        pending, smallest_so_far, first = None, size, False
        rest = rest[word.end() :].lstrip(" .")
    if pending is not None:
        if not first:
            if smallest_so_far != 304.8:
                raise LengthError(f'The last number in "{typed}" has no unit; {_ACCEPTED}.')
            size = MM_PER_INCH  # 2' 10 means two foot ten
        elif unit is None and pending != 0:
            raise LengthError(f'"{typed}" has no unit; write it as {typed} in or {typed} cm.')
        else:
            size = MM_PER_INCH if unit is Unit.INCH else 10.0  # nothing is nothing in any unit
        total += pending * Fraction(str(size))
    if total > LONGEST:
        raise LengthError(f'"{typed[:40]}" is longer than 50 m; check the unit.')
    return checked_length(float(-total if negative else total))


def checked_length(value: float) -> float:
    """The length itself, if it is a number a workroom could meet; LengthError otherwise."""
    if not isfinite(value):
        raise LengthError("A length must be an ordinary number.")
    if abs(value) > LONGEST:
        raise LengthError(f"{value:g} mm is longer than 50 m; check the unit.")
    return value


def format_length(value: float, said: Said) -> str:
    """A length as it is read out: inches to the nearest 1/8 (or 1/16), centimetres to 0.1.

    >>> format_length(793.75, Unit.INCH), format_length(793.75, Unit.CM)
    ('31 1/4 in', '79.4 cm')
    >>> format_length(8.0, Tape(Unit.INCH, 16)), format_length(8.0, Tape(Unit.CM, comma=True))
    ('5/16 in', '0,8 cm')
    """
    read = tape(said)
    if read.unit is Unit.CM:
        shown = f"{value / 10:.1f}"
        return f"{read.number(shown if shown != '-0.0' else '0.0')} cm"
    parts = Fraction(round(abs(value) / MM_PER_INCH * read.mark), read.mark)
    return f"{'-' if value < 0 and parts else ''}{_inches_said(parts)} in"


def _inches_said(parts: Fraction) -> str:
    """Inches as a whole number and a fraction: ``31 1/4``."""
    whole, rest = divmod(parts, 1)
    if not rest:
        return str(whole)
    return f"{whole} {rest}" if whole else str(rest)


def is_on_the_tape(value: float, said: Said) -> bool:
    """Whether a length lies on a mark of the tape, to a hundredth of a millimetre."""
    read = tape(said)
    mark = 1.0 if read.unit is Unit.CM else MM_PER_INCH / read.mark
    return abs(value / mark - round(value / mark)) * mark < 0.01


def format_exact(value: float, said: Said, decimals: int = 4) -> str:
    """A length with four decimals, trailing zeros dropped, for those who ask: ``4.9736 in``."""
    read = tape(said)
    number = value / MM_PER_INCH if read.unit is Unit.INCH else value / 10
    return f"{read.number(plain(number, decimals))} {read.unit.value}"


def format_share(total: float, count: int, said: Said) -> str:
    """One of ``count`` shares of a length, so that together they make the total as the tape shows it: on a finer mark,
    or unequal where no mark is fine enough.

    >>> format_share(27.0, 2, Unit.CM), format_share(15.875, 2, Unit.INCH), format_share(26.0, 3, Unit.CM)
    ('1.35 cm', '5/16 in', '0.9 cm (2) and 0.8 cm (1)')
    """
    read = tape(said)
    metric = read.unit is Unit.CM
    fine = 20 if metric else 32
    per = 10.0 if metric else MM_PER_INCH
    shown = Fraction(round(abs(total) / per * (10 if metric else read.mark)), 10 if metric else read.mark)
    each = shown / count
    if (each * fine).denominator == 1:
        return _share_said(each, read)
    mark = 10 if metric else 16
    least, more = divmod(round(shown * mark), count)
    larger, smaller = Fraction(least + 1, mark), Fraction(least, mark)
    return f"{_share_said(larger, read)} ({more}) and {_share_said(smaller, read)} ({count - more})"


def _share_said(share: Fraction, read: Tape) -> str:
    if read.unit is Unit.INCH:
        return f"{_inches_said(share)} in"
    shown = f"{float(share):.2f}"
    return f"{read.number(shown.removesuffix('0') if shown.endswith('0') else shown)} cm"


def plain(number: float, decimals: int = 4) -> str:
    """A number without needless zeros: ``6.2832``, ``4``, ``0.5``."""
    if isinstance(number, int):
        digits = str(number)
        return digits if len(digits) < 20 else f"{digits[:3]}… ({len(digits)} digits)"
    text = f"{number:.{decimals}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if text in ("-0", "") else text


def _read_length(value: Any, info: ValidationInfo) -> float:
    if isinstance(value, str):
        return parse_length(value, (info.context or {}).get("unit"))
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise LengthError(f"A length is a number of millimetres or text such as 31 1/4 in; this is {value!r}.")
    return checked_length(float(value))


Length = Annotated[
    float,
    BeforeValidator(_read_length),
    WithJsonSchema(
        {
            "anyOf": [{"type": "number", "minimum": -LONGEST, "maximum": LONGEST}, {"type": "string"}],
            "description": "Millimetres as a number, or text with a unit such as '31 1/4 in'.",
        },
        mode="validation",
    ),
    WithJsonSchema({"type": "number", "description": "Millimetres."}, mode="serialization"),
]
"""A length in a recipe or figure: millimetres inside, any form of the trade's 3.2 accepted.

Text without a unit is read in the validation context's ``unit``, and refused where there is none.
"""
