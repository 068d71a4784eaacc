"""Godets: sectors set into a slit or seam to widen a hem (trade 8).

            tip  ← stitched stop, notch here
            /\\
           /  \\   side = height of the slit, both sides equal
          / α  \\
         /______\\  hem added = α × height   (dipped: the middle hangs lower)
"""

from collections.abc import Mapping
from dataclasses import dataclass
from math import pi, radians, sin
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cannot import CannotMake
from gentle_hem.core.findings import Finding, Remedy, in_recipe, refused, warn
from gentle_hem.core.geometry import ORIGIN, Arc, Line, Path, Point, polar
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import Edge, Mark, MarkKind, Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Run, Seam, Stretch, with_pairs
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.trim.base import Trim, Turn
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import UNNAMED, Section, Sign, What
from gentle_hem.core.workings import Angle, Count, Ratio, Worked, Workings
from gentle_hem.core.workroom import Dressed

SOFT, FULL = 30.0, 180.0


@dataclass(frozen=True, slots=True)
class GodetNumbers:
    """One godet worked out, mm."""

    hem_added: Worked
    total: Worked
    chord: Worked
    centre: Worked


def godet(height: float, angle: float, dip: float, count: int, notes: Workings) -> GodetNumbers:
    """Hem added αρ, chord 2ρ sin(α/2), all together, and the length down the middle. ``angle`` in radians."""
    added = notes.work(
        "hem added",
        angle * height,
        "{angle} × {height}",
        "{turn} × {height}",
        angle=Angle(angle),
        turn=Ratio(angle),
        height=height,
    )
    total = notes.work(
        "hem added in all", count * added, "{godets} × {hem_added}", godets=Count(count), hem_added=added
    )
    chord = notes.work(
        "chord", 2 * height * sin(angle / 2), "2 × {height} × sin({angle} ÷ 2)", height=height, angle=Angle(angle)
    )
    centre = notes.work("length down the middle", height + dip, "{height} + {dip}", height=height, dip=dip)
    return GodetNumbers(added, total, chord, centre)


class Godets(Trim):
    """Two godets of 60°, 40 cm high, let into the seams."""

    turn: ClassVar[Turn] = Turn.INTO_THE_PANELS
    title: ClassVar[str] = "Godets"
    sentences: ClassVar[tuple[str, ...]] = (
        "{count} godets of {angle}, {height} high, let into {place}, dipping {dip} in the middle, spread "
        "{fuller}[fuller: at each of {cuts} cuts], hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "count": number("godets", (2, "2"), (4, "4"), (6, "6"), (8, "8")),
        "angle": number(
            "angle in degrees",
            (30, "30°, soft"),
            (60, "60°"),
            (90, "90°"),
            (180, "180°, full"),
            spoken=lambda v: f"{v:g}°",
        ),
        "height": length("height of the slit"),
        "place": choice("where they are set", ("seams", "the seams"), ("slashes", "slashes in the panels")),
        "dip": length(
            "dip in the middle",
            presets=((0.0, "level"), (inches(1.5), "1 1/2 in"), (inches(2), "2 in")),
            nothing="nothing",
        ),
        "fuller": length("spread at each cut", presets=((0.0, "not spread"), (inches(1), "1 in")), nothing="nothing"),
        "cuts": number("cuts", (1, "1"), (3, "3")),
        "hem": length("hem of the godets"),
    }

    kind: Literal["godets"] = "godets"
    count: Annotated[int, number_between(1, 48, "godets")] = 2
    angle: Annotated[float, number_between(20, 180, "degrees")] = 60.0
    height: Annotated[Length, between(50, 1500)] = 400.0
    place: Literal["seams", "slashes"] = "seams"
    dip: Annotated[Length, between(0, 200)] = 0.0
    fuller: Annotated[Length, between(0, 150)] = 0.0
    cuts: Annotated[int, number_between(1, 9, "cuts")] = 3
    hem: Annotated[Length, between(0, 60)] = Field(inches(0.5), description="A narrow hem.")

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("godets")
        slits = _chosen(_slits(dress), self.count) if self.place == "seams" else _slashes(dress, self.count)
        held = round(2 * sum(slit.share for slit in slits))
        if held < self.count:
            return dress.also(_too_many(self.count, held, where))
        longest = min((slit.room(dress.pieces) for slit in slits), default=0.0)
        if longest < LEAST_HEIGHT:
            raise CannotMake("no seam reaches the hem that is long enough for them")
        height = min(self.height, longest)
        if height < self.height:
            dress = dress.also(
                warn(
                    "godet-higher-than-seam",
                    "The seams are {seam} long; a godet {height} high does not fit, so it is drawn {drawn}.",
                    *in_recipe(f"{where}.height"),
                    seam=longest + ABOVE_TIP,
                    height=self.height,
                    drawn=height,
                )
            )
        spread = self.fuller * self.cuts
        turn = radians(self.angle) + spread / height
        if spread:
            notes.work(
                "angle once spread",
                Angle(turn),
                "{angle} + {cuts} × {spread} ÷ {height}",
                angle=Angle(radians(self.angle)),
                cuts=Count(self.cuts),
                spread=self.fuller,
                height=height,
            )
        turn = min(turn, pi * 1.9)
        godet(height, turn, self.dip, self.count, notes)
        what = dress.free(What(Section.GODET))
        cuts = self.cuts if spread else 0
        piece = godet_piece(what, height, turn, self.dip, self.hem, dress.allowances.panel, self.count, cuts)
        dress = dress.with_pieces([piece])
        for inserted, slit in enumerate(slits):
            dress = slit.filled(dress, piece, height, inserted)
        return dress


def _too_many(count: int, held: int, where: str) -> Finding:
    """More godets than there are seams that reach the hem."""
    even = count + count % 2  # slashes lie alike on the left and the right
    ways = [
        Remedy(
            "slashes", "Let {even} into slashes in the panels",
            {f"{where}.place": "slashes", f"{where}.count": even}, "", {"even": str(even)},
        )
    ]  # fmt: skip
    if held:
        ways.insert(0, Remedy("fewer", "Let {held} in", {f"{where}.count": held}, "", {"held": str(held)}))
    return refused(
        "more-godets-than-seams",
        "{count} godets need as many seams that reach the hem, and there are {held}; none is let in.",
        *in_recipe(f"{where}.count", f"{where}.place"),
        remedies=tuple(ways),
        count=str(count),
        held=str(held),
    )


ABOVE_TIP = 40.0
"""A seam goes on at least so far above a godet's tip (mm)."""

LEAST_HEIGHT = 20.0


@dataclass(frozen=True, slots=True)
class Slit:
    """A place at the hem of the half garment where a godet is let in: a seam between two pieces, or a slash in one.

    ``share`` is how much of the godet the half garment has: half of one at its centres.
    """

    near: tuple[What, str] | None
    """Its side nearer the centre front; None at the centre front itself."""
    far: tuple[What, str] | None
    where: int
    """Before which stretch of the hem it lies; one more than there are: at the centre back."""
    at: float | None = None
    """How far along that stretch a slash lies."""

    @property
    def share(self) -> float:
        return 1.0 if self.near and self.far else 0.5

    def room(self, pieces: Mapping[What, Piece]) -> float:
        """How high a godet it takes."""
        if self.at is not None:
            assert self.near is not None
            _, low, _, high = pieces[self.near[0]].seam_line.box
            return max(high - low - ABOVE_TIP, 0.0)
        sides = (side for side in (self.near, self.far) if side)
        return min(pieces[what].edge(edge).drawn_length for what, edge in sides) - ABOVE_TIP

    def filled(self, dress: Dressed, godet: Piece, height: float, inserted: int) -> Dressed:
        """The garment with a godet in this place: the tip marked, both sides sewn, its hem in the garment's, where so
        many have been let in before it.
        """
        if self.at is not None:
            return self._let_into_slash(dress, godet, height)
        seams = []
        # at a centre both its sides are sewn to the one edge of the pair, left and right
        for side, own in ((self.near or self.far, "left"), (self.far or self.near, "right")):
            assert side is not None
            what, edge = side
            piece = dress.pieces[what]
            long, upwards = piece.edge(edge).drawn_length, piece.begins_at_hem(edge)
            at = height if upwards else long - height
            dress = dress.with_pieces([_tipped(piece, edge, at)])
            slit = Stretch(what, edge, True, 0.0, at) if upwards else Stretch(what, edge, False, at, None)
            seams.append(_seam(godet.what, own, slit, f"{godet.name} to the {what.name}, {own}"))
        there, names = list(dress.hem.stretches), list(dress.hem.corners)
        whole = godet.edge("hem").drawn_length
        hem = Stretch(godet.what, "hem", False, 0.0 if self.near else whole / 2, None if self.far else whole / 2)
        there.insert(self.where + inserted, hem)
        names.insert(self.where + inserted + 1 if self.near else 1, UNNAMED)
        # gores cut alike hold a godet in the same seam more than once
        known = {seam.title for seam in dress.seams}
        return _with_hem(dress.sewn(*(seam for seam in seams if seam.title not in known)), there, names)

    def _let_into_slash(self, dress: Dressed, godet: Piece, height: float) -> Dressed:
        assert self.near is not None
        assert self.at is not None
        what, edge = self.near
        piece = dress.pieces[what]
        path = piece.edge(edge).path
        foot = path.point_at(self.at)
        name = f"slash {1 + sum(mark.kind is MarkKind.SLASH for mark in piece.marks)}"
        slash = Mark(MarkKind.SLASH, Path.through(foot + path.tangent_at(self.at).left * height, foot), name)
        marked = replace(piece, marks=(*piece.marks, slash), remark="slash to the stitched stop for a godet")
        dress = dress.with_pieces([marked])
        there, names = list(dress.hem.stretches), list(dress.hem.corners)
        k = next(
            k for k, s in enumerate(there)
            if (s.piece, s.edge) == self.near and s.start < self.at and (s.end is None or self.at < s.end)
        )  # fmt: skip
        old = there[k]
        there[k : k + 1] = [replace(old, end=self.at), Stretch(godet.what, "hem"), replace(old, start=self.at)]
        names[k + 1 : k + 1] = [UNNAMED, UNNAMED]
        dress = dress.sewn(
            *(
                _seam(godet.what, own, Stretch(what, name), f"{godet.name} in {name} of the {what.name}, {own}")
                for own in SIDES
            )
        )
        return _with_hem(dress, there, names)


def _with_hem(dress: Dressed, stretches: list[Stretch], corners: list[Sign]) -> Dressed:
    return replace(dress, hem=replace(dress.hem, stretches=tuple(stretches), corners=tuple(corners)))


SIDES = ("left", "right")


def _seam(godet: What, own: str, slit: Stretch, title: str) -> Seam:
    """One side of a godet, from its tip down, in its slit."""
    corners = (Sign("tip"), Sign("hem"))
    side = Stretch(godet, own, backwards=own == "right")
    return Seam(title, Run((slit,), corners, "slit"), Run((side,), corners, "godet"))


def _tipped(piece: Piece, edge: str, at: float) -> Piece:
    """A piece with the tip of its slit marked, once however many godets stand in edges cut alike."""
    if any(n.edge == edge and n.kind is NotchKind.TIP and abs(n.at - at) < 1e-6 for n in piece.notches):
        return piece
    return replace(piece, notches=(*piece.notches, Notch(edge, at, Sign("godet tip"), kind=NotchKind.TIP)))


def _slits(dress: Dressed) -> list[Slit]:
    """Every seam that reaches the hem, from the centre front to the centre back."""
    seams = with_pairs(dress.seams, dress.pieces.values())
    pairs = {(s.a.stretches[0].piece, s.a.stretches[0].edge) for s in seams if s.is_of_itself}
    found: list[Slit] = []
    before: tuple[What, str] | None = None
    last = len(dress.hem.stretches) - 1
    for k, stretch in enumerate(dress.hem.stretches):
        piece = dress.pieces[stretch.piece]
        place = piece.at_edge(stretch.edge)
        if place is None or piece.what.section is Section.GODET:
            before = None
            continue
        near = piece.what, piece.edges[place - 1].name
        far = piece.what, piece.edges[(place + 1) % len(piece.edges)].name
        if before or (k == 0 and near in pairs):
            found.append(Slit(before, near, k))
        before = far if stretch.end is None else None
        if k == last and far in pairs:
            found.append(Slit(far, None, k + 1))
    return found


def _chosen(slits: list[Slit], count: int) -> list[Slit]:
    """As many of the seams as hold ``count`` godets all round: pairs beginning at the side, an odd one at the centre
    back, or in front where only that has a seam.
    """
    pairs = [slit for slit in slits if slit.share == 1.0]
    centres = [slit for slit in slits if slit.share == 0.5]
    middle = (len(pairs) - 1) / 2
    nearest = sorted(pairs, key=lambda slit: abs(pairs.index(slit) - middle))
    chosen = nearest[: count // 2]
    left = count - 2 * len(chosen)
    chosen += list(reversed(centres))[:left]
    # from the centre back forwards, so that each still finds its place in the hem
    return sorted(chosen, key=lambda slit: slit.where)


def _slashes(dress: Dressed, count: int) -> list[Slit]:
    """Half of ``count`` slashes shared out over the panels that reach the hem, each panel's evenly along it."""
    if count % 2:
        raise CannotMake("an odd number of slashes does not lie alike on the left and the right")
    panels = [s for s in dress.hem.stretches if s.is_whole and s.piece.section is not Section.GODET]
    long = [dress.pieces[s.piece].edge(s.edge).drawn_length for s in panels]
    shares = [0] * len(panels)
    for _ in range(count // 2):
        widest = max(range(len(panels)), key=lambda k: long[k] / (shares[k] + 1))
        shares[widest] += 1
    return [
        Slit((s.piece, s.edge), (s.piece, s.edge), 0, whole * (n + 0.5) / share)
        for s, whole, share in zip(panels, long, shares, strict=True)
        for n in range(share)
    ]


def godet_piece(
    what: What, height: float, angle: float, dip: float, hem: float, allowance: float, count: int, cuts: int = 0
) -> Piece:
    """A godet, its tip at the origin, its grain down the middle; both straight sides are ``height`` long.

    The ``cuts`` it was slashed at to be spread are drawn on it.
    """
    begin, end = -pi / 2 - angle / 2, -pi / 2 + angle / 2
    left, right = polar(height, begin), polar(height, end)
    if dip:
        steps = 12
        places = []
        for k in range(steps + 1):
            share = k / steps
            places.append(polar(height + dip * sin(pi * share) ** 2, begin + angle * share))
        foot = smooth_through(places, polar(1.0, begin).left, polar(1.0, end).left)
    else:
        foot = Path.of(Arc(ORIGIN, height, begin, angle))
    edges = (
        Edge("left", Role.PANEL, Path.of(Line(ORIGIN, left)), allowance),
        Edge("hem", Role.HEM, foot, hem, turned=True),
        Edge("right", Role.PANEL, Path.of(Line(right, ORIGIN)), allowance),
    )
    slashes = tuple(
        Mark(MarkKind.SLASH, Path.through(polar(height * 0.1, turn), polar(height, turn)))
        for turn in (begin + angle * (k + 1) / (cuts + 1) for k in range(cuts))
    )
    return Piece(
        what, edges, cut=count, alike=True, marks=slashes,
        notches=(Notch("left", 0.0, Sign("godet tip"), kind=NotchKind.TIP),),
        grain=(Point(0, -0.35 * height), Point(0, -0.8 * height)),
    )  # fmt: skip
