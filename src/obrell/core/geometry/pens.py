"""How a line is drawn along a path: its width, ends, corners and dashes (SVG 2, section 13.5)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

Cap = Literal["flat", "round", "square"]
Join = Literal["mitre", "round", "bevel"]
MITRE_LIMIT = 4.0
"""How many widths long a mitre is at most, before it is cut to a bevel; the first value of SVG."""


@dataclass(frozen=True, slots=True)
class Pen:
    """``dashes`` are lengths of dashes and gaps by turns, none for a whole line; the pattern begins ``phase``
    before the path does. Lengths are those of the path."""

    width: float
    cap: Cap = "flat"
    join: Join = "mitre"
    mitre: float = MITRE_LIMIT
    dashes: tuple[float, ...] = ()
    phase: float = 0.0


def dashes_of(dash: float, gap: float, further: tuple[float, ...]) -> tuple[float, ...]:
    """A whole pattern of dashes and gaps; nothing when it leaves no gap, or has no length. An odd number of
    lengths is said twice (SVG 2, section 13.5.6)."""
    lengths = (dash, gap, *further)
    pattern = lengths * 2 if len(lengths) % 2 else lengths
    return pattern if any(pattern[1::2]) else ()


def stretches(length: float, dashes: tuple[float, ...], phase: float, most: int) -> Iterator[tuple[float, float]]:
    """Where a line of that length is drawn, from and to, at most ``most`` stretches."""
    if not dashes:
        yield 0.0, length
        return
    at, index, count = -(phase % sum(dashes)), 0, 0
    while at <= length and count < most:
        end = at + dashes[index % len(dashes)]
        if index % 2 == 0 and (end > 0 or at == end == 0) and at < length:
            yield max(0.0, at), min(end, length)
            count += 1
        at, index = end, index + 1


def problem_of_dashes(pen: Pen) -> str:
    """What is wrong with a pattern, in words; empty when nothing is."""
    if pen.dashes and not any(pen.dashes[::2]) and pen.cap == "flat":
        return "Dashes of no length are only seen with round or square ends: give them a length, or other ends."
    return ""
