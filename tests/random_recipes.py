"""Random valid recipes of every kind: plain, plausible and extreme, the same ones for the same seed.

Every word of every part is drawn from its presets, from near its usual value, or (``extreme``) from anywhere; what the
recipe refuses is put back to usual, so that only valid recipes come out.
"""

from __future__ import annotations

import random
import types
from enum import Enum
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from pydantic import BaseModel, ValidationError

from conftest import BODICE, FIGURE
from gentle_hem.core.band import BANDS
from gentle_hem.core.block import BODICES
from gentle_hem.core.block.measured import MeasuredBodice
from gentle_hem.core.block.own import OwnBodice
from gentle_hem.core.estimates import RULES, SIZE_TABLE
from gentle_hem.core.figure import MEASURES
from gentle_hem.core.lower import LOWER_PARTS
from gentle_hem.core.recipe import Recipe
from gentle_hem.core.steps import STEPS
from gentle_hem.core.trim import TRIMS

MOODS = ("plain", "plausible", "extreme")
CHANGED = {"plain": 0.1, "plausible": 0.3, "extreme": 0.4}
"""How many of a part's words are changed."""


MOST_STEPS = {"plain": 2, "plausible": 4, "extreme": 6}


def random_recipe(seed: int, mood: str, own: dict[str, Any] | None = None) -> Recipe:
    """The recipe of a seed. ``own`` is a block brought in, to be used now and then."""
    draw = random.Random(f"{mood} {seed}")
    data: dict[str, Any] = {
        "name": f"{mood} {seed}",
        "unit": draw.choice(["cm", "in"]),
        "figure": {"measures": a_figure(draw, mood), "rules": some_rules(draw)},
        "bodice": a_bodice(draw, mood, own),
        "lower": a_part(draw, draw.choice(LOWER_PARTS), mood),
        "band": a_part(draw, draw.choice((BANDS[0], *BANDS)), mood),
        "trims": [a_part(draw, draw.choice(TRIMS), mood) for _ in range(draw.choice((0, 0, 1, 1, 2, 3)))],
    }
    for name in ("join", "finish", "allowances", "opening"):
        if draw.random() < 0.75:
            data[name] = a_part(draw, Recipe.model_fields[name].annotation, mood)
    taken = random.Random(f"steps {mood} {seed}")  # drawn on its own, so that a seed's other parts stay as they are
    if taken.random() < 0.75:
        data["steps"] = some_steps(taken, mood, MOST_STEPS[mood])
    while True:
        try:
            return Recipe.model_validate(data)
        except ValidationError as refused:  # a pair of words that do not go together: the part is put back to usual
            where = refused.errors()[0]["loc"]
            if where[0] in ("trims", "steps"):
                data[str(where[0])].pop(int(where[1]))
            elif where[0] in ("bodice", "lower"):
                data[where[0]] = {**BODICE} if where[0] == "bodice" else {"kind": "circle"}
            else:
                data.pop(where[0])


def some_steps(draw: random.Random, mood: str, most: int) -> list[dict[str, Any]]:
    """Steps of any kind, in any order."""
    return [a_part(draw, draw.choice(STEPS), mood) for _ in range(draw.randint(1, most))]


def a_part(draw: random.Random, kind: Any, mood: str) -> dict[str, Any]:
    """One part with some of its words changed, each change kept only where the part takes it."""
    data: dict[str, Any] = {}
    if "kind" in kind.model_fields:
        data["kind"] = kind.model_fields["kind"].default
    for name, field in kind.model_fields.items():
        if name in ("kind", "format", "version") or draw.random() > CHANGED[mood]:
            continue
        word = kind.words.get(name)
        value = _value(draw, field.annotation, field.default, word.choices if word else (), mood)
        try:
            kind.model_validate({**data, name: value})
        except ValidationError:
            continue
        data[name] = value
    return data


def _value(draw: random.Random, annotation: Any, usual: Any, presets: Any, mood: str) -> Any:
    while get_origin(annotation) is Annotated:
        annotation = get_args(annotation)[0]
    if get_origin(annotation) in (Union, types.UnionType):
        options = [option for option in get_args(annotation) if option is not type(None)]
        if type(None) in get_args(annotation) and draw.random() < 0.3:
            return None
        return _value(draw, options[0], usual, presets, mood)
    if get_origin(annotation) is Literal:
        return draw.choice(get_args(annotation))
    if get_origin(annotation) is tuple:
        inner = get_args(annotation)[0]
        return [_value(draw, inner, None, (), mood) for _ in range(draw.randint(0, 3))]
    if isinstance(annotation, type) and issubclass(annotation, Enum):
        return draw.choice(list(annotation)).value
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return a_part(draw, annotation, mood)
    if annotation is bool:
        return draw.random() < 0.5
    if presets and draw.random() < (0.5 if mood != "extreme" else 0.25):
        return draw.choice(presets)[0]
    if annotation is int:
        return draw.randint(0, 12) if mood != "extreme" else draw.randint(0, 60)
    near = float(usual) if isinstance(usual, int | float) and usual else draw.choice((5.0, 20.0, 90.0, 400.0))
    if mood == "extreme":
        return draw.choice((0.0, 1.0, 10.0, 80.0, near * draw.uniform(0.05, 8), 10 ** draw.uniform(-1, 3.7), -near))
    return near * draw.uniform(0.6, 1.6)


def a_bodice(draw: random.Random, mood: str, own: dict[str, Any] | None) -> dict[str, Any]:
    kind = draw.choice(BODICES)
    if kind is OwnBodice:
        return own or {"kind": "quarters"}
    if kind is not MeasuredBodice:
        return a_part(draw, kind, mood)
    by = draw.uniform(0.6, 1.6) if mood != "extreme" else 10 ** draw.uniform(-1.2, 1.2)
    edge = {"centre_to_dart": 93 * by, "dart_width": draw.choice((0, 25, 140)), "dart_to_side": 98 * by}
    return {"kind": "measured", "front": edge, "back": {**edge, "dart_to_side": 91 * by},
            "front_side": draw.choice((205, 20, 900)), "back_side": draw.choice((205, 207, 20))}  # fmt: skip


def a_figure(draw: random.Random, mood: str) -> dict[str, float]:
    """Measures of somebody: a whole set, a few of it, or anything at all."""
    bust, waist, hip = draw.choice(SIZE_TABLE)
    whole = {key: value * bust / FIGURE["bust_girth"] for key, value in FIGURE.items()}
    whole |= {"bust_girth": bust, "waist_girth": waist, "hip_girth": hip}
    if mood == "extreme":
        whole = {key: value * draw.choice((1, draw.uniform(0.5, 2), 10 ** draw.uniform(-1, 0.6)))
                 for key, value in whole.items()}  # fmt: skip
        whole |= {key: 10 ** draw.uniform(0.5, 3.5) for key in draw.sample(sorted(MEASURES), 4)}
    else:
        whole = {key: value * draw.uniform(0.95, 1.05) for key, value in whole.items()}
    if draw.random() < 0.4:
        whole = {key: value for key, value in whole.items() if draw.random() < 0.5}
    return {key: min(max(value, 1.0), 3999.0) for key, value in whole.items()}


def some_rules(draw: random.Random) -> dict[str, str]:
    return {key: draw.choice(list(RULES[key])) for key in draw.sample(sorted(RULES), 3)}
