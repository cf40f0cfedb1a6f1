"""Journeys: controls on a simulated screen, really pressed."""

from __future__ import annotations

import io
import re
from itertools import pairwise
from pathlib import Path
from urllib.parse import urlsplit
from urllib.request import urlopen

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import expect

from obrell.core.document.editions import at_density
from obrell.core.document.resolve import resolve
from obrell.core.document.transitions import moments
from obrell.core.render.between import draw_between
from obrell.core.render.compose import Frame, canvas_box
from obrell.core.render.picture import picture
from obrell.samples.wendmere_lock import wendmere_lock
from tests.browser.hand import LOCK, Hand, Held, drag, middle_of, new_control, type_value, until, value
from tests.browser.trying import choose, choose_two, log, middle, open_panel, piece, pixels_of, settled

KIT = wendmere_lock()
CONTROLS = {one.id: at_density(one, 1) for one in KIT.controls}


def as_delivered(control, state="rest", readings=()):
    return picture(resolve(KIT, CONTROLS[control], state, readings=readings), 1)


def laid(pixels):
    """Premultiplied levels: what can be seen of straight ones."""
    pixels = pixels.astype(int)
    return np.concatenate((pixels[..., :3] * pixels[..., 3:] / 255, pixels[..., 3:]), axis=2)


def near(page, ident, wanted, levels=2):
    """Whether a piece looks as a file does: colours within levels, where they can be seen."""
    here = pixels_of(page, ident)
    assert here.shape == wanted.shape
    return np.abs(laid(here) - laid(wanted)).max() <= levels


def test_every_control_looks_as_it_is_delivered(page, common_server):
    open_panel(page, common_server.url)
    for ident, control, state in (
        ("i1", "c1", "rest"),
        ("i4", "c11", "rest"),
        ("i12", "c8", "on"),
        ("i6", "c4", "rest"),
    ):
        assert near(page, ident, as_delivered(control, state)), control


@pytest.mark.parametrize(
    ("panel", "density", "pieces"),
    [
        ("touch-panel", "1.5", (("i1", "c1", "regular"), ("i11", "c10", "regular"), ("i13", "c7", "large"))),
        ("phone-sheet", "3", (("i3", "c8", "regular"), ("i1", "c1", "regular"))),
    ],
)
def test_at_every_density_a_screen_shows_the_files_of_that_density(chromium, server, panel, density, pieces):
    context = chromium.new_context(device_scale_factor=float(density))
    page = context.new_page()
    open_panel(page, server.url, panel)
    type_value(page, "density", density)
    expect(page.locator("#v-density")).to_have_text(density)
    for ident, control, size in pieces:
        shown = at_density(next(one for one in KIT.controls if one.id == control), float(density), size)
        wanted = picture(resolve(KIT, shown), float(density))
        # The number stands there at once, the pictures come with the answer.
        until(page, lambda ident=ident, wanted=wanted: pixels_of(page, ident).shape == wanted.shape)
        settled(page, ident)
        assert near(page, ident, wanted), control
    page.mouse.move(*middle(page, ident))
    page.mouse.down()
    settled(page, ident, "pressed")
    assert near(page, ident, picture(resolve(KIT, shown, "pressed"), float(density)))
    page.mouse.up()
    context.close()


def test_a_screen_of_more_pixels_than_this_one_is_smoothed(page, server):
    open_panel(page, server.url, "phone-sheet")
    settled(page, "i1")
    control = next(one for one in KIT.controls if one.id == "c1")
    fine = picture(resolve(KIT, at_density(control, 3.0, "regular")), 3.0).astype(float)
    seen = pixels_of(page, "i1").astype(float)
    high, wide = seen.shape[:2]
    assert fine.shape[:2] == (3 * high, 3 * wide)
    alpha = fine[..., 3:] / 255
    mean = (np.dstack([fine[..., :3] * alpha, fine[..., 3:]])).reshape(high, 3, wide, 3, 4).mean(axis=(1, 3))
    ours = np.dstack([seen[..., :3] * seen[..., 3:] / 255, seen[..., 3:]])
    assert np.abs(ours - mean).mean() < 3
    assert np.percentile(np.abs(ours - mean), 99) < 40


def test_a_button_is_hovered_over_pressed_dragged_off_and_released(page, common_server):
    open_panel(page, common_server.url)
    page.mouse.move(*middle(page, "i1"))
    settled(page, "i1", "hover")
    assert near(page, "i1", as_delivered("c1", "hover"))
    page.mouse.down()
    settled(page, "i1", "pressed")
    assert near(page, "i1", as_delivered("c1", "pressed"))
    expect(page.locator("#under")).to_contain_text("Raise sluice")
    page.mouse.move(720, 700)
    settled(page, "i1", "rest")
    assert near(page, "i1", as_delivered("c1"))
    page.mouse.up()
    assert log(page) == ["Raise sluice pressed", "Raise sluice dragged off", "Raise sluice released outside"]
    page.mouse.click(*middle(page, "i1"))
    assert log(page)[-1] == "Raise sluice clicked"
    page.mouse.dblclick(*middle(page, "i8"))
    assert log(page)[-1] == "Log entry pressed twice"


def test_a_long_fade_goes_frame_by_frame_without_a_jump(page, server):
    open_panel(page, server.url)
    page.mouse.move(*middle(page, "i13"))
    page.mouse.down()
    expect(page.locator("#under")).to_contain_text("hover to pressed")
    path = "control/c7/timing/duration"
    with page.expect_response("**/controls/c7/edits"):
        page.mouse.up()
        type_value(page, path, "400")
    with page.expect_response("**/controls/c7/edits"):
        page.locator("#under-easing").fill("linear")
        page.keyboard.press("Enter")
    page.mouse.move(720, 700)
    settled(page, "i13", "rest")
    strip = re.compile("frames=24")
    with page.expect_response(lambda one: bool(strip.search(one.url)) and "state=hover" in one.url):
        page.mouse.move(*middle(page, "i13"))
    page.mouse.move(720, 700)
    settled(page, "i13", "rest")
    page.locator("#frame").click()
    page.mouse.move(*middle(page, "i13"))
    looks = [laid(pixels_of(page, "i13"))]
    for _ in range(24):
        page.locator("#frame").focus()
        page.keyboard.press("Enter")
        looks.append(laid(pixels_of(page, "i13")))
    steps = [int(np.abs(after - before).max()) for before, after in pairwise(looks)]
    whole = int(np.abs(looks[-1] - looks[0]).max())
    assert whole > 10
    assert max(steps) < whole / 3, "somewhere it jumps"
    assert sum(step > 0 for step in steps) > 8


def test_frames_of_a_transition_are_those_that_the_core_makes(page, common_server):
    open_panel(page, common_server.url)
    page.locator("#frame").click()
    page.mouse.move(*middle(page, "i3"))
    control = CONTROLS["c12"]
    ways = list(moments(KIT, control, "rest", "hover", 10))
    frames = [draw_between(one, Frame(1, canvas_box(one.first, 1))) for one in ways]
    until(page, lambda: near(page, "i3", frames[0]))
    for frame in frames[1:5]:
        page.locator("#frame").focus()
        page.keyboard.press("Enter")
        until(page, lambda frame=frame: near(page, "i3", frame))


def test_a_knob_is_turned_by_hand_and_by_keys(page, common_server):
    open_panel(page, common_server.url)
    x, y = (value + by for value, by in zip(middle(page, "i6"), (0, -1), strict=True))
    page.mouse.move(x, y - 30)
    page.mouse.down()
    page.mouse.move(x + 21, y - 21, steps=4)
    page.mouse.move(x, y - 30, steps=4)
    page.mouse.up()
    knob = piece(page, "i6")
    # Turned there and back: where it was, 64, but for the steps that it stops at.
    assert abs(int(knob.get_attribute("aria-valuenow")) - 64) <= 1
    page.mouse.move(x, y - 30)
    page.mouse.down()
    at = int(knob.get_attribute("aria-valuenow"))
    turn = np.radians((62 - at) / 100 * 276)
    page.mouse.move(x + 30 * np.sin(turn), y - 30 * np.cos(turn), steps=5)
    page.mouse.up()
    expect(knob).to_have_attribute("aria-valuenow", "62")
    assert log(page)[-1] == "Water level turned to 62"
    knob.focus()
    page.keyboard.press("ArrowUp")
    expect(knob).to_have_attribute("aria-valuenow", "63")
    settled(page, "i6", "hover")
    until(page, lambda: near(page, "i6", as_delivered("c4", "hover", readings=(("level", 63.0),))))
    page.keyboard.press("End")
    expect(knob).to_have_attribute("aria-valuenow", "100")
    page.mouse.move(x, y)
    page.mouse.wheel(0, 100)
    expect(knob).to_have_attribute("aria-valuenow", "99")


def test_the_whole_panel_is_operated_by_keys_alone(page, common_server):
    open_panel(page, common_server.url)
    page.locator("#screen").focus()
    reached = []
    for _ in range(12):
        page.keyboard.press("Tab")
        reached.append(page.evaluate("document.activeElement.dataset.piece || ''"))
        page.keyboard.press("Enter")
    # All but the lamp, which only shows something.
    assert reached == [f"i{number}" for number in (1, 2, 3, 4, 6, 7, 8, 9, 10, 11, 12, 13)]
    said = log(page)
    assert "Open gate clicked" in said
    assert "Boat queue counted to 8" in said
    assert "Towpath lights off" in said
    assert "Emergency hold released too early" in said
    expect(piece(page, "i12")).to_have_attribute("aria-checked", "false")
    page.keyboard.press("Shift+Tab")
    assert page.evaluate("document.activeElement.dataset.piece") == "i12"
    page.keyboard.press("Space")
    expect(piece(page, "i12")).to_have_attribute("aria-checked", "true")
    piece(page, "i4").focus()
    settled(page, "i4", "focus")
    assert near(page, "i4", as_delivered("c11", "focus"))


def test_what_has_to_be_held_is_confirmed_in_its_time(page, common_server):
    open_panel(page, common_server.url)
    page.mouse.move(*middle(page, "i10"))
    page.mouse.down()
    until(page, lambda: "Emergency hold confirmed" in log(page))
    page.mouse.up()
    settled(page, "i10", "latched+hover")
    assert near(page, "i10", as_delivered("c9", "latched+hover"))
    assert log(page) == ["Emergency hold pressed", "Emergency hold confirmed", "Emergency hold released"]


def test_the_lamp_follows_its_source_and_the_knob_another(page, common_server):
    open_panel(page, common_server.url)
    page.locator("#faster").click()
    page.locator("#run").click()
    until(page, lambda: "Pilot lamp on" in log(page))
    expect(piece(page, "i5")).to_have_attribute("aria-label", "Pilot lamp: on")
    number = page.locator("[data-number=upper-pound]")
    assert float(number.inner_text()) > 2.39
    until(page, lambda: "Pilot lamp off" in log(page))
    page.locator("#run").click()
    expect(page.locator("#run")).to_have_text("Go on")
    at = piece(page, "i6").get_attribute("aria-valuenow")
    assert abs(float(page.locator("[data-number=chamber]").inner_text()) - float(at)) <= 1


def test_fingers_press_two_at_a_time_and_hover_over_nothing(chromium, common_server):
    context = chromium.new_context(viewport={"width": 1280, "height": 800}, has_touch=True)
    page = context.new_page()
    open_panel(page, common_server.url)
    touches = context.new_cdp_session(page)
    fingers = [dict(zip("xy", middle(page, ident), strict=True)) | {"id": at} for at, ident in enumerate(("i1", "i2"))]
    touches.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": fingers[:1]})
    touches.send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": fingers})
    settled(page, "i1", "pressed")
    settled(page, "i2", "pressed")
    assert near(page, "i1", as_delivered("c1", "pressed"))
    assert near(page, "i2", as_delivered("c13", "pressed"))
    touches.send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
    settled(page, "i1", "rest")
    assert near(page, "i1", as_delivered("c1"))
    assert sorted(log(page)) == [f"{name} {said}" for name in ("Lower sluice", "Raise sluice")
                                 for said in ("clicked", "pressed")]  # fmt: skip
    context.close()


def test_two_buttons_in_a_row_on_a_page_and_a_plain_one_becomes_ours(page, server):
    open_panel(page, server.url, "form-page")
    page.locator("#arrange").click()
    tiles = page.locator("#tray [data-put]")
    screen = page.locator("#screen").bounding_box()
    for number, (x, y) in enumerate(((470, 380), (470, 415))):
        tile = tiles.nth(number).bounding_box()
        with page.expect_response("**/edits"):
            drag(page, (tile["x"] + 20, tile["y"] + 20), (screen["x"] + x, screen["y"] + y))
        expect(page.locator(".piece")).to_have_count(number + 1)
    plain = (screen["x"] + 115, screen["y"] + 376)
    with page.expect_response("**/now?*"):
        page.mouse.click(*plain)
    expect(page.locator("#chosen")).to_contain_text("Send it")
    with page.expect_response("**/edits"):
        page.locator("[data-swap]").select_option("c3")
    expect(page.locator(".piece")).to_have_count(3)
    swapped = page.locator(".piece[aria-label='Send it']")
    expect(swapped).to_have_count(1)
    page.locator("#operate").click()
    page.mouse.click(*middle(page, swapped.get_attribute("data-piece")))
    until(page, lambda: log(page) == ["Send it pressed", "Send it clicked"])
    page.locator("#undo").click()
    expect(page.locator(".piece")).to_have_count(2)


def test_what_is_arranged_is_saved_taken_back_and_done_again(page, server):
    open_panel(page, server.url)
    choose(page, "i3")
    place = piece(page, "i3").bounding_box()
    page.keyboard.press("Shift+ArrowRight")
    expect(page.locator("#v-placements-i3-x")).to_have_text("46")
    x, y = middle(page, "i3")
    with page.expect_response("**/edits"):
        drag(page, (x, y), (x + 23, y + 31), key="n")
    moved = [page.locator(f"#v-placements-i3-{axis}").inner_text() for axis in "xy"]
    assert moved != ["46", "180"]
    page.reload()
    assert piece(page, "i3").bounding_box() != place
    page.locator("#undo").click()
    page.locator("#undo").click()
    until(page, lambda: piece(page, "i3").evaluate("one => one.style.left") == "36px")
    page.locator("#redo").click()
    until(page, lambda: piece(page, "i3").evaluate("one => one.style.left") == "46px")
    choose(page, "i8")
    page.keyboard.press("Delete")
    expect(piece(page, "i8")).to_have_count(0)
    page.get_by_role("button", name="Take it back").click()
    expect(piece(page, "i8")).to_have_count(1)


def test_a_piece_has_words_a_number_and_colours_of_its_own(page, server):
    open_panel(page, server.url)
    choose(page, "i8")
    field = page.locator("#words-p2")
    with page.expect_response("**/edits"):
        field.fill("Wake the keeper")
        field.press("Enter")
    expect(piece(page, "i8")).to_have_attribute("aria-label", "Wake the keeper")
    until(page, lambda: not near(page, "i8", as_delivered("c3"), 40))
    with page.expect_response("**/edits"):
        page.get_by_label("Colourway").select_option("frost")
    choose(page, "i6")
    with page.expect_response("**/edits"):
        page.locator("#number-level").fill("20+5")
        page.keyboard.press("Enter")
    expect(piece(page, "i6")).to_have_attribute("aria-valuenow", "25")
    with page.expect_response("**/edits"):
        page.locator("#number-level").fill("400")
        page.keyboard.press("Enter")
    expect(page.locator("#fault")).to_contain_text("0 to 100; 400")
    expect(piece(page, "i6")).to_have_attribute("aria-valuenow", "25")


def test_a_value_of_a_state_is_changed_under_the_pointer(page, server):
    open_panel(page, server.url)
    page.mouse.move(*middle(page, "i1"))
    page.mouse.down()
    settled(page, "i1", "pressed")
    before = pixels_of(page, "i1")
    expect(page.locator("#under .differs")).to_contain_text("Blur of drop shadow on Label")
    page.mouse.up()
    page.mouse.move(200, 700)
    page.locator("#under [data-state=pressed]").click()
    path = "control/c1@pressed/parts/p5/effects/e1/blur"
    value = page.locator(f"#under [data-path='{path}']")
    expect(value).to_have_text("1")
    with page.expect_response("**/controls/c1/edits"):
        value.click()
        page.keyboard.type("8+1")
        page.keyboard.press("Enter")
    expect(value).to_have_text("9")
    page.mouse.move(*middle(page, "i1"))
    page.mouse.down()
    settled(page, "i1", "pressed")
    assert np.abs(laid(pixels_of(page, "i1")) - laid(before)).max() > 20
    page.mouse.up()


def test_a_switch_under_the_pointer_is_turned(page, server):
    open_panel(page, server.url)
    page.mouse.move(*middle(page, "i1"))
    page.mouse.down()
    settled(page, "i1", "pressed")
    page.mouse.up()
    page.mouse.move(200, 700)
    page.locator("#under [data-state=pressed]").click()
    switch = page.locator("#under [data-switch]").first
    expect(switch).to_have_text("no")
    path = switch.get_attribute("data-path")
    with page.expect_response("**/controls/c1/edits"):
        switch.click()
    expect(page.locator(f"#under [data-switch][data-path='{path}']")).to_have_count(0)


def test_what_is_done_to_a_control_on_the_bench_is_seen_on_its_panels(page, server):
    open_panel(page, server.url)
    before = piece(page, "i8").locator("canvas").get_attribute("data-still")
    assert before == "rest"
    edit = {"kind": "set", "changes": [{"path": "parts/p2/shape/words", "value": "Write it down"}]}
    page.request.post(f"{server.url}{LOCK}/controls/c3/edits", headers={"origin": server.url}, data={"edit": edit})
    expect(piece(page, "i8")).to_have_attribute("aria-label", "Write it down")


def test_copies_of_several_are_chosen_as_the_sheet_says(page, server):
    open_panel(page, server.url)
    choose_two(page, "i3", "i8")
    with page.expect_response("**/edits"):
        page.keyboard.press("d")
    expect(page.locator("#chosen h2")).to_have_text("2 controls")
    expect(page.locator("#marks .frame")).to_have_count(2)
    page.keyboard.press("Delete")
    expect(page.locator(".piece")).to_have_count(13)


def test_a_control_is_found_by_its_name_and_put_by_keys_alone(page, server):
    open_panel(page, server.url, "empty-screen")
    page.locator("#arrange").focus()
    page.keyboard.press("Enter")
    page.locator("#find-tile").focus()
    page.keyboard.type("HOLD")
    expect(page.locator("#tray [data-put]:visible")).to_have_count(1)
    page.keyboard.press("Enter")
    expect(page.locator("#chosen h2")).to_have_text("Emergency hold")
    # A canvas of 110 × 114 in the middle of 600 × 600.
    expect(page.locator("#v-placements-i1-x")).to_have_text("245")
    expect(page.locator("#v-placements-i1-y")).to_have_text("243")


def test_of_a_raised_and_a_sunken_look_the_sunken_one_is_what_hovering_shows(page, server):
    new_control(page, server.url, "140", "80")
    hand = Hand(page)
    hand.put("b", (20, 20), (120, 60))
    page.locator("#more-states summary").click()
    page.locator("[data-start=pressed]").first.click()
    expect(page.locator("#state-sign")).to_have_text("Pressed")
    page.locator("#state-name").fill("Sunken")
    page.locator("#state-name").press("Enter")
    with page.expect_response("**/edits"):
        page.locator("#state-role").select_option("hover")
    expect(page.locator("#state-pressed b")).to_have_text("Sunken")
    expect(page.locator("#state-pressed .role")).to_have_text("hover")
    open_panel(page, server.url, "empty-screen")
    page.locator("#arrange").focus()
    page.keyboard.press("Enter")
    page.locator("#find-tile").focus()
    page.keyboard.type("Sketch")
    page.keyboard.press("Enter")
    expect(page.locator("#chosen h2")).to_have_text("Sketch")
    page.locator("#operate").click()
    settled(page, "i1", "rest")
    page.mouse.move(*middle(page, "i1"))
    settled(page, "i1", "pressed")
    expect(page.locator("#under")).to_contain_text("Sunken")
    page.mouse.down()
    page.mouse.up()
    settled(page, "i1", "pressed")
    page.mouse.move(5, 400)
    settled(page, "i1", "rest")


def test_what_stands_there_is_chosen_by_keys_and_what_the_screen_says_is_typed_anew(page, server):
    open_panel(page, server.url, "form-page")
    page.locator("#arrange").focus()
    page.keyboard.press("Enter")
    page.locator("#find-tile").focus()
    page.keyboard.type("HOLD")
    page.keyboard.press("Enter")
    chosen = page.locator("#chosen")
    expect(chosen.locator("h2")).to_have_text("Emergency hold")
    put = page.locator(".piece").get_attribute("data-piece")
    expect(page.locator("#labels")).to_contain_text("Emergency hold")
    plain = page.get_by_role("button", name="Plain button “Send it”")
    plain.focus()
    page.keyboard.press("Enter")
    expect(chosen).to_contain_text("Send it")
    expect(plain).to_have_attribute("aria-pressed", "true")
    ground = page.locator("#ground")
    before = ground.get_attribute("src")
    title = page.locator("#fixture-f1")
    expect(title).to_have_attribute("aria-label", "Title “Send us a message”")
    title.focus()
    page.keyboard.press("Enter")
    page.locator("#v-fixtures-f1-words").fill("Come through")
    page.locator("#v-fixtures-f1-words").press("Enter")
    expect(page.get_by_role("button", name="Title “Come through”")).to_have_attribute("aria-pressed", "true")
    expect(ground).not_to_have_attribute("src", before)
    page.locator("#screen").focus()
    page.keyboard.press("Shift+ArrowRight")
    expect(value(page, "fixtures/f1/x")).to_have_text("50")
    x, y = middle_of(page, "#fixture-f1")
    drag(page, (x, y), (x + 30, y + 60))
    expect(value(page, "fixtures/f1/x")).not_to_have_text("50")
    page.keyboard.press("Delete")
    expect(page.locator("#fixture-f1")).to_have_count(0)
    page.locator("#undo").click()
    expect(page.locator("#fixture-f1")).to_have_count(1)
    piece(page, put).focus()
    page.keyboard.press("Space")
    expect(chosen.locator("h2")).to_have_text("Emergency hold")
    expect(page.locator("[data-fixture][aria-pressed=true]")).to_have_count(0)
    page.keyboard.press("Shift+ArrowDown")
    expect(value(page, f"placements/{put}/y")).to_have_text("173")
    expect(piece(page, put)).to_be_focused()
    page.locator("#operate").click()
    expect(plain).to_be_hidden()


def test_a_knob_stays_turned_while_it_is_arranged_and_begins_anew_at_another_number(page, server):
    open_panel(page, server.url)
    knob = piece(page, "i6")
    knob.focus()
    page.keyboard.press("End")
    expect(knob).to_have_attribute("aria-valuenow", "100")
    lamp = piece(page, "i4")
    expect(lamp).not_to_have_attribute("tabindex", re.compile(""))
    choose(page, "i6")
    expect(lamp).to_have_attribute("tabindex", "0")
    left = knob.bounding_box()["x"]
    with page.expect_response("**/edits"):
        page.keyboard.press("ArrowRight")
    until(page, lambda: (box := knob.bounding_box()) is not None and box["x"] > left)
    expect(knob).to_have_attribute("aria-valuenow", "100")
    until(page, lambda: near(page, "i6", as_delivered("c4", readings=(("level", 100.0),))))


def test_an_answer_from_before_does_not_take_back_what_was_done_since(page, server):
    open_panel(page, server.url)
    choose(page, "i3")
    held = Held(page, "**/now?*")
    page.keyboard.press("Escape")
    until(page, held.arrived)
    left = piece(page, "i3").bounding_box()["x"]
    choose(page, "i3")
    before = value(page, "placements/i3/x").inner_text()
    page.keyboard.press("ArrowRight")
    expect(value(page, "placements/i3/x")).not_to_have_text(before)
    with page.expect_request("**/now?*"):
        held.let_go()
    expect(value(page, "placements/i3/x")).not_to_have_text(before)
    assert piece(page, "i3").bounding_box()["x"] > left


def test_several_are_lined_up(page, server):
    open_panel(page, server.url)
    choose_two(page, "i3", "i8")
    with page.expect_response("**/edits"):
        page.locator("#chosen p", has_text="With one another").get_by_role("button", name="left").click()
    expect(page.locator("#said")).to_contain_text("Aligned 2 controls: left")


def test_a_control_that_is_removed_leaves_its_place_which_is_filled_again(page, server):
    answer = page.request.post(f"{server.url}{LOCK}/controls/c3/remove", headers={"origin": server.url})
    assert answer.ok
    page.goto(f"{server.url}{LOCK}/trial/touch-panel")
    expect(page.locator("#gone")).to_contain_text("1 place")
    expect(piece(page, "i8")).to_have_class(re.compile("gone"))
    page.locator("#arrange").click()
    with page.expect_response("**/now?*"):
        page.mouse.click(*middle(page, "i8"))
    with page.expect_response("**/edits"):
        page.locator("[data-refill]").select_option("c7")
    expect(piece(page, "i8")).to_have_attribute("aria-label", "Close panel")
    expect(page.locator("#gone")).to_have_count(0)


@pytest.mark.parametrize(
    ("look", "darker"), [("sun", False), ("night", True)],
)  # fmt: skip
def test_under_conditions_it_is_operated_all_the_same(page, common_server, look, darker):
    open_panel(page, common_server.url)
    plain = screen_colour(page, 300, 560)
    page.locator(f"[data-look={look}]").click()
    until(page, lambda: page.locator("#lens").is_visible())
    seen = screen_colour(page, 300, 560)
    assert (sum(seen) < sum(plain)) == darker
    before = lens_pixels(page)
    page.mouse.move(*middle(page, "i1"))
    page.mouse.down()
    until(page, lambda: bool((lens_pixels(page) != before).any()))
    page.mouse.up()
    assert log(page)[-1] == "Raise sluice clicked"
    page.locator("#arrange").click()
    expect(page.locator("#lens")).to_be_hidden()
    page.locator("#operate").click()
    expect(page.locator("#lens")).to_be_visible()
    page.locator("[data-look=plain]").click()
    expect(page.locator("#lens")).to_be_hidden()


def lens_pixels(page):
    data = page.evaluate(
        """() => {
            const canvas = document.getElementById('lens');
            return [...canvas.getContext('2d').getImageData(53, 74, 212, 80).data];
        }"""
    )
    return np.array(data).reshape(80, 212, 4)


def screen_colour(page, x, y):
    """What the window shows at a place of the screen."""
    shot = Image.open(io.BytesIO(page.locator("#screen").screenshot())).convert("RGB")
    return shot.getpixel((x, y))


def test_reach_is_said_in_px_and_mm_and_drawn(page, common_server):
    open_panel(page, common_server.url)
    expect(page.locator("#sheet-foot")).to_contain_text("Smallest touch area 130 × 32px or 39 × 9.6mm")
    expect(page.locator(".gap-line")).to_be_hidden()
    page.locator("#show-reach").click()
    expect(page.locator(".gap-line")).to_be_visible()
    expect(page.locator(".touch")).to_have_count(12)


def test_a_screen_is_made_of_a_swatch_or_a_typed_colour(page, server):
    open_panel(page, server.url, "empty-screen")
    with page.expect_response("**/ground/*.png"):
        page.locator("#panel-ground").select_option(label="moss")
    expect(page.locator("#ground-colour")).to_have_value("#5e8a3a")
    until(page, lambda: screen_colour(page, 300, 300) == (0x5E, 0x8A, 0x3A))
    with page.expect_response("**/ground/*.png"):
        page.locator("#ground-colour").fill("#204060")
        page.keyboard.press("Enter")
    until(page, lambda: screen_colour(page, 300, 300) == (0x20, 0x40, 0x60))
    with page.expect_response("**/edits"):
        page.locator("#ground-colour").fill("mossy")
        page.keyboard.press("Enter")
    expect(page.locator("#fault")).to_contain_text("must be a colour such as #1f8a92")
    assert screen_colour(page, 300, 300) == (0x20, 0x40, 0x60)


def test_a_recording_is_brought_in_or_refused_with_its_row(page, server):
    open_panel(page, server.url)
    field = page.locator("[data-recording=upper-pound]")
    good = b"time;level\n0;2.1\n1;\n2;2.9\n"
    with page.expect_response("**/recording"):
        field.set_input_files({"name": "pound.csv", "mimeType": "text/csv", "buffer": good})
    expect(page.locator("#said")).to_contain_text("1 row with a gap left out")
    expect(page.locator("#source-upper-pound")).to_contain_text("2 rows")
    bad = b"0,2\n1,high\n"
    with page.expect_response("**/recording"):
        field.set_input_files({"name": "pound.csv", "mimeType": "text/csv", "buffer": bad})
    expect(page.locator("#fault")).to_have_text("Row 2: “high” is not a number.")
    expect(page.locator("#source-upper-pound")).to_contain_text("2 rows")


@pytest.fixture(scope="module")
def shared(common_server, tmp_path_factory):
    """The touch panel as a page on the disk."""
    with urlopen(f"{common_server.url}{LOCK}/trial/touch-panel/page.html") as answer:
        content = answer.read()
    assert len(content) < 4_000_000
    place = tmp_path_factory.mktemp("shared") / "panel.html"
    place.write_bytes(content)
    return place.as_uri()


def test_the_panel_is_taken_as_the_page_that_was_drawn(page, common_server, shared):
    open_panel(page, common_server.url)
    with page.expect_download() as taken:
        page.locator("#share").click()
    expect(page.locator("#share")).to_have_text("Share as a page")
    assert taken.value.path().read_bytes() == Path(urlsplit(shared).path).read_bytes()
    page.route("**/page.html", lambda route: route.fulfill(status=422, body='{"words": "It is too large."}'))
    page.locator("#share").click()
    expect(page.locator("#trouble")).to_have_text("It is too large.")
    expect(page.locator("#share")).to_have_text("Share as a page")


def alone(chromium, shared, **how):
    """A window without a network on that page, and what it asked for beside."""
    context = chromium.new_context(viewport={"width": 1100, "height": 800}, offline=True, **how)
    page = context.new_page()
    asked = []
    page.on("request", lambda request: asked.append(request.url))
    page.goto(shared)
    return page, [one for one in asked if not one.startswith("data:")]


def test_the_shared_page_is_operated_from_a_disk_without_any_request(chromium, shared):
    page, asked = alone(chromium, shared)
    expect(page.locator("html.scripted")).to_have_count(1)
    # The sources are still until they are started.
    expect(page.locator("#run")).to_have_text("Start")
    assert asked == [shared]
    states = {"i1": "hover", "i8": "hover"}
    for ident, state in states.items():
        page.mouse.move(*middle(page, ident))
        expect(piece(page, ident).locator(f"canvas[data-state={state}]")).to_have_count(1)
    page.mouse.move(*middle(page, "i1"))
    page.mouse.down()
    expect(piece(page, "i1").locator("canvas[data-state=pressed]")).to_have_count(1)
    assert near(page, "i1", as_delivered("c1", "pressed"))
    page.mouse.up()
    piece(page, "i12").focus()
    page.keyboard.press("Space")
    expect(piece(page, "i12")).to_have_attribute("aria-checked", "false")
    expect(piece(page, "i12").locator("canvas[data-state=rest]")).to_have_count(1)
    assert near(page, "i12", as_delivered("c8"))
    piece(page, "i6").focus()
    page.keyboard.press("Home")
    expect(piece(page, "i6")).to_have_attribute("aria-valuenow", "0")
    expect(piece(page, "i6").locator("canvas[data-state=focus]")).to_have_count(1)
    until(page, lambda: near(page, "i6", as_delivered("c4", "focus", readings=(("level", 0.0),))))
    page.mouse.move(*middle(page, "i10"))
    page.mouse.down()
    expect(piece(page, "i10").locator("canvas[data-state='latched+pressed']")).to_have_count(1)
    page.mouse.up()
    page.context.close()


def test_the_shared_page_shows_the_delivered_frames_and_leaves_what_was_turned(chromium, shared):
    page, _ = alone(chromium, shared)
    page.clock.install()
    page.reload()
    expect(page.locator("html.scripted")).to_have_count(1)
    page.clock.pause_at(page.evaluate("Date.now() + 60000"))
    piece(page, "i12").focus()
    page.keyboard.press("Space")
    whole, count = page.evaluate(
        """() => {
          const one = JSON.parse(document.getElementById("panel").textContent).pieces.find(({ id }) => id === "i12");
          return [one.timings["on>rest"] ?? one.timings[""], one.frames["on>rest"].count];
        }"""
    )
    page.clock.run_for(whole[0] / 2)
    frames = [
        draw_between(there, Frame(1, canvas_box(there.first, 1)))
        for there in moments(KIT, CONTROLS["c8"], "on", "rest", count)
    ]
    assert any(near(page, "i12", frame) for frame in frames[count // 2 - 2 : count // 2 + 1])
    page.locator("#run").click()
    piece(page, "i6").focus()
    page.keyboard.press("Home")
    page.clock.run_for(9000)
    expect(piece(page, "i6")).to_have_attribute("aria-valuenow", "0")
    page.context.close()


def test_the_shared_page_is_hovered_over_pressed_and_switched_without_a_script(chromium, shared):
    page, _ = alone(chromium, shared, java_script_enabled=False)

    def shown(ident):
        looks = page.locator(f"#piece-{ident} img:visible")
        return [one.get_attribute("data-look") for one in looks.all()]

    assert shown("i1") == ["rest"]
    page.mouse.move(*middle(page, "i1"))
    assert shown("i1") == ["hover"]
    page.mouse.down()
    assert shown("i1") == ["pressed"]
    page.mouse.up()
    assert shown("i12") == ["on"]
    page.mouse.click(*middle(page, "i12"))
    assert shown("i12") == ["rest"]
    page.mouse.down()
    assert shown("i12") == ["rest"]
    page.mouse.up()
    assert shown("i12") == ["on"]
    page.context.close()
