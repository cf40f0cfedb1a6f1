"""Reading kit files, and checking them by the rules of edits before they are stored."""

from __future__ import annotations

from base64 import b64decode

from obrell.core.aside import patience
from obrell.core.document.kit_texts import KitTexts, kit_texts
from obrell.core.document.model import Kit
from obrell.core.door import reads
from obrell.core.edit.admission import TRIAL_SECONDS, try_drawing
from obrell.core.errors import BadDocument, ObrellError
from obrell.core.interchange.kit_file import kit_from
from obrell.core.interchange.limits import MAX_KIT_BYTES
from obrell.core.raster.jit import loads_compiled
from obrell.core.trial.composing import try_screen
from obrell.core.workspace import bringing

MEGABYTES_PER_MB = 40.0
"""A kit takes some twenty times its text in memory, and drawing comes on top."""
SECONDS_PER_MB = 10.0
"""A rich control has 30 kB and takes some 0.2 s to check."""


@reads(
    "kit", "Reading this kit", most=MAX_KIT_BYTES, seconds_per_mb=SECONDS_PER_MB, megabytes_per_mb=MEGABYTES_PER_MB,
    ready=loads_compiled,
    words=f"A kit file can have at most {MAX_KIT_BYTES // 1_000_000} MB.",
)  # fmt: skip
def read_kit(content: bytes) -> KitTexts:
    """Return the kit in a file as it will be stored. Raise ``BadDocument`` or ``TooLarge``, saying where."""
    kit = kit_from(content)
    with bringing({name: b64decode(text) for name, text in kit.files.items()}):
        admit(kit)
    return kit_texts(kit)


def admit(kit: Kit) -> None:
    """Raise ``BadDocument`` if a control or panel of a kit cannot be drawn."""
    tried: set[str] = set()
    for control in kit.controls:
        try:
            with patience(TRIAL_SECONDS):
                try_drawing(kit, control, tried=tried)
        except ObrellError as error:
            raise BadDocument(f"The control “{control.name}” of this kit cannot be drawn. {error}") from error
    for panel in kit.panels:
        try:
            with patience(TRIAL_SECONDS):
                try_screen(kit, panel)
        except ObrellError as error:
            raise BadDocument(f"The panel “{panel.name}” of this kit cannot be drawn. {error}") from error
