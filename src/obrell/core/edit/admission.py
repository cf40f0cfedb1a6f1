"""Whether a control can be drawn at all: asked before an edit is stored, so that what is stored can be opened.

The control is resolved, and what an edit changed of it is drawn once, very small, and written as SVG, which leaves
nothing out: all its geometry is made, and next to no pixels. What its pixels cost grows with the density and is
bounded by ``limits``.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from obrell.core.aside import patience
from obrell.core.document.editions import in_editions
from obrell.core.document.fingerprint import fingerprints
from obrell.core.document.model import REST, Control, Differing, KitSettings
from obrell.core.document.nodes import Node
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.document.touching import touch_outline
from obrell.core.document.tree import Tree
from obrell.core.errors import ObrellError, Refused
from obrell.core.formats.svg.document import svg
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, draw

TRIAL_PX = 48.0
"""The longer side of the trial, device px."""
TRIAL_CACHE_BYTES = 4 << 20
TRIAL_SECONDS = 2.0
"""What all outlines may take together; half of what one may take later, so that what was taken in can be drawn on a
busy machine too."""


def check_drawable(kit: KitSettings, control: Control, before: Control | None = None) -> None:
    """Raises ``Refused``, in words that say what cannot be drawn. Of a control that was drawable ``before``, only
    what differs is tried: at rest, and in states and editions that differ from it in another way than before."""
    try:
        with patience(TRIAL_SECONDS):
            try_drawing(kit, control, before)
    except ObrellError as error:
        raise Refused(f"That cannot be drawn, so nothing was changed. {error}") from error


def try_drawing(
    kit: KitSettings, control: Control, before: Control | None = None, tried: set[str] | None = None
) -> None:  # fmt: skip
    """Draw a control as ``check_drawable`` does, and let errors of drawing through. Parts whose fingerprints are in
    ``tried`` are skipped; those that are drawn are added to it."""
    tried = set() if tried is None else tried
    if control.touch is not None:
        touch_outline(control)
    for state in (REST, *_otherwise(control.states, () if before is None else before.states)):
        _try_changed(kit, control, before, state, tried)
    for name in _otherwise(control.editions, () if before is None else before.editions):
        was = in_editions(before, (name,)) if before and _has(before, name) else before
        _try_changed(kit, in_editions(control, (name,)), was, REST, tried)


def _otherwise(now: Sequence[Differing], before: Sequence[Differing]) -> list[str]:
    """Those states or editions that differ from the control in another way than before."""
    known = {one.id: one for one in before}
    return [one.id for one in now if one.differences and known.get(one.id) != one]


def _has(control: Control, edition: str) -> bool:
    return any(one.id == edition for one in control.editions)


def _try_changed(kit: KitSettings, control: Control, before: Control | None, state: str, tried: set[str]) -> None:
    resolved = resolve(kit, control, state)
    changed = tuple(_changed(resolved, _tree(kit, before, state)))
    known = fingerprints(resolved) if changed else {}
    for node in changed:
        # What cuts or covers a part is not in its fingerprint.
        shown = "" if node.clips or node.covers else known.get(node.part.id, "")
        if shown not in tried:
            _try(resolved, node)
            tried.add(shown or "-")


def _tree(kit: KitSettings, control: Control | None, state: str) -> Tree | None:
    try:
        return None if control is None else resolve(kit, control, state).tree
    except ObrellError:
        return None


def _changed(resolved: Resolved, before: Tree | None) -> Iterator[Node]:
    old = {} if before is None else {node.part.id: node for node in before.nodes}
    yield from (node for node in resolved.tree.nodes if not _as_before(old.get(node.part.id), node))


def _as_before(old: Node | None, new: Node) -> bool:
    """Whether nothing but its place differs, so that it is made of the same outlines and effects."""
    if old is None or old.children or new.children or old.covers or new.covers or old.clips or new.clips:
        return old == new
    return old.part.shape == new.part.shape and old.part.effects == new.part.effects


def _try(resolved: Resolved, node: Node) -> None:
    canvas = resolved.control.canvas
    density = min(1.0, TRIAL_PX / max(canvas.width, canvas.height))
    alone = Resolved(resolved.control, resolved.light, resolved.fit, Tree((node,), resolved.tree.all))
    draw(alone, Frame(density, canvas_box(resolved, density)), PixelCache(TRIAL_CACHE_BYTES))
    svg(alone, density=density)
