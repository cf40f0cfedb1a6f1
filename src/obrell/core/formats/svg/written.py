"""Paint operations as SVG elements, where SVG has a form for them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from obrell.core.effects.base import Effect, Operation, Side, Stand
from obrell.core.formats.svg.markup import Attributes, Definitions, element, gaussian_blur
from obrell.core.formats.svg.pictured import Pictures
from obrell.core.geometry.paths import Path
from obrell.core.geometry.plane import Rect
from obrell.core.geometry.svgdata import number, path_data, rectangle
from obrell.core.paint.areas import Area, Blurred, Filled, Inside, Inverse, Outside, Spilled, Toned, Whole, Within
from obrell.core.paint.lookup import Lookup
from obrell.core.paint.sources import Fading, Flat, Laid, Source
from obrell.core.raster.blur import TAIL
from obrell.core.values.blends import Blend
from obrell.core.values.paints import PICTURED

CURVE_STEPS = 64
"""Straight pieces that a falloff is drawn with."""


@dataclass(frozen=True, slots=True)
class Sheet:
    """SVG elements that are laid over what lies below them together: how strong, and how they are blended."""

    items: tuple[str, ...]
    opacity: float = 1.0
    blend: Blend = "normal"


@dataclass(frozen=True)
class Writer:
    """Writes what a part's effects paint; ``stand`` is in user space."""

    stand: Stand
    defs: Definitions
    pictures: Pictures
    """Of effects that SVG cannot draw."""
    cut: bool
    """Whether a mask cuts the inside effects; if not, the one there is must keep to the shape."""

    @cached_property
    def box(self) -> Rect:
        """Around the shape, in user space."""
        return self.stand.outline.bounds()

    def sheets(self, effect: Effect, side: Side) -> tuple[Sheet, ...]:
        """An effect's SVG form; none when there is nothing to see."""
        operations = effect.operations(self.stand, side)
        if not all(writable(one) for one in operations):
            return tuple(Sheet((image,), 1.0, mode) for image, mode in self.pictures.of(effect, side, self.stand))
        written = ((self._written(one), one) for one in operations)
        return tuple(Sheet((item,), one.opacity, one.blend) for item, one in written if item)

    def _written(self, operation: Operation) -> str:
        hole = _hole(operation.area)
        if hole is not None and isinstance(operation.source, Flat):
            return self._outside(*hole, operation.source.colour)
        drawn = self._drawn(operation.area)
        return (
            element("path", drawn | self._filled(operation.source) | self._softened(operation.area)) if drawn else ""
        )

    def _drawn(self, area: Area) -> Attributes:
        """The path that an area is drawn with before it is blurred; empty when there is none."""
        match area:
            case Toned(inner) | Within(inner) | Outside(inner):
                return self._drawn(inner)
            case Inverse(Blurred(_, deviation) as hole):
                return _evenodd(rectangle(self._around(deviation)), path_data(hole.moved))
            case Inside(inner, _, rest=True):
                return _evenodd(self._field(), str(self._drawn(inner).get("d", "")))
            case Inside(inner):
                return self._drawn(inner)
            case Spilled():
                return _path(area.wide if self.cut else area.path)
            case Filled(path):
                return _path(path)
            case Blurred():
                return _path(area.moved)
        return {"d": self._field()}

    def _softened(self, area: Area, table: Lookup | None = None) -> Attributes:
        """The filter that an area asks for: its blur, then its tones."""
        match area:
            case Toned(inner, table):
                return self._softened(inner, table)
            case Within(inner) | Outside(inner) | Inside(inner):
                return self._softened(inner, table)
            case Inverse(Blurred(_, deviation)):
                return self._filter(self._around(deviation).grown(2 * deviation * TAIL), deviation, table)
            case Blurred(_, deviation):
                return self._filter(area.moved.bounds().grown(2 * deviation * TAIL + 1), deviation, table)
        return {}

    def _filter(self, around: Rect, deviation: float, table: Lookup | None) -> Attributes:
        steps = [gaussian_blur(deviation)]
        if table is not None:
            steps.append(_alpha(_curve(table)))
        return {"filter": self.defs.filter(around, *steps)}

    def _outside(self, hole: Blurred, table: Lookup | None, colour: str) -> str:
        """Return a path for one colour around a blurred hole. Its filter blurs and inverts the hole, so that nothing
        reaches beyond the canvas, where some renderers cut it off."""
        inverted = _alpha((_curve(table) if table else (0.0, 1.0))[::-1], result="hole")
        flood = element("feFlood", {"flood-color": colour})
        inside = element("feComposite", {"in2": "hole", "operator": "in"})
        around = self.box.grown(2 * hole.deviation * TAIL + 1)
        seen = self.defs.filter(around, gaussian_blur(hole.deviation), inverted, flood, inside)
        return element("path", {"d": path_data(hole.moved), "filter": seen})

    def _around(self, deviation: float) -> Rect:
        """What a shadow of the shape's outside is cast by."""
        return self.box.grown(4 * deviation * TAIL + 1)

    def _filled(self, source: Source) -> Attributes:
        match source:
            case Flat(colour):
                return {"fill": colour}
            case Fading(colour, ends, opacities, place):
                return self.defs.fade(colour, ends, opacities, place)
        assert isinstance(source, Laid)
        return self.defs.fill(source.fill, source.box, source.place)

    def _field(self) -> str:
        """Path data of what an inside effect fills: the shape, or all around it when that is cut."""
        return rectangle(self.box.grown(1)) if self.cut else path_data(self.stand.outline)


def _hole(area: Area, table: Lookup | None = None) -> tuple[Blurred, Lookup | None] | None:
    """Return the blurred hole that an area lies around, and its tones; None for all other areas."""
    match area:
        case Toned(inner, table):
            return _hole(inner, table)
        case Within(inner):
            return _hole(inner, table)
        case Inverse(Blurred() as hole):
            return (hole, table) if hole.moved else None
    return None


def _curve(table: Lookup) -> tuple[float, ...]:
    return tuple(float(value) for value in table.values[:: len(table.values) // CURVE_STEPS])


def _alpha(values: tuple[float, ...], result: str = "") -> str:
    """Return the step of a filter that reads opacity from a table."""
    curve = element("feFuncA", {"type": "table", "tableValues": " ".join(map(number, values))})
    return element("feComponentTransfer", {"result": result}, curve)


def writable(operation: Operation) -> bool:
    """Whether SVG has a form for it."""
    return _area_writable(operation.area) and _source_writable(operation.source)


def keeps_to_shape(operation: Operation) -> bool:
    """Whether its SVG form can do without a mask when it is alone on the surface."""
    area = operation.area
    return isinstance(area, Whole | Spilled) or (isinstance(area, Inside) and area.rest)


def _area_writable(area: Area) -> bool:
    match area:
        case Toned(inner) | Within(inner) | Outside(inner) | Inside(inner):
            return _area_writable(inner)
        case Inverse(inner):
            return isinstance(inner, Blurred)
    return isinstance(area, Filled | Blurred | Whole | Spilled)


def _source_writable(source: Source) -> bool:
    return isinstance(source, Flat | Fading) or (isinstance(source, Laid) and not isinstance(source.fill, PICTURED))


def _path(path: Path) -> Attributes:
    return {"d": path_data(path)} if path else {}


def _evenodd(around: str, hole: str) -> Attributes:
    return {"d": f"{around} {hole}".strip(), "fill-rule": "evenodd"}
