"""CSS: a custom property for each swatch (CSS Custom Properties 1), a class for each colourway."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

import tinycss2

from obrell.core.colour.css import css_colour
from obrell.core.document.model import KitSettings
from obrell.core.errors import BadDocument
from obrell.core.interchange.palettes.model import Palette, Read
from obrell.core.values.slugs import slug

_VAR = re.compile(r"^var\(\s*--([\w-]+)\s*\)$")


def css(kit: KitSettings) -> str:
    """The swatches as custom properties, each colourway as a class that sets its own."""
    names = [one.id for one in kit.swatches]
    lines = [":root {"]
    for one in kit.swatches:
        lines.append(f"  --{one.id}: {f'var(--{one.like})' if one.like in names else one.colour};")
    lines.append("}")
    for way in kit.colourways:
        lines += ["", f".{slug(way.name, way.id)} {{"]
        lines += [f"  --{one}: {way.colours[one]};" for one in names if one in way.colours]
        lines.append("}")
    return "\n".join(lines) + "\n"


def from_css(text: str) -> Palette:
    found = Palette()
    for rule in tinycss2.parse_stylesheet(text, skip_comments=True, skip_whitespace=True):
        if rule.type == "error":
            raise BadDocument(f"This CSS breaks off or is damaged: {rule.message}.")
        if rule.type != "qualified-rule":
            continue
        selector = tinycss2.serialize(rule.prelude).strip()
        read = list(_properties(rule.content))
        if selector in (":root", "html", "*"):
            found.swatches += read
        else:
            found.colourways[selector.lstrip(".#")] = {one.name: one.colour for one in read if one.colour}
    return found


def _properties(content: Any) -> Iterator[Read]:
    for one in tinycss2.parse_declaration_list(content, skip_comments=True, skip_whitespace=True):
        if one.type != "declaration" or not one.name.startswith("--"):
            continue
        text = tinycss2.serialize(one.value).strip()
        name, alias, colour = one.name[2:], _VAR.match(text), css_colour(text)
        if alias:
            yield Read(name, like=alias[1])
        elif colour is not None:
            yield Read(name, colour[0], opacity=colour[1])
