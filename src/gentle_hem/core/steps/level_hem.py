"""The hem levelled as it hung: so much cut off or added at nine places from the centre front to the centre back.

  CF        side        CB        cut along the cloth, by a smooth curve through the places; the seams and the
───┴──╮   ╭──┴──╮   ╭───┴───      centre lines that end in the hem are as much shorter or longer
      ╰───╯     ╰───╯
"""

from collections.abc import Callable
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.redraw import neighbour, with_paths
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Edge, Piece
from gentle_hem.core.replace import replace
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.steps.base import PART, EdgeName, PatternStep, runs_from_start, the_edge, the_pieces
from gentle_hem.core.steps.hollow import PLACES
from gentle_hem.core.steps.let_out import longer
from gentle_hem.core.units import Length
from gentle_hem.core.what import Half, Section, What

MOST = 150.0
"""More is no levelling: the dress is another length (mm)."""

Cut = Annotated[Length, between(-MOST, MOST)]

AROUND = (
    "centre_front", "first_eighth", "first_quarter", "three_eighths", "half_way", "five_eighths", "last_quarter",
    "last_eighth", "centre_back",
)  # fmt: skip
"""The places by the names of their fields, from the centre front to the centre back."""


def _cut_word(label: str) -> Word:
    return length(label, nothing="nothing", help="Less than nothing adds to it.")


class LevelHem(PatternStep):
    """A hem that is level already."""

    title: ClassVar[str] = "Level the hem"
    sentences: ClassVar[tuple[str, ...]] = (
        "The hem of the {part} is levelled as it hung: {centre_front} is cut off it at the centre front, then "
        "{first_eighth}, {first_quarter} and {three_eighths}, {half_way} half-way round, {five_eighths}, "
        "{last_quarter}, {last_eighth}, and {centre_back} at the centre back.",
    )
    words: ClassVar[dict[str, Word]] = {
        "part": PART,
        "centre_front": _cut_word("at the centre front"), "first_eighth": _cut_word("an eighth round"),
        "first_quarter": _cut_word("a quarter round"), "three_eighths": _cut_word("three eighths round"),
        "half_way": _cut_word("half-way round"), "five_eighths": _cut_word("five eighths round"),
        "last_quarter": _cut_word("three quarters round"), "last_eighth": _cut_word("seven eighths round"),
        "centre_back": _cut_word("at the centre back"),
    }  # fmt: skip

    kind: Literal["level_hem"] = "level_hem"
    part: Literal["bodice", "lower"] = "lower"
    on: Literal["both"] = "both"
    centre_front: Cut = 0.0
    first_eighth: Cut = 0.0
    first_quarter: Cut = 0.0
    three_eighths: Cut = 0.0
    half_way: Cut = 0.0
    five_eighths: Cut = 0.0
    last_quarter: Cut = 0.0
    last_eighth: Cut = 0.0
    centre_back: Cut = 0.0

    @property
    def edges(self) -> tuple[EdgeName, ...]:
        return ("hem",)

    def do(self, table: Table) -> None:
        from scipy.interpolate import PchipInterpolator  # here, to keep scipy out of the start

        cut = PchipInterpolator([k / 8 for k in range(9)], [getattr(self, name) for name in AROUND])
        sewn = {(s.piece, s.edge) for seam in table.seams for s in seam.stretches}
        front, back = ([what for what in the_pieces(table, half, "hem")
                        if (what, the_edge(table.pieces[what], "hem").name) not in sewn] for half in Half)  # fmt: skip
        around = [*front, *reversed(back)]
        for piece in (table.pieces[what] for what in around):
            if piece.what.section is Section.TROUSERS:
                raise CannotMake("each leg has a hem of its own")
            if piece.alike:
                raise CannotMake(f"every {piece.name} is cut alike, and its hem would be levelled otherwise in each")
        lengths = [the_edge(table.pieces[what], "hem").drawn_length for what in around]
        before = 0.0
        for what, long in zip(around, lengths, strict=True):
            low, high = before / sum(lengths), (before + long) / sum(lengths)
            ends = (low, high) if what.half is Half.FRONT else (high, low)
            table.redraw(what, self._of(what, ends, lambda share: float(cut(share))))
            before += long

    def _of(self, what: What, ends: tuple[float, float], cut: Callable[[float], float]) -> Callable[[Piece], Piece]:
        """What is done to a piece whose hem reaches, from nearer the centre, from one share of the half round to
        another.
        """

        def levelled(piece: Piece) -> Piece:
            edge = the_edge(piece, "hem")
            before, after = (neighbour(piece, edge.name, at_end=at_end) for at_end in (False, True))
            if piece.darts_of(edge.name):
                raise CannotMake(f"a dart lies in the hem of the {piece.name}")
            low, high = ends if _from_centre(edge, before, after) else ends[::-1]
            moved = {
                before.name: longer(piece, before, -cut(low), at_end=True),
                after.name: longer(piece, after, -cut(high), at_end=False),
            }
            places = [moved[before.name].end]
            for k in range(1, PLACES):
                at, share = edge.path.length * k / PLACES, low + (high - low) * k / PLACES
                places.append(edge.path.point_at(at) + edge.path.tangent_at(at).left * cut(share))
            path = smooth_through([*places, moved[after.name].start])
            times = path.length / edge.path.length
            notches = tuple(replace(n, at=n.at * times) if n.edge == edge.name else n for n in piece.notches)
            return with_paths(replace(piece, notches=notches), {**moved, edge.name: path}, marked=edge.name)

        return levelled


def _from_centre(edge: Edge, before: Edge, after: Edge) -> bool:
    """Whether a hem's path begins at the centre."""
    if before.role.is_centre != after.role.is_centre:
        return before.role.is_centre
    return runs_from_start(edge, "hem")
