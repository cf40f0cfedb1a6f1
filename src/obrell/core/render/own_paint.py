"""The colour that a part is painted with itself, at one place of it."""

from __future__ import annotations

import math
from dataclasses import replace

from obrell.core.colour.spaces import to_hex
from obrell.core.document.effect_stacks import painted_of
from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved
from obrell.core.effects import Paint
from obrell.core.raster.layers import PixelBox
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, compose

DENSITY = 4.0


def own_colour(resolved: Resolved, part: str, x: float, y: float) -> str | None:
    """The colour of the part's uppermost paint at a place of the canvas, logical px, as if nothing lay over it and it
    were opaque; None when it has no paint there."""
    seen = resolved.tree.all[part].part
    paint = next((effect for effect in reversed(painted_of(seen)) if isinstance(effect, Paint)), None)
    if paint is None:
        return None
    plain = paint.evolve(opacity=1.0, blend="normal", through=False)
    bare = seen.evolve(effects=(plain,), opacity=1.0, blend="normal", visible=True, within=seen.within)
    alone = replace(resolved, tree=replace(resolved.tree, nodes=(Node(bare),)))
    left, top = math.floor(x * DENSITY), math.floor(y * DENSITY)
    red, green, blue, alpha = compose(
        alone, Frame(DENSITY, PixelBox(left, top, left + 1, top + 1)), PixelCache(0)
    ).planes[:, 0, 0].tolist()  # fmt: skip
    return to_hex((red / alpha, green / alpha, blue / alpha)) if alpha > 0 else None
