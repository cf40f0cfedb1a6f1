"""Panels of Trial: simulated screens, what belongs to them, and the controls that stand on them.

All lengths are logical px of the panel, whose origin is the screen's top left.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator

from obrell.core.values.base import Value
from obrell.core.values.colours import Colour
from obrell.core.values.fields import Id, Live, Name, Place, Size
from obrell.core.values.paints import Fill, Linear, Stop
from obrell.core.values.sources import Source
from obrell.core.values.transitions import Milliseconds

MAX_PANELS = 40
MAX_PLACEMENTS = 500
MAX_FIXTURES = 120
MAX_SOURCES = 24
MAX_SIZE = 4096.0
"""Of a side, logical px."""
Behaviour = Literal[
    "momentary", "toggle", "one of a group", "hold to confirm", "knob", "slider", "lamp", "meter", "counter",
]  # fmt: skip
"""What a control does when it is operated."""
Grasp = Literal["around its centre", "by up and down"]
"""How a knob is turned."""
PanelSize = Annotated[float, Live("px", 1, 100, 2000), Field(ge=16, le=MAX_SIZE)]
PanelDensity = Annotated[float, Live("", 0.5, 1, 3), Field(ge=0.5, le=4)]
Millimetres = Annotated[float, Live("mm", 1, 40, 600), Field(gt=0, le=10_000)]
Words = Annotated[str, Field(max_length=400, pattern=r"^[^\x00-\x09\x0b-\x1f\x7f]*$")]
FIXTURES = {
    "title": "title", "text": "words", "rule": "rule", "block": "block", "field": "field", "button": "plain button"
}  # fmt: skip
"""What each kind of what a screen itself shows is called."""
MOST_SAID = 40
"""Letters of its words that stand in the name of something that a screen shows."""
STEEL = Linear(stops=(Stop(position=0, colour="#eceae2"), Stop(position=1, colour="#d3d4cc")))
"""What a new panel's ground is."""


class Fixture(Value):
    """Something of the screen itself that is no control: words of a page, a rule, a block, a field to type in, or a
    plain button."""

    id: Id
    kind: Literal["title", "text", "rule", "block", "field", "button"] = "text"
    x: Place = Field(0.0, title="across")
    y: Place = Field(0.0, title="down")
    width: Size = Field(120.0, title="width")
    height: Size = Field(32.0, title="height")
    words: Words = Field("", title="words")
    colour: Colour = Field("#1f2a30", title="colour")

    @property
    def name(self) -> str:
        """What it is and says, as the sheet and the list of what was done call it."""
        words = " ".join(self.words.split())
        said = words if len(words) <= MOST_SAID else f"{words[: MOST_SAID - 1]}…"
        return f"{FIXTURES[self.kind]} “{said}”" if said else FIXTURES[self.kind]


class Placement(Value):
    """A control on a panel: its canvas' top left at a place, with words, numbers, a size and a colourway of its own
    where they are not those that the control has."""

    id: Id
    control: Id
    x: Place = Field(0.0, title="across")
    y: Place = Field(0.0, title="down")
    size: Id | None = Field(None, title="size")
    colourway: Id | None = Field(None, title="colourway")
    words: Annotated[dict[Id, Words], Field(max_length=40)] = Field(default_factory=dict, title="words")
    """By the id of the part that shows them."""
    numbers: Annotated[dict[Id, float], Field(max_length=12)] = Field(default_factory=dict, title="numbers")
    """What readings begin at, by their ids."""
    on: bool = Field(False, title="on")
    disabled: bool = Field(False, title="disabled")
    acts: Behaviour | None = Field(None, title="acts as")
    """None lets the control's own states and readings say it."""
    group: Annotated[str, Field(max_length=40)] = Field("", title="group")
    """Of those of one group, one is on."""
    hold: Milliseconds = Field(800.0, title="held for")
    grasp: Grasp = Field("around its centre", title="turned")


class Panel(Value):
    """A simulated screen."""

    id: Id
    name: Name
    width: PanelSize = Field(600.0, title="width")
    height: PanelSize = Field(600.0, title="height")
    density: PanelDensity = Field(1.0, title="density")
    """Device px of the simulated screen per logical px."""
    across: Millimetres = Field(150.0, title="width of the screen")
    ground: Fill = Field(STEEL, title="ground")
    bezel: bool = Field(True, title="bezel")
    fixtures: Annotated[tuple[Fixture, ...], Field(max_length=MAX_FIXTURES)] = ()
    placements: Annotated[tuple[Placement, ...], Field(max_length=MAX_PLACEMENTS)] = ()
    """Back to front."""
    sources: Annotated[tuple[Source, ...], Field(max_length=MAX_SOURCES)] = ()
    next_number: Annotated[int, Field(ge=1)] = 1

    @field_validator("fixtures", "placements", "sources")
    @classmethod
    def _ids_differ(cls, some: tuple[Fixture | Placement | Source, ...]) -> tuple[Fixture | Placement | Source, ...]:
        if len({one.id for one in some}) != len(some):
            raise ValueError("two of them have the same id.")
        return some

    @property
    def millimetre(self) -> float:
        """Logical px of a millimetre of the screen."""
        return self.width / self.across
