"""The states of the sample kit: what a start makes of a control, and what was changed by hand after that."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from obrell.core.colour.gamut import from_oklch
from obrell.core.colour.spaces import from_hex, to_hex, to_oklch
from obrell.core.document.colours import with_colours
from obrell.core.document.differing import differences
from obrell.core.document.model import Control, Part, State
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.starts import with_literal
from obrell.core.values.easings import easing_from
from obrell.core.values.touches import TouchesBody
from obrell.core.values.transitions import Transition

Step = dict[str, Any]
UNLIT = ("p1/effects/e1", "p4/effects/e2", "p6")
"""What glows on the pilot lamp: its spill on the panel, its heart, its spark."""


AMBER = 66.0
"""The hue of the dark lens, degrees in OKLCH: its yellow, made darker, would be olive."""
TINGED = 0.06
"""The least chroma of the dark lens: its near white, made darker, would be grey."""


def start(kind: str, **more: Any) -> Step:
    """A state begun."""
    return {"kind": "start-state", "start": kind} | more


def moved(state: str, parts: tuple[str, ...], dx: float, dy: float) -> Step:
    """Parts of a state, moved px."""
    return {"kind": "in-states", "states": [state], "edit": {"kind": "move", "parts": parts, "dx": dx, "dy": dy}}


FAINT_GLOSS: Step = {
    "kind": "in-states", "states": ["pressed"],
    "edit": {"kind": "set", "changes": [{"path": "parts/p4/opacity", "value": 0.3}]},
}  # fmt: skip
"""The gloss of a pressed capsule is faint, so that its label stays legible."""
SLUICE = (start("hover"), start("pressed"), FAINT_GLOSS, start("disabled"))
GATE = (start("hover"), start("pressed", lower=2), start("focus", gap=3))
STEPS: dict[str, tuple[Step, ...]] = {
    "c1": SLUICE, "c13": SLUICE, "c11": GATE, "c12": GATE,
    "c3": (start("hover"), start("pressed"), start("focus", gap=2)),
    "c5": (start("hover"), start("pressed", lower=1.5)),
    "c6": (start("hover", parts=("p5",)), start("pressed", lower=1)),
    "c7": (start("hover"), start("sunk", lower=0.5)),
    "c4": (start("hover", parts=("p8",)), start("focus", gap=12)),
    "c8": (start("hover"), start("focus", gap=3)),
    "c9": (
        start("hover"), start("pressed", lower=2), start("focus", gap=3),
        {"kind": "add-state", "name": "Latched"}, start("on", state="latched"), moved("latched", ("p3", "p4"), 0, 2),
    ),
    "c10": (start("hover", parts=("p1",)), start("sunk", lower=1.5), start("focus", gap=3)),
}  # fmt: skip


DOWN, UP, LIT_UP, PUT_OUT = ("rest", "pressed"), ("pressed", "rest"), ("rest", "on"), ("on", "rest")
TIMINGS: dict[str, tuple[tuple[tuple[str, str], float, str], ...]] = {
    **dict.fromkeys(
        ("c1", "c13", "c11", "c12", "c3", "c5", "c6", "c10"), ((DOWN, 60, "ease-out"), (UP, 180, "ease-out")),
    ),
    "c2": ((LIT_UP, 260, "cubic-bezier(0.5, 0, 0.3, 1)"), (PUT_OUT, 520, "cubic-bezier(0, 0.6, 0.2, 1)")),
    "c8": ((LIT_UP, 240, "cubic-bezier(0.3, 0, 0.2, 1.15)"), (PUT_OUT, 240, "ease-in-out")),
    "c9": ((DOWN, 80, "ease-out"), (UP, 240, "linear(0, 1.06 60%, 0.98 80%, 1)")),
}  # fmt: skip
"""Where states take another time than 160 ms to become each other: a key goes down fast, a filament cools slowly."""


TOUCHES = {"c5": TouchesBody(by=6), "c7": TouchesBody(by=8)}
"""What is too small for a thumb in a glove."""


def with_states(control: Control, around: Surroundings) -> Control:
    """A control with the states that its kind needs; what shines at rest as it is dictated, only shines on."""
    made = LIT.get(control.id)
    control = control if made is None else _lit_by_day(made(control, around), control)
    for step in STEPS.get(control.id, ()):
        control = applied(read_edit(step), control, around)
    return _timed(control)


def _timed(control: Control) -> Control:
    own = tuple(
        Transition(start=start, end=end, duration=duration, easing=easing_from(css))
        for (start, end), duration, css in TIMINGS.get(control.id, ())
    )
    return control.evolve(transitions=own, touch=TOUCHES.get(control.id)) if own or control.id in TOUCHES else control


def _lit_by_day(off: Control, lit: Control) -> Control:
    return off.evolve(states=(State(id="on", name="On", differences=differences(off, lit)),))


def _lamp_off(lit: Control, around: Surroundings) -> Control:
    changes = [{"path": f"parts/{path}/visible", "value": False} for path in UNLIT]
    off = applied(read_edit({"kind": "set", "changes": changes}), lit, around)
    return off.evolve(
        parts=tuple(_dark(part, around, 0.5, 0.55, AMBER) if part.id == "p4" else part for part in off.parts)
    )


def _switch_off(lit: Control, around: Surroundings) -> Control:
    """The thumb at the left, over the mark of what is on, and the channel dark."""
    steps = (
        {"kind": "move", "parts": ["p5", "p9"], "dx": -52, "dy": 0},
        {
            "kind": "set",
            "changes": [
                {"path": path, "value": False} for path in ("parts/p2/effects/e4/visible", "parts/p4/visible")
            ],
        },
    )
    for step in steps:
        lit = applied(read_edit(step), lit, around)
    return lit.evolve(parts=tuple(_dark(part, around, 0.62, 0.3) if part.id == "p2" else part for part in lit.parts))


def _dark(part: Part, around: Surroundings, lightness: float, chroma: float, hue: float | None = None) -> Part:
    """Return a part whose colours have that share of their lightness and chroma, in OKLCH, and a given hue or their
    own. White and black stay."""

    def changed(colour: str) -> str:
        bright, strong, own = to_oklch(from_hex(colour))
        dim = (strong * chroma, own) if hue is None else (max(strong * chroma, TINGED), hue)
        return colour if strong < 0.02 else to_hex(from_oklch((bright * lightness, *dim)))

    return with_colours(part, lambda colour: with_literal(colour, changed, around))


LIT: dict[str, Callable[[Control, Surroundings], Control]] = {"c2": _lamp_off, "c8": _switch_off}
"""Controls that are dictated as they are on, and what makes them as they are at rest."""
