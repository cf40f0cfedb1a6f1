"""The canvas made larger or smaller at its edges, while all that lies on it stays where it is."""

from __future__ import annotations

from obrell.core.document.model import Control, Guide, Part
from obrell.core.effects import Mask

LEAST_PX = 1


def with_edges(control: Control, left: float, top: float, right: float, bottom: float) -> Control:
    """Every edge moved outwards by px, the canvas then whole px wide and high; what is counted from the left and top
    edge goes along: parts, masks, guides, the reference. The canvas is at least ``LEAST_PX``."""
    width = max(LEAST_PX, round(control.canvas.width + left + right))
    height = max(LEAST_PX, round(control.canvas.height + top + bottom))
    canvas = control.canvas.evolve(width=float(width), height=float(height))
    dx, dy = round(left), round(top)
    changes = {"across": (dx, width - control.canvas.width), "down": (dy, height - control.canvas.height)}
    guides = tuple(_kept(guide, *changes[guide.axis]) for guide in control.guides)
    if not dx and not dy:
        return control.evolve(canvas=canvas, guides=guides)
    reference = control.reference
    if reference is not None:
        reference = reference.evolve(x=reference.x + dx, y=reference.y + dy)
    parts = tuple(_moved(part, dx, dy) for part in control.parts)
    return control.evolve(canvas=canvas, guides=guides, reference=reference, parts=parts)


def _kept(guide: Guide, before: float, more: float) -> Guide:
    """A guide where it was on the art; ``before`` is what was added in front of it, ``more`` to the whole length."""
    away = {"start": before, "middle": before - more / 2, "end": before - more}.get(guide.since, 0.0)
    return guide.evolve(at=guide.at + away) if away else guide


def _moved(part: Part, dx: float, dy: float) -> Part:
    effects = tuple(
        effect.fitted_to(effect.fitted_x + dx, effect.fitted_y + dy) if isinstance(effect, Mask) else effect
        for effect in part.effects
    )
    return part.evolve(x=part.x + dx, y=part.y + dy, effects=effects)
