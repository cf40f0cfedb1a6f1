"""Effects that SVG cannot draw, as pictures embedded in it: one for every paint operation."""

from __future__ import annotations

from base64 import b64encode
from collections.abc import Callable
from dataclasses import dataclass

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.effects.base import Effect, Operation, Side
from obrell.core.formats.svg.markup import element
from obrell.core.formats.svg.written import Sheet
from obrell.core.raster import blend
from obrell.core.raster.layers import Layer, PixelBox
from obrell.core.raster.png import encode
from obrell.core.raster.quantise import quantise
from obrell.core.render.cache import PixelCache
from obrell.core.render.site import Site, site_of

USUAL_DENSITY = 2.0


@dataclass(frozen=True, slots=True)
class Pictures:
    """How pictures are made: at a density, no larger than the canvas."""

    density: float
    resolved: Resolved
    canvas: PixelBox

    def of(self, part: Part) -> Callable[[Effect, Side], tuple[Sheet, ...]]:
        """Makes the pictures of a part's effects."""

        def picture(effect: Effect, side: Side) -> tuple[Sheet, ...]:
            site = site_of(self.resolved, part.evolve(fit="off"), self.density, self.canvas, PixelCache(0))
            made = ((self._image(one, site), one) for one in effect.operations(site.stand, side))
            return tuple(Sheet((image,), 1.0, one.blend) for image, one in made if image)

        return picture

    def _image(self, operation: Operation, site: Site) -> str:
        """What an operation paints, with its strength."""
        mask = site.mask(operation.area)
        box = mask.box
        if box.empty or operation.opacity <= 0:
            return ""
        layer = Layer.clear(box)
        blend.paint(layer, mask, site.source(operation, box), operation.opacity, 0)
        content = b64encode(encode(quantise(layer))).decode()
        scale = self.density
        return element("image", {
            "x": box.left / scale, "y": box.top / scale, "width": box.width / scale, "height": box.height / scale,
            "preserveAspectRatio": "none", "href": f"data:image/png;base64,{content}",
        })  # fmt: skip
