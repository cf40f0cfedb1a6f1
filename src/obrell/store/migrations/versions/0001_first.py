"""Documents by content, kits, controls, steps."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "documents",
        sa.Column("hash", sa.String(32), primary_key=True),
        sa.Column("body", sa.Text, nullable=False),
    )
    op.create_table(
        "kits",
        sa.Column("id", sa.String(40), primary_key=True),
        sa.Column("head", sa.String(32), sa.ForeignKey("documents.hash"), nullable=False),
        sa.Column("removed", sa.Boolean, nullable=False),
    )
    op.create_table(
        "controls",
        sa.Column("kit", sa.String(40), sa.ForeignKey("kits.id"), primary_key=True),
        sa.Column("id", sa.String(40), primary_key=True),
        sa.Column("head", sa.String(32), sa.ForeignKey("documents.hash"), nullable=False),
        sa.Column("version", sa.Integer, nullable=False),
    )
    op.create_table(
        "steps",
        sa.Column("number", sa.Integer, primary_key=True, autoincrement=True),
        sa.Column("kit", sa.String(40), sa.ForeignKey("kits.id"), nullable=False),
        sa.Column("control", sa.String(40), nullable=False),
        sa.Column("label", sa.Text, nullable=False),
        sa.Column("before", sa.String(32), sa.ForeignKey("documents.hash"), nullable=False),
        sa.Column("after", sa.String(32), sa.ForeignKey("documents.hash"), nullable=False),
        sa.Column("undone", sa.Integer, nullable=False),
    )
    op.create_index("ix_steps_scope", "steps", ["kit", "control", "undone"])
