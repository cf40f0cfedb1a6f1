"""What can be done to a kit: its controls and panels added, removed, reordered; its own values set."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from obrell.core.document.model import MAX_CONTROLS, Control, KitFont, KitGradient, KitSettings, Material
from obrell.core.document.value_paths import value_at
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.values.fields import Id
from obrell.core.values.paints import Handled
from obrell.core.values.panels import MAX_PANELS, Panel
from obrell.core.values.slugs import free_id


class KitIndex(KitSettings):
    """A kit as it is stored beside its controls: its own values, and their order by id."""

    order: tuple[Id, ...] = ()
    next_number: Annotated[int, Field(ge=1)] = 1

    def settings(self) -> KitSettings:
        """The kit without the order."""
        return KitSettings(**{name: getattr(self, name) for name in KitSettings.model_fields})


def with_control(index: KitIndex, after: str = "") -> tuple[KitIndex, str]:
    """The kit with room for one more control, and that control's id."""
    if len(index.order) >= MAX_CONTROLS:
        raise Refused(f"A kit can have at most {MAX_CONTROLS} controls.")
    new = f"c{index.next_number}"
    at = index.order.index(after) + 1 if after in index.order else len(index.order)
    order = (*index.order[:at], new, *index.order[at:])
    return index.evolve(order=order, next_number=index.next_number + 1), new


def without_control(index: KitIndex, control: str) -> KitIndex:
    """The kit without a control."""
    if control not in index.order:
        raise NoSuchThing("That control is no longer there: it was removed, perhaps in another window.")
    return index.evolve(order=tuple(i for i in index.order if i != control))


def reordered(index: KitIndex, control: str, to: int) -> KitIndex:
    """The kit with a control at another place, 0 first."""
    rest = without_control(index, control).order
    to = min(max(to, 0), len(rest))
    return index.evolve(order=(*rest[:to], control, *rest[to:]))


def with_light(index: KitIndex, **values: float) -> KitIndex:
    """The kit with its key light moved: ``direction`` within a turn, ``height``, both degrees."""
    if "direction" in values:
        values["direction"] %= 360
    return index.evolve(light=index.light.evolve(**values))


def with_font(index: KitIndex, font: KitFont) -> KitIndex:
    """The kit with a font, once."""
    if any(other.file == font.file for other in index.fonts):
        return index
    return index.evolve(fonts=(*index.fonts, font))


def with_favourite(index: KitIndex, font: str) -> KitIndex:
    """The kit with a font among its favourites, or no longer when it was."""
    rest = tuple(name for name in index.favourites if name != font)
    return index.evolve(favourites=rest if font in index.favourites else (*rest, font))


def with_material(index: KitIndex, material: Material) -> KitIndex:
    """The kit with a material, in place of the one of the same id."""
    rest = tuple(other for other in index.materials if other.id != material.id)
    return index.evolve(materials=(*rest, material))


def without_material(index: KitIndex, material: str) -> KitIndex:
    """The kit without a material; parts keep the look it gave them."""
    return index.evolve(materials=tuple(other for other in index.materials if other.id != material))


def gradient_from(control: Control, path: str, name: str, ident: str) -> KitGradient:
    """The gradient at a path of a control, to be kept in the kit."""
    fill = value_at(control, path)
    if not isinstance(fill, Handled):
        raise Refused("Only linear, radial and conic gradients are kept.")
    return KitGradient(id=ident, name=name, fill=fill)


def with_gradient(index: KitIndex, gradient: KitGradient) -> KitIndex:
    """The kit with a gradient, in place of the one of the same id."""
    return index.evolve(gradients=(*without_gradient(index, gradient.id).gradients, gradient))


def without_gradient(index: KitIndex, gradient: str) -> KitIndex:
    """The kit without a gradient; what is painted with it stays."""
    return index.evolve(gradients=tuple(other for other in index.gradients if other.id != gradient))


def panel_of(index: KitIndex, panel: str) -> Panel:
    """A panel of a kit by its id; raises ``NoSuchThing``."""
    found = next((one for one in index.panels if one.id == panel), None)
    if found is None:
        raise NoSuchThing("That panel was removed, perhaps in another window. Undo on the Wall brings it back.")
    return found


def with_new_panel(index: KitIndex, panel: Panel, after: str = "") -> tuple[KitIndex, str]:
    """The kit with one more panel, right behind another one or at the end, under an id that none has; and that id."""
    if len(index.panels) >= MAX_PANELS:
        raise Refused(f"A kit can have at most {MAX_PANELS} panels.")
    ids = [one.id for one in index.panels]
    new = free_id(panel.name, ids, "panel")
    at = ids.index(after) + 1 if after in ids else len(ids)
    return index.evolve(panels=(*index.panels[:at], panel.evolve(id=new), *index.panels[at:])), new


def with_panel(index: KitIndex, panel: Panel) -> KitIndex:
    """The kit with a panel in place of the one of the same id."""
    return index.evolve(panels=tuple(panel if one.id == panel.id else one for one in index.panels))


def without_panel(index: KitIndex, panel: str) -> KitIndex:
    """The kit without a panel; raises ``NoSuchThing`` where it has none of that id."""
    gone = panel_of(index, panel)
    return index.evolve(panels=tuple(one for one in index.panels if one is not gone))
