"""Recolouring: lightness is kept, accents stay, links go on following, and labels stay readable or it is said."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from obrell.core.colour.links import literal
from obrell.core.colour.spaces import from_hex, to_oklch
from obrell.core.document.colours import drawn_places
from obrell.core.document.resolve import resolve
from obrell.core.document.value_paths import value_at
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.recolour import GREYS, Grouping, groups_of, usual
from obrell.core.effects import Paint
from obrell.core.errors import NoSuchThing, Refused
from obrell.core.render.compose import Frame, canvas_box, draw
from obrell.core.shapes import Box
from obrell.core.values.colours import SwatchLink, follows
from obrell.core.values.paints import Linear, Stop
from obrell.samples.wendmere_lock import unlinked_lock, wendmere_lock
from tests.making import KIT, control, part, solid

LOCK, PLAIN = wendmere_lock(), unlinked_lock()
SETTINGS = LOCK.settings()
AROUND = Surroundings.of(SETTINGS)


def turned(base, around=AROUND, **values):
    return applied(read_edit({"kind": "recolour", **values}), base, around)


def lightness(colour):
    return to_oklch(from_hex(colour))[0]


def queue(kit):
    return next(one for one in kit.controls if one.name == "Boat queue")


def test_the_groups_of_linked_art_are_its_swatches_and_main_is_turned():
    raise_sluice = LOCK.controls[0]
    groups = groups_of([raise_sluice], SETTINGS.swatches)
    assert {group.id for group in groups} >= {"tarn", "chalk"}
    assert usual(groups) == ("tarn",)
    assert usual(groups_of([part_control("#c05040")], ())) == ("hue-30",)
    assert Grouping(AROUND.palette).of("#808080") == GREYS


def part_control(*colours):
    return control(part(Box(), *(solid(one).evolve(id=f"e{n}") for n, one in enumerate(colours, start=1))))


@pytest.mark.parametrize("kit", [LOCK, PLAIN], ids=["linked", "unlinked"])
@settings(max_examples=12)
@given(hue=st.floats(0, 359))
def test_lightness_is_kept_and_what_is_not_chosen_stays(kit, hue):
    base = kit.controls[0]
    after = turned(base, groups=["tarn"], to_hue=hue)
    was, now = (resolve(SETTINGS, one).control for one in (base, after))
    for place in drawn_places(base):
        before, seen = value_at(was, place.path), value_at(now, place.path)
        if Grouping(AROUND.palette).at(place) != "tarn":
            assert seen == before
        else:
            assert abs(lightness(seen) - lightness(before)) < 0.035
        assert bool(follows(place.colour)) == bool(follows(value_at(after, place.path)))


def test_a_hue_is_turned_to_from_what_the_colours_have_together():
    base = part_control("#c05040", "#e08070")
    after = turned(base, Surroundings(), groups=["hue-30"], to_hue=200)
    hues = [to_oklch(from_hex(place.colour))[2] for place in drawn_places(after)]
    assert sum(hues) / 2 == pytest.approx(200, abs=6)
    by = turned(base, Surroundings(), groups=["hue-30"], by=90)
    first = to_oklch(from_hex("#c05040"))[2]
    assert to_oklch(from_hex(next(drawn_places(by)).colour))[2] == pytest.approx(first + 90, abs=2)


def test_chroma_follows_the_strength_and_no_accent_is_harmed():
    base = queue(LOCK)
    groups = groups_of([base], SETTINGS.swatches)
    accent = {group.id for group in groups} - {"slate"}
    after = turned(base, groups=["slate"], to_hue=20, strength=0)
    for place in drawn_places(base):
        now = value_at(after, place.path)
        if Grouping(AROUND.palette).at(place) in accent:
            assert now == place.colour
        else:
            assert to_oklch(from_hex(literal(now, AROUND.palette)))[1] < 0.012


def test_another_swatch_is_followed_with_the_same_adjustments_and_by_art_that_followed_none():
    linked = turned(LOCK.controls[0], groups=["tarn"], swatch="moss")
    for place in drawn_places(LOCK.controls[0]):
        was, now = follows(place.colour), follows(value_at(linked, place.path))
        if was is not None and was.swatch == "tarn":
            assert now == was.evolve(swatch="moss")
    free = turned(PLAIN.controls[0], groups=["tarn"], swatch="moss")
    assert any(link.swatch == "moss" for place in drawn_places(free) if (link := follows(place.colour)))
    with pytest.raises(NoSuchThing):
        turned(LOCK.controls[0], groups=["tarn"], swatch="gone")
    with pytest.raises(Refused, match="Choose colours"):
        turned(LOCK.controls[0], groups=[])


def test_locked_parts_stay():
    base = control(part(Box(), solid("#c05040"), locked=True))
    assert turned(base, Surroundings.of(KIT), groups=["hue-30"], by=90) == base


def test_a_tint_from_above_turns_every_hue_keeps_what_is_light_and_no_shadow_is_denser():
    base = next(one for one in LOCK.controls if one.name == "Emergency hold")
    tinted = applied(read_edit({"kind": "tint-from-above", "colour": "#2050c0", "strong": 1}), base, AROUND)
    before, after = (
        np.asarray(draw(resolve(SETTINGS, one), Frame(1.0, canvas_box(resolve(SETTINGS, one), 1.0)))).astype(float)
        for one in (base, tinted)
    )
    # Only where a shape covers a pixel in part does more paint make it denser: no shadow does.
    assert (np.abs(before[..., 3] - after[..., 3]) > 1).mean() < 0.05
    assert np.array_equal(before[-6:], after[-6:])
    solid_ = before[..., 3] == 255
    weights = np.array((0.3, 0.59, 0.11))
    assert np.abs(before[solid_][:, :3] @ weights - after[solid_][:, :3] @ weights).max() < 4
    assert (after[solid_][:, 2] >= after[solid_][:, 0] - 1).all()
    assert [part.name for part in tinted.parts if part.within is None] == ["Art", "Tint from above"]


def test_a_second_tint_replaces_the_first_and_an_empty_control_has_none():
    base = part_control("#c05040")
    once = applied(read_edit({"kind": "tint-from-above", "colour": {"swatch": "tarn"}}), base, AROUND)
    twice = applied(read_edit({"kind": "tint-from-above", "colour": "#123456", "mode": "hue"}), once, AROUND)
    assert [part.name for part in twice.parts] == ["Part", "Tint from above"]
    assert (twice.parts[-1].blend, twice.parts[-1].opacity) == ("hue", 0.8)
    with pytest.raises(Refused, match="nothing to tint"):
        applied(read_edit({"kind": "tint-from-above", "colour": "#123456"}), control(), AROUND)


def test_the_stops_of_one_gradient_are_one_group_and_turned_together():
    def ramp(*colours):
        stops = tuple(Stop(position=n / (len(colours) - 1), colour=one) for n, one in enumerate(colours))
        return Paint(id="e1", fill=Linear(stops=stops))

    base = control(part(Box(width=20, height=10), ramp("#3a70b0", "#3a90c0", "#4a60c0", "#101418")))
    (group,) = groups_of([base], ())
    after = turned(base, Surroundings(), groups=[group.id], by=90)
    before, now = (one.parts[0].effects[0].fill.stops for one in (base, after))
    turns = [
        (to_oklch(from_hex(new.colour))[2] - to_oklch(from_hex(old.colour))[2]) % 360
        for old, new in zip(before[:3], now[:3], strict=True)
    ]
    assert turns == pytest.approx([90] * 3, abs=1.5)
    linked = ramp("#d04030", SwatchLink(swatch="tarn"))
    names = {one.id for one in groups_of([control(part(Box(width=20, height=10), linked))], KIT.swatches)}
    assert "tarn" in names
    assert len(names) == 2
