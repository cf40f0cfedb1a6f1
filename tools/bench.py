"""``make bench``: speed as ratios measured in one run, beside their targets (``rendering.md``)."""

from __future__ import annotations

import gc
import io
import itertools
import math
import os
import socket
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path

import numpy as np
import resvg_py
from playwright.sync_api import Browser, sync_playwright
from pydantic import TypeAdapter
from rich.console import Console
from rich.table import Table

from obrell.app.previewing import FrameRequest, LastFrame, drawn
from obrell.core.deliver.bundle import bundle
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import plan
from obrell.core.document.model import Canvas, Control, Part
from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.effects import EFFECTS, AnyEffect, Bevel, Paint
from obrell.core.formats.svg.document import svg
from obrell.core.geometry import paths
from obrell.core.geometry.combine import combined
from obrell.core.geometry.knots import Bend, draw_contour
from obrell.core.geometry.paths import PathBuilder
from obrell.core.geometry.plane import Similarity
from obrell.core.raster.png import encode_quick
from obrell.core.render.cache import PixelCache
from obrell.core.render.compose import Frame, canvas_box, compose, draw
from obrell.core.scene.stands import placed
from obrell.core.shapes import Box
from obrell.core.values.base import content_hash
from obrell.core.values.paints import Solid
from obrell.core.workspace import Workspace
from obrell.web.live import Shown, frame_of
from tools.heavy import KIT, all_kinds, heavy
from tools.hues import recoloured, swatch_dragged
from tools.stating import stated
from tools.trying import tried
from tools.windows import beside, bring, hundreds

ROUNDS = 15
ANY_EFFECT: TypeAdapter[AnyEffect] = TypeAdapter(AnyEffect)
HERE = Path(__file__).parent
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
WORKSPACE = Workspace()
table = Table("figure", "target", "measured", title="Obrell, medians of one run")


def ms(work: Callable[[], object], rounds: int = ROUNDS) -> float:
    """Median milliseconds of ``work`` after one round to warm up."""
    work()
    times = []
    for _ in range(rounds):
        start = time.perf_counter()
        work()
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def geometry_to_png(control: Control, density: float = 2.0) -> bytes:
    """Everything from the document to the file, as the screen gets it; of earlier draws only the
    outlines of words are kept, as they are while anything else is edited."""
    WORKSPACE.forget(paths._exact_bounds, placed)
    resolved = resolve(KIT, control)
    frame = Frame(density, canvas_box(resolved, density))
    return encode_quick(draw(resolved, frame, PixelCache()))


def ratio(ours: Callable[[], object], theirs: Callable[[], object], rounds: int = 9) -> float:
    """How many times longer ``theirs`` takes: the median over pairs measured right after each other,
    because the machine's speed drifts."""
    ours(), theirs()
    pairs = []
    for _ in range(rounds):
        start = time.perf_counter()
        ours()
        middle = time.perf_counter()
        theirs()
        pairs.append((time.perf_counter() - middle) / (middle - start))
    return statistics.median(pairs)


def npm_ratio(control: Control, text: str) -> float:
    """The same for the npm binding, which times itself in a process of its own."""
    pairs = []
    for _ in range(7):
        theirs = npm_resvg(text)
        pairs.append(theirs / ms(lambda: geometry_to_png(control), 9))
    return statistics.median(pairs)


def against_others(browser: Browser) -> None:
    control = heavy()
    text = svg(resolve(KIT, control))
    plain = heavy(blurs=False)
    plain_text = svg(resolve(KIT, plain))
    count = sum(len(part.effects) for part in control.parts)

    def ours() -> bytes:
        return geometry_to_png(control)

    table.add_row(f"geometry to PNG, {count} effects, 640 × 240", "", f"{ms(ours):.1f} ms")
    table.add_row("… against resvg, npm binding", "≥ 12×", f"{npm_ratio(control, text):.1f}×")
    table.add_row("… against resvg, Python binding", "≥ 25×", f"{ratio(ours, lambda: py_resvg(text), 5):.1f}×")
    page = browser.new_page(viewport={"width": 320, "height": 120}, device_scale_factor=2)
    table.add_row("… against Chromium, set and screenshot", "≥ 7×", f"{ratio(ours, lambda: shown(page, text)):.1f}×")
    table.add_row("without blurs, against resvg, npm binding", "≥ 1×", f"{npm_ratio(plain, plain_text):.1f}×")
    page.close()


def py_resvg(text: str) -> object:
    return resvg_py.svg_to_bytes(svg_string=text, zoom=2)


def npm_resvg(text: str) -> float:
    """Median milliseconds of the npm binding, measured inside its own process."""
    script = """
      const { Resvg } = require('@resvg/resvg-js'), svg = require('fs').readFileSync(0, 'utf8'), times = [];
      for (let i = 0; i < 12; i++) {
        const start = performance.now();
        new Resvg(svg, { fitTo: { mode: 'zoom', value: 2 } }).render().asPng();
        times.push(performance.now() - start);
      }
      console.log(times.slice(2).sort((a, b) => a - b)[5]);
    """
    done = subprocess.run(["node", "-e", script], cwd=HERE, input=text, capture_output=True, text=True, check=True)
    return float(done.stdout)


def shown(page: object, text: str) -> None:
    page.set_content(text)  # type: ignore[attr-defined]
    page.screenshot()  # type: ignore[attr-defined]


@contextmanager
def serving() -> Iterator[tuple[str, float]]:
    """``obrell demo`` on a database of its own; its address and the seconds to its first page."""
    with tempfile.TemporaryDirectory() as folder, socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
        probe.close()
        code = "from obrell.cli import main; main()"
        environment = os.environ | {"OBRELL_DATA": f"{folder}/kits.db"}
        command = [sys.executable, "-c", code, "demo", "--port", str(port)]
        seconds = 0.0
        for _ in range(2):
            start = time.perf_counter()
            process = subprocess.Popen(command, env=environment, stdout=subprocess.PIPE)
            assert process.stdout is not None
            process.stdout.readline()
            urllib.request.urlopen(f"http://127.0.0.1:{port}/").read()
            seconds = time.perf_counter() - start
            if _ == 0:
                process.kill()
                process.wait()
        try:
            yield f"http://127.0.0.1:{port}", seconds
        finally:
            process.kill()
            process.wait()


def live(browser: Browser) -> None:
    """Request to painted frame while a value is scrubbed, measured in the browser."""
    with serving() as (url, seconds):
        table.add_row("start to first page, warm", "< 2 s", f"{seconds:.2f} s")
        body = heavy().evolve(id="c1", next_number=1000)
        bring(url, body)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{url}/kits/bench/controls/c1?part=p2")
        page.wait_for_timeout(1500)
        page.evaluate(
            "window.times = []; document.getElementById('stage')"
            ".addEventListener('obrell:painted', (e) => window.times.push(e.detail.ms))"
        )
        slot = page.locator("#v-parts-p2-effects-e3r0-blur").bounding_box()
        assert slot is not None
        x, y = slot["x"] + 4, slot["y"] + 6
        page.mouse.move(x, y)
        page.mouse.down()
        for step in range(120):
            page.mouse.move(x + abs(step % 80 - 40), y)
            page.wait_for_timeout(30)
        page.mouse.up()
        times = sorted(page.evaluate("window.times"))
        page.close()
        bring(url, hairlines())
        rows = hundreds(browser, f"{url}/kits/bench-2/controls/c1") + beside(url, "/kits/wendmere-lock/controls/c1")
        rows += swatch_dragged(browser, url) + tried(browser, url)
    table.add_row(
        "one value changed, to painted, median", "25 ms", f"{statistics.median(times):.0f} ms ({len(times)})"
    )
    table.add_row("… 95th percentile", "50 ms", f"{times[int(len(times) * 0.95)]:.0f} ms")
    for row in rows:
        table.add_row(*row)


def delivery() -> None:
    controls = tuple(heavy(width=320.0 + n).evolve(id=f"c{n}", name=f"Control {n}") for n in range(60))
    order = Order(densities=(1.0, 1.5, 2.0, 3.0), formats=("png",))
    planned = plan(KIT, controls, order)
    start = time.perf_counter()
    bundle(KIT, planned, io.BytesIO(), lambda *_: True)
    table.add_row(
        "delivery of 240 files (60 controls × 4 densities)", "< 12 s", f"{time.perf_counter() - start:.1f} s"
    )


def memory() -> None:
    """Peak resident memory of drawing 4096 × 4096, in a process of its own, less that before it."""
    code = "from tools.bench import peak; print(peak())"
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True, cwd=HERE.parent)
    table.add_row("memory, canvas 4096 × 4096", "< 64 B/px", f"{float(done.stdout) / 4096**2:.0f} B/px")


def peak() -> float:
    """Bytes by which drawing the heavy control on 16 Mpx raises the peak of this process."""
    geometry_to_png(heavy())
    gc.collect()
    before = high_water()
    resolved = resolve(KIT, heavy(width=2048, height=2048))
    compose(resolved, Frame(2.0, canvas_box(resolved, 2.0)), PixelCache())
    return high_water() - before


def high_water() -> float:
    """Peak resident bytes of this process alone, which ``getrusage`` mixes with its parent's."""
    status = Path("/proc/self/status").read_text()
    return float(status.split("VmHWM:")[1].split()[0]) * 1024


def growth() -> None:
    few, many = ms(lambda: geometry_to_png(heavy()), 5), ms(lambda: geometry_to_png(heavy(10)), 3)
    table.add_row("250 effects against 25", "≤ 10×", f"{many / few:.1f}×")
    small, large = ms(lambda: geometry_to_png(heavy(), 1.6), 5), ms(lambda: geometry_to_png(heavy(), 20.4), 1)
    table.add_row("16 Mpx against 0.1 Mpx", "≤ 163×", f"{large / small:.0f}×")


def edits() -> None:
    control = heavy()
    table.add_row("content hash of a control", "", f"{ms(lambda: content_hash(control)):.2f} ms")


def hairlines() -> Control:
    """A knob of 300 hairlines, each a part of its own."""
    turns = [360 * n / 300 for n in range(300)]
    parts = tuple(
        Part(
            id=f"p{n + 1}", name=f"Hairline {n + 1}", shape=Box(width=1, height=14), rotation=turn,
            x=120 + 90 * math.sin(math.radians(turn)), y=120 - 90 * math.cos(math.radians(turn)),
            effects=(Paint(id="e1", fill=Solid(colour="#3d3c38")),),
        )
        for n, turn in enumerate(turns)
    )  # fmt: skip
    return Control(id="c1", name="Knob", canvas=Canvas(width=240, height=240), parts=parts, next_number=301)


def drawing() -> None:
    """What a drag costs the server: the edit, the arranged control, the changed pixels."""
    control, shown, count = hairlines(), Shown(LastFrame()), itertools.count(1)
    wish = {"seq": 1, "density": 2.0, "left": 0, "top": 0, "width": 480, "height": 480}

    def dragged() -> None:
        move = {"kind": "move", "parts": ["p7"], "dx": next(count) % 9, "dy": 0, "snap": {"kinds": ["parts", "gaps"]}}
        changed = applied(read_edit(move), control, Surroundings())
        wanted = FrameRequest.model_validate(wish)
        frame_of(wanted, drawn(wanted, KIT, changed, shown.last), shown)

    table.add_row("one of 300 parts dragged, on the server", "", f"{ms(dragged):.1f} ms")
    wave = [
        Bend(40 * math.cos(a) * (1 + n % 2 / 9), 40 * math.sin(a)) for n, a in enumerate(np.linspace(0, 6.25, 200))
    ]
    pen = PathBuilder()
    draw_contour(pen, wave, closed=True)
    one, other = pen.path(), pen.path().transformed(Similarity(dx=9, dy=4))
    table.add_row("union of two paths of 200 points", "", f"{ms(lambda: combined('union', (one, other))):.1f} ms")


def every_effect() -> None:
    """What each kind of effect costs on a part of 1024 × 1024 device px, nothing kept from before, and what a
    changed value costs when the rest of the part is kept."""
    side = 1024.0
    body, paint = Box(width=side - 80, height=side - 80, radius=90), Paint(id="e1", fill=Solid(colour="#1f8a92"))

    def control(*effects: AnyEffect) -> Control:
        part = Part(id="p1", name="Part", shape=body, x=side / 2, y=side / 2, effects=(paint, *effects))
        return Control(id="c1", name="One", canvas=Canvas(width=side, height=side), parts=(part,))

    def cost(one: Control, cache: PixelCache | None = None) -> None:
        resolved = resolve(KIT, one)
        compose(resolved, Frame(1.0, canvas_box(resolved, 1.0)), cache or PixelCache())

    bare = ms(lambda: cost(control()), 5)
    mega = side * side / 1e6
    for kind, effect_type in EFFECTS.items():
        effect = ANY_EFFECT.validate_python({"kind": kind, "id": "e2"})
        one = control(effect)
        spent = ms(partial(cost, one), 5) - bare
        table.add_row(f"{effect_type.label.lower()}, a megapixel", "", f"{spent / mega:.0f} ms")
    widths = itertools.cycle((8.0, 9.0, 10.0))
    cache = PixelCache()
    changed = ms(lambda: cost(control(Bevel(id="e2", width=next(widths), softness=4)), cache), 9)
    table.add_row("a soft bevel of 1024 × 1024 px, one value changed", "", f"{changed:.0f} ms")


def all_effects() -> None:
    """A control with 25 effects of all kinds: from nothing, again, and with one blur changed."""
    control = all_kinds()
    resolved = resolve(KIT, control)
    frame = Frame(2.0, canvas_box(resolved, 2.0))
    cache = PixelCache()
    blurs = itertools.cycle((5.0, 6.0, 7.0))

    def changed() -> None:
        path = "parts/p1/effects/inner-shadow:0/blur"
        other = read_edit({"kind": "set", "changes": [{"path": path, "value": next(blurs)}]})
        draw(resolve(KIT, applied(other, control, Surroundings())), frame, cache)

    fresh = ms(lambda: draw(resolved, frame, PixelCache()))
    table.add_row("25 effects of all kinds, from nothing", "", f"{fresh:.1f} ms")
    table.add_row("… again, with all masks kept", "", f"{ms(lambda: draw(resolved, frame, cache)):.1f} ms")
    table.add_row("… one blur changed", "", f"{ms(changed):.1f} ms")


def main() -> None:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        against_others(browser)
        live(browser)
        browser.close()
    delivery()
    memory()
    growth()
    edits()
    drawing()
    every_effect()
    all_effects()
    for row in (*recoloured(), *stated()):
        table.add_row(*row)
    Console().print(table)


if __name__ == "__main__":
    with WORKSPACE.entered():
        main()
