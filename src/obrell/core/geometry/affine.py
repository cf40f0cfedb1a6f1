"""Any affine transform, as SVG writes them: (x, y) → (a·x + c·y + e, b·x + d·y + f)."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass

from obrell.core.errors import BadDocument

_CALL = re.compile(r"\s*,?\s*([a-zA-Z]+)\s*\(([^)]*)\)")
_VALUE = re.compile(r"\s*,?\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?)\s*([a-z%]*)")
MOST_CHARACTERS = 10_000
_UNITS = {
    "": 1.0, "px": 1.0, "em": 16.0, "rem": 16.0, "ex": 8.0, "pt": 4 / 3, "pc": 16.0, "in": 96.0, "cm": 96 / 2.54,
    "mm": 96 / 25.4, "deg": 1.0, "grad": 0.9, "rad": 180 / math.pi, "turn": 360.0,
}  # fmt: skip
"""What a number is multiplied by to be px or degrees; fonts are taken to be 16 px high."""


@dataclass(frozen=True, slots=True)
class Affine:
    """The six numbers of SVG's ``matrix``."""

    a: float = 1.0
    b: float = 0.0
    c: float = 0.0
    d: float = 1.0
    e: float = 0.0
    f: float = 0.0

    def apply(self, x: float, y: float) -> tuple[float, float]:
        return self.a * x + self.c * y + self.e, self.b * x + self.d * y + self.f

    def turn(self, x: float, y: float) -> tuple[float, float]:
        """A vector transformed, without the move."""
        return self.a * x + self.c * y, self.b * x + self.d * y

    def after(self, first: Affine) -> Affine:
        """``first``, then this one."""
        a, b = self.turn(first.a, first.b)
        c, d = self.turn(first.c, first.d)
        e, f = self.apply(first.e, first.f)
        return Affine(a, b, c, d, e, f)

    def scale(self) -> float:
        """The factor of areas, as a length."""
        return math.sqrt(abs(self.a * self.d - self.b * self.c))

    @property
    def upright(self) -> bool:
        """Whether it neither turns, slants nor mirrors."""
        return self.b == 0 and self.c == 0 and self.a > 0 and self.d > 0


IDENTITY = Affine()


def read_transform(text: str) -> Affine:
    """A ``transform`` attribute (SVG 2, section 8.5); raises ``BadDocument`` when it is not one."""
    result, at = IDENTITY, 0
    text = text.strip()
    if len(text) > MOST_CHARACTERS:
        raise BadDocument(f"A transform in this SVG is longer than {MOST_CHARACTERS:,} characters.")
    while at < len(text):
        found = _CALL.match(text, at)
        if found is None:
            raise BadDocument(f"A transform in this SVG cannot be read: “{text[:40]}”.")
        result = result.after(_one(found[1], _values(found[2])))
        at = found.end()
    return result


def _values(text: str) -> list[float]:
    """The numbers of a call; signs begin new ones, so that ``1-2`` is two."""
    values, at = [], 0
    text = text.strip()
    while at < len(text):
        found = _VALUE.match(text, at)
        value = float(found[1]) * _UNITS.get(found[2], math.nan) if found else math.nan
        if found is None or not math.isfinite(value):
            raise BadDocument(f"A transform in this SVG cannot be read: “{text[:40]}”.")
        values.append(value)
        at = found.end()
    return values


def _one(name: str, n: list[float]) -> Affine:
    match name, len(n):
        case "matrix", 6:
            return Affine(*n)
        case "translate", 1 | 2:
            return Affine(e=n[0], f=n[1] if len(n) > 1 else 0.0)
        case "scale", 1 | 2:
            return Affine(a=n[0], d=n[-1])
        case "rotate", 1 | 3:
            cos, sin = math.cos(math.radians(n[0])), math.sin(math.radians(n[0]))
            turn = Affine(cos, sin, -sin, cos)
            return turn if len(n) == 1 else Affine(e=n[1], f=n[2]).after(turn).after(Affine(e=-n[1], f=-n[2]))
        case "skewX", 1:
            return Affine(c=math.tan(math.radians(n[0])))
        case "skewY", 1:
            return Affine(b=math.tan(math.radians(n[0])))
    raise BadDocument(f"A transform in this SVG cannot be read: {name} with {len(n)} numbers.")
