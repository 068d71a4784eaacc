"""The calendar as an iCalendar file (RFC 5545): times as the clock on the wall shows them, bound to no zone."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, date, datetime

from icalendar import Calendar, Event


@dataclass(frozen=True, slots=True)
class Entry:
    """Something in the calendar: from when to when, or on which whole days (the last not counted)."""

    uid: str
    text: str
    start: datetime | date
    end: datetime | date


def to_ics(entries: Iterable[Entry], made: datetime) -> bytes:
    """The entries as a calendar; an entry keeps its name, so that reading it again moves it rather than doubles it."""
    book = Calendar()
    book.add("prodid", "-//Gentle Hem//workroom//EN")
    book.add("version", "2.0")
    for one in entries:
        event = Event()
        event.add("uid", f"{one.uid}@gentle-hem".replace(" ", "-"))
        event.add("dtstamp", made.astimezone(UTC))
        event.add("dtstart", one.start)
        event.add("dtend", one.end)
        event.add("summary", one.text)
        book.add_component(event)
    return bytes(book.to_ical())
