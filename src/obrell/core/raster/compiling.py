"""Compiling every kernel, once per version, in as many processes as there are cores."""

from __future__ import annotations

import os
import subprocess
import sys
import threading
from collections.abc import Iterable
from contextlib import suppress
from importlib import import_module
from pathlib import Path
from queue import Empty, SimpleQueue

from obrell.core.raster.jit import hold, load_all, loaded, marked

PACKAGE = "obrell.core.raster"
MOST_PROCESSES = 4


def modules() -> list[str]:
    """The modules that have kernels, those with the largest sources first: they take longest."""
    sources = sorted(Path(__file__).parent.glob("*.py"), key=lambda source: -source.stat().st_size)
    return [source.stem for source in sources if "\n@kernel(" in source.read_text("utf-8")]


class Compilation:
    """All kernels being compiled, each module by one of some processes; whatever draws meanwhile waits. What a process
    that fails leaves undone is compiled when it is first needed."""

    def __init__(self) -> None:
        self._queue: SimpleQueue[str] = SimpleQueue()
        names = modules()
        self.total = len(names)
        """Modules in all."""
        self.done = 0
        """Modules that are compiled."""
        self.ready = threading.Event()
        self._counting = threading.Lock()
        for name in names:
            self._queue.put(name)

    def start(self) -> None:
        """Begin, in threads of their own."""
        hold(self.ready)
        count = max(1, min(MOST_PROCESSES, os.cpu_count() or 1))
        workers = [threading.Thread(target=self._work, daemon=True) for _ in range(count)]
        threading.Thread(target=self._end, args=[workers], daemon=True).start()

    def _end(self, workers: list[threading.Thread]) -> None:
        for worker in workers:
            worker.start()
        for worker in workers:
            worker.join()
        if self.done == self.total:
            marked()
        self.ready.set()
        load_all()

    def _work(self) -> None:
        with suppress(OSError), self._process() as process:
            for name in self._waiting():
                print(name, file=process.stdin, flush=True)
                if not process.stdout or not process.stdout.readline():
                    return
                with self._counting:
                    self.done += 1

    def _process(self) -> subprocess.Popen[str]:
        command = [sys.executable, "-m", __name__]
        return subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)

    def _waiting(self) -> Iterable[str]:
        while True:
            try:
                yield self._queue.get_nowait()
            except Empty:
                return


def main() -> None:
    """Compile the modules that are named line by line, and answer each with its name."""
    for name in modules():
        import_module(f"{PACKAGE}.{name}")
    with suppress(BrokenPipeError):
        for line in sys.stdin:
            loaded(f"{PACKAGE}.{line.strip()}")
            print(line.strip(), flush=True)


if __name__ == "__main__":
    main()
