"""What every route may ask for: the records to read or to write, and the asker's tape."""

from collections.abc import Iterator
from typing import Annotated, Any, TypeVar
from urllib.parse import quote

from fastapi import Depends, HTTPException, Path, Query, Request
from pydantic import BaseModel, ConfigDict, Field
from sqlalchemy.orm import Session

from gentle_hem.core.recipe import Recipe, UnreadableRecipe, read_recipe
from gentle_hem.core.units import Tape, Unit
from gentle_hem.store import Store
from gentle_hem.store.activity import WINDOW
from gentle_hem.store.models import RecipeVersion

T = TypeVar("T")

LONGEST_WINDOW = 16
"""A window calls itself by a few letters."""

LARGEST_NUMBER = 2**63 - 1
"""The largest number a record can have in SQLite."""


def window_of(request: Request) -> str:
    """What the window that asks calls itself."""
    return request.headers.get("x-window", "")[:LONGEST_WINDOW]


def _reading(request: Request) -> Iterator[Session]:
    store: Store = request.app.state.store
    with store.session() as session:
        yield session


def _writing(request: Request) -> Iterator[Session]:
    store: Store = request.app.state.store
    with store.writing() as session:
        session.info[WINDOW] = window_of(request)
        yield session


Reading = Annotated[Session, Depends(_reading, scope="function")]
"""The records, to read."""

Writing = Annotated[Session, Depends(_writing, scope="function")]
"""The records, to write; the commit happens before the answer leaves, so what is acknowledged is kept."""

RecordId = Annotated[int, Path(ge=1, le=LARGEST_NUMBER)]


class Asker(BaseModel):
    """How the asker reads lengths; where no unit is named, the recipe's own is meant."""

    model_config = ConfigDict(frozen=True)

    unit: Unit | None = None
    mark: Annotated[int, Field(ge=8, le=16, multiple_of=8, description="Eighths or sixteenths of an inch.")] = 8
    comma: bool = False

    def tape(self, own: Unit = Unit.CM) -> Tape:
        """The tape she reads on; ``own`` is the recipe's unit."""
        return Tape(self.unit or own, self.mark, self.comma)


Asked = Annotated[Asker, Query()]


def found(thing: T | None, what: str) -> T:
    """The thing, or a refusal that says what there is none of."""
    if thing is None:
        raise HTTPException(404, f"There is no such {what}.")
    return thing


def attached(name: str) -> str:
    """The header that names a file, in whatever script; plain for what reads no other (RFC 6266)."""
    plain = name.encode("ascii", errors="replace").decode().replace("?", "_").replace('"', "'")
    return f"attachment; filename=\"{plain}\"; filename*=UTF-8''{quote(name, safe='')}"


def stored(version: RecipeVersion) -> Recipe:
    """A kept recipe, read. Raises HTTPException where it cannot be, with the reason; it can still be exported."""
    read, why = read_stored(version.recipe)
    if read is None:
        raise HTTPException(409, f"This recipe cannot be read: {why} It is kept as it is.")
    return read


def read_stored(recipe: dict[str, Any]) -> tuple[Recipe | None, str]:
    """A kept recipe, or None and why it cannot be read."""
    try:
        return read_recipe(recipe), ""
    except UnreadableRecipe as why:
        return None, str(why)
