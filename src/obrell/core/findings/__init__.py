"""What there is to say about a control. A new kind is a module in ``kinds`` and nothing else."""

from __future__ import annotations

import logging
from collections.abc import Callable, Iterable, Iterator
from functools import partial
from typing import get_args

from obrell.core.document.model import REST, Control
from obrell.core.document.resolve import Resolved
from obrell.core.findings.base import Cure, Finding, Kind, Severity
from obrell.core.registry import kinds_in

FINDINGS: dict[str, Kind] = {name: kind() for name, kind in kinds_in("obrell.core.findings.kinds", Kind).items()}
"""Every kind by its name."""
SEVERITIES: tuple[Severity, ...] = get_args(Severity)
UNEXAMINED = "unexamined"
log = logging.getLogger(__name__)


def found_in(resolved: Resolved) -> tuple[Finding, ...]:
    """Everything that is found in a control, the most severe first."""
    return _sorted(one for kind in FINDINGS.values() for one in _examined(kind, partial(kind.look, resolved)))


def found_in_state(control: Control, state: str, resolved: Resolved) -> tuple[Finding, ...]:
    """Everything that is found in a state of a control, by its id, as it looks and beside rest."""
    kinds = FINDINGS.values() if state != REST else ()
    between = (one for kind in kinds for one in _examined(kind, partial(kind.between, control, state)))
    return _sorted((*found_in(resolved), *between))


def _examined(kind: Kind, look: Callable[[], Iterable[Finding]]) -> Iterator[Finding]:
    """Yield what a kind finds. If it fails, yield a finding that says so, so that the rest goes on."""
    try:
        yield from tuple(look())
    except Exception:
        log.exception("A control could not be examined for %s", kind.looks_for)
        yield Finding(
            UNEXAMINED, "doubtful", f"This could not be examined for {kind.looks_for}. That is our fault.", ()
        )


def _sorted(found: Iterable[Finding]) -> tuple[Finding, ...]:
    return tuple(sorted(found, key=lambda one: SEVERITIES.index(one.severity)))


__all__ = ["FINDINGS", "SEVERITIES", "Cure", "Finding", "Kind", "Severity", "found_in", "found_in_state"]
