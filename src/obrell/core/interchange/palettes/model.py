"""What files say of swatches."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(slots=True)
class Read:
    """What was read of one swatch: its name, its colour or the key of the one it is like, its role, and the key that
    others in the file call it by; its name where there is none."""

    name: str
    colour: str = ""
    like: str = ""
    role: str = ""
    key: str = ""


@dataclass(slots=True)
class Palette:
    """What a file says: swatches in order, and colours of colourways by their names and the keys of swatches."""

    swatches: list[Read] = field(default_factory=list)
    colourways: dict[str, dict[str, str]] = field(default_factory=dict)
