"""The paper: pieces, their edges, darts and notches, and the seams that join them.

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
from functools import cached_property

from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.geometry.crossing import line_with_line
from gentle_hem.core.geometry.parallel import (
    TOUCHING,
    extended_to_meet,
    mitre,
    parallel,
    trim_to_meet,
    turned_corner,
)
from gentle_hem.core.geometry.segment import Line


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


class Section(StrEnum):
    """Which section of the garment a piece belongs to."""

    BODICE = "bodice"
    LOWER = "lower part"
    BAND = "band"
    SLEEVE = "sleeve"
    COLLAR = "collar"
    TRIM = "trim"


class Half(StrEnum):
    """In front or behind."""

    FRONT = "front"
    BACK = "back"

    @classmethod
    def of(cls, is_front: bool) -> Half:
        return cls.FRONT if is_front else cls.BACK


class Layer(StrEnum):
    """What a piece is a layer of."""

    OUTER = "outer"
    FACING = "facing"
    LINING = "lining"
    INTERFACING = "interfacing"


@dataclass(frozen=True, slots=True)
class What:
    """What a piece is in the garment. It is asked of this, and never of its name, which is for people."""

    section: Section = Section.TRIM
    half: Half | None = None
    """None for a piece that lies in front and behind, or in neither."""
    layer: Layer = Layer.OUTER

    def as_layer(self, layer: Layer) -> What:
        return What(self.section, self.half, layer)

    def is_outer(self, section: Section, half: Half | None = None) -> bool:
        """Whether it is an outer piece of a section, and of one half where one is named."""
        return self.layer is Layer.OUTER and self.section is section and half in (None, self.half)


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

    @property
    def drawn_length(self) -> float:
        """Length along the paper, dart mouths and all."""
        return self.path.length


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
    landmark: str
    bends: tuple[tuple[Point, ...], tuple[Point, ...]] = ((), ())
    """Where its near and its far leg bend on their way from the edge to the apex."""
    pleat: bool = False
    """Left open: folded over at its edge instead of stitched to a point."""


@dataclass(frozen=True, slots=True)
class Notch:
    """A balance mark on an edge: single at the front, double at the back.

    ``landmark`` names what it must meet on the other side of the seam, if anything.
    """

    edge: str
    at: float
    landmark: str = ""
    double: bool = False


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

    name: str
    edges: tuple[Edge, ...]
    cut: int = 1
    on_fold: bool = False
    material: str = "cloth"
    darts: tuple[Dart, ...] = ()
    notches: tuple[Notch, ...] = ()
    grain: tuple[Point, Point] = (Point(0, 0), Point(0, 100))
    internal: tuple[Path, ...] = ()
    remark: str = ""
    what: What = What()
    bust_point: Point | None = None
    """Where the bust is fullest, on the front of a drafted bodice; darts are pivoted about it."""

    def __post_init__(self) -> None:
        if not self.seam_line.is_closed:
            raise CannotDraw(f"the outline of {self.name} does not close")
        if self.seam_line.signed_area <= 0:
            raise CannotDraw(f"the outline of {self.name} does not run anticlockwise")

    def edge(self, name: str) -> Edge:
        """The edge with this name. Raises NoSuchEdge when it has been cut away or was never there."""
        for edge in self.edges:
            if edge.name == name:
                return edge
        raise NoSuchEdge(f"the {self.name} has no {name} any more")

    def begins_at_hem(self, edge_name: str) -> bool:
        """Whether an edge's path begins at the hem and runs up from it."""
        start = self.edge(edge_name).path.start
        ends = [place for edge in self.edges if edge.role is Role.HEM for place in (edge.path.start, edge.path.end)]
        return any(place.distance(start) < TOUCHES_HEM for place in ends)

    def darts_of(self, edge_name: str) -> tuple[Dart, ...]:
        """The darts that open on an edge, in the order its path runs."""
        return tuple(sorted((d for d in self.darts if d.edge == edge_name), key=lambda d: d.at))

    def stitched_length(self, edge_name: str) -> float:
        """Length of an edge as sewn to its mate: dart mouths left out."""
        return self.edge(edge_name).drawn_length - sum(d.intake for d in self.darts_of(edge_name))

    @cached_property
    def seam_line(self) -> Path:
        """The stitching outline, closed, anticlockwise."""
        return Path.joined(edge.path for edge in self.edges)

    @cached_property
    def cut_line(self) -> Path:
        """The outline to cut along: each edge moved out by its allowance, corners made."""
        runs = [parallel(edge.path, -edge.allowance) for edge in self.edges]
        count = len(runs)
        for i in range(count):
            j = (i + 1) % count
            runs[i], runs[j] = _corner(self.edges[i], self.edges[j], runs[i], runs[j])
        for i, edge in enumerate(self.edges):
            if edge.allowance > 0:
                for dart in self.darts_of(edge.name):
                    if dart.pleat:
                        continue  # folded straight over, its allowance lies on itself
                    runs[i] = _with_roof(runs[i], dart, *self.dart_legs(dart))
        return Path.joined(_tied(runs))

    def dart_legs(self, dart: Dart) -> tuple[Point, Point]:
        """Where the dart's two legs meet its edge."""
        path = self.edge(dart.edge).path
        return path.point_at(dart.at), path.point_at(dart.at + dart.intake)

    def dart_leg_paths(self, dart: Dart) -> tuple[Path, Path]:
        """The dart's two legs, each from its edge to the apex."""
        near, far = self.dart_legs(dart)
        near_bends, far_bends = dart.bends
        return Path.through(near, *near_bends, dart.apex), Path.through(far, *far_bends, dart.apex)


def _with_roof(cut: Path, dart: Dart, near: Point, far: Point) -> Path:
    """An edge's cut line with the dart's fold trued: folded, the underlay ends on the cut line.

    seam ──────╲    ╱──────         the underlay is the mirror image of the cloth it lies on,
    cut  ───────╲╱╲╱───────         so the line rises to a peak at the dart's middle
                 ╲╱ peak
    """
    legs = []
    for leg in (near, far):
        ray = Path.of(Line(dart.apex, leg + (leg - dart.apex).unit * 200))
        met = cut.crossings(ray)
        if not met:
            return cut
        legs.append(min(met, key=lambda place: abs(place[1] - leg.distance(dart.apex)))[0])
    first, last = legs
    if not TOUCHING < first < last < cut.length - TOUCHING:
        return cut
    corner = cut.point_at(first)
    mirrored = cut.tangent_at(first).mirrored_about(near - dart.apex)
    middle = near.towards(far, 0.5)
    peak = line_with_line(Line(corner, corner + mirrored), Line(dart.apex, middle))
    if peak is None or peak.distance(middle) > 4 * corner.distance(near) + dart.intake:
        return cut
    before, after = cut.split(first)[0], cut.split(last)[1]
    return before.then(Path.through(before.end, peak, after.start)).then(after)


def _tied(runs: list[Path]) -> list[Path]:
    """The runs with a straight line wherever an edge was too short for both its corners."""
    made = []
    for before, after in zip(runs, [*runs[1:], runs[0]], strict=True):
        made.append(before)
        if before.end.distance(after.start) > TOUCHING:
            made.append(Path.of(Line(before.end, after.start)))
    return made


def _folds_over(fold: Edge, side: Edge) -> bool:
    """Whether a turned allowance comes to lie on the neighbouring side's allowance."""
    return fold.turned and not side.turned and fold.allowance > 0 and side.allowance > 0


def _corner(before: Edge, after: Edge, cut_before: Path, cut_after: Path) -> tuple[Path, Path]:
    """Both cut lines carried to, or back to, the corner they share."""
    if cut_before.end.distance(cut_after.start) < TOUCHING:
        return cut_before, cut_after
    if _folds_over(after, before):
        made = turned_corner(cut_before, after.path, cut_after)
        if made:
            return made
    if _folds_over(before, after):
        mirrored = turned_corner(cut_after.reversed(), before.path.reversed(), cut_before.reversed())
        if mirrored:
            side, fold = mirrored
            return fold.reversed(), side.reversed()
    trimmed = trim_to_meet(cut_before, cut_after)
    if trimmed:
        return trimmed
    place = mitre(cut_before, cut_after)
    if place:
        return extended_to_meet(cut_before, cut_after, place)
    return cut_before.then(Path.of(Line(cut_before.end, cut_after.start))), cut_after


@dataclass(frozen=True, slots=True)
class EdgeRef:
    """An edge of a piece, as one part of a seam. ``backwards`` when the seam runs against its path."""

    piece: str
    edge: str
    backwards: bool = False


class Verdict(StrEnum):
    """How two sides of a seam compare on the stitching line."""

    MEETS = "meets"
    EASED = "eased"
    GATHERED = "gathered"
    LONGER = "too long"
    SHORTER = "too short"

    @property
    def fits(self) -> bool:
        """Whether the seam can be sewn as it is meant to be."""
        return self not in (Verdict.LONGER, Verdict.SHORTER)


@dataclass(frozen=True, slots=True)
class Seam:
    """Edges that are sewn together: every edge of ``a``, end to end, onto every edge of ``b``.

    ``ease`` is how much longer ``b`` is meant to be than ``a`` (negative: shorter, and stretched on).
    """

    name: str
    a: tuple[EdgeRef, ...]
    b: tuple[EdgeRef, ...]
    ease: float = 0.0
    fullness: float = 1.0
    """How many times as long ``b`` is, to be gathered or pleated onto ``a``."""
