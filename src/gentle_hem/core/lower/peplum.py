"""Peplums (trade 8): a short skirt on a blouse or jacket; circular, gathered, pleated, high and low, double.

length = top length − waist length, both from the same shoulder point on the same side; usually 6-9 in
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.findings import Remedy, in_recipe, warn
from gentle_hem.core.lower.circle import CircleSkirt
from gentle_hem.core.lower.circle_family import DoubleCircle, HighLowSkirt
from gentle_hem.core.lower.flare import NAMED_SWEEPS, RadiusRule, say_sweep
from gentle_hem.core.lower.full import GatheredSkirt, PleatedSkirt, say_fullness
from gentle_hem.core.lower.panel import HemAllowance
from gentle_hem.core.lower.straight import meet_the_bodice
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
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.units import Length, inches
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import Section
from gentle_hem.core.workings import Workings

SHORTEST, LONGEST = inches(4), inches(12)


class Peplum(LowerPart):
    """A circular peplum, 18 cm finished."""

    title: ClassVar[str] = "Peplum"
    sentences: ClassVar[tuple[str, ...]] = (
        "A {style} peplum, {length} finished, on a top of {top_length}, sewn to {seam}, hem {hem}.",
        "[style=circle|high_low:It is a {sweep}][style=circle: in {pieces}, its radius drawn on {rule}, {tape_mark}; "
        "{arc_allowance}, and the seam is drafted {stretch} smaller.][style=high_low:, {back} at the back.]"
        "[style=gathered|pleated:It is cut {fullness} as wide as its seam.]",
    )
    words: ClassVar[dict[str, Word]] = {
        "style": choice(
            "peplum",
            ("circle", "circular"),
            ("gathered", "gathered"),
            ("pleated", "pleated"),
            ("high_low", "high and low"),
            ("double", "double-circle"),
        ),
        "length": length("finished length"),
        "top_length": length(
            "length of the whole top",
            without="any length",
            help="From the shoulder at the neck; the peplum is what is left.",
        ),
        "seam": length("waist seam of the peplum", without="the bodice's waist as it measures"),
        "hem": length("hem allowance"),
        "sweep": number("sweep in degrees", *NAMED_SWEEPS, spoken=say_sweep),
        "pieces": choice("pieces", (0, "as few pieces as lie flat"), (1, "1 piece"), (2, "2 pieces"), (4, "4 pieces")),
        **{word: CircleSkirt.words[word] for word in ("rule", "tape_mark", "arc_allowance", "stretch")},
        "fullness": number("times the seam", (1.5, "1.5 times"), (2, "twice"), (3, "three times"), spoken=say_fullness),
        "back": length("length at the back"),
    }

    kind: Literal["peplum"] = "peplum"
    style: Literal["circle", "gathered", "pleated", "high_low", "double"] = "circle"
    length: FinishedLength = Field(180.0, description="Finished length, waist seam to hem.")
    top_length: Annotated[Length, between(200, 1200)] | None = Field(None, description="Length of the whole top.")
    seam: SeamLength | None = Field(None, description="Its waist where it is cut already; nothing: the bodice's.")
    hem: HemAllowance = Field(12.0, description="Hem allowance.")
    sweep: Annotated[float, number_between(90, 720, "degrees of sweep")] = 360.0
    pieces: Literal[0, 1, 2, 4] = Field(0, description="Of a circular one; 0: 2, or 4 beyond 300°.")
    rule: RadiusRule = RadiusRule.SEAM_LINE
    tape_mark: Annotated[Length, between(0, 10)] = 0.0
    arc_allowance: Annotated[Length, between(0, 200)] | None = None
    stretch: StretchPercent = 0.0
    fullness: Annotated[float, number_between(1.15, 4, "times the seam")] = 2.0
    back: FinishedLength = Field(280.0, description="Length at the back of a high and low one.")

    def remedies(self, report: Walked) -> list[Remedy]:
        return meet_the_bodice(self.seam, report)

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        long = self.length
        if self.top_length is not None and host.bodice_length is not None:
            long = notes.about("peplum").work(
                "peplum length", max(self.top_length - host.bodice_length, 10.0), "{top_length} − {waist_length}",
                rule="both from the same shoulder point, on the same side", top_length=self.top_length,
                waist_length=host.bodice_length,
            )  # fmt: skip
        made = self._part(float(long)).make_up(host, notes).in_section(Section.PEPLUM)
        if not SHORTEST <= long <= LONGEST:
            return made.also(
                [
                    warn(
                        "peplum-length-unusual",
                        "A peplum of {length}: 6 to 9 in is usual.",
                        *in_recipe("lower.length"),
                        length=float(long),
                    )
                ]
            )
        return made

    def _part(self, long: float) -> LowerPart:
        """The lower part a peplum of this style is, only shorter."""
        if self.style == "gathered":
            return GatheredSkirt(length=long, seam=self.seam, hem=self.hem, fullness=self.fullness)
        if self.style == "pleated":
            return PleatedSkirt(length=long, seam=self.seam, hem=self.hem, fullness=self.fullness)
        if self.style == "high_low":
            return HighLowSkirt(sweep=min(self.sweep, 680), front=long, back=self.back, seam=self.seam, hem=self.hem)
        if self.style == "double":
            return DoubleCircle(length=long, seam=self.seam, hem=self.hem)
        return CircleSkirt(
            sweep=self.sweep, length=long, seam=self.seam, hem=self.hem,
            pieces=self.pieces or (4 if self.sweep > 300 else 2), rule=self.rule, tape_mark=self.tape_mark,
            arc_allowance=self.arc_allowance, stretch=self.stretch,
        )  # fmt: skip
