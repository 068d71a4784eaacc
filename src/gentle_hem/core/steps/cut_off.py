"""A piece cut off along a line: the part above it, as for a bare top, or the part below; front and back apart."""

from typing import ClassVar, Literal

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.cutting.table import Table
from gentle_hem.core.findings import Place, warn
from gentle_hem.core.pattern import Finished, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Seam
from gentle_hem.core.sentences import Word, choice
from gentle_hem.core.steps.base import EdgeName, Share, edge_of, seen_from_centre
from gentle_hem.core.steps.line import AlongALine
from gentle_hem.core.what import Half, Layer, What

GONE = 99
"""The number by which the part that goes is told from the one that stays while it is cut off."""


class CutOff(AlongALine):
    """The back cut off above a line from the centre to the middle of the armhole."""

    title: ClassVar[str] = "Cut off along a line"
    sentences: ClassVar[tuple[str, ...]] = (
        "The {part}, {on}, is cut off {which} a line from the {start}, {start_share} of its way, to the {end}, "
        "{end_share} of its way, bowed {bow}, meeting the edges {ends}.",
    )
    words: ClassVar[dict[str, Word]] = {
        **AlongALine.line_words, "which": choice("which part goes", ("above", "above"), ("below", "below")),
    }  # fmt: skip

    sided: ClassVar[bool] = True

    kind: Literal["cut_off"] = "cut_off"
    on: Literal["front", "back", "both"] = "back"
    start: EdgeName = "centre"
    start_share: Share = 0.3
    end: EdgeName = "armhole"
    which: Literal["above", "below"] = "above"

    def do(self, table: Table) -> None:
        before = list(table.seams)
        for what in self.whats(table):
            self._cut(table, what)
        for seam in before:
            if seam not in table.seams:
                self._left_alone(table, seam)

    def _cut(self, table: Table, what: What) -> None:
        if any(other.layer is Layer.FACING and other.half is what.half for other in table.pieces):
            raise CannotMake(f"the {what.half} has a facing, cut to its edge as it is; leave the facing out first")
        piece = seen_from_centre(table.pieces[what])
        line = self.drawn_on(piece)
        edge, role = ("top edge", Role.NECKLINE) if self.which == "above" else ("lower edge", Role.HEM)
        if self.which == "above" and not {"centre", "neckline", "armhole"} & {self.start, self.end}:
            edge, role = "armhole", Role.ARMHOLE  # the armhole and what lies beside it: the arm comes out there anew
        made = line.cut(piece, (what, replace(what, number=GONE)), edge, role, table.allowances.neck)
        kept = min(made.earlier, made.later, key=lambda one: self._height(one.seam_line.box))
        if piece.bust_point and kept.seam_line.box[3] < piece.bust_point.y:
            raise CannotMake("it would be cut off below the bust point")
        kept = replace(kept, what=what, cut=piece.cut)
        hem = edge_of(piece, "hem")
        if self.which == "below" and hem is not None:
            as_hem = {"name": hem.name, "allowance": hem.allowance, "turned": hem.turned}
            kept = replace(kept, edges=tuple(replace(e, **as_hem) if e.name == edge else e for e in kept.edges))
        else:
            kept = kept.with_edge(edge, finished=Finished.BOUND)
        if any(run.stretches and not all(self._is_there(s.piece, s.edge, what, kept.edges) for s in run.stretches)
               for run in table.runs.values()):  # fmt: skip
            raise CannotMake("the edge that the rest of the garment hangs from would be cut off")
        table.seams = [
            seam for seam in table.seams
            if all(self._is_there(s.piece, s.edge, what, kept.edges) for s in seam.stretches)
        ]  # fmt: skip
        table.put(mirrored(kept) if what.half is Half.BACK else kept)
        table.unspread.pop(what, None)

    def _left_alone(self, table: Table, seam: Seam) -> None:
        """What is left of a seam whose other side was cut off is turned under, and said."""
        for stretch in seam.stretches:
            piece = table.pieces.get(stretch.piece)
            if piece is None or piece.at_edge(stretch.edge) is None or piece.edge(stretch.edge).allowance == 0:
                continue
            table.put(piece.with_edge(stretch.edge, finished=Finished.TURNED))
            table.findings.append(
                warn(
                    "edge-left-alone",
                    "The {edge} of the {piece} is sewn to nothing any more and is turned under: what it was sewn to is "
                    "cut off. Sew a strap to it, or cut it off as well.",
                    Place(piece=piece.name, edge=stretch.edge), edge=stretch.edge, piece=piece.name,
                )
            )  # fmt: skip

    def _height(self, box: tuple[float, float, float, float]) -> float:
        """Lower for the part that stays."""
        middle = (box[1] + box[3]) / 2
        return middle if self.which == "above" else -middle

    @staticmethod
    def _is_there(piece: What, edge: str, cut: What, edges: tuple[object, ...]) -> bool:
        return piece != cut or any(getattr(one, "name", "") == edge for one in edges)
