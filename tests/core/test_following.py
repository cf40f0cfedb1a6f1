"""A copy that follows a control: what became of that, with what is the copy's own left as it is."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.following import copy_of, followed
from obrell.core.document.measures import frame_on_canvas
from obrell.core.document.tree import arranged
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.variants import Variant, varied
from obrell.core.errors import BadValue, NoSuchThing, Refused
from obrell.core.shapes import Box, Text
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import control, part, solid

ORIGINAL = wendmere_lock().controls[0]
COPY = copy_of(ORIGINAL, "c99")
EDITS = st.lists(
    st.sampled_from([
        {"kind": "set", "changes": [{"path": "parts/p1/effects/e1/blur", "value": 3}]},
        {"kind": "set", "changes": [{"path": "parts/p2/x", "value": 71}]},
        {"kind": "set", "changes": [{"path": "canvas/width", "value": 300}]},
        {"kind": "move", "parts": ["p1", "p2"], "dx": 2, "dy": -1},
        {"kind": "draw", "shape": "round", "x0": 1, "y0": 1, "x1": 30, "y1": 20},
        {"kind": "duplicate", "parts": ["p2"]},
        {"kind": "add-effect", "part": "p1", "effect": "outline"},
        {"kind": "remove-effect", "part": "p1", "effect": "e1"},
        {"kind": "remove", "parts": ["p4"]},
        {"kind": "group", "parts": ["p2", "p3"]},
        {"kind": "reorder", "part": "p1", "to": "p3"},
        {"kind": "add-guide", "axis": "across"},
    ]),
    max_size=4,
)  # fmt: skip
OWN_FIELDS = {"id", "name", "original", "next_number"}


def done(control, edits):
    for edit in edits:
        try:
            control = applied(read_edit(edit), control, Surroundings())
        except (BadValue, NoSuchThing, Refused):
            continue
    return control


def shared(control):
    return control.model_dump(exclude=OWN_FIELDS)


@given(edits=EDITS)
def test_a_copy_without_changes_becomes_what_its_original_became_and_back(edits):
    after = done(ORIGINAL, edits)
    copy = followed(COPY, ORIGINAL, after)
    assert shared(copy) == shared(after)
    assert (copy.id, copy.original, copy.name, copy.next_number) == ("c99", "c1", COPY.name, COPY.next_number)
    assert shared(followed(copy, after, ORIGINAL)) == shared(ORIGINAL)


@given(own=EDITS, edits=EDITS)
def test_what_is_its_own_stays_whatever_becomes_of_the_original_and_back(own, edits):
    mine, after = done(COPY, own), done(ORIGINAL, edits)
    assert followed(mine, ORIGINAL, ORIGINAL) == mine
    try:
        copy = followed(mine, ORIGINAL, after)
    except BadValue:
        return
    drawn = {part.id for part in mine.parts} - {part.id for part in ORIGINAL.parts}
    assert drawn <= {part.id for part in copy.parts}
    for there in ORIGINAL.parts:
        own_x = next((one.x for one in mine.parts if one.id == there.id), there.x)
        if own_x != there.x and any(one.id == there.id for one in copy.parts):
            assert next(one.x for one in copy.parts if one.id == there.id) == own_x


def test_words_and_colours_of_a_variant_stay_and_all_else_follows():
    label = next(part for part in ORIGINAL.parts if part.shape.kind == "text")
    variant = Variant(name="Shut", words={label.id: "Shut gate"})
    copy = varied(variant, ORIGINAL, "c50", palette={}, follows=True)
    edits = [
        {"kind": "set", "changes": [{"path": f"parts/{label.id}/shape/words", "value": "Lift"}]},
        {"kind": "set", "changes": [{"path": f"parts/{label.id}/shape/size", "value": 19}]},
    ]
    after = followed(copy, ORIGINAL, done(ORIGINAL, edits))
    shape = next(part.shape for part in after.parts if part.id == label.id)
    assert (shape.words, shape.size) == ("Shut gate", 19)
    assert varied(variant, copy, "c51", palette={}).original is None


def test_new_parts_stand_where_they_stand_in_the_original_and_numbers_never_meet():
    draw = {"kind": "draw", "shape": "box", "x0": 1, "y0": 1, "x1": 9, "y1": 9}
    mine, after = done(COPY, [draw]), done(ORIGINAL, [draw, draw])
    copy = followed(mine, ORIGINAL, after)
    assert len(copy.parts) == len(ORIGINAL.parts) + 3
    second = copy_of(mine, "c100")
    assert not {part.id for part in done(second, [draw]).parts} - {part.id for part in mine.parts} & {
        part.id for part in done(mine, [draw]).parts
    }
    assert (
        followed(COPY, ORIGINAL, done(ORIGINAL, [{"kind": "reorder", "part": "p1", "to": "p3"}])).parts[0].id != "p1"
    )


def test_what_cannot_be_together_is_refused_in_words():
    grouped = done(ORIGINAL, [{"kind": "group", "parts": ["p2", "p3"]}])
    group = next(part.id for part in grouped.parts if part.shape.kind == "group")
    inside = copy_of(grouped, "c98")
    mine = inside.evolve(parts=tuple(p.evolve(within=group) if p.id == "p4" else p for p in inside.parts))
    with pytest.raises(BadValue, match="cannot hold"):
        followed(mine, grouped, done(grouped, [{"kind": "take-apart", "part": group}]))


def test_a_body_that_follows_its_label_fits_the_words_of_the_copy():
    label = part(Text(words="Open the lock", size=14), solid("#102030"), x=90, y=30)
    start = control(label, part(Box(width=20, height=20), solid("#406080"), x=90, y=30), width=200, height=60)
    fitted = done(
        start, [{"kind": "fit-around", "body": "p2", "inner": "p1", "left": 8, "right": 8, "top": 4, "bottom": 4}]
    )
    copy = varied(Variant(name="Short", words={"p1": "Shut"}), fitted, "c9", palette={}, follows=True)
    larger = done(fitted, [{"kind": "set", "changes": [{"path": "parts/p1/shape/size", "value": 20}]}])
    for shown in (copy, followed(copy, fitted, larger)):
        assert width_of(shown, "p2") == pytest.approx(width_of(shown, "p1") + 16, abs=0.01)
    assert width_of(copy, "p2") < width_of(fitted, "p2")
    assert followed(followed(copy, fitted, larger), larger, fitted) == copy


def width_of(one, name):
    return frame_on_canvas(arranged(one).all[name].part).width
