"""Trousers for a jumpsuit (trade 6), both crotch schools.

     CF  waist                 the back is the front with its crotch extended 2 in more and its inside leg 1½ in more
      ╲ ╱─────╮                at mid-thigh and hem; CB slants and rises; its crotch point is lowered until the
       │       ╲ hip           inside legs walk
     ╭─╯        │
crotch ╲        │
   inside╲      │ side
      leg │     │
          └─────┘ hem
"""

from dataclasses import dataclass
from math import radians
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.estimates import Measures
from gentle_hem.core.findings import Finding, Remedy, in_recipe, stop, warn
from gentle_hem.core.geometry import Cubic, Line, Path, Point, Segment
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.geometry.point import turn
from gentle_hem.core.lower.panel import (
    HemAllowance,
    HipEase,
    Quarter,
    dart_findings,
    hem_of,
    quarters,
    seam_halves,
    under_marks,
    zip_end,
)
from gentle_hem.core.lower.straight import meet_the_bodice
from gentle_hem.core.parts import FinishedLength, Host, LowerMade, LowerPart, OpeningPlace, SeamLength, between
from gentle_hem.core.pattern import Dart, Edge, Notch, Piece, Role
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of, seam_of_pair
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.units import Length, inches
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import WAIST_CORNERS, Half, Section, What
from gentle_hem.core.workings import Workings

FRONT_IN, BACK_IN, BACK_RISE = inches(1), 30.0, 22.0
"""CF comes in 1 in at the waist; CB slants and rises ¾-1 in: common practice (trade 6)."""

BACK_CROTCH, BACK_LEG = inches(2), inches(1.5)
"""The back's crotch is extended 2 in more, its inside leg 1½ in more at mid-thigh and hem: common practice."""

ABOVE_KNEE = inches(2)
"""The knee lies 2 in above the middle of the inside leg, where it was not measured: common practice (trade 6)."""

LEAST_FORK = 25
"""A front fork shorter than the hip ÷ 25 is hardly to be sewn and binds: from memory."""

NO_FORK = 15.0
"""A front fork shorter than this is none at all (mm)."""

SITTING = inches(0.5)
"""Sitting ease below the crotch depth: common practice."""


def _short_fork(front: float, quarter: float, least: float, more: float) -> Finding:
    """What is said of a front fork that is drawn longer than its school would have it: ``more`` over half the thigh."""
    says = stop if front - quarter < NO_FORK else warn
    return says(
        "no-front-fork" if front - quarter < NO_FORK else "short-front-fork",
        "Half the thigh and what was added give a front crotch line of {front}, and the hip quarter with its ease is "
        "{quarter}: that leaves no fork that can well be sewn. It is drawn {least} long.",
        *in_recipe("lower.thigh_more", "lower.school"),
        remedies=(
            Remedy("hip-school", "Draft the crotch by the hip", {"lower.school": "hip"}, "", {}),
            *(
                (Remedy("more", "Take half the thigh and {more}", {"lower.thigh_more": more}, "", {"more": more}),)
                if more <= MOST_OVER_HALF_THIGH
                else ()
            ),
        ),
        front=front, quarter=quarter, least=least,
    )  # fmt: skip


MOST_OVER_HALF_THIGH = 120.0


class Trousers(LowerPart):
    """Trousers, 102 cm finished, 44 cm round the hem, by the thigh school."""

    title: ClassVar[str] = "Trousers"
    sentences: ClassVar[tuple[str, ...]] = (
        "Trousers, {length} finished, {hem_round} round each hem and {knee_round} round the knee, sewn to {seam}, the "
        "crotch drafted by {school}, hem {hem}.",
        "Ease: {hip_ease} round the hip, {crotch_ease} more in the crotch depth; the side seams take {side_in}.",
        "[school=thigh:The front is half the thigh and {thigh_more} wide at the crotch. ]The back goes {back_crotch} "
        "further at the crotch and {back_leg} at mid-thigh and hem.",
    )
    words: ClassVar[dict[str, Word]] = {
        "length": length(
            "finished length", help="From the waist seam, at the side: the full length less the waist length."
        ),
        "hem_round": length("round each hem"),
        "knee_round": length("round the knee", without="as it falls"),
        "seam": length("waist seam of the trousers", without="the bodice's waist as it measures"),
        "school": choice("crotch school", ("thigh", "the thigh"), ("hip", "the hip")),
        "hem": length("hem allowance"),
        "hip_ease": length("ease at the hip", presets=((50.0, "close, 5 cm"), (inches(4), "easy, 4 in"))),
        "crotch_ease": length(
            "more crotch depth", presets=((0.0, "none"), (20.0, "2 cm"), (40.0, "4 cm")), nothing="no"
        ),
        "side_in": length("taken at the side seams"),
        "thigh_more": length("more than half the thigh", presets=((10.0, "1 cm"), (inches(2), "2 in"))),
        "back_crotch": length("back's crotch further", presets=((inches(2), "2 in"),)),
        "back_leg": length("back's inside leg further", presets=((inches(1.5), "1 1/2 in"),)),
    }

    kind: Literal["trousers"] = "trousers"
    length: FinishedLength = Field(1020.0, description="Finished length, waist seam to hem, at the side.")
    hem_round: Annotated[Length, between(150, 2000)] = Field(480.0, description="Round each hem.")
    knee_round: Annotated[Length, between(200, 2000)] | None = Field(
        None, description="Round each knee; nothing: on the straight line from hip to hem."
    )
    seam: SeamLength | None = Field(None, description="Its waist where it is cut already; nothing: the bodice's.")
    school: Literal["thigh", "hip"] = "hip"
    hip_ease: HipEase = Field(inches(4), description="Ease round the whole hip: 1 in a quarter for easy legs.")
    crotch_ease: Annotated[Length, between(0, 150)] = Field(0.0, description="More depth from waist to crotch.")
    side_in: Annotated[Length, between(0, 80)] = Field(20.0, description="What the side seams take from hip to waist.")
    thigh_more: Annotated[Length, between(10, MOST_OVER_HALF_THIGH)] = Field(
        10.0, description="By the thigh school: front crotch line beyond half the thigh, 1 cm at least."
    )
    back_crotch: Annotated[Length, between(20, 120)] = Field(
        BACK_CROTCH, description="Back's crotch beyond the front's."
    )
    back_leg: Annotated[Length, between(0, 80)] = Field(
        BACK_LEG, description="Back's inside leg beyond the front's at mid-thigh and hem."
    )
    hem: HemAllowance = Field(40.0, description="Hem allowance.")

    def remedies(self, report: Walked) -> list[Remedy]:
        return meet_the_bodice(self.seam, report)

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        return _Draft(self, host, notes.about("trousers")).made()


@dataclass
class _Draft:
    """The trousers being drafted."""

    part: Trousers
    host: Host
    notes: Workings

    def made(self) -> LowerMade:
        part, host, notes = self.part, self.host, self.notes
        measures = Measures(host.figure, notes)
        hip, drop, thigh = (measures.take(key) for key in ("hip_girth", "waist_to_hip", "thigh_girth"))
        rise = measures.take("crotch_depth")
        crotch = notes.work(
            "crotch level", rise + SITTING + part.crotch_ease - host.level,
            "{crotch_depth} + {sitting_ease} + {more}"
            + (" − {seam_below_the_waist}" if host.level > 0 else " + {seam_above_the_waist}" if host.level else ""),
            crotch_depth=rise, sitting_ease=SITTING, more=part.crotch_ease,
            seam_below_the_waist=max(host.level, 0.0), seam_above_the_waist=max(-host.level, 0.0),
        )  # fmt: skip
        depth = max(min(drop - host.level, crotch - 20), 20.0)
        quarter = notes.work(
            "hip quarter", (hip + part.hip_ease) / 4, "({hip} + {ease}) ÷ 4", hip=hip, ease=part.hip_ease
        )
        findings: list[Finding] = []
        hip_fork, thigh_fork = hip / 18, thigh / 2 + part.thigh_more - quarter
        if part.school == "thigh":
            front = notes.work(
                "front crotch line", thigh / 2 + part.thigh_more, "{thigh} ÷ 2 + {more}", rule="thigh school",
                thigh=thigh, more=part.thigh_more, instead=(("hip school", quarter + hip_fork),),
            )  # fmt: skip
            extension = float(front) - quarter
            least = hip / LEAST_FORK
            if extension < least:
                more = part.thigh_more + least - extension
                findings.append(_short_fork(float(front), float(quarter), least, more))
                extension = least
        else:
            extension = notes.work(
                "front crotch extension", hip_fork, "{hip} ÷ 18", rule="hip school, hip ÷ 16 to hip ÷ 20; from memory",
                hip=hip, instead=(("thigh school", thigh_fork),),
            )  # fmt: skip
        extension = float(extension)
        parts = quarters(host, part.seam, (quarter - FRONT_IN, quarter - BACK_IN), part.side_in)
        findings += [*measures.findings, *dart_findings(parts)]
        across = notes.work(
            "crotch width, front and back",
            2 * quarter + 2 * extension + part.back_crotch,
            "2 × ({hip_quarter} + {extension}) + {more_behind}",
            hip_quarter=quarter,
            extension=extension,
            more_behind=part.back_crotch,
        )
        if across < thigh + 10:
            findings.append(
                stop(
                    "thigh-too-tight",
                    "The legs measure {across} at the crotch and the thigh {thigh}; they do not go on.",
                    *in_recipe("lower.hip_ease"),
                    across=float(across),
                    thigh=thigh,
                )
            )
        if part.length < crotch + 40:
            findings.append(
                stop(
                    "legs-too-short", "The legs end at {length}, above the crotch level of {crotch}; make them longer.",
                    *in_recipe("lower.length"), length=part.length, crotch=float(crotch),
                )
            )  # fmt: skip
        long = max(part.length, float(crotch) + 40)
        front_hem = max((part.hem_round - part.back_leg) / 2, 40.0)
        hip_width = float(quarter)
        middle = (hip_width - extension) / 2
        knee = self._knee(float(crotch), long)
        outer_hem = Point(middle + front_hem / 2, -long)
        foot = Point(middle - front_hem / 2, -long)
        # the crease runs down the middle: knee and hem lie as far to either side of it
        outer_knee = self._outer_knee(Point(hip_width, -depth), outer_hem, knee, middle)
        inner_knee = Point(2 * middle - outer_knee.x, -knee)
        further = Point(part.back_leg, 0)
        front_leg = self._inside_leg(Point(-extension, -crotch), inner_knee, foot)
        drop_back = 0.0
        for _ in range(40):  # the back's crotch point is lowered until the inside legs walk
            fork = Point(-extension - part.back_crotch, -crotch - drop_back)
            back_leg = self._inside_leg(fork, inner_knee - further, foot - further, front_leg)
            over = back_leg.length - front_leg.length
            if abs(over) < 1e-6:
                break
            drop_back = max(-60.0, min(120.0, drop_back + over))
        side = outer_knee, outer_hem
        front_crotch = self._crotch(Point(FRONT_IN, 0), depth, front_leg.start, Point(-1, 0))
        # the two run on as one curve over the inside leg: what the front's angle there lacks of 180°, the back's has
        at_fork = turn(front_crotch.arriving, front_leg.leaving)
        arrives = back_leg.leaving.turned(radians(at_fork - 180))
        back_crotch = self._crotch(Point(BACK_IN, BACK_RISE), depth, back_leg.start, arrives)
        pieces = (
            self._piece(parts[0], front_crotch, front_leg, side, depth, hip_width),
            self._piece(parts[1], back_crotch, back_leg, side, depth, hip_width),
        )
        crotch_length = sum(
            p.edge(n).drawn_length for p, n in zip(pieces, ("centre front", "centre back"), strict=True)
        )
        notes.work("crotch length of the pattern", crotch_length, "front and back crotch seam, walked")
        return self._sewn(pieces, tuple(findings))

    def _knee(self, crotch: float, long: float) -> float:
        """How far below the seam the knee lies: as measured, or 2 in above the middle of the inside leg."""
        measured = self.host.figure.get("waist_to_knee")
        if measured is not None:
            level = self.notes.work(
                "knee level", measured - self.host.level, "{waist_to_knee} − {seam_below_waist}",
                waist_to_knee=measured, seam_below_waist=self.host.level,
            )  # fmt: skip
        else:
            level = self.notes.work(
                "knee level", crotch + (long - crotch) / 2 - ABOVE_KNEE, "{crotch} + {inside_leg} ÷ 2 − {above}",
                rule="the knee was not measured", crotch=crotch, inside_leg=long - crotch, above=ABOVE_KNEE,
            )  # fmt: skip
        return min(float(level), long - 10)

    def _outer_knee(self, hip: Point, foot: Point, knee: float, crease: float) -> Point:
        """Where the side passes the knee: as wide as asked, or on the straight line from hip to hem."""
        if self.part.knee_round is not None:
            return Point(crease + max((self.part.knee_round - self.part.back_leg) / 4, 20.0), -knee)
        return hip.towards(foot, (knee + hip.y) / (hip.y - foot.y)) if hip.y > -knee > foot.y else Point(foot.x, -knee)

    def _crotch(self, start: Point, depth: float, fork: Point, arrive: Point) -> Path:
        """From the waist down the centre, and round to the fork: a J, wider and lower behind."""
        bend = Point(0, -depth)
        down = (bend - start).unit
        return Path.of(
            Line(start, bend),
            Cubic(bend, bend + down * (0.62 * (bend.y - fork.y)), fork - arrive * (0.62 * (bend.x - fork.x)), fork),
        )

    def _inside_leg(self, top: Point, at_knee: Point, foot: Point, front: Path | None = None) -> Path:
        """From the crotch point down to the hem: hollow to the knee, then straight.

        A back's goes further than the ``front``'s at mid-thigh, half-way from the fork to the knee, as at the knee.
        """
        if not foot.y + 5 < at_knee.y < top.y - 20:
            return Path.of(Line(top, foot))
        down = (foot - at_knee).unit
        if front is not None:
            level = (front.start.y + at_knee.y) / 2
            met = front.crossings(Path.through(Point(-3000, level), Point(3000, level)))
            if met and top.y - 10 > level > at_knee.y + 10:
                at_thigh = front.point_at(met[0][0]) - Point(self.part.back_leg, 0)
                thigh = smooth_through([top, at_thigh, at_knee], arrive=down)
                return Path((*thigh.segments, Line(at_knee, foot)))
        reach = top.distance(at_knee)
        curve = Cubic(
            top, top + Point((at_knee.x - top.x) * 0.45, -reach * 0.25), at_knee - down * (reach * 0.4), at_knee
        )
        return Path.of(curve, Line(at_knee, foot))

    def _piece(
        self, part: Quarter, crotch: Path, leg: Path, outer: tuple[Point, Point], depth: float, hip: float
    ) -> Piece:
        """Front or back; ``outer`` are the places where its side passes the knee and ends at the hem."""
        host, is_front = self.host, part.is_front
        centre_in, rise = (FRONT_IN, 0.0) if is_front else (BACK_IN, BACK_RISE)
        start = Point(centre_in, rise)
        length = part.drawn
        across = max(length**2 - rise**2, 1.0) ** 0.5
        side_top = Point(centre_in + across, 0)
        waist = Path.of(Line(side_top, start))
        darts = []
        toward = (start - side_top).unit
        for k, (name, at) in enumerate(part.marks):
            from_side = length - (at + part.intake * k) - part.intake
            middle = side_top + toward * (from_side + part.intake / 2)
            apex = middle + toward.left * min(100.0 if is_front else 130.0, 0.6 * depth + 20)
            darts.append(Dart("waist", from_side, part.intake, apex, name))
        hip_point = Point(hip, -depth)
        outer_knee, outer_hem = outer
        below = (outer_knee - hip_point).unit if outer_knee.y < hip_point.y - 20 else Point(0, -1)
        # it leans over the hip half as much as it does below, so that no part of it has to turn sharply
        over_hip = (below + Point(0, -1)).unit
        side_curve = Cubic(
            side_top,
            side_top + Point((hip - side_top.x) * 0.35, -depth * 0.3),
            hip_point - over_hip * (depth * 0.4),
            hip_point,
        )
        side = Path.of(side_curve, *self._side_below(hip_point, over_hip, outer_knee, outer_hem))
        role = Role.CENTRE_FRONT if is_front else Role.CENTRE_BACK
        opening = host.opening
        opens = opening.place is (OpeningPlace.CENTRE_FRONT if is_front else OpeningPlace.CENTRE_BACK)
        at_side = opening.place is OpeningPlace.SIDE
        allowances = host.allowances
        edges = (
            Edge(str(role), role, crotch, allowances.zip if opens else allowances.panel),
            Edge("inside leg", Role.INSIDE_LEG, leg, allowances.side),
            Edge("hem", Role.HEM, Path.of(Line(leg.end, outer_hem)), self.part.hem, turned=True),
            Edge("side", Role.SIDE, side.reversed(), allowances.side, turned=at_side),
            Edge("waist", Role.WAIST, waist, allowances.waist),
        )
        marks = [
            Notch(str(role), crotch.segments[0].length, double=not is_front),
            Notch("inside leg", leg.length - leg.segments[-1].length, double=not is_front),
            Notch("side", side.segments[-1].length if len(side.segments) > 2 else side.length / 2),
        ]
        marks += under_marks(host, part, waist, tuple(darts))
        if opens and 0 < host.zip_ends < crotch.length:
            marks.append(zip_end(str(role), host.zip_ends))
        if at_side and 0 < host.zip_ends < side.length:
            marks.append(zip_end("side", side.length - host.zip_ends))
        middle_x = (leg.end.x + outer_hem.x) / 2
        piece = Piece(
            What(Section.TROUSERS, Half.of(is_front)), edges, cut=2, darts=tuple(darts), notches=tuple(marks),
            grain=(Point(middle_x, -depth - 60), Point(middle_x, outer_hem.y * 0.8)),
        )  # fmt: skip
        return piece if is_front else mirrored(piece)

    def _side_below(self, hip: Point, over_hip: Point, knee: Point, foot: Point) -> tuple[Segment, ...]:
        """The side from the hip through the knee to the hem, without a corner."""
        if not foot.y + 20 < knee.y < hip.y - 60:
            return (Line(hip, foot),)
        down = (foot - knee).unit
        third = hip.distance(knee) / 3
        return Cubic(hip, hip + over_hip * third, knee - down * third, knee), Line(knee, foot)

    def _sewn(self, pieces: tuple[Piece, Piece], findings: tuple[Finding, ...]) -> LowerMade:
        front, back = (piece.what for piece in pieces)
        seams: tuple[Seam, ...] = (
            seam_of("{section} side seam", (front, "side"), (back, "side")),
            seam_of("inside leg seam", (front, "inside leg"), (back, "inside leg")),
            seam_of_pair("crotch seam, front", front, str(Role.CENTRE_FRONT)),
            seam_of_pair("crotch seam, back", back, str(Role.CENTRE_BACK)),
        )
        waist = Run(tuple(Stretch(what, "waist", backwards=True) for what in (front, back)), WAIST_CORNERS, "trousers")
        pin = {"lower.seam": 2 * sum(seam_halves(self.host, self.part.seam))}
        return LowerMade(pieces, seams, waist, hem_of(pieces), pin=pin, findings=findings)
