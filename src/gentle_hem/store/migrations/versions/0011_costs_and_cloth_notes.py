"""What a dress costs, what was learnt of a cloth, until when an operation waits, and photographs of fittings."""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
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
    op.add_column("bench_mark", sa.Column("waits_until", sa.Date, nullable=True))
    _kept(
        "costing",
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=False, unique=True),
        sa.Column("said", sa.JSON, nullable=False),
    )
    _kept(
        "cloth_note",
        sa.Column("cloth", sa.String(80), nullable=False, index=True),
        sa.Column("on_day", sa.Date, nullable=False),
        sa.Column("kind", sa.String(24), nullable=False),
        sa.Column("before", sa.Double, nullable=True),
        sa.Column("after", sa.Double, nullable=True),
        sa.Column("text", sa.String(1000), nullable=False),
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=True, index=True),
    )
    _kept(
        "photograph",
        sa.Column("visit_id", sa.Integer, sa.ForeignKey("visit.id"), nullable=False, index=True),
        sa.Column("picture", sa.LargeBinary, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("photograph")
    op.drop_table("cloth_note")
    op.drop_table("costing")
    op.drop_column("bench_mark", "waits_until")
