"""Lists of steps kept by a name, to be done to another dress."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "step_list",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False, unique=True),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("steps", sa.JSON, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("step_list")
