"""Value paths: the written-down name of every value of a control.

``canvas/width``, ``light/direction``, ``parts/p3/x``, ``parts/p3/shape/radius``,
``parts/p3/effects/e7/offset/distance``, ``parts/p3/effects/e7/fill/stops/0/colour``. Parts and
effects are named by id, stops by their number along the ramp. ``parts/p3/effects/bevel:1/width`` is the second
bevel's, whatever its id.
"""

from __future__ import annotations

import math
from typing import Any

from pydantic import BaseModel

from obrell.core.colour.refills import refilled
from obrell.core.effects.kinds.mask import COVER_KINDS, GradientCover, PartCover, cover_of_kind
from obrell.core.effects.offsets import OFFSET_KINDS, Cast, Shift, converted
from obrell.core.errors import GONE, BadValue, NoSuchThing
from obrell.core.values.base import Value
from obrell.core.values.fields import Live, live_of
from obrell.core.values.paints import FILL_KINDS, AnyFill
from obrell.core.workspace import OfObject

OF_CONTROL = ("name", "light", "ground", "stands", "touch")
OF_PART = ("name", "x", "y", "rotation", "mirrored", "opacity", "blend", "fit", "visible", "locked", "clip")
HOLDERS = {"canvas": 2, "light": 2, "ground": 2, "reference": 2, "guides": 3, "follows": 3, "readings": 3,
           "timing": 2, "touch": 2, "transitions": 3}  # fmt: skip
"""What values lie in, and how many steps at least lead to one."""
PART_HOLDERS = {"shape": 4, "effects": 5, "follows": 5}


def is_value(path: str) -> bool:
    """Whether a path names a value to set, and not a whole part or effect, their order, or what the document keeps
    for itself."""
    steps = path.split("/")
    if steps[0] == "readings" and steps[-1] in {"drives", "path"}:
        return False
    if steps[0] != "parts":
        return path in OF_CONTROL or len(steps) >= HOLDERS.get(steps[0], len(path) + 1)
    if len(steps) == 3:
        return steps[2] in OF_PART
    if steps[2:3] == ["versions"]:
        return len(steps) == len(("parts", "p", "versions", "0", "name")) and steps[4] == "name"
    return len(steps) > 3 and len(steps) >= PART_HOLDERS.get(steps[2], len(path) + 1)


def value_at(root: BaseModel, path: str) -> Any:
    """What stands at ``path``; raises ``NoSuchThing``."""
    here: Any = root
    for step in path.split("/"):
        here = _step(here, step)
    return here


def with_value(root: Value, path: str, value: Any, light: float = 0.0) -> Any:
    """``root`` with another value at ``path``, everything on the way validated again.

    Writing a fill's or an offset's ``kind`` converts it; ``light`` is the key light's direction,
    which a shadow that follows it needs for that. Raises ``NoSuchThing`` and ``BadValue``.
    """
    return _changed(root, path.split("/"), value, light)


def field_of(root: BaseModel, path: str) -> tuple[Any, str]:
    """The model that owns the value at ``path``, and the field's name; raises ``NoSuchThing``."""
    *way, name = path.split("/")
    owner = value_at(root, "/".join(way)) if way else root
    if not isinstance(owner, BaseModel) or name not in type(owner).model_fields:
        raise NoSuchThing(GONE)
    return owner, name


def live_at(root: BaseModel, path: str) -> Live | None:
    """Unit, step and range of the number at ``path``; None when it is not a number to edit."""
    owner, name = field_of(root, path)
    return live_of(type(owner).model_fields[name].metadata)


def with_number(root: Value, path: str, value: Any) -> Any:
    """Return ``root`` with an interpolated value at ``path``; an integer is rounded, halves up (CSS Values 4, section
    3.1: integers)."""
    owner, name = field_of(root, path)
    whole = type(owner).model_fields[name].annotation is int and isinstance(value, float)
    return with_value(root, path, math.floor(value + 0.5) if whole else value)


def _step(here: Any, step: str) -> Any:
    if isinstance(here, BaseModel) and step in type(here).model_fields:
        return getattr(here, step)
    if isinstance(here, tuple):
        return here[_index(here, step)]
    raise NoSuchThing(GONE)


FEW = 12
_PLACES = OfObject[dict[str, int]](64)


def place_of_id(items: tuple[Any, ...], name: str) -> int | None:
    """Where an item of that id stands; None when there is none."""
    if len(items) <= FEW:
        return next((place for place, item in enumerate(items) if getattr(item, "id", None) == name), None)
    return _PLACES.get(items, None, lambda: {getattr(item, "id", ""): n for n, item in enumerate(items)}).get(name)


def _index(items: tuple[Any, ...], step: str) -> int:
    place = place_of_id(items, step)
    if place is not None:
        return place
    kind, _, number = step.partition(":")
    if number.isdigit():
        of_kind = [index for index, item in enumerate(items) if getattr(item, "kind", None) == kind]
        if int(number) < len(of_kind):
            return of_kind[int(number)]
    if step.isdigit() and int(step) < len(items) and not hasattr(items[0], "id"):
        return int(step)
    raise NoSuchThing(GONE)


def _changed(here: Any, way: list[str], value: Any, light: float) -> Any:
    step, rest = way[0], way[1:]
    if isinstance(here, tuple):
        index = _index(here, step)
        item = _changed(here[index], rest, value, light) if rest else value
        return (*here[:index], item, *here[index + 1 :])
    if not isinstance(here, Value) or step not in type(here).model_fields:
        raise NoSuchThing(GONE)
    if not rest:
        return _with_field(here, step, value, light)
    child = getattr(here, step)
    if child is None:
        raise NoSuchThing(GONE)
    return here.evolve(**{step: _changed(child, rest, value, light)})


def _with_field(owner: Value, name: str, value: Any, light: float) -> Value:
    """One field changed; a ``kind`` converts the whole value, an ``id`` never changes."""
    if name == "id":
        raise BadValue("An id cannot be changed.")
    if name != "kind":
        return owner.evolve(**{name: value})
    if isinstance(owner, AnyFill) and value in FILL_KINDS:
        return refilled(owner, value)
    if isinstance(owner, Cast | Shift) and value in OFFSET_KINDS:
        return converted(owner, value, light)
    if isinstance(owner, GradientCover | PartCover) and value in COVER_KINDS:
        return owner if owner.kind == value else cover_of_kind(value)
    raise BadValue(f"“{value}” is not a kind that this can become.")
