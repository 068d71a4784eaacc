"""Recipe in, garment out. Pure: the same recipe always makes the same garment.

block ─► steps ─► band ─► lower part ─► fitted to the edge above ─► trims ─► lining
              └─ or carried on down as a gown ──────────────────┘      └─► joins, seams, wear
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import partial
from typing import Any

from gentle_hem.core import shape
from gentle_hem.core.agreement import agreement
from gentle_hem.core.balance import balanced
from gentle_hem.core.block.looks import looked_over
from gentle_hem.core.block.proportional import ProportionalBodice
from gentle_hem.core.block.taste import Tasted
from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.cloth.cloths import Cloths
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cutting import true
from gentle_hem.core.cutting.carry import as_hem
from gentle_hem.core.drafting import Step
from gentle_hem.core.fault import fault
from gentle_hem.core.figure import MEASURES, WatchedFigure
from gentle_hem.core.findings import Finding, Place, Remedy, in_recipe, note, refused, stop
from gentle_hem.core.front_openings import buttoned_down_below, zipped_in_front
from gentle_hem.core.garment import Garment
from gentle_hem.core.join import Unrolled, unroll
from gentle_hem.core.joined import is_joined, joined_up, named
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.lower_part import is_cut, with_lower_part, with_other_half
from gentle_hem.core.parts import EdgeAbove
from gentle_hem.core.pattern import Edge, Piece, finished_alone
from gentle_hem.core.recipe import Recipe, with_step
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, of_pieces, with_pairs
from gentle_hem.core.sound import sound, too_large
from gentle_hem.core.steps.join import Became
from gentle_hem.core.trim.base import Turn
from gentle_hem.core.two_sides import OneSide, do_not_go_together, for_side, found_on_right, is_alike, sewn_together
from gentle_hem.core.upper_part import cut_in_one_with, upper_part
from gentle_hem.core.walk import Walked, findings_for, walk
from gentle_hem.core.wear import wear
from gentle_hem.core.what import Layer, What
from gentle_hem.core.workings import Worked, Workings
from gentle_hem.core.workroom import Dressed
from gentle_hem.core.worn import across_waist, worn


def make_up(recipe: Recipe, side: OneSide | None = None) -> Garment:
    """Everything a recipe makes: pieces, walked seams, workings and findings; with both sides as one of them is asked
    for, where that is told.

    Never raises for a valid recipe; a dress that cannot be sewn or worn has findings that say why. An error nobody
    foresaw ends its stage, not the rest.
    """
    findings = tuple(agreement(recipe.figure))
    figure = recipe.figure.watched()
    recipe = recipe.model_copy(update={"figure": figure})
    told = _Told(Workings(), Dressed(recipe.allowances, recipe.opening, figure, findings=findings))
    ended: list[Finding] = []
    try:
        if side is not None:
            _made_up(for_side(recipe, side), told)
        elif is_alike(recipe):
            _made_up(recipe, told)
        else:
            _made_apart(recipe, told)
    except CannotMake as wrong:
        ended.append(
            stop(
                "cannot-be-made", "The {part} cannot be drawn with these numbers: {why}. Look at the last one.",
                *in_recipe(wrong.field or "lower"), part=recipe.lower.title.lower(), why=wrong.why,
            )
        )  # fmt: skip
    except Exception as error:
        ended.append(fault("garment", error))
    seamed: Garment | None = None
    became: Became = {}
    if is_joined(recipe):
        before = told.dress
        try:
            told.dress, became = joined_up(before, recipe)
        except Exception as error:
            ended.append(fault("pieces cut in one", error))
        if became:
            seamed, faults = _as_sewn(before)
            ended += faults
    seams = with_pairs(told.dress.seams, told.dress.pieces.values())
    pieces, unsound = _drawable(_finished(told.dress.pieces, seams, recipe.cloths).values())
    seams = of_pieces(seams, pieces)
    walked, faults = _all_walked(seams, pieces, told.dress)
    ended += faults
    walked = [_reasoned(seam, told.notes) if seam.seam.is_join else seam for seam in walked]
    findings = (
        *told.dress.findings, *_unused(figure, told.dress), *ended, *unsound, *_walked(walked),
        *shape.findings_for(pieces, seams),
    )  # fmt: skip
    if is_cut(recipe):
        findings = tuple(_without_ways_to_recut(found) for found in findings)
    return Garment(
        tuple(pieces.values()), tuple(walked), tuple(told.notes), findings, told.draft, told.dress.waists,
        told.dress.unspread, seamed, named(became),
    )  # fmt: skip


def _all_walked(
    seams: Iterable[Seam], pieces: Mapping[What, Piece], dress: Dressed
) -> tuple[list[Walked], list[Finding]]:
    """Every seam walked; one whose walking fails is said to be a fault."""
    walked: list[Walked] = []
    faults: list[Finding] = []
    for seam in seams:
        try:
            walked.append(walk(seam, pieces, dress.remedies.get(seam.name, ())))
        except Exception as error:
            faults.append(fault(seam.name, error))
    return walked, faults


def _as_sewn(dress: Dressed) -> tuple[Garment, list[Finding]]:
    """A garment before any of its pieces are cut in one, for whoever draws it on her, and what could not be walked."""
    seams = with_pairs(dress.seams, dress.pieces.values())
    walked, faults = _all_walked(seams, dress.pieces, dress)
    return Garment(tuple(dress.pieces.values()), tuple(walked), waists=dress.waists, unspread=dress.unspread), faults


def _walked(seams: Iterable[Walked]) -> list[Finding]:
    """What is said of every seam; a lining's that repeats one that does not walk has been said with it."""
    seams = list(seams)
    said = {seam.name for seam in seams if not seam.verdict.fits}
    return [found for seam in seams if seam.seam.repeats not in said for found in findings_for(seam)]


@dataclass
class _Told:
    """What is said while a garment is made up: it outlives a stage that ends in an error."""

    notes: Workings
    dress: Dressed
    draft: tuple[Step, ...] = ()


def _made_apart(recipe: Recipe, told: _Told) -> None:
    """Her left and her right each made up by itself, and sewn together."""
    other = _Told(Workings(), told.dress)
    _made_up(for_side(recipe, "left"), told)
    _made_up(for_side(recipe, "right"), other)
    known = list(told.notes)
    told.notes.lines += [
        replace(line, topic=f"{line.topic}, right" if line.topic else "right")
        for line in other.notes if line not in known
    ]  # fmt: skip
    try:
        told.dress = sewn_together(told.dress, other.dress)
    except CannotMake as wrong:
        told.dress = told.dress.also(*found_on_right(told.dress, other.dress), do_not_go_together(recipe, wrong.why))


def _made_up(recipe: Recipe, told: _Told) -> None:
    """Stage by stage, from the block to the lining; the garment so far is told after each."""
    notes, gown, figure = told.notes, recipe.lower if isinstance(recipe.lower, Gown) else None, told.dress.figure
    block, bodice = upper_part(recipe, figure, notes)
    told.draft = block.draft
    if block.edge is None:
        told.dress = told.dress.with_part(block)
        return  # nothing to hang anything from, and its own finding says so
    cut_in_one = cut_in_one_with(gown, block)
    assert bodice.edge is not None
    told.draft = bodice.draft
    if block.draft:
        taste = isinstance(recipe.bodice, (Tasted, ProportionalBodice))
        pinched = partial(_pinched_at_armhole, recipe)
        told.dress = told.dress.also(*looked_over(bodice.pieces, recipe.figure, taste, pinched))
    told.dress = replace(told.dress.with_part(bodice), above=bodice.edge, waists=block.waists)
    if gown and cut_in_one:
        # a gown's lowest edge is its hem: its waist is the block's
        assert block.edge is not None
        waist = 2 * unroll(block.edge.run, {p.what: p for p in block.pieces}).length
        if gown.sides == "underarm":
            waist = max(waist, across_waist(told.dress) or 0.0)
        told.dress = _hemmed(told.dress, bodice.edge, gown)
    else:
        waist = 2 * unroll(bodice.edge.run, told.dress.pieces).length
        told.dress = with_lower_part(told.dress, recipe, bodice.edge, notes)
        told.dress = with_other_half(told.dress, bodice)
        told.dress = buttoned_down_below(told.dress, recipe)
    told.dress = zipped_in_front(told.dress, recipe)
    told.dress = _trimmed(told.dress, recipe, notes, Turn.ON_WHAT_IS_THERE)
    left = () if block.draft else [piece.what for piece in told.dress.outer_upper()]
    pieces, slid = true.trued(told.dress.pieces, with_pairs(told.dress.seams, told.dress.pieces.values()), left)
    told.dress = replace(told.dress, pieces=pieces).also(*(move.said() for move in slid))
    told.dress = _trimmed(balanced(told.dress), recipe, notes, Turn.LAST)
    told.dress = recipe.finish.on(told.dress)
    told.dress = told.dress.also(*wear(recipe, worn(told.dress, block, waist), notes))


def _pinched_at_armhole(recipe: Recipe, amount: float) -> dict[str, Any]:
    """The change that pinches a wedge out of the front armhole, before anything else is done."""
    return with_step(recipe, {"kind": "wedge", "edge": "armhole", "amount": amount}, first=True)


def _hemmed(dress: Dressed, edge: EdgeAbove, gown: Gown) -> Dressed:
    """A bodice carried on down: its lowest edge is the hem."""
    pieces = [as_hem(dress.pieces[what], "waist", gown.hem) for what in edge.run.pieces]
    seams = tuple(replace(s, a=s.a.on_edge("waist", "hem"), b=s.b.on_edge("waist", "hem")) for s in dress.seams)
    run = replace(edge.run.on_edge("waist", "hem"), called="hem", why=None)
    return replace(replace(dress, seams=seams).with_pieces(pieces), hem=run, length=gown.hangs)


def _without_ways_to_recut(found: Finding) -> Finding:
    """A finding without the ways out that would draw a part anew that is cut already."""
    ways = tuple(way for way in found.remedies if not any(path.partition(".")[0] == "lower" for path in way.changes))
    return found if len(ways) == len(found.remedies) else replace(found, remedies=ways)


def _trimmed(dress: Dressed, recipe: Recipe, notes: Workings, until: Turn) -> Dressed:
    """The trims made up in their turns: the last of them once everything is trued and notched, all others before."""
    asked = [one for one in enumerate(recipe.trims) if (one[1].turn is Turn.LAST) is (until is Turn.LAST)]
    for place, trim in asked:
        dress = trim.cut_first(dress, f"trims.{place}")
    for place, trim in sorted(asked, key=lambda one: one[1].turn):
        where = f"trims.{place}"
        try:
            dress = trim.make_up(dress, where, notes)
        except CannotMake as wrong:
            others = [other.model_dump(mode="json") for k, other in enumerate(recipe.trims) if k != place]
            leave_out = Remedy(
                "leave-out", "Take the {trim} away", {"trims": others}, values={"trim": trim.title.lower()}
            )
            dress = dress.also(
                refused(
                    "trim-left-out", "The {trim} cannot be drawn on this garment and is left out: {why}.",
                    *in_recipe(where), remedies=(leave_out,), trim=trim.title.lower(), why=wrong.why,
                )
            )  # fmt: skip
        except Exception as error:
            dress = dress.also(fault(trim.title.lower(), error, *in_recipe(where)))
    return dress


def _drawable(pieces: Iterable[Piece]) -> tuple[dict[What, Piece], list[Finding]]:
    """The pieces that can be drawn and cut out; one whose drawing fails is left off and said to be a fault."""
    kept: dict[What, Piece] = {}
    findings: list[Finding] = []
    for piece in pieces:
        if large := too_large(piece):
            findings.append(large)
            continue
        try:
            [made], found = sound([piece])
            for dart in made.darts:
                made.dart_leg_paths(dart)
            for notch in made.notches:
                made.edge(notch.edge)
            if not made.cut_line.is_closed:
                raise CannotDraw("its cut line does not close")
        except Exception as error:
            findings.append(fault(piece.name, error, Place(piece=piece.name)))
            continue
        kept[made.what] = made
        findings += found
    return kept, findings


def _finished(pieces: Mapping[What, Piece], seams: Iterable[Seam], cloths: Cloths) -> dict[What, Piece]:
    """The pieces, each from its cloth, every edge with an allowance that is in no seam saying how it is finished."""
    sewn = {(stretch.piece, stretch.edge) for seam in seams for stretch in seam.stretches}

    def said(piece: Piece, edge: Edge) -> Edge:
        alone = edge.allowance > 0 and edge.finished is None and (piece.what, edge.name) not in sewn
        return replace(edge, finished=finished_alone(edge.role)) if alone else edge

    return {
        what: replace(
            piece, edges=tuple(said(piece, edge) for edge in piece.edges),
            cloth=piece.cloth if _is_settled(piece) else cloths.role_of(what),
        )
        for what, piece in pieces.items()
    }  # fmt: skip


def _is_settled(piece: Piece) -> bool:
    """Whether its cloth is settled: paper to be laid on a block of one's own, or the contrast that a step gave it. Its
    lining is lining all the same.
    """
    return piece.cloth in (ClothRole.PAPER, ClothRole.CONTRAST) and piece.what.layer is Layer.OUTER


EXPLAINED = 0.05
"""A working that comes to within this of an edge's length says how long it is (mm)."""


def _reasoned(walked: Walked, notes: Workings) -> Walked:
    """A join with the working behind the length of either side: the part's own, or the sum of what is drawn."""
    seam, times = walked.seam, walked.times

    def why(run: Run, laid: Unrolled, fullness: float) -> Run:
        length = laid.length * fullness
        own = run.why
        if own is not None and min(abs(own - length), abs(own - times * length)) < EXPLAINED:
            return run
        return replace(run, why=_summed(run, laid, fullness, times, notes.about(seam.name)))

    return replace(
        walked, seam=replace(seam, a=why(seam.a, walked.upper, 1.0), b=why(seam.b, walked.lower, seam.fullness))
    )


def _summed(run: Run, laid: Unrolled, fullness: float, times: int, notes: Workings) -> Worked:
    """How long a run is, as the sum of the edges it is made of."""
    terms: dict[str, Any] = {}
    shares: list[str] = []
    for one in laid.runs:
        name = one.piece.name.replace(" ", "_").replace(",", "")
        while name in terms and abs(terms[name] - one.length * fullness) > EXPLAINED:
            name += "_again"
        terms[name] = one.length * fullness
        shares.append(name)
    counted = {name: shares.count(name) for name in terms}
    added = " + ".join(f"{{{name}}}" if count == 1 else f"{count} × {{{name}}}" for name, count in counted.items())
    whole = f"2 × ({added})" if times == 2 else added
    return notes.work(
        f"{run.name}, measured", times * laid.length * fullness, whole, rule="on the stitching line, darts closed",
        **terms,
    )  # fmt: skip


def _unused(figure: WatchedFigure, dress: Dressed) -> list[Finding]:
    """The measures that were taken and that nothing of this dress asked for, in one sentence."""
    unused = figure.unused
    if not unused or not dress.pieces:
        return []
    names = ", ".join(MEASURES[key] for key in unused)
    return [
        note(
            "measures-unused", "Taken, and not used by this dress: {names}.",
            *in_recipe("figure"), names=names,
        )
    ]  # fmt: skip
