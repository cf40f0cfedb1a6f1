"""Field types that carry what the sheet needs to know: unit, step, range, title.

A number is annotated with ``Live``; the sheet, the command line's help and the JSON Schema are all
made from it, so no effect and no part kind describes its fields a second time.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Any, Literal, get_args

from pydantic import AfterValidator, BeforeValidator, Field
from pydantic.fields import FieldInfo


@dataclass(frozen=True, slots=True)
class Live:
    """How a number is shown and edited: its unit, the step of one key press, the slider's range.

    ``factor`` is what the stored number is multiplied by for showing (100 for shares in %).
    """

    unit: Literal["px", "°", "%", "ms", "s", "mm", "m", ""] = ""
    step: float = 1.0
    low: float = 0.0
    high: float = 100.0
    factor: float = 1.0


def listed(value: Any) -> Any:
    """Numbers typed one after the other, with spaces or commas between, as numbers; all else as it is."""
    if not isinstance(value, str):
        return value
    try:
        return tuple(float(piece.removesuffix("px")) for piece in value.replace(",", " ").split())
    except ValueError:
        raise ValueError("needs numbers one after the other, such as 2 4 1.") from None


LIMIT_PX = 16384.0
"""Largest coordinate and length of a document, logical px; keeps every product finite."""

MOST_PX = 4096.0
"""Largest length of a document, logical px."""

Length = Annotated[float, Live("px", 1, 0, 40), Field(ge=0, le=MOST_PX)]
"""A length in logical px, 0 or more."""
Size = Annotated[float, Live("px", 1, 1, 400), Field(gt=0, le=MOST_PX)]
"""A length in logical px, more than 0."""
Lengths = Annotated[
    tuple[Annotated[float, Field(ge=0, le=MOST_PX)], ...], BeforeValidator(listed), Field(max_length=30)
]  # fmt: skip
"""Lengths in logical px, one after the other; they can be given as one text."""
Thin = Literal["as typed", "1 device px"]
"""Whether a line is as wide as is typed, or as one device px at every density."""
Mitre = Annotated[float, Live("", 0.5, 1, 20), Field(ge=1, le=100)]
"""How many widths long a mitre is at most."""
Signed = Annotated[float, Live("px", 1, -20, 20), Field(ge=-MOST_PX, le=MOST_PX)]
"""A signed length in logical px."""
Place = Annotated[float, Live("px", 1, -100, 400), Field(ge=-LIMIT_PX, le=LIMIT_PX)]
"""A coordinate in logical px."""
Way = Annotated[float, Live("px", 1, -20, 20), Field(ge=-2 * LIMIT_PX, le=2 * LIMIT_PX)]
"""A distance between two coordinates, logical px."""
Blur = Annotated[float, Live("px", 1, 0, 40), Field(ge=0, le=500)]
"""A CSS blur radius in logical px: twice the Gaussian's standard deviation."""
Angle = Annotated[float, Live("°", 1, -180, 180), Field(ge=-36000, le=36000)]
"""Degrees clockwise from straight up."""
Elevation = Annotated[float, Live("°", 1, 0, 90), Field(ge=0, le=90)]
"""Height of a light above the surface, degrees."""
Share = Annotated[float, Live("%", 0.01, 0, 1, 100), Field(ge=0, le=1)]
"""A share from 0 to 1, shown in %."""
WideShare = Annotated[float, Live("%", 0.01, -0.5, 1.5, 100), Field(ge=-1000, le=1000)]
"""A share of a box that may lie outside it, shown in %."""
Extent = Annotated[float, Live("%", 0.01, 0.05, 1.5, 100), Field(gt=0, le=1000)]
"""A share of a box, more than 0, shown in %."""
MOST_OF_NAME = 80
"""Characters of a name."""
Name = Annotated[str, Field(min_length=1, max_length=MOST_OF_NAME, pattern=r"^[^\x00-\x1f\x7f]+$")]
"""What a person calls something: one line, 1 to 80 characters."""
Called = Annotated[str, Field(max_length=MOST_OF_NAME, pattern=r"^[^\x00-\x1f\x7f]*$")]
"""The same, or nothing, for what has a word of its own without."""
Id = Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,39}$")]
"""A stable identifier."""


@dataclass(frozen=True, slots=True)
class OfPart:
    """Marks a field that names another part."""


PartId = Annotated[Id, OfPart()]
"""The id of another part of the control."""


def names_part(field: FieldInfo) -> bool:
    """Whether a field names another part, always or when it names anything at all."""
    inner = (item for kind in get_args(field.annotation) for item in getattr(kind, "__metadata__", ()))
    return any(isinstance(item, OfPart) for item in (*field.metadata, *inner))


def live_of(metadata: list[Any]) -> Live | None:
    """The ``Live`` among a Pydantic field's metadata; None when it is not a number to edit."""
    return next((item for item in metadata if isinstance(item, Live)), None)


def _of_four_decimals(density: float) -> float:
    if round(density, 4) != density:
        raise ValueError("must have four decimals at most.")
    return density


Density = Annotated[float, Field(ge=0.25, le=8), AfterValidator(_of_four_decimals)]
"""How many device px there are to a logical px of what is delivered."""
