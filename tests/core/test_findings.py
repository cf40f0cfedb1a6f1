"""Every kind of finding can be provoked, says so in a sentence, and is gone after its cures."""

import re

import pytest

from obrell.app.checking import check
from obrell.core.document.model import Follow
from obrell.core.document.registration import jumps
from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.effects import Bevel, Outline
from obrell.core.findings import FINDINGS, SEVERITIES, found_in, found_in_state
from obrell.core.shapes import Box, Round, Text
from obrell.samples.wendmere_lock import wendmere_lock
from tests.making import KIT, control, part, solid

INK = solid("#204060")
OUTER = Outline(id="e2", place="outside", width=4)
PROVOKED = {
    "cut-edges": [
        control(part(Box(width=76, height=30), INK, OUTER)),
        control(part(Box(width=78, height=30), INK), part(Round(width=20, height=20), INK, OUTER, x=10, y=10)),
    ],
    "off-canvas": [
        control(part(Box(width=30, height=20), INK, x=-40)),
        control(part(Box(width=30.5, height=20), INK, x=70), part(Round(width=20, height=20), INK, y=58)),
        control(part(Text(words="Out", size=20), INK, x=-12.3, y=-3)),
    ],
    "unseen-bevels": [
        control(part(Box(width=40, height=20), INK, Bevel(id="e2", width=400))),
        control(part(Box(width=40, height=20), INK, Bevel(id="e2", width=3), Outline(id="e3", width=4))),
    ],
    "soft-sides": [
        control(part(Box(width=30, height=20), INK, x=40.5, y=30.25)),
        control(part(Box(width=30.5, height=20), INK), part(Box(width=9, height=9), INK, x=20.3)),
    ],
}
CASES = [(kind, shown) for kind, controls in PROVOKED.items() for shown in controls]


def of_kind(kind, shown):
    return [one for one in found_in(resolve(KIT.evolve(fit="off"), shown)) if one.kind == kind]


def test_every_kind_is_provoked_here():
    assert PROVOKED.keys() | {"jumps"} == FINDINGS.keys(), "what jumps is provoked below, in a state"


@pytest.mark.parametrize(("kind", "shown"), CASES)
def test_what_is_found_is_said_and_mended(kind, shown):
    found = of_kind(kind, shown)
    ids = {one.id for one in shown.parts}
    assert found
    for one in found:
        assert re.fullmatch(r"[“A-Z0-9].*\.", one.words)
        assert one.parts
        assert ids.issuperset(one.parts)
        for cure in one.cures:
            edit = read_edit(cure.edit.model_dump(mode="json"))
            mended = of_kind(kind, applied(edit, shown, Surroundings()))
            assert (one.words, one.parts) not in [(other.words, other.parts) for other in mended], cure.words
    assert any(one.cures for one in found)


def test_what_needs_nothing_is_told_nothing():
    assert found_in(resolve(KIT, control(part(Box(width=30, height=20, radius=5), INK, Outline(id="e2"))))) == ()


def test_the_most_severe_comes_first_in_every_sample():
    kit = wendmere_lock()
    for shown in kit.controls:
        severities = [SEVERITIES.index(one.severity) for one in found_in(resolve(kit.settings(), shown))]
        assert severities == sorted(severities)


def test_a_locked_part_is_not_offered_to_be_moved():
    (found,) = of_kind("off-canvas", control(part(Box(width=30, height=20), INK, x=-40, locked=True)))
    assert not found.cures


def test_a_part_too_large_for_the_canvas_is_not_offered_to_be_moved_onto_it():
    (found,) = of_kind("off-canvas", control(part(Box(width=90, height=20), INK)))
    assert not found.cures
    assert "partly" in found.words


def test_a_body_that_grows_in_a_state_by_itself_jumps_and_one_that_was_moved_does_not():
    body = part(Box(width=10, height=20), solid("#204060"), follows=(
        Follow(path="shape/width", source="p2", offset=20, own_words=True),))  # fmt: skip
    key = control(body, part(Text(words="Go"), solid("#ffffff")))
    for edit in (
        {"kind": "add-state", "name": "On"},
        {"kind": "in-states", "states": ["on"], "edit": {
            "kind": "set", "changes": [{"path": "parts/p2/shape/words", "value": "Gone"}]}},
        {"kind": "in-states", "states": ["on"], "edit": {"kind": "move", "parts": ["p1", "p2"], "dx": 0, "dy": 1}},
    ):  # fmt: skip
        key = applied(read_edit(edit), key, Surroundings())
    (found,) = (one for one in found_in_state(key, "on", resolve(KIT, key, "on")) if one.kind == "jumps")
    assert "“Part” is" in found.words
    assert "px wider than at rest" in found.words
    assert [one.words for _, one in check(KIT, [key]) if one.kind == "jumps"] == [f"On: {found.words}"]
    mended = applied(found.cures[0].edit, key, Surroundings())
    assert not list(jumps(mended, "on"))
