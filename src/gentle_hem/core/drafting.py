"""Drafting on paper, step by step, so that a draft can be played line by line.

    step 4   "Down from the shoulder tip to the armhole level, 21.5 cm."
             strokes: the line it draws      points: the places it finds, by name

A school draws the front and the back each with its centre on the left, x to the right from the centre
line, y down the body as negative numbers, the shoulder at the neck on the level 0.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from math import asin
from typing import Any

from gentle_hem.core.findings import say
from gentle_hem.core.geometry import Cubic, Line, Path, Placement, Point
from gentle_hem.core.units import Said

FRONT, BACK = "front", "back"

ROUND = 0.5523
"""Handle length of a cubic that looks like a quarter of a circle, as a share of its radius."""


@dataclass(frozen=True, slots=True)
class Step:
    """One step of a draft: its sentence, what it draws, and the places it finds by name."""

    half: str
    template: str
    values: Mapping[str, Any]
    strokes: tuple[Path, ...] = ()
    points: Mapping[str, Point] = field(default_factory=dict)

    def text(self, unit: Said) -> str:
        return say(self.template, self.values, unit)


@dataclass
class Drafting:
    """The paper of one half, and the steps drawn on it so far."""

    half: str
    steps: list[Step] = field(default_factory=list)

    def step(self, sentence: str, *strokes: Path, points: Mapping[str, Point] | None = None, **values: Any) -> None:
        self.steps.append(Step(self.half, sentence, values, strokes, points or {}))


def line(*places: Point) -> Path:
    return Path.through(*places)


def neckline(shoulder_neck: Point, centre: Point, tip: Point) -> Path:
    """A round neckline from the shoulder at the neck down to the centre, square to the shoulder and to the centre."""
    drop, width = shoulder_neck.y - centre.y, shoulder_neck.x - centre.x
    square = (shoulder_neck - tip).unit.left
    return Path.of(
        Cubic(
            shoulder_neck,
            shoulder_neck + square * (drop * ROUND),
            centre + Point(width * ROUND, 0),
            centre,
        )
    )


def armhole(underarm: Point, cross: Point, tip: Point, shoulder_neck: Point) -> Path:
    """The armhole from the underarm, through the cross mark, up to the shoulder tip, square to the shoulder.

    It leaves the underarm level, passes the cross mark upright and ends square to the shoulder line.
    """
    along = (shoulder_neck - tip).unit
    square = Point(along.y, -along.x)
    upright = Point(0, 1)
    reach_x, reach_y = underarm.x - cross.x, cross.y - underarm.y
    lower = Cubic(underarm, underarm + Point(-0.62 * reach_x, 0), cross - upright * (0.5 * reach_y), cross)
    third = cross.distance(tip) / 3
    upper = Cubic(cross, cross + upright * third, tip - square * third, tip)
    return Path.of(lower, upper)


def side_seam(waist: Point, bust: Point, underarm: Point) -> Path:
    """The side from the waist up to the bust level, coming upright there, and on to the underarm."""
    rise = bust.y - waist.y
    curve = Cubic(waist, waist + (bust - waist) * (1 / 3), bust - Point(0, rise / 3), bust)
    if bust.distance(underarm) < 1e-9:
        return Path.of(curve)
    return Path.of(curve, Line(bust, underarm))


@dataclass(frozen=True, slots=True)
class WaistWithDart:
    """A waist line from the centre to the side with a dart in it, the dart's legs equally long."""

    path: Path
    dart_at: float
    intake: float
    apex: Point

    @property
    def stitched(self) -> float:
        return self.path.length - self.intake


def waist_with_dart(
    centre: Point, apex: Point, intake: float, stitched: float, side_level: float, slope: float = 0.0,
    share: float = 0.5,
) -> WaistWithDart:  # fmt: skip
    """The waist from the centre to the side, ``stitched`` long with its dart closed.

    ``apex`` is the dart's top and the dart's middle hangs below it; ``side_level`` is the waist's level
    at the side; ``slope`` is its rise per mm from the centre to the dart's nearer leg, ``share`` how much of the intake
    lies on the centre's side.
    """
    near = Point(apex.x - share * intake, centre.y + slope * (apex.x - share * intake - centre.x))
    leg = near - apex
    turn = 2 * asin(min(1.0, intake / (2 * leg.size))) if intake else 0.0
    far = apex + leg.turned(turn)
    rest = stitched - centre.distance(near)
    fall = side_level - far.y
    across = max(rest**2 - fall**2, 1.0) ** 0.5
    side = Point(far.x + across, side_level)
    places = [centre, near, far, side] if intake else [centre, near, side]
    return WaistWithDart(line(*places), centre.distance(near), intake, apex)


@dataclass(frozen=True, slots=True)
class LaidOpen:
    """A draft as it lies on one paper: where each half lies, and how wide and deep the paper is (mm)."""

    put: Mapping[str, Placement]
    width: float
    depth: float


DRAFT_GAP = 60.0


def laid_open(steps: Sequence[Step]) -> LaidOpen:
    """The front with its centre on the left edge of the paper, the back turned over with its centre on the right."""
    drawn = {half: [path.box for s in steps if s.half == half for path in s.strokes] for half in (FRONT, BACK)}
    apart = max(box[2] for box in drawn[FRONT]) + max(box[2] for box in drawn[BACK]) + DRAFT_GAP
    turned = Placement.mirror(Point(0, 0), Point(0, 1)).then(Placement.shift(Point(apart, 0)))
    low = min(box[1] for boxes in drawn.values() for box in boxes)
    return LaidOpen({FRONT: Placement(), BACK: turned}, apart, -low)
