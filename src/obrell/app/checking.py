"""Checks: what is found in the controls of a kit."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace

from obrell.core.document.editions import all_editions
from obrell.core.document.model import Control, KitSettings
from obrell.core.document.resolve import resolve
from obrell.core.edit.admission import check_drawable
from obrell.core.errors import Refused
from obrell.core.findings import found_in, found_in_state
from obrell.core.findings.base import Finding
from obrell.store.kits import Kits

UNDRAWABLE = "undrawable"


def check(settings: KitSettings, controls: Iterable[Control]) -> Iterator[tuple[Control, Finding]]:
    """Everything that is found, control by control: at rest, and what states and editions have besides, with their
    names; of one that cannot be drawn, why."""
    for control in controls:
        try:
            check_drawable(settings, control)
        except Refused as error:
            yield control, Finding(UNDRAWABLE, "wrong", str(error.__cause__ or error), ())
            continue
        known: list[Finding] = []
        names = ("", *(f"{one.name}: " for one in control.editions))
        for name, edition in zip(names, all_editions(control), strict=True):
            for finding in _found(settings, edition):
                if not any(_same(finding, one) for one in known):
                    known.append(finding)
                    yield control, replace(finding, words=f"{name}{finding.words}")


def _found(settings: KitSettings, control: Control) -> Iterator[Finding]:
    """What is found in a control at rest, and what in its states besides, with their names."""
    known = found_in(resolve(settings, control))
    yield from known
    for state in control.states:
        for finding in found_in_state(control, state.id, resolve(settings, control, state.id)):
            if not any(_same(finding, one) for one in known):
                yield replace(finding, words=f"{state.name}: {finding.words}")


def _same(one: Finding, other: Finding) -> bool:
    return (one.kind, one.parts, one.words) == (other.kind, other.parts, other.words)


def check_one(kits: Kits, kit: str, control: str) -> tuple[Finding, ...]:
    """What is found in one control."""
    return tuple(finding for _, finding in check(kits.index(kit).settings(), [kits.control(kit, control).control]))
