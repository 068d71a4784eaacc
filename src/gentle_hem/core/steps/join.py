"""Pieces cut in one: a side panel without a side seam, a yoke without a shoulder seam, a dart closed in a yoke."""

from collections.abc import Iterator
from typing import ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.join import Now, joined, what_of
from gentle_hem.core.findings import note
from gentle_hem.core.parts import OpeningPlace
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Seam, Stretch
from gentle_hem.core.sentences import Word, choice
from gentle_hem.core.steps.base import Part, PatternStep, Side
from gentle_hem.core.what import Layer, Section, What
from gentle_hem.core.workroom import Dressed

Became = dict[tuple[What, str], Now | None]
"""What each edge of a piece became that is in another now; None for one that is gone with its seam."""


class JoinPieces(PatternStep):
    """The bodice cut in one over its side seam."""

    title: ClassVar[str] = "Cut in one over a seam"
    sentences: ClassVar[tuple[str, ...]] = (
        "The {part} is cut in one over its {seam} seam[seam=princess|panel:, {on}]; the pieces on either side are "
        "joined when all else is drawn.",
    )
    words: ClassVar[dict[str, Word]] = {
        **PatternStep.own_words,
        "seam": choice(
            "seam", ("side", "side"), ("shoulder", "shoulder"), ("princess", "princess"), ("panel", "panel"),
            help="What both edges are hollowed by is left as a dart; where they bulge the seam is needed.",
        ),
    }  # fmt: skip

    kind: Literal["join"] = "join"
    on: Side = "both"
    seam: Literal["side", "shoulder", "princess", "panel"] = "side"

    @property
    def parts(self) -> tuple[Part, ...]:
        """It is done to the made garment, and to nothing on the table."""
        return ()

    def joins(self, dress: Dressed) -> tuple[Dressed, Became]:
        """The garment with every such seam gone, and what the edges became. Raises CannotMake."""
        if self.seam == "side" and dress.opening.place is OpeningPlace.SIDE:
            raise CannotMake("the zip lies in the side seam; move it to the centre first")
        became: Became = {}
        found = False
        while (seam := next(self._asked(dress, Layer.OUTER), None)) is not None:
            found = True
            dress, now = _without(dress, seam)
            became = after(became, now)
        if not found:
            raise CannotMake(self._why_not(dress))
        while (seam := next(self._asked(dress, Layer.LINING), None)) is not None:
            try:
                dress, now = _without(dress, seam)
            except CannotMake as wrong:
                dress = dress.also(
                    note("lining-keeps-seam", "The lining keeps its {seam} seam: {why}.", seam=self.seam, why=wrong.why)
                )
                break
            became = after(became, now)
        return dress, became

    def _asked(self, dress: Dressed, layer: Layer) -> Iterator[Seam]:
        """The seams it asks for: between two pieces of a layer of its part, each over a whole edge."""
        for seam in dress.seams:
            if len(seam.a.stretches) != 1 or len(seam.b.stretches) != 1:
                continue
            a, b = seam.a.stretches[0], seam.b.stretches[0]
            if a.is_whole and b.is_whole and a.piece != b.piece and self._is_it(dress, a, layer, b.piece):
                yield seam

    def _is_it(self, dress: Dressed, stretch: Stretch, layer: Layer, other: What) -> bool:
        what = stretch.piece
        within = what.half is not other.half or what.half is None or what.half in self.halves
        return within and what.layer is layer and other.section is what.section and self._is_on(dress, stretch)

    def _is_on(self, dress: Dressed, stretch: Stretch) -> bool:
        """Whether a stretch is an edge of its part that has the seam."""
        section, piece = stretch.piece.section, dress.pieces.get(stretch.piece)
        of_part = section.is_upper if self.part == "bodice" else section.is_lower or section is Section.GOWN
        if not of_part or piece is None or piece.at_edge(stretch.edge) is None:
            return False
        return piece.edge(stretch.edge).role.value == self.seam

    def _why_not(self, dress: Dressed) -> str:
        if any(self._is_on(dress, stretch) for seam in dress.seams for stretch in seam.stretches):
            return f"something is let into the {self.seam} seam, or it runs over several pieces"
        return f"the {self.part if self.part == 'bodice' else 'lower part'} has no {self.seam} seam"


def after(before: Became, now: Became) -> Became:
    """What became of each edge, one joining after another."""

    def on(new: Now | None) -> Now | None:
        if new is None or (new.piece, new.edge) not in now:
            return new
        later = now[new.piece, new.edge]
        return later and replace(new, piece=later.piece, edge=later.edge, start=later.start + new.start)

    return {**now, **{old: on(new) for old, new in before.items()}}


def _without(dress: Dressed, seam: Seam) -> tuple[Dressed, Became]:
    """The garment with the pieces on either side of a seam in one."""
    a, b = (dress.pieces[run.stretches[0].piece] for run in (seam.a, seam.b))
    edge_a, edge_b = (run.stretches[0].edge for run in (seam.a, seam.b))
    if b.on_fold and not a.on_fold:
        a, b, edge_a, edge_b = b, a, edge_b, edge_a
    _look_over(a, b, edge_a)
    gone = {(a.what, edge_a), (b.what, edge_b)}
    if any((s.piece, s.edge) in gone for one in dress.seams if one != seam for s in one.stretches):
        raise CannotMake(f"something is sewn into the {edge_a} of the {a.name}; take that away first")
    what = what_of(a.what, b.what)
    if what not in (a.what, b.what):
        what = dress.free(what)
    made = joined(a, edge_a, b, edge_b, what)
    pieces = {}
    for old, piece in dress.pieces.items():
        if old == a.what:
            pieces[what] = made.piece
        elif old != b.what:
            pieces[old] = piece

    def moved(stretch: Stretch) -> Stretch:
        now = made.became.get((stretch.piece, stretch.edge))
        if now is None:
            return stretch
        if now.long is None:
            return replace(stretch, piece=now.piece, edge=now.edge)
        end = now.long if stretch.end is None else stretch.end
        return replace(stretch, piece=now.piece, edge=now.edge, start=now.start + stretch.start, end=now.start + end)

    seams = tuple(
        replace(
            one, a=replace(one.a, stretches=tuple(map(moved, one.a.stretches))),
            b=replace(one.b, stretches=tuple(map(moved, one.b.stretches))),
        )
        for one in dress.seams
        if one != seam
    )  # fmt: skip
    return replace(dress, pieces=pieces, seams=seams), made.became


def _look_over(a: Piece, b: Piece, edge: str) -> None:
    """Raises CannotMake where two pieces cannot be cut as one, whatever their edges are like."""
    if a.on_fold and b.on_fold:
        raise CannotMake(
            f"the {a.name} and the {b.name} both lie on the fold of the cloth; put a seam down the centre of one"
        )
    if not a.on_fold and (a.cut, a.alike, a.turned_over) != (b.cut, b.alike, b.turned_over):
        raise CannotMake(
            f"the {a.name} and the {b.name} are not cut alike: one of them is cut for both sides and the other is not"
        )
    if a.on_fold and b.cut != 2 * a.cut:
        raise CannotMake(f"the {a.name} lies on the fold and the {b.name} is not a pair")
    if a.edge(edge).turned:
        raise CannotMake(f"the {edge} of the {a.name} opens there; move the opening first")
