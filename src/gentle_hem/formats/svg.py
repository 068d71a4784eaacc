"""pieces.svg: true size, one group per piece, true arcs and curves, y turned down as SVG wants it."""

from __future__ import annotations

from xml.sax.saxutils import escape, quoteattr

from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Placement
from gentle_hem.core.geometry.path_text import number, path_data
from gentle_hem.core.units import Unit
from gentle_hem.formats.drawing import Ink, Words, label, lay_side_by_side, not_ready, strokes

CLASSES = {
    Ink.CUT: "cut-line",
    Ink.SEAM: "seam-line",
    Ink.FOLD: "fold",
    Ink.GRAIN: "grain",
    Ink.NOTCH: "notch",
    Ink.INTERNAL: "internal",
}

STYLE = """
    path { fill: none; stroke: #222; stroke-width: 0.4; }
    .cut-line { stroke-width: 0.7; }
    .seam-line { stroke-dasharray: 4 2; }
    .fold { stroke-dasharray: 8 2 2 2; }
    text { font-family: sans-serif; fill: #222; }
"""


def _text(words: Words, placement: Placement) -> list[str]:
    at = placement.place(words.at)
    made = []
    for i, line in enumerate(words.lines):
        y = number(-(at.y - i * words.size * 1.4))
        made.append(f'    <text x="{number(at.x)}" y="{y}" font-size="{words.size:g}">{escape(line)}</text>')
    return made


def to_svg(garment: Garment, name: str = "", figure: str = "", unit: Unit = Unit.CM) -> str:
    """All pieces beside each other on one true-size sheet."""
    stops = not_ready(garment, unit)
    laid, width, height = lay_side_by_side(garment.pieces)
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{number(width)}mm" height="{number(height)}mm" '
        f'viewBox="0 {number(-height)} {number(width)} {number(height)}">',
        f"  <title>{escape(name or 'Pattern pieces')}</title>",
        f"  <style>{STYLE}  </style>",
    ]
    for item in laid:
        lines.append(f"  <g id={quoteattr(item.piece.name)}>")
        for stroke in strokes(item.piece):
            data = path_data(stroke.path.placed(item.placement), stroke.closed)
            lines.append(f'    <path class="{CLASSES[stroke.ink]}" d="{data}"/>')
        lines += _text(label(item.piece, name, figure, stops), item.placement)
        lines.append("  </g>")
    lines.append("</svg>")
    return "\n".join(lines) + "\n"
