"""Godets: sectors set into a slit or seam to widen a hem (trade 8).

            tip  ← stitched stop, notch here
            /\\
           /  \\   side = height of the slit, both sides equal
          / α  \\
         /______\\  hem added = α × height   (dipped: the middle hangs lower)
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from math import pi, radians, sin
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from gentle_hem.core.findings import in_recipe, warn
from gentle_hem.core.geometry import ORIGIN, Arc, Line, Path, Point, polar
from gentle_hem.core.geometry.path import smooth_through
from gentle_hem.core.parts import InnerJoin, between, number_between
from gentle_hem.core.pattern import Edge, EdgeRef, Notch, Piece, Role
from gentle_hem.core.sentences import Word, choice, length, number
from gentle_hem.core.trim.base import Dressed, Trim, Turn
from gentle_hem.core.units import Length, inches
from gentle_hem.core.workings import Angle, Count, Ratio, Worked, Workings

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
    """Six godets of 60°, 40 cm high, let into the seams."""

    turn: ClassVar[Turn] = Turn.INTO_THE_PANELS
    title: ClassVar[str] = "Godets"
    sentences: ClassVar[tuple[str, ...]] = (
        "{count} godets of {angle}, {height} high, let into {place}, dipping {dip} in the middle, spread "
        "{fuller} at each "
        "of {cuts} cuts, hem {hem}.",
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
    count: Annotated[int, number_between(1, 48, "godets")] = 6
    angle: Annotated[float, number_between(20, 180, "degrees")] = 60.0
    height: Annotated[Length, between(50, 1500)] = 400.0
    place: Literal["seams", "slashes"] = "seams"
    dip: Annotated[Length, between(0, 200)] = 0.0
    fuller: Annotated[Length, between(0, 150)] = 0.0
    cuts: Annotated[int, number_between(1, 9, "cuts")] = 3
    hem: Annotated[Length, between(0, 60)] = Field(inches(0.5), description="A narrow hem.")

    def make_up(self, dress: Dressed, where: str, notes: Workings) -> Dressed:
        notes = notes.about("godets")
        height = self.height
        sides = list(_slits(dress))
        longest = min((edge.drawn_length for _, edge in sides), default=dress.length)
        if height > longest - 40:
            height = max(longest - 40, 20.0)
            dress = dress.also(
                warn(
                    "godet-higher-than-seam",
                    "The seams are {seam} long; a godet {height} high does not fit, so it is drawn {drawn}.",
                    *in_recipe(f"{where}.height"),
                    seam=longest,
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
        name = dress.free_name("godet")
        cuts = self.cuts if spread else 0
        piece = godet_piece(name, height, turn, self.dip, self.hem, dress.allowances.panel, self.count, cuts)
        changed = [piece]
        stop_note = "godet tip"
        if self.place == "seams":
            for host, edge in sides:
                at = height if host.begins_at_hem(edge.name) else edge.drawn_length - height
                host = next((p for p in changed if p.name == host.name), host)
                changed = [p for p in changed if p.name != host.name]
                changed.append(replace(host, notches=(*host.notches, Notch(edge.name, at, stop_note))))
        else:
            for host, hem_edge in _panels(dress):
                path = hem_edge.path
                foot = path.point_at(path.length / 2)
                up = path.tangent_at(path.length / 2).left
                slash = Path.through(foot, foot + up * height)
                changed.append(
                    replace(host, internal=(*host.internal, slash), remark="slash to the stitched stop for a godet")
                )
        slits = [EdgeRef(host.name, edge.name) for host, edge in sides] if self.place == "seams" else []
        join, other = (
            InnerJoin(
                seam, (slit,) if slit else (), (EdgeRef(name, side),), ("tip", "hem"), ("tip", "hem"),
                names=("slit", "godet"), upper_length=None if slit else height, upper_from=stop_note if slit else "",
            )
            for seam, side, slit in (
                (f"{name} seam", "left", slits[0] if slits else None),
                (f"{name} other seam", "right", slits[-1] if slits else None),
            )
        )  # fmt: skip
        added = piece.stitched_length("hem")
        return replace(
            dress, pieces=dress.with_pieces(changed), joins=(*dress.joins, join, other),
            extra_hem=dress.extra_hem + self.count / 2 * added,
        )  # fmt: skip


def _slits(dress: Dressed) -> Iterator[tuple[Piece, Edge]]:
    """The seams godets are let into: every side and panel seam of the pieces that reach the hem."""
    for name in dict.fromkeys(ref.piece for ref in dress.hem):
        piece = dress.pieces[name]
        for edge in piece.edges:
            if edge.role in (Role.SIDE, Role.PRINCESS) and edge.allowance > 0:
                yield piece, edge


def _panels(dress: Dressed) -> Iterator[tuple[Piece, Edge]]:
    for ref in dict.fromkeys(dress.hem):
        yield dress.pieces[ref.piece], dress.pieces[ref.piece].edge(ref.edge)


def godet_piece(
    name: str, height: float, angle: float, dip: float, hem: float, allowance: float, count: int, cuts: int = 0
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
        Path.through(polar(height * 0.1, turn), polar(height, turn))
        for turn in (begin + angle * (k + 1) / (cuts + 1) for k in range(cuts))
    )
    return Piece(
        name, edges, cut=count, notches=(Notch("left", 0.0, "godet tip"),), internal=slashes,
        grain=(Point(0, -0.35 * height), Point(0, -0.8 * height)),
    )  # fmt: skip
