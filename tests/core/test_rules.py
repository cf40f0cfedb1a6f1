"""What documents and edits never do: go round in circles, change what is locked, set what is no value."""

import os
import re

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from obrell.core.document.follows import settled
from obrell.core.document.model import Canvas, Control, Follow, Part
from obrell.core.document.resolve import resolve
from obrell.core.edit import read_edit
from obrell.core.edit.admission import check_drawable
from obrell.core.edit.base import Surroundings, applied
from obrell.core.effects import AnyEffect, Mask, Paint
from obrell.core.effects.kinds.mask import PartCover
from obrell.core.errors import BadDocument, BadValue, ObrellError, Refused
from obrell.core.formats.svg.document import svg
from obrell.core.interchange.kit_file import kit_from, write_kit
from obrell.core.render.picture import picture
from obrell.core.shapes import Box, Group, Repeat, Round
from obrell.core.values.base import canonical_json
from obrell.core.values.paints import Solid
from obrell.core.values.wrong import in_words
from tests.generating import values
from tests.making import KIT, control, kit, part

INK = Paint(id="e1", fill=Solid(colour="#20303a"))


def edited(start, **edit):
    return read_edit(edit).apply(start, Surroundings())


def held(name="p2"):
    """A box in a group, and a round beside them."""
    return control(part(Box(), INK, within=name), part(Group()), part(Round(), INK))


@pytest.mark.parametrize("target", ["p2", "p1"])
def test_a_part_is_not_clipped_to_what_it_belongs_to(target):
    start = held()
    with pytest.raises(BadValue, match="belongs to itself"):
        edited(start, kind="set", changes=[{"path": "parts/p1/clip", "value": target}])
    assert edited(start, kind="set", changes=[{"path": "parts/p1/clip", "value": "p3"}]).parts[0].clip == "p3"


def test_masks_and_clips_together_make_no_circle():
    start = held()
    mask = Mask(id="e2", cover=PartCover(part="p2"))
    with pytest.raises(BadValue, match="belongs to itself"):
        start.evolve(parts=(start.parts[0].evolve(effects=(INK, mask)), *start.parts[1:]))
    two = control(part(Box(), INK), part(Round(), INK))
    first, second = (Mask(id="e2", cover=PartCover(part=name)) for name in ("p2", "p1"))
    each = two.evolve(parts=(two.parts[0].evolve(effects=(INK, first)), two.parts[1].evolve(effects=(INK, second))))
    check_drawable(KIT, each)


def test_a_kit_file_with_a_circle_is_refused_in_words():
    whole = write_kit(kit(held()))
    assert kit_from(whole)
    bad = whole.replace(b'"clip": null', b'"clip": "p2"', 1)
    with pytest.raises(BadDocument, match="belongs to itself"):
        kit_from(bad)


FOLLOWED = st.lists(
    st.tuples(
        st.integers(1, 6), st.sampled_from(["x", "y", "shape/width", "rotation"]), st.integers(1, 6),
        st.sampled_from(["width", "left", "middle across", "bottom", "height"]),
    ), max_size=8,
)  # fmt: skip


@given(FOLLOWED)
def test_follows_that_are_allowed_are_settled_at_once(ties):
    start = control(*(part(Box(width=10 + n, height=8), INK, x=9.0 * n, y=5.0 * n) for n in range(6)))
    for owner, path, source, measure in ties:
        follow = Follow(path=path, source=f"p{source}", measure=measure, offset=1)
        parts = [
            p.evolve(follows=(*(f for f in p.follows if f.path != path), follow)) if p.id == f"p{owner}" else p
            for p in start.parts
        ]
        try:
            start = start.evolve(parts=tuple(parts))
        except BadValue:
            continue
    once = settled(start)
    assert settled(once) == once


def test_a_thousand_follows_in_a_row_are_settled():
    row = [part(Box(width=8), INK)]
    row += [part(Box(width=8), INK, follows=(Follow(path="x", source=f"p{n}", measure="right", offset=0),))
            for n in range(1, 1000)]  # fmt: skip
    done = settled(control(*row, width=4000))
    assert done.parts[400].x == pytest.approx(done.parts[0].x + 400 * 4)


def test_copies_are_counted_before_any_is_made():
    inner = part(Repeat(count=500), within="p3")
    with pytest.raises(ValidationError, match="would draw"):
        control(part(Box(), INK, within="p2"), inner, part(Repeat(count=500)))
    far = control(part(Box(width=120), INK, within="p2"), part(Repeat(count=130, across=128)))
    with pytest.raises(Refused, match="Use fewer copies"):
        check_drawable(KIT, far)


@pytest.mark.parametrize(
    "path", ["parts", "parts/p3", "next_number", "parts/p3/effects", "parts/p3/effects/e1", "parts/p3/shape",
             "parts/p3/within", "parts/p3/id", "states", "guides", "parts/p3/follows", "id", "canvas"],
)  # fmt: skip
def test_only_values_are_set(path):
    with pytest.raises(BadValue):
        edited(held(), kind="set", changes=[{"path": path, "value": None}])


LOCKED = [
    {"kind": "move", "parts": ["p2"], "dx": 3, "dy": 0}, {"kind": "remove", "parts": ["p2"]},
    {"kind": "set", "changes": [{"path": "parts/p2/x", "value": 3}]}, {"kind": "reorder", "part": "p1", "to": "p3"},
    {"kind": "turn", "part": "p2", "degrees": 30}, {"kind": "scale", "parts": ["p2"], "percent": 50},
    {"kind": "flip", "parts": ["p2"]}, {"kind": "to-path", "parts": ["p2"]}, {"kind": "take-apart", "part": "p2"},
    {"kind": "centre", "parts": ["p2"]}, {"kind": "remove", "parts": ["p1"]},
]  # fmt: skip


@pytest.mark.parametrize("edit", LOCKED, ids=lambda edit: edit["kind"])
def test_what_is_locked_stays_also_in_its_group(edit):
    start = edited(held(), kind="set", changes=[{"path": "parts/p1/locked", "value": True}])
    with pytest.raises(Refused, match="is locked"):
        edited(start, **edit)


def kinds_of_edits():
    from typing import get_args

    from obrell.core.edit import AnyEdit

    return get_args(get_args(AnyEdit)[0])


BUSY = control(
    part(Box(), INK, x=20, y=12), part(Repeat(count=3)), part(Round(), INK, within="p2"),
    part(Group(), within=None), part(Box(width=9), INK, within="p4"),
)  # fmt: skip
PATIENT = settings(max_examples=6, suppress_health_check=list(HealthCheck))


@pytest.mark.parametrize("kind", kinds_of_edits(), ids=lambda kind: kind.model_fields["kind"].default)
@PATIENT
@given(data=st.data())
def test_any_edit_is_refused_in_words_or_can_be_drawn(kind, data):
    """Nothing but our own errors comes out of an edit, and what is accepted resolves, draws and is stored as it
    reads."""
    wish = data.draw(values(kind)) | {"kind": kind.model_fields["kind"].default}
    try:
        edit = read_edit(wish)
        words = edit.label(BUSY)
        changed = applied(edit, BUSY, Surroundings())
        check_drawable(KIT, changed, BUSY)
    except ObrellError as error:
        changed, words = BUSY, str(error)
    assert not any(inner in words for inner in ("nput should", "pattern", "dictionary", "tuple", "instance")), words
    assert re.match(r"[“\dA-Z]", words), words
    assert "None" not in words, words
    assert type(BUSY).model_validate_json(canonical_json(changed)) == changed


BRINGING_THEIR_OWN = ("insert", "paste", "set", "type")
NAMING = [
    kind
    for kind in kinds_of_edits()
    if {"part", "parts", "body"} & kind.model_fields.keys()
    and kind.model_fields["kind"].default not in BRINGING_THEIR_OWN
]
GONE_THINGS = dict.fromkeys(("part", "effect", "to", "body", "inner", "source"), "gone") | {"parts": ["gone"]}


@pytest.mark.parametrize("kind", NAMING, ids=lambda kind: kind.model_fields["kind"].default)
@PATIENT
@given(data=st.data())
def test_an_edit_of_what_is_gone_is_refused(kind, data):
    wish = data.draw(values(kind)) | {"kind": kind.model_fields["kind"].default}
    wish |= {name: value for name, value in GONE_THINGS.items() if name in kind.model_fields}
    with pytest.raises(ObrellError):
        applied(read_edit(wish), BUSY, Surroundings())


@st.composite
def documents(draw):
    """A control of up to three parts with any shapes and effects, at their most extreme."""
    data = []
    for number in range(1, draw(st.integers(1, 3)) + 1):
        one = draw(values(Part)) | {"id": f"p{number}", "within": None}
        effects = draw(st.lists(values(AnyEffect), max_size=3))
        one["effects"] = [effect | {"id": f"e{place}"} for place, effect in enumerate(effects, start=1)]
        data.append(one)
    return data


@settings(max_examples=int(os.environ.get("OBRELL_DOCUMENTS", "100")), suppress_health_check=list(HealthCheck))
@given(documents())
def test_any_document_is_refused_in_words_or_can_be_drawn(parts):
    try:
        made = Control(id="c1", name="Any", canvas=Canvas(width=60, height=40), parts=parts, next_number=50)
        check_drawable(KIT, made)
    except ValidationError as error:
        made, words = None, in_words(error.errors()[0])
    except Refused as error:
        made, words = None, str(error)
    if made is None:
        assert words.endswith((".", "!"))
    else:
        shown = resolve(KIT, made)
        assert picture(shown, 1.0).shape == (40, 60, 4)
        assert svg(shown).startswith("<svg")
