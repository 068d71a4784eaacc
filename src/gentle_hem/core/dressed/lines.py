"""Every line on a surface, put there once for all views: seams, darts, zips, marks and the edges that bound it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from gentle_hem.core.dressed.hanging import ROWS, Hung, Patch
from gentle_hem.core.dressed.inks import Drawn
from gentle_hem.core.dressed.slices import Numbers
from gentle_hem.core.dressed.surface import Surface
from gentle_hem.core.dressed.upper import BESIDE_CENTRE, Upper, beyond_centre, followed, is_whole
from gentle_hem.core.geometry import Path
from gentle_hem.core.pattern import MarkKind, NotchKind, Piece, Role
from gentle_hem.core.what import Half, What

SEAMED = frozenset({Role.SIDE, Role.CENTRE_FRONT, Role.CENTRE_BACK, Role.PRINCESS, Role.PANEL, Role.YOKE})

BOUNDS = frozenset({Role.NECKLINE, Role.FREE, Role.SHOULDER, Role.ARMHOLE})


@dataclass(frozen=True, slots=True)
class Line:
    """One line: what it is, what it stands for, and from where to where its places are among all."""

    drawn: Drawn | None
    """None for an edge that only bounds the surface."""
    first: int
    last: int
    piece: str
    edge: str
    half: Half | None = None
    role: Role | None = None


@dataclass(frozen=True)
class Lines:
    """All lines of a surface on one side or both: their rows, columns and where they lie on her left."""

    lines: tuple[Line, ...]
    rows: Numbers
    shares: Numbers
    columns: Numbers
    x: Numbers
    y: Numbers
    z: Numbers
    signs: tuple[int, ...]


def put(surface: Surface, sign: int, signs: tuple[int, ...], drawn: Sequence[tuple[Line, Numbers, Numbers]]) -> Lines:
    """Lines with their rows and shares put on a surface."""
    if not drawn:
        none = np.zeros(0)
        return Lines((), none, none, none, none, none, none, signs)
    lines, start = [], 0
    for line, rows, _ in drawn:
        lines.append(Line(line.drawn, start, start + len(rows), line.piece, line.edge, line.half, line.role))
        start += len(rows)
    rows, shares = np.concatenate([one[1] for one in drawn]), np.concatenate([one[2] for one in drawn])
    x, y, z = surface.place(sign, rows, shares)
    return Lines(tuple(lines), rows, shares, surface.column(shares), np.abs(x), y, z, signs)


def upper_lines(
    surface: Surface, upper: Upper, sign: int, signs: tuple[int, ...], feet: set[tuple[What, str]], zipped: bool
) -> Lines:
    """The lines of the upper part of one side; ``zipped`` says whether it is opened down the centre back."""
    found = []
    for half, flat in upper.halves.items():
        for piece in flat.pieces.values():
            asked = list(_of_piece(half, piece, feet, zipped))
            points = [followed(path) for _, path in asked]
            if is_whole(piece):
                on_this = [one[one[:, 0] >= BESIDE_CENTRE] for one in points]
                asked = [one for one, there in zip(asked, on_this, strict=True) if len(there) > 1]
                points = [there for there in on_this if len(there) > 1]
            if not points:
                continue
            placed = upper.put(half, piece, np.concatenate(points))
            start = 0
            for (line, _), there in zip(asked, points, strict=True):
                end = start + len(there)
                found.append((line, placed.row[start:end], placed.share[start:end]))
                start = end
    return put(surface, sign, signs, found)


def _of_piece(half: Half, piece: Piece, feet: set[tuple[What, str]], zipped: bool) -> Iterator[tuple[Line, Path]]:
    def line(drawn: Drawn | None, edge: str, role: Role | None = None) -> Line:
        return Line(drawn, 0, 0, piece.name, edge, half, role)

    for edge in piece.edges:
        if edge.role in BOUNDS:
            if not (edge.role is Role.FREE and beyond_centre(edge)):
                yield line(None, edge.name, edge.role), edge.path
            continue
        if edge.role.is_centre and (piece.on_fold or beyond_centre(edge)):
            continue
        if edge.role in SEAMED or (edge.role is Role.WAIST and (piece.what, edge.name) not in feet):
            yield line(Drawn.SEAM, edge.name, edge.role), edge.path
            ends = [n.at for n in piece.notches if n.kind is NotchKind.ZIP_END and n.edge == edge.name]
            if ends:
                down = edge.path.start.y > edge.path.end.y
                part = edge.path.between(0, ends[0]) if down else edge.path.between(ends[0], edge.path.length)
                yield line(Drawn.ZIP, edge.name), part
            elif zipped and edge.role is Role.CENTRE_BACK:
                yield line(Drawn.ZIP, edge.name), edge.path
    for dart in piece.darts:
        near, _ = piece.dart_legs(dart)
        tip = near.towards(dart.apex, 0.7) if dart.pleat else dart.apex
        yield line(Drawn.FOLD if dart.pleat else Drawn.DART, dart.edge), Path.through(near, tip)
    for mark in piece.marks:
        if mark.kind is MarkKind.BUTTONHOLE:
            yield line(Drawn.BUTTON, mark.name), mark.path
        elif mark.kind in (MarkKind.PLACE, MarkKind.DART, MarkKind.OPENING):
            yield line(Drawn.MARK, mark.name), mark.path


def hung_lines(part: Hung, signs: tuple[int, ...] = (1, -1)) -> Lines:
    """The lines of a hanging part, on both its sides or on one."""
    found: list[tuple[Line, Numbers, Numbers]] = []

    def add(drawn: Drawn, piece: Piece, edge: str, where: tuple[Numbers, Numbers]) -> None:
        found.append((Line(drawn, 0, 0, piece.name, edge, piece.what.half), *where))

    for k, patch in enumerate(part.patches):
        piece = patch.piece
        if k or not _is_uncut(patch, patch.sides[0]):
            add(Drawn.SEAM, piece, patch.sides[0], part.seam(k))
        for across, long in patch.darts:
            depth = long / max(float(patch.down[-1].mean()), 1.0) if long else 0.9
            add(Drawn.DART if long else Drawn.FOLD, piece, patch.stretch.edge, part.down(k, across, depth))
        for notch in piece.notches:
            if notch.kind is NotchKind.ZIP_END and notch.edge in patch.sides:
                depth, across = patch.nearest(piece.edge(notch.edge).path.point_at(notch.at))
                add(Drawn.ZIP, piece, notch.edge, part.down(k, float(round(across)), depth))
        for mark in piece.marks:
            if mark.kind in (MarkKind.PLACE, MarkKind.OPENING, MarkKind.BUTTONHOLE):
                spots = [patch.nearest(place) for place in mark.path.flatten(4.0)]
                rows = np.array([depth * (ROWS - 1) for depth, _ in spots])
                shares = np.array([part.share(k, depth, across) for depth, across in spots])
                drawn = Drawn.BUTTON if mark.kind is MarkKind.BUTTONHOLE else Drawn.MARK
                add(drawn, piece, mark.name, (rows, shares))
    last = part.patches[-1]
    if not _is_uncut(last, last.sides[1]):
        add(Drawn.SEAM, last.piece, last.sides[1], part.seam(-1))
    return put(part.surface, signs[0], signs, found)


def _is_uncut(patch: Patch, side: str) -> bool:
    """Whether a patch ends in the middle of its cloth: on the fold, or of a piece that is a whole of two halves."""
    return patch.piece.on_fold or patch.piece.edge(side).role is patch.piece.edge(patch.stretch.edge).role
