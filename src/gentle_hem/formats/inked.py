"""What is drawn on paper with a pen of reportlab's: a path, and the dress from as many sides as are asked for."""

from __future__ import annotations

from collections.abc import Sequence

from reportlab.pdfgen.canvas import Canvas

from gentle_hem.core.dressed import DrawnDress, Seen
from gentle_hem.core.dressed.inks import Drawn as Inked
from gentle_hem.core.geometry import Arc, Line, Path
from gentle_hem.core.geometry.segment import arc_as_cubics
from gentle_hem.formats.dress import reach

POINTS_PER_MM = 72 / 25.4


def ink_path(canvas: Canvas, path: Path, closed: bool = False) -> None:
    """A path with the pen as it is."""
    drawn = canvas.beginPath()
    drawn.moveTo(path.start.x, path.start.y)
    for segment in path.segments:
        if isinstance(segment, Line):
            drawn.lineTo(segment.end.x, segment.end.y)
            continue
        for cubic in arc_as_cubics(segment) if isinstance(segment, Arc) else [segment]:
            drawn.curveTo(*cubic.first, *cubic.second, *cubic.end)
    if closed:
        drawn.close()
    canvas.drawPath(drawn, stroke=1, fill=0)


ALL_ROUND = (Seen.FRONT, Seen.SIDE, Seen.BACK)
BOTH_SIDES = (Seen.FRONT, Seen.BACK)
APART, FOOT = 4.0, 5.0
"""Room between two sides of a dress, and below them for what they are called (mm)."""

FILLS = {Inked.FORM: 0.88, Inked.INSIDE: 0.82, Inked.CLOTH: 1.0, Inked.BUTTON: 0.0}
"""How light what is filled is, from black to white."""


def dress_height(dress: DrawnDress, sides: Sequence[Seen], width: float, height: float) -> float:
    """How high a dress is drawn in a place of a width and height, what stands below it included (mm)."""
    return FOOT + _fitted(dress, sides, width, height)[0] * dress.top


def _fitted(
    dress: DrawnDress, sides: Sequence[Seen], width: float, height: float
) -> tuple[float, dict[Seen, tuple[float, float]]]:
    """How much smaller than life a dress is drawn, and how far each side of it reaches across (mm of life)."""
    reaches = {seen: reach(dress.views[seen]) for seen in sides}
    wide = sum(high - low for low, high in reaches.values())
    return min((width - APART * (len(sides) - 1)) / wide, (height - FOOT) / dress.top), reaches


def ink_dress(
    canvas: Canvas, dress: DrawnDress, sides: Sequence[Seen], left: float, foot: float, width: float, height: float
) -> None:
    """The dress from some sides, as large as a place on the page allows; the canvas is in millimetres."""
    scale, reaches = _fitted(dress, sides, width, height)
    views = {seen: [ink for ink in dress.views[seen] if len(ink.spots) > 1] for seen in sides}
    for seen, inks in views.items():
        low, high = reaches[seen]
        for ink in inks:
            path = canvas.beginPath()
            for k, (x, y) in enumerate(ink.spots):
                (path.lineTo if k else path.moveTo)(left + (x - low) * scale, foot + FOOT + y * scale)
            if ink.closed:
                path.close()
            fill = FILLS.get(ink.drawn) if ink.closed else None
            canvas.setFillGray(1.0 if fill is None else fill)
            canvas.setLineWidth(0.14 if ink.drawn in (Inked.SEAM, Inked.FOLD, Inked.DART) else 0.25)
            canvas.drawPath(path, stroke=0 if ink.drawn is Inked.FORM else 1, fill=0 if fill is None else 1)
        canvas.setFillGray(0)
        canvas.drawCentredString(left + (high - low) * scale / 2, foot, seen.value)
        left += (high - low) * scale + APART
