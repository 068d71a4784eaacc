"""Which letters the pattern's own typeface can print, and how a line of mixed scripts is written down.

left to right      printed as they stand
Hebrew             printed from the right, run by run
Arabic and others  need joined or stacked letters, which this typeface is not asked for: said, and shown as ▯
"""

from __future__ import annotations

import unicodedata
from functools import cache
from pathlib import Path

FONT, BOLD = "DejaVu", "DejaVu-Bold"
FONT_FILES = Path(__file__).parent / "fonts"
MISSING = "▯"


def register() -> None:
    """Make the typefaces known to reportlab; they are embedded in every file that uses them."""
    from reportlab.pdfbase import pdfmetrics  # here and below: it is slow to read in
    from reportlab.pdfbase.ttfonts import TTFont

    if FONT not in pdfmetrics.getRegisteredFontNames():
        pdfmetrics.registerFont(TTFont(FONT, FONT_FILES / "DejaVuSans.ttf"))
        pdfmetrics.registerFont(TTFont(BOLD, FONT_FILES / "DejaVuSans-Bold.ttf"))


def bold_width(text: str, size: float) -> float:
    """How wide a text is in the bold typeface, in the measure that its size is in."""
    from reportlab.pdfbase.pdfmetrics import stringWidth

    return float(stringWidth(text, BOLD, size))


@cache
def _drawn(font: str) -> frozenset[int]:
    from reportlab.pdfbase import pdfmetrics

    register()
    return frozenset(pdfmetrics.getFont(font).face.charToGlyph)


def _is_printed(letter: str) -> bool:
    kind = unicodedata.bidirectional(letter)
    return kind not in ("AL", "AN") and all(ord(letter) in _drawn(font) for font in (FONT, BOLD))


def unprintable(*texts: str) -> str:
    """The letters of some texts that cannot be printed, each once."""
    return "".join(dict.fromkeys(letter for text in texts for letter in text if not _is_printed(letter)))


def printed(text: str) -> str:
    """A text as it is set: what cannot be printed as ▯, and words that run from the right turned round."""
    letters = [letter if _is_printed(letter) else MISSING for letter in text]
    made: list[str] = []
    run: list[str] = []
    for letter in letters:
        if unicodedata.bidirectional(letter) == "R" or (run and letter == " "):
            run.append(letter)
            continue
        made += _turned(run)
        run = []
        made.append(letter)
    return "".join(made + _turned(run))


def _turned(run: list[str]) -> list[str]:
    """A run from the right, written from the left; the space after it stays after it."""
    after = []
    while run and run[-1] == " ":
        after.append(run.pop())
    return run[::-1] + after
