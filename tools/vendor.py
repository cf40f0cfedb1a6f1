"""Fetch the fonts, styles and scripts that ship with Obrell, at pinned versions, with licences.

Run ``python tools/vendor.py`` after changing a version here, and commit what it writes.
"""

from __future__ import annotations

import json
import re
import subprocess
import tarfile
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

SOURCE = Path(__file__).parent.parent / "src" / "obrell"
STATIC = SOURCE / "web" / "static" / "vendor"
FONTS = SOURCE / "core" / "text" / "fonts"
ICONS = SOURCE / "core" / "icons"
FAMILIES = (
    "hanken-grotesk", "spline-sans-mono", "lora", "playfair-display", "oswald", "nunito", "comfortaa", "unbounded",
)  # fmt: skip
FONT_VERSION = "5.3.0"
SUBSETS = ("latin", "latin-ext", "greek", "cyrillic")
UNWANTED_TAGS = re.compile("transcri")
"""Tags that say nothing about a control of an interface."""
ICON_PACKAGE = "lucide-static@1.62.0"

PACKAGES: dict[str, tuple[Path, dict[str, str]]] = {
    "htmx.org@2.0.11": (
        STATIC / "htmx", {"dist/htmx.min.js": "htmx.min.js", "LICENSE": "LICENSE"},
    ),
    "idiomorph@0.8.0": (
        STATIC / "idiomorph", {"dist/idiomorph.esm.js": "idiomorph.esm.js", "LICENSE": "LICENSE"},
    ),
    "bulma@1.0.4": (
        STATIC / "bulma",
        {"css/versions/bulma-no-helpers.min.css": "bulma.min.css", "LICENSE": "LICENSE"},
    ),
}  # fmt: skip


@contextmanager
def opened(package: str) -> Iterator[tarfile.TarFile]:
    """One package from the registry, as an archive."""
    with tempfile.TemporaryDirectory() as folder:
        subprocess.run(["npm", "pack", "--silent", package], cwd=folder, check=True, stdout=subprocess.DEVNULL)
        with tarfile.open(next(Path(folder).glob("*.tgz"))) as archive:
            yield archive


def content(archive: tarfile.TarFile, name: str) -> bytes:
    """A file of a package."""
    found = archive.extractfile(f"package/{name}")
    if found is None:
        raise SystemExit(f"There is no file {name}")
    return found.read()


def fetch(package: str, target: Path, files: dict[str, str]) -> None:
    """Unpack the named files of one package into ``target``."""
    target.mkdir(parents=True, exist_ok=True)
    with opened(package) as archive:
        for source, name in files.items():
            (target / name).write_bytes(content(archive, source))


def fetch_font(family: str) -> None:
    """A family's weight axis, one file for each subset that it has, and its licence."""
    target = FONTS / family
    target.mkdir(parents=True, exist_ok=True)
    with opened(f"@fontsource-variable/{family}@{FONT_VERSION}") as archive:
        there = set(archive.getnames())
        for subset in SUBSETS:
            file = f"files/{family}-{subset}-wght-normal.woff2"
            if f"package/{file}" in there:
                (target / f"{subset}.woff2").write_bytes(content(archive, file))
        (target / "LICENSE").write_bytes(content(archive, "LICENSE"))


def fetch_icons() -> None:
    """All icons as path data on a grid of 24 with their tags, in one file."""
    ICONS.mkdir(parents=True, exist_ok=True)
    with opened(ICON_PACKAGE) as archive:
        nodes = json.loads(content(archive, "icon-nodes.json"))
        tags = json.loads(content(archive, "tags.json"))
        (ICONS / "LICENSE").write_bytes(content(archive, "LICENSE"))
    icons = {
        name: {
            "paths": [as_path(kind, values) for kind, values in nodes[name]],
            "tags": [tag for tag in tags.get(name, []) if not UNWANTED_TAGS.search(tag)],
        }
        for name in sorted(nodes)
    }
    lines = (f"{json.dumps(name)}: {json.dumps(icon, ensure_ascii=False)}" for name, icon in icons.items())
    (ICONS / "icons.json").write_text("{\n" + ",\n".join(lines) + "\n}\n")


def as_path(kind: str, values: dict[str, str]) -> str:
    """A basic shape as path data."""
    n = {key: float(value) for key, value in values.items() if key not in ("d", "points", "fill")}
    match kind:
        case "path":
            return values["d"]
        case "circle":
            return ellipse(n["cx"], n["cy"], n["r"], n["r"])
        case "ellipse":
            return ellipse(n["cx"], n["cy"], n["rx"], n["ry"])
        case "line":
            return f"M{n['x1']:g} {n['y1']:g}L{n['x2']:g} {n['y2']:g}"
        case "rect":
            return rectangle(n["x"], n["y"], n["width"], n["height"], n.get("rx", n.get("ry", 0)))
        case "polyline" | "polygon":
            return f"M{values['points']}" + ("Z" if kind == "polygon" else "")
    raise SystemExit(f"An icon has a {kind}, which is not known")


def ellipse(cx: float, cy: float, rx: float, ry: float) -> str:
    arc = f"A{rx:g} {ry:g} 0 0 1 "
    return f"M{cx - rx:g} {cy:g}{arc}{cx + rx:g} {cy:g}{arc}{cx - rx:g} {cy:g}Z"


def rectangle(x: float, y: float, width: float, height: float, r: float) -> str:
    if not r:
        return f"M{x:g} {y:g}h{width:g}v{height:g}h{-width:g}Z"
    arc = f"a{r:g} {r:g} 0 0 1 "
    across, down = width - 2 * r, height - 2 * r
    return (
        f"M{x + r:g} {y:g}h{across:g}{arc}{r:g} {r:g}v{down:g}{arc}{-r:g} {r:g}"
        f"h{-across:g}{arc}{-r:g} {-r:g}v{-down:g}{arc}{r:g} {-r:g}Z"
    )


if __name__ == "__main__":
    for name, (folder, wanted) in PACKAGES.items():
        fetch(name, folder, wanted)
    for family in FAMILIES:
        fetch_font(family)
    fetch_icons()
