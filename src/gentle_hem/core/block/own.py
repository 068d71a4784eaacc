"""A block of the maker's own, brought in from a file: its outline as edges, each named by her.

    file ─► outlines ─► corners ─► edges ─► "this is the waist, this the side, …" ─► a bodice like any other

Once its edges are named it is styled, joined, walked and printed like a drafted one.
"""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator

from gentle_hem.core.block.shape import block_seams
from gentle_hem.core.cutting.mirror import MIRROR
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, in_recipe, note, stop
from gentle_hem.core.geometry import Path, Placement, Point
from gentle_hem.core.geometry.path_text import path_from_text
from gentle_hem.core.names import Name
from gentle_hem.core.parts import (
    Allowances,
    BodiceMade,
    BodicePart,
    Opening,
    OpeningPlace,
    RecipePart,
    between,
    bodice_edge,
)
from gentle_hem.core.pattern import Dart, Edge, Notch, Piece, Role
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.units import Length
from gentle_hem.core.what import BACK_DART, BUST_DART, FRONT_DART, SHOULDER_DART, Half, Section, Sign, What
from gentle_hem.core.workings import Workings

Named = Literal["waist", "side", "armhole", "shoulder", "neckline", "centre"]
NAMES: tuple[Named, ...] = ("waist", "side", "armhole", "shoulder", "neckline", "centre")
"""The edges of a half, anticlockwise with the centre on its left, beginning at the waist."""


class OwnEdge(RecipePart):
    """One edge: what it is, and its line as text (mm, y down)."""

    name: Named
    path: str = Field(max_length=60_000)


class OwnDart(RecipePart):
    """A dart: the edge it opens on, where along it, how wide, and its point."""

    edge: Named
    at: Annotated[Length, between(0, 5000)]
    intake: Annotated[Length, between(0.5, 200)]
    apex: tuple[float, float]


class OwnHalf(RecipePart):
    """A front or back: its edges end to end, and its darts."""

    edges: tuple[OwnEdge, ...] = Field(min_length=3, max_length=12)
    darts: tuple[OwnDart, ...] = Field((), max_length=6)

    @model_validator(mode="after")
    def _has_what_it_needs(self) -> OwnHalf:
        names = [edge.name for edge in self.edges]
        for needed in ("waist", "side", "centre"):
            if names.count(needed) != 1:
                raise ValueError(f"Name one edge the {needed}; {names.count(needed)} are.")
        twice = {name for name in names if names.count(name) > 1}
        if twice:
            raise ValueError(f"Two edges are called {twice.pop()}; each name is used once.")
        try:
            path = Path.joined(path_from_text(edge.path) for edge in self.edges)
        except ValueError as wrong:
            raise ValueError(f"An edge cannot be read: {wrong}.") from None
        if not path.is_closed:
            raise ValueError("The edges do not close into an outline.")
        return self


class OwnBodice(BodicePart):
    """A block of the maker's own, brought in from a file."""

    title: ClassVar[str] = "A block of your own"
    sentences: ClassVar[tuple[str, ...]] = (
        "Your own block, brought in. Its bust point lies {bust_in} from the centre and {bust_down} below the "
        "shoulder at the neck.",
    )
    words: ClassVar[dict[str, Word]] = {
        "bust_in": length("bust point from the centre", without="under its waist dart"),
        "bust_down": length("bust point below the shoulder", without="1 in above its waist dart"),
    }

    kind: Literal["own"] = "own"
    source: Name = Field("a file", max_length=120)
    front: OwnHalf
    back: OwnHalf
    bust_in: Annotated[Length, between(10, 400)] | None = None
    bust_down: Annotated[Length, between(50, 600)] | None = None

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> BodiceMade:
        zip_at_back = opening.place is OpeningPlace.CENTRE_BACK
        front = self._piece(Half.FRONT, self.front, allowances, False)
        back = self._piece(Half.BACK, self.back, allowances, zip_at_back)
        findings: list[Finding] = []
        for piece in (front, back):
            if not piece.darts_of("waist"):
                findings.append(
                    note(
                        "block-without-shaping",
                        "The {piece} has no waist dart: a bodice that is not shaped drags and rolls in every style.",
                        *in_recipe("bodice"),
                        piece=piece.name,
                    )
                )
        gap = front.stitched_length("side") - back.stitched_length("side")
        if abs(gap) > 1.5:
            findings.append(
                stop(
                    "side-seams-differ",
                    "The front side seam measures {front} and the back {back}: take the difference of {gap} into a "
                    "bust dart before it is extended.",
                    *in_recipe("bodice"),
                    front=front.stitched_length("side"), back=back.stitched_length("side"), gap=abs(gap),
                )
            )  # fmt: skip
        waist = notes.about("bodice").work(
            "bodice waist", 2 * (front.stitched_length("waist") + back.stitched_length("waist")),
            "2 × ({front} + {back})", rule="as it measures on the block", front=front.stitched_length("waist"),
            back=back.stitched_length("waist"),
        )  # fmt: skip
        return BodiceMade((front, back), block_seams((front, back)), bodice_edge(waist), findings=tuple(findings))

    def _piece(self, which: Half, half: OwnHalf, allowances: Allowances, zip_at_centre: bool) -> Piece:
        """The piece with its waist first, its centre on the left for a front and on the right for a back."""
        is_front = which is Half.FRONT
        edges = [(edge.name, path_from_text(edge.path)) for edge in half.edges]
        darts = {id(d): (d.edge, d.at, d.intake, Point(d.apex[0], -d.apex[1])) for d in half.darts}
        lengths = {n: p.length for n, p in edges}
        if Path.joined(p for _, p in edges).signed_area < 0:
            edges = [(n, p.reversed()) for n, p in reversed(edges)]
            darts = {k: (e, lengths[e] - at - w, w, apex) for k, (e, at, w, apex) in darts.items()}
        centre = next(p for n, p in edges if n == "centre")
        side = next(p for n, p in edges if n == "side")
        on_left = centre.point_at(centre.length / 2).x < side.point_at(side.length / 2).x
        if on_left != is_front:
            edges = [(n, p.placed(MIRROR).reversed()) for n, p in reversed(edges)]
            darts = {k: (e, lengths[e] - at - w, w, MIRROR.place(apex)) for k, (e, at, w, apex) in darts.items()}
        # an upright centre on the line x = 0, the shoulder at the neck (or the top) on the level 0
        centre = next(p for n, p in edges if n == "centre")
        neck = next((p for n, p in edges if n == "shoulder"), None)
        top = max(neck.start.y, neck.end.y) if neck else max(p.box[3] for _, p in edges)
        move = Placement.shift(Point(-centre.start.x, -top))
        edges = [(n, p.placed(move)) for n, p in edges]
        start = next(i for i, (n, _) in enumerate(edges) if n == "waist")
        edges = edges[start:] + edges[:start] if is_front else edges[start + 1 :] + edges[: start + 1]
        roles = {
            "centre": Role.CENTRE_FRONT if is_front else Role.CENTRE_BACK, "waist": Role.WAIST, "side": Role.SIDE,
            "armhole": Role.ARMHOLE, "shoulder": Role.SHOULDER, "neckline": Role.NECKLINE,
        }  # fmt: skip
        made = []
        for n, path in edges:
            role = roles[n]
            folded = n == "centre" and not zip_at_centre
            called = str(role) if n == "centre" else n
            made.append(
                Edge(called, role, path, 0.0 if folded else allowances.of(role), n == "centre" and zip_at_centre)
            )
        landmarks = {"waist": FRONT_DART if is_front else BACK_DART, "side": BUST_DART, "shoulder": SHOULDER_DART}
        made_darts = tuple(
            Dart(
                _called(e, is_front),
                at,
                w,
                move.place(apex),
                Sign(landmarks.get(e, f"{e} dart") + ("" if k == 0 else f" {k + 1}"), which, shaping=True),
            )
            for e in NAMES
            for k, (_, at, w, apex) in enumerate(sorted(d for d in darts.values() if d[0] == e))
        )
        piece = Piece(
            What(Section.BODICE, which), tuple(made), cut=2 if zip_at_centre else 1, on_fold=not zip_at_centre,
            darts=made_darts,
            notches=tuple(
                Notch("armhole", e.path.length * 0.4, double=not is_front) for e in made if e.name == "armhole"
            ),
            grain=_grain(made), bust_point=self._bust_point(made_darts) if is_front else None,
        )  # fmt: skip
        return piece

    def _bust_point(self, darts: tuple[Dart, ...]) -> Point | None:
        waist = next((d for d in darts if d.edge == "waist"), darts[0] if darts else None)
        if self.bust_in is not None and self.bust_down is not None:
            return Point(self.bust_in, -self.bust_down)
        if waist is None:
            return None
        at = waist.apex + Point(0, 25.4)
        return Point(self.bust_in or at.x, -self.bust_down if self.bust_down else at.y)


def _called(edge: str, is_front: bool) -> str:
    return str(Role.CENTRE_FRONT if is_front else Role.CENTRE_BACK) if edge == "centre" else edge


def _grain(edges: list[Edge]) -> tuple[Point, Point]:
    centre = next(e for e in edges if e.role.is_centre).path
    low, high = sorted((centre.start, centre.end), key=lambda p: p.y)
    side = 18.0 if edges[0].path.box[2] > 20 else -18.0
    return low.towards(high, 0.25) + Point(side, 0), low.towards(high, 0.75) + Point(side, 0)
