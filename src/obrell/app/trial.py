"""Trial: panels of a kit, opened, changed, and seen under conditions."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated, Any

from pydantic import Field

from obrell.core.aside import SECONDS, patience
from obrell.core.document.editions import all_editions
from obrell.core.document.model import Control
from obrell.core.document.readings import known_values
from obrell.core.document.resolve import DAY
from obrell.core.document.touching import touch_outline
from obrell.core.edit.kits import KitIndex, panel_of, with_new_panel, with_panel, without_panel
from obrell.core.edit.panels import PanelEdit
from obrell.core.errors import NoSuchThing, ObrellError
from obrell.core.files import file_id
from obrell.core.raster.layers import PixelBox
from obrell.core.render.cache import PixelCache
from obrell.core.render.picture import box_around
from obrell.core.trial.composing import Screen, Seen, check_screen, composed
from obrell.core.trial.conditions import AS_IT_IS, Conditions, reach_px, seen_under
from obrell.core.trial.instances import instance, looks_of, numbers_of
from obrell.core.trial.starts import STARTS, Start, begun
from obrell.core.values.base import Value
from obrell.core.values.fields import Id
from obrell.core.values.panels import MAX_PLACEMENTS, Panel, Placement
from obrell.core.values.transitions import Milliseconds
from obrell.core.workspace import OfObject, bringing
from obrell.store.kits import Kits, Stored
from obrell.store.rows import NOBODY, Sender


@dataclass(frozen=True, slots=True)
class Opened:
    """A panel as it stands, with its kit and those controls of its places that are there."""

    index: KitIndex
    panel: Panel
    stored: Mapping[str, Stored]
    broken: Mapping[str, str] = field(default_factory=dict)
    """Why controls of its places cannot be shown, in words, by control id."""


def opened(kits: Kits, kit: str, panel: str) -> Opened:
    """Return a panel with its controls, without those that are gone or cannot be shown."""
    index = kits.index(kit)
    found = panel_of(index, panel)
    return Opened(index, found, *_found(kits, kit, (one.control for one in found.placements)))


def with_control(here: Opened, now: Stored) -> Opened:
    """Return an opened panel with another version of one of its controls."""
    ident = now.control.id
    broken = {name: words for name, words in here.broken.items() if name != ident}
    return replace(here, stored={**here.stored, ident: now}, broken=broken)


def _found(kits: Kits, kit: str, controls: Iterable[str]) -> tuple[dict[str, Stored], dict[str, str]]:
    """Return the controls that can be shown and, for the others that exist, why not; both by id."""
    found: dict[str, Stored] = {}
    broken: dict[str, str] = {}
    for control in dict.fromkeys(controls):
        try:
            stored = kits.control(kit, control)
            _check_operable(stored.control)
            found[control] = stored
        except NoSuchThing:
            continue
        except ObrellError as error:
            broken[control] = f"“{kits.name_of(kit, control)}” cannot be shown. {error}"
    return found, broken


_OPERABLE = OfObject[bool](2048)


def _check_operable(control: Control) -> None:
    """Raise the error of a touch area that cannot be worked out: such a control cannot be operated."""

    def tried() -> bool:
        for look in all_editions(control):
            touch_outline(look)
        return True

    _OPERABLE.get(control, None, tried)


@dataclass(frozen=True, slots=True)
class Changed:
    """What an edit made of a panel, in words, and what stands on it since, by id; nothing for one sent twice."""

    label: str
    fresh: tuple[str, ...] = ()
    shown: dict[str, Any] | None = None
    """The answer, if one was asked for and the edit was not sent before."""


Show = Callable[[Opened, tuple[str, ...]], dict[str, Any]]
"""Builds the answer to an edit from the edited panel and the ids of new places."""


def change(
    kits: Kits, kit: str, panel: str, edit: PanelEdit, sender: Sender = NOBODY, show: Show | None = None,
    files: Sequence[bytes] = (),
) -> Changed:  # fmt: skip
    """Make an edit of a panel and save it, with the ``files`` that it brings: once, however often it is sent. Its
    answer is built by ``show`` before anything is stored, so that an edit whose answer fails is not stored."""
    standing = (one.control for one in panel_of(kits.index(kit), panel).placements)
    stored, broken = _found(kits, kit, (*standing, *edit.controls()))
    controls = {name: one.control for name, one in stored.items()}
    fresh: list[str] = []
    shown: list[dict[str, Any]] = []

    def changed(index: KitIndex) -> tuple[KitIndex, str]:
        before = panel_of(index, panel)
        after = edit.apply(before, controls)
        check_screen(index, after, before)
        known = {one.id for one in before.placements}
        fresh[:] = [one.id for one in after.placements if one.id not in known]
        made, label = with_panel(index, after), edit.label(before, controls)
        shown[:] = [] if show is None else [show(Opened(made, after, stored, broken), tuple(fresh))]
        return made, label

    with bringing({file_id(content): content for content in files}):
        label = kits.change_panel(kit, panel, changed, sender, files)
    return Changed(label, tuple(fresh), *shown)


def add(kits: Kits, kit: str, start: Start, name: str) -> str:
    """One more panel, as one begins; its id."""
    panel = begun(start, "panel", name.strip() or STARTS[start][0])
    return _one_more(kits, kit, panel, f"Added the panel “{panel.name}”")


def duplicate(kits: Kits, kit: str, panel: str) -> str:
    """A panel once more, right behind it; its id."""
    source = panel_of(kits.index(kit), panel)
    copy = source.evolve(name=f"{source.name[:74]} copy")
    return _one_more(kits, kit, copy, f"Copied the panel “{source.name}”", panel)


def _one_more(kits: Kits, kit: str, panel: Panel, label: str, after: str = "") -> str:
    made: list[str] = []

    def changed(index: KitIndex) -> KitIndex:
        more, new = with_new_panel(index, panel, after)
        made.append(new)
        return more

    kits.change_index(kit, changed, label)
    return made[-1]


def remove(kits: Kits, kit: str, panel: str) -> None:
    """A panel taken out of the kit."""
    name = panel_of(kits.index(kit), panel).name
    kits.change_index(kit, lambda index: without_panel(index, panel), f"Removed the panel “{name}”")


class PieceSeen(Value):
    """How something on a panel looks: its state, where it came from and how long ago, and its numbers."""

    id: Id
    state: Annotated[str, Field(max_length=120)]
    came: Annotated[str, Field(max_length=120)] = ""
    time: Milliseconds = 0.0
    readings: Annotated[dict[Id, float], Field(max_length=12)] = Field(default_factory=dict)


class ScreenRequest(Value):
    """What a window wants to see of a panel."""

    seq: int
    density: Annotated[float, Field(gt=0, le=4)]
    conditions: Conditions = AS_IT_IS
    pieces: Annotated[tuple[PieceSeen, ...], Field(max_length=MAX_PLACEMENTS)] = ()


@dataclass(slots=True)
class LastScreen:
    """What a window was sent last."""

    cache: PixelCache
    screen: Screen | None = None
    asked: tuple[float, Conditions] = (0.0, AS_IT_IS)


@dataclass(frozen=True, slots=True)
class Part:
    """A box of a screen, device px, and its pixels."""

    box: PixelBox
    pixels: Screen
    whole: tuple[int, int]
    """Width and height of all of it."""


def look_at(kits: Kits, kit: str, panel: str, wanted: ScreenRequest, last: LastScreen) -> Part:
    """What has changed on a screen since it was looked at last, under conditions."""
    here = opened(kits, kit, panel)
    with patience(SECONDS):
        screen = composed(here.index, here.panel, list(_pieces(here, wanted)), wanted.density, last.cache)
    asked = (wanted.density, wanted.conditions)
    box = _changed(last.screen, screen) if last.asked == asked else _all(screen)
    last.screen, last.asked = screen, asked
    px_per_mm = here.panel.millimetre * wanted.density
    reach = reach_px(wanted.conditions, px_per_mm)
    box = box.grown(reach).meet(_all(screen)) if not box.empty else box
    around = box.grown(reach).meet(_all(screen))
    cut = screen[around.top : around.bottom, around.left : around.right]
    pixels = seen_under(wanted.conditions, cut, px_per_mm) if cut.size else cut
    y, x = box.top - around.top, box.left - around.left
    return Part(box, pixels[y : y + box.height, x : x + box.width], (screen.shape[1], screen.shape[0]))


def _all(screen: Screen) -> PixelBox:
    return PixelBox(0, 0, screen.shape[1], screen.shape[0])


def _changed(before: Screen | None, after: Screen) -> PixelBox:
    """Around all pixels that differ."""
    if before is None or before.shape != after.shape:
        return _all(after)
    return box_around((before != after).any(axis=2)) or PixelBox(0, 0, 0, 0)


def _pieces(here: Opened, wanted: ScreenRequest) -> Iterable[Seen]:
    told = {one.id: one for one in wanted.pieces}
    for placement in here.panel.placements:
        stored = here.stored.get(placement.control)
        if stored is not None:
            yield seen_of(stored, placement, wanted.density, told.get(placement.id))


def as_it_begins(here: Opened, cache: PixelCache) -> Screen:
    """The pixels of a panel before anything is done, at its own density."""
    return composed(here.index, here.panel, seen_at_first(here), here.panel.density, cache)


def seen_at_first(here: Opened) -> list[Seen]:
    """What stands on a panel, as it looks before anything is done."""
    placed = ((one, here.stored.get(one.control)) for one in here.panel.placements)
    return [seen_of(stored, one, here.panel.density) for one, stored in placed if stored is not None]


def seen_of(stored: Stored, placement: Placement, density: float, told: PieceSeen | None = None) -> Seen:
    """Something on a panel as it is told to look; as it begins where nothing is told."""
    control = instance(stored.control, placement, density)
    way = placement.colourway or DAY
    if told is None:
        lit = "on" if placement.on else ""
        state = looks_of(control)[f"{lit}/disabled/" if placement.disabled else f"{lit}//"]
        return Seen(control, placement.x, placement.y, way, state, numbers_of(control, placement))
    numbers = dict(numbers_of(control, placement)) | known_values(control, told.readings)
    return Seen(
        control, placement.x, placement.y, way, told.state, tuple(numbers.items()), told.came, told.time
    )  # fmt: skip
