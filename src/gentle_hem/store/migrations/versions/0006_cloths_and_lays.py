"""The shelf of cloths, and how the cloths of a dress are laid."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "cloth",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
        sa.Column("name", sa.String(80), nullable=False, unique=True),
        sa.Column("cloth", sa.JSON, nullable=False),
    )
    op.create_table(
        "lay",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=False, index=True),
        sa.Column("role", sa.String(20), nullable=False),
        sa.Column("asked", sa.JSON, nullable=False),
        sa.Column("recipe", sa.JSON, nullable=False),
        sa.Column("state", sa.String(12), nullable=False),
        sa.Column("spots", sa.JSON, nullable=False),
        sa.Column("length", sa.Double, nullable=True),
        sa.Column("opened_from", sa.Double, nullable=True),
        sa.Column("trouble", sa.String(400), nullable=False),
        sa.UniqueConstraint("commission_id", "role"),
    )


def downgrade() -> None:
    op.drop_table("lay")
    op.drop_table("cloth")
