"""Straight and tapered skirts (trade 5): shaped from the bodice's edge to the hip, then straight or in to the hem.

straight        tapered: the hem quarter less 1-2½ in at each side seam
╭───╮           ╭───╮
│   │           │   │
│   │           ╲   ╱
└───┘            └─┘
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.findings import Remedy
from gentle_hem.core.lower.panel import (
    HemAllowance,
    HipEase,
    dart_findings,
    hips_of,
    level_hem,
    panel,
    quarters,
    shaped_side,
    too_short,
    two_panels,
    under_marks,
    waist_line,
)
from gentle_hem.core.parts import FinishedLength, Host, LowerMade, LowerPart, SeamLength, between
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.units import Length, inches
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import SKIRT_BACK, SKIRT_FRONT
from gentle_hem.core.workings import Workings

SHAPED_WORDS: dict[str, Word] = {
    "length": length("finished length"),
    "seam": length("waist seam of the skirt", without="the bodice's waist as it measures"),
    "hip_ease": length(
        "ease at the hip", presets=((inches(1), "close, 1 in"), (50.0, "5 cm"), (inches(4), "easy, 4 in"))
    ),
    "hip_shift": length(
        "back wider than front, each quarter",
        presets=((0.0, "both the same"), (inches(1), "1 in"), (inches(1.5), "1 1/2 in")),
        nothing="nothing",
    ),
    "side_in": length("taken at the side seams"),
    "hem": length("hem allowance"),
}

SHAPED_SENTENCE = (
    "Hip ease {hip_ease}, {hip_shift} of each quarter moved from front to back; the side "
    "seams take {side_in} and the darts the rest."
)


def meet_the_bodice(seam: float | None, report: Walked) -> list[Remedy]:
    """Drawing the waist anew to the bodice's edge: exact, if it is not cut yet."""
    if seam is None:
        return []
    return [
        Remedy(
            "redraw", "Draw its waist to the bodice's, {change} " + ("smaller" if report.difference > 0 else "larger"),
            {"lower.seam": None}, "exact; only if it is not cut yet", {"change": 2 * abs(report.difference)},
        )
    ]  # fmt: skip


class ShapedSkirt(LowerPart):
    """What straight, tapered and A-line skirts share: shaped from the bodice's edge to the hip."""

    length: FinishedLength = Field(620.0, description="Finished length, waist seam to hem.")
    seam: SeamLength | None = Field(None, description="Its waist where it is cut already; nothing: the bodice's.")
    hip_ease: HipEase = Field(inches(1.5), description="Ease round the whole hip.")
    hip_shift: Annotated[Length, between(-60, 60)] = Field(0.0, description="Back quarter wider, front narrower.")
    side_in: Annotated[Length, between(0, 80)] = Field(20.0, description="What the side seams take from hip to waist.")
    hem: HemAllowance = Field(40.0, description="Hem allowance.")

    def remedies(self, report: Walked) -> list[Remedy]:
        return meet_the_bodice(self.seam, report)


class StraightSkirt(ShapedSkirt):
    """A straight skirt, 62 cm finished, hem 4 cm; tapered by so much at each side seam."""

    title: ClassVar[str] = "Straight skirt"
    sentences: ClassVar[tuple[str, ...]] = (
        "A straight skirt, {length} finished, sewn to {seam}, tapered by {taper} at each side of the hem, hem {hem}.",
        SHAPED_SENTENCE,
    )
    words: ClassVar[dict[str, Word]] = {
        **SHAPED_WORDS,
        "taper": length(
            "tapered at each side of the hem",
            presets=((0.0, "straight"), (inches(1), "1 in"), (inches(1.5), "1 1/2 in"), (inches(2.5), "2 1/2 in")),
            nothing="nothing",
        ),
    }  # fmt: skip

    kind: Literal["straight"] = "straight"
    taper: Annotated[Length, between(0, 120)] = Field(0.0, description="Hem quarter less this at the side seam.")

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        hips, findings = hips_of(host, self.hip_ease, self.hip_shift, notes)
        parts = quarters(host, self.seam, (hips.front, hips.back), self.side_in)
        pieces = []
        sweep = 0.0
        for part in parts:
            width = max(part.hip - self.taper, 40.0)
            waist, darts = waist_line(part, max(hips.depth, 60.0))
            side = shaped_side(part, hips.depth, self.length, width)
            hem = level_hem(side.end.x, self.length)
            sweep += 2 * hem.length
            pieces.append(
                panel(
                    SKIRT_FRONT if part.is_front else SKIRT_BACK, host, waist=waist, side=side, hem=hem, darts=darts,
                    hem_allowance=self.hem, notches=under_marks(host, part, waist, darts),
                )
            )  # fmt: skip
        notes.work(
            "hem sweep",
            sweep,
            "{hip_with_ease} − 4 × {taper}",
            hip_with_ease=2 * (hips.front + hips.back),
            taper=self.taper,
        )
        made = two_panels((pieces[0], pieces[1]), host, self.seam, findings)
        return made.also([*dart_findings(parts), *too_short(self.length, self.hem, host.allowances)])
