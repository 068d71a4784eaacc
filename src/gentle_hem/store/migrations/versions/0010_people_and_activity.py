"""People put away, and what changed when."""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("person", sa.Column("put_away_at", sa.DateTime, nullable=True))
    op.create_table(
        "activity",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
        sa.Column("person_id", sa.Integer, sa.ForeignKey("person.id"), nullable=True, index=True),
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=True, index=True),
        sa.Column("window", sa.String(16), nullable=False),
        sa.Column("what", sa.String(300), nullable=False),
        sa.Column("first_version", sa.Integer, nullable=True),
    )


def downgrade() -> None:
    op.drop_table("activity")
    op.drop_column("person", "put_away_at")
