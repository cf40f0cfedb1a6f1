"""Tonal curves to choose from."""

from __future__ import annotations

from typing import Literal

from obrell.core.values.curves import TONES, Curve, Table

Tone = Literal[
    "straight", "soft", "hard", "two bands", "three bands", "polished", "late", "early", "drawn",
]  # fmt: skip


def tone_table(tone: Tone, drawn: Curve) -> Table:
    """The values of a tonal curve by its name."""
    return (drawn if tone == "drawn" else TONES[tone]).table()


def tone_pictures(drawn: Curve) -> dict[str, Table]:
    """Every tonal curve by its name."""
    return {name: tone.table() for name, tone in (TONES | {"drawn": drawn}).items()}
