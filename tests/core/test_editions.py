"""Editions: a size or the art for a density is the whole control with what differs in it; states lie over that."""

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from obrell.core.document.editions import all_editions, at_density, in_editions, known_editions
from obrell.core.document.fitting import lost_words, misfits
from obrell.core.document.model import Control, Follow
from obrell.core.document.resolve import resolve
from obrell.core.document.scaling import scaled
from obrell.core.document.states import all_states, in_state
from obrell.core.document.swatch_uses import uses
from obrell.core.document.touching import touch_outline
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.base import made_of
from obrell.core.errors import BadValue, NoSuchThing, ObrellError, Refused
from obrell.core.render.picture import picture
from obrell.core.shapes import Box, Line, Repeat, Round, Text
from obrell.core.values.base import canonical, canonical_json
from obrell.core.values.readings import Drive, Reading
from obrell.core.values.touches import TouchesOutline
from obrell.samples.wendmere_lock import wendmere_lock
from tests.core.test_rules import kinds_of_edits
from tests.core.test_states import HERE, INK, base, done, plain, put, rounded, stored
from tests.generating import values
from tests.making import KIT, control, part

PATIENT = settings(max_examples=2, suppress_health_check=list(HealthCheck), deadline=None)


def sized() -> Control:
    """Three states, a small size, a wide one, and art for 1×."""
    made = base()
    for edit in (
        {"kind": "add-size", "name": "Small", "factor": 0.5}, {"kind": "add-size", "name": "Wide", "wider": 40},
        {"kind": "add-art", "density": 1},
    ):  # fmt: skip
        made = done(made, **edit)
    return made


def within(where: Control, editions: list[str], **edit) -> Control:
    return done(where, kind="in-editions", editions=editions, edit=edit)


def put_in(where: Control, path: str, value: object, *editions: str, state: str = "") -> Control:
    edit = {"kind": "set", "changes": [{"path": path, "value": value}]}
    return within(where, [*editions], **({"kind": "in-states", "states": [state], "edit": edit} if state else edit))


def said(where: Control, edition: str) -> dict[str, object]:
    found = next(one for one in where.editions if one.id == edition)
    return {one.path: one for one in found.differences}


def whole(where: Control) -> str:
    """All of it that can differ in editions, as one text."""
    drives = [[reading.id, [one.model_dump(mode="json") for one in reading.drives]] for reading in where.readings]
    rest = {"canvas": where.canvas.model_dump(mode="json"), "drives": drives,
            "touch": where.touch and where.touch.model_dump(mode="json"),
            "follows": [one.model_dump(mode="json") for one in where.follows]}  # fmt: skip
    return plain(where) + canonical(rounded(rest))


SIZED = sized()
ART = "at-1x"


@pytest.mark.parametrize("kind", kinds_of_edits(), ids=lambda kind: kind.model_fields["kind"].default)
@PATIENT
@given(data=st.data())
def test_an_edit_in_an_edition_gives_what_it_gives_anywhere_and_leaves_the_regular_one_as_it_is(kind, data):
    """Byte for byte, at a size, in art, and in the art of a size; what is set back is what it was."""
    wish = data.draw(values(kind)) | {"kind": kind.model_fields["kind"].default}
    names = data.draw(st.sampled_from((["small"], [ART], ["wide", ART])))
    start = put_in(put_in(SIZED, "parts/p1/x", 33, "small"), "parts/p1/opacity", 0.5, ART)
    look = in_editions(start, tuple(names))
    try:
        edit = read_edit(wish)
        want = made_of(edit, look, HERE)
        got = within(start, names, **wish)
    except ObrellError:
        return
    if edit.of_editions or (edit.of_control and ART in names):
        return
    assert whole(in_editions(got, tuple(names))) == whole(want)
    assert plain(got) == plain(start)
    assert got.canvas == start.canvas
    assert ART in names or (got.touch, got.follows) == (start.touch, start.follows)
    assert Control.model_validate_json(canonical_json(got)) == got
    assert all(not misfits(got, one) for one in (*got.editions, *got.states))


@pytest.mark.parametrize("kind", kinds_of_edits(), ids=lambda kind: kind.model_fields["kind"].default)
@PATIENT
@given(data=st.data())
def test_whatever_is_done_to_the_regular_one_every_look_can_be_shown(kind, data):
    wish = data.draw(values(kind)) | {"kind": kind.model_fields["kind"].default}
    start = put_in(put(SIZED, "parts/p2/x", 44, "on"), "parts/p5/effects/e1/fill/stops/1/colour", "#ff0000", "small")
    try:
        changed = done(start, **wish)
    except ObrellError:
        return
    for edition in all_editions(changed):
        for state in all_states(edition):
            assert resolve(KIT, edition, state).control.canvas == edition.canvas


def test_only_what_differs_is_stored_and_the_regular_one_flows_on():
    start = put_in(SIZED, "canvas/width", 300, "wide")
    assert said(start, "wide")["canvas/width"].value == 300
    later = put(put(start, "canvas/height", 90), "parts/p1/opacity", 0.4)
    look = in_editions(later, ("wide",))
    assert (look.canvas.width, look.canvas.height, look.parts[0].opacity) == (300, 90, 0.4)
    back = done(start, kind="return-to-regular", edition="wide")
    assert whole(in_editions(back, ("wide",))) == whole(back)
    with pytest.raises(NoSuchThing, match="differs there"):
        done(back, kind="return-to-regular", edition="wide")


def test_the_art_lies_over_the_size_the_state_over_both_and_a_reading_over_all():
    """The documented order: each says the same value, and the uppermost that is looked at holds."""
    start = put_in(put_in(SIZED, "parts/p1/opacity", 0.9, "small"), "parts/p1/opacity", 0.8, "small", ART)
    assert said(start, ART)["parts/p1/opacity"].value == 0.8
    start = put(start, "parts/p1/opacity", 0.7, "pressed")
    turns = Reading(id="level", name="Level", drives=(Drive(path="parts/p1/opacity", start=0.6, end=0.1),))

    def opacity(where: Control, names: tuple[str, ...], state: str = "rest") -> float:
        return resolve(KIT, in_editions(where, names), state).control.parts[0].opacity

    assert opacity(start, ()) == 1
    assert opacity(start, ("small",)) == 0.9
    assert opacity(start, ("small", ART)) == opacity(start, (ART, "small")) == 0.8
    assert opacity(start, ("small", ART), "pressed") == opacity(start, (), "pressed") == 0.7
    assert opacity(start.evolve(readings=(turns,)), ("small", ART), "pressed") == 0.6


def test_what_is_done_in_a_state_of_an_edition_is_done_in_that_state_of_all():
    start = put_in(SIZED, "parts/p1/rotation", 9, "small", state="pressed")
    assert [one.path for one in stored(start)] == ["parts/p1/rotation"]
    assert not {"parts/p1/rotation"} & said(start, "small").keys()
    assert in_state(in_editions(start, ("wide",)), "pressed").parts[0].rotation == 9


def test_a_state_goes_on_saying_what_has_no_place_in_the_size_that_is_drawn():
    start = put(put(SIZED, "parts/p6/opacity", 0.5, "pressed"), "parts/p6/opacity", 0.3, "on")
    less = within(start, ["small"], kind="remove", parts=["p6"])
    assert [one.path for one in stored(less)] == ["parts/p6/opacity"]
    more = put_in(less, "parts/p1/opacity", 0.2, "small", state="pressed")
    assert sorted(one.path for one in stored(more)) == ["parts/p1/opacity", "parts/p6/opacity"]
    assert in_state(more, "pressed").parts[5].opacity == 0.5
    assert "p6" not in [one.id for one in in_editions(more, ("small",)).parts]


def test_art_goes_on_saying_what_has_no_place_in_a_size():
    start = put_in(SIZED, "parts/p6/opacity", 0.5, ART)
    less = within(start, ["small"], kind="remove", parts=["p6"])
    more = put_in(less, "parts/p1/opacity", 0.2, "small", ART)
    assert {"parts/p6/opacity", "parts/p1/opacity"} <= said(more, ART).keys()
    assert in_editions(more, (ART,)).parts[5].opacity == 0.5


def test_a_part_that_only_a_size_has_can_differ_in_states_and_goes_with_the_size():
    start = within(SIZED, ["wide"], kind="draw", shape="round", x0=2, y0=2, x1=9, y1=9)
    new = in_editions(start, ("wide",)).parts[-1].id
    assert new not in [one.id for one in start.parts]
    lit = put_in(start, f"parts/{new}/opacity", 0.3, "wide", state="on")
    assert f"parts/{new}/opacity" in [one.path for one in stored(lit, "on")]
    assert in_state(in_editions(lit, ("wide",)), "on").parts[-1].opacity == 0.3
    gone = done(lit, kind="remove-edition", edition="wide")
    assert not stored(gone, "on")
    assert lost_words(lit, gone) == "What differed of it went with it: 1 in On."


def test_what_is_removed_from_the_regular_one_takes_its_differences_along():
    start = put_in(SIZED, "parts/p1/opacity", 0.5, "small")
    less = done(start, kind="remove", parts=["p1"])
    assert not any(path.startswith("parts/p1/") for path in said(less, "small"))
    assert "in Small" in lost_words(start, less)


def test_a_small_one_is_the_regular_one_smaller_pixel_by_pixel():
    """At half the size and twice the density there are the same pixels, where nothing is fitted to them."""
    made = control(
        part(Box(width=40, height=24, radius=6), INK, x=30, y=20, fit="off"), part(Round(width=12, height=12), INK,
        x=44, y=20, fit="off"), width=60, height=40,
    )  # fmt: skip
    half = scaled(made, 0.5)
    assert (half.canvas.width, half.canvas.height) == (30, 20)
    assert (picture(resolve(KIT, half), 2) == picture(resolve(KIT, made), 1)).all()


@pytest.mark.parametrize("subject", wendmere_lock().controls, ids=lambda subject: subject.name)
def test_every_control_of_the_kit_is_the_same_twice_as_large_at_half_the_density(subject):
    kit = wendmere_lock().evolve(fit="off")
    want, got = picture(resolve(kit, subject), 1), picture(resolve(kit, scaled(subject, 2)), 0.5)
    assert got.shape == want.shape
    assert abs(got.astype(int) - want).max() <= 8


def test_what_is_copied_is_widened_as_one():
    made = control(part(Repeat(count=3, across=20)), part(Round(width=6, height=6), INK, x=10, y=20, within="p1"),
                   part(Box(width=60, height=24), INK, x=30, y=20), width=60, height=40)  # fmt: skip
    wide = in_editions(done(made, kind="add-size", name="Wide", wider=30), ("wide",))
    assert {wide.parts[n].x - made.parts[n].x for n in (0, 1)} in ({0}, {15}, {30})
    assert wide.parts[2].shape.width == 90


def test_a_wide_one_keeps_its_height_what_is_read_and_its_corners():
    made = control(
        part(Box(width=40, height=24, radius=6), INK, x=30, y=20), part(Text(words="Go"), INK, x=30, y=20),
        part(Round(width=4, height=4), INK, x=15, y=20), part(Round(width=4, height=4), INK, x=45, y=20),
        part(Line(across=30, down=0), INK, x=15, y=30), part(Line(across=30, down=0), INK, x=45, y=34, rotation=180),
    )  # fmt: skip
    wide = in_editions(done(made, kind="add-size", name="Wide", wider=30), ("wide",))
    assert wide.canvas.width == made.canvas.width + 30
    assert (wide.parts[0].shape.width, wide.parts[0].shape.height, wide.parts[0].shape.radius) == (70, 24, 6)
    assert [one.x for one in wide.parts] == [45, 45, 15, 75, 15, 75]
    assert [one.shape.across for one in wide.parts[4:]] == [60, 60]
    assert wide.parts[1].shape == made.parts[1].shape


def test_a_body_that_follows_its_label_follows_it_in_every_size():
    made = control(part(Box(width=40, height=24), INK), part(Text(words="Go"), INK))
    label = Follow(path="shape/width", source="p2", measure="width", offset=20)
    made = made.evolve(parts=(made.parts[0].evolve(follows=(label,)), made.parts[1]))
    made = done(done(made, kind="add-size", name="Large", factor=2), kind="add-size", name="Wide", wider=50)
    looks = {name: in_editions(made, (name,)).parts for name in ("regular", "large", "wide")}
    air = {name: body.shape.width - text.shape.frame().width for name, (body, text) in looks.items()}
    assert air == pytest.approx({"regular": 20, "large": 40, "wide": 70}, abs=0.02)
    longer = put_in(made, "parts/p2/shape/words", "Go on", "large")
    body, text = in_editions(longer, ("large",)).parts
    assert body.shape.width - text.shape.frame().width == pytest.approx(40, abs=0.02)
    assert longer.parts == made.parts


def test_what_a_reading_drives_can_be_otherwise_in_a_size_and_its_ends_are_the_same():
    made = control(part(Box(width=8), INK, x=10), width=100)
    slides = Reading(id="level", name="Level", drives=(Drive(path="parts/p1/x", start=10, end=90),))
    made = done(made.evolve(readings=(slides,)), kind="add-size", name="Small", factor=0.5)
    small = in_editions(made, ("small",)).readings[0].drives[0]
    assert (small.start, small.end) == (5, 45)
    later = within(made, ["small"], kind="set", changes=[{"path": "readings/level/end", "value": 50}])
    later = within(later, ["small"], kind="set-drive", reading="level", path="parts/p1/x", end=40)
    assert (later.readings[0].end, later.readings[0].drives[0].end) == (50, 90)
    assert in_editions(later, ("small",)).readings[0].drives[0].end == 40
    assert not done(later, kind="remove-reading", reading="level").readings


def test_which_values_a_reading_drives_is_the_same_in_all_sizes():
    made = control(part(Box(width=8), INK, x=10), part(Box(width=8), INK, x=50), width=100)
    both = (Drive(path="parts/p1/x", start=10, end=90), Drive(path="parts/p2/rotation", start=0, end=90))
    made = made.evolve(readings=(Reading(id="level", name="Level", drives=both),))
    made = done(made, kind="add-size", name="Small")
    made = within(made, ["small"], kind="set-drive", reading="level", path="parts/p2/rotation", end=45)

    def ends(where: Control) -> dict[str, object]:
        return {one.path: one.end for one in in_editions(where, ("small",)).readings[0].drives}

    less = done(made, kind="stop-driving", reading="level", path="parts/p1/x")
    assert ends(less) == {"parts/p2/rotation": 45}
    assert ends(within(made, ["small"], kind="stop-driving", reading="level", path="parts/p1/x")) == ends(less)
    more = done(made, kind="drive", reading="level", path="parts/p1/opacity")
    assert ends(more) == {"parts/p1/x": 90, "parts/p2/rotation": 45, "parts/p1/opacity": 1}
    assert more.readings[0].drives[1].end == 90
    for gone in ({"kind": "remove-reading", "reading": "level"}, {"kind": "stop-driving", "reading": "level",
                 "path": "parts/p2/rotation"}):  # fmt: skip
        assert not said(done(made, **gone), "small")


def test_a_touch_area_grows_with_its_size():
    made = SIZED.evolve(touch=TouchesOutline(data="M0 0H40V20H0Z"))
    large = in_editions(done(made, kind="add-size", name="Large", factor=2), ("large",))
    assert touch_outline(large).bounds().width == 80
    assert touch_outline(made).bounds().width == 40


def test_recolouring_and_the_canvas_go_into_every_edition():
    start = put_in(SIZED, "parts/p1/effects/e1/fill/colour", "#206040", "small")
    turned = done(start, kind="recolour", groups=["hue-240", "hue-150"], to_hue=20)
    before, after = (in_editions(one, ("small",)).parts[0].effects[0].fill for one in (start, turned))
    assert before != after
    wider = done(start, kind="canvas-edges", right=10)
    assert in_editions(wider, ("small",)).canvas.width == in_editions(start, ("small",)).canvas.width + 10
    alone = within(start, ["small"], kind="canvas-edges", right=10)
    assert alone.canvas == start.canvas
    assert in_editions(alone, ("small",)).canvas.width == in_editions(start, ("small",)).canvas.width + 10


def test_swatches_that_only_an_edition_follows_are_known():
    tarn = wendmere_lock()
    start = control(part(Box(), INK))
    around = Surroundings.of(tarn)
    start = applied(read_edit({"kind": "add-art", "density": 1}), start, around)
    lay = {"kind": "lay-swatch", "swatch": "brass", "parts": ["p1"]}
    simple = applied(read_edit({"kind": "in-editions", "editions": [ART], "edit": lay}), start, around)
    assert uses(simple) == {"brass": 1}


def test_all_densities_have_one_canvas():
    """What moves its edges does so for all; what would make it another one by the way is refused."""
    wider = within(SIZED, [ART], kind="canvas-edges", right=10)
    assert wider.canvas.width == SIZED.canvas.width + 10
    assert within(SIZED, ["wide", ART], kind="canvas-edges", right=10).canvas == SIZED.canvas
    for edit in (
        {"kind": "set", "changes": [{"path": "canvas/width", "value": 99}]}, {"kind": "scale", "percent": 50},
    ):  # fmt: skip
        with pytest.raises(Refused, match="same at every density; this would make it"):
            within(SIZED, [ART], **edit)


def test_an_edition_has_a_name_and_a_density_of_its_own():
    for edit, words in (
        ({"kind": "add-size", "name": "small"}, "called “small” already"),
        ({"kind": "add-size", "name": "Regular"}, "called “Regular” already"),
        ({"kind": "add-art", "density": 1}, "for 1× already"),
        ({"kind": "rename-size", "size": "small", "name": "Wide"}, "called “Wide” already"),
    ):
        with pytest.raises(Refused, match=words):
            done(SIZED, **edit)
    for edit, words in (
        ({"kind": "rename-size", "size": ART, "name": "x"}, "no size “at-1x”"),
        ({"kind": "remove-edition", "edition": "regular"}, "what all others are made of"),
        ({"kind": "remove-edition", "edition": "huge"}, "no size and no art"),
        ({"kind": "in-editions", "editions": ["huge"], "edit": {"kind": "remove", "parts": ["p1"]}}, "no size"),
    ):
        with pytest.raises(NoSuchThing, match=words):
            done(SIZED, **edit)
    with pytest.raises(Refused, match="at least 1 px wide"):
        done(SIZED, kind="add-size", name="Nothing", wider=-500)
    with pytest.raises(Refused, match="needs a name"):
        done(SIZED, kind="add-size")
    with pytest.raises(BadValue, match="4,096 px or less"):
        done(put(SIZED, "canvas/width", 3000), kind="add-size", name="Huge", factor=2)
    assert [one.density for one in done(SIZED, kind="add-art", density="1,5×").arts] == [1, 1.5]
    twice = done(done(SIZED, kind="add-size", like="small"), kind="add-size", like="small")
    assert [one.name for one in twice.sizes] == ["Small", "Wide", "Small 2", "Small 3"]
    for density, words in ((0.1, "Density"), (9, "Density"), ("x", "number is needed"), ("two", "not a number")):
        with pytest.raises(BadValue, match=words):
            read_edit({"kind": "add-art", "density": density})
    inner = {"kind": "in-editions", "editions": ["small"], "edit": {"kind": "remove", "parts": ["p1"]}}
    for outer in ({"kind": "in-states", "states": ["on"]}, {"kind": "in-editions", "editions": ["small"]}):
        with pytest.raises(BadValue, match="in editions once"):
            read_edit(outer | {"edit": inner})


def test_editions_are_named_ordered_and_removed_whichever_is_drawn():
    moved = within(SIZED, ["small"], kind="move-size", size="small", to=1)
    assert [one.id for one in moved.sizes] == ["wide", "small"]
    renamed = within(SIZED, ["small"], kind="rename-size", size="small", name="Tiny")
    assert (renamed.sizes[0].id, renamed.sizes[0].name) == ("small", "Tiny")
    assert [one.id for one in within(SIZED, ["small"], kind="remove-edition", edition="small").sizes] == ["wide"]
    again = done(put_in(SIZED, "parts/p1/opacity", 0.5, "small"), kind="add-size", name="Dim", like="small")
    assert whole(in_editions(again, ("dim",))) == whole(in_editions(again, ("small",)))
    with pytest.raises(NoSuchThing, match="no size “at-1x”"):
        done(SIZED, kind="add-size", name="Dim", like=ART)
    more = within(SIZED, ["small"], kind="add-art", density=0.5)
    assert [one.density for one in more.arts] == [0.5, 1]
    assert read_edit({"kind": "remove-edition", "edition": "small"}).label(SIZED) == "Removed the size “Small”"
    assert known_editions(SIZED, "small,gone,at-1x") == ("small", ART)


def test_art_is_taken_where_its_density_is():
    simple = put_in(SIZED, "parts/p6/visible", 0, ART)
    assert not at_density(simple, 1).parts[5].visible
    assert not at_density(simple, 1, "small").parts[5].visible
    assert at_density(simple, 2).parts[5].visible
