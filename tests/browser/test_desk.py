"""What hand and eye find on the desk: handles, the chooser, dials, edges, keys, and words that can be read."""

import numpy as np
import pytest
from playwright.sync_api import expect

from tests.browser.hand import LOCK, at, drag, middle_of, open_bench, stage_colour, until, value
from tests.making import png, slope


def edited(page, act):
    """Do something that is an edit, and wait for its answer."""
    with page.expect_response("**/edits") as answer:
        act()
    assert answer.value.ok, answer.value.text()


def test_a_picture_is_cropped_by_its_handles_and_stays_where_it_lies(hand):
    page = hand.page
    with page.expect_file_chooser() as chooser:
        page.locator("#sheet [data-draw=picture]").click()
    ramp = png(slope(64, 48)[..., :3])
    with page.expect_response("**/pictures*"):
        chooser.value.set_files({"name": "ramp.png", "mimeType": "image/png", "buffer": ramp})
    expect(page.locator(".part")).to_have_count(1)
    picture = hand.newest()
    until(page, lambda: stage_colour(page, 60, 48)[3] == 255)
    before = np.array(stage_colour(page, 60, 48), int)
    page.get_by_text("Crop by its handles").click()
    expect(page.get_by_text("Crop by its handles")).to_have_attribute("aria-pressed", "true")
    expect(page.locator("#marks .whole-picture")).to_have_count(1)
    west, zoom = middle_of(page, ".hd[data-handle=w]"), at(page, 1, 0)[0] - at(page, 0, 0)[0]
    edited(page, lambda: drag(page, west, (west[0] + 16 * zoom, west[1])))
    expect(value(page, f"parts/{picture}/shape/width")).to_have_text("48")
    expect(value(page, f"parts/{picture}/shape/cut_left")).to_have_text("25")
    until(page, lambda: stage_colour(page, 30, 48)[3] == 0)
    assert np.abs(np.array(stage_colour(page, 60, 48), int) - before).max() <= 4
    page.keyboard.press("Escape")
    expect(page.locator("#marks .whole-picture")).to_have_count(0)
    expect(page.locator("#history li").first).to_contain_text("Cropped")


def test_the_chooser_shows_the_opacity_there_is_and_takes_one_that_is_typed(hand):
    page = hand.page
    box = hand.put("b", (20, 20), (100, 76))
    page.locator("#sheet [data-open=e1]").click()
    path = f"parts/{box}/effects/e1"
    hand.type(f"{path}/opacity", "50")
    value(page, f"{path}/fill/colour").click()
    expect(page.locator("#opacity-now")).to_have_text("50 %")
    page.locator("#hex").fill("#ff000040")
    edited(page, lambda: page.locator("#hex").press("Enter"))
    expect(value(page, f"{path}/opacity")).to_have_text("25")
    value(page, f"{path}/fill/colour").click()
    expect(page.locator("#opacity-now")).to_have_text("25 %")
    page.locator("#colour-keep").click()
    expect(page.locator("#chooser")).to_be_hidden()
    expect(value(page, f"{path}/opacity")).to_have_text("25")
    expect(page.locator("#history li")).to_have_count(3)


def test_a_dial_turns_all_the_way_and_shows_where_the_light_is(hand):
    page = hand.page
    hand.put("b", (20, 20), (100, 76))
    hand.command("add drop shadow")
    with page.expect_response("**/edits"):
        page.locator(".eff.open select[data-path$='/offset/kind']").first.select_option("cast")
    expect(page.locator("#lit summary")).to_contain_text("0 of 1 follow")
    dial = page.locator(".eff.open .dial").first
    expect(dial.locator(".sun")).to_have_count(1)
    node = page.locator(f"#{dial.get_attribute('data-for')}")
    box = dial.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    for degrees, (dx, dy) in {"270": (-9, 0), "315": (-8, -8), "45": (8, -8)}.items():
        page.mouse.move(x + 3, y + 9)
        page.mouse.down()
        page.mouse.move(x + dx, y + dy, steps=3)
        edited(page, page.mouse.up)
        expect(node).to_have_text(degrees)
        assert dial.bounding_box() == box


def test_a_value_stays_under_the_hand_while_the_sentence_above_it_grows_by_a_line(hand):
    page = hand.page
    box = hand.put("b", (20, 20), (100, 76))
    hand.command("add drop shadow")
    hand.choose(f"parts/{box}/effects/e2/offset/kind-row", "cast")
    expect(page.locator(".eff.open .dial")).to_be_visible()
    spread = value(page, f"parts/{box}/effects/e2/spread-row")
    opened = page.locator(".eff.open")
    at_first, height = spread.bounding_box()["y"], opened.bounding_box()["height"]
    hand.type(f"parts/{box}/effects/e2/spread-row", "113.125")
    until(page, lambda: opened.bounding_box()["height"] > height)
    assert abs(spread.bounding_box()["y"] - at_first) < 1


def test_another_edge_is_looked_at_by_pressing_it_and_made_crisp_by_its_remedy(hand):
    page = hand.page
    box = hand.put("b", (20, 20), (100, 76))
    hand.choose(f"parts/{box}/fit", "off")
    hand.type(f"parts/{box}/x", "60.3")
    page.mouse.click(*at(page, 99, 48))
    expect(page.locator("#proof .soft-sides")).to_contain_text("1×, 1.5×, 2×, 3×: left, right")
    page.mouse.click(*at(page, 60, 22))
    first = page.locator("#proof .edges img").first
    seen = first.get_attribute("src")
    page.mouse.click(*at(page, 60, 75))
    until(page, lambda: first.get_attribute("src") != seen)
    edited(page, lambda: page.locator("#proof .soft-sides button").click())
    expect(page.locator("#proof .soft-sides")).to_have_count(0)
    expect(page.locator("#proof .crisp")).to_have_count(4)


def test_the_lamp_keeps_its_height_when_it_is_turned_and_sets_it_when_it_is_pulled_in(hand):
    page = hand.page
    hand.put("b", (20, 20), (100, 76))
    until(page, lambda: page.locator("#v-light-height").count() == 1)
    before = value(page, "light/height").inner_text()
    lamp, middle = middle_of(page, "#light"), at(page, 60, 48)
    edited(page, lambda: drag(page, lamp, (middle[0] + middle[1] - lamp[1], middle[1])))
    expect(value(page, "light/direction")).to_have_text("90")
    expect(value(page, "light/height")).to_have_text(before)
    lamp = middle_of(page, "#light")
    inwards = ((lamp[0] + middle[0]) / 2, (lamp[1] + middle[1]) / 2)
    edited(page, lambda: drag(page, lamp, inwards))
    expect(value(page, "light/height")).not_to_have_text(before)


def test_simplify_shows_what_it_does_before_it_does_it(hand):
    page = hand.page
    hand.put("r", (20, 10), (90, 80))
    edited(page, lambda: hand.command("convert to a path"))
    form = page.locator("[data-form=simplify]")
    expect(page.locator("#history")).to_contain_text("path")
    done = page.locator("#history li").count()
    form.locator("[name=tolerance]").fill("12")
    expect(form.locator("output")).to_contain_text("points")
    assert page.locator("#history li").count() == done
    edited(page, lambda: form.locator("button").click())
    expect(page.locator("#history li")).to_have_count(done + 1)


VIEWS = {"Wall": LOCK, "Bench": f"{LOCK}/controls/c1", "Deliver": f"{LOCK}/deliver"}


@pytest.mark.parametrize("view", VIEWS)
def test_the_keys_are_listed_on_every_view_from_their_beginning(page, common_server, view):
    page.goto(common_server.url + VIEWS[view])
    page.locator("h1, #stage").first.wait_for()
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("?")
    keys = page.locator("#keys")
    expect(keys).to_be_visible()
    assert keys.evaluate("box => box.scrollTop") == 0
    assert keys.locator("dt").count() > (20 if view == "Bench" else 2)
    page.keyboard.press("Escape")
    expect(keys).to_be_hidden()


READABLE = """() => {
    const lit = ([r, g, b]) => {
        const line = (v) => (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4);
        return 0.2126 * line(r) + 0.7152 * line(g) + 0.0722 * line(b);
    };
    const parts = (colour) => (colour.match(/[\\d.]+/g) || [0, 0, 0, 0]).map(Number);
    const ground = (node) => {
        const layers = [];
        for (let up = node; up; up = up.parentElement) {
            const style = getComputedStyle(up);
            if (style.backgroundImage !== 'none' || up.matches('canvas, dialog::backdrop')) return null;
            const [r, g, b, a = 1] = parts(style.backgroundColor);
            layers.push([r, g, b, a]);
            if (a === 1) break;
        }
        const over = (under, [r, g, b, a]) => [r, g, b].map((v, i) => v * a + under[i] * (1 - a));
        return layers.reverse().reduce(over, [255, 255, 255]);
    };
    const bad = [];
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let text = walk.nextNode(); text; text = walk.nextNode()) {
        const node = text.parentElement;
        if (!text.data.trim() || !node.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true })) continue;
        if (node.closest('.undone, .off, [aria-disabled=true], :disabled, option, script')) continue;
        const style = getComputedStyle(node);
        const under = ground(node);
        const words = text.data.trim().slice(0, 30);
        const size = parseFloat(style.fontSize);
        if (size < 12) bad.push(`${words}: ${size} px`);
        if (!under || node.closest('svg')) continue;
        const [r, g, b, a = 1] = parts(style.color);
        const ink = [r, g, b].map((v, i) => v * a + under[i] * (1 - a));
        const [light, dark] = [lit(ink), lit(under)].sort((x, y) => y - x);
        const ratio = (light + 0.05) / (dark + 0.05);
        if (ratio < 4.5) bad.push(`${words}: ${ratio.toFixed(2)} (${node.className || node.tagName})`);
    }
    return [...new Set(bad)];
}"""


@pytest.mark.parametrize("view", [LOCK, f"{LOCK}/deliver", f"{LOCK}/controls/c1?part=p2", f"{LOCK}/controls/c6"])
def test_every_word_is_12_px_and_stands_out_at_4_5_to_1(page, common_server, view):
    """WCAG 2.2, success criterion 1.4.3, at AA; grounds that are pictures are looked at by eye."""
    page.emulate_media(reduced_motion="reduce")
    page.goto(common_server.url + view)
    page.locator("h1, #stage").first.wait_for()
    if "part=" in view:
        page.locator("#sheet [data-open]").first.click()
        expect(page.locator(".eff.open")).to_have_count(1)
    assert page.evaluate(READABLE) == []


@pytest.mark.parametrize("size", [(1280, 800), (1600, 1000)])
def test_no_tray_lies_over_the_art_or_breaks(page, common_server, size):
    page.set_viewport_size({"width": size[0], "height": size[1]})
    open_bench(page, common_server.url, "?part=p2")
    page.locator("[data-zoom='8']").click()
    stage = page.locator("#stage").bounding_box()
    for tray in page.locator("#stage .tray").all():
        if not tray.is_visible():
            continue
        box = tray.bounding_box()
        assert box["height"] <= 36, "a tray is one line"
        above, below = box["y"] + box["height"] - stage["y"], stage["y"] + stage["height"] - box["y"]
        assert min(above, below) <= 36.5, "a tray stands in its bar"
    lamp, paper = page.locator("#light").bounding_box(), page.locator("#paper").bounding_box()
    across = lamp["x"] + lamp["width"] <= paper["x"] or lamp["x"] >= paper["x"] + paper["width"]
    down = lamp["y"] + lamp["height"] <= paper["y"] or lamp["y"] >= paper["y"] + paper["height"]
    docked = lamp["x"] < stage["x"] + 24
    assert across or down or docked, "the lamp stands beside the art or in the corner of the rulers"


def test_what_is_found_is_said_in_the_bar_and_the_column_and_cured_by_a_press(hand):
    page = hand.page
    bar, column = page.locator("#found"), page.locator("#proof .found")
    box = hand.put("b", (2, 10), (118, 60))
    expect(page.locator("#proof")).to_contain_text("Nothing more to mend")
    page.get_by_role("button", name="drop shadow").first.click()
    expect(bar).to_contain_text("The canvas cuts the drop shadow of Box.")
    expect(column.locator(".wrong")).to_have_count(1)
    bar.get_by_role("button", name="Grow the canvas").click()
    expect(bar).to_be_hidden()
    hand.type(f"parts/{box}/x", "-70")
    expect(page.locator(f"#parts [data-part={box}] .found-mark")).to_have_text("off the canvas")
    page.locator("#stage").focus()
    page.keyboard.press("Escape")
    expect(page.locator(".eff.open")).to_have_count(0)
    expect(page.locator(".part.sel")).to_have_count(1)
    page.keyboard.press("Escape")
    expect(page.locator(".part.sel")).to_have_count(0)
    column.get_by_role("button", name="lies off the canvas").click()
    expect(page.locator(".part.sel")).to_have_attribute("data-part", box)
    column.get_by_role("button", name="Move it onto the canvas").click()
    expect(page.locator(".found-mark")).to_have_count(0)
    page.keyboard.press("Control+z")
    expect(page.locator(".found-mark")).to_have_count(1)
