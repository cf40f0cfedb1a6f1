"""The texts of documents: the newest as they are, earlier ones packed on each other; what nothing needs is removed."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from sqlalchemy import select, text
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import InstrumentedAttribute, Session

from obrell.core.errors import Unreadable
from obrell.store.failures import is_damage
from obrell.store.files import forget_uses, note_uses
from obrell.store.packing import DAMAGED, packed, unpacked
from obrell.store.tables import ControlRow, DocumentRow, KitRow, StepRow

NO_DOCUMENT = "What was stored of this is gone. The versions before it may still be there: undo goes back to them."
LONGEST_CHAIN = 32
"""How many documents are packed on each other before one is packed by itself: what has to be unpacked to read one,
and what is lost at most with one that is damaged."""
AT_ONCE = 500
"""How many documents are looked for at once; SQLite takes some thousands of values in a query."""
CHAIN = text(
    """
    WITH RECURSIVE chain(hash, body, packed, base, links) AS (
        SELECT hash, body, packed, base, 0 FROM documents WHERE hash = :hash
        UNION ALL
        SELECT one.hash, one.body, one.packed, one.base, links + 1
        FROM documents AS one JOIN chain ON one.hash = chain.base WHERE links < :most
    )
    SELECT hash, body, packed, base FROM chain ORDER BY links
    """
)


def text_of(session: Session, hash_: str) -> str:
    """The text of a document; raises ``Unreadable``."""
    return _unfolded(_chain(session, hash_))


def add_text(session: Session, hash_: str, body: str) -> None:
    """Keep the text of a document that is, or is about to be, the newest of something."""
    row = session.get(DocumentRow, hash_)
    if row is None:
        session.add(DocumentRow(hash=hash_, body=body))
        note_uses(session, hash_, body)
        session.flush()
    elif row.packed is not None:
        row.body, row.packed, row.base = body, None, None


def add_texts(session: Session, bodies: Mapping[str, str]) -> None:
    """Keep texts of documents by their hashes, many at once."""
    hashes = list(bodies)
    for at in range(0, len(hashes), AT_ONCE):
        some = hashes[at : at + AT_ONCE]
        there = {row.hash: row for row in session.scalars(select(DocumentRow).where(DocumentRow.hash.in_(some)))}
        for hash_ in some:
            if hash_ in there:
                add_text(session, hash_, bodies[hash_])
            else:
                session.add(DocumentRow(hash=hash_, body=bodies[hash_]))
                note_uses(session, hash_, bodies[hash_])
    session.flush()


def wake(session: Session, hash_: str) -> None:
    """Have the text of a document stand as it is, because it becomes the newest again; one that cannot be read stays
    as it is kept."""
    row = session.get(DocumentRow, hash_)
    if row is not None and row.packed is not None:
        try:
            row.body, row.packed, row.base = text_of(session, hash_), None, None
        except Unreadable:
            return


def put_by(session: Session, hash_: str, earlier: str | None) -> None:
    """Pack the text of a document that is no longer the newest of anything, on that of an earlier one where there is
    one."""
    row = session.get(DocumentRow, hash_)
    if row is None or row.packed is not None or _is_newest(session, hash_):
        return
    base = _base(session, hash_, earlier)
    row.packed, row.base = packed(row.body, base[1] if base else ""), base[0] if base else None
    row.body = ""


def sweep(session: Session, hashes: Iterable[str]) -> None:
    """Remove those documents that nothing refers to any more, and the files that only they needed."""
    session.flush()
    left = set(hashes)
    while gone := {hash_ for hash_ in left if not _is_needed(session, hash_)}:
        for hash_ in gone:
            row = session.get(DocumentRow, hash_)
            if row is not None:
                session.delete(row)
        session.flush()
        forget_uses(session, gone)
        left -= gone


@dataclass(frozen=True, slots=True)
class _Link:
    hash: str
    body: str
    packed: bytes | None
    base: str | None


def _base(session: Session, hash_: str, earlier: str | None) -> tuple[str, str] | None:
    """The document to pack another one on, with its text; none where the chain would get too long, come back to the
    one that is packed, or cannot be read."""
    chain = _chain(session, earlier) if earlier else []
    if earlier is None or len(chain) >= LONGEST_CHAIN or hash_ in [link.hash for link in chain]:
        return None
    try:
        return earlier, _unfolded(chain)
    except Unreadable:
        return None


def _chain(session: Session, hash_: str) -> list[_Link]:
    """The document and those it is packed on, in turn; raises ``Unreadable`` where the file is damaged."""
    session.flush()
    try:
        return [_Link(*row) for row in session.execute(CHAIN, {"hash": hash_, "most": LONGEST_CHAIN})]
    except DatabaseError as error:
        if is_damage(error):
            raise Unreadable(DAMAGED) from error
        raise


def _unfolded(chain: Sequence[_Link]) -> str:
    if not chain or chain[-1].base is not None:
        raise Unreadable(NO_DOCUMENT)
    content = ""
    for link in reversed(chain):
        content = link.body if link.packed is None else unpacked(link.packed, content)
    return content


def _is_newest(session: Session, hash_: str) -> bool:
    session.flush()
    return _any(session, ControlRow.head, hash_) or _any(session, KitRow.head, hash_)


def _is_needed(session: Session, hash_: str) -> bool:
    columns = (ControlRow.head, KitRow.head, StepRow.before, StepRow.after, DocumentRow.base)
    return any(_any(session, column, hash_) for column in columns)


def _any(session: Session, column: InstrumentedAttribute[str] | InstrumentedAttribute[str | None], hash_: str) -> bool:
    return session.scalar(select(column).where(column == hash_).limit(1)) is not None
