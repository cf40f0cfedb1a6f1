"""The sample kit, written as a colleague would dictate it: every part with its effects, back to front."""

from __future__ import annotations

from functools import cache

from obrell.core.document.model import Colourway, Control, Kit, Light, Swatch
from obrell.core.edit import Surroundings
from obrell.core.edit.colours import FollowSwatches
from obrell.core.shapes import Box, Icon, Round, Text
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import Linear, Stop
from obrell.samples.drawn import boat_queue, close_panel, hail_boat
from obrell.samples.editions import with_editions
from obrell.samples.links import LINKS
from obrell.samples.lit import (
    emergency_hold,
    gate,
    horn,
    lens_materials,
    lower_sluice,
    pilot_lamp,
    towpath_lights,
    water_level,
)
from obrell.samples.panels import panels
from obrell.samples.states import with_states
from obrell.samples.writing import control, drop, inner, linear, outline, part, radial, solid

DEEP = "#06323a"


NIGHT_WATCH = {
    "tarn": "#155a63", "brass": "#9a6c22", "chalk": "#efb65a", "slate": "#252e34", "signal": "#a2301f",
    "moss": "#426529", "pewter": "#7b7972", "quay": "#262d31",
}  # fmt: skip
"""For dark hours: dimmer metal on a dark ground, and labels in amber."""
FROST = {
    "tarn": "#4478b4", "brass": "#8aa3b5", "chalk": "#edf4f9", "slate": "#44566b", "signal": "#b2436b",
    "moss": "#37897f", "quay": "#e6edf2",
}  # fmt: skip
"""Turned, and cooler."""

LABELS = {"#ffffff": SwatchLink(swatch="chalk", tint=60), "#d9efee": SwatchLink(swatch="chalk")}
METAL = {
    colour: link.evolve(swatch="pewter") if link.swatch == "chalk" else link for colour, link in LINKS.items()
} | {"#fff6c4": LINKS["#fff2c0"]}  # fmt: skip
"""Links of metal, paper and lit edges, which are as bright as labels by day and dimmer by night."""
GROUND = Linear(
    stops=(
        Stop(position=0, colour=SwatchLink(swatch="quay")),
        Stop(position=1, colour=SwatchLink(swatch="quay", tint=-8)),
    )
)
"""The ground of every control."""
LETTERED = ("Arc 1", "Arc 2", "Arc 3", "Boat")
"""Names of parts that are drawn, and have the colour of labels."""


@cache
def wendmere_lock() -> Kit:
    """The kit with its controls in all their states and sizes, whose colours follow its swatches, and its panels."""
    kit = unlinked_lock()
    around = Surroundings.of(kit)

    def made(control: Control) -> Control:
        return with_editions(with_states(_linked(control, around), around), around)

    return kit.evolve(controls=tuple(map(made, kit.controls)), panels=panels())


def _linked(control: Control, around: Surroundings) -> Control:
    """Return a control whose colours follow swatches as ``links`` says; white words and icons follow the label's
    swatch, and all that is as bright elsewhere follows the metal's."""
    labels = tuple(one.id for one in control.parts if one.name in LETTERED or isinstance(one.shape, Text | Icon))
    rest = tuple(one.id for one in control.parts if one.id not in labels)
    if labels:
        control = FollowSwatches(links={**LINKS, **LABELS}, parts=labels).apply(control, around)
    return FollowSwatches(links=METAL, parts=rest).apply(control, around).evolve(ground=GROUND)


@cache
def unlinked_lock() -> Kit:
    """The kit as it is dictated, every colour its own."""
    return Kit(
        id="wendmere-lock",
        name="Wendmere Lock",
        light=Light(direction=0, height=40),
        swatches=(
            Swatch(id="tarn", name="tarn", colour="#1f8a92", role="main"),
            Swatch(id="brass", name="brass", colour="#c9952c", role="metal"),
            Swatch(id="chalk", name="chalk", colour="#f1efe7", role="label"),
            Swatch(id="slate", name="slate", colour="#4d5b63", role="ground"),
            Swatch(id="signal", name="signal", colour="#cf3a26", role="accent"),
            Swatch(id="moss", name="moss", colour="#5e8a3a", role="go"),
            Swatch(id="pewter", name="pewter", colour="#f1efe7", role="metal", like="chalk"),
            Swatch(id="quay", name="quay", colour="#eef0ec", role="ground"),
        ),
        colourways=(
            Colourway(id="night-watch", name="Night watch", colours=NIGHT_WATCH),
            Colourway(id="frost", name="Frost", colours=FROST),
        ),
        materials=lens_materials(),
        controls=(
            raise_sluice(),
            lower_sluice(raise_sluice()),
            water_level(),
            pilot_lamp(),
            gate("c11", "Close gate", "fence"),
            gate("c12", "Open gate", "door-open"),
            emergency_hold(),
            horn(),
            towpath_lights(),
            log_entry(),
            hail_boat(),
            boat_queue(),
            close_panel(),
        ),
    )


def raise_sluice() -> Control:
    """A glass capsule: collar, two-tone body, light caught at its foot, gloss cap, label."""
    collar = part(
        "p1", "Collar", Box(width=178, height=44, corners="round"), 106, 40,
        drop(6, 12, 0.36, spread=-3), drop(2, 3, 0.42),
        linear((0, "#fbf8ef"), (0.34, "#d9d3c2"), (0.62, "#8f8a7c"), (1, "#ddd7c7")),
        outline(1, (0, "#ffffff", 0.95), (0.45, "#ffffff", 0.15), (1, "#5f5b50", 0.35)),
    )  # fmt: skip
    body = part(
        "p2", "Body", Box(width=172, height=38, corners="round"), 106, 40,
        linear((0, "#2a93a0"), (0.3, "#1a7580"), (0.5, "#12626a"), (0.78, "#0c4f57"), (1, "#1a7580")),
        inner(-3, 9, "#7fe6ea", 0.5, blend="screen"),
        inner(3, 7, "#052d36", 0.55, blend="multiply"),
        inner(0, 2, "#04252d", 0.6, spread=0.5, blend="multiply"),
    )  # fmt: skip
    foot = part(
        "p3", "Foot light", Round(width=166, height=15), 106, 54,
        radial((0, "#a8f3ee", 0.42), (0.4, "#86e4e6", 0.16), (0.7, "#62d0d6", 0.04), (1, "#4fc4cc", 0)),
        blend="screen",
    )  # fmt: skip
    gloss = part(
        "p4", "Gloss", Box(width=160, height=16, corners="four", top_left=9, top_right=9,
                           bottom_right=7, bottom_left=7), 106, 31,
        linear((0, "#ffffff", 0.78), (0.45, "#ffffff", 0.26), (1, "#ffffff", 0.03)),
    )  # fmt: skip
    label = part(
        "p5", "Label", Text(words="Raise sluice", size=15, weight=650, tracking=0.2), 106, 40.5,
        drop(1, 1.5, 0.7, colour=DEEP), solid("#ffffff"),
    )  # fmt: skip
    return control("c1", "Raise sluice", 212, 80, (collar, body, foot, gloss, label))


def log_entry() -> Control:
    """A quiet flat key: paper, a lighter rim of one pixel, a soft cool shadow."""
    body = part(
        "p1", "Body", Box(width=130, height=32, radius=7), 75, 24,
        drop(4, 7, 0.24, colour="#31505e", spread=-1), drop(1, 2, 0.24, colour="#31505e"),
        drop(0, 0, 0.2, colour="#31505e", spread=1),
        linear((0, "#fcfbf8"), (1, "#ece9e0")),
        outline(1, (0, "#ffffff", 1), (1, "#ffffff", 0.55)),
    )  # fmt: skip
    label = part(
        "p2", "Label", Text(words="Log entry", size=14, weight=620), 75, 24,
        drop(-1, 0, 0.9, colour="#ffffff"), solid("#27343b"),
    )  # fmt: skip
    return control("c3", "Log entry", 150, 52, (body, label))
