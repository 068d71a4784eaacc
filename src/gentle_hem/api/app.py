"""The application: routes under /api, and the interface's files beside them."""

import logging
import threading
from contextlib import asynccontextmanager
from datetime import date
from pathlib import Path
from typing import Any

from fastapi import FastAPI, HTTPException
from fastapi.middleware.gzip import GZipMiddleware
from fastapi.responses import FileResponse
from fastapi.staticfiles import StaticFiles

from gentle_hem.api import problems
from gentle_hem.api.beginning import beginning
from gentle_hem.api.benches import benches
from gentle_hem.api.blocks import blocks
from gentle_hem.api.by_hand import by_hand
from gentle_hem.api.chalk import chalking
from gentle_hem.api.commissions import commissions
from gentle_hem.api.costs import costing
from gentle_hem.api.days import calendar
from gentle_hem.api.desk import FIRST_PAGE, SlipWriter, desk
from gentle_hem.api.door import HOMELY, AtTheDoor, Door, Place
from gentle_hem.api.figures import figures
from gentle_hem.api.fittings import fittings
from gentle_hem.api.hanging import hanging
from gentle_hem.api.lays import laying
from gentle_hem.api.learnt import notes
from gentle_hem.api.make import make
from gentle_hem.api.making import making
from gentle_hem.api.overlaid import over
from gentle_hem.api.people import people
from gentle_hem.api.plotter import PlotterRoom, plotting
from gentle_hem.api.practice import practice
from gentle_hem.api.records import records
from gentle_hem.api.safety import OnlyFromHere
from gentle_hem.api.shelf import cloths
from gentle_hem.api.step_lists import lists
from gentle_hem.api.studio import studio
from gentle_hem.api.words import words
from gentle_hem.devices.person import TAPE_PERSON
from gentle_hem.devices.tape import SimulatedTape
from gentle_hem.formats.apart import ReadingRoom
from gentle_hem.laying.falling import FallingRoom
from gentle_hem.laying.hanging import HangingRoom
from gentle_hem.laying.room import LayingRoom
from gentle_hem.store import Store, StoreTrouble

log = logging.getLogger("gentle_hem")

BETWEEN_LOOKS = 1800.0
"""How often it is looked whether a new day wants its copy (s)."""

ROUTERS = (
    studio, make, desk, beginning, commissions, people, benches, figures, blocks, lists, words, laying, cloths,
    plotting, chalking, making, calendar, fittings, records, costing, notes, by_hand, over, practice, hanging,
)  # fmt: skip


def create_app(
    store: Store,
    interface: Path | None = None,
    demo: bool = False,
    *,
    devices: bool | None = None,
    place: Place = HOMELY,
) -> FastAPI:
    """The application over a store; ``interface`` is the folder of the built web part, ``demo`` whether the store holds
    the demo studio, ``devices`` whether simulated devices are offered (where nothing is said: in the demo alone), and
    ``place`` where it answers: elsewhere than on this machine it has a door.
    """

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> Any:
        slips, copies = SlipWriter(store), DailyCopies(store)
        slips.start()
        app.state.laying_room.open()
        copies.start()
        yield
        app.state.laying_room.close()
        app.state.hanging_room.close()
        copies.stop()
        slips.stop()
        app.state.reading_room.close()
        store.close()

    app = FastAPI(title="Gentle Hem", version="0.1.0", lifespan=lifespan, docs_url=None, redoc_url=None)
    app.state.store, app.state.demo, app.state.place = store, demo, place
    app.state.devices = demo if devices is None else devices
    app.state.reading_room, app.state.laying_room = ReadingRoom(), LayingRoom(store)
    app.state.falling_room, app.state.hanging_room = FallingRoom(), HangingRoom()
    problems.install(app)
    if not place.is_home:
        app.add_middleware(AtTheDoor, door=Door(store.folder), place=place)
    app.add_middleware(OnlyFromHere, place=place)
    app.add_middleware(GZipMiddleware, minimum_size=1500, compresslevel=1)
    app.state.tape, app.state.plotter_room = SimulatedTape(TAPE_PERSON), PlotterRoom()
    for router in ROUTERS:
        app.include_router(router)

    @app.api_route("/api/{path:path}", methods=["GET", "POST", "PUT", "PATCH", "DELETE"], include_in_schema=False)
    def no_such_route(path: str) -> None:
        raise HTTPException(404, f"There is nothing at /api/{path[:80]}.")

    if interface is not None:
        app.mount("/assets", StaticFiles(directory=interface / "assets"), name="assets")

        @app.get("/{path:path}", include_in_schema=False)
        def page(path: str) -> FileResponse:
            return FileResponse(interface / "index.html", headers={"Cache-Control": "no-cache"})

    return app


class DailyCopies:
    """Keeps a copy of the records for each day on which the program runs."""

    def __init__(self, store: Store) -> None:
        self._store = store
        self._stopping = threading.Event()
        self._thread = threading.Thread(target=self._run, name="copies", daemon=True)

    def start(self) -> None:
        self._thread.start()

    def stop(self) -> None:
        self._stopping.set()
        if self._thread.is_alive():
            self._thread.join(timeout=10)

    def _run(self) -> None:
        self._stopping.wait(FIRST_PAGE)
        while not self._stopping.is_set():
            try:
                self._store.copy_of_the_day(date.today())
            except StoreTrouble as trouble:
                log.warning("no copy was made today: %s", trouble)
            self._stopping.wait(BETWEEN_LOOKS)
