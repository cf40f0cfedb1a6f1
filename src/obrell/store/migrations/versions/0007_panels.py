"""Steps know the panel of Trial that they were done to."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    op.add_column("steps", sa.Column("panel", sa.String(40), nullable=False, server_default=""))
