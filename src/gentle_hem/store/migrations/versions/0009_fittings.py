"""Fittings: visits, what was seen at them, and what belongs in a person's block since."""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def _kept(name: str, *columns: sa.Column[Any] | sa.UniqueConstraint) -> None:
    op.create_table(
        name,
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
        *columns,
    )


def upgrade() -> None:
    _kept(
        "visit",
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=False, index=True),
        sa.Column("on_day", sa.Date, nullable=False),
        sa.Column("wishes", sa.String(2000), nullable=False),
    )
    _kept(
        "fitting_note",
        sa.Column("visit_id", sa.Integer, sa.ForeignKey("visit.id"), nullable=False, index=True),
        sa.Column("seen", sa.String(40), nullable=False, index=True),
        sa.Column("side", sa.String(8), nullable=False),
        sa.Column("piece", sa.String(120), nullable=False),
        sa.Column("edge", sa.String(60), nullable=False),
        sa.Column("text", sa.String(1000), nullable=False),
        sa.Column("amount", sa.Double, nullable=True),
        sa.Column("taken", sa.String(40), nullable=False),
        sa.Column("taken_version", sa.Integer, nullable=True),
    )
    _kept(
        "correction",
        sa.Column("person_id", sa.Integer, sa.ForeignKey("person.id"), nullable=False, index=True),
        sa.Column("seen", sa.String(40), nullable=False),
        sa.Column("taken", sa.String(40), nullable=False),
        sa.Column("amount", sa.Double, nullable=False),
        sa.UniqueConstraint("person_id", "seen"),
    )


def downgrade() -> None:
    for name in ("correction", "fitting_note", "visit"):
        op.drop_table(name)
