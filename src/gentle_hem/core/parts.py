"""What every part of a recipe has in common: it is a sentence, and it can be made up.

    bodice part ──► BodiceMade ──► its edge, and how it is finished: Host ──► lower part ──► LowerMade

A new kind of bodice or lower part is one module with one class, and one line in its folder's registry.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Annotated, Any, ClassVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, WithJsonSchema

from gentle_hem.core.drafting import Step
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, Remedy
from gentle_hem.core.join import Unrolled
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Manner, Run, Seam, Stretch
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.units import Length, LengthError, Unit, format_length, plain
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import BODICE_BACK, BODICE_FRONT, SIDE_SEAM, WAIST_CORNERS, Half, Section, Sign
from gentle_hem.core.workings import Worked, Workings


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


def read_share(value: Any) -> Any:
    """A share as it is typed: "40 %", "40", "2/5", "0.4" are all two fifths. Raises ValueError with a sentence."""
    if not isinstance(value, str):
        return value
    typed = value.strip().replace(",", ".")
    over, _, under = typed.partition("/")
    try:
        if typed.endswith("%"):
            return float(typed[:-1]) / 100
        number = float(over) / float(under) if under else float(typed)
    except (ValueError, ZeroDivisionError):
        raise ValueError(f'"{value}" cannot be read as a share; try 40 %, 2/5 or 0.4.') from None
    return number / 100 if number > 1 and not under else number


def share_between(least: float, most: float) -> AfterValidator:
    """A check that a share lies within bounds."""

    def check(value: float) -> float:
        if not least - 1e-12 <= value <= most + 1e-12:
            low, high = (f"{plain(100 * end, 1)} %" for end in (least, most))
            raise ValueError(f"{plain(100 * value, 1)} % is out of range; from {low} to {high} is accepted.")
        return value

    return AfterValidator(check)


SHARE = WithJsonSchema(
    {"anyOf": [{"type": "number", "minimum": 0, "maximum": 1}, {"type": "string"}]}, mode="validation"
)
"""How a share is described: a number from 0 to 1, or text such as "40 %"."""

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

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False, defer_build=True)

    title: ClassVar[str] = ""
    sentences: ClassVar[tuple[str, ...]] = ()
    words: ClassVar[dict[str, Word]] = {}
    all_said: ClassVar[bool] = False
    """Whether all its sentences are said at once; of any other part, those that say only what is usual may wait."""


class OpeningPlace(StrEnum):
    """Where the garment opens to let its wearer in."""

    CENTRE_BACK = "centre_back"
    CENTRE_FRONT = "centre_front"
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
            ("centre_front", "at the centre front"),
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
class EdgeAbove:
    """The edge a lower part hangs from, from centre front to centre back: the bodice's, or that of a band."""

    run: Run
    level: float = 0.0
    """How far below the natural waist it lies, mm; above it is negative."""
    point: float = 0.0
    """How much deeper it lies at the centre front, where the bodice ends in a point."""


@dataclass(frozen=True)
class Host:
    """What a lower part is given: the edge it hangs from, and how the garment is finished."""

    above: EdgeAbove
    waist: Unrolled
    """The edge above, laid straight."""
    allowances: Allowances
    opening: Opening
    figure: Figure
    ease: float = 0.0
    front_shorter: float = 0.0
    """How much shorter the lower part is meant to be at the centre front (mm)."""
    bodice_length: float | None = None
    """The bodice's front length from the shoulder at the neck to its waist seam, where it is known."""

    @property
    def level(self) -> float:
        return self.above.level

    @property
    def point(self) -> float:
        """How much deeper its waist is to lie at the centre front: under a pointed bodice, or to be shorter there."""
        return self.above.point + self.front_shorter

    @property
    def zip_ends(self) -> float:
        """How far below the edge it hangs from the zip ends; nothing, or less, where it ends above."""
        return self.opening.below_waist - self.level

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

    def shaping(self, half: Half) -> list[tuple[Sign, float]]:
        """The darts and princess seams of one half of the edge above, and how far from the centre each lies."""
        return [
            (mark.name, mark.at if half is Half.FRONT else self.half - mark.at)
            for mark in self.waist.darts()
            if mark.name.half is half
        ]


@dataclass(frozen=True)
class BodiceMade:
    """An upper half: pieces, the seams between them, the edge the rest hangs from, how it was drafted."""

    pieces: tuple[Piece, ...] = ()
    seams: tuple[Seam, ...] = ()
    edge: EdgeAbove | None = None
    """None where there is no bodice yet. Of a gown cut in one it is the hem."""
    findings: tuple[Finding, ...] = ()
    draft: tuple[Step, ...] = ()
    unspread: tuple[Piece, ...] = ()
    """Pieces as they were before they were slashed and spread: a lining is cut from these."""
    other_waist: Run = field(default_factory=Run)
    """The waist edge of the other half, where the bodice is not alike left and right."""

    @property
    def waists(self) -> dict[Half, float]:
        """The level of its waist at the centre of each half, mm (y up)."""
        return {
            piece.what.half: edge.path.start.y if piece.what.half is Half.FRONT else edge.path.end.y
            for piece in self.pieces
            for edge in piece.edges
            if edge.role is Role.WAIST and piece.what.half
        }

    def also(self, findings: Iterable[Finding]) -> BodiceMade:
        """The same, with more findings."""
        return replace(self, findings=(*self.findings, *findings))

    def in_section(self, section: Section) -> BodiceMade:
        """The same as the pieces of another section: a bodice that will be carried on down as a gown."""
        return replace(
            self,
            pieces=tuple(replace(piece, what=piece.what.in_section(section)) for piece in self.pieces),
            seams=tuple(seam.in_section(section) for seam in self.seams),
            edge=self.edge and replace(self.edge, run=self.edge.run.in_section(section)),
        )


@dataclass(frozen=True)
class BandMade:
    """A band: pieces, their seams, its upper edge and the edge it leaves to hang from."""

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...]
    waist: Run
    below: EdgeAbove
    findings: tuple[Finding, ...] = ()

    def also(self, findings: Iterable[Finding]) -> BandMade:
        """The same, with more findings."""
        return replace(self, findings=(*self.findings, *findings))


@dataclass(frozen=True)
class LowerMade:
    """A lower part: pieces, its own seams, its waist edge and its hem, both from centre front to centre back."""

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...]
    waist: Run
    hem: Run
    ease: float = 0.0
    """How much longer its waist is meant to be than the edge above, by the part's own rule (whole garment)."""
    pin: Mapping[str, Any] = field(default_factory=dict)
    """Recipe changes that keep this edge exactly as it is now, whatever the other edge does."""
    findings: tuple[Finding, ...] = ()
    fullness: float = 1.0
    """How many times as long as the edge it joins its own is cut."""
    manner: Manner = Manner.FLAT
    point: float = 0.0
    """How much deeper its waist edge lies at the centre front."""
    unspread: tuple[Piece, ...] = ()
    """Pieces as they were before they were slashed and spread: a lining is cut from these."""

    @property
    def name(self) -> str:
        return self.waist.name

    def in_section(self, section: Section) -> LowerMade:
        """The same as the pieces of another section: a short skirt as a peplum."""
        return replace(
            self,
            pieces=tuple(replace(piece, what=piece.what.in_section(section)) for piece in self.pieces),
            seams=tuple(seam.in_section(section) for seam in self.seams),
            waist=replace(self.waist.in_section(section), called=section.value), hem=self.hem.in_section(section),
        )  # fmt: skip

    def also(self, findings: Iterable[Finding]) -> LowerMade:
        """The same, with more findings."""
        return replace(self, findings=(*self.findings, *findings))


def bodice_edge(why: Worked) -> EdgeAbove:
    """The waist edge of a plain front and back. ``why`` says how long the whole of it is."""
    stretches = Stretch(BODICE_FRONT, "waist"), Stretch(BODICE_BACK, "waist")
    return EdgeAbove(Run(stretches, WAIST_CORNERS, "bodice", why))


class BodicePart(RecipePart):
    """The upper half of a garment: measured edges, a drafted block, or a block brought in."""

    def waist_words(self) -> dict[str, tuple[float, float]]:
        """The words of the recipe that widen its waist: what each is now, and what it grows by when the whole waist
        grows by one. Nothing where no word does.
        """
        return {}

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> BodiceMade:
        """The pieces and the waist edge. Never raises for a valid recipe: what is wrong is a finding."""
        raise TypeError(f"{type(self).__name__} does not say how it is made up")


class LowerPart(RecipePart):
    """What hangs below the waist seam."""

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        """The pieces and the waist edge. Never raises for a valid recipe: what is wrong is a finding."""
        raise TypeError(f"{type(self).__name__} does not say how it is made up")

    @property
    def hangs(self) -> float:
        """How far below its seam it hangs where it is longest, mm."""
        return float(getattr(self, "length", 0.0))

    def remedies(self, report: Walked) -> list[Remedy]:
        """The ways this part can change to close a join that does not meet, best first."""
        return []
