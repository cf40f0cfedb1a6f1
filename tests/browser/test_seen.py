"""What the screen shows is what is there: the art's own pixels, and styles that keep to their block."""

import numpy as np
import pytest
from playwright.sync_api import expect

from obrell.core.document.resolve import resolve
from obrell.core.render.picture import picture
from obrell.samples.wendmere_lock import wendmere_lock
from tests.browser.hand import LOCK, drag, new_control, open_bench, until, wait_for_frame
from tests.shots import shot_of

WAYS = [(1, 1.0, True), (8, 1.0, True), (2, 1.5, True), (8, 2.0, True), (2, 2.0, False), (8, 8.0, False)]


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
    seen = np.asarray(shot_of(page, clip=clip).convert("RGB"), float)
    places = [(np.arange(count) + 0.5 + clip[side] - paper[side]) / scale for side, count in (("y", 160), ("x", 180))]
    # Where pixels are large, their middles: a grid is drawn along their edges.
    inside = [
        (at >= 0) & (at < most) & ((scale < 4) | (abs(at % 1 - 0.5) < 0.25))
        for at, most in zip(places, wanted.shape, strict=False)
    ]
    shown = seen[np.ix_(*inside)]
    there = np.ix_(*(at[kept].astype(int) for at, kept in zip(places, inside, strict=True)))
    return np.abs(shown - wanted[there]).mean() if shown.size else 255.0


BLOCKS = {
    "sheet": ".sheet",
    "effects": ".sheet",
    "stage": ".middle, #stage",
    "strip": ".strip",
    "moving": "#moving",
    "proof": "#proof",
}
"""The style sheets of the Bench, each with the block that its rules keep to."""


def test_no_rule_of_one_block_reaches_into_another(page, common_server):
    page.goto(f"{common_server.url}{LOCK}/controls/c2?part=p2")
    wait_for_frame(page)
    found = page.evaluate(
        """(blocks) => {
            const reaching = [];
            for (const [name, block] of Object.entries(blocks)) {
                const sheet = [...document.styleSheets].find((one) => one.href.endsWith(`/${name}.css`));
                for (const rule of sheet.cssRules) for (const selector of (rule.selectorText || '').split(', ')) {
                    const plain = selector.replace(/::?[a-z-]+(\\([^)]*\\))?$/, '') || '*';
                    const out = [...document.querySelectorAll(plain)].filter((node) => !node.closest(block));
                    if (selector && out.length) reaching.push([name, selector, out[0].outerHTML.slice(0, 80)]);
                }
            }
            return reaching;
        }""",
        BLOCKS,
    )
    assert not found, "\n".join(map(str, found))


LONG = "Not understood and left out: " + "filters of all kinds, " * 12


@pytest.mark.parametrize("size", [(1280, 800), (1600, 1000)])
def test_messages_are_one_line_in_the_bar_and_cover_nothing(page, common_server, size):
    page.set_viewport_size({"width": size[0], "height": size[1]})
    page.goto(f"{common_server.url}{LOCK}/controls/c2?part=p2")
    wait_for_frame(page)
    told = page.evaluate(
        """async (long) => {
            const { say, tell, trouble } = await import(document.querySelector('script[src$="/ui/page.js"]').src);
            say(long, { words: 'Scale them along', act: () => {} });
            trouble(long);
            for (const id of ['found', 'away']) document.getElementById(id).hidden = false;
            tell(document.getElementById('away'), long);
            document.querySelector('#found span').textContent = long;
            const box = (node) => node.getBoundingClientRect().toJSON();
            const others = [...document.querySelectorAll('.top > :not(.messages), #stage, #strip, #proof, .tray')];
            return {
                lines: [...document.querySelectorAll('.telling')].map((node) => [node.id, box(node)]),
                buttons: [...document.querySelectorAll('.telling button')].map(box),
                others: others.map((node) => [node.className, box(node)]),
            };
        }""",
        LONG,
    )
    assert {name for name, _ in told["lines"]} == {"found", "away", "said", "trouble"}
    for name, box in told["lines"]:
        assert box["height"] <= 26, name
        for other, there in told["others"]:
            apart = box["right"] <= there["left"] + 0.5 or box["left"] >= there["right"] - 0.5 or (
                box["bottom"] <= there["top"] + 0.5 or box["top"] >= there["bottom"] - 0.5
            )  # fmt: skip
            assert apart, (name, other)
    for box in told["buttons"]:
        assert box["right"] <= max(line["right"] for _, line in told["lines"]) + 0.5


def test_a_wide_control_is_shown_whole_in_the_column_and_its_scale_is_said(page, common_server):
    new_control(page, common_server.url, "864", "120")
    expect(page.locator("#proof h2").first).to_have_text("States at 25 % of true size")
    column, shown = page.locator("#proof").bounding_box(), page.locator("#proof .state img").bounding_box()
    assert (shown["width"], shown["height"]) == (216, 30)
    assert column["x"] <= shown["x"]
    assert shown["x"] + shown["width"] <= column["x"] + column["width"]
    assert page.locator(".state .ground-here").evaluate("box => box.scrollWidth - box.clientWidth") <= 0


def test_a_huge_control_with_a_long_name_widens_no_view_and_is_tried_where_it_is_seen(page, server):
    new_control(page, server.url, "2000", "1200")
    control = page.url.split("?")[0].rsplit("/", 1)[-1]
    own = f"{server.url}{LOCK}/controls/{control}"
    name = "Signal board " + "of the upper reach " * 3
    page.request.post(f"{own}/name", form={"name": name}, headers={"origin": server.url})
    page.locator("#stage").focus()
    page.keyboard.press("b")
    page.keyboard.press("b")
    expect(page.locator(".part.sel")).to_have_count(1)
    with page.expect_response("**/edits"):
        page.locator("#lay-tarn").click()
    for address in (own, f"{server.url}{LOCK}/deliver?control={control}", f"{server.url}{LOCK}"):
        page.goto(address)
        expect(page.locator("header.top")).to_be_visible()
        assert page.evaluate("document.documentElement.scrollWidth") == 1280, address
    tile = page.locator(f"#tile-{control}")
    tile.scroll_into_view_if_needed()
    expect(tile.locator(".size")).to_contain_text("2000 × 1200, at 35 %")
    seen = tile.locator("img").bounding_box()
    assert (seen["width"], seen["height"]) == (700, 420)
    page.locator("#chip-tarn").click()
    hue = page.locator("#hue").bounding_box()
    drag(page, (hue["x"] + 60, hue["y"] + 6), (hue["x"] + 120, hue["y"] + 6), release=False)
    expect(tile.locator("canvas.tried")).to_be_visible()
    assert tile.locator("canvas.tried").bounding_box() == pytest.approx(seen, abs=1)


def test_the_effects_of_a_group_are_copied_and_not_those_of_what_lies_in_it(hand):
    page = hand.page
    first, second = hand.put("b", (10, 10), (40, 40)), hand.put("b", (50, 10), (90, 40))
    hand.select(first, second)
    page.locator("#sheet [data-do=group]").first.click()
    expect(page.locator(".part.sel")).to_have_count(1)
    hand.command("add drop shadow")
    expect(page.locator(".eff.open .head")).to_have_text("Drop shadow")
    hand.command("copy all effects")
    expect(page.locator("#said")).to_contain_text("Copied 1 effect of Group")
    other = hand.put("b", (20, 50), (60, 80))
    hand.command("paste effects over all")
    expect(page.locator(f".part[data-part={other}] .eff .head")).to_have_text(["Drop shadow"])


def test_what_was_seen_stays_until_the_new_picture_is_there(page, server):
    open_bench(page, server.url, "?part=p2")
    seen = "() => [...document.querySelectorAll('#sheet .thumb, #strip img, #proof img')]"
    until(page, lambda: page.evaluate(f"({seen})().every((node) => node.complete && node.naturalWidth)"))
    before = page.evaluate(f"({seen})().map((node) => node.src)")
    held = []

    def hold(route):
        held.append(route)

    page.route("**/pictures/**", hold)
    page.locator("#stage").focus()
    with page.expect_response("**/edits"):
        page.keyboard.press("ArrowRight")
    until(page, lambda: len(held) > 3)
    assert page.evaluate(f"({seen})().every((node) => node.complete && node.naturalWidth)")
    assert page.evaluate(f"({seen})().map((node) => node.src)") == before
    for route in held:
        route.continue_()
    page.unroute("**/pictures/**")
    until(page, lambda: page.evaluate(f"({seen})().map((node) => node.src)") != before)
