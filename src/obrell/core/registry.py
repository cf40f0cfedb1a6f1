"""Kinds by their modules: whatever stands in a folder ``kinds`` is there, and nothing has to be told."""

from __future__ import annotations

import pkgutil
from importlib import import_module
from typing import Any


def kinds_in(package: str, base: type[Any]) -> dict[str, type[Any]]:
    """The subclasses of a base in the modules of a package that say which ``kind`` they are, by that, in the order of
    their ``rank``. Raises ``TypeError`` when two are called the same."""
    found: list[type[Any]] = []
    for module in pkgutil.iter_modules(import_module(package).__path__):
        place = f"{package}.{module.name}"
        things = vars(import_module(place)).values()
        own = [one for one in things if isinstance(one, type) and one.__module__ == place]
        found += [one for one in own if issubclass(one, base) and kind_of(one)]
    found.sort(key=lambda one: (getattr(one, "rank", 0), kind_of(one)))
    named = {kind_of(one): one for one in found}
    if len(named) < len(found):
        raise TypeError(f"Two kinds of {package} are called the same.")
    return named


def kind_of(thing: type[Any]) -> str:
    """Which kind a class says it is; empty when it says none."""
    field = getattr(thing, "model_fields", {}).get("kind")
    kind = vars(thing).get("kind", "") if field is None else field.default
    return kind if isinstance(kind, str) else ""
