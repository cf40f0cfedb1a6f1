"""Where swatches are followed: how many parts do, and which of their colours."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from obrell.core.document.colours import drawn_places, places
from obrell.core.document.editions import all_editions, every_look
from obrell.core.document.model import REST, Control
from obrell.core.document.states import all_states, state_of
from obrell.core.document.value_paths import field_of
from obrell.core.values.base import Value
from obrell.core.values.colours import follows
from obrell.core.workspace import OfObject


def uses(control: Control) -> dict[str, int]:
    """How many parts follow each swatch, in whatever state and edition, by its id; the ground counts as one."""
    return _USES.get(control, None, lambda: _uses(control))


_USES = OfObject[dict[str, int]](2000)
"""Every address of a picture, and every picture, asks for them."""


def _uses(control: Control) -> dict[str, int]:
    found = {
        (place.path.split("/")[1] if place.path.startswith("parts/") else "", link.swatch)
        for look in every_look(control)
        for place in drawn_places(look)
        if (link := follows(place.colour)) is not None
    }
    return dict(Counter(swatch for _, swatch in sorted(found)))


_FOLLOWED = OfObject[tuple[str, ...]](8192)


def swatches_of(value: Value) -> tuple[str, ...]:
    """The swatches that colours of one part or effect follow, by their ids, each once."""
    return _FOLLOWED.get(value, None, lambda: _swatches_of(value))


def _swatches_of(value: Value) -> tuple[str, ...]:
    links = (follows(place.colour) for place in places(value))
    return tuple(dict.fromkeys(link.swatch for link in links if link is not None))


@dataclass(frozen=True, slots=True)
class Use:
    """A part whose colours follow a swatch, by its id and name, and which of its colours do; no id for the ground."""

    part: str
    name: str
    colours: tuple[str, ...]


def uses_of(control: Control, swatch: str) -> Iterator[Use]:
    """The parts of a control that follow a swatch at rest, in a state or an edition, the front-most first, its
    ground last."""
    titles: dict[str, list[str]] = {}
    names: dict[str, str] = {}
    for edition in all_editions(control):
        for state, look in all_states(edition).items():
            names = {part.id: part.name for part in look.parts} | names
            for place in drawn_places(look):
                link = follows(place.colour)
                if link is not None and link.swatch == swatch:
                    part = place.path.split("/")[1] if place.path.startswith("parts/") else ""
                    _told(titles.setdefault(part, []), _title(look, place.path), control, state)
    for part, found in reversed(titles.items()):
        if part:
            yield Use(part, names[part], tuple(found))
    if "" in titles:
        yield Use("", "its ground", tuple(titles[""]))


def _told(titles: list[str], title: str, control: Control, state: str) -> None:
    """A colour's title among others; one that follows in a state only says so."""
    if title not in titles:
        titles.append(title if state == REST else f"{title} ({state_of(control, state).name})")


def _title(control: Control, path: str) -> str:
    """What a colour is a colour of: ``bevel highlight``, ``paint``."""
    steps = path.split("/")
    owner, name = field_of(control, path)
    title = "" if name == "colour" else f" {type(owner).model_fields[name].title or name}"
    if steps[0] == "parts" and steps[2] == "effects":
        effect, _ = field_of(control, "/".join((*steps[:4], "visible")))
        return f"{getattr(effect, 'label', '').lower()}{title}"
    return f"{steps[0] if steps[0] == 'ground' else 'shape'}{title}"
