"""Kit files: read back as written, and refused in words when they are not kits."""

import json
from base64 import b64encode

import pytest

from obrell.core.errors import BadDocument, TooLarge
from obrell.core.files import file_id
from obrell.core.interchange.kit_file import kit_from, write_kit
from obrell.core.interchange.limits import MAX_KIT_BYTES
from obrell.core.shapes import Text
from obrell.core.text.fonts import FONT_FOLDER
from obrell.core.trial.kits import read_kit
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import control, kit, part, png, slope, solid

WHOLE = write_kit(wendmere_lock())


def with_change(**changes):
    return json.dumps(json.loads(WHOLE) | changes).encode()


def test_there_and_back():
    assert kit_from(WHOLE) == wendmere_lock()
    assert write_kit(kit_from(WHOLE)) == WHOLE


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
        (WHOLE.replace(b'"inner-shadow"', b'"inner-sparkle"'), "cannot be of that kind here"),
        (WHOLE.replace(b'"kind": "moved"', b'"kind": "sparkled"'), "states/1/differences/0: cannot be of that kind"),
        (
            WHOLE.replace(b'"touch": null', b'"touch": {"kind": "outline", "data": "M0 0 Lx"}', 1),
            "touch area cannot be read",
        ),
        (WHOLE.replace(b'"blur": 9.0', b'"blur": NaN'), "blur"),
        (WHOLE.replace(b'"blur": 9.0', b'"blur": -1'), "blur"),
    ],
)
def test_what_is_not_a_kit_is_refused_with_the_place(content, words):
    with pytest.raises(BadDocument, match=words):
        kit_from(content)


def test_a_huge_file_is_not_even_parsed():
    with pytest.raises(TooLarge, match="60 MB"):
        read_kit(b" " * (MAX_KIT_BYTES + 1))


def test_a_font_that_is_used_but_no_longer_listed_comes_along():
    content = (FONT_FOLDER / "nunito" / "latin.woff2").read_bytes()
    words = part(Text(words="Sluice", font=file_id(content)), solid("#204060"))
    whole = kit(control(words)).evolve(files={file_id(content): b64encode(content).decode()})
    assert kit_from(write_kit(whole)) == whole


def test_a_file_is_what_it_is_named_after():
    content = b64encode(png(slope(4, 4))).decode()
    with pytest.raises(BadDocument, match="not the one that its name stands for"):
        kit_from(write_kit(kit().evolve(files={"0" * 32: content})))
    with pytest.raises(BadDocument, match="not a PNG, JPEG or WebP"):
        kit_from(write_kit(kit().evolve(files={file_id(b"nothing"): b64encode(b"nothing").decode()})))
