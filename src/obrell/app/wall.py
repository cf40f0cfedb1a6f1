"""The Wall while a swatch is tried: of the controls in view those that follow it, drawn anew where they change."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated

from pydantic import Field

from obrell.app.previewing import FrameRequest, LastFrame, Preview, drawn
from obrell.app.recolouring import recoloured
from obrell.core.aside import SECONDS, patience
from obrell.core.document.model import MAX_CONTROLS, Control
from obrell.core.document.resolve import DAY
from obrell.core.edit import Surroundings, read_edit
from obrell.core.edit.colours import FollowSwatches
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.swatches import coloured
from obrell.core.render.cache import PixelCache
from obrell.core.values.base import Value
from obrell.core.values.colours import Hex, SwatchLink
from obrell.core.values.fields import Id
from obrell.core.values.plain import Plain
from obrell.store.kits import Kits, Tile

MOST_IN_VIEW = 200


class WallRequest(Value):
    """What a Wall wants to see: controls in view, at a density, with other colours for some swatches, or with literal
    colours that follow swatches by those ``links``, or with an ``edit`` of the controls in ``only``."""

    seq: int
    colours: Annotated[dict[Id, Hex], Field(max_length=MOST_IN_VIEW)] = Field(default_factory=dict)
    links: Annotated[dict[Hex, SwatchLink], Field(max_length=2000)] = Field(default_factory=dict)
    anew: bool = False
    """The window shows nothing that was drawn before, so everything is drawn again."""
    edit: Plain = None
    only: Annotated[tuple[Id, ...], Field(max_length=MAX_CONTROLS)] = ()
    controls: Annotated[tuple[Id, ...], Field(max_length=MOST_IN_VIEW)]
    density: Annotated[float, Field(gt=0, le=4)] = 1.0
    colourway: Id = DAY

    def frame(self) -> FrameRequest:
        """All of one control at that density."""
        return FrameRequest(seq=self.seq, density=self.density, left=0, top=0, width=1, height=1, exact=True)


@dataclass(slots=True)
class LastWall:
    """What a Wall shows now, so that only what changes is drawn."""

    cache: PixelCache
    frames: dict[str, LastFrame] = field(default_factory=dict)
    read: dict[str, Control] = field(default_factory=dict)
    """Controls by their content hash, so that none is read twice while a swatch is dragged."""

    def control(self, kits: Kits, hash_: str) -> Control:
        """A control of those contents."""
        if hash_ not in self.read:
            if len(self.read) >= MOST_IN_VIEW:
                self.read.clear()
            self.read[hash_] = kits.by_hash(hash_)
        return self.read[hash_]

    def of(self, control: str) -> LastFrame:
        """What it shows of a control."""
        return self.frames.setdefault(control, LastFrame(cache=self.cache))


def preview_wall(kits: Kits, kit: str, wanted: WallRequest, last: LastWall) -> Iterator[tuple[str, Preview]]:
    """The controls that follow one of the swatches, as they would be; nothing is saved. One after the other: most of
    what a frame costs holds the interpreter lock, and two threads took half as long again."""
    index, frame = tried(kits.index(kit), wanted), wanted.frame()
    if wanted.anew:
        last.frames.clear()
    for tile in following(kits, kit, wanted):
        control = _changed(last.control(kits, tile.hash), index, wanted)
        with patience(SECONDS):
            yield tile.id, drawn(frame, index, control, last.of(tile.id), colourway=wanted.colourway)


def following(kits: Kits, kit: str, wanted: WallRequest) -> Iterator[Tile]:
    """Return the controls in view that follow one of the swatches, that would follow one, or that are edited."""
    in_view, edited = set(wanted.controls), set(wanted.only)
    for tile in kits.tiles(kit):
        asked = bool(wanted.links) or tile.id in edited or bool(wanted.colours.keys() & tile.uses.keys())
        if tile.id in in_view and not tile.words and asked:
            yield tile


def _changed(control: Control, index: KitIndex, wanted: WallRequest) -> Control:
    if wanted.edit is not None:
        return recoloured(read_edit(wanted.edit), control, index)
    if not wanted.links:
        return control
    return FollowSwatches(links=wanted.links).apply(control, Surroundings.of(index))


def tried(index: KitIndex, wanted: WallRequest) -> KitIndex:
    """The kit with the other colours."""
    for swatch, colour in wanted.colours.items():
        index = coloured(index, swatch, colour, wanted.colourway)
    return index
