"""Journeys: states, from one that is made to a pair that is delivered in one box."""

import re

from playwright.sync_api import expect

from tests.browser.hand import (
    LOCK,
    Held,
    another_window,
    at,
    drag,
    front,
    stage_colour,
    steps_done,
    type_value,
    until,
    value,
    wait_for_frame,
)


def test_a_state_stores_what_differs_and_follows_rest_in_all_else(hand):
    page = hand.page
    body = hand.put("b", (20, 20), (100, 60))
    add_state(page, "Pressed")
    expect(page.locator("#drawn-state")).to_contain_text("nothing differs from rest")
    hand.select(body)
    page.locator("#stage").focus()
    page.keyboard.press("ArrowDown")
    expect(page.locator("#drawn-state")).to_contain_text("1 value differs from rest")
    page.locator("#differs summary").click()
    expect(page.locator("#differs li")).to_contain_text("lies 1 px lower")
    type_value(page, f"parts/{body}/shape/radius", "12")
    expect(page.locator("#differs li")).to_have_count(2)
    expect(page.locator(f"#rest-{body}")).to_contain_text("2 differ")
    # Rest goes on: what differs stays, what does not follows.
    page.locator("#state-rest").click()
    expect(page.locator("#state-sign")).to_be_hidden()
    expect(value(page, f"parts/{body}/shape/radius")).not_to_have_text("12")
    type_value(page, f"parts/{body}/y", "44")
    type_value(page, f"parts/{body}/shape/width", "70")
    page.locator("#state-pressed").click()
    expect(value(page, f"parts/{body}/y")).to_have_text("45")
    expect(value(page, f"parts/{body}/shape/width")).to_have_text("70")
    expect(value(page, f"parts/{body}/shape/radius")).to_have_text("12")
    # One press returns a value, one more all of it; Undo brings it back.
    page.locator(f"#rest-v-parts-{body}-shape-radius").click()
    expect(page.locator("#differs li")).to_have_count(1)
    page.get_by_role("button", name="All as at rest").click()
    expect(page.locator("#drawn-state")).to_contain_text("nothing differs")
    page.locator("#undo").click()
    expect(page.locator("#drawn-state")).to_contain_text("1 value differs")
    page.reload()
    wait_for_frame(page)
    expect(page.locator("#state-sign")).to_have_text("Pressed")
    expect(value(page, f"parts/{body}/y")).to_have_text("45")
    page.locator("#state-rest").click()
    page.locator("#state-sign").wait_for(state="hidden")
    page.keyboard.press("Control+z")
    expect(page.locator("#state-pressed small")).to_have_text("1 differs")
    until(page, lambda: steps_done(page).count() > 0)


def test_what_is_done_goes_to_several_states_and_parts_come_and_go_in_one(hand):
    page = hand.page
    body = hand.put("b", (20, 20), (100, 60))
    for name in ("Hover", "On"):
        add_state(page, name)
    page.locator("[data-also=hover]").click()
    expect(page.locator("[data-also=hover]")).to_have_attribute("aria-pressed", "true")
    hand.select(body)
    type_value(page, f"parts/{body}/opacity", "60")
    expect(page.locator("#state-hover small")).to_have_text("1 differs")
    expect(page.locator("#state-on small")).to_have_text("1 differs")
    page.locator("[data-also=hover]").click()
    lens = hand.draw("r", (40, 30), (60, 50))
    expect(page.locator("#state-hover small")).to_have_text("1 differs")
    expect(page.locator("#state-on small")).to_have_text("2 differ")
    page.locator("#state-rest").click()
    expect(page.locator(f'[data-part="{lens}"]')).to_have_count(0)
    # Both together, with something of their own on top.
    add_state(page, "On + hover")
    expect(page.locator(f'.part[data-part="{lens}"]')).to_have_count(1)
    hand.select(lens)
    page.locator("#stage").focus()
    page.keyboard.press("Delete")
    expect(page.locator(f'.part[data-part="{lens}"]')).to_have_count(0)
    page.locator("#state-on").click()
    expect(page.locator(f'.part[data-part="{lens}"]')).to_have_count(1)


def test_states_are_named_and_removed_and_what_is_wrong_is_said(hand):
    page = hand.page
    add_state(page, "Focus")
    page.locator("#state-name").fill("Lamp lit")
    page.locator("#state-name").press("Enter")
    expect(page.locator("#state-focus b")).to_have_text("Lamp lit")
    page.locator("#own-state input").fill("lamp lit")
    page.locator("#own-state button").click()
    expect(page.locator("#fault")).to_contain_text("called “lamp lit” already")
    page.get_by_role("button", name="Duplicate", exact=True).click()
    expect(page.locator("#state-sign")).to_have_text("Lamp lit 2")
    page.locator("#state-doings").get_by_role("button", name="Remove").click()
    expect(page.locator(".state")).to_have_count(2)
    expect(page.locator("#state-sign")).to_be_hidden()
    page.get_by_role("button", name="Take it back").click()
    expect(page.locator(".state")).to_have_count(3)


def test_what_a_state_begins_with_is_seen_before_it_is_kept(hand):
    page = hand.page
    hand.put("b", (20, 20), (100, 60))
    page.locator("#more-states summary").click()
    before = stage_colour(page, 30, 61)
    word = page.locator("[data-start=pressed]")
    word.hover()
    until(page, lambda: stage_colour(page, 60, 60.5)[3] > 200)
    expect(page.locator(".state")).to_have_count(1)
    page.locator("#stage").hover()
    until(page, lambda: stage_colour(page, 30, 61) == before)
    word.click()
    expect(page.locator("#state-sign")).to_have_text("Pressed")
    expect(page.locator("#state-pressed small")).to_have_text("1 differs")
    # An empty one is begun the same way.
    add_state(page, "Ready")
    page.locator("#drawn-state [data-start=hover]").click()
    expect(page.locator("#state-ready small:not(.role)")).to_contain_text("differ")


def test_a_state_is_seen_beside_rest(hand):
    page = hand.page
    body = hand.put("b", (20, 20), (100, 60))
    add_state(page, "Pressed")
    hand.select(body)
    type_value(page, f"parts/{body}/opacity", "40")
    page.locator("#stage").focus()
    page.keyboard.press("Escape")
    until(page, lambda: stage_colour(page, 60, 40)[3] < 150)
    down = stage_colour(page, 60, 40)
    # In turns.
    page.keyboard.press("c")
    until(page, lambda: stage_colour(page, 60, 40)[3] > down[3] + 90)
    until(page, lambda: stage_colour(page, 60, 40) == down)
    page.locator("#beside-flicker").click()
    expect(page.locator("#beside-flicker")).to_have_attribute("aria-pressed", "false")
    until(page, lambda: stage_colour(page, 60, 40) == down)
    # Where they differ: hot on the body, cold beside it.
    page.locator("#beside-difference").click()
    until(page, lambda: stage_colour(page, 60, 40)[0] > 180)
    page.locator("#beside-difference").click()
    until(page, lambda: stage_colour(page, 60, 40) == down)
    # In halves, rest at the left.
    page.locator("#beside-halves").click()
    expect(page.locator("#halves-line")).to_contain_text("rest")
    until(page, lambda: page.locator("#before").is_visible())
    page.locator("#beside-halves").click()
    page.get_by_role("button", name="all states …").click()
    expect(page.locator("#aside figure")).to_have_count(2)
    plain = page.locator("#aside img").last.get_attribute("src")
    page.get_by_role("button", name="differences from rest").click()
    expect(page.locator("#aside img").last).not_to_have_attribute("src", plain)
    until(page, lambda: page.locator("#aside img").last.evaluate("node => node.naturalWidth") > 0)
    page.locator("#aside [data-draws=rest]").click()
    expect(page.locator("#state-sign")).to_be_hidden()


def test_two_windows_in_two_states(hand):
    page = hand.page
    body = hand.put("b", (20, 20), (100, 60))
    add_state(page, "Pressed")
    other = another_window(page, "state=pressed")
    front(page)
    hand.select(body)
    drag(page, at(page, 60, 40), at(page, 60, 50))
    expect(page.locator("#drawn-state")).to_contain_text("1 value differs")
    expect(other.locator("#state-pressed small")).to_have_text("1 differs")
    front(other).locator(f'.part[data-part="{body}"] .no').click()
    type_value(other, f"parts/{body}/shape/width", "64")
    expect(value(page, f"parts/{body}/shape/width")).to_have_text("64")
    # The state that one of them draws goes: it draws rest from then on.
    other.locator("#state-pressed").click()
    other.locator("#state-doings").get_by_role("button", name="Remove").click()
    expect(page.locator("#state-sign")).to_be_hidden()
    expect(page.locator(".state")).to_have_count(1)


def test_a_movement_is_timed_scrubbed_and_played(hand):
    page = hand.page
    body = hand.put("b", (20, 20), (60, 60))
    add_state(page, "Pressed")
    hand.select(body)
    type_value(page, f"parts/{body}/x", "80")
    page.locator("#movement summary").click()
    expect(page.locator("#movement .told")).to_contain_text("Travels place across of Box")
    expect(page.locator("[data-moment]")).to_have_count(5)
    expect(page.locator("[data-moment]").last).to_contain_text("160 ms")
    page.locator("#easing-css").fill("linear")
    page.locator("#easing-css").press("Enter")
    expect(page.locator("#moving img").nth(1)).to_be_visible()
    # Half of the way at half of the time; the end is what is drawn, and can be edited.
    page.locator("[data-moment]").nth(2).click()
    until(page, lambda: [stage_colour(page, x, 40)[3] > 200 for x in (36, 42, 78, 84)] == [False, True, True, False])
    page.locator("#playhead").press("End")
    until(page, lambda: stage_colour(page, 98, 40)[3] > 200)
    page.locator("#playhead").press("Home")
    until(page, lambda: stage_colour(page, 22, 40)[3] > 200)
    page.locator("[data-speed='0.125']").click()
    expect(page.locator(".playing output")).to_have_text("160 ms")
    until(page, lambda: stage_colour(page, 98, 40)[3] > 200)
    # A timing of its own, its handles dragged and nudged, and what is no easing refused.
    page.get_by_role("button", name="Of its own").click()
    type_value(page, "transitions/rest-to-pressed/duration", "400")
    expect(page.locator("[data-moment]").last).to_contain_text("400 ms")
    page.locator("#movement").get_by_role("button", name="curve", exact=True).click()
    expect(page.locator("#easing-css")).to_have_value("ease-in-out")
    handle = page.locator("#easing-plot-0")
    handle.focus()
    page.keyboard.press("Shift+ArrowUp")
    expect(page.locator("#easing-css")).to_have_value("cubic-bezier(0.42, 0.1, 0.58, 1)")
    box = handle.bounding_box()
    start = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    drag(page, start, (start[0] + 15, start[1] - 40))
    expect(page.locator("#easing-css")).to_have_value(re.compile(r"cubic-bezier\(0\.52, 0\.6"))
    page.locator("#easing-css").fill("bouncy")
    page.locator("#easing-css").press("Enter")
    expect(page.locator("#fault")).to_contain_text("An easing is a name such as ease-out")
    expect(page.locator("#easing-css")).to_have_value(re.compile("cubic-bezier"))
    page.get_by_role("button", name="As all others").click()
    expect(page.locator("#easing-css")).to_have_value("linear")
    page.locator("#undo").click()
    expect(page.locator("#easing-css")).to_have_value(re.compile("cubic-bezier"))
    # Rest, seen from the other side; closed, the build-up is back.
    page.locator("#state-rest").click()
    expect(page.locator("#moving h2")).to_contain_text("Pressed to rest")
    page.locator("#movement summary").click()
    expect(page.locator("#moving")).to_be_hidden()
    expect(page.locator("#strip")).to_be_visible()


def test_where_it_is_touched_is_seen_on_the_stage_and_set(hand):
    page = hand.page
    hand.put("b", (20, 20), (100, 60))
    hand.command("touch area")
    expect(page.locator("#touch")).to_contain_text("What is touched is its body.")
    page.get_by_role("button", name="grown from its body").click()
    expect(page.locator("#touch summary b")).to_have_text("96 × 56")
    expect(page.locator("#marks .touch")).to_have_count(1)
    type_value(page, "touch/by", "12")
    expect(page.locator("#touch summary b")).to_have_text("104 × 64")
    page.locator("#touch").get_by_role("button", name="a round").click()
    type_value(page, "touch/width", "0")
    expect(page.locator("#fault")).to_contain_text("Width")
    expect(page.locator("#touch summary b")).to_have_text("96 × 56")
    page.get_by_role("button", name="Its body again").click()
    expect(page.locator("#marks .touch")).to_have_count(0)
    page.locator("#undo").click()
    expect(page.locator("#marks .touch")).to_have_count(1)


def test_a_state_is_given_to_other_controls(page, server):
    page.goto(f"{server.url}{LOCK}/controls/c1?state=disabled")
    wait_for_frame(page)
    page.locator("#state-doings [data-aside=share]").click()
    form = page.locator("#share-form")
    expect(form.locator("[value=c13]")).to_be_disabled()
    page.get_by_role("button", name="Give it to them").click()
    expect(form.locator(".fault")).to_contain_text("Choose at least one control")
    form.locator("[value=c9]").check()
    page.get_by_role("button", name="Give it to them").click()
    expect(page.locator("#said")).to_contain_text("“Disabled” as Raise sluice has it: 1 control")
    expect(form).to_be_hidden()
    page.goto(f"{server.url}{LOCK}/controls/c9?state=disabled")
    wait_for_frame(page)
    expect(page.locator("#state-sign")).to_have_text("Disabled")
    page.locator("#undo").click()
    expect(page.locator("#state-sign")).to_be_hidden()
    expect(page.locator("#state-disabled")).to_have_count(0)


def test_a_piece_is_seen_before_it_is_begun(hand):
    page = hand.page
    word = page.get_by_role("button", name="toggle", exact=True)
    word.hover()
    until(page, lambda: stage_colour(page, 60, 48)[3] > 200)
    expect(page.locator(".part")).to_have_count(0)
    page.locator("#stage").hover()
    until(page, lambda: stage_colour(page, 60, 48)[3] == 0)
    word.click()
    expect(page.locator(".part")).to_have_count(2)
    expect(page.locator("#state-on")).to_be_visible()
    expect(word).to_have_count(0)
    page.locator("#undo").click()
    word.click()
    expect(page.locator(".part")).to_have_count(2)


def test_a_pointer_is_driven_by_hand_at_two_places_and_delivered_as_frames(hand):
    page = hand.page
    pointer = hand.put("b", (56, 30), (64, 60))
    page.locator("#readings summary").click()
    page.locator("#readings [name=name]").fill("Level")
    page.get_by_role("button", name="Add a reading").click()
    expect(page.locator("#read-level")).to_be_visible()
    page.locator("#drive-level").select_option(f"parts/{pointer}/rotation")
    page.get_by_role("button", name="of what is selected").click()
    expect(page.locator(".reading li")).to_contain_text("Turn of Box")
    turn = f"parts/{pointer}/rotation"
    type_value(page, turn, "-90")
    page.locator("#read-level").focus()
    page.keyboard.press("End")
    expect(value(page, turn)).to_have_text("0")
    type_value(page, turn, "90")
    ends = page.locator(".reading li input:not([type=hidden])")
    expect(ends.nth(0)).to_have_value("-90")
    expect(ends.nth(1)).to_have_value("90")
    until(page, lambda: stage_colour(page, 72, 45)[3] > 200)
    page.locator("#read-level").focus()
    for _ in range(5):
        page.keyboard.press("PageDown")
    expect(value(page, turn)).to_have_text("0")
    until(page, lambda: stage_colour(page, 72, 45)[3] == 0)
    expect(page.locator(".driven").first).to_contain_text("Level")
    # Slowly at first: half of the reading is a quarter of the way.
    page.get_by_role("button", name="along a curve").click()
    middle = page.locator(".reading .curve circle").nth(1)
    middle.focus()
    for key in ("Shift+ArrowDown", "Shift+ArrowDown", *["ArrowDown"] * 5):
        page.keyboard.press(key)
    expect(middle).to_have_attribute("aria-label", re.compile(r"at 0\.5, 0\.25"))
    expect(value(page, turn)).to_have_text(re.compile("^(-45|−45)"))
    page.get_by_role("button", name="go straight").click()
    expect(value(page, turn)).to_have_text("0")
    # What makes no sense is said, and nothing is changed.
    page.locator("#v-readings-level-end").click()
    page.keyboard.type("0")
    page.keyboard.press("Enter")
    expect(page.locator("#fault")).to_contain_text("two ends that differ")
    control = page.url.split("?")[0].rsplit("/", 1)[-1]
    page.goto(page.url.split("/controls")[0] + f"/deliver?control={control}")
    page.locator("[name=frames]").fill("5")
    expect(page.locator("#count")).to_have_text("25")
    expect(page.locator("#examples")).to_contain_text("level-4.1.png")
    page.locator("[name=frames]").fill("9999")
    expect(page.locator("#files [role=alert]")).to_contain_text("256 or less")


def test_a_thumb_goes_along_an_arc_and_stays_on_it(hand):
    page = hand.page
    arc = hand.put("r", (20, 20), (100, 80))
    thumb = hand.put("r", (55, 40), (65, 50))
    page.locator("#readings summary").click()
    page.locator("#readings [name=name]").fill("Level")
    page.get_by_role("button", name="Add a reading").click()
    page.locator("#along-level").select_option(arc)
    page.get_by_role("button", name="with Level").click()
    expect(page.locator(".reading li")).to_contain_text("Place of Round 2 along Round")
    start, end = page.locator(".reading li input:not([type=hidden])").all()
    # What is typed while the value before it is still being saved stays.
    held = Held(page, "**/edits")
    start.fill("0")
    start.press("Enter")
    until(page, held.arrived)
    end.fill("50")
    held.let_go()
    expect(start).to_have_attribute("value", "0")
    expect(end).to_have_value("50")
    end.press("Enter")
    expect(end).to_have_attribute("value", "50")
    places = []
    for key in ("Home", "End"):
        page.locator("#read-level").focus()
        page.keyboard.press(key)
        want = "100" if key == "Home" else "20"
        expect(value(page, f"parts/{thumb}/x")).to_have_text(want)
        places.append(value(page, f"parts/{thumb}/y").inner_text())
    assert places == ["50", "50"]
    # The arc is drawn narrower: the thumb goes with it. Dragged off it, it stays on it.
    hand.select(arc)
    type_value(page, f"parts/{arc}/shape/width", "40")
    hand.select(thumb)
    expect(value(page, f"parts/{thumb}/x")).to_have_text("40")
    drag(page, at(page, 40, 50), at(page, 60, 90))
    expect(value(page, f"parts/{thumb}/x")).to_have_text("60")
    expect(value(page, f"parts/{thumb}/y")).to_have_text("80")
    page.locator("#undo").click()
    expect(value(page, f"parts/{thumb}/x")).to_have_text("40")


def add_state(page, name):
    """One in which nothing differs yet."""
    if not page.locator("#own-state input").is_visible():
        page.locator("#more-states summary").click()
    if " + " in name:
        page.get_by_role("button", name=name, exact=True).click()
    else:
        page.locator("#own-state input").fill(name)
        page.locator("#own-state button").click()
    expect(page.locator("#state-sign")).to_have_text(name)
