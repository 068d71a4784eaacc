"""The circle's relations (trade 7.4): high and low, handkerchief, gored circle, a full circle to each half.

high-low      L(φ) = Lf + (Lb − Lf)(1 − cos φ)/2, level at the sides half-way
handkerchief  a square outline: shortest at the flat, longest at the corners
gored circle  n equal sectors
double        one full circle for the front seam, another for the back
"""

from math import cos, pi, radians, sqrt
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.findings import Finding, Remedy, in_recipe, note, stop
from gentle_hem.core.geometry import Arc, Line, Path, Point, polar
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.geometry.point import ORIGIN
from gentle_hem.core.lower.flare import NAMED_SWEEPS, least_sweep, say_sweep
from gentle_hem.core.lower.inner_edge import inner_edge, seam_radius
from gentle_hem.core.lower.panel import HemAllowance, seam_halves, two_panels, zip_end
from gentle_hem.core.lower.sector import level_arc, sector_piece
from gentle_hem.core.lower.straight import meet_the_bodice
from gentle_hem.core.parts import (
    FinishedLength,
    Host,
    LowerMade,
    LowerPart,
    OpeningPlace,
    SeamLength,
    Sweep,
    number_between,
)
from gentle_hem.core.pattern import Edge, Notch, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Stretch, seam_of
from gentle_hem.core.sentences import Word, length, number
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import (
    CENTRE_BACK,
    CENTRE_FRONT,
    SIDE_SEAM,
    SKIRT_BACK,
    SKIRT_FRONT,
    Half,
    Panel,
    Section,
    Sign,
    What,
)
from gentle_hem.core.workings import Angle, Count, Ratio, Workings

STEPS = 24
"""A curved hem is drawn through this many places a half; it then strays by less than 0.01 mm."""


class FlareSkirt(LowerPart):
    """What the circle's relations share."""

    seam: SeamLength | None = Field(None, description="Its waist where it is cut already; nothing: the bodice's.")
    hem: HemAllowance = Field(12.0, description="Hem allowance.")

    def remedies(self, report: Walked) -> list[Remedy]:
        return meet_the_bodice(self.seam, report)


def passes_the_hip(host: Host, seam: float, sweep: float, length: float, notes: Workings) -> list[Finding]:
    """Does a flare pass over the hips? (trade 7.3: check it always)"""
    hip, drop = host.figure.get("hip_girth"), host.figure.get("waist_to_hip") or 200.0
    depth = drop - host.level
    if hip is None or depth < 30 or length < depth:
        return []
    least = least_sweep(seam, hip, depth, notes)
    if sweep >= least - 1e-9:
        return []
    return [
        stop(
            "sweep-below-hip",
            "A sweep of {sweep} does not pass over the hips; it takes {least} at least.",
            *in_recipe("lower.sweep"),
            sweep=Angle(sweep),
            least=Angle(least),
        )
    ]


def folds(host: Host, angle: float, is_front: bool) -> bool:
    """Whether a half sector is cut on the fold."""
    opens = not is_front and host.opening.place is OpeningPlace.CENTRE_BACK
    return not opens and 2 * angle < 2 * pi - 0.35


class HighLowSkirt(FlareSkirt):
    """A full circle skirt, 50 cm at the front and 90 cm at the back."""

    title: ClassVar[str] = "High-low skirt"
    sentences: ClassVar[tuple[str, ...]] = (
        "A {sweep} skirt, high and low: {front} at the front and {back} at the back, sewn to {seam}, hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "sweep": number("sweep in degrees", *NAMED_SWEEPS[:4], spoken=say_sweep),
        "front": length("length at the front"),
        "back": length("length at the back"),
        "seam": length("waist seam of the skirt", without="the bodice's waist as it measures"),
        "hem": length("hem allowance"),
    }

    kind: Literal["high_low"] = "high_low"
    sweep: Annotated[float, number_between(20, 680, "degrees of sweep")] = 360.0
    front: FinishedLength = Field(500.0, description="Length at the centre front.")
    back: FinishedLength = Field(850.0, description="Length at the centre back.")

    @property
    def hangs(self) -> float:
        return max(self.front, self.back)

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        seam = 2 * sum(seam_halves(host, self.seam))
        theta = radians(self.sweep)
        inner = inner_edge(host, self.seam, theta, self.front + host.point, notes)
        radius, front_angle, back_angle = inner.radius, inner.front_angle, inner.back_angle
        at_side = front_angle / (front_angle + back_angle)
        front = self.front + inner.point  # from the level of the sides, as the whole hem is drawn
        side = notes.work(
            "length at the sides",
            high_low_length(front, self.back, at_side),
            "{front} + ({back} − {front}) × (1 − cos φ) ÷ 2",
            front=front,
            back=self.back,
        )
        front_hem = high_low_edge(radius, front, self.back, 0.0, at_side, front_angle)
        back_hem = high_low_edge(radius, front, self.back, 1.0, at_side, back_angle)
        notes.work(
            "hem sweep",
            2 * (front_hem.length + back_hem.length),
            "measured along the curve from {front} to {back} by {sides}",
            front=front,
            back=self.back,
            sides=float(side),
        )
        pieces = tuple(
            sector_piece(
                what, host, radius, angle, hem, self.hem, folds(host, angle, what.half is Half.FRONT), edge
            )
            for what, angle, hem, edge in (
                (SKIRT_FRONT, front_angle, front_hem, inner.front), (SKIRT_BACK, back_angle, back_hem, None)
            )
        )  # fmt: skip
        found = passes_the_hip(host, seam, theta, min(self.front, self.back), notes)
        found.append(hang())
        return replace(two_panels((pieces[0], pieces[1]), host, self.seam, found), point=inner.point)


def hang() -> Finding:
    return note("hang-before-levelling", "Let it hang 24 to 48 hours before the hem is levelled: the bias parts drop.")


def high_low_length(front: float, back: float, share: float) -> float:
    """Length at a share of the way from CF (0) to CB (1): L(φ) = Lf + (Lb − Lf)(1 − cos φ)/2 (trade 7.4)."""
    return front + (back - front) * (1 - cos(pi * share)) / 2


def high_low_edge(radius: float, front: float, back: float, start: float, end: float, angle: float) -> Path:
    """The hem of one sector, its centre line hanging straight down, from a share of the way round to another."""
    places = []
    for k in range(STEPS + 1):
        share = start + (end - start) * k / STEPS
        places.append(polar(radius + high_low_length(front, back, share), -pi / 2 + angle * k / STEPS))
    leave, last = polar(1.0, 0.0), polar(1.0, angle)  # level at the centre, where L(φ) does not change
    slope = (high_low_length(front, back, end + 1e-6) - high_low_length(front, back, end - 1e-6)) / 2e-6
    per_angle = slope * (end - start) / angle
    reach = radius + high_low_length(front, back, end)
    arrive = last * reach + polar(1.0, -pi / 2 + angle) * per_angle
    return smooth_through(places, leave, arrive)


class HandkerchiefSkirt(FlareSkirt):
    """A handkerchief skirt, 50 cm at the flat."""

    title: ClassVar[str] = "Handkerchief skirt"
    sentences: ClassVar[tuple[str, ...]] = (
        "A handkerchief skirt from a square, {length} where it is shortest, sewn to {seam}, hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "length": length("shortest length"),
        "seam": length("waist seam of the skirt", without="the bodice's waist as it measures"),
        "hem": length("hem allowance"),
    }

    kind: Literal["handkerchief"] = "handkerchief"
    length: FinishedLength = Field(500.0, description="Length at the flat of the square, where it is shortest.")

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        seam = 2 * sum(seam_halves(host, self.seam))
        radius = float(seam_radius(seam, 2 * pi, notes))
        half = notes.work(
            "half the square's side", radius + self.length, "{radius} + {length}", radius=radius, length=self.length
        )
        notes.work(
            "length at the corners",
            half * sqrt(2) - radius,
            "{half_side} × √2 − {radius}",
            half_side=half,
            radius=radius,
        )
        notes.work("hem sweep", 8 * half, "8 × {half_side}", half_side=half)
        a = float(half)
        hem = Path.through(Point(0, -a), Point(a, -a), Point(a, 0))
        pieces = tuple(
            sector_piece(
                what, host, radius, pi / 2, hem, self.hem, folds(host, pi / 2, what.half is Half.FRONT)
            ).with_edge("hem", pointed=True)
            for what in (SKIRT_FRONT, SKIRT_BACK)
        )
        return two_panels((pieces[0], pieces[1]), host, self.seam, [hang()])


class GoredCircle(FlareSkirt):
    """A full circle in 8 gores, 70 cm finished."""

    title: ClassVar[str] = "Circle skirt in gores"
    sentences: ClassVar[tuple[str, ...]] = (
        "A {sweep} in {count} gores, {length} finished, sewn to {seam}, hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "sweep": number("sweep in degrees", *NAMED_SWEEPS, spoken=say_sweep),
        "count": number("gores", (6, "6"), (8, "8"), (12, "12"), (16, "16")),
        "length": length("finished length"),
        "seam": length("waist seam of the skirt", without="the bodice's waist as it measures"),
        "hem": length("hem allowance"),
    }

    kind: Literal["gored_circle"] = "gored_circle"
    sweep: Sweep = 360.0
    count: Annotated[int, number_between(4, 32, "gores")] = 8
    length: FinishedLength = Field(700.0, description="Finished length, waist seam to hem.")

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        count = self.count + self.count % 2
        seam = 2 * sum(seam_halves(host, self.seam))
        theta = radians(self.sweep)
        radius = float(seam_radius(seam, theta, notes))
        angle = notes.work(
            "angle of a gore", Angle(theta / count), "{sweep} ÷ {gores}", sweep=Angle(theta), gores=Count(count)
        )
        notes.work(
            "hem sweep",
            theta * (radius + self.length),
            "{sweep} × {hem_radius}",
            sweep=Ratio(theta),
            hem_radius=radius + self.length,
        )
        turn, outer = float(angle), radius + self.length
        start = -pi / 2 - turn / 2
        allowances = host.allowances
        edges = (
            Edge("side near", Role.SIDE, Path.of(Line(polar(radius, start), polar(outer, start))), allowances.side),
            Edge("hem", Role.HEM, Path.of(Arc(ORIGIN, outer, start, turn)), self.hem, turned=True),
            Edge(
                "side",
                Role.SIDE,
                Path.of(Line(polar(outer, start + turn), polar(radius, start + turn))),
                allowances.side,
            ),
            Edge(
                "waist",
                Role.WAIST,
                Path.of(Arc(ORIGIN, radius, start + turn, -turn)),
                min(allowances.waist, radius / 2),
            ),
        )
        what = What(Section.SKIRT, panel=Panel.GORE)
        opens = host.opening.place is not OpeningPlace.NONE and 0 < host.zip_ends < self.length
        zipped = [zip_end("side", self.length - host.zip_ends), zip_end("side near", host.zip_ends)] if opens else []
        gore = Piece(
            what,
            edges,
            cut=count,
            alike=True,
            notches=(Notch("side", self.length / 2), Notch("side near", self.length / 2), *zipped),
            grain=(Point(0, -(radius + 0.3 * self.length)), Point(0, -(radius + 0.7 * self.length))),
            remark="the zip lies in a seam" if host.opening.place is not OpeningPlace.NONE else "",
        )
        half = count // 2
        corners = (CENTRE_FRONT, *(Sign(f"gore seam {k + 1}") for k in range(half - 1)), CENTRE_BACK)
        if half % 2 == 0:
            corners = (*corners[: half // 2], SIDE_SEAM, *corners[half // 2 + 1 :])
        found = passes_the_hip(host, seam, theta, self.length, notes)
        return LowerMade(
            (gore,), (seam_of("gore seam", (what, "side"), (what, "side near")),),
            Run((Stretch(what, "waist", backwards=True),) * half, corners, "skirt"),
            Run((Stretch(what, "hem"),) * half, corners, "hem"),
            pin={"lower.seam": seam}, findings=(*found, hang()),
        )  # fmt: skip


class DoubleCircle(FlareSkirt):
    """A full circle for the front seam and another for the back."""

    title: ClassVar[str] = "Double circle"
    sentences: ClassVar[tuple[str, ...]] = (
        "One full circle for the front seam and another for the back, {length} finished, sewn to {seam}, hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "length": length("finished length"),
        "seam": length("waist seam of the skirt", without="the bodice's waist as it measures"),
        "hem": length("hem allowance"),
    }

    kind: Literal["double_circle"] = "double_circle"
    length: FinishedLength = Field(300.0, description="Finished length, seam to hem.")

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        pieces = []
        for what, half in zip((SKIRT_FRONT, SKIRT_BACK), seam_halves(host, self.seam), strict=True):
            radius = notes.work(
                f"{what.half} seam radius", half / pi, "{seam} ÷ 2π", seam=2 * half, rule="a full circle of its own"
            )
            hem = level_arc(radius + self.length, pi)
            pieces.append(sector_piece(what, host, float(radius), pi, hem, self.hem, False))
        notes.work("hem sweep", 2 * sum(p.edge("hem").drawn_length for p in pieces), "both circles together")
        return two_panels((pieces[0], pieces[1]), host, self.seam, [hang()])
