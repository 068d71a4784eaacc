"""What every test may use: a bodice, a recipe, and numbers close enough."""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")  # two tests run side by side, and each would take both cores

import pytest
from hypothesis import HealthCheck, settings
from shapely import Polygon

from gentle_hem.core import kept_stages
from gentle_hem.core.cutting import true
from gentle_hem.core.recipe import Recipe
from long import examples

settings.register_profile(
    "hem", deadline=None, max_examples=examples(30, 300), derandomize=True, suppress_health_check=[HealthCheck.too_slow]
)
settings.load_profile("hem")


@pytest.fixture(autouse=True)
def nothing_kept():
    """Every test makes its garments from nothing."""
    kept_stages.forget()


BODICE = {
    "kind": "measured",
    "front": {"centre_to_dart": "9.3cm", "dart_width": "2.5cm", "dart_to_side": "9.8cm"},
    "back": {"centre_to_dart": "8.8cm", "dart_width": "2cm", "dart_to_side": "9.1cm"},
    "front_side": "20.5cm",
    "back_side": "20.5cm",
}


def a_recipe(bodice=None, lower=None, **rest):
    """A recipe over the usual bodice (waist 74 cm) with a full circle, changed as asked."""
    return Recipe.model_validate(
        {
            "name": "Test dress",
            "bodice": {**BODICE, **(bodice or {})},
            "lower": {"kind": "circle", "sweep": 360, "length": "62cm", "pieces": 2, **(lower or {})},
            **rest,
        }
    )


FIGURE = {
    "bust_girth": 980, "waist_girth": 760, "hip_girth": 1040, "front_waist_length": 450, "back_waist_length": 418,
    "shoulder_to_bust_point": 275, "bust_span": 190, "shoulder_width": 395, "shoulder_length": 126,
    "neck_girth": 370, "across_front": 340, "across_back": 360, "under_bust_girth": 860, "waist_to_hip": 205,
    "shoulder_to_under_bust": 350,
}  # fmt: skip


def drafted_recipe(school, lower=None, **rest):
    """A recipe drafted by a school for the usual figure, changed as asked."""
    return Recipe.model_validate(
        {
            "figure": {"measures": FIGURE},
            "bodice": {"kind": school},
            "lower": {"kind": "circle", "sweep": 270, **(lower or {})},
            **rest,
        }
    )


def outline(path):
    """A path as a polygon, for shapely to judge."""
    return Polygon([tuple(p) for p in path.flatten(0.02)])


def own_recipe():
    """A recipe on a block brought in from the project's own garment.json."""
    from gentle_hem.core.make_up import make_up
    from gentle_hem.formats.files import FILE_WRITERS, Order
    from gentle_hem.formats.read_block import as_half, read_block

    recipe = drafted_recipe("two_lengths")
    written = FILE_WRITERS["garment.json"](Order(recipe, make_up(recipe)))
    found = [o for o in read_block("garment.json", written) if o.name.startswith("bodice")]
    halves = {o.name.split()[1]: as_half(o, [e.guess for e in o.edges]) for o in found}
    return drafted_recipe("two_lengths").model_validate(
        {"figure": {"measures": FIGURE}, "bodice": {"kind": "own", **halves}, "lower": {"kind": "circle"}}
    )


@pytest.fixture
def recipe():
    return a_recipe()


@pytest.fixture
def as_drafted(monkeypatch):
    """Pieces as the schools draft them, before they are trued: what a draft's arithmetic can be held against."""
    monkeypatch.setattr(true, "trued", lambda pieces, seams, left=(): (dict(pieces), []))
