"""What belongs to a simulated screen itself, as a control: its ground, words, fields and plain buttons."""

from __future__ import annotations

from collections.abc import Iterator

from obrell.core.document.measures import ink_on_canvas
from obrell.core.document.model import Canvas, Control, Part
from obrell.core.effects import DropShadow, Outline, Paint
from obrell.core.effects.offsets import Cast
from obrell.core.geometry.plane import Rect
from obrell.core.shapes import Box, Text
from obrell.core.values.colours import Colour
from obrell.core.values.paints import Linear, Solid, Stop
from obrell.core.values.panels import Fixture, Panel

PAPER, INK, LINE = "#ffffff", "#1f2a30", "#9aa2a3"
TITLE_PX, TEXT_PX = 20.0, 14.0
FIELD_INSET = 10.0
BUTTON = Linear(stops=(Stop(position=0, colour="#fbfaf6"), Stop(position=1, colour="#e3e0d6")))


def screen_of(panel: Panel) -> Control:
    """The screen without the controls that stand on it, of the panel's size in logical px."""
    canvas = Canvas(width=panel.width, height=panel.height, margin=0)
    ground = Part(
        id="ground", name="Ground", shape=Box(width=panel.width, height=panel.height),
        x=panel.width / 2, y=panel.height / 2, effects=(Paint(id="e1", fill=panel.ground),),
    )  # fmt: skip
    parts = tuple(part for fixture in panel.fixtures for part in _parts(fixture))
    return Control(id="screen", name=panel.name, canvas=canvas, parts=(ground, *parts))


def place_of(screen: Control, fixture: Fixture) -> Rect:
    """Where something of a screen is seen, logical px: a line of words where they are, all else in its box."""
    words = next((part for part in screen.parts if part.id == f"{fixture.id}-words"), None)
    if fixture.kind in ("title", "text") and words is not None:
        return ink_on_canvas(words)
    return Rect(fixture.x, fixture.y, fixture.x + fixture.width, fixture.y + fixture.height)


def _parts(fixture: Fixture) -> Iterator[Part]:
    if fixture.kind in ("title", "text"):
        yield from _line(fixture, fixture.x, TITLE_PX if fixture.kind == "title" else TEXT_PX)
        return
    effects = {
        "rule": (Paint(id="e1", fill=Solid(colour=fixture.colour)),),
        "block": (Paint(id="e1", fill=Solid(colour=fixture.colour)),),
        "field": (Paint(id="e1", fill=Solid(colour=PAPER)), Outline(id="e2", width=1, fill=Solid(colour=LINE))),
        "button": (
            DropShadow(id="e1", offset=Cast(distance=1), blur=2, colour=INK, opacity=0.2),
            Paint(id="e2", fill=BUTTON), Outline(id="e3", width=1, fill=Solid(colour=LINE)),
        ),
    }[fixture.kind]  # fmt: skip
    radius = {"rule": 0.0, "block": 10.0, "field": 4.0, "button": 6.0}[fixture.kind]
    box = Box(width=fixture.width, height=fixture.height, radius=min(radius, fixture.height / 2, fixture.width / 2))
    middle_x, middle_y = fixture.x + fixture.width / 2, fixture.y + fixture.height / 2
    yield Part(id=f"{fixture.id}-box", name=fixture.kind.title(), shape=box, x=middle_x, y=middle_y, effects=effects)
    if fixture.kind == "field":
        yield from _line(fixture, fixture.x + FIELD_INSET, TEXT_PX)
    elif fixture.kind == "button" and fixture.words:
        yield _text(fixture, middle_x, TEXT_PX, 560, "middle")


def _line(fixture: Fixture, x: float, size: float) -> Iterator[Part]:
    if fixture.words:
        yield _text(fixture, x, size, 700 if fixture.kind == "title" else 450, "start")


def _text(fixture: Fixture, x: float, size: float, weight: float, align: str) -> Part:
    shape = Text.model_validate({"words": fixture.words, "size": size, "weight": weight, "align": align})
    y = fixture.y + fixture.height / 2
    colour: Colour = fixture.colour
    paint = Paint(id="e1", fill=Solid(colour=colour))
    return Part(id=f"{fixture.id}-words", name="Words", shape=shape, x=x, y=y, effects=(paint,))
