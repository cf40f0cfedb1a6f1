"""Where guides lie."""

from __future__ import annotations

from obrell.core.document.model import MAX_GUIDES, Control, Guide


def guide_places(control: Control) -> dict[str, float]:
    """Every guide's place on the canvas by id, logical px. A guide counted from one that is gone, or in
    a circle, is counted from the start."""
    known = _by_id(control)
    return {guide.id: _place(control, guide, known, MAX_GUIDES) for guide in control.guides}


def guide_place(control: Control, guide: Guide) -> float:
    """The place of a guide that may not be on the control yet."""
    return _place(control, guide, _by_id(control), MAX_GUIDES)


def _by_id(control: Control) -> dict[str, Guide]:
    return {guide.id: guide for guide in control.guides}


def _place(control: Control, guide: Guide, known: dict[str, Guide], depth: int) -> float:
    length = control.canvas.width if guide.axis == "across" else control.canvas.height
    other = known.get(guide.since)
    if other is not None and other.axis == guide.axis and depth > 0:
        return _place(control, other, known, depth - 1) + guide.at
    return guide.at + {"middle": length / 2, "end": length}.get(guide.since, 0.0)
