"""Slits and vents (trade 5, 10): room to walk in a narrow hem.

slit   a seam left open from the hem up          vent   an extension on the centre back, 9 × 1¾ in, lapped
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.findings import in_recipe, warn
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Edge, Finished, Mark, MarkKind, Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.trim.base import Trim, Turn
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import Sign
from gentle_hem.core.workings import Workings
from gentle_hem.core.workroom import Dressed

VENT_HEIGHT, VENT_WIDTH = inches(9), inches(1.75)
"""A vent is 9 × 1¾ in: common practice (trade 5)."""

OPENS_BY_ITS_HEIGHT = 1.0
"""A slit h high lets the hem open by about its own height at each stride: an estimate."""


class Slit(Trim):
    """A slit 30 cm up the side seams."""

    turn: ClassVar[Turn] = Turn.INTO_THE_PANELS
    title: ClassVar[str] = "Slit"
    sentences: ClassVar[tuple[str, ...]] = ("A slit {height} high in {place}.",)
    words: ClassVar[dict[str, Word]] = {
        "height": length("height of the slit", presets=((inches(4), "4 in"), (300.0, "30 cm"))),
        "place": choice(
            "where it opens",
            ("sides", "both side seams"),
            ("side", "one side seam"),
            ("back", "the centre back"),
            ("front", "the centre front"),
        ),
    }

    kind: Literal["slit"] = "slit"
    height: Annotated[Length, between(20, 1200)] = 300.0
    place: Literal["sides", "side", "back", "front"] = "sides"

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        wanted = {"back": Role.CENTRE_BACK, "front": Role.CENTRE_FRONT}.get(self.place, Role.SIDE)
        changed: list[Piece] = []
        for what in dress.hem.pieces:
            piece = dress.pieces[what]
            edge = next((e for e in piece.edges if e.role is wanted and e.allowance > 0), None)
            if edge is None or edge.drawn_length < self.height + 20:
                continue
            upwards = edge.path.leaving.y > 0
            at = self.height if upwards else edge.drawn_length - self.height
            mark = Notch(edge.name, at, Sign("slit ends"), kind=NotchKind.SLIT_END)
            changed.append(replace(piece, notches=(*piece.notches, mark)))
        if not changed:
            return dress.also(
                warn("no-seam-for-slit", "There is no seam there that is long enough to leave open.", *in_recipe(where))
            )
        times = 2 if self.place == "sides" else 1
        room = notes.about("slit").work(
            "room the slit gives", times * self.height * OPENS_BY_ITS_HEIGHT, "{slits} × {height}",
            rule="an estimate: a slit opens by about its own height", slits=times, height=self.height,
        )  # fmt: skip
        return replace(dress.with_pieces(changed), opened=dress.opened + float(room))


class Vent(Trim):
    """A vent 9 in high and 1¾ in wide at the centre back."""

    turn: ClassVar[Turn] = Turn.INTO_THE_PANELS
    title: ClassVar[str] = "Vent"
    sentences: ClassVar[tuple[str, ...]] = ("A vent {height} high and {width} wide at the centre back.",)
    words: ClassVar[dict[str, Word]] = {"height": length("height of the vent"), "width": length("width of the vent")}

    kind: Literal["vent"] = "vent"
    height: Annotated[Length, between(60, 700)] = VENT_HEIGHT
    width: Annotated[Length, between(20, 120)] = Field(VENT_WIDTH, description="Of the lap.")

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        for what in dress.hem.pieces:
            piece = dress.pieces[what]
            index = next((i for i, e in enumerate(piece.edges) if e.role is Role.CENTRE_BACK), None)
            if index is None or piece.on_fold:
                continue
            try:
                made = vented(piece, self.height, self.width)
            except CannotMake:
                continue
            room = notes.about("vent").work(
                "room the vent gives",
                self.height,
                "{height}",
                rule="an estimate: a vent opens by about its own height",
                height=self.height,
            )
            return replace(dress.with_pieces([made]), opened=dress.opened + float(room))
        return dress.also(
            warn(
                "no-seam-for-vent",
                "A vent needs a centre back seam that is longer than it; put the opening at the centre back.",
                *in_recipe(where, "opening.place"),
            )
        )


def vented(piece: Piece, height: float, width: float) -> Piece:
    """A back with a lap beyond its centre line from the hem up. Raises CannotDraw when it does not fit.

    The back has its centre on the right; it is drawn turned over, with the centre on the left.
    """
    turned = mirrored(piece)
    edges = list(turned.edges)
    index = next(i for i, e in enumerate(edges) if e.role is Role.CENTRE_BACK)
    centre, hem = edges[index], edges[(index + 1) % len(edges)]
    if hem.role is not Role.HEM or centre.drawn_length < height + 60:
        raise CannotDraw("there is no room for a vent")
    upper, lower = centre.path.split(centre.drawn_length - height)
    out = Point(-width, 0)
    a, b = lower.start, lower.end
    slope = Point(-width, -width * 0.6)
    lap = (
        replace(centre, path=upper),
        Edge("vent top", Role.FREE, Path.of(Line(a, a + slope)), 10.0, finished=Finished.TURNED),
        Edge("vent", Role.FREE, Path.of(Line(a + slope, b + out)), 10.0, finished=Finished.TURNED),
        Edge("vent hem", Role.HEM, Path.of(Line(b + out, b)), hem.allowance, turned=True),
    )
    made = (*edges[:index], *lap, *edges[index + 1 :])
    notches = tuple(n for n in turned.notches if n.edge != centre.name or n.at < upper.length)
    fold = Mark(MarkKind.FOLD, Path.of(Line(a, b)))
    return mirrored(replace(turned, edges=made, notches=notches, marks=(*turned.marks, fold)))
