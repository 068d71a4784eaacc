"""A garment put on its figure: its upper part, and what hangs from it, part from part, in the order of the seams."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence
from functools import partial

import numpy as np
from numpy.typing import NDArray

from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.dressed.form import Form
from gentle_hem.core.dressed.hanging import DEPTHS, Hung, Patch, ends, hang, patch
from gentle_hem.core.dressed.inks import Level
from gentle_hem.core.dressed.lines import Lines, hung_lines, upper_lines
from gentle_hem.core.dressed.slices import SAMPLES, Numbers
from gentle_hem.core.dressed.surface import GATHERS, SIDES, Folds, Surface, meeting
from gentle_hem.core.dressed.upper import ROWS, Upper, followed, is_whole, upper_surface
from gentle_hem.core.garment import Garment
from gentle_hem.core.parts import OpeningPlace
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, left_of, right_of
from gentle_hem.core.steps.knot import Knot
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import Half, Layer, Panel, Section, What

PARTS = frozenset({
    Section.SKIRT, Section.PEPLUM, Section.HIP_YOKE, Section.WAISTBAND, Section.RUFFLE, Section.FLOUNCE, Section.CAPE,
})  # fmt: skip
"""What hangs from an edge round the body."""

Spot = tuple[tuple[float, float], partial[Numbers], float, int, bool]
"""An edge that a part is sewn to: from which share of her round to which, how high it lies at them, how long it is held
all round, how many parts it hangs below, and whether what is sewn on hangs over it.
"""

ROUND_AGAIN = 1.05
"""A strip so many times as long as its piece goes round in several of them."""

BESIDE = frozenset({Panel.STRAP, Panel.LACING, Panel.MODESTY})


class Dressing:
    """One garment being put on its figure, its gathers in so many folds."""

    def __init__(self, recipe: Recipe, garment: Garment, form: Form | None = None, gathers: Folds = GATHERS) -> None:
        self.recipe, self.garment, self.gathers = recipe, garment, gathers
        self.form = form or Form.of(recipe.figure)
        self.pieces = {p.what: self._as_tied(p, garment) for p in garment.pieces if p.what.layer is Layer.OUTER}
        self.walked = [w for w in garment.seams if all(s.piece in self.pieces for s in w.seam.stretches)]
        self.joins = [
            (w, set(w.seam.b.pieces)) for w in self.walked if w.seam.is_join and left_of(w.name) == w.name
        ]  # fmt: skip
        """Each join of her left, or of both sides alike, with what hangs from it."""
        self.uppers: dict[int, Upper] = {}
        self.feet: set[tuple[What, str]] = set()
        self.surface: Surface | None = None
        self.hung: list[Hung] = []
        self.hung_on: list[tuple[Walked, Run]] = []
        """The seam each hanging part is sewn by, and the edges it is sewn to there."""
        self.hung_lines: list[tuple[Lines, ...]] = []
        """Of each hanging part: those of both its sides, or of one and the other where they are not alike."""
        self.lines: list[Lines] = []
        self._put_on()
        self._hang()

    def _as_tied(self, piece: Piece, garment: Garment) -> Piece:
        """A piece as it lies once its fullness is tied or gathered in: as it was before it was spread. The fullness of
        a skirt hangs open, but for one that is knotted.
        """
        flat = garment.unspread.get(piece.what)
        tied = piece.what.section.is_upper or any(isinstance(s, Knot) and not s.off for s in self.recipe.steps)
        return flat if flat is not None and tied else piece

    # the upper part

    def _sides(self) -> dict[int, dict[Half, list[Piece]]]:
        """The pieces of the upper part on her left and on her right."""
        made: dict[int, dict[Half, list[Piece]]] = {sign: {Half.FRONT: [], Half.BACK: []} for sign in SIDES}
        for what, piece in self.pieces.items():
            if not what.section.is_upper or what.half is None or what.panel in BESIDE:
                continue
            if replace(what, other=not what.other) in self.pieces or _is_of_one_side(piece):
                made[-1 if what.other else 1][what.half].append(piece)
            else:
                made[1][what.half].append(piece)
                made[-1][what.half].append(mirrored(piece) if is_whole(piece) else piece)
        return made

    def _put_on(self) -> None:
        sides = self._sides()
        if not any(there for side in sides.values() for there in side.values()):
            return
        self.feet = feet = self._feet()
        for sign, halves in sides.items():
            if sign < 0 and all(halves[h] == sides[1][h] for h in Half):
                self.uppers[sign] = self.uppers[1]
            else:
                self.uppers[sign] = Upper(halves, self.form, self.garment.waists, feet)
        added = {
            sign: self._let_in([w for half in upper.halves.values() for w in half.pieces], upper.z - upper.z[-1]) / 2
            for sign, upper in self.uppers.items()
        }
        self.surface = upper_surface(self.uppers[1], self.uppers[-1], self._cloth(Section.BODICE), added)
        alike = self.uppers[1] is self.uppers[-1]
        self.lines = [
            upper_lines(self.surface, self.uppers[sign], sign, SIDES if alike else (sign,), feet, self.zipped_behind)
            for sign in (SIDES[:1] if alike else SIDES)
        ]

    def _feet(self) -> set[tuple[What, str]]:
        """The lowest edges of the upper part: what the rest is sewn to, or its hem."""
        upper = {what for what in self.pieces if what.section.is_upper}
        found = {
            (s.piece, s.edge)
            for w in self.walked
            if w.seam.is_join and w.seam.b.stretches[0].piece.section in PARTS | {Section.TROUSERS}
            for s in w.seam.a.stretches
            if s.piece in upper and _role(self.pieces[s.piece], s.edge) is Role.WAIST
        }
        if found:
            return found
        for role in (Role.HEM, Role.WAIST):
            found = {
                (what, e.name) for what in upper for e in self.pieces[what].edges
                if e.role is role and what.panel not in BESIDE
            }  # fmt: skip
            if found:
                return found
        return set()

    def _cloth(self, section: Section) -> Cloth:
        return self.recipe.cloths.of(What(section))

    def _let_in(self, pieces: Collection[What], above: Numbers) -> Numbers:
        """What godets let into pieces add all round, at heights above their lower edge (mm)."""
        more = np.zeros(len(above))
        for what, godet in self.pieces.items():
            if what.section is not Section.GODET:
                continue
            into = {s.piece for w in self.walked if what in w.seam.b.pieces for s in w.seam.a.stretches}
            if into & set(pieces):
                tall = godet.seam_line.box[3] - godet.seam_line.box[1]
                more += godet.cut * _hem_length(godet) * np.clip((tall - above) / tall, 0.0, 1.0)
        return more

    @property
    def foot_edge(self) -> tuple[str, str]:
        """A piece of the upper part, and its edge that is the lowest."""
        return min(((what.name, edge) for what, edge in self.feet), default=("", ""))

    @property
    def zipped_behind(self) -> bool:
        return self.recipe.opening.place is OpeningPlace.CENTRE_BACK

    def trousers_top(self) -> float:
        """How high the waist of trousers lies."""
        joined = (w for w in self.walked if w.seam.b.stretches[0].piece.section is Section.TROUSERS and w.seam.is_join)
        spot = next((self._edge_above(w.seam.a) for w in joined), None)
        return self.form.waist if spot is None else float(spot[1](np.linspace(0.0, 1.0, 9)).mean())

    # what hangs from it

    def _hang(self) -> None:
        placed = {what for what in self.pieces if what.section.is_upper}
        waiting = [w for w in self.walked if w.seam.b.stretches[0].piece.section in PARTS or not w.seam.is_join]
        while True:
            before = len(placed)
            for walked in waiting:
                for upper, lower in ((walked.seam.a, walked.seam.b), (walked.seam.b, walked.seam.a)):
                    new = set(lower.pieces)
                    if new & placed or lower.stretches[0].piece.section not in PARTS:
                        continue
                    if lower is walked.seam.b:
                        upper = self._all_above(upper, new)
                    above = {what for what in upper.pieces if what.section is not Section.GODET}
                    if above and above <= placed and self._hang_one(walked, upper, lower):
                        placed |= new
            if len(placed) == before:
                return

    def _all_above(self, upper: Run, lower: set[What]) -> Run:
        """Everything that a part is sewn to at its top: a cape to the front's neck edge and to the back's."""
        also = [
            s for w, below in self.joins if below == lower for s in w.seam.a.stretches
            if s not in upper.stretches and s.piece not in lower
        ]  # fmt: skip
        return replace(upper, stretches=(*upper.stretches, *also), corners=()) if also else upper

    def _hang_one(self, walked: Walked, upper: Run, lower: Run) -> bool:
        patches = self._patches(lower)
        spot = self._edge_above(upper) if patches else None
        if spot is None:
            return False
        part = self._hung_part(walked, patches, spot)
        lines: tuple[Lines, ...] = (hung_lines(part),)
        twin = next((w for w in self.walked if w.name == right_of(walked.name)), None)
        on_right = self._patches(twin.seam.b if lower is walked.seam.b else twin.seam.a) if twin else ()
        if twin and on_right:
            other = self._hung_part(twin, on_right, spot)
            left, right = part.surface.left, other.surface.right
            if part.shares == (0.0, 1.0):
                left, right = meeting(left, right)
            surface = replace(part.surface, left=left, right=right)
            part, other = replace(part, surface=surface), replace(other, surface=surface)
            lines = (hung_lines(part, SIDES[:1]), hung_lines(other, SIDES[1:]))
        self.hung.append(part)
        self.hung_on.append((walked, upper))
        self.hung_lines.append(lines)
        return True

    def _patches(self, lower: Run) -> tuple[Patch, ...]:
        """What hangs along a run; nothing where one of its pieces has no lower edge."""
        made = [patch(self.pieces[s.piece], s) for s in lower.stretches]
        return tuple(one for one in made if one is not None) if all(made) else ()

    def _hung_part(self, walked: Walked, patches: Sequence[Patch], spot: Spot) -> Hung:
        shares, height, held, below, over = spot
        cloth = self._cloth(patches[0].piece.what.section)
        full = walked.length_b / max(sum(p.lengths[0] for p in patches), 1.0)
        if full > ROUND_AGAIN:  # a strip that goes round more than once is drawn as one
            patches = [replace(p, lengths=p.lengths * full) for p in patches]
        long = float(np.mean([p.down[-1].mean() for p in patches]))
        added = self._let_in([p.piece.what for p in patches], long * (1 - DEPTHS))
        return hang(patches, self.form, height, held, walked.length_a, shares, cloth, added, below, over, self.gathers)

    def _edge_above(self, run: Run) -> Spot | None:
        """The edge that a part is sewn to: its shares, how high it lies at them, how long it is held all round, and how
        many parts it hangs below.
        """
        shares: list[Numbers] = []
        heights: list[Numbers] = []
        held, below, over = 0.0, 0, False
        # a godet let into a hem lies between the places of its neighbours
        run = replace(
            run, stretches=tuple(s for s in run.stretches if s.piece.section is not Section.GODET), corners=()
        )  # fmt: skip
        if self.uppers and all(s.piece.section.is_upper for s in run.stretches):
            upper = self.uppers[1]
            rows = []
            for stretch in run.stretches:
                half, piece = stretch.piece.half, self._flat(stretch.piece)
                if half is None or piece is None:
                    return None
                edge = piece.edge(stretch.edge)
                if edge.role.is_centre or edge.role is Role.SIDE:
                    return None
                spot = upper.put(half, piece, followed(edge.path))
                shares.append(spot.share)
                heights.append(spot.z)
                rows.append(float(spot.row.mean()))
            girths = self.surface.left.girths if self.surface else np.zeros(ROWS)
            over = not {(s.piece, s.edge) for s in run.stretches} <= self.feet
            held = 2 * float(np.interp(np.mean(rows), np.arange(ROWS), girths))
            if self.surface and not over:
                held = self.surface.held
                shares, heights = [upper.foot[0]], [upper.foot[1]]
        else:
            for part in reversed(self.hung):
                known = ends(part.patches)
                if not all((s.piece, s.edge) in known for s in run.stretches):
                    continue
                columns = np.linspace(*part.shares, SAMPLES)
                shares.append(columns)
                heights.append(part.surface.left.z[-1])
                held, below = part.surface.held, part.below + 1
                break
            else:
                return None
        share, height = np.concatenate(shares), np.concatenate(heights)
        order = np.argsort(share)
        low, high = float(share.min()), float(share.max())
        low, high = (0.0 if low < 0.03 else low), (1.0 if high > 0.97 else high)
        if high - low < 0.05:
            return None
        return (low, high), partial(np.interp, xp=share[order], fp=height[order]), held, below, over

    def _flat(self, what: What) -> Piece | None:
        """A piece of the upper part with its centre on its left."""
        half = self.uppers[1].halves.get(what.half) if what.half is not None and self.uppers else None
        return None if half is None else half.pieces.get(what)

    def levels(self) -> Iterable[Level]:
        """The levels a maker asks for: bust, waist, hip and hem, each where the dress has it."""
        form, upper = self.form, self.surface
        round_her = [part.surface for part in self.hung if not part.over and part.shares == (0.0, 1.0)]
        if upper is not None:
            bust = self._bust()
            found = [_level_of(upper, "bust", bust)] if bust is not None else []
            ends_at_waist = any(_role(self.pieces[what], edge) is Role.WAIST for what, edge in self.feet)
            if ends_at_waist:
                found.append(_slice(upper, "waist", len(upper.left.girths) - 1))
            else:
                found += [_level_of(upper, name, z) for name, z in (("waist", form.waist), ("hip", form.hip))]
            yield from (level for level in found if level is not None)
        hips = [level for part in round_her if (level := _level_of(part, "hip", form.hip)) is not None]
        yield from hips[:1]
        surfaces = [*round_her, *([] if upper is None else [upper])]
        leg = self._leg_hem()
        if leg is not None:
            yield leg
        elif surfaces:
            last = min(surfaces, key=lambda one: float(one.left.z[-1].mean()))
            yield _slice(last, "hem", len(last.left.girths) - 1)

    def _leg_hem(self) -> Level | None:
        """The hem of one leg; None where it has no legs."""
        legs = [p for what, p in self.pieces.items() if what.is_outer(Section.TROUSERS)]
        front = next((p for p in legs if p.what.half is Half.FRONT), None)
        if front is None:
            return None
        _, low, _, high = front.seam_line.box
        height = self.trousers_top() - (high - low)
        girth = sum(p.stitched_length(e.name) for p in legs for e in p.edges if e.role is Role.HEM)
        turn = np.linspace(0, 2 * np.pi, 2 * SAMPLES, endpoint=False)
        radius, middle = girth / 2 / np.pi, float(self.form.leg_middle(np.array([height]))[0])
        around = zip((middle + radius * np.sin(turn)).tolist(), (radius * np.cos(turn)).tolist(), strict=True)
        return Level("hem", height, girth, tuple(around))

    def _bust(self) -> float | None:
        """How high the bust point of the front lies on her."""
        for upper in self.uppers.values():  # the front of one side may be cut into panels through it
            front = upper.halves.get(Half.FRONT)
            points = [p.bust_point.y for p in front.pieces.values() if p.bust_point is not None] if front else []
            if points:
                return upper.height_of(Half.FRONT, points[0])
        return None


def _is_of_one_side(piece: Piece) -> bool:
    """Whether a piece is cut for her left or her right alone; a template is for both."""
    return piece.cut == 1 and not piece.on_fold and not is_whole(piece) and piece.cloth is not ClothRole.PAPER


def _role(piece: Piece, edge: str) -> Role:
    return piece.edge(edge).role


def _hem_length(piece: Piece) -> float:
    return sum(e.drawn_length for e in piece.edges if e.role is Role.HEM)


def _level_of(surface: Surface, name: str, height: float) -> Level | None:
    """The slice at a height, all round; None where the surface does not reach it everywhere."""
    z = surface.left.z
    if z[0].min() < height or z[-1].max() > height:
        return None
    # a hem that is lower behind has rows that are: each column is cut where it is that high
    above = np.clip((z >= height).sum(axis=0) - 1, 0, len(z) - 2)
    columns = np.arange(z.shape[1])
    high, low = z[above, columns], z[above + 1, columns]
    return _cut(surface, name, above, (high - height) / np.maximum(high - low, 1e-9), height)


def _slice(surface: Surface, name: str, row: float) -> Level:
    """The slice along a row."""
    low = min(int(row), len(surface.left.girths) - 2)
    rows = np.full(surface.left.z.shape[1], low)
    height = float(surface.left.z[low, 0] * (1 - row + low) + surface.left.z[low + 1, 0] * (row - low))
    return _cut(surface, name, rows, np.full(len(rows), row - low), height)


def _cut(surface: Surface, name: str, above: NDArray[np.int64], part: Numbers, height: float) -> Level:
    """A slice that lies a part of the way from a row of each column to the next."""
    columns = np.arange(len(above))

    def at(of: Numbers) -> Numbers:
        made: Numbers = of[above, columns] * (1 - part) + of[above + 1, columns] * part
        return made

    left, right = surface.left, surface.right
    x, y, z = (np.concatenate((at(one), at(other)[::-1])) for one, other in zip(
        (left.x, left.y, left.z), (right.x, right.y, right.z), strict=True
    ))  # fmt: skip
    steps = [np.diff(of, append=of[0]) for of in ((x, y, z) if surface.ended else (x, y))]
    girth = float(np.sqrt(np.square(steps).sum(axis=0)).sum())
    return Level(name, height, girth, tuple(zip(x.tolist(), y.tolist(), strict=True)))
