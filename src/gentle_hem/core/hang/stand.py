"""The standing form a dress is hung on: this person's measures as one smooth body, like a covered stand.

 neck ─  ╭─╮        level sections, each an ellipse as long round as the tape says; between the levels that are
       ╭─╯ ╰─╮      measured a smooth curve that does not overshoot
 bust (  │ │  )     how high the neck lies, and how far the bust comes forward, is found so that the tape from
waist  ╲ │ │ ╱      the neck over the bust to the waist, and down the back, is as long as was measured
  hip  (_____)         under trousers from the hip down her left leg, which stands beside her right
        (_)(_)
"""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from scipy.interpolate import CubicSpline, PchipInterpolator
from scipy.optimize import least_squares

from gentle_hem.core.dressed.form import Form, half_depth, half_width
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.hang import kernels
from gentle_hem.core.hang.arms import Arm, Arms
from gentle_hem.core.hang.mesh import Numbers
from gentle_hem.core.replace import replace
from gentle_hem.core.what import Half
from gentle_hem.core.workings import Workings

STEP = 0.005
"""A section is kept every so often (m)."""

NECK_MOVES, BUST_MOVES = 80.0, 70.0
"""Measures of lengths may move the neck up or down, and the bust forward or back, by no more (mm)."""

AROUND, OVER = 120, 0.004
"""What is stretched round her is found in so many directions; cloth over her arm begins so far outside of it (m)."""

NEARER = 5
"""So often a place is brought onto it."""

APART = 4.0
"""Levels lie at least so far apart, whatever measures say (mm)."""

FORKS, LEAST_FORK = 70.0, 15.0
"""So far above the crotch she begins to become two legs, below the hip if that lies nearer, but no nearer than that
(mm)."""

ASTRIDE = 3.0
"""Her legs stand so far off the middle of her (mm)."""

LEG_DEEP = 1.05
"""How deep a leg is for its width, from memory."""

CALF = (0.98, 130.0)
"""Her calf is so many times as long round as her knee, so far below it (mm), from memory."""

ANKLE = 80.0
"""How high her ankle is (mm)."""

NECK = (0.92, 0.88)
"""Level with the shoulder at the neck, and above the collar, she is so many times her neck girth round: that is taken
round the base of the neck, which slants (trade 16, from memory)."""

WEIGHS = 1e-3
"""How much less a move counts than a millimetre of length: where lengths contradict each other, little is moved."""


NO_ARM = np.zeros((0, 4))


@dataclass(frozen=True)
class Stand:
    """A standing form; ``rows`` are its level sections from ``low`` up every ``step`` (m): half its width, half its
    depth, how far forward its middle lies, how far to the side. ``arm`` are those of her left arm, nothing without.
    """

    form: Form
    rows: Numbers
    low: float
    step: float = STEP
    arm: Numbers = field(default_factory=NO_ARM.copy)
    arm_low: float = 0.0
    left_arm: Arm | None = None

    @classmethod
    def of(cls, figure: Figure) -> Stand:
        """This person's form, on one foot and without arms."""
        return cls.standing(fitted(figure))

    @classmethod
    def standing(cls, form: Form, *, on_legs: bool = False, arms: Arms = Arms.NONE) -> Stand:
        """A form; what lies below its hip stands on one foot, or on her left leg and its mirror image."""
        heights = np.arange(0.0, form.heights[-1], 1000 * STEP)
        girth, aspect, forward = sections(form, heights)
        wide, deep = girth * half_width(aspect), girth * half_depth(aspect)
        rows = np.stack((wide, deep, forward, np.zeros_like(wide)), axis=1)
        if on_legs:
            share = forked(form, heights)[:, None]
            rows = rows * (1 - share) + leg(form, heights) * share
        made = cls(form, np.ascontiguousarray(rows / 1000), 0.0)
        if arms is Arms.NONE:
            return made
        left_arm = (Arm.of if arms is Arms.CLEAR else Arm.at_her_side)(form, made.rows, STEP)
        arm, low = left_arm.rows(STEP)
        return replace(made, arm=arm, arm_low=low, left_arm=left_arm)

    @cached_property
    def curved(self) -> Numbers:
        """Its sections, then how each of what is known of them bends there."""
        return _curved(self.rows)

    @cached_property
    def curved_arm(self) -> Numbers:
        """The same of her arm."""
        return _curved(self.arm)

    def _nearest(self, places: Numbers) -> Numbers:
        """How far outside of it places lie, and the slope of that beside what of it is nearest."""
        places = np.ascontiguousarray(places)
        body = kernels.beyond_all(places, self.curved, self.low, self.step)
        arm = kernels.beside_all(places, self.curved_arm, self.arm_low, self.step)
        made: Numbers = np.where((arm[:, 0] < body[:, 0])[:, None], arm, body)
        return made

    @property
    def armless(self) -> Stand:
        """The same without arms."""
        return replace(self, arm=NO_ARM, left_arm=None)

    def far(self, places: Numbers) -> Numbers:
        """How far outside it places lie (m), less than nothing inside."""
        return self._nearest(places)[:, 0]

    def out(self, places: Numbers) -> Numbers:
        """The way straight out of it at places."""
        slope = self._nearest(places)[:, 1:]
        made: Numbers = slope / np.linalg.norm(slope, axis=1, keepdims=True)
        return made

    def onto(self, places: Numbers) -> Numbers:
        """The places of it that lie straight under places (m): how far they are is exact near it only, so that they
        are brought nearer again and again.
        """
        made = places.copy()
        for _ in range(NEARER):
            near = self._nearest(made)
            made -= near[:, :1] * near[:, 1:] / (near[:, 1:] ** 2).sum(axis=1, keepdims=True)
        return made

    def over_arm(self, places: Numbers) -> Numbers:
        """Places (m), those of them brought out that lie within what is stretched round her and her left arm there."""
        z = places[:, 2]
        body = np.stack([np.interp(z, self._heights, of) for of in self.rows.T], axis=1)
        levels = self.arm_low + self.step * np.arange(len(self.arm))
        arm = np.stack([np.interp(z, levels, of) for of in self.arm.T], axis=1)
        turns = np.linspace(0, 2 * np.pi, AROUND, endpoint=False)
        sin, cos = np.sin(turns), np.cos(turns)
        reach, beside = (
            of[:, 3:] * sin + (of[:, 2:3] - body[:, 2:3]) * cos + np.hypot(of[:, :1] * sin, of[:, 1:2] * cos)
            for of in (body, arm)
        )
        there = (z >= levels[0]) & (z <= levels[-1])
        reach = np.where(there[:, None], np.maximum(reach, beside), reach) + OVER
        by = places[:, :2] - np.column_stack((np.zeros(len(z)), body[:, 2]))
        long = np.maximum(np.linalg.norm(by, axis=1), 1e-6)
        along = (by[:, :1] * sin + by[:, 1:] * cos) / long[:, None]
        ends = np.where(along > 0.05, reach / np.maximum(along, 0.05), np.inf).min(axis=1)
        made = places.copy()
        made[:, :2] += by * (np.maximum(ends / long, 1.0) - 1)[:, None]
        return made

    def girth(self, height: float) -> float:
        """How long round its section at a height is, or that of one leg (mm)."""
        wide, deep = (np.interp(height / 1000, self._heights, self.rows[:, k]) for k in (0, 1))
        return float(1000 * wide / half_width(np.array([deep / wide]))[0])

    def leg_middle(self, height: float) -> float:
        """How far to her left the middle of its section at a height lies (m): nothing where it is not a leg's."""
        return float(np.interp(height / 1000, self._heights, self.rows[:, 3]))

    @property
    def _heights(self) -> Numbers:
        made: Numbers = self.low + self.step * np.arange(len(self.rows), dtype=np.float64)
        return made


def _curved(rows: Numbers) -> Numbers:
    """Rows, then their second differences along the cubic spline through them, which is straight at both ends."""
    if len(rows) == 0:
        return np.zeros((0, 8))
    spline = CubicSpline(np.arange(len(rows)), rows, bc_type="natural")
    made: Numbers = np.ascontiguousarray(np.hstack((rows, spline(np.arange(len(rows)), 2))))
    return made


def sections(form: Form, heights: Numbers) -> tuple[Numbers, Numbers, Numbers]:
    """How long round a form is at heights, how deep for its width, and how far forward, along smooth curves."""
    apart = form.heights[0] + np.concatenate(([0.0], np.cumsum(np.maximum(np.diff(form.heights), APART))))
    girth, aspect, forward = (PchipInterpolator(apart, of)(np.clip(heights, apart[0], apart[-1]))
                              for of in (form.girths, form.aspects, form.forward))  # fmt: skip
    return girth, aspect, forward


def forked(form: Form, heights: Numbers) -> Numbers:
    """How far she has become two legs at heights: 0 from the hip up, 1 from the crotch down."""
    high = max(min(FORKS, form.hip - form.crotch), LEAST_FORK)
    share = np.clip((form.crotch + high - heights) / high, 0.0, 1.0)
    made: Numbers = share * share * (3 - 2 * share)
    return made


def leg(form: Form, heights: Numbers) -> Numbers:
    """The level sections of her left leg at heights, as a stand has them (mm): as long round as her thigh at the
    crotch, her knee and her ankle are.
    """
    thigh, knee, ankle = form.leg_girths
    more, below = CALF
    known = np.array([0.0, ANKLE, form.knee - below, form.knee, form.crotch])
    known = np.concatenate((known[:1], np.cumsum(np.maximum(np.diff(known), APART))))
    girth = PchipInterpolator(known, [ankle, ankle, more * knee, knee, thigh])(np.clip(heights, 0.0, known[-1]))
    aspect = np.full_like(girth, LEG_DEEP)
    wide, deep = girth * half_width(aspect), girth * half_depth(aspect)
    _, _, forward = sections(form, heights)
    made: Numbers = np.stack((wide, deep, forward, np.maximum(form.leg_middle(heights), wide + ASTRIDE)), axis=1)
    return made


def taped(form: Form, half: Half, beside: float) -> float:
    """How long the tape is from the neck down to the waist, in front over the bust point or behind, drawn tight; it
    runs ``beside`` the centre (mm).
    """
    heights = np.linspace(form.waist, form.neck, 120)
    girth, aspect, forward = sections(form, heights)
    wide, deep = girth * half_width(aspect), girth * half_depth(aspect)
    sign = 1.0 if half is Half.FRONT else -1.0
    inside = np.sqrt(np.maximum(1 - (beside / np.maximum(wide, beside + 1e-9)) ** 2, 0.0))
    out = sign * forward + deep * inside
    out[-1] = sign * forward[-1]  # at the neck the tape begins at the side
    kept: list[tuple[float, float]] = []
    for place in zip(heights.tolist(), out.tolist(), strict=True):
        while len(kept) > 1 and _turns_in(kept[-2], kept[-1], place):
            kept.pop()
        kept.append(place)
    line = np.array(kept)
    return float(np.hypot(*np.diff(line, axis=0).T).sum())


def _turns_in(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> bool:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) >= 0


def moved(form: Form, up: float, forward: float) -> Form:
    """A form with its neck so much higher, all between it and the waist with it, and its bust so much further
    forward (mm).
    """
    share = np.clip((form.heights - form.waist) / max(form.neck - form.waist, 1.0), 0.0, None)
    above = np.minimum(share, 1.0)
    heights = form.heights + up * above
    come = np.interp(form.heights, [form.waist, form.bust, form.neck], [0.0, 1.0, 0.3])
    at = {name: getattr(form, name) for name in ("bust", "underarm", "neck", "top")}
    lifted = {name: z + up * min((z - form.waist) / max(form.neck - form.waist, 1.0), 1.0) for name, z in at.items()}
    across, tip = form.shoulder
    return replace(form, heights=heights, forward=form.forward + forward * come, shoulder=(across, tip + up), **lifted)


def fitted(figure: Figure) -> Form:
    """The person's form with its neck and bust moved so that front and back are as long as the tape says."""
    form, take = Form.of(figure), Measures(figure, Workings()).take
    form = replace(form, girths=np.concatenate((form.girths[:-2], take("neck_girth") * np.array(NECK))))
    beside = take("bust_span") / 2
    wanted = [form.lengths[Half.FRONT], form.lengths[Half.BACK]]

    def off(moves: Numbers) -> Numbers:
        made = moved(form, *moves.tolist())
        return np.array([
            taped(made, Half.FRONT, beside) - wanted[0], taped(made, Half.BACK, beside) - wanted[1], *(WEIGHS * moves)
        ])  # fmt: skip

    most = np.array([NECK_MOVES, BUST_MOVES])
    found = least_squares(off, np.zeros(2), bounds=(-most, most), diff_step=1e-3, x_scale=(10.0, 10.0))
    return moved(form, *found.x.tolist())
