"""Regular expressions whose time can grow faster than the text: nested and overlapping repeats.

``python -m tools.linear src`` reads every pattern in the sources and ends with 1 when one of them, on a text made for
it, takes time that grows with the square of its length or worse. Three forms are found:

- a repeat within a repeat that can take the same letters: ``(a+)+``, ``(a|a)*``;
- two repeats beside each other that can, when something behind them can fail: ``\\s*x?\\s*$``;
- a search that begins anew within what a repeat takes: ``--[\\w-]+:`` on a line of ``-``.

A repeat that is bounded (``{1,80}``) or possessive (``*+``) is none of these. Letters are told apart by a sample.
"""

from __future__ import annotations

import ast
import re
import sys
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from re import _constants as sre  # type: ignore[attr-defined]
from re import _parser  # type: ignore[attr-defined]
from typing import Any

ALPHABET = frozenset([*map(chr, range(256)), "ſ", "\u0660", "\u2028", "\uff13", "中"])
LONG = 1000
"""From how many times on a repeat is unbounded."""
STARTING = ("match", "fullmatch")
SEARCHING = ("search", "findall", "finditer", "sub", "subn", "split", "compile")
OWN = {
    "values/base.py": "canonical JSON, which we wrote",
    "web/pages.py": "our own templates",
    "web/trial_page.py": "our own scripts",
}
"""Files whose patterns see no text from outside."""
Item = tuple[Any, Any]


@dataclass(frozen=True, slots=True)
class Used:
    """A pattern where it stands, and the ways in which it is used."""

    path: Path
    line: int
    pattern: str
    ways: frozenset[str]


def faults(pattern: str, ways: frozenset[str]) -> Iterator[str]:
    """What is wrong with a pattern that is used so, in words."""
    items = list(_parser.parse(pattern))
    yield from _nested(items)
    yield from _beside(items, can_fail="fullmatch" in ways)
    if ways - set(STARTING):
        yield from _begun_anew(items)


def letters(item: Item) -> frozenset[str]:
    """Every letter of the sample that an item can take anywhere."""
    kind, value = item
    if kind is sre.LITERAL:
        return frozenset((chr(value),))
    if kind is sre.NOT_LITERAL:
        return ALPHABET - {chr(value)}
    if kind is sre.ANY:
        return ALPHABET
    if kind is sre.IN:
        return _of_class(value)
    return frozenset().union(*(letters(one) for inner in _within(item) for one in inner))


def _of_class(parts: Sequence[Item]) -> frozenset[str]:
    negated = bool(parts) and parts[0][0] is sre.NEGATE
    found: set[str] = set()
    for kind, value in parts:
        if kind is sre.LITERAL:
            found.add(chr(value))
        elif kind is sre.RANGE:
            found |= {one for one in ALPHABET if value[0] <= ord(one) <= value[1]}
        elif kind is sre.CATEGORY:
            found |= {one for one in ALPHABET if re.fullmatch(CATEGORIES[str(value)], one)}
    return ALPHABET - found if negated else frozenset(found)


CATEGORIES = {
    "CATEGORY_DIGIT": r"\d", "CATEGORY_NOT_DIGIT": r"\D", "CATEGORY_SPACE": r"\s", "CATEGORY_NOT_SPACE": r"\S",
    "CATEGORY_WORD": r"\w", "CATEGORY_NOT_WORD": r"\W",
}  # fmt: skip


def _within(item: Item) -> list[list[Item]]:
    """The sequences in an item, of which it takes one."""
    kind, value = item
    if kind in (sre.MAX_REPEAT, sre.MIN_REPEAT, sre.POSSESSIVE_REPEAT):
        return [list(value[2])]
    if kind is sre.SUBPATTERN:
        return [list(value[3])]
    if kind is sre.BRANCH:
        return [list(one) for one in value[1]]
    if kind is sre.ATOMIC_GROUP:
        return [list(value)]
    return []


def _is_long(item: Item) -> bool:
    """Whether it is a repeat that gives back, and has no near end."""
    kind, value = item
    return kind in (sre.MAX_REPEAT, sre.MIN_REPEAT) and value[1] >= LONG


def _can_be_empty(items: Sequence[Item]) -> bool:
    return all(_is_optional(one) for one in items)


def _is_optional(item: Item) -> bool:
    kind, value = item
    if kind in (sre.MAX_REPEAT, sre.MIN_REPEAT, sre.POSSESSIVE_REPEAT) and value[0] == 0:
        return True
    if kind in (sre.ASSERT, sre.ASSERT_NOT):
        return True
    if kind is sre.AT:
        return False
    inner = _within(item)
    return bool(inner) and any(_can_be_empty(one) for one in inner)


def _first(items: Sequence[Item]) -> frozenset[str]:
    """The letters that a sequence can begin with."""
    found: frozenset[str] = frozenset()
    for item in items:
        inner = _within(item)
        found |= frozenset().union(*map(_first, inner)) if inner else letters(item)
        if not _is_optional(item):
            break
    return found


def _nested(items: Sequence[Item], loop: Sequence[Item] = ()) -> Iterator[str]:
    """``loop`` is what may come again behind, where all of it stands in a repeat."""
    for place, item in enumerate(items):
        behind = [*items[place + 1 :], *loop]
        if loop and _is_long(item) and letters(item) & _first(behind):
            yield "a repeat within a repeat can take the same letters"
        if loop and item[0] is sre.BRANCH:
            firsts = [_first(one) for one in _within(item)]
            if any(one & other for at, one in enumerate(firsts) for other in firsts[at + 1 :]):
                yield "two choices within a repeat can begin with the same letter"
        for inner in _within(item):
            yield from _nested(inner, [*inner, *behind] if _is_long(item) else behind if loop else ())


def _beside(items: Sequence[Item], *, can_fail: bool) -> Iterator[str]:
    flat = _flat(items)
    for place, item in enumerate(flat):
        if not _is_long(item):
            continue
        for at in range(place + 1, len(flat)):
            other, behind = flat[at], flat[at + 1 :]
            if _is_long(other) and letters(item) & letters(other) and (can_fail or not _can_be_empty(behind)):
                yield "two repeats beside each other can take the same letters"
            if not _is_optional(other) and not (_is_long(other) and letters(other) & letters(item)):
                break


def _flat(items: Sequence[Item]) -> list[Item]:
    """A sequence with the groups in it that must be taken as what they hold."""
    found: list[Item] = []
    for item in items:
        inner = _within(item)
        found += _flat(inner[0]) if item[0] is sre.SUBPATTERN and len(inner) == 1 else [item]
    return found


def _begun_anew(items: Sequence[Item]) -> Iterator[str]:
    flat = _flat(items)
    before = frozenset().union(*(letters(one) for kind, value in flat[:1] if kind is sre.ASSERT for one in value[1]))
    for place, item in enumerate(flat):
        if not _is_long(item) or _can_be_empty(flat[place + 1 :]):
            continue
        taken = letters(item)
        ahead = [one for one in flat[:place] if one[0] not in (sre.ASSERT, sre.ASSERT_NOT)]
        anywhere = all(_is_optional(one) or letters(one) & taken for one in ahead)
        if anywhere and (not ahead or _first(ahead) & taken) and (not before or before & taken):
            yield "a search can begin anew within what a repeat takes"


def used_in(path: Path) -> Iterator[Used]:
    """Every pattern in a source file that stands there as text."""
    tree = ast.parse(path.read_text("utf-8"))
    named: dict[str, tuple[int, str]] = {}
    for node in ast.walk(tree):
        if isinstance(node, ast.Assign) and (pattern := _compiled(node.value)) is not None:
            for target in node.targets:
                if isinstance(target, ast.Name):
                    named[target.id] = (node.lineno, pattern)
    ways: dict[str, set[str]] = {name: set() for name in named}
    for node in ast.walk(tree):
        if not isinstance(node, ast.Call) or not isinstance(node.func, ast.Attribute):
            continue
        owner, way = node.func.value, node.func.attr
        if isinstance(owner, ast.Name) and owner.id in named:
            ways[owner.id].add(way)
        elif isinstance(owner, ast.Name) and owner.id == "re" and way in (*STARTING, *SEARCHING) and way != "compile":
            pattern = _text(node.args[0])
            if pattern is not None:
                yield Used(path, node.lineno, pattern, frozenset((way,)))
    for name, (line, pattern) in named.items():
        yield Used(path, line, pattern, frozenset(ways[name] or {"search"}))


def _compiled(node: ast.expr) -> str | None:
    if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute) and node.func.attr == "compile":
        return _text(node.args[0])
    return None


def _text(node: ast.expr) -> str | None:
    """A text that stands there, pieces that are put in counted as a letter."""
    if isinstance(node, ast.Constant):
        return node.value.decode("latin-1") if isinstance(node.value, bytes) else str(node.value)
    if isinstance(node, ast.JoinedStr):
        return "".join(str(one.value) if isinstance(one, ast.Constant) else "x" for one in node.values)
    return None


def main(folder: str) -> int:
    """Say what is wrong with every pattern below a folder."""
    wrong = [
        f"{used.path}:{used.line}: {why}: {used.pattern}"
        for path in sorted(Path(folder).rglob("*.py")) if not any(path.as_posix().endswith(own) for own in OWN)
        for used in used_in(path)
        for why in dict.fromkeys(faults(used.pattern, used.ways))
    ]  # fmt: skip
    print("\n".join(wrong) or "Every regular expression is linear.")
    return bool(wrong)


if __name__ == "__main__":
    sys.exit(main(sys.argv[1]))
