"""Lists of colours as plain text: names with hexadecimal digits, and palettes.

A palette is our own, for people to read and write: a first line ``palette`` and the kit's name, then a line for each
colour, red, green and blue 0 to 255 and its name.
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from obrell.core.colour.spaces import from_hex
from obrell.core.document.model import KitSettings
from obrell.core.document.resolve import palette
from obrell.core.errors import BadDocument
from obrell.core.interchange.palettes.model import Read

_DIGITS = r"(?P<colour>#?[0-9a-fA-F]{6})"
_FIRST = re.compile(rf"^{_DIGITS}[\s,;:=]+(?P<name>.+)$")
_LAST = re.compile(rf"^(?P<name>.+?)[\s,;:=]+{_DIGITS};?$")
_RGB = re.compile(r"^(\d{1,3})\s+(\d{1,3})\s+(\d{1,3})\s+(.+)$")


def names_list(kit: KitSettings) -> str:
    """A line for each swatch: its colour and its name."""
    colours = palette(kit)
    return "".join(f"{colours[one.id]} {one.name}\n" for one in kit.swatches)


def palette_text(kit: KitSettings) -> str:
    """The swatches as a palette in plain text."""
    colours = palette(kit)
    lines = [f"palette {kit.name}"]
    for one in kit.swatches:
        red, green, blue = (round(value * 255) for value in from_hex(colours[one.id]))
        lines.append(f"{red:3d} {green:3d} {blue:3d} {one.name}")
    return "\n".join(lines) + "\n"


def from_lines(text: str) -> Iterator[Read]:
    lines = text.splitlines()
    plain = bool(lines) and lines[0].startswith("palette")
    for number, written in enumerate(lines[1:] if plain else lines, start=2 if plain else 1):
        line = written.strip()
        if not line or line.startswith(("//", "# ")):
            continue
        rgb, listed = _RGB.match(line), _FIRST.match(line) or _LAST.match(line)
        if rgb and all(int(one) <= 255 for one in rgb.groups()[:3]):
            yield Read(rgb[4].strip(), "#" + "".join(f"{int(one):02x}" for one in rgb.groups()[:3]))
        elif listed:
            yield Read(listed["name"].strip(" \"'\t"), f"#{listed['colour'].lstrip('#').lower()}")
        else:
            raise BadDocument(f"Line {number}, “{line[:40]}”, is no colour and name, such as: #1f8a92 tarn.")
