"""The document: a kit of controls.

Lists of parts and of effects are in paint order, back to front; the sheet shows them turned round.
"""

from __future__ import annotations

from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Field, field_validator, model_validator

from obrell.core.document.circles import check_drawn_in_order, in_order
from obrell.core.effects import AnyEffect
from obrell.core.errors import BadDocument
from obrell.core.files import FileId
from obrell.core.geometry.svgdata import read_again
from obrell.core.shapes import AnyShape, Path
from obrell.core.shapes.containers import Container
from obrell.core.shapes.kinds.repeat import Repeat
from obrell.core.values.base import Value
from obrell.core.values.blends import Blend
from obrell.core.values.colours import Hex
from obrell.core.values.differences import MAX_DIFFERENCES, Difference
from obrell.core.values.fields import (
    LIMIT_PX,
    Angle,
    Density,
    Elevation,
    Id,
    Length,
    Live,
    Name,
    PartId,
    Place,
    Share,
    Signed,
    Size,
)
from obrell.core.values.paints import Fill, Handled, Linear, Stop
from obrell.core.values.panels import MAX_PANELS, Panel
from obrell.core.values.readings import MAX_READINGS, Reading
from obrell.core.values.roles import Role, role_called
from obrell.core.values.touches import Touch, TouchesOutline
from obrell.core.values.transitions import MAX_TRANSITIONS, Timing, Transition

Stands = Literal["light", "white", "mid", "dark", "coloured", "checker", "own"]
"""What a control is looked at on: one of some common grounds, or its own."""
PLAIN_GROUND = Linear(stops=(Stop(position=0, colour="#eef0ec"), Stop(position=1, colour="#d3d8d4")))
"""What a control stands on that has no ground of its own."""

SCHEMA = 1
"""Version of the document's form; a file with a higher one is refused."""
MAX_PARTS = 1000
MAX_EFFECTS = 400
MAX_VERSIONS = 4
MAX_CONTROLS = 5000
MAX_DEPTH = 20
MAX_GUIDES = 200
MAX_STATES = 24
MAX_SIZES = 12
MAX_ARTS = 8
MAX_FILE_TEXT = 28_000_000
MAX_DRAWN = 4000
"""How many parts a control may be drawn with, every copy of a repeat counted."""
MAX_POINTS = 20_000
"""How many points the paths of a control may have together."""
MAX_PAINTED = 40_000
"""How many effects they may have together."""

REST = "rest"
"""What stands for no state where the id of one does."""
REGULAR = "regular"
"""What stands for no size where the id of one does."""
Fit = Literal["off", "sides", "strokes"]
CanvasSize = Annotated[float, Live("px", 1, 8, 640), Field(gt=0, le=4096)]


class Light(Value):
    """The key light: where it comes from, and how high it stands."""

    direction: Angle = Field(0.0, title="from")
    height: Elevation = Field(40.0, title="high")


class Canvas(Value):
    """The control's rectangle in logical px, its margin included."""

    width: CanvasSize = Field(160.0, title="width")
    height: CanvasSize = Field(64.0, title="height")
    margin: Length = Field(12.0, title="margin")


Measure = Literal["width", "height", "middle across", "middle down", "left", "right", "top", "bottom", "radius"]


class Follow(Value):
    """A number, by its path below its owner, that is a measure of another part plus an offset."""

    path: Annotated[str, Field(min_length=1, max_length=100)]
    source: Id
    measure: Measure = Field("width", title="measure")
    offset: Signed = Field(0.0, title="plus")
    least: Place = Field(-LIMIT_PX, title="at least")
    own_words: bool = Field(False, title="in each state its own")
    """Whether the length of a text is that of its words in each state; else that of the longest of them, in all."""
    even: bool = Field(False, title="in even px")
    """Whether it is made longer to an even number of px, so that both sides are whole about a middle that is."""


class Version(Value):
    """A look of a part that is kept aside."""

    name: Name
    effects: Annotated[tuple[AnyEffect, ...], Field(max_length=MAX_EFFECTS)] = ()


class Part(Value):
    """One thing on the canvas. ``x``, ``y`` is its place: a box's or round's centre; for text see
    ``shapes.text``. It is mirrored and turns about its place."""

    id: Id
    name: Name
    shape: AnyShape
    x: Place = Field(0.0, title="across")
    y: Place = Field(0.0, title="down")
    rotation: Angle = Field(0.0, title="turned")
    mirrored: bool = Field(False, title="mirrored")
    """Whether its own space, with all that is painted there, is turned left to right before it is turned."""
    opacity: Share = Field(1.0, title="opacity")
    blend: Blend = Field("normal", title="blend")
    fit: Fit | None = Field(None, title="pixel fit")
    visible: bool = Field(True, title="shown")
    locked: bool = Field(False, title="locked")
    within: Id | None = None
    """The container it lies in."""
    clip: PartId | None = Field(None, title="clipped to")
    """The part whose shape cuts it."""
    follows: Annotated[tuple[Follow, ...], Field(max_length=40)] = ()
    material: Id | None = None
    """The material it stays linked to."""
    material_extent: Annotated[float, Field(gt=0)] | None = None
    """What the lengths of a linked material were fitted to, px."""
    versions: Annotated[tuple[Version, ...], Field(max_length=MAX_VERSIONS)] = ()
    effects: Annotated[tuple[AnyEffect, ...], Field(max_length=MAX_EFFECTS)] = ()


class Guide(Value):
    """A line to lay parts along. It runs down the canvas when it is placed ``across``, across it when
    placed ``down``; ``at`` is counted from an edge, the middle, or another guide."""

    id: Id
    axis: Literal["across", "down"]
    at: Place = Field(0.0, title="guide")
    since: Literal["start", "middle", "end"] | Id = Field("start", title="from")
    visible: bool = Field(True, title="shown")
    locked: bool = Field(False, title="locked")


class Reference(Value):
    """A picture pinned beside, under or over the art while it is drawn; never delivered. Its place is its
    top left corner."""

    file: FileId
    x: Place = Field(0.0, title="across")
    y: Place = Field(0.0, title="down")
    width: Size = Field(160.0, title="wide")
    lies: Literal["under the art", "over the art"] = Field("under the art", title="lies")
    opacity: Share = Field(0.5, title="opacity")
    visible: bool = Field(True, title="shown")


class Differing(Value):
    """What a control is in another way, kept as what differs and nothing else."""

    kept_in: ClassVar[str]
    """The field of a control that holds those of its kind."""
    id: Id
    name: Name
    differences: Annotated[tuple[Difference, ...], Field(max_length=MAX_DIFFERENCES)] = ()

    @model_validator(mode="after")
    def _paths_differ(self) -> Self:
        paths = [one.path for one in self.differences]
        if len(paths) != len(set(paths)):
            raise ValueError("one thing differs in two ways.")
        return self


class State(Differing):
    """What differs from rest when the control is hovered, pressed, on … One that is made ``of`` others begins as what
    they come to, one after the other."""

    kept_in: ClassVar[str] = "states"
    role: Role = Field("own", title="role")
    """When it is shown. A state made of others is shown when all of them are."""
    of: Annotated[tuple[Id, ...], Field(max_length=4)] = ()

    @model_validator(mode="before")
    @classmethod
    def _with_role(cls, data: Any) -> Any:
        """Give a state of an older file, which has no role, the role that its id says."""
        if not isinstance(data, dict) or "role" in data or data.get("of"):
            return data
        return data | {"role": role_called(str(data.get("id", "")))}

    @model_validator(mode="before")
    @classmethod
    def _of_the_first_form(cls, data: Any) -> Any:
        """States were written with values only once."""
        if not isinstance(data, dict) or "overrides" not in data:
            return data
        rest = {name: value for name, value in data.items() if name != "overrides"}
        return rest | {"differences": [{"kind": "other", **one} for one in data["overrides"]]}


class Edition(Differing):
    """The whole control made otherwise, with all its states: parts, light and how readings drive them."""

    own: ClassVar[tuple[str, ...]] = ()
    """What else of a control it has for itself."""


class SizeEdition(Edition):
    """A size of it besides the regular one."""

    kept_in: ClassVar[str] = "sizes"
    own: ClassVar[tuple[str, ...]] = ("canvas", "touch", "follows")


class DensityEdition(Edition):
    """What it is drawn as where it is delivered at one density; on the same canvas, so that all densities fit each
    other."""

    kept_in: ClassVar[str] = "arts"
    density: Density


class Control(Value):
    """One piece of artwork. ``next_number`` makes the next id, so ids are never used twice."""

    id: Id
    name: Name
    canvas: Canvas = Field(default_factory=Canvas)
    light: Light | None = None
    parts: Annotated[tuple[Part, ...], Field(max_length=MAX_PARTS)] = ()
    states: Annotated[tuple[State, ...], Field(max_length=MAX_STATES)] = ()
    sizes: Annotated[tuple[SizeEdition, ...], Field(max_length=MAX_SIZES)] = ()
    arts: Annotated[tuple[DensityEdition, ...], Field(max_length=MAX_ARTS)] = ()
    readings: Annotated[tuple[Reading, ...], Field(max_length=MAX_READINGS)] = ()
    timing: Timing = Field(default_factory=Timing)
    """Of one state becoming another, where the two have no transition of their own."""
    transitions: Annotated[tuple[Transition, ...], Field(max_length=MAX_TRANSITIONS)] = ()
    touch: Touch | None = Field(None, title="touch area")
    """Where it is touched, when that is not its body; never seen in its picture."""
    follows: Annotated[tuple[Follow, ...], Field(max_length=10)] = ()
    guides: Annotated[tuple[Guide, ...], Field(max_length=MAX_GUIDES)] = ()
    reference: Reference | None = None
    ground: Fill | None = Field(None, title="ground")
    """Its own ground; what takes up a ground's colour takes up this one's."""
    stands: Stands | None = Field(None, title="looked at on")
    """What it stands on when somebody chose that; belongs to the view, and is delivered only when asked."""
    next_number: Annotated[int, Field(ge=1)] = 1
    original: Id | None = None
    """The control of the kit that it follows, but for what was changed in it."""

    @property
    def state_ids(self) -> tuple[str, ...]:
        """Its states by their ids, rest first."""
        return (REST, *(state.id for state in self.states))

    def state_in_role(self, role: Role) -> str | None:
        """Return the first plain state that has a role, by its id; None when none has."""
        return next((one.id for one in self.states if one.role == role and not one.of), None)

    @property
    def size_ids(self) -> tuple[str, ...]:
        """Its sizes by their ids, the regular one first."""
        return (REGULAR, *(size.id for size in self.sizes))

    @property
    def editions(self) -> tuple[Edition, ...]:
        """Its sizes and its arts for densities."""
        return (*self.sizes, *self.arts)

    @property
    def stands_on(self) -> Stands:
        """What was chosen, else its own ground where it has one."""
        return self.stands or ("light" if self.ground is None else "own")

    @model_validator(mode="after")
    def _ids_differ(self) -> Control:
        ids = [part.id for part in self.parts]
        for part in self.parts:
            ids.extend(f"{part.id}/{effect.id}" for effect in part.effects)
        if len(ids) != len(set(ids)):
            raise ValueError("two parts or effects have the same id.")
        return self

    @model_validator(mode="after")
    def _states_are_told_apart(self) -> Control:
        readings = [reading.id for reading in self.readings]
        if len(readings) != len(set(readings)):
            raise ValueError("two readings have the same id.")
        if len(self.state_ids) != len(set(self.state_ids)):
            raise ValueError("two states have the same id.")
        ways = [one.id for one in self.transitions]
        if len(ways) != len(set(ways)):
            raise ValueError("two states have more than one transition.")
        plain = {state.id for state in self.states if not state.of}
        if any(not plain.issuperset(state.of) for state in self.states):
            raise ValueError("a state is made of one that is not there.")
        return self

    @model_validator(mode="after")
    def _editions_are_told_apart(self) -> Control:
        ids = [REGULAR, *(one.id for one in self.editions)]
        if len(ids) != len(set(ids)):
            raise ValueError("two of its sizes and densities have the same id.")
        densities = [one.density for one in self.arts]
        if len(densities) != len(set(densities)):
            raise ValueError("two arts are for the same density.")
        return self

    @model_validator(mode="after")
    def _parts_lie_in_containers(self) -> Control:
        inside = {part.id: part.within for part in self.parts if part.within is not None}
        if not inside:
            return self
        containers = {part.id for part in self.parts if isinstance(part.shape, Container)}
        if not set(inside.values()) <= containers:
            raise ValueError("a part lies in something that cannot hold parts.")
        for part_id in inside:
            here: str | None = part_id
            for _ in range(MAX_DEPTH + 1):
                here = inside.get(here) if here else None
            if here is not None:
                raise ValueError(f"parts lie in each other more than {MAX_DEPTH} deep, or in a circle.")
        return self

    @model_validator(mode="after")
    def _touch_can_be_read(self) -> Control:
        if isinstance(self.touch, TouchesOutline):
            try:
                read_again(self.touch.data)
            except BadDocument as error:
                raise ValueError("its touch area cannot be read: it is no outline.") from error
        return self

    @model_validator(mode="after")
    def _can_be_drawn_in_order(self) -> Control:
        check_drawn_in_order(self.parts)
        return self

    @model_validator(mode="after")
    def _follows_have_an_order(self) -> Control:
        if self.follows or any(part.follows for part in self.parts):
            in_order(self.parts, self.follows)
        return self

    @model_validator(mode="after")
    def _points_are_few_enough(self) -> Control:
        paths = [part.shape.contours for part in self.parts if isinstance(part.shape, Path)]
        points = sum(len(contour.knots) for contours in paths for contour in contours)
        if points > MAX_POINTS:
            raise ValueError(f"its paths have {points:,} points together; {MAX_POINTS:,} are the most.")
        return self

    @model_validator(mode="after")
    def _copies_are_few_enough(self) -> Control:
        times = _times_drawn(self.parts)
        drawn = sum(times.values())
        if drawn > MAX_DRAWN:
            raise ValueError(f"its repeats would draw {drawn:,} parts; {MAX_DRAWN:,} are the most. Use fewer copies.")
        painted = sum(times[part.id] * len(part.effects) for part in self.parts)
        if painted > MAX_PAINTED:
            raise ValueError(f"its parts and copies would have {painted:,} effects; {MAX_PAINTED:,} are the most.")
        return self


def _times_drawn(parts: tuple[Part, ...]) -> dict[str, int]:
    """How often each part is drawn, by its id."""
    by_id = {part.id: part for part in parts}
    times: dict[str, int] = {}
    for part in parts:
        count, here = 1, part
        while here.within in by_id:
            here = by_id[here.within]
            if isinstance(here.shape, Repeat):
                count *= 2 if here.shape.way == "mirrored" else here.shape.count
        times[part.id] = count
    return times


class Swatch(Value):
    """A named colour of the kit and the role it plays."""

    id: Id
    name: Name
    colour: Hex
    role: Annotated[str, Field(max_length=40)] = ""
    like: Id | None = None
    """The swatch that it is the same as; its own colour is what it was, or will be without it."""


class Colourway(Value):
    """Other colours for the kit's swatches, by their id."""

    id: Id
    name: Name
    colours: dict[Id, Hex] = Field(default_factory=dict)


class Material(Value):
    """A named stack of effects. Lengths are shares of what it was made for, a part whose ``extent`` is that
    many px, but those in ``fixed``, as effect id and path, which stay px at every size."""

    id: Id
    name: Name
    effects: Annotated[tuple[AnyEffect, ...], Field(max_length=MAX_EFFECTS)]
    extent: Annotated[float, Field(gt=0, le=4096)]
    fixed: Annotated[tuple[str, ...], Field(max_length=2000)] = ()


class KitGradient(Value):
    """A gradient kept in the kit under a name."""

    id: Id
    name: Name
    fill: Annotated[Handled, Field(discriminator="kind")]


class KitFont(Value):
    """A font brought into the kit."""

    file: FileId
    name: Name


class KitSettings(Value):
    """What the controls of a kit share."""

    id: Id
    name: Name
    light: Light = Field(default_factory=Light)
    fit: Fit = Field("sides", title="edges fitted to pixels")
    swatches: Annotated[tuple[Swatch, ...], Field(max_length=200)] = ()
    colourways: Annotated[tuple[Colourway, ...], Field(max_length=40)] = ()
    fonts: Annotated[tuple[KitFont, ...], Field(max_length=100)] = ()
    materials: Annotated[tuple[Material, ...], Field(max_length=300)] = ()
    gradients: Annotated[tuple[KitGradient, ...], Field(max_length=300)] = ()
    favourites: Annotated[tuple[Name, ...], Field(max_length=100)] = ()
    """Fonts, by their stored names, that are offered first."""
    panels: Annotated[tuple[Panel, ...], Field(max_length=MAX_PANELS)] = ()


class Kit(KitSettings):
    """A kit as one file."""

    schema_version: Literal[1] = 1
    controls: Annotated[tuple[Control, ...], Field(max_length=MAX_CONTROLS)] = ()
    files: Annotated[dict[FileId, Annotated[str, Field(max_length=MAX_FILE_TEXT)]], Field(max_length=1000)] = Field(
        default_factory=dict
    )
    """Pictures and fonts that its documents refer to, in Base64 (RFC 4648, section 4)."""

    @field_validator("controls")
    @classmethod
    def _ids_differ(cls, controls: tuple[Control, ...]) -> tuple[Control, ...]:
        if len({control.id for control in controls}) != len(controls):
            raise ValueError("two controls have the same id.")
        return controls

    def settings(self) -> KitSettings:
        """The kit without its controls."""
        fields = KitSettings.model_fields
        return KitSettings(**{name: getattr(self, name) for name in fields})
