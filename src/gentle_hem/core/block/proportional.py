"""School 3: proportional, for the half body in one rectangle (trade 4.1).

CB ┌───────────┬───────────┐ CF      width (bust + 6) ÷ 2, its middle the side
   │ back      │     front │         shoulder dart in front, closed to draw, opened to cut
   │           │           │         armhole line at bust ÷ 4 + 1.5 from the top
   └───────────┴──╮        │         suppression T shared: back = side = (T − 1) ÷ 3, front 1 more
                  ╰────────┘         the front is longer: the waist slants to the side
"""

from __future__ import annotations

from math import acos, asin
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.block.frame import level_findings
from gentle_hem.core.block.quarters import BUST_EASES, WAIST_EASES, Ease
from gentle_hem.core.block.shape import BodiceHalf, bodice_made
from gentle_hem.core.block.taste import FromCentre, Share
from gentle_hem.core.drafting import BACK, FRONT, Drafting, armhole, line, neckline, side_seam, waist_with_dart
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, in_recipe, stop
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.parts import Allowances, BodiceMade, BodicePart, Opening, between
from gentle_hem.core.pattern import Dart, Fold
from gentle_hem.core.sentences import Word, length, share
from gentle_hem.core.units import Length
from gentle_hem.core.what import SHOULDER_DART, Half, Sign
from gentle_hem.core.workings import Workings

SHOULDER_DROP = 35.0
BACK_NECK_DEPTH = 20.0
BACK_SHOULDER_DART = 15.0
BACK_SHOULDER_DART_LENGTH = 80.0
BEYOND_ACROSS = 5.0
DART_BELOW_BUST = 25.0
"""School 3's own constants: shoulders dropped 3.5 cm, back neck 2 cm deep, back shoulder dart 1.5 × 8 cm,
dart points 2.5 cm from the bust point, armhole 0.5 cm beyond half the across measures; common practice (trade 4.1,
4.5)."""


LEAST_NECK, MOST_NECK = 5.0, 60.0
"""A back neck between 0.5 and 6 cm deep; lengths that give another were not taken from the same points."""


class ProportionalBodice(BodicePart):
    """Drafted proportionally, bust ease 6 cm, with shoulder darts."""

    title: ClassVar[str] = "Bodice by proportion"
    sentences: ClassVar[tuple[str, ...]] = (
        "Drafted for the half body with {bust_ease} of ease at the bust and {waist_ease} at the waist.",
        "Darts at the shoulder and the waist; the back shoulder dart takes {back_shoulder_dart} and is "
        "{back_shoulder_long} long.",
        "The armhole lies {armhole_lower} lower and passes {front_across} beyond half the across front, {back_across} "
        "beyond half the across back; the shoulder is {shoulder_out} longer.",
        "The front darts end {dart_short} short of the bust point; the waist darts stand {front_dart_at} from the "
        "centre in front and {back_dart_at} behind, {dart_share} of each on the centre's side.",
    )
    words: ClassVar[dict[str, Word]] = {
        "bust_ease": length("bust ease", presets=BUST_EASES),
        "waist_ease": length("waist ease", presets=WAIST_EASES, nothing="none"),
        "back_shoulder_dart": length(Sign.shaped(Half.BACK, "shoulder dart")),
        "back_shoulder_long": length("length of the back shoulder dart"),
        "armhole_lower": length("armhole lowered", nothing="no", help="Less than nothing raises it."),
        "front_across": length("beyond half the across front", nothing="nothing"),
        "back_across": length("beyond half the across back", nothing="nothing"),
        "shoulder_out": length("shoulder longer", nothing="no", help="Less than nothing makes it shorter."),
        "dart_short": length("short of the bust point", nothing="no way"),
        "front_dart_at": length("front waist dart from the centre", without="half the bust span"),
        "back_dart_at": length("back waist dart from the centre", without="half the back less 0.5 cm"),
        "dart_share": share("intake on the centre's side", (0.5, "half")),
    }

    kind: Literal["proportional"] = "proportional"
    bust_ease: Ease = Field(60.0, description="Ease round the whole bust: 6 cm in this school.")
    waist_ease: Ease = Field(0.0, description="Ease round the whole waist.")
    back_shoulder_dart: Annotated[Length, between(0, 30)] = BACK_SHOULDER_DART
    back_shoulder_long: Annotated[Length, between(30, 150)] = BACK_SHOULDER_DART_LENGTH
    armhole_lower: Annotated[Length, between(-60, 80)] = 0.0
    front_across: Annotated[Length, between(-30, 40)] = BEYOND_ACROSS
    back_across: Annotated[Length, between(-30, 40)] = BEYOND_ACROSS
    shoulder_out: Annotated[Length, between(-60, 40)] = 0.0
    dart_short: Annotated[Length, between(0, 120)] = DART_BELOW_BUST
    front_dart_at: FromCentre | None = None
    back_dart_at: FromCentre | None = None
    dart_share: Share = 0.5

    def waist_words(self) -> dict[str, tuple[float, float]]:
        return {"bodice.waist_ease": (self.waist_ease, 1.0)}

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> BodiceMade:
        draft = _Proportional(self, Measures(figure, notes.about("bodice")), notes.about("bodice"))
        return draft.made(allowances, opening)


class _Proportional:
    """The draft's numbers, worked once and shared by both halves."""

    def __init__(self, part: ProportionalBodice, measures: Measures, notes: Workings) -> None:
        self.part, self.measures = part, measures
        take = measures.take
        bust, waist, neck = take("bust_girth"), take("waist_girth"), take("neck_girth")
        self.width = notes.work(
            "half width", (bust + part.bust_ease) / 2, "({bust} + {ease}) ÷ 2", bust=bust, ease=part.bust_ease
        )
        half_waist = (waist + part.waist_ease) / 2
        self.suppression = notes.work(
            "suppression", self.width - half_waist, "{half_width} − ({waist} + {ease}) ÷ 2",
            rule="shared by back, side and front", half_width=self.width, waist=waist, ease=part.waist_ease,
        )  # fmt: skip
        shared = max(0.0, (self.suppression - 10) / 3)
        in_thirds = "({suppression} − {more}) ÷ 3"
        none = "nothing: {suppression} is no more than {more}, and comes out at the side"
        self.back_dart = notes.work("back waist dart", shared, in_thirds if shared else none,
                                    suppression=self.suppression, more=10.0)  # fmt: skip
        self.front_dart = notes.work("front waist dart", shared + 10 if shared else 0.0,
                                     in_thirds + " + {more}" if shared else none,
                                     suppression=self.suppression, more=10.0)  # fmt: skip
        self.at_side = self.suppression - self.back_dart - self.front_dart
        self.half_waist = half_waist
        self.waist = notes.work("bodice waist", 2 * half_waist, "{waist} + {ease}", waist=waist, ease=part.waist_ease)
        self.neck_front = notes.work("front neck width", neck / 5 - 10, "{neck} ÷ 5 − {less}", neck=neck, less=10.0)
        self.neck_depth = notes.work("front neck depth", neck / 5, "{neck} ÷ 5", neck=neck)
        self.neck_back = notes.work("back neck width", neck / 5 - 5, "{neck} ÷ 5 − {less}", neck=neck, less=5.0)
        self.armhole_level = notes.work(
            "armhole depth", bust / 4 + 15, "{bust} ÷ 4 + {more}", rule="common practice", bust=bust, more=15.0
        )
        if part.armhole_lower:
            self.armhole_level = notes.work(
                "armhole level", self.armhole_level + part.armhole_lower, "{armhole_depth} + {lower}",
                armhole_depth=self.armhole_level, lower=part.armhole_lower,
            )  # fmt: skip
        self.front_length, self.back_length = take("front_waist_length"), take("back_waist_length")
        self.shoulder = take("shoulder_length") + part.shoulder_out
        self.cross_front, self.cross_back = (
            (measures.figure.get(key) or take("shoulder_width")) / 2
            for key in ("cross_shoulder_front", "cross_shoulder_back")
        )
        self.back_neck_depth = self._back_neck_depth(notes)
        self.across_front, self.across_back = take("across_front") / 2, take("across_back") / 2
        self.half_span = take("bust_span") / 2
        self.bust_level = max(take("shoulder_to_bust_point"), float(self.armhole_level))
        self.side_level = max(self.back_length, self.bust_level + 30)
        self.front_level = max(self.front_length, self.side_level)

    def _back_neck_depth(self, notes: Workings) -> float:
        """From the shoulder's level at the neck down to the nape: as both were measured, or 2 cm."""
        nape, back = (self.measures.figure.get(key) for key in ("nape_to_waist", "back_waist_length"))
        if nape is None or back is None or not LEAST_NECK < back - nape < MOST_NECK:
            return BACK_NECK_DEPTH
        return notes.work(
            "back neck depth", back - nape, "{back_waist_length} − {nape_to_waist}", back_waist_length=back,
            nape_to_waist=nape, instead=(("the school's own", BACK_NECK_DEPTH),),
        )  # fmt: skip

    def made(self, allowances: Allowances, opening: Opening) -> BodiceMade:
        front_paper, back_paper = Drafting(FRONT), Drafting(BACK)
        back = self._back(back_paper)
        front = self._front(front_paper, back.side.length)
        made = bodice_made((front, back), allowances, opening, self.waist, (*back_paper.steps, *front_paper.steps))
        drawn = 2 * (front.waist.stitched + back.waist.stitched)
        if abs(drawn - 2 * self.half_waist) > 1.0:
            made = made.also(
                [
                    stop(
                        "waist-not-as-asked",
                        "The waist slants so far from front to side that it comes out at {drawn} instead of {asked}: "
                        "measure the front and back waist lengths and the bust level again.",
                        *in_recipe("figure.measures.front_waist_length", "figure.measures.back_waist_length"),
                        drawn=drawn,
                        asked=2 * self.half_waist,
                    )
                ]
            )
        return made.also([*self.measures.findings, *self._findings()])

    def _findings(self) -> list[Finding]:
        found = level_findings(self.back_length, self.bust_level)
        if self.suppression <= 10:
            found.append(
                stop(
                    "nothing-to-suppress",
                    "The waist is nearly as wide as the bust: only {left} is left to shape with, so this draft has "
                    "no waist darts.",
                    *in_recipe("figure.measures.waist_girth", "figure.measures.bust_girth"),
                    left=float(self.suppression),
                )
            )
        return found

    def _outline_steps(self, paper: Drafting, waist_level: float) -> None:
        half = float(self.width) / 2
        paper.step(
            "Half of the rectangle is {width} wide; the armhole line lies {armhole} down, the waist {waist}.",
            line(Point(0, 0), Point(half, 0)),
            line(Point(0, 0), Point(0, -waist_level)),
            line(Point(0, -self.armhole_level), Point(half, -self.armhole_level)),
            width=half, armhole=float(self.armhole_level), waist=waist_level,
        )  # fmt: skip

    def _back(self, paper: Drafting) -> BodiceHalf:
        half = float(self.width) / 2
        self._outline_steps(paper, self.side_level)
        neck, centre = Point(self.neck_back, 0), Point(0, -self.back_neck_depth)
        curve = neckline(neck, centre, Point(self.cross_back, -SHOULDER_DROP))
        paper.step("The back neck is {width} wide and {depth} deep.", curve, points={"N": neck, "C": centre},
                   width=float(self.neck_back), depth=float(self.back_neck_depth))  # fmt: skip
        along = (Point(self.cross_back, -SHOULDER_DROP) - neck).unit
        intake = self.part.back_shoulder_dart
        tip = neck + along * self.shoulder
        shoulder = line(tip, neck)
        dart = None
        if intake:
            near = neck + along * (self.shoulder / 2)
            apex = near + along * (intake / 2) + (-along.left) * self.part.back_shoulder_long
            # drawn straight with the dart folded, and opened about its point
            opened = 2 * asin(intake / 2 / near.distance(apex))
            far, tip = near.turned(-opened, apex), tip.turned(-opened, apex)
            shoulder = line(tip, far, near, neck)
            dart = Dart(
                "shoulder", tip.distance(far), intake, apex, Sign.shaped(Half.BACK, "shoulder dart"), fold=Fold.TO_SIDE
            )
            legs = (near, apex, far)
            paper.step(
                "The shoulder drops {drop}; at half its length a dart {intake} wide and {long} long, folded toward the "
                "armhole.",
                shoulder, line(*legs), points={"T": tip}, drop=SHOULDER_DROP, intake=intake,
                long=self.part.back_shoulder_long,
            )  # fmt: skip
        else:
            paper.step("The shoulder drops {drop}.", shoulder, points={"T": tip}, drop=SHOULDER_DROP)
        cross = Point(min(self.across_back + self.part.back_across, half - 15), -(self.armhole_level / 2 + 10))
        underarm = Point(half, -self.armhole_level)
        hole = armhole(underarm, cross, tip, neck)
        paper.step("The armhole passes half the across back and a little, {across}.", hole,
                   points={"A": cross, "U": underarm}, across=self.across_back + self.part.back_across)  # fmt: skip
        stitched = half - self.back_dart - self.at_side / 2
        apex = Point(self.part.back_dart_at or max(half / 2 - 5, 20), -self.armhole_level)
        waist = waist_with_dart(
            Point(0, -self.side_level), apex, float(self.back_dart), stitched, -self.side_level,
            share=self.part.dart_share,
        )  # fmt: skip
        self._waist_step(paper, waist.path, apex, float(self.back_dart))
        seam = side_seam(waist.path.end, underarm, underarm)
        paper.step("Draw the side from the armhole line.", seam)
        return BodiceHalf(waist, seam, hole, shoulder, curve, shoulder_dart=dart)

    def _front(self, paper: Drafting, back_side: float) -> BodiceHalf:
        half = float(self.width) / 2
        self._outline_steps(paper, self.front_level)
        neck, centre = Point(self.neck_front, 0), Point(0, -self.neck_depth)
        curve = neckline(neck, centre, Point(self.cross_front, -SHOULDER_DROP))
        paper.step("The front neck is {width} wide and {depth} deep.", curve, points={"N": neck, "C": centre},
                   width=float(self.neck_front), depth=float(self.neck_depth))  # fmt: skip
        point = Point(self.half_span, -self.bust_level)
        along = (Point(self.cross_front, -SHOULDER_DROP) - neck).unit
        first = neck + along * (self.shoulder / 2)
        second = first + along * (self.shoulder / 2 - 10)
        turn = _angle_between(first - point, second - point)
        closed_tip = neck + along * self.shoulder
        paper.step(
            "On the shoulder line, dropped {drop}, mark half the shoulder, {half}, and 1 cm less again; "
            "join both to the bust point.",
            line(neck, second), line(first, point, second), points={"P": point},
            drop=SHOULDER_DROP, half=self.shoulder / 2,
        )  # fmt: skip
        far = first.turned(-turn, point)
        tip = closed_tip.turned(-turn, point)
        shoulder = line(tip, far, first, neck)
        apex = point + (first - point).turned(-turn / 2).unit * self.part.dart_short
        dart = Dart("shoulder", tip.distance(far), far.distance(first), apex, SHOULDER_DART)
        paper.step(
            "Fold the dart toward the centre, draw the shoulder {length} from the neck, and open it again.",
            shoulder, points={"T": tip}, length=self.shoulder,
        )  # fmt: skip
        cross_closed = Point(self.across_front + self.part.front_across, -(self.armhole_level / 2 + 10))
        cross = cross_closed.turned(-turn, point)
        underarm = Point(half, -self.armhole_level)
        if cross.x > half - 8:
            cross = Point(half - 8, cross.y)
        hole = armhole(underarm, cross, tip, far)
        paper.step("The armhole passes half the across front and a little with the dart closed, {across}.", hole,
                   points={"A": cross, "U": underarm}, across=self.across_front + self.part.front_across)  # fmt: skip
        stitched = half - self.front_dart - self.at_side / 2
        dart_at = self.part.front_dart_at or self.half_span
        top = Point(dart_at, max(point.y - self.part.dart_short, -self.side_level + 15))
        slope = (self.front_level - self.side_level) / half
        level = -self.side_level
        for _ in range(30):  # the slanting waist shifts the side a little; true it to the back's length
            waist = waist_with_dart(
                Point(0, -self.front_level), top, float(self.front_dart), stitched, level, slope, self.part.dart_share
            )
            seam = side_seam(waist.path.end, underarm, underarm)
            over = seam.length - back_side
            if abs(over) < 1e-4:
                break
            level += over
        self._waist_step(paper, waist.path, top, float(self.front_dart))
        paper.step("Draw the side from the armhole line, as long as the back's, {length}.", seam, length=back_side)
        return BodiceHalf(waist, seam, hole, shoulder, curve, shoulder_dart=dart, bust_point=point)

    def _waist_step(self, paper: Drafting, path: Path, apex: Point, intake: float) -> None:
        legs = [path.segments[0].end, apex, path.segments[1].end] if intake else [path.start, path.end]
        paper.step(
            "The suppression of {suppression} is shared; the dart here takes {intake}, the side {side} in all.",
            path, line(*legs), points={"O": path.start, "W": path.end, "D": apex},
            suppression=float(self.suppression), intake=intake, side=float(self.at_side),
        )  # fmt: skip


def _angle_between(a: Point, b: Point) -> float:
    """Angle from one move to another, both ways round the same, in radians."""
    return acos(min(1.0, max(-1.0, a.unit.dot(b.unit))))
