"""The Bench's commands: every action by its words, where it stands, its key, what it needs."""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import get_args

from obrell.core.document.model import Stands
from obrell.core.edit.effect_stacks import HEAVIER, LIGHTER
from obrell.core.edit.pieces import PieceName
from obrell.core.edit.starts import STARTS as STATE_STARTS
from obrell.core.edit.starts import told_apart
from obrell.core.effects import EFFECTS
from obrell.core.shapes import SHAPES
from obrell.core.shapes.base import Tool


def _cut(kind: str, tool: Tool) -> tuple[str, str, str, str]:
    at = tool.word.lower().index(tool.key)
    return tool.name or kind, tool.word[:at], tool.word[at], tool.word[at + 1 :]


DRAW_WORDS = tuple(_cut(kind, shape.tool) for kind, shape in SHAPES.items() if shape.tool is not None)
"""The tools that draw parts: each one's name, and its word cut in three around the letter that is its key."""
LOOKS = tuple(
    (word, words, json.dumps(edit))
    for word, words, edit in (
        ("Lighter", "A lighter look", {"kind": "strengthen", "factor": LIGHTER}),
        ("Heavier", "A heavier look", {"kind": "strengthen", "factor": HEAVIER}),
        ("As pressed", "A pressed look", {"kind": "press-look"}),
        ("Keep aside", "Keep this look aside", {"kind": "keep-version"}),
    )
)
"""What is done to a whole look: in the sheet, among all commands, and the edit but for its parts."""
FOLDS = {
    "makings": "Rim, margins, groups, copies, size",
    "starts": "Begin with light, shade, depth",
    "effects": "Copy, strengthen, keep or sweep its effects",
}
"""What lies folded in the sheet of one part, as its words say."""
MAKINGS, MORE_EFFECTS = f"Sheet, {FOLDS['makings']}", f"Sheet, {FOLDS['effects']}"
GROUNDS = get_args(Stands)
"""What the art can stand on while it is drawn."""
ALIGNMENTS = (
    ("across start", "left"), ("across middle", "centre"), ("across end", "right"),
    ("down start", "top"), ("down middle", "middle"), ("down end", "bottom"),
)  # fmt: skip
MODES = ("union", "difference", "intersection", "exclusion")
WAYS = (("row", "in a row"), ("around", "round a centre"), ("rings", "as rings"), ("mirrored", "mirrored"))
POINTS = (
    ("smooth", "smooth"), ("sharp", "sharp"), ("cut", "cut open"), ("join", "join"),
    ("remove", "remove"),
)  # fmt: skip
NEEDS = {
    "part": "Select a part first.", "one": "Select one part first.", "two": "Select two parts or more first.",
    "pair": "Select two parts first.", "three": "Select three parts or more first.",
    "path": "Select one path first.", "picture": "Select one picture first.",
    "points": "Choose points of a path first.",
    "holder": "Select a group, combination or repeat first.", "effect": "Open an effect in the sheet first.",
    "ramp": "Open an effect with a gradient first.", "guides": "There are no guides.",
    "state": "Draw another state than rest first.", "states": "Add a state first.",
    "edition": "Draw a size or the art for a density first.",
    "original": "This control follows no other.",
    "undo": "There is nothing to take back.", "redo": "There is nothing to do again.",
}  # fmt: skip
"""What a command needs before it can be done, in words."""


@dataclass(frozen=True, slots=True)
class Command:
    """``data`` are the attributes of the word in the sheet that does it, ``other`` words by which people look for
    it."""

    words: str
    where: str
    data: dict[str, str] = field(default_factory=dict)
    key: str = ""
    need: str = ""
    other: str = ""


VALUES = (
    ("Opacity", ".num[data-path$='/opacity']"), ("Rotate: angle", ".num[data-path$='/rotation']"),
    ("Corner radius", ".num[data-path$='/shape/radius']"), ("Font", "[data-font-path]"),
)  # fmt: skip
"""Values of a part that can be found by name, and their selectors."""
OTHER_WORDS = {
    "opacity": "transparency transparent alpha see through",
    "rotate": "turn rotation tilt",
    "corner radius": "rounded corners round",
    "font": "typeface bold weight italic",
    "wall": "overview contrast accessibility readable wcag labels",
    "trial": "preview prototype test simulate",
    "import": "open upload file photo image",
    "light from": "lamp sun key direction shade",
    "to the front": "raise top above order arrange",
    "to the back": "behind bottom below lower order arrange",
    "duplicate": "copy clone again twin",
    "remove": "delete clear erase",
    "linked copy": "clone link follow instance",
    "rim": "border edge ring frame collar",
    "stay inside": "padding margin inset bind link",
    "centre": "middle align center",
    "forward": "front raise above order up",
    "back in the order": "behind lower below order down",
    "rename": "name title label call",
    "copy all effects": "style look appearance",
    "paste effects": "style look appearance apply",
    "hide": "visible visibility eye show",
    "lock": "protect freeze",
    "lighter look": "weaker softer",
    "heavier look": "stronger",
    "pressed look": "down pushed click state",
    "keep this look": "version variant save alternative",
    "material": "style preset metal glass texture look",
    "group": "bundle together folder",
    "repeat in a row": "array pattern grid step",
    "round a centre": "dial ticks radial",
    "mirror": "reflect symmetry",
    "rings": "concentric",
    "to a path": "shapes curves edit points vector",
    "outline the lines": "expand stroke",
    "crop": "cut trim picture photo",
    "flip": "mirror reflect turn over",
    "scale": "resize bigger smaller percent size",
    "grow or shrink": "offset inset expand",
    "length follow": "link bind constraint relate distance",
    "union": "add merge unite join boolean",
    "difference": "subtract cut minus punch hole boolean",
    "intersection": "overlap common boolean",
    "exclusion": "hollow odd boolean",
    "align": "line up edge",
    "space evenly": "distribute gaps spread spacing",
    "beside its label": "icon text pair",
    "fit a body": "padding hug around text button size",
    "points": "anchor node vertex corner curve",
    "paint": "fill colour color gradient surface",
    "shadow": "shade depth dark elevation",
    "inner shadow": "inset recessed",
    "glow": "halo shine light",
    "bevel": "edge relief emboss 3d",
    "gloss": "shine reflection highlight glass",
    "grain": "noise texture rough",
    "outline": "stroke border rim line",
    "blur": "soft focus frosted glass",
    "add mask": "fade clip cut cutout alpha",
    "stop": "gradient colour ramp",
    "gradient": "ramp colour fade",
    "guide": "line ruler grid help",
    "see at": "zoom enlarge magnify view actual",
    "fit into": "zoom whole all view",
    "true pixels": "grid raster device",
    "halves": "compare split before after",
    "heat": "difference cost",
    "snap": "magnet stick grid align",
    "undo": "take back revert",
    "redo": "again",
    "what was done": "history steps log",
    "deliver": "export save files png svg zip download",
    "stand on": "background ground backdrop canvas",
    "select all": "everything",
    "keys": "shortcuts keyboard help",
    "original": "unlink detach link instance copy",
    "follow swatches": "link swatch palette nearest theme",
    "recolour": "hue swatch turn colorize recolor tint theme colourway",
    "begin with": "start preset gloss rim light shade",
    "state": "hover pressed focus disabled active on off variant pseudo rollover role",
    "movement": "transition animation easing duration delay timing",
    "touch area": "hit target tap click",
    "take apart": "ungroup release explode",
    "begin a button": "widget control start",
    "as at rest": "reset default override back",
    "swap for": "replace exchange",
    "put into": "group move nest inside",
    "take out": "ungroup release",
    "every effect": "all sweep clean",
    "remove all effects": "plain flat reset clean nothing",
    "look of the last one": "again same repeat style",
    "picture": "photo image bitmap",
    "icon": "symbol pictogram glyph",
    "text": "label words type letters font bold italic weight",
    "pen": "curve draw path vector bezier",
    "sides": "triangle polygon star hexagon",
    "round": "circle ellipse oval dot",
    "box": "rectangle square rounded body",
    "ring": "donut arc gauge",
    "line": "stroke arrow rule",
}
"""What else people call what a command is about, by words of its own."""


def commands() -> list[Command]:
    """Everything that can be done on the Bench."""
    found = (*_drawing(), *_parts(), *_several(), *_points(), *_effects(), *_states(), *_guides(), *_view())
    return [replace(command, other=f"{command.other} {_other(command.words)}".strip()) for command in found]


def _other(words: str) -> str:
    return " ".join(other for word, other in OTHER_WORDS.items() if word in words.lower())


def _drawing() -> Iterator[Command]:
    for kind, before, key, rest in DRAW_WORDS:
        word = f"{before}{key}{rest}".lower()
        yield Command(f"Draw: {word}", "Sheet, Draw", {"draw": kind}, key.upper())
    yield Command("Import a picture …", "Sheet, Draw", {"bring": "part"})
    yield Command("Draw: triangle", "Sheet, Draw", {"draw": "sides", "values": '{"count": 3}'})


def _parts() -> Iterator[Command]:
    for words, do, key, need in (
        ("Duplicate", "duplicate", "D", "part"), ("Linked copy", "linked-copy", "K", "part"),
        ("Remove", "remove", "Delete", "part"),
        ("Centre on the canvas", "centre-both", "", "part"), ("Centre across", "centre-across", "", "part"),
        ("Centre down", "centre-down", "", "part"), ("Forward in the order", "forward", "", "one"),
        ("Back in the order", "back", "", "one"), ("Rename", "rename", "", "one"),
        ("To the front", "to-front", "", "part"), ("To the back", "to-back", "", "part"),
        ("Hide or show", "hide", "", "part"), ("Lock or unlock", "lock", "", "part"),
    ):  # fmt: skip
        yield Command(words, "Sheet, part", {"do": do}, key, need)
    for words, do, need in (
        ("Copy all effects", "copy-effects", "one"), ("Paste effects", "paste-effects", "part"),
        ("Paste effects over all of them", "paste-effects-instead", "part"),
        ("Give it the look of the last one", "like-last", "part"), ("Remove all effects", "plain", "part"),
    ):  # fmt: skip
        yield Command(words, MORE_EFFECTS, {"do": do}, "", need)
    yield Command("Hide, show or remove every effect of a kind …", MORE_EFFECTS, {"fill": "sweep-effects"}, "", "one")
    yield Command("Swap for what was copied", MAKINGS, {"do": "paste-instead"}, "", "part")
    for _, words, edit in LOOKS:
        yield Command(words, MORE_EFFECTS, {"edit": edit, "with": "parts"}, "", "part")
    for words, selector in VALUES:
        yield Command(words, "Sheet, part", {"press": f".part.sel {selector}"}, "", "one")
    leave = json.dumps({"kind": "leave-original"})
    yield Command("Stop following the original", "Sheet, below the canvas", {"edit": leave}, "", "original")
    starts = {"press": "#starts > summary"}
    yield Command(f"{FOLDS['starts']} …", "Sheet, below the effects", starts, "", "one")
    yield Command("Lay a material, try effects …", "Sheet, below the effects", {"looks": ""}, "M", "part")
    yield Command("Let colours follow swatches …", "Sheet, Colour", {"aside": "follow"})
    yield Command("Recolour …", "Sheet, Colour", {"aside": "recolour"})
    yield Command("Group", MAKINGS, {"do": "group"}, "", "part")
    for way, word in WAYS:
        yield Command(f"Repeat {word}", MAKINGS, {"do": "repeat", "way": way}, "", "part")
    yield Command("Make every copy of a repeat a part of its own", MAKINGS, {"do": "spread"}, "", "holder")
    yield Command("Take apart", MAKINGS, {"do": "take-apart"}, "", "holder")
    yield Command("Put into a group …", MAKINGS, {"fill": "put-into"}, "", "one")
    take_out = json.dumps({"kind": "put-into", "into": None})
    yield Command("Take out of what it lies in", MAKINGS, {"edit": take_out, "with": "parts"}, "", "part")
    yield Command("Convert to a path", MAKINGS, {"do": "to-path"}, "", "part")
    yield Command("Outline the lines", MAKINGS, {"do": "outline-lines"}, "", "part")
    yield Command("Crop a picture by its handles", "Sheet, picture", {"do": "crop"}, "", "picture")
    for way in ("across", "down"):
        yield Command(f"Flip {way}", MAKINGS, {"do": "flip", "way": way}, "", "part")
    for words, form in (
        ("Rim …", "add-rim"), ("Stay inside another part …", "stay-inside"), ("Scale …", "scale"),
        ("Copy round a centre …", "copy-around"), ("Copy along …", "copy-along"),
        ("Grow or shrink …", "grow"), ("Let a length follow another part …", "add-follow"),
    ):  # fmt: skip
        yield Command(words, MAKINGS, {"fill": form}, "", "one")


def _several() -> Iterator[Command]:
    for mode in MODES:
        yield Command(f"Combine: {mode}", "Sheet, several parts", {"do": "combine", "mode": mode}, "", "two")
    for align, word in ALIGNMENTS:
        yield Command(f"Align {word}", "Sheet, several parts", {"align": align}, "", "two")
    for axis in ("across", "down"):
        yield Command(f"Space evenly {axis}", "Sheet, several parts", {"space": axis}, "", "three")
    yield Command("Put an icon beside its label …", "Sheet, several parts", {"fill": "put-beside"}, "", "pair")
    yield Command("Fit a body around its label …", "Sheet, several parts", {"fill": "fit-around"}, "", "pair")


def _points() -> Iterator[Command]:
    for name, word in POINTS:
        yield Command(f"Points: {word}", "Sheet, Points", {"points": name}, "", "points")
    yield Command("Points: fewer, simplify …", "Sheet, Points", {"fill": "simplify"}, "", "path")
    yield Command("Points: round off …", "Sheet, Points", {"fill": "round-points"}, "", "path")


def _effects() -> Iterator[Command]:
    for kind, effect in EFFECTS.items():
        yield Command(f"Add {effect.label.lower()}", "Sheet, below the effects", {"add-effect": kind}, "", "one")
    for words, do in (
        ("Duplicate the effect", "duplicate"), ("Remove the effect", "remove"), ("Effect forward", "forward"),
        ("Effect back", "back"), ("Hide or show the effect", "hide"),
    ):  # fmt: skip
        yield Command(words, "Sheet, open effect", {"effect-do": do}, "", "effect")
    for words, ramp in (
        ("Add a stop", "add"),
        ("Reverse the gradient", "reverse"),
        ("Turn the gradient", "turn"),
        ("Space the stops evenly", "space"),
        ("Copy the stop", "copy"),
        ("Jitter the stops", "jitter"),
    ):
        yield Command(words, "Sheet, open gradient", {"press": f".eff.open [data-ramp={ramp}]"}, "", "ramp")


def _states() -> Iterator[Command]:
    column, top = "Column, Add a state", "Sheet, top"
    for start in STATE_STARTS:
        words = f"Add the state {told_apart(start).lower()}"
        yield Command(words, column, {"edit": json.dumps({"kind": "start-state", "start": start})})
    yield Command("Add a state of one’s own …", column, {"press": "#own-state input"})
    yield Command("Draw rest", "Column", {"draws": "rest"})
    yield Command("What differs from rest", top, {"press": "#differs summary"}, "", "state")
    for piece in get_args(PieceName):
        edit = json.dumps({"kind": "begin-piece", "piece": piece})
        yield Command(
            f"Begin a {piece}", "Sheet, top", {"edit": edit}, other="widget control moving dial switch gauge"
        )
    yield Command("Touch area …", "Sheet, top", {"press": "#touch > summary"})
    yield Command("Movement from state to state …", top, {"press": "#movement > summary"}, "", "states")
    yield Command("This state for other controls …", "Column", {"aside": "share"}, "", "state")
    yield Command("All as at rest", top, {"return": ""}, "", "state")
    more = "size variant small large wide density art retina"
    yield Command("Add a size …", "Column", {"press": "#own-size input"}, other=more)
    yield Command("Begin art for a density …", "Column", {"press": "#own-art input"}, other=more)
    yield Command("Draw the regular size, for all densities", "Column", {"edition": ""}, "", "edition")


def _guides() -> Iterator[Command]:
    for words, edit, need in (
        ("Guides along the canvas", {"kind": "common-guides"}, ""),
        ("Put a guide across", {"kind": "add-guide", "axis": "across"}, ""),
        ("Put a guide down", {"kind": "add-guide", "axis": "down"}, ""),
        ("Hide guides", {"kind": "show-guides", "visible": False}, "guides"),
        ("Show guides", {"kind": "show-guides", "visible": True}, "guides"),
        ("Lock guides", {"kind": "show-guides", "locked": True}, "guides"),
        ("Unlock guides", {"kind": "show-guides", "locked": False}, "guides"),
        ("Remove guides", {"kind": "remove-guides"}, "guides"),
    ):  # fmt: skip
        yield Command(words, "Sheet, Guides", {"edit": json.dumps(edit)}, "", need)
    along = {"edit": json.dumps({"kind": "common-guides"}), "with": "parts"}
    yield Command("Guides along the selection", "Sheet, Guides", along, "", "part")


def _view() -> Iterator[Command]:
    under, top = "Under the stage", "Top"
    for words, where, selector, key, need in (
        ("Find a part by name, kind or colour", "Sheet", "#sheet-find", "", ""),
        ("See at 1:1", under, "[data-zoom='1']", "1", ""), ("See at 2:1", under, "[data-zoom='2']", "2", ""),
        ("See at 8:1", under, "[data-zoom='8']", "8", ""), ("Fit into the window", under, "[data-zoom=fit]", "F", ""),
        ("True pixels", under, "#true", "X", ""), ("Sharp", under, "#sharp", "X", ""),
        ("Before and after in halves", "Over the stage", "#halves", "V", ""),
        ("Heat of the build-up", "Strip", "#heat", "", "one"),
        ("Choose what to snap to", "Over the stage", "#snapmenu summary", "", ""),
        ("Undo", top, "#undo", "Control Z", "undo"), ("Redo", top, "#redo", "Control Shift Z", "redo"),
        ("What was done", top, "#history-menu summary", "", ""), ("Deliver", top, ".pill.go", "", ""),
        ("To the Wall", top, ".crumb a[href^='/kits/']", "", ""),
        ("To Trial", top, "nav a[href$='/trial']", "", ""),
        ("Light from: direction and height", "Sheet, top", ".canvasline .num[data-path='light/direction']", "", ""),
    ):  # fmt: skip
        yield Command(words, where, {"press": selector}, key, need)
    for ground in GROUNDS:
        yield Command(f"Stand on {ground}", under, {"press": f"[data-ground={ground}]"})
    yield Command("Select all", "Keys", {"do": "select-all"}, "Control A")
    yield Command("Keys", "Keys", {"do": "keys"}, "?")
