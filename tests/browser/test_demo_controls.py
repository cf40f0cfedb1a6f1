"""Journeys: each of the demo controls drawn from nothing, and every tool led by keys alone."""

from playwright.sync_api import expect

from tests.browser.hand import at, middle_of, shows, stage_colour, until, value
from tests.making import png, slope

NEUTRAL = [31, 138, 146, 255]
INK = [31, 42, 48, 255]


def test_water_level(hand):
    ring = hand.draw("g", (24, 12), (96, 84))
    hand.type(f"parts/{ring}/shape/inner", "28")
    wedge = hand.pen((60, 48), (40, 94), (80, 94))
    hand.select(ring, wedge)
    hand.command("combine: difference")
    expect(hand.page.locator(".part")).to_have_count(3)
    shows(hand.page, 60, 80, [0, 0, 0, 0])
    shows(hand.page, 60, 16, NEUTRAL)
    hair = hand.draw("b", (59, 2), (61, 9))
    hand.command("repeat round a centre")
    expect(hand.page.locator(".part")).to_have_count(5)
    repeat = hand.newest()
    hand.type(f"parts/{repeat}/shape/count", "24")
    hand.type(f"parts/{repeat}/shape/irregular", "30")
    hand.page.locator("[data-copy='23']").wait_for()
    hand.page.locator("[data-copy='0']").click()
    with hand.page.expect_response("**/edits"):
        hand.page.get_by_text("leave it out").click()
    shows(hand.page, 60, 5, [0, 0, 0, 0])
    pointer = hand.draw("s", (55, 24), (65, 40))
    hand.type(f"parts/{pointer}/shape/count", "3")
    hand.type(f"parts/{pointer}/rotation", "38")
    expect(value(hand.page, f"parts/{pointer}/rotation")).to_have_text("38")
    assert hair != pointer


def test_hail_boat(hand):
    key = hand.draw("r", (24, 12), (96, 84))
    arcs = [hand.draw("g", (60 - r, 60 - r), (60 + r, 60 + r)) for r in (28, 20, 12)]
    for arc, outer in zip(arcs, (28, 20, 12), strict=True):
        hand.select(arc)
        hand.type(f"parts/{arc}/shape/inner", str(outer - 4))
        hand.type(f"parts/{arc}/shape/sweep", "44")
        hand.choose(f"parts/{arc}/shape/ends", "round")
    hand.select(*arcs)
    hand.command("repeat mirrored")
    until(hand.page, lambda: hand.newest() not in (key, *arcs))
    hand.draw("r", (56, 56), (64, 64))
    hand.page.keyboard.press("Escape")
    for dx in (3, 10, 15):
        assert stage_colour(hand.page, 60 + dx, 40) == stage_colour(hand.page, 60 - dx, 40)


def test_boat_queue(hand):
    face = hand.draw("b", (8, 30), (112, 66))
    hand.type(f"parts/{face}/shape/radius", "6")
    hand.command("duplicate")
    expect(hand.page.locator(".part")).to_have_count(2)
    thickness = hand.newest()
    hand.name(thickness, "Thickness")
    hand.select(thickness)
    hand.command("back in the order")
    hand.command("convert to a path")
    expect(hand.page.locator(".knot[data-knot]").first).to_be_visible()
    names = [k.get_attribute("data-knot") for k in hand.page.locator(".knot[data-knot]").all()]
    low = [n for n in names if middle_of(hand.page, f".knot[data-knot='{n}']")[1] > at(hand.page, 0, 48)[1]]
    for number, name in enumerate(low):
        if number:
            hand.page.keyboard.down("Shift")
        hand.page.mouse.click(*middle_of(hand.page, f".knot[data-knot='{name}']"))
        hand.page.keyboard.up("Shift")
    with hand.page.expect_response("**/edits"):
        hand.page.keyboard.press("ArrowDown")
    for _ in range(4):
        with hand.page.expect_response("**/edits"):
            hand.page.keyboard.press("ArrowDown")
    hand.page.keyboard.press("Escape")
    hand.page.keyboard.press("Escape")
    shows(hand.page, 60, 69, NEUTRAL)
    bay = hand.pen((84, 26), (118, 26), (118, 70), (76, 70))
    hand.select(face, bay)
    hand.command("combine: difference")
    expect(hand.page.locator(".part")).to_have_count(4)
    words = hand.draw("t", (14, 36), (60, 48))
    hand.page.keyboard.press("Escape")
    hand.select(words)
    field = value(hand.page, f"parts/{words}/shape/words")
    field.fill("Boat queue")
    with hand.page.expect_response("**/edits"):
        field.press("Enter")
    hand.select(words)
    field = value(hand.page, f"parts/{words}/shape/words")
    field.focus()
    field.evaluate("(node) => node.setSelectionRange(5, 10)")
    with hand.page.expect_response("**/edits"):
        hand.page.get_by_text("get a look of their own").click()
    hand.type(f"parts/{words}/shape/runs/0/weight", "300")
    expect(hand.page.locator(".letters")).to_contain_text("queue")


def test_close_panel(hand):
    hand.draw("r", (30, 18), (90, 78))
    one = hand.draw("l", (48, 36), (72, 60))
    other = hand.draw("l", (72, 36), (48, 60))
    for line in (one, other):
        hand.select(line)
        hand.type(f"parts/{line}/shape/width", "4")
        hand.command("convert to a path")
        expect(hand.page.locator(f".part[data-part={line}]")).to_contain_text("path of")
    hand.select(one, other)
    hand.command("combine: union")
    expect(hand.page.locator(".part")).to_have_count(4)
    hand.command("convert to a path")
    expect(hand.page.locator(".part")).to_have_count(2)
    expect(hand.page.locator(".part.sel")).to_contain_text("path of 12 points")


def test_towpath_lights(hand):
    track = hand.draw("b", (10, 28), (110, 68))
    hand.choose(f"parts/{track}/shape/corners", "round")
    hand.draw("r", (72, 30), (108, 66))
    ring = hand.draw("g", (84, 42), (96, 54))
    hand.type(f"parts/{ring}/shape/inner", "4")
    ray = hand.draw("b", (59, 36), (61, 40))
    hand.type(f"parts/{ray}/shape/width", "4")
    hand.command("repeat round a centre")
    expect(hand.page.locator(".part")).to_have_count(5)
    rays = hand.newest()
    hand.type(f"parts/{rays}/x", "90")
    hand.type(f"parts/{rays}/shape/count", "8")
    hand.select(ring, rays)
    hand.command("group")
    expect(hand.page.locator(".part")).to_have_count(6)
    hand.select(ray)
    with hand.page.expect_response("**/edits"):
        value(hand.page, f"parts/{ray}/effects/e1/fill/colour").click()
        hand.page.locator("#hex").fill("#ffcc00")
        hand.page.locator("#colour-keep").click()
    hand.page.keyboard.press("Escape")
    for dx, dy in ((0, -10), (10, 0), (0, 10), (-10, 0)):
        shows(hand.page, 90 + dx, 48 + dy, [255, 204, 0, 255])


def test_ten_parts_line_up_at_once(hand):
    hand.draw("b", (4, 20), (10, 30))
    hand.command("copy along")
    for text in ("11", "3", "9"):
        hand.page.keyboard.type(text)
        hand.page.keyboard.press("Tab")
    hand.page.keyboard.press("Enter")
    expect(hand.page.locator(".part")).to_have_count(10)
    hand.command("select all")
    expect(hand.page.locator(".part.sel")).to_have_count(10)
    hand.command("align top")
    for n in range(10):
        shows(hand.page, 7 + 11 * n, 21, NEUTRAL)


def test_every_tool_is_led_by_keys(hand):
    page = hand.page
    for count, key in enumerate("brgslt", start=1):
        page.locator("#stage").focus()
        page.keyboard.press(key)
        page.keyboard.press(key)
        expect(page.locator(".part")).to_have_count(count)
        page.keyboard.press("Escape")
    page.locator("#stage").focus()
    page.keyboard.press("i")
    page.keyboard.type("bell")
    page.locator("#icon-list button").first.wait_for()
    page.keyboard.press("Enter")
    expect(page.locator(".part")).to_have_count(7)
    page.keyboard.press("Escape")
    page.locator("#stage").focus()
    page.keyboard.press("p")
    # Faster than anything is answered: each point is where the pen was when Enter was pressed.
    for way in ("Up", "Right Right", "Down Down", "Left Left Up Up"):
        for step in way.split():
            page.keyboard.press(f"Shift+Arrow{step}")
        page.keyboard.press("Enter")
    expect(page.locator(".part").first).to_contain_text("path of 3 points")
    with page.expect_file_chooser() as chooser:
        page.locator("#stage").focus()
        page.keyboard.press("u")
    chooser.value.set_files({"name": "slope.png", "mimeType": "image/png", "buffer": png(slope(24, 16))})
    expect(page.locator(".part").first).to_contain_text("picture")
    until(page, lambda: stage_colour(page, 60 - 11, 48 + 7)[1] > 200)


def test_fonts_are_chosen_by_their_look_and_brought_in(hand):
    page = hand.page
    words = hand.draw("t", (20, 30), (80, 60))
    page.keyboard.press("Escape")
    hand.select(words)
    value(page, f"parts/{words}/shape/font").click()
    rows = page.locator(".font-row")
    expect(rows).to_have_count(8)
    rows.nth(2).get_by_text("make a favourite").click()
    expect(rows.first).to_contain_text("Lora")
    lora = "src/obrell/core/text/fonts/nunito/latin.woff2"
    page.set_input_files("#font-file", lora)
    expect(rows).to_have_count(9)
    page.set_input_files("#font-file", {"name": "x.ttf", "mimeType": "font/ttf", "buffer": b"nothing"})
    expect(page.locator("#font-fault")).to_contain_text("not a TTF")
    with page.expect_response("**/edits"):
        rows.last.locator(".font-take").click()
    expect(value(page, f"parts/{words}/shape/font")).to_contain_text("Nunito")


def test_a_reference_picture_is_pinned_and_never_drawn(hand):
    page = hand.page
    page.locator("#reference summary").click()
    with page.expect_file_chooser() as chooser:
        page.locator("[data-bring=reference]").click()
    chooser.value.set_files({"name": "slope.png", "mimeType": "image/png", "buffer": png(slope(24, 16))})
    expect(page.locator("#reference-under")).to_be_visible()
    page.get_by_text("beside the art").click()
    expect(value(page, "reference/x")).to_have_text("132")
    value(page, "reference/lies").select_option("over the art")
    expect(page.locator("#reference-over")).to_be_visible()
    assert stage_colour(page, 60, 48)[3] == 0
    page.get_by_text("take it away").click()
    expect(page.locator("#reference-over")).to_be_hidden()
