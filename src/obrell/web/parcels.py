"""What a window is sent: all that it shows, or what differs from what it says it has."""

from __future__ import annotations

import itertools
import threading
import uuid
from collections import OrderedDict
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

ALWAYS = ("version", "hash", "selected", "effect")
"""Facts that are sent whether they changed or not."""
MOST = 256
"""How many views are remembered; a window whose view is not is sent all of it."""


@dataclass(frozen=True, slots=True)
class View:
    """Everything a page shows of a control: facts by name, blocks of HTML by the id of their place, and lists, whose
    items have keys and an order."""

    facts: dict[str, Any]
    blocks: dict[str, str]
    lists: dict[str, dict[str, Any]] = field(default_factory=dict)


class Parcels:
    """The views that windows were sent last, by the token that came with them. Safe to use from several threads."""

    def __init__(self, most: int = MOST) -> None:
        self._most = most
        self._views: OrderedDict[str, View] = OrderedDict()
        self._lock = threading.Lock()
        self._process = uuid.uuid4().hex[:8]
        self._numbers = itertools.count(1)

    def parcel(self, view: View, have: str = "") -> dict[str, Any]:
        """What turns the view that was sent with the token ``have`` into this one, and the new token; ``from`` is
        empty, and all of it there, when that view is not known."""
        token = f"{self._process}-{next(self._numbers)}"
        with self._lock:
            before = self._views.get(have)
            self._views[token] = view
            while len(self._views) > self._most:
                self._views.popitem(last=False)
        content = _whole(view) if before is None else difference(before, view)
        return {"token": token, "from": have if before else "", **content}


def _whole(view: View) -> dict[str, Any]:
    lists = {name: {"order": list(items), "items": items} for name, items in view.lists.items()}
    return {"facts": view.facts, "blocks": view.blocks, "lists": lists}


def difference(before: View, after: View) -> dict[str, Any]:
    """The facts, blocks and lists of ``after`` that ``before`` has not, or otherwise."""
    facts = {
        name: value for name, value in after.facts.items()
        if name in ALWAYS or name not in before.facts or before.facts[name] != value
    }  # fmt: skip
    lists = {name: _list(before.lists.get(name, {}), items) for name, items in after.lists.items()}
    return {
        "facts": facts,
        "blocks": _changed(before.blocks, after.blocks),
        "lists": {name: one for name, one in lists.items() if one},
    }


def _list(before: Mapping[str, Any], after: Mapping[str, Any]) -> dict[str, Any]:
    """The items that changed, and the order when that did."""
    items, order = _changed(before, after), list(after)
    moved = {"order": order} if list(before) != order else {}
    return {"items": items, **moved} if items or moved else {}


def _changed(before: Mapping[str, Any], after: Mapping[str, Any]) -> dict[str, Any]:
    return {key: value for key, value in after.items() if key not in before or before[key] != value}
