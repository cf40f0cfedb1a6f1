"""What a hand does on the bench, and what an eye sees there."""

from __future__ import annotations

import time
import urllib.request
from collections.abc import Callable
from urllib.parse import urlencode

from playwright.sync_api import APIResponse, Page, Route, expect

PATIENCE_S = 45
"""How long a busy machine may take; nothing waits for longer than it has to."""
LOCK = "/kits/wendmere-lock"
C1 = f"{LOCK}/controls/c1"


def open_bench(page: Page, url: str, query: str = "") -> None:
    page.goto(f"{url}{C1}{query}")
    wait_for_frame(page)


def until(page: Page, condition: Callable[[], bool]) -> None:
    """Ask again until it holds; the policy of the page forbids waiting inside it."""
    deadline = time.monotonic() + PATIENCE_S
    while not condition():
        assert time.monotonic() < deadline, "it did not come to hold"
        page.wait_for_timeout(20)


def front(window: Page) -> Page:
    """A window brought to the front: one that lies behind another is drawn once a second only."""
    window.bring_to_front()
    return window


class Held:
    """The next answer from an address, kept on its way until it is let go."""

    def __init__(self, page: Page, address: str) -> None:
        self._kept: list[tuple[Route, APIResponse]] = []
        page.route(address, lambda route: self._kept.append((route, route.fetch())), times=1)

    def arrived(self) -> bool:
        return bool(self._kept)

    def let_go(self) -> None:
        for route, answer in self._kept:
            route.fulfill(response=answer)


def another_window(page: Page, without: str) -> Page:
    """A second window on the same control, without something in its address."""
    with page.context.expect_page() as opened:
        page.evaluate("without => window.open(location.href.replace(without, ''))", without)
    other = opened.value
    expect(other.locator("#stage")).to_be_visible()
    wait_for_frame(other)
    expect(other.locator("#state-sign")).to_be_hidden()
    return other


def art_width(page: Page) -> int:
    return page.evaluate("document.getElementById('art').width")


def wait_for_frame(page: Page) -> None:
    until(page, lambda: art_width(page) > 301)


def stage_colour(page: Page, x: float, y: float) -> list[int]:
    """What the stage shows at a logical place: straight RGBA."""
    return page.evaluate(
        """([x, y]) => {
            const art = document.getElementById('art'), box = art.getBoundingClientRect();
            const paper = document.getElementById('paper').getBoundingClientRect();
            const zoom = parseFloat(document.getElementById('zoom-now').textContent);
            const px = (paper.left + x * zoom - box.left) * art.width / box.width;
            const py = (paper.top + y * zoom - box.top) * art.height / box.height;
            return [...art.getContext('2d').getImageData(px, py, 1, 1).data];
        }""",
        [x, y],
    )


def at(page: Page, x: float, y: float) -> tuple[float, float]:
    """Where a logical place is in the window."""
    paper = page.locator("#paper").bounding_box()
    zoom = float(page.locator("#zoom-now").inner_text().removesuffix(":1"))
    return paper["x"] + x * zoom, paper["y"] + y * zoom


def middle_of(page: Page, selector: str) -> tuple[float, float]:
    """Where a mark on the stage is; asked in one go, because marks are drawn anew at every change."""
    page.locator(selector).wait_for()
    box = "s => document.querySelector(s).getBoundingClientRect().toJSON()"
    at = page.evaluate(box, selector)
    return at["x"] + at["width"] / 2, at["y"] + at["height"] / 2


def drag(page: Page, start, end, *, release: bool = True, key: str = "") -> None:
    page.mouse.move(*start)
    if key:
        page.keyboard.down(key)
    page.mouse.down()
    page.mouse.move(*end, steps=6)
    if release:
        page.mouse.up()
    if key:
        page.keyboard.up(key)


def value(page: Page, path: str):
    return page.locator("#v-" + path.replace("/", "-"))


def type_value(page: Page, path: str, text: str) -> None:
    value(page, path).click()
    page.keyboard.type(text)
    page.keyboard.press("Enter")


def steps_done(page: Page):
    return page.locator("#history li:not(.undone):not(.more)")


def shows(page: Page, x: float, y: float, colour: list[int]) -> None:
    """Wait until the stage shows a colour at a logical place."""
    until(page, lambda: all(abs(a - b) < 3 for a, b in zip(stage_colour(page, x, y), colour, strict=True)))


def new_control(page: Page, url: str, width: str, height: str) -> None:
    """An empty control, opened on the bench."""
    form = urlencode({"name": "Sketch", "width": width, "height": height}).encode()
    wanted = urllib.request.Request(f"{url}{LOCK}/controls", form, {"origin": url})
    with urllib.request.urlopen(wanted, timeout=60) as made:
        page.goto(url + made.headers["hx-redirect"])
    until(page, lambda: page.evaluate("document.getElementById('art')?.width") not in (None, 1))


class Hand:
    """What a designer does on the bench, in a few words."""

    def __init__(self, page):
        self.page = page

    def command(self, words):
        self.page.locator("#stage").focus()
        self.page.keyboard.press("a")
        self.page.locator("#command-words").fill(words)
        self.page.keyboard.press("Enter")

    def draw(self, key, start, end):
        """A part dragged from one place to the other; its id."""
        self.page.locator("#stage").focus()
        self.page.keyboard.press(key)
        count = self.page.locator(".part").count()
        drag(self.page, at(self.page, *start), at(self.page, *end))
        expect(self.page.locator(".part")).to_have_count(count + 1)
        return self.newest()

    def put(self, key, start, end):
        """A part drawn, and selected as one that stands; its id."""
        part = self.draw(key, start, end)
        self.page.keyboard.press("Escape")
        self.select(part)
        return part

    def pen(self, *places):
        """A closed path with corners."""
        self.page.locator("#stage").focus()
        self.page.keyboard.press("p")
        count = self.page.locator(".part").count()
        for place in (*places, places[0]):
            self.page.mouse.click(*at(self.page, *place))
        expect(self.page.locator(".part")).to_have_count(count + 1)
        expect(self.page.locator(".part.sel")).to_contain_text(f"path of {len(places)} points, filled")
        return self.newest()

    def newest(self):
        """The part with the highest number: ids are never used twice."""
        rows = self.page.locator(".part").all()
        return max((row.get_attribute("data-part") for row in rows), key=lambda name: int(name[1:]))

    def type(self, path, text):
        type_value(self.page, path, text)
        expect(value(self.page, path)).to_have_text(text)

    def choose(self, path, option):
        with self.page.expect_response("**/edits"):
            value(self.page, path).select_option(option)

    def select(self, *parts):
        for number, part in enumerate(parts):
            row = self.page.locator(f".part[data-part={part}] > header .no")
            row.click(modifiers=["Shift"] if number else [])
        expect(self.page.locator(".part.sel")).to_have_count(len(parts))

    def name(self, part, words):
        field = self.page.locator(f"#name-{part}")
        field.fill(words)
        with self.page.expect_response("**/edits"):
            field.press("Enter")
