"""Circle skirts and flares: full, half, quarter or any sweep, in one, two or four pieces.

       CF (fold)                              side   CB
        │ ╲ waist                            waist ╱ │
        │   ╲___                            ___╱    │
        │       ╲ side                 side ╱        │ zip
        │        ╲                        ╱         │
        │         ╲                      ╱          │
         ╲__ hem __╲                    ╱__ hem ___╱
           skirt front                   skirt back

Centre front and back hang straight down; the pieces lie beside each other as they are worn.
"""

from math import radians
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.findings import Remedy
from gentle_hem.core.lower.circle_draft import WIDEST_SWEEP, DraftedCircle, curved_hem
from gentle_hem.core.lower.circle_family import folds, hang, passes_the_hip
from gentle_hem.core.lower.flare import (
    NAMED_SWEEPS,
    RadiusRule,
    say_sweep,
    say_times,
)
from gentle_hem.core.lower.inner_edge import follows_point, inner_edge
from gentle_hem.core.lower.panel import seam_halves, too_short, two_panels
from gentle_hem.core.lower.sector import level_arc, sector_piece
from gentle_hem.core.parts import (
    FinishedLength,
    Host,
    LowerMade,
    LowerPart,
    SeamLength,
    StretchPercent,
    between,
    number_between,
)
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, choice, length, number, percent
from gentle_hem.core.units import Length
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import SKIRT_BACK, SKIRT_FRONT, Half
from gentle_hem.core.workings import Ratio, Share, Workings

LEAST_DART, WIDEST_DART = 10.0, 35.0
SMALLEST_SURPLUS_FOR_DARTS = 6.0
"""Darts take 1-3.5 cm each, and none is worth stitching for less than 6 mm, common practice (trade 9.1)."""


class CircleSkirt(LowerPart):
    """A full circle skirt, 62 cm finished, in 2 pieces, sewn to the bodice's waist, hem 1.5 cm."""

    title: ClassVar[str] = "Circle skirt"
    sentences: ClassVar[tuple[str, ...]] = (
        "A {sweep} skirt, {length} finished, in {pieces}, sewn to {seam}, hem {hem}.",
        "The radius is drawn on {rule}, {tape_mark}; {arc_allowance} and the seam is drafted {stretch} smaller "
        "for the bias.",
        "It is cut {fullness} as wide as the seam; its side seams fall {share}; darts under the bodice's "
        "take {front_dart} in front and {back_dart} behind.",
    )
    words: ClassVar[dict[str, Word]] = {
        "sweep": number("sweep in degrees", *NAMED_SWEEPS, spoken=say_sweep),
        "length": length("finished length"),
        "pieces": choice("pieces", (1, "1 piece"), (2, "2 pieces"), (4, "4 pieces")),
        "seam": length("waist seam of the skirt", without="the bodice's waist as it measures"),
        "hem": length("hem allowance"),
        "rule": choice(
            "where the radius is drawn",
            ("seam_line", "the seam line"),
            ("cut_edge", "the cut edge, leaving a trace to gather"),
            help="On the seam line the stitched waist equals the bodice. On the cut edge it comes out longer.",
        ),
        "tape_mark": choice(
            "rounding of the cut radius",
            (0.0, "not rounded"),
            (1.0, "rounded down to 1 mm"),
            (5.0, "rounded down to 5 mm"),
            (3.175, "rounded down to 1/8 in"),
            (6.35, "rounded down to 1/4 in"),
            help="Always down: a waist hole can be cut larger, never smaller.",
        ),
        "arc_allowance": length(
            "allowance taken into the arc",
            without="no allowance is taken into the arc",
            help="Both zip allowances together, added to the seam before dividing.",
        ),
        "stretch": percent("stretch allowance", (0, "0 %"), (1, "1 %"), (2, "2 %"), (3, "3 %"), (5, "5 %")),
        "share": choice(
            "where the side seams fall", ("as_bodice", "under the bodice's"), ("even", "at equal quarters")
        ),
        "fullness": number(
            "times the seam",
            (1, "exactly"),
            (1.5, "1.5 times"),
            (2, "twice"),
            spoken=say_times,
            help="More than the seam is gathered onto it: a gathered circle.",
        ),
        "front_dart": length("front skirt dart, each", nothing="nothing"),
        "back_dart": length("back skirt dart, each", nothing="nothing"),
    }

    kind: Literal["circle"] = "circle"
    sweep: Annotated[float, number_between(1, WIDEST_SWEEP, "degrees of sweep")] = Field(
        360.0, description="Sweep of the whole flare in degrees, all pieces together."
    )
    length: FinishedLength = Field(620.0, description="Finished length, waist seam to hem.")
    pieces: Literal[1, 2, 4] = Field(2, description="How many pieces the flare is cut in.")
    seam: SeamLength | None = Field(
        None, description="Waist of the flare on its stitching line; nothing: the bodice's, as it measures."
    )
    hem: Annotated[Length, between(0, 150)] = Field(15.0, description="Hem allowance.")
    rule: RadiusRule = RadiusRule.SEAM_LINE
    tape_mark: Annotated[Length, between(0, 10)] = Field(
        0.0, description="Round the cut radius down to a multiple of this; 0: not at all."
    )
    arc_allowance: Annotated[Length, between(0, 200)] | None = Field(
        None, description="Both allowances of the opening, taken into the arc instead of added beside it."
    )
    stretch: StretchPercent = Field(0.0, description="Per cent by which the seam is drafted smaller.")
    share: Literal["as_bodice", "even"] = "as_bodice"
    fullness: Annotated[float, number_between(1, 6, "times the seam")] = Field(
        1.0, description="A circle cut wider than its seam, and gathered onto it."
    )
    front_dart: Annotated[Length, between(0, 60)] = 0.0
    back_dart: Annotated[Length, between(0, 60)] = 0.0

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        if self._is_plain and follows_point(host, self.length):
            return self._pointed(host, notes)
        return DraftedCircle.of(self, host, notes).made()

    @property
    def _is_plain(self) -> bool:
        """Cut in seamed pieces on the seam line, nothing taken in, gathered or rounded: it can follow a point."""
        return (
            self.pieces > 1 and self.rule is RadiusRule.SEAM_LINE and self.fullness == 1 and self.share == "as_bodice"
            and not (self.arc_allowance or self.stretch or self.tape_mark or self.front_dart or self.back_dart)
        )  # fmt: skip

    def _pointed(self, host: Host, notes: Workings) -> LowerMade:
        """Under a bodice that ends in a point: the front's inner edge follows it."""
        sweep = radians(self.sweep)
        inner = inner_edge(host, self.seam, sweep, self.length, notes)
        outer = notes.work(
            "hem radius", inner.radius + self.length, "{seam_radius} + {length}", rule="the hem is level",
            seam_radius=inner.radius, length=self.length,
        )  # fmt: skip
        notes.work(
            "length at the centre front", self.length - inner.point, "{length} − {point}",
            length=self.length, point=inner.point,
        )  # fmt: skip
        notes.work("hem sweep", sweep * outer, "{sweep} × {hem_radius}", sweep=Ratio(sweep), hem_radius=outer)
        front, back = (
            sector_piece(
                what, host, inner.radius, angle, level_arc(float(outer), angle), self.hem,
                self.pieces == 2 and folds(host, angle, what.half is Half.FRONT), edge,
            )
            for what, angle, edge in (
                (SKIRT_FRONT, inner.front_angle, inner.front), (SKIRT_BACK, inner.back_angle, None)
            )
        )  # fmt: skip
        found = [
            *too_short(self.length - inner.point, self.hem, host.allowances),
            *passes_the_hip(host, 2 * sum(seam_halves(host, self.seam)), sweep, self.length, notes),
            *curved_hem(self.hem, self.sweep),
        ]
        if self.sweep >= 90:
            found.append(hang())
        return replace(two_panels((front, back), host, self.seam, found), point=inner.point)

    def remedies(self, report: Walked) -> list[Remedy]:
        """New radius, then darts under the bodice's darts (trade 9.1)."""
        found = [remedy for remedy in (self._new_radius(report), self._darts(report)) if remedy]
        return found

    def _new_radius(self, report: Walked) -> Remedy | None:
        """Exact, if the skirt is not cut yet: Δr = −D ÷ θ."""
        wanted = {"lower.seam": None, "lower.rule": RadiusRule.SEAM_LINE.value, "lower.tape_mark": 0.0}
        now = {"lower.seam": self.seam, "lower.rule": self.rule.value, "lower.tape_mark": self.tape_mark}
        changes = {path: value for path, value in wanted.items() if now[path] != value}
        if not changes:
            return None
        change = -2 * report.open_difference / radians(self.sweep)
        return Remedy(
            "new-radius",
            "Draw the waist to a new radius, {change} " + ("larger" if change > 0 else "smaller"),
            changes,
            "exact; only if the skirt is not cut yet",
            {"change": abs(change)},
        )

    def _darts(self, report: Walked) -> Remedy | None:
        """Take a surplus up in darts under the bodice's: D ÷ count, each within what a dart can take."""
        surplus = 2 * report.open_difference
        darts = {mark.name.split()[0] for mark in report.upper.darts()}
        if surplus < SMALLEST_SURPLUS_FOR_DARTS or not darts:
            return None
        for where in ({"front", "back"} & darts, {"back"} & darts, {"front"} & darts):
            if not where:
                continue
            each = surplus / (2 * len(where))
            changes = {
                f"lower.{side}_dart": getattr(self, f"{side}_dart") + each for side in sorted(where, reverse=True)
            }
            if each >= LEAST_DART and max(changes.values()) <= WIDEST_DART:
                place = "front and back" if len(where) == 2 else where.copy().pop()
                return Remedy(
                    "darts",
                    "Take it up in {count} darts of {each} under the bodice's, {place}",
                    changes,
                    "costs no length; the hem keeps its sweep",
                    {"count": str(2 * len(where)), "place": place, "each": Share(each, 2 * len(where))},
                )
        return None
