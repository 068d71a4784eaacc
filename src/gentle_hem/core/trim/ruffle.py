"""Gathered strips (trade 8): a ruffle at the hem, a flounce where a gown is cut off, a side ruffle.

hem ruffle      hem ─────────        flounce   gown drafted to its full length, then cut off at the line;
                ∿∿∿∿∿∿∿∿∿ strip                its base is the sweep at the cut line
"""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.findings import in_recipe, refused, warn
from gentle_hem.core.geometry import Cubic, Line, Path, Point
from gentle_hem.core.geometry.parallel import parallel
from gentle_hem.core.lower.full import say_fullness
from gentle_hem.core.parts import InnerJoin, between, number_between
from gentle_hem.core.pattern import Edge, EdgeRef, Notch, Piece, Role
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.trim.base import Dressed, Trim, Turn
from gentle_hem.core.units import Length, inches
from gentle_hem.core.workings import Ratio, Workings

HemAllowance = Annotated[Length, between(0, 60)]
StripHeight = Annotated[Length, between(10, 1000)]
TIMES = ((1.5, "1.5 times"), (2, "twice"), (2.5, "2.5 times"), (3, "three times"))


class HemRuffle(Trim):
    """A ruffle 12 cm deep at the hem, twice as wide."""

    turn: ClassVar[Turn] = Turn.AT_THE_HEM
    title: ClassVar[str] = "Hem ruffle"
    sentences: ClassVar[tuple[str, ...]] = (
        "A gathered ruffle {height} deep, {fullness} as wide as the edge, {place}, its hem {hem}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "height": length("depth of the ruffle"),
        "fullness": number("fullness", *TIMES, spoken=say_fullness),
        "place": choice(
            "where it is sewn", ("added", "added below the hem"),
            ("cut_off", "in place of the lowest part, which is cut off"),
        ),
        "hem": length("hem of the ruffle"),
    }  # fmt: skip

    kind: Literal["hem_ruffle"] = "hem_ruffle"
    height: StripHeight = 120.0
    fullness: Annotated[float, number_between(1, 8, "times fullness")] = 2.0
    place: Literal["added", "cut_off"] = "added"
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
        name = dress.free_name("hem ruffle")
        wide = float(cut) / 2
        allowance = dress.allowances.panel
        edges = (
            Edge("start", Role.CENTRE_FRONT, Path.through(Point(0, 0), Point(0, -self.height)), 0.0),
            Edge(
                "hem", Role.HEM, Path.through(Point(0, -self.height), Point(wide, -self.height)), self.hem, turned=True
            ),
            Edge("end", Role.PANEL, Path.through(Point(wide, -self.height), Point(wide, 0)), allowance),
            Edge("top", Role.PANEL, Path.through(Point(wide, 0), Point(0, 0)), allowance),
        )
        marks = tuple(Notch("top", wide * k / 8) for k in range(1, 8))
        strip = Piece(
            name, edges, cut=1, on_fold=True, notches=marks, remark="join widths of cloth as it needs",
            grain=(Point(20, -0.25 * self.height), Point(20, -0.75 * self.height)),
        )  # fmt: skip
        join = InnerJoin(
            f"{name} seam", dress.hem, (EdgeRef(name, "top", backwards=True),), dress.hem_corners,
            ("centre front", "centre back"), fullness=self.fullness, manner="gathered", names=("hem", "ruffle"),
            upper_length=half,
        )  # fmt: skip
        return replace(
            joined_hem(dress), pieces={**joined_hem(dress).pieces, name: strip}, hem=(EdgeRef(name, "hem"),),
            hem_corners=("centre front", "centre back"), joins=(*dress.joins, join), extra_hem=0.0,
            length=dress.length + self.height,
        )  # fmt: skip


def joined_hem(dress: Dressed) -> Dressed:
    """The hem's edges with a seam's allowance instead of a turned hem: something is sewn to them."""
    pieces = dict(dress.pieces)
    for ref in dress.hem:
        piece = pieces[ref.piece]
        pieces[ref.piece] = replace(
            piece,
            edges=tuple(
                replace(e, allowance=dress.allowances.panel, turned=False) if e.name == ref.edge else e
                for e in piece.edges
            ),
        )
    return replace(dress, pieces=pieces)


def cut_off(dress: Dressed, by: float, where: str) -> Dressed:
    """The garment shortened by cutting its hem off ``by`` higher, every piece where its own sides then are."""
    pieces = dict(dress.pieces)
    done: set[str] = set()
    for ref in dress.hem:
        if ref.piece in done:
            continue
        done.add(ref.piece)
        try:
            pieces[ref.piece] = shortened(pieces[ref.piece], ref.edge, by)
        except CannotMake:
            return dress.also(
                refused(
                    "cannot-cut-off",
                    "The {piece} is not long enough to cut {by} off; the strip is added below it instead.",
                    *in_recipe(f"{where}.place", f"{where}.height"),
                    piece=ref.piece,
                    by=by,
                )
            )
    return replace(dress, pieces=pieces, length=dress.length - by)


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
    top, low = piece.grain
    lowest = made[edge].box[3]
    grain = piece.grain if min(top.y, low.y) > lowest else (top, Point(top.x, max(top.y, low.y) - 30))
    return replace(piece, edges=edges, notches=kept, grain=grain)


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
        sides = [(p, e) for n in sorted(dress.lower) if n in dress.pieces for p in [dress.pieces[n]] for e in p.edges
                 if e.role is Role.SIDE and e.name == "side"]  # fmt: skip
        if not sides or sides[0][1].drawn_length <= self.short + 40:
            return dress.also(
                warn("no-side-for-ruffle", "There is no side seam long enough to let a ruffle into.", *in_recipe(where))
            )
        piece, side = sides[0]
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
        name, long, high, a = dress.free_name("side ruffle"), float(cut), self.height, dress.allowances.side
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
            Edge("start", Role.PANEL, Path.through(Point(0, 0), Point(0, -tip)), 0.0 if tip < 5 else a),
            Edge("hem", Role.HEM, lower_line, inches(0.5), turned=True),
            Edge("end", Role.HEM, Path.through(Point(long, -high), Point(long, 0)), inches(0.5), turned=True),
            Edge("top", Role.PANEL, Path.through(Point(long, 0), Point(0, 0)), a),
        )  # fmt: skip
        strip = Piece(
            name, edges, cut=2, notches=tuple(Notch("top", long * k / 4) for k in (1, 2, 3)),
            grain=(Point(long * 0.7, -high * 0.2), Point(long * 0.7, -high * 0.6)),
        )  # fmt: skip
        upwards = piece.edge("side").path.leaving.y > 0
        at = float(along) if upwards else side.drawn_length - float(along)
        marked = replace(piece, notches=(*piece.notches, Notch("side", at, "ruffle end")))
        join = InnerJoin(
            f"{name} seam", (), (EdgeRef(name, "top"),), ("ruffle end", "hem"), ("ruffle end", "hem"),
            fullness=self.fullness, manner="gathered", names=("side seam", "ruffle"), upper_length=float(along),
        )  # fmt: skip
        return replace(dress, pieces=dress.with_pieces([marked, strip]), joins=(*dress.joins, join))
