"""Set-in sleeves (trade 8), plain and puffed, their caps walked against the armhole of the styled bodice.

         top
       ╭──┴──╮           the slanted line from top to underarm; the curve crosses it at its middle, above it in
     ╱    │    ╲         the upper half and below it in the lower, the front hollower than the back
────╯     │ cap  ╰────   underarm
     ╲    │    ╱
      └───┴───┘ hem
"""

from __future__ import annotations

from collections.abc import Mapping
from math import hypot, sqrt
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.cutting.mirror import MIRROR
from gentle_hem.core.estimates import Measures
from gentle_hem.core.figure import MeasureKey
from gentle_hem.core.findings import Finding, Remedy, in_recipe, stop, warn
from gentle_hem.core.geometry import Cubic, Line, Path, Placement, Point
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.geometry.root import root
from gentle_hem.core.join import closed, stitched
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import Edge, Finished, Notch, NotchKind, Piece, Role
from gentle_hem.core.seams import Manner, Run, Seam, Stretch, seam_of
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.trim.base import Trim
from gentle_hem.core.trim.neck import CASING_EASE, TURNED_IN
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import Half, Section, Sign, What
from gentle_hem.core.workings import Elastic, Ratio, Workings
from gentle_hem.core.workroom import Dressed

FLATTEST, LEAST_CAP, MOST_CAP = 20.0, 30.0, 0.9
"""How low a cap is ever drawn and how high it is at least (mm), and how high at most, as a share of either half."""

ABOVE, FRONT_BELOW, BACK_BELOW = inches(0.5), inches(0.75), inches(0.375)
"""The cap curve lies ½ in above its slanted line in the upper half, ⅜-¾ in below in the lower: common practice."""

STEEPER = (0.3, 0.4, 0.5, 0.65, 0.8)
"""By how much more than the slanted line a cap rises half-way: by 3 in 10, or as much as it takes to turn but once."""

LONGEST_HANDLE = 0.55
"""The handles of a cap's curves reach over so much of the chord, or they would turn back."""

LEAST_CAP_EASE, MOST_CAP_EASE = 20.0, 40.0
"""Cap ease 2-4 cm: common practice (trade 8, 9.1)."""


ELASTIC_SHARE = 0.95
"""A sleeve's elastic is a little shorter than the arm: from memory, and tried on."""

ABOVE_ELBOW = 330.0
"""A shorter sleeve ends above the elbow, and its elastic lies round the upper arm (mm)."""


class Sleeve(Trim):
    """A plain set-in sleeve, 58 cm long, cap ease 2.5 cm."""

    title: ClassVar[str] = "Sleeves"
    sentences: ClassVar[tuple[str, ...]] = (
        "{style} sleeves {length} long, {ease} of ease round the upper arm, {cap_ease} eased into the armhole, the cap "
        "{cap_height} high, {wrist} round the hem, {elastic}[elastic=0.0:, hem {hem}].",
        "[style=puff:A puff is spread {spread} at each of {cuts} cuts and {rise} higher.]",
    )
    words: ClassVar[dict[str, Word]] = {
        "style": choice("sleeve", ("plain", "Plain set-in"), ("puff", "Puff")),
        "length": length("sleeve length", help="From the shoulder tip."),
        "ease": length("ease round the upper arm", presets=((inches(2), "2 in"), (40.0, "4 cm"))),
        "cap_ease": length("ease in the cap"),
        "cap_height": length(
            "cap height", without="as", help="Where it is given, the sleeve is as wide as such a cap leaves it."
        ),
        "wrist": length("round the sleeve's hem", without="as it falls straight"),
        "hem": length("hem of the sleeve"),
        "elastic": length("elastic at the hem", nothing="without elastic", presets=((8.0, "8 mm"), (20.0, "2 cm"))),
        "spread": length("spread at each cut", presets=((inches(2), "2 in"),)),
        "cuts": number("cuts", (2, "2"), (4, "4"), (6, "6")),
        "rise": length("height added", presets=((inches(2), "2 in"),)),
    }

    kind: Literal["sleeve"] = "sleeve"
    style: Literal["plain", "puff"] = "plain"
    length: Annotated[Length, between(60, 900)] = 580.0
    ease: Annotated[Length, between(0, 200)] = inches(2)
    cap_ease: Annotated[Length, between(0, 60)] = 25.0
    cap_height: Annotated[Length, between(30, 250)] | None = Field(
        None, description="Nothing: as high as a sleeve of the asked width needs."
    )
    wrist: Annotated[Length, between(120, 700)] | None = None
    hem: Annotated[Length, between(0, 80)] = 25.0
    elastic: Annotated[Length, between(0, 60)] = Field(0.0, description="Width of the elastic in a casing at the hem.")
    spread: Annotated[Length, between(0, 120)] = Field(inches(2), description="Each cut of a puff.")
    cuts: Annotated[int, number_between(1, 10, "cuts")] = 4
    rise: Annotated[Length, between(0, 120)] = Field(inches(2), description="Height added to a puff.")

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("sleeve")
        front = armhole_of(dress, Half.FRONT)
        back = armhole_of(dress, Half.BACK)
        if not front or not back:
            raise CannotMake("this bodice has no armhole and shoulder to set them into")
        front_length, back_length = (stitched(run.stretches, dress.pieces) for run in (front, back))
        measures = Measures(dress.figure, notes)
        arm = measures.take("upper_arm_girth")
        hole = notes.work(
            "armhole", front_length + back_length, "{front} + {back}", front=front_length, back=back_length
        )
        long = front_length + self.cap_ease / 2, back_length + self.cap_ease / 2
        if self.cap_height is None:
            wide = notes.work(
                "sleeve at the underarm", arm + self.ease, "{upper_arm} + {ease}", upper_arm=arm, ease=self.ease
            )
            cap = _Cap.of_width(*long, float(wide))
            cap_height = notes.work(
                "cap height", cap.height, "where the cap is as long as {armhole} + {cap_ease}",
                rule="about a third of the armhole", armhole=hole, cap_ease=self.cap_ease,
                instead=(("a third of the armhole", hole / 3), ("4 in", inches(4))),
            )  # fmt: skip
        else:
            cap = _Cap(*long, self.cap_height)
            cap_height = notes.work("cap height", self.cap_height, "as asked")
            wide = notes.work(
                "sleeve at the underarm", cap.wide_front + cap.wide_back,
                "where the cap is as long as {armhole} + {cap_ease}", armhole=hole, cap_ease=self.cap_ease,
            )  # fmt: skip
        found = list(measures.findings)
        if cap.fits and wide < arm:
            found.append(
                stop(
                    "sleeve-too-tight",
                    "With a cap {height} high the sleeve is {wide} wide, and the upper arm measures {arm}: make the "
                    "cap lower, or the armhole deeper.",
                    *in_recipe(f"{where}.cap_height"),
                    remedies=(Remedy("as-it-comes", "Let the cap be as high as the arm needs",
                                     {f"{where}.cap_height": None}),),
                    height=float(cap_height), wide=float(wide), arm=arm,
                )
            )  # fmt: skip
        if not LEAST_CAP_EASE - 1e-6 <= self.cap_ease <= MOST_CAP_EASE + 1e-6 and self.style == "plain":
            found.append(
                warn(
                    "cap-ease-unusual",
                    "A cap ease of {ease}: 2 to 4 cm is usual.",
                    *in_recipe(f"{where}.cap_ease"),
                    ease=self.cap_ease,
                )
            )
        if not cap.fits and self.cap_height is not None:
            found.append(
                stop(
                    "cap-too-high",
                    "A cap {height} high does not go into an armhole of {hole}; half of it is the most.",
                    *in_recipe(f"{where}.cap_height"), height=self.cap_height, hole=float(hole),
                )
            )  # fmt: skip
        elif not cap.fits:
            found.append(
                warn(
                    "cap-does-not-fit",
                    "A sleeve {wide} wide is too wide for an armhole of {hole}; the cap would be flat. Take "
                    "less ease or a deeper armhole.",
                    *in_recipe(f"{where}.ease"),
                    wide=float(wide),
                    hole=float(hole),
                )
            )
        what = dress.free(What(Section.SLEEVE))
        low = _notch_up(front, dress.pieces), _notch_up(back, dress.pieces)
        piece = self._piece(what, cap, low, dress)
        seams = []
        for half, hole_run, edge in ((Half.FRONT, front, "cap front"), (Half.BACK, back, "cap back")):
            own = Run((Stretch(what, edge, backwards=half is Half.FRONT),), ENDS, "sleeve", cap_height)
            if self.style == "puff":
                length = front_length if half is Half.FRONT else back_length
                fullness = notes.work(
                    f"{half} cap fullness", Ratio(piece.stitched_length(edge) / length), "{cap} ÷ {armhole}",
                    cap=piece.stitched_length(edge), armhole=length,
                )  # fmt: skip
                seams.append(
                    Seam(f"{what.name} {half} cap", hole_run, own, fullness=float(fullness), manner=Manner.GATHERED)
                )
            else:
                seams.append(Seam(f"{what.name} {half} cap", hole_run, own, self.cap_ease / 2))
        seams.append(seam_of(f"{what.name} underarm seam", (what, "underarm front"), (what, "underarm back")))
        if self.elastic:
            found += self._drawn_in(piece, measures, notes)
        return dress.with_pieces([piece]).sewn(*seams).also(*found)

    @property
    def _turned_up(self) -> float:
        """The hem, or the casing for the elastic: its width, 4 mm of ease, and 8 mm turned in (common practice)."""
        return self.elastic + CASING_EASE + TURNED_IN if self.elastic else self.hem

    def _drawn_in(self, piece: Piece, measures: Measures, notes: Workings) -> list[Finding]:
        """How long the elastic at the hem is: a share of the arm where it lies."""
        key: MeasureKey = "upper_arm_girth" if self.length < ABOVE_ELBOW else "wrist_girth"
        arm = measures.take(key)
        elastic = notes.work(
            "elastic, each sleeve", arm * ELASTIC_SHARE, "{arm} × {share}", rule="always tried on", arm=arm,
            share=Ratio(ELASTIC_SHARE), buys=Elastic(2),
        )  # fmt: skip
        hem = piece.edge("hem").drawn_length
        if hem > elastic:
            return []
        return [
            warn(
                "elastic-longer-than-edge",
                "The elastic of {elastic} is longer than the edge of {edge} that it is to draw in.",
                *in_recipe("trims"), elastic=float(elastic), edge=hem,
            )
        ]  # fmt: skip

    def _piece(self, what: What, cap: _Cap, low: tuple[float, float], dress: Dressed) -> Piece:
        """The sleeve; ``low`` is how far above the underarm the armhole is notched in front and behind: the cap is as
        long as the armhole up to there, and eased or gathered above.
        """
        front, back = cap.front_path(), cap.back_path()
        height = cap.height
        extra = self.spread * self.cuts / 2 if self.style == "puff" else 0.0
        rise = self.rise if self.style == "puff" else 0.0
        if self.style == "puff":
            front = _puffed(front, low[0], extra, rise)
            back = _puffed(back.reversed(), low[1], extra, rise).reversed()
        left, right = front.start.x, back.end.x
        below = max(self.length - height, 30.0)
        hem_wide = self.wrist if self.wrist is not None and self.style == "plain" else right - left
        middle = (left + right) / 2
        a, b = Point(middle - hem_wide / 2, -below), Point(middle + hem_wide / 2, -below)
        allowances = dress.allowances
        edges = (
            Edge("underarm front", Role.UNDERARM, Path.of(Line(front.start, a)), allowances.side),
            Edge(
                "hem", Role.HEM, Path.of(Line(a, b)), self._turned_up, True, Finished.FOLDED if self.elastic else None
            ),
            Edge("underarm back", Role.UNDERARM, Path.of(Line(b, back.end)), allowances.side),
            Edge("cap back", Role.CAP, back.reversed(), allowances.armhole),
            Edge("cap front", Role.CAP, front.reversed(), allowances.armhole),
        )
        kind = NotchKind.GATHER if self.style == "puff" else NotchKind.BALANCE
        return Piece(
            what, edges, cut=2,
            notches=(
                Notch("cap front", 0.0, ENDS[1]), Notch("cap front", front.length - low[0], kind=kind),
                Notch("cap back", low[1], kind=kind, double=True),
            ),
            grain=(Point(0, height * 0.3), Point(0, -below * 0.7)),
        )  # fmt: skip


ENDS = Sign("underarm"), Sign("shoulder")


def _notch_up(hole: Run, pieces: Mapping[What, Piece]) -> float:
    """How far above the underarm an armhole is notched, mm; two fifths of the way where it has no notch."""
    below = 0.0
    for stretch in hole.stretches:
        piece = pieces[stretch.piece]
        long = piece.stitched_length(stretch.edge)
        for notch in piece.notches:
            if notch.edge == stretch.edge and notch.kind is NotchKind.BALANCE:
                at = closed(notch.at, piece.darts_of(stretch.edge))
                return below + (long - at if stretch.backwards else at)
        below += long
    return 0.4 * below


def armhole_of(dress: Dressed, half: Half) -> Run:
    """The armhole of the styled bodice, front or back, from underarm to shoulder; nothing where it has none."""
    upper = [piece for piece in dress.outer_upper() if piece.what.half is half and not piece.what.other]
    if not any(edge.role is Role.SHOULDER for piece in upper for edge in piece.edges):
        return Run()
    holes = [(piece, edge) for piece in upper for edge in piece.edges if edge.role is Role.ARMHOLE]
    holes = [(piece, edge) for piece, edge in holes if edge.name == "armhole"]  # of a whole piece, one of its two
    holes.sort(key=lambda one: one[1].path.point_at(one[1].path.length / 2).y)
    stretches = tuple(Stretch(p.what, e.name, e.path.start.y > e.path.end.y) for p, e in holes)
    return Run(stretches, (ENDS[0], *(Sign(f"panel {k}") for k in range(1, len(holes))), ENDS[1]), "armhole")


LEAST_WIDE = 2.0
"""No half of a sleeve is narrower than this (mm)."""

STARTED, STEPS = 0.95, 12
"""A cap is about so much as wide as if it ran straight; and how often it is drawn nearer to its length."""

WITHIN = 1e-4
"""A cap's height is settled to within this (mm)."""


class _Cap:
    """A cap of a height, its front and back as long as asked.

    Front on the left. The top lies at x = 0; the underarm points at −front and +back on the level 0.
    """

    def __init__(self, front: float, back: float, height: float) -> None:
        most = MOST_CAP * min(front, back)
        self.height = min(height, most)
        self.wide_front, self.wide_back = self._reach(front, True), self._reach(back, False)
        self.fits = LEAST_CAP < height <= most

    @classmethod
    def of_width(cls, front: float, back: float, wide: float) -> _Cap:
        """The cap that leaves a sleeve of a given width; as flat as one can be where none does."""

        def beyond(height: float) -> float:
            cap = cls(front, back, height)
            return cap.wide_front + cap.wide_back - wide

        low, high = FLATTEST, MOST_CAP * min(front, back)
        # as if the cap ran straight: from there it is a few steps
        flat = max((front + back) ** 2 - (wide / STARTED) ** 2, 0.0) ** 0.5 / 2
        height = min(max(flat, low), high)
        for _ in range(STEPS):
            cap = cls(front, back, height)
            off = cap.wide_front + cap.wide_back - wide
            if abs(off) < WITHIN:
                return cap
            across = max((wide + off) / 2, LEAST_WIDE)
            height += off * across / (2 * max(height, FLATTEST))
            if not low < height < high:
                break
        return cls(front, back, root(beyond, low, high, WITHIN) if beyond(low) > 0 > beyond(high) else low)

    def _reach(self, length: float, is_front: bool) -> float:
        """How far out the underarm lies for a cap half of a length, at this height."""
        # a little less wide than if the cap ran straight from the underarm to the top
        straight = max(sqrt(max(length**2 - self.height**2, 0.0)), LEAST_WIDE)

        def over(wide: float) -> float:
            return sum(s.length_between(0.0, 1.0) for s in self._curve(wide, is_front) if isinstance(s, Cubic)) - length

        # it grows as its chord does, so that each step comes much nearer
        wide = STARTED * straight
        for _ in range(STEPS):
            off = over(wide)
            if abs(off) < 1e-6:
                return wide
            wide -= off * hypot(wide, self.height) / wide
            if not LEAST_WIDE < wide < 1.02 * straight:
                break
        if over(LEAST_WIDE) >= 0:
            return LEAST_WIDE
        return root(over, LEAST_WIDE, straight) if over(straight) > 0 else straight

    def _curve(self, wide: float, is_front: bool) -> Path:
        under, top = Point(wide, 0), Point(0, self.height)
        along = (top - under).unit
        out = -along.left  # up and away from the sleeve
        out = out if out.y > 0 else -out
        size = under.distance(top)
        scale = min(1.0, size / 200)
        below = (FRONT_BELOW if is_front else BACK_BELOW) * scale
        middle = under + along * (size * 0.5)
        leave, arrive = Point(-1, 0.12).unit, Point(-1, 0)
        # through the middle it rises more steeply than the slanted line, so that it turns once there and nowhere else
        for steeper in STEEPER:
            through = (along + out * steeper).unit
            lower = _bowed(under, leave, through, middle, -out, below)
            upper = _bowed(middle, through, arrive, top, out, ABOVE * scale)
            if lower.bend(1) <= 0 <= upper.bend(0):
                break
        return Path.of(lower, upper)

    def front_path(self) -> Path:
        """From the front underarm (left) up to the top."""
        path = self._curve(self.wide_front, True)
        return path.placed(MIRROR)

    def back_path(self) -> Path:
        """From the top down to the back underarm (right)."""
        return self._curve(self.wide_back, False).reversed()


def _bowed(start: Point, leave: Point, arrive: Point, end: Point, towards: Point, by: float) -> Cubic:
    """A curve that lies ``by`` beside its chord half-way, where its handles can be made long enough for that."""
    most = start.distance(end) * LONGEST_HANDLE
    pull = (leave - arrive).dot(towards)
    handle = min(max(8 / 3 * by / pull, most / 4), most) if pull > 0 else most
    return Cubic(start, start + leave * handle, end - arrive * handle, end)


def _puffed(path: Path, low: float, extra: float, rise: float) -> Path:
    """A cap half, from underarm to top, slashed and spread in the head: above ``low`` along it, whose end is moved out
    by ``extra`` as it is, it is spread and its top is raised by ``rise``.
    """
    low = min(max(low, 0.1 * path.length), 0.9 * path.length)
    out = -1.0 if path.start.x < path.end.x else 1.0
    below, above = path.split(low)
    below = below.placed(Placement.shift(Point(out * extra, 0)))
    top, notch = path.end, above.start
    count = 9
    places = [below.end]
    for k in range(1, count):
        p = above.point_at(above.length * k / (count - 1))
        share = abs(p.x - top.x) / max(abs(notch.x - top.x), 1e-9)
        places.append(Point(p.x + out * extra * share, p.y + rise * (1 - share)))
    # the two halves meet at the top without a point
    return below.then(smooth_through(places, leave=below.arriving, arrive=Point(-out, 0)))
