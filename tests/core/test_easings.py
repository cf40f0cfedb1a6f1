"""Easings: the formulas of CSS Easing Functions 2, as closed forms and as Chromium has them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.errors import BadValue
from obrell.core.values.easings import NAMED, Bezier, Steps, Stops, css_of, easing_from
from obrell.core.values.transitions import Timing

SHARES = st.floats(0, 1)
WRITTEN = (
    "linear", "ease", "ease-in", "ease-out", "ease-in-out", "step-start", "step-end", "cubic-bezier(0.2, 0, 0, 1)",
    "cubic-bezier(0.3, -0.4, 0.6, 1.6)", "steps(4)", "steps(3, jump-both)", "steps(3, jump-none)",
    "steps(2, jump-start)", "steps(5, end)", "linear(0, 0.25, 1)", "linear(0, 0.25 75%, 1)",
    "linear(0, 1.2 40% 60%, 1)", "linear(0 20%, 0.5, 0.7, 1 80%)", "linear(0, 0.8 50%, 0.2 30%, 1)",
    "linear(0 -50%, 1 150%)", "linear(-0.2 -10%, 0.6 30%, 1 140%)",
)  # fmt: skip


@given(st.tuples(SHARES, st.floats(-2, 2), SHARES, st.floats(-2, 2)), SHARES)
def test_a_curve_is_where_its_own_parameter_says(handles, t):
    x1, y1, x2, y2 = handles
    x, y = (3 * (1 - t) ** 2 * t * a + 3 * (1 - t) * t * t * b + t**3 for a, b in ((x1, x2), (y1, y2)))
    slope = 3 * (1 - t) ** 2 * x1 + 6 * (1 - t) * t * (x2 - x1) + 3 * t * t * (1 - x2)
    if slope > 0.05:
        assert Bezier(x1=x1, y1=y1, x2=x2, y2=y2).at(x) == pytest.approx(y, abs=1e-4)


@pytest.mark.parametrize(
    ("jump", "expected"),
    [("end", (0, 0, 1 / 3, 2 / 3, 1)), ("start", (1 / 3, 1 / 3, 2 / 3, 1, 1)), ("none", (0, 0, 1 / 2, 1, 1)),
     ("both", (1 / 4, 1 / 4, 1 / 2, 3 / 4, 1))],
)  # fmt: skip
def test_steps_jump_where_they_are_told_to(jump, expected):
    steps = Steps(count=3, jump=jump)
    assert [steps.at(share) for share in (0, 0.33, 0.34, 0.67, 1)] == pytest.approx(expected)


def test_stops_go_straight_and_two_at_one_time_jump():
    stops = easing_from("linear(0, 0.25 50%, 0.75 50%, 1)")
    assert [stops.at(share) for share in (0, 0.25, 0.5, 0.75, 1)] == [0, 0.125, 0.75, 0.875, 1]


def test_stops_may_lie_before_the_beginning_and_after_the_end():
    stops = easing_from("linear(0 -50%, 1 150%)")
    assert [stops.at(share) for share in (0, 0.5, 1)] == [0.25, 0.5, 0.75]


@pytest.mark.parametrize("text", WRITTEN)
def test_what_is_written_is_read_again(text):
    easing = easing_from(text)
    assert css_of(easing_from(css_of(easing))) == css_of(easing)
    assert easing_from(easing.css()).at(0.3) == pytest.approx(easing.at(0.3), abs=1e-3)


@pytest.mark.parametrize(
    "text",
    ["", "bouncy", "cubic-bezier(2, 0, 0, 1)", "cubic-bezier(0, 0, 1)", "steps(0)", "steps(1, jump-none)",
     "steps(2, 3)", "steps(2, end, end)", "linear(1)", "linear(0, 1 2 3)", "linear(0, x%)", "linear(", "ease; color"],
)  # fmt: skip
def test_what_is_no_easing_is_refused_in_words(text):
    with pytest.raises(BadValue, match="An easing is a name such as ease-out"):
        easing_from(text)


def test_chromium_goes_the_same_way(chromium):
    """A paused animation of a width, looked at after a share of its time."""
    page = chromium.new_page()
    page.set_content("<style>@keyframes k{from{width:0}to{width:1000px}}</style><div id='d'></div>")
    for text in WRITTEN:
        for share in (0.05, 0.25, 0.5, 0.62, 0.9):
            width = page.evaluate(
                """([text, share]) => {
                const node = document.getElementById('d');
                node.style.animation = 'none';
                node.getBoundingClientRect();
                node.style.animation = `k 1s ${text} ${-share}s 1 normal both paused`;
                return parseFloat(getComputedStyle(node).width); }""",
                [text, share],
            )
            wanted = max(0.0, easing_from(text).at(share))
            assert width / 1000 == pytest.approx(wanted, abs=2e-3), (text, share)
    page.close()


@pytest.mark.parametrize("easing", [*NAMED.values(), Steps(count=3, jump="both"), Stops()])
def test_before_its_delay_and_after_its_end_nothing_moves(easing):
    timing = Timing(duration=200, delay=50, easing=easing)
    assert timing.way(49.9) == 0
    assert timing.way(250) == timing.way(10_000) == 1
    assert timing.way(150) == pytest.approx(easing.at(0.5))
    assert Timing(duration=0, easing=easing).way(0) == 1
