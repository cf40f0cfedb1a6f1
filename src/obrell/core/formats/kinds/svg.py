"""SVG: one file for every density."""

from __future__ import annotations

import re
from typing import ClassVar

from pydantic import Field

from obrell.core.formats.base import Format, Job, Options
from obrell.core.formats.svg.document import svg

SIZE = re.compile(rb'<svg [^>]*?\bwidth="([0-9.]+)" height="([0-9.]+)"')


class SvgOptions(Options):
    """What an SVG file can be asked for."""

    fitted: bool = Field(
        False,
        title="Fit edges to the 1× pixel grid",
        description=(
            "A PNG’s edges are fitted at its own density. With this, the SVG’s edges lie as in the 1× PNG; at other "
            "densities, and without it at all, they can lie part of a pixel away."
        ),
    )


class Svg(Format):
    """Gradients, shadows and blurs as SVG's own."""

    kind: ClassVar[str] = "svg"
    rank: ClassVar[int] = 20
    label: ClassVar[str] = "SVG"
    heading: ClassVar[str] = "Scalable"
    said: ClassVar[str] = (
        "text as outlines; gradients, shadows and blurs as native SVG; other effects as embedded images."
    )
    scalable: ClassVar[bool] = True
    options: ClassVar[type[Options]] = SvgOptions

    def make(self, job: Job, options: Options) -> bytes:
        assert isinstance(options, SvgOptions)
        return svg(job.shown, job.box, job.embedded, fitted=options.fitted).encode()

    def measure(self, content: bytes) -> tuple[float, float]:
        found = SIZE.match(content)
        assert found is not None
        return float(found[1]), float(found[2])
