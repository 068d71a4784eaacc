"""Her arms, put on the form for sleeves, and where the places of a sleeve begin round one.

shoulder tip ─╮         it leans out as far as lets it clear her side; its sections are level like those of the body
         ╭──╮ │╲        a sleeve begins as a tube round it, no nearer to her than the arm; its cap is then drawn to
         │  │╲ ╲ ╲      the armhole, and what lies below follows, less the further it is
         │  │ ╲ ╲ ╲ wrist
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import Enum

import numpy as np
from scipy.interpolate import PchipInterpolator
from scipy.optimize import brentq

from gentle_hem.core.dressed.form import Form
from gentle_hem.core.dressed.upper import followed
from gentle_hem.core.hang.mesh import Numbers
from gentle_hem.core.pattern import Edge, Piece, Role

ROUNDED = 0.09
"""The shoulder is rounded over such a share of the arm's length."""

CLEARS = 20.0
"""The arm hangs so far off her side (mm), below the underarm."""

LEAN, MOST_LEAN = 0.16, 0.6
"""How far out it leans (radians), at least and at most."""

ELBOW, HAND, ENDS = 0.57, 1.08, 1.22
"""The elbow, the middle of the hand and its end lie so many arm's lengths below the tip, from memory."""

OFF_SHOULDER, AROUND = 20.0, 200
"""A tape goes round both arms and her so far below where the shoulder is rounded (mm), which is found in so many
directions."""

OFF = 4.0
"""Cloth begins so far off the arm (mm)."""


@dataclass(frozen=True)
class Arm:
    """Her left arm: where it begins at the shoulder (mm), the way down it, and how long round it is."""

    start: Numbers
    down: Numbers
    long: float
    girths: tuple[float, float]
    """Of the upper arm and of the wrist."""

    @classmethod
    def of(cls, form: Form, rows: Numbers, step: float) -> Arm:
        """The arm of a form whose level sections are ``rows``, every ``step`` (m), as a stand has them."""
        (x, z), _ = form.arm_line()
        heights = 1000 * step * np.arange(len(rows))
        beside = (heights < form.underarm) & (heights > z - form.arm)
        radius = form.arm_girths[0] / 2 / np.pi
        out = 1000 * rows[beside, 0] + radius + CLEARS - x
        lean = float(np.arctan2(out, z - heights[beside]).max(initial=LEAN))
        lean = min(max(lean, LEAN), MOST_LEAN)
        y = 1000 * float(np.interp(z, heights, rows[:, 2]))
        down = np.array([np.sin(lean), -y / form.arm, -np.cos(lean)])  # the hand hangs beside her middle
        return cls(np.array([x, y, z]), down, form.arm, form.arm_girths)

    @classmethod
    def at_her_side(cls, form: Form, rows: Numbers, step: float) -> Arm:
        """The arm as it hangs where a tape goes over it and round her: straight down, its inside against her, so far
        out that the tape round both arms and her is as long as was measured.
        """
        (_, z), _ = form.arm_line()
        level = z - form.arm * ROUNDED - OFF_SHOULDER
        wide, deep, y, *_ = (1000 * float(np.interp(level, 1000 * step * np.arange(len(rows)), of)) for of in rows.T)
        radius = form.arm_girths[0] / 2 / np.pi
        turns = np.linspace(0, np.pi / 2, AROUND)

        def around(x: float) -> float:
            """By how much the tape is longer than was measured: four times a quarter of the curve that is as far out as
            she or the arm in every direction (Cauchy: its perimeter is the sum of how far out it is).
            """
            reach = np.maximum(np.hypot(wide * np.sin(turns), deep * np.cos(turns)), x * np.sin(turns) + radius)
            return 4 * float(np.trapezoid(reach, turns)) - form.around_arms

        most = 2 * form.shoulder[0]  # whatever measures say that contradict each other
        x = 0.0 if around(0.0) >= 0 else most if around(most) <= 0 else float(brentq(around, 0.0, most))
        return cls(np.array([x, y, z]), np.array([0.0, 0.0, -1.0]), form.arm, form.arm_girths)

    def radius(self, along: Numbers) -> Numbers:
        """Half as thick as it is at shares of its length from the shoulder."""
        upper, wrist = self.girths
        known = [0.0, 0.3, ELBOW, 1.0, HAND, ENDS]
        girth = PchipInterpolator(known, [upper, upper, (upper + wrist) / 2, wrist, 1.15 * wrist, wrist])(
            np.clip(along, 0.0, ENDS)
        )
        ends = np.minimum(np.clip(along / ROUNDED, 0.0, 1.0), np.clip((ENDS - along) / ROUNDED, 0.0, 1.0))
        made: Numbers = girth / 2 / np.pi * np.sqrt(np.maximum(1 - (1 - ends) ** 2, 1e-4))
        return made

    def rows(self, step: float) -> tuple[Numbers, float]:
        """Its level sections every ``step`` (m) from the lowest up, and how high that is."""
        low = self.start[2] + self.down[2] * ENDS * self.long
        heights = np.arange(low, self.start[2], 1000 * step)
        along = (heights - self.start[2]) / self.down[2]
        radius = self.radius(along / self.long)
        middle = self.start + along[:, None] * self.down
        made = np.stack((radius / -self.down[2], radius, middle[:, 1], middle[:, 0]), axis=1)
        return np.ascontiguousarray(made / 1000), low / 1000


class Arms(Enum):
    """How the arms of a form are put on."""

    NONE = "none"
    CLEAR = "clear of her side"
    """For sleeves."""
    AT_HER_SIDE = "at her side"
    """For what goes over them and round her."""


def is_sleeve(piece: Piece) -> bool:
    """Whether a piece is a whole sleeve: a cap, a seam under the arm, and a hem."""
    roles = {edge.role for edge in piece.edges}
    return roles == {Role.CAP, Role.UNDERARM, Role.HEM}


@dataclass(frozen=True)
class Sleeve:
    """A sleeve put on an arm."""

    piece: Piece
    arm: Arm

    def begins(self, points: Numbers) -> Numbers:
        """Where places of it begin (mm): round the arm, its cap as wide as it is below, on the outer side."""
        front, back = (self._edges(Role.UNDERARM, half) for half in ("front", "back"))
        top, under = self.piece.seam_line.box[3], max(y for e in front for y in (e.path.start.y, e.path.end.y))
        lines = [followed(e.path) for e in (*front, *back)]
        levels = np.minimum(points[:, 1], under)
        ends = [np.interp(levels, *line[np.argsort(line[:, 1])].T[::-1]) for line in lines]
        ahead, behind = ends
        half = np.maximum(np.abs(ahead - behind) / 2, 1.0)
        turn = np.pi * (points[:, 0] - (ahead + behind) / 2) / half * np.sign(ahead - behind)
        along = top - points[:, 1]
        thick = self.arm.radius(np.maximum(along, 0.3 * self.arm.long) / self.arm.long) + OFF
        wide = np.maximum(half / np.pi, thick)
        out = np.array([-self.arm.down[2], 0.0, self.arm.down[0]])
        out /= np.linalg.norm(out)
        forward = np.array([0.0, 1.0, 0.0])
        made: Numbers = (
            self.arm.start + along[:, None] * self.arm.down
            + (wide * np.cos(turn) + wide - thick)[:, None] * out + (wide * np.sin(turn))[:, None] * forward
        )  # fmt: skip
        return made

    def _edges(self, role: Role, half: str) -> list[Edge]:
        return [e for e in self.piece.edges if e.role is role and e.name.endswith(half)]
