"""Journeys: a control in several sizes, and with art of its own for one density."""

import io
import json
import zipfile

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from tests.browser.hand import (
    another_window,
    at,
    drag,
    front,
    shows,
    stage_colour,
    type_value,
    until,
    value,
    wait_for_frame,
)
from tests.browser.test_states import add_state


def size_word(page, name):
    return page.get_by_role("group", name="Size that is drawn").get_by_role("button", name=name, exact=True)


def unfold(page):
    if not page.locator("#own-size input").first.is_visible():
        page.locator("#more-editions summary").click()


def begin_size(page, name):
    unfold(page)
    page.locator("#more-editions").get_by_role("button", name=name, exact=True).click()
    expect(page.locator("#state-sign")).to_have_text(name)


def test_a_size_is_drawn_edited_kept_apart_and_delivered_in_a_box_of_its_own(hand):
    page = hand.page
    body = hand.put("b", (20, 20), (100, 60))
    add_state(page, "Pressed")
    hand.select(body)
    type_value(page, f"parts/{body}/y", "42")
    page.locator("#state-rest").click()
    begin_size(page, "Large")
    expect(value(page, "canvas/width")).to_have_text("180")
    expect(value(page, f"parts/{body}/shape/width")).to_have_text("120")
    # The art is enlarged about the canvas's corner, and as far as it reaches now there is colour.
    until(page, lambda: [stage_colour(page, x, 60)[3] > 200 for x in (26, 34, 146, 154)] == [False, True, True, False])
    # What is done in it is done in it only; a state is the same in all sizes.
    type_value(page, f"parts/{body}/shape/radius", "9")
    expect(page.locator(f"#rest-{body}")).to_be_visible()
    page.locator("#state-pressed").click()
    expect(page.locator("#state-sign")).to_have_text("Large · Pressed")
    expect(value(page, f"parts/{body}/y")).to_have_text("62")
    type_value(page, f"parts/{body}/opacity", "50")
    size_word(page, "Regular").click()
    expect(page.locator("#state-sign")).to_have_text("Pressed")
    expect(value(page, f"parts/{body}/opacity")).to_have_text("50")
    expect(value(page, f"parts/{body}/shape/radius")).not_to_have_text("9")
    # A name that is taken is refused, and nothing is added.
    unfold(page)
    page.locator("#own-size [name=name]").fill("large")
    page.locator("#own-size [name=name]").press("Enter")
    expect(page.locator("#fault")).to_contain_text("A size is called “large” already.")
    page.locator("#own-size [name=name]").fill("Long")
    page.locator("#own-size [name=wider]").fill("30,0")
    page.locator("#own-size [name=wider]").press("Enter")
    expect(page.locator("#state-sign")).to_have_text("Long · Pressed")
    expect(value(page, f"parts/{body}/shape/width")).to_have_text("110")
    expect(page.get_by_role("group", name="Size that is drawn").get_by_role("button")).to_have_count(3)
    # Taken back, the window draws the regular one; done again, it is there.
    page.locator("#undo").click()
    expect(page.locator("#state-sign")).to_have_text("Pressed")
    page.locator("#redo").click()
    size_word(page, "Long").click()
    page.locator("#size-name").fill("Wide strip")
    page.locator("#size-name").press("Enter")
    expect(size_word(page, "Wide strip")).to_be_visible()
    page.locator("#editions").get_by_role("button", name="Duplicate").click()
    expect(page.locator("#state-sign")).to_have_text("Wide strip 2 · Pressed")
    expect(value(page, f"parts/{body}/shape/width")).to_have_text("110")
    page.locator("#undo").click()
    expect(page.locator("#state-sign")).to_have_text("Pressed")
    size_word(page, "Wide strip").click()
    expect(page.locator("#state-sign")).to_have_text("Wide strip · Pressed")
    page.reload()
    wait_for_frame(page)
    expect(page.locator("#state-sign")).to_have_text("Wide strip · Pressed")
    files = delivered(page, 30)
    sizes = {name: Image.open(io.BytesIO(files[f"wendmere-lock/sketch.{name}.pressed.2.png"])).size
             for name in ("regular", "large", "wide-strip")}  # fmt: skip
    assert sizes == {"regular": (240, 192), "large": (360, 288), "wide-strip": (300, 192)}
    told = {one["name"]: one["body"] for one in json.loads(files["manifest.json"])["files"]}
    rest, pressed = (told[f"wendmere-lock/sketch.large.{state}.2.png"] for state in ("rest", "pressed"))
    assert pressed["top"] - rest["top"] == 4
    assert (pressed["width"], pressed["left"]) == (rest["width"], rest["left"])


def test_art_for_a_density_is_what_is_delivered_there_and_seen_in_its_true_pixels(hand):
    page = hand.page
    hand.put("b", (20, 20), (100, 60))
    hand.put("r", (40, 30), (60, 50))
    with page.expect_response("**/edits"):
        page.get_by_role("button", name="Lay signal on what is selected").click()
    unfold(page)
    page.locator("#more-editions").get_by_role("button", name="1×", exact=True).click()
    expect(page.locator("#state-sign")).to_have_text("1× art")
    until(page, lambda: stage_colour(page, 50, 40) != stage_colour(page, 80, 40))
    before = stage_colour(page, 50, 40)
    page.locator("#stage").focus()
    page.keyboard.press("Delete")
    expect(page.locator("#drawn-edition")).to_contain_text("1 value differs from all other densities")
    until(page, lambda: stage_colour(page, 50, 40) != before)
    # Its canvas is that of all densities.
    value(page, "canvas/width").click()
    page.keyboard.type("99")
    page.keyboard.press("Enter")
    expect(page.locator("#fault")).to_contain_text("The canvas is the same at every density")
    page.keyboard.press("Escape")
    expect(value(page, "canvas/width")).to_have_text("120")
    page.get_by_role("button", name="all densities", exact=True).click()
    expect(page.locator("#state-sign")).to_be_hidden()
    shows(page, 50, 40, before)
    # The true pixels of 1× are those that are delivered.
    page.locator("#true").click()
    until(page, lambda: stage_colour(page, 50, 40) != before)
    page.locator("#sharp").click()
    shows(page, 50, 40, before)
    files = delivered(page, 5)
    one, two = (np.array(Image.open(io.BytesIO(files[f"wendmere-lock/sketch.{name}.png"]))) for name in "12")
    assert two[80, 100].tolist() != one[40, 50].tolist() == one[40, 80].tolist()


def test_two_windows_in_two_sizes_and_one_that_goes(hand):
    page = hand.page
    body = hand.put("b", (20, 20), (100, 60))
    begin_size(page, "Small")
    other = another_window(page, "editions=small")
    front(page)
    unfold(page)
    page.locator("#own-size [name=name]").fill("Half typed")
    hand.select(body)
    drag(page, at(page, 45, 30), at(page, 45, 36))
    expect(page.locator(f"#rest-{body}")).to_be_visible()
    expect(value(other, "canvas/width")).to_have_text("120")
    front(other).locator(f'.part[data-part="{body}"] .no').click()
    type_value(other, f"parts/{body}/opacity", "40")
    expect(value(page, f"parts/{body}/opacity")).to_have_text("40")
    expect(page.locator("#own-size [name=name]")).to_have_value("Half typed")
    size_word(other, "Small").click()
    expect(value(other, "canvas/width")).to_have_text("90")
    other.locator("#editions").get_by_role("button", name="Remove Small").click()
    expect(page.locator("#state-sign")).to_be_hidden()
    expect(value(page, "canvas/width")).to_have_text("120")
    front(page).locator("#undo").click()
    expect(size_word(page, "Small")).to_be_visible()


def delivered(page, count):
    """The files of a delivery as it is offered, by their names."""
    page.get_by_role("link", name=f"Deliver {count} files").click()
    expect(page.locator("#make")).to_contain_text(f"Make {count} files")
    page.locator("#make").click()
    with page.expect_download() as download:
        page.locator("#download").click()
    zipped = zipfile.ZipFile(download.value.path())
    return {name: zipped.read(name) for name in zipped.namelist()}
