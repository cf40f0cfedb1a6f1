"""Pieces that move, ready to be drawn on: nothing but parts, with a reading or a state."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from obrell.core.colour.links import literal
from obrell.core.colour.steps import lighter
from obrell.core.document.differing import as_json
from obrell.core.document.model import Control, Part
from obrell.core.document.numbering import next_number
from obrell.core.edit.base import Surroundings, add_parts
from obrell.core.edit.drawing import first_colour
from obrell.core.edit.readings import AddReading
from obrell.core.edit.starts import Start, StartState, with_literal
from obrell.core.edit.states import AddState, InStates, OfStates
from obrell.core.edit.values import Change, SetValues
from obrell.core.effects import Bevel, DropShadow, InnerShadow, OuterGlow, Outline, Paint
from obrell.core.effects.offsets import Cast
from obrell.core.errors import Refused
from obrell.core.shapes import Box, Group, Ring, Round, Shape, Text
from obrell.core.shelf.making import drop, inner, numbered, paint
from obrell.core.values.colours import Colour, SwatchLink
from obrell.core.values.paints import Solid
from obrell.core.values.readings import Drive

PieceName = Literal["button", "knob", "slider", "toggle", "meter", "lamp"]
TURN = 135.0
"""How far a knob turns to either side, degrees."""
LEAST_PX = 16.0
USUAL = "#2a7f86"
"""The colour where the kit has no main one."""
DARK, DEEP, PALE, STEEL = "#232b2e", "#10222a", "#f4f3ef", "#9b9a94"
OFF = "#7d878b"


class BeginPiece(OfStates):
    """A piece as large as the canvas has room for, in front of all, in the kit's main colour."""

    kind: Literal["begin-piece"] = "begin-piece"
    piece: PieceName

    def apply(self, control: Control, around: Surroundings) -> Control:
        canvas = control.canvas
        width, height = (side - 2 * canvas.margin for side in (canvas.width, canvas.height))
        if min(width, height) < LEAST_PX:
            raise Refused(f"Within the margin there is less room than {LEAST_PX:g} px. Make the canvas larger.")
        room = Room(canvas.width / 2, canvas.height / 2, width, height, _main(around), around)
        return _put(control, MAKERS[self.piece](room), around)

    def label(self, control: Control) -> str:
        return f"Began a {self.piece}"


@dataclass(frozen=True, slots=True)
class Room:
    """The middle of the canvas, how much room there is around it, and the colour of what is lit."""

    x: float
    y: float
    width: float
    height: float
    colour: Colour
    around: Surroundings

    def toned(self, lightness: float) -> Colour:
        """The colour so much lighter in OKLCH, or darker."""
        return with_literal(self.colour, lighter(lightness), self.around)

    def lit(self) -> Paint:
        """What is lit, from above."""
        return paint((0, self.toned(0.14)), (1, self.colour))


@dataclass(frozen=True, slots=True)
class Piece:
    """Parts back to front; what a reading drives of them, and what is otherwise when it is on: the number of a part, a
    path below it, and values."""

    parts: tuple[Part, ...]
    drives: tuple[tuple[int, str, Any, Any], ...] = ()
    format: tuple[int, str] | None = None
    on: tuple[tuple[int, str, Any], ...] = ()
    states: tuple[Start, ...] = ()
    """Usual states that it gets."""


def _main(around: Surroundings) -> Colour:
    found = next((one.id for one in around.swatches if one.role == "main"), None)
    return USUAL if found is None else SwatchLink(swatch=found)


def _put(control: Control, piece: Piece, around: Surroundings) -> Control:
    first = next_number(control)
    names = [f"p{first + number}" for number in range(len(piece.parts))]
    parts = tuple(part.evolve(id=f"s{number}") for number, part in enumerate(piece.parts, start=1))
    made = add_parts(control, parts)
    if piece.drives:
        made = AddReading(name="Value").apply(made, around)
        drives = [Drive(path=f"parts/{names[n]}/{path}", start=start, end=end) for n, path, start, end in piece.drives]
        if piece.format:
            number, words = piece.format
            drives.append(Drive(path=f"parts/{names[number]}/shape/words", format=words))
        reading = made.readings[-1].evolve(drives=tuple(drives), value=40.0)
        made = made.evolve(readings=(*made.readings[:-1], reading))
    made = _with_on(made, [(f"parts/{names[n]}/{path}", value) for n, path, value in piece.on], around)
    for start in piece.states:
        made = StartState(start=start, parts=(names[0],)).apply(made, around)
    return made


def _with_on(control: Control, values: Sequence[tuple[str, Any]], around: Surroundings) -> Control:
    if not values:
        return control
    made = AddState(name="On").apply(control, around)
    edit = SetValues(changes=tuple(Change(path=path, value=as_json(value)) for path, value in values))
    return InStates(states=(made.states[-1].id,), edit=edit).apply(made, around)


def _button(room: Room) -> Piece:
    height = min(room.height, max(LEAST_PX, room.width * 0.4))
    label = Text(words="Label", size=round(min(height * 0.38, room.width * 0.28), 1), align="middle")
    colour = first_colour(label, literal(room.colour, room.around.palette), room.around)
    return Piece(
        (
            _part("Body", Box(width=room.width, height=height, radius=round(height * 0.2, 1)), room,
                  _falling(max(1.0, height * 0.05)), room.lit(), inner(1, 0, 0.5, "#ffffff")),
            _part("Label", label, room, paint((0, colour))),
        ),
        states=("hover", "pressed", "focus", "disabled"),
    )  # fmt: skip


def _knob(room: Room) -> Piece:
    radius = min(room.width, room.height) / 2
    band, wide = max(2.0, radius * 0.12), max(2.0, radius * 0.1)
    start, reach = math.radians(-TURN), radius * 0.42
    hand = (room.x + reach * math.sin(start), room.y - reach * math.cos(start))
    return Piece(
        (
            _part("Channel", Ring(outer=radius, inner=radius - band), room, paint((0, DARK)), _sunk(1.5, 3)),
            _part("Level", Ring(outer=radius - band * 0.2, inner=radius - band * 0.8, start=360 - TURN, sweep=1,
                                ends="round"), room, room.lit()),
            _part("Knob", Round(width=radius * 1.5, height=radius * 1.5), room, _falling(radius * 0.1),
                  paint((0, PALE), (1, STEEL)), Bevel(id="e0", width=max(2.0, radius * 0.08), rise=3)),
            _part("Hand", Group(), room, rotation=-TURN),
            _part("Pointer", Box(width=wide, height=radius * 0.36, radius=wide / 2), room, paint((0, room.colour)),
                  at=hand, rotation=-TURN, within="s4"),
        ),
        ((3, "rotation", -TURN, TURN), (1, "shape/sweep", 1, 2 * TURN)),
    )  # fmt: skip


def _slider(room: Room) -> Piece:
    thumb = min(room.height, 28.0)
    groove, left = max(4.0, thumb * 0.3), room.x - room.width / 2
    first, last = thumb / 2, room.width - thumb / 2
    return Piece(
        (
            _part("Groove", Box(width=room.width, height=groove, radius=groove / 2), room, paint((0, DARK)),
                  _sunk(1, 2)),
            _part("Fill", Box(width=first, height=groove, radius=groove / 2), room, room.lit(),
                  at=(left + first / 2, room.y)),
            _part("Thumb", Round(width=thumb, height=thumb), room, _falling(3), paint((0, PALE), (1, STEEL)),
                  Bevel(id="e0", width=max(2.0, thumb * 0.1), rise=2), at=(left + first, room.y)),
        ),
        (
            (1, "shape/width", first, last), (1, "x", left + first / 2, left + last / 2),
            (2, "x", left + first, left + last),
        ),
    )  # fmt: skip


def _toggle(room: Room) -> Piece:
    height = min(room.height, room.width / 1.9, 60.0)
    width, thumb = height * 1.9, height * 0.8
    away = (width - height) / 2
    return Piece(
        (
            _part("Track", Box(width=width, height=height, radius=height / 2), room, paint((0, OFF)),
                  _sunk(height * 0.05, 4)),
            _part("Thumb", Round(width=thumb, height=thumb), room, _falling(height * 0.06),
                  paint((0, "#ffffff"), (1, PALE)), Bevel(id="e0", width=2, rise=1.5), at=(room.x - away, room.y)),
        ),
        on=((0, "effects/e1/fill/colour", room.colour), (1, "x", room.x + away)),
    )  # fmt: skip


def _meter(room: Room) -> Piece:
    height = min(room.height, max(14.0, room.width / 5))
    rim = max(2.0, height * 0.12)
    whole, left = room.width - 2 * rim, room.x - room.width / 2 + rim
    return Piece(
        (
            _part("Frame", Box(width=room.width, height=height, radius=height * 0.2), room, paint((0, DARK)),
                  _sunk(2, 4)),
            _part("Fill", Box(width=2, height=height - 2 * rim, radius=height * 0.1), room, room.lit(),
                  at=(left + 1, room.y)),
            _part("Number", Text(words="0", size=round(height * 0.5, 1), align="middle"), room,
                  DropShadow(id="e0", offset=Cast(distance=1), blur=2, opacity=0.6), paint((0, "#ffffff"))),
        ),
        ((1, "shape/width", 2, whole), (1, "x", left + 1, left + whole / 2)), format=(2, "{} %"),
    )  # fmt: skip


def _lamp(room: Room) -> Piece:
    size = min(room.width, room.height)
    shine = Solid(colour=room.toned(0.2))
    glow = OuterGlow(id="e0", extent=max(4.0, size * 0.16), opacity=0.6, fill=shine, visible=False)
    lens = paint((0, room.toned(-0.22)), (1, room.toned(-0.12)))
    bright = (room.toned(0.02), room.toned(0.24))
    return Piece(
        (
            _part("Seat", Round(width=size, height=size), room, glow, _falling(size * 0.06),
                  paint((0, PALE), (1, STEEL)), Bevel(id="e0", width=max(2.0, size * 0.06), rise=2.5)),
            _part("Lens", Round(width=size * 0.72, height=size * 0.72), room, lens, _sunk(size * 0.03, size * 0.08),
                  Outline(id="e0", width=1, fill=Solid(colour=DARK))),
        ),
        on=(
            (0, "effects/e1/visible", True),
            *((1, f"effects/e1/fill/stops/{number}/colour", colour) for number, colour in enumerate(bright)),
        ),
    )  # fmt: skip


MAKERS: dict[str, Callable[[Room], Piece]] = {
    "button": _button, "knob": _knob, "slider": _slider, "toggle": _toggle, "meter": _meter, "lamp": _lamp,
}  # fmt: skip


def _part(
    name: str, shape: Shape, room: Room, *effects: Any, at: tuple[float, float] | None = None, **values: Any
) -> Part:  # fmt: skip
    """A part in the middle, or at a place, its effects numbered as they come."""
    x, y = at or (room.x, room.y)
    return Part(id="s0", name=name, shape=shape, x=x, y=y, effects=numbered(effects), **values)


def _falling(depth: float) -> DropShadow:
    return drop(depth, depth * 2, 0.4, DEEP)


def _sunk(depth: float, blur: float) -> InnerShadow:
    return inner(depth, blur, 0.6, DEEP)
