"""pieces.svg: true size, one group per piece, true arcs and curves, y turned down as SVG wants it."""

from __future__ import annotations

from math import pi
from xml.sax.saxutils import escape, quoteattr

from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Arc, Cubic, Line, Path, Placement, Point
from gentle_hem.formats.drawing import Ink, Words, label, lay_side_by_side, strokes

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


def number(value: float) -> str:
    """Seven decimals at most: a tenth of a nanometre is exact enough for paper."""
    text = f"{value:.7f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def _place(point: Point) -> str:
    return f"{number(point.x)} {number(-point.y)}"


def path_data(path: Path, closed: bool = False) -> str:
    """A path in SVG's words, y turned down. Arcs of more than half a turn are written in parts."""
    words = [f"M{_place(path.start)}"]
    for segment in path.segments:
        if isinstance(segment, Line):
            words.append(f"L{_place(segment.end)}")
        elif isinstance(segment, Cubic):
            words.append(f"C{_place(segment.first)} {_place(segment.second)} {_place(segment.end)}")
        else:
            words += _arc_words(segment)
    return "".join(words) + ("Z" if closed else "")


def _arc_words(arc: Arc) -> list[str]:
    count = 1 + int(abs(arc.sweep) / (pi * 0.75))
    side = 1 if arc.sweep < 0 else 0  # turning down the y axis turns arcs the other way round
    radius = number(arc.radius)
    words = []
    for i in range(1, count + 1):
        end = arc.point_at(arc.length * i / count)
        words.append(f"A{radius} {radius} 0 0 {side} {_place(end)}")
    return words


def _text(words: Words, placement: Placement) -> list[str]:
    at = placement.place(words.at)
    made = []
    for i, line in enumerate(words.lines):
        y = number(-(at.y - i * words.size * 1.4))
        made.append(f'    <text x="{number(at.x)}" y="{y}" font-size="{words.size:g}">{escape(line)}</text>')
    return made


def to_svg(garment: Garment, name: str = "", figure: str = "") -> str:
    """All pieces beside each other on one true-size sheet."""
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
        lines += _text(label(item.piece, name, figure), item.placement)
        lines.append("  </g>")
    lines.append("</svg>")
    return "\n".join(lines) + "\n"
