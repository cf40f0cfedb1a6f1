"""What is said of controls that followed another one."""

from __future__ import annotations

from collections.abc import Sequence

from fastapi import Request

from obrell.store.rows import Led
from obrell.web.services import presence_of


def announce_led(request: Request, kit: str, led: Sequence[Led]) -> None:
    """Tell their windows that there is something new, or why there is not."""
    for one in led:
        presence_of(request).tell((kit, one.control), {"news": "", "version": 0, "said": one.words})


def with_led(said: str, led: Sequence[Led]) -> str:
    """What was done, and which of them could not follow it."""
    failed = [one.words for one in led if one.words]
    return " ".join((f"{said}.", *failed)) if failed else said
