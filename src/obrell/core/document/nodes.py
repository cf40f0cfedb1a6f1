"""A part as it is drawn, with what is drawn in it."""

from __future__ import annotations

from dataclasses import dataclass, replace

from obrell.core.document.model import Part
from obrell.core.shapes import Shape


class Drawn(Part):
    """A container as it is drawn: its shape is what it holds, which no document stores."""

    shape: Shape


def drawn(part: Part, shape: Shape) -> Drawn:
    """The part with a shape of any kind."""
    fields = {name: getattr(part, name) for name in Part.model_fields}
    return Drawn(**(fields | {"shape": shape}))


@dataclass(frozen=True, slots=True)
class Node:
    """A part as it is drawn, and the nodes drawn in it, back to front."""

    part: Part
    children: tuple[Node, ...] = ()
    through: bool = False
    """Whether what lies in it is blended with what lies below the container."""
    clips: tuple[Part, ...] = ()
    """The parts whose shapes cut it: the one it is clipped to, the one that is clipped to, and so on."""
    covers: tuple[tuple[str, Node], ...] = ()
    """The parts that mask it, by the mask's id."""

    @property
    def alone(self) -> bool:
        """Whether it is drawn of its part and nothing else."""
        return not (self.children or self.clips or self.covers)

    @property
    def plain(self) -> bool:
        """Whether it only gathers what is in it, and, its clip apart, changes nothing about how that
        looks."""
        shown = any(effect.seen for effect in self.part.effects)
        part = self.part
        return not shown and part.opacity >= 1 and part.blend == "normal"

    def evolved(self, part: Part, children: tuple[Node, ...]) -> Node:
        """The node with another part and other children."""
        return replace(self, part=part, children=children)
