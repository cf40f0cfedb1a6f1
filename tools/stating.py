"""``make bench``: what states cost: drawing in another one, and an edit in rest that goes on into five of them."""

from __future__ import annotations

import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from obrell.app import editing
from obrell.app.pictures import Wanted, png_of
from obrell.app.previewing import FrameRequest, LastFrame, preview
from obrell.core.document.model import Kit
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.starts import STARTS
from obrell.core.render.cache import PixelCache
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits
from obrell.web.selection import Selection
from obrell.web.view import view_of
from tools.heavy import heavy

Row = tuple[str, str, str]
ROUNDS = 9


def stated() -> list[Row]:
    """On a control with 25 effects and six states."""
    sample = wendmere_lock()
    control = heavy().evolve(id="c1", next_number=1000)
    for start in STARTS:
        if start != "sunk":
            made = {"kind": "start-state", "start": start}
            control = applied(read_edit(made), control, Surroundings.of(sample))
    with tempfile.TemporaryDirectory() as folder:
        kits = Kits(Path(folder) / "kits.db")
        kit = kits.import_kit(Kit(**{**sample.model_dump(exclude={"controls"}), "controls": (control,)}))
        rows = [*_switched(kits, kit), *_flowed(kits, kit)]
        kits.close()
    return rows


def _switched(kits: Kits, kit: str) -> list[Row]:
    """Rest and pressed in turns: the frame of the stage, and all that the page shows of the control."""
    last, states = LastFrame(), ["pressed", "rest"] * ROUNDS
    stored = kits.control(kit, "c1")

    def frame(state: str) -> None:
        wanted = {"seq": 1, "density": 2, "left": 0, "top": 0, "width": 640, "height": 240, "state": state}
        preview(kits, kit, "c1", FrameRequest.model_validate(wanted), last)

    def page(state: str) -> None:
        view_of(kits, kit, stored, Selection(state=state))

    return [
        ("another state drawn, its frame, 25 effects", "≤ 50 ms", f"{_median(frame, states):.0f} ms"),
        ("… and the blocks of the page", "", f"{_median(page, states):.0f} ms"),
    ]


def _flowed(kits: Kits, kit: str) -> list[Row]:
    """A value of rest set, and the pictures of all states made anew in the column."""
    cache, spent, drawn = PixelCache(), [], []
    for step in range(ROUNDS):
        edit = {"kind": "set", "changes": [{"path": "parts/p1/opacity", "value": 0.5 + step / 40}]}
        start = time.perf_counter()
        changed = editing.edit(kits, kit, "c1", read_edit(edit)).now.control
        spent.append(time.perf_counter() - start)
        start = time.perf_counter()
        for state in ("rest", *(one.id for one in changed.states)):
            png_of(kits.index(kit), changed, 0.675, Wanted(state=state), cache)
        drawn.append(time.perf_counter() - start)
    return [
        ("an edit in rest with five states, saved", "", f"{statistics.median(spent) * 1000:.0f} ms"),
        ("… the pictures of all six in the column", "", f"{statistics.median(drawn) * 1000:.0f} ms"),
    ]


def _median(work: Callable[[str], None], states: list[str]) -> float:
    times = []
    for state in states:
        start = time.perf_counter()
        work(state)
        times.append(time.perf_counter() - start)
    return statistics.median(times[2:]) * 1000
