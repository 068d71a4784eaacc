"""The bench sheet: the making plan on paper, to be read from a metre away and ticked with a pencil.

┌ Ball gown · sides first · about 11 h ┐
│ □  1  Cut from the outer cloth  1 h  │
│       14 pieces, …                   │
└──────────────────────────────────────┘
"""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass

from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from gentle_hem.formats.letters import BOLD, FONT, printed, register
from gentle_hem.formats.paper import Paper

MARGIN = 42.0
TITLE, HEAD, TEXT = 22.0, 17.0, 12.5
"""Sizes of letters (pt); what is done reads from a metre away at 17."""

BOX = 14.0
INDENT = 66.0


@dataclass(frozen=True, slots=True)
class BenchLine:
    """One operation as it is printed."""

    number: int
    title: str
    time: str
    says: Sequence[str]
    cautions: Sequence[str]
    done: bool


def to_bench_sheet(
    title: str, under: str, lines: Sequence[BenchLine], foot: Sequence[str], paper: Paper = Paper.A4
) -> bytes:
    """The plan as a PDF, operation by operation, none broken over a page; what is done already is ticked."""
    register()
    file = io.BytesIO()
    width, height = (side * 72 / 25.4 for side in paper.size)
    canvas = Canvas(file, pagesize=(width, height), invariant=1)
    canvas.setTitle(printed(f"{title}, bench sheet"))
    page = _Page(canvas, width, height)
    page.text(title, BOLD, TITLE, MARGIN)
    page.text(under, FONT, TEXT, MARGIN)
    for line in lines:
        page.operation(line)
    for said in foot:
        page.text(said, FONT, TEXT, MARGIN)
    canvas.save()
    return file.getvalue()


class _Page:
    """Where the pen stands on the page."""

    def __init__(self, canvas: Canvas, width: float, height: float) -> None:
        self.canvas, self.width, self.height = canvas, width, height
        self.y = height - MARGIN

    def _room(self, needed: float) -> None:
        if self.y - needed < MARGIN:
            self.canvas.showPage()
            self.y = self.height - MARGIN

    def _split(self, text: str, font: str, size: float, left: float, right: float = 0.0) -> list[str]:
        return simpleSplit(printed(text), font, size, self.width - left - MARGIN - right)  # type: ignore[no-any-return]

    def text(self, text: str, font: str, size: float, left: float) -> None:
        """A paragraph."""
        for part in self._split(text, font, size, left):
            self._room(size * 1.3)
            self.y -= size * 1.3
            self.canvas.setFont(font, size)
            self.canvas.drawString(left, self.y, part)

    def operation(self, line: BenchLine) -> None:
        """An operation with its box to be ticked."""
        head = self._split(f"{line.number}  {line.title}", BOLD, HEAD, MARGIN + BOX + 10, 80)
        says = [part for said in line.says for part in self._split(said, FONT, TEXT, INDENT)]
        warned = [part for said in line.cautions for part in self._split(f"⚠ {said}", BOLD, TEXT, INDENT)]
        self._room(min(len(head) * HEAD * 1.25 + (len(says) + len(warned)) * TEXT * 1.3 + 14, self.height - 2 * MARGIN))
        self.y -= 10 + HEAD
        canvas = self.canvas
        canvas.setLineWidth(1.2)
        canvas.rect(MARGIN, self.y - 1, BOX, BOX)
        if line.done:
            canvas.lines(
                [(MARGIN + 3, self.y + 6, MARGIN + 6, self.y + 2), (MARGIN + 6, self.y + 2, MARGIN + 12, self.y + 11)]
            )
        canvas.setFont(FONT, TEXT)
        canvas.drawRightString(self.width - MARGIN, self.y, printed(line.time))
        for k, part in enumerate(head):
            self.y -= HEAD * 1.25 if k else 0
            canvas.setFont(BOLD, HEAD)
            canvas.drawString(MARGIN + BOX + 10, self.y, part)
        for font, parts in ((BOLD, warned), (FONT, says)):
            for part in parts:
                self._room(TEXT * 1.3)
                self.y -= TEXT * 1.3
                canvas.setFont(font, TEXT)
                canvas.drawString(INDENT, self.y, part)
