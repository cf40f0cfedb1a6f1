"""What there is to say about a control. A new kind is a module in ``kinds`` and nothing else."""

from __future__ import annotations

from typing import get_args

from obrell.core.document.resolve import Resolved
from obrell.core.findings.base import Cure, Finding, Kind, Severity
from obrell.core.registry import kinds_in

FINDINGS: dict[str, Kind] = {name: kind() for name, kind in kinds_in("obrell.core.findings.kinds", Kind).items()}
"""Every kind by its name."""
SEVERITIES: tuple[Severity, ...] = get_args(Severity)


def found_in(resolved: Resolved) -> tuple[Finding, ...]:
    """Everything that is found in a control, the most severe first."""
    found = [one for kind in FINDINGS.values() for one in kind.look(resolved)]
    return tuple(sorted(found, key=lambda one: SEVERITIES.index(one.severity)))


__all__ = ["FINDINGS", "SEVERITIES", "Cure", "Finding", "Kind", "Severity", "found_in"]
