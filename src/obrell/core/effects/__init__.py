"""The effect kinds. A new one is a module in ``kinds`` and nothing else (``docs/add-an-effect.md``).

Lengths and places are logical px; ``light`` is where the key light comes from, degrees clockwise from above; factors
are more than 0.
"""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated

from pydantic import Field

from obrell.core.effects.base import Effect
from obrell.core.effects.kinds.bevel import Bevel
from obrell.core.effects.kinds.blur import BackdropBlur, Blur
from obrell.core.effects.kinds.depth import Depth
from obrell.core.effects.kinds.drop_shadow import DropShadow
from obrell.core.effects.kinds.gloss import Gloss
from obrell.core.effects.kinds.grain import Grain
from obrell.core.effects.kinds.inner_glow import InnerGlow
from obrell.core.effects.kinds.inner_shadow import InnerShadow
from obrell.core.effects.kinds.mask import Mask
from obrell.core.effects.kinds.outer_glow import OuterGlow
from obrell.core.effects.kinds.outline import Outline
from obrell.core.effects.kinds.paint import Paint
from obrell.core.effects.kinds.sheen import Sheen
from obrell.core.registry import kinds_in

EFFECTS: dict[str, type[Effect]] = kinds_in("obrell.core.effects.kinds", Effect)
"""Every kind by its name, in the order in which they are offered."""
if TYPE_CHECKING:
    AnyEffect = Effect
else:
    AnyEffect = Annotated[reduce(or_, EFFECTS.values()), Field(discriminator="kind")]

__all__ = [
    "EFFECTS", "AnyEffect", "BackdropBlur", "Bevel", "Blur", "Depth", "DropShadow", "Effect", "Gloss", "Grain",
    "InnerGlow", "InnerShadow", "Mask", "OuterGlow", "Outline", "Paint", "Sheen",
]  # fmt: skip
