"""Dresses sewn and hung, for tests."""

import json
from pathlib import Path

import numpy as np
from shapely import LineString

from gentle_hem.core.dressed.dressing import Dressing
from gentle_hem.core.hang.dress import AS_THEY_FALL, FIRM_COARSE, ROUGHLY, THICK_COARSE, HungDress, dressed_on
from gentle_hem.core.hang.pieces import is_unlike
from gentle_hem.core.hang.rest import Falling
from gentle_hem.core.hang.sewing import Sewing
from gentle_hem.core.hang.stand import fitted
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import read_recipe

COARSE = 45.0


def example(name):
    return read_recipe(json.loads(Path(f"examples/{name}.recipe.json").read_text()))


def sewn(of, spacing=COARSE, side="left"):
    """What a recipe makes sewn; where her sides are not alike, one of them."""
    garment = make_up(of)
    dressing = Dressing(of, garment.seamed or garment, fitted(of.figure), AS_THEY_FALL)
    if not is_unlike(dressing):
        return Sewing(of, dressing, spacing).sewn()
    return Sewing(of, dressed_on(of, side), spacing, side).sewn()


def hung_roughly(of, side="left"):
    """A dress hung in large triangles; where her sides are not alike, one of them."""
    parts = sewn(of, side=side)
    falling = Falling(parts.net, parts.held, parts.stand, parts.where, THICK_COARSE, FIRM_COARSE, parts.on_arm)
    rest = falling.fallen(parts.start, ROUGHLY)
    return HungDress(parts, rest.places, rest.places)


def around(stand, height):
    """How long round the form is at a height, by shapely, on the sections the cloth meets (mm)."""
    wide, deep, forward, _ = (
        np.interp(height / 1000, np.arange(len(stand.rows)) * stand.step, of) for of in stand.rows.T
    )
    turn = np.linspace(0, 2 * np.pi, 2000)
    return 1000 * LineString(np.column_stack((wide * np.sin(turn), forward + deep * np.cos(turn)))).length
