"""The paper: pieces, their edges, darts, notches and marks.

                 waist (drawn, with the dart's mouth in it)
          ┌──────╲╱────────┐
      CF  │                 ╲  side
    (fold)│        │grain    ╲
          └───────────────────┘
                  hem

A piece's edges are its *stitching* lines, in order anticlockwise. The cut line is derived: every edge
moved out by its own allowance, corners made so that turned allowances cover what they are turned onto.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from math import cos, radians
from typing import Any, ClassVar

from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.geometry import Path, Placement, Point
from gentle_hem.core.geometry.crossing import line_with_line
from gentle_hem.core.geometry.parallel import (
    TOUCHING,
    extended_to_meet,
    mitre,
    parallel,
    run_to_ray,
    stopped_at,
    trim_to_meet,
    turned_corner,
)
from gentle_hem.core.geometry.segment import Line
from gentle_hem.core.geometry.worked_once import worked_once
from gentle_hem.core.replace import replace
from gentle_hem.core.what import UNNAMED, Sign, What


class Role(StrEnum):
    """What an edge is in the garment."""

    WAIST = "waist"
    SIDE = "side"
    HEM = "hem"
    CENTRE_FRONT = "centre front"
    CENTRE_BACK = "centre back"
    NECKLINE = "neckline"
    ARMHOLE = "armhole"
    SHOULDER = "shoulder"
    PRINCESS = "princess"
    PANEL = "panel"
    YOKE = "yoke"
    INSIDE_LEG = "inside leg"
    CROTCH = "crotch"
    CAP = "sleeve cap"
    UNDERARM = "underarm"
    FREE = "free edge"
    TEMPLATE = "template"

    @property
    def is_centre(self) -> bool:
        """Whether an edge of this role lies on the middle of the body, in front or behind."""
        return self in (Role.CENTRE_FRONT, Role.CENTRE_BACK)


class Finished(StrEnum):
    """How an edge with an allowance is finished that is sewn to nothing."""

    HEM = "hem"
    BOUND = "bound"
    FACED = "faced"
    TURNED = "turned under"
    FOLDED = "folded back"
    FUSED = "fused on"


@dataclass(frozen=True)
class Edge:
    """One side of a piece, on the stitching line.

    ``turned`` says its allowance is folded back on the seam line (hem, zip), which shapes its corners.
    """

    name: str
    role: Role
    path: Path
    allowance: float = 0.0
    turned: bool = False
    finished: Finished | None = None
    """How it is finished alone, where it is in no seam."""
    pointed: bool = False
    """Whether it is meant to have its points: a V or square neck, a pointed waist, a handkerchief hem."""

    @property
    def drawn_length(self) -> float:
        """Length along the paper, dart mouths and all."""
        return self.path.length


class Fold(StrEnum):
    """The way a dart is folded when it is pressed, which shapes the cut line over it (trade 4.8)."""

    TO_CENTRE = "to the centre"
    TO_SIDE = "to the side"
    DOWN = "down"
    BOTH_IN = "both folds to the middle"
    """An inverted pleat's."""
    BOTH_OUT = "both folds from the middle"
    """A box pleat's."""


FOLDS = {
    Role.SIDE: Fold.DOWN,
    Role.ARMHOLE: Fold.DOWN,
    Role.CENTRE_FRONT: Fold.DOWN,
    Role.CENTRE_BACK: Fold.DOWN,
    Role.PRINCESS: Fold.DOWN,
}
"""Where a dart on an edge of a kind is folded, unless it says otherwise; to the centre where nothing is said here."""


@dataclass(frozen=True, slots=True)
class Dart:
    """A wedge stitched out of an edge.

    ``at`` is the length along the edge's path at which the dart begins, ``intake`` its width there,
    ``apex`` where it ends. ``landmark`` names what it is matched with.
    """

    edge: str
    at: float
    intake: float
    apex: Point
    landmark: Sign
    bends: tuple[tuple[Point, ...], tuple[Point, ...]] = ((), ())
    """Where its near and its far leg bend on their way from the edge to the apex."""
    pleat: bool = False
    """Left open: folded over at its edge instead of stitched to a point."""
    fold: Fold | None = None
    """The way it is folded, where it is not the usual one of its edge."""


class NotchKind(StrEnum):
    """What a notch says."""

    BALANCE = "balance"
    UNDER = "under a dart or seam"
    ZIP_END = "zip end"
    SLIT_END = "slit end"
    TIP = "tip"
    QUARTER = "quarter mark"
    STRAP = "strap"
    GATHER = "gather mark"
    OPEN = "left open from here"


@dataclass(frozen=True, slots=True)
class Notch:
    """A mark across an edge's allowance: single at the front, double at the back.

    ``landmark`` names what it must meet on the other side of the seam, if anything.
    """

    edge: str
    at: float
    landmark: Sign = UNNAMED
    double: bool = False
    kind: NotchKind = NotchKind.BALANCE


class MarkKind(StrEnum):
    """What is marked inside a piece."""

    BUTTONHOLE = "buttonhole"
    SLASH = "slash"
    FOLD = "fold"
    CENTRE = "centre line"
    DART = "double-pointed dart"
    OPENING = "opening"
    LOOP = "loop"
    PLACE = "sewn on here"


@dataclass(frozen=True, slots=True)
class Mark:
    """Something marked inside a piece: what it is, and its line.

    ``name`` is given where something is sewn to it, as a godet is to its slash; it then serves as an edge.
    """

    kind: MarkKind
    path: Path
    name: str = ""

    def placed(self, placement: Placement) -> Mark:
        return Mark(self.kind, self.path.placed(placement), self.name)


def finished_alone(role: Role) -> Finished | None:
    """How an edge of a kind is finished where it is sewn to nothing and nothing else is said; None: it must be sewn."""
    return {
        Role.HEM: Finished.HEM,
        Role.NECKLINE: Finished.BOUND,
        Role.ARMHOLE: Finished.BOUND,
        Role.FREE: Finished.TURNED,
    }.get(role)


TOUCHES_HEM = 0.01
"""How near the hem's end an edge must begin to begin at it (mm)."""


class NoSuchEdge(CannotMake, KeyError):  # noqa: N818  (it is not an error of the program)
    """A line is to begin from an edge that another line has cut away."""

    def __str__(self) -> str:
        return str(self.args[0])


@dataclass(frozen=True)
class Piece:
    """One pattern piece. A piece on the fold is given as its half, and its lengths are the half's.

    Raises CannotDraw when the edges do not close or run clockwise.
    """

    what: What
    edges: tuple[Edge, ...]
    cut: int = 1
    on_fold: bool = False
    cloth: ClothRole = ClothRole.OUTER
    darts: tuple[Dart, ...] = ()
    notches: tuple[Notch, ...] = ()
    grain: tuple[Point, Point] = (Point(0, 0), Point(0, 100))
    marks: tuple[Mark, ...] = ()
    remark: str = ""
    alike: bool = False
    """Whether all that are cut of it are alike, rather than half of them turned over: gores, godets, rings."""
    turned_over: bool = False
    """Whether it is cut with its paper turned over: the right of a pair that is cut apart."""
    bust_point: Point | None = None
    """Where the bust is fullest, on the front of a drafted bodice; darts are pivoted about it."""

    KEEPS: ClassVar = {
        "seam_line": frozenset({"edges"}), "cut_line": frozenset({"edges", "darts"}),
        "corners": frozenset({"what", "edges", "darts", "on_fold"}), "ends": frozenset({"what", "edges"}),
    }  # fmt: skip
    """What is worked out once, and what it is worked out from."""

    def __post_init__(self) -> None:
        if "seam_line" in self.__dict__:
            return  # kept from a piece with the same edges
        if not self.seam_line.is_closed:
            raise CannotDraw(f"the outline of {self.name} does not close")
        if self.seam_line.signed_area <= 0:
            raise CannotDraw(f"the outline of {self.name} does not run anticlockwise")

    @property
    def name(self) -> str:
        """What people call it."""
        return self.what.name

    def edge(self, name: str) -> Edge:
        """The edge, or the line marked inside, with this name. Raises NoSuchEdge when it has been cut away or was never
        there.
        """
        for edge in self.edges:
            if edge.name == name:
                return edge
        for mark in self.marks:
            if mark.name == name:
                return Edge(name, Role.FREE, mark.path)
        raise NoSuchEdge(f"the {self.name} has no {name} any more")

    @property
    def fold(self) -> Edge | None:
        """The edge that lies on the fold of the cloth; None where there is none."""
        if not self.on_fold:
            return None
        return next((edge for edge in self.edges if edge.role.is_centre and edge.allowance == 0), None)

    @property
    def fold_bends(self) -> float:
        """How far its fold is from straight (mm); nothing for a piece without one."""
        if self.fold is None or (len(self.fold.path.segments) == 1 and isinstance(self.fold.path.segments[0], Line)):
            return 0.0
        path = self.fold.path
        along = (path.end - path.start).unit
        return max(abs(along.cross(place - path.start)) for place in path.flatten(0.05))

    def at_edge(self, name: str) -> int | None:
        """The place of an edge in the order of the outline; None for a line marked inside."""
        return next((k for k, edge in enumerate(self.edges) if edge.name == name), None)

    def begins_at_hem(self, edge_name: str) -> bool:
        """Whether an edge's path begins at the hem and runs up from it."""
        start = self.edge(edge_name).path.start
        ends = [place for edge in self.edges if edge.role is Role.HEM for place in (edge.path.start, edge.path.end)]
        return any(place.distance(start) < TOUCHES_HEM for place in ends)

    def with_edge(self, name: str, **changes: Any) -> Piece:
        """The piece with some of an edge's own changed."""
        return replace(self, edges=tuple(replace(e, **changes) if e.name == name else e for e in self.edges))

    def darts_of(self, edge_name: str) -> tuple[Dart, ...]:
        """The darts that open on an edge, in the order its path runs."""
        if not self.darts:
            return ()
        return tuple(sorted((d for d in self.darts if d.edge == edge_name), key=lambda d: d.at))

    def stitched_length(self, edge_name: str) -> float:
        """Length of an edge as sewn to its mate: dart mouths left out."""
        return self.edge(edge_name).drawn_length - sum(d.intake for d in self.darts_of(edge_name))

    @worked_once
    def seam_line(self) -> Path:
        """The stitching outline, closed, anticlockwise."""
        return Path.joined(edge.path for edge in self.edges)

    @worked_once
    def cut_line(self) -> Path:
        """The outline to cut along: each edge moved out by its allowance, corners made."""
        runs = [self._cut_run(edge) for edge in self.edges]
        count, fold = len(runs), self.fold
        for i in range(count):
            j = (i + 1) % count
            before, after = self.edges[i], self.edges[j]
            at_fold = _at_fold(fold, before, after, runs[i], runs[j]) if fold else None
            runs[i], runs[j] = at_fold or _corner(before, after, runs[i], runs[j])
        return Path.joined(_tied(runs))

    def _cut_run(self, edge: Edge) -> Path:
        """An edge moved out by its allowance, with a roof over every dart that is folded on it.

        Where a dart lies too near another or the edge's end for a roof, the edge is only moved out.
        """
        # a pleat is folded straight over, and its allowance lies on itself
        roofed = [dart for dart in self.darts_of(edge.name) if not dart.pleat and dart.intake > LEAST_ROOFED]
        darts = roofed if edge.allowance > 0 else []
        places = [0.0, *(place for dart in darts for place in (dart.at, dart.at + dart.intake)), edge.path.length]
        if not darts or any(b - a < LEAST_BESIDE for a, b in zip(places[::2], places[1::2], strict=True)):
            return parallel(edge.path, -edge.allowance)
        stretches = [edge.path.between(a, b) for a, b in zip(places[::2], places[1::2], strict=True)]
        try:
            runs = [parallel(stretch, -edge.allowance) for stretch in stretches]
        except CannotDraw:  # one of them turns too tightly by itself
            return parallel(edge.path, -edge.allowance)
        for k, dart in enumerate(darts):
            roof = _roof(runs[k], runs[k + 1], dart, *self.dart_legs(dart), dart.fold or FOLDS.get(edge.role))
            if roof is None:
                return parallel(edge.path, -edge.allowance)
            runs[k], runs[k + 1] = roof
        return Path.joined(runs)

    def dart_legs(self, dart: Dart) -> tuple[Point, Point]:
        """Where the dart's two legs meet its edge."""
        path = self.edge(dart.edge).path
        return path.point_at(dart.at), path.point_at(dart.at + dart.intake)

    def dart_leg_paths(self, dart: Dart) -> tuple[Path, Path]:
        """The dart's two legs, each from its edge to the apex."""
        near, far = self.dart_legs(dart)
        near_bends, far_bends = dart.bends
        return Path.through(near, *near_bends, dart.apex), Path.through(far, *far_bends, dart.apex)


LEAST_ROOFED = 0.1
"""A narrower dart has no underlay to speak of (mm)."""

LEAST_BESIDE = 1.0
"""An edge goes on for at least so much beside a dart that has a roof (mm)."""


def _roof(
    before: Path, after: Path, dart: Dart, near: Point, far: Point, fold: Fold | None
) -> tuple[Path, Path] | None:
    """The cut lines on either side of a dart carried over it: folded, the underlay ends on the cut line.

    seam ──────╲    ╱──────         each is carried to its own leg; the underlay is the mirror image of the cloth it is
    cut  ───────╲╱╲╱───────         folded onto, so the line rises to a peak at the dart's middle
                 ╲╱ peak

    None where they do not come to the legs or the peak lies too far off.
    """
    first = run_to_ray(before, dart.apex, near)
    last = run_to_ray(after.reversed(), dart.apex, far)
    if first is None or last is None:
        return None
    corner, onto = (last, far) if folds_to_far(near, far, fold) else (first, near)
    mirrored = corner.arriving.mirrored_about(onto - dart.apex)
    middle = near.towards(far, 0.5)
    peak = line_with_line(Line(corner.end, corner.end + mirrored), Line(dart.apex, middle))
    if peak is None or peak.distance(middle) > 4 * corner.end.distance(middle) + dart.intake:
        return None
    return first.then(Path.through(first.end, peak, last.end)), last.reversed()


def folds_to_far(near: Point, far: Point, fold: Fold | None) -> bool:
    """Whether a dart is folded onto the cloth beyond its far leg. A half is drawn with its centre at x = 0."""
    if fold is Fold.DOWN:
        return far.y < near.y
    return (abs(far.x) < abs(near.x)) != (fold is Fold.TO_SIDE)


def _tied(runs: list[Path]) -> list[Path]:
    """The runs with a straight line wherever an edge was too short for both its corners."""
    made = []
    for before, after in zip(runs, [*runs[1:], runs[0]], strict=True):
        made.append(before)
        if before.end.distance(after.start) > TOUCHING:
            made.append(Path.of(Line(before.end, after.start)))
    return made


SPIKE = 60.0
"""A corner sharper than this would be cut as a spike (degrees)."""

PRESSED = frozenset({Role.PRINCESS, Role.PANEL, Role.SIDE, Role.SHOULDER, Role.YOKE})
"""Seams that are pressed open: their allowance comes to lie on the piece, and ends as the piece does there."""


def _folds_over(fold: Edge, side: Edge, sharp: bool) -> bool:
    """Whether an allowance comes to lie on the neighbouring side's: one that is turned, or that of a seam pressed open
    beside a sharp corner.
    """
    lies_on = (fold.turned and not side.turned) or (sharp and fold.role in PRESSED and side.role not in PRESSED)
    return lies_on and fold.allowance > 0 and side.allowance > 0


def _squared_off(before: Edge, after: Edge, cut_before: Path, cut_after: Path) -> tuple[Path, Path] | None:
    """A sharp corner cut off square, as far beyond it as its wider allowance."""
    corner, reach = after.path.start, max(before.allowance, after.allowance)
    out = (before.path.arriving - after.path.leaving).unit
    across = out.left * (4 * reach)
    place = corner + out * reach
    square = Path.of(Line(place - across, place + across))
    ends = []
    for cut in (cut_before, cut_after.reversed()):
        trimmed = trim_to_meet(cut, square)
        if trimmed:
            ends.append(trimmed[0])
            continue
        meets = line_with_line(Line(cut.end, cut.end + cut.arriving), Line(place, place + across))
        if meets is None or (meets - cut.end).dot(cut.arriving) < 0:
            return None
        ends.append(cut.then(Path.of(Line(cut.end, meets))))
    first, last = ends[0], ends[1].reversed()
    return first.then(Path.of(Line(first.end, last.start))), last


def _at_fold(fold: Edge, before: Edge, after: Edge, cut_before: Path, cut_after: Path) -> tuple[Path, Path] | None:
    """The corner at the fold, where nothing reaches over it; None elsewhere, and where the cut line does not."""
    if after is fold:
        short = stopped_at(cut_before, fold.path.start, fold.path.leaving)
        return (short, cut_after) if short else None
    if before is fold:
        short = stopped_at(cut_after.reversed(), fold.path.end, fold.path.arriving * -1)
        return (cut_before, short.reversed()) if short else None
    return None


def _corner(before: Edge, after: Edge, cut_before: Path, cut_after: Path) -> tuple[Path, Path]:
    """Both cut lines carried to, or back to, the corner they share."""
    if cut_before.end.distance(cut_after.start) < TOUCHING:
        return cut_before, cut_after
    along, on = before.path.arriving, after.path.leaving
    sharp = along.cross(on) > 0 and along.dot(on) < -cos(radians(SPIKE))
    if _folds_over(after, before, sharp):
        made = turned_corner(cut_before, after.path, cut_after)
        if made:
            return made
    if _folds_over(before, after, sharp):
        mirrored = turned_corner(cut_after.reversed(), before.path.reversed(), cut_before.reversed())
        if mirrored:
            side, fold = mirrored
            return fold.reversed(), side.reversed()
    squared = _squared_off(before, after, cut_before, cut_after) if sharp else None
    if squared:
        return squared
    trimmed = trim_to_meet(cut_before, cut_after)
    if trimmed:
        return trimmed
    place = mitre(cut_before, cut_after)
    if place:
        return extended_to_meet(cut_before, cut_after, place)
    return cut_before.then(Path.of(Line(cut_before.end, cut_after.start))), cut_after
