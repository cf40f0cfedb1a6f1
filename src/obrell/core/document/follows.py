"""Lengths that follow other parts: a body its label, a rim its body, a gloss the rim.

A follow says which number of a part is a measure of another part plus an offset. They are settled
after every edit, so the numbers in the document are always those that are drawn.
"""

from __future__ import annotations

from obrell.core.document.measures import measured
from obrell.core.document.model import Control, Follow, Part
from obrell.core.document.moving import set_value
from obrell.core.document.tree import arranged
from obrell.core.errors import ObrellError

ROUNDS = 30
"""How long a chain of follows may be; a circle ends here."""
SAME = 1e-6


def settled(control: Control) -> Control:
    """The control with every following number at what it follows. A number that cannot be, because the
    other part is gone or the result is not allowed, stays as it is."""
    if not any(part.follows for part in control.parts) and not control.follows:
        return control
    for _ in range(ROUNDS):
        changed = _once(control)
        if changed is control:
            break
        control = changed
    return control


def _once(control: Control) -> Control:
    for part in control.parts:
        for follow in part.follows:
            control = _followed(control, f"parts/{part.id}/{follow.path}", follow, part)
    for follow in control.follows:
        control = _followed(control, follow.path, follow, None)
    return control


def _followed(control: Control, path: str, follow: Follow, part: Part | None) -> Control:
    node = arranged(control).all.get(follow.source)
    if node is None or (part is not None and node.part.id == part.id):
        return control
    value = max(measured(node.part, follow.measure) + follow.offset, follow.least)
    try:
        changed = set_value(control, path, round(value, 6))
    except ObrellError:
        return control
    return control if changed == control else changed
