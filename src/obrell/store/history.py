"""What was done, and taking it back."""

from __future__ import annotations

from dataclasses import dataclass, replace

from sqlalchemy import ColumnElement, func, select
from sqlalchemy.orm import Session

from obrell.core.edit.kits import panel_of
from obrell.store.database import Database
from obrell.store.failures import StoreDamaged
from obrell.store.rows import NOBODY, Led, Rows, Scope, Sender, answer, answered, made_together, newest_step
from obrell.store.tables import StepRow

SHOWN_STEPS = 200
SHOWN_UNDONE = 50


@dataclass(frozen=True, slots=True)
class Step:
    """One line of the list of what was done; ``window`` is where."""

    number: int
    control: str
    label: str
    undone: bool
    window: str = ""
    led: tuple[Led, ...] = ()
    """Controls that follow its own, or were changed together with it, where it was just taken back or done again."""
    of_kit: bool = False
    """Whether the kit's own values changed with it."""


@dataclass(frozen=True, slots=True)
class Steps:
    """The list around where the document stands, newest first, and how many steps there are beyond its two ends:
    ``undone`` more that can be done again, ``older`` more that can be taken back."""

    shown: tuple[Step, ...]
    undone: int = 0
    older: int = 0
    damaged: bool = False
    """Whether the steps cannot be read."""

    @property
    def can_undo(self) -> bool:
        return any(not step.undone for step in self.shown)

    @property
    def can_redo(self) -> bool:
        return any(step.undone for step in self.shown)


class History:
    """The steps of all kits of a database."""

    def __init__(self, database: Database, rows: Rows) -> None:
        self._database = database
        self._rows = rows

    def history(self, kit: str, control: str = "", panel: str = "") -> Steps:
        """What was done to one control, to one panel, or to the kit and all its controls. If they
        are damaged, return none and say so."""
        try:
            return self._history(Scope(kit, control, panel))
        except StoreDamaged:
            return Steps((), damaged=True)

    def _history(self, of: Scope) -> Steps:
        scope = [*of.holds(), *(() if of.control or of.panel else (StepRow.batch.in_((0, StepRow.number)),))]
        done, undone = [*scope, StepRow.undone == 0], [*scope, StepRow.undone > 0]
        with self._database.reading() as session:
            newest = session.scalars(select(StepRow).where(*done).order_by(StepRow.number.desc()).limit(SHOWN_STEPS))
            last = session.scalars(select(StepRow).where(*undone).order_by(StepRow.undone.desc()).limit(SHOWN_UNDONE))
            shown = (*(_step(row) for row in reversed(last.all())), *(_step(row) for row in newest.all()))

            def more(scope: list[ColumnElement[bool]], seen: int) -> int:
                return (session.scalar(select(func.count()).select_from(StepRow).where(*scope)) or 0) - seen

            taken_back = sum(step.undone for step in shown)
            return Steps(shown, more(undone, taken_back), more(done, len(shown) - taken_back))

    def undo(self, kit: str, control: str = "", sender: Sender = NOBODY, panel: str = "") -> Step | None:
        """Take back the newest step of a control, of a panel, or of the whole kit, once however often that is sent;
        None when there is none."""
        return self._moved(Scope(kit, control, panel), sender, back=True)

    def redo(self, kit: str, control: str = "", sender: Sender = NOBODY, panel: str = "") -> Step | None:
        """Do again what was undone last; None when there is nothing."""
        return self._moved(Scope(kit, control, panel), sender, back=False)

    def _check_there(self, session: Session, of: Scope) -> None:
        """Raise ``NoSuchThing`` for a missing kit, panel or control, before anything is stored."""
        kit = self._rows.kit(session, of.kit)
        if of.panel:
            panel_of(self._rows.index(session, kit.head), of.panel)
        if of.control:
            self._rows.head(session, of.kit, of.control)

    def _moved(self, of: Scope, sender: Sender, *, back: bool) -> Step | None:
        with self._database.writing() as session:
            self._check_there(session, of)
            before = answered(session, sender)
            if before is not None:
                return Step(0, before.control, before.label, back) if before.label else None
            row = newest_step(session, of, undone=not back)
            if row is None:
                answer(session, sender, of.kit, of.control, "", ("", ""))
                return None
            last = session.scalar(select(func.max(StepRow.undone)).where(StepRow.kit == of.kit)) or 0
            together = made_together(session, row)
            led: list[Led] = []
            for one in reversed(together) if back else together:
                one.undone = last + 1 if back else 0
                led += self._rows.move(session, one, back=back)
            led += [Led(one.control) for one in together if one.control and one is not row]
            answer(session, sender, of.kit, row.control, row.label, (row.before, row.after))
            return replace(_step(row), led=tuple(led), of_kit=any(not one.control for one in together))


def steps_since(session: Session, kit: str, control: str, sender: Sender) -> tuple[Step, ...]:
    """What other windows did to a control since the version that a change was based on, oldest first."""
    if not sender.based:
        return ()
    mine = (StepRow.kit == kit, StepRow.control == control, StepRow.undone == 0)
    others = (StepRow.version > sender.based, StepRow.window != sender.window)
    rows = session.scalars(select(StepRow).where(*mine, *others).order_by(StepRow.number).limit(SHOWN_STEPS))
    return tuple(map(_step, rows))


def _step(row: StepRow) -> Step:
    return Step(row.number, row.control, row.label, row.undone > 0, row.window)
