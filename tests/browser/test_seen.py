"""What the screen shows is what is there: the art's own pixels, and styles that keep to their block."""

import io
import re

import numpy as np
import pytest
from PIL import Image

from obrell.core.document.resolve import resolve
from obrell.core.render.picture import picture
from obrell.samples.wendmere_lock import wendmere_lock
from tests.browser.hand import LOCK, until, wait_for_frame

WAYS = [(1, 1.0, True), (2, 1.0, True), (8, 1.0, True), (2, 1.5, True), (8, 1.5, True), (2, 2.0, True), (8, 2.0, True),
        (1, 1.0, False), (2, 2.0, False), (8, 8.0, False)]  # fmt: skip


@pytest.mark.parametrize(("zoom", "density", "exact"), WAYS)
def test_the_stage_shows_the_very_pixels_of_the_file(page, common_server, zoom, density, exact):
    """At every enlargement, in both ways of looking: what the screen shows over the paper, held against the picture
    that is delivered, laid on white."""
    page.goto(f"{common_server.url}{LOCK}/controls/c2")
    wait_for_frame(page)
    page.locator("[data-ground=white]").click()
    page.locator("#density").select_option(str(density if exact else 1.0))
    page.locator("#true" if exact else "#sharp").click()
    page.locator(f"[data-zoom='{zoom}']").click()
    kit = wendmere_lock()
    lamp = next(control for control in kit.controls if control.id == "c2")
    pixels = picture(resolve(kit.settings(), lamp), density).astype(float)
    wanted = pixels[..., :3] * pixels[..., 3:] / 255 + 255 - pixels[..., 3:]
    page.keyboard.down("h")

    def near():
        return differs(page, wanted, zoom / density) < 3

    until(page, near)
    page.keyboard.up("h")


def differs(page, wanted, scale):
    """The mean difference of the middle of the stage from a picture enlarged by a factor, 0 to 255."""
    paper, stage = (page.locator(name).bounding_box() for name in ("#paper", "#stage"))
    x, y = stage["x"] + stage["width"] / 2 - 90, stage["y"] + stage["height"] / 2 - 110
    clip = {"x": round(x), "y": round(y), "width": 180, "height": 160}
    seen = np.asarray(Image.open(io.BytesIO(page.screenshot(clip=clip))).convert("RGB"), float)
    places = [(np.arange(count) + 0.5 + clip[side] - paper[side]) / scale for side, count in (("y", 160), ("x", 180))]
    # Where pixels are large, their middles: a grid is drawn along their edges.
    inside = [
        (at >= 0) & (at < most) & ((scale < 4) | (abs(at % 1 - 0.5) < 0.25))
        for at, most in zip(places, wanted.shape, strict=False)
    ]
    shown = seen[np.ix_(*inside)]
    there = np.ix_(*(at[kept].astype(int) for at, kept in zip(places, inside, strict=True)))
    return np.abs(shown - wanted[there]).mean() if shown.size else 255.0


COMMON = re.compile(r"^(\.(v|num|word|eye|thumb|ground|look|facts?)\b|\[hidden\]|:|input|select|button)")
"""What every block has."""


def test_no_rule_of_one_block_reaches_into_another(page, common_server):
    """A rule that is not meant for all of them styles elements of one block of the Bench only."""
    page.goto(f"{common_server.url}{LOCK}/controls/c2?part=p2")
    wait_for_frame(page)
    found = page.evaluate("""() => {
        const blocks = ['.top', '.sheet', '#stage', '#strip', '#proof', 'dialog'];
        const sheet = [...document.styleSheets].find((one) => one.href.endsWith('bench.css'));
        const reaching = [];
        for (const rule of sheet.cssRules) for (const selector of (rule.selectorText || '').split(', ')) {
            if (!selector) continue;
            const matched = [...document.querySelectorAll(selector.replace(/::?[a-z-]+(\\([^)]*\\))?$/, '') || '*')];
            const inside = new Set(matched.map((node) => blocks.find((block) => node.closest(block))).filter(Boolean));
            if (inside.size > 1) reaching.push([selector, [...inside].join(' ')]);
        }
        return reaching;
    }""")
    assert [pair for pair in found if not COMMON.match(pair[0])] == []
