"""Previews: a control with an edit that is not saved, of which only what differs from the last frame is drawn."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated

from pydantic import Field

from obrell.core.aside import SECONDS, patience
from obrell.core.document.editions import EditionsText, art_for, in_editions, known_editions
from obrell.core.document.model import REST, Control, KitSettings
from obrell.core.document.readings import NumbersText, Readings, numbers_in, readings_in, seen
from obrell.core.document.resolve import DAY, Resolved, colourway_or_day, palette, resolve
from obrell.core.document.touching import touch_data
from obrell.core.document.transitions import moment
from obrell.core.edit import Edit, Surroundings, applied, read_edit
from obrell.core.edit.editions import drawn_in
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.readings import at_readings
from obrell.core.edit.snapping import Snap
from obrell.core.edit.states import made_in
from obrell.core.edit.swatches import coloured
from obrell.core.findings.false_colours import false_colours
from obrell.core.raster.layers import NO_BOX, PixelBox
from obrell.core.render.between import draw_between
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.render.heat import heat
from obrell.core.scene.changes import changed_box
from obrell.core.values.base import Value
from obrell.core.values.colours import Hex
from obrell.core.values.fields import Id
from obrell.core.values.plain import Plain
from obrell.core.values.transitions import Milliseconds
from obrell.store.kits import Kits


class FrameRequest(Value):
    """What a window wants to see: the control with an edit that is not saved, at a density, over a
    box of device pixels; ``exact`` for the very picture that will be delivered."""

    seq: int
    edit: Plain = None
    density: Annotated[float, Field(gt=0, le=256)]
    left: int
    top: int
    width: Annotated[int, Field(ge=1, le=8192)]
    height: Annotated[int, Field(ge=1, le=8192)]
    exact: bool = False
    apart: bool = False
    """Every part in a colour of its own."""
    colourway: Annotated[str, Field(max_length=40)] = DAY
    colours: Annotated[dict[Id, Hex], Field(max_length=100)] = Field(default_factory=dict)
    """Colours of swatches, by their ids, that are tried in that colourway."""
    state: Annotated[str, Field(max_length=40)] = REST
    """The state that is drawn, in which the edit is made."""
    editions: EditionsText = ""
    """The size and the art that are drawn, by their ids with commas between."""
    also: Annotated[str, Field(max_length=1000)] = ""
    """Others that it is made in too."""
    readings: NumbersText = ""
    """The numbers that readings are at, as id:number with commas between."""
    against: bool = False
    """Where the state differs from rest, as a heat map."""
    came: Annotated[str, Field(max_length=40)] = ""
    """The state that it comes from, ``time`` ms ago; empty where it has been in the other one for long."""
    time: Milliseconds = 0.0
    opened: Annotated[str, Field(max_length=100)] = ""
    """A part and its effect that is open, as ``part/effect``: where its gradient lies is told."""

    def made(self, edit: Edit) -> Edit:
        """The edit as it is made in the editions, in the states and at the readings that are looked at."""
        inner = made_in(at_readings(edit, numbers_in(self.readings)), self.state, self.also)
        return drawn_in(inner, self.editions)

    def shown_in(self, control: Control) -> tuple[str, ...]:
        """The editions that are drawn; of the very picture that will be delivered, the art for its density too."""
        drawn = known_editions(control, self.editions)
        art = art_for(control, self.density) if self.exact else None
        return drawn if art is None or any(one.id in drawn for one in control.arts) else (*drawn, art.id)

    def box(self) -> PixelBox:
        return PixelBox(self.left, self.top, self.left + self.width, self.top + self.height)


@dataclass(slots=True)
class LastFrame:
    """What a window shows now, so that only what changes is drawn."""

    frame: Frame | None = None
    exact: bool = False
    resolved: Resolved | None = None
    cache: PixelCache = field(default_factory=PixelCache)
    """What was drawn, for whatever is drawn next."""


@dataclass(frozen=True, slots=True)
class Preview:
    """What a window is to show: ``pixels``, straight RGBA, of a box in the frame; no box when nothing differs."""

    frame: Frame
    box: PixelBox
    pixels: bytes
    index: KitSettings
    control: Control
    resolved: Resolved
    snaps: Sequence[Snap]
    """What an edit that moves something holds on to."""
    touch: str = ""
    """The touch area, as path data."""


def preview(kits: Kits, kit: str, control: str, wanted: FrameRequest, last: LastFrame) -> Preview:
    """The control as an edit would leave it, over what the window shows; nothing is saved."""
    index, stored = kits.index(kit), kits.control(kit, control).control
    edit = None if wanted.edit is None else wanted.made(read_edit(wanted.edit))
    changed = stored if edit is None else applied(edit, stored, Surroundings.of(index))
    changed = in_editions(changed, wanted.shown_in(changed))
    index = _with_colours(index, wanted)
    known = wanted.state in changed.state_ids
    way = colourway_or_day(index, wanted.colourway)
    values = readings_in(wanted.readings, changed)
    snaps = () if edit is None else edit.snaps(stored)
    with patience(SECONDS):
        touch = touch_data(changed)
        if wanted.against and known and wanted.state != REST:
            shown = _against_rest(wanted, index, changed, values, last)
        elif wanted.came and wanted.came in changed.state_ids and known:
            shown = _on_its_way(wanted, index, changed, values, last)
        else:
            look = seen(changed, wanted.state if known else REST, values, palette(index, way))
            shown = drawn(wanted, index, false_colours(look) if wanted.apart else look, last, snaps, way)
    return replace(shown, touch=touch)


def _with_colours(index: KitIndex, wanted: FrameRequest) -> KitIndex:
    """Return the kit with the colours of swatches that are tried."""
    way = colourway_or_day(index, wanted.colourway)
    for swatch, colour in wanted.colours.items():
        index = coloured(index, swatch, colour, way)
    return index


def _against_rest(
    wanted: FrameRequest, index: KitSettings, control: Control, values: Readings, last: LastFrame
) -> Preview:  # fmt: skip
    """Where the state differs from rest; the next frame is drawn whole."""
    way = colourway_or_day(index, wanted.colourway)
    rest, look = (resolve(index, control, state, way, values) for state in (REST, wanted.state))
    frame = Frame(wanted.density, canvas_box(look, wanted.density) if wanted.exact else wanted.box())
    pixels = heat(draw(rest, frame, last.cache), draw(look, frame, last.cache)).tobytes()
    last.resolved = None
    return Preview(frame, frame.region, pixels, index, look.control, look, ())


def _on_its_way(
    wanted: FrameRequest, index: KitSettings, control: Control, values: Readings, last: LastFrame
) -> Preview:  # fmt: skip
    """A moment of a transition; the next frame is drawn whole."""
    way = colourway_or_day(index, wanted.colourway)
    there = moment(index, control, wanted.came, wanted.state, wanted.time, way, values)
    frame = Frame(wanted.density, canvas_box(there.first, wanted.density) if wanted.exact else wanted.box())
    pixels = draw_between(there, frame, last.cache).tobytes()
    last.resolved = None
    return Preview(frame, frame.region, pixels, index, there.first.control, there.first, ())


def drawn(
    wanted: FrameRequest, index: KitSettings, control: Control, last: LastFrame, snaps: Sequence[Snap] = (),
    colourway: str = DAY,
) -> Preview:  # fmt: skip
    """A control over what the window shows, which is remembered."""
    resolved = resolve(index, control, colourway=colourway)
    whole = canvas_box(resolved, wanted.density) if wanted.exact else wanted.box()
    frame, dirty = Frame(wanted.density, whole), whole
    if last.resolved is not None and last.frame == frame and last.exact == wanted.exact:
        dirty = changed_box(last.resolved, resolved, frame.density, frame.region)
    pixels = b"" if dirty.empty else draw(resolved, frame, last.cache, dirty).tobytes()
    last.frame, last.exact, last.resolved = frame, wanted.exact, resolved
    return Preview(frame, NO_BOX if dirty.empty else dirty, pixels, index, control, resolved, snaps)
