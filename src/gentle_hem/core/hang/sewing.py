"""The pieces of a recipe meshed and sewn: where mates of a seam meet they are one point.

pieces ──► their outlines with points at every mate, dart and end of a stretch ──► triangles
drawn dress ──► where every point begins: on her, drawn together
left half   it is sewn as its left half, held on the middle of the body; where her sides are not alike each is, as if
            the other were like it, her right seen as in a mirror
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from itertools import pairwise
from math import ceil

import numpy as np
from scipy.interpolate import LinearNDInterpolator, RBFInterpolator
from shapely import box

from gentle_hem.core.cloth.cloths import Drape
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.dressed.dressing import Dressing
from gentle_hem.core.dressed.hanging import ROWS, Hung, Patch
from gentle_hem.core.hang.arms import Sleeve
from gentle_hem.core.hang.cuts import LONGER, Cut, Worn
from gentle_hem.core.hang.fabric import Fabric
from gentle_hem.core.hang.godets import LetIn, looped
from gentle_hem.core.hang.mates import Side, Spot
from gentle_hem.core.hang.mesh import SLENDER, Indices, Mesh, Numbers, drawn_to, through
from gentle_hem.core.hang.net import Net
from gentle_hem.core.hang.pieces import Pieces
from gentle_hem.core.hang.sewn import ROUND, Sewn, Sheet
from gentle_hem.core.hang.straps import Strap, crossing
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Stretch
from gentle_hem.core.steps.laced import LACED
from gentle_hem.core.two_sides import OneSide
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import Half, Section, What

GATHERED = 1.2
"""A side of a seam that is so many times as long as the other is gathered to it."""

TURNS = 0.35
"""A ring turns by no more between two of its points (radians)."""

ROUNDED = 0.02
"""A strip whose lower edge is longer by such a share of its depth is a ring."""

BESIDE_BY = 12
"""A place beside what was measured of a patch is found from so many that were."""

NEXT = 1e-4
"""The points of a godet's hem lie so near to its seam, as shares of the way round her."""

CLEAR = 0.008
"""What hangs over what lies on her begins so far outside of it (m)."""


class Sewing:
    """One garment being sewn, in triangles about ``spacing`` long at their sides (mm), or one of her sides of it as if
    the other were like it. Raises CannotHang.
    """

    def __init__(self, recipe: Recipe, dressing: Dressing, spacing: float, side: OneSide | None = None) -> None:
        self.recipe, self.dressing, self.spacing, self._side = recipe, dressing, spacing, side
        self._root: list[int] = []
        self._where: list[Numbers] = []
        self._middle: list[int] = []
        self._fixed: list[int] = []
        self._stays: list[int] = []
        """Points that do not slide sideways."""
        self._laid: dict[int, Numbers] = {}
        """Of each strip, how far along it and down it its places are."""
        self._foot: list[tuple[float, int]] = []
        self._foot_let_in: list[tuple[float, int]] = []
        """The points of the lowest edge, and those of godets in it, with their shares of the way round her."""
        self._names: dict[tuple[str, str], list[tuple[float, int]]] = defaultdict(list)
        self._pieces = Pieces(dressing)
        self._cloths = {piece.what: piece.cloth for piece in dressing.garment.pieces}

    # points

    def _new(self) -> int:
        self._root.append(len(self._root))
        return len(self._root) - 1

    def _found(self, point: int) -> int:
        while self._root[point] != point:
            self._root[point] = self._root[self._root[point]]
            point = self._root[point]
        return point

    def _make_one(self, points: Sequence[int]) -> None:
        for other in points[1:]:
            a, b = self._found(points[0]), self._found(other)
            self._root[max(a, b)] = min(a, b)

    # all of it

    def sewn(self) -> Sewn:
        """Everything meshed and sewn."""
        seams = self._pieces.seams()
        straps = [self._strap(what, ends) for what, ends in self._pieces.strapped.items()]
        sewn_on = [seam for strap in straps for seam in strap.seams(self._pieces.uppers)]
        mates = [mate for seam in (*seams, *sewn_on) for mate in self._mated(*seam)]
        strips = {h: self._sewn_along(h) for h in range(len(self._pieces.parts)) if self._pieces.is_strip(h)}
        meshes: list[tuple[Mesh, list[int], Cut]] = []
        loose = {h for h, (_, upper) in enumerate(self.dressing.hung_on) if self._pieces.above(upper, h) is None}
        fixed = set() if self._pieces.uppers else loose
        legs_hang = any(
            cut.worn is Worn.LEG and any(c.worn is not Worn.LEG for c in one.cuts)
            for one, other, _, _ in seams for cut in other.cuts
        )  # fmt: skip
        worn = [
            c for h, part in enumerate(self._pieces.parts) if h not in strips and h not in loose - fixed for c in part
        ]
        for cut in (*self._pieces.on_her.values(), *worn):
            mesh, ids = cut.meshed(self.spacing, self._new)
            meshes.append((Mesh(mesh.points / 1000, mesh.triangles), ids, cut))
            self._place(ids, self._begins(cut, mesh.points))
            for pair in cut.same:
                self._make_one(pair)
            self._note(cut, cut.part in fixed or (cut.worn is Worn.LEG and not legs_hang))
        for godet in self._pieces.godets:
            mesh, ids = godet.cut.meshed(self.spacing, self._new)
            meshes.append((Mesh(mesh.points / 1000, mesh.triangles), ids, godet.cut))
            self._place(ids, self._in_its_seam(godet, mesh.points))
            self._note_godet(godet)
        for strap in straps:
            for cut in strap.cuts:
                mesh, ids = cut.meshed(self.spacing, self._new)
                meshes.append((Mesh(mesh.points / 1000, mesh.triangles), ids, cut))
                begins = strap.begins(cut, mesh.points)
                self._place(ids, begins)
                self._middle += [p for (edge, _), p in cut.ids.items() if edge == "cross"]
                self._stays += [p for p, stays in zip(ids, strap.stays(begins), strict=True) if stays]
        for _, spots in mates:
            self._make_one([s.point for s in spots if s.point is not None])
        for mesh, ids, cut in meshes:
            if cut.worn is Worn.ARM:
                hems = {e.name for e in cut.piece.edges if e.role is Role.HEM}
                self._draw_to_seam(mesh, ids, [p for (edge, _), p in cut.ids.items() if edge in hems])
        for h, spots_at in strips.items():
            if spots_at is not None:
                meshes.append(self._strip(h, spots_at))
        return self._whole(meshes, mates, bool(fixed) or (bool(self._pieces.leg_cuts) and not legs_hang))

    def _mated(
        self, one: Side, other: Side, tied: list[tuple[float, float]], name: str
    ) -> Iterator[tuple[str, list[Spot]]]:  # fmt: skip
        """The places of two sides that are one point where they are sewn together."""
        for (a, b), (c, d) in pairwise(tied):
            long = max(c - a, d - b)
            each = self.spacing * (LONGER if long > GATHERED * min(c - a, d - b) else 1.0)
            count = max(1, ceil(long / each - 1e-6))
            for k in range(count + 1):
                part = k / count
                yield name, [*one.spots(a + (c - a) * part), *other.spots(b + (d - b) * part)]

    def _strap(self, what: What, ends: Mapping[Half, Walked]) -> Strap:
        """One strap over her shoulder, with the seams of its ends."""
        places = {}
        for half, walked in ends.items():
            [above] = walked.seam.a.stretches
            both = _followed(self.dressing.pieces[above.piece], above)[[0, -1]]
            places[half] = self._begins(self._pieces.uppers[above.piece], both)
        return Strap.over(
            self.dressing.pieces[what], ends, places, crossing(self.recipe), self.dressing.form,
            self._pieces.stand.armless,
        )  # fmt: skip

    def _in_its_seam(self, godet: LetIn, points: Numbers) -> Numbers:
        """Where places of a godet begin (mm): round a loop out of its seam."""
        away, across = godet.apart(points)
        lines = []
        for walked in godet.seams:
            [beside] = walked.seam.a.stretches  # it runs from the godet's point down
            on_seam = _followed(self.dressing.pieces[beside.piece], beside)
            places = self._begins(self._pieces.uppers[beside.piece], on_seam)
            down = np.hypot(*(on_seam - on_seam[0]).T)
            lines.append(np.stack([np.interp(away, down, places[:, k]) for k in range(3)], axis=1))
        return looped((lines[0] + lines[1]) / 2, away, across, godet.wide())

    def _note_godet(self, godet: LetIn) -> None:
        """Note a godet's points by its edges, and those of its hem among the lowest."""
        for (edge, at), p in sorted(godet.cut.ids.items()):
            self._names[godet.cut.piece.name, edge].append((at, p))
        if self._pieces.lowest() != -1 or self._pieces.leg_cuts:
            return
        shares = []
        for walked in godet.seams:
            [beside] = walked.seam.a.stretches
            foot = _followed(self.dressing.pieces[beside.piece], beside)[-1:]
            shares.append(self._on_surface(self._pieces.uppers[beside.piece], foot)[1][0])
        hems = {e.name for e in godet.cut.piece.edges if e.role is Role.HEM}
        found = [(at, edge, p) for (edge, at), p in godet.cut.ids.items() if edge in hems]
        places = [godet.cut.piece.edge(edge).path.point_at(at) for at, edge, _ in found]
        _, across = godet.apart(np.array([(p.x, p.y) for p in places]))
        middle = float(np.mean(shares))
        self._foot_let_in += [(middle + NEXT * float(by), p) for by, (_, _, p) in zip(across, found, strict=True)]

    def _draw_to_seam(self, mesh: Mesh, ids: Sequence[int], still: Sequence[int]) -> None:
        """Begin a piece where it is sewn on, the rest of it following, but for points that are left where they are."""
        known: dict[int, list[Numbers]] = defaultdict(list)
        own, left = set(ids), set(still)
        for point, place in enumerate(self._where):
            if point not in own and not np.isnan(place[0]):
                known[self._found(point)].append(place)
        places = np.array([self._where[point] for point in ids])
        held = [k for k, point in enumerate(ids) if self._found(point) in known]
        to = np.array([np.mean(known[self._found(ids[k])], axis=0) for k in held]).reshape(-1, 3)
        kept = np.array([k for k, point in enumerate(ids) if point in left], dtype=np.int64)
        self._place(ids, drawn_to(mesh, places, np.array(held, dtype=np.int64), to, kept))

    def _place(self, ids: Sequence[int], places: Numbers) -> None:
        """Note where points begin (mm)."""
        for point, place in zip(ids, places, strict=True):
            while len(self._where) <= point:
                self._where.append(np.full(3, np.nan))
            self._where[point] = place

    def _note(self, cut: Cut, is_top_held: bool) -> None:
        """Note which points of a cut lie on the middle of the body, which are held, and which are its lowest edge's."""
        if cut.patch is None:
            closing = {e.name for e in cut.piece.edges if e.role.is_centre}
            hems = {e.name for e in cut.piece.edges if e.role is Role.HEM}
            feet = [edge for what, edge in self.dressing.feet if what == cut.piece.what and edge in hems]
            if cut.worn is Worn.LEG:
                feet = list(hems)
                if is_top_held:
                    waists = {e.name for e in cut.piece.edges if e.role is Role.WAIST}
                    self._fixed += [p for (edge, _), p in cut.ids.items() if edge in waists]
            self._stays += [p for (edge, _), p in cut.ids.items() if edge == LACED]  # laced together, it opens no wider
        else:
            part = self.dressing.hung[cut.part]
            ends = ((0, part.shares[0] == 0.0, 0), (len(part.patches) - 1, part.shares[1] == 1.0, 1))
            sides = [cut.patch.sides[side] for k, is_end, side in ends if k == cut.number and is_end]
            apart = {Role.FREE, Role.CENTRE_BACK} if cut.piece.what.section is Section.CAPE else {Role.FREE}
            closing = {name for name in sides if cut.piece.edge(name).role not in apart}  # a cape's ends fall open
            feet = list(cut.patch.lower)
            if is_top_held:
                self._fixed += [p for (edge, _), p in cut.ids.items() if edge == cut.patch.stretch.edge]
        self._middle += [p for (edge, _), p in cut.ids.items() if edge in closing]
        if not closing or cut.worn is Worn.UPPER:  # buttoned: what lies beyond the centre was cut off along it
            self._middle += cut.centre
        for (edge, at), p in sorted(cut.ids.items()):
            self._names[cut.piece.name, edge].append((at, p))
        self._feet(cut, feet)

    def _feet(self, cut: Cut, feet: Sequence[str]) -> None:
        if cut.worn is Worn.ARM or (
            cut.worn is not Worn.LEG and (self._pieces.leg_cuts or cut.part != self._pieces.lowest())
        ):
            return
        found = [(cut.piece.edge(name).path.point_at(at), p) for (name, at), p in cut.ids.items() if name in feet]
        if found:
            places = np.array([(place.x, place.y) for place, _ in found])
            if cut.worn is Worn.LEG and self._pieces.legs is not None:
                shares = self._pieces.legs.around(cut.piece, places)
            else:
                _, shares = self._on_surface(cut, places)
            self._foot += zip(shares.tolist(), (p for _, p in found), strict=True)

    def _whole(
        self, meshes: list[tuple[Mesh, list[int], Cut]], mates: list[tuple[str, list[Spot]]], is_held: bool
    ) -> Sewn:
        roots = np.array([self._found(k) for k in range(len(self._root))])
        used = np.zeros(len(roots), dtype=bool)
        for mesh, ids, _ in meshes:
            used[roots[np.array(ids)[mesh.triangles.ravel()]]] = True
        number = np.cumsum(used) - 1
        number = np.where(used[roots], number[roots], -1)
        where = np.full((len(roots), 3), np.nan)
        where[: len(self._where)] = self._where
        known = (number >= 0) & ~np.isnan(where[:, 0])
        count = int(used.sum())
        times = 1000 * np.bincount(number[known], minlength=count)
        start: Numbers = np.stack(
            [np.bincount(number[known], weights=where[known, k], minlength=count) / times for k in range(3)], axis=1
        )
        held = np.zeros((count, 3))
        held[_of(number, self._middle), 0] = 1.0
        held[_of(number, self._stays), 0] = 1.0
        held[_of(number, self._fixed)] = 1.0
        start[_of(number, self._middle), 0] = 0.0
        net = Net.of([(mesh, number[np.array(ids)], self._fabric(cut)) for mesh, ids, cut in meshes], count)
        seams: dict[str, list[int]] = defaultdict(list)
        for name, spots in mates:
            seams[name] += [s.point for s in spots if s.point is not None]
        hung = {cut.piece.what for _, _, cut in meshes}
        sheets = tuple(
            Sheet(
                (cut.piece.name, cut.part, cut.number), self._laid.get(cut.part, mesh.points), number[np.array(ids)],
                self._role(cut.piece.what),
                cut.part >= 0 and (self.dressing.hung[cut.part].over or self._pieces.is_strip(cut.part)),
                cut.worn is Worn.ARM, cut.piece.what.section is Section.CAPE, cut.worn is Worn.STRAP,
            )
            for mesh, ids, cut in meshes
        )  # fmt: skip
        start = _over_what_is_worn(start, sheets)
        lowest = [*sorted(self._foot, reverse=True), *self._foot_let_in]
        nearest = {int(number[p]): share for share, p in lowest if number[p] >= 0}
        foot = sorted(nearest.items(), key=lambda x: x[1])
        return Sewn(
            self._pieces.stand, net, start, held, sheets,
            np.repeat(np.arange(len(meshes)), [len(mesh.triangles) for mesh, _, _ in meshes]),
            np.array([p for p, _ in (*foot, *(foot[:1] if self._pieces.leg_cuts else ()))], dtype=np.int64),
            {name: number[[p for _, p in sorted(points)]] for name, points in self._names.items()},
            tuple((name, np.unique(_of(number, points))) for name, points in seams.items()),
            tuple(sorted(p.name for what, p in self.dressing.pieces.items() if what not in hung and not what.other)),
            is_held, bool(self._pieces.leg_cuts), self._side,
        )  # fmt: skip

    def _role(self, what: What) -> ClothRole:
        """The cloth a piece is cut of, on this side."""
        return self._cloths.get(replace(what, other=self._side == "right")) or self._cloths[what]

    def _fabric(self, cut: Cut) -> Fabric:
        """What that is like; a collar is interfaced, so that it stands, a strap is folded (common practice)."""
        cloth = self.recipe.cloths.cloth(self._role(cut.piece.what))
        fabric = Fabric.of(cloth.model_copy(update={"drape": Drape.CRISP}) if cut.worn is Worn.COLLAR else cloth)
        return fabric.doubled if cut.worn is Worn.STRAP else fabric

    # where it begins

    def _on_surface(self, cut: Cut, points: Numbers) -> tuple[Numbers, Numbers]:
        """The rows and shares of places of a cut (mm) on the surface it is drawn on."""
        if cut.patch is not None:
            return _in_patch(self.dressing.hung[cut.part], cut.number, points)
        upper, half = self.dressing.uppers[1], cut.piece.what.half
        assert half is not None
        flat = points * [-1.0, 1.0] if cut.mirrored else points
        placed = upper.put(half, upper.halves[half].pieces[cut.piece.what], flat)
        return placed.row, np.clip(placed.share, 0.0, 1.0)

    def _begins(self, cut: Cut, points: Numbers) -> Numbers:
        if cut.worn is Worn.LEG and self._pieces.legs is not None:
            return self._pieces.legs.begins(cut.piece, points)
        if cut.worn is Worn.COLLAR:
            return self._standing_up(cut, points)
        if cut.worn is Worn.ARM and self._pieces.stand.left_arm is not None:
            return Sleeve(cut.piece, self._pieces.stand.left_arm).begins(points)
        surface = self.dressing.surface if cut.patch is None else self.dressing.hung[cut.part].surface
        assert surface is not None
        made: Numbers = np.stack(surface.place(1, *self._on_surface(cut, points)), axis=1)
        return 1000 * self._pieces.stand.over_arm(made / 1000) if cut.piece.what.section is Section.CAPE else made

    def _standing_up(self, cut: Cut, points: Numbers) -> Numbers:
        """Where places of a collar begin (mm): straight above the neck edge, as high as they lie from its own."""
        walked = self._pieces.collared[cut.piece.what]
        runs = walked.seam.a, walked.seam.b
        neck, own = ([_followed(self.dressing.pieces[s.piece], s) for s in run.stretches] for run in runs)
        places = np.concatenate([
            self._begins(self._pieces.uppers[s.piece], of) for s, of in zip(walked.seam.a.stretches, neck, strict=True)
        ])  # fmt: skip
        along = _shares(np.concatenate([np.diff(of, axis=0, prepend=of[:1]) for of in neck]))
        edge = np.concatenate(own)
        far = np.linalg.norm(points[:, None] - edge[None], axis=2)
        share = _shares(np.diff(edge, axis=0, prepend=edge[:1]))[far.argmin(axis=1)]
        made: Numbers = np.stack([np.interp(share, along, places[:, k]) for k in range(3)], axis=1)
        made[:, 2] += far.min(axis=1)
        return made

    # what goes round by itself

    def _sewn_along(self, h: int) -> list[list[Spot]] | None:
        """The places a strip is sewn on at, from end to end; None where what it is sewn to is not hung."""
        _, upper = self.dressing.hung_on[h]
        above = self._pieces.above(upper, h)
        if above is None:
            return None
        top, low, deep = self._measured(h)
        most = TURNS * above.length / max((low - top) / deep, 1e-9)
        made = []
        for a, b in pairwise(above.breaks):
            if b - a < 1.0:
                continue
            count = max(1, ceil((b - a) * (top / above.length) ** 0.5 / self.spacing), ceil((b - a) / most))
            made += [a + (b - a) * k / count for k in range(count)]
        return [above.spots(s) for s in (*made, above.length)]

    def _from_the_front(self, part: Hung, along: list[list[Spot]]) -> list[list[Spot]]:
        """The places a strip is sewn on at, from its end that is nearer to the centre front: an edge may run there."""
        ends = np.stack(part.surface.place(1, np.zeros(2), np.array(part.shares)), axis=1)
        known = [self._where[s.point] for spots in along for s in spots if s.point is not None]  # not beyond the centre
        if len(known) < 2:
            return along
        first, last = known[0], known[-1]
        as_it_is, turned = (
            np.linalg.norm(first - ends[k]) + np.linalg.norm(last - ends[1 - k]) for k in (0, 1)
        )  # fmt: skip
        return along if as_it_is <= turned else along[::-1]

    def _measured(self, h: int) -> tuple[float, float, float]:
        """How long a strip is at its top and at its foot, and how deep (mm)."""
        patches = self.dressing.hung[h].patches
        top, low = (float(sum(p.lengths[k] for p in patches)) for k in (0, -1))
        return top, low, float(np.mean([p.down[-1].mean() for p in patches]))

    def _strip(self, h: int, along: list[list[Spot]]) -> tuple[Mesh, list[int], Cut]:
        """A ring or strip let to hang from an edge: laid flat as a sector of a ring, sewn on all along its top."""
        part, cut = self.dressing.hung[h], self._pieces.parts[h][0]
        along = self._from_the_front(part, along)
        top, low, deep = self._measured(h)
        columns, count = len(along), max(2, ceil(deep / self.spacing) + 1)
        across = np.linspace(0, 1, columns)
        # every other row is moved by half a triangle: in squares a bent strip would crumple point by point for nothing
        between = np.concatenate(([0.0], (across[:-1] + across[1:]) / 2, [1.0]))
        shares = [between if k % 2 else across for k in range(count)]
        rows = np.split(np.arange(sum(map(len, shares))), np.cumsum([len(of) for of in shares])[:-1])
        u, v = np.concatenate(shares), np.repeat(np.linspace(0, 1, count), [len(of) for of in shares])
        laid = np.stack((u * (top + low) / 2, -v * deep), axis=1)
        corners = through(laid, box(0.0, -deep, (top + low) / 2, 0.0), SLENDER * self.spacing**2).triangles
        long, turn = top + (low - top) * v, (low - top) / deep
        if turn > ROUNDED:
            angle = (u - 0.5) * turn
            flat = np.stack((long / turn * np.sin(angle), -long / turn * np.cos(angle)), axis=1)
        else:
            flat = np.stack(((u - 0.5) * long, -v * deep), axis=1)
        ids = [self._new() for _ in flat]
        share = part.shares[0] + (part.shares[1] - part.shares[0]) * u
        self._place(ids, np.stack(part.surface.place(1, v * (ROWS - 1), share), axis=1))
        for k, spots in enumerate(along):
            self._make_one([*(s.point for s in spots if s.point is not None), ids[rows[0][k]]])
        for end, is_end in ((0, part.shares[0] == 0.0), (-1, part.shares[1] == 1.0)):
            if is_end:
                self._middle += [ids[row[end]] for row in rows]
        self._laid[h] = np.stack((u, v), axis=1)
        if self._pieces.lowest() == h and not self._pieces.leg_cuts:
            self._foot += [(float(share[k]), ids[k]) for k in rows[-1]]
        mesh = Mesh(flat / 1000, corners)
        if self._pieces.godets:  # their hems stand out from where it is drawn
            self._draw_to_seam(mesh, ids, [])
        return mesh, ids, cut


FOLLOWED = 40
"""A stretch of an edge is followed through so many places."""


def _followed(piece: Piece, stretch: Stretch) -> Numbers:
    """Places along a stretch of a piece's edge, in its direction (mm)."""
    path = piece.edge(stretch.edge).path
    end = path.length if stretch.end is None else stretch.end
    places = [path.point_at(float(at)) for at in np.linspace(stretch.start, end, FOLLOWED)]
    made = np.array([(p.x, p.y) for p in places])
    return made[::-1] if stretch.backwards else made


def _shares(steps: Numbers) -> Numbers:
    """How far along a line its places lie, as shares, by the steps from each to the next."""
    far = np.cumsum(np.hypot(*steps.T))
    made: Numbers = far / far[-1]
    return made


def _over_what_is_worn(start: Numbers, sheets: Sequence[Sheet]) -> Numbers:
    """Where points begin (m), with what hangs over what lies on her outside of it all round."""
    over = [sheet.points for sheet in sheets if sheet.beside]
    worn = np.array(sorted({int(p) for sheet in sheets if not sheet.beside for p in sheet.points}), dtype=np.int64)
    if not over or len(worn) == 0:
        return start
    loose = np.setdiff1d(np.concatenate(over), worn)
    turn, far = np.arctan2(start[:, 0], start[:, 1]), np.hypot(start[:, 0], start[:, 1])
    round_her = np.stack((turn, start[:, 2] / ROUND), axis=1)
    under = LinearNDInterpolator(round_her[worn], far[worn], fill_value=0.0)(round_her[loose])
    made = start.copy()
    made[loose, :2] *= np.maximum(1.0, (under + CLEAR) / np.maximum(far[loose], CLEAR))[:, None]
    return made


def _of(number: Indices, points: Sequence[int]) -> Indices:
    """The numbers points have become; of those that are in a triangle."""
    made = number[np.array(points, dtype=np.int64)]
    return np.asarray(made[made >= 0])


def _in_patch(part: Hung, k: int, points: Numbers) -> tuple[Numbers, Numbers]:
    """Rows and shares of places of a patch (mm)."""
    of: Patch = part.patches[k]
    known = np.stack((of.x.ravel(), of.y.ravel()), axis=1)
    rows, across = np.meshgrid(np.arange(ROWS, dtype=float), np.linspace(0, 1, of.x.shape[1]), indexing="ij")
    values = np.stack((rows.ravel(), across.ravel()), axis=1)
    found = LinearNDInterpolator(known, values)(points)
    outside = np.isnan(found[:, 0])
    if outside.any():
        found[outside] = RBFInterpolator(known, values, neighbors=BESIDE_BY)(points[outside])
    low, high = (
        np.interp(found[:, 0], np.arange(ROWS), part.bounds[:, k + of_end]) for of_end in (0, 1)
    )  # fmt: skip
    return found[:, 0], low + (high - low) * found[:, 1]
