"""Everything at the bench that is no seam: cutting, marking, darts, edges finished alone, closures, the fitting, the
hang, the hem.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.cut import cut_pieces
from gentle_hem.core.garment import Garment
from gentle_hem.core.geometry.point import turn
from gentle_hem.core.making.operation import Closure, DartOf, EdgeOf, Operation, Wait, Work, line
from gentle_hem.core.making.seam_work import Sewn, all_zip, is_open, sewn_seams
from gentle_hem.core.making.sorts import SMALL, SMALL_PANELS, Sort
from gentle_hem.core.making.spoken import capital, edges_of
from gentle_hem.core.parts import OpeningPlace
from gentle_hem.core.pattern import FOLDS, Edge, Finished, Fold, MarkKind, NotchKind, Piece, Role
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.seams import Stretch
from gentle_hem.core.what import Layer, Panel, Section, What

CURVED = 1.002
"""An edge so many times as long as the straight line between its ends is on the bias somewhere, and stretches."""

ONTO_THE_BIAS = 30.0
"""A hem that turns by more than this on one piece (degrees) runs onto the bias: the skirt grows, and hangs first."""

HANG_HOURS = (24.0, 48.0)
"""A flared skirt hangs 24-48 h before it is levelled: common practice (trade 13)."""

FITTING, FITTING_FLAT = 17.6, 17.3
"""Where the fitting stands: the waist is joined, nothing is closed. With the sides sewn last they are basted for it."""

ZIP = 18.0


def preparation(garment: Garment) -> Iterator[Operation]:
    """Cutting by cloth, marking, staystitching and fusing."""
    by_cloth: dict[ClothRole, list[What]] = {}
    count: Counter[ClothRole] = Counter()
    for one in cut_pieces(garment):
        by_cloth.setdefault(one.cloth, []).append(one.piece)
        count[one.cloth] += 1
    for cloth, pieces in by_cloth.items():
        whats = tuple(dict.fromkeys(pieces))
        yield Operation(
            f"cut {cloth}", Work.CUT, f"Cut from the {_cloth(cloth)}",
            (
                line("{many} pieces, as the lay of the {cloth} shows them; count them before it is put away.",
                     many=str(count[cloth]), cloth=_cloth(cloth)),
                line("Grain along the selvedge, every fold piece on the fold."),
            ),
            0.0, 15 + 3.0 * count[cloth], pieces=whats, waits=(Wait.CLOTH,),
        )  # fmt: skip
    cloth_pieces = [p for p in garment.pieces if p.cloth is not ClothRole.PAPER]
    notches = sum(len(p.notches) + 3 * len(p.darts) + len(p.marks) for p in cloth_pieces)
    yield Operation(
        "mark", Work.MARK, "Mark darts and notches",
        (line("Every notch across its allowance, every dart to its point, on the wrong side; single notches in front, "
              "double behind."),),
        1.0, 10 + 0.4 * notches, pieces=tuple(p.what for p in cloth_pieces),
    )  # fmt: skip
    stays = [
        EdgeOf(p.what, e.name)
        for p in cloth_pieces
        if p.what.layer is Layer.OUTER and p.what.section not in SMALL
        for e in p.edges
        if e.role in (Role.NECKLINE, Role.ARMHOLE, Role.WAIST)
        if e.path.length > CURVED * e.path.start.distance(e.path.end)
    ]
    if stays:
        yield Operation(
            "staystitch", Work.STAYSTITCH, "Staystitch the curved edges",
            (line("{edges}: within the allowance, from the shoulder or side to the centre.",
                  edges=capital(_edges(stays))),),
            2.0, 3.0 * len(stays), pieces=tuple(dict.fromkeys(e.piece for e in stays)),
            stretches=tuple(Stretch(e.piece, e.edge) for e in stays),
        )  # fmt: skip
    fused = [p for p in garment.pieces if p.what.layer is Layer.INTERFACING]
    if fused:
        yield Operation(
            "fuse", Work.FUSE, "Fuse the interfacing",
            (line("On {pieces}: lower the iron, do not slide it; let each cool flat.",
                  pieces=", ".join(p.what.as_layer(Layer.OUTER).name for p in fused)),),
            3.0, 5.0 * len(fused), pieces=tuple(p.what for p in fused),
            edges=tuple(EdgeOf(p.what, e.name) for p in fused for e in p.edges if e.finished),
            waits=(Wait.IRON,),
        )  # fmt: skip


FOLDED = {
    Fold.TO_CENTRE: "towards the centre", Fold.TO_SIDE: "towards the side", Fold.DOWN: "down",
    Fold.BOTH_IN: "both folds to the middle", Fold.BOTH_OUT: "both folds from the middle",
}  # fmt: skip


def darts(garment: Garment) -> Iterator[Operation]:
    """The darts and the pleats of each piece, and darts with two points."""
    for piece in garment.pieces:
        for pleats, work, title in ((False, Work.DARTS, "Darts"), (True, Work.PLEATS, "Pleats")):
            these = [(k, dart) for k, dart in enumerate(piece.darts) if dart.pleat is pleats]
            double = [m for m in piece.marks if m.kind is MarkKind.DART] if not pleats else []
            if not these and not double:
                continue
            says = [
                line(
                    "The {name}, {wide} at the {edge}, pressed {fold}." if pleats
                    else "The {name}, {wide} wide at the {edge}, to its point; pressed {fold}.",
                    name=str(dart.landmark), wide=dart.intake, edge=dart.edge,
                    fold=FOLDED[dart.fold or FOLDS.get(piece.edge(dart.edge).role, Fold.TO_CENTRE)],
                )
                for _, dart in these
            ]  # fmt: skip
            if double:
                says.append(line("{many} with two points: from the middle to either end, snipped where it is widest.",
                                 many=f"{len(double)} dart" + ("s" if len(double) > 1 else "")))  # fmt: skip
            says.append(line("Baste across the top." if pleats else "Tie the ends; do not stitch back at a point."))
            many = (len(these) + len(double)) * (2 if piece.on_fold or piece.cut > 1 else 1)
            yield Operation(
                f"{work} {piece.name}", work, f"{title} of the {piece.name}", tuple(says), _dart_rank(piece),
                (4.0 if pleats else 6.0) * many, darts=tuple(DartOf(piece.what, k) for k, _ in these),
                pieces=(piece.what,),
                stretches=tuple(dict.fromkeys(Stretch(piece.what, dart.edge) for _, dart in these)),
                waits=(Wait.IRON,),
            )  # fmt: skip


def _dart_rank(piece: Piece) -> float:
    if piece.what.layer is Layer.LINING:
        return 8.0
    return 11.5 if piece.what.section.is_lower else 4.0


@dataclass(frozen=True, slots=True)
class _Alike:
    """Edges that are finished in one go: what that is called, and its place in the order."""

    key: str
    title: str
    rank: float
    hem: bool = False


def edges_finished(garment: Garment) -> Iterator[Operation]:
    """The edges that are sewn to nothing, each with those that are finished with it."""
    groups: dict[_Alike, dict[Finished, list[EdgeOf]]] = {}
    for piece in garment.pieces:
        for edge in piece.edges:
            if edge.finished in (None, Finished.FUSED) or edge.allowance <= 0 or piece.cloth is ClothRole.PAPER:
                continue
            assert edge.finished is not None
            alike = groups.setdefault(_alike(piece, edge), {})
            alike.setdefault(edge.finished, []).append(EdgeOf(piece.what, edge.name))
    pieces = {piece.what: piece for piece in garment.pieces}
    for group, by_manner in groups.items():
        says, minutes = [], 6.0
        for finished, edges in by_manner.items():
            own = [(pieces[e.piece], pieces[e.piece].edge(e.edge)) for e in edges]
            long = sum(edge.drawn_length * piece.cut * (2 if piece.on_fold else 1) for piece, edge in own)
            says.append(
                line("{edges}: {how}, {wide}; {long} in all.", edges=capital(_edges(edges)), how=HOW[finished],
                     wide=max(edge.allowance for _, edge in own), long=long)
            )  # fmt: skip
            minutes += MINUTES[finished] * long / 1000
        edges = [one for there in by_manner.values() for one in there]
        yield Operation(
            group.key, Work.HEM if group.hem else Work.EDGE, group.title, tuple(says), group.rank, minutes,
            edges=tuple(edges), pieces=tuple(dict.fromkeys(one.piece for one in edges)),
            stretches=tuple(Stretch(one.piece, one.edge) for one in edges), waits=(Wait.IRON,),
        )  # fmt: skip


HOW = {
    Finished.HEM: "turned up", Finished.BOUND: "bound, or turned narrowly", Finished.FACED: "faced",
    Finished.TURNED: "turned under twice", Finished.FOLDED: "folded back on its line",
}  # fmt: skip
MINUTES = {
    Finished.HEM: 15.0, Finished.BOUND: 25.0, Finished.FACED: 20.0, Finished.TURNED: 15.0, Finished.FOLDED: 10.0,
}  # fmt: skip
"""To finish a metre; common practice, from memory."""


def _alike(piece: Piece, edge: Edge) -> _Alike:
    """Which edges are finished with it."""
    what, hem = piece.what, edge.finished is Finished.HEM
    if what.layer is Layer.LINING:
        if hem or edge.role is Role.HEM:
            return _Alike("lining hem", "Hem the lining", 20.6, hem=True)
        return _Alike("lining edges", "Finish the edges of the lining", 18.9)
    small = (what.section in SMALL and what.section is not Section.GODET) or what.panel in SMALL_PANELS
    if small or what.layer is Layer.FACING:
        rank = 20.5 if what.section is Section.FLOUNCE else 7.2 if small else 5.1
        if hem:
            return _Alike(f"hem {what.name}", f"Hem the {what.name}", rank, hem=True)
        return _Alike(f"edges {what.name}", f"Finish the edges of the {what.name}", rank)
    if hem or edge.role is Role.HEM:
        if what.section is Section.SLEEVE:
            return _Alike("hem sleeves", "Hem the sleeves", 20.2, hem=True)
        return _Alike("hem", "Hem the dress", 20.1, hem=True)
    if edge.finished is Finished.BOUND:
        if edge.role is Role.NECKLINE:
            return _Alike("neckline", "Finish the neckline", 9.7)
        return _Alike("armholes", "Finish the armholes", 13.6)
    if edge.finished is Finished.FOLDED:
        return _Alike("front edges", "Fold back the front edges and their facings", 17.2)
    rank = 20.3 if what.section.is_lower else 9.8
    return _Alike(f"edges {what.section} {what.panel}", f"Turn under the edges of the {what.name}", rank)


def closures(garment: Garment, recipe: Recipe) -> Iterator[Operation]:
    """Zip, buttons and lacing, each once."""
    taken = taken_by_zip(garment, recipe)
    strips = [p for p in garment.pieces if p.what.panel is Panel.LACING]
    zipped = [p for p in garment.pieces if any(n.kind is NotchKind.ZIP_END for n in p.notches)]
    if recipe.opening.place is not OpeningPlace.NONE and (zipped or taken or not strips):
        where = {OpeningPlace.CENTRE_BACK: "centre back", OpeningPlace.CENTRE_FRONT: "centre front",
                 OpeningPlace.SIDE: "left side seam"}[recipe.opening.place]  # fmt: skip
        ends = ", to {below} below the waist, all that it crosses level on both sides" if zipped else ""
        says = [
            line(f"In the {{where}}{ends}.", where=where, below=recipe.opening.below_waist),
            line("Allowance {wide}; each side from the bottom up, then close it and look at every seam it crosses.",
                 wide=recipe.allowances.zip),
        ]  # fmt: skip
        yield Operation(
            "zip", Work.CLOSURE, f"Zip in the {where}", tuple(says), ZIP, 45.0,
            seams=tuple(one.walked.name for one in taken), closures=(Closure.ZIP,), opens=True,
            pieces=tuple(dict.fromkeys([*(p.what for p in zipped), *(s.first for s in taken)])),
            stretches=tuple(dict.fromkeys(x for s in taken for x in s.walked.seam.stretches)),
            waits=(Wait.CLOTH,),
        )  # fmt: skip
    holes = {p.what: sum(m.kind is MarkKind.BUTTONHOLE for m in p.marks) for p in garment.pieces}
    many = sum(holes.values())
    if many:
        buttoned = tuple(what for what, count in holes.items() if count)
        yield Operation(
            "buttons", Work.CLOSURE, "Buttonholes and buttons",
            (
                line("{many} buttonholes as marked; try one on a scrap of the same layers first.", many=str(many)),
                line("Buttons are placed on the body: at the bust first, the waist seam midway between two, then equal "
                     "spaces."),
            ),
            21.0, 8.0 * many + 10, closures=(Closure.BUTTONS,), pieces=buttoned, waits=(Wait.PERSON,),
        )  # fmt: skip
    if strips:
        yield Operation(
            "lacing", Work.CLOSURE, "Lace it",
            (line("Bone beside the loops, lace from the waist up, the panel behind caught on one side."),),
            20.9, 25.0, closures=(Closure.LACING,), pieces=tuple(p.what for p in strips) , waits=(Wait.PERSON,),
        )  # fmt: skip


def taken_by_zip(garment: Garment, recipe: Recipe) -> tuple[Sewn, ...]:
    """The centre seams that are zip from end to end, and are sewn with it."""
    pieces = {piece.what: piece for piece in garment.pieces}
    return tuple(
        sewn for sewn in sewn_seams(garment)
        if sewn.sort in (Sort.CENTRE, Sort.MADE_UP) and is_open(sewn, recipe, pieces) and all_zip(sewn, pieces)
    )  # fmt: skip


def is_flared(piece: Piece) -> bool:
    """Whether its hem runs onto the bias, so that it grows where it hangs."""
    return any(
        abs(turn(edge.path.leaving, edge.path.arriving)) > ONTO_THE_BIAS
        for edge in piece.edges
        if edge.role is Role.HEM
    )


def at_the_end(garment: Garment, fitting: float) -> Iterator[Operation]:
    """The fitting, the hang where something is flared, and the last press."""
    whole = tuple(piece.what for piece in garment.pieces if piece.what.layer is Layer.OUTER)
    yield Operation(
        "fitting", Work.FIT, "Fitting",
        (
            line("Sides and straps basted or pinned, the opening pinned shut, shoes on."),
            line("Look at the neck, the armholes, the bust, the waist seam and the hem; note place, amount and side."),
        ),
        fitting, 60.0, pieces=whole, waits=(Wait.PERSON,),
    )  # fmt: skip
    hung = [p.what for p in garment.pieces if p.what.layer is Layer.OUTER and _hangs(p) and is_flared(p)]
    if hung:
        yield Operation(
            "hang", Work.HANG, "Hang it",
            (line("On a form or a padded hanger, 24 to 48 hours: it grows where the hem is on the bias."),),
            19.8, 5.0, pieces=tuple(hung), hours=HANG_HOURS,
        )  # fmt: skip
        yield Operation(
            "level", Work.HEM, "Level the hem",
            (line("On the person or the form, shoes on, from the floor up all round; trim to the allowance."),),
            20.0, 25.0, pieces=tuple(hung), waits=(Wait.PERSON,),
        )  # fmt: skip
    yield Operation(
        "press", Work.PRESS, "Last press",
        (line("From the inside, seams first, then edges; threads off, pins counted."),),
        22.0, 25.0, pieces=whole, waits=(Wait.IRON,),
    )  # fmt: skip


def _hangs(piece: Piece) -> bool:
    return piece.what.section.is_lower or piece.what.section.is_upper


def _cloth(role: ClothRole) -> str:
    return {ClothRole.OUTER: "outer cloth", ClothRole.CONTRAST: "contrast", ClothRole.LINING: "lining",
            ClothRole.INTERFACING: "interfacing"}.get(role, str(role))  # fmt: skip


def _edges(edges: Iterable[EdgeOf]) -> str:
    return edges_of((one.piece, one.edge) for one in edges)
