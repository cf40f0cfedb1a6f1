"""What can be done to the colourways of a kit."""

from __future__ import annotations

from typing import Literal, TypeVar

from obrell.core.colour.colourways import for_the_dark, greys, turned
from obrell.core.document.model import Colourway, KitSettings
from obrell.core.document.resolve import DAY, DAY_NAME, palette
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.values.slugs import free_id

MOST_COLOURWAYS = 40
Way = Literal["same", "turned", "dark", "nothing"]
"""How a new colourway is made of another one."""
K = TypeVar("K", bound=KitSettings)


def name_of(kit: KitSettings, colourway: str) -> str:
    """What a colourway is called; raises ``NoSuchThing``."""
    if colourway == DAY:
        return DAY_NAME
    return _of(kit, colourway).name


def with_colourway(kit: K, name: str, colours: dict[str, str]) -> tuple[K, str]:
    """The kit with one more colourway, at the end, and its id."""
    _check_name(kit, name)
    if len(kit.colourways) >= MOST_COLOURWAYS:
        raise Refused(f"A kit can have at most {MOST_COLOURWAYS} colourways.")
    new = free_id(name, (DAY, *(one.id for one in kit.colourways)))
    return kit.evolve(colourways=(*kit.colourways, Colourway(id=new, name=name, colours=colours))), new


def made_of(kit: KitSettings, source: str, way: Way, degrees: float = 0.0) -> dict[str, str]:
    """The colours of a new colourway: those of another one, turned in hue but for accents, made for the dark, or greys
    as light as they are."""
    colours = dict(palette(kit, source))
    roles = {swatch.id: swatch.role for swatch in kit.swatches}
    if way == "turned":
        return turned(colours, degrees, (name for name, role in roles.items() if role == "accent"))
    if way == "nothing":
        return greys(colours)
    return for_the_dark(colours, roles) if way == "dark" else colours


def renamed_colourway(kit: K, colourway: str, name: str) -> K:
    """The kit with a colourway called otherwise."""
    own = _of(kit, colourway)
    _check_name(kit, name, but=colourway)
    return kit.evolve(colourways=tuple(one.evolve(name=name) if one == own else one for one in kit.colourways))


def without_colourway(kit: K, colourway: str) -> K:
    """The kit without a colourway."""
    _of(kit, colourway)
    return kit.evolve(colourways=tuple(one for one in kit.colourways if one.id != colourway))


def _of(kit: KitSettings, colourway: str) -> Colourway:
    for one in kit.colourways:
        if one.id == colourway:
            return one
    if colourway == DAY:
        raise Refused(f"“{DAY_NAME}” is the swatches’ own colours; it can be neither renamed nor removed.")
    raise NoSuchThing(f"The kit has no colourway “{colourway}”.")


def _check_name(kit: KitSettings, name: str, but: str = "") -> None:
    taken = (DAY_NAME, *(one.name for one in kit.colourways if one.id != but))
    if name.casefold() in (one.casefold() for one in taken):
        raise Refused(f"There is a colourway “{name}” already. Give this one another name.")
