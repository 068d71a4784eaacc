"""pattern.pdf: true size on the maker's own printer, and pattern-large.pdf: one large sheet.

page 1: the map        pages 2…: tiles, each named by row and column

  ┌──┬──┬──┐             A1 ┌─ ─ ─ ─ ─ ─┐+  the dashed frame is where the next page begins:
  │A1│A2│A3│                ┊           ┊   lay it over that line, the crosses on each other
  ├──┼──┼──┤                ┊           ┊
  │B1│B2│  │               +└─ ─ ─ ─ ─ ─┘+
  └──┴──┴──┘
100 mm square and 4 in scale, to be measured before anything is cut.
"""

from __future__ import annotations

import io
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import product
from math import ceil

from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas
from shapely import LineString, Polygon, box, prepare

from gentle_hem.core.cutting.open_out import opened_out
from gentle_hem.core.dressed import DrawnDress
from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Placement, Point
from gentle_hem.core.replace import replace
from gentle_hem.core.units import Said, Unit, inches
from gentle_hem.formats.drawing import Ink, placed
from gentle_hem.formats.inked import BOTH_SIDES, POINTS_PER_MM, ink_dress, ink_path
from gentle_hem.formats.labels import GAP, Drawn, Sheet, Tag, beside_each_other, shape, sheet, sheet_in
from gentle_hem.formats.letters import BOLD, FONT, printed, register, unprintable
from gentle_hem.formats.paper import LONGEST_STRETCH, MARGIN, OVERLAP, Joins, Lines, Paper, Printing

FOOT = 6.0
"""How high the page's name stands: nothing is printed within 5 mm of the paper's edge (mm)."""

SQUARE = 100.0

WIDTHS = {
    Ink.CUT: 0.7, Ink.SEAM: 0.35, Ink.FOLD: 0.5, Ink.GRAIN: 0.35, Ink.NOTCH: 0.5, Ink.INTERNAL: 0.3, Ink.DRILL: 0.3
}  # fmt: skip
DASHES = {Ink.SEAM: [4, 2], Ink.FOLD: [8, 2, 2, 2]}


def _canvas(width: float, height: float, title: str) -> tuple[Canvas, io.BytesIO]:
    register()
    file = io.BytesIO()
    canvas = Canvas(file, pagesize=(width * POINTS_PER_MM, height * POINTS_PER_MM), invariant=1)
    canvas.setTitle(title or "Pattern")
    return canvas, file


def _draw_pieces(canvas: Canvas, drawn: list[Drawn]) -> None:
    """All pieces in millimetres; the canvas is already scaled."""
    for item in drawn:
        for stroke in item.strokes:
            canvas.setLineWidth(WIDTHS[stroke.ink])
            canvas.setDash(DASHES.get(stroke.ink, []))
            ink_path(canvas, stroke.path.placed(item.placement), stroke.closed)
        for words in (placed(words, item.placement) for words in item.words):
            canvas.saveState()
            canvas.translate(words.at.x, words.at.y)
            canvas.rotate(words.angle)
            for i, line in enumerate(words.lines):
                canvas.setFont(BOLD if i == 0 else FONT, words.size)
                canvas.drawString(0, -i * words.step, printed(line))
            canvas.restoreState()
    canvas.setDash([])


def _draw_test_marks(canvas: Canvas, x: float, y: float) -> None:
    """A 100 mm square and a scale of 4 inches beside it, its corner at (x, y) mm."""
    canvas.setLineWidth(0.3)
    canvas.rect(x, y, SQUARE, SQUARE, stroke=1, fill=0)
    canvas.setFont(FONT, 4)
    canvas.drawString(x + 4, y + SQUARE - 8, "This square measures 100 mm.")
    canvas.drawString(x + 4, y + SQUARE - 14, "Print at 100 %, not fitted to the page.")
    scale_y = y + 12
    canvas.setFont(FONT, 3)
    for eighth in range(33):
        at = x + inches(eighth / 8)
        high = 6 if eighth % 8 == 0 else 4 if eighth % 4 == 0 else 2.5
        canvas.line(at, scale_y - 20, at, scale_y - 20 + high)
        if eighth % 8 == 0:
            canvas.drawString(at + 0.6, scale_y - 24, f"{eighth // 8} in")
    canvas.line(x, scale_y - 20, x + inches(4), scale_y - 20)


@dataclass(frozen=True, slots=True)
class Tile:
    """One page's share of the sheet: its name and the corner of its printed field, in sheet mm."""

    row: int
    column: int
    left: float
    top: float

    @property
    def name(self) -> str:
        letters, row = "", self.row
        while row >= 0:
            letters, row = chr(ord("A") + row % 26) + letters, row // 26 - 1
        return f"{letters}{self.column + 1}"


def tiles_for(
    drawn: list[Drawn], width: float, height: float, paper: Paper | Printing, overlap: float = OVERLAP
) -> list[Tile]:
    """The pages that have ink on them, lines or words, row by row from the top left."""
    field_width, field_height = (side - 2 * MARGIN for side in paper.size)
    step_x, step_y = field_width - overlap, field_height - overlap
    columns = max(1, ceil((width - overlap) / step_x))
    rows = max(1, ceil((height - overlap) / step_y))

    def page(row: int, column: int) -> Tile:
        return Tile(row, column, column * step_x, height - row * step_y)

    inked: set[tuple[int, int]] = set()
    for item in drawn:
        for line in _inked(item):
            left, bottom, right, top = line.bounds
            across = range(_first(left, field_width, step_x), min(int(right / step_x) + 1, columns))
            down = range(_first(height - top, field_height, step_y), min(int((height - bottom) / step_y) + 1, rows))
            prepare(line)
            for row, column in product(down, across):
                if (row, column) not in inked:
                    tile = page(row, column)
                    field = box(tile.left, tile.top - field_height, tile.left + field_width, tile.top)
                    if line.intersects(field):
                        inked.add((row, column))
    return [page(row, column) for row, column in sorted(inked)]


def _inked(item: Drawn) -> Iterator[LineString | Polygon]:
    """Everything of a piece that leaves ink, where it lies on the sheet."""
    for stroke in item.strokes:
        yield LineString([tuple(p) for p in stroke.path.placed(item.placement).flatten(0.5)])
    for words in item.words:
        yield shape(placed(words, item.placement))


def _first(start: float, field: float, step: float) -> int:
    """The first of a row of overlapping pages that reaches a place."""
    return max(ceil((start - field) / step), 0)


def printed_sheet(
    garment: Garment,
    printing: Printing,
    tag: Tag,
    unit: Said,
    laid: Sheet | None = None,
    beside: tuple[Garment, Tag] | None = None,
) -> tuple[list[Drawn], list[Tile], tuple[float, float]]:
    """What is printed of a garment, the pages it is printed on, and how large all of it is (mm). Where every piece goes
    whole on a page and that takes no more of them, none is parted. ``beside``: another version, printed beside it.
    """
    factor = printing.scale.factor
    field = [side - 2 * MARGIN for side in printing.size]
    if printing.pieces or printing.opened or laid is None:
        both = [(garment, tag), beside] if beside else [(garment, tag)]
        made = [(sheet(_chosen(one, printing), of, unit), of.version) for one, of in both]
        laid = beside_each_other(made) if beside else made[0][0]
    base = laid
    tried = [scaled(base, factor)]
    whole = sheet_in(base[0], (field[0] - printing.overlap) / factor, (field[1] - printing.overlap) / factor)
    if whole is not None:
        tried.insert(0, scaled(whole, factor))  # of as many pages, those that part nothing
    pages = []
    for drawn, width, height in tried:
        shown = [_with_layers(item, printing) for item in drawn]
        pages.append((shown, tiles_for(shown, width, height, printing, printing.overlap), (width, height)))
    return min(pages, key=lambda one: len(one[1]))


def _chosen(garment: Garment, printing: Printing) -> Garment:
    """A garment with the pieces that are to be printed, as they are."""
    chosen = [piece for piece in garment.pieces if not printing.pieces or piece.name in printing.pieces]
    return replace(garment, pieces=tuple(opened_out(piece) if printing.opened else piece for piece in chosen))


def scaled(laid: Sheet, factor: float) -> Sheet:
    """A sheet drawn smaller, its words with it."""
    if factor == 1.0:
        return laid
    shrink = Placement.scale(factor)
    drawn = [
        replace(
            item, placement=item.placement.then(shrink),
            words=tuple(replace(words, size=words.size * factor) for words in item.words),
        )
        for item in laid[0]
    ]  # fmt: skip
    return drawn, laid[1] * factor, laid[2] * factor


LEFT_OUT = {Lines.CUT: Ink.SEAM, Lines.SEAM: Ink.CUT, Lines.BOTH: None}


def _with_layers(item: Drawn, printing: Printing) -> Drawn:
    """A piece with the lines and words that are to be printed."""
    strokes = tuple(stroke for stroke in item.strokes if stroke.ink is not LEFT_OUT[printing.lines])
    return replace(item, strokes=strokes, words=item.words if printing.words else ())


def to_pdf(
    garment: Garment, printing: Printing | None = None, tag: Tag | None = None, unit: Said = Unit.CM,
    laid: Sheet | None = None, dress: DrawnDress | None = None, beside: tuple[Garment, Tag] | None = None,
) -> bytes:  # fmt: skip
    """The pattern on the maker's paper, with a map page first; ``laid`` is its sheet where it is worked out, ``dress``
    the finished dress, drawn on the map page, and ``beside`` another version, printed beside this one.
    """
    tag, printing = tag or Tag(), printing or Printing()
    drawn, tiles, whole = printed_sheet(garment, printing, tag, unit, laid, beside)
    if printing.paper is Paper.ROLL and not printing.own_size:
        # a roll is cut off where the pattern ends
        longest = max((whole[1] - min(_foot(item) for item in drawn) if drawn else 0.0), SQUARE + 60)
        stretch = min(longest + 2 * MARGIN + printing.overlap + GAP, LONGEST_STRETCH)
        printing = replace(printing, own_size=(printing.size[0], stretch))
        drawn, tiles, whole = printed_sheet(garment, printing, tag, unit, laid, beside)
    map_page = Paper.A4 if printing.size[0] > MAP_AS_WIDE else printing
    canvas, file = _canvas(*map_page.size, tag.garment)

    canvas.beginForm("pieces", -1e5, -1e5, 1e5, 1e5)
    canvas.scale(POINTS_PER_MM, POINTS_PER_MM)
    _draw_pieces(canvas, drawn)
    canvas.endForm()

    _draw_map(canvas, drawn, tiles, whole, printing, map_page, tag, dress)
    canvas.setPageSize(tuple(side * POINTS_PER_MM for side in printing.size))
    for tile in tiles:
        _draw_tile(canvas, tile, tiles, printing, printed(tag.garment))
    canvas.save()
    return file.getvalue()


MAP_AS_WIDE = 300.0
"""The map of sheets that are wider than this is printed on A4 (mm)."""


def _foot(item: Drawn) -> float:
    """How far down a piece and its words reach on the sheet."""
    return float(min(line.bounds[1] for line in _inked(item)))


def _draw_map(
    canvas: Canvas, drawn: list[Drawn], tiles: list[Tile], whole: tuple[float, float], printing: Printing,
    page: Paper | Printing, tag: Tag, dress: DrawnDress | None,
) -> None:  # fmt: skip
    name, figure, missing = printed(tag.garment), printed(tag.figure), _missing(tag)
    page_width, page_height = page.size
    field_width, field_height = (side - 2 * MARGIN for side in printing.size)
    canvas.scale(POINTS_PER_MM, POINTS_PER_MM)
    canvas.setFont(BOLD, 6)
    canvas.drawString(MARGIN, page_height - 20, name or "Pattern")
    canvas.setFont(FONT, 3.6)
    whose = f"for {figure} · " if figure else ""
    pages = "1 page" if len(tiles) == 1 else f"{len(tiles)} pages"
    canvas.drawString(MARGIN, page_height - 27, f"{whose}{pages} after this one, {printing.name}")
    canvas.drawString(MARGIN, page_height - 33, _how_joined(printing, len(tiles)))
    if missing:
        canvas.drawString(MARGIN, page_height - 14, missing)
    beside = MARGIN + SQUARE + 14
    if dress:
        ink_dress(canvas, dress, BOTH_SIDES, beside, MARGIN + 14, page_width - MARGIN - beside, SQUARE)
    else:
        for k, line in enumerate(("The dress cannot be drawn here;", "the pattern is whole without it.")):
            canvas.drawString(beside, MARGIN + 24 - 5 * k, line)
    top = _say_not_ready(canvas, MARGIN, page_height - 41, page_width - 2 * MARGIN, tag.stops)
    for i, item in enumerate(drawn):
        fold = " on the fold" if item.piece.on_fold else ""
        canvas.drawString(
            MARGIN,
            top - i * 5,
            f"{item.piece.name}: cut {item.piece.cut}{fold}, {item.piece.cloth}"
            + (f", version {item.version}" if item.version else ""),
        )
    list_bottom = top - 4 - len(drawn) * 5
    _draw_test_marks(canvas, MARGIN + 3, MARGIN + 12)

    room_bottom = MARGIN + SQUARE + 22
    # the last pages reach beyond the sheet, and are on the map as well
    right = max([whole[0], *(tile.left + field_width for tile in tiles)])
    bottom = min([0.0, *(tile.top - field_height for tile in tiles)])
    shrink = min((page_width - 2 * MARGIN) / right, max(20.0, list_bottom - room_bottom) / (whole[1] - bottom))
    put = Placement.scale(shrink).then(Placement.shift(Point(MARGIN, room_bottom - bottom * shrink)))
    canvas.setLineWidth(0.2)
    for item in drawn:
        ink_path(canvas, item.piece.cut_line.placed(item.placement).placed(put), closed=True)
    canvas.setFont(FONT, 2.6)
    canvas.setDash([1, 1])
    for tile in tiles:
        corner = put.place(Point(tile.left, tile.top - field_height))
        canvas.rect(corner.x, corner.y, field_width * shrink, field_height * shrink, stroke=1, fill=0)
        canvas.drawString(corner.x + 1, corner.y + field_height * shrink - 3.2, tile.name)
    canvas.setDash([])
    canvas.showPage()


def _how_joined(printing: Printing, tiles: int) -> str:
    """How the pages are put together, and that they are not true size where they are not."""
    said = "Lay each page over the dashed lines of the one before, crosses on crosses."
    if printing.joins is Joins.BUTT:
        said = "Cut the pages along their frames and lay them edge to edge, crosses on crosses."
    said = said if tiles > 1 else ""
    trial = f"For a trial at {printing.scale} of true size: not to be cut from cloth. "
    return (trial if printing.scale.factor != 1 else "") + said


def _draw_tile(canvas: Canvas, tile: Tile, tiles: list[Tile], printing: Printing, name: str) -> None:
    page_width, page_height = printing.size
    field_width, field_height = page_width - 2 * MARGIN, page_height - 2 * MARGIN
    shift_x, shift_y = MARGIN - tile.left, MARGIN + field_height - tile.top
    canvas.saveState()
    frame = canvas.beginPath()
    frame.rect(*(side * POINTS_PER_MM for side in (MARGIN, MARGIN, field_width, field_height)))
    canvas.clipPath(frame, stroke=0, fill=0)
    canvas.translate(shift_x * POINTS_PER_MM, shift_y * POINTS_PER_MM)
    canvas.doForm("pieces")
    canvas.restoreState()

    canvas.scale(POINTS_PER_MM, POINTS_PER_MM)
    canvas.setLineWidth(0.15)
    right, bottom = page_width - MARGIN - printing.overlap, MARGIN + printing.overlap
    if printing.joins is Joins.BUTT:
        canvas.rect(MARGIN, MARGIN, field_width, field_height, stroke=1, fill=0)
    else:
        canvas.setDash([2, 2])
        canvas.line(right, MARGIN, right, page_height - MARGIN)
        canvas.line(MARGIN, bottom, page_width - MARGIN, bottom)
        canvas.setDash([])
    for x in (MARGIN, right):
        for y in (page_height - MARGIN, bottom):
            canvas.line(x - 4, y, x + 4, y)
            canvas.line(x, y - 4, x, y + 4)
    canvas.setFont(BOLD, 4)
    canvas.drawString(MARGIN, FOOT, tile.name)
    canvas.setFont(FONT, 3)
    places = {(t.row, t.column): t.name for t in tiles}
    beside, below = places.get((tile.row, tile.column + 1)), places.get((tile.row + 1, tile.column))
    hints = [f"{beside} to the right" if beside else "", f"{below} below" if below else ""]
    canvas.drawString(MARGIN + 14, FOOT, " · ".join(text for text in (name, *hints) if text))
    canvas.showPage()


def _say_not_ready(canvas: Canvas, left: float, top: float, width: float, stops: tuple[str, ...]) -> float:
    """In large letters that the pattern must not be cut yet, and why; returns where the next line may stand."""
    if not stops:
        return top
    canvas.setFont(BOLD, 7)
    canvas.drawString(left, top - 3, "NOT READY TO CUT")
    canvas.setFont(FONT, 3.6)
    top -= 10
    for reason in stops:
        for line in simpleSplit(reason, FONT, 3.6, width):
            canvas.drawString(left, top, line)
            top -= 4.6
    return top - 2


def _missing(tag: Tag) -> str:
    """What must be said of letters that cannot be printed; nothing where all can."""
    letters = unprintable(tag.garment, tag.figure)
    if not letters:
        return ""
    codes = ", ".join(f"U+{ord(letter):04X}" for letter in letters[:12])
    return f"Letters this typeface cannot print stand as ▯ ({codes}). Nothing else is missing."


def to_large_pdf(garment: Garment, tag: Tag | None = None, unit: Said = Unit.CM, laid: Sheet | None = None) -> bytes:
    """The whole pattern on one sheet, for a print shop or plotter; ``laid`` is that sheet where it is worked out."""
    tag = tag or Tag()
    missing = _missing(tag)
    drawn, width, height = laid or sheet(garment, tag, unit)
    strip = SQUARE + 30
    width = max(width, SQUARE + 2 * MARGIN)
    canvas, file = _canvas(width, height + strip, tag.garment)
    canvas.scale(POINTS_PER_MM, POINTS_PER_MM)
    if missing:
        canvas.setFont(FONT, 4)
        canvas.drawString(MARGIN, height + 8, missing)
    _say_not_ready(canvas, MARGIN + SQUARE + 12, height + strip - 12, max(width - SQUARE - 40, 120), tag.stops)
    _draw_test_marks(canvas, MARGIN, height + 16)
    _draw_pieces(canvas, drawn)
    canvas.showPage()
    canvas.save()
    return file.getvalue()
