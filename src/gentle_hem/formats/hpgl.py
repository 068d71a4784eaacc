"""pattern.plt: the pattern for a pen plotter, in HPGL (from memory), 40 steps to the millimetre.

IN;SP1;PU40,40;PD…;   pen 1 cut lines, 2 seam lines and folds, 3 marks and grain, 4 words
x runs across the roll, y along it; nothing lies below zero. A block draws one piece, so that a plot that was broken off
goes on with the piece it was at.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from math import cos, radians, sin

from shapely import LineString, box
from shapely.geometry.base import BaseGeometry

from gentle_hem.formats.drawing import Ink, Words, placed
from gentle_hem.formats.labels import Drawn, shape
from gentle_hem.formats.letters import printed
from gentle_hem.formats.plotted import ENDS_TEXT, STEPS, Block

STRAY = 0.02
"""How far a curve may be drawn beside itself (mm)."""

PENS = {Ink.CUT: 1, Ink.SEAM: 2, Ink.FOLD: 2}
OTHER_PEN, WORD_PEN = 3, 4


@dataclass(frozen=True, slots=True)
class Strip:
    """A stretch of the sheet as wide as the roll, and where its left and its top are on it (mm)."""

    name: str
    left: float
    top: float
    width: float
    height: float


BETWEEN = 20.0
"""What is left free on the roll between one strip and the next (mm)."""

CROSS = 8.0


def blocks(drawn: list[Drawn], strips: list[Strip]) -> list[Block]:
    """The pieces in the order in which they lie along the roll. What is wider than the roll is drawn in strips, one
    after the other, to be joined at their crosses.
    """
    made: list[Block] = []
    begin = 0.0
    for strip in strips:
        here = [block for item in drawn if (block := _block(item, strip, begin, parted=len(strips) > 1)) is not None]
        made += sorted(here, key=lambda block: (block.start, block.name))
        begin = max((block.end for block in here), default=begin) + BETWEEN
    return made


def to_hpgl(drawn: list[Drawn], strips: list[Strip]) -> bytes:
    """All of it as one file."""
    return ("IN;" + "".join(block.commands for block in blocks(drawn, strips)) + "PU0,0;SP0;").encode("ascii")


def _block(item: Drawn, strip: Strip, begin: float, *, parted: bool) -> Block | None:
    """What of a piece lies in a strip, drawn on the roll from ``begin``; None where nothing of it does."""
    field = box(strip.left, strip.top - strip.height, strip.left + strip.width, strip.top)
    commands: list[str] = []
    along: list[float] = []

    def on_roll(x: float, y: float) -> tuple[float, float]:
        return x - strip.left, strip.top - y + begin

    for stroke in item.strokes:
        places = [tuple(p) for p in stroke.path.placed(item.placement).flatten(STRAY)]
        if stroke.closed and places[0] != places[-1]:
            places.append(places[0])
        line = LineString(places)
        for part in [line] if field.covers(line) else lines_in(line.intersection(field)):
            run = [on_roll(x, y) for x, y in part.coords]
            along += [y for _, y in run]
            commands.append(f"SP{PENS.get(stroke.ink, OTHER_PEN)};PU{_steps(run[:1])};PD{_steps(run[1:])};")
    if not commands:
        return None
    name = f"{item.piece.name}, strip {strip.name}" if parted else item.piece.name
    if parted:
        for x in (0.0, strip.width):
            for y in (min(along), max(along)):
                commands.append(f"SP{OTHER_PEN};" + _cross(x, y))
    for words in (placed(words, item.placement) for words in item.words):
        if field.covers(shape(words)):
            commands.append(_written(words, on_roll))
    return Block(name, "".join(commands), min(along), max(along))


def lines_in(found: BaseGeometry) -> list[LineString]:
    """The lines of what an intersection came to; touching at a point is none."""
    parts = getattr(found, "geoms", [found])
    return [part for part in parts if isinstance(part, LineString) and part.length > 0.01]


def _cross(x: float, y: float) -> str:
    half = CROSS / 2
    level = f"PU{_steps([(max(x - half, 0), y)])};PD{_steps([(x + half, y)])};"
    return level + f"PU{_steps([(x, max(y - half, 0))])};PD{_steps([(x, y + half)])};"


def _written(words: Words, on_roll: Callable[[float, float], tuple[float, float]]) -> str:
    """Lines of words, upright or on their side."""
    size, turn = words.size / 10, radians(words.angle)
    commands = [f"SP{WORD_PEN};SI{size * 0.6:.3f},{size:.3f};DI{cos(turn):.4f},{-sin(turn):.4f};"]
    for k, line in enumerate(words.lines):
        said = printed(line).encode("ascii", errors="replace").decode().replace(";", ",")
        at = on_roll(words.at.x + k * words.step * sin(turn), words.at.y - k * words.step * cos(turn))
        commands.append(f"PU{_steps([at])};LB{said}{ENDS_TEXT};")
    return "".join(commands)


def _steps(places: Sequence[tuple[float, float]]) -> str:
    return ",".join(f"{round(x * STEPS)},{round(y * STEPS)}" for x, y in places)
