"""What lies round the neck or shoulders (trade 8): neck band, cape; an elastic edge, and a belt.

neck band      neck girth + 1 in; cut 2 × finished width
cape           off-shoulder girth, half + ½ in on the fold, ends slanted; the arm spans are left free
elastic        casing = elastic + ease; elastic 0.85-0.9 of the body, always tried on
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.estimates import OFF_SHOULDER, Measures
from gentle_hem.core.findings import Finding, in_recipe, note, warn
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.join import stitched
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import Edge, Finished, Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, seam_of
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.trim.base import Trim
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import (
    CENTRE_BACK,
    CENTRE_FRONT,
    UNNAMED,
    WAIST_CORNERS,
    Half,
    Layer,
    Panel,
    Section,
    Sign,
    What,
)
from gentle_hem.core.workings import Elastic, Ratio, Workings
from gentle_hem.core.workroom import Dressed

SHOULDER = Sign("shoulder")


def neck_of(dress: Dressed) -> Run:
    """The top edge of the styled bodice, half garment, from the centre front to the centre back."""
    found: list[Stretch] = []
    corners = [CENTRE_FRONT]
    for half in Half:
        edges = [
            (piece, edge)
            for piece in dress.outer_upper()
            if piece.what.half is half and not piece.what.other
            for edge in piece.edges
            if edge.role is Role.NECKLINE
        ]
        # a front runs out from its centre, a back in to its own
        outwards = 1.0 if half is Half.FRONT else -1.0
        edges.sort(key=lambda one: outwards * abs(one[1].path.point_at(one[1].path.length / 2).x))
        found += [Stretch(p.what, e.name, _runs_against(e.path, outwards)) for p, e in edges]
        corners += [UNNAMED] * (len(edges) - 1) + ([SHOULDER if half is Half.FRONT else CENTRE_BACK] if edges else [])
    return Run(tuple(found), tuple(corners), "neckline")


def _runs_against(path: Path, outwards: float) -> bool:
    """Whether a neck edge's path runs against the way from the centre front over the shoulder to the centre back."""
    return outwards * (abs(path.end.x) - abs(path.start.x)) < 0


def shoulders_of(dress: Dressed) -> bool:
    """Whether the bodice still has its shoulders."""
    return any(edge.role is Role.SHOULDER for piece in dress.outer_upper() for edge in piece.edges)


class NeckBand(Trim):
    """A neck band or tie, 3 cm wide finished."""

    title: ClassVar[str] = "Neck band"
    sentences: ClassVar[tuple[str, ...]] = (
        "A neck band {width} wide finished, the neck and {more} long, with ties of {ties} at each end.",
    )
    words: ClassVar[dict[str, Word]] = {
        "width": length("finished width"), "more": length("longer than the neck"),
        "ties": length("ties at each end", nothing="nothing"),
    }  # fmt: skip

    kind: Literal["neck_band"] = "neck_band"
    width: Annotated[Length, between(8, 150)] = 30.0
    more: Annotated[Length, between(0, 200)] = inches(1)
    ties: Annotated[Length, between(0, 900)] = 0.0

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("neck band")
        measures = Measures(dress.figure, notes)
        neck = measures.take("neck_girth")
        long = notes.work(
            "neck band",
            neck + self.more + 2 * self.ties,
            "{neck} + {more} + 2 × {ties}",
            neck=neck,
            more=self.more,
            ties=self.ties,
        )
        wide = notes.work(
            "cut width before allowances", 2 * self.width, "2 × {finished_width}", finished_width=self.width
        )
        found = list(measures.findings)
        if self.ties:
            found.append(
                note(
                    "no-cords-for-children",
                    "For a child no ties, cords or drawstrings at the neck; local rules apply.",
                    *in_recipe(where),
                )
            )
        what = dress.free(What(Section.NECK_BAND))
        piece = band_piece(what, float(long), float(wide), dress.allowances.neck, "fold lengthways")
        return dress.with_pieces([piece]).sewn(folded(what)).also(*found)


def folded(what: What) -> Seam:
    """The seam along a band that is folded lengthways."""
    return seam_of(f"{what.name} fold", (what, "edge"), (what, "top"))


def band_piece(what: What, long: float, wide: float, allowance: float, remark: str) -> Piece:
    """A straight strip with an allowance all round, its ends turned in."""
    a, b, c, d = Point(0, 0), Point(long, 0), Point(long, wide), Point(0, wide)
    edges = (
        Edge("edge", Role.FREE, Path.through(a, b), allowance), Edge("end", Role.FREE, Path.through(b, c), allowance),
        Edge("top", Role.FREE, Path.through(c, d), allowance), Edge("start", Role.FREE, Path.through(d, a), allowance),
    )  # fmt: skip
    return Piece(what, edges, remark=remark, grain=(Point(long * 0.3, wide / 2), Point(long * 0.7, wide / 2)))


CAPE_EASE = inches(0.5)
"""A cape is cut half the off-shoulder girth and ½ in, its depth and ½ in: the allowances of its end and of its two
long edges are in these (trade 8)."""


class Cape(Trim):
    """An off-shoulder cape 4 in deep."""

    title: ClassVar[str] = "Off-shoulder cape"
    sentences: ClassVar[tuple[str, ...]] = (
        "An off-shoulder cape {depth} deep, its ends slanted {slant}, attached from centre to centre, the "
        "arm spans free and {spans}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "depth": length("depth"),
        "slant": length("slant of its ends", presets=((inches(1), "1 in"), (inches(1.5), "1 1/2 in"))),
        "spans": choice("over the arms", ("bound", "bound"), ("faced", "faced")),
    }

    kind: Literal["cape"] = "cape"
    depth: Annotated[Length, between(40, 500)] = inches(4)
    slant: Annotated[Length, between(0, 120)] = inches(1.25)
    spans: Literal["bound", "faced"] = "bound"

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("cape")
        if shoulders_of(dress):
            raise CannotMake("it lies off the shoulders, and this bodice has its shoulders; take the top off them")
        girth, found = off_shoulder(dress, notes)
        half = notes.work(
            "cape, half, as cut", girth / 2 + CAPE_EASE, "{girth} ÷ 2 + {more}", girth=girth, more=CAPE_EASE,
            rule="the allowance at its end is in it",
        )  # fmt: skip
        deep = notes.work(
            "cape depth as cut", self.depth + CAPE_EASE, "{depth} + {more}", depth=self.depth, more=CAPE_EASE,
            rule="the allowances of its two long edges are in it",
        )  # fmt: skip
        long, high, a = float(half) - CAPE_EASE, float(deep) - CAPE_EASE, CAPE_EASE / 2
        front, back = (_half_top(dress, each) for each in Half)
        if not front or not back:
            raise CannotMake("this bodice has no top edge to sew it to")
        front_long, back_long = (stitched(run.stretches, dress.pieces) for run in (front, back))
        span = notes.work(
            "free over each arm", long - front_long - back_long, "{cape} − {half_front_top} − {half_back_top}",
            cape=long, half_front_top=front_long, half_back_top=back_long,
        )  # fmt: skip
        if span < 0:
            raise CannotMake("it is shorter than the edge it is sewn to; measure round both arms at its level")
        what = dress.free(What(Section.CAPE))
        edges = (
            Edge("centre front", Role.CENTRE_FRONT, Path.through(Point(0, high), Point(0, 0)), 0.0),
            Edge(
                "hem", Role.HEM, Path.through(Point(0, 0), Point(long - self.slant, 0)), a, False, Finished.BOUND, True
            ),
            Edge("end", Role.CENTRE_BACK, Path.through(Point(long - self.slant, 0), Point(long, high)), CAPE_EASE),
            Edge("top", Role.NECKLINE, Path.through(Point(long, high), Point(0, high)), a, pointed=True),
        )
        marks = tuple(
            Notch("top", at, Sign("arm span"), double=is_back, kind=NotchKind.OPEN)
            for at, is_back in ((back_long, True), (long - front_long, False))
        )
        piece = Piece(
            what, edges, cut=1, on_fold=True, notches=marks,
            remark=f"left free and {self.spans} between the arm notches",
            grain=(Point(20, high * 0.25), Point(20, high * 0.75)),
        )  # fmt: skip
        # the cape's top runs from its end to the centre front
        own_front = Stretch(what, "top", True, long - front_long, None)
        own_back = Stretch(what, "top", True, 0.0, back_long)
        if self.spans == "faced":
            dress = self._faced(dress, what, back_long, long - front_long)
        return (
            dress.with_pieces([piece])
            .sewn(
                Seam(f"{what.name} seam, front", front, Run((own_front,), called="cape")),
                Seam(f"{what.name} seam, back", back, Run((own_back,), called="cape")),
            )
            .also(*found)
        )

    @staticmethod
    def _faced(dress: Dressed, what: What, start: float, end: float) -> Dressed:
        """The garment with the facings of the spans over the arms: straight strips sewn to the cape's top there."""
        facing = what.as_layer(Layer.FACING).as_panel(Panel.SPAN)
        span, a = end - start, CAPE_EASE / 2
        if span < 1:
            return dress
        p, q, r, s = Point(0, 0), Point(span, 0), Point(span, SPAN_FACING), Point(0, SPAN_FACING)
        edges = (
            Edge("inner edge", Role.PANEL, Path.through(p, q)), Edge("end", Role.FREE, Path.through(q, r)),
            Edge("top", Role.NECKLINE, Path.through(r, s), a), Edge("start", Role.FREE, Path.through(s, p)),
        )  # fmt: skip
        strip = Piece(facing, edges, cut=2, grain=(Point(0.3 * span, 10), Point(0.7 * span, 10)))
        on_cape = Run((Stretch(what, "top", False, start, end),), called="cape")
        return dress.with_pieces([strip]).sewn(
            Seam(f"{what.name} facing seam", on_cape, Run((Stretch(facing, "top"),), called="facing"))
        )


SPAN_FACING = 35.0
"""The facing of a cape's free spans is 3.5 cm wide: common practice (mm)."""


def off_shoulder(dress: Dressed, notes: Workings) -> tuple[float, list[Finding]]:
    """Round both arms at the off-shoulder level: measured, or estimated and said so."""
    girth = dress.figure.get("off_shoulder_girth")
    if girth is not None:
        return girth, []
    bust = Measures(dress.figure, notes).take("bust_girth")
    worked = notes.work(
        "off-shoulder girth (estimated)", bust * OFF_SHOULDER, "{bust} × {share}",
        rule="a rule of thumb; confirm at fitting", bust=bust, share=Ratio(OFF_SHOULDER),
    )  # fmt: skip
    return worked, [
        note(
            "measure-estimated", "The off-shoulder girth was not measured: {value} is estimated, confirm at fitting.",
            *in_recipe("figure.measures.off_shoulder_girth"), value=float(worked),
        )
    ]  # fmt: skip


def _half_top(dress: Dressed, half: Half) -> Run:
    """The top edge of a bare bodice's front or back."""
    return Run(tuple(s for s in neck_of(dress).stretches if s.piece.half is half), called="top edge")


class ElasticCasing(Trim):
    """An elastic casing 2 cm wide at the waist, the elastic 0.88 of the body."""

    title: ClassVar[str] = "Elastic casing"
    sentences: ClassVar[tuple[str, ...]] = (
        "An elastic casing for elastic {width} wide {place}; the elastic is {share} of the body.",
    )
    words: ClassVar[dict[str, Word]] = {
        "width": length("width of the elastic"),
        "place": choice(
            "where it lies",
            ("waist", "at the waist"),
            ("under_bust", "under the bust"),
            ("off_shoulder", "off the shoulder"),
            ("back_top", "at the top of the back, turned from its own edge"),
        ),
        "share": number("share of the body", (0.85, "0.85"), (0.88, "0.88"), (0.9, "0.9")),
    }

    kind: Literal["elastic"] = "elastic"
    width: Annotated[Length, between(4, 80)] = 20.0
    place: Literal["waist", "under_bust", "off_shoulder", "back_top"] = "waist"
    share: Annotated[float, number_between(0.6, 1, "of the body")] = 0.88

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("elastic")
        if self.place == "back_top":
            return self._turned(dress, notes)
        body, found = self._body(dress, notes)
        elastic = notes.work(
            "elastic",
            body * self.share,
            "{body} × {share}",
            rule="always tried on",
            body=body,
            share=Ratio(self.share),
            buys=Elastic(),
        )
        wide = notes.work(
            "casing",
            self.width + CASING_EASE,
            "{elastic} + {ease}",
            rule="finished inside",
            elastic=self.width,
            ease=CASING_EASE,
        )
        edge = self._edge(dress)
        half = stitched(edge.stretches, dress.pieces)
        long = notes.work(
            "casing length", 2 * half, "2 × {half_edge}", rule="as long as the edge it is stitched to", half_edge=half
        )
        if elastic > long:
            found.append(
                warn(
                    "elastic-longer-than-edge",
                    "The elastic of {elastic} is longer than the edge of {edge} that it is to draw in.",
                    *in_recipe(f"{where}.share"), elastic=float(elastic), edge=float(long),
                )
            )  # fmt: skip
        what = dress.free(What(Section.CASING))
        piece = band_piece(what, float(long), float(wide), 8.0, "stitched down along both edges")
        own = Run((Stretch(what, "edge", end=float(long) / 2),), (edge.corners[0], edge.corners[-1]), "casing", long)
        return dress.with_pieces([piece]).sewn(Seam(f"{what.name} seam", edge, own)).also(*found)

    def _turned(self, dress: Dressed, notes: Workings) -> Dressed:
        """The casing grown on to the back's top edge: folded over the elastic and stitched down."""
        edge = _half_top(dress, Half.BACK)
        if not edge:
            raise CannotMake("the back has no top edge")
        if any(
            s.piece == x.piece and s.edge == x.edge for seam in dress.seams for s in seam.stretches
            for x in edge.stretches
        ):  # fmt: skip
            raise CannotMake("the top of the back is sewn to something already")
        long = notes.work(
            "top of the back", 2 * stitched(edge.stretches, dress.pieces), "both halves of it, measured"
        )  # fmt: skip
        notes.work(
            "elastic",
            long * self.share,
            "{edge} × {share}",
            rule="always tried on",
            edge=long,
            share=Ratio(self.share),
            buys=Elastic(),
        )
        grown = notes.work(
            "grown on for the casing", self.width + CASING_EASE + TURNED_IN, "{elastic} + {ease} + {turned_in}",
            elastic=self.width, ease=CASING_EASE, turned_in=TURNED_IN,
        )  # fmt: skip
        changed = []
        for what in edge.pieces:
            names = {s.edge for s in edge.stretches if s.piece == what}
            piece = dress.pieces[what]
            edges = tuple(
                replace(e, allowance=float(grown), turned=True, finished=Finished.FOLDED) if e.name in names else e
                for e in piece.edges
            )
            changed.append(replace(piece, edges=edges))
        return dress.with_pieces(changed)

    def _body(self, dress: Dressed, notes: Workings) -> tuple[float, list[Finding]]:
        if self.place == "off_shoulder":
            return off_shoulder(dress, notes)
        measures = Measures(dress.figure, notes)
        body = measures.take("waist_girth" if self.place == "waist" else "under_bust_girth")
        return body, list(measures.findings)

    def _edge(self, dress: Dressed) -> Run:
        """The edge it is stitched along, from the centre front to the centre back. Raises CannotMake."""
        if self.place == "off_shoulder":
            if shoulders_of(dress):
                raise CannotMake("the bodice has its shoulders; take the top off them")
            if not neck_of(dress):
                raise CannotMake("this bodice has no top edge to stitch it along")
            return neck_of(dress)
        above = dress.above
        if above is None or dress.cut_in_one:
            raise CannotMake("this garment has no seam there to stitch it along; join it at that level")
        ends_there = abs(above.level) < LEVEL if self.place == "waist" else above.level < -LEVEL
        if ends_there:
            return above.run
        midriff = tuple(
            Stretch(piece.what, "under bust", backwards=True)
            for piece in dress.outer_upper()
            if piece.what.panel is Panel.MIDRIFF
        )
        if self.place == "under_bust" and len(midriff) == len(Half):
            return Run(midriff, WAIST_CORNERS, "midriff")
        raise CannotMake("the bodice has no seam at that level to stitch it along")


CASING_EASE = 4.0
"""A casing is 4 mm wider than its elastic: common practice."""

TURNED_IN = 8.0
"""A casing's own edge is turned in by 8 mm (mm): common practice."""

LEVEL = 10.0
"""A seam within 1 cm of the waist is at the waist (mm)."""


class Belt(Trim):
    """A belt 4 cm wide, the waist and 25 cm long."""

    title: ClassVar[str] = "Belt"
    sentences: ClassVar[tuple[str, ...]] = ("A belt {width} wide finished, the waist and {more} long.",)
    words: ClassVar[dict[str, Word]] = {"width": length("finished width"), "more": length("longer than the waist")}

    kind: Literal["belt"] = "belt"
    width: Annotated[Length, between(10, 200)] = 40.0
    more: Annotated[Length, between(0, 1500)] = Field(250.0, description="For the overlap, or for ties.")

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("belt")
        measures = Measures(dress.figure, notes)
        waist = measures.take("waist_girth")
        long = notes.work("belt", waist + self.more, "{waist} + {more}", waist=waist, more=self.more)
        what = dress.free(What(Section.BELT))
        piece = band_piece(what, float(long), 2 * self.width, dress.allowances.panel, "fold lengthways")
        return dress.with_pieces([piece]).sewn(folded(what)).also(*measures.findings)
