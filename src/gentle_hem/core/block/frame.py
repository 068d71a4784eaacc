"""The frame that the quarter schools share: one half of a bodice between named levels.

0                 N───╲ T
neck depth        C    )A
armhole level         ╰──── U
bust level                  B      upper leg of the bust dart, where there is one
                             ╲     its mouth
waist level       O──╱╲──────W
"""

from __future__ import annotations

from dataclasses import dataclass

from gentle_hem.core.block.shape import BodiceHalf
from gentle_hem.core.block.taste import SHORT_OF_BUST_POINT
from gentle_hem.core.drafting import Drafting, armhole, line, neckline, side_seam, waist_with_dart
from gentle_hem.core.estimates import Measures
from gentle_hem.core.findings import Finding, in_recipe, stop
from gentle_hem.core.geometry import Point
from gentle_hem.core.pattern import Dart
from gentle_hem.core.units import inches
from gentle_hem.core.what import BUST_DART
from gentle_hem.core.workings import Workings

LEAST_BELOW_BUST = 20.0
"""A waist nearer the bust level than this is a wrong measure; the draft is kept apart by it (mm)."""

ABOVE_BUST = 50.0
"""The armhole lies 5 cm above the bust point where it is measured from there: from memory."""


@dataclass(frozen=True, slots=True)
class Frame:
    """The numbers of one half, all in mm. Levels are depths below the shoulder at the neck."""

    neck_width: float
    neck_depth: float
    half_shoulder: float
    shoulder_drop: float
    hollow: float
    armhole_level: float
    bust_level: float
    waist_level: float
    bust_quarter: float
    waist_quarter: float
    half_span: float
    waist_dart: float
    bust_dart: float = 0.0
    dart_below: float = SHORT_OF_BUST_POINT
    """How far below the bust level the waist dart's top lies."""
    dart_at: float | None = None
    """How far from the centre the waist dart stands; half the bust span where nothing is said."""
    dart_share: float = 0.5
    """How much of the waist dart's intake lies on the centre's side of it."""
    to_chest: bool = False
    """Whether the waist dart goes up to the chest line instead."""
    bust_dart_short: float = SHORT_OF_BUST_POINT
    """How far short of the bust point the bust dart ends."""
    shoulder_length: float | None = None
    """Where the two halves' shoulders drop differently, the length both are given."""


def draft_half(paper: Drafting, frame: Frame) -> BodiceHalf:
    """Draw one half within its frame, each line a step."""
    waist_level = max(frame.waist_level, frame.bust_level + frame.bust_dart + LEAST_BELOW_BUST)
    neck, centre = Point(frame.neck_width, 0), Point(0, -frame.neck_depth)
    tip = Point(frame.half_shoulder, -frame.shoulder_drop)
    if frame.shoulder_length is not None:
        tip = neck + (tip - neck).unit * frame.shoulder_length
    top = Point(frame.half_shoulder, 0)
    paper.step(
        "Draw the top line at the shoulder, and the centre line down to the waist, {level}.",
        line(Point(0, 0), top), line(Point(0, 0), Point(0, -waist_level)), level=waist_level,
    )  # fmt: skip
    paper.step(
        "Half the shoulder width across is {half}; drop the shoulder tip {drop}.",
        line(top, tip), points={"T": tip}, half=frame.half_shoulder, drop=frame.shoulder_drop,
    )  # fmt: skip
    neck_curve = neckline(neck, centre, tip)
    paper.step(
        "The neck is {width} wide and {depth} deep; join it, and join the shoulder.",
        neck_curve, line(neck, tip), points={"N": neck, "C": centre}, width=frame.neck_width, depth=frame.neck_depth,
    )  # fmt: skip
    cross = Point(frame.half_shoulder - frame.hollow, (tip.y - frame.armhole_level) / 2)
    underarm = Point(frame.bust_quarter, -frame.armhole_level)
    hole = armhole(underarm, cross, tip, neck)
    paper.step(
        "The armhole level lies {depth} down. Half-way come in {hollow} and curve out to the side.",
        line(Point(0, underarm.y), underarm), hole, points={"A": cross, "U": underarm},
        depth=frame.armhole_level, hollow=frame.hollow,
    )  # fmt: skip
    bust = Point(frame.bust_quarter, -frame.bust_level)
    bust_point = Point(frame.half_span, -frame.bust_level)
    paper.step(
        "At the bust level, {level} down, a quarter of the bust with ease is {quarter}.",
        line(Point(0, bust.y), bust), points={"B": bust}, level=frame.bust_level, quarter=frame.bust_quarter,
    )  # fmt: skip
    dart_at = frame.half_span if frame.dart_at is None else min(frame.dart_at, frame.waist_quarter - 10)
    high = -frame.armhole_level if frame.to_chest else bust.y - frame.dart_below
    apex = Point(dart_at, max(high, -waist_level + 15))
    waist = waist_with_dart(
        Point(0, -waist_level), apex, frame.waist_dart, frame.waist_quarter, -waist_level, share=frame.dart_share
    )
    side = waist.path.end
    paper.step(
        "At the waist, {level} down, a quarter with ease is {quarter}; put the dart of {dart} back beside it.",
        waist.path, points={"O": waist.path.start, "W": side},
        level=waist_level, quarter=frame.waist_quarter, dart=frame.waist_dart,
    )  # fmt: skip
    if frame.waist_dart:
        near = waist.path.point_at(waist.dart_at)
        far = waist.path.point_at(waist.dart_at + frame.waist_dart)
        paper.step(
            "The dart stands {span} from the centre and goes up to {short} below the bust level.",
            line(near, apex, far), points={"D": apex}, span=dart_at, short=bust.y - apex.y,
        )  # fmt: skip
    if frame.bust_dart:
        lower_leg = bust - Point(0, frame.bust_dart)
        below = side_seam(side, lower_leg, lower_leg)
        seam = below.then(line(lower_leg, bust))
        point = Point(min(frame.half_span + frame.bust_dart_short, frame.bust_quarter - 10), (bust.y + lower_leg.y) / 2)
        dart = Dart("side", below.length, frame.bust_dart, point, BUST_DART)
        paper.step(
            "The front is {difference} longer than the back: a bust dart at the side, its upper leg at the bust "
            "level, its lower leg {difference} below, its point toward the bust point.",
            line(bust, point, lower_leg), points={"S": point}, difference=frame.bust_dart,
        )  # fmt: skip
        seam = seam if bust.distance(underarm) < 1e-9 else seam.then(line(bust, underarm))
        paper.step("Draw the side through the quarter marks, true across the folded dart.", seam)
        return BodiceHalf(waist, seam, hole, line(tip, neck), neck_curve, side_dart=dart, bust_point=bust_point)
    seam = side_seam(side, bust, underarm)
    paper.step("Draw the side through the quarter marks, without corners.", seam)
    return BodiceHalf(waist, seam, hole, line(tip, neck), neck_curve, bust_point=bust_point)


def armhole_depth(
    rule: str, measures: Measures, notes: Workings, lower: float = 0.0, above: float = ABOVE_BUST
) -> float:
    """Armhole level below the shoulder by one of the schools' rules, ``lower`` by so much (trade 3.4, common practice).

    A rule that starts from a measure not taken falls back on bust ÷ 6 + 1½ in.
    """
    if lower:
        usual = armhole_depth(rule, measures, notes, 0.0, above)
        return notes.work("armhole level", usual + lower, "{armhole_depth} + {lower}", armhole_depth=usual, lower=lower)
    bust = measures.take("bust_girth")
    if rule == "above_bust":
        point = measures.take("shoulder_to_bust_point")
        return notes.work(
            "armhole depth", max(point - above, 60.0), "{bust_point_level} − {above}", bust_point_level=point,
            above=above,
        )  # fmt: skip
    sixth, quarter = bust / 6 + inches(1.5), bust / 4 + 15
    girth, upper = measures.figure.get("armhole_girth"), measures.figure.get("shoulder_to_upper_bust")
    if rule == "armhole_half" and girth is not None:
        return notes.work("armhole depth", girth / 2, "{armhole_girth} ÷ 2", armhole_girth=girth)
    if rule == "upper_bust" and upper is not None:
        return notes.work("armhole depth", upper, "{upper_bust_level}", upper_bust_level=upper)
    if rule == "bust_quarter":
        return notes.work(
            "armhole depth", quarter, "{bust} ÷ 4 + {more}", rule="common practice",
            instead=(("bust ÷ 6 rule", sixth),), bust=bust, more=15.0,
        )  # fmt: skip
    return notes.work(
        "armhole depth", sixth, "{bust} ÷ 6 + {more}", rule="common practice",
        instead=(("bust ÷ 4 rule", quarter),), bust=bust, more=inches(1.5),
    )  # fmt: skip


def level_findings(waist_level: float, bust_level: float) -> list[Finding]:
    """A waist measured hardly below the bust: one of the two lengths is wrong."""
    if waist_level > bust_level + LEAST_BELOW_BUST:
        return []
    return [
        stop(
            "waist-too-near-bust",
            "The waist at {waist} lies hardly below the bust level at {bust}; measure both again.",
            *in_recipe("figure.measures.front_waist_length", "figure.measures.shoulder_to_bust_point"),
            waist=waist_level,
            bust=bust_level,
        )
    ]


def width_findings(bust_quarter: float, half_shoulder: float) -> list[Finding]:
    """A shoulder that reaches beyond the side leaves no armhole to draw."""
    if bust_quarter > half_shoulder:
        return []
    return [
        stop(
            "shoulder-wider-than-bust",
            "Half the shoulder width, {shoulder}, is more than a quarter of the bust with ease, {quarter}; "
            "no armhole can be drawn between them.",
            *in_recipe("figure.measures.shoulder_width", "figure.measures.bust_girth"),
            shoulder=half_shoulder,
            quarter=bust_quarter,
        )
    ]
