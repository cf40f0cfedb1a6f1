"""What differs from rest in a state, one thing each, by its path below the control."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from obrell.core.values.base import Value
from obrell.core.values.fields import LIMIT_PX, Id
from obrell.core.values.plain import Plain

MAX_DIFFERENCES = 4000
Where = Annotated[str, Field(min_length=1, max_length=300)]
By = Annotated[float, Field(ge=-2 * LIMIT_PX, le=2 * LIMIT_PX)]


class Differs(Value):
    """Base of them. No two of a state have one path."""

    path: Where

    @property
    def id(self) -> str:
        """What tells it apart from the others of its state."""
        return self.path


class Other(Differs):
    """Another value than at rest."""

    kind: Literal["other"] = "other"
    value: Plain


class Moved(Differs):
    """A place that lies so many px from where it is at rest, wherever that comes to be."""

    kind: Literal["moved"] = "moved"
    by: By


class Gone(Differs):
    """A part or an effect that is there at rest only."""

    kind: Literal["gone"] = "gone"


class Extra(Differs):
    """A part or an effect that is not there at rest, right in front of another, or behind all."""

    kind: Literal["extra"] = "extra"
    value: Plain
    after: Id | None = None


class Order(Differs):
    """Another order of parts, or of a part's effects; what it does not name stays behind what it is behind at rest."""

    kind: Literal["order"] = "order"
    order: Annotated[tuple[Id, ...], Field(max_length=1000)]


Difference = Annotated[Other | Moved | Gone | Extra | Order, Field(discriminator="kind")]


def is_below(one: Differs, path: str | None) -> bool:
    """Whether a thing that differs is at a path or below it; all are below none. Another order of parts or effects is
    not one of what they are."""
    if path is None or one.path == path:
        return True
    of_an_order = path.rpartition("/")[2] in ("parts", "effects")
    return not of_an_order and one.path.startswith(f"{path}/")
