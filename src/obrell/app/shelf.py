"""The shelf of a kit: materials and gradients kept, changed and taken off."""

from __future__ import annotations

from collections.abc import Callable

from obrell.core.document.editions import every_look
from obrell.core.document.materials import with_rule
from obrell.core.document.model import Control, Material
from obrell.core.edit import Surroundings, applied
from obrell.core.edit.admission import check_drawable
from obrell.core.edit.kits import KitIndex, gradient_from, with_gradient, with_material
from obrell.core.edit.kits import without_gradient as gradient_off
from obrell.core.edit.kits import without_material as material_off
from obrell.core.edit.materials import FollowMaterial, linked_to, material_from
from obrell.core.errors import NoSuchThing
from obrell.core.values.slugs import slug
from obrell.store.kits import Changed, Kits, Plan, Stored


def save_material(
    kits: Kits, kit: str, shown: Control, part: str, name: str, *, scaled: bool
) -> list[Stored]:  # fmt: skip
    """The look of a part of a control as it is seen kept in the kit as a material, over one of the same name. Parts
    linked to it follow; the controls that changed."""
    index = kits.index(kit)
    ident = _shelf_id("m", name, "material")
    was = next((material for material in index.materials if material.id == ident), None)
    made = material_from(shown, part, name, ident, scaled=scaled)
    return _with_followed(kits, kit, made, was, f"Saved the material “{name}”")


def fix_length(kits: Kits, kit: str, material: str, effect: str, path: str, *, fixed: bool) -> list[Stored]:
    """One length of a material fixed in px, or a share of the part's size; parts linked to it follow. The controls
    that changed."""

    def changed(one: Material) -> Material:
        return with_rule(one, effect, path, fixed=fixed)

    label = "Fixed a length of a material in px" if fixed else "Let a length of a material fit the part"
    return change_material(kits, kit, material, changed, label)


def change_material(
    kits: Kits, kit: str, material: str, change: Callable[[Material], Material], label: str
) -> list[Stored]:
    """A material of the kit changed; parts linked to it follow. The controls that changed."""
    was = next((one for one in kits.index(kit).materials if one.id == material), None)
    if was is None:
        raise NoSuchThing("That material is no longer on the shelf.")
    return _with_followed(kits, kit, change(was), was, label)


def save_gradient(kits: Kits, kit: str, shown: Control, path: str, name: str) -> None:
    """The gradient at a path of a control as it is seen kept in the kit, over one of the same name."""
    made = gradient_from(shown, path, name, _shelf_id("g", name, "gradient"))
    kits.change_index(kit, lambda index: with_gradient(index, made), f"Kept the gradient “{name}”")


def remove_material(kits: Kits, kit: str, material: str) -> str:
    """Take a material off the shelf; what was done, in words."""
    return _off(kits, kit, "a material", lambda index: material_off(index, material))


def remove_gradient(kits: Kits, kit: str, gradient: str) -> str:
    """Take a gradient off the shelf; what was done, in words."""
    return _off(kits, kit, "a gradient", lambda index: gradient_off(index, gradient))


def _off(kits: Kits, kit: str, what: str, change: Callable[[KitIndex], KitIndex]) -> str:
    label = f"Took {what} off the shelf"
    kits.change_index(kit, change, label)
    return label


def _with_followed(kits: Kits, kit: str, material: Material, was: Material | None, label: str) -> list[Stored]:
    """Save a material in the kit, and every control with parts that follow it; what could not be drawn then is
    refused before anything is saved."""

    def plan(index: KitIndex, controls: list[Stored]) -> Plan:
        index = with_material(index, material)
        around, followed = Surroundings.of(index), []
        for stored in controls:
            looks = every_look(stored.control)
            if was is not None and any(linked_to(look, material.id) for look in looks):
                edit = FollowMaterial(material=material.id, was=was)
                changed = applied(edit, stored.control, around)
                check_drawable(index, changed, stored.control)
                followed.append(Changed(stored, edit.label(stored.control), changed))
        return Plan(label, index, followed)

    return kits.change_kit(kit, plan)[1]


def _shelf_id(prefix: str, name: str, otherwise: str) -> str:
    """The id of something on the kit's shelf: the same for the same name."""
    return f"{prefix}-{slug(name, otherwise)}"[:40].rstrip("-")
