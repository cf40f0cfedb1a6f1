"""Operating: what comes of presses, keys and turns, as tables and pure functions.

What is pressed goes from phase to phase by the rows of its behaviour's table; what it does when it was pressed is its
deed. The script in the browser carries out the same tables, and is tested against this on the same events.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import asdict, dataclass, replace
from typing import Any, Literal

from obrell.core.values.panels import Behaviour

Phase = Literal["up", "down", "off", "key", "done"]
"""Not pressed; pressed; pressed, the pointer outside; pressed by a key; pressed, and nothing more comes of it."""
Deed = Literal["click", "flip", "choose", "count", "confirm", "none"]
Rows = Mapping[str, Mapping[str, tuple[Phase, str]]]
"""By phase and event: the phase then, and what is said. “act” stands for the deed."""

TWICE_MS = 400.0
"""Two presses within this are a double press."""
PULL_PX = 200.0
"""How far up a knob is pulled from one end to the other."""
THUMB_PX = 24.0
"""Nearer to where it is, the thumb of a slider is taken; farther away it comes to the pointer."""
LEAST_ARM_PX = 3.0
"""Nearer to its centre, a knob does not turn."""

PRESSED: Rows = {
    "up": {"press": ("down", "pressed"), "key": ("key", "pressed by key")},
    "down": {"leave": ("off", "dragged off"), "release": ("up", "act"), "cancel": ("up", "given up")},
    "off": {"enter": ("down", "came back"), "release": ("up", "released outside"), "cancel": ("up", "given up")},
    "key": {"unkey": ("up", "act"), "escape": ("up", "given up"), "blur": ("up", "given up")},
}
HELD: Rows = {
    "up": {"press": ("down", "pressed"), "key": ("key", "pressed by key")},
    "down": {
        "leave": ("off", "dragged off"), "release": ("up", "released too early"), "cancel": ("up", "given up"),
        "long": ("done", "act"),
    },
    "off": {"enter": ("down", "came back"), "release": ("up", "released outside"), "cancel": ("up", "given up")},
    "key": {
        "unkey": ("up", "released too early"), "escape": ("up", "given up"), "blur": ("up", "given up"),
        "long": ("done", "act"),
    },
    "done": {
        "release": ("up", "released"), "unkey": ("up", "released"), "cancel": ("up", "released"),
        "blur": ("up", "released"),
    },
}  # fmt: skip
TURNED: Rows = {
    "up": {"press": ("down", "")},
    "down": {"release": ("up", "turned"), "cancel": ("up", "turned"), "blur": ("up", "turned")},
}
INERT: Rows = {}


@dataclass(frozen=True, slots=True)
class Table:
    """How a behaviour is operated: its rows, its deed, and whether its number is changed by hand."""

    rows: Rows
    deed: Deed = "none"
    turned: bool = False


TABLES: Mapping[Behaviour, Table] = {
    "momentary": Table(PRESSED, "click"),
    "toggle": Table(PRESSED, "flip"),
    "one of a group": Table(PRESSED, "choose"),
    "hold to confirm": Table(HELD, "confirm"),
    "knob": Table(TURNED, turned=True),
    "slider": Table(TURNED, turned=True),
    "lamp": Table(INERT),
    "meter": Table(INERT),
    "counter": Table(PRESSED, "count"),
}

SAID: Mapping[str, str] = {
    "click": "clicked",
    "twice": "pressed twice",
    "on": "on",
    "off": "off",
    "chosen": "chosen",
    "confirm": "confirmed",
    "turned": "turned to {}",
    "set": "set to {}",
    "count": "counted to {}",
}
"""What is said of a deed; {} stands for the number. All else is said as the rows have it."""


def rules() -> dict[str, Any]:
    """All that a script needs to operate pieces, as JSON."""
    tables = {name: asdict(table) for name, table in TABLES.items()}
    return {"tables": tables, "said": dict(SAID), "twice": TWICE_MS, "thumb": THUMB_PX, "arm": LEAST_ARM_PX}


@dataclass(frozen=True, slots=True)
class Scale:
    """The number of a control: both ends, and its smallest step."""

    start: float
    end: float
    step: float

    def snapped(self, share: float) -> float:
        """The number nearest to a share of the way that is whole steps from the start, or an end."""
        way = self.end - self.start
        step = math.copysign(self.step, way)
        number = self.start + _half_up(share * way / step) * step
        low, high = sorted((self.start, self.end))
        return rounded(min(high, max(low, number)))

    def share(self, number: float) -> float:
        """How far a number is from the start, where the end is 1."""
        return (number - self.start) / (self.end - self.start)


@dataclass(frozen=True, slots=True)
class Grip:
    """How a number is changed by hand, in px of the control's canvas: turned around (x, y) by ``sweep`` degrees from
    end to end, or pulled from (x, y) by (dx, dy). ``far`` says that what is pressed elsewhere comes to the pointer."""

    kind: Literal["around", "along"]
    x: float = 0.0
    y: float = 0.0
    sweep: float = 270.0
    dx: float = 0.0
    dy: float = 0.0
    far: bool = False


@dataclass(frozen=True, slots=True)
class Piece:
    """What does not change of something on a panel while it is operated."""

    behaviour: Behaviour
    scale: Scale | None = None
    grip: Grip | None = None
    group: str = ""
    hold: float = 800.0
    disabled: bool = False


@dataclass(frozen=True, slots=True)
class Now:
    """How something on a panel stands."""

    phase: Phase = "up"
    over: bool = False
    focused: bool = False
    on: bool = False
    number: float = 0.0
    share: float = 0.0
    """How far it was turned, before whole steps."""
    held: float = 0.0
    """Where it was taken hold of: an angle in degrees, or a share."""
    begun: float = 0.0
    """The number when it was taken hold of."""
    since: float = 0.0
    """When it was pressed, ms."""
    acted: float = -1e9
    """When it did something last, ms."""


@dataclass(frozen=True, slots=True)
class Event:
    """Something that happened to something on a panel, at a time in ms. The place is px of the control's canvas."""

    time: float
    kind: str
    x: float = 0.0
    y: float = 0.0
    amount: float = 0.0


@dataclass(frozen=True, slots=True)
class Came:
    """What came of an event: how it stands, and what is said of it."""

    now: Now
    said: tuple[str, ...] = ()


def step(piece: Piece, now: Now, event: Event) -> Came:
    """What comes of an event. Times go up from event to event; a "tick" only lets time pass."""
    if event.kind in SIMULATED:
        return SIMULATED[event.kind](piece, now, event)
    now = _noticed(now, event)
    if piece.disabled:
        return Came(now)
    table = TABLES[piece.behaviour]
    if table.turned and event.kind in ("move", "turn", "end"):
        return _turned(piece, now, event)
    kind = "long" if event.kind == "tick" and event.time - now.since >= piece.hold else event.kind
    row = table.rows.get(now.phase, {}).get(kind)
    if row is None:
        return Came(now)
    phase, said = row
    if phase in ("down", "key") and now.phase == "up":
        now = _taken(piece, replace(now, since=event.time, begun=now.number), event)
    now = replace(now, phase=phase)
    if said == "act":
        return _done(piece, table.deed, now, event.time)
    return Came(now) if said == "turned" and now.number == now.begun else Came(now, _sayings(said, now))


def _noticed(now: Now, event: Event) -> Now:
    """Whether the pointer is over it, and whether keys go to it."""
    if event.kind in ("enter", "leave"):
        return replace(now, over=event.kind == "enter")
    if event.kind in ("focus", "blur"):
        return replace(now, focused=event.kind == "focus")
    return now


def _done(piece: Piece, deed: Deed, now: Now, time: float) -> Came:
    """What it does when it was pressed."""
    twice = ("twice",) if time - now.acted <= TWICE_MS else ()
    now = replace(now, acted=-1e9 if twice else time)
    if deed == "flip":
        now = replace(now, on=not now.on)
        return Came(now, (SAID["on" if now.on else "off"], *map(SAID.__getitem__, twice)))
    if deed == "choose":
        return Came(replace(now, on=True), (SAID["chosen"],))
    if deed == "confirm":
        now = replace(now, on=not now.on)
        return Came(now, (SAID["confirm"],))
    if deed == "count" and piece.scale is not None:
        now = _counted(piece.scale, now)
        return Came(now, (SAID["count"].replace("{}", written(now.number)),))
    return Came(now, (SAID["click"], *map(SAID.__getitem__, twice)))


def _counted(scale: Scale, now: Now) -> Now:
    """One step on; after its end it begins anew."""
    way = scale.end - scale.start
    share = scale.share(now.number) + scale.step / abs(way)
    return _at(scale, now, 0.0 if share > 1 + 1e-9 else share)


def _at(scale: Scale, now: Now, share: float) -> Now:
    share = min(1.0, max(0.0, share))
    return replace(now, share=share, number=scale.snapped(share))


def _taken(piece: Piece, now: Now, event: Event) -> Now:
    """A knob or a slider, taken hold of."""
    grip, scale = piece.grip, piece.scale
    if grip is None or scale is None:
        return now
    if grip.kind == "around":
        return replace(now, held=_angle(grip, event))
    there = _along(grip, event)
    if grip.far and abs(there - now.share) * math.hypot(grip.dx, grip.dy) > THUMB_PX:
        return replace(_at(scale, now, there), held=0.0)
    return replace(now, held=there - now.share)


def _turned(piece: Piece, now: Now, event: Event) -> Came:
    """A number changed by the hand, by keys or by the wheel."""
    scale, before = piece.scale, now.number
    if scale is None:
        return Came(now)
    if event.kind == "move":
        return Came(_pulled(piece, scale, now, event))
    if event.kind == "turn":
        share = scale.share(now.number) + event.amount * scale.step / abs(scale.end - scale.start)
        now = _at(scale, now, share)
    else:
        now = _at(scale, now, event.amount)
    return Came(now, _sayings("turned", now) if now.number != before else ())


def _pulled(piece: Piece, scale: Scale, now: Now, event: Event) -> Now:
    grip = piece.grip
    if grip is None or now.phase != "down":
        return now
    if grip.kind == "along":
        return _at(scale, now, _along(grip, event) - now.held)
    if math.hypot(event.x - grip.x, event.y - grip.y) < LEAST_ARM_PX:
        return now
    angle = _angle(grip, event)
    by = (angle - now.held + 540.0) % 360.0 - 180.0
    return replace(_at(scale, now, now.share + by / grip.sweep), held=angle)


def _angle(grip: Grip, event: Event) -> float:
    """Degrees clockwise from straight up."""
    return math.degrees(math.atan2(event.x - grip.x, grip.y - event.y))


def _along(grip: Grip, event: Event) -> float:
    """How far along its way the pointer is, as a share."""
    far = (event.x - grip.x) * grip.dx + (event.y - grip.y) * grip.dy
    return far / (grip.dx * grip.dx + grip.dy * grip.dy)


def _set(piece: Piece, now: Now, event: Event) -> Came:
    """A source moves it, by whole steps; what the hand holds stays in it."""
    scale = piece.scale
    if scale is None or now.phase != "up":
        return Came(now)
    number = scale.snapped(scale.share(event.amount))
    return Came(now if number == now.number else replace(now, number=number, share=scale.share(number)))


def _lit(_: Piece, now: Now, event: Event) -> Came:
    """A source lights it, or another of its group was chosen."""
    on = event.amount > 0
    return Came(now) if on == now.on else Came(replace(now, on=on), (SAID["on" if on else "off"],))


SIMULATED = {"set": _set, "light": _lit}
"""What sources do, to disabled ones as well."""


def _sayings(said: str, now: Now) -> tuple[str, ...]:
    if not said:
        return ()
    return (SAID.get(said, said).replace("{}", written(now.number)),)


def _half_up(number: float) -> float:
    return math.floor(number + 0.5)


def rounded(number: float) -> float:
    """To six decimals, half up."""
    return _half_up(number * 1e6) / 1e6


def written(number: float) -> str:
    """A number as it is said: at most three decimals."""
    return f"{_half_up(number * 1e3) / 1e3 + 0.0:.3f}".rstrip("0").rstrip(".")


def shown_as(piece: Piece, now: Now) -> str:
    """Which look it has, as a key of ``looks``: on or not, pressed, hovered over or neither, focused or not."""
    if piece.disabled:
        return f"{'on' if now.on else ''}/disabled/"
    pressed = now.phase in ("down", "key", "done")
    touched = "pressed" if pressed else "hover" if now.over and now.phase != "off" else ""
    return f"{'on' if now.on else ''}/{touched}/{'focus' if now.focused else ''}"


def operate(
    pieces: Mapping[str, Piece], standing: Mapping[str, Now], ident: str, event: Event
) -> tuple[dict[str, Now], tuple[tuple[str, str], ...]]:  # fmt: skip
    """What comes of something that happened to one of the pieces of a panel: how all of them stand, and what is said
    of which. Of a group, one is on."""
    came = step(pieces[ident], standing[ident], event)
    after, said = {**standing, ident: came.now}, [(ident, words) for words in came.said]
    piece = pieces[ident]
    if piece.behaviour == "one of a group" and came.now.on and not standing[ident].on:
        for other, one in pieces.items():
            if other != ident and one.behaviour == piece.behaviour and one.group == piece.group:
                put_out = _lit(one, after[other], Event(event.time, "light"))
                after[other] = put_out.now
                said += [(other, words) for words in put_out.said]
    return after, tuple(said)
