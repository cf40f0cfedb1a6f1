"""The Wall while a swatch is tried: of the controls in view those that follow it, drawn anew where they change."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated

from pydantic import Field

from obrell.app.previewing import FrameRequest, LastFrame, Preview, drawn
from obrell.core.aside import SECONDS, patience
from obrell.core.document.resolve import DAY
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.swatches import coloured
from obrell.core.render.cache import PixelCache
from obrell.core.values.base import Value
from obrell.core.values.colours import Hex
from obrell.core.values.fields import Id
from obrell.store.kits import Kits

MOST_IN_VIEW = 200


class WallRequest(Value):
    """What a Wall wants to see: controls in view, at a density, with other colours for some swatches."""

    seq: int
    colours: Annotated[dict[Id, Hex], Field(max_length=MOST_IN_VIEW)]
    controls: Annotated[tuple[Id, ...], Field(max_length=MOST_IN_VIEW)]
    density: Annotated[float, Field(gt=0, le=4)] = 1.0
    colourway: Id = DAY


@dataclass(slots=True)
class LastWall:
    """What a Wall shows now, so that only what changes is drawn."""

    cache: PixelCache
    frames: dict[str, LastFrame] = field(default_factory=dict)

    def of(self, control: str) -> LastFrame:
        """What it shows of a control."""
        return self.frames.setdefault(control, LastFrame(cache=self.cache))


def preview_wall(kits: Kits, kit: str, wanted: WallRequest, last: LastWall) -> Iterator[tuple[str, Preview]]:
    """The controls that follow one of the swatches, as they would be; nothing is saved."""
    index = _tried(kits.index(kit), wanted)
    in_view = set(wanted.controls)
    for tile in kits.tiles(kit):
        if tile.id in in_view and not tile.words and wanted.colours.keys() & tile.uses.keys():
            control = kits.control(kit, tile.id).control
            frame = FrameRequest(seq=wanted.seq, density=wanted.density, left=0, top=0, width=1, height=1, exact=True)
            with patience(SECONDS):
                yield tile.id, drawn(frame, index, control, last.of(tile.id), colourway=wanted.colourway)


def _tried(index: KitIndex, wanted: WallRequest) -> KitIndex:
    for swatch, colour in wanted.colours.items():
        index = coloured(index, swatch, colour, wanted.colourway)
    return index
