"""What a window feels, for ``make bench``: with 300 parts, and while another delivers or brings a slow drawing in."""

from __future__ import annotations

import json
import math
import statistics
import threading
import time
import urllib.error
import urllib.parse
import urllib.request
from collections.abc import Callable
from contextlib import suppress

from playwright.sync_api import Browser, Page
from websockets.sync.client import connect

from obrell.core.deliver.names import PATTERN
from obrell.core.document.model import Control, Kit
from tests.hostile.making import nth

FRAME_EVERY_S = 0.04
QUIET_S = 4.0
SLOW_FILES = 4
WATCHED = """() => {
    window.times = [];
    document.getElementById("stage").addEventListener("obrell:painted", (e) => window.times.push(e.detail.ms));
    document.getElementById("bench").addEventListener("shown", () => { window.shown = performance.now(); });
    addEventListener("pointerup", () => { window.up = performance.now(); }, true);
}"""
Row = tuple[str, str, str]


def bring(url: str, *controls: Control) -> None:
    """A kit called Bench with these controls."""
    content = Kit(id="k", name="Bench", controls=controls).model_dump_json().encode()
    edge = "edge"
    head = f'--{edge}\r\ncontent-disposition: form-data; name="file"; filename="k.json"\r\n\r\n'
    data = head.encode() + content + f"\r\n--{edge}--\r\n".encode()
    kind = {"content-type": f"multipart/form-data; boundary={edge}"}
    urllib.request.urlopen(urllib.request.Request(f"{url}/kits/import", data, kind)).close()


def share(values: list[float], part: float) -> float:
    """The value below which that share of all lies."""
    return sorted(values)[min(len(values) - 1, int(len(values) * part))]


def hundreds(browser: Browser, address: str) -> list[Row]:
    """A knob of 300 hairlines: one selected, dragged, let go."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(f"{address}?part=p150")
    page.wait_for_timeout(2000)
    page.evaluate(WATCHED)
    drags: list[float] = []
    ends: list[float] = []
    chosen: list[float] = []
    for number in (150, 75, 30, 220, 110, 260):
        x, y = _place(page, number)
        page.mouse.click(x, y)
        chosen.append(_settled(page))
        page.evaluate("window.times = []")
        page.mouse.down()
        for step in range(30):
            page.mouse.move(x + step % 20, y + step % 13)
            page.wait_for_timeout(30)
        drags += page.evaluate("window.times")
        page.mouse.up()
        ends.append(_settled(page))
    page.close()
    return [
        ("one of 300 parts dragged, to painted, median", "≤ 30 ms", f"{statistics.median(drags):.0f} ms"),
        ("… 95th percentile", "≤ 60 ms", f"{share(drags, 0.95):.0f} ms"),
        ("… let go, to shown", "≤ 150 ms", f"{statistics.median(ends):.0f} ms"),
        ("… selected, to shown", "≤ 100 ms", f"{statistics.median(chosen[1:]):.0f} ms"),
    ]


def _place(page: Page, number: int) -> tuple[float, float]:
    """Where a hairline is in the window."""
    paper = page.locator("#paper").bounding_box()
    assert paper is not None
    zoom = float(page.locator("#zoom-now").inner_text().removesuffix(":1"))
    turn = 2 * math.pi * (number - 1) / 300
    return paper["x"] + (120 + 90 * math.sin(turn)) * zoom, paper["y"] + (120 - 90 * math.cos(turn)) * zoom


def _settled(page: Page) -> float:
    """Milliseconds from letting go to what it showed last."""
    page.wait_for_timeout(800)
    return float(page.evaluate("window.shown - window.up"))


def beside(url: str, control: str) -> list[Row]:
    """Frames of one window: alone, while another delivers the kit, while another brings a slow drawing in."""
    alone = _frames(url, control, lambda: time.sleep(QUIET_S))
    rows = [("a frame, no other window, 95th percentile", "", f"{share(alone, 0.95):.0f} ms")]
    works: dict[str, Callable[[], None]] = {
        "a delivery": lambda: _deliver(url),
        "a slow drawing": lambda: _slow_drawing(url, control),
    }
    for what, work in works.items():
        later = share(_frames(url, control, work), 0.95) - share(alone, 0.95)
        rows.append((f"… how much later beside {what}", "≤ 50 ms", f"{max(0.0, later):.0f} ms"))
    return rows


def _frames(url: str, control: str, work: Callable[[], None]) -> list[float]:
    """Milliseconds that frames took while something else was done."""
    other = threading.Thread(target=work)
    other.start()
    spent = []
    with connect(f"ws{url.removeprefix('http')}{control}/live", max_size=None) as socket:
        number = 0
        while other.is_alive():
            number += 1
            edit = {"kind": "set", "changes": [{"path": "parts/p4/x", "value": 100 + number % 9}]}
            wish = {"seq": number, "density": 2, "left": 0, "top": 0, "width": 424, "height": 160, "edit": edit}
            began = time.perf_counter()
            socket.send(json.dumps(wish))
            while not isinstance(socket.recv(), bytes):
                pass
            spent.append((time.perf_counter() - began) * 1000)
            time.sleep(FRAME_EVERY_S)
    other.join()
    return spent


def _deliver(url: str) -> None:
    form = [("density", "1"), ("density", "2"), ("density", "3"), ("format", "png"), ("format", "svg")]
    controls = [("control", f"c{number}") for number in range(1, 14)]
    order = [*form, *controls, ("pattern", PATTERN), ("cut", "canvas")]
    request = urllib.request.Request(f"{url}/kits/wendmere-lock/deliveries", urllib.parse.urlencode(order).encode())
    page = urllib.request.urlopen(request).read().decode()
    name = page.split("/deliveries/")[1].split("/")[0].split('"')[0]
    while "/zip" not in urllib.request.urlopen(f"{url}/deliveries/{name}").read().decode():
        time.sleep(0.1)


def _slow_drawing(url: str, control: str) -> None:
    for number in range(SLOW_FILES):
        body = json.dumps({"svg": nth("svg", number).decode(), "name": "slow"}).encode()
        request = urllib.request.Request(f"{url}{control}/drawings", body, {"content-type": "application/json"})
        with suppress(urllib.error.HTTPError):
            urllib.request.urlopen(request).close()
