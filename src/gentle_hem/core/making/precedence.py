"""What must be done before what, and why: read off the pieces and their edges.

bodice front ┊ bodice back
   waist ════╪════ waist        the waist seam runs across the side seam: the side seam comes first,
             ┊ side             or, where the sides are sewn last, it comes after
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import combinations

from gentle_hem.core.making.operation import Before, Closure, Operation, School, Work
from gentle_hem.core.making.seam_work import Sewn
from gentle_hem.core.making.sorts import SMALL, SMALL_PANELS, Sort
from gentle_hem.core.making.spoken import plain
from gentle_hem.core.pattern import MarkKind, Piece
from gentle_hem.core.seams import Stretch
from gentle_hem.core.what import Layer, Section, What

Place = tuple[What, str]
"""An edge of a piece."""

AT_END = 0.01
"""How near the end of an edge a stretch must come to reach it (mm)."""

TRIED_ON = {
    Sort.SHOULDER, Sort.PANEL, Sort.BIB, Sort.TIER, Sort.BAND, Sort.SIDE, Sort.CROTCH, Sort.WAIST,
}  # fmt: skip
"""What must be sewn before there is a dress to try on."""

JOINS = {Sort.BAND, Sort.TIER, Sort.WAIST}
"""What joins one section below another."""

CLOSED_OVER = {Sort.WAIST, Sort.BAND, Sort.COLLAR, Sort.FACING, Sort.CENTRE}
"""What the zip runs through, or is closed over by its inside."""

CLOSE_A_SLIT = {Sort.SHOULDER, Sort.SIDE, Sort.UNDERARM, Sort.SLEEVE, Sort.COLLAR}
CATCH_LOOPS = {Sort.LACED, Sort.SLIT, Sort.FACING, Sort.LINING}

PREPARING = (Work.CUT, Work.MARK, Work.STAYSTITCH, Work.FUSE)
AFTER_FITTING = (Work.SEAM, Work.CLOSURE, Work.HEM, Work.HANG, Work.SET_IN)


class Precedence:
    """The operations of a garment and what is known of their order."""

    def __init__(
        self, operations: Sequence[Operation], sewn: Mapping[str, tuple[Sewn, ...]], pieces: Mapping[What, Piece],
        school: School,
    ) -> None:  # fmt: skip
        self.operations = operations
        self.sewn = sewn
        """The seams of each operation that has any, by its key."""
        self.pieces = pieces
        self.school = school
        self.by_key = {one.key: one for one in operations}

    def all(self) -> tuple[Before, ...]:
        """Every pair of which one must come first, each with its first reason."""
        found: dict[tuple[str, str], Before] = {}
        for before in (
            *self._prepared(), *self._darts(), *self._gathered(), *self._on_one_edge(), *self._closed(),
            *self._small_parts(), *self._edges(), *self._crossing(), *self._fitted(), *self._by_practice(),
            *self._hung(), *self._pressed(),
        ):  # fmt: skip
            if (before.then, before.first) not in found and before.first != before.then:
                found.setdefault((before.first, before.then), before)
        return tuple(found.values())

    def _doing(self, *works: Work) -> list[Operation]:
        return [one for one in self.operations if one.work in works]

    def _sewing(self) -> list[Operation]:
        return [one for one in self.operations if one.key in self.sewn]

    def _prepared(self) -> Iterator[Before]:
        """Nothing is marked before it is cut, nothing sewn before it is marked, stayed and fused."""
        cuts, marks = self._doing(Work.CUT), self._doing(Work.MARK)
        for mark in marks:
            for cut in cuts:
                yield Before(cut.key, mark.key, "it is cut first")
        for one in self.operations:
            if one.work in (Work.CUT, Work.MARK):
                continue
            for mark in marks:
                yield Before(mark.key, one.key, "marks are made while everything lies flat")
            if one.work in PREPARING:
                continue
            touched = set(one.pieces)
            for stay in self._doing(Work.STAYSTITCH):
                if touched & set(stay.pieces):
                    yield Before(stay.key, one.key, "its curved edges stretch when they are handled")
            for fuse in self._doing(Work.FUSE):
                stiff = {what.as_layer(layer) for what in fuse.pieces for layer in (Layer.OUTER, Layer.FACING)}
                if touched & stiff:
                    yield Before(fuse.key, one.key, "it is fused while it lies flat")

    def _darts(self) -> Iterator[Before]:
        """The darts and pleats of a piece are stitched before its edges are sewn or finished."""
        for dart in self._doing(Work.DARTS, Work.PLEATS):
            for one in self.operations:
                worked = one.key in self.sewn or one.edges or one.work is Work.GATHER
                if worked and one.work not in PREPARING and dart.pieces[0] in one.pieces:
                    yield Before(dart.key, one.key, f"the {dart.work} of a piece come before its seams")

    def _gathered(self) -> Iterator[Before]:
        for gather in self._doing(Work.GATHER):
            for key, seams in self.sewn.items():
                if any(gather.key == f"gather {sewn.walked.name}" for sewn in seams):
                    yield Before(gather.key, key, "it is drawn up to length first")

    def _on_one_edge(self) -> Iterator[Before]:
        """Two that use one edge: what lies inside first, what covers it after, as they stand in the trade's order."""
        using: dict[Place, list[Operation]] = defaultdict(list)
        for one in self.operations:
            if one.key in self.sewn or one.edges:
                for place in dict.fromkeys((stretch.piece, stretch.edge) for stretch in one.stretches):
                    using[place].append(one)
        for there in using.values():
            for a, b in combinations(sorted(there, key=lambda one: one.rank), 2):
                yield Before(a.key, b.key, "both are sewn to one edge, this one over it")

    # crossing

    def _crossing(self) -> Iterator[Before]:
        """A seam that runs across another comes after it, or before it where that one is left to the last."""
        working = [one for one in self.operations if one.key in self.sewn or one.edges or one.work is Work.GATHER]
        crosses = {
            (one.key, other.key)
            for one in working
            for other in self._sewing()
            if one.key != other.key and self._runs_across(one, other)
        }
        for one, other in sorted(crosses):
            across, crossed = self.by_key[one], self.by_key[other]
            if across.work is Work.GATHER and self._sides_last(crossed):
                continue  # front and back are drawn up apart while they lie flat
            mutual = (other, one) in crosses
            if crossed.opens and across.rank < crossed.rank:
                yield Before(one, other, "it lies level on both sides before it is closed over")
            elif not mutual:
                yield Before(other, one, "this one runs across it")
            elif across.rank < crossed.rank:
                yield Before(one, other, self._why_last(crossed))

    def lies_flat(self) -> bool:
        """Whether the side seams close every join they meet above it and below it, so that they can be last."""
        sides = [one for one in self._sewing() if self._sides_last(one)]
        joins = [one for one in self._sewing() if any(sewn.sort in JOINS for sewn in self.sewn[one.key])]
        return all(
            self._runs_across(side, join)
            for side in sides
            for join in joins
            if self._runs_across(join, side)
        )  # fmt: skip

    def _why_last(self, last: Operation) -> str:
        if self._sides_last(last):
            return "sides last, so that it can be let out"
        return "sewn while it lies flat, the long seam over it in one"

    def _sides_last(self, one: Operation) -> bool:
        sides = any(sewn.sort in (Sort.SIDE, Sort.UNDERARM) for sewn in self.sewn[one.key])
        return sides and self.school is School.WAIST_FIRST

    def _runs_across(self, one: Operation, other: Operation) -> bool:
        """Whether the edges of one operation go on from piece to piece over a seam of the other."""
        mine = {(stretch.piece, stretch.edge) for stretch in one.stretches}
        ends: dict[Place, list[Place]] = defaultdict(list)
        for stretch in one.stretches:
            for neighbour in self._neighbours(stretch):
                ends[neighbour].append((stretch.piece, stretch.edge))
        for sewn in self.sewn[other.key]:
            seam = sewn.walked.seam
            if seam.is_of_itself:
                if any((s.piece, s.edge) in ends and (s.piece, s.edge) not in mine for s in seam.a.stretches):
                    return True
                continue
            a = {edge for s in seam.a.stretches for edge in ends.get((s.piece, s.edge), ())}
            b = {edge for s in seam.b.stretches for edge in ends.get((s.piece, s.edge), ())}
            if a and b and (a != b or len(a) > 1 or sewn.first == sewn.last):
                return True
        return False

    def _neighbours(self, stretch: Stretch) -> Iterator[Place]:
        """The edges that meet a stretch at an end of its edge."""
        piece = self.pieces[stretch.piece]
        at = piece.at_edge(stretch.edge)
        if at is None:
            return
        long = piece.edges[at].drawn_length
        if stretch.start < AT_END:
            yield piece.what, piece.edges[at - 1].name
        if stretch.end is None or stretch.end > long - AT_END:
            yield piece.what, piece.edges[(at + 1) % len(piece.edges)].name

    # parts

    def _small_parts(self) -> Iterator[Before]:
        """A small part, a facing, a lining is made up before it is set on."""
        for made in self._sewing():
            own = {stretch.piece for stretch in made.stretches}
            if len({(w.section, w.layer, w.number) for w in own}) != 1 or not all(_is_part(w) for w in own):
                continue
            for one in self._sewing():
                theirs = {stretch.piece for stretch in one.stretches}
                if own & theirs and theirs - own and one.rank > made.rank:
                    what = made.stretches[0].piece
                    yield Before(made.key, one.key, f"the {_part(what)} is made up first")

    def _edges(self) -> Iterator[Before]:
        """A small part's or facing's own edges are finished before it is set on; an edge above a hem after the hem."""
        alone = [one for one in self.operations if one.edges and one.key not in self.sewn and one.work is not Work.FUSE]
        for one in alone:
            small = all(_is_part(e.piece) and e.piece.layer is not Layer.LINING for e in one.edges)
            for other in (*self._sewing(), *self._doing(Work.GATHER)):
                seams = self.sewn.get(other.key, ())
                made_up = bool(seams) and all(sewn.sort is Sort.MADE_UP for sewn in seams)
                if small and not made_up and one.rank < other.rank and set(one.pieces) & set(other.pieces):
                    yield Before(one.key, other.key, "its own edges are finished first")
        hem = self.by_key.get("hem")
        for one in alone:
            if hem and one.work is Work.EDGE and one.rank > hem.rank and set(one.pieces) & set(hem.pieces):
                yield Before(hem.key, one.key, "its hem is folded before its top is stitched")

    def _fitted(self) -> Iterator[Before]:
        """The fitting comes when there is something to try on, before what is hard to undo."""
        for fitting in self._doing(Work.FIT):
            for one in self._sewing():
                sorts = {sewn.sort for sewn in self.sewn[one.key] if sewn.layer is Layer.OUTER}
                if one.rank < fitting.rank and sorts & TRIED_ON:
                    yield Before(one.key, fitting.key, "there is nothing to try on before")
            for one in self._doing(*AFTER_FITTING):
                if fitting.rank < one.rank:
                    yield Before(fitting.key, one.key, "what it shows is still easy to change")

    def _closed(self) -> Iterator[Before]:
        for zip_in in self.operations:
            if Closure.ZIP not in zip_in.closures:
                continue
            for one in self._sewing():
                sorts = {sewn.sort for sewn in self.sewn[one.key]}
                if one.rank < zip_in.rank and sorts & CLOSED_OVER:
                    yield Before(one.key, zip_in.key, "the zip is closed over it, so that its ends align")
                elif one.rank > zip_in.rank and Sort.CAPE in sorts:
                    yield Before(zip_in.key, one.key, "zip before the cape, so that its ends align")
                elif one.rank > zip_in.rank and Sort.LINING in sorts:
                    yield Before(zip_in.key, one.key, "the lining is closed over its tape")

    def _by_practice(self) -> Iterator[Before]:
        """What nothing on the pieces tells: common practice (trade 13.1)."""
        for one in self._sewing():
            sorts, sections = self._sorts(one), {what.section for what in one.pieces}
            for other in self._sewing():
                theirs, shared = self._sorts(other), set(one.pieces) & set(other.pieces)
                if Sort.SLIT in sorts and theirs & CLOSE_A_SLIT and shared and one.rank < other.rank:
                    yield Before(one.key, other.key, "a slit is finished while its piece lies flat")
                outer = all(sewn.layer is Layer.OUTER for sewn in (*self.sewn[one.key], *self.sewn[other.key]))
                if sorts & {Sort.BAND, Sort.BIB} and Sort.WAIST in theirs and shared and outer:
                    yield Before(one.key, other.key, "it is sewn to the upper part first, then to the lower")
                looped = any(m.kind is MarkKind.LOOP for what in other.pieces for m in self.pieces[what].marks)
                if Section.LOOPS in sections and theirs & CATCH_LOOPS and looped:
                    yield Before(one.key, other.key, "the loops are caught in this seam")

    def _sorts(self, one: Operation) -> set[Sort]:
        return {sewn.sort for sewn in self.sewn[one.key]}

    def _hung(self) -> Iterator[Before]:
        """What works on a hem waits until the dress has hung, and it hangs as it will be worn."""
        hang, level = self.by_key.get("hang"), self.by_key.get("level")
        if hang is None or level is None:
            return
        yield Before(hang.key, level.key, "it is levelled when it has grown")
        for one in self.operations:
            if one in (hang, level) or one.work in PREPARING or not set(one.pieces) & set(hang.pieces):
                continue
            if one.rank > level.rank and (one.work is Work.HEM or one.key in self.sewn):
                yield Before(level.key, one.key, "hem after hanging")
            elif one.rank < hang.rank and (one.key in self.sewn or Closure.ZIP in one.closures):
                yield Before(one.key, hang.key, "it hangs as it will be worn")

    def _pressed(self) -> Iterator[Before]:
        for press in self._doing(Work.PRESS):
            for one in self.operations:
                yield Before(one.key, press.key, "everything is done")


def _is_part(what: What) -> bool:
    """Whether a piece belongs to something that is made up before it is set on: a trim, a facing, a lining."""
    return what.section in SMALL or what.panel in SMALL_PANELS or what.layer is not Layer.OUTER


def _part(what: What) -> str:
    return str(what.layer) if what.layer is not Layer.OUTER else plain(what)


def in_order(operations: Iterable[Operation], before: Iterable[Before]) -> list[Operation]:
    """The operations in an order that keeps every ``before``, as near the usual one as it lets.

    Raises ValueError naming those that wait for each other, which no garment should bring about.
    """
    waiting = {one.key: one for one in operations}
    firsts: dict[str, set[str]] = defaultdict(set)
    for pair in before:
        firsts[pair.then].add(pair.first)
    done: list[Operation] = []
    order = {key: place for place, key in enumerate(waiting)}
    while waiting:
        free = [one for one in waiting.values() if not firsts[one.key] & waiting.keys()]
        if not free:
            raise ValueError(f"these wait for each other: {', '.join(sorted(waiting))}")
        first = min(free, key=lambda one: (one.rank, order[one.key]))
        done.append(waiting.pop(first.key))
    return done
