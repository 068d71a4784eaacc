"""Drafting a circle skirt: from its recipe sentence to sectors on paper.

centre of the circle
      ·
r    ╱ ╲      the sector's straight edges are seams, folds or the opening;
    ╱waist╲    where the arc holds the opening's allowance, the seam line lies
   ╱       ╲   inside the straight edge and parallel to it
  ╱__ hem ___╲
"""

from __future__ import annotations

from dataclasses import dataclass
from math import asin, ceil, degrees, pi, radians, sin
from typing import TYPE_CHECKING

from gentle_hem.core.findings import Finding, Remedy, in_recipe, note, stop, warn
from gentle_hem.core.geometry import ORIGIN, Arc, Line, Path, Point, polar
from gentle_hem.core.lower.flare import HIP_EASE, Flare, FlareRadii, RadiusRule, least_sweep, room_beside, say_sweep
from gentle_hem.core.lower.panel import under, zip_end
from gentle_hem.core.parts import Host, LowerMade, OpeningPlace
from gentle_hem.core.pattern import Dart, Edge, Notch, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Manner, Run, Seam, Stretch, centre_seams, seam_of, seam_of_pair
from gentle_hem.core.what import (
    CENTRE_BACK,
    CENTRE_FRONT,
    SIDE_SEAM,
    SKIRT_BACK,
    SKIRT_FRONT,
    WAIST_CORNERS,
    Half,
    Section,
    What,
)
from gentle_hem.core.workings import Angle, Workings

if TYPE_CHECKING:
    from gentle_hem.core.lower.circle import CircleSkirt

WIDEST_SWEEP = 1080.0
FRONT_DART_LENGTH = 108.0
BACK_DART_LENGTH = 140.0
"""Skirt dart lengths: front 3½-5 in, back 5-6 in, common practice (trade 5)."""

DEEPEST_CURVED_HEM = 20.0
"""A turned hem deeper than 2 cm on a circle will not lie flat, common practice (trade 11)."""

USUAL_WAIST_TO_HIP = 200.0
"""Waist to hip when it was not taken: 20 cm, common practice (trade 3.4)."""


WHOLE_SKIRT = What(Section.SKIRT)
"""A skirt in one piece, its only seam at the centre back."""


@dataclass(frozen=True)
class DraftedCircle:
    """A circle skirt being drafted for its host: the numbers every piece needs."""

    skirt: CircleSkirt
    host: Host
    radii: FlareRadii
    front_angle: float
    back_angle: float
    pieces: int
    waist_allowance: float
    seam: float
    findings: tuple[Finding, ...]

    @classmethod
    def of(cls, skirt: CircleSkirt, host: Host, notes: Workings) -> DraftedCircle:
        findings: list[Finding] = []
        upper = host.waist
        front_darts = 2 * skirt.front_dart * _count(host, Half.FRONT)
        back_darts = 2 * skirt.back_dart * _count(host, Half.BACK)
        following = (2 * upper.length + host.ease) * skirt.fullness + front_darts + back_darts
        seam = skirt.seam if skirt.seam is not None else following
        arc = skirt.arc_allowance or 0.0
        flare = Flare(
            seam, radians(skirt.sweep), skirt.length, host.allowances.waist, skirt.hem,
            skirt.rule, arc, skirt.stretch, skirt.tape_mark,
        )  # fmt: skip
        radii = flare.work(notes)

        waist_allowance = host.allowances.waist
        if radii.cut_radius <= 0:
            findings.append(
                stop(
                    "allowance-uses-up-radius",
                    "The waist allowance of {allowance} is more than the seam radius of {radius}; nothing is left "
                    "to cut along. Use fewer degrees or a narrower allowance.",
                    *in_recipe("lower.sweep", "allowances.waist"),
                    allowance=waist_allowance, radius=radii.seam_radius,
                )
            )  # fmt: skip
            waist_allowance = radii.seam_radius / 2

        front, back = _shares(skirt, upper.between(CENTRE_FRONT, SIDE_SEAM), front_darts / 2,
                              upper.between(SIDE_SEAM, CENTRE_BACK), back_darts / 2)  # fmt: skip
        at_back = arc / 2 if _opens_at_back(skirt.pieces, host) else 0.0
        at_sides = 0.0 if at_back else arc / 4
        sewn_half = radii.stitched_seam / 2
        radius = float(radii.seam_radius)
        front_angle = (sewn_half * front / (front + back) + at_sides) / radius
        back_angle = (sewn_half * back / (front + back) + at_sides + at_back) / radius
        drafted = cls(skirt, host, radii, front_angle, back_angle, skirt.pieces, waist_allowance, seam, ())
        drafted = drafted._in_enough_pieces(findings)
        findings += drafted._hip_findings(seam, notes) + drafted._finish_findings()
        return replace(drafted, findings=tuple(findings))

    def _in_enough_pieces(self, findings: list[Finding]) -> DraftedCircle:
        """The same skirt in as many pieces as flat cloth allows; says so when that is more than asked."""
        for pieces in (count for count in (1, 2, 4) if count >= self.skirt.pieces):
            made = replace(self, pieces=pieces)
            if all(made._whole_angle(angle, what) <= 2 * pi + 1e-9 for what, angle in made._sectors()):
                break
        else:
            even = (self.front_angle + self.back_angle) / 2
            made = replace(self, pieces=4, front_angle=even, back_angle=even)
        if made.pieces != self.skirt.pieces:
            findings.append(
                stop(
                    "sweep-too-wide-for-pieces",
                    "A {sweep} cannot lie flat in {asked}: one piece of cloth turns 360° at most. "
                    "It is drawn in {pieces} pieces.",
                    *in_recipe("lower.pieces"),
                    remedies=(
                        Remedy("pieces", "Cut it in {pieces} pieces", {"lower.pieces": made.pieces},
                               "more seams", {"pieces": str(made.pieces)}),
                    ),
                    sweep=say_sweep(self.skirt.sweep),
                    asked=f"{self.skirt.pieces} piece" + ("s" if self.skirt.pieces > 1 else ""),
                    pieces=str(made.pieces),
                )
            )  # fmt: skip
        return made

    @property
    def by_habit(self) -> float:
        """How much longer its seam is by the maker's own way of drawing a radius: on the cut edge, or to the tape's
        mark (trade 7.2). It is meant, and so no fault of the seam.
        """
        meant = self.skirt.rule is RadiusRule.CUT_EDGE or self.skirt.tape_mark > 0
        return float(self.radii.surplus) if meant else 0.0

    @property
    def opens_at_back(self) -> bool:
        return _opens_at_back(self.pieces, self.host)

    def _sectors(self) -> list[tuple[What, float]]:
        """The pieces as they are drawn, and the angle of each sector."""
        if self.pieces == 1:
            return [(WHOLE_SKIRT, self.front_angle + self.back_angle)]
        return [(SKIRT_FRONT, self.front_angle), (SKIRT_BACK, self.back_angle)]

    def _is_folded(self, what: What) -> bool:
        if what.half is Half.BACK:
            return self.pieces == 2 and not self.opens_at_back
        return self.pieces < 4

    def _whole_angle(self, angle: float, what: What) -> float:
        """A sector's angle as it lies on the cloth, unfolded."""
        return 2 * angle if self._is_folded(what) else angle

    def made(self) -> LowerMade:
        findings = list(self.findings)
        pieces = tuple(self._piece(what, angle, findings) for what, angle in self._sectors())
        corners = WAIST_CORNERS if len(pieces) == 2 else (CENTRE_FRONT, CENTRE_BACK)
        stretched = -self.radii.stitched_seam * self.skirt.stretch / (100 - self.skirt.stretch)
        return LowerMade(
            pieces, self._seams(pieces),
            Run(tuple(Stretch(p.what, "waist", backwards=True) for p in pieces), corners, "skirt",
                self.radii.stitched_seam),
            Run(tuple(Stretch(p.what, "hem") for p in pieces), corners, "hem"),
            stretched + self.by_habit, {"lower.seam": self.seam}, tuple(findings), fullness=self.skirt.fullness,
            manner=Manner.GATHERED,
        )  # fmt: skip

    def _seams(self, pieces: tuple[Piece, ...]) -> tuple[Seam, ...]:
        """The side seam, and the centre seams; a skirt in one piece is sewn to itself at the centre back."""
        if len(pieces) == 1:
            return (seam_of_pair("{section} centre back seam", pieces[0].what, str(Role.CENTRE_BACK)),)
        front, back = (piece.what for piece in pieces)
        return (seam_of("{section} side seam", (front, "side"), (back, "side")), *centre_seams(pieces))

    def _piece(self, what: What, angle: float, findings: list[Finding]) -> Piece:
        """One sector. Fronts begin at the centre front and turn anticlockwise; backs end at the centre back."""
        skirt, host = self.skirt, self.host
        folded, whole = self._is_folded(what), what == WHOLE_SKIRT
        is_back = what.half is Half.BACK
        left_role = Role.SIDE if is_back else Role.CENTRE_FRONT
        right_role = Role.SIDE if what.half is Half.FRONT else Role.CENTRE_BACK
        begin = -pi / 2 - angle if is_back else -pi / 2
        room = room_beside(self._whole_angle(angle, what), max(float(self.radii.cut_radius), 0.0))

        allowances: dict[Role, float] = {}
        insets: dict[Role, float] = {}
        for role in (left_role, right_role):
            inset = self._inset(role)
            wanted = inset or host.allowances.of(role)
            if role is Role.CENTRE_BACK and not self.opens_at_back:
                wanted = host.allowances.panel
            if folded and role.is_centre and not whole:
                wanted = 0.0
            if folded and whole and role is Role.CENTRE_FRONT:
                wanted = 0.0
            if not inset and wanted > room + 1e-6:
                findings.append(self._no_room(what.name, role, wanted))
                wanted = 0.0
            allowances[role], insets[role] = wanted, inset

        r, big = float(self.radii.seam_radius), float(self.radii.hem_radius)
        d_left, d_right = insets[left_role], insets[right_role]
        waist_from, waist_to = begin + asin(d_left / r), begin + angle - asin(d_right / r)
        hem_from, hem_to = begin + asin(d_left / big), begin + angle - asin(d_right / big)
        left = Path.of(Line(polar(r, waist_from), polar(big, hem_from)))
        hem = Path.of(Arc(ORIGIN, big, hem_from, hem_to - hem_from))
        right = Path.of(Line(polar(big, hem_to), polar(r, waist_to)))
        waist = Path.of(Arc(ORIGIN, r, waist_to, waist_from - waist_to))
        zip_edge = Role.CENTRE_BACK if self.opens_at_back else Role.SIDE
        edges = (
            Edge(
                str(left_role),
                left_role,
                left,
                allowances[left_role],
                turned=self._is_zip(left_role, zip_edge),
            ),
            Edge("hem", Role.HEM, hem, skirt.hem, turned=True),
            Edge(str(right_role), right_role, right, allowances[right_role], self._is_zip(right_role, zip_edge)),
            Edge("waist", Role.WAIST, waist, self.waist_allowance),
        )
        darts = tuple(self._darts(what, waist))
        notches = [*self._waist_notches(what, waist, darts), *self._seam_notches(edges, folded)]
        aside = min(25.0, 0.3 * (r + 0.3 * (big - r)) * sin(min(angle, pi / 2))) * (-1 if is_back else 1)
        return Piece(
            what,
            edges,
            cut=1 if folded else 2,
            on_fold=folded,
            darts=darts,
            notches=tuple(notches),
            grain=(Point(aside, -(r + 0.3 * (big - r))), Point(aside, -(r + 0.7 * (big - r)))),
        )

    def _inset(self, role: Role) -> float:
        """How far the seam line lies inside the sector's straight edge when the arc holds the allowance."""
        arc = self.skirt.arc_allowance or 0.0
        along = 0.0
        if arc and role is Role.CENTRE_BACK and self.opens_at_back:
            along = arc / 2
        elif arc and role is Role.SIDE and not self.opens_at_back:
            along = arc / 4
        r = float(self.radii.seam_radius)
        return r * sin(along / r) if along else 0.0

    def _is_zip(self, role: Role, zip_edge: Role) -> bool:
        return role is zip_edge and self.host.opening.place in (OpeningPlace.CENTRE_BACK, OpeningPlace.SIDE)

    def _no_room(self, name: str, role: Role, wanted: float) -> Finding:
        if role is Role.CENTRE_BACK and self.pieces == 1:
            return warn(
                "slit-has-no-allowance",
                "A whole ring has no room for an allowance at its slit. Stitched {allowance} in, the zip takes "
                "{twice} out of the waist.",
                *in_recipe("lower.pieces", "lower.arc_allowance"),
                remedies=(
                    Remedy("allowance-in-arc", "Take {twice} for the zip into the arc",
                           {"lower.arc_allowance": 2 * wanted}, "the radius grows to make room",
                           {"twice": 2 * wanted}),
                    Remedy("pieces", "Cut it in 2 pieces", {"lower.pieces": 2}, "side seams", {}),
                ),
                allowance=wanted, twice=2 * wanted,
            )  # fmt: skip
        return stop(
            "no-room-for-allowance",
            "The {piece} turns so far round that {allowance} beside its {edge} would lie on itself. "
            "Cut the skirt in more pieces.",
            *in_recipe("lower.pieces"),
            remedies=(
                (Remedy("pieces", "Cut it in 4 pieces", {"lower.pieces": 4}, "more seams", {}),)
                if self.pieces < 4
                else ()
            ),
            piece=name, edge=str(role), allowance=wanted,
        )  # fmt: skip

    @staticmethod
    def _halves_of(what: What) -> tuple[Half, ...]:
        return (what.half,) if what.half else tuple(Half)

    def _position(self, landmark_at: float) -> float:
        """Where a place of the bodice's edge falls on the skirt's, both unrolled from the centre front.

        Front maps to front and back to back, each in proportion, so that a skirt whose waist measures
        differently carries its marks where its own side seam puts them.
        """
        upper = self.host.waist
        front_upper = upper.between(CENTRE_FRONT, SIDE_SEAM)
        front, back = self._stitched_front, self._stitched_back
        if landmark_at <= front_upper:
            return landmark_at * front / front_upper
        return front + (landmark_at - front_upper) * back / (upper.length - front_upper)

    @property
    def _stitched_front(self) -> float:
        along = 0.0 if self.opens_at_back else (self.skirt.arc_allowance or 0.0) / 4
        return self.front_angle * self.radii.seam_radius - along - self.skirt.front_dart * _count(self.host, Half.FRONT)

    @property
    def _stitched_back(self) -> float:
        arc = self.skirt.arc_allowance or 0.0
        along = arc / 2 if self.opens_at_back else arc / 4
        return self.back_angle * self.radii.seam_radius - along - self.skirt.back_dart * _count(self.host, Half.BACK)

    def _darts(self, what: What, waist: Path) -> list[Dart]:
        """Darts under the bodice's, from the centre front outwards, their mouths along the waist arc."""
        made: list[Dart] = []
        start = self._stitched_front if what.half is Half.BACK else 0.0
        taken = 0.0
        for mark in self.host.waist.darts():
            half = mark.name.half
            intake = self.skirt.front_dart if half is Half.FRONT else self.skirt.back_dart
            if half not in self._halves_of(what) or intake <= 0:
                continue
            from_front = self._position(mark.at) - start + taken
            at = waist.length - from_front - intake
            taken += intake
            depth = FRONT_DART_LENGTH if half is Half.FRONT else BACK_DART_LENGTH
            middle = at + intake / 2
            inward = waist.tangent_at(middle).left
            apex = waist.point_at(middle) + inward * min(depth, 0.8 * self.skirt.length)
            made.append(Dart("waist", at, intake, apex, mark.name))
        return made

    def _waist_notches(self, what: What, waist: Path, darts: tuple[Dart, ...]) -> list[Notch]:
        """A notch under every landmark of the bodice that the skirt has no dart or seam of its own for."""
        have = {dart.landmark for dart in darts}
        start = self._stitched_front if what.half is Half.BACK else 0.0
        whole = self._stitched_front + self._stitched_back
        made = []
        for mark in self.host.waist.landmarks:
            here = mark.name.shaping and mark.name.half in self._halves_of(what)
            is_side = mark.name == SIDE_SEAM and what == WHOLE_SKIRT
            if mark.name in have or not (here or is_side):
                continue
            closed = (self._stitched_front if is_side else self._position(mark.at)) - start
            if closed < 1 or closed > whole - 1:
                continue
            before = sum(d.intake for d in darts if self._closed_from_front(d, waist, darts) < closed)
            made.append(under(mark.name, waist.length - closed - before, double=mark.name.half is Half.BACK))
        return made

    @staticmethod
    def _closed_from_front(dart: Dart, waist: Path, darts: tuple[Dart, ...]) -> float:
        opened = waist.length - dart.at - dart.intake
        return opened - sum(other.intake for other in darts if other.at > dart.at)

    def _seam_notches(self, edges: tuple[Edge, ...], folded: bool) -> list[Notch]:
        """Half-way waist to hem on every straight seam, and the zip's end on the opening."""
        made = []
        ends = self.host.zip_ends
        for edge in edges:
            straight = edge.role in (Role.SIDE, Role.CENTRE_FRONT, Role.CENTRE_BACK)
            on_the_fold = folded and edge.role is not Role.SIDE and edge.allowance == 0
            if not straight or on_the_fold:
                continue
            made.append(Notch(edge.name, edge.drawn_length / 2, double=edge.role is Role.CENTRE_BACK))
            if edge.turned and 0 < ends < edge.drawn_length:
                downwards = edge is edges[0]
                at = ends if downwards else edge.drawn_length - ends
                made.append(zip_end(edge.name, at))
        return made

    def _hip_findings(self, seam: float, notes: Workings) -> list[Finding]:
        """Does the flare pass over the hips? (trade 7.3: check it always)"""
        hip = self.host.figure.get("hip_girth")
        if hip is None:
            return []
        drop = (self.host.figure.get("waist_to_hip") or USUAL_WAIST_TO_HIP) - self.host.level
        if self.skirt.length < drop or drop < 30:
            return []
        least = least_sweep(seam, hip, drop, notes)
        sweep = radians(self.skirt.sweep)
        if sweep >= least - 1e-9:
            return []
        whole_degrees = float(ceil(degrees(least)))
        return [
            stop(
                "sweep-below-hip",
                "A {sweep} measures {at_hip} at the hip; the hip with ease needs {needed}. "
                "It takes {least} at least.",
                *in_recipe("lower.sweep"),
                remedies=(
                    (
                        Remedy("sweep", "Open the sweep to {least}", {"lower.sweep": whole_degrees},
                               "a wider hem and more cloth", {"least": Angle(radians(whole_degrees))}),
                    )
                    if whole_degrees <= WIDEST_SWEEP
                    else ()
                ),
                sweep=say_sweep(self.skirt.sweep), at_hip=seam + sweep * drop,
                needed=hip + HIP_EASE, least=Angle(least),
            )
        ]  # fmt: skip

    def _finish_findings(self) -> list[Finding]:
        skirt, radii = self.skirt, self.radii
        found: list[Finding] = []
        deepest = max(skirt.hem, self.waist_allowance)
        if skirt.length <= deepest:
            found.append(
                stop(
                    "length-shorter-than-allowance",
                    "The skirt is {length} long and its deepest allowance is {allowance}; there is no skirt left "
                    "between them.",
                    *in_recipe("lower.length", "lower.hem"),
                    length=skirt.length, allowance=deepest,
                )
            )  # fmt: skip
        found += curved_hem(skirt.hem, skirt.sweep)
        if self.pieces == 1 and self.host.opening.place in (OpeningPlace.SIDE, OpeningPlace.CENTRE_FRONT):
            found.append(
                warn(
                    "one-piece-opens-at-back",
                    "A skirt in one piece has its only seam at the centre back, so the opening lies there.",
                    *in_recipe("opening.place", "lower.pieces"),
                    remedies=(
                        Remedy("pieces", "Cut it in 2 pieces", {"lower.pieces": 2}, "side seams", {}),
                        Remedy("opening", "Open it at the centre back", {"opening.place": "centre_back"}, "", {}),
                    ),
                )
            )
        if self.by_habit > 0.5:
            found.append(
                note(
                    "surplus-by-habit",
                    "Drawn this way the stitched seam is {surplus} longer than what it is sewn to, all round: gather "
                    "it in or trim it, as you like.",
                    *in_recipe("lower.rule", "lower.tape_mark"),
                    surplus=self.by_habit,
                )
            )
        if skirt.tape_mark and radii.surplus < -0.5:
            found.append(
                note(
                    "radius-rounded-down",
                    "Rounding the radius down makes the stitched waist {lost} short; cut the hole larger by "
                    "trimming until it walks.",
                    *in_recipe("lower.tape_mark"),
                    lost=-radii.surplus,
                )
            )
        if skirt.sweep >= 90:
            found.append(
                note(
                    "hang-before-levelling",
                    "Let it hang 24 to 48 hours before the hem is levelled: the bias parts drop.",
                )
            )
        return found


def curved_hem(hem: float, sweep: float) -> list[Finding]:
    """What is said of a turned hem (mm) too deep to lie flat on a flare of a sweep in degrees."""
    if hem <= DEEPEST_CURVED_HEM or sweep < 90:
        return []
    return [
        warn(
            "hem-too-deep-for-curve",
            "A hem of {hem} on this curve is {extra} longer at its raw edge than where it is sewn and "
            "will not lie flat. Use 1-2 cm, a facing or bias.",
            *in_recipe("lower.hem"),
            remedies=(Remedy("hem", "Make the hem {narrow}", {"lower.hem": 12.7}, "", {"narrow": 12.7}),),
            hem=hem, extra=radians(sweep) * hem,
        )
    ]  # fmt: skip


def _count(host: Host, half: Half) -> int:
    """How many darts one half of the bodice has at the front or back."""
    return len(host.shaping(half))


def _opens_at_back(pieces: int, host: Host) -> bool:
    """A zip at the centre back; a skirt in one piece has its only seam there, opening or not."""
    return host.opening.place is OpeningPlace.CENTRE_BACK or pieces == 1


def _shares(
    skirt: CircleSkirt, front: float, front_darts: float, back: float, back_darts: float
) -> tuple[float, float]:
    """How the waist is shared between front and back."""
    if skirt.share == "even":
        return 1.0, 1.0
    return front + front_darts, back + back_darts
