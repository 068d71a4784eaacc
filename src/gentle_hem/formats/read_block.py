"""A block from a file: SVG, DXF, PDF or the project's own JSON, read into outlines whose edges can be named.

file ─► strokes in mm, y up ─► closed outlines ─► corners ─► edges with a guess of what each is ─► darts

Files come from anywhere: rounded numbers, inches, y down, nothing but short chords, drawings inside drawings,
outlines that do not quite close, several pieces. What cannot be read is refused in a sentence.
"""

from __future__ import annotations

import io
import itertools
import json
import re
from collections.abc import Iterator
from math import atan, pi, radians
from typing import Any

import svgelements
from defusedxml import ElementTree

from gentle_hem.core.block.own import Named
from gentle_hem.core.geometry import Arc, Cubic, Line, Path, Point, Segment
from gentle_hem.core.geometry.path_text import path_data
from gentle_hem.formats.outlines import (
    FARTHEST,
    FoundDart,
    FoundEdge,
    Outline,
    UnreadableError,
    mended,
    outline_of,
    outlines_of,
)
from gentle_hem.limits import LARGEST_SAID, LARGEST_UPLOAD

MOST_PARTS = 20_000
"""How many parts a drawing may have, drawings inside drawings counted each time they are drawn."""

MOST_PATH_TEXT = 1_000_000
"""How many letters all its lines together may take to write down: far over a hundred thousand points."""

MOST_STYLE_TEXT = 100_000
"""How many letters of style rules are looked at; lines have none that matter."""

ENTITY = re.compile(rb"<!ENTITY\s+(%\s+)?[\w.:-]+\s+(SYSTEM|PUBLIC|\"[^\"]*\"|'[^']*')")
MOST_ENTITIES, LONGEST_ENTITY = 60, 300
"""Drawing programs declare a few short names for namespaces; nothing needs more."""


def read_block(name: str, content: bytes) -> list[Outline]:
    """Every closed outline in a file, largest first. Raises UnreadableError with a sentence."""
    if len(content) > LARGEST_UPLOAD:
        raise UnreadableError(f"{name} is larger than {LARGEST_SAID}; a block is a few lines, so leave pictures out.")
    ending = name.rsplit(".", 1)[-1].lower()
    readers = {"svg": _from_svg, "dxf": _from_dxf, "json": _from_json, "pdf": _from_pdf}
    if ending not in readers:
        raise UnreadableError(f"{name} is not a file I can read; SVG, DXF, PDF and garment.json are accepted.")
    found = readers[ending](name, content)
    if any(not abs(number) <= FARTHEST for outline in found for number in _box(outline)):
        raise UnreadableError(f"{name} has lines more than 50 m away; look at its unit and save it again.")
    if not found:
        raise UnreadableError(f"{name} holds no closed outline of a pattern piece; draw the stitching line closed.")
    return sorted(found, key=lambda outline: -_area(outline))


def _box(outline: Outline) -> tuple[float, float, float, float]:
    return Path.joined(edge.path for edge in outline.edges).box


def _area(outline: Outline) -> float:
    return Path.joined(edge.path for edge in outline.edges).signed_area


# ------------------------------------------------------------------------------------------------ SVG


def _from_svg(name: str, content: bytes) -> list[Outline]:
    _look_at_entities(name, content)
    try:
        root = ElementTree.fromstring(content, forbid_entities=False)
    except Exception:
        raise UnreadableError(f"{name} is not a readable SVG file. Save it again as SVG.") from None
    if root.tag != "{http://www.w3.org/2000/svg}svg":
        raise UnreadableError(f"{name} is not an SVG drawing: it does not begin as one. Save it again as SVG.")
    _look_at_size(name, root)
    try:
        drawing = svgelements.SVG.parse(io.BytesIO(content), ppi=25.4)  # so that one unit without a name is 1 mm
    except Exception:
        raise UnreadableError(f"{name} is not a readable SVG file. Save it again as SVG.") from None
    strokes: list[tuple[str, str, Path]] = []
    for group, shape in _shapes(drawing, ""):
        kind = str(shape.values.get("class", "") or "")
        for part in svgelements.Path(shape).as_subpaths():
            path = _svg_path(svgelements.Path(part))
            if path is not None:
                strokes.append((group, kind, path))
    if not strokes:
        raise UnreadableError(f"{name} holds no lines.")
    own = [stroke for stroke in strokes if stroke[1] == "seam-line"]
    if own:
        inner = [stroke for stroke in strokes if stroke[1] == "internal"]
        made = [outline_of(group or f"outline {k + 1}", path, [p for g, _, p in inner if g == group])
                for k, (group, _, path) in enumerate(own)]  # fmt: skip
        return [outline for outline in made if outline]
    return outlines_of([path for _, _, path in strokes])


def _look_at_entities(name: str, content: bytes) -> None:
    """Names for pieces of text: the short ones that drawing programs declare are harmless, all else is refused."""
    if content.count(b"<!ENTITY") != len(found := ENTITY.findall(content)) or len(found) > MOST_ENTITIES:
        raise UnreadableError(f"{name} declares entities that are not needed for a drawing. Save it as plain SVG.")
    for parameter, value in found:
        if (
            parameter
            or value in (b"SYSTEM", b"PUBLIC")
            or len(value) > LONGEST_ENTITY
            or b"&" in value
            or b"%" in value
        ):
            raise UnreadableError(f"{name} declares entities that are not needed for a drawing. Save it as plain SVG.")


def _look_at_size(name: str, root: Any) -> None:
    """A drawing of a size that a block can have; what is drawn again by reference counts again."""
    named = {element.get("id"): element for element in root.iter() if element.get("id")}
    counted: dict[Any, int] = {}
    path_text = style_text = 0

    def count(element: Any, under: tuple[Any, ...]) -> int:
        if element in under:
            raise UnreadableError(f"{name} draws a part inside itself. Save the lines themselves.")
        if element in counted:
            return counted[element]
        here = (*under, element)
        parts = 1 + sum(count(child, here) for child in element)
        if element.tag.rpartition("}")[2] == "use":
            target = named.get((element.get("href") or element.get("{http://www.w3.org/1999/xlink}href") or "")[1:])
            parts += count(target, here) if target is not None else 0
        counted[element] = min(parts, 10 * MOST_PARTS)
        return counted[element]

    for element in root.iter():
        path_text += len(element.get("d") or "") + len(element.get("points") or "")
        if str(element.tag).rpartition("}")[2] == "style":
            style_text += len(element.text or "")
    if count(root, ()) > MOST_PARTS:
        raise UnreadableError(f"{name} draws more than {MOST_PARTS} parts; a block is a few lines. Save those alone.")
    if path_text > MOST_PATH_TEXT:
        raise UnreadableError(f"{name} has lines of too many points; a block needs a few hundred. Simplify it.")
    if style_text > MOST_STYLE_TEXT:
        raise UnreadableError(f"{name} holds more style rules than lines. Save it as plain SVG.")


def _shapes(drawing: Any, group: str) -> Iterator[tuple[str, Any]]:
    """Every shape of a drawing with the name of the innermost named group it lies in."""
    for element in drawing:
        if isinstance(element, svgelements.Group):
            yield from _shapes(element, str(element.id or group))
        elif isinstance(element, svgelements.Shape):
            yield group, element


def _svg_path(drawn: Any) -> Path | None:
    """One stroke in mm, y up."""

    def at(point: Any) -> Point:
        return Point(float(point.x), -float(point.y))

    segments: list[Segment] = []
    for piece in drawn:
        if isinstance(piece, svgelements.Move) or piece.start is None or piece.end is None:
            continue
        start, end = at(piece.start), at(piece.end)
        if isinstance(piece, svgelements.CubicBezier):
            segments.append(Cubic(start, at(piece.control1), at(piece.control2), end))
        elif isinstance(piece, svgelements.QuadraticBezier):
            control = at(piece.control)
            segments.append(Cubic(start, start.towards(control, 2 / 3), end.towards(control, 2 / 3), end))
        elif isinstance(piece, svgelements.Arc):
            segments += _svg_arc(piece, start, at)
        elif start.distance(end) > 1e-9:
            segments.append(Line(start, end))
    return mended(segments)


def _svg_arc(arc: Any, start: Point, at: Any) -> list[Segment]:
    if abs(float(arc.rx) - float(arc.ry)) < 1e-6 * float(arc.rx):
        centre = at(arc.center)
        made = Arc(centre, start.distance(centre), (start - centre).angle, -float(arc.sweep))
        return [made]
    return [
        Cubic(at(c.start), at(c.control1), at(c.control2), at(c.end)) for c in arc.as_cubic_curves()
    ]  # an ellipse has no arc of ours


# ------------------------------------------------------------------------------------------------ DXF

UNITS = {1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0}


def _from_dxf(name: str, content: bytes) -> list[Outline]:
    from ezdxf.filemanagement import read as read_dxf  # here, since ezdxf alone takes half a second of the start
    from ezdxf.lldxf.const import DXFError

    try:
        drawing = read_dxf(io.StringIO(content.decode("utf-8", errors="surrogateescape")))
    except (DXFError, ValueError, IndexError, KeyError, TypeError, AttributeError):
        raise UnreadableError(f"{name} is not a readable DXF file.") from None
    _look_at_inserts(name, drawing)
    scale = UNITS.get(int(drawing.header.get("$INSUNITS", 4) or 4), 1.0)
    outlines: list[Outline] = []
    loose: list[Path] = []
    for insert in drawing.modelspace().query("INSERT"):
        block = drawing.blocks.get(insert.dxf.name)
        if block is None:
            continue
        strokes = [(e.dxf.layer, path) for e in _drawn(insert) if (path := _dxf_path(e, scale))]
        seams = [path for layer, path in strokes if layer == "14"] or [p for layer, p in strokes if layer == "1"]
        inner = [path for layer, path in strokes if layer == "8"]
        made = [outline_of(insert.dxf.name, path, inner) for path in seams]
        outlines += [outline for outline in made if outline]
        if not seams:
            loose += [path for _, path in strokes]
    loose += [path for e in drawing.modelspace() if e.dxftype() != "INSERT" and (path := _dxf_path(e, scale))]
    return outlines + outlines_of(loose)


def _look_at_inserts(name: str, drawing: Any) -> None:
    """A drawing of a size that a block can have; a block drawn in another counts each time it is drawn."""
    counted: dict[str, int] = {}

    def count(entities: Any, under: tuple[str, ...]) -> int:
        parts = 0
        for entity in entities:
            parts += 1
            if entity.dxftype() == "INSERT":
                called = str(entity.dxf.name).lower()
                if called in under:
                    raise UnreadableError(f"{name} draws a block inside itself. Save the lines themselves.")
                block = drawing.blocks.get(called)
                if called not in counted and block is not None:
                    counted[called] = count(block, (*under, called))
                parts += counted.get(called, 0) * max(1, entity.mcount)
            if parts > MOST_PARTS:
                raise UnreadableError(
                    f"{name} draws more than {MOST_PARTS} parts; a block is a few lines. Save those alone."
                )
        return parts

    count(drawing.modelspace(), ())


def _drawn(insert: Any) -> Iterator[Any]:
    """What a block reference draws, drawings inside drawings opened up."""
    for entity in insert.virtual_entities():
        if entity.dxftype() == "INSERT":
            yield from _drawn(entity)
        else:
            yield entity


def _dxf_path(entity: Any, scale: float) -> Path | None:
    kind = entity.dxftype()
    if kind == "LINE":
        a, b = entity.dxf.start, entity.dxf.end
        return mended([Line(Point(a.x * scale, a.y * scale), Point(b.x * scale, b.y * scale))])
    if kind in ("LWPOLYLINE", "POLYLINE"):
        return _polyline(entity, scale)
    if kind == "ARC":
        start, end = radians(entity.dxf.start_angle), radians(entity.dxf.end_angle)
        sweep = (end - start) % (2 * pi) or 2 * pi
        centre = Point(entity.dxf.center.x * scale, entity.dxf.center.y * scale)
        return Path.of(Arc(centre, entity.dxf.radius * scale, start, sweep))
    if kind in ("SPLINE", "ELLIPSE"):
        if kind == "ELLIPSE" and entity.dxf.major_axis.magnitude * scale > FARTHEST:
            raise UnreadableError("An ellipse in the file is wider than 50 m; look at the file's unit.")
        points = [Point(p.x * scale, p.y * scale) for p in entity.flattening(0.01 / scale)]
        return mended([Line(a, b) for a, b in itertools.pairwise(points)])
    return None


def _polyline(entity: Any, scale: float) -> Path | None:
    if entity.dxftype() == "LWPOLYLINE":
        places = [(float(x) * scale, float(y) * scale, float(bulge)) for x, y, bulge in entity.get_points("xyb")]
        closed = bool(entity.closed)
    else:
        places = [
            (v.dxf.location.x * scale, v.dxf.location.y * scale, v.dxf.get("bulge", 0.0)) for v in entity.vertices
        ]
        closed = bool(entity.is_closed)
    if closed and places:
        places.append((places[0][0], places[0][1], 0.0))
    segments: list[Segment] = []
    for (x0, y0, bulge), (x1, y1, _) in itertools.pairwise(places):
        a, b = Point(x0, y0), Point(x1, y1)
        segments.append(_bulged(a, b, bulge) if abs(bulge) > 1e-9 and a.distance(b) > 1e-9 else Line(a, b))
    return mended(segments)


def _bulged(a: Point, b: Point, bulge: float) -> Arc:
    """A polyline's arc: its bulge is the tangent of a quarter of its sweep."""
    chord = a.distance(b)
    rise = chord / 4 * (1 / bulge - bulge)
    centre = a.towards(b, 0.5) + (b - a).unit.left * rise
    sweep = 4 * atan(bulge)
    return Arc(centre, centre.distance(a), (a - centre).angle, sweep)


# ----------------------------------------------------------------------------------------------- JSON


def _from_json(name: str, content: bytes) -> list[Outline]:
    try:
        document = json.loads(content, parse_constant=_no_number)
    except ValueError:
        document = None
    pieces = document.get("pieces") if isinstance(document, dict) else None
    if not isinstance(pieces, list):
        raise UnreadableError(f"{name} is not a garment.json: it has no list of pieces.")
    outlines = []
    for piece in pieces:
        try:
            outlines.append(_json_outline(piece))
        except (KeyError, TypeError, ValueError, OverflowError, AttributeError):
            raise UnreadableError(f"A piece in {name} cannot be read; it needs edges with their points.") from None
    return outlines


def _no_number(_: str) -> float:
    raise ValueError("not an ordinary number")


def _json_outline(piece: dict[str, Any]) -> Outline:
    known: dict[str, Named] = {
        "waist": "waist", "side": "side", "armhole": "armhole", "shoulder": "shoulder", "neckline": "neckline",
        "centre front": "centre", "centre back": "centre",
    }  # fmt: skip
    edges, index = [], {}
    if not 3 <= len(piece["edges"]) <= 60:
        raise ValueError("a piece has at least three edges")
    for k, edge in enumerate(piece["edges"]):
        points = [Point(float(x), float(y)) for x, y in edge["points"]]
        path = mended([Line(a, b) for a, b in itertools.pairwise(points)])
        if path is None:
            raise ValueError("an edge without length")
        edges.append(FoundEdge(path, known.get(edge["role"])))
        index[edge["name"]] = k
    darts = tuple(
        FoundDart(index[d["edge"]], float(d["at"]), float(d["intake"]), Point(*map(float, d["apex"])))
        for d in piece.get("darts", [])
    )
    return Outline(str(piece["name"]), tuple(edges), darts)


# ------------------------------------------------------------------------------------------------ PDF


def _from_pdf(name: str, content: bytes) -> list[Outline]:
    """The lines of the page that has most of them, at the size the page says it has."""
    from gentle_hem.formats.pdf_lines import lines_of

    strokes = [path for segments in lines_of(name, content) if (path := mended(segments)) is not None]
    if not strokes:
        raise UnreadableError(f"{name} holds no lines: it may be a picture. A PDF with drawn lines is accepted.")
    return outlines_of(strokes)


def as_half(outline: Outline, names: list[Named]) -> dict[str, Any]:
    """An outline with its edges named, as a recipe keeps it. Neighbouring edges with one name become one.

    Raises UnreadableError when there are not as many names as edges, or a dart lies on none of them.
    """
    if len(names) != len(outline.edges):
        raise UnreadableError(f"The outline has {len(outline.edges)} edges and {len(names)} names were given.")
    if any(dart.edge not in range(len(names)) for dart in outline.darts):
        raise UnreadableError("A dart lies on an edge that the outline does not have.")
    start = next((k for k in range(len(names)) if names[k] != names[k - 1]), 0)
    order = [(start + k) % len(names) for k in range(len(names))]
    merged: list[tuple[Named, Path]] = []
    place: dict[int, tuple[Named, float]] = {}
    for k in order:
        if merged and merged[-1][0] == names[k]:
            place[k] = (names[k], merged[-1][1].length)
            merged[-1] = (names[k], merged[-1][1].then(outline.edges[k].path))
        else:
            place[k] = (names[k], 0.0)
            merged.append((names[k], outline.edges[k].path))
    darts = [
        {"edge": place[d.edge][0], "at": place[d.edge][1] + d.at, "intake": d.intake, "apex": (d.apex.x, -d.apex.y)}
        for d in outline.darts
    ]
    return {"edges": [{"name": name, "path": path_data(path)} for name, path in merged], "darts": darts}
