"""Slips: what the desk shows of each commission, kept beside the version and the program they were read from."""

from __future__ import annotations

import hashlib
from dataclasses import asdict
from functools import cache
from pathlib import Path
from typing import Any

from sqlalchemy.orm import Session

import gentle_hem.core
from gentle_hem.core.fault import fault
from gentle_hem.core.make_up import make_up
from gentle_hem.core.recipe import UnreadableRecipe, read_recipe
from gentle_hem.core.slip import desk_slip
from gentle_hem.core.units import Unit
from gentle_hem.store.models import Commission
from gentle_hem.store.store import Store, keep_slip, latest_version, stale_slips


@cache
def program() -> str:
    """Which program this is: the fingerprint of the core and of how a dress is drawn, which a slip holds."""
    digest = hashlib.sha256()
    core = Path(gentle_hem.core.__file__).parent
    for file in (*sorted(core.rglob("*.py")), core.parent / "formats" / "dress.py"):
        digest.update(str(file.relative_to(core.parent)).encode())
        digest.update(file.read_bytes())
    return digest.hexdigest()


def write_slip(session: Session, commission: Commission) -> None:
    """The slip of a commission's newest version."""
    version = latest_version(session, commission.id)
    if version is not None:
        keep_slip(session, commission.id, version.number, program(), slip_of(version.recipe, commission.title))


def slip_of(recipe: Any, title: str) -> dict[str, Any]:
    """What a slip says of a kept recipe. One that cannot be read or made says so in its row, and is kept."""
    from gentle_hem.core.dressed import drawn_dress  # here, to keep numpy and shapely out of the start
    from gentle_hem.formats.dress import small_drawing

    said: dict[str, Any] = {"unit": "cm", "stops": 0, "warnings": 0, "trouble": "", "unreadable": "",
                            "drawing": None}  # fmt: skip
    try:
        read = read_recipe(recipe)
        garment = make_up(read)
        said |= asdict(desk_slip(read, garment))
        said["drawing"] = small_drawing(drawn_dress(read, garment))
    except UnreadableRecipe as why:
        said |= {"summary": title, "unreadable": str(why)[:2000]}
    except Exception as error:
        said |= {"summary": title, "stops": 1, "trouble": fault("garment", error).text(Unit.CM)}
    return said


def write_stale_slip(store: Store) -> bool:
    """Write one stale slip again; False when there is none left."""
    with store.writing() as session:
        rows = stale_slips(session, program(), 1)
        if not rows:
            return False
        write_slip(session, rows[0])
        return True
