"""A pen plotter on the end of a line: it draws the blocks it is sent, and says how it stands after each.

sender ── block 3 ──► plotter ──► drawn                         the sender counts what was drawn, and goes on
       ── block 4 ──► plotter ──► the paper ended in the middle ──► new paper ──► block 4 again, from its start
       ── block 5 ──╳ the line is lost                          ──► connected  ──► block 5 again

A real plotter would be driven by a class with the same ``draw``; the one that ships draws on a picture.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum
from typing import Protocol

from gentle_hem.formats.plotted import STEPS, Block, commands_in

Line = tuple[int, tuple[tuple[float, float], ...]]
"""A line that was drawn: with which pen, and through which places on its paper (mm)."""


class Answer(StrEnum):
    """How the plotter stands after a block."""

    DRAWN = "drawn"
    PAPER_OUT = "paper out"


class LineLost(Exception):  # noqa: N818  (it is what a line does)
    """The plotter cannot be reached."""


class Plotter(Protocol):
    """Anything that draws blocks."""

    def draw(self, block: Block, shift: float) -> Answer:
        """Draw a block, its places moved back along the roll by ``shift`` (mm). Raises LineLost."""
        ...


@dataclass
class Sheet:
    """A stretch of paper and what was drawn on it."""

    length: float
    lines: list[Line] = field(default_factory=list)


class SimulatedPlotter:
    """A plotter with a roll that ends and a line that can be cut."""

    def __init__(self, paper: float, width: float = 914.4) -> None:
        self.width = width
        self.sheets = [Sheet(paper)]
        self.cut_after: int | None = None
        """After how many more commands the line is lost; None: it holds."""

    def load(self, length: float) -> None:
        """Put new paper in."""
        self.sheets.append(Sheet(length))

    def draw(self, block: Block, shift: float) -> Answer:
        paper = self.sheets[-1]
        pen, here = 0, (0.0, 0.0)
        for command in commands_in(block.commands):
            if self.cut_after is not None:
                if self.cut_after == 0:
                    raise LineLost
                self.cut_after -= 1
            if command.name == "SP":
                pen = int(command.rest or 0)
            if command.name not in ("PU", "PD"):
                continue
            way = [here]
            for x, y in command.places:
                place = (x, y - shift)
                if place[1] > paper.length + 1 / STEPS:
                    if command.name == "PD":
                        paper.lines.append((pen, tuple(way)))
                    return Answer.PAPER_OUT
                way.append(place)
            here = way[-1]
            if command.name == "PD":
                paper.lines.append((pen, tuple(way)))
        return Answer.DRAWN


@dataclass
class Plot:
    """A plot on its way: what is drawn, and where to go on."""

    title: str
    blocks: list[Block]
    done: int = 0
    shift: float = 0.0
    """Where on the whole pattern the paper that is in now begins (mm)."""
    trouble: str = ""

    @property
    def is_done(self) -> bool:
        return self.done == len(self.blocks)

    def on_new_paper(self) -> None:
        """Go on at the start of new paper, with the piece that was not finished."""
        self.shift = min((block.start for block in self.blocks[self.done :]), default=0.0) - MARGIN

    def go_on(self, plotter: Plotter) -> None:
        """Send what is not drawn, until all is or something stops it."""
        self.trouble = ""
        while not self.is_done:
            block = self.blocks[self.done]
            try:
                answer = plotter.draw(block, self.shift)
            except LineLost:
                self.trouble = f"The line to the plotter was lost at the {block.name}. Going on draws it again, whole."
                return
            if answer is Answer.PAPER_OUT:
                self.trouble = f"The paper ended at the {block.name}. Load new paper; it is drawn again from its start."
                return
            self.done += 1


MARGIN = 10.0
"""How far from the start of new paper a plot goes on (mm)."""
