"""Swatches out to other tools and in again: design tokens, CSS, a list of names, and a palette as plain text."""

from __future__ import annotations

import re

from obrell.core.door import reads
from obrell.core.edit.colourways import MOST_COLOURWAYS
from obrell.core.edit.swatches import MOST_SWATCHES
from obrell.core.errors import BadDocument, TooLarge
from obrell.core.interchange.limits import MAX_PALETTE_BYTES
from obrell.core.interchange.palettes.bringing import brought_in
from obrell.core.interchange.palettes.css import css, from_css
from obrell.core.interchange.palettes.lists import from_lines, names_list, palette_text
from obrell.core.interchange.palettes.model import Palette
from obrell.core.interchange.palettes.tokens import from_tokens, tokens

__all__ = ["LABELS", "WRITERS", "Palette", "brought_in", "read_palette"]

_PROPERTY = re.compile(r"--[\w-]{1,80}\s{0,20}:")
"""A custom property of CSS. Lengths are bounded so that the search is linear."""
WRITERS = {"json": tokens, "css": css, "txt": names_list, "palette": palette_text}
"""What swatches are written as, by the ending of the file."""
LABELS = {"json": "design tokens", "css": "CSS", "txt": "names and colours", "palette": "a palette"}


@reads(
    "swatches", "Reading these swatches", most=MAX_PALETTE_BYTES,
    words=f"A file of swatches can have at most {MAX_PALETTE_BYTES // 1_000_000} MB.",
)  # fmt: skip
def read_palette(content: bytes) -> Palette:
    """What a file says of swatches, whichever of the four it is. Raises ``BadDocument`` or ``TooLarge`` in words."""
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BadDocument("This is not a text file of swatches.") from error
    found = _read(text.strip())
    found.check()
    if not found.swatches and not found.colourways:
        raise BadDocument("No colours were found in this file.")
    if len(found.swatches) > MOST_SWATCHES:
        raise TooLarge(f"This file has {len(found.swatches):,} colours; {MOST_SWATCHES} are the most.")
    if len(found.colourways) > MOST_COLOURWAYS:
        raise TooLarge(f"This file has {len(found.colourways):,} colourways; {MOST_COLOURWAYS} are the most.")
    return found


def _read(text: str) -> Palette:
    if text.startswith("{"):
        return from_tokens(text)
    if _PROPERTY.search(text):
        return from_css(text)
    return Palette(list(from_lines(text)))
