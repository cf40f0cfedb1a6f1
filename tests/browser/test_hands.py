"""Hands that trust without looking: keys keep their meaning, what is pressed is meant, one step for one wish."""

import pytest
from playwright.sync_api import expect

from tests.browser.hand import at, drag, middle_of, steps_done, until, value


def number(page, path):
    """A number in the rows of an open effect."""
    return page.locator(f".num[data-path='{path}']").first


def test_after_drawing_keys_mean_what_they_mean_and_the_name_is_offered(hand):
    page = hand.page
    box = hand.draw("b", (20, 20), (60, 50))
    expect(page.locator("#stage")).to_be_focused()
    expect(page.locator(f"#name-{box}")).to_have_class("entitle offered")
    page.keyboard.press("D")
    expect(page.locator(".part")).to_have_count(2)
    page.keyboard.press("Control+z")
    expect(page.locator(".part")).to_have_count(1)
    page.mouse.click(*at(page, 40, 35))
    expect(page.locator(".part.sel")).to_have_count(1)
    page.keyboard.press("Enter")
    expect(page.locator(f"#name-{box}")).to_be_focused()
    page.keyboard.type("Plate")
    page.keyboard.press("Enter")
    expect(page.locator("#history")).to_contain_text("Plate")


def test_arrows_pressed_one_after_the_other_are_one_step(hand):
    page = hand.page
    box = hand.put("b", (20, 20), (60, 50))
    page.locator("#stage").focus()
    before = steps_done(page).count()
    for key in ("ArrowRight", "ArrowRight", "ArrowDown", "Shift+ArrowRight"):
        page.keyboard.press(key)
    expect(value(page, f"parts/{box}/x")).to_have_text("52")
    expect(value(page, f"parts/{box}/y")).to_have_text("36")
    expect(steps_done(page)).to_have_count(before + 1)
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("Control+z")
    expect(value(page, f"parts/{box}/x")).to_have_text("52")


def test_escape_leaves_the_innermost_thing_first(hand):
    page = hand.page
    hand.put("b", (20, 20), (60, 50))
    page.locator(".eff .head").first.click()
    expect(page.locator(".eff.open")).to_have_count(1)
    page.locator("#stage").focus()
    page.locator("#history-menu summary").click()
    for left, (menu, effect, part) in (("menu", (0, 1, 1)), ("effect", (0, 0, 1)), ("selection", (0, 0, 0))):
        page.keyboard.press("Escape")
        expect(page.locator("#history-menu[open]"), left).to_have_count(menu)
        expect(page.locator(".eff.open"), left).to_have_count(effect)
        expect(page.locator(".part.sel"), left).to_have_count(part)


def test_space_over_the_stage_pans_whatever_has_the_focus(hand):
    page = hand.page
    box = hand.put("b", (20, 20), (60, 50))
    page.locator(f"#eye-{box}").focus()
    page.mouse.move(*at(page, 40, 35))
    left = page.locator("#paper").bounding_box()["x"]
    page.keyboard.down(" ")
    drag(page, at(page, 40, 35), (at(page, 40, 35)[0] + 50, at(page, 40, 35)[1]))
    page.keyboard.up(" ")
    until(page, lambda: abs(page.locator("#paper").bounding_box()["x"] - left - 50) < 2)
    expect(page.locator(f"#eye-{box}")).to_have_attribute("aria-pressed", "true")
    expect(value(page, f"parts/{box}/x")).to_have_text("40")


def test_parts_are_pasted_even_where_a_name_has_the_focus_and_never_as_text(hand):
    page = hand.page
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    box = hand.put("b", (20, 20), (60, 50))
    page.locator("#stage").focus()
    page.keyboard.press("Control+c")
    page.locator(f"#name-{box}").focus()
    page.keyboard.press("Control+v")
    expect(page.locator(".part")).to_have_count(2)
    expect(page.locator(f"#name-{box}")).to_have_value("Box")


def test_a_triangle_is_one_press(hand):
    page = hand.page
    page.get_by_role("button", name="Triangle").click()
    drag(page, at(page, 20, 20), at(page, 60, 60))
    expect(page.locator(".part.sel")).to_contain_text("3 sides")


def test_the_middle_of_a_radial_gradient_moves_it_and_its_first_stop_stands_beside(hand):
    page = hand.page
    part = hand.put("r", (20, 20), (80, 80))
    hand.choose(f"parts/{part}/effects/e1/fill/kind", "radial")
    page.locator(".eff .head").first.click()
    x, y = middle_of(page, "circle.ramp-dot.ring")
    drag(page, (x + 2, y + 1), (x + 32, y + 1))
    expect(page.locator("#history")).to_contain_text("Changed 2 values of paint")
    across = number(page, f"parts/{part}/effects/e1/fill/centre_x")
    until(page, lambda: float(across.inner_text()) > 55)
    expect(number(page, f"parts/{part}/effects/e1/fill/stops/0/position")).to_have_text("0")
    cx, cy = middle_of(page, "circle.ramp-dot.ring")
    sx, sy = middle_of(page, "circle.ramp-dot[data-gradient='stop 0']")
    assert ((sx - cx) ** 2 + (sy - cy) ** 2) ** 0.5 > 14


def test_a_linear_gradients_line_can_be_dragged(hand):
    page = hand.page
    part = hand.put("b", (20, 20), (80, 80))
    hand.choose(f"parts/{part}/effects/e1/fill/kind", "linear")
    page.locator(".eff .head").first.click()
    from_x, from_y = middle_of(page, "circle.ramp-dot[data-gradient=from]")
    to_x, to_y = middle_of(page, "circle.ramp-dot[data-gradient=to]")
    x, y = from_x + (to_x - from_x) / 3, from_y + (to_y - from_y) / 3
    drag(page, (x, y), (x + (to_x - from_x) / 8, y + (to_y - from_y) / 8))
    offset = number(page, f"parts/{part}/effects/e1/fill/offset")
    until(page, lambda: float(offset.inner_text()) > 4)


@pytest.mark.parametrize(("mode", "place", "piece"), [("union", (100, 50), 1), ("difference", (20, 30), 0)])
def test_two_presses_go_into_a_combination(hand, mode, place, piece):
    page = hand.page
    pieces = hand.put("b", (10, 10), (70, 60)), hand.put("r", (50, 20), (110, 80))
    page.locator("#stage").focus()
    page.keyboard.press("Control+a")
    page.locator(f"#sheet [data-mode={mode}]").click()
    expect(page.locator(".part.sel")).to_have_count(1)
    expect(page.locator(".part.sel")).to_contain_text("combination")
    page.keyboard.press("Escape")
    page.mouse.dblclick(*at(page, *place))
    expect(page.locator(".part.sel")).to_have_attribute("data-part", pieces[piece])


def test_a_linked_copy_and_a_rim_keep_to_their_part(hand):
    page = hand.page
    box = hand.put("b", (30, 30), (70, 60))
    page.locator("#stage").focus()
    page.keyboard.press("k")
    expect(page.locator(".part.sel")).to_contain_text("Keeps to Box")
    hand.select(box)
    page.locator(f".part[data-part={box}] #more summary").click()
    page.locator("[data-form=add-rim] [name=width]").fill("3")
    page.locator("[data-form=add-rim] button").click()
    rim = page.locator(".part.sel")
    expect(rim.locator("input.entitle")).to_have_value("Box rim")
    name = rim.get_attribute("data-part")
    hand.select(box)
    hand.type(f"parts/{box}/shape/width", "60")
    expect(value(page, f"parts/{name}/shape/width")).to_have_text("66")
    hand.select(name)
    page.get_by_role("button", name="let go").click()
    expect(page.locator(".part.sel")).not_to_contain_text("Keeps to")


def test_a_body_is_fitted_around_a_label_drawn_first(hand):
    page = hand.page
    label = hand.draw("t", (30, 30), (31, 31))
    page.keyboard.type("Lock")
    page.keyboard.press("Enter")
    body = hand.put("b", (5, 70), (20, 90))
    page.locator("#stage").focus()
    page.keyboard.press("Control+a")
    form = page.locator("[data-form=fit-around]")
    expect(form).to_contain_text("Fit Box around Lock")
    form.locator("[name=left]").fill("10")
    form.locator("[name=right]").fill("10")
    form.get_by_role("button", name="fit").click()
    expect(page.locator(".part").first).to_have_attribute("data-part", label)
    hand.select(label)
    with page.expect_response("**/edits"):
        value(page, f"parts/{label}/shape/words").fill("Lock the gate")
        page.keyboard.press("Enter")
    width = value(page, f"parts/{body}/shape/width")
    until(page, lambda: float(width.inner_text()) > 80)


def test_the_finder_knows_other_words(hand):
    page = hand.page
    hand.put("b", (20, 20), (60, 50))
    page.locator("#stage").focus()
    page.keyboard.press("a")
    for words, found in (("clone", "Duplicate"), ("padding", "Fit a body"), ("swatch", ""), ("stroke", "Add outline")):
        page.locator("#command-words").fill(words)
        shown = page.locator("#command-list button:visible")
        if found:
            expect(shown.filter(has_text=found)).not_to_have_count(0)
