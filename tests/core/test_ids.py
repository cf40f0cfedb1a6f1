"""Ids are given by the model from what is there: in every document, by every edit."""

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from obrell.core.document.model import Control, Guide
from obrell.core.document.numbering import next_number
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.edit.panels import read_panel_edit
from obrell.core.errors import ObrellError
from obrell.core.shapes import Round
from obrell.core.values.differences import Extra
from obrell.core.values.numbers import HIGHEST
from obrell.samples.wendmere_lock import wendmere_lock
from tests.generating import values
from tests.making import control, part, solid
from tests.web.house import busy
from tests.web.test_law_of_edits import AnyEdit, kind_of, kinds

FEW = settings(max_examples=3, suppress_health_check=list(HealthCheck))
COUNTED, UNCOUNTED = busy(), busy().evolve(next_number=1)


def outcome(document: Control, wish: dict) -> tuple[object, ...]:
    """What an edit makes of a document, without the counter: the document, or words."""
    try:
        return applied(read_edit(wish), document, Surroundings()).evolve(next_number=1), ""
    except ObrellError as error:
        return None, str(error)


@pytest.mark.parametrize("kind", kinds(AnyEdit), ids=kind_of)
@FEW
@given(data=st.data())
def test_any_edit_does_the_same_to_a_document_without_its_counter(kind, data):
    wish = data.draw(values(kind)) | {"kind": kind_of(kind)}
    wrapped = {"kind": "in-states", "states": ["hover"], "edit": wish}
    for one in (wish, wrapped):
        assert outcome(UNCOUNTED, one) == outcome(COUNTED, one)


@pytest.mark.parametrize("sample", wendmere_lock().controls, ids=lambda one: one.id)
def test_parts_and_effects_can_be_added_to_any_document_without_its_counter(sample):
    here = sample.evolve(next_number=1)
    for one in here.parts:
        if not one.locked:
            here = applied(read_edit({"kind": "add-effect", "part": one.id, "effect": "gloss"}), here, Surroundings())
    made = applied(read_edit({"kind": "duplicate", "parts": [here.parts[0].id]}), here, Surroundings())
    old = {one.id for one in here.parts}
    assert old < {one.id for one in made.parts}


def test_numbers_of_kept_looks_guides_and_what_states_add_are_not_given_again():
    extra = Extra(path="parts/p31", value={"id": "p31", "effects": [{"id": "e40"}]})
    here = control(part(Round(), solid("#102030")))
    assert next_number(here.evolve(next_number=1)) > 1
    assert next_number(here.evolve(next_number=1, guides=(Guide(id="g19", axis="down"),))) == 20
    state = {"id": "hover", "name": "Hover", "differences": (extra,)}
    assert next_number(Control.model_validate(here.model_dump() | {"states": [state], "next_number": 1})) == 41


def test_beyond_the_highest_number_the_lowest_free_one_is_given():
    here = control(part(Round())).evolve(next_number=HIGHEST * 10)
    assert next_number(here) < 100
    made = applied(read_edit({"kind": "duplicate", "parts": ["p1"]}), here, Surroundings())
    assert len({one.id for one in made.parts}) == 2


@pytest.mark.parametrize("panel", wendmere_lock().panels, ids=lambda one: one.id)
def test_controls_can_be_copied_on_any_panel_without_its_counter(panel):
    controls = {one.id: one for one in wendmere_lock().controls}
    here = panel.evolve(next_number=1)
    for one in panel.placements:
        here = read_panel_edit({"kind": "copy", "placements": [one.id]}).apply(here, controls)
    ids = [one.id for one in (*here.placements, *here.fixtures)]
    assert len(ids) == len(set(ids)) == 2 * len(panel.placements) + len(panel.fixtures)
