"""Pieces of SVG: shared definitions and well-formed elements."""

from __future__ import annotations

from base64 import b64encode
from collections.abc import Mapping
from xml.sax.saxutils import escape, quoteattr

from obrell.core.files import content_of, picture_type
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.geometry.svgdata import number
from obrell.core.paint.fills import linear_ends, picture_frame, straightened, tile_turn
from obrell.core.raster.samples import size_of
from obrell.core.values.paints import Fill, Linear, Picture, Radial, Solid, Stop

SPREADS = {"once": "", "repeated": "repeat", "mirrored": "reflect"}
"""SVG's words for what lies beyond a gradient's ends."""


Attributes = dict[str, str | float]


def element(tag: str, attributes: Mapping[str, str | float], *children: str) -> str:
    """One element; numbers are shortened, texts escaped, empty attributes left out."""
    words = [tag]
    for name, value in attributes.items():
        text = value if isinstance(value, str) else number(value)
        if text:
            words.append(f"{name}={quoteattr(text)}")
    head = " ".join(words)
    return f"<{head}>{''.join(children)}</{tag}>" if children else f"<{head}/>"


def text(words: str) -> str:
    """Escaped character data."""
    return escape(words)


class Definitions:
    """The ``defs`` of one drawing. Equal definitions are written once."""

    def __init__(self) -> None:
        self._ids: dict[tuple[str, str], str] = {}

    def add(self, tag: str, attributes: Mapping[str, str | float], *children: str) -> str:
        """Record a definition and return the ``url(#…)`` that refers to it."""
        content = element(tag, attributes, *children)
        key = (tag, content)
        if key not in self._ids:
            self._ids[key] = f"{tag[0]}{len(self._ids) + 1}"
        return f"url(#{self._ids[key]})"

    def markup(self) -> str:
        """All definitions, in the order they were first needed; nothing when there are none."""
        if not self._ids:
            return ""
        written = (content.replace(f"<{tag}", f'<{tag} id="{name}"', 1) for (tag, content), name in self._ids.items())
        return f"<defs>{''.join(written)}</defs>"

    def blur(self, deviation: float, around: Rect) -> str:
        """A Gaussian blur over the user-space rectangle ``around``; empty when there is none."""
        return self.filter(around, gaussian_blur(deviation))

    def filter(self, around: Rect, *steps: str) -> str:
        """A filter of some steps over the user-space rectangle ``around``; empty when there are none."""
        if not any(steps):
            return ""
        area: Attributes = {
            "x": around.left, "y": around.top, "width": around.width, "height": around.height,
            "filterUnits": "userSpaceOnUse", "color-interpolation-filters": "sRGB",
        }  # fmt: skip
        return self.add("filter", area, *filter(None, steps))

    def fill(self, fill: Fill, box: Rect, place: Similarity) -> Attributes:
        """The ``fill`` attributes of a paint whose box is ``box`` before ``place`` moves it."""
        if isinstance(fill, Solid):
            return {"fill": str(fill.colour)}
        if isinstance(fill, Picture):
            return {"fill": self._pattern(fill, box, place)}
        assert isinstance(fill, Linear | Radial)
        stops = [_stop(stop) for stop in straightened(fill)]
        common: Attributes = {"gradientUnits": "userSpaceOnUse", "spreadMethod": SPREADS[fill.spread]}
        move = _matrix(place)
        if isinstance(fill, Linear):
            css_start, css_end = linear_ends(fill.angle, box)
            start, end = (_between(css_start, css_end, share) for share in fill.ends)
            ends = {"x1": start[0], "y1": start[1], "x2": end[0], "y2": end[1]}
            return {"fill": self.add("linearGradient", common | ends | {"gradientTransform": move}, *stops)}
        cx = box.left + fill.centre_x * box.width
        cy = box.top + fill.centre_y * box.height
        turn = f"rotate({number(fill.turn)}) " if fill.turn % 360 else ""
        squash = f"{move} translate({number(cx)} {number(cy)}) {turn}scale(1 {_ratio(fill, box)})".strip()
        radius, (across, down) = fill.radius_x * box.width, fill.focus
        circle: Attributes = {"cx": "0", "cy": "0", "r": radius}
        if fill.focus != (0.0, 0.0):
            circle |= {"fx": across * radius, "fy": down * radius}
        return {"fill": self.add("radialGradient", common | circle | {"gradientTransform": squash}, *stops)}

    def fade(
        self, colour: str, ends: tuple[tuple[float, float], tuple[float, float]], opacities: tuple[float, float],
        place: Similarity,
    ) -> Attributes:  # fmt: skip
        """The ``fill`` of one colour whose opacity changes evenly between two places."""
        (x1, y1), (x2, y2) = ends
        stops = [
            element("stop", {"offset": float(at), "stop-color": colour, "stop-opacity": opacity})
            for at, opacity in enumerate(opacities)
        ]
        way: Attributes = {
            "gradientUnits": "userSpaceOnUse", "x1": x1, "y1": y1, "x2": x2, "y2": y2,
            "gradientTransform": _matrix(place),
        }  # fmt: skip
        return {"fill": self.add("linearGradient", way, *stops)}

    def _pattern(self, fill: Picture, box: Rect, place: Similarity) -> str:
        """A kept picture as a pattern whose tile is the picture; only tiles are seen more than once."""
        seen, (left, top, right, bottom) = picture_frame(fill, box)
        width, height = size_of(fill.file)
        content = content_of(fill.file)
        data = f"data:{picture_type(content)};base64,{b64encode(content).decode()}"
        across, down = seen.width / (right - left), seen.height / (bottom - top)
        image = element("image", {
            "width": width * across, "height": height * down, "x": -left * across, "y": -top * down,
            "preserveAspectRatio": "none", "href": data,
        })  # fmt: skip
        tile = seen if fill.tiled else seen.union(box)
        shown = [element("svg", {
            "x": seen.left - tile.left, "y": seen.top - tile.top, "width": seen.width, "height": seen.height,
        }, image)]  # fmt: skip
        if fill.fit == "tiled, mirrored":
            wide, high = 2 * tile.width, 2 * tile.height
            ways = ("", f"matrix(-1 0 0 1 {number(wide)} 0)", f"matrix(1 0 0 -1 0 {number(high)})",
                    f"matrix(-1 0 0 -1 {number(wide)} {number(high)})")  # fmt: skip
            shown = [element("g", {"transform": way}, *shown) for way in ways]
            tile = Rect(tile.left, tile.top, tile.left + wide, tile.top + high)
        pattern: Attributes = {
            "x": tile.left, "y": tile.top, "width": tile.width, "height": tile.height,
            "patternUnits": "userSpaceOnUse", "patternTransform": _matrix(place.after(tile_turn(fill, box))),
        }  # fmt: skip
        return self.add("pattern", pattern, *shown)


def gaussian_blur(deviation: float) -> str:
    """The step of a filter, by a standard deviation in px of user space; empty when there is no blur."""
    return element("feGaussianBlur", {"stdDeviation": deviation}) if deviation > 0 else ""


def _between(start: tuple[float, float], end: tuple[float, float], share: float) -> tuple[float, float]:
    return start[0] + (end[0] - start[0]) * share, start[1] + (end[1] - start[1]) * share


def _ratio(fill: Radial, box: Rect) -> str:
    return f"{fill.radius_y * box.height / (fill.radius_x * box.width):.8f}"


def _matrix(place: Similarity) -> str:
    if place == Similarity():
        return ""
    values = (number(v) if abs(v) > 1 else f"{v:.8f}" for v in place.linear())
    return f"matrix({' '.join(values)} {number(place.dx)} {number(place.dy)})"


def _stop(stop: Stop) -> str:
    fade: str | float = "" if stop.opacity >= 1 else stop.opacity
    return element("stop", {"offset": stop.position, "stop-color": str(stop.colour), "stop-opacity": fade})
