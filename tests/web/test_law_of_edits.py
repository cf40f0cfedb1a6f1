"""What is refused is not stored, and what is stored can be shown: every kind of edit, through the routes."""

import os
from base64 import b64encode
from collections.abc import Iterator
from typing import Any, get_args
from unittest.mock import Mock

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import BaseModel

from obrell.core.edit import AnyEdit
from obrell.core.edit.panels import AnyPanelEdit
from obrell.core.text.fonts import FONT_FOLDER
from obrell.samples.wendmere_lock import wendmere_lock
from tests.generating import values
from tests.making import png, slope
from tests.web.house import House, busy

EXAMPLES = int(os.environ.get("OBRELL_LAW", "3"))
"""How many edits of each kind; ``make soak`` asks for more."""
EVERY = max(1, 12 // EXAMPLES)
"""Every how many-th end of a field is tried."""
PATIENT = settings(max_examples=EXAMPLES, suppress_health_check=list(HealthCheck))


def kinds(union: Any) -> list[type[BaseModel]]:
    return list(get_args(get_args(union)[0]))


def kind_of(kind: type[BaseModel]) -> str:
    return kind.model_fields["kind"].default


@pytest.fixture(scope="module")
def house(tmp_path_factory):
    made = House(tmp_path_factory.mktemp("law"))
    yield made
    made.close()


def held(house, address, undo, wish):
    """The law, for one edit."""
    before = house.stored()
    answer = house.post(f"{address}/edits", edit=wish)
    assert answer.status_code < 500, (wish, answer.text[:300])
    if answer.status_code >= 400:
        assert house.stored() == before, wish
        assert "be ours" not in answer.text
        return
    house.check_all()
    answer = house.post(f"{undo}/steps/undo")
    assert answer.status_code == 200, (wish, answer.text[:300])


WRAPPERS = (
    lambda edit: edit,
    lambda edit: edit,
    lambda edit: {"kind": "in-states", "states": ["hover"], "edit": edit},
    lambda edit: {"kind": "in-editions", "editions": ["small"], "edit": edit},
)


@pytest.mark.parametrize("kind", kinds(AnyEdit), ids=kind_of)
@PATIENT
@given(data=st.data())
def test_any_edit_of_a_control(house, kind, data):
    wish = data.draw(values(kind)) | {"kind": kind_of(kind)}
    held(house, house.bench, house.bench, data.draw(st.sampled_from(WRAPPERS))(wish))


@pytest.mark.parametrize("kind", kinds(AnyPanelEdit), ids=kind_of)
@PATIENT
@given(data=st.data())
def test_any_edit_of_a_panel(house, kind, data):
    wish = data.draw(values(kind)) | {"kind": kind_of(kind)}
    held(house, house.panel, house.panel, wish)


def ends(value: Any, at: str = "") -> Iterator[tuple[str, float]]:
    """Every number in a value by its path, at both ends of what its field takes."""
    for name, field in type(value).model_fields.items():
        inner, path = getattr(value, name), f"{at}{name}"
        limits = [one for meta in field.metadata for one in (meta, *getattr(meta, "metadata", ()))]
        if isinstance(inner, int | float) and not isinstance(inner, bool):
            yield from ((path, end) for end in _ends(limits, inner))
        elif isinstance(inner, BaseModel):
            yield from ends(inner, f"{path}/")
        elif isinstance(inner, tuple):
            for number, one in enumerate(inner):
                if isinstance(one, BaseModel):
                    yield from ends(one, f"{path}/{getattr(one, 'id', number)}/")


def _ends(limits: list[Any], now: float) -> Iterator[float]:
    for one in limits:
        for name, by in (("ge", 0.0), ("le", 0.0), ("gt", 1e-6), ("lt", -1e-6)):
            if getattr(one, name, None) is not None:
                yield getattr(one, name) + (by if isinstance(now, float) else int(by > 0) - int(by < 0))


CONTROL_ENDS = list(ends(busy()))[::EVERY]
PANEL_ENDS = list(ends(wendmere_lock().panels[0]))[::EVERY]


@pytest.mark.parametrize("first", range(0, len(CONTROL_ENDS), 40))
def test_every_number_of_a_control_at_its_ends(house, first):
    for path, value in CONTROL_ENDS[first : first + 40]:
        held(house, house.bench, house.bench, {"kind": "set", "changes": [{"path": path, "value": value}]})


@pytest.mark.parametrize("first", range(0, len(PANEL_ENDS), 40))
def test_every_number_of_a_panel_at_its_ends(house, first):
    for path, value in PANEL_ENDS[first : first + 40]:
        held(house, house.panel, house.panel, {"kind": "set", "path": path, "value": value})


MOVED = {"kind": "move", "parts": ["p1"], "dx": 1, "dy": 0}
ANSWERS = [
    ("obrell.web.bench.look_of", "/controls/c1/edits", MOVED),
    ("obrell.web.trial.screen_json", "/trial/panel/edits", {"kind": "set", "path": "width", "value": 321}),
    ("obrell.web.trial.screen_json", "/trial/panel/controls/c1/edits", MOVED),
]


@pytest.mark.parametrize(("answering", "address", "wish"), ANSWERS, ids=[address for _, address, _ in ANSWERS])
def test_an_edit_whose_answer_fails_is_not_stored_and_a_step_is_taken_all_the_same(
    house, monkeypatch, answering, address, wish
):
    wall, before = f"/kits/{house.kit}", house.stored()
    with monkeypatch.context() as patch:
        patch.setattr(answering, Mock(side_effect=RuntimeError("no answer")))
        assert house.post(f"{wall}{address}", edit=wish).status_code == 500
        assert house.stored() == before
    assert house.post(f"{wall}{address}", edit=wish).status_code == 200
    undo = house.panel if address == "/trial/panel/edits" else house.bench
    with monkeypatch.context() as patch:
        for one, _, _ in ANSWERS[:2]:
            patch.setattr(one, Mock(side_effect=RuntimeError("no answer")))
        patch.setattr("obrell.web.view.look_of", Mock(side_effect=RuntimeError("no answer")))
        answer = house.post(f"{undo}/steps/undo")
    assert (answer.status_code, answer.json()["lost"]) == (200, True)
    house.check_all()


PICTURE = png(slope(20, 10) // 2)
IN_SVG = (
    '<svg xmlns="http://www.w3.org/2000/svg"><image width="9" height="9" '
    f'href="data:image/png;base64,{b64encode(PICTURE).decode()}"/></svg>'
)
FONT = (FONT_FOLDER / "lora" / "cyrillic.woff2").read_bytes()
FILES = [
    ("/controls/gone/pictures", {"content": PICTURE}),
    ("/controls/c1/pictures?use=fill&path=parts/p9/fill", {"content": PICTURE}),
    ("/controls/c1/pictures?use=fill&path=name", {"content": PICTURE}),
    ("/controls/gone/pictures?use=reference", {"content": PICTURE}),
    ("/controls/gone/drawings", {"json": {"svg": IN_SVG}}),
    ("/gone/fonts", {"content": FONT}), ("/trial/gone/ground", {"files": {"file": PICTURE}}),
]  # fmt: skip


@pytest.mark.parametrize(("address", "sent"), FILES, ids=[address for address, _ in FILES])
def test_a_file_that_is_refused_is_not_stored(house, address, sent):
    before = house.stored()
    kit = f"/kits/{house.kit}" if not address.startswith("/gone") else "/kits"
    answer = house.client.post(f"{kit}{address}", **sent)
    assert 400 <= answer.status_code < 500, answer.text
    assert house.stored() == before


def test_a_file_goes_with_the_last_document_that_needs_it(house):
    bench = f"/kits/{house.kit}/controls/c2"  # which nothing follows
    before = house.kits.control(house.kit, "c2").control
    answer = house.client.post(f"{bench}/pictures?name=Slope.png", content=PICTURE)
    assert answer.status_code == 200, answer.text
    house.check_all()
    name = house.kits.control(house.kit, "c2").control.parts[-1].shape.file
    assert house.kits.file(name)
    house.post(f"{bench}/steps/undo")
    assert house.kits.file(name), "it can be done again"
    held(house, bench, bench, {"kind": "move", "parts": ["p1"], "dx": 1, "dy": 0})
    assert house.kits.file(name) is None
    assert house.kits.control(house.kit, "c2").control == before
