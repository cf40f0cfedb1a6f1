"""What becomes of a light that is followed, where a part was flipped."""

from __future__ import annotations

from typing import Literal

from obrell.core.geometry.plane import flipped_direction

Mirrored = Literal["no", "across", "down", "both ways"]
_WAYS: dict[Mirrored, tuple[bool, bool]] = {
    "no": (False, False), "across": (True, False), "down": (False, True), "both ways": (True, True),
}  # fmt: skip


def flipped_once(before: Mirrored, *, across: bool) -> Mirrored:
    """How a light is mirrored after one more flip."""
    left_right, up_down = _WAYS[before]
    after = (not left_right, up_down) if across else (left_right, not up_down)
    return next(name for name, ways in _WAYS.items() if ways == after)


def seen_from(degrees: float, mirrored: Mirrored) -> float:
    """Where a light comes from, seen so; the same number when it is not mirrored."""
    left_right, up_down = _WAYS[mirrored]
    if left_right:
        degrees = flipped_direction(degrees, across=True)
    return flipped_direction(degrees, across=False) if up_down else degrees
