"""The sheet: a control written down as sentences with live values."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from pydantic import TypeAdapter

from obrell.core.colour.stops import stops_text
from obrell.core.document.colours import colours_of
from obrell.core.document.materials import own_values
from obrell.core.document.measures import anchor_of, to_middle
from obrell.core.document.model import Control, Guide, KitSettings, Part
from obrell.core.document.resolve import Resolved
from obrell.core.document.swatch_uses import swatches_of
from obrell.core.document.value_paths import field_of, value_at
from obrell.core.edit import Surroundings
from obrell.core.edit.base import part_of
from obrell.core.edit.containers import holders_for
from obrell.core.edit.effect_stacks import HOLDERS
from obrell.core.edit.follows import has_size
from obrell.core.edit.materials import material_of
from obrell.core.edit.values import Change, SetValues
from obrell.core.effects import EFFECTS
from obrell.core.effects.base import ZONES, Effect, gradient_of
from obrell.core.effects.shadow import Shadow
from obrell.core.errors import NoSuchThing
from obrell.core.geometry.svgdata import shown
from obrell.core.paint.fills import seams_of, straightened
from obrell.core.shapes import Container, Path, Repeat, Text
from obrell.core.shapes.base import Sentence, Slot, Words
from obrell.core.values.base import Value
from obrell.core.values.fields import live_of
from obrell.core.values.paints import Conic, Gradient, Handled, Linear, Picture, Solid, Stop
from obrell.core.workspace import OfObject
from obrell.web.fields import FieldView, field_at, models, named_colours, pictured, shifted, view
from obrell.web.keeping import FitView, KeepingView, fit_of, keeping, kept, offset_at
from obrell.web.points import PointsView, chosen_points
from obrell.web.selection import Selection

Piece = str | FieldView
SHARED = ("number", "choice", "switch", "colour")
"""Kinds of values that can be set for several parts at once."""
HIDDEN_FIELDS = frozenset({"id", "kind", "visible", "fitted_x", "fitted_y"})


@dataclass(frozen=True, slots=True)
class StopView:
    """One stop of an open ramp: its place as a share, and its live values."""

    at: float
    position: FieldView
    colour: FieldView
    opacity: FieldView
    midpoint: FieldView


@dataclass(frozen=True, slots=True)
class TileView:
    """A picture as a fill, and the ways in which its tiles show a seam."""

    seams: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class RampView:
    """The gradient of an open effect: where it stands, its ramp, its stops."""

    path: str
    marks: tuple[tuple[float, str, float], ...]
    stops: tuple[StopView, ...]
    linear: bool
    seam: bool
    """Whether a conic gradient's ends differ where they meet."""
    kept: bool
    """Whether it is of a kind that a kit can keep."""
    text: str
    """Its stops as they are written in CSS; empty when some follow swatches."""


@dataclass(frozen=True, slots=True)
class OpenView:
    """What an open effect shows below its line."""

    rows: tuple[FieldView, ...]
    ramp: RampView | None
    others: tuple[tuple[str, str], ...]
    """Effects it can exchange its fill with."""
    picture: str
    """Where a picture can be its fill; empty where none can."""
    tile: TileView | None
    lit: bool = False
    """Whether a light can be followed."""


@dataclass(frozen=True, slots=True)
class EffectView:
    """One effect's line, and what it shows when it is open."""

    id: str
    label: str
    zone: str
    visible: bool
    pieces: tuple[Piece, ...]
    lamella: tuple[tuple[float, str, float], ...]
    open: OpenView | None
    first: bool
    last: bool
    departs: bool = False
    """Whether it differs from rest in the state that is drawn."""
    only: bool = False
    """Whether it is there in that state only."""


@dataclass(frozen=True, slots=True)
class Mark:
    """What was found of a part, in a word or two, and in a sentence."""

    word: str
    words: str


@dataclass(frozen=True, slots=True)
class PartView:
    """One part's block; effects only when it is selected."""

    id: str
    number: int
    name: str
    depth: int
    holds: bool
    find: str
    visible: bool
    locked: bool
    mark: Mark | None
    pieces: tuple[Piece, ...]
    selected: bool
    open: bool
    place: tuple[Piece, ...]
    anchor: str
    points: PointsView | None
    path: bool
    lined: bool
    """Whether a pen draws it, so that its outline can be made a path."""
    cropped: bool
    """Whether it is a picture, which handles can crop."""
    clip: FieldView | None
    """The choice of a clip, while there is none."""
    text: bool
    runs: tuple[tuple[Piece, ...], ...]
    repeat: bool
    copies: CopiesView | None
    remark: str
    keeping: tuple[KeepingView, ...]
    """The parts that it keeps to."""
    follows: tuple[FollowView, ...]
    """Other numbers that follow."""
    sized: bool
    """Whether it has a width and a height of its own."""
    can_follow: tuple[tuple[str, str], ...]
    count: int
    effects: tuple[EffectView, ...]
    material: MaterialView | None
    lies_in: str
    """What the part that it lies in is called."""
    holders: tuple[tuple[str, str], ...]
    """What else it can be put into: ids and names."""
    words: WordsView | None = None
    """Whether its lengths are those of a text in all states together."""
    departs: int = 0
    """How many of its values differ from rest in the state that is drawn."""


@dataclass(frozen=True, slots=True)
class MaterialView:
    """The material a part is linked to, and what it has of its own: titles, and edits that set it back."""

    name: str
    own: tuple[tuple[str, str], ...]


@dataclass(frozen=True, slots=True)
class CopiesView:
    """The copies of a repeat by number, those left out, and one chosen copy with what it has of its own."""

    numbers: tuple[int, ...]
    left_out: frozenset[int]
    own: frozenset[int]
    chosen: int | None
    pieces: tuple[Piece, ...]


@dataclass(frozen=True, slots=True)
class FollowView:
    """One number that follows another part."""

    path: str
    title: str
    source: str
    measure: str
    offset: FieldView
    least: FieldView
    even: bool


@dataclass(frozen=True, slots=True)
class WordsView:
    """Whether lengths that follow a text are in each state its own, and the edit that makes them otherwise."""

    own: bool
    edit: dict[str, Any]


@dataclass(frozen=True, slots=True)
class GuideView:
    """One guide's line."""

    id: str
    number: int
    axis: str
    at: FieldView
    since: FieldView


@dataclass(frozen=True, slots=True)
class CommonView:
    """An effect that several parts have: its line and its rows, each value that of all of them."""

    label: str
    rows: tuple[FieldView, ...]


@dataclass(frozen=True, slots=True)
class LightView:
    """Which effects follow the key light, as their part's name, their label and the switch that says so; and which
    fall elsewhere, as their part's name, their label and the edit that lets them follow it."""

    own: bool
    """Whether the control has a light of its own."""
    lit: tuple[tuple[str, str, FieldView], ...]
    elsewhere: tuple[tuple[str, str, dict[str, object]], ...]

    @property
    def following(self) -> int:
        return sum(bool(switch.value) for _, _, switch in self.lit)


@dataclass(frozen=True, slots=True)
class SheetView:
    """The whole sheet."""

    name: str
    canvas: tuple[Piece, ...]
    parts: tuple[PartView, ...]
    kinds: tuple[tuple[str, str, str], ...]
    """The kinds of effects: id, label, zone."""
    many: bool
    shared: tuple[FieldView, ...]
    common: tuple[CommonView, ...]
    """Effects that all selected parts have."""
    light: LightView
    guides: tuple[GuideView, ...]
    reference: tuple[Piece, ...]
    ground: OpenView | None
    """What the control stands on, when that is its own."""
    follows: tuple[FollowView, ...]
    """Sides of the canvas that follow a part."""
    fit: FitView | None
    """Of two selected parts, the one that can be fitted around the other."""
    stateful: bool = False
    """Whether the control has states besides rest."""


Names = Mapping[str, str]
"""What swatches are called, by id."""


def sheet_view(
    control: Control, kit: KitSettings, resolved: Resolved, seen: Selection,
    selected: tuple[str, ...], marked: Mapping[str, Mark],
) -> SheetView:  # fmt: skip
    """The sheet with some parts selected and one effect open; ``marked`` has what was found of parts."""
    views = [
        _part(control, kit, part, number, depth, selected, seen, marked.get(part.id), resolved)
        for number, (part, depth) in enumerate(_in_order(control, None, 0), start=1)
    ]
    kinds = tuple((kind, effect_type.label, effect_type.zone) for kind, effect_type in EFFECTS.items())
    shared = tuple(_shared(control, selected)) if len(selected) > 1 else ()
    guides = tuple(_guide(control, guide) for guide in control.guides)
    return SheetView(
        control.name,
        _canvas(control, kit),
        tuple(views),
        kinds,
        len(selected) > 1,
        shared,
        named_colours(tuple(_common(control, selected)), kit, seen.way(kit)) if len(selected) > 1 else (),
        LightView(control.light is not None, tuple(_lit(control)), tuple(_elsewhere(control))),
        guides,
        _reference(control),
        named_colours(_ground(control, resolved, names_of_swatches(kit)), kit, seen.way(kit)),
        tuple(_follows(control, None)),
        fit_of(resolved, selected),
    )


def _reference(control: Control) -> tuple[Piece, ...]:
    if control.reference is None:
        return ()
    at = {name: field_at(control, f"reference/{name}") for name in ("lies", "x", "y", "width", "opacity", "visible")}
    return (
        at["lies"], " at ", at["x"], ", ", at["y"], ", ", at["width"], " wide, ", at["opacity"],
        ", shown ", at["visible"],
    )  # fmt: skip


def names_of_swatches(kit: KitSettings) -> Names:
    """Return what the swatches of a kit are called, by id."""
    return {swatch.id: swatch.name for swatch in kit.swatches}


def _ground(control: Control, resolved: Resolved, names: Names) -> OpenView | None:
    fill = control.ground
    if fill is None:
        return None
    rows = (field_at(control, "ground/kind"), *(row for row in _rows(control, fill, "ground") if row.kind != "ramp"))
    seen = resolved.control.ground
    ramp = None
    if isinstance(fill, Gradient) and isinstance(seen, Gradient):
        ramp = _ramp_view(fill, seen, "ground", names)
    return OpenView(rows, ramp, (), "ground", _tile(fill))


def _guide(control: Control, guide: Guide) -> GuideView:
    base = f"guides/{guide.id}"
    others = [other for other in control.guides if other.axis == guide.axis and other.id != guide.id]
    across = guide.axis == "across"
    ends = ("the left", "the centre", "the right") if across else ("the top", "the middle", "the bottom")
    numbered = [(other.id, f"guide {control.guides.index(other) + 1}") for other in others]
    options = (*zip(("start", "middle", "end"), ends, strict=True), *numbered)
    since = FieldView("choice", f"{base}/since", "from", dict(options).get(guide.since, ends[0]), options=options)
    return GuideView(guide.id, control.guides.index(guide) + 1, guide.axis, field_at(control, f"{base}/at"), since)


def _shared(control: Control, selected: tuple[str, ...]) -> Iterator[FieldView]:
    """Values that all selected parts have: shown when they are the same, else with their range."""
    parts = [part for part in control.parts if part.id in selected]
    for name in ("x", "y", "rotation", "opacity", "blend", "fit"):
        yield _merged([_middled(control, f"parts/{part.id}/{name}") for part in parts], f"parts/*/{name}")
    kinds = {type(part.shape) for part in parts}
    if len(kinds) == 1:
        shape = kinds.pop()
        for name in shape.model_fields:
            live = live_of(shape.model_fields[name].metadata)
            if live is not None:
                slots = [field_at(control, f"parts/{part.id}/shape/{name}") for part in parts]
                yield _merged(slots, f"parts/*/shape/{name}")


def _middled(control: Control, path: str) -> FieldView:
    """Return the live value at a path; a place as that of the part's middle, which is what is set for several."""
    found, shift = field_at(control, path), to_middle(control, path)
    if not shift:
        return found
    middle = found.value + shift
    return replace(found, value=middle, text=shown(middle))


def _common(control: Control, selected: tuple[str, ...]) -> Iterator[CommonView]:
    """Effects in common: the nth of a kind of every selected part, the front-most first."""
    parts = [part for part in control.parts if part.id in selected]
    kinds = [Counter(str(effect.kind) for effect in part.effects) for part in parts]
    for kind in EFFECTS:
        count = min(found[kind] for found in kinds)
        for number in range(count):
            step = f"effects/{kind}:{number}"
            each = [_common_rows(control, part, step) for part in parts]
            rows = tuple(
                _merged([rows[path] for rows in each], f"parts/*/{path}")
                for path in each[0]
                if all(path in rows for rows in each)
            )
            label = EFFECTS[kind].label
            yield CommonView(f"{label} {number + 1}" if count > 1 else label, rows)


def _common_rows(control: Control, part: Part, step: str) -> dict[str, FieldView]:
    """The rows of an effect that can be set for several parts, by their paths below the part."""
    base = f"parts/{part.id}"
    rows = _rows(control, value_at(control, f"{base}/{step}"), f"{base}/{step}")
    return {row.path.removeprefix(f"{base}/"): row for row in rows if row.kind in SHARED}


def _lit(control: Control) -> Iterator[tuple[str, str, FieldView]]:
    for part in reversed(control.parts):
        for effect in reversed(part.effects):
            path = effect.light_path()
            if path:
                yield part.name, effect.heading, field_at(control, f"parts/{part.id}/effects/{effect.id}/{path}")


def _elsewhere(control: Control) -> Iterator[tuple[str, str, dict[str, object]]]:
    for part in reversed(control.parts):
        for effect in reversed(part.effects):
            if isinstance(effect, Shadow) and not effect.light_path():
                base = f"parts/{part.id}/effects/{effect.id}/offset"
                changes = [{"path": f"{base}/kind", "value": "cast"}, {"path": f"{base}/follow", "value": True}]
                yield part.name, effect.heading, {"kind": "set", "changes": changes}


def _merged(slots: Sequence[FieldView], path: str) -> FieldView:
    first = slots[0]
    if len({(one.text, one.link) for one in slots}) == 1:
        return replace(first, path=path)
    if first.kind != "number":
        plain = replace(first, link=None, swatch="", adjusted=())
        return replace(plain, path=path, text="", options=(("", "differ"), *first.options))
    values = sorted(slots, key=lambda one: one.value)
    return replace(first, path=path, text=f"{values[0].text} … {values[-1].text}")


def _in_order(control: Control, within: str | None, depth: int) -> Iterator[tuple[Part, int]]:
    """Parts front-most first, each container before what lies in it, with how deep they lie."""
    for part in reversed([p for p in control.parts if p.within == within]):
        yield part, depth
        if isinstance(part.shape, Container):
            yield from _in_order(control, part.id, depth + 1)


def _canvas(control: Control, kit: KitSettings) -> tuple[Piece, ...]:
    light = control.light or kit.light
    return (
        "Canvas ", field_at(control, "canvas/width"), " × ", field_at(control, "canvas/height"),
        ", margin ", field_at(control, "canvas/margin"), ". Light from ",
        view(light, "direction", "light/direction"), ", ", view(light, "height", "light/height"), " high.",
    )  # fmt: skip


_CLOSED = OfObject[PartView](8192)
"""Parts that are not open: nothing but themselves and their place in the list tells how they are shown."""


def _part(
    control: Control, kit: KitSettings, part: Part, number: int, depth: int,
    selected: tuple[str, ...], seen: Selection, mark: Mark | None, resolved: Resolved,
) -> PartView:  # fmt: skip
    if selected == (part.id,):
        return named_colours(
            _part_view(control, kit, part, number, depth, selected, seen, mark, resolved), kit, seen.way(kit)
        )
    besides = (number, depth, part.id in selected, mark, seen.anchor, _find(part, resolved))
    return _CLOSED.get(
        part, besides, lambda: _part_view(control, kit, part, number, depth, selected, seen, mark, resolved)
    )


def _part_view(
    control: Control, kit: KitSettings, part: Part, number: int, depth: int,
    selected: tuple[str, ...], seen: Selection, mark: Mark | None, resolved: Resolved,
) -> PartView:  # fmt: skip
    base = f"parts/{part.id}"
    is_open = selected == (part.id,)
    own, material = _material(part, kit) if is_open else (frozenset[str](), None)
    names = names_of_swatches(kit)
    effects = tuple(_effects(control, part, resolved, seen.effect, own, names)) if is_open else ()
    return PartView(
        part.id, number, part.name, depth, isinstance(part.shape, Container), _find(part, resolved),
        part.visible, part.locked, mark,
        _pieces(control, part.shape.sentence(), f"{base}/shape"), part.id in selected, is_open,
        _place(control, part, resolved, seen) if is_open else (), seen.anchor or "0.5,0.5",
        chosen_points(control, part, seen.spots()) if is_open else None,
        isinstance(part.shape, Path), is_open and part.shape.as_line() is not None, part.shape.kind == "picture",
        field_at(control, f"{base}/clip") if is_open and not part.clip else None,
        isinstance(part.shape, Text), tuple(_runs(control, part)) if is_open else (),
        isinstance(part.shape, Repeat), _copies(control, part, seen) if is_open else None, part.shape.remark(),
        keeping(control, part) if is_open else (), tuple(_follows(control, part)) if is_open else (), has_size(part),
        tuple(_can_follow(part)) if is_open else (), len(part.effects), effects, material,
        part_of(control, part.within).name if is_open and part.within else "",
        tuple((one.id, one.name) for one in reversed(holders_for(control, part))) if is_open else (),
        _words(control, part) if is_open else None,
    )  # fmt: skip


def _material(part: Part, kit: KitSettings) -> tuple[frozenset[str], MaterialView | None]:
    """The paths of values that a linked part has of its own, and what is said of its material."""
    try:
        material = material_of(part.material or "", Surroundings(materials=kit.materials))
    except NoSuchThing:
        return frozenset(), None
    own = own_values(part, material)
    base, effects = f"parts/{part.id}/effects", {effect.id: effect for effect in part.effects}
    views = []
    for one in own:
        path = f"{base}/{one.effect}/{one.path}"
        owner, name = field_of(effects[one.effect], one.path)
        title = type(owner).model_fields[name].title or name
        back = SetValues(changes=(Change(path=path, value=TypeAdapter(Any).dump_python(one.material, mode="json")),))
        views.append((f"{title} of {effects[one.effect].said}", back.model_dump_json()))
    return frozenset(f"{base}/{one.effect}/{one.path}" for one in own), MaterialView(material.name, tuple(views))


_FOUND_BY = OfObject[str](8192)


def _find(part: Part, resolved: Resolved) -> str:
    """What a search in the sheet looks through: name, kind, colours as they look, and the swatches they follow."""
    drawn = part_of(resolved.control, part.id)
    words = (part.name, part.shape.kind)
    return _FOUND_BY.get(
        drawn, (*words, *swatches_of(part)), lambda: " ".join((*words, *colours_of(drawn), *swatches_of(part))).lower()
    )


def _place(control: Control, part: Part, resolved: Resolved, seen: Selection) -> tuple[Piece, ...]:
    base = f"parts/{part.id}"
    x, y = field_at(control, f"{base}/x"), field_at(control, f"{base}/y")
    at = anchor_of(resolved.tree.all[part.id].part, seen.shares())
    x, y = (shifted(one, round(to - one.value, 9)) for one, to in ((x, at[0]), (y, at[1])))
    pieces: list[Piece] = ["At ", x, ", ", y]
    for words, name in ((", turned ", "rotation"), (", opacity ", "opacity"), (", ", "blend")):
        pieces += [words, field_at(control, f"{base}/{name}")]
    if part.mirrored:
        pieces += [". Mirrored: ", field_at(control, f"{base}/mirrored")]
    pieces += [". Edges fitted: ", field_at(control, f"{base}/fit")]
    for name in part.shape.details():
        found = field_at(control, f"{base}/shape/{name}")
        pieces += [f". {found.title.capitalize()} ", found]
    if part.clip:
        pieces += [". Clipped to ", field_at(control, f"{base}/clip")]
    return (*pieces, ".")


def _runs(control: Control, part: Part) -> Iterator[tuple[Piece, ...]]:
    """Letters of a text with a look of their own."""
    if not isinstance(part.shape, Text):
        return
    for number, run in enumerate(part.shape.runs):
        base = f"parts/{part.id}/shape/runs/{number}"
        pieces: list[Piece] = [f"“{part.shape.words[run.start : run.end].replace(chr(10), ' ')}”: "]
        said = (
            ("", "font"), (" ", "size"), (", weight ", "weight"), (", tracking ", "tracking"),
            (", raised by ", "rise"),
            (", own colour ", "coloured"), *(((" ", "colour"),) if run.coloured else ()),
        )  # fmt: skip
        for words, name in said:
            pieces += [words, field_at(control, f"{base}/{name}")]
        yield tuple(pieces)


def _copies(control: Control, part: Part, seen: Selection) -> CopiesView | None:
    repeat = part.shape
    if not isinstance(repeat, Repeat) or repeat.way == "mirrored":
        return None
    own = {item.copy_number: index for index, item in enumerate(repeat.own)}
    chosen = int(seen.copy_number) if seen.copy_number else None
    chosen = chosen if chosen is not None and chosen < repeat.count else None
    pieces: list[Piece] = []
    if chosen in own:
        base = f"parts/{part.id}/shape/own/{own[chosen]}"
        said = [("opacity ", "opacity"), (", outline width ", "width"), (", moved ", "across"), (", ", "down")]
        said += [(", own colour ", "coloured"), *([(" ", "colour")] if repeat.own[own[chosen]].coloured else [])]
        for words, name in said:
            pieces += [words, field_at(control, f"{base}/{name}")]
    numbers = tuple(range(repeat.count))
    return CopiesView(numbers, frozenset(repeat.left_out), frozenset(own), chosen, tuple(pieces))


def _follows(control: Control, part: Part | None) -> Iterator[FollowView]:
    """What follows another part: numbers of a part, or of the canvas."""
    names = {other.id: other.name for other in control.parts}
    titles = dict(_can_follow(part)) if part else {"canvas/width": "width", "canvas/height": "height"}
    said = kept(part) if part else []
    for index, follow in enumerate(part.follows if part else control.follows):
        if follow in said:
            continue
        base = f"parts/{part.id}/follows/{index}" if part else f"follows/{index}"
        offset = (
            offset_at(control, f"parts/{part.id}/{follow.path}", index)
            if part
            else field_at(control, f"{base}/offset")
        )
        yield FollowView(
            follow.path, titles.get(follow.path, follow.path), names.get(follow.source, "a part that is gone"),
            follow.measure, offset, field_at(control, f"{base}/least"), follow.even,
        )  # fmt: skip


def _words(control: Control, part: Part) -> WordsView | None:
    """For a part whose lengths follow a text."""
    texts = {other.id for other in control.parts if isinstance(other.shape, Text)}
    lengths = [n for n, one in enumerate(part.follows) if one.source in texts and one.measure in ("width", "height")]
    if not lengths:
        return None
    own = part.follows[lengths[0]].own_words
    changes = [{"path": f"parts/{part.id}/follows/{number}/own_words", "value": not own} for number in lengths]
    return WordsView(own, {"kind": "set", "changes": changes})


def _can_follow(part: Part) -> Iterator[tuple[str, str]]:
    """The numbers of a part that can follow another: its place and the lengths of its shape."""
    yield from (("x", "across"), ("y", "down"))
    for name, found in type(part.shape).model_fields.items():
        live = live_of(found.metadata)
        if live is not None and live.unit == "px":
            yield f"shape/{name}", found.title or name


def _effects(
    control: Control, part: Part, resolved: Resolved, opened: str, own: frozenset[str], names: Names
) -> list[EffectView]:  # fmt: skip
    views: list[EffectView] = []
    drawn = {effect.id: effect for effect in part_of(resolved.control, part.id).effects}
    for zone in reversed(ZONES):
        in_zone = [e for e in reversed(part.effects) if e.lies_in() == zone]
        for place, effect in enumerate(in_zone):
            views.append(_effect(control, part, effect, drawn[effect.id], opened, place, len(in_zone), own, names))
    return views


def _effect(
    control: Control, part: Part, effect: Effect, drawn: Effect, opened: str, place: int, count: int,
    own: frozenset[str], names: Names,
) -> EffectView:  # fmt: skip
    """One effect's line; ``drawn`` is the effect with its colours as they look."""
    base = f"parts/{part.id}/effects/{effect.id}"
    pieces = _pieces(control, effect.account(), base)
    if effect.blend != "normal":
        pieces = (*pieces, ", ", field_at(control, f"{base}/blend"))
    pieces = tuple(_marked(piece, own) if isinstance(piece, FieldView) else piece for piece in pieces)
    return EffectView(
        effect.id, effect.heading, effect.lies_in() if place == 0 else "", effect.visible, pieces, _lamella(drawn),
        _opened(control, part, effect, drawn, base, own, names) if effect.id == opened else None,
        place == 0, place == count - 1,
    )  # fmt: skip


def _marked(found: FieldView, own: frozenset[str]) -> FieldView:
    return replace(found, own=True) if found.path in own else found


def _opened(
    control: Control, part: Part, effect: Effect, drawn: Effect, base: str, own: frozenset[str], names: Names
) -> OpenView:  # fmt: skip
    unfit = effect.unfit(part.shape)
    rows = _named_apart([_marked(row, own) for row in _rows(control, effect, base, unfit) if row.kind != "ramp"])
    picture = f"{base}/fill" if _takes_pictures(effect) else ""
    tile, lit = _tile(getattr(effect, "fill", None)), bool(effect.light_path())
    return OpenView(rows, _ramp(effect, drawn, base, names), _others(part, effect), picture, tile, lit)


def _ramp(effect: Effect, drawn: Effect, base: str, names: Names) -> RampView | None:
    found, seen = gradient_of(effect), gradient_of(drawn)
    if found is None or seen is None:
        return None
    return _ramp_view(found[1], seen[1], f"{base}/{found[0]}", names)


def _ramp_view(ramp: Gradient, seen: Gradient, path: str, names: Names) -> RampView:
    """A ramp; ``seen`` has its colours as they look."""
    return RampView(
        path, marks(straightened(seen)), _stops(ramp, path), isinstance(ramp, Linear),
        isinstance(ramp, Conic) and ramp.seam, isinstance(ramp, Handled), stops_text(ramp.stops, names),
    )  # fmt: skip


def _rows(control: Control, owner: Value, base: str, unfit: tuple[str, ...] = ()) -> list[FieldView]:
    """Every field as a row but the ``unfit`` ones; nested values are unfolded, their kind first."""
    rows: list[FieldView] = []
    names = list(type(owner).model_fields)
    if isinstance(owner, Effect):
        names.sort(key=lambda name: name in Effect.model_fields)
    for name in names:
        value = getattr(owner, name)
        if name in HIDDEN_FIELDS or name in owner.omitted() or name in unfit:
            continue
        if isinstance(value, Value) and "kind" in type(value).model_fields:
            rows.append(field_at(control, f"{base}/{name}/kind"))
            rows.extend(_rows(control, value, f"{base}/{name}"))
        else:
            row = field_at(control, f"{base}/{name}")
            pictures = owner.pictures(name) if isinstance(owner, Effect) else {}
            rows.append(pictured(row, pictures) if pictures else row)
    return rows


def _named_apart(rows: list[FieldView]) -> tuple[FieldView, ...]:
    """Rows of one title are told apart by what they belong to."""
    titles = Counter(row.title for row in rows)
    return tuple(
        replace(row, title=f"{row.path.split('/')[-2]} {row.title}") if titles[row.title] > 1 and nested(row) else row
        for row in rows
    )


def nested(row: FieldView) -> bool:
    """Whether a row's value belongs to a value within its effect."""
    return len(row.path.split("/")) > len(("parts", "p", "effects", "e", "name"))


def _pieces(control: Control, sentence: Sentence, base: str) -> tuple[Piece, ...]:
    return tuple(
        piece.text if isinstance(piece, Words) else field_at(control, f"{base}/{piece.path}")
        for piece in sentence
        if isinstance(piece, Words | Slot)
    )


def _others(part: Part, effect: Effect) -> tuple[tuple[str, str], ...]:
    if not isinstance(effect, HOLDERS):
        return ()
    others = [other for other in reversed(part.effects) if isinstance(other, HOLDERS) and other.id != effect.id]
    return tuple((other.id, _told_apart(other)) for other in others)


def _told_apart(effect: Effect) -> str:
    fill = getattr(effect, "fill", None)
    return f"{effect.said}, {fill.kind if fill else ''}"


def _takes_pictures(effect: Effect) -> bool:
    field = type(effect).model_fields.get("fill")
    return field is not None and Picture in models(field.annotation)


def _tile(fill: object) -> TileView | None:
    if not isinstance(fill, Picture):
        return None
    return TileView(seams_of(fill))


def _lamella(effect: Effect) -> tuple[tuple[float, str, float], ...]:
    """A small ramp that tells effects apart at a glance: position, colour, opacity."""
    fill, found = getattr(effect, "fill", None), gradient_of(effect)
    if found:
        return marks(found[1].stops)
    colour = _hex(fill.colour if isinstance(fill, Solid) else getattr(effect, "colour", "#808080"))
    end = 1.0 if fill is not None else 0.0
    return ((0.0, colour, effect.opacity), (1.0, colour, effect.opacity * end))


def marks(stops: tuple[Stop, ...]) -> tuple[tuple[float, str, float], ...]:
    """Position, colour to show and opacity of every stop."""
    return tuple((stop.position, _hex(stop.colour), stop.opacity) for stop in stops)


def _stops(gradient: Gradient, base: str) -> tuple[StopView, ...]:
    names = ("position", "colour", "opacity", "midpoint")
    return tuple(
        StopView(stop.position, *(view(stop, name, f"{base}/stops/{index}/{name}") for name in names))
        for index, stop in enumerate(gradient.stops)
    )


def _hex(colour: object) -> str:
    """A colour as it looks; grey for what has none."""
    return colour if isinstance(colour, str) else "#808080"
