"""Coverage-guided fuzzing of the readers: inputs that reach new code are kept and changed again.

``python -m tools.fuzz svg 60`` reads SVGs for a minute; the other kinds are the names of the other readers. It ends
with an error when a reader answers with anything but words of ours, takes longer than it may, or more memory. The
fuzzer is installed by ``make soak`` only.
"""

from __future__ import annotations

import os
import sys
import tempfile
from pathlib import Path
from typing import Any

os.environ["OBRELL_ASIDE"] = "1"  # readers work in this process

import atheris

with atheris.instrument_imports(
    include=["obrell.core.interchange", "obrell.core.colour", "obrell.core.geometry.svgdata", "fontTools", "tinycss2"]
):
    from obrell.core.door import READERS
    from obrell.core.errors import ObrellError
    from obrell.web import rooms

from tests.hostile.making import nth

assert rooms.router.routes, "all readers are registered"
TEXTS = ("svg", "colour", "gradient")
"""Readers of text; the others read bytes."""
SEEDS = range(30, 90)
"""Small files of every kind to begin with, not those made to be as bad as can be."""
LONGEST_S, MOST_MEGABYTES, MOST_BYTES = 5, 1000, 200_000


def main(kind: str, seconds: int) -> None:
    """Fuzz one reader for a while."""
    reader = READERS[kind]
    more: tuple[Any, ...] = ({},) if kind == "svg" else ()

    def one(content: bytes) -> None:
        try:
            # Without the door, so that the fuzzer sees which code is reached.
            reader.function(content.decode("utf-8", "replace") if kind in TEXTS else content, *more)
        except ObrellError:
            return

    with tempfile.TemporaryDirectory() as corpus:
        for number in SEEDS:
            (Path(corpus) / str(number)).write_bytes(nth(kind, number)[:MOST_BYTES])
        options = [
            f"-max_total_time={seconds}", f"-timeout={LONGEST_S}", f"-rss_limit_mb={MOST_MEGABYTES}",
            f"-max_len={MOST_BYTES}", "-verbosity=0", "-print_final_stats=1", f"-artifact_prefix={corpus}/",
        ]  # fmt: skip
        atheris.Setup([sys.argv[0], *options, corpus], one)
        atheris.Fuzz()


if __name__ == "__main__":
    main(sys.argv[1], int(sys.argv[2]))
