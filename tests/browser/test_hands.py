"""Hands that trust without looking: keys keep their meaning, what is pressed is meant, one step for one wish."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.hand import at, drag, middle_of, stage_colour, steps_done, until, value


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


def test_a_new_shadow_falls_where_its_handle_is_dragged_and_has_a_name(hand):
    page = hand.page
    part = hand.put("b", (20, 20), (80, 60))
    page.locator(".part.sel").get_by_role("button", name="drop shadow").click()
    x, y = middle_of(page, "circle.fall-dot")
    right, below = at(page, 60, 50)
    left, top = at(page, 50, 40)
    drag(page, (x, y), (x + right - left, y + below - top))
    effect = page.locator(".eff.open").get_attribute("data-effect")
    base = f"parts/{part}/effects/{effect}"
    expect(number(page, f"{base}/offset/across")).to_have_text("10")
    expect(number(page, f"{base}/offset/down")).to_have_text("12")
    expect(page.locator("#history")).to_contain_text("Moved the drop shadow of Box")
    page.locator(f"[data-path='{base}/name']").click()
    page.keyboard.type("Long shade")
    page.keyboard.press("Enter")
    expect(page.locator(".eff.open .head")).to_have_text("Long shade")


def test_a_clipped_part_is_taken_hold_of_only_where_it_is_seen(hand):
    page = hand.page
    window = hand.put("b", (20, 20), (50, 50))
    clipped = hand.put("r", (30, 10), (110, 80))
    page.locator(".part.sel #more summary").click()
    with page.expect_response("**/edits"):
        hand.choose(f"parts/{clipped}/clip", window)
    page.locator("#stage").focus()
    page.keyboard.press("Escape")
    page.mouse.click(*at(page, 90, 50))
    expect(page.locator(".part.sel")).to_have_count(0)
    page.mouse.click(*at(page, 42, 42))
    expect(page.locator(".part.sel")).to_have_attribute("data-part", clipped)
    page.keyboard.press("Escape")
    page.mouse.click(*at(page, 24, 24))
    expect(page.locator(".part.sel")).to_have_attribute("data-part", window)


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


def test_an_icon_put_beside_its_label_stays_there_in_the_middle_of_their_body(hand):
    page = hand.page
    body = hand.put("b", (5, 10), (115, 40))
    icon = hand.put("r", (20, 60), (30, 70))
    label = hand.draw("t", (30, 80), (31, 81))
    page.keyboard.type("Lock")
    page.keyboard.press("Enter")
    expect(steps_done(page)).to_have_count(4)
    hand.select(label, icon)
    form = page.locator("[data-form=put-beside]")
    form.locator("[name=gap]").fill("wide")
    form.get_by_role("button", name="put").click()
    expect(page.locator("#fault")).to_contain_text("“wide” is not a number")
    expect(steps_done(page)).to_have_count(4)
    form.locator("[name=gap]").fill("4")
    form.locator("[name=body]").select_option(body)
    form.get_by_role("button", name="put").click()
    expect(steps_done(page).first).to_contain_text("Put Round beside Lock")
    hand.select(icon)
    across = value(page, f"parts/{icon}/x")
    before = float(across.inner_text())
    hand.select(label)
    with page.expect_response("**/edits"):
        value(page, f"parts/{label}/shape/words").fill("Lock the gate")
        page.keyboard.press("Enter")
    hand.select(icon)
    until(page, lambda: float(across.inner_text()) < before - 10)


def test_the_finder_says_where_each_command_stands_in_the_sheet(hand):
    """Of every command that is a word in the sheet of one part, the fold that it stands in is the one that is said."""
    page = hand.page
    holder = hand.put("b", (20, 20), (60, 50))
    inner = hand.put("r", (70, 20), (90, 40))
    hand.select(holder)
    hand.command("group")
    expect(page.locator(".part")).to_have_count(3)
    hand.select(inner)
    page.locator(f".part[data-part={inner}].sel .makings").first.wait_for()
    where = page.evaluate(
        """() => [...document.querySelectorAll("#command-list button")].flatMap((button) => {
            const { do: doing, fill, where } = button.dataset;
            const word = doing ? `[data-do=${doing}]` : fill ? `[data-form=${fill}]` : "";
            const found = word && document.querySelector(`#sheet .part.sel ${word}`);
            if (!found) return [];
            const fold = found.closest("details");
            return [[where, fold ? `Sheet, ${fold.querySelector("summary").textContent.trim()}` : "Sheet, part"]];
        })"""
    )
    assert len(where) > 15
    assert {(said, at.removesuffix(" …")) for said, at in where if said != at.removesuffix(" …")} == set()
    hand.command("put into a group")
    expect(page.locator("[data-form=put-into] select")).to_be_focused()
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(page.locator(".part.sel")).to_contain_text("Lies in Group")
    hand.command("take out of")
    expect(page.locator(".part.sel .makings").first).not_to_contain_text("Lies in")
    hand.select(holder)
    hand.command("begin with light")
    expect(page.locator("#starts")).to_have_attribute("open", "")


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


def test_the_pen_and_the_ends_of_lines_come_to_lie_on_what_is_near_and_say_so(hand):
    page = hand.page
    hand.draw("b", (20, 20), (80, 50))
    page.keyboard.press("p")
    page.mouse.click(*at(page, 10, 10))
    page.mouse.move(*at(page, 79.2, 12))
    expect(page.locator("#marks .snap-words").first).to_contain_text("right of Box")
    page.mouse.click(*at(page, 79.2, 12))
    page.keyboard.press("Enter")
    page.mouse.click(*middle_of(page, ".knot[data-knot='0/1']"))
    expect(page.locator(".place.point [name=x]")).to_have_value("80")
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    page.keyboard.press("l")
    drag(page, at(page, 30, 70), at(page, 60, 70), release=False)
    expect(page.locator("#marks .between-words")).to_have_text("30 at 90°")
    page.mouse.up()
    drag(page, middle_of(page, ".knot[data-end='1']"), at(page, 49.3, 60), release=False)
    expect(page.locator("#marks .snap-words").first).to_contain_text("middle of Box")
    page.mouse.up()
    expect(steps_done(page).first).to_contain_text("Moved an end")


def test_a_ring_is_pulled_by_its_inner_radius_and_opened_by_its_end(hand):
    page = hand.page
    page.keyboard.press("g")
    page.keyboard.press("g")
    ring = page.locator(".part.sel p").first
    expect(ring).to_contain_text("around 15")
    x, y = middle_of(page, ".pull[data-pull=inner]")
    cx, cy = at(page, 60, 48)
    drag(page, (x, y), (x + (cx - x) * 0.4, y + (cy - y) * 0.4), release=False)
    expect(page.locator("#marks .between-words")).to_contain_text(" px")
    page.mouse.up()
    expect(ring).to_contain_text("around 9")
    end = middle_of(page, ".pull[data-pull=end]")
    drag(page, end, (cx + 100, cy))
    expect(ring).to_contain_text("90° from 0°")
    expect(page.locator(".pull[data-pull=start]")).to_be_visible()


def test_distances_to_all_four_sides_of_what_lies_around(hand):
    page = hand.page
    hand.draw("b", (20, 10), (120, 50))
    hand.draw("b", (40, 20), (70, 40))
    page.mouse.move(*at(page, 110, 30))
    expect(page.locator("#marks .between-words")).to_have_count(4)
    assert sorted(page.locator("#marks .between-words").all_text_contents()) == ["10", "10", "20", "50"]


def test_keys_go_from_part_to_part_and_from_handle_to_handle(hand):
    page = hand.page
    hand.draw("b", (20, 10), (60, 50))
    hand.draw("r", (80, 10), (110, 40))
    page.keyboard.press("PageDown")
    expect(page.locator(".part.sel .entitle")).to_have_value("Box")
    page.keyboard.press("Shift+PageUp")
    expect(page.locator(".part.sel")).to_have_count(2)
    page.keyboard.press("PageUp")
    expect(page.locator(".part.sel")).to_have_count(1)
    expect(page.locator(".part.sel .entitle")).to_have_value("Box")
    page.keyboard.press(".")
    expect(page.locator("#walked")).to_have_text("upper left corner, 40 × 40")
    for _ in range(3):
        page.keyboard.press(".")
    expect(page.locator("#walked")).to_have_text("right edge, 40 × 40")
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Shift+ArrowRight")
    expect(page.locator("#walked")).to_have_text("right edge, 51 × 40")
    expect(page.locator(".part.sel p").first).to_contain_text("51px × 40px")
    page.keyboard.press("Escape")
    expect(page.locator("#walked")).to_have_text("")
    expect(page.locator(".part.sel")).to_have_count(1)


def test_what_is_drawn_next_is_plain_and_the_last_look_is_offered(hand):
    page = hand.page
    first = hand.put("b", (10, 10), (40, 30))
    assert page.locator(".part.sel .eff").count() == 1
    page.locator("#sheet [data-add-effect=gloss]").click()
    expect(page.locator(".part.sel .eff")).to_have_count(2)
    second = hand.draw("b", (60, 10), (90, 30))
    assert second != first
    expect(page.locator(".part.sel .eff")).to_have_count(1)
    page.locator("#said button", has_text="Like Box").click()
    expect(page.locator(".part.sel .eff")).to_have_count(2)
    hand.command("remove all effects")
    expect(page.locator(".part.sel .eff")).to_have_count(1)


def with_gradient(hand):
    """A box with a gradient that is open; its id."""
    box = hand.put("b", (10, 10), (110, 80))
    hand.page.locator(f"#v-parts-{box}-effects-e1-fill-kind").select_option("linear")
    hand.page.locator(".eff .head").first.click()
    expect(hand.page.locator(".rail")).to_be_visible()
    return box


def test_ten_stops_with_opacities_are_there_in_twenty_actions(hand):
    page, box = hand.page, with_gradient(hand)
    written = page.locator(".written [name=text]")
    stops = [f"#{n}{n}{n}{n}{n}{n}{'' if n % 2 else '80'} {n * 11}%" for n in range(10)]
    written.fill(", ".join(stops))
    written.press("Enter")
    expect(page.locator(".stops li")).to_have_count(10)
    expect(number(page, f"parts/{box}/effects/e1/fill/stops/2/opacity")).to_have_text("50.2")
    written.fill("#fff, blurb")
    written.press("Enter")
    expect(page.locator("#fault")).to_contain_text("“blurb” is not a colour")
    expect(page.locator(".stops li")).to_have_count(10)


def test_the_colour_field_stays_open_from_stop_to_stop(hand):
    page, box = hand.page, with_gradient(hand)
    colour = f"#v-parts-{box}-effects-e1-fill-stops-%d-colour"
    page.locator(colour % 0).click()
    expect(page.locator("#hex")).to_be_focused()
    page.keyboard.type("#ff000080")
    page.keyboard.press("Tab")
    expect(page.locator(colour % 0)).to_have_attribute("data-colour", "#ff0000")
    expect(page.locator("#chooser")).to_be_visible()
    expect(page.locator(".stops li.cur")).to_have_attribute("data-index", "1")
    expect(page.locator("#hex")).to_be_focused()
    page.keyboard.type("#00ff00")
    expect(page.locator(".stops li")).to_have_count(3)
    page.locator("[data-ramp=add]").click()
    expect(page.locator(".stops li")).to_have_count(4)
    expect(page.locator("#hex")).to_be_focused()
    expect(page.locator(".stops li.cur")).to_have_attribute("data-index", "1")
    page.keyboard.press("Escape")
    expect(page.locator(colour % 2)).to_have_attribute("data-colour", "#00ff00")


def test_kept_gradients_stand_at_the_fill_and_are_laid_by_a_press(hand):
    page, _ = hand.page, with_gradient(hand)
    page.locator("#fills-kept summary").click()
    shipped = page.locator("#fills button").nth(12)
    name = shipped.get_attribute("title")
    shipped.click()
    expect(page.locator("#history")).to_contain_text("Fill of paint")
    written = page.locator(".written [name=text]").input_value()
    page.locator("#fills button").nth(20).click()
    until(page, lambda: page.locator(".written [name=text]").input_value() != written)
    expect(page.locator(f"#fills button[title='{name}']").first).to_be_visible()


def test_a_part_s_own_paint_is_taken_whatever_lies_over_it(hand):
    page = hand.page
    below = hand.put("b", (10, 10), (60, 60))
    page.locator(f"#v-parts-{below}-effects-e1-fill-colour").click()
    expect(page.locator("#hex")).to_be_focused()
    page.keyboard.type("#336699")
    page.keyboard.press("Enter")
    expect(page.locator("#chooser")).to_be_hidden()
    other = hand.put("r", (70, 20), (100, 50))
    page.locator(f"#v-parts-{other}-effects-e1-fill-colour").click()
    page.locator("#from-part").click()
    page.mouse.click(*at(page, 30, 30))
    expect(page.locator("#hex")).to_have_value("#336699")


def test_a_look_is_kept_aside_named_by_typing_and_compared_at_true_size(hand):
    page = hand.page
    box = hand.put("b", (10, 10), (110, 80))
    hand.command("keep this look")
    expect(page.locator("#said")).to_contain_text("kept aside, in Looks")
    page.locator("#said").get_by_text("See it").click()
    expect(page.locator("[data-version-name]")).to_have_count(1)
    page.locator("#looks [data-edit*=keep-version]").click()
    expect(page.locator("[data-version-name]")).to_have_count(2)
    expect(page.locator("[data-version-name]").nth(1)).to_be_focused()
    page.keyboard.type("Second")
    page.keyboard.press("Enter")
    expect(page.locator("#history")).to_contain_text("Second")
    before = stage_colour(page, 60, 40)
    first = page.locator("#looks [data-lay]").nth(0)
    first.focus()
    assert stage_colour(page, 60, 40) == before
    page.keyboard.press("ArrowRight")
    until(page, lambda: stage_colour(page, 60, 40) != before)
    page.keyboard.press("Enter")
    expect(page.locator(f".part[data-part={box}] .eff")).not_to_have_count(1)
    page.locator("#compare-open").click()
    page.locator("#compare .zz", has_text="2:1").click()
    expect(page.locator("#compare .zz[aria-pressed=true]")).to_have_text("2:1")
    page.locator("#compare button", has_text="differences").click()
    expect(page.locator("#compare img").nth(2)).to_have_attribute("width", "240")
    expect(page.locator("#compare img").nth(2)).to_have_attribute("src", re.compile("hot=1"))
    until(page, lambda: page.evaluate("[...document.querySelectorAll('#compare img')].every((i) => i.naturalWidth)"))
    page.locator("#compare button", has_text="Take up Second").click()
    expect(page.locator(f".part[data-part={box}] .eff")).to_have_count(1)


def test_what_belongs_together_is_one_step_shown_on_this_very_part(hand):
    page = hand.page
    hand.put("b", (10, 10), (110, 80))
    done = steps_done(page).count()
    page.locator("#starts summary").click()
    before = stage_colour(page, 60, 12)
    page.locator(".starts button").nth(2).hover()
    until(page, lambda: stage_colour(page, 60, 12) != before)
    page.locator(".starts button").nth(2).click()
    expect(steps_done(page)).to_have_count(done + 1)
    expect(page.locator(".part.sel .eff")).to_have_count(6)
    page.keyboard.press("Control+z")
    expect(page.locator(".part.sel .eff")).to_have_count(1)


def test_what_keeps_to_what_is_seen_while_it_is_asked_for(hand):
    page = hand.page
    hand.put("b", (20, 20), (60, 50))
    page.keyboard.press("k")
    expect(page.locator(".part")).to_have_count(2)
    expect(page.locator("#marks .tie")).to_have_count(0)
    page.locator("#stage").focus()
    page.keyboard.down("y")
    expect(page.locator("#marks .tie")).to_have_count(1)
    page.keyboard.up("y")
    expect(page.locator("#marks .tie")).to_have_count(0)


def test_the_art_is_shown_whole_after_its_canvas_changed_and_moves_out_from_under_looks(hand):
    page = hand.page
    hand.put("b", (20, 20), (80, 60))

    def paper():
        return page.locator("#paper").bounding_box()

    before, zoom = paper(), page.locator("#zoom-now").inner_text()
    page.get_by_role("button", name="Lay a material, try effects").click()
    until(page, lambda: paper()["y"] < before["y"] - 20)
    page.locator("#looks").get_by_role("button", name="Close").click()
    until(page, lambda: paper() == before)
    hand.type("canvas/height", "900")
    until(page, lambda: paper()["height"] > 2 * paper()["width"])
    box = page.locator("#stage").bounding_box()
    assert box["y"] <= paper()["y"]
    assert paper()["y"] + paper()["height"] <= box["y"] + box["height"]
    page.locator("#undo").click()
    expect(page.locator("#zoom-now")).to_have_text(zoom)
    until(page, lambda: paper() == before)


def test_a_key_for_what_is_selected_says_that_nothing_is(hand):
    page = hand.page
    for key in ("d", "Delete", "ArrowLeft", "k", "m"):
        page.locator("#stage").focus()
        page.keyboard.press(key)
        expect(page.locator("#fault")).to_have_text("Select a part first.")
        hand.put("b", (20, 20), (60, 50))
        expect(page.locator("#fault")).not_to_contain_text("Select")
        page.keyboard.press("Control+z")
        expect(page.locator(".part")).to_have_count(0)
