"""Recipe in, garment out. Pure: the same recipe always makes the same garment.

block ─► style ─► band ─► lower part ─► fitted to the edge above ─► trims ─► lining
              └─ or carried on down as a gown ──────────────────┘      └─► joins, seams, wear
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

from gentle_hem.core.agreement import agreement
from gentle_hem.core.cannot import CannotDraw, CannotMake
from gentle_hem.core.drafting import Step
from gentle_hem.core.estimates import USUAL_BUST, from_size
from gentle_hem.core.fault import fault
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, Place, Remedy, in_recipe, refused, stop
from gentle_hem.core.fit import fitted, remedies, side_ends
from gentle_hem.core.garment import Garment
from gentle_hem.core.join import CENTRE_FRONT, JoinReport, Landmark, Unrolled, compare, findings_for, unroll
from gentle_hem.core.lower.gown import Gown
from gentle_hem.core.parts import Host, InnerJoin, Made
from gentle_hem.core.pattern import Edge, EdgeRef, Half, Layer, Piece, Role, Seam, Section
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.sound import sound
from gentle_hem.core.style.carry import renamed_edge
from gentle_hem.core.style.style import style_bodice
from gentle_hem.core.trim.base import Dressed
from gentle_hem.core.walk import Walked, finding_for, walk
from gentle_hem.core.wear import Worn, wear
from gentle_hem.core.workings import Workings


def make_up(recipe: Recipe) -> Garment:
    """Everything a recipe makes: pieces, seams, the joins, workings and findings.

    Never raises for a valid recipe; a dress that cannot be sewn or worn has findings that say why.
    """
    return _MakingUp(recipe).garment()


class _MakingUp:
    """One garment on its way through the workroom."""

    def __init__(self, recipe: Recipe) -> None:
        self.recipe = recipe
        self.notes = Workings()
        self.pieces: dict[str, Piece] = {}
        self.seams: list[Seam] = []
        self.joins: list[JoinReport] = []
        self.findings: list[Finding] = [*agreement(recipe.figure)]
        self.crotch: float | None = None
        self.waist = 0.0

    def garment(self) -> Garment:
        """The garment as far as it could be made. An error nobody foresaw ends its stage, not the rest."""
        draft: tuple[Step, ...] = ()
        try:
            draft = self._dress()
        except CannotMake as wrong:
            why = "its lines run into each other" if isinstance(wrong, CannotDraw) else str(wrong)
            self.findings.append(
                stop(
                    "cannot-be-made", "The {part} cannot be drawn with these numbers: {why}. Look at the last one.",
                    *in_recipe(wrong.field or "lower"), part=self.recipe.lower.title.lower(), why=why,
                )
            )  # fmt: skip
        except Exception as error:
            self.findings.append(fault("garment", error))
        pieces, unsound = self._drawable()
        self.findings += unsound
        walked = self._walked({piece.name: piece for piece in pieces})
        return Garment(pieces, walked, tuple(self.joins), tuple(self.notes), tuple(self.findings), draft)

    def _dress(self) -> tuple[Step, ...]:
        recipe, notes = self.recipe, self.notes
        block = _drafted(recipe, notes)
        gown = recipe.lower if isinstance(recipe.lower, Gown) else None
        if not block.waist:
            self._take(block)
            return block.draft  # nothing to hang anything from, and its own finding says so
        bodice = style_bodice(
            block, recipe.figure, recipe.allowances, notes, recipe.style, recipe.panels, recipe.contour,
            (lambda piece: gown.below(piece, recipe.figure, Workings())) if gown else None,
        )  # fmt: skip
        self._take(bodice)
        # a gown's lowest edge is its hem: its waist is the block's
        edge = block if bodice.carried else bodice
        self.waist = 2 * unroll(edge.waist, {p.name: p for p in edge.pieces}, edge.corners).length
        lower = self._cut_in_one(bodice, gown) if gown and bodice.carried else self._joined(bodice)
        upper = frozenset(_gown(p.name) if bodice.carried else p.name for p in bodice.pieces)
        below = bodice.level + recipe.band.depth + recipe.lower.hangs if not bodice.carried else recipe.lower.hangs
        dress = self._trimmed(lower, upper, below)
        for join in (*lower.joins, *dress.joins):
            self._inner(join)
        outer = tuple(self.pieces.values())
        for piece in recipe.finish.pieces(outer):
            self.pieces[piece.name] = piece
        self.findings += wear(recipe, self._worn(bodice, dress, upper), notes)
        return block.draft

    def _drawable(self) -> tuple[tuple[Piece, ...], list[Finding]]:
        """The pieces that can be drawn and cut out; one whose drawing fails is left off and said to be a fault."""
        kept: list[Piece] = []
        findings: list[Finding] = []
        for piece in self.pieces.values():
            try:
                looked, found = sound([piece])
                for made in looked:
                    for dart in made.darts:
                        made.dart_leg_paths(dart)
                    for notch in made.notches:
                        made.edge(notch.edge)
                    if not made.cut_line.is_closed:
                        raise CannotDraw("its cut line does not close")
            except Exception as error:
                findings.append(fault(piece.name, error, Place(piece=piece.name)))
                continue
            kept += looked
            findings += found
        return tuple(kept), findings

    def _walked(self, pieces: dict[str, Piece]) -> tuple[Walked, ...]:
        """Every seam whose pieces could be drawn, measured; one that does not walk has a finding."""
        whole = [s for s in self.seams if all(ref.piece in pieces for ref in (*s.a, *s.b))]
        walked = tuple(walk(seam, pieces) for seam in whole)
        # joins have findings of their own that say more than "does not walk"
        spoken_for = {report.name for report in self.joins}
        self.findings += [
            found for one in walked if one.seam.name not in spoken_for and (found := finding_for(one)) is not None
        ]
        return walked

    def _take(self, made: Made) -> None:
        self.pieces |= {piece.name: piece for piece in made.pieces}
        self.seams += made.seams
        self.findings += made.findings

    def _joined(self, bodice: Made) -> Made:
        """The band, if there is one, and the lower part sewn to the bodice's edge."""
        recipe, notes = self.recipe, self.notes
        upper = unroll(bodice.waist, self.pieces, bodice.corners)
        host = Host(
            upper, recipe.allowances, recipe.opening, recipe.figure, recipe.join.ease, bodice.level, bodice.point,
            _length_of(Half.FRONT, self.pieces.values()),
        )  # fmt: skip
        above, above_name = bodice.waist, "bodice"
        band = recipe.band.make_up(host, notes)
        if band is not None:
            self._take(band)
            self.seams.append(Seam("band seam", bodice.waist, band.waist))
            self.joins.append(
                compare(
                    "band seam", upper, unroll(band.waist, self.pieces, band.corners), 0.0, names=("bodice", band.name)
                )
            )
            self.findings += findings_for(self.joins[-1])
            upper = unroll(band.hem, self.pieces, band.hem_corners)
            above, above_name = band.hem, band.name
            host = replace(host, waist=upper, level=host.level + recipe.band.depth, point=0.0)
        lower = fitted(recipe.lower.make_up(host, notes), host, recipe.join)
        self._take(lower)
        if host.point and not lower.point:
            self.findings.append(
                refused(
                    "skirt-without-point",
                    "The bodice ends in a point {point} below the waist. The {part}'s edge has the length of it but is "
                    "drawn without it: lay the bodice on it and draw the point before it is cut.",
                    *in_recipe("panels.ends"),
                    remedies=(
                        Remedy("straight-waist", "End the bodice at the waist instead", {"panels.ends": "waist"}),
                        Remedy("circle", "Hang a circle, which follows the point", {"lower": {"kind": "circle"}}),
                    ),
                    part=lower.name,
                    point=host.point,
                )
            )
        self.crotch = _crotch(lower)
        edge = unroll(lower.waist, self.pieces, lower.corners)
        fullness, manner = lower.fullness, lower.manner
        ease = recipe.join.ease + lower.ease
        if recipe.join.manner != "flat" and edge.length > upper.length:
            fullness, manner = edge.length / upper.length, recipe.join.manner
        report = compare(
            "waist seam", upper, edge, ease, fullness=fullness, manner=manner, names=(above_name, lower.name)
        )
        if not report.verdict.fits:
            words = recipe.bodice.waist_words() if band is None else {}
            ways = remedies(report, recipe.join, recipe.lower.remedies(report), lower.pin, words, side_ends(lower))
            report = replace(report, remedies=ways)
        self.joins.append(report)
        self.findings += findings_for(report)
        self.seams.append(Seam("waist seam", above, lower.waist, report.ease, fullness))
        return lower

    def _cut_in_one(self, bodice: Made, gown: Gown) -> Made:
        """The bodice carried on down: its lowest edge is the hem."""
        for ref in bodice.waist:
            piece = self.pieces[ref.piece]
            hem = Edge("hem", Role.HEM, piece.edge("waist").path, gown.hem, turned=True)
            self.pieces[ref.piece] = renamed_edge(piece, "waist", hem)
        self.seams = [
            replace(s, a=_renamed(s.a), b=_renamed(s.b)) if any(r.edge == "waist" for r in (*s.a, *s.b)) else s
            for s in self.seams
        ]
        self.pieces = {_gown(name): replace(piece, name=_gown(name)) for name, piece in self.pieces.items()}
        self.seams = [replace(s, name=_gown(s.name), a=_of_gown(s.a), b=_of_gown(s.b)) for s in self.seams]
        refs = tuple(replace(ref, edge="hem") for ref in _of_gown(bodice.waist))
        return Made(hem=refs, hem_corners=bodice.corners, name="gown")

    def _trimmed(self, lower: Made, upper: frozenset[str], below_waist: float) -> Dressed:
        recipe = self.recipe
        names = frozenset(piece.name for piece in lower.pieces) or frozenset(ref.piece for ref in lower.hem)
        dress = Dressed(
            dict(self.pieces),
            lower.hem,
            lower.hem_corners,
            recipe.allowances,
            recipe.opening,
            recipe.figure,
            below_waist,
            upper,
            names,
        )
        for place, trim in enumerate(recipe.trims):
            dress = trim.cut_first(dress, f"trims.{place}")
        for place, trim in sorted(enumerate(recipe.trims), key=lambda one: one[1].turn):
            where = f"trims.{place}"
            try:
                dress = trim.make_up(dress, where, self.notes)
            except CannotMake as wrong:
                why = "its lines run into each other" if isinstance(wrong, CannotDraw) else str(wrong)
                others = [other.model_dump(mode="json") for k, other in enumerate(recipe.trims) if k != place]
                dress = dress.also(
                    refused(
                        "trim-left-out",
                        "The {trim} cannot be drawn on this garment and is left out: {why}.",
                        *in_recipe(where),
                        remedies=(
                            Remedy(
                                "leave-out",
                                "Take the {trim} away",
                                {"trims": others},
                                values={"trim": trim.title.lower()},
                            ),
                        ),
                        trim=trim.title.lower(),
                        why=why,
                    )
                )
            except Exception as error:
                dress = dress.also(fault(trim.title.lower(), error, *in_recipe(where)))
        self.pieces = dress.pieces
        self.seams += dress.seams
        self.findings += dress.findings
        return dress

    def _inner(self, join: InnerJoin) -> None:
        """A join inside a part or between parts, measured like the waist seam."""
        if join.upper_from:
            upper = _stretch(join.upper[0], join.upper_from, join.upper_corners, self.pieces)
        else:
            upper = _laid(join.upper, join.upper_corners, join.upper_length, self.pieces)
        lower = _laid(join.lower, join.lower_corners, join.lower_length, self.pieces)
        report = compare(
            join.name, upper, lower, 0.0, fullness=join.fullness, manner=join.manner, names=join.names
        )  # fmt: skip
        self.joins.append(report)
        self.findings += findings_for(report)
        if join.upper and not join.upper_from and join.upper_length is None and join.lower_length is None:
            self.seams.append(Seam(join.name, join.upper, join.lower, 0.0, join.fullness))

    def _worn(self, bodice: Made, dress: Dressed, upper: frozenset[str]) -> Worn:
        neck = [
            self.pieces[name].stitched_length(edge.name)
            for name in upper
            if name in self.pieces and self.pieces[name].what.layer is Layer.OUTER
            for edge in self.pieces[name].edges
            if edge.role is Role.NECKLINE and edge.name == "neckline"
        ]
        held = any(e.role is Role.SHOULDER for n in upper if n in self.pieces for e in self.pieces[n].edges)
        front, back = (_length_of(half, self.pieces.values()) for half in Half)
        return Worn(
            waist=self.waist, neck=2 * sum(neck) if neck and held else None,
            hem=2 * dress.half_hem if dress.hem else 0.0, opened=dress.opened, below_waist=dress.length,
            trousers_crotch=self.crotch, front_length=front, back_length=back,
        )  # fmt: skip


def _stretch(ref: EdgeRef, landmark: str, corners: tuple[str, ...], pieces: dict[str, Piece]) -> Unrolled:
    """An edge from a mark on it down to the hem, as it is drawn."""
    piece = pieces[ref.piece]
    path = piece.edge(ref.edge).path
    at = next(notch.at for notch in piece.notches if notch.edge == ref.edge and notch.landmark == landmark)
    long = at if piece.begins_at_hem(ref.edge) else path.length - at
    return Unrolled((Landmark(corners[0], 0.0), Landmark(corners[-1], long)), ((ref.piece, ref.edge, long),))


def _laid(
    refs: tuple[EdgeRef, ...], corners: tuple[str, ...], length: float | None, pieces: dict[str, Piece]
) -> Unrolled:
    if length is not None or not refs:
        first, last = (corners[0], corners[-1]) if corners else (CENTRE_FRONT, CENTRE_FRONT)
        return Unrolled(
            (Landmark(first, 0.0), Landmark(last, length or 0.0)),
            tuple((r.piece, r.edge, 0.0) for r in dict.fromkeys(refs)),
        )
    return unroll(refs, pieces, corners)


def _renamed(refs: tuple[EdgeRef, ...]) -> tuple[EdgeRef, ...]:
    return tuple(replace(ref, edge="hem") if ref.edge == "waist" else ref for ref in refs)


def _gown(name: str) -> str:
    return name.replace("bodice ", "gown ")


def _of_gown(refs: tuple[EdgeRef, ...]) -> tuple[EdgeRef, ...]:
    return tuple(replace(ref, piece=_gown(ref.piece)) for ref in refs)


def _length_of(half: Half, pieces: Iterable[Piece]) -> float | None:
    """Shoulder at the neck to the lowest of the waist edge, down a drafted half whatever it is cut into, mm.

    None where it cannot be told: there is no shoulder, or no waist.
    """
    edges = [
        edge for piece in pieces if piece.what.is_outer(Section.BODICE, half) for edge in piece.edges
    ]  # fmt: skip
    shoulders = [e.path for e in edges if e.role is Role.SHOULDER]
    waists = [e.path for e in edges if e.role is Role.WAIST]
    if not shoulders or not waists:
        return None
    high = max(y for path in shoulders for y in (path.start.y, path.end.y))
    return high - min(y for path in waists for y in (path.start.y, path.end.y))


def _crotch(lower: Made) -> float | None:
    """Length of the crotch seam, front and back, of trousers; None for anything else."""
    lengths = [
        edge.drawn_length
        for piece in lower.pieces
        if any(e.role is Role.INSIDE_LEG for e in piece.edges)
        for edge in piece.edges
        if edge.role in (Role.CENTRE_FRONT, Role.CENTRE_BACK)
    ]
    return sum(lengths) if lengths else None


def _drafted(recipe: Recipe, notes: Workings) -> Made:
    """The block. Measures no outline can be drawn from give the nearest size's block, and a stop that says so."""
    try:
        return recipe.bodice.make_up(recipe.figure, recipe.opening, recipe.allowances, notes)
    except CannotMake:
        size = from_size(recipe.figure.get("bust_girth") or USUAL_BUST)
        block = recipe.bodice.make_up(Figure(measures=size), recipe.opening, recipe.allowances, Workings())
        return block.also(
            [
                stop(
                    "measures-do-not-draft",
                    "No bodice can be drawn from these measures by this school; until they are measured again the "
                    "block of bust {bust} is drawn.",
                    *in_recipe("figure", "bodice"),
                    bust=size["bust_girth"],
                )
            ]
        )
