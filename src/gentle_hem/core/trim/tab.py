"""A buttoned tab (trade 4.6): a short band, sewn double and turned out, one end in a seam and a button at the other.

seam ┃▭▭▭▭▭▭▭▭▷        the buttonhole runs along it, and ends where its end is shaped
"""

from math import pi
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.geometry import Arc, Path, Point
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Edge, Mark, MarkKind, Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.steps.base import ON, PART, EdgeName, Part, Share, edge_word, share_word
from gentle_hem.core.style.fronts import BUTTON_THICKNESS
from gentle_hem.core.trim.base import Trim
from gentle_hem.core.trim.on_seam import at_share, edge_on
from gentle_hem.core.units import Length
from gentle_hem.core.what import Half, Section, Sign, What
from gentle_hem.core.workings import Workings
from gentle_hem.core.workroom import Dressed

FROM_END = 8.0
"""The buttonhole of a tab cut off square ends so far from it (mm), from memory."""

LEAST_FROM_SEAM = 10.0
"""And begins so far from the seam at least (mm)."""


class Tab(Trim):
    """A pointed tab 7 cm long and 3 cm wide at the neck end of the shoulder, with a button of 15 mm."""

    title: ClassVar[str] = "Buttoned tab"
    sentences: ClassVar[tuple[str, ...]] = (
        "A tab {long} long and {wide} wide, its end {end}, is sewn into the {edge} of the {part}, {on}, {share} of its "
        "way, and closes with a button {button} wide.",
    )
    words: ClassVar[dict[str, Word]] = {
        "long": length("length of the tab"), "wide": length("width of the tab"),
        "end": choice("end of the tab", ("pointed", "pointed"), ("round", "round"), ("square", "square")),
        "edge": edge_word("seam or edge"), "part": PART, "on": ON, "share": share_word("where it is sewn in"),
        "button": length("button"),
    }  # fmt: skip

    kind: Literal["tab"] = "tab"
    part: Part = "bodice"
    on: Literal["front", "back"] = "back"
    edge: EdgeName = "centre"
    share: Share = 0.0
    long: Annotated[Length, between(25, 300)] = 70.0
    wide: Annotated[Length, between(10, 120)] = 30.0
    end: Literal["pointed", "round", "square"] = "pointed"
    button: Annotated[Length, between(5, 60)] = 15.0

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        piece, edge = edge_on(dress, self.part, Half(self.on), self.edge)
        if edge.drawn_length < self.wide:
            raise CannotMake(f"the {self.edge} is shorter than the tab is wide")
        half = self.wide / 2
        middle = min(max(at_share(piece, edge, self.edge, self.share), half), edge.drawn_length - half)
        if any(dart.at < middle + half and dart.at + dart.intake > middle - half for dart in piece.darts_of(edge.name)):
            raise CannotMake("a dart lies there; sew it in beside the dart")
        hole = notes.about("tab").work(
            "buttonhole", self.button + BUTTON_THICKNESS, "{button} + {thickness}", button=self.button,
            thickness=BUTTON_THICKNESS,
        )  # fmt: skip
        tabs = 1 if edge.role.is_centre else 2
        made = self._drawn(dress.free(What(Section.TAB)), float(hole), tabs, dress.allowances.panel)
        low, high = middle - half, middle + half
        above = Stretch(
            piece.what, edge.name, False, low if low > 0.01 else 0.0, high if high < edge.drawn_length - 0.01 else None
        )
        marks = (
            Notch(edge.name, at, Sign("tab"), kind=NotchKind.OPEN) for at in (low, high)
            if 0.01 < at < edge.drawn_length - 0.01
        )  # fmt: skip
        own = Run((Stretch(made.what, "edge", backwards=True),), called="tab")
        outline = Run(tuple(Stretch(made.what, name) for name in ("side", "end", "other side")))
        return dress.with_pieces([replace(piece, notches=(*piece.notches, *marks)), made]).sewn(
            Seam(f"{made.name} seam", Run((above,), called=self.edge), own), Seam(f"{made.name} edge", outline, outline)
        )

    def _drawn(self, what: What, hole: float, tabs: int, allowance: float) -> Piece:
        """The tab as it lies finished, ``hole`` mm of buttonhole along its middle."""
        wide, half = self.wide, self.wide / 2
        shaped = self.long if self.end == "square" else self.long - half
        begins = (shaped - FROM_END if self.end == "square" else shaped) - hole
        if begins < LEAST_FROM_SEAM:
            raise CannotMake("the tab is too short for its buttonhole; make it longer, or the button smaller")
        a, b, c, d = Point(0, 0), Point(wide, 0), Point(wide, shaped), Point(0, shaped)
        end = {
            "square": Path.through(c, d), "pointed": Path.through(c, Point(half, self.long), d),
            "round": Path.of(Arc(Point(half, shaped), half, 0.0, pi)),
        }[self.end]  # fmt: skip
        return Piece(
            what,
            (
                Edge("edge", Role.PANEL, Path.through(a, b), allowance),
                Edge("side", Role.PANEL, Path.through(b, c), allowance),
                Edge("end", Role.PANEL, end, allowance, pointed=True),
                Edge("other side", Role.PANEL, Path.through(d, a), allowance),
            ),
            cut=2 * tabs, alike=True,
            marks=(Mark(MarkKind.BUTTONHOLE, Path.through(Point(half, begins), Point(half, begins + hole))),),
            grain=(Point(half * 0.5, shaped * 0.2), Point(half * 0.5, shaped * 0.8)),
            remark="two layers a tab, one of them fused",
        )  # fmt: skip
