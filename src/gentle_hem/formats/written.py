"""A written sheet: a page of words, rows and lines to be filled in, for whoever is away from a screen."""

from __future__ import annotations

import io
from datetime import date

from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from gentle_hem.formats.letters import BOLD, FONT, printed, register
from gentle_hem.formats.paper import Paper

MARGIN = 48.0
TEXT = 12.0
LEADING = 1.35

MONTHS = (
    "January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November",
    "December",
)  # fmt: skip


def spelt(day: date) -> str:
    """A day in words, so that no country reads it as another."""
    return f"{day.day} {MONTHS[day.month - 1]} {day.year}"


class Sheet:
    """Pages written from the top down; what does not go on one goes on to the next."""

    def __init__(self, title: str, paper: Paper) -> None:
        register()
        self._file = io.BytesIO()
        self.width, self.height = (side * 72 / 25.4 for side in paper.size)
        self.canvas = Canvas(self._file, pagesize=(self.width, self.height), invariant=1)
        self.canvas.setTitle(printed(title))
        self.y = self.height - MARGIN

    @property
    def inner(self) -> float:
        """How wide it can be written (pt)."""
        return self.width - 2 * MARGIN

    def room(self, needed: float) -> None:
        """Room for so much more (pt), on a new page where there is none on this."""
        if self.y - needed < MARGIN:
            self.canvas.showPage()
            self.y = self.height - MARGIN

    def space(self, much: float) -> None:
        self.y -= much

    def say(self, text: str, font: str = FONT, size: float = TEXT, indent: float = 0.0) -> None:
        """A paragraph."""
        for part in simpleSplit(printed(text), font, size, self.inner - indent):
            self.room(size * LEADING)
            self.y -= size * LEADING
            self.canvas.setFont(font, size)
            self.canvas.drawString(MARGIN + indent, self.y, part)

    def row(self, left: str, right: str, font: str = FONT, size: float = TEXT + 1) -> None:
        """Words on the left, an amount on the right."""
        self.room(size * 1.6)
        self.y -= size * 1.6
        self.canvas.setFont(font, size)
        self.canvas.drawString(MARGIN, self.y, printed(left))
        self.canvas.drawRightString(self.width - MARGIN, self.y, printed(right))

    def rule(self) -> None:
        """A line across."""
        self.y -= 8
        self.canvas.setLineWidth(0.8)
        self.canvas.line(MARGIN, self.y, self.width - MARGIN, self.y)

    def blank(self, label: str, *columns: tuple[float, float], under: str = "", size: float = TEXT) -> None:
        """Words, and lines to be written on; each column is where it begins and ends, as shares of the width."""
        self.room(size * 2.6)
        self.y -= size * (2.15 if under else 1.9)
        self.canvas.setFont(FONT, size)
        self.canvas.drawString(MARGIN, self.y, printed(label))
        if under:
            self.canvas.setFont(FONT, size - 4)
            self.canvas.drawString(MARGIN, self.y - size + 3.5, printed(under))
        self.canvas.setLineWidth(0.6)
        for start, end in columns:
            self.canvas.line(MARGIN + start * self.inner, self.y - 3, MARGIN + end * self.inner, self.y - 3)

    def head(self, text: str) -> None:
        """A heading, kept together with what follows it."""
        self.room(90)
        self.space(10)
        self.say(text, BOLD, 15)

    def done(self) -> bytes:
        self.canvas.save()
        return self._file.getvalue()
