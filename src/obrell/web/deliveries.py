"""Deliver: order files, watch them being made, take the archive."""

from __future__ import annotations

import errno
import logging
import os
import shutil
import tempfile
import threading
import time
from dataclasses import dataclass, field
from pathlib import Path
from typing import Annotated, Any
from uuid import uuid4

from fastapi import APIRouter, Query, Request
from starlette.datastructures import FormData, QueryParams
from starlette.responses import FileResponse, HTMLResponse

from obrell.core.deliver.bundle import bundle
from obrell.core.deliver.names import slug
from obrell.core.deliver.order import Order, read_order
from obrell.core.deliver.plan import LeftOut, plan
from obrell.core.document.model import Control, KitSettings
from obrell.core.edit.typed import number_from
from obrell.core.errors import NoSuchThing, ObrellError, Refused, Stopped
from obrell.core.formats import FORMATS
from obrell.core.values.fields import Live
from obrell.store.kits import Lost, Stored
from obrell.web.commands import GROUNDS
from obrell.web.memory import Memory
from obrell.web.pages import page
from obrell.web.pictures import picture_address
from obrell.web.services import Form, cache_of, kits_of

router = APIRouter()
OFFERED = ("1", "1.5", "2", "3", "4")
KEPT = 8
"""Finished deliveries kept for downloading; older archives are deleted."""
EXAMPLES = 4
DISK_FULL = "The files could not be written: the disk may be full. Nothing was kept; the kit is safe."
PREFIX = "obrell-"
FULL = (errno.ENOSPC, errno.EDQUOT)
MOST_AT_ONCE = 4
log = logging.getLogger(__name__)


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
        remove_left_behind()
        self._folder = tempfile.TemporaryDirectory(prefix=f"{PREFIX}{os.getpid()}-")
        self._lock = threading.Lock()

    def start(
        self, kit: KitSettings, controls: tuple[Control, ...], order: Order, left_out: tuple[LeftOut, ...]
    ) -> Delivery:  # fmt: skip
        """Begin to plan and make the files, in a thread of its own."""
        name = uuid4().hex
        delivery = Delivery(name, kit, controls, order, Path(self._folder.name) / f"{name}.zip", left_out)
        with self._lock:
            under_way = sum(not one.ended for one in self._all.values())
            if under_way >= MOST_AT_ONCE:
                raise Refused("Other deliveries are still being made. Wait for one of them, or stop it.")
            for old in [one for one in self._all.values() if one.ended][:-KEPT]:
                old.archive.unlink(missing_ok=True)
                del self._all[old.id]
            self._all[name] = delivery
        threading.Thread(target=_run, args=[delivery, self._memory], daemon=True).start()
        return delivery

    def close(self) -> None:
        """Stop what is under way and remove every archive."""
        for one in self._all.values():
            one.stop = True
        self._folder.cleanup()

    def get(self, name: str) -> Delivery:
        """The delivery by its id."""
        if name not in self._all:
            raise NoSuchThing("That delivery is no longer kept here. Make it again.")
        return self._all[name]


def remove_left_behind() -> None:
    """Archives of processes that were killed before they could remove them."""
    for folder in Path(tempfile.gettempdir()).glob(f"{PREFIX}[0-9]*-*"):
        owner = folder.name.removeprefix(PREFIX).partition("-")[0]
        if owner.isdecimal() and not Path(f"/proc/{owner}").exists():
            shutil.rmtree(folder, ignore_errors=True)


def _run(delivery: Delivery, memory: Memory) -> None:
    def looking(name: str) -> bool:
        delivery.now = f"looking at {name}"
        return not delivery.stop

    def progress(made: int, name: str) -> bool:
        delivery.made, delivery.now = made, name
        return not delivery.stop

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
        delivery.words = DISK_FULL if error.errno in FULL else f"The files could not be written: {error.strerror}."
    except Exception:
        log.exception("A delivery failed")
        delivery.words = "Something went wrong while making the files; it is our fault, and it is logged."
    delivery.archive.unlink(missing_ok=True)


@router.get("/kits/{kit}/deliver")
def deliver(request: Request, kit: str, control: Annotated[str, Query()] = "") -> HTMLResponse:
    """The whole view; ``control`` orders only that one."""
    kits = kits_of(request)
    order = Order(controls=(control,) if control else ())
    context = {
        "view": "deliver", "kit": kits.index(kit), "kits": kits.names(), "control": None,
        "controls": kits.tiles(kit), "order": order, "offered": OFFERED,
        "chosen": [f"{d:g}" for d in order.densities], "one": control, "grounds": GROUNDS,
        "formats": FORMATS.values(),
    }  # fmt: skip
    return page(request, "deliver.html", context | _listed(request, kit, order))


@router.get("/kits/{kit}/deliver/files")
def listed(request: Request, kit: str) -> HTMLResponse:
    """Every file that the form, as it stands, will make."""
    kits = kits_of(request)
    context: dict[str, Any] = {"kit": kits.index(kit)}
    try:
        context |= _listed(request, kit, order_of(request.query_params))
    except Refused as error:
        context |= {"rows": [], "examples": [], "count": 0, "problem": str(error), "left_out": ()}
    return page(request, "_files.html", context)


@router.post("/kits/{kit}/deliveries")
def start(request: Request, kit: str, form: Form) -> HTMLResponse:
    """Begin."""
    kits = kits_of(request)
    order = order_of(form)
    settings = kits.index(kit).settings()
    controls, left_out = _readable(kits.shelf(kit), order)
    return _progress(request, _of(request).start(settings, controls, order, left_out))


@router.get("/deliveries/{name}")
def progress(request: Request, name: str) -> HTMLResponse:
    """How far it is; at its end, the whole bar anew."""
    delivery = _of(request).get(name)
    if not delivery.done and not delivery.words:
        return page(request, "_progress_now.html", {"delivery": delivery})
    ended = _progress(request, delivery)
    ended.headers["HX-Retarget"] = "#progress"
    return ended


@router.post("/deliveries/{name}/stop")
def stop(request: Request, name: str) -> HTMLResponse:
    """End it after the file in hand."""
    delivery = _of(request).get(name)
    delivery.stop = True
    return _progress(request, delivery)


@router.get("/deliveries/{name}/zip")
def archive(request: Request, name: str) -> FileResponse:
    """The archive."""
    delivery = _of(request).get(name)
    if not delivery.done:
        raise NoSuchThing("These files are not ready.")
    filename = f"{slug(delivery.kit.name, delivery.kit.id)}.zip"
    return FileResponse(delivery.archive, media_type="application/zip", filename=filename)


def _of(request: Request) -> Deliveries:
    deliveries: Deliveries = request.app.state.deliveries
    return deliveries


def _progress(request: Request, delivery: Delivery) -> HTMLResponse:
    return page(request, "_progress.html", {"delivery": delivery})


def order_of(form: FormData | QueryParams) -> Order:
    """The order a form describes; raises ``BadValue`` in words."""
    typed = [text for text in str(form.get("typed", "")).replace(";", " ").replace(",", " ").split() if text]
    densities = [number_from(str(text), Live()) for text in [*form.getlist("density"), *typed]]
    values: dict[str, Any] = {
        "controls": tuple(form.getlist("control")),
        "densities": tuple(densities),
        "formats": tuple(form.getlist("format")),
        "trimmed": form.get("cut") == "trimmed",
        "ground": form.get("ground") == "yes",
        "options": tuple(form.getlist("option")),
        "margin": number_from(str(form.get("margin") or "0"), Live("px")),
        "pattern": str(form.get("pattern", "")),
    }
    if not values["controls"]:
        raise Refused("No control is chosen: a delivery needs at least one.")
    if not values["formats"]:
        raise Refused(f"No format is chosen: at least one is needed, such as {next(iter(FORMATS.values())).label}.")
    if not densities:
        raise Refused("No density is chosen: at least one is needed, such as 1.")
    return read_order(values)


def _listed(request: Request, kit: str, order: Order) -> dict[str, Any]:
    kits = kits_of(request)
    shelf = kits.shelf(kit)
    stored = {found.control.id: found for found in shelf if isinstance(found, Stored)}
    controls, lost = _readable(shelf, order)
    if not controls:
        problem = "" if lost else "This kit has no controls to deliver yet."
        return {"rows": [], "examples": [], "count": 0, "problem": problem, "left_out": lost}
    index_hash = kits.index_hash(kit)
    planned = plan(kits.index(kit).settings(), controls, order, cache=cache_of(request))
    files = planned.files
    rows: dict[str, list[dict[str, Any]]] = {}
    for file in files:
        box = file.pixels
        where = {"left": box.left, "top": box.top, "width": box.width, "height": box.height}
        standing = 1 if file.ground else None
        address = picture_address(index_hash, stored[file.control].hash, file.job.density, standing=standing, **where)
        rows.setdefault(file.control, []).append(
            {"file": file, "picture": address, "density": f"{file.job.density:g}"}
        )
    groups = [(stored[control].control, items) for control, items in rows.items()]
    names = [file.name for file in files]
    return {
        "rows": groups, "examples": names[:EXAMPLES], "count": len(files), "problem": "",
        "left_out": (*lost, *planned.left_out),
        "ground_of": lambda control: picture_address(index_hash, stored[control.id].hash, 1, ground=1),
    }  # fmt: skip


def _readable(shelf: list[Stored | Lost], order: Order) -> tuple[tuple[Control, ...], tuple[LeftOut, ...]]:
    """The controls that are ordered, and those of them that cannot be read."""
    controls = tuple(found.control for found in shelf if isinstance(found, Stored))
    lost = (found for found in shelf if isinstance(found, Lost) and (not order.controls or found.id in order.controls))
    chosen = tuple(one for one in controls if not order.controls or one.id in order.controls)
    return chosen, tuple(LeftOut(found.name, found.words) for found in lost)
