"""What every test may use: a bodice, a recipe, and numbers close enough."""

import pytest
from hypothesis import HealthCheck, settings

from gentle_hem.core.recipe import Recipe

settings.register_profile(
    "hem", deadline=None, max_examples=50, derandomize=True, suppress_health_check=[HealthCheck.too_slow]
)
settings.load_profile("hem")

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


@pytest.fixture
def recipe():
    return a_recipe()
