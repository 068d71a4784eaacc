"""A flare's sector as a piece, whatever its hem: level, high and low, square (trade 7.1, 7.4).

centre ·
       │╲ r        inner edge: an arc of radius r, the seam
       │  ╲___
       │  side ╲   outer edge: given, from the centre line to the side
       ╰─ hem ──╯
"""

from math import pi

from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.geometry import ORIGIN, Arc, Line, Path, Point
from gentle_hem.core.lower.flare import room_beside
from gentle_hem.core.lower.panel import under, zip_end
from gentle_hem.core.parts import Host, OpeningPlace
from gentle_hem.core.pattern import Edge, Notch, Piece, Role
from gentle_hem.core.what import Half, What


def sector_piece(
    what: What, host: Host, radius: float, angle: float, hem: Path, hem_allowance: float, folded: bool,
    inner: Path | None = None,
) -> Piece:  # fmt: skip
    """A front or back sector. Its centre hangs straight down from the flare's centre at the origin; ``hem`` runs from
    the centre line to the side line, ``inner`` from the side to the centre where it is no arc. A back is turned over.
    """
    allowances, place, is_front = host.allowances, host.opening.place, what.half is Half.FRONT
    role = Role.CENTRE_FRONT if is_front else Role.CENTRE_BACK
    opens = not folded and place is (OpeningPlace.CENTRE_FRONT if is_front else OpeningPlace.CENTRE_BACK)
    whole = 2 * angle if folded else angle
    waist_allowance = min(allowances.waist, radius * 0.5)
    room = room_beside(whole, radius - waist_allowance)
    at_side = allowances.side if allowances.side <= room else 0.0
    at_centre = 0.0 if folded else allowances.zip if opens else allowances.panel
    waist = inner or Path.of(Arc(ORIGIN, radius, -pi / 2 + angle, -angle))
    edges = (
        Edge(
            str(role),
            role,
            Path.of(Line(waist.end, hem.start)),
            min(at_centre, max(room, 0.0)) if not folded else 0.0,
            turned=opens,
        ),
        Edge("hem", Role.HEM, hem, hem_allowance, turned=True),
        Edge(
            "side",
            Role.SIDE,
            Path.of(Line(hem.end, waist.start)),
            at_side,
            turned=place is OpeningPlace.SIDE,
        ),
        Edge("waist", Role.WAIST, waist, waist_allowance, pointed=inner is not None),
    )
    marks = [Notch("side", edges[2].drawn_length / 2, double=not is_front), *_under(host, is_front, waist)]
    if opens and 0 < host.zip_ends < edges[0].drawn_length:
        marks.append(zip_end(str(role), host.zip_ends))
    if place is OpeningPlace.SIDE and 0 < host.zip_ends < edges[2].drawn_length:
        marks.append(zip_end("side", edges[2].drawn_length - host.zip_ends))
    drop = edges[0].drawn_length
    inset = min(25.0, 0.3 * radius * min(angle, 1.0) + 4)
    piece = Piece(
        what, edges, cut=1 if folded else 2, on_fold=folded, notches=tuple(marks),
        grain=(waist.end + Point(inset, -0.3 * drop), waist.end + Point(inset, -0.7 * drop)),
    )  # fmt: skip
    return piece if is_front else mirrored(piece)


def _under(host: Host, is_front: bool, waist: Path) -> list[Notch]:
    """Notches under the bodice's darts, in proportion along the arc, which runs from the side to the centre."""
    whole = host.front if is_front else host.back
    made = []
    for name, at in host.shaping(Half.of(is_front)):
        from_centre = at / whole * waist.length if whole else 0.0
        if 1 < from_centre < waist.length - 1:
            made.append(under(name, waist.length - from_centre, double=not is_front))
    return made


def level_arc(radius: float, angle: float) -> Path:
    """A level hem: the outer arc from the centre line to the side."""
    return Path.of(Arc(ORIGIN, radius, -pi / 2, angle))
