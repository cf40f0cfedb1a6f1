"""Pictures put on the canvas, and pinned to it as a reference."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from obrell.core.document.model import Control, Part, Reference
from obrell.core.document.value_paths import value_at
from obrell.core.edit.base import Edit, Surroundings, add_parts
from obrell.core.edit.parts import fresh_name
from obrell.core.edit.values import Change, SetValues
from obrell.core.files import FileId
from obrell.core.raster.samples import size_of
from obrell.core.shapes import Picture
from obrell.core.values import paints
from obrell.core.values.fields import Name, Place


class AddPicture(Edit):
    """A picture as a part, a px of it as one logical px but no larger than the canvas, in front of all; its
    middle at (x, y), or on the canvas's."""

    kind: Literal["add-picture"] = "add-picture"
    file: FileId
    name: Name = "Picture"
    x: Place | None = None
    y: Place | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        canvas, (wide, high) = control.canvas, size_of(self.file)
        factor = min(1.0, canvas.width / wide, canvas.height / high)
        shape = Picture(file=self.file, width=max(1.0, wide * factor), height=max(1.0, high * factor))
        x = canvas.width / 2 if self.x is None else self.x
        y = canvas.height / 2 if self.y is None else self.y
        return add_parts(control, [Part(id="p0", name=fresh_name(control, self.name), shape=shape, x=x, y=y)])

    def label(self, control: Control) -> str:
        return f"Put in the picture {self.name}"


class FillWithPicture(Edit):
    """A picture as the fill at a path; one that is a picture already goes on lying as it did."""

    kind: Literal["fill-with-picture"] = "fill-with-picture"
    path: Annotated[str, Field(min_length=1, max_length=300)]
    file: FileId

    def apply(self, control: Control, around: Surroundings) -> Control:
        return self._set(control).apply(control, around)

    def label(self, control: Control) -> str:
        return self._set(control).label(control)

    def _set(self, control: Control) -> SetValues:
        size_of(self.file)
        if isinstance(value_at(control, self.path), paints.Picture):
            return SetValues(changes=(Change(path=f"{self.path}/file", value=self.file),))
        filled = {"kind": "picture", "file": self.file, "fit": "filling"}
        return SetValues(changes=(Change(path=self.path, value=filled),))


class PinReference(Edit):
    """A picture pinned under the art, as wide as the canvas; instead of the one that is there."""

    kind: Literal["pin-reference"] = "pin-reference"
    file: FileId

    def apply(self, control: Control, around: Surroundings) -> Control:
        return control.evolve(reference=Reference(file=self.file, width=control.canvas.width))

    def label(self, control: Control) -> str:
        return "Pinned a reference picture"


class PlaceReference(Edit):
    """The reference laid beside the canvas, or on it."""

    kind: Literal["place-reference"] = "place-reference"
    beside: bool = Field(True)

    def apply(self, control: Control, around: Surroundings) -> Control:
        if control.reference is None:
            return control
        x = control.canvas.width + control.canvas.margin if self.beside else 0.0
        return control.evolve(reference=control.reference.evolve(x=x, y=0.0))

    def label(self, control: Control) -> str:
        return f"Laid the reference {'beside' if self.beside else 'on'} the canvas"


class UnpinReference(Edit):
    """The reference picture taken away."""

    kind: Literal["unpin-reference"] = "unpin-reference"

    def apply(self, control: Control, around: Surroundings) -> Control:
        return control.evolve(reference=None)

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return "Took the reference picture away"
