"""Panels to begin with: a page with a form, a phone, something that lies over a busy picture, and an empty one."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from random import Random
from typing import Literal

from obrell.core.values.paints import Fill, Linear, Solid, Stop, Texture
from obrell.core.values.panels import STEEL, Fixture, Panel

GROUNDS: dict[str, Fill] = {
    "painted steel": STEEL,
    "white": Solid(colour="#ffffff"),
    "paper": Solid(colour="#fffefb"),
    "dark glass": Linear(stops=(Stop(position=0, colour="#232d33"), Stop(position=1, colour="#12181c"))),
    "brushed steel": Texture(pattern="brush", colour="#a9abab", second="#d3d5d4", contrast=0.6),
    "leather": Texture(pattern="hide", colour="#3b2f28", second="#5a483c"),
    "stone": Texture(pattern="stone", colour="#8f9188", second="#c9c8bd", scale=3),
    "meadow": Texture(pattern="stone", colour="#37533f", second="#9fb06a", scale=6, contrast=1.6),
}  # fmt: skip
"""What screens are often made of, by what that is called."""
Start = Literal["empty", "form", "phone", "overlay"]
DIM, QUIET = "#5c666b", "#d9d5c9"
LEAVES = ("#4f6b36", "#6d8a45", "#8aa65b", "#39512b", "#a9894a", "#c2b06a", "#2f4a44", "#7c5a38")
"""Of the busy picture."""


def begun(start: Start, ident: str, name: str) -> Panel:
    """A panel as it begins, under an id and a name."""
    return STARTS[start][1](ident, name)


def _numbered(fixtures: Iterator[dict[str, object]]) -> tuple[Fixture, ...]:
    return tuple(Fixture.model_validate({"id": f"f{number}", **one}) for number, one in enumerate(fixtures, start=1))


def _empty(ident: str, name: str) -> Panel:
    return Panel(id=ident, name=name)


def _form(ident: str, name: str) -> Panel:
    def fixtures() -> Iterator[dict[str, object]]:
        yield {"kind": "title", "x": 40, "y": 30, "height": 30, "words": "Send us a message"}
        yield {
            "x": 40, "y": 66, "height": 44, "colour": DIM,
            "words": "Say what it is about and where you can be reached.\nWe answer within a day.",
        }  # fmt: skip
        for row, (label, value) in enumerate(
            (("Your name", "Ida Marsh"), ("Telephone", "0170 555 018"), ("What it is about", "The north door sticks"))
        ):
            yield {"x": 40, "y": 132 + 66 * row, "height": 18, "words": label}
            yield {"kind": "field", "x": 40, "y": 154 + 66 * row, "width": 320, "height": 34, "words": value}
        yield {"kind": "button", "x": 40, "y": 356, "width": 150, "height": 40, "words": "Send it"}
        yield {"kind": "button", "x": 210, "y": 356, "width": 150, "height": 40, "words": "Start over"}
        yield {"kind": "block", "x": 410, "y": 132, "width": 190, "height": 220, "colour": "#eef0ec"}
        yield {"x": 428, "y": 150, "height": 18, "words": "Opening hours"}
        yield {
            "x": 428, "y": 178, "height": 84, "colour": DIM,
            "words": "Monday to Friday\n9 to 17\n\nSaturday\n10 to 13",
        }  # fmt: skip

    return Panel(
        id=ident, name=name, width=640, height=440, across=300, bezel=False, ground=GROUNDS["paper"],
        fixtures=_numbered(fixtures()),
    )  # fmt: skip


def _phone(ident: str, name: str) -> Panel:
    def fixtures() -> Iterator[dict[str, object]]:
        yield {"kind": "title", "x": 24, "y": 44, "height": 28, "words": "Lock 7"}
        yield {"x": 24, "y": 76, "height": 20, "words": "Both gates closed", "colour": DIM}
        yield {"kind": "rule", "x": 24, "y": 112, "width": 312, "height": 1, "colour": QUIET}
        yield {"kind": "button", "x": 24, "y": 560, "width": 148, "height": 44, "words": "Call the keeper"}
        yield {"kind": "button", "x": 188, "y": 560, "width": 148, "height": 44, "words": "Directions"}

    ground = Linear(stops=(Stop(position=0, colour="#f4f6f4"), Stop(position=1, colour="#e2e8e6")))
    return Panel(
        id=ident, name=name, width=360, height=640, density=3, across=64, ground=ground,
        fixtures=_numbered(fixtures()),
    )  # fmt: skip


def _overlay(ident: str, name: str) -> Panel:
    def fixtures() -> Iterator[dict[str, object]]:
        chance = Random(7)
        for _ in range(90):
            size = chance.choice((18, 30, 52, 90))
            yield {
                "kind": "block", "x": chance.randrange(-40, 800), "y": chance.randrange(-40, 460),
                "width": size * chance.choice((1, 1, 2)), "height": size, "colour": chance.choice(LEAVES),
            }  # fmt: skip

    return Panel(
        id=ident, name=name, width=800, height=460, across=340, bezel=False, ground=GROUNDS["meadow"],
        fixtures=_numbered(fixtures()),
    )  # fmt: skip


STARTS: dict[Start, tuple[str, Callable[[str, str], Panel]]] = {
    "empty": ("Empty screen", _empty),
    "form": ("Form page", _form),
    "phone": ("Phone sheet", _phone),
    "overlay": ("Overlay on a busy picture", _overlay),
}
"""What each is called at first, and what it is."""
