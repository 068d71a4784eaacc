"""The quote: one page that says what is made, for whom, by when, and what it comes to."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from gentle_hem.formats.letters import BOLD
from gentle_hem.formats.paper import Paper
from gentle_hem.formats.written import Sheet, spelt


@dataclass(frozen=True, slots=True)
class Quote:
    """What a quote says; amounts are written already. ``open`` names what has no price yet and is not in it."""

    title: str
    person: str
    occasion: str
    due_on: date | None
    on_day: date
    sums: Sequence[tuple[str, str]]
    total: str
    open: Sequence[str]


def to_quote(quote: Quote, paper: Paper = Paper.A4) -> bytes:
    """A plain quote as a PDF."""
    sheet = Sheet(f"{quote.title}, quote", paper)
    sheet.say(quote.title, BOLD, 24)
    sheet.say(f"for {quote.person}", size=14)
    if quote.occasion:
        sheet.say(quote.occasion, size=14)
    if quote.due_on:
        sheet.say(f"to be ready on {spelt(quote.due_on)}", size=14)
    sheet.space(18)
    for what, amount in quote.sums:
        sheet.row(what, amount)
    sheet.rule()
    sheet.row("Together", quote.total, BOLD)
    sheet.space(18)
    if quote.open:
        sheet.say(f"Not in it yet: {', '.join(quote.open)}.", BOLD)
    sheet.say(f"Quoted on {spelt(quote.on_day)}.")
    return sheet.done()
