"""Where findings look and how far their cures go, against the sums of boxes and outlines."""

import math

from hypothesis import assume, given
from hypothesis import strategies as st

from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, applied
from obrell.core.effects import DropShadow, Outline
from obrell.core.effects.offsets import Cast
from obrell.core.findings import found_in
from obrell.core.findings.sides import sides_of
from obrell.core.shapes import Box
from tests.making import KIT, control, part, solid

UNFITTED = KIT.evolve(fit="off")
WIDE, HIGH = 80, 60
"""The canvas, px."""
INK = solid("#204060")
quarters = st.integers(-160, 480).map(lambda value: value / 4)
lengths = st.integers(4, 360).map(lambda value: value / 4) | st.just(79.25) | st.just(59.25)
gaps = st.integers(0, 10)


def the(kind, shown):
    found = [one for one in found_in(resolve(UNFITTED, shown)) if one.kind == kind]
    assert len(found) <= 1
    return found[0] if found else None


def after(cure, shown):
    return applied(cure.edit, shown, Surroundings())


@given(quarters, quarters, lengths, lengths)
def test_what_lies_off_the_canvas_goes_the_shortest_way_onto_it(x, y, width, height):
    shown = control(part(Box(width=width, height=height), INK, x=x, y=y))
    low, high = (x - width / 2, y - height / 2), (x + width / 2, y + height / 2)
    over = [max(-a, b - most) for a, b, most in zip(low, high, (WIDE, HIGH), strict=True)]
    found = the("off-canvas", shown)
    assert (found is not None) == (max(over) > 0)
    assume(found is not None)
    apart = high[0] <= 0 or high[1] <= 0 or low[0] >= WIDE or low[1] >= HIGH
    assert ("partly" not in found.words) == apart
    fits = width <= WIDE and height <= HIGH
    assert [one.words for one in found.cures] == (["Move it onto the canvas"] if fits else [])
    assume(fits)
    moved = after(found.cures[0], shown)
    assert the("off-canvas", moved) is None
    for name, far, room in (("x", over[0], WIDE - width), ("y", over[1], HIGH - height)):
        way = abs(getattr(moved.parts[0], name) - getattr(shown.parts[0], name))
        whole = math.ceil(max(far, 0))
        assert way == (whole if whole - max(far, 0) <= room else far)


@given(gaps, gaps, gaps, gaps, st.integers(1, 8))
def test_the_canvas_grows_by_as_much_as_it_cuts_of_an_outline(left, top, right, bottom, width):
    body = Box(width=WIDE - left - right, height=HIGH - top - bottom)
    place = {"x": (WIDE + left - right) / 2, "y": (HIGH + top - bottom) / 2}
    shown = control(part(body, INK, Outline(id="e2", place="outside", width=width), **place))
    over = [max(0, width - gap) for gap in (left, top, right, bottom)]
    found = the("cut-edges", shown)
    assert (found is not None) == any(over)
    assume(found is not None)
    assert found.words == "The canvas cuts the outline of Part."
    inside, larger = found.cures
    assert (inside.words, larger.words) == ("Move it inside", "Grow the canvas")
    assert the("cut-edges", after(inside, shown)) is None
    grown = after(larger, shown)
    assert the("cut-edges", grown) is None
    assert (grown.canvas.width, grown.canvas.height) == (
        WIDE + 2 * max(over[0], over[2]), HIGH + 2 * max(over[1], over[3]),
    )  # fmt: skip


@given(st.integers(0, 20), gaps)
def test_the_canvas_grows_by_as_much_as_it_cuts_of_a_shadow(distance, gap):
    # The light comes from above.
    shadow = DropShadow(id="e2", offset=Cast(distance=distance), blur=0, spread=0, opacity=1)
    body = part(Box(width=20, height=20), INK, shadow, y=HIGH - 10 - gap)
    shown = control(body, part(Box(width=20, height=20), INK, shadow, x=10 + gap, y=HIGH - 10 - gap, id="p2"))
    found = the("cut-edges", shown)
    assert (found is not None) == (distance > gap)
    assume(found is not None)
    assert found.words == "The canvas cuts the drop shadow of Part and 1 more."
    assert found.parts == ("p1", "p2")
    (larger,) = found.cures
    grown = after(larger, shown)
    assert (grown.canvas.width, grown.canvas.height) == (WIDE, HIGH + 2 * (distance - gap))


def soft(places, density):
    return {at for at in places if abs(at * density - round(at * density)) > 0.01}


@given(
    quarters, st.integers(16, 200).map(lambda value: value / 4), st.integers(0, 24).map(lambda value: value / 4),
    st.sampled_from([("outside", 1.0), ("centre", 0.5), ("inside", 0.0)]), st.sampled_from([1.0, 1.5, 2.0]),
)  # fmt: skip
def test_sides_are_counted_and_named_where_the_sums_have_them(x, width, line, place, density):
    named, share = place
    outline = (Outline(id="e2", place=named, width=line),) if line else ()
    shown = resolve(UNFITTED, control(part(Box(width=width, height=20), INK, *outline, x=x, y=30)))
    own = {x - width / 2: "left", x + width / 2: "right"}
    rims = [side * (width / 2 + grown) for grown in (line * share, line * (share - 1)) for side in (-1, 1) if line]
    lines = {x + rim: f"{'left' if rim < 0 else 'right'} of the outline" for rim in rims} | own
    assume(not line or line * 2 < width)
    expected = [lines[at] for at in sorted(lines) if at in soft(lines, density)]
    found = sides_of(shown, shown.control.parts[0], density)
    assert [name for name in found.soft if "left" in name or "right" in name] == expected
    turned = shown.control.parts[0].evolve(rotation=30)
    assert (sides_of(shown, turned, density).count, sides_of(shown, turned, density).soft) == (0, ())
