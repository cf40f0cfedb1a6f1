"""Bevels of which nothing is seen: wider than their part, or covered by an outline."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from obrell.core.document.model import Part
from obrell.core.document.resolve import Resolved
from obrell.core.document.tree import walk
from obrell.core.edit.values import Change, SetValues
from obrell.core.effects import Bevel, Outline
from obrell.core.findings.base import Cure, Finding, Kind
from obrell.core.geometry.svgdata import number
from obrell.core.values.paints import Solid

SHARES = {"inside": 1.0, "straddling": 0.5, "outside": 0.0}
"""How much of a bevel's width lies inside its part."""


class UnseenBevels(Kind):
    """Finds bevels that are wider than their part, and so too flat to be seen, and bevels that lie wholly under an
    opaque outline."""

    kind: ClassVar[str] = "unseen-bevels"
    looks_for: ClassVar[str] = "bevels that are not seen"
    rank: ClassVar[int] = 40

    def look(self, resolved: Resolved) -> tuple[Finding, ...]:
        return tuple(found for node in walk(resolved.tree.nodes) for found in self._of(node.part))

    def _of(self, part: Part) -> Iterator[Finding]:
        for effect in part.effects:
            if isinstance(effect, Bevel) and effect.seen and effect.width > 0:
                outline = _cover(part, effect)
                if outline is not None:
                    yield self._covered(part, effect, outline)
                elif effect.width * SHARES[effect.side] > _room(part):
                    yield self._too_wide(part, effect)

    def _too_wide(self, part: Part, bevel: Bevel) -> Finding:
        fits = _room(part) / 2 / SHARES[bevel.side]
        words = (
            f"The bevel of “{part.name}” is {number(bevel.width)} px wide: too wide to be seen on a part of that size."
        )
        cure = Cure(f"Make it {number(fits)} px wide", _setting(part, bevel, "width", fits))
        return self.found(words, part.id, mark="bevel not seen", cures=() if part.locked else (cure,))

    def _covered(self, part: Part, bevel: Bevel, outline: Outline) -> Finding:
        words = f"The outline of “{part.name}” covers its bevel."
        if bevel.side == "inside":
            cure = Cure("Put the outline outside", _setting(part, outline, "place", "outside"))
        else:
            edge = outline.width * outline.outer_share
            cure = Cure("Begin it at the outline's outer edge", _setting(part, bevel, "beyond", edge))
        return self.found(words, part.id, mark="bevel not seen", cures=() if part.locked else (cure,))


def _room(part: Part) -> float:
    """Return the lesser side of a part's box, px."""
    box = part.shape.frame()
    return min(box.width, box.height)


def _cover(part: Part, bevel: Bevel) -> Outline | None:
    """Return an opaque outline that covers all of a bevel on one side of the edge."""
    if bevel.side == "straddling":
        return None
    inside = bevel.side == "inside"
    band = bevel.width if inside else bevel.beyond + bevel.width
    for effect in part.effects:
        if isinstance(effect, Outline) and _opaque(effect):
            share = 1 - effect.outer_share if inside else effect.outer_share
            if effect.width * share >= band:
                return effect
    return None


def _opaque(outline: Outline) -> bool:
    """Return whether an outline hides what lies under all of it."""
    whole = outline.sides == "alike" and outline.gap == 0 and not outline.hairline and not outline.drawn
    paint = outline.seen and outline.opacity == 1 and outline.blend == "normal" and isinstance(outline.fill, Solid)
    return whole and paint


def _setting(part: Part, effect: Bevel | Outline, name: str, value: float | str) -> SetValues:
    return SetValues(changes=(Change(path=f"parts/{part.id}/effects/{effect.id}/{name}", value=value),))
