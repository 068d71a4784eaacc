"""pieces.dxf: one block per piece, true size in millimetres, layers as in ASTM D6673.

Straight lines and arcs become polylines with bulges, which are exact; cubics become short chords.
"""

from __future__ import annotations

import io
from math import ceil, pi, tan

from ezdxf import units
from ezdxf.filemanagement import new
from ezdxf.layouts.blocklayout import BlockLayout

from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Arc, Line, Path, Point
from gentle_hem.core.pattern import Piece
from gentle_hem.core.units import Unit
from gentle_hem.formats.drawing import Ink, Words, label, lay_side_by_side, not_ready, strokes

CURVE_TOLERANCE = 0.01


def to_dxf(garment: Garment, name: str = "", figure: str = "", unit: Unit = Unit.CM) -> str:
    """The drawing as DXF text."""
    drawing = new("R2010", setup=False)
    drawing.units = units.MM
    for ink in Ink:
        drawing.layers.add(str(ink.value))
    sheet = drawing.modelspace()
    stops = not_ready(garment, unit)
    laid, _, _ = lay_side_by_side(garment.pieces)
    for item in laid:
        block = drawing.blocks.new(item.piece.name)
        _draw(item.piece, block, label(item.piece, name, figure, stops))
        move = item.placement.place(Point(0, 0))
        sheet.add_blockref(item.piece.name, (move.x, move.y))
    text = io.StringIO()
    drawing.write(text)
    return text.getvalue()


def _draw(piece: Piece, block: BlockLayout, words: Words) -> None:
    for stroke in strokes(piece):
        layer = {"layer": str(stroke.ink.value)}
        if stroke.ink is Ink.NOTCH:
            block.add_point(_xy(stroke.path.start), dxfattribs=layer)
            continue
        block.add_lwpolyline(vertices(stroke.path, stroke.closed), format="xyb", close=stroke.closed, dxfattribs=layer)
    for i, line in enumerate(words.lines):
        text = block.add_text(line, height=words.size, dxfattribs={"layer": str(Ink.TEXT.value)})
        text.set_placement((words.at.x, words.at.y - i * words.size * 1.4))


def _xy(point: Point) -> tuple[float, float]:
    return point.x, point.y


def vertices(path: Path, closed: bool) -> list[tuple[float, float, float]]:
    """A path as polyline vertices (x, y, bulge); the bulge is the tangent of a quarter of the arc's sweep."""
    made: list[tuple[float, float, float]] = []
    for segment in path.segments:
        if isinstance(segment, Line):
            made.append((*_xy(segment.start), 0.0))
        elif isinstance(segment, Arc):
            count = max(1, ceil(abs(segment.sweep) / (pi * 0.75)))
            for i in range(count):
                start = segment.point_at(segment.length * i / count)
                made.append((*_xy(start), tan(segment.sweep / count / 4)))
        else:
            here = [segment.start, *segment.flatten(CURVE_TOLERANCE)]
            made += [(*_xy(point), 0.0) for point in here[:-1]]
    return made if closed else [*made, (*_xy(path.end), 0.0)]
