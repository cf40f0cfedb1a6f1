"""Lengths that follow other parts: a body its label, a rim its body, a gloss the rim.

A follow says which number of a part is a measure of another part plus an offset. They are settled
after every edit, so the numbers in the document are always those that are drawn.
"""

from __future__ import annotations

from obrell.core.document.measures import measured
from obrell.core.document.model import Control, Follow
from obrell.core.document.moving import set_value
from obrell.core.document.paths import value_at
from obrell.core.document.tree import Tree, arranged
from obrell.core.errors import ObrellError

ROUNDS = 30
"""How long a chain of follows may be; a circle ends here."""


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
    owned = [(f"parts/{part.id}/", follow) for part in control.parts for follow in part.follows]
    tree = arranged(control)
    for root, follow in (*owned, *(("", follow) for follow in control.follows)):
        changed = _followed(control, tree, root, follow)
        if changed is not control:
            control, tree = changed, arranged(changed)
    return control


def _followed(control: Control, tree: Tree, root: str, follow: Follow) -> Control:
    node, path = tree.all.get(follow.source), root + follow.path
    if node is None or root == f"parts/{follow.source}/":
        return control
    value = round(max(measured(node.part, follow.measure) + follow.offset, follow.least), 6)
    try:
        return control if value_at(control, path) == value else set_value(control, path, value)
    except ObrellError:
        return control
