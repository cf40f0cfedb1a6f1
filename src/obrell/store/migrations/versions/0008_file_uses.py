"""Files know which documents need them; those that none needs are removed."""

import re

import sqlalchemy as sa
import zstandard
from alembic import op

revision = "0008"
down_revision = "0007"
NAMED = re.compile(r'"([0-9a-f]{32})"')


def upgrade() -> None:
    op.create_table(
        "file_uses",
        sa.Column("document", sa.String(32), primary_key=True),
        sa.Column("file", sa.String(32), primary_key=True),
    )
    op.create_index("ix_file_uses_file", "file_uses", ["file"])
    connection = op.get_bind()
    names = {name for (name,) in connection.execute(sa.text("SELECT name FROM files"))}
    if not names:
        return
    texts, whole = _Texts(connection), True
    for (document,) in connection.execute(sa.text("SELECT hash FROM documents")).all():
        text = texts.of(document)
        whole = whole and text is not None
        for file in names.intersection(NAMED.findall(text or "")):
            values = {"document": document, "file": file}
            connection.execute(sa.text("INSERT INTO file_uses VALUES (:document, :file)"), values)
    if whole:  # a document that cannot be read may need any of them
        connection.execute(sa.text("DELETE FROM files WHERE name NOT IN (SELECT file FROM file_uses)"))


class _Texts:
    """The texts of documents, packed on each other; None for one that cannot be read."""

    def __init__(self, connection: sa.Connection) -> None:
        self._connection = connection

    def of(self, document: str) -> str | None:
        chain, at = [], document
        while at is not None and len(chain) <= 64:
            query = sa.text("SELECT body, packed, base FROM documents WHERE hash = :hash")
            row = self._connection.execute(query, {"hash": at}).first()
            if row is None:
                return None
            chain.append(row)
            at = row.base
        text = ""
        try:
            for row in reversed(chain):
                text = row.body if row.packed is None else _unpacked(row.packed, text)
        except (zstandard.ZstdError, UnicodeDecodeError, MemoryError):
            return None
        return text


def _unpacked(content: bytes, base: str) -> str:
    on = zstandard.ZstdCompressionDict(base.encode(), dict_type=zstandard.DICT_TYPE_RAWCONTENT) if base else None
    return zstandard.ZstdDecompressor(dict_data=on, max_window_size=1 << 23).decompress(content).decode()
