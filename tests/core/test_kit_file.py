"""Kit files: read back as written, and refused in words when they are not kits."""

import json

import pytest

from obrell.core.errors import BadDocument, TooLarge
from obrell.core.interchange.kit_file import read_kit, write_kit
from obrell.core.interchange.limits import MAX_KIT_BYTES
from obrell.samples.wendmere_lock import wendmere_lock

WHOLE = write_kit(wendmere_lock())


def with_change(**changes):
    return json.dumps(json.loads(WHOLE) | changes).encode()


def test_there_and_back():
    assert read_kit(WHOLE) == wendmere_lock()
    assert write_kit(read_kit(WHOLE)) == WHOLE


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "breaks off"),
        (WHOLE[: len(WHOLE) // 2], "breaks off or is wrong in line"),
        (b"\xff\xfe\x00", "not UTF-8"),
        (b"[" * 100_000, "nested too deeply"),
        (b"PK\x03\x04 truncated", "an archive"),
        (b"[]", "does not hold one object"),
        (with_change(schema_version=99), "later Obrell"),
        (with_change(name=""), "name"),
        (with_change(sparkle=1), "sparkle"),
        (WHOLE.replace(b'"inner-shadow"', b'"inner-sparkle"'), "inner-sparkle"),
        (WHOLE.replace(b'"blur": 9.0', b'"blur": NaN'), "blur"),
        (WHOLE.replace(b'"blur": 9.0', b'"blur": -1'), "blur"),
    ],
)
def test_what_is_not_a_kit_is_refused_with_the_place(content, words):
    with pytest.raises(BadDocument, match=words):
        read_kit(content)


def test_a_huge_file_is_not_even_parsed():
    with pytest.raises(TooLarge, match="60 MB"):
        read_kit(b" " * (MAX_KIT_BYTES + 1))
