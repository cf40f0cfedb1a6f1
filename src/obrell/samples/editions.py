"""Sizes and arts for densities of the sample kit."""

from __future__ import annotations

from typing import Any

from obrell.core.document.model import Control
from obrell.core.edit import Surroundings, applied, read_edit

Step = dict[str, Any]


def hidden(edition: str, *paths: str) -> Step:
    """What an edition does without."""
    changes = [{"path": f"parts/{path}/visible", "value": False} for path in paths]
    return {"kind": "in-editions", "editions": [edition], "edit": {"kind": "set", "changes": changes}}


STEPS: dict[str, tuple[Step, ...]] = {
    "c2": ({"kind": "add-size", "name": "Small", "factor": 0.375}, hidden("small", "p2/effects/e2", "p4/effects/e6")),
    "c7": ({"kind": "add-size", "name": "Large", "factor": 1.5},),
    "c10": ({"kind": "add-art", "density": 1}, hidden("at-1x", "p1/effects/e4", "p3/effects/e3", "p3/effects/e4")),
}  # fmt: skip
"""A lamp for the status line, whose finest lines would only be grey there; a cross for gloves; a horn whose brushing
and grain are finer than the pixels of a coarse screen."""


def with_editions(control: Control, around: Surroundings) -> Control:
    """A control with the sizes and arts that it is needed in."""
    for step in STEPS.get(control.id, ()):
        control = applied(read_edit(step), control, around)
    return control
