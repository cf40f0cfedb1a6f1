"""PNG: the pixels of one density."""

from __future__ import annotations

import struct
from typing import ClassVar

from obrell.core.formats.base import Format, Job, Options
from obrell.core.raster.png import SIZE_AT, encode
from obrell.core.render.picture import picture


class Png(Format):
    """Drawn for its density and not scaled from another."""

    kind: ClassVar[str] = "png"
    rank: ClassVar[int] = 10
    label: ClassVar[str] = "PNG"
    heading: ClassVar[str] = "Pictures"
    said: ClassVar[str] = "edges fitted to the pixels of each."
    packed: ClassVar[bool] = True

    def make(self, job: Job, options: Options) -> bytes:
        return encode(picture(job.shown, job.density, job.pixels, job.cache), density=job.density)

    def measure(self, content: bytes) -> tuple[float, float]:
        width, height = struct.unpack_from(">II", content, SIZE_AT)
        return width, height
