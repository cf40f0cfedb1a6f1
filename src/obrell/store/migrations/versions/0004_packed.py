"""Earlier versions of documents are packed, each as what differs from the one before it; steps know their version."""

import sqlalchemy as sa
from alembic import op

from obrell.store.packing import packed, unpacked

revision = "0004"
down_revision = "0003"
LONGEST_CHAIN = 32
INDEXES = (("documents", "base"), ("kits", "head"), ("controls", "head"), ("steps", "before"), ("steps", "after"))


def upgrade() -> None:
    op.add_column("documents", sa.Column("packed", sa.LargeBinary, nullable=True))
    op.add_column("documents", sa.Column("base", sa.String(32), nullable=True))
    op.add_column("steps", sa.Column("version", sa.Integer, nullable=False, server_default="0"))
    for table, column in INDEXES:
        op.create_index(f"ix_{table}_{column}", table, [column])
    Packer(op.get_bind()).pack_all()


class Packer:
    """Packs every document that is not the newest of anything, oldest first."""

    def __init__(self, connection: sa.Connection) -> None:
        self._connection = connection
        self._done = {head for (head,) in self._ask("SELECT head FROM controls UNION SELECT head FROM kits")}
        self._links: dict[str, int] = {}

    def pack_all(self) -> None:
        earlier: dict[str, str] = {}
        for before, after in self._ask("SELECT before, after FROM steps ORDER BY number"):
            self._pack(before, earlier.get(before))
            earlier.setdefault(after, before)
        for after, before in earlier.items():
            self._pack(after, before)

    def _pack(self, hash_: str, base: str | None) -> None:
        text = None if hash_ in self._done else self._text(hash_)
        self._done.add(hash_)
        if text is None:
            return
        links = self._links.get(base or "", LONGEST_CHAIN)
        on = self._text(base) if base and links < LONGEST_CHAIN else None
        self._links[hash_] = 1 if on is None else links + 1
        self._connection.execute(
            sa.text("UPDATE documents SET body = '', packed = :packed, base = :base WHERE hash = :hash"),
            {"packed": packed(text, on or ""), "base": None if on is None else base, "hash": hash_},
        )

    def _text(self, hash_: str) -> str | None:
        found = self._ask("SELECT body, packed, base FROM documents WHERE hash = :hash", hash=hash_)
        if not found:
            return None
        body, content, base = found[0]
        return body if content is None else unpacked(content, self._text(base) or "" if base else "")

    def _ask(self, query: str, **values: str) -> list[sa.Row]:
        return list(self._connection.execute(sa.text(query), values).all())
