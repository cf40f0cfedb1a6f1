"""How near the delivered SVG comes to the PNG, effect by effect, as Chromium draws it.

``python -m tools.fidelity`` writes ``docs/fidelity.md``.
"""

from __future__ import annotations

import io
from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from PIL import Image
from playwright.sync_api import Browser, sync_playwright
from pydantic import TypeAdapter

from obrell.core.document.model import Canvas, Control, KitSettings, Part
from obrell.core.document.resolve import Resolved, resolve
from obrell.core.effects import EFFECTS, AnyEffect, Bevel, DropShadow, Outline, Paint
from obrell.core.formats.svg.document import svg
from obrell.core.render.picture import picture
from obrell.core.shapes import Box
from obrell.core.values.paints import Conic, Linear, Radial, Solid, Stop, Texture
from obrell.core.workspace import Workspace

OUT = Path("docs/fidelity.md")
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
DENSITY = 2
ANY: TypeAdapter[AnyEffect] = TypeAdapter(AnyEffect)
KIT = KitSettings(id="k", name="Fidelity", fit="off")
STOPS = (Stop(position=0, colour="#5fb3bd"), Stop(position=0.4, colour="#e0c080"), Stop(position=1, colour="#155562"))
HEAD = """# SVG beside PNG

What `python -m tools.fidelity` measured: a rounded box of 90 × 40 with one paint and one effect at its usual values,
delivered as SVG and drawn by Chromium at density 2, against our own PNG of that density. Differences are of
premultiplied 8-bit levels: the mean over all pixels, and what 99 of 100 pixels keep to. Chromium's blurs are up to 15
levels off by themselves ([rendering.md](rendering.md)). A second renderer, resvg, draws every effect within 2 levels
of the PNG but for small blurs (`tests/truth/test_second_renderer.py`).

*native*: SVG's own shapes, gradients and filters. *picture*: SVG has no means for it, so this effect alone is embedded
as a PNG of density 2, at its place, with its blend mode. *nothing*: left out of the SVG.

| what | form | mean | 99 % within |
|---|---|---|---|
"""
FOOT = """
Frosted glass (backdrop blur) is left out: an SVG filter sees only the element it is on, not what lies behind it.
Deliver PNG where it matters.
"""


def rows() -> list[tuple[str, Resolved, str]]:
    """What is measured: its name, a control that shows it, and how SVG has it."""
    found = []
    for name, fill in (
        ("paint: solid", Solid(colour="#1f8a92")), ("paint: linear", Linear(stops=STOPS, angle=120)),
        ("paint: radial", Radial(stops=STOPS)),
        ("paint: radial with a focus", Radial(stops=STOPS, focus_x=0.5, focus_y=-0.4)),
        ("paint: conic", Conic(stops=STOPS)), ("paint: texture", Texture()),
    ):  # fmt: skip
        paint = Paint(id="e1", fill=fill)
        found.append((name, control(paint), form_of(control(paint))))
    base = Paint(id="e1", fill=Linear(stops=STOPS))
    along = Outline(id="e2", width=4, run="along the path", fill=Linear(stops=STOPS))
    for name, effect in (
        ("drop shadow with a falloff", DropShadow(id="e2", falloff="soft")),
        ("outline, a width for each side", Outline(id="e2", sides="each its own", top=4, left=2)),
        ("outline, gradient along the path", along),
        ("bevel with a texture", Bevel(id="e2", texture="hammered")),
        ("paint that reaches the backdrop", Paint(id="e2", blend="multiply", opacity=0.6, through=True)),
    ):  # fmt: skip
        found.append((name, control(base, effect), form_of(control(base, effect))))
    for kind, effect_type in EFFECTS.items():
        if kind == "paint":
            continue
        usual = ANY.validate_python({"kind": kind, "id": "e2"})
        if kind == "backdrop-blur":
            found.append((f"{effect_type.label.lower()}, over lines", over_lines(usual), "nothing"))
            continue
        shown = control(base, usual)
        form = form_of(shown)
        found.append((effect_type.label.lower(), shown, form))
    return found


def over_lines(glass: AnyEffect) -> Resolved:
    """An effect that shows what lies behind its part, where something does."""
    lines = Paint(id="e1", fill=Texture(pattern="lines", scale=6))
    behind = Part(id="p1", name="Lines", shape=Box(width=140, height=90), x=70, y=45, effects=(lines,))
    part = Part(id="p2", name="Part", shape=Box(width=90, height=40, radius=12), x=70, y=45, effects=(glass,))
    return resolve(KIT, Control(id="c1", name="One", canvas=Canvas(width=140, height=90), parts=(behind, part)))


def form_of(shown: Resolved) -> str:
    """How SVG has what a control shows."""
    return "picture" if "<image" in svg(shown) else "native"


def control(*effects: AnyEffect) -> Resolved:
    part = Part(id="p1", name="Part", shape=Box(width=90, height=40, radius=12), x=70, y=45, effects=effects)
    return resolve(KIT, Control(id="c1", name="One", canvas=Canvas(width=140, height=90), parts=(part,)))


def premultiplied(pixels: NDArray[np.uint8]) -> NDArray[np.float64]:
    values = pixels.astype(np.float64)
    return np.concatenate([values[..., :3] * values[..., 3:] / 255, values[..., 3:]], axis=2)


def drawn(browser: Browser, text: str) -> NDArray[np.uint8]:
    context = browser.new_context(viewport={"width": 140, "height": 90}, device_scale_factor=DENSITY)
    page = context.new_page()
    page.set_content(f"<style>*{{margin:0}}svg{{display:block}}</style>{text}")
    shot = Image.open(io.BytesIO(page.screenshot(omit_background=True))).convert("RGBA")
    context.close()
    return np.array(shot)


def main() -> None:
    lines = []
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        for name, resolved, form in rows():
            ours, theirs = premultiplied(picture(resolved, DENSITY)), premultiplied(drawn(browser, svg(resolved)))
            away = np.abs(ours - theirs).max(axis=2)
            lines.append(f"| {name} | {form} | {away.mean():.2f} | {np.quantile(away, 0.99):.0f} |")
        browser.close()
    OUT.write_text(HEAD + "\n".join(lines) + "\n" + FOOT)
    print(OUT)


if __name__ == "__main__":
    with Workspace().entered():
        main()
