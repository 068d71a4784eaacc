"""Collars (trade 8): the stand, straight or shaped, and the roll collar. Each is as long as its neckline, with the same
ends.

shaped stand                       roll
  front end, squared to the curve    bias, four times the finished height, doubled and turned over
  ╱╲____________ back
  ╲_____________│
  rise ↕
"""

from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.findings import Finding, in_recipe, warn
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.geometry.parallel import parallel
from gentle_hem.core.geometry.root import root
from gentle_hem.core.join import stitched
from gentle_hem.core.parts import OpeningPlace, between
from gentle_hem.core.pattern import Edge, Notch, Piece, Role
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of_pair
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.trim.base import Trim
from gentle_hem.core.trim.neck import SHOULDER, folded, neck_of, shoulders_of
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import CENTRE_BACK, CENTRE_FRONT, Half, Panel, Section, What
from gentle_hem.core.workings import Worked, Workings
from gentle_hem.core.workroom import Dressed


class _Neck:
    """The neckline a collar is set on: its run, its half length, front and back, and how its ends are finished."""

    def __init__(self, dress: Dressed, notes: Workings) -> None:
        self.run = neck_of(dress)
        if not self.run or any(stretch.edge != "neckline" for stretch in self.run.stretches):
            raise CannotMake("this bodice has no neckline to set it on")
        if not shoulders_of(dress):
            raise CannotMake("the shoulders are bare, so there is no neck; it would stand on a bodice with shoulders")
        self.half = stitched(self.run.stretches, dress.pieces)
        self.front = stitched((s for s in self.run.stretches if s.piece.half is Half.FRONT), dress.pieces)
        self.why: Worked = notes.work(
            "collar, half", self.half, "{front_neck} + {back_neck}", rule="equal to its neckline, with the same ends",
            front_neck=self.front, back_neck=self.half - self.front,
        )  # fmt: skip
        self.ends = _ends_of(dress)

    def found(self, dress: Dressed) -> list[Finding]:
        neck = dress.figure.get("neck_girth")
        if neck is None or 2 * self.half >= neck + 10:
            return []
        return [
            warn(
                "collar-too-tight", "The collar measures {collar} round and the neck {neck}; 1 in more is wanted.",
                *in_recipe("steps"), collar=2 * self.half, neck=neck,
            )
        ]  # fmt: skip


class StandCollar(Trim):
    """A stand collar 4 cm high."""

    title: ClassVar[str] = "Stand collar"
    sentences: ClassVar[tuple[str, ...]] = (
        "A stand collar {height} high, as long as the neckline, its front ends rising {rise}, its back seam slanted "
        "{slant}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "height": length("height of the collar"),
        "rise": length("rise of its front ends", presets=((inches(1), "1 in"),), nothing="nothing",
                       help="Each front end is squared to the curve and ends by itself."),
        "slant": length("slant of its back seam", nothing="nothing", help="As much shorter at the top."),
    }  # fmt: skip

    kind: Literal["stand_collar"] = "stand_collar"
    height: Annotated[Length, between(10, 120)] = 40.0
    rise: Annotated[Length, between(0, 60)] = 0.0
    slant: Annotated[Length, between(0, 30)] = 0.0

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        neck = _Neck(dress, notes.about("collar"))
        what = dress.free(What(Section.COLLAR))
        if self.rise or self.slant:
            collar, names = self._shaped(what, neck, dress)
        else:
            collar, names = _straight(what, neck, self.height, dress), ("top",)
        own = Run((Stretch(what, "neck edge"),), (CENTRE_FRONT, CENTRE_BACK), "collar", neck.why)
        return (
            dress.with_pieces([collar])
            .sewn(Seam(f"{what.name} seam", neck.run, own))
            .sewn(*(seam_of_pair(f"{what.name} {name}", what, name) for name in names))
            .also(*neck.found(dress))
        )

    def _shaped(self, what: What, neck: _Neck, dress: Dressed) -> tuple[Piece, tuple[str, ...]]:
        """The collar with its front end raised: its neck edge a curve over the front, straight over the back."""
        front, back, _, back_fold = neck.ends
        if self.slant and back_fold:
            raise CannotMake("its back lies on the fold; only a back seam can be slanted")
        a = dress.allowances.neck
        edge = _rising(self.rise, neck.front, neck.half)
        over = parallel(edge, self.height)
        if self.slant:
            over = over.between(0.0, over.length - self.slant)
        opens = dress.opening.place is OpeningPlace.CENTRE_BACK
        edges = (
            Edge("front end", Role.FREE, Path.through(over.start, edge.start), front or a),
            Edge("neck edge", Role.NECKLINE, edge, a),
            Edge("centre back", Role.CENTRE_BACK, Path.through(edge.end, over.end), 0.0 if back_fold else back,
                 turned=not back_fold and opens),
            Edge("top", Role.FREE, over.reversed(), a),
        )  # fmt: skip
        y = self.height / 2
        piece = Piece(
            what, edges, cut=2 if back_fold else 4, on_fold=back_fold,
            notches=(Notch("neck edge", neck.front, SHOULDER),),
            grain=(Point(edge.end.x * 0.55, y), Point(edge.end.x * 0.9, y)),
        )  # fmt: skip
        return piece, ("top", "front end")


def _rising(rise: float, front: float, half: float) -> Path:
    """A line as long as half a neck: from the front end, ``rise`` mm up, in a curve as long as the front neck to the
    shoulder, and on level to the centre back.
    """
    if rise >= front:
        raise CannotMake("it rises more than the front neck is long")
    if not rise:
        return Path.through(Point(0, 0), Point(half, 0))

    def curve(x: float) -> Cubic:
        return Cubic(Point(0, rise), Point(x / 3, rise / 3), Point(2 * x / 3, 0), Point(x, 0))

    x = root(lambda x: curve(x).length - front, 1e-3, front)
    return Path.of(curve(x), Line(Point(x, 0), Point(x + half - front, 0)))


def _ends_of(dress: Dressed) -> tuple[float, float, bool, bool]:
    """The allowance at the centre front and back ends of the neckline, and whether each lies on the fold."""
    found = {}
    for role in (Role.CENTRE_FRONT, Role.CENTRE_BACK):
        edge = next(
            (
                (e.allowance, piece.on_fold)
                for piece in dress.outer_upper()
                if any(x.role is Role.NECKLINE for x in piece.edges)
                for e in piece.edges
                if e.role is role
            ),
            (0.0, True),
        )
        found[role] = edge
    (front, front_fold), (back, back_fold) = found[Role.CENTRE_FRONT], found[Role.CENTRE_BACK]
    return front, back, front_fold, back_fold


def _straight(what: What, neck: _Neck, height: float, dress: Dressed) -> Piece:
    """A straight band for half the neckline, centre front on the left; its ends take the neckline's own allowances."""
    front, back, front_fold, back_fold = neck.ends
    half, a, place = neck.half, dress.allowances.neck, dress.opening.place
    front = front or a  # over a button stand the collar ends at the centre front by itself
    if front_fold and back_fold:  # a ring lies on one fold, and is closed by a seam
        back, back_fold = a, False
    edges = (
        Edge(
            "centre front", Role.CENTRE_FRONT, Path.through(Point(0, height), Point(0, 0)),
            0.0 if front_fold else front, turned=not front_fold and place is OpeningPlace.CENTRE_FRONT,
        ),
        Edge("neck edge", Role.NECKLINE, Path.through(Point(0, 0), Point(half, 0)), a),
        Edge(
            "centre back", Role.CENTRE_BACK, Path.through(Point(half, 0), Point(half, height)),
            0.0 if back_fold else back, turned=not back_fold and place is OpeningPlace.CENTRE_BACK,
        ),
        Edge("top", Role.FREE, Path.through(Point(half, height), Point(0, height)), a),
    )  # fmt: skip
    folded_there = front_fold or back_fold
    return Piece(
        what, edges, cut=2 if folded_there else 4, on_fold=folded_there,
        notches=(Notch("neck edge", neck.front, SHOULDER),),
        grain=(Point(half * 0.3, height / 2), Point(half * 0.7, height / 2)),
    )  # fmt: skip


class RollCollar(Trim):
    """A roll collar 6 cm high, a bias strip doubled and turned over."""

    title: ClassVar[str] = "Roll collar"
    sentences: ClassVar[tuple[str, ...]] = (
        "A roll collar {height} high finished: a bias strip as long as the neck, doubled and turned over.",
    )
    words: ClassVar[dict[str, Word]] = {"height": length("finished height")}

    kind: Literal["roll_collar"] = "roll_collar"
    height: Annotated[Length, between(10, 200)] = 60.0

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("collar")
        neck = _Neck(dress, notes)
        front, back, front_fold, back_fold = neck.ends
        end = back if not back_fold else front if not front_fold else dress.allowances.neck
        long = notes.work("collar, whole", 2 * neck.half, "2 × {half}", half=neck.half)
        wide = notes.work(
            "strip between its seams", 4 * self.height, "4 × {height}", rule="from memory: doubled, and turned over",
            height=self.height,
        )  # fmt: skip
        what, a = dress.free(What(Section.COLLAR, panel=Panel.ROLL)), dress.allowances.neck
        p, q, r, s = Point(0, 0), Point(float(long), 0), Point(float(long), float(wide)), Point(0, float(wide))
        edges = (
            Edge("edge", Role.NECKLINE, Path.through(p, q), a), Edge("end", Role.FREE, Path.through(q, r), end),
            Edge("top", Role.NECKLINE, Path.through(r, s), a), Edge("start", Role.FREE, Path.through(s, p), end),
        )  # fmt: skip
        reach = 0.35 * min(float(long), float(wide))
        middle = Point(float(long) / 2, float(wide) / 2)
        remark = "cut on the bias; its outer fold is eased a little longer; its ends close like the opening"
        piece = Piece(
            what, edges, remark=remark, notches=(Notch("edge", neck.front, SHOULDER),),
            grain=(middle - Point(reach, reach), middle + Point(reach, reach)),
        )  # fmt: skip
        own = Run((Stretch(what, "edge", end=neck.half),), (CENTRE_FRONT, CENTRE_BACK), "collar", neck.why)
        return (
            dress.with_pieces([piece])
            .sewn(Seam(f"{what.name} seam", neck.run, own), folded(what))
            .also(*neck.found(dress))
        )
