"""Journeys: each of the demo controls drawn from nothing, and every tool led by keys alone."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.hand import at, drag, middle_of, new_control, shows, stage_colour, type_value, until, value
from tests.making import png, slope

TEAL = [31, 138, 146, 255]
INK = [31, 42, 48, 255]


class Hand:
    """What a designer does on the bench, in a few words."""

    def __init__(self, page):
        self.page = page

    def command(self, words):
        self.page.locator("#stage").focus()
        self.page.keyboard.press("a")
        self.page.locator("#command-words").fill(words)
        self.page.keyboard.press("Enter")

    def draw(self, key, start, end):
        """A part dragged from one place to the other; its id."""
        self.page.locator("#stage").focus()
        self.page.keyboard.press(key)
        count = self.page.locator(".part").count()
        drag(self.page, at(self.page, *start), at(self.page, *end))
        expect(self.page.locator(".part")).to_have_count(count + 1)
        return self.newest()

    def pen(self, *places):
        """A closed path with corners."""
        self.page.locator("#stage").focus()
        self.page.keyboard.press("e")
        count = self.page.locator(".part").count()
        for place in (*places, places[0]):
            self.page.mouse.click(*at(self.page, *place))
        expect(self.page.locator(".part")).to_have_count(count + 1)
        expect(self.page.locator(".part.sel")).to_contain_text(f"path of {len(places)} points, filled")
        return self.newest()

    def newest(self):
        """The part with the highest number: ids are never used twice."""
        rows = self.page.locator(".part").all()
        return max((row.get_attribute("data-part") for row in rows), key=lambda name: int(name[1:]))

    def type(self, path, text):
        type_value(self.page, path, text)
        expect(value(self.page, path)).to_have_text(text)

    def choose(self, path, option):
        with self.page.expect_response("**/edits"):
            value(self.page, path).select_option(option)

    def select(self, *parts):
        for number, part in enumerate(parts):
            row = self.page.locator(f".part[data-part={part}] > header .no")
            row.click(modifiers=["Shift"] if number else [])
        expect(self.page.locator(".part.sel")).to_have_count(len(parts))

    def name(self, part, words):
        field = self.page.locator(f"#name-{part}")
        field.fill(words)
        with self.page.expect_response("**/edits"):
            field.press("Enter")


@pytest.fixture
def hand(page, server):
    """An empty control of 120 × 96."""
    new_control(page, server.url, "120", "96")
    return Hand(page)


def test_water_level(hand):
    ring = hand.draw("g", (24, 12), (96, 84))
    hand.type(f"parts/{ring}/shape/inner", "28")
    wedge = hand.pen((60, 48), (40, 94), (80, 94))
    hand.select(ring, wedge)
    hand.command("combine: difference")
    expect(hand.page.locator(".part")).to_have_count(3)
    shows(hand.page, 60, 80, [0, 0, 0, 0])
    shows(hand.page, 60, 16, TEAL)
    hair = hand.draw("b", (59, 2), (61, 9))
    hand.command("repeat as a round")
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
    hand.command("repeat as a mirror")
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
    expect(hand.page.locator("[data-knot]").first).to_be_visible()
    names = [k.get_attribute("data-knot") for k in hand.page.locator("[data-knot]").all()]
    low = [n for n in names if middle_of(hand.page, f"[data-knot='{n}']")[1] > at(hand.page, 0, 48)[1]]
    for number, name in enumerate(low):
        if number:
            hand.page.keyboard.down("Shift")
        hand.page.mouse.click(*middle_of(hand.page, f"[data-knot='{name}']"))
        hand.page.keyboard.up("Shift")
    with hand.page.expect_response("**/edits"):
        hand.page.keyboard.press("ArrowDown")
    for _ in range(4):
        with hand.page.expect_response("**/edits"):
            hand.page.keyboard.press("ArrowDown")
    hand.page.keyboard.press("Escape")
    hand.page.keyboard.press("Escape")
    shows(hand.page, 60, 69, TEAL)
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
    hand.command("repeat as a round")
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
        shows(hand.page, 7 + 11 * n, 21, TEAL)


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
    page.keyboard.press("e")
    page.keyboard.press("Shift+ArrowUp")
    page.keyboard.press("Enter")
    for way in ("Right", "Down"):
        page.keyboard.press(f"Shift+Arrow{way}")
        page.keyboard.press(f"Shift+Arrow{way}")
        with page.expect_response("**/edits"):
            page.keyboard.press("Enter")
    for way in ("Left", "Up"):
        page.keyboard.press(f"Shift+Arrow{way}")
        page.keyboard.press(f"Shift+Arrow{way}")
    with page.expect_response("**/edits"):
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
    page.locator("[data-lay='shipped-brass']").hover()
    until(page, lambda: stage_colour(page, 60, 40)[0] > 120)
    page.mouse.move(5, 400)
    shows(page, 60, 40, TEAL)
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
    lens = hand.draw("r", (20, 12), (92, 84))
    page.keyboard.press("Escape")
    hand.select(lens)
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
    star = hand.draw("s", (94, 4), (118, 28))
    page.keyboard.press("Escape")
    hand.select(star)
    page.keyboard.press("m")
    with page.expect_response("**/edits"):
        page.locator("[data-lay='m-lens']").click()
    page.keyboard.press("Escape")
    expect(page.locator(".effs .eff")).to_have_count(5)


def test_a_gradient_is_turned_by_its_handle_and_a_curve_is_drawn(hand):
    page = hand.page
    box = hand.draw("b", (20, 20), (100, 76))
    page.keyboard.press("Escape")
    hand.select(box)
    hand.choose(f"parts/{box}/effects/e1/fill/kind", "linear")
    page.locator("#sheet [data-open=e1]").click()
    start = middle_of(page, "[data-gradient=to]")
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
