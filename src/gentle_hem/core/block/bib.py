"""A bib and band: the upper half of a pinafore (trade 5, 8), hung from straps.

     strap     strap
       ╲ _____ ╱
        │ bib │
┌───────┴──┬──┴───────┐
│   band, CF to CB    │    the lower part hangs from the band's lower edge; its width counts
└─────────────────────┘
"""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.block.quarters import WAIST_EASES, Ease
from gentle_hem.core.block.shape import block_seams
from gentle_hem.core.cutting.mirror import mirrored
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import Figure
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.parts import Allowances, BodiceMade, BodicePart, Opening, OpeningPlace, between, bodice_edge
from gentle_hem.core.pattern import Edge, Notch, NotchKind, Piece, Role
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.style.tops import OVER_THE_SHOULDER, strip
from gentle_hem.core.units import Length
from gentle_hem.core.what import BODICE_BACK, BODICE_FRONT, Half, Panel, Section, Sign, What
from gentle_hem.core.workings import Workings

BIB = What(Section.BODICE, Half.FRONT, Panel.BIB)
STRAP = What(Section.BODICE, panel=Panel.STRAP)


class BibBodice(BodicePart):
    """A bib 22 cm high over a band 4 cm wide, with straps that cross behind."""

    title: ClassVar[str] = "Bib and band"
    sentences: ClassVar[tuple[str, ...]] = (
        "A bib {height} high, {top} wide at the top and {bottom} at the band; the band is {band} wide, "
        "{waist_ease} easier "
        "than the waist; straps {strap} wide cross behind.",
    )
    words: ClassVar[dict[str, Word]] = {
        "height": length("height of the bib"),
        "top": length("width of the bib at the top"),
        "bottom": length("width of the bib at the band"),
        "band": length("width of the band"),
        "waist_ease": length("waist ease", presets=WAIST_EASES),
        "strap": length("width of the straps"),
    }

    kind: Literal["bib"] = "bib"
    height: Annotated[Length, between(60, 450)] = 220.0
    top: Annotated[Length, between(60, 500)] = 200.0
    bottom: Annotated[Length, between(60, 600)] = 260.0
    band: Annotated[Length, between(15, 150)] = 40.0
    waist_ease: Ease = Field(20.0, description="Ease round the whole waist.")
    strap: Annotated[Length, between(15, 120)] = 35.0

    def waist_words(self) -> dict[str, tuple[float, float]]:
        return {"bodice.waist_ease": (self.waist_ease, 1.0)}

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> BodiceMade:
        notes = notes.about("bib")
        measures = Measures(figure, notes)
        waist = measures.take("waist_girth")
        whole = notes.work(
            "bodice waist", waist + self.waist_ease, "{waist} + {ease}", waist=waist, ease=self.waist_ease
        )
        front_length, back_length = measures.take("front_waist_length"), measures.take("back_waist_length")
        span = notes.work(
            "strap",
            max(front_length - self.height - self.band, 20.0) + back_length + 0.35 * waist / 2 + OVER_THE_SHOULDER,
            "({front_length} − {bib} − {band}) + {back_length} + {across} + {over}",
            rule="over the shoulder and across to the other side of the back",
            front_length=front_length,
            bib=self.height,
            band=self.band,
            back_length=back_length,
            across=0.35 * waist / 2,
            over=OVER_THE_SHOULDER,
        )
        quarter = float(whole) / 4
        half_bib = min(self.bottom / 2, quarter - 5)
        zip_at_back = opening.place is OpeningPlace.CENTRE_BACK
        pieces = (
            self._band(BODICE_FRONT, quarter, half_bib, allowances, False),
            self._band(BODICE_BACK, quarter, half_bib, allowances, zip_at_back),
            self._bib(half_bib, allowances),
            strip(STRAP, float(span), 2 * self.strap, allowances.panel, cut=2, remark="folded lengthways"),
        )
        seams = (
            *block_seams((pieces[0], pieces[1])),
            seam_of("bib seam", (BODICE_FRONT, "under bib"), (BIB, "foot")),
            seam_of("strap fold", (STRAP, "edge"), (STRAP, "top")),
            *self._strap_ends(pieces),
        )
        return BodiceMade(pieces, seams, bodice_edge(whole), findings=tuple(measures.findings))

    def _strap_ends(self, pieces: tuple[Piece, ...]) -> list[Seam]:
        """Each strap's ends, folded to their width, on the bib's top and on the back of the band."""
        seams = []
        for piece, end in ((pieces[2], "end"), (pieces[1], "start")):
            notch = next(n for n in piece.notches if n.kind is NotchKind.STRAP)
            above = Stretch(piece.what, notch.edge, False, notch.at - self.strap / 2, notch.at + self.strap / 2)
            under = Stretch(STRAP, end, True, 0.0, self.strap)
            seams.append(Seam(f"strap to the {piece.name}", Run((above,)), Run((under,))))
        return seams

    def _band(self, what: What, long: float, bib: float, allowances: Allowances, zip_at_centre: bool) -> Piece:
        """A half band, its centre on the left; the front's upper edge is parted where the bib stands."""
        low, high, is_front = -self.band, 0.0, what.half is Half.FRONT
        role = Role.CENTRE_FRONT if is_front else Role.CENTRE_BACK
        top = [
            Edge(
                "top",
                Role.FREE,
                Path.through(Point(long, high), Point(bib if is_front else 0.0, high)),
                allowances.panel,
            )
        ]
        if is_front:
            top.append(Edge("under bib", Role.PANEL, Path.through(Point(bib, high), Point(0, high)), allowances.panel))
        edges = (
            Edge("waist", Role.WAIST, Path.through(Point(0, low), Point(long, low)), allowances.waist),
            Edge("side", Role.SIDE, Path.through(Point(long, low), Point(long, high)), allowances.side),
            *top,
            Edge(
                str(role),
                role,
                Path.through(Point(0, high), Point(0, low)),
                allowances.zip if zip_at_centre else 0.0,
                turned=zip_at_centre,
            ),
        )
        marks = [Notch("waist", long / 2, double=not is_front)]
        if not is_front:
            marks.append(Notch("top", long / 2, Sign("strap"), kind=NotchKind.STRAP))
        piece = Piece(
            what,
            edges,
            cut=2 if zip_at_centre else 1,
            on_fold=not zip_at_centre,
            remark="the band; cut again to face it",
            notches=tuple(marks),
            grain=(Point(long * 0.25, -self.band / 2), Point(long * 0.75, -self.band / 2)),
        )
        return piece if is_front else mirrored(piece)

    def _bib(self, half: float, allowances: Allowances) -> Piece:
        top = min(self.top / 2, half + 120)
        edges = (
            Edge("foot", Role.PANEL, Path.through(Point(0, 0), Point(half, 0)), allowances.panel),
            Edge("bib side", Role.FREE, Path.through(Point(half, 0), Point(top, self.height)), allowances.panel),
            Edge("bib top", Role.FREE, Path.through(Point(top, self.height), Point(0, self.height)), allowances.panel),
            Edge("centre front", Role.CENTRE_FRONT, Path.through(Point(0, self.height), Point(0, 0)), 0.0),
        )
        return Piece(
            BIB, edges, on_fold=True,
            notches=(Notch("bib top", self.strap / 2 + 1, Sign("strap"), kind=NotchKind.STRAP),),
            grain=(Point(18, self.height * 0.25), Point(18, self.height * 0.75)),
        )  # fmt: skip
