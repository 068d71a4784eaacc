"""A-line skirts (trade 5): flare added at the seams, or a dart closed to open the hem.

by flare                              by closing a dart
│    hip ╲                            waist ─╲╱─        closing w at d below the waist opens the hem
│         ╲  √(L² + f²)                      │          by about w·(L − d)/d at the cut
│          ╲                                 Λ
└── hem ────╯ raised so that no edge is longer than the straight one
"""

from math import atan2, cos, hypot, sin
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cutting.pivot import pivot
from gentle_hem.core.cutting.spread import smoothed
from gentle_hem.core.findings import Finding, note
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.lower.panel import (
    Hips,
    Quarter,
    dart_findings,
    hips_of,
    panel,
    quarters,
    too_short,
    two_panels,
    under_marks,
    waist_line,
)
from gentle_hem.core.lower.straight import SHAPED_SENTENCE, SHAPED_WORDS, ShapedSkirt
from gentle_hem.core.parts import Host, LowerMade, between
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.units import Length
from gentle_hem.core.what import SKIRT_BACK, SKIRT_FRONT
from gentle_hem.core.workings import Worked, Workings


def flare_raise(length: float, flare: float, notes: Workings) -> Worked:
    """How much a hem is raised at a seam that leans out by ``flare``: √(L² + f²) − L (trade 5)."""
    return notes.work(
        "hem raise", hypot(length, flare) - length, "√({length}² + {flare}²) − {length}",
        rule="the slanted edge is no longer than the straight one", length=length, flare=flare,
    )  # fmt: skip


class ALineSkirt(ShapedSkirt):
    """An A-line skirt, 62 cm finished, flared 8 cm at each seam from the hip."""

    title: ClassVar[str] = "A-line skirt"
    sentences: ClassVar[tuple[str, ...]] = (
        "An A-line skirt, {length} finished, sewn to {seam}, flared {flare} at each side from the {start}, {by}, hem "
        "{hem}.",
        SHAPED_SENTENCE,
    )
    words: ClassVar[dict[str, Word]] = {
        **SHAPED_WORDS,
        "flare": length("flare at each side of the hem"),
        "start": choice("where the flare begins", ("hip", "hip"), ("waist", "waist")),
        "by": choice(
            "how it is flared", ("flare", "its darts stitched"), ("dart", "its darts closed to open the hem")
        ),
    }  # fmt: skip

    kind: Literal["a_line"] = "a_line"
    flare: Annotated[Length, between(0, 400)] = Field(80.0, description="Added at each side seam's hem.")
    start: Literal["hip", "waist"] = "hip"
    by: Literal["flare", "dart"] = "flare"

    def make_up(self, host: Host, notes: Workings) -> LowerMade:
        notes = notes.about("skirt")
        hips, findings = hips_of(host, self.hip_ease, self.hip_shift, notes)
        parts = quarters(host, self.seam, (hips.front, hips.back), self.side_in)
        from_hip = self.start == "hip" and self.length > hips.depth + 20 and hips.depth > 15
        below = self.length - hips.depth if from_hip else self.length
        flare_raise(below, self.flare, notes)
        pieces = [self._panel(host, part, hips, from_hip, notes, findings) for part in parts]
        made = two_panels((pieces[0], pieces[1]), host, self.seam, findings)
        checks = dart_findings(parts) if self.by == "flare" else []
        return made.also([*checks, *too_short(self.length, self.hem, host.allowances)])

    def _panel(
        self, host: Host, part: Quarter, hips: Hips, from_hip: bool, notes: Workings, findings: list[Finding]
    ) -> Piece:
        waist, darts = waist_line(part, max(hips.depth, 60.0))
        side, hem = flared(part, hips.depth, self.length, self.flare, from_hip)
        piece = panel(
            SKIRT_FRONT if part.is_front else SKIRT_BACK, host, waist=waist, side=side, hem=hem, darts=darts,
            hem_allowance=self.hem, notches=under_marks(host, part, waist, darts),
        )  # fmt: skip
        if self.by == "flare" or not darts:
            return piece
        return _darts_closed(piece, notes, findings)


LEVEL_FOR, SQUARE_FOR = 0.19, 0.12
"""How far the hem runs level from the centre, and how soon it turns square to the side, as shares of its width: chosen
so that it strays less than 3 mm from where the cloth fans out to."""


def flared(part: Quarter, hip_depth: float, long: float, flare: float, from_hip: bool) -> tuple[Path, Path]:
    """The side from the waist down, leaning out by ``flare`` at the hem, and the hem square to both its ends.

    The slanted stretch is as long as the straight one would be, so the hem rises toward the seam; at the centre the
    skirt is as long as asked, and between them the hem follows the cloth as it fans out.
    """
    top = Point(part.drawn, 0)
    if from_hip:
        start = Point(part.hip, -hip_depth)
        lean = atan2(flare, long - hip_depth)
        toward = Point(flare, -(long - hip_depth)).unit
        curve = Cubic(
            top, top + Point((start.x - top.x) * 0.35, -hip_depth * 0.3), start - toward * (hip_depth * 0.4), start
        )
        straight = long - hip_depth
        upper: tuple[Cubic, ...] = (curve,)
    else:
        start, straight, upper = top, long, ()
        lean = atan2(flare, long)
        toward = Point(flare, -long).unit
    foot = start + toward * straight
    side = Path((*upper, Line(start, foot)))
    if lean < 1e-4:
        return side, Path.of(Line(Point(0, foot.y), foot))
    low = Point(0, -long)
    across, square = low.distance(foot), Point(cos(lean), sin(lean))
    return side, Path.of(Cubic(low, low + Point(LEVEL_FOR * across, 0), foot - square * (SQUARE_FOR * across), foot))


def _darts_closed(piece: Piece, notes: Workings, findings: list[Finding]) -> Piece:
    """Each dart turned into the hem and smoothed away: closing it opens the hem."""
    opened = 0.0
    for name in [dart.landmark for dart in piece.darts_of("waist")]:
        dart = next(d for d in piece.darts_of("waist") if d.landmark == name)
        near, far = piece.dart_legs(dart)
        middle = near.towards(far, 0.5)
        hem = piece.edge("hem").path
        down = Path.through(dart.apex, dart.apex + (dart.apex - middle).unit * 3000)
        met = hem.crossings(down)
        if not met:
            findings.append(note("dart-stays", "The {name} does not reach the hem and stays stitched.", name=name))
            continue
        moved = pivot(piece, dart, "hem", met[0][0], dart.apex, name)
        mouth = next(d for d in moved.darts if d.edge == "hem")
        opened += mouth.intake
        piece = replace(moved, darts=tuple(d for d in moved.darts if d is not mouth))
        piece = _rounded_hem(piece)
    piece = smoothed(piece, "waist", 5)
    notes.work(
        "hem opened by closing the darts",
        opened,
        "each dart × (length − its depth) ÷ its depth",
        rule="pivoted about the dart's point",
    )
    return piece


def _rounded_hem(piece: Piece) -> Piece:
    """The hem redrawn as one curve, square to the centre and to the side."""
    edges = {edge.role: edge for edge in piece.edges}
    hem = edges[Role.HEM]
    index = piece.edges.index(hem)
    before, after = piece.edges[index - 1], piece.edges[(index + 1) % len(piece.edges)]
    start, end = hem.path.start, hem.path.end
    leave, arrive = before.path.arriving.left, -after.path.leaving.left
    third = start.distance(end) * 0.36
    curve = Path.of(Cubic(start, start + leave * third, end - arrive * third, end))
    return replace(piece, edges=tuple(replace(e, path=curve) if e is hem else e for e in piece.edges))
