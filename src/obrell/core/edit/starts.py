"""What states begin with: ordinary differences, made of the very control."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from obrell.core.colour.contrast import contrast, luminance
from obrell.core.colour.difference import ciede2000
from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.links import literal, match
from obrell.core.colour.spaces import from_hex, to_hex, to_oklch
from obrell.core.colour.steps import LEAST_CHROMA, lighter
from obrell.core.document.bodies import body_of, box_of, labels_of, lying_on, outermost
from obrell.core.document.colours import with_colours
from obrell.core.document.model import Control, Part
from obrell.core.document.resolve import ground_colour
from obrell.core.document.restating import in_one_state
from obrell.core.document.tree import descendants
from obrell.core.edit.base import NEW, Surroundings, add_parts, each_part, part_of
from obrell.core.edit.companions import grown, main_colour
from obrell.core.edit.convert import GrowParts
from obrell.core.edit.effect_stacks import PressLook
from obrell.core.edit.follows import RADIUS, has_size, is_rounded, keep_to
from obrell.core.edit.parts import MoveParts, fresh_name
from obrell.core.edit.states import AddState, OfStates, free_name_for
from obrell.core.effects import AnyEffect, InnerGlow, InnerShadow, OuterGlow, Outline, Paint
from obrell.core.effects.glow import Glow
from obrell.core.effects.shadow import Shadow
from obrell.core.errors import Refused
from obrell.core.values.colours import Colour, SwatchLink, follows
from obrell.core.values.fields import Id, Length
from obrell.core.values.paints import Solid
from obrell.core.values.roles import Role, role_called

Start = Literal["hover", "pressed", "sunk", "focus", "disabled", "on"]
STARTS: dict[Start, tuple[str, str]] = {
    "hover": ("Hover", "lighter, with a glow"),
    "pressed": ("Pressed", "lit from below, its shadow short, 1 px lower"),
    "sunk": ("Pressed", "as pressed, and sunk into what it lies on"),
    "focus": ("Focus", "a ring around it that is seen on every ground"),
    "disabled": ("Disabled", "less colour and contrast, no glow"),
    "on": ("On", "lit from below, with a glow on its label"),
}
"""What each is for, and what it does."""
HOVER_LIGHTNESS, ON_LIGHTNESS = 0.045, 0.06
"""How much lighter the paints of a body become, in OKLCH, where lightness is 0 to 1."""
MUTED_CHROMA, MUTED_WAY, MUTED_GREY = 0.3, 0.35, 0.74
"""What is left of chroma, and how far lightness goes the way to a light grey, where nothing can be done."""
GLOW_LIGHTNESS = 0.25
SEEN_HALO = 20.0
"""The least CIEDE2000 between a glow and the ground at which the faded glow can be seen."""
RING_ROLES = ("accent", "main")
RING_PX, RING_CHROMA = 2.0, 0.12
RING_CONTRAST = 3.0
"""W3C WCAG 2.2, success criterion 1.4.11: of what tells a state apart, against what is beside it."""
NO_BODY = "There is nothing to begin with yet: draw a body and fill it first."


class StartState(OfStates):
    """Begin a state with differences, in place of those it has; its role stays. Without ``state`` a new one is added,
    in the start's own role. ``parts`` are the body, where that is not to be guessed. ``lower`` is how far a pressed
    body goes down, ``gap`` how far a ring is from the edge, both px."""

    kind: Literal["start-state"] = "start-state"
    start: Start
    state: Id | None = None
    parts: Annotated[tuple[Id, ...], Field(max_length=1000)] = ()
    lower: Length = 1.0
    gap: Length = 2.0

    def apply(self, control: Control, around: Surroundings) -> Control:
        name = self.state
        if name is None:
            role = role_of(self.start)
            control = AddState(name=free_name_for(role, control), role=role).apply(control, around)
            name = control.states[-1].id
        return in_one_state(_cleared(control, name), name, lambda look: self._begun(look, around))

    def _begun(self, look: Control, around: Surroundings) -> Control:
        body = self.parts or body_of(look)
        if not body:
            raise Refused(NO_BODY)
        return Beginning(look, body, around, self).of(self.start)

    def label(self, control: Control) -> str:
        called = next((one.name for one in control.states if one.id == self.state), STARTS[self.start][0])
        return f"Began the state “{called}”"


def role_of(start: Start) -> Role:
    """Return the role of the state that a start is for."""
    return role_called(STARTS[start][0])


def told_apart(start: Start) -> str:
    """What a start is called among others; two are of one state."""
    name, _ = STARTS[start]
    return name if start.startswith(name.lower()) else f"{name}, {start}"


def _cleared(control: Control, name: str) -> Control:
    return control.evolve(
        states=tuple(one.evolve(differences=()) if one.id == name else one for one in control.states)
    )


@dataclass(frozen=True, slots=True)
class Beginning:
    """A look that is to become that of a state, its body, and what is wanted."""

    look: Control
    body: tuple[str, ...]
    around: Surroundings
    wanted: StartState

    def of(self, start: Start) -> Control:
        """The look with what a state of that kind begins with."""
        beginnings: dict[Start, Callable[[], Control]] = {
            "hover": self._hover, "pressed": self._pressed, "sunk": self._sunk, "focus": self._focus,
            "disabled": self._disabled, "on": self._on,
        }  # fmt: skip
        return beginnings[start]()

    def _pressed(self) -> Control:
        all_on, lower = lying_on(self.look, self.body), self.wanted.lower
        look = PressLook(parts=tuple(descendants(self.look, all_on))).apply(self.look, self.around)
        return MoveParts(parts=all_on, dx=0, dy=lower).apply(look, self.around) if lower else look

    def _sunk(self) -> Control:
        height = min(box_of(self.look, part_of(self.look, name)).height for name in self.body)
        depth = round(max(2.0, height / 10), 1)
        inside = InnerShadow.model_validate({
            "id": NEW, "offset": {"kind": "cast", "follow": True, "distance": depth / 2}, "blur": depth * 2,
            "opacity": 0.5, "colour": "#000000",
        })  # fmt: skip
        return each_part(self._pressed(), self.body, lambda part: part.evolve(effects=(*part.effects, inside)))

    def _hover(self) -> Control:
        glow = OuterGlow(id=NEW, extent=8, opacity=0.4, fill=Solid(colour=self._halo()))
        outer = outermost(self.look, self.body[0]).id

        def changed(part: Part) -> Part:
            lit = _painted(part, lighter(HOVER_LIGHTNESS), self.around) if part.id in self.body else part
            return lit.evolve(effects=(glow, *lit.effects)) if part.id == outer else lit

        return each_part(self.look, (*self.body, outer), changed)

    def _on(self) -> Control:
        inside = InnerGlow(id=NEW, extent=10, opacity=0.5, fill=Solid(colour=self._glow()))

        def lit(part: Part) -> Part:
            painted = _painted(part, lighter(ON_LIGHTNESS), self.around)
            return painted.evolve(effects=(*painted.effects, inside)) if part.id == self.body[0] else painted

        look = PressLook(parts=self.body).apply(self.look, self.around)
        look, on_it = each_part(look, self.body, lit), descendants(look, lying_on(look, self.body))
        read = tuple(part.id for part in labels_of(look) if part.id in on_it)
        return each_part(look, read, self._glowing) if read else look

    def _glowing(self, label: Part) -> Part:
        """A light label glows; round a dark one its body does, which keeps it as easily read."""
        own, body = (literal(one, self.around.palette) for one in (_main(label), self._glow()))
        light = luminance(from_hex(own)) > luminance(from_hex(body))
        colour, strength = (_main(label), 0.4) if light else (self._glow(), 0.6)
        glow = OuterGlow(id=NEW, extent=8, falloff="quick", opacity=strength, fill=Solid(colour=colour))
        return label.evolve(effects=(glow, *label.effects))

    def _disabled(self) -> Control:
        def changed(part: Part) -> Part:
            dim = with_colours(part, lambda colour: with_literal(colour, _muted, self.around))
            kept = tuple(_without_glow(old, new) for old, new in zip(part.effects, dim.effects, strict=True))
            return dim.evolve(effects=kept, versions=part.versions)

        ids = tuple(part.id for part in self.look.parts if not part.locked)
        return each_part(self.look, ids, changed) if ids else self.look

    def _focus(self) -> Control:
        outer = outermost(self.look, self.body[0])
        ring = Outline(id="e1", place="outside", width=RING_PX, fill=Solid(colour=self._ring()))
        part = outer.evolve(
            name=fresh_name(self.look, "Focus ring"), material=None, versions=(), opacity=1.0, blend="normal",
            locked=False, within=None, clip=None, follows=(), effects=(ring,),
        )  # fmt: skip
        look, more = add_parts(self.look, [part]), (RADIUS,) if is_rounded(outer) else ()
        name = look.parts[-1].id
        look = self._grown(look, name)
        return keep_to(look, name, outer.id, self.around, *more)

    def _grown(self, look: Control, name: str) -> Control:
        """A ring as far out as is wanted; what has no sides of its own is grown as a path."""
        if has_size(part_of(look, name)):
            return each_part(look, [name], lambda part: part.evolve(shape=grown(part, self.wanted.gap)))
        return GrowParts(parts=(name,), by=self.wanted.gap).apply(look, self.around)

    def _ring(self) -> Colour:
        """Return a colour that stands out around the body."""
        body = part_of(self.look, self.body[0])
        return _ring_colour(self.look, (outermost(self.look, body.id), body), self.around)

    def _halo(self) -> Colour:
        """Return the colour of the glow: the body's colour made lighter, the body's colour, the kit's main colour or
        its accent, whichever first looks like light on the ground; else the colour of a focus ring."""
        ground = ground_colour(self.look, self.around.palette)
        own = (self._glow(), _main(part_of(self.look, self.body[0])))
        of_kit = (SwatchLink(swatch=one.id) for one in self.around.swatches if one.role in RING_ROLES)
        tried = (one for one in (*own, *of_kit) if _shines(literal(one, self.around.palette), ground))
        return next(tried, None) or self._ring()

    def _glow(self) -> Colour:
        """A light colour of the body's own."""
        return with_literal(_main(part_of(self.look, self.body[0])), lighter(GLOW_LIGHTNESS), self.around)


def _shines(colour: str, ground: str) -> bool:
    """Return whether a glow can be seen on a ground as light: a grey darker than the ground looks like shadow."""
    (lightness, chroma, _), (behind, _, _) = to_oklch(from_hex(colour)), to_oklch(from_hex(ground))
    return ciede2000(colour, ground) >= SEEN_HALO and (chroma >= LEAST_CHROMA or lightness > behind)


def _without_glow(effect: AnyEffect, dimmed: AnyEffect) -> AnyEffect:
    """Shadows keep their colour, and half of their strength; glows are hidden."""
    if isinstance(effect, Glow):
        return effect.evolve(visible=False)
    return effect.evolve(opacity=round(effect.opacity / 2, 3)) if isinstance(effect, Shadow) else dimmed


def _ring_colour(look: Control, beside: tuple[Part, Part], around: Surroundings) -> Colour:
    """For what is round an outermost part and its body: the colour of the kit, the main one first, that stands out
    enough from the ground and the outermost part; else of the body's hue."""
    ground = ground_colour(look, around.palette)
    outer, body = (literal(_main(part), around.palette) for part in beside)

    def least(colour: str) -> float:
        return min(contrast(colour, ground), contrast(colour, outer))

    for swatch in sorted(around.swatches, key=lambda one: one.role not in RING_ROLES):
        if least(swatch.colour) >= RING_CONTRAST:
            return SwatchLink(swatch=swatch.id)
    _, _, hue = to_oklch(from_hex(body))
    tried = [to_hex(from_oklch((step / 50, RING_CHROMA, hue))) for step in range(51)]
    fine = [colour for colour in tried if least(colour) >= RING_CONTRAST]
    return max(fine, key=lambda one: to_oklch(from_hex(one))[1]) if fine else max(tried, key=least)


def _painted(part: Part, change: Callable[[str], str], around: Surroundings) -> Part:
    """A part with the colours of its paints changed."""
    effects = tuple(
        with_colours(one, lambda colour: with_literal(colour, change, around)) if isinstance(one, Paint) else one
        for one in part.effects
    )
    return part.evolve(effects=effects)


def with_literal(colour: Colour, change: Callable[[str], str], around: Surroundings) -> Colour:
    """A colour as it is to look from then on; what follows a swatch goes on following it."""
    link, new = follows(colour), change(literal(colour, around.palette))
    if link is not None and link.swatch in around.palette:
        return match(new, link.swatch, around.palette[link.swatch]).link
    return colour.evolve(own=new) if isinstance(colour, SwatchLink) else new


def _muted(colour: str) -> str:
    lightness, chroma, hue = to_oklch(from_hex(colour))
    return to_hex(from_oklch((lightness + (MUTED_GREY - lightness) * MUTED_WAY, chroma * MUTED_CHROMA, hue)))


def _main(part: Part) -> Colour:
    """The colour that a part is painted with; a middling grey where it is not."""
    return main_colour(part) or "#808080"
