"""What is typed, pressed and turned arrives, and nothing else happens: also while the server's answers are late."""

import os

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from playwright.sync_api import expect

from obrell.core.values.colours import unlinked
from obrell.store.kits import Kits
from tests.browser.hand import until, value
from tests.late import LATENESS, hold_back

STREAMS = int(os.environ.get("OBRELL_STREAMS", "50"))
"""Generated sequences for each lateness."""
LATE = pytest.mark.parametrize("late", LATENESS, ids=lambda late: "-".join(map(str, late)))
BOX = ("x", "y", "shape/width", "shape/height", "opacity")


class Desk:
    """One box on the Bench, and what is stored of it."""

    def __init__(self, hand, server):
        self.hand, self.page, self.server = hand, hand.page, server
        self.box = hand.put("b", (20, 20), (80, 60))
        address = hand.page.url.split("?")[0].split("/")
        self.kit, self.control = address[-3], address[-1]
        self.kits = Kits(server.data)

    def part(self):
        return self.kits.control(self.kit, self.control).control.parts[0]

    def stored(self):
        part = self.part()
        shape, colour = part.shape, unlinked(part.effects[0].fill.colour)
        numbers = part.x, part.y, shape.width, shape.height, round(part.opacity * 100)
        return {**dict(zip(BOX, numbers, strict=True)), "colour": colour}

    def press(self, path):
        """Press a value where it is now, without waiting for anything."""
        name = f"v-parts-{self.box}-{path.replace('/', '-')}"
        spot = self.page.evaluate(
            "name => document.getElementById(name).getBoundingClientRect().toJSON()", name
        )  # fmt: skip
        self.page.mouse.click(spot["x"] + spot["width"] / 2, spot["y"] + spot["height"] / 2)

    def press_colour(self):
        self.press("effects/e1/fill/colour")

    def type(self, text, end="Enter"):
        self.page.keyboard.type(text)
        if end:
            self.page.keyboard.press(end)

    def close(self):
        self.kits.close()


@pytest.fixture
def desk(hand, common_server):
    made = Desk(hand, common_server)
    hand.page.locator(".part.sel .eff .head").first.click()
    expect(hand.page.locator(".eff.open")).to_be_visible()
    until(hand.page, lambda: hand.page.locator(f"#v-parts-{made.box}-effects-e1-fill-colour").count() == 1)
    yield made
    made.close()


def keeps(desk, typed, colour):
    """A colour is pressed and typed at once, and is what is stored then."""
    desk.press_colour()
    desk.type(typed)
    until(desk.page, lambda: desk.stored()["colour"] == colour)


@LATE
def test_a_colour_typed_right_after_the_press_is_the_one_that_is_kept(desk, common_server, late):
    hold_back(common_server.data, late)
    keeps(desk, "#ffe3bd", "#ffe3bd")
    keeps(desk, "hsl(270 50% 40%)", "#663399")
    desk.press_colour()
    desk.type("#33bbdd", end="")
    desk.press("x")
    desk.type("44")
    until(desk.page, lambda: (desk.stored()["colour"], desk.stored()["x"]) == ("#33bbdd", 44))


@LATE
def test_what_is_no_colour_stays_to_be_mended(desk, common_server, late):
    hold_back(common_server.data, late)
    desk.press_colour()
    desk.type("#12")
    expect(desk.page.locator("#chooser .fault")).not_to_be_empty()
    expect(desk.page.locator("#hex")).to_have_value("#12")
    desk.type("3456")
    until(desk.page, lambda: desk.stored()["colour"] == "#123456")


@LATE
def test_an_opacity_typed_with_a_colour_arrives_also_when_it_is_whole_again(desk, common_server, late):
    hold_back(common_server.data, late)
    for typed, opacity in (("#ff000080", 0.5), ("#00ff00ff", 1.0)):
        keeps(desk, typed, typed[:7])
        until(desk.page, lambda wanted=opacity: desk.part().effects[0].opacity == wanted)
        expect(value(desk.page, f"parts/{desk.box}/effects/e1/opacity").first).to_have_text(f"{opacity * 100:g}")


def test_a_value_turned_right_after_a_sum_is_turned_from_what_that_comes_to(desk, common_server):
    hold_back(common_server.data, (700,))
    before = desk.stored()["x"]
    desk.press("x")
    desk.type(f"{before:g} + 20")
    desk.page.keyboard.press("ArrowUp")
    until(desk.page, lambda: desk.stored()["x"] == before + 21)


def test_a_value_that_comes_to_what_it_was_is_shown_as_it_is_stored(desk):
    shown = value(desk.page, f"parts/{desk.box}/x")
    was = shown.inner_text()
    desk.press("x")
    desk.type(f"{was}.0 + 0")
    expect(shown).to_have_text(was)
    expect(shown).not_to_have_class("v num pending")


@LATE
def test_values_typed_one_after_the_other_all_arrive(desk, common_server, late):
    hold_back(common_server.data, late)
    for number, path in enumerate(BOX):
        desk.press(path)
        desk.type(str(50 + number))
    wanted = {path: 50 + number for number, path in enumerate(BOX)}
    until(desk.page, lambda: {path: desk.stored()[path] for path in BOX} == wanted)
    for number, path in enumerate(BOX):
        expect(value(desk.page, f"parts/{desk.box}/{path}")).to_have_text(str(50 + number))


@LATE
def test_once_a_value_is_kept_letters_are_commands_and_digits_a_new_value(desk, common_server, late):
    hold_back(common_server.data, late)
    desk.page.locator("[data-zoom='2']").click()
    desk.press("x")
    desk.type("33")
    desk.type("71")
    until(desk.page, lambda: desk.stored()["x"] == 71)
    desk.page.keyboard.press("f")
    until(desk.page, lambda: desk.page.locator("#zoom-now").inner_text() != "2:1")


def test_what_is_refused_is_opened_again_with_what_was_typed(desk):
    desk.press("shape/width")
    desk.type("none")
    field = desk.page.locator(f"input#v-parts-{desk.box}-shape-width")
    expect(field).to_have_value("none")
    expect(desk.page.locator("#fault")).not_to_be_empty()
    field.fill("52")
    field.press("Enter")
    until(desk.page, lambda: desk.stored()["shape/width"] == 52)


def test_the_wheel_leaves_a_value_that_was_kept_alone(desk):
    desk.press("x")
    desk.type("40")
    until(desk.page, lambda: desk.stored()["x"] == 40)
    expect(value(desk.page, f"parts/{desk.box}/x")).to_have_text("40")
    value(desk.page, f"parts/{desk.box}/x").hover()
    before = desk.kits.history(desk.kit, desk.control).shown[0].number
    # Sideways, so that the sheet does not scroll away below the next press.
    desk.page.mouse.wheel(120, 0)
    desk.press("y")
    desk.type("41")
    until(desk.page, lambda: desk.stored()["y"] == 41)
    assert desk.stored()["x"] == 40
    assert desk.kits.history(desk.kit, desk.control).shown[0].number == before + 1


def test_letters_in_a_choice_are_commands_and_undo_lives(desk):
    blend = desk.page.locator(f"#v-parts-{desk.box}-blend")
    blend.focus()
    desk.page.keyboard.press("ArrowDown")
    until(desk.page, lambda: desk.part().blend != "normal")
    chosen = desk.part().blend
    blend.focus()
    desk.page.keyboard.press("m")
    expect(desk.page.locator("#looks")).to_be_visible()
    desk.page.locator("#looks-close").click()
    assert desk.part().blend == chosen
    blend.focus()
    desk.page.keyboard.press("Control+z")
    until(desk.page, lambda: desk.part().blend == "normal")


def test_a_value_that_is_pressed_keeps_its_row_and_all_below_it_where_they_are(desk):
    places = "[...document.querySelectorAll('#sheet .part.sel [id]')].map(n => [n.id, n.getBoundingClientRect().top])"
    before = dict(desk.page.evaluate(places))
    desk.press("x")
    expect(desk.page.locator("input.typing")).to_be_focused()
    after = dict(desk.page.evaluate(places))
    moved = {name for name in before.keys() & after.keys() if abs(before[name] - after[name]) > 2}
    assert moved <= {f"v-parts-{desk.box}-x"}
    desk.page.keyboard.press("Escape")


def test_a_name_field_stays_as_wide_as_it_is_while_it_is_typed_in(desk):
    desk.page.locator("#more-states summary").click()
    field = desk.page.locator("#own-state input")
    before = field.bounding_box()["width"]
    field.fill("a")
    assert field.bounding_box()["width"] == before
    field.fill("A name of many words")
    assert field.bounding_box()["width"] == before


@LATE
def test_delete_with_an_effect_open_takes_that_effect(desk, common_server, late):
    desk.page.locator("#sheet [data-add-effect=gloss]").click()
    until(desk.page, lambda: len(desk.part().effects) == 2)
    expect(desk.page.locator(".eff.open")).to_contain_text("Gloss")
    hold_back(common_server.data, late)
    desk.page.locator("#stage").focus()
    desk.page.keyboard.press("Delete")
    until(desk.page, lambda: [one.kind for one in desk.part().effects] == ["paint"])


def test_the_pen_is_taken_by_its_letter_and_true_pixels_by_theirs(desk):
    desk.page.locator("#stage").focus()
    desk.page.keyboard.press("Escape")
    desk.page.keyboard.press("x")
    expect(desk.page.locator("#true")).to_have_attribute("aria-pressed", "true")
    desk.page.keyboard.press("p")
    expect(desk.page.locator("#sheet [data-draw=pen]")).to_have_attribute("aria-pressed", "true")


NUMBERS = st.integers(20, 60).map(str)
HEX = st.integers(0, 0xFFFFFF).map("#{:06x}".format)
TYPED = st.tuples(st.just("type"), st.sampled_from(BOX), NUMBERS, st.sampled_from(["Enter", "Tab", ""]))
TURNED = st.tuples(st.just("turn"), st.sampled_from(BOX[:4]), st.integers(1, 4), st.sampled_from(["Enter", "Tab"]))
COLOUR = st.tuples(st.just("colour"), st.just("colour"), HEX, st.sampled_from(["Enter", ""]))
UNDO = st.tuples(st.just("undo"), st.just(""), st.just(""), st.just(""))
STREAM = st.lists(st.one_of(TYPED, TYPED, TURNED, COLOUR, UNDO), min_size=1, max_size=6)


class Model:
    """What has to come out."""

    def __init__(self, values):
        self.steps = [values]

    def set(self, path, new):
        if self.steps[-1][path] != new:
            self.steps.append({**self.steps[-1], path: new})

    def do(self, kind, path, what, end):
        if kind == "undo":
            self.steps.pop()
        elif kind == "turn":
            self.set(path, self.steps[-1][path] + what)
        else:
            self.set(path, what if kind == "colour" else float(what))


def act(desk, kind, path, what, end):
    """The same by hand, as fast as the machine goes."""
    if kind == "undo":
        desk.page.locator("#sheet .laying b").click()
        desk.page.keyboard.press("Control+z")
        return
    if kind == "colour":
        desk.press_colour()
        desk.type(what, end)
        return
    if kind == "turn":
        # It is turned from what is seen, so what was done before has to be seen.
        desk.page.wait_for_selector("html:not([data-unsettled])")
    desk.press(path)
    if kind == "turn":
        desk.page.keyboard.press("Escape")
        for _ in range(what):
            desk.page.keyboard.press("ArrowUp")
        desk.page.keyboard.press(end)
    else:
        desk.type(what, end)


def comes_to(desk, model, stream):
    """What is stored is what was meant; if not, both are said."""
    wanted = model.steps[-1]
    try:
        until(desk.page, lambda: desk.stored() == wanted)
    except AssertionError:
        assert desk.stored() == wanted, (stream, model.steps[0], desk.stored())


@LATE
def test_any_stream_of_typing_and_pressing_comes_out_as_it_was_meant(desk, common_server, late):
    hold_back(common_server.data, late)

    @settings(max_examples=STREAMS, suppress_health_check=list(HealthCheck))
    @given(STREAM)
    def streams(stream):
        model = Model(desk.stored())
        open_at = ""
        for one in stream:
            # Pressed again, a value that is typed is not begun anew.
            if open_at and open_at == one[1]:
                desk.page.keyboard.press("Enter")
            open_at = one[1] if one[3] == "" else ""
            # What was there before is not taken back.
            if one[0] != "undo" or len(model.steps) > 1:
                act(desk, *one)
                model.do(*one)
        desk.page.locator("#sheet .laying b").click()
        desk.page.wait_for_selector("html:not([data-unsettled])")
        comes_to(desk, model, stream)

    streams()
