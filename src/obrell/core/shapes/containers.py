"""What holds other parts."""

from __future__ import annotations

from obrell.core.geometry.paths import Path
from obrell.core.shapes.base import Shape


class Container(Shape):
    """Base of the kinds that hold other parts."""

    def path(self) -> Path:
        return Path()

    def resized(self, width: float, height: float) -> Shape:
        return self
