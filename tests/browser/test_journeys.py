"""Whole ways through the application, by mouse and keyboard, in a real browser."""

import http.client
import io
import json
import os
import random
import threading
import urllib.request
import zipfile

import numpy as np
import pytest
from playwright.sync_api import expect

from obrell.core.deliver.bundle import make
from obrell.core.deliver.order import Order
from obrell.core.deliver.plan import plan
from obrell.core.document.fingerprint import whole_fingerprint
from obrell.core.document.resolve import resolve
from obrell.core.render.picture import picture
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits
from tests.browser.hand import (
    C1,
    LOCK,
    Held,
    art_width,
    at,
    drag,
    front,
    middle_of,
    open_bench,
    stage_colour,
    steps_done,
    type_value,
    until,
    value,
    wait_for_frame,
)


def test_from_an_empty_canvas_to_a_zip(page, server):
    page.goto(server.url)
    page.keyboard.press("n")
    page.keyboard.type("Horn")
    page.keyboard.press("Tab")
    page.keyboard.type("120")
    page.keyboard.press("Tab")
    page.keyboard.type("60")
    page.keyboard.press("Enter")
    page.wait_for_url("**/controls/c14*")
    wait_for_frame(page)
    page.keyboard.press("b")
    drag(page, at(page, 20, 12), at(page, 100, 44))
    expect(page.locator(".part.sel")).to_have_count(1)
    expect(page.locator("#stage")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.locator("#name-p1")).to_be_focused()
    page.keyboard.type("Body")
    page.keyboard.press("Enter")
    expect(page.locator("#history")).to_contain_text("Body")
    type_value(page, "parts/p1/shape/height", "16*2")
    value(page, "parts/p1/shape/corners").select_option("round")
    page.locator("#sheet [data-do=centre-both]").click()
    expect(value(page, "parts/p1/y")).to_have_text("30")
    value(page, "parts/p1/effects/e1/fill/kind").select_option("linear")
    for kind in ("drop-shadow", "inner-shadow", "outline"):
        page.locator(f"#sheet [data-add-effect={kind}]").click()
        expect(page.locator(".eff.open .head")).to_have_text(kind.replace("-", " ").capitalize())
    page.locator("#stage").focus()
    page.keyboard.press("t")
    page.keyboard.press("t")
    expect(page.locator(".v.words")).to_be_focused()
    page.keyboard.type("Sound horn")
    page.keyboard.press("Enter")
    expect(page.locator("#name-p5")).to_have_value("Sound horn")
    page.get_by_role("link", name="Deliver 5 files").click()
    expect(page.locator("#make")).to_contain_text("files of")
    page.locator("#make").click()
    with page.expect_download() as download:
        page.locator("#download").click()
    zipped = zipfile.ZipFile(download.value.path())
    kits = Kits(server.data)
    order = Order(controls=("c14",))
    controls = tuple(stored.control for stored in kits.controls("wendmere-lock"))
    files = plan(kits.index("wendmere-lock").settings(), controls, order).files
    assert [file.name for file in files] == zipped.namelist()[:-1]
    for file in files:
        assert zipped.read(file.name) == make(file)
    assert len(json.loads(zipped.read("manifest.json"))["files"]) == 5


def test_scrubbing_shows_before_the_hand_lets_go_and_is_one_step(page, server):
    open_bench(page, server.url, "?part=p2")
    before = stage_colour(page, 30, 40)
    blur = value(page, "parts/p2/opacity")
    box = blur.bounding_box()
    start = (box["x"] + 5, box["y"] + 5)
    drag(page, start, (start[0] - 120, start[1]), release=False)
    expect(blur).to_have_text("40")
    until(page, lambda: stage_colour(page, 30, 40) != before)
    expect(steps_done(page)).to_have_count(0)
    page.mouse.up()
    expect(steps_done(page)).to_have_count(1)
    page.keyboard.press("Control+z")
    expect(value(page, "parts/p2/opacity")).to_have_text("100")
    expect(page.locator("#said")).to_contain_text("Took back: Opacity of Body")


def test_escape_restores_what_was_dragged(page, server):
    open_bench(page, server.url, "?part=p2")
    box = value(page, "parts/p2/x").bounding_box()
    drag(page, (box["x"] + 5, box["y"] + 5), (box["x"] + 45, box["y"] + 5), release=False)
    expect(value(page, "parts/p2/x")).not_to_have_text("106")
    page.keyboard.press("Escape")
    page.mouse.up()
    expect(value(page, "parts/p2/x")).to_have_text("106")
    expect(steps_done(page)).to_have_count(0)


def test_wrong_input_is_answered_where_it_stands(page, server):
    open_bench(page, server.url, "?part=p5")
    type_value(page, "parts/p5/shape/size", "-3")
    expect(page.locator("#fault")).to_have_text("Size: must be more than 0 px.")
    page.keyboard.press("Escape")
    expect(value(page, "parts/p5/shape/size")).to_have_text("15")
    words = value(page, "parts/p5/shape/words")
    words.fill("Гудок")
    words.press("Enter")
    expect(page.locator(".remark")).to_contain_text("Hanken Grotesk has no glyph for “Г”")
    words.fill("")
    words.press("Enter")
    expect(page.locator("#fault")).to_contain_text("cannot be empty")
    expect(words).to_have_class("v words bad")
    words.press("Escape")
    expect(words).to_have_value("Гудок")
    expect(steps_done(page)).to_have_count(1)


def test_the_stage_moves_resizes_turns_and_copies(page, server):
    open_bench(page, server.url)
    page.mouse.click(*at(page, 60, 55))
    expect(page.locator(".part.sel")).to_have_attribute("data-part", "p3")
    page.mouse.click(*at(page, 22, 34))
    expect(page.locator(".part.sel")).to_have_attribute("data-part", "p2")
    page.keyboard.down("n")
    drag(page, at(page, 22, 34), at(page, 27, 40), key="Shift")
    expect(value(page, "parts/p2/y")).to_have_text("46")
    expect(value(page, "parts/p2/x")).to_have_text("106")
    page.keyboard.press("ArrowUp")
    expect(value(page, "parts/p2/y")).to_have_text("45")
    page.keyboard.press("Shift+ArrowLeft")
    expect(value(page, "parts/p2/x")).to_have_text("96")
    middle = middle_of(page, '.hd[data-handle="e"]')
    drag(page, middle, (middle[0] + 20, middle[1]))
    page.keyboard.up("n")
    expect(value(page, "parts/p2/shape/width")).to_have_text("182")
    knob = middle_of(page, ".hd[data-turn]")
    drag(page, knob, (knob[0] + 56, knob[1] + 16), key="Shift")
    expect(value(page, "parts/p2/rotation")).not_to_have_text("0")
    assert float(value(page, "parts/p2/rotation").inner_text()) % 15 == 0
    drag(page, at(page, 96, 45), at(page, 96, 75), key="Control")
    expect(page.locator(".part")).to_have_count(6)


def test_copy_cut_and_paste_between_controls(page, server):
    open_bench(page, server.url, "?part=p4")
    page.context.grant_permissions(["clipboard-read", "clipboard-write"])
    page.locator("#stage").focus()
    page.keyboard.press("Control+c")
    page.keyboard.press("Control+v")
    expect(page.locator(".part")).to_have_count(6)
    page.locator("#stage").focus()
    page.keyboard.press("Control+x")
    expect(page.locator(".part")).to_have_count(5)
    page.goto(f"{server.url}{LOCK}/controls/c3")
    wait_for_frame(page)
    page.locator("#stage").focus()
    page.keyboard.press("Control+v")
    expect(page.locator(".part")).to_have_count(3)
    expect(page.locator(".part.sel .entitle")).to_have_value("Gloss 2")


def test_colours_and_ramps(page, server):
    open_bench(page, server.url, "?part=p2&effect=e1")
    page.locator(".rail:visible").scroll_into_view_if_needed()
    rail = page.locator(".rail:visible").bounding_box()
    page.mouse.click(rail["x"] + rail["width"] * 0.25, rail["y"] + 6)
    expect(page.locator(".stop:visible")).to_have_count(6)
    page.locator(".stops .colour:visible").first.click()
    expect(page.locator("#chooser")).to_be_visible()
    page.locator("#hex").fill("#336699")
    page.locator("#hue").focus()
    expect(page.locator("[data-space=rgb] input").first).to_have_value("51")
    hsl = page.locator("[data-space=hsl] input").nth(2)
    hsl.fill("50")
    hsl.press("Tab")
    expect(page.locator("#hex")).to_have_value("#407fbf")
    page.locator("#colour-keep").click()
    expect(page.locator(".stops .colour:visible").first).to_contain_text("#407fbf")
    page.locator("[data-ramp=reverse]:visible").click()
    expect(page.locator(".stops .colour:visible").last).to_contain_text("#407fbf")
    stop = page.locator(".stop:visible").nth(1).bounding_box()
    drag(page, (stop["x"] + 8, stop["y"] + 12), (stop["x"] + 28, stop["y"] + 12))
    expect(page.locator("#history li").first).to_contain_text("Place of stop 2 of paint on Body")
    page.locator(".stops .colour:visible").first.click()
    page.locator("#from-art").click()
    page.mouse.click(*at(page, 106, 21))
    expect(page.locator("#hex")).not_to_have_value("#2a93a0")
    page.keyboard.press("Escape")
    expect(page.locator("#chooser")).to_be_hidden()


def test_the_build_up_shows_and_opens_each_step(page, server):
    open_bench(page, server.url, "?part=p2")
    whole = stage_colour(page, 106, 22)
    page.locator(".build").nth(1).hover()
    expect(page.locator(".build b")).to_contain_text(["shape", "+ paint", *["+ inner shadow"] * 3])
    until(page, lambda: stage_colour(page, 106, 22) != whole)
    page.locator(".build").nth(3).click()
    expect(page.locator(".eff.open")).to_have_attribute("data-effect", "e3")


def test_true_pixels_are_the_file(page, server):
    open_bench(page, server.url)
    page.locator("#stage").focus()
    page.keyboard.press("8")
    page.keyboard.press("x")
    until(page, lambda: art_width(page) == 212)
    assert page.locator("#pixels").is_visible()
    got = page.evaluate("[...document.getElementById('art').getContext('2d').getImageData(0, 0, 212, 80).data]")
    kit = wendmere_lock()
    want = picture(resolve(kit, kit.controls[0]), 1.0).reshape(-1, 4)
    opaque = want[:, 3] == 255
    assert opaque.sum() > 5000
    assert np.array_equal(want[opaque], np.array(got).reshape(-1, 4)[opaque])


def test_the_light_takes_the_shadows_along(page, server):
    open_bench(page, server.url)
    light = page.locator("#light").bounding_box()
    centre = (light["x"] + 14, light["y"] + 14)
    before = stage_colour(page, 106, 70)
    drag(page, centre, (centre[0] - 300, centre[1] + 200), release=False)
    page.mouse.up()
    expect(page.locator("#v-light-direction")).not_to_have_text("0")
    expect(steps_done(page)).to_have_count(1)
    until(page, lambda: stage_colour(page, 106, 70) != before)


def test_undo_survives_a_kill_and_a_reload(page, server):
    open_bench(page, server.url, "?part=p2")
    type_value(page, "parts/p2/shape/width", "150")
    expect(steps_done(page)).to_have_count(1)
    page.locator("#state-pressed").click()
    expect(page.locator("#state-sign")).to_have_text("Pressed")
    type_value(page, "parts/p2/opacity", "60")
    expect(steps_done(page)).to_have_count(2)
    server.kill()
    server.start()
    page.reload()
    wait_for_frame(page)
    expect(page.locator("#state-sign")).to_have_text("Pressed")
    expect(value(page, "parts/p2/opacity")).to_have_text("60")
    page.locator("#undo").click()
    expect(value(page, "parts/p2/opacity")).to_have_text("100")
    expect(value(page, "parts/p2/shape/width")).to_have_text("150")
    page.locator("#undo").click()
    expect(value(page, "parts/p2/shape/width")).to_have_text("172")
    page.locator("#redo").click()
    expect(value(page, "parts/p2/shape/width")).to_have_text("150")


def test_two_windows_show_one_control_and_lose_nothing(page, server):
    open_bench(page, server.url, "?part=p2")
    other = page.context.new_page()
    open_bench(other, server.url, "?part=p2")
    type_value(front(page), "parts/p2/shape/width", "150")
    expect(value(other, "parts/p2/shape/width")).to_have_text("150")
    type_value(front(other), "parts/p2/shape/height", "30")
    expect(value(page, "parts/p2/shape/height")).to_have_text("30")
    expect(value(page, "parts/p2/shape/width")).to_have_text("150")
    page.locator("#undo").click()
    expect(value(other, "parts/p2/shape/height")).to_have_text("38")
    expect(page.locator("#said")).to_contain_text("Took back: Height of Body")


def test_the_server_goes_and_comes_back(page, server):
    open_bench(page, server.url, "?part=p2")
    server.kill()
    expect(page.locator("#away")).to_contain_text("The server is away")
    type_value(page, "parts/p2/shape/width", "140")
    expect(page.locator("#away")).to_contain_text("1 edit is kept here")
    server.start()
    expect(page.locator("#away")).to_be_hidden()
    expect(value(page, "parts/p2/shape/width")).to_have_text("140")
    expect(steps_done(page)).to_have_count(1)


def test_a_control_removed_in_another_window_says_so(page, server):
    open_bench(page, server.url, "?part=p2")
    urllib.request.urlopen(f"{server.url}{C1}/remove", data=b"").close()
    expect(page.locator("#fault")).to_contain_text("removed in another window")


def test_keyboard_only(page, server):
    page.goto(server.url + C1)
    wait_for_frame(page)
    page.locator("#name-p2").focus()
    page.keyboard.press("Tab")
    page.keyboard.press("Shift+Tab")
    expect(page.locator(".part.sel")).to_have_attribute("data-part", "p2")
    value(page, "parts/p2/opacity").focus()
    page.keyboard.press("Shift+ArrowDown")
    expect(value(page, "parts/p2/opacity")).to_have_text("90")
    page.keyboard.press("Enter")
    expect(steps_done(page)).to_have_count(1)
    expect(value(page, "parts/p2/opacity")).to_be_focused()
    page.keyboard.press("Alt+ArrowUp")
    expect(value(page, "parts/p2/opacity")).to_have_text("90.1")
    page.keyboard.press("Escape")
    expect(value(page, "parts/p2/opacity")).to_have_text("90")
    page.keyboard.type("55%")
    page.keyboard.press("Enter")
    expect(value(page, "parts/p2/opacity")).to_have_text("55")
    page.locator("#head-p2-e3").focus()
    page.keyboard.press("Enter")
    expect(page.locator(".eff.open")).to_have_attribute("data-effect", "e3")
    page.locator("#stage").focus()
    # What is open goes first: the effect, then the part.
    page.keyboard.press("Delete")
    expect(page.locator("#head-p2-e3")).to_have_count(0)
    expect(page.locator(".part")).to_have_count(5)
    page.keyboard.press("Delete")
    expect(page.locator(".part")).to_have_count(4)
    page.keyboard.press("Control+z")
    expect(page.locator(".part")).to_have_count(5)
    page.keyboard.press("Control+z")
    page.locator("#name-p2").focus()
    expect(page.locator("#head-p2-e3")).to_have_count(1)
    page.locator("#stage").focus()
    page.keyboard.press("Control+a")
    expect(page.locator(".part.sel")).to_have_count(5)
    page.keyboard.press("?")
    expect(page.locator("#keys")).to_be_visible()


def test_the_wall(page, server):
    page.goto(server.url)
    expect(page.locator(".tile")).to_have_count(13)
    name = page.locator("#name-c2")
    name.fill("Signal lamp")
    name.press("Enter")
    expect(page.locator(".log")).to_contain_text("Signal lamp")
    light = page.get_by_label("Key light from, degrees")
    light.fill("300+15")
    light.press("Enter")
    expect(page.locator(".log")).to_contain_text("key light")
    expect(light).to_have_value("315")
    page.locator(".tile").nth(0).get_by_role("button", name="Duplicate").click()
    expect(page.locator(".tile")).to_have_count(14)
    page.locator("#later-c1").click()
    expect(page.locator(".tile").nth(1).locator(".entitle")).to_have_value("Raise sluice")
    page.locator(".tile").nth(3).get_by_role("button", name="Remove").click()
    expect(page.locator("#said")).to_contain_text("Removed “Water level”. Undo brings it back.")
    page.keyboard.press("Control+z")
    expect(page.locator(".tile")).to_have_count(14)
    page.locator("[data-ground=dark]").click()
    page.reload()
    expect(page.locator(".tile").first).to_have_attribute("data-ground-now", "dark")
    page.locator("[data-ground='']").click()
    expect(page.locator(".tile").first).to_have_attribute("data-ground-now", "own")
    page.locator("#kits-menu summary").click()
    page.locator("#kits-menu [name=name]").fill("Second lock")
    page.locator("#kits-menu [name=name]").press("Enter")
    page.wait_for_url("**/kits/second-lock")
    expect(page.locator(".empty")).to_contain_text("This kit is empty")
    page.locator("#kits-menu summary").click()
    page.get_by_role("button", name="Remove this kit").click()
    page.wait_for_url("**/kits/wendmere-lock")
    page.locator("#kits-menu summary").click()
    page.get_by_role("button", name="Bring back").click()
    page.wait_for_url("**/kits/second-lock")


def test_an_answer_from_before_does_not_take_back_what_was_done_on_the_wall(page, server):
    """Somebody else's step is asked for; a control is duplicated before the answer comes."""
    page.goto(server.url)
    expect(page.locator(".tile")).to_have_count(13)
    held = Held(page, "**/kits/*/wall*")
    page.request.post(f"{server.url}{C1}/name", form={"name": "Sluice"}, headers={"origin": server.url})
    until(page, held.arrived)
    page.locator(".tile").nth(0).get_by_role("button", name="Duplicate").click()
    expect(page.locator(".tile")).to_have_count(14)
    page.evaluate("""() => {
        const tiles = () => document.querySelectorAll('.tile').length;
        window.least = tiles();
        const look = () => { window.least = Math.min(window.least, tiles()); };
        new MutationObserver(look).observe(document.getElementById('wall'), {childList: true, subtree: true});
    }""")
    with page.expect_response("**/kits/*/wall*"):
        held.let_go()
    expect(page.locator("#name-c1")).to_have_value("Sluice")
    assert page.evaluate("window.least") == 14


def test_a_step_that_is_taken_back_while_the_wall_asks_for_it_does_not_stay_there(page, server):
    page.goto(server.url)
    expect(page.locator(".tile").nth(0)).to_have_id("tile-c1")
    here = {"headers": {"origin": server.url}}
    held = Held(page, "**/kits/*/wall*")
    page.request.post(f"{server.url}{C1}/move", form={"to": 3}, **here)
    until(page, held.arrived)
    with page.expect_response("**/kits/*/wall*"):
        page.request.post(f"{server.url}{LOCK}/undo", **here)
    with page.expect_response("**/kits/*/wall*"):
        held.let_go()
    expect(page.locator(".tile").nth(0)).to_have_id("tile-c1")


def test_two_windows_on_the_wall_show_the_same(page, server):
    page.goto(server.url)
    with page.context.expect_page() as opened:
        page.evaluate("window.open(location.href)")
    other = opened.value
    expect(other.locator(".tile")).to_have_count(13)
    front(page).locator(".tile").nth(0).get_by_role("button", name="Duplicate").click()
    expect(other.locator(".tile")).to_have_count(14)
    page.locator("#later-c13").click()
    expect(other.locator(".tile").nth(3)).to_have_id("tile-c13")
    other.locator("#name-c1").fill("Sluice")
    other.locator("#name-c1").press("Enter")
    expect(page.locator("#name-c1")).to_have_value("Sluice")


def test_a_delivery_is_ordered_watched_and_stopped(page, server):
    page.goto(f"{server.url}{LOCK}/deliver")
    expect(page.locator("#count")).to_have_text("260")
    for size in page.locator("[name=size]").all():
        size.uncheck()
    expect(page.locator("#files [role=alert]")).to_contain_text("No size is chosen")
    page.locator("[name=size][value=regular]").check()
    expect(page.locator("#count")).to_have_text("235")
    for state in page.locator("[name=state]:not([value=rest])").all():
        state.uncheck()
    expect(page.locator("#count")).to_have_text("65")
    page.locator("[name=state][value=rest]").uncheck()
    expect(page.locator("#files [role=alert]")).to_contain_text("No state is chosen")
    page.locator("[name=state][value=rest]").check()
    page.locator("[name=format][value=svg]").uncheck()
    expect(page.locator("#count")).to_have_text("52")
    page.locator("[name=typed]").fill("99")
    expect(page.locator("#files [role=alert]")).to_contain_text("8 or less")
    page.locator("[name=typed]").fill("6; 7; 8; 5")
    expect(page.locator("#count")).to_have_text("104")
    page.locator("[name=pattern]").fill("{control}")
    expect(page.locator(".left-out")).to_contain_text("Several files would be called")
    page.locator("[name=pattern]").fill("{control}/{density}")
    expect(page.locator("#examples")).to_contain_text("raise-sluice/1.5.png")
    page.locator("#make").click()
    page.locator(".stop").click()
    expect(page.locator("#progress")).to_contain_text("stopped")


def test_kills_in_the_middle_lose_no_edit_and_double_none(server):
    """The answer to an edit is lost whenever the server is killed; the edit is sent again with its id."""
    kills = int(os.environ.get("OBRELL_KILLS", "3"))
    wanted = 20 * kills
    done, up = threading.Event(), threading.Event()
    up.set()

    def kill():
        for _ in range(kills):
            if done.wait(0.4):
                return
            up.clear()
            server.kill()
            server.start()
            up.set()

    killer = threading.Thread(target=kill)
    killer.start()
    for number in range(wanted):
        move = {"edit": {"kind": "move", "parts": ["p1"], "dx": 1, "dy": 0}, "window": "w", "ident": f"edit-{number}"}
        while not acknowledged(server, move):
            assert up.wait(60)
    done.set()
    killer.join()
    kits = Kits(server.data)
    steps = kits.history("wendmere-lock", "c1")
    assert len(steps.shown) + steps.older == wanted
    first = wendmere_lock().controls[0].parts[0].x
    assert kits.control("wendmere-lock", "c1").control.parts[0].x == pytest.approx(first + wanted)


def acknowledged(server, body):
    request = urllib.request.Request(
        f"{server.url}{C1}/edits", json.dumps(body).encode(), {"content-type": "application/json"}
    )
    try:
        with urllib.request.urlopen(request, timeout=10) as answer:
            return json.load(io.BytesIO(answer.read()))["facts"]["version"]
    except (OSError, http.client.HTTPException):
        return 0


def test_an_edit_whose_answer_is_lost_is_done_once_and_one_that_waits_is_saved_at_the_next_visit(page, server):
    open_bench(page, server.url, "?part=p1")
    lost = []

    def lose(route):
        if not lost:
            lost.append(route.fetch())
            route.abort()
        else:
            route.fallback()

    page.route("**/edits", lose)
    page.locator("#stage").focus()
    page.keyboard.press("ArrowRight")
    expect(value(page, "parts/p1/x")).to_have_text("107")
    expect(steps_done(page)).to_have_count(1)
    page.unroute("**/edits")
    page.route("**/edits", lambda route: route.abort())
    page.locator("#stage").focus()
    page.keyboard.press("ArrowRight")
    expect(page.locator("#away")).to_contain_text("1 edit is kept here")
    asked = []
    page.once("dialog", lambda dialog: (asked.append(dialog.type), dialog.accept()))
    page.goto(f"{server.url}{LOCK}")
    assert asked == ["beforeunload"]
    page.unroute("**/edits")
    page.goto(f"{server.url}{C1}?part=p1")
    expect(page.locator("#said")).to_contain_text("is saved now")
    expect(value(page, "parts/p1/x")).to_have_text("108")
    assert page.evaluate("Object.keys(localStorage).filter((key) => key.includes('unsaved')).length") == 0


def test_two_windows_that_set_one_value_are_told_and_so_is_the_one_whose_edit_is_taken_back(page, server):
    open_bench(page, server.url, "?part=p1")
    other = page.context.new_page()
    open_bench(other, server.url, "?part=p1")
    type_value(front(page), "parts/p1/x", "120")
    expect(value(other, "parts/p1/x")).to_have_text("120")
    type_value(front(other), "parts/p1/x", "130")
    expect(value(page, "parts/p1/x")).to_have_text("130")
    expect(page.locator("#said")).to_contain_text(
        "Another window changed what you set: place across of Collar: 120 px → 130 px"
    )
    front(page).locator("#undo").click()
    expect(other.locator("#said")).to_contain_text("In another window, of what was done here: took back")
    expect(value(other, "parts/p1/x")).to_have_text("120")


def test_two_windows_that_edit_at_random_show_the_same_at_the_end(page, server):
    open_bench(page, server.url, "?part=p1")
    other = page.context.new_page()
    open_bench(other, server.url, "?part=p1")
    rng = random.Random(9)
    keys = ["ArrowRight", "ArrowLeft", "ArrowUp", "ArrowDown", "Control+z", "Control+Shift+z", "d"]
    for _ in range(30):
        window = front(rng.choice([page, other]))
        window.locator("#stage").focus()
        window.keyboard.press(rng.choice(keys))
    kits = Kits(server.data)

    def same():
        stored = kits.control("wendmere-lock", "c1").control
        looks = whole_fingerprint(resolve(kits.index("wendmere-lock").settings(), stored))
        wanted = {"looks": looks, "parts": len(stored.parts)}
        return shown(page) == shown(other) == wanted

    until(page, same)


def test_an_edit_taken_back_while_another_window_asks_for_it_does_not_stay_there(page, server):
    open_bench(page, server.url, "?part=p1")
    other = page.context.new_page()
    open_bench(other, server.url, "?part=p1")
    before = value(page, "parts/p1/x").inner_text()
    held = Held(other, "**/blocks?*")
    type_value(front(page), "parts/p1/x", "120")
    until(page, held.arrived)
    with other.expect_response("**/blocks?*"):
        page.locator("#undo").click()
    with other.expect_response("**/blocks?*"):
        held.let_go()
    for window in (page, other):
        expect(value(window, "parts/p1/x")).to_have_text(before)


def shown(window):
    """What a window takes the control to be."""
    pictures = window.locator("#proof img").first.get_attribute("src")
    return {"looks": pictures.split("/")[6], "parts": window.locator("#sheet .part").count()}


def test_copies_with_changes_are_made_from_a_small_table_and_taken_back(page, server):
    page.goto(server.url + LOCK)
    tile = page.locator(".tile", has_text="").filter(has=page.locator("[value='Open gate']"))
    count = page.locator(".tile").count()
    tile.get_by_role("button", name="with changes").click()
    table = page.locator("#variants-dialog")
    table.get_by_label("Name of copy 1").fill("Shut gate")
    table.locator("tbody tr").first.locator("[name*='words']").first.fill("Shut gate")
    table.get_by_role("button", name="One more row").click()
    table.get_by_label("Name of copy 5").fill("Red gate")
    table.locator("tbody tr").last.locator("[name*='colours']").first.fill("nothing")
    table.get_by_role("button", name="Make the copies").click()
    expect(table.locator(".fault")).not_to_be_empty()
    table.locator("tbody tr").last.locator("[name*='colours']").first.fill("#aa2222")
    table.get_by_role("button", name="Make the copies").click()
    expect(table).to_be_hidden()
    expect(page.locator(".tile")).to_have_count(count + 2)
    expect(page.locator("#said")).to_contain_text("Made 2 copies")
    copy = page.locator(".tile").filter(has=page.locator("[value='Shut gate']"))
    expect(copy).to_contain_text("follows Open gate")
    copy.locator("a.art").click()
    wait_for_frame(page)
    expect(page.locator("#original")).to_contain_text("Follows Open gate")
    page.locator("#original").get_by_role("button", name="stop").click()
    expect(page.locator("#original")).to_have_count(0)
    page.locator("#undo").click()
    expect(page.locator("#original")).to_be_visible()
    page.locator("#original a").click()
    expect(page.locator("#followers")).to_contain_text("Shut gate")
    page.goto(server.url + LOCK)
    page.locator("#undo").click()
    expect(page.locator(".tile")).to_have_count(count)
