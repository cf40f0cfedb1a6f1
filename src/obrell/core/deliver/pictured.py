"""Effects that SVG cannot draw, as pictures embedded in it: one for every coat of paint."""

from __future__ import annotations

import math
from base64 import b64encode
from collections.abc import Callable
from dataclasses import dataclass

from obrell.core.deliver.png import encode
from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.effects.base import Coat, Effect, Lamp, Side
from obrell.core.effects.markup import element
from obrell.core.geometry.plane import Similarity
from obrell.core.raster import blend
from obrell.core.raster.layers import Box, Layer
from obrell.core.raster.quantise import quantise
from obrell.core.render.cache import PixelCache
from obrell.core.render.site import PartSite, device_box, spans_of

USUAL_DENSITY = 2.0


@dataclass(frozen=True, slots=True)
class Pictures:
    """How pictures are made: at a density, in a light, no larger than the canvas."""

    density: float
    lamp: Lamp
    resolved: Resolved
    canvas: Box

    def of(self, part: Part) -> Callable[[Effect, Side], tuple[str, ...]]:
        """Makes the pictures of a part's effects."""

        def picture(effect: Effect, side: Side) -> tuple[str, ...]:
            site = self._site(part, effect)
            return tuple(filter(None, (self._image(coat) for coat in effect.coats(site, side))))

        return picture

    def _site(self, part: Part, effect: Effect) -> PartSite:
        scale = self.density
        place = Similarity(scale, part.rotation, part.x * scale, part.y * scale)
        box = device_box(part.shape.path().transformed(place))
        region = box.grown(math.ceil(effect.reach(self.lamp.direction) * scale) + 1).meet(self.canvas)
        spans = spans_of(self.resolved, part)
        return PartSite(part.shape, place, self.lamp, scale, False, region, PixelCache(0), spans)

    def _image(self, coat: Coat) -> str:
        """The coat with its strength and blend mode."""
        box = coat.mask.box
        if box.empty or coat.opacity <= 0:
            return ""
        layer = Layer.clear(box)
        blend.paint(layer, coat.mask, coat.pigment, coat.opacity, 0)
        content = b64encode(encode(quantise(layer))).decode()
        scale = self.density
        return element("image", {
            "x": box.left / scale, "y": box.top / scale, "width": box.width / scale, "height": box.height / scale,
            "preserveAspectRatio": "none", "href": f"data:image/png;base64,{content}",
            "style": "" if coat.blend == "normal" else f"mix-blend-mode:{coat.blend}",
        })  # fmt: skip
