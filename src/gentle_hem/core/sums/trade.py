"""Sums of the trade's smaller questions: flare, ring flounce, godet, tiers, pleats, high and low, step, buttons.

Each asks the module that draws the thing, so that the bench and the pattern cannot differ.
"""

from __future__ import annotations

from math import pi, radians
from typing import Annotated, ClassVar

from pydantic import model_validator

from gentle_hem.core.findings import Finding, note, stop, warn
from gentle_hem.core.geometry import ORIGIN, Arc, Line, Path, Point, polar
from gentle_hem.core.lower.a_line import flare_raise
from gentle_hem.core.lower.circle_family import high_low_edge, high_low_length
from gentle_hem.core.lower.full import tier_heights
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.sums.sum import Sum, SumAllowance, SumLength, SumSeam, SumSweep, Value, asked
from gentle_hem.core.trim.flounce import ring, ring_piece
from gentle_hem.core.trim.godet import godet, godet_piece
from gentle_hem.core.units import Length
from gentle_hem.core.wear import least_step_sweep
from gentle_hem.core.what import Panel, Section, What
from gentle_hem.core.workings import Count, Ratio, Workings


class FlareSum(Sum):
    """Length 9 in, flare 3 in."""

    name: ClassVar[str] = "flare"
    title: ClassVar[str] = "Flare at a seam"
    purpose: ClassVar[str] = "How much a hem rises at a seam that is flared out."

    length: SumLength = asked("length of the seam", help="From where the flare begins.")
    flare: SumLength = asked("flare at the hem")

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        rise = flare_raise(self.length, self.flare, notes)
        before = notes.work(
            "side length before", self.length + rise, "{length} + {raise_}", length=self.length, raise_=rise
        )
        return {"hem_raise": rise, "side_length_before": before}, []

    def sketch(self) -> list[Path]:
        slant = Point(self.flare, -self.length).unit * self.length
        return [
            Path.through(Point(0, -self.length), Point(0, 0), Point(0, 0) + slant),
            Path.through(Point(0, -self.length), slant),
        ]


class RingFlounceSum(Sum):
    """Base 26 in, three rings, 5 in deep."""

    name: ClassVar[str] = "ring_flounce"
    title: ClassVar[str] = "Ring flounce"
    purpose: ClassVar[str] = "The rings of a circular flounce for an edge, and how full they fall."

    base: SumSeam = asked("edge it is sewn to")
    rings: Annotated[int, number_between(1, 200, "rings")] = asked("rings", "count")
    width: SumLength = asked("depth of the flounce")
    join_allowance: SumAllowance = asked("join allowance", default=0.0, help="At each cut end of each ring.")
    inner_allowance: SumAllowance = asked("inner allowance", default=0.0)
    hem_allowance: SumAllowance = asked("hem allowance", default=0.0)
    cloth_width: SumLength | None = asked("usable cloth width", default=None, help="Between the selvedges.")

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        made = ring(
            self.base, self.rings, self.width, self.join_allowance, self.inner_allowance, self.hem_allowance, notes
        )
        found: list[Finding] = []
        if made.cut_radius <= 0:
            found.append(
                stop(
                    "rings-too-small",
                    "The inner allowance uses up the radius of {radius}; use fewer rings.",
                    radius=made.seam_radius,
                )
            )
        if made.fullness > 8:
            found.append(
                warn("rings-curl", "Rings {fullness} times as full curl over; use fewer.", fullness=made.fullness)
            )
        elif made.fullness < 1.5:
            found.append(
                note("rings-limp", "Rings {fullness} times as full are limp; use more.", fullness=made.fullness)
            )
        if self.cloth_width is not None and made.diameter > self.cloth_width:
            found.append(
                stop(
                    "ring-wider-than-cloth",
                    "A ring {diameter} across does not lie on cloth {cloth} wide; use more rings.",
                    diameter=made.diameter,
                    cloth=self.cloth_width,
                )
            )
        return {
            "seam_radius": made.seam_radius,
            "cut_radius": made.cut_radius,
            "hem_radius": made.hem_radius,
            "outer_cut_radius": made.outer_cut_radius,
            "fullness": made.fullness,
            "diameter": made.diameter,
        }, found

    def sketch(self) -> list[Path]:
        radius = (self.base / self.rings + 2 * self.join_allowance) / (2 * pi)
        return [
            ring_piece(
                What(Section.FLOUNCE, panel=Panel.RING),
                radius,
                self.width,
                self.base / self.rings,
                self.join_allowance,
                0,
                0,
                1,
            ).seam_line
        ]


class GodetSum(Sum):
    """Height 16 in, 60°."""

    name: ClassVar[str] = "godet"
    title: ClassVar[str] = "Godet"
    purpose: ClassVar[str] = "What a godet adds to the hem."

    height: SumLength = asked("height of the slit")
    angle: Annotated[float, number_between(1, 350, "degrees")] = asked("angle", "sweep")
    dip: SumAllowance = asked("dip in the middle", default=0.0)
    count: Annotated[int, number_between(1, 200, "godets")] = asked("godets", "count", 1)

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        made = godet(self.height, radians(self.angle), self.dip, self.count, notes)
        return {
            "hem_added": made.hem_added,
            "total_hem_added": made.total,
            "chord": made.chord,
            "centre_length": made.centre,
        }, []

    def sketch(self) -> list[Path]:
        return [godet_piece(What(Section.GODET), self.height, radians(self.angle), self.dip, 0, 0, 1).seam_line]


class TiersSum(Sum):
    """Seam 70 cm, 90 cm long, three tiers at 1.6."""

    name: ClassVar[str] = "tiers"
    title: ClassVar[str] = "Tiers"
    purpose: ClassVar[str] = "How wide and how high to cut each tier."

    seam: SumSeam = asked("seam it is sewn to")
    length: SumLength = asked("finished length")
    tiers: Annotated[int, number_between(1, 20, "tiers")] = asked("tiers", "count")
    fullness: Annotated[float, number_between(1, 8, "times fullness")] = asked("fullness of each tier", "ratio")
    growth: Annotated[float, number_between(0.3, 3, "times as long")] = asked(
        "each as long as the last, times", "ratio", 1.0
    )
    join_allowance: SumAllowance = asked("join allowance", default=0.0)
    hem_allowance: SumAllowance = asked("hem allowance", default=0.0)

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        heights = [
            notes.work(f"tier {k + 1} height", height, "its share of {length}", length=self.length)
            for k, height in enumerate(tier_heights(self.length, self.tiers, self.growth))
        ]
        seams: list[float] = [self.seam]
        widths: list[float] = []
        cut_heights: list[float] = []
        for k, height in enumerate(heights):
            width = notes.work(
                f"tier {k + 1} cut width",
                seams[k] * self.fullness,
                "{seam} × {fullness}",
                seam=seams[k],
                fullness=Ratio(self.fullness),
            )
            widths.append(width)
            seams.append(width)
            below = self.hem_allowance if k == self.tiers - 1 else self.join_allowance
            cut_heights.append(
                notes.work(
                    f"tier {k + 1} cut height",
                    height + self.join_allowance + below,
                    "{height} + {above} + {below}",
                    height=height,
                    above=self.join_allowance,
                    below=below,
                )
            )
        return {"heights": heights, "seams": seams[:-1], "cut_widths": widths, "cut_heights": cut_heights}, []

    def sketch(self) -> list[Path]:
        drawn, y, width = [], 0.0, self.seam
        for height in tier_heights(self.length, self.tiers, self.growth):
            width *= self.fullness
            half = width / 2
            drawn.append(
                Path.through(
                    *(
                        Point(x, v)
                        for x, v in ((-half, y), (half, y), (half, y - height), (-half, y - height), (-half, y))
                    )
                )
            )
            y -= height + 30
        return drawn


class PleatsSum(Sum):
    """Seam 70 cm, 20 pleats, three times as wide."""

    name: ClassVar[str] = "pleats"
    title: ClassVar[str] = "Pleats"
    purpose: ClassVar[str] = "Depth and spacing of pleats that hit the seam exactly."

    seam: SumSeam = asked("seam they are sewn to")
    pleats: Annotated[int, number_between(1, 400, "pleats")] = asked("pleats", "count")
    fullness: Annotated[float, number_between(1.01, 8, "times the seam")] | None = asked(
        "times the seam", "ratio", None, help="3 for full pleats, where no depth is given."
    )
    depth: SumLength | None = asked("depth of each pleat", default=None, help="Instead of a fullness.")

    @model_validator(mode="after")
    def _one_of_them(self) -> PleatsSum:
        if self.fullness is not None and self.depth is not None:
            raise ValueError("Give a fullness or a depth, not both: one follows from the other.")
        return self

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        count = Count(self.pleats)
        if self.depth is not None:
            cut = notes.work("cut width", self.seam + 2 * self.depth * self.pleats, "{seam} + 2 × {depth} × {pleats}",
                             seam=self.seam, depth=self.depth, pleats=count)  # fmt: skip
            depth = notes.work("pleat depth", self.depth, "as asked")
        else:
            full = self.fullness if self.fullness is not None else 3.0
            cut = notes.work("cut width", self.seam * full, "{seam} × {fullness}", seam=self.seam, fullness=Ratio(full))
            depth = notes.work(
                "pleat depth",
                (cut - self.seam) / (2 * self.pleats),
                "({cut_width} − {seam}) ÷ (2 × {pleats})",
                rule="adjust the depth, not the count",
                cut_width=cut,
                seam=self.seam,
                pleats=count,
            )
        spacing = notes.work(
            "pleat spacing", self.seam / self.pleats, "{seam} ÷ {pleats}", seam=self.seam, pleats=count
        )
        found: list[Finding] = []
        if depth > 1.5 * spacing:
            found.append(
                note(
                    "pleats-overlap",
                    "Pleats {depth} deep and {spacing} apart lie over each other.",
                    depth=depth,
                    spacing=spacing,
                )
            )
        return {"cut_width": cut, "spacing": spacing, "depth": depth}, found

    def sketch(self) -> list[Path]:
        full = 1 + 2 * self.depth * self.pleats / self.seam if self.depth is not None else self.fullness or 3.0
        shown = min(self.pleats, 6)
        space = self.seam / self.pleats
        depth = space * (full - 1) / 2
        places = [Point(0, 0)]
        for k in range(shown):
            x = (k + 1) * space
            places += [Point(x, 0), Point(x - depth, -space * 0.25), Point(x, -space * 0.5)]
            places += [Point(x, 0)]
        return [Path.through(*places)]


class HighLowSum(Sum):
    """Seam 70 cm, 50 cm at the front, 90 cm at the back."""

    name: ClassVar[str] = "high_low"
    title: ClassVar[str] = "High and low"
    purpose: ClassVar[str] = "A flare that is shorter in front than behind."

    seam: SumSeam = asked("seam it is sewn to")
    sweep: SumSweep = asked("sweep", "sweep", 360.0)
    front: SumLength = asked("length at the front")
    back: SumLength = asked("length at the back")

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        theta = radians(self.sweep)
        radius = notes.work("seam radius", self.seam / theta, "{seam} ÷ {sweep}", seam=self.seam, sweep=Ratio(theta))
        side = notes.work("length at the sides", high_low_length(self.front, self.back, 0.5), "({front} + {back}) ÷ 2",
                          rule="level half-way round", front=self.front, back=self.back)  # fmt: skip
        half = high_low_edge(float(radius), self.front, self.back, 0.0, 0.5, theta / 4)
        rest = high_low_edge(float(radius), self.front, self.back, 1.0, 0.5, theta / 4)
        sweep = notes.work("hem sweep", 2 * (half.length + rest.length), "measured along the curve, {front} to {back}",
                           front=self.front, back=self.back)  # fmt: skip
        return {"seam_radius": radius, "side_length": side, "hem_sweep": sweep}, []

    def sketch(self) -> list[Path]:
        theta = radians(self.sweep)
        radius = self.seam / theta
        edge = high_low_edge(radius, self.front, self.back, 0.0, 1.0, theta / 2)
        end = -pi / 2 + theta / 2
        inner = Path.of(Arc(ORIGIN, radius, -pi / 2, theta / 2))
        return [inner, edge, Path.of(Line(inner.start, edge.start)), Path.of(Line(polar(radius, end), edge.end))]


class StepSum(Sum):
    """Height 165 cm, inside leg 76 cm, hem 20 cm above the floor, leg 36 cm round there."""

    name: ClassVar[str] = "step"
    title: ClassVar[str] = "Walking step"
    purpose: ClassVar[str] = "The narrowest hem that still lets a step through. An estimate."

    height: SumLength = asked("height")
    inside_leg: SumLength = asked("inside leg")
    hem_height: Annotated[Length, between(0, 5000)] = asked("hem above the floor")
    leg_girth: SumLength = asked("leg girth at the hem")

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        least = least_step_sweep(self.height, self.inside_leg, self.hem_height, self.leg_girth, notes)
        found = [note("step-is-an-estimate", "A stride is taken as 0.41 of the height: an estimate; try it on.")]
        if self.hem_height >= self.inside_leg:
            found.append(note("hem-above-the-legs", "The hem lies above the crotch; it does not bind the step."))
        return {"least_sweep": least}, found

    def sketch(self) -> list[Path]:
        step = 0.41 * self.height
        crotch, foot = Point(0, self.inside_leg), step / 2
        at = max(0.0, (self.inside_leg - self.hem_height) / self.inside_leg) * foot
        return [
            Path.through(Point(-foot, 0), crotch, Point(foot, 0)),
            Path.through(Point(-at, self.hem_height), Point(at, self.hem_height)),
        ]  # fmt: skip


class ButtonsSum(Sum):
    """First 1 cm below the neck, last at 42 cm, 7 buttons."""

    name: ClassVar[str] = "buttons"
    title: ClassVar[str] = "Buttons"
    purpose: ClassVar[str] = "Equal spaces from the first button to the last."

    first: SumAllowance = asked("first button from the top")
    last: SumLength = asked("last button from the top")
    count: Annotated[int, number_between(2, 200, "buttons")] = asked("buttons", "count")

    @model_validator(mode="after")
    def _last_is_lower(self) -> ButtonsSum:
        if self.last <= self.first:
            raise ValueError("The last button lies below the first; give a longer distance for it.")
        return self

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        spacing = notes.work(
            "spacing",
            (self.last - self.first) / (self.count - 1),
            "({last} − {first}) ÷ ({buttons} − 1)",
            last=self.last,
            first=self.first,
            buttons=Count(self.count),
        )
        places = [self.first + k * spacing for k in range(self.count)]
        found = [
            note(
                "buttons-at-stress",
                "Put one at the bust and one at the waist seam, never on a seam's ridge; move the rest evenly.",
            )
        ]
        return {"spacing": spacing, "positions": places}, found

    def sketch(self) -> list[Path]:
        gap = (self.last - self.first) / (self.count - 1)
        small = min(8.0, gap / 3)
        rings = [Path.of(Arc(Point(0, -self.first - k * gap), small, 0, 2 * pi)) for k in range(self.count)]
        return [Path.through(Point(-25, 0), Point(-25, -self.last - 30)), *rings]
