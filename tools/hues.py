"""``make bench``: what it costs to change colours that are followed."""

from __future__ import annotations

import statistics
import tempfile
import time
from pathlib import Path

from playwright.sync_api import Browser

from obrell.app.pictures import Wanted, png_of
from obrell.app.swatches import change_all
from obrell.core.document.model import Kit
from obrell.core.edit import read_edit
from obrell.core.edit.kits import KitIndex
from obrell.core.edit.recolour import HUES, groups_of, usual
from obrell.core.render.cache import PixelCache
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits
from tools.heavy import KIT, all_kinds

Row = tuple[str, str, str]
MANY = 200
STEPS = 90
SMALL = 0.6
"""The density at which a control of 640 × 240 stands in the sheet of hues."""


def swatch_dragged(browser: Browser, url: str) -> list[Row]:
    """Request to painted pixels of all controls in view that follow a swatch, measured in the browser: the main one,
    and the one that all of them follow."""
    return [row for swatch in ("tarn", "chalk") for row in _dragged(browser, url, swatch)]


def _dragged(browser: Browser, url: str, swatch: str) -> list[Row]:
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(f"{url}/kits/wendmere-lock")
    page.wait_for_timeout(1500)
    page.evaluate(
        "window.times = []; document.getElementById('wall')"
        ".addEventListener('obrell:painted', (e) => window.times.push(e.detail.ms))"
    )
    page.locator(f"#chip-{swatch}").click()
    page.wait_for_timeout(500)
    box = page.locator("#plane").bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 20, box["y"] + 20)
    page.mouse.down()
    for step in range(STEPS):
        page.mouse.move(box["x"] + 20 + abs(step % 60 - 30) * 4, box["y"] + 30)
        page.wait_for_timeout(40)
    page.mouse.up()
    page.locator("#colour-back").click()
    times = sorted(page.evaluate("window.times"))[:-1]
    page.close()
    middle, late = statistics.median(times), times[int(len(times) * 0.95)]
    return [
        (f"{swatch} dragged on the Wall, to painted, median", "≤ 60 ms", f"{middle:.0f} ms ({len(times)})"),
        ("… 95th percentile", "≤ 120 ms", f"{late:.0f} ms"),
    ]


def recoloured() -> list[Row]:
    """The sheet of twelve hues of a control with 25 effects, and many controls turned as one step."""
    control = all_kinds()
    index = KitIndex(**{name: getattr(KIT, name) for name in type(KIT).model_fields})
    groups = ",".join(usual(groups_of([control], index.swatches)))
    start, cache = time.perf_counter(), PixelCache()
    for step in range(HUES):
        png_of(index, control, SMALL, Wanted(groups=groups, to_hue=step * 360 / HUES), cache)
    sheet = time.perf_counter() - start
    sample = wendmere_lock()
    made = tuple(
        sample.controls[number % len(sample.controls)].evolve(id=f"c{number + 1}", name=f"Control {number + 1}")
        for number in range(MANY)
    )
    with tempfile.TemporaryDirectory() as folder:
        kits = Kits(Path(folder) / "kits.db")
        kit = kits.import_kit(Kit(**{**sample.model_dump(exclude={"controls"}), "controls": made}))
        edit = read_edit({"kind": "recolour", "groups": ["tarn", "moss", "slate"], "to_hue": 300})
        start = time.perf_counter()
        change_all(kits, kit, edit, "Recoloured")
        many = time.perf_counter() - start
        kits.close()
    return [
        ("the sheet of twelve hues, 25 effects", "≤ 1 s", f"{sheet:.2f} s"),
        (f"{MANY} controls recoloured and saved", "≤ 5 s", f"{many:.1f} s"),
    ]
