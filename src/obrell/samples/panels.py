"""Panels of the sample kit: the keeper's touch panel, and one of each that every kit can begin with."""

from __future__ import annotations

from typing import Any

from obrell.core.trial.starts import begun
from obrell.core.values.panels import Fixture, Panel, Placement
from obrell.core.values.sources import Chance, Source, Steps, Switches, Turns, Wave

PLACES: tuple[tuple[str, float, float, dict[str, Any]], ...] = (
    ("c1", 53, 74, {}),
    ("c13", 336, 74, {}),
    ("c12", 36, 180, {}),
    ("c11", 232, 180, {}),
    ("c2", 452, 168, {"acts": "lamp"}),
    ("c4", 30, 288, {}),
    ("c6", 192, 284, {"acts": "counter"}),
    ("c3", 198, 372, {}),
    ("c5", 350, 352, {}),
    ("c9", 452, 298, {"hold": 900}),
    ("c10", 46, 456, {}),
    ("c8", 218, 470, {"on": True}),
    ("c7", 500, 478, {"size": "large"}),
)
"""Controls, where their canvases lie, and what is said of each there."""


def touch_panel() -> Panel:
    """What the keeper has before him, with a lamp that warns when the upper pound is high."""
    fixtures = (
        Fixture(id="f1", kind="title", x=24, y=16, height=26, words="Wendmere Lock"),
        Fixture(id="f2", x=430, y=18, height=22, words="lower gate, west side", colour="#5c666b"),
        Fixture(id="f3", kind="rule", x=24, y=50, width=552, height=2),
    )
    placements = tuple(
        Placement(id=f"i{number}", control=control, x=x, y=y, **more)
        for number, (control, x, y, more) in enumerate(PLACES, start=1)
    )
    lamp, level, queue = (next(one.id for one in placements if one.control == name) for name in ("c2", "c4", "c6"))
    sources = (
        Source(
            id="upper-pound", name="upper pound", unit="m", course=Wave(low=2.0, high=2.8, period=14),
            moves=(Switches(placement=lamp, when="above", than=2.4),),
        ),
        Source(
            id="chamber", name="chamber", unit="%", course=Chance(low=20, high=90, every=4, seed=3),
            moves=(Turns(placement=level, reading="level"),),
        ),
        Source(
            id="boats-waiting", name="boats waiting", course=Steps(values=(3, 4, 4, 5, 2, 1, 0, 2), every=5),
            moves=(Turns(placement=queue, reading="boats"),),
        ),
    )  # fmt: skip
    return Panel(
        id="touch-panel", name="Touch panel", width=600, height=600, density=1, across=180, fixtures=fixtures,
        placements=placements, sources=sources, next_number=len(placements) + 1,
    )  # fmt: skip


def panels() -> tuple[Panel, ...]:
    """All of them."""
    phone, overlay = begun("phone", "phone-sheet", "Phone sheet"), begun("overlay", "overlay", "Overlay")
    on_phone = (
        Placement(id="i1", control="c1", x=76, y=150), Placement(id="i2", control="c13", x=76, y=240),
        Placement(id="i3", control="c8", x=110, y=350),
    )  # fmt: skip
    above = (
        Placement(id="i1", control="c1", x=20, y=20), Placement(id="i2", control="c7", x=720, y=20),
        Placement(id="i3", control="c5", x=690, y=350), Placement(id="i4", control="c3", x=20, y=390),
    )  # fmt: skip
    return (
        touch_panel(),
        begun("form", "form-page", "Form page"),
        phone.evolve(placements=on_phone, next_number=4),
        overlay.evolve(placements=above, next_number=5),
        begun("empty", "empty-screen", "Empty screen"),
    )
