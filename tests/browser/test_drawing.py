"""Journeys: drawing shapes, paths, groups and combinations on the stage."""

import pytest
from playwright.sync_api import expect

from tests.browser.hand import (
    Held,
    at,
    drag,
    middle_of,
    new_control,
    open_bench,
    shows,
    stage_colour,
    steps_done,
    type_value,
    until,
    value,
)  # fmt: skip

NEUTRAL = [31, 138, 146, 255]


@pytest.fixture
def blank(page, common_server):
    """An empty control of 96 × 96, seen at 3:1 or so."""
    new_control(page, common_server.url, "96", "96")
    return page


def draw(page, key, start, end, **keys):
    page.locator("#stage").focus()
    page.keyboard.press(key)
    count = page.locator(".part").count()
    drag(page, at(page, *start), at(page, *end), **keys)
    expect(page.locator(".part")).to_have_count(count + 1)


def test_every_kind_is_drawn_by_its_key(blank):
    for key, kind in (("b", "box"), ("r", "round"), ("g", "ring"), ("s", "sides"), ("l", "line"), ("t", "Hanken")):
        draw(blank, key, (20, 20), (60, 50))
        expect(blank.locator(".part").first.locator("p").first).to_contain_text(kind)


def test_the_pen_goes_on_from_a_point_that_was_still_being_saved(blank):
    page = blank
    page.locator("#stage").focus()
    page.keyboard.press("p")
    page.mouse.click(*at(page, 20, 20))
    held = Held(page, "**/edits")
    page.mouse.click(*at(page, 70, 20))
    until(page, held.arrived)
    page.mouse.move(*at(page, 70, 70), steps=3)
    shows(page, 45, 45, [0, 0, 0, 0])
    held.let_go()
    expect(page.locator("#marks")).to_contain_text("50 at 180°")
    shows(page, 70, 45, NEUTRAL)


def test_a_ring_with_a_wedge_cut_out_and_a_point_moved_inside_the_cut(blank):
    draw(blank, "g", (8, 8), (88, 88))
    type_value(blank, "parts/p1/shape/inner", "25")
    page = blank
    page.locator("#stage").focus()
    page.keyboard.press("p")
    for place in ((48, 48), (30, 95), (66, 95)):
        page.mouse.click(*at(page, *place))
        page.wait_for_timeout(150)
    page.mouse.click(*at(page, 48, 48))
    expect(page.locator(".part.sel p").first).to_contain_text("path of 3 points")
    page.locator(".part").nth(1).locator(".no").click(modifiers=["Shift"])
    page.locator("#sheet [data-mode=difference]").click()
    expect(page.locator(".part")).to_have_count(3)
    shows(page, 48, 80, [0, 0, 0, 0])
    shows(page, 48, 15, NEUTRAL)
    page.locator(".part[data-depth='1']").first.locator(".no").click()
    expect(page.locator(".knot[data-knot]")).to_have_count(3)
    drag(page, middle_of(page, ".knot[data-knot='0/1']"), at(page, 90, 95))
    drag(page, middle_of(page, ".knot[data-knot='0/2']"), at(page, 92, 60))
    shows(page, 48, 80, NEUTRAL)
    expect(steps_done(page).first).to_contain_text("Moved a point")


def test_points_are_added_chosen_typed_and_removed(blank):
    page = blank
    page.locator("#stage").focus()
    page.keyboard.press("p")
    for place in ((10, 10), (80, 10), (80, 60)):
        page.mouse.click(*at(page, *place))
        page.wait_for_timeout(150)
    page.keyboard.press("Enter")
    expect(page.locator(".part.sel p").first).to_contain_text("line")
    page.mouse.dblclick(*at(page, 45, 10))
    expect(page.locator(".part.sel p").first).to_contain_text("path of 4 points")
    across, down = (page.locator(f".place.point [name={axis}]") for axis in "xy")
    down.fill("15 * 2")
    down.press("Enter")
    expect(down).to_have_value("30")
    shows(page, 45, 30, NEUTRAL)
    page.locator("#stage").focus()
    page.keyboard.press("Shift+ArrowDown")
    expect(down).to_have_value("40")
    page.mouse.click(*middle_of(page, ".knot[data-knot='0/0']"))
    page.keyboard.down("Shift")
    page.mouse.click(*middle_of(page, ".knot[data-knot='0/1']"))
    page.keyboard.up("Shift")
    expect(page.locator(".place.point")).to_contain_text("2 points at")
    expect(down).to_have_value("")
    down.fill("far")
    down.press("Enter")
    expect(page.locator("#fault")).to_contain_text("is not a number")
    expect(down).to_have_value("")
    across.fill("20")
    across.press("Enter")
    expect(across).to_have_value("20")
    expect(down).to_have_value("")
    page.mouse.click(*middle_of(page, ".knot[data-knot='0/1']"))
    expect(down).to_have_value("40")
    page.keyboard.press("Delete")
    expect(page.locator(".part.sel p").first).to_contain_text("path of 3 points")


def test_a_group_is_entered_by_two_presses_and_left_by_escape(page, server):
    open_bench(page, server.url)
    page.mouse.click(*at(page, 60, 55))
    expect(page.locator(".part.sel")).to_have_count(1)
    page.locator(".part[data-part=p2] .no").click(modifiers=["Shift"])
    expect(page.locator(".part.sel")).to_have_count(2)
    page.locator(".several [data-do=group]").click()
    expect(page.locator(".part.sel")).to_have_count(1)
    expect(page.locator(".part.sel")).to_have_attribute("data-holds", "")
    page.locator("#stage").focus()
    page.keyboard.press("Escape")
    page.mouse.click(*at(page, 26, 40))
    expect(page.locator(".part.sel .entitle")).to_have_value("Group")
    page.mouse.dblclick(*at(page, 26, 40))
    expect(page.locator(".part.sel .entitle")).to_have_value("Body")
    expect(page.locator("#marks .dimmed")).to_have_count(1)
    page.keyboard.press("Escape")
    expect(page.locator("#marks .dimmed")).to_have_count(0)


def test_hairlines_go_around_and_follow_their_source(blank):
    draw(blank, "b", (46, 4), (50, 16))
    blank.locator("#more summary").click()
    blank.locator("#sheet [data-way=around]").click()
    expect(blank.locator(".part")).to_have_count(2)
    shows(blank, 48, 90, NEUTRAL)
    type_value(blank, "parts/p2/shape/count", "3")
    shows(blank, 48, 90, [0, 0, 0, 0])
    assert stage_colour(blank, 48, 8) == NEUTRAL


def test_commands_are_found_by_words_and_say_why_they_cannot(page, server):
    open_bench(page, server.url)
    page.locator("#stage").focus()
    page.keyboard.press("a")
    field = page.locator("#command-words")
    expect(field).to_be_focused()
    field.fill("flip across")
    expect(page.locator("#command-list .cannot:visible span")).to_have_text("Select a part first.")
    field.fill("draw: ring")
    page.keyboard.press("Enter")
    expect(page.locator("#sheet [data-draw=ring]")).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("Escape")
    page.locator("#sheet-find").fill("gloss")
    expect(page.locator(".part:visible")).to_have_count(1)
    page.locator("#sheet-find").fill("#a7f2ed")
    expect(page.locator(".part:visible .entitle")).to_have_value("Foot light")


def test_an_icon_is_imported_and_two_of_its_points_are_changed(blank):
    page = blank
    page.locator("#stage").focus()
    page.keyboard.press("i")
    page.locator("#icon-words").fill("bell")
    page.locator("#icon-list [aria-label='bell']").click()
    expect(page.locator(".part.sel p").first).to_contain_text("icon")
    shows(page, 48, 48 + 8.4, [77, 91, 99, 255])
    page.locator("#more summary").click()
    page.locator("#sheet [data-do=to-path]").click()
    expect(page.locator(".knot[data-knot]").first).to_be_visible()
    for name in ("0/0", "0/2"):
        x, y = middle_of(page, f".knot[data-knot='{name}']")
        drag(page, (x, y), (x + 30, y - 24))
    expect(steps_done(page).nth(0)).to_contain_text("Moved a point")
    expect(steps_done(page).nth(1)).to_contain_text("Moved a point")


def test_a_changed_label_moves_its_body(page, server):
    open_bench(page, server.url, "?part=p2")
    page.locator(".part[data-part=p5] .no").click(modifiers=["Shift"])
    expect(page.locator("[data-form=fit-around]")).to_contain_text("Fit Body around Label")
    page.locator("[data-form=fit-around] button").click()
    expect(steps_done(page).first).to_contain_text("Fitted Body around Label")
    page.locator(".part[data-part=p2] .no").click()
    expect(page.locator(".part.sel")).to_have_count(1)
    fitted = float(value(page, "parts/p2/shape/width").inner_text())
    page.locator(".part[data-part=p5] .no").click()
    expect(page.locator(".part.sel")).to_have_count(1)
    words = value(page, "parts/p5/shape/words")
    words.fill("Raise both sluices")
    words.press("Enter")
    page.locator(".part[data-part=p2] .no").click()
    until(page, lambda: float(value(page, "parts/p2/shape/width").inner_text()) > fitted + 20)
    expect(page.locator(".follow").first).to_contain_text("Keeps to Label: wider by")


def test_an_svg_is_pasted_and_what_is_left_out_is_said(blank):
    page = blank
    text = (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40"><rect width="30" height="20" fill="#c03020"/>'
        '<circle cx="20" cy="20" r="6"/><text>no</text></svg>'
    )
    page.locator("#stage").focus()
    page.evaluate(
        """text => {
            const data = new DataTransfer();
            data.setData('text/plain', text);
            document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
        }""",
        text,
    )
    expect(page.locator(".part")).to_have_count(3)
    expect(page.locator("#said")).to_contain_text("left out: text")
    shows(page, 38, 42, [192, 48, 32, 255])


def test_every_command_that_is_ready_is_done_from_the_list(page, server):
    open_bench(page, server.url, "?part=p2")

    def command(words):
        page.locator("#stage").focus()
        page.keyboard.press("a")
        page.locator("#command-words").fill(words)
        page.keyboard.press("Enter")

    command("add outline")
    expect(page.locator(".eff.open .head")).to_have_text("Outline")
    command("hide or show the effect")
    expect(steps_done(page).first).to_contain_text("Hid outline on Body")
    command("guides along the selection")
    expect(page.locator("#guides summary b")).to_have_text("6")
    command("lock or unlock")
    expect(page.locator("#lock-p2")).to_have_attribute("aria-pressed", "true")
    command("lock or unlock")
    expect(page.locator("#lock-p2")).to_have_attribute("aria-pressed", "false")
    command("copy along")
    expect(page.locator("[data-form=copy-along] input").first).to_be_focused()
    page.keyboard.type("5*4")
    page.keyboard.press("Enter")
    expect(page.locator(".part")).to_have_count(9)
    expect(steps_done(page).first).to_contain_text("Copied Body every 20, 0")
    page.locator(".part.sel > header .no").first.click()
    page.locator(".part:not(.sel) > header .no").first.click(modifiers=["Shift"])
    command("beside its label")
    expect(page.locator("[data-form=put-beside] input").first).to_be_focused()
    page.locator("#stage").focus()
    page.keyboard.press("a")
    page.locator("#command-words").fill("add paint")
    expect(page.locator("#command-list .cannot:visible span")).to_have_text("Select one part first.")


SMALL_PICTURES = """nodes => nodes.map(({ namespaceURI, clientHeight, firstElementChild }) =>
  [namespaceURI.split("/").pop(), clientHeight, firstElementChild.localName].join(" "))"""


def test_every_effect_keeps_its_small_picture_whatever_is_done(blank):
    page = blank
    draw(page, "b", (20, 20), (70, 60))

    def drawn(count):
        pictures = page.locator(".eff svg.lam")
        expect(pictures).to_have_count(count)
        assert pictures.evaluate_all(SMALL_PICTURES) == ["svg 11 defs"] * count

    for count, effect in enumerate(("drop shadow", "inner shadow", "bevel"), start=2):
        page.get_by_role("button", name=effect, exact=True).first.click()
        drawn(count)
    page.locator("#stage").focus()
    page.keyboard.press("Delete")
    drawn(3)
    page.keyboard.press("Control+z")
    drawn(4)
    page.keyboard.press("Control+y")
    drawn(3)
    page.locator(".eff .head", has_text="Paint").click()
    page.locator(".eff select[data-path$='fill/kind']").first.select_option("linear")
    expect(page.locator(".rail svg").first).to_be_attached()
    assert page.locator(".rail svg").evaluate_all(SMALL_PICTURES)[0].startswith("svg 18")
    drawn(3)
