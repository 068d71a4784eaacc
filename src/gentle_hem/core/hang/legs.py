"""Trousers on her: where the places of a leg's front and back begin.

╭──┬──╮     above the hip they go half round her, from the centre front over the side to the centre back
╰╮ │ ╭╯     from there to the crotch what goes round her becomes what goes round her leg
 ││ ││      below it they go round her left leg: from its inside over its front and outside to its back
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from gentle_hem.core.dressed.form import Form, half_depth, half_width
from gentle_hem.core.dressed.upper import followed
from gentle_hem.core.hang.mesh import Numbers
from gentle_hem.core.hang.stand import ASTRIDE, forked, leg, sections
from gentle_hem.core.pattern import Edge, Piece, Role
from gentle_hem.core.what import Half

OFF = 4.0
"""Cloth begins so far outside of her (mm)."""

LOOSE = 1.08
"""It begins no further from her above the crotch than so many times her girth: the rest lies between her legs."""


@dataclass(frozen=True)
class Legs:
    """The front and the back of her left leg, and how high their waist lies (mm)."""

    form: Form
    pieces: dict[Half, Piece]
    top: float

    def across(self, piece: Piece, points: Numbers) -> Numbers:
        """How far across a piece places of it lie: 0 at its side, 1 at its crotch seam and the inside of the leg."""
        outer, inner = (self._at(piece, roles, points[:, 1]) for roles in (OUTSIDE, INSIDE))
        wide = np.where(np.abs(inner - outer) < 1.0, 1.0, inner - outer)
        made: Numbers = np.clip((points[:, 0] - outer) / wide, 0.0, 1.0)
        return made

    def around(self, piece: Piece, points: Numbers) -> Numbers:
        """How far round the leg places lie: 0 on its inside, ½ at its side, 1 on its inside again."""
        across = self.across(piece, points)
        made: Numbers = (1 - across) / 2 if piece.what.half is Half.FRONT else (1 + across) / 2
        return made

    def begins(self, piece: Piece, points: Numbers) -> Numbers:
        """Where places of a piece begin round her (mm)."""
        across, level = self.across(piece, points), points[:, 1]
        height = self.top + level
        sign = 1.0 if piece.what.half is Half.FRONT else -1.0
        half = sum((np.abs(self._at(p, OUTSIDE, level) - self._at(p, INSIDE, level)) for p in self.pieces.values()),
                   np.zeros(len(level)))  # fmt: skip
        body, aspect, forward = sections(self.form, height)
        girth = np.clip(2 * half, body + 2 * np.pi * OFF, LOOSE * body + 2 * np.pi * OFF)
        turn = np.pi / 2 * (1 - across)
        x, y = girth * half_width(aspect) * np.sin(turn), sign * girth * half_depth(aspect) * np.cos(turn)
        wide, deep, _, middle = leg(self.form, height).T
        wide, deep = (np.maximum(half / 2 / np.pi, of + OFF) for of in (wide, deep))
        turn = np.pi * across
        leg_x, leg_y = np.maximum(middle, wide + ASTRIDE) + wide * np.cos(turn), sign * deep * np.sin(turn)
        share = forked(self.form, height)
        made: Numbers = np.stack(
            (np.maximum(x * (1 - share) + leg_x * share, 0.0), forward + y * (1 - share) + leg_y * share, height),
            axis=1,
        )
        return made

    def _at(self, piece: Piece, roles: Iterable[Role], levels: Numbers) -> Numbers:
        """Where edges of a piece lie across it, at levels."""
        line = np.concatenate([followed(e.path) for e in _edges(piece, roles)])
        line = line[np.argsort(line[:, 1])]
        made: Numbers = np.interp(levels, line[:, 1], line[:, 0])
        return made


OUTSIDE = (Role.SIDE,)
INSIDE = (Role.CENTRE_FRONT, Role.CENTRE_BACK, Role.INSIDE_LEG)


def _edges(piece: Piece, roles: Iterable[Role]) -> list[Edge]:
    return [edge for edge in piece.edges if edge.role in roles]
