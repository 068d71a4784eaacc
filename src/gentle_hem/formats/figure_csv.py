"""A set of measures as a table: measure, value, unit; and back from anybody's table of that kind."""

from __future__ import annotations

import csv
import io

from gentle_hem.core.figure import MEASURES, Figure, MeasureKey
from gentle_hem.core.measuring import ORDER
from gentle_hem.core.units import MM_PER_INCH, LengthError, Unit, parse_length, plain


class TableError(ValueError):
    """A table that cannot be read as measures; the sentence names the line."""


def to_csv(figure: Figure, unit: Unit) -> str:
    """All measures that were taken, in the tape's order. Values are exact to a ten-thousandth."""
    text = io.StringIO()
    rows = csv.writer(text, lineterminator="\n")
    rows.writerow(["measure", "value", "unit", "second reading"])
    per = MM_PER_INCH if unit is Unit.INCH else 10.0
    for key in ORDER:
        first, second = figure.measures.get(key), figure.second.get(key)
        if first is not None:
            rows.writerow([key, plain(first / per, 6), unit.value, "" if second is None else plain(second / per, 6)])
    return text.getvalue()


def from_csv(content: str, unit: Unit) -> dict[MeasureKey, float]:
    """The measures in a table. The first column names the measure, the second is its value, with a unit of its own
    or one in the third column; a bare number is in ``unit``. Comma, semicolon and tab separate. Raises TableError.
    """
    if len(content) > 200_000:
        raise TableError("The table is longer than 200,000 characters; a set of measures is a page.")
    content = content.replace("\r\n", "\n").replace("\r", "\n")
    try:
        separated = csv.Sniffer().sniff(content[:4000], delimiters=",;\t").delimiter
    except csv.Error:
        separated = ","
    names: dict[str, MeasureKey] = {_plain(label): key for key, label in MEASURES.items()}
    found: dict[MeasureKey, float] = {}
    for number, row in enumerate(csv.reader(io.StringIO(content.lstrip("\ufeff")), delimiter=separated), start=1):
        cells = [cell.strip() for cell in row]
        if not any(cells) or (number == 1 and _plain(cells[0]) in ("measure", "name", "key")):
            continue
        key = names.get(_plain(cells[0]))
        if key is None:
            raise TableError(f'Line {number}: "{cells[0][:40]}" is not a measure; "waist girth" is one.')
        if len(cells) < 2 or not cells[1]:
            continue
        said = cells[2] if len(cells) > 2 else ""
        try:
            value = parse_length(f"{cells[1]} {said}".strip(), unit)
        except LengthError as wrong:
            raise TableError(f"Line {number}, {MEASURES[key]}: {wrong}") from None
        if value <= 0:
            raise TableError(f"Line {number}, {MEASURES[key]}: a measure is more than nothing.")
        found[key] = value
    if not found:
        raise TableError("No measures were found; each line is a measure, its value and its unit.")
    return found


def _plain(name: str) -> str:
    return " ".join(name.lower().replace("_", " ").split())
