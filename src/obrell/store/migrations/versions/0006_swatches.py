"""Controls know how many of their parts follow which swatch, steps what they were made together with."""

import json
from collections import Counter

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    op.add_column("controls", sa.Column("swatches", sa.Text, nullable=False, server_default="{}"))
    op.add_column("steps", sa.Column("batch", sa.Integer, nullable=False, server_default="0"))
    op.create_index("ix_steps_batch", "steps", ["batch"])
    connection = op.get_bind()
    heads = sa.text("SELECT c.kit, c.id, d.body FROM controls c JOIN documents d ON d.hash = c.head")
    for kit, control, body in connection.execute(heads).all():
        found = _uses(body)
        if found:
            values = {"swatches": json.dumps(found), "kit": kit, "id": control}
            connection.execute(
                sa.text("UPDATE controls SET swatches = :swatches WHERE kit = :kit AND id = :id"), values
            )


def _uses(body: str) -> dict[str, int]:
    """Each swatch and how many parts follow it; none of a document that is damaged."""
    try:
        control = json.loads(body)
        parts = [{**part, "versions": []} for part in control["parts"]]
        return dict(Counter(swatch for one in (*parts, control.get("ground")) for swatch in _links(one)))
    except (ValueError, KeyError, TypeError):
        return {}


def _links(value: object) -> set[str]:
    if isinstance(value, list):
        return set().union(*map(_links, value))
    if not isinstance(value, dict):
        return set()
    own = {value["swatch"]} if isinstance(value.get("swatch"), str) else set()
    return own.union(*map(_links, value.values()))
