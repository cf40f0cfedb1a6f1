"""Kits in the form in which they are stored."""

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
    """The canonical text of a control, with its id, the id of its original (empty for none), and how many parts follow
    each swatch, as JSON."""

    id: str
    text: str
    original: str
    swatches: str


@dataclass(frozen=True, slots=True)
class KitTexts:
    """A kit's own values, its controls, and the files that they need, by name."""

    settings: KitSettings
    controls: tuple[ControlText, ...]
    files: Mapping[str, bytes]


def kit_texts(kit: Kit) -> KitTexts:
    """Return a kit in the form in which it is stored."""
    settings = kit.settings()
    needed = files_of(settings).union(*(files_of(control) for control in kit.controls))
    files = {name: b64decode(text) for name, text in kit.files.items() if name in needed}
    return KitTexts(settings, tuple(map(control_text, kit.controls)), files)


def control_text(control: Control) -> ControlText:
    """Return a control in the form in which it is stored."""
    return ControlText(control.id, control_json(control), control.original or "", json.dumps(uses(control)))
