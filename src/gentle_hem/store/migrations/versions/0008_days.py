"""The calendar: what each dress still needs, when it is sewn, and the workroom's hours."""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def _kept(name: str, *columns: sa.Column[Any]) -> None:
    op.create_table(
        name,
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
        *columns,
    )


def upgrade() -> None:
    _kept(
        "task_list",
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=False, unique=True),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("program", sa.String(64), nullable=False),
        sa.Column("school", sa.String(20), nullable=False),
        sa.Column("tasks", sa.JSON, nullable=False),
        sa.Column("fitting_at", sa.DateTime, nullable=True),
    )
    _kept(
        "sitting",
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=False, index=True),
        sa.Column("operation", sa.String(200), nullable=False),
        sa.Column("start_at", sa.DateTime, nullable=False, index=True),
        sa.Column("end_at", sa.DateTime, nullable=False),
    )
    _kept(
        "workroom",
        sa.Column("hours", sa.JSON, nullable=False),
        sa.Column("laid_at", sa.DateTime, nullable=True),
        sa.Column("troubles", sa.JSON, nullable=False),
    )


def downgrade() -> None:
    for name in ("workroom", "sitting", "task_list"):
        op.drop_table(name)
