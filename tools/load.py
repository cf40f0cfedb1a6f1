"""A server under load: what many windows at once feel, what memory it takes, and whether every edit is there once.

``python -m tools.load`` prints the table that stands in ``docs/reliability.md``. It only talks to a server of its own
on this machine, and stops by itself.
"""

from __future__ import annotations

import json
import os
import random
import socket
import statistics
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path

from websockets.sync.client import connect

from obrell.core.document.model import Canvas, Control, Kit, Part
from obrell.core.door import READERS
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits
from obrell.web import rooms
from tests.hostile.bringing import Places, request_for
from tests.hostile.making import nth

assert rooms.router.routes, "all readers are registered"
CLIENTS = int(os.environ.get("OBRELL_CLIENTS", "20"))
EDITS = int(os.environ.get("OBRELL_EDITS", "5000"))
CONTROLS, PARTS = 500, 1000
BIG = "c1"
FRAME_EVERY_S = 0.05
WORST = 6
"""How many of the worst files of each kind are brought in."""
FILL = "parts/p1/effects/e1/fill"
LATER_S, ANSWERED_S = 0.1, 5.0
"""How much later a frame may come meanwhile, and how late one of them may be answered, at the 95th percentile."""
START_S = 120


@dataclass
class Figures:
    """What was measured, seconds."""

    edits: list[float] = field(default_factory=list)
    big_edits: list[float] = field(default_factory=list)
    walls: list[float] = field(default_factory=list)
    quiet_frames: list[float] = field(default_factory=list)
    busy_frames: list[float] = field(default_factory=list)
    brought: list[float] = field(default_factory=list)
    alone: list[float] = field(default_factory=list)
    walls_alone: list[float] = field(default_factory=list)
    done: dict[str, int] = field(default_factory=dict)
    megabytes: float = 0.0
    faults: list[str] = field(default_factory=list)


def big_control() -> Control:
    """A control of a thousand parts, as those of the sample kit look."""
    found = [p for c in wendmere_lock().controls for p in c.parts if p.within is None and p.clip is None]
    plain = [p for p in found if p.shape.kind not in ("group", "repeat", "combination")]

    def placed(number: int) -> Part:
        x, y = 20.0 + number % 40 * 30, 20.0 + number // 40 * 30
        return plain[number % len(plain)].evolve(id=f"p{number + 1}", name=f"Part {number + 1}", x=x, y=y, follows=())

    parts = tuple(placed(number) for number in range(PARTS))
    return Control(
        id=BIG, name="A thousand parts", canvas=Canvas(width=1300, height=800), parts=parts, next_number=PARTS * 2
    )


def kit() -> Kit:
    """Five hundred controls, the first of them the big one."""
    sample = wendmere_lock().controls
    rest = (sample[n % len(sample)].evolve(id=f"c{n}", name=f"Control {n}") for n in range(2, CONTROLS + 1))
    return wendmere_lock().evolve(id="load", name="Load", controls=(big_control(), *rest))


class Server:
    """The application as a process of its own."""

    def __init__(self, data: Path) -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        command = [sys.executable, "-c", "from obrell.cli import main; main()", "serve", "--port", str(self.port)]
        environment = os.environ | {"OBRELL_DATA": str(data)}
        self.process = subprocess.Popen(command, env=environment, stdout=subprocess.PIPE)
        assert self.process.stdout is not None
        self.process.stdout.readline()
        self.get("/kits/load")

    def get(self, path: str) -> bytes:
        with urllib.request.urlopen(self.url + path, timeout=START_S) as answer:
            return bytes(answer.read())

    def post(self, path: str, body: bytes, kind: str = "application/json") -> int:
        request = urllib.request.Request(self.url + path, body, {"content-type": kind})
        try:
            with urllib.request.urlopen(request, timeout=START_S) as answer:
                answer.read()
                return int(answer.status)
        except urllib.error.HTTPError as error:
            error.read()
            return error.code

    def megabytes(self) -> float:
        """The most memory the process has had."""
        with open(f"/proc/{self.process.pid}/status", encoding="ascii") as lines:
            peak = next(line for line in lines if line.startswith("VmHWM"))
        return int(peak.split()[1]) / 1024

    def end(self) -> None:
        self.process.terminate()
        self.process.wait(30)


@contextmanager
def timed(into: list[float]) -> Iterator[None]:
    start = time.perf_counter()
    yield
    into.append(time.perf_counter() - start)


def client(server: Server, number: int, count: int, figures: Figures) -> None:
    """One person: edits on controls of their own, now and then a look at the Wall or the big control."""
    rng = random.Random(number)
    mine = [f"c{place}" for place in range(2 + number, CONTROLS + 1, CLIENTS)]
    for edit in range(count):
        big = number == 0 and edit % 10 == 0
        control = BIG if big else rng.choice(mine)
        part = f"p{rng.randrange(1, PARTS)}" if big else "p1"
        body = {
            "edit": {"kind": "move", "parts": [part], "dx": 1, "dy": 0}, "window": f"w{number}",
            "ident": f"{number}-{edit}", "seen": {"part": part},
        }  # fmt: skip
        sent = json.dumps(body).encode()
        with timed(figures.big_edits if big else figures.edits):
            status = server.post(f"/kits/load/controls/{control}/edits", sent)
        if status != 200:
            figures.faults.append(f"edit {number}-{edit}: {status}")
            continue
        figures.done[f"{number}-{edit}"] = status
        if edit % 7 == 0:
            server.post(f"/kits/load/controls/{control}/edits", sent)
        if edit % 60 == 30:
            with timed(figures.walls):
                server.get("/kits/load")


def watch(server: Server, into: list[float], ended: threading.Event, figures: Figures) -> None:
    """A window whose stage is asked for frame after frame, a value moving."""
    address = f"ws://127.0.0.1:{server.port}/kits/load/controls/c2/live"
    with connect(address, max_size=None) as window:
        number = 0
        while not ended.wait(FRAME_EVERY_S):
            number += 1
            move = {"kind": "move", "parts": ["p2"], "dx": number % 9, "dy": 0}
            wish = {"seq": number, "edit": move, "density": 2, "left": 0, "top": 0, "width": 640, "height": 240}
            with timed(into):
                window.send(json.dumps(wish))
                while isinstance(answer := window.recv(), str):
                    continue
            if b'"words"' in answer[:400]:
                figures.faults.append("a frame was refused")


def bring_in(server: Server, figures: Figures) -> None:
    """The worst that is known to every reader, one after the other."""
    places = Places("/kits/load", "/kits/load/controls/c3", "/kits/load/trial/touch-panel", "upper-pound", FILL)
    for kind in sorted(READERS):
        for number in range(WORST):
            address, media, body = request_for(kind, nth(kind, number), places)
            with timed(figures.brought):
                status = server.post(address, body, media)
            if status >= 500:
                figures.faults.append(f"{kind} {number}: {status}")


def alone(server: Server, figures: Figures) -> None:
    """The two that are large, one after the other, when they have been seen once."""
    for number in range(12):
        edit = {"kind": "set", "changes": [{"path": "parts/p7/opacity", "value": 0.5 + number / 40}]}
        body = json.dumps({"edit": edit, "seen": {"part": "p7"}}).encode()
        with timed(figures.alone if number > 1 else []):
            server.post(f"/kits/load/controls/{BIG}/edits", body)
        with timed(figures.walls_alone):
            server.get("/kits/load")


def during(server: Server, work: list[threading.Thread], into: list[float], figures: Figures) -> None:
    """Frames while some work goes on."""
    ended = threading.Event()
    watcher = threading.Thread(target=watch, args=[server, into, ended, figures])
    watcher.start()
    for thread in work:
        thread.start()
    for thread in work:
        thread.join()
    ended.set()
    watcher.join()


def loaded(data: Path) -> Figures:
    figures = Figures()
    kits = Kits(data)
    kits.import_kit(kit())
    kits.close()
    server = Server(data)
    try:
        during(server, [threading.Thread(target=time.sleep, args=[4])], figures.quiet_frames, figures)
        during(server, [threading.Thread(target=bring_in, args=[server, figures])], figures.busy_frames, figures)
        alone(server, figures)
        share = EDITS // CLIENTS
        people = [threading.Thread(target=client, args=[server, n, share, figures]) for n in range(CLIENTS)]
        for thread in people:
            thread.start()
        for thread in people:
            thread.join()
        figures.megabytes = server.megabytes()
    finally:
        server.end()
    check(data, figures)
    check_waiting(figures)
    return figures


def check_waiting(figures: Figures) -> None:
    """No window waits for what another brings in."""
    quiet, busy, brought = (at(v, 0.95) for v in (figures.quiet_frames, figures.busy_frames, figures.brought))
    if busy - quiet > LATER_S:
        figures.faults.append(f"frames come {(busy - quiet) * 1000:.0f} ms later while files are brought in")
    if brought > ANSWERED_S:
        figures.faults.append(f"one of the worst files is answered after {brought:.1f} s")


def check(data: Path, figures: Figures) -> None:
    """Every edit that was acknowledged is there, once."""
    kits = Kits(data)
    before = {control.id: control for control in kit().controls}
    moved = sum(
        part.x - old.x
        for stored in kits.controls("load")
        for part, old in zip(stored.control.parts, before[stored.control.id].parts, strict=False)
        if stored.control.id == BIG or part.id == "p1"
    )
    if round(moved) != len(figures.done):
        figures.faults.append(f"{len(figures.done)} edits were acknowledged, {moved:g} are there")
    kits.close()


def at(values: list[float], share: float) -> float:
    """The value that a share of them do not exceed, seconds; 0 of none."""
    return sorted(values)[min(len(values) - 1, int(len(values) * share))] if values else 0.0


def percentile(values: list[float], share: float) -> str:
    return f"{at(values, share) * 1000:.0f} ms" if values else "-"


def table(figures: Figures) -> str:
    rows = [
        ("an edit of a small control", "", figures.edits),
        (f"an edit of {PARTS:,} parts", "≤ 1 s, alone", figures.big_edits),
        (f"the Wall with {CONTROLS} controls", "≤ 1 s, alone", figures.walls),
        ("a frame, nothing else going on", "", figures.quiet_frames),
        ("a frame, the worst files being brought in", "< 100 ms later", figures.busy_frames),
        ("one of the worst files, answered", "≤ 5 s", figures.brought),
        (f"an edit of {PARTS:,} parts, alone", "≤ 1 s", figures.alone),
        (f"the Wall with {CONTROLS} controls, alone", "≤ 1 s", figures.walls_alone),
    ]
    lines = ["| under load | goal | median | 95th percentile |", "|---|---|---|---|"]
    lines += [f"| {name} | {goal} | {percentile(v, 0.5)} | {percentile(v, 0.95)} |" for name, goal, v in rows]
    lines.append(f"| memory of the server, the most it had | < 1000 MB | {figures.megabytes:.0f} MB | |")
    sent, there = len(figures.done), "all there, each once" if not figures.faults else "; ".join(figures.faults[:5])
    lines.append(f"| {sent:,} edits by {CLIENTS} clients, every seventh sent twice | | {there} | |")
    return "\n".join(lines)


if __name__ == "__main__":
    with tempfile.TemporaryDirectory() as folder:
        found = loaded(Path(folder) / "kits.db")
    print(table(found))
    print(f"\nmean of all edits: {statistics.mean(found.edits) * 1000:.0f} ms")
    sys.exit(bool(found.faults))
