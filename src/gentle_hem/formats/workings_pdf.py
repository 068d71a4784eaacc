"""workings.pdf: the arithmetic of a dress on paper, to be checked with a pencil.

draft with its letters      1  Down from the shoulder tip to the armhole level, 21.5 cm.   C
  A┌──B                     2  …
   │  │                     every number: its sum, its result, the rule it goes by
  C└──D                     the same figure by the other schools, length by length
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from reportlab.pdfgen.canvas import Canvas

from gentle_hem.core.compare import Comparison, compare_schools
from gentle_hem.core.drafting import FRONT, LaidOpen, Step, laid_open
from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Placement, Point
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.start import bodice_choices
from gentle_hem.core.units import Said, format_length, tape
from gentle_hem.core.workings import Working, speak
from gentle_hem.formats.inked import ink_path
from gentle_hem.formats.labels import Tag
from gentle_hem.formats.letters import BOLD, FONT
from gentle_hem.formats.pages import Pages
from gentle_hem.formats.paper import Paper

DEEPEST = 150.0
"""How high a draft is drawn at most (mm)."""

LETTER = 2.6
"""How large its letters are (mm)."""

NOTHING = 0.05
"""A dart is none that takes in no more than this (mm)."""

EDGE = 8.0
"""Room round the draft for letters that stand outside it (mm)."""


def to_workings(recipe: Recipe, garment: Garment, tag: Tag, paper: Paper) -> bytes:
    """The draft with its letters, every step with its number, every sum, and the schools compared."""
    unit = tape(recipe.unit)
    pages = Pages(f"{tag.garment or 'Dress'}: workings", tag.lines, paper)
    for reason in tag.stops:
        pages.say(f"Not ready to cut: {reason}", bold=True)
    if garment.draft:
        _draft(pages, recipe, garment.draft, unit)
    pages.head("Every number")
    pages.rows(("", "worked out", ""), _sums(garment.workings, unit), (26, 56, 14))
    others = list(_schools(recipe, garment))
    if others:
        _compared(pages, others, unit)
    return pages.done()


def _draft(pages: Pages, recipe: Recipe, steps: Sequence[Step], unit: Said) -> None:
    laid = laid_open(steps)
    scale = min((pages.width - 2 * EDGE) / laid.width, (DEEPEST - 2 * EDGE) / laid.depth)
    pages.head("The draft")
    pages.say(
        f"{recipe.bodice.title}: the front on the left, the back turned over on the right, at 1 : {1 / scale:.1f}. The "
        "letters are those of the steps."
    )
    pages.draw(pages.width, laid.depth * scale + 2 * EDGE, lambda canvas: _ink_draft(canvas, steps, laid, scale))
    numbered = [
        (str(k), f"{'Front' if step.half == FRONT else 'Back'}: {step.text(unit)}", ", ".join(step.points))
        for k, step in enumerate(steps, 1)
    ]
    pages.rows(("step", "", "finds"), numbered, (8, 74, 14))


def _ink_draft(canvas: Canvas, steps: Sequence[Step], laid: LaidOpen, scale: float) -> None:
    """The lines of a draft, and its letters where the steps find their places; each letter once."""
    foot = EDGE + laid.depth * scale
    put = {
        half: where.then(Placement.scale(scale)).then(Placement.shift(Point(EDGE, foot)))
        for half, where in laid.put.items()
    }
    canvas.setLineWidth(0.2)
    for step in steps:
        for path in step.strokes:
            ink_path(canvas, path.placed(put[step.half]))
    found: dict[tuple[int, int], list[str]] = {}
    for step in steps:
        for name, place in step.points.items():
            spot = put[step.half].place(place)
            found.setdefault((round(spot.x * 10), round(spot.y * 10)), []).append(name)
    for (x, y), names in found.items():
        canvas.circle(x / 10, y / 10, 0.5, stroke=0, fill=1)
        canvas.setFont(BOLD, LETTER)
        canvas.drawString(x / 10 + 0.9, y / 10 + 0.9, " ".join(dict.fromkeys(names)))
    canvas.setFont(FONT, LETTER)


def _sums(workings: Sequence[Working], unit: Said) -> Iterator[Sequence[str]]:
    """Every working as a row, under the heading of what it is about."""
    topic = ""
    for working in workings:
        if working.topic != topic:
            topic = working.topic
            yield (topic,) if topic else ("The dress",)
        result = speak(working.value, unit, working.kind)
        line = working.line(unit)
        said = [working.formula, *([line] if line != result else [])]
        said += [f"({working.rule})"] if working.rule else []
        said += [f"rounded: {working.rounding}"] if working.rounding else []
        said += [f"by the {rule} it would be {speak(value, unit, working.kind)}" for rule, value in working.instead]
        yield working.label, "; ".join(dict.fromkeys(text for text in said if text)), result


def _schools(recipe: Recipe, garment: Garment) -> Iterator[Comparison]:
    """The draft beside that of every other school that can draw her."""
    for _, other in bodice_choices(recipe, garment):
        if other is recipe.bodice:
            continue
        try:
            yield compare_schools(recipe, other)
        except ValueError:
            continue  # this school has no draft of her to be compared with: it is no row of the table


def _compared(pages: Pages, others: Sequence[Comparison], unit: Said) -> None:
    mine = others[0].mine
    labels = list(dict.fromkeys(row.label for one in others for row in one.rows))
    ours = {row.label: row.mine for one in others for row in one.rows}
    theirs = [{row.label: row.theirs for row in one.rows} for one in others]

    def said(length: float) -> str:
        return format_length(length, unit) if length > NOTHING else "none"

    rows = [
        (label, said(ours[label]), *(said(lengths.get(label, 0.0)) for lengths in theirs))
        for label in labels
    ]  # fmt: skip
    pages.head("Other schools for the same figure", needs=20 + 6 * len(rows))
    heads = ("", mine.title, *(one.theirs.title for one in others))
    pages.rows(heads, rows, (24, *(18 for _ in heads[1:])))
