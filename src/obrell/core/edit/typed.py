"""Numbers as people type them: arithmetic, units, and the value they change."""

from __future__ import annotations

import math
import re
from typing import Annotated, Any, Literal

from pydantic import Field

from obrell.core.document.measures import to_middle
from obrell.core.document.model import Control
from obrell.core.document.value_paths import field_of, live_at, value_at
from obrell.core.edit.base import Edit, Surroundings
from obrell.core.edit.values import NO_PARTS, Change, SetValues
from obrell.core.errors import BadValue, Refused
from obrell.core.geometry.svgdata import number
from obrell.core.values.fields import Id, Live, Place, Share

_TOKEN = re.compile(r"\s*(?:(\d+\.?\d*|\.\d+)\s*(px|%|°|deg|turn)?|([-+*/()×·−]))", re.IGNORECASE)
_SAME = {"×": "*", "·": "*", "−": "-"}
DEVICE_PX = re.compile(r"(1 ?)?(device ?px|device pixel)")
RELATIVE = ("+", "*", "/", "×")
"""How a text begins that changes each of several values from what it is."""
DEGREES_OF_TURN = 360.0
UNITS = {"px": "px", "%": "%", "°": "°", "deg": "°", "turn": "°"}


class TypeValue(Edit):
    """A number typed into the field at ``path``; ``*`` and ``anchor`` as in ``SetValues``. ``shift`` is
    what was added to the number of one part to show it. For several parts a text that begins with ``+``, ``*`` or
    ``/`` changes each from what it is. A ``negated`` number was shown with the other sign, as in “20 darker”."""

    kind: Literal["type"] = "type"
    path: Annotated[str, Field(min_length=1, max_length=300)]
    text: Annotated[str, Field(max_length=200)]
    parts: Annotated[tuple[Id, ...], Field(max_length=1000)] = ()
    anchor: tuple[Share, Share] | None = None
    shift: Place = 0.0
    negated: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        return self._set(control).apply(control, around)

    def label(self, control: Control) -> str:
        return self._set(control).label(control)

    def sets(self) -> frozenset[str]:
        return frozenset(self._paths())

    def _paths(self) -> list[str]:
        return [self.path.replace("*", part, 1) for part in self.parts] if "*" in self.path else [self.path]

    def _set(self, control: Control) -> SetValues:
        thin = [path for path in self._paths() if _has_thin(control, path)]
        if thin and DEVICE_PX.fullmatch(self.text.strip().lower()):
            return SetValues(changes=tuple(Change(path=f"{path[:-5]}thin", value="1 device px") for path in thin))
        changes = tuple(Change(path=path, value=self._value(control, path)) for path in self._paths())
        if not changes:
            raise Refused(NO_PARTS)
        return SetValues(changes=changes, anchor=self.anchor)

    def _value(self, control: Control, path: str) -> float:
        if path.startswith("light/") and control.light is None:
            live: Live | None = Live("°")
        else:
            live = live_at(control, path)
        if live is None:
            raise BadValue("This is not a number.", path)
        text, several = self.text.strip(), "*" in self.path
        shift = to_middle(control, path) if several else self.shift
        if several and text[:1] in RELATIVE:
            now = float(value_at(control, path)) * live.factor + shift
            text = f"({number(now)}){text}"
        value = number_from(text, live) - shift
        return -value if self.negated else value


def _has_thin(control: Control, path: str) -> bool:
    """Whether a width can be one device px."""
    if not path.endswith("/width"):
        return False
    owner, _ = field_of(control, path)
    return "thin" in type(owner).model_fields


def summed(value: Any) -> Any:
    """A typed sum as its result, anything else as it is: for fields of edits that people fill in."""
    return number_from(value, Live()) if isinstance(value, str) else value


def summed_or_none(value: Any) -> Any:
    """The same, and None for a field that was left empty."""
    return None if value == "" else summed(value)


def number_from(text: str, live: Live) -> float:
    """The stored value of a typed number; raises ``BadValue`` in words.

    >>> number_from("258-2*3", Live("px"))
    252.0
    >>> number_from("55 %", Live("%", factor=100))
    0.55
    """
    tokens = _tokens(text.strip().removesuffix(live.unit).strip().replace(",", "."), live)
    value = _Sum(tokens).result()
    if not math.isfinite(value):
        raise BadValue(f"“{text}” has no finite result.")
    return value / live.factor


def _tokens(text: str, live: Live) -> list[str | float]:
    if not text:
        raise BadValue("A number is needed here.")
    tokens: list[str | float] = []
    at = 0
    while at < len(text):
        found = _TOKEN.match(text, at)
        if found is None:
            raise BadValue(f"“{text}” is not a number or a sum: “{text[at : at + 12]}” is not understood.")
        if found[1]:
            unit = (found[2] or "").lower()
            if unit and UNITS[unit] != live.unit:
                raise BadValue(f"This is in {live.unit or 'plain numbers'}, not in {unit}.")
            # A quarter turn is written 1/4turn: the quotient is turned, not the 4.
            tokens += [float(found[1]), "*", DEGREES_OF_TURN] if unit == "turn" else [float(found[1])]
        else:
            tokens.append(_SAME.get(found[3], found[3]))
        at = found.end()
    return tokens


class _Sum:
    """Recursive descent over sums, products, signs and brackets."""

    def __init__(self, tokens: list[str | float]) -> None:
        self._tokens: list[Any] = tokens
        self._at = 0

    def result(self) -> float:
        value = self._sum(0)
        if self._at < len(self._tokens):
            raise BadValue(f"There is something left over: “{self._tokens[self._at]}”.")
        return value

    def _next(self) -> Any:
        return self._tokens[self._at] if self._at < len(self._tokens) else None

    def _take(self) -> Any:
        token = self._next()
        self._at += 1
        return token

    def _sum(self, depth: int) -> float:
        value = self._product(depth)
        while self._next() in ("+", "-"):
            sign = 1 if self._take() == "+" else -1
            value += sign * self._product(depth)
        return value

    def _product(self, depth: int) -> float:
        value = self._single(depth)
        while self._next() in ("*", "/"):
            if self._take() == "*":
                value *= self._single(depth)
                continue
            divisor = self._single(depth)
            if divisor == 0:
                raise BadValue("Nothing can be divided by 0.")
            value /= divisor
        return value

    def _single(self, depth: int) -> float:
        token = self._take()
        if isinstance(token, float):
            return token
        if token in ("-", "+") and depth < 50:
            return -self._single(depth + 1) if token == "-" else self._single(depth + 1)
        if token == "(" and depth < 50:
            value = self._sum(depth + 1)
            if self._take() == ")":
                return value
        raise BadValue("The sum breaks off, or a bracket is missing.")
