"""The colours a document uses, where they stand, and others in their place."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from functools import cache
from typing import Any, TypeVar, get_args

from obrell.core.colour.links import literal
from obrell.core.document.model import Control
from obrell.core.values.base import Value
from obrell.core.values.colours import Colour, SwatchLink, unlinked
from obrell.core.values.paints import Stop
from obrell.core.workspace import OfObject

V = TypeVar("V", bound=Value)
Change = Callable[[Colour], Colour]
Fellows = tuple[Colour, ...]
"""The colours of all stops of a gradient; empty for a colour that stands alone."""
ChangeAmong = Callable[[Colour, Fellows], Colour]


@dataclass(frozen=True, slots=True)
class Place:
    """A colour, the path of the field that it stands in, and the colours of the gradient that it is a stop of."""

    path: str
    colour: Colour
    fellows: Fellows = ()


def places(value: Value) -> Iterator[Place]:
    """Every colour of a value, by its path below the value: items with an id by that, others by number."""
    own = colour_fields(type(value))
    for name in type(value).model_fields:
        child = getattr(value, name)
        if name in own:
            yield Place(name, child)
        else:
            yield from _below(name, child)


def _below(path: str, child: Any) -> Iterator[Place]:
    if isinstance(child, Value):
        for place in places(child):
            yield Place(f"{path}/{place.path}", place.colour, place.fellows)
    elif isinstance(child, tuple):
        fellows = _fellows(child)
        for number, item in enumerate(child):
            for place in _below(f"{path}/{getattr(item, 'id', number)}", item):
                yield replace(place, fellows=fellows) if fellows else place


def _fellows(items: tuple[Any, ...]) -> Fellows:
    """The colours of stops; empty for anything else."""
    return tuple(item.colour for item in items if isinstance(item, Stop))


def drawn_places(control: Control) -> Iterator[Place]:
    """Every colour that a control is drawn with: of its parts and of its ground, not of looks kept aside."""
    for part in control.parts:
        for place in _PLACES.get(part, None, lambda part=part: tuple(_of_part(part))):  # type: ignore[misc]
            yield replace(place, path=f"parts/{part.id}/{place.path}")
    if control.ground is not None:
        yield from _below("ground", control.ground)


_PLACES = OfObject[tuple[Place, ...]](8192)


def _of_part(part: Value) -> Iterator[Place]:
    return (place for place in places(part) if not place.path.startswith("versions/"))


def colours_of(value: Value) -> list[str]:
    """The literal colours of one part or effect, the most used first."""
    return [colour for colour, _ in _literals(places(value)).most_common()]


def used_colours(controls: Iterable[Control]) -> list[str]:
    """Literal colours, the most used first, each once."""
    counts: Counter[str] = Counter()
    for control in controls:
        counts.update(_literals(drawn_places(control)))
    return [colour for colour, _ in counts.most_common()]


def _literals(found: Iterable[Place]) -> Counter[str]:
    return Counter(colour for place in found if (colour := unlinked(place.colour)) is not None)


def recoloured(value: V, colours: Mapping[str, str], palette: Mapping[str, str]) -> V:
    """The same with colours replaced wherever they look as one in ``colours``, by what stands there for it in
    lower-case hexadecimal; what followed a swatch has that colour of its own. What does not change stays the same
    object."""

    def changed(colour: Colour) -> Colour:
        seen = literal(colour, palette)
        new = colours.get(seen, seen)
        if new == seen:
            return colour
        return colour.evolve(own=new) if isinstance(colour, SwatchLink) else new

    return with_colours(value, changed) if colours else value


def with_colours(value: V, change: Change) -> V:
    """The same with every colour as ``change`` makes it; what does not change stays the same object."""
    return with_colours_among(value, lambda colour, _: change(colour))


def with_colours_among(value: V, change: ChangeAmong) -> V:
    """The same, where ``change`` is told the colours of the gradient that one is a stop of, too."""
    changed: V = _changed(value, change, ())
    return changed


@cache
def colour_fields(kind: type[Value]) -> frozenset[str]:
    """The fields of a kind of value that hold a colour, literal or following a swatch."""
    fields = kind.model_fields.items()
    return frozenset(name for name, field in fields if SwatchLink in get_args(field.annotation))


def _changed(value: Any, change: ChangeAmong, fellows: Fellows) -> Any:
    if isinstance(value, tuple):
        fellows = _fellows(value)
        items = tuple(_changed(item, change, fellows) for item in value)
        return value if all(one is other for one, other in zip(items, value, strict=True)) else items
    if not isinstance(value, Value):
        return value
    own, changes = colour_fields(type(value)), {}
    for name in type(value).model_fields:
        child = getattr(value, name)
        new = change(child, fellows) if name in own else _changed(child, change, ())
        if new is not child:
            changes[name] = new
    return value.evolve(**changes) if changes else value
