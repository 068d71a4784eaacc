"""What is hung of a dress: its pieces as they are worn on her left, and the seams that join them.

upper part, trousers, sleeves      each piece once
godets                             each as often as it is let in
what hangs from an edge            each part in its patches, or as a ring or strip of its own
"""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.dressed.dressing import BESIDE, ROUND_AGAIN, Dressing
from gentle_hem.core.dressed.hanging import STRIPS, patch
from gentle_hem.core.dressed.upper import is_whole
from gentle_hem.core.hang.arms import Arms, is_sleeve
from gentle_hem.core.hang.cuts import HAIR, Cut, Worn
from gentle_hem.core.hang.godets import LetIn
from gentle_hem.core.hang.legs import Legs
from gentle_hem.core.hang.mates import Side, ties
from gentle_hem.core.hang.stand import Stand
from gentle_hem.core.hang.straps import ENDS
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Stretch, left_of
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import Half, Panel, Section, What


class CannotHang(ValueError):  # noqa: N818  (it is what the dress is)
    """A dress that is not hung, and why."""


def _stands_up(piece: Piece) -> bool:
    """Whether a piece is a collar that stands up from the neck edge, and is not rolled."""
    what = piece.what
    is_collar = what.section is Section.COLLAR and not what.other and what.panel is not Panel.ROLL
    return is_collar and {Role.NECKLINE, Role.FREE} <= {edge.role for edge in piece.edges}


def is_unlike(dressing: Dressing) -> bool:
    """Whether her right is another than her left."""
    uppers = dressing.uppers
    return (
        uppers.get(1) is not uppers.get(-1)
        or any(is_whole(piece) for up in uppers.values() for flat in up.halves.values()
               for piece in flat.pieces.values())
        or any(not part.surface.is_alike for part in dressing.hung)
    )  # fmt: skip


class Pieces:
    """The pieces of one garment as they are put on its figure. Raises CannotHang."""

    def __init__(self, dressing: Dressing) -> None:
        self.dressing = dressing
        self.uppers = {what: Cut(piece, mirrored=half is Half.BACK) for half, what, piece in self._upper_pieces()}
        self.legs = self._legs_of(dressing)
        self.leg_cuts = {
            piece.what: Cut(piece, Worn.LEG) for piece in (self.legs.pieces.values() if self.legs else ())
        }  # fmt: skip
        sleeves = [p for what, p in dressing.pieces.items() if what.is_outer(Section.SLEEVE) and not what.other]
        is_set_in = bool(self.uppers) and len(sleeves) == 1 and is_sleeve(sleeves[0])
        self.sleeves = {p.what: Cut(p, Worn.ARM) for p in sleeves if is_set_in}
        capes = any(p.piece.what.section is Section.CAPE for part in dressing.hung for p in part.patches)
        arms = Arms.CLEAR if self.sleeves else Arms.AT_HER_SIDE if capes else Arms.NONE
        self.stand = Stand.standing(dressing.form, on_legs=self.legs is not None, arms=arms)
        joined = {w.seam.b.stretches[0].piece: w for w in dressing.walked if w.seam.is_join}
        self.collared = {
            what: walked for what, walked in joined.items()
            if _stands_up(dressing.pieces[what]) and all(s.piece in self.uppers for s in walked.seam.a.stretches)
        }  # fmt: skip
        """Each stand collar, with the seam it stands up from."""
        collars = {what: Cut(dressing.pieces[what], Worn.COLLAR) for what in self.collared}
        self.on_her = self.uppers | self.leg_cuts | self.sleeves | collars
        """Every piece that lies on her body, by what it is."""
        self.strapped = self._strapped()
        """Each strap, with the seams it is sewn on by in front and behind."""
        self.parts = [
            [Cut(p.piece, Worn.HUNG, p, h, k) for k, p in enumerate(part.patches)]
            for h, part in enumerate(dressing.hung)
        ]
        self.godets = list(self._let_in())
        if not self.on_her and not self.parts:
            raise CannotHang("There is nothing to hang: its bodice is only measured, and no lower part is cut.")

    def _upper_pieces(self) -> Iterable[tuple[Half, What, Piece]]:
        upper = self.dressing.uppers.get(1)
        if upper is None:
            return
        for half, flat in upper.halves.items():
            for what in flat.pieces:
                piece = self.dressing.pieces[what]
                if piece.cloth is not ClothRole.PAPER and what.panel not in BESIDE:
                    yield half, what, piece

    def _strapped(self) -> dict[What, dict[Half, Walked]]:
        found: dict[What, dict[Half, Walked]] = {}
        for walked in self.dressing.walked:
            above, below = walked.seam.a.stretches, walked.seam.b.stretches
            strap, half = below[0].piece, above[0].piece.half
            if strap.panel is not Panel.STRAP or strap.other or half is None or len(above) + len(below) != 2:
                continue
            if above[0].piece in self.uppers and below[0].edge == ENDS[half]:
                found.setdefault(strap, {})[half] = walked
        return {strap: ends for strap, ends in found.items() if len(ends) == 2}

    def _let_in(self) -> Iterable[LetIn]:
        """Every godet between two pieces that lie on her; one in her centre, or between pieces cut alike, is none."""
        waiting: Walked | None = None
        count = 0
        for walked in self.dressing.walked:
            what = walked.seam.b.stretches[0].piece
            if what.section is not Section.GODET or what.other or not walked.seam.is_join:
                continue
            if waiting is None or waiting.seam.b.stretches[0].piece != what:
                waiting = walked
                continue
            one = LetIn(Cut(self.dressing.pieces[what], Worn.LET_IN, number=count), (waiting, walked))
            waiting = None
            if all(stretch.piece in self.uppers for stretch in one.beside):
                count += 1
                yield one

    def _sewn_up_to_godets(self, stretch: Stretch) -> Stretch:
        """A stretch of a seam without what a godet is let into."""
        start, end = stretch.start, stretch.end
        long = self.dressing.pieces[stretch.piece].edge(stretch.edge).path.length
        for other in (s for one in self.godets for s in one.beside):
            if (other.piece, other.edge) != (stretch.piece, stretch.edge):
                continue
            low, high = other.start, long if other.end is None else other.end
            if low <= start + HAIR:
                start = max(start, high)
            elif high >= (long if end is None else end) - HAIR:
                end = low
        return replace(stretch, start=start, end=end)

    @staticmethod
    def _legs_of(dressing: Dressing) -> Legs | None:
        """Its trousers; None where it has none that are one front and one back."""
        pieces = [p for what, p in dressing.pieces.items() if what.is_outer(Section.TROUSERS) and not what.other]
        halves = {p.what.half: p for p in pieces if p.what.half is not None}
        if len(pieces) != 2 or len(halves) != 2:
            return None
        return Legs(dressing.form, halves, dressing.trousers_top())

    def is_strip(self, h: int) -> bool:
        """Whether a hanging part goes round in rings or strips of its own, whatever its pieces are."""
        first = self.dressing.hung[h].patches[0]
        raw = patch(first.piece, first.stretch)
        again = raw is not None and first.lengths[0] > ROUND_AGAIN * raw.lengths[0]
        return first.piece.what.section in STRIPS or again

    def _goes_on(self, h: int) -> bool:
        """Whether a part is one piece that goes on over the middle of her to her other side."""
        return not self.is_strip(h) and any(
            cut.patch is not None and cut.patch.stretch.start > 0 and cut.piece.cut == 1 and not cut.piece.on_fold
            and cut.centre_line() is None
            for cut in self.parts[h]
        )  # fmt: skip

    def above(self, upper: Run, h: int) -> Side | None:
        """What a hanging part is sewn to; None where that is not hung itself, or the part goes on beyond the middle."""
        return None if self._goes_on(h) else self._side(upper, h)

    def _side(self, run: Run, h: int) -> Side | None:
        """A side of a seam on what lies on her, or on a hanging part before one; None where that is not hung."""
        parts: list[tuple[Cut, Stretch]] = []
        taken: dict[int, int] = {}
        godets = [one.cut for one in self.godets]
        for stretch in run.stretches:
            cut = self.on_her.get(stretch.piece)
            if cut is None and godets and godets[0].piece.what == stretch.piece:
                cut = godets.pop(0)
            for g in range(h - 1, -1, -1):
                if cut is not None or self.is_strip(g):
                    continue
                found = next(
                    (c for c in self.parts[g][taken.get(g, 0) :] if c.piece.what == stretch.piece), None
                )  # fmt: skip
                if found is not None:
                    taken[g], cut = found.number + 1, found
            if cut is None:
                return None
            parts.append((cut, stretch))
        return Side(parts) if parts else None

    def _flank(self, cut: Cut, which: int) -> Side:
        """A side of a patch from its top down."""
        assert cut.patch is not None
        name, piece = cut.patch.sides[which], cut.piece
        place = piece.at_edge(cut.patch.stretch.edge) or 0
        # the outline runs anticlockwise: the side after the top edge runs down, the one before it up
        down = piece.edges[(place + 1) % len(piece.edges)].name
        return Side([(cut, Stretch(piece.what, name, backwards=name != down))])

    def seams(self) -> list[tuple[Side, Side, list[tuple[float, float]], str]]:
        """Every seam that is sewn mate to mate: its sides, the places that lie on each other, its name."""
        found = []
        for walked in self.dressing.walked:
            if left_of(walked.name) != walked.name or walked.seam.is_of_itself:
                continue
            runs = (walked.seam.a, walked.seam.b)
            on_her = all(s.piece in self.on_her for run in runs for s in run.stretches)
            if on_her or any(s.piece in self.leg_cuts for s in walked.seam.b.stretches):
                short = [
                    replace(run, stretches=tuple(map(self._sewn_up_to_godets, run.stretches)), corners=())
                    for run in runs
                ]  # fmt: skip
                is_whole_seam = all(a.stretches == b.stretches for a, b in zip(runs, short, strict=True))
                one, other = (self._side(run, len(self.parts)) for run in short)
                if one is not None and other is not None:
                    found.append((one, other, ties(one, other, walked if is_whole_seam else None), walked.name))
        for godet in self.godets:
            for walked in godet.seams:
                one = self._side(walked.seam.a, 0)
                assert one is not None
                other = Side([(godet.cut, stretch) for stretch in walked.seam.b.stretches])
                found.append((one, other, ties(one, other, walked), walked.name))
        for h, (walked, upper) in enumerate(self.dressing.hung_on):
            if self.is_strip(h):
                continue
            above = self.above(upper, h)
            # what is sewn on by several seams is sewn on along its whole edge
            whole = set(upper.stretches) - {s for run in (walked.seam.a, walked.seam.b) for s in run.stretches}
            below = Side([
                (cut, replace(cut.patch.stretch, start=0.0, end=None) if whole else cut.patch.stretch)
                for cut in self.parts[h] if cut.patch is not None
            ])  # fmt: skip
            if above is not None:
                found.append((above, below, ties(above, below, None if whole else walked), walked.name))
            for cut, after in pairwise(self.parts[h]):
                one, other = self._flank(cut, 1), self._flank(after, 0)
                found.append((one, other, ties(one, other, None), f"{cut.piece.name} side"))
        return found

    def lowest(self) -> int:
        """Which hanging part ends lowest all round her; −1 where nothing hangs below the upper part."""
        round_her = [
            (float(part.surface.left.z[-1].mean()), h)
            for h, part in enumerate(self.dressing.hung)
            if not part.over
            and part.shares == (0.0, 1.0)
            and (self.above(self.dressing.hung_on[h][1], h) is not None or not (self.uppers or self.is_strip(h)))
        ]
        return min(round_her)[1] if round_her else -1
