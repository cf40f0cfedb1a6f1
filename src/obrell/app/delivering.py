"""Deliveries: what of a kit can be delivered, and archives made in the background."""

from __future__ import annotations

import logging
import threading
import time
from collections.abc import Iterable
from contextvars import copy_context
from dataclasses import dataclass, field
from pathlib import Path
from uuid import uuid4

from obrell.app.memory import Memory
from obrell.core.deliver.bundle import bundle, give_way
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import LeftOut, plan
from obrell.core.disk.room import is_full
from obrell.core.disk.scratch import Scratch
from obrell.core.document.model import Control, KitSettings
from obrell.core.errors import NoSuchThing, ObrellError, Refused, Stopped
from obrell.store.kits import Kits, Lost, Stored

KEPT = 8
"""Finished deliveries kept for downloading; older archives are deleted."""
DISK_FULL = "The files could not be written: the disk is full. Nothing was kept; the kit is safe."
MOST_AT_ONCE = 4
log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class Ordered:
    """What an order is about: the kit's own values, the controls that can be read, and those that cannot."""

    settings: KitSettings
    controls: tuple[Stored, ...]
    lost: tuple[LeftOut, ...]

    @property
    def documents(self) -> tuple[Control, ...]:
        return tuple(stored.control for stored in self.controls)


def ordered(kits: Kits, kit: str, ids: Iterable[str] = ()) -> Ordered:
    """The kit's controls in their order, all of them or those with certain ids."""
    chosen = frozenset(ids)
    shelf = [found for found in kits.shelf(kit) if not chosen or _id_of(found) in chosen]
    lost = tuple(LeftOut(found.name, found.words) for found in shelf if isinstance(found, Lost))
    return Ordered(kits.index(kit).settings(), tuple(one for one in shelf if isinstance(one, Stored)), lost)


def _id_of(found: Stored | Lost) -> str:
    return found.id if isinstance(found, Lost) else found.control.id


@dataclass(slots=True)
class Delivery:
    """One delivery under way or finished."""

    id: str
    kit: KitSettings
    controls: tuple[Control, ...]
    order: Order
    archive: Path
    left_out: tuple[LeftOut, ...]
    total: int = 0
    """How many files it will have; 0 while they are still being planned."""
    made: int = 0
    now: str = ""
    words: str = ""
    """Why it ended without an archive; empty while it runs and when it is done."""
    done: bool = False
    stop: bool = False
    began: float = field(default_factory=time.monotonic)

    @property
    def ended(self) -> bool:
        return self.done or bool(self.words)

    @property
    def left(self) -> str:
        """Seconds still to go, in words, once that can be told."""
        if self.made < 2:
            return ""
        spent = time.monotonic() - self.began
        return f"{spent / self.made * (self.total - self.made):.0f} s left"


class Deliveries:
    """All deliveries of this process."""

    def __init__(self, memory: Memory) -> None:
        self._memory = memory
        self._all: dict[str, Delivery] = {}
        self._scratch = Scratch()
        self._lock = threading.Lock()

    @property
    def folder(self) -> Path:
        """The folder of the archives."""
        return self._scratch.path

    def start(self, about: Ordered, order: Order) -> Delivery:
        """Begin to plan and make the files, in a thread of its own."""
        name = uuid4().hex
        archive = self._scratch.file(name)
        delivery = Delivery(name, about.settings, about.documents, order, archive, about.lost)
        with self._lock:
            under_way = sum(not one.ended for one in self._all.values())
            if under_way >= MOST_AT_ONCE:
                raise Refused("Other deliveries are still being made. Wait for one of them, or stop it.")
            for old in [one for one in self._all.values() if one.ended][:-KEPT]:
                old.archive.unlink(missing_ok=True)
                del self._all[old.id]
            self._all[name] = delivery
        threading.Thread(target=copy_context().run, args=[_run, delivery, self._memory], daemon=True).start()
        return delivery

    def close(self) -> None:
        """Stop what is under way and remove every archive."""
        for one in self._all.values():
            one.stop = True
        self._scratch.close()

    def get(self, name: str) -> Delivery:
        """The delivery by its id."""
        if name not in self._all:
            raise NoSuchThing("That delivery is no longer kept here. Make it again.")
        return self._all[name]


def _run(delivery: Delivery, memory: Memory) -> None:
    def looking(name: str) -> bool:
        delivery.now = f"looking at {name}"
        return not delivery.stop

    def progress(made: int, name: str) -> bool:
        delivery.made, delivery.now = made, name
        return not delivery.stop

    give_way()
    try:
        planned = plan(delivery.kit, delivery.controls, delivery.order, looking, memory.cache)
        if not planned.files:
            raise Refused(" ".join(one.words for one in planned.left_out) or "There is nothing to deliver.")
        delivery.total, delivery.began = len(planned.files), time.monotonic()
        with delivery.archive.open("wb") as target:
            delivery.left_out += bundle(delivery.kit, planned, target, progress, memory.gate.room)
        delivery.done = True
        return
    except Stopped as error:
        delivery.words = str(error)
    except ObrellError as error:
        delivery.words = str(error)
    except OSError as error:
        delivery.words = (
            DISK_FULL if is_full(error, delivery.archive) else f"The files could not be written: {error.strerror}."
        )
    except Exception:
        log.exception("A delivery failed")
        delivery.words = "Something went wrong while making the files; it is our fault, and it is logged."
    delivery.archive.unlink(missing_ok=True)
