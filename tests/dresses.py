"""Dresses for tests that try one thing on a plain one: a drafted bodice, a straight skirt, a zip behind."""

from conftest import FIGURE
from gentle_hem.core.fault import FAULT
from gentle_hem.core.findings import Severity
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import Recipe

SIDE_ZIP = {"place": "side", "below_waist": 180}


def recipe(**parts):
    """The plain dress with some of its parts changed."""
    return Recipe.model_validate(
        {
            "figure": {"measures": FIGURE}, "bodice": {"kind": "quarters"}, "lower": {"kind": "straight"},
            "opening": {"place": "centre_back", "below_waist": 180}, **parts,
        }
    )  # fmt: skip


def made(**parts):
    """The same made up: nothing of it is a stop, and every seam walks."""
    garment = make_up(recipe(**parts))
    assert [f.code for f in garment.findings if f.severity is Severity.STOP or f.code == FAULT] == []
    assert [seam.name for seam in garment.seams if not seam.verdict.fits] == []
    return garment


def refusal(code, **parts):
    """The one stop of a kind that the dress has."""
    [found] = [f for f in make_up(recipe(**parts)).findings if f.code == code]
    assert found.severity is Severity.STOP
    return found


def worked(garment, label):
    """The number of a working."""
    return next(w.value for w in garment.workings if w.label == label)


def seam(garment, name):
    return next(s for s in garment.seams if s.name == name)


def lengths(garment, name):
    """Both sides of a seam, mm."""
    found = seam(garment, name)
    return found.upper.length, found.lower.length
