"""pieces.svg: true size, one group per piece, true arcs and curves, y turned down as SVG wants it."""

from __future__ import annotations

from xml.sax.saxutils import escape, quoteattr

from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry.path_text import number, path_data
from gentle_hem.core.units import Said, Unit
from gentle_hem.formats.drawing import Ink, Words, placed
from gentle_hem.formats.labels import Sheet, Tag, sheet

CLASSES = {
    Ink.CUT: "cut-line",
    Ink.SEAM: "seam-line",
    Ink.FOLD: "fold",
    Ink.GRAIN: "grain",
    Ink.NOTCH: "notch",
    Ink.INTERNAL: "internal",
    Ink.DRILL: "drill",
}

STYLE = """
    path { fill: none; stroke: #222; stroke-width: 0.4; }
    .cut-line { stroke-width: 0.7; }
    .seam-line { stroke-dasharray: 4 2; }
    .fold { stroke-dasharray: 8 2 2 2; }
    text { font-family: "DejaVu Sans", sans-serif; fill: #222; }
"""


def _text(words: Words) -> list[str]:
    x, y = number(words.at.x), number(-words.at.y)
    turned = f' transform="rotate({number(-words.angle)} {x} {y})"' if words.angle else ""
    return [
        f'    <text x="{x}" y="{number(-words.at.y + i * words.step)}" font-size="{words.size:g}"{turned}>'
        f"{escape(line)}</text>"
        for i, line in enumerate(words.lines)
    ]


def to_svg(garment: Garment, tag: Tag | None = None, unit: Said = Unit.CM, laid: Sheet | None = None) -> str:
    """All pieces beside each other on one true-size sheet; ``laid`` is that sheet where it is worked out already."""
    tag = tag or Tag()
    drawn, width, height = laid or sheet(garment, tag, unit)
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{number(width)}mm" height="{number(height)}mm" '
        f'viewBox="0 {number(-height)} {number(width)} {number(height)}">',
        f"  <title>{escape(tag.garment or 'Pattern pieces')}</title>",
        f"  <style>{STYLE}  </style>",
    ]
    for item in drawn:
        lines.append(f"  <g id={quoteattr(item.piece.name)}>")
        for stroke in item.strokes:
            data = path_data(stroke.path.placed(item.placement), stroke.closed)
            lines.append(f'    <path class="{CLASSES[stroke.ink]}" d="{data}"/>')
        for words in item.words:
            lines += _text(placed(words, item.placement))
        lines.append("  </g>")
    lines.append("</svg>")
    return "\n".join(lines) + "\n"
