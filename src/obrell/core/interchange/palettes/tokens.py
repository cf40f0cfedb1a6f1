"""Design tokens: the W3C community group's format (colour values, groups, types that are inherited, aliases)."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator, Sequence
from typing import Any

from obrell.core.colour.css import css_colour
from obrell.core.document.model import KitSettings, Swatch
from obrell.core.errors import BadDocument
from obrell.core.interchange.palettes.model import Palette, Read
from obrell.core.values.slugs import slug

MOST_DEPTH = 20
OURS = "obrell"
SWATCHES, COLOURWAYS = "swatches", "colourways"
FUNCTIONS = ("oklch", "oklab", "lab", "lch", "hsl", "hwb")
"""Spaces that CSS has a function for, not ``color()``."""
Path = tuple[str, ...]
_ALIAS = re.compile(r"^\{([^{}]+)\}$")


def tokens(kit: KitSettings) -> str:
    """The swatches and colourways of a kit as design tokens."""
    names = [one.id for one in kit.swatches]
    out: dict[str, Any] = {SWATCHES: {"$type": "color", **{one.id: _token(one, names) for one in kit.swatches}}}
    if kit.colourways:
        out[COLOURWAYS] = {
            "$type": "color",
            **{
                slug(way.name, way.id): {
                    "$description": way.name,
                    **{one: {"$value": way.colours[one]} for one in names if one in way.colours},
                }
                for way in kit.colourways
            },
        }
    return json.dumps(out, indent=2, ensure_ascii=False) + "\n"


def _token(one: Swatch, names: Sequence[str]) -> dict[str, Any]:
    value = f"{{{SWATCHES}.{one.like}}}" if one.like in names else one.colour
    own: dict[str, str] = {"name": one.name}
    if one.role:
        own["role"] = one.role
    if one.like in names:
        own["colour"] = one.colour
    return {"$value": value, "$extensions": {OURS: own}}


def from_tokens(text: str) -> Palette:
    try:
        root = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise BadDocument("This is not JSON, as design tokens are.") from error
    found = Palette()
    ways = root.pop(COLOURWAYS, None) if isinstance(root, dict) else None
    found.swatches = [_swatch(path, token) for path, token in _tokens(root, (), "", 0)]
    if isinstance(ways, dict):
        for key, group in ways.items():
            if not key.startswith("$") and isinstance(group, dict):
                name = str(group.get("$description") or key)
                read = [_swatch(path, token) for path, token in _tokens(group, (), "color", 0)]
                found.colourways[name] = {one.key: one.colour for one in read if one.colour}
    return found


def _tokens(
    node: Any, path: tuple[str, ...], kind: str, depth: int
) -> Iterator[tuple[tuple[str, ...], dict[str, Any]]]:
    """The colour tokens of a group, each with its path; the type is inherited (Design Tokens Format, "Type")."""
    if not isinstance(node, dict) or depth > MOST_DEPTH:
        return
    kind = str(node.get("$type", kind))
    if "$value" in node:
        if kind == "color":
            yield path, node
        return
    for key, child in node.items():
        if not key.startswith("$"):
            yield from _tokens(child, (*path, key), kind, depth + 1)


def _swatch(path: Path, token: dict[str, Any]) -> Read:
    own = token.get("$extensions", {}) if isinstance(token.get("$extensions"), dict) else {}
    ours = own.get(OURS, {}) if isinstance(own.get(OURS), dict) else {}
    shown = path[1:] if path[:1] == (SWATCHES,) else path
    name = str(ours.get("name") or " ".join(shown))
    role, value = str(ours.get("role", ""))[:40], token["$value"]
    alias = _ALIAS.match(value) if isinstance(value, str) else None
    if alias:
        steps = tuple(alias[1].split("."))
        like = ".".join(steps[1:] if steps[:1] == (SWATCHES,) else steps)
        own_colour = _colour(ours["colour"], name)[0] if ours.get("colour") else ""
        return Read(name, own_colour, like, role, ".".join(shown))
    colour, opacity = _colour(value, name)
    return Read(name, colour, "", role, ".".join(shown), opacity)


def _in_css(space: str, components: list[Any]) -> str:
    """Return a colour in CSS from its space and components (numbers or ``none``); empty if it cannot be written."""
    try:
        written = " ".join("none" if one == "none" else f"{float(one):g}" for one in components)
    except (TypeError, ValueError, OverflowError):
        return ""
    return f"{space}({written})" if space in FUNCTIONS else f"color({space} {written})"


def _colour(value: Any, name: str) -> tuple[str, float]:
    """A colour value and its opacity: digits, or an object with a space, components and an alpha (Design Tokens
    Color)."""
    text, alpha = value, 1.0
    if isinstance(value, dict):
        given = value.get("alpha", 1.0)
        alpha = float(given) if isinstance(given, int | float) and 0 <= given <= 1 else 1.0
        components = value.get("components", [])
        text = value.get("hex")
        if not text and isinstance(components, list):
            text = _in_css(str(value.get("colorSpace", "srgb")), components)
    found = css_colour(text) if isinstance(text, str) else None
    if found is None:
        raise BadDocument(f"“{name}” has no colour that can be read: {json.dumps(value)[:60]}.")
    return found[0], found[1] * alpha
