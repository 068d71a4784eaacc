"""Godets let into seams: where their places begin.

panel │ panel      a godet begins as a loop that stands out from its seam, wider the further down: sewn to either
      │            panel along one of its edges, which are a little apart there, the more the further down
     ╱ ╲
    (   )
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from gentle_hem.core.hang.cuts import Cut
from gentle_hem.core.hang.mesh import Numbers
from gentle_hem.core.pattern import Piece
from gentle_hem.core.seams import Stretch
from gentle_hem.core.walk import Walked

OPEN = 0.9
"""It goes so much of the way round its loop: layers that began on each other would hold each other up."""


@dataclass(frozen=True)
class LetIn:
    """One godet, and the two seams it is let in by, that nearer to the centre front first."""

    cut: Cut
    seams: tuple[Walked, Walked]

    @property
    def beside(self) -> tuple[Stretch, ...]:
        """What it is sewn to."""
        return tuple(stretch for walked in self.seams for stretch in walked.seam.a.stretches)

    def apart(self, points: Numbers) -> tuple[Numbers, Numbers]:
        """How far places of it lie from its point (mm), and where between its edges: −1 on the one, 1 on the other."""
        piece = self.cut.piece
        (point, ends), first = _point_and_ends(piece), self.seams[0].seam.b.stretches[0].edge
        turns = np.array([_turn(np.array([end]) - point)[0] for end in ends.values()])
        away: Numbers = np.hypot(*(points - point).T)
        across = (_turn(points - point) - turns.mean()) / max(abs(turns[0] - turns[1]) / 2, 1e-6)
        sign = -1.0 if _turn(np.array([ends[first]]) - point)[0] > turns.mean() else 1.0
        return away, np.clip(np.where(away < 1e-6, 0.0, sign * across), -1.0, 1.0)

    def wide(self) -> float:
        """How wide it is for its length: the angle between its edges (radians)."""
        point, ends = _point_and_ends(self.cut.piece)
        one, other = (_turn(np.array([end]) - point)[0] for end in ends.values())
        return float(abs(one - other))


def _point_and_ends(piece: Piece) -> tuple[Numbers, dict[str, Numbers]]:
    """The point of a godet, where its two sides meet, and by side where it ends at the hem."""
    sides = [e for e in piece.edges if e.name in ("left", "right")]
    places = {e.name: [np.array([p.x, p.y]) for p in (e.path.start, e.path.end)] for e in sides}
    one, other = places.values()
    a, b = min(((a, b) for a in (0, 1) for b in (0, 1)), key=lambda k: float(np.hypot(*(one[k[0]] - other[k[1]]))))
    ends = dict(zip(places, (one[1 - a], other[1 - b]), strict=True))
    return (one[a] + other[b]) / 2, ends


def _turn(ways: Numbers) -> Numbers:
    """How far ways are turned from straight down (radians)."""
    made: Numbers = np.arctan2(ways[:, 0], -ways[:, 1])
    return made


def looped(seam: Numbers, away: Numbers, across: Numbers, wide: float) -> Numbers:
    """Where places begin whose height on the seam is ``seam`` (mm): round a loop that stands straight out from her."""
    out = seam * [1.0, 1.0, 0.0]
    out /= np.maximum(np.linalg.norm(out, axis=1, keepdims=True), 1e-9)
    along = np.stack((out[:, 1], -out[:, 0], np.zeros(len(out))), axis=1)
    radius, turn = (wide * away / 2 / np.pi)[:, None], OPEN * np.pi * across[:, None]
    made: Numbers = seam + radius * ((1 + np.cos(turn)) * out + np.sin(turn) * along)
    return made
