"""Facings of a neck edge and of a bare top, cut from the styled piece and sewn to it (trade 4.6, 11)."""

from __future__ import annotations

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.cutting.split import Mouth, split, upright_grain
from gentle_hem.core.geometry import Path
from gentle_hem.core.geometry.parallel import parallel
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.geometry.segment import Line
from gentle_hem.core.pattern import Edge, Finished, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import seam_of, seam_of_layers
from gentle_hem.core.style.styling import Styling
from gentle_hem.core.walk import SEAM_TOLERANCE
from gentle_hem.core.what import Half, Layer, Panel, What

ENDS = (Role.SIDE, Role.ARMHOLE, Role.SHOULDER)
"""Edges the end of a top facing may lie on; at a centre it goes on or is a pair."""


def neck_facings(table: Styling, wide: float) -> None:
    """The facings of the neck, front and back, ``wide`` mm, sewn to it and to each other at the shoulder."""
    made = []
    for what in (table.front, table.back):
        piece = table.pieces[what]
        facing = _neck_facing(piece, wide) if what.half is Half.FRONT else _back_facing(piece, wide)
        if facing is None:
            raise CannotMake(f"no even facing fits the {what.name}: a dart or the edge of the piece is in its way")
        table.put(facing)
        made.append(facing.what)
        table.seams.append(seam_of_layers(f"{facing.name} seam", (what, "neckline"), (facing.what, "neckline")))
    table.seams.append(seam_of("facing shoulder seam", (made[0], "shoulder"), (made[1], "shoulder")))


def top_facings(table: Styling, wide: float) -> None:
    """Facings of a bare top, ``wide`` mm: the band under its edge, cut from the styled piece."""
    made: list[What] = []
    for what in (table.front, table.back):
        piece, is_front = table.pieces[what], what.half is Half.FRONT
        facing = _top_band(piece if is_front else mirrored(piece), wide)
        table.put(facing if is_front else mirrored(facing))
        edge = "top edge" if any(e.name == "top edge" for e in piece.edges) else "neckline"
        table.seams.append(seam_of_layers(f"{facing.name} seam", (what, edge), (facing.what, edge)))
        made.append(facing.what)
    _join(table, made)


def _join(table: Styling, facings: list[What]) -> None:
    """The ends of top facings sewn to each other where they match; an end that meets none is turned under."""
    for role in ENDS:
        ends = [(what, e.name) for what in facings for e in table.pieces[what].edges if e.role is role]
        lengths = [table.pieces[what].stitched_length(name) for what, name in ends]
        if len(ends) == 2 and ends[0][0] != ends[1][0] and abs(lengths[0] - lengths[1]) <= SEAM_TOLERANCE:
            table.seams.append(seam_of(f"top facing {role} seam", ends[0], ends[1]))
            continue
        for what, name in ends:
            table.put(table.pieces[what].with_edge(name, finished=Finished.TURNED))


def _neck_facing(piece: Piece, wide: float) -> Piece | None:
    """The facing of a half's neckline, cut from the styled edge; None where no even band fits.

    Its neck edge is the bodice's own. Every facing is as wide along the shoulder, whatever the neckline's slant,
    so that the ends of front and back match.
    """
    shoulder, neck, centre = piece.edge("shoulder"), piece.edge("neckline"), piece.edges[-1]
    inner = parallel(neck.path, wide)
    reach = 8 * wide  # a steep V meets the centre far below its own end
    start = Path.of(Line(inner.start - inner.leaving * reach, inner.start))
    end = Path.of(Line(inner.end, inner.end + inner.arriving * reach))
    band = start.then(inner).then(end)
    on_shoulder, on_centre = band.crossings(shoulder.path), band.crossings(centre.path)
    if not on_shoulder or not on_centre:
        return None
    at, along_shoulder = on_shoulder[-1]
    to, along_centre = on_centre[0]
    darts_end = max((dart.at + dart.intake for dart in piece.darts_of("shoulder")), default=0.0)
    from_neck = shoulder.drawn_length - wide
    if to <= at or min(along_shoulder, from_neck) <= darts_end or piece.darts_of("neckline"):
        return None
    inside = band.between(at, to)
    moved = abs(from_neck - along_shoulder)
    if moved > 1e-6:
        run = min(max(2.5 * moved, 15.0), inside.length / 2)
        blend = smooth_through([shoulder.path.point_at(from_neck), inside.point_at(run)], arrive=inside.tangent_at(run))
        inside = blend.then(inside.between(run, inside.length))
    edges = (
        replace(shoulder, path=shoulder.path.between(from_neck, shoulder.drawn_length)),
        neck,
        replace(centre, path=centre.path.between(0.0, along_centre)),
        Edge("inner edge", Role.PANEL, inside.reversed(), 0.0),
    )
    made = replace(
        piece, what=piece.what.as_layer(Layer.FACING).as_panel(Panel.NECK), edges=edges, darts=(), notches=(),
        marks=(), bust_point=None,
    )  # fmt: skip
    return replace(made, grain=upright_grain(made, 0.1))


def _back_facing(piece: Piece, wide: float) -> Piece | None:
    facing = _neck_facing(mirrored(piece), wide)
    return mirrored(facing) if facing else None


def _top_band(piece: Piece, wide: float) -> Piece:
    """The upper band of a bare top, ``wide`` mm deep, as its facing. Raises CannotMake when a dart is in it."""
    edge = piece.edge("top edge" if any(e.name == "top edge" for e in piece.edges) else "neckline")
    inner = parallel(edge.path, wide)
    reach = 8 * wide
    run = Path.joined(
        [
            Path.through(inner.start - inner.leaving * reach, inner.start),
            inner,
            Path.through(inner.end, inner.end + inner.arriving * reach),
        ]
    )
    met = []
    for side in piece.edges:
        if side is not edge and side.role in (*ENDS, Role.CENTRE_FRONT, Role.CENTRE_BACK):
            met += [(along, side.name, at) for along, at in run.crossings(side.path)]
    if len(met) < 2:
        raise CannotMake("the piece is too narrow for an even facing")
    met.sort()
    middle = reach + inner.length / 2
    (a, first, first_at) = max((m for m in met if m[0] < middle), default=met[0])
    (b, last, last_at) = min((m for m in met if m[0] > middle), default=met[-1])
    line = run.between(a, b)
    made = split(
        piece, Mouth.place(first, first_at), Mouth.place(last, last_at), earlier_line=line.reversed(), later_line=line,
        parts=(piece.what.as_panel(Panel.TOP), piece.what), edge_name="inner edge", role=Role.PANEL, allowance=0.0,
    ).earlier  # fmt: skip
    if made.darts or any(dart.apex.y > line.box[1] for dart in piece.darts):
        raise CannotMake("a dart runs through it")
    centre = next((i for i, e in enumerate(made.edges) if e.role.is_centre), None)
    if centre is not None:
        made = replace(made, edges=made.edges[centre + 1 :] + made.edges[: centre + 1])
    # the armhole's own notches are the bodice's; a facing's lie where its band cuts them off
    return replace(made, bust_point=None, notches=(), marks=(), what=made.what.as_layer(Layer.FACING))
