"""The kinds of files that controls are delivered as. A new one is a module in ``kinds`` and nothing else."""

from __future__ import annotations

from obrell.core.formats.base import Format, Job, Options
from obrell.core.registry import kinds_in

FORMATS: dict[str, Format] = {name: kind() for name, kind in kinds_in("obrell.core.formats.kinds", Format).items()}
"""Every kind by its name, in the order in which they are offered."""

__all__ = ["FORMATS", "Format", "Job", "Options"]
