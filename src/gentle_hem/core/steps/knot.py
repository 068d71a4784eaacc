"""A knot or twist at the waist: bodice and skirt opened alike down the centre front (trade 4.6, 4.7).

bodice │ ╲╲ cuts to the side      the centre moves out by cuts × amount on both, a seam is put in it, and a gap is left
───────┼── waist                  at the waist for one half to be pulled through; the waist keeps its length
skirt  │ ╱╱ cuts to the side
"""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.centre import seamed_at_centre
from gentle_hem.core.cutting.pivot import pivot
from gentle_hem.core.cutting.split import upright_grain
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import Edge, Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, length, number
from gentle_hem.core.steps.base import EdgeName, Part, PatternStep, the_edge, the_pieces
from gentle_hem.core.steps.spread import Spread
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import Half, Section, Sign

NEAREST, FURTHEST = 0.08, 0.5
"""The cuts lie within this share of the centre's way from the waist."""

PULLED_THROUGH = Sign("pull through")


class Knot(PatternStep):
    """A knot at the waist: three cuts of 3 in in bodice and skirt alike, two fingers left open."""

    title: ClassVar[str] = "Knot at the waist"
    sentences: ClassVar[tuple[str, ...]] = (
        "A knot at the waist: bodice and lower part are cut {cuts} from the centre front to the side alike, each cut "
        "opened by {amount}; {gap} is left open on either side of the waist to pull it through.",
    )
    words: ClassVar[dict[str, Word]] = {
        "cuts": number("cuts", (2, "twice"), (3, "three times"), (4, "four times"),
                       spoken=lambda value: {1: "once", 2: "twice"}.get(int(value), f"{int(value)} times")),
        "amount": length("each opened by", presets=((inches(2.75), "2 3/4 in"), (inches(3), "3 in"))),
        "gap": length("left open", presets=((20.0, "two fingers"),)),
    }  # fmt: skip

    kind: Literal["knot"] = "knot"
    cuts: Annotated[int, number_between(1, 6, "cuts")] = 3
    amount: Annotated[Length, between(5, 120)] = inches(3)
    gap: Annotated[Length, between(0, 80)] = 20.0

    @property
    def halves(self) -> tuple[Half, ...]:
        return (Half.FRONT,)

    @property
    def parts(self) -> tuple[Part, ...]:
        return "bodice", "lower"

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return "centre", "side"

    def do(self, table: Table) -> None:
        whats = the_pieces(table, Half.FRONT, "waist")
        if Section.GOWN in {what.section for what in table.pieces}:
            raise CannotMake("a gown cut in one has no waist seam to knot over; join it at the waist, or take a twist")
        for what in whats:
            piece = table.pieces[what]
            if not any(edge.role.is_centre for edge in piece.edges):
                continue
            table.spread(what, lambda one: self._opened(one, table))
            return
        raise CannotMake("no front reaches both the waist and the centre")

    def _opened(self, piece: Piece, table: Table) -> Piece:
        centre = the_edge(piece, "centre")
        if not piece.on_fold:
            raise CannotMake("its front opens at the centre; a knot is sewn in the seam there")
        if centre.drawn_length * FURTHEST < 30:
            raise CannotMake("its centre is too short for the cuts")
        upper = piece.what.section.is_upper
        flat = _dartless(seamed_at_centre(piece, table.allowances.panel), centre.name, 1 - MIDST if upper else MIDST)
        first, last = (1 - NEAREST, 1 - FURTHEST) if upper else (NEAREST, FURTHEST)
        fan = Spread.model_validate(
            {"edge": "centre", "hinge": "side", "cuts": self.cuts, "first": min(first, last), "last": max(first, last),
             "amount": self.amount}
        )  # fmt: skip
        made = fan.spread_on(flat, lambda edge: edge.role is Role.WAIST)
        made = self._marked(made, made.edge(centre.name), upper)
        return replace(made, grain=upright_grain(made, 0.3))

    def _marked(self, piece: Piece, centre: Edge, upper: bool) -> Piece:
        """Where the seam down the centre is left open, beside the waist."""
        if not self.gap:
            return piece
        at = centre.drawn_length - self.gap if upper else self.gap
        return replace(
            piece, notches=(*piece.notches, Notch(centre.name, at, PULLED_THROUGH, kind=NotchKind.OPEN)),
            remark="the centre is sewn in stages: left open between the notch and the waist until it is pulled through",
        )  # fmt: skip


MIDST = 0.25
"""Where along the centre, from the waist, the waist darts are opened: among the cuts."""


def _dartless(piece: Piece, centre: str, share: float) -> Piece:
    """A front whose waist darts are closed and opened at the centre, as part of the fullness there."""
    waist = the_edge(piece, "waist").name
    while piece.darts_of(waist):
        now = piece.darts_of(waist)[0]  # a dart that is closed moves the next one
        at = piece.edge(centre).drawn_length * share
        piece = pivot(piece, now, centre, at, piece.bust_point or now.apex, now.landmark)
        piece = replace(piece, darts=tuple(d for d in piece.darts if d.edge != centre))
    return piece
