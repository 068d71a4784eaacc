"""Two pieces cut in one: laid edge to edge over the seam between them, which is gone.

╭── a ──┬── b ──╮          ╭─────────────╮      what both edges are hollowed by opens between them, and is left
│       )(      │    ──►   │      ◊      │      as a dart pointed at both ends
╰───────┴───────╯          ╰─────────────╯

╭── a ──┬── b ──╮          ╭─────────────╮      where they bulge they are laid together at one end, and what
│       ()      │    ──►   │             │      opens towards the other is left as a dart there
╰──────╱ ╲──────╯          ╰──────Λ──────╯
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from shapely import Polygon

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.geometry import Line, Path, Placement
from gentle_hem.core.pattern import Dart, Edge, Mark, MarkKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Panel, Sign, What

EASED = 1.5
"""Two edges that differ by more in length are eased onto each other, and want their seam (mm)."""

LOST = 2.0
"""What two edges stray from each other by no more than this is nothing when they are cut in one (mm)."""

PARTED = 1.5
"""Two edges are together until they stray by so much (mm): that is lost, and there the dart has its point."""

LOOKED = 48
"""At so many places it is looked how far two edges stray from each other."""


@dataclass(frozen=True, slots=True)
class Now:
    """Where an edge is now: the piece, its edge, and from how far along it, where it is part of a longer one (mm)."""

    piece: What
    edge: str
    start: float = 0.0
    long: float | None = None


@dataclass(frozen=True)
class Joined:
    """A piece of two, and where every edge and named mark of either is on it."""

    piece: Piece
    became: dict[tuple[What, str], Now | None]


def joined(a: Piece, edge_a: str, b: Piece, edge_b: str, what: What) -> Joined:
    """Both in one piece, which lies as ``a`` does. Raises CannotMake where the seam between them does what one piece
    without it cannot do.
    """
    for piece, edge in ((a, edge_a), (b, edge_b)):
        if piece.darts_of(edge):
            raise CannotMake(f"a dart of the {piece.name} opens on it; move the dart first")
    mine, theirs = a.edge(edge_a).path, b.edge(edge_b).path
    if abs(mine.length - theirs.length) > EASED:
        raise CannotMake(f"the {a.name} and the {b.name} are not equally long there: one is eased onto the other")
    laid = _laid_along(mine, theirs)
    beside = theirs.placed(laid).starting_at(mine.end).ending_at(mine.start)
    open_by, over_by = _astray(mine, beside)
    if max(open_by, over_by) <= LOST:
        return _Joining(a, edge_a, b, edge_b, what, laid).whole()
    at_ends = [_Joining(a, edge_a, b, edge_b, what, _laid_at(mine, theirs, end)).parting_from(end) for end in ENDS]
    together, made = max(at_ends, key=lambda one: one[0])
    if made is not None and together >= LEAST_TOGETHER:
        return made
    if over_by > LOST or _ends_at_hem(a, edge_a):  # a dart that ran out at a hem would take its width away
        raise CannotMake(
            f"the {a.name} and the {b.name} are shaped there so that one piece cannot lie as they do; join them where "
            "the seam is straight, or hollow between its ends"
        )
    made = _Joining(a, edge_a, b, edge_b, what, laid).whole()
    dart = Mark(MarkKind.DART, Path.joined((mine, beside)))
    return replace(made, piece=replace(made.piece, marks=(*made.piece.marks, dart)))


ENDS = True, False
"""At the start of the first's edge, or at its end."""

LEAST_TOGETHER = 0.1
"""Edges that part towards one end lie together over so much of their way at least."""

OPENS_ON = frozenset({Role.WAIST, Role.SHOULDER})
"""The edges on which a dart may open that is left of a seam."""


def _ends_at_hem(piece: Piece, edge: str) -> bool:
    """Whether an edge runs to the hem."""
    at = _place(piece, edge)
    return Role.HEM in (piece.edges[at - 1].role, piece.edges[(at + 1) % len(piece.edges)].role)


def what_of(a: What, b: What) -> What:
    """What two pieces in one are: of the half both are of, and the whole of it where they were its centre and side."""
    panel = a.panel if a.panel is b.panel or {a.panel, b.panel} != {Panel.CENTRE, Panel.SIDE} else Panel.WHOLE
    half = a.half if a.half is b.half else None
    return replace(a, half=half, panel=panel if half or a.panel is b.panel else Panel.WHOLE)


def _laid_along(mine: Path, theirs: Path) -> Placement:
    """Where a piece is put so that an edge of it lies along another, end to end the other way round."""
    turned = Placement.turning(theirs.start - theirs.end, mine.end - mine.start)
    middle = turned.place(theirs.start.towards(theirs.end, 0.5))
    return turned.then(Placement.shift(mine.start.towards(mine.end, 0.5) - middle))


def _laid_at(mine: Path, theirs: Path, at_start: bool) -> Placement:
    """The same, but together at one end, and running on alike there: at the start of the first, or at its end."""
    if at_start:
        turned = Placement.turning(theirs.arriving * -1.0, mine.leaving)
        return turned.then(Placement.shift(mine.start - turned.place(theirs.end)))
    turned = Placement.turning(theirs.leaving * -1.0, mine.arriving)
    return turned.then(Placement.shift(mine.end - turned.place(theirs.start)))


def _astray(mine: Path, beside: Path) -> tuple[float, float]:
    """How far two edges laid on each other gape at most, and how far they lie over each other (mm)."""
    out = (mine.end - mine.start).unit.left * -1.0
    apart = []
    for k in range(LOOKED + 1):
        share = k / LOOKED
        here, there = mine.point_at(share * mine.length), beside.point_at((1 - share) * beside.length)
        apart.append((there - here).dot(out))
    return max(0.0, *apart), max(0.0, *(-one for one in apart))


@dataclass(frozen=True)
class _Joining:
    """Two pieces, the edges that are laid together, and where the second is put."""

    a: Piece
    edge_a: str
    b: Piece
    edge_b: str
    what: What
    laid: Placement

    @property
    def mine(self) -> Path:
        return self.a.edge(self.edge_a).path

    def whole(self) -> Joined:
        """In one over the whole edge."""
        names = self._names()
        first, then = self._sides(names)
        then[0] = replace(then[0], path=then[0].path.starting_at(self.mine.start))
        then[-1] = replace(then[-1], path=then[-1].path.ending_at(self.mine.end))
        became: dict[tuple[What, str], Now | None] = {
            (self.b.what, old): Now(self.what, new) for old, new in names.items()
        }
        return self._made((*first, *then), names, became, {}, ())

    def parting_from(self, at_start: bool) -> tuple[float, Joined | None]:
        """In one from one end of the edges, and over which share of them; nothing where that does not go."""
        theirs = self.b.edge(self.edge_b).path.placed(self.laid)
        if _astray(self.mine, theirs)[1] > LOST:
            return 0.0, None
        made = self._opening(at_start)
        if made is None or not Polygon(made.piece.seam_line.flatten(0.3)).is_valid:  # the second would lie on the first
            return 0.0, None
        return self._together(at_start), made

    def _opening(self, at_start: bool) -> Joined | None:
        """In one from where the edges begin together, with a dart where they part: it opens on the edge that runs over
        their other ends. None where that is no edge for a dart.
        """
        names = self._names()
        first, then = self._sides(names)
        if at_start:  # they part towards the end of the first's edge: there the second ends and the first goes on
            then[0] = replace(then[0], path=then[0].path.starting_at(self.mine.start))
            before, after = then.pop(), first.pop(0)
        else:
            then[-1] = replace(then[-1], path=then[-1].path.ending_at(self.mine.end))
            before, after = first.pop(), then.pop(0)
        alike = (before.role, before.allowance, before.turned) == (after.role, after.allowance, after.turned)
        if not alike or before.role not in OPENS_ON:
            return None
        long, mouth = before.path.length, before.path.end.distance(after.path.start)
        across = Path.of(Line(before.path.end, after.path.start))
        theirs = after.name if not at_start else before.name
        name = before.name if not at_start else after.name
        over = replace(before, name=name, path=Path.joined((before.path, across, after.path)))
        shift = {name: long + mouth} if at_start else {}
        rest = after.path.length
        old = next(one for one, new in names.items() if new == theirs)
        became: dict[tuple[What, str], Now | None] = {
            **{(self.b.what, one): Now(self.what, new) for one, new in names.items()},
            (self.b.what, old): Now(self.what, name, *((0.0, long) if at_start else (long + mouth, rest))),
            (self.a.what, name): Now(self.what, name, *((long + mouth, rest) if at_start else (0.0, long))),
        }
        names = {one: name if new == theirs else new for one, new in names.items()}
        edges = (over, *first, *then) if at_start else (*first, over, *then)
        return self._made(edges, names, became, shift, (self._dart(name, long, mouth, at_start),))

    def _dart(self, edge: str, at: float, intake: float, at_start: bool) -> Dart:
        """The dart between the two edges, from where they part."""
        mine, theirs = self._from_end(at_start)
        begins = max(self._together(at_start), 1 / LOOKED)
        one, other = (
            tuple(path.between(begins * path.length, path.length).reversed().flatten(0.1)[1:-1])
            for path in (mine, theirs)
        )
        legs = (other, one) if at_start else (one, other)
        apex = mine.point_at(begins * mine.length)
        return Dart(edge, at, intake, apex, Sign(f"{self.edge_a} dart", self.a.what.half, shaping=True), bends=legs)

    def _from_end(self, at_start: bool) -> tuple[Path, Path]:
        """Both edges from the end at which they are together."""
        mine, theirs = self.mine, self.b.edge(self.edge_b).path.placed(self.laid)
        return (mine, theirs.reversed()) if at_start else (mine.reversed(), theirs)

    def _together(self, at_start: bool) -> float:
        """Over which share of their way the edges lie together."""
        mine, theirs = self._from_end(at_start)
        for k in range(1, LOOKED + 1):
            if mine.point_at(k / LOOKED * mine.length).distance(theirs.point_at(k / LOOKED * theirs.length)) > PARTED:
                return (k - 1) / LOOKED
        return 1.0

    def _names(self) -> dict[str, str]:
        """What the edges and marks of the second are called on both: another name where the first has one like it."""
        taken = {edge.name for edge in self.a.edges} | {mark.name for mark in self.a.marks}
        own = (*(e.name for e in self.b.edges if e.name != self.edge_b), *(m.name for m in self.b.marks if m.name))
        return {name: _free(name, taken, self.b.what) for name in own}

    def _sides(self, names: dict[str, str]) -> tuple[list[Edge], list[Edge]]:
        """The edges of the first from the end of the joined one round to its start, and the second's from there on."""
        i, j = _place(self.a, self.edge_a), _place(self.b, self.edge_b)
        added = [
            replace(edge, name=names[edge.name], path=edge.path.placed(self.laid))
            for edge in (*self.b.edges[j + 1 :], *self.b.edges[:j])
        ]
        return [*self.a.edges[i + 1 :], *self.a.edges[:i]], added

    def _made(
        self, edges: tuple[Edge, ...], names: dict[str, str], became: dict[tuple[What, str], Now | None],
        shift: dict[str, float], darts: tuple[Dart, ...],
    ) -> Joined:  # fmt: skip
        """The piece of these edges. ``shift``: how much further along an edge that both share the first's own lies now
        (mm).
        """
        a, b, laid = self.a, self.b, self.laid

        def further(edge: str) -> float:
            now = became.get((b.what, edge))
            return now.start if now else 0.0

        piece = replace(
            a, what=self.what, edges=edges,
            darts=(
                *(replace(d, at=d.at + shift.get(d.edge, 0.0)) for d in a.darts),
                *(_moved(d, names, laid, further(d.edge)) for d in b.darts), *darts,
            ),
            notches=(
                *(replace(n, at=n.at + shift.get(n.edge, 0.0)) for n in a.notches if n.edge != self.edge_a),
                *(replace(n, edge=names[n.edge], at=n.at + further(n.edge))
                  for n in b.notches if n.edge != self.edge_b),
            ),
            marks=(*a.marks, *(replace(m.placed(laid), name=names.get(m.name, "")) for m in b.marks)),
            bust_point=a.bust_point or (b.bust_point and laid.place(b.bust_point)),
            remark=_both(a.remark, f"in one with the {b.name}", b.remark),
        )  # fmt: skip
        own = {(a.what, name): Now(self.what, name) for name in (*_edges(a), *(m.name for m in a.marks if m.name))}
        gone = dict.fromkeys(((a.what, self.edge_a), (b.what, self.edge_b)))
        return Joined(piece, {**own, **became, **gone})


def _edges(piece: Piece) -> list[str]:
    return [edge.name for edge in piece.edges]


def _place(piece: Piece, edge: str) -> int:
    at = piece.at_edge(edge)
    if at is None:
        raise CannotMake(f"the {piece.name} has no {edge} of its own")
    return at


def _free(name: str, taken: set[str], what: What) -> str:
    """A name for an edge or mark that the other piece has not."""
    called = what.half or what.panel
    tries: Iterable[str] = (name, f"{name} {called}", *(f"{name} {called} {k}" for k in range(2, 99)))
    found = next(one for one in tries if one not in taken)
    taken.add(found)
    return found


def _moved(dart: Dart, names: dict[str, str], laid: Placement, further: float) -> Dart:
    near, far = dart.bends
    return replace(
        dart, edge=names[dart.edge], at=dart.at + further, apex=laid.place(dart.apex),
        bends=(tuple(map(laid.place, near)), tuple(map(laid.place, far))),
    )  # fmt: skip


def _both(*remarks: str) -> str:
    return "; ".join(dict.fromkeys(remark for remark in remarks if remark))
