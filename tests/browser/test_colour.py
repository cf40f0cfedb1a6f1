"""Journeys: colour that follows, from a swatch that is named to a colourway that is delivered."""

import json
import re
import zipfile

import numpy as np
from playwright.sync_api import expect

from obrell.core.deliver.bundle import make
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import plan
from obrell.samples.wendmere_lock import wendmere_lock
from tests.browser.hand import LOCK, Hand, at, drag, open_bench, shows, stage_colour, until, wait_for_frame
from tests.making import png

SVG = """<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 60 40" width="60" height="40">
<rect x="4" y="4" width="52" height="32" rx="6" fill="#2a949c"/><circle cx="30" cy="20" r="8" fill="#f3f1ea"/></svg>"""


def choose_colour(page, selector=".part.sel .colour"):
    page.locator(selector).last.click()
    expect(page.locator("#chooser")).to_be_visible()
    expect(page.locator("#follow-swatches button").first).to_be_visible()


def keep(page):
    with page.expect_response("**/edits"):
        page.locator("#colour-keep").click()
    expect(page.locator("#chooser")).to_be_hidden()


def tile_picture(page, control):
    return page.locator(f"#tile-{control} img").get_attribute("src")


def test_a_dome_of_circles_follows_a_swatch_that_is_named_and_changed(hand):
    page = hand.page
    control = page.url.split("?")[0].rsplit("/", 1)[-1]
    hand.put("r", (20, 12), (92, 84))
    choose_colour(page)
    page.locator("#hex").fill("#7a8b3c")
    page.locator("#hex").press("Tab")
    page.locator("#name-swatch input").fill("Rush")
    page.locator("#name-swatch button").click()
    expect(page.locator("#follow-name")).to_have_text("follows Rush")
    keep(page)
    expect(page.locator(".part.sel .colour").last).to_contain_text("Rush")
    # A lighter circle in it, laid from the chip and told by the ladder; a darker one beside it.
    for place, step in (((40, 32), (72, 64)), 7), (((30, 60), (44, 74)), 3):
        hand.put("r", *place)
        with page.expect_response("**/edits"):
            page.locator("#lay-rush").click()
        expect(page.locator(".part.sel .colour").last).to_contain_text("Rush")
        choose_colour(page)
        page.locator("#follow-ladder button").nth(step).click()
        expect(page.locator("#follow-ladder button").nth(step)).to_have_attribute("aria-pressed", "true")
        keep(page)
    expect(page.locator(".part.sel .eff", has_text="darker")).to_be_visible()
    # What is copied follows as it did.
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    page.locator("#stage").focus()
    page.keyboard.press("Control+c")
    page.keyboard.press("Control+v")
    expect(page.locator(".part")).to_have_count(4)
    expect(page.locator(".part.sel .colour").last).to_contain_text("Rush")
    page.keyboard.press("Control+z")
    expect(page.locator(".part")).to_have_count(3)
    shows(page, 30, 40, [0x7A, 0x8B, 0x3C, 255])
    lighter = stage_colour(page, 56, 48)
    assert sum(lighter[:3]) > sum((0x7A, 0x8B, 0x3C)) + 60
    # One more that overlaps the wide one and is the swatch itself: both read as one surface.
    hand.put("r", (70, 30), (110, 70))
    with page.expect_response("**/edits"):
        page.locator("#lay-rush").click()
    for x in (84, 90, 96):
        shows(page, x, 50, [0x7A, 0x8B, 0x3C, 255])
    # On the Wall the swatch is dragged, kept, and taken back.
    page.goto(page.url.split("/controls")[0])
    before = tile_picture(page, control)
    expect(page.locator("#swatch-rush")).to_contain_text("4 parts")
    page.locator(f"#tile-{control}").scroll_into_view_if_needed()
    page.locator("#chip-rush").click()
    hue = page.locator("#hue").bounding_box()
    drag(page, (hue["x"] + 60, hue["y"] + 6), (hue["x"] + 200, hue["y"] + 6), release=False)
    expect(page.locator(f"#tile-{control} canvas.tried")).to_be_visible()
    assert tile_picture(page, control) == before
    page.mouse.up()
    page.locator("#colour-keep").click()
    until(page, lambda: tile_picture(page, control) != before)
    expect(page.locator("canvas.tried")).to_have_count(0)
    page.locator("#undo").click()
    until(page, lambda: tile_picture(page, control) == before)


def test_five_hues_of_a_two_line_key_are_made_without_harming_its_accent(page, server):
    kit = wendmere_lock()
    queue = next(one.id for one in kit.controls if one.name == "Boat queue")
    page.goto(f"{server.url}{LOCK}/controls/{queue}")
    wait_for_frame(page)
    until(page, lambda: stage_colour(page, 150, 40)[3] == 255)
    accent = stage_colour(page, 150, 40)
    page.locator("[data-aside=recolour]").first.click()
    expect(page.locator(".hues button")).to_have_count(12)
    slate = page.locator(".groups input[value=slate]")
    if not slate.is_checked():
        with page.expect_response("**/recolour?*"):
            slate.check()
        expect(slate).to_be_checked()
    assert not page.locator(".groups input[value=brass]").is_checked()
    names = ("Rain", "Moor", "Heath", "Rowan", "Reed")
    for number, _ in enumerate(names):
        page.locator(".hues button").nth(2 * number + 1).click(modifiers=["Shift"])
        expect(page.locator("#contrasts")).not_to_be_empty()
        until(page, lambda: all(abs(a - b) < 3 for a, b in zip(stage_colour(page, 150, 40), accent, strict=True)))
    expect(page.locator(".hues [aria-pressed=true]")).to_have_count(5)
    page.locator(".keep-as input").fill(", ".join(names))
    page.locator("[data-keep=control]").click()
    expect(page.locator("#aside")).to_be_hidden()
    expect(page.locator("#said")).to_contain_text("Made the controls “Rain”, “Moor”")
    page.goto(f"{server.url}{LOCK}")
    for name in ("Rain", "Moor", "Heath", "Rowan", "Reed"):
        expect(page.locator(f".tile input[value={name}]")).to_be_visible()


def tile_colour(page, control, x, y):
    """The colour of what is tried on a tile, at a place of its canvas in logical px; None where nothing is."""
    return page.evaluate(
        """([control, x, y]) => {
          const art = document.querySelector(`#tile-${control} canvas.tried`);
          if (!art) return null;
          const scale = art.width / art.getBoundingClientRect().width;
          return [...art.getContext("2d").getImageData(x * scale, y * scale, 1, 1).data];
        }""",
        [control, x, y],
    )


def test_controls_are_recoloured_where_they_stand_and_several_hues_kept_in_one_go(page, server):
    kit = wendmere_lock()
    page.goto(f"{server.url}{LOCK}")
    page.get_by_role("button", name="Recolour …").click()
    hues = page.locator(".hues button")
    expect(hues).to_have_count(12)
    page.locator("[data-tick=none]").click()
    expect(hues).to_have_count(0)
    for control in ("c1", "c4", "c13"):
        page.locator(f".of-controls input[value={control}]").check()
    expect(hues).to_have_count(12)
    hues.nth(5).click()
    # All that is ticked is seen as it would be, whole, and what stands there is not covered by the sheet.
    for control in ("c1", "c4", "c13"):
        expect(page.locator(f"#tile-{control} canvas.tried")).to_be_visible()
    until(page, lambda: (tile_colour(page, "c1", 106, 50) or [0, 0, 0])[0] > tile_colour(page, "c1", 106, 50)[2] - 40)
    assert tile_colour(page, "c1", 106, 63)[3] > 0
    tile, sheet = (page.locator(one).bounding_box() for one in ("#tile-c1", "#kit-dialog"))
    assert tile["x"] >= sheet["x"] + sheet["width"]
    page.locator(".of-controls input[value=c13]").uncheck()
    expect(page.locator("#tile-c13 canvas.tried")).to_have_count(0)
    expect(hues.nth(5)).to_have_attribute("aria-pressed", "true")
    expect(page.locator("#contrasts")).not_to_be_empty()
    # Tinted, towards a colour, and back.
    page.locator("[name=way]").select_option("color")
    expect(page.get_by_role("button", name="Tinted with moss")).to_be_visible()
    page.locator("[name=target]").fill("#8a4fb0")
    page.locator("[name=target]").press("Tab")
    expect(hues).to_have_count(13)
    page.locator("[name=way]").select_option("turn")
    page.get_by_role("button", name="Follow moss instead").click()
    page.locator(".hues button").nth(3).click(modifiers=["Shift"])
    page.locator(".keep-as input").fill("Reed, Heath")
    page.locator("[data-keep=control]").click()
    expect(page.locator("#kit-dialog")).to_be_hidden()
    expect(page.locator("#said")).to_contain_text("Made the controls “Raise sluice Reed”, “Raise sluice Heath”")
    expect(page.locator("canvas.tried")).to_have_count(0)
    expect(page.locator(".tile")).to_have_count(len(kit.controls) + 4)
    page.locator("#undo").click()
    expect(page.locator(".tile")).to_have_count(len(kit.controls))


def test_a_hue_pressed_while_the_sheet_is_asked_for_anew_stays_chosen(page, server):
    page.goto(f"{server.url}{LOCK}")
    page.get_by_role("button", name="Recolour …").click()
    expect(page.locator(".hues button")).to_have_count(12)
    held = []
    page.route("**/recolour?*", lambda route: route.continue_() if held else held.append(route))
    page.locator(".of-controls input[value=c4]").uncheck()
    until(page, lambda: bool(held))
    page.locator(".hues button").nth(5).click()
    with page.expect_response("**/recolour?*"):
        held[0].continue_()
    expect(page.locator("#tile-c1 canvas.tried")).to_be_visible()
    expect(page.locator(".hues button").nth(5)).to_have_attribute("aria-pressed", "true")
    with page.expect_response(lambda answer: answer.url.endswith("/recolour")):
        page.get_by_role("button", name="Recolour them").click()
    expect(page.locator("#said")).to_contain_text("Recoloured to")


def test_a_late_answer_ticks_nothing_again_and_takes_no_name_away(page, server):
    page.goto(f"{server.url}{LOCK}/controls/c12")
    wait_for_frame(page)
    page.locator("[data-aside=recolour]").first.click()
    boxes = page.locator(".groups input[type=checkbox]")
    expect(boxes.nth(1)).to_be_visible()
    held = []
    page.route("**/recolour?*", lambda route: route.continue_() if held else held.append(route))
    boxes.nth(1).click()
    first, second = boxes.nth(0).is_checked(), boxes.nth(1).is_checked()
    until(page, lambda: bool(held))
    page.locator(".keep-as input").fill("Rain")
    with page.expect_response("**/recolour?*"):
        boxes.nth(0).click()
    expect(boxes.nth(0)).to_be_checked(checked=not first)
    with page.expect_response("**/recolour?*"):
        held[0].continue_()
    expect(boxes.nth(0)).to_be_checked(checked=not first)
    expect(boxes.nth(1)).to_be_checked(checked=second)
    expect(page.locator(".keep-as input")).to_have_value("Rain")


def test_art_that_was_read_follows_the_nearest_swatches_and_is_recoloured(hand):
    page = hand.page
    page.locator("#stage").focus()
    page.evaluate(
        """text => { const data = new DataTransfer(); data.setData('text/plain', text);
        document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true })); }""",
        SVG,
    )
    expect(page.locator("#history")).to_contain_text("Drawing")
    page.locator("[data-aside=follow]").first.click()
    rows = page.locator("#follow-form tr[data-links]")
    expect(rows.first).to_contain_text("tarn")
    expect(rows).to_have_count(2)
    rows.nth(1).locator("input").uncheck()
    with page.expect_response("**/edits"):
        page.get_by_role("button", name="Let them follow").click()
    expect(page.locator("#history")).to_contain_text("1 colour followed tarn")
    page.locator("[data-aside=recolour]").first.click()
    before = stage_colour(page, *middle(page))
    page.locator(".hues button").nth(6).hover()
    until(page, lambda: stage_colour(page, *middle(page)) != before)
    page.mouse.move(5, 500)
    until(page, lambda: stage_colour(page, *middle(page)) == before)
    page.locator(".hues button").nth(6).click()
    with page.expect_response("**/edits"):
        page.get_by_role("button", name="Recolour it").click()
    until(page, lambda: stage_colour(page, *middle(page)) != before)
    page.keyboard.press("Control+z")
    until(page, lambda: stage_colour(page, *middle(page)) == before)


def middle(page):
    """A place on the rectangle of the drawing, beside its circle."""
    return (40, 48)


def test_tokens_go_out_are_edited_and_come_in_again(page, server, tmp_path):
    page.goto(f"{server.url}{LOCK}")
    page.locator("#swatch-files summary").click()
    with page.expect_download() as download:
        page.get_by_role("link", name="design tokens").click()
    tokens = json.loads(download.value.path().read_text())
    tokens["swatches"]["tarn"]["$value"] = "#a05020"
    tokens["swatches"]["heath"] = {"$value": "{swatches.tarn}"}
    edited = tmp_path / "edited.json"
    edited.write_text(json.dumps(tokens))
    before = tile_picture(page, "c1")
    page.locator("#swatch-files input[type=file]").set_input_files(edited)
    expect(page.locator("#swatch-tarn code")).to_have_text("#a05020")
    expect(page.locator("#swatch-heath code")).to_have_text("#a05020")
    until(page, lambda: tile_picture(page, "c1") != before)
    edited.write_text("{")
    page.locator("#swatch-files input[type=file]").set_input_files(edited)
    expect(page.locator("#swatch-files .fault")).to_contain_text("not JSON")
    page.locator("#undo").click()
    expect(page.locator("#swatch-heath")).to_have_count(0)
    expect(page.locator("#swatch-tarn code")).to_have_text("#1f8a92")


def test_a_colourway_is_delivered_as_it_is_planned(page, server):
    page.goto(f"{server.url}{LOCK}/deliver?control=c1")
    page.get_by_label("Night watch").check()
    page.get_by_label("Day", exact=True).uncheck()
    expect(page.locator("#count")).to_have_text("20")
    page.locator("#make").click()
    with page.expect_download() as download:
        page.locator("#download").click()
    zipped = zipfile.ZipFile(download.value.path())
    kit = wendmere_lock()
    files = plan(kit, kit.controls, Order(controls=("c1",), colourways=("night-watch",))).files
    assert [file.name for file in files] == zipped.namelist()[:-1]
    for file in files:
        assert zipped.read(file.name) == make(file)


def test_a_swatch_that_is_pressed_is_for_the_chosen_stop_and_stays_in_reach(hand):
    page = hand.page
    part = hand.put("b", (20, 20), (100, 70))
    hand.choose(f"parts/{part}/effects/e1/fill/kind", "linear")
    page.locator(".eff .head").first.click()
    page.locator(".rail .stop").nth(1).click()
    expect(page.locator(".stops li.chosen")).to_have_count(1)
    page.locator(".sheet").evaluate("sheet => sheet.scrollTo(0, 260)")
    page.locator("#lay-brass").click()
    expect(page.locator(".stops li").nth(1)).to_contain_text("brass")
    expect(page.locator(".stops")).to_contain_text("lighter")
    page.locator(".eff .head").first.click()
    expect(page.locator(".stops")).to_have_count(0)
    page.locator("#lay-moss").click()
    page.locator(".eff .head").first.click()
    expect(page.locator(".stops li", has_text="moss")).to_have_count(3)


def test_a_colourway_is_looked_at_on_the_bench_and_a_swatch_is_dragged_onto_the_art(page, server):
    open_bench(page, server.url)
    day = stage_colour(page, 28, 40)
    page.get_by_role("button", name="Night watch").click()
    until(page, lambda: sum(stage_colour(page, 28, 40)[:3]) < sum(day[:3]) - 60)
    until(page, lambda: "colourway=night-watch" in page.url)
    page.reload()
    until(page, lambda: sum(stage_colour(page, 28, 40)[:3]) < sum(day[:3]) - 60)
    page.get_by_role("button", name="Day", exact=True).click()
    until(page, lambda: stage_colour(page, 28, 40) == day)
    chip = page.locator("#lay-signal").bounding_box()
    start = (chip["x"] + 8, chip["y"] + 8)
    drag(page, start, at(page, 28, 40), release=False)
    until(page, lambda: stage_colour(page, 28, 40) != day)
    page.keyboard.press("Escape")
    until(page, lambda: stage_colour(page, 28, 40) == day)
    page.mouse.up()
    with page.expect_response("**/edits"):
        drag(page, start, at(page, 28, 40))
    expect(page.locator("#history")).to_contain_text("Laid the swatch signal")


def test_a_new_swatch_is_taken_from_the_art_and_from_a_picture(page, server, tmp_path):
    page.goto(f"{server.url}{LOCK}")
    page.get_by_role("button", name="New swatch").click()
    page.locator("#kit-dialog [name=name]").fill("Deep")
    page.locator("[data-take-from-art]").click()
    expect(page.locator("#kit-dialog")).to_be_hidden()
    page.locator("#tile-c1 img").click(position={"x": 60, "y": 40})
    expect(page.locator("#kit-dialog [name=colour]")).to_have_value(re.compile("^#[0-9a-f]{6}$"))
    picture = np.zeros((20, 20, 4), np.uint8)
    picture[:] = (122, 139, 60, 255)
    path = tmp_path / "reeds.png"
    path.write_bytes(png(picture))
    page.locator("#kit-dialog input[type=file]").set_input_files(path)
    page.locator("[data-candidate='#7a8b3c']").click()
    expect(page.locator("#kit-dialog [name=colour]")).to_have_value("#7a8b3c")
    page.get_by_role("button", name="Add it").click()
    expect(page.locator("#swatch-deep code")).to_have_text("#7a8b3c")
    page.locator("#swatch-deep .more [data-opens]").click()
    page.get_by_role("button", name="Remove the swatch").click()
    expect(page.locator("#swatch-deep")).to_have_count(0)


def test_a_swatch_is_changed_on_the_bench_for_the_whole_kit_and_seen_before_it_is(page, server):
    open_bench(page, server.url)
    hand = Hand(page)
    body = hand.put("b", (20, 16), (60, 40))
    with page.expect_response("**/edits"):
        page.locator("#lay-moss").click()
    shows(page, 30, 20, [94, 138, 58, 255])
    choose_colour(page)
    field = page.locator("#swatch-colour")
    expect(field).to_have_value("#5e8a3a")
    # Tried, and given up.
    field.fill("#804020")
    shows(page, 30, 20, [128, 64, 32, 255])
    field.press("Escape")
    expect(page.locator("#chooser")).to_be_hidden()
    shows(page, 30, 20, [94, 138, 58, 255])
    choose_colour(page)
    # What is no colour is said there, and stays to be mended.
    field.fill("brownish")
    field.press("Enter")
    expect(page.locator("#chooser .fault")).to_contain_text("brownish")
    expect(field).to_have_value("brownish")
    field.fill("hsl(20 60% 30%)")
    field.press("Enter")
    shows(page, 30, 20, [122, 61, 31, 255])
    expect(page.locator("#said")).to_contain_text("Swatch “moss”")
    expect(field).to_have_value("#7a3d1f")
    # What is typed while the answer is on its way stays.
    held = []

    def hold(route):
        held.append(route)

    page.route("**/colour-from-bench*", hold)
    field.fill("#111213")
    field.press("Enter")
    until(page, lambda: held)
    field.fill("#445566")
    held[0].continue_()
    expect(page.locator("#follow-swatches button[aria-pressed=true]")).to_have_css(
        "background-color", "rgb(17, 18, 19)"
    )
    expect(field).to_have_value("#445566")
    shows(page, 30, 20, [68, 85, 102, 255])
    page.unroute("**/colour-from-bench*")
    # What is typed is changed by Keep as well.
    field.fill("#204080")
    page.locator("#colour-keep").click()
    shows(page, 30, 20, [32, 64, 128, 255])
    expect(page.locator("#said")).to_contain_text("→ #204080")
    expect(page.locator(f".part[data-part={body}] .colour").last).to_contain_text("moss")
    page.goto(f"{server.url}{LOCK}")
    expect(page.locator("#chip-moss")).to_have_attribute("data-colour", "#204080")
    page.locator("#undo").click()
    expect(page.locator("#chip-moss")).to_have_attribute("data-colour", "#111213")


def test_colours_of_the_kit_that_would_follow_are_seen_on_the_wall_before_they_do(page, server):
    page.goto(f"{server.url}{LOCK}")
    page.get_by_role("button", name="Let colours follow").click()
    expect(page.locator("#tile-c1 canvas.tried")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.locator("canvas.tried")).to_have_count(0)
    expect(page.locator("#kit-dialog")).to_be_hidden()
    page.get_by_role("button", name="Let colours follow").click()
    expect(page.locator("#tile-c1 canvas.tried")).to_be_visible()
    # White stays what it is unless that is asked for.
    rows = page.locator("#follow-form tr[data-links]:has(input:checked)").all()
    for row in rows[1:]:
        row.locator("input").uncheck()
    page.get_by_role("button", name="Let them follow").click()
    expect(page.locator("#kit-dialog")).to_be_hidden()
    expect(page.locator(".log")).to_contain_text("Let colours of the kit follow swatches: ")
    expect(page.locator("canvas.tried")).to_have_count(0)
    page.locator("#undo").click()
    expect(page.locator(".log .undone")).to_have_count(1)
