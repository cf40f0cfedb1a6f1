"""The effect kinds. A new one is a module here and one line in the union (``docs/add-an-effect.md``)."""

from __future__ import annotations

from typing import Annotated, get_args

from pydantic import Field

from obrell.core.effects.base import Effect
from obrell.core.effects.bevel import Bevel
from obrell.core.effects.blur import BackdropBlur, Blur
from obrell.core.effects.depth import Depth
from obrell.core.effects.drop_shadow import DropShadow
from obrell.core.effects.gloss import Gloss
from obrell.core.effects.grain import Grain
from obrell.core.effects.inner_glow import InnerGlow
from obrell.core.effects.inner_shadow import InnerShadow
from obrell.core.effects.mask import Mask
from obrell.core.effects.outer_glow import OuterGlow
from obrell.core.effects.outline import Outline
from obrell.core.effects.paint import Paint
from obrell.core.effects.sheen import Sheen

Kinds = (
    Paint | InnerShadow | InnerGlow | Bevel | Sheen | Gloss | Grain | Outline
    | DropShadow | OuterGlow | Depth | BackdropBlur | Blur | Mask
)  # fmt: skip
AnyEffect = Annotated[Kinds, Field(discriminator="kind")]

EFFECTS: dict[str, type[Effect]] = {kind.model_fields["kind"].default: kind for kind in get_args(Kinds)}

__all__ = [
    "EFFECTS", "AnyEffect", "BackdropBlur", "Bevel", "Blur", "Depth", "DropShadow", "Effect", "Gloss", "Grain",
    "InnerGlow", "InnerShadow", "Mask", "OuterGlow", "Outline", "Paint", "Sheen",
]  # fmt: skip
