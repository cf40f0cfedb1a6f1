"""Pictures of controls and of what lies in them: what one shows, and its bytes."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from pydantic import Field, TypeAdapter, ValidationError

from obrell.core.document.editions import EditionsText, looked_at
from obrell.core.document.fingerprint import dress, fingerprint, fingerprints, ground_fingerprint, whole_fingerprint
from obrell.core.document.model import MAX_EFFECTS, REST, Control
from obrell.core.document.readings import NumbersText, Readings, readings_in, seen
from obrell.core.document.resolve import DAY, Resolved, palette, resolve
from obrell.core.document.swatch_uses import uses
from obrell.core.document.transitions import Between, moment, moments
from obrell.core.edit import Surroundings, read_edit
from obrell.core.edit.effect_stacks import UseVersion
from obrell.core.edit.effects import AddEffect
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.materials import AddStart, LayMaterial
from obrell.core.edit.wording import with_words
from obrell.core.errors import BadValue, NoSuchThing
from obrell.core.raster.layers import PixelBox
from obrell.core.raster.png import encode_quick
from obrell.core.raster.quantise import Pixels
from obrell.core.render.between import draw_between
from obrell.core.render.build_up import only, upto
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.render.heat import heat
from obrell.core.render.limits import MAX_SIDE_PX
from obrell.core.render.picture import picture
from obrell.core.trial.playing import MAX_FRAMES, check_frames
from obrell.core.values.base import Value
from obrell.core.values.colours import Hex
from obrell.core.values.fields import Angle, Id
from obrell.core.values.transitions import Milliseconds
from obrell.store.kits import Kits

NO_MORE = "What this picture showed is there no more."
Place = Annotated[int, Field(ge=-1_000_000, le=1_000_000)]
Extent = Annotated[int, Field(ge=0, le=MAX_SIDE_PX)]
Count = Annotated[int, Field(ge=0, le=MAX_EFFECTS)]


class Wanted(Value):
    """What a picture shows of a control: all of it, a box of it in device pixels, or one part with its first
    ``count`` effects; ``free`` shows what lies off the canvas too. ``lay`` shows a material on the part, ``add`` one
    more effect of a kind, ``start`` effects that belong together, ``kept`` a look kept aside; ``hot`` what that, or
    the last of the effects, changes, as a heat map. ``whole`` shows the other parts too, ``standing`` what the control
    stands on, ``ground`` nothing but that. The swatches have the colours of a ``colourway``.
    The control is in a ``state``. A material is laid in the part's ``own_colour`` or in its own.
    ``groups`` of colours, with commas between, are shown turned ``to_hue``, with that ``strength`` of chroma, or
    following a ``swatch``; or all of it with a ``tint`` from above in that mode and colour, or that of the swatch."""

    part: Annotated[str, Field(max_length=40)] = ""
    count: Count | None = None
    free: bool = False
    lay: Annotated[str, Field(max_length=40)] = ""
    own_colour: bool = False
    add: Annotated[str, Field(max_length=40)] = ""
    start: Annotated[str, Field(max_length=40)] = ""
    kept: Count | None = None
    hot: bool = False
    whole: bool = False
    ground: bool = False
    standing: bool = False
    colourway: Annotated[str, Field(max_length=40)] = DAY
    state: Annotated[str, Field(max_length=160)] = REST
    editions: EditionsText = ""
    """The size and the art for a density that it is in, by their ids with commas between."""
    readings: NumbersText = ""
    """The numbers that readings are at, as id:number with commas between."""
    against: bool = False
    """Where that differs from rest, as a heat map."""
    like: Annotated[str, Field(max_length=40)] = ""
    """The state is that of another control, whose document has this hash."""
    came: Annotated[str, Field(max_length=160)] = ""
    """The state that it comes from, ``time`` ms ago; empty where it has been in the other one for long."""
    time: Milliseconds = 0.0
    frames: Annotated[int, Field(ge=0, le=MAX_FRAMES)] = 0
    """So many moments of all the time that takes, one under the other, the last of them its end."""
    words: Annotated[str, Field(max_length=8000)] = ""
    """Other words of its texts, as JSON: by the ids of the parts."""
    groups: Annotated[str, Field(max_length=4000)] = ""
    to_hue: Angle | None = None
    strength: Annotated[float, Field(ge=0, le=4)] = 1.0
    swatch: Annotated[str, Field(max_length=40)] = ""
    tint: Literal["", "hue", "color"] = ""
    tint_colour: Hex | None = None
    left: Place | None = None
    top: Place = 0
    width: Extent = 0
    height: Extent = 0

    def edition(self, control: Control) -> Control:
        """The control in those of the editions that it has, with those words; raises ``BadValue``."""
        return with_words(looked_at(control, self.editions), _words_in(self.words) if self.words else {})

    def values(self, control: Control) -> Readings:
        """The numbers of those readings that the control has."""
        return readings_in(self.readings, control)

    def box(self) -> PixelBox | None:
        """The box of device pixels; None for all of the canvas."""
        if self.left is None:
            return None
        return PixelBox(self.left, self.top, self.left + max(1, self.width), self.top + max(1, self.height))


def _words_in(text: str) -> dict[str, str]:
    try:
        return _WORDS.validate_json(text)
    except ValidationError as error:
        raise BadValue("The words of this picture cannot be read.") from error


_WORDS = TypeAdapter(dict[Id, str])


def showing(kits: Kits, kit: str, control: str, shown: str, wanted: Wanted) -> tuple[KitIndex, Control]:
    """The newest document of a control that shows what has a fingerprint, in the editions that are wanted, and the kit
    in which it does."""
    newest, *earlier = kits.indexes(kit)
    for document in map(wanted.edition, kits.documents(kit, control)):
        if _shows(newest, document, wanted, shown):
            return newest, document
    document = wanted.edition(kits.control(kit, control).control)
    for index in earlier:
        if _shows(index, document, wanted, shown):
            return index, document
    raise NoSuchThing(NO_MORE)


def _shows(kit: KitIndex, control: Control, wanted: Wanted, shown: str) -> bool:
    try:
        resolved = resolve(kit, control, wanted.state, wanted.colourway, wanted.values(control))
    except NoSuchThing:
        return False
    return _fingerprint(resolved, wanted) == shown


def dressed(kits: Kits, kit: str, control: Control, dressing: str, colourway: str) -> KitIndex:
    """The newest of a kit's own values that give a control what has a fingerprint."""
    swatches = uses(control)
    for index in kits.indexes(kit):
        known = colourway == DAY or any(one.id == colourway for one in index.colourways)
        if known and dress(index, swatches, colourway) == dressing:
            return index
    raise NoSuchThing(NO_MORE)


def _fingerprint(resolved: Resolved, wanted: Wanted) -> str:
    if wanted.ground:
        return ground_fingerprint(resolved)
    if wanted.count is None:
        return fingerprints(resolved).get(wanted.part, "") if wanted.part else whole_fingerprint(resolved)
    part = next((part for part in resolved.control.parts if part.id == wanted.part), None)
    return "" if part is None else fingerprint(resolved, upto(part, wanted.count))


def png_of(kit: KitIndex, control: Control, density: float, wanted: Wanted, cache: PixelCache) -> bytes:
    """What is wanted of a control at a density, as PNG."""
    if wanted.against:
        return _against_rest(kit, control, density, wanted, cache)
    if wanted.came:
        return _on_its_way(kit, control, density, wanted, cache)
    control = seen(control, wanted.state, wanted.values(control), palette(kit, wanted.colourway))
    box, part, shown = wanted.box(), wanted.part, control
    if part:
        shown = _tried(shown, kit, part, wanted)
        shown = shown if wanted.whole else only(shown, part, wanted.count)
    if wanted.groups or wanted.tint:
        shown = _recoloured(shown, kit, wanted)
    resolved = resolve(kit, shown, colourway=wanted.colourway)
    if wanted.ground or wanted.standing:
        resolved = resolved.ground_alone() if wanted.ground else resolved.standing()
    if wanted.hot and part and box is not None and (wanted.count or wanted.kept is not None):
        before = control if wanted.kept is not None else only(control, part, (wanted.count or 1) - 1)
        return _heat(resolve(kit, before, colourway=wanted.colourway), resolved, Frame(density, box), cache)
    return _encoded(resolved, density, box, wanted.free, cache)


def _against_rest(kit: KitIndex, control: Control, density: float, wanted: Wanted, cache: PixelCache) -> bytes:
    values = wanted.values(control)
    rest, look = (resolve(kit, control, state, wanted.colourway, values) for state in (REST, wanted.state))
    return _heat(rest, look, Frame(density, canvas_box(look, density)), cache)


def _on_its_way(kit: KitIndex, control: Control, density: float, wanted: Wanted, cache: PixelCache) -> bytes:
    values = wanted.values(control)
    if wanted.frames:
        check_frames(wanted.frames, control.canvas.height * density)
        ways = moments(kit, control, wanted.came, wanted.state, wanted.frames, wanted.colourway, values)
        return encode_quick(np.concatenate([_whole(one, density, cache) for one in ways]))
    there = moment(kit, control, wanted.came, wanted.state, wanted.time, wanted.colourway, values)
    return encode_quick(_whole(there, density, cache))


def _whole(there: Between, density: float, cache: PixelCache) -> Pixels:
    return draw_between(there, Frame(density, canvas_box(there.first, density)), cache)


def _tried(shown: Control, kit: KitIndex, part: str, wanted: Wanted) -> Control:
    """A control with a material, more effects, or a look kept aside tried on a part."""
    around = Surroundings.of(kit)
    if wanted.kept is not None:
        return UseVersion(parts=(part,), number=wanted.kept).apply(shown, around)
    if wanted.lay:
        return LayMaterial(parts=(part,), material=wanted.lay, own_colour=wanted.own_colour).apply(shown, around)
    if wanted.start:
        return AddStart(parts=(part,), start=wanted.start).apply(shown, around)
    return AddEffect(part=part, effect=wanted.add).apply(shown, around) if wanted.add else shown


def _recoloured(shown: Control, kit: KitIndex, wanted: Wanted) -> Control:
    if wanted.tint:
        colour = {"swatch": wanted.swatch} if wanted.swatch else wanted.tint_colour
        values: dict[str, object] = {"kind": "tint-from-above", "colour": colour, "mode": wanted.tint}
    else:
        values = {"kind": "recolour", "groups": wanted.groups.split(","), "strength": wanted.strength}
        values |= {"to_hue": wanted.to_hue, "swatch": wanted.swatch or None}
    return read_edit(values).apply(shown, Surroundings.of(kit))


def _encoded(resolved: Resolved, density: float, box: PixelBox | None, free: bool, cache: PixelCache) -> bytes:
    if free and box is not None:
        return encode_quick(draw(resolved, Frame(density, box), cache))
    return encode_quick(picture(resolved, density, box, cache))


def _heat(before: Resolved, after: Resolved, frame: Frame, cache: PixelCache) -> bytes:
    return encode_quick(heat(draw(before, frame, cache), draw(after, frame, cache)))
