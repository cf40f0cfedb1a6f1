"""Names every line of the templates that is longer than a line may be; ends with 1 when there is one.

``python -m tools.long_lines FOLDER``
"""

from __future__ import annotations

import sys
from pathlib import Path

MOST = 120


def long_lines(folder: Path) -> list[str]:
    """Where lines of files in ``folder`` are too long, in words."""
    return [
        f"{file}:{number}: {len(line)} characters; {MOST} are the most"
        for file in sorted(folder.rglob("*.html"))
        for number, line in enumerate(file.read_text().splitlines(), start=1)
        if len(line) > MOST
    ]


if __name__ == "__main__":
    found = long_lines(Path(sys.argv[1]))
    print("\n".join(found))
    sys.exit(bool(found))
