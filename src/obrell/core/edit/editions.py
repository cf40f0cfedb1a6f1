"""Editions: sizes and arts for densities made, named, put in order, removed; and edits made while they are drawn."""

from __future__ import annotations

from typing import Annotated, Any, ClassVar, Literal

from pydantic import BeforeValidator, Field

from obrell.core.document.editions import editions_of, in_editions
from obrell.core.document.follows import kept_by_hand, settled
from obrell.core.document.model import MAX_ARTS, MAX_SIZES, REGULAR, Control, DensityEdition, Edition, SizeEdition
from obrell.core.document.restating import in_drawn_editions, with_one
from obrell.core.document.scaling import scaled, widened
from obrell.core.document.states import words_of
from obrell.core.edit.arrange import Typed
from obrell.core.edit.base import Edit, Surroundings, Wrapped, made_of
from obrell.core.edit.states import free_name
from obrell.core.edit.typed import number_from
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.geometry.svgdata import number
from obrell.core.values.differences import Where, is_below
from obrell.core.values.fields import Density, Id, Live, Name
from obrell.core.values.slugs import free_id

Factor = Annotated[float, Typed, Field(ge=0.1, le=10)]
More = Annotated[float, Typed, Field(ge=-2000, le=2000)]
USUAL_SIZES: tuple[tuple[str, str, dict[str, float]], ...] = (
    ("Small", "three quarters as large", {"factor": 0.75}),
    ("Large", "one and a half times as large", {"factor": 1.5}),
    ("Wide", "40 px wider", {"wider": 40}),
)
"""Names of sizes that controls often have, what they do, and values of the edit."""
USUAL_DENSITIES = (1.0, 1.5, 2.0, 3.0)


def _times(value: Any) -> Any:
    """A density as it is typed: 1.5, 1,5 or 1.5×."""
    return number_from(value.strip().rstrip("×x"), Live()) if isinstance(value, str) else value


class OfEditions(Edit):
    """Base of what is done to the editions themselves, whichever is drawn."""

    of_editions: ClassVar[bool] = True


class InEditions(Wrapped):
    """An edit made while a size, the art for a density, or both are drawn. What is about the control as a whole, as
    its canvas and states, is made in the size only."""

    kind: Literal["in-editions"] = "in-editions"
    editions: Annotated[tuple[Id, ...], Field(min_length=1, max_length=2)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        names = self._made_in(control)
        of_art = any(isinstance(one, DensityEdition) for one in editions_of(control, names))

        def change(look: Control) -> Control:
            changed = made_of(self.edit, look, around)
            if of_art:
                _check_same_canvas(look, changed)
            return changed

        return in_drawn_editions(control, names, change)

    def look(self, control: Control) -> Control:
        return in_editions(control, self._made_in(control))

    def label(self, control: Control) -> str:
        said, names = super().label(control), names_of_editions(control, self._made_in(control))
        return f"{names}: {said}" if names else said

    def _made_in(self, control: Control) -> tuple[str, ...]:
        there = editions_of(control, self.editions)
        if self.innermost.of_editions:
            return ()
        return tuple(one.id for one in there if isinstance(one, SizeEdition) or not self.innermost.of_control)


def _check_same_canvas(before: Control, after: Control) -> None:
    if before.canvas != after.canvas:
        wide, high = number(after.canvas.width), number(after.canvas.height)
        raise Refused(
            f"The canvas is the same at every density; this would make it {wide} by {high} px. "
            "Draw the art of all densities to do it."
        )


def drawn_in(edit: Edit, names: str) -> Edit:
    """An edit as it is made while editions are drawn, named with commas between; one that says where it is made itself
    stays as it is."""
    drawn = tuple(name for name in names.split(",") if name)
    return edit if not drawn or isinstance(edit, InEditions) else InEditions(editions=drawn, edit=edit)


def names_of_editions(control: Control, names: tuple[str, ...]) -> str:
    """What editions are called, one after the other; raises ``NoSuchThing``."""
    return ", ".join(one.name for one in editions_of(control, names))


class AddSize(OfEditions):
    """One more size: as the regular one is, or one that it is ``like``, all of it ``factor`` times as large, or
    ``wider`` by so many px. Without a name it is called after the one it is like."""

    kind: Literal["add-size"] = "add-size"
    name: Name | None = None
    factor: Factor = 1.0
    wider: More = 0.0
    like: Id | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        name = self.called(control)
        if len(control.sizes) >= MAX_SIZES:
            raise Refused(f"A control can have at most {MAX_SIZES} sizes besides the regular one.")
        _check_free(control, name)
        found = () if self.like is None else size_of(control, self.like).differences
        new = SizeEdition(id=_free_id(control, name), name=name, differences=found)
        control = control.evolve(sizes=(*control.sizes, new))
        return in_drawn_editions(control, (new.id,), self._sized)

    def called(self, control: Control) -> str:
        """The name that was given, or one like that of the size that it is like."""
        if self.name is not None:
            return self.name.strip()
        if self.like is None:
            raise Refused("A size needs a name.")
        return free_name(size_of(control, self.like).name, (one.name for one in control.sizes))

    def _sized(self, look: Control) -> Control:
        if look.canvas.width * self.factor + self.wider < 1:
            raise Refused("A canvas is at least 1 px wide and high.")
        changed = look if self.factor == 1 else scaled(look, self.factor)
        changed = changed if self.wider == 0 else widened(changed, self.wider)
        words = words_of(look)
        return settled(kept_by_hand(look, changed, words), words_of(changed))

    def label(self, control: Control) -> str:
        return f"Added the size “{self.called(control)}”"


class AddArt(OfEditions):
    """Art of its own for one density."""

    kind: Literal["add-art"] = "add-art"
    density: Annotated[Density, BeforeValidator(_times)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        if len(control.arts) >= MAX_ARTS:
            raise Refused(f"A control can have art of its own for at most {MAX_ARTS} densities.")
        if any(one.density == self.density for one in control.arts):
            raise Refused(f"There is art of its own for {number(self.density)}× already.")
        name = f"{number(self.density)}×"
        new = DensityEdition(id=_free_id(control, f"at {name}x"), name=name, density=self.density)
        arts = sorted((*control.arts, new), key=lambda one: one.density)
        return control.evolve(arts=tuple(arts))

    def label(self, control: Control) -> str:
        return f"Began art for {number(self.density)}×"


class RenameSize(OfEditions):
    """A size called otherwise; its id, which file names are made of, stays."""

    kind: Literal["rename-size"] = "rename-size"
    size: Id
    name: Name

    def apply(self, control: Control, around: Surroundings) -> Control:
        size, name = size_of(control, self.size), self.name.strip()
        if name == size.name:
            return control
        _check_free(control, name, but=size.name)
        return with_one(control, size.evolve(name=name))

    def label(self, control: Control) -> str:
        return f"Renamed the size “{size_of(control, self.size).name}” to “{self.name.strip()}”"


class MoveSize(OfEditions):
    """A size put to another place in their order, counted from 0."""

    kind: Literal["move-size"] = "move-size"
    size: Id
    to: Annotated[int, Field(ge=0, le=MAX_SIZES)]

    def apply(self, control: Control, around: Surroundings) -> Control:
        size = size_of(control, self.size)
        others = [one for one in control.sizes if one.id != size.id]
        others.insert(self.to, size)
        return control.evolve(sizes=tuple(others))

    def label(self, control: Control) -> str:
        return f"Moved the size “{size_of(control, self.size).name}”"


class RemoveEdition(OfEditions):
    """A size, or the art for a density, taken away."""

    kind: Literal["remove-edition"] = "remove-edition"
    edition: Id

    def apply(self, control: Control, around: Surroundings) -> Control:
        gone = edition_of(control, self.edition)
        left = tuple(one for one in control.editions if one.kept_in == gone.kept_in and one is not gone)
        return control.evolve(**{gone.kept_in: left})

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        gone = edition_of(control, self.edition)
        what = "the size" if isinstance(gone, SizeEdition) else "the art for"
        return f"Removed {what} {_quoted(gone)}"


class ReturnToRegular(OfEditions):
    """What differs in an edition below a path is as in the regular one again; without a path, all of it."""

    kind: Literal["return-to-regular"] = "return-to-regular"
    edition: Id
    path: Where | None = None

    def apply(self, control: Control, around: Surroundings) -> Control:
        edition = edition_of(control, self.edition)
        left = tuple(one for one in edition.differences if not is_below(one, self.path))
        if len(left) == len(edition.differences):
            raise NoSuchThing("Nothing of it differs there any more.")
        return with_one(control, edition.evolve(differences=left))

    def removes(self) -> bool:
        return True

    def label(self, control: Control) -> str:
        edition = edition_of(control, self.edition)
        count = sum(is_below(one, self.path) for one in edition.differences)
        what = "all" if self.path is None else f"{count} value{'' if count == 1 else 's'}"
        return f"{edition.name}: {what} as in the regular one again"


def edition_of(control: Control, name: str) -> Edition:
    """An edition by its id; raises ``NoSuchThing``."""
    (found,) = editions_of(control, (name,)) or (None,)
    if found is None:
        raise NoSuchThing("The regular one is what all others are made of.")
    return found


def size_of(control: Control, name: str) -> SizeEdition:
    """A size by its id; raises ``NoSuchThing``."""
    found = edition_of(control, name)
    if not isinstance(found, SizeEdition):
        raise NoSuchThing(f"“{control.name}” has no size “{name}”.")
    return found


def _quoted(edition: Edition) -> str:
    return f"“{edition.name}”" if isinstance(edition, SizeEdition) else edition.name


def _free_id(control: Control, name: str) -> str:
    return free_id(name, (REGULAR, *(one.id for one in control.editions)), "size")


def _check_free(control: Control, name: str, but: str = "") -> None:
    taken = (REGULAR, *(one.name.lower() for one in control.sizes if one.name != but))
    if name.lower() in taken:
        raise Refused(f"A size is called “{name}” already.")
