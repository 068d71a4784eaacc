"""Gored skirts (trade 5): n panels, straight flare from the hip or a trumpet from a chosen level.

      waist ÷ n             ╭─╮
      ╭───────╮            ╱   ╲      every gore's hem is curved, so that its middle is as long as its sides and the
     ╱  hip    ╲           │   │      sewn hem runs on without a corner at the seams
    ╱           ╲          ╱   ╲
    ╰────hem────╯         ╰─────╯     trumpet

Half a gore lies at the centre front on the fold where n ÷ 4 is not a whole number.
"""

from dataclasses import dataclass
from math import asin, atan2, cos, sin, tan
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cutting.mirror import MIRROR, mirrored
from gentle_hem.core.findings import Remedy, in_recipe, stop
from gentle_hem.core.geometry import Arc, Cubic, Line, Path, Point
from gentle_hem.core.lower.panel import HemAllowance, HipEase, hips_of, seam_halves, too_short, zip_end
from gentle_hem.core.lower.straight import meet_the_bodice
from gentle_hem.core.parts import (
    FinishedLength,
    Host,
    LowerMade,
    LowerPart,
    OpeningPlace,
    SeamLength,
    between,
    number_between,
)
from gentle_hem.core.pattern import Edge, Notch, Piece, Role
from gentle_hem.core.seams import Run, Stretch, centre_seams, seam_of, seam_of_pair
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.units import Length, inches
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import CENTRE_BACK, CENTRE_FRONT, SIDE_SEAM, Half, Panel, Section, Sign, What
from gentle_hem.core.workings import Count, Worked, Workings

WIDEST_LEAN = 6.0
"""A side that leans out more than six times its length is no side any more."""

HEM_AS_ASKED = 3.0
"""A hem that measures within 3 mm of what was asked is what was asked (mm)."""


@dataclass(frozen=True, slots=True)
class Gore:
    """One gore's widths and levels, mm."""

    waist: float
    hip: float
    hem: float
    hip_depth: float
    flare_from: float
    length: float

    def half(self) -> tuple[Path, Path, Path]:
        """Right half, its middle on x = 0: the waist from the side to the middle, the side down, the hem outwards.

        The hem is a curve square to the side and to the middle, which is as long as the side; the waist is an arc
        square to the side. The gore is leaned until its hem is as long as asked.
        """
        flare = max((self.hem - self.hip) / 2, -self.hip / 2 + 5)
        widest = WIDEST_LEAN * max(self.length, 1.0)
        for _ in range(20):
            made = self._leaned(flare)
            off = self.hem / 2 - made[2].length
            if abs(off) < 0.005 or abs(flare + off) > widest:
                break
            flare = max(flare + off, -self.hip / 2 + 5)
        return made

    def _leaned(self, flare: float) -> tuple[Path, Path, Path]:
        """The half gore whose side leans out by ``flare`` over its straight stretch."""
        hip = Point(self.hip / 2, -self.hip_depth)
        level = max(self.flare_from, self.hip_depth)
        narrow = Point(self.hip / 2, -level)
        straight = max(self.length - level, 1.0)
        lean = atan2(flare, straight)
        foot = narrow + Point(sin(lean), -cos(lean)) * straight
        half_waist = self.waist / 2
        sag = 0.0
        for _ in range(30):
            top = Point(_chord(half_waist, sag), 0)
            side = self._side(top, hip, narrow, foot)
            lean_at_waist = atan2(side.leaving.x, -side.leaving.y)
            square = max(-0.4, min(0.4, tan(lean_at_waist / 2))) * top.x
            if abs(square - sag) < 1e-9:
                break
            sag = square
        middle = Point(0, -sag - side.length)
        third = middle.distance(foot) * 0.36
        along = Point(cos(lean), sin(lean))
        hem = Path.of(Cubic(middle, middle + Point(third, 0), foot - along * third, foot))
        return _bow(top, sag), side, hem

    def _side(self, top: Point, hip: Point, narrow: Point, foot: Point) -> Path:
        depth = self.hip_depth
        segments: list[Cubic | Line] = []
        if depth > 15:
            down = (foot - hip).unit if narrow.distance(hip) < 1 else Point(0, -1)
            segments.append(
                Cubic(top, top + Point((hip.x - top.x) * 0.35, -depth * 0.3), hip - down * (0.4 * depth), hip)
            )
            if narrow.distance(hip) >= 1:
                segments.append(Line(hip, narrow))
            segments.append(Line(narrow, foot))
        else:
            segments.append(Line(top, foot))
        return Path(tuple(segments))


def _chord(arc: float, sag: float) -> float:
    """Half the chord of an arc whose half is ``arc`` long and that sags by ``sag``."""
    low, high = 0.0, arc
    for _ in range(60):
        chord = (low + high) / 2
        radius = (chord**2 + sag**2) / (2 * abs(sag)) if abs(sag) > 1e-9 else 1e12
        made = radius * asin(min(1.0, chord / radius)) if abs(sag) > 1e-9 else chord
        low, high = (chord, high) if made < arc else (low, chord)
    return (low + high) / 2


def _bow(side: Point, sag: float) -> Path:
    """The half waist from the side to the middle, which lies ``sag`` below it."""
    middle = Point(0, -sag)
    if abs(sag) < 1e-6:
        return Path.of(Line(side, Point(0, side.y)))
    radius = (side.x**2 + sag**2) / (2 * abs(sag))
    if sag > 0:
        centre = Point(0, -sag + radius)
        return Path.of(Arc(centre, radius, (side - centre).angle, (middle - centre).angle - (side - centre).angle))
    centre = Point(0, -sag - radius)
    return Path.of(Arc(centre, radius, (side - centre).angle, (middle - centre).angle - (side - centre).angle))


class Gores(LowerPart):
    """A skirt of 6 gores, 62 cm finished, hem 240 cm round."""

    title: ClassVar[str] = "Gored skirt"
    sentences: ClassVar[tuple[str, ...]] = (
        "A skirt of {count} gores, {length} finished, sewn to {seam}, hem {hem_sweep} round, flared {flare_from}, hem "
        "allowance {hem}.",
        "Hip ease {hip_ease}; the trumpet begins {trumpet} below the seam.",
    )
    words: ClassVar[dict[str, Word]] = {
        "count": number("gores", (4, "4"), (6, "6"), (7, "7"), (8, "8"), (10, "10"), (12, "12")),
        "length": length("finished length"),
        "seam": length("waist seam of the skirt", without="the bodice's waist as it measures"),
        "hem_sweep": length("hem all round"),
        "flare_from": choice("where the flare begins", ("hip", "from the hip"), ("trumpet", "as a trumpet")),
        "hem": length("hem allowance"),
        "hip_ease": length("ease at the hip"),
        "trumpet": length("where the trumpet begins"),
    }

    kind: Literal["gores"] = "gores"
    count: Annotated[int, number_between(2, 24, "gores")] = Field(6, description="How many gores.")
    length: FinishedLength = Field(700.0, description="Finished length, waist seam to hem.")
    seam: SeamLength | None = Field(None, description="Its waist where it is cut already; nothing: the bodice's.")
    hem_sweep: Annotated[Length, between(200, 20_000)] = Field(2400.0, description="Hem all round.")
    flare_from: Literal["hip", "trumpet"] = "hip"
    trumpet: Annotated[Length, between(0, 2000)] = Field(450.0, description="Where a trumpet begins, below the seam.")
    hip_ease: HipEase = Field(inches(2), description="Ease round the whole hip.")
    hem: HemAllowance = Field(20.0, description="Hem allowance.")

    def remedies(self, report: Walked) -> list[Remedy]:
        return meet_the_bodice(self.seam, report)

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        hips, findings = hips_of(host, self.hip_ease, 0.0, notes)
        front, back = seam_halves(host, self.seam)
        count = notes.work("gores", Count(self.count), "as asked")
        hip = notes.work(
            "gore at the hip", 2 * (hips.front + hips.back) / self.count, "{hip_with_ease} ÷ {gores}",
            hip_with_ease=2 * (hips.front + hips.back), gores=count,
        )  # fmt: skip
        hem = notes.work(
            "gore at the hem",
            self.hem_sweep / self.count,
            "{hem_sweep} ÷ {gores}",
            hem_sweep=self.hem_sweep,
            gores=count,
        )
        level = min(self.trumpet, self.length - 20) if self.flare_from == "trumpet" else hips.depth
        if self.hem_sweep < 2 * (hips.front + hips.back) - 1 and self.length > hips.depth:
            findings.append(
                stop(
                    "hem-narrower-than-hip",
                    "A hem of {hem} is narrower than the hip with its ease, {hip}; gores flare out from the hip.",
                    *in_recipe("lower.hem_sweep"),
                    remedies=(
                        Remedy("hem", "Make the hem {hip}", {"lower.hem_sweep": 2 * (hips.front + hips.back)}, "",
                               {"hip": 2 * (hips.front + hips.back)}),
                    ),
                    hem=self.hem_sweep, hip=2 * (hips.front + hips.back),
                )
            )  # fmt: skip
        plan = _plan(self.count)
        waists = [length / share for length, share in ((front, plan.front), (back, plan.back)) if share]
        if plan.whole:
            waists = [(front + back) * 2 / self.count] * 2
        if plan.whole:
            at_waist = notes.work(
                "gore at the waist", waists[0], "2 × ({front_waist} + {back_waist}) ÷ {gores}",
                front_waist=front, back_waist=back, gores=Count(self.count),
            )  # fmt: skip
        else:
            at_waist = notes.work("gore at the waist", waists[0], "{front_waist} ÷ {gores_in_front}",
                                  front_waist=front, gores_in_front=Count(plan.front))  # fmt: skip
        gores = [Gore(width, float(hip), float(hem), hips.depth, level, self.length) for width in waists]
        made = _GoresMade(self, host, plan, gores, at_waist).made()
        drawn = self.count * sum(2 * gore.half()[2].length for gore in gores) / len(gores)
        if abs(drawn - self.hem_sweep) > HEM_AS_ASKED:
            findings.append(
                stop(
                    "hem-not-as-asked",
                    "Gores {length} long cannot be leaned out to a hem of {hem}; it measures {drawn}.",
                    *in_recipe("lower.hem_sweep", "lower.length"),
                    remedies=(Remedy("hem", "Take the hem as it is drawn", {"lower.hem_sweep": drawn}, "", {}),),
                    length=self.length, hem=self.hem_sweep, drawn=drawn,
                )
            )  # fmt: skip
        return made.also([*findings, *too_short(self.length, self.hem, host.allowances)])


@dataclass(frozen=True, slots=True)
class _Plan:
    """How n gores fall on half a garment: gores in the front and back half, halves at the centres."""

    count: int
    front: float
    back: float
    whole: bool
    """The gores do not fall on the side seam: all are alike, counted from the centre front."""


def _plan(count: int) -> _Plan:
    if count % 2:
        return _Plan(count, count / 4, count / 4, True)
    return _Plan(count, count / 4, count / 4, False)


class _GoresMade:
    """The gores of one skirt as pieces and seams."""

    def __init__(self, part: Gores, host: Host, plan: _Plan, gores: list[Gore], why: Worked) -> None:
        self.part, self.host, self.plan, self.gores, self.why = part, host, plan, gores, why

    def made(self) -> LowerMade:
        opens = self.host.opening.place is OpeningPlace.CENTRE_BACK
        if self.plan.whole:
            return self._counted_from_the_centre_front(opens)
        pieces: list[Piece] = []
        order: list[Piece] = []
        corners = [CENTRE_FRONT]
        for half, share, gore in zip(Half, (self.plan.front, self.plan.back), self.gores, strict=True):
            here = self._of_half(half, share, gore, opens)
            pieces += dict.fromkeys(here)
            order += here if half is Half.FRONT else reversed(here)
            corners += [Sign.seamed(half, f"gore seam {k + 1}") for k in range(len(here) - 1)]
            corners.append(SIDE_SEAM if half is Half.FRONT else CENTRE_BACK)
        return self._sewn(tuple(pieces), order, tuple(corners))

    def _of_half(self, half: Half, share: float, gore: Gore, opens: bool) -> list[Piece]:
        """The gores of the front or the back from its centre outwards; the one on the centre is half a gore."""
        full, odd = int(share), share - int(share) > 0
        made = []
        if odd:
            role = Role.CENTRE_FRONT if half is Half.FRONT else Role.CENTRE_BACK
            made.append(self._half_gore(half, gore, role, folded=half is Half.FRONT or not opens))
        if full:
            edge, where = "", ""
            if opens and half is Half.BACK and not odd:
                edge, where = "side", AT_CENTRE_BACK
            elif self.host.opening.place is OpeningPlace.SIDE:
                edge, where = "side" if half is Half.FRONT else NEAR, "the zip lies in a side seam"
            made += [self._whole_gore(What(Section.SKIRT, half, Panel.GORE), gore, 2 * full, edge, where)] * full
        return made

    def _counted_from_the_centre_front(self, opens: bool) -> LowerMade:
        """An odd number of gores: all alike, half of one at the centre front, a seam at the centre back."""
        each_side = (self.plan.count - 1) // 2
        centre = self._half_gore(Half.FRONT, self.gores[0], Role.CENTRE_FRONT, folded=True)
        gore = self._whole_gore(What(Section.SKIRT, panel=Panel.GORE), self.gores[0], 2 * each_side,
                                *(("side", AT_CENTRE_BACK) if opens else ()))  # fmt: skip
        corners = (CENTRE_FRONT, *(Sign(f"gore seam {k + 1}") for k in range(each_side)), CENTRE_BACK)
        return self._sewn((centre, gore), [centre, *[gore] * each_side], corners)

    def _sewn(self, pieces: tuple[Piece, ...], order: list[Piece], corners: tuple[Sign, ...]) -> LowerMade:
        first, last = order[0], order[-1]
        seams = [
            seam_of(corner, (one.what, "side"), (other.what, _near(other)))
            for corner, one, other in zip(corners[1:], order, order[1:], strict=False)
        ]
        if _near(first) == NEAR:
            seams.append(seam_of_pair("{section} centre front seam", first.what, NEAR))
        if _near(last) == NEAR:
            seams.append(seam_of_pair("{section} centre back seam", last.what, "side"))
        seams += centre_seams(pieces)
        return LowerMade(
            pieces, tuple(seams),
            Run(tuple(Stretch(piece.what, "waist", backwards=True) for piece in order), corners, "skirt", self.why),
            Run(tuple(Stretch(piece.what, "hem") for piece in order), corners, "hem"),
            pin={"lower.seam": 2 * sum(seam_halves(self.host, self.part.seam))},
        )  # fmt: skip

    def _half_gore(self, half: Half, gore: Gore, centre: Role, *, folded: bool) -> Piece:
        """Half a gore at the centre front or back, on the fold or cut as a pair."""
        waist, side, hem = gore.half()
        allowances = self.host.allowances
        line = Path.through(waist.end, hem.start)
        opens = not folded and centre is Role.CENTRE_BACK
        edges = (
            Edge(str(centre), centre, line, 0.0 if folded else allowances.of(centre), turned=opens),
            Edge("hem", Role.HEM, hem, self.part.hem, turned=True),
            Edge("side", Role.SIDE, side.reversed(), allowances.side),
            Edge("waist", Role.WAIST, waist, allowances.waist),
        )
        marks = [Notch("side", side.length / 2)]
        ends = self.host.zip_ends
        if opens and 0 < ends < line.length:
            marks.append(zip_end(str(centre), ends))
        piece = Piece(
            What(Section.SKIRT, half, Panel.CENTRE_GORE), edges, cut=1 if folded else 2, on_fold=folded,
            notches=tuple(marks),
            grain=(Point(20, -0.3 * gore.length), Point(20, -0.7 * gore.length)),
        )  # fmt: skip
        return mirrored(piece) if half is Half.BACK else piece

    def _whole_gore(self, what: What, gore: Gore, cut: int, zipped: str = "", where: str = "") -> Piece:
        """A whole gore; ``zipped`` is its edge that the zip lies on in one of them, ``where`` says in which."""
        waist, side, hem = gore.half()
        allowances = self.host.allowances
        left = side.placed(MIRROR)
        left_hem, left_waist = hem.placed(MIRROR).reversed(), waist.placed(MIRROR).reversed()
        edges = (
            Edge(NEAR, Role.SIDE, left, allowances.side),
            Edge("hem", Role.HEM, left_hem.then(hem), self.part.hem, turned=True),
            Edge("side", Role.SIDE, side.reversed(), allowances.side),
            Edge("waist", Role.WAIST, waist.then(left_waist), allowances.waist),
        )
        marks = [Notch("side", side.length / 2), Notch(NEAR, side.length / 2)]
        ends = self.host.zip_ends
        if zipped and 0 < ends < side.length:
            marks.append(zip_end(zipped, ends if zipped == NEAR else side.length - ends))
        return Piece(
            what, edges, cut=cut, alike=True, notches=tuple(marks), remark=where,
            grain=(Point(0, -0.3 * gore.length), Point(0, -0.7 * gore.length)),
        )  # fmt: skip


AT_CENTRE_BACK = "the zip lies in the gores' seam at the centre back"

NEAR = "side near"
"""The edge of a whole gore nearer the centre front."""


def _near(piece: Piece) -> str:
    """The edge of a gore nearer the centre front; half a gore has one side only."""
    return NEAR if any(edge.name == NEAR for edge in piece.edges) else "side"
