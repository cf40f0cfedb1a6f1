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

_DIGITS = re.compile(r"#?[0-9a-fA-F]{6}")
_SIGNS = " \t,;:="
"""Separators between a colour and its name."""
_QUOTES = " \"'\t"


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
        read = _levels(line) or _listed(line)
        if read is None:
            raise BadDocument(f"Line {number}, “{line[:40]}”, is no colour and name, such as: #1f8a92 tarn.")
        yield read


def _levels(line: str) -> Read | None:
    """Read three levels and a name; return None for another form."""
    pieces = line.split(None, 3)
    if len(pieces) < 4 or not all(one.isdecimal() and len(one) <= 3 and int(one) <= 255 for one in pieces[:3]):
        return None
    return Read(pieces[3].strip(), "#" + "".join(f"{int(one):02x}" for one in pieces[:3]))


def _listed(line: str) -> Read | None:
    """Read hexadecimal digits with a name after or before them; return None for another form."""
    first, last = _DIGITS.match(line), _last_digits(line.removesuffix(";"))
    if first and line[first.end() : first.end() + 1] in (*_SIGNS, ""):
        name, colour = line[first.end() :].strip(_SIGNS), first[0]
    elif last is not None:
        name, colour = last
    else:
        return None
    return Read(name.strip(_QUOTES), f"#{colour.lstrip('#').lower()}") if name else None


def _last_digits(line: str) -> tuple[str, str] | None:
    """Return the name and the digits at the end of a line, or None."""
    for long in (7, 6):
        name, colour = line[:-long], line[-long:]
        if _DIGITS.fullmatch(colour) and name[-1:] and name[-1] in _SIGNS:
            return name.strip(_SIGNS), colour
    return None
