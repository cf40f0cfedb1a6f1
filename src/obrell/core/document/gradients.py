"""A gradient as it lies on the canvas: where its handles and stops are, and what moving one of them makes of it."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from obrell.core.document.model import Control, Part
from obrell.core.document.moving import place_of
from obrell.core.effects.base import Effect, gradient_of, lying
from obrell.core.geometry.plane import Point, Rect, Similarity, degrees_of, direction
from obrell.core.paint.fills import linear_ends
from obrell.core.values.paints import Conic, Handled, Linear, Radial

Values = dict[str, float]
"""New values of a gradient, by their paths below it."""
ARM = 0.42
"""How far from its centre the stops of a conic gradient lie, as a share of the box's shorter side."""
DECIMALS = 3
STEP_DEGREES = 15
AXIS_DEGREES = 4
LEAST_LENGTH = 0.02
LEAST_RADIUS = 0.01


@dataclass(frozen=True, slots=True)
class Laid:
    """A gradient, its path below the effect, the box it is laid on, and the way from there to the canvas."""

    gradient: Handled
    path: str
    box: Rect
    place: Similarity

    def handles(self) -> dict[str, Point]:
        """Where what can be taken hold of lies on the canvas, stops included."""
        return {name: self._seen(at) for name, at in (self._handles() | self._stops()).items()}

    def lines(self) -> tuple[tuple[Point, Point], ...]:
        """What the handles are joined by on the canvas; the first is what stops lie along."""
        at = self._handles()
        pairs = {"linear": ("from to",), "radial": ("focus to", "centre down"), "conic": ("centre to",)}
        ends = (pair.split() for pair in pairs[self.gradient.kind])
        return tuple((self._seen(at[one]), self._seen(at[other])) for one, other in ends)

    def moved(self, handle: str, x: float, y: float, *, steps: bool = False, centred: bool = False) -> Values:
        """What the gradient's values become when a handle is taken to a place on the canvas; ``steps`` keeps angles to
        whole steps, ``centred`` the middle of a linear one where it is. An unknown handle changes nothing."""
        at = Point(*self.place.undo(x, y))
        if handle.startswith("stop "):
            return self._stop_moved(int(handle[5:]), at)
        match self.gradient, handle:
            case Linear(), "from" | "to":
                return self._end_moved(handle, at, steps, centred)
            case Linear(), "line":
                return self._line_moved(at)
            case Radial() | Conic(), "centre":
                return {"centre_x": self._across(at), "centre_y": self._down(at)}
            case Radial(), "to":
                return self._arm_moved(at, steps)
            case Radial(), "down":
                return {"radius_y": _least(abs(self._upright(at).y) / self._high, LEAST_RADIUS)}
            case Radial(), "focus":
                return self._focus_moved(at)
            case Conic(), "to":
                return {"start": _turned(degrees_of(at.x - self._centre.x, at.y - self._centre.y), steps)}
        return {}

    @property
    def _wide(self) -> float:
        return max(self.box.width, 1e-9)

    @property
    def _high(self) -> float:
        return max(self.box.height, 1e-9)

    @property
    def _centre(self) -> Point:
        if isinstance(self.gradient, Linear):
            return self.box.centre
        return Point(
            self.box.left + self.gradient.centre_x * self.box.width,
            self.box.top + self.gradient.centre_y * self.box.height,
        )

    def _seen(self, at: Point) -> Point:
        return Point(*self.place.apply(at.x, at.y))

    def _across(self, at: Point) -> float:
        return round((at.x - self.box.left) / self._wide, DECIMALS)

    def _down(self, at: Point) -> float:
        return round((at.y - self.box.top) / self._high, DECIMALS)

    def _handles(self) -> dict[str, Point]:
        centre = self._centre
        match self.gradient:
            case Linear(angle=angle, ends=ends):
                start, end = (Point(*place) for place in linear_ends(angle, self.box))
                shares = {"from": ends[0], "to": ends[1], "line": sum(ends) / 2}
                return {name: _between(start, end, share) for name, share in shares.items()}
            case Radial(radius_x=rx, radius_y=ry, focus=(fx, fy)):
                rx, ry = rx * self.box.width, ry * self.box.height
                spots = {"centre": (0.0, 0.0), "to": (rx, 0.0), "down": (0.0, ry), "focus": (fx * rx, fy * ry)}
                by = Similarity(turn=self.gradient.turn, dx=centre.x, dy=centre.y)
                return {name: Point(*by.apply(*spot)) for name, spot in spots.items()}
            case Conic(start=start):
                return {"centre": centre, "to": self._on_arm(start)}

    def _on_arm(self, degrees: float) -> Point:
        x, y = direction(degrees)
        arm = ARM * min(self.box.width, self.box.height)
        return Point(self._centre.x + x * arm, self._centre.y + y * arm)

    def _stops(self) -> dict[str, Point]:
        at, places = self._handles(), [stop.position for stop in self.gradient.stops]
        if isinstance(self.gradient, Conic):
            points = [self._on_arm(self.gradient.start + 360 * place) for place in places]
        else:
            start = at["from"] if isinstance(self.gradient, Linear) else at["focus"]
            points = [_between(start, at["to"], place) for place in places]
        return {f"stop {number}": point for number, point in enumerate(points)}

    def _end_moved(self, handle: str, at: Point, steps: bool, centred: bool) -> Values:
        """The other end stays where it is as far as the way there, or goes as far the other way."""
        assert isinstance(self.gradient, Linear)
        middle, side = self.box.centre, -1.0 if handle == "from" else 1.0
        dx, dy = at.x - middle.x, at.y - middle.y
        angle = _turned(degrees_of(side * dx, side * dy), steps)
        x, y = direction(angle)
        whole = max(abs(self.box.width * x) + abs(self.box.height * y), 1e-9)
        away, ends = (dx * x + dy * y) / whole, self.gradient.ends
        other = sum(ends) - 1.0 - away if centred else ends[1 if handle == "from" else 0] - 0.5
        low, high = (away, other) if handle == "from" else (other, away)
        return {
            "angle": angle, "scale": _least(high - low, LEAST_LENGTH), "offset": round((high + low) / 2, DECIMALS)
        }  # fmt: skip

    def _line_moved(self, at: Point) -> Values:
        """The whole ramp along its way, as far as its middle goes along it."""
        assert isinstance(self.gradient, Linear)
        x, y = direction(self.gradient.angle)
        whole = max(abs(self.box.width * x) + abs(self.box.height * y), 1e-9)
        middle = self.box.centre
        return {"offset": round(((at.x - middle.x) * x + (at.y - middle.y) * y) / whole, DECIMALS)}

    def _upright(self, at: Point) -> Point:
        """A place seen from the centre of a radial gradient, as if that were not turned."""
        assert isinstance(self.gradient, Radial)
        centre = self._centre
        return Point(*Similarity(turn=-self.gradient.turn).apply(at.x - centre.x, at.y - centre.y))

    def _arm_moved(self, at: Point, steps: bool) -> Values:
        """The end of a radial gradient's ramp: how far it lies and where; near an axis it keeps to that."""
        dx, dy = at.x - self._centre.x, at.y - self._centre.y
        turn = _turned(degrees_of(dx, dy) - 90, steps) % 360
        nearest = round(turn / 90) * 90
        turn = float(nearest % 360) if abs(turn - nearest) < AXIS_DEGREES else turn
        return {"radius_x": _least(math.hypot(dx, dy) / self._wide, LEAST_RADIUS), "turn": turn}

    def _focus_moved(self, at: Point) -> Values:
        assert isinstance(self.gradient, Radial)
        seen = self._upright(at)
        x, y = seen.x / (self.gradient.radius_x * self._wide), seen.y / (self.gradient.radius_y * self._high)
        factor = 1 / max(1.0, math.hypot(x, y))
        return {"focus_x": round(x * factor, DECIMALS), "focus_y": round(y * factor, DECIMALS)}

    def _stop_moved(self, number: int, at: Point) -> Values:
        """A stop stays between its neighbours."""
        stops = self.gradient.stops
        if number >= len(stops):
            return {}
        low = stops[number - 1].position if number else 0.0
        high = stops[number + 1].position if number + 1 < len(stops) else 1.0
        share = min(high, max(low, self._share(at)))
        return {f"stops/{number}/position": round(share, DECIMALS)}

    def _share(self, at: Point) -> float:
        if isinstance(self.gradient, Conic):
            return (degrees_of(at.x - self._centre.x, at.y - self._centre.y) - self.gradient.start) % 360 / 360
        handles = self._handles()
        start = handles["from"] if isinstance(self.gradient, Linear) else handles["focus"]
        dx, dy = handles["to"].x - start.x, handles["to"].y - start.y
        return ((at.x - start.x) * dx + (at.y - start.y) * dy) / max(dx * dx + dy * dy, 1e-9)


def laid(part: Part, effect: Effect, spans: Mapping[str, Rect]) -> Laid | None:
    """The gradient of an effect of a part, as it is drawn; None when it has none that lies on a box.
    ``spans`` as ``measures.spans_of`` gives them."""
    found = gradient_of(effect)
    if found is None:
        return None
    path, gradient = found
    if not isinstance(gradient, Handled):
        return None
    dx, dy = effect.shift(part.x, part.y)
    box = effect.fill_box(part.shape, place_of(part))
    if box is None:
        return None
    own = box, Similarity(dx=dx, dy=dy).after(place_of(part))
    return Laid(gradient, path, *lying(gradient, spans, own))


def _between(start: Point, end: Point, share: float) -> Point:
    return Point(start.x + (end.x - start.x) * share, start.y + (end.y - start.y) * share)


def _least(value: float, least: float) -> float:
    return max(least, round(value, DECIMALS))


def _turned(degrees: float, steps: bool) -> float:
    return round(degrees / STEP_DEGREES) * STEP_DEGREES % 360 if steps else round(degrees, DECIMALS)


def gradients_in(control: Control) -> Iterator[tuple[str, str, Handled]]:
    """Every gradient in use that lies on a box: the part's name, the effect's label, and the gradient."""
    for part in control.parts:
        for effect in part.effects:
            found = gradient_of(effect)
            if found is not None and isinstance(found[1], Handled):
                yield part.name, effect.said, found[1]
