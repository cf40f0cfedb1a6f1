"""Controls know the one they follow, steps whether they only followed another control's."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.add_column("controls", sa.Column("original", sa.String(40), nullable=False, server_default=""))
    op.add_column("steps", sa.Column("led", sa.Boolean, nullable=False, server_default="0"))
    op.create_index("ix_controls_original", "controls", ["kit", "original"])
