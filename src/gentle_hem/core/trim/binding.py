"""Edges bound in bias: the strip that goes round them, as long as they are, and the cloth it is cut from.

     ╭──╮          cut 4 × the finished width (it is folded in, and over the edge): common practice
edge │▒▒│ strip    the bound edge is cut on its finished line, without an allowance
     ╰──╯
"""

from math import sqrt
from typing import Annotated, ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.join import stitched
from gentle_hem.core.parts import between
from gentle_hem.core.pattern import Finished, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.strips import along_strip, bias_strip
from gentle_hem.core.trim.base import Trim, Turn
from gentle_hem.core.trim.faced_slit import ZIP_HALF
from gentle_hem.core.trim.neck import neck_of
from gentle_hem.core.trim.sleeve import armhole_of
from gentle_hem.core.units import Length
from gentle_hem.core.what import Half, Section, What
from gentle_hem.core.workings import Worked, Workings
from gentle_hem.core.workroom import Dressed

JOIN = 20.0
"""A bias strip is cut so much longer than its edge, for the join of its two ends (mm)."""

CALLED = {"neckline": "neckline", "armholes": "armhole", "hem": "hem"}


class BiasBinding(Trim):
    """The armholes bound in bias 8 mm wide."""

    turn: ClassVar[Turn] = Turn.ON_WHAT_IS_THERE
    title: ClassVar[str] = "Bias binding"
    sentences: ClassVar[tuple[str, ...]] = ("The {edge} bound in bias, {width} wide finished.",)
    words: ClassVar[dict[str, Word]] = {
        "edge": choice("what is bound", ("neckline", "neckline is"), ("armholes", "armholes are"), ("hem", "hem is")),
        "width": length("finished width"),
    }

    kind: Literal["bias_binding"] = "bias_binding"
    edge: Literal["neckline", "armholes", "hem"] = "neckline"
    width: Annotated[Length, between(3, 60)] = 8.0

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("binding")
        run = self._edge_of(dress)
        if not run:
            raise CannotMake(f"there is no {CALLED[self.edge]} to bind")
        sewn = {(s.piece, s.edge) for seam in dress.seams for s in seam.stretches}
        for stretch in run.stretches:
            edge = dress.pieces[stretch.piece].edge(stretch.edge)
            if (stretch.piece, stretch.edge) in sewn or edge.finished is Finished.FACED:
                raise CannotMake(f"the {stretch.edge} of the {stretch.piece.name} is sewn to something already")
        times = 1 if self.edge == "armholes" else 2
        half = stitched(run.stretches, dress.pieces)
        edge_long = notes.work(
            f"{CALLED[self.edge]}, bound", times * half, "the edge on its finished line, measured"
        )  # fmt: skip
        wide = notes.work("strip cut wide", 4 * self.width, "4 × {finished_width}", finished_width=self.width)
        whole, strips = self._strip(edge_long, notes)
        notes.work(
            "a square of cloth for it", sqrt(whole * wide), "√({length} × {width})",
            rule="cut as one continuous bias strip; a little more for its seams", length=whole, width=wide,
        )  # fmt: skip
        what = dress.free(What(Section.BINDING))
        open_ended = self._is_open(dress, run)
        piece = bias_strip(
            what, float(edge_long), float(wide),
            "its ends turned in at the opening" if open_ended else "joined to a ring to measure", times=strips,
        )  # fmt: skip
        own = along_strip(piece, half, "binding", edge_long)
        bound = [self._bound(dress.pieces[w], {s.edge for s in run.stretches if s.piece == w}) for w in run.pieces]
        dress = dress.with_pieces([*bound, piece]).sewn(Seam(f"{what.name} seam", run, own))
        return (
            dress
            if open_ended and piece.cut == 1
            else dress.sewn(seam_of(f"{what.name} ends", (what, "start"), (what, "end")))
        )

    def _is_open(self, dress: Dressed, run: Run) -> bool:
        """Whether the edge it binds ends at an opening: a zip, a button stand, or a slit."""
        if self.edge != "neckline":
            return False
        stand = any("stand top" in (e.name for e in dress.pieces[w].edges) for w in run.pieces)
        return dress.opening.place in ZIP_HALF or stand or dress.neck_opened > 0

    def _strip(self, edge_long: Worked, notes: Workings) -> tuple[Worked, int]:
        """How long the strip is cut altogether, and how many strips it is."""
        strips = 2 if self.edge == "armholes" else 1
        each = "({edge} + {join})" if strips == 1 else "2 × ({edge} + {join})"
        return notes.work("bias needed", strips * (edge_long + JOIN), each, edge=edge_long, join=JOIN), strips

    def _edge_of(self, dress: Dressed) -> Run:
        if self.edge == "neckline":
            return replace(neck_of(dress), corners=())
        if self.edge == "hem":
            return replace(dress.hem, corners=(), called="hem")
        holes = [_armhole(dress, half) for half in Half]
        if not all(holes):
            return Run()
        back = tuple(replace(s, backwards=not s.backwards) for s in reversed(holes[1].stretches))
        return Run((*holes[0].stretches, *back), called="armhole")

    @staticmethod
    def _bound(piece: Piece, names: set[str]) -> Piece:
        edges = tuple(
            replace(e, allowance=0.0, turned=False, finished=Finished.BOUND) if e.name in names else e
            for e in piece.edges
        )
        return replace(piece, edges=edges)


def _armhole(dress: Dressed, half: Half) -> Run:
    """The armhole of a half from the underarm up; of a bare top, what is left of it."""
    hole = armhole_of(dress, half)
    if hole:
        return replace(hole, corners=())
    pieces = [p for p in dress.outer_upper() if p.what.half is half and not p.what.other]
    edges = [(p, e) for p in pieces for e in p.edges if e.role is Role.ARMHOLE and e.name == "armhole"]
    edges.sort(key=lambda one: one[1].path.point_at(one[1].path.length / 2).y)
    return Run(tuple(Stretch(p.what, e.name, e.path.start.y > e.path.end.y) for p, e in edges), called="armhole")
