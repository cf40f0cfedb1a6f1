"""Coverage-guided fuzzing of the readers: inputs that reach new code are kept and changed again.

``python -m tools.fuzz svg 60`` reads SVGs for a minute; the other kinds are ``font``, ``picture`` and ``kit``. It ends
with an error when a reader answers with anything but words of ours, takes longer than it may, or more memory. The
fuzzer is installed by ``make soak`` only.
"""

from __future__ import annotations

import os
import sys
import tempfile
from collections.abc import Callable
from pathlib import Path

os.environ["OBRELL_ASIDE"] = "1"  # readers work in this process

import atheris

with atheris.instrument_imports(include=["obrell.core.interchange", "obrell.core.geometry.svgdata", "fontTools"]):
    from obrell.core.errors import ObrellError
    from obrell.core.interchange.fonts import read_font
    from obrell.core.interchange.pictures import read_picture
    from obrell.core.interchange.svg.reader import read_svg
    from obrell.core.trial.kits import read_kit

from tests.hostile.making import nth

READERS: dict[str, Callable[[bytes], object]] = {
    "svg": lambda content: read_svg(content.decode("utf-8", "replace")),
    "font": read_font, "picture": read_picture, "kit": read_kit,
}  # fmt: skip
SEEDS = range(30, 90)
"""Small files of every kind to begin with, not those made to be as bad as can be."""
LONGEST_S, MOST_MEGABYTES, MOST_BYTES = 5, 1000, 200_000


def main(kind: str, seconds: int) -> None:
    """Fuzz one reader for a while."""
    reader = READERS[kind]

    def one(content: bytes) -> None:
        try:
            reader(content)
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
