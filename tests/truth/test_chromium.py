"""Chromium as a second opinion on CSS and SVG, with its known errors as tolerances (8-bit levels)."""

from functools import cache

import numpy as np
import pytest

from obrell.core.document.model import Canvas, Control
from obrell.core.document.resolve import resolve
from obrell.core.effects import Bevel, Blur, DropShadow, InnerShadow, Mask, Outline
from obrell.core.effects.kinds.mask import PartCover
from obrell.core.effects.offsets import Shift
from obrell.core.formats.svg.document import svg
from obrell.core.interchange.svg.reader import read_svg
from obrell.core.render.picture import picture
from obrell.core.shapes import Box, Picture, Round, Text
from obrell.core.shapes.kinds.text import Run
from obrell.core.values import paints
from obrell.core.values.blends import BLENDS
from obrell.core.values.paints import Linear, Radial, Solid, Stop
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import KIT, SLOPE, part, resolved, solid
from tests.shots import premultiplied, shot_of

SHARP_4 = 4
"""Gradients, offsets, masks, opacity and most blend modes agree within this."""
CURVED = 72
"""Curved edges at 1×: Chromium's coverage, not ours, is off."""
CLIPPED = 90
"""The edge of a clip path, likewise."""
BLURRED = 15


@cache
def window_of(browser, scale):
    """A window for all pictures of a scale."""
    return browser.new_context(viewport={"width": 80, "height": 60}, device_scale_factor=scale).new_page()


def shot(browser, body, width=80, height=60, scale=1):
    window = window_of(browser, scale)
    window.set_viewport_size({"width": width, "height": height})
    window.set_content(f"<style>*{{margin:0}}body{{position:relative}}div{{position:absolute}}</style>{body}")
    return premultiplied(np.array(shot_of(window, omit_background=True)))


def ours(shown, density=1.0):
    return premultiplied(picture(shown, density))


def css(style, width=40, height=24):
    box = f"left:{40 - width / 2}px;top:{30 - height / 2}px;width:{width}px;height:{height}px"
    return f'<div style="{box};{style}"></div>'


STOPS = (
    Stop(position=0, colour="#5fb3bd"),
    Stop(position=0.5, colour="#2b8794", opacity=0.5),
    Stop(position=1, colour="#155562"),
)
CSS_STOPS = "#5fb3bd 0%, rgba(43,135,148,.5) 50%, #155562 100%"


@pytest.mark.parametrize("angle", [0, 90, 180, 63])
def test_linear_gradients(chromium, angle):
    paint = solid("#000000").evolve(fill=Linear(stops=STOPS, angle=angle))
    got = ours(resolved(part(Box(width=40, height=24), paint)))
    want = shot(chromium, css(f"background:linear-gradient({angle}deg, {CSS_STOPS})"))
    assert np.abs(got - want).max() <= SHARP_4


def test_radial_gradients(chromium):
    fill = Radial(stops=STOPS, centre_x=0.3, centre_y=0.7, radius_x=0.6, radius_y=0.8)
    got = ours(resolved(part(Box(width=40, height=24), solid("#000000").evolve(fill=fill))))
    style = f"background:radial-gradient(60% 80% at 30% 70%, {CSS_STOPS})"
    assert np.abs(got - shot(chromium, css(style))).max() <= SHARP_4


@pytest.mark.parametrize("space", ["srgb", "oklab"])
@pytest.mark.parametrize("midpoint", [0.08, 0.3, 0.93])
def test_bent_ramps_in_svg(chromium, midpoint, space):
    ends = Stop(position=0, colour="#ffffff", midpoint=midpoint), Stop(position=1, colour="#0a1e60", opacity=0.4)
    fill = Linear(stops=ends, angle=90, space=space)
    shown = resolved(part(Box(width=76, height=24), solid("#000000").evolve(fill=fill)))
    away = np.abs(ours(shown) - shot(chromium, svg(shown)))
    assert away.max() <= SHARP_4
    assert away.mean() <= 1


def test_midpoints_are_colour_hints(chromium):
    """Chromium draws the bend as a few straight pieces."""
    stops = (Stop(position=0, colour="#ff0000", midpoint=0.4), Stop(position=1, colour="#0000ff"))
    paint = solid("#000000").evolve(fill=Linear(stops=stops, angle=90))
    got = ours(resolved(part(Box(width=40, height=24), paint)))
    want = shot(chromium, css("background:linear-gradient(90deg, #f00, 40%, #00f)"))
    assert np.abs(got - want).max() <= 8


@pytest.mark.parametrize("mode", [m for m in BLENDS if m not in ("color-dodge", "color-burn")])
def test_blend_modes(chromium, mode):
    lower = part(Box(width=60, height=40), solid("#3f7fbf"))
    upper = part(Box(width=40, height=24), solid("#e0a050"), blend=mode, opacity=0.8)
    boxes = css("background:#3f7fbf", 60, 40) + css(f"background:#e0a050;mix-blend-mode:{mode};opacity:.8")
    assert np.abs(ours(resolved(lower, upper)) - shot(chromium, boxes)).max() <= SHARP_4


def test_rounded_corners_drawn_large_and_averaged(chromium):
    got = ours(resolved(part(Box(width=40, height=24, radius=9), solid("#000000"))))
    fine = shot(chromium, css("background:#000;border-radius:9px"), scale=8)
    want = fine.reshape(60, 8, 80, 8, 4).mean(axis=(1, 3))
    assert np.abs(got - want).max() <= 14


def test_shadows(chromium):
    shadow = DropShadow(id="e1", offset=Shift(across=2, down=4), blur=10, spread=2, colour="#000000", opacity=0.5)
    got = ours(resolved(part(Box(width=40, height=24), shadow, solid("#ffffff"))))
    want = shot(chromium, css("background:#fff;box-shadow:2px 4px 10px 2px rgba(0,0,0,.5)"))
    assert np.abs(got - want).max() <= BLURRED
    inner = InnerShadow(id="e1", offset=Shift(down=3), blur=8, spread=1, colour="#000000", opacity=0.6)
    got = ours(resolved(part(Box(width=40, height=24), solid("#ffffff"), inner)))
    want = shot(chromium, css("background:#fff;box-shadow:inset 0 3px 8px 1px rgba(0,0,0,.6)"))
    assert np.abs(got - want).max() <= BLURRED


@pytest.mark.parametrize("place", ["inside", "centre", "outside"])
@pytest.mark.parametrize("surface", ["#2b8794", None])
def test_the_delivered_svg_of_outlines_and_shadows(chromium, place, surface):
    edge = Outline(id="e1", place=place, width=3, fill=Solid(colour="#f0d090"), opacity=0.8, blend="screen")
    shadow = DropShadow(id="e1", offset=Shift(down=4), blur=6, colour="#000000")
    effects = [solid(surface)] if surface else []
    shown = resolved(part(Box(width=40, height=24), *effects, edge, shadow))
    assert np.abs(ours(shown) - shot(chromium, svg(shown))).max() <= BLURRED


def test_a_turned_round_in_svg(chromium):
    fill = Radial(stops=STOPS, centre_y=0.2)
    shown = resolved(part(Round(width=50, height=26), solid("#000000").evolve(fill=fill), rotation=25))
    difference = np.abs(ours(shown) - shot(chromium, svg(shown)))
    assert difference.max() <= CURVED
    assert np.percentile(difference, 98) <= SHARP_4


def test_a_focus_as_svg_has_it_there_and_back(chromium):
    fill = Radial(stops=STOPS, centre_x=0.4, radius_x=0.7, focus_x=0.5, focus_y=-0.5)
    shown = resolved(part(Box(width=50, height=30), solid("#000000").evolve(fill=fill)))
    drawing = svg(shown)
    assert np.abs(ours(shown) - shot(chromium, drawing)).max() <= SHARP_4
    (read,) = read_svg(drawing).parts
    assert np.abs(ours(resolved(read)) - ours(shown)).max() <= SHARP_4


@pytest.mark.parametrize("kind", [DropShadow, InnerShadow])
def test_shadows_with_a_falloff_in_svg(chromium, kind):
    shadow = kind(id="e2", offset=Shift(across=2, down=4), blur=12, colour="#103040", opacity=0.8, falloff="soft")
    shown = resolved(part(Box(width=40, height=24, radius=6), solid("#80a0a0"), shadow))
    away = np.abs(ours(shown) - shot(chromium, svg(shown))).max(axis=2)
    assert np.quantile(away, 0.98) <= 2 * BLURRED
    assert away.mean() < 2


@pytest.mark.parametrize("fit", ["tiled", "tiled, mirrored"])
def test_turned_tiles_in_svg(chromium, fit):
    fill = paints.Picture(file=SLOPE, fit=fit, scale=0.5, turn=30, across=3, down=5)
    shown = resolved(part(Box(width=60, height=40), solid("#000000").evolve(fill=fill)))
    away = np.abs(ours(shown, 2.0) - shot(chromium, svg(shown), scale=2)).max(axis=2)
    assert np.quantile(away, 0.9) <= BLURRED


@pytest.mark.parametrize("index", range(3))
def test_the_svg_of_every_sample_control_looks_like_its_png(chromium, index):
    kit = wendmere_lock()
    shown = resolve(kit.evolve(fit="off"), kit.controls[index])
    canvas = shown.control.canvas
    want = shot(chromium, svg(shown), int(canvas.width), int(canvas.height), scale=2)
    difference = np.abs(ours(shown, 2.0) - want)
    assert difference.mean() < 1.5
    assert np.percentile(difference, 99) < 24


DRAWING = """<svg xmlns="http://www.w3.org/2000/svg" width="80" height="60" viewBox="0 0 80 60">
<defs>
      <linearGradient id="g" gradientUnits="userSpaceOnUse" x1="6" y1="5" x2="36" y2="21">
        <stop offset="0.1" stop-color="#c30"/>
        <stop offset="0.9" stop-color="#039" stop-opacity="0.4"/></linearGradient>
      <radialGradient id="r" gradientUnits="userSpaceOnUse" cx="60" cy="40" r="16">
        <stop offset="0" stop-color="white"/><stop offset="1" stop-color="#060"/></radialGradient>
      <clipPath id="c"><circle cx="20" cy="40" r="9"/></clipPath>
    </defs>
    <rect x="6" y="5" width="30" height="16" rx="4" fill="url(#g)" stroke="#222" stroke-width="2"/>
    <g transform="rotate(20 60 40) translate(0 -2)" opacity="0.8">
      <ellipse cx="60" cy="40" rx="15" ry="8" fill="url(#r)"/><path d="M50 52h18" stroke="#a00" stroke-width="3"
       stroke-linecap="round" fill="none"/></g>
    <path d="M8 30h28v22h-28z" fill="teal" clip-path="url(#c)"/>
    <polygon points="46,6 74,6 60,24" style="fill:#fa0;fill-opacity:.5"/>
</svg>"""


def test_a_drawing_that_was_read_looks_as_it_did(chromium):
    parts = read_svg(DRAWING).parts
    read = Control(id="c1", name="Read", canvas=Canvas(width=80, height=60), parts=parts)
    got = ours(resolve(KIT.evolve(fit="off"), read))
    away = np.abs(got - shot(chromium, DRAWING)).max(axis=2)
    assert np.quantile(away, 0.9) <= BLURRED
    assert away.max() <= CLIPPED


BACKDROP = part(Box(width=70, height=50), solid("#d08040"))
GROUPED = {
    "blurred, then masked": (
        BACKDROP,
        part(
            Box(width=40, height=24),
            solid("#204060"),
            Blur(id="e2", radius=8),
            Mask(id="e3", fitted_x=40, fitted_y=30),
        ),
    ),
    "blurred with what it casts": (
        BACKDROP,
        part(
            Box(width=30, height=20),
            solid("#ffffff", opacity=0.3),
            DropShadow(id="e2", offset=Shift(down=6), blur=0, colour="#000000"),
            Blur(id="e3", radius=6),
        ),
    ),
    "blurred, what it casts multiplied": (
        BACKDROP,
        part(
            Box(width=30, height=20),
            solid("#ffffff", opacity=0.5),
            DropShadow(id="e2", offset=Shift(down=6), blur=4, colour="#804020", opacity=0.8, blend="multiply"),
            Blur(id="e3", radius=6),
        ),
    ),
    "faded, what it casts multiplied": (
        BACKDROP,
        part(
            Box(width=30, height=20),
            solid("#ffffff"),
            DropShadow(id="e2", offset=Shift(down=6), blur=0, colour="#804020", opacity=0.8, blend="multiply"),
            DropShadow(id="e3", offset=Shift(across=6), blur=0, colour="#2040c0", opacity=0.8, blend="screen"),
            opacity=0.6,
        ),
    ),
    "masked, what it casts multiplied and screened": (
        BACKDROP,
        part(
            Box(width=30, height=20),
            solid("#ffffff"),
            DropShadow(id="e2", offset=Shift(down=6), blur=0, colour="#804020", opacity=0.8, blend="multiply"),
            DropShadow(id="e3", offset=Shift(down=9), blur=0, colour="#2040c0", opacity=0.8, blend="screen"),
            Mask(id="e4", fitted_x=40, fitted_y=30),
        ),
    ),
    "masked, blended with what lies below": (
        BACKDROP,
        part(Box(width=40, height=24), solid("#80c0e0"), Mask(id="e2", fitted_x=40, fitted_y=30), blend="multiply"),
    ),
    "one effect that mixes is alone in its part": (
        BACKDROP,
        part(Box(width=40, height=24), solid("#80c0e0", blend="multiply", opacity=0.5)),
    ),
    "a paint that reaches the backdrop": (
        BACKDROP,
        part(
            Box(width=40, height=24),
            solid("#80c0e0", opacity=0.5),
            solid("#c0e0a0", blend="multiply", through=True),
            opacity=0.8,
        ),
    ),
    "an outline that reaches the backdrop": (
        BACKDROP,
        part(
            Box(width=40, height=24),
            solid("#80c0e0"),
            Outline(id="e2", place="centre", width=8, blend="difference", through=True, opacity=0.7),
        ),
    ),
    "a bevel that mixes is alone in its part": (
        BACKDROP,
        part(Box(width=40, height=24), Bevel(id="e1", width=12, rise=8, profile="chamfer")),
    ),
}


@pytest.mark.parametrize("name", GROUPED)
def test_parts_isolated_and_blurred_as_svg(chromium, name):
    shown = resolved(*GROUPED[name])
    away = np.abs(ours(shown) - shot(chromium, svg(shown)))
    assert away.max() <= (BLURRED if "blurred" in name else SHARP_4 + 4)


RUNS = Text(words="HI", size=36, runs=(Run(start=1, end=2, size=36, coloured=True, colour="#c03020"),))
WINDOW = part(Round(width=30, height=30), solid("#80c0ff"), opacity=0.7, visible=False)
COVERED = {
    "fade": (part(Box(width=40, height=24), solid("#c03020"), Mask(id="e2", fitted_x=40, fitted_y=30)),),
    "lightness, inverted": (
        WINDOW,
        part(
            Box(width=40, height=24),
            solid("#c03020"),
            Mask(id="e2", cover=PartCover(part="p1"), measure="lightness", inverted=True, fitted_x=40, fitted_y=30),
        ),
    ),
    "opacity, weak, moved": (
        WINDOW,
        part(
            Box(width=40, height=24),
            solid("#c03020"),
            Mask(id="e2", cover=PartCover(part="p1"), opacity=0.6, fitted_x=36, fitted_y=30),
        ),
    ),
    "picture": (part(Picture(file=SLOPE, width=48, height=32, lies="stretched")),),
    "cut picture": (part(Picture(file=SLOPE, width=24, height=32, cut_left=0.25, cut_right=0.25, lies="stretched")),),
    "coloured run": (part(RUNS, solid("#20608f")),),
}


@pytest.mark.parametrize("name", COVERED)
def test_masks_pictures_and_coloured_letters_as_svg(chromium, name):
    shown = resolved(*COVERED[name])
    off = np.abs(shot(chromium, svg(shown)) - ours(shown))
    assert off.max() <= (CURVED if "run" in name or "lightness" in name or "opacity" in name else SHARP_4)
    assert off.mean() < 1.5


DRAWINGS = {
    "slanted ramp in shares of a wide box": """<linearGradient id="r" x1="0" y1="0" x2="1" y2="1">
        <stop offset="0.2" stop-color="#205080"/><stop offset="0.7" stop-color="#f0d080"/></linearGradient>
        <path d="M10 20h60v20H10z" fill="url(#r)"/>""",
    "ramp shorter and longer than its box": """<linearGradient id="r" gradientUnits="userSpaceOnUse" x1="-20" y1="0"
        x2="50" y2="30"><stop offset="0" stop-color="#205080"/><stop offset="1" stop-color="#f0d080"/>
        </linearGradient><path d="M10 20h60v20H10z" fill="url(#r)"/>""",
    "ramp that turns and slants with its shape": """<linearGradient id="r" gradientTransform="skewX(20)">
        <stop offset="0" stop-color="#205080"/><stop offset="1" stop-color="#f0d080"/></linearGradient>
        <path transform="rotate(90 40 30)" d="M20 20h40v20H20z" fill="url(#r)"/>""",
    "clip of two shapes": """<clipPath id="c"><rect x="10" y="10" width="20" height="40"/>
        <rect x="50" y="20" width="20" height="20"/></clipPath>
        <rect x="5" y="15" width="70" height="30" fill="#a03020" clip-path="url(#c)"/>""",
    "dashes": """<path d="M5 20h70" stroke="#a03020" stroke-width="4" fill="none" stroke-dasharray="6 4"/>
        <rect x="10" y="30" width="60" height="20" fill="#205080" stroke="#f0d080" stroke-width="2"
        stroke-dasharray="8 2"/>""",
}


@pytest.mark.parametrize("name", DRAWINGS)
def test_what_is_read_from_svg_looks_as_it_did(chromium, name):
    drawing = f'<svg xmlns="http://www.w3.org/2000/svg" width="80" height="60">{DRAWINGS[name]}</svg>'
    read = read_svg(drawing)
    assert not read.left_out
    shown = resolve(
        KIT.evolve(fit="off"),
        Control(id="c1", name="Read", canvas=Canvas(width=80, height=60), parts=read.parts),
    )
    away = np.abs(ours(shown) - shot(chromium, drawing)).max(axis=2)
    assert np.quantile(away, 0.98) <= SHARP_4
    assert away.max() <= CLIPPED


SPREADS = {
    "repeated": Linear(stops=STOPS, angle=70, scale=0.3, offset=0.1, spread="repeated"),
    "mirrored": Linear(stops=STOPS, angle=160, scale=0.4, offset=-0.2, spread="mirrored"),
    "longer": Linear(stops=STOPS, angle=90, scale=1.7, offset=0.2),
    "rings": Radial(stops=STOPS, radius_x=0.2, radius_y=0.3, spread="mirrored"),
}


@pytest.mark.parametrize("name", SPREADS)
def test_gradients_beyond_their_ends_as_svg_has_them(chromium, name):
    shown = resolved(part(Box(width=60, height=40), solid("#000000").evolve(fill=SPREADS[name])))
    away = np.abs(ours(shown) - shot(chromium, svg(shown))).max(axis=2)
    assert np.quantile(away, 0.94 if name == "repeated" else 0.99) <= SHARP_4 + 4


def test_an_svg_can_be_fitted_to_the_pixels_of_its_own_size(chromium):
    line = Outline(id="e2", place="inside", width=1.4)
    shown = resolved(
        part(Box(width=40.3, height=20.6), solid("#204060"), line, x=40.2, y=30.3, fit="strokes"),
        part(Round(width=11.4, height=11), solid("#c03020"), x=40.2, y=30.3),
        fit="sides",
    )
    assert np.abs(ours(shown) - shot(chromium, svg(shown, fitted=True))).max() <= CURVED
    away = np.abs(ours(shown) - shot(chromium, svg(shown, fitted=True)))
    assert away[:, :32].max() <= SHARP_4
    assert np.abs(ours(shown) - shot(chromium, svg(shown)))[:, :32].max() > 60
