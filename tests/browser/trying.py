"""What a hand does on a panel of Trial, and what an eye sees there."""

from __future__ import annotations

import numpy as np
from playwright.sync_api import Locator, Page, expect

from tests.browser.hand import LOCK, until


def open_panel(page: Page, url: str, panel: str = "touch-panel") -> None:
    page.goto(f"{url}{LOCK}/trial/{panel}")
    until(page, lambda: all_drawn(page))


def all_drawn(page: Page) -> bool:
    """Whether every piece has been drawn once."""
    return page.evaluate(
        "[...document.querySelectorAll('.piece:not(.gone) canvas')].every((one) => one.dataset.drawn)"
    )


def piece(page: Page, ident: str) -> Locator:
    return page.locator(f"#piece-{ident}")


def middle(page: Page, ident: str) -> tuple[float, float]:
    box = piece(page, ident).bounding_box()
    assert box is not None
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def log(page: Page) -> list[str]:
    """What happened, the oldest first, without times."""
    lines = page.locator("#log li").all_inner_texts()
    return [" ".join(line.split()[2:]) for line in reversed(lines)]


def pixels_of(page: Page, ident: str) -> np.ndarray:
    """What the canvas of a piece holds: straight RGBA."""
    data = page.evaluate(
        """(id) => {
            const canvas = document.querySelector(`#piece-${id} canvas`);
            const { width, height } = canvas;
            return [width, height, [...canvas.getContext('2d').getImageData(0, 0, width, height).data]];
        }""",
        ident,
    )
    return np.array(data[2], np.uint8).reshape(data[1], data[0], 4)


def settled(page: Page, ident: str, state: str = "") -> None:
    """Wait until nothing moves there any more, in a state perhaps."""
    mark = f"[data-still='{state}']" if state else "[data-still]"
    expect(piece(page, ident).locator(f"canvas{mark}")).to_have_count(1)


def choose(page: Page, ident: str) -> None:
    """Choose something on the panel to be arranged."""
    if page.locator("#arrange").get_attribute("aria-pressed") != "true":
        page.locator("#arrange").click()
    with page.expect_response("**/now?*"):
        page.mouse.click(*middle(page, ident))
    expect(page.locator("#chosen h2")).to_be_visible()


def choose_two(page: Page, first: str, second: str) -> None:
    """Choose a control to be arranged, and another one with Shift."""
    choose(page, first)
    page.keyboard.down("Shift")
    page.mouse.click(*middle(page, second))
    page.keyboard.up("Shift")
    expect(page.locator("#chosen h2")).to_have_text("2 controls")
