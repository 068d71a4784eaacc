"""cut-sheet.pdf: everything that is wanted at the cutting table, on paper.

the dress drawn · what is open · the pieces at a said scale · what is cut, how large, with which allowances
cloth and how much of it · notions, bias and elastic · cautions
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from reportlab.pdfgen.canvas import Canvas

from gentle_hem.core.cloth.lay import roles_of
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.dressed import DrawnDress
from gentle_hem.core.findings import Severity
from gentle_hem.core.garment import Garment
from gentle_hem.core.making.costs import NAMES
from gentle_hem.core.making.hints import cautions_by_operation, cautions_for_the_wearer
from gentle_hem.core.making.notions import notions
from gentle_hem.core.making.plan import plan_of
from gentle_hem.core.pattern import Piece
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.units import Tape, format_length, tape
from gentle_hem.core.what import Section
from gentle_hem.formats.broken import Shown, shown_pieces
from gentle_hem.formats.drawing import Ink, Laid, lay_to_fill, strokes
from gentle_hem.formats.inked import ink_path
from gentle_hem.formats.labels import Tag, allowances_of
from gentle_hem.formats.letters import BOLD, bold_width
from gentle_hem.formats.pages import Pages
from gentle_hem.formats.paper import Paper

DRESS_HIGH = 95.0
HUNG_HIGH = 80.0
PIECES_HIGH = 105.0
"""How high the drawings are at most (mm)."""

SCALES = (2, 4, 5, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 60, 80, 100)
"""Pieces are drawn at one of these, so that a ruler can be laid on them."""

NAME = 2.4
"""How large a piece's number is drawn at least (mm)."""


def levels_said(dress: DrawnDress, unit: Tape) -> str:
    """The girths of the dress at its levels, and how high its hem is."""
    return "; ".join(
        f"{level.name} {format_length(level.girth, unit)}"
        + (f", {format_length(level.height, unit)} above the floor" if level.name == "hem" else "")
        for level in dress.levels
    )


def to_cut_sheet(
    recipe: Recipe, garment: Garment, seen: tuple[DrawnDress | None, Mapping[str, bytes]],
    bought: Mapping[ClothRole, str], tag: Tag, paper: Paper,
) -> bytes:  # fmt: skip
    """What is cut, from what, and how; ``seen`` is the dress as it is drawn, and as it hangs by the side it is seen
    from, ``bought`` how much of each cloth that is laid.
    """
    dress, hung = seen
    unit = tape(recipe.unit)
    pages = Pages(f"{tag.garment or 'Dress'}: cut sheet", tag.lines, paper)
    for reason in tag.stops:
        pages.say(f"NOT READY TO CUT: {reason}", bold=True)
    if dress is None:
        pages.say("The dress cannot be drawn here; the pattern is whole without it.")
    else:
        pages.dress(dress, DRESS_HIGH)
        pages.say(levels_said(dress, unit))
    if hung:
        pages.head("As it hangs", needs=HUNG_HIGH + 14)
        pages.pictures([hung[view] for view in ("front", "side", "back") if view in hung], HUNG_HIGH)
        pages.say("From in front, from her left, from behind; let fall in this cloth on her form.", small=True)
    pages.head("What is open")
    said = [f for f in garment.findings if f.severity is not Severity.STOP]
    for finding in sorted(said, key=lambda one: one.severity is Severity.NOTE):
        pages.say(("Look again: " if finding.severity is Severity.WARN else "") + finding.text(unit))
    if not said:
        pages.say("Nothing else." if tag.stops else "Nothing.")
    _pieces(pages, garment)
    pages.head("What is cut")
    pages.rows(("", "piece", "cut", "room it takes", "allowances"), _cut(garment, unit), (4, 26, 22, 22, 30))
    pages.head("Cloth")
    pages.rows(("", "", "how much"), _cloths(recipe, garment, bought, unit), (14, 60, 24))
    plan = plan_of(garment, recipe)
    taken = [
        (NAMES[one.notion], "" if one.length is None else format_length(one.length, unit), f"{one.count}")
        for one in notions(garment, recipe, plan)
    ]
    bias = [
        (
            f"Bias, {piece.name}",
            f"{format_length(_longest(piece), unit)} long, {format_length(_narrowest(piece), unit)} wide",
            f"{piece.cut}",
        )
        for piece in garment.pieces if piece.what.section is Section.BINDING
    ]  # fmt: skip
    if taken or bias:
        pages.head("Notions")
        pages.rows(("", "how long", "how many"), [*taken, *bias], (34, 44, 14))
    pages.head("Take care")
    cautions = dict.fromkeys(
        [
            *(str(c) for found in cautions_by_operation(plan.operations).values() for c in found),
            *(str(c) for c in cautions_for_the_wearer(garment, recipe, plan.operations)),
        ]
    )
    for caution in cautions:
        pages.say(caution)
    pages.say("The rules of the place you work in come before these.")
    return pages.done()


def _pieces(pages: Pages, garment: Garment) -> None:
    if not garment.pieces:
        return
    shown = shown_pieces(garment.pieces)
    laid, width, height = lay_to_fill([one.piece for one in shown], pages.width / PIECES_HIGH)
    scale = next((one for one in SCALES if width / one <= pages.width and height / one <= PIECES_HIGH), SCALES[-1])
    pages.head(f"The pieces, 1 : {scale}", needs=height / scale + 12)
    broken = " Long strips are drawn with a break." if any(one.waves for one in shown) else ""
    pages.say(f"Numbered as in the list below.{broken}", small=True)
    pages.draw(pages.width, height / scale, lambda canvas: _ink_pieces(canvas, laid, shown, scale))


def _ink_pieces(canvas: Canvas, laid: Sequence[Laid], shown: Sequence[Shown], scale: float) -> None:
    """The pieces small, each with its number in its middle."""
    canvas.scale(1 / scale, 1 / scale)
    for k, (item, one) in enumerate(zip(laid, shown, strict=True), 1):
        for stroke in strokes(item.piece):
            canvas.setLineWidth((0.3 if stroke.ink is Ink.CUT else 0.12) * scale)
            canvas.setDash([1.2 * scale, 0.8 * scale] if stroke.ink is Ink.SEAM else [])
            ink_path(canvas, stroke.path.placed(item.placement), stroke.closed)
        canvas.setDash([])
        for wave in one.waves:
            ink_path(canvas, wave.placed(item.placement))
        left, bottom, right, top = item.piece.cut_line.placed(item.placement).box
        size = NAME * scale
        canvas.setFont(BOLD, size)
        canvas.drawString((left + right - bold_width(str(k), size)) / 2, (bottom + top) / 2 - size / 3, str(k))


def _cut(garment: Garment, unit: Tape) -> Iterator[Sequence[str]]:
    """A row for every piece, under the cloth it is cut from."""
    numbers = {piece.what: k for k, piece in enumerate(garment.pieces, 1)}
    for role in ClothRole:
        mine = [piece for piece in garment.pieces if piece.cloth is role]
        if mine:
            yield (f"From the {role}" if role is not ClothRole.PAPER else "Of paper, to be laid on one's own block",)
        for piece in mine:
            left, bottom, right, top = piece.cut_line.box
            fold = " on the fold" if piece.on_fold else ""
            yield (
                str(numbers[piece.what]), piece.name,
                "; ".join(text for text in (f"{piece.cut}{fold}", piece.remark) if text),
                f"{format_length(right - left, unit)} × {format_length(top - bottom, unit)}",
                allowances_of(piece, unit),
            )  # fmt: skip


def _cloths(recipe: Recipe, garment: Garment, bought: Mapping[ClothRole, str], unit: Tape) -> Iterator[Sequence[str]]:
    counts: dict[ClothRole, int] = {}
    for one in cut_pieces(garment):
        counts[one.cloth] = counts.get(one.cloth, 0) + 1
    for role in roles_of(garment):
        cloth = recipe.cloths.cloth(role)
        like = [cloth.name] if cloth.name else []
        like += [f"{format_length(cloth.width, unit)} wide"] if cloth.width else []
        like += ["laid one way"] if cloth.nap == "one_way" else []
        like += [f"{counts[role]} pieces cut"]
        yield str(role).capitalize(), ", ".join(like), bought.get(role, "not laid yet")


def _sides(piece: Piece) -> tuple[float, float]:
    """The longer and the shorter side of a strip, along its edges (mm)."""
    lengths = sorted(edge.drawn_length for edge in piece.edges)
    return lengths[-1], lengths[0]


def _longest(piece: Piece) -> float:
    return _sides(piece)[0]


def _narrowest(piece: Piece) -> float:
    return _sides(piece)[1]
