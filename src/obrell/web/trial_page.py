"""A panel of Trial as one page that works from a disk, without a server and without any request."""

from __future__ import annotations

import json
import math
import re
from base64 import b64encode
from collections.abc import Iterable, Iterator
from dataclasses import asdict
from typing import Any

from markupsafe import Markup

from obrell.app.trial import Opened
from obrell.core.render.cache import PixelCache
from obrell.core.trial.composing import ground_of
from obrell.core.trial.operating import rules
from obrell.core.trial.reach import Reach
from obrell.core.trial.sharing import MOST_FRAMES_PX, Pictured, pictured, smallest
from obrell.core.values.base import canonical_json, text_hash
from obrell.core.workspace import Kept
from obrell.web.assets import STATIC
from obrell.web.pages import block
from obrell.web.trial_view import pieces_of, screen_json

SCRIPTS = ("ui/dom.js", "trial/machine.js", "trial/telling.js", "trial/hands.js", "trial/page.js")
"""Modules that the page carries along, those first that others need."""
IMPORTS = re.compile(r"^import [^;]*;\n", re.MULTILINE)
EXPORTS = re.compile(r"^export (?=class|function|const)", re.MULTILINE)
TOLD = (
    "id", "name", "behaviour", "scale", "grip", "group", "hold", "disabled", "x", "y", "role", "now", "unit",
    "reading",
)  # fmt: skip
"""What the script needs of a piece, as the panel's own script does."""


_PAGES = Kept[str](32 << 20, size=len)


def shared_page(kit: str, here: Opened, cache: PixelCache) -> str:
    """Return the page as HTML; it is drawn again only when the kit has changed."""
    stored = tuple((name, one.hash) for name, one in here.stored.items())
    key = (kit, here.panel.id, text_hash(canonical_json(here.index)), stored)
    return _PAGES.get(key, lambda: _drawn(kit, here, cache))


def _drawn(kit: str, here: Opened, cache: PixelCache) -> str:
    panel, density = here.panel, here.panel.density
    screen = screen_json(kit, here, Reach(None, None))
    known = {one["id"]: one for one in screen["pieces"]}
    lit = {move["placement"] for source in screen["sources"] for move in source["moves"] if not move["reading"]}
    pieces, data, strips, left, placed = [], [], dict[str, int](), MOST_FRAMES_PX, list(pieces_of(here))
    for number, piece in enumerate(placed):
        ident = piece.placement.id
        # Each piece has an equal share of what is left of the frames.
        share = left // (len(placed) - number)
        made = pictured(
            here.index, piece.control, piece.placement, density, switched=ident in lit, most=share, cache=cache
        )  # fmt: skip
        left -= made.rendered
        pieces.append(_placed(known[ident], made, density))
        data.append({name: known[ident][name] for name in TOLD} | _played(known[ident], made, strips))
    told = {"rules": rules(), "pieces": data, "sources": screen["sources"], "strips": list(strips)}
    return block("shared.html", {
        "kit": here.index, "panel": panel, "pieces": pieces, "sources": screen["sources"],
        "ground": _address(smallest(ground_of(here.index, panel, density, cache))),
        "size": f"width: {panel.width:g}px; height: {panel.height:g}px",
        "style": _element("style", (STATIC / "css" / "shared_page.css").read_text(encoding="utf-8")),
        "script": _element("script", script(), ' type="module"'),
        "data": _element("script", _json(told), ' type="application/json" id="panel"'),
    })  # fmt: skip


def _element(tag: str, text: str, attributes: str = "") -> Markup:
    """An element whose text is no markup."""
    return Markup(f"<{tag}{attributes}>\n{text}\n</{tag}>")


def _placed(told: dict[str, Any], made: Pictured, density: float) -> dict[str, Any]:
    """A piece as it stands in the page."""
    keep = {name: told[name] for name in ("id", "role", "words", "touched", "disabled")}
    left, top = (math.floor(told[axis] * density + 0.5) / density for axis in ("x", "y"))
    pictures = {look: _address(picture) for look, picture in made.looks.items()}
    return keep | {
        "place": f"left: {left:g}px; top: {top:g}px; width: {told['width']:g}px; height: {told['height']:g}px",
        "wide": f"width: {math.ceil(told['width'] * density - 1e-6) / density:g}px",
        "cut": f"clip-path: path('{told['touch']}')" if told["touch"] else "clip-path: none",
        "kinds": " ".join(_kinds(told, pictures)),
        "pictures": pictures, "on": told["now"]["on"],
    }  # fmt: skip


def _kinds(told: dict[str, Any], looks: Iterable[str]) -> Iterator[str]:
    """What style sheets go by: whether it is touched, whether it is switched, which looks it has."""
    if not told["touched"]:
        yield "inert"
    if told["role"] == "switch" and {"rest", "on"} <= set(looks):
        yield "switches"
    yield from (f"has-{look}" for look in looks)


def _played(told: dict[str, Any], made: Pictured, strips: dict[str, int]) -> dict[str, Any]:
    """Return what the script needs to show it. Strips of frames are added to ``strips``, each once; the script finds
    them by their number there."""
    numbers = None
    if made.numbers is not None:
        shown = {look: _address(strip) for look, strip in made.numbers.strips.items()}
        numbers = asdict(made.numbers) | {"strips": shown}
    looks = {key: look for key, look in told["looks"].items() if look in made.looks}
    frames = {
        pair: asdict(one) | {"strip": strips.setdefault(_address(one.strip), len(strips))}
        for pair, one in made.frames.items()
    }
    return {"looks": looks, "numbers": numbers, "timings": made.timings, "frames": frames}


def script() -> str:
    """All modules as one, which imports nothing."""
    texts = ((STATIC / "js" / name).read_text(encoding="utf-8") for name in SCRIPTS)
    return "\n".join(EXPORTS.sub("", IMPORTS.sub("", text)) for text in texts)


def _address(picture: bytes) -> str:
    return f"data:image/webp;base64,{b64encode(picture).decode()}"


def _json(value: Any) -> str:
    """JSON that ends no script element, whatever stands in it."""
    return json.dumps(value, ensure_ascii=False).replace("<", "\\u003c")
