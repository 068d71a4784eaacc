"""pieces.dxf: one block per piece, true size in millimetres, layers as in ASTM D6673.

Straight lines and arcs become polylines with bulges, which are exact; cubics become short chords.
"""

from __future__ import annotations

import io
import logging
from math import ceil, pi, radians, tan

from ezdxf import units
from ezdxf.filemanagement import new
from ezdxf.layouts.blocklayout import BlockLayout
from shapely import LinearRing
from shapely import Point as Spot

from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Arc, Line, Path, Point
from gentle_hem.core.marking import drill_points
from gentle_hem.core.units import Said, Unit
from gentle_hem.formats.drawing import Ink
from gentle_hem.formats.labels import Drawn, Sheet, Tag, sheet

logging.getLogger("ezdxf").setLevel(logging.ERROR)  # it warns of every R12 file that this says no units

CURVE_TOLERANCE = 0.01


def to_dxf(garment: Garment, tag: Tag | None = None, unit: Said = Unit.CM, laid: Sheet | None = None) -> str:
    """The drawing as DXF text; ``laid`` is its sheet where it is worked out already."""
    drawing = new("R2010", setup=False)
    drawing.units = units.MM
    for ink in Ink:
        drawing.layers.add(str(ink.value))
    space = drawing.modelspace()
    drawn, _, _ = laid or sheet(garment, tag or Tag(), unit)
    for item in drawn:
        block = drawing.blocks.new(item.piece.name)
        _draw(item, block)
        move = item.placement.place(Point(0, 0))
        space.add_blockref(item.piece.name, (move.x, move.y))
    text = io.StringIO()
    drawing.write(text)
    return text.getvalue()


def to_plain_dxf(garment: Garment, tag: Tag | None = None, unit: Said = Unit.CM, laid: Sheet | None = None) -> str:
    """The same for old readers: R12, every line in short straight chords, notches as points on the cut line, and the
    text in the standard's own words (ASTM D6673, from memory).
    """
    drawing = new("R12", setup=False)
    for ink in Ink:
        drawing.layers.add(str(ink.value))
    space = drawing.modelspace()
    drawn, _, _ = laid or sheet(garment, tag or Tag(), unit)
    for item in drawn:
        block = drawing.blocks.new(item.piece.name)
        _draw_plainly(item, block, tag or Tag())
        move = item.placement.place(Point(0, 0))
        space.add_blockref(item.piece.name, (move.x, move.y))
    text = io.StringIO()
    drawing.write(text)
    return text.getvalue()


PLAIN_TOLERANCE = 0.05
"""How far a chord may stray from its curve for an old reader (mm)."""


def _draw_plainly(item: Drawn, block: BlockLayout, tag: Tag) -> None:
    piece = item.piece
    for ink, outline in ((Ink.CUT, piece.cut_line), (Ink.SEAM, piece.seam_line)):
        places = [_xy(place) for place in outline.flatten(PLAIN_TOLERANCE)]
        block.add_polyline2d(places[:-1], close=True, dxfattribs={"layer": str(ink.value)})
    cut = LinearRing([_xy(place) for place in piece.cut_line.flatten(PLAIN_TOLERANCE)])
    for stroke in item.strokes:
        layer = {"layer": str(stroke.ink.value)}
        if stroke.ink is Ink.NOTCH:
            on = cut.interpolate(cut.project(Spot(_xy(stroke.path.end))))
            block.add_point((on.x, on.y), dxfattribs=layer)
        elif stroke.ink not in (Ink.CUT, Ink.SEAM, Ink.DRILL):
            block.add_polyline2d([_xy(p) for p in stroke.path.flatten(PLAIN_TOLERANCE)], dxfattribs=layer)
    for place in drill_points(piece):
        block.add_point(_xy(place), dxfattribs={"layer": str(Ink.DRILL.value)})
    left, bottom, right, top = piece.cut_line.box
    said = [f"Piece Name: {piece.name}", f"Material: {piece.cloth}", f"Quantity: {piece.cut}"]
    said += [f"Size: {tag.size}"] * bool(tag.size) + ["Annotation: cut on the fold"] * piece.on_fold
    for k, line in enumerate(said):
        text = block.add_text(line, height=6, dxfattribs={"layer": str(Ink.TEXT.value)})
        text.set_placement(((left + right) / 2, (bottom + top) / 2 - 9 * k))


def _draw(item: Drawn, block: BlockLayout) -> None:
    # a reader of the standard wants outlines closed, the fold included
    for ink, outline in ((Ink.CUT, item.piece.cut_line), (Ink.SEAM, item.piece.seam_line)):
        look = {"layer": str(ink.value)}
        block.add_lwpolyline(vertices(outline, True), format="xyb", close=True, dxfattribs=look)
    for stroke in item.strokes:
        layer = {"layer": str(stroke.ink.value)}
        if stroke.ink is Ink.NOTCH:
            block.add_point(_xy(stroke.path.start), dxfattribs=layer)
            continue
        if stroke.ink in (Ink.CUT, Ink.SEAM, Ink.DRILL):
            continue  # outlines are closed below, drill points are points
        block.add_lwpolyline(vertices(stroke.path, False), format="xyb", dxfattribs=layer)
    for place in drill_points(item.piece):
        block.add_point(_xy(place), dxfattribs={"layer": str(Ink.DRILL.value)})
    for words in item.words:
        down = Point(0, -words.step).turned(radians(words.angle))
        for i, line in enumerate(words.lines):
            turned = {"layer": str(Ink.TEXT.value), "rotation": words.angle}
            text = block.add_text(line, height=words.size, dxfattribs=turned)
            text.set_placement(_xy(words.at + down * i))


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
