"""Fetch the fonts, styles and scripts that ship with Obrell, at pinned versions, with licences.

Run ``python tools/vendor.py`` after changing a version here, and commit what it writes.
"""

from __future__ import annotations

import subprocess
import tarfile
import tempfile
from pathlib import Path

SOURCE = Path(__file__).parent.parent / "src" / "obrell"
STATIC = SOURCE / "web" / "static" / "vendor"
FONTS = SOURCE / "core" / "text" / "fonts"

PACKAGES: dict[str, tuple[Path, dict[str, str]]] = {
    "htmx.org@2.0.11": (
        STATIC / "htmx", {"dist/htmx.min.js": "htmx.min.js", "LICENSE": "LICENSE"},
    ),
    "bulma@1.0.4": (
        STATIC / "bulma",
        {"css/versions/bulma-no-helpers.min.css": "bulma.min.css", "LICENSE": "LICENSE"},
    ),
    "@fontsource-variable/hanken-grotesk@5.3.0": (
        FONTS / "hanken-grotesk",
        {"files/hanken-grotesk-latin-wght-normal.woff2": "wght.woff2", "LICENSE": "LICENSE"},
    ),
    "@fontsource-variable/spline-sans-mono@5.3.0": (
        FONTS / "spline-sans-mono",
        {"files/spline-sans-mono-latin-wght-normal.woff2": "wght.woff2", "LICENSE": "LICENSE"},
    ),
}  # fmt: skip


def fetch(package: str, target: Path, files: dict[str, str]) -> None:
    """Unpack the named files of one package into ``target``."""
    with tempfile.TemporaryDirectory() as folder:
        subprocess.run(["npm", "pack", "--silent", package], cwd=folder, check=True)
        archive = next(Path(folder).glob("*.tgz"))
        target.mkdir(parents=True, exist_ok=True)
        with tarfile.open(archive) as tar:
            for source, name in files.items():
                content = tar.extractfile(f"package/{source}")
                if content is None:
                    raise SystemExit(f"{package} has no file {source}")
                (target / name).write_bytes(content.read())


if __name__ == "__main__":
    for name, (folder, wanted) in PACKAGES.items():
        fetch(name, folder, wanted)
        print(f"{name} → {folder.relative_to(SOURCE)}")
