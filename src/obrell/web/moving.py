"""How a state becomes the one that is drawn, as the Bench shows it: its timing, a plot of its easing, what travels and
what cross-fades, and five frames."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from obrell.core.document.model import REST, Control
from obrell.core.document.readings import Readings
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.document.transitions import Journey, timing_of
from obrell.core.edit.values import described, whose
from obrell.core.errors import ObrellError
from obrell.core.values.easings import BEGINNINGS, NAMED, Bezier, Steps, Stops, css_of
from obrell.core.values.transitions import Timing, Transition
from obrell.store.kits import Stored
from obrell.web.fields import FieldView, field_at
from obrell.web.pictures import Dressed
from obrell.web.scales import scale_in

FRAMES = 5
FRAME_WIDTH, FRAME_HEIGHT = 70.0, 46.0
MOST_SAID = 14
LIGHT = "light"
SAID = {LIGHT: "the light", "parts": "the order of parts"}
PLOT_WIDTH, PLOT_HEIGHT = 150.0, 80.0
"""Units of the plot for all of the time and for all of the way."""


@dataclass(frozen=True, slots=True)
class PlotView:
    """An easing as it is drawn: path data, the places that are dragged, as shares, and where those are stored."""

    kind: str
    path: str
    line: str
    places: tuple[tuple[float, float], ...]
    fields: tuple[FieldView, ...]
    width: float = PLOT_WIDTH
    height: float = PLOT_HEIGHT


@dataclass(frozen=True, slots=True)
class FrameView:
    """A moment, ms from the beginning, and the address of its picture."""

    time: float
    picture: str


@dataclass(frozen=True, slots=True)
class MovementView:
    """How one state becomes the one that is drawn, by the names of both."""

    came: str
    drawn: str
    title: str
    others: tuple[tuple[str, str], ...]
    own: bool
    duration: FieldView
    delay: FieldView
    css: str
    names: tuple[str, ...]
    kinds: dict[str, str]
    plot: PlotView
    whole: float
    travels: tuple[str, ...]
    fades: tuple[str, ...]
    frames: tuple[FrameView, ...]
    width: int
    height: int


def came_from(control: Control, drawn: str, came: str) -> str:
    """The state that a movement is looked at from: the one that was chosen, else rest, else the first that there is;
    empty where there is only one."""
    others = [name for name in control.state_ids if name != drawn]
    if came in others:
        return came
    return next(iter(others), "")


def movement_of(stored: Stored, here: Dressed, values: Readings, came: str) -> MovementView:
    """How a control comes from one state to the one that is drawn."""
    control, names = stored.control, {REST: "Rest"} | {one.id: one.name for one in stored.control.states}
    timing = timing_of(control, came, here.state)
    base = f"transitions/{timing.id}" if isinstance(timing, Transition) else "timing"
    start, end = (resolve(here.settings, control, name, here.colourway, values) for name in (came, here.state))
    way = Journey(start, end).way
    width, height = _size(control)
    return MovementView(
        came, here.state, f"{names[came]} to {names[here.state].lower()}",
        tuple((name, names[name]) for name in control.state_ids if name != here.state),
        isinstance(timing, Transition), field_at(control, f"{base}/duration"), field_at(control, f"{base}/delay"),
        css_of(timing.easing), tuple(NAMED), BEGINNINGS, plot_of(control, timing, f"{base}/easing"), timing.whole,
        _said(start, end, (*([LIGHT] if way.light else []), *(one.path for one in way.travels))),
        _said(start, end, way.fades),
        tuple(_frames(stored, here, timing, came, width)), round(width), round(height),
    )  # fmt: skip


def _size(control: Control) -> tuple[float, float]:
    scale = scale_in(control.canvas.width, control.canvas.height, FRAME_WIDTH, FRAME_HEIGHT)
    return control.canvas.width * scale, control.canvas.height * scale


def _frames(stored: Stored, here: Dressed, timing: Timing, came: str, width: float) -> Iterator[FrameView]:
    density = round(2 * width / stored.control.canvas.width, 3)
    for number in range(FRAMES):
        time = round(timing.whole * number / (FRAMES - 1), 3)
        yield FrameView(time, here.stored(stored, density, came=came, time=f"{time:g}"))


def plot_of(control: Control, timing: Timing, path: str) -> PlotView:
    """The plot of an easing that is stored at a path."""
    easing = timing.easing
    fields = tuple(field_at(control, f"{path}/{name}") for name in ("count", "jump")) if easing.kind == "steps" else ()
    return PlotView(easing.kind, path, _line(easing), _places(easing), fields)


def _places(easing: Bezier | Steps | Stops) -> tuple[tuple[float, float], ...]:
    if isinstance(easing, Bezier):
        return ((easing.x1, easing.y1), (easing.x2, easing.y2))
    return tuple((stop.time, stop.way) for stop in easing.stops) if isinstance(easing, Stops) else ()


def _line(easing: Bezier | Steps | Stops) -> str:
    """Path data of an easing, its beginning at 0, ``PLOT_HEIGHT``."""
    count = round(PLOT_WIDTH)
    shares = (number / count for number in range(count + 1))
    return "M" + "L".join(f"{share * PLOT_WIDTH:g} {(1 - easing.at(share)) * PLOT_HEIGHT:.2f}" for share in shares)


def _said(start: Resolved, end: Resolved, paths: Iterable[str]) -> tuple[str, ...]:
    """Values in words, each once; how many more there are where they are many."""
    found = list(dict.fromkeys(_words(start.control, end.control, path) for path in paths))
    more = len(found) - MOST_SAID
    return (*found[:MOST_SAID], *([f"{more} more"] if more > 0 else []))


def _words(start: Control, end: Control, path: str) -> str:
    """What a value is called, or what only one of the two has."""
    *_, above, last = ["", *path.removesuffix("/visible").split("/")]
    if path in SAID:
        return SAID[path]
    if last == "effects":
        return f"the order of effects{whose(start, path)}"
    if above in {"parts", "effects"}:
        return _thing(start, end, path)
    title, _, _ = described(start, path, None)
    return f"{title.lower()}{whose(start, path)}"


def _thing(start: Control, end: Control, path: str) -> str:
    path = path.removesuffix("/visible")
    try:
        return whose(start, f"{path}/visible").removeprefix(" of ")
    except ObrellError:
        return whose(end, f"{path}/visible").removeprefix(" of ")
