"""The simulated plotter of the demo studio: a pattern sent to it, new paper, a line that is lost, and going on."""

from dataclasses import dataclass, field
from threading import Lock

from fastapi import APIRouter, HTTPException, Request
from pydantic import BaseModel, Field

from gentle_hem.api.kept import Reading, RecordId, found, stored
from gentle_hem.core.make_up import make_up
from gentle_hem.devices.plotter import Plot, SimulatedPlotter
from gentle_hem.formats.files import Order
from gentle_hem.formats.paper import Paper, Printing
from gentle_hem.store.models import Commission
from gentle_hem.store.store import latest_version

plotting = APIRouter(prefix="/api/devices/plotter", tags=["devices"])

FIRST_PAPER = 2200.0
"""How much paper is in the demo's plotter when it begins (mm)."""


@dataclass
class PlotterRoom:
    """The plotter that ships, and what is on its way to it."""

    plotter: SimulatedPlotter = field(default_factory=lambda: SimulatedPlotter(FIRST_PAPER))
    plot: Plot | None = None
    lock: Lock = field(default_factory=Lock)


class SheetOut(BaseModel):
    """A stretch of paper and what stands on it, as a path for each pen (mm, the roll's start on top)."""

    length: float
    paths: dict[str, str]


class PlotterOut(BaseModel):
    """How the plotter stands."""

    width: float
    sheets: list[SheetOut]
    title: str
    drawn: list[str]
    waiting: list[str]
    trouble: str


class LoadIn(BaseModel):
    length: float = Field(ge=300, le=20_000, description="How much paper is put in (mm).")


class MannerIn(BaseModel):
    cut_after: int | None = Field(None, ge=0, le=100_000, description="After how many commands the line is lost.")


def _room(request: Request) -> PlotterRoom:
    if not request.app.state.devices:
        raise HTTPException(404, "There is no simulated plotter here; start with --devices to have it.")
    room: PlotterRoom = request.app.state.plotter_room
    return room


def _out(room: PlotterRoom) -> PlotterOut:
    plot = room.plot
    sheets = []
    for sheet in room.plotter.sheets:
        paths: dict[str, str] = {}
        for pen, places in sheet.lines:
            line = "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in places)
            paths[str(pen)] = paths.get(str(pen), "") + line
        sheets.append(SheetOut(length=sheet.length, paths=paths))
    names = [block.name for block in plot.blocks] if plot else []
    done = plot.done if plot else 0
    return PlotterOut(
        width=room.plotter.width, sheets=sheets, title=plot.title if plot else "", drawn=names[:done],
        waiting=names[done:], trouble=plot.trouble if plot else "",
    )  # fmt: skip


@plotting.get("")
def look(request: Request) -> PlotterOut:
    """How the plotter stands, and what it has drawn."""
    return _out(_room(request))


@plotting.post("/plots/{commission_id}")
def plot(commission_id: RecordId, request: Request, session: Reading) -> PlotterOut:
    """Send a dress's pattern to the plotter, as it is saved; what was on its way is given up."""
    from gentle_hem.formats.hpgl import blocks

    room = _room(request)
    row = found(session.get(Commission, commission_id), "commission")
    kept = found(latest_version(session, commission_id), "version")
    recipe = stored(kept).model_copy(update={"name": row.title})
    order = Order(recipe, make_up(recipe), Printing(Paper.ROLL), kept.number, kept.created_at.date())
    with room.lock:
        cut_after, room.plotter = room.plotter.cut_after, SimulatedPlotter(FIRST_PAPER)
        room.plotter.cut_after = cut_after
        room.plot = Plot(row.title, blocks(*order.on_roll))
        room.plot.go_on(room.plotter)
        return _out(room)


@plotting.post("/load")
def load(body: LoadIn, request: Request) -> PlotterOut:
    """Put new paper in; what was not finished is drawn again from its start on it."""
    room = _room(request)
    with room.lock:
        room.plotter.load(body.length)
        if room.plot is not None:
            room.plot.on_new_paper()
        return _out(room)


@plotting.post("/go-on")
def go_on(request: Request) -> PlotterOut:
    """Go on with what is not drawn."""
    room = _room(request)
    with room.lock:
        room.plotter.cut_after = None
        if room.plot is not None:
            room.plot.go_on(room.plotter)
        return _out(room)


@plotting.post("/manner")
def manner(body: MannerIn, request: Request) -> PlotterOut:
    """Have the stand-in lose its line after so many commands, to try what then happens."""
    room = _room(request)
    with room.lock:
        room.plotter.cut_after = body.cut_after
        return _out(room)
