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
    """Return icons that have every word, best first: whole words of the name, beginnings of them, the same of tags,
    then parts of words."""
    wanted = words.lower().split()
    ranked = []
    for name, icon in _all().items():
        ranks = [_rank(word, name, icon["tags"]) for word in wanted]
        if None not in ranks:
            ranked.append((sum(rank or 0 for rank in ranks), len(name.split("-")), name))
    return [name for *_, name in sorted(ranked)[:most]]


OPPOSITES = {"unlock": ("lock", "open"), "unlocked": ("lock", "open"), "unmute": ("volume",)}
"""Words that no icon name has, and the words of the names that are meant."""


def _rank(word: str, name: str, tags: list[str]) -> int | None:
    """Return how well an icon fits a word, 0 being the best; None if it does not."""
    own, other = name.split("-"), [part for tag in tags for part in tag.lower().split()]
    if word in OPPOSITES and all(part in own for part in OPPOSITES[word]):
        return 0
    for rank, texts in enumerate((own, other)):
        if word in texts:
            return 4 * rank
        if any(text.startswith(word) for text in texts):
            return 4 * rank + 1
    return 9 if word in " ".join((name, *other)) else None
