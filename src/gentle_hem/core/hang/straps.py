"""Straps over her shoulders, folded lengthways: how each is cut, and where its places begin.

front end ──► over the shoulder ──► back end      straps that cross go over the middle of her to the other side: her
                  ╲╱                              other strap comes over as in a mirror, so that the left one is folded
                  ╱╲                              back there, and held on the middle along that fold
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np

from gentle_hem.core.block.bib import BibBodice
from gentle_hem.core.dressed.form import Form, half_width
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.hang.cuts import Cut, Worn
from gentle_hem.core.hang.mates import Side, ties
from gentle_hem.core.hang.mesh import Flags, Numbers
from gentle_hem.core.hang.stand import Stand
from gentle_hem.core.pattern import Edge, Piece, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Stretch
from gentle_hem.core.steps.top import Straps
from gentle_hem.core.style.tops import CROSSES
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import Half, What

CLEAR = 6.0
"""A strap begins so far off her at least (mm)."""

FROM_NECK, FROM_TIP = 18.0, 15.0
"""Over the shoulder it lies so far from the neck and from the shoulder tip at least (mm)."""

SAMPLES, PUSHED = 24, 6
"""A line over her is followed by so many places on either side of the shoulder, and pushed off her so many times."""

STEEP, OVER, OVER_AT = 0.3, 8.0, 60.0
"""Where straps cross, the one over the other begins so much further out for its distance from the middle of her, up to
so far (mm), where it lies so far in front or behind."""

ON_TOP = 20.0
"""What of it begins no lower than so far below its highest place does not slide sideways (mm): it would slip off a form
without rubbing."""

ENDS = {Half.FRONT: "end", Half.BACK: "start"}
"""What a strap's end is called that is sewn on in front, and behind."""


def crossing(recipe: Recipe) -> Half | None:
    """Where a recipe's straps go over to her other side; None where they do not."""
    if isinstance(recipe.bodice, BibBodice):
        return Half.BACK
    return next((CROSSES.get(s.way) for s in recipe.steps if isinstance(s, Straps) and not s.off), None)


@dataclass(frozen=True)
class Strap:
    """Her left strap, folded lengthways: laid flat from its back end (x = 0) to its front end, its outer edge along
    y = 0; in two parts where it is folded back at the middle of her.
    """

    corners: tuple[Point, Point, Point, Point]
    """Of the whole: outer and inner at the back end, outer and inner at the front end."""
    lines: tuple[Numbers, Numbers]
    """Its outer and its inner edge over her (mm), from back to front; to her right where it has crossed."""
    cuts: tuple[Cut, ...]
    """The part that is sewn on in front first."""
    crosses: Half | None
    ends: Mapping[Half, Walked]
    """The seams it is sewn on by."""
    places: Mapping[Half, Numbers]
    """Where what it is sewn to begins at both ends of each (mm)."""

    @classmethod
    def over(
        cls, piece: Piece, ends: Mapping[Half, Walked], places: Mapping[Half, Numbers], crosses: Half | None,
        form: Form, stand: Stand,
    ) -> Strap:  # fmt: skip
        """A strap of a piece folded lengthways, sewn on by seams whose upper side begins and ends at ``places``."""
        edge, start, end = (piece.edge(name).path for name in ("edge", "start", "end"))
        a, p = edge.start, edge.end
        b, q = start.point_at(start.length / 2), end.point_at(end.length / 2)
        wide = abs(b.y - a.y)
        outer_first = {half: both if _is_inward(both) else both[::-1] for half, both in places.items()}
        out, lines = _top(places, form), []
        for k in (0, 1):  # its outer edge, then its inner one; they change about where it has crossed
            back, front = (
                outer_first[half][1 - k] * [-1, 1, 1] if half is crosses else outer_first[half][k]
                for half in (Half.BACK, Half.FRONT)
            )
            lines.append(_over_her(back, front, out + (0.5 - k) * wide, form, stand))
        outer, inner = lines
        whole = (a, b, p, q)
        if crosses is None:
            one = _cut(piece, {"edge": (a, p), "end": (p, q), "top": (q, b), "start": (b, a)})
            return cls(whole, (outer, inner), (one,), crosses, ends, places)
        c, d = _crossed(outer, a, p), _crossed(inner, b, q)
        cuts = (
            _cut(piece, {"edge": (c, p), "end": (p, q), "top": (q, d), "cross": (d, c)}),
            _cut(piece, {"edge": (a, c), "cross": (c, d), "top": (d, b), "start": (b, a)}, number=1),
        )
        return cls(whole, (outer, inner), cuts, crosses, ends, places)

    def part(self, half: Half) -> Cut:
        """The part of it that is sewn on in front, or behind."""
        return self.cuts[0 if half is Half.FRONT else -1]

    def seams(self, uppers: Mapping[What, Cut]) -> Iterator[tuple[Side, Side, list[tuple[float, float]], str]]:
        """The seams it is sewn on by, without a turn in it, and that of its fold at the middle of her."""
        for half, walked in self.ends.items():
            [above] = walked.seam.a.stretches
            cut = self.part(half)
            # the outline runs from the outer edge to the inner one in front and back behind; crossed they change about
            runs_inward = (half is Half.FRONT) != (half is self.crosses)
            one = Side([(uppers[above.piece], above)])
            backwards = runs_inward != _is_inward(self.places[half])
            other = Side([(cut, Stretch(cut.piece.what, ENDS[half], backwards=backwards))])
            yield one, other, ties(one, other, None), walked.name
        if self.crosses is not None:
            one, other = (
                Side([(cut, Stretch(cut.piece.what, "cross", backwards=k > 0))]) for k, cut in enumerate(self.cuts)
            )
            yield one, other, ties(one, other, None), ""

    def begins(self, cut: Cut, points: Numbers) -> Numbers:
        """Where places of a part of it begin (mm)."""
        a, b, p, q = self.corners
        across = np.clip((points[:, 1] - a.y) / (b.y - a.y), 0.0, 1.0)
        low, high = a.x + (b.x - a.x) * across, p.x + (q.x - p.x) * across
        share = (points[:, 0] - low) / (high - low)
        one, other = (_at(line, share) for line in self.lines)
        made: Numbers = one + across[:, None] * (other - one)
        if self.crosses is None:
            return made
        if cut is self.part(self.crosses):
            made[:, 0] = np.maximum(-made[:, 0], 0.0)
            return made
        made[:, 0] = np.maximum(made[:, 0], 0.0)
        # where they cross, each lies over the end of the other
        there = made[:, 1] * (1 if self.crosses is Half.FRONT else -1)
        over = np.minimum(STEEP * made[:, 0], OVER) * np.clip(there / OVER_AT, 0.0, 1.0)
        made[:, :2] *= (1 + over / np.maximum(np.hypot(made[:, 0], made[:, 1]), 1.0))[:, None]
        return made

    def stays(self, places: Numbers) -> Flags:
        """Which of places it begins at do not slide sideways."""
        highest = max(float(line[:, 2].max()) for line in self.lines)
        made: Flags = places[:, 2] > highest - ON_TOP
        return made


def _is_inward(both: Numbers) -> bool:
    """Whether the first of two places lies further out."""
    return bool(abs(both[0, 0]) > abs(both[1, 0]))


def _cut(piece: Piece, sides: Mapping[str, tuple[Point, Point]], number: int = 0) -> Cut:
    edges = tuple(Edge(name, Role.PANEL, Path.of(Line(*ends)), 0.0) for name, ends in sides.items())
    return Cut(replace(piece, edges=edges, notches=(), marks=()), Worn.STRAP, number=number)


def _top(ends: Mapping[Half, Numbers], form: Form) -> float:
    """How far out the middle of a strap goes over the shoulder, by where its ends are (mm)."""
    neck = float(form.girths[-1] * half_width(form.aspects[-1:])[0])
    out = max(float(abs(places[:, 0].mean())) for places in ends.values())
    return float(np.clip(out, neck + FROM_NECK, max(form.shoulder[0] - FROM_TIP, neck + FROM_NECK)))


def _over_her(back: Numbers, front: Numbers, out: float, form: Form, stand: Stand) -> Numbers:
    """A line from a place behind over the shoulder, so far ``out`` there, to one in front, off her all along."""
    neck = float(form.girths[-1] * half_width(form.aspects[-1:])[0])
    share = (out - neck) / max(form.shoulder[0] - neck, 1.0)
    high = form.neck + (form.shoulder[1] - form.neck) * share
    top = np.array([out, float(np.interp(high, form.heights, form.forward)), high])
    turn = np.linspace(0.0, 1.0, SAMPLES)[:, None]
    bend = np.hstack((turn, 1 - np.cos(turn * np.pi / 2), np.sin(turn * np.pi / 2)))
    legs = [end + (top - end) * bend for end in (back, front)]
    made: Numbers = np.concatenate((legs[0], legs[1][-2::-1]))
    for _ in range(PUSHED):
        near = np.maximum(CLEAR - 1000 * stand.far(made / 1000), 0.0)
        made += near[:, None] * stand.out(made / 1000)
    return made


def _shares(line: Numbers) -> Numbers:
    far = np.concatenate(([0.0], np.cumsum(np.linalg.norm(np.diff(line, axis=0), axis=1))))
    made: Numbers = far / far[-1]
    return made


def _at(line: Numbers, share: Numbers) -> Numbers:
    made: Numbers = np.stack([np.interp(share, _shares(line), line[:, k]) for k in range(3)], axis=1)
    return made


def _crossed(line: Numbers, start: Point, end: Point) -> Point:
    """The place of an edge, laid flat from start to end, that lies on the middle of her."""
    k = int(np.flatnonzero(np.diff(np.sign(line[:, 0])))[0])
    x, y = line[k, 0], line[k + 1, 0]
    shares = _shares(line)
    return start.towards(end, float(shares[k] + (shares[k + 1] - shares[k]) * x / (x - y)))
