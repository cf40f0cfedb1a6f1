"""Pictures and fonts by content."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    op.create_table(
        "files",
        sa.Column("name", sa.String(32), primary_key=True),
        sa.Column("content", sa.LargeBinary, nullable=False),
    )
