"""Laying materials on parts, and letting them go."""

from __future__ import annotations

from typing import ClassVar, Literal

from obrell.core.document.materials import extent_of, relaid, scaled_effects
from obrell.core.document.model import Control, Material, Part
from obrell.core.document.own_colour import in_colour
from obrell.core.document.tree import arranged
from obrell.core.edit.base import NEW, Edit, Surroundings, each_part, names_of, part_of
from obrell.core.edit.companions import main_colour
from obrell.core.edit.parts import Ids
from obrell.core.effects import AnyEffect, Outline
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.shelf import SHIPPED, STARTS
from obrell.core.shelf.materials import HAIR_PX
from obrell.core.values.fields import Id


class LayMaterial(Edit):
    """A material laid on parts instead of the effects they have; their masks and blurs stay. ``scaled``
    makes its lengths fit each part; a ``linked`` part, which it always fits, follows when it is saved anew. With
    ``own_colour`` it is recoloured to the colour of each part."""

    kind: Literal["lay-material"] = "lay-material"
    parts: Ids
    material: Id
    scaled: bool = True
    linked: bool = False
    own_colour: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        material, tree = material_of(self.material, around), arranged(control).all

        def laid(part: Part) -> Part:
            extent = extent_of(tree[part.id].part)
            fresh, colour = scaled_effects(material, extent, scaled=self.scaled or self.linked), main_colour(part)
            if self.own_colour and colour is not None:
                fresh = in_colour(fresh, colour, around.palette)
            changed = _with_look(part, tuple(effect.evolve(id=NEW) for effect in fresh))
            if not self.linked:
                return changed.evolve(material=None, material_extent=None)
            return changed.evolve(material=self.material, material_extent=extent)

        return each_part(control, self.parts, laid)

    def label(self, control: Control) -> str:
        return f"Laid a material on {names_of(control, self.parts)}"


class AddStart(Edit):
    """Effects that belong together put over those that parts have, each in front of its zone, fitted to each part."""

    kind: Literal["add-start"] = "add-start"
    parts: Ids
    start: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        start, tree = self._start(), arranged(control).all

        def begun(part: Part) -> Part:
            fresh = scaled_effects(start, extent_of(tree[part.id].part))
            return part.evolve(effects=(*part.effects, *(effect.evolve(id=NEW) for effect in fresh)))

        return each_part(control, self.parts, begun)

    def label(self, control: Control) -> str:
        return f"Began with “{self._start().name}” on {names_of(control, self.parts)}"

    def _start(self) -> Material:
        for start in STARTS:
            if start.id == self.start:
                return start
        raise NoSuchThing("There is no such start.")


class FollowMaterial(Edit):
    """All parts that are linked to a material given what it has become; what they have of their own they keep."""

    with_states: ClassVar[bool] = True
    kind: Literal["follow-material"] = "follow-material"
    material: Id
    was: Material

    def apply(self, control: Control, around: Surroundings) -> Control:
        material, tree = material_of(self.material, around), arranged(control).all

        def followed(part: Part) -> Part:
            extent = extent_of(tree[part.id].part)
            fresh = relaid(part, self.was, material, extent)
            kept = {effect.id for effect in part.effects}
            named = tuple(e if e.id in kept and e in part.effects else e.evolve(id=NEW) for e in fresh)
            return _with_look(part, named).evolve(material_extent=extent)

        return each_part(control, linked_to(control, self.material), followed)

    def label(self, control: Control) -> str:
        return f"{names_of(control, linked_to(control, self.material))} followed the material “{self.was.name}”"


class FreeMaterial(Edit):
    """Parts that keep the look they have, linked to no material."""

    kind: Literal["free-material"] = "free-material"
    parts: Ids

    def apply(self, control: Control, around: Surroundings) -> Control:
        return each_part(control, self.parts, lambda part: part.evolve(material=None, material_extent=None))

    def label(self, control: Control) -> str:
        return f"Made the look of {names_of(control, self.parts)} its own"


def material_of(name: str, around: Surroundings) -> Material:
    """A material of the kit or a shipped one, by its id; raises ``NoSuchThing``."""
    for material in (*around.materials, *SHIPPED):
        if material.id == name:
            return material
    raise NoSuchThing("That material is no longer on the shelf.")


def material_from(control: Control, part_id: str, name: str, ident: str, *, scaled: bool) -> Material:
    """Return the look of a part as a material, without masks and blurs. Only hairlines stay in px."""
    part = part_of(control, part_id)
    effects = tuple(effect for effect in part.effects if effect.lies_in() != "whole")
    if not effects:
        raise Refused(f"“{part.name}” has no effects to save.")
    lines = (one for one in effects if isinstance(one, Outline) and one.width <= HAIR_PX)
    fixed = tuple(f"{one.id}/width" for one in lines) if scaled else ()
    extent = extent_of(arranged(control).all[part_id].part)
    return Material(id=ident, name=name, effects=effects, extent=extent, fixed=fixed)


def linked_to(control: Control, material: str) -> tuple[str, ...]:
    """The parts that follow a material: those linked to it, but for locked ones."""
    return tuple(part.id for part in control.parts if part.material == material and not part.locked)


def _with_look(part: Part, effects: tuple[AnyEffect, ...]) -> Part:
    """The part with other effects, but its own masks and blurs."""
    kept = tuple(effect for effect in part.effects if effect.lies_in() == "whole")
    return part.evolve(effects=(*effects, *kept))
