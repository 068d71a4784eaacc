"""A document of several pages: headings, sentences, tables and drawings, broken where a page ends.

┌ Title ──────────┐   ┌─────────────────┐     a heading stays with what follows it, a table's head comes again
│ sentences       │   │ table, went on  │     on the next page, a drawing is never cut in two
│ drawing   table │   │                 │
└─ title · page 1 ┘   └─ title · page 2 ┘
"""

from __future__ import annotations

import io
from collections.abc import Callable, Iterable, Sequence
from typing import Any
from xml.sax.saxutils import escape

from reportlab.lib.colors import Color, black
from reportlab.lib.styles import ParagraphStyle
from reportlab.lib.utils import ImageReader
from reportlab.pdfgen.canvas import Canvas
from reportlab.platypus import CondPageBreak, Flowable, PageBreak, Paragraph, SimpleDocTemplate, Spacer, Table

from gentle_hem.core.dressed import DrawnDress
from gentle_hem.formats.inked import ALL_ROUND, POINTS_PER_MM, dress_height, ink_dress
from gentle_hem.formats.letters import BOLD, FONT, printed, register
from gentle_hem.formats.paper import Paper

BORDER = 15.0
"""What is left white round a page (mm)."""

GREY = Color(0.38, 0.35, 0.3)
HAIR = Color(0.75, 0.72, 0.66)

TITLE, HEAD, TEXT, SMALL = 22.0, 13.0, 9.5, 8.0
"""Sizes of letters (pt)."""

HEAD_NEEDS = 26.0
"""A heading begins no nearer to the foot of a page than this (mm)."""


def _style(size: float, font: str = FONT, colour: Color = black, after: float = 2.0) -> ParagraphStyle:
    return ParagraphStyle(
        f"{font} {size} {colour}", fontName=font, fontSize=size, leading=size * 1.35, textColor=colour,
        spaceAfter=after, splitLongWords=True,
    )  # fmt: skip


class Inked(Flowable):  # type: ignore[misc]
    """A drawing of a width and height in millimetres, drawn by ``ink`` with the canvas in millimetres."""

    def __init__(self, width: float, height: float, ink: Callable[[Canvas], None]) -> None:
        super().__init__()
        self.width, self.height = width * POINTS_PER_MM, height * POINTS_PER_MM
        self._ink = ink

    def wrap(self, *_: Any) -> tuple[float, float]:
        return self.width, self.height

    def draw(self) -> None:
        canvas: Canvas = self.canv
        canvas.saveState()
        canvas.scale(POINTS_PER_MM, POINTS_PER_MM)
        self._ink(canvas)
        canvas.restoreState()


class Pages:
    """A document as it is written, from the top down."""

    def __init__(self, title: str, under: Iterable[str], paper: Paper) -> None:
        register()
        self.title, self.paper = printed(title), paper
        self.width, self.height = (side - 2 * BORDER for side in paper.size)
        """The room inside the white border (mm)."""
        self._story: list[Flowable] = []
        self._write(title, _style(TITLE, BOLD, after=4.0))
        for line in under:
            self._write(line, _style(TEXT + 1, colour=GREY))
        self._story.append(Spacer(1, 4))

    def _write(self, text: str, style: ParagraphStyle) -> None:
        self._story.append(Paragraph(escape(printed(text)), style))

    def head(self, text: str, needs: float = HEAD_NEEDS) -> None:
        """A heading, on the next page where there is not so much room (mm) for it and what follows on this."""
        self._story.append(CondPageBreak(needs * POINTS_PER_MM))
        self._story.append(Spacer(1, 7))
        self._write(text, _style(HEAD, BOLD))

    def say(self, text: str, *, bold: bool = False, small: bool = False) -> None:
        """A paragraph."""
        self._write(text, _style(SMALL if small else TEXT, BOLD if bold else FONT))

    def draw(self, width: float, height: float, ink: Callable[[Canvas], None]) -> None:
        """A drawing (mm), whole on one page."""
        self._story.append(Inked(width, min(height, self.height - 30), ink))
        self._story.append(Spacer(1, 4))

    def pictures(self, files: Sequence[bytes], height: float) -> None:
        """PNG files beside each other, as high as that (mm)."""
        images = [ImageReader(io.BytesIO(file)) for file in files]

        def ink(canvas: Canvas) -> None:
            for k, image in enumerate(images):
                canvas.drawImage(
                    image, self.width * k / len(images), 0, self.width / len(images), height, mask="auto",
                    preserveAspectRatio=True, anchor="c",
                )  # fmt: skip

        self.draw(self.width, height, ink)

    def dress(self, dress: DrawnDress, height: float) -> None:
        """The dress from in front, from the side and from behind, as high as that at most (mm)."""
        high = dress_height(dress, ALL_ROUND, self.width, height)

        def ink(canvas: Canvas) -> None:
            canvas.setFont(FONT, 3)
            ink_dress(canvas, dress, ALL_ROUND, 0, 0, self.width, high)

        self.draw(self.width, high, ink)

    def rows(self, head: Sequence[str], rows: Iterable[Sequence[str]], shares: Sequence[float]) -> None:
        """A table; ``shares`` are how wide its columns are for each other. A row of one text is a heading in it."""
        plain, strong, quiet = _style(SMALL, after=0), _style(SMALL, BOLD, after=0), _style(SMALL, colour=GREY, after=0)
        cells: list[list[Any]] = [[Paragraph(escape(printed(text)), quiet) for text in head]] if any(head) else []
        first = len(cells)
        lines: list[tuple[Any, ...]] = [("LINEBELOW", (0, 0), (-1, -1), 0.3, HAIR)]
        for row in rows:
            if len(row) == 1:
                lines.append(("SPAN", (0, len(cells)), (-1, len(cells))))
            style = strong if len(row) == 1 else plain
            made = [Paragraph(escape(printed(text)), style) for text in row]
            cells.append(made + [""] * (len(shares) - len(made)))
        if len(cells) == first:
            return
        widths = [self.width * POINTS_PER_MM * share / sum(shares) for share in shares]
        table = Table(cells, widths, repeatRows=first, hAlign="LEFT")
        table.setStyle(
            [
                ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0),
                ("RIGHTPADDING", (0, 0), (-1, -1), 6), ("TOPPADDING", (0, 0), (-1, -1), 2),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 2), *lines,
            ]
        )  # fmt: skip
        self._story.append(table)
        self._story.append(Spacer(1, 4))

    def page(self) -> None:
        """What follows begins on a new page."""
        self._story.append(PageBreak())

    def done(self) -> bytes:
        """The document as a PDF."""
        file = io.BytesIO()
        border = BORDER * POINTS_PER_MM
        made = SimpleDocTemplate(
            file, pagesize=[side * POINTS_PER_MM for side in self.paper.size], leftMargin=border, rightMargin=border,
            topMargin=border, bottomMargin=border, title=self.title, invariant=1,
        )  # fmt: skip
        made.build(self._story, onFirstPage=self._foot, onLaterPages=self._foot)
        return file.getvalue()

    def _foot(self, canvas: Canvas, made: SimpleDocTemplate) -> None:
        canvas.setFont(FONT, SMALL)
        canvas.setFillColor(GREY)
        canvas.drawString(BORDER * POINTS_PER_MM, 8 * POINTS_PER_MM, f"{self.title} · page {made.page}")
