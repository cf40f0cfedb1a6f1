"""A panel of Trial as its page shows it: what stands on it as the script operates it, and the words beside it."""

from __future__ import annotations

import json
from collections.abc import Container, Iterator, Sequence
from dataclasses import asdict, dataclass
from typing import Any

from obrell.app.trial import Opened
from obrell.core.colour.links import literal
from obrell.core.document.editions import art_for, sizes_of
from obrell.core.document.model import Control, KitSettings
from obrell.core.document.resolve import DAY, DAY_NAME, colourway_or_day, palette
from obrell.core.document.swatch_uses import uses
from obrell.core.document.touching import body_box, touch_outline
from obrell.core.document.transitions import timing_of
from obrell.core.geometry.svgdata import number, path_data
from obrell.core.render.version import renderer_version
from obrell.core.shapes import Text
from obrell.core.trial.composing import bare
from obrell.core.trial.instances import behaviour_of, instance, looks_of, numbers_of, piece_of, standing_of
from obrell.core.trial.operating import TABLES
from obrell.core.trial.playing import by_pair, frame_count
from obrell.core.trial.reach import Reach, area_of, area_of_fixture, is_touched, reach_of
from obrell.core.trial.sources import series_of, table_of
from obrell.core.trial.starts import GROUNDS
from obrell.core.values.base import canonical_json, text_hash
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import Fill, Solid
from obrell.core.values.panels import Behaviour, Panel, Placement
from obrell.core.values.readings import Reading
from obrell.core.values.sources import Recorded, Source, Steps, Switches
from obrell.store.kits import Stored
from obrell.web.fields import FieldView, field_on
from obrell.web.pictures import Dressed
from obrell.web.trial_screen import fixtures_json

ROLES: dict[Behaviour, str] = {
    "momentary": "button", "toggle": "switch", "one of a group": "radio", "hold to confirm": "button",
    "knob": "slider", "slider": "slider", "lamp": "img", "meter": "meter", "counter": "button",
}  # fmt: skip
"""What each is to a screen reader (WAI-ARIA 1.2)."""
COURSE_NAMES = {"steady": "steady", "wave": "a wave", "steps": "steps", "random": "random", "recorded": "recorded"}


@dataclass(frozen=True, slots=True)
class Piece:
    """Something on a panel, with its control as it stands there."""

    placement: Placement
    stored: Stored
    control: Control
    behaviour: Behaviour


def pieces_of(here: Opened) -> Iterator[Piece]:
    """All that stand on a panel and are there."""
    for placement in here.panel.placements:
        stored = here.stored.get(placement.control)
        if stored is not None:
            control = instance(stored.control, placement, here.panel.density)
            yield Piece(placement, stored, control, behaviour_of(control, placement))


def screen_json(kit: str, here: Opened, reach: Reach) -> dict[str, Any]:
    """What the script needs to show and operate a panel."""
    panel = here.panel
    there = {piece.placement.id: piece for piece in pieces_of(here)}
    pieces = [
        _piece_json(kit, here, there[one.id]) if one.id in there else _gone_json(here, one) for one in panel.placements
    ]
    return {
        "id": panel.id, "name": panel.name, "width": panel.width, "height": panel.height, "density": panel.density,
        "bezel": panel.bezel, "ground": ground_address(kit, here),
        "pieces": pieces, "sources": [_source_json(one, there) for one in panel.sources],
        "fixtures": fixtures_json(panel),
        "gap": _gap_json(reach),
    }  # fmt: skip


def ground_address(kit: str, here: Opened) -> str:
    """Where the picture of a screen without its controls is found."""
    panel = here.panel
    return f"/kits/{kit}/trial/{panel.id}/ground/{ground_key(here.index, panel)}.png"


def ground_key(index: KitSettings, panel: Panel) -> str:
    """What that picture depends on, as a hash."""
    screen = canonical_json(bare(panel))
    return text_hash(f"{screen}{renderer_version()}{canonical_json(index.light)}{index.fit}{dict(palette(index))}")


def _piece_json(kit: str, here: Opened, piece: Piece) -> dict[str, Any]:
    placement, control = piece.placement, piece.control
    looks, body = looks_of(control), body_box(control)
    reading = control.readings[0] if control.readings else None
    return asdict(piece_of(control, placement)) | {
        "id": placement.id, "name": _words(control) if placement.words else control.name, "control": placement.control,
        "words": _words(control),
        "x": placement.x, "y": placement.y, "width": control.canvas.width, "height": control.canvas.height,
        "role": ROLES[piece.behaviour], "behaviour": piece.behaviour, "touched": is_touched(piece.behaviour),
        "picture": _picture(kit, here, piece), "touch": path_data(touch_outline(control)),
        "body": [body.left, body.top, body.right, body.bottom],
        "looks": looks, "timings": _timings(control, looks, here.panel.density),
        "now": asdict(standing_of(control, placement)), "reading": reading.id if reading else "",
        "unit": reading.unit if reading else "", "numbers": dict(numbers_of(control, placement)),
    }  # fmt: skip


def _gone_json(here: Opened, placement: Placement) -> dict[str, Any]:
    """A place whose control is gone or cannot be shown, and which of the two."""
    words = "cannot be shown" if placement.control in here.broken else "its control is gone"
    return {"id": placement.id, "gone": words, "x": placement.x, "y": placement.y, "width": 120, "height": 48}


def _words(control: Control) -> str:
    """What is written on it, for those who hear it; its name where nothing is."""
    texts = [part.shape.words for part in control.parts if isinstance(part.shape, Text) and part.visible]
    return " ".join(" ".join(texts).split()) or control.name


def _picture(kit: str, here: Opened, piece: Piece) -> str:
    """The address of its pictures, to which state and readings are added."""
    placement, control = piece.placement, piece.stored.control
    size = placement.size if placement.size in control.size_ids else None
    art = art_for(control, here.panel.density)
    names = [name for name in (size, art.id if art else None) if name]
    way = colourway_or_day(here.index, placement.colourway or DAY)
    dressed = Dressed(kit, here.index, way, editions=",".join(names))
    words = json.dumps(placement.words, sort_keys=True, ensure_ascii=False) if placement.words else None
    address = dressed.of(piece.stored.hash, uses(control), here.panel.density, words=words)
    return address if "?" in address else f"{address}?"


def _timings(control: Control, looks: dict[str, str], density: float) -> dict[str, tuple[float, int]]:
    """How long the states that are shown take to become each other, ms, and in how many frames."""
    return by_pair(
        looks.values(),
        lambda start, end: (timing_of(control, start, end).whole, frame_count(control, start, end, density)),
    )


def _source_json(source: Source, there: Container[str]) -> dict[str, Any]:
    """A source, with those of its moves whose controls are there."""
    table = table_of(source)
    return table | {"moves": [move for move in table["moves"] if move["placement"] in there]}


# Reach


def reach_on(here: Opened) -> Reach:
    """How large the touch areas of what is touched on a panel are, and how near to each other."""
    found = (
        area_of(one.placement.id, one.control, one.placement.x, one.placement.y)
        for one in pieces_of(here) if is_touched(one.behaviour) and not one.placement.disabled
    )  # fmt: skip
    fixed = map(area_of_fixture, here.panel.fixtures)
    return reach_of([area for area in (*found, *fixed) if area is not None])


def _gap_json(reach: Reach) -> dict[str, Any] | None:
    nearest = reach.nearest
    return None if nearest is None else {"start": nearest.start, "end": nearest.end, "px": round(nearest.px, 1)}


@dataclass(frozen=True, slots=True)
class ReachView:
    """The smallest touch area and the shortest way between two, in words, px and mm."""

    smallest: str = ""
    size: str = ""
    size_mm: str = ""
    nearest: str = ""
    gap: str = ""
    gap_mm: str = ""


def reach_view(here: Opened, reach: Reach) -> ReachView:
    """Reach, as the sheet says it."""
    names = {one.id: one.name for one in here.panel.fixtures}
    names |= {one.placement.id: one.control.name for one in pieces_of(here)}
    mm = here.panel.millimetre
    if reach.smallest is None:
        return ReachView()
    box = reach.smallest.box
    own = {
        "smallest": names[reach.smallest.placement],
        "size": f"{number(round(box.width, 1))} × {number(round(box.height, 1))}",
        "size_mm": f"{number(round(box.width / mm, 1))} × {number(round(box.height / mm, 1))}",
    }
    if reach.nearest is None:
        return ReachView(**own)
    one, other = names[reach.nearest.one], names[reach.nearest.other]
    return ReachView(
        **own, nearest=f"{one} and {other}", gap=number(round(reach.nearest.px, 1)),
        gap_mm=number(round(reach.nearest.px / mm, 1)),
    )  # fmt: skip


# The sheet


@dataclass(frozen=True, slots=True)
class MoveView:
    """One thing that a source moves, in words; its number where it switches something on."""

    at: int
    name: str
    what: str
    when: str = ""
    than: str = ""
    never: str = ""
    """Why its condition is never or always met."""


@dataclass(frozen=True, slots=True)
class SourceView:
    """A source as the sheet shows it."""

    id: str
    name: str
    unit: str
    kind: str
    course: str
    fields: tuple[FieldView, ...]
    steps: str
    rows: int
    moves: tuple[MoveView, ...]
    choices: tuple[tuple[str, str], ...]
    """What it could move: as JSON, and in words."""


def sources_view(here: Opened) -> list[SourceView]:
    """All sources of a panel."""
    there = {one.placement.id: one for one in pieces_of(here)}
    return [_source_view(here.panel, source, there) for source in here.panel.sources]


def _source_view(panel: Panel, source: Source, there: dict[str, Piece]) -> SourceView:
    course, base = source.course, f"sources/{source.id}/course"
    names = [name for name in type(course).model_fields if name not in ("kind", "values", "rows")]
    return SourceView(
        source.id, source.name, source.unit, course.kind, COURSE_NAMES[course.kind],
        tuple(field_on(panel, f"{base}/{name}") for name in names),
        " ".join(number(one) for one in course.values) if isinstance(course, Steps) else "",
        len(course.rows) if isinstance(course, Recorded) else 0,
        tuple(_moves(source, there)), tuple(_choices(panel, there)),
    )  # fmt: skip


def _moves(source: Source, there: dict[str, Piece]) -> Iterator[MoveView]:
    for at, one in enumerate(source.moves):
        piece = there.get(one.placement)
        name = "something that is gone" if piece is None else piece.control.name
        if isinstance(one, Switches):
            yield MoveView(at, name, "on", one.when, number(one.than), _never(source, one))
        else:
            found = [] if piece is None else [two.name for two in piece.control.readings if two.id == one.reading]
            yield MoveView(at, name, found[0].lower() if found else "a reading that is gone")


def _never(source: Source, move: Switches) -> str:
    """Return why a condition is never met, or always; empty for all others."""
    values = series_of(source.course).values
    low, high = min(values), max(values)
    met = (low > move.than, high > move.than) if move.when == "above" else (low < move.than, high < move.than)
    if met[0] != met[1]:
        return ""
    goes = f"is always {number(low)}" if low == high else f"goes from {number(low)} to {number(high)}"
    return f"That is {'always' if met[0] else 'never'} so: “{source.name}” {goes}."


def _choices(panel: Panel, there: dict[str, Piece]) -> Iterator[tuple[str, str]]:
    taken = {
        (one.placement, "on" if isinstance(one, Switches) else one.reading)
        for source in panel.sources for one in source.moves
    }  # fmt: skip
    for ident, piece in there.items():
        for reading in piece.control.readings:
            if (ident, reading.id) not in taken:
                move = {"kind": "reading", "placement": ident, "reading": reading.id}
                yield json.dumps(move), f"{piece.control.name}: {reading.name.lower()}"
        if len(piece.control.state_ids) > 1 and (ident, "on") not in taken:
            yield json.dumps({"kind": "on", "placement": ident}), f"{piece.control.name}: on"


@dataclass(frozen=True, slots=True)
class ChosenView:
    """What is chosen of a panel: where it stands and what is said of it there."""

    id: str
    name: str
    control: str
    x: FieldView
    y: FieldView
    acts: str
    behaviours: tuple[str, ...]
    suggested: str
    sizes: tuple[tuple[str, str], ...]
    size: str
    colourways: tuple[tuple[str, str], ...]
    colourway: str
    texts: tuple[tuple[str, str, str], ...]
    """Each text that it shows: the id, its name, its words there."""
    numbers: tuple[tuple[Reading, str], ...]
    on: FieldView | None
    disabled: FieldView
    group: FieldView | None
    hold: FieldView | None
    grasp: FieldView | None


def chosen_view(here: Opened, chosen: str) -> ChosenView | None:
    """The one that is chosen; none where that is gone, or its control is."""
    piece = next((one for one in pieces_of(here) if one.placement.id == chosen), None)
    if piece is None:
        return None
    placement, control, panel = piece.placement, piece.control, here.panel
    base = f"placements/{chosen}"

    def field(name: str, shown: bool = True) -> FieldView | None:
        return field_on(panel, f"{base}/{name}") if shown else None

    numbers = dict(numbers_of(control, placement))
    return ChosenView(
        chosen, control.name, placement.control, field_on(panel, f"{base}/x"), field_on(panel, f"{base}/y"),
        placement.acts or "", tuple(TABLES), behaviour_of(control, placement.evolve(acts=None)),
        sizes_of(piece.stored.control), placement.size or "regular",
        ((DAY, DAY_NAME), *((one.id, one.name) for one in here.index.colourways)), placement.colourway or DAY,
        tuple((part.id, part.name, part.shape.words) for part in control.parts if isinstance(part.shape, Text)),
        tuple((one, number(numbers.get(one.id, one.value))) for one in control.readings),
        field("on", len(control.state_ids) > 1), field_on(panel, f"{base}/disabled"),
        field("group", piece.behaviour == "one of a group"), field("hold", piece.behaviour == "hold to confirm"),
        field("grasp", piece.behaviour == "knob"),
    )  # fmt: skip


def gone_places(here: Opened) -> Sequence[str]:
    """The places whose control is gone or cannot be shown, by id."""
    return [one.id for one in here.panel.placements if one.control not in here.stored]


def removed_places(here: Opened) -> Sequence[str]:
    """The places whose control is gone, by id."""
    return [one.id for one in here.panel.placements if one.control not in {**here.stored, **here.broken}]


def grounds_of(index: KitSettings) -> dict[str, Fill]:
    """What a screen can be made of, by what that is called: what screens usually are, the kit's swatches, and the
    gradients that it keeps."""
    swatches = {swatch.name: Solid(colour=SwatchLink(swatch=swatch.id)) for swatch in index.swatches}
    return {**{one.name: one.fill for one in index.gradients}, **swatches, **GROUNDS}


def _ground_name(fill: Fill) -> str:
    """What a ground is called that is none of those."""
    return "a colour" if isinstance(fill, Solid) else "a picture" if fill.kind == "picture" else f"a {fill.kind} fill"


def grounds(index: KitSettings, panel: Panel) -> list[tuple[str, str, bool]]:
    """What a screen can be made of: names, the fills as JSON, and which it is made of."""
    known = grounds_of(index)
    own = {} if panel.ground in known.values() else {_ground_name(panel.ground): panel.ground}
    return [(name, fill.model_dump_json(), fill == panel.ground) for name, fill in {**own, **known}.items()]


def ground_colour(index: KitSettings, panel: Panel) -> str:
    """The colour that a screen is made of; empty where it is something else."""
    return literal(panel.ground.colour, palette(index)) if isinstance(panel.ground, Solid) else ""
