"""What is neither the upper part nor hung from an edge: sleeves, collars, straps, trousers."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from gentle_hem.core.dressed.dressing import Dressing
from gentle_hem.core.dressed.form import half_depth, half_width
from gentle_hem.core.dressed.inks import Drawn, Ink
from gentle_hem.core.dressed.slices import Numbers
from gentle_hem.core.dressed.upper import HalfUpper, followed, spans
from gentle_hem.core.dressed.views import Seen, Spot, project
from gentle_hem.core.pattern import Finished, NotchKind, Piece, Role
from gentle_hem.core.what import Half, Panel, Section

SPREAD_CAP = 1.15
"""A cap so many times as long as its armhole is gathered into it, and stands up."""

STEPS = 12

RUNS_OUT = 160.0
"""How far below the fork the seat's round runs out into the legs (mm)."""


def tube(girth: float) -> float:
    """Half as wide as a tube of a girth looks."""
    return girth / (2 * np.pi) * 1.06


# sleeves


def sleeves(dress: Dressing, seen: Seen, armholes: dict[int, list[Spot]]) -> Iterator[Ink]:
    """Sleeves hanging with the arms; ``armholes`` as they are seen on either side, from the shoulder tip down."""
    piece = next((p for w, p in dress.pieces.items() if w.is_outer(Section.SLEEVE) and w.panel is Panel.WHOLE), None)
    if piece is None:
        return
    outline = followed(piece.seam_line)
    top, foot = outline[:, 1].max(), outline[:, 1].min()
    underarm = max(y for e in piece.edges if e.role is Role.UNDERARM for y in (e.path.start.y, e.path.end.y))
    cap, long = top - underarm, top - foot
    down = np.linspace(0.0, long, STEPS + 1)
    low, high = spans(outline, np.clip(top - down, foot + 0.5, top - 0.5))
    wide = np.array([tube(g) for g in np.nan_to_num(high - low)])
    wide = np.where(down < cap, np.maximum(wide, tube(np.interp(cap, down, high - low)) * 0.55), wide)
    hem = next((e for e in piece.edges if e.role is Role.HEM), None)
    if hem is not None and hem.finished is Finished.FOLDED:
        arm = float(np.interp(long, (0.0, dress.form.arm), dress.form.arm_girths))
        wide[-1] = tube(arm * 1.04)
        wide[-2] = (wide[-2] + wide[-1]) / 2 * 1.05
    full = max((w.length_b / w.length_a for w in dress.walked if piece.what in w.seam.b.pieces), default=1.0)
    for sign, armhole in armholes.items():
        if len(armhole) < 2:
            continue
        yield from _sleeve(dress, seen, sign, armhole, down, wide, cap, full, piece)


def _sleeve(
    dress: Dressing, seen: Seen, sign: int, armhole: Sequence[Spot], down: Numbers, wide: Numbers, cap: float,
    full: float, piece: Piece,
) -> Iterator[Ink]:  # fmt: skip
    tip, under = np.array(armhole[0]), np.array(armhole[-1])
    (x, z), (wrist_x, wrist_z) = dress.form.arm_line()
    if seen is Seen.SIDE:
        along = np.array([-0.06, -1.0])
        start = np.array([float(np.mean([a for a, _ in armhole])), tip[1]])
    else:
        out = sign if seen is Seen.FRONT else -sign
        along = np.array([out * (wrist_x - x), wrist_z - z])
        start = np.array([(tip[0] * 2 + under[0]) / 3, tip[1]])
    along = along / np.hypot(*along)
    across = np.array([-along[1], along[0]])
    if seen is not Seen.SIDE and across[0] * (1 if start[0] > 0 else -1) < 0:
        across = -across
    middle = start[None, :] + along[None, :] * down[:, None]
    outer = middle + across[None, :] * wide[:, None]
    inner = middle - across[None, :] * wide[:, None]
    stand = 0.12 * (full - 1) * cap if full > SPREAD_CAP else 0.0
    keep = down > cap * 0.35
    outer_line = [(float(tip[0]), float(tip[1] + stand * 0.4)), *_spots(outer[keep] + np.array([0.0, stand]))]
    below = down > cap * 1.02
    if seen is Seen.SIDE:
        inner_line = [*reversed(_spots(inner[keep] + np.array([0.0, stand])))]
    else:
        inner_line = [*reversed(_spots(inner[below])), *reversed(armhole)]
    yield Ink(Drawn.CLOTH, (*outer_line, *inner_line), closed=True, piece=piece.name)
    yield Ink(Drawn.HEM, tuple(_spots(np.array([outer[-1], inner[-1]]))), piece=piece.name, edge="hem")
    if full > SPREAD_CAP:
        for share in (-0.5, -0.15, 0.2, 0.55):
            root = tip * (1 - abs(share) * 0.5) + under * abs(share) * 0.25 + start * abs(share) * 0.25
            end = middle[STEPS // 3] + across * wide[STEPS // 3] * share
            yield Ink(Drawn.FOLD, ((float(end[0]), float(end[1])), (float(root[0]), float(root[1]))))


def _spots(points: Numbers) -> list[Spot]:
    return [(float(a), float(b)) for a, b in points]


# collars


def collar(dress: Dressing, neck: Sequence[Spot], drawn: Drawn) -> Iterator[Ink]:
    """A collar on a neck edge as that is seen."""
    piece = next((p for w, p in dress.pieces.items() if w.is_outer(Section.COLLAR)), None)
    if piece is None or len(neck) < 3:
        return
    box = piece.seam_line.box
    rolled = piece.what.panel is Panel.ROLL
    tall = (box[3] - box[1]) * (0.28 if rolled else 0.92)
    points = np.array(neck)
    middle = points[:, 0].mean()
    upper = np.column_stack(((points[:, 0] - middle) * 0.9 + middle, points[:, 1] + tall))
    yield Ink(drawn, (*_spots(points), *_spots(upper[::-1])), closed=True, piece=piece.name)


# straps


def straps(dress: Dressing, seen: Seen) -> Iterator[Ink]:
    """Straps from where they are notched in front, over the shoulders, to where they are notched behind."""
    piece = next((p for w, p in dress.pieces.items() if w.is_outer(Section.BODICE) and w.panel is Panel.STRAP), None)
    if piece is None or dress.surface is None:
        return
    wide = min(piece.seam_line.box[3] - piece.seam_line.box[1], piece.seam_line.box[2] - piece.seam_line.box[0]) / 2
    for sign, upper in dress.uppers.items():
        ends: dict[Half, tuple[Numbers, Numbers, Numbers]] = {}
        for half, flat in upper.halves.items():
            for there in flat.pieces.values():
                for notch in there.notches:
                    if notch.kind is NotchKind.STRAP and there.at_edge(notch.edge) is not None:
                        place = there.edge(notch.edge).path.point_at(notch.at)
                        spot = upper.put(half, there, np.array([(place.x, place.y)]))
                        ends[half] = dress.surface.place(sign, spot.row, spot.share)
        if len(ends) < 2:
            continue
        form = dress.form
        (fx, fy, fz), (bx, by, bz) = ends[Half.FRONT], ends[Half.BACK]
        neck = form.girths[-1] * half_width(np.array([0.95]))[0]
        top_x = float(np.clip(max(abs(fx[0]), abs(bx[0])), neck + 18, form.shoulder[0] - 15)) * sign
        share = (abs(top_x) - neck) / max(form.shoulder[0] - neck, 1.0)
        top_z = form.neck + (form.shoulder[1] - form.neck) * share + 8
        top_y = float(np.interp(top_z, form.heights, form.forward))
        legs = {Half.FRONT: (fx[0], fy[0], fz[0]), Half.BACK: (bx[0], by[0], bz[0])}
        for half, (x, y, z) in legs.items():
            if (seen is Seen.FRONT and half is Half.BACK) or (seen is Seen.BACK and half is Half.FRONT):
                continue
            if seen is Seen.SIDE and sign > 0:
                continue
            turn = np.linspace(0.0, 1.0, 9)
            rise = np.sin(turn * np.pi / 2)
            line = project(seen, x + (top_x - x) * turn, y + (top_y - y) * (1 - np.cos(turn * np.pi / 2)),
                           z + (top_z - z) * rise)  # fmt: skip
            points = np.column_stack(line)
            direction = np.gradient(points, axis=0)
            direction = direction / np.hypot(direction[:, 0], direction[:, 1])[:, None]
            sideways = np.column_stack((-direction[:, 1], direction[:, 0])) * wide / 2
            band = (*_spots(points + sideways), *_spots((points - sideways)[::-1]))
            yield Ink(Drawn.CLOTH, band, closed=True, piece=piece.name)


# trousers


def trousers(dress: Dressing, seen: Seen) -> Iterator[Ink]:
    """Trousers: round the body down to the crotch, then round either leg."""
    halves = {
        half: HalfUpper([p for w, p in dress.pieces.items() if w.is_outer(Section.TROUSERS) and w.half is half],
                        half, 0.0, None)
        for half in Half
        if any(w.is_outer(Section.TROUSERS) and w.half is half for w in dress.pieces)
    }  # fmt: skip
    if len(halves) < 2:
        return
    form, top = dress.form, dress.trousers_top()
    front = next(iter(halves[Half.FRONT].pieces.values()))
    fork = next(e for e in front.edges if e.role is Role.INSIDE_LEG)
    crotch = max(fork.path.start.y, fork.path.end.y)
    tops = {half: flat.waist for half, flat in halves.items()}
    deep = tops[Half.FRONT] - crotch
    foot = tops[Half.FRONT] - min(flat.levels[0] for flat in halves.values())
    above = np.linspace(1.0, deep, 10)
    girth = 2 * sum((flat.width(tops[half] - above) for half, flat in halves.items()), np.zeros(10))
    body, aspect, forward = form.at(top - above)
    girth = np.minimum(girth, body * 1.08)  # from the hip down what the fork adds lies between the legs
    down = np.linspace(deep + 5, foot - 0.5, 12)
    legs = np.zeros(12)
    for half, flat in halves.items():
        outline = followed(next(iter(flat.pieces.values())).seam_line)
        low, high = spans(outline, tops[half] - down)
        legs = legs + np.nan_to_num(high - low)
    name = front.name
    if seen is Seen.SIDE:
        seat, leg = girth * half_depth(aspect), legs / (2 * np.pi)
        run_out = np.exp(-(down - down[0]) / RUNS_OUT)  # the seat runs out into the leg
        half_deep = np.concatenate((seat, leg + (seat[-1] - leg[0]) * run_out))
        at = np.concatenate((above, down))
        middle = np.concatenate((-forward, np.linspace(-forward[-1], 4.0, 12)))
        left = list(zip((middle - half_deep).tolist(), (top - at).tolist(), strict=True))
        right = list(zip((middle + half_deep).tolist(), (top - at).tolist(), strict=True))
        yield Ink(Drawn.CLOTH, (*left, *reversed(right)), closed=True, piece=name)
        yield Ink(Drawn.SEAM, tuple(zip(middle.tolist(), (top - at).tolist(), strict=True)), piece=name, edge="side")
        yield Ink(Drawn.HEM, (left[-1], right[-1]), piece=name, edge="hem")
        return
    out = girth * half_width(aspect)
    wide = legs / (2 * np.pi)
    hang = np.maximum(form.leg_middle(top - down), wide + 3)
    lean = (float(out[-1]) - float(hang[0] + wide[0])) * np.exp(-(down - down[0]) / RUNS_OUT)
    outer = np.concatenate((np.column_stack((out, top - above)), np.column_stack((hang + wide + lean, top - down))))
    inner = np.column_stack((np.maximum(hang - wide, 2.0), top - down))
    drawn = [(0.0, float(outer[0, 1])), *_spots(outer), *_spots(inner[::-1]), (0.0, top - deep)]
    for side in (1, -1):
        yield Ink(Drawn.CLOTH, tuple((side * a, b) for a, b in drawn), closed=True, piece=name)
        hem = (_spots(outer)[-1], _spots(inner)[-1])
        yield Ink(Drawn.HEM, tuple((side * a, b) for a, b in hem), piece=name, edge="hem")
