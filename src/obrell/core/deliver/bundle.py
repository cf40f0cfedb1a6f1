"""Making the files of a plan, and the one archive they travel in."""

from __future__ import annotations

import os
import threading
import zipfile
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import AbstractContextManager, nullcontext, suppress
from contextvars import copy_context
from typing import IO

from obrell.core.deliver.manifest import MANIFEST, entry, manifest
from obrell.core.deliver.plan import File, LeftOut, Plan
from obrell.core.document.model import KitSettings
from obrell.core.errors import ObrellError, Stopped

WORKERS = 2
"""Kernels and deflate run without the interpreter lock, so threads fill both cores."""
NICENESS = 10
EPOCH = (1980, 1, 1, 0, 0, 0)
"""Every entry's date, so that the same kit gives the same archive."""

Room = Callable[[int], AbstractContextManager[None]]
"""Given how many device px a drawing has, waits until it may begin."""
Progress = Callable[[int, str], bool]
"""Told how many files are made and the last one's name; answers whether to go on."""


def make(file: File) -> bytes:
    """The content of one file. The same call serves the interface, the zip and the command line."""
    return file.format.make(file.job, file.options)


def bundle(
    kit: KitSettings, planned: Plan, target: IO[bytes], progress: Progress, room: Room = lambda _: nullcontext()
) -> tuple[LeftOut, ...]:  # fmt: skip
    """Write the archive to ``target``; what was left out, planned or on the way. Every file is made within ``room``
    for its pixels. Raises ``Stopped`` when ``progress`` says so."""
    entries, left_out = [], list(planned.left_out)
    with zipfile.ZipFile(target, "w", zipfile.ZIP_STORED) as archive:
        for count, (file, content) in enumerate(made(planned.files, room), start=1):
            if isinstance(content, LeftOut):
                left_out.append(content)
            else:
                _write(archive, file.name, content, packed=file.format.packed)
                entries.append(entry(file, content))
            if not progress(count, file.name):
                raise Stopped("The delivery was stopped; no archive was kept.")
        _write(archive, MANIFEST, manifest(kit, planned, entries, left_out).encode())
    return tuple(left_out)


def give_way() -> None:
    """Have this thread work when others do not: where somebody draws, frames come first. (On Linux a thread has a
    priority of its own, by its id as if it were a process.)"""
    with suppress(OSError):
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), NICENESS)


def _tried(file: File, room: Room) -> bytes | LeftOut:
    try:
        with room(file.pixels.area):
            return make(file)
    except ObrellError as error:
        return LeftOut(file.name, str(error))


def made(files: tuple[File, ...], room: Room = lambda _: nullcontext()) -> Iterator[tuple[File, bytes | LeftOut]]:
    """Files with their content, or why there is none, in order, a few ahead of the one asked for."""
    with ThreadPoolExecutor(WORKERS, initializer=give_way) as pool:
        ahead = WORKERS * 2
        waiting = [(file, pool.submit(copy_context().run, _tried, file, room)) for file in files[:ahead]]
        try:
            for index in range(len(files)):
                file, content = waiting.pop(0)
                if index + ahead < len(files):
                    following = files[index + ahead]
                    waiting.append((following, pool.submit(copy_context().run, _tried, following, room)))
                yield file, content.result()
        finally:
            for _, future in waiting:
                future.cancel()


def _write(archive: zipfile.ZipFile, name: str, content: bytes, *, packed: bool = False) -> None:
    info = zipfile.ZipInfo(name, EPOCH)
    info.external_attr = 0o644 << 16
    archive.writestr(info, content, zipfile.ZIP_STORED if packed else zipfile.ZIP_DEFLATED)
