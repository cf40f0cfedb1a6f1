"""``make bench``: what states cost: drawing in another one, an edit in rest that goes on into five of them, and the
frames of a transition and of a reading."""

from __future__ import annotations

import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from obrell.app import editing
from obrell.app.pictures import Wanted, png_of
from obrell.app.previewing import FrameRequest, LastFrame, preview
from obrell.core.deliver.bundle import make
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import plan
from obrell.core.document.model import Control, Kit
from obrell.core.document.resolve import resolve
from obrell.core.document.transitions import Journey
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.starts import STARTS
from obrell.core.render.between import draw_between
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits
from obrell.web.selection import Selection
from obrell.web.view import view_of
from tools.heavy import heavy

Row = tuple[str, str, str]
ROUNDS = 9
FRAMES, KNOB_FRAMES = 14, 64


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
    return [*rows, *_moving(sample, control), *_turning(sample)]


def _moving(kit: Kit, control: Control) -> list[Row]:
    """A transition of 220 ms as 14 frames, drawn from nothing: all that pressing changes, and one value alone."""
    added = applied(read_edit({"kind": "add-state", "name": "Aside"}), control, Surroundings.of(kit))
    front = control.parts[-1]
    changes = [{"path": f"parts/{front.id}/x", "value": front.x + 8}]
    edit = {"kind": "in-states", "states": ["aside"], "edit": {"kind": "set", "changes": changes}}
    aside = applied(read_edit(edit), added, Surroundings.of(kit))

    def frames(state: str) -> None:
        journey, cache = Journey(resolve(kit, aside), resolve(kit, aside, state)), PixelCache()
        frame = Frame(2.0, canvas_box(journey.start, 2.0))
        for number in range(FRAMES):
            draw_between(journey.at(number / (FRAMES - 1)), frame, cache)

    return [
        (
            f"{FRAMES} frames of a transition, 25 effects",
            "≤ 400 ms",
            f"{_median(frames, ['pressed'] * ROUNDS):.0f} ms",
        ),
        ("… where one value moves", "≤ 150 ms", f"{_median(frames, ['aside'] * ROUNDS):.0f} ms"),
    ]


def _turning(kit: Kit) -> list[Row]:
    """All that a delivery does for 64 pictures of the knob."""
    order = Order(controls=("c4",), densities=(2.0,), formats=("png",), frames=KNOB_FRAMES)

    def deliver(_: str) -> None:
        for file in plan(kit, kit.controls, order).files:
            make(file)

    return [(f"{KNOB_FRAMES} frames of a knob, as files", "≤ 3 s", f"{_median(deliver, ['rest'] * 5) / 1000:.2f} s")]


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
