"""How large the history of a large control gets, and how long it takes to go back: ``make load``.

Edits are stored without the trial that a window's edits go through, which has no part in the figures.
"""

from __future__ import annotations

import os
import time
from pathlib import Path
from statistics import median
from tempfile import TemporaryDirectory

from rich.console import Console
from rich.table import Table

from obrell.core.document.model import Kit
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.workspace import Workspace
from obrell.store.kits import Kits
from tools.bench import hairlines

EDITS = int(os.environ.get("OBRELL_EDITS", "5000"))
UNDONE = 100


def main() -> None:
    table = Table("history of a control with 300 parts", "goal", "now")
    with TemporaryDirectory() as folder:
        path = Path(folder) / "kits.db"
        kits = Kits(path)
        kit = kits.import_kit(Kit(id="k", name="Load", controls=(hairlines(),)))
        for number in range(EDITS):
            store(kits, kit, number)
        kits.close()
        table.add_row(f"{EDITS:,} edits, the file", "≤ 50 MB", f"{path.stat().st_size / 1e6:.1f} MB")
        kits = Kits(path)
        table.add_row("one taken back after them, median", "≤ 100 ms", f"{median(undone(kits, kit)) * 1000:.0f} ms")
        kits.close()
    Console().print(table)


def store(kits: Kits, kit: str, number: int) -> None:
    """One part moved."""
    ground = kits.ground(kit, "c1")
    control = ground.stored.control
    edit = read_edit({"kind": "move", "parts": [f"p{number % 300 + 1}"], "dx": 0.5, "dy": 0.25})
    kits.save(kit, ground, edit.label(control), applied(edit, control, Surroundings.of(ground.index)))


def undone(kits: Kits, kit: str) -> list[float]:
    """Seconds that each of some steps took to be taken back and read."""
    spent = []
    for _ in range(UNDONE):
        began = time.perf_counter()
        kits.undo(kit, "c1")
        kits.control(kit, "c1")
        spent.append(time.perf_counter() - began)
    return spent


if __name__ == "__main__":
    with Workspace().entered():
        main()
