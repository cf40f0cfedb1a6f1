"""A control as it stands on a panel: at a size, with words of its own; and how it is operated there."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import product

from obrell.core.document.editions import at_density
from obrell.core.document.model import REGULAR, REST, Control
from obrell.core.document.moving import place_of
from obrell.core.document.readings import Readings, known_values, seen
from obrell.core.document.touching import touch_box
from obrell.core.edit.wording import with_words
from obrell.core.geometry.plane import Point
from obrell.core.trial.operating import TABLES, Grip, Now, Piece, Scale
from obrell.core.values.panels import Behaviour, Placement
from obrell.core.values.readings import Drive, Reading
from obrell.core.values.roles import ROLES

TOUCHED = ("", "hover", "pressed")
FULL_TURN = 270.0
"""Degrees from end to end of a knob none of whose parts is turned by its reading."""


def instance(control: Control, placement: Placement, density: float) -> Control:
    """The control as it stands there, on a screen of a density. A size that it has no more is the regular one."""
    size = placement.size if placement.size in control.size_ids else None
    return with_words(at_density(control, density, size or REGULAR), placement.words)


def behaviour_of(control: Control, placement: Placement) -> Behaviour:
    """What it was said to do, else what its states and its first reading suggest."""
    return placement.acts or _suggested(control)


def _suggested(control: Control) -> Behaviour:
    drives = control.readings[0].drives if control.readings else ()
    presses = control.state_in_role("pressed") is not None
    if any(one.path.endswith("/rotation") for one in drives):
        return "knob"
    if any(_slides(one) for one in drives):
        return "slider"
    if control.readings:
        return "counter" if presses else "meter"
    if _on_state(control) is None:
        return "momentary"
    return "hold to confirm" if control.state_in_role("on") is None else "toggle"


def _slides(drive: Drive) -> bool:
    return drive.along is not None or (drive.path.rpartition("/")[2] in ("x", "y") and drive.path.count("/") == 2)


def _on_state(control: Control) -> str | None:
    """Return the state that is shown while it is on: the one with that role, else the first without a role."""
    return control.state_in_role("on") or control.state_in_role("own")


def looks_of(control: Control) -> dict[str, str]:
    """Which state it is seen in, by its id or by several with + between, for whatever it does: on or not, hovered
    over, pressed or neither, focused or not, and disabled."""
    states = {role: control.state_in_role(role) for role in ROLES} | {"": None, "on": _on_state(control)}
    looks = {
        f"{lit}/{touched}/{focus}": _together(control, (states[lit], states[touched], states[focus]))
        for lit, touched, focus in product(("", "on"), TOUCHED, ("", "focus"))
    }
    return looks | {f"{lit}/disabled/": _together(control, (states[lit], states["disabled"])) for lit in ("", "on")}


def _together(control: Control, wanted: Iterable[str | None]) -> str:
    """Those of some states that it has, one laid over the other; one that is made of others stands for them."""
    there = [name for name in wanted if name and name in control.state_ids]
    plain = [one.id for one in control.states if not one.of]
    kept = next((one.id for one in control.states if one.of and set(one.of) == set(there)), None)
    return kept or "+".join(name for name in there if name in plain) or REST


def reading_at(control: Control, placement: Placement) -> tuple[Reading | None, float]:
    """The first reading of a control, and the number that it begins at there."""
    if not control.readings:
        return None, 0.0
    first = control.readings[0]
    return first, known_values(control, placement.numbers).get(first.id, first.value)


def numbers_of(control: Control, placement: Placement) -> Readings:
    """What the readings of a control are at there, where that is not what they begin with."""
    return tuple(known_values(control, placement.numbers).items())


def piece_of(control: Control, placement: Placement) -> Piece:
    """How the control, as it stands there, is operated."""
    behaviour, (reading, _) = behaviour_of(control, placement), reading_at(control, placement)
    scale = None if reading is None else Scale(reading.start, reading.end, reading.step)
    grip = grip_of(control, placement, reading) if reading is not None and TABLES[behaviour].turned else None
    return Piece(behaviour, scale, grip, placement.group, placement.hold, placement.disabled)


def standing_of(control: Control, placement: Placement) -> Now:
    """How it stands there before anything is done."""
    reading, number = reading_at(control, placement)
    share = 0.0 if reading is None else reading.share(number)
    return Now(on=placement.on, number=number, share=share)


def grip_of(control: Control, placement: Placement, reading: Reading) -> Grip:
    """How its reading is turned by hand."""
    if behaviour_of(control, placement) == "slider":
        return _line(control, reading)
    if placement.grasp == "by up and down":
        return Grip("along", dy=-200.0)
    turned = next((one for one in reading.drives if one.path.endswith("/rotation")), None)
    if turned is None:
        middle = _middle(control)
        return Grip("around", middle.x, middle.y, FULL_TURN)
    part = next(one for one in control.parts if one.id == turned.path.split("/")[1])
    sweep = _number(turned.end) - _number(turned.start)
    return Grip("around", part.x, part.y, sweep / (turned.high - turned.low) or FULL_TURN)


def _number(value: object) -> float:
    return float(value) if isinstance(value, int | float) else 0.0


def _line(control: Control, reading: Reading) -> Grip:
    """From where its thumb is at one end of its reading to where it is at the other; across all of it where nothing
    is moved by that."""
    moved = next((one for one in reading.drives if _slides(one)), None)
    if moved is not None:
        name = moved.path.split("/")[1]
        start, end = (_place(control, reading, name, number) for number in (reading.start, reading.end))
        if start != end:
            return Grip("along", start.x, start.y, dx=end.x - start.x, dy=end.y - start.y, far=True)
    box = touch_box(control)
    return Grip("along", box.left, dx=box.width, far=True)


def _place(control: Control, reading: Reading, part: str, number: float) -> Point:
    look = seen(control, REST, ((reading.id, number),), {})
    found = next(one for one in look.parts if one.id == part)
    return Point(*place_of(found).apply(0.0, 0.0))


def _middle(control: Control) -> Point:
    box = touch_box(control)
    return Point((box.left + box.right) / 2, (box.top + box.bottom) / 2)
