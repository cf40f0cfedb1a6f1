"""How large the body of a request can be: as large as what its route takes, and no larger."""

from __future__ import annotations

import re
from dataclasses import dataclass

from obrell.core.interchange.limits import (
    MAX_FONT_BYTES,
    MAX_KIT_BYTES,
    MAX_PALETTE_BYTES,
    MAX_PICTURE_BYTES,
    MAX_RECORDING_BYTES,
)

MEGABYTE = 1_000_000
FORM = 100_000
"""What a form needs around a file."""
DRAWING = 10 * MEGABYTE
"""An SVG of four million characters, as JSON."""


@dataclass(frozen=True, slots=True)
class Size:
    """The most that a request can have, bytes, and what it is then."""

    most: int
    what: str

    @property
    def words(self) -> str:
        """What is said of more."""
        return f"That is too large: {self.what} can have at most {self.most // MEGABYTE} MB. Nothing was changed."


USUAL = Size(MEGABYTE + FORM, "an edit")
_SIZES: tuple[tuple[str, Size], ...] = (
    (r"/kits/import", Size(MAX_KIT_BYTES + FORM, "a kit file")),
    (r"/kits/[^/]+/controls/[^/]+/pictures", Size(MAX_PICTURE_BYTES + FORM, "a picture file")),
    (r"/kits/[^/]+/swatches/candidates", Size(MAX_PICTURE_BYTES + FORM, "a picture file")),
    (r"/kits/[^/]+/trial/[^/]+/ground", Size(MAX_PICTURE_BYTES + FORM, "a picture file")),
    (r"/kits/[^/]+/fonts", Size(MAX_FONT_BYTES + FORM, "a font file")),
    (r"/kits/[^/]+/controls/[^/]+/drawings", Size(DRAWING, "an SVG")),
    (r"/kits/[^/]+/swatches/file", Size(MAX_PALETTE_BYTES + FORM, "a file of swatches")),
    (r"/kits/[^/]+/trial/[^/]+/sources/[^/]+/recording", Size(MAX_RECORDING_BYTES + FORM, "a recording")),
)
_KNOWN = tuple((re.compile(path), size) for path, size in _SIZES)


def size_for(path: str) -> Size:
    """The most that a request to a path can have."""
    return next((size for pattern, size in _KNOWN if pattern.fullmatch(path)), USUAL)
