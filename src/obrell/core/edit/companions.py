"""Parts that go with another one: linked copies, rims, what stays inside, bodies fitted around. Each is put where it
is to be, and then keeps the distance it has."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from obrell.core.colour.refills import refilled, toned
from obrell.core.document.measures import frame_on_canvas
from obrell.core.document.model import Control, Part
from obrell.core.document.tree import arranged, descendants
from obrell.core.edit.base import (
    Edit,
    Surroundings,
    add_parts,
    added_roots,
    each_part,
    names_of,
    part_of,
    refuse_locked,
    roots,
)
from obrell.core.edit.follows import CANVAS, RADIUS, SIZE, AddFollow, has_size, is_rounded, keep_to
from obrell.core.edit.parts import copied, fresh_name
from obrell.core.effects import Paint
from obrell.core.errors import Refused
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.shapes import Box, Round, Shape
from obrell.core.values.colours import Colour
from obrell.core.values.fields import Id, Length, Signed
from obrell.core.values.paints import Solid

PLAIN: Colour = "#454849"
"""The colour of a rim around a part whose paint has none of its own."""
SHADE = -35.0
"""The tint of a rim's colour, seen from its part's."""
USUAL_ROOM = (1.0, 0.5)
"""Room across and down that is proposed for a body that has none that is sensible, in heights of what lies on it."""
MOST_ROOM = (3.0, 1.5)
"""What is taken for room that was meant, in the same."""


class LinkedCopy(Edit):
    """Copies in front of parts, and of the copies that these have already, each of which keeps to its original: the
    same middle and turn, every side ``by`` px farther out."""

    kind: Literal["linked-copy"] = "linked-copy"
    parts: Annotated[tuple[Id, ...], Field(min_length=1, max_length=1000)]
    by: Signed = 0.0

    def apply(self, control: Control, around: Surroundings) -> Control:
        for part_id in roots(control, self.parts):
            part, before = part_of(control, part_id), control
            control = copied(control, (part_id,), [Similarity()])
            (copy,) = added_roots(before, control)
            control = _in_front_of_others(control, copy, part_id)
            control = each_part(control, [copy], lambda one: one.evolve(shape=grown(one, self.by)))
            control = keep_to(control, copy, part_id, around, *((RADIUS,) if is_rounded(part) else ()))
        return control

    def label(self, control: Control) -> str:
        return f"Made a linked copy of {names_of(control, self.parts)}"


class AddRim(Edit):
    """A body around a part, behind it, or inside it, in front: as wide on every side, its corners round about the
    same places, from now on."""

    kind: Literal["add-rim"] = "add-rim"
    part: Id
    width: Annotated[Length, Field(gt=0, title="width")] = 2.0
    place: Literal["around", "inside"] = "around"

    def apply(self, control: Control, around: Surroundings) -> Control:
        part, outside = part_of(control, self.part), self.place == "around"
        shape, paint = grown(part, self.width if outside else -self.width), Solid(colour=_rim_colour(part))
        rim = part.evolve(
            name=fresh_name(control, f"{part.name[:70]} rim"), shape=shape, effects=(Paint(id="e1", fill=paint),),
            material=None, versions=(), opacity=1.0, blend="normal", locked=False,
        )  # fmt: skip
        place = control.parts.index(part) + (not outside)
        control = add_parts(control, [rim], place)
        return keep_to(control, control.parts[place].id, part.id, around, *((RADIUS,) if is_rounded(part) else ()))

    def label(self, control: Control) -> str:
        return f"Put a rim {self.place} {names_of(control, [self.part])}"


class StayInside(Edit):
    """A part fills another one but for margins, from now on; a margin that is not given is the one it has."""

    kind: Literal["stay-inside"] = "stay-inside"
    part: Id
    source: Id
    left: Signed | None = None
    top: Signed | None = None
    right: Signed | None = None
    bottom: Signed | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        part = part_of(control, self.part)
        refuse_locked(part)
        _check_sized(part)
        if self.part == self.source:
            raise Refused("A part cannot stay inside of itself.")
        inwards = (
            -margin if margin is not None else None for margin in (self.left, self.top, self.right, self.bottom)
        )
        control = _with_room(control, self.part, self.source, *inwards)
        return keep_to(control, self.part, self.source, around)

    def label(self, control: Control) -> str:
        return f"Let {names_of(control, [self.part])} stay inside {names_of(control, [self.source])}"


class FitAround(Edit):
    """A body keeps to another part, and lies behind it: both sizes and the middle follow it, with so much room on each
    side, or with what there is now; its radius too when both are boxes with one radius. ``canvas`` lets the canvas
    follow the body; in ``even`` px its sides are whole, with at most 1 px more room than was asked for."""

    kind: Literal["fit-around"] = "fit-around"
    body: Id
    inner: Id
    canvas: bool = False
    even: bool = False
    left: Signed | None = None
    top: Signed | None = None
    right: Signed | None = None
    bottom: Signed | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        body, inner = part_of(control, self.body), part_of(control, self.inner)
        if not isinstance(body.shape, Box | Round):
            raise Refused(f"“{body.name}” has no width and height of its own to fit. A box or a round has.")
        if self.body == self.inner:
            raise Refused("A body is fitted around another part, not around itself.")
        control = _behind(control, self.body, self.inner)
        control = _with_room(control, self.body, self.inner, self.left, self.top, self.right, self.bottom)
        both = is_rounded(body) and is_rounded(inner)
        control = keep_to(control, self.body, self.inner, around, *((RADIUS,) if both else ()))
        if self.even:
            control = each_part(control, [self.body], _in_even_px)
        for _, measure in SIZE if self.canvas else ():
            follow = AddFollow(part=CANVAS, path=f"canvas/{measure}", source=self.body, measure=measure)
            control = follow.apply(control, around)
        return control

    def label(self, control: Control) -> str:
        return f"Fitted {names_of(control, [self.body])} around {names_of(control, [self.inner])}"


@dataclass(frozen=True, slots=True)
class Fit:
    """A body that can be fitted around another part, and the room across and down, whole logical px, to propose."""

    body: Part
    inner: Part
    across: int
    down: int


def proposed_fit(one: Part, other: Part) -> Fit | None:
    """Which of two parts, as they are drawn, can be fitted around the other: a box or a round, the larger where both
    are; with the room there is, or the usual one where that does not hold the other or is too wide for it."""
    bodies = [part for part in (one, other) if isinstance(part.shape, Box | Round)]
    if not bodies:
        return None
    body = max(bodies, key=lambda part: frame_on_canvas(part).width * frame_on_canvas(part).height)
    inner = other if body is one else one
    box, within = frame_on_canvas(body), frame_on_canvas(inner)
    room = (box.width - within.width) / 2, (box.height - within.height) / 2
    most = [share * within.height for share in MOST_ROOM]
    meant = box.union(within) == box and all(0 < one <= limit for one, limit in zip(room, most, strict=True))
    across, down = room if meant else (share * within.height for share in USUAL_ROOM)
    return Fit(body, inner, max(1, round(across)), max(1, round(down)))


def _in_even_px(part: Part) -> Part:
    """A part whose size follows another in even px."""
    sizes = [path for path, _ in SIZE]
    return part.evolve(follows=tuple(one.evolve(even=one.even or one.path in sizes) for one in part.follows))


def _with_room(
    control: Control, part: str, source: str,
    left: float | None, top: float | None, right: float | None, bottom: float | None,
) -> Control:  # fmt: skip
    """The part with its sides so far out of another's, logical px, inside where that is negative; a side that is not
    given stays where it is."""
    if left is top is right is bottom is None:
        return control
    tree = arranged(control).all
    box, base = (frame_on_canvas(tree[part_of(control, name).id].part) for name in (part, source))
    wanted = Rect(
        box.left if left is None else base.left - left, box.top if top is None else base.top - top,
        box.right if right is None else base.right + right, box.bottom if bottom is None else base.bottom + bottom,
    )  # fmt: skip
    if wanted.width <= 0 or wanted.height <= 0:
        raise Refused("With that nothing is left of it between its sides. Use other numbers.")

    def fitted(one: Part) -> Part:
        shape = one.shape.evolve(width=wanted.width, height=wanted.height)
        return one.evolve(shape=shape, x=wanted.centre.x, y=wanted.centre.y)

    return each_part(control, [part], fitted)


def grown(part: Part, by: float) -> Shape:
    """A part's shape with every side ``by`` logical px farther out; raises ``Refused`` when it has no sides that can
    follow, or nothing is left."""
    if by == 0:
        return part.shape
    _check_sized(part)
    size = {name: getattr(part.shape, name) + 2 * by for name in ("width", "height")}
    if min(size.values()) <= 0:
        raise Refused(f"With that nothing is left of “{part.name}”. Use a smaller number.")
    return part.shape.grown_by(by) or part.shape.evolve(**size)


def _check_sized(part: Part) -> None:
    if not has_size(part):
        raise Refused(f"“{part.name}” has no width and height of its own that could follow. A box or a round has.")


def _behind(control: Control, body: str, inner: str) -> Control:
    """The parts with the body right behind what lies on it, when it lay in front of that."""
    moved, over = part_of(control, body), part_of(control, inner)
    order = control.parts
    if order.index(moved) < order.index(over) or moved.within != over.within:
        return control
    rest = [part for part in order if part is not moved]
    place = rest.index(over)
    return control.evolve(parts=(*rest[:place], moved, *rest[place:]))


def _in_front_of_others(control: Control, copy: str, source: str) -> Control:
    """The parts with a copy, and all that lies in it, in front of what keeps to its original already."""
    held, order = descendants(control, [copy]), control.parts
    within = part_of(control, copy).within
    place = order.index(part_of(control, copy))
    others = [
        number for number, part in enumerate(order)
        if part.id not in held and part.within == within and any(follow.source == source for follow in part.follows)
    ]  # fmt: skip
    if not others or others[-1] < place:
        return control
    front = order[others[-1]]
    rest = [part for part in order if part.id not in held]
    at = rest.index(front) + 1
    return control.evolve(parts=(*rest[:at], *(part for part in order if part.id in held), *rest[at:]))


def _rim_colour(part: Part) -> Colour:
    """A shade of the part's colour; it goes on following a swatch."""
    colour = main_colour(part)
    return PLAIN if colour is None else toned(colour, SHADE)


def main_colour(part: Part) -> Colour | None:
    """Return the colour of a part's uppermost paint, as a single one; None for a part without paint.
    Paints that are only blended with others, such as the grain of a metal, count when there are no others."""
    paints = [effect for effect in part.effects if isinstance(effect, Paint) and effect.visible]
    covering = [effect for effect in paints if effect.blend == "normal"] or paints
    plain = refilled(covering[-1].fill, "solid") if covering else None
    return plain.colour if isinstance(plain, Solid) else None
