"""What is ordered: which controls, densities, formats, how cut, how named."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from math import lcm
from typing import Annotated, Any

from pydantic import AfterValidator, Field, ValidationError, field_validator

from obrell.core.deliver.names import PATTERN, check_pattern, words_of
from obrell.core.document.model import Control
from obrell.core.document.readings import Readings
from obrell.core.document.resolve import DAY
from obrell.core.errors import Refused
from obrell.core.formats import FORMATS, Options
from obrell.core.values.base import Value, bad_value
from obrell.core.values.fields import Density, Id, Length
from obrell.core.values.readings import Number, Reading


def known(name: str) -> str:
    """The name of a kind of file that there is; else ``ValueError``."""
    if name not in FORMATS:
        raise ValueError(f"“{name}” is not one of {', '.join(FORMATS)}.")
    return name


FormatName = Annotated[str, AfterValidator(known)]
MAX_FRAMES = 256
MAX_PICTURES = 2048
"""Of one control, so that nobody orders them by a slip."""
MAX_STEP = 16
"""Largest logical step a trimmed box may be grown to, px."""


def read_order(values: dict[str, Any]) -> Order:
    """An order from plain values; raises ``BadValue`` in words."""
    try:
        return Order.model_validate(values)
    except ValidationError as error:
        raise bad_value(error, Order) from error


class Stretch(Value):
    """The part of a reading that pictures are made of, from one number to another; where one is not said, from or to
    its own end."""

    reading: Id
    start: Number | None = Field(None, title="from")
    end: Number | None = Field(None, title="to")


class Order(Value):
    """A delivery as it is asked for. ``controls`` is empty for all of the kit."""

    controls: tuple[Id, ...] = Field((), title="controls")
    densities: Annotated[tuple[Density, ...], Field(min_length=1, max_length=12)] = Field(
        (1.0, 1.5, 2.0, 3.0), title="densities"
    )
    formats: Annotated[tuple[FormatName, ...], Field(min_length=1)] = Field(tuple(FORMATS), title="formats")
    colourways: Annotated[tuple[Id, ...], Field(min_length=1, max_length=41)] = Field((DAY,), title="colourways")
    states: Annotated[tuple[Id, ...], Field(max_length=400)] = Field((), title="states")
    """Those that are delivered of controls which have them, ``rest`` among them perhaps; none for all of them."""
    sizes: Annotated[tuple[Id, ...], Field(max_length=400)] = Field((), title="sizes")
    """Those that are delivered of controls which have them, ``regular`` among them perhaps; none for all of them."""
    frames: Annotated[int, Field(ge=1, le=MAX_FRAMES)] = Field(1, title="frames")
    """How many pictures are made of each reading, from one end to the other; one: as it begins."""
    stretches: Annotated[tuple[Stretch, ...], Field(max_length=400)] = Field((), title="stretches")
    """Where those are of a part of a reading only."""
    trimmed: bool = Field(False, title="cut")
    margin: Length = Field(0.0, title="margin")
    ground: bool = Field(False, title="ground")
    """Whether the files show what the control stands on."""
    options: tuple[str, ...] = Field((), title="options")
    """Switches of formats that are on, such as ``svg.fitted``."""
    pattern: str = Field(PATTERN, title="names")

    @field_validator("densities")
    @classmethod
    def _sorted(cls, densities: tuple[float, ...]) -> tuple[float, ...]:
        return tuple(sorted(set(densities)))

    @field_validator("colourways")
    @classmethod
    def _each_once(cls, colourways: tuple[str, ...]) -> tuple[str, ...]:
        return tuple(dict.fromkeys(colourways))

    @field_validator("pattern")
    @classmethod
    def _safe(cls, pattern: str) -> str:
        return check_pattern(pattern)

    @field_validator("options")
    @classmethod
    def _known_options(cls, options: tuple[str, ...]) -> tuple[str, ...]:
        there = [f"{name}.{field}" for name, form in FORMATS.items() for field in form.options.model_fields]
        for one in options:
            if one not in there:
                raise ValueError(f"“{one}” is not one of {', '.join(there)}.")
        return options

    def states_of(self, control: Control) -> tuple[str, ...]:
        """The states of a control that are ordered, rest first, by their ids."""
        there = control.state_ids
        return tuple(name for name in there if not self.states or name in self.states)

    def sizes_of(self, control: Control) -> tuple[str, ...]:
        """The sizes of a control that are ordered, the regular one first, by their ids."""
        return tuple(name for name in control.size_ids if not self.sizes or name in self.sizes)

    def count_of(self, control: Control) -> int:
        """How many files of a control are ordered, readings where they begin."""
        forms = sum(1 if FORMATS[form].scalable else len(self.densities) for form in self.formats)
        return forms * len(self.sizes_of(control)) * len(self.states_of(control)) * len(self.colourways)

    def several(self, control: Control) -> Iterator[str]:
        """What files of a control differ by besides density and format, as the words of a name pattern."""
        counts = {
            "size": len(self.sizes_of(control)), "colourway": len(self.colourways),
            "state": len(self.states_of(control)), "frame": self.frames if control.readings else 1,
        }  # fmt: skip
        return (word for word, count in counts.items() if count > 1)

    def readings_of(self, control: Control) -> tuple[tuple[str, Readings], ...]:
        """What readings are at in each picture of a control, and the word for it in names; empty where they begin.
        Raises ``Refused`` for too many of them."""
        if self.frames == 1 or not control.readings:
            return (("", ()),)
        looks = len(self.states_of(control)) * len(self.colourways) * len(self.sizes_of(control))
        count = self.frames * len(control.readings) * looks * len(self.densities)
        if count > MAX_PICTURES:
            raise Refused(
                f"That would be {count:,} pictures of “{control.name}”; {MAX_PICTURES:,} are the most. "
                "Ask for fewer frames, states, sizes or densities."
            )
        wide, words = len(str(self.frames - 1)), words_of((one.id, one.name) for one in control.readings)
        return tuple(
            (f"{words[one.id]}-{frame:0{wide}d}", ((one.id, start + (end - start) * frame / (self.frames - 1)),))
            for one in control.readings
            for start, end in (self._ends(one),)
            for frame in range(self.frames)
        )

    def _ends(self, reading: Reading) -> tuple[float, float]:
        own = next((one for one in self.stretches if one.reading == reading.id), Stretch(reading=reading.id))
        return reading.start if own.start is None else own.start, reading.end if own.end is None else own.end

    def options_of(self, form: str) -> Options:
        """What is asked of a format."""
        own = [one.partition(".")[2] for one in self.options if one.startswith(f"{form}.")]
        return FORMATS[form].options(**dict.fromkeys(own, True))

    def step(self) -> int:
        """The smallest logical length that is a whole number of device pixels at every density."""
        fractions = [Fraction(density).limit_denominator(1000) for density in self.densities]
        step = lcm(*(fraction.denominator for fraction in fractions))
        if step > MAX_STEP:
            raise Refused(
                "No trimmed box is a whole number of pixels at all of these densities. "
                "Deliver the whole canvas, or use densities such as 1, 1.25, 1.5 or 2."
            )
        return step
