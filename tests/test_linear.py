"""The check of regular expressions finds those that can take longer than the text is long, and no others."""

import pytest

from tools.linear import faults

SLOW = [
    (r"--[\w-]+\s*:", "search"), (r"(a+)+$", "match"), (r"(ab|a|b)*$", "match"), (r"\s*(all)?\s*", "fullmatch"),
    (r"^(.+?)[\s,]+#;?$", "match"), (r"url\(\s*(['\"]?)\s*#", "match"), (r"\s+\(", "sub"), (r"(?:\w+\s?)*!", "match"),
    (r"x[a-z]*y*z", "match"),
]  # fmt: skip
LINEAR = [
    (r"--[\w-]{1,80}\s{0,20}:", "search"), (r"(?<=[a-z])\s+\(", "sub"), (r"[^a-z0-9]+", "sub"), (r"(a+b)+$", "match"),
    (r"url\(\s*+(['\"]?)\s*+#", "match"), (r"(\d+\.?\d*|\.\d+)([eE][-+]?\d+)?", "match"), (r"[^\"]*\"", "match"),
    (r"var\(\s*(--[\w-]+)\s*(?:,([^()]*))?\)", "search"), (r"parts/[^/]+/x", "fullmatch"),
    (r"(?:[^,]+,)*", "fullmatch"),
]  # fmt: skip


@pytest.mark.parametrize(("pattern", "way"), SLOW, ids=[pattern for pattern, _ in SLOW])
def test_slow_ones_are_found(pattern, way):
    assert list(faults(pattern, frozenset((way,))))


@pytest.mark.parametrize(("pattern", "way"), LINEAR, ids=[pattern for pattern, _ in LINEAR])
def test_linear_ones_are_not(pattern, way):
    assert list(faults(pattern, frozenset((way,)))) == []
