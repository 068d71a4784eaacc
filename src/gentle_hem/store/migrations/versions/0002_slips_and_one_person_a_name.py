"""What the desk shows is kept beside the records; one name is one person; a dress is begun once."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    _name_apart()
    with op.batch_alter_table("person") as person:
        person.create_unique_constraint("uq_person_name", ["name"])
    with op.batch_alter_table("commission") as commission:
        commission.add_column(sa.Column("begun_as", sa.String(64)))
        commission.add_column(sa.Column("version", sa.Integer, nullable=False, server_default="0"))
        commission.add_column(sa.Column("worked_at", sa.DateTime, nullable=False, server_default="1970-01-01 00:00:00"))
        commission.create_unique_constraint("uq_commission_begun_as", ["begun_as"])
        commission.create_index("ix_commission_worked_at", ["worked_at"])
    op.execute(
        "UPDATE commission SET "
        "version = COALESCE((SELECT MAX(number) FROM recipe_version v WHERE v.commission_id = commission.id), 0), "
        "worked_at = COALESCE((SELECT MAX(created_at) FROM recipe_version v WHERE v.commission_id = commission.id), "
        "created_at)"
    )
    op.create_table(
        "slip",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("created_at", sa.DateTime, server_default=sa.func.now(), nullable=False),
        sa.Column("commission_id", sa.Integer, sa.ForeignKey("commission.id"), nullable=False, unique=True),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("program", sa.String(64), nullable=False),
        sa.Column("unit", sa.String(8), nullable=False),
        sa.Column("summary", sa.String(400), nullable=False),
        sa.Column("stops", sa.Integer, nullable=False),
        sa.Column("warnings", sa.Integer, nullable=False),
        sa.Column("trouble", sa.String(2000), nullable=False),
        sa.Column("unreadable", sa.String(2000), nullable=False),
    )


def _name_apart() -> None:
    """Two people of one name, written down twice by a race, keep their records under names that tell them apart."""
    people = op.get_bind().execute(sa.text("SELECT id, name FROM person ORDER BY id")).all()
    taken: set[str] = set()
    for number, name in people:
        new, count = name, 1
        while new in taken:
            count += 1
            new = f"{name[:110]} ({count})"
        taken.add(new)
        if new != name:
            op.get_bind().execute(sa.text("UPDATE person SET name = :new WHERE id = :id"), {"new": new, "id": number})


def downgrade() -> None:
    op.drop_table("slip")
    with op.batch_alter_table("commission") as commission:
        for column in ("begun_as", "version", "worked_at"):
            commission.drop_column(column)
    with op.batch_alter_table("person") as person:
        person.drop_constraint("uq_person_name")
