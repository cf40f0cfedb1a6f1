"""Whatever is asked of any route is answered, and never as a fault of ours."""

import logging
import os
import sqlite3
from collections import Counter
from pathlib import Path

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from starlette.testclient import TestClient

from obrell.core.disk.cache import CACHE
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.web.app import create_app
from tests.watching import watched

REAL = {
    "kit": ["wendmere-lock", "other", "c1"], "control": ["c1", "c2", "wendmere-lock"], "way": ["undo", "redo", "back"],
    "part": ["p1", "p2", "p1,p2", "gone", ""], "font": ["Lora", "0" * 32], "density": ["1", "2", "0", "nan", "1e9"],
    "effect": ["e1", "bevel", ""], "format": ["png", "svg", "gif"], "typed": ["2", "1e999", "3;4", "-1"],
    "lay": ["m-none", ""], "add": ["bevel", "nonsense"], "pattern": ["{control}", "../{control}", "{", ""],
    "panel": ["touch-panel", "form-page", "gone"], "placement": ["i1", "i6", "gone"],
    "source": ["upper-pound", "gone"], "start": ["form", "empty", "nonsense"],
    "state": ["rest", "pressed", "on+pressed"], "came": ["hover", "rest", ""],
    "sun": ["300", "-1", "nan"], "distance": ["2", "1e9"], "vision": ["protan", "tritan", "?"],
    "seen": ["{}", "{", '{"part": 3}'], "space": ["hex", "oklch", "?"], "value": ["#123", "1 2 3", "1e999 0 0", "x"],
}  # fmt: skip
"""Values that lead somewhere, by the name of what takes them; any others are tried too."""


KIT, HASHES = "wendmere-lock", []
OURS = [CACHE, Path("/dev"), Path("/proc")]
"""Where a server may write, with its database and its own temporary folder."""
EXAMPLES = int(os.environ.get("OBRELL_FUZZ", "6"))


@pytest.fixture(scope="module")
def schema(tmp_path_factory):
    app = create_app(tmp_path_factory.mktemp("fuzz") / "kits.db")
    OURS.extend((app.state.kits.path.parent, app.state.deliveries.folder))
    app.state.kits.import_kit(wendmere_lock())
    app.state.kits.add_kit("Other")
    app.include_router(app.state.rooms.router())  # so that the description has them; they answer where they stand
    made = schemathesis.openapi.from_dict(app.openapi())
    made.app = app
    made.looking = sqlite3.connect(app.state.kits.path)
    REAL["index"], stored = [app.state.kits.index_hash(KIT)], app.state.kits.controls(KIT)
    HASHES.extend(one.hash for one in stored)
    made.config.update(base_url="http://127.0.0.1:8420")
    yield made
    made.looking.close()
    app.state.kits.close()
    app.state.memory.close()


def test_no_request_is_answered_with_a_fault(schema, caplog):
    caplog.set_level(logging.CRITICAL)
    kits, good = schema.app.state.kits, Counter()
    assert len(list(schema.get_all_operations())) > 90, "the routes of all rooms are asked"
    for found in schema.get_all_operations():

        @settings(max_examples=EXAMPLES, suppress_health_check=list(HealthCheck))
        @given(case=found.ok().as_strategy())
        def ask(case):
            before = writes(schema)
            with watched() as touched:
                answer = case.call()
            foreign = [path for path in touched if not any(path.is_relative_to(place) for place in OURS)]
            assert not foreign, (case.as_curl_command(), foreign)
            good[case.operation.label] += answer.status_code < 400
            assert answer.status_code < 500, (case.as_curl_command(), answer.text[:400])
            if answer.status_code >= 400 or case.method.upper() == "GET":
                assert writes(schema) == before, (case.as_curl_command(), "is refused, or only looks, and writes")

        kits.set_removed(KIT, False)
        wanted = ("c1", "c2")
        while not set(wanted) <= set(kits.index(KIT).order):
            kits.undo(KIT)
        before = writes(schema)
        ask()
        if writes(schema) != before and KIT in {kit.id for kit in kits.names() if not kit.removed}:
            check_shown(schema.app)
    assert sum(count > 0 for count in good.values()) > len(good) / 2, "most routes are asked for what is there"


def writes(schema):
    """A number that is another when something was stored since (SQLite, PRAGMA data_version)."""
    return schema.looking.execute("PRAGMA data_version").fetchone()[0]


def check_shown(app):
    """What is stored can be shown, whatever it has become."""
    client = TestClient(app, base_url="http://127.0.0.1:8420", raise_server_exceptions=False)
    index = app.state.kits.index(KIT)
    places = [f"/kits/{KIT}", f"/kits/{KIT}/export", *(f"/kits/{KIT}/controls/{one}" for one in index.order[:2])]
    for place in (*places, *(f"/kits/{KIT}/trial/{panel.id}" for panel in index.panels[:1])):
        assert client.get(place).status_code < 400, place


@schemathesis.hook
def map_path_parameters(_context, path_parameters):
    return _led(path_parameters)


@schemathesis.hook
def map_query(_context, query):
    return _led(query)


def _led(values):
    """Most of the values are replaced by real ones, told by what stands there; the first of them most often."""
    if not values:
        return values
    chosen = {}
    for name, value in values.items():
        real = HASHES if name == "control" and "index" in values else REAL.get(name, [])
        number = sum(map(ord, repr(value)))
        chosen[name] = real[number // 5 % len(real) if number % 3 else 0] if real and number % 5 else value
    return chosen
