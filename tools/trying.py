"""What a panel of Trial feels like, for ``make bench``: pressed, opened, moved by a source, shared as a page."""

from __future__ import annotations

import json
import statistics
import tempfile
import time
import urllib.request
from pathlib import Path

from playwright.sync_api import Browser, Page

PANEL = "/kits/wendmere-lock/trial/touch-panel"
ROUNDS = 7
PRESSED = ("i13", "i11", "i10", "i9", "i8", "i4", "i2")
"""What is pressed at once when the panel is there; each in a window of its own, since pictures are kept in it."""
SOURCE_S = 3.0
Row = tuple[str, str, str]
DRAWN = "[...document.querySelectorAll('.piece canvas')].every((one) => one.dataset.drawn)"
WATCHED = """(id) => {
    const canvas = document.querySelector(`#piece-${id} canvas`);
    addEventListener("pointerdown", (event) => {
        const drawn = canvas.dataset.drawn;
        const look = () => {
            if (canvas.dataset.drawn === drawn) requestAnimationFrame(look);
            else requestAnimationFrame(() => { window.took = performance.now() - event.timeStamp; });
        };
        look();
    }, { capture: true, once: true });
    window.took = 0;
}"""
"""From a press to the frame that shows its first changed pixel."""


def tried(browser: Browser, url: str) -> list[Row]:
    """The touch panel of the sample kit."""
    opened, unready, ready = [], [], []
    for ident in PRESSED:
        page, seconds = _opened(browser, url, PANEL)
        opened.append(seconds)
        unready.append(_pressed(page, ident))
        page.mouse.move(10, 700)
        _quiet(page)
        ready.append(_pressed(page, "i1"))
        page.context.close()
    _densest(url)
    dense = [_closed(*_opened(browser, url, PANEL)) for _ in range(ROUNDS)]
    frames = _moved(browser, url)
    size, begun = _shared(browser, url)
    return [
        ("press to first changed pixel, frames ready, median", "33 ms", f"{statistics.median(ready):.0f} ms"),
        ("… when they are not", "100 ms", f"{statistics.median(unready):.0f} ms"),
        ("13 controls on a panel opened, density 1 / 2", "1.5 s",
         f"{statistics.median(opened):.2f} s / {statistics.median(dense):.2f} s"),
        ("a knob moved by a source, new pictures only", "25 a second", f"{frames:.0f} a second"),
        ("a panel as a page: size, operated from a disk", "4 MB, 1 s", f"{size / 1e6:.2f} MB, {begun:.2f} s"),
    ]  # fmt: skip


def _opened(browser: Browser, url: str, panel: str) -> tuple[Page, float]:
    """A window on a panel, scripts and styles at hand, all of it drawn, and how long that took, s."""
    page = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
    page.goto(f"{url}/kits/wendmere-lock/trial/empty-screen")
    _quiet(page)
    start = time.perf_counter()
    page.goto(f"{url}{panel}")
    while not page.evaluate(DRAWN):
        page.wait_for_timeout(5)
    return page, time.perf_counter() - start


def _closed(page: Page, seconds: float) -> float:
    page.context.close()
    return seconds


def _pressed(page: Page, ident: str) -> float:
    box = page.locator(f"#piece-{ident}").bounding_box()
    assert box is not None
    page.evaluate(WATCHED, ident)
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    while not (took := page.evaluate("window.took")):
        page.wait_for_timeout(5)
    page.mouse.up()
    return float(took)


def _quiet(page: Page) -> None:
    """Wait until nothing is fetched ahead any more."""
    page.wait_for_load_state("networkidle")


def _edited(url: str, edit: dict[str, object], control: str = "") -> None:
    place = f"/controls/{control}" if control else ""
    body = json.dumps({"edit": edit}).encode()
    headers = {"content-type": "application/json"}
    urllib.request.urlopen(urllib.request.Request(f"{url}{PANEL}{place}/edits", body, headers)).close()


def _densest(url: str) -> None:
    _edited(url, {"kind": "type", "path": "density", "text": "2"})


def _moved(browser: Browser, url: str) -> float:
    """Pictures of a knob a second while a source moves it through numbers that were never seen."""
    _edited(url, {"kind": "type", "path": "density", "text": "1"})
    _edited(url, {"kind": "set", "changes": [{"path": "readings/level/step", "value": 0.01}]}, "c4")
    _edited(url, {"kind": "course", "source": "chamber", "course": "wave"})
    _edited(url, {"kind": "type", "path": "sources/chamber/course/period", "text": "60"})
    page, _ = _opened(browser, url, PANEL)
    _quiet(page)
    page.locator("#run").click()
    drawn = "Number(document.querySelector('#piece-i6 canvas').dataset.drawn)"
    start, before = time.perf_counter(), page.evaluate(drawn)
    page.wait_for_timeout(SOURCE_S * 1000)
    seconds, after = time.perf_counter() - start, page.evaluate(drawn)
    page.context.close()
    return float((after - before) / seconds)


def _shared(browser: Browser, url: str) -> tuple[int, float]:
    """Bytes of the panel as a page, and how long it takes from its address to being operated, s."""
    content = urllib.request.urlopen(f"{url}{PANEL}/page.html").read()
    took = []
    with tempfile.TemporaryDirectory() as folder:
        place = Path(folder) / "panel.html"
        place.write_bytes(content)
        for _ in range(ROUNDS):
            page = browser.new_context(offline=True).new_page()
            start = time.perf_counter()
            page.goto(place.as_uri())
            page.wait_for_selector("html.scripted")
            took.append(time.perf_counter() - start)
            page.context.close()
    return len(content), statistics.median(took)
