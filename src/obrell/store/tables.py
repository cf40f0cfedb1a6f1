"""The tables: documents by content, and pointers to the newest one of each control and kit."""

from __future__ import annotations

from sqlalchemy import ForeignKey, Index, LargeBinary, String, Text
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """Declarative base."""


class DocumentRow(Base):
    """A control or a kit's own values as canonical JSON, named by its content hash. What it says never changes; how it
    is kept does: while it is the newest its text stands in ``body``, later ``packed`` holds it, as what differs from
    the text of ``base`` when there is one."""

    __tablename__ = "documents"
    __table_args__ = (Index("ix_documents_base", "base"),)
    hash: Mapped[str] = mapped_column(String(32), primary_key=True)
    body: Mapped[str] = mapped_column(Text)
    packed: Mapped[bytes | None] = mapped_column(LargeBinary)
    base: Mapped[str | None] = mapped_column(String(32))


class FileRow(Base):
    """A picture, written anew when it was brought in, or a font as it came; named by its content hash, so what stands
    under a name stays what it is."""

    __tablename__ = "files"
    name: Mapped[str] = mapped_column(String(32), primary_key=True)
    content: Mapped[bytes] = mapped_column(LargeBinary)


class FileUseRow(Base):
    """A file that a document needs."""

    __tablename__ = "file_uses"
    __table_args__ = (Index("ix_file_uses_file", "file"),)
    document: Mapped[str] = mapped_column(String(32), primary_key=True)
    file: Mapped[str] = mapped_column(String(32), primary_key=True)


class KitRow(Base):
    """A kit. ``removed`` kits can be taken back."""

    __tablename__ = "kits"
    __table_args__ = (Index("ix_kits_head", "head"),)
    id: Mapped[str] = mapped_column(String(40), primary_key=True)
    head: Mapped[str] = mapped_column(ForeignKey("documents.hash"))
    removed: Mapped[bool] = mapped_column(default=False)


class ControlRow(Base):
    """A control of a kit, also when it is removed from the kit's order. ``version`` counts edits, ``original`` is the
    control that its document follows; empty for none. ``swatches`` are those that its parts follow, as JSON: each
    id and how many parts."""

    __tablename__ = "controls"
    __table_args__ = (Index("ix_controls_head", "head"), Index("ix_controls_original", "kit", "original"))
    kit: Mapped[str] = mapped_column(ForeignKey("kits.id"), primary_key=True)
    id: Mapped[str] = mapped_column(String(40), primary_key=True)
    head: Mapped[str] = mapped_column(ForeignKey("documents.hash"))
    version: Mapped[int] = mapped_column(default=1)
    original: Mapped[str] = mapped_column(String(40), default="", server_default="")
    swatches: Mapped[str] = mapped_column(Text, default="{}", server_default="{}")


class StepRow(Base):
    """One step of history: which document became which. ``undone`` is 0, or counts undos up, so
    that the last one undone is the first one redone. ``window`` is where it was done, ``version`` the control's after
    it; one that is ``led`` only follows what was done to another control. Steps of one ``batch`` were made together
    and are taken back together; it is the number of the first of them, 0 for a step alone. A step of the kit's own
    values that was done to a ``panel``, and one of a control that was done on it, are taken back there."""

    __tablename__ = "steps"
    __table_args__ = (
        Index("ix_steps_scope", "kit", "control", "undone"), Index("ix_steps_before", "before"),
        Index("ix_steps_after", "after"), Index("ix_steps_batch", "batch"),
    )  # fmt: skip
    number: Mapped[int] = mapped_column(primary_key=True, autoincrement=True)
    kit: Mapped[str] = mapped_column(ForeignKey("kits.id"))
    control: Mapped[str] = mapped_column(String(40), default="")
    label: Mapped[str] = mapped_column(Text)
    before: Mapped[str] = mapped_column(ForeignKey("documents.hash"))
    after: Mapped[str] = mapped_column(ForeignKey("documents.hash"))
    undone: Mapped[int] = mapped_column(default=0)
    window: Mapped[str] = mapped_column(String(60), default="", server_default="")
    version: Mapped[int] = mapped_column(default=0, server_default="0")
    led: Mapped[bool] = mapped_column(default=False, server_default="0")
    batch: Mapped[int] = mapped_column(default=0, server_default="0")
    panel: Mapped[str] = mapped_column(String(40), default="", server_default="")


class AnswerRow(Base):
    """What was answered to a request that changes something, by the id it came with: one that is sent again is
    not done again. ``before`` and ``after`` are documents."""

    __tablename__ = "answers"
    id: Mapped[str] = mapped_column(String(60), primary_key=True)
    kit: Mapped[str] = mapped_column(String(40))
    control: Mapped[str] = mapped_column(String(40))
    label: Mapped[str] = mapped_column(Text)
    before: Mapped[str] = mapped_column(String(32))
    after: Mapped[str] = mapped_column(String(32))
