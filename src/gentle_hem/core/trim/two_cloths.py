"""Left and right apart: a pair cut as two patterns, each in its own cloth, once everything else is drawn on them.

left │ right        what is sewn to the pair is sewn to each; where they meet at the centre they are sewn together
"""

from typing import ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.pattern import Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, right_of, with_pairs
from gentle_hem.core.sentences import Word, choice
from gentle_hem.core.steps.base import ON, PART, Part
from gentle_hem.core.steps.base import Side as On
from gentle_hem.core.trim.base import Trim, Turn
from gentle_hem.core.what import Half, Layer, What
from gentle_hem.core.workings import Workings
from gentle_hem.core.workroom import Dressed


class TwoCloths(Trim):
    """The front of the bodice cut left and right apart, the right in the contrast cloth."""

    turn: ClassVar[Turn] = Turn.LAST
    title: ClassVar[str] = "Left and right apart"
    sentences: ClassVar[tuple[str, ...]] = ("The {part}, {on}, is cut left and right apart; the right is of {cloth}.",)
    words: ClassVar[dict[str, Word]] = {
        "part": PART, "on": ON,
        "cloth": choice("cloth of the right", ("contrast", "the contrast cloth"), ("same", "the same cloth")),
    }  # fmt: skip

    kind: Literal["two_cloths"] = "two_cloths"
    part: Part = "bodice"
    on: On = "front"
    cloth: Literal["contrast", "same"] = "contrast"

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        halves = tuple(Half) if self.on == "both" else (Half(self.on),)
        pairs: dict[What, What] = {}
        for half in halves:
            pieces = [p for p in dress.pieces.values() if self._is_cut(p, half)]
            folded = next((p for p in pieces if p.on_fold), None)
            if folded:
                raise CannotMake(f"the {folded.name} lies on the fold; put a seam down its centre first")
            if not pieces:
                raise CannotMake(f"the {half} of the {self.part} is no pair")
            pairs |= {p.what: replace(p.what, other=True) for p in pieces}
        if any(other in dress.pieces for other in pairs.values()):
            raise CannotMake("it is cut apart already")
        lefts = [self._left(dress.pieces[what]) for what in pairs]
        rights = [self._right(dress.pieces[what], other) for what, other in pairs.items()]
        seams: list[Seam] = []
        before = with_pairs(dress.seams, dress.pieces.values())
        names = {seam.name for seam in before}
        for seam in before:
            if not any(stretch.piece in pairs for stretch in seam.stretches):
                seams.append(seam)
            elif seam.is_of_itself:
                seams.append(replace(seam, b=_of_others(seam.b, pairs)))
            elif any(stretch.piece.other for stretch in seam.stretches):  # the right of what it is sewn to
                seams.append(replace(seam, a=_of_others(seam.a, pairs), b=_of_others(seam.b, pairs)))
            elif right_of(seam.name) in names:
                seams.append(seam)
            else:
                right = replace(seam, title=right_of(seam.name), a=_of_others(seam.a, pairs))
                seams += [seam, replace(right, b=_of_others(seam.b, pairs))]
        flat = {pairs[w]: replace(p, what=pairs[w]) for w, p in dress.unspread.items() if w in pairs}
        return replace(dress, seams=tuple(seams), unspread={**dress.unspread, **flat}).with_pieces([*lefts, *rights])

    def _is_cut(self, piece: Piece, half: Half) -> bool:
        what = piece.what
        of_part = what.section.is_upper if self.part == "bodice" else what.section.is_lower
        paired = piece.on_fold or (piece.cut == 2 and not piece.alike)
        return of_part and what.half is half and what.layer is Layer.OUTER and not what.other and paired

    @staticmethod
    def _left(piece: Piece) -> Piece:
        return replace(piece, cut=1, remark=also(piece.remark, LEFT_ONE))

    def _right(self, piece: Piece, other: What) -> Piece:
        made = replace(
            piece, what=other, cut=1, turned_over=True,
            remark=also(piece.remark, RIGHT_ONE),
        )  # fmt: skip
        return replace(made, cloth=ClothRole.CONTRAST) if self.cloth == "contrast" else made


LEFT_ONE, RIGHT_ONE = "the left one", "the right one: lay the paper turned over"
"""What is written on either of a pair that is cut apart."""


def also(remark: str, more: str) -> str:
    """A remark with something more in it, once."""
    if more in remark:
        return remark
    return f"{remark}; {more}" if remark else more


def _of_others(run: Run, pairs: dict[What, What]) -> Run:
    return replace(run, stretches=tuple(replace(s, piece=pairs.get(s.piece, s.piece)) for s in run.stretches))
