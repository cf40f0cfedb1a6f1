"""A part's look as a whole: effects copied, strengthened, hidden by kind, reversed; versions kept aside."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import Field

from obrell.core.document.lengths import scale_lengths
from obrell.core.document.materials import extent_of
from obrell.core.document.model import MAX_EFFECTS, MAX_VERSIONS, Control, Part, Version
from obrell.core.document.tree import arranged
from obrell.core.edit.base import NEW, Edit, Surroundings, each_part, effect_of, names_of, part_of, with_effects
from obrell.core.edit.binding import Origins, bound, unbound_words
from obrell.core.edit.companions import main_colour
from obrell.core.edit.parts import Ids
from obrell.core.effects import EFFECTS, AnyEffect, Depth, Outline, Paint
from obrell.core.effects.base import ZONES
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.values.fields import LIMIT_PX, Id, Name
from obrell.core.values.paints import Fill, Solid

FILLED: dict[str, type[Paint] | type[Outline]] = {"paint": Paint, "outline": Outline}
LIGHTER, HEAVIER = 0.85, 1.18
"""What one step makes of all strengths."""
HOLDERS = (Paint, Outline, Depth)
"""Effects whose fill can be of any kind."""


class PasteEffects(Edit):
    """Copied effects put on parts, on top of their zones, or instead of those that are there. ``made_for`` is the
    extent of the part that they were made for, when their lengths are to fit each part as they fit that; ``origins``
    are the swatches of the kit that they come from."""

    kind: Literal["paste-effects"] = "paste-effects"
    parts: Ids
    effects: Annotated[tuple[AnyEffect, ...], Field(min_length=1, max_length=MAX_EFFECTS)]
    instead: bool = False
    made_for: Annotated[float, Field(gt=0, le=LIMIT_PX)] | None = None
    origins: Origins = ()

    def apply(self, control: Control, around: Surroundings) -> Control:
        here = (bound(effect, self.origins, around) for effect in self.effects)
        fresh, seen = tuple(effect.evolve(id=NEW) for effect in here), arranged(control).all

        def changed(part: Part) -> Part:
            own = fresh
            if self.made_for is not None:
                own = scale_lengths(fresh, extent_of(seen[part.id].part) / self.made_for, round_off=True)
            return part.evolve(effects=own if self.instead else (*part.effects, *own))

        return each_part(control, self.parts, changed)

    def remark(self, around: Surroundings) -> str:
        return unbound_words(self.effects, self.origins, around)

    def label(self, control: Control) -> str:
        count = len(self.effects)
        fitted = "" if self.made_for is None else f", {'its' if count == 1 else 'their'} lengths fitted"
        return f"Put {'an effect' if count == 1 else f'{count} effects'} on {names_of(control, self.parts)}{fitted}"


class PaintWith(Edit):
    """A fill for the paint or the outline of parts: the one at the bottom, or a new one where there is none."""

    kind: Literal["paint-with"] = "paint-with"
    parts: Ids
    fill: Fill
    onto: Literal["paint", "outline"] = "paint"

    def apply(self, control: Control, around: Surroundings) -> Control:
        kind = FILLED[self.onto]

        def changed(part: Part) -> Part:
            there = next((effect for effect in part.effects if isinstance(effect, kind)), None)
            if there is None:
                return part.evolve(effects=(kind(id=NEW, fill=self.fill), *part.effects))
            return with_effects(part, there.evolve(fill=self.fill))

        return each_part(control, self.parts, changed)

    def label(self, control: Control) -> str:
        what = "" if self.onto == "paint" else "the outline of "
        return f"Painted {what}{names_of(control, self.parts)}"


class SwapFills(Edit):
    """The fills of two effects of a part exchanged with all their stops, or one of them taken by the other too."""

    kind: Literal["swap-fills"] = "swap-fills"
    part: Id
    effect: Id
    other: Id
    how: Literal["take", "give", "swap"] = "swap"

    def apply(self, control: Control, around: Surroundings) -> Control:
        def changed(part: Part) -> Part:
            one, other = effect_of(part, self.effect), effect_of(part, self.other)
            if not isinstance(one, HOLDERS) or not isinstance(other, HOLDERS):
                raise Refused("Paints, outlines and depths have fills that can be exchanged.")
            mine = one if self.how == "give" else one.evolve(fill=other.fill)
            return with_effects(part, mine, other if self.how == "take" else other.evolve(fill=one.fill))

        return each_part(control, [self.part], changed)

    def label(self, control: Control) -> str:
        part = part_of(control, self.part)
        one, other = (effect_of(part, name).said for name in (self.effect, self.other))
        if self.how != "swap":
            giver, taker = (one, other) if self.how == "give" else (other, one)
            return f"Gave the fill of {giver} to {taker} on {part.name}"
        return f"Swapped the fills of {one} and {other} on {part.name}"


class StrengthenEffects(Edit):
    """All strengths of parts multiplied together: a lighter or heavier look."""

    kind: Literal["strengthen"] = "strengthen"
    parts: Ids
    factor: Annotated[float, Field(gt=0, le=10)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        return _each_effect(control, self.parts, lambda effect: effect.strengthened(self.factor))

    def label(self, control: Control) -> str:
        return f"Made the look of {names_of(control, self.parts)} {'heavier' if self.factor > 1 else 'lighter'}"


class SweepEffects(Edit):
    """All effects of one kind, or of one zone, hidden, shown or removed."""

    kind: Literal["sweep-effects"] = "sweep-effects"
    parts: Ids
    which: Annotated[str, Field(max_length=40)]
    do: Literal["hide", "show", "remove"]

    def apply(self, control: Control, around: Surroundings) -> Control:
        if self.which not in (*EFFECTS, *ZONES):
            raise Refused(f"“{self.which}” is no kind of effect and no zone.")

        def changed(part: Part) -> Part:
            if self.do == "remove":
                return part.evolve(effects=tuple(e for e in part.effects if not self._meant(e)))
            shown = self.do == "show"
            return part.evolve(effects=tuple(e.evolve(visible=shown) if self._meant(e) else e for e in part.effects))

        return each_part(control, self.parts, changed)

    def removes(self) -> bool:
        return self.do == "remove"

    def label(self, control: Control) -> str:
        done = {"hide": "Hid", "show": "Showed", "remove": "Removed"}[self.do]
        return f"{done} all of {self.which} on {names_of(control, self.parts)}"

    def _meant(self, effect: AnyEffect) -> bool:
        return self.which in (effect.kind, effect.lies_in())


class PlainLook(Edit):
    """Remove all effects of parts but one plain paint in the part's colour."""

    kind: Literal["plain-look"] = "plain-look"
    parts: Ids

    def apply(self, control: Control, around: Surroundings) -> Control:
        def changed(part: Part) -> Part:
            colour = main_colour(part)
            paint = Paint(id=NEW, fill=Solid(colour=part.shape.first_colour if colour is None else colour))
            return part.evolve(effects=(paint,), material=None, material_extent=None)

        return each_part(control, self.parts, changed)

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        return f"Removed all effects of {names_of(control, self.parts)} but its colour"


class PressLook(Edit):
    """The look of parts as if pressed: light from the other side, shadows short. Done twice it is not what it
    was, so it is one step to take back."""

    kind: Literal["press-look"] = "press-look"
    parts: Ids

    def apply(self, control: Control, around: Surroundings) -> Control:
        light = around.light_of(control)
        return _each_effect(control, self.parts, lambda effect: effect.pressed(light))

    def label(self, control: Control) -> str:
        return f"Gave {names_of(control, self.parts)} a pressed look"


class KeepVersion(Edit):
    """The look of a part kept aside, under a name."""

    kind: Literal["keep-version"] = "keep-version"
    parts: Ids
    name: Name = "Version"

    def apply(self, control: Control, around: Surroundings) -> Control:
        def changed(part: Part) -> Part:
            if len(part.versions) >= MAX_VERSIONS:
                raise Refused(f"{MAX_VERSIONS} versions are the most that are kept aside: drop one first.")
            taken = {version.name for version in part.versions}
            name, count = self.name, 2
            while name in taken:
                name, count = f"{self.name[:70]} {count}", count + 1
            return part.evolve(versions=(*part.versions, Version(name=name, effects=part.effects)))

        return each_part(control, self.parts, changed)

    def label(self, control: Control) -> str:
        return f"Kept the look of {names_of(control, self.parts)} aside"


class UseVersion(Edit):
    """A look that was kept aside taken up again, in exchange for the one there is; or dropped."""

    kind: Literal["use-version"] = "use-version"
    parts: Ids
    number: Annotated[int, Field(ge=0, lt=MAX_VERSIONS)]
    drop: bool = False

    def apply(self, control: Control, around: Surroundings) -> Control:
        def changed(part: Part) -> Part:
            if self.number >= len(part.versions):
                raise NoSuchThing("That version is no longer kept.")
            kept = part.versions[self.number]
            rest = [version for number, version in enumerate(part.versions) if number != self.number]
            if self.drop:
                return part.evolve(versions=tuple(rest))
            rest.insert(self.number, kept.evolve(effects=part.effects))
            return part.evolve(effects=kept.effects, versions=tuple(rest))

        return each_part(control, self.parts, changed)

    def removes(self) -> bool:
        return self.drop

    def label(self, control: Control) -> str:
        return f"{'Dropped' if self.drop else 'Took up'} a kept look of {names_of(control, self.parts)}"


def _each_effect(control: Control, parts: Ids, change: Callable[[AnyEffect], AnyEffect]) -> Control:
    return each_part(control, parts, lambda part: part.evolve(effects=tuple(change(e) for e in part.effects)))
