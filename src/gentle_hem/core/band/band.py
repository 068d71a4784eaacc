"""Bands between bodice and lower part (trade 5, 8): a straight waistband, a shaped hip yoke or basque band.

waistband                      yoke: darts closed, a part of a cone
┌────────────────┐             ╭───── bodice's edge ─────╮
└────────────────┘             ╰────── wider below ───────╯
"""

from __future__ import annotations

from math import pi
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.estimates import Measures
from gentle_hem.core.geometry import Arc, Line, Path, Point, polar
from gentle_hem.core.geometry.point import ORIGIN
from gentle_hem.core.lower.panel import under
from gentle_hem.core.parts import BandMade, EdgeAbove, Host, OpeningPlace, RecipePart, between
from gentle_hem.core.pattern import Edge, Piece, Role
from gentle_hem.core.seams import Run, Stretch, centre_seams, seam_of
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import WAIST_CORNERS, Half, Section, What
from gentle_hem.core.workings import Worked, Workings


class Band(RecipePart):
    """A part between the bodice's edge and the lower part's."""

    def make_up(self, host: Host, notes: Workings) -> BandMade | None:
        """Its pieces; ``waist`` is its upper edge, ``hem`` ``below`` its lower one. None when there is no band."""
        return None

    @property
    def depth(self) -> float:
        """How much lower the lower part begins."""
        return 0.0


class NoBand(Band):
    """The lower part is sewn straight to the bodice."""

    title: ClassVar[str] = "Band"
    sentences: ClassVar[tuple[str, ...]] = ()
    words: ClassVar[dict[str, Word]] = {}

    kind: Literal["none"] = "none"


class Waistband(Band):
    """A waistband 4 cm wide between bodice and skirt."""

    title: ClassVar[str] = "Waistband"
    sentences: ClassVar[tuple[str, ...]] = ("A straight waistband {width} wide is sewn between them, {finish}.",)
    words: ClassVar[dict[str, Word]] = {
        "width": length("width of the band", presets=((inches(1.5), "1 1/2 in"), (40.0, "4 cm"), (60.0, "6 cm"))),
        "finish": choice("how it is cut", ("single", "cut single"), ("faced", "cut double and faced")),
    }

    kind: Literal["waistband"] = "waistband"
    width: Annotated[Length, between(10, 200)] = 40.0
    finish: Literal["single", "faced"] = "faced"

    @property
    def depth(self) -> float:
        return self.width

    def make_up(self, host: Host, notes: Workings) -> BandMade:
        why = notes.about("waistband").work(
            "waistband, half", host.half, "the bodice's edge from CF to CB", rule="its width counts in the skirt length"
        )
        return _band_made(host, self.width, (0.0, 0.0), Section.WAISTBAND, why, 2 if self.finish == "faced" else 1)


class HipYoke(Band):
    """A hip yoke 12 cm deep, shaped to the hip without darts."""

    title: ClassVar[str] = "Hip yoke"
    sentences: ClassVar[tuple[str, ...]] = (
        "A shaped yoke {deep} deep is sewn between them, {ease} easier than the body at its lower edge.",
    )
    words: ClassVar[dict[str, Word]] = {"deep": length("depth of the yoke"), "ease": length("ease at its lower edge")}

    kind: Literal["yoke"] = "yoke"
    deep: Annotated[Length, between(20, 300)] = 120.0
    ease: Annotated[Length, between(0, 200)] = Field(30.0, description="Ease round its lower edge.")

    @property
    def depth(self) -> float:
        return self.deep

    def make_up(self, host: Host, notes: Workings) -> BandMade:
        notes = notes.about("yoke")
        measures = Measures(host.figure, notes)
        hip, drop = measures.take("hip_girth"), measures.take("waist_to_hip")
        whole = 2 * host.half
        depth = host.level + self.deep
        share = min(1.0, max(0.0, depth / max(drop, 1.0)))
        body = notes.work(
            "body at the yoke's edge",
            whole + (hip - whole) * share,
            "{waist} + ({hip} − {waist}) × {depth} ÷ {waist_to_hip}"
            if 0 < share < 1
            else "the hip's {hip}: the edge is {depth} below the waist, the hip {waist_to_hip}"
            if share
            else "the bodice's edge {waist}: the yoke does not reach below the waist",
            waist=whole,
            hip=hip,
            depth=depth,
            waist_to_hip=drop,
        )
        eased = body + self.ease
        lower = notes.work(
            "yoke's lower edge",
            max(eased, whole),
            "{body} + {ease}"
            if eased >= whole
            else "the bodice's edge {edge}, for the body there, {body} + {ease}, is narrower",
            body=body,
            ease=self.ease,
            edge=whole,
        )
        grown = (float(lower) - whole) / 2
        front = grown * host.front / host.half
        return _band_made(host, self.deep, (front, grown - front), Section.HIP_YOKE, None, 1).also(measures.findings)


def _band_made(
    host: Host, deep: float, grown: tuple[float, float], section: Section, why: Worked | None, layers: int
) -> BandMade:
    front = _half(What(section, Half.FRONT), host, host.front, grown[0], deep, layers)
    back = _half(What(section, Half.BACK), host, host.back, grown[1], deep, layers)
    pieces, called = (front, back), section.value
    seams = (seam_of("{section} side seam", (front.what, "side"), (back.what, "side")), *centre_seams((back,)))
    upper = Run(tuple(Stretch(p.what, "waist", backwards=True) for p in pieces), WAIST_CORNERS, called, why)
    lower = Run(tuple(Stretch(p.what, "lower") for p in pieces), WAIST_CORNERS, called)
    return BandMade(pieces, seams, upper, EdgeAbove(lower, host.level + deep))


def _half(what: What, host: Host, top: float, grown: float, deep: float, layers: int) -> Piece:
    """A half band, its centre on the left: its upper edge ``top`` long, its lower one longer by ``grown``."""
    is_front = what.half is Half.FRONT
    if grown > 0.5:
        turn = grown / deep
        radius = top / turn
        upper = Path.of(Arc(ORIGIN, radius, -pi / 2 + turn, -turn))
        lower = Path.of(Arc(ORIGIN, radius + deep, -pi / 2, turn))
        end = -pi / 2 + turn
        centre = Path.of(Line(Point(0, -radius), Point(0, -radius - deep)))
        side = Path.of(Line(polar(radius + deep, end), polar(radius, end)))
    else:
        upper = Path.through(Point(top, 0), Point(0, 0))
        lower = Path.through(Point(0, -deep), Point(top, -deep))
        centre = Path.through(Point(0, 0), Point(0, -deep))
        side = Path.through(Point(top, -deep), Point(top, 0))
    place, allowances = host.opening.place, host.allowances
    role = Role.CENTRE_FRONT if is_front else Role.CENTRE_BACK
    opens = not is_front and place is OpeningPlace.CENTRE_BACK
    edges = (
        Edge(str(role), role, centre, allowances.zip if opens else 0.0, turned=opens),
        Edge("lower", Role.WAIST, lower, allowances.waist),
        Edge("side", Role.SIDE, side, allowances.side, turned=place is OpeningPlace.SIDE),
        Edge("waist", Role.WAIST, upper, allowances.waist),
    )
    marks = []
    for name, at in host.shaping(Half.of(is_front)):
        share = at / top
        if 0.02 < share < 0.98:
            marks.append(under(name, upper.length * (1 - share), double=not is_front))
            marks.append(under(name, lower.length * share, "lower", double=not is_front))
    x, y = min(15.0, top * 0.2), centre.start.y
    # a straight band is cut along the cloth, where it does not give; a shaped one as what hangs from it
    along = Point(0.3 * top, -deep / 2), Point(0.7 * top, -deep / 2)
    piece = Piece(
        what, edges, cut=layers * (2 if opens else 1), on_fold=not opens, notches=tuple(marks),
        grain=(Point(x, y - 0.2 * deep), Point(x, y - 0.8 * deep)) if grown > 0.5 else along,
    )  # fmt: skip
    return piece if is_front else mirrored(piece)
