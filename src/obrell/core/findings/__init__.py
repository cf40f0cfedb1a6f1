"""What there is to say about a control. A new kind is a module in ``kinds`` and nothing else."""

from __future__ import annotations

from collections.abc import Iterable
from typing import get_args

from obrell.core.document.model import REST, Control
from obrell.core.document.resolve import Resolved
from obrell.core.findings.base import Cure, Finding, Kind, Severity
from obrell.core.registry import kinds_in

FINDINGS: dict[str, Kind] = {name: kind() for name, kind in kinds_in("obrell.core.findings.kinds", Kind).items()}
"""Every kind by its name."""
SEVERITIES: tuple[Severity, ...] = get_args(Severity)


def found_in(resolved: Resolved) -> tuple[Finding, ...]:
    """Everything that is found in a control, the most severe first."""
    return _sorted(one for kind in FINDINGS.values() for one in kind.look(resolved))


def found_in_state(control: Control, state: str, resolved: Resolved) -> tuple[Finding, ...]:
    """Everything that is found in a state of a control, by its id, as it looks and beside rest."""
    between = (one for kind in FINDINGS.values() if state != REST for one in kind.between(control, state))
    return _sorted((*found_in(resolved), *between))


def _sorted(found: Iterable[Finding]) -> tuple[Finding, ...]:
    return tuple(sorted(found, key=lambda one: SEVERITIES.index(one.severity)))


__all__ = ["FINDINGS", "SEVERITIES", "Cure", "Finding", "Kind", "Severity", "found_in", "found_in_state"]
