"""Sheets to be filled in by hand: for measuring, and for a fitting, away from a screen."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from gentle_hem.core.measuring import TABS
from gentle_hem.formats.letters import BOLD
from gentle_hem.formats.paper import Paper
from gentle_hem.formats.written import Sheet, spelt

LABEL = 0.5
"""The words of a line take so much of the width; what is written, the rest."""


def to_measuring_sheet(person: str, wanted: Sequence[str], unit: str, paper: Paper = Paper.A4) -> bytes:
    """Every measure in the order a tape goes round a person, how it is taken, and room for two readings.

    ``wanted`` are the keys of the measures that are still to be taken for her dresses; they are marked.
    """
    sheet = Sheet("Measuring sheet", paper)
    sheet.say(f"Measures of {person}" if person else "Measures", BOLD, 20)
    sheet.blank("Taken on", (0.15, 0.5))
    sheet.say(
        f"Lengths in {unit}. Each is read twice, the second time without looking at the first; where the two differ, a "
        "third time. The tape lies close and does not draw in."
    )
    if wanted:
        sheet.say("★ is asked for by her dresses.", BOLD)
    for title, takings in TABS.items():
        sheet.head(title)
        for one in takings:
            star = "★ " if one.key in wanted else ""
            sheet.blank(f"{star}{one.label}", (0.62, 0.78), (0.82, 0.98), under=one.how)
    return sheet.done()


@dataclass(frozen=True, slots=True)
class Appointment:
    """A fitting to come: whose, of what, when; what was seen before, and what is done until then."""

    title: str
    person: str
    when: str
    due_on: date | None
    before: Sequence[str]
    """What was seen and done at the fittings before."""
    to_do: Sequence[str]
    """What is still to be done on it before it can be fitted."""


LOOKED_AT = (
    "Neckline: lies close, does not gape or cut in", "Shoulders: tip, slope, length", "Armholes: depth, width, gape",
    "Bust: darts point to it, no folds", "Back: folds across or down, room to move", "Waist: level, where it should be",
    "Hip and seat: no folds, swings level", "Closing: lies flat over its whole length",
    "Hem: level, clear of the floor with the shoes on", "Sits, walks, raises her arms",
)  # fmt: skip
"""What is looked at, from the top down (trade 13)."""


def to_appointment_sheet(made: Appointment, paper: Paper = Paper.A4) -> bytes:
    """What is looked at when, with room to write what is seen, where, and how much."""
    sheet = Sheet(f"{made.title}, fitting", paper)
    sheet.say(f"{made.title}: fitting", BOLD, 20)
    sheet.say(f"{made.person}; {made.when}" + (f"; due on {spelt(made.due_on)}" if made.due_on else ""), size=14)
    sheet.say("She brings the shoes and what she wears under it. Pins are counted in and out.")
    if made.to_do:
        sheet.head("Before she comes")
        for one in made.to_do:
            sheet.say(f"□ {one}", indent=8)
    if made.before:
        sheet.head("Seen before")
        for one in made.before:
            sheet.say(f"– {one}", indent=8)
    sheet.head("Looked at, from the top down")
    for one in LOOKED_AT:
        sheet.blank(f"□ {one}", (0.62, 0.84), (0.88, 1.0))
    sheet.say("First line: what is seen, and on which side. Second: how much.", size=10)
    sheet.head("What she wishes")
    for _ in range(3):
        sheet.blank("", (0.0, 1.0))
    return sheet.done()
