"""Fullness without a curve (trade 8): gathered, pleated and tiered skirts, cut straight.

gathered   cut width = seam × fullness
pleated    cut = S + 2 · depth · n;  knife, box, inverted;  depth adjusted to hit S exactly
tiers      each tier is sewn to the one above, so many times as wide; finished heights add up to the length
"""

from math import ceil
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.findings import Finding, Remedy, in_recipe, note, warn
from gentle_hem.core.geometry import Line, Path, Point
from gentle_hem.core.lower.panel import (
    HemAllowance,
    hem_of,
    level_hem,
    panel,
    seam_halves,
    too_short,
    two_panels,
    under,
)
from gentle_hem.core.lower.straight import meet_the_bodice
from gentle_hem.core.parts import FinishedLength, Host, LowerMade, LowerPart, SeamLength, between, number_between
from gentle_hem.core.pattern import Dart, Fold, Notch, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Manner, Run, Seam, Stretch, centre_seams, seam_of
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.units import Length
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import SKIRT_BACK, SKIRT_FRONT, WAIST_CORNERS, Half, Panel, Section, Sign, What
from gentle_hem.core.workings import Count, Ratio, Worked, Workings

LEAST_FULLNESS = 1.15
FULLNESSES = ((1.5, "1.5 times, heavy cloth"), (2, "twice"), (2.5, "2.5 times, light cloth"), (3, "3 times, net"))
"""Common practice (trade 8)."""


LAID = {"knife": None, "box": Fold.BOTH_OUT, "inverted": Fold.BOTH_IN}
"""The way each kind of pleat is laid."""


def say_fullness(value: float) -> str:
    return {2.0: "twice", 1.5: "one and a half times", 3.0: "three times"}.get(float(value), f"{value:g} times")


Fullness = Annotated[float, number_between(1, 8, "times fullness")]


class StraightCut(LowerPart):
    """What gathered, pleated and tiered skirts share."""

    length: FinishedLength = Field(620.0, description="Finished length, waist seam to hem.")
    seam: SeamLength | None = Field(None, description="The seam it is made for; nothing: the bodice's.")
    hem: HemAllowance = Field(40.0, description="Hem allowance.")

    def remedies(self, report: Walked) -> list[Remedy]:
        return meet_the_bodice(self.seam, report)


def rectangle(
    what: What, host: Host, width: float, height: float, hem: float, notches: tuple[Notch, ...] = (),
    darts: tuple[Dart, ...] = (),
) -> Piece:  # fmt: skip
    """A straight panel: ``width`` from the centre to the side."""
    waist = Path.of(Line(Point(width, 0), Point(0, 0)))
    side = Path.of(Line(Point(width, 0), Point(width, -height)))
    return panel(
        what, host, waist=waist, side=side, hem=level_hem(width, height), darts=darts, hem_allowance=hem,
        notches=notches,
    )  # fmt: skip


class GatheredSkirt(StraightCut):
    """A gathered skirt, twice as wide as its seam, 62 cm finished."""

    title: ClassVar[str] = "Gathered skirt"
    sentences: ClassVar[tuple[str, ...]] = (
        "A gathered skirt, {length} finished, {fullness} as wide as {seam}, hem {hem}.",
        "The cloth is {cloth_width} wide between its selvedges.",
    )
    words: ClassVar[dict[str, Word]] = {
        "length": length("finished length"),
        "fullness": number("fullness", *FULLNESSES, spoken=say_fullness),
        "seam": length("seam it is gathered to", without="the bodice's waist as it measures"),
        "hem": length("hem allowance"),
        "cloth_width": length("usable cloth width", without="as wide as it takes"),
    }

    kind: Literal["gathered"] = "gathered"
    fullness: Fullness = 2.0
    cloth_width: Annotated[Length, between(200, 5000)] | None = None

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        front, back = seam_halves(host, self.seam)
        cut = notes.work(
            "cut width", 2 * (front + back) * self.fullness, "{seam} × {fullness}", seam=2 * (front + back),
            fullness=Ratio(self.fullness),
        )  # fmt: skip
        pieces = []
        for what, half in ((SKIRT_FRONT, front), (SKIRT_BACK, back)):
            width = half * self.fullness
            marks = tuple(gather_marks(host, what, half, self.fullness))
            pieces.append(rectangle(what, host, width, self.length, self.hem, marks))
        found: list[Finding] = too_short(self.length, self.hem, host.allowances)
        if 1.0 < self.fullness < LEAST_FULLNESS:
            found.append(
                warn(
                    "gather-looks-like-mistake",
                    "Gathers below 1.15 times look like a mistake; ease it or gather more.",
                    *in_recipe("lower.fullness"),
                )
            )
        if self.cloth_width:
            usable = max(self.cloth_width - 2 * host.allowances.side, 10.0)
            panels = notes.work(
                "panels",
                Count(max(1, ceil(cut / usable - 1e-9))),
                "{cut_width} ÷ ({cloth_width} − 2 × {joins}), rounded up",
                rounding="up to whole panels",
                cut_width=cut,
                cloth_width=self.cloth_width,
                joins=host.allowances.side,
            )
            actual = notes.work(
                "fullness in whole widths",
                Ratio(panels * usable / (2 * (front + back))),
                "{panels} × {usable} ÷ {seam}",
                panels=panels,
                usable=usable,
                seam=2 * (front + back),
            )
            found.append(
                note(
                    "whole-widths",
                    "It takes {panels} widths of the cloth; left whole they give a fullness of {actual}.",
                    *in_recipe("lower.cloth_width"),
                    panels=panels,
                    actual=actual,
                )
            )
        return two_panels(
            (pieces[0], pieces[1]), host, self.seam, found, fullness=self.fullness, manner=Manner.GATHERED, why=cut
        )


def gather_marks(host: Host, what: What, half: float, fullness: float) -> list[Notch]:
    """Where the bodice's darts meet the gathered edge, which runs from the side to the centre."""
    return [
        under(name, (half - at) * fullness, double=what.half is Half.BACK) for name, at in _landmarks(host, what, half)
    ]


class PleatedSkirt(StraightCut):
    """A pleated skirt of 16 knife pleats, three times its seam."""

    title: ClassVar[str] = "Pleated skirt"
    sentences: ClassVar[tuple[str, ...]] = (
        "A skirt of {pleats} {style} pleats, {length} finished, cut {fullness} as wide as {seam}, hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "pleats": number("pleats", (8, "8"), (12, "12"), (16, "16"), (24, "24")),
        "style": choice("pleats", ("knife", "knife"), ("box", "box"), ("inverted", "inverted")),
        "length": length("finished length"),
        "fullness": number(
            "times the seam", (1.5, "1.5 times"), (2, "twice"), (3, "three times, full"), spoken=say_fullness
        ),
        "seam": length("seam it is pleated to", without="the bodice's waist as it measures"),
        "hem": length("hem allowance"),
    }

    kind: Literal["pleated"] = "pleated"
    pleats: Annotated[int, number_between(2, 120, "pleats")] = 16
    style: Literal["knife", "box", "inverted"] = "knife"
    fullness: Annotated[float, number_between(1.05, 4, "times the seam")] = 3.0

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        front, back = seam_halves(host, self.seam)
        whole = 2 * (front + back)
        in_front = max(1, round(self.pleats / 2 * front / (front + back)))
        behind = max(1, round(self.pleats / 2) - in_front)
        count = 2 * (in_front + behind)
        cut = notes.work(
            "cut width", whole * self.fullness, "{seam} × {fullness}", seam=whole, fullness=Ratio(self.fullness)
        )
        depth = notes.work(
            "pleat depth", whole * (self.fullness - 1) / (2 * count), "({cut_width} − {seam}) ÷ (2 × {pleats})",
            rule="the depth is adjusted, not the count", cut_width=cut, seam=whole, pleats=Count(count),
        )  # fmt: skip
        spacing = notes.work("pleat spacing", whole / count, "{seam} ÷ {pleats}", seam=whole, pleats=Count(count))
        found = too_short(self.length, self.hem, host.allowances)
        if depth > spacing + 0.5 and self.style != "knife":
            found.append(
                note("pleats-overlap", "Pleats {depth} deep, {spacing} apart, lie over each other behind.",
                     *in_recipe("lower.fullness"), depth=depth, spacing=spacing)
            )  # fmt: skip
        pieces = []
        for what, half, n in ((SKIRT_FRONT, front, in_front), (SKIRT_BACK, back, behind)):
            pleat = half * (self.fullness - 1) / n
            width = half * self.fullness
            darts = []
            for k in range(n):
                from_centre = half * (k + 0.5) / n + pleat * k
                at = width - from_centre - pleat
                apex = Point(from_centre + pleat / 2, -min(60.0, self.length / 2))
                darts.append(Dart("waist", at, pleat, apex, _pleat(what, k), pleat=True, fold=LAID[self.style]))
            marks = tuple(
                under(
                    name,
                    width - (at + pleat * sum(d < at for d in (half * (k + 0.5) / n for k in range(n)))),
                    double=False,
                )
                for name, at in _landmarks(host, what, half)
            )
            marks = tuple(m for m in marks if not any(d.at - 1 < m.at < d.at + d.intake + 1 for d in darts))
            piece = rectangle(what, host, width, self.length, self.hem, marks, tuple(darts))
            pieces.append(replace(piece, remark=f"{self.style} pleats"))
        return two_panels((pieces[0], pieces[1]), host, self.seam, found)


def _pleat(what: What, place: int) -> Sign:
    assert what.half is not None
    return Sign.shaped(what.half, f"pleat {place + 1}")


def _landmarks(host: Host, what: What, half: float) -> list[tuple[Sign, float]]:
    """The shaping of the edge above over a panel: each, and how far from the centre it lies on the panel's seam."""
    assert what.half is not None
    whole = host.front if what.half is Half.FRONT else host.back
    return [(name, at / whole * half) for name, at in host.shaping(what.half)] if whole else []


class TieredSkirt(StraightCut):
    """A skirt of 3 tiers, each 1.6 times as wide as the seam above."""

    title: ClassVar[str] = "Tiered skirt"
    sentences: ClassVar[tuple[str, ...]] = (
        "A skirt of {tiers} tiers, {length} finished, each {fullness} as wide as the edge above it, each "
        "{growth} as long "
        "as the last, sewn to {seam}, hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "tiers": number("tiers", (2, "2"), (3, "3"), (4, "4"), (5, "5")),
        "length": length("finished length"),
        "fullness": number(
            "fullness of each tier", (1.5, "1.5 times"), (1.6, "1.6 times"), (2, "twice"), spoken=say_fullness
        ),
        "growth": number(
            "each longer than the last",
            (1, "just"),
            (1.2, "1.2 times"),
            (1.4, "1.4 times"),
            (1.6, "1.6 times"),
            spoken=lambda v: "just" if v == 1 else f"{v:g} times",
        ),
        "seam": length("seam it is gathered to", without="the bodice's waist as it measures"),
        "hem": length("hem allowance"),
    }

    kind: Literal["tiered"] = "tiered"
    tiers: Annotated[int, number_between(2, 8, "tiers")] = 3
    fullness: Annotated[float, number_between(1, 4, "times fullness")] = 1.6
    growth: Annotated[float, number_between(0.5, 2.5, "times as long")] = 1.0
    hem: HemAllowance = 20.0

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        front, back = seam_halves(host, self.seam)
        heights = tier_heights(self.length, self.tiers, self.growth)
        tiers: list[tuple[Piece, Piece]] = []
        seams: list[Seam] = []
        cuts: list[Worked] = []
        seam = 2 * (front + back)
        for k, height in enumerate(heights):
            seam = notes.work(
                f"tier {k + 1} cut width", seam * self.fullness, "{seam_above} × {fullness}", seam_above=seam,
                fullness=Ratio(self.fullness),
            )  # fmt: skip
            cuts.append(seam)
            notes.work(f"tier {k + 1} height", height, "its share of {length}", length=self.length)
            lower = replace(host, above=replace(host.above, level=host.level + sum(heights[:k])))
            tiers.append(
                (self._panel(k, Half.FRONT, height, lower, front), self._panel(k, Half.BACK, height, lower, back))
            )
        notes.work("hem sweep", float(seam), "{last_tier}", last_tier=seam)
        for k, tier in enumerate(tiers):
            ahead, behind = tier
            seams.append(seam_of(f"tier {k + 1} side seam", (ahead.what, "side"), (behind.what, "side")))
            seams += [replace(s, title=f"tier {k + 1} centre back seam") for s in centre_seams(tier)]
            if k:
                above = replace(hem_of(tiers[k - 1]), called=f"tier {k}", why=cuts[k - 1])
                own = replace(_tops(tier), called=f"tier {k + 1}", why=cuts[k])
                seams.append(
                    Seam(f"tier {k + 1} seam", above, own, fullness=self.fullness, manner=Manner.GATHERED)
                )  # fmt: skip
        return LowerMade(
            tuple(piece for tier in tiers for piece in tier), tuple(seams), replace(_tops(tiers[0]), why=cuts[0]),
            hem_of(tiers[-1]), pin={"lower.seam": 2 * (front + back)}, fullness=self.fullness, manner=Manner.GATHERED,
            findings=tuple(too_short(heights[-1], self.hem, host.allowances)),
        )  # fmt: skip

    def _panel(self, place: int, half: Half, height: float, host: Host, edge: float) -> Piece:
        """The front or back of one tier; ``edge`` is what the whole skirt hangs from in that half."""
        last, grown = place == self.tiers - 1, self.fullness ** (place + 1)
        what = What(Section.SKIRT, half, Panel.TIER, number=place + 1)
        marks = tuple(gather_marks(host, what, edge, grown)) if place == 0 else ()
        hem = self.hem if last else host.allowances.panel
        piece = rectangle(what, host, edge * grown, height, hem, marks)
        if last:
            return piece
        return replace(piece, edges=tuple(replace(e, turned=False) if e.name == "hem" else e for e in piece.edges))


def _tops(tier: tuple[Piece, Piece]) -> Run:
    return Run(tuple(Stretch(piece.what, "waist", backwards=True) for piece in tier), WAIST_CORNERS, "skirt")


def tier_heights(length: float, tiers: int, growth: float) -> list[float]:
    """Finished heights that add up to the length, each ``growth`` times the one above (trade 8)."""
    first = length / sum(growth**k for k in range(tiers))
    return [first * growth**k for k in range(tiers)]
