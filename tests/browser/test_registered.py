"""Journeys: states of one body that lie on each other to the pixel, in the files that are delivered."""

import io
import json
import zipfile

import numpy as np
from PIL import Image
from playwright.sync_api import expect

from tests.browser.hand import type_value, until
from tests.browser.test_states import add_state


def begin(page, start, name):
    """A state of that name, with what such a one usually has."""
    if not page.locator(f"#more-states [data-start={start}]").is_visible():
        page.locator("#more-states summary").click()
    page.locator(f"#more-states [data-start={start}]").click()
    expect(page.locator("#state-sign")).to_have_text(name)


def wear(page, *effects):
    """Effects put on the selected part."""
    for kind in effects:
        page.locator(f"#sheet [data-add-effect={kind}]").click()
        expect(page.locator(".eff.open .head")).to_have_text(kind.replace("-", " ").capitalize())


def lay(page, swatch):
    with page.expect_response("**/edits"):
        page.get_by_role("button", name=f"Lay {swatch} on what is selected").click()


def delivered(page):
    """All states at 2x, trimmed: pictures by state, and what the manifest says of each."""
    page.locator("a.pill.go").click()
    page.locator("[name=cut]").select_option("trimmed")
    for density in ("1", "1.5", "3"):
        page.locator(f".chip:has([value='{density}'])").click()
    page.locator("[name=format][value=svg]").uncheck()
    files = page.locator("#files li")
    until(page, lambda: f"Make {files.count()} files" in page.locator("#make").inner_text())
    page.locator("#make").click()
    with page.expect_download() as download:
        page.locator("#download").click()
    zipped = zipfile.ZipFile(download.value.path())
    told = json.loads(zipped.read("manifest.json"))["files"]
    pictures = {one["state"]: np.array(Image.open(io.BytesIO(zipped.read(one["name"])))).astype(int) for one in told}
    return pictures, {one["state"]: one["body"] for one in told}


def solid_box(pixels):
    """Around what is opaque: left, top, right, bottom."""
    rows, columns = (np.flatnonzero((pixels[..., 3] > 250).any(axis=axis)) for axis in (1, 0))
    return columns[0], rows[0], columns[-1], rows[-1]


def brightness(pixels, row):
    """Of the middle of a row."""
    middle = pixels.shape[1] // 2
    return pixels[row, middle - 4 : middle + 4, :3].mean()


def test_a_raised_and_a_pressed_one_with_a_lit_label_lie_on_each_other(hand):
    page = hand.page
    body = hand.put("b", (20, 30), (100, 66))
    lay(page, "tarn")
    wear(page, "bevel", "drop-shadow")
    page.locator("#stage").focus()
    page.keyboard.press("t")
    page.keyboard.press("t")
    expect(page.locator(".v.words")).to_be_focused()
    page.keyboard.type("Go")
    page.keyboard.press("Enter")
    begin(page, "pressed", "Pressed")
    begin(page, "on", "On")
    pictures, bodies = delivered(page)
    assert set(pictures) == {"rest", "pressed", "on"}, body
    assert len({one.shape for one in pictures.values()}) == 1
    rest, pressed, on = (solid_box(pictures[state]) for state in ("rest", "pressed", "on"))
    assert pressed == (rest[0], rest[1] + 2, rest[2], rest[3] + 2)
    assert on == rest
    assert bodies["pressed"] == bodies["rest"] | {"top": bodies["rest"]["top"] + 2}
    # The light comes from above on the raised one, from below on the pressed one.
    for state, box, lit in (("rest", rest, 1), ("pressed", pressed, -1)):
        top, bottom = (brightness(pictures[state], row) for row in (box[1] + 3, box[3] - 3))
        assert (top - bottom) * lit > 10, state
    # The label glows: there is more light beside its letters, in the middle of the body.
    across, down = (rest[0] + rest[2]) // 2, (rest[1] + rest[3]) // 2
    label = np.s_[down - 14 : down + 14, across - 30 : across + 30, :3]
    assert pictures["on"][label].mean() > pictures["rest"][label].mean() + 3


def test_four_kinds_of_relief_are_states_of_one_body_and_follow_its_colour(hand):
    page = hand.page
    body = hand.put("b", (30, 24), (90, 72))
    wear(page, "bevel", "drop-shadow")
    add_state(page, "Flat")
    hand.select(body)
    worn = [row.get_attribute("data-effect") for row in page.locator(f".part[data-part={body}] li.eff").all()]
    for effect in (name for name in worn if name != "e1"):
        page.locator(f"li.eff[data-effect={effect}] .head").click()
        with page.expect_response("**/edits"):
            page.locator(f'[data-toggle="parts/{body}/effects/{effect}/visible"]').click()
    expect(page.locator("#state-flat small")).to_have_text("2 differ")
    begin(page, "sunk", "Pressed")
    add_state(page, "Deep")
    hand.select(body)
    wear(page, "inner-shadow")
    page.locator("#state-rest").click()
    expect(page.locator("#state-sign")).to_be_hidden()
    hand.select(body)
    lay(page, "moss")
    pictures, bodies = delivered(page)
    assert len(pictures) == 4
    assert len({one.shape for one in pictures.values()}) == 1
    assert len({one["width"] for one in bodies.values()}) == 1
    down, across = (side // 2 for side in pictures["rest"].shape[:2])
    greens = [one[down, across] for one in pictures.values()]
    assert all(green > red + 20 for red, green, _, _ in greens)
    assert len({one.tobytes() for one in pictures.values()}) == 4


def test_a_hover_that_changes_the_fill_changes_nothing_else(hand):
    page = hand.page
    body = hand.put("b", (20, 30), (100, 66))
    lay(page, "tarn")
    wear(page, "drop-shadow", "bevel")
    add_state(page, "Hover")
    hand.select(body)
    lay(page, "brass")
    expect(page.locator("#state-hover small")).to_have_text("1 differs")
    page.locator("#state-rest").click()
    expect(page.locator("#state-sign")).to_be_hidden()
    type_value(page, f"parts/{body}/shape/radius", "10")
    pictures, bodies = delivered(page)
    rest, hover = pictures["rest"], pictures["hover"]
    assert bodies["rest"] == bodies["hover"]
    assert (rest[..., 3] == hover[..., 3]).all()
    left, top, width, height = (bodies["rest"][name] for name in ("left", "top", "width", "height"))
    around = np.ones(rest.shape[:2], bool)
    around[top - 1 : top + height + 1, left - 1 : left + width + 1] = False
    assert (rest[around] == hover[around]).all()
    middle = tuple(side // 2 for side in rest.shape[:2])
    assert abs(rest[middle] - hover[middle])[:3].max() > 40
