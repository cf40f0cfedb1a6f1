"""Checks: what is found in the controls of a kit."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from obrell.core.document.model import Control, KitSettings
from obrell.core.document.resolve import resolve
from obrell.core.findings import found_in
from obrell.core.findings.base import Finding
from obrell.store.kits import Kits


def check(settings: KitSettings, controls: Iterable[Control]) -> Iterator[tuple[Control, Finding]]:
    """Everything that is found, control by control."""
    for control in controls:
        for finding in found_in(resolve(settings, control)):
            yield control, finding


def check_one(kits: Kits, kit: str, control: str) -> tuple[Finding, ...]:
    """What is found in one control."""
    return tuple(finding for _, finding in check(kits.index(kit).settings(), [kits.control(kit, control).control]))
