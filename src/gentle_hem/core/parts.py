"""What every part of a recipe has in common: it is a sentence, and it can be made up.

    bodice part ──► Made (pieces, waist edges) ──► Host ──► lower part ──► Made (pieces, waist edges)

A new kind of bodice or lower part is one module with one class, and one line in its folder's registry.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum
from typing import Annotated, Any, ClassVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from gentle_hem.core.drafting import Step
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, Remedy
from gentle_hem.core.join import CENTRE_BACK, CENTRE_FRONT, SIDE_SEAM, JoinReport, Unrolled
from gentle_hem.core.pattern import EdgeRef, Piece, Role, Seam
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.units import Length, LengthError, Unit, format_length, plain
from gentle_hem.core.workings import Workings

WAIST_CORNERS = (CENTRE_FRONT, SIDE_SEAM, CENTRE_BACK)


def between(least: float, most: float) -> AfterValidator:
    """A check that a length lies within bounds, refusing with a sentence that says which."""

    def check(value: float) -> float:
        if not least <= value <= most:
            low = "0" if least == 0 else f"{format_length(least, Unit.CM)} ({format_length(least, Unit.INCH)})"
            high = f"{format_length(most, Unit.CM)} ({format_length(most, Unit.INCH)})"
            shown = f"{plain(value / 10)} cm ({format_length(value, Unit.INCH)})"
            raise LengthError(f"{shown} is out of range; from {low} to {high} is accepted.")
        return value

    return AfterValidator(check)


def number_between(least: float, most: float, what: str) -> AfterValidator:
    """A check on a plain number, with a sentence that says what it counts."""

    def check(value: float) -> float:
        if not least <= value <= most:
            raise ValueError(f"{plain(value)} {what} is out of range; {plain(least)} to {plain(most)} is accepted.")
        return value

    return AfterValidator(check)


Allowance = Annotated[Length, between(0, 150)]
EdgeLength = Annotated[Length, between(0, 5000)]
SeamLength = Annotated[Length, between(10, 10_000)]
FinishedLength = Annotated[Length, between(10, 5000)]
Sweep = Annotated[float, number_between(1, 1440, "degrees of sweep")]
StretchPercent = Annotated[float, number_between(0, 10, "per cent of stretch")]


class RecipePart(BaseModel):
    """A part of a recipe: immutable, and strict about what it does not know.

    ``title`` and ``sentences`` are how it is spoken; ``words`` says what each live word in them is.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    title: ClassVar[str] = ""
    sentences: ClassVar[tuple[str, ...]] = ()
    words: ClassVar[dict[str, Word]] = {}


class OpeningPlace(StrEnum):
    """Where the garment opens to let its wearer in."""

    CENTRE_BACK = "centre_back"
    SIDE = "side"
    NONE = "none"


class Opening(RecipePart):
    """Zip at centre back, ending 19 cm below the waist."""

    title: ClassVar[str] = "Opening"
    sentences: ClassVar[tuple[str, ...]] = ("It opens {place}, the zip ending {below_waist} below the waist.",)
    words: ClassVar[dict[str, Word]] = {
        "place": choice(
            "where it opens",
            ("centre_back", "at the centre back"),
            ("side", "in the side seam"),
            ("none", "nowhere"),
        ),
        "below_waist": length("zip end below the waist"),
    }

    place: OpeningPlace = OpeningPlace.CENTRE_BACK
    below_waist: Annotated[Length, between(0, 600)] = Field(
        190.0, description="How far below the waist the zip ends (7-8 in)."
    )


class Allowances(RecipePart):
    """The allowance of each kind of edge, chosen once for the whole garment."""

    title: ClassVar[str] = "Allowances"
    sentences: ClassVar[tuple[str, ...]] = (
        "Allowances: {waist} at the waist seam, {side} at the sides, {shoulder} at the shoulders, {armhole} at the "
        "armholes, {neck} at the neck, {zip} at the zip, {panel} at other seams.",
    )
    words: ClassVar[dict[str, Word]] = {
        "waist": length("waist allowance"),
        "side": length("side seam allowance"),
        "shoulder": length("shoulder allowance"),
        "armhole": length("armhole allowance"),
        "neck": length("neck allowance"),
        "zip": length("zip allowance"),
        "panel": length("panel seam allowance"),
    }

    side: Allowance = 10.0
    waist: Allowance = 10.0
    zip: Allowance = 15.0
    panel: Allowance = 10.0
    shoulder: Allowance = 10.0
    armhole: Allowance = 10.0
    neck: Allowance = 6.0

    def of(self, role: Role) -> float:
        """The allowance for an edge by what it is. Hems are the part's own, and a fold takes none."""
        return {
            Role.WAIST: self.waist,
            Role.SIDE: self.side,
            Role.CENTRE_BACK: self.zip,
            Role.CENTRE_FRONT: self.panel,
            Role.NECKLINE: self.neck,
            Role.ARMHOLE: self.armhole,
            Role.SHOULDER: self.shoulder,
            Role.PRINCESS: self.panel,
            Role.PANEL: self.panel,
            Role.YOKE: self.panel,
            Role.INSIDE_LEG: self.side,
            Role.CROTCH: self.panel,
            Role.CAP: self.armhole,
            Role.UNDERARM: self.side,
            Role.FREE: 0.0,
            Role.TEMPLATE: 0.0,
        }[role]


METRIC_ALLOWANCES = Allowances()
"""The metric block maker's set, common practice (trade 11)."""

INCH_ALLOWANCES = Allowances(side=25.4, waist=12.7, zip=25.4, panel=12.7, shoulder=12.7, armhole=12.7, neck=12.7)
"""The inch workshop's set, common practice (trade 11)."""


@dataclass(frozen=True)
class InnerJoin:
    """A join inside a part, or between parts: what lies above, what below, and how full the lower edge is cut.

    Both run from the centre front to the centre back of the half garment. ``upper`` may be a length instead of
    edges, where only a stretch of an edge is used.
    """

    name: str
    upper: tuple[EdgeRef, ...]
    lower: tuple[EdgeRef, ...]
    upper_corners: tuple[str, ...] = WAIST_CORNERS
    lower_corners: tuple[str, ...] = WAIST_CORNERS
    fullness: float = 1.0
    manner: str = "flat"
    names: tuple[str, str] = ("upper", "lower")
    upper_from: str = ""
    """The landmark from which its upper edge is used, down to the hem: where a godet's slit is stopped."""
    upper_length: float | None = None
    lower_length: float | None = None


@dataclass(frozen=True)
class Host:
    """What a lower part is given: the edge it hangs from, and how the garment is finished."""

    waist: Unrolled
    allowances: Allowances
    opening: Opening
    figure: Figure
    ease: float = 0.0
    level: float = 0.0
    """How far below the natural waist the seam lies, mm; above it is negative."""
    point: float = 0.0
    """How much deeper the seam lies at the centre front, where the bodice ends in a point."""
    bodice_length: float | None = None
    """The bodice's front length from the shoulder at the neck to its waist seam, where it is known."""

    @property
    def half(self) -> float:
        """The edge it hangs from, half garment."""
        return self.waist.length

    @property
    def front(self) -> float:
        """Its front part; half of it where the edge has no side seam."""
        at = self.waist.at(SIDE_SEAM)
        return self.waist.length / 2 if at is None else at

    @property
    def back(self) -> float:
        return self.half - self.front


@dataclass(frozen=True)
class Made:
    """What a part makes: pieces, its own seams, its edge of the waist join from CF to CB, findings."""

    pieces: tuple[Piece, ...] = ()
    seams: tuple[Seam, ...] = ()
    waist: tuple[EdgeRef, ...] = ()
    corners: tuple[str, ...] = WAIST_CORNERS
    """Where the waist's edges begin, meet and end."""
    ease: float = 0.0
    """How much longer this edge is meant to be than the one it joins, by the part's own rule (whole garment)."""
    pin: Mapping[str, Any] = field(default_factory=dict)
    """Recipe changes that keep this edge exactly as it is now, whatever the other edge does."""
    findings: tuple[Finding, ...] = ()
    draft: tuple[Step, ...] = ()
    """How it was drawn, step by step, where it was drafted."""
    hem: tuple[EdgeRef, ...] = ()
    """Its lowest edge from CF to CB, half garment."""
    hem_corners: tuple[str, ...] = WAIST_CORNERS
    fullness: float = 1.0
    """How many times as long as the edge it joins its own is cut."""
    manner: str = "flat"
    joins: tuple[InnerJoin, ...] = ()
    name: str = "skirt"
    level: float = 0.0
    """How far below the natural waist its waist edge lies, mm."""
    point: float = 0.0
    """How much deeper its waist edge lies at the centre front."""
    carried: bool = False
    """Whether it has been carried on down to the hem, so that there is nothing to join."""

    def also(self, findings: Iterable[Finding]) -> Made:
        """The same, with more findings."""
        return replace(self, findings=(*self.findings, *findings))


class BodicePart(RecipePart):
    """The upper half of a garment: measured edges, a drafted block, or a block brought in."""

    def waist_words(self) -> dict[str, tuple[float, float]]:
        """The words of the recipe that widen its waist: what each is now, and what it grows by when the whole waist
        grows by one. Nothing where no word does.
        """
        return {}

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> Made:
        """The pieces and the waist edge. Never raises for a valid recipe: what is wrong is a finding."""
        raise TypeError(f"{type(self).__name__} does not say how it is made up")


class LowerPart(RecipePart):
    """What hangs below the waist seam."""

    def make_up(self, host: Host, notes: Workings) -> Made:
        """The pieces and the waist edge. Never raises for a valid recipe: what is wrong is a finding."""
        raise TypeError(f"{type(self).__name__} does not say how it is made up")

    @property
    def hangs(self) -> float:
        """How far below its seam it hangs where it is longest, mm."""
        return float(getattr(self, "length", 0.0))

    def remedies(self, report: JoinReport) -> list[Remedy]:
        """The ways this part can change to close a join that does not meet, best first."""
        return []
