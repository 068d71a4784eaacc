"""Circular flounces (trade 8): rings, or one spiral, whose inner edge is sewn on flat and whose outer edge ripples.

ring      r = (base ÷ n + 2j) ÷ 2π on the seam line; each has two cut ends with a join allowance j
spiral    the inner edge an Archimedean spiral; one piece for the whole base
"""

from dataclasses import dataclass
from math import asinh, ceil, cos, pi, sin, sqrt, tau
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.findings import Finding, in_recipe, warn
from gentle_hem.core.geometry import ORIGIN, Arc, Line, Path, Point, polar
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import Edge, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of
from gentle_hem.core.sentences import Word, length, number
from gentle_hem.core.trim.base import Trim, Turn
from gentle_hem.core.trim.ruffle import HALF, joined_hem
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import UNNAMED, Panel, Section, What
from gentle_hem.core.workings import Count, Ratio, Worked, Workings
from gentle_hem.core.workroom import Dressed

SLIT = 0.05
"""The two cut ends of a ring are drawn this far apart, so that its outline does not touch itself (mm)."""


@dataclass(frozen=True, slots=True)
class RingNumbers:
    """A ring flounce worked out, mm."""

    seam_radius: Worked
    cut_radius: Worked
    hem_radius: Worked
    outer_cut_radius: Worked
    fullness: Worked
    diameter: Worked


def ring(base: float, rings: int, width: float, join: float, inner: float, hem: float, notes: Workings) -> RingNumbers:
    """All the numbers of n rings: r = (base ÷ n + 2j) ÷ 2π (trade 8)."""
    radius = notes.work(
        "seam radius", (base / rings + 2 * join) / tau, "({base} ÷ {rings} + 2 × {join_allowance}) ÷ 2π",
        base=base, rings=Count(rings), join_allowance=join,
    )  # fmt: skip
    cut = notes.work(
        "cut radius", radius - inner, "{seam_radius} − {inner_allowance}", seam_radius=radius, inner_allowance=inner
    )
    outer = notes.work("hem radius", radius + width, "{seam_radius} + {width}", seam_radius=radius, width=width)
    outer_cut = notes.work(
        "outer cut radius", outer + hem, "{hem_radius} + {hem_allowance}", hem_radius=outer, hem_allowance=hem
    )
    full = notes.work(
        "fullness", Ratio((radius + width) / radius), "({seam_radius} + {width}) ÷ {seam_radius}",
        rule="few big rings are limp, many small ones curl", seam_radius=radius, width=width,
    )  # fmt: skip
    across = notes.work("diameter", 2 * outer_cut, "2 × {outer_cut_radius}", outer_cut_radius=outer_cut)
    return RingNumbers(radius, cut, outer, outer_cut, full, across)


def curling(numbers: RingNumbers, where: str) -> list[Finding]:
    """What is said of rings so small that they curl over; ``where`` is their trim's place in the recipe."""
    if numbers.fullness <= 8:
        return []
    return [
        warn("rings-curl", "Rings {fullness} times as full curl over; use fewer.", *in_recipe(f"{where}.rings"),
             fullness=numbers.fullness)
    ]  # fmt: skip


class RingFlounce(Trim):
    """A flounce of 6 rings, 20 cm deep, at the hem."""

    turn: ClassVar[Turn] = Turn.AT_THE_HEM
    title: ClassVar[str] = "Ring flounce"
    sentences: ClassVar[tuple[str, ...]] = (
        "A circular flounce of {rings} rings, {width} deep, sewn to the hem, its joins {join}, its hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "rings": number("rings", (2, "2"), (4, "4"), (6, "6"), (8, "8")),
        "width": length("depth of the flounce"),
        "join": length("join allowance at each cut end"),
        "hem": length("hem of the flounce"),
    }

    kind: Literal["ring_flounce"] = "ring_flounce"
    rings: Annotated[int, number_between(1, 60, "rings")] = 6
    width: Annotated[Length, between(10, 800)] = 200.0
    join: Annotated[Length, between(0, 40)] = inches(0.5)
    hem: Annotated[Length, between(0, 40)] = Field(inches(0.25), description="A narrow hem.")

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("flounce")
        dress = joined_hem(dress)
        base = 2 * dress.half_hem
        numbers = ring(base, self.rings, self.width, self.join, dress.allowances.panel, self.hem, notes)
        what = dress.free(What(Section.FLOUNCE, panel=Panel.RING))
        radius = float(numbers.seam_radius)
        inner_allowance = min(dress.allowances.panel, 0.8 * radius)
        piece = ring_piece(
            what, radius, self.width, base / self.rings, self.join, inner_allowance, self.hem, self.rings
        )
        seams = _to_hem(dress, rings_of_half(piece, "top", self.rings, backwards=True), numbers.seam_radius)
        joined = seam_of(f"{what.name} join", (what, "start"), (what, "end"))
        return replace(
            dress.with_pieces([piece]).sewn(seams, joined).also(*curling(numbers, where)),
            hem=rings_of_half(piece, "hem", self.rings, backwards=False), length=dress.length + self.width,
        )  # fmt: skip


def rings_of_half(piece: Piece, edge: str, rings: int, *, backwards: bool) -> Run:
    """What the half garment has of so many rings: whole ones, and half of one where their number is odd."""
    own = [Stretch(piece.what, edge, backwards)] * (rings // 2)
    if rings % 2:
        half = piece.edge(edge).drawn_length / 2
        own.append(Stretch(piece.what, edge, backwards, half) if backwards else Stretch(piece.what, edge, end=half))
    corners = (HALF[0], *[UNNAMED] * (len(own) - 1), HALF[1])
    return Run(tuple(own), corners, "flounce" if backwards else "hem")


def ring_piece(
    what: What, radius: float, width: float, stitched: float, join: float, inner: float, hem: float, cut: int
) -> Piece:  # fmt: skip
    """One ring with a slit, its two ends' seam lines ``join`` inside the slit, its inner edge ``stitched`` long."""
    turn = stitched / radius
    outer = radius + width
    begin = -pi / 2 - turn / 2
    a, b = begin, begin + turn
    # the ends run alongside the slit, so that the allowance beside them is even all the way out
    foot_a, foot_b = polar(radius, a), polar(radius, b)
    beside = max(min(join, abs(foot_a.x)) - SLIT, 0.0)
    out_a, out_b = _outward(foot_a, outer), _outward(foot_b, outer)
    hem_path = Path.of(Arc(ORIGIN, outer, out_a.angle, _sweep(out_a.angle, out_b.angle)))
    edges = (
        Edge("start", Role.PANEL, Path.of(Line(foot_a, out_a)), beside),
        Edge("hem", Role.HEM, hem_path, hem, turned=True),
        Edge("end", Role.PANEL, Path.of(Line(out_b, foot_b)), beside),
        Edge("top", Role.PANEL, Path.of(Arc(ORIGIN, radius, b, -turn)), inner),
    )
    return Piece(
        what, edges, cut=cut, alike=True,
        grain=(Point(0, -(radius + 0.25 * width)), Point(0, -(radius + 0.75 * width))),
    )  # fmt: skip


def _outward(foot: Point, outer: float) -> Point:
    """From the inner end straight up, alongside the slit, to the outer circle."""
    return Point(foot.x, sqrt(max(outer**2 - foot.x**2, 0.0)))


def _sweep(start: float, end: float) -> float:
    return (end - start) % tau


class SpiralFlounce(Trim):
    """A spiral flounce 15 cm deep for the whole hem in one piece."""

    turn: ClassVar[Turn] = Turn.AT_THE_HEM
    title: ClassVar[str] = "Spiral flounce"
    sentences: ClassVar[tuple[str, ...]] = (
        "A spiral flounce {width} deep, cut in one from a first radius of {start}, sewn to the hem, its hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "width": length("depth of the flounce"),
        "start": length("first inner radius"),
        "hem": length("hem of the flounce"),
    }

    kind: Literal["spiral_flounce"] = "spiral_flounce"
    width: Annotated[Length, between(10, 400)] = 150.0
    start: Annotated[Length, between(10, 400)] = 40.0
    hem: Annotated[Length, between(0, 30)] = Field(inches(0.25), description="A narrow hem.")

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("flounce")
        dress = joined_hem(dress)
        base = 2 * dress.half_hem
        allowance = min(dress.allowances.panel, self.start * 0.6)
        pitch = notes.work(
            "spiral pitch",
            self.width + allowance + self.hem + 4.0,
            "{depth} + {inner_allowance} + {hem} + {air}",
            rule="each turn clears the one inside it",
            depth=self.width,
            inner_allowance=allowance,
            hem=self.hem,
            air=4.0,
        )
        growth = float(pitch) / tau
        turns = spiral_turn(self.start, growth, base)
        why = notes.work("turns", Ratio(turns / tau), "until the inner edge measures {base}", base=base)
        what = dress.free(What(Section.FLOUNCE, panel=Panel.SPIRAL))
        inner, outer = spiral(self.start, growth, turns), spiral(self.start + self.width, growth, turns)
        edges = (
            Edge("start", Role.PANEL, Path.through(inner.start, outer.start), 0.0),
            Edge("hem", Role.HEM, outer, self.hem, turned=False),
            Edge("end", Role.PANEL, Path.through(outer.end, inner.end), 0.0),
            Edge("top", Role.PANEL, inner.reversed(), allowance),
        )
        piece = Piece(
            what, edges, cut=1, remark="its ends are joined at the centre back",
            grain=(inner.start.towards(outer.start, 0.3), inner.start.towards(outer.start, 0.8)),
        )  # fmt: skip
        half = Stretch(what, "top", backwards=True, start=piece.edge("top").drawn_length / 2)
        return replace(
            dress.with_pieces([piece]).sewn(_to_hem(dress, Run((half,), HALF, "flounce"), why)),
            hem=Run((Stretch(what, "hem", end=outer.length / 2),), HALF, "hem"), length=dress.length + self.width,
        )  # fmt: skip


def spiral_length(start: float, growth: float, turn: float) -> float:
    """Length of the Archimedean spiral r = start + growth·φ over an angle, in closed form."""

    def grown(r: float) -> float:
        return (r * sqrt(r * r + growth * growth) + growth * growth * asinh(r / growth)) / (2 * growth)

    return grown(start + growth * turn) - grown(start)


def spiral_turn(start: float, growth: float, length: float) -> float:
    """The angle over which the spiral measures ``length``."""
    low, high = 0.0, length / start + 1
    for _ in range(100):
        middle = (low + high) / 2
        low, high = (middle, high) if spiral_length(start, growth, middle) < length else (low, middle)
    return (low + high) / 2


def spiral(start: float, growth: float, turn: float) -> Path:
    """The spiral as a smooth curve, a place every eighth of a turn or less."""
    count = max(4, ceil(turn / (pi / 10)))
    places = [polar(start + growth * turn * k / count, turn * k / count) for k in range(count + 1)]

    def direction(angle: float, radius: float) -> Point:
        return Point(-radius * sin(angle) + growth * cos(angle), radius * cos(angle) + growth * sin(angle))

    return smooth_through(places, direction(0.0, start), direction(turn, start + growth * turn))


def _to_hem(dress: Dressed, own: Run, why: Worked) -> Seam:
    """A flounce, its run over the half garment, sewn to the hem all round."""
    [what] = own.pieces
    return Seam(f"{what.name} seam", replace(dress.hem, called="hem"), replace(own, why=why))
