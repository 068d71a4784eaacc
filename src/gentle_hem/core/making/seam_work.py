"""The seams of a garment as operations: which are sewn in one go, what is said of each, how long it takes."""

from __future__ import annotations

from collections.abc import Container, Iterator, Mapping
from dataclasses import dataclass

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.garment import Garment
from gentle_hem.core.making.operation import Line, Operation, School, Wait, Work, line
from gentle_hem.core.making.sorts import WAYS, Sort, pressed, sort_of
from gentle_hem.core.making.spoken import capital, edges_of, listed, plain
from gentle_hem.core.parts import OpeningPlace
from gentle_hem.core.pattern import NotchKind, Piece, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.seams import Manner, Stretch
from gentle_hem.core.walk import GATHERED_FROM, Walked
from gentle_hem.core.what import Half, Layer, Section, What
from gentle_hem.core.workings import Ratio

SAID_EASE = 1.5
"""Ease between two marks is said from here on (mm)."""

ZIP_END = "zip end"
UNSAID = (str(Role.PANEL), str(Role.FREE), str(Role.TEMPLATE))
"""Corners called after an edge that says nothing."""

SIDES_LAST = 17.5
"""Where the sides stand in the order when they are sewn last."""

AFTER_FITTING = 17.9
CLOSED_LAST = 19.0
AT_THE_ZIP = 17.8
SET_IN_LAST = 17.6

PLACES = {OpeningPlace.CENTRE_BACK: Role.CENTRE_BACK, OpeningPlace.CENTRE_FRONT: Role.CENTRE_FRONT}
"""The edges a garment opens along, by where it opens."""


@dataclass(frozen=True, slots=True)
class Sewn:
    """A seam with its sort, and how many times a garment has it."""

    walked: Walked
    sort: Sort
    times: int
    slit: float = 0.0
    """How much of it is left open, for a godet (mm)."""

    @property
    def layer(self) -> Layer:
        """The layer it is sewn in; a facing or a lining on the outer is sewn in its own."""
        return self.walked.seam.b.stretches[0].piece.layer

    @property
    def first(self) -> What:
        return self.walked.seam.a.stretches[0].piece

    @property
    def last(self) -> What:
        return self.walked.seam.b.stretches[0].piece

    @property
    def metres(self) -> float:
        """How much of it there is to sew in the whole garment."""
        return self.times * (self.walked.length_a - self.slit) / 1000


def sewn_seams(garment: Garment) -> tuple[Sewn, ...]:
    """Every seam with its sort, in the order of the garment."""
    pieces = {piece.what: piece for piece in garment.pieces}
    sorts = [(walked, sort_of(walked.seam, pieces)) for walked in garment.seams]
    slits = {
        (stretch.piece, stretch.edge): walked.length_a
        for walked, sort in sorts
        if sort is Sort.GODET
        for stretch in walked.seam.a.stretches
    }
    return tuple(
        Sewn(walked, sort, _times(walked, pieces), 0.0 if sort is Sort.GODET else _slit(walked, slits))
        for walked, sort in sorts
    )


def _slit(walked: Walked, slits: Mapping[tuple[What, str], float]) -> float:
    """As much of a seam as is left open for a godet."""
    stretch = walked.seam.a.stretches[0]
    return slits.get((stretch.piece, stretch.edge), 0.0) if len(walked.seam.a.stretches) == 1 else 0.0


def _times(walked: Walked, pieces: Mapping[What, Piece]) -> int:
    """How often the whole garment has it: left and right, or as many as are cut."""
    seam = walked.seam
    piece = pieces[seam.a.stretches[0].piece]
    edges = piece.cut * (2 if piece.on_fold and not piece.edge(seam.a.stretches[0].edge).role.is_centre else 1)
    there = sum(stretch.piece == piece.what for stretch in seam.a.stretches)
    return max(1, edges // there // (2 if seam.is_of_itself else 1))


def is_open(sewn: Sewn, recipe: Recipe, pieces: Mapping[What, Piece]) -> bool:
    """Whether a centre seam lies where the garment opens."""
    role = PLACES.get(recipe.opening.place)
    stretch = sewn.walked.seam.a.stretches[0]
    return (
        role is not None and pieces[stretch.piece].edge(stretch.edge).role is role and sewn.walked.seam.is_of_itself
        and sewn.first.section not in (Section.CAPE, Section.TROUSERS)
    )  # fmt: skip


def all_zip(sewn: Sewn, pieces: Mapping[What, Piece]) -> bool:
    """Whether the zip takes the whole of a centre seam: it does not end in it, and nothing hangs below."""
    stretch = sewn.walked.seam.a.stretches[0]
    piece = pieces[stretch.piece]
    ends = any(n.kind is NotchKind.ZIP_END and n.edge == stretch.edge for n in piece.notches)
    return not ends and not piece.what.section.is_lower


@dataclass(frozen=True, slots=True)
class Together:
    """What is sewn in one operation: a sort of seam in a layer, and which of that sort."""

    sort: Sort
    layer: Layer
    which: str = ""

    @property
    def key(self) -> str:
        layer = "" if self.layer is Layer.OUTER or self.layer == str(self.sort) else f"{self.layer} "
        return f"{layer}{self.sort} {self.which}".strip()


IN_ONE, BELOW_OPENING, TO_CLOSE, ARMHOLES = "in one", "below the opening", "rest", "armholes"


def seam_operations(
    garment: Garment, recipe: Recipe, school: School, left: Container[str]
) -> Iterator[tuple[Operation, tuple[Sewn, ...]]]:
    """The seams that are sewn, in operations, each with its seams; ``left`` names those that something else takes."""
    pieces = {piece.what: piece for piece in garment.pieces}
    groups: dict[Together, list[Sewn]] = {}
    for sewn in sewn_seams(garment):
        if sewn.walked.name not in left:
            groups.setdefault(_together(sewn, recipe, school, pieces), []).append(sewn)
    sleeved = any(group.sort is Sort.SLEEVE for group in groups)
    for group, seams in groups.items():
        rank = _rank(group, seams[0], school, sleeved)
        yield _operation(group, tuple(seams), rank, pieces), tuple(seams)


AS_ONE = (Sort.SLEEVE, Sort.SHOULDER, Sort.CROTCH, Sort.WAIST, Sort.CAPE, Sort.POCKET)
BY_PIECE = (Sort.GODET, Sort.PATCH, Sort.COLLAR, Sort.BINDING, Sort.TRIM, Sort.IN_SIDE, Sort.LACED, Sort.CASING)
"""What is sewn in one go: all of a sort in a layer, or all that sets on one piece."""


def _together(sewn: Sewn, recipe: Recipe, school: School, pieces: Mapping[What, Piece]) -> Together:
    sort, flat = sewn.sort, school is School.WAIST_FIRST
    which = sewn.walked.name
    if flat and sort in (Sort.SIDE, Sort.UNDERARM):
        sort, which = Sort.SIDE, IN_ONE
    elif sort is Sort.CENTRE and is_open(sewn, recipe, pieces):
        which = BELOW_OPENING
    elif sort in AS_ONE and not (flat and sort is Sort.CROTCH):
        which = ""
    elif sort is Sort.SIDE:
        which = f"{sewn.first.section} {sewn.first.number}"
    elif sort is Sort.MADE_UP:
        which = sewn.first.name
    elif sort in BY_PIECE:
        which = sewn.last.name
    elif sort is Sort.INSERT:
        which = str(sewn.last.section)
    elif sort is Sort.FACING:
        which = f"{sewn.last.section} {sewn.last.panel}"
    elif sort is Sort.LINING:
        which = _lined_edge(sewn, pieces)
    return Together(sort, sewn.layer, which)


LINED_EDGES = {Role.NECKLINE: "neckline", Role.ARMHOLE: ARMHOLES}


def _lined_edge(sewn: Sewn, pieces: Mapping[What, Piece]) -> str:
    stretch = sewn.walked.seam.a.stretches[0]
    return LINED_EDGES.get(pieces[stretch.piece].edge(stretch.edge).role, TO_CLOSE)


def _operation(group: Together, seams: tuple[Sewn, ...], rank: float, pieces: Mapping[What, Piece]) -> Operation:
    way, press = WAYS[group.sort], pressed(group.sort, seams[0].first)
    says = list(_said_once([list(_says(sewn, pieces, group.which == BELOW_OPENING)) for sewn in seams]))
    if press:
        says.append(line(press))
    return Operation(
        group.key, way.work, _title(group, seams, pieces), tuple(says), rank,
        sum(way.minutes * sewn.times + way.by_metre * sewn.metres for sewn in seams),
        seams=tuple(sewn.walked.name for sewn in seams),
        pieces=tuple(dict.fromkeys(stretch.piece for sewn in seams for stretch in sewn.walked.seam.stretches)),
        stretches=tuple(dict.fromkeys(stretch for sewn in seams for stretch in sewn.walked.seam.stretches)),
        waits=(Wait.IRON,) if press else (), opens=group.which == BELOW_OPENING,
    )  # fmt: skip


FEW = 2
"""The marks of more seams than this are not gone through one by one."""


def _said_once(by_seam: list[list[Line]]) -> Iterator[Line]:
    """What is said of each seam, and what is said alike of several of them once, after the last."""
    said = [one for lines in by_seam for one in lines]
    if len(by_seam) <= FEW:
        yield from (one for k, one in enumerate(said) if one not in said[k + 1 :])
        return
    firsts = [lines[0] for lines in by_seam]
    yield from firsts
    yield from (one for k, one in enumerate(said) if one not in firsts + said[:k] and "marks" not in one.values)


def _rank(group: Together, first: Sewn, school: School, sleeved: bool) -> float:
    rank, flat = WAYS[group.sort].rank, school is School.WAIST_FIRST
    if group.which == IN_ONE:
        rank = SIDES_LAST
    elif flat and group.sort in (Sort.GODET, Sort.INSIDE_LEG):
        rank = SET_IN_LAST
    elif group.which == BELOW_OPENING:
        rank = AT_THE_ZIP
    elif group.sort is Sort.STRAP and first.first.half is Half.BACK:
        rank = AFTER_FITTING
    elif group.which == TO_CLOSE or (group.which == ARMHOLES and sleeved):
        rank = CLOSED_LAST
    if group.layer is Layer.LINING and group.sort is not Sort.LINING:
        return 8.0 + rank / 100  # the lining alike, before it is joined to anything
    if group.layer is Layer.FACING and group.sort not in (Sort.FACING, Sort.SLIT):
        return 6.5 + rank / 100
    return rank


TITLES = {
    Sort.SLEEVE: "Set in the sleeves", Sort.SHOULDER: "Shoulder seams", Sort.CROTCH: "Crotch seam",
    Sort.WAIST: "Waist seam", Sort.CAPE: "Set on the cape", Sort.POCKET: "Pocket bags in the side seams",
    Sort.GODET: "Set in the godets",
}  # fmt: skip


def _title(group: Together, seams: tuple[Sewn, ...], pieces: Mapping[What, Piece]) -> str:
    """What an operation is called at the head of it."""
    sewn, sort = seams[0], group.sort
    of_layer = "" if group.layer is Layer.OUTER else f" of the {group.layer}"
    if group.which == IN_ONE:
        return f"Side seams{of_layer}, underarm to hem in one"
    if group.which == BELOW_OPENING:
        role = pieces[sewn.first].edge(sewn.walked.seam.a.stretches[0].edge).role
        return f"{role.capitalize()} seam{of_layer}, below the opening"
    if sort is Sort.LINING:
        return "Close the lining" if group.which == TO_CLOSE else f"Lining to the {group.which}"
    if sort is Sort.FACING:
        return f"Face the {sewn.last.panel if sewn.last.section.is_upper else sewn.last.section} edge"
    if sort is Sort.MADE_UP:
        return f"Make up the {plain(sewn.first)}"
    if sort is Sort.PATCH:
        return f"Sew on the {plain(sewn.last)}"
    if sort is Sort.INSERT:
        return f"Set in the {sewn.last.section}"
    if sort in TITLES and (not group.which or sort is Sort.GODET):
        return TITLES[sort] + of_layer
    return capital(sewn.walked.name)


def _says(sewn: Sewn, pieces: Mapping[What, Piece], below: bool) -> Iterator[Line]:
    """What is said of one seam: what to what, how long, its marks, its ease or gathers, its allowance."""
    walked = sewn.walked
    seam = walked.seam
    whole = walked.times == 2 and len(seam.a.stretches) > 1
    length = walked.length_a * (2 if whole else 1) - sewn.slit
    times = " all round" if whole else {1: "", 2: ", on both sides"}.get(sewn.times, f", {sewn.times} times")
    if seam.is_of_itself:
        start = walked.upper.at(ZIP_END) if below else None
        down = ", from the end of the zip down" if start else ""
        edge = seam.a.stretches[0].edge
        yield line(f"{{edge}} on {{other}} of the {{piece}}: {{long}}{down}{times}.", edge=capital(edge), other=edge,
                   piece=plain(sewn.first), long=walked.length_a - _above(start, sewn, pieces))  # fmt: skip
    else:
        tip = ", to the tip of the godet" if sewn.slit else ""
        yield line(f"{{a}} to {{b}}: {{long}}{tip}{times}.", a=capital(_side(seam.a.stretches)),
                   b=_side(seam.b.stretches), long=length)  # fmt: skip
    if seam.fullness > GATHERED_FROM:
        drawn = "Pleat" if seam.manner is Manner.PLEATED else "Draw up"
        yield line(f"{drawn} {{from_}} to {{to}}, {{times}} times, its marks on the marks.",
                   from_=walked.length_b * (2 if whole else 1), to=length, times=Ratio(seam.fullness))  # fmt: skip
    else:
        yield from _eased(walked)
    marks = [name for tie in walked.ties if (name := str(tie.name)) and name not in UNSAID]
    if len(set(marks)) > 1:
        yield line("Pin at the {marks}.", marks=listed(list(dict.fromkeys(marks))))
    yield _allowances(seam.a.stretches, seam.b.stretches, pieces)
    opens = sewn.sort is Sort.SIDE and pieces[sewn.first].edge(seam.a.stretches[0].edge).turned
    if opens and sewn.layer is Layer.OUTER:
        yield line("On the left it stays open for the zip.")


def _above(zip_end: float | None, sewn: Sewn, pieces: Mapping[What, Piece]) -> float:
    """How much of a centre seam the zip takes, above where it ends."""
    if zip_end is None:
        return 0.0
    stretch = sewn.walked.seam.a.stretches[0]
    upwards = pieces[stretch.piece].begins_at_hem(stretch.edge) is not stretch.backwards
    return sewn.walked.length_a - zip_end if upwards else zip_end


def _eased(walked: Walked) -> Iterator[Line]:
    """Where one side is longer from mark to mark; not where marks of one name cannot be told apart."""
    names = [mark.name for mark in walked.upper.landmarks]
    if len(set(names)) < len(names):
        return
    for part in walked.sections:
        if abs(part.difference) > SAID_EASE:
            how = "Ease the {longer} in" if part.difference > 0 else "Stretch it on"
            between = " between the {start} and the {end}" if part.start and part.end else ""
            yield line(f"{how} by {{by}}{between}.", longer=walked.lower_name, by=abs(part.difference),
                       start=part.start, end=part.end)  # fmt: skip


def _allowances(a: tuple[Stretch, ...], b: tuple[Stretch, ...], pieces: Mapping[What, Piece]) -> Line:
    if all(pieces[stretch.piece].cloth is ClothRole.PAPER for stretch in (*a, *b)):
        return line("With your own pattern's allowance.")
    one, other = (sorted({pieces[s.piece].edge(s.edge).allowance for s in side}) for side in (a, b))
    if len(one) == len(other) == 1 and abs(one[0] - other[0]) < 1e-6:
        return line("Allowance {wide}.", wide=one[0]) if one[0] else line("On its line, without allowance.")
    if not one[-1]:
        return line("Allowance {wide}, laid along the line it is sewn to.", wide=other[-1])
    return line("Allowance {a} and {b}: stitching line on stitching line.", a=one[-1], b=other[-1])


def _side(stretches: tuple[Stretch, ...]) -> str:
    return edges_of((stretch.piece, stretch.edge) for stretch in stretches)


def gathering(sewn: Sewn) -> bool:
    """Whether the second side is drawn up before it is sewn on."""
    seam = sewn.walked.seam
    return seam.fullness > GATHERED_FROM and seam.manner is not Manner.PLEATED


GATHER_MINUTES, GATHER_BY_METRE = 5.0, 12.0
JUST_BEFORE = 0.002


def gather_operation(sewn: Sewn, pieces: Mapping[What, Piece], rank: float) -> Operation:
    """Two rows of long stitches along the fuller side, and drawn up to length; ``rank`` is the seam's own."""
    walked, seam = sewn.walked, sewn.walked.seam
    over = walked.times if len(seam.a.stretches) > 1 else 1
    long = walked.length_b * over
    allowance = pieces[seam.b.stretches[0].piece].edge(seam.b.stretches[0].edge).allowance
    return Operation(
        f"gather {walked.name}", Work.GATHER, f"Gather the {_side(seam.b.stretches)}",
        (
            line("Two rows of long stitches either side of the line, within the allowance of {wide}, ended at each "
                 "seam.", wide=allowance),
            line("Draw {long} up to {short}, and share the fullness out between the marks.", long=long,
                 short=walked.length_a * over),
        ),
        rank - JUST_BEFORE,
        GATHER_MINUTES * sewn.times + GATHER_BY_METRE * sewn.times * walked.length_b / 1000,
        pieces=seam.b.pieces, stretches=seam.b.stretches,
    )  # fmt: skip
