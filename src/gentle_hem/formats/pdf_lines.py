"""The lines drawn on the pages of a PDF, read by pdfium: in millimetres, y up, as they lie on the page."""

from __future__ import annotations

import ctypes
from collections.abc import Iterator
from typing import Any

import pypdfium2 as pdfium
import pypdfium2.raw as raw

from gentle_hem.core.geometry import Cubic, Line, Point, Segment
from gentle_hem.formats.outlines import UnreadableError

MM = 25.4 / 72
MOST_PAGES = 200
MOST_LINES = 200_000
DEEPEST = 8

Matrix = tuple[float, float, float, float, float, float]
AS_IT_IS: Matrix = (1, 0, 0, 1, 0, 0)


def lines_of(name: str, content: bytes) -> list[list[Segment]]:
    """The lines of the page that is drawn on most, each as its segments. Raises UnreadableError with a sentence."""
    try:
        document = pdfium.PdfDocument(content)
    except pdfium.PdfiumError:
        raise UnreadableError(f"{name} is no readable PDF: it is locked, cut short or no PDF. Save it again.") from None
    if len(document) > MOST_PAGES:
        raise UnreadableError(f"{name} has {len(document)} pages; save the one with the block by itself.")
    best: list[list[Segment]] = []
    counted = [0]
    for page in document:
        found = list(_of_objects(name, _objects(page), AS_IT_IS, counted, 0))
        if _long(found) > _long(best):
            best = found
    return best


def _long(lines: list[list[Segment]]) -> float:
    return sum(segment.length for line in lines for segment in line)


def _objects(page: Any) -> Iterator[Any]:
    for k in range(raw.FPDFPage_CountObjects(page)):
        yield raw.FPDFPage_GetObject(page, k)


def _of_objects(
    name: str, objects: Iterator[Any], put: Matrix, counted: list[int], depth: int
) -> Iterator[list[Segment]]:
    """The lines of drawn things, those within drawings within drawings as well."""
    if depth > DEEPEST:
        raise UnreadableError(f"{name} holds drawings inside drawings without end. Save the lines themselves.")
    for thing in objects:
        kind = raw.FPDFPageObj_GetType(thing)
        here = _then(_matrix(thing), put)
        if kind == raw.FPDF_PAGEOBJ_PATH:
            yield from _path(name, thing, here, counted)
        elif kind == raw.FPDF_PAGEOBJ_FORM:
            count = raw.FPDFFormObj_CountObjects(thing)
            inner = (raw.FPDFFormObj_GetObject(thing, k) for k in range(count))
            yield from _of_objects(name, inner, here, counted, depth + 1)


def _matrix(thing: Any) -> Matrix:
    found = raw.FS_MATRIX()
    if not raw.FPDFPageObj_GetMatrix(thing, found):
        return AS_IT_IS
    return found.a, found.b, found.c, found.d, found.e, found.f


def _then(first: Matrix, after: Matrix) -> Matrix:
    a, b, c, d, e, f = first
    p, q, r, s, t, u = after
    return a * p + b * r, a * q + b * s, c * p + d * r, c * q + d * s, e * p + f * r + t, e * q + f * s + u


def _path(name: str, thing: Any, put: Matrix, counted: list[int]) -> Iterator[list[Segment]]:
    a, b, c, d, e, f = put
    x, y = ctypes.c_float(), ctypes.c_float()

    def place(segment: Any) -> Point:
        raw.FPDFPathSegment_GetPoint(segment, x, y)
        return Point((a * x.value + c * y.value + e) * MM, (b * x.value + d * y.value + f) * MM)

    line: list[Segment] = []
    start = here = Point(0, 0)
    controls: list[Point] = []
    for k in range(raw.FPDFPath_CountSegments(thing)):
        counted[0] += 1
        if counted[0] > MOST_LINES:
            raise UnreadableError(f"{name} draws more than {MOST_LINES} lines; a block is a few hundred.")
        segment = raw.FPDFPath_GetPathSegment(thing, k)
        at, kind = place(segment), raw.FPDFPathSegment_GetType(segment)
        if kind == raw.FPDF_SEGMENT_MOVETO:
            if line:
                yield line
            line, start, here = [], at, at
        elif kind == raw.FPDF_SEGMENT_LINETO:
            if here.distance(at) > 1e-9:
                line.append(Line(here, at))
            here = at
        elif kind == raw.FPDF_SEGMENT_BEZIERTO:
            controls.append(at)
            if len(controls) == 3:
                line.append(Cubic(here, *controls))
                here, controls = at, []
        if raw.FPDFPathSegment_GetClose(segment) and here.distance(start) > 1e-9:
            line.append(Line(here, start))
            here = start
    if line:
        yield line
