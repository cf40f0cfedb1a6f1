"""A kit as it is stored: its own values, and each control as its text with what is asked of it most."""

from __future__ import annotations

import json
from base64 import b64decode
from collections.abc import Mapping
from dataclasses import dataclass

from obrell.core.document.files import files_of
from obrell.core.document.model import Control, Kit, KitSettings
from obrell.core.document.swatch_uses import uses
from obrell.core.document.texts import control_json


@dataclass(frozen=True, slots=True)
class ControlText:
    """A control as its canonical text: its id, the control that it follows, empty for none, and the swatches that its
    parts follow with how many do, as JSON."""

    id: str
    text: str
    original: str
    swatches: str


@dataclass(frozen=True, slots=True)
class KitTexts:
    """A whole kit; ``files`` are those that its documents need, by their names."""

    settings: KitSettings
    controls: tuple[ControlText, ...]
    files: Mapping[str, bytes]


def kit_texts(kit: Kit) -> KitTexts:
    """A kit as it is stored."""
    settings = kit.settings()
    needed = files_of(settings).union(*(files_of(control) for control in kit.controls))
    files = {name: b64decode(text) for name, text in kit.files.items() if name in needed}
    return KitTexts(settings, tuple(map(control_text, kit.controls)), files)


def control_text(control: Control) -> ControlText:
    """A control as it is stored."""
    return ControlText(control.id, control_json(control), control.original or "", json.dumps(uses(control)))
