"""docs/recipe.md, written from the recipe's own parts, so that it cannot say anything else than they do."""

from __future__ import annotations

from enum import Enum
from typing import Any, Literal, get_args, get_origin

from pydantic.fields import FieldInfo

from gentle_hem.core.band import BANDS
from gentle_hem.core.block import BODICES
from gentle_hem.core.finish import Finish
from gentle_hem.core.fit import JoinPlan
from gentle_hem.core.lower import LOWER_PARTS
from gentle_hem.core.parts import Allowances, Opening, RecipePart
from gentle_hem.core.steps import STEPS
from gentle_hem.core.trim import TRIMS

HEAD = """# The recipe file

A recipe is JSON. Lengths are millimetres as numbers, or text with a unit (`"31 1/4 in"`, `"79,4 cm"`). The schema is
published at `/api/schema/recipe`; `./hem make FILE --out DIR` writes `recipe.json` back with every field filled in.
Anything unknown, unreadable or out of range is refused with a sentence naming the field. This page is written by
`./hem client` from the parts themselves.

| field | what |
| --- | --- |
| `format`, `version` | `"gentle-hem recipe"`, `3`; recipes of versions 1 and 2 are read and brought up to it |
| `name`, `remarks` | what the dress is called; anything worth writing down |
| `unit` | `"cm"` or `"in"`: how it is shown; changes no number |
| `figure` | `name`, `taken_on`, `measures` by key, `second` readings by key, `rules` that estimate what is missing |
| `bodice` | one of the bodices below, by its `kind`; required |
| `steps` | what is done to the pieces, in order, by `kind`: necklines, darts, seams, cuts |
| `band` | what lies between bodice and lower part, by its `kind` |
| `lower` | one of the lower parts below, by its `kind`; required |
| `join` | how the waist seam is meant to meet |
| `trims` | a list of what is added, in the order it is made up |
| `finish`, `allowances`, `opening` | lining and interfacing; allowances by edge; where it opens |
"""

TAIL = """
## What comes out

Lengths in `garment.json` are millimetres. An edge's `length` is as stitched (dart and pleat mouths left out),
`drawn_length` is along its points. A piece on the fold is given as its half; seams join halves, from centre front to
centre back. A bodice by its measured edges gives two paper templates, cut 1 each, with its waist and side seam.
"""


def recipe_page() -> str:
    """The whole page."""
    lines = [HEAD]
    for title, kinds in (
        ("Bodices", BODICES),
        ("Steps", STEPS),
        ("Bands", BANDS),
        ("Lower parts", LOWER_PARTS),
        ("Waist seam, finish and the rest", (JoinPlan, Finish, Allowances, Opening)),
        ("Trims", TRIMS),
    ):
        lines.append(f"\n## {title}\n")
        lines += [_part(kind) for kind in kinds]
    return "".join(f"{line}\n" for line in "\n".join(lines).splitlines()) + TAIL


def _part(kind: type[RecipePart]) -> str:
    fields = {name: field for name, field in kind.model_fields.items() if name != "kind"}
    named = kind.model_fields.get("kind")
    head = f"### {kind.title}" + (f": `{named.default}`" if named else "")
    doc = " ".join((kind.__doc__ or "").split())
    rows = [f"| `{name}` | {_what(kind, name, field)} | {_usual(field)} |" for name, field in fields.items()]
    table = ["", "| field | what | usual |", "| --- | --- | --- |", *rows] if rows else []
    return "\n".join([head, "", doc, *table, ""])


def _what(kind: type[RecipePart], name: str, field: FieldInfo) -> str:
    label = field.description or (kind.words[name].label if name in kind.words else name.replace("_", " "))
    choices = _choices(field.annotation)
    return label.rstrip(".") + (f": {', '.join(f'`{choice}`' for choice in choices)}" if choices else "")


def _choices(annotation: Any) -> list[Any]:
    if get_origin(annotation) is Literal:
        return list(get_args(annotation))
    if isinstance(annotation, type) and issubclass(annotation, Enum):
        return [member.value for member in annotation]
    return []


def _usual(field: FieldInfo) -> str:
    if field.is_required():
        return "required"
    default = field.get_default(call_default_factory=True)
    if default is None:
        return "nothing"
    if isinstance(default, Enum):
        return f"`{default.value}`"
    if isinstance(default, float):
        return f"{default:g}"
    return f"`{default}`" if isinstance(default, str) else str(default)
