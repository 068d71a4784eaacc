"""What opens down the centre front, bodice and lower part together: buttons that go on below the waist, or a zip.

bodice  │○│   stand and facing of both are sewn to each other at the waist
────────┤ ├── waist seam
skirt   │○│
"""

from __future__ import annotations

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cutting.centre import seamed_at_centre
from gentle_hem.core.findings import Remedy, in_recipe, refused
from gentle_hem.core.parts import OpeningPlace
from gentle_hem.core.pattern import MarkKind, Notch, NotchKind, Piece, Role
from gentle_hem.core.recipe import Recipe, step_of
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import seam_of
from gentle_hem.core.steps.front import ButtonStand
from gentle_hem.core.style.fronts import FACING_BESIDE, buttoned_down
from gentle_hem.core.what import Half, Layer, Section, Sign
from gentle_hem.core.workroom import Dressed

OPENED = (Section.SKIRT, Section.PEPLUM)
"""Lower parts that can open down the centre front."""

OPENED_AT_THE_TOP = (Section.BODICE, Section.GOWN, Section.WAISTBAND, Section.HIP_YOKE)
"""Sections that a zip at the centre front must go through; below them it ends in the seam, or in a slit of it."""


def buttoned_down_below(dress: Dressed, recipe: Recipe) -> Dressed:
    """The lower part opened with the bodice where the buttons go on down: its stand, and the stands sewn together."""
    found = step_of(recipe, ButtonStand)
    if found is None:
        return dress
    place, stand = found
    above = [p for p in dress.outer_upper() if any(mark.kind is MarkKind.BUTTONHOLE for mark in p.marks)]
    if stand.down == "bodice" or not above:
        return dress
    bodice = min(above, key=lambda piece: piece.seam_line.box[1])
    levels = sorted({mark.path.start.y for p in above for mark in p.marks if mark.kind is MarkKind.BUTTONHOLE})
    spacing = levels[1] - levels[0] if len(levels) > 1 else 2 * (levels[0] - bodice.edge("stand foot").path.end.y)
    fronts = [
        piece
        for piece in dress.pieces.values()
        if piece.what.layer is Layer.OUTER and piece.what.section in OPENED
        and any(edge.role is Role.CENTRE_FRONT for edge in piece.edges)
        and any(edge.role is Role.WAIST for edge in piece.edges)
    ]  # fmt: skip
    try:
        if len(fronts) != 1:
            raise CannotMake("it has no one piece at the centre front for the buttons to go down")
        skirt = buttoned_down(fronts[0], spacing, stand.button, stand.width, stand.width + FACING_BESIDE)
    except CannotMake as wrong:
        return dress.also(
            refused(
                "buttons-end-at-waist", "The buttons cannot go on down the {part}: {why}.",
                *in_recipe(f"steps.{place}.down"),
                remedies=(
                    Remedy("bodice-only", "Let them end above the waist seam", {f"steps.{place}.down": "bodice"}),
                ),
                part=recipe.lower.title.lower(), why=wrong.why,
            )
        )  # fmt: skip
    sewn = ("stand foot", "facing foot"), ("stand top", "facing top")
    pieces = []
    for piece, names in ((bodice, sewn[0]), (skirt, sewn[1])):
        for name in names:
            piece = piece.with_edge(name, finished=None)
        pieces.append(piece)
    seams = [seam_of(f"{a} at the waist", (bodice.what, a), (skirt.what, b)) for a, b in zip(*sewn, strict=True)]
    opened = {(skirt.what, str(Role.CENTRE_FRONT))}
    kept = tuple(s for s in dress.seams if not any((x.piece, x.edge) in opened for x in s.stretches))
    return replace(dress, seams=kept).with_pieces(pieces).sewn(*seams)


def zipped_in_front(dress: Dressed, recipe: Recipe) -> Dressed:
    """The garment with its zip at the centre front: every front that lay on the fold there is cut as a pair, from the
    top to the hem.
    """
    if recipe.opening.place is not OpeningPlace.CENTRE_FRONT or not dress.pieces:
        return dress
    fronts = [
        piece for piece in dress.pieces.values()
        if piece.what.half is Half.FRONT and piece.what.layer in (Layer.OUTER, Layer.FACING)
        and piece.cloth is not ClothRole.PAPER and piece.fold
    ]  # fmt: skip
    reached = {piece.what.section for piece in fronts if piece.what.layer is Layer.OUTER}
    wanted = {what.section for what, piece in dress.pieces.items()
              if what.layer is Layer.OUTER and piece.cloth is not ClothRole.PAPER}  # fmt: skip
    missing = [section for section in wanted if section in OPENED_AT_THE_TOP and section not in reached]
    if missing:
        buttoned = step_of(recipe, ButtonStand) is not None
        why = (
            "its buttons open it there already" if buttoned
            else f"the {missing[0]} has no piece that lies on the fold at the centre front"
        )  # fmt: skip
        return dress.also(
            refused(
                "no-front-zip", "The zip cannot go in at the centre front: {why}.", *in_recipe("opening.place"),
                remedies=(
                    Remedy("zip-back", "Put it at the centre back", {"opening.place": "centre_back"}),
                    Remedy("zip-side", "Put it in the side seam", {"opening.place": "side"}),
                ),
                why=why,
            )
        )  # fmt: skip
    zip_wide = recipe.allowances.zip
    hangs = recipe.opening.below_waist - (dress.above.level if dress.above else 0.0)

    def opened(piece: Piece) -> Piece:
        centre = piece.fold
        assert centre is not None
        over = (p.fold for p in fronts if p.what.section is piece.what.section and p.what.number < piece.what.number)
        below = hangs - sum(fold.drawn_length for fold in over if fold)
        ends = piece.what.section.is_lower and 0 < below < centre.drawn_length
        mark = (Notch(centre.name, below, Sign("zip end"), kind=NotchKind.ZIP_END),) if ends else ()
        return seamed_at_centre(piece, zip_wide, turned=True, marks=mark)

    return dress.with_pieces(opened(piece) for piece in fronts)
