"""Dresses put away: off the desk, and kept."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("commission", sa.Column("put_away_at", sa.DateTime, nullable=True))


def downgrade() -> None:
    op.drop_column("commission", "put_away_at")
