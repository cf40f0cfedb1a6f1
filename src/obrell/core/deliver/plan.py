"""Every file a delivery will make, before any of it is made."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import groupby, product

from obrell.core.deliver.names import file_name, words_of
from obrell.core.deliver.order import Order
from obrell.core.document.editions import in_editions, sizes_of
from obrell.core.document.effect_stacks import effects_of
from obrell.core.document.model import REST, Control, KitSettings, State
from obrell.core.document.readings import Readings
from obrell.core.document.resolve import DAY, DAY_NAME, Resolved, palette, resolve
from obrell.core.document.touching import touch_outline
from obrell.core.document.tree import walk
from obrell.core.errors import ObrellError, Refused, Stopped
from obrell.core.formats import FORMATS, Format, Job, Options
from obrell.core.geometry.plane import NOWHERE, Rect
from obrell.core.geometry.svgdata import number
from obrell.core.paint.areas import touched
from obrell.core.raster.layers import NO_BOX, PixelBox
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import canvas_box
from obrell.core.render.limits import check_region, fits
from obrell.core.render.picture import device, ink, picture
from obrell.core.scene.stands import stand_of
from obrell.core.values.slugs import slug


@dataclass(frozen=True, slots=True)
class File:
    """One file to make: its name and format, and what is to be in it."""

    name: str
    control: str
    state: str
    format: Format
    job: Job
    options: Options
    resolved: Resolved
    """Without what it stands on."""
    ground: bool = False
    """Whether it shows what the control stands on."""
    colourway: str = ""
    """The colourway's id, where the kit has several."""
    readings: Readings = ()
    """What readings are at; none where they begin."""
    touch: Rect | None = None
    """Around where it is touched, logical px of the canvas, where that is not its body."""
    size: str = ""
    """The size's id, where the control has several."""
    art: str = ""
    """The id of the art for its density, where that is of its own."""
    called: State | None = None
    """Its state with its name and role; None at rest."""

    @property
    def pixels(self) -> PixelBox:
        """Where it lies on the device grid of its density."""
        return self.job.pixels


@dataclass(frozen=True, slots=True)
class LeftOut:
    """What cannot be delivered as things are: a control's name, or a file's, and why, with what can be done."""

    name: str
    words: str


@dataclass(frozen=True, slots=True)
class Plan:
    """The files of a delivery, in order of control, size, format and density, and what is left out of it."""

    files: tuple[File, ...]
    left_out: tuple[LeftOut, ...] = ()
    controls: tuple[Control, ...] = ()
    """Those that the files are of."""


Look = Callable[[str], bool]
"""Told the name of each control before it is looked at; answers whether to go on."""


def plan(
    kit: KitSettings, controls: tuple[Control, ...], order: Order, look: Look = lambda _: True,
    cache: PixelCache | None = None,
) -> Plan:  # fmt: skip
    """What a delivery will make. A control that cannot be drawn, a picture that would be too large and a name that
    is taken are left out, with words; the rest goes on. Raises ``Refused`` when no control is chosen, ``NoSuchThing``
    for a colourway that the kit has not, ``Stopped`` when ``look`` says so."""
    chosen = [c for c in controls if not order.controls or c.id in order.controls]
    if not chosen:
        raise Refused("No control is chosen: a delivery needs at least one.")
    if order.trimmed:
        order.step()
    for colourway in order.colourways:
        palette(kit, colourway)
    making = _Making(kit, order, PixelCache() if cache is None else cache)
    for control in chosen:
        if not look(control.name):
            raise Stopped("The delivery was stopped; no archive was kept.")
        making.add(control)
    there = {file.control for file in making.files.values()}
    shown = tuple(control for control in chosen if control.id in there)
    return Plan(tuple(making.files.values()), tuple(making.left_out), shown)


@dataclass(frozen=True, slots=True)
class Shown:
    """A look of a control, and the densities that it is delivered at as that; scalable files are made of it too, where
    it is no ``art`` for a density."""

    resolved: Resolved
    densities: tuple[float, ...]
    art: str
    colourway: str
    state: str
    frame: str
    readings: Readings
    called: State | None


@dataclass(frozen=True, slots=True)
class Ordered:
    """A file as it is ordered: of which look of a control, cut to which box, as what."""

    look: Shown
    box: Rect
    format: Format
    density: float
    size: str
    touch: Rect | None


class _Making:
    """A plan under way; files by their names, upper and lower case alike."""

    def __init__(self, kit: KitSettings, order: Order, cache: PixelCache) -> None:
        self._kit, self._order, self._cache = kit, order, cache
        self.files: dict[str, File] = {}
        self._collisions: set[tuple[str, str]] = set()
        self._several: dict[str, list[str]] = {}
        """The words of a pattern that files of a control differ by, by its id."""
        self._states: dict[str, Mapping[str, str]] = {}
        self._sizes: dict[str, Mapping[str, str]] = {}
        """Words for file names of the states and sizes of each control; none for a control with one state or size."""
        self.left_out: list[LeftOut] = []

    def add(self, control: Control) -> None:
        self._several[control.id] = [*self._order.several(control)]
        self._states[control.id] = words_of(_named_states(control))
        self._sizes[control.id] = words_of(_named_sizes(control))
        for size in self._order.sizes_of(control):
            self._add_size(control, size)

    def _add_size(self, control: Control, size: str) -> None:
        order, wanted = self._order, frozenset(self._order.states_of(control))
        try:
            looks = [*self._looks(control, size)]
            box = delivered_box([(look.resolved, look.densities) for look in looks], order, self._cache)
            touched_at = in_editions(control, (size,))
            touch = touch_outline(touched_at).bounds() if touched_at.touch else None
        except ObrellError as error:
            self.left_out.append(LeftOut(control.name, str(error)))
            return
        named = size if control.sizes else ""
        for _, several in groupby(looks, lambda look: (look.colourway, look.state, look.frame)):
            group = [look for look in several if look.state in wanted]
            for form in order.formats if group else ():
                for density, look in _at_densities(group, FORMATS[form]):
                    self._add_file(Ordered(look, box, FORMATS[form], density, named, touch))

    def _looks(self, control: Control, size: str) -> Iterator[Shown]:
        """All looks of a control at a size, in all its states, so that their box is one. At a density that has art of
        its own it is another control."""
        order = self._order
        frames = order.readings_of(control)
        called = {one.id: one for one in control.states}
        own = [one for one in control.arts if one.density in order.densities]
        plain = tuple(density for density in order.densities if density not in {one.density for one in own})
        drawn = [("", plain), *((one.id, (one.density,)) for one in own)]
        for way, state, (frame, readings) in product(order.colourways, control.state_ids, frames):
            for art, densities in drawn:
                shown = in_editions(control, (size, art) if art else (size,))
                resolved = resolve(self._kit, shown, state, way, readings)
                yield Shown(resolved, densities, art, way, state, frame, readings, called.get(state))

    def _add_file(self, one: Ordered) -> None:
        look, box, form, density = one.look, one.box, one.format, one.density
        resolved, control, order = look.resolved, look.resolved.control, self._order
        words = {
            "kit": slug(self._kit.name, self._kit.id),
            "control": slug(control.name, control.id),
            "size": self._sizes[control.id].get(one.size, ""),
            "colourway": self._way(look.colourway),
            "state": self._states[control.id].get(look.state, ""),
            "frame": look.frame,
            "density": "" if form.scalable else number(density),
        }
        pixels = device(box, density)
        try:
            check_region(pixels)
            name = file_name(order.pattern, words, form.kind)
        except ObrellError as error:
            at = "" if form.scalable else f" at {number(density)}×"
            self.left_out.append(LeftOut(f"{control.name}{at}", str(error)))
            return
        first = self.files.get(name.lower())
        if first is not None:
            self._collides(name, first.resolved.control, control)
            return
        shown = resolved.standing() if order.ground else resolved
        self.files[name.lower()] = File(
            name, control.id, look.state, form,
            Job(shown, box, pixels, density, order.densities[-1], self._cache), order.options_of(form.kind),
            resolved, order.ground, look.colourway if self._kit.colourways else "", look.readings, one.touch, one.size,
            look.art, look.called,
        )  # fmt: skip

    def _way(self, colourway: str) -> str:
        """Return the word for a colourway in file names; empty if only Day is delivered."""
        only = len(self._order.colourways) == 1
        ways = [(DAY, DAY_NAME), *((one.id, one.name) for one in self._kit.colourways)]
        return "" if only and colourway == DAY else words_of(ways)[colourway]

    def _collides(self, name: str, first: Control, second: Control) -> None:
        """Said once for two controls, or for the files of one."""
        if (first.id, second.id) in self._collisions:
            return
        self._collisions.add((first.id, second.id))
        missing = ", ".join(f"{{{word}}}" for word in self._several[first.id])
        several = f"{missing} and {{density}}" if missing else "{density}"
        words = f"Several files would be called “{name}”. Put {several} into the name pattern."
        if first.id != second.id:
            both = "Another control" if first.name == second.name else f"“{first.name}”"
            words = f"{both} has files of the same names, such as “{name}”. Give one of them another name."
        self.left_out.append(LeftOut(second.name, words))


def _named_states(control: Control) -> list[tuple[str, str]]:
    return [(REST, "Rest"), *((one.id, one.name) for one in control.states)] if control.states else []


def _named_sizes(control: Control) -> list[tuple[str, str]]:
    return list(sizes_of(control)) if control.sizes else []


def _at_densities(looks: Sequence[Shown], form: Format) -> Iterator[tuple[float, Shown]]:
    """What files of a format are made of, lowest density first."""
    if form.scalable:
        return ((1.0, look) for look in looks if not look.art)
    at = ((density, look) for look in looks for density in look.densities)
    return iter(sorted(at, key=lambda one: one[0]))


def delivered_box(
    looks: Sequence[tuple[Resolved, tuple[float, ...]]], order: Order, cache: PixelCache | None = None
) -> Rect:  # fmt: skip
    """The one logical box of a control's files at a size in all its states and the colourways that are asked, each
    look with the densities that it is delivered at: its canvas, or the ink of all of them at every density asked, plus
    the margin, grown outward to whole steps (``rendering.md``, coverage). Of many frames the ink is measured at the
    lowest density only, a device px of that added."""
    first = looks[0][0].control
    canvas = first.canvas
    if not order.trimmed:
        return Rect(0, 0, canvas.width, canvas.height)
    step = order.step()
    around = NOWHERE
    many = order.frames > 1 and bool(first.readings)
    for look, densities in looks:
        for density in densities[:1] if many else densities or order.densities[:1]:
            around = around.union(_ink(look, density, cache))
    if around.empty:
        raise Refused(f"“{first.name}” has nothing on its canvas to trim to.")
    around = around.grown(order.margin + (1 / order.densities[0] if many else 0))
    slack = 1e-9
    return Rect(
        math.floor(around.left / step + slack) * step, math.floor(around.top / step + slack) * step,
        math.ceil(around.right / step - slack) * step, math.ceil(around.bottom / step - slack) * step,
    )  # fmt: skip


def _ink(look: Resolved, density: float, cache: PixelCache | None) -> Rect:
    """Around what a look covers, logical px; nowhere where it covers nothing or is too large to be drawn."""
    found = ink(picture(look, density, cache=cache)) if fits(canvas_box(look, density)) else None
    if found is None:
        return NOWHERE
    return Rect(*(v / density for v in (found.left, found.top, found.right, found.bottom)))


def body_box(resolved: Resolved, density: float) -> PixelBox:
    """Around the shapes of all shown parts, effects not counted, in device pixels of the canvas."""
    canvas = canvas_box(resolved, density)
    box = NO_BOX
    for node in walk(resolved.tree.nodes):
        if effects_of(node.part):
            box = box.join(touched(stand_of(resolved, node.part, density).outline).meet(canvas))
    return box
