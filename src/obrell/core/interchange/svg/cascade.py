"""What the style of every element comes to: attributes, style sheets, inheritance (CSS Cascading 4)."""

from __future__ import annotations

import math
import re
from collections import Counter
from collections.abc import Iterable, Mapping
from typing import Any
from xml.etree.ElementTree import Element

import cssselect2
import tinycss2

from obrell.core.colour.css import is_colour
from obrell.core.interchange.svg.document import name_of
from obrell.core.interchange.svg.lengths import FONT_PX, font_size

INHERITED = frozenset({
    "fill", "stroke", "stroke-width", "stroke-linecap", "stroke-linejoin", "stroke-miterlimit", "stroke-dasharray",
    "stroke-dashoffset", "fill-rule", "clip-rule", "fill-opacity", "stroke-opacity", "visibility", "color",
    "paint-order", "font-family", "font-size", "font-weight", "font-style", "letter-spacing", "text-anchor",
    "marker-start", "marker-mid", "marker-end", "text-transform",
})  # fmt: skip
ATTRIBUTES = INHERITED | {
    "opacity", "clip-path", "mask", "filter", "display", "transform", "transform-origin", "transform-box",
    "mix-blend-mode", "isolation", "stop-color", "stop-opacity", "mask-type", "overflow", "vector-effect",
    "x", "y", "width", "height", "cx", "cy", "r", "rx", "ry", "d", "gradientTransform",
}  # fmt: skip
"""What an attribute says as a style sheet would (SVG 2, section 6.6)."""
COLOURED = frozenset({"fill", "stroke", "color", "stop-color"})
PAINT_WORDS = frozenset({"none", "inherit", "initial", "unset", "revert", "context-fill", "context-stroke"})
SEEN_MEDIA = ("", "all", "screen")
_VARIABLE = re.compile(r"var\(\s*(--[\w-]+)\s*(?:,([^()]*))?\)")
MAX_RULES = 5000
MOST_VARIABLES = 20
MOST_LAYERS = 100
MOST_CHARACTERS = 10_000
"""Of the selectors of a rule, with those that it is nested in."""
COLOUR_FUNCTIONS = frozenset({"rgb", "hsl", "hwb", "lab", "lch", "oklab", "oklch", "color", "color-mix"})
OF_OTHERS = frozenset({"charset", "import", "font-face", "namespace", "page", "keyframes", "-webkit-keyframes"})
"""Rules that change nothing of what is drawn: of files outside, of movement, and of paper."""
UNNAMED = " "
Style = Mapping[str, str]
Layer = tuple[str, ...]
"""The names of those that it lies in, and its own; none of what lies in no layer."""
Declared = list[tuple[str, str, bool]]
"""Name, value, and whether it is important."""


class Cascade:
    """The styles of a document's elements. What is not read is counted in ``left_out``."""

    def __init__(self, root: Element, left_out: Counter[str]) -> None:
        self._layers: dict[Layer, Any] = {}
        """Rules by their layer, in the order in which these are named first."""
        self._within(())
        self._rules = 0
        self.left_out = left_out
        for element in root.iter():
            if name_of(element) == "style" and element.get("media", "").strip().lower() in SEEN_MEDIA:
                self._add(tinycss2.parse_stylesheet(element.text or "", skip_comments=True, skip_whitespace=True))
        self._order = _order(list(self._layers))
        self._wrapped: dict[int, Any] = {}
        if self._rules:
            tree = cssselect2.ElementWrapper.from_xml_root(root)
            self._wrapped = {id(one.etree_element): one for one in tree.iter_subtree()}

    def _within(self, layer: Layer) -> None:
        """Have a place for the rules of a layer, and of those that it lies in."""
        for depth in range(len(layer) + 1):
            if len(self._layers) < MOST_LAYERS:
                self._layers.setdefault(layer[:depth], cssselect2.Matcher())

    def _add(self, rules: Iterable[Any], layer: Layer = ()) -> None:
        for rule in rules:
            if rule.type == "at-rule":
                self._add_at_rule(rule, layer)
            elif rule.type == "qualified-rule" and self._rules < MAX_RULES:
                self._add_rule(rule, layer)

    def _add_at_rule(self, rule: Any, layer: Layer) -> None:
        name, prelude = rule.lower_at_keyword, tinycss2.serialize(rule.prelude).strip()
        inside = tinycss2.parse_rule_list(rule.content or [], skip_comments=True, skip_whitespace=True)
        if name == "layer":
            # One without a name is a layer of its own.
            names = prelude.split(",")[:MOST_LAYERS] if prelude else [f"{UNNAMED}{len(self._layers)}"]
            layers = [(*layer, *(part.strip() for part in one.split("."))) for one in names]
            for one in layers:
                self._within(one)
            if layers[0] in self._layers:
                self._add(inside, layers[0])
            elif inside:
                self.left_out["many layers in a style sheet"] += 1
        elif name == "media":
            if prelude.lower() in SEEN_MEDIA:
                self._add(inside, layer)
        elif name not in OF_OTHERS:
            self.left_out[f"@{name} in a style sheet"[:60]] += 1

    def _add_rule(self, rule: Any, layer: Layer, outer: str = "") -> None:
        declared = self._declared(rule.content)
        text = _selectors(tinycss2.serialize(rule.prelude), outer)
        if len(text) > MOST_CHARACTERS:
            self.left_out["long selector in a style sheet"] += 1
            return
        try:
            selectors = cssselect2.compile_selector_list(text)
        except cssselect2.SelectorError:
            return
        for selector in selectors:
            self._rules += 1
            self._layers[layer].add_selector(selector, declared)
        for one in tinycss2.parse_blocks_contents(rule.content, skip_comments=True, skip_whitespace=True):
            if one.type == "qualified-rule" and self._rules < MAX_RULES:
                self._add_rule(one, layer, text)

    def style(self, element: Element, parent: Style) -> dict[str, str]:
        """The computed values of an element below one with the style ``parent``."""
        inherited = {key: value for key, value in parent.items() if key in INHERITED or key.startswith("--")}
        own = self._own(element)
        known = inherited | {key: value for key, value in own.items() if key.startswith("--")}
        result = dict(inherited)
        for key, raw in own.items():
            value = _substituted(raw, known)
            match value.strip().lower():
                case "inherit":
                    given = parent.get(key)
                case "initial":
                    given = None
                case "unset" | "revert":
                    given = inherited.get(key)
                case _:
                    given = value.strip()
            result.pop(key, None)
            if given is not None:
                result[key] = given
        if "font-size" in own:
            result["font-size"] = repr(font_size(result.get("font-size", ""), parent.get("font-size", str(FONT_PX))))
        return result

    def _own(self, element: Element) -> dict[str, str]:
        own = {key: value for key, value in element.attrib.items() if key in ATTRIBUTES and self._valid(key, value)}
        wrapped = self._wrapped.get(id(element))
        layers = [] if wrapped is None else self._matched(wrapped)
        inline = self._declared(element.get("style", ""))
        for important in (False, True):
            for source in (*(reversed(layers) if important else layers), inline):
                own |= {key: value for key, value, weighs in source if weighs == important}
        return own

    def _matched(self, wrapped: Any) -> list[Declared]:
        """Return what the rules of each layer declare that an element matches, the winning layer last; of what is
        important, the first layer wins (CSS Cascading 5, section 6.4)."""
        return [
            [item for _, _, _, declared in self._layers[layer].match(wrapped) for item in declared]
            for layer in self._order
        ]

    def _declared(self, content: Any) -> Declared:
        found = tinycss2.parse_blocks_contents(content, skip_comments=True, skip_whitespace=True)
        return [
            (
                one.name if one.name.startswith("--") else one.lower_name,
                tinycss2.serialize(one.value).strip(),
                one.important,
            )
            for one in found
            if one.type == "declaration" and self._valid(one.lower_name, tinycss2.serialize(one.value))
        ]

    def _valid(self, name: str, value: str) -> bool:
        """Return whether a colour is one; what is none counts for nothing (CSS Syntax 3, section 2.2)."""
        word = value.strip().lower()
        if name not in COLOURED or word in PAINT_WORDS or "url(" in word or "var(" in word or is_colour(value):
            return True
        if word.partition("(")[0] in COLOUR_FUNCTIONS:
            self.left_out[f"colour {word}"[:60]] += 1
        return False


def _order(layers: list[Layer]) -> list[Layer]:
    """Return layers, the winning last: what lies in one before its own rules, and those of none at the end."""
    named = {layer: at for at, layer in enumerate(layers)}

    def place(layer: Layer) -> list[float]:
        return [*(named[layer[: depth + 1]] for depth in range(len(layer))), math.inf]

    return sorted(layers, key=place)


def _selectors(text: str, outer: str) -> str:
    """Return the selectors of a rule that is nested in one with those of ``outer`` (CSS Nesting 1, section 3)."""
    if not outer:
        return text
    around = f":is({outer.strip()})"
    return ", ".join(one.replace("&", around) if "&" in one else f"{around} {one.strip()}" for one in text.split(","))


def _substituted(value: str, known: Style) -> str:
    """The value with its custom properties put in (CSS Variables 1)."""
    for _ in range(MOST_VARIABLES):
        found = _VARIABLE.search(value)
        if found is None:
            break
        value = value[: found.start()] + known.get(found[1], found[2] or "").strip() + value[found.end() :]
    return value[:100_000]
