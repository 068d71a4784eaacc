"""The studio itself: whether the program answers, whether it shows the demo, and a backup of everything."""

import tempfile
from datetime import UTC, datetime
from pathlib import Path

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel

from gentle_hem.api.door import NOT_ENCRYPTED
from gentle_hem.store import Store
from gentle_hem.store.backup import FILE_NAME
from gentle_hem.store.erasing import UNFINISHED

studio = APIRouter(prefix="/api", tags=["studio"])


class StudioOut(BaseModel):
    """What the interface must know of the place it stands in."""

    demo: bool
    """Whether these are the demo studio's records."""
    devices: bool
    """Whether the simulated tape and plotter are offered."""
    has_door: bool
    """Whether it answers other machines too, behind a passphrase."""
    warning: str
    """What is to be known of that."""


@studio.get("/health")
def health() -> dict[str, str]:
    """Whether the program answers."""
    return {"state": "ready", "at": datetime.now(UTC).isoformat()}


@studio.get("/studio")
def about(request: Request) -> StudioOut:
    """What the interface must know of the place it stands in."""
    state = request.app.state
    return StudioOut(
        demo=state.demo, devices=state.devices, has_door=not state.place.is_home,
        warning="" if state.place.is_home or state.place.name else NOT_ENCRYPTED,
    )  # fmt: skip


@studio.get("/backup", response_class=Response)
def backup(request: Request) -> Response:
    """Everything that is kept, as one file, made while work goes on."""
    store: Store = request.app.state.store
    with tempfile.TemporaryDirectory(dir=store.folder, prefix=UNFINISHED) as folder:
        made = Path(folder) / FILE_NAME
        store.back_up(made)
        content = made.read_bytes()
    name = f"gentle-hem-{datetime.now():%Y-%m-%d}.sqlite"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(content, media_type="application/vnd.sqlite3", headers=headers)
