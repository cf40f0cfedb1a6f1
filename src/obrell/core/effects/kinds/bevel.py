"""Bevel: an edge with a profile, lit and shaded."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal, get_args

import numpy as np
from pydantic import Field

from obrell.core.effects.base import Operation, Side, Stand, Zone
from obrell.core.effects.lit import Lit, towards
from obrell.core.effects.tones import Tone, tone_pictures, tone_table
from obrell.core.paint.areas import Embossed, Rough
from obrell.core.paint.lookup import Lookup
from obrell.core.paint.sources import Flat, textured_on
from obrell.core.raster.blur import TAIL
from obrell.core.raster.relief import INSIDE, OUTSIDE, STRADDLING, TABLE_SIZE, Table
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.blends import Blend
from obrell.core.values.colours import Colour
from obrell.core.values.curves import Curve
from obrell.core.values.fields import Angle, Live, Share, Signed
from obrell.core.values.paints import Pattern, Seed, Texture
from obrell.core.workspace import remembered

Profile = Literal["chamfer", "bullnose", "cove", "ogee", "bead", "step", "drawn"]
SIDES = {"inside": INSIDE, "outside": OUTSIDE, "straddling": STRADDLING}
ZONES: dict[str, Zone] = {"inside": "surface", "outside": "behind", "straddling": "edge"}
RISER = 4.0
"""A step's riser takes this fraction of its tread (``rendering.md``, Formulas)."""


Band = Annotated[float, Live("px", 1, 0, 24), Field(ge=0, le=4096)]
Soft = Annotated[float, Live("px", 1, 0, 8), Field(ge=0, le=500)]
"""Sliders end where a bevel of the usual rise can still be seen; more can be typed."""


class Bevel(Lit):
    """A height field over the exact distance to the edge; where it faces the light it is lit, where it faces
    away shaded, each with its own colour, strength and blend mode. A negative rise is sunk. Wider than the
    shape is thick it meets in a ridge. Outside it can begin ``beyond`` the edge, as around an outline. A texture can
    roughen it: the whole surface when it lies inside, else the band alone."""

    label: ClassVar[str] = "Bevel"
    rank: ClassVar[int] = 40
    zone: ClassVar[Zone] = "surface"
    strengths: ClassVar[tuple[str, ...]] = ("highlight_opacity", "shade_opacity")
    kind: Literal["bevel"] = "bevel"
    side: Literal["inside", "outside", "straddling"] = Field("inside", title="lies")
    width: Band = Field(6.0, title="wide")
    beyond: Band = Field(0.0, title="begins out by")
    rise: Signed = Field(3.0, title="rises")
    profile: Profile = Field("bullnose", title="profile")
    steps: Annotated[int, Live("", 1, 1, 8), Field(ge=1, le=20)] = Field(3, title="steps")
    drawn: Curve = Field(default_factory=Curve, title="drawn profile")
    softness: Soft = Field(0.0, title="softness")
    texture: Literal["none"] | Pattern = Field("none", title="texture as relief")
    texture_depth: Signed = Field(0.5, title="texture rises")
    texture_scale: Annotated[float, Live("px", 0.1, 0.3, 24), Field(gt=0, le=1000)] = Field(4.0, title="texture scale")
    texture_angle: Angle = Field(90.0, title="texture runs to")
    seed: Seed = Field(1, title="texture seed")
    tone: Tone = Field("straight", title="tones")
    drawn_tone: Curve = Field(default_factory=Curve, title="drawn tones")
    highlight: Colour = Field("#ffffff", title="light colour")
    highlight_opacity: Share = Field(0.7, title="light strength")
    highlight_blend: Blend = Field("screen", title="light blend")
    shade: Colour = Field("#04181d", title="shade colour")
    shade_opacity: Share = Field(0.6, title="shade strength")
    shade_blend: Blend = Field("multiply", title="shade blend")

    def lies_in(self) -> Zone:
        return ZONES[self.side]

    def reach(self, light: float) -> float:
        share = {"inside": 0.0, "outside": 1.0, "straddling": 0.5}[self.side]
        soft = self.softness * TAIL if self.side != "inside" else 0.0
        return self.width * share + soft + self._begins

    def operations(self, stand: Stand, side: Side) -> tuple[Operation, ...]:
        if self.width <= 0 or (self.rise == 0 and self.texture == "none"):
            return ()
        outwards = self.reach(stand.lamp.direction) - self._begins if side != "inside" else 0.0
        light = towards(self.lamp(stand.lamp))
        relief = Embossed(
            stand.parallel(self._begins), stand.margin(outwards), SIDES[self.side], self.width * stand.scale,
            self.rise * stand.scale, self.softness / 2 * stand.scale, Lookup(self._heights()), light,
            Lookup(self._tones()), self._rough(stand),
        )  # fmt: skip
        shade, highlight = Flat(str(self.shade)), Flat(str(self.highlight))
        return (
            Operation(relief.second, shade, self.shade_opacity * self.opacity, self.shade_blend),
            Operation(relief.first, highlight, self.highlight_opacity * self.opacity, self.highlight_blend),
        )

    @property
    def mixes(self) -> bool:
        return self.highlight_blend != "normal" or self.shade_blend != "normal"

    @property
    def _begins(self) -> float:
        return self.beyond if self.side == "outside" else 0.0

    def hidden_fields(self) -> tuple[str, ...]:
        hidden = ["blend"]
        hidden += [] if self.side == "outside" else ["beyond"]
        hidden += [] if self.profile == "step" else ["steps"]
        hidden += [] if self.profile == "drawn" else ["drawn"]
        hidden += [] if self.texture != "none" else ["texture_depth", "texture_scale", "texture_angle", "seed"]
        hidden += [] if self.tone == "drawn" else ["drawn_tone"]
        return (*hidden, *super().hidden_fields())

    def pictures(self, field: str) -> dict[str, Table]:
        if field == "profile":
            return {name: profile_table(name, self.steps, self.drawn) for name in get_args(Profile)}
        return tone_pictures(self.drawn_tone) if field == "tone" else {}

    def sentence(self) -> Sentence:
        return (
            Slot("width"), Words(" wide, "), Slot("profile"), Words(", rises "), Slot("rise"), *self.light_said(),
        )  # fmt: skip

    def _rough(self, stand: Stand) -> Rough | None:
        if self.texture == "none":
            return None
        fill = Texture(pattern=self.texture, scale=self.texture_scale, angle=self.texture_angle, seed=self.seed)
        return Rough(textured_on(fill, stand.box, stand.place), self.texture_depth * stand.scale)

    def _heights(self) -> Table:
        return profile_table(self.profile, self.steps, self.drawn)

    def _tones(self) -> Table:
        return tone_table(self.tone, self.drawn_tone)


@remembered(64)
def profile_table(profile: Profile, steps: int, drawn: Curve) -> Table:
    """Heights from 0 to 1 across a bevel (``rendering.md``, Formulas)."""
    return np.ascontiguousarray(_profile(profile, steps, drawn), np.float32)


def _profile(profile: Profile, steps: int, drawn: Curve) -> np.ndarray:
    u = np.linspace(0.0, 1.0, TABLE_SIZE)
    match profile:
        case "chamfer":
            return u
        case "bullnose":
            return np.sqrt(1 - (1 - u) ** 2)
        case "cove":
            return 1 - np.sqrt(1 - u * u)
        case "ogee":
            return u * u * (3 - 2 * u)
        case "bead":
            return np.sqrt(np.maximum(0.0, 1 - (2 * u - 1) ** 2))
        case "step":
            whole = np.floor(u * steps)
            return np.minimum(1.0, (whole + np.minimum(1.0, (u * steps - whole) * RISER)) / steps)
        case _:
            table = drawn.table()
            return np.interp(u, np.linspace(0, 1, len(table)), table)
