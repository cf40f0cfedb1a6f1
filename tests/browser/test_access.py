"""Everybody can reach it: no serious finding of axe-core in any view or panel, few stops to the stage."""

from pathlib import Path

import pytest
from playwright.sync_api import expect

from tests.browser.hand import C1, LOCK, open_bench, wait_for_frame
from tests.browser.trying import choose, middle, open_panel

AXE = Path(__file__).parents[2] / "tools/node_modules/axe-core/axe.min.js"
GRAVE = ("serious", "critical")


def wall(page, url):
    page.goto(f"{url}{LOCK}")
    expect(page.locator(".tile").first).to_be_visible()


def deliver(page, url):
    page.goto(f"{url}{LOCK}/deliver")
    expect(page.locator("#files")).to_contain_text("png")


def part(page, url):
    open_bench(page, url, "?part=p1")
    for fold in ("#more", "#more-effects"):
        page.locator(f"{fold} summary").click()


def effect(page, url):
    open_bench(page, url, "?part=p4&effect=e1")
    expect(page.locator(".eff.open")).to_have_count(1)


def several(page, url):
    open_bench(page, url)
    page.keyboard.press("Control+a")
    expect(page.locator(".several")).to_be_visible()


def finder(page, url):
    open_bench(page, url, "?part=p1")
    page.keyboard.press("a")
    expect(page.locator("#commands")).to_be_visible()


def looks(page, url):
    open_bench(page, url, "?part=p1")
    page.keyboard.press("m")
    expect(page.locator("#looks [data-tried]").first).to_be_visible()


def chooser(page, url):
    open_bench(page, url, "?part=p1")
    page.locator(".eff .colour").first.click()
    expect(page.locator("#chooser")).to_be_visible()


def follow(page, url):
    open_bench(page, url)
    page.locator("[data-aside=follow]").first.click()
    expect(page.locator("#follow-form")).to_be_visible()


def recolour(page, url):
    open_bench(page, url)
    page.locator("[data-aside=recolour]").first.click()
    page.locator(".hues button").first.click()
    expect(page.locator("#contrasts")).not_to_be_empty()


def swatch(page, url):
    wall(page, url)
    page.locator("#chip-tarn").click()
    expect(page.locator("#hex")).to_be_focused()


def new_swatch(page, url):
    wall(page, url)
    page.get_by_role("button", name="New swatch").click()
    expect(page.locator("#kit-dialog")).to_be_visible()


def swatch_uses(page, url):
    wall(page, url)
    page.locator("#swatch-tarn .more [data-opens]").click()
    expect(page.locator(".uses")).to_be_visible()


def colourways(page, url):
    page.goto(f"{url}{LOCK}?colourway=all")
    expect(page.locator(".beside").first).to_be_visible()
    page.get_by_role("button", name="New colourway").click()
    expect(page.locator("#kit-dialog")).to_be_visible()


def recolour_kit(page, url):
    wall(page, url)
    page.get_by_role("button", name="Recolour …").click()
    page.locator(".hues button").first.click()
    expect(page.locator("#contrasts")).not_to_be_empty()


def drawn_state(page, url):
    open_bench(page, url, "?part=p2&state=pressed")
    expect(page.locator("#differs")).to_be_visible()


def keys(page, url):
    open_bench(page, url)
    page.keyboard.press("?")
    expect(page.locator("#keys")).to_be_visible()


def history(page, url):
    open_bench(page, url)
    page.keyboard.press("ArrowRight")
    page.locator("#history-menu summary").click()


def trial(page, url):
    open_panel(page, url)
    page.mouse.move(*middle(page, "i1"))
    expect(page.locator("#under .told")).to_be_visible()
    expect(page.locator("#labels")).not_to_be_empty()


def arranged(page, url):
    open_panel(page, url)
    choose(page, "i6")


def icons(page, url):
    open_bench(page, url, "?part=p5")
    page.locator("#sheet [data-draw=icon]").click()
    expect(page.locator("#icon-list button").first).to_be_visible()


def halves(page, url):
    open_bench(page, url, "?part=p2&effect=e1")
    page.locator("#halves").click()
    expect(page.locator("#halves-line")).to_be_visible()


def small_at_night(page, url):
    page.goto(f"{url}{LOCK}/controls/c2?part=p1&editions=small&colourway=night-watch&state=on")
    wait_for_frame(page)


def text(page, url):
    open_bench(page, url, "?part=p5")


STATES = (
    icons, halves, small_at_night, text, trial, arranged, wall, deliver, part, effect, several, finder, looks, chooser,
    follow, recolour, swatch, new_swatch, swatch_uses, colourways, recolour_kit, keys, history,
    drawn_state,
)  # fmt: skip


@pytest.mark.parametrize("state", STATES, ids=[state.__name__ for state in STATES])
def test_no_view_has_a_serious_finding(page, common_server, state):
    state(page, common_server.url)
    page.evaluate("document.querySelectorAll('details').forEach((fold) => (fold.open = true))")
    page.evaluate(AXE.read_text())
    found = page.evaluate("axe.run(document, { resultTypes: ['violations'] })")["violations"]
    assert [(one["id"], [node["target"] for node in one["nodes"]]) for one in found if one["impact"] in GRAVE] == []


def test_the_stage_is_a_few_stops_away(page, common_server):
    page.goto(f"{common_server.url}{C1}")
    wait_for_frame(page)
    page.keyboard.press("Tab")
    expect(page.get_by_role("link", name="the stage")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.locator("#stage")).to_be_focused()
