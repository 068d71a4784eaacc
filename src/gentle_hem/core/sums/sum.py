"""What every sum has in common: named inputs with defaults, and an answer that shows its workings.

inputs  ──►  compute(notes)  ──►  values, workings, findings
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import degrees
from typing import Annotated, Any, ClassVar

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from gentle_hem.core.findings import Finding
from gentle_hem.core.geometry import Path
from gentle_hem.core.parts import between, number_between
from gentle_hem.core.refusals import sentence
from gentle_hem.core.units import Length, Said, Unit, format_exact
from gentle_hem.core.workings import Kind, Working, Workings, kind_of, speak, speak_exactly

Value = float | Sequence[float]

SumSeam = Annotated[Length, between(1, 20_000)]
SumLength = Annotated[Length, between(1, 20_000)]
SumAllowance = Annotated[Length, between(0, 300)]
SumSweep = Annotated[float, number_between(1, 1440, "degrees of sweep")]


def asked(label: str, sort: str = "length", default: Any = ..., help: str = "", **choices: str) -> Any:
    """An input of a sum: what it is called, and what sort of word it is."""
    extra: dict[str, Any] = {"label": label, "sort": sort, "help": help}
    if choices:
        extra["choices"] = choices
    return Field(default, title=label, description=help or label, json_schema_extra=extra)


@dataclass(frozen=True, slots=True)
class SumResult:
    """The answer of a sum. Lengths in mm, angles in radians, each with its working."""

    name: str
    values: dict[str, Value]
    workings: tuple[Working, ...]
    findings: tuple[Finding, ...] = ()

    def document(self, unit: Said) -> dict[str, Any]:
        """The answer as the contract writes it, in JSON's own types."""
        return {
            "sum": self.name,
            "values": {name: _value(value, unit) for name, value in self.values.items()},
            "workings": [
                {"label": w.label, "formula": w.formula, "line": w.line(unit), "rule": w.rule} for w in self.workings
            ],
            "findings": [{"code": f.code, "severity": f.severity.value, "text": f.text(unit)} for f in self.findings],
        }


def _value(value: Value, unit: Said) -> Any:
    if isinstance(value, Sequence):
        return [_value(item, unit) for item in value]
    kind = kind_of(value)
    if kind is Kind.LENGTH:
        return {"mm": float(value), "text": speak(value, unit), "exact": format_exact(value, unit)}
    if kind is Kind.ANGLE:
        return {
            "degrees": degrees(value),
            "text": speak(value, unit, Kind.ANGLE),
            "exact": speak_exactly(value, unit, Kind.ANGLE),
        }
    number = int(value) if kind is Kind.COUNT else float(value)
    return {"value": number, "text": speak(value, unit, kind), "exact": speak_exactly(value, unit, kind)}


class Sum(BaseModel):
    """One calculation. Its fields are its inputs; ``compute`` gives its values."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False, defer_build=True)

    name: ClassVar[str]
    title: ClassVar[str]
    purpose: ClassVar[str]

    def compute(self, notes: Workings) -> tuple[dict[str, Value], list[Finding]]:
        """The values by name, written into the margin, and what is worth saying about them."""
        raise TypeError(f"{type(self).__name__} does not say how it is computed")

    def sketch(self) -> list[Path]:
        """A small drawing of what is asked, to one scale; nothing where a drawing would say nothing."""
        return []

    def answer(self) -> SumResult:
        notes = Workings(self.name)
        values, findings = self.compute(notes)
        return SumResult(self.name, values, tuple(notes), tuple(findings))


class SumError(ValueError):
    """A sum was asked for badly; the sentences name each input that was wrong and what is accepted."""

    def __init__(self, problems: dict[str, str]) -> None:
        self.problems = problems
        super().__init__(" ".join(f"{name}: {text}" if name else text for name, text in problems.items()))


def ask(kind: type[Sum], inputs: dict[str, Any], unit: Unit | None) -> Sum:
    """A sum with its inputs read; bare numbers among the lengths are in ``unit``.

    Raises SumError naming every input that is missing, unknown or out of range.
    """
    try:
        return kind.model_validate(inputs, context={"unit": unit})
    except ValidationError as error:
        raise SumError(_sentences(kind, error)) from None


def _sentences(kind: type[Sum], error: ValidationError) -> dict[str, str]:
    said: dict[str, str] = {}
    for problem in error.errors():
        name = str(problem["loc"][0]) if problem["loc"] else ""
        if problem["type"] == "missing":
            said[name] = f"{kind.name} needs {name}, a {'length' if name != 'darts' else 'number'} such as {name}=31in."
        elif problem["type"] == "extra_forbidden":
            said[name] = f"{kind.name} takes no {name}; it takes {', '.join(kind.model_fields)}."
        else:
            said[name] = sentence(dict(problem))
    return said
