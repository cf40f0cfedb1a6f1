"""Making the files of a plan, and the one archive they travel in."""

from __future__ import annotations

import hashlib
import json
import os
import threading
import zipfile
from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from contextlib import AbstractContextManager, nullcontext, suppress
from contextvars import copy_context
from typing import IO, Any

from obrell.core.deliver.plan import File, LeftOut, Plan, body_box
from obrell.core.document.model import KitSettings
from obrell.core.errors import ObrellError, Stopped

MANIFEST = "manifest.json"
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
        _write(archive, MANIFEST, manifest(kit, entries, left_out).encode())
    return tuple(left_out)


def manifest(kit: KitSettings, entries: list[dict[str, Any]], left_out: Sequence[LeftOut] = ()) -> str:
    """The manifest as JSON: the kit's name, one entry per file, and what was left out when anything was."""
    content: dict[str, Any] = {"kit": kit.name, "files": entries}
    if left_out:
        content["left_out"] = [{"name": one.name, "why": one.words} for one in left_out]
    return json.dumps(content, indent=2, ensure_ascii=False) + "\n"


def entry(file: File, content: bytes) -> dict[str, Any]:
    """What the manifest says of one file; lengths in its own pixels, body without shadows."""
    body = body_box(file.resolved, file.job.density)
    colourway = {"colourway": file.colourway} if file.colourway else {}
    return {
        "name": file.name,
        "control": file.resolved.control.name,
        **colourway,
        "state": file.state,
        **({"readings": dict(file.readings)} if file.readings else {}),
        "format": file.format.kind,
        "density": file.job.density,
        "width": file.pixels.width,
        "height": file.pixels.height,
        "body": {
            "left": body.left - file.pixels.left, "top": body.top - file.pixels.top,
            "width": body.width, "height": body.height,
        },
        "sha256": hashlib.sha256(content).hexdigest(),
    }  # fmt: skip


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
