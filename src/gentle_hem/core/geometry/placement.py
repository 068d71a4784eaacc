"""Turning, shifting, mirroring and scaling: the moves that keep a pattern's shape.

A place p, read as the complex number x + iy, goes to  turn·p + shift,  or to  turn·p̄ + shift  when
mirrored. Circles stay circles, so arcs stay arcs.
"""

from __future__ import annotations

import cmath
from dataclasses import dataclass
from math import atan2

from gentle_hem.core.geometry.point import ORIGIN, Point

_point = tuple.__new__


@dataclass(frozen=True, slots=True)
class Placement:
    """Where and which way round a drawing is put down.

    >>> Placement.shift(Point(1, 2)).place(Point(1, 1))
    Point(x=2.0, y=3.0)
    """

    turn: complex = 1 + 0j
    move: complex = 0j
    mirrored: bool = False

    @classmethod
    def shift(cls, by: Point) -> Placement:
        return cls(move=complex(*by))

    @classmethod
    def rotation(cls, angle: float, about: Point = ORIGIN) -> Placement:
        """Anticlockwise by ``angle`` radians about a place."""
        turn = cmath.exp(1j * angle)
        centre = complex(*about)
        return cls(turn=turn, move=centre - turn * centre)

    @classmethod
    def turning(cls, one: Point, onto: Point) -> Placement:
        """Turned about the origin so that one direction becomes another."""
        return cls.rotation(atan2(one.cross(onto), one.dot(onto)))

    @classmethod
    def mirror(cls, start: Point, end: Point) -> Placement:
        """Mirrored in the line through two places."""
        foot, along = complex(*start), complex(*(end - start).unit)
        turn = along * along
        return cls(turn=turn, move=foot - turn * foot.conjugate(), mirrored=True)

    @classmethod
    def scale(cls, factor: float) -> Placement:
        return cls(turn=complex(factor))

    @property
    def stays(self) -> bool:
        """Whether it moves nothing."""
        return self.turn == 1 and self.move == 0 and not self.mirrored

    @property
    def factor(self) -> float:
        return abs(self.turn)

    @property
    def angle(self) -> float:
        return cmath.phase(self.turn)

    def place(self, point: Point) -> Point:
        x, y = point
        q = self.turn * complex(x, -y if self.mirrored else y) + self.move
        return _point(Point, (q.real, q.imag))

    def then(self, after: Placement) -> Placement:
        """This placement followed by another."""
        turn, move = self.turn, self.move
        if after.mirrored:
            turn, move = turn.conjugate(), move.conjugate()
        return Placement(after.turn * turn, after.turn * move + after.move, self.mirrored != after.mirrored)

    @property
    def undone(self) -> Placement:
        """The placement that brings back what this one moved. Raises ValueError for a mirrored one."""
        if self.mirrored:
            raise ValueError("a mirrored placement is undone by itself")
        return Placement(1 / self.turn, -self.move / self.turn)
