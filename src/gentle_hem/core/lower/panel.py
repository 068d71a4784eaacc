"""A lower part's front and back panels, and how a bodice's edge becomes their waist (trade 5).

   centre          waist          side
     ┌──────╲╱──────╲╱─────────────╮     waist: the bodice's edge, its darts under the bodice's
     │                              ╲    taken in at the side from the hip
     │ ─ ─ ─ ─ ─ ─ hip ─ ─ ─ ─ ─ ─ ─ │
     │                               │
     └──────────── hem ──────────────┘

A panel is drawn with its centre on the left; a back is then turned over, so that front and back lie beside each
other as they are worn. Its edges run: centre (front) or side (back) down, hem, the other side up, waist back.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.estimates import Measures
from gentle_hem.core.findings import Finding, in_recipe, stop, warn
from gentle_hem.core.fit import BACK_DEPTH, FRONT_DEPTH, SMALLEST_SURPLUS, WIDEST_DART
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.parts import Allowances, Host, LowerMade, OpeningPlace, between
from gentle_hem.core.pattern import Dart, Edge, Notch, NotchKind, Piece, Role
from gentle_hem.core.seams import Manner, Run, Stretch, centre_seams, seam_of
from gentle_hem.core.units import Length
from gentle_hem.core.what import WAIST_CORNERS, Half, Sign, What
from gentle_hem.core.workings import Worked, Workings

HipEase = Annotated[Length, between(-60, 400)]
HemAllowance = Annotated[Length, between(0, 150)]

LEAST_HIP_EASE = 20.0
"""Ease over the hip for sitting and bending, common practice (trade 10)."""


@dataclass(frozen=True, slots=True)
class Quarter:
    """One quarter of a lower part: what its waist is sewn to, and how it is shaped down to the hip. Lengths in mm."""

    is_front: bool
    stitched: float
    marks: tuple[tuple[Sign, float], ...]
    """Darts to lie under: their names, and how far from the centre each lies on the stitched edge."""
    hip: float
    side_in: float
    intake: float

    @property
    def drawn(self) -> float:
        """Length of the waist with its darts open."""
        return self.stitched + self.intake * len(self.marks)


def seam_halves(host: Host, seam: float | None) -> tuple[float, float]:
    """Front and back of the half edge the lower part is cut to: the bodice's, or a given whole seam shared as it."""
    half = (host.half + host.ease / 2) if seam is None else seam / 2
    return half * host.front / host.half, half * host.back / host.half


def quarters(host: Host, seam: float | None, hips: tuple[float, float], side_in: float) -> tuple[Quarter, Quarter]:
    """Front and back quarters between the bodice's edge and the hip: side seams first, the rest into darts.

    ``hips`` are the widths at the hip, ``side_in`` what the side seams may take. Both sides take the same, so that
    they walk.
    """
    stitched = seam_halves(host, seam)
    taken = min(side_in, hips[0] - stitched[0], hips[1] - stitched[1])
    made = []
    for is_front, length, hip in zip((True, False), stitched, hips, strict=True):
        half = Half.of(is_front)
        whole = host.front if is_front else host.back
        scale = length / whole if whole else 1.0
        marks = [(name, from_centre * scale) for name, from_centre in host.shaping(half)]
        marks = sorted(marks, key=lambda mark: mark[1]) or [(Sign.shaped(half, "skirt dart"), length / 2)]
        rest = hip - taken - length
        if rest / len(marks) > WIDEST_DART:
            marks.append((Sign.shaped(half, "second dart"), (marks[-1][1] + length) / 2))
        each = rest / len(marks)
        if rest < SMALLEST_SURPLUS:
            each, here = 0.0, taken + rest
        else:
            here = taken
        made.append(Quarter(is_front, length, tuple(marks) if each else (), hip, here, each))
    return made[0], made[1]


def dart_findings(parts: Sequence[Quarter]) -> list[Finding]:
    """Darts wider than a dart can be."""
    return [
        warn(
            "dart-too-wide",
            "Each dart of the {where} would take {intake}; up to {most} lies well. Let the side seams take "
            "more, or add "
            "a dart to the bodice.",
            *in_recipe("lower.side_in"),
            where="front" if part.is_front else "back",
            intake=part.intake,
            most=WIDEST_DART,
        )
        for part in parts
        if part.intake > WIDEST_DART
    ]


def waist_line(part: Quarter, hip_depth: float) -> tuple[Path, tuple[Dart, ...]]:
    """The waist from the side to the centre along the level 0, and its darts pointing down."""
    darts = []
    width = part.drawn
    for k, (name, at) in enumerate(part.marks):
        x = at + part.intake * k
        depth = min(FRONT_DEPTH if part.is_front else BACK_DEPTH, 0.8 * hip_depth)
        apex = Point(x + part.intake / 2, -depth)
        darts.append(Dart("waist", width - x - part.intake, part.intake, apex, name))
    return Path.of(Line(Point(width, 0), Point(0, 0))), tuple(darts)


def shaped_side(part: Quarter, hip_depth: float, length: float, hem_width: float) -> Path:
    """The side from the waist down: curved to the hip, then straight to the hem's width."""
    top, hip = Point(part.drawn, 0), Point(part.hip, -hip_depth)
    if hip_depth < 15:
        return Path.of(Line(top, Point(hem_width, -length)))
    curve = Cubic(top, top + Point((hip.x - top.x) * 0.35, -hip_depth * 0.3), hip + Point(0, hip_depth * 0.4), hip)
    if length <= hip_depth + 1:
        path = Path.of(curve)
        met = path.crossings(Path.through(Point(-500, -length), Point(3000, -length)))
        return path.between(0.0, met[0][0]) if met and met[0][0] > 1 else path
    return Path.of(curve, Line(hip, Point(hem_width, -length)))


def panel(
    what: What,
    host: Host,
    *,
    waist: Path,
    side: Path,
    hem: Path,
    darts: tuple[Dart, ...] = (),
    hem_allowance: float,
    centre: Path | None = None,
    notches: tuple[Notch, ...] = (),
    folded: bool | None = None,
) -> Piece:
    """A front or back panel from its lines: ``waist`` from side to centre, ``side`` from the waist down, ``hem`` from
    centre to side. The back is turned over to lie with its centre on the right.
    """
    allowances: Allowances = host.allowances
    is_front = what.half is Half.FRONT
    zip_at = host.opening.place
    role = Role.CENTRE_FRONT if is_front else Role.CENTRE_BACK
    opens = (not is_front) and zip_at is OpeningPlace.CENTRE_BACK
    fold = not opens if folded is None else folded
    line = centre or Path.through(waist.end, hem.start)
    edges = (
        Edge(str(role), role, line, 0.0 if fold else allowances.of(role) if opens else allowances.panel, turned=opens),
        Edge("hem", Role.HEM, hem, hem_allowance, turned=True),
        Edge("side", Role.SIDE, side.reversed(), allowances.side, turned=zip_at is OpeningPlace.SIDE),
        Edge("waist", Role.WAIST, waist, allowances.waist),
    )
    marks = [*notches, Notch("side", side.length / 2, double=not is_front)]
    if opens and 0 < host.zip_ends < line.length:
        marks.append(zip_end(str(role), host.zip_ends))
    if zip_at is OpeningPlace.SIDE and 0 < host.zip_ends < side.length:
        marks.append(zip_end("side", side.length - host.zip_ends))
    top, low = line.start, line.end
    inset = Point(min(25.0, hem.length * 0.2), 0)
    piece = Piece(
        what, edges, cut=1 if fold else 2, on_fold=fold, darts=darts, notches=tuple(marks),
        grain=(top.towards(low, 0.3) + inset, top.towards(low, 0.7) + inset),
    )  # fmt: skip
    return piece if is_front else mirrored(piece)


def zip_end(edge: str, at: float) -> Notch:
    """Where the zip ends on an edge, ``at`` mm along its path."""
    return Notch(edge, at, Sign("zip end"), kind=NotchKind.ZIP_END)


def under_marks(host: Host, part: Quarter, waist: Path, darts: tuple[Dart, ...]) -> tuple[Notch, ...]:
    """A notch under every dart of the bodice that the panel has no dart of its own for."""
    whole = host.front if part.is_front else host.back
    have = {dart.landmark for dart in darts}
    made = []
    for name, from_centre in host.shaping(Half.of(part.is_front)):
        if name in have or not whole:
            continue
        at = waist.length - from_centre * part.stitched / whole
        if 1 < at < waist.length - 1:
            made.append(under(name, at, double=not part.is_front))
    return tuple(made)


def under(name: Sign, at: float, edge: str = "waist", *, double: bool) -> Notch:
    """A notch on the waist under a dart or seam of the edge above."""
    return Notch(edge, at, name, double, NotchKind.UNDER)


def two_panels(
    pieces: tuple[Piece, Piece], host: Host, seam: float | None, findings: Sequence[Finding] = (), *,
    fullness: float = 1.0, manner: Manner = Manner.FLAT, why: Worked | None = None,
) -> LowerMade:  # fmt: skip
    """Front and back as a lower part: the side seam, the waist edge and the hem from CF to CB.

    ``why`` says how long its whole waist is cut.
    """
    front, back = pieces
    called = front.what.section.value
    waist = Run(tuple(Stretch(p.what, "waist", backwards=True) for p in pieces), WAIST_CORNERS, called, why)
    return LowerMade(
        pieces, (seam_of("{section} side seam", (front.what, "side"), (back.what, "side")), *centre_seams(pieces)),
        waist, hem_of(pieces), pin={"lower.seam": 2 * sum(seam_halves(host, seam))}, findings=tuple(findings),
        fullness=fullness, manner=manner,
    )  # fmt: skip


def hem_of(pieces: Sequence[Piece], edge: str = "hem") -> Run:
    """The hem of a front and back, from CF to CB."""
    return Run(tuple(Stretch(piece.what, edge) for piece in pieces), WAIST_CORNERS, "hem")


@dataclass(frozen=True, slots=True)
class Hips:
    """The hip of a figure as a lower part needs it: girth with ease in quarters, and its depth below the seam."""

    front: float
    back: float
    depth: float
    girth: float


def hips_of(host: Host, ease: float, shift: float, notes: Workings) -> tuple[Hips, list[Finding]]:
    """Front and back hip widths: a quarter of the hip with ease, less and plus ``shift`` (trade 4.3).

    Measures that were not taken are estimated, and said so.
    """
    measures = Measures(host.figure, notes)
    hip, drop = measures.take("hip_girth"), measures.take("waist_to_hip")
    quarter = notes.work("hip quarter", (hip + ease) / 4, "({hip} + {ease}) ÷ 4", hip=hip, ease=ease)
    depth = max(drop - host.level, 0.0)
    found = list(measures.findings)
    if ease < LEAST_HIP_EASE - 1e-9:
        found.append(
            warn(
                "too-close-to-sit",
                "A hip ease of {ease} is less than {least}: in woven cloth it cannot be sat down in.",
                *in_recipe("lower.hip_ease"),
                ease=ease,
                least=LEAST_HIP_EASE,
            )
        )
    return Hips(float(quarter) - shift, float(quarter) + shift, depth, hip), found


def too_short(length: float, hem: float, allowances: Allowances) -> list[Finding]:
    """No lower part is left between its allowances."""
    deepest = max(hem, allowances.waist)
    if length > deepest:
        return []
    return [
        stop(
            "length-shorter-than-allowance",
            "The skirt is {length} long and its deepest allowance is {allowance}; there is no skirt left between them.",
            *in_recipe("lower.length", "lower.hem"),
            length=length,
            allowance=deepest,
        )
    ]


def level_hem(width: float, length: float) -> Path:
    """A straight hem from the centre to the side."""
    return Path.of(Line(Point(0, -length), Point(width, -length)))
