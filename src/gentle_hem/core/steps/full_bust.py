"""More room for a full bust: width and length added at the bust point, waist seam, armhole and side as long as before.

      ╱ A armhole                       ╱ A          the part beyond the cut A, B, waist turns about A until B
─────╱──┐                         ─────╱──┐          has moved by the amount; what lies below the bust is turned
│   B╌╌╌┤ side             ──►    │   B   ╲          back upright, so that a dart opens at the side; the centre
│   ╱╲  │                         │  ╱  B'─┤ dart    is cut across and goes down as far as the rest did
└──╱  ╲─┘                         └─╱    ╲─┘

turn θ = 2 asin(amount ÷ 2·AB)    side dart = 2·BS·sin(θ ÷ 2)    common practice
"""

from math import asin
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.pivot import SHORT_OF_PIVOT, pivot_of
from gentle_hem.core.geometry import Line, Path, Placement, Point
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Dart, Edge, Notch, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.steps.base import EdgeName, Share, along, share_word, the_edge
from gentle_hem.core.steps.dart import the_dart
from gentle_hem.core.steps.on_bodice import BodiceStep
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.units import Length
from gentle_hem.core.what import BUST_DART


class FullBust(BodiceStep):
    """2 cm more on each half for a full bust, the dart in the side."""

    title: ClassVar[str] = "More for a full bust"
    sentences: ClassVar[tuple[str, ...]] = (
        "For a full bust the front is opened {amount} at the bust point, hinged at {hinge} of its armhole; its side "
        "has a dart for it at {share} of its way.",
    )
    words: ClassVar[dict[str, Word]] = {
        "amount": length("opened by, each half", help="Half of what the bust measures more than the block has for it."),
        "hinge": share_word("where the armhole is hinged"), "share": share_word("where the side dart lies"),
    }  # fmt: skip

    kind: Literal["full_bust"] = "full_bust"
    on: Literal["front"] = "front"
    amount: Annotated[Length, between(2, 80)] = 20.0
    hinge: Share = 2 / 3
    share: Share = 0.25

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return "waist", "side", "armhole"

    def draw(self, table: Styling) -> None:
        before = table.pieces[table.front]
        table.redraw(table.front, self.opened)
        table.is_block()
        after = table.pieces[table.front]
        table.notes.work(
            "front length for the full bust", after.seam_line.box[3] - after.seam_line.box[1],
            "{length_before} + {let_down}", rule="the centre goes down as far as the bust did when it was opened",
            length_before=before.seam_line.box[3] - before.seam_line.box[1],
            let_down=before.seam_line.box[1] - after.seam_line.box[1],
        )  # fmt: skip

    def opened(self, piece: Piece) -> Piece:
        """A front with more room in it, its centre on its left. Raises CannotMake where it cannot be opened so."""
        waist_dart = the_dart(piece, "waist")
        side, armhole = the_edge(piece, "side"), the_edge(piece, "armhole")
        darts = piece.darts_of(side.name)
        if len(darts) > 1 or len(piece.darts_of(waist_dart.edge)) > 1 or piece.darts_of(armhole.name):
            raise CannotMake("its waist and side can have one dart each, its armhole none; move them first")
        point = pivot_of(piece, waist_dart, piece.bust_point or waist_dart.apex)
        hinge_at = along(armhole, "armhole", min(max(self.hinge, 0.05), 0.95))
        if self.amount >= point.distance(armhole.path.point_at(hinge_at)):
            raise CannotMake("the armhole is too near the bust point to be opened so far")
        return _Opening(piece, waist_dart, darts[0] if darts else None, point, hinge_at, self).piece()


class _Opening:
    """The front while it is opened; its centre lies on the left."""

    def __init__(
        self, piece: Piece, waist_dart: Dart, side_dart: Dart | None, point: Point, hinge_at: float, step: FullBust
    ) -> None:
        hinge = the_edge(piece, "armhole").path.point_at(hinge_at)
        angle = 2 * asin(step.amount / (2 * point.distance(hinge)))
        self.front, self.dart, self.side_dart, self.point = piece, waist_dart, side_dart, point
        self.turned = Placement.rotation(angle, hinge)
        self.moved = Placement.shift(self.turned.place(point) - point)
        self.lowered = Placement.shift(Point(0, self.moved.place(point).y - point.y))
        self.hinge_at, self.step = hinge_at, step

    def piece(self) -> Piece:
        piece, side = self.front, the_edge(self.front, "side")
        paths: dict[str, Path] = {}
        for edge in piece.edges:
            if edge.role.is_centre:
                paths[edge.name] = self._centre(edge.path)
            elif edge.name == self.dart.edge:
                paths[edge.name] = self._waist(edge.path)
            elif edge.name == side.name:
                paths[edge.name], side_dart = self._side(edge)
            elif edge.name == the_edge(piece, "armhole").name:
                paths[edge.name] = self._armhole(edge.path)
            else:
                paths[edge.name] = edge.path
        tips = self.lowered.place(self.dart.apex), self.moved.place(self.dart.apex)
        waist = piece.edge(self.dart.edge)
        near, far = (waist.path.point_at(at) for at in (self.dart.at, self.dart.at + self.dart.intake))
        first, second = (self.moved, self.lowered) if near.x > far.x else (self.lowered, self.moved)
        wide = first.place(near).distance(second.place(far))
        widened = replace(self.dart, intake=wide, apex=tips[0].towards(tips[1], 0.5))
        grown = wide - self.dart.intake
        bust = self.lowered.place(self.point).towards(self.moved.place(self.point), 0.5)
        others = tuple(d for d in piece.darts if d not in (self.dart, self.side_dart))
        return replace(
            piece, edges=tuple(replace(e, path=paths[e.name]) for e in piece.edges),
            darts=(*others, widened, side_dart), bust_point=piece.bust_point and bust,
            notches=tuple(self._notch(notch, side_dart, grown) for notch in piece.notches),
        )  # fmt: skip

    def _notch(self, notch: Notch, side_dart: Dart, grown: float) -> Notch:
        if notch.edge == self.dart.edge and notch.at > self.dart.at:
            return replace(notch, at=notch.at + grown)
        if notch.edge == side_dart.edge and notch.at > side_dart.at:
            more = side_dart.intake - (self.side_dart.intake if self.side_dart else 0.0)
            return replace(notch, at=notch.at + more)
        return notch

    def _centre(self, path: Path) -> Path:
        """Cut across at the bust point: what lies below goes down."""
        level = min(max(self.point.y, min(path.start.y, path.end.y) + 1), max(path.start.y, path.end.y) - 1)
        [(at, _), *_] = path.crossings(Path.through(Point(path.hull[0] - 10, level), Point(path.hull[2] + 10, level)))
        first, second = path.split(at)
        down, still = (second, first) if path.start.y > path.end.y else (first, second)
        down = down.placed(self.lowered)
        one, two = (still, down) if path.start.y > path.end.y else (down, still)
        return Path((*one.segments, Line(one.end, two.start), *two.segments))

    def _waist(self, path: Path) -> Path:
        """Cut at the dart: its centre end goes down, its side end goes with the side."""
        near, far = path.between(0.0, self.dart.at), path.between(self.dart.at + self.dart.intake, path.length)
        put = (self.lowered, self.moved) if path.start.x < path.end.x else (self.moved, self.lowered)
        one, two = near.placed(put[0]), far.placed(put[1])
        return Path((*one.segments, Line(one.end, two.start), *two.segments))

    def _side(self, edge: Edge) -> tuple[Path, Dart]:
        """The side with its dart; what was a dart there already is cut through and becomes wider."""
        path, old = edge.path, self.side_dart
        at = along(edge, "side", min(max(self.step.share, 0.05), 0.95))
        before, after = (old.at, old.at + old.intake) if old else (at, at)
        first, second = path.between(0.0, before), path.between(after, path.length)
        up, down = (self.turned, self.moved)
        put = (up, down) if path.start.y > path.end.y else (down, up)
        one, two = first.placed(put[0]), second.placed(put[1])
        middle = one.end.towards(two.start, 0.5)
        bust = self.moved.place(self.point)
        apex = bust + (middle - bust).unit * min(SHORT_OF_PIVOT, middle.distance(bust) / 2)
        dart = Dart(edge.name, first.length, one.end.distance(two.start), apex, old.landmark if old else BUST_DART)
        return Path((*one.segments, Line(one.end, two.start), *two.segments)), dart

    def _armhole(self, path: Path) -> Path:
        """Hinged: the part next to the side turns."""
        first, second = path.split(self.hinge_at)
        lower_first = path.start.y < path.end.y
        one, two = (first.placed(self.turned), second) if lower_first else (first, second.placed(self.turned))
        return one.then(two)
