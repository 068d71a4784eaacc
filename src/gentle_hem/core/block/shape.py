"""The bodice as pattern pieces: what every school ends in.

C ___ N___
│  ╰─╯    ╲ T          C centre neck   N shoulder at the neck   T shoulder tip
│          )           U underarm      W waist at the side      O centre waist
│         ╱
│        ╰── U
│   ╱╲      │
O──╱──╲─────W
"""

from __future__ import annotations

from dataclasses import dataclass

from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.drafting import Step, WaistWithDart
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.parts import Allowances, BodiceMade, Opening, OpeningPlace, bodice_edge
from gentle_hem.core.pattern import Dart, Edge, Notch, Piece, Role
from gentle_hem.core.seams import Seam, seam_of
from gentle_hem.core.what import BACK_DART, BODICE_BACK, BODICE_FRONT, FRONT_DART, Half, What
from gentle_hem.core.workings import Worked


@dataclass(frozen=True)
class BodiceHalf:
    """A drafted front or back, its centre on the left. Paths run anticlockwise round the outline."""

    waist: WaistWithDart
    side: Path
    armhole: Path
    shoulder: Path
    neckline: Path
    side_dart: Dart | None = None
    shoulder_dart: Dart | None = None
    bust_point: Point | None = None

    def piece(self, what: What, allowances: Allowances, zip_at_centre: bool) -> Piece:
        """The pattern piece; a back lies with its centre on the right, as it is worn beside the front."""
        is_front = what.half is Half.FRONT
        centre_role = Role.CENTRE_FRONT if is_front else Role.CENTRE_BACK
        centre = Path.through(self.neckline.end, self.waist.path.start)
        folded = not zip_at_centre
        edges = [
            Edge("waist", Role.WAIST, self.waist.path, allowances.waist),
            Edge("side", Role.SIDE, self.side, allowances.side),
            Edge("armhole", Role.ARMHOLE, self.armhole, allowances.armhole),
            Edge("shoulder", Role.SHOULDER, self.shoulder, allowances.shoulder),
            Edge("neckline", Role.NECKLINE, self.neckline, allowances.neck),
            Edge(str(centre_role), centre_role, centre, 0.0 if folded else allowances.zip, turned=zip_at_centre),
        ]
        darts = [dart for dart in (self.side_dart, self.shoulder_dart) if dart]
        if self.waist.intake:
            landmark = FRONT_DART if is_front else BACK_DART
            darts.insert(0, Dart("waist", self.waist.dart_at, self.waist.intake, self.waist.apex, landmark))
        height = centre.length
        low = self.waist.path.start.y
        grain = (Point(18, low + 0.25 * height), Point(18, low + 0.75 * height))
        piece = Piece(
            what,
            tuple(edges),
            cut=1 if folded else 2,
            on_fold=folded,
            darts=tuple(darts),
            notches=(Notch("armhole", self.armhole.length * 0.4, double=not is_front),),
            grain=grain,
            bust_point=self.bust_point,
        )
        return piece if is_front else mirrored(piece)


def bodice_made(
    halves: tuple[BodiceHalf, BodiceHalf],
    allowances: Allowances,
    opening: Opening,
    waist: Worked,
    steps: tuple[Step, ...],
) -> BodiceMade:
    """Front and back as pieces, with the seams between them and the waist edge for the join.

    ``waist`` is the whole waist's working.
    """
    zip_at_back = opening.place is OpeningPlace.CENTRE_BACK
    pieces = (
        halves[0].piece(BODICE_FRONT, allowances, zip_at_centre=False),
        halves[1].piece(BODICE_BACK, allowances, zip_at_centre=zip_at_back),
    )
    return BodiceMade(pieces, block_seams(pieces), bodice_edge(waist), draft=steps)


def block_seams(pieces: tuple[Piece, Piece]) -> tuple[Seam, ...]:
    """The side and shoulder seams of a front and back that have them."""
    front, back = pieces
    seams = [
        seam_of(f"{{section}} {name} seam", (front.what, name), (back.what, name))
        for name in ("side", "shoulder")
        if all(any(edge.name == name for edge in piece.edges) for piece in pieces)
    ]
    return tuple(seams)
