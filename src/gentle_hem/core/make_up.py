"""Recipe in, garment out. Pure: the same recipe always makes the same garment."""

from __future__ import annotations

from dataclasses import replace

from shapely import Polygon

from gentle_hem.core.agreement import agreement
from gentle_hem.core.estimates import USUAL_BUST, from_size
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, Place, in_recipe, stop
from gentle_hem.core.garment import Garment
from gentle_hem.core.join import compare, ease_remedy, findings_for, unroll
from gentle_hem.core.parts import Host, Made
from gentle_hem.core.pattern import Piece, Seam, Verdict
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.style.style import style_bodice
from gentle_hem.core.walk import finding_for, walk
from gentle_hem.core.workings import Workings


def make_up(recipe: Recipe) -> Garment:
    """Everything a recipe makes: pieces, seams, the waist join, workings and findings.

    Never raises for a valid recipe; a dress that cannot be sewn or worn has findings that say why.
    """
    notes = Workings()
    block = _drafted(recipe, notes)
    bodice = style_bodice(block, recipe.figure, recipe.allowances, notes, recipe.style, recipe.panels, recipe.contour)
    upper_pieces = _by_name(bodice.pieces)
    upper = unroll(bodice.waist, upper_pieces, bodice.corners)

    host = Host(upper, recipe.allowances, recipe.opening, recipe.figure, recipe.join.ease)
    lower = recipe.lower.make_up(host, notes)
    pieces = upper_pieces | _by_name(lower.pieces)
    below = unroll(lower.waist, pieces, lower.corners)

    report = compare("waist seam", upper, below, recipe.join.ease + lower.ease)
    if report.verdict in (Verdict.LONGER, Verdict.SHORTER):
        ways = recipe.lower.remedies(report)
        easing = ease_remedy(report, recipe.join.ease, lower.pin)
        report = replace(report, remedies=(*ways, *([easing] if easing else [])))

    waist_seam = Seam("waist seam", bodice.waist, lower.waist, report.ease)
    seams = tuple(walk(seam, pieces) for seam in (*bodice.seams, waist_seam, *lower.seams))
    findings: list[Finding] = [*agreement(recipe.figure), *bodice.findings, *lower.findings, *findings_for(report)]
    # the waist and the bodice's side seam have findings of their own that say more than "does not walk"
    spoken_for = {"waist seam", "bodice side seam"}
    findings += _crossed(tuple(pieces.values()))
    findings += [found for walked in seams if walked.seam.name not in spoken_for and (found := finding_for(walked))]
    return Garment(tuple(pieces.values()), seams, (report,), tuple(notes), tuple(findings), bodice.draft)


def _drafted(recipe: Recipe, notes: Workings) -> Made:
    """The block. Measures no outline can be drawn from give the nearest size's block, and a stop that says so."""
    try:
        return recipe.bodice.make_up(recipe.figure, recipe.opening, recipe.allowances, notes)
    except ValueError:
        size = from_size(recipe.figure.get("bust_girth") or USUAL_BUST)
        block = recipe.bodice.make_up(Figure(measures=size), recipe.opening, recipe.allowances, Workings())
        return block.also(
            [
                stop(
                    "measures-do-not-draft",
                    "No bodice can be drawn from these measures by this school; until they are measured again the "
                    "block of bust {bust} is drawn.",
                    *in_recipe("figure", "bodice"),
                    bust=size["bust_girth"],
                )
            ]
        )


def _crossed(pieces: tuple[Piece, ...]) -> list[Finding]:
    """A piece whose outline crosses itself cannot be cut out."""
    return [
        stop(
            "outline-crosses-itself",
            "The outline of the {piece} crosses itself; the measures or style lines it is drawn from do not go "
            "together.",
            Place(piece=piece.name),
            piece=piece.name,
        )
        for piece in pieces
        if not Polygon([tuple(p) for p in piece.seam_line.flatten(0.2)]).is_valid
    ]


def _by_name(pieces: tuple[Piece, ...]) -> dict[str, Piece]:
    return {piece.name: piece for piece in pieces}
