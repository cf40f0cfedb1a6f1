"""File names by pattern: ``{kit}``, ``{control}``, ``{size}``, ``{colourway}``, ``{state}``, ``{frame}`` and
``{density}`` stand for words."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping

from obrell.core.errors import BadValue
from obrell.core.values.slugs import free_id

PATTERN = "{kit}/{control}.{size}.{colourway}.{state}.{frame}.{density}"
WORDS = ("kit", "control", "size", "colourway", "state", "frame", "density")
MAX_LENGTH = 200


def check_pattern(pattern: str) -> str:
    """The pattern, trimmed, when it can only make safe relative names; else ``ValueError``."""
    pattern = pattern.strip()
    plain = re.sub(r"\{(" + "|".join(WORDS) + r")\}", "x", pattern)
    if not pattern or len(pattern) > MAX_LENGTH:
        raise ValueError(f"a name pattern has 1 to {MAX_LENGTH} characters.")
    if "{" in plain or "}" in plain:
        known = [f"{{{word}}}" for word in WORDS]
        raise ValueError(f"only {', '.join(known[:-1])} and {known[-1]} stand for something.")
    if not re.fullmatch(r"[A-Za-z0-9 ._/-]+", plain):
        raise ValueError("use letters, digits, spaces, . _ - and / only.")
    if any(step.strip(" .") == "" for step in plain.split("/")):
        raise ValueError("a folder or file name in it is empty or only dots.")
    if "{control}" not in pattern:
        raise ValueError("{control} is needed, or all files would have one name.")
    return pattern


def words_of(named: Iterable[tuple[str, str]]) -> Mapping[str, str]:
    """Return a different word for file names for each (id, name), by id: the name in letters, digits and hyphens."""
    words: dict[str, str] = {}
    for ident, name in named:
        words[ident] = free_id(name, words.values(), ident)
    return words


def file_name(pattern: str, words: dict[str, str], extension: str) -> str:
    """The name for one file. A word without a value goes, with the sign before it; raises ``BadValue`` when what is
    left leads out of the folder that the files are written to."""
    name = pattern
    for word in WORDS:
        value = words.get(word, "")
        if value:
            name = name.replace(f"{{{word}}}", value)
        else:
            name = re.sub(r"[ ._-]?\{" + word + r"\}", "", name)
    if any(step.strip(" .") == "" for step in name.split("/")):
        wrong = f"This name pattern makes “{name}”, in which a folder or file has no name of its own."
        raise BadValue(wrong, "pattern")
    return f"{name}.{extension}"
