"""A gown cut in one with its bodice (trade 4.1, 5): no waist seam, the bodice draft carried on down.

│  ╱╲  │ waist: no seam       knee and hem = hip quarter − ½…1 in, or less for a tapered or mermaid line
│  ╲╱   ╲ hip
│        │
│       ╱  knee
└──────╱  hem
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cutting.carry import Below
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import in_recipe, note
from gentle_hem.core.lower.panel import HemAllowance, HipEase
from gentle_hem.core.lower.straight import StraightSkirt
from gentle_hem.core.parts import FinishedLength, Host, LowerMade, LowerPart, between
from gentle_hem.core.pattern import Piece
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import Half
from gentle_hem.core.workings import Workings

DART_ABOVE_HIP = {True: inches(2), False: inches(1)}
"""A gown's dart ends 2 in above the hip at the front, 1 in at the back: common practice (trade 4.1)."""


class Gown(LowerPart):
    """A gown cut in one, 100 cm below the waist, its hem quarter 1 in less than the hip."""

    title: ClassVar[str] = "Gown cut in one"
    sentences: ClassVar[tuple[str, ...]] = (
        "Cut in one with the bodice, {length} below the waist, its sides {sides}, hip ease {hip_ease}, the back "
        "quarter {hip_shift} wider, hem {hem}.",
        "At the knee it is {knee}[knee=shaped: and comes in {knee_in} at each side]; the hem comes in {hem_in} at each "
        "side; the seat comes in {seat} behind.",
    )
    words: ClassVar[dict[str, Word]] = {
        "length": length("length below the waist"),
        "sides": choice(
            "sides",
            ("shaped", "shaped to the figure"),
            ("underarm", "falling straight from the underarm"),
            help="From the underarm it is a tent: the waist darts are left out, and the hem says how wide it falls.",
        ),
        "hip_ease": length("ease at the hip"),
        "hip_shift": length(
            "back wider than front, each quarter", presets=((0.0, "both the same"), (inches(1), "1 in")), nothing="no"
        ),
        "hem": length("hem allowance"),
        "knee": choice("knee", ("plain", "straight"), ("shaped", "shaped")),
        "knee_in": length("in at the knee, each side"),
        "hem_in": length(
            "in at the hem, each side",
            help="Less than nothing flares it out.",
            presets=((0.0, "straight"), (inches(0.5), "1/2 in"), (inches(1), "1 in"), (inches(1.5), "1 1/2 in")),
        ),
        "seat": length("in below the seat", presets=((0.0, "nothing"), (inches(0.5), "1/2 in")), nothing="nothing"),
    }

    kind: Literal["gown"] = "gown"
    length: FinishedLength = Field(1000.0, description="Length below the waist.")
    hip_ease: HipEase = Field(inches(2), description="Ease round the whole hip.")
    hip_shift: Annotated[Length, between(-60, 60)] = Field(0.0, description="Back quarter wider, front narrower.")
    hem: HemAllowance = Field(30.0, description="Hem allowance.")
    sides: Literal["shaped", "underarm"] = "shaped"
    knee: Literal["plain", "shaped"] = "plain"
    knee_in: Annotated[Length, between(-100, 120)] = Field(inches(1), description="Hip quarter less this at the knee.")
    hem_in: Annotated[Length, between(-600, 150)] = Field(inches(0.5), description="Hip quarter less this at the hem.")
    seat: Annotated[Length, between(0, 40)] = Field(0.0, description="In at CB, 5 in below the hip.")

    def below(self, piece: Piece, figure: Figure, notes: Workings) -> Below:
        """How one half of the bodice is carried on down."""
        is_front = piece.what.half is Half.FRONT
        measures = Measures(figure, notes)
        hip, drop, knee = (measures.take(key) for key in ("hip_girth", "waist_to_hip", "waist_to_knee"))
        shift = -self.hip_shift if is_front else self.hip_shift
        width = (hip + self.hip_ease) / 4 + shift
        shaped = self.knee == "shaped" and self.sides == "shaped"
        return Below(
            self.length, drop, width, max(width - self.hem_in, 30.0), max(drop - DART_ABOVE_HIP[is_front], 40.0),
            knee_width=max(width - self.knee_in, 30.0) if shaped else None, waist_to_knee=knee if shaped else None,
            seat=0.0 if is_front else self.seat, from_underarm=self.sides == "underarm",
        )  # fmt: skip

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        """Where the bodice has no draft to carry on, a straight skirt is joined to it instead, and said so."""
        straight = StraightSkirt(
            length=self.length,
            hip_ease=self.hip_ease,
            hip_shift=self.hip_shift,
            hem=self.hem,
            taper=max(self.hem_in, 0.0),
        )
        return straight.make_up(host, notes).also(
            [
                note(
                    "gown-needs-a-draft",
                    "A gown cut in one carries a drafted bodice on down; this bodice is only its edges, so a "
                    "straight skirt "
                    "is joined to it.",
                    *in_recipe("bodice", "lower"),
                )
            ]
        )
