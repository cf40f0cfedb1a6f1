"""The figures in ``docs/reliability.md``, from runs: how often everything is tried, and what it takes under load.

``python -m tools.reliability`` counts anew what is tried; with ``load`` it runs ``tools.load`` too and puts its table
in. What stands between the marks of the document is replaced, the rest is written by hand.
"""

from __future__ import annotations

import re
import subprocess
import sys
from collections.abc import Mapping
from pathlib import Path
from typing import get_args

from obrell.core.door import READERS
from obrell.core.edit import AnyEdit
from obrell.core.edit.panels import AnyPanelEdit
from obrell.web import rooms

DOCUMENT = Path("docs/reliability.md")
MAKEFILE = Path("Makefile")
USUAL = {"LAW": "3", "DOCUMENTS": "100", "HOSTILE": "300", "FUZZ": "6", "KILLS": "3"}
"""What the tests take when nothing is said; ``counted`` checks each against its file."""
PLACES = {
    "LAW": "tests/web/test_law_of_edits.py", "DOCUMENTS": "tests/core/test_rules.py",
    "HOSTILE": "tests/hostile/test_hostile.py", "FUZZ": "tests/web/test_fuzz.py",
    "KILLS": "tests/browser/test_journeys.py",
}  # fmt: skip


def counts(place: str) -> int:
    """How many tests a file or folder has, as pytest collects them."""
    command = [sys.executable, "-m", "pytest", "--collect-only", "-n", "0", place]
    said = subprocess.run(command, capture_output=True, text=True, check=True).stdout
    found = re.search(r"^(\d+) tests? collected", said, re.MULTILINE)
    if found is None:
        raise SystemExit(f"{place} cannot be collected:\n{said[-500:]}")
    return int(found[1])


def usual() -> Mapping[str, int]:
    """How much ``make test`` tries, as the test files say."""
    for name, value in USUAL.items():
        if f'"OBRELL_{name}", "{value}"' not in Path(PLACES[name]).read_text("utf-8"):
            raise SystemExit(f"{PLACES[name]} tries another number of OBRELL_{name} than {value}.")
    return {name: int(value) for name, value in USUAL.items()}


def soaked() -> Mapping[str, int]:
    """How much ``make soak`` tries, as the Makefile says."""
    return {name: int(value) for name, value in re.findall(r"OBRELL_([A-Z]+)=(\d+)", MAKEFILE.read_text("utf-8"))}


def tried() -> str:
    """The table of what is tried, and how often."""
    assert rooms.router.routes, "all readers are registered"
    few, many = usual(), soaked()
    controls, panels = (len(get_args(get_args(one)[0])) for one in (AnyEdit, AnyPanelEdit))
    readers = ", ".join(sorted(READERS))
    rows = [
        (f"every kind of edit of controls ({controls}) and panels ({panels}) through the routes, and every number of "
         "both at its ends: refused is not stored, stored is shown everywhere", PLACES["LAW"],
         f"{few['LAW']} of each, every {max(1, 12 // few['LAW'])}th end", f"{many['LAW']} of each, every end"),
        ("any document: refused in words, or drawn and written as SVG", PLACES["DOCUMENTS"],
         f"{few['DOCUMENTS']}", f"{many['DOCUMENTS']:,}"),
        (f"hostile input for every registered reader ({readers})", PLACES["HOSTILE"],
         f"{few['HOSTILE']} of each", f"{many['HOSTILE']:,} of each"),
        ("every route with anything: no fault, nothing written outside, a refusal or a look writes nothing",
         PLACES["FUZZ"], f"{few['FUZZ']} of each", f"{many['FUZZ']} of each"),
        ("every command in a home full of other people's files and links", "tests/cli/test_disk.py", "each", "each"),
        ("readers under a coverage-guided fuzzer", "tools/fuzz.py", "", "5 minutes each"),
        ("every page of a database overwritten in turn", "tests/store/test_reliability.py", "each", "each"),
        ("full, locked, moved, damaged, foreign databases; the log removed", "tests/store, tests/cli", "each", "each"),
        ("kills in the middle of edits with lost answers", PLACES["KILLS"], f"{few['KILLS']}", f"{many['KILLS']}"),
        ("two windows, random edits, both equal at the end", f"{PLACES['KILLS']}, tests/store", "each", "each"),
    ]  # fmt: skip
    lines = ["| what | where | bounded in `make test` | `make soak` |", "|---|---|---|---|"]
    lines += [f"| {what} | {_code(where)} | {bounded} | {soak} |" for what, where, bounded, soak in rows]
    total = ", ".join(f"{counts(place):,} in `{place}`" for place in ("tests/hostile", "tests/store", "tests/cli"))
    return "\n".join([*lines, "", f"{counts('tests'):,} tests are in `tests`, of these {total}."])


def _code(where: str) -> str:
    return ", ".join(f"`{one}`" for one in where.split(", "))


def load() -> str:
    """The table of what it takes under load."""
    under = subprocess.run([sys.executable, "-m", "tools.load"], capture_output=True, text=True, check=False).stdout
    return under.strip()


def replaced(text: str, name: str, made: str) -> str:
    """The document with what stands between a mark and its end replaced."""
    mark, end = f"<!-- {name}: made by `python -m tools.reliability` -->", f"<!-- end of {name} -->"
    before, found, rest = text.partition(mark)
    _, closed, after = rest.partition(end)
    if not found or not closed:
        raise SystemExit(f"{DOCUMENT} has no place for {name}.")
    return f"{before}{mark}\n{made}\n{end}{after}"


def main(words: list[str]) -> None:
    """Write the document anew."""
    text = replaced(DOCUMENT.read_text("utf-8"), "tried", tried())
    if "load" in words:
        text = replaced(text, "load", load())
    DOCUMENT.write_text(text, "utf-8")


if __name__ == "__main__":
    main(sys.argv[1:])
