"""Journeys: looks built, tried, kept, compared and taken apart; paint, light and ground."""

import re

import numpy as np
from playwright.sync_api import expect

from tests.browser.hand import Held, at, drag, middle_of, shows, stage_colour, until, value
from tests.making import png

NEUTRAL = [31, 138, 146, 255]


def test_a_mask_is_added_and_turned_round(hand):
    hand.draw("b", (20, 20), (100, 76))
    hand.page.keyboard.press("Escape")
    hand.page.mouse.click(*at(hand.page, 60, 50))
    hand.command("add mask")
    expect(hand.page.locator(".eff.open .head")).to_have_text("Mask")
    until(hand.page, lambda: stage_colour(hand.page, 60, 22)[3] > 230 and stage_colour(hand.page, 60, 74)[3] < 25)
    with hand.page.expect_response("**/edits"):
        hand.page.locator(".eff.open [data-switch]").first.click()
    until(hand.page, lambda: stage_colour(hand.page, 60, 22)[3] < 25)


def test_a_material_is_tried_laid_saved_and_followed(hand):
    page = hand.page
    hand.draw("b", (20, 20), (100, 60))
    page.keyboard.press("Escape")
    page.mouse.click(*at(page, 60, 50))
    page.keyboard.press("m")
    page.locator("#looks-colours").select_option("material")
    page.locator("[data-lay='shipped-brass']").hover()
    until(page, lambda: stage_colour(page, 60, 40)[0] > 120)
    page.mouse.move(5, 400)
    shows(page, 60, 40, NEUTRAL)
    with page.expect_response("**/edits"):
        page.locator("[data-lay='shipped-brass']").click()
    expect(page.locator(".effs .eff")).to_have_count(7)
    page.locator("#looks-save input").fill("Old brass")
    page.locator("#looks-save button").click()
    expect(page.locator("[data-lay='m-old-brass']")).to_be_visible()
    page.locator("#looks-linked").check()
    with page.expect_response("**/edits"):
        page.locator("[data-lay='m-old-brass']").click()
    page.locator("[data-try=inner-glow]").click()
    expect(page.locator(".effs .eff")).to_have_count(8)
    page.keyboard.press("Escape")
    expect(page.locator("#looks")).to_be_hidden()


def add_effect(hand, kind, label):
    with hand.page.expect_response("**/edits"):
        hand.page.locator(f"#sheet [data-add-effect={kind}]").click()
    expect(hand.page.locator(".eff.open .head")).to_have_text(label)


def test_a_lens_is_built_from_a_circle_lit_laid_on_a_star_and_pressed(hand):
    page = hand.page
    lens = hand.put("r", (20, 12), (92, 84))
    hand.choose(f"parts/{lens}/effects/e1/fill/kind", "radial")
    for kind, label in (
        ("inner-glow", "Inner glow"),
        ("bevel", "Bevel"),
        ("gloss", "Gloss"),
        ("outer-glow", "Outer glow"),
    ):
        add_effect(hand, kind, label)
    page.keyboard.press("Escape")
    page.locator("#stage").focus()
    page.keyboard.press("Escape")
    expect(page.locator(".part.sel")).to_have_count(0)
    above = stage_colour(page, 56, 20)
    light = page.locator("#light")
    x, y = middle_of(page, "#light")
    drag(page, (x, y), at(page, 56, 150))
    until(page, lambda: sum(stage_colour(page, 56, 20)[:3]) < sum(above[:3]) - 30)
    assert sum(stage_colour(page, 56, 76)[:3]) > sum(stage_colour(page, 56, 20)[:3])
    expect(light).to_be_visible()
    hand.select(lens)
    page.keyboard.press("m")
    page.locator("#looks-save input").fill("Lens")
    page.locator("#looks-save button").click()
    page.locator("[data-lay='m-lens']").wait_for()
    for count in range(1, 5):
        page.locator("#looks").get_by_text("keep this look").click()
        expect(page.locator("[data-version]")).to_have_count(count)
    page.keyboard.press("Escape")
    hand.command("a pressed look")
    expect(page.locator("#history li").first).to_contain_text("pressed look")
    page.keyboard.press("m")
    with page.expect_response("**/edits"):
        page.locator("[data-version='2']").click()
    page.keyboard.press("Escape")
    hand.put("s", (94, 4), (118, 28))
    page.keyboard.press("m")
    with page.expect_response("**/edits"):
        page.locator("[data-lay='m-lens']").click()
    page.keyboard.press("Escape")
    expect(page.locator(".effs .eff")).to_have_count(5)


def test_a_gradient_is_turned_by_its_handle_and_a_curve_is_drawn(hand):
    page = hand.page
    box = hand.put("b", (20, 20), (100, 76))
    hand.choose(f"parts/{box}/effects/e1/fill/kind", "linear")
    page.locator("#sheet [data-open=e1]").click()
    start = middle_of(page, "circle.ramp-dot[data-gradient=to]")
    (x, y), (to_x, to_y) = at(page, 60, 76), at(page, 110, 48)
    drag(page, start, (start[0] + to_x - x, start[1] + to_y - y))
    expect(page.locator("#history li").first).to_contain_text("Changed 3 values of paint")
    until(page, lambda: abs(float(value(page, f"parts/{box}/effects/e1/fill/angle").first.inner_text()) - 90) < 3)
    add_effect(hand, "bevel", "Bevel")
    with page.expect_response("**/edits"):
        page.locator("[data-choose=drawn]").first.click()
    curve = page.locator("svg.curve").first.bounding_box()
    with page.expect_response("**/edits"):
        page.mouse.click(curve["x"] + curve["width"] * 0.3, curve["y"] + curve["height"] * 0.2)
    points = page.locator("svg.curve").first.locator("circle")
    expect(points).to_have_count(3)
    label = points.nth(1).get_attribute("aria-label")
    place = points.nth(1).get_attribute("cx")
    x, y = middle_of(page, "svg.curve circle[data-point='1']")
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 20, y + 20, steps=3)
    expect(points.nth(1)).not_to_have_attribute("cx", place)
    page.keyboard.press("Escape")
    page.mouse.up()
    expect(points.nth(1)).to_have_attribute("cx", place)
    expect(points.nth(1)).to_have_attribute("aria-label", label)
    points.nth(1).focus()
    for key in ("ArrowRight", "Enter"):
        with page.expect_response("**/edits"):
            page.keyboard.press(key)
    expect(points).to_have_count(4)
    expect(points.nth(2)).to_be_focused()
    with page.expect_response("**/edits"):
        page.keyboard.press("Delete")
    expect(points).to_have_count(3)
    expect(points.nth(1)).not_to_have_attribute("aria-label", label)


def test_the_strip_shows_heat_and_cost_and_the_stage_both_halves(page, server):
    page.goto(f"{server.url}/kits/wendmere-lock/controls/c9?part=p3")
    heat = page.locator("#heat")
    heat.click()
    expect(page.locator(".build img").nth(2)).to_have_attribute("src", re.compile("hot=1"))
    expect(page.locator(".build small").nth(2)).to_contain_text("ms")
    heat.click()
    expect(page.locator(".build img").nth(2)).not_to_have_attribute("src", re.compile("hot=1"))
    until(page, lambda: page.evaluate("document.getElementById('art').width") > 301)
    page.locator("#stage").focus()
    page.keyboard.press("v")
    line = page.locator("#halves-line")
    expect(line).to_be_visible()
    red = """() => {
        const before = document.getElementById("before"), box = before.getBoundingClientRect();
        const art = document.getElementById("paper").getBoundingClientRect();
        const x = (art.left + art.width * 0.35 - box.left) * before.width / box.width;
        const y = (art.top + art.height * 0.4 - box.top) * before.height / box.height;
        return [...before.getContext("2d").getImageData(x, y, 1, 1).data];
    }"""
    until(page, lambda: page.evaluate("document.getElementById('before').width") > 301)
    until(page, lambda: page.evaluate(red)[0] < 90)
    x, y = middle_of(page, "#halves-line")
    drag(page, (x, y), (x - 120, y))
    until(page, lambda: abs(middle_of(page, "#halves-line")[0] - (x - 120)) < 3)
    page.locator("#stage").focus()
    page.keyboard.press("v")
    expect(line).to_be_hidden()


def test_what_is_removed_can_be_taken_back_on_the_spot(page, server):
    page.goto(f"{server.url}/kits/wendmere-lock/controls/c9?part=p3&effect=e3")
    page.locator("#sheet [data-effect-do=remove]").click()
    expect(page.locator(".effs .eff")).to_have_count(5)
    page.locator("#said").get_by_text("Take it back").click()
    expect(page.locator(".effs .eff")).to_have_count(6)
    page.locator("#sheet [data-open=e2]").click()
    page.locator("[data-drop-stop]:visible").first.click()
    expect(page.locator(".stop:visible")).to_have_count(2)
    page.locator("#said").get_by_text("Take it back").click()
    expect(page.locator(".stop:visible")).to_have_count(3)
    page.keyboard.press("m")
    page.locator("[data-drop-material=m-amber-lens-lit]").click()
    expect(page.locator("[data-lay=m-amber-lens-lit]")).to_have_count(0)
    page.locator("#said").get_by_text("Take it back").click()
    expect(page.locator("[data-lay=m-amber-lens-lit]")).to_be_visible()
    page.locator("#looks-close").click()
    page.locator("[data-drop-stop]:visible").first.click()
    offer = page.locator("#said.offers")
    expect(offer).to_be_visible()
    with page.expect_response("**/edits"):
        page.locator("[data-ramp=reverse]:visible").click()
    expect(offer).to_have_count(0)


def fill_with(page, picture):
    with page.expect_file_chooser() as chooser:
        page.locator("[data-bring-fill]").first.click()
    with page.expect_response("**/pictures*"):
        chooser.value.set_files({"name": "tile.png", "mimeType": "image/png", "buffer": picture})


def test_a_tile_fills_a_part_its_seam_is_closed_and_its_fill_goes_to_the_outline(hand):
    page = hand.page
    box = hand.put("b", (20, 20), (100, 76))
    page.locator("#sheet [data-open=e1]").click()
    levels = np.zeros((8, 8, 3), int)
    levels[:, :, 0] = np.linspace(0, 255, 8).astype(int)
    fill_with(page, png(levels))
    hand.choose(f"parts/{box}/effects/e1/fill/fit", "tiled")
    expect(page.locator(".eff.open")).to_contain_text("A seam shows across.")
    with page.expect_response("**/edits"):
        page.get_by_text("Mirror every other tile").click()
    expect(page.locator(".eff.open")).not_to_contain_text("A seam shows")
    add_effect(hand, "outline", "Outline")
    page.locator("#sheet [data-open=e1]").click()
    page.locator("[data-form=swap-fills] [name=how]").select_option("swap")
    with page.expect_response("**/edits"):
        page.locator("[data-form=swap-fills] button").click()
    shows(page, 60, 50, [255, 255, 255, 255])
    expect(page.locator("#history li").first).to_contain_text("Swapped the fills")


def test_gradients_are_taken_from_another_part_and_kept_in_the_kit(hand):
    page = hand.page
    one = hand.draw("b", (10, 10), (50, 80))
    other = hand.draw("b", (70, 10), (110, 80))
    page.keyboard.press("Escape")
    hand.select(one)
    hand.choose(f"parts/{one}/effects/e1/fill/kind", "linear")
    page.locator("#sheet [data-open=e1]").click()
    page.locator("[data-keep-gradient] input").fill("Deep water mine")
    page.locator("[data-keep-gradient] button").click()
    expect(page.locator("#said")).to_contain_text("Kept")
    hand.select(other)
    page.keyboard.press("m")
    bottom = stage_colour(page, 90, 78)
    taken = page.get_by_label("Paint with paint of Box", exact=True)
    taken.hover()
    until(page, lambda: stage_colour(page, 90, 78) != bottom)
    page.mouse.move(5, 400)
    until(page, lambda: stage_colour(page, 90, 78) == bottom)
    page.locator("#looks-onto").select_option("outline")
    with page.expect_response("**/edits"):
        page.get_by_label("Paint with Deep water mine").click()
    expect(page.locator(".effs .eff .head").first).to_have_text("Outline")


def test_kept_looks_are_compared_side_by_side_and_one_is_taken_up(hand):
    page = hand.page
    hand.put("r", (20, 12), (92, 84))
    page.keyboard.press("m")
    page.locator("#looks-colours").select_option("material")
    for count, material in enumerate(
        ("shipped-brass", "shipped-matt-rubber", "shipped-enamel", "shipped-lacquer"), start=1
    ):
        with page.expect_response("**/edits"):
            page.locator(f"[data-lay='{material}']").click()
        page.locator("#looks").get_by_text("keep this look").click()
        expect(page.locator("[data-version]")).to_have_count(count)
    page.locator("#compare-open").click()
    expect(page.locator("#compare figure")).to_have_count(5)
    seen = page.locator("#compare img")
    until(
        page, lambda: page.evaluate("[...document.querySelectorAll('#compare img')].every(i => i.naturalWidth > 50)")
    )
    assert len({one.get_attribute("src") for one in seen.all()}) == 5
    with page.expect_response("**/edits"):
        page.locator("#compare [data-version='0']").click()
    expect(page.locator("#compare")).to_be_hidden()
    until(page, lambda: stage_colour(page, 56, 48)[0] > stage_colour(page, 56, 48)[2] + 60)


def test_steps_of_the_build_up_are_dragged_and_hidden(hand):
    page = hand.page
    box = hand.put("b", (20, 20), (100, 76))
    add_effect(hand, "paint", "Paint")
    add_effect(hand, "drop-shadow", "Drop shadow")
    hand.choose(f"parts/{box}/effects/e1/fill/kind", "linear")
    labels = page.locator(".build b")
    expect(labels).to_have_text(["shape", "+ drop shadow", "+ paint 1", "+ paint 2"])
    last = page.locator(".build").nth(3).get_attribute("data-open")
    drag(page, middle_of(page, "#build-3"), middle_of(page, "#build-2"))
    expect(page.locator(".build").nth(2)).to_have_attribute("data-open", last)
    drag(page, middle_of(page, "#build-3"), middle_of(page, "#build-1"))
    expect(page.locator("#fault")).to_contain_text("stays there")
    page.locator(".strip li").nth(1).hover()
    with page.expect_response("**/edits"):
        page.locator("#seen-1").click()
    expect(page.locator(".strip li").nth(1)).to_have_class("off")
    expect(labels).to_have_count(4)


def test_several_parts_share_an_effect_and_a_pull_asks_for_their_lengths(hand):
    page = hand.page
    parts = [hand.draw("b", (x, 20), (x + 30, 50)) for x in (10, 70)]
    for part in parts:
        hand.select(part)
        add_effect(hand, "drop-shadow", "Drop shadow")
    hand.select(*parts)
    page.locator("details.common", has_text="Drop shadow").locator("summary").click()
    blur = page.locator("details.common [data-path='parts/*/effects/drop-shadow:0/blur']")
    blur.click()
    page.keyboard.type("12")
    with page.expect_response("**/edits"):
        page.keyboard.press("Enter")
    expect(blur).to_have_text("12")
    page.locator("#stage").focus()
    page.keyboard.press("Escape")
    hand.select(parts[0])
    expect(page.locator(".effs")).to_contain_text("blur 12px")
    drag(page, middle_of(page, ".hd[data-handle=se]"), at(page, 70, 80))
    with page.expect_response("**/edits"):
        page.get_by_role("button", name="Scale them along").click()
    expect(page.locator(".effs")).to_contain_text("blur 24px")
    page.locator("#lit summary").click()
    expect(page.locator("#lit li")).to_have_count(2)
    page.locator("#lit").get_by_role("button", name="let it follow").first.click()
    expect(page.locator("#lit summary")).to_contain_text("1 of 2 follow")
    expect(page.locator("#lit li").first).to_contain_text("follows: yes")


def test_a_control_gets_a_ground_of_its_own_and_delivers_it_when_asked(hand):
    page = hand.page
    hand.draw("b", (20, 20), (100, 76))
    page.locator("#ground summary").click()
    with page.expect_response("**/edits"):
        page.get_by_text("Give it a ground of its own").click()
    expect(page.locator("body")).to_have_attribute("data-ground-now", "own")
    with page.expect_response("**/edits"):
        page.locator("#v-ground-kind-row").select_option("texture")
    expect(page.locator("#ground summary")).to_contain_text("its own")
    seen = "getComputedStyle(document.getElementById('paper')).backgroundImage"
    until(page, lambda: "ground=1" in page.evaluate(seen))
    # What is ticked before the page's scripts listen counts too.
    scripts = Held(page, "**/js/deliver.js")
    page.get_by_role("link", name="Deliver 5 files").click()
    page.locator("[name=ground]").check()
    until(page, scripts.arrived)
    scripts.let_go()
    expect(page.locator("#files img").first).to_have_attribute("src", re.compile("standing=1"))
