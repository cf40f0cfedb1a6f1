"""Laying materials on parts, and letting them go."""

from __future__ import annotations

from typing import Literal

from obrell.core.document.materials import extent_of, scaled_effects
from obrell.core.document.model import MAX_EFFECTS, Control, Material, Part
from obrell.core.document.nodes import Node
from obrell.core.document.tree import arranged
from obrell.core.edit.base import Edit, Surroundings, check_unlocked, names_of
from obrell.core.edit.parts import Ids
from obrell.core.effects import AnyEffect
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.shelf import SHIPPED
from obrell.core.values.fields import Id


class LayMaterial(Edit):
    """A material laid on parts instead of the effects they have; their masks and blurs stay. ``scaled``
    makes its lengths fit each part; ``linked`` lets a part follow when the material is saved anew."""

    kind: Literal["lay-material"] = "lay-material"
    parts: Ids
    material: Id
    scaled: bool = True
    linked: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        check_unlocked(control, self.parts)
        material, tree = material_of(self.material, around), arranged(control).all
        number, parts = control.next_number, []
        for part in control.parts:
            if part.id not in self.parts:
                parts.append(part)
                continue
            effects, number = _laid(tree[part.id], material, number, scaled=self.scaled)
            parts.append(part.evolve(effects=effects, material=self.material if self.linked else None))
        return control.evolve(parts=tuple(parts), next_number=number)

    def label(self, control: Control) -> str:
        return f"Laid a material on {names_of(control, self.parts)}"


class FreeMaterial(Edit):
    """Parts that keep the look they have, linked to no material."""

    kind: Literal["free-material"] = "free-material"
    parts: Ids

    def apply(self, control: Control, around: Surroundings) -> Control:
        parts = tuple(p.evolve(material=None) if p.id in self.parts else p for p in control.parts)
        return control.evolve(parts=parts)

    def label(self, control: Control) -> str:
        return f"Made the look of {names_of(control, self.parts)} its own"


def material_of(name: str, around: Surroundings) -> Material:
    """A material of the kit or a shipped one, by its id; raises ``NoSuchThing``."""
    for material in (*around.materials, *SHIPPED):
        if material.id == name:
            return material
    raise NoSuchThing("That material is no longer on the shelf.")


def material_from(part: Part, node: Node, name: str, ident: str, *, scaled: bool) -> Material:
    """The look of a part as a material; widths of outlines stay px."""
    if not part.effects:
        raise Refused(f"“{part.name}” has no effects to save.")
    effects = tuple(effect for effect in part.effects if effect.lies_in() != "whole")
    fixed = tuple(f"{effect.id}/width" for effect in effects if effect.kind == "outline") if scaled else ()
    return Material(id=ident, name=name, effects=effects, extent=_extent(node), fixed=fixed)


def _extent(node: Node) -> float:
    frame = node.part.shape.frame()
    return extent_of(node.part, (frame.width, frame.height))


def _laid(node: Node, material: Material, number: int, *, scaled: bool) -> tuple[tuple[AnyEffect, ...], int]:
    kept = tuple(effect for effect in node.part.effects if effect.lies_in() == "whole")
    laid = scaled_effects(material, _extent(node), scaled=scaled)
    if len(kept) + len(laid) > MAX_EFFECTS:
        raise Refused(f"A part can have at most {MAX_EFFECTS} effects.")
    fresh = tuple(effect.evolve(id=f"e{number + count}") for count, effect in enumerate(laid))
    return (*fresh, *kept), number + len(fresh)
