"""What can be measured of a part as it stands on the canvas."""

from __future__ import annotations

from obrell.core.document.model import Measure, Part
from obrell.core.document.moving import place_of


def measured(part: Part, measure: Measure) -> float:
    """A length or a place of the part's frame, logical px."""
    frame, place = part.shape.frame(), place_of(part)
    match measure:
        case "width":
            return frame.width
        case "height":
            return frame.height
        case "middle across":
            return place.apply((frame.left + frame.right) / 2, (frame.top + frame.bottom) / 2)[0]
        case "middle down":
            return place.apply((frame.left + frame.right) / 2, (frame.top + frame.bottom) / 2)[1]
        case "left" | "right":
            return place.apply(frame.left if measure == "left" else frame.right, 0.0)[0]
        case "top" | "bottom":
            return place.apply(0.0, frame.top if measure == "top" else frame.bottom)[1]
        case _:
            return float(getattr(part.shape, "radius", 0.0))
