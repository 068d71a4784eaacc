"""A path as text, in the words SVG uses, y turned down; and read back.

M 0 0   L 10 0   C 12 0 14 -2 14 -4   A 5 5 0 0 1 20 -9   Z
start   line     handles and end     radius … side, end  back to the start
"""

from __future__ import annotations

import re
from math import asin, pi, sqrt

from gentle_hem.core.geometry.path import Path
from gentle_hem.core.geometry.point import Point
from gentle_hem.core.geometry.segment import Arc, Cubic, Line, Segment

_WORD = re.compile(r"([MLCAZ])|(-?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?)|([^\s,])")
_TAKES = {"M": 2, "L": 2, "C": 6, "A": 7, "Z": 0}


def number(value: float) -> str:
    """Seven decimals at most: a tenth of a nanometre is exact enough for paper."""
    text = f"{value:.7f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def _place(point: Point) -> str:
    return f"{number(point.x)} {number(-point.y)}"


def path_for_screen(path: Path, closed: bool = False) -> str:
    """A path in SVG's words to a hundredth of a millimetre: a screen shows no more, and it is written sooner."""
    words = [f"M{path.start.x:.2f} {-path.start.y:.2f}"]
    for segment in path.segments:
        end = segment.end
        if isinstance(segment, Line):
            words.append(f"L{end.x:.2f} {-end.y:.2f}")
        elif isinstance(segment, Cubic):
            first, second = segment.first, segment.second
            words.append(f"C{first.x:.2f} {-first.y:.2f} {second.x:.2f} {-second.y:.2f} {end.x:.2f} {-end.y:.2f}")
        else:
            words += _arc_words(segment)
    return "".join(words) + ("Z" if closed else "")


def path_data(path: Path, closed: bool = False) -> str:
    """A path in SVG's words, y turned down. Arcs of more than half a turn are written in parts."""
    words = [f"M{_place(path.start)}"]
    for segment in path.segments:
        if isinstance(segment, Line):
            words.append(f"L{_place(segment.end)}")
        elif isinstance(segment, Cubic):
            words.append(f"C{_place(segment.first)} {_place(segment.second)} {_place(segment.end)}")
        else:
            words += _arc_words(segment)
    return "".join(words) + ("Z" if closed else "")


def _arc_words(arc: Arc) -> list[str]:
    count = 1 + int(abs(arc.sweep) / (pi * 0.75))
    side = 1 if arc.sweep < 0 else 0  # turning down the y axis turns arcs the other way round
    radius = number(arc.radius)
    words = []
    for i in range(1, count + 1):
        end = arc.point_at(arc.length * i / count)
        words.append(f"A{radius} {radius} 0 0 {side} {_place(end)}")
    return words


def path_from_text(text: str) -> Path:
    """The path that ``path_data`` wrote; absolute M, L, C, circular A and Z are understood.

    Raises ValueError, naming what could not be read.
    """
    numbers: list[float] = []
    command = ""
    segments: list[Segment] = []
    start: Point | None = None
    here: Point | None = None

    def finish() -> None:
        nonlocal start, here
        if not command:
            return
        if len(numbers) != _TAKES[command]:
            raise ValueError(f"{command} takes {_TAKES[command]} numbers, not {len(numbers)}")
        if command == "Z":
            if here is not None and start is not None and here.distance(start) > 1e-9:
                segments.append(Line(here, start))
            return
        end = Point(numbers[-2], -numbers[-1])
        if command == "M":
            start = start or end
        elif here is None:
            raise ValueError("a path begins with M")
        elif command == "L":
            segments.append(Line(here, end))
        elif command == "C":
            segments.append(Cubic(here, Point(numbers[0], -numbers[1]), Point(numbers[2], -numbers[3]), end))
        else:
            segments.append(_arc(here, end, numbers[0], numbers[4] == 0))
        here = end

    for letter, figure, other in _WORD.findall(text):
        if other:
            raise ValueError(f'"{other}" is not part of a path')
        if figure:
            numbers.append(float(figure))
            continue
        finish()
        command, numbers = letter, []
    finish()
    return Path(tuple(segments))


def _arc(start: Point, end: Point, radius: float, anticlockwise: bool) -> Arc:
    """The arc of less than half a turn between two places."""
    chord = start.distance(end)
    radius = max(radius, chord / 2)
    half = asin(min(1.0, chord / (2 * radius)))
    rise = sqrt(max(0.0, radius**2 - (chord / 2) ** 2))
    left = (end - start).unit.left
    middle = start.towards(end, 0.5)
    centre = middle + left * rise if anticlockwise else middle - left * rise
    return Arc(centre, radius, (start - centre).angle, 2 * half if anticlockwise else -2 * half)
