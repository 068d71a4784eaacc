"""The rescue bench: a circle that is already cut, and what it must meet (trade 9.1).

   too small by x   cut the waist lower by x/θ · open the side allowance · let in a gusset
   too big by x     darts · deeper seams · gathers · pleats at the centre back · ease · stitch nearer the edge

Every way is worked out to the end: the piece as it then is, so that it can be seen and measured.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from math import pi, radians
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field

from gentle_hem.core.findings import say
from gentle_hem.core.fit import LEAST_DART, LEAST_GATHER, LEAST_SEAM, LOOKS_LIKE_MISTAKE, WIDEST_DART
from gentle_hem.core.geometry import ORIGIN, Arc, Line, Path, Point, polar
from gentle_hem.core.lower.flare import say_sweep
from gentle_hem.core.parts import Allowance, SeamLength, between, number_between
from gentle_hem.core.pattern import Dart, Edge, Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.units import Length, Said
from gentle_hem.core.walk import EASE_PLIABLE, SEAM_TOLERANCE
from gentle_hem.core.what import Section, Sign, What
from gentle_hem.core.workings import Percent, Ratio, Share, Workings

DEEPEST_SEAM = 40.0
WIDEST_GUSSET = 160.0


class CutCircle(BaseModel):
    """What was cut, and what it must meet. Lengths in mm, or text with a unit."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False, defer_build=True)

    seam: SeamLength = Field(description="The edge it must meet, on the stitching line, all round.")
    cut_radius: Annotated[Length, between(1, 5000)] | None = Field(
        None, description="Radius of the waist as it is cut."
    )
    edge_now: SeamLength | None = Field(None, description="Instead: the stitching line as it measures now, all round.")
    sweep: Annotated[float, number_between(20, 1440, "degrees of sweep")] = 360.0
    length: Annotated[Length, between(20, 5000)] = Field(
        620.0, description="From the stitching line to the hem, finished."
    )
    pieces: Annotated[int, number_between(1, 16, "pieces")] = 2
    waist_allowance: Allowance = 10.0
    side_allowance: Allowance = 10.0
    hem_allowance: Allowance = 15.0
    darts: Annotated[int, number_between(0, 16, "darts")] = Field(4, description="How many darts the bodice has.")

    @property
    def theta(self) -> float:
        return radians(self.sweep)

    @property
    def stitched(self) -> float:
        """The stitching line as it is now."""
        if self.edge_now is not None:
            return self.edge_now
        if self.cut_radius is None:
            raise ValueError("say the radius as cut, or the edge as it measures now")
        return self.theta * (self.cut_radius + self.waist_allowance)

    @property
    def radius(self) -> float:
        """Radius of the stitching line as it is now."""
        return self.stitched / self.theta


@dataclass(frozen=True)
class Way:
    """A way out: what is done, what it costs, how long it takes, and one piece as it then is.

    ``loses`` is length in mm, ``hem`` what the hem measures all round; ``fullness`` is how many times as long the
    edge stays, to be gathered or pleated.
    """

    code: str
    template: str
    cost_template: str
    values: dict[str, Any]
    minutes: int
    loses: float
    hem: float
    piece: Piece
    pieces: int
    fullness: float = 1.0
    ease: float = 0.0
    added: float = 0.0
    """What pieces let in between add to the seam, all round."""

    @property
    def stitched(self) -> float:
        """The seam all round once the way is taken, as it is then sewn."""
        return (self.pieces * self.piece.stitched_length("waist") + self.added) / self.fullness

    def text(self, unit: Said) -> str:
        return say(self.template, self.values, unit)

    def cost(self, unit: Said) -> str:
        return say(self.cost_template, self.values, unit)


def ways_out(cut: CutCircle, notes: Workings) -> list[Way]:
    """Every way to make the cut circle meet its seam, the one that costs least first; nothing when it meets."""
    notes = notes.about("rescue")
    now = notes.work(
        "stitching line now", cut.stitched, "{sweep} × {radius}", sweep=Ratio(cut.theta), radius=cut.radius
    )
    over = notes.work("difference", now - cut.seam, "{now} − {seam}", now=now, seam=cut.seam)
    if abs(over) <= SEAM_TOLERANCE:
        return []
    found = list(_too_small(cut, -float(over), notes) if over < 0 else _too_big(cut, float(over), notes))
    return sorted(found, key=lambda way: (LOOKS_LIKE_MISTAKE < way.fullness < LEAST_GATHER, way.loses > 5, way.minutes))


def _sector(
    cut: CutCircle, radius: float, hem_radius: float, side: float | None = None, waist: float | None = None
) -> Piece:
    """One of the pieces as it is, or would be, on its stitching lines."""
    turn = cut.theta / cut.pieces
    start = -pi / 2 - turn / 2
    waist_allowance = cut.waist_allowance if waist is None else waist
    beside = cut.side_allowance if side is None else side
    edges = (
        Edge("side near", Role.SIDE, Path.of(Line(polar(radius, start), polar(hem_radius, start))), beside),
        Edge("hem", Role.HEM, Path.of(Arc(ORIGIN, hem_radius, start, turn)), cut.hem_allowance),
        Edge("side", Role.SIDE, Path.of(Line(polar(hem_radius, start + turn), polar(radius, start + turn))), beside),
        Edge("waist", Role.WAIST, Path.of(Arc(ORIGIN, radius, start + turn, -turn)), waist_allowance),
    )
    middle = (radius + hem_radius) / 2
    return Piece(
        What(Section.SKIRT), edges, alike=True, cut=cut.pieces, grain=(Point(0, -middle + 60), Point(0, -middle - 60))
    )


def _hem_now(cut: CutCircle) -> tuple[float, float]:
    outer = cut.radius + cut.length
    return outer, cut.theta * outer


def _too_small(cut: CutCircle, short: float, notes: Workings) -> Iterator[Way]:
    outer, hem = _hem_now(cut)
    lower = notes.work(
        "waist cut lower by", short / cut.theta, "{short} ÷ {sweep}", short=short, sweep=Ratio(cut.theta)
    )
    if lower < cut.length - 30:
        piece = _sector(cut, cut.seam / cut.theta, outer)
        yield Way(
            "cut-lower",
            "Cut the waist lower by {lower}",
            "{lower} of length; the hem keeps its sweep",
            {"lower": float(lower)},
            20,
            float(lower),
            hem,
            piece,
            cut.pieces,
        )
    edges = 2 * cut.pieces
    each = short / edges
    if cut.pieces > 1 and cut.side_allowance - each >= LEAST_SEAM:
        piece = _leaning(_sector(cut, cut.radius, outer), each, cut.side_allowance - each)
        yield Way(
            "open-seams",
            "Let every seam out by {each} at the waist, leaving {left} of allowance",
            "the seams are unpicked and stitched again",
            {"each": Share(each, edges), "left": cut.side_allowance - each},
            35 + 10 * cut.pieces,
            0.0,
            hem,
            piece,
            cut.pieces,
        )
    gussets = max(cut.pieces, 1)
    wide = short / gussets
    if wide <= WIDEST_GUSSET:
        yield Way(
            "gusset", "Let {count} gussets, each {wide} at the waist and to nothing at the hem, into the seams",
            "more cloth, and seams that show", {"count": str(gussets), "wide": wide}, 60 + 20 * gussets, 0.0, hem,
            _sector(cut, cut.radius, outer), cut.pieces, added=short,
        )  # fmt: skip


def _leaning(piece: Piece, out: float, allowance: float) -> Piece:
    """A sector whose sides lean out by ``out`` at the waist and run to nothing at the hem."""
    edges = {edge.name: edge for edge in piece.edges}
    waist = edges["waist"].path
    longer = Path(
        (
            Line(waist.start - waist.leaving * out, waist.start),
            *waist.segments,
            Line(waist.end, waist.end + waist.arriving * out),
        )
    )
    near, side = edges["side near"].path, edges["side"].path
    made = {
        "waist": longer,
        "side near": Path.through(longer.end, near.end),
        "side": Path.through(side.start, longer.start),
    }
    return replace(
        piece,
        edges=tuple(
            replace(e, path=made.get(e.name, e.path), allowance=allowance if e.role is Role.SIDE else e.allowance)
            for e in piece.edges
        ),
    )


def _too_big(cut: CutCircle, over: float, notes: Workings) -> Iterator[Way]:
    outer, hem = _hem_now(cut)
    plain = _sector(cut, cut.radius, outer)
    share = notes.work(
        "surplus as a share", Percent(100 * over / cut.seam), "{surplus} ÷ {seam}", surplus=over, seam=cut.seam
    )
    if share <= 100 * EASE_PLIABLE:
        yield Way(
            "ease",
            "Ease {over} in along the seam",
            "{share} of the seam; pliable cloth takes up to 3 %",
            {"over": over, "share": share},
            15,
            0.0,
            hem,
            plain,
            cut.pieces,
            ease=over,
        )
    nearer = over / cut.theta
    if cut.waist_allowance - nearer >= LEAST_SEAM:
        piece = _sector(cut, cut.radius - nearer, outer, waist=cut.waist_allowance - nearer)
        yield Way(
            "nearer-edge",
            "Stitch {nearer} nearer the edge, at an allowance of {left}",
            "a narrow allowance; {nearer} of length is won",
            {"nearer": nearer, "left": cut.waist_allowance - nearer},
            10,
            -nearer,
            hem,
            piece,
            cut.pieces,
        )
    if cut.darts and cut.darts % cut.pieces == 0 and LEAST_DART <= over / cut.darts <= WIDEST_DART:
        each = over / cut.darts
        piece = _with_darts(plain, cut.darts // cut.pieces, each)
        yield Way(
            "darts", "Take it up in {count} darts of {each} under the bodice's", "no length; the hem keeps its sweep",
            {"count": str(cut.darts), "each": Share(each, cut.darts)}, 10 * cut.darts, 0.0, hem, piece, cut.pieces,
        )  # fmt: skip
    each = over / (2 * cut.pieces)
    if cut.pieces > 1 and each <= DEEPEST_SEAM:
        piece = _leaning_in(plain, each)
        yield Way(
            "deeper-seams",
            "Stitch every seam {each} deeper at the waist, run out to nothing at the hem",
            "no length; the hem keeps its sweep",
            {"each": Share(each, 2 * cut.pieces)},
            15 * cut.pieces,
            0.0,
            hem,
            piece,
            cut.pieces,
        )
    fullness = cut.stitched / cut.seam
    mistake = "" if fullness >= LEAST_GATHER else "; below 1.15 it looks like a mistake"
    yield Way(
        "gathers", "Gather it onto the seam, {fullness} times as full", "soft folds at the seam" + mistake,
        {"fullness": Ratio(fullness)}, 25, 0.0, hem, plain, cut.pieces, fullness,
    )  # fmt: skip
    pleats = max(2, 2 * round(over / 160))
    yield Way(
        "pleats-behind", "Lay {count} pleats of {each} at the centre back", "a fuller back",
        {"count": str(pleats), "each": Share(over / pleats, pleats)}, 15, 0.0, hem, plain, cut.pieces, fullness,
    )  # fmt: skip


def _with_darts(piece: Piece, count: int, intake: float) -> Piece:
    path = piece.edge("waist").path
    darts = []
    for k in range(count):
        at = path.length * (k + 1) / (count + 1) - intake / 2
        middle = at + intake / 2
        apex = path.point_at(middle) + path.tangent_at(middle).left * 120.0
        darts.append(Dart("waist", at, intake, apex, Sign(f"dart {k + 1}")))
    return replace(piece, darts=tuple(darts))


def _leaning_in(piece: Piece, by: float) -> Piece:
    """A sector whose seams are stitched ``by`` deeper at the waist, run out to nothing at the hem."""
    edges = {edge.name: edge for edge in piece.edges}
    waist = edges["waist"].path
    if waist.length <= 2 * by + 5:
        return piece
    shorter = waist.between(by, waist.length - by)
    made = {
        "waist": shorter, "side near": Path.through(shorter.end, edges["side near"].path.end),
        "side": Path.through(edges["side"].path.start, shorter.start),
    }  # fmt: skip
    return replace(piece, edges=tuple(replace(e, path=made.get(e.name, e.path)) for e in piece.edges))


def spoken(cut: CutCircle, unit: Said) -> str:
    """What is the matter, in a sentence."""
    over = cut.stitched - cut.seam
    named = say_sweep(cut.sweep)
    if abs(over) <= SEAM_TOLERANCE:
        return f"This {named} meets its seam: nothing needs to be done."
    word = "too big" if over > 0 else "too small"
    return say(
        f"This {named} measures {{now}} on its stitching line and must meet {{seam}}: it is {{over}} {word}.",
        {"now": cut.stitched, "seam": cut.seam, "over": abs(over)}, unit,
    )  # fmt: skip
