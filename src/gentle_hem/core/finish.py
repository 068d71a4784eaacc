"""Lining and interfacing: the outer pieces cut again (trade 11, 12).

outer piece ──► lining, the same seam lines, its hem ½ in shorter
facing, collar, band ──► interfacing, as they are
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import ClassVar, Literal

from gentle_hem.core.parts import RecipePart
from gentle_hem.core.pattern import Edge, Finished, MarkKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, of_pieces
from gentle_hem.core.sentences import Word, choice
from gentle_hem.core.style.fronts import without_stand
from gentle_hem.core.units import inches
from gentle_hem.core.what import Layer, Panel, Section, What
from gentle_hem.core.workroom import Dressed

LINING_SHORTER = inches(0.5)
"""A lining's hem is ½ in shorter than the outer's: common practice (trade 11)."""

STIFFENED = (Section.WAISTBAND, Section.COLLAR)
"""What is interfaced beside the facings."""


def _is_lined(what: What) -> bool:
    """Whether a dress lined all through is lined there: straps, bands and collars are doubled, trims hang free."""
    section = what.section
    if what.panel in (Panel.STRAP, Panel.LACING, Panel.MODESTY):
        return False
    return section.is_upper or section.is_lower or section is Section.SLEEVE


class Finish(RecipePart):
    """The whole dress lined, facings and bands interfaced."""

    title: ClassVar[str] = "Finish"
    sentences: ClassVar[tuple[str, ...]] = ("The dress is {lining}; its facings, collars and bands are {interfacing}.",)
    words: ClassVar[dict[str, Word]] = {
        "lining": choice(
            "lining", ("none", "not lined"), ("bodice", "lined in the bodice"), ("whole", "lined all through")
        ),
        "interfacing": choice("interfacing", ("none", "not interfaced"), ("interfaced", "interfaced")),
    }

    lining: Literal["none", "bodice", "whole"] = "none"
    interfacing: Literal["none", "interfaced"] = "none"

    def on(self, dress: Dressed) -> Dressed:
        """The garment with its lining and interfacing: lining sewn as the outer is, and to it where it ends alone."""
        lined = [piece for piece in dress.pieces.values() if self._lines(piece.what) and not _in_its_left(piece, dress)]
        stiffened = [
            replace(
                piece, what=piece.what.as_layer(Layer.INTERFACING),
                edges=tuple(replace(edge, finished=Finished.FUSED) for edge in piece.edges),
            )
            for piece in dress.pieces.values()
            if self.interfacing == "interfaced"
            and (piece.what.layer is Layer.FACING or piece.what.section in STIFFENED)
        ]  # fmt: skip
        linings = [_lining(dress.unspread.get(piece.what, piece), dress.allowances.panel) for piece in lined]
        made = dress.with_pieces([*linings, *stiffened])
        return made.sewn(*_lining_seams(dress, lined, linings))

    def _lines(self, what: What) -> bool:
        wanted = self.lining == "whole" or (self.lining == "bodice" and what.section.is_upper)
        return wanted and what.layer is Layer.OUTER and _is_lined(what)


def _in_its_left(piece: Piece, dress: Dressed) -> bool:
    """Whether the lining of a right piece is part of the left's, which is cut whole, on the fold."""
    flat = dress.unspread.get(replace(piece.what, other=False))
    return piece.turned_over and flat is not None and flat.on_fold


def _lining(outer: Piece, allowance: float) -> Piece:
    piece = without_stand(outer, allowance)
    edges = tuple(
        replace(edge, allowance=max(edge.allowance - LINING_SHORTER, 0.0)) if edge.role is Role.HEM else edge
        for edge in piece.edges
    )
    hemmed = any(edge.role is Role.HEM for edge in piece.edges)
    remark = "hem 1/2 in shorter than the outer" if hemmed else ""
    return replace(
        piece, what=piece.what.as_layer(Layer.LINING), edges=edges, remark=remark,
        marks=tuple(mark for mark in piece.marks if mark.kind is MarkKind.DART),
    )  # fmt: skip


def _lining_seams(dress: Dressed, lined: list[Piece], linings: list[Piece]) -> list[Seam]:
    """The outer's seams again between lined pieces; every other edge of the lining is sewn to the outer's own."""
    own = {(piece.what, edge.name): edge for piece in linings for edge in piece.edges}
    seams = [
        replace(seam, title=f"{seam.name} of the lining", repeats=seam.name, a=_of_lining(seam.a), b=_of_lining(seam.b))
        for seam in of_pieces(dress.seams, {piece.what for piece in lined})
    ]
    whole = {
        (piece.what.as_layer(Layer.LINING), edge.name): edge
        for piece in lined
        for edge in piece.edges
        if piece.what not in dress.unspread
    }
    left = {key: whole[key].drawn_length - edge.drawn_length for key, edge in own.items() if key in whole}
    seams = [_level(seam, left, own) for seam in seams if all((x.piece, x.edge) in own for x in seam.stretches)]
    sewn = {(stretch.piece, stretch.edge) for seam in seams for stretch in seam.stretches}
    for outer, lining in zip(lined, linings, strict=True):
        seams += [
            _to_outer(outer, lining, edge)
            for edge in lining.edges
            if edge.allowance > 0 and edge.role not in ALONE and edge.finished is None
            if (lining.what, edge.name) not in sewn
        ]
    return seams


def _level(seam: Seam, left: Mapping[tuple[What, str], float], own: Mapping[tuple[What, str], Edge]) -> Seam:
    """A lining's seam where one side has been left shorter at its first end, by a stand: the other begins there too."""
    firsts = seam.a.stretches[0], seam.b.stretches[0]
    over = left.get((firsts[0].piece, firsts[0].edge), 0.0) - left.get((firsts[1].piece, firsts[1].edge), 0.0)
    if abs(over) < 1e-6:
        return seam
    run, stretch = (seam.b, firsts[1]) if over > 0 else (seam.a, firsts[0])
    less = abs(over) * (seam.fullness if over > 0 else 1 / seam.fullness)
    whole = own[(stretch.piece, stretch.edge)].drawn_length
    shorter = replace(stretch, end=whole - less) if stretch.backwards else replace(stretch, start=less)
    made = replace(run, stretches=(shorter, *run.stretches[1:]))
    return replace(seam, b=made) if over > 0 else replace(seam, a=made)


def _to_outer(outer: Piece, lining: Piece, edge: Edge) -> Seam:
    """An edge of a lining on the outer's own; where a stand was left off it, on as much of it as it has."""
    over = outer.edge(edge.name).drawn_length - edge.drawn_length
    stretch = Stretch(outer.what, edge.name)
    if over > 1e-6:
        same_start = outer.edge(edge.name).path.start.distance(edge.path.start) < 1e-6
        stretch = replace(stretch, end=edge.drawn_length) if same_start else replace(stretch, start=over)
    return Seam(f"{lining.name} to its {edge.name}", Run((stretch,)), Run((Stretch(lining.what, edge.name),)))


ALONE = (Role.HEM, Role.CENTRE_FRONT, Role.CENTRE_BACK)
"""A lining's hem hangs by itself; its centres are closed like any pair's."""


def _of_lining(run: Run) -> Run:
    return replace(run, stretches=tuple(replace(s, piece=s.piece.as_layer(Layer.LINING)) for s in run.stretches))
