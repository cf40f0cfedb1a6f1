"""Reading and writing rows inside of one transaction."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import TypeVar

from sqlalchemy import ColumnElement, delete, func, select
from sqlalchemy.orm import Session

from obrell.core.document.following import followed, stepped
from obrell.core.document.model import Control
from obrell.core.document.swatch_uses import uses
from obrell.core.document.texts import control_json
from obrell.core.edit.kits import KitIndex
from obrell.core.errors import BadValue, NoSuchThing, Refused, Unreadable
from obrell.core.values.base import Value, canonical_json, text_hash
from obrell.store.documents import Documents, name_in
from obrell.store.tables import AnswerRow, ControlRow, KitRow, StepRow
from obrell.store.texts import add_text, put_by, sweep, text_of, wake

LOOKED_BACK = 20
V = TypeVar("V", bound=Value)
NO_KIT = "There is no such kit here; it may have been removed in another window."
NO_CONTROL = "That control was removed, perhaps in another window. Undo on the Wall brings it back."


@dataclass(frozen=True, slots=True)
class Led:
    """A control that follows another one in which something was done; in words, why it could not."""

    control: str
    words: str = ""


@dataclass(frozen=True, slots=True)
class Stored:
    """A control as it stands: the document, its content hash, and the count of its edits."""

    control: Control
    hash: str
    version: int
    led: tuple[Led, ...] = ()
    """Where it was just saved, those that followed."""


@dataclass(frozen=True, slots=True)
class Sender:
    """Where a change comes from: the window, the id that the change was given there, so that it is done once however
    often it is sent, and the panel on which a control was changed. All may be empty."""

    window: str = ""
    ident: str = ""
    based: int = 0
    """The version of the control that the window showed when the change was made; 0 when that is not known."""
    panel: str = ""


NOBODY = Sender()


class Rows:
    """What the tables hold, as values; every call gets the session of the transaction it belongs to."""

    def __init__(self, documents: Documents) -> None:
        self._documents = documents

    def kit(self, session: Session, kit: str) -> KitRow:
        row = session.get(KitRow, kit)
        if row is None or row.removed:
            raise NoSuchThing(NO_KIT)
        return row

    def index(self, session: Session, hash_: str) -> KitIndex:
        return self._documents.find(KitIndex, hash_) or self._documents.read(KitIndex, hash_, text_of(session, hash_))

    def control(self, session: Session, hash_: str) -> Control:
        return self._documents.find(Control, hash_) or self._documents.read(Control, hash_, text_of(session, hash_))

    def head(self, session: Session, kit: str, control: str) -> ControlRow:
        """The row of a control that is in the kit's order."""
        index = self.index(session, self.kit(session, kit).head)
        row = session.get(ControlRow, (kit, control))
        if row is None or control not in index.order:
            raise NoSuchThing(NO_CONTROL)
        return row

    def stored(self, session: Session, kit: str, control: str) -> Stored:
        row = self.head(session, kit, control)
        return Stored(self.control(session, row.head), row.head, row.version)

    def keep(self, session: Session, value: Value) -> str:
        """Store a document by content, once; its hash."""
        text = control_json(value) if isinstance(value, Control) else canonical_json(value)
        hash_ = text_hash(text)
        add_text(session, hash_, text)
        if isinstance(value, Control | KitIndex):
            self._documents.keep(hash_, value, len(text))
        return hash_

    def name_of(self, session: Session, row: ControlRow) -> str:
        """What a control is called; of one that cannot be read, what it was called last."""
        steps = select(StepRow.before).where(StepRow.kit == row.kit, StepRow.control == row.id)
        earlier = session.scalars(steps.order_by(StepRow.number.desc()).limit(LOOKED_BACK)).all()
        for hash_ in (row.head, *earlier):
            with suppress(Unreadable):
                if name := name_in(text_of(session, hash_)):
                    return name
        return f"Control {row.id}"

    def save_control(
        self, session: Session, kit: str, control: str, label: str, changed: Control, sender: Sender = NOBODY,
        batch: int = 0,
    ) -> Stored:  # fmt: skip
        """The newest version of a control, as one step of history when it differs, and of those that follow it."""
        row = session.get(ControlRow, (kit, control))
        if row is None:
            raise NoSuchThing(NO_CONTROL)
        stored = self.control(session, row.head)
        if changed == stored:
            return Stored(stored, row.head, row.version)
        made = self._save(session, row, label, changed, sender, batch=batch)
        return replace(made, led=self.lead(session, kit, label, stored, changed))

    def _save(
        self, session: Session, row: ControlRow, label: str, changed: Control, sender: Sender = NOBODY, *,
        led: bool = False, batch: int = 0,
    ) -> Stored:  # fmt: skip
        before, after = row.head, self.keep(session, changed)
        gone = set() if led else forget_undone(session, row.kit, row.id, sender.panel)
        row.version += 1
        _go_to(session, row, after)
        describe(row, changed)
        words = {"label": label, "version": row.version, "led": led, "batch": batch}
        where = {"window": sender.window, "panel": sender.panel}
        session.add(StepRow(kit=row.kit, control=row.id, before=before, after=after, **words, **where))
        session.flush()
        sweep(session, gone)
        return Stored(changed, after, row.version)

    def lead(self, session: Session, kit: str, label: str, before: Control, after: Control) -> tuple[Led, ...]:
        """Bring what became of a control into those that follow it, and into those that follow them, each as a step
        of its own."""
        done: list[Led] = []
        became = {before.id: (before, after)}
        while became:
            original, (was, now) = became.popitem()
            query = select(ControlRow).where(ControlRow.kit == kit, ControlRow.original == original)
            for row in session.scalars(query).all():
                if row.id in (before.id, *(one.control for one in done)):
                    continue
                led = self._led(session, row, f"Followed “{after.name}”: {label}", was, now)
                if isinstance(led, tuple):
                    became[row.id] = led
                done.append(Led(row.id, "" if isinstance(led, tuple) else led))
        return tuple(done)

    def _led(
        self, session: Session, row: ControlRow, label: str, was: Control, now: Control
    ) -> tuple[Control, Control] | str:  # fmt: skip
        """What a copy was and has become; in words, why it could not follow."""
        try:
            copy = self.control(session, row.head)
            changed = followed(copy, was, now)
        except (BadValue, Unreadable) as error:
            return f"{self.name_of(session, row)} could not follow. {error}"
        if changed != copy:
            self._save(session, row, label, changed, led=True)
        return copy, changed

    def move(self, session: Session, step: StepRow, *, back: bool) -> tuple[Led, ...]:
        """Take a step back, or do it again, and bring what that changes into those that follow its control."""
        was, to = (step.after, step.before) if back else (step.before, step.after)
        if not step.control:
            kit = self.kit(session, step.kit)
            _go_to(session, kit, self._arrived(session, kit.head, was, to, self.index))
            return ()
        control = session.get(ControlRow, (step.kit, step.control))
        if control is None:
            raise Refused(NO_CONTROL)
        head = control.head
        _go_to(session, control, self._arrived(session, head, was, to, self.control))
        control.version += 1
        sweep(session, {head})
        try:
            before, after = self.control(session, head), self.control(session, control.head)
        except Unreadable:
            return ()
        describe(control, after)
        return self.lead(session, step.kit, f"{'took back' if back else 'did again'} {step.label}", before, after)

    def _arrived(
        self, session: Session, head: str, was: str, to: str, read: Callable[[Session, str], V]
    ) -> str:  # fmt: skip
        """The document that a step leads to. Where an original led its copy on in between, or more was done since to
        what was changed together with others, only what the step itself did is changed in the newest."""
        if head == was:
            return to
        newest, before, after = (read(session, one) for one in (head, was, to))
        try:
            return self.keep(session, stepped(newest, before, after))
        except BadValue as error:
            raise Refused(f"That no longer goes with what has become of it since. {error}") from error

    def save_index(
        self, session: Session, row: KitRow, changed: KitIndex, label: str, window: str = "", batch: int = 0,
        panel: str = "",
    ) -> None:  # fmt: skip
        """The newest of a kit's own values, as one step of history, of a panel perhaps, when they differ."""
        before, after = row.head, self.keep(session, changed)
        if before != after:
            gone = forget_undone(session, row.id, "", panel)
            _go_to(session, row, after)
            words = {"label": label, "window": window, "batch": batch, "panel": panel}
            session.add(StepRow(kit=row.id, control="", before=before, after=after, **words))
            session.flush()
            sweep(session, gone)


def _go_to(session: Session, row: ControlRow | KitRow, hash_: str) -> None:
    """Make a document the newest, and pack the one that was."""
    old, row.head = row.head, hash_
    wake(session, hash_)
    earlier = select(StepRow.before).where(StepRow.after == old).order_by(StepRow.number.desc()).limit(1)
    put_by(session, old, session.scalar(earlier))


def describe(row: ControlRow, control: Control) -> None:
    """What stands in a control's row of its newest document."""
    row.original = control.original or ""
    row.swatches = json.dumps(uses(control))


def new_batch(session: Session) -> int:
    """The number that the next step will have, to mark those that are made together with it."""
    return (session.scalar(select(func.max(StepRow.number))) or 0) + 1


def forget_undone(session: Session, kit: str, control: str, panel: str = "") -> set[str]:
    """A new edit ends what could be redone of the same document or panel, and of what was done together with that; the
    documents that it was about."""
    undone = (StepRow.kit == kit, StepRow.undone > 0)
    here, there = StepRow.control == control, StepRow.panel == panel
    own = here if control else here & there
    same = own | there if panel else own
    batches = select(StepRow.batch).where(*undone, same, StepRow.batch > 0)
    scope = (*undone, same | StepRow.batch.in_(batches))
    gone = {hash_ for row in session.execute(select(StepRow.before, StepRow.after).where(*scope)) for hash_ in row}
    session.execute(delete(StepRow).where(*scope))
    return gone


@dataclass(frozen=True, slots=True)
class Scope:
    """Whose steps: a control's, a panel's, or all of a kit that did not only follow another."""

    kit: str
    control: str = ""
    panel: str = ""

    def holds(self) -> tuple[ColumnElement[bool], ...]:
        """What is so of its steps."""
        if self.panel:
            return (StepRow.kit == self.kit, StepRow.panel == self.panel)
        return (StepRow.kit == self.kit, StepRow.control == self.control if self.control else ~StepRow.led)


def newest_step(session: Session, of: Scope, *, undone: bool) -> StepRow | None:
    """The step to undo (newest done) or to redo (last undone)."""
    query = select(StepRow).where(*of.holds())
    query = query.where(StepRow.undone > 0) if undone else query.where(StepRow.undone == 0)
    order = StepRow.undone if undone else StepRow.number
    return session.scalar(query.order_by(order.desc()).limit(1))


def made_together(session: Session, step: StepRow) -> list[StepRow]:
    """The steps that were made together with one, itself among them, oldest first."""
    if not step.batch:
        return [step]
    return list(session.scalars(select(StepRow).where(StepRow.batch == step.batch).order_by(StepRow.number)))


def recent_documents(session: Session, kit: str, control: str, most: int) -> list[str]:
    """The documents that the newest steps of a control began and ended with, by hash, newest first."""
    query = select(StepRow.after, StepRow.before).where(StepRow.kit == kit, StepRow.control == control)
    rows = session.execute(query.order_by(StepRow.number.desc()).limit(most))
    return [hash_ for row in rows for hash_ in row if hash_]


def answered(session: Session, sender: Sender) -> AnswerRow | None:
    """What was answered when a change was sent before."""
    return session.get(AnswerRow, sender.ident) if sender.ident else None


def answer(
    session: Session, sender: Sender, kit: str, control: str, label: str, documents: Iterable[str]
) -> None:  # fmt: skip
    """Keep the answer to a change in the transaction that makes it."""
    if sender.ident:
        before, after = documents
        session.add(AnswerRow(id=sender.ident, kit=kit, control=control, label=label, before=before, after=after))
