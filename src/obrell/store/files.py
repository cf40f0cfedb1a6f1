"""Pictures and fonts: stored with the first document that needs them, removed with the last."""

from __future__ import annotations

import re
from collections.abc import Iterable

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from obrell.core.files import file_id
from obrell.store.tables import FileRow, FileUseRow

_NAMED = re.compile(r'"([0-9a-f]{32})"')
"""A possible file name in the text of a document."""


def keep_files(session: Session, contents: Iterable[bytes]) -> None:
    """Store files, each once, before the document that needs them."""
    for content in contents:
        name = file_id(content)
        if session.get(FileRow, name) is None:
            session.add(FileRow(name=name, content=content))
    session.flush()


def note_uses(session: Session, document: str, body: str) -> None:
    """Note which files a new document needs, by its hash and text."""
    named = set(_NAMED.findall(body))
    if named:
        there = session.scalars(select(FileRow.name).where(FileRow.name.in_(named)))
        session.add_all(FileUseRow(document=document, file=name) for name in there)


def forget_uses(session: Session, documents: Iterable[str]) -> None:
    """Forget what documents that are gone needed, and remove the files that no other needs."""
    gone = set(documents)
    of_gone = select(FileUseRow.file).where(FileUseRow.document.in_(gone))
    names = set(session.scalars(of_gone))
    if names:
        session.execute(delete(FileUseRow).where(FileUseRow.document.in_(gone)))
        needed = select(FileUseRow.file)
        session.execute(delete(FileRow).where(FileRow.name.in_(names), FileRow.name.not_in(needed)))
