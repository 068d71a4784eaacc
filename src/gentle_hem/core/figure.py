"""A figure: the measures of one person, taken on one day."""

from __future__ import annotations

from typing import Annotated, Any, ClassVar, Literal, get_args

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, PrivateAttr, model_validator

from gentle_hem.core.names import Name, few_enough
from gentle_hem.core.sentences import Word, length
from gentle_hem.core.tongue import named
from gentle_hem.core.units import Length, LengthError

MeasureKey = Literal[
    "neck_girth", "shoulder_width", "cross_shoulder_front", "cross_shoulder_back", "shoulder_length", "across_front",
    "across_back",
    "upper_bust_girth", "bust_girth", "under_bust_girth", "waist_girth", "high_hip_girth", "hip_girth",
    "bust_span", "shoulder_to_upper_bust", "shoulder_to_bust_point", "shoulder_to_under_bust",
    "shoulder_to_hip", "front_waist_length", "back_waist_length", "nape_to_waist",
    "waist_to_hip", "waist_to_knee", "waist_to_floor", "full_length",
    "armhole_girth", "off_shoulder_girth", "upper_arm_girth", "elbow_girth", "wrist_girth", "arm_length",
    "thigh_girth", "knee_girth", "calf_girth", "ankle_girth",
    "crotch_depth", "crotch_length", "inside_leg", "trunk_girth", "head_girth", "height", "heel_height",
]  # fmt: skip
"""The measures of trade 3.1, by their keys."""


MEASURES: dict[MeasureKey, str] = {key: named(key.replace("_", " ")) for key in get_args(MeasureKey)}
"""The measures by key, as they are called."""


READINGS_AGREE = 10.0
"""Two readings more than 1 cm apart want a third (trade 3.3)."""


def _a_measure(value: float) -> float:
    if value <= 0:
        raise LengthError("A measure is more than nothing; leave it out if it was not taken.")
    if value > 4000:
        raise LengthError(f"{value:g} mm is longer than four metres; check the unit.")
    return value


BodyMeasure = Annotated[Length, AfterValidator(_a_measure)]


class Figure(BaseModel):
    """Whose measures they are, when they were taken, and the measures themselves in millimetres."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    title: ClassVar[str] = "Figure"
    sentences: ClassVar[tuple[str, ...]] = (
        "Round: neck {measures.neck_girth}, bust {measures.bust_girth}, under the bust "
        "{measures.under_bust_girth}, waist {measures.waist_girth}, hip {measures.hip_girth}.",
        "Across: shoulders {measures.shoulder_width}, one shoulder {measures.shoulder_length}, front "
        "{measures.across_front}, back {measures.across_back}, bust points {measures.bust_span}.",
        "Down from the shoulder: bust point {measures.shoulder_to_bust_point}, waist in front "
        "{measures.front_waist_length}, waist behind {measures.back_waist_length}.",
        "From the waist: hip {measures.waist_to_hip}, floor {measures.waist_to_floor}.",
    )
    words: ClassVar[dict[str, Word]] = {
        f"measures.{key}": length(name, without="—", help="Leave it empty and it is estimated.")
        for key, name in MEASURES.items()
    }

    name: Name = Field("", max_length=120, description="Whose measures these are.")
    taken_on: str = Field("", pattern=r"^(\d{4}-\d{2}-\d{2})?$", description="The day they were taken.")
    measures: dict[MeasureKey, BodyMeasure] = Field(default_factory=dict)
    second: dict[MeasureKey, BodyMeasure] = Field(
        default_factory=dict, description="A second reading of a measure, where one was taken."
    )
    rules: dict[MeasureKey, str] = Field(
        default_factory=dict, description="Which rule estimates a measure that was not taken, by its name."
    )

    simulated: tuple[MeasureKey, ...] = Field((), description="Measures whose reading came from a simulated tape.")

    @model_validator(mode="before")
    @classmethod
    def _no_more_than_there_are(cls, document: Any) -> Any:
        return few_enough(document)

    def watched(self) -> WatchedFigure:
        """The same figure, which remembers what was asked of it."""
        return WatchedFigure.model_construct(**{name: getattr(self, name) for name in type(self).model_fields})

    def get(self, key: MeasureKey) -> float | None:
        """The measure, or None when it was not taken: the middle of two readings that agree, else the first."""
        first, second = self.measures.get(key), self.second.get(key)
        if first is not None and second is not None and abs(first - second) <= READINGS_AGREE:
            return (first + second) / 2
        return first if first is not None else second


class WatchedFigure(Figure):
    """A figure that remembers which of its measures one make-up asked for, so that the others can be said."""

    _asked: set[MeasureKey] = PrivateAttr(default_factory=set)

    def get(self, key: MeasureKey) -> float | None:
        self._asked.add(key)
        return super().get(key)

    def begin_anew(self) -> frozenset[MeasureKey]:
        """What was asked for so far; from now on nothing has been."""
        asked = frozenset(self._asked)
        self._asked.clear()
        return asked

    def asked_for(self, keys: frozenset[MeasureKey]) -> None:
        """Count some measures as asked for."""
        self._asked |= keys

    @property
    def as_taken(self) -> tuple[object, ...]:
        """All that a draft can ask it: two figures alike in this draft alike."""
        return self.measures, self.second, self.rules, self.simulated

    @property
    def unused(self) -> tuple[MeasureKey, ...]:
        """The measures that were taken and never asked for, in tape order."""
        return tuple(key for key in MEASURES if key in self.measures and key not in self._asked)
