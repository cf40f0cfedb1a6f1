"""Names every line of templates, styles and scripts, and every class of scripts, that is longer than it may be; ends
with 1 when there is one.

``python -m tools.too_long FOLDER…``
"""

from __future__ import annotations

import re
import sys
from collections.abc import Iterator
from pathlib import Path

MOST_CHARACTERS = 120
MOST_LINES = 200
KINDS = {".html", ".css", ".js", ".mjs"}
CLASS = re.compile(r"(?:export )?class (\w+)")


def too_long(folder: Path) -> Iterator[str]:
    """What is too long in the files of a folder, and where, in words."""
    for file in sorted(path for path in folder.rglob("*") if path.suffix in KINDS):
        lines = file.read_text().splitlines()
        for number, line in enumerate(lines, start=1):
            if len(line) > MOST_CHARACTERS:
                yield f"{file}:{number}: {len(line)} characters; {MOST_CHARACTERS} are the most"
            found = CLASS.match(line)
            length = lines[number - 1 :].index("}") + 1 if found else 0
            if found and length > MOST_LINES:
                yield f"{file}:{number}: class {found[1]} has {length} lines; {MOST_LINES} are the most"


if __name__ == "__main__":
    told = [words for folder in sys.argv[1:] for words in too_long(Path(folder))]
    print("\n".join(told))
    sys.exit(bool(told))
