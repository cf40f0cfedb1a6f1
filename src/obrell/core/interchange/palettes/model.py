"""What files say of swatches."""

from __future__ import annotations

from dataclasses import dataclass, field

MOST_NAMED = 3


@dataclass(slots=True)
class Read:
    """What was read of one swatch: its name, its colour or the key of the one it is like, its role, and the key that
    others in the file call it by; its name where there is none."""

    name: str
    colour: str = ""
    like: str = ""
    role: str = ""
    key: str = ""
    opacity: float = 1.0
    """0 to 1; swatches are opaque."""


@dataclass(slots=True)
class Palette:
    """What a file says: swatches in order, and colours of colourways by their names and the keys of swatches."""

    swatches: list[Read] = field(default_factory=list)
    colourways: dict[str, dict[str, str]] = field(default_factory=dict)
    remarks: list[str] = field(default_factory=list)
    """What is not brought in, in sentences."""

    def check(self) -> None:
        """Leave out what points to nothing, and remark on that and on opacities."""
        keys = {one.key or one.name for one in self.swatches}
        lost = [one for one in self.swatches if not one.colour and one.like not in keys]
        self.swatches = [one for one in self.swatches if one not in lost]
        faint = [f"“{one.name}”" for one in self.swatches if one.opacity < 1]
        self.remarks += [f"Left out “{one.name}”: it points to “{one.like}”, which is not in the file" for one in lost]
        if faint:
            more = f" and {len(faint) - MOST_NAMED} more" if len(faint) > MOST_NAMED else ""
            self.remarks.append(
                f"Swatches are opaque: the opacity of {', '.join(faint[:MOST_NAMED])}{more} was left out"
            )
