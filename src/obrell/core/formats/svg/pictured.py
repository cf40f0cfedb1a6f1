"""Effects that SVG cannot draw, as pictures embedded in it: one for every paint operation."""

from __future__ import annotations

from base64 import b64encode
from dataclasses import dataclass

from obrell.core.effects.base import Effect, Operation, Side, Stand
from obrell.core.formats.svg.markup import element
from obrell.core.raster.layers import Layer, PixelBox
from obrell.core.raster.paint import paint
from obrell.core.raster.png import encode
from obrell.core.raster.quantise import quantise
from obrell.core.render.cache import PixelCache
from obrell.core.render.site import Site
from obrell.core.values.blends import Blend

USUAL_DENSITY = 2.0


@dataclass(frozen=True, slots=True)
class Pictures:
    """How pictures are made: at a density, no larger than the canvas, device px of that."""

    density: float
    canvas: PixelBox

    def of(self, effect: Effect, side: Side, stand: Stand) -> list[tuple[str, Blend]]:
        """What an effect paints on one side of a part that stands in user space, as elements that have its strength
        already, and how they are blended."""
        site = Site(stand.enlarged(self.density), self.canvas, PixelCache(0))
        made = ((self._image(one, site), one.blend) for one in effect.operations(site.stand, side))
        return [(image, mode) for image, mode in made if image]

    def _image(self, operation: Operation, site: Site) -> str:
        """What an operation paints, with its strength."""
        mask = site.mask(operation.area)
        box = mask.box
        if box.empty or operation.opacity <= 0:
            return ""
        layer = Layer.clear(box)
        paint(layer, mask, site.source(operation, box), operation.opacity, 0)
        content = b64encode(encode(quantise(layer))).decode()
        scale = self.density
        return element("image", {
            "x": box.left / scale, "y": box.top / scale, "width": box.width / scale, "height": box.height / scale,
            "preserveAspectRatio": "none", "href": f"data:image/png;base64,{content}",
        })  # fmt: skip
