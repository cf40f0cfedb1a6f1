"""The repository: kits and controls as values, edits saved with their history in one transaction."""

from __future__ import annotations

import json
from base64 import b64encode
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from pathlib import Path

from sqlalchemy import case, func, select
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm import Session

from obrell.core.document.files import files_of
from obrell.core.document.kit_texts import ControlText, KitTexts, control_text, kit_texts
from obrell.core.document.model import Canvas, Control, Kit
from obrell.core.edit.kits import (
    KitIndex,
    reordered,
    with_control,
    without_control,
)
from obrell.core.errors import NoSuchThing, Unreadable
from obrell.core.values.base import text_hash
from obrell.core.values.slugs import free_id
from obrell.store.database import Database
from obrell.store.documents import Documents
from obrell.store.failures import StoreGone, is_damage
from obrell.store.files import keep_files
from obrell.store.history import History, Step, steps_since
from obrell.store.packing import DAMAGED
from obrell.store.rows import (
    NO_KIT,
    NOBODY,
    Rows,
    Sender,
    Stored,
    answer,
    answered,
    new_batch,
    recent_documents,
)
from obrell.store.tables import ControlRow, DocumentRow, FileRow, KitRow
from obrell.store.texts import add_texts

__all__ = ["KitName", "Kits", "Lost", "Made", "Sender", "Stored", "Tile"]


Files = Iterable[bytes]
"""Pictures and fonts, as they are kept."""
Make = Callable[[str], Control]
"""What makes a control under an id."""


@dataclass(frozen=True, slots=True)
class KitName:
    """A kit in the list of kits; ``damaged`` when what is stored of it cannot be read."""

    id: str
    name: str
    removed: bool
    damaged: bool = False


@dataclass(frozen=True, slots=True)
class Tile:
    """What the Wall shows of a control without reading all of it; ``words`` when it cannot be read."""

    id: str
    name: str
    width: float
    height: float
    hash: str
    words: str = ""
    stands: str = "light"
    """What it is looked at on."""
    original: str = ""
    """What it follows is called; empty when it follows nothing that is there."""
    uses: Mapping[str, int] = field(default_factory=dict)
    """How many of its parts follow each swatch."""


@dataclass(frozen=True, slots=True)
class Kin:
    """What a control follows and what follows it, each by its id with its name; ``gone`` when what it follows is no
    longer in the kit."""

    original: tuple[str, str] | None = None
    gone: bool = False
    copies: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True, slots=True)
class Lost:
    """A control that cannot be read, and why."""

    id: str
    name: str
    words: str


NOTHING_CHANGED = "Nothing changed: it is so already"


@dataclass(frozen=True, slots=True)
class Made:
    """What an edit made of a control: how it stands now, what it was before, and the edit's words."""

    now: Stored
    before: Control
    after: Control
    label: str
    meanwhile: tuple[Step, ...] = ()
    """What other windows did since the version that the edit was based on."""

    @property
    def changes(self) -> bool:
        """Return whether the edit changed anything."""
        return self.before != self.after

    @property
    def said(self) -> str:
        """Return what was done, in words."""
        return self.label if self.changes else NOTHING_CHANGED


@dataclass(frozen=True, slots=True)
class Changed:
    """What a control becomes together with its kit: what it was, the words of its own step, and what it is."""

    was: Stored
    label: str
    control: Control


@dataclass(frozen=True, slots=True)
class Plan:
    """What becomes of a kit's own values and some of its controls, as one step in these words."""

    label: str
    index: KitIndex
    controls: Sequence[Changed] = ()


@dataclass(frozen=True, slots=True)
class Ground:
    """What an edit is made on: the newest of a control and of its kit's own values."""

    index: KitIndex
    index_hash: str
    stored: Stored


class Kits(History):
    """All kits of one database."""

    def __init__(self, path: Path) -> None:
        super().__init__(Database(path), Rows(Documents()))

    @property
    def path(self) -> Path:
        """The database file."""
        return self._database.path

    def close(self) -> None:
        """Let go of the file; all that was saved is in it."""
        self._database.close()

    def backup(self, to: Path) -> None:
        """A whole copy of the database, made while it is used."""
        self._database.backup(to)

    def trouble(self) -> str:
        """Why nothing can be saved at present, in words; empty when it can."""
        try:
            self._database.check_there()
        except StoreGone as error:
            return str(error)
        return ""

    # Reading

    def names(self) -> list[KitName]:
        """Every kit, removed ones included, in order of name."""
        with self._database.reading() as session:
            names = [self._name(session, row) for row in session.scalars(select(KitRow)).all()]
        return sorted(names, key=lambda kit: kit.name.lower())

    def _name(self, session: Session, row: KitRow) -> KitName:
        try:
            return KitName(row.id, self._rows.index(session, row.head).name, row.removed)
        except Unreadable:
            return KitName(row.id, row.id, row.removed, damaged=True)

    def index(self, kit: str) -> KitIndex:
        """A kit's own values and the order of its controls."""
        with self._database.reading() as session:
            return self._rows.index(session, self._rows.kit(session, kit).head)

    def control(self, kit: str, control: str) -> Stored:
        """A control of the kit's order; raises ``NoSuchThing`` when it was removed, ``Unreadable`` when what is
        stored of it is damaged."""
        with self._database.reading() as session:
            return self._rows.stored(session, kit, control)

    def controls(self, kit: str) -> list[Stored]:
        """The kit's controls in order, but for those that cannot be read."""
        return [found for found in self.shelf(kit) if isinstance(found, Stored)]

    def shelf(self, kit: str) -> list[Stored | Lost]:
        """The kit's controls in order, those that cannot be read too."""
        with self._database.reading() as session:
            return self._shelf(session, kit)

    def _shelf(self, session: Session, kit: str) -> list[Stored | Lost]:
        order = self._rows.index(session, self._rows.kit(session, kit).head).order
        rows = {row.id: row for row in session.scalars(select(ControlRow).where(ControlRow.kit == kit))}
        return [self._found(session, rows[name]) for name in order if name in rows]

    def _found(self, session: Session, row: ControlRow) -> Stored | Lost:
        try:
            return Stored(self._rows.control(session, row.head), row.head, row.version)
        except Unreadable as error:
            return Lost(row.id, self._rows.name_of(session, row), str(error))

    def tiles(self, kit: str) -> list[Tile]:
        """The kit's controls in order, as the Wall shows them."""
        with self._database.reading() as session:
            order = self._rows.index(session, self._rows.kit(session, kit).head).order
            found = _tiles(session, kit)
            for tile in [tile for tile in found.values() if tile.words]:
                name = self._rows.name_of(session, self._rows.head(session, kit, tile.id))
                found[tile.id] = replace(tile, name=name)
        names = {name: found[name].name for name in order if name in found}
        return [replace(found[name], original=names.get(found[name].original, "")) for name in names]

    def kin(self, kit: str, control: Control) -> Kin:
        """What a control follows and what follows it."""
        copies = select(ControlRow).where(ControlRow.kit == kit, ControlRow.original == control.id)
        with self._database.reading() as session:
            order = self._rows.index(session, self._rows.kit(session, kit).head).order
            rows = sorted(
                (row for row in session.scalars(copies) if row.id in order), key=lambda row: order.index(row.id)
            )
            named = tuple((row.id, self._rows.name_of(session, row)) for row in rows)
            if control.original is None:
                return Kin(copies=named)
            row = session.get(ControlRow, (kit, control.original)) if control.original in order else None
            return Kin(None if row is None else (row.id, self._rows.name_of(session, row)), row is None, named)

    def documents(self, kit: str, control: str, most: int = 60) -> Iterator[Control]:
        """A control as it is, and as it was and will be again around its newest steps; each once."""
        with self._database.reading() as session:
            heads = [self._rows.head(session, kit, control).head, *recent_documents(session, kit, control, most)]
        for head in dict.fromkeys(heads):
            yield self.by_hash(head)

    def by_hash(self, hash_: str) -> Control:
        """A control as it was or is, by content hash."""
        with self._database.reading() as session:
            return self._rows.control(session, hash_)

    def index_by_hash(self, hash_: str) -> KitIndex:
        """A kit's own values as they were or are, by content hash."""
        with self._database.reading() as session:
            return self._rows.index(session, hash_)

    def indexes(self, kit: str, most: int = 12) -> Iterator[KitIndex]:
        """A kit's own values as they are, and as they were and will be again around its newest steps; each once."""
        newest = self.index_hash(kit)
        yield self.index_by_hash(newest)
        with self._database.reading() as session:
            earlier = dict.fromkeys(recent_documents(session, kit, "", most))
        for head in earlier:
            if head != newest:
                yield self.index_by_hash(head)

    def index_hash(self, kit: str) -> str:
        """The content hash of a kit's own values."""
        with self._database.reading() as session:
            return self._rows.kit(session, kit).head

    def standing(self, kit: str) -> str:
        """A hash of the kit with all its controls: the same while none of them changes."""
        heads = select(ControlRow.head).where(ControlRow.kit == kit).order_by(ControlRow.id)
        with self._database.reading() as session:
            return text_hash(" ".join((self._rows.kit(session, kit).head, *session.scalars(heads))))

    # Files

    def file(self, name: str) -> bytes | None:
        """The content of a picture or font; None when it is not here."""
        with self._database.reading() as session:
            row = session.get(FileRow, name)
            return None if row is None else row.content

    # Controls

    def ground(self, kit: str, control: str) -> Ground:
        """What an edit is made on."""
        with self._database.reading() as session:
            index_hash = self._rows.kit(session, kit).head
            return Ground(self._rows.index(session, index_hash), index_hash, self._rows.stored(session, kit, control))

    def made_before(self, kit: str, control: str, sender: Sender) -> Made | None:
        """What was answered when the same edit was sent before; None when it was not."""
        if not sender.ident:
            return None
        with self._database.reading() as session:
            return self._made_before(session, kit, control, sender)

    def save(
        self, kit: str, ground: Ground, label: str, changed: Control, sender: Sender = NOBODY, files: Files = ()
    ) -> Made | None:  # fmt: skip
        """Save what an edit made of a control as one step of history, with the ``files`` that it brings: once, however
        often it is sent. None, and nothing saved, when the control or its kit has changed since the ground was
        read."""
        stored = ground.stored
        control = stored.control.id
        with self._database.writing() as session:
            again = self._made_before(session, kit, control, sender)
            if again is not None:
                return again
            now = self._rows.head(session, kit, control)
            if now.head != stored.hash or self._rows.kit(session, kit).head != ground.index_hash:
                return None
            meanwhile = steps_since(session, kit, control, sender)
            keep_files(session, files)
            saved = self._rows.save_control(session, kit, control, label, changed, sender)
            answer(session, sender, kit, control, label, (stored.hash, saved.hash))
            return Made(saved, stored.control, changed, label, meanwhile)

    def _made_before(self, session: Session, kit: str, control: str, sender: Sender) -> Made | None:
        """What was answered when the edit was sent before, with the control as it stands now; of an edit that was
        taken back and given up since, only that."""
        found = answered(session, sender)
        if found is None:
            return None
        now = self._rows.stored(session, kit, control)
        try:
            before, after = (self._rows.control(session, hash_) for hash_ in (found.before, found.after))
        except Unreadable:
            return Made(now, now.control, now.control, found.label)
        return Made(now, before, after, found.label)

    def add_control(self, kit: str, name: str, canvas: Canvas) -> str:
        """A new, empty control at the end; its id."""
        (new,) = self._put(
            kit, [("", lambda new: Control(id=new, name=name, canvas=canvas))], f"Added control “{name}”"
        )
        return new

    def duplicate_control(self, kit: str, control: str) -> str:
        """A copy right behind the control; its id."""
        source = self.control(kit, control).control
        name = f"{source.name[:74]} copy"
        label = f"Duplicated control “{source.name}”"
        (new,) = self._put(kit, [(control, lambda new: source.evolve(id=new, name=name))], label)
        return new

    def add_copies(self, kit: str, makes: Sequence[tuple[str, Make]]) -> tuple[str, ...]:
        """Add copies of controls in one step, each right behind the control whose id it is given with. Return the new
        ids."""
        of = list(dict.fromkeys(control for control, _ in makes))
        whose = f"“{self.name_of(kit, of[0])}”" if len(of) == 1 else f"{len(of)} controls"
        count = f"{len(makes)} copies" if len(makes) > 1 else "a copy"
        return self._put(kit, makes, f"Made {count} of {whose}")

    def remove_control(self, kit: str, control: str) -> str:
        """Take a control out of the kit; undo brings it back with all its history. Its name."""
        name = self.name_of(kit, control)
        self.change_index(kit, lambda i: without_control(i, control), f"Removed control “{name}”")
        return name

    def move_control(self, kit: str, control: str, to: int) -> None:
        """Put a control at another place, 0 first."""
        name = self.name_of(kit, control)
        self.change_index(kit, lambda i: reordered(i, control, to), f"Moved control “{name}” in the order")

    def name_of(self, kit: str, control: str) -> str:
        """What a control is called, also when it cannot be read."""
        with self._database.reading() as session:
            return self._rows.name_of(session, self._rows.head(session, kit, control))

    def change_index(
        self, kit: str, change: Callable[[KitIndex], KitIndex], label: str, files: Files = ()
    ) -> str:  # fmt: skip
        """Change the kit's own values or order, as one step of history. Return what was done, in words."""
        return self.change_panel(kit, "", lambda index: (change(index), label), files=files)

    def change_panel(
        self, kit: str, panel: str, change: Callable[[KitIndex], tuple[KitIndex, str]], sender: Sender = NOBODY,
        files: Files = (),
    ) -> str:  # fmt: skip
        """Change a kit's own values, as one step of its history, or of that of a panel by its id, with the ``files``
        that this brings; once however often that is sent. What was done, in words. The change is worked out before
        the transaction, and again when the kit has changed meanwhile, so that nothing waits for it."""
        while True:
            with self._database.reading() as session:
                before = answered(session, sender)
                if before is not None:
                    return before.label
                head = self._rows.kit(session, kit).head
                index = self._rows.index(session, head)
            changed, label = change(index)
            said = label if changed != index else NOTHING_CHANGED
            if self._save_index(kit, head, changed, said, sender, panel, files):
                return said

    def _save_index(
        self, kit: str, head: str, changed: KitIndex, label: str, sender: Sender, panel: str, files: Files
    ) -> bool:  # fmt: skip
        """Save a kit's own values as one step; False, and nothing saved, when they are no longer those of ``head``, or
        the same was sent meanwhile."""
        with self._database.writing() as session:
            row = self._rows.kit(session, kit)
            if row.head != head or answered(session, sender) is not None:
                return False
            keep_files(session, files)
            self._rows.save_index(session, row, changed, label, sender.window, panel=panel)
            answer(session, sender, kit, "", label, (head, row.head))
            return True

    def change_kit(self, kit: str, plan: Callable[[KitIndex, list[Stored]], Plan]) -> tuple[str, list[Stored]]:
        """What a plan makes of the kit and its readable controls, saved in one transaction as steps that are taken
        back together; its words, and the changed controls as they stand then. Planned anew when any of what it was
        given has changed meanwhile."""
        while True:
            index_hash, index, controls = self._whole(kit)
            planned = plan(index, controls)
            saved = self._carry_out(kit, index_hash, controls, planned)
            if saved is not None:
                return planned.label, saved

    def _whole(self, kit: str) -> tuple[str, KitIndex, list[Stored]]:
        with self._database.reading() as session:
            head = self._rows.kit(session, kit).head
            found = self._shelf(session, kit)
            return head, self._rows.index(session, head), [one for one in found if isinstance(one, Stored)]

    def _carry_out(self, kit: str, index_hash: str, controls: Iterable[Stored], plan: Plan) -> list[Stored] | None:
        heads = select(ControlRow.id, ControlRow.head).where(ControlRow.kit == kit)
        with self._database.writing() as session:
            row, now = self._rows.kit(session, kit), dict(session.execute(heads).tuples().all())
            if row.head != index_hash or any(now.get(one.control.id) != one.hash for one in controls):
                return None
            batch = new_batch(session)
            self._rows.save_index(session, row, plan.index, plan.label, batch=batch)
            return [
                self._rows.save_control(session, kit, one.was.control.id, one.label, one.control, batch=batch)
                for one in plan.controls
            ]

    def _put(self, kit: str, makes: Sequence[tuple[str, Make]], label: str) -> tuple[str, ...]:
        """Add new controls in one step, each behind the control whose id it is given with, or at the end where that is
        empty. Return their ids. They are made before the transaction, and again if the kit has changed meanwhile."""
        while True:
            head = self.index_hash(kit)
            index, last, made = self.index_by_hash(head), dict[str, str](), []
            for after, make in makes:
                index, new = with_control(index, last.get(after, after))
                last[after] = new
                made.append(control_text(make(new)))
            with self._database.writing() as session:
                row = self._rows.kit(session, kit)
                if row.head != head:
                    continue
                self._add(session, kit, made)
                self._rows.save_index(session, row, index, label)
                return tuple(one.id for one in made)

    # Kits

    def add_kit(self, name: str) -> str:
        """A new, empty kit; its id."""
        return self.import_kit(Kit(id="k", name=name))

    def import_kit(self, kit: Kit) -> str:
        """Save a kit beside the others, under an id of its own; its id."""
        return self.import_texts(kit_texts(kit))

    def import_texts(self, kit: KitTexts) -> str:
        """The same of a kit as it was read from a file."""
        order = tuple(control.id for control in kit.controls)
        fields = {name: getattr(kit.settings, name) for name in type(kit.settings).model_fields}
        with self._database.writing() as session:
            new = free_id(kit.settings.name, session.scalars(select(KitRow.id)), "kit")
            index = KitIndex(**(fields | {"id": new}), order=order, next_number=_after(order))
            keep_files(session, kit.files.values())
            session.add(KitRow(id=new, head=self._rows.keep(session, index), removed=False))
            session.flush()
            self._add(session, new, kit.controls)
            return new

    def _add(self, session: Session, kit: str, controls: Iterable[ControlText]) -> None:
        """Controls as texts, the first versions of their rows."""
        texts = {one.id: text_hash(one.text) for one in controls}
        add_texts(session, {texts[one.id]: one.text for one in controls})
        session.add_all(
            ControlRow(kit=kit, id=one.id, head=texts[one.id], original=one.original, swatches=one.swatches)
            for one in controls
        )

    def export_kit(self, kit: str) -> Kit:
        """The kit with its controls as they stand; those that cannot be read are left out."""
        index = self.index(kit)
        controls = tuple(stored.control for stored in self.controls(kit))
        fields = {name: getattr(index, name) for name in type(index.settings()).model_fields}
        names = sorted(files_of(index).union(*(files_of(control) for control in controls)))
        files = {name: b64encode(content).decode() for name in names if (content := self.file(name)) is not None}
        return Kit(**fields, controls=controls, files=files)

    def set_removed(self, kit: str, removed: bool) -> None:
        """Take a kit out of the list, or bring it back."""
        with self._database.writing() as session:
            row = session.get(KitRow, kit)
            if row is None:
                raise NoSuchThing(NO_KIT)
            row.removed = removed


_BODY = DocumentRow.body
_SHOWN = [
    case((func.json_valid(_BODY) == 1, func.json_extract(_BODY, f"$.{path}")))
    for path in ("name", "canvas.width", "canvas.height", "stands", "ground.kind")
]
_TILE = select(ControlRow.id, ControlRow.head, ControlRow.original, ControlRow.swatches, *_SHOWN).outerjoin(
    DocumentRow, DocumentRow.hash == ControlRow.head
)


def _tiles(session: Session, kit: str) -> dict[str, Tile]:
    """What the Wall shows of each control, by id: all at once, or where the file is damaged one by one."""
    try:
        return {row[0]: _tile(*row) for row in session.execute(_TILE.where(ControlRow.kit == kit))}
    except DatabaseError as error:
        if not is_damage(error):
            raise
    rows = session.execute(select(ControlRow.id, ControlRow.head).where(ControlRow.kit == kit)).tuples().all()
    return {ident: _tile_alone(session, kit, ident, head) for ident, head in rows}


def _tile_alone(session: Session, kit: str, ident: str, head: str) -> Tile:
    try:
        row = session.execute(_TILE.where(ControlRow.kit == kit, ControlRow.id == ident)).one()
    except DatabaseError:
        return Tile(ident, ident, 0, 0, head, DAMAGED)
    return _tile(*row)


def _tile(
    ident: str, hash_: str, original: str, swatches: str, name: object, width: object, height: object, stands: object,
    ground: object,
) -> Tile:  # fmt: skip
    """A tile that names what it follows by its id."""
    if isinstance(name, str) and isinstance(width, int | float) and isinstance(height, int | float):
        chosen = stands if isinstance(stands, str) else "own" if ground else "light"
        size = (float(width), float(height))
        return Tile(ident, name, *size, hash_, stands=chosen, original=original, uses=json.loads(swatches))
    return Tile(ident, ident, 0, 0, hash_, DAMAGED, original=original)


def _after(order: tuple[str, ...]) -> int:
    """A number larger than any in the ids, so that new ids are new."""
    numbers = [int(control[1:]) for control in order if control[1:].isdigit()]
    return max(numbers, default=0) + 1
