"""Points, segments and paths on paper: exact until they are put out.

    point.py       a place on the paper, and a move from one place to another
    placement.py   turning, shifting, mirroring and scaling without bending anything
    segment.py     straight, arc and cubic: the three lines a pattern is drawn with
    path.py        segments end to end
    parallel.py    offsets, and where the offsets of two edges meet
    crossing.py    where two lines cross

x runs to the right, y runs up, angles turn anticlockwise from the x axis, lengths are millimetres.
A closed outline runs anticlockwise, so its outside lies to the right of the direction of travel.
"""

from gentle_hem.core.geometry.path import Path
from gentle_hem.core.geometry.placement import Placement
from gentle_hem.core.geometry.point import ORIGIN, Point, polar
from gentle_hem.core.geometry.segment import Arc, Cubic, Line, Segment

__all__ = ["ORIGIN", "Arc", "Cubic", "Line", "Path", "Placement", "Point", "Segment", "polar"]
