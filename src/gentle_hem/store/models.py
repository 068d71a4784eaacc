"""The tables.

person ──< figure (dated, never overwritten)
   │
   └────< commission ──< recipe version (append-only) ──< hung picture (how it hangs, from each side)
                │
                └──── slip (what the desk shows; read again from the newest version whenever it is out of date)

step list (steps kept by a name, for any dress)          cloth (on the shelf)
lay (how a cloth of a commission is laid, and how far the search for a shorter one is)
making (the school a commission is sewn in) ──< bench mark (an operation of its plan ticked, timed, noted, waiting)
task list (the operations of a commission, read again when it changes) ──< sitting (when one of them is sewn)
workroom (its hours, when the days were laid out, and what does not go)
visit (a fitting of a commission) ──< fitting note (what was seen, where, how much, what was done about it), photograph
correction (what belongs in a person's block, since it was noted of her often enough)
activity (what changed when, by which window)
costing (what the maker says of the costs of a commission)          cloth note (what was learnt of a cloth)
"""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Any

from sqlalchemy import JSON, DateTime, Double, ForeignKey, LargeBinary, String, UniqueConstraint, func
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship
from sqlalchemy.types import TypeDecorator


class UtcDateTime(TypeDecorator[datetime]):
    """A moment, kept without its zone by SQLite and handed back as the UTC it is."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        return value.astimezone(UTC).replace(tzinfo=None) if value else None

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        return value.replace(tzinfo=UTC) if value else None


class Base(DeclarativeBase):
    """Everything kept has a number and the moment it was written down."""

    id: Mapped[int] = mapped_column(primary_key=True)
    created_at: Mapped[datetime] = mapped_column(
        UtcDateTime, default=lambda: datetime.now(UTC), server_default=func.now()
    )


class Person(Base):
    """Somebody who is dressed."""

    __tablename__ = "person"

    name: Mapped[str] = mapped_column(String(120), unique=True)
    remarks: Mapped[str] = mapped_column(String(4000), default="")
    """What she likes, and what is to be known of her."""
    put_away_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    """When she was put away: she is off the books in use, and kept."""

    figures: Mapped[list[FigureSet]] = relationship(
        back_populates="person", order_by="FigureSet.taken_on, FigureSet.id"
    )
    commissions: Mapped[list[Commission]] = relationship(back_populates="person")


class FigureSet(Base):
    """One person's measures on one day (mm, by key). A new day is a new row."""

    __tablename__ = "figure"

    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"), index=True)
    taken_on: Mapped[date]
    measures: Mapped[dict[str, float]] = mapped_column(JSON)

    person: Mapped[Person] = relationship(back_populates="figures")


class Commission(Base):
    """A garment being made for somebody."""

    __tablename__ = "commission"

    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"), index=True)
    title: Mapped[str] = mapped_column(String(120))
    occasion: Mapped[str] = mapped_column(String(200), default="")
    due_on: Mapped[date | None]
    begun_as: Mapped[str | None] = mapped_column(String(64), unique=True)
    """The name its beginning was asked under, so that asking twice begins it once."""
    version: Mapped[int] = mapped_column(default=0)
    """The number of its newest recipe version; 0 before there is one."""
    worked_at: Mapped[datetime] = mapped_column(UtcDateTime, server_default=func.now(), index=True)

    put_away_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    """When it was put away: it is off the desk, and kept."""
    person: Mapped[Person] = relationship(back_populates="commissions")
    slip: Mapped[Slip | None] = relationship(back_populates="commission")
    versions: Mapped[list[RecipeVersion]] = relationship(back_populates="commission", order_by="RecipeVersion.number")


class RecipeVersion(Base):
    """One state of a commission's recipe. Rows are added, never changed."""

    __tablename__ = "recipe_version"
    __table_args__ = (UniqueConstraint("commission_id", "number"),)

    commission_id: Mapped[int] = mapped_column(ForeignKey("commission.id"), index=True)
    number: Mapped[int]
    recipe: Mapped[dict[str, Any]] = mapped_column(JSON)

    commission: Mapped[Commission] = relationship(back_populates="versions")


class HungPicture(Base):
    """A version of a recipe hung on its figure, as it is seen from one side, as a PNG. Of each commission those of the
    version hung last are kept.
    """

    __tablename__ = "hung_picture"
    __table_args__ = (UniqueConstraint("recipe_version_id", "view"),)

    recipe_version_id: Mapped[int] = mapped_column(ForeignKey("recipe_version.id"), index=True)
    view: Mapped[str] = mapped_column(String(8))
    picture: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)


class StepList(Base):
    """Steps kept under a name, to be done to another dress; ``version`` is the recipe's that they were written in."""

    __tablename__ = "step_list"

    name: Mapped[str] = mapped_column(String(120), unique=True)
    version: Mapped[int]
    steps: Mapped[list[dict[str, Any]]] = mapped_column(JSON)


class Slip(Base):
    """What the desk shows of a commission. It is computed, and kept only so that the desk need not make every dress."""

    __tablename__ = "slip"

    commission_id: Mapped[int] = mapped_column(ForeignKey("commission.id"), unique=True)
    version: Mapped[int]
    program: Mapped[str] = mapped_column(String(64))
    unit: Mapped[str] = mapped_column(String(8), default="cm")
    summary: Mapped[str] = mapped_column(String(400), default="")
    stops: Mapped[int] = mapped_column(default=0)
    warnings: Mapped[int] = mapped_column(default=0)
    trouble: Mapped[str] = mapped_column(String(2000), default="")
    unreadable: Mapped[str] = mapped_column(String(2000), default="")
    """Why its recipe cannot be read, where it cannot."""
    drawing: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    """The dress from in front, small; None where it cannot be drawn."""

    commission: Mapped[Commission] = relationship(back_populates="slip")


class ShelfCloth(Base):
    """A cloth on the shelf, as a recipe takes it over."""

    __tablename__ = "cloth"

    name: Mapped[str] = mapped_column(String(80), unique=True)
    cloth: Mapped[dict[str, Any]] = mapped_column(JSON)


class KeptLay(Base):
    """How one cloth of a commission is laid: what was asked, what lies where, and whether it is still searched."""

    __tablename__ = "lay"
    __table_args__ = (UniqueConstraint("commission_id", "role"),)

    commission_id: Mapped[int] = mapped_column(ForeignKey("commission.id"), index=True)
    role: Mapped[str] = mapped_column(String(20))
    asked: Mapped[dict[str, Any]] = mapped_column(JSON)
    recipe: Mapped[dict[str, Any]] = mapped_column(JSON)
    """The dress as it was when it was laid."""
    state: Mapped[str] = mapped_column(String(12), default="laid")
    """laid, searching, found, stopped or failed."""
    spots: Mapped[list[dict[str, Any]]] = mapped_column(JSON, default=list)
    length: Mapped[float | None] = mapped_column(Double)
    opened_from: Mapped[float | None] = mapped_column(Double)
    trouble: Mapped[str] = mapped_column(String(400), default="")


class Making(Base):
    """How a commission is sewn together: the school its plan follows."""

    __tablename__ = "making"

    commission_id: Mapped[int] = mapped_column(ForeignKey("commission.id"), unique=True)
    school: Mapped[str] = mapped_column(String(20))


class BenchMark(Base):
    """What the maker has said of one operation of a plan; it stays while the dress has the operation."""

    __tablename__ = "bench_mark"
    __table_args__ = (UniqueConstraint("commission_id", "operation"),)

    commission_id: Mapped[int] = mapped_column(ForeignKey("commission.id"), index=True)
    operation: Mapped[str] = mapped_column(String(200))
    work: Mapped[str] = mapped_column(String(24), index=True)
    done_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    begun_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    """When its timer was started, while it runs."""
    minutes: Mapped[float] = mapped_column(Double, default=0.0)
    """What it took so far, by the timer or as typed."""
    usual: Mapped[float] = mapped_column(Double, default=0.0)
    """What it takes usually, so that her own pace can be told."""
    note: Mapped[str] = mapped_column(String(1000), default="")
    waits_for: Mapped[str] = mapped_column(String(40), default="")
    waits_until: Mapped[date | None]
    """The day it is expected to be there, where that is known."""


class TaskList(Base):
    """The operations of a commission for the calendar. It is computed, and kept only so that the days can be laid out
    without making every dress.
    """

    __tablename__ = "task_list"

    commission_id: Mapped[int] = mapped_column(ForeignKey("commission.id"), unique=True)
    version: Mapped[int]
    program: Mapped[str] = mapped_column(String(64))
    school: Mapped[str] = mapped_column(String(20))
    tasks: Mapped[list[dict[str, Any]]] = mapped_column(JSON)
    fitting_at: Mapped[datetime | None] = mapped_column(DateTime)
    """When its fitting is agreed, by the clock on the wall."""

    commission: Mapped[Commission] = relationship()


class SittingRow(Base):
    """A stretch of work at one operation, by the clock on the wall."""

    __tablename__ = "sitting"

    commission_id: Mapped[int] = mapped_column(ForeignKey("commission.id"), index=True)
    operation: Mapped[str] = mapped_column(String(200))
    start_at: Mapped[datetime] = mapped_column(DateTime, index=True)
    end_at: Mapped[datetime] = mapped_column(DateTime)


class Workroom(Base):
    """The one workroom: when it is open, when its days were laid out, and what was found not to go."""

    __tablename__ = "workroom"

    hours: Mapped[dict[str, Any]] = mapped_column(JSON)
    laid_at: Mapped[datetime | None] = mapped_column(DateTime)
    troubles: Mapped[dict[str, Any]] = mapped_column(JSON)


class Visit(Base):
    """A fitting: the day, and what the client wishes."""

    __tablename__ = "visit"

    commission_id: Mapped[int] = mapped_column(ForeignKey("commission.id"), index=True)
    on_day: Mapped[date]
    wishes: Mapped[str] = mapped_column(String(2000), default="")

    commission: Mapped[Commission] = relationship()
    notes: Mapped[list[FittingNote]] = relationship(back_populates="visit", order_by="FittingNote.id")
    photographs: Mapped[list[Photograph]] = relationship(order_by="Photograph.id")


class Photograph(Base):
    """A photograph taken at a fitting, as a JPEG without what the camera wrote into it."""

    __tablename__ = "photograph"

    visit_id: Mapped[int] = mapped_column(ForeignKey("visit.id"), index=True)
    picture: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)


class FittingNote(Base):
    """Something seen at a fitting: what, where, how much, and which correction was taken for it."""

    __tablename__ = "fitting_note"

    visit_id: Mapped[int] = mapped_column(ForeignKey("visit.id"), index=True)
    seen: Mapped[str] = mapped_column(String(40), index=True)
    side: Mapped[str] = mapped_column(String(8), default="both")
    piece: Mapped[str] = mapped_column(String(120), default="")
    edge: Mapped[str] = mapped_column(String(60), default="")
    text: Mapped[str] = mapped_column(String(1000), default="")
    amount: Mapped[float | None] = mapped_column(Double)
    taken: Mapped[str] = mapped_column(String(40), default="")
    """The correction that was taken, by its code; nothing where it was only noted."""
    taken_version: Mapped[int | None]
    """The version of the recipe it was taken over."""

    visit: Mapped[Visit] = relationship(back_populates="notes")


class Correction(Base):
    """What belongs in a person's block: the steps that every new draft of hers begins with."""

    __tablename__ = "correction"
    __table_args__ = (UniqueConstraint("person_id", "seen"),)

    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"), index=True)
    seen: Mapped[str] = mapped_column(String(40))
    taken: Mapped[str] = mapped_column(String(40))
    amount: Mapped[float] = mapped_column(Double)


class Activity(Base):
    """Something that was changed: when, of what, and by which window. Rows are written by the store itself."""

    __tablename__ = "activity"

    person_id: Mapped[int | None] = mapped_column(ForeignKey("person.id"), index=True)
    commission_id: Mapped[int | None] = mapped_column(ForeignKey("commission.id"), index=True)
    window: Mapped[str] = mapped_column(String(16), default="")
    what: Mapped[str] = mapped_column(String(300))
    first_version: Mapped[int | None]
    """Of saves that follow each other: the first of them."""

    person: Mapped[Person | None] = relationship()
    commission: Mapped[Commission | None] = relationship()


class Costing(Base):
    """What the maker says of the costs of a commission: her rate, prices of notions, extras."""

    __tablename__ = "costing"

    commission_id: Mapped[int] = mapped_column(ForeignKey("commission.id"), unique=True)
    said: Mapped[dict[str, Any]] = mapped_column(JSON)


class ClothNote(Base):
    """What was learnt of a cloth, by the name it has on the shelf: what kind of thing, and the lengths it was measured
    at before and after (mm), where it was measured.
    """

    __tablename__ = "cloth_note"

    cloth: Mapped[str] = mapped_column(String(80), index=True)
    on_day: Mapped[date]
    kind: Mapped[str] = mapped_column(String(24))
    before: Mapped[float | None] = mapped_column(Double)
    after: Mapped[float | None] = mapped_column(Double)
    text: Mapped[str] = mapped_column(String(1000), default="")
    commission_id: Mapped[int | None] = mapped_column(ForeignKey("commission.id"), index=True)
    """The dress it was learnt at, where there is one."""
