"""Other sets of colours for the swatches of a kit: turned in hue, made for the dark, or greys."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from obrell.core.colour.contrast import ORDINARY, contrast
from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.links import turned_in_hue
from obrell.core.colour.spaces import from_hex, to_hex, to_oklch

DARKEST, LIGHTEST = 0.2, 0.92
"""Lightness of OKLCH between which a ground is mirrored."""
DIMMED = 0.82
"""How light a colour that is no ground and no label is in the dark, as a share."""
STEPS = 64


def turned(colours: Mapping[str, str], degrees: float, stay: Iterable[str] = ()) -> dict[str, str]:
    """Every colour turned in hue, but for those that ``stay``."""
    kept = frozenset(stay)
    return {name: colour if name in kept else turned_in_hue(colour, degrees) for name, colour in colours.items()}


def greys(colours: Mapping[str, str]) -> dict[str, str]:
    """Return every colour as a grey of its lightness in OKLCH."""
    return {name: to_hex(from_oklch((to_oklch(from_hex(colour))[0], 0, 0))) for name, colour in colours.items()}


def for_the_dark(
    colours: Mapping[str, str], roles: Mapping[str, str], target: float = ORDINARY
) -> dict[str, str]:  # fmt: skip
    """The colours of a light set for a dark one: grounds mirrored in lightness, all else dimmed, and labels as light
    as they need be for a contrast of ``target`` (WCAG 2.2, 1 to 21) against every ground and main colour."""
    made = {name: _dark(colour, roles.get(name, "")) for name, colour in colours.items()}
    behind = [made[name] for name in colours if roles.get(name) in ("ground", "main")]
    for name in colours:
        if roles.get(name) == "label":
            made[name] = readable(made[name], behind, target)
    return made


def _dark(colour: str, role: str) -> str:
    lightness, chroma, hue = to_oklch(from_hex(colour))
    if role == "ground":
        dark = min(lightness, 1 - lightness)
        return to_hex(from_oklch((max(DARKEST, min(LIGHTEST, dark * 0.7)), chroma, hue)))
    return colour if role == "label" else to_hex(from_oklch((lightness * DIMMED, chroma, hue)))


def readable(colour: str, behind: Iterable[str], target: float = ORDINARY) -> str:
    """The nearest lightness of a colour that reaches a contrast against everything behind it; where none does, the
    lightness with the most."""
    against = list(behind)
    lightness, chroma, hue = to_oklch(from_hex(colour))
    tried = [to_hex(from_oklch((step / STEPS, chroma, hue))) for step in range(STEPS + 1)]
    tried.sort(key=lambda one: abs(to_oklch(from_hex(one))[0] - lightness))
    least = [min((contrast(one, other) for other in against), default=21.0) for one in (colour, *tried)]
    fine = [one for one, reached in zip((colour, *tried), least, strict=True) if reached >= target]
    return fine[0] if fine else max(zip(least, (colour, *tried), strict=True))[1]
