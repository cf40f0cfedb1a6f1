"""One Chromium and, where a test wants it, a real server process on a database of its own."""

from __future__ import annotations

import contextlib
import os
import shutil
import signal
import socket
import subprocess
import sys
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
from tests.making import KEEPER

settings.register_profile("obrell", deadline=None, max_examples=60, derandomize=True)
settings.load_profile("obrell")
expect.set_options(timeout=20_000)

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


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Journeys run one after the other, beside everything else."""
    for item in items:
        if "browser" in item.path.parts:
            item.add_marker(pytest.mark.xdist_group("journeys"))


class Server:
    """``obrell demo`` as a process of its own, that can be killed and started again, on a copy of a database."""

    def __init__(self, folder: Path, sample: Path) -> None:
        self.data = folder / "kits.db"
        for part in (sample, sample.with_name(f"{sample.name}-wal")):
            if part.exists():
                shutil.copy(part, folder / part.name)
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None
        self.start()

    def start(self) -> None:
        command = [
            sys.executable,
            "-c",
            "from obrell.cli import main; main()",
            "demo",
            "--port",
            str(self.port),
        ]
        environment = os.environ | {"OBRELL_DATA": str(self.data)}
        self.process = subprocess.Popen(command, env=environment, stdout=subprocess.PIPE)
        assert self.process.stdout is not None
        assert b"Obrell is at" in self.process.stdout.readline()
        urllib.request.urlopen(self.url, timeout=PATIENCE_S).close()

    def kill(self) -> None:
        """As the power failing would: no chance to tidy up."""
        if self.process is not None:
            self.process.send_signal(signal.SIGKILL)
            self.process.wait()
            assert self.process.stdout is not None
            self.process.stdout.close()
            self.process = None


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


@pytest.fixture(scope="session")
def common_server(tmp_path_factory: pytest.TempPathFactory, sample: Path) -> Iterator[Server]:
    """One server for all journeys that draw on controls of their own."""
    running = Server(tmp_path_factory.mktemp("common"), sample)
    yield running
    running.kill()


@pytest.fixture
def page(chromium: Browser) -> Iterator[Page]:
    """A fresh window; a script error or a refused style fails the test."""
    context = chromium.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True)
    window = context.new_page()
    faults: list[str] = []
    window.on("pageerror", lambda error: faults.append(str(error)))
    window.on(
        "console",
        lambda said: faults.append(said.text) if "Content Security Policy" in said.text else None,
    )
    window.set_default_timeout(15_000)
    yield window
    with contextlib.suppress(Exception):
        context.close()
    assert faults == []


@pytest.fixture
def kits(tmp_path):
    """The sample kit in a database of its own."""
    made = Kits(tmp_path / "kits.db")
    made.import_kit(wendmere_lock())
    yield made
    made.close()
