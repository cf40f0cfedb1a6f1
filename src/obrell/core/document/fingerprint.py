"""Hashes of what a part shows by itself, or a control in its kit: equal when its picture is, whatever else their
documents hold."""

from __future__ import annotations

from collections.abc import Iterable
from functools import partial

from obrell.core.document.model import Control, KitSettings, Part
from obrell.core.document.resolve import DAY, Resolved, palette
from obrell.core.values.base import canonical_json, content_hash, text_hash
from obrell.core.workspace import OfObject

_OWN = OfObject[str](20_000)
_HELD = OfObject[str](20_000)
_WHOLE = OfObject[str](20_000)


def dress(kit: KitSettings, swatches: Iterable[str], colourway: str = DAY) -> str:
    """Of what a kit gives a control that follows those swatches: their colours, its light, its fit of edges."""
    colours = palette(kit, colourway)
    used = "".join(f"{name}{colours.get(name, '')} " for name in sorted(swatches))
    return text_hash(f"{canonical_json(kit.light)}{kit.fit} {used}")


def fingerprints(resolved: Resolved) -> dict[str, str]:
    """Of every part of a control, by its id: of the part alone, with all that lies in it, on that canvas and in that
    light."""
    control = resolved.control
    held = _held(control)
    ground = _around(resolved)

    def of(part: Part, below: str) -> str:
        return text_hash(f"{ground}{_alone(part)}{below}")

    return {
        part.id: _WHOLE.get(part, (ground, below), partial(of, part, below))
        for part in control.parts
        for below in (held.get(part.id, ""),)
    }


def fingerprint(resolved: Resolved, shown: Part) -> str:
    """Of one part of a control as it is shown, with fewer effects perhaps."""
    below = _held(resolved.control).get(shown.id, "")
    return text_hash(f"{_around(resolved)}{content_hash(_plain(shown, alone=True))}{below}")


def whole_fingerprint(resolved: Resolved) -> str:
    """Of all of a control as it is delivered."""
    return text_hash(_around(resolved) + "".join(map(_within, resolved.control.parts)))


def ground_fingerprint(resolved: Resolved) -> str:
    """Of what a control stands on."""
    return text_hash(_around(resolved))


def _around(resolved: Resolved) -> str:
    """Canvas, light, fit and ground, which any effect may depend on."""
    control = resolved.control
    own = (control.canvas, resolved.light, control.ground)
    return f"{control.stands_on}{resolved.fit}" + "".join(canonical_json(one) if one else "-" for one in own)


def _held(control: Control) -> dict[str, str]:
    """What lies in each container, front and back in order, as hashes."""
    inside: dict[str, list[Part]] = {}
    for part in control.parts:
        if part.within:
            inside.setdefault(part.within, []).append(part)
    known: dict[str, str] = {}

    def of(parts: Iterable[Part]) -> str:
        return "".join(_within(part) + below(part.id) for part in parts)

    def below(name: str) -> str:
        if name in inside and name not in known:
            known[name] = text_hash(of(inside[name]))
        return known.get(name, "")

    for name in inside:
        below(name)
    return known


def _alone(part: Part) -> str:
    return _OWN.get(part, "", lambda: content_hash(_plain(part, alone=True)))


def _within(part: Part) -> str:
    return _HELD.get(part, "", lambda: content_hash(_plain(part, alone=False)))


def _plain(part: Part, *, alone: bool) -> Part:
    """The part without what no picture shows; ``alone`` as one that lies nowhere and is cut by nothing."""
    plain = part.evolve(name="Part", locked=False, versions=())
    return plain.evolve(visible=True, within=None, clip=None) if alone else plain
