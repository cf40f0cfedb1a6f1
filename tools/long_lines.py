"""Names every line of templates, styles and scripts that is longer than a line may be; ends with 1 when there is one.

``python -m tools.long_lines FOLDER…``
"""

from __future__ import annotations

import sys
from pathlib import Path

MOST = 120
KINDS = {".html", ".css", ".js", ".mjs"}


def long_lines(folder: Path) -> list[str]:
    """Where lines of files in ``folder`` are too long, in words."""
    return [
        f"{file}:{number}: {len(line)} characters; {MOST} are the most"
        for file in sorted(path for path in folder.rglob("*") if path.suffix in KINDS)
        for number, line in enumerate(file.read_text().splitlines(), start=1)
        if len(line) > MOST
    ]


if __name__ == "__main__":
    found = [words for folder in sys.argv[1:] for words in long_lines(Path(folder))]
    print("\n".join(found))
    sys.exit(bool(found))
