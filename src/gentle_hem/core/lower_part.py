"""The band and the lower part, sewn to the edge above: drawn to it, or as they were cut.

edge above ─► band ─► lower part, drawn or as cut ─► fitted ─► steps ─► trued ─► waist seam ─► ways to close it
"""

from __future__ import annotations

from collections.abc import Mapping

from pydantic import ValidationError

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting import true
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.findings import Remedy, in_recipe, refused
from gentle_hem.core.fit import fitted, remedies
from gentle_hem.core.join import stitched, unroll
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.parts import BodiceMade, EdgeAbove, Host, LowerMade
from gentle_hem.core.pattern import Piece
from gentle_hem.core.recipe import AsCut, Recipe, changed, step_of
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Manner, Seam, with_pairs
from gentle_hem.core.steps.base import take
from gentle_hem.core.steps.ends import EndsAt
from gentle_hem.core.upper_part import upper_part
from gentle_hem.core.walk import WAIST_SEAM, Walked, walk
from gentle_hem.core.what import Half, What
from gentle_hem.core.workings import Workings
from gentle_hem.core.workroom import Dressed
from gentle_hem.core.worn import length_of


def with_lower_part(dress: Dressed, recipe: Recipe, above: EdgeAbove, notes: Workings) -> Dressed:
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
        _, bodice = upper_part(widened, widened.figure.watched(), Workings())
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
    _, bodice = upper_part(then, figure, margin)
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


def with_other_half(dress: Dressed, bodice: BodiceMade) -> Dressed:
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
