"""Making: the school a dress is sewn in, and the operations of its plan ticked and timed."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "making",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=False, unique=True),
        sa.Column("school", sa.String(20), nullable=False),
    )
    op.create_table(
        "bench_mark",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=False, index=True),
        sa.Column("operation", sa.String(200), nullable=False),
        sa.Column("work", sa.String(24), nullable=False, index=True),
        sa.Column("done_at", sa.DateTime, nullable=True),
        sa.Column("begun_at", sa.DateTime, nullable=True),
        sa.Column("minutes", sa.Double, nullable=False),
        sa.Column("usual", sa.Double, nullable=False),
        sa.Column("note", sa.String(1000), nullable=False),
        sa.Column("waits_for", sa.String(40), nullable=False),
        sa.UniqueConstraint("commission_id", "operation"),
    )


def downgrade() -> None:
    op.drop_table("bench_mark")
    op.drop_table("making")
