"""Prints and stripes matched over seams, and a border laid along a hem.

front │ notch ●───────────● notch │ back      both notches fall on the same place of the repeat, so that the print
      │       ┊           ┊       │           runs on over the seam; a centre lies on the middle of a stripe
══════╪═══════╪═══════════╪═══════╪══════
      repeat ─┘           └─ some whole repeats further on

One piece begins, its mates follow it over the seams that are chosen, and theirs follow them. What is matched is laid
all the same way up. Round a ring of pieces the last seam meets only where their lengths allow it, and it says so.
"""

from __future__ import annotations

from collections.abc import Container, Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum

from gentle_hem.core.cloth.cloths import Cloth
from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cloth.squares import Repeat
from gentle_hem.core.cloth.things import Anchor, Lie, OnCloth, Thing, Unmatched, Why, laid_down
from gentle_hem.core.cut import CutPiece, cut_pieces
from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry import Point
from gentle_hem.core.pattern import Piece, Role
from gentle_hem.core.replace import replace
from gentle_hem.core.seams import Stretch
from gentle_hem.core.walk import Walked
from gentle_hem.core.what import UNNAMED, Layer, What

MATCHED_WITHIN = 1.0
"""How far a print may miss over a seam and still be matched (mm)."""

BORDER_BEND = 15.0
"""How far a hem may bend and still follow a border without its being seen (mm): common practice."""


class Over(StrEnum):
    """Over which seams a print is matched."""

    SIDES = "sides"
    CENTRES = "centres"
    JOINS = "joins"


SIDE_ROLES = (Role.SIDE, Role.PRINCESS, Role.PANEL, Role.INSIDE_LEG)


@dataclass(frozen=True, slots=True)
class Match:
    """A seam over which the print is matched: where, on either piece (mm on its paper)."""

    seam: str
    piece: What
    at: Point
    other: What
    other_at: Point


def matches(garment: Garment, role: ClothRole, over: Container[Over]) -> list[Match]:
    """The seams between two pieces of a cloth over which its print is to be matched, each with its places."""
    pieces = {piece.what: piece for piece in garment.pieces if piece.cloth is role and piece.what.layer is Layer.OUTER}
    found = []
    for walked in garment.seams:
        seam = walked.seam
        a, b = seam.a.stretches[0], seam.b.stretches[0]
        if a.piece in pieces and b.piece in pieces and a.piece != b.piece and not seam.repeats:
            kind = _kind(walked, pieces[a.piece], a)
            if kind in over and seam.fullness < 1.05:
                at, other = _meeting(pieces[a.piece], a, pieces[b.piece], b)
                found.append(Match(seam.name, a.piece, at, b.piece, other))
    return found


def _kind(walked: Walked, piece: Piece, stretch: Stretch) -> Over | None:
    if walked.seam.is_join:
        return Over.JOINS
    role = piece.edge(stretch.edge).role
    if role.is_centre:
        return Over.CENTRES
    return Over.SIDES if role in SIDE_ROLES else None


def _meeting(one: Piece, a: Stretch, other: Piece, b: Stretch) -> tuple[Point, Point]:
    """Where two edges meet: at their first notch that bears the same name, or where the seam begins."""
    theirs = {notch.landmark: notch.at for notch in other.notches if notch.edge == b.edge}
    for notch in one.notches:
        if notch.edge == a.edge and notch.landmark != UNNAMED and notch.landmark in theirs:
            return (
                one.edge(a.edge).path.point_at(notch.at),
                other.edge(b.edge).path.point_at(theirs[notch.landmark]),
            )
    return _beginning(one, a), _beginning(other, b)


def _beginning(piece: Piece, stretch: Stretch) -> Point:
    path = piece.edge(stretch.edge).path
    end = path.length if stretch.end is None else stretch.end
    return path.point_at(end if stretch.backwards else stretch.start)


def repeat_of(cloth: Cloth) -> Repeat:
    """How often a cloth's print comes again."""
    return Repeat(cloth.repeat_across, cloth.repeat_along)


def on_print(
    on: OnCloth, garment: Garment, role: ClothRole, repeat: Repeat, over: Container[Over],
    lies: Mapping[str, Lie] | None = None,
) -> OnCloth:  # fmt: skip
    """The things of a cloth, each with the place of it that must fall on the print, and where."""
    lies = lies or {}
    pieces = {piece.what: piece for piece in garment.pieces}
    cut = {one.name: one for one in cut_pieces(garment) if one.cloth is role}
    levels = _levels(garment, role, over, pieces, cut, lies) if repeat.along else {}
    things = []
    for thing in on.things:
        one = cut.get(thing.name)
        things.append(thing)
        if one is None:
            continue
        centre = _centre(pieces[one.piece]) if Over.CENTRES in over and repeat.across else None
        level = levels.get(one.piece)
        if level is None and centre is None:
            continue
        at, phase = level or (centre or Point(0, 0), 0.0)
        lying = laid_down(one, pieces[one.piece], lies.get(one.name, Lie.ALONG))[1]
        x, y = lying.place(*at)
        across = None
        if centre is not None and repeat.across:
            across = (x - lying.place(*centre)[0]) % repeat.across
        along = phase % repeat.along if level is not None and repeat.along else None
        things[-1] = replace(thing, anchor=Anchor(x, y, across, along))
    return replace(on, things=tuple(things))


def _centre(piece: Piece) -> Point | None:
    """A place on the centre front or back of a piece, where it has one."""
    return next((edge.path.start for edge in piece.edges if edge.role.is_centre), None)


def _levels(
    garment: Garment, role: ClothRole, over: Container[Over], pieces: Mapping[What, Piece],
    cut: Mapping[str, CutPiece], lies: Mapping[str, Lie],
) -> dict[What, tuple[Point, float]]:  # fmt: skip
    """For every piece that is matched: one of its places, and the level on the print (mm) it must fall on."""
    first: dict[What, CutPiece] = {}
    for one in cut.values():
        first.setdefault(one.piece, one)
    mates: dict[What, list[tuple[Point, What, Point]]] = {}
    for match in matches(garment, role, over):
        mates.setdefault(match.piece, []).append((match.at, match.other, match.other_at))
        mates.setdefault(match.other, []).append((match.other_at, match.piece, match.at))

    def height(what: What, at: Point) -> float:
        one = first[what]
        return laid_down(one, pieces[what], lies.get(one.name, Lie.ALONG))[1].place(*at)[1]

    found: dict[What, tuple[Point, float]] = {}
    for begin in mates:
        if begin in found or begin not in first:
            continue
        found[begin] = mates[begin][0][0], 0.0
        waiting = [begin]
        while waiting:
            here = waiting.pop(0)
            known, level = found[here]
            for at, mate, mate_at in mates.get(here, []):
                if mate not in found and mate in first:
                    found[mate] = mate_at, level + height(here, at) - height(here, known)
                    waiting.append(mate)
    return found


def on_border(on: OnCloth, garment: Garment, role: ClothRole, width: float) -> OnCloth:
    """The things of a cloth with a border along its selvedge: those whose hem is straight enough lie crosswise, the hem
    on the border; the others say why not.
    """
    pieces = {piece.what: piece for piece in garment.pieces}
    laid: dict[str, Thing] = {}
    refused = []
    for one in cut_pieces(garment):
        if one.cloth is not role:
            continue
        piece = pieces[one.piece]
        hems = [edge for edge in piece.edges if edge.role is Role.HEM]
        if not hems or piece.what.layer is not Layer.OUTER:
            continue
        shape, lying = laid_down(one, piece, Lie.CROSSWISE)
        xs = [lying.place(*place)[0] for edge in hems for place in edge.path.flatten(1.0)]
        bend = max(xs) - min(xs)
        if bend > BORDER_BEND:
            refused.append(Unmatched(one.name, Why.BENT, bend))
        elif float(shape.bounds[2]) > width:
            refused.append(Unmatched(one.name, Why.TOO_LONG, float(shape.bounds[2])))
        else:
            laid[one.name] = Thing(one.name, shape, on_border=True)
    return replace(on, things=tuple(laid.get(thing.name, thing) for thing in on.things), refused=tuple(refused))


def matched_within(
    garment: Garment,
    role: ClothRole,
    over: Container[Over],
    spots: Mapping[str, tuple[float, float]],
    repeat: Repeat,
    lies: Mapping[str, Lie] | None = None,
) -> Iterator[tuple[Match, float]]:
    """Every chosen seam with how far apart its two places lie on the repeat (mm), for lower left corners by name."""
    assert repeat.along
    pieces = {piece.what: piece for piece in garment.pieces}
    cut: dict[What, CutPiece] = {}
    for one in cut_pieces(garment):
        if one.name in spots:
            cut.setdefault(one.piece, one)
    for match in matches(garment, role, over):
        if match.piece in cut and match.other in cut:
            ends = []
            for what, at in ((match.piece, match.at), (match.other, match.other_at)):
                one = cut[what]
                lie = (lies or {}).get(one.name, Lie.ALONG)
                ends.append(laid_down(one, pieces[what], lie)[1].place(*at)[1] + spots[one.name][1])
            off = (ends[0] - ends[1]) % repeat.along
            yield match, min(off, repeat.along - off)
