"""Left and right made apart and sewn together, where something is done on one side alone.

recipe ─┬─► as her left asks ──► half a garment ─┐
        └─► as her right asks ─► half a garment ─┴─► a whole one

What comes out alike on both sides stays one piece; of what does not, a piece on the fold is opened out into a whole of
two different halves, and a pair is cut apart. Every seam of the right that differs stands beside the left's.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.open_out import OTHER, is_other, opened_out
from gentle_hem.core.cutting.splice import can_be_spliced, spliced
from gentle_hem.core.findings import Finding, Place, Remedy, in_recipe, refused
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.pattern import Edge, Mark, MarkKind, Piece
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, left_of, right_of, with_pairs
from gentle_hem.core.trim.two_cloths import LEFT_ONE, RIGHT_ONE, also
from gentle_hem.core.what import Layer, Panel, What
from gentle_hem.core.workroom import Dressed

OneSide = Literal["left", "right"]

AT_THE_FOLD, FACED = 0.05, 25.0
"""Two halves end at the same places of the centre within so much, and those of a facing, whose inner edge is sewn to
nothing (mm).
"""


def is_alike(recipe: Recipe) -> bool:
    """Whether left and right are asked to be alike."""
    return all(step.is_alike for step in recipe.steps)


def for_side(recipe: Recipe, side: OneSide) -> Recipe:
    """The recipe as one side asks for it: what is for the other alone is left off, each step in its place."""
    return recipe.model_copy(update={"steps": tuple(step.for_side(side) for step in recipe.steps)})


def do_not_go_together(recipe: Recipe, why: str) -> Finding:
    """What is said where the two sides cannot be sewn together."""
    where = [f"steps.{place}" for place, step in enumerate(recipe.steps) if not step.is_alike]
    off = Remedy("alike", "Make both sides alike", {f"{place}.off": True for place in where})
    return refused(
        "sides-do-not-go-together", "Left and right cannot be sewn together: {why}. Both are drawn as the left is.",
        *in_recipe(*where), remedies=(off,), why=why,
    )  # fmt: skip


def found_on_right(left: Dressed, right: Dressed) -> list[Finding]:
    """What was found on the right alone, where the two cannot be sewn together: it may be why."""
    return [_of_side(found, "right") for found in right.findings if found not in left.findings]


def sewn_together(left: Dressed, right: Dressed) -> Dressed:
    """A garment of two half garments. Raises CannotMake where they do not go together."""
    left, right = _of_one(left, "left"), _of_one(right, "right")
    left, right = _called_as(left, right), _called_as(right, left)
    sides = _Sides(left.pieces, right.pieces)
    pieces = sides.pieces()
    flat = {
        **{what: piece for what, piece in left.unspread.items() if what not in sides.whole},
        **{sides.of_right(what): replace(piece, what=sides.of_right(what))
           for what, piece in right.unspread.items() if what not in sides.whole},
        **{what: _whole(left.unspread.get(what, left.pieces[what]), right.unspread.get(what, right.pieces[what]))
           for what in sides.whole if what in left.unspread or what in right.unspread},
    }  # fmt: skip
    theirs = {right_of(name): ways for name, ways in right.remedies.items()}
    return replace(
        left, pieces=pieces, unspread=flat, seams=tuple(sides.seams(left, right)),
        findings=tuple(_said(left.findings, right.findings, sides)), remedies={**left.remedies, **theirs},
    )  # fmt: skip


def _of_one(dress: Dressed, side: OneSide) -> Dressed:
    """A half garment in which nothing is cut apart yet: of what was, only its own side's, as if both were of it."""
    twins = {what for what in dress.pieces if replace(what, other=not what.other) in dress.pieces}
    if not twins:
        return dress
    is_own = {what: what.other is (side == "right") for what in twins}
    there = {
        replace(what, other=False) if what in twins else what: replace(
            piece, what=replace(what, other=False), cut=2 * piece.cut, turned_over=False
        ) if what in twins else piece
        for what, piece in dress.pieces.items() if is_own.get(what, True)
    }  # fmt: skip

    def own(run: Run) -> Run:
        return replace(run, stretches=tuple(replace(s, piece=replace(s.piece, other=False)) for s in run.stretches))

    seams: dict[str, Seam] = {}
    for seam in dress.seams:
        name, mine = left_of(seam.name), [stretch.piece for stretch in seam.stretches if stretch.piece in twins]
        if len({what.other for what in mine}) > 1:  # down the centre, from one of them to the other
            seams[name] = replace(seam, title=name, a=own(seam.a), b=own(seam.a))
        elif all(is_own[what] for what in mine):
            seams[name] = replace(seam, title=name, a=own(seam.a), b=own(seam.b))
    flat = {replace(w, other=False): replace(p, what=replace(w, other=False))
            for w, p in dress.unspread.items() if is_own.get(w, True)}  # fmt: skip
    return replace(dress, pieces=there, seams=tuple(seams.values()), unspread=flat)


def _called_as(dress: Dressed, other: Dressed) -> Dressed:
    """A half garment in which the panel at the centre of what is cut in two is called as the uncut one of the other
    side is: the two are one half of the garment, left and right.
    """
    wholes = {
        what: what.as_panel(Panel.WHOLE)
        for what in dress.pieces
        if what.panel is Panel.CENTRE and what not in other.pieces
    }  # fmt: skip
    new = {old: what for old, what in wholes.items() if what in other.pieces and what not in dress.pieces}
    if not new:
        return dress
    names = {old.name: what.name for old, what in new.items()}

    def renamed(pieces: Mapping[What, Piece]) -> dict[What, Piece]:
        return {new.get(what, what): replace(piece, what=new.get(what, what)) for what, piece in pieces.items()}

    def run(one: Run) -> Run:
        return replace(one, stretches=tuple(replace(s, piece=new.get(s.piece, s.piece)) for s in one.stretches))

    def said(found: Finding) -> Finding:
        return replace(found, at=tuple(replace(p, piece=names.get(p.piece, p.piece)) for p in found.at))

    return replace(
        dress, pieces=renamed(dress.pieces), unspread=renamed(dress.unspread),
        seams=tuple(replace(seam, a=run(seam.a), b=run(seam.b)) for seam in dress.seams),
        findings=tuple(map(said, dress.findings)), lower=run(dress.lower), hem=run(dress.hem),
        above=dress.above and replace(dress.above, run=run(dress.above.run)),
    )  # fmt: skip


SAME = 0.1
"""Two pieces are cut as one where they lie on each other within so much (mm)."""


@dataclass
class _Sides:
    """The pieces of both sides: which are opened out into a whole, which are cut apart, and which are whole."""

    left: Mapping[What, Piece]
    right: Mapping[What, Piece]
    whole: set[What] = field(default_factory=set)
    apart: set[What] = field(default_factory=set)
    spliced: set[What] = field(default_factory=set)
    """Those that were whole on both sides already: edges of her right are called so on either."""

    def pieces(self) -> dict[What, Piece]:
        """What is cut, in the order of the left."""
        made: dict[What, Piece] = {}
        for what in dict.fromkeys((*self.left, *self.right)):
            mine, theirs = self.left.get(what), self.right.get(what)
            if what.other:
                raise CannotMake(f"the {what.name} is the other half of something that is cut apart already")
            if mine is None or theirs is None:
                made |= self._of_one_side(what, mine, theirs)
            elif mine == theirs or _are_alike(mine, theirs):
                made[what] = mine
                if can_be_spliced(mine, theirs):
                    self.spliced.add(what)
            elif mine.on_fold and theirs.on_fold:
                self.whole.add(what)
                made[what] = _whole(mine, theirs)
            elif can_be_spliced(mine, theirs):
                self.spliced.add(what)
                made[what] = spliced(mine, theirs)
            elif _is_several(mine) and _is_several(theirs):
                self.apart.add(what)
                made[what] = _left_of(mine)
                made[self.of_right(what)] = _right_of(theirs)
            else:
                raise CannotMake(f"the {what.name} goes round both sides in one, and they want two that are not alike")
        return made

    def _of_one_side(self, what: What, mine: Piece | None, theirs: Piece | None) -> dict[What, Piece]:
        piece = mine or theirs
        assert piece is not None
        if not _is_several(piece):
            raise CannotMake(
                f"the {what.name} is on one side alone, and reaches over the centre to the other; put a seam down the "
                "centre before that"
            )
        if mine:
            return {what: _left_of(mine)}
        self.apart.add(what)
        return {self.of_right(what): _right_of(piece)}

    def of_right(self, what: What) -> What:
        """What the right one of a piece is."""
        return replace(what, other=True) if what in self.apart else what

    def seams(self, left: Dressed, right: Dressed) -> list[Seam]:
        """Every seam of the left, and of the right those that are not the same."""
        mine = list(with_pairs(left.seams, left.pieces.values()))
        theirs = {seam.name: seam for seam in with_pairs(right.seams, right.pieces.values())}
        mine = [seam for seam in mine if not self._is_of(seam, right=True)]
        theirs = {name: seam for name, seam in theirs.items() if not self._is_of(seam, right=False)}
        made = self._down_centre(mine, theirs)
        joined = {(stretch.piece, stretch.edge) for seam in made for stretch in seam.a.stretches}
        mine = [seam for seam in mine if not joined & {(s.piece, s.edge) for s in seam.a.stretches}]
        for seam in mine:
            other = theirs.pop(seam.name, None)
            if other is None:
                made.append(seam)
            elif seam.is_of_itself and other.is_of_itself:
                made.append(replace(seam, b=self._on_right(other.b)))
            else:
                made += [seam, *self._beside(seam, other)]
        for seam in theirs.values():
            title = seam.title if self._is_of(seam, right=True) else right_of(seam.title)
            made.append(replace(seam, title=title, a=self._on_right(seam.a), b=self._on_right(seam.b)))
        return made

    def _is_of(self, seam: Seam, *, right: bool) -> bool:
        """Whether a seam is sewn to one side, by name, of a piece that was whole on both."""
        edges = [stretch.edge for stretch in seam.stretches if stretch.piece in self.spliced]
        return bool(edges) and all(is_other(edge) is right for edge in edges)

    def _down_centre(self, left: list[Seam], right: dict[str, Seam]) -> list[Seam]:
        """The seams down the centre that one side has in more stretches than the other, each as one; those of the right
        are taken out of what is given.
        """
        parts: dict[tuple[object, ...], tuple[list[Stretch], list[Stretch]]] = {}
        for k, (seams, pieces) in enumerate(((left, self.left), (right.values(), self.right))):
            for seam in seams:
                stretch = seam.a.stretches[0]
                what, edge = stretch.piece, pieces[stretch.piece].edge(stretch.edge)
                if seam.is_of_itself and len(seam.a.stretches) == 1 and edge.role.is_centre:
                    kind = (what.section, what.half, what.layer, what.number, edge.role)
                    parts.setdefault(kind, ([], []))[k].append(stretch)
        made = []
        for mine, theirs in parts.values():
            if not mine or not theirs or {s.piece for s in mine} == {s.piece for s in theirs}:
                continue
            a, b = (_downward(s, pieces) for s, pieces in ((mine, self.left), (theirs, self.right)))
            fewest = min((a, self.left), (b, self.right), key=lambda one: len(one[0].stretches))
            [*_, lowest] = fewest[0].stretches
            made.append(Seam(f"{lowest.piece.name} {lowest.edge} seam", a, self._on_right(b)))
            for name in [name for name, seam in right.items() if seam.a.stretches[0] in theirs and seam.is_of_itself]:
                del right[name]
        return made

    def _beside(self, seam: Seam, other: Seam) -> list[Seam]:
        """The seam of the right, where it is another than the left's."""
        a, b = self._on_right(other.a), self._on_right(other.b)
        if (a.stretches, b.stretches) == (seam.a.stretches, seam.b.stretches):
            return []
        repeats = other.repeats and right_of(other.repeats)
        return [replace(other, title=right_of(other.title), a=a, b=b, repeats=repeats)]

    def _on_right(self, run: Run) -> Run:
        return replace(run, stretches=tuple(self._stretch(stretch) for stretch in run.stretches))

    def _stretch(self, stretch: Stretch) -> Stretch:
        if stretch.piece not in self.whole:
            return replace(stretch, piece=self.of_right(stretch.piece))
        piece = self.right[stretch.piece]
        edge = stretch.edge + OTHER
        if piece.at_edge(stretch.edge) is None:  # a line marked inside, which runs as it did
            return replace(stretch, edge=edge)
        long = piece.edge(stretch.edge).drawn_length
        return replace(
            stretch, edge=edge, backwards=not stretch.backwards,
            start=0.0 if stretch.end is None else long - stretch.end,
            end=long - stretch.start if stretch.start else None,
        )  # fmt: skip

    def place(self, place: Place, names: Mapping[str, What]) -> Place:
        """Where something that was found on the right is, in the whole garment."""
        what = names.get(place.piece)
        if what is None or (what not in self.whole and what not in self.apart):
            return place
        on_whole = what in self.whole and place.edge
        return replace(place, piece=self.of_right(what).name, edge=place.edge + OTHER if on_whole else place.edge)


def _downward(stretches: list[Stretch], pieces: Mapping[What, Piece]) -> Run:
    """Upright stretches laid end to end, the highest first, all of them downwards."""
    paths = {s: pieces[s.piece].edge(s.edge).path for s in stretches}
    ordered = sorted(stretches, key=lambda s: -max(paths[s].start.y, paths[s].end.y))
    return Run(tuple(replace(s, backwards=paths[s].start.y < paths[s].end.y) for s in ordered))


def _are_alike(mine: Piece, theirs: Piece) -> bool:
    """Whether two pieces differ by no more than can be cut: what hangs from two sides is fitted to each by itself."""
    if (mine.on_fold, mine.cut, mine.cloth, len(mine.edges)) != (
        theirs.on_fold, theirs.cut, theirs.cloth, len(theirs.edges)
    ):  # fmt: skip
        return False
    if (len(mine.darts), len(mine.notches), len(mine.marks)) != (
        len(theirs.darts), len(theirs.notches), len(theirs.marks)
    ):  # fmt: skip
        return False
    return all(
        (a.name, a.role, a.allowance) == (b.name, b.role, b.allowance)
        and all(
            a.path.point_at(share * a.drawn_length).distance(b.path.point_at(share * b.drawn_length)) < SAME
            for share in (0.0, 0.25, 0.5, 0.75, 1.0)
        )
        for a, b in zip(mine.edges, theirs.edges, strict=True)
    ) and all(
        abs(a.intake - b.intake) < SAME and a.apex.distance(b.apex) < SAME and abs(a.at - b.at) < SAME
        for a, b in zip(mine.darts, theirs.darts, strict=True)
    )


def _is_several(piece: Piece) -> bool:
    """Whether as many of it are for the left as for the right."""
    return not piece.on_fold and piece.cut % 2 == 0


def _left_of(piece: Piece) -> Piece:
    return replace(piece, cut=piece.cut // 2, remark=also(piece.remark, LEFT_ONE))


def _right_of(piece: Piece) -> Piece:
    made = replace(piece, what=replace(piece.what, other=True), cut=piece.cut // 2)
    if piece.alike:
        return replace(made, remark=also(piece.remark, "for the right"))
    return replace(made, turned_over=True, remark=also(piece.remark, RIGHT_ONE))


def _whole(mine: Piece, theirs: Piece) -> Piece:
    """Two halves on the fold as one whole piece, its left from one and its right from the other."""
    fold, their_fold = mine.fold, theirs.fold
    assert fold is not None
    assert their_fold is not None
    # a facing's inner edge is sewn to nothing, and each side carried it on to the centre by itself
    near = FACED if mine.what.layer is Layer.FACING else AT_THE_FOLD
    ends = ((fold.path.start, their_fold.path.start), (fold.path.end, their_fold.path.end))
    if any(a.distance(b) > near for a, b in ends):
        raise CannotMake(
            f"the two halves of the {mine.what.name} do not end at the same place of its centre; let both end alike "
            "there, or put a seam down it"
        )
    start, end = (a if a.distance(b) <= AT_THE_FOLD else a.towards(b, 0.5) for a, b in ends)
    left, right = opened_out(mine), opened_out(theirs)
    edges = _between(start, end, [edge for edge in left.edges if not is_other(edge.name)])
    others = _between(end, start, [edge for edge in right.edges if is_other(edge.name)])
    marks = right.marks[len(theirs.marks) : 2 * len(theirs.marks)]
    return replace(
        left, edges=(*edges, *others), alike=False, bust_point=mine.bust_point or theirs.bust_point,
        darts=(*(d for d in left.darts if not d.edge.endswith(OTHER)), *(d for d in right.darts if is_other(d.edge))),
        notches=(*(n for n in left.notches if not is_other(n.edge)), *(n for n in right.notches if is_other(n.edge))),
        marks=(
            *mine.marks, *(replace(m, name=m.name and m.name + OTHER) for m in marks),
            Mark(MarkKind.CENTRE, Path.through(start, end)),
        ),
        grain=(start, end),
        remark=also(mine.remark, "left and right are not alike: cut it right side up"),
    )  # fmt: skip


def _between(fold_start: Point, fold_end: Point, edges: list[Edge]) -> list[Edge]:
    """The edges of one half, from where the fold ends round to where it starts."""
    edges[0] = replace(edges[0], path=edges[0].path.starting_at(fold_end))
    edges[-1] = replace(edges[-1], path=edges[-1].path.ending_at(fold_start))
    return edges


def _said(left: tuple[Finding, ...], right: tuple[Finding, ...], sides: _Sides) -> list[Finding]:
    """What was found on both sides once, and of which it is where it is one's alone."""
    names = {what.name: what for what in (*sides.left, *sides.right)}
    made = [found if found in right else _of_side(found, "left") for found in left]
    for found in right:
        if found not in left:
            places = tuple(sides.place(place, names) for place in found.at)
            made.append(_of_side(replace(found, at=places), "right"))
    return made


def _of_side(found: Finding, side: OneSide) -> Finding:
    return replace(found, template=f"On her {side}: " + found.template)
