"""People, their dated figures, commissions and recipe versions."""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def _kept() -> list[sa.Column[Any]]:
    return [
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
    ]


def upgrade() -> None:
    op.create_table(
        "person",
        *_kept(),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("remarks", sa.String(4000), nullable=False),
    )
    op.create_table(
        "figure",
        *_kept(),
        sa.Column("person_id", sa.Integer, sa.ForeignKey("person.id"), nullable=False, index=True),
        sa.Column("taken_on", sa.Date, nullable=False),
        sa.Column("measures", sa.JSON, nullable=False),
    )
    op.create_table(
        "commission",
        *_kept(),
        sa.Column("person_id", sa.Integer, sa.ForeignKey("person.id"), nullable=False, index=True),
        sa.Column("title", sa.String(120), nullable=False),
        sa.Column("occasion", sa.String(200), nullable=False),
        sa.Column("due_on", sa.Date),
    )
    op.create_table(
        "recipe_version",
        *_kept(),
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=False, index=True),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("recipe", sa.JSON, nullable=False),
        sa.UniqueConstraint("commission_id", "number"),
    )


def downgrade() -> None:
    for table in ("recipe_version", "commission", "figure", "person"):
        op.drop_table(table)
