"""Whole tasks of a designer's day, done by mouse and keys alone: no more actions than they take today."""

import io

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import expect

from tests.browser.hand import LOCK, at, drag, new_control, until


class Counting:
    """A hand that counts: a press, a drag, a key or chord, a text that is typed are one action each."""

    def __init__(self, page):
        self.page = page
        self.count = 0

    def _one(self):
        self.count += 1

    def key(self, name):
        self._one()
        self.page.keyboard.press(name)

    def type(self, text):
        self._one()
        self.page.keyboard.type(text)

    def press(self, target, **more):
        """An element by its selector, or a place of the canvas."""
        self._one()
        if isinstance(target, str):
            self.page.locator(target).first.click(**more)
        else:
            self.page.mouse.click(*at(self.page, *target))

    def drag(self, start, end):
        self._one()
        drag(self.page, at(self.page, *start), at(self.page, *end))

    def choose(self, selector, value):
        self._one()
        self.page.locator(selector).first.select_option(value)


@pytest.fixture
def hand(page, common_server):
    new_control(page, common_server.url, "180", "80")
    page.locator("#stage").focus()
    return Counting(page)


def parts(page):
    return {row.get_attribute("data-part"): row for row in page.locator(".part").all()}


def selected(page):
    return page.locator(".part.sel").get_attribute("data-part")


def picture(page, density):
    """The control as it is drawn at true pixels."""
    place = page.url.split("?")[0].rsplit("/", 1)[-1]
    listed = page.request.get(f"{page.url.split('/kits')[0]}{LOCK}/deliver?control={place}").text()
    address = next(a for a in listed.split('src="') if a.startswith("/pictures/") and f"/{density}.png" in a)
    answer = page.request.get(page.url.split("/kits")[0] + address.split('"')[0].replace("&amp;", "&"))
    return np.asarray(Image.open(io.BytesIO(answer.body())).convert("RGBA"))


def label(hand, *lines):
    """Words in the middle of the canvas; the last thing is to leave them."""
    hand.key("t")
    hand.key("t")
    expect(hand.page.locator("textarea.words")).to_be_focused()
    for line in lines[:-1]:
        hand.type(line)
        hand.key("Shift+Enter")
    hand.type(lines[-1])
    hand.key("Enter")
    expect(hand.page.locator("#history")).to_contain_text(lines[-1])
    hand.page.locator("#stage").focus()


def body_behind(hand):
    """A box anywhere, fitted around what is there; its id."""
    page = hand.page
    hand.key("b")
    hand.drag((10, 10), (60, 40))
    expect(page.locator(".part")).to_have_count(2)
    body = selected(page)
    page.locator("#stage").focus()
    hand.key("Control+a")
    expect(page.locator("[data-form=fit-around]")).to_be_visible()
    hand.press("[data-form=fit-around] button")
    expect(page.locator("#history")).to_contain_text("Fitted")
    hand.press(f".part[data-part={body}] .no")
    return body


def typed(hand, name, text, row=".part.sel"):
    """A live value of the selected part pressed, typed over, kept."""
    hand.press(f"{row} .num[aria-label='{name}']")
    hand.type(text)
    hand.key("Enter")


def write_stops(hand, text):
    """The stops of the open effect written as a text, kept."""
    hand.press(".eff.open .written input[name=text]")
    hand.key("Control+a")
    hand.type(text)
    hand.key("Enter")


def test_a_label_first_key_with_a_rim_of_constant_width(hand):
    page = hand.page
    label(hand, "Open gate")
    body = body_behind(hand)
    hand.press("#more summary")
    hand.press("[data-form=add-rim] button")
    expect(page.locator(".part")).to_have_count(3)
    rim = selected(page)
    hand.press(f".part[data-part={body}] .no")
    expect(page.locator(f".part.sel[data-part={body}]")).to_have_count(1)
    hand.press("#starts summary")
    hand.press(".starts button >> nth=2")
    expect(page.locator(".part.sel .eff")).to_have_count(6)
    text = next(one for one in parts(page) if one not in (body, rim))
    hand.press(f".part[data-part={text}] .no")
    hand.key("Enter")
    expect(page.locator("textarea.words")).to_be_focused()
    hand.type("Open both gates")
    hand.key("Enter")
    expect(page.locator("#history")).to_contain_text("Open both gates")
    assert hand.count <= 18

    def widths():
        rows = {name: page.locator(f".part[data-part={name}] p").first.inner_text() for name in (body, rim)}
        return [float(text.split("px")[0].split()[-1]) for text in rows.values()]

    until(page, lambda: abs(widths()[1] - widths()[0] - 4) < 0.02)


def test_a_call_to_action_with_a_bolder_word(hand):
    page = hand.page
    label(hand, "Hail the boat")
    hand.key("Enter")
    words = page.locator("textarea.words")
    expect(words).to_be_focused()
    hand.key("End")
    for _ in range(4):
        hand.key("Shift+ArrowLeft")
    hand.press("[data-letters]")
    expect(page.locator(".letters")).to_contain_text("boat")
    hand.press(".letters .num[aria-label=weight]")
    hand.type("800")
    hand.key("Enter")
    page.locator("#stage").focus()
    body = body_behind(hand)
    hand.choose(f"#v-parts-{body}-effects-e1-fill-kind", "linear")
    expect(page.locator("#history")).to_contain_text("linear")
    hand.press(".part.sel .head")
    hand.press("#fills-kept summary")
    hand.press("#fills button >> nth=3")
    expect(page.locator("#history")).to_contain_text("Fill of paint")
    text = next(one for one in parts(page) if one != body)
    hand.press(f".part[data-part={text}] .no")
    hand.press(f"#v-parts-{text}-effects-e1-fill-colour")
    expect(page.locator("#hex")).to_be_focused()
    hand.type("#ffffff")
    hand.key("Enter")
    expect(page.locator("#history")).to_contain_text("#ffffff")
    assert hand.count <= 27


def test_a_capsule_with_a_lightness_mask(hand):
    page = hand.page
    hand.key("b")
    hand.drag((20, 20), (160, 60))
    expect(page.locator(".part")).to_have_count(1)
    body = selected(page)
    hand.choose(f"#v-parts-{body}-shape-corners", "round")
    expect(page.locator(".part.sel p").first).not_to_contain_text("corners")
    hand.choose(f"#v-parts-{body}-effects-e1-fill-kind", "linear")
    hand.press("[data-add-effect=mask]")
    expect(page.locator(".eff.open .head")).to_contain_text("Mask")
    hand.choose(".eff.open .rows select[aria-label=its]", "lightness")
    write_stops(hand, "black 0%, white 30% 70%, black")
    expect(page.locator(".stops li")).to_have_count(4)
    expect(page.locator("#history")).to_contain_text("Wrote the stops")
    assert hand.count <= 10
    alpha = picture(page, 1)[:, :, 3]
    middle, edge = alpha[40, 90], alpha[40, 90 - 69 + 4]
    down = alpha[22:58, 90]
    assert middle > 200
    assert min(int(down.min()), int(edge)) < middle - 80


def test_a_power_symbol(hand):
    page = hand.page
    hand.key("g")
    hand.key("g")
    expect(page.locator(".part.sel p").first).to_contain_text("ring")
    ring = selected(page)
    page.locator("#stage").focus()
    typed(hand, "turn", "290")
    expect(page.locator(".part.sel p").first).to_contain_text("290")
    typed(hand, "from", "35")
    hand.choose(f"#v-parts-{ring}-shape-ends", "round")
    page.locator("#stage").focus()
    hand.key("l")
    hand.drag((90, 22), (90, 38))
    expect(page.locator(".part")).to_have_count(2)
    line = selected(page)
    typed(hand, "line width", "5")
    hand.choose(f"#v-parts-{line}-shape-caps", "round")
    page.locator("#stage").focus()
    hand.key("Control+a")
    hand.press(".several [data-do=group]")
    expect(page.locator(".part.sel[data-holds]")).to_have_count(1)
    hand.press("[data-add-effect=outer-glow]")
    expect(page.locator("#history")).to_contain_text("Added outer glow")
    assert hand.count <= 18
    alpha = picture(page, 2)[:, :, 3]
    assert alpha[60, 180] > 200, "the bar"
    assert alpha[100, 180] < 160, "the middle is open, but for the glow"


def test_a_knob_with_ten_stops_and_twenty_uneven_hairlines(hand):
    page = hand.page
    hand.key("r")
    hand.drag((60, 10), (120, 70))
    knob = selected(page)
    hand.choose(f"#v-parts-{knob}-effects-e1-fill-kind", "conic")
    hand.press(".part.sel .head")
    write_stops(hand, ", ".join(f"#{v}{v}{v} {n * 100 // 9}%" for n, v in enumerate("eaf8ed9fce")))
    expect(page.locator(".stops li")).to_have_count(10)
    page.locator("#stage").focus()
    hand.key("Escape")
    hand.key("Escape")
    hand.key("l")
    hand.drag((90, 12), (90, 18))
    expect(page.locator(".part")).to_have_count(2)
    hand.press("#more summary")
    hand.press("[data-do=repeat][data-way=around]")
    expect(page.locator(".part.sel p").first).to_contain_text("around")
    typed(hand, "copies", "20")
    expect(page.locator(".part.sel p").first).to_contain_text("20")
    typed(hand, "irregular", "60")
    expect(page.locator("#history")).to_contain_text("Irregular")
    assert hand.count <= 20


def test_a_lens_in_a_seat_with_three_linked_circles(hand):
    page = hand.page
    hand.key("r")
    hand.drag((60, 10), (120, 70))
    seat = selected(page)
    made = [seat]
    for inset in ("-6", "-10", "-16"):
        page.locator("#stage").focus()
        hand.press(f".part[data-part={seat}] .no")
        page.locator("#stage").focus()
        hand.key("k")
        expect(page.locator(".part")).to_have_count(len(made) + 1)
        made.append(selected(page))
        for size in ("wider by", "higher by"):
            typed(hand, size, inset, ".part.sel .follow")
        hand.choose(f"#v-parts-{made[-1]}-effects-e1-fill-kind", "linear")
        expect(page.locator(".part.sel .eff")).to_contain_text("linear")
        hand.press(".part.sel .head")
        expect(page.locator(f".part[data-part={made[-1]}] .eff.open")).to_have_count(1)
        write_stops(hand, ("#30383c, #8d989c", "#5d8a3c, #2d4a1c", "#fff3b0, #e0952a")[len(made) - 2])
        expect(page.locator("#history")).to_contain_text("Wrote the stops")
        expect(page.locator(f".part[data-part={made[-1]}] .stops li")).to_have_count(2)
    hand.press("#starts summary")
    hand.press(".starts button >> nth=0")
    expect(page.locator(".part.sel .eff")).to_have_count(4)
    hand.press(f".part[data-part={seat}] .no")
    expect(page.locator(f".part.sel[data-part={seat}]")).to_have_count(1)
    typed(hand, "width", "50")
    typed(hand, "height", "50")
    expect(page.locator(f".part[data-part={made[-1]}] p").first).to_contain_text("34px × 34px")
    assert hand.count <= 53


def test_a_plate_with_guides_and_an_upper_edge_of_one_pixel(hand):
    page = hand.page
    for start, end in (((-6, 30), (20, 30)), ((-6, 40), (160, 40))):
        hand.count += 1
        left = page.locator("#ruler-y").bounding_box()
        at_left = (left["x"] + 6, at(page, *start)[1])
        drag(page, at_left, at(page, *end))
    expect(page.locator("#marks .guide")).to_have_count(2)
    page.locator("#stage").focus()
    hand.key("b")
    hand.drag((20, 12), (160, 68))
    expect(page.locator(".part.sel p").first).to_contain_text("140px × 56px")
    body = selected(page)
    hand.choose(f"#v-parts-{body}-effects-e1-fill-kind", "linear")
    hand.press("[data-add-effect=inner-shadow]")
    expect(page.locator(".eff.open .head")).to_contain_text("Inner shadow")
    for name, text in (("down", "1"), ("blur", "0"), ("strength", "100")):
        typed(hand, name, text, ".eff.open .rows")
    hand.press(".eff.open .rows .colour")
    expect(page.locator("#hex")).to_be_focused()
    hand.type("#ffffff")
    hand.key("Enter")
    expect(page.locator("#history")).to_contain_text("Colour of inner shadow")
    assert hand.count <= 18
    for density in (1, 2):
        column = picture(page, density)[:, 90 * density, 0].astype(int)
        top = 12 * density
        assert (column[top : top + density] > 240).all()
        assert column[top + density] < 235


def test_a_plate_with_a_light_of_one_device_pixel_along_its_upper_edge(hand):
    page = hand.page
    hand.key("b")
    hand.drag((20, 12), (160, 68))
    expect(page.locator(".part.sel p").first).to_contain_text("140px × 56px")
    hand.press("[data-add-effect=outline]")
    expect(page.locator(".eff.open .head")).to_contain_text("Outline")
    hand.choose(".eff.open .rows select[data-path$='/sides']", "each its own")
    expect(page.locator(".eff.open .rows .num[aria-label='top width']").first).to_have_text("1")
    for side in ("right", "bottom", "left"):
        typed(hand, f"{side} width", "0", ".eff.open .rows")
        expect(page.locator(f".eff.open .rows .num[aria-label='{side} width']").first).to_have_text("0")
    hand.choose(".eff.open .rows select[data-path$='/thin']", "1 device px")
    expect(page.locator("#history")).to_contain_text("1 device px")
    assert hand.count <= 15

    def lit(density):
        """How many px are lighter than the plate, down its middle and across it."""
        shown = picture(page, density)[:, :, :3].astype(int).sum(axis=2)
        plate = shown[int(40 * density), int(90 * density)]
        inside = shown[int(12 * density) : int(68 * density), int(20 * density) : int(160 * density)] > plate + 60
        return inside[:, inside.shape[1] // 2].sum(), inside[inside.shape[0] // 2].sum()

    for density in (1, 2, 3):
        assert lit(density) == (1, 0)


def test_a_two_line_key_with_a_bay_drawn_by_the_pen(hand):
    page = hand.page
    label(hand, "Raise", "sluice")
    hand.key("b")
    hand.drag((30, 10), (150, 70))
    expect(page.locator(".part")).to_have_count(2)
    body = selected(page)
    hand.key("Escape")
    page.locator("#stage").focus()
    hand.key("p")
    for place in ((60, 10), (66, 18), (114, 18), (120, 10)):
        hand.press(place)
    hand.press((60, 10))
    expect(page.locator(".part")).to_have_count(3)
    bay = selected(page)
    hand.press(f".part[data-part={body}] .no", modifiers=["Shift"])
    expect(page.locator(".part.sel")).to_have_count(2)
    hand.press(".several [data-mode=difference]")
    expect(page.locator(".part.sel p").first).to_contain_text("difference")
    hand.press(f"#back-{selected(page)}")

    def words_are_seen():
        inside = picture(page, 2)[40:120, 120:240, :3].astype(int).sum(axis=2)
        return bool(np.ptp(inside) > 120)

    until(page, words_are_seen)
    assert bay
    assert hand.count <= 19
