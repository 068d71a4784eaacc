"""The dress from in front, kept with its slip."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("slip", sa.Column("drawing", sa.JSON, nullable=True))


def downgrade() -> None:
    op.drop_column("slip", "drawing")
