"""One Chromium and, where a test wants it, a real server process on a database of its own."""

from __future__ import annotations

import os
import select
import shutil
import signal
import socket
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest
from hypothesis import settings
from playwright.sync_api import Browser, Page, expect, sync_playwright

from obrell.core.raster.compiling import Compilation
from obrell.core.raster.jit import compiled
from obrell.core.workspace import Workspace
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits
from tests.fleet import fleet
from tests.making import KEEPER
from tests.windows import Windows

settings.register_profile("obrell", deadline=None, max_examples=60, derandomize=True)
settings.load_profile("obrell")
expect.set_options(timeout=45_000)

CHROMIUM = "/usr/bin/chromium"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
PATIENCE_S = 60


def pytest_configure(config: pytest.Config) -> None:
    """Kernels are compiled once, before processes that test beside each other need them."""
    if not hasattr(config, "workerinput") and not compiled():
        compilation = Compilation()
        compilation.start()
        compilation.ready.wait()


@pytest.fixture(scope="session", autouse=True)
def workspace() -> Iterator[None]:
    """Where tests of the core work: with the files that they keep themselves."""
    with Workspace(KEEPER.find).entered():
        yield


@pytest.fixture(scope="session")
def chromium() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield browser
        browser.close()


def copied(sample: Path, folder: Path) -> Path:
    """A database once more, in another folder."""
    for part in (sample, sample.with_name(f"{sample.name}-wal")):
        if part.exists():
            shutil.copy(part, folder / part.name)
    return folder / sample.name


FREED: list[int] = []
"""Ports of servers that have ended: a browser has the scripts of an address that it knows, whichever server is
there."""


def free_port() -> int:
    """A port that nobody listens at."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port: int = probe.getsockname()[1]
        return port


class Server:
    """``obrell demo`` as a process of its own, that can be killed and started again, on a copy of a database."""

    def __init__(self, folder: Path, sample: Path) -> None:
        self.data = copied(sample, folder)
        self.port = FREED.pop() if FREED else free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.pid = 0
        self.start()

    def start(self) -> None:
        self.pid = fleet().start(self.port, self.data)
        urllib.request.urlopen(self.url, timeout=PATIENCE_S).close()

    def kill(self) -> None:
        """As the power failing would: no chance to tidy up."""
        if self.pid:
            self.end(signal.SIGKILL)

    def end(self, how: signal.Signals) -> None:
        """A signal, and what comes of it."""
        ended = os.pidfd_open(self.pid)
        os.kill(self.pid, how)
        assert select.select([ended], [], [], PATIENCE_S)[0]
        os.close(ended)
        self.pid = 0


@pytest.fixture(scope="session")
def sample(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A database with the sample kit, as ``obrell demo`` makes it."""
    data = tmp_path_factory.mktemp("sample") / "kits.db"
    Kits(data).import_kit(wendmere_lock())
    return data


@pytest.fixture
def server(tmp_path: Path, sample: Path) -> Iterator[Server]:
    running = Server(tmp_path, sample)
    yield running
    running.kill()
    FREED.append(running.port)


@pytest.fixture(scope="session")
def common_server(tmp_path_factory: pytest.TempPathFactory, sample: Path) -> Iterator[Server]:
    """One server for all journeys that draw on controls of their own."""
    running = Server(tmp_path_factory.mktemp("common"), sample)
    yield running
    running.kill()


@pytest.fixture(scope="session")
def windows(chromium: Browser) -> Windows:
    """Where the window of each journey comes from."""
    return Windows(chromium)


@pytest.fixture
def page(windows: Windows) -> Iterator[Page]:
    """A fresh window; a script error or a refused style fails the test."""
    yield windows.give()
    windows.take()
    assert windows.faults == []


@pytest.fixture
def database(tmp_path, sample):
    """A database of its own with the sample kit."""
    return copied(sample, tmp_path)


@pytest.fixture
def kits(database):
    """The sample kit in a database of its own."""
    made = Kits(database)
    yield made
    made.close()
