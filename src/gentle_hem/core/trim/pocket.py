"""Pockets: laid on, with or without a flap, or let into the side seam. Where one lies is drawn on the piece it lies on,
and walked: the line it is sewn to is as long as its own edge.

   ┌ flap line ┐           side │╲
   │  ┌─────┐              opens │ ╲ bag
   └──│     │ pocket            │  │
      └──▽──┘                    │ ╱
"""

from typing import TYPE_CHECKING, Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.geometry import Cubic, Line, Path, Placement, Point, Segment
from gentle_hem.core.parts import OpeningPlace, between
from gentle_hem.core.pattern import Edge, Mark, MarkKind, Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of, seam_of_layers, seam_of_pair
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import PART, Part, seen_from_centre
from gentle_hem.core.trim.base import Trim, Turn
from gentle_hem.core.units import Length
from gentle_hem.core.what import Half, Layer, Panel, Section, Sign, What
from gentle_hem.core.workings import Workings
from gentle_hem.core.workroom import Dressed

if TYPE_CHECKING:
    from shapely import Polygon

FLAP_ABOVE = 15.0
"""A flap is sewn so far above its pocket's edge, so that it falls over it (mm): common practice."""

FLAP_WIDER = 6.0
"""A flap is so much wider than its pocket, so that it hides it (mm): common practice."""

CORNER = 15.0
"""How far a rounded corner is rounded, or the point of a pointed foot hangs down for every 4 cm of width (mm)."""

Shape = Literal["square", "rounded", "pointed"]


class PatchPocket(Trim):
    """A pair of pockets 14 cm wide and 16 cm high on the front of the skirt."""

    turn: ClassVar[Turn] = Turn.ON_WHAT_IS_THERE
    title: ClassVar[str] = "Pocket"
    sentences: ClassVar[tuple[str, ...]] = (
        "A {shape} pocket {width} wide and {height} high on the {on} of the {part}, {down} below its upper edge and "
        "{beside} from the {measured}, its hem {hem}; its flap is {flap} deep.",
    )
    words: ClassVar[dict[str, Word]] = {
        "shape": choice("shape of the pocket", ("square", "square"), ("rounded", "rounded"), ("pointed", "pointed")),
        "width": length("width of the pocket"), "height": length("height of the pocket"),
        "on": choice("on", ("front", "front"), ("back", "back")), "part": PART,
        "down": length("below the upper edge"), "beside": length("beside"),
        "measured": choice("measured from", ("centre", "centre"), ("side", "side seam")),
        "hem": length("hem of the pocket"), "flap": length("depth of the flap", nothing="nothing"),
    }  # fmt: skip

    kind: Literal["pocket"] = "pocket"
    shape: Shape = "square"
    width: Annotated[Length, between(30, 400)] = 140.0
    height: Annotated[Length, between(30, 500)] = 160.0
    on: Literal["front", "back"] = "front"
    part: Part = "lower"
    down: Annotated[Length, between(0, 1200)] = 140.0
    beside: Annotated[Length, between(0, 600)] = 70.0
    measured: Literal["centre", "side"] = "centre"
    hem: Annotated[Length, between(0, 80)] = 25.0
    flap: Annotated[Length, between(0, 200)] = 0.0

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        half = Half(self.on)
        host, corner = self._host(dress, half)
        number = 1 + sum(mark.name.startswith(POCKET_LINE) for mark in host.marks)
        name = f"{POCKET_LINE} {number}"
        what = dress.free(What(Section.POCKET))
        line = self._line().placed(Placement.shift(corner))
        notes.about("pocket").work(
            "sewn round", line.length, "two sides and the foot of a pocket {width} wide and {height} high",
            width=self.width, height=self.height,
        )  # fmt: skip
        pocket = Piece(
            what,
            (
                Edge("sides", Role.PANEL, self._line(), dress.allowances.panel, pointed=True),
                Edge("top", Role.HEM, Path.through(Point(self.width, 0), Point(0, 0)), self.hem, turned=True),
            ),
            cut=2, grain=(Point(self.width / 2, -0.2 * self.height), Point(self.width / 2, -0.7 * self.height)),
        )  # fmt: skip
        marks = [Mark(MarkKind.PLACE, line, name)]
        pieces, seams = [pocket], [seam_of_layers(f"{what.name} seam", (host.what, name), (what, "sides"))]
        if self.flap:
            flap = self._flap(dress)
            side = -FLAP_WIDER / 2
            line = Path.through(Point(side, FLAP_ABOVE), Point(self.width - side, FLAP_ABOVE))
            mark = Mark(MarkKind.PLACE, line.placed(Placement.shift(corner)), f"{FLAP_LINE} {number}")
            marks.append(mark)
            pieces.append(flap)
            seams += [
                seam_of(f"{flap.name} seam", (host.what, mark.name), (flap.what, "top")),
                seam_of_pair(f"{flap.name} edge", flap.what, "edge"),
            ]
        marked = replace(host, marks=(*host.marks, *marks))
        return dress.with_pieces([mirrored(marked) if half is Half.BACK else marked, *pieces]).sewn(*seams)

    def _host(self, dress: Dressed, half: Half) -> tuple[Piece, Point]:
        """The piece it lies on, its centre on the left, and where the pocket's upper inner corner lies on it."""
        from shapely import Polygon  # here, to keep it and numpy out of the start

        pieces = [
            seen_from_centre(piece)
            for piece in dress.pieces.values()
            if piece.what.layer is Layer.OUTER and piece.what.half is half and not piece.what.other
            and not piece.alike
            and (piece.what.section.is_upper if self.part == "bodice" else _is_below(piece.what, dress))
        ]  # fmt: skip
        if not pieces:
            raise CannotMake(f"the {self.part} has no {half} it could lie on")
        high = max(piece.seam_line.box[3] for piece in pieces)
        if self.part == "lower" and dress.cut_in_one:
            high = dress.waists[half]
        level = high - self.down
        why = "it would lie beyond the edge of the piece or over a seam"
        for piece in pieces:
            across = piece.seam_line.met_along(Line(Point(-9000, level), Point(9000, level)))
            if len(across) < 2:
                continue
            left, right = across[0] - 9000, across[-1] - 9000
            x = self.beside if self.measured == "centre" else right - self.beside - self.width
            corner = Point(x, level)
            outline = Polygon([corner + p for p in self._line().flatten(0.5)])
            rest = Polygon(piece.seam_line.flatten(0.5))
            if left - 1e-6 <= x and rest.buffer(0.01).contains(outline):
                if any(_wedge(piece, dart).intersects(outline) for dart in piece.darts):
                    why = f"a dart of the {piece.name} runs under it; move the pocket down or aside, or the dart"
                    continue
                return piece, corner
        raise CannotMake(why)

    def _line(self) -> Path:
        """Down one side, round the foot and up the other, from the upper left corner at (0, 0)."""
        wide, high = self.width, self.height
        a, b = Point(0, 0), Point(wide, 0)
        foot_a, foot_b = Point(0, -high), Point(wide, -high)
        if self.shape == "square":
            return Path.through(a, foot_a, foot_b, b)
        if self.shape == "pointed":
            up = Point(0, min(CORNER * wide / 40 / 2, 0.4 * high))
            return Path.through(a, foot_a + up, Point(wide / 2, -high), foot_b + up, b)
        r = min(2 * CORNER, wide / 3, high / 3)
        k = 0.5523 * r
        round_a = Cubic(Point(0, -high + r), Point(0, -high + r - k), Point(r - k, -high), Point(r, -high))
        round_b = Cubic(
            Point(wide - r, -high), Point(wide - r + k, -high), Point(wide, -high + r - k), Point(wide, -high + r)
        )
        parts: tuple[Segment, ...] = (
            Line(a, round_a.start), round_a, Line(round_a.end, round_b.start), round_b, Line(round_b.end, b)
        )  # fmt: skip
        return Path(parts)

    def _flap(self, dress: Dressed) -> Piece:
        """The flap, cut twice for each pocket, its upper edge sewn above it."""
        flap = self.model_copy(update={"width": self.width + FLAP_WIDER, "height": self.flap})
        what, allowance = dress.free(What(Section.POCKET, panel=Panel.FLAP)), dress.allowances.panel
        edges = (
            Edge("edge", Role.PANEL, flap._line(), allowance, pointed=True),
            Edge("top", Role.PANEL, Path.through(Point(flap.width, 0), Point(0, 0)), allowance),
        )
        grain = Point(flap.width / 2, -0.2 * self.flap), Point(flap.width / 2, -0.8 * self.flap)
        return Piece(what, edges, cut=4, grain=grain)


POCKET_LINE, FLAP_LINE = "pocket", "flap"
"""What the lines are called that a pocket and a flap are sewn to, numbered on each piece."""


def _is_below(what: What, dress: Dressed) -> bool:
    """Whether a piece belongs to the lower part, or to a gown that is cut in one with it."""
    return what.section.is_lower or (what.section is Section.GOWN and dress.cut_in_one)


def _wedge(piece: Piece, dart: object) -> "Polygon":
    from shapely import Polygon

    near, far = piece.dart_leg_paths(dart)  # type: ignore[arg-type]
    return Polygon([*near.flatten(0.5), *reversed(far.flatten(0.5))])


class SeamPocket(Trim):
    """Pockets in the side seams, 16 cm wide from 6 cm below the waist."""

    turn: ClassVar[Turn] = Turn.ON_WHAT_IS_THERE
    title: ClassVar[str] = "Pocket in the side seam"
    sentences: ClassVar[tuple[str, ...]] = (
        "A pocket in each side seam, its opening {opening} long from {down} below the waist, its bag {deep} deep.",
    )
    words: ClassVar[dict[str, Word]] = {
        "opening": length("length of the opening"), "down": length("below the waist"),
        "deep": length("depth of the bag"),
    }  # fmt: skip

    kind: Literal["seam_pocket"] = "seam_pocket"
    opening: Annotated[Length, between(80, 300)] = 160.0
    down: Annotated[Length, between(0, 500)] = 60.0
    deep: Annotated[Length, between(60, 350)] = 150.0

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        what = dress.free(What(Section.POCKET, panel=Panel.BAG))
        seams, marked = [], []
        if dress.opening.place is OpeningPlace.SIDE and self.down < dress.opening.below_waist:
            raise CannotMake("the zip lies in that seam; begin the pocket below it, or put the zip elsewhere")
        for half in Half:
            piece, edge = self._side(dress, half)
            down = edge.path.start.y > edge.path.end.y
            below = self.down + _above_waist(edge, dress.waists.get(half) if dress.cut_in_one else None)
            start = below if down else edge.drawn_length - below - self.opening
            end = start + self.opening
            if start < 0 or end > edge.drawn_length - 20:
                raise CannotMake(f"the side seam of the {piece.name} is too short for it")
            stretch = Stretch(piece.what, edge.name, not down, start, end)
            own = Stretch(what, "opening", True)
            seams.append(Seam(f"{what.name} {half}", Run((stretch,)), Run((own,))))
            ends = tuple(
                Notch(edge.name, at, POCKET_ENDS, double=half is Half.BACK, kind=NotchKind.OPEN) for at in (start, end)
            )
            marked.append(replace(piece, notches=(*piece.notches, *ends)))
        high, deep = self.opening, self.deep
        lower = Point(0, -BELOW)
        bag = Path.of(
            Cubic(lower, Point(0.45 * deep, -BELOW - 20), Point(deep, -BELOW + 10), Point(deep, 0.45 * high)),
            Cubic(Point(deep, 0.45 * high), Point(deep, 0.9 * high), Point(0.55 * deep, high), Point(0, high)),
        )
        edges = (
            Edge("bag", Role.PANEL, bag, dress.allowances.panel),
            Edge("opening", Role.PANEL, Path.through(Point(0, high), Point(0, 0)), dress.allowances.side),
            Edge("below", Role.PANEL, Path.through(Point(0, 0), lower), dress.allowances.side),
        )
        piece = Piece(
            what, edges, cut=4, grain=(Point(0.4 * deep, 0.7 * high), Point(0.4 * deep, 0.1 * high)),
            remark="one for the front and one for the back of each side",
        )  # fmt: skip
        seams += [seam_of_pair(f"{what.name} bag", what, "bag"), seam_of_pair(f"{what.name} foot", what, "below")]
        return dress.with_pieces([*marked, piece]).sewn(*seams)

    def _side(self, dress: Dressed, half: Half) -> tuple[Piece, Edge]:
        pieces = [p for p in dress.pieces.values() if p.what.layer is Layer.OUTER and p.what.half is half]
        below = [p for p in pieces if p.what.section.is_lower or p.what.section is Section.GOWN]
        found = [(p, e) for p in below for e in p.edges if e.role is Role.SIDE and e.name == "side"]
        if not found:
            raise CannotMake("the lower part has no side seam")
        return max(found, key=lambda one: one[1].path.box[3])


def _above_waist(edge: Edge, level: float | None) -> float:
    """How much of a gown's side seam lies above its waist, mm; nothing where the seam begins there."""
    if level is None:
        return 0.0
    met = edge.path.crossings(Path.through(Point(-9000, level), Point(9000, level)))
    if not met:
        return 0.0
    at = met[0][0]
    return at if edge.path.start.y > edge.path.end.y else edge.drawn_length - at


BELOW = 60.0
"""A bag hangs so far below its opening (mm)."""

POCKET_ENDS = Sign("pocket")
