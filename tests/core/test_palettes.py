"""Swatches out to files and in again."""

import json
import random
import string
from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.model import Colourway, Swatch
from obrell.core.document.resolve import palette
from obrell.core.errors import BadDocument, ObrellError, TooLarge
from obrell.core.interchange.limits import MAX_PALETTE_BYTES
from obrell.core.interchange.palettes import WRITERS, brought_in, read_palette
from obrell.core.interchange.palettes.tokens import tokens
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import KIT

LOCK = wendmere_lock().settings()
BARE = KIT.evolve(swatches=(), colourways=())
HEX = st.integers(0, 0xFFFFFF).map(lambda number: f"#{number:06x}")
LETTERS = st.text(st.sampled_from(string.ascii_letters + "éß 0-9."), min_size=2, max_size=9)
NAMES = st.lists(LETTERS.map(lambda name: f"s{name.strip()}"), min_size=1, max_size=6, unique_by=str.casefold)


@st.composite
def kits(draw):
    """Kits whose swatches have any names, roles, likenesses and colourways."""
    names = draw(NAMES)
    ids = [f"w{number}" for number in range(len(names))]
    swatches = []
    for number, name in enumerate(names):
        like = draw(st.sampled_from([None, *ids[:number]]))
        role = draw(st.sampled_from(["", "main", "label", "reeds"]))
        swatches.append(Swatch(id=ids[number], name=name, colour=draw(HEX), role=role, like=like))
    ways = [
        Colourway(
            id=f"c{number}", name=f"Way {number}", colours={one: draw(HEX) for one in ids if draw(st.booleans())}
        )
        for number in range(draw(st.integers(0, 2)))
    ]
    return KIT.evolve(swatches=tuple(swatches), colourways=tuple(ways))


def told(kit):
    """What a kit says of its swatches, by their names."""
    names = {one.id: one.name for one in kit.swatches}
    ways = {way.name: {names[one]: colour for one, colour in way.colours.items()} for way in kit.colourways}
    rows = [(one.name, one.colour, one.role, names.get(one.like or "")) for one in kit.swatches]
    return rows, {name: colours for name, colours in ways.items() if colours}


@given(kits())
def test_a_round_trip_through_tokens_loses_nothing(kit):
    again = brought_in(BARE, read_palette(tokens(kit).encode()))
    assert told(again) == told(kit)
    assert brought_in(kit, read_palette(tokens(kit).encode())) == kit


@pytest.mark.parametrize("kind", WRITERS)
def test_every_kind_brings_back_names_and_colours(kind):
    again = brought_in(BARE, read_palette(WRITERS[kind](LOCK).encode()))
    assert [one.name for one in again.swatches] == [one.name for one in LOCK.swatches]
    assert list(palette(again).values()) == list(palette(LOCK).values())


@pytest.mark.parametrize("kind", ["json", "css"])
def test_colourways_and_likenesses_go_along(kind):
    like = LOCK.evolve(swatches=(*LOCK.swatches, Swatch(id="deep", name="deep", colour="#000000", like="tarn")))
    again = brought_in(BARE, read_palette(WRITERS[kind](like).encode()))
    assert again.swatches[-1].like == "tarn"
    assert palette(again)["deep"] == LOCK.swatches[0].colour
    assert len(again.colourways) == len(LOCK.colourways)
    for mine, theirs in zip(again.colourways, LOCK.colourways, strict=True):
        assert dict(mine.colours) == dict(theirs.colours)


def test_tokens_of_others_are_read_with_groups_types_spaces_and_aliases():
    others = {
        "brand": {
            "$type": "color",
            "water": {"$value": {"colorSpace": "srgb", "components": [0.1216, 0.5412, 0.5725], "alpha": 1}},
            "deep": {"$value": "{brand.water}"},
            "warm": {"glow": {"$value": {"colorSpace": "oklch", "components": [0.7, 0.12, 80]}}},
            "size": {"$type": "dimension", "$value": {"value": 4, "unit": "px"}},
        },
        "plain": {"$type": "color", "$value": "#ABCDEF"},
    }
    kit = brought_in(BARE, read_palette(json.dumps(others).encode()))
    names = {one.name: one for one in kit.swatches}
    assert list(names) == ["brand water", "brand deep", "brand warm glow", "plain"]
    assert names["brand water"].colour == "#1f8a92"
    assert palette(kit)[names["brand deep"].id] == "#1f8a92"
    assert names["plain"].colour == "#abcdef"


def test_what_points_to_nothing_and_what_is_faint_is_said():
    others = {
        "sea": {
            "$type": "color", "mist": {"$value": {"colorSpace": "srgb", "components": [1, 1, 1], "alpha": 0.4}},
            "deep": {"$value": "{sea.gone}"}, "like": {"$value": "{sea.mist}"},
        }
    }  # fmt: skip
    read = read_palette(json.dumps(others).encode())
    assert [one.name for one in brought_in(BARE, read).swatches] == ["sea mist", "sea like"]
    assert read.remarks == [
        "Left out “sea deep”: it points to “sea.gone”, which is not in the file",
        "Swatches are opaque: the opacity of “sea mist” was left out",
    ]
    assert read_palette(b":root{--mist:#ffffff80;--deep:var(--gone)}").remarks == [
        "Left out “deep”: it points to “gone”, which is not in the file",
        "Swatches are opaque: the opacity of “mist” was left out",
    ]


def test_lists_are_read_however_they_are_written():
    text = "# ours\n#1f8a92 tarn\nbrass: C9952C\n\nslate, #4d5b63;\n 12  34 56 deep water"
    kit = brought_in(BARE, read_palette(text.encode()))
    assert [(one.name, one.colour) for one in kit.swatches] == [
        ("tarn", "#1f8a92"), ("brass", "#c9952c"), ("slate", "#4d5b63"), ("deep water", "#0c2238"),
    ]  # fmt: skip


def test_a_circle_of_likenesses_is_no_trap():
    one = Swatch(id="a", name="a", colour="#111111", like="b")
    kit = KIT.evolve(swatches=(one, Swatch(id="b", name="b", colour="#222222", like="a")))
    assert palette(kit) == {"a": "#111111", "b": "#222222"}


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"", "No colours"),
        (b"hello", "Line 1, “hello”, is no colour"),
        (b"#1f8a92 tarn\nwhat is this", "Line 2"),
        (b"{", "not JSON"),
        (b'{"a": {"$type": "color", "$value": "tealish"}}', "“a” has no colour that can be read"),
        (b'{"a": {"$type": "color", "$value": {"colorSpace": "none", "components": [1]}}}', "has no colour"),
        (b'{"a": {"$value": 4}}', "No colours"),
        (b":root { --a: 4px }", "No colours"),
        (b"\xff\xfe\x00", "not a text file"),
        (b"#123456 a\n" * 201, "200 are the most"),
        (b"{" + b'"a":{' * 5000, "not JSON"),
        (b'{"a":' * 400 + b"1" + b"}" * 400, "No colours"),
    ],
)
def test_what_cannot_be_read_is_refused_in_words(content, words):
    with pytest.raises((BadDocument, TooLarge), match=words):
        read_palette(content)


def test_too_much_is_refused():
    with pytest.raises(TooLarge):
        read_palette(b"#" * (MAX_PALETTE_BYTES + 1))


@given(st.binary(max_size=300), st.integers(0, 2**32))
def test_damaged_files_are_read_or_refused_in_words(noise, seed):
    chosen = random.Random(seed)
    content = bytearray(WRITERS[chosen.choice(list(WRITERS))](LOCK).encode())
    at = chosen.randrange(len(content))
    content[at : at + chosen.randrange(40)] = noise
    with suppress(ObrellError):
        brought_in(LOCK, read_palette(bytes(content)))
