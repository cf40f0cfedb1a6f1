"""The sizes of a control and its arts for densities as the Bench shows them, and what differs in those that are
drawn."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from obrell.core.document.editions import REGULAR_NAME, editions_of, in_editions, known_editions
from obrell.core.document.model import REGULAR, REST, Control, Edition, KitSettings, SizeEdition
from obrell.core.edit.editions import USUAL_DENSITIES, USUAL_SIZES
from obrell.core.geometry.svgdata import number
from obrell.web.states import DifferenceView, said_of


@dataclass(frozen=True, slots=True)
class EditionView:
    """One size or art: its id and name, how much differs, and what is drawn once it is pressed."""

    id: str
    name: str
    count: int
    drawn: bool
    draws: str


@dataclass(frozen=True, slots=True)
class BeginningView:
    """What can be begun: the edit, what it is called, what it does."""

    edit: dict[str, Any]
    name: str
    does: str


@dataclass(frozen=True, slots=True)
class EditionsView:
    """All sizes, the regular one first, and all arts, that of all densities first. ``uppermost`` is what is done in at
    rest, with what differs in it; that is told while rest is drawn."""

    query: str
    below: str
    """What is drawn without the uppermost."""
    sizes: tuple[EditionView, ...]
    arts: tuple[EditionView, ...]
    names: tuple[str, ...]
    uppermost: str
    is_size: bool
    place: int
    title: str
    base: str
    differences: tuple[DifferenceView, ...]
    count: int
    paths: frozenset[str]
    beginnings: tuple[BeginningView, ...]
    densities: tuple[BeginningView, ...]


def editions_view(control: Control, text: str, state: str, settings: KitSettings, way: str) -> EditionsView:
    """The editions of a control, of which those named in a text are drawn, in a state."""
    names = known_editions(control, text)
    laid = editions_of(control, names)
    size = next((one.id for one in laid if isinstance(one, SizeEdition)), "")
    art = next((one.id for one in laid if not isinstance(one, SizeEdition)), "")
    top = laid[-1] if laid else None
    told = top if state == REST else None
    under = in_editions(control, tuple(one.id for one in laid[:-1]))
    return EditionsView(
        ",".join(names), ",".join(one.id for one in laid[:-1]),
        _row(control.sizes, size, (REGULAR, REGULAR_NAME), f",{art}"),
        _row(control.arts, art, ("", "all densities"), f"{size},"),
        tuple(_titled(one) for one in laid), "" if top is None else top.id, isinstance(top, SizeEdition),
        [one.id for one in control.sizes].index(size) if isinstance(top, SizeEdition) else 0,
        "" if top is None else _titled(top), _base(laid),
        () if told is None else said_of(told, under, in_editions(control, names), settings, way),
        0 if told is None else len(told.differences),
        frozenset() if told is None else frozenset(one.path for one in told.differences),
        tuple(_beginnings(control)), tuple(_arts(control)),
    )  # fmt: skip


def _row(
    editions: tuple[SizeEdition, ...] | tuple[Edition, ...], drawn: str, plain: tuple[str, str], with_: str
) -> tuple[EditionView, ...]:  # fmt: skip
    """The editions of a kind behind what is none of them; nothing where there are none."""
    if not editions:
        return ()

    def address(name: str) -> str:
        before, _, after = with_.partition(",")
        return ",".join(filter(None, (before, name, after)))

    ident, name = plain
    none = EditionView(ident, name, 0, not drawn, address(""))
    return (none, *(EditionView(e.id, e.name, len(e.differences), e.id == drawn, address(e.id)) for e in editions))


def _titled(one: Edition) -> str:
    return one.name if isinstance(one, SizeEdition) else f"{one.name} art"


def _base(laid: tuple[Edition, ...]) -> str:
    """What the uppermost edition is laid over, in words."""
    if laid and isinstance(laid[-1], SizeEdition):
        return "the regular one"
    return f"{laid[0].name} at all other densities" if len(laid) > 1 else "all other densities"


def _beginnings(control: Control) -> list[BeginningView]:
    taken = {one.name for one in control.sizes}
    return [
        BeginningView({"kind": "add-size", "name": name, **values}, name, does)
        for name, does, values in USUAL_SIZES
        if name not in taken
    ]


def _arts(control: Control) -> list[BeginningView]:
    taken = {one.density for one in control.arts}
    return [
        BeginningView({"kind": "add-art", "density": one}, f"{number(one)}×", f"art of its own at {number(one)}×")
        for one in USUAL_DENSITIES
        if one not in taken
    ]
