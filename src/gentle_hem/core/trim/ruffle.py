"""Gathered strips (trade 8): a ruffle at the hem, a flounce where a gown is cut off, a side ruffle.

hem ruffle      hem ─────────        flounce   gown drafted to its full length, then cut off at the line;
                ∿∿∿∿∿∿∿∿∿ strip                its base is the sweep at the cut line
"""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.findings import in_recipe, refused
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.geometry.parallel import parallel
from gentle_hem.core.lower.full import say_fullness
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.pattern import Edge, Notch, NotchKind, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Manner, Run, Seam, Stretch, seam_of_pair
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.trim.base import Trim, Turn
from gentle_hem.core.units import Length, inches
from gentle_hem.core.what import CENTRE_BACK, CENTRE_FRONT, Panel, Section, Sign, What
from gentle_hem.core.workings import Ratio, Workings
from gentle_hem.core.workroom import Dressed

HemAllowance = Annotated[Length, between(0, 60)]
StripHeight = Annotated[Length, between(10, 1000)]
TIMES = ((1.5, "1.5 times"), (2, "twice"), (2.5, "2.5 times"), (3, "three times"))


class HemRuffle(Trim):
    """A ruffle 12 cm deep at the hem, twice as wide."""

    turn: ClassVar[Turn] = Turn.AT_THE_HEM
    title: ClassVar[str] = "Hem ruffle"
    sentences: ClassVar[tuple[str, ...]] = (
        "A gathered ruffle {height} deep, {fullness} as wide as the edge, {place}, {sewn}, its hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "height": length("depth of the ruffle"),
        "fullness": number("fullness", *TIMES, spoken=say_fullness),
        "place": choice(
            "where it is sewn", ("added", "added below the hem"),
            ("cut_off", "in place of the lowest part, which is cut off"),
        ),
        "sewn": choice("how it is sewn", ("encased", "its seam inside"), ("on_top", "laid on top with a heading")),
        "hem": length("hem of the ruffle"),
    }  # fmt: skip

    kind: Literal["hem_ruffle"] = "hem_ruffle"
    height: StripHeight = 120.0
    fullness: Annotated[float, number_between(1, 8, "times fullness")] = 2.0
    place: Literal["added", "cut_off"] = "added"
    sewn: Literal["encased", "on_top"] = "encased"
    hem: HemAllowance = Field(inches(0.5), description="Hem of the ruffle: ½ in.")

    def cut_first(self, dress: Dressed, where: str) -> Dressed:
        return cut_off(dress, self.height, where) if self.place == "cut_off" else dress

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("ruffle")
        half = dress.half_hem
        base = notes.work(
            "ruffle base", 2 * half, "the sweep where it is sewn",
            rule="taken at the line it is cut off, not at the old hem" if self.place == "cut_off" else "",
        )  # fmt: skip
        cut = notes.work(
            "ruffle cut width", base * self.fullness, "{base} × {fullness}", base=base, fullness=Ratio(self.fullness)
        )
        what = dress.free(What(Section.RUFFLE, panel=Panel.HEM))
        wide, on_top = float(cut) / 2, self.sewn == "on_top"
        allowance = dress.allowances.panel
        edges = (
            Edge("start", Role.CENTRE_FRONT, Path.through(Point(0, 0), Point(0, -self.height)), 0.0),
            Edge(
                "hem", Role.HEM, Path.through(Point(0, -self.height), Point(wide, -self.height)), self.hem, turned=True
            ),
            Edge("end", Role.PANEL, Path.through(Point(wide, -self.height), Point(wide, 0)), allowance),
            Edge(
                "top",
                Role.PANEL,
                Path.through(Point(wide, 0), Point(0, 0)),
                2 * HEADING if on_top else allowance,
                turned=on_top,
            ),
        )
        strip = Piece(
            what, edges, cut=1, on_fold=True,
            remark="gathered at the line, its heading turned under and laid on top; " * on_top
            + "join widths of cloth as it needs",
            grain=(Point(20, -0.25 * self.height), Point(20, -0.75 * self.height)),
        )  # fmt: skip
        above = replace(dress.hem, called="hem", why=base)
        own = Run((Stretch(what, "top", backwards=True),), HALF, "ruffle", cut)
        seam = Seam(f"{what.name} seam", above, own, fullness=self.fullness, manner=Manner.GATHERED)
        return replace(
            joined_hem(dress).with_pieces([strip]).sewn(seam, seam_of_pair(f"{what.name} join", what, "end")),
            hem=Run((Stretch(what, "hem"),), HALF, "hem"), length=dress.length + self.height,
        )  # fmt: skip


HALF = (CENTRE_FRONT, CENTRE_BACK)

HEADING = 15.0
"""A ruffle laid on top stands so far above its gathers, doubled (mm): common practice."""


def joined_hem(dress: Dressed) -> Dressed:
    """The hem's edges with a seam's allowance instead of a turned hem: something is sewn to them."""
    allowance = dress.allowances.panel
    changed: dict[What, Piece] = {}
    for stretch in dress.hem.stretches:
        piece = changed.get(stretch.piece, dress.pieces[stretch.piece])
        edges = tuple(
            replace(e, allowance=allowance, turned=False) if e.name == stretch.edge else e for e in piece.edges
        )
        changed[stretch.piece] = replace(piece, edges=edges)
    return dress.with_pieces(changed.values())


def cut_off(dress: Dressed, by: float, where: str) -> Dressed:
    """The garment shortened by cutting its hem off ``by`` higher, every piece where its own sides then are."""
    made, flat = [], dict(dress.unspread)
    for what, edge in dict.fromkeys((s.piece, s.edge) for s in dress.hem.stretches):
        try:
            made.append(shortened(dress.pieces[what], edge, by))
            if what in flat:
                flat[what] = shortened(flat[what], edge, by)
        except CannotMake:
            return dress.also(
                refused(
                    "cannot-cut-off",
                    "The {piece} is not long enough to cut {by} off; the strip is added below it instead.",
                    *in_recipe(f"{where}.place", f"{where}.height"),
                    piece=what.name,
                    by=by,
                )
            )
    return replace(dress.with_pieces(made), length=dress.length - by, unspread=flat)


def shortened(piece: Piece, edge: str, by: float) -> Piece:
    """A piece with one edge moved ``by`` inwards, its neighbours cut where they meet it. Raises CannotDraw."""
    index = next(i for i, e in enumerate(piece.edges) if e.name == edge)
    count = len(piece.edges)
    before, hem, after = piece.edges[index - 1], piece.edges[index], piece.edges[(index + 1) % count]
    inner = parallel(hem.path, by)
    reach = 400.0
    long = Path((
        Line(inner.start - inner.leaving * reach, inner.start), *inner.segments,
        Line(inner.end, inner.end + inner.arriving * reach),
    ))  # fmt: skip
    a, b = before.path.crossings(long), after.path.crossings(long)
    if not a or not b:
        raise CannotDraw("nothing is left")
    at_before, along_before = a[-1]
    at_after, along_after = b[0]
    if along_before >= along_after or at_before < 5 or after.path.length - at_after < 5:
        raise CannotDraw("nothing is left")
    made = {
        before.name: before.path.between(0.0, at_before), edge: long.between(along_before, along_after),
        after.name: after.path.between(at_after, after.path.length),
    }  # fmt: skip
    edges = tuple(replace(e, path=made.get(e.name, e.path)) for e in piece.edges)
    notches = []
    for notch in piece.notches:
        if notch.edge == after.name:
            if notch.at > at_after:
                notches.append(replace(notch, at=notch.at - at_after))
        elif notch.edge != before.name or notch.at < at_before:
            notches.append(notch)
    kept = tuple(n for n in notches if n.edge != edge)
    darts = []
    for dart in piece.darts:
        if dart.edge == after.name:
            dart = replace(dart, at=dart.at - at_after)
        beyond = dart.edge == edge or (dart.edge == before.name and dart.at + dart.intake > at_before)
        if beyond or dart.at < 0:
            raise CannotMake(f"it would be cut off through the {dart.landmark}")
        darts.append(dart)
    top, low = piece.grain
    lowest = made[edge].box[3]
    grain = piece.grain if min(top.y, low.y) > lowest else (top, Point(top.x, max(top.y, low.y) - 30))
    return replace(piece, edges=edges, darts=tuple(darts), notches=kept, grain=grain)


class SideRuffle(Trim):
    """A ruffle let into the side seam, 10 cm deep, tapering to nothing 3 in short of the seam's end."""

    title: ClassVar[str] = "Side ruffle"
    sentences: ClassVar[tuple[str, ...]] = (
        "A ruffle let into the side seam, {height} deep at the hem, {fullness} as long, stopping {short} short of the "
        "seam's upper end and {taper}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "height": length("depth of the ruffle"),
        "fullness": number("fullness", *TIMES, spoken=say_fullness),
        "short": length("short of the seam's end"),
        "taper": choice("its upper end", ("tapered", "tapering to nothing"), ("even", "even all along")),
    }

    kind: Literal["side_ruffle"] = "side_ruffle"
    height: StripHeight = 100.0
    fullness: Annotated[float, number_between(1, 8, "times fullness")] = 2.0
    short: Annotated[Length, between(0, 600)] = inches(3)
    taper: Literal["tapered", "even"] = "tapered"

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("side ruffle")
        piece, side = long_side(dress, self.short)
        along = notes.work(
            "ruffle sewn along", side.drawn_length - self.short, "{side_seam} − {short}", side_seam=side.drawn_length,
            short=self.short,
        )  # fmt: skip
        cut = notes.work(
            "ruffle cut length",
            along * self.fullness,
            "{along} × {fullness}",
            along=along,
            fullness=Ratio(self.fullness),
        )
        what = dress.free(What(Section.RUFFLE, panel=Panel.SIDE))
        long, high, a = float(cut), self.height, dress.allowances.side
        tip = 2.0 if self.taper == "tapered" else high
        lower_line = (
            Path.of(
                Cubic(
                    Point(0, -tip),
                    Point(long * 0.45, -tip if tip == high else -high * 0.35),
                    Point(long * 0.7, -high),
                    Point(long, -high),
                )
            )
            if self.taper == "tapered"
            else Path.through(Point(0, -high), Point(long, -high))
        )
        edges = (
            Edge("start", Role.FREE, Path.through(Point(0, 0), Point(0, -tip)), 0.0 if tip < 5 else a),
            Edge("hem", Role.HEM, lower_line, inches(0.5), turned=True),
            Edge("end", Role.HEM, Path.through(Point(long, -high), Point(long, 0)), inches(0.5), turned=True),
            Edge("top", Role.PANEL, Path.through(Point(long, 0), Point(0, 0)), a),
        )  # fmt: skip
        strip = Piece(
            what, edges, cut=2,
            grain=(Point(long * 0.7, -high * 0.2), Point(long * 0.7, -high * 0.6)),
        )  # fmt: skip
        ends = Sign("ruffle end"), Sign("hem")
        marked, stretch = up_from_hem(piece, float(along), ends[0], NotchKind.GATHER)
        above, own = Run((stretch,), ends, "side seam", along), Run((Stretch(what, "top", True),), ends, "ruffle", cut)
        seam = Seam(f"{what.name} seam", above, own, fullness=self.fullness, manner=Manner.GATHERED)
        return dress.with_pieces([marked, strip]).sewn(seam)


SIDED = (Section.GOWN, Section.SKIRT, Section.PEPLUM, Section.TROUSERS)
"""Sections whose side seam may have a ruffle let into it."""


def long_side(dress: Dressed, short: float) -> tuple[Piece, Edge]:
    """The piece and the side of it that something is let into, stopping ``short`` mm of its upper end. Raises
    CannotMake where no side is long enough.
    """
    sides = [
        (piece, edge)
        for piece in dress.pieces.values()
        if piece.what.is_outer(*SIDED)
        for edge in piece.edges
        if edge.role is Role.SIDE and edge.name == "side"
    ]
    if not sides or sides[0][1].drawn_length <= short + LEAST_LET_IN:
        raise CannotMake("there is no side seam long enough to let one into")
    return min(sides, key=lambda one: one[0].name)


LEAST_LET_IN = 40.0
"""What is let into a side seam is at least so long (mm)."""


def up_from_hem(piece: Piece, along: float, called: Sign, kind: NotchKind) -> tuple[Piece, Stretch]:
    """A piece with a notch ``along`` mm up its side from the hem, and the stretch of the side below it."""
    if piece.begins_at_hem("side"):
        at, stretch = along, Stretch(piece.what, "side", True, 0.0, along)
    else:
        at = piece.edge("side").drawn_length - along
        stretch = Stretch(piece.what, "side", False, at, None)
    return replace(piece, notches=(*piece.notches, Notch("side", at, called, kind=kind))), stretch
