"""Every edit has an id and is done once; steps know the window they came from; the file says whose it is."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.create_table(
        "answers",
        sa.Column("id", sa.String(60), primary_key=True),
        sa.Column("kit", sa.String(40), nullable=False),
        sa.Column("control", sa.String(40), nullable=False),
        sa.Column("label", sa.Text, nullable=False),
        sa.Column("before", sa.String(32), nullable=False),
        sa.Column("after", sa.String(32), nullable=False),
    )
    op.add_column("steps", sa.Column("window", sa.String(60), nullable=False, server_default=""))
    op.execute("PRAGMA application_id = 0x4F627265")
