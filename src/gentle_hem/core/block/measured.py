"""A bodice by its measured edges: the block stays on paper, its waist seam is typed in.

      underarm ┌───────────────┐   ┌──────────────┐ underarm
               │               │   │              │
           CF  │      ╱╲       │   │      ╱╲      │  CB
               │     ╱  ╲      │   │     ╱  ╲     │
               └────┘    └─────┘   └────┘    └────┘
         centre to dart, dart, dart to side     (the same at the back)

The pieces drawn are paper templates: laid on the maker's own block they show whether what was typed
is what is there.
"""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator

from gentle_hem.core.cloth.role import ClothRole
from gentle_hem.core.figure import Figure
from gentle_hem.core.findings import Finding, in_recipe, stop
from gentle_hem.core.geometry import Path, Point
from gentle_hem.core.parts import (
    Allowances,
    BodiceMade,
    BodicePart,
    EdgeLength,
    Opening,
    RecipePart,
    between,
    bodice_edge,
)
from gentle_hem.core.pattern import Dart, Edge, Notch, Piece, Role
from gentle_hem.core.seams import seam_of
from gentle_hem.core.sentences import Word, choice, length
from gentle_hem.core.units import Length, LengthError
from gentle_hem.core.walk import SEAM_TOLERANCE
from gentle_hem.core.what import BACK_DART, BODICE_BACK, BODICE_FRONT, FRONT_DART, Half, Sign, What
from gentle_hem.core.workings import Workings

WIDEST_DART = 150.0
DART_HEIGHT = 0.72
"""How far up the side's length a template's dart is drawn; only its mouth is measured."""


SideLength = Annotated[Length, between(20, 1000)]

UNMEASURED = "not measured yet"


class MeasuredEdge(RecipePart):
    """From the centre 9.2 cm to the dart, the dart 2.5 cm, then 8.4 cm to the side."""

    centre_to_dart: EdgeLength | None = Field(None, description="Centre to dart's nearer leg; not yet measured.")
    dart_width: Annotated[Length, between(0, WIDEST_DART)] = Field(0.0, description="Dart's mouth; 0: no dart.")
    dart_to_side: EdgeLength | None = Field(None, description="Dart's farther leg to side seam; not yet measured.")

    @model_validator(mode="after")
    def _has_length(self) -> MeasuredEdge:
        if self.is_measured and self.stitched < 10:
            raise LengthError("The waist edge is shorter than 1 cm; give the lengths each side of the dart.")
        return self

    @property
    def is_measured(self) -> bool:
        return self.centre_to_dart is not None and self.dart_to_side is not None

    @property
    def stitched(self) -> float:
        """Length with the dart closed; what is not yet measured counts nothing."""
        return (self.centre_to_dart or 0.0) + (self.dart_to_side or 0.0)


class MeasuredBodice(BodicePart):
    """A bodice whose waist seam measures so much: the way in for a block that lives on paper."""

    title: ClassVar[str] = "Bodice by its measured edges"
    all_said: ClassVar[bool] = True
    sentences: ClassVar[tuple[str, ...]] = (
        "A bodice that ends {ends_at}.",
        "Front: {front.centre_to_dart} from centre front to the dart, the dart takes {front.dart_width}, "
        "then {front.dart_to_side} to the side.",
        "Back: {back.centre_to_dart} from centre back to the dart, the dart takes {back.dart_width}, "
        "then {back.dart_to_side} to the side.",
        "Side seams: front {front_side}, back {back_side}.",
    )
    words: ClassVar[dict[str, Word]] = {
        "ends_at": choice(
            "where the bodice ends", ("waist", "at the waist"), ("under_bust", "under the bust"),
            ("dropped", "below the waist"),
        ),
        "front.centre_to_dart": length("centre front to dart", without=UNMEASURED),
        "front.dart_width": length("front dart width", nothing="nothing"),
        "front.dart_to_side": length("front dart to side", without=UNMEASURED),
        "back.centre_to_dart": length("centre back to dart", without=UNMEASURED),
        "back.dart_width": length("back dart width", nothing="nothing"),
        "back.dart_to_side": length("back dart to side", without=UNMEASURED),
        "front_side": length("front side seam", without=UNMEASURED),
        "back_side": length("back side seam", without=UNMEASURED),
    }  # fmt: skip

    kind: Literal["measured"] = "measured"
    front: MeasuredEdge = Field(default_factory=MeasuredEdge)
    back: MeasuredEdge = Field(default_factory=MeasuredEdge)
    front_side: SideLength | None = Field(None, description="Front side seam, underarm to seam; not yet measured.")
    back_side: SideLength | None = Field(None, description="Back side seam, underarm to seam; not yet measured.")
    ends_at: Literal["waist", "under_bust", "dropped"] = Field("waist", description="Where the bodice ends.")

    def waist_words(self) -> dict[str, tuple[float, float]]:
        return {
            "bodice.front.dart_to_side": (self.front.dart_to_side or 0.0, 0.25),
            "bodice.back.dart_to_side": (self.back.dart_to_side or 0.0, 0.25),
        }

    def make_up(self, figure: Figure, opening: Opening, allowances: Allowances, notes: Workings) -> BodiceMade:
        missing = self._missing()
        if missing or self.front_side is None or self.back_side is None:
            return BodiceMade(findings=(_not_measured(missing),))
        notes = notes.about("bodice")
        front = notes.work(
            "front waist seam", self.front.stitched, "{centre_front_to_dart} + {dart_to_side}",
            rule="darts closed, no allowances",
            centre_front_to_dart=self.front.centre_to_dart or 0.0, dart_to_side=self.front.dart_to_side or 0.0,
        )  # fmt: skip
        back = notes.work(
            "back waist seam", self.back.stitched, "{centre_back_to_dart} + {dart_to_side}",
            rule="darts closed, no allowances",
            centre_back_to_dart=self.back.centre_to_dart or 0.0, dart_to_side=self.back.dart_to_side or 0.0,
        )  # fmt: skip
        waist = notes.work("bodice waist", 2 * (front + back), "2 × ({front} + {back})", front=front, back=back)
        pieces = (
            _template(BODICE_FRONT, self.front, self.front_side, Role.CENTRE_FRONT, FRONT_DART),
            _template(BODICE_BACK, self.back, self.back_side, Role.CENTRE_BACK, BACK_DART),
        )
        side = seam_of("{section} side seam", (BODICE_FRONT, "side"), (BODICE_BACK, "side"))
        return BodiceMade(
            pieces, (side,), bodice_edge(waist), findings=tuple(self._findings(self.front_side, self.back_side))
        )

    def _missing(self) -> list[str]:
        """The words that have not been measured yet."""
        lengths = {
            "front.centre_to_dart": self.front.centre_to_dart, "front.dart_to_side": self.front.dart_to_side,
            "back.centre_to_dart": self.back.centre_to_dart, "back.dart_to_side": self.back.dart_to_side,
            "front_side": self.front_side, "back_side": self.back_side,
        }  # fmt: skip
        return [name for name, value in lengths.items() if value is None]

    def _findings(self, front_side: float, back_side: float) -> list[Finding]:
        found = []
        gap = front_side - back_side
        if abs(gap) > SEAM_TOLERANCE:
            found.append(
                stop(
                    "side-seams-differ",
                    "The bodice's front side seam is {front} and its back {back}; the {longer} is {gap} longer. "
                    "A longer front goes into a bust dart at the side.",
                    *in_recipe("bodice.front_side", "bodice.back_side"),
                    front=front_side, back=back_side, gap=abs(gap),
                    longer="front" if gap > 0 else "back",
                )
            )  # fmt: skip
        for where, edge in (("front", self.front), ("back", self.back)):
            if edge.dart_width > edge.stitched:
                found.append(
                    stop(
                        "dart-wider-than-seam",
                        "The {where} dart takes in {dart}, more than the {seam} of waist seam it is stitched "
                        "out of; look at the dart's width again.",
                        *in_recipe(f"bodice.{where}.dart_width"),
                        where=where, dart=edge.dart_width, seam=edge.stitched,
                    )
                )  # fmt: skip
        return found


def _not_measured(missing: list[str]) -> Finding:
    said = [MeasuredBodice.words[name].label for name in missing]
    return stop(
        "edge-not-measured",
        "Not measured yet: {missing}. Lay the tape along the stitching line of the bodice and type what it says.",
        *in_recipe(*(f"bodice.{name}" for name in missing)),
        missing=", ".join(said),
    )


def _template(what: What, edge: MeasuredEdge, side: float, centre: Role, landmark: Sign) -> Piece:
    """The paper template of one half: its waist edge with the dart open, its side seam's length.

    The front is drawn with its centre on the left, the back with its centre on the right, so that
    they lie side by side as on the table.
    """
    to_dart, to_side = edge.centre_to_dart or 0.0, edge.dart_to_side or 0.0
    width = to_dart + edge.dart_width + to_side
    is_front = what.half is Half.FRONT
    corners = [Point(0, 0), Point(width, 0), Point(width, side), Point(0, side)]
    waist, right, top, left = (Path.through(a, b) for a, b in zip(corners, corners[1:] + corners[:1], strict=True))
    at = to_dart if is_front else to_side
    darts: tuple[Dart, ...] = ()
    if edge.dart_width > 0:
        apex = Point(at + edge.dart_width / 2, side * DART_HEIGHT)
        darts = (Dart("waist", at, edge.dart_width, apex, landmark),)
    centre_name = str(centre)
    edges = (
        Edge("waist", Role.WAIST, waist),
        Edge("side", Role.SIDE, right) if is_front else Edge(centre_name, centre, right),
        Edge("top", Role.TEMPLATE, top),
        Edge(centre_name, centre, left) if is_front else Edge("side", Role.SIDE, left),
    )
    centre_x = 0.0 if is_front else width
    inward = 12.0 if is_front else -12.0
    return Piece(
        what,
        edges,
        cloth=ClothRole.PAPER,
        darts=darts,
        notches=(Notch("side", side / 2, double=not is_front),),
        grain=(Point(centre_x + inward, side * 0.2), Point(centre_x + inward, side * 0.8)),
        remark="template, lay it on your own block",
    )
