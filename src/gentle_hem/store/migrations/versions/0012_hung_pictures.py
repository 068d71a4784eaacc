"""Pictures of dresses that were hung, with the version of the recipe they show."""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "hung_picture",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
        sa.Column("recipe_version_id", sa.Integer, sa.ForeignKey("recipe_version.id"), nullable=False, index=True),
        sa.Column("view", sa.String(8), nullable=False),
        sa.Column("picture", sa.LargeBinary, nullable=False),
        sa.UniqueConstraint("recipe_version_id", "view"),
    )


def downgrade() -> None:
    op.drop_table("hung_picture")
