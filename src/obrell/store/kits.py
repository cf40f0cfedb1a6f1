"""The repository: kits and controls as values, edits saved with their history in one transaction."""

from __future__ import annotations

from base64 import b64decode, b64encode
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from obrell.core.deliver.names import slug
from obrell.core.document.files import files_of
from obrell.core.document.model import Canvas, Control, Kit, Material
from obrell.core.edit import Edit, Surroundings, applied
from obrell.core.edit.kits import (
    KitIndex,
    gradient_from,
    reordered,
    with_control,
    with_gradient,
    with_material,
    without_control,
)
from obrell.core.edit.materials import FollowMaterial, linked_to, material_from
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.files import file_id, kept_by
from obrell.core.values.base import Value, canonical_json, content_hash
from obrell.store.database import Database
from obrell.store.tables import ControlRow, DocumentRow, FileRow, KitRow, StepRow

NO_KIT = "There is no such kit here; it may have been removed in another window."
NO_CONTROL = "That control was removed, perhaps in another window. Undo on the Wall brings it back."
SHOWN_STEPS = 200


@dataclass(frozen=True, slots=True)
class Stored:
    """A control as it stands: the document, its content hash, and the count of its edits."""

    control: Control
    hash: str
    version: int


@dataclass(frozen=True, slots=True)
class Step:
    """One line of the list of what was done."""

    number: int
    control: str
    label: str
    undone: bool


@dataclass(frozen=True, slots=True)
class KitName:
    """A kit in the list of kits."""

    id: str
    name: str
    removed: bool


class Kits:
    """All kits of one database."""

    def __init__(self, path: Path) -> None:
        self._database = Database(path)
        kept_by(self.file)

    # Reading

    def names(self) -> list[KitName]:
        """Every kit, removed ones included, in order of name."""
        with self._database.reading() as session:
            rows = session.scalars(select(KitRow)).all()
            names = [KitName(r.id, _index(session, r.head).name, r.removed) for r in rows]
        return sorted(names, key=lambda kit: kit.name.lower())

    def index(self, kit: str) -> KitIndex:
        """A kit's own values and the order of its controls."""
        with self._database.reading() as session:
            return _index(session, _kit_row(session, kit).head)

    def control(self, kit: str, control: str) -> Stored:
        """A control of the kit's order; raises ``NoSuchThing`` when it was removed."""
        with self._database.reading() as session:
            return _stored(session, kit, control)

    def controls(self, kit: str) -> list[Stored]:
        """The kit's controls in order."""
        with self._database.reading() as session:
            order = _index(session, _kit_row(session, kit).head).order
            return [_stored(session, kit, control) for control in order]

    def by_hash(self, hash_: str) -> Control:
        """A control as it was or is, by content hash."""
        with self._database.reading() as session:
            return _control(_body(session, hash_))

    def index_by_hash(self, hash_: str) -> KitIndex:
        """A kit's own values as they were or are, by content hash."""
        with self._database.reading() as session:
            return _index(session, hash_)

    def index_hash(self, kit: str) -> str:
        """The content hash of a kit's own values."""
        with self._database.reading() as session:
            return _kit_row(session, kit).head

    def history(self, kit: str, control: str = "") -> list[Step]:
        """What was done, newest first: to one control, or to the kit and all its controls."""
        query = select(StepRow).where(StepRow.kit == kit).order_by(StepRow.number.desc())
        if control:
            query = query.where(StepRow.control == control)
        with self._database.reading() as session:
            rows = session.scalars(query.limit(SHOWN_STEPS)).all()
            return [Step(row.number, row.control, row.label, row.undone > 0) for row in rows]

    # Files

    def file(self, name: str) -> bytes | None:
        """The content of a picture or font; None when it is not here."""
        with self._database.reading() as session:
            row = session.get(FileRow, name)
            return None if row is None else row.content

    def keep_file(self, content: bytes) -> str:
        """Store a picture or font, once; its name."""
        with self._database.writing() as session:
            return _keep_file(session, content)

    # Controls

    def edit(self, kit: str, control: str, edit: Edit) -> Stored:
        """Apply an edit to the newest version, whatever version it was made on, and save it."""
        with self._database.writing() as session:
            stored = _stored(session, kit, control)
            index = _index(session, _kit_row(session, kit).head)
            around = Surroundings(index.light.direction, index.materials)
            label = edit.label(stored.control)
            changed = applied(edit, stored.control, around)
            return _save_control(session, kit, control, label, changed)

    def add_control(self, kit: str, name: str, canvas: Canvas) -> str:
        """A new, empty control at the end; its id."""
        return self._put(kit, lambda new: Control(id=new, name=name, canvas=canvas), f"Added control “{name}”")

    def duplicate_control(self, kit: str, control: str) -> str:
        """A copy right behind the control; its id."""
        source = self.control(kit, control).control
        name = f"{source.name[:74]} copy"
        label = f"Duplicated control “{source.name}”"
        return self._put(kit, lambda new: source.evolve(id=new, name=name), label, after=control)

    def remove_control(self, kit: str, control: str) -> None:
        """Take a control out of the kit; undo brings it back with all its history."""
        name = self.control(kit, control).control.name
        self.change_index(kit, lambda i: without_control(i, control), f"Removed control “{name}”")

    def move_control(self, kit: str, control: str, to: int) -> None:
        """Put a control at another place, 0 first."""
        name = self.control(kit, control).control.name
        self.change_index(kit, lambda i: reordered(i, control, to), f"Moved control “{name}” in the order")

    def change_index(self, kit: str, change: Callable[[KitIndex], KitIndex], label: str) -> None:
        """Change the kit's own values or order, as one step of history."""
        with self._database.writing() as session:
            row = _kit_row(session, kit)
            _save_index(session, row, change(_index(session, row.head)), label)

    def save_material(self, kit: str, control: str, part: str, name: str, *, scaled: bool) -> list[Stored]:
        """The look of a part kept in the kit as a material, over one of the same name. Parts linked to it
        follow; the controls that changed."""
        with self._database.writing() as session:
            row, shown = _kit_row(session, kit), _stored(session, kit, control).control
            ident = _shelf_id("m", name, "material")
            index = _index(session, row.head)
            was = next((material for material in index.materials if material.id == ident), None)
            made = material_from(shown, part, name, ident, scaled=scaled)
            return _with_followed(session, row, index, made, was, f"Saved the material “{name}”")

    def save_gradient(self, kit: str, control: str, path: str, name: str) -> None:
        """The gradient at a path of a control kept in the kit, over one of the same name."""
        made = gradient_from(self.control(kit, control).control, path, name, _shelf_id("g", name, "gradient"))
        self.change_index(kit, lambda index: with_gradient(index, made), f"Kept the gradient “{name}”")

    def change_material(
        self, kit: str, material: str, change: Callable[[Material], Material], label: str
    ) -> list[Stored]:
        """A material of the kit changed; parts linked to it follow. The controls that changed."""
        with self._database.writing() as session:
            row = _kit_row(session, kit)
            index = _index(session, row.head)
            was = next((one for one in index.materials if one.id == material), None)
            if was is None:
                raise NoSuchThing("That material is no longer on the shelf.")
            return _with_followed(session, row, index, change(was), was, label)

    def _put(self, kit: str, make: Callable[[str], Control], label: str, after: str = "") -> str:
        with self._database.writing() as session:
            row = _kit_row(session, kit)
            index, new = with_control(_index(session, row.head), after)
            session.add(ControlRow(kit=kit, id=new, head=_keep(session, make(new)), version=1))
            _save_index(session, row, index, label)
            return new

    # Undo and redo

    def undo(self, kit: str, control: str = "") -> Step | None:
        """Take back the newest step of a control, or of the whole kit; None when there is none."""
        with self._database.writing() as session:
            row = _newest(session, kit, control, undone=False)
            if row is None:
                return None
            last = session.scalar(select(func.max(StepRow.undone)).where(StepRow.kit == kit)) or 0
            row.undone = last + 1
            _point(session, row, row.before)
            return Step(row.number, row.control, row.label, True)

    def redo(self, kit: str, control: str = "") -> Step | None:
        """Do again what was undone last; None when there is nothing."""
        with self._database.writing() as session:
            row = _newest(session, kit, control, undone=True)
            if row is None:
                return None
            row.undone = 0
            _point(session, row, row.after)
            return Step(row.number, row.control, row.label, False)

    # Kits

    def add_kit(self, name: str) -> str:
        """A new, empty kit; its id."""
        return self.import_kit(Kit(id="k", name=name))

    def import_kit(self, kit: Kit) -> str:
        """Save a kit from a file beside the others, under an id of its own; its id."""
        with self._database.writing() as session:
            taken = set(session.scalars(select(KitRow.id)))
            new = _free_id(slug(kit.name, "kit")[:32], taken)
            order = tuple(control.id for control in kit.controls)
            fields = {name: getattr(kit, name) for name in type(kit.settings()).model_fields}
            index = KitIndex(**(fields | {"id": new}), order=order, next_number=_after(order))
            session.add(KitRow(id=new, head=_keep(session, index), removed=False))
            session.flush()
            for text in kit.files.values():
                _keep_file(session, b64decode(text))
            for control in kit.controls:
                row = ControlRow(kit=new, id=control.id, head=_keep(session, control), version=1)
                session.add(row)
            return new

    def export_kit(self, kit: str) -> Kit:
        """The kit with its controls as they stand."""
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


def _kit_row(session: Session, kit: str) -> KitRow:
    row = session.get(KitRow, kit)
    if row is None or row.removed:
        raise NoSuchThing(NO_KIT)
    return row


def _body(session: Session, hash_: str) -> str:
    row = session.get(DocumentRow, hash_)
    if row is None:
        raise NoSuchThing("That version of the picture is not stored here.")
    return row.body


@lru_cache(maxsize=512)
def _control(body: str) -> Control:
    return Control.model_validate_json(body)


def _index(session: Session, hash_: str) -> KitIndex:
    return KitIndex.model_validate_json(_body(session, hash_))


def _stored(session: Session, kit: str, control: str) -> Stored:
    index = _index(session, _kit_row(session, kit).head)
    row = session.get(ControlRow, (kit, control))
    if row is None or control not in index.order:
        raise NoSuchThing(NO_CONTROL)
    return Stored(_control(_body(session, row.head)), row.head, row.version)


def _keep(session: Session, value: Value) -> str:
    """Store a document by content, once; its hash."""
    hash_ = content_hash(value)
    if session.get(DocumentRow, hash_) is None:
        session.add(DocumentRow(hash=hash_, body=canonical_json(value)))
        session.flush()
    return hash_


def _keep_file(session: Session, content: bytes) -> str:
    name = file_id(content)
    if session.get(FileRow, name) is None:
        session.add(FileRow(name=name, content=content))
        session.flush()
    return name


def _save_control(session: Session, kit: str, control: str, label: str, changed: Control) -> Stored:
    row = session.get(ControlRow, (kit, control))
    if row is None:
        raise NoSuchThing(NO_CONTROL)
    before, after = row.head, _keep(session, changed)
    if before == after:
        return Stored(changed, after, row.version)
    _forget_undone(session, kit, control)
    session.add(StepRow(kit=kit, control=control, label=label, before=before, after=after))
    row.head, row.version = after, row.version + 1
    return Stored(changed, after, row.version)


def _save_index(session: Session, row: KitRow, changed: KitIndex, label: str) -> None:
    before, after = row.head, _keep(session, changed)
    if before != after:
        _forget_undone(session, row.id, "")
        session.add(StepRow(kit=row.id, control="", label=label, before=before, after=after))
        row.head = after


def _forget_undone(session: Session, kit: str, control: str) -> None:
    """A new edit ends what could be redone of the same document."""
    scope = (StepRow.kit == kit, StepRow.control == control, StepRow.undone > 0)
    session.execute(delete(StepRow).where(*scope))


def _newest(session: Session, kit: str, control: str, *, undone: bool) -> StepRow | None:
    """The step to undo (newest done) or to redo (last undone)."""
    query = select(StepRow).where(StepRow.kit == kit)
    query = query.where(StepRow.undone > 0) if undone else query.where(StepRow.undone == 0)
    if control:
        query = query.where(StepRow.control == control)
    order = StepRow.undone if undone else StepRow.number
    return session.scalar(query.order_by(order.desc()).limit(1))


def _point(session: Session, step: StepRow, hash_: str) -> None:
    """Make a document the newest again."""
    if not step.control:
        _kit_row(session, step.kit).head = hash_
        return
    row = session.get(ControlRow, (step.kit, step.control))
    if row is None:
        raise Refused(NO_CONTROL)
    row.head, row.version = hash_, row.version + 1


def _free_id(wanted: str, taken: set[str]) -> str:
    stem = wanted if wanted[:1].isalpha() else f"kit-{wanted}"
    name, count = stem, 2
    while name in taken:
        name, count = f"{stem}-{count}", count + 1
    return name


def _after(order: tuple[str, ...]) -> int:
    """A number larger than any in the ids, so that new ids are new."""
    numbers = [int(control[1:]) for control in order if control[1:].isdigit()]
    return max(numbers, default=0) + 1


def _shelf_id(prefix: str, name: str, otherwise: str) -> str:
    """The id of something on the kit's shelf: the same for the same name."""
    return f"{prefix}-{slug(name, otherwise)}"[:40].rstrip("-")


def _with_followed(
    session: Session, row: KitRow, index: KitIndex, material: Material, was: Material | None, label: str
) -> list[Stored]:  # fmt: skip
    """Save a material in the kit, and every control with parts that follow it."""
    index = with_material(index, material)
    _save_index(session, row, index, label)
    around = Surroundings(index.light.direction, index.materials)
    changed = []
    for name in index.order:
        control = _stored(session, row.id, name).control
        if was is not None and linked_to(control, material.id):
            edit = FollowMaterial(material=material.id, was=was)
            changed.append(_save_control(session, row.id, name, edit.label(control), applied(edit, control, around)))
    return changed
