"""Live values of the sheet: what kind of field stands at a path, made from the model alone."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, fields, is_dataclass, replace
from typing import Any, Literal, TypeVar, get_args, get_origin

import numpy as np
from annotated_types import Ge, Gt, Le
from pydantic import BaseModel
from pydantic.fields import FieldInfo

from obrell.core.colour.links import literal
from obrell.core.document.model import Control, KitSettings
from obrell.core.document.moving import shift_at
from obrell.core.document.resolve import palette
from obrell.core.document.value_paths import field_of
from obrell.core.errors import NoSuchThing
from obrell.core.geometry.svgdata import number, shown
from obrell.core.text.fonts import load
from obrell.core.values.blends import Blend
from obrell.core.values.colours import Colour, SwatchLink
from obrell.core.values.curves import FEWEST_POINTS, MAX_POINTS, Curve, Table
from obrell.core.values.fields import live_of, names_part
from obrell.core.values.paints import Stop

SlotKind = Literal["icon", "font", "curve", "pictured", "number", "choice", "switch", "colour", "words", "ramp"]
NAMES = {
    "cast": "direction and distance", "shift": "across and down", "None": "as the kit",
    "one": "one radius", "four": "four radii", "round": "round", "srgb": "sRGB", "oklab": "OKLab",
}  # fmt: skip
"""Choices whose stored name is not the word to read."""


DRAWN_STEPS = 40


@dataclass(frozen=True, slots=True)
class FieldView:
    """One live value: where it is, what it is called, what it shows, how it is edited."""

    kind: SlotKind
    path: str
    title: str
    text: str
    value: float = 0.0
    unit: str = ""
    step: float = 1.0
    low: float = 0.0
    high: float = 1.0
    least: float | None = None
    most: float | None = None
    above: bool = False
    """Whether it has to be more than ``least``."""
    factor: float = 1.0
    shift: float = 0.0
    options: tuple[tuple[str, str], ...] = ()
    stops: tuple[Stop, ...] = ()
    curve: tuple[tuple[float, float], ...] = ()
    own: bool = False
    """Whether it differs from the material that its part is linked to."""
    departs: str = ""
    """The path at which it differs from rest in the state that is drawn; empty where it does not."""
    driven: str = ""
    """What the reading is called that drives it."""
    parts_but: str = ""
    """The part whose value it is, where all others can be chosen; the page, which knows them, offers them."""
    drawings: tuple[tuple[str, str], ...] = ()
    """Names and path data of what can be chosen by its look."""
    link: SwatchLink | None = None
    """How a colour follows a swatch, or did before it was its own."""
    swatch: str = ""
    """What the swatch that it follows is called; empty for a colour of its own."""
    adjusted: tuple[FieldView, ...] = ()
    """By how much it is lighter, darker, stronger or turned; those that are not 0."""

    @property
    def turns(self) -> bool:
        """Whether it is an angle that goes all the way round."""
        return self.kind == "number" and self.unit == "°" and self.high - self.low >= 360

    @property
    def differs(self) -> bool:
        """Whether it stands for several numbers that are not the same."""
        return self.kind == "number" and "…" in self.text

    @property
    def id(self) -> str:
        """Stays the same through every update, so that focus does."""
        return "v-" + self.path.replace("/", "-")


def field_at(control: Control, path: str) -> FieldView:
    """The live value at ``path`` of a control."""
    owner, name = field_of(control, path)
    if name == "kind":
        return _kind_field(control, path, str(owner.kind))
    field = type(owner).model_fields[name]
    if names_part(field):
        return _other_part(control, path, getattr(owner, name), field.title or name)
    found, shift = view(owner, name, path), shift_at(control, path)
    if name == "weight" and hasattr(owner, "font"):
        return _within_font(found, str(owner.font))
    return shifted(found, shift)


def _within_font(found: FieldView, font: str) -> FieldView:
    """A weight between the lightest and the heaviest that its font has."""
    try:
        one = load(font)
    except NoSuchThing:
        return found
    return replace(found, low=one.lightest, high=one.heaviest, least=one.lightest, most=one.heaviest)


def shifted(found: FieldView, shift: float) -> FieldView:
    """The value shown with something added to it."""
    return replace(found, shift=shift, text=shown(found.value + shift)) if shift else found


def field_on(root: BaseModel, path: str) -> FieldView:
    """The live value at a path below a model; raises ``NoSuchThing``."""
    owner, name = field_of(root, path)
    return view(owner, name, path)


def view(owner: BaseModel, name: str, path: str) -> FieldView:
    """The live value of one field of a model."""
    field = type(owner).model_fields[name]
    value = getattr(owner, name)
    title = field.title or name.replace("_", " ")
    live = live_of(field.metadata)
    if live is not None:
        return FieldView(
            "number", path, title, shown(value * live.factor), value, live.unit, live.step, live.low,
            live.high, _bound(field, Ge, Gt), _bound(field, Le), _bound(field, Gt) is not None, live.factor,
        )  # fmt: skip
    if isinstance(value, bool):
        return FieldView("switch", path, title, title, float(value))
    if name == "stops":
        return FieldView("ramp", path, title, f"{len(value)} stops", stops=value)
    if name == "font":
        return FieldView("font", path, title, font_label(str(value)))
    options = _options(field)
    if options:
        return FieldView("choice", path, title, NAMES.get(str(value), str(value)), options=options)
    if name == "icon":
        return FieldView("icon", path, title, str(value))
    if isinstance(value, Curve):
        points = tuple((point.x, point.y) for point in value.points)
        drawing = curve_drawing(value.table())
        return FieldView("curve", path, title, drawing, least=FEWEST_POINTS, most=MAX_POINTS, curve=points)
    if name == "colour" or SwatchLink in get_args(field.annotation):
        return _colour(value, path, title)
    if isinstance(value, tuple):
        return FieldView("words", path, title, " ".join(number(one) for one in value))
    return FieldView("words", path, title, str(value))


def _colour(value: Colour, path: str, title: str) -> FieldView:
    """A colour; what its swatch is called and looks like is for those to say who know the kit."""
    if not isinstance(value, SwatchLink):
        return FieldView("colour", path, title, value)
    text = value.own or value.swatch
    adjusted = () if value.own else tuple(_adjustments(value, path))
    return FieldView("colour", path, title, text, link=value, swatch="" if value.own else text, adjusted=adjusted)


LESS = {"lighter": "darker", "more chroma": "less chroma"}
"""What an adjustment is called that is less than nothing."""


def _adjustments(link: SwatchLink, path: str) -> Iterator[FieldView]:
    for name in ("tint", "chroma", "hue"):
        found = view(link, name, f"{path}/{name}")
        if found.value < 0 and found.title in LESS:
            yield replace(found, title=LESS[found.title], factor=-1.0, text=shown(-found.value))
        elif found.value:
            yield found


T = TypeVar("T")


def named_colours(shown: T, kit: KitSettings, way: str) -> T:
    """What is shown, with every colour in it that follows a swatch called as that is, and as it looks in a
    colourway."""
    names, colours = {swatch.id: swatch.name for swatch in kit.swatches}, palette(kit, way)

    def named(found: FieldView) -> FieldView:
        if found.link is None or found.link.own:
            return found
        name = names.get(found.link.swatch, f"{found.link.swatch}, which is gone")
        return replace(found, swatch=name, text=literal(found.link, colours))

    return each_field(shown, named)


def each_field(shown: T, change: Callable[[FieldView], FieldView]) -> T:
    """What is shown, with every live value in it as ``change`` makes it; what does not change stays the same."""
    made: Any = shown
    if isinstance(shown, FieldView):
        made = change(shown)
    elif isinstance(shown, tuple):
        items = tuple(each_field(item, change) for item in shown)
        made = shown if all(one is other for one, other in zip(items, shown, strict=True)) else items
    elif is_dataclass(shown) and not isinstance(shown, type):
        before = {field.name: getattr(shown, field.name) for field in fields(shown)}
        after = {name: each_field(value, change) for name, value in before.items()}
        changed = {name: value for name, value in after.items() if value is not before[name]}
        made = replace(shown, **changed) if changed else shown
    return made  # type: ignore[no-any-return]


def _other_part(control: Control, path: str, chosen: str | None, title: str) -> FieldView:
    """The choice of another part than the one that the path leads through."""
    own = path.split("/")[1]
    name = next((part.name for part in control.parts if part.id == chosen), None)
    options = (("None", "nothing"), *(((str(chosen), name),) if name is not None else ()))
    return FieldView("choice", path, title, name or "nothing", options=options, parts_but=own)


def font_label(name: str) -> str:
    """What a font calls itself; words when its file is not kept."""
    try:
        return load(name).name
    except NoSuchThing:
        return "a font that is not here"


def curve_drawing(table: Table) -> str:
    """Path data of a curve over a square of 100, its origin at the lower left."""
    places = np.linspace(0, len(table) - 1, DRAWN_STEPS + 1).astype(int)
    points = (f"{100 * step / DRAWN_STEPS:g} {100 - 100 * float(table[at]):.1f}" for step, at in enumerate(places))
    return "M" + "L".join(points)


def pictured(found: FieldView, pictures: dict[str, Table]) -> FieldView:
    """A choice shown by what each looks like."""
    drawings = tuple((name, curve_drawing(table)) for name, table in pictures.items())
    return replace(found, kind="pictured", drawings=drawings)


def _bound(field: FieldInfo, *kinds: type[Any]) -> float | None:
    for item in field.metadata:
        if isinstance(item, kinds):
            return float(getattr(item, {Ge: "ge", Gt: "gt", Le: "le"}[type(item)]))
    return None


def _options(field: FieldInfo) -> tuple[tuple[str, str], ...]:
    choices = _literals(field.annotation)
    return tuple((str(choice), NAMES.get(str(choice), str(choice))) for choice in choices)


def _kind_field(control: Control, path: str, kind: str) -> FieldView:
    """The choice of what a nested value can become: the kinds its field allows. A picture has to be chosen
    first, so nothing becomes one here."""
    holder, name = field_of(control, path.rpartition("/")[0])
    field = type(holder).model_fields[name]
    kinds = [str(inner.model_fields["kind"].default) for inner in models(field.annotation)]
    options = tuple((one, NAMES.get(one, one)) for one in kinds if one == kind or one != "picture")
    return FieldView("choice", path, field.title or name, NAMES.get(kind, kind), options=options)


def models(annotation: Any) -> Iterator[type[BaseModel]]:
    """The models that a field allows."""
    for inner in get_args(annotation):
        if isinstance(inner, type) and issubclass(inner, BaseModel):
            yield inner
        else:
            yield from models(inner)


def _literals(annotation: Any) -> tuple[Any, ...]:
    if annotation is Blend or get_origin(annotation) is Literal:
        return get_args(annotation)
    found: list[Any] = []
    for inner in get_args(annotation):
        found.extend([None] if inner is type(None) else _literals(inner))
    return tuple(found) if any(item is not None for item in found) else ()
