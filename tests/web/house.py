"""A server with one small kit, and everything that is asked of it: what the laws are held against."""

import os
import resource
import sqlite3
import time

from starlette.testclient import TestClient

from obrell.app.checking import check
from obrell.core.document.model import Control
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.effects import Bevel, DropShadow, Outline
from obrell.core.findings import UNEXAMINED
from obrell.core.shapes import Box, Group, Repeat, Round, Text
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.web.app import create_app
from tests.making import EFFECTS_TRIED, SHAPES_TRIED, control, kit, part, solid

MEGABYTES = 3000
"""What this process, with all the tests before, may have had at once."""
SECONDS = 30.0
"""Processor time that one answer may take: a hundred times what it does."""
INK = solid("#20303a")
BEGUN = (
    {"kind": "add-state", "name": "Hover"}, {"kind": "add-state", "name": "Pressed"},
    {"kind": "add-reading", "name": "Level"},
    {"kind": "add-size", "name": "Small", "factor": 0.5}, {"kind": "add-guide", "axis": "across", "at": 10},
)  # fmt: skip


def busy() -> Control:
    """A control with something of everything."""
    made = control(
        part(Box(radius=4), INK, DropShadow(id="e1"), Bevel(id="e1"), x=20, y=12),
        part(Repeat(count=3)), part(Round(), EFFECTS_TRIED["paint"], within="p2"),
        part(Group()), part(SHAPES_TRIED["path"], INK, Outline(id="e1", width=2), within="p4"),
        part(Text(words="Lock", size=12), INK),
    )  # fmt: skip
    for edit in BEGUN:
        made = applied(read_edit(edit), made, Surroundings())
    return made


class House:
    """A server with one small kit, and all that is asked of it."""

    def __init__(self, folder):
        os.environ["OBRELL_MEMORY"] = str(MEGABYTES)  # what other tests hold is not what this server lets go of
        self.app = create_app(folder / "kits.db")
        self.client = TestClient(self.app, base_url="http://127.0.0.1:8420", raise_server_exceptions=False)
        self.kits = self.app.state.kits
        first = busy()
        sample = wendmere_lock().panels[0]
        placements = tuple(one.evolve(control="c1", words={}, numbers={}) for one in sample.placements[:2])
        panel = sample.evolve(id="panel", placements=placements)
        made = kit(first, first.evolve(id="c2", name="Copy", original="c1")).evolve(panels=(panel,))
        self.kit = self.kits.import_kit(made)
        self.kits.import_kit(made)
        self.fill, self.source = "parts/p3/effects/e1/fill", panel.sources[0].id
        self.bench, self.panel = f"/kits/{self.kit}/controls/c1", f"/kits/{self.kit}/trial/panel"

    def stored(self):
        """Every byte that is stored."""
        with sqlite3.connect(self.kits.path) as connection:
            return list(connection.iterdump())

    def post(self, address, **body):
        return self.client.post(address, json=body)

    def places(self):
        wall = f"/kits/{self.kit}"
        return (
            wall, f"{wall}/export", f"{wall}/deliver", f"{wall}/deliver/files", f"{wall}/controls/c2", self.bench,
            f"{self.bench}/blocks?part=p1&effect=e1", f"{self.bench}/blocks?part=p6", self.panel, f"{self.panel}/now",
        )  # fmt: skip

    def check_all(self):
        """Nothing that is asked is answered with an error, nor late."""
        for place in self.places():
            before = time.process_time()
            answer = self.client.get(place)
            assert answer.status_code < 400, (place, answer.text[:300])
            spent = time.process_time() - before
            assert spent < SECONDS, (place, spent)
        stored = self.kits.controls(self.kit)
        assert len(stored) == 2
        found = check(self.kits.index(self.kit).settings(), [one.control for one in stored])
        assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss < MEGABYTES * 1024
        assert UNEXAMINED not in {finding.kind for _, finding in found}

    def close(self):
        self.app.state.deliveries.close()
        self.app.state.memory.close()
        self.kits.close()
