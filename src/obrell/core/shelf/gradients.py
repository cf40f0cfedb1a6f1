"""The shipped gradients: plain ones, made of one colour, and forty ramps with the kind of paint each is meant for."""

from __future__ import annotations

from dataclasses import dataclass

from obrell.core.shelf.making import Mark, stops
from obrell.core.values.colours import Colour
from obrell.core.values.paints import Conic, Handled, Linear, Radial, Stop


@dataclass(frozen=True, slots=True)
class Named:
    """A gradient and what it is called."""

    name: str
    fill: Handled


def _stops(text: str) -> tuple[Stop, ...]:
    """Colours with spaces between them, evenly spaced, or each with its place in % behind an at sign."""
    marks = text.split()
    last = max(len(marks) - 1, 1)
    made = []
    for number, mark in enumerate(marks):
        colour, _, place = mark.partition("@")
        made.append(Stop(position=float(place) / 100 if place else number / last, colour=f"#{colour}"))
    return tuple(made)


def _linear(name: str, text: str) -> Named:
    return Named(name, Linear(stops=_stops(text)))


def _radial(name: str, text: str, x: float = 0.5, y: float = 0.5, radius: float = 0.6) -> Named:
    return Named(name, Radial(stops=_stops(text), centre_x=x, centre_y=y, radius_x=radius, radius_y=radius))


def _conic(name: str, text: str, start: float = 0.0) -> Named:
    return Named(name, Conic(stops=_stops(text), start=start))


def _fading(name: str, *marks: Mark, angle: float = 180.0) -> Named:
    return Named(name, Linear(stops=stops(*marks), angle=angle))


WHITE, BLACK = "#ffffff", "#000000"


def plain_gradients(colour: Colour) -> tuple[Named, ...]:
    """Return the plain gradients: of a colour, of white and of black to clear, clear at both ends, and glosses."""
    return (
        _fading("Its colour to clear", (0, colour), (1, colour, 0)),
        _fading("Its colour, clear at both ends", (0, colour, 0), (0.5, colour), (1, colour, 0)),
        _fading("White to clear", (0, WHITE), (1, WHITE, 0)),
        _fading("Black to clear", (0, BLACK), (1, BLACK, 0)),
        _fading("White, clear at both ends", (0, WHITE, 0), (0.5, WHITE), (1, WHITE, 0)),
        _fading("Black, clear at both ends", (0, BLACK, 0), (0.5, BLACK), (1, BLACK, 0)),
        _fading("Soft gloss", (0, WHITE, 0.55), (0.5, WHITE, 0.12), (1, WHITE, 0)),
        _fading("Half gloss", (0, WHITE, 0.65), (0.495, WHITE, 0.2), (0.505, WHITE, 0), (1, WHITE, 0)),
        _fading("Light and shade", (0, WHITE, 0.4), (0.5, WHITE, 0), (0.5, BLACK, 0), (1, BLACK, 0.3)),
    )


TURNED_STEEL = "f4f3ef a5a49f@9 dcdbd6@20 807f7a@31 ebeae5@43 96958f@56 d4d3cd@67 7a7974@79 c9c8c2@91 f4f3ef"
TURNED_BRASS = "fbe9ae a87a22@10 f0d384@22 8a5f12@34 f6e0a0@46 9c6e1a@58 e4c26a@70 7d5510@82 cfa548@92 fbe9ae"

GRADIENTS: tuple[Named, ...] = (
    _linear("Tarn", "4aa7b1 2a8c97@47 1a7580@50 14626d@78 2a93a0"),
    _linear("Tarn, quiet", "3fa0aa 1f8a92 12626a"),
    _linear("Deep water", "1d6b76 0f4650 062a31"),
    _linear("Morning mist", "f4f6f4 e3e7e4 cfd6d4"),
    _linear("Chalk", "ffffff f6f3ea e6e1d2"),
    _linear("Paper", "fdfcf8 efece3"),
    _linear("Slate", "6c7c84 53636b@50 43525a"),
    _linear("Wet slate", "4d5b63 2b363c@52 1b2328"),
    _linear("Signal", "e9543d d03a25@50 b32a17"),
    _linear("Ember", "ffb06b ef6a2c@45 c63a10 7d1c04"),
    _linear("Moss", "6d9a44 588235@50 436726"),
    _linear("Reed", "c9d17e 95a344 5f6f22"),
    _linear("Amber", "ffe08a f5a623@50 c9720a"),
    _linear("Honey", "fff0b8 ffc94f e0930f"),
    _linear("Brass", "fdf0c0 e6c067@24 b98a2e@48 9d701c@53 d2a548@80 efd78f"),
    _linear("Old brass", "e8d9a0 b39648@40 7d6322@55 c2a862"),
    _linear("Copper", "f6c7a4 d98a5a@30 a4562c@52 c97a4c@78 efb890"),
    _linear("Bronze", "d8b98a a07c46@45 6e4f25@55 b08d58"),
    _linear("Steel", "fbfaf6 d3d2cd@22 a3a29d@48 8e8d88@52 b9b8b3@80 d9d8d2"),
    _linear("Gun metal", "8b949a 5c666c@45 3c454b@55 6d777d"),
    _linear("Mirror", "ffffff dfe8ee@20 8da2b0@42 dfe9ef@49.5 2b3238@50.5 5e6a72@66 c9d2d7@86 f6f9fa"),
    _linear("Horizon", "cfe6f2 8fbcd6@48 33424a@52 7f8c92"),
    _linear("Dusk", "2b3a63 7a4f7e@45 d9846a@80 ffc98a"),
    _linear("Dawn", "fef1d6 ffd1a6@40 f2a08c@75 c9788f"),
    _linear("Ink", "2d3a41 1a2429 0d1417"),
    _linear("Night watch", "27313f 141b26"),
    _linear("Rubber", "4a4d4f 2b2d2f"),
    _linear("Ivory", "fffaf0 f0e6d0 d9cbab"),
    _linear("Rose enamel", "f2a7ac d9656f@50 b23f4c"),
    _linear("Plum", "8a5a86 64395f 42203d"),
    _linear("Ice", "f2fbfd c9e8ef 8fcbd9"),
    _linear("Glass edge", "ffffff e8f6f6@45 bfe3e4@50 f2fbfb"),
    _radial("Lamp", "fff6cf ffd463@28 f29a12@62 a85a02", y=0.62, radius=0.62),
    _radial("Lamp, unlit", "b58a52 8a6432@45 4c3413", y=0.4, radius=0.7),
    _radial("Beacon", "ffe6e0 ff7d66@30 d62f16@65 6e0d02", y=0.6),
    _radial("Go", "f3ffd9 b6e36a@30 6aa32b@65 2e5108", y=0.6),
    _radial("Pearl", "ffffff f4f0ea@45 d6cfc6", x=0.4, y=0.32, radius=0.75),
    _conic("Turned steel", TURNED_STEEL), _conic("Turned brass", TURNED_BRASS),
    _conic("Dial", "12626a 1f8a92@30 7fe0e2@70 12626a", start=180),
)  # fmt: skip
