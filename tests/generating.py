"""Any value of a model, made from its fields: what they allow, the ends of a range more often than what lies between.

Ids are mostly those of a control that is there, so that what is made finds something.
"""

from __future__ import annotations

import types
from functools import cache
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from hypothesis import strategies as st
from pydantic import BaseModel, JsonValue
from pydantic.fields import FieldInfo

from obrell.core.icons import icon_names
from obrell.core.text.fonts import FONT_NAMES

IDS = ("p1", "p2", "p3", "p4", "p5", "p6", "e1", "e2", "e3", "g1", "gone")
PATHS = (
    "name", "canvas/width", "light/direction", "ground", "parts/p1/x", "parts/p2/shape/width", "parts/p2/shape/count",
    "parts/p1/opacity", "parts/p1/clip", "parts/p1/effects/e1/fill/stops/0/colour", "parts/p1/effects/e1/fill/angle",
    "parts/p1/effects/e1/fill", "parts/*/x", "parts/p4", "parts/p1/effects/e1", "next_number", "parts/p3/shape/size",
    "x", "y", "shape/width", "shape/radius", "parts/p5/shape/contours/0/knots/0/x", "nothing/at/all", "",
)  # fmt: skip
TEXTS = (
    "Hoot",
    "",
    "2*3",
    "1e9",
    "#ff0000",
    "a" * 90,
    "Åß\nق",
    "</script>",
    "12 px",
    "{control}",
    "nan",
    "1" * 180,
    "(" * 190,
)
LEAVES = st.one_of(
    st.none(),
    st.booleans(),
    st.sampled_from(
        [0, 1, -1, 3.5, 1e-9, 16384, 1e308, -1e308, 10**400, "p1", "gradient", "#12ab34", [], {}, [1e308] * 3, ["x"]]
    ),
)
MOST_ITEMS = 3


def values(kind: Any, field: FieldInfo | None = None, name: str = "") -> st.SearchStrategy[Any]:
    """Plain data that a field of the type takes, or nearly: rules between fields may still refuse it."""
    metadata = list(field.metadata) if field is not None else []
    while get_origin(kind) is Annotated:
        kind, *more = get_args(kind)
        metadata += more
    for item in list(metadata):
        if isinstance(item, FieldInfo):
            metadata += item.metadata
    limits = {
        key: getattr(item, key)
        for item in metadata for key in ("ge", "gt", "le", "lt", "min_length", "max_length", "pattern")
        if getattr(item, key, None) is not None
    }  # fmt: skip
    return _of(kind, limits, name)


def _of(kind: Any, limits: dict[str, Any], name: str) -> st.SearchStrategy[Any]:
    origin, inner = get_origin(kind), get_args(kind)
    if isinstance(kind, type) and issubclass(kind, BaseModel):
        return st.deferred(lambda: model(kind))
    if origin is Literal:
        return st.sampled_from(inner)
    if origin in (Union, types.UnionType):
        return st.one_of(*(values(one, None, name) for one in inner))
    if origin is tuple:
        if len(inner) == 2 and inner[1] is Ellipsis:
            return st.lists(values(inner[0], None, name), min_size=limits.get("min_length", 0),
                            max_size=max(MOST_ITEMS, limits.get("min_length", 0)))  # fmt: skip
        return st.tuples(*(values(one) for one in inner))
    if origin is dict:
        return st.dictionaries(st.sampled_from(["width", "words", "size", "icon", "x"]), LEAVES, max_size=2)
    if kind is JsonValue:
        return LEAVES
    if kind is bool:
        return st.booleans()
    if kind is int or kind is float:
        return _numbers(kind, limits)
    return st.none() if kind is type(None) else _texts(limits, name)


def _numbers(kind: type, limits: dict[str, Any]) -> st.SearchStrategy[Any]:
    low, high = limits.get("ge", limits.get("gt", -(10**6))), limits.get("le", limits.get("lt", 10**6))
    if kind is int:
        low, high = int(low) + ("gt" in limits), int(high) - ("lt" in limits)
        return st.one_of(st.sampled_from([low, high]), st.integers(low, min(high, low + 40)))
    least = low + 1e-3 if "gt" in limits else low
    ends = [float(least), float(high), float(min(max(1.0, least), high))]
    return st.one_of(st.sampled_from(ends), st.floats(least, min(high, max(least, 0.0) + 60.0)))


def _texts(limits: dict[str, Any], name: str) -> st.SearchStrategy[str]:
    if "[a-z]" in limits.get("pattern", ""):
        return st.sampled_from(IDS)
    if "0-9a-f" in limits.get("pattern", ""):
        return st.just("#1f8a92" if "#" in limits["pattern"] else "0" * 32)
    if name == "font":
        return st.sampled_from(FONT_NAMES)
    if name == "icon":
        return st.sampled_from(sorted(icon_names())[:40])
    if name == "path":
        return st.sampled_from(PATHS)
    if name in ("shape", "effect"):
        return st.sampled_from(["box", "round", "ring", "sides", "line", "text", "repeat", "nonsense", "bevel"])
    return st.sampled_from([text for text in TEXTS if len(text) >= limits.get("min_length", 0)])


@cache
def model(kind: type[BaseModel]) -> st.SearchStrategy[dict[str, Any]]:
    """Fields that must be given, and some of the others."""
    needed, optional = {}, {}
    for name, field in kind.model_fields.items():
        made = values(field.annotation, field, name)
        if field.is_required() or name == "kind":
            needed[name] = made
        else:
            optional[name] = made
    return st.fixed_dictionaries(needed, optional=optional)
