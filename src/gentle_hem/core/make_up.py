"""Recipe in, garment out. Pure: the same recipe always makes the same garment."""

from __future__ import annotations

from dataclasses import replace

from gentle_hem.core.agreement import agreement
from gentle_hem.core.findings import Finding
from gentle_hem.core.garment import Garment
from gentle_hem.core.join import compare, ease_remedy, findings_for, unroll
from gentle_hem.core.parts import Host
from gentle_hem.core.pattern import Piece, Seam, Verdict
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.walk import finding_for, walk
from gentle_hem.core.workings import Workings


def make_up(recipe: Recipe) -> Garment:
    """Everything a recipe makes: pieces, seams, the waist join, workings and findings.

    Never raises for a valid recipe; a dress that cannot be sewn or worn has findings that say why.
    """
    notes = Workings()
    block = recipe.bodice.make_up(recipe.figure, recipe.opening, recipe.allowances, notes)
    bodice = recipe.style.apply(block)
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
    findings += [found for walked in seams if walked.seam.name not in spoken_for and (found := finding_for(walked))]
    return Garment(tuple(pieces.values()), seams, (report,), tuple(notes), tuple(findings), bodice.draft)


def _by_name(pieces: tuple[Piece, ...]) -> dict[str, Piece]:
    return {piece.name: piece for piece in pieces}
