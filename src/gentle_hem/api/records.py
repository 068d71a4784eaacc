"""The records: copies that are kept, one of them looked at and brought back, and what changed when."""

import shutil
import sqlite3
import tempfile
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path
from typing import Annotated, Literal

from fastapi import APIRouter, File, Query, Request, UploadFile
from fastapi import Path as PathWord
from pydantic import BaseModel

from gentle_hem.api.kept import LARGEST_NUMBER, Reading, found, window_of
from gentle_hem.core.names import a_name
from gentle_hem.laying.room import LayingRoom
from gentle_hem.store import Store
from gentle_hem.store.activity import WINDOW, activities, tell
from gentle_hem.store.backup import FILE_NAME, PRIVATE_FILE, check_backup
from gentle_hem.store.erasing import UNFINISHED, kept_copies
from gentle_hem.store.models import Activity
from gentle_hem.store.trouble import copies_folder

records = APIRouter(prefix="/api", tags=["records"])

CopyName = Annotated[str, PathWord(max_length=80, description="The name of a kept copy.")]


class CopyOut(BaseModel):
    """A copy that is kept: of a day, or of what was replaced when a backup was brought back."""

    name: str
    kind: Literal["day", "replaced"]
    made_at: datetime
    kilobytes: int


class CopyLookedAt(CopyOut):
    """What lies in a copy; it is sound, and can be brought back."""

    people: int
    dresses: int
    last_kept_at: datetime | None
    """When the newest version in it was kept."""


class BroughtBackOut(BaseModel):
    kept_as: str
    """Under which name what was replaced is kept."""


class ActivityOut(BaseModel):
    """One thing that was done."""

    at: datetime
    window: str
    what: str
    commission: int | None
    title: str
    person: str


class ActivitiesOut(BaseModel):
    rows: list[ActivityOut]
    more: bool


def _copy(file: Path, folder: Path) -> CopyOut:
    there = file.stat()
    return CopyOut(
        name=file.name, kind="day" if file.parent == copies_folder(folder) else "replaced",
        made_at=datetime.fromtimestamp(there.st_mtime, UTC), kilobytes=max(there.st_size // 1024, 1),
    )  # fmt: skip


def _kept_under(name: str, folder: Path) -> Path:
    return found(next((file for file in kept_copies(folder) if file.name == name), None), "kept copy")


@records.get("/copies")
def list_copies(request: Request) -> list[CopyOut]:
    """The copies that are kept, the newest first."""
    folder = request.app.state.store.folder
    there = [_copy(file, folder) for file in kept_copies(folder)]
    return sorted(there, key=lambda copy: copy.made_at, reverse=True)


@records.get("/copies/{name}")
def look_at_copy(name: CopyName, request: Request) -> CopyLookedAt:
    """What lies in a kept copy; one that is not sound is refused with the reason."""
    folder = request.app.state.store.folder
    file = _kept_under(name, folder)
    check_backup(file, name)
    with closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as copy:
        people, dresses, kept = (
            copy.execute(asked).fetchone()[0]
            for asked in (
                "SELECT count(*) FROM person",
                "SELECT count(*) FROM commission",
                "SELECT max(created_at) FROM recipe_version",
            )
        )
    last = datetime.fromisoformat(kept).replace(tzinfo=UTC) if kept else None
    return CopyLookedAt(**_copy(file, folder).model_dump(), people=people, dresses=dresses, last_kept_at=last)


@records.post("/copies/{name}/bring-back")
def bring_copy_back(name: CopyName, request: Request) -> BroughtBackOut:
    """A kept copy in the place of the records. They are kept first, so this can be taken back in the same way."""
    return _brought_back(request, _kept_under(name, request.app.state.store.folder), name)


@records.post("/backup/bring-back")
def bring_backup_back(file: Annotated[UploadFile, File()], request: Request) -> BroughtBackOut:
    """A backup file in the place of the records. They are kept first."""
    with tempfile.TemporaryDirectory(dir=request.app.state.store.folder, prefix=UNFINISHED) as folder:
        sent = Path(folder) / FILE_NAME
        sent.touch(PRIVATE_FILE)
        with sent.open("wb") as written:
            shutil.copyfileobj(file.file, written)
        name = a_name((file.filename or "The file").encode(errors="replace").decode())[:120]
        return _brought_back(request, sent, name)


def _brought_back(request: Request, file: Path, said: str) -> BroughtBackOut:
    store: Store = request.app.state.store
    room: LayingRoom = request.app.state.laying_room
    kept = store.bring_back(file, datetime.now(), said)
    room.begin_anew()
    with store.writing() as session:
        session.info[WINDOW] = window_of(request)
        tell(session, f"Brought back: {said}. What it replaced is kept as {kept.name}")
    return BroughtBackOut(kept_as=kept.name)


@records.get("/activity")
def what_changed(
    session: Reading,
    words: Annotated[str, Query(max_length=120, description="Looked for in what was done, of what, and whose.")] = "",
    after: Annotated[int, Query(ge=0, le=LARGEST_NUMBER)] = 0,
    most: Annotated[int, Query(ge=1, le=200)] = 60,
) -> ActivitiesOut:
    """What was changed, the newest first, with the window that did it."""
    rows = activities(session, words, most + 1, after)
    return ActivitiesOut(
        rows=[
            ActivityOut(
                at=row.created_at, window=row.window, what=row.what, commission=row.commission_id,
                title=row.commission.title if row.commission else "",
                person=_whose(row),
            )
            for row in rows[:most]
        ],
        more=len(rows) > most,
    )  # fmt: skip


def _whose(row: Activity) -> str:
    person = row.person or (row.commission.person if row.commission else None)
    return person.name if person else ""
