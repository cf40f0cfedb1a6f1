"""How small a picture is shown that has too little room."""

from __future__ import annotations


def scale_in(width: float, height: float, most_wide: float, most_high: float) -> float:
    """The scale at which something is shown whole, all in logical px: 1 where it fits. What cannot be read has no size
    and counts as 1 px."""
    return min(1.0, most_wide / max(width, 1), most_high / max(height, 1))
