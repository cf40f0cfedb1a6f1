"""The shipped icons: open outlines on a grid of 24, found by name and tag."""

from __future__ import annotations

import json
from functools import lru_cache
from pathlib import Path
from typing import Any

FILE = Path(__file__).parent / "icons.json"
GRID = 24.0


@lru_cache
def _all() -> dict[str, Any]:
    loaded: dict[str, Any] = json.loads(FILE.read_text())
    return loaded


def icon_names() -> tuple[str, ...]:
    """All names, sorted."""
    return tuple(_all())


def icon_paths(name: str) -> tuple[str, ...]:
    """An icon's lines as SVG path data; empty when there is no icon of that name."""
    found = _all().get(name)
    return tuple(found["paths"]) if found else ()


def find_icons(words: str, most: int = 120) -> list[str]:
    """Icons whose name or tags hold every word, those with the words in their name first."""
    wanted = words.lower().split()
    ranked = []
    for name, icon in _all().items():
        text = " ".join((name, *icon["tags"])).lower()
        if all(word in text for word in wanted):
            ranked.append((sum(word not in name for word in wanted), name))
    return [name for _, name in sorted(ranked)[:most]]
