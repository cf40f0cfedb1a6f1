"""The trade's words find what they mean: each is a whole word of what a command is called, or people call it."""

import re

import pytest

from obrell.web.commands import commands

WORDS = {
    "Draw: box": "box rectangle square rounded body", "Draw: round": "round circle ellipse oval dot",
    "Draw: ring": "ring donut arc gauge", "Draw: sides": "sides polygon star hexagon",
    "Draw: triangle": "triangle", "Draw: line": "line arrow rule", "Draw: pen": "pen path curve vector bezier",
    "Draw: text": "text label type letters font bold italic", "Draw: icon": "icon symbol pictogram glyph",
    "Draw: picture": "picture photo image bitmap", "Duplicate": "duplicate copy clone",
    "Linked copy": "linked clone instance link", "Remove": "remove delete erase",
    "Centre on the canvas": "centre center middle align", "To the front": "front raise top",
    "To the back": "back behind bottom", "Rename": "rename name title",
    "Hide or show": "hide show visible visibility", "Lock or unlock": "lock unlock protect",
    "Opacity": "opacity transparency alpha transparent", "Rotate": "rotate turn rotation angle",
    "Corner radius": "radius corner corners rounded", "Font": "font typeface bold weight italic",
    "Copy all effects": "style look appearance", "Remove all effects": "plain flat reset clean",
    "Give it the look of the last one": "again same style", "A pressed look": "pressed click",
    "Keep this look aside": "version variant", "Lay a material": "material preset metal glass texture",
    "Recolour": "recolour recolor hue tint theme colorize",
    "Let colours follow swatches": "swatch palette theme link", "Group": "group bundle",
    "Take apart": "ungroup release explode", "Repeat in a row": "array pattern grid",
    "Repeat round a centre": "dial ticks radial", "Convert to a path": "curves points vector",
    "Outline the lines": "expand stroke", "Crop a picture": "crop trim cut",
    "Flip across": "flip mirror reflect", "Rim": "rim border frame", "Scale": "scale resize size percent",
    "Grow or shrink": "offset inset expand shrink", "Let a length follow": "constraint bind follow",
    "Combine: union": "union merge unite add boolean",
    "Combine: difference": "difference subtract punch hole boolean",
    "Combine: intersection": "intersection overlap boolean", "Align": "align left right top",
    "Space evenly": "distribute gaps spacing", "Fit a body around its label": "padding hug",
    "Points: smooth": "anchor node vertex", "Add paint": "paint fill colour color gradient",
    "Add drop shadow": "shadow elevation depth", "Add inner shadow": "inset shade",
    "Add outer glow": "glow halo shine", "Add bevel": "bevel emboss relief 3d",
    "Add gloss": "gloss highlight reflection", "Add grain": "grain noise texture",
    "Add outline": "outline stroke border", "Add blur": "blur soft", "Add mask": "mask fade clip cutout",
    "Add a stop": "stop gradient ramp", "Guides along the canvas": "guides ruler grid",
    "See at 1:1": "zoom magnify actual", "Fit into the window": "fit whole", "True pixels": "pixels raster",
    "Before and after": "compare split before", "Choose what to snap to": "snap magnet", "Undo": "undo revert",
    "Redo": "redo again", "What was done": "history steps log",
    "Deliver": "deliver export save png svg zip download", "Stand on": "background ground backdrop",
    "Select all": "select everything", "Keys": "shortcuts keyboard help",
    "Add the state hover": "hover state rollover",
    "Movement from state to state": "transition animation easing duration", "Touch area": "touch hit target",
    "Add a size": "size small large", "To the Wall": "wall overview contrast accessibility readable wcag",
    "To Trial": "trial preview prototype test", "Import": "import open upload", "Light from": "light lamp sun",
    "Begin a button": "button widget",
}  # fmt: skip
PAIRS = [(command, word) for command, words in WORDS.items() for word in words.split()]


def words_of(text: str) -> set[str]:
    return set(re.findall(r"[^\W_]+", text.lower()))


def test_there_are_enough_of_them():
    assert len({word for _, word in PAIRS}) >= 150


@pytest.mark.parametrize(("called", "word"), PAIRS, ids=lambda one: one)
def test_a_word_finds_its_command(called, word):
    meant = [one for one in commands() if one.words.startswith(called)]
    assert meant, called
    assert any(word in words_of(f"{one.words} {one.other}") for one in meant)
