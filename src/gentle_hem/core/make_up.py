"""Recipe in, garment out. Pure: the same recipe always makes the same garment.

block ─► steps ─► band ─► lower part ─► fitted to the edge above ─► trims ─► lining
              └─ or carried on down as a gown ──────────────────┘      └─► joins, seams, wear
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import partial
from typing import Any

from pydantic import ValidationError

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
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.drafting import Step
from gentle_hem.core.estimates import USUAL_BUST, from_size
from gentle_hem.core.fault import fault
from gentle_hem.core.figure import MEASURES, Figure, WatchedFigure
from gentle_hem.core.findings import Finding, Place, Remedy, in_recipe, note, refused, stop
from gentle_hem.core.fit import fitted, remedies
from gentle_hem.core.front_openings import buttoned_down_below, zipped_in_front
from gentle_hem.core.garment import Garment
from gentle_hem.core.join import Unrolled, stitched, unroll
from gentle_hem.core.kept_stages import once
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.parts import BodiceMade, EdgeAbove, Host, LowerMade
from gentle_hem.core.pattern import Edge, Piece, finished_alone
from gentle_hem.core.recipe import AsCut, Recipe, changed, step_of, with_step
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Manner, Run, Seam, of_pieces, with_pairs
from gentle_hem.core.sound import sound, too_large
from gentle_hem.core.steps.base import take
from gentle_hem.core.steps.ends import EndsAt
from gentle_hem.core.style.style import style_bodice
from gentle_hem.core.trim.base import Turn
from gentle_hem.core.walk import WAIST_SEAM, Walked, findings_for, walk
from gentle_hem.core.wear import wear
from gentle_hem.core.what import Half, Layer, Section, What
from gentle_hem.core.workings import Worked, Workings
from gentle_hem.core.workroom import Dressed
from gentle_hem.core.worn import across_waist, length_of, worn


def make_up(recipe: Recipe) -> Garment:
    """Everything a recipe makes: pieces, walked seams, workings and findings.

    Never raises for a valid recipe; a dress that cannot be sewn or worn has findings that say why. An error nobody
    foresaw ends its stage, not the rest.
    """
    findings = tuple(agreement(recipe.figure))
    figure = recipe.figure.watched()
    recipe = recipe.model_copy(update={"figure": figure})
    told = _Told(Workings(), Dressed(recipe.allowances, recipe.opening, figure, findings=findings))
    ended: list[Finding] = []
    try:
        _made_up(recipe, told)
    except CannotMake as wrong:
        ended.append(
            stop(
                "cannot-be-made", "The {part} cannot be drawn with these numbers: {why}. Look at the last one.",
                *in_recipe(wrong.field or "lower"), part=recipe.lower.title.lower(), why=wrong.why,
            )
        )  # fmt: skip
    except Exception as error:
        ended.append(fault("garment", error))
    seams = with_pairs(told.dress.seams, told.dress.pieces.values())
    pieces, unsound = _drawable(_finished(told.dress.pieces, seams, recipe.cloths).values())
    seams = of_pieces(seams, pieces)
    walked: list[Walked] = []
    for seam in seams:
        try:
            walked.append(walk(seam, pieces, told.dress.remedies.get(seam.name, ())))
        except Exception as error:
            ended.append(fault(seam.name, error))
    walked = [_reasoned(seam, told.notes) if seam.seam.is_join else seam for seam in walked]
    findings = (
        *told.dress.findings, *_unused(figure, told.dress), *ended, *unsound, *_walked(walked),
        *shape.findings_for(pieces, seams),
    )  # fmt: skip
    if is_cut(recipe):
        findings = tuple(_without_ways_to_recut(found) for found in findings)
    return Garment(tuple(pieces.values()), tuple(walked), tuple(told.notes), findings, told.draft, told.dress.waists,
                   told.dress.unspread)  # fmt: skip


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


def _made_up(recipe: Recipe, told: _Told) -> None:
    """Stage by stage, from the block to the lining; the garment so far is told after each."""
    notes, gown, figure = told.notes, recipe.lower if isinstance(recipe.lower, Gown) else None, told.dress.figure
    block, bodice = _upper(recipe, figure, notes)
    told.draft = block.draft
    if block.edge is None:
        told.dress = told.dress.with_part(block)
        return  # nothing to hang anything from, and its own finding says so
    cut_in_one = _cut_in_one(gown, block)
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
        told.dress = _joined(told.dress, recipe, bodice.edge, notes)
        told.dress = _other_half(told.dress, bodice)
        told.dress = buttoned_down_below(told.dress, recipe)
    told.dress = zipped_in_front(told.dress, recipe)
    told.dress = _trimmed(told.dress, recipe, notes, Turn.ON_WHAT_IS_THERE)
    left = () if block.draft else [piece.what for piece in told.dress.outer_upper()]
    pieces, slid = true.trued(told.dress.pieces, with_pairs(told.dress.seams, told.dress.pieces.values()), left)
    told.dress = replace(told.dress, pieces=pieces).also(*(move.said() for move in slid))
    told.dress = _trimmed(balanced(told.dress), recipe, notes, Turn.LAST)
    told.dress = recipe.finish.on(told.dress)
    told.dress = told.dress.also(*wear(recipe, worn(told.dress, block, waist), notes))


def _cut_in_one(gown: Gown | None, block: BodiceMade) -> bool:
    return gown is not None and any(piece.bust_point is not None for piece in block.pieces)


def _upper(recipe: Recipe, figure: WatchedFigure, notes: Workings) -> tuple[BodiceMade, BodiceMade]:
    """The block, and the bodice: what the steps make of it. Both alike where there is no block yet."""
    gown = recipe.lower if isinstance(recipe.lower, Gown) else None
    given = (recipe.bodice, recipe.opening, recipe.allowances)
    block = once("block", given, figure, notes, lambda margin: _drafted(recipe, margin))
    if block.edge is None:
        return block, block
    if _cut_in_one(gown, block):
        block = block.in_section(Section.GOWN)
    steps = tuple(one for one in enumerate(recipe.steps) if gown or "bodice" in one[1].parts)
    bodice = once(
        "bodice", (*given, gown, steps), figure, notes,
        lambda margin: style_bodice(
            block, recipe.figure, recipe.allowances, margin,
            (lambda piece: gown.below(piece, recipe.figure, Workings())) if gown else None, recipe.steps,
        ),
    )  # fmt: skip
    return block, bodice


def _pinched_at_armhole(recipe: Recipe, amount: float) -> dict[str, Any]:
    """The change that pinches a wedge out of the front armhole, before anything else is done."""
    return with_step(recipe, {"kind": "wedge", "edge": "armhole", "amount": amount}, first=True)


def _hemmed(dress: Dressed, edge: EdgeAbove, gown: Gown) -> Dressed:
    """A bodice carried on down: its lowest edge is the hem."""
    pieces = [as_hem(dress.pieces[what], "waist", gown.hem) for what in edge.run.pieces]
    seams = tuple(replace(s, a=s.a.on_edge("waist", "hem"), b=s.b.on_edge("waist", "hem")) for s in dress.seams)
    run = replace(edge.run.on_edge("waist", "hem"), called="hem", why=None)
    return replace(replace(dress, seams=seams).with_pieces(pieces), hem=run, length=gown.hangs)


def _joined(dress: Dressed, recipe: Recipe, above: EdgeAbove, notes: Workings) -> Dressed:
    """The band, if there is one, and the lower part sewn to the bodice's edge."""
    host = _host(recipe, above, dress.pieces)
    band = recipe.band.make_up(host, notes)
    if band is not None:
        dress = dress.with_part(band).sewn(Seam("band seam", above.run, band.waist))
        above = band.below
        host = replace(host, above=above, waist=unroll(above.run, dress.pieces))
    lower = recipe.lower.make_up(host, notes) if recipe.cut is None else _as_cut(recipe, recipe.cut, notes)
    lower = _fitted(lower, host, recipe)
    lower = _trued(_stepped(lower, recipe, notes))
    seam = _waist_seam(dress.with_pieces(lower.pieces), recipe, above, lower)
    dress = replace(
        dress.sewn(seam).with_part(lower), lower=lower.waist, hem=lower.hem,
        length=above.level + recipe.lower.hangs - recipe.join.down,
    )  # fmt: skip
    if above.point and not lower.point:
        pointed = step_of(recipe, EndsAt)
        where = f"steps.{pointed[0]}" if pointed else "steps"
        dress = dress.also(
            refused(
                "skirt-without-point",
                "The bodice ends in a point {point} below the waist. The {part}'s edge has the length of it but is "
                "drawn without it: lay the bodice on it and draw the point before it is cut.",
                *in_recipe(where),
                remedies=(
                    Remedy("straight-waist", "End the bodice at the waist instead", {f"{where}.off": True}),
                    Remedy("circle", "Hang a circle, which follows the point", {"lower": {"kind": "circle"}}),
                ),
                part=lower.name,
                point=above.point,
            )
        )
    walked = walk(seam, dress.pieces)
    if walked.verdict.fits:
        return dress
    words = _waist_words(recipe, walked) if band is None else {}
    if is_cut(recipe):
        ways = remedies(walked, recipe.join, [], {}, words, lower, is_cut=True)
    else:
        ways = remedies(walked, recipe.join, recipe.lower.remedies(walked), lower.pin, words, lower,
                        stays=getattr(recipe.lower, "seam", None) is not None)  # fmt: skip
    return replace(dress, remedies={**dress.remedies, seam.name: ways})


def _host(recipe: Recipe, above: EdgeAbove, pieces: Mapping[What, Piece]) -> Host:
    return Host(
        above, unroll(above.run, pieces), recipe.allowances, recipe.opening, recipe.figure, recipe.join.ease,
        recipe.join.front_shorter, length_of(Half.FRONT, pieces.values()),
    )  # fmt: skip


WIDENED_WITHIN = 0.2
"""How near the words of a bodice come to widening its waist seam by as much as they are asked for (mm)."""


def _waist_words(recipe: Recipe, walked: Walked) -> dict[str, tuple[float, float]]:
    """The bodice's words that widen its waist, each with how much one millimetre of the seam adds to it.

    A bodice that ends off its waist is widened by less than its words say: it is drawn as asked, and measured.
    """
    words, surplus = recipe.bodice.waist_words(), 2 * walked.open_difference
    for _ in range(4):
        try:
            widened = changed(recipe, {path: value + surplus * share for path, (value, share) in words.items()})
        except ValidationError:
            return {}  # more than the word may say
        _, bodice = _upper(widened, widened.figure.watched(), Workings())
        if bodice.edge is None:
            return {}
        long = unroll(bodice.edge.run, {piece.what: piece for piece in bodice.pieces}).length
        got = 2 * (long - walked.upper.length)
        if abs(got - surplus) < WIDENED_WITHIN:
            return words
        if got * surplus <= 0:
            return {}
        words = {path: (value, share * surplus / got) for path, (value, share) in words.items()}
    return {}


def _without_ways_to_recut(found: Finding) -> Finding:
    """A finding without the ways out that would draw a part anew that is cut already."""
    ways = tuple(way for way in found.remedies if not any(path.partition(".")[0] == "lower" for path in way.changes))
    return found if len(ways) == len(found.remedies) else replace(found, remedies=ways)


def is_cut(recipe: Recipe) -> bool:
    """Whether its lower part is cut already, and stays as it was cut."""
    return recipe.cut is not None and not isinstance(recipe.lower, Gown)


def _as_cut(recipe: Recipe, as_cut: AsCut, notes: Workings) -> LowerMade:
    """The lower part as it was when it was cut: drawn to the bodice of then."""
    figure = as_cut.figure.watched()
    then = recipe.model_copy(
        update={**{name: getattr(as_cut, name) for name in AsCut.model_fields}, "figure": figure, "cut": None}
    )
    margin = Workings()
    _, bodice = _upper(then, figure, margin)
    if bodice.edge is None:
        raise CannotMake("there was no bodice yet when it was cut; say that it is not cut after all", "cut")
    pieces = {piece.what: piece for piece in bodice.pieces}
    above = bodice.edge
    host = _host(then, above, pieces)
    band = then.band.make_up(host, margin)
    if band is not None:
        above = band.below
        host = replace(host, above=above, waist=unroll(above.run, {**pieces, **{p.what: p for p in band.pieces}}))
    lower = _trued(_stepped(_fitted(then.lower.make_up(host, notes), host, then), then, margin))
    return replace(
        lower, findings=tuple(found for found in lower.findings if not any(
            place.recipe and place.recipe.startswith("steps") for place in found.at
        )),
    )  # fmt: skip


def _fitted(lower: LowerMade, host: Host, recipe: Recipe) -> LowerMade:
    """The lower part with done to it what the join asks for; what cannot be done is said, and the rest is done."""
    plan = recipe.join
    for _ in UNDOABLE:
        try:
            return fitted(lower, host, plan)
        except CannotMake as wrong:
            names, code, template, way, words = UNDOABLE["down" if wrong.field == "join.down" else "shorter"]
            asked = {f"join.{name}": 0.0 for name in names}
            plan = plan.model_copy(update=dict.fromkeys(names, 0.0))
            remedies_here = (Remedy(way, words, asked),)
            lower = lower.also(
                [refused(code, template, *in_recipe(*asked), remedies=remedies_here, part=lower.name, why=wrong.why)]
            )
    return fitted(lower, host, plan)


UNDOABLE = {
    "shorter": (
        ("front_shorter", "back_shorter"), "not-shorter-at-centre",
        "The {part} is not made shorter at its centre: {why}.", "as-long", "Leave it as long at the centre",
    ),
    "down": (
        ("down",), "not-cut-lower", "The waist of the {part} is not cut there: {why}.", "as-drawn",
        "Leave its waist where it is",
    ),
}  # fmt: skip
"""What a join may ask for and not get: its words, what is then said, and the way out."""


def _trued(lower: LowerMade) -> LowerMade:
    """The lower part with the ends of its seams trued."""
    drawn = {piece.what: piece for piece in lower.pieces}
    flat = true.as_unspread(drawn, {piece.what: piece for piece in lower.unspread}, lower.seams)
    trued, slid = true.trued(drawn, with_pairs(lower.seams, lower.pieces))
    return replace(lower, pieces=tuple(trued.values()), unspread=tuple(flat.values())).also(
        [move.said() for move in slid]
    )


def _stepped(lower: LowerMade, recipe: Recipe, notes: Workings) -> LowerMade:
    """The lower part with the recipe's steps done to it."""
    here = [step for step in recipe.steps if "lower" in step.parts]
    if not here or (is_cut(recipe) and all(step.parts != ("lower",) for step in here)):
        return lower
    table = Table(
        recipe.allowances, {piece.what: piece for piece in lower.pieces}, list(lower.seams),
        {"waist": lower.waist, "hem": lower.hem}, figure=recipe.figure, notes=notes.about(lower.name),
        unspread={piece.what: piece for piece in lower.unspread},
    )  # fmt: skip
    take(recipe.steps, ("lower",), table, lambda step: not is_cut(recipe) or step.parts == ("lower",))
    made = replace(
        lower, pieces=tuple(table.pieces.values()), seams=tuple(table.seams), waist=table.runs["waist"],
        hem=table.runs["hem"], unspread=tuple(table.unspread.values()),
    )  # fmt: skip
    return made.also(table.findings)


def _other_half(dress: Dressed, bodice: BodiceMade) -> Dressed:
    """The other half of a bodice that is not alike left and right, sewn to what its own half is sewn to."""
    other, edge = bodice.other_waist, bodice.edge
    if not other or edge is None:
        return dress
    there = {(p.what, e.name) for p in dress.pieces.values() for e in p.edges}
    if any((x.piece, x.edge) not in there for x in other.stretches):
        return dress  # cut off with the waist itself: what is left is sewn on by its own style line
    own = next(seam for seam in dress.seams if seam.a.stretches == edge.run.stretches)
    return dress.sewn(replace(own, title=f"{own.name}, other side", a=other))


def _waist_seam(dress: Dressed, recipe: Recipe, above: EdgeAbove, lower: LowerMade) -> Seam:
    """The edge above and the lower part's, half garment, as the recipe means them to meet."""
    fullness, manner = lower.fullness, lower.manner
    over = stitched(lower.waist.stretches, dress.pieces) / stitched(above.run.stretches, dress.pieces)
    if recipe.join.manner is not Manner.FLAT and over > 1:
        fullness, manner = over, recipe.join.manner
    return Seam(WAIST_SEAM, above.run, lower.waist, (recipe.join.ease + lower.ease) / 2, fullness, manner)


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


def _drafted(recipe: Recipe, notes: Workings) -> BodiceMade:
    """The block. Measures no outline can be drawn from give the nearest size's block, and a stop that says so."""
    try:
        return recipe.bodice.make_up(recipe.figure, recipe.opening, recipe.allowances, notes)
    except CannotMake:
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
