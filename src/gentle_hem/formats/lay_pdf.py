"""The lay on paper: each cloth with its pieces numbered, and from where to measure every one, to lie beside the cloth.

┌ Cloth: Tide crepe ── 3.60 m ─────────────┐
│ selvedge ┌────────────┐  1  gown front … │
│          │ 1   2   3  │  2  …            │
│          └────────────┘                  │
└──────────────────────────────────────────┘
"""

from __future__ import annotations

import io
from collections.abc import Sequence

from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from gentle_hem.core.cloth.bought import LaidCloth
from gentle_hem.core.cloth.lay import Lay, Layers
from gentle_hem.core.units import Tape, format_length
from gentle_hem.formats.letters import BOLD, FONT, printed, register
from gentle_hem.formats.paper import MARGIN, Paper

POINTS_PER_MM = 72 / 25.4
LINE = 5.0
PICTURE = 105.0
"""How high a picture is at most (mm)."""


NAMES = 66.0
"""How much room a piece's name has (mm)."""


def to_lay_pdf(title: str, cloths: Sequence[LaidCloth], tape: Tape, paper: Paper = Paper.A4) -> bytes:
    """One page or more for each cloth, upright on its side: the picture, then every piece with where it begins."""
    register()
    file = io.BytesIO()
    width, height = paper.size[1], paper.size[0]
    canvas = Canvas(file, pagesize=(width * POINTS_PER_MM, height * POINTS_PER_MM), invariant=1)
    canvas.setTitle(printed(f"{title}, cloth"))
    for one in cloths:
        _cloth(canvas, title, one, tape, width, height)
    canvas.save()
    return file.getvalue()


def _cloth(canvas: Canvas, title: str, one: LaidCloth, tape: Tape, width: float, height: float) -> None:
    canvas.scale(POINTS_PER_MM, POINTS_PER_MM)
    lay = one.lay
    canvas.setFont(BOLD, 6)
    canvas.drawString(MARGIN, height - 18, printed(f"{title}: {one.cloth.name or lay.role.value}"))
    canvas.setFont(FONT, 4)
    usable = format_length(lay.width, tape)
    canvas.drawString(
        MARGIN, height - 25, printed(f"{one.bought.text} of a cloth with {usable} to use between the selvedges")
    )
    canvas.drawString(MARGIN, height - 31, printed(f"{one.bought.working}. {_how(lay, tape)}"))
    scale = min((width - 2 * MARGIN) / max(lay.length, 1), PICTURE / lay.width)
    foot = height - 38 - lay.width * scale
    _picture(canvas, lay, MARGIN, foot, scale)
    y = foot - 8
    for text in (*_said(lay, tape), ""):
        if text:
            canvas.drawString(MARGIN, y, printed(text))
            y -= LINE
    columns, column = 2, 0
    start = y
    for placed in lay.placed:
        if y < MARGIN + LINE:
            column, y = column + 1, start
            if column == columns:
                canvas.showPage()
                canvas.scale(POINTS_PER_MM, POINTS_PER_MM)
                canvas.setFont(FONT, 4)
                column, start = 0, height - 20
                y = start
        x = MARGIN + column * (width - 2 * MARGIN) / columns
        canvas.setFont(BOLD, 4)
        canvas.drawString(x, y, str(placed.number))
        name = printed(placed.name)
        canvas.setFont(FONT, min(4.0, 4.0 * NAMES / max(stringWidth(name, FONT, 4), 1)))
        canvas.drawString(x + 9, y, name)
        canvas.setFont(FONT, 4)
        along, across = format_length(placed.from_cut_end, tape), format_length(placed.from_selvedge, tape)
        canvas.drawRightString(x + 100, y, along)
        canvas.drawRightString(x + 124, y, across)
        y -= LINE
    canvas.showPage()


def _how(lay: Lay, tape: Tape) -> str:
    if lay.folded is None:
        return "Opened flat; from the cut end (left), then from the selvedge (below)."
    return f"Folded, {format_length(lay.folded, tape)} double; from the cut end (left), then from the fold (below)."


def _said(lay: Lay, tape: Tape) -> list[str]:
    """What does not go on the cloth, and what is joined."""
    said = [f"NOT ON THIS CLOTH: {one.name}, {format_length(one.across, tape)} across" for one in lay.too_wide]
    said += [f"{one.name}: cut in {one.widths} widths and joined" for one in lay.joined]
    said += [f"LIES WRONG: {fault.name}{f' over {fault.other}' if fault.other else ''}" for fault in lay.faults]
    return said


def _picture(canvas: Canvas, lay: Lay, left: float, foot: float, scale: float) -> None:
    """The cloth, its cut end on the left and its fold or selvedge below, and what lies on it."""
    canvas.setLineWidth(0.3)
    end = lay.length if lay.opened_from is None else lay.opened_from
    if lay.folded is not None:
        canvas.setDash([2, 1.5])
        canvas.rect(left, foot + (lay.width - lay.folded) * scale, end * scale, lay.folded * scale)
        canvas.setDash([])
        canvas.setLineWidth(0.8)
        canvas.line(left, foot, left + end * scale, foot)
        canvas.setLineWidth(0.3)
    canvas.rect(left, foot, lay.length * scale, lay.width * scale)
    for one in lay.placed:
        path = canvas.beginPath()
        for ring in (one.outline.exterior, *one.outline.interiors):
            places = [(left + y * scale, foot + x * scale) for x, y in ring.simplify(0.05 / scale).coords]
            path.moveTo(*places[0])
            for place in places[1:]:
                path.lineTo(*place)
            path.close()
        shade = {Layers.FLAT: 1.0, Layers.DOUBLE: 0.93, Layers.FOLD: 0.87}[one.layers]
        canvas.setFillGray(shade)
        canvas.drawPath(path, stroke=1, fill=1, fillMode=0)
        canvas.setFillGray(0)
        heart = one.outline.representative_point()
        canvas.setFont(BOLD, 4)
        canvas.drawCentredString(left + heart.y * scale, foot + heart.x * scale - 1.4, str(one.number))
    canvas.setFont(FONT, 4)
