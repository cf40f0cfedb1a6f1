"""The stops of a gradient as text, in the notation of CSS (CSS Images 4, section 3.4.1): ``#ffffff80 12%``, with a
lone percentage between two stops for where their mixture is half and half. What follows a swatch is
``swatch("deep water" 24 -6 10 / 50%)``: its name, how much lighter, more chroma, further in hue, and the opacity."""

from __future__ import annotations

import re
from collections.abc import Mapping

import tinycss2
from pydantic import ValidationError

from obrell.core.colour.css import css_colour
from obrell.core.door import reads
from obrell.core.errors import BadValue
from obrell.core.geometry.svgdata import number
from obrell.core.values.colours import Colour, SwatchLink, follows, unlinked
from obrell.core.values.paints import Stop
from obrell.core.values.slugs import slug
from obrell.core.workspace import remembered

HALF = 0.5
MOST_CHARACTERS = 4000
FEWEST = 2
DECIMALS = 4
"""Of an opacity and a midpoint that are read."""
FINEST = 0.5 * 10**-DECIMALS
_PLAIN_NAME = re.compile(r"[a-z][a-z0-9-]*")
Place = float | None


def stops_text(stops: tuple[Stop, ...], names: Mapping[str, str] | None = None) -> str:
    """Return the stops as text; ``names`` are the names of swatches by id."""
    written: list[str] = []
    for at, stop in enumerate(stops):
        link = follows(stop.colour)
        said = _colour(unlinked(stop.colour) or "", stop.opacity) if link is None else _link(link, stop, names or {})
        written.append(f"{said} {number(stop.position * 100)}%")
        if stop.midpoint != HALF and at + 1 < len(stops):
            between = stop.position + stop.midpoint * (stops[at + 1].position - stop.position)
            written.append(f"{number(between * 100)}%")
    return ", ".join(written)


def _link(link: SwatchLink, stop: Stop, names: Mapping[str, str]) -> str:
    name = names.get(link.swatch, link.swatch)
    values = [link.tint, link.chroma, link.hue % 360]
    while values and values[-1] == 0:
        values.pop()
    name = name if _PLAIN_NAME.fullmatch(name) else '"' + name.replace('"', "'") + '"'
    opacity = "" if stop.opacity == 1 else f" / {number(stop.opacity * 100)}%"
    return f"swatch({' '.join((name, *map(number, values)))}{opacity})"


def _colour(colour: str, opacity: float) -> str:
    """In hexadecimal digits where they say the opacity as exactly as it is kept, else as shares."""
    if opacity == 1:
        return colour
    level = round(opacity * 255)
    if abs(level / 255 - opacity) < FINEST:
        return f"{colour}{level:02x}"
    red, green, blue = (int(colour[at : at + 2], 16) for at in (1, 3, 5))
    return f"rgb({red} {green} {blue} / {number(opacity * 100)}%)"


@remembered(64)
def stops_from(text: str) -> tuple[Stop, ...]:
    """Return the stops of such a text, read once even if asked for several times; raise ``BadValue``."""
    return read_stops(text)


@reads(
    "gradient", "Reading this gradient", most=MOST_CHARACTERS, short=True,
    words=f"The stops of a gradient can have at most {MOST_CHARACTERS:,} characters.",
)  # fmt: skip
def read_stops(text: str) -> tuple[Stop, ...]:
    """Return the stops of such a text. Stops without a place are spread evenly between their neighbours. A link has
    the slug of the swatch's name in place of its id. Raise ``BadValue`` in words."""
    read = [_item(item) for item in _items(text)]
    colours = [(colour, places) for colour, places in read if colour is not None]
    if len(colours) < FEWEST:
        raise BadValue("A gradient needs two colours at least, with a comma between them.")
    stops: list[tuple[tuple[Colour, float], Place]] = []
    hints: dict[int, float] = {}
    for colour, places in read:
        if colour is None:
            if not stops or len(places) != 1 or len(stops) - 1 in hints:
                raise BadValue("A percentage without a colour stands between two colours.")
            hints[len(stops) - 1] = places[0]
        else:
            stops += [(colour, place) for place in places or (None,)]
    if len(stops) - 1 in hints:
        raise BadValue("A percentage without a colour stands between two colours.")
    spread = _spread([place for _, place in stops])
    return tuple(
        Stop(position=at, colour=colour, opacity=round(opacity, DECIMALS), midpoint=_midpoint(number, hints, spread))
        for number, (((colour, opacity), _), at) in enumerate(zip(stops, spread, strict=True))
    )


def _items(text: str) -> list[list[tinycss2.ast.Node]]:
    items: list[list[tinycss2.ast.Node]] = [[]]
    for token in tinycss2.parse_component_value_list(text, skip_comments=True):
        if token.type == "literal" and token.value == ",":
            items.append([])
        else:
            items[-1].append(token)
    return items


def _item(tokens: list[tinycss2.ast.Node]) -> tuple[tuple[Colour, float] | None, tuple[float, ...]]:
    """A colour, if there is one, and up to two places."""
    places = tuple(token.value / 100 for token in tokens if token.type == "percentage")
    rest = [token for token in tokens if token.type not in ("percentage", "whitespace")]
    words = tinycss2.serialize(rest).strip()
    colour = (_swatch(rest[0]) if len(rest) == 1 else None) or (css_colour(words) if rest else None)
    if (rest and colour is None) or len(places) > 2 or not (rest or places):
        said = tinycss2.serialize(tokens).strip() or "nothing between two commas"
        raise BadValue(f"“{said[:40]}” is not a colour with a place such as #ffffff 20%.")
    return colour, places


def _swatch(token: tinycss2.ast.Node) -> tuple[Colour, float] | None:
    """Return the swatch link of a ``swatch()`` function and its opacity; None for any other token."""
    if token.type != "function" or token.lower_name != "swatch":
        return None
    own = [one for one in token.arguments if one.type != "whitespace"]
    opacity = 1.0
    if len(own) > 2 and own[-1].type == "percentage" and own[-2].type == "literal" and own[-2].value == "/":
        opacity, own = min(1.0, max(0.0, own[-1].value / 100)), own[:-2]
    values = [one.value for one in own[1:] if one.type == "number"]
    if not own or own[0].type not in ("ident", "string") or len(values) != len(own) - 1 or len(values) > 3:
        return None
    tint, chroma, hue = (*values, 0.0, 0.0, 0.0)[:3]
    try:
        return SwatchLink(swatch=slug(own[0].value, "swatch")[:40], tint=tint, chroma=chroma, hue=hue), opacity
    except ValidationError:
        return None


def _spread(places: list[Place]) -> list[float]:
    """Places in order, in [0, 1], those that are missing between their neighbours (CSS Images 3, section 3.4.3)."""
    known = list(places)
    known[0] = 0.0 if known[0] is None else known[0]
    known[-1] = 1.0 if known[-1] is None else known[-1]
    done: list[float] = []
    for at, place in enumerate(known):
        if place is None:
            following = next(i for i in range(at, len(known)) if known[i] is not None)
            end = max(known[following] or 0.0, done[-1])
            place = done[-1] + (end - done[-1]) / (following - at + 1)  # noqa: PLW2901
        done.append(min(1.0, max(place, done[-1] if done else 0.0)))
    return [round(place, 6) for place in done]


def _midpoint(at: int, hints: dict[int, float], places: list[float]) -> float:
    if at not in hints:
        return HALF
    low, high = places[at], places[at + 1]
    return HALF if high <= low else min(0.99, max(0.01, round((hints[at] - low) / (high - low), DECIMALS)))
