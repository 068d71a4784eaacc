"""The person as a quiet standing form: how long round, how deep and how far forward she is at each level.

Heights are above the floor, mm. What was measured is used; what was not is estimated as for any draft. How deep a body
is for its width at a level is from memory; it shapes the side view and no girth.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from gentle_hem.core.dressed.slices import Numbers
from gentle_hem.core.estimates import OFF_SHOULDER, Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.what import Half
from gentle_hem.core.workings import Workings

Line = list[tuple[float, float]]

LEAST_GIRTH = 10.0
"""No section is less round, whatever measures say (mm): there is always a body to hang from."""


@dataclass(frozen=True)
class Form:
    """A standing form; its sections from the lowest up."""

    heights: Numbers
    girths: Numbers
    aspects: Numbers
    forward: Numbers
    """How far in front of the middle of the waist a section's own middle lies."""
    waist: float
    hip: float
    neck: float
    """The height of the shoulder at the neck."""
    lengths: dict[Half, float]
    """From there down to the waist, in front and behind, as the tape goes."""
    shoulder: tuple[float, float]
    """The shoulder tip: how far from the centre, and how high."""
    underarm: float
    bust: float
    top: float
    crotch: float
    knee: float
    arm: float
    arm_girths: tuple[float, float]
    leg_girths: tuple[float, float, float]
    around_arms: float
    """How long a tape is that goes round both arms and her below the shoulders."""

    @classmethod
    def of(cls, figure: Figure) -> Form:
        take = Measures(figure, Workings()).take
        waist, hip_drop = take("waist_to_floor"), take("waist_to_hip")
        front, back = take("front_waist_length"), take("back_waist_length")
        bust_girth, waist_girth, hip_girth = take("bust_girth"), take("waist_girth"), take("hip_girth")
        neck = waist + 0.97 * min(front, back)
        bust = max(neck - take("shoulder_to_bust_point"), waist + 90)
        underarm = max(neck - (bust_girth / 6 + 38), bust + 25)
        across, tip = take("shoulder_width") / 2, neck - 45
        under_bust, crotch = take("under_bust_girth"), waist - take("crotch_depth")
        levels = (
            # height, girth, depth to width, forward
            (0.0, hip_girth * 0.5, 0.6, -20), (waist - take("waist_to_knee"), hip_girth * 0.74, 0.62, -16),
            (crotch, hip_girth * 0.97, 0.72, -12), (waist - hip_drop, hip_girth, 0.76, -12),
            (waist - hip_drop / 2, figure.get("high_hip_girth") or (hip_girth + waist_girth) / 2, 0.74, -4),
            (waist, waist_girth, 0.76, 0), ((waist + bust) / 2 + 15, under_bust, 0.74, 2), (bust, bust_girth, 0.80, 12),
            (underarm, figure.get("upper_bust_girth") or bust_girth - 40, 0.70, 2),
            ((underarm + tip) / 2, 2 * across * 2.50, 0.55, -8), (tip, 2 * across * 2.2, 0.26, -18),
            (neck, take("neck_girth") * 1.08, 0.85, -22), (neck + 60, take("neck_girth"), 0.95, -8),
        )  # fmt: skip
        height, girth, aspect, forward = (np.array(column, dtype=float) for column in zip(*levels, strict=True))
        tall = figure.get("height") or neck + 0.165 * (neck + 40)
        return cls(
            height, np.maximum(girth, LEAST_GIRTH), aspect, forward, waist, waist - hip_drop, neck,
            {Half.FRONT: front, Half.BACK: back}, (across, tip), underarm, bust,
            max(tall, neck + 190), crotch, waist - take("waist_to_knee"), take("arm_length"),
            (take("upper_arm_girth"), take("wrist_girth")),
            (take("thigh_girth"), take("knee_girth"), take("ankle_girth")),
            figure.get("off_shoulder_girth") or OFF_SHOULDER * bust_girth,
        )  # fmt: skip

    def at(self, height: Numbers) -> tuple[Numbers, Numbers, Numbers]:
        """Girth, aspect and how far forward, at heights."""
        return (
            np.interp(height, self.heights, self.girths), np.interp(height, self.heights, self.aspects),
            np.interp(height, self.heights, self.forward),
        )  # fmt: skip

    def front_lines(self) -> list[Line]:
        """The form seen from in front or behind: head, arms, legs and body, each an outline."""
        left = self._torso()
        return [
            self._head(0.0), left + [(-x, z) for x, z in reversed(left)], *self._arms(),
            *([(sign * x, z) for x, z in self._leg()] for sign in (1, -1)),
        ]  # fmt: skip

    def side_lines(self) -> list[Line]:
        """The form seen from her right: she faces to the left."""
        heights = np.linspace(self.crotch - 10, self.neck + 60, 40)
        girth, aspect, forward = self.at(heights)
        deep = girth * half_depth(aspect)
        front = [(-(f + d), z) for f, d, z in zip(forward, deep, heights, strict=True)]
        back = [(-(f - d), z) for f, d, z in zip(forward, deep, heights, strict=True)]
        thigh, knee, ankle = (g / 2 / np.pi for g in self.leg_girths)
        leg = [
            (-(thigh * 1.05 - 12), self.crotch), (-(knee + 4), self.knee), (-(ankle - 8), 90), (-(ankle + 150), 18),
            (-(ankle + 150), 0), (ankle + 14, 0), (ankle + 8, 90), (knee + 22, self.knee - 110), (knee - 4, self.knee),
            (thigh * 1.05 + 14, self.crotch),
        ]  # fmt: skip
        return [self._head(-14.0), front + list(reversed(back)), leg]

    def _head(self, x: float) -> Line:
        chin = self.neck + 45
        middle, tall, wide = (self.top + chin) / 2, (self.top - chin) / 2, (self.top - chin) * 0.36
        turn = np.linspace(0, 2 * np.pi, 37)
        narrow = 1 - 0.14 * (1 - np.sin(turn)) / 2
        return [(x + wide * n * np.cos(t), middle + tall * np.sin(t)) for t, n in zip(turn, narrow, strict=True)]

    def _torso(self) -> Line:
        heights = np.linspace(self.crotch - 20, self.underarm, 24)
        girth, aspect, _ = self.at(heights)
        wide = girth * half_width(aspect)
        across, tip = self.shoulder
        neck = self.girths[-1] * half_width(np.array([0.95]))[0]
        return [
            *zip(wide.tolist(), heights.tolist(), strict=True), (across * 0.93, (self.underarm + tip) / 2),
            (across * 0.99, tip - 6), (across * 0.9, tip + 5), (neck + 26, self.neck - 6), (neck + 4, self.neck + 16),
            (neck * 0.96, self.neck + 70),
        ]  # fmt: skip

    def arm_line(self) -> tuple[tuple[float, float], tuple[float, float]]:
        """Where the arm begins and where the wrist is, seen from in front."""
        across, tip = self.shoulder
        lean = 0.16
        return (across - 18, tip - 14), (across - 18 + self.arm * lean, tip - 14 - self.arm * 0.985)

    def _arms(self) -> list[Line]:
        (x, z), (wrist_x, wrist_z) = self.arm_line()
        upper, wrist = (g / 2 / np.pi for g in self.arm_girths)
        along = np.array([wrist_x - x, wrist_z - z]) / np.hypot(wrist_x - x, wrist_z - z)
        across = np.array([-along[1], along[0]])
        widths = ((0.0, upper * 0.75), (0.05, upper), (0.3, upper * 1.02), (0.52, upper * 0.8), (0.62, upper * 0.82),
                  (1.0, wrist * 0.95), (1.06, wrist * 1.15), (1.2, wrist * 1.0), (1.27, wrist * 0.3))  # fmt: skip
        arm = np.array([x, z])
        out = [arm + along * self.arm * s + across * w for s, w in widths]
        into = [arm + along * self.arm * s - across * w for s, w in reversed(widths)]
        line = [(float(p[0]), float(p[1])) for p in (*out, *into)]
        return [line, [(-px, pz) for px, pz in line]]

    def _leg(self) -> Line:
        hip = float(np.interp(self.crotch, self.heights, self.girths) * half_width(np.array([0.72]))[0])
        thigh, knee, ankle = (g / 2 / np.pi for g in self.leg_girths)
        middle_knee, middle_foot = hip * 0.52, hip * 0.46
        return [
            (2, self.crotch - 10), (middle_knee - knee, self.knee + 30), (middle_knee - knee * 0.98, self.knee - 30),
            (middle_foot - ankle * 1.3, self.knee - 130), (middle_foot - ankle, 90), (middle_foot - ankle - 6, 24),
            (middle_foot - ankle - 10, 0), (middle_foot + ankle + 34, 0), (middle_foot + ankle + 18, 26),
            (middle_foot + ankle, 90), (middle_foot + ankle * 1.55, self.knee - 130),
            (middle_knee + knee * 1.0, self.knee - 30), (middle_knee + knee * 1.04, self.knee + 30),
            (max(hip, thigh * 2 - 4), self.crotch),
        ]  # fmt: skip

    def leg_middle(self, height: Numbers) -> Numbers:
        """How far from the centre a leg's middle is at heights."""
        hip = float(np.interp(self.crotch, self.heights, self.girths) * half_width(np.array([0.72]))[0])
        made: Numbers = np.interp(height, [0, self.knee, self.crotch], [hip * 0.46, hip * 0.52, hip * 0.5])
        return made


def half_width(aspect: Numbers) -> Numbers:
    """Half the width of an ellipse of perimeter 1 by its aspect (Ramanujan's perimeter)."""
    return 1 / _round(aspect)


def half_depth(aspect: Numbers) -> Numbers:
    """Half its depth."""
    return aspect / _round(aspect)


def _round(aspect: Numbers) -> Numbers:
    made: Numbers = np.pi * (3 * (1 + aspect) - np.sqrt((3 + aspect) * (1 + 3 * aspect)))
    return made
